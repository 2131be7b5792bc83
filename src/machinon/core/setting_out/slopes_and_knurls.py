"""A piece held at a slope on slips, and diameters that knurl cleanly."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, INCH, LENGTH, NUMBER
from machinon.core.reckoning import PITCH, Input, Result, Trail, one_of, reckoning
from machinon.core.setting_out.gauge_stack import stack

# the usual set of 87 pieces, mm
SLIPS = (
    1.0005,
    *(1 + i / 1000 for i in range(1, 10)),
    *(1 + i / 100 for i in range(1, 50)),
    *(0.5 + i / 2 for i in range(19)),
    *(10.0 * i for i in range(1, 10)),
)
GROWTH = 0.4  # of the pitch, on the diameter: what a formed knurl raises; shop rule


@reckoning(
    "angle-block",
    group="Setting up",
    title="A piece laid at an angle on slips",
    usual={"angle": 15, "length": 80},
    inputs=(
        Input("angle", ANGLE, "of the slope", above=0, high=89),
        Input("length", LENGTH, "of the piece along the slope", above=0, high=1000),
    ),
    results=(
        Result("height", LENGTH, "under the raised end"),
        Result("run", LENGTH, "along the table"),
        Result("stack", LENGTH, "slips for it, of a set of 87"),
    ),
    sources=("height = length × sin(angle), run = length × cos(angle)",),
)
def _angle_block(trail: Trail, angle: float, length: float) -> dict[str, Any]:
    a = math.radians(angle)
    height = trail.step("Height", f"{length:g} × sin {angle:g}°", length * math.sin(a))
    run = trail.step("Run", f"{length:g} × cos {angle:g}°", length * math.cos(a))
    slips = stack(round(height, 3), SLIPS, 5, 0.0006)
    if slips is None:
        trail.notes.append("No few slips make that height: see gauge-stack.")
    return {"height": height, "run": run, "stack": list(slips or ())}


@reckoning(
    "knurl",
    group="Cutting",
    title="Diameters that knurl cleanly",
    usual={"pitch": 1, "diameter": 20},
    given=(one_of("pitch", "tpi"),),
    inputs=(
        Input("pitch", PITCH, "of the wheel, round the work", None, above=0, high=10),
        Input("tpi", NUMBER, "teeth to the inch of the wheel", None, above=0, high=200),
        Input("diameter", LENGTH, "of the work", above=0, high=1000),
    ),
    results=(
        Result("teeth", COUNT, "nearest whole number of teeth round it"),
        Result("best_diameters", LENGTH, "next smaller and larger that come out whole"),
        Result("growth", LENGTH, "on the diameter, of a formed knurl"),
    ),
    sources=("teeth = π × diameter / pitch; growth 0.4 of the pitch, a shop rule",),
)
def _knurl(
    trail: Trail, pitch: float | None, tpi: float | None, diameter: float
) -> dict[str, Any]:
    if pitch is None:
        assert tpi is not None
        pitch = INCH / tpi
    count = trail.step(
        "Teeth", f"π × {diameter:g} / {pitch:.4g}", math.pi * diameter / pitch, NUMBER
    )
    if count < 3:
        raise BadInput("diameter", f"From {3 * pitch / math.pi:.3g} mm on it knurls.")
    whole = {math.floor(count + 1e-9), math.ceil(count - 1e-9)}
    best = sorted(n * pitch / math.pi for n in whole)
    trail.notes.append(
        "Turn the work to one of the two before knurling; a cut knurl does not grow."
    )
    return {
        "teeth": round(count),
        "best_diameters": best,
        "growth": trail.step("Grows", f"{GROWTH:g} × {pitch:.4g}", GROWTH * pitch),
    }
