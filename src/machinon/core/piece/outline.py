"""The outline of a plate as it is typed: its corners one after another, round or sharp.

`0,0 80,0 80,40r6 50,60 0,60` is a plate of five corners, the third of them rounded by a
radius of 6. Lengths as everywhere, in the shop's own unit where none is said.
"""

import math
import re

from machinon.core.errors import BadInput
from machinon.core.piece.solid_cuts import Point, arc
from machinon.core.quantity import ANGLE, INCH, parse, typed_again

Corner = tuple[float, float, float]  # x, y, radius; mm


def corners_of(text: str, inch: bool = False, key: str = "points") -> list[Corner]:
    """The corners as typed: x,y, or how far and at what angle from the one before,
    `40@30`. Raises BadInput on `key`.

    >>> corners_of("0,0 40,0 40,20r5 0,20")[2]
    (40.0, 20.0, 5.0)
    >>> corners_of("0,0 40,0 20@90")[2]
    (40.0, 20.0, 0.0)
    """
    found: list[Corner] = []
    for word in re.split(r"[;\s]+", text.strip()):
        if "@" in word and found:
            found.append(_onward(found[-1], word, inch, key))
            continue
        match = re.fullmatch(r"([^,]+),([^,rR]+)(?:[rR]([^,]+))?", word)
        if not match:
            raise BadInput(
                key,
                f"{word or 'Nothing'} is no corner. Type each as x,y with a blank "
                "between them, and r and a radius where it is round: 0,0 80,0 80,40r6 "
                "0,40. From the one before, 40@30 is 40 on at 30°.",
            )
        x, y, r = match.groups()
        found.append(
            (
                parse(x, inch=inch, key=key, low=-5, high=2000),
                parse(y, inch=inch, key=key, low=-5, high=2000),
                parse(r, inch=inch, key=key, low=0, high=500) if r else 0.0,
            )
        )
    if len(found) < 3:
        raise BadInput(key, "An outline has three corners or more.")
    return found


def _onward(before: Corner, word: str, inch: bool, key: str) -> Corner:
    """A corner by how far and at what angle it lies from the one before it, from along
    towards the back."""
    length, _, rest = word.partition("@")
    angle, _, radius = rest.lower().partition("r")
    far = parse(length, inch=inch, key=key, low=0, high=2000)
    turn = math.radians(parse(angle, ANGLE, key=key, low=-360, high=360))
    # to a thousandth of a micrometer, so that nothing is typed again with its dust
    x, y = (
        round(at + far * way, 6)
        for at, way in zip(before, (math.cos(turn), math.sin(turn)), strict=False)
    )
    r = parse(radius, inch=inch, key=key, low=0, high=500) if radius else 0.0
    return x, y, r


def places_of(text: str, inch: bool = False, key: str = "places") -> list[Point]:
    """Places of holes as typed, one after another. Raises BadInput on `key`.

    >>> places_of("10,12 -30,0")
    [(10.0, 12.0), (-30.0, 0.0)]
    """
    found: list[Point] = []
    for word in re.split(r"[;\s]+", text.strip()):
        across, _, up = word.partition(",")
        if not across or not up:
            raise BadInput(
                key,
                f"{word or 'Nothing'} is no place. Type each as x,y with a blank "
                "between them: 10,12 40,12 55,30.",
            )
        x, y = (
            parse(figure, inch=inch, key=key, low=-2000, high=2000)
            for figure in (across, up)
        )
        if (x, y) in found:
            raise BadInput(key, f"{word} is there twice.")
        found.append((x, y))
    return found


def places_text(places: list[Point], inch: bool = False) -> str:
    """Places as they would be typed again, in mm or in inches."""
    return " ".join(f"{_again(x, inch)},{_again(y, inch)}" for x, y in places)


def corners_text(corners: list[Corner], inch: bool = False) -> str:
    """Corners as they would be typed again, in mm or in inches."""
    return " ".join(
        f"{_again(x, inch)},{_again(y, inch)}" + (f"r{_again(r, inch)}" if r else "")
        for x, y, r in corners
    )


def _again(length: float, inch: bool) -> str:
    return typed_again(round(length / INCH, 6) if inch else length)


def outline_of(corners: list[Corner], key: str = "points") -> tuple[Point, ...]:
    """The outline, its round corners as arcs, counter-clockwise. Raises BadInput on
    `key` for one that crosses itself or has no room for a radius."""
    from shapely import Polygon

    points: list[Point] = []
    for n, (x, y, r) in enumerate(corners):
        before, after = corners[n - 1], corners[(n + 1) % len(corners)]
        points += _rounded((x, y), before[:2], after[:2], r, key)
    made = Polygon(points)
    if not made.is_valid or made.area < 1e-6:
        raise BadInput(
            key,
            "That outline crosses itself, or has no area: type its corners in order, "
            "once round.",
        )
    return tuple(points if made.exterior.is_ccw else reversed(points))


def _rounded(
    at: Point, before: Point, after: Point, radius: float, key: str
) -> list[Point]:
    """A corner, or the arc in its place that is tangent to both its sides."""
    if radius <= 0:
        return [at]
    ways = []
    for other in (before, after):
        long = math.dist(at, other)
        if long < 1e-9:
            raise BadInput(key, "Two corners of the outline lie on each other.")
        ways.append(((other[0] - at[0]) / long, (other[1] - at[1]) / long, long))
    (ax, ay, a), (bx, by, b) = ways
    turn = math.acos(max(min(ax * bx + ay * by, 1.0), -1.0))
    if math.pi - turn < 1e-6:
        return [at]  # straight on: nothing to round
    back = radius / math.tan(turn / 2)
    if back > min(a, b) + 1e-9:
        raise BadInput(
            key,
            f"A radius of {radius:g} needs {back:.2f} mm of both its sides at "
            f"{at[0]:g},{at[1]:g}: up to {min(a, b) * math.tan(turn / 2):.2f} does.",
        )
    out = radius / math.sin(turn / 2)
    half = math.hypot(ax + bx, ay + by)
    cx, cy = at[0] + (ax + bx) / half * out, at[1] + (ay + by) / half * out
    first = at[0] + ax * back, at[1] + ay * back
    last = at[0] + bx * back, at[1] + by * back
    start = math.degrees(math.atan2(first[1] - cy, first[0] - cx))
    end = math.degrees(math.atan2(last[1] - cy, last[0] - cx))
    swept = (end - start + 180) % 360 - 180
    return arc((cx, cy), radius, start, start + swept)
