"""Chuck arbor: a taper shank that carries a drill chuck, a die holder or a stop.

z = 0 is the small end of the shank, or of its tang; the collar and what is in front of
it, a short taper, a round or a thread, are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._arbor_head import FINISH
from machinon.core.families._between_centres import (
    COPPER,
    HOLES_AND_CENTRES,
    dog_on,
    each_end,
    end_for_end,
)
from machinon.core.families._taper_shank import (
    GUIDED,
    SHANK_LONG,
    SOCKET,
    TANGED,
    finished_shank,
    near_to,
    rough_shank,
    shank_checks,
    shank_features,
    shank_sizes,
    small_end_steps,
    solid_checks,
    tang_holding,
    tapered,
)
from machinon.core.families._tapers import inner_end, large_end, usual_length
from machinon.core.families._tapped import lead_in
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
    is_there,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Centre,
    Cone,
    Cylinder,
    End,
    Screw,
)
from machinon.core.reckoning import TEXT
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
SLIM = 10.0  # lengths to one of diameter: a steeper taper lets go by itself


def _is(s: Values, kind: str) -> bool:
    """Whether that is what is in front of the collar."""
    return bool(s["front.kind"] == kind)


def _kind(s: Values) -> str:
    """A round for what slides on it, else a taper."""
    return "round" if is_there(s, "sleeve.bore") else "taper"


def _taper(s: Values) -> str:
    return str(s["chuck.taper"]) if _is(s, "taper") else "none"


def _large(s: Values) -> float:
    return large_end(_taper(s), "cone.large") if _is(s, "taper") else 5.0


def _cone_long(s: Values) -> float:
    return usual_length(_taper(s), "cone.large") if _is(s, "taper") else 10.0


def _tip(s: Values) -> float:
    """Small end of the taper in front."""
    ratio, large = taper_of(str(s["cone.taper"])).ratio, float(s["cone.large"])
    return inner_end(
        large, ratio, float(s["cone.length"]), "cone.length", "length of the taper"
    )


def _round(s: Values) -> float:
    return float(s["sleeve.bore"]) if _is(s, "round") else 0.0


def _thread(s: Values) -> str:
    return "M12" if _is(s, "thread") else "none"


def _wide(s: Values) -> float:
    """Largest diameter of what is in front."""
    if _is(s, "thread"):
        return thread_of(str(s["stud.thread"])).major
    return float(s["cone.large"] if _is(s, "taper") else s["spindle.diameter"])


def _front_length(s: Values) -> float:
    lengths = {"taper": "cone.length", "round": "spindle.length"}
    return float(s[lengths.get(str(s["front.kind"]), "stud.length")])


def _collar(s: Values) -> float:
    """Over the socket and over what is in front, to be knocked off by."""
    return float(max(s["shank.large"], _wide(s)) + 4)


def _stations(s: Values) -> tuple[float, float, float]:
    """End of the shank's taper, of the collar, and of it all, z."""
    _, taper = tapered(s)
    collar = taper + float(s["collar.length"])
    return taper, collar, collar + _front_length(s)


def _long(s: Values) -> float:
    return _stations(s)[-1] + 2 * OVER


def build(s: Values) -> Body:
    taper, collar, end = _stations(s)
    features: list[Feature] = [
        *shank_features(s),
        Cylinder("collar", taper, collar, s["collar.diameter"], shoulder="left"),
        End("front", end, "right"),
    ]
    if _is(s, "taper"):
        name, tip = str(s["cone.taper"]), _tip(s)
        features.append(Cone("cone", collar, end, s["cone.large"], tip, name))
    elif _is(s, "round"):
        tip = float(s["spindle.diameter"])
        features += [
            Cylinder("spindle", collar, end, tip, shoulder="left"),
            Bevel("spindle_edge", end, tip, 1.0, "right"),
        ]
    else:
        thread = str(s["stud.thread"])
        tip = thread_of(thread).minor_external
        features += [
            Screw("stud", collar, end, thread, runs_out="left"),
            lead_in("stud_edge", end, thread, "right"),
        ]
    features.append(Centre("front_centre", end, "right", round(0.35 * tip, 1)))
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    taper, _, _ = _stations(s)
    yield at_least(
        "collar-over",
        "collar",
        (s["collar.diameter"] - _wide(s)) / 2,
        1.0,
        "Collar over what is in front, to bear against or knock it off by",
    )
    if _is(s, "taper"):
        name = str(s["cone.taper"])
        slim = 1 / taper_of(name).ratio
        holds = slim >= SLIM
        what = "slim enough" if holds else f"too steep (1 : {SLIM:g} at the most)"
        says = f"A taper of 1 : {slim:.4g} in front is {what} to hold by itself."
        yield Check("cone-holds", "cone", holds, says)
        if own := taper_of(name).length:
            yield at_least(
                "cone-bears",
                "cone",
                _front_length(s),
                0.8 * own,
                "Length of the taper in front (0.8 of its own)",
            )
    if _is(s, "round"):
        yield at_least(
            "spindle-stiff",
            "spindle",
            10 * s["spindle.diameter"],
            _front_length(s),
            "Ten diameters for the length of the round",
            grave=False,
        )
    yield from solid_checks(s, taper)
    yield from shank_checks(s)


