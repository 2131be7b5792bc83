"""Square holes by broach or file: the round hole first, and what is left."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import Input, Result, Trail, reckoning
from machinon.core.tapping import drills

CLEAR = 1.02  # of the size: the drill that clears the flats a little; shop practice


@reckoning(
    "square-hole",
    group="Measuring over and across",
    title="A square hole: drill, corners and wall",
    usual={"size": 10, "bar": 25},
    inputs=(
        Input("size", LENGTH, "across the flats of the square", above=0, high=200),
        Input("bar", LENGTH, "diameter of the round bar", default=None, above=0),
    ),
    results=(
        Result("drill", LENGTH, "smallest metric drill that clears the flats"),
        Result("corner_distance", LENGTH, "corner to corner"),
        Result("wall", LENGTH, "left in the bar at the corners"),
    ),
    sources=("geometry; drill 2 % over the flats, a usual broaching practice",),
)
def _square_hole(trail: Trail, size: float, bar: float | None) -> dict[str, Any]:
    wanted = trail.step("Drill at least", f"{CLEAR:g} × {size:g}", CLEAR * size)
    rack = [drill.size for drill in drills("metric") if drill.size >= wanted - 1e-9]
    drill = rack[0] if rack else math.ceil(wanted)
    corners = trail.step("Corner to corner", f"√2 × {size:g}", math.sqrt(2) * size)
    results: dict[str, Any] = {"drill": drill, "corner_distance": corners}
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
