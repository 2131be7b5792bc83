"""Hub adapter: carries a wheel on a shaft, driven by a key, held by a set screw or the
old screw in the shaft's end.

z = 0 is the hub's rear face; z grows towards the wheel, which sits on the boss against
the flange.
"""

import math
from collections.abc import Iterable
from typing import Any

from machinon.core.families._dowels import kept, reamed_to_keep
from machinon.core.families._opening import TO_BORE
from machinon.core.families._tapped import bolt_thread_check, tapped, thread_within
from machinon.core.fits.keyway import key_near, keys
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
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
from machinon.core.piece.hardware import Hardware, cap_screws, plain_parts, set_screws
from machinon.core.piece.hole_features import Arc, CrossHoles, Hole, HoleCircle, Holes
from machinon.core.piece.milled_features import Keyway
from machinon.core.piece.round_sizes import downwards, step_in, upwards
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Cylinder, End
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

OVER = 1.5  # mm: stock over each end
CLAMPS = 0.5  # mm: the shaft ends short of the seat, so that its screw clamps the hub
EDGE = 2.5  # mm: least metal outside of a tapped hole


def _seat(s: Values) -> float:
    """The face that the wheel lies against, z."""
    return float(s["hub.length"] + s["flange.thickness"])


def _long(s: Values) -> float:
    return float(_seat(s) + s["boss.height"])


def _recess(s: Values) -> float:
    """Diameter of the room for the head of the shaft's own screw."""
    return float(s["shaft.screw_head"] + 1) if _seated(s) else 0.0


def _seated(s: Values) -> bool:
    """Whether the shaft's own screw holds it, on a seat inside."""
    return bool(s["seat.thickness"])


def _deep(s: Values) -> float:
    """Depth of the bore: through, or to the seat of the shaft's own screw."""
    return float(s["shaft.length"] + CLAMPS) if _seated(s) else _long(s)


def _keyed(s: Values) -> bool:
    return bool(s["key.depth"] and s["key.width"])


def _hole(s: Values) -> Hole:
    screw = cap_screw(str(s["bolts.screw"]))
    return Hole(screw.tapping_drill, thread=screw.size)


def _wall(s: Values) -> float:
    """From the bore to the outside of the hub, mm."""
    return float(s["hub.diameter"] - s["bore.diameter"]) / 2


def _grub_thread(s: Values) -> str:
    """A set screw that is as thick as the wall at the most."""
    return thread_within(0.9 * _wall(s), "M6", "M5", "M4", "M3")


def _grub(s: Values) -> Hole:
    return tapped(str(s["grub.thread"]))


