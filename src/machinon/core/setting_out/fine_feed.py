"""A topslide set over, so that its dial takes off less than it reads."""

import math
from typing import Any

from machinon.core.quantity import ANGLE, INCH, LENGTH
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning


@reckoning(
    "fine-feed",
    group="Setting up",
    title="The topslide set over for a fine feed",
    usual={"off": 0.02, "angle": 5.74},
    given=(one_of("off", "travel"),),
    inputs=(
        Input("off", LENGTH, "wanted, on the diameter", None, above=0, high=50),
        Input("travel", LENGTH, "of the topslide", None, above=0, high=200),
        Input("angle", ANGLE, "from the line of the bed", 5.74, above=0, high=90),
        Input(
            "division",
            LENGTH,
            "one line of its dial, travel",
            default=0.02,
            inch_default=0.001 * INCH,
            above=0,
            high=1,
        ),
    ),
    results=(
        Result("travel", LENGTH, "of the topslide"),
        Result("off", LENGTH, "on the diameter"),
        Result("along", LENGTH, "that the tool moves towards the chuck"),
        Result("a_line", LENGTH, "one line takes off the diameter"),
    ),
    sources=("geometry: off the diameter = 2 × travel × sin of the angle",),
)
def _fine_feed(
    trail: Trail,
    off: float | None,
    travel: float | None,
    angle: float,
    division: float,
) -> dict[str, Any]:
    turned = math.radians(angle)
    if travel is None:
        assert off is not None
        travel = trail.step(
            "Travel", f"{off:g} / (2 × sin {angle:g})", off / 2 / math.sin(turned)
        )
    else:
        off = trail.step(
            "Off", f"2 × {travel:g} × sin {angle:g}", 2 * travel * math.sin(turned)
        )
    trail.notes.append(
        "At 5.74° a line of 0.01 mm takes a thousandth of a millimetre off the side. "
        "Take up the slack in one direction; the tool moves along the work as well, so "
        "keep it clear of a shoulder."
    )
    return {
        "travel": travel,
        "off": off,
        "along": trail.step(
            "Along", f"{travel:.5g} × cos {angle:g}", travel * math.cos(turned)
        ),
        "a_line": trail.step(
            "A line",
            f"2 × {division:g} × sin {angle:g}",
            2 * division * math.sin(turned),
        ),
    }
