"""What the shop's own shelf has for a step of the route."""

from msgspec import Struct

from machinon.core.piece.block_features import (
    Flanked,
    Pocket,
    SawCuts,
    Slot,
    TeeSlot,
)
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.turned_features import Bore, Cylinder, Keyway, Screw, Slits
from machinon.core.quantity import length_text
from machinon.core.route.operations import StepTold
from machinon.core.shop.belongings import Belongings, Item
from machinon.core.threads.screw_thread import thread_of

SAME = 0.006  # mm: drills of one size, whatever system names them
ALIKE = 0.25  # mm: drills that are easily taken for one another


class OwnTool(Struct, frozen=True):
    """What the shelf says of a tool, and the tool itself; None where it has none."""

    says: str
    item: Item | None = None


UNASKED = OwnTool("")  # no tool kept by its size, or none of that kind is listed


def own_tool(step: StepTold, shelf: Belongings | None, inch: bool) -> OwnTool:
    """What the tool shelf has for a step, and says of it."""
    if shelf is None:
        return UNASKED
    if step.drill:
        return _own_drill(step.drill, shelf, inch)
    if step.tap:
        return _own_tap(step.tap, shelf)
    one = step.cut[0] if step.cut else None
    match one:
        case Holes(hole=hole) | CrossHoles(hole=hole) if step.operation == "ream":
            return _own_size("reamer", hole.diameter, shelf, inch)
        case CrossHoles(hole=hole) if step.operation == "broach":
            return _own_size("broach", hole.square, shelf, inch)
        case Keyway() if one.inside:
            return _own_size("broach", one.width, shelf, inch)
        case Keyway() | Slot():
            return _own_mill(one.width, shelf, inch)
        case Pocket() if one.radius:
            return _own_mill(2 * one.radius, shelf, inch)
        case SawCuts():
            return _own_saw(one.kerf, one.block[2], shelf, inch)
        case Slits():
            return _own_saw(one.width, one.diameter / 2, shelf, inch)
        case Screw() if step.operation == "thread":
            return _own_die(one.thread, shelf)
        case Flanked() if one.undercut:
            return _own_dovetail(90 - one.half_angle, one.depth, shelf)
        case TeeSlot() if one.undercut:
            return _own_tee(one, shelf)
        case TeeSlot():
            return _own_mill(one.neck, shelf, inch)
        case Bore() if step.operation == "bore" and step.before.turns:
            inner, _ = step.before.radii((one.start + one.end) / 2)
            return _own_bar(2 * inner, one.end - one.start, shelf, inch)
    return UNASKED


def own_collet(made: Made, shelf: Belongings | None, inch: bool) -> str:
    """What the shelf of holding says of a shank that goes into a collet, in a sentence;
    empty where there is none, or no collet is listed."""
    shank = made.body.found("shank")
    by_collet = any(one.role == "collet" for one in made.family.mates)
    collets = shelf.of_kind("collet") if shelf is not None else ()
    if not by_collet or not collets or not isinstance(shank, Cylinder):
        return ""
    wide, said = shank.diameter, length_text(shank.diameter, 0.01, inch)
    # what opens to its very size still lets it in
    own = [one for one in collets
           if one.size - SAME <= wide <= (one.second or one.size) + SAME]  # fmt: skip
    if own:
        return f"Your {own[0].name} holds the shank of {said}."
    near = min(collets, key=lambda one: abs((one.second or one.size) - wide))
    return f"No collet of yours holds {said}: {near.name} is nearest."


def _yours(own: Item, besides: str = "") -> OwnTool:
    """A tool of the shelf with what is known of it, as that it really cuts 10.03."""
    return OwnTool(f"yours: {_noted(own)}{besides}", own)


def _noted(own: Item) -> str:
    return own.name + (f" ({own.note})" if own.note else "")


def _own_size(kind: str, wanted: float, shelf: Belongings, inch: bool) -> OwnTool:
    """A tool that leaves its own size."""
    listed = shelf.of_kind(kind)
    if not listed:
        return UNASKED
    own = next((one for one in listed if abs(one.size - wanted) < SAME), None)
    if own is None:
        return OwnTool(f"no {kind} of {length_text(wanted, 0.01, inch)} on the shelf")
    alike = [
        one.name for one in listed if SAME <= abs(one.size - wanted) < ALIKE + 0.15
    ]
    return _yours(own, _alike(alike[:3]))


def _alike(names: list[str]) -> str:
    return f"; measure it, {', '.join(names)} look like it" if names else ""