def _dowels(s: Values) -> Arc:
    """Two dowels on the wheel's side, as far apart as the screws between them let."""
    screws = int(s["bolts.count"])
    apart = 360.0 * (screws // 2) / screws
    return Arc(2, s["dowels.circle"], 90.0 + 180.0 / screws, apart)


def _stands_out(s: Values) -> float:
    """Projection of the dowels from the flange once they are home, mm."""
    return float(s["dowels.length"] - s["dowels.depth"])


def _key(s: Values, what: str) -> float:
    """A measure of the keyway by the table of keys: for the key that it is as wide as,
    else for its shaft; none on a shaft too thin for any of the table."""
    standard = "inch" if s["inch"] else "metric"
    asked: dict[str, Any] = {
        "shaft_diameter": s["shaft.diameter"],
        "standard": standard,
    }
    if s["shaft.diameter"] <= keys(standard)[0].above:
        return 0.0
    if near := key_near(s.get("key.width", 0.0)):
        asked |= {"standard": near[0], "key": f"{near[1].width}mm"}
    return float(reckon("keyway", asked)[what])


def _screws(s: Values) -> dict[str, Any]:
    """The inputs of the screws' joint."""
    told = {"thread": s["bolts.screw"], "new": "tapped", "holes": s["wheel.bolts"]}
    if "wheel.hole" in s:
        told["measured"] = s["wheel.hole"]
    return told


def _hub(s: Values) -> float:
    """Beside the screws where that leaves its wall, else round them."""
    screw, round_to = cap_screw(str(s["bolts.screw"])), step_in(1.0, s["inch"])
    least = s["bore.diameter"] + 2 * (_least_wall(s) + s["key.depth"])
    usual = 1.7 * s["shaft.diameter"] + 2 * s["key.depth"]
    wanted = upwards(max(usual, least), round_to)
    beside = downwards(s["bolts.circle"] - screw.diameter - 2, round_to)
    if beside >= least:
        return min(wanted, beside)
    return max(wanted, upwards(s["bolts.circle"] + screw.diameter + 2, round_to))


def _least_wall(s: Values) -> float:
    """Wall of the hub, over the keyway where it has one; mm."""
    return float(max(3.0, s["bore.diameter"] / 6))


def _flange(s: Values) -> float:
    """Past the wheel's holes by their own size."""
    drill = cap_screw(str(s["bolts.screw"])).tapping_drill
    return float(s["bolts.circle"] + 3 * drill)


def _thick(s: Values) -> float:
    """Thickness that the threads of the screws need."""
    screw = cap_screw(str(s["bolts.screw"])).diameter
    wanted = max(
        material(str(s["material"])).engagement * screw, s["flange.diameter"] / 15
    )
    return float(wanted + 1)


def build(s: Values) -> Body:
    seat = _seat(s)
    long = seat + s["boss.height"]
    hub, bore, deep = s["hub.diameter"], s["bore.diameter"], _deep(s)
    features: list[Feature] = [
        End("rear", 0.0, "left"),
        Cylinder("hub", 0.0, s["hub.length"], hub, shoulder="right"),
        Cylinder("flange", s["hub.length"], seat, s["flange.diameter"], "thickness"),
        Cylinder("boss", seat, long, s["boss.diameter"], "height", "left"),
        End("front", long, "right"),
        Bore("bore", 0.0, deep, bore, opens="left"),
    ]
    if _seated(s):
        at = deep + s["seat.thickness"]
        features.append(Bore("seat", deep, at, s["seat.hole"], "thickness"))
        features.append(Bore("screw_hole", deep, long, s["seat.hole"]))
        features.append(Bore("recess", at, long, s["recess.diameter"], opens="right"))
    if _keyed(s):
        features.append(
            Keyway("key", 0.0, deep, bore, s["key.width"], s["key.depth"], inside=True)
        )
    features.append(
        Holes("bolts", "right", HoleCircle(int(s["bolts.count"]), s["bolts.circle"]),
              _hole(s), s["flange.thickness"], level=seat)
    )  # fmt: skip
    if s["dowels.diameter"]:
        hole = Hole(s["dowels.diameter"], s["dowels.depth"], ream=True, flat=True)
        deep = s["flange.thickness"]
        features.append(Holes("dowels", "right", _dowels(s), hole, deep, level=seat))
    if s["grub.thread"] != "none":
        at = s["grub.from_end"]
        features.append(CrossHoles("grub", at, hub, _grub(s), _wall(s), 1, -90.0))
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    yield from _hub_checks(s)
    yield from _flange_checks(s)
    yield from _bolt_checks(s)
    if s["dowels.diameter"]:
        yield from _dowel_checks(s)
    if _seated(s):
        yield from _seat_checks(s)
    if s["grub.thread"] != "none":
        yield from _grub_checks(s)
    yield at_least(
        "clearance",
        "flange",
        s["machine.clear"] - max(s["flange.diameter"], s["hub.diameter"]) / 2,
        1.0,
        "Room to the nearest lever or screw head, through the full turn",
    )


def _hub_checks(s: Values) -> Iterable[Check]:
    bore, wall = s["bore.diameter"], _wall(s)
    if _keyed(s):
        yield at_least(
            "wall-key",
            "key",
            wall - s["key.depth"],
            _least_wall(s),
            "Wall of the hub over the keyway (a sixth of the bore)",
        )
        yield at_least(
            "key-narrow",
            "key",
            0.4 * bore,
            s["key.width"],
            "Bore for the width of the keyway (two fifths of it)",
        )
    else:
        yield at_least(
            "wall", "hub", wall, _least_wall(s),
            "Wall of the hub (a sixth of the bore)",
        )  # fmt: skip
    yield at_least(
        "boss-wall",
        "boss",
        (s["boss.diameter"] - (s["recess.diameter"] if _seated(s) else
                               bore + 2 * s["key.depth"])) / 2,
        2.0,
        "Wall of the boss over what is bored in it",
    )  # fmt: skip
    yield at_least(
        "hub-guides",
        "bore",
        min(_deep(s), s["shaft.length"]),
        0.8 * bore,
        "Length of the bore on the shaft (0.8 of its diameter)",
    )
    yield at_least(
        "boss-in-wheel",
        "boss",
        s["wheel.thickness"] - s["boss.height"],
        0.3,
        "Boss lower than the wheel is thick: the washer must press the wheel",
    )


def _flange_checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "flange-seats",
        "flange",
        (s["flange.diameter"] - max(s["hub.diameter"], s["boss.diameter"])) / 2,
        1.0,
        "Flange over the hub and the boss",
    )
    yield at_least(
        "flange-thin",
        "flange",
        s["flange.thickness"],
        s["flange.diameter"] / 15,
        "Thickness of the flange (a fifteenth of its diameter)",
    )


