"""Proof: what was made against what was wanted, and how it runs."""

from collections.abc import Sequence
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.in_inches import in_inches
from machinon.core.quantity import length_range, length_text
from machinon.core.reckoning import Answer, reckon
from machinon.core.survey.measuring import Measured
from machinon.core.wording import within

Verdict = Literal["open", "proved", "near", "failed"]


class ProofLine(Struct, frozen=True):
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
    """The verdict on a measured size against its band, with its uncertainty.

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
    "near": "outside by less than the uncertainty: read again with a surer gauge, "
    "try the mate, or accept it with a reason",
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
    tried: str = "",
    accepted: str = "",
    by_trial: bool = False,
) -> ProofLine:
    """A line from a measured surface; size and doubt where a sum was done on it.

    tried: how the mate went on, which closes what the gauge cannot; accepted: why
    a size within the uncertainty is taken; by_trial: no band is left, the mate decides.
    """
    if measured is not None and size is None:
        size, doubt = measured.size, measured.uncertainty
    if by_trial and size is not None:
        verdict, says = _BY_TRIAL[tried]
        return ProofLine(
            key, name, fit, lower, upper, measured, size, doubt, verdict, says
        )
    if size is None or lower is None or upper is None:
        says = SAYS["open"] if size is None else "its fit has no band yet"
        return ProofLine(
            key, name, fit, lower, upper, measured, size, doubt, "open", says
        )
    verdict = judge(size, doubt, lower, upper)
    says = SAYS[verdict]
    if verdict == "proved" and 2 * doubt > upper - lower:
        # a gauge wider than the band proves nothing by itself
        verdict = "near"
        says = (
            f"the gauge's ±{doubt * 1000:.0f} µm is wider than the band of "
            f"{(upper - lower) * 1000:.0f} µm: the mate decides, or a surer gauge"
        )
    if verdict == "proved" and measured is not None and measured.doubts:
        # what was set apart must not prove a size by being left out
        verdict = "near"
        says = "its readings disagree: read it again, or begin this one again"
    if tried in ("tight", "loose") and verdict != "failed":
        verdict, says = "near", f"the mate is {tried}: " + _TRIED[tried]
    elif verdict == "near" and tried == "goes on":
        verdict, says = (
            "proved",
            "the mate goes on, which settles what the gauge cannot tell",
        )
    elif verdict == "near" and accepted:
        verdict, says = "proved", f"within the uncertainty, accepted: {accepted}"
    return ProofLine(key, name, fit, lower, upper, measured, size, doubt, verdict, says)


def of_several(lines: Sequence[ProofLine], count: int) -> ProofLine:
    """The line of pieces alike, from a line for each that was read: the worst of them
    decides, and none is proved before all are read."""
    grave: tuple[Verdict, ...] = ("proved", "open", "near", "failed")
    worst = max(lines, key=lambda line: (grave.index(line.verdict), _off_middle(line)))
    sizes = [line.size for line in lines if line.size is not None]
    low, high = min(sizes), max(sizes)
    span = length_range(low, high) if low < high else length_text(low, 0.001)
    read = f"{len(sizes)} of {count} read, {span}"
    if worst.verdict == "proved" and len(sizes) < count:
        return replace(worst, verdict="open", says=read)
    return replace(worst, says=f"{read}: {worst.says}")


def _off_middle(line: ProofLine) -> float:
    """How far a size lies from the middle of its band, mm."""
    if line.size is None or line.lower is None or line.upper is None:
        return 0.0
    return abs(line.size - (line.lower + line.upper) / 2)


_BY_TRIAL: dict[str, tuple[Verdict, str]] = {
    "": ("open", "no band is left: its mate has still to be tried"),
    "goes on": ("proved", "cut to its mate by trial: it goes on"),
    "tight": ("open", "still tight on its mate: a little more"),
    "loose": ("failed", "loose on its mate: read both halves again before deciding"),
}
_TRIED = {
    "tight": "look for a burr or a warm part, clean both, try again",
    "loose": "read both halves again before deciding",
}


def runout_answer(readings: Sequence[float]) -> Answer | None:
    """The `runout` reckoning of the readings; None below three of them."""
    if len(readings) < 3:
        return None
    return reckon("runout", {"readings": list(readings)})


def overall(
    lines: Sequence[ProofLine],
    thread_tried: bool,
    runout: Answer | None,
    limit: float,
    undone: Sequence[str] = (),
    undone_because: str = "",
    runs: bool = True,
    inch: bool = False,
) -> tuple[Verdict, str]:
    """The verdict on the whole piece and the sentence for it.

    runs: whether it has to run true; undone: titles of steps that are not done; nothing
    is proved with them unless it was said why; inch: whether it speaks of inches.
    """
    if any(line.verdict == "failed" for line in lines):
        bad = ", ".join(line.name for line in lines if line.verdict == "failed")
        return "failed", f"Not proved: {bad} outside its band."
    if runout is not None and runout["tir"] > limit:
        says = (
            f"Not proved: it runs out {runout['tir'] * 1000:.0f} µm, "
            f"{limit * 1000:.0f} µm is allowed. Clean both seats and "
            "mount it again before believing this."
        )
        return "failed", in_inches(says) if inch else says
    open_lines = [within(line.name) for line in lines if line.verdict == "open"]
    if not thread_tried:
        open_lines.append("thread tried home")
    if runs and runout is None:
        open_lines.append("run-out")
    if open_lines:
        return "open", "Still to prove: " + ", ".join(open_lines) + "."
    if any(line.verdict == "near" for line in lines):
        return (
            "near",
            "Within the measuring uncertainty: the decision is beside its line.",
        )
    if undone and not undone_because:
        more = f" and {len(undone) - 2} more" if len(undone) > 2 else ""
        return "open", (
            f"Steps not done: {'; '.join(undone[:2])}{more}. Tick them in Route, or "
            "say below why they were left out."
        )
    left_out = f" {len(undone)} steps left out: {undone_because}." if undone else ""
    true = ", and it runs true" if runs else ""
    if not lines:
        return (
            "proved",
            f"Made to its drawing{true}: no mate rules its sizes.{left_out}",
        )
    return "proved", f"Proved: every fit in its band{true}.{left_out}"
