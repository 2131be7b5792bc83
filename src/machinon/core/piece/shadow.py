"""The outlines of a block from three sides, and its size.

Most cuts go right through what is looked along or leave metal there, so that the
outlines are cut flat, many times as quick as in a solid; where cuts may meet inside,
the solid is made and looked at.
"""

import functools
from collections.abc import Collection, Mapping, Sequence
from typing import TYPE_CHECKING

from msgspec import Struct

from machinon.core.piece.solid_cuts import (
    Cut,
    Drilled,
    Point,
    Sunk,
    Vector,
    extent,
    rectangle,
)
from machinon.core.piece.solids import faced, filled, solid_of
from machinon.core.piece.stock import Block

if TYPE_CHECKING:
    from manifold3d import CrossSection

Rings = tuple[tuple[Point, ...], ...]
# which axes a view shows, across and up, and the one it looks along
VIEWS = {"top": (0, 1, 2), "front": (0, 2, 1), "right": (1, 2, 0)}
HAIR = 1e-6  # mm: what ends this near a face ends in it


class Shadow(Struct, frozen=True):
    """A solid as it is seen; mm."""

    box: tuple[float, ...]  # lowest and highest x, y, z
    # by view, closed rings of (across, up), an opening the other way round
    outlines: Mapping[str, Rings]


@functools.lru_cache(maxsize=128)
def shadow_of(stock: Block, cuts: tuple[Cut, ...]) -> Shadow:
    """The outlines of a block after its cuts.

    A hole changes what is seen of the outside only along its own axis, and is taken
    out of that view alone.
    """
    box, plain = _milled(stock, tuple(cut for cut in cuts if isinstance(cut, Sunk)))
    outlines = {}
    for view, rings in plain.items():
        holes = [cut for cut in cuts if isinstance(cut, Drilled)]
        through = [
            _opening(drilled, view) for drilled in holes if opens(drilled, view, box)
        ]
        outlines[view] = _less(rings, through)
    return Shadow(box, outlines)


@functools.lru_cache(maxsize=128)
def _milled(
    stock: Block, cuts: tuple[Sunk, ...]
) -> tuple[tuple[float, ...], dict[str, Rings]]:
    """The box of a block less what was sunk, and its outline in each view. Steps that
    drill and tap leave both as they are."""
    block, others = faced(stock, cuts)
    flat = _flat(block, others)
    if flat is not None:
        x0, y0, x1, y1 = _reach(flat["top"])
        _, z0, _, z1 = _reach(flat["front"])
        return (x0, y0, z0, x1, y1, z1), flat
    solid = solid_of(stock, cuts)
    box = tuple(float(side) for side in solid.bounding_box())
    views = {view: solid.transform(_looking(view)).project() for view in VIEWS}
    return box, {view: _polygons(seen) for view, seen in views.items()}


def _reach(rings: Rings) -> tuple[float, float, float, float]:
    return extent([point for ring in rings for point in ring])


def _flat(block: Block, cuts: Collection[Sunk]) -> dict[str, Rings] | None:
    """The outlines of a block less its cuts; None where only the solid tells."""
    if not all(sunk.frame.square for sunk in cuts):
        return None
    spans = [(sunk, *sunk.span()) for sunk in cuts]
    views = {}
    for view, (across, up, along) in VIEWS.items():
        whole = (block.low[along], block.high[along])
        through: list[CrossSection] = []
        inside: list[tuple[tuple[float, ...], float]] = []
        for cut, low, high in spans:
            first, last = max(low[along], whole[0]), min(high[along], whole[1])
            if first >= last:
                continue
            if last - first < whole[1] - whole[0] - HAIR:
                flat = (low[across], low[up], high[across], high[up])
                inside.append((flat, last - first))
            elif cut.frame.into[along]:
                places = [cut.frame.at(u, v) for u, v in cut.outline]
                through.append(filled([(p[across], p[up]) for p in places]))
            elif cut.is_box:
                through.append(filled(_side_of(low, high, across, up)))
            else:
                return None  # through in places only
        if _may_meet(inside, whole[1] - whole[0]):
            return None
        rings = _less((_side_of(block.low, block.high, across, up),), through)
        if not rings:
            return None
        views[view] = rings
    return views


def _may_meet(cuts: Sequence[tuple[tuple[float, ...], float]], deep: float) -> bool:
    """Whether cuts that lie over each other could open together what none does alone;
    each is its left, low, right, high, and how far it goes."""
    for (left, low, right, high), _ in cuts:
        over = (
            far
            for (a, b, c, d), far in cuts
            if a < right and left < c and b < high and low < d
        )
        if sum(over) >= deep - HAIR:
            return True
    return False


def _side_of(low: Vector, high: Vector, across: int, up: int) -> tuple[Point, ...]:
    return rectangle(low[across], low[up], high[across], high[up])


def _less(rings: Rings, openings: Sequence["CrossSection"]) -> Rings:
    if not openings:
        return rings
    from manifold3d import CrossSection, FillRule, OpType

    seen = CrossSection(rings, FillRule.Positive)
    return _polygons(CrossSection.batch_boolean([seen, *openings], OpType.Subtract))


def _polygons(section: "CrossSection") -> Rings:
    return tuple(
        tuple((x, y) for x, y in ring.tolist()) for ring in section.to_polygons()
    )


def opens(cut: Drilled, view: str, box: tuple[float, ...]) -> bool:
    """Whether a hole goes right through along a view; box: of the whole shadow."""
    along = VIEWS[view][2]
    out = cut.frame.into[along]
    end = cut.frame.at(*cut.at, max(depth for depth, _ in cut.profile))
    past = end[along] >= box[along + 3] if out > 0 else end[along] <= box[along]
    return past and cut.frame.square and abs(out) > 0.5


def _opening(cut: Drilled, view: str) -> "CrossSection":
    """The opening of a through hole in the view along it."""
    from manifold3d import CrossSection

    across, up, _ = VIEWS[view]
    at = cut.frame.at(*cut.at)
    radius = min(radius for _, radius in cut.profile if radius > 0)
    return CrossSection.circle(radius, 48).translate((at[across], at[up]))


def _looking(view: str) -> list[list[float]]:
    """The turn of a solid that shows a view from above."""
    rows = [[1.0 if i == axis else 0.0 for i in range(4)] for axis in VIEWS[view]]
    if view == "front":  # keeps the hand of the space
        rows[2] = [-value for value in rows[2]]
    return rows
