"""Draw-tube sleeve: takes up the length between a spindle's end and the draw tube's
collar, centres itself by a bevel, and is held on the tube by sprung balls.

z = 0 is the face under the tube's collar; the bevel that centres it is at the right.
"""

import math
from collections.abc import Iterable

from msgspec.structs import replace

from machinon.core.families._tapped import tapped
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
    is_there,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware, plain_parts, set_screws
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.round_sizes import downwards, inch_screw, step_in, upwards
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cone, Cylinder, End
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_under

BEARS = 0.02  # mm: how surely it is known where the bevel bears, once it is turned
LIP = 0.13  # of a ball: the lip that keeps it in
OVER = 1.0  # mm: stock over the right end
PARTED = 1.0  # mm: left on where it is parted off, to be faced
FINISH = 0.25  # mm to a side, left in the bore for the last cuts


def _bevel(s: Values) -> float:
    """Length of the bevel along the axis."""
    return float(s["bevel.rise"] / math.tan(math.radians(s["bevel.angle"])))


def _insides(s: Values) -> tuple[float, float] | None:
    """How far it may stand in there: the length is cut to what it is."""
    if not s["bevel.inside"]:
        return None
    return s["bevel.inside"] - BEARS, s["bevel.inside"] + BEARS


def _inside(s: Values) -> float:
    """How far the nose stands in the bore whose edge bears on the bevel, mm."""
    if not s["bevel.rise"]:
        return 0.0
    over = (s["sleeve.diameter"] - s["spindle.bore"]) / 2
    inside = (s["bevel.rise"] - over) / math.tan(math.radians(s["bevel.angle"]))
    return max(float(inside), 0.0)


def _ball_size(s: Values) -> str:
    """The largest tapped hole whose screw goes into the wall with ball and spring; the
    smallest where none does."""
    wall = (s["sleeve.diameter"] - s["tube.diameter"]) / 2
    sizes: tuple[str, ...] = ("M8", "M6", "M5", "M4", "M3")
    if s["inch"]:
        sizes = tuple(map(inch_screw, sizes))

    def room(thread: str) -> float:
        ball = _passing(s, thread)
        return float(wall - (0.9 + LIP) * ball - _two_turns(s, thread))

    wide = (size for size in sizes if thread_of(size).major <= 0.8 * wall)
    return next((size for size in wide if room(size) >= s["spring.solid"]), sizes[-1])


def _passing(s: Values, thread: str) -> float:
    """The largest ball by half millimetres, or 32nds, that passes a thread's crests."""
    minor = thread_of(thread).minor_internal
    return downwards(minor - 0.05, step_in(0.5, s["inch"]))


def _two_turns(s: Values, thread: str) -> float:
    """Length of a screw of two turns, by half millimetres or 32nds."""
    return upwards(2 * thread_of(thread).pitch, step_in(0.5, s["inch"]))


def _ball(s: Values) -> float:
    return _passing(s, str(s["balls.thread"]))


def _screw(s: Values) -> float:
    return _two_turns(s, str(s["balls.thread"]))


def _lip(s: Values) -> float:
    """The hole at the bottom that lets the ball look out, and not through."""
    return drill_under(0.9 * float(s["balls.diameter"]), s["inch"])


def _ball_hole(s: Values) -> Hole:
    """Drilled from outside down to the lip that keeps the ball in, and tapped."""
    wall = (s["sleeve.diameter"] - s["bore.diameter"]) / 2
    deep = round(wall - s["balls.lip"], 1)
    return replace(tapped(str(s["balls.thread"]), deep), flat=True)


def _reach(s: Values) -> float:
    """Projection of a ball from its mouth: the depth of the tube's groove, mm.

    It sinks into its mouth as far as the chord says, less the lip's thickness.
    """
    ball = s["balls.diameter"]
    sunk = ball / 2 - math.sqrt(ball**2 - _lip(s) ** 2) / 2
    return float(sunk - s["balls.lip"])


def _groove(s: Values) -> tuple[float, float, float]:
    """The tube's groove: diameter of its floor, width at its mouth, and its middle from
    the collar's face; mm."""
    deep, radius = max(_reach(s), 0.0), s["balls.diameter"] / 2
    wide = 2 * math.sqrt(radius**2 - (radius - deep) ** 2)
    at = s["washer.thickness"] + s["balls.from_end"]
    return float(s["tube.diameter"] - 2 * deep), float(wide), float(at)


