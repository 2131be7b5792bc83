"""Where places of the body's space lie with respect to a cut."""

from collections.abc import Sequence
from itertools import pairwise
from typing import TYPE_CHECKING

from machinon.core.piece.solid_cuts import (
    FAR,
    Cut,
    Drilled,
    Frame,
    Point,
    Sunk,
    Turned,
    Vector,
    extent,
)

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Places = NDArray[np.float64]  # a row of x, y, z each; or one figure for each
    Found = NDArray[np.bool_]

Box = tuple[Vector, Vector]  # lowest and highest x, y and z
CONE = 4  # discs that stand for the point of a drill


def box_of(cut: Cut) -> Box:
    """The box about a cut, of a hole from its face down."""
    if isinstance(cut, Sunk):
        return cut.span()
    if isinstance(cut, Turned):
        start, _, end, out = extent(cut.section)
        return (-out, -out, start), (out, out, end)
    if not cut.frame.square:
        return (-FAR, -FAR, -FAR), (FAR, FAR, FAR)
    wide = max(radius for _, radius in cut.in_metal)
    (u, v), at = cut.at, cut.frame.at
    deep = cut.profile[-1][0]
    ends = at(u - wide, v - wide, 0.0), at(u + wide, v + wide, deep)
    (x0, x1), (y0, y1), (z0, z1) = (sorted(axis) for axis in zip(*ends, strict=True))
    return (x0, y0, z0), (x1, y1, z1)


def holds(cut: Cut, places: "Places") -> "Found":
    """Whether each place lies in a cut."""
    import numpy as np

    if isinstance(cut, Turned):
        z, r = places[:, 2], np.hypot(places[:, 0], places[:, 1])
        return _in_outline(cut.section, z, r)
    u, v, depth = _seen_from(cut.frame, places)
    if isinstance(cut, Sunk):
        deep = (cut.top <= depth) & (depth <= cut.bottom)
        return deep & _in_outline(cut.outline, u, v)
    depths, radii = np.array(cut.profile).T
    reach = np.interp(depth, depths, radii, left=0.0, right=0.0)
    found: Found = np.hypot(u - cut.at[0], v - cut.at[1]) < reach
    return found


def off(cut: Cut, places: "Places") -> "Places":
    """How far each place is from a cut, mm; below 0 that deep in it. The point of a
    drill is taken as a few discs."""
    import numpy as np

    if isinstance(cut, Turned):
        r = np.hypot(places[:, 0], places[:, 1])
        return _off_outline(cut.section, places[:, 2], r)
    u, v, depth = _seen_from(cut.frame, places)
    if isinstance(cut, Sunk):
        sideways = _off_outline(cut.outline, u, v)
        return _off_prism(sideways, depth, cut.top, cut.bottom)
    middle = np.hypot(u - cut.at[0], v - cut.at[1])
    found = np.full(len(places), np.inf)
    for top, bottom, radius in _discs(cut):
        found = np.minimum(found, _off_prism(middle - radius, depth, top, bottom))
    return found


def _discs(hole: Drilled) -> list[tuple[float, float, float]]:
    """A hole as discs: where each starts and ends, and its radius."""
    found = []
    profile = hole.in_metal
    for (start, a), (end, b) in pairwise(profile):
        count = 1 if a == b else CONE
        step = (end - start) / count
        found += [
            (start + n * step, start + (n + 1) * step, a + (b - a) * (n + 0.5) / count)
            for n in range(count)
        ]
    return [disc for disc in found if disc[0] < disc[1]]


def _off_prism(
    sideways: "Places", depth: "Places", top: float, bottom: float
) -> "Places":
    """How far places are from a prism, so far beside its outline and so deep."""
    import numpy as np

    under = np.maximum(top - depth, depth - bottom)
    outside = np.hypot(np.maximum(sideways, 0.0), np.maximum(under, 0.0))
    found: Places = outside + np.minimum(np.maximum(sideways, under), 0.0)
    return found


def _seen_from(frame: Frame, places: "Places") -> "tuple[Places, Places, Places]":
    """Each place seen from a plane: across and up, and its depth below it."""
    import numpy as np

    from_it = places - np.asarray(frame.origin)
    u, v, into = (from_it @ np.asarray(axis) for axis in (frame.u, frame.v, frame.into))
    return u, v, into


def _in_outline(outline: Sequence[Point], x: "Places", y: "Places") -> "Found":
    """Whether each place lies within an outline: an odd number of its edges are to the
    right of it."""
    import numpy as np

    across, up = np.array((*outline, outline[0])).T[:, :, None]
    ax, ay, bx, by = across[:-1], up[:-1], across[1:], up[1:]
    passes = (ay > y) != (by > y)
    rise = np.where(by == ay, 1.0, by - ay)
    right = x < ax + (bx - ax) * (y - ay) / rise
    found: Found = (passes & right).sum(axis=0) % 2 == 1
    return found


def _off_outline(outline: Sequence[Point], x: "Places", y: "Places") -> "Places":
    """How far each place is from an outline; below 0 within it."""
    import numpy as np
    import shapely

    area, places = shapely.Polygon(outline), shapely.points(x, y)
    outside = shapely.distance(area, places)
    inside = shapely.distance(area.exterior, places)
    found: Places = np.where(outside > 0, outside, -inside)
    return found
