"""Whether the features of a free plate leave enough of it, and can be cut."""

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from itertools import combinations, pairwise

from machinon.core.families._plate_features import (
    block_of,
    crosswise,
    cut_away,
    dovetail_of,
    face_of,
    feature_of_part,
    floor_of_some,
    floor_under,
    holes_of_part,
    in_t_nuts,
    parts_of,
    slot_of,
    tee_of,
)
from machinon.core.families._tapped import thread_checks
from machinon.core.piece.block_features import (
    EndToEnd,
    MaleDovetail,
    Slot,
)
from machinon.core.piece.family import (
    Check,
    Values,
    at_least,
    is_there,
    kind_of,
    spoken,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import CLEAR
from machinon.core.piece.hole_features import Grid, Hole, Holes, Pattern, Places
from machinon.core.piece.outline import corners_of, outline_of
from machinon.core.piece.walls import between, in_metal, wall_checks
from machinon.core.route.operations import END_MILL
from machinon.core.threads.screws import cap_screw
from machinon.core.wording import begun

DRILLED = ("hole", "row", "holes", "ring", "pattern", "bore")
SUNK = ("slot", "pocket", "vee", "dovetail", "tee", "seat", "rebate")
PASSED = ("through", "counterbored", "countersunk")  # holes that screws go through
BELOW = 0.5  # mm that a T-nut lies under its table
REACH = 4.5  # diameters that a long end mill cuts deep
SEEN = 10.0  # mm of metal: more is not spoken of
FOUR = 4  # edges round a face


def _from_outlines(s: Values, points: Sequence[tuple[float, float]]) -> list[float]:
    """Distance of holes from the outlines of a plate; negative outside."""
    from shapely import Point, Polygon

    found = [math.inf]
    for name in parts_of(s, "outline"):
        shape = Polygon(outline_of(corners_of(str(s[f"{name}.points"]))))
        for point in map(Point, points):
            far = shape.exterior.distance(point)
            found.append(far if shape.contains(point) else -far)
    return found


def _pitch(pattern: Pattern) -> float:
    """The least distance between two of its holes."""
    if isinstance(pattern, Grid):
        ways = (
            (pattern.across, pattern.pitch_across),
            (pattern.up, pattern.pitch_up),
        )
        return min(abs(pitch) for count, pitch in ways if count > 1)
    points = pattern.points()
    pairs = combinations(points, 2) if isinstance(pattern, Places) else pairwise(points)
    return min(math.dist(a, b) for a, b in pairs)


def _half(holes: Holes) -> float:
    """Half of what a mouth is long."""
    return holes.hole.widest / 2 / math.cos(math.radians(holes.lean))


def _half_beside(s: Values, holes: Holes, other: Holes) -> float:
    """Half of what a mouth is long; of a bore, on whose floor the other holes begin,
    half of what goes on below that."""
    if not other.sunk or floor_under(s, other.name)[0] != holes.name:
        return _half(holes)
    on_ledge = holes.hole.depth is None or other.sunk < holes.hole.depth
    return holes.hole.diameter / 2 if on_ledge else -math.inf


def _clear_checks(s: Values, name: str) -> Iterable[Check]:
    """Metal between holes and those of the parts that come after them on their face."""
    drilled = parts_of(s, *DRILLED)
    own = holes_of_part(s, name)
    others = (holes_of_part(s, part) for part in drilled[drilled.index(name) + 1 :])
    gaps = {
        other.name: min(math.dist(a, b) for a in own.points for b in other.points)
        - _half_beside(s, own, other)
        - _half_beside(s, other, own)
        for other in others
        if other.face == own.face
    }
    nearest = min(gaps, key=lambda other: gaps[other], default="")
    if nearest and gaps[nearest] < math.inf:
        yield at_least(
            f"{name}-clear",
            name,
            gaps[nearest],
            0.5,
            f"Metal between {spoken(name)} and {spoken(nearest)}",
            grave=False,
        )


def _lowest(hole: Hole, lean: float) -> float:
    """How far below its face a blind hole goes: its point, or the low side of its
    shoulder."""
    angle, down = math.radians(lean), hole.depth or 0.0
    point = (down + hole.point) * math.cos(angle)
    return max(point, down * math.cos(angle) + hole.diameter / 2 * math.sin(angle))


def _far_ends(holes: Holes) -> list[tuple[float, float]]:
    """Where the axes of holes that lean end, seen square to their face."""
    if not holes.lean:
        return []
    hole, lean, way = holes.hole, math.radians(holes.lean), math.radians(holes.towards)
    down = holes.reach if hole.depth is None else hole.depth + hole.point
    aside = down * math.sin(lean)
    x, y = aside * math.cos(way), aside * math.sin(way)
    return [(u + x, v + y) for u, v in holes.points]


def _holes_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, _ = face_of(s, s[f"{name}.face"])
    holes = holes_of_part(s, name)
    hole, points = holes.hole, holes.points
    outer = _half(holes)
    said = spoken(name)
    ends = [*points, *_far_ends(holes)]
    near = min(min(x, long - x, y, wide - y) for x, y in ends)
    if s[f"{name}.face"] in ("top", "bottom"):
        near = min(near, *_from_outlines(s, ends))
    yield at_least(
        f"{name}-edge",
        name,
        near - outer,
        0.5 * hole.diameter,
        f"Metal between {said} and the edges (half a hole)",
    )
    for other in parts_of(s, "dovetail", "tee"):
        if s[f"{other}.face"] != s[f"{name}.face"]:
            continue
        form = feature_of_part(s, other)
        assert isinstance(form, EndToEnd)
        inner, reach = sorted((form.mouth / 2, form.section[-1][0] / 2))
        off = [abs(point[0 if form.across else 1] - form.at) for point in points]
        yield at_least(
            f"{name}-beside-{other}",
            name,
            min(max(inner - x - outer, x - outer - reach) for x in off),
            0.0,
            f"Metal between {said} and the flanks of {spoken(other)}",
            grave=False,
        )
    if len(points) > 1:
        yield at_least(
            f"{name}-apart",
            name,
            _pitch(holes.pattern) - 2 * outer,
            0.25 * hole.diameter,
            f"Metal between neighbours of {said} (a quarter of a hole)",
        )
    yield from _clear_checks(s, name)
    yield from _wall_checks(s, name)
    if lower := floor_of_some(s, name):
        says = f"Some of {said} begin on the floor of {spoken(lower)}, others in the "
        says += "face: make two patterns of them, each counts from where it begins."
        yield Check(f"{name}-level", name, False, says, grave=False)
    if hole.bore:
        yield at_least(
            f"{name}-seat",
            name,
            (cap_screw(str(s[f"{name}.screw"])).head_diameter - hole.diameter) / 2,
            0.5,
            f"Seat of the screw heads in {said}",
        )
        yield at_least(
            f"{name}-under-head",
            name,
            holes.reach - hole.bore_depth,
            0.8 * hole.diameter,
            f"Metal under the screw heads of {said}",
        )
    slots = in_t_nuts(s, holes) if s[f"{name}.kind"] in PASSED else 0.0
    if slots:
        yield at_least(
            f"{name}-bolts",
            name,
            slots - CLEAR - BELOW,
            cap_screw(str(s[f"{name}.screw"])).diameter,
            f"Thread of the T-nuts for {said}, {CLEAR:g} mm short of the slots' floor",
        )
    if hole.depth is not None:
        yield at_least(
            f"{name}-floor",
            name,
            holes.through - _lowest(hole, holes.lean),
            1.0,
            f"Metal below the points of {said}",
        )
    if hole.thread:
        others = [feature_of_part(s, part) for part in s["parts"] if part != name]
        left = in_metal(holes, hole.threaded(holes.reach), others)
        yield from thread_checks(name, hole, str(s["material"]), left)


def _wall_checks(s: Values, name: str) -> Iterable[Check]:
    """Metal between holes and what is cut from another face, leans otherwise or is no
    hole; of two such holes the first says it."""
    drilled, own = parts_of(s, *DRILLED), holes_of_part(s, name)
    others = [holes_of_part(s, part) for part in drilled[drilled.index(name) + 1 :]]
    # those square to one face are told by what lies between their mouths
    cuts: list[Feature] = [
        other
        for other in others
        if other.face != own.face
        or (other.lean, other.towards) != (own.lean, own.towards)
    ]
    # what is sawn afterwards leads no drill astray
    sunk = (feature_of_part(s, part) for part in parts_of(s, *SUNK))
    cuts += [cut for cut in sunk if not (isinstance(cut, Slot) and cut.sawn)]
    return wall_checks(own, cuts)


def _side_check(name: str, at: float, half: float, room: float) -> Check:
    """Metal beside a groove of which half is so wide, its middle so far from the edge
    of a face; whether any of it is left that it could be cut in."""
    beside = min(at, room - at)
    return at_least(
        f"{name}-sides",
        name,
        beside - half,
        1.0,
        f"Metal beside {spoken(name)} (below nothing it opens the edge)",
        grave=beside + half <= 0,
    )


def _between_checks(s: Values, name: str) -> Iterable[Check]:
    """Metal between what is sunk and what is sunk from another face; of two such the
    first says it."""
    parts, form = parts_of(s, *SUNK), feature_of_part(s, name)
    walls = {
        other: between(form, feature_of_part(s, other), block_of(s))
        for other in parts[parts.index(name) + 1 :]
        if s[f"{other}.face"] != s[f"{name}.face"]
    }
    nearest = min(walls, key=lambda other: walls[other], default="")
    if nearest and walls[nearest] < SEEN:
        yield at_least(
            f"{name}-between",
            name,
            walls[nearest],
            2.0,
            f"Metal between {spoken(name)} and {spoken(nearest)} (below nothing they "
            "open into each other)",
            grave=False,
        )


def _slot_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, deep = face_of(s, s[f"{name}.face"])
    slot = slot_of(s, name)
    if not slot.through:
        yield at_least(
            f"{name}-floor",
            name,
            deep - slot.depth,
            3.0,
            f"Metal left at the floor of {spoken(name)}",
        )
    elif not slot.rounded:
        says = f"{begun(spoken(name))} goes through from end to end: it parts the block"
        yield Check(f"{name}-parts", name, False, f"{says} in two. Give it a length.")
    if not slot.sawn:
        cutter = min(s[f"{name}.width"], END_MILL)
        yield _reach_check(name, cutter, min(slot.depth, deep), spoken(name))
    across, half = crosswise(s, name), s[f"{name}.width"] / 2
    if slot.turn:
        if slot.rounded:
            yield at_least(
                f"{name}-ends",
                name,
                min(min(x, long - x, y, wide - y) for x, y in slot.outline()),
                1.0,
                f"Metal round {spoken(name)} (below nothing it runs out)",
                grave=False,
            )
        return
    yield _side_check(name, s[f"{name}.at"], half, long if across else wide)
    if closed := s[f"{name}.length"]:
        first, end = s[f"{name}.from_end"], wide if across else long
        ends = min(first, end - first - closed) - half
        yield at_least(
            f"{name}-ends",
            name,
            ends,
            1.0,
            f"Metal at the ends of {spoken(name)} (below nothing it runs out)",
            grave=False,
        )


def _bore_checks(s: Values, name: str) -> Iterable[Check]:
    yield from _clear_checks(s, name)
    yield from _wall_checks(s, name)
    long, wide, deep = face_of(s, s[f"{name}.face"])
    x, y = s[f"{name}.from_side"], s[f"{name}.from_front"]
    hole = holes_of_part(s, name).hole
    yield at_least(
        f"{name}-wall",
        name,
        min(x, long - x, y, wide - y) - hole.widest / 2,
        3.0,
        f"Wall beside {spoken(name)} (below nothing it breaks out as a window)",
        grave=False,
    )
    if hole.depth is not None:
        yield at_least(
            f"{name}-floor",
            name,
            deep - hole.depth - hole.point,
            1.0,
            f"Metal left at the floor of {spoken(name)}",
        )
    if s[f"{name}.counterbore"]:
        yield at_least(
            f"{name}-pinch",
            name,
            deep - s[f"{name}.counterbore_depth"],
            2.0,
            f"Metal under the counterbore of {spoken(name)}",
        )


def _tee_checks(s: Values, name: str) -> Iterable[Check]:
    _, _, high = block_of(s)
    slot, said = tee_of(s, name), spoken(name)
    yield at_least(
        f"{name}-floor",
        name,
        high - slot.depth,
        max(3.0, slot.height / 2),
        f"Metal left under {said} (half its head's height)",
    )
    yield at_least(
        f"{name}-sides",
        name,
        min(slot.at, slot.room - slot.at) - slot.head / 2,
        slot.neck / 2,
        f"Metal beside the head of {said} (half its neck)",
    )
    yield at_least(
        f"{name}-lips",
        name,
        slot.depth - slot.height,
        0.7 * slot.neck,
        f"Lips of {said}: thinner ones break out under a clamp",
        grave=False,
    )
    beside = (tee_of(s, n) for n in parts_of(s, "tee") if n > name)
    apart = [
        abs(other.at - slot.at) - (other.head + slot.head) / 2
        for other in beside
        if (other.across, other.face) == (slot.across, slot.face)
    ]
    if apart:
        yield at_least(
            f"{name}-apart",
            name,
            min(apart),
            slot.neck / 2,
            f"Metal between {said} and the next (half its neck)",
        )


def _rebate_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    room = long if s[f"{name}.side"] in ("left", "right") else wide
    yield at_least(
        f"{name}-floor",
        name,
        min(high - s[f"{name}.depth"], room - s[f"{name}.width"]),
        3.0,
        f"Metal left under {spoken(name)} and beside it",
    )


def _dovetail_checks(s: Values, name: str) -> Iterable[Check]:
    _, _, high = block_of(s)
    flanked = dovetail_of(s, name)
    yield at_least(
        f"{name}-floor",
        name,
        high - flanked.depth,
        3.0,
        f"Metal left under {spoken(name)}",
    )
    beside = (
        min(flanked.at, flanked.room - flanked.at)
        - max(flanked.mouth, flanked.floor) / 2
    )
    if isinstance(flanked, MaleDovetail):
        yield at_least(
            f"{name}-inside",
            name,
            beside,
            0.0,
            f"Block beside the top of {spoken(name)}",
        )
        yield at_least(
            f"{name}-foot",
            name,
            flanked.floor,
            flanked.depth,
            f"Foot of {spoken(name)} (as wide as it is high)",
        )
        return
    yield at_least(
        f"{name}-sides",
        name,
        beside,
        max(3.0, flanked.depth / 2),
        f"Metal beside the foot of {spoken(name)} (half its depth)",
    )


def _vee_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    half = math.radians(s[f"{name}.angle"] / 2)
    room = long if crosswise(s, name) else wide
    yield _side_check(name, s[f"{name}.at"], s[f"{name}.width"] / 2, room)
    yield at_least(
        f"{name}-floor",
        name,
        high - s[f"{name}.width"] / 2 / math.tan(half),
        3.0,
        f"Metal left under {spoken(name)}",
    )


def _seat_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    bar, deep = s[f"{name}.diameter"], s[f"{name}.depth"]
    room = long if crosswise(s, name) else wide
    # as wide at its mouth as its depth lets it be
    half = math.sqrt(max(deep * (bar - deep), 0.0))
    yield _side_check(name, s[f"{name}.at"], half, room)
    yield at_least(
        f"{name}-floor",
        name,
        high - deep,
        max(3.0, bar / 4),
        f"Metal left under {spoken(name)} (a quarter of it)",
    )
    yield at_least(
        f"{name}-half",
        name,
        bar / 2 - deep,
        0.0,
        f"{begun(spoken(name))} no deeper than half its round, or nothing goes in",
    )


def _edge_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    top = s[f"{name}.which"] != "upright"
    yield at_least(
        f"{name}-room",
        name,
        min(long / 2, wide / 2, high if top else math.inf),
        s[f"{name}.leg"],
        f"Block for the legs of {spoken(name)}",
    )
    if len(set(cut_away(s, s[f"{name}.which"]))) == FOUR:
        says = f"Nothing is left of {spoken(name)}: other cuts take all four sides."
        yield Check(f"gone-{name}", name, False, says, grave=False)


def _corner_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, _ = block_of(s)
    yield at_least(
        f"{name}-room",
        name,
        min(long, wide) / 2,
        s[f"{name}.radius"],
        f"Half the block for the radius of {spoken(name)}",
    )


def _outline_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, _ = block_of(s)
    corners = corners_of(str(s[f"{name}.points"]))
    yield at_least(
        f"{name}-inside",
        name,
        min(min(x, long - x, y, wide - y) for x, y, _ in corners),
        0.0,
        f"Corners of {spoken(name)} inside the block",
    )


def _pocket_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, deep = face_of(s, s[f"{name}.face"])
    x, y = s[f"{name}.from_side"], s[f"{name}.from_front"]
    far = x + s[f"{name}.length"], y + s[f"{name}.width"]
    yield at_least(
        f"{name}-wall",
        name,
        min(x, y, long - far[0], wide - far[1]),
        3.0,
        f"Wall beside {spoken(name)}",
        grave=False,
    )
    yield at_least(
        f"{name}-corners",
        name,
        min(s[f"{name}.length"], s[f"{name}.width"]) / 2,
        s[f"{name}.radius"],
        f"Half the width of {spoken(name)} for the cutter in its corners",
    )
    if radius := s[f"{name}.radius"]:
        cuts = min(s[f"{name}.depth"] or deep, deep)
        yield _reach_check(name, 2 * radius, cuts, f"the corners of {spoken(name)}")
    if 0 < s[f"{name}.depth"] < deep:
        yield at_least(
            f"{name}-floor",
            name,
            deep - s[f"{name}.depth"],
            2.0,
            f"Metal left at the floor of {spoken(name)}",
        )


def _reach_check(name: str, cutter: float, cuts: float, into: str) -> Check:
    """Whether an end mill that goes into a place is long enough, and stiff."""
    return at_least(
        f"{name}-reach",
        name,
        REACH * cutter,
        cuts,
        f"Reach of the end mill that goes into {into} ({REACH:g} times its ⌀)",
        grave=False,
    )


_CHECKS: Mapping[str, Callable[[Values, str], Iterable[Check]]] = {
    "hole": _holes_checks,
    "row": _holes_checks,
    "holes": _holes_checks,
    "ring": _holes_checks,
    "pattern": _holes_checks,
    "bore": _bore_checks,
    "slot": _slot_checks,
    "rebate": _rebate_checks,
    "dovetail": _dovetail_checks,
    "tee": _tee_checks,
    "vee": _vee_checks,
    "seat": _seat_checks,
    "edge": _edge_checks,
    "corner": _corner_checks,
    "outline": _outline_checks,
    "pocket": _pocket_checks,
}


def checks(s: Values) -> Iterable[Check]:
    yield at_least("stock", "stock", s["stock.over"], 0.5, "Stock on each side")
    for name in s["parts"]:
        yield from _CHECKS[kind_of(name)](s, name)
    for name in parts_of(s, *SUNK):
        yield from _between_checks(s, name)
    if is_there(s, "lathe.centre_height"):
        yield at_least(
            "height",
            "block",
            s["lathe.centre_height"] - s["block.height"],
            0.0,
            "Height under the centre it is to stand below",
            grave=False,
        )
    if is_there(s, "lathe.slide"):
        # turned the better way round, and in the middle
        over = (min(s["block.length"], s["block.width"]) - s["lathe.slide"]) / 2
        yield at_least(
            "overhang",
            "block",
            s["block.height"] / 2,
            max(over, 0.0),
            "Half its height, for what stands out on either side of its slide",
            grave=False,
        )
