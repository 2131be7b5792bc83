"""Taper-shank arbor: carries a saw or cutter by its bore, on a Morse or other shank.

z = 0 is the small end of the shank; the collar, the spigot for the cutter and its
screw are at the right.
"""

from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.piece.body import Body, Round
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
from machinon.core.piece.features import (
    Bore,
    Centre,
    Cone,
    Cylinder,
    End,
    Feature,
    NutThread,
)
from machinon.core.reckoning import TEXT, reckon
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

FINISH = 0.25  # mm to a side, left on taper and spigot for the last cuts
CHIP_ROOM = 4.0  # threads that a tap needs below the thread


def _shank(s: Values) -> tuple[float, float]:
    """Large and small end of the shank."""
    large = float(s["shank.large"])
    return large, large - taper_of(str(s["shank.taper"])).ratio * s["shank.length"]


def _large(s: Values) -> float:
    found = taper_of(str(s["shank.taper"]))
    if found.large is None:
        raise BadInput("shank.large", f"{found.name} has no size of its own: type it.")
    return found.large


def _long(s: Values) -> float:
    found = taper_of(str(s["shank.taper"]))
    return found.length or 2.5 * _large(s)


def _draw(s: Values) -> str:
    """A draw-bar thread that leaves a wall in the shank's small end."""
    _, small = _shank(s)
    for size in ("M16", "M12", "M10", "M8", "M6"):
        if thread_of(size).major <= 0.6 * small:
            return size
    return "M6"


def _draw_depth(s: Values) -> float:
    return (
        2 * thread_of(str(s["draw.thread"])).major
        if s["draw.thread"] != "none"
        else 5.0
    )


def _screw_depth(s: Values) -> float:
    return 2 * thread_of(str(s["screw.thread"])).major


def _drill(thread: str) -> float:
    return float(reckon("tap-drill", {"thread": thread})["drill_size"])


def build(s: Values) -> Body:
    shank = s["shank.length"]
    collar = shank + s["collar.length"]
    end = collar + s["spigot.length"]
    large, small = _shank(s)
    screw = thread_of(str(s["screw.thread"]))
    deep, draw = s["screw.depth"], str(s["draw.thread"])
    features: list[Feature] = [
        End("small_end", 0.0, "left"),
        Cone("shank", 0.0, shank, small, large, str(s["shank.taper"])),
        Cylinder("collar", shank, collar, s["collar.diameter"], shoulder="left"),
        Cylinder("spigot", collar, end, s["spigot.diameter"], shoulder="left"),
        End("front", end, "right"),
        Bore("screw_hole", end - deep - CHIP_ROOM * screw.pitch, end,
             _drill(screw.name), opens="right", pointed=True),
        NutThread("screw", end - deep, end, screw.name, _drill(screw.name)),
        Centre("front_centre", end, "right", _mouth(screw.major)),
    ]  # fmt: skip
    if draw != "none":
        bar = thread_of(draw)
        features += [
            Bore("draw_hole", 0.0, s["draw.depth"] + CHIP_ROOM * bar.pitch,
                 _drill(draw), opens="left", pointed=True),
            NutThread("draw", 0.0, s["draw.depth"], draw, _drill(draw)),
            Centre("back_centre", 0.0, "left", _mouth(bar.major)),
        ]  # fmt: skip
    else:
        features.append(Centre("back_centre", 0.0, "left", 0.3 * small))
    return Body(
        Round(s["stock.diameter"], -2.0, s["stock.length"] - 2.0), tuple(features)
    )


def _mouth(major: float) -> float:
    """A centre that is left after tapping stands over the thread."""
    return 1.15 * major


