"""Flange plate: carries a chuck on a spindle whose nose is a flange with a straight
register, as small lathes have it.
"""

from collections.abc import Iterable

from machinon.core.families._nose_plate import (
    CAUTIONS,
    CHUCK,
    CHUCK_FITS,
    nose_checks,
    nose_hardware,
    nose_plate,
    nose_route,
    nose_screws,
    nose_sizes,
    spindle,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.turned_features import Bore


def build(s: Values) -> Body:
    deep, wide = s["register.depth"], s["register.diameter"]
    return nose_plate(s, Bore("register", 0.0, deep, wide, opens="left"))


def checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "register-clears",
        "register",
        s["register.depth"] - s["spindle.register_length"],
        0.3,
        "Room past the end of the nose: the flange must seat, not the nose",
    )
    yield at_least(
        "register-guides",
        "register",
        min(s["register.depth"], s["spindle.register_length"]),
        2.5,
        "Length on which the register guides",
    )
    yield from nose_checks(s, s["register.diameter"], s["register.depth"])


def route(s: Values) -> tuple[Holding, ...]:
    return nose_route(
        s,
        (
            Step("bore", ("register",), title="Bore the register to its band",
                 fit="register", note="Its corner clear: the nose has an edge."),
            Step("prove", ("register",), tool="bore gauge, a plug", hold=True,
                 title="Prove the register before unchucking", fit="register",
                 note="Do not take it off before the fit is proved: it cannot be put "
                 "back as true. Use a plug turned to the nose's readings."),
        ),
    )  # fmt: skip


FAMILY = Family(
    "flange-plate",
    "Flange plate",
    "Carries a chuck on a spindle with a flange: bolted to it, centred by a straight "
    "register.",
    "for a three-jaw chuck of 130 mm on a flange with a register of 64 mm",
    also="chuck adapter back plate flanged nose bolted nose three-jaw four-jaw",
    sizes=nose_sizes(
        "register.depth",
        Size("register.diameter", "register bore", "spindle.register", low=5, high=400),
        Size("register.depth", "depth of the register", "spindle.register_length + 0.5",
             "clear of the nose's end", 1, 60, by="clearance", step=0.1),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=nose_hardware,
    mates=(
        spindle(
            MateSize("register", "its register", 63.99, ("register",)),
            MateSize("register_length", "length of its register", 4.0,
                     ("register-length",)),
            nose=Ring("0", "spindle.register_length", "spindle.bore",
                      "spindle.register"),
        ),
        CHUCK,
    ),
    fits=(
        FitSlot("register", "Nose in plate", "register.diameter", "spindle.register",
                "shaft", "register", "slides"),
        nose_screws("register"),
        *CHUCK_FITS,
    ),
    runs=True,
    material="cast iron",
    ways=({"nose.bolting": "through", "bolts.bolting": "into"},),
    surfaces={"register": "spigot.diameter", "register-length": "spigot.height",
              "recess": "register.diameter", "shaft": "plate.diameter",
              "bolt-circle": "bolts.circle"},
    cautions=CAUTIONS,
)  # fmt: skip
