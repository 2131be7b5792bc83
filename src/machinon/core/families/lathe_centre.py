"""Lathe centre: a point on a taper shank, turned where it will carry the work.

z = 0 is the small end of the shank, or of its tang; the collar and the point are at the
right.
"""

import math
from collections.abc import Iterable

from machinon.core.families._arbor_head import FINISH
from machinon.core.families._between_centres import dog_on, each_end
from machinon.core.families._taper_shank import (
    GUIDED,
    SHANK_LONG,
    SOCKET,
    TANGED,
    drawn_if_steep,
    finished_shank,
    rough_shank,
    shank_checks,
    shank_features,
    shank_sizes,
    small_end_steps,
    solid_checks,
    tang_holding,
    tapered,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Cone, Cylinder, End
from machinon.core.quantity import ANGLE

OVER = 2.0  # mm: stock over the small end
CENTRED = 10.0  # mm in front that carry a centre hole and come off last
TUBE = 5.0  # mm: a tip from here on is for the bores of tubes


def _half(s: Values) -> float:
    return float(s["point.angle"]) / 2


def _stations(s: Values) -> tuple[float, float, float]:
    """End of the shank's taper, of the collar, and of the point, z."""
    _, taper = tapered(s)
    collar = taper + float(s["collar.length"])
    across = float(s["collar.diameter"] - s["point.tip"])
    # a tip as wide as the collar has no point, which a check says
    long = max(across, 0.1) / 2 / math.tan(math.radians(_half(s)))
    return taper, collar, collar + long


def _long(s: Values) -> float:
    return _stations(s)[-1] + OVER + CENTRED


def build(s: Values) -> Body:
    taper, collar, end = _stations(s)
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER),
        (
            *shank_features(s),
            Cylinder("collar", taper, collar, s["collar.diameter"], shoulder="left"),
            Cone("point", collar, end, s["collar.diameter"], s["point.tip"]),
            End("front", end, "right"),
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    taper, _, end = _stations(s)
    yield at_least(
        "point-carries",
        "point",
        s["collar.diameter"] - s["point.tip"],
        2.0,
        "Collar over the tip: from the one to the other it carries",
    )
    yield from solid_checks(s, taper)
    yield at_least(
        "stock-centred",
        "front",
        s["stock.length"] - OVER - end,
        CENTRED - 2,
        "Stock in front of the point, for a centre hole that comes off",
    )
    yield from shank_checks(s)


def route(s: Values) -> tuple[Holding, ...]:
    half = _half(s)
    carries = "the tubes" if s["point.tip"] >= TUBE else "the work"
    return (
        each_end(
            "The shank is turned between centres: the front one lies in what comes off "
            "at the end.",
            (
                *small_end_steps(s),
                Step("face", ("front",), leaves=CENTRED, key="face-over",
                     title="Turn it round, face it clean"),
                Step("centre", (), title="Centre what comes off in front",
                     key="centre-front", out="right"),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "The shank is finished and proved before there is a point: that is turned "
            "on it.",
            (
                dog_on("the bar's front end", "left"),
                *rough_shank(s),
                *finished_shank(s),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *tang_holding(s),
        Holding(
            "in-place",
            "lathe",
            "By its own taper, in the spindle",
            "A point runs as true as the spindle only where it was turned there: it is "
            "skimmed again before fine work, and marked how it stood.",
            (
                Step("mount", (), title="Wipe taper and spindle, push it home",
                     key="mount", out="right", note="A chip tilts it. What a draw bar "
                     "holds, that pulls home; else light cuts, towards the spindle.",
                     caution="A taper without a draw bar walks out under a heavy cut."),
                Step("face", ("front",), title="Face to length: the centre hole goes"),
                Step("turn", ("collar",)),
                Step("mount", (), title=f"Set the slide to {half:g}°", tool="indicator",
                     key="set-slide", slide=half),
                Step("taper", ("point",), leaves=FINISH,
                     title=f"Rough the point, compound at {half:g}°"),
                Step("taper", ("point",), key="finish-point",
                     title="Finish the point by light cuts",
                     note=f"Keen tool, at centre height: {carries} runs on it."),
                Step("prove", ("point",), title="Try the gauge, read its run-out",
                     tool="centre gauge, indicator", hold=True,
                     note="Light at one end of the gauge: turn the slide a hair.",
                     caution="A soft point runs with the spindle: in the tailstock it "
                     "seizes, tears and lets go of the work."),
                Step("deburr", (), key="deburr-point"),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "lathe-centre",
    "Lathe centre",
    "Carries work by its centre hole, or a tube by its bore: a point on a taper shank.",
    "on a Morse 3 shank, with a point of 60 degrees",
    also="dead soft centre point bull nose pipe tube tailstock morse",
    sizes=(
        Size("stock.diameter", "stock diameter",
             "up(max(collar.diameter, shank.large) + 2, 1)", "a clean-up", 8, 320),
        Size("stock.length", "stock length", _long, "and a centre in front", 20, 900,
             up=1, rests=(*SHANK_LONG, "collar.length", "collar.diameter",
                          "point.tip", "point.angle")),
        *shank_sizes(drawn_if_steep, "the cut pushes home what holds by itself"),
        Size("collar.diameter", "collar", "up(shank.large + 2, 1)",
             "over the socket's mouth", 6, 300),
        Size("collar.length", "length of the collar", "8", "", 1, 150),
        Size("point.angle", "angle of the point", "60", "as centre holes have it", 30,
             120, kind=ANGLE),
        Size("point.tip", "across its tip", "0.5", "sharp but for a hair; for tubes as "
             "wide as they want", 0.2, 290),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(SOCKET,),
    runs=True,
    ways=(
        TANGED,
        GUIDED,
        {"shank.end": "draw bar"},
        {"point.tip": "20", "collar.diameter": "50"},
    ),
)  # fmt: skip
