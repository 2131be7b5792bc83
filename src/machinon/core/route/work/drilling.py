"""What is said of a drill or tap wherever it works: how deep, and how fast.

Source: geometry; the speeds' reckoning; shop rules.
"""

import math

from machinon.core.piece.feature import POINT
from machinon.core.piece.round_sizes import downwards
from machinon.core.piece.shown import Shown
from machinon.core.quantity import NUMBER
from machinon.core.setting_out.cones import cone_depth
from machinon.core.sizes.drill_reach import reach_of
from machinon.core.threads.screw_thread import thread_of

STARTS = "A drill that starts by itself wanders."
NEXT_GOES_ON = "Its flutes go no deeper: the next drill goes on without it."
BY_A_LONG_ONE = "Deeper than its flutes: the rest by a long one, in its hole."
FROM_BOTH_SIDES = (
    "Its flutes go no deeper: the rest by a long one in its hole, or from the other "
    "side, the hole set out there anew."
)


def tip(diameter: float) -> float:
    """Length of a drill's point beyond its shoulder, mm.

    >>> round(tip(10), 3)
    3.004
    """
    return cone_depth(diameter, POINT)


def depth_shown(words: str, deep: float) -> Shown:
    """A depth that no drill or tap is held to closer than a tenth, mm."""
    return Shown(words, deep, step=0.1)


def goes_to(drill: float) -> float:
    """How deep a drill is sent at most, as far as its flutes let it: whole mm; without
    end for a size that is not listed.

    >>> goes_to(10.5), goes_to(60)
    (76.0, inf)
    """
    reach = reach_of(drill)
    return downwards(reach, 1.0) if math.isfinite(reach) else reach


def in_its_flutes(
    drill: float,
    deep: tuple[Shown, ...],
    last: bool,
    through: bool,
    rest: str = FROM_BOTH_SIDES,
) -> tuple[tuple[Shown, ...], str]:
    """How deep a drill goes, as far as its flutes let it, and what is said where the
    hole is deeper; deep: what the hole asks of it, its point at the end; rest: what is
    said where it goes through and the last drill does not."""
    if float(deep[-1].value) <= reach_of(drill):
        return deep, ""
    goes = (depth_shown("Point at", goes_to(drill)),)
    if not last:
        return goes, NEXT_GOES_ON
    return (goes, rest) if through else (deep, BY_A_LONG_ONE)


def to_the_left(thread: str) -> str:
    """What is said of a tap that goes in the other way round; nothing of others."""
    return " Left-hand: it goes in against the clock." if thread_of(thread).left else ""


def turns_shown(thread: str, deep: float) -> Shown:
    """Counted by halves, and none too many: a tap that is on the floor breaks."""
    return Shown("Turns", downwards(deep / thread_of(thread).lead, 0.5), NUMBER)
