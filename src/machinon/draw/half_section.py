"""What turns, drawn along its axis: the upper half cut, the lower as seen; ISO 128."""

import functools
import math
from collections.abc import Iterable, Iterator, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from msgspec.structs import replace

from machinon.core.piece.body import Body
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes, least_turn
from machinon.core.piece.milled_features import CrossSlot, Flats, Keyway, Slits
from machinon.core.piece.solid_cuts import Point
from machinon.core.piece.turned_features import Ball, EdgeRound, Knurl, NutThread, Screw
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import EDGE, Board, Line, Place, Role, Shape

if TYPE_CHECKING:
    from shapely.geometry import LineString
    from shapely.geometry.base import BaseGeometry

SHY = 1e-6  # mm from the axis that counts as on it
LEAST_SEEN = 0.1  # of its width, from where on a hole is seen from the side


def _union(parts: Iterable[list[Point]]):  # type: ignore[no-untyped-def]
    from shapely import Polygon, make_valid, union_all

    return union_all(make_valid([Polygon(part) for part in parts if len(part) > 2]))


def _rings(region) -> list[list[Point]]:  # type: ignore[no-untyped-def]
    parts = getattr(region, "geoms", [region])
    return [
        [(float(x), float(y)) for x, y in part.exterior.coords[:-1]]
        for part in parts
        if not part.is_empty and part.geom_type == "Polygon" and part.area > 1e-9
    ]


@functools.lru_cache(maxsize=64)
def envelope(body: Body) -> list[list[Point]]:
    """The outside as seen from the side: the half section filled to the axis, less what
    flats take off there."""
    import shapely

    filled = [
        [(az, 0.0), (bz, 0.0), (bz, br), (az, ar)]
        for ring in body.rings()
        for (az, ar), (bz, br) in zip(ring, [*ring[1:], ring[0]], strict=True)
        if abs(az - bz) > 1e-9 and max(ar, br) > 1e-9
    ]
    if not filled:
        return []
    whole = shapely.union_all(shapely.polygons(filled))
    for flats in _flats_of(body):
        whole = whole.difference(_over(flats, _seen_to(flats, body)))
    return _rings(whole)


def _flats_of(body: Body) -> list[Flats]:
    return [feature for feature in body.features if isinstance(feature, Flats)]


def _over(flats: Flats, level: float):  # type: ignore[no-untyped-def]
    """All over a height along some flats."""
    from shapely import box

    return box(flats.start, level, flats.end, 1e5)


@functools.lru_cache(maxsize=64)
def round_under(flats: Flats, body: Body) -> float:
    """Radius of the largest round that flats are cut on."""
    long = flats.end - flats.start
    places = [flats.start + (i + 0.5) / 12 * long for i in range(12)]
    return max(outer for _, outer in body.radii_at(places))


def _cut_to(flats: Flats, body: Body) -> float:
    """Height of the half that is cut, where flats may take some of it."""
    radius = round_under(flats, body)
    for begin, end in flats.spans(radius):
        off = (90.0 - begin) % 360.0
        if off < end - begin:  # the plane of the section goes through this one
            lean = math.radians(off - (end - begin) / 2)
            return flats.across / 2 / math.cos(lean)
    return radius


def _seen_to(flats: Flats, body: Body) -> float:
    """Height of the half that is seen from outside: to the round, or to the edge of a
    flat that takes off the lowest of it."""
    radius = round_under(flats, body)
    for begin, end in flats.spans(radius):
        if (-90.0 - begin) % 360.0 < end - begin:
            out = flats.across / 2 / math.cos(math.radians(end - begin) / 2)
            return -out * min(math.sin(math.radians(turn)) for turn in (begin, end))
    return radius


def round_lost(flats: Flats, body: Body) -> bool:
    """Whether neither half shows the round that flats are cut on: a square's corners
    stand towards and away from who looks."""
    out = round_under(flats, body)
    return max(_cut_to(flats, body), _seen_to(flats, body)) < out - 1e-3


def flats_seen(flats: Flats, body: Body) -> list[tuple[float, float]]:
    """From where to where each flat is seen in the lower half as it is looked at from
    outside, mm from the axis; the first is looked at square on."""

    def height(turn: float, square: float) -> float:
        """Of the place at a turn of the flat that is square on at another, degrees."""
        out = flats.across / 2 / math.cos(math.radians(turn - square))
        return out * math.sin(math.radians(turn))

    found = []
    for begin, end in flats.spans(round_under(flats, body)):
        middle = (begin + end) / 2
        turned = math.remainder(middle, 360.0)
        low, high = turned + begin - middle, turned + end - middle
        low, high = max(low, -90.0), min(high, 0.0)
        if low < high:
            found.append((height(low, turned), height(high, turned)))
    return found


