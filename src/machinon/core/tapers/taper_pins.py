"""Taper pins: both ends, and the step drills before the reamer."""

import functools
import math
from collections.abc import Mapping, Sequence
from typing import Any

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import INCH, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows
from machinon.core.threads.tapping import INCH_SERIES, drill_named, drills, drills_of

METRIC_RATIO = 1 / 50  # ISO 2339
INCH_RATIO = 0.25 / 12  # a quarter inch to the foot
SAME = 0.01  # mm: a pin's large end is named to a thousandth of an inch
ALLOWANCE = 0.05  # mm left for the reamer at the small end of each step


@functools.cache
def taper_pins() -> Mapping[str, float]:
    """The end that names each pin, mm: a metric pin's small, an inch pin's large."""
    return {
        r["name"]: float(r["size"]) * (INCH if r["unit"] == "in" else 1.0)
        for r in rows("taper_pins")
    }


def _named(said: str) -> str:
    """The pin as the table names it, by its name or by its size: an inch one's large
    end, as 1/4 is #4. Raises BadInput for what is no pin."""
    inch = {name: end for name, end in taper_pins().items() if name[0] == "#"}
    if said.startswith("#"):
        if said not in inch:
            raise unknown("pin", said, list(inch))
        return said
    size = quantity.parse(said, key="pin", above=0, high=50)
    if f"{size:g}" in taper_pins():
        return f"{size:g}"
    for name, end in inch.items():
        if abs(end - size) < SAME:
            return name
    sizes = ", ".join(name for name in taper_pins() if name not in inch)
    raise BadInput("pin", f"{size:g} mm is no pin of ISO 2339: {sizes} are.")


@reckoning(
    "taper-pin",
    group="Tapers",
    title="A taper pin's ends and its step drills",
    usual={"pin": "6", "length": 40},
    usual_inch={"pin": "#5", "length": 1.5 * INCH},
    inputs=(
        Input("pin", TEXT, "#5 or 1/4 for an inch one; a bare number is a metric pin"),
        Input("length", LENGTH, "of the hole the pin goes through", above=0, high=500),
        Input(
            "large_end_at",
            LENGTH,
            "how far the large end stands in from the surface; negative: out",
            default=0.0,
            low=-50,
            high=50,
        ),
    ),
    results=(
        Result("large_diameter", LENGTH, "of the pin"),
        Result("small_diameter", LENGTH, "of the pin"),
        Result("drills", LENGTH, "step drills: drill and depth from the surface"),
        Result("reamer", TEXT, "which reamer, and until when"),
    ),
    sources=("ISO 2339:1986 (1:50, named by the small end)", "ASME B18.8.2-2000"),
)
def _taper_pin(
    trail: Trail, pin: str, length: float, large_end_at: float
) -> dict[str, Any]:
    if not large_end_at < length:
        raise BadInput(
            "large_end_at", f"The pin must reach into the hole: under {length:g} mm."
        )
    name = _named(pin.strip())
    if name.startswith("#"):
        large = taper_pins()[name]
        ratio = INCH_RATIO
        small = trail.step(
            "Small end, at the far face",
            f"{large:.4f} − ({length:g} − {large_end_at:g}) / 48",
            large - (length - large_end_at) * ratio,
        )
        reamer = f"taper pin reamer {name}, 1/4 in per foot"
        known = drills_of(INCH_SERIES)
    else:
        small = taper_pins()[name]
        ratio = METRIC_RATIO
        large = trail.step(
            "Large end",
            f"{small:g} + ({length:g} − {large_end_at:g}) / 50",
            small + (length - large_end_at) * ratio,
        )
        reamer = f"taper pin reamer {small:g} mm, 1:50"
        known = drills("metric")
    if small <= 0:
        raise BadInput(
            "length",
            "Such a pin ends before: up to "
            f"{math.floor(large / ratio + large_end_at)} mm.",
        )
    count = 1 if length <= 2.5 * large else 2 if length <= 5 * large else 3
    steps = []
    for i in range(count):
        # each step stays under the taper at the far end of its own depth
        depth = length * (count - i) / count
        size = trail.step(
            f"Drill to {depth:g}, at most",
            f"{large:.4f} − ({depth:g} − {large_end_at:g}) × {ratio:.5g} − {ALLOWANCE}",
            large - (depth - large_end_at) * ratio - ALLOWANCE,
        )
        below = [drill for drill in known if drill.size <= size + 1e-9]
        if below:
            steps.append({"drill": below[-1].size, "depth": depth})
    trail.notes.append(
        f"{_drilling(steps)}; ream until the pin stands proud by what it will be "
        "driven."
    )
    return {
        "large_diameter": large,
        "small_diameter": small,
        "drills": steps,
        "reamer": reamer,
    }


def _drilling(steps: Sequence[Mapping[str, float]]) -> str:
    """The step drills in their order, the first one through."""
    if not steps:
        return "No drill goes before the reamer"
    first, *others = (drill_named(step["drill"]) for step in steps)
    then = [
        f"{drill} to {step['depth']:.4g} mm"
        for drill, step in zip(others, steps[1:], strict=True)
    ]
    return f"Drill through with {'; then '.join([first, *then])}"
