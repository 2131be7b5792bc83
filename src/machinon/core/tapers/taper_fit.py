"""A taper that fits a measured one: its angle, its gauge line, and the blue."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, INCH, LENGTH, NUMBER
from machinon.core.reckoning import FLAG, TEXT, Input, Result, Trail, reckoning

HOLDS_BELOW = 7.0  # degrees of half angle: steeper ones let go by themselves


@reckoning(
    "taper-fit",
    group="Tapers",
    title="The other half of a measured taper",
    usual={"ratio": 0.0502, "diameter": 23.85, "length": 70},
    usual_inch={"diameter": 0.938 * INCH},
    inputs=(
        Input(
            "ratio", NUMBER, "change of diameter per length, measured", above=0, high=4
        ),
        Input("ratio_doubt", NUMBER, "of that, two sigma", 0.0, low=0),
        Input("diameter", LENGTH, "measured at the large end", above=0),
        Input("diameter_doubt", LENGTH, "of that, two sigma", 0.0, low=0),
        Input("length", LENGTH, "length over which the two should touch", above=0),
        Input("film", LENGTH, "gap that blue still bridges", 0.003, above=0, high=0.05),
        Input("stand_off", LENGTH, "how far it may stand in or out", 0.5, above=0),
        Input(
            "travel",
            LENGTH,
            "of the indicator along the axis",
            default=50.0,
            inch_default=2 * INCH,
            above=0,
        ),
    ),
    results=(
        Result("half_angle_lower", ANGLE, "smallest half angle"),
        Result("half_angle_upper", ANGLE, "largest half angle"),
        Result("diameter_lower", LENGTH, "smallest at the large end"),
        Result("diameter_upper", LENGTH, "largest at the large end"),
        Result("indicator", LENGTH, "on the radius over the travel"),
        Result(
            "angle_share", LENGTH, "the angle's band, on the radius over the travel"
        ),
        Result("holds", FLAG, "whether it holds by itself"),
        Result("warning", TEXT, "where the angle is not known well enough, else empty"),
    ),
    sources=(
        "geometry: an angle off by film / length opens a gap of one film at one end; "
        "a taper under about 7° a side holds by friction",
    ),
)
def _taper_fit(
    trail: Trail,
    ratio: float,
    ratio_doubt: float,
    diameter: float,
    diameter_doubt: float,
    length: float,
    film: float,
    stand_off: float,
    travel: float,
) -> dict[str, Any]:
    if not ratio * length < diameter:
        raise BadInput(
            "length",
            f"Under {diameter / ratio:.1f} mm is allowed: there the taper comes to a "
            "point.",
        )
    half = trail.step(
        "Half angle",
        f"atan({ratio:.6f} / 2)",
        math.degrees(math.atan(ratio / 2)),
        ANGLE,
    )
    allowed = trail.step(
        "Off by at most",
        f"atan({film:g} / {length:g})",
        math.degrees(math.atan(film / length)),
        ANGLE,
    )
    doubt = trail.step(
        "Uncertainty of the measured angle",
        f"atan({ratio_doubt:.6f} / 2)",
        math.degrees(math.atan(ratio_doubt / 2)),
        ANGLE,
    )
    left = allowed - doubt
    warning = ""
    if left <= 0:
        warning = (
            "The angle is not known well enough to cut by: set the slide along the "
            "mate itself with an indicator, and prove it with blue."
        )
        trail.cautions.append(warning)
    axial = trail.step(
        "On the diameter", f"{ratio:.6f} × {stand_off:g}", ratio * stand_off
    )
    room = axial - diameter_doubt
    return {
        "half_angle_lower": half - left,
        "half_angle_upper": half + left,
        "diameter_lower": diameter - room,
        "diameter_upper": diameter + room,
        "indicator": trail.step(
            "Indicator", f"{ratio:.6f} / 2 × {travel:g}", ratio / 2 * travel
        ),
        "angle_share": trail.step(
            "Band over the travel",
            f"tan {max(left, 0.0):.5f}° × {travel:g}",
            math.tan(math.radians(max(left, 0.0))) * travel,
        ),
        "holds": half < HOLDS_BELOW,
        "warning": warning,
    }