def hole_section(holes: Feature) -> list[Point]:
    """A hole or keyway of what turns as the section meets it, one of each turned into
    it: (z, r); empty for what is neither."""
    if isinstance(holes, Holes) and holes.block is None:
        x, y = holes.points[0]
        at, out = math.hypot(x, y), 1.0 if holes.face == "left" else -1.0
        profile = holes.hole.profile(holes.through)
        side = [(holes.level + out * d, at + r) for d, r in profile]
        return side + [(holes.level + out * d, at - r) for d, r in reversed(profile)]
    if isinstance(holes, CrossHoles):
        top = holes.diameter / 2
        profile = holes.hole.profile(holes.through)
        # turned into the section, where the corner of a bar may stand over its mouth
        profile = ((-holes.diameter, profile[0][1]), *profile)
        side = [(holes.z + r, top - d) for d, r in profile]
        return side + [(holes.z - r, top - d) for d, r in reversed(profile)]
    if isinstance(holes, Keyway):
        top, deep = holes.diameter / 2, holes.depth
        low, high = (top - 1, top + deep) if holes.inside else (top - deep, top + 1)
        return [
            (holes.start, low),
            (holes.end, low),
            (holes.end, high),
            (holes.start, high),
        ]
    return []


def turned_in(body: Body) -> list[Feature]:
    """Its holes and keyways that the section shows. Where holes of one end or one place
    would lie on each other once they are turned into it, those that lie there
    already."""
    shown: list[Feature] = []
    holes = [feature for feature in body.features if hole_section(feature)]
    for feature in sorted(holes, key=_out_of_the_section):
        if not any(_on_each_other(feature, other) for other in shown):
            shown.append(feature)
    return shown


def _out_of_the_section(feature: Feature) -> float:
    """Degrees from the half that is cut to the nearest of its holes."""
    if isinstance(feature, CrossHoles):
        return least_turn(feature.angles, [90.0])
    if not isinstance(feature, Holes):
        return 0.0
    return round(min(abs(math.degrees(math.atan2(x, y))) for x, y in feature.points), 2)


def _on_each_other(holes: Feature, other: Feature) -> bool:
    """Whether two are holes of one end at one distance from the axis, or from the side
    at one place along it."""
    if isinstance(holes, CrossHoles) and isinstance(other, CrossHoles):
        turned = least_turn(holes.angles, other.angles)
        reach = (holes.hole.widest + other.hole.widest) / 2
        return turned > 0 and abs(holes.z - other.z) < reach
    if not (isinstance(holes, Holes) and isinstance(other, Holes)):
        return False
    apart = abs(math.hypot(*holes.points[0]) - math.hypot(*other.points[0]))
    across = holes.hole.mouth[0][0] + other.hole.mouth[0][0]
    return holes.face == other.face and apart < across


def _undrilled(body: Body):  # type: ignore[no-untyped-def]
    """What the section would go through without holes and keyways: (z, r)."""
    cut = body.region
    for flats in _flats_of(body):
        cut = cut.difference(_over(flats, _cut_to(flats, body)))
    return cut


@functools.lru_cache(maxsize=64)
def _metal_cut(body: Body):  # type: ignore[no-untyped-def]
    """What of the metal the section goes through: (z, r)."""
    holes = [hole_section(feature) for feature in turned_in(body)]
    whole = _undrilled(body)
    return whole.difference(_union(holes)) if holes else whole


def draw_upper_half(
    board: Board, body: Body, place: Place, role: Role = "outline"
) -> None:
    """The half above the axis, cut and hatched; ISO 128."""
    if turned_in(body):  # beyond a hole its far edge is seen
        for ring in _rings(_undrilled(body)):
            points = tuple(place(z, r) for z, r in ring)
            board.items.append(Shape(points, role, 1.2, "panel"))
    for ring in _rings(_metal_cut(body)):
        points = tuple(place(z, r) for z, r in ring)
        board.items.append(Shape(points, role, EDGE, "panel", "right"))
    for z, r in _inner_edges(body):
        board.items.append(Line(place(z, 0.0), place(z, r), role, 1.2))


