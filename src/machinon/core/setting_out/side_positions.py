"""Positions to dial: middles, sides of a feature, slots by a saw, holes near an
edge."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, LENGTH
from machinon.core.reckoning import Input, Result, Trail, reckoning


@reckoning(
    "half-way",
    group="Setting up",
    title="The middle between two touched edges",
    usual={"edge_a": 0, "edge_b": 86.4, "tip": 10},
    inputs=(
        Input("edge_a", LENGTH, "reading at the first edge"),
        Input("edge_b", LENGTH, "reading at the second edge"),
        Input("tip", LENGTH, "diameter of the finder's tip, outside", 0.0, low=0),
    ),
    results=(
        Result("centre", LENGTH, "half-way between the two readings"),
        Result("width", LENGTH, "between the two edges"),
        Result("zero", LENGTH, "to preset at the second edge, so that the centre is 0"),
    ),
    sources=("half of the sum; a tip outside stands half of itself off each edge",),
)
def _half_way(trail: Trail, edge_a: float, edge_b: float, tip: float) -> dict[str, Any]:
    apart = abs(edge_b - edge_a)
    if not apart > tip:
        raise BadInput(
            "tip", f"Two edges {apart:g} mm apart leave no room: under that is allowed."
        )
    centre = trail.step(
        "Middle", f"({edge_a:g} + {edge_b:g}) / 2", (edge_a + edge_b) / 2
    )
    return {
        "centre": centre,
        "width": trail.step(
            "Between the edges", f"|{edge_b:g} − {edge_a:g}| − {tip:g}", apart - tip
        ),
        "zero": trail.step(
            "Preset at the second edge", f"{edge_b:g} − {centre:g}", edge_b - centre
        ),
    }


@reckoning(
    "side-offset",
    group="Holes, patterns and dividing",
    title="Both sides of a tongue, flat or step with one cutter",
    usual={"distance": 14, "cutter": 10},
    inputs=(
        Input("distance", LENGTH, "between the two finished faces", above=0),
        Input("cutter", LENGTH, "diameter of the cutter", above=0),
        Input("centre", LENGTH, "where the middle lies", 0.0),
        Input("stock", LENGTH, "on each side before the cut", 0.0, low=0),
    ),
    results=(
        Result("plus", LENGTH, "cutter's axis on the one side"),
        Result("minus", LENGTH, "cutter's axis on the other side"),
        Result("first_plus", LENGTH, "where it first touches there"),
        Result("first_minus", LENGTH, "where it first touches there"),
    ),
    sources=("centre ± half of the distance and the cutter",),
)
def _side_offset(
    trail: Trail, distance: float, cutter: float, centre: float, stock: float
) -> dict[str, Any]:
    off = trail.step(
        "From the middle", f"({distance:g} + {cutter:g}) / 2", (distance + cutter) / 2
    )
    return {
        "plus": trail.step("One side", f"{centre:g} + {off:g}", centre + off),
        "minus": trail.step("Other side", f"{centre:g} − {off:g}", centre - off),
        "first_plus": centre + off + stock,
        "first_minus": centre - off - stock,
    }


@reckoning(
    "saw-slot",
    group="Holes, patterns and dividing",
    title="A slot wider than the saw: where each pass goes",
    usual={"depth": 6, "width": 5, "saw": 2},
    inputs=(
        Input("depth", LENGTH, "from the touched face to the slot's near side", low=0),
        Input("width", LENGTH, "of the slot", above=0, high=500),
        Input("saw", LENGTH, "thickness of the saw or cutter", low=0.1, high=100),
    ),
    results=(
        Result("passes", COUNT, "how many"),
        Result("positions", LENGTH, "of the saw's near face below the touched face"),
        Result("from_touch", LENGTH, "to wind down where the far face touched"),
        Result("overlap", LENGTH, "of one pass on the next"),
    ),
    sources=("passes = width / saw, rounded up, evenly over the width",),
)
def _saw_slot(trail: Trail, depth: float, width: float, saw: float) -> dict[str, Any]:
    if saw > width + 1e-9:
        raise BadInput("saw", f"It is wider than the slot: up to {width:g} mm is not.")
    passes = math.ceil(width / saw - 1e-9)
    trail.step("Passes", f"{width:g} / {saw:g}, rounded up", float(passes), COUNT)
    shift = (width - saw) / (passes - 1) if passes > 1 else 0.0
    positions = [depth + i * shift for i in range(passes)]
    overlap = saw - shift if passes > 1 else 0.0
    trail.step("Overlap", f"{saw:g} − {shift:.4g}", overlap)
    return {
        "passes": passes,
        "positions": positions,
        "from_touch": [position + saw for position in positions],
        "overlap": overlap,
    }


@reckoning(
    "break-out",
    group="Holes, patterns and dividing",
    title="A hole near an edge: wall, or the window where it breaks out",
    usual={"bore": 20, "offset": 12, "half_width": 20},
    inputs=(
        Input("bore", LENGTH, "diameter of the hole", above=0),
        Input("offset", LENGTH, "of its centre from the middle", low=0),
        Input("half_width", LENGTH, "from the middle to the edge", above=0),
    ),
    results=(
        Result("from_edge", LENGTH, "of its centre from the nearer edge"),
        Result("opening", LENGTH, "width of the window; 0 where it does not break out"),
        Result("wall", LENGTH, "left at the nearer edge; negative: it breaks out"),
        Result("other_wall", LENGTH, "left at the other edge"),
    ),
    sources=("geometry of the chord: 2 √(r² − distance²)",),
)
def _break_out(
    trail: Trail, bore: float, offset: float, half_width: float
) -> dict[str, Any]:
    if not offset < half_width:
        raise BadInput(
            "offset", f"The centre lies outside: under {half_width:g} mm is allowed."
        )
    radius = bore / 2
    near = trail.step(
        "From the edge", f"{half_width:g} − {offset:g}", half_width - offset
    )
    opening = 0.0
    if near < radius:
        opening = trail.step(
            "Window",
            f"2 √({radius:g}² − {near:g}²)",
            2 * math.sqrt(radius**2 - near**2),
        )
    return {
        "from_edge": near,
        "opening": opening,
        "wall": trail.step("Wall", f"{near:g} − {radius:g}", near - radius),
        "other_wall": half_width + offset - radius,
    }
