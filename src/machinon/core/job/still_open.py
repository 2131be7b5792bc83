"""What is still open in each stage of a job, in the order of work."""

from collections.abc import Iterator

from msgspec.structs import replace

from machinon.core.job.as_made import as_cut
from machinon.core.job.job import STAGES, Stage
from machinon.core.job.made_piece import (
    ruled_by_fits,
    told_of,
)
from machinon.core.job.plan import Plan


def _steps_left(plan: Plan) -> list[str]:
    steps = [step.key for holding in plan.route for step in holding.steps]
    left = [key for key in steps if key not in plan.job.done]
    return [f"{len(left)} of {len(steps)} steps to do."] if left else []


def with_open(plan: Plan) -> Plan:
    """The plan with what is still open in each stage, in the order of work."""
    open_items: dict[Stage, list[str]] = {stage: [] for stage in STAGES}
    for piece in plan.pieces.values():
        for surface in piece.surfaces:
            found = plan.measured[piece.id, surface.id]
            if found is None:
                open_items["survey"].append(
                    f"{piece.names(surface)}: not measured yet."
                )
            elif found.refused:
                open_items["survey"].append(f"{piece.names(surface)}: {found.refused}")
            elif found.doubts:
                open_items["survey"].append(
                    f"{piece.names(surface)}: a reading disagrees."
                )
    alone = plan.made is not None  # it needs no mate to be drawn
    if not alone and not any(piece.surfaces for piece in plan.pieces.values()):
        open_items["survey"].append("Nothing that exists is entered yet.")
    if not alone and not plan.fits:
        open_items["fits"].append("No fit is decided yet.")
    for fit in plan.fits:
        text = fit.problem or fit.contradiction or fit.unsaid
        begun = fit.could_fit is not None and str(fit.choice.number) in plan.job.cuts
        if not text and fit.spent and not begun:
            text = "nothing is left of its band."
        if not text and fit.joined and any(e.grave for e in fit.joined.effects):
            grave = next(e.name for e in fit.joined.effects if e.grave)
            text = fit.joined.advice[0] if fit.joined.advice else f"{grave}: see why."
        if text:
            open_items["fits"].append(f"Fit {fit.choice.number}: {text}")
    if plan.job.making is not None:
        if plan.missing:
            open_items["piece"].append(f"Not known yet: {told_of(plan.missing)}.")
        if plan.problem:
            open_items["piece"].append(plan.problem)
        if plan.made is None:
            open_items["route"].append("The piece is not known yet.")
        open_items["piece"] += [check.says for check in plan.failed]
        open_items["route"] += _steps_left(plan)
    if plan.verdict_says:
        if plan.verdict != "proved":
            open_items["proof"].append(plan.verdict_says)
        elif plan.job.making is not None and not plan.job.kept_as:
            open_items["proof"].append("Proved, not yet put into the shop.")
    open_items["cut"] += _still_to_make(plan)
    if plan.at_step is not None and plan.at_step.key not in plan.job.done:
        open_items["cut"].append(f"At the machine: {plan.at_step.title}.")
    if plan.at_machine is not None:
        name = plan.at_machine.choice.name
        line = as_cut(plan, plan.at_machine, plan.job.at_dial)
        if line is None or line.verdict != "proved":
            says = line.says if line else "not cut yet"
            open_items["cut"].append(f"{name}: {says}.")
    if not open_items["cut"] and plan.made is not None:
        open_items["cut"] += _steps_left(plan)  # each is worked there
    return replace(
        plan, open={stage: tuple(items) for stage, items in open_items.items()}
    )


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
