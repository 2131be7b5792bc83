"""Centring by indicator: how far off, which way to move, what will remain."""

import math
import statistics
from collections.abc import Sequence
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, DIRECTION, LENGTH
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning
from machinon.core.setting_out.runout import TURN_INPUTS, resolve


@reckoning(
    "centring",
    group="Setting up",
    title="Centre a piece from indicator readings",
    usual={"readings": [0.05, 0.12, -0.01, -0.08]},
    inputs=TURN_INPUTS,
    results=(
        Result("offset_x", LENGTH, "of the centre towards 0°"),
        Result("offset_y", LENGTH, "of the centre towards 90°"),
        Result("offset", LENGTH, "of the centre"),
        Result("direction", DIRECTION, "of the high side"),
        Result("tir", LENGTH, "largest less smallest reading"),
        Result(
            "moves",
            LENGTH,
            "from, towards, move, and change on the indicator",
            {"from": ANGLE, "towards": ANGLE},
        ),
        Result("high_spot", DIRECTION, "where one reading alone stands apart"),
        Result("high_spot_height", LENGTH, "how far it stands out; negative: a hollow"),
        Result("residual", LENGTH, "reading that centring cannot take out"),
    ),
    sources=("least squares on the first two harmonics of the turn",),
)
def _centring(
    trail: Trail, readings: tuple[float, ...], angles: tuple[float, ...] | None
) -> dict[str, Any]:
    found = resolve(readings, angles)
    phase = math.radians(found.phase)
    x = trail.step(
        "Towards 0°", "offset × cos(phase)", found.eccentricity * math.cos(phase)
    )
    y = trail.step(
        "Towards 90°", "offset × sin(phase)", found.eccentricity * math.sin(phase)
    )
    places = angles or tuple(360 * i / len(readings) for i in range(len(readings)))
    rest = [
        reading - found.eccentricity * math.cos(math.radians(place) - phase)
        for reading, place in zip(readings, places, strict=True)
    ]
    moves = []
    for amount, at in ((x, 0), (y, 90)):
        if abs(amount) > 5e-7:
            high = at if amount > 0 else at + 180
            moves.append(
                {
                    "from": high,
                    "towards": (high + 180) % 360,
                    "move": abs(amount),
                    "indicator": 2 * abs(amount),
                }
            )
    spot = _lone(readings)
    alone: dict[str, Any] = {}
    if spot is not None:
        height = readings[spot] - statistics.fmean(_without(readings, spot))
        alone = {
            "high_spot": places[spot],
            "high_spot_height": trail.step(
                "One reading apart", "it less the mean of the others", height
            ),
        }
        trail.cautions.append(
            f"The others agree and {places[spot]:g}° alone stands "
            f"{'out' if height > 0 else 'in'} by {abs(height):.3f} mm: a single "
            f"{'high' if height > 0 else 'low'} spot is not an offset. Wipe it and "
            "read again; dress off a burr or dirt; or leave it and keep the centre "
            "of the others; or split it by the moves below, if that place counts."
        )
    for move in moves:
        trail.notes.append(
            f"Push from {move['from']}° towards {move['towards']}°, "
            f"{move['move']:.3f} mm: the two opposite readings then differ by "
            f"{move['indicator']:.3f} mm less."
        )
    return {
        **alone,
        "offset_x": x + 0.0,
        "offset_y": y + 0.0,
        "offset": found.eccentricity,
        "direction": found.phase,
        "tir": found.tir,
        "moves": moves,
        "residual": trail.step(
            "Left after centring",
            "largest less smallest of the rest",
            max(rest) - min(rest),
        ),
    }


APART = 5.0  # times the spread of the others: a reading that stands alone
NEEDLE = 0.002  # mm: what an indicator repeats to at best


def _without(readings: Sequence[float], index: int) -> list[float]:
    return [reading for i, reading in enumerate(readings) if i != index]


def _lone(readings: Sequence[float]) -> int | None:
    """The reading that stands apart from all others, which agree; None for none.

    A true offset of four or more equally spaced readings never does that.
    """
    if len(readings) < 4:
        return None

    def off(i: int) -> float:
        return abs(readings[i] - statistics.median(_without(readings, i)))

    at = max(range(len(readings)), key=off)
    others = _without(readings, at)
    spread = max(max(others) - min(others), NEEDLE)
    return at if off(at) > APART * spread else None


@reckoning(
    "detent",
    group="Measuring over and across",
    title="A dimple for a detent ball",
    usual={"ball": 6, "depth": 0.8},
    given=(one_of("land_diameter", "depth", "drill_angle"),),
    inputs=(
        Input("ball", LENGTH, "diameter of the ball", above=0),
        Input("land_diameter", LENGTH, "of the dimple's rim", default=None, above=0),
        Input("depth", LENGTH, "of the dimple", default=None, above=0),
        Input(
            "drill_angle", ANGLE, "of a drilled dimple", default=None, above=0, high=179
        ),
    ),
    results=(
        Result("depth", LENGTH, "of the spherical dimple"),
        Result("land_diameter", LENGTH, "of its rim"),
        Result("rise", LENGTH, "of the ball when it leaves the dimple"),
    ),
    sources=("geometry: land = 2√(depth (ball − depth))",),
)
def _detent(
    trail: Trail,
    ball: float,
    land_diameter: float | None,
    depth: float | None,
    drill_angle: float | None,
) -> dict[str, Any]:
    radius = ball / 2
    if drill_angle is not None:
        half = math.radians(drill_angle) / 2
        land_diameter = trail.step(
            "Ring of contact",
            f"{ball:g} × cos {drill_angle / 2:g}°",
            ball * math.cos(half),
        )
        depth = radius * (1 - math.sin(half))
    elif land_diameter is not None:
        if not land_diameter <= ball:
            raise BadInput("land_diameter", f"Up to the ball, {ball:g} mm, is allowed.")
        depth = radius - math.sqrt(radius**2 - (land_diameter / 2) ** 2)
    assert depth is not None
    if not depth <= radius:
        raise BadInput("depth", f"Up to half the ball, {radius:g} mm, is allowed.")
    trail.step("Depth", "radius − √(radius² − (land/2)²)", depth)
    land = land_diameter or 2 * math.sqrt(depth * (ball - depth))
    return {"depth": depth, "land_diameter": land, "rise": depth}
