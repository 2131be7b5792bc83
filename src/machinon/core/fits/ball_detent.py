"""A sprung ball in a recess: what it holds, and how equal recesses must be."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, FORCE, LENGTH, PERCENT, TORQUE
from machinon.core.reckoning import Input, Result, Trail, reckoning
from machinon.core.sizes.fit import rising_play


def side_force(ball: float, depth: float, spring: float) -> float:
    """Force across that lifts a ball out of a recess, N; friction left out.

    ball, depth: mm, depth under half the ball; spring: N, on the ball.
    Source: moments about the recess's rim.

    >>> round(side_force(6, 0.8, 10), 3)
    9.271
    """
    radius = ball / 2
    rim = math.sqrt(depth * (ball - depth))
    return spring * rim / (radius - depth)


@reckoning(
    "detent-hold",
    group="Fits and materials",
    title="What a sprung ball holds",
    usual={"ball": 6, "depth": 0.8, "spring": 10, "radius": 25},
    usual_inch={"spring": "2lbf"},
    inputs=(
        Input("ball", LENGTH, "diameter of the ball", above=0),
        Input("depth", LENGTH, "of the ball in its recess", above=0),
        Input("doubt", LENGTH, "of that depth, two sigma", 0.0, low=0),
        Input("spring", FORCE, "of the spring on the ball", above=0),
        Input("radius", LENGTH, "of the circle of recesses", above=0),
        Input(
            "alike",
            PERCENT,
            "how alike the recesses should hold",
            10.0,
            above=0,
            high=50,
        ),
        Input("play_least", LENGTH, "of the ball in its hole, least", 0.02, above=0),
        Input("play_most", LENGTH, "of the ball in its hole, most", 0.08, above=0),
    ),
    results=(
        Result("hold", FORCE, "across, to push it out"),
        Result("torque", TORQUE, "to click from recess to recess"),
        Result("angle", ANGLE, "of the rim's push, from the ball's way"),
        Result("depth_lower", LENGTH, "shallowest recess that holds alike"),
        Result("depth_upper", LENGTH, "deepest recess that holds alike"),
        Result("rim", LENGTH, "of the recess across, at its depth"),
        Result("hole_lower", LENGTH, "hole for the ball, smallest"),
        Result("hole_upper", LENGTH, "hole for the ball, largest"),
    ),
    sources=(
        "moments about the rim, friction left out; the ball's play is a shop rule",
    ),
)
def _detent_hold(
    trail: Trail,
    ball: float,
    depth: float,
    doubt: float,
    spring: float,
    radius: float,
    alike: float,
    play_least: float,
    play_most: float,
) -> dict[str, Any]:
    most = 0.45 * ball
    if not depth <= most:
        raise BadInput(
            "depth",
            f"Up to {most:g} mm is allowed: deeper than about half its ball a detent "
            "locks instead of clicking.",
        )
    rising_play(play_least, play_most)
    rim = math.sqrt(depth * (ball - depth))
    hold = trail.step(
        "Push across",
        f"{spring:g} × {rim:.4f} / ({ball / 2:g} − {depth:g})",
        side_force(ball, depth, spring),
        FORCE,
    )
    limits = []
    for share in (1 - alike / 100, 1 + alike / 100):
        # side force is spring × tan(phi), with cos(phi) = 1 − depth / (ball/2)
        phi = math.atan(share * hold / spring)
        limits.append(ball / 2 * (1 - math.cos(phi)))
    trail.step("Shallowest", f"{100 - alike:g} % of the push", limits[0])
    trail.step("Deepest", f"{100 + alike:g} % of the push", limits[1])
    if limits[0] + doubt >= limits[1] - doubt:
        trail.cautions.append(
            f"No depth holds alike to {alike:g} %: that leaves "
            f"{limits[1] - limits[0]:.3f} mm, and the depth's uncertainty takes "
            f"{2 * doubt:.3f} mm."
        )
    return {
        "hold": hold,
        "torque": trail.step(
            "Torque", f"{hold:.4g} × {radius:g} / 1000", hold * radius / 1000, TORQUE
        ),
        "angle": math.degrees(math.atan2(rim, ball / 2 - depth)),
        "depth_lower": limits[0] + doubt,
        "depth_upper": limits[1] - doubt,
        "rim": 2 * rim,
        "hole_lower": trail.step(
            "Ball's hole", f"{ball:g} + {play_least:g}", ball + play_least
        ),
        "hole_upper": trail.step(
            "at most", f"{ball:g} + {play_most:g}", ball + play_most
        ),
    }
