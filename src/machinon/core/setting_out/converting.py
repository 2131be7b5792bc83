"""One length in every unit of the shop, with the drills next to it."""

from fractions import Fraction
from typing import Any

from machinon.core.quantity import INCH, LENGTH, NUMBER, fraction_text
from machinon.core.reckoning import SERIES, TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.tapping import drills

UNITS = ("mm", "inch", "thou", "um", "fraction", "drill")
DRILLS_TO = 50.0  # mm: above it nobody asks for a drill


@reckoning(
    "convert",
    group="Measuring over and across",
    title="A length in other units, and the nearest drill",
    usual={"value": "13/32in"},
    inputs=(
        Input("value", LENGTH, "the length"),
        Input("to", TEXT, "unit asked for; else all", None, choices=UNITS),
    ),
    results=(
        Result("mm", LENGTH, "millimetres"),
        Result("inch", NUMBER, "inches"),
        Result("fraction", TEXT, "nearest 64th of an inch"),
        Result("fraction_error", LENGTH, "length less that fraction"),
        Result("thou", NUMBER, "thousandths of an inch"),
        Result("um", NUMBER, "micrometres"),
        Result("drill", TEXT, "nearest drill of all four systems"),
        Result("drill_error", LENGTH, "length less that drill"),
    ),
    sources=("an inch is 25.4 mm exactly",),
)
def _convert(trail: Trail, value: float, to: str | None) -> dict[str, Any]:
    inch = trail.step("Inches", f"{value:.6g} / 25.4", value / INCH, NUMBER)
    parts = round(inch * 64)
    nearest = Fraction(parts, 64)
    results: dict[str, Any] = {
        "mm": value,
        "inch": inch,
        "fraction": fraction_text(nearest),
        "fraction_error": value - parts / 64 * INCH,
        "thou": inch * 1000,
        "um": value * 1000,
    }
    if 0 < value <= DRILLS_TO:
        near = min(
            (drill for series in SERIES for drill in drills(series)),
            key=lambda drill: abs(drill.size - value),
        )
        results["drill"] = near.name
        results["drill_error"] = value - near.size
    return results
