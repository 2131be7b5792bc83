"""Taper-shank arbor: carries a saw or cutter by its bore, on a Morse or other shank.

z = 0 is the small end of the shank; the collar, the spigot for the cutter and its
screw are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._arbor_head import (
    CUTTER,
    DRIVEN,
    FINISH,
    FINISHED_SPIGOT,
    NUT,
    SPIGOT,
    driven,
    faced_end,
    head_checks,
    head_features,
    head_sizes,
    mouth,
    roughed_head,
    stock_sizes,
)
from machinon.core.families._tapers import large_end, usual_length
from machinon.core.families._tapped import CHIP_ROOM, tap_drill, thread_within
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
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Centre, Cone, End, NutThread
from machinon.core.reckoning import TEXT
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of


def _shank(s: Values) -> tuple[float, float]:
    """Large and small end of the shank."""
    large = float(s["shank.large"])
    return large, large - taper_of(str(s["shank.taper"])).ratio * s["shank.length"]


def _large(s: Values) -> float:
    return large_end(str(s["shank.taper"]), "shank.large")


def _long(s: Values) -> float:
    return usual_length(str(s["shank.taper"]), "shank.large")


def _draw(s: Values) -> str:
    """A draw-bar thread that leaves a wall in the shank's small end."""
    _, small = _shank(s)
    return thread_within(0.6 * small, "M16", "M12", "M10", "M8", "M6")


def _draw_depth(s: Values) -> float:
    if s["draw.thread"] == "none":
        return 5.0
    return 2 * thread_of(str(s["draw.thread"])).major


def build(s: Values) -> Body:
    shank = s["shank.length"]
    large, small = _shank(s)
    draw = str(s["draw.thread"])
    features: list[Feature] = [
        End("small_end", 0.0, "left"),
        Cone("shank", 0.0, shank, small, large, str(s["shank.taper"])),
        *head_features(s, shank),
    ]
    if draw != "none":
        bar, drill = thread_of(draw), tap_drill(draw)
        features += [
            Bore("draw_hole", 0.0, s["draw.depth"] + CHIP_ROOM * bar.pitch, drill,
                 opens="left", pointed=True),
            NutThread("draw", 0.0, s["draw.depth"], draw, drill),
            Centre("back_centre", 0.0, "left", mouth(bar.major)),
        ]  # fmt: skip
    else:
        features.append(Centre("back_centre", 0.0, "left", round(0.3 * small, 1)))
    return Body(
        Round(s["stock.diameter"], -2.0, s["stock.length"] - 2.0), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    large, small = _shank(s)
    drawn = s["draw.thread"] != "none"
    yield from head_checks(s, large, s["draw.depth"] + 10.0 if drawn else 0.0)
    yield at_least(
        "collar-socket",
        "collar",
        s["collar.diameter"] - large,
        1.0,
        "Collar over the socket's mouth",
        grave=False,
    )
    if drawn:
        bar = thread_of(str(s["draw.thread"]))
        yield at_least(
            "draw-wall",
            "draw",
            (small - bar.major) / 2,
            0.12 * small,
            "Wall of the shank round the draw-bar's thread",
        )


def route(s: Values) -> tuple[Holding, ...]:
    draw = (
        (
            Step("drill", ("draw_hole",), of="the draw-bar hole"),
            Step("tap", ("draw",), of="the draw bar"),
        )
        if s["draw.thread"] != "none"
        else ()
    )
    half = taper_of(str(s["shank.taper"])).half_angle
    return (
        Holding(
            "ends",
            "lathe",
            "In the chuck, each end in turn",
            "Both ends get their holes and a true centre first: everything after is "
            "turned between them.",
            (
                Step("face", ("small_end",)),
                *draw,
                Step("centre", ("back_centre",), note="True to the thread."),
                *faced_end(s),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Shank, collar and spigot run true to each other only in one setting: a "
            "trued centre in the nose, and a stop for repeated cuts.",
            (
                *roughed_head(s),
                Step(
                    "taper",
                    ("shank",),
                    leaves=FINISH,
                    title=f"Rough the taper, compound at {half:.4f}°",
                    note="Set it by an indicator along a known taper.",
                ),
                Step(
                    "taper",
                    ("shank",),
                    title="Finish the taper to its blue",
                    note="Blue at the large end only: the angle is too steep.",
                    fit="shank",
                ),
                FINISHED_SPIGOT,
                Step(
                    "prove",
                    ("spigot", "shank"),
                    title="Try cutter and socket before it comes off",
                    tool="the cutter, the socket, blue",
                    hold=True,
                    fit="spigot",
                ),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *driven(s),
    )


FAMILY = Family(
    "taper-arbor",
    "Taper-shank arbor",
    "Carries a saw or cutter by its bore on a taper shank, drawn or held by itself.",
    "on a Morse 3 shank for a saw of 22 mm bore and 3 mm width",
    also="mandrel stub Morse MT2 MT3 slitting saw shank",
    sizes=(
        *stock_sizes("shank.large"),
        Size("shank.taper", "taper", "socket.taper", "as the socket has", kind=TEXT,
             by="copy"),
        Size("shank.large", "large end of the shank", _large, "by its standard", 3, 200,
             rests=("shank.taper",), step=0.001),
        Size("shank.length", "length of the shank", _long, "by its standard", 10, 400,
             rests=("shank.taper",), step=0.1),
        Size("draw.thread", "draw-bar thread", _draw, "leaves a wall", kind=TEXT,
             rests=("shank.taper", "shank.large", "shank.length")),
        Size("draw.depth", "depth of the draw-bar's thread", _draw_depth,
             "two diameters", 5, 100, rests=("draw.thread",)),
        *head_sizes("shank.large"),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("socket", "the socket it goes in", (
            MateSize("taper", "its taper", "MT3", ("taper-in",)),
        )),
        CUTTER,
    ),
    fits=(SPIGOT,),
    runs=True,
    full=DRIVEN,
    ways=(NUT,),
    surfaces={"register": "spigot.diameter", "register-length": "spigot.length"},
)  # fmt: skip
