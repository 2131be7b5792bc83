"""Run-out told apart: what of it is the seat's, the collet's and the tool's."""

import cmath
import math
from typing import Any

from machinon.core.quantity import ANGLE, DIRECTION, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

SMALL = 0.001  # mm: no needle tells less


def _vector(tir: float, angle: float) -> complex:
    return cmath.rect(tir, math.radians(angle))


def _told(trail: Trail, what: str, sum_of: str, found: complex) -> tuple[float, float]:
    """Amount of the run-out, mm on the indicator, and where its high side stands."""
    size = trail.step(what, sum_of, abs(found))
    # no needle shows a direction better than that
    at = round(math.degrees(cmath.phase(found)), 1) % 360 if size > 1e-9 else 0.0
    return size, trail.step(f"{what}, high side", "its direction", at, DIRECTION)


@reckoning(
    "runout-apart",
    group="Measuring over and across",
    title="Run-out told apart into seat, collet and tool",
    usual={
        "first": 0.0063,
        "first_at": 72,
        "collet_turned": 0.0085,
        "collet_turned_at": 315,
        "tool_turned": 0.0085,
        "tool_turned_at": 45,
    },
    inputs=(
        Input("first", LENGTH, "on the indicator, as it is", low=0),
        Input("first_at", ANGLE, "where it is high, from a mark on the spindle"),
        Input(
            "collet_turned",
            LENGTH,
            "the collet half a turn round, tool and all",
            low=0,
        ),
        Input("collet_turned_at", ANGLE, "where it is high then"),
        Input(
            "tool_turned",
            LENGTH,
            "the collet as at first, the tool alone half a turn round",
            default=None,
            low=0,
        ),
        Input("tool_turned_at", ANGLE, "where it is high then", default=0.0),
    ),
    results=(
        Result("seat", LENGTH, "of the seat and its spindle, on the indicator"),
        Result("seat_at", DIRECTION, "where that is high"),
        Result("collet", LENGTH, "of the collet; with the tool if that stayed"),
        Result("collet_at", DIRECTION, "where that is high, as at first"),
        Result("tool", LENGTH, "of the tool in the collet"),
        Result("tool_at", DIRECTION, "where that is high, as at first"),
        Result("advice", TEXT, "what to do about the largest"),
    ),
    sources=("vectors of readings: what is turned by half a turn changes its sign",),
)
def _runout_apart(
    trail: Trail,
    first: float,
    first_at: float,
    collet_turned: float,
    collet_turned_at: float,
    tool_turned: float | None,
    tool_turned_at: float,
) -> dict[str, Any]:
    point, two = _vector(first, first_at), _vector(collet_turned, collet_turned_at)
    seat, held = (point + two) / 2, (point - two) / 2
    tool = 0j
    if tool_turned is not None:
        tool = (point - _vector(tool_turned, tool_turned_at)) / 2
    collet = held - tool
    sizes = {
        "seat": _told(trail, "Seat", "(first + collet turned) / 2", seat),
        "collet": _told(
            trail,
            "Collet",
            "(first − collet turned) / 2"
            + (" − tool" if tool_turned is not None else ", the tool with it"),
            collet,
        ),
    }
    if tool_turned is not None:
        sizes["tool"] = _told(trail, "Tool", "(first − tool turned) / 2", tool)
    else:
        trail.notes.append(
            "Turn the tool alone by half a turn in the collet as well: that tells the "
            "two of them apart."
        )
    trail.notes.append(
        "Read all three at the same length from the nose, the nut as tight each time. "
        "A seat that tilts shows as more run-out further out: read near the nose too."
    )
    results: dict[str, Any] = {}
    for name in ("seat", "collet", "tool"):
        results[name], results[f"{name}_at"] = sizes.get(name, (None, None))
    largest = max(sizes, key=lambda name: sizes[name][0])
    results["advice"] = {
        "seat": "The seat: wipe it and the nose, look at the bearings, then take the "
        "seat true by light cuts or grinding in its own spindle.",
        "collet": "The collet: wipe it and try others of its size; clock the best and "
        "mark it against the nose.",
        "tool": "The tool: look for a burr or a bent shank, and try a ground pin.",
    }[largest]
    if sizes[largest][0] < SMALL:
        results["advice"] = "Too little for an indicator to show: leave it as it is."
    return results
