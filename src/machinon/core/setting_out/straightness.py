"""Is it straight, is it square: readings along a bed, gaps at a square."""

import math
from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import OBJECT, Input, Result, Trail, reckoning


@reckoning(
    "straightness",
    group="Setting up",
    title="Slope and bow from readings along a line",
    usual={"readings": [0, 0.02, 0.05, 0.06, 0.08], "spacing": 50},
    inputs=(
        Input("readings", LENGTH, "at equal steps", many=True),
        Input("spacing", LENGTH, "from one to the next", above=0),
        Input("base", LENGTH, "length over which a shim lifts one end", None, above=0),
    ),
    results=(
        Result("slope", LENGTH, "in 100 mm; positive rises"),
        Result("angle", ANGLE, "of the slope"),
        Result("bow", LENGTH, "largest distance from the best line"),
        Result("shim", LENGTH, "under the low end, for that base"),
    ),
    sources=("least squares through the readings",),
)
def _straightness(
    trail: Trail, readings: tuple[float, ...], spacing: float, base: float | None
) -> dict[str, Any]:
    count = len(readings)
    if count < 2:
        raise BadInput("readings", "Take at least 2 readings; 3 or more show a bow.")
    middle = (count - 1) / 2
    mean = math.fsum(readings) / count
    spread = math.fsum((i - middle) ** 2 for i in range(count))
    rise = math.fsum((i - middle) * (r - mean) for i, r in enumerate(readings))
    per_step = rise / spread
    slope = trail.step(
        "In 100 mm", f"100 × {per_step:.4g} / {spacing:g}", 100 * per_step / spacing
    )
    bow = max(abs(r - mean - per_step * (i - middle)) for i, r in enumerate(readings))
    trail.step("Bow", "largest distance from the line", bow)
    results = {
        "slope": slope,
        "angle": math.degrees(math.atan(slope / 100)),
        "bow": bow,
    }
    if base is not None:
        results["shim"] = trail.step(
            "Shim", f"{base:g} × |{slope:.4g}| / 100", base * abs(slope) / 100
        )
    return results


@reckoning(
    "squareness-gaps",
    group="Setting up",
    title="Out of square by the gaps at a square",
    usual={"gaps": [{"at": 10, "gap": 0.02}, {"at": 90, "gap": 0.06}], "length": 100},
    inputs=(
        Input(
            "gaps",
            OBJECT,
            "at (height), gap: two places",
            many=True,
            columns=(("at", LENGTH), ("gap", LENGTH)),
        ),
        Input("length", LENGTH, "over which the error is said", 100.0, above=0),
    ),
    results=(
        Result("angle", ANGLE, "from square; positive opens upward"),
        Result("error", LENGTH, "over the length"),
    ),
    sources=("difference of the gaps over the distance between them",),
)
def _squareness(trail: Trail, gaps: tuple[Any, ...], length: float) -> dict[str, Any]:
    if len(gaps) != 2:
        raise BadInput("gaps", "Give two places, each with its height and its gap.")
    (low, a), (high, b) = sorted(_gap(gap) for gap in gaps)
    if not high > low:
        raise BadInput("gaps", "The two places must be apart.")
    slope = (b - a) / (high - low)
    return {
        "angle": trail.step(
            "Angle",
            f"atan(({b:g} − {a:g}) / ({high:g} − {low:g}))",
            math.degrees(math.atan(slope)),
            ANGLE,
        ),
        "error": trail.step(
            "Over the length", f"{length:g} × {slope:.4g}", length * slope
        ),
    }


def _gap(given: Mapping[str, Any]) -> tuple[float, float]:
    found = []
    for key in ("at", "gap"):
        try:
            found.append(float(Input(key, LENGTH, key, low=0).read(given.get(key))))
        except BadInput as error:
            raise BadInput("gaps", f"{key}: {error.message}") from None
    return found[0], found[1]