def _own_mill(width: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The widest end mill that goes into a slot."""
    mills = sorted(shelf.of_kind("end mill"), key=lambda one: one.size)
    if not mills:
        return UNASKED
    into = [one for one in mills if one.size <= width + SAME]
    if not into:
        said = length_text(width, 0.01, inch)
        nearest = mills[0].name
        return OwnTool(f"no end mill goes into {said}; the smallest is {nearest}")
    own = into[-1]
    off = length_text(width - own.size, 0.01, inch)
    narrower = own.size < width - SAME
    return _yours(own, f", {off} narrower: both sides by itself" if narrower else "")


def _own_saw(wide: float, deep: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The thickest slitting saw that is no wider than a cut, and reaches through it."""
    saws = sorted(shelf.of_kind("slitting saw"), key=lambda one: one.length)
    if not saws:
        return UNASKED
    # about half as much again of its bore is taken by what clamps it
    reach = [
        one
        for one in saws
        if one.length <= wide + SAME and (one.size - 1.5 * one.second) / 2 >= deep
    ]
    if not reach:
        said = " and ".join(length_text(size, 0.1, inch) for size in (wide, deep))
        return OwnTool(f"no slitting saw for {said} deep on the shelf")
    return _yours(reach[-1])


def _own_dovetail(angle: float, deep: float, shelf: Belongings) -> OwnTool:
    cutters = shelf.of_kind("dovetail cutter")
    if not cutters:
        return UNASKED
    own = [
        one
        for one in cutters
        if abs(one.second - angle) < 0.5 and (not one.length or one.length >= deep)
    ]
    # one that is lower than the form leaves a flat on its flank
    if not own:
        return OwnTool(f"no dovetail cutter of {angle:g}° that deep")
    return _yours(own[0])


def _own_tee(slot: TeeSlot, shelf: Belongings) -> OwnTool:
    """The largest cutter that goes in below the lips, with a neck that passes them."""
    cutters = shelf.of_kind("T-slot cutter")
    if not cutters:
        return UNASKED
    own = [
        one
        for one in cutters
        if one.size <= slot.head + SAME
        and one.length <= slot.height + SAME
        and one.second < slot.neck
    ]
    if not own:
        return OwnTool("no T-slot cutter on the shelf goes into it")
    best = max(own, key=lambda one: (one.size, one.length))
    whole = best.size > slot.head - SAME and best.length > slot.height - SAME
    return _yours(best, "" if whole else ", smaller than the head: widen it after")


def _own_bar(wide: float, long: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The stoutest boring bar that goes in and reaches."""
    bars = sorted(shelf.of_kind("boring bar"), key=lambda one: one.size)
    if not bars:
        return UNASKED
    own = [
        one
        for one in bars
        if (one.second or one.size) <= wide and (not one.length or one.length >= long)
    ]
    if not own:
        said = " and ".join(length_text(size, 0.1, inch) for size in (wide, long))
        return OwnTool(f"no boring bar goes into {said} deep")
    return _yours(own[-1])


def _own_drill(wanted: float, shelf: Belongings, inch: bool) -> OwnTool:
    drills = sorted(shelf.of_kind("drill"), key=lambda one: one.size)
    if not drills:
        return UNASKED
    own = next((one for one in drills if abs(one.size - wanted) < SAME), None)
    if own is None:
        near = [one for one in drills if one.size < wanted][-1:]
        near += [one for one in drills if one.size > wanted][:1]
        names = " and ".join(one.name for one in near)
        if wanted > drills[-1].size:
            return OwnTool(f"not on the shelf: it goes up to {names}, bore from there")
        # called as its step calls it; an inch shop looks for one near that in inches
        said = f"{wanted:g} mm"
        if inch:
            said += f" ({length_text(wanted, 0.01, inch)})"
        return OwnTool(f"{said} is not on the shelf; next to it {names}")
    alike = [
        one.name
        for one in drills
        if SAME <= abs(one.size - wanted) < ALIKE and one.name != own.name
    ]
    return _yours(own, _alike(alike[:4]))


def _own_tap(thread: str, shelf: Belongings) -> OwnTool:
    if not shelf.of_kind("tap"):
        return UNASKED
    own = _of_thread("tap", thread, shelf)
    if not own:
        return OwnTool(f"no {thread} tap on the shelf")
    # a set is taken one after the other
    return _yours(own[0], "".join(f", {_noted(one)}" for one in own[1:]))


def _own_die(thread: str, shelf: Belongings) -> OwnTool:
    """A die that would clean up what is chased; none is missed where there is none."""
    own = _of_thread("die", thread, shelf)
    return _yours(own[0], ", to finish by once it is begun true") if own else UNASKED


def _of_thread(kind: str, thread: str, shelf: Belongings) -> list[Item]:
    wanted = thread_of(thread, "thread")
    return [
        one
        for one in shelf.of_kind(kind)
        if abs(one.size - wanted.major) < 0.01
        and (not one.second or abs(one.second - wanted.pitch) < 0.01)
    ]
