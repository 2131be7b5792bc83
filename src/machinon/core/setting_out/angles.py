"""One angle as it is said in degrees, in minutes, and as a slope."""

import math
from typing import Any

from machinon.core.quantity import ANGLE, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.setting_out.dividing import dms

BASE = 100.0  # mm that the rise is said over


@reckoning(
    "angle",
    group="Measuring over and across",
    title="An angle in degrees, in minutes, and as a slope",
    usual={"angle": "8d30m"},
    inputs=(Input("angle", ANGLE, "the angle", above=0, high=89.9),),
    results=(
        Result("degrees", ANGLE, "with decimals"),
        Result("minutes", TEXT, "with minutes and seconds"),
        Result("rise", LENGTH, "over 100 mm along the flat side"),
        Result("one_in", NUMBER, "runs so much for one that it rises"),
        Result("tangent", NUMBER, "rise over the flat side"),
        Result("sine", NUMBER, "rise over the slope"),
        Result("cosine", NUMBER, "flat side over the slope"),
        Result("radians", NUMBER, "arc over its radius"),
    ),
    sources=("a degree has 60 minutes, a minute 60 seconds; a half turn π radians",),
)
def _angle(trail: Trail, angle: float) -> dict[str, Any]:
    said, radians = f"{angle:.6g}°", math.radians(angle)
    tangent = trail.step("Tangent", f"tan {said}", math.tan(radians), NUMBER)
    return {
        "degrees": angle,
        "minutes": dms(angle),
        "rise": trail.step("Rise", f"{BASE:g} × {tangent:.6g}", BASE * tangent),
        "one_in": trail.step("One in", f"1 / {tangent:.6g}", 1 / tangent, NUMBER),
        "tangent": tangent,
        "sine": trail.step("Sine", f"sin {said}", math.sin(radians), NUMBER),
        "cosine": trail.step("Cosine", f"cos {said}", math.cos(radians), NUMBER),
        "radians": trail.step("Radians", f"{angle:.6g} × π / 180", radians, NUMBER),
    }
