"""Expanding arbor: ground steps of one axis; a slit nose grips a bore from inside when
its taper screw is drawn in.

z = 0 is the shank's end; the slit nose and its taper are at the right.
"""

import math
from collections.abc import Iterable

from machinon.core.families._between_centres import dog_on, each_end, end_for_end
from machinon.core.families._tapped import CHIP_ROOM, tap_drill, thread_within
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    Mate,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware, by_thread
from machinon.core.piece.milled_features import Slits
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bore,
    Centre,
    Cylinder,
    End,
    NutThread,
    TaperBore,
)
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_over

OVER = 2.0  # mm: stock over each end
GROUND = 0.2  # mm to a side left for grinding where it is hardened
TURNED = 0.15  # mm to a side left for the finishing cuts where it stays soft


def _long(s: Values) -> float:
    return float(s["shank.length"] + s["collar.length"] + s["nose.length"])


def _screw(s: Values) -> str:
    sizes = ("M12", "M10", "M8", "M6", "M5", "M4", "M3")
    return thread_within(0.45 * s["work.bore"], *sizes)


def _mouth(s: Values) -> float:
    """Mouth of the taper: over the screw's head by what it draws in."""
    return float(s["taper.mouth"])


def _deep(s: Values) -> float:
    """Depth of the taper to where it meets the screw's hole."""
    slope = 2 * math.tan(math.radians(s["taper.half_angle"]))
    return float((_mouth(s) - thread_of(str(s["screw.thread"])).major - 0.2) / slope)


def _wide(s: Values) -> float:
    """Two thirds of the bore, as far as the taper then ends within the nose."""
    slope = 2 * math.tan(math.radians(s["taper.half_angle"]))
    screw = thread_of(str(s["screw.thread"])).major + 0.2
    return float(min(0.68 * s["work.bore"], screw + 0.8 * s["nose.length"] * slope))


def growth(s: Values) -> float:
    """Growth of the nose with a turn of the screw, mm on the diameter."""
    pitch = thread_of(str(s["screw.thread"])).pitch
    return float(2 * pitch * math.tan(math.radians(s["taper.half_angle"])))


def _slit(s: Values) -> float:
    return float(max(1.25 * s["nose.length"], _deep(s) + 0.2 * s["nose.length"]))


def _bottom(s: Values) -> float:
    """Station where the screw's thread begins, a little behind the slits."""
    return float(_long(s) - s["slits.length"] - 2.0)


def _floor(s: Values) -> float:
    """Station where the screw's hole ends, with room for chips."""
    pitch = thread_of(str(s["screw.thread"])).pitch
    return float(_bottom(s) - s["screw.depth"] - CHIP_ROOM * pitch)


