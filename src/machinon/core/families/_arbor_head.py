"""What every arbor for a saw or cutter has at its right end: collar, spigot, screw.

The collar stands behind the cutter, the spigot is cut to its bore and a little shorter
than it is wide, a screw with its washer clamps it.
"""

from collections.abc import Callable, Iterable

from machinon.core.piece.family import (
    Check,
    FitSlot,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.features import (
    Bore,
    Centre,
    Cylinder,
    End,
    Feature,
    NutThread,
)
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

FINISH = 0.25  # mm to a side, left on what is finished last, between centres
CHIP_ROOM = 4.0  # threads that a tap needs below the thread

CUTTER = Mate("cutter", "the cutter", (
    MateSize("bore", "its bore", 22.01, ("bore", "recess")),
    MateSize("width", "its width at the bore", 3.0, ("width", "thickness")),
))  # fmt: skip
SPIGOT = FitSlot(
    "spigot",
    "Spigot in the cutter's bore",
    "spigot.diameter",
    "cutter.bore",
    "hole",
    "shaft",
    "slides",
)
FACED_ENDS = (
    Step("face", ("front",), title="Turn it round, face to length"),
    Step("drill", ("screw_hole",)),
    Step("tap", ("screw",)),
    Step("centre", ("front_centre",)),
)

ROUGHED_HEAD = (
    Step("mount", (), title="Turn the headstock centre true, set the dog"),
    Step("turn", ("collar",)),
    Step("turn", ("spigot",), leaves=FINISH),
)
FINISHED_SPIGOT = Step("turn", ("spigot",), fit="spigot", note="To the cutter's bore.")


def tap_drill(thread: str) -> float:
    return float(reckon("tap-drill", {"thread": thread})["drill_size"])


def mouth(major: float) -> float:
    """A centre that is left after tapping stands over the thread."""
    return 1.15 * major


def two_diameters(key: str) -> Callable[[Values], float]:
    """A rule: a thread as deep as twice its diameter."""
    return lambda s: 2 * thread_of(str(s[key])).major


def stock_sizes(shank: str) -> tuple[Size, Size]:
    """Sizes of the bar; shank: the size of the shank."""
    return (
        Size("stock.diameter", "stock diameter",
             f"up(max(collar.diameter, {shank}) + 2, 1)", "the collar and a clean-up",
             5, 300),
        Size("stock.length", "stock length", "up(shank.length + collar.length + "
             "spigot.length + 5, 5)", "the length and both faces", 20, 800),
    )  # fmt: skip


def head_sizes(shank: str) -> tuple[Size, ...]:
    """Sizes of collar, spigot and screw; shank: the size of the shank behind them."""
    return (
        Size("collar.diameter", "collar",
             f"round(max(cutter.bore*1.6, {shank} + 4), 1)", "backs the cutter", 6,
             250),
        Size("collar.length", "length of the collar", "12", "to grip it", 3, 200),
        Size("spigot.diameter", "spigot", "cutter.bore", low=3, high=150),
        Size("spigot.length", "length of the spigot", "cutter.width - 0.2",
             "a little shorter than the cutter is wide", 0.5, 150, by="clearance",
             step=0.1),
        Size("screw.thread", "screw", "M10", "to clamp the cutter", kind=TEXT),
        Size("screw.depth", "depth of its thread", two_diameters("screw.thread"),
             "two diameters", 4, 100, rests=("screw.thread",)),
        Size("washer.over", "washer stands over the spigot by", "4", "a wide washer", 0,
             50),
    )  # fmt: skip


def head_features(s: Values, start: float) -> list[Feature]:
    """Collar, spigot, the faced end and the screw's hole; start: behind the collar."""
    collar = start + s["collar.length"]
    end = collar + s["spigot.length"]
    screw, deep = thread_of(str(s["screw.thread"])), s["screw.depth"]
    drill = tap_drill(screw.name)
    return [
        Cylinder("collar", start, collar, s["collar.diameter"], shoulder="left"),
        Cylinder("spigot", collar, end, s["spigot.diameter"], shoulder="left"),
        End("front", end, "right"),
        Bore("screw_hole", end - deep - CHIP_ROOM * screw.pitch, end, drill,
             opens="right", pointed=True),
        NutThread("screw", end - deep, end, screw.name, drill),
        Centre("front_centre", end, "right", mouth(screw.major)),
    ]  # fmt: skip


def head_checks(s: Values, shank: float, behind: float) -> Iterable[Check]:
    """shank: its diameter at the collar; behind: how deep a hole comes towards the
    screw's, from the other end."""
    screw = thread_of(str(s["screw.thread"]))
    yield at_least(
        "spigot-short",
        "spigot",
        s["cutter.width"] - s["spigot.length"],
        0.1,
        "Cutter over the spigot, or the screw never clamps it",
    )
    yield at_least(
        "spigot-wall",
        "spigot",
        (s["spigot.diameter"] - mouth(screw.major)) / 2,
        max(1.5, 0.1 * s["spigot.diameter"]),
        "Wall of the spigot round its screw",
    )
    head = cap_screw(screw.name.split("x")[0]).head_diameter
    yield at_least(
        "head-covers",
        "screw",
        (head - s["spigot.diameter"]) / 2 + s["washer.over"],
        1.0,
        "Washer or head over the cutter's bore",
        grave=False,
    )
    yield at_least(
        "collar-over",
        "collar",
        (s["collar.diameter"] - s["cutter.bore"]) / 2,
        3.0,
        "Collar behind the cutter",
    )
    yield at_least(
        "screw-depth",
        "screw",
        s["screw.depth"],
        1.2 * screw.major,
        "Thread of the screw (1.2 of its diameter)",
    )
    length = s["shank.length"] + s["collar.length"] + s["spigot.length"]
    yield at_least(
        "holes-meet",
        "screw",
        length - s["screw.depth"] - CHIP_ROOM * screw.pitch - behind,
        8.0,
        "Metal left behind the screw's hole",
    )
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - length,
        3.0,
        "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - max(s["collar.diameter"], shank),
        1.0,
        "Stock over the collar to clean up",
    )
