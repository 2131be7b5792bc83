"""Draw-in spindle: a taper socket in front, bearing seats behind a shoulder, a thread
for the nut that sets their play, a hole for the draw bar right through.

z = 0 is the rear end; the socket's mouth is at the right.
"""

from collections.abc import Callable, Iterable

from machinon.core.families._between_centres import COPPER, dog_on, end_for_end
from machinon.core.families._opening import LONG_DRILL
from machinon.core.families._tapers import (
    CLOSE,
    PAST,
    inner_end,
    large_end,
    shank_end_of,
    socket_depth,
)
from machinon.core.families._tapped import lead_in
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
from machinon.core.piece.hardware import Hardware, by_thread
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Cylinder,
    End,
    Screw,
    TaperBore,
)
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.drill_steps import SAWN
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_named, drill_under

OVER = 2.0  # mm: stock over each end
FINISH = 0.3  # mm to a side, left on the seats until all roughing and heat is done
SEATED = 0.05  # mm that the length of a seat may be off: it takes from the rings' gap
PUSHED_OVER = 0.01  # mm: what a ring meant for a seat that thick still goes over


def _large(s: Values) -> float:
    return large_end(str(s["socket.taper"]), "socket.large")


def _deep(s: Values) -> float:
    return socket_depth(str(s["socket.taper"]), "socket.large")


def _guides(s: Values) -> tuple[float, float] | None:
    """Those of a bore that has a round of its own size to guide, as R8's has."""
    if not (shank_end_of(str(s["socket.taper"])).guides and s["guide.diameter"]):
        return None
    return float(s["guide.diameter"]), float(s["guide.diameter"]) + CLOSE


def _small(s: Values) -> float:
    ratio = taper_of(str(s["socket.taper"])).ratio
    large, deep = float(s["socket.large"]), float(s["socket.depth"])
    return inner_end(large, ratio, deep, "socket.depth", "depth of the socket")


def _nut(s: Values) -> float:
    pitch = thread_of(str(s["nut.thread"])).pitch
    return float(s["locknut.length"] + 3 * pitch)


def _head(s: Values) -> float:
    """A shoulder for the front bearing, and a wall round the socket."""
    return float(max(s["front.diameter"] + 6, 1.3 * s["socket.large"]))


def _stations(s: Values) -> tuple[float, float, float, float]:
    """Ends of the nut's thread, rear seat, spacer and front seat, z."""
    thread = s["nut.thread_length"]
    rear = thread + s["rear.length"]
    spacer = rear + s["spacer.length"]
    return thread, rear, spacer, spacer + s["front.length"]