def build(s: Values) -> Body:
    long, nose = _long(s), s["nose.length"]
    seat = long - nose
    thread = str(s["screw.thread"])
    clear = drill_over(thread_of(thread).major + 0.2, s["inch"])
    deep = _deep(s)
    bottom = _bottom(s)
    threaded = s["screw.depth"]
    drill = tap_drill(thread)
    features: list[Feature] = [
        End("shank_end", 0.0, "left"),
        Cylinder("shank", 0.0, s["shank.length"], s["shank.diameter"],
                 shoulder="right"),
        Cylinder("collar", s["shank.length"], seat, s["collar.diameter"]),
        Cylinder("nose", seat, long, s["nose.diameter"], shoulder="left"),
        End("front", long, "right"),
        Bore("screw_hole", _floor(s), bottom, drill, opens="right", pointed=True),
        NutThread("screw", bottom - threaded, bottom, thread, drill),
        Bore("clear_hole", bottom, long, clear, opens="right"),
        TaperBore("taper", long - deep, long, clear, _mouth(s)),
        Slits("slits", long - s["slits.length"], long, s["nose.diameter"],
              s["slits.width"], int(s["slits.count"])),
        Centre("back_centre", 0.0, "left", round(0.3 * s["shank.diameter"], 1)),
    ]  # fmt: skip
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    nose = s["nose.diameter"]
    play = s["work.bore"] - nose
    turn = growth(s)
    slit = s["slits.length"]
    thread = thread_of(str(s["screw.thread"]))
    yield Check(
        "grows",
        "taper",
        0.0 < play <= turn,
        f"A turn of the screw widens the nose by {turn:.3f} mm; its play in the bore "
        f"is {play:.3f} mm, which should go within a turn.",
        grave=False,
        have=turn,
        need=play,
    )
    wall = (nose - _mouth(s)) / 2
    yield at_least(
        "wall",
        "taper",
        wall,
        max(1.5, nose / 15),
        "Wall of the nose over the mouth of its taper (a fifteenth of it)",
    )
    # a leaf bends as a beam held at the slit's end: stress 3 E t f / (2 L²)
    bend = play / 2
    leaf = (nose - thread.major) / 2
    stress = 3 * 210_000 * leaf * bend / (2 * slit**2)
    metal = material(str(s["material"]))
    yield Check(
        "yield",
        "slits",
        stress <= 0.7 * metal.yield_strength,
        f"To take up its play a leaf is bent to {stress:.0f} N/mm²; up to "
        f"{0.7 * metal.yield_strength:.0f}, 0.7 of what {metal.name} yields at, it "
        "springs back.",
        have=stress,
        need=0.7 * metal.yield_strength,
    )
    yield at_least(
        "slit-past-taper",
        "slits",
        slit - _deep(s),
        s["nose.length"] * 0.2,
        "Slits past the taper, so that the leaves bend (a fifth of the nose)",
    )
    yield at_least(
        "slits-in-nose",
        "slits",
        s["nose.length"] + s["collar.length"] - slit,
        2.0,
        "Solid collar behind the slits",
    )
    yield at_least(
        "thread",
        "screw",
        s["screw.depth"],
        1.2 * thread.major,
        "Thread for the screw (1.2 times its diameter)",
    )
    yield at_least(
        "screw-floor",
        "screw_hole",
        _floor(s),
        s["shank.diameter"] / 2,
        "Solid shank behind the screw's hole (half its diameter)",
    )
    yield at_least(
        "nose-in-work",
        "nose",
        s["work.length"] - s["nose.length"],
        0.5,
        "Nose shorter than the bore it grips",
        grave=False,
    )
    yield at_least(
        "shoulder",
        "collar",
        (s["collar.diameter"] - nose) / 2,
        1.0,
        "Shoulder that the work lies against",
    )
    yield at_least(
        "shank-held",
        "shank",
        s["shank.length"],
        1.5 * s["shank.diameter"],
        "Shank to be held by (one and a half diameters)",
        grave=False,
    )