def _front_steps(s: Values) -> tuple[Step, ...]:
    """What is in front, with the dog on the roughed shank."""
    if _is(s, "thread"):
        pitch = thread_of(str(s["stud.thread"])).pitch
        return (
            Step("thread", ("stud",), note=f"Pitch {pitch:g}; to what screws on it, "
                 "home against the collar."),
            Step("bevel", ("stud_edge",)),
        )  # fmt: skip
    if _is(s, "round"):
        return (
            Step("turn", ("spindle",), leaves=FINISH),
            Step("turn", ("spindle",), fit="spindle", note="All along in one cut: "
                 "read both ends, the tailstock may stand out of line."),
            Step("bevel", ("spindle_edge",)),
            Step("prove", ("spindle",), title="Try it in what slides on it", hold=True,
                 tool="the sleeve", fit="spindle"),
        )  # fmt: skip
    half = taper_of(str(s["cone.taper"])).half_angle
    return (
        Step("taper", ("cone",), leaves=FINISH,
             title=f"Rough the front taper, compound at {half:.4f}°",
             note="Its thin end is out, as the shank's was: the slide leans the same "
             "way, by an angle of its own."),
        Step("taper", ("cone",), title="Finish the front taper to its blue"),
        Step("prove", ("cone",), title="Blue it in the chuck's bore", hold=True,
             tool="the chuck, blue", note="Clean and dry; a chuck that was driven on "
             "does not come off to try again."),
    )  # fmt: skip


def route(s: Values) -> tuple[Holding, ...]:
    return (
        each_end(
            HOLES_AND_CENTRES,
            (
                *small_end_steps(s),
                Step("face", ("front",), title="Turn it round, face to length"),
                Step("centre", ("front_centre",)),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Both ends run true to each other by the same two centres. The shank is "
            "roughed first and finished last: no dog stands on it then.",
            (
                dog_on("the bar's front end", "left"),
                *rough_shank(s),
                end_for_end("the roughed shank", "right"),
                Step("turn", ("collar",)),
                *_front_steps(s),
                end_for_end("the collar" + COPPER, "left"),
                *finished_shank(s),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *tang_holding(s),
    )


FAMILY = Family(
    "chuck-arbor",
    "Chuck arbor",
    "Carries a drill chuck, a die holder or a stop on a taper shank.",
    "on a Morse 3 shank, for a chuck of Jacobs taper 33",
    also="drill chuck arbor Jacobs JT33 die holder tailstock spindle stub shank centre",
    sizes=(
        Size("stock.diameter", "stock diameter",
             "up(max(collar.diameter, shank.large) + 2, 1)", "a clean-up", 8, 300),
        Size("stock.length", "stock length", _long, "both faces", 20, 900, up=1,
             rests=(*SHANK_LONG, "collar.length", "front.kind", "cone.length",
                    "spindle.length", "stud.length")),
        *shank_sizes(),
        Size("front.kind", "what is in front", _kind, "a taper, or a round for what "
             "slides on it", kind=TEXT, choices=("taper", "round", "thread"),
             rests=("sleeve.bore",)),
        Size("collar.diameter", "collar", _collar, "over both sides of it", 6, 290,
             rests=("shank.large", "front.kind", "cone.large", "spindle.diameter",
                    "stud.thread"), up=1),
        Size("collar.length", "length of the collar", "6", "", 1, 100),
        Size("cone.taper", "taper in front", _taper, "as the chuck has", kind=TEXT,
             rests=("front.kind", "chuck.taper")),
        Size("cone.large", "large end of the front taper", _large, "by its standard",
             3, 200, rests=("front.kind", "cone.taper"), step=0.001,
             limits=near_to("cone.large")),
        Size("cone.length", "length of the front taper", _cone_long, "by its standard",
             5, 300, rests=("front.kind", "cone.taper"), step=0.1),
        Size("spindle.diameter", "round in front", _round, "0 for none", 0, 150,
             rests=("front.kind", "sleeve.bore")),
        Size("spindle.length", "length of the round", "80", "", 5, 500),
        Size("stud.thread", "thread in front", _thread, "as what screws on it",
             kind=TEXT, rests=("front.kind",)),
        Size("stud.length", "length of that thread", "20", "", 3, 200),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        SOCKET,
        Mate("chuck", "the chuck it carries", (
            MateSize("taper", "its taper", "JT33", ("taper-in",), True),
        ), seats="cone.begins"),
        Mate("sleeve", "what slides on it", (
            MateSize("bore", "its bore", 16.02, ("bore",), True),
        ), around=(
            Ring("spindle.ends - sleeve.bore", "spindle.ends", "sleeve.bore"),
        )),
    ),
    fits=(
        FitSlot("spindle", "Round in what slides on it", "spindle.diameter",
                "sleeve.bore", "hole", "shaft", "moves"),
    ),
    runs=True,
    ways=(TANGED, GUIDED, {"front.kind": "thread"}, {"sleeve.bore": "16.02"}),
)  # fmt: skip
