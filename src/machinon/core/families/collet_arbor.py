"""Plain-shank arbor: carries a saw or cutter by its bore, held in a collet.

z = 0 is the plain end of the shank; the collar, the spigot for the cutter and its screw
are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._arbor_head import (
    CUTTER,
    DOG,
    DRIVEN,
    FINISH,
    NUT,
    SHANK_OUT,
    SPIGOT,
    driven,
    faced_end,
    head_checks,
    head_features,
    head_hardware,
    head_sizes,
    stock_sizes,
    turned_head,
)
from machinon.core.families._between_centres import each_end
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
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
from machinon.core.piece.feature import Feature
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bevel, Centre, Cylinder, End

BREAK = 0.5  # mm: leg of the shank's broken end
ENTERS = 0.005  # mm that the open collet is wider than the shank


def build(s: Values) -> Body:
    shank, wide = s["shank.length"], s["shank.diameter"]
    features: tuple[Feature, ...] = (
        End("plain_end", 0.0, "left"),
        Cylinder("shank", 0.0, shank, wide, shoulder="right"),
        Bevel("shank_edge", 0.0, wide, BREAK, "left"),
        Centre("back_centre", 0.0, "left", round(min(0.4 * wide, 10.0), 1)),
        *head_features(s, shank),
    )
    return Body(Round(s["stock.diameter"], -2.0, s["stock.length"] - 2.0), features)


def _held(s: Values) -> tuple[float, float]:
    """The shanks that enter the open collet, and that it closes on."""
    open_at = s["collet.bore"]
    return open_at - s["collet.closes"], open_at - ENTERS


def checks(s: Values) -> Iterable[Check]:
    wide, open_at = s["shank.diameter"], s["collet.bore"]
    least, _ = _held(s)
    yield at_least(
        "shank-enters",
        "shank",
        open_at - wide,
        ENTERS,
        "Room to enter the open collet",
    )
    yield at_least(
        "collet-closes",
        "shank",
        wide,
        least,
        "Shank that the collet closes on",
    )
    yield at_least(
        "shank-long",
        "shank",
        s["shank.length"],
        1.5 * wide,
        "Shank in the collet (one and a half diameters)",
        grave=False,
    )
    yield from head_checks(s, wide, s["shank.length"], 0.0)


def route(s: Values) -> tuple[Holding, ...]:
    low, high = _held(s)
    return (
        each_end(
            "Both ends get a true centre first: everything after is turned between "
            "them.",
            (
                Step("face", ("plain_end",)),
                Step("centre", ("back_centre",)),
                *faced_end(s),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Shank and spigot run true to each other by the same two centres. The "
            "shank is roughed first and finished last: no dog stands on it then.",
            (
                DOG,
                Step("turn", ("shank",), leaves=FINISH),
                *turned_head(s),
                SHANK_OUT,
                Step(
                    "turn",
                    ("shank",),
                    note=f"Any size from {low:.2f} to {high:.2f} mm will do, "
                    "the same from end to end.",
                ),
                Step("bevel", ("shank_edge",)),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *driven(s),
    )


FAMILY = Family(
    "collet-arbor",
    "Plain-shank arbor",
    "Carries a saw or cutter by its bore on a plain shank, held in a collet.",
    "on a shank for a collet of 20 mm, for a saw of 22 mm bore and 3 mm width",
    also="mandrel stub slitting saw ER collet straight shell face mill gear cutter "
    "grinding wheel",
    sizes=(
        *stock_sizes("shank.diameter", lambda s: s["shank.length"], "shank.length"),
        Size("shank.diameter", "shank", "collet.bore - 0.02", "enters, and is held all "
             "along", 2, 100, by="clearance", step=0.01, limits=_held),
        Size("shank.length", "length of the shank", "max(2*collet.bore, 30)",
             "held over all of the collet", 10, 300, step=1),
        *head_sizes("shank.diameter"),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=head_hardware,
    mates=(
        Mate("collet", "the collet", (
            MateSize("bore", "its bore, open", 20.0, ("bore",)),
            MateSize("closes", "how far it closes", 0.5, optional=True),
        ), around=(
            Ring("shank.ends/3", "shank.ends - 1", "collet.bore"),
        )),
        CUTTER,
    ),
    fits=(SPIGOT,),
    proof=("shank.diameter",),
    runs=True,
    full=DRIVEN,
    ways=(NUT,),
    surfaces={"register": "spigot.diameter", "register-length": "spigot.length",
              "shaft": "shank.diameter"},
)  # fmt: skip
