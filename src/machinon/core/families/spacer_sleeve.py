"""Spacer sleeve: a plain sleeve whose length closes a chain between two faces."""

from collections.abc import Iterable

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
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Bore, Cylinder, End

BREAK = 0.5  # mm: leg of its broken edges
PARTED = 1.0  # mm: left on where it is parted off, to be faced


def build(s: Values) -> Body:
    long, bore, out = s["sleeve.length"], s["bore.diameter"], s["sleeve.diameter"]
    return Body(
        Round(s["stock.diameter"], long + 1.0 - s["stock.length"], long + 1.0),
        (
            End("left_face", 0.0, "left"),
            Cylinder("sleeve", 0.0, long, out),
            Bore("bore", 0.0, long, bore, "length"),
            End("right_face", long, "right"),
            Bevel("left_edge", 0.0, out, BREAK, "left"),
            Bevel("right_edge", long, out, BREAK, "right"),
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    wall = (s["sleeve.diameter"] - s["bore.diameter"]) / 2
    yield at_least("wall", "sleeve", wall, 1.0, "Wall of the sleeve")
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - s["sleeve.length"],
        2.0 + PARTED,
        "Stock over the length to face it and part it off",
    )


def route(s: Values) -> tuple[Holding, ...]:
    return (
        Holding(
            "first-end",
            "lathe",
            "In the chuck",
            "Bore, outside and one face are cut in one chucking, true to each other.",
            (
                Step("face", ("right_face",)),
                Step("drill", ("bore",), leaves=0.5),
                Step("bore", ("bore",), fit="bore"),
                Step("turn", ("sleeve",)),
                Step("bevel", ("right_edge",)),
                Step("prove", ("bore",), hold=True, fit="bore"),
                Step("part", ("left_face",), leaves=PARTED),
            ),
            "jaws",
        ),
        Holding(
            "second-end",
            "lathe",
            "Turned round, in soft jaws or on an arbor",
            "Its length is cut last, by facing: the face must be square to the bore.",
            (
                Step("face", ("left_face",), title="Face to length, bit by bit"),
                Step("bevel", ("left_edge",)),
                Step("prove", ("sleeve",), title="Try it between its faces"),
                Step("deburr", ()),
            ),
        ),
    )


FAMILY = Family(
    "spacer-sleeve",
    "Spacer sleeve",
    "A sleeve on a shaft whose length closes the chain between two faces.",
    "on a shaft of 20 mm, in a gap of 45.03 mm with 0.05 to 0.10 of play",
    also="bush bushing ring collar distance piece thrust washer shim bearing tube",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(sleeve.diameter + 2, 1)",
             "a clean-up", 3, 300),
        Size("stock.length", "stock length", "up(1.25*sleeve.length + 10, 1)",
             "and what the jaws hold", 3, 600),
        STOCK_BORE,
        Size("sleeve.diameter", "outside", "bore.diameter + 8", "a wall of 4", 2,
             300, step=1),
        Size("sleeve.length", "length", "gap.between", low=1, high=500),
        Size("bore.diameter", "bore", "shaft.diameter", low=1, high=200),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("shaft", "the shaft", (
            MateSize("diameter", "its diameter", 19.99, ("shaft", "register")),
        ), around=(
            Ring("-shaft.diameter", "gap.between + shaft.diameter",
                 outside="shaft.diameter"),
        )),
        Mate("gap", "where it goes", (
            MateSize("between", "between its faces", 45.03, ("length", "depth")),
            MateSize("least", "least play along the shaft", 0.05),
            MateSize("most", "most play along the shaft", 0.10),
        ), around=(
            Ring("-shaft.diameter/4", "0", "shaft.diameter",
                 "1.4*sleeve.diameter"),
            Ring("gap.between", "gap.between + shaft.diameter/4", "shaft.diameter",
                 "1.4*sleeve.diameter"),
        )),
    ),
    fits=(
        FitSlot("bore", "Bore on the shaft", "bore.diameter", "shaft.diameter", "shaft",
                "shaft", "goes-on"),
    ),
    chains=(
        Chain("length", "Sleeve between its faces", "sleeve.length",
              (("gap.between", 1),), "gap.least", "gap.most"),
    ),
    surfaces={"bore": "bore.diameter", "shaft": "sleeve.diameter",
              "length": "sleeve.length"},
)  # fmt: skip
