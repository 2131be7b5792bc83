"""Views of a body: half section and end view of what turns, three views of a block."""

import functools
import math
import operator
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any

from machinon.core.piece.block_features import CornerRounds, FlankedSlot, SixFaces
from machinon.core.piece.body import Body, cuts_of
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Arc, CrossHoles, Holes
from machinon.core.piece.hole_features import Circle as HoleCircle
from machinon.core.piece.shadow import VIEWS, Shadow, opens
from machinon.core.piece.solid_cuts import Drilled, Point, Sunk, extent, rectangle
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    Flats,
    Keyway,
    Knurl,
    NutThread,
    Screw,
    Slits,
)
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import Board, Circle, Line, Role, Shape

Place = Callable[[float, float], Point]
EDGE = 1.8
SHY = 1e-6  # mm that an edge lies within an outline, to be seen beside it
LEAST_SEEN = 0.1  # of its width, from where on a hole is seen from the side


def _union(parts: Iterable[list[Point]]):  # type: ignore[no-untyped-def]
    from shapely.geometry import Polygon
    from shapely.ops import unary_union

    return unary_union([Polygon(part).buffer(0) for part in parts if len(part) > 2])


def _rings(region) -> list[list[Point]]:  # type: ignore[no-untyped-def]
    parts = getattr(region, "geoms", [region])
    return [
        [(float(x), float(y)) for x, y in part.exterior.coords[:-1]]
        for part in parts
        if not part.is_empty and part.geom_type == "Polygon" and part.area > 1e-9
    ]


# -- what turns ------------------------------------------------------------


@functools.lru_cache(maxsize=64)
def envelope(body: Body) -> list[list[Point]]:
    """What is seen of the outside: the half section filled to the axis."""
    import shapely

    filled = [
        [(az, 0.0), (bz, 0.0), (bz, br), (az, ar)]
        for ring in body.rings()
        for (az, ar), (bz, br) in zip(ring, [*ring[1:], ring[0]], strict=True)
        if abs(az - bz) > 1e-9 and max(ar, br) > 1e-9
    ]
    return _rings(shapely.union_all(shapely.polygons(filled))) if filled else []


def hole_section(one: Feature) -> list[Point]:
    """A hole or keyway of what turns as the section meets it, one of each turned into
    it: (z, r); empty for what is neither."""
    if isinstance(one, Holes) and one.block is None:
        x, y = one.points[0]
        at, out = math.hypot(x, y), 1.0 if one.face == "left" else -1.0
        profile = one.hole.profile(one.through)
        side = [(one.level + out * d, at + r) for d, r in profile]
        return side + [(one.level + out * d, at - r) for d, r in reversed(profile)]
    if isinstance(one, CrossHoles):
        top = one.diameter / 2
        profile = one.hole.profile(one.through)
        side = [(one.z + r, top - d) for d, r in profile]
        return side + [(one.z - r, top - d) for d, r in reversed(profile)]
    if isinstance(one, Keyway):
        top, deep = one.diameter / 2, one.depth
        low, high = (top - 1, top + deep) if one.inside else (top - deep, top + 1)
        return [(one.start, low), (one.end, low), (one.end, high), (one.start, high)]
    return []


def draw_upper_half(
    board: Board, body: Body, place: Place, role: Role = "outline"
) -> None:
    """The half above the axis, cut and hatched; ISO 128."""
    cut = body.region
    holes = [found for one in body.features if (found := hole_section(one))]
    if holes:
        cut = cut.difference(_union(holes))
        # beyond a hole its far edge is seen
        for ring in body.rings():
            points = tuple(place(z, r) for z, r in ring)
            board.items.append(Shape(points, role, 1.2, "panel"))
    for ring in _rings(cut):
        points = tuple(place(z, r) for z, r in ring)
        board.items.append(Shape(points, role, EDGE, "panel", "right"))
    for z, r in _inner_edges(body):
        board.items.append(Line(place(z, 0.0), place(z, r), role, 1.2))


