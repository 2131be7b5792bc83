"""The proof of a piece: each size as it was made, against what rules it."""

import contextlib
import math

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.in_inches import in_inches
from machinon.core.job.at_dial import told_apart
from machinon.core.job.fit_plan import (
    FitPlan,
    cut_as_drawn,
)
from machinon.core.job.made_here import aids_of, holes_of
from machinon.core.job.made_piece import (
    ruled_by_fits,
)
from machinon.core.job.plan import Plan
from machinon.core.job.proof import (
    SAYS,
    ProofLine,
    of_several,
    overall,
    proof_line,
    runout_answer,
)
from machinon.core.reckoning import reckon
from machinon.core.shop.things import (
    Surface,
)
from machinon.core.survey.measuring import Measured, measure


def as_cut(plan: Plan, fit: FitPlan, at_dial: str) -> ProofLine | None:
    """A fit's new half, or a size, as it came out at the machine; None where it was not
    cut. at_dial: the name of its log."""
    log = plan.job.cuts.get(at_dial)
    if log is None:
        return None
    last = log.true.last_read
    size = last.measured if last else None
    if size is None:
        return None
    doubt = 0.02
    with contextlib.suppress(BadInput):
        gauge = plan.shop.instrument(log.instrument)
        doubt = 2 * math.hypot(*told_apart(gauge, log.checked))
    line = proof_line(
        at_dial,
        fit.choice.name,
        fit.choice.number,
        fit.lower,
        fit.upper,
        None,
        size,
        doubt,
        log.trial,
        by_trial=fit.could_fit is not None,
    )
    external = fit.choice.exists == "hole"
    if log.pending and not log.trial:
        return replace(line, verdict="open", says="cut since it was read: measure it")
    if fit.lower is None or fit.upper is None:
        return line
    if size > fit.upper if external else size < fit.lower:
        # there is metal left to cut: that is no failed size
        return replace(line, verdict="open", says="not in its band yet")
    return line


def _cut_to_size(plan: Plan, fit: FitPlan, surface: Surface) -> ProofLine | None:
    """The size as it came out at the machine, once no metal is left to cut."""
    line = as_cut(plan, fit, plan.job.work.log_of(surface.id))
    return line if line is not None and line.verdict != "open" else None


def proved(plan: Plan) -> Plan:
    """The plan with the proof of what its bands rule."""
    job, made = plan.job, plan.made
    found = (_line_of(plan, surface) for surface in job.proof.surfaces)
    lines = [line for line in found if line is not None]
    if not lines and (made is None or job.fits):
        return plan
    runs = made is not None and made.family.runs
    runout = runout_answer(job.proof.runout)
    undone = tuple(
        step.title for up in plan.route for step in up.steps if step.key not in job.done
    )
    threaded = made is not None and any(s.joint == "thread" for s in made.family.fits)
    verdict, says = overall(
        lines,
        job.proof.thread_tried or not threaded,
        runout,
        job.proof.runout_limit,
        undone,
        job.proof.undone_because,
        runs,
        plan.shop.inch,
    )
    if plan.shop.inch:  # but not what a person typed
        lines = [
            line
            if line.key in job.proof.accepted
            else replace(line, says=in_inches(line.says, fine=True))
            for line in lines
        ]
    return replace(
        plan, proof=tuple(lines), runout=runout, verdict=verdict, verdict_says=says
    )


def _line_of(plan: Plan, surface: Surface) -> ProofLine | None:
    """The proof of what was measured on a surface, on each of several pieces alike;
    None where nothing rules it."""
    if plan.job.count == 1:
        return _line_of_one(plan, surface)
    each = [
        _line_of_one(plan, replace(surface, readings=(reading,)))
        for reading in surface.readings
        if not reading.struck
    ]
    name = plan.job.work.log_of(surface.id)
    if not each and name in plan.job.cuts:
        cuts = plan.job.cuts
        for log in cuts[name].all:
            job = replace(plan.job, cuts={**cuts, name: log})
            each.append(_line_of_one(replace(plan, job=job), surface))
    found = [line for line in each if line is not None and line.size is not None]
    if not found:
        return _line_of_one(plan, surface)
    return of_several(found, plan.job.count)


