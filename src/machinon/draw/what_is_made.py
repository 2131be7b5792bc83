"""The pictures by which it is chosen what is to be made."""

import functools
from collections.abc import Callable

from machinon.core.piece.family import Family
from machinon.core.piece.made import make
from machinon.draw.body_film import body_picture
from machinon.draw.drawing import Board, Drawing, Line, Shape


def family_picture(family: Family) -> Callable[[float, float, float], Drawing]:
    """The picture of a family's own example, for a width, height and figure
    height, px."""

    @functools.cache
    def draw(width: float, height: float, size: float) -> Drawing:
        return body_picture(make(family, {}).body, width, height, size)

    return draw


def fit_picture(width: float, height: float, size: float) -> Drawing:
    """A shaft in a bore, in section: what stands for any fit."""
    board = Board(width, height, size)
    middle, x, unit = height / 2, width / 2, min(height / 5, width / 9)

    def box(left: float, low: float, right: float, high: float, hatch: bool) -> None:
        corners = (left, low), (right, low), (right, high), (left, high)
        points = tuple((x + a * unit, middle + b * unit) for a, b in corners)
        board.items.append(
            Shape(points, "outline", 1.8, "panel", "right" if hatch else "")
        )

    for side in (-1, 1):
        box(-1.5, side * 2.2, 1.5, side * 1.25, True)
    box(-3.6, -1.0, 3.6, 1.0, False)
    ends = (x - 4.2 * unit, middle), (x + 4.2 * unit, middle)
    board.items.append(Line(*ends, "centre", 1.0))
    return board.done()