def draw_half_section(board: Board, body: Body, place: Place) -> None:
    """Upper half cut and hatched, lower half as seen from outside; ISO 128."""
    first, last = body.ends
    begun = len(board.items)
    draw_upper_half(board, body, place)
    for ring in envelope(body):
        mirrored = tuple(place(z, -r) for z, r in ring)
        board.items.append(Shape(mirrored, "outline", EDGE, "panel"))
        for z, r in ring:
            if r > 1e-6 and first + 1e-6 < z < last - 1e-6:
                board.items.append(Line(place(z, 0.0), place(z, -r), "outline", 1.2))
    for one in body.features:
        _thread_lines(board, one, place)
        if isinstance(one, CrossHoles):
            _mouths_outside(board, one, place)
    past = 0.06 * (last - first) + 2
    board.items.append(
        Line(place(first - past, 0.0), place(last + past, 0.0), "centre", 1.0)
    )
    for one in body.features:
        if isinstance(one, Holes) and one.block is None:
            x, y = one.points[0]
            at = math.hypot(x, y)
            ends = place(one.level - 4, at), place(one.level + 4, at)
            if one.through:
                out = 1.0 if one.face == "left" else -1.0
                ends = (
                    place(one.level - 3 * out, at),
                    place(one.level + out * (one.through + 3), at),
                )
            board.items.append(Line(*ends, "centre", 1.0))
    for one in body.features:
        if isinstance(one, Flats):
            _flat_lines(board, one, place)
        elif isinstance(one, Knurl):
            _knurl_lines(board, one, place)
        elif isinstance(one, Slits):
            _slit_lines(board, one, place)
    _once(board, begun)


