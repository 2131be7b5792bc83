"""The nose of what takes collets: the nut's thread outside, the seat inside, a bore
behind it for the bar."""

import math
from collections.abc import Iterable

from machinon.core.families._tapers import inner_end
from machinon.core.families._tapped import lead_in
from machinon.core.piece.family import (
    Check,
    Mate,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.turned_features import Screw, TaperBore
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of


def seat_end(s: Values) -> float:
    """Small end of the seat, mm."""
    slope = 2 * math.tan(math.radians(s["seat.half_angle"]))
    large, deep = float(s["seat.large"]), float(s["seat.length"])
    return inner_end(large, slope, deep, "seat.length", "length of the seat")


def _nose(s: Values) -> float:
    return float(s["nut.length"] + 3 * thread_of(str(s["nose.thread"])).pitch)


def nose_features(s: Values, start: float, end: float) -> list[Feature]:
    """Thread and seat; start: where the thread begins; end: the front face."""
    thread = str(s["nose.thread"])
    return [
        Screw("nose", start, end, thread, runs_out="left"),
        TaperBore("seat", end - s["seat.length"], end, seat_end(s), s["seat.large"]),
        lead_in("nose_edge", end, thread, "right"),
    ]


def nose_checks(s: Values) -> Iterable[Check]:
    """Checks of the seat in its thread, of the bore behind it, and of the nut on it."""
    thread = thread_of(str(s["nose.thread"]))
    groove = Screw("nose", 0, 1, str(s["nose.thread"])).groove
    yield at_least(
        "seat-wall",
        "seat",
        (groove - s["seat.large"]) / 2,
        max(1.2, 0.06 * thread.major),
        "Wall of the seat to the root of the nose's thread and its relief",
    )
    yield at_least(
        "bar-passes",
        "bore",
        s["bore.diameter"] - s["collet.largest"],
        0.3,
        "Bore over the largest bar that the collets hold",
    )
    yield at_least(
        "seat-stands",
        "seat",
        seat_end(s) - s["bore.diameter"],
        0.4,
        "Small end of the seat over the bore, so that the seat ends in a step",
    )
    yield at_least(
        "nose-long",
        "nose",
        s["nose.length"],
        s["nut.length"] + 2 * thread.pitch,
        "Nose for its nut, with the relief (two pitches)",
    )
    yield at_least(
        "collet-room",
        "seat",
        s["seat.length"],
        0.7 * s["collet.taper_length"],
        "Seat on the collet's taper (0.7 of it)",
    )


NOSE_SIZES = (
    Size("nose.thread", "thread of the nose", "nut.thread", "as its nut",
         kind=TEXT, by="copy"),
    Size("nose.length", "length of the nose", _nose,
         "its nut and the relief", 4, 150, rests=("nose.thread",), step=0.5),
    Size("bore.diameter", "bore", "up(collet.largest + 0.5, 0.5)",
         "over the largest bar", 2, 180),
    Size("seat.half_angle", "half angle of the seat", "collet.half_angle",
         "as the collet has", 1, 45, ANGLE, by="copy"),
    Size("seat.large", "large end of the seat", "collet.large", "as the collet has",
         4, 190, by="copy", step=0.01, at="seat.large"),
    Size("seat.length", "length of the seat", "0.8*collet.taper_length",
         "most of the collet's taper", 2, 150, step=0.5),
)  # fmt: skip
NUT = Mate("nut", "its nut", (
    MateSize("thread", "its thread", "M32x1.5"),
    MateSize("length", "length of its thread", 12.0,
             ("length", "depth", "thickness")),
), around=(
    Ring("nose.ends - nut.length", "nose.ends", "nut.thread"),
))  # fmt: skip
COLLET = Mate("collet", "the collets", (
    MateSize("large", "large end of their taper", 25.0, ("shaft",)),
    MateSize("taper_length", "length of their taper", 20.0,
             ("length", "shoulder")),
    MateSize("half_angle", "half angle of their taper", 8.0, kind=ANGLE),
    MateSize("largest", "largest bar they hold", 16.0),
), around=(
    Ring("seat.ends - collet.taper_length", "seat.ends + 2",
         "collet.largest", "collet.large"),
))  # fmt: skip
SEAT_STEPS = (
    Step("taper", ("seat",), leaves=0.15, title="Rough the seat"),
    Step("taper", ("seat",), title="Finish the seat by light cuts or "
         "grinding", tool="boring bar or grinding spindle", note="Blue at "
         "one end only: turn the slide a hair. Blue at both ends and not "
         "between: the tool stands off centre height."),
    Step("prove", ("seat",), title="Blue a collet in the seat, read its "
         "run-out", tool="collet, ground pin, indicator",
         note="Read on the pin, then with the collet half a turn round, "
         "then with the pin alone: the reckoning of run-out told apart "
         "says what is the seat's. Near the nose and further out: that "
         "shows a tilt."),
)  # fmt: skip