def build(s: Values) -> Body:
    thread, rear, spacer, front = _stations(s)
    long = front + s["head.length"]
    socket = long - s["socket.depth"]
    nut = str(s["nut.thread"])
    behind, guide = socket - s["guide.length"], s["guide.diameter"]
    features: list[Feature] = [
        End("rear_face", 0.0, "left"),
        Screw("nut", 0.0, thread, nut, runs_out="right"),
        Cylinder("rear", thread, rear, s["rear.diameter"]),
        Cylinder("spacer", rear, spacer, s["spacer.diameter"]),
        Cylinder("front", spacer, front, s["front.diameter"], shoulder="right"),
        Cylinder("head", front, long, s["head.diameter"]),
        End("mouth", long, "right"),
        Bore("draw", 0.0, long, s["draw.diameter"], "length"),
        *((Bore("guide", behind, socket, guide, "length"),) if guide else ()),
        TaperBore("socket", socket, long, _small(s), s["socket.large"],
                  str(s["socket.taper"])),
        lead_in("rear_edge", 0.0, nut, "left"),
        Bevel("head_edge", long, s["head.diameter"], 0.5, "right"),
    ]  # fmt: skip
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["nut.thread"]))
    yield at_least(
        "wall-socket",
        "socket",
        (s["head.diameter"] - s["socket.large"]) / 2,
        max(3.0, 0.12 * s["socket.large"]),
        "Wall of the head round the socket's mouth (0.12 of it)",
    )
    *_, spaced, front = _stations(s)
    long = front + s["head.length"]
    ratio = taper_of(str(s["socket.taper"])).ratio

    def socket_at(z: float) -> float:
        return float(s["socket.large"] - ratio * (long - z))

    behind = long - s["socket.depth"]
    guided = behind - s["guide.length"] if s["guide.diameter"] else behind
    if guided < front:
        inside = socket_at(front) if behind < front else s["guide.diameter"]
        yield at_least(
            "wall-seat",
            "front",
            (s["front.diameter"] - inside) / 2,
            2.5,
            "Wall of the front seat over the socket inside it",
        )
    inside = s["draw.diameter"]
    if guided < spaced:
        inside = s["guide.diameter"] or inside
    if behind < spaced:
        inside = max(inside, socket_at(spaced))
    yield at_least(
        "wall-spacer",
        "spacer",
        (s["spacer.diameter"] - inside) / 2,
        2.0,
        "Wall between the seats over what is bored in it",
    )
    yield at_least(
        "draw-wall",
        "nut",
        (thread.minor_external - s["draw.diameter"]) / 2,
        0.08 * thread.major + 1.0,
        "Wall from the draw bar's hole to the root of the nut's thread",
    )
    yield at_least(
        "draw-passes",
        "draw",
        s["draw.diameter"] - s["draw_bar.diameter"],
        0.3,
        "Hole over the draw bar",
    )
    yield at_least(
        "socket-floor",
        "socket",
        _small(s) - s["draw.diameter"],
        0.5,
        "Small end of the socket over the draw bar's hole",
    )
    if s["guide.diameter"]:
        enters = shank_end_of(str(s["socket.taper"])).guide
        yield at_least(
            "guide-floor",
            "guide",
            _small(s) - s["guide.diameter"],
            0.0,
            "Small end of the socket over the bore behind it",
            grave=False,
        )
        yield at_least(
            "guide-enters",
            "guide",
            s["guide.diameter"] - max(enters, s["draw.diameter"]),
            0.01,
            "Bore behind the socket over what enters it",
        )
        yield at_least(
            "guide-reach",
            "guide",
            guided,
            s["nut.thread_length"],
            "Bore behind the socket ends before the nut's thread",
        )
    yield at_least(
        "rings-pass",
        "nut",
        s["rear.diameter"] - thread.major,
        0.02,
        "Rear seat over the thread that its bearing is pushed across",
    )
    seat, passed = s["front.diameter"], s["rear.diameter"]
    yield Check(
        "front-passes",
        "rear",
        seat >= passed - PUSHED_OVER,
        f"The front bearing is pushed over the rear seat: {passed:.3f} mm there, on a "
        f"front seat of {seat:.3f} mm.",
    )
    yield at_least(
        "shoulder",
        "head",
        (s["head.diameter"] - s["front.diameter"]) / 2,
        1.5,
        "Shoulder that the front bearing is drawn against",
    )
    if s["bearings.sealed"] and is_there(s, "bearings.shoulder"):
        yield at_least(
            "shoulder-free",
            "head",
            s["bearings.shoulder"] - s["head.diameter"],
            0.0,
            "Shoulder lower than the outer ring: it must not rub",
        )
    yield at_least(
        "nut-past",
        "nut",
        s["nut.thread_length"],
        s["locknut.length"] + 2 * thread.pitch,
        "Thread for the nut, with its run-out (two pitches)",
    )
    spread = s["spacer.length"] / max(s["front.diameter"], 1.0)
    wide = "X" if s["bearings.facing"] else "O"
    yield Check(
        "spread",
        "spacer",
        spread >= (1.5 if s["bearings.facing"] else 0.8),
        f"Bearings {spread:.1f} diameters apart in {wide}: an X pair wants 1.5, an O "
        "pair, whose lines spread, 0.8; closer together the spindle nods.",
        grave=False,
        have=spread,
        need=1.5 if s["bearings.facing"] else 0.8,
    )


def _opened_first(s: Values) -> str:
    """The drill that opens the socket for its boring bar; nothing where the draw-bar's
    hole is as wide."""
    drill = drill_under(min(_small(s) - 2.0, SAWN), s["inch"])
    if drill <= s["draw.diameter"]:
        return ""
    return (
        f"Opened first by a drill of {drill_named(drill)}, not quite as deep as the "
        "socket: less to bore, and a stouter bar goes in."
    )


