"""Tapped holes and ends of threads, as every family cuts them."""

from collections.abc import Iterable

from machinon.core.materials import material
from machinon.core.piece.family import Check, Values, at_least, spoken
from machinon.core.piece.feature import Side
from machinon.core.piece.hole_features import Hole
from machinon.core.piece.turned_features import Bevel
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw
from machinon.core.threads.tapping import LEAST, MOST, drill_named, full_thread

CHIP_ROOM = 4.0  # threads that a tap needs below the thread
RUN_OUT = 3.0  # that a bottoming tap needs: its lead of 2, and chips


def tap_drill(thread: str) -> float:
    """The drill before the tap, mm."""
    return float(reckon("tap-drill", {"thread": thread})["drill_size"])


def run_out(thread: str) -> float:
    """What the drill of a blind tapped hole goes on below its thread, mm."""
    return RUN_OUT * thread_of(thread).pitch


def thread_within(most: float, *sizes: str) -> str:
    """The first of these threads, thick to thin, that is no thicker than `most`, mm;
    the last where all are."""
    return next((size for size in sizes if thread_of(size).major <= most), sizes[-1])


def lead_in(name: str, at: float, thread: str, side: Side) -> Bevel:
    """The bevel at the end of a thread, of about a pitch."""
    cut = thread_of(thread)
    return Bevel(name, at, cut.major, round(cut.pitch, 1), side)


def tapped(thread: str, depth: float | None = None) -> Hole:
    """A tapped hole; depth: of its drill, mm, through where it is not said. A tap goes
    less deep than its drill."""
    drill = tap_drill(thread)
    if depth is None:
        return Hole(drill, thread=thread)
    deep = max(depth - run_out(thread), 0.0)
    return Hole(drill, depth, thread=thread, thread_depth=deep)


def bolt_thread_check(s: Values) -> Check:
    """Whether a flange has the thread that the screws of its bolt circle want."""
    screw, metal = cap_screw(str(s["bolts.screw"])), str(s["material"])
    return at_least(
        "engagement",
        "bolts",
        s["flange.thickness"],
        material(metal).engagement * screw.diameter,
        f"Thread for the {screw.size} screws in {metal}",
    )


def drill_check(name: str, hole: Hole, where: str) -> Check:
    """Whether the drill before a tap leaves as much thread as a tap can cut."""
    thread = thread_of(hole.thread)
    share = 100 * (thread.major - hole.diameter) / full_thread(thread)
    says = f"A drill of {drill_named(hole.diameter)} leaves"
    if share > 0:
        says += (
            f" {share:.0f} % of thread in {where}: under {LEAST} it strips early, over "
            f"{MOST} it breaks taps in tough metal."
        )
    else:
        says += f" nothing for {thread.says} in {where}: it is as wide as the thread."
    return Check(
        f"{name}-drill",
        name,
        LEAST <= share <= MOST,
        says,
        grave=share <= 0 or share > 100,
        have=share,
        need=LEAST,
    )


def thread_checks(
    name: str, hole: Hole, metal: str, left: float | None = None
) -> Iterable[Check]:
    """Whether a tapped hole has the thread that its screw wants in the metal; left: how
    much of it other cuts leave, mm, where that is known."""
    if not hole.thread:
        return
    yield drill_check(name, hole, spoken(name))
    if left is None and hole.depth is None:
        return
    thread = thread_of(hole.thread)
    have = hole.thread_depth if left is None else left
    ends = f"; it ends {RUN_OUT:g} threads before the drill" if hole.depth else ""
    yield at_least(
        f"{name}-thread",
        name,
        have,
        material(metal).engagement * thread.major,
        f"Full thread of {spoken(name)} for its screw in {metal}{ends}",
        grave=have < thread.pitch,
    )
