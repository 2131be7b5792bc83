"""One length in every unit of the shop, with the drills next to it, and by a handle."""

import math
from fractions import Fraction
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, INCH, LENGTH, NUMBER, Kind, fraction_text
from machinon.core.reckoning import SERIES, TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.tapping import drills

# of an inch shop as well
MILLIMETRES = Kind("size in millimetres", "mm", LENGTH.units, "10.3")
UNITS = ("mm", "inch", "thou", "um", "fraction", "drill")
DRILLS = 0.25, 50.0  # mm: below and above it nobody asks for a drill


@reckoning(
    "convert",
    group="Measuring over and across",
    title="A length in other units, and the nearest drill",
    usual={"value": "13/32in"},
    inputs=(
        Input("value", LENGTH, "the length"),
        Input("to", TEXT, "unit asked for; else all", None, choices=UNITS),
    ),
    results=(
        Result("mm", MILLIMETRES, "millimetres"),
        Result("inch", NUMBER, "inches"),
        Result("fraction", TEXT, "nearest 64th of an inch"),
        Result("fraction_error", LENGTH, "length less that fraction"),
        Result("thou", NUMBER, "thousandths of an inch"),
        Result("um", NUMBER, "micrometres"),
        Result("drill", TEXT, "nearest drill of all four systems"),
        Result("drill_error", LENGTH, "length less that drill"),
    ),
    sources=("an inch is 25.4 mm exactly",),
)
def _convert(trail: Trail, value: float, to: str | None) -> dict[str, Any]:
    inch = trail.step("Inches", f"{value:.6g} / 25.4", value / INCH, NUMBER)
    parts = round(inch * 64)
    nearest = Fraction(parts, 64)
    results: dict[str, Any] = {
        "mm": value,
        "inch": inch,
        "fraction": fraction_text(nearest),
        "fraction_error": value - parts / 64 * INCH,
        "thou": inch * 1000,
        "um": value * 1000,
    }
    if DRILLS[0] <= value <= DRILLS[1]:
        near = min(
            (drill for series in SERIES for drill in drills(series)),
            key=lambda drill: abs(drill.size - value),
        )
        results["drill"] = near.name
        results["drill_error"] = value - near.size
    return results


@reckoning(
    "dial-turns",
    group="Setting up",
    title="A travel in turns and lines of a handle",
    usual={"travel": "25mm", "turn": "0.1in", "division": "0.001in"},
    usual_inch={"travel": "1in", "turn": "2mm", "division": "0.02mm"},
    inputs=(
        Input("travel", LENGTH, "to wind the slide", above=0, high=5000),
        Input("turn", LENGTH, "one turn of the handle, as the dial counts", above=0),
        Input("division", LENGTH, "one line of the dial, as it reads", above=0),
        Input(
            "dial",
            TEXT,
            "what the dial counts; a diameter is twice the travel",
            "travel",
            choices=("travel", "diameter"),
        ),
        Input("start", LENGTH, "where the dial stands now", 0.0, low=0),
    ),
    results=(
        Result("turns", COUNT, "whole turns"),
        Result("lines", COUNT, "lines more, to the nearest"),
        Result("reads", LENGTH, "what the dial stands at then"),
        Result("short", LENGTH, "that this is short of the travel; − is past it"),
    ),
    sources=("geometry; wound one way, so that the play is taken up before zero",),
)
def _dial_turns(
    trail: Trail, travel: float, turn: float, division: float, dial: str, start: float
) -> dict[str, Any]:
    if division > turn:
        raise BadInput("division", f"Up to {turn:g} mm: one turn counts no more.")
    if start >= turn:
        raise BadInput("start", f"Below {turn:g} mm: one turn counts no more.")
    twice = 2 if dial == "diameter" else 1
    counted = trail.step("The dial counts", f"{twice} × {travel:g}", twice * travel)
    all_lines = trail.step(
        "Lines",
        f"{counted:.6g} / {division:g}, to the nearest",
        float(math.ceil(counted / division - 0.5 - 1e-9)),  # half a line: not past it
        COUNT,
    )
    wound = all_lines * division
    turns = math.floor(wound / turn + 1e-9)
    trail.step("Whole turns", f"{wound:.6g} / {turn:g}, rounded down", turns, COUNT)
    more = wound - turns * turn
    at = start + more
    at -= turn * (at >= turn - 1e-9)
    return {
        "turns": turns,
        "lines": round(more / division),
        "reads": at,
        "short": trail.step(
            "Short of it", f"{travel:g} − {wound:.6g} / {twice}", travel - wound / twice
        ),
    }
