"""Setting a machine to a taper: compound, indicator, sine bar, tailstock."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, INCH, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning
from machinon.core.tapers.tapers import taper_of

METHODS = ("compound", "indicator", "sine", "tailstock")
ALONG = ("axis", "slide")


@reckoning(
    "taper-setup",
    group="Tapers",
    title="Set the machine to a taper",
    usual={"taper": "MT3", "method": "indicator", "travel": 60},
    usual_inch={"travel": 2 * INCH},
    inputs=(
        Input("taper", TEXT, "the taper, by name, ratio or large/small/length"),
        Input(
            "method",
            TEXT,
            "how it is set",
            default="compound",
            choices=METHODS,
            asks={"tailstock": {"length_between_centres": 200.0}},
        ),
        Input(
            "travel",
            LENGTH,
            "of the indicator",
            default=None,
            above=0,
            high=5000,
        ),
        Input(
            "along",
            TEXT,
            "what it is measured along: the axis, or the slide by its own dial",
            default="axis",
            choices=ALONG,
        ),
        Input(
            "sine_length",
            LENGTH,
            "of the sine bar",
            default=100.0,
            inch_default=5 * INCH,
            above=0,
            high=1000,
        ),
        Input(
            "length_between_centres",
            LENGTH,
            "of the work, for the tailstock",
            default=None,
            above=0,
            high=10_000,
        ),
        Input("reading", LENGTH, "what the indicator showed", default=None),
    ),
    results=(
        Result("angle", ANGLE, "half angle to set"),
        Result("indicator_reading", LENGTH, "over the travel, on the radius"),
        Result("sine_stack", LENGTH, "under the sine bar, for the half angle"),
        Result("tailstock_offset", LENGTH, "of the tailstock, for the one end"),
        Result("correction_minutes", NUMBER, "to turn the slide further, minutes"),
    ),
    sources=("geometry; tan(half) = ratio / 2",),
)
def _taper_setup(
    trail: Trail,
    taper: str,
    method: str,
    travel: float | None,
    along: str,
    sine_length: float,
    length_between_centres: float | None,
    reading: float | None,
) -> dict[str, Any]:
    named = taper_of(taper, "taper")
    half = trail.step(
        "Half angle", f"atan({named.ratio:.6f} / 2)", named.half_angle, ANGLE
    )
    tan = named.ratio / 2
    results: dict[str, Any] = {"angle": half}
    if method == "indicator" and travel is None:
        raise BadInput("travel", "travel is missing: the way the indicator goes.")
    if reading is not None and travel is None:
        raise BadInput("travel", "travel is missing: over what was it read?")
    by_slide = along == "slide"
    if travel is not None and by_slide:
        results["indicator_reading"] = trail.step(
            "Indicator",
            f"{travel:g} × sin {half:.4f}°",
            travel * math.sin(math.radians(half)),
        )
    elif travel is not None:
        results["indicator_reading"] = trail.step(
            "Indicator", f"{travel:g} × {tan:.6f}", travel * tan
        )
    if method == "sine":
        results["sine_stack"] = trail.step(
            "Stack",
            f"{sine_length:g} × sin {half:.4f}°",
            sine_length * math.sin(math.radians(half)),
        )
    if method == "tailstock":
        if length_between_centres is None:
            raise BadInput(
                "length_between_centres",
                "length_between_centres is missing: the whole length of the work.",
            )
        results["tailstock_offset"] = trail.step(
            "Offset",
            f"{length_between_centres:g} × {tan:.6f}",
            length_between_centres * tan,
        )
        trail.notes.append("Work between centres only; the centres wear aslant.")
    if reading is not None and travel is not None:
        if by_slide and abs(reading) >= travel:
            raise BadInput("reading", f"Under the travel, {travel:g} mm.")
        turn, name = (math.asin, "asin") if by_slide else (math.atan, "atan")
        seen = math.degrees(turn(reading / travel))
        results["correction_minutes"] = trail.step(
            "Turn the slide further",
            f"60 × ({half:.4f}° − {name}({reading:g} / {travel:g}))",
            (half - seen) * 60,
            NUMBER,
        )
    return results


@reckoning(
    "tailstock",
    group="Setting up",
    title="Tailstock out of line, from two diameters",
    usual={"diameter_a": 30, "diameter_b": 30.05, "apart": 100, "length": 200},
    given=(one_of("diameter_b", "difference"),),
    inputs=(
        Input("diameter_a", LENGTH, "turned at the headstock end", None, above=0),
        Input("diameter_b", LENGTH, "turned at the tailstock end", None, above=0),
        Input("difference", LENGTH, "by which the tailstock end is thicker", None),
        Input("apart", LENGTH, "distance between the two", above=0),
        Input("length", LENGTH, "between centres", above=0),
    ),
    results=(
        Result("taper_per_length", NUMBER, "change of diameter per length"),
        Result("difference", LENGTH, "of the tailstock end; negative where thinner"),
        Result("move", LENGTH, "of the tailstock"),
        Result("direction", TEXT, "which way"),
    ),
    sources=("geometry: move = (a − b) / 2 × length / apart",),
)
def _tailstock(
    trail: Trail,
    diameter_a: float | None,
    diameter_b: float | None,
    difference: float | None,
    apart: float,
    length: float,
) -> dict[str, Any]:
    if not apart <= length:
        raise BadInput("apart", f"At most the length between centres, {length:g} mm.")
    if difference is None:
        assert diameter_b is not None
        if diameter_a is None:
            raise BadInput("diameter_a", "It is missing: turned at the headstock end.")
        difference = trail.step(
            "Thicker at the tailstock",
            f"{diameter_b:g} − {diameter_a:g}",
            diameter_b - diameter_a,
        )
    slope = trail.step(
        "Taper", f"−({difference:.4g}) / {apart:g}", -difference / apart, NUMBER
    )
    move = trail.step(
        "Move", f"|{slope:.6f}| / 2 × {length:g}", abs(slope) / 2 * length
    )
    # a thick tailstock end: the centre stands too far from the tool
    if move == 0:
        direction = "none"
    else:
        direction = "towards the tool" if slope < 0 else "away from the tool"
    return {
        "taper_per_length": slope,
        "difference": difference,
        "move": move,
        "direction": direction,
    }


@reckoning(
    "sine",
    group="Setting up",
    title="Stack under a sine bar",
    usual={"angle": 30, "length": 100},
    usual_inch={"length": 5 * INCH},
    inputs=(
        Input("angle", ANGLE, "to set", low=0, high=90),
        Input("length", LENGTH, "of the sine bar", above=0, high=2000),
    ),
    results=(Result("stack", LENGTH, "of slip gauges"),),
    sources=("geometry: stack = length × sin(angle)",),
)
def _sine(trail: Trail, angle: float, length: float) -> dict[str, Any]:
    stack = trail.step(
        "Stack",
        f"{length:g} × sin {angle:g}°",
        length * math.sin(math.radians(angle)),
    )
    if angle > 60:
        trail.cautions.append("Above 60° a sine bar is unsure: set the complement.")
    return {"stack": stack}
