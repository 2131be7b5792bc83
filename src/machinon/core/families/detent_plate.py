"""Detent plate: holds a lever or shaft in its places by a sprung ball that falls into
recesses.

z = 0 is the face that is screwed on; the recesses are in the other face, at the right.
"""

import functools
import math
from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Chain,
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
from machinon.core.piece.hardware import (
    Hardware,
    cap_screws,
    plain_parts,
    sold_as,
)
from machinon.core.piece.hole_features import Arc, Hole, HoleCircle, Holes
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cylinder, End
from machinon.core.quantity import ANGLE, COUNT, FORCE, TORQUE
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.setting_out.bolt_circle import even_angles
from machinon.core.tapers.taper_pins import METRIC_RATIO, taper_pins
from machinon.core.threads.screws import cap_screw
from machinon.core.threads.tapping import drill_named

OVER = 1.5  # mm: stock over each end
ROOM = 0.5  # mm: between a screw's head and the ball
# what the ball's way follows from
WAY = ("ball.diameter", *(f"recesses.{size}" for size in
       ("circle", "count", "throw", "middle", "depth")))  # fmt: skip
EDGE = 1.5  # mm: least metal between one hole and another
PINNED = 0.3  # of the shaft: what its taper pin may be thick at its large end
PROUD = 0.5  # mm that the pin stands out by before it is driven


def angles(s: Values) -> list[float]:
    """Angles of the recesses, degrees from the right: the places of the lever, their
    middle at the top, or off it as the casting has it."""
    count, throw = int(s["recesses.count"]), float(s["recesses.throw"])
    middle = 90.0 + float(s["recesses.middle"])
    return [middle + (i - (count - 1) / 2) * throw for i in range(count)]


def _throw(s: Values) -> float:
    """The angle from place to place: as measured at the knob, as a chord of its arc, or
    as typed."""
    if not s["lever.travel"]:
        return float(s["lever.throw"])
    chord = s["lever.travel"] / (2 * s["lever.length"])
    if chord > 1:
        most = 2 * s["lever.length"]
        raise BadInput("lever.travel", f"Up to {most:g} mm at that length of lever.")
    return round(math.degrees(2 * math.asin(chord)), 2)


def _pin(s: Values) -> str:
    """The thickest taper pin that leaves the shaft strong, by its name."""
    most, long = PINNED * s["shaft.diameter"], s["lever.hub"]
    large = {
        name: size if name[0] == "#" else size + long * METRIC_RATIO
        for name, size in taper_pins().items()
        if (name[0] == "#") == s["inch"]
    }
    return max((name for name in large if large[name] <= most),
               key=large.__getitem__, default="none")  # fmt: skip


def _pinned(s: Values) -> Answer | None:
    """The lever's taper pin and its drills; None where it has none."""
    if s["pin.size"] == "none":
        return None
    asked = {
        "pin": s["pin.size"],
        "length": s["lever.hub"],
        "large_end_at": -PROUD,
    }
    try:
        return reckon("taper-pin", asked)
    except BadInput as error:
        raise BadInput("pin.size", error.message) from None


def _recess(s: Values) -> Hole:
    return Hole(s["ball.diameter"], s["recesses.depth"], ball=True)


def _screw(s: Values) -> Hole:
    return Hole(cap_screw(str(s["screws.screw"])).normal)


def _recesses(s: Values) -> Arc:
    count, first = int(s["recesses.count"]), angles(s)[0]
    return Arc(count, s["recesses.circle"], first, s["recesses.throw"])


def _screws(s: Values) -> HoleCircle:
    return HoleCircle(int(s["screws.count"]), s["screws.circle"], s["screws.start"])


def _clear_of_the_way(s: Values, start: float, on: float) -> float:
    """Room between the screws' heads on a circle and the way of the ball from its first
    recess to its last; start: angle of the first screw; mm."""
    places = angles(s)
    apart = _off_the_way(
        places[0], places[-1] - places[0], s["recesses.circle"] / 2,
        int(s["screws.count"]), on / 2, start,
    )  # fmt: skip
    return apart - _across_both(s) / 2


@functools.lru_cache(maxsize=1024)
def _off_the_way(
    first: float, span: float, way: float, count: int, out: float, start: float
) -> float:
    """Distance of the nearest of some screws' middles to an arc, mm; first, span: where
    that begins and how far it goes, degrees; way, out: radii of arc and screws."""
    apart = []
    for angle in even_angles(count, start):
        turn = (angle - first) % 360
        # degrees before the arc begins or after it ends
        off = 0.0 if turn <= span else min(turn - span, 360 - turn)
        square = out**2 + way**2 - 2 * out * way * math.cos(math.radians(off))
        apart.append(max(square, 0.0))
    return math.sqrt(min(apart))


