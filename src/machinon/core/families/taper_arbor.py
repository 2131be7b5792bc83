"""Taper-shank arbor: carries a saw or cutter by its bore, on a Morse or other shank.

z = 0 is the small end of the shank, or of its tang; the collar, the spigot for the
cutter and its screw are at the right.
"""

from collections.abc import Iterable

from machinon.core.families._arbor_head import (
    CUTTER,
    DOG,
    DRIVEN,
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
from machinon.core.families._between_centres import HOLES_AND_CENTRES, each_end
from machinon.core.families._taper_shank import (
    GUIDED,
    SHANK_LONG,
    SOCKET,
    TANGED,
    drawn_home,
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
from machinon.core.piece.family import Check, Family, Holding, Step, Values
from machinon.core.piece.stock import Round


def build(s: Values) -> Body:
    _, end = tapered(s)
    return Body(
        Round(s["stock.diameter"], -2.0, s["stock.length"] - 2.0),
        (*shank_features(s), *head_features(s, end)),
    )


def checks(s: Values) -> Iterable[Check]:
    large, _ = taper_ends(s)
    behind = s["draw.depth"] + 10.0 if drawn_home(s) else 0.0
    yield from head_checks(s, large, tapered(s)[1], behind)
    yield from shank_checks(s)


def route(s: Values) -> tuple[Holding, ...]:
    return (
        each_end(
            HOLES_AND_CENTRES,
            (*small_end_steps(s), *faced_end(s)),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Shank, collar and spigot run true to each other by the same two centres. "
            "The shank is roughed first and finished last: no dog stands on it then. "
            "A stop for repeated cuts.",
            (
                DOG,
                *rough_shank(s),
                *turned_head(s),
                SHANK_OUT,
                *finished_shank(s),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *tang_holding(s),
        *driven(s),
    )


FAMILY = Family(
    "taper-arbor",
    "Taper-shank arbor",
    "Carries a saw or cutter by its bore on a taper shank, drawn or held by itself.",
    "on a Morse 3 shank for a saw of 22 mm bore and 3 mm width",
    also="mandrel stub Morse MT2 MT3 slitting saw shank shell face mill gear cutter "
    "grinding wheel",
    sizes=(
        *stock_sizes("shank.large", lambda s: tapered(s)[1], *SHANK_LONG),
        *shank_sizes(),
        *head_sizes("shank.large"),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=head_hardware,
    mates=(SOCKET, CUTTER),
    fits=(SPIGOT,),
    runs=True,
    full=DRIVEN,
    ways=(NUT, TANGED, GUIDED),
    surfaces={"register": "spigot.diameter", "register-length": "spigot.length"},
)  # fmt: skip
