"""Dovetail stop: a block that slides on a dovetail and is locked there, with a screw as
its stop.

x runs along the slide, y across it; the slot is in the block's bottom.
"""

import math
from collections.abc import Iterable
from typing import Any

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families._dovetail import dovetail_steps, dovetail_widths
from machinon.core.families._tapped import tapped, thread_within
from machinon.core.piece.block_features import EdgeBevels, Flanked, SixFaces
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.hardware import Hardware, by_thread, set_screws
from machinon.core.piece.hole_features import Holes, Places
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

HELD = 2.3  # diameters of the stop screw: its thread in the block, and a nut on it
UNDER = 0.3  # mm: between what shall not touch, slot floor or shoulders


def _block(s: Values) -> tuple[float, float, float]:
    return s["block.length"], s["block.width"], s["block.height"]


def _depth(s: Values) -> float:
    """Deeper than the slide where the shoulders bear, else a little shallower."""
    over = UNDER if s["slot.bears"] == "shoulders" else -UNDER
    return float(s["slide.depth"] + over)


def _high(s: Values) -> float:
    """The slot, and over it the stop screw with as much metal on both sides."""
    stop = thread_of(str(s["stop.thread"])).major
    return float(s["slot.depth"] + 2 * stop)


def _told(s: Values) -> dict[str, Any]:
    """The inputs of the joint: the slide, as far as it is known, and this half."""
    mate = {name: s.get(f"slide.{name}") for name in ("depth", "angle", "pin")}
    deep = s.get("slot.depth") or (_depth(s) if mate["depth"] else None)
    return {k: v for k, v in (*mate.items(), ("new_depth", deep)) if v is not None}


def _widths(s: Values) -> tuple[float, float]:
    """Widths of the slot at its mouth, and between its sharp corners."""
    of = s["slot.pins"], s["slide.pin"], s["slot.depth"], s["slide.angle"]
    return dovetail_widths(*of)


def _lock_thread(s: Values) -> float:
    """Depth of the lock's thread: the plug slides in the rest of its hole."""
    mouth, _ = _widths(s)
    side = (s["block.width"] - mouth) / 2
    wall = side - s["lock.level"] / math.tan(math.radians(s["slide.angle"]))
    return float(max(wall - s["lock.plug"], 0.5))


def _lock(s: Values) -> str:
    """A locking screw that has its own diameter of thread, inside the flank."""
    room = min(0.9 * _lock_thread(s), s["slot.depth"] - 1.5)
    return thread_within(room, "M6", "M5", "M4", "M3")


def build(s: Values) -> Body:
    long, wide, high = block = _block(s)
    over = s["stock.over"]
    stop, lock = str(s["stop.thread"]), str(s["lock.thread"])
    slot, (mouth, floor) = s["slot.depth"], _widths(s)
    if floor >= wide - 1.0:
        raise BadInput(
            "block.width",
            f"width: the slot is {floor:.1f} wide at its floor; "
            f"{floor + 1:.1f} or more is allowed.",
        )
    if mouth <= 0:
        raise BadInput("slot.pins", "between its pins: nothing is left of the mouth.")
    at = wide / 2
    beside = (wide - mouth) / 2
    return Body(
        Block((-over, -over, -over), (long + over, wide + over, high + over)),
        (
            SixFaces("block", *block),
            Flanked("slot", "bottom", block, at, slot, False, mouth, floor,
                    s["slide.pin"]),
            Holes("stop", "left", Places(((at, s["stop.level"]),)),
                  tapped(stop), long, block=block),
            Holes("lock", "front", Places(((long / 2, s["lock.level"]),)),
                  replace(tapped(lock), thread_depth=_lock_thread(s)), beside,
                  block=block),
            EdgeBevels("edge", block, 0.5, "top"),
        ),
    )  # fmt: skip


def checks(s: Values) -> Iterable[Check]:
    _, wide, high = _block(s)
    slot, (_, floor) = s["slot.depth"], _widths(s)
    stop, lock = (thread_of(str(s[f"{name}.thread"])) for name in ("stop", "lock"))
    lean = 90 - s["slide.angle"]
    yield at_least(
        "side-wall",
        "slot",
        (wide - floor) / 2,
        max(6.0, 0.5 * slot),
        "Wall beside the slot at its floor (half of its depth)",
    )
    yield at_least(
        "wall-over-stop",
        "stop",
        min(high - s["stop.level"], s["stop.level"] - slot) - stop.major / 2,
        0.25 * stop.major,
        "Metal over and under the stop screw (a quarter of it)",
    )
    yield at_least(
        "lock-in-wall",
        "lock",
        _lock_thread(s),
        lock.major,
        "Thread of the locking screw before its plug (its diameter)",
    )
    held = HELD * stop.major
    reach, behind = s["stop.length"] - held, s["stop.length"] - s["block.length"]
    yield Check(
        "stop-reach",
        "stop",
        reach >= s["stop.reach"],
        f"A stop screw of {s['stop.length']:g} mm reaches {reach:.0f} mm past the "
        f"block, {s['stop.reach']:g} mm are wanted; wound in flush it stands "
        f"{max(behind, 0):.0f} mm out behind.",
        grave=False,
    )
    yield at_least(
        "lock-on-flank",
        "lock",
        min(slot - s["lock.level"], s["lock.level"]) - lock.major / 2,
        0.5,
        "Locking screw inside the flank's height",
    )
    yield at_least(
        "long-enough",
        "block",
        s["block.length"],
        0.35 * floor,
        "Length on the slide (0.35 of its width), so that it does not rock",
        grave=False,
    )
    yield at_least(
        "cutter",
        "slot",
        s["cutter.depth"],
        slot,
        "Cutting depth of the dovetail cutter: a smaller one leaves a flat at the top "
        "of the flank and is set down in two",
        grave=False,
    )
    plug = s["lock.plug"] * math.cos(math.radians(lean))
    yield Check(
        "plug",
        "lock",
        s["lock.plug"] > 0,
        f"A soft plug before the locking screw, cut to {s['slide.angle']:g}°, presses "
        f"the flank over {plug:.1f} mm; the bare screw bruises the slide.",
        grave=False,
    )


