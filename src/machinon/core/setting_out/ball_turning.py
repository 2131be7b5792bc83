"""A ball or a round end, turned in steps that a file takes off."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, LENGTH
from machinon.core.reckoning import Input, Result, Trail, reckoning

FILING = "Filing at the lathe: a handle on the file, sleeves up, clear of the jaws."
MOST = 200  # steps: more nobody turns


def middle_to_neck(ball: float, neck: float) -> float:
    """Distance from the middle of a ball to its neck, by their diameters, mm; to its
    tip where the neck is 0.

    >>> middle_to_neck(20, 12), middle_to_neck(20, 0)
    (8.0, 10.0)
    """
    return math.sqrt(ball**2 - neck**2) / 2


@reckoning(
    "ball-turning",
    group="Cutting",
    title="A ball turned in steps",
    usual={"ball": 20, "neck": 12},
    inputs=(
        Input("ball", LENGTH, "its diameter", above=0, high=500),
        Input("neck", LENGTH, "of its neck; 0 for a round end", 0.0, low=0, high=490),
        Input("ridge", LENGTH, "ridge to be filed off", 0.4, low=0.01, high=10),
    ),
    results=(
        Result("length", LENGTH, "from its tip to the neck, or to its middle"),
        Result("count", COUNT, "steps to turn"),
        Result("left", LENGTH, "ridge that stays at every step"),
        Result("steps", LENGTH, "from the tip, from where to where, and how thick"),
    ),
    sources=("a circle's chord; as far from step to step as leaves one ridge at all",),
)
def _ball_turning(
    trail: Trail, ball: float, neck: float, ridge: float
) -> dict[str, Any]:
    radius = ball / 2
    if neck >= ball:
        raise BadInput("neck", f"A neck is thinner than its ball: under {ball:g} mm.")
    length = trail.step(
        "From tip to neck" if neck else "From tip to middle",
        f"{ball:g} / 2 + √({ball:g}² − {neck:g}²) / 2" if neck else f"{ball:g} / 2",
        ball / 2 + (middle_to_neck(ball, neck) if neck else 0.0),
    )
    # a step's corner stands as far over the ball as the squares of its ends differ
    most = (1 + ridge / radius) ** 2 - 1
    behind = 1 - (neck / ball) ** 2 if neck else 0.0
    before = max(math.ceil(1 / most - 1e-9), 1)
    after = math.ceil(behind / most - 1e-9)
    if before + after > MOST:
        raise BadInput(
            "ridge", f"That takes {before + after} steps; up to {MOST} are. Allow more."
        )
    apart = max(1 / before, behind / after if after else 0.0)
    left = trail.step(
        "Ridge that stays",
        f"{radius:g} × (√(1 + {apart:.4f}) − 1)",
        radius * (math.sqrt(1 + apart) - 1),
    )
    steps = []
    for n in range(before - 1, 0, -1):
        share = n / before  # of the square of the ball
        to = radius * (1 - math.sqrt(1 - share))
        steps.append({"from": 0.0, "to": to, "diameter": ball * math.sqrt(share)})
    for n in range(1, after):
        off = behind * n / after
        start = radius * (1 + math.sqrt(off))
        wide = ball * math.sqrt(1 - off)
        steps.append({"from": start, "to": length, "diameter": wide})
    trail.notes.append(
        "Turn it to the ball's diameter first. Steps before its middle come from the "
        "tip, those behind it from the neck, which a grooving tool opens. File the "
        "ridges off: a ring of smaller bore shows by its rubbing where it is high."
    )
    trail.cautions.append(FILING)
    return {"length": length, "count": len(steps), "left": left, "steps": steps}
