"""Time for the passes of a cut."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import (
    COUNT,
    DURATION,
    FACTOR,
    FEED,
    INCH,
    LENGTH,
    ROTATION,
)
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckon, reckoning


@reckoning(
    "cutting-time",
    group="Cutting",
    title="Time for the passes of a cut",
    usual={
        "length": 80,
        "start": 50,
        "finish": 44,
        "most": 1,
        "material": "mild steel",
    },
    inputs=(
        Input("length", LENGTH, "of a pass", above=0, high=10_000),
        Input("diameter", LENGTH, "that turns; else the start's", None, above=0),
        Input(
            "passes",
            COUNT,
            "how many; else from start to finish",
            None,
            low=1,
            high=2000,
        ),
        Input("start", LENGTH, "diameter now", None, above=0),
        Input("finish", LENGTH, "diameter wanted", None, above=0),
        Input(
            "most", LENGTH, "deepest pass, radial", 1.0, 0.04 * INCH, above=0, high=20
        ),
        Input("rpm", ROTATION, "speed; else by the material", None, above=0),
        Input("material", TEXT, "what is cut", None),
        Input(
            "tool",
            TEXT,
            "what cuts",
            "hss",
            choices=("hss", "cobalt", "carbide", "brazed"),
        ),
        Input("feed", FEED, "a turn; else as usual", None, above=0, high=10),
        Input("approach", LENGTH, "before the cut", 2.0, low=0, high=500),
        Input("between", DURATION, "winding back and setting", 10.0, low=0),
    ),
    results=(
        Result("passes", COUNT, "how many"),
        Result("per_pass", DURATION, "of one, winding back and all"),
        Result("minutes", FACTOR, "altogether"),
    ),
    sources=("(length + approach) / (rpm × feed), and what lies between the passes",),
)
def _cutting_time(
    trail: Trail,
    length: float,
    diameter: float | None,
    passes: int | None,
    start: float | None,
    finish: float | None,
    most: float,
    rpm: float | None,
    material: str | None,
    tool: str,
    feed: float | None,
    approach: float,
    between: float,
) -> dict[str, Any]:
    if passes is None:
        if start is None or finish is None:
            raise BadInput("passes", "Give the passes, or start and finish.")
        passes = max(math.ceil(abs(start - finish) / 2 / most - 1e-9), 1)
        trail.step(
            "Passes",
            f"|{start:g} − {finish:g}| / 2 / {most:g}, rounded up",
            float(passes),
            COUNT,
        )
    if rpm is None or feed is None:
        wide = diameter if diameter is not None else start
        if rpm is None and (material is None or wide is None):
            raise BadInput("rpm", "Give the speed, or the material and the diameter.")
        speeds = reckon(
            "speeds",
            {
                "material": material or "mild steel",
                "diameter": wide or 25.0,
                "tool": tool,
            },
        )
        rpm = float(speeds["rpm"]) if rpm is None else rpm
        feed = float(speeds["feed"]) if feed is None else feed
        trail.notes.append(f"Reckoned at {rpm:.0f} rpm and {feed:g} mm a turn.")
    per = trail.step(
        "One pass",
        f"60 × ({length:g} + {approach:g}) / ({rpm:.4g} × {feed:g}) + {between:g}",
        60 * (length + approach) / (rpm * feed) + between,
        DURATION,
    )
    return {
        "passes": passes,
        "per_pass": per,
        "minutes": trail.step(
            "Altogether", f"{passes} × {per:.4g} / 60", passes * per / 60, FACTOR
        ),
    }
