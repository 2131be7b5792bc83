"""The open points of each stage of a job, in the order of work."""

from collections.abc import Callable, Iterator

from msgspec.structs import replace

from machinon.core.job.as_made import as_cut
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.job import Stage
from machinon.core.job.made_piece import ruled_by_fits, told_of
from machinon.core.job.plan import Plan


def with_open(plan: Plan) -> Plan:
    """The plan with what is still open in each stage, in the order of work."""
    left: dict[Stage, Callable[[Plan], Iterator[str]]] = {
        "survey": _to_measure,
        "fits": _to_decide,
        "piece": _to_draw,
        "route": _to_do,
        "cut": _to_cut,
        "proof": _to_prove,
    }
    return replace(plan, open={stage: tuple(of(plan)) for stage, of in left.items()})


def _to_measure(plan: Plan) -> Iterator[str]:
    for piece in plan.pieces.values():
        for surface in piece.surfaces:
            found = plan.measured[piece.id, surface.id]
            if found is None:
                yield f"{piece.names(surface)}: not measured yet."
            elif found.refused:
                yield f"{piece.names(surface)}: {found.refused}"
            elif found.doubts:
                yield f"{piece.names(surface)}: a reading disagrees."
    alone = plan.made is not None  # it needs no mate to be drawn
    if not alone and not any(piece.surfaces for piece in plan.pieces.values()):
        yield "Nothing that exists is entered yet."


def _to_decide(plan: Plan) -> Iterator[str]:
    if plan.made is None and not plan.fits:
        yield "No fit is decided yet."
    for fit in plan.fits:
        text = _undecided(plan, fit)
        if text:
            yield f"Fit {fit.choice.number}: {text}"


def _undecided(plan: Plan, fit: FitPlan) -> str:
    """The open question of a fit; empty for none."""
    text = fit.problem or fit.contradiction or fit.unsaid
    if text:
        return text
    begun = fit.could_fit is not None and str(fit.choice.number) in plan.job.cuts
    if fit.spent and not begun:
        return "nothing is left of its band."
    grave = (
        [effect.name for effect in fit.joined.effects if effect.grave]
        if fit.joined
        else []
    )
    if fit.joined and grave:
        return next(iter(fit.joined.advice), f"{grave[0]}: see why.")
    return ""


def _to_draw(plan: Plan) -> Iterator[str]:
    if plan.job.making is None:
        return
    if plan.missing:
        yield f"Not known yet: {told_of(plan.missing)}."
    if plan.problem:
        yield plan.problem
    yield from (check.says for check in plan.failed)


def _to_do(plan: Plan) -> Iterator[str]:
    if plan.job.making is None:
        return
    if plan.made is None:
        yield "The piece is not known yet."
    steps = [step.key for holding in plan.route for step in holding.steps]
    left = [key for key in steps if key not in plan.job.done]
    if left:
        yield f"{len(left)} of {len(steps)} steps to do."


def _to_cut(plan: Plan) -> Iterator[str]:
    found = [*_still_to_make(plan), *_at_the_machine(plan)]
    # each step is worked there
    yield from found or (_to_do(plan) if plan.made is not None else ())


def _at_the_machine(plan: Plan) -> Iterator[str]:
    if plan.at_step is not None and plan.at_step.key not in plan.job.done:
        yield f"At the machine: {plan.at_step.title}."
    if plan.at_machine is not None:
        line = as_cut(plan, plan.at_machine, plan.job.at_dial)
        if line is None or line.verdict != "proved":
            says = line.says if line else "not cut yet"
            yield f"{plan.at_machine.choice.name}: {says}."


def _to_prove(plan: Plan) -> Iterator[str]:
    if plan.verdict_says and plan.verdict != "proved":
        yield plan.verdict_says
    elif plan.verdict_says and plan.job.making is not None and not plan.job.kept_as:
        yield "Proved, not yet put into the shop."


def _still_to_make(plan: Plan) -> Iterator[str]:
    """The fits of the piece whose other half is made here too and only drawn yet."""
    ruled = ruled_by_fits(plan.made) if plan.made else {}
    for fit in plan.fits:
        if fit.choice.number in ruled and fit.mate is not None and fit.mate.drawn:
            surface, mate = plan.existing(fit), plan.standing[fit.choice.piece]
            half = mate.names(surface) if surface else mate.name
            yield (
                f"Fit {fit.choice.number}: its mate is only drawn yet ({half}). Make "
                "and measure it first, then this is cut to it."
            )
