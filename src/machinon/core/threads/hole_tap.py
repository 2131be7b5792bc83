"""What a hole that is there can be: the thread it takes, the screw it lets through."""

from typing import Any

from machinon.core.quantity import INCH, LENGTH, PERCENT
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.screw_thread import Thread, known_threads
from machinon.core.threads.screws import clearance_holes
from machinon.core.threads.tapping import LEAST, MOST, USUAL_ENGAGEMENT, full_thread

# what is sold for every tap stock, and what has to be looked for: of 100 % of thread
RARE = {"fine": 4.0, "UNF": 4.0, "UNEF": 8.0, "UN": 12.0, "BSF": 6.0, "BSW": 3.0,
        "BA": 6.0, "G": 10.0}  # fmt: skip
NOT_TAPPED = ("Tr",)  # are cut on the lathe
SHOWN = 6
LOOSEST = 1.25  # times a screw: a hole wider than this is no hole for it


@reckoning(
    "hole-tap",
    group="Threads",
    title="What a hole can be tapped to, and which screw goes through",
    usual={"hole": 8.4},
    usual_inch={"hole": 0.332 * INCH},
    inputs=(Input("hole", LENGTH, "as it is", above=0, high=150),),
    results=(
        Result(
            "taps",
            TEXT,
            "threads that it can be tapped to, likeliest first",
            {"engagement": PERCENT, "major": LENGTH},
        ),
        Result(
            "through",
            TEXT,
            "the largest screws that go through, metric and inch",
            {"room": LENGTH},
        ),
    ),
    sources=(
        "100 % of thread as for a tap's drill; between 55 and 85 % holds and does not "
        "break taps: a shop rule; holes for screws by ISO 273 and ASME B18.2.8",
    ),
)
def _hole_tap(trail: Trail, hole: float) -> dict[str, Any]:
    found = []
    for thread in known_threads().values():
        if thread.series in NOT_TAPPED or thread.left or thread.starts > 1:
            continue
        gives = (thread.major - hole) / full_thread(thread) * 100
        if LEAST <= gives <= MOST:
            off = abs(gives - USUAL_ENGAGEMENT["cut"]) + RARE.get(thread.series, 0.0)
            found.append((off, thread, gives))
    found.sort(key=lambda each: each[0])
    if found:
        _, best, gives = found[0]
        trail.step(
            f"Of {best.says}",
            f"({best.major:g} − {hole:g}) / {full_thread(best):.4f}",
            gives,
            PERCENT,
        )
    else:
        trail.cautions.append(
            "No thread kept here leaves enough in it: drill it to the next one's drill."
        )
    return {
        "taps": [
            {"thread": thread.says, "engagement": gives, "major": thread.major}
            for _, thread, gives in found[:SHOWN]
        ],
        "through": [
            {"screw": screw.says, "room": hole - screw.major}
            for screw in _through(hole)
        ],
    }


def _through(hole: float) -> list[Thread]:
    """The largest metric and the largest inch screw that a hole is wide enough for,
    close or wider."""
    fits = [
        thread
        for thread, wanted in clearance_holes().items()
        if wanted.close <= hole <= LOOSEST * thread.major
    ]
    largest = []
    for inch in (False, True):
        alike = [thread for thread in fits if thread.inch is inch]
        largest += sorted(alike, key=lambda thread: thread.major)[-1:]
    return largest
