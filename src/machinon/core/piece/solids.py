"""Closed solids of bodies by manifold3d, imported when the first is made."""

import math
from collections.abc import Collection, Sequence
from typing import TYPE_CHECKING

from machinon.core.piece.solid_cuts import Cut, Drilled, Frame, Point, Sunk
from machinon.core.piece.stock import Bar, Block, Round, Stock

if TYPE_CHECKING:
    from manifold3d import CrossSection, Manifold

Rings = Sequence[Sequence[Point]]  # closed outlines

SEGMENTS = 120  # sides of a circle in a solid
DEEP = 5_000.0  # mm: a cut from far outside starts here in a solid


def solid_of(stock: Stock, cuts: Collection[Cut], rings: Rings = ()) -> "Manifold":
    """The stock less cuts; rings: the half section of what turns, (z, r)."""
    from manifold3d import Manifold, OpType

    sunk = [cut for cut in cuts if isinstance(cut, Sunk)]
    if isinstance(stock, Block):
        block, sunk = faced(stock, sunk)
        made, sunk = _cut_through(block, sunk)
    elif isinstance(stock, Round):
        made = _turned(rings)
    else:
        made = _bar(stock) ^ _turned(rings)
    for cut in sunk:
        made = made - _sunk(cut)
        made.num_tri()  # worked out one by one: few and small, twice as quick
    tools = [_drilled(cut) for cut in cuts if isinstance(cut, Drilled)]
    return Manifold.batch_boolean([made, *tools], OpType.Subtract)


def _bar(stock: Bar) -> "Manifold":
    from manifold3d import CrossSection, Manifold

    turn = math.pi / stock.sides
    radius = stock.widest / 2
    points = [
        (
            radius * math.cos(turn * (2 * i + 1)),
            radius * math.sin(turn * (2 * i + 1)),
        )
        for i in range(stock.sides)
    ]
    bar = Manifold.extrude(CrossSection([points]), stock.end - stock.start)
    return bar.translate((0, 0, stock.start))


def _turned(rings: Rings) -> "Manifold":
    from manifold3d import CrossSection, FillRule, Manifold

    # an equal area keeps volumes true where a circle has many sides
    wide = _even_area(SEGMENTS)
    outlines = [[(r * wide, z) for z, r in ring] for ring in rings]
    section = CrossSection(outlines, FillRule.EvenOdd)
    # revolved about y, which becomes z
    return Manifold.revolve(section, SEGMENTS)


def faced(stock: Block, cuts: Sequence[Sunk]) -> tuple[Block, list[Sunk]]:
    """The block after those cuts that take a whole side of it off, and the others."""
    low, high = list(stock.low), list(stock.high)
    others = []
    for cut in cuts:
        if not cut.is_box:
            others.append(cut)
            continue
        first, last = cut.span()
        over = [first[i] <= low[i] and last[i] >= high[i] for i in range(3)]
        if over.count(True) != 2:
            others.append(cut)
            continue
        axis = over.index(False)
        if first[axis] <= low[axis] < last[axis]:
            low[axis] = last[axis]
        elif first[axis] < high[axis] <= last[axis]:
            high[axis] = first[axis]
        elif low[axis] < last[axis] and first[axis] < high[axis]:
            others.append(cut)  # in two
    (x0, y0, z0), (x1, y1, z1) = low, high
    return Block((x0, y0, z0), (x1, y1, z1)), others


def _cut_through(block: Block, cuts: Sequence[Sunk]) -> tuple["Manifold", list[Sunk]]:
    """The block after those cuts that go right down through it, and the others.

    They are cut as outlines seen from above, which is ten times as quick as in solids.
    """
    from manifold3d import CrossSection, Manifold, OpType

    (x0, y0, z0), (x1, y1, z1) = block.low, block.high
    through, others = [], []
    for cut in cuts:
        ends = sorted(cut.frame.at(0, 0, d)[2] for d in (cut.top, cut.bottom))
        upright = abs(cut.frame.into[2]) > 0.5
        if not (upright and ends[0] <= z0 and ends[1] >= z1):
            others.append(cut)
            continue
        outline = [cut.frame.at(u, v)[:2] for u, v in cut.outline]
        through.append(filled(outline))
    if not through:
        return Manifold.cube(block.size).translate(block.low), others
    seen = CrossSection([[(x0, y0), (x1, y0), (x1, y1), (x0, y1)]])
    seen = CrossSection.batch_boolean([seen, *through], OpType.Subtract)
    return Manifold.extrude(seen, z1 - z0).translate((0, 0, z0)), others


def filled(outline: Sequence[Point]) -> "CrossSection":
    """The area within an outline, whichever way round it goes."""
    from manifold3d import CrossSection, FillRule

    section = CrossSection([outline], FillRule.NonZero)
    if section.area() <= 0:
        section = CrossSection([outline[::-1]], FillRule.NonZero)
    return section


def _even_area(sides: int) -> float:
    """By how much a polygon's corners stand out for the area of its circle."""
    turn = 2 * math.pi / sides
    return math.sqrt(turn / math.sin(turn))


def _placed(made: "Manifold", frame: Frame, at: Point = (0.0, 0.0)) -> "Manifold":
    """A solid along +z moved into a frame, its z into the metal."""
    x, y, z = frame.at(*at)
    columns = (frame.u, frame.v, frame.into)
    matrix = [[columns[j][i] for j in range(3)] + [(x, y, z)[i]] for i in range(3)]
    u, v, n = columns
    turned = (
        u[0] * (v[1] * n[2] - v[2] * n[1])
        - u[1] * (v[0] * n[2] - v[2] * n[0])
        + u[2] * (v[0] * n[1] - v[1] * n[0])
    )
    if turned < 0:  # a frame seen from outside is left-handed
        made = made.mirror((0, 1, 0))
        matrix = [
            [columns[0][i], -columns[1][i], columns[2][i], (x, y, z)[i]]
            for i in range(3)
        ]
    return made.transform(matrix)


def _sunk(cut: Sunk) -> "Manifold":
    from manifold3d import Manifold

    top, bottom = max(cut.top, -DEEP), min(cut.bottom, DEEP)
    outline = [
        (max(min(u, DEEP), -DEEP), max(min(v, DEEP), -DEEP)) for u, v in cut.outline
    ]
    made = Manifold.extrude(filled(outline), bottom - top).translate((0, 0, top))
    return _placed(made, cut.frame)


def _drilled(cut: Drilled) -> "Manifold":
    from manifold3d import Manifold

    sides = 48
    wide = _even_area(sides)
    points = [(0.0, cut.profile[0][0])]
    points += [(radius * wide, depth) for depth, radius in cut.profile]
    if points[-1][0] > 0:
        points.append((0.0, cut.profile[-1][0]))
    made = Manifold.revolve(filled(points), sides)
    return _placed(made, cut.frame, cut.at)