def _bolt_checks(s: Values) -> Iterable[Check]:
    screw, hub = cap_screw(str(s["bolts.screw"])), s["hub.diameter"]
    half, hole = s["bolts.circle"] / 2, _hole(s).diameter
    yield bolt_thread_check(s)
    yield at_least(
        "bolts-edge",
        "bolts",
        s["flange.diameter"] / 2 - half - hole / 2,
        EDGE,
        "Metal between the tapped holes and the flange's edge",
    )
    yield at_least(
        "bolts-boss",
        "bolts",
        half - (screw.diameter + s["boss.diameter"]) / 2,
        0.5,
        "Metal between the screws and the boss",
    )
    yield at_least(
        "bolts-hub",
        "bolts",
        max(half - (screw.diameter + hub) / 2, (hub - screw.diameter) / 2 - half),
        0.5,
        "Metal between the screws and the hub, or of the hub round them",
    )


def _seat_checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "screw-head",
        "recess",
        s["recess.diameter"] - s["shaft.screw_head"],
        0.5,
        "Room round the head of the shaft's own screw",
    )
    yield at_least(
        "head-seats",
        "seat",
        s["shaft.screw_head"] - s["seat.hole"],
        2.0,
        "Head of that screw over its hole",
    )
    yield at_least(
        "recess-deep",
        "recess",
        _long(s) - _deep(s) - s["seat.thickness"],
        1.0,
        "Depth of the recess in front of the seat",
    )


def _grub_checks(s: Values) -> Iterable[Check]:
    grub = thread_of(str(s["grub.thread"]))
    yield at_least(
        "grub-thread", "grub", _wall(s), grub.major,
        "Wall that the set screw's thread is in (its diameter)",
    )  # fmt: skip
    yield at_least(
        "grub-in-hub",
        "grub",
        min(s["grub.from_end"], s["hub.length"] - s["grub.from_end"]),
        grub.major,
        "Set screw from the ends of the hub (its diameter)",
    )
    yield at_least(
        "grub-on-shaft",
        "grub",
        _deep(s) - s["grub.from_end"],
        grub.major / 2,
        "Set screw from the end of the bore (half its diameter)",
    )


