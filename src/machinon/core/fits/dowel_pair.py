"""Two dowels: the holes that keep them, those they slide in, and the shake left."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes.fit import nothing_left, rising_play
from machinon.core.sizes.limits import limits_of_size


@reckoning(
    "dowel-pair",
    group="Fits and materials",
    title="Two dowels that place one part on another",
    usual={"dowel": 6.004, "distance": 80, "play_least": 0.004, "play_most": 0.012},
    inputs=(
        Input("dowel", LENGTH, "diameter of the dowels, measured", above=0, high=100),
        Input("doubt", LENGTH, "of that, two sigma", 0.0, low=0),
        Input("distance", LENGTH, "between the two", above=0),
        Input("placing", LENGTH, "how well the holes' distance is kept", 0.02, low=0),
        Input("play_least", LENGTH, "in the sliding holes"),
        Input("play_most", LENGTH, "in the sliding holes"),
        Input(
            "radius",
            LENGTH,
            "where the shake matters; else the distance",
            None,
            above=0,
        ),
    ),
    results=(
        Result("keeps_lower", LENGTH, "hole that keeps the dowel, smallest"),
        Result("keeps_upper", LENGTH, "hole that keeps the dowel, largest"),
        Result("slides_lower", LENGTH, "hole it slides in, smallest"),
        Result("slides_upper", LENGTH, "hole it slides in, largest"),
        Result("room", LENGTH, "that the sliding holes leave for their distance"),
        Result("shake", ANGLE, "by which the part can be turned"),
        Result("shake_at", LENGTH, "at the radius, from stop to stop"),
        Result("warning", TEXT, "where the two must be reamed together, else empty"),
    ),
    sources=(
        "the keeping hole by n7 of ISO 286-1:2010, mirrored and laid on the dowel; "
        "geometry of two pins in two holes",
    ),
)
def _dowel_pair(
    trail: Trail,
    dowel: float,
    doubt: float,
    distance: float,
    placing: float,
    play_least: float,
    play_most: float,
    radius: float | None,
) -> dict[str, Any]:
    if not distance > dowel:
        raise BadInput("distance", f"Two dowels stand further apart than {dowel:g} mm.")
    rising_play(play_least, play_most)
    keep = limits_of_size(dowel, "n7")
    lower = trail.step(
        "Keeps it, smallest",
        f"{dowel:.4f} + {doubt:.4f} − {keep.upper_deviation:.4f}",
        dowel + doubt - keep.upper_deviation,
    )
    upper = trail.step(
        "Keeps it, largest",
        f"{dowel:.4f} − {doubt:.4f} − {keep.lower_deviation:.4f}",
        dowel - doubt - keep.lower_deviation,
    )
    slides_lower = trail.step(
        "It slides in, smallest",
        f"{dowel:.4f} + {doubt:.4f} + {play_least:.4f}",
        dowel + doubt + play_least,
    )
    slides_upper = trail.step(
        "It slides in, largest",
        f"{dowel:.4f} − {doubt:.4f} + {play_most:.4f}",
        dowel - doubt + play_most,
    )
    for varies, ends in (
        (keep.upper_deviation - keep.lower_deviation, (lower, upper)),
        (play_most - play_least, (slides_lower, slides_upper)),
    ):
        if ends[0] >= ends[1]:
            trail.cautions.append(nothing_left(varies, doubt))
    warning = ""
    if placing > play_least:
        warning = (
            "The holes' distance is not kept that well apart: clamp the two parts and "
            "ream them together, or relieve one dowel across the line."
        )
        trail.cautions.append(warning)
    at = distance if radius is None else radius
    turn = trail.step(
        "Shake",
        f"2 × atan({play_most:.4f} / {distance:g})",
        2 * math.degrees(math.atan(play_most / distance)),
        ANGLE,
    )
    return {
        "keeps_lower": lower,
        "keeps_upper": upper,
        "slides_lower": slides_lower,
        "slides_upper": slides_upper,
        "room": play_least,
        "shake": turn,
        "shake_at": trail.step(
            "At the radius",
            f"{at:g} × tan {turn:.5f}°",
            at * math.tan(math.radians(turn)),
        ),
        "warning": warning,
    }
