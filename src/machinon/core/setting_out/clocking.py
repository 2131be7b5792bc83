"""Parts clocked on a shaft: what came out short, as an angle and the pin's place."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

WEB = 0.5  # of a pin: metal that must stay between an old hole and a new one


@reckoning(
    "shortfall",
    group="Measuring over and across",
    title="What two clocked parts came out short, as an angle",
    usual={"squashed": 1.4, "wanted": 0.4, "radius": 40, "shaft": 12, "pin": 4},
    inputs=(
        Input("squashed", LENGTH, "a ball of putty as it came out, or a feeler", low=0),
        Input("wanted", LENGTH, "what should be left there", default=0.0, low=0),
        Input("radius", LENGTH, "from the shaft's middle to there", above=0),
        Input(
            "flank",
            ANGLE,
            "of the face it was squashed on, to the way it moves",
            default=90.0,
            low=10,
            high=90,
        ),
        Input("shaft", LENGTH, "diameter where the pin goes through", above=0),
        Input("pin", LENGTH, "diameter of the pin there", above=0),
    ),
    results=(
        Result("short", LENGTH, "along the way it moves (− is too far)"),
        Result("angle", ANGLE, "to turn the part on its shaft (− is back)"),
        Result("shift", LENGTH, "of the pin's hole, at the shaft's outside"),
        Result("advice", TEXT, "where the new hole goes"),
    ),
    sources=("geometry: short = (squashed − wanted) / sin flank, a chord of the arc",),
)
def _shortfall(
    trail: Trail,
    squashed: float,
    wanted: float,
    radius: float,
    flank: float,
    shaft: float,
    pin: float,
) -> dict[str, Any]:
    if pin >= shaft:
        raise BadInput("pin", f"Under the shaft's {shaft:g} mm is allowed.")
    short = trail.step(
        "Short",
        f"({squashed:g} − {wanted:g}) / sin {flank:g}°",
        (squashed - wanted) / math.sin(math.radians(flank)),
    )
    if abs(short) > 2 * radius:
        raise BadInput("radius", "It is short by more than the part is wide there.")
    half = math.asin(short / (2 * radius))
    angle = trail.step(
        "Angle",
        f"2 asin({short:.4g} / (2 × {radius:g}))",
        math.degrees(2 * half),
        ANGLE,
    )
    shift = trail.step("Shift", f"{shaft:g} × sin(angle / 2)", shaft * math.sin(half))
    apart = abs(shift)
    if apart < 0.05 * pin:
        advice = "Ream the same hole deeper: the pin itself takes up as little."
    elif apart < (1 + WEB) * pin:
        advice = (
            "A new hole there would run into the old one: turn the part by the angle, "
            "and drill crosswise to the old pin or a pin's width further along."
        )
    else:
        advice = "There is room for a new hole beside the old one."
    trail.notes.append(
        "Squash it with all parts in place, gasket and screws too, and read it where "
        "they touch. Clamp the parts at the new angle and try before you drill."
    )
    return {"short": short, "angle": angle, "shift": shift, "advice": advice}
