"""Hinged arm: a flat link with round ends, a reamed hole at each, often a pair.

x runs from hole to hole; both ends are round about their hole.
"""

import math
from collections.abc import Iterable

from machinon.core.families._tapped import tapped
from machinon.core.piece.block_features import CornerRounds, SixFaces, Slot
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
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware, cap_screws, plain_parts
from machinon.core.piece.hole_features import Hole, Holes, Places
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import FLAG, TEXT, Answer, reckon
from machinon.core.threads.screws import cap_screw

REACH = 3.5  # diameters that an end mill reaches
PLACED = 0.1  # mm that a hole copied from another part may be off
PLAY = 0.05, 0.25  # mm, of an arm between the cheeks of its fork
FLAT = 0.5  # mm that a round end may be short of: a file blends so little in


def _block(s: Values) -> tuple[float, float, float]:
    return s["arm.length"], s["arm.width"], s["arm.thickness"]


def _far(s: Values) -> Hole:
    """The hole at the far end: reamed like the other, or tapped for a pivot screw."""
    if s["far.thread"] == "none":
        return Hole(s["pivot.diameter"], ream=True)
    return tapped(str(s["far.thread"]))


def _swings(s: Values) -> bool:
    """Whether it swings on a screw through a hole that is long at one face."""
    return bool(s["swing.screw"] != "none")


def _long_hole(s: Values) -> Answer:
    """Length of the elongated hole at the far face, and the tilt of the cutter."""
    screw = cap_screw(str(s["swing.screw"]))
    return reckon(
        "elongation",
        {
            "opening_angle": s["place.opens"],
            "thickness": s["arm.thickness"],
            "hole": screw.normal,
            "screw": screw.diameter,
        },
    )


def _as_measured(s: Values) -> tuple[float, float]:
    """The distances that do for the one that was measured."""
    return s["arm.centres"] - PLACED, s["arm.centres"] + PLACED


def _in_fork(s: Values) -> tuple[float, float]:
    """The thicknesses that go between the cheeks and do not wag."""
    least, most = PLAY
    return s["fork.gap"] - most, s["fork.gap"] - least


def _slotted(s: Values) -> bool:
    return bool(s["slot.length"])


