"""Sliding die holder: holds a round die square to the work, guided on a round arbor.

z = 0 is the rear end, which slides onto the arbor; the die is at the right.
"""

from collections.abc import Iterable

from machinon.core.families._tapped import tap_drill, thread_within
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
from machinon.core.piece.hardware import Hardware, set_screws
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cylinder, End
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

OVER = 1.0  # mm: stock over its front
PARTED = 1.0  # mm: left on where it is parted off, to be faced
LEAST_SEAT = 1.5  # mm: of the shoulder that the die lies against
SCREWS = 3  # one into its slit, and one on either side of that


def _long(s: Values) -> float:
    return float(s["guide.length"] + s["clear.depth"] + s["recess.depth"])


def _wall(s: Values) -> float:
    """Metal round the die, which its screws are tapped in."""
    return float(s["body.diameter"] - s["recess.diameter"]) / 2


def _screw(s: Values) -> str:
    """Screws that have metal in front of them."""
    return thread_within(0.6 * s["die.thickness"], "M6", "M5", "M4", "M3")


def build(s: Values) -> Body:
    long, wide = _long(s), s["body.diameter"]
    floor = long - s["recess.depth"]
    thread = thread_of(str(s["screws.thread"])).name
    hole = Hole(tap_drill(thread), thread=thread)
    middle = long - s["recess.depth"] / 2
    features: list[Feature] = [
        End("rear", 0.0, "left"),
        Cylinder("body", 0.0, long, wide),
        End("front", long, "right"),
        Bore("bore", 0.0, long, s["bore.diameter"], "length"),
        Bore("clear", floor - s["clear.depth"], floor, s["clear.diameter"],
             opens="right"),
        Bore("recess", floor, long, s["recess.diameter"], opens="right"),
        Bevel("rear_edge", 0.0, wide, 1.0, "left"),
        Bevel("front_edge", long, wide, 1.0, "right"),
        CrossHoles("screws", middle, wide, hole, _wall(s), SCREWS, end_at=long,
                   apart=s["screws.apart"]),
    ]  # fmt: skip
    if s["bar.diameter"]:
        bar = Hole(s["bar.diameter"], s["bar.depth"], flat=True)
        at = s["guide.length"] / 2
        features.append(CrossHoles("bar", at, wide, bar, s["bar.depth"]))
    return Body(
        Round(s["stock.diameter"], long + OVER - s["stock.length"], long + OVER),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    screw = thread_of(str(s["screws.thread"]))
    bites = material(str(s["material"])).engagement
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - _long(s),
        OVER + PARTED + 2.0,
        "Stock over the length to face it and part it off",
    )
    yield at_least(
        "screws-thread",
        "screws",
        _wall(s),
        bites * screw.major,
        f"Thread of the die's screws in {s['material']} ({bites:g} of their diameter)",
    )
    yield at_least(
        "screws-edge",
        "screws",
        (s["recess.depth"] - screw.major) / 2,
        1.0,
        "Metal in front of the die's screws",
    )
    yield at_least(
        "die-seat",
        "recess",
        (s["recess.diameter"] - s["clear.diameter"]) / 2,
        LEAST_SEAT,
        "Shoulder that the die lies against",
    )
    yield at_least(
        "die-inside",
        "recess",
        s["recess.depth"],
        0.8 * s["die.thickness"],
        "Depth of the recess (0.8 of the die)",
    )
    yield at_least(
        "clear-bore",
        "clear",
        s["clear.diameter"] - s["bore.diameter"],
        0.0,
        "Room for chips behind the die over the bore",
        grave=False,
    )
    yield at_least(
        "guide-long",
        "bore",
        s["guide.length"],
        1.5 * s["bore.diameter"],
        "Length that guides on the arbor (1.5 of its diameter), or it cocks",
    )
    if s["bar.diameter"]:
        yield at_least(
            "bar-wall",
            "bar",
            (s["body.diameter"] - s["bore.diameter"]) / 2 - s["bar.depth"],
            1.5,
            "Metal under the hole for a bar",
        )


