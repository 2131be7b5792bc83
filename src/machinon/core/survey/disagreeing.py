"""Readings that disagree with the others, and what is likely the cause."""

import statistics
from collections.abc import Sequence

from msgspec import Struct

from machinon.core.quantity import INCH


class Doubt(Struct, frozen=True):
    """A reading that disagrees with the others: which, and the likely cause."""

    index: int
    off: float
    cause: str


def _cause(off: float, median: float, value: float) -> str:
    known = (
        (0.5, "half a millimetre off: one turn of the micrometer's thimble misread?"),
        (0.025 * INCH, "0.025 in off: one turn of an inch thimble misread?"),
        (1.0, "a whole millimetre off: the scale misread?"),
        (0.1 * INCH, "0.1 in off: the scale misread?"),
        (0.1, "a tenth of a millimetre off: a digit slipped?"),
        (10.0, "ten millimetres off: a digit slipped?"),
    )
    slack = max(0.02 * abs(off), 0.008)
    for size, cause in known:
        if abs(abs(off) - size) <= slack:
            return cause
    for factor, cause in (
        (INCH, "typed in the wrong unit?"),
        (1 / INCH, "typed in the wrong unit?"),
        (10.0, "the point slipped?"),
        (0.1, "the point slipped?"),
    ):
        if abs(value - median * factor) < 0.02 * abs(value):
            return cause
    return "a burr, dirt or a warm part? Wipe it and measure again."


def disagreeing(
    values: Sequence[float], repeatability: float, uncertainty: float
) -> tuple[Doubt, ...]:
    """Readings too far from the median of all to be scatter; mm.

    Far is more than four robust sigmas (median deviation, at least the
    instrument's repeatability) and more than its uncertainty. Two readings
    that disagree are both pointed out: nobody can tell which is wrong.
    """
    if len(values) < 2:
        return ()
    median = statistics.median(values)
    if len(values) == 2:
        off = values[1] - values[0]
        if abs(off) <= max(6 * repeatability, 2 * uncertainty):
            return ()
        cause = "these two disagree: " + _cause(off, values[0], values[1])
        return (Doubt(0, -off, cause), Doubt(1, off, cause))
    scatter = 1.4826 * statistics.median(abs(v - median) for v in values)
    far = max(4 * max(scatter, repeatability), 1.5 * uncertainty)
    return tuple(
        Doubt(i, v - median, _cause(v - median, median, v))
        for i, v in enumerate(values)
        if abs(v - median) > far
    )
