"""The piece as it stands at each step of its route, and what a tool passes on its way.

Told by the features alone: a section is a hundred times as dear.
"""

import math
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from typing import NamedTuple

from machinon.core.piece.body import Body
from machinon.core.piece.family import Holding, Step
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.made import Made
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    Ball,
    Bore,
    Cone,
    Cylinder,
    End,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.route.drills import drill_of, drilled_width
from machinon.core.route.order import AFTER_DRILL, NO_METAL

OUTSIDE = Cylinder | Cone | Ball | Screw  # what the outside of a round is made of
NEAR = 1e-6  # mm: no more than this is none
THREADED = ("tap", "thread")  # what cuts the thread in its hole
BESIDE = 0.02  # mm beyond a cut that are looked at
PAST = 2.0  # mm that a cut goes past an end that is cut later
THROUGH = 10.0  # mm: less metal behind a bore is bored right through
CLEAR = 1.0  # mm that a bore then goes on behind it


class Standing(NamedTuple):
    """A step with the piece before and after it."""

    step: Step
    before: Body
    after: Body
    # the end that stands out of the holding or that the tool comes from, where it is
    # known
    out: Side | None


def in_process(
    made: Made, holdings: Sequence[Holding]
) -> Iterator[tuple[Holding, list[Standing]]]:
    """Each holding that has steps, and the piece as they find and leave it."""
    steps = [step for holding in holdings for step in holding.steps]
    cut = {
        name
        for step in steps
        if step.operation not in NO_METAL
        for name in step.features
    }
    # what no step cuts is there already: a thread in an old plate
    done = {
        feature.name: 0.0 for feature in made.body.features if feature.name not in cut
    }
    bare = {name for step in steps for name in _finished(made, step)}
    outside = [
        feature for feature in made.body.features if isinstance(feature, OUTSIDE)
    ]
    ends = [end for end in made.body.features if isinstance(end, End)]
    sides = {end.name: end.side for end in ends}
    passed: dict[str, Feature] = {}
    body = made.body.after(done.items(), bare)
    for holding in holdings:
        if not holding.steps:
            continue
        found = []
        for step, out in zip(holding.steps, _out(holding.steps, sides), strict=True):
            before = body
            for name in step.features:
                if step.operation not in NO_METAL:
                    done[name] = _left(made, step, name)
            if step.operation == "turn":
                out = out or _comes_from(made, step, done, passed.values())
                passed |= _passed(made, step, out, done, outside)
            passed |= _bored_on(made, step, out, done, ends)
            bare -= _finished(made, step)
            if len(done) == len(made.body.features) and not any(done.values()):
                passed = {}  # all of it is cut to its size
            body = made.body.after(done.items(), bare, passed.values())
            found.append(Standing(step, before, body, out))
        yield holding, found


def beyond_drill(hole: Bore | NutThread, body: Body) -> list[float]:
    """The stations just beyond a drill's travel that lie inside of a piece."""
    (first, last), (low, high) = hole.drilled, body.ends
    return [z for z in (first - BESIDE, last + BESIDE) if low < z < high]


def _finished(made: Made, step: Step) -> set[str]:
    """The holes that a step makes more than drilled: their thread, or what else they
    are for."""
    found = {name: made.body.found(name) for name in step.features}
    return {
        name
        for name, feature in found.items()
        if step.operation
        in (THREADED if isinstance(feature, NutThread) else AFTER_DRILL)
    }


def _left(made: Made, step: Step, name: str) -> float:
    """Metal that a step leaves on a feature, mm to a side: a drill leaves its own
    size."""
    feature = made.body.feature(name) if step.operation == "drill" else None
    if not isinstance(feature, Bore | NutThread | TaperBore):
        return step.leaves
    drill = drill_of(step, feature, made.values["inch"])
    return (drilled_width(feature) - drill) / 2


def _out(steps: Sequence[Step], sides: Mapping[str, Side]) -> list[Side | None]:
    """For each step of a holding, the end of the work that stands out: the one that was
    faced there last, or said to be; else the one that will be; None where neither is.
    """
    faced = [
        sides.get(step.features[0]) if step.operation == "face" else step.out
        for step in steps
    ]
    now = next((side for side in faced if side), None)
    found = []
    for side in faced:
        now = side or now
        found.append(now)
    return found