def _across_both(s: Values) -> float:
    """Across a recess and across a screw's head, together."""
    return float(_recess(s).rim + cap_screw(str(s["screws.screw"])).counterbore)


def _turned(s: Values, on: float) -> float:
    """The angle of the first screw on a circle: opposite the places, or as near to
    there as all screws are clear of the ball's way; where none are, with the most
    room."""
    most = int(180 / s["screws.count"])
    turns = sorted(range(-most, most + 1, 2), key=lambda turn: (abs(turn), turn))
    best, most_room = -90.0, -math.inf
    for start in (-90.0 + turn for turn in turns):
        room = _clear_of_the_way(s, start, on)
        if room >= ROOM:
            return start
        if room > most_room:
            best, most_room = start, room
    return best


def _circle(s: Values) -> float:
    """As the recesses, or outside of them where the ball leaves the screws no room."""
    on = float(s["recesses.circle"])
    clear = _clear_of_the_way(s, _turned(s, on), on) >= ROOM
    return on if clear else on + _across_both(s) + 2 * ROOM + 0.5


def _start(s: Values) -> float:
    return _turned(s, float(s["screws.circle"]))


def _wide(s: Values) -> float:
    """Past the balls and past the screws' heads."""
    head = cap_screw(str(s["screws.screw"])).counterbore
    past = s["recesses.circle"] + s["ball.diameter"] + 2 * EDGE
    return float(max(past, s["screws.circle"] + head + 2))


def build(s: Values) -> Body:
    thick, wide = s["plate.thickness"], s["plate.diameter"]
    return Body(
        Round(s["stock.diameter"], thick + OVER - s["stock.length"], thick + OVER),
        (
            End("back", 0.0, "left"),
            Cylinder("plate", 0.0, thick, wide, "thickness"),
            End("face", thick, "right"),
            Bore("bore", 0.0, thick, s["bore.diameter"], "length"),
            Bevel("edge", thick, wide, 0.5, "right"),
            Holes("recesses", "right", _recesses(s), _recess(s), thick, level=thick),
            Holes("screws", "right", _screws(s), _screw(s), thick, level=thick),
        ),
    )  # fmt: skip


def checks(s: Values) -> Iterable[Check]:
    rim = _recess(s).rim
    head = cap_screw(str(s["screws.screw"])).counterbore
    recesses = _recesses(s).points()
    half = s["recesses.circle"] / 2
    if len(recesses) > 1:
        yield at_least(
            "lands",
            "recesses",
            2 * half * math.sin(math.radians(s["recesses.throw"] / 2)) - rim,
            0.2 * rim,
            "Land between two recesses (a fifth of a rim), so that it clicks over",
        )
    yield at_least(
        "rim-edge",
        "recesses",
        (s["plate.diameter"] - rim) / 2 - half,
        EDGE,
        "Metal outside of the recesses",
    )
    yield at_least(
        "rim-bore",
        "recesses",
        half - (rim + s["bore.diameter"]) / 2,
        EDGE,
        "Metal between the recesses and the bore",
    )
    yield at_least(
        "floor",
        "recesses",
        s["plate.thickness"] - s["recesses.depth"],
        1.5,
        "Floor under the recesses",
    )
    yield at_least(
        "screws-clear",
        "screws",
        _clear_of_the_way(s, s["screws.start"], s["screws.circle"]),
        ROOM,
        "Room between a screw's head and the ball's way",
    )
    yield at_least(
        "screws-edge",
        "screws",
        (s["plate.diameter"] - s["screws.circle"] - head) / 2,
        0.5,
        "Plate outside of the screws' heads",
    )
    yield at_least(
        "screws-bore",
        "screws",
        (s["screws.circle"] - head - s["bore.diameter"]) / 2,
        0.5,
        "Metal between the screws' heads and the bore",
    )
    turn = 360 / s["screws.count"]
    yield Check(
        "even",
        "screws",
        s["screws.count"] >= 3,
        f"{s['screws.count']:g} screws, {turn:g}° apart: under three a seal below is "
        "not pressed evenly.",
        grave=False,
    )
    deep = s["recesses.depth"] / s["ball.diameter"]
    hold = reckon(
        "detent-hold",
        {
            "ball": s["ball.diameter"],
            "depth": s["recesses.depth"],
            "spring": s["ball.spring"],
            "radius": half,
        },
    )
    holds = float(hold["torque"])
    yield Check(
        "holds",
        "recesses",
        holds >= s["lever.holds"],
        f"The spring's {s['ball.spring']:g} N hold the shaft with {holds:.2f} Nm; "
        f"{s['lever.holds']:g} are wanted. Deeper recesses or a larger circle hold "
        "more.",
        grave=False,
        have=holds,
        need=s["lever.holds"],
    )
    yield Check(
        "depth",
        "recesses",
        0.08 <= deep <= 0.35,
        f"Recesses {deep:.2f} of the ball deep; from 0.08, so that it is felt, to "
        "0.35, so that it comes out again.",
        have=deep,
        need=0.08,
    )


