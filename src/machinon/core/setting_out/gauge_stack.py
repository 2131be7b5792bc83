"""Stacks of slip gauges, parallels and shims that make a size."""

from collections.abc import Sequence
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, INCH, LENGTH
from machinon.core.reckoning import Input, Result, Trail, reckoning

UNIT = 1e-5  # mm: sizes are compared as whole hundredths of a micron


def _set(*runs: tuple[int, int, int], parts: int) -> list[float]:
    """Sizes of a set of slips by runs of first, last and step, in parts of a unit."""
    return [
        size / parts
        for first, last, step in runs
        for size in range(first, last + 1, step)
    ]


NEAR = (0.002, 0.005, 0.02)  # mm: a stack so far off may still do

# the usual sets of 47 and of 81 pieces; mm, inches
METRIC_SET = _set(
    (1005, 1005, 1), (1010, 1190, 10), (1200, 1900, 100), (1000, 9000, 1000),
    (10000, 100000, 10000), parts=1000,
)  # fmt: skip
INCH_SET = _set(
    (1001, 1009, 1), (1010, 1490, 10), (500, 9500, 500), (10000, 40000, 10000),
    parts=10000,
)  # fmt: skip


def stack(
    target: float, pieces: Sequence[float], most: int, tolerance: float
) -> tuple[float, ...] | None:
    """The fewest pieces, each used once, whose sum is nearest within the tolerance.

    target, pieces, tolerance: mm. None where no sum of up to `most` comes so near.
    """
    wanted = round(target / UNIT)
    slack = round(tolerance / UNIT)
    sizes = sorted({*(round(piece / UNIT) for piece in pieces)}, reverse=True)
    counts = dict.fromkeys(sizes, 0)
    for piece in pieces:
        counts[round(piece / UNIT)] += 1
    smallest = sizes[-1]

    def best(left: int, at: int, depth: int) -> tuple[int, tuple[int, ...]] | None:
        """Least error and the pieces that make `left` with `depth` more pieces."""
        if depth == 0:
            return (abs(left), ()) if abs(left) <= slack else None
        found = None
        for i in range(at, len(sizes)):
            size = sizes[i]
            if size * depth < left - slack:
                break  # even the largest of those that remain fall short
            if size + smallest * (depth - 1) > left + slack or not counts[size]:
                continue
            counts[size] -= 1
            rest = best(left - size, i, depth - 1)
            counts[size] += 1
            if rest is not None and (found is None or rest[0] < found[0]):
                found = (rest[0], (size, *rest[1]))
                if found[0] == 0:
                    return found
        return found

    for depth in range(1, most + 1):
        made = best(wanted, 0, depth)
        if made is not None:
            return tuple(size * UNIT for size in made[1])
    return None


def _nearest(
    target: float, pieces: Sequence[float], most: int, tolerance: float
) -> str:
    """What can be made next to a size that cannot; empty where nothing is near."""
    for further in (slack for slack in NEAR if slack > tolerance):
        chosen = stack(target, pieces, most, further)
        if chosen is not None:
            return f"{sum(chosen):.7g} mm can be; "
    return ""


@reckoning(
    "gauge-stack",
    group="Setting up",
    title="Pieces that stack up to a size",
    usual={
        "target": 41.275,
        "pieces": METRIC_SET,
    },
    usual_inch={
        "target": 1.6285 * INCH,
        "pieces": [size * INCH for size in INCH_SET],
    },
    inputs=(
        Input("target", LENGTH, "the size wanted", above=0),
        Input("pieces", LENGTH, "those there are", above=0, many=True),
        Input("most", COUNT, "pieces in the stack at most", default=5, low=1, high=8),
        Input("tolerance", LENGTH, "how far off it may be", default=0.0, low=0),
    ),
    results=(
        Result("pieces", LENGTH, "those chosen"),
        Result("total", LENGTH, "their sum"),
        Result("error", LENGTH, "sum less target"),
    ),
    sources=("search of all sums, fewest pieces first",),
)
def _gauge_stack(
    trail: Trail, target: float, pieces: tuple[float, ...], most: int, tolerance: float
) -> dict[str, Any]:
    if len(pieces) > 200:
        raise BadInput("pieces", "Up to 200 pieces are allowed.")
    chosen = stack(target, pieces, most, tolerance)
    if chosen is None:
        within = f" within {tolerance:g} mm" if tolerance else ""
        raise BadInput(
            "target",
            f"{target:.7g} mm cannot be made of up to {most} of these pieces{within}: "
            f"{_nearest(target, pieces, most, tolerance)}allow a tolerance, more "
            "pieces, or another size.",
        )
    # the pieces as they were given, not as they were counted
    given = {round(piece / UNIT): piece for piece in pieces}
    names = [given[round(size / UNIT)] for size in chosen]
    total = trail.step("Sum", " + ".join(f"{name:g}" for name in names), sum(names))
    return {"pieces": names, "total": total, "error": total - target}