def _mouths_outside(board: Board, one: CrossHoles, place: Place) -> None:
    """Where cross holes come out of the lower half as it is seen from outside; each
    narrower the more it is seen from the side."""
    for i in range(one.count):
        turn = math.radians(one.angle + 360.0 * i / one.count)
        out, up = -math.cos(turn), math.sin(turn) * one.diameter / 2
        if out < LEAST_SEEN or up > SHY:
            continue
        ring = one.hole.mouth
        if up > -SHY:  # the other half is cut away
            ring = ring[: len(ring) // 2 + 1]
        points = tuple(place(one.z + z, min(up + out * r, 0.0)) for z, r in ring)
        board.items.append(Shape(points, "outline", 1.2, closed=False))


def _knurl_lines(board: Board, one: Knurl, place: Place) -> None:
    """A knurl as seen from outside: its crests, crossed or along; ISO 128."""
    r = one.diameter / 2
    low, long = -r, one.end - one.start
    step = max(one.pitch, 0.12 * r)
    if not one.crossed:
        for i in range(1, math.ceil(r / step)):
            ends = place(one.start, -i * step), place(one.end, -i * step)
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
                ends = place(one.start + za, ra), place(one.start + zb, rb)
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


def _slit_lines(board: Board, one: Slits, place: Place) -> None:
    """The near edge of the saw cut that is looked into."""
    r = -one.width / 2
    board.items.append(Line(place(one.start, r), place(one.end, r), "outline", 1.2))


def _flat_lines(board: Board, one: Flats, place: Place) -> None:
    """A flat seen square on has its diagonals thin; ISO 128."""
    half = one.across / 2 * math.tan(math.pi / max(one.count, 3))
    low, high = -min(half, one.across / 2), 0.0
    for a, b in (
        ((one.start, low), (one.end, high)),
        ((one.start, high), (one.end, low)),
    ):
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


def _thread_lines(board: Board, one: Feature, place: Place) -> None:
    """The thin line of a thread, at a screw's root or a nut's crest; ISO 6410."""
    if isinstance(one, Screw):
        r = one.of.minor_external / 2
        for side in (1, -1):
            ends = place(one.start, side * r), place(one.end, side * r)
            board.items.append(Line(*ends, "thin", 0.9))
    elif isinstance(one, NutThread):
        r = one.of.major / 2
        ends = place(one.start, r), place(one.end, r)
        board.items.append(Line(*ends, "thin", 0.9))


def draw_end_view(board: Board, body: Body, centre: Point, scale: float) -> None:
    """What turns as seen from its right end."""

    def ring(
        radius: float, role: Role = "outline", width: float = 1.4, fill: Role = "none"
    ) -> None:
        board.items.append(Circle(centre, radius * scale, role, width, fill))

    def at(x: float, y: float) -> Point:
        return centre[0] + x * scale, centre[1] - y * scale

    begun = len(board.items)
    ring(body.largest / 2, width=EDGE, fill="panel")
    near: Role
    radii, bore = _seen_radii(body)
    for radius in sorted(radii):
        if radius < body.largest / 2 - 1e-3:
            ring(radius, fill="ground" if radius == bore else "none")
    for one in body.features:
        if isinstance(one, Holes) and one.block is None:
            if isinstance(one.pattern, HoleCircle | Arc):
                ring(one.pattern.diameter / 2, "centre", 1.0)
            for x, y in one.points:
                hole, middle = one.hole, at(x, y)
                radius = hole.rim / 2 * scale
                through = hole.depth is None
                seen: Role = "outline" if through or one.face == "right" else "hidden"
                fill: Role = "ground" if through else "none"
                board.items.append(Circle(middle, radius, seen, 1.4, fill))
                near = "outline" if one.face == "right" else "hidden"
                for wide in (hole.bore, hole.sink):
                    if wide > hole.diameter:
                        board.items.append(Circle(middle, wide / 2 * scale, near, 1.0))
                if hole.thread:
                    crest = thread_of(hole.thread).major / 2 * scale
                    board.items.append(Circle(middle, crest, "thin", 0.9))
        elif isinstance(one, Keyway):
            half, top = one.width / 2, one.diameter / 2
            rim = math.sqrt(
                max(top**2 - half**2, 0.0)
            )  # where its sides meet the round
            floor = top + one.depth if one.inside else top - one.depth
            sides = tuple(
                at(x, y)
                for x, y in ((-half, rim), (-half, floor), (half, floor), (half, rim))
            )
            first, last = body.ends
            near = _seen_as(body, one.end, top, one.inside)
            if one.end >= last and (one.start <= first or not one.inside):
                # the round is open there
                past = rim - 1 / scale if one.inside else top + 1 / scale
                clear: Role = "ground" if one.inside else "panel"
                mouth = (*sides[1:3], *(at(x, past) for x in (half, -half)))
                board.items.append(Shape(mouth, clear, 0.5, clear))
            board.items.append(Shape(sides, near, 1.4, closed=False))
        elif isinstance(one, Slits):
            half, r = one.width / 2, one.diameter / 2
            from_r = max(half, body.radii(one.end - 1e-4)[0])
            for i in range(one.count):
                along = math.radians(90.0 + 360.0 * i / one.count)
                (ux, uy), (vx, vy) = (
                    (math.cos(along), math.sin(along)),
                    (-math.sin(along), math.cos(along)),
                )
                for side in (-half, half):
                    a, b = (
                        at(k * ux + side * vx, k * uy + side * vy) for k in (from_r, r)
                    )
                    board.items.append(Line(a, b, "outline", 1.4))
        elif isinstance(one, Flats):
            turn = math.pi / one.count if one.count > 2 else 0.0
            most = body.radii(one.start + 1e-4)[1]
            near = _seen_as(body, one.end, most)
            for side in (1, -1)[: one.count] if one.count <= 2 else ():
                x = side * one.across / 2
                y = math.sqrt(max(most**2 - x**2, 0.0))
                board.items.append(Line(at(x, -y), at(x, y), near, 1.4))
            if one.count > 2:
                out = one.across / 2 / math.cos(turn)
                turns = [turn * (2 * i + 1) for i in range(one.count)]
                points = tuple(at(out * math.cos(a), out * math.sin(a)) for a in turns)
                board.items.append(Shape(points, near, 1.4))
    reach = body.largest / 2 * scale * 1.08
    x, y = centre
    board.items.append(Line((x - reach, y), (x + reach, y), "centre", 1.0))
    board.items.append(Line((x, y - reach), (x, y + reach), "centre", 1.0))
    _once(board, begun)


def _seen_as(body: Body, end: float, radius: float, inside: bool = False) -> Role:
    """How what is cut into a round is drawn as seen from the right: hidden where as
    much metal stands before its end."""
    _, last = body.ends
    corners = {z for ring in body.rings() for z, _ in ring if end < z < last}
    sides = [z + off for z in (end, *corners, last) for off in (-1e-4, 1e-4)]
    before = body.radii_at([z for z in sides if end < z < last])
    if inside:
        hides = any(inner < radius + 1e-3 for inner, _ in before)
    else:
        hides = any(outer > radius - 1e-3 for _, outer in before)
    return "hidden" if hides else "outline"


@functools.lru_cache(maxsize=64)
def _seen_radii(body: Body) -> tuple[set[float], float]:
    """Radii of the edges that are seen from the right end, and that of the bore that
    goes through; 0 for none."""
    stations = sorted({z for ring in body.rings() for z, _ in ring}, reverse=True)
    seen: set[float] = set()
    largest, least = 0.0, math.inf
    sides = [z + beside for z in stations for beside in (-1e-4, 1e-4)]
    for inner, outer in body.radii_at(sides):
        if outer > largest + 1e-3:
            largest = outer
            seen.add(round(outer, 3))
        if outer > 0 and inner < least - 1e-3:
            if inner > 1e-3:
                seen.add(round(inner, 3))
            least = inner
    return seen, round(least, 3)


# -- blocks ----------------------------------------------------------------

Edge = tuple[Sequence[Point], Role]  # a chain of points in mm


def draw_block_view(board: Board, body: Body, view: str, place: Place) -> None:
    """One view of a block: outline, what is seen in it, what is hidden dashed."""
    assert isinstance(body.stock, Block)
    unit = place(1, 0)[0] - place(0, 0)[0]
    outline = [(_area(ring), ring) for ring in body.shadow.outlines[view]]
    for area, ring in sorted(outline, key=lambda one: -abs(one[0])):
        fill: Role = "panel" if area > 0 else "ground"
        hole = None if area > 0 else _round(ring)
        if hole is None:
            points = tuple(place(x, y) for x, y in ring)
            board.items.append(Shape(points, "outline", EDGE, fill))
        else:
            (x, y), radius = hole
            circle = Circle(place(x, y), radius * unit, "outline", EDGE, fill)
            board.items.append(circle)
    begun = len(board.items)
    for one in body.features:
        for cut in cuts_of(one):
            if isinstance(cut, Drilled):
                _drilled_lines(board, cut, view, place, one, body.shadow.box)
    edges: dict[tuple[Point, ...], Role] = {}
    for chain, role in sorted(_sunk_edges(body)[view], key=lambda edge: edge[1]):
        edges[tuple(place(x, y) for x, y in chain)] = role  # "outline" over "hidden"
    for points, role in edges.items():
        board.items.append(Shape(points, role, 1.2, closed=False))
    _once(board, begun)


def _once(board: Board, begun: int) -> None:
    """What stands behind its like is one line with it."""
    board.items[begun:] = dict.fromkeys(board.items[begun:])


def _round(ring: Sequence[Point]) -> tuple[Point, float] | None:
    """The centre and radius of a ring that is a whole circle; None if it is none."""
    left, low, right, high = extent(ring)
    centre, radius = ((left + right) / 2, (low + high) / 2), (right - left) / 2
    # the shadow's circles have many sides, a square has four
    whole = len(ring) > 12 and all(
        math.isclose(math.dist(centre, point), radius, abs_tol=1e-4) for point in ring
    )
    return (centre, radius) if whole else None


def _area(points: Sequence[Point]) -> float:
    """Within a closed ring, mm²; less than nothing for one that goes clockwise."""
    xs, ys = zip(*points, strict=True)
    ahead: float = sum(map(operator.mul, xs, (*ys[1:], ys[0])))
    back: float = sum(map(operator.mul, (*xs[1:], xs[0]), ys))
    return (ahead - back) / 2


def _drilled_lines(
    board: Board,
    cut: Drilled,
    view: str,
    place: Place,
    one: Feature,
    box: tuple[float, ...],
) -> None:
    across, up, along = VIEWS[view]
    into = cut.frame.into
    if abs(into[along]) > 0.5:
        at = cut.frame.at(*cut.at)
        if cut.tilt and isinstance(one, Holes):
            # the pass that leans is seen where it comes out
            at = _leant(cut, one.through)
        centre = place(at[across], at[up])
        unit = place(at[across] + 1, at[up])[0] - centre[0]
        seen = into[along] < 0 if view != "front" else into[along] > 0
        hole = one.hole if isinstance(one, Holes) else None
        radii = sorted({round(r, 6) for _, r in cut.in_metal if r > 0})
        through = hole is not None and hole.depth is None
        for radius in radii:
            least = radius == radii[0]
            if least and opens(cut, view, box):
                continue  # the opening itself is in the view's outline
            role: Role = "outline" if seen or (least and through) else "hidden"
            board.items.append(Circle(centre, radius * unit, role, 1.4))
        if hole is not None and hole.thread:
            board.items.append(
                Circle(centre, thread_of(hole.thread).major / 2 * unit, "thin", 0.9)
            )
        reach = (max(radii) + 2) * unit
        x, y = centre
        board.items.append(Line((x - reach, y), (x + reach, y), "centre", 0.9))
        board.items.append(Line((x, y - reach), (x, y + reach), "centre", 0.9))
        return
    # from the side: its profile dashed, its axis
    side = across if abs(into[up]) > 0.5 else up
    end = cut.profile[-1][0]
    if isinstance(one, Holes) and one.hole.depth is None:
        end = one.through

    def aside(depth: float, radius: float) -> Point:
        shifted = [*_leant(cut, min(depth, end))]
        shifted[side] += radius
        return place(shifted[across], shifted[up])

    chains = [[aside(d, sign * r) for d, r in cut.in_metal] for sign in (1, -1)]
    if isinstance(one, Holes) and one.hole.thread:
        crest = thread_of(one.hole.thread).major / 2
        deep = one.hole.threaded(end)
        round_it = (0, crest), (deep, crest), (deep, -crest), (0, -crest)
        chains.append([aside(depth, radius) for depth, radius in round_it])
    for chain in chains:
        board.items.append(Shape(tuple(chain), "hidden", 1.0, closed=False))
    mouth, bottom = _leant(cut, -2), _leant(cut, end + 2)
    ends = place(mouth[across], mouth[up]), place(bottom[across], bottom[up])
    board.items.append(Line(*ends, "centre", 0.9))


def _leant(cut: Drilled, depth: float) -> tuple[float, float, float]:
    """Where a hole's axis is at a depth."""
    u, v = cut.at
    return cut.frame.at(u + depth * math.tan(math.radians(cut.tilt)), v, depth)


def _flank_edges(one: FlankedSlot, cut: Sunk, view: str) -> list[Edge]:
    """A slot with leaning flanks from its side: every edge by itself, since from above
    the floor of a vee is seen and that of a dovetail is not."""
    across, up, _ = VIEWS[view]
    level = one.block[2] if one.face == "top" else 0.0
    found: list[Edge] = []
    for u, v in cut.outline:
        run = (cut.frame.at(u, v, depth) for depth in (cut.top, cut.bottom))
        mouth = abs(v - level) < 1e-6
        seen = view == one.face and (mouth or one.floor <= one.mouth)
        ends = [(p[across], p[up]) for p in run]
        found.append((ends, "outline" if seen else "hidden"))
    return found


@functools.lru_cache(maxsize=64)
def _sunk_edges(body: Body) -> dict[str, list[Edge]]:
    """The edges of what was sunk, where they lie within each view's outline, in mm."""
    return _inside(body.shadow, {view: _edges_of(body, view) for view in VIEWS})


def _edges_of(body: Body, view: str) -> list[Edge]:
    """The edges of what was sunk, whole, whether there is metal about them or not."""
    shadow = body.shadow
    across, up, along = VIEWS[view]
    # the face that is looked at: the front is looked at from low y
    near = shadow.box[along] if view == "front" else shadow.box[along + 3]
    edges: list[Edge] = []
    for one in body.features:
        # a round corner runs out without an edge; ISO 128
        whole = isinstance(one, SixFaces | CornerRounds)
        for cut in () if whole else cuts_of(one):
            if not isinstance(cut, Sunk):
                continue
            low, high = cut.span(0.0)
            if abs(cut.frame.into[along]) > 0.5:
                top = max(cut.top, 0.0)
                places = [cut.frame.at(u, v, top) for u, v in cut.outline]
                ring = [(p[across], p[up]) for p in places]
            elif isinstance(one, FlankedSlot):
                edges += _flank_edges(one, cut, view)
                continue
            else:
                ring = list(rectangle(low[across], low[up], high[across], high[up]))
            seen = low[along] - 1e-3 <= near <= high[along] + 1e-3
            edges.append(([*ring, ring[0]], "outline" if seen else "hidden"))
    return edges


def _inside(shadow: Shadow, edges: Mapping[str, list[Edge]]) -> dict[str, list[Edge]]:
    """What of the edges lies inside their view's outline, and not along it."""
    from numpy import concatenate
    from shapely import (
        GeometryType,
        Polygon,
        buffer,
        clip_by_rect,
        get_coordinates,
        get_num_coordinates,
        get_parts,
        get_type_id,
        intersection,
        linestrings,
    )

    found: dict[str, list[Edge]] = {view: [] for view in edges}
    # all at once: one call for each edge would cost more than the work
    told = [(view, role) for view, some in edges.items() for _, role in some]
    if not told:
        return found
    chains = linestrings(
        **_indexed([chain for some in edges.values() for chain, _ in some])
    )
    cut, of = [], []
    end = 0
    for view, some in edges.items():
        start, end = end, end + len(some)
        for ring in shadow.outlines[view] if some else ():
            left, low, right, high = extent(ring)
            area = _area(ring)
            if math.isclose(area, (right - left) * (high - low)):
                box = left + SHY, low + SHY, right - SHY, high - SHY
                cut.append(clip_by_rect(chains[start:end], *box))
            elif area > 0:
                shy = buffer(Polygon(ring), -SHY)
                cut.append(intersection(chains[start:end], shy))
            else:
                continue
            of += told[start:end]
    parts, which = get_parts(concatenate(cut), return_index=True)
    lines = get_type_id(parts) == GeometryType.LINESTRING
    places = get_coordinates(parts).tolist()
    start = 0
    for i, line, many in zip(which, lines, get_num_coordinates(parts), strict=True):
        if line and many:  # and not where it only meets the outline
            view, role = of[i]
            found[view].append((places[start : start + many], role))
        start += many
    return found


def _indexed(chains: Sequence[Sequence[Point]]) -> dict[str, Any]:
    """All points one after the other, and of each which chain it is of."""
    return {
        "coords": [point for chain in chains for point in chain],
        "indices": [i for i, chain in enumerate(chains) for _ in chain],
    }