def build(s: Values) -> Body:
    long, wide, high = block = _block(s)
    over, end = s["stock.over"], wide / 2
    features: list[Feature] = [
        SixFaces("arm", *block),
        Holes("pivot", "top", Places(((end, end),)), Hole(s["pivot.diameter"],
              ream=True), high, block=block),
        Holes("far", "top", Places(((end + s["arm.centres"], end),)), _far(s), high,
              block=block, beside=end),
        CornerRounds("ends", block, end),
    ]  # fmt: skip
    if _swings(s):
        screw = cap_screw(str(s["swing.screw"]))
        at = Places(((end + s["swing.from_pivot"], end),))
        features.append(
            Holes("swing", "top", at, Hole(screw.normal), high, block=block,
                  beside=end, leans=(0.0, float(_long_hole(s)["tilt"])))
        )  # fmt: skip
    if _slotted(s):
        middle = end + s["arm.centres"] / 2
        half = s["slot.length"] / 2
        features.append(
            Slot("slot", "top", block, (middle - half, end), (middle + half, end),
                 s["slot.width"], high, True)
        )  # fmt: skip
    return Body(
        Block((-over, -over, -over), (long + over, wide + over, high + over)),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    end = s["arm.width"] / 2
    far = _far(s)
    yield at_least(
        "eye",
        "pivot",
        end - s["pivot.diameter"] / 2,
        0.4 * s["pivot.diameter"],
        "Eye round the pivot (0.4 of it)",
    )
    yield at_least(
        "far-eye",
        "far",
        end - far.diameter / 2,
        0.3 * far.diameter,
        "Eye round the far hole (0.3 of it)",
    )
    yield at_least(
        "round-ends",
        "ends",
        s["arm.length"] - s["arm.centres"],
        s["arm.width"] - FLAT,
        "Length for both round ends, so that each is round about its hole",
    )
    if _slotted(s):
        yield at_least(
            "slot-side",
            "slot",
            (s["arm.width"] - s["slot.width"]) / 2,
            0.25 * s["arm.width"],
            "Metal beside the slot (a quarter of the arm)",
        )
        yield at_least(
            "slot-ends",
            "slot",
            (s["arm.centres"] - s["slot.length"] - s["slot.width"]) / 2
            - max(s["pivot.diameter"], far.diameter) / 2,
            0.4 * s["pivot.diameter"],
            "Metal between the slot and the holes",
        )
    if _swings(s):
        yield from _swing_checks(s)
    reach = s["arm.centres"] + end
    yield at_least(
        "swings",
        "arm",
        s["place.clear"] - reach,
        0.5,
        f"Room for the arm to swing through {s['place.opens']:g}°",
        grave=False,
    )
    yield at_least(
        "fork",
        "arm",
        s["fork.gap"] - s["arm.thickness"],
        PLAY[0],
        "Play of the arm in its fork",
    )


def _swing_checks(s: Values) -> Iterable[Check]:
    found, screw = _long_hole(s), cap_screw(str(s["swing.screw"]))
    long = float(found["elongation"])
    near = min(
        s["swing.from_pivot"] - s["pivot.diameter"] / 2,
        s["arm.centres"] - s["swing.from_pivot"] - _far(s).diameter / 2 - long,
    )
    yield at_least(
        "swing-holes",
        "swing",
        near - screw.normal / 2,
        0.3 * screw.normal,
        "Metal between the long hole and the others (0.3 of it)",
    )
    deep = s["arm.thickness"] / math.cos(math.radians(float(found["tilt"])))
    yield at_least(
        "swing-reach",
        "swing",
        REACH * screw.normal,
        deep,
        f"Reach of an end mill of {screw.normal:g} mm ({REACH:g} of it) through the "
        "arm aslant",
        grave=False,
    )
    if _slotted(s):
        middle = (s["arm.centres"] / 2, s["slot.length"] / 2 + s["slot.width"] / 2)
        yield at_least(
            "swing-slot",
            "swing",
            abs(s["swing.from_pivot"] - middle[0]) - middle[1] - screw.normal / 2,
            1.0,
            "Metal between the long hole and the slot",
        )


def route(s: Values) -> tuple[Holding, ...]:
    count = int(s["arm.count"])
    pair = count > 1
    several = (
        f"{count} of them stacked, clamped and pinned by their first hole: what they "
        "share is cut through all, so that they match even where it is a little off. "
        "Others cut one blank as thick as all and split it last: nothing slips, but "
        "the sawn faces still have to be milled."
        if pair
        else "Holes first: everything after is set by them."
    )
    if pair and s["arm.handed"]:
        several += (
            " Then every other one is turned over: what is sunk into one side goes in "
            "from the left of one hand and the right of the other."
        )
    tapped = s["far.thread"] != "none"
    named = "the far hole"
    far = (
        Step("drill", ("far",), of=named),
        Step("tap", ("far",), of=named, note="In the set-up of its drill; of a pair "
             "only one side is tapped, the other is opened up.")
        if tapped
        else Step("ream", ("far",), of=named),
    )  # fmt: skip
    slot = (
        Step("mill", ("slot",), title="Drill out the slot, then mill it", note="A row "
             "of holes takes the metal out; the end mill only makes it straight."),
    ) if _slotted(s) else ()  # fmt: skip
    swing = _swing_steps(s) if _swings(s) else ()
    return (
        Holding(
            "square",
            "mill",
            "In the vise, six faces in order",
            "Blanks alike in length and width lie flat on each other.",
            (
                Step("mark", ("arm",), title="Deburr the sawn faces, mark the best",
                     note="First try one of card or print, by its template at 1:1, in "
                     "its place through the whole swing: it costs no metal."),
                Step("square", ("arm",), title="Mill the six faces to size"),
                Step("prove", ("arm",), title="Thickness in its fork before it goes on",
                     tool="micrometer, the fork"),
            ),
        ),
        Holding(
            "holes",
            "mill",
            "In the vise, upper face up" + (", stacked" if pair else ""),
            several,
            (
                Step("drill", ("pivot",)),
                Step("ream", ("pivot",)),
                *far,
                *slot,
                *swing,
                Step("prove", ("pivot",), title="Try the pivot before they come apart",
                     tool="the pivot", hold=True, fit="pivot"),
            ),
            stacked=count,
        ),
        Holding(
            "ends",
            "mill",
            "On the rotary table, a pin through the hole in its middle",
            "Each end is turned past the cutter about its own hole. Saw the corners "
            "off first, against the saw's stop.",
            (
                Step("mill", ("ends",), leaves=0.0, title="Round both ends about their "
                     "holes", caution="Turn it against the cutter: with it the arm is "
                     "snatched round."),
                Step("deburr", (), title=_marked(s)),
            ),
        ),
    )  # fmt: skip


def _marked(s: Values) -> str:
    """Notes on the edges and on telling several apart; empty as usual."""
    count = int(s["arm.count"])
    if count < 2:
        return ""
    hands = ", each with its hand" if s["arm.handed"] else ""
    return f"Break every edge, number the {count}{hands}"


def _swing_steps(s: Values) -> tuple[Step, ...]:
    found = _long_hole(s)
    wide = float(found["width_at_face"])
    return (
        Step("drill", ("swing",)),
        Step(
            "bore",
            ("swing",),
            title=f"Lean the head {found['tilt']:.1f}°, run an end mill through the "
            "hole",
            tool="end mill as wide as the hole",
            note=f"Round where it is entered, it comes out {wide:.1f} long. Or leave "
            "the head upright and tilt the arm on an angle block.",
        ),
    )


def hardware(s: Values) -> Iterable[Hardware]:
    yield plain_parts("dowel", s["pin.diameter"], 1, "its pivot")
    if _swings(s):
        yield cap_screws(
            str(s["swing.screw"]), 1, "in the long hole", s["arm.thickness"]
        )


FAMILY = Family(
    "hinged-arm",
    "Hinged arm",
    "A link with round ends and a hole at each, alone or as a matched pair.",
    "60 from hole to hole on a pivot of 8 mm, a pair for a fork of 10",
    many="arm.count",
    also="link lever pair matched swivel swing hinge clevis fork rod strap",
    sizes=(
        Size("arm.centres", "from hole to hole", "place.centres", "as it is measured",
             5, 500, by="copy", step=0.01, at="far.pitch", limits=_as_measured),
        Size("arm.width", "width", "up(2.2*pin.diameter, 1)", "an eye round the pivot",
             4, 200),
        Size("arm.length", "length over the ends", "arm.centres + arm.width",
             "both ends round about their hole", 8, 700),
        Size("arm.thickness", "thickness", "fork.gap - 0.1", "a little under its fork",
             1, 100, by="clearance", step=0.05, at="arm.height", limits=_in_fork),
        Size("arm.count", "how many alike", "2", "", 1, 12, COUNT),
        Size("arm.handed", "left and right hand", "no", kind=FLAG),
        Size("stock.over", "stock on each side", "1.5", "sawn stock", 0, 20),
        Size("pivot.diameter", "hole for the pivot", "pin.diameter", low=1, high=100),
        Size("far.thread", "thread of the far hole", "none", "none: reamed alike",
             kind=TEXT),
        Size("swing.screw", "screw that it swings on", "none", "none for none",
             kind=TEXT),
        Size("swing.from_pivot", "that screw from the pivot",
             "down(0.6*arm.centres, 1)", "", 1, 480, at="swing.pitch"),
        Size("slot.length", "slot between the holes", "0", "0 for none", 0, 400),
        Size("slot.width", "width of the slot", "0.4*arm.width", "", 0.5, 150,
             step=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("pin", "the pivot", (
            MateSize("diameter", "its diameter", 8.0, ("shaft", "dowel")),
        )),
        Mate("fork", "the fork", (
            MateSize("gap", "its gap", 10.1, ("slot", "width")),
        )),
        Mate("place", "where it moves", (
            MateSize("centres", "from hole to hole", 60.0, ("hole-span", "length")),
            MateSize("opens", "how far it opens, degrees", 90.0, kind=ANGLE),
            MateSize("clear", "room round the pivot", 80.0),
        )),
    ),
    fits=(
        FitSlot("pivot", "Arm on its pivot", "pivot.diameter", "pin.diameter", "shaft",
                "shaft", "reamed"),
    ),
    proof=("arm.thickness",),
    full={"slot.length": "20"},
    ways=({"far.thread": "M6"},
          {"swing.screw": "M5", "place.opens": "40", "slot.length": "0"}),
    surfaces={"bore": "pivot.diameter", "thickness": "arm.thickness"},
)  # fmt: skip
