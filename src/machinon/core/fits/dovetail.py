"""Dovetails measured over or between pins."""

import math
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import FLAG, TEXT, Input, Result, Trail, one_of, reckoning
from machinon.core.sizes.fit import nothing_left, rising_play


class Dovetail(Struct, frozen=True):
    """A straight dovetail; mm, degrees.

    A male one is wider at the top, which is then the face it slides on, than across its
    corners.
    """

    bottom: float  # between the two sharp corners where the pins lie
    depth: float
    angle: float = 60.0  # floor to flank
    internal: bool = False

    @property
    def splay(self) -> float:
        """Difference of the two widths."""
        return 2 * self.depth / math.tan(math.radians(self.angle))

    @property
    def top(self) -> float:
        # a female slot narrows to its open side, a male tongue widens from it
        return self.bottom + (-self.splay if self.internal else self.splay)


def pin_allowance(pin: float, angle: float) -> float:
    """How far two pins reach beyond the corners, mm.

    The pin's centre lies on the corner's bisector, so d (1 + cot(angle/2)).

    >>> round(pin_allowance(10, 60), 3)
    27.321
    """
    return pin * (1 + 1 / math.tan(math.radians(angle) / 2))


def largest_pin(depth: float, angle: float) -> float:
    """Largest pin that touches floor and flank, mm, to the micron."""
    return round(depth / math.cos(math.radians(angle) / 2) ** 2, 3)


def _sits(pin: float, depth: float, angle: float, where: str) -> float:
    """The largest pin, mm. Raises BadInput on `pin` where this one is larger."""
    most = largest_pin(depth, angle)
    if not pin <= most:
        raise BadInput(
            "pin",
            f"{pin:g} mm does not sit in the {where}: above 0 and up to {most:g} mm "
            "does. Choose another pin.",
        )
    return most


@reckoning(
    "dovetail",
    group="Measuring over and across",
    title="A dovetail over or between pins",
    usual={"pin": 10, "width_bottom": 50, "depth": 12},
    given=(one_of("width_bottom", "width_top", "measured"),),
    inputs=(
        Input("angle", ANGLE, "floor to flank", default=60.0, low=30, high=85),
        Input("pin", LENGTH, "diameter of each pin", above=0),
        Input("width_top", LENGTH, "at the open side", default=None, above=0),
        Input(
            "width_bottom", LENGTH, "between the sharp corners", default=None, above=0
        ),
        Input("depth", LENGTH, "of the dovetail", default=None, above=0),
        Input("internal", FLAG, "whether it is the slot", default=False),
        Input(
            "measured", LENGTH, "read over or between the pins", default=None, above=0
        ),
        Input(
            "cutter_depth",
            LENGTH,
            "depth that a smaller cutter reaches",
            default=None,
            above=0,
        ),
    ),
    results=(
        Result("over_pins", LENGTH, "over the pins of a male dovetail"),
        Result("between_pins", LENGTH, "between the pins of a female one"),
        Result("width_top", LENGTH, "at the open side"),
        Result("width_bottom", LENGTH, "between the sharp corners"),
        Result("flat", LENGTH, "left on the flank by a smaller cutter"),
        Result("pin_max", LENGTH, "largest pin that sits in the corner"),
    ),
    sources=("geometry: the pin's centre lies on the corner's bisector",),
)
def _dovetail(
    trail: Trail,
    angle: float,
    pin: float,
    width_top: float | None,
    width_bottom: float | None,
    depth: float | None,
    internal: bool,
    measured: float | None,
    cutter_depth: float | None,
) -> dict[str, Any]:
    half = math.radians(angle) / 2
    reach = trail.step(
        "Pins beyond the corners",
        f"{pin:g} × (1 + cot {angle / 2:g}°)",
        pin_allowance(pin, angle),
    )
    results: dict[str, Any] = {}
    if depth is not None:
        results["pin_max"] = _sits(pin, depth, angle, "corner")
    if measured is not None:
        bottom = measured + reach if internal else measured - reach
        trail.step(
            "Between the corners",
            f"{measured:g} {'+' if internal else '−'} {reach:.4f}",
            bottom,
        )
    elif width_bottom is not None:
        bottom = width_bottom
    else:
        assert width_top is not None
        if depth is None:
            raise BadInput("depth", "depth is missing: the top width needs it.")
        splay = 2 * depth / math.tan(2 * half)
        bottom = width_top + (splay if internal else -splay)
        trail.step("Between the corners", f"{width_top:g} ± {splay:.4f}", bottom)
    if not bottom > 0:
        raise BadInput(
            "measured" if measured is not None else "width_top",
            "Nothing is left between the corners: check sizes and the side.",
        )
    results["width_bottom"] = bottom
    if depth is not None:
        top = Dovetail(bottom, depth, angle, internal).top
        if not top > 0:
            raise BadInput("depth", "The flanks meet before that depth.")
        results["width_top"] = top
    if internal:
        between = bottom - reach
        if measured is None and not between > 0:
            most = math.floor(bottom / pin_allowance(1.0, angle) * 1000) / 1000
            raise BadInput(
                "pin",
                f"Two pins of {pin:g} mm do not go in: above 0 and up to {most:g} mm "
                "do.",
            )
        results["between_pins"] = trail.step(
            "Between the pins", f"{bottom:.4f} − {reach:.4f}", between
        )
    else:
        results["over_pins"] = trail.step(
            "Over the pins", f"{bottom:.4f} + {reach:.4f}", bottom + reach
        )
    if cutter_depth is not None:
        if depth is None:
            raise BadInput("depth", "depth is missing: the flat needs it.")
        over = depth - cutter_depth
        results["flat"] = trail.step(
            "Flat left",
            f"({depth:g} − {cutter_depth:g}) / sin {angle:g}°"
            if over > 0
            else "none: the cutter is as deep",
            max(over, 0.0) / math.sin(2 * half),
        )
    return results


