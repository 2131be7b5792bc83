"""Metal between a hole and what else is cut, whichever faces they come from."""

import math
from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import lru_cache
from itertools import pairwise
from typing import TYPE_CHECKING

import msgspec

from machinon.core.piece.block_features import Slot
from machinon.core.piece.body import cuts_of
from machinon.core.piece.family import Check, at_least, spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.solid_cuts import Cut, Drilled
from machinon.core.piece.within import Box, box_of, holds, off

if TYPE_CHECKING:
    from machinon.core.piece.within import Places

NEAR = 2.0  # mm: what is further off is not looked at
THIN = 0.5  # mm of metal at least
# places round a hole and along it that are tried, and each way about the nearest
AROUND, ALONG, FINER = 24, 12, 13
HAIR = 1e-6  # mm: so far over a floor or a step it is as wide as above it
SHORT = 40  # pieces that a slot which is turned is taken as
KEPT = 256  # answers about holes and other cuts
PARTS = 300  # of a thread, each of which is there or not


def wall(holes: Holes | CrossHoles, other: Feature) -> float:
    """The least metal between any of these holes and another cut, mm, below 0 where one
    breaks into the side of it. Infinite where it is far off, or where the middle of one
    meets the other: they are to open into each other."""
    cuts = [(cut, box_of(cut)) for cut in cuts_of(other)]
    least = math.inf
    for hole in cuts_of(holes):
        if not isinstance(hole, Drilled):
            continue  # a square hole's corners
        box, wide = box_of(hole), max(radius for _, radius in hole.in_metal)
        for cut, its_box in cuts:
            if _apart(box, its_box, NEAR):
                continue
            depths = _depths(hole, its_box)
            middle = float(off(cut, _axis(hole, depths)).min())
            near = HAIR < middle < wide + min(least, NEAR)
            if near and not _meets(cut, hole, box):
                least = min(least, _from_skin(hole, depths, cut))
    return least


def wall_checks(
    holes: Holes | CrossHoles, others: Iterable[Feature]
) -> Iterable[Check]:
    """Whether metal is left between holes and what is nearest to them."""
    name = holes.name
    walls = {other.name: wall(holes, other) for other in others}
    nearest = min(walls, key=lambda other: walls[other], default="")
    if nearest and walls[nearest] < math.inf:
        yield at_least(
            f"{name}-wall-to",
            name,
            walls[nearest],
            THIN,
            f"Metal between {spoken(name)} and {spoken(nearest)} (below nothing its "
            "drill breaks into the side and wanders)",
            grave=False,
        )


def between(one: Feature, other: Feature, block: tuple[float, float, float]) -> float:
    """The least metal between what two features take of a block, mm, each cut taken as
    the box about it, a slot that is turned as many short ones; below 0 where they open
    into each other."""
    import numpy as np

    def boxes(feature: Feature) -> "Places":
        cuts = cuts_of(feature)
        if isinstance(feature, Slot) and feature.turn:
            cuts = tuple(_in_pieces(feature))
        return np.clip([box_of(cut) for cut in cuts], 0.0, block)

    mine, theirs = boxes(one)[:, None], boxes(other)[None, :]
    apart = np.maximum(mine[:, :, 0] - theirs[:, :, 1], theirs[:, :, 0] - mine[:, :, 1])
    outside = np.linalg.norm(np.maximum(apart, 0.0), axis=2)
    found = outside + np.minimum(apart.max(axis=2), 0.0)
    return float(found.min())


def _in_pieces(slot: Slot) -> Iterator[Cut]:
    """A slot cut across into short ones."""
    (ax, ay), (bx, by) = slot.a, slot.b
    at = [(ax + (bx - ax) * n / SHORT, ay + (by - ay) * n / SHORT)
          for n in range(SHORT + 1)]  # fmt: skip
    for a, b in pairwise(at):
        piece = msgspec.structs.replace(
            slot, a=slot.turned(*a), b=slot.turned(*b), rounded=False, turn=0.0
        )
        yield from piece.cuts()


# the same holes are asked about by the drawing, the checks and the route
@lru_cache(maxsize=KEPT)
def opens(holes: Holes, start: float, past: float, others: tuple[Feature, ...]) -> bool:
    """Whether other cuts take all that lies before each of these holes, from a depth
    and so far past it, mm."""
    import numpy as np

    depths = start + np.linspace(HAIR, past, ALONG)
    ends = start + HAIR, start + past
    return all(_held(holes, others, ends, lambda hole: _axis(hole, depths)))


@lru_cache(maxsize=KEPT)
def metal_between(holes: Holes, other: Feature) -> tuple[float, float]:
    """From where to where there is metal along holes, mm, if another feature takes of
    it at their face or at the far one all that they lie over."""
    start, end = 0.0, holes.through
    face = holes.frame
    for cut in cuts_of(other):
        near, far = sorted(
            sum((c - o) * n for c, o, n in zip(at, face.origin, face.into, strict=True))
            for at in box_of(cut)
        )
        if near <= HAIR and start < far < end and lies_in(holes, other, 0.0, far):
            start = far
        elif start < near < end <= far + HAIR and lies_in(holes, other, near, end):
            end = near
    return start, end


