"""What a lever indicator shows too much where its lever stands at an angle."""

import math
from typing import Any

from machinon.core.quantity import ANGLE, LENGTH, PERCENT
from machinon.core.reckoning import Input, Result, Trail, reckoning


@reckoning(
    "indicator-angle",
    group="Setting up",
    title="A lever indicator read with its lever at an angle",
    usual={"reading": 0.10, "angle": 30},
    inputs=(
        Input("reading", LENGTH, "that it shows"),
        Input("angle", ANGLE, "of the lever to the surface", low=0, high=75),
    ),
    results=(
        Result("moved", LENGTH, "what the surface did"),
        Result("too_much", LENGTH, "of the reading"),
        Result("reads_true", PERCENT, "of the reading that is true"),
    ),
    sources=("geometry: moved = reading × cos of the angle",),
)
def _indicator_angle(trail: Trail, reading: float, angle: float) -> dict[str, Any]:
    share = math.cos(math.radians(angle))
    moved = trail.step("Moved", f"{reading:g} × cos {angle:g}", reading * share)
    trail.notes.append(
        "To clock a piece true it does no harm: zero stays zero. A tip shaped like a "
        "drop makes good for some of it, as its maker says."
    )
    return {
        "moved": moved,
        "too_much": trail.step(
            "Too much", f"{reading:g} − {moved:.5g}", reading - moved
        ),
        "reads_true": trail.step("True", f"cos {angle:g}", 100 * share, PERCENT),
    }
