"""Square holes by broach or file: the round hole first, and what is left."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.tapping import DRILLS_THERE, INCH_SERIES, drills_of

# what a broach's pilot hole is over its size, mm: below the size named, and from it
# on; usual broaching practice
INCH_OVER = (INCH / 2, INCH / 64, INCH / 32)
METRIC_OVER = (12.0, 0.4, 0.8)


def is_inch_size(size: float) -> bool:
    """Whether a size is one of an inch broach: a whole number of 64ths.

    >>> is_inch_size(12.7), is_inch_size(12.0)
    (True, False)
    """
    parts = size / INCH * 64
    return abs(parts - round(parts)) < 1e-4


def usual_pilot(size: float) -> float:
    """The round hole that a broach of a size usually starts from, mm."""
    limit, under, over = INCH_OVER if is_inch_size(size) else METRIC_OVER
    return size + (under if size < limit - 1e-9 else over)


@reckoning(
    "square-hole",
    group="Measuring over and across",
    title="A square hole: drill, corners and wall",
    usual={"size": 10, "bar": 25},
    inputs=(
        Input("size", LENGTH, "across the flats of the square", above=0, high=200),
        Input("bar", LENGTH, "diameter of the round bar", default=None, above=0),
        Input(
            "pilot",
            LENGTH,
            "the broach's own pilot; else by the usual rule",
            default=None,
            above=0,
            high=250,
        ),
        DRILLS_THERE,
    ),
    results=(
        Result("drill", LENGTH, "smallest drill that lets the pilot in"),
        Result("drill_name", TEXT, "its name"),
        Result("pilot", LENGTH, "the broach's pilot"),
        Result("corner_distance", LENGTH, "corner to corner"),
        Result("wall", LENGTH, "left in the bar at the corners"),
    ),
    sources=(
        "geometry; pilot 1/64 in over an inch square below 1/2 in and 1/32 in from "
        "there, 0.4 mm over a metric one below 12 mm and 0.8 mm from there: usual "
        "broaching practice, the broach maker's figure comes first",
    ),
)
def _square_hole(
    trail: Trail,
    size: float,
    bar: float | None,
    pilot: float | None,
    series: tuple[str, ...] | None,
) -> dict[str, Any]:
    inch = is_inch_size(size)
    corners = trail.step("Corner to corner", f"√2 × {size:g}", math.sqrt(2) * size)
    if pilot is None:
        usual = usual_pilot(size)
        pilot = trail.step(
            "Pilot", f"{size:.6g} + {usual - size:.4g}, the usual rule", usual
        )
    elif not size <= pilot < corners:
        raise BadInput(
            "pilot",
            f"Between the flats and the corners: from {size:g} and under "
            f"{corners:.3f} mm.",
        )
    if series is None:
        series = INCH_SERIES if inch else ("metric",)
    rack = [drill for drill in drills_of(series) if drill.size >= pilot - 1e-6]
    results: dict[str, Any] = {"pilot": pilot, "corner_distance": corners}
    if rack and rack[0].size < corners:
        results |= {"drill": rack[0].size, "drill_name": rack[0].name}
        trail.step("Drill", f"{rack[0].name}, the next from the pilot", rack[0].size)
    else:
        results |= {"drill": pilot, "drill_name": "none: bore it"}
        trail.cautions.append(
            f"No drill of the series is from {pilot:.2f} mm and under the corners: "
            "bore the hole to the pilot."
        )
    if bar is not None:
        if not bar > corners:
            raise BadInput(
                "bar",
                f"The corners break through: above {corners:.3f} mm of bar is needed.",
            )
        results["wall"] = trail.step(
            "Wall", f"({bar:g} − {corners:.4f}) / 2", (bar - corners) / 2
        )
    trail.cautions.append(
        "Broaches are brittle: straight in, supported, clear of the line of the press."
    )
    return results
