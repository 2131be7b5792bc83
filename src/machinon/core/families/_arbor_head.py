"""The right end of every arbor for a saw or cutter: collar, spigot, screw.

The collar stands behind the cutter, the spigot is cut to its bore and a little shorter
than it is wide, a screw or a nut with its washer clamps it. A key in the spigot or pins
in the collar may drive it.
"""

from collections.abc import Callable, Iterable

from machinon.core.families._between_centres import COPPER, dog_on, end_for_end
from machinon.core.families._dowels import reamed_to_keep
from machinon.core.families._tapped import CHIP_ROOM, tap_drill, thread_within
from machinon.core.piece.family import (
    Check,
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
from machinon.core.piece.hardware import Hardware, by_thread, cap_screws, plain_parts
from machinon.core.piece.hole_features import Hole, HoleCircle, Holes
from machinon.core.piece.milled_features import Keyway
from machinon.core.piece.turned_features import (
    Bore,
    Centre,
    Cylinder,
    End,
    NutThread,
    Screw,
)
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

FINISH = 0.25  # mm to a side, left on what is finished last, between centres
SHORT = 0.1  # mm: the cutter's least over its spigot, or nothing clamps it

CUTTER = Mate("cutter", "the cutter", (
    MateSize("bore", "its bore", 22.01, ("bore", "recess")),
    MateSize("width", "its width at the bore", 3.0, ("width", "thickness")),
), around=(
    Ring("spigot.begins", "spigot.begins + cutter.width", "cutter.bore"),
), also="saw wheel hone")  # fmt: skip
SPIGOT = FitSlot(
    "spigot",
    "Spigot in the cutter's bore",
    "spigot.diameter",
    "cutter.bore",
    "hole",
    "shaft",
    "locates",
)


def by_nut(s: Values) -> bool:
    """Whether a nut on a stud clamps the cutter, not a screw."""
    return bool(s["clamp.by"] == "nut")


def faced_end(s: Values) -> tuple[Step, ...]:
    """The right end to length, with its hole or its centre."""
    screwed = (Step("drill", ("screw_hole",)), Step("tap", ("screw",)))
    return (
        Step("face", ("front",), title="Turn it round, face to length"),
        *(() if by_nut(s) else screwed),
        Step("centre", ("front_centre",)),
    )


def turned_head(s: Values) -> tuple[Step, ...]:
    """Collar and spigot, once the shank is roughed and the dog stands on it; the
    cutter is tried before the work is turned round."""
    return (
        end_for_end("the roughed shank", "right"),
        Step("turn", ("collar",)),
        Step("turn", ("spigot",), leaves=FINISH),
        *((Step("thread", ("screw",)),) if by_nut(s) else ()),
        Step("turn", ("spigot",), fit="spigot", note="To the cutter's bore."),
        Step(
            "prove",
            ("spigot",),
            title="Try the cutter before the arbor is turned round",
            tool="the cutter",
            hold=True,
            fit="spigot",
        ),
    )


SHANK_OUT = end_for_end("the collar" + COPPER, "left")
DOG = dog_on("the bar's front end", "left")


def driven(s: Values) -> tuple[Holding, ...]:
    """Key and pins that drive the cutter, once everything turned is proved."""
    steps = []
    if s["key.width"]:
        steps.append(Step("keyway", ("key",)))
    if s["pins.count"]:
        steps.append(Step("drill", ("pins",)))
        steps.append(reamed_to_keep("pins", s["pins.diameter"]))
    if not steps:
        return ()
    return (
        Holding(
            "driven",
            "mill",
            "In a dividing head or vee block",
            "What drives the cutter comes last: a slot spoils a cut that runs over it.",
            (*steps, Step("deburr", ())),
        ),
    )


def mouth(major: float) -> float:
    """A centre that is left after tapping stands over the thread."""
    return round(1.15 * major, 1)


def two_diameters(key: str) -> Callable[[Values], float]:
    """A rule: a thread as deep as twice its diameter."""
    return lambda s: 2 * thread_of(str(s[key])).major


def stock_sizes(
    shank: str, start: Callable[[Values], float], *rests: str
) -> tuple[Size, Size]:
    """Sizes of the bar; shank: the size of the shank; start: behind the collar, which
    rests on those sizes."""

    def long(s: Values) -> float:
        return start(s) + head_length(s) + 5

    return (
        Size("stock.diameter", "stock diameter",
             f"up(max(collar.diameter, {shank}) + 2, 1)", "the collar and a clean-up",
             5, 300),
        Size("stock.length", "stock length", long, "the length and both faces",
             20, 800, up=5, rests=(*rests, "collar.length", "spigot.length",
                                   "screw.depth", "clamp.by")),
    )  # fmt: skip


def _screw(s: Values) -> str:
    """A screw that leaves the spigot a shoulder round it."""
    return thread_within(s["cutter.bore"] - 4.2, "M10", "M8", "M6", "M5", "M4", "M3")


def _spigots(s: Values) -> tuple[float, float]:
    """The lengths of a spigot that carry the cutter and let the screw clamp it."""
    wide = s["cutter.width"]
    return wide - min(0.5, 0.3 * wide), wide - SHORT


def head_sizes(shank: str) -> tuple[Size, ...]:
    """Sizes of collar, spigot and screw; shank: the size of the shank behind them."""
    return (
        Size("collar.diameter", "collar",
             f"max(round(max(cutter.bore*1.6, {shank} + 4), 1), "
             "up(cutter.bore + 6, 1))", "backs the cutter", 6, 250),
        Size("collar.length", "length of the collar", "12", "to grip it", 3, 200),
        Size("spigot.diameter", "spigot", "cutter.bore", low=3, high=150),
        Size("spigot.length", "length of the spigot", "cutter.width - 0.2",
             "a little shorter than the cutter is wide", 0.5, 150, by="clearance",
             step=0.1, limits=_spigots),
        Size("clamp.by", "what clamps the cutter", "screw", "", kind=TEXT,
             choices=("screw", "nut")),
        Size("screw.thread", "screw", _screw, "to clamp the cutter", kind=TEXT),
        Size("screw.depth", "depth of its thread", two_diameters("screw.thread"),
             "two diameters", 4, 100, rests=("screw.thread",), step=0.1),
        Size("washer.over", "washer stands over the spigot by", "4", "0 for none", 0,
             50),
        Size("key.width", "key in the spigot", "0", "0 for none", 0, 40),
        Size("key.depth", "depth of its keyway", "round(key.width*0.6, 0.1)",
             "six tenths of its width", 0, 30),
        Size("pins.count", "drive pins in the collar", "0", "0 for none", 0, 8, COUNT),
        Size("pins.diameter", "drive pins", "4", "", 1, 20),
        Size("pins.circle", "circle of the pins",
             "round((cutter.bore + collar.diameter)/2, 0.5)",
             "the middle of the collar", 4, 250),
    )  # fmt: skip


def head_features(s: Values, start: float) -> list[Feature]:
    """Collar, spigot, the faced end with the screw's hole or the nut's stud, key and
    pins; start: behind the collar."""
    collar = start + s["collar.length"]
    end = collar + s["spigot.length"]
    screw, deep = thread_of(str(s["screw.thread"])), s["screw.depth"]
    drill = tap_drill(screw.name)
    head: list[Feature] = [
        Cylinder("collar", start, collar, s["collar.diameter"], shoulder="left"),
        Cylinder("spigot", collar, end, s["spigot.diameter"], shoulder="left"),
    ]
    drive = _drive_features(s, collar, end)
    if by_nut(s):
        return [
            *head,
            Screw("screw", end, end + deep, screw.name, "left"),
            End("front", end + deep, "right"),
            Centre("front_centre", end + deep, "right", round(0.3 * screw.major, 1)),
            *drive,
        ]
    return [
        *head,
        End("front", end, "right"),
        Bore("screw_hole", end - deep - CHIP_ROOM * screw.pitch, end, drill,
             opens="right", pointed=True),
        NutThread("screw", end - deep, end, screw.name, drill),
        Centre("front_centre", end, "right", mouth(screw.major)),
        *drive,
    ]  # fmt: skip


def _drive_features(s: Values, collar: float, end: float) -> list[Feature]:
    found: list[Feature] = []
    if s["key.width"]:
        wide, deep = s["key.width"], s["key.depth"]
        found.append(Keyway("key", collar, end, s["spigot.diameter"], wide, deep))
    if s["pins.count"]:
        hole = Hole(s["pins.diameter"], _pin_depth(s), ream=True)
        circle = HoleCircle(int(s["pins.count"]), s["pins.circle"])
        long = s["collar.length"]
        found.append(Holes("pins", "right", circle, hole, long, level=collar))
    return found


def _drive_checks(s: Values) -> Iterable[Check]:
    screw = thread_of(str(s["screw.thread"]))
    if s["key.width"]:
        inside = 0.0 if by_nut(s) else screw.major
        yield at_least(
            "key-wall",
            "key",
            (s["spigot.diameter"] - inside) / 2 - s["key.depth"],
            1.5,
            "Wall between the key's slot and the screw's hole",
        )
        yield at_least(
            "key-narrow",
            "key",
            s["spigot.diameter"] / 3,
            s["key.width"],
            "A third of the spigot for the key's width",
        )
    if s["pins.count"]:
        half = s["pins.diameter"] / 2
        inner = (s["pins.circle"] - s["cutter.bore"]) / 2 - half
        outer = (s["collar.diameter"] - s["pins.circle"]) / 2 - half
        yield at_least(
            "pins-edges",
            "pins",
            min(inner, outer),
            1.0,
            "Metal of the collar on both sides of the pins",
        )
        yield at_least(
            "pins-floor",
            "pins",
            s["collar.length"] - _pin_depth(s),
            1.0,
            "Metal of the collar behind the pins",
        )


WASHER = 3.0  # mm: thickness that is reckoned with


def head_hardware(s: Values) -> Iterable[Hardware]:
    """The hardware that clamps and drives the cutter."""
    thread, use = str(s["screw.thread"]), "clamps the cutter"
    washer = WASHER if s["washer.over"] else 0.0
    if by_nut(s):
        yield by_thread("nut", "nut", thread, use)
    else:
        through = max(s["cutter.width"] - s["spigot.length"], 0.0) + washer
        yield cap_screws(thread, 1, use, through, s["screw.depth"], at="screw")
    if s["key.width"]:
        long = s["spigot.length"]
        yield plain_parts("key", s["key.width"], 1, "drives the cutter", long)
    if s["pins.count"]:
        use = "drive the cutter"
        yield plain_parts("dowel", s["pins.diameter"], s["pins.count"], use)


def head_length(s: Values) -> float:
    """Length of collar, spigot and stud together."""
    stud = s["screw.depth"] if by_nut(s) else 0.0
    return float(s["collar.length"] + s["spigot.length"] + stud)


def _pin_depth(s: Values) -> float:
    """Depth to which a drive pin is pressed in, mm."""
    return float(1.5 * s["pins.diameter"])


def head_checks(
    s: Values, shank: float, start: float, behind: float
) -> Iterable[Check]:
    """shank: its diameter at the collar; start: behind the collar; behind: how deep a
    hole comes towards the screw's, from the other end."""
    screw = thread_of(str(s["screw.thread"]))
    yield at_least(
        "spigot-short",
        "spigot",
        s["cutter.width"] - s["spigot.length"],
        SHORT,
        "Cutter over the spigot, or the screw never clamps it",
    )
    yield from _drive_checks(s)
    inside = screw.major if by_nut(s) else mouth(screw.major)
    yield at_least(
        "spigot-wall",
        "spigot",
        (s["spigot.diameter"] - inside) / 2,
        max(1.5, 0.1 * s["spigot.diameter"]),
        "Shoulder of the spigot round its stud or screw",
    )
    head = cap_screw(screw.name).head_diameter
    washer = s["washer.over"] and s["spigot.diameter"] + 2 * s["washer.over"]
    yield at_least(
        "head-covers",
        "screw",
        (max(head, washer) - s["cutter.bore"]) / 2,
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
        "Thread of the screw (1.2 times its diameter)",
    )
    length = start + head_length(s)
    if not by_nut(s):
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


# a key and pins besides, and another way of clamping, for what is to be seen whole
DRIVEN = {
    "key.width": "5",
    "key.depth": "2.5",
    "pins.count": "2",
    "collar.diameter": "40",
}
NUT = {"clamp.by": "nut"}
