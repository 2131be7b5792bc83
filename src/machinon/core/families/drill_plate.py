"""Drill plate: a disc that locates in a bore and guides a drill through bushes on a
circle.

z = 0 is the face that lies on the work, with the spigot below it at the left.
"""

import math
from collections.abc import Iterable

from machinon.core.families._opening import opened
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
from machinon.core.piece.hardware import Hardware, plain_parts, sold_as
from machinon.core.piece.hole_features import Hole, HoleCircle, Holes
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cylinder, End
from machinon.core.quantity import ANGLE, COUNT

OVER = 1.5  # mm: stock over each end
TRUE = 0.05  # mm on the circle: what a jig may be off, as every piece inherits it
GUIDES = 1.5  # diameters of the drill that a bush guides it at least


def _bushed(s: Values) -> bool:
    return bool(s["bush.outside"])


def _hole(s: Values) -> Hole:
    if _bushed(s):
        return Hole(s["holes.diameter"], ream=True)
    return Hole(s["holes.diameter"])


def _seat(s: Values) -> float:
    """The bush's outside; without bushes the drill itself."""
    return float(s["bush.outside"] or s["pattern.drill"])


def _circles(s: Values) -> tuple[float, float]:
    """The circles that still guide the drill to the work's own."""
    return s["holes.circle"] - TRUE, s["holes.circle"] + TRUE