def route(s: Values) -> tuple[Holding, ...]:
    return (
        Holding(
            "turning",
            "lathe",
            "In the chuck",
            "Bore, outside and one face in one chucking.",
            (
                Step("face", ("face",)),
                Step("drill", ("bore",), leaves=0.5),
                Step("bore", ("bore",), fit="bore"),
                Step("turn", ("plate",)),
                Step("bevel", ("edge",)),
                Step("prove", ("bore",), title="Try it on the shaft",
                     tool="the shaft", hold=True, fit="bore"),
                Step("part", ("back",), leaves=0.5),
            ),
            "jaws",
        ),
        Holding(
            "back",
            "lathe",
            "Turned round, in soft jaws",
            "Both faces parallel: the ball's depth is taken from one of them.",
            (Step("face", ("back",), title="Face to its thickness"),),
        ),
        Holding(
            "recesses",
            "mill",
            "On the rotary table, set true by the bore",
            "All recesses with one cutter in one holding, each set by the same figure "
            "of an indicator on the quill: alike in depth, or one place feels loose.",
            (
                Step("mill", ("recesses",), title=f"Sink {len(angles(s))} recesses "
                     f"{s['recesses.depth']:g} deep", tool="ball-nosed cutter "
                     f"{s['ball.diameter']:g} mm", note="By the table's degrees, "
                     f"{s['recesses.throw']:g}° apart, or by read-out from the "
                     "middle."),
                Step("drill", ("screws",)),
                Step("prove", ("recesses",), title="Lay the ball in each, compare "
                     "their heights", tool="ball, indicator", note="Within 0.02 mm of "
                     "each other. How far the ball goes in when all is together, a "
                     "squashed ball of putty tells: the reckoning of a shortfall turns "
                     "it into an angle and the pin's new place.",
                     key="prove-recesses"),
            ),
        ),
        Holding(
            "pin",
            "bench",
            "The plate screwed on, the lever on the shaft",
            "The ball in its middle place and the shaft in its own: what is clocked so "
            "is pinned so, through lever and shaft together.",
            (*_pin_steps(s), Step("deburr", ())),
        ),
    )  # fmt: skip


def _pin_steps(s: Values) -> tuple[Step, ...]:
    """The lever is clocked and pinned to its shaft."""
    found = _pinned(s)
    if found is None:
        title = "Clock the lever with the ball in its middle place, and clamp it"
        return (Step("mount", (), title=title, key="pin"),)
    steps = [
        Shown(f"Drill {drill_named(step['drill'])} to", step["depth"])
        for step in found["drills"]
    ]
    return (
        Step(
            "mount",
            (),
            title=f"Clock the lever, drill and ream for its taper pin {s['pin.size']}",
            tool=str(found["reamer"]),
            note="Spot it on the crown. The first drill goes through hub and shaft, "
            "the others stop; ream both together until the pin pushed in by hand "
            "stands out by that, then drive it. Pinned once and a place is still "
            "off: ream deeper for the next larger pin.",
            caution="Clamp hub and shaft in a vee: a drill that grabs spins them.",
            figures=(*steps, Shown("By hand the pin stands out by", PROUD)),
            key="pin",
        ),
    )


def hardware(s: Values) -> Iterable[Hardware]:
    yield cap_screws(
        str(s["screws.screw"]),
        s["screws.count"],
        "hold the plate",
        s["plate.thickness"],
        at="screws",
    )
    yield plain_parts("ball", s["ball.diameter"], 1, "in the lever")
    found = _pinned(s)
    if found is not None:
        long = s["lever.hub"]
        yield Hardware("taper pin", f"taper pin {s['pin.size']} × {sold_as(long)}",
                       float(found["small_diameter"]), long, 1,
                       "lever to shaft")  # fmt: skip
    yield Hardware(
        "spring", f"spring of {s['ball.spring']:g} N", 0.0, 0.0, 1, "behind the ball"
    )


