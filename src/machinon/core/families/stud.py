"""Stud: stands in a T-nut or a tapped hole, through what it clamps, with a washer and a
nut on top.

z = 0 is its lower end, in the metal.
"""

from collections.abc import Iterable

from machinon.core.families._tapped import lead_in
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Chain,
    Check,
    Family,
    Holding,
    Mate,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.hardware import Hardware, by_thread, sold_as
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Centre, Cylinder, End, Screw
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

OVER = 1.5  # mm: stock over each end
PAST = 2.0  # threads that stand out of the nut at least


def _pitch(s: Values) -> float:
    return thread_of(str(s["upper.thread"])).pitch


def _major(s: Values) -> float:
    return thread_of(str(s["upper.thread"])).major


def _past(s: Values) -> float:
    return PAST * _pitch(s)


def _bar(s: Values) -> float:
    """Over the thicker of its threads."""
    widest = max(s["stud.diameter"], thread_of(str(s["lower.thread"])).major)
    return float(widest + 0.5)


def build(s: Values) -> Body:
    long, below, above = s["stud.length"], s["lower.length"], s["upper.length"]
    lower, upper = str(s["lower.thread"]), str(s["upper.thread"])
    foot = thread_of(lower)
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER),
        (
            End("foot", 0.0, "left"),
            Screw("lower", 0.0, below, lower),
            Cylinder("stud", below, long - above, s["stud.diameter"]),
            Screw("upper", long - above, long, upper),
            End("top", long, "right", other=0.0),
            Centre("foot_centre", 0.0, "left", round(0.3 * foot.major, 1)),
            lead_in("foot_edge", 0.0, lower, "left"),
            lead_in("top_edge", long, upper, "right"),
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    foot = thread_of(str(s["lower.thread"]))
    yield at_least(
        "foot-held",
        "lower",
        min(s["lower.length"], s["below.depth"]),
        foot.major,
        "Thread in the metal below (its diameter)",
    )
    yield at_least(
        "foot-clear",
        "foot",
        s["below.floor"] - s["lower.length"],
        0.5,
        "Room under the stud: on the floor it would lift the slot's lips",
    )
    yield at_least(
        "shoulder",
        "stud",
        s["lower.length"] - s["below.depth"],
        0.0,
        "Thread as long as the metal is thick, so that it is screwed through",
        grave=False,
    )
    grip = s["held.height"]
    yield at_least(
        "upper-down",
        "upper",
        s["upper.length"] - (s["stud.length"] - s["lower.length"] - grip)
        - s["washer.thickness"],
        _pitch(s),
        "Thread that reaches below the top of what is clamped, so that the nut never "
        "comes to its end",
    )  # fmt: skip
    yield at_least(
        "passes",
        "stud",
        s["held.hole"] - max(s["stud.diameter"], foot.major, _major(s)),
        0.2,
        "Room in the hole it passes through",
    )
    yield at_least(
        "core",
        "stud",
        s["stud.diameter"],
        thread_of(str(s["upper.thread"])).minor_external,
        "Plain length as strong as the thread's root",
    )


def route(s: Values) -> tuple[Holding, ...]:
    first, last = ("lower", "foot"), ("upper", "top")

    def end(thread: str, face: str, held: str, why: str) -> Holding:
        turned = (Step("centre", ("foot_centre",)), Step("turn", ("stud",)))
        steps = [
            Step("face", (face,)),
            *(turned if thread == "lower" else ()),
            Step("bevel", (f"{face}_edge",)),
            Step("thread", (thread,), note="By a die in its holder, or on the lathe; "
                 "the nut tells."),
            Step("prove", (thread,), title="Try its nut", tool="the nut"),
        ]  # fmt: skip
        if face == "top":
            steps.append(Step("deburr", ()))
        return Holding(thread, "lathe", held, why, tuple(steps), "jaws")

    return (
        end(*first, "In the chuck or a collet, lower end out, the tailstock in it",
            "The end that stays in the metal comes first: it may be a tight one."),
        end(*last, "Turned round, between soft jaws",
            "Its length is cut by facing this end, against the chain."),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    nut = by_thread("nut", "nut", str(s["nut.thread"]), "on it")
    yield nut
    if s["washer.thickness"]:
        thick = s["washer.thickness"]
        yield Hardware(
            "washer",
            f"washer {sold_as(nut.size)}, {sold_as(thick)} thick",
            nut.size,
            thick,
            1,
            "under the nut",
        )


FAMILY = Family(
    "stud",
    "Stud",
    "Holds something down: through it into a T-nut, washer and nut on top.",
    "in an M10 T-nut of 12, through a tool post of 75 mm, with washer and nut",
    also="hold down T-slot bolt clamp tool post stud threaded rod tie draw bar",
    sizes=(
        Size("stock.diameter", "stock diameter", _bar, "over both threads", 3, 80,
             rests=("stud.diameter", "lower.thread"), up=1),
        Size("stock.length", "stock length", "up(stud.length + 3, 1)", "both faces", 10,
             600),
        Size("lower.thread", "thread of the foot", "below.thread", "as below",
             kind=TEXT, by="copy"),
        Size("lower.length", "length of the foot's thread", "below.depth",
             "as the metal is thick", 2, 150, by="copy", step=0.1),
        Size("upper.thread", "upper thread", "nut.thread", "as its nut", kind=TEXT,
             by="copy"),
        Size("stud.diameter", "plain length", _major, "as its thread", 2, 80, step=0.1,
             rests=("upper.thread",)),
        Size("stud.length", "length of the stud", "0", low=8, high=500,
             at="top.length"),
        Size("past.least", "least that stands out of the nut", _past, "two threads", 0,
             50, step=0.1, rests=("upper.thread",)),
        Size("past.most", "most that stands out of the nut", "past.least + 2", "", 0.2,
             100),
        Size("upper.length", "length of the upper thread",
             "up(nut.height + washer.thickness + past.most + past.least + 2, 1)",
             "past the nut and a little below", 3, 200),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("below", "the T-nut or metal it stands in", (
            MateSize("thread", "its thread", "M10"),
            MateSize("depth", "its thickness there", 12.0,
                     ("thickness", "depth", "length")),
            MateSize("floor", "from its top to what lies under it", 16.0,
                     ("depth", "length")),
        ), around=(
            Ring("lower.begins", "below.depth", "below.thread", "2.4*stud.diameter"),
        )),
        Mate("held", "what is clamped", (
            MateSize("height", "its height", 75.0, ("length", "thickness", "width")),
            MateSize("hole", "the hole in it", 11.0, ("bore", "hole")),
        ), around=(
            Ring("lower.ends", "lower.ends + held.height", "held.hole",
                 "3*held.hole"),
        )),
        Mate("nut", "its nut", (
            MateSize("thread", "its thread", "M10"),
            MateSize("height", "its height", 8.4, ("thickness", "length")),
        ), around=(
            Ring("lower.ends + held.height + washer.thickness",
                 "lower.ends + held.height + washer.thickness + nut.height",
                 "nut.thread", "1.7*stud.diameter"),
        )),
        Mate("washer", "the washer", (
            MateSize("thickness", "its thickness", 2.0, ("thickness",)),
        ), around=(
            Ring("lower.ends + held.height",
                 "lower.ends + held.height + washer.thickness", "stud.diameter",
                 "2.1*stud.diameter"),
        )),
    ),
    chains=(
        Chain("length", "Stud through washer and nut", "stud.length",
              (("lower.length", 1), ("held.height", 1), ("washer.thickness", 1),
               ("nut.height", 1)), "past.least", "past.most", over=True, step=0.1),
    ),
    surfaces={"length": "stud.length"},
)  # fmt: skip