def _dowel_checks(s: Values) -> Iterable[Check]:
    wide, half = s["dowels.diameter"], s["dowels.circle"] / 2
    yield at_least(
        "dowels-held",
        "dowels",
        s["dowels.depth"],
        wide,
        "Depth that keeps a dowel (its diameter)",
    )
    yield at_least(
        "dowels-floor",
        "dowels",
        s["flange.thickness"] - s["dowels.depth"],
        1.0,
        "Metal under the dowels, so that they seat and do not go through",
    )
    yield at_least(
        "dowels-short",
        "dowels",
        s["wheel.thickness"] - _stands_out(s),
        0.5,
        "Dowels shorter than the wheel is thick: the washer must press the wheel",
    )
    screw = cap_screw(str(s["bolts.screw"])).diameter
    apart = min(
        math.dist(a, b)
        for a in _dowels(s).points()
        for b in HoleCircle(int(s["bolts.count"]), s["bolts.circle"]).points()
    )
    yield at_least(
        "dowels-screws",
        "dowels",
        apart - (wide + screw) / 2,
        0.5 * wide,
        "Metal between the dowels and the screws (half a dowel)",
    )
    yield at_least(
        "dowels-boss",
        "dowels",
        half - (wide + s["boss.diameter"]) / 2,
        0.5,
        "Metal between the dowels and the boss",
    )
    yield at_least(
        "dowels-edge",
        "dowels",
        s["flange.diameter"] / 2 - half - wide / 2,
        EDGE,
        "Metal between the dowels and the flange's edge",
    )


def _pressed(s: Values) -> tuple[Step, ...]:
    if not s["dowels.diameter"]:
        return ()
    return (
        Step("press", (), title="Press the dowels in",
             note=f"Till they stand {_stands_out(s):g} mm out: under a stack of "
             "washers that high, pressed flush with it.", key="press-dowels"),
    )  # fmt: skip


def _dowelled(s: Values) -> tuple[Step, ...]:
    """The dowels' holes, reamed to keep them; their places are the wheel's too."""
    wide = s["dowels.diameter"]
    if not wide:
        return ()
    pair = kept(wide, math.dist(*_dowels(s).points()))
    slides = f"{pair['slides_lower']:.3f} to {pair['slides_upper']:.3f} mm"
    wheel = f" The wheel's own slide at {slides}: from these, both clamped together."
    return (
        Step("drill", ("dowels",)),
        reamed_to_keep("dowels", wide, wheel),
    )


