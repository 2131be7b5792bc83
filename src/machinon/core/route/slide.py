"""The compound slide set to an angle, and proved by an indicator."""

import math

from machinon.core.piece.shown import Shown
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import reckon

PROVED_OVER = 40.0  # mm that the indicator goes along the slide


def slide_set(half: float) -> tuple[Shown, ...]:
    """A slide set over by half the taper's angle, degrees, and how an indicator proves
    it against a true bar, wound along by the slide's own dial."""
    taper = f"1:{1 / (2 * math.tan(math.radians(half))):.9g}"
    asked = {"taper": taper, "travel": PROVED_OVER, "along": "slide"}
    reading = float(reckon("taper-setup", asked)["indicator_reading"])
    return (
        Shown("From the axis", half, ANGLE),
        Shown("Slide wound by", PROVED_OVER),
        Shown("against a true bar it reads", reading, step=0.001),
    )
