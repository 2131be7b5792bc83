"""Collet spindle: turns in a tube, takes a collet in its seat and a nut on its nose.

z = 0 is the rear end; the nose and the collet's seat are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._between_centres import COPPER, dog_on, end_for_end
from machinon.core.families._collet_nose import (
    COLLET,
    NOSE_SIZES,
    NUT,
    SEAT_STEPS,
    nose_checks,
    nose_features,
)
from machinon.core.families._opening import LONG_DRILL
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
    is_there,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Cylinder,
    End,
    Groove,
)
from machinon.core.quantity import COUNT
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
FINISH = 0.25  # mm to a side, left on journal and seat until both run true together
UNDER = 0.4  # mm to a side that the drill leaves in the bore
LONG_BAR = 4.0  # diameters: longer, stock needs a steady behind its free end
DEEPEST_BORE = 10.0  # diameters that a bar bores from both ends


def _long(s: Values) -> float:
    behind = s["journal.length"] + s["collar.length"] + s["cover.length"]
    return float(behind + s["nose.length"])


def _collar(s: Values) -> float:
    """A shoulder for the tube on one side, for the nut on the other."""
    thread = thread_of(str(s["nose.thread"])).major
    return float(max(s["journal.diameter"], thread, _cover(s)) + 6)


def _cover(s: Values) -> float:
    """The step that a cover goes on, over the nut's thread; 0 for none."""
    if not s["cover.length"]:
        return 0.0
    thread = thread_of(str(s["nose.thread"])).major
    return float(s["cap.bore"] if is_there(s, "cap.bore") else thread + 2)


def _step(s: Values) -> float:
    """Diameter of the cover's step; 0 for none."""
    return float(s["cover.diameter"]) if s["cover.length"] else 0.0


def build(s: Values) -> Body:
    long, rear, collar = _long(s), s["journal.length"], s["collar.length"]
    shoulder = rear + collar
    step = shoulder + s["cover.length"]
    features: list[Feature] = [
        End("rear", 0.0, "left"),
        Cylinder("journal", 0.0, rear, s["journal.diameter"], shoulder="right"),
        Cylinder("collar", rear, shoulder, s["collar.diameter"]),
        *nose_features(s, step, long),
        End("front", long, "right"),
        Bore("bore", 0.0, long, s["bore.diameter"], "length"),
        Bevel("rear_edge", 0.0, s["journal.diameter"], 0.5, "left"),
    ]  # fmt: skip
    if s["cover.length"]:
        features.append(
            Cylinder("cover", shoulder, step, s["cover.diameter"], shoulder="left")
        )
    if s["clamp.width"]:
        at = s["clamp.from_end"]
        wide = s["clamp.diameter"]
        features.append(Groove("clamp", at, at + s["clamp.width"], wide))
    if s["pins.count"]:
        features.append(
            CrossHoles("pins", rear + collar / 2, s["collar.diameter"],
                       Hole(s["pins.diameter"], s["pins.depth"], flat=True),
                       s["pins.depth"], int(s["pins.count"]))
        )  # fmt: skip
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    if s["clamp.width"]:
        end = s["clamp.from_end"] + s["clamp.width"]
        yield at_least(
            "clamp-on-journal",
            "clamp",
            min(s["clamp.from_end"], s["journal.length"] - end),
            3.0,
            "Journal on both sides of the recess under the clamp screw",
        )
        yield at_least(
            "clamp-wall",
            "clamp",
            (s["clamp.diameter"] - s["bore.diameter"]) / 2,
            1.5,
            "Wall between that recess and the bore",
        )
    thread = thread_of(str(s["nose.thread"]))
    yield from nose_checks(s)
    yield at_least(
        "journal-wall",
        "journal",
        (s["journal.diameter"] - s["bore.diameter"]) / 2,
        0.12 * s["journal.diameter"],
        "Wall of the journal (0.12 of it)",
    )
    yield at_least(
        "journal-long",
        "journal",
        s["journal.length"],
        s["tube.length"],
        "Journal at least as long as its tube",
        grave=False,
    )
    yield at_least(
        "collar-shoulder",
        "collar",
        (s["collar.diameter"] - max(s["journal.diameter"], thread.major, _step(s))) / 2,
        1.0,
        "Shoulder of the collar on both its sides",
    )
    if s["cover.length"]:
        yield at_least(
            "cover-passes",
            "cover",
            (s["cover.diameter"] - thread.major) / 2,
            0.1,
            "Step of the cover over the thread that the cover is pushed across",
        )
    if s["pins.count"]:
        yield at_least(
            "pins-wall",
            "pins",
            (s["collar.diameter"] - s["bore.diameter"]) / 2 - s["pins.depth"],
            2.0,
            "Metal under the spanner's holes",
        )
        yield at_least(
            "pins-edge",
            "pins",
            (s["collar.length"] - s["pins.diameter"]) / 2,
            1.0,
            "Metal beside the spanner's holes",
        )