FAMILY = Family(
    "detent-plate",
    "Detent plate",
    "Holds a lever or shaft in its places: recesses for a sprung ball.",
    "for a shaft of 12 mm, three places 30° apart, a ball of 6",
    also="detent ball index dividing lever shift notch recess click plunger plate",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(plate.diameter + 2, 1)",
             "a clean-up", 8, 400),
        Size("stock.length", "stock length", "up(plate.thickness + 25, 1)",
             "and what the jaws hold", 8, 200),
        STOCK_BORE,
        Size("plate.diameter", "plate", _wide, "past recesses and screws", 8, 390,
             rests=("recesses.circle", "screws.circle", "screws.screw"), up=1),
        Size("plate.thickness", "thickness", "up(recesses.depth + 4, 0.5)",
             "a floor under the recesses", 2, 60),
        Size("bore.diameter", "bore", "shaft.diameter", low=2, high=200),
        Size("recesses.count", "places", "lever.places", "as the lever has", 1, 24,
             COUNT, by="copy"),
        Size("recesses.throw", "from place to place", _throw, "as the lever turns", 1,
             180, ANGLE, by="copy", at="recesses.apart"),
        Size("recesses.middle", "their middle, from the casting's upright", "0", "",
             -180, 180, ANGLE),
        Size("recesses.circle", "circle of the recesses",
             "up(2.2*shaft.diameter + 3*ball.diameter, 1)", "clear of the bore", 5,
             380),
        Size("recesses.depth", "depth of a recess", "round(0.15*ball.diameter, 0.1)",
             "0.15 of the ball", 0.1, 20),
        Size("screws.screw", "screws", "M4", kind=TEXT),
        Size("screws.count", "how many", "3", "", 2, 12, COUNT),
        Size("screws.circle", "their circle", _circle, "as the recesses, or outside", 5,
             390, step=0.5, rests=("screws.screw", "screws.count", *WAY)),
        Size("screws.start", "angle of the first screw", _start,
             "opposite the places, clear of the ball", -360, 360, ANGLE,
             rests=("screws.screw", "screws.count", "screws.circle", *WAY)),
        Size("pin.size", "taper pin of the lever", _pin, "under a third of the shaft",
             kind=TEXT, choices=("none", *taper_pins())),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("shaft", "the shaft", (
            MateSize("diameter", "its diameter", 12.0, ("shaft",)),
        ), around=(
            Ring("-shaft.diameter", "plate.ends + shaft.diameter",
                 outside="shaft.diameter"),
        )),
        Mate("ball", "the ball", (
            MateSize("diameter", "its diameter", 6.0, ("ball",), least=0.5),
            MateSize("spring", "force of its spring", 20.0, kind=FORCE),
        )),
        Mate("lever", "the lever", (
            MateSize("places", "how many places", 3.0, kind=COUNT),
            MateSize("throw", "from place to place, degrees", 30.0, kind=ANGLE),
            MateSize("travel", "or at its knob, from place to place", 0.0, (), True),
            MateSize("length", "from the shaft to its knob", 100.0, (), True, least=1),
            MateSize("hub", "its hub, across where its pin goes", 24.0,
                     ("outside", "shaft"), True, least=1),
            MateSize("holds", "torque that it has to hold", 0.2, kind=TORQUE),
        )),
        Mate("room", "where it sits", (
            MateSize("height", "from its seat to what turns past it", 8.0,
                     ("depth", "shoulder"), True),
            MateSize("gasket", "gasket as it is pressed, and shims", 0.3,
                     ("thickness",), True),
            MateSize("least", "gap left, at least", 0.1, (), True),
            MateSize("most", "gap left, at most", 0.3, (), True),
        )),
    ),
    fits=(
        FitSlot("bore", "Shaft in the plate", "bore.diameter", "shaft.diameter",
                "shaft", "shaft", "moves"),
    ),
    chains=(
        Chain("gap", "Plate under what turns past it", "plate.thickness",
              (("room.height", 1), ("room.gasket", -1)), "room.least", "room.most"),
    ),
    material="steel",
    surfaces={"bore": "bore.diameter"},
)  # fmt: skip
