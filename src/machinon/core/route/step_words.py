"""What a step is called, its tool, its note and its caution, from what it cuts.

So that words cannot contradict the picture: a family says only what is more.
"""

from collections.abc import Sequence

from machinon.core.piece.block_features import (
    EdgeBevels,
    Flanked,
    MaleDovetail,
    Pocket,
    RoundSeat,
    Slot,
    TeeSlot,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import Step, spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import sold_as, with_unit
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import CrossSlot, Flats, Keyway, Slits
from machinon.core.piece.turned_features import (
    Ball,
    Bevel,
    Bore,
    Centre,
    Cone,
    Cylinder,
    EdgeRound,
    Groove,
    Knurl,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.quantity import plain, trimmed
from machinon.core.route.drills import LADDER, bored_to, drilled_width, hole_of
from machinon.core.route.in_process import BESIDE, beyond_drill
from machinon.core.route.operations import (
    BY_HAND,
    NAMED,
    OPERATIONS,
    Operation,
    cutter_of,
)
from machinon.core.sizes.centre_drills import centre_drill_for
from machinon.core.sizes.reamers import LEAVES
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_named

ALONG = ("part", "saw-off", "face")  # what they leave is a length


def note_of(step: Step, drills: Sequence[float]) -> str:
    """What the family notes of a step, and the drills that open its hole, mm."""
    if len(drills) < 2:
        return step.note
    said = ", ".join(map(drill_named, drills)).replace(" mm,", ",")
    return f"{step.note} One after the other: {said}.".strip()


def caution_of(
    step: Step, machine: str, feature: Feature | None, made: Body, before: Body
) -> str:
    """The usual caution of a step on a kind of machine, one line; made: the finished
    piece, before: as the step finds it."""
    if step.tool == BY_HAND:
        return "A bare tang goes into the hand: no file without its handle."
    if step.operation == "drill" and _is_blind(feature, made, before):
        if machine == "lathe":
            return "A drill that grabs turns in the tailstock: seat its taper well."
        return "A drill that grabs spins the work: clamp it."
    return OPERATIONS[step.operation].caution


def _is_blind(feature: Feature | None, made: Body, before: Body) -> bool:
    """Whether the drill of a feature ends in the metal of the piece."""
    if hole := hole_of(feature):
        return hole.depth is not None
    if not isinstance(feature, Bore | NutThread) or not made.turns:
        return getattr(feature, "pointed", False)
    inside = drilled_width(feature) / 2 - BESIDE
    return any(before.radii(z)[0] < inside for z in beyond_drill(feature, made))


def _many(feature: Feature) -> int:
    """Number of holes of a feature; none for what is no hole."""
    return feature.many if isinstance(feature, Holes | CrossHoles) else 0


def _size(value: float) -> str:
    return trimmed(plain(value, 3))


def _named(step: Step, feature: Feature) -> str:
    """A feature as one speaks of it: `the collar`, `groove 2`."""
    name = spoken(feature.name)
    return step.of or (name if name[-1].isdigit() else f"the {name}")


def _words(step: Step, feature: Feature) -> str:
    """A feature as it is called in a title, with its main figure."""
    name = _named(step, feature)
    match feature:
        case Holes() | CrossHoles():
            return f"{name}: {feature.hole.says(feature.many)}"
        case Cylinder() | Bore() | Groove():
            return f"{name} to ⌀{_size(feature.diameter)}"
        case NutThread() if step.operation == "bore":
            said = thread_of(feature.thread).says
            return f"{name} to ⌀{_size(feature.bore)}, for {said}"
        case Screw() | NutThread():
            if "thread" not in name:
                name = f"{name} thread"
            return f"{name} {thread_of(feature.thread).says}"
        case Cone() | TaperBore() if feature.taper:
            return f"{name}, {feature.taper}"
        case Keyway():
            return f"{name}, {_size(feature.width)} wide, {_size(feature.depth)} deep"
        case Flats():
            return f"{name}, {_size(feature.read)} {feature.says}"
        case MaleDovetail():
            wide, high = (_size(round(x, 2)) for x in (feature.wide, feature.depth))
            return f"{name}, {wide} on top, {high} high"
        case Flanked():
            wide, deep = (_size(round(x, 2)) for x in (feature.mouth, feature.depth))
            return f"{name}, {wide} at its mouth, {deep} deep"
        case TeeSlot() if not feature.undercut:
            return f"{name}, {_size(feature.neck)} wide, {_size(feature.depth)} deep"
        case TeeSlot():
            head = f"{_size(feature.head)} × {_size(feature.height)}"
            return f"{name}, neck {_size(feature.neck)}, head {head}"
        case CrossSlot():
            return f"{name} right through, {_size(feature.width)} wide"
        case Slits():
            return f"{name}: {feature.count} × {_size(feature.width)} wide"
        case Knurl():
            form = "crossed" if feature.crossed else "straight"
            return f"{name}, {form}, {_size(feature.pitch)} mm pitch"
        case RoundSeat():
            wide, deep = _size(feature.diameter), _size(round(feature.depth, 2))
            return f"{name} to ⌀{wide}, {deep} deep"
        case Bevel():
            apart = "," if name[-1].isdigit() else ""
            where = ", in the bore" if apart and feature.inside else ""
            leg, angle = _size(feature.leg), _size(feature.angle)
            return f"{name}{apart} {leg} × {angle}°{where}"
        case Ball():
            return f"{name}, ⌀{_size(feature.diameter)}"
        case EdgeRound():
            apart = "," if name[-1].isdigit() else ""
            return f"{name}{apart} R{_size(feature.radius)}"
        case Centre():
            return f"{name}, mouth ⌀{_size(feature.mouth)}"
    return name


def title_of(
    step: Step,
    operation: Operation,
    features: Sequence[Feature],
    drills: Sequence[float],
    tap: str,
    reamer: float,
) -> str:
    """What a step is called; drills, reamer: in mm, tap: its thread."""
    hole = hole_of(features[0]) if features else None
    if tap and features:
        return f"Tap {thread_of(tap).says}{_for_what(step, features[0])}"
    if drills and features:
        stages = len(drills) > 1 and drills[-1] > LADDER
        wide = f"{drill_named(drills[-1])}{' in stages' if stages else ''}"
        if hole is None:
            return f"Drill {_named(step, features[0])}, {wide}"
        count = _many(features[0])
        many = f"{count} holes " if count > 1 else ""
        if bored := bored_to(features[0], drills[-1]):
            wide = f"{drill_named(drills[-1])}, bore to ⌀{_size(bored)}"
        return f"Drill {many}{wide}{_for_what(step, features[0])}"
    if hole is not None and operation.key in ("counterbore", "countersink"):
        count = _many(features[0])
        many = f"{count} holes" if count > 1 else "the hole"
        to = f"⌀{_size(hole.sink)}"
        if operation.key == "counterbore":
            to = f"⌀{_size(hole.bore)}, {_size(hole.bore_depth)} deep"
        return f"{operation.verb} {many} to {to}"
    if hole is not None and operation.key == "ream":
        to = f"{sold_as(reamer)} {LEAVES}" if reamer else f"⌀{_size(hole.diameter)}"
        return f"Ream {_named(step, features[0])} to {to}"
    if operation.key in ("deburr", "mount"):
        return operation.verb
    said = ", ".join(_words(step, feature) for feature in features)
    own = said.removeprefix("the ")
    if own.lower().startswith(operation.verb.lower()):
        said = own[len(operation.verb) :].lstrip()  # not "bore the bore"
    # on a diameter there are two sides, on a length one
    metal = step.leaves if operation.key in ALONG else 2 * step.leaves
    left = f", leave {_size(metal)} mm" if metal else ""
    return f"{operation.verb} {said}{left}".strip()


def _for_what(step: Step, feature: Feature) -> str:
    """The purpose of holes, where their name does not tell it: ` for the bolts`, `,
    holes 2`."""
    name = spoken(feature.name)
    if name in ("hole", "holes", "thread"):
        return ""
    return f", {name}" if name.startswith("hole") else f" for {_named(step, feature)}"


def _bored_at(body: Body, centre: Centre) -> bool:
    """Whether a hole is there already where a centre is sunk."""
    bores = (f for f in body.features if isinstance(f, Bore | NutThread))
    ends = (b.end if centre.side == "right" else b.start for b in bores)
    return any(abs(end - centre.z) < BESIDE for end in ends)


def tool_of(
    operation: Operation,
    feature: Feature | None,
    drill: float,
    tap: str,
    reamer: float,
    before: Body,
) -> str:
    """The tool of a step; drill, reamer: in mm, none for what is no hole of theirs;
    tap: its thread."""
    if tap:
        return f"tap {thread_of(tap).says}"
    if drill:
        return f"drill {drill_named(drill).removesuffix(' mm')}"
    if isinstance(feature, Centre):
        sold = f"{operation.tool} {centre_drill_for(feature.mouth)}".rstrip()
        return f"60° countersink or {sold}" if _bored_at(before, feature) else sold
    hole = hole_of(feature)
    if operation.key == "ream" and hole is not None:
        return f"{operation.tool} {sold_as(reamer)} {LEAVES}" if reamer else "reamer"
    if operation.key == "counterbore" and hole is not None:
        return f"counterbore {sold_as(hole.bore)}"
    if isinstance(feature, TaperBore):
        return operation.tool.replace("knife tool", "boring bar")
    if isinstance(feature, EdgeBevels):
        return "90° cutter"
    if (
        isinstance(feature, Slot | Pocket | Keyway | CrossSlot)
        and operation.tool in NAMED
    ):
        return f"{operation.tool} {with_unit(cutter_of(feature))}"
    return operation.tool