def route(s: Values) -> tuple[Holding, ...]:
    both = s["stock.length"] > LONG_DRILL * s["bore.diameter"]
    bored = s["stock.length"] <= DEEPEST_BORE * s["bore.diameter"]
    drilled = "Clear the chips often."
    if both:
        drilled = (
            "From both ends to meet: a plug turned to the first hole sets the second "
            "end true; a step where they meet "
            + ("is bored away." if bored else "does no harm: bars only pass through.")
        )
    thread = thread_of(str(s["nose.thread"]))
    steady = s["stock.length"] > LONG_BAR * s["stock.diameter"]
    band = (
        (
            Step(
                "turn",
                ("collar",),
                leaves=1.0,
                title="Turn a band for the steady on the collar",
                note="Between the chuck and a centre, as wide as the fingers "
                "and as smooth as can be. Oil them, set them one after the other "
                "against the turning work, and look again when it is warm.",
                key="band",
            ),
        )
        if steady
        else ()
    )
    pins = (
        Holding(
            "pins",
            "mill",
            "In a dividing head, by the journal in soft jaws",
            "Holes for a pin spanner: without them the nut cannot be held against.",
            (Step("drill", ("pins",), note="A slot drill or a flat-ended drill leaves "
                  "the floor flat."),),
        ),
    ) if s["pins.count"] else ()  # fmt: skip
    cover = (
        Step("turn", ("cover",), of="the cover's step", fit="cover"),
    ) if s["cover.length"] else ()  # fmt: skip
    clamp = (
        Step("groove", ("clamp",), title="Cut the recess under the clamp screw",
             note="A bruise that stands out would jam the journal in its tube."),
    ) if s["clamp.width"] else ()  # fmt: skip
    return (
        Holding(
            "bore",
            "lathe",
            "In the chuck and a steady, each end in turn"
            if steady
            else "In the chuck, each end in turn",
            "The bore comes first: everything outside is turned true to it.",
            (
                *band,
                Step("face", ("rear",)),
                Step("drill", ("bore",), leaves=UNDER * bored, note=drilled),
                *((Step("bore", ("bore",)),) if bored else ()),
                Step("face", ("front",), title="Turn it round, face to length"),
            ),
        ),
        Holding(
            "outside",
            "lathe",
            "Between centres on plugs in the bore",
            "A wide centre or a plug in each end: what is turned here is true to the "
            "bore.",
            (
                dog_on("the nose's end", "left"),
                Step("turn", ("journal",), leaves=FINISH),
                end_for_end("the roughed journal", "right"),
                Step("turn", ("collar",)),
                *cover,
                Step("thread", ("nose",), note=f"Pitch {thread.pitch:g}; the nut in "
                     "hand tells. It only has to close, the seat centres."),
                Step("bevel", ("nose_edge",), key="nose-edge"),
                end_for_end("the collar" + COPPER, "left"),
                Step("bevel", ("rear_edge",)),
                *clamp,
                Step("turn", ("journal",), title="Finish the journal to its band",
                     fit="journal", note="Read at both ends of it and in its middle."),
                Step("prove", ("journal",), title="Try it in its tube", hold=True,
                     tool="the tube", fit="journal"),
            ),
            "centres",
        ),
        *pins,
        Holding(
            "seat",
            "lathe",
            "By the journal, in a steady or in its own tube",
            "The seat is cut last, turning on the journal that it will run on. Some "
            "set the slide by an indicator along a known taper, others along a new "
            "collet's plug; both finish by blue.",
            (
                Step("mount", (), title="Set the journal true within 2 µm, the slide "
                     f"to {s['seat.half_angle']:g}°", tool="indicator",
                     key="set-true", slide=s["seat.half_angle"]),
                *SEAT_STEPS,
                Step("deburr", ()),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "collet-spindle",
    "Collet spindle",
    "A spindle that takes collets: journal in its tube, threaded nose, tapered seat.",
    "in a tube of 30 mm, for collets of 16 mm at 8 degrees",
    also="ER11 ER16 ER20 ER25 ER32 ER40 collet chuck seat quill nose holder live "
    "spindle",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(collar.diameter + 2, 1)",
             "a clean-up", 10, 300),
        Size("stock.length", "stock length",
             "up(journal.length + collar.length + cover.length + nose.length + 4, 1)",
             "both faces", 20, 800),
        STOCK_BORE,
        Size("journal.diameter", "journal", "tube.bore", low=6, high=200),
        Size("clamp.width", "recess under a clamp screw", "0", "0 for none", 0, 40),
        Size("clamp.from_end", "that recess from the rear end",
             "round((journal.length - clamp.width)/2, 0.5)", "the middle", 1, 900),
        Size("clamp.diameter", "floor of that recess", "journal.diameter - 1",
             "what the screw bruises stays below the journal", 2, 199, step=0.1),
        Size("journal.length", "length of the journal", "tube.length", "as its tube",
             8, 500, by="copy", up=0.1),
        Size("collar.diameter", "collar", _collar, "a shoulder on both sides", 8, 290,
             rests=("journal.diameter", "nose.thread", "cover.length", "cap.bore"),
             up=1),
        Size("collar.length", "length of the collar", "12", "", 2, 100),
        Size("cover.length", "step for a cover", "0", "0 for none", 0, 60),
        Size("cover.diameter", "diameter of that step", _cover,
             "over the nut's thread", 0, 285, rests=("nose.thread", "cover.length")),
        *NOSE_SIZES,
        Size("pins.count", "holes for a pin spanner", "3", "0 for none", 0, 8, COUNT),
        Size("pins.diameter", "spanner's holes", "5", "", 1, 20),
        Size("pins.depth", "depth of those holes", "4", "", 1, 30),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("tube", "the tube it turns in", (
            MateSize("bore", "its bore", 30.01, ("bore",)),
            MateSize("length", "its length", 60.0, ("length", "shoulder")),
        ), around=(
            Ring("journal.begins", "journal.begins + tube.length", "tube.bore"),
        )),
        NUT,
        Mate("cap", "the cover on it", (
            MateSize("bore", "its bore", 34.0, ("bore", "recess"), True),
        ), around=(
            Ring("cover.begins", "cover.ends", "cap.bore"),
        )),
        COLLET,
    ),
    fits=(
        FitSlot("journal", "Journal in its tube", "journal.diameter", "tube.bore",
                "hole", "shaft", "locates"),
        FitSlot("cover", "Cover on its step", "cover.diameter", "cap.bore", "hole",
                "register", "slides"),
    ),
    material="alloy steel",
    runs=True,
    full={"clamp.width": "10"},
    ways=({"pins.count": "0"}, {"journal.length": "200"},
          {"cover.length": "5"}, {"cover.length": "5", "cap.bore": "36"}),
    surfaces={"shaft": "journal.diameter"},
)  # fmt: skip