def route(s: Values) -> tuple[Holding, ...]:
    pin = s["slide.pin"]
    return (
        Holding(
            "square",
            "mill",
            "In the vise, six faces in order",
            "The bottom is the face that everything is measured from.",
            (
                Step("mark", ("block",), title="Deburr the sawn faces, mark the best"),
                Step("square", ("block",), title="Mill the six faces to size"),
                Step("prove", ("block",), title="Square and micrometer before it goes "
                     "on", tool="square, micrometer"),
            ),
        ),
        Holding(
            "slot",
            "mill",
            "In the vise, bottom up, along the slide's direction",
            "Both flanks in one holding. The depth and the first flank are locked; "
            "only the second flank is brought to size. It stays in the vise until it "
            "goes on.",
            (
                *dovetail_steps("slot", "the slot", s["slide.angle"], pin, "slot",
                                "flanks"),
                Step("prove", ("slot",), title="Try it on the slide", tool="the slide",
                     hold=True, fit="slot"),
            ),
        ),
        Holding(
            "stop",
            "mill",
            "On end, square to the slot",
            "The stop screw runs along the slide.",
            (Step("drill", ("stop",)), Step("tap", ("stop",),
                  note="In the set-up of the drill.")),
        ),
        Holding(
            "lock",
            "mill",
            "In the vise, front up",
            "A thin wall opens under a tap: clamp across it.",
            (
                Step("drill", ("lock",), caution="It breaks out on a slanted flank: "
                     "ease the feed, a flat-ended drill for the last of it."),
                Step("tap", ("lock",), note="In the set-up of the drill."),
            ),
        ),
        Holding(
            "shape",
            "mill",
            "In the vise",
            "Edges come last: until then they locate it.",
            (Step("mill", ("edge",), title="Chamfer the upper edges"),
             Step("deburr", ())),
        ),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    thread, use = str(s["stop.thread"]), "the stop, with a nut to lock it"
    yield by_thread("screw", "screw", thread, use, s["stop.length"])
    yield set_screws(
        str(s["lock.thread"]), 1, "locks it, before its plug", _lock_thread(s)
    )


FAMILY = Family(
    "dovetail-stop",
    "Dovetail stop",
    "A block locked on a dovetail slide, with a screw that stops against the carriage.",
    "on a slide of 60° whose corners stand 60 apart, 12 deep, by pins of 8",
    also="carriage stop slide block depth stop bed clamp gib dovetailed",
    sizes=(
        Size("block.length", "length along the slide", "up(0.6*slide.bottom, 1)", "",
             8, 400),
        Size("block.width", "width",
             "up(slide.bottom + 2*slide.depth/tan(slide.angle)"
             " + max(slide.depth, 7) + 6, 1)",
             "a wall on both sides", 15, 500),
        Size("block.height", "height", _high, "a screw's room over the slot", 10, 300,
             rests=("slot.depth", "stop.thread"), up=1),
        Size("stock.over", "stock on each side", "1.5", "sawn stock", 0, 20),
        Size("slot.bears", "what bears besides the flanks", "shoulders", "",
             kind=TEXT, choices=("shoulders", "top")),
        Size("slot.depth", "depth of the slot", _depth, "clear of what must not touch",
             2, 100, rests=("slot.bears",), step=0.05),
        Size("slot.pins", "between its pins", "0", low=1, high=400, step=0.001),
        Size("stop.thread", "stop screw", "M8", kind=TEXT),
        Size("stop.level", "height of the stop screw",
             "(block.height + slot.depth)/2", "the middle over the slot", 2, 300,
             step=0.1, at="stop.from_front"),
        Size("stop.reach", "how far it must reach past the block", "20", "", 0, 300),
        Size("stop.length", "length of the stop screw",
             "up(max(block.length + 5, stop.reach + 22), 5)",
             "its reach, its thread in the block and a nut on it", 8, 500),
        Size("lock.thread", "locking screw", _lock, "within its wall and its flank",
             kind=TEXT, rests=("block.width", "slot.pins", "slot.depth", "lock.level",
                               "lock.plug")),
        Size("lock.level", "height of the locking screw", "slot.depth/2",
             "the middle of the flank", 1, 100, step=0.1, at="lock.from_front"),
        Size("lock.plug", "soft plug before it", "down(0.41*slot.depth, 0.5)",
             "0 for none", 0, 40),
        Size("cutter.depth", "what the dovetail cutter cuts deep", "slot.depth + 2",
             "its own height", 1, 80),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("slide", "the slide", (
            MateSize("bottom", "between its corners, over pins", 60.0,
                     ("over-pins",)),
            MateSize("depth", "its depth", 12.0, aid="depth"),
            MateSize("angle", "floor to flank", 60.0, kind=ANGLE, aid="angle"),
            MateSize("pin", "the pins it is read over", 8.0, aid="pin"),
        ), seats="min(slide.depth, slot.depth)"),
    ),
    fits=(
        FitSlot("slot", "Slot on the slide", "slot.pins", "slide.bottom", "shaft",
                "dovetail", "dove-slides", tells=_told,
                rests=("slot.bears", "slot.depth", "slide.depth")),
    ),
    surfaces={"length": "block.length"},
)  # fmt: skip
