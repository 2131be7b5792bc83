"""Flats on a round, and holes made long for an angle of swing."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning, two_of


@reckoning(
    "flat",
    group="Measuring over and across",
    title="A flat on a round: depth, width, and across",
    usual={"diameter": 12, "width": 8},
    given=(one_of("width", "depth", "across"),),
    inputs=(
        Input("diameter", LENGTH, "of the round", above=0),
        Input("width", LENGTH, "of the flat", None, above=0),
        Input("depth", LENGTH, "below the round", None, above=0),
        Input("across", LENGTH, "from the flat to the far side", None, above=0),
    ),
    results=(
        Result("depth", LENGTH, "below the round"),
        Result("width", LENGTH, "of the flat"),
        Result("across", LENGTH, "from the flat to the far side"),
    ),
    sources=("geometry of the chord: depth = r − √(r² − (width/2)²)",),
)
def _flat(
    trail: Trail,
    diameter: float,
    width: float | None,
    depth: float | None,
    across: float | None,
) -> dict[str, Any]:
    radius = diameter / 2
    if width is not None:
        if not width <= diameter:
            raise BadInput("width", f"Up to {diameter:g} mm is allowed.")
        depth = trail.step(
            "Depth",
            f"{radius:g} − √({radius:g}² − {width / 2:g}²)",
            radius - math.sqrt(radius**2 - (width / 2) ** 2),
        )
    elif across is not None:
        if not across < diameter:
            raise BadInput("across", f"Under {diameter:g} mm is allowed.")
        depth = trail.step("Depth", f"{diameter:g} − {across:g}", diameter - across)
    assert depth is not None
    if not depth < diameter:
        raise BadInput("depth", f"Under {diameter:g} mm is allowed.")
    wide = trail.step(
        "Width",
        f"2 √({depth:.4g} × ({diameter:g} − {depth:.4g}))",
        2 * math.sqrt(depth * (diameter - depth)),
    )
    return {
        "depth": depth,
        "width": wide,
        "across": trail.step("Across", f"{diameter:g} − {depth:.4g}", diameter - depth),
    }


@reckoning(
    "elongation",
    group="Holes, patterns and dividing",
    title="A hole made long so that an arm can swing",
    usual={"opening_angle": 20, "thickness": 10, "hole": 6.5, "screw": 6},
    inputs=(
        Input("opening_angle", ANGLE, "whole; each arm swings half", above=0, high=150),
        Input("thickness", LENGTH, "of the arm the screw goes through", above=0),
        Input("hole", LENGTH, "diameter of the hole", above=0),
        Input("screw", LENGTH, "diameter of the screw", above=0),
    ),
    results=(
        Result("elongation", LENGTH, "to one side, at the far face"),
        Result("tilt", ANGLE, "of the cutter run through from the near face"),
        Result("width_at_face", LENGTH, "of the hole there"),
    ),
    sources=(
        "geometry: thickness × tan h + screw / (2 cos h) − hole / 2, h half the angle",
    ),
)
def _elongation(
    trail: Trail, opening_angle: float, thickness: float, hole: float, screw: float
) -> dict[str, Any]:
    if screw > hole:
        raise BadInput("screw", f"It does not go in: up to {hole:g} mm does.")
    half = math.radians(opening_angle) / 2
    wanted = thickness * math.tan(half) + screw / (2 * math.cos(half)) - hole / 2
    written = (
        f"{thickness:g} tan {opening_angle / 2:g}° + {screw:g} / "
        f"(2 cos {opening_angle / 2:g}°) − {hole:g} / 2"
    )
    if wanted <= 0:
        written += " is under 0: the hole's own clearance is enough"
    long = trail.step("Longer by", written, max(wanted, 0.0))
    return {
        "elongation": long,
        "tilt": trail.step(
            "Tilt",
            f"atan({long:.4g} / {thickness:g})",
            math.degrees(math.atan(long / thickness)),
            ANGLE,
        ),
        "width_at_face": trail.step(
            "Wide there", f"{hole:g} + {long:.4g}", hole + long
        ),
    }


@reckoning(
    "triangle",
    group="Measuring over and across",
    title="A right-angled triangle from two of its parts",
    usual={"side": 3, "rise": 4},
    given=(two_of("side", "rise", "slope", "angle"),),
    inputs=(
        Input("side", LENGTH, "along the base", None, above=0),
        Input("rise", LENGTH, "square to the base", None, above=0),
        Input("slope", LENGTH, "the long side", None, above=0),
        Input("angle", ANGLE, "between base and long side", None, above=0, high=89.9),
    ),
    results=(
        Result("side", LENGTH, "along the base"),
        Result("rise", LENGTH, "square to the base"),
        Result("slope", LENGTH, "the long side"),
        Result("angle", ANGLE, "between base and long side"),
        Result("other_angle", ANGLE, "between rise and long side"),
    ),
    sources=("Pythagoras; rise = base × tan(angle)",),
)
def _triangle(
    trail: Trail,
    side: float | None,
    rise: float | None,
    slope: float | None,
    angle: float | None,
) -> dict[str, Any]:
    if slope is not None:
        for key, value in (("side", side), ("rise", rise)):
            if value is not None and not value < slope:
                raise BadInput(key, f"Under the long side, {slope:g} mm, is allowed.")
    if angle is not None:
        a = math.radians(angle)
        if slope is not None:
            side, rise = slope * math.cos(a), slope * math.sin(a)
        elif side is not None:
            rise = side * math.tan(a)
        else:
            assert rise is not None
            side = rise / math.tan(a)
    elif side is None:
        assert slope is not None
        assert rise is not None
        side = math.sqrt(slope**2 - rise**2)
    elif rise is None:
        assert slope is not None
        rise = math.sqrt(slope**2 - side**2)
    assert side is not None
    assert rise is not None
    long = trail.step(
        "Long side", f"√({side:.5g}² + {rise:.5g}²)", math.hypot(side, rise)
    )
    at = trail.step(
        "Angle",
        f"atan({rise:.5g} / {side:.5g})",
        math.degrees(math.atan2(rise, side)),
        ANGLE,
    )
    return {
        "side": side,
        "rise": rise,
        "slope": long,
        "angle": at,
        "other_angle": 90 - at,
    }
