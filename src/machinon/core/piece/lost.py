"""Features of what turns of which nothing is left: larger cuts took it away, or it lies
outside of the metal."""

import math
from collections.abc import Iterator
from typing import Any

from machinon.core.piece.body import Body
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.turned_features import (
    Bore,
    Cylinder,
    FaceGroove,
    Flats,
    Groove,
    Keyway,
    Sloping,
)

ON = 1e-4  # mm: an edge that is no further from a face lies on it
LEAST = 1e-3  # mm of a face that count as left of it


def lost(body: Body) -> Iterator[str]:
    """The names of the features of which no face is left; a block's are not asked."""
    if not body.turns:
        return
    for feature in body.features:
        if not _is_left(body, feature):
            yield feature.name


def _is_left(body: Body, feature: Feature) -> bool:
    match feature:
        case Cylinder() | Groove() | Bore():
            ends = feature.diameter, feature.diameter
            return _along(body, feature.start, feature.end, *ends)
        case Sloping():
            ends = feature.start_diameter, feature.end_diameter
            return _along(body, feature.start, feature.end, *ends)
        case FaceGroove():
            floor = feature.z + feature.depth * (1 if feature.side == "left" else -1)
            return _across(body, floor, feature.inner / 2, feature.outer / 2)
        case Flats():
            inset = min(LEAST, (feature.end - feature.start) / 4)
            places = (feature.start + inset, feature.end - inset)
            return max(high for _, high in body.radii_at(places)) > feature.across / 2
        case Keyway() if feature.inside:
            return feature.width < feature.diameter
        case Holes():
            inside = LEAST if feature.face == "left" else -LEAST
            low, high = body.radii(feature.level + inside)
            half = feature.hole.diameter / 2
            middles = (math.hypot(*point) for point in feature.points)
            return all(low - half < at < high + half for at in middles)
        case CrossHoles():
            return body.radii(feature.z)[1] > 0
    return True


def _along(body: Body, start: float, end: float, first: float, last: float) -> bool:
    """Whether an edge of the section lies on a face from station to station, of such
    diameters there."""
    import numpy as np

    az, ar, bz, br = body.edges
    slope = (last - first) / 2 / (end - start) if end > start else 0.0

    def off(z: Any, r: Any) -> Any:
        return np.abs(r - first / 2 - (z - start) * slope)

    long = np.minimum(np.maximum(az, bz), end) - np.maximum(np.minimum(az, bz), start)
    return bool(((off(az, ar) < ON) & (off(bz, br) < ON) & (long > LEAST)).any())


def _across(body: Body, z: float, inner: float, outer: float) -> bool:
    """Whether an edge of the section lies in a plane square to the axis, between these
    radii."""
    import numpy as np

    az, ar, bz, br = body.edges
    wide = np.minimum(np.maximum(ar, br), outer) - np.maximum(np.minimum(ar, br), inner)
    level = (np.abs(az - z) < ON) & (np.abs(bz - z) < ON)
    return bool((level & (wide > LEAST)).any())
