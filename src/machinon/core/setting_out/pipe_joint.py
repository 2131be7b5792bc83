"""A pipe cut to sit on a round: how deep its end is cut, all the way round it."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import Input, Result, Trail, reckoning


def reach(theta: float, pipe: float, on: float, angle: float) -> float:
    """Distance along the pipe from the crossing of both axes to the round's surface,
    mm.

    theta: round the pipe from its sharp side, radians; pipe, on: diameters, mm; angle:
    between the axes, degrees. Source: geometry of two cylinders whose axes cross.

    >>> round(reach(0.0, 30, 60, 90), 6), round(reach(math.pi / 2, 30, 60, 90), 6)
    (30.0, 25.980762)
    """
    r, lean = pipe / 2, math.radians(angle)
    deep = math.sqrt(max((on / 2) ** 2 - (r * math.sin(theta)) ** 2, 0.0))
    return (deep + r * math.cos(theta) * math.cos(lean)) / math.sin(lean)


@reckoning(
    "pipe-joint",
    group="Holes, patterns and dividing",
    title="A pipe cut to sit on a round",
    usual={"pipe": 25, "on": 42, "angle": 60},
    inputs=(
        Input("pipe", LENGTH, "outside of the pipe that is cut", above=0, high=1000),
        Input("on", LENGTH, "outside of the round it sits on", above=0, high=2000),
        Input("angle", ANGLE, "between the two", 90.0, low=20, high=90),
        Input("stations", COUNT, "places round it", 16, low=4, high=72),
    ),
    results=(
        Result("around", LENGTH, "the template's length, once round the pipe"),
        Result("deepest", LENGTH, "its height: from the longest to the shortest side"),
        Result("to_axis", LENGTH, "from the longest side's end to the round's axis"),
        Result(
            "points",
            LENGTH,
            "along the template and up it, from the sharp side",
            {"at": ANGLE},
        ),
    ),
    sources=("geometry of two cylinders whose axes cross",),
)
def _pipe_joint(
    trail: Trail, pipe: float, on: float, angle: float, stations: int
) -> dict[str, Any]:
    if pipe > on + 1e-9:
        raise BadInput(
            "pipe", f"It is no thicker than what it sits on: up to {on:g} mm."
        )
    around = trail.step("Once round", f"π × {pipe:g}", math.pi * pipe)
    turns = [2 * math.pi * i / stations for i in range(stations + 1)]
    reaches = [reach(turn, pipe, on, angle) for turn in turns]
    # the ends of the curve may lie between two places
    fine = [reach(2 * math.pi * i / 720, pipe, on, angle) for i in range(720)]
    least, most = min(fine), max(fine)
    trail.step("Longest side to the axis", f"√((⌀{on:g} / 2)² − …)", least)
    deepest = trail.step("Deepest", f"{most:.3f} − {least:.3f}", most - least)
    trail.notes.append(
        "Wrap it round the pipe with its straight edge square, scribe along the curve "
        "and cut outside of it; the seam lies on the sharp side. A thick wall is "
        "bevelled till its inside touches."
    )
    trail.cautions.append("Weld with clean metal; coated pipe gives off poison.")
    return {
        "around": around,
        "deepest": deepest,
        "to_axis": least,
        "points": [
            {
                "along": around * i / stations,
                "up": most - far,
                "at": 360.0 * i / stations,
            }
            for i, far in enumerate(reaches)
        ],
    }
