"""Short-taper plate: carries a chuck on a spindle nose with a short taper and a flange:
the taper centres it, the flange seats it.
"""

from collections.abc import Iterable

from machinon.core.errors import BadInput
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
    Holding,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.turned_features import TaperBore
from machinon.core.reckoning import TEXT
from machinon.core.shop.things import Surface
from machinon.core.tapers.tapers import taper_of

FINISH = 0.3  # mm to a side, left for the last cuts of the seat
LEAST_OFF, MOST_OFF = 0.005, 0.05  # mm: what its screws draw home and do not strain


def _ratio(s: Values) -> float:
    return taper_of(str(s["seat.taper"]), "seat.taper").ratio


def _mouth(s: Values) -> float:
    """So that by hand it comes to stand off the flange by what was said."""
    return float(s["spindle.large"] - s["seat.stands_off"] * _ratio(s))


def _mouths(s: Values) -> tuple[float, float]:
    """The mouths that stand off as far as the screws draw home without strain."""
    large, ratio = s["spindle.large"], _ratio(s)
    return large - MOST_OFF * ratio, large - LEAST_OFF * ratio


def build(s: Values) -> Body:
    mouth, deep, taper = s["seat.diameter"], s["seat.depth"], str(s["seat.taper"])
    floor = mouth - _ratio(s) * deep
    if floor <= s["hole.diameter"]:
        raise BadInput(
            "seat.depth",
            f"depth of the seat: it runs into the hole of {s['hole.diameter']:g} mm.",
        )
    return nose_plate(s, TaperBore("seat", 0.0, deep, mouth, floor, taper))


def checks(s: Values) -> Iterable[Check]:
    off = (s["spindle.large"] - s["seat.diameter"]) / _ratio(s)
    yield Check(
        "stands-off",
        "seat",
        LEAST_OFF - 1e-9 <= off <= MOST_OFF + 1e-9,
        f"By hand it stands {off:.3f} mm off the flange. From {LEAST_OFF} mm, or the "
        f"taper does not bear; up to {MOST_OFF} mm, or the screws cannot draw it home.",
    )
    yield at_least(
        "seat-clears",
        "seat",
        s["seat.depth"] - s["spindle.taper_length"],
        0.5,
        "Room past the end of the nose: taper and flange must bear, not the nose",
    )
    yield from nose_checks(s, s["seat.diameter"], s["seat.depth"])


def route(s: Values) -> tuple[Holding, ...]:
    half = taper_of(str(s["seat.taper"])).half_angle
    off = s["seat.stands_off"]
    return nose_route(
        s,
        (
            Step("mount", (), title=f"Slide to {half:.4f}°, by an indicator along the "
                 "spindle's own nose", tool="indicator", key="set-slide",
                 note="Set it on the nose before the chuck goes on, and leave it.",
                 slide=half),
            Step("taper", ("seat",), leaves=FINISH,
                 title="Bore the seat, a little under size"),
            Step("taper", ("seat",), title="Finish the seat to its blue, "
                 f"{off:g} mm off the flange by hand", note="Contact all along. The "
                 "face is cut already: a feeler tells what it stands off."),
            Step("prove", ("seat",), tool="a gauge of the nose, blue, feeler",
                 title="Prove taper and face before unchucking", hold=True,
                 note=f"Pushed on by hand, a feeler of {off:g} mm just goes in all "
                 "round; pressed home, none does."),
        ),
    )  # fmt: skip


NOSE = (
    Surface("register", "Taper at the flange", "outside",
            "Across the taper close to the flange; or by a gauge ring, from how far it "
            "stands off."),
    Surface("register-length", "Length of the taper", "length",
            "From the flange to the end of the taper."),
)  # fmt: skip


FAMILY = Family(
    "taper-plate",
    "Short-taper plate",
    "Carries a chuck on a spindle with a short taper: the taper centres it, the flange "
    "seats it.",
    "for a three-jaw chuck of 130 mm on a short taper 1:4 of 63.5 mm",
    also="chuck adapter back plate cam lock nose bolted nose short cone",
    sizes=nose_sizes(
        "seat.depth",
        Size("seat.taper", "taper", "1:4", "as short tapers of ISO 702 have it",
             kind=TEXT),
        Size("seat.stands_off", "stands off the flange by hand", "0.02",
             "its screws draw it home", 0, 0.5),
        Size("seat.diameter", "mouth of the seat", _mouth,
             "stands off until its screws are tight", 5, 400,
             rests=("seat.taper", "seat.stands_off"), step=0.001, limits=_mouths),
        Size("seat.depth", "depth of the seat", "spindle.taper_length + 1",
             "clear of the nose's end", 2, 80, by="clearance", step=0.1),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=nose_hardware,
    mates=(
        spindle(
            MateSize("large", "its taper at the flange", 63.513, ("register",)),
            MateSize("taper_length", "length of its taper", 10.0,
                     ("register-length",)),
            # as thin as its taper of 1 : 4 ends
            nose=Ring("0", "spindle.taper_length", "spindle.bore",
                      "spindle.large - spindle.taper_length/4"),
            surfaces=NOSE,
        ),
        CHUCK,
    ),
    fits=(nose_screws(), *CHUCK_FITS),
    proof=("seat.depth",),
    runs=True,
    material="cast iron",
    ways=({"nose.bolting": "through", "bolts.bolting": "into"},),
    surfaces={"register": "spigot.diameter", "register-length": "spigot.height",
              "shaft": "plate.diameter", "bolt-circle": "bolts.circle"},
    cautions=CAUTIONS,
)  # fmt: skip