def route(s: Values) -> tuple[Holding, ...]:
    welded = bool(s["head.welded"])
    drilled = s["stock.length"] > LONG_DRILL * s["draw.diameter"]
    both = (
        "Drill from both ends to meet, a long drill in a reamed start; clear the "
        "chips each diameter of depth."
        if drilled
        else "Clear the chips often."
    )
    weld = (
        Holding(
            "weld",
            "bench",
            "On blocks, hot side up",
            "It moves as it cools: seats and socket are left over size until then.",
            (Step("weld", (), title="Weld what is welded to the head, let it cool "
                  "slowly", key="weld",
                  figures=(Shown("Left over, to a side", FINISH),)),),
        ),
    ) if welded else ()  # fmt: skip
    guide = (
        Step("bore", ("guide",), leaves=1.0),
        Step(
            "bore",
            ("guide",),
            note="With the socket, so that both are true: it guides the shank.",
        ),
    )
    guided = bool(s["guide.diameter"])
    half = taper_of(str(s["socket.taper"])).half_angle
    thread = thread_of(str(s["nut.thread"]))
    return (
        Holding(
            "bore",
            "lathe",
            "In the chuck and a steady, each end in turn",
            "The long hole first: everything outside is turned true to it.",
            (
                Step("face", ("rear_face",)),
                Step("drill", ("draw",), of="the draw-bar hole", note=both),
                Step("face", ("mouth",), title="Turn it round, face to length"),
                *(guide[:1] if guided else ()),
                Step("taper", ("socket",), leaves=1.0,
                     title="Bore the socket well under size", note=_opened_first(s)),
            ),
        ),
        Holding(
            "rough",
            "lathe",
            "Between plugs in both ends",
            "All steps to the same allowance.",
            (
                dog_on("the rear end", "right"),
                Step("turn", ("head",)),
                Step("bevel", ("head_edge",)),
                end_for_end("the head" + COPPER, "left"),
                Step("turn", ("front",), leaves=FINISH),
                Step("turn", ("spacer",)),
                Step("turn", ("rear",), leaves=FINISH),
            ),
            "centres",
        ),
        *weld,
        Holding(
            "seats",
            "lathe",
            "Between plugs in both ends, trued",
            "Both seats, the shoulder and the nut's thread in one setting: the rings "
            "stand square only so.",
            (
                dog_on("the head" + COPPER, "left"),
                Step("turn", ("front",), title="Finish the front seat to its band",
                     fit="front", note="The ring's own bore and run-out rule it."),
                Step("turn", ("rear",), title="Finish the rear seat to its band",
                     fit="rear"),
                Step("thread", ("nut",), note=f"Pitch {thread.pitch:g}; the nut in "
                     "hand tells. Its face must run true: cut both here."),
                Step("bevel", ("rear_edge",)),
                Step("prove", ("front", "rear"), title="Try both rings before it "
                     "comes off", tool="the bearings' inner rings", hold=True,
                     fit="front"),
            ),
            "centres",
        ),
        Holding(
            "socket",
            "lathe",
            "Turning in its own bearings, or in a steady on the front seat",
            "The socket comes last of all, on the bearings it runs on: it is then as "
            "true as they are.",
            (
                Step("mount", (), title=f"Slide to {half:.4f}°, by an indicator along "
                     "a known taper", tool="indicator", key="set-slide",
                     slide=half),
                *(guide[1:] if guided else ()),
                Step("taper", ("socket",), title="Finish the socket to its blue",
                     tool="boring bar or grinding spindle", note="Contact all along, a "
                     "little stronger at the mouth."),
                Step("prove", ("socket",), title="Blue a good taper in it, read a test "
                     "bar", tool="blue, test bar, indicator"),
                Step("mount", (), title="Set the bearings' play by the nut",
                     tool="hook spanner", note="Warm it by running, then nip up until "
                     "the play is just gone; lock it and feel again.",
                     caution="Hook spanner off before it turns.", key="set-play"),
                Step("deburr", ()),
            ),
        ),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    for key in ("front", "rear"):
        bore, wide = s[f"{key}_bearing.bore"], s[f"{key}_bearing.width"]
        yield Hardware(
            "bearing",
            f"bearing, bore {bore:g}, {wide:g} wide",
            bore,
            wide,
            1,
            f"at the {key}",
        )
    yield by_thread("nut", "nut", str(s["nut.thread"]), "sets the play")


def _seat(which: str) -> Callable[[Values], tuple[float, float]]:
    """The lengths that a seat may have."""

    def limits(s: Values) -> tuple[float, float]:
        long = s[f"{which}.length"]
        return long - SEATED, long + SEATED

    return limits


FAMILY = Family(
    "draw-in-spindle",
    "Draw-in spindle",
    "A spindle with a taper socket, two bearings and the nut that sets their play.",
    "with a Morse 2 socket on bearings of 30 mm bore",
    also="taper socket sleeve bearing headstock quill Morse MT2 MT3 milling draw bar",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(head.diameter + 2, 1)",
             "a clean-up", 12, 300),
        Size("stock.length", "stock length",
             "up(nut.thread_length + rear.length + spacer.length + front.length + "
             "head.length + 4, 1)", "both faces", 40, 900),
        STOCK_BORE,
        Size("nut.thread", "thread of the nut", "locknut.thread", "as its nut",
             kind=TEXT, by="copy"),
        Size("nut.thread_length", "length of that thread", _nut, "its nut and the "
             "run-out", 4, 100, rests=("nut.thread",), step=0.5, at="nut.length"),
        Size("rear.diameter", "rear seat", "rear_bearing.bore", low=6, high=200),
        Size("rear.length", "length of the rear seat", "rear_bearing.width",
             "as its bearing", 3, 100, by="copy", step=0.05, limits=_seat("rear")),
        Size("spacer.diameter", "between the seats",
             "down(front.diameter - 0.5, 0.5)", "under the front seat", 5, 200),
        Size("spacer.length", "from seat to seat", "bearings.between", low=1, high=500),
        Size("ring.least", "rear ring stands past its seat, at least", "0.2",
             "the nut must bear on the ring, not on the seat", 0.02, 5),
        Size("ring.most", "rear ring stands past its seat, at most", "1", "", 0.05,
             8),
        Size("front.diameter", "front seat", "front_bearing.bore", low=6, high=200),
        Size("front.length", "length of the front seat", "front_bearing.width",
             "as its bearing", 3, 100, by="copy", step=0.05, limits=_seat("front")),
        Size("head.diameter", "head", _head, "a shoulder, and a wall round the socket",
             8, 280, rests=("front.diameter", "socket.large"), up=1),
        Size("head.length", "length of the head", "20", "", 3, 200),
        Size("head.welded", "something is welded to it", "no", kind=FLAG),
        Size("socket.taper", "taper of the socket", "shank.taper", "as what goes in it",
             kind=TEXT, by="copy"),
        Size("socket.large", "large end of the socket", _large, "by its standard", 4,
             200, rests=("socket.taper",), step=0.001),
        Size("socket.depth", "depth of the socket", _deep, "past its gauge", 8, 400,
             rests=("socket.taper",), step=0.5),
        Size("guide.diameter", "bore behind the socket",
             lambda s: shank_end_of(str(s["socket.taper"])).bore,
             "by its standard; 0 for none", 0, 150, rests=("socket.taper",),
             step=0.01, limits=_guides),
        Size("guide.length", "length of the bore behind the socket",
             lambda s: shank_end_of(str(s["socket.taper"])).guide_length + PAST,
             "past its shank", 1, 300, rests=("socket.taper",)),
        Size("draw.diameter", "draw bar's hole", "up(draw_bar.diameter + 0.5, 0.5)",
             "over the bar", 2, 150),
        Size("bearings.facing", "bearings face to face (X)", "no",
             "no: back to back (O)", kind=FLAG),
        Size("bearings.sealed", "a cover runs close to the shoulder", "no", kind=FLAG),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("front_bearing", "the front bearing", (
            MateSize("bore", "its bore", 30.0, ("bore",)),
            MateSize("width", "its width", 16.0, ("width", "thickness")),
        ), around=(
            Ring("front.begins", "front.begins + front_bearing.width",
                 "front_bearing.bore"),
        )),
        Mate("rear_bearing", "the rear bearing", (
            MateSize("bore", "its bore", 30.0, ("bore",)),
            MateSize("width", "its width", 16.0, ("width", "thickness")),
        ), around=(
            Ring("rear.begins", "rear.begins + rear_bearing.width",
                 "rear_bearing.bore"),
        )),
        Mate("bearings", "the housing", (
            MateSize("between", "between its shoulders, outer ring to outer ring", 48.0,
                     ("shoulder", "length", "width")),
            MateSize("shoulder", "inside of its cover", 50.0, optional=True),
        ), around=(
            Ring("front.begins - bearings.between", "front.begins",
                 "1.3*front_bearing.bore", "1.6*front_bearing.bore"),
        )),
        Mate("locknut", "its nut", (
            MateSize("thread", "its thread", "M27x1.5"),
            MateSize("length", "length of its thread", 8.0,
                     ("thickness", "length")),
        ), around=(
            Ring("nut.ends - locknut.length", "nut.ends", "locknut.thread"),
        )),
        Mate("shank", "what goes in the socket", (
            MateSize("taper", "its taper", "MT2", ("taper-out",)),
        ), seats="socket.ends", turned=True),
        Mate("draw_bar", "the draw bar", (
            MateSize("diameter", "its diameter", 10.0, ("shaft",)),
        ), around=(
            Ring("-1.5*draw_bar.diameter", "socket.begins",
                 outside="draw_bar.diameter"),
        )),
    ),
    fits=(
        FitSlot("front", "Front seat in its bearing", "front.diameter",
                "front_bearing.bore", "hole", "bearing", "ring-turns"),
        FitSlot("rear", "Rear seat in its bearing", "rear.diameter",
                "rear_bearing.bore", "hole", "bearing", "ring-push"),
    ),
    chains=(
        Chain("rings", "Rear ring past its seat, for the nut", "spacer.length",
              (("front_bearing.width", 1), ("bearings.between", 1),
               ("rear_bearing.width", 1), ("front.length", -1), ("rear.length", -1)),
              "ring.least", "ring.most"),
    ),
    material="alloy steel",
    runs=True,
    full={"bearings.shoulder": "50"},
    ways=({"head.welded": "yes", "bearings.sealed": "yes"},
          {"guide.diameter": "13", "guide.length": "12"}),
    surfaces={"shaft": "front.diameter"},
)  # fmt: skip
