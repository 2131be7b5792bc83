"""Nose collet chuck: screws onto a threaded spindle nose, takes collets in its seat.

z = 0 is the rear face, which seats on the spindle's shoulder; the nose for the nut and
the collet's seat are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._collet_nose import (
    COLLET,
    NOSE_SIZES,
    NUT,
    SEAT_STEPS,
    nose_checks,
    nose_features,
)
from machinon.core.families._opening import opened
from machinon.core.families._threaded_nose import (
    UNWINDS,
    screwed_home,
    spindle_nose,
    threaded_checks,
    threaded_features,
    threaded_fits,
    threaded_sizes,
    threaded_steps,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Check,
    Family,
    Holding,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cylinder, End, Groove
from machinon.core.quantity import COUNT
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
SHORT = 0.45  # of its diameter: how much of the spindle's thread is to be engaged
BEHIND = 6.0  # mm of metal between the spindle's nose and the seat


def _pitch(s: Values) -> float:
    return thread_of(str(s["thread.thread"])).pitch


def _relief(s: Values) -> float:
    """The groove that an inside thread runs out in: two pitches."""
    return 2 * _pitch(s)


def _deep(s: Values) -> float:
    """The bore for the thread: past the spindle's nose, and for enough thread."""
    engaged = SHORT * thread_of(str(s["thread.thread"])).major
    needs = s["register.depth"] + engaged + s["relief.width"]
    return float(max(s["spindle.length"] + 1.5, needs))


def _thread_ends(s: Values) -> float:
    return float(s["core.depth"] - s["relief.width"])


def _hub(s: Values) -> float:
    """A wall over the register, and a shoulder for the nut."""
    thread = thread_of(str(s["nose.thread"])).major
    return float(max(1.5 * s["spindle.register"], thread + 6))


def _front(s: Values) -> float:
    return float(s["hub.length"] + s["nose.length"])


def _pins(s: Values) -> float:
    """Where the holes for a bar lie: their own diameter behind the nut's shoulder."""
    return float(s["hub.length"] - s["pins.diameter"])


def build(s: Values) -> Body:
    long, hub, deep = _front(s), s["hub.length"], s["core.depth"]
    features: list[Feature] = [
        End("hub_face", 0.0, "left"),
        Cylinder("hub", 0.0, hub, s["hub.diameter"], shoulder="right"),
        End("front", long, "right"),
        Bore("bore", 0.0, long, s["bore.diameter"], "length"),
        *threaded_features(s, deep, _thread_ends(s)),
        Groove("relief", _thread_ends(s), deep, s["relief.diameter"], inside=True),
        *nose_features(s, hub, long),
        Bevel("rear_edge", 0.0, s["hub.diameter"], 1.0, "left"),
    ]
    if s["pins.count"]:
        hole = Hole(s["pins.diameter"], s["pins.depth"], flat=True)
        count, wide = int(s["pins.count"]), s["hub.diameter"]
        features.append(
            CrossHoles("pins", _pins(s), wide, hole, s["pins.depth"], count)
        )
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["thread.thread"]))
    yield from threaded_checks(s, "spindle", _thread_ends(s))
    yield at_least(
        "nose-inside",
        "core",
        s["core.depth"] - s["spindle.length"],
        0.5,
        "Room between the end of the spindle's nose and the bore's floor",
    )
    yield at_least(
        "relief-clears",
        "relief",
        (s["relief.diameter"] - thread.major) / 2,
        0.1,
        "Relief over the thread, so that its tool runs out clear",
    )
    yield at_least(
        "relief-wide",
        "relief",
        s["relief.width"],
        1.5 * thread.pitch,
        "Width of the relief (a pitch and a half)",
    )
    yield at_least(
        "relief-wall",
        "relief",
        (s["hub.diameter"] - s["relief.diameter"]) / 2,
        5.0,
        "Wall of the hub over the relief",
    )
    yield from nose_checks(s)
    yield at_least(
        "seat-behind",
        "seat",
        _front(s) - s["seat.length"] - s["core.depth"],
        4.0,
        "Metal between the bore for the spindle and the seat",
    )
    yield at_least(
        "hub-shoulder",
        "hub",
        (s["hub.diameter"] - thread_of(str(s["nose.thread"])).major) / 2,
        1.0,
        "Shoulder of the hub behind the nut",
    )
    yield at_least(
        "bore-step",
        "core",
        (s["core.diameter"] - s["bore.diameter"]) / 2,
        0.5,
        "Step from the bore for the thread to the bore for the bar",
    )
    if s["pins.count"]:
        # it may come over the relief, the widest of what is bored
        beside = _pins(s) - s["pins.diameter"] / 2 < s["core.depth"]
        inside = s["relief.diameter"] if beside else s["bore.diameter"]
        yield at_least(
            "pins-wall",
            "pins",
            (s["hub.diameter"] - inside) / 2 - s["pins.depth"],
            3.0,
            "Metal under the holes for a bar",
        )