def route(s: Values) -> tuple[Holding, ...]:
    hard = bool(s["nose.hard"])
    left = GROUND if hard else TURNED
    finish = "grind" if hard else "turn"
    note = "Ground last, light passes, sparked out." if hard else (
        "Equal light cuts; measure at both ends.")  # fmt: skip
    dog = dog_on("the collar", "left", stands_still=hard)
    heat = (
        Holding(
            "heat",
            "bench",
            "In the furnace",
            "It bows: that is what the grinding stock is for. Scale is taken off "
            "before it is set up again.",
            (Step("harden", (), title="Harden and temper, check the bow",
                  note="Hang it upright; the slits are cut before, bridged at their "
                  "ends by what is left of the front.", key="harden"),),
        ),
    ) if hard else ()  # fmt: skip
    slits = Holding(
        "slits",
        "mill",
        "Upright in a dividing head, or flat under a slitting saw",
        "Slits last of the cutting: a slit nose springs away from the tool.",
        (
            Step("saw", ("slits",), note=f"{s['slits.length']:g} mm deep; drill a hole "
                 "at the end of each first where it cracks."),
            Step("deburr", ()),
        ),
    )  # fmt: skip
    return (
        each_end(
            "Taper and thread are one axis: bored in one chucking.",
            (
                Step("face", ("shank_end",)),
                Step("centre", ("back_centre",)),
                Step("face", ("front",), title="Turn it round, face to length"),
                Step("drill", ("clear_hole",)),
                Step("drill", ("screw_hole",)),
                Step("tap", ("screw",)),
                Step(
                    "taper",
                    ("taper",),
                    title=f"Bore the taper, compound at {s['taper.half_angle']:g}°",
                    note="To the screw's own head: blue it. Try the angle on a waste "
                    "piece first.",
                ),
            ),
        ),
        Holding(
            "rough",
            "lathe",
            "Between a centre and the chuck",
            "All steps roughed to the same allowance.",
            (
                Step("turn", ("collar",), out="right"),
                Step("turn", ("nose",), leaves=left),
                Step("mount", (), title="Turn it round, the roughed nose in the chuck",
                     note="A centre in the shank's end.", key="shank-out",
                     out="left"),
                Step("turn", ("shank",), leaves=left),
            ),
        ),
        *((slits,) if hard else ()),
        *heat,
        Holding(
            "finish",
            "grinder" if hard else "lathe",
            "Between centres, the front on a plug",
            "Shank and nose between the same centres, so that they are one axis. The "
            "nose grips, it is the critical one; the thin end comes last.",
            (
                dog,
                Step(finish, ("shank",), title="Finish the shank", note=note,
                     fit="shank"),
                end_for_end("the collar", "right"),
                Step(finish, ("nose",), title="Finish the nose to its band", note=note,
                     fit="nose"),
                Step("prove", ("nose",), title="Try it in the work before it comes off",
                     tool="the work, a ring gauge", hold=True, fit="nose",
                     note="It must come off again: the screw back by a turn, a tap on "
                     "its head, and the taper lets go. See that the key reaches it "
                     "with the work on."),
            ),
            "centres",
        ),
        *(() if hard else (slits,)),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    thread = str(s["screw.thread"])
    yield by_thread("taper screw", "taper screw", thread, "spreads the nose")


FAMILY = Family(
    "slit-arbor",
    "Expanding arbor",
    "Grips a bore from inside: a slit nose spread by a taper screw, true to its shank.",
    "for a bore of 20 mm, on a shank of 16 mm",
    also="mandrel locating expanding chuck internal grip slit ground arbor",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(collar.diameter + 2, 1)",
             "a clean-up", 5, 200),
        Size("stock.length", "stock length",
             "up(shank.length + collar.length + nose.length + 4, 1)", "both faces", 15,
             500),
        Size("shank.diameter", "shank", "collet.bore", low=4, high=100),
        Size("shank.length", "length of the shank", "2*shank.diameter",
             "two diameters", 6, 200, step=1),
        Size("collar.diameter", "collar", "up(1.35*work.bore, 1)",
             "a shoulder for the work", 5, 200),
        Size("collar.length", "length of the collar", "up(work.bore/2, 1)",
             "half the bore", 3, 100),
        Size("nose.diameter", "nose", "work.bore", low=5, high=150),
        Size("nose.length", "length of the nose", "down(0.8*work.length, 0.5)",
             "shorter than the work", 4, 200),
        Size("nose.hard", "hardened and ground", "no", kind=FLAG),
        Size("screw.thread", "taper screw", _screw, "under half the bore", kind=TEXT),
        Size("screw.depth", "length of its thread", lambda s: 1.5 * thread_of(
             str(s["screw.thread"])).major, "one and a half diameters", 3, 80,
             rests=("screw.thread",), step=0.5),
        Size("taper.half_angle", "half angle of the taper", "10",
             "a steep one frees itself", 2, 45, ANGLE),
        Size("taper.mouth", "mouth of the taper", _wide,
             "leaves a wall, and ends within the nose", 3, 120, step=0.1,
             rests=("taper.half_angle", "screw.thread", "nose.length")),
        Size("slits.count", "slits", "3", "", 2, 8, COUNT),
        Size("slits.width", "width of a slit", "1.5", "a slitting saw", 0.3, 6),
        Size("slits.length", "length of the slits", _slit,
             "past the nose and past its taper", 4, 250, up=0.5,
             rests=("nose.length", "taper.mouth", "taper.half_angle", "screw.thread")),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    grips=("nose", "shank"),
    mates=(
        Mate("work", "the work", (
            MateSize("bore", "its bore", 20.01, ("bore",)),
            MateSize("length", "length of its bore", 25.0, ("depth", "length")),
        ), around=(
            Ring("nose.begins", "nose.begins + work.length", "work.bore"),
        )),
        Mate("collet", "what holds the shank", (
            MateSize("bore", "its bore", 16.0, ("bore",)),
        ), around=(
            Ring("shank.ends/3", "shank.ends - 1", "collet.bore"),
        )),
    ),
    fits=(
        FitSlot("shank", "Shank in what holds it", "shank.diameter", "collet.bore",
                "hole", "shaft", "locates"),
        FitSlot("nose", "Nose in the work", "nose.diameter", "work.bore", "hole",
                "shaft", "moves"),
    ),
    material="tool steel",
    runs=True,
    ways=({"nose.hard": "yes"},),
    surfaces={"shaft": "nose.diameter"},
)  # fmt: skip
