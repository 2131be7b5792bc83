"""A dovetail: its widths from what is read by its pins, and how it is cut."""

from machinon.core.piece.family import Step
from machinon.core.reckoning import reckon

ROUGH = 0.5  # mm to a side that an end mill leaves for the dovetail cutter


def dovetail_widths(
    read: float, pin: float, depth: float, angle: float, slot: bool = True
) -> tuple[float, float]:
    """Widths at the mouth of a slot, or on top of a male dovetail, and between the
    sharp corners that the pins lie in, mm.

    read: between the pins of a slot, over those of a male one, mm; angle: of a flank
    to the floor, degrees. Raises BadInput of `dovetail` where there is none such.
    """
    asked = {"angle": angle, "pin": pin, "depth": depth, "internal": slot}
    answer = reckon("dovetail", {**asked, "measured": read})
    return float(answer["width_top"]), float(answer["width_bottom"])


def dovetail_steps(
    name: str,
    words: str,
    angle: float,
    pin: float,
    fit: str = "",
    key: str = "",
    slot: bool = True,
) -> tuple[Step, Step]:
    """Roughed straight, then by its own cutter, one flank after the other; key: of the
    latter, else by its name; slot: it is none that stands up."""
    rough = f"Rough {words} with an end mill, to its mouth"
    if not slot:
        rough = f"Rough both sides of {words} with an end mill, to its top"
    return (
        Step(
            "mill",
            (name,),
            leaves=ROUGH,
            title=rough,
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
