"""An arc from two of its parts, and how a round lies in a vee."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH, NUMBER
from machinon.core.reckoning import Input, Result, Trail, reckoning, two_of


@reckoning(
    "arc",
    group="Measuring over and across",
    title="An arc from two of its parts",
    usual={"radius": 50, "angle": 30},
    given=(two_of("radius", "chord", "height", "angle"),),
    inputs=(
        Input("radius", LENGTH, "of the arc", None, above=0),
        Input("chord", LENGTH, "straight from end to end", None, above=0),
        Input("height", LENGTH, "of the arc over its chord", None, above=0),
        Input("angle", ANGLE, "from end to end", None, above=0, high=359.9),
    ),
    results=(
        Result("radius", LENGTH, "of the arc"),
        Result("chord", LENGTH, "straight from end to end"),
        Result("height", LENGTH, "of the arc over its chord"),
        Result("angle", ANGLE, "from end to end"),
        Result("length", LENGTH, "along the arc"),
    ),
    sources=("geometry: chord = 2 R sin(angle / 2), height = R (1 − cos(angle / 2))",),
)
def _arc(
    trail: Trail,
    radius: float | None,
    chord: float | None,
    height: float | None,
    angle: float | None,
) -> dict[str, Any]:
    half = math.radians(angle / 2) if angle is not None else 0.0
    if radius is not None and chord is not None:
        if chord > 2 * radius:
            raise BadInput("chord", f"Up to {2 * radius:g} mm, the diameter.")
        half = math.asin(min(chord / (2 * radius), 1.0))
        trail.notes.append("The shorter of the two arcs over that chord.")
    elif radius is not None and height is not None:
        if not height < 2 * radius:
            raise BadInput("height", f"Under {2 * radius:g} mm, the diameter.")
        half = math.acos(1 - height / radius)
    elif chord is not None and height is not None:
        half = 2 * math.atan(2 * height / chord)
        radius = height / 2 + chord**2 / (8 * height)
        trail.step("Radius", f"{height:g} / 2 + {chord:g}² / (8 × {height:g})", radius)
    elif chord is not None:
        radius = chord / (2 * math.sin(half))
        trail.step("Radius", f"{chord:g} / (2 × sin({angle:g}° / 2))", radius)
    elif height is not None:
        radius = height / (1 - math.cos(half))
        trail.step("Radius", f"{height:g} / (1 − cos({angle:g}° / 2))", radius)
    assert radius is not None
    turn = math.degrees(2 * half)
    if angle is None:
        trail.step("Angle", "twice the half over the middle", turn, ANGLE)
    said = f"{radius:.6g}"
    return {
        "radius": radius,
        "chord": trail.step(
            "Chord", f"2 × {said} × sin({turn:.6g}° / 2)", 2 * radius * math.sin(half)
        ),
        "height": trail.step(
            "Height",
            f"{said} × (1 − cos({turn:.6g}° / 2))",
            radius * (1 - math.cos(half)),
        ),
        "angle": turn,
        "length": trail.step(
            "Along the arc", f"π × {said} × {turn:.6g} / 180", 2 * radius * half
        ),
    }


def over_vee(diameter: float, angle: float) -> tuple[float, float]:
    """Heights over the sharp bottom of a vee of a round's axis, and of the lines where
    it touches the flanks, mm.

    angle: flank to flank, degrees.
    """
    half = math.radians(angle / 2)
    axis = diameter / 2 / math.sin(half)
    return axis, axis * math.cos(half) ** 2


@reckoning(
    "vee",
    group="Setting up",
    title="A round in a vee",
    usual={"diameter": 20, "mouth": 30},
    inputs=(
        Input("diameter", LENGTH, "of the round", above=0),
        Input("angle", ANGLE, "of the vee", 90.0, low=20, high=170),
        Input("mouth", LENGTH, "how wide the vee is at its top", None, above=0),
    ),
    results=(
        Result("axis", LENGTH, "of the round over the vee's sharp bottom"),
        Result("top", LENGTH, "of the round over that bottom"),
        Result("apart", LENGTH, "between the lines where it touches"),
        Result("stands_out", LENGTH, "over the vee's top; − is below it"),
        Result("touches", LENGTH, "below the vee's top"),
        Result("rise", NUMBER, "of its top, for 1 more on diameter"),
    ),
    sources=("geometry: axis over the bottom = radius / sin(angle / 2)",),
)
def _vee(
    trail: Trail, diameter: float, angle: float, mouth: float | None
) -> dict[str, Any]:
    half, radius = math.radians(angle / 2), diameter / 2
    axis, touch = over_vee(diameter, angle)
    trail.step("Axis over the bottom", f"{radius:g} / sin({angle:g}° / 2)", axis)
    found = {
        "axis": axis,
        "top": trail.step("Top", f"{axis:.6g} + {radius:g}", axis + radius),
        "apart": trail.step(
            "Between the lines",
            f"{diameter:g} × cos({angle:g}° / 2)",
            diameter * math.cos(half),
        ),
        "rise": trail.step(
            "Rise for 1 on diameter",
            f"(1 + 1 / sin({angle:g}° / 2)) / 2",
            (1 + 1 / math.sin(half)) / 2,
            NUMBER,
        ),
    }
    if mouth is not None:
        deep = trail.step(
            "Depth of the vee",
            f"{mouth:g} / (2 × tan({angle:g}° / 2))",
            mouth / (2 * math.tan(half)),
        )
        if touch > deep:
            least = 2 * math.tan(half) * touch
            raise BadInput(
                "mouth",
                f"From {least:.4g} mm: in a narrower one it lies on the edges.",
            )
        found["stands_out"] = trail.step(
            "Over the top", f"{found['top']:.6g} − {deep:.6g}", found["top"] - deep
        )
        found["touches"] = trail.step(
            "Where it touches",
            f"{deep:.6g} − ({axis:.6g} − {radius:g} × sin({angle:g}° / 2))",
            deep - touch,
        )
    return found