def draw_half_section(board: Board, body: Body, place: Place) -> None:
    """Upper half cut and hatched, lower half as seen from outside; ISO 128."""
    first, last = body.ends
    begun = len(board.items)
    draw_upper_half(board, body, place)
    rounds = [
        feature for feature in body.features if isinstance(feature, EdgeRound | Ball)
    ]
    for ring in envelope(body):
        mirrored = tuple(place(z, -r) for z, r in ring)
        board.items.append(Shape(mirrored, "outline", EDGE, "panel"))
        for z, r in ring:
            smooth = any(feature.holds(z, r) for feature in rounds)
            if r > 1e-6 and first + 1e-6 < z < last - 1e-6 and not smooth:
                board.items.append(Line(place(z, 0.0), place(z, -r), "outline", 1.2))
    for feature in body.features:
        draw_lines_on(board, body, feature, place)
        if isinstance(feature, CrossHoles):
            _mouths_outside(board, feature, place)
    for feature in turned_in(body):
        _tapped_lines(board, body, feature, place)
    past = 0.06 * (last - first) + 2
    board.items.append(
        Line(place(first - past, 0.0), place(last + past, 0.0), "centre", 1.0)
    )
    for holes in body.features:
        if isinstance(holes, Holes) and holes.block is None:
            x, y = holes.points[0]
            at = math.hypot(x, y)
            out = 1.0 if holes.face == "left" else -1.0
            hole = holes.hole
            deep = holes.through if hole.depth is None else hole.depth + hole.point
            ends = (
                place(holes.level - 3 * out, at),
                place(holes.level + out * (deep + 3), at),
            )
            board.items.append(Line(*ends, "centre", 1.0))
    board.once(begun)


def draw_lines_on(board: Board, body: Body, feature: Feature, place: Place) -> None:
    """The lines on the metal that tell a thread, flats, a knurl or slits."""
    match feature:
        case Screw() | NutThread(threaded=True):
            _thread_lines(board, body, feature, place)
        case Flats():
            _flat_lines(board, body, feature, place)
        case Knurl():
            first, last = body.ends
            start, end = max(feature.start, first), min(feature.end, last)
            if start < end:  # what runs past the metal is said by a check
                _knurl_lines(board, replace(feature, start=start, end=end), place)
        case Slits():
            _slit_lines(board, feature, place)
        case CrossSlot():
            _slot_lines(board, feature, place)


def mouth_seen(holes: CrossHoles) -> float | None:
    """Height of the mouth of a cross hole that is seen best in the half below the
    axis; None where none is."""
    below = [up for _, up in _looking_out(holes) if up < -SHY]
    return max(below, default=None)


def _looking_out(holes: CrossHoles) -> Iterator[tuple[float, float]]:
    """Of each mouth that looks at whoever reads the sheet, in the half below the axis:
    how much of its width is seen, and its height."""
    for turn in map(math.radians, holes.angles):
        out, up = -math.cos(turn), math.sin(turn) * holes.diameter / 2
        if out >= LEAST_SEEN and up <= SHY:
            yield out, up


