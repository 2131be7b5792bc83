"""Features of what turns of which nothing is left: larger cuts took it away, or it lies
outside of the metal."""

import math

from machinon.core.piece.body import Body
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import Flats, Keyway
from machinon.core.piece.turned_features import (
    Bore,
    Cylinder,
    End,
    FaceGroove,
    Groove,
    Knurl,
    Sloping,
)

ON = 1e-4  # mm: an edge that is no further from a face lies on it
LEAST = 1e-3  # mm of a face that count as left of it


def lost(body: Body) -> list[str]:
    """The names of the features of which no face is left; a block's are not asked."""
    if not body.turns:
        return []
    return [it.name for it in body.features if not _is_left(body, it)]


def _is_left(body: Body, feature: Feature) -> bool:
    match feature:
        case Cylinder() | Groove() | Bore() | Sloping():
            return _along(body, feature)
        case End():
            at = body.ends[0 if feature.side == "left" else 1]
            return abs(at - feature.z) < LEAST
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
        case Knurl():
            long = feature.end - feature.start
            over = body.radii_at(
                [feature.start + long * (n + 0.5) / 10 for n in range(10)]
            )
            return any(abs(2 * high - feature.diameter) < LEAST for _, high in over)
    return True


def _along(body: Body, it: Cylinder | Groove | Bore | Sloping) -> bool:
    """Whether an edge of the section lies on what is turned or bored."""
    if isinstance(it, Sloping):
        first, last = it.start_diameter / 2, it.end_diameter / 2
    else:
        first = last = it.diameter / 2
    rise = (last - first) / (it.end - it.start) if it.end > it.start else 0.0
    return any(
        abs(ar - first - (az - it.start) * rise) < ON
        and abs(br - first - (bz - it.start) * rise) < ON
        and min(max(az, bz), it.end) - max(min(az, bz), it.start) > LEAST
        for (az, ar), (bz, br) in body.edges
    )


def _across(body: Body, z: float, inner: float, outer: float) -> bool:
    """Whether an edge of the section lies in a plane square to the axis, between these
    radii."""
    return any(
        abs(az - z) < ON
        and abs(bz - z) < ON
        and min(max(ar, br), outer) - max(min(ar, br), inner) > LEAST
        for (az, ar), (bz, br) in body.edges
    )
