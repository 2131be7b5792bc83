"""Cuts that take nothing that others leave, tried at places spread through each."""

import functools
import math
from collections.abc import Sequence
from typing import TYPE_CHECKING

from machinon.core.piece.block_features import SixFaces
from machinon.core.piece.body import Body, cuts_of
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.solid_cuts import Cut, Turned, extent
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    BarAsItIs,
    Centre,
    Cylinder,
    End,
    Screw,
)
from machinon.core.piece.within import Box, box_of, holds

if TYPE_CHECKING:
    from machinon.core.piece.within import Places

FEW, MANY = 32, 2048  # places tried at first, and before a cut counts as idle
# faces, of which nothing else need be left, what has served once it is bored away, and
# what is not cut
LEFT_OUT = (End, SixFaces, Centre, BarAsItIs)


def idle(body: Body) -> list[str]:
    """The names of the features that could as well not be there: others take all that
    they take, or they lie outside of the metal. Of holes, one such is enough."""
    import numpy as np

    cuts = [
        (it, cut, own)
        for it in body.features
        for cut, own in zip(cuts_of(it), it.shows(), strict=True)
    ]
    low, high = np.array([box_of(own) for *_, own in cuts]).transpose(1, 0, 2)
    whole = np.asarray(_uncut(body))
    low, high = np.maximum(low, whole[0]), np.minimum(high, whole[1])
    takes: dict[str, list[bool]] = {}
    for n, (feature, _, own) in enumerate(cuts):
        if isinstance(feature, LEFT_OUT):
            continue
        meets = np.maximum(low, low[n]) < np.minimum(high, high[n])
        near = [
            other
            for (theirs, other, _), meet in zip(cuts, meets.all(axis=1), strict=True)
            if meet and theirs is not feature and not _of_one_thread(theirs, feature)
        ]
        taken = _takes(own, low[n], high[n], near)
        takes.setdefault(feature.name, []).append(taken)
    return [
        name
        for name, each in takes.items()
        if not (all(each) if isinstance(body.feature(name), Holes) else any(each))
    ]


def _of_one_thread(a: Feature, b: Feature) -> bool:
    """Whether one is a thread outside and the other a round: that is turned for it."""
    return (isinstance(a, Screw) and isinstance(b, Cylinder)) or (
        isinstance(b, Screw) and isinstance(a, Cylinder)
    )


def _takes(cut: Cut, low: "Places", high: "Places", near: Sequence[Cut]) -> bool:
    """Whether a cut takes metal of a box that none of those near it takes."""
    if (low >= high).any():
        return False
    for some in (slice(0, FEW), slice(FEW, MANY)):
        places = _spread(cut, low, high, _evenly()[some])
        places = places[holds(cut, places)]
        for other in near:
            if not len(places):
                break
            places = places[~holds(other, places)]
        if len(places):
            return True
    return False


def _uncut(body: Body) -> Box:
    """The box about the piece before anything is cut in its faces."""
    faces = next((it for it in body.features if isinstance(it, SixFaces)), None)
    if faces is not None:
        return (0.0, 0.0, 0.0), (faces.length, faces.width, faces.height)
    stock = body.stock
    if isinstance(stock, Block):
        return stock.low, stock.high
    out = stock.widest / 2
    return (-out, -out, stock.start), (out, out, stock.end)


def _spread(cut: Cut, low: "Places", high: "Places", even: "Places") -> "Places":
    """Places spread as evenly through the part of a cut that lies in a box as these are
    through a unit cube, and some about it."""
    import numpy as np

    if not isinstance(cut, Turned):
        return low + (high - low) * even
    _, inner, _, outer = extent(cut.section)
    inner, outer = max(inner, 0.0), min(outer, high[0])
    r, turn = inner + (outer - inner) * even[:, 0], math.tau * even[:, 1]
    z = low[2] + (high[2] - low[2]) * even[:, 2]
    return np.stack((r * np.cos(turn), r * np.sin(turn), z), axis=1)


@functools.cache
def _evenly() -> "Places":
    """Places spread evenly through a unit cube, by the golden section of three axes."""
    import numpy as np

    golden = 1.2207440846057596  # the real root of x⁴ = x + 1
    steps = golden ** -np.arange(1.0, 4.0)
    places: Places = (0.5 + np.arange(1, MANY + 1)[:, None] * steps) % 1.0
    return places