def route(s: Values) -> tuple[Holding, ...]:
    keyed = _keyed(s)
    broached = (
        Holding(
            "key",
            "bench",
            "Under the press, on a guide bush, or in the lathe with a slotting tool",
            "The keyway follows the bore. Its sides are widened one after the other "
            "until the key goes in: measure to the far wall of the bore.",
            (
                Step("keyway", ("key",), title="Broach or slot the keyway to its key",
                     tool="broach and bush",
                     caution="Stand clear of the press; oil the broach, keep it "
                     "upright."),
            ),
        ),
    ) if keyed else ()  # fmt: skip
    grub = (
        Holding(
            "grub",
            "mill",
            "On its side in the vise",
            "A groove in the shaft a little off the screw's middle, towards the "
            "shoulder, makes the set screw draw the hub home.",
            (
                Step("drill", ("grub",)),
                Step("tap", ("grub",), note="Not over the keyway: a set screw there "
                     "only presses the key."),
            ),
        ),
    ) if s["grub.thread"] != "none" else ()  # fmt: skip
    return (
        Holding(
            "rear",
            "lathe",
            "In the chuck, rear end out",
            "Bore and hub in one chucking. A mock-up printed or turned of wood first "
            "shows what it would touch through a full turn.",
            (
                Step("face", ("rear",)),
                Step("turn", ("hub",)),
                Step("drill", ("bore",), leaves=TO_BORE),
                *((Step("drill", ("screw_hole", "seat"), key="drill-seat"),)
                  if _seated(s) else ()),
                Step("bore", ("bore",), fit="bore", note="Equal light cuts; measure "
                     "at both ends of the bore."),
                Step("prove", ("bore",), title="Try it on the shaft", fit="bore",
                     tool="the shaft", hold=True),
            ),
            "jaws",
        ),
        *broached,
        Holding(
            "front",
            "lathe",
            "On an arbor in its own bore, or in soft jaws by the hub",
            "Flange and boss must run true to the bore that is finished: set it by "
            "the indicator in the bore.",
            (
                Step("face", ("front",), title="Face to length"),
                Step("turn", ("flange",)),
                Step("turn", ("boss",), fit="boss"),
                *((Step("bore", ("recess",)),) if _seated(s) else ()),
                Step("prove", ("boss",), title="Try the wheel on the boss",
                     tool="the wheel", hold=True, fit="boss"),
            ),
        ),
        Holding(
            "bolts",
            "mill",
            "On the table, flange up, its boss set to the spindle",
            "The wheel's own circle, laid out from the boss.",
            (Step("drill", ("bolts",)), Step("tap", ("bolts",),
                  note="In the set-up of the drill."), *_dowelled(s)),
        ),
        *grub,
        Holding("last", "bench", "Off the machine", "Nothing sharp goes on a shaft.",
                (Step("deburr", ()), *_pressed(s))),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    yield cap_screws(
        str(s["bolts.screw"]),
        s["bolts.count"],
        "for the wheel",
        s["wheel.thickness"],
        s["flange.thickness"],
        blind=False,
        at="bolts",
    )
    if s["dowels.diameter"]:
        yield plain_parts(
            "dowel", s["dowels.diameter"], 2, "drive the wheel", s["dowels.length"]
        )
    if _keyed(s):
        long = min(_deep(s), s["shaft.length"])
        near = key_near(s["key.width"])
        wide = near[1].width if near else s["key.width"]
        yield plain_parts("key", wide, 1, "in the shaft", long)
    if s["grub.thread"] != "none":
        yield set_screws(str(s["grub.thread"]), 1, "on the shaft", _wall(s), "grub")


FAMILY = Family(
    "hub-adapter",
    "Hub adapter",
    "Puts a wheel or pulley on a shaft it was not made for: bore, key, bolt circle.",
    "for a shaft of 20 mm with a 6 mm key and a wheel of 30 mm bore",
    also="wheel hub pulley handwheel keyway flange coupling boss motor gear",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(flange.diameter + 3, 1)",
             "a clean-up", 10, 520),
        Size("stock.length", "stock length",
             "up(hub.length + flange.thickness + boss.height + 4, 1)", "both faces",
             10, 500),
        STOCK_BORE,
        Size("hub.diameter", "hub", _hub, "a wall of a third, clear of the screws", 6,
             400, rests=("shaft.diameter", "bore.diameter", "key.depth",
                         "bolts.circle", "bolts.screw")),
        Size("hub.length", "length of the hub", "like.hub_length",
             "as the old part has it", 3, 300, by="copy", step=0.1),
        Size("flange.diameter", "flange", _flange, "past its holes", 10, 500,
             rests=("bolts.circle", "bolts.screw"), up=1),
        Size("flange.thickness", "thickness of the flange", _thick,
             "what its threads need", 3, 100,
             rests=("flange.diameter", "bolts.screw"), up=1),
        Size("boss.diameter", "boss for the wheel", "wheel.bore", low=4, high=400),
        Size("boss.height", "height of the boss",
             "max(down(wheel.thickness - 1, 0.5), 1)",
             "a little under the wheel", 1, 100),
        Size("bore.diameter", "bore", "shaft.diameter", low=3, high=200),
        Size("key.width", "width of the keyway", lambda s: _key(s, "key_width"),
             "by the table of keys", 0, 60),
        Size("key.depth", "depth of the keyway", lambda s: _key(s, "hub_depth"),
             "by the table of keys; 0 for none", 0, 30, step=0.1,
             rests=("key.width",)),
        Size("seat.thickness", "seat for the shaft's own screw", "0", "0 for none", 0,
             60),
        Size("seat.hole", "hole in that seat", "down(shaft.screw_head/1.6, 0.5)",
             "the screw", 1, 100, at="seat.diameter"),
        Size("recess.diameter", "recess for its head", _recess,
             "round its head; 0 without a seat", 0, 150,
             rests=("shaft.screw_head", "seat.thickness"), up=1),
        Size("bolts.screw", "wheel's screws", "wheel.screw", "as the wheel takes",
             kind=TEXT, by="copy"),
        Size("bolts.count", "how many", "wheel.bolts", "as the wheel has", 2, 12,
             COUNT, by="copy"),
        Size("bolts.circle", "bolt circle", "wheel.circle", low=8, high=480),
        Size("dowels.diameter", "dowels that drive it", "0", "0 for none", 0, 40),
        Size("dowels.circle", "circle of the dowels", "bolts.circle",
             "as the screws", 6, 480),
        Size("dowels.depth", "depth of their holes",
             "min(flange.thickness - 1.5, up(1.2*dowels.diameter, 0.5))",
             "more than their diameter", 0, 100),
        Size("dowels.length", "length of the dowels",
             "down(dowels.depth + wheel.thickness - 0.8, 2)",
             "as sold, under the wheel's face", 0, 120),
        Size("grub.thread", "set screw", _grub_thread,
             "thinner than the wall; none for none", kind=TEXT,
             rests=("hub.diameter", "bore.diameter")),
        Size("grub.from_end", "set screw from the rear", "hub.length/2",
             "the middle of the hub", 1, 300, step=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("shaft", "the shaft", (
            MateSize("diameter", "its diameter", 20.0, ("shaft", "register")),
            MateSize("length", "from its shoulder to its end", 30.0,
                     ("shoulder", "length")),
            MateSize("screw_head", "head of the screw in its end", 16.0,
                     optional=True),
        ), around=(
            Ring("-shaft.diameter/2", "shaft.length", outside="shaft.diameter"),
        )),
        Mate("wheel", "the wheel", (
            MateSize("bore", "its bore", 30.02, ("bore", "recess")),
            MateSize("thickness", "its thickness at the bore", 8.0,
                     ("thickness", "width")),
            MateSize("circle", "its bolt circle", 46.0, ("bolt-circle",)),
            MateSize("hole", "its holes", 6.4, aid="hole"),
            MateSize("screw", "its screws", "M6", ("bolt-circle",), True, by="hole"),
            MateSize("bolts", "how many holes", 4.0, kind=COUNT, aid="holes"),
        ), around=(
            Ring("boss.begins", "boss.begins + wheel.thickness", "wheel.bore",
                 "max(1.6*wheel.bore, wheel.circle + 2*wheel.hole)"),
        )),
        Mate("key_bar", "the key", (
            MateSize("width", "its width", 6.0, ("tongue", "width"), True),
        ), around=(
            Ring("hub.begins", "min(hub.ends, shaft.length)",
                 "shaft.diameter - key.depth", "shaft.diameter + 2*key.depth"),
        )),
        Mate("like", "the old part", (
            MateSize("hub_length", "length of its hub", 25.0, ("shoulder", "length"),
                     True),
        )),
        Mate("machine", "where it turns", (
            MateSize("clear", "from the axis to the nearest lever", 60.0),
        )),
    ),
    fits=(
        FitSlot("bore", "Hub on the shaft", "bore.diameter", "shaft.diameter", "shaft",
                "shaft", "moves"),
        FitSlot("boss", "Boss in the wheel", "boss.diameter", "wheel.bore", "hole",
                "register", "slides"),
        FitSlot("bolts", "Wheel's bolt circle", "bolts.circle", "wheel.circle", "hole",
                "bolts", "normal", rests=("bolts.screw", "wheel.bolts"), tells=_screws,
                centred="boss"),
        FitSlot("key", "Keyway on its key", "key.width", "key_bar.width", "shaft",
                "slot", "glides"),
    ),
    runs=True,
    full={"seat.thickness": "5", "dowels.diameter": "5"},
    ways=({"grub.thread": "none", "key.depth": "0"},),
    surfaces={"register": "boss.diameter", "bore": "bore.diameter",
              "bolt-circle": "bolts.circle"},
)  # fmt: skip
