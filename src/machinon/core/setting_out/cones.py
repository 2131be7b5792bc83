"""Cones that are sunk in a face: countersinks, spot drills, points of drills."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning


def cone_depth(mouth: float, angle: float) -> float:
    """How deep a cone goes; mm, its included angle in degrees.

    >>> round(cone_depth(10, 118), 4)
    3.0043
    """
    return mouth / 2 / math.tan(math.radians(angle / 2))


@reckoning(
    "countersink",
    group="Holes, patterns and dividing",
    title="How deep a countersink, a spot drill or a drill's point goes",
    usual={"diameter": 10},
    given=(one_of("diameter", "depth"),),
    inputs=(
        Input("diameter", LENGTH, "across its mouth", default=None, above=0, high=300),
        Input(
            "depth",
            LENGTH,
            "or from the face to its point",
            default=None,
            above=0,
            high=300,
        ),
        Input("angle", ANGLE, "included", default=90.0, low=20, high=170),
        Input("hole", LENGTH, "that is there already", default=0.0, low=0),
    ),
    results=(
        Result("diameter", LENGTH, "across its mouth"),
        Result("depth", LENGTH, "from the face to its point"),
        Result("from_touch", LENGTH, "to feed once it touches the edge of the hole"),
    ),
    sources=("geometry: depth = diameter / 2 / tan(angle / 2)",),
)
def _countersink(
    trail: Trail,
    diameter: float | None,
    depth: float | None,
    angle: float,
    hole: float,
) -> dict[str, Any]:
    if diameter is None:
        assert depth is not None
        diameter = trail.step(
            "Across its mouth",
            f"2 × {depth:g} × tan {angle / 2:g}°",
            2 * depth * math.tan(math.radians(angle / 2)),
        )
    else:
        depth = trail.step(
            "To its point",
            f"{diameter:g} / 2 / tan {angle / 2:g}°",
            cone_depth(diameter, angle),
        )
    found = {"diameter": diameter, "depth": depth}
    if hole:
        if hole >= diameter:
            raise BadInput(
                "hole", f"It is {diameter:g} mm across its mouth: under it is allowed."
            )
        found["from_touch"] = trail.step(
            "From the touch",
            f"({diameter:g} − {hole:g}) / 2 / tan {angle / 2:g}°",
            cone_depth(diameter - hole, angle),
        )
    return found
