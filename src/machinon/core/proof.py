"""Proof: what was made against what was wanted, and how it runs."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from machinon.core.measuring import Measured
from machinon.core.reckoning import Answer, reckon

Verdict = Literal["open", "proved", "near", "failed"]


@dataclass(frozen=True, slots=True)
class ProofLine:
    """One line of the proof; mm. near: outside by less than the doubt."""

    key: str
    name: str
    fit: int
    lower: float | None
    upper: float | None
    measured: Measured | None
    size: float | None
    doubt: float
    verdict: Verdict
    says: str


def judge(size: float, doubt: float, lower: float, upper: float) -> Verdict:
    """Where a measured size stands to its band, its doubt considered.

    >>> judge(10.004, 0.002, 10.0, 10.01), judge(10.011, 0.002, 10.0, 10.01)
    ('proved', 'near')
    """
    if lower <= size <= upper:
        return "proved"
    if lower - doubt <= size <= upper + doubt:
        return "near"
    return "failed"


SAYS: dict[Verdict, str] = {
    "open": "not measured yet",
    "proved": "in its band",
    "near": "outside by less than the doubt: measure again or try the mate",
    "failed": "outside its band",
}


def proof_line(
    key: str,
    name: str,
    fit: int,
    lower: float | None,
    upper: float | None,
    measured: Measured | None,
    size: float | None = None,
    doubt: float = 0.0,
) -> ProofLine:
    """A line from a measured surface; size and doubt where a sum was done on it."""
    if measured is not None and size is None:
        size, doubt = measured.size, measured.uncertainty
    if size is None or lower is None or upper is None:
        says = SAYS["open"] if size is None else "its fit has no band yet"
        return ProofLine(
            key, name, fit, lower, upper, measured, size, doubt, "open", says
        )
    verdict = judge(size, doubt, lower, upper)
    says = SAYS[verdict]
    if verdict == "proved" and 2 * doubt > upper - lower:
        says += "; the gauge's doubt is wider than the band, so the mate decides"
    return ProofLine(key, name, fit, lower, upper, measured, size, doubt, verdict, says)


def runout_answer(readings: Sequence[float]) -> Answer | None:
    """The `runout` reckoning of the readings; None below three of them."""
    if len(readings) < 3:
        return None
    return reckon("runout", {"readings": list(readings)})


def overall(
    lines: Sequence[ProofLine], thread_tried: bool, runout: Answer | None, limit: float
) -> tuple[Verdict, str]:
    """The verdict on the whole piece and the sentence for it."""
    if any(line.verdict == "failed" for line in lines):
        bad = ", ".join(line.name for line in lines if line.verdict == "failed")
        return "failed", f"Not proved: {bad} outside its band."
    if runout is not None and runout["tir"] > limit:
        return "failed", (
            f"Not proved: it runs out {runout['tir'] * 1000:.0f} µm, "
            f"{limit * 1000:.0f} µm is allowed. Clean both seats and "
            "mount it again before believing this."
        )
    open_lines = [line.name.lower() for line in lines if line.verdict == "open"]
    if not thread_tried:
        open_lines.append("thread tried home")
    if runout is None:
        open_lines.append("run-out")
    if open_lines:
        return "open", "Still to prove: " + ", ".join(open_lines) + "."
    if any(line.verdict == "near" for line in lines):
        return "near", "Within the doubt of measuring. Try the mates and decide."
    return "proved", "Proved: every fit in its band, and it runs true."
