"""Three views of a block: its outline, what is seen in it, what is hidden dashed."""

import functools
import math
import operator
from collections.abc import Mapping, Sequence
from typing import Any

from machinon.core.piece.block_features import (
    CornerRounds,
    EndToEnd,
    MaleDovetail,
    Outline,
    SixFaces,
    Slope,
)
from machinon.core.piece.body import Body, cuts_of
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.shadow import VIEWS, Shadow, opens
from machinon.core.piece.solid_cuts import (
    Drilled,
    Frame,
    Point,
    Sunk,
    extent,
    rectangle,
)
from machinon.core.piece.stock import Block
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import EDGE, Board, Circle, Line, Place, Role, Shape

SHY = 1e-6  # mm that an edge lies within an outline, to be seen beside it
SHARP = 20.0  # degrees that an outline turns at a corner; arcs turn by less at a time
FAR = 1e5  # mm, past any block

Edge = tuple[Sequence[Point], Role]  # a chain of points in mm


def draw_block_view(
    board: Board, body: Body, view: str, place: Place, role: Role = "outline"
) -> None:
    """One view of a block: outline, what is seen in it, what is hidden dashed."""
    assert isinstance(body.stock, Block)
    unit = place(1, 0)[0] - place(0, 0)[0]
    outline = [(_area(ring), ring) for ring in body.shadow.outlines[view]]
    for area, ring in sorted(outline, key=lambda pair: -abs(pair[0])):
        fill: Role = "panel" if area > 0 else "ground"
        hole = None if area > 0 else _round(ring)
        if hole is None:
            points = tuple(place(x, y) for x, y in ring)
            board.items.append(Shape(points, role, EDGE, fill))
        else:
            (x, y), radius = hole
            circle = Circle(place(x, y), radius * unit, role, EDGE, fill)
            board.items.append(circle)
    begun = len(board.items)
    for feature in body.features:
        for cut in cuts_of(feature):
            if isinstance(cut, Drilled) and cut.frame.square:
                _drilled_lines(board, cut, view, place, feature, body.shadow.box)
        if isinstance(feature, Holes):
            _leaning_lines(board, feature, view, place)
        if isinstance(feature, Holes) and isinstance(feature.pattern, HoleCircle):
            _circle_lines(board, feature.frame, feature.pattern, view, place)
    edges: dict[tuple[Point, ...], Role] = {}
    for chain, line in sorted(_sunk_edges(body)[view], key=lambda edge: edge[1]):
        edges[tuple(place(x, y) for x, y in chain)] = line  # "outline" over "hidden"
    for points, line in edges.items():
        board.items.append(Shape(points, line, 1.2, closed=False))
    board.once(begun)


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
    holes: Feature,
    box: tuple[float, ...],
) -> None:
    across, up, along = VIEWS[view]
    into = cut.frame.into
    if abs(into[along]) > 0.5:
        at = cut.frame.at(*cut.at)
        centre = place(at[across], at[up])
        unit = place(at[across] + 1, at[up])[0] - centre[0]
        seen = into[along] < 0 if view != "front" else into[along] > 0
        hole = holes.hole if isinstance(holes, Holes) else None
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
                Circle(
                    centre,
                    thread_of(hole.thread).major / 2 * unit,
                    "thin",
                    0.9,
                    open=True,
                )
            )
        reach = (max(radii) + 2) * unit
        x, y = centre
        board.items.append(Line((x - reach, y), (x + reach, y), "centre", 0.9))
        board.items.append(Line((x, y - reach), (x, y + reach), "centre", 0.9))
        return
    # from the side: its profile dashed, its axis
    side = across if abs(into[up]) > 0.5 else up
    end = cut.profile[-1][0]
    if isinstance(holes, Holes) and holes.hole.depth is None:
        end = holes.through

    def aside(depth: float, radius: float) -> Point:
        shifted = [*cut.frame.at(*cut.at, min(depth, end))]
        shifted[side] += radius
        return place(shifted[across], shifted[up])

    chains = [[aside(d, sign * r) for d, r in cut.in_metal] for sign in (1, -1)]
    if isinstance(holes, Holes) and holes.hole.thread:
        crest = thread_of(holes.hole.thread).major / 2
        deep = holes.hole.threaded(end)
        round_it = (0, crest), (deep, crest), (deep, -crest), (0, -crest)
        chains.append([aside(depth, radius) for depth, radius in round_it])
    for chain in chains:
        board.items.append(Shape(tuple(chain), "hidden", 1.0, closed=False))
    mouth, bottom = (cut.frame.at(*cut.at, depth) for depth in (-2, end + 2))
    ends = place(mouth[across], mouth[up]), place(bottom[across], bottom[up])
    board.items.append(Line(*ends, "centre", 0.9))


