"""Holes along the axis, drilled and tapped in the lathe.

Source: geometry; the lengths of drills as they are sold; shop rules.
"""

from machinon.core.piece.shown import Shown
from machinon.core.piece.turned_features import Bore, NutThread, TaperBore
from machinon.core.quantity import POWER, ROTATION, with_other
from machinon.core.reckoning import Answer
from machinon.core.route.drills import travel
from machinon.core.route.motor import power_of_drill, share_left
from machinon.core.route.steps import StepTold
from machinon.core.route.work.drilling import (
    STARTS,
    depth_shown,
    in_its_flutes,
    tip,
    to_the_left,
    turns_shown,
)
from machinon.core.route.work.lines import WorkLine, WorkList
from machinon.core.shop.things import Lathe
from machinon.core.sizes.drill_reach import reach_of
from machinon.core.threads.tapping import drill_named

OVER_FLOOR = 0.3  # mm that a drill stays over a floor that is bored flat
SHORT_OF_FLOOR = "It stops short of the flat floor: the bar faces that."
NEAR = 1e-6  # mm: what ends this near to an end of the work ends in it


def tapped_list(step: StepTold, nut: NutThread) -> WorkList:
    """A thread tapped along the axis, as deep as there is metal for it: from the floor
    of what is bored wider before it."""
    wider = [
        it.end - nut.start if it.start <= nut.start else nut.end - it.start
        for it in step.before.features
        if isinstance(it, Bore) and it.diameter > nut.of.major
        if it.start <= nut.start < it.end or it.start < nut.end <= it.end
    ]
    deep = max(nut.end - nut.start - sum(wider), 0.0)
    figures = depth_shown("Thread depth", deep), turns_shown(step.tap, deep)
    taper, plug = (
        WorkLine(key, head, figures, note)
        for key, head, note in (
            (
                "taper",
                "The taper tap, held true by the tailstock",
                "Turn it by hand, spindle locked, the centre following in its end. "
                f"Half a turn back at every turn or two.{to_the_left(nut.thread)}",
            ),
            ("plug", "Then the plug tap", "Clear the chips first; feel for the end."),
        )
    )
    return WorkList((taper, plug))


def _from_right(step: StepTold, bore: Bore | NutThread | TaperBore) -> bool:
    """Whether a hole along the axis opens to the right end of the work."""
    opens = bore.opens if isinstance(bore, Bore) else "both"
    return opens == "right" or travel(bore)[1] > step.before.ends[1] - NEAR


def _from_face(step: StepTold, bore: Bore | NutThread | TaperBore) -> float:
    """Depth of a drill along the axis, to its shoulder, mm: from the end of the work
    that it goes in at, through metal that is open there already."""
    first, last = step.before.ends
    start, end = travel(bore)
    if _from_right(step, bore):
        return last - start + step.past(start, inside=True)
    return end - first + step.past(end, inside=True)


def _faced_solid(step: StepTold, bore: Bore | NutThread | TaperBore) -> bool:
    """Whether nothing is open where a drill along the axis goes in."""
    first, last = step.before.ends
    right = step.out == "right" if step.out else _from_right(step, bore)
    return step.before.radii(last - NEAR if right else first + NEAR)[0] < NEAR


def _from_behind(left: float, reach: float) -> WorkLine:
    """The rest of a hole that goes through and is deeper than its drill; left: how deep
    that is at its full width, mm."""
    long = " A long drill, guided by both." if left > reach else ""
    return WorkLine(
        "behind",
        "The rest from the other end",
        (depth_shown("Left, about", left),),
        "Once it is turned round and faced there, set true by this hole; started with "
        f"a centre drill, the same drills until they meet.{long}",
    )


def drilled_list(
    step: StepTold, bore: Bore | NutThread | TaperBore, lathe: Lathe | None = None
) -> WorkList:
    """A hole along the axis, opened drill by drill, its depths from the face that the
    drill goes in at, and where the lathe's motor is too small for a usual feed."""
    deep = _from_face(step, bore)
    blind = isinstance(bore, Bore) and bore.pointed
    if isinstance(bore, NutThread):
        (start, end), (first, last) = bore.drilled, step.finished
        blind = start < bore.start and start > first + NEAR
        blind = blind or bore.end < end < last - NEAR
    lines, behind = [], []
    answers: list[Answer] = []
    there = step.opened
    if _faced_solid(step, bore):
        lines.append(
            WorkLine(
                "spot",
                "Start it with a centre drill",
                note=f"No deeper than its cone. {STARTS}",
            )
        )
    clears = (
        "Draw it out to clear the chips each time it has gone its own diameter deep."
    )
    for drill in step.drills:
        point = deep + tip(drill)
        if step.floored:  # no drill's point goes through it
            point = deep + tip(min(step.opened, drill)) - OVER_FLOOR
        shoulder = (depth_shown("To the shoulder", deep),) if blind else ()
        asked = (*shoulder, depth_shown("Point at", point))
        last = drill == step.drill
        open_behind = not blind and not step.floored
        figures, short = in_its_flutes(drill, asked, last, open_behind, rest="")
        floor = SHORT_OF_FLOOR if step.floored and last else ""
        note = " ".join(filter(None, (clears, short, floor)))
        if figures != asked and last:
            left = point - float(figures[-1].value)
            behind.append(_from_behind(left, reach_of(drill)))
        rpm = step.rpm_at("drill", drill)
        figures = (*figures, Shown("Speed", rpm, ROTATION, 1))
        if has := lathe.power if lathe else 0.0:
            power = power_of_drill(step, drill, rpm)
            needs = float(power["motor"]) * share_left(drill, there)
            if needs > has:
                answers.append(power)
                note = (
                    f"{note} Fed gently: at a usual feed it takes about "
                    f"{with_other(needs, POWER, inch=False)}, the motor has "
                    f"{with_other(has, POWER, inch=False)}."
                )
        there = drill
        head = f"Drill {drill_named(drill)}"
        lines.append(WorkLine(f"{drill:g}", head, figures, note))
    return WorkList((*lines, *behind), answers=tuple(answers))