BEARS = ("top", "shoulders")


def _bearing(said: str | None, slot: float, tongue: float, trail: Trail) -> str:
    """The faces that bear besides the flanks. Raises BadInput on `bears`."""
    deeper = "top" if tongue >= slot else "shoulders"
    bears = deeper if said is None else said
    if tongue == slot:
        trail.notes.append(
            "Both depths are alike, so top and shoulders would touch together: make "
            "the new half a little "
            + (
                "shallower in the tongue or deeper in the slot."
                if bears == "shoulders"
                else "deeper in the tongue or shallower in the slot."
            )
        )
    elif bears != deeper:
        raise BadInput(
            "bears",
            f"The tongue is {tongue:g} mm deep and the slot {slot:g} mm, so the "
            + (
                "tongue's top touches first: the shoulders bear with a slot at least "
                f"{tongue:g} mm deep."
                if bears == "shoulders"
                else "shoulders touch first: the top bears with a tongue at least "
                f"{slot:g} mm deep."
            ),
        )
    return bears


@reckoning(
    "dovetail-mate",
    group="Measuring over and across",
    title="The other half of a measured dovetail",
    usual={"bottom": 110, "depth": 12, "pin": 8, "play_least": 0.02, "play_most": 0.05},
    inputs=(
        Input("bottom", LENGTH, "between the corners of the half that exists", above=0),
        Input("doubt", LENGTH, "of that width, two sigma", 0.0, low=0),
        Input("depth", LENGTH, "of the half that exists", above=0),
        Input("internal", FLAG, "whether the slot exists", default=False),
        Input("angle", ANGLE, "floor to flank", default=60.0, low=30, high=85),
        Input(
            "new_depth", LENGTH, "of the half to be made; else the same", None, above=0
        ),
        Input(
            "bears",
            TEXT,
            "besides the flanks; else what the two depths leave",
            default=None,
            choices=BEARS,
        ),
        Input("pin", LENGTH, "pins to measure the new half with", above=0),
        Input("play_least", LENGTH, "on the width"),
        Input("play_most", LENGTH, "on the width"),
        Input("gib", LENGTH, "thickness of a gib, square to the flank", 0.0, low=0),
    ),
    results=(
        Result("bottom_lower", LENGTH, "between the new half's corners, least"),
        Result("bottom_upper", LENGTH, "between the new half's corners, most"),
        Result("read_lower", LENGTH, "over or between the pins, least"),
        Result("read_upper", LENGTH, "over or between the pins, most"),
        Result("bears", TEXT, "tongue's top on the slot's floor, or the shoulders"),
        Result("square_play", LENGTH, "most play square to one flank"),
        Result("pin_max", LENGTH, "largest pin that sits in the new corners"),
    ),
    sources=(
        "geometry: where the flanks meet, the slot's floor is wider than the "
        "tongue's root by twice the larger depth over tan(angle)",
    ),
)
def _dovetail_mate(
    trail: Trail,
    bottom: float,
    doubt: float,
    depth: float,
    internal: bool,
    angle: float,
    new_depth: float | None,
    bears: str | None,
    pin: float,
    play_least: float,
    play_most: float,
    gib: float,
) -> dict[str, Any]:
    rising_play(play_least, play_most)
    own = depth if new_depth is None else new_depth
    most = _sits(pin, own, angle, "new corner")
    slot, tongue = (depth, own) if internal else (own, depth)
    bears = _bearing(bears, slot, tongue, trail)
    # the deeper half reaches from the tongue's root to the slot's floor: a tongue
    # that stands on its top, or a slot whose open side lies on the shoulders
    splay = trail.step(
        "Floor wider than root",
        f"2 × {max(slot, tongue):g} / tan {angle:g}°",
        2 * max(slot, tongue) / math.tan(math.radians(angle)),
    )
    room = 0.0
    if gib:
        room = trail.step(
            "Room for the gib",
            f"{gib:g} / sin {angle:g}°",
            gib / math.sin(math.radians(angle)),
        )
    reach = trail.step(
        "Pins beyond the corners",
        f"{pin:g} × (1 + cot {angle / 2:g}°)",
        pin_allowance(pin, angle),
    )
    if internal:
        middle = bottom - splay - room
        lower, upper = middle - play_most + doubt, middle - play_least - doubt
        reading = reach
    else:
        middle = bottom + splay + room
        lower, upper = middle + play_least + doubt, middle + play_most - doubt
        reading = -reach
    if lower >= upper:
        trail.cautions.append(nothing_left(play_most - play_least, doubt))
    if not lower > 0:
        raise BadInput("depth", "Nothing is left between the new corners: too deep.")
    trail.step("Between the new corners, least", f"{middle:.4f} with play", lower)
    trail.step("Between the new corners, most", f"{middle:.4f} with play", upper)
    square = trail.step(
        "Play square to a flank",
        f"{play_most:.4f} × sin {angle:g}°",
        play_most * math.sin(math.radians(angle)),
    )
    return {
        "bottom_lower": lower,
        "bottom_upper": upper,
        "read_lower": trail.step(
            "On the pins, least", "with the pins", lower + reading
        ),
        "read_upper": trail.step("On the pins, most", "with the pins", upper + reading),
        "bears": bears,
        "square_play": square,
        "pin_max": most,
    }