def _line_of_one(plan: Plan, surface: Surface) -> ProofLine | None:
    """The proof of what was measured on a surface of one piece."""
    measured = measure(surface, plan.shop, plan.made.material if plan.made else "steel")
    if surface.id.startswith("size."):
        return _size_line(plan, surface, measured)
    number = int(surface.id[4:]) if surface.id.startswith("fit.") else 0
    for fit in plan.fits:
        if fit.choice.number == number:
            return _fit_line(plan, surface, fit, measured)
    for band in plan.made.fits if plan.made else ():
        if surface.id == f"chain.{band.slot.key}":
            return _banded(plan, surface, (band.lower, band.upper), measured)
    return None


def _fit_line(
    plan: Plan, surface: Surface, fit: FitPlan, measured: Measured | None
) -> ProofLine:
    """The proof of the new half of a fit."""
    if fit.choice.kind == "bolts":
        return _circle_line(plan, surface, fit, measured)
    # the last reading at the dial stands until it is measured again
    cut = None if measured is not None else _cut_to_size(plan, fit, surface)
    ends = fit.lower, fit.upper
    return _banded(plan, surface, ends, measured, cut, fit)


def _banded(
    plan: Plan,
    surface: Surface,
    ends: tuple[float | None, float | None],
    measured: Measured | None,
    cut: ProofLine | None = None,
    fit: FitPlan | None = None,
) -> ProofLine:
    """A size against its band; cut: as it came out at the machine."""
    proof, number = plan.job.proof, fit.choice.number if fit else 0
    log = plan.job.cuts.get(str(number))
    return proof_line(
        surface.id,
        surface.name,
        number,
        *ends,
        measured,
        cut.size if cut else None,
        cut.doubt if cut else 0.0,
        tried=proof.tried.get(surface.id, "") or (log.trial if log else ""),
        accepted=proof.accepted.get(surface.id, ""),
        by_trial=fit is not None and fit.could_fit is not None,
    )


def _size_line(plan: Plan, surface: Surface, measured: Measured | None) -> ProofLine:
    """The proof of a size that no fit rules: what others are made to is right as it is,
    the rest within what the drawing allows."""
    made, key = plan.made, surface.id.removeprefix("size.")
    rests = {fit.choice.surface for fit in plan.fits if fit.choice.piece == _mate(plan)}
    form = made.family.form_of(key) if made else ""
    if form not in rests:
        ends: tuple[float | None, float | None] = (None, None)
        if made and key in made.sizes and isinstance(made.values[key], int | float):
            ends = made.allowed(key)
        size = cut_as_drawn(made, key, plan.shop) if made and measured is None else None
        cut = _cut_to_size(plan, size, surface) if size is not None else None
        return proof_line(
            surface.id,
            surface.name,
            0,
            *ends,
            measured,
            cut.size if cut else None,
            cut.doubt if cut else 0.0,
            tried=plan.job.proof.tried.get(surface.id, ""),
            accepted=plan.job.proof.accepted.get(surface.id, ""),
        )
    measured = plan.measured.get((_mate(plan), form))
    if measured is None or measured.drawn:
        holes = holes_of(made, key) if made else None
        says = f"{SAYS['open']}: {holes.says}" if holes else SAYS["open"]
        return ProofLine(
            surface.id, surface.name, 0, None, None, None, None, 0.0, "open", says
        )
    return ProofLine(
        surface.id,
        surface.name,
        0,
        None,
        None,
        measured,
        measured.size,
        measured.uncertainty,
        "proved",
        "as made: what goes on it is made to this",
    )


def _mate(plan: Plan) -> str:
    """The piece at hand as a mate of others."""
    return plan.job.work.as_mate


def _circle_line(
    plan: Plan, surface: Surface, fit: FitPlan, span: Measured | None
) -> ProofLine:
    """The proof of a bolt circle by the span over two of its holes as made."""
    circle, doubt = None, 0.0
    made, number = plan.made, fit.choice.number
    key = ruled_by_fits(made).get(number, "") if made else ""
    holes = holes_of(made, key) if made else None
    if span is not None and holes is not None:
        with contextlib.suppress(BadInput):  # a span that no circle has
            asked = {"span": span.size, **aids_of(holes)}
            circle = float(reckon("hole-span", asked)["diameter"])
            doubt = span.uncertainty / math.sin(math.pi / holes.count)
    line = proof_line(
        surface.id,
        surface.name,
        fit.choice.number,
        fit.lower,
        fit.upper,
        span if circle is not None else None,
        circle,
        doubt,
        tried=plan.job.proof.tried.get(surface.id, ""),
        accepted=plan.job.proof.accepted.get(surface.id, ""),
    )
    if span is None and holes is not None:
        line = replace(line, says=f"not measured yet: {holes.says}")
    return line
