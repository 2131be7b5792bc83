"""Tools of the shop's own shelf for a step of the route."""

from msgspec import Struct

from machinon.core.piece.block_features import Flanked, Pocket, SawCuts, Slot, TeeSlot
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.milled_features import CrossSlot, Keyway, Slits
from machinon.core.piece.turned_features import Bore, Cylinder, Screw
from machinon.core.quantity import length_text
from machinon.core.route.steps import StepTold
from machinon.core.shop.belongings import Belongings, Item
from machinon.core.sizes.limits import LARGEST
from machinon.core.sizes.reamers import LEAVES, reamer_of
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import AS_DRILLED, drill_named

SAME = 0.006  # mm: tools of one size, whatever system names them
ALIKE = 0.25  # mm: drills that are easily taken for one another


class OwnTool(Struct, frozen=True):
    """The shelf's advice on a tool, and the tool itself; None where it has none."""

    says: str
    item: Item | None = None


UNASKED = OwnTool("")  # no tool kept by its size, or none of that kind is listed


def own_tool(step: StepTold, shelf: Belongings | None, inch: bool) -> OwnTool:
    """The tool of the shelf for a step, with its advice."""
    if shelf is None:
        return UNASKED
    if step.drill:
        return _own_drill(step.drill, shelf, inch)
    if step.tap:
        return _own_tap(step.tap, shelf)
    bore = step.cut[0] if step.cut else None
    match bore:
        case Holes(hole=hole) | CrossHoles(hole=hole) if step.operation == "ream":
            return _own_reamer(step.reamer or hole.diameter, shelf, inch)
        case CrossHoles(hole=hole) if step.operation == "broach":
            return _own_size("broach", hole.square, shelf, inch)
        case Keyway() if bore.inside:
            return _own_size("broach", bore.width, shelf, inch)
        case Slot() if bore.sawn:
            return _own_saw(bore.width, bore.depth, shelf, inch)
        case Keyway() | Slot() | CrossSlot():
            return _own_mill(bore.width, shelf, inch)
        case Pocket() if bore.radius:
            return _own_mill(2 * bore.radius, shelf, inch)
        case SawCuts():
            return _own_saw(bore.kerf, bore.block[2], shelf, inch)
        case Slits():
            return _own_saw(bore.width, bore.diameter / 2, shelf, inch)
        case Screw() if step.operation == "thread":
            return _own_die(bore.thread, shelf)
        case Flanked() if bore.undercut:
            return _own_dovetail(90 - bore.half_angle, bore.depth, shelf)
        case TeeSlot() if bore.undercut:
            return _own_tee(bore, shelf)
        case TeeSlot():
            return _own_mill(bore.neck, shelf, inch)
        case Bore() if step.operation == "bore" and step.before.turns:
            inner, _ = step.before.radii((bore.start + bore.end) / 2)
            return _own_bar(2 * inner, bore.end - bore.start, shelf, inch)
    return UNASKED


def own_collet(made: Made, shelf: Belongings | None, inch: bool) -> str:
    """The advice of the holding shelf on a shank that goes into a collet, in a
    sentence; empty where there is none, or no collet is listed."""
    shank = made.body.found("shank")
    by_collet = any(mate.role == "collet" for mate in made.family.mates)
    collets = shelf.of_kind("collet") if shelf is not None else ()
    if not by_collet or not collets or not isinstance(shank, Cylinder):
        return ""
    wide, said = shank.diameter, length_text(shank.diameter, 0.01, inch)
    # what opens to its very size still lets it in
    own = [
        item
        for item in collets
        if item.size - SAME <= wide <= (item.second or item.size) + SAME
    ]
    if own:
        return f"Your {own[0].name} holds the shank of {said}."
    near = min(collets, key=lambda item: abs((item.second or item.size) - wide))
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
    own = next((item for item in listed if abs(item.size - wanted) < SAME), None)
    if own is None:
        return OwnTool(f"no {kind} of {length_text(wanted, 0.01, inch)} on the shelf")
    alike = [
        item.name for item in listed if SAME <= abs(item.size - wanted) < ALIKE + 0.15
    ]
    return _yours(own, _alike(alike[:3]))


def _alike(names: list[str]) -> str:
    look = "looks" if len(names) == 1 else "look"
    return f"; measure it, {', '.join(names)} {look} like it" if names else ""