def build(s: Values) -> Body:
    long, wide, bore = s["sleeve.length"], s["sleeve.diameter"], s["bore.diameter"]
    cone = _bevel(s)
    wall = (wide - bore) / 2
    features: list[Feature] = [
        End("left_face", 0.0, "left"),
        Cylinder("sleeve", 0.0, long, wide),
        End("right_face", long, "right"),
        Bore("bore", 0.0, long, bore, "length"),
        Bevel("left_edge", 0.0, wide, 0.5, "left"),
    ]
    if s["bevel.rise"]:
        tip = wide - 2 * s["bevel.rise"]
        features.append(Cone("bevel", long - cone, long, wide, tip))
    if s["balls.count"]:
        features.append(
            CrossHoles("balls", s["balls.from_end"], wide, _ball_hole(s), wall,
                       int(s["balls.count"]))
        )  # fmt: skip
        features.append(
            CrossHoles("mouths", s["balls.from_end"], wide, Hole(_lip(s)), wall,
                       int(s["balls.count"]))
        )  # fmt: skip
    return Body(
        Round(s["stock.diameter"], long + OVER - s["stock.length"], long + OVER),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    wall = (s["sleeve.diameter"] - s["bore.diameter"]) / 2
    yield at_least("wall", "sleeve", wall, 1.5, "Wall of the sleeve")
    if not s["bevel.rise"]:
        yield at_least(
            "bears",
            "sleeve",
            (s["sleeve.diameter"] - s["spindle.bore"]) / 2,
            1.0,
            "Face of the sleeve on the spindle's end",
        )
    else:
        yield at_least(
            "goes-in",
            "bevel",
            s["spindle.bore"] - (s["sleeve.diameter"] - 2 * s["bevel.rise"]),
            0.2,
            "Nose of the bevel into the spindle's bore",
        )
        yield at_least(
            "bevel-centres",
            "bevel",
            s["sleeve.diameter"] - s["spindle.bore"],
            0.5,
            "Bevel wider than the spindle's bore: it must centre before the shoulder "
            "touches",
        )
    if s["balls.count"]:
        thread = thread_of(str(s["balls.thread"]))
        minor = thread.minor_internal
        ball = s["balls.diameter"]
        yield at_least(
            "ball-passes",
            "balls",
            minor - ball,
            0.05,
            "Ball through the thread's minor diameter",
        )
        yield at_least(
            "ball-kept",
            "mouths",
            ball - _lip(s),
            0.2,
            "Ball over its mouth, so that it does not drop through",
        )
        if s["tube.bore"]:
            yield at_least(
                "groove-wall",
                "mouths",
                (_groove(s)[0] - s["tube.bore"]) / 2,
                1.0,
                "Wall of the tube under the groove for the balls",
            )
        yield at_least(
            "ball-reaches",
            "mouths",
            _reach(s),
            min(0.3, 0.11 * ball),
            "Ball out of its mouth, into the tube's groove",
            grave=False,
        )
        room = wall - s["balls.lip"] - ball * 0.9
        yield at_least(
            "spring-solid",
            "balls",
            room - s["balls.screw"],
            s["spring.solid"],
            "Room for the spring pressed solid, under a screw that is flush",
            grave=is_there(s, "spring.solid"),
        )
        yield at_least(
            "balls-thread",
            "balls",
            _ball_hole(s).thread_depth,
            s["balls.screw"],
            "Thread for the screw behind the spring",
        )
        yield at_least(
            "balls-edge",
            "balls",
            min(s["balls.from_end"], s["sleeve.length"] - s["balls.from_end"]
                - _bevel(s)) - thread.major / 2,
            1.5,
            "Metal between the balls' holes and the ends",
        )  # fmt: skip
    if s["tube.shoulder"] and s["tube.bore"]:
        yield at_least(
            "shoulder-wall",
            "bore",
            (s["tube.diameter"] - s["tube.bore"]) / 2,
            1.2,
            "Wall of the tube where its old shoulder is turned off",
        )
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - s["sleeve.length"],
        OVER + PARTED + 1.0,
        "Stock over the length to face it and part it off",
    )


