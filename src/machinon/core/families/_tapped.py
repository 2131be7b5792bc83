"""Tapped holes, as every family drills them."""

from machinon.core.piece.hole_features import Hole
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of

CHIP_ROOM = 4.0  # threads that a tap needs below the thread


def tap_drill(thread: str) -> float:
    """The drill before the tap, mm."""
    return float(reckon("tap-drill", {"thread": thread})["drill_size"])


def thread_within(most: float, *sizes: str) -> str:
    """The first of these threads, thick to thin, that is no thicker than `most`, mm;
    the last where all are."""
    return next((one for one in sizes if thread_of(one).major <= most), sizes[-1])


def tapped(thread: str, depth: float | None = None) -> Hole:
    """A tapped hole; depth: of its drill, mm, through where it is not said."""
    return Hole(tap_drill(thread), depth, thread=thread)