def route(s: Values) -> tuple[Holding, ...]:
    screws = (
        Step("drill", ("screws",), of="the die's screws"),
        Step("tap", ("screws",), of="the die's screws"),
    )
    bar = (
        Step("drill", ("bar",), of="a bar to hold it by",
             note="A slot drill or a flat-ended drill leaves the floor flat."),
    )  # fmt: skip
    return (
        Holding(
            "front",
            "lathe",
            "In the chuck, the die's end out",
            "Bore and recess in one chucking: the die stands square to what guides it "
            "only so.",
            (
                Step("face", ("front",)),
                Step("turn", ("body",)),
                Step("bevel", ("front_edge",)),
                Step("drill", ("bore",), leaves=0.5),
                Step("bore", ("bore",), fit="bore", note="Right through: try the arbor "
                     "along all of it."),
                Step("bore", ("clear",), of="the room behind the die"),
                Step("bore", ("recess",), fit="recess", note="A sharp corner, or the "
                     "die rides on it: undercut it a little."),
                Step("prove", ("bore", "recess"), title="Try arbor and die before "
                     "unchucking", tool="the arbor, the die", hold=True, fit="bore"),
                Step("part", ("rear",), leaves=PARTED),
            ),
            "jaws",
        ),
        Holding(
            "rear",
            "lathe",
            "Turned round, in soft jaws",
            "Its rear only has to be clean.",
            (
                Step("face", ("rear",), title="Turn it round, face to length"),
                Step("bevel", ("rear_edge",)),
            ),
        ),
        Holding(
            "screws",
            "mill",
            "In a dividing head or vee block, by the body",
            "The middle screw points into the die's slit and spreads it; the other two "
            "hold it in its dimples and close it.",
            (*screws, *(bar if s["bar.diameter"] else ()), Step("deburr", ())),
        ),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    # they stand out: a key turns them while the die is set
    most = _wall(s) + thread_of(str(s["screws.thread"])).major
    yield set_screws(str(s["screws.thread"]), SCREWS, "set the die", most)


FAMILY = Family(
    "die-holder",
    "Die holder",
    "Holds a round die square to the work, sliding on an arbor in the tailstock.",
    "for a die of 25 mm, on an arbor of 16 mm",
    also="tailstock die threading button round sliding tap holder chaser",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(body.diameter + 2, 1)",
             "a clean-up", 10, 200),
        Size("stock.length", "stock length",
             "up(1.2*(guide.length + clear.depth + recess.depth) + 15, 1)",
             "and what the jaws hold", 15, 400),
        STOCK_BORE,
        Size("body.diameter", "body", "up(die.outside + 14, 1)",
             "a wall for the die's screws", 12, 190),
        Size("guide.length", "length that guides", "up(2.5*arbor.diameter, 1)",
             "two and a half of the arbor's diameter", 5, 200),
        Size("bore.diameter", "bore", "arbor.diameter", low=3, high=100),
        Size("clear.diameter", "room behind the die", "down(die.outside*0.8, 0.5)",
             "for chips, short of the die's edge", 3, 150),
        Size("clear.depth", "depth of that room", "8", "", 1, 100),
        Size("recess.diameter", "recess for the die", "die.outside", low=6, high=160),
        Size("recess.depth", "depth of the recess", "die.thickness", "as the die", 2,
             60, by="copy", step=0.1),
        Size("screws.thread", "the die's screws", _screw, "within the die's thickness",
             kind=TEXT),
        Size("screws.apart", "from screw to screw round it", "60",
             "as the die's dimples are", 20, 150, ANGLE),
        Size("bar.diameter", "hole for a bar", "8", "0 for none", 0, 30),
        Size("bar.depth", "depth of that hole", "8", "", 2, 60),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("arbor", "the arbor it slides on", (
            MateSize("diameter", "its diameter", 16.0, ("shaft",)),
        ), around=(
            Ring("-2*arbor.diameter", "guide.length", outside="arbor.diameter"),
        )),
        Mate("die", "the die", (
            MateSize("outside", "its diameter", 25.0, ("shaft",)),
            MateSize("thickness", "its thickness", 9.0, ("thickness", "length")),
        ), around=(
            Ring("recess.begins", "recess.begins + die.thickness", "die.outside/2",
                 "die.outside"),
        )),
    ),
    fits=(
        FitSlot("bore", "Bore on the arbor", "bore.diameter", "arbor.diameter", "shaft",
                "shaft", "moves"),
        FitSlot("recess", "Recess round the die", "recess.diameter", "die.outside",
                "shaft", "shaft", "goes-on"),
    ),
    runs=True,
    ways=({"bar.diameter": "0"},),
    surfaces={"bore": "bore.diameter"},
)  # fmt: skip
