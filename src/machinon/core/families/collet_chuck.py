"""Collet chuck: a taper shank in front of which a nut draws collets into their seat.

z = 0 is the small end of the shank, or of its tang; the collar, the nose and the
collet's seat are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._between_centres import (
    COPPER,
    dog_on,
    each_end,
    end_for_end,
)
from machinon.core.families._collet_nose import (
    COLLET,
    NOSE_SIZES,
    NUT,
    SEAT_STEPS,
    nose_checks,
    nose_features,
)
from machinon.core.families._opening import opened
from machinon.core.families._taper_shank import (
    GUIDED,
    SHANK_LONG,
    SOCKET,
    TANGED,
    draw_hole_end,
    finished_shank,
    rough_shank,
    shank_checks,
    shank_features,
    shank_sizes,
    small_end_steps,
    tang_holding,
    taper_ends,
    tapered,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import POINT, Feature
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Cylinder, End
from machinon.core.setting_out.cones import cone_depth
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
BEHIND = 5.0  # mm: metal between the bore's point and the draw bar's hole, at least


def _stations(s: Values) -> tuple[float, float, float]:
    """End of the taper, of the collar, and the front face, z."""
    _, taper = tapered(s)
    collar = taper + s["collar.length"]
    return taper, collar, collar + s["nose.length"]


def _long(s: Values) -> float:
    return _stations(s)[-1] + 2 * OVER


def _collar(s: Values) -> float:
    """A shoulder for the nut, and flats over the thread."""
    thread = thread_of(str(s["nose.thread"])).major
    return float(max(thread, s["shank.large"]) + 6)


def build(s: Values) -> Body:
    taper, collar, front = _stations(s)
    features: list[Feature] = [
        *shank_features(s),
        Cylinder("collar", taper, collar, s["collar.diameter"], shoulder="left"),
        End("front", front, "right"),
        Bore("bore", front - s["bore.depth"], front, s["bore.diameter"],
             opens="right", pointed=True),
        *nose_features(s, collar, front),
    ]  # fmt: skip
    if s["flats.across"]:
        features.append(Flats("flats", taper, collar, s["flats.across"], 2))
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    taper, _, front = _stations(s)
    large, _ = taper_ends(s)
    floor = front - s["bore.depth"]
    yield from nose_checks(s)
    yield at_least(
        "collar-shoulder",
        "collar",
        (s["collar.diameter"] - thread_of(str(s["nose.thread"])).major) / 2,
        1.0,
        "Shoulder of the collar behind the nut",
    )
    yield at_least(
        "bore-deep",
        "bore",
        s["bore.depth"] - s["seat.length"],
        s["collet.largest"],
        "Bore behind the seat for the bar (its diameter)",
    )
    if floor < taper:
        across = large - taper_of(str(s["shank.taper"])).ratio * (taper - floor)
        yield at_least(
            "bore-wall",
            "bore",
            (across - s["bore.diameter"]) / 2,
            max(2.0, 0.1 * large),
            "Wall of the shank round the bore's end (0.1 of it)",
        )
    yield at_least(
        "holes-meet",
        "bore",
        floor - cone_depth(s["bore.diameter"], POINT) - draw_hole_end(s),
        BEHIND,
        "Metal between the bore and the other end, or the draw bar's hole",
    )
    if s["flats.across"]:
        yield at_least(
            "flats-wall",
            "flats",
            (s["flats.across"] - s["bore.diameter"]) / 2,
            2.0,
            "Wall of the collar under its flats",
        )
        yield at_least(
            "flats-grip",
            "flats",
            s["collar.diameter"] - s["flats.across"],
            1.0,
            "Collar over its flats, so that a spanner holds it",
        )
    yield from shank_checks(s)


def route(s: Values) -> tuple[Holding, ...]:
    half = s["seat.half_angle"]
    thread = thread_of(str(s["nose.thread"]))
    flats = (
        Holding(
            "flats",
            "mill",
            "In a dividing head, by the collar's end or between centres",
            "Without flats nothing holds against the nut's spanner.",
            (
                Step("mill", ("flats",), note="The same off both sides."),
                Step("deburr", ("flats",), key="deburr-flats"),
            ),
        ),
    )
    return (
        each_end(
            "Both ends get their holes first: everything outside is turned between "
            "them.",
            (
                *small_end_steps(s),
                Step("face", ("front",), title="Turn it round, face to length"),
                *opened("bore", s["bore.diameter"], "Clear the chips often. Break its "
                        "edge at 60° for a wide centre: the seat takes that away "
                        "again."),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, a wide one or a plug in the bore",
            "Shank, collar and nose run true to each other by the same two centres. "
            "The shank is finished last: no dog stands on it then.",
            (
                dog_on("the nose's end", "left"),
                *rough_shank(s),
                end_for_end("the roughed shank", "right"),
                Step("turn", ("collar",)),
                Step("thread", ("nose",), note=f"Pitch {thread.pitch:g}; the nut in "
                     "hand tells. It only has to close, the seat centres."),
                Step("bevel", ("nose_edge",)),
                end_for_end("the collar" + COPPER, "left"),
                *finished_shank(s),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *(flats if s["flats.across"] else ()),
        *tang_holding(s),
        Holding(
            "seat",
            "lathe",
            "By its taper in the spindle, or in a sleeve there",
            "The seat is cut last, turning on the taper that it will run on: drawn "
            "home, everything wiped.",
            (
                Step("mount", (), title=f"Draw it home, set the slide to {half:g}°",
                     tool="indicator, draw bar", key="set-slide",
                     note="Read the run-out on the collar first: what it shows here "
                     "the seat will have in the machine it is for.",
                     slide=half),
                *SEAT_STEPS,
                Step("deburr", (), key="deburr-seat"),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "collet-chuck",
    "Collet chuck",
    "Holds bars and cutters in collets, on a taper shank drawn into a spindle.",
    "on a Morse 3 shank, for collets of 16 mm at 8 degrees",
    also="ER11 ER16 ER20 ER25 ER32 ER40 collet holder milling chuck Morse MT2 MT3 R8 "
    "nut end mill holder",
    sizes=(
        Size("stock.diameter", "stock diameter",
             "up(max(collar.diameter, shank.large) + 2, 1)", "a clean-up", 10, 300),
        Size("stock.length", "stock length", _long, "both faces", 20, 800, up=1,
             rests=(*SHANK_LONG, "collar.length", "nose.length")),
        *shank_sizes(),
        Size("collar.diameter", "collar", _collar, "a shoulder for the nut", 8, 290,
             rests=("nose.thread", "shank.large"), up=1),
        Size("collar.length", "length of the collar", "12", "for a spanner", 2, 100),
        Size("flats.across", "flats for a spanner", "down(collar.diameter - 3, 1)",
             "to hold against the nut; 0 for none", 0, 280),
        *NOSE_SIZES,
        Size("bore.depth", "depth of the bore",
             "max(nose.length + collar.length, seat.length + collet.largest + 1)",
             "room for the bar behind the seat", 4, 400, up=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(SOCKET, NUT, COLLET),
    material="alloy steel",
    runs=True,
    ways=({"flats.across": "0"}, TANGED, GUIDED),
)  # fmt: skip