def route(s: Values) -> tuple[Holding, ...]:
    bevel = (
        (Step("taper", ("bevel",), title=f"Turn the bevel at {s['bevel.angle']:g}° to "
              "the axis", note="In the holding of the bore: it has to centre the "
              "sleeve."),)
        if s["bevel.rise"] else ()
    )  # fmt: skip
    balls = (
        Holding(
            "balls",
            "mill",
            "In a dividing head or a vee block, a stop at its end",
            f"{s['balls.count']:g} holes, evenly round; the groove on the tube is cut "
            "to where the balls then stand.",
            (
                Step("drill", ("mouths",), of="the ball mouths",
                     note="The small one right through first: it guides."),
                Step("drill", ("balls",), title="Open to the tapping drill, to the lip",
                     note="To a stop: the lip keeps the ball in."),
                Step("tap", ("balls",), note="A bottoming tap; tough steel wants a "
                     "fresh one and plenty of oil."),
            ),
        ),
    ) if s["balls.count"] else ()  # fmt: skip
    return (
        *_shoulder_off(s),
        Holding(
            "bore",
            "lathe",
            "In the chuck, bevel end out",
            "Bore, outside and bevel in one chucking. As the hole grows the wall "
            "rings: change the speed before it chatters.",
            (
                Step("face", ("right_face",)),
                Step("drill", ("bore",), leaves=FINISH + 0.25),
                Step("turn", ("sleeve",)),
                Step("bore", ("bore",), fit="bore"),
                *bevel,
                Step("prove", ("bore",), title="Try it on the draw tube",
                     tool="the draw tube", hold=True, fit="bore"),
                Step("part", ("left_face",), leaves=PARTED),
            ),
            "jaws",
        ),
        *balls,
        Holding(
            "length",
            "lathe",
            "Turned round, in soft jaws",
            "Length last, bit by bit, against the chain.",
            (
                Step("face", ("left_face",), title="Face to length, bit by bit"),
                Step("bevel", ("left_edge",)),
                Step("deburr", (), title="Break every edge, set balls and springs",
                     note="Screw in until a ball just stands firm, then lock it: it "
                     "must not stand over the outside."),
            ),
        ),
        *_grooved(s),
    )  # fmt: skip


def _shoulder_off(s: Values) -> tuple[Holding, ...]:
    """Off the draw tube first: the sleeve is tried on it."""
    if s["tube.shoulder"] <= s["tube.diameter"]:
        return ()
    step = Step(
        "mount",
        (),
        title=f"Turn its old shoulder of ⌀{s['tube.shoulder']:.4g} down to "
        f"⌀{s['tube.diameter']:.4g}",
        tool="knife tool",
        note="Light cuts: the wall is thin and springs.",
        key="old-shoulder",
    )
    return (
        Holding(
            "tube-shoulder",
            "lathe",
            "The draw tube, on a plug in its bore and a centre",
            "The new sleeve stands where the old shoulder stood.",
            (step,),
        ),
    )


def _grooved(s: Values) -> tuple[Holding, ...]:
    """A groove on the draw tube for the balls, where they stand."""
    if not s["balls.count"]:
        return ()
    floor, wide, at = _groove(s)
    step = Step(
        "mount",
        (),
        title=f"Groove ⌀{floor:.2f}, {wide:.1f} wide at its mouth, {at:.2f} from the "
        "collar's face to its middle",
        tool="form tool, round as a ball",
        note="With the washer in place. Try the sleeve on: the balls click in and hold "
        "it without shake along the tube.",
        key="tube-groove",
        figures=(
            Shown("⌀ at its floor", floor),
            Shown("Wide at its mouth", wide, step=0.1),
            Shown("From the collar's face", at),
        ),
    )
    return (
        Holding(
            "tube-groove",
            "lathe",
            "The draw tube, on a plug in its bore and a centre",
            "Cut last, to where the balls really stand.",
            (step,),
        ),
    )


def hardware(s: Values) -> Iterable[Hardware]:
    count = s["balls.count"]
    if count:
        yield plain_parts("ball", s["balls.diameter"], count, "in the sleeve")
        yield Hardware("spring", "spring", 0.0, 0.0, int(count), "behind the balls")
        yield set_screws(
            str(s["balls.thread"]), count, "behind the springs", s["balls.screw"]
        )


