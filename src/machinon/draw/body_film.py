"""One frame of a route's film: a body as it stands after a step, what was cut lit."""

import functools
from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise
from typing import Any

from msgspec.structs import replace

from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.shadow import VIEWS
from machinon.core.piece.solid_cuts import Drilled, Point
from machinon.core.route.steps import StepTold
from machinon.draw.block_views import draw_block_view, view_lines
from machinon.draw.drawing import Board, Circle, Drawing, Line, Place, Role, Shape
from machinon.draw.end_view import draw_end_view
from machinon.draw.half_section import (
    draw_half_section,
    draw_lines_on,
    envelope,
    hole_section,
)

LIT: Role = "cut"
ABREAST = 0.85  # of its size alone that a half section keeps beside its end view


def body_film(
    step: StepTold, width: float, height: float, size: float = 11.0
) -> Drawing:
    """The piece after the step, to the same scale in every frame of a route."""
    return _film(step.before, step.after, step.features, width, height, size)


def body_picture(
    body: Body, width: float, height: float, size: float = 11.0
) -> Drawing:
    """A finished piece in the same view."""
    return _film(body, body, (), width, height, size)


@functools.lru_cache(maxsize=256)
def _film(
    before: Body,
    after: Body,
    cut: tuple[str, ...],
    width: float,
    height: float,
    size: float,
) -> Drawing:
    board = Board(width, height, size)
    if before == after:  # what is tried or marked is lit as if it were just cut
        others = tuple(f for f in after.features if f.name not in cut)
        before = replace(after, features=others)
    if after.turns:
        _turned(board, before, after, cut)
    else:
        _block(board, before, after, cut)
    return board.done()


def _turned(board: Board, before: Body, after: Body, cut: tuple[str, ...]) -> None:
    """Cut in half; beside it a disc from the right, where both have room."""
    whole = Body(after.stock, ())
    first, last = whole.ends
    tall = whole.largest
    size = board.size
    room_x, room_y = board.width - 2 * size, board.height - 0.8 * size
    long = last - first + 4
    alone = min(room_y / tall, room_x / long)
    scale = min(room_y / tall, room_x / (long + 1.1 * tall))
    beside = long < tall and scale > ABREAST * alone
    if not beside:
        scale = alone
    wide = (last - first + beside * 1.1 * tall) * scale
    left = (board.width - wide) / 2 - first * scale
    axis = board.height / 2
    lit = [feature for feature in after.features if feature.name in cut]

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    draw_half_section(board, after, place)
    for feature in lit:
        ring = tuple(place(z, min(r, tall / 2)) for z, r in hole_section(feature))
        if ring:
            board.items.append(Shape(ring, LIT, 2.4))
        marks = Board(board.width, board.height)
        draw_lines_on(marks, after, feature, place)
        board.items += (
            Line(line.start, line.end, LIT, 2 * line.width)
            for line in marks.items
            if isinstance(line, Line)
        )
    if beside:
        centre = (board.width + wide) / 2 - tall / 2 * scale, axis
        draw_end_view(board, after, centre, scale)
        for holes in (feature for feature in lit if isinstance(feature, Holes)):
            for x, y in holes.points:
                at = centre[0] + x * scale, centre[1] - y * scale
                board.items.append(Circle(at, holes.hole.rim / 2 * scale, LIT, 2.4))
    taken = before.region.difference(after.region)
    if taken.is_empty:
        return
    near = taken.buffer(1e-3)
    # cut open above the axis; beneath it no bore is seen
    for side, edges in ((1, after.region.boundary), (-1, _outside(after))):
        turned = edges.intersection(near)
        for line in getattr(turned, "geoms", [turned]):
            if line.geom_type != "LineString":
                continue
            for (az, ar), (bz, br) in pairwise(line.coords):
                ends = place(az, side * ar), place(bz, side * br)
                board.items.append(Line(*ends, LIT, 2.6))


def _outside(body: Body) -> Any:
    """The edges of what turns that are seen from outside, in the half section: of an
    end not where a hole opens in it."""
    from shapely import LineString, union_all

    seen = union_all(
        [
            LineString((a, b))
            for ring in envelope(body)
            for a, b in pairwise((*ring, ring[0]))
            if max(a[1], b[1]) > 1e-6
        ]
    )
    return seen.intersection(body.region.buffer(1e-3))


