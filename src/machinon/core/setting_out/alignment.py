"""Machine and work set square: the head over the table, the vise, and packing.

A reading is plus where the needle is pushed in: there the metal stands nearer.
"""

import math
from collections.abc import Sequence
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.wording import begun

GOOD = 0.02 / 100  # a head or a vise is left alone under that slope; a shop rule
CORNERS = ("front left", "front right", "back right", "back left")


def _slope(trail: Trail, name: str, low: str, high: str, rise: float, over: float,
           ) -> tuple[float, float]:  # fmt: skip
    """The slope over 100 mm, and its angle."""
    slope = trail.step(f"{name}, over 100", f"({high} − {low}) / {over:g} × 100",
                       rise / over * 100)  # fmt: skip
    angle = math.degrees(math.atan2(rise, over))
    return slope, trail.step(
        f"{name}, angle", f"atan({rise:.4g} / {over:g})", angle, ANGLE
    )


@reckoning(
    "head-tram",
    group="Setting up",
    title="Tram a mill's head over its table",
    usual={"sweep": 200, "left": 0.06, "right": 0.0, "front": 0.03, "back": 0.01},
    inputs=(
        Input("sweep", LENGTH, "diameter that the indicator is swept on", above=0),
        Input("left", LENGTH, "reading at the table's left"),
        Input("right", LENGTH, "reading at its right"),
        Input("front", LENGTH, "reading towards you", default=None),
        Input("back", LENGTH, "reading away from you", default=None),
    ),
    results=(
        Result("across", LENGTH, "over 100 mm, left to right"),
        Result("across_angle", ANGLE, "to turn the head, seen from the front"),
        Result("across_to", LENGTH, "what both sides read then"),
        Result("along", LENGTH, "over 100 mm, front to back"),
        Result("along_angle", ANGLE, "to tip the head"),
        Result("along_to", LENGTH, "what front and back read then"),
        Result("advice", TEXT, "which way it goes"),
    ),
    sources=(
        "geometry: the swept circle stands square to the spindle; under 0.02 over "
        "100 mm it is left alone, a shop rule",
    ),
)
def _head_tram(
    trail: Trail,
    sweep: float,
    left: float,
    right: float,
    front: float | None,
    back: float | None,
) -> dict[str, Any]:
    if (front is None) != (back is None):
        raise BadInput("back", "Give front and back, or neither.")
    across, turn = _slope(trail, "Across", "right", "left", left - right, sweep)
    says = []
    if abs(across) > GOOD * 100:
        way = "clockwise" if left > right else "against the clock"
        says.append(f"turn its top {way}, seen from the front")
    along, tip, middle = None, None, None
    if front is not None and back is not None:
        along, tip = _slope(trail, "Along", "back", "front", front - back, sweep)
        middle = trail.step("Front and back then", "(front + back) / 2",
                            (front + back) / 2)  # fmt: skip
        if abs(along) > GOOD * 100:
            way = "away from you" if front > back else "towards you"
            says.append(f"tip its top {way}")
    both = trail.step("Both sides then", "(left + right) / 2", (left + right) / 2)
    told = " and ".join(says)
    trail.notes.append(
        "Sweep on a ground plate, over the tee slots; turn the spindle by hand, the "
        "same way each time. Nip the bolts as they will be, then read once more."
    )
    return {
        "across": across,
        "across_angle": turn,
        "across_to": both,
        "along": along,
        "along_angle": tip,
        "along_to": middle,
        "advice": f"{begun(told)}." if told else "It is square: leave it.",
    }


@reckoning(
    "vise-tram",
    group="Setting up",
    title="Set a vise's fixed jaw along the table",
    usual={"travel": 100, "first": 0.0, "last": 0.08, "jaw": 150},
    inputs=(
        Input("travel", LENGTH, "that the table was moved", above=0),
        Input("first", LENGTH, "reading where it begins, at the left end"),
        Input("last", LENGTH, "reading where it ends, at the right end"),
        Input("jaw", LENGTH, "from the bolt it turns on to where it is tapped",
              above=0),
    ),
    results=(
        Result("slope", LENGTH, "over 100 mm"),
        Result("angle", ANGLE, "that it stands off"),
        Result("tap", LENGTH, "to move the end that is tapped"),
        Result("advice", TEXT, "which way"),
    ),
    sources=("geometry: (last − first) / travel; 0.02 over 100 mm, a shop rule",),
)  # fmt: skip
def _vise_tram(
    trail: Trail, travel: float, first: float, last: float, jaw: float
) -> dict[str, Any]:
    slope, angle = _slope(trail, "Off", "first", "last", last - first, travel)
    tap = trail.step("Tap", f"{jaw:g} × |{last:g} − {first:g}| / {travel:g}",
                     jaw * abs(last - first) / travel)  # fmt: skip
    advice = "It is along: leave it."
    if abs(slope) > GOOD * 100:
        end = "right" if last > first else "left"
        advice = f"Tap its {end} end away from the indicator."
    trail.notes.append(
        "One bolt tight as a pivot, the other just nipped; read the fixed jaw, never "
        "the moving one. Tighten both, then read once more."
    )
    return {"slope": slope, "angle": angle, "tap": tap, "advice": advice}


