"""The reamers that are sold, and what each leaves."""

import math
from collections.abc import Iterator

from msgspec import Struct

from machinon.core.quantity import INCH
from machinon.core.sizes.limits import limits_of_size

SURE = 0.5  # of what it leaves that must do, for it to be the right one; a shop rule
METRIC = 0.5  # mm from one to the next
LEAVES = "H7"  # the zone that a sharp reamer of a size leaves a hole in


class Reamer(Struct, frozen=True):
    """A reamer and the hole it leaves, mm."""

    size: float
    lower: float
    upper: float

    def makes(self, size: float) -> bool:
        """Whether a hole of this size can be what it leaves."""
        return self.lower - 1e-9 <= size <= self.upper + 1e-9

    def does(self, lower: float, upper: float) -> bool:
        """Whether most of what it leaves lies between these sizes, mm."""
        both = min(upper, self.upper) - max(lower, self.lower)
        return both >= SURE * (self.upper - self.lower) - 1e-9


def reamer_of(size: float) -> Reamer:
    """A reamer by its size, mm, up to 500.

    Source: reamers are ground to leave H7 of ISO 286-2; a shop rule, as metal and
    cutting oil have their say.
    """
    hole = limits_of_size(size, LEAVES)
    return Reamer(size, hole.lower, hole.upper)


def reamers_near(size: float, inch: bool = False) -> Iterator[Reamer]:
    """The reamers that are sold next to a size, mm, by half millimetres and by 64ths of
    an inch; of each kind the one whose hole comes nearer first.

    inch: whether the inch ones come first.
    """
    for step in (INCH / 64, METRIC) if inch else (METRIC, INCH / 64):
        under = max(math.floor(size / step + 1e-9), 1)
        both = reamer_of(step * under), reamer_of(step * (under + 1))
        yield from sorted(both, key=lambda reamer: _off(reamer, size))


def nearest_reamer(size: float, inch: bool = False) -> Reamer:
    """The reamer that is sold whose hole comes nearest to a size, mm.

    inch: which of them is taken where both do.

    >>> nearest_reamer(8.02).size, nearest_reamer(7.997).size
    (8.0, 8.0)
    """
    return min(reamers_near(size, inch), key=lambda reamer: _off(reamer, size))


def _off(reamer: Reamer, size: float) -> float:
    """How far what it leaves is from a size, mm."""
    return max(reamer.lower - size, size - reamer.upper, 0.0)
