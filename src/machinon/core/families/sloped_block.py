"""Angle block: a block with one face aslant, to set work up by.

It lies on its base; the face rises from the left.
"""

import math
from collections.abc import Iterable

from machinon.core.piece.block_features import EdgeBevels, SixFaces, Slope
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
    is_there,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Hole, Holes, Places
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE

MINUTE = 1 / 60  # degrees: what a shop proves by slips and an indicator
FLAT = 0.5  # mm that its high end may be short of: a strip that nothing rests on


def _size(s: Values) -> tuple[float, float, float]:
    return s["block.length"], s["block.width"], s["block.height"]


def _middle(s: Values) -> float:
    """Half of the metal in the middle of its length, mm."""
    rise = s["block.length"] * math.tan(math.radians(s["slope.lean"]))
    return float(s["slope.low"] + rise / 2) / 2


def build(s: Values) -> Body:
    size = long, wide, _ = _size(s)
    features: list[Feature] = [
        SixFaces("block", *size),
        Slope("slope", size, s["slope.low"], s["slope.lean"]),
    ]
    if s["window.diameter"]:
        # to take its weight, and a clamp through it
        at = Places(((long / 2, s["window.from_front"]),))
        hole = Hole(s["window.diameter"])
        features.append(Holes("window", "front", at, hole, wide, block=size))
    features.append(EdgeBevels("edges", size, s["edges.leg"], "upright"))
    over = s["stock.over"]
    high = tuple(side + over for side in size)
    return Body(Block((-over, -over, -over), high), tuple(features))


def checks(s: Values) -> Iterable[Check]:
    long, wide, high = _size(s)
    rise = long * math.tan(math.radians(s["slope.lean"]))
    yield at_least(
        "top",
        "slope",
        high,
        s["slope.low"] + rise - FLAT,
        "Height for the slope to reach its high end",
    )
    yield Check(
        "no-land",
        "slope",
        high <= s["slope.low"] + rise + 0.5,
        f"The slope ends {s['slope.low'] + rise:.2f} mm up; what stands over that is "
        "never reached.",
        grave=False,
        have=s["slope.low"] + rise,
        need=high,
    )
    yield at_least(
        "low-end",
        "slope",
        s["slope.low"],
        2.0,
        "Metal at its low end, so that it does not curl",
    )
    off = long * math.radians(MINUTE) / math.cos(math.radians(s["slope.lean"])) ** 2
    yield Check(
        "minute",
        "slope",
        True,
        f"A minute of angle is {off * 1000:.0f} µm over its length: prove it by slips "
        "and an indicator, not by a protractor.",
    )
    if is_there(s, "work.width"):
        yield at_least(
            "holds-the-work",
            "block",
            wide,
            s["work.width"] / 3,
            "Width under the work (a third of it)",
            grave=False,
        )
    if s["window.diameter"]:
        middle = s["window.from_front"]
        over = s["slope.low"] + rise / 2 - middle
        yield at_least(
            "window-wall",
            "window",
            min(middle, over) - s["window.diameter"] / 2,
            4.0,
            "Metal round the window",
        )


def route(s: Values) -> tuple[Holding, ...]:
    windows = ("window",) if s["window.diameter"] else ()
    return (
        Holding(
            "square",
            "mill",
            "In the vise, six faces in order",
            "The base and one side are what the angle is set from.",
            (
                Step("square", ("block",), title="Mill the six faces to size"),
                *(Step("drill", (window,)) for window in windows),
            ),
        ),
        Holding(
            "slope",
            "mill",
            "Aslant in the vise, by sine bar and indicator",
            "Roughed and finished in one holding: moved, it is another angle.",
            (
                Step("mill", ("slope",), title="Mill the slope", leaves=0.0),
                Step("prove", ("slope",), title="Slips under its low end, indicator "
                     "along the slope", tool="slips, indicator"),
            ),
        ),
        Holding(
            "edges",
            "mill",
            "In the vise, base down",
            "Edges come last: until then they locate it.",
            (
                Step("mill", ("edges",), title="Chamfer the upright edges"),
                Step("deburr", ()),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "sloped-block",
    "Angle block",
    "One face at an angle to its base, to set work up by.",
    "of 15° on 80 × 24, for work 40 wide",
    also="wedge sine set-up angle plate ramp taper sloped tilted packing gauge gib",
    sizes=(
        Size("slope.lean", "angle of the slope", "work.angle", "what it is set to",
             0.1, 60, ANGLE),
        Size("slope.low", "height of the low end", "5", "", 0.5, 200),
        Size("block.length", "length", "80", "", 10, 500),
        Size("block.width", "width", "up(0.6*work.width, 1)", "", 5, 300),
        Size("block.height", "height", lambda s: s["slope.low"] + s["block.length"]
             * math.tan(math.radians(s["slope.lean"])), "where the slope ends", 3,
             400, rests=("slope.low", "block.length", "slope.lean"), step=0.01),
        Size("window.diameter", "window through it", "0", "0 for none", 0, 100),
        Size("window.from_front", "its middle over the base", _middle,
             "half the metal there", 0, 400,
             rests=("slope.low", "block.length", "slope.lean"), step=0.1),
        Size("edges.leg", "edges", "1", "", 0.1, 20),
        Size("stock.over", "stock on each side", "1.5", "sawn stock", 0, 20),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("work", "what is set up on it", (
            MateSize("angle", "the angle it is to lie at", 15.0, kind=ANGLE),
            MateSize("width", "its width", 40.0, ("width", "thickness"), True),
        )),
    ),
    full={"window.diameter": "8", "slope.low": "12"},
    proof=("slope.low", "block.height"),
    surfaces={"thickness": "slope.low"},
)  # fmt: skip
