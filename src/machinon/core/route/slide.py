"""The compound slide set to an angle, and proved by an indicator."""

import math

from machinon.core.piece.shown import Shown
from machinon.core.quantity import ANGLE, INCH
from machinon.core.reckoning import reckon


def proved_over(inch: bool) -> float:
    """How far the indicator goes along the slide, mm: round as its dial reads."""
    return 1.5 * INCH if inch else 40.0


def slide_set(half: float, inch: bool) -> tuple[Shown, ...]:
    """A slide set over by half the taper's angle, degrees, and how an indicator proves
    it against a true bar, wound along by the slide's own dial."""
    travel = proved_over(inch)
    taper = f"1:{1 / (2 * math.tan(math.radians(half))):.9g}"
    asked = {"taper": taper, "travel": travel, "along": "slide"}
    reading = float(reckon("taper-setup", asked)["indicator_reading"])
    return (
        Shown("From the axis", half, ANGLE),
        Shown("Slide wound by", travel),
        Shown("against a true bar it reads", reading, step=0.001),
    )
