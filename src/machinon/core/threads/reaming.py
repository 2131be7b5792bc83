"""The drill before a reamer; shop rules."""

from typing import Any

from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.tapping import (
    DRILLS_THERE,
    drill_named,
    drill_under,
    drills_of,
    inch_drill,
)

REAMED = 0.15  # mm that a reamer takes off, at least
BORED = 13.0  # mm: from here on a hole is bored true before it is reamed


def drill_before(reamer: float, inch: bool = False) -> float:
    """The drill before a reamer, mm: the largest that leaves it enough.

    >>> drill_before(8), drill_before(20)
    (7.8, 19.5)
    """
    return drill_under(reamer - REAMED, inch)


@reckoning(
    "ream-drill",
    group="Holes, patterns and dividing",
    title="Drill before a reamer",
    usual={"reamer": 8},
    inputs=(
        Input("reamer", LENGTH, "the reamer", low=1, high=50),
        DRILLS_THERE,
    ),
    results=(
        Result("drill", TEXT, "the largest that leaves enough"),
        Result("drill_size", LENGTH, "its size"),
        Result("stock", LENGTH, "left on the diameter"),
    ),
    sources=("at least 0.15 mm on the diameter; a shop rule",),
)
def _ream_drill(
    trail: Trail, reamer: float, series: tuple[str, ...] | None
) -> dict[str, Any]:
    most = trail.step("At most", f"{reamer:g} − {REAMED:g}", reamer - REAMED)
    if series is None:
        size = drill_before(reamer, bool(inch_drill(reamer)))
    else:
        under = [drill.size for drill in drills_of(series) if drill.size <= most + 1e-9]
        size = under[-1] if under else most
    stock = trail.step("Left for the reamer", f"{reamer:g} − {size:g}", reamer - size)
    trail.notes.append("Too little and it rubs, too much and it tears.")
    if reamer > BORED:
        trail.notes.append("A reamer follows its hole: bore it true before.")
    trail.cautions.append("Never turn a reamer backwards.")
    return {"drill": drill_named(size), "drill_size": size, "stock": stock}