def _leaning_lines(board: Board, holes: Holes, view: str, place: Place) -> None:
    """Passes of holes that lean to their face: their rims in it and, of what goes
    through, in the far one, their sides dashed."""
    across, up, along = VIEWS[view]
    face, hole = holes.frame, holes.hole
    out = face.into[along] < 0 if view != "front" else face.into[along] > 0
    square_on = abs(face.into[along]) > 0.5

    def shown(at: Sequence[float]) -> Point:
        return place(at[across], at[up])

    for lean in filter(None, holes.leans):
        reach = holes.along(lean)
        end = reach if hole.depth is None else hole.depth + hole.point
        for at in holes.points:
            if square_on:
                rims = [(0.0, hole.widest, out)]
                if hole.depth is None:
                    rims.append((holes.through, hole.diameter, not out))
                for deep, wide, seen in rims:
                    ring = holes.rim(at, lean, deep, wide)
                    points = tuple(shown(face.at(u, v, deep)) for u, v in ring)
                    role: Role = "outline" if seen else "hidden"
                    board.items.append(Shape(points, role, 1.4))
            axis = face.leant(at, lean, holes.towards)
            for chain in _sides_of(holes, axis, lean, along):
                points = tuple(shown(axis.at(*there)) for there in chain)
                board.items.append(Shape(points, "hidden", 1.0, closed=False))
            mouth, bottom = (axis.at(0.0, 0.0, deep) for deep in (-2.0, end + 2.0))
            board.items.append(Line(shown(mouth), shown(bottom), "centre", 0.9))


def _sides_of(
    holes: Holes, axis: Frame, lean: float, along: int
) -> list[list[tuple[float, float, float]]]:
    """The sides of a hole that leans as they are seen along one of the block's axes:
    places of its own frame."""
    hole, slope = holes.hole, math.tan(math.radians(lean))
    reach = holes.along(lean)
    # its skin is seen edge on square to the way one looks
    a, b = -axis.v[along], axis.u[along]
    size = math.hypot(a, b)
    if size < SHY:
        return []
    a, b = a / size, b / size
    down = [(deep, wide) for deep, wide in hole.profile(reach) if deep > 0]
    lines = [[(0.0, hole.widest / 2), *down]]
    if hole.thread:
        crest = thread_of(hole.thread).major / 2
        lines.append([(0.0, crest), (hole.threaded(reach), crest)])
    found = []
    for line in lines:
        for way in (1.0, -1.0):
            chain = [(way * a * r, way * b * r, deep) for deep, r in line]
            # both faces cut it aslant
            u, v, _ = chain[0]
            chain[0] = u, v, u * slope
            if hole.depth is None and chain[-1][2] >= reach:
                u, v, _ = chain[-1]
                chain[-1] = u, v, reach + u * slope
            found.append(chain)
    return found


def _circle_lines(
    board: Board, frame: Frame, circle: HoleCircle, view: str, place: Place
) -> None:
    """The circle that holes lie on with its centre, seen square on."""
    across, up, along = VIEWS[view]
    if abs(frame.into[along]) < 0.5:
        return
    at = frame.at(*circle.at)
    x, y = place(at[across], at[up])
    unit = place(at[across] + 1, at[up])[0] - x
    radius, reach = circle.diameter / 2 * unit, 3 * unit
    board.items.append(Circle((x, y), radius, "centre", 0.9))
    board.items.append(Line((x - reach, y), (x + reach, y), "centre", 0.9))
    board.items.append(Line((x, y - reach), (x, y + reach), "centre", 0.9))


