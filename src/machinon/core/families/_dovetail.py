"""A dovetail slot: its widths from what is read between its pins, and how it is cut."""

import math

from machinon.core.piece.family import Step
from machinon.core.reckoning import reckon

ROUGH = 0.5  # mm to a side that an end mill leaves for the dovetail cutter


def slot_widths(
    between: float, pin: float, depth: float, angle: float
) -> tuple[float, float]:
    """At the mouth, and on the floor between the sharp corners, mm.

    between: what is read between the pins, mm; angle: of a flank to the floor,
    degrees. Raises BadInput of `dovetail` where no such slot is.
    """
    asked = {"angle": angle, "pin": pin, "depth": depth, "internal": True}
    answer = reckon("dovetail", {**asked, "measured": between})
    floor = float(answer["width_bottom"])
    return floor - 2 * depth / math.tan(math.radians(angle)), floor


def slot_steps(
    name: str, words: str, angle: float, pin: float, fit: str = "", key: str = ""
) -> tuple[Step, Step]:
    """Roughed straight, then by its own cutter, one flank after the other; key: of the
    latter, else by its name."""
    return (
        Step(
            "mill",
            (name,),
            leaves=ROUGH,
            title=f"Rough {words} with an end mill, to its mouth",
            key=f"rough-{name}",
        ),
        Step(
            "mill",
            (name,),
            title=f"First flank and floor of {words}, the second flank by the pins",
            tool=f"dovetail cutter {angle:g}°",
            fit=fit,
            note=f"Pins of {pin:g} mm in the corners. Cut against the feed: on the "
            "last pass the cutter climbs and pulls itself in.",
            caution="The cutter's neck is thin: light cuts, chips cleared each pass.",
            key=key or f"flanks-{name}",
        ),
    )
