"""Polygons from round, and chamfers."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning


@reckoning(
    "polygon",
    group="Holes, patterns and dividing",
    title="A square, hexagon or other polygon from round",
    usual={"sides": 6, "across_flats": 17},
    inputs=(
        Input("sides", COUNT, "how many", low=3, high=360),
        Input("round", LENGTH, "diameter of the bar", default=None, above=0),
        Input("across_flats", LENGTH, "wanted over the flats", default=None, above=0),
    ),
    results=(
        Result("across_flats", LENGTH, "flat to flat; flat to corner where odd"),
        Result("across_corners", LENGTH, "circle through the corners"),
        Result("depth_per_flat", LENGTH, "below the round bar"),
        Result("round_needed", LENGTH, "smallest bar that leaves sharp corners"),
    ),
    sources=("geometry: inscribed = circumscribed × cos(180°/n)",),
)
def _polygon(trail: Trail, **given: Any) -> dict[str, Any]:
    sides, bar, flats = given["sides"], given["round"], given["across_flats"]
    if bar is None and flats is None:
        raise BadInput(
            "across_flats", "Give across_flats, or the round it is cut from."
        )
    cos = math.cos(math.pi / sides)
    odd = sides % 2 == 1
    if flats is None:
        corners = bar
        flats = trail.step(
            "Across flats",
            f"{bar:g} × cos(180°/{sides})",
            bar * (1 + cos) / 2 if odd else bar * cos,
        )
    else:
        corners = trail.step(
            "Corner circle",
            f"{flats:g} / cos(180°/{sides})",
            2 * flats / (1 + cos) if odd else flats / cos,
        )
    stock = corners if bar is None else bar
    inscribed = corners * cos
    if stock < inscribed - 1e-9:
        raise BadInput(
            "round",
            f"The bar is under the flats: from {inscribed:.4f} mm on it cuts.",
        )
    if bar is not None and bar < corners - 1e-9:
        trail.notes.append("The corners will not be sharp: the bar is too small.")
    depth = trail.step(
        "Depth of each flat",
        f"({stock:g} − {inscribed:.4f}) / 2",
        (stock - inscribed) / 2,
    )
    return {
        "across_flats": flats,
        "across_corners": corners,
        "depth_per_flat": depth,
        "round_needed": corners,
    }


@reckoning(
    "chamfer",
    group="Holes, patterns and dividing",
    title="A chamfer: leg, face and depth",
    usual={"face": 2},
    given=(one_of("leg", "face", "depth"),),
    inputs=(
        Input("leg", LENGTH, "along the face it is fed into", default=None, above=0),
        Input("face", LENGTH, "width of the slanted face", default=None, above=0),
        Input("depth", LENGTH, "the other leg", default=None, above=0),
        Input(
            "angle", ANGLE, "of the slant to the leg", default=45.0, above=0, high=89.9
        ),
    ),
    results=(
        Result("leg", LENGTH, "along the face"),
        Result("face", LENGTH, "of the slant"),
        Result("depth", LENGTH, "along the side: the other leg"),
        Result("normal_depth", LENGTH, "from the corner square to the slanted face"),
    ),
    sources=(
        "geometry: depth = leg × tan(angle), face = leg / cos(angle), "
        "square to the face leg × sin(angle)",
    ),
)
def _chamfer(
    trail: Trail,
    leg: float | None,
    face: float | None,
    depth: float | None,
    angle: float,
) -> dict[str, Any]:
    a = math.radians(angle)
    if face is not None:
        leg = trail.step("Leg", f"{face:g} × cos {angle:g}°", face * math.cos(a))
    elif depth is not None:
        leg = trail.step("Leg", f"{depth:g} / tan {angle:g}°", depth / math.tan(a))
    assert leg is not None
    return {
        "leg": leg,
        "face": trail.step("Face", f"{leg:.5g} / cos {angle:g}°", leg / math.cos(a)),
        "depth": trail.step(
            "Depth along the side", f"{leg:.5g} × tan {angle:g}°", leg * math.tan(a)
        ),
        "normal_depth": trail.step(
            "Depth square to the slant",
            f"{leg:.5g} × sin {angle:g}°",
            leg * math.sin(a),
        ),
    }


@reckoning(
    "edge-find",
    group="Setting up",
    title="Position to dial from an edge found",
    usual={"edge_reading": 12.3, "tip_diameter": 10, "offset": 20, "direction": "+"},
    inputs=(
        Input("edge_reading", LENGTH, "read-out when the tip touches"),
        Input("tip_diameter", LENGTH, "of the finder's tip", low=0),
        Input("offset", LENGTH, "from the edge to the feature"),
        Input("direction", TEXT, "from the tip towards the part", choices=("+", "-")),
    ),
    results=(Result("position", LENGTH, "to dial"),),
    sources=("position = reading ± (tip / 2 + offset)",),
)
def _edge_find(
    trail: Trail,
    edge_reading: float,
    tip_diameter: float,
    offset: float,
    direction: str,
) -> dict[str, Any]:
    way = 1 if direction == "+" else -1
    sign = "+" if way > 0 else "−"
    position = trail.step(
        "Dial to",
        f"{edge_reading:g} {sign} ({tip_diameter:g}/2 + {offset:g})",
        edge_reading + way * (tip_diameter / 2 + offset),
    )
    return {"position": position}