def _own_reamer(wanted: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The reamer of its size, or one whose usual hole, H7, takes it in."""
    exact = _own_size("reamer", wanted, shelf, inch)
    under = [item for item in shelf.of_kind("reamer") if item.size < wanted]
    near = max(under, key=lambda item: item.size, default=None)
    if exact.item or near is None or not 0 < near.size <= LARGEST:
        return exact
    hole = reamer_of(near.size)
    least, most = (length_text(size, 0.001, inch) for size in (hole.lower, hole.upper))
    if wanted <= hole.upper:
        return _yours(near, f", {LEAVES} leaves {least} to {most}: ream scrap first")
    if wanted - near.size < ALIKE:
        return OwnTool(f"{exact.says}; {near.name} leaves up to {most} ({LEAVES})")
    return exact


def _own_mill(width: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The widest end mill that goes into a slot."""
    mills = sorted(shelf.of_kind("end mill"), key=lambda item: item.size)
    if not mills:
        return UNASKED
    into = [item for item in mills if item.size <= width + SAME]
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
    saws = sorted(shelf.of_kind("slitting saw"), key=lambda item: item.length)
    if not saws:
        return UNASKED
    # about half as much again of its bore is taken by what clamps it
    reach = [
        item
        for item in saws
        if item.length <= wide + SAME and (item.size - 1.5 * item.second) / 2 >= deep
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
        item
        for item in cutters
        if abs(item.second - angle) < 0.5 and (not item.length or item.length >= deep)
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
        item
        for item in cutters
        if item.size <= slot.head + SAME
        and item.length <= slot.height + SAME
        and item.second < slot.neck
    ]
    if not own:
        return OwnTool("no T-slot cutter on the shelf goes into it")
    best = max(own, key=lambda item: (item.size, item.length))
    whole = best.size > slot.head - SAME and best.length > slot.height - SAME
    return _yours(best, "" if whole else ", smaller than the head: widen it after")


def _own_bar(wide: float, long: float, shelf: Belongings, inch: bool) -> OwnTool:
    """The stoutest boring bar that goes in and reaches."""
    bars = sorted(shelf.of_kind("boring bar"), key=lambda item: item.size)
    if not bars:
        return UNASKED
    own = [
        item
        for item in bars
        if (item.second or item.size) <= wide
        and (not item.length or item.length >= long)
    ]
    if not own:
        said = " and ".join(length_text(size, 0.1, inch) for size in (wide, long))
        return OwnTool(f"no boring bar goes into {said} deep")
    return _yours(own[-1])


def _own_drill(wanted: float, shelf: Belongings, inch: bool) -> OwnTool:
    drills = sorted(shelf.of_kind("drill"), key=lambda item: item.size)
    if not drills:
        return UNASKED
    own = next((item for item in drills if abs(item.size - wanted) < AS_DRILLED), None)
    if own is None:
        near = [item for item in drills if item.size < wanted][-1:]
        near += [item for item in drills if item.size > wanted][:1]
        names = " and ".join(item.name for item in near)
        if wanted > drills[-1].size:
            return OwnTool(f"not on the shelf: it goes up to {names}, bore from there")
        # called as its step calls it; an inch shop looks for one near that in inches
        said = drill_named(wanted)
        if inch and said.endswith(" mm"):
            said += f" ({length_text(wanted, 0.01, inch)})"
        return OwnTool(f"{said} is not on the shelf; next to it {names}")
    alike = [
        item.name
        for item in drills
        if AS_DRILLED <= abs(item.size - wanted) < ALIKE and item.name != own.name
    ]
    return _yours(own, _alike(alike[:4]))


def _own_tap(thread: str, shelf: Belongings) -> OwnTool:
    if not shelf.of_kind("tap"):
        return UNASKED
    own = _of_thread("tap", thread, shelf)
    if not own:
        return OwnTool(f"no {thread} tap on the shelf")
    # a set is taken one after the other
    return _yours(own[0], "".join(f", {_noted(item)}" for item in own[1:]))


def _own_die(thread: str, shelf: Belongings) -> OwnTool:
    """A die that would clean up what is chased; none is missed where there is none."""
    own = _of_thread("die", thread, shelf)
    return _yours(own[0], ", to finish by once it is begun true") if own else UNASKED


def _of_thread(kind: str, thread: str, shelf: Belongings) -> list[Item]:
    wanted = thread_of(thread, "thread")
    return [
        item
        for item in shelf.of_kind(kind)
        if abs(item.size - wanted.major) < 0.01
        and (not item.second or abs(item.second - wanted.pitch) < 0.01)
    ]