def build(s: Values) -> Body:
    spigot, thick = s["spigot.length"], s["plate.thickness"]
    features: list[Feature] = [
        End("spigot_end", -spigot, "left"),
        Cylinder("spigot", -spigot, 0.0, s["spigot.diameter"], shoulder="right"),
        Cylinder("plate", 0.0, thick, s["plate.diameter"], "thickness"),
        End("top", thick, "right"),
        Bevel("lead", -spigot, s["spigot.diameter"], 0.5, "left"),
    ]
    if s["middle.diameter"]:
        features.append(Bore("middle", -spigot, thick, s["middle.diameter"], "length"))
    pattern = HoleCircle(int(s["holes.count"]), s["holes.circle"], s["holes.start"])
    features.append(Holes("holes", "right", pattern, _hole(s), thick, level=thick))
    if s["pin.diameter"]:
        at = HoleCircle(1, s["holes.circle"], s["holes.start"] + s["pin.turn"])
        features.append(
            Holes("pin", "right", at, Hole(s["pin.diameter"], ream=True), thick,
                  level=thick)
        )  # fmt: skip
    return Body(
        Round(s["stock.diameter"], -spigot - OVER, s["stock.length"] - spigot - OVER),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    half, hole = s["holes.circle"] / 2, s["holes.diameter"]
    guide = s["plate.thickness"]
    yield at_least(
        "guides",
        "holes",
        guide,
        GUIDES * s["pattern.drill"],
        "Length that guides the drill (one and a half times it)",
    )
    yield at_least(
        "edge",
        "holes",
        (s["plate.diameter"] - hole) / 2 - half,
        max(2.0, hole / 4),
        "Metal outside of the holes (a quarter of a hole)",
    )
    spigot = s["spigot.diameter"] / 2
    yield at_least(
        "holes-spigot",
        "holes",
        max(half - hole / 2 - spigot, spigot - half - hole / 2),
        0.5,
        "Metal between the holes and the side of the spigot",
    )
    if s["middle.diameter"]:
        yield at_least(
            "middle-wall",
            "middle",
            (s["spigot.diameter"] - s["middle.diameter"]) / 2,
            2.0,
            "Wall of the spigot",
        )
    yield at_least(
        "spigot-short",
        "spigot",
        s["part.depth"] - s["spigot.length"],
        0.5,
        "Bore deeper than the spigot is long: the plate must lie on the work",
    )
    yield at_least(
        "spigot-guides",
        "spigot",
        s["spigot.length"],
        2.0,
        "Length of the spigot, so that it centres",
    )
    yield at_least(
        "between-holes",
        "holes",
        s["holes.circle"] * math.sin(math.pi / max(s["holes.count"], 2)) - hole,
        max(1.5, hole / 4),
        "Metal between two holes (a quarter of a hole)",
    )
    if s["pin.diameter"]:
        turn = abs((s["pin.turn"] + 180 / s["holes.count"]) % (360 / s["holes.count"])
                   - 180 / s["holes.count"])  # fmt: skip
        chord = s["holes.circle"] * math.sin(math.radians(turn / 2))
        yield at_least(
            "pin-clear",
            "pin",
            chord - (hole + s["pin.diameter"]) / 2,
            1.0,
            "Metal between the pin's hole and the nearest other",
        )
        yield at_least(
            "pin-edges",
            "pin",
            min(s["plate.diameter"] / 2 - half, half - spigot) - s["pin.diameter"] / 2,
            0.5,
            "Metal between the pin's hole and the edge or the spigot",
        )


def route(s: Values) -> tuple[Holding, ...]:
    bushed = _bushed(s)
    pin = (Step("drill", ("pin",)), Step("ream", ("pin",))) if s["pin.diameter"] else ()
    made = (
        (
            Step("drill", ("holes",)),
            Step(
                "ream",
                ("holes",),
                note="Bushes are pressed: 10 to 20 µm under their outside.",
            ),
        )
        if bushed
        else (Step("drill", ("holes",)),)
    )
    bushes = (
        Holding(
            "bushes",
            "bench",
            "Under the press",
            "Bushes go in square, their lead down.",
            (Step("press", (), title="Press the bushes in", key="bushes"),),
        ),
    ) if bushed else ()  # fmt: skip
    return (
        Holding(
            "turning",
            "lathe",
            "In the chuck, spigot out",
            "Spigot, its face and the middle in one chucking.",
            (
                Step("face", ("spigot_end",)),
                *opened("middle", s["middle.diameter"]),
                Step("turn", ("plate",)),
                Step("turn", ("spigot",), fit="spigot"),
                Step("bevel", ("lead",)),
                Step("prove", ("spigot",), title="Try it in the work's bore",
                     tool="the work", hold=True, fit="spigot"),
            ),
            "jaws",
        ),
        Holding(
            "top",
            "lathe",
            "Turned round, in soft jaws by the plate",
            "Both faces parallel: the drill is square to the upper one.",
            (Step("face", ("top",), title="Face to its thickness"),),
        ),
        Holding(
            "holes",
            "mill",
            "On the table or the rotary table, set true by the spigot's bore",
            "Every hole from the spigot's middle, by read-out or by the table's "
            "degrees; one tool round the whole circle.",
            (
                *made,
                *pin,
                Step("mark", (), title="Mark the face and the first hole",
                     tool="stamps", key="mark"),
                Step("deburr", ()),
            ),
        ),
        *bushes,
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    if _bushed(s):
        wide, drill = s["bush.outside"], s["pattern.drill"]
        name = f"bush {sold_as(drill)} × {sold_as(wide)}"
        count = int(s["holes.count"])
        yield Hardware("drill bush", name, wide, 0.0, count, "guide the drill")
    if s["pin.diameter"]:
        yield plain_parts("dowel", s["pin.diameter"], 1, "in a hole that is drilled")


FAMILY = Family(
    "drill-plate",
    "Drill plate",
    "Centres itself in a bore and guides the drill round a bolt circle.",
    "in a bore of 40 mm, six holes of 6.8 on 60",
    also="jig drill bush centring disc template bolt circle guide",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(plate.diameter + 2, 1)",
             "a clean-up", 10, 520),
        Size("stock.length", "stock length",
             "up(plate.thickness + spigot.length + 12, 1)", "and what the jaws hold", 8,
             200),
        STOCK_BORE,
        Size("plate.diameter", "plate", "up(holes.circle + 2.5*holes.diameter, 1)",
             "past its holes", 8, 500),
        Size("plate.thickness", "thickness of the plate",
             "up(max(1.5*pattern.drill, 8), 1)", "what guides the drill", 3, 80),
        Size("spigot.diameter", "spigot", "part.bore", low=4, high=450),
        Size("spigot.length", "length of the spigot",
             "min(down(part.depth - 1, 0.5), 8)", "short of the bore", 1, 80),
        Size("middle.diameter", "hole in the middle", "down(part.bore/2, 1)",
             "to set it by; 0 for none", 0, 300),
        Size("holes.count", "holes", "pattern.count", "as the work", 1, 60, COUNT,
             by="copy"),
        Size("holes.circle", "bolt circle", "pattern.circle", "as the work", 6, 480,
             by="copy", step=0.01, limits=_circles),
        Size("holes.diameter", "hole for a bush", _seat, "the bush, or the drill", 1,
             80, rests=("bush.outside",)),
        Size("holes.start", "angle of the first", "90", "at the top", -360, 360,
             ANGLE),
        Size("bush.outside", "outside of a bush", "0", "0 without bushes", 0, 80),
        Size("pin.diameter", "hole for an indexing pin", "0", "0 for none", 0, 40,
             at="pin.drill"),
        Size("pin.turn", "pin from the first hole", "180/holes.count",
             "half a pitch on", -360, 360, ANGLE),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("part", "the work", (
            MateSize("bore", "its bore", 40.02, ("bore", "recess")),
            MateSize("depth", "depth of its bore", 12.0, ("recess-depth", "depth")),
        ), around=(
            Ring("plate.begins - part.depth", "plate.begins", "part.bore",
                 "max(plate.diameter, 1.3*part.bore)"),
        )),
        Mate("pattern", "the holes wanted", (
            MateSize("count", "how many", 6.0, kind=COUNT),
            MateSize("circle", "their circle", 60.0),
            MateSize("drill", "the drill", 6.8),
        )),
    ),
    fits=(
        FitSlot("spigot", "Spigot in the work", "spigot.diameter", "part.bore", "hole",
                "register", "slides"),
    ),
    full={"bush.outside": "12", "pin.diameter": "6", "holes.circle": "70"},
    surfaces={"register": "spigot.diameter", "bolt-circle": "holes.circle"},
)  # fmt: skip