def _mouths_outside(board: Board, holes: CrossHoles, place: Place) -> None:
    """Draws the mouths of cross holes in the lower half as it is seen from outside;
    each narrower the more it is seen from the side."""
    for out, up in _looking_out(holes):
        ring = holes.hole.mouth
        if up > -SHY:  # the other half is cut away
            ring = ring[: len(ring) // 2 + 1]
        points = tuple(place(holes.z + z, min(up + out * r, 0.0)) for z, r in ring)
        board.items.append(Shape(points, "outline", 1.2, closed=False))


def _knurl_lines(board: Board, knurl: Knurl, place: Place) -> None:
    """A knurl as seen from outside: its crests, crossed or along; ISO 128."""
    r = knurl.diameter / 2
    low, long = -r, knurl.end - knurl.start
    step = max(knurl.pitch, 0.12 * r)
    if not knurl.crossed:
        for i in range(1, math.ceil(r / step)):
            ends = place(knurl.start, -i * step), place(knurl.end, -i * step)
            board.items.append(Line(*ends, "thin", 0.7))
        return
    lean = math.tan(math.radians(30.0))
    rise = (0.0 - low) * lean  # how far a crest runs along the axis over the half
    for sign in (1, -1):
        at = -rise if sign > 0 else 0.0
        while at < (long if sign > 0 else long + rise):
            a, b = (at, low), (at + sign * rise, 0.0)
            line = _within(a, b, 0.0, long)
            if line is not None:
                (za, ra), (zb, rb) = line
                ends = place(knurl.start + za, ra), place(knurl.start + zb, rb)
                board.items.append(Line(*ends, "thin", 0.7))
            at += 2 * step


def _within(a: Point, b: Point, low: float, high: float) -> tuple[Point, Point] | None:
    """The part of a line whose first figure lies between two; None for none of it."""
    (az, ar), (bz, br) = sorted((a, b))
    if bz <= low or az >= high:
        return None

    def at(z: float) -> Point:
        return z, ar + (br - ar) * (z - az) / (bz - az)

    return at(max(az, low)), at(min(bz, high))


def _slit_lines(board: Board, slits: Slits, place: Place) -> None:
    """The near edge of the saw cut that is looked into."""
    r = -slits.width / 2
    board.items.append(Line(place(slits.start, r), place(slits.end, r), "outline", 1.2))


def _slot_lines(board: Board, slot: CrossSlot, place: Place) -> None:
    """The half of a slot's mouth that is not cut away."""
    start, end, low = slot.start, slot.end, -slot.width / 2
    for a, b in pairwise(((start, 0.0), (start, low), (end, low), (end, 0.0))):
        board.items.append(Line(place(*a), place(*b), "outline", 1.2))


def _flat_lines(board: Board, body: Body, flats: Flats, place: Place) -> None:
    """The edges of flats seen from outside; of the one that is seen square on its
    diagonals, thin; ISO 128."""
    start, end = flats.start, flats.end
    first, last = body.ends
    for n, (low, high) in enumerate(flats_seen(flats, body)):
        edges = [((start, low), (end, low))]
        # where it ends in the round, whose rest stands over it
        edges += [((z, low), (z, high)) for z in (start, end) if first < z < last]
        for a, b in edges:
            board.items.append(Line(place(*a), place(*b), "outline", 1.2))
        if n == 0:
            for a, b in (((start, low), (end, high)), ((start, high), (end, low))):
                board.items.append(Line(place(*a), place(*b), "thin", 0.8))


@functools.lru_cache(maxsize=64)
def _inner_edges(body: Body) -> tuple[Point, ...]:
    """Edges of the bores, seen beyond the section: each from the axis to (z, r)."""
    corners = [corner for ring in body.rings() for corner in ring]
    at, before, behind = (
        body.radii_at([z + beside for z, _ in corners]) for beside in (0.0, -1e-4, 1e-4)
    )
    return tuple(
        corner
        for corner, *sides in zip(corners, at, before, behind, strict=True)
        if 1e-6 < corner[1] <= max(inner for inner, _ in sides) + 1e-6
    )


def _thread_lines(
    board: Board, body: Body, thread: Screw | NutThread, place: Place
) -> None:
    """The thin line of a thread in its metal, at a screw's root or a nut's crest; ISO
    6410."""
    from shapely.geometry import LineString

    outside = isinstance(thread, Screw)
    r = (thread.of.minor_external if outside else thread.of.major) / 2
    line = LineString([(thread.start, r), (thread.end, r)])
    for (first, _), (last, _) in _parts_in(line, body.region):
        for side in (r, -r) if outside else (r,):
            ends = place(first, side), place(last, side)
            board.items.append(Line(*ends, "thin", 0.9))


def _parts_in(line: "LineString", metal: "BaseGeometry") -> Iterator[Sequence[Point]]:
    """The parts of a straight line that lie in metal: their two ends each."""
    inside = line.intersection(metal)
    for part in getattr(inside, "geoms", [inside]):
        if part.length > SHY:
            yield list(part.coords)


def _tapped_lines(board: Board, body: Body, holes: Feature, place: Place) -> None:
    """The thin lines of a hole's thread in its metal, at its crest; ISO 6410."""
    from shapely.geometry import LineString

    if not isinstance(holes, Holes | CrossHoles) or not holes.hole.thread:
        return
    r = thread_of(holes.hole.thread).major / 2
    deep = holes.hole.threaded(holes.through)
    for side in (-r, r):
        if isinstance(holes, CrossHoles):
            z, top = holes.z + side, holes.diameter / 2
            crest = LineString([(z, top), (z, top - deep)])
        else:
            at = math.hypot(*holes.points[0]) + side
            out = 1.0 if holes.face == "left" else -1.0
            crest = LineString([(holes.level, at), (holes.level + out * deep, at)])
        for start, end in _parts_in(crest, _metal_cut(body)):
            board.items.append(Line(place(*start), place(*end), "thin", 0.9))