def route(s: Values) -> tuple[Holding, ...]:
    half = s["seat.half_angle"]
    nut = thread_of(str(s["nose.thread"]))
    pins = (
        Holding(
            "pins",
            "mill",
            "In a dividing head or vee block, by the hub",
            "Holes for a bar that holds against the nut, and screws the chuck off.",
            (
                Step("drill", ("pins",), note="A slot drill or a flat-ended drill "
                     "leaves the floor flat."),
                Step("deburr", ("pins",), key="deburr-pins"),
            ),
        ),
    )  # fmt: skip
    return (
        Holding(
            "nose-side",
            "lathe",
            "In the chuck, spindle side out",
            "Register, thread and the face that seats on the shoulder are cut in one "
            "chucking, so they are true to each other.",
            (
                Step("face", ("hub_face",), title="Face the rear",
                     caution="Hold at least 15 mm; keep the speed down for rough bar.",
                     key="face-hub"),
                Step("turn", ("hub",)),
                Step("bevel", ("rear_edge",)),
                *opened("bore", s["bore.diameter"],
                        "Right through; clear the chips often."),
                *threaded_steps(
                    s,
                    Step("groove", ("relief",), note="As far as the stop for the "
                         "thread; feel its floor before the first pass."),
                    ends="Run out into the relief, by a stop",
                ),
            ),
            "jaws",
        ),
        Holding(
            "in-place",
            "lathe",
            "On its own spindle nose",
            "Nose and seat are finished in place, on the spindle they will run on: "
            "whatever play the register leaves is cut out here.",
            (
                screwed_home("chuck"),
                Step("face", ("front",), title="Face the front"),
                Step("thread", ("nose",), note=f"Pitch {nut.pitch:g}; the nut in hand "
                     "tells. It only has to close, the seat centres.",
                     caution=UNWINDS),
                Step("bevel", ("nose_edge",)),
                Step("mount", (), title=f"Set the slide to {half:g}°", tool="indicator",
                     key="set-slide", slide=half),
                *SEAT_STEPS,
                Step("deburr", ()),
            ),
        ),
        *(pins if s["pins.count"] else ()),
    )  # fmt: skip


FAMILY = Family(
    "nose-chuck",
    "Nose collet chuck",
    "Holds bars in collets, screwed onto a threaded spindle nose and bored there.",
    "on a nose M45 × 4.5, for collets of 16 mm at 8 degrees",
    also="ER16 ER20 ER25 ER32 ER40 collet chuck lathe spindle nose threaded front nut "
    "through bore",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(hub.diameter + 2, 1)",
             "a clean-up", 20, 400),
        Size("stock.length", "stock length", "up(hub.length + nose.length + 4, 1)",
             "both faces", 20, 400),
        STOCK_BORE,
        Size("hub.diameter", "hub", _hub, "a wall over the register, and a shoulder "
             "for the nut", 12, 390, rests=("nose.thread", "spindle.register"), up=1),
        Size("hub.length", "length of the hub",
             f"core.depth + seat.length + {BEHIND:g} - nose.length",
             "metal between the spindle's nose and the seat", 5, 300, up=1),
        *threaded_sizes("spindle"),
        Size("core.depth", "depth of that bore", _deep,
             "past the spindle's nose, and for its thread", 5, 250, up=0.5,
             rests=("thread.thread", "register.depth", "relief.width",
                    "spindle.length"), at="core.length"),
        Size("relief.width", "relief behind the thread", _relief, "two pitches", 0.5,
             40, rests=("thread.thread",), step=0.5),
        Size("relief.diameter", "diameter of the relief",
             lambda s: thread_of(str(s["thread.thread"])).major + 1.0,
             "over the thread", 4, 260, rests=("thread.thread",), step=0.5),
        *NOSE_SIZES,
        Size("pins.count", "holes for a bar in the hub", "3", "0 for none", 0, 8,
             COUNT),
        Size("pins.diameter", "those holes", "8", "", 2, 25),
        Size("pins.depth", "depth of those holes", "6", "", 2, 60),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(spindle_nose("spindle"), NUT, COLLET),
    fits=threaded_fits("spindle", "chuck"),
    material="alloy steel",
    runs=True,
    ways=({"pins.count": "0"},),
    cautions={"route": UNWINDS, "sheet": UNWINDS},
)  # fmt: skip
