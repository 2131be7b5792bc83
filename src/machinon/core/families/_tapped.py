"""Tapped holes, as every family drills them."""

from machinon.core.piece.features import Hole
from machinon.core.reckoning import reckon

CHIP_ROOM = 4.0  # threads that a tap needs below the thread


def tap_drill(thread: str) -> float:
    """The drill before the tap, mm."""
    return float(reckon("tap-drill", {"thread": thread})["drill_size"])


def tapped(thread: str, depth: float | None = None) -> Hole:
    """A tapped hole; depth: of its drill, mm, through where it is not said."""
    return Hole(tap_drill(thread), depth, thread=thread)