def _along_edges(form: EndToEnd, cut: Sunk, view: str) -> list[Edge]:
    """A form of one section, from its side: every edge by itself, since from above the
    floor of a vee is seen and that of a dovetail is not."""
    across, up, _ = VIEWS[view]
    level = form.block[2] if form.face == "top" else 0.0
    found: list[Edge] = []
    for u, v in cut.outline:
        run = (cut.frame.at(u, v, depth) for depth in (cut.top, cut.bottom))
        mouth = abs(v - level) < 1e-6
        if view == form.face:
            seen = mouth or not form.undercut
        else:  # nothing stands before what stands up
            seen = isinstance(form, MaleDovetail)
        ends = [(p[across], p[up]) for p in run]
        found.append((ends, "outline" if seen else "hidden"))
    # one behind another is drawn once, the one that is seen
    kept = {str(ends): (ends, role) for ends, role in sorted(found, key=_last_seen)}
    return list(kept.values())


def _corner_edges(form: Outline, view: str) -> list[Edge]:
    """An outline from its side: a line at each corner, and where an arc turns back."""
    from shapely import Polygon, intersects, linestrings, prepare

    across, up, along = VIEWS[view]
    points, before = form.points, form.points[-1:] + form.points[:-1]
    after = form.points[1:] + form.points[:1]
    corners = [
        at
        for last, at, then in zip(before, points, after, strict=True)
        if _turn(last, at, then) > SHARP
        or (at[across] - last[across]) * (then[across] - at[across]) < 0
    ]
    far = -FAR if view == "front" else FAR  # towards who looks
    metal = Polygon(points).buffer(-SHY)
    prepare(metal)
    sights = [
        (at, tuple(at[axis] + far * (axis == along) for axis in (0, 1)))
        for at in corners
    ]
    low, high = 0.0, form.block[up]
    return [
        (((at[across], low), (at[across], high)), "hidden" if behind else "outline")
        for at, behind in zip(
            corners, intersects(metal, linestrings(sights)), strict=True
        )
    ]


def _turn(last: Point, at: Point, then: Point) -> float:
    """Turn of a path at a point, degrees, to either side."""
    ahead = math.atan2(then[1] - at[1], then[0] - at[0])
    come = math.atan2(at[1] - last[1], at[0] - last[0])
    return abs(math.degrees(math.remainder(ahead - come, math.tau)))


def _last_seen(edge: Edge) -> bool:
    return edge[1] == "outline"


def view_lines(body: Body, view: str) -> list[Sequence[Point]]:
    """All that is seen of a block in a view but its holes, dashed or not, in mm."""
    rings = [(*ring, ring[0]) for ring in body.shadow.outlines[view]]
    return [*rings, *(chain for chain, _ in _sunk_edges(body)[view])]


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
    for feature in body.features:
        # a round corner runs out without an edge; ISO 128
        whole = isinstance(feature, SixFaces | CornerRounds)
        if isinstance(feature, Outline) and view != "top":
            edges += _corner_edges(feature, view)
            whole = True
        for cut in () if whole else cuts_of(feature):
            if not isinstance(cut, Sunk):
                continue
            low, high = cut.span(0.0)
            if abs(cut.frame.into[along]) > 0.5:
                top = max(cut.top, 0.0)
                places = [cut.frame.at(u, v, top) for u, v in cut.outline]
                ring = [(p[across], p[up]) for p in places]
            elif isinstance(feature, EndToEnd):
                edges += _along_edges(feature, cut, view)
                continue
            else:
                ring = list(rectangle(low[across], low[up], high[across], high[up]))
            seen = low[along] - 1e-3 <= near <= high[along] + 1e-3
            # from its high end the foot of a slope lies behind the metal
            seen = seen and not (isinstance(feature, Slope) and view == "right")
            edges.append(([*ring, ring[0]], "outline" if seen else "hidden"))
    return edges


def _inside(shadow: Shadow, edges: Mapping[str, list[Edge]]) -> dict[str, list[Edge]]:
    """Those edges that lie inside their view's outline, and not along it."""
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
    if not cut:
        return found
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