FAMILY = Family(
    "draw-tube-sleeve",
    "Draw-tube sleeve",
    "Fills the length under a draw tube's collar; centred, held by sprung balls.",
    "on a tube of 20 mm, in a spindle of 32 mm bore, 60 long",
    also="collar spacer drawbar collet closer sleeve bush balls detent",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(sleeve.diameter + 2, 1)",
             "a clean-up", 6, 200),
        Size("stock.length", "stock length",
             "up(sleeve.length + max(25, 0.4*sleeve.diameter + 4), 1)",
             "and what the jaws hold", 8, 500),
        STOCK_BORE,
        Size("sleeve.diameter", "outside", "up(spindle.bore + 6, 1)",
             "over the spindle's bore", 6, 190),
        Size("sleeve.length", "length", "0", low=3, high=400),
        Size("bore.diameter", "bore", "tube.diameter", low=3, high=150),
        Size("bevel.rise", "rise of the bevel",
             "(sleeve.diameter - spindle.bore)/2 + 1.5", "past the spindle's bore", 0,
             40, step=0.1),
        Size("bevel.angle", "bevel to the axis", "45", "", 15, 75, ANGLE,
             at="bevel.half_angle"),
        Size("bevel.inside", "how far its nose goes into the spindle", _inside,
             "to where the bore's edge bears", 0, 60, step=0.01,
             rests=("bevel.rise", "bevel.angle", "sleeve.diameter"), limits=_insides),
        Size("balls.count", "sprung balls", "3", "by threes they centre", 0, 6, COUNT),
        Size("balls.thread", "their tapped holes", _ball_size, "into the wall",
             kind=TEXT, rests=("sleeve.diameter",)),
        Size("balls.diameter", "balls", _ball, "through the thread's crests", 1, 12,
             rests=("balls.thread",)),
        Size("balls.lip", "lip that keeps a ball in", f"{LIP}*balls.diameter",
             "an eighth of the ball", 0.2, 5, step=0.1),
        Size("balls.screw", "length of its screw", _screw, "two turns at least", 1, 12,
             rests=("balls.thread",)),
        Size("balls.from_end", "balls from the collar's face", "sleeve.length/3", "", 2,
             300, step=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("tube", "the draw tube", (
            MateSize("diameter", "its outside", 20.0, ("shaft",)),
            MateSize("bore", "its bore (0: not known)", 0.0, ("bore",), True),
            MateSize("shoulder", "old shoulder to be turned off (0: none)", 0.0,
                     (), True),
        ), around=(
            Ring("-tube.diameter", "sleeve.ends + tube.diameter", "tube.bore",
                 "tube.diameter"),
        )),
        Mate("spindle", "the spindle's end", (
            MateSize("bore", "its bore", 32.0, ("bore",)),
            MateSize("between", "from its face to the collar", 62.0,
                     ("depth", "shoulder", "length")),
        ), around=(
            Ring("sleeve.ends - bevel.inside", "sleeve.ends + tube.diameter/2",
                 "spindle.bore"),
            Ring("-washer.thickness - tube.diameter/4", "-washer.thickness",
                 "tube.diameter", "sleeve.diameter"),
        )),
        Mate("washer", "the washer under the collar", (
            MateSize("thickness", "its thickness", 2.0, ("thickness",)),
        ), around=(
            Ring("-washer.thickness", "0", "tube.diameter", "sleeve.diameter"),
        )),
        Mate("float", "the float it needs", (
            MateSize("least", "least", 0.1),
            MateSize("most", "most", 0.4),
        )),
        Mate("spring", "the springs", (
            MateSize("solid", "their length pressed solid", 1.5, optional=True),
        )),
    ),
    fits=(
        FitSlot("bore", "Bore on the draw tube", "bore.diameter", "tube.diameter",
                "shaft", "shaft", "runs"),
    ),
    chains=(
        Chain("length", "Sleeve under the collar", "sleeve.length",
              (("spindle.between", 1), ("bevel.inside", 1), ("washer.thickness", -1)),
              "float.least", "float.most"),
    ),
    ways=({"balls.count": "0", "bevel.rise": "0"},),
    surfaces={"bore": "bore.diameter", "length": "sleeve.length"},
)  # fmt: skip