@reckoning(
    "packing",
    group="Setting up",
    title="Shims under a piece so that it lies level",
    usual={"readings": [0.0, 0.08, 0.11, 0.03]},
    inputs=(
        Input(
            "readings",
            LENGTH,
            "over its four supports: front left, front right, back right, back left",
            many=True,
        ),
    ),
    results=(
        Result("shims", LENGTH, "under each support", {"under": TEXT}),
        Result("twist", LENGTH, "that no shim takes out: its top is not flat"),
        Result("advice", TEXT, "what next"),
    ),
    sources=("the plane through four corners by least squares, geometry",),
)
def _packing(trail: Trail, readings: Sequence[float]) -> dict[str, Any]:
    if len(readings) != 4:
        raise BadInput("readings", f"Four readings, not {len(readings)}.")
    a, b, c, d = readings
    twist = trail.step(
        "Twist", f"|{a:g} − {b:g} + {c:g} − {d:g}| / 4", abs(a - b + c - d) / 4
    )
    lift = (a - b + c - d) / 4
    plane = [reading - sign * lift for reading, sign in zip(readings, (1, -1, 1, -1),
                                                    strict=True)]  # fmt: skip
    highest = max(plane)
    shims: list[dict[str, Any]] = [
        {
            "under": name,
            "shim": trail.step(
                f"Under {name}", f"{highest:.4g} − {at:.4g}", highest - at
            ),
        }
        for name, at in zip(CORNERS, plane, strict=True)
    ]
    largest = max(shim["shim"] for shim in shims)
    if largest < GOOD * 50:
        advice = "It lies level."
    elif twist > largest:
        advice = (
            "More twist than tilt: it rocks, or its top is not flat. Feel each corner "
            "with a feeler before you shim."
        )
    else:
        advice = "Shim, clamp as lightly as it will be, and read all four again."
    trail.notes.append("A reading is plus where the metal stands higher.")
    return {"shims": shims, "twist": twist, "advice": advice}


@reckoning(
    "steady-centre",
    group="Setting up",
    title="A steady set to the spindle's axis",
    usual={
        "top_chuck": 0.0,
        "top_steady": 0.06,
        "side_chuck": 0.0,
        "side_steady": -0.04,
        "apart": 250,
    },
    inputs=(
        Input("top_chuck", LENGTH, "on top of a true bar, near the chuck"),
        Input("top_steady", LENGTH, "on its top, near the steady"),
        Input("side_chuck", LENGTH, "on the side towards you, near the chuck"),
        Input("side_steady", LENGTH, "on that side, near the steady"),
        Input("apart", LENGTH, "from one place to the other", above=0),
        Input("taper", LENGTH, "by how much the bar is thicker at the steady", 0.0),
    ),
    results=(
        Result("lower", LENGTH, "the bar there, by its fingers (− is to lift it)"),
        Result("away", LENGTH, "from you, by its fingers (− is towards you)"),
        Result("cone", LENGTH, "on the diameter that a cut would come out tapered"),
        Result("advice", TEXT, "which fingers"),
    ),
    sources=("geometry: the carriage carries the indicator along the axis",),
)
def _steady_centre(
    trail: Trail,
    top_chuck: float,
    top_steady: float,
    side_chuck: float,
    side_steady: float,
    apart: float,
    taper: float,
) -> dict[str, Any]:
    lower = trail.step(
        "Lower by",
        f"{top_steady:g} − {top_chuck:g} − {taper:g} / 2",
        top_steady - top_chuck - taper / 2,
    )
    away = trail.step(
        "Away by",
        f"{side_steady:g} − {side_chuck:g} − {taper:g} / 2",
        side_steady - side_chuck - taper / 2,
    )
    says = []
    if abs(lower) >= 0.005:
        says.append("let it down" if lower > 0 else "lift it")
    if abs(away) >= 0.005:
        says.append("push it away from you" if away > 0 else "pull it towards you")
    told = " and ".join(says)
    trail.notes.append(
        "The bar turned by hand, the fingers just touching; the side rules the taper, "
        "its height hardly. The tool stands at the spindle's height, not the steady's."
    )
    return {
        "lower": lower,
        "away": away,
        # the side moves the diameter by twice as much, its height by next to nothing
        "cone": trail.step("Taper", f"2 × {away:.4g}", 2 * away),
        "advice": f"{begun(told)}; read both places again."
        if told
        else f"It stands true over {apart:g} mm.",
    }