def checks(s: Values) -> Iterable[Check]:
    large, small = _shank(s)
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
        (s["spigot.diameter"] - _mouth(screw.major)) / 2,
        max(1.5, 0.1 * s["spigot.diameter"]),
        "Wall of the spigot round its screw",
    )
    yield at_least(
        "head-covers",
        "screw",
        (cap_screw(screw.name.split("x")[0]).head_diameter - s["spigot.diameter"]) / 2
        + s["washer.over"],
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
        "collar-socket",
        "collar",
        s["collar.diameter"] - large,
        1.0,
        "Collar over the socket's mouth",
        grave=False,
    )
    yield at_least(
        "screw-depth",
        "screw",
        s["screw.depth"],
        1.2 * screw.major,
        "Thread of the screw (1.2 of its diameter)",
    )
    if s["draw.thread"] != "none":
        bar = thread_of(str(s["draw.thread"]))
        yield at_least(
            "draw-wall",
            "draw",
            (small - bar.major) / 2,
            0.12 * small,
            "Wall of the shank round the draw-bar's thread",
        )
    holes = s["screw.depth"] + CHIP_ROOM * screw.pitch
    behind = s["draw.depth"] + 10.0 if s["draw.thread"] != "none" else 0.0
    length = s["shank.length"] + s["collar.length"] + s["spigot.length"]
    yield at_least(
        "holes-meet",
        "screw",
        length - holes - behind,
        8.0,
        "Metal between both tapped holes",
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
        s["stock.diameter"] - max(s["collar.diameter"], large),
        1.0,
        "Stock over the collar to clean up",
    )


def route(s: Values) -> tuple[Holding, ...]:
    draw = (
        (Step("drill", ("draw_hole",)), Step("tap", ("draw",)))
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
                Step("face", ("front",), title="Turn it round, face to length"),
                Step("drill", ("screw_hole",)),
                Step("tap", ("screw",)),
                Step("centre", ("front_centre",)),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Shank, collar and spigot run true to each other only in one setting: a "
            "trued centre in the nose, and a stop for repeated cuts.",
            (
                Step("mount", (), title="Turn the headstock centre true, set the dog"),
                Step("turn", ("collar",)),
                Step("turn", ("spigot",), leaves=FINISH),
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
                Step("turn", ("spigot",), fit="spigot", note="To the cutter's bore."),
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
        ),
    )


FAMILY = Family(
    "taper-arbor",
    "Taper-shank arbor",
    "Carries a saw or cutter by its bore on a taper shank, drawn or held by itself.",
    "on a Morse 3 shank for a saw of 22 mm bore and 3 mm width",
    also="mandrel stub Morse MT2 MT3 slitting saw shank",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(max(collar.diameter, shank.large) "
             "+ 2, 1)", "the collar and a clean-up", 5, 300),
        Size("stock.length", "stock length", "up(shank.length + collar.length + "
             "spigot.length + 5, 5)", "the length and both faces", 20, 800),
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
        Size("collar.diameter", "collar",
             "round(max(cutter.bore*1.6, shank.large + 4), 1)", "backs the cutter", 6,
             250),
        Size("collar.length", "length of the collar", "12", "to grip it", 3, 200),
        Size("spigot.diameter", "spigot", "cutter.bore", low=3, high=150),
        Size("spigot.length", "length of the spigot", "cutter.width - 0.2",
             "a little shorter than the cutter is wide", 0.5, 150, by="clearance",
             step=0.1),
        Size("screw.thread", "screw", "M10", "to clamp the cutter", kind=TEXT),
        Size("screw.depth", "depth of its thread", _screw_depth, "two diameters", 4,
             100, rests=("screw.thread",)),
        Size("washer.over", "washer stands over the spigot by", "4", "a wide washer", 0,
             50),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("socket", "the socket it goes in", (
            MateSize("taper", "its taper", "MT3", ("taper-in",)),
        )),
        Mate("cutter", "the cutter", (
            MateSize("bore", "its bore", 22.01, ("bore", "recess")),
            MateSize("width", "its width at the bore", 3.0, ("width", "thickness")),
        )),
    ),
    fits=(
        FitSlot("spigot", "Spigot in the cutter's bore", "spigot.diameter",
                "cutter.bore", "hole", "shaft", "slides"),
    ),
    proof=("spigot.diameter", "shank.large"),
    runs=True,
)  # fmt: skip