def _comes_from(
    made: Made, step: Step, done: Mapping[str, float], passed: Iterable[Feature]
) -> Side | None:
    """The end that a tool comes from to a diameter, where neither is faced in its
    holding: that away from its shoulder."""
    cylinder = made.body.feature(step.features[0])
    if not isinstance(cylinder, Cylinder):
        return None
    if cylinder.shoulder:
        return "right" if cylinder.shoulder == "left" else "left"
    cut = [(it, done[it.name]) for it in made.body.features if it.name in done]
    cut += [(it, 0.0) for it in passed]
    reach = cylinder.diameter + 2 * (step.leaves + BESIDE)
    left, right = (
        _wide(cut, z) > reach for z in (cylinder.start - BESIDE, cylinder.end + BESIDE)
    )
    if left == right:
        return None
    return "right" if left else "left"


def _wide(cut: Iterable[tuple[Feature, float]], z: float) -> float:
    """Diameter at a station, mm: cut gives what was cut and the metal left on it;
    infinite where only the stock stands."""
    found = math.inf
    for feature, left in cut:
        if isinstance(feature, End):
            beyond = z < feature.z if feature.side == "left" else z > feature.z
            found = 0.0 if beyond else found
        elif isinstance(feature, OUTSIDE) and feature.start <= z <= feature.end:
            found = min(found, widest(feature) + 2 * left)
    return found


def _passed(
    made: Made,
    step: Step,
    out: Side | None,
    done: Collection[str],
    outside: Sequence[OUTSIDE],
) -> dict[str, Feature]:
    """Metal that a tool removes on its way to a diameter from the end it comes from,
    where nothing is cut yet and nothing larger shall stand."""
    stock = made.body.stock
    found: dict[str, Feature] = {}
    for name in step.features if out else ():
        cylinder = made.body.feature(name)
        if not isinstance(cylinder, Cylinder) or isinstance(stock, Block):
            continue
        right = out == "right"
        start, end = (
            (cylinder.end, stock.end) if right else (stock.start, cylinder.start)
        )
        wide = cylinder.diameter + 2 * step.leaves
        there = [
            it for it in outside if it.start < end - NEAR and start + NEAR < it.end
        ]
        # where nothing shall stand it is what will be faced off
        largest = max(map(widest, there), default=0.0)
        bare = end > start and not any(it.name in done for it in there)
        if bare and largest < wide + NEAR:
            found[name] = Cylinder(f"{name} passed", start, end, wide)
    return found


def gone_past(behind: float, inside: bool) -> float:
    """How far a cut goes on past an end of the piece, mm; behind: the metal there that
    is parted or faced off later.

    Source: a shop rule; cut to the end and no further, a skin is left there.
    """
    if not inside:
        return min(PAST, behind / 2)
    return behind + CLEAR if behind < THROUGH else PAST


def _bored_on(
    made: Made,
    step: Step,
    out: Side | None,
    done: Mapping[str, float],
    ends: Sequence[End],
) -> dict[str, Feature]:
    """The holes that a step leaves in metal beyond ends that are cut later."""
    stock = made.body.stock
    found: dict[str, Feature] = {}
    if isinstance(stock, Block) or step.operation in NO_METAL:
        return found
    for name in step.features:
        bore = made.body.feature(name)
        if not isinstance(bore, Bore | NutThread):
            continue
        wide = bore.bore if isinstance(bore, NutThread) else bore.diameter
        for end in ends:
            left = end.side == "left"
            short = abs((bore.start if left else bore.end) - end.z) > BESIDE
            behind = end.z - stock.start if left else stock.end - end.z
            if end.name in done or short or behind < NEAR:
                continue
            on = behind if out == end.side else min(gone_past(behind, True), behind)
            stations = (end.z - on, end.z) if left else (end.z, end.z + on)
            beyond = f"{name} past {end.name}"
            found[beyond] = Bore(beyond, *stations, wide - 2 * done[name])
    return found


def widest(feature: OUTSIDE) -> float:
    """Its largest diameter, mm."""
    if isinstance(feature, Cylinder | Ball):
        return feature.diameter
    if isinstance(feature, Screw):
        return feature.of.major
    return max(feature.start_diameter, feature.end_diameter)
