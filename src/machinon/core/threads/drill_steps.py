"""The drills that open a hole one after the other; shop rules."""

from collections.abc import Sequence
from itertools import pairwise
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.tapping import (
    DRILLS_THERE,
    drill_named,
    drill_under,
    drills_of,
    inch_drill,
)

PILOTED = 8.0  # mm: beyond it a drill wants a hole to follow
ALIKE = 1.1  # of a hole that is there: a drill no wider has nothing to do
SAWN = 25.0  # mm: a wider hole is sawn or bored rather than drilled


def ladder(
    drill: float, there: float = 0.0, known: Sequence[float] = ()
) -> tuple[float, ...]:
    """The drills that open a hole, each at most about twice the one before, so that its
    chisel edge has nothing to push through; of the set that the last is of; mm.

    there: diameter of the hole that they follow; known: the drills there are, rising,
    any where not said.

    >>> ladder(25), ladder(6.8)
    ((6.2, 12.5, 25), (6.8,))
    >>> ladder(25, there=10)
    (12.5, 25)
    >>> ladder(25.4)
    (6.35, 12.7, 25.4)
    """
    found, inch = [drill], bool(inch_drill(drill))
    while found[0] > PILOTED:
        half = found[0] / 2
        under = [size for size in known if size <= half + 1e-9]
        if known and not under:
            break
        found.insert(0, under[-1] if known else drill_under(half, inch))
    return tuple(stage for stage in found if stage > ALIKE * there or stage == drill)


@reckoning(
    "drill-steps",
    group="Holes, patterns and dividing",
    title="Drills that open a hole in steps",
    usual={"hole": 25},
    inputs=(
        Input("hole", LENGTH, "the last drill", low=0.3, high=120),
        Input("there", LENGTH, "a hole that is there already", 0.0, low=0),
        DRILLS_THERE,
    ),
    results=(
        Result("first", TEXT, "the one to begin with"),
        Result("drills", TEXT, "in their order", {"size": LENGTH}),
    ),
    sources=(
        "up to 8 mm at once; else each about half of the next, so that no chisel edge "
        "has metal to push: a shop rule",
    ),
)
def _drill_steps(
    trail: Trail, hole: float, there: float, series: tuple[str, ...] | None
) -> dict[str, Any]:
    if there >= hole:
        raise BadInput("there", f"Under {hole:g} mm, the hole it is opened to.")
    known = [drill.size for drill in drills_of(series)] if series else []
    sizes = ladder(hole, there, known)
    for small, large in pairwise(sizes):
        trail.step(f"Before {drill_named(large)}", f"{large:g} / 2 at most", small)
    if hole > SAWN:
        trail.notes.append(
            f"Over {SAWN:g} mm a hole saw or a boring bar may be quicker, and needs "
            "less of the machine."
        )
    trail.cautions.append(
        "A large drill grabs as it breaks through: clamp the work, ease the feed."
    )
    return {
        "first": drill_named(sizes[0]),
        "drills": [{"drill": drill_named(size), "size": size} for size in sizes],
    }