@lru_cache(maxsize=KEPT)
def lies_in(
    holes: Holes, other: Feature, start: float, end: float, some: bool = False
) -> bool:
    """Whether the whole of each of these holes, or of some, lies in what another
    feature takes, from one depth to another, mm."""
    import numpy as np

    turns = np.arange(AROUND) * math.tau / AROUND
    ends = start + HAIR, end - HAIR
    held = _held(holes, [other], ends, lambda it: _skin(it, np.array(ends), turns))
    return any(held) if some else all(held)


def _held(
    holes: Holes,
    others: Iterable[Feature],
    ends: tuple[float, float],
    places: "Callable[[Drilled], Places]",
) -> Iterator[bool]:
    """Whether other cuts hold all these places of each hole, which lie between two
    depths of it."""
    import numpy as np

    cuts = [(cut, box_of(cut)) for other in others for cut in cuts_of(other)]
    for hole in cuts_of(holes):
        if not isinstance(hole, Drilled):
            continue
        (x0, y0, z0), (x1, y1, z1) = (hole.frame.at(*hole.at, end) for end in ends)
        low = min(x0, x1), min(y0, y1), min(z0, z1)
        high = max(x0, x1), max(y0, y1), max(z0, z1)
        met = [cut for cut, box in cuts if not _apart((low, high), box, 0.0)]
        if not met:
            yield False
            continue
        there = places(hole)
        yield bool(np.any([holds(cut, there) for cut in met], axis=0).all())


def in_metal(
    holes: Holes | CrossHoles, depth: float, others: Sequence[Feature]
) -> float:
    """The least that any of these holes has of metal down to a depth, less what other
    cuts take of it, mm."""
    import numpy as np

    depths = (np.arange(PARTS) + 0.5) / PARTS * depth
    cuts = [(cut, box_of(cut)) for other in others for cut in cuts_of(other)]
    found = depth
    for hole in cuts_of(holes):
        assert isinstance(hole, Drilled)
        own, places = box_of(hole), _axis(hole, depths)
        left = np.full(PARTS, True)
        for cut, box in cuts:
            if not _apart(own, box, 0.0):
                left &= ~holds(cut, places)
        found = min(found, depth * float(left.mean()))
    return found


def _apart(box: Box, other: Box, by: float) -> bool:
    """Whether two boxes are further apart than that along some axis."""
    return any(
        low - top > by or bottom - high > by
        for low, high, bottom, top in zip(*box, *other, strict=True)
    )


def _meets(cut: Cut, hole: Drilled, box: Box) -> bool:
    """Whether a cut is a hole of which the middle meets another; box: about that."""
    if not isinstance(cut, Drilled):
        return False
    return bool(holds(hole, _axis(cut, _depths(cut, box))).any())


def _from_skin(hole: Drilled, depths: "Places", cut: Cut) -> float:
    """How far a cut is from the wall of a hole, mm."""
    import numpy as np

    turns = np.arange(AROUND) * math.tau / AROUND
    far = off(cut, _skin(hole, depths, turns)).reshape(len(depths), AROUND)
    # once more about the nearest
    at, turn = np.unravel_index(far.argmin(), far.shape)
    closer = np.linspace(-1.0, 1.0, FINER)
    deep = hole.profile[-1][0] - HAIR
    depths = np.clip(depths[at] + closer * deep / ALONG, 0.0, deep)
    turns = turns[turn] + closer * math.tau / AROUND
    return min(float(far.min()), float(off(cut, _skin(hole, depths, turns)).min()))


def _depths(hole: Drilled, other: Box) -> "Places":
    """Depths down a hole: evenly, at each of its steps, and where the ends and the
    middle of another box lie."""
    import numpy as np

    deep = hole.profile[-1][0] - HAIR
    steps = np.array([depth for depth, _ in hole.in_metal])
    low, high = np.array(other)
    from_it = np.stack((low, (low + high) / 2, high)) - np.asarray(hole.frame.origin)
    there = from_it @ np.asarray(hole.frame.into)
    even = np.linspace(0.0, deep, ALONG)
    every = np.concatenate((even, steps - HAIR, steps, there))
    return every.clip(0.0, deep)


def _axis(hole: Drilled, depths: "Places") -> "Places":
    """Places in the middle of a hole at these depths."""
    import numpy as np

    at, into = np.asarray(hole.frame.at(*hole.at)), np.asarray(hole.frame.into)
    places: Places = at + depths[:, None] * into
    return places


def _skin(hole: Drilled, depths: "Places", turns: "Places") -> "Places":
    """Places round a hole at these depths and, in radians, angles."""
    import numpy as np

    reach = np.interp(depths, *np.array(hole.in_metal).T)[:, None, None]
    u, v = np.asarray(hole.frame.u), np.asarray(hole.frame.v)
    out = np.cos(turns)[:, None] * u + np.sin(turns)[:, None] * v
    places: Places = _axis(hole, depths)[:, None, :] + reach * out
    return places.reshape(-1, 3)
