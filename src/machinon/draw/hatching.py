"""Hatch lines of a cut face, as plain segments that any output can carry."""

import functools
import math
from typing import Literal

from machinon.draw.drawing import Point

Segment = tuple[Point, Point]


@functools.lru_cache(maxsize=256)
def hatch_lines(
    corners: tuple[Point, ...], spacing: float, lean: Literal["right", "left"] = "right"
) -> tuple[Segment, ...]:
    """Parallel lines at 45° inside a closed polygon; ISO 128-50.

    corners, spacing: page units; lean: which way the lines climb. The lines
    lie on one grid of the page, so that neighbouring faces of one piece match.

    >>> len(hatch_lines(((0, 0), (10, 0), (10, 10), (0, 10)), 5 * math.sqrt(0.5)))
    3
    """
    turn = math.radians(45 if lean == "right" else -45)
    cos, sin = math.cos(turn), math.sin(turn)
    # turned so that the hatch runs level; y is the height of a hatch line
    turned = [(x * cos - y * sin, x * sin + y * cos) for x, y in corners]
    low = min(y for _, y in turned)
    high = max(y for _, y in turned)
    out: list[Segment] = []
    number = math.floor(low / spacing) + 1
    while number * spacing < high - 1e-9:
        y = number * spacing
        number += 1
        crossings = []
        for (ax, ay), (bx, by) in zip(turned, [*turned[1:], turned[0]], strict=True):
            if (ay <= y) != (by <= y):
                crossings.append(ax + (y - ay) / (by - ay) * (bx - ax))
        crossings.sort()
        for a, b in zip(crossings[::2], crossings[1::2], strict=False):
            out.append(
                (
                    (a * cos + y * sin, -a * sin + y * cos),
                    (b * cos + y * sin, -b * sin + y * cos),
                )
            )
    return tuple(out)