def _looked_into(body: Body, cut: tuple[str, ...]) -> str:
    """The view from a side that looks at what is cut from there; empty for none."""
    faces = {getattr(f, "face", "") for f in body.features if f.name in cut}
    if faces & {"left", "right"}:
        return "right"
    return "front" if faces & {"front", "back"} else ""


def _shows_more(body: Body) -> str:
    """The view from a side that shows more of a block's shape."""
    right, front = (_filled(body, view) for view in ("right", "front"))
    return "front" if front < right - 0.02 else "right"


def _filled(body: Body, view: str) -> float:
    """Share of its box that a block's outline fills in a view."""
    from shapely import Polygon

    rings = [Polygon(ring) for ring in body.shadow.outlines[view] if len(ring) > 2]
    whole = max(rings, key=lambda ring: ring.area, default=None)
    # nothing is left where a hole is wider than its block
    return 1.0 if whole is None else float(whole.area / whole.envelope.area)


def _block(board: Board, before: Body, after: Body, cut: tuple[str, ...]) -> None:
    """Draws the view from above, and beneath it from the right, or from the front where
    that is cut or shows more of its shape."""
    low, high = after.stock.low, after.stock.high  # type: ignore[union-attr]
    long, wide, tall = (b - a for a, b in zip(low, high, strict=True))
    size = board.size
    gap = 0.8 * size
    scale = min(
        (board.width - 1.4 * size) / max(long, wide),
        (board.height - gap - 0.8 * size) / (wide + tall),
    )
    x0 = (board.width - long * scale) / 2
    y0 = (board.height - (wide + tall) * scale - gap) / 2
    under = y0 + wide * scale + gap
    side = _looked_into(after, cut) or _shows_more(after)
    along = 0 if side == "front" else 1
    aside = (board.width - (long if side == "front" else wide) * scale) / 2

    def above(x: float, y: float) -> Point:
        return x0 + (x - low[0]) * scale, y0 + (high[1] - y) * scale

    def beneath(x: float, z: float) -> Point:
        return aside + (x - low[along]) * scale, under + (high[2] - z) * scale

    places = {"top": above, side: beneath}
    for view, place in places.items():
        draw_block_view(board, after, view, place)
        for line in _new_lines(before, after, view):
            for a, b in pairwise(line):
                board.items.append(Line(place(*a), place(*b), LIT, 2.4))
    for feature in (feature for feature in after.features if feature.name in cut):
        if isinstance(feature, Holes) and feature.lean:
            _lit_rims(board, feature, places)
            continue
        for hole in feature.cuts():
            if isinstance(hole, Drilled):
                _lit_hole(board, hole, places, scale)


def _new_lines(before: Body, after: Body, view: str) -> Iterator[Sequence[Point]]:
    """What is seen of a block in a view after a cut that was not there before; mm."""
    from shapely import MultiLineString

    old = MultiLineString(view_lines(before, view)).buffer(1e-3)
    new = MultiLineString(view_lines(after, view)).difference(old)
    for line in getattr(new, "geoms", [new]):
        if line.length > 1e-2:
            yield line.coords


def _lit_rims(board: Board, holes: Holes, places: Mapping[str, Place]) -> None:
    """The mouths of holes that lean, where they are looked into."""
    for view, place in places.items():
        across, up, along = VIEWS[view]
        if abs(holes.frame.into[along]) > 0.5:
            for at in holes.points:
                rim = (holes.frame.at(u, v) for u, v in holes.rim(at, holes.lean))
                points = tuple(place(p[across], p[up]) for p in rim)
                board.items.append(Shape(points, LIT, 2.4))


def _lit_hole(
    board: Board, hole: Drilled, places: Mapping[str, Place], scale: float
) -> None:
    """A hole where it is looked into; from the side only where no view does."""
    radius = max(r for _, r in hole.in_metal)
    for view, place in places.items():
        across, up, along = VIEWS[view]
        if abs(hole.frame.into[along]) > 0.5:
            at = hole.frame.at(*hole.at)
            centre = place(at[across], at[up])
            board.items.append(Circle(centre, radius * scale, LIT, 2.4))
            return
    across, up, _ = VIEWS["top"]
    deep = max(depth for depth, _ in hole.in_metal)
    u, v = hole.at
    for side in (-radius, radius):
        ends = (hole.frame.at(u + side, v, depth) for depth in (0.0, deep))
        a, b = (places["top"](end[across], end[up]) for end in ends)
        board.items.append(Line(a, b, LIT, 2.4))
