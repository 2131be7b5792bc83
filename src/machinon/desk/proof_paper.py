"""The proof on paper: the drawing, every size against its band, and how it runs."""

from collections.abc import Iterator
from pathlib import Path

from PySide6.QtGui import QPainter

from machinon.core.errors import MachinonError
from machinon.core.job.plan import Plan
from machinon.core.job.proof import ProofLine
from machinon.core.job.true_running import stations
from machinon.core.quantity import length_text, small_text
from machinon.core.setting_out.runout import resolve, tells_oval
from machinon.core.threads.thread_limits import with_class
from machinon.desk.painter import paint_mark
from machinon.desk.paper_parts import (
    Part,
    abreast,
    column,
    drawn,
    gap,
    words,
    write_parts,
)
from machinon.desk.sheet import A4_UPRIGHT, CAUTION, DOUBT
from machinon.desk.theme import PRINT
from machinon.draw.charts import rose_drawing
from machinon.draw.drawing import Mark
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.proof_drawing import VERDICTS, band_drawing

# page units: the drawing, a band and where the words beside it begin, the rose
DRAWING, BAND, BESIDE, ROSE = 330.0, 66.0, 430.0, 250.0


def write_proof(plan: Plan, path: Path) -> None:
    """The proof of a piece as PDF. Raises MachinonError where there is nothing to prove
    or it cannot be written."""
    if not plan.verdict_says:
        raise MachinonError("There is nothing to prove yet: finish Survey and Fits.")
    made = plan.made
    caution = made.family.cautions.get("sheet", CAUTION) if made else CAUTION
    says = f"{plan.shop.name}   {plan.job.reason}"
    write_parts(path, plan.job.name, says, (caution, DOUBT), list(_parts(plan)))


def _parts(plan: Plan) -> Iterator[Part]:
    inch, made = plan.shop.inch, plan.made
    yield _verdict(plan)
    if made is not None:
        page, angle = (A4_UPRIGHT[0], DRAWING, 8.5), plan.shop.first_angle
        yield drawn(piece_sheet(made, *page, inch, True, first_angle=angle))
    if plan.proof:
        yield words("Made, against what the mates want", 15, bold=True, leads=True)
        yield gap(6, leads=True)
    yield from (_line(line, inch) for line in plan.proof)
    own = made.numbers.values() if made is not None else ()
    for fit in plan.fits:
        if fit.thread is None or fit.choice.number not in own:
            continue
        home = plan.job.proof.thread_tried
        tried = "screwed home, seats on the shoulder" if home else "not tried yet"
        yield words(f"Thread {with_class(fit.thread, fit.thread_class)}: {tried}", 12)
    yield gap(8)
    mates = [
        f"Mate of fit {fit.choice.number}: "
        f"{length_text(fit.mate.size, fit.mate.step, inch)} ± "
        f"{small_text(fit.mate.uncertainty, inch)}"
        for fit in plan.fits
        if fit.mate is not None
    ]
    if made is not None:
        grave = f"{len(plan.failed)} of {len(plan.checks)} checks fail"
        fine = f"All {len(plan.checks)} checks of the drawing pass"
        mates.append(grave if plan.failed else fine)
    if made is None or not made.family.runs:
        yield from (words(text, 12) for text in mates)
        return
    yield words("How it runs", 15, bold=True, leads=True)
    proof = plan.job.proof
    found = resolve(proof.runout) if len(proof.runout) >= 3 else None
    limit = proof.runout_limit
    rose = rose_drawing(proof.runout, found, limit, ROSE, ROSE, 10, inch)
    told = [
        column([words(text, 12, x=ROSE + 30), gap(4)]) for text in _runs(plan) + mates
    ]
    yield abreast(drawn(rose), column([gap(16), *told]))


def _verdict(plan: Plan) -> Part:
    """What is proved and what is not, with its mark."""
    kind = VERDICTS.get(plan.verdict)
    said = words(plan.verdict_says, 14, kind or "text", True, x=32 if kind else 0.0)

    def draw(painter: QPainter, top: float) -> None:
        if kind:
            paint_mark(painter, Mark((12, top + 10), kind, 22), PRINT)
        said.paint(painter, top)

    return Part(said.tall + 10, draw)


def _line(line: ProofLine, inch: bool) -> Part:
    """A size as made, on its band, and what that says."""
    told = [words(f"{line.name}: {line.says}", 11, x=BESIDE)]
    if line.measured is not None:
        count = line.measured.count
        many = f"{count} reading{'s' if count != 1 else ''}"
        spread = small_text(line.measured.spread, inch)
        told.append(words(f"{many}, spread {spread}", 11, "faint", x=BESIDE))
    band = band_drawing(line, BESIDE - 28, BAND, 11, inch)
    return abreast(drawn(band, below=4), column(told))


def _runs(plan: Plan) -> list[str]:
    """How it runs, in lines: as it may, and as it was measured."""
    inch = plan.shop.inch
    allowed = small_text(plan.job.proof.runout_limit, inch)
    lines = [f"Run-out allowed: {allowed} on the indicator"]
    lines += [
        f"Its seat allows up to {small_text(station.most, inch)}"
        for station in stations(plan)
        if not station.carried
    ]
    if plan.runout is None:
        return [*lines, "not measured yet"]
    return [
        *lines,
        f"Indicator, high less low: {small_text(plan.runout['tir'], inch)}",
        f"Offset of the centre: {small_text(plan.runout['eccentricity'], inch)}, "
        f"high side at {plan.runout['phase']:.0f}°",
        "Oval, on the diameter: "
        + (
            small_text(plan.runout["ovality"], inch)
            if tells_oval(plan.runout)
            else "too few readings to tell"
        ),
        f"Residual: {small_text(plan.runout['noise'], inch)}",
    ]
