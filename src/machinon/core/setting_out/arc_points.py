"""An arc milled by the read-out, place by place: a rounded end, a lever's way."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

MOST = 400  # places: more nobody winds to


def ridge_of(radius: float, cutter: float, outside: bool, step: float) -> float:
    """Height of the ridge between two neighbouring cuts over an arc, mm.

    step: from one to the next, radians. Source: two circles about points of a third.

    >>> round(ridge_of(20, 10, True, math.radians(5)), 4)
    0.0966
    """
    r = cutter / 2
    path = radius + r if outside else radius - r
    along, across = path * math.cos(step / 2), path * math.sin(step / 2)
    reach = math.sqrt(max(r**2 - across**2, 0.0))
    return along - reach - radius if outside else radius - along - reach


def _step(radius: float, cutter: float, outside: bool, ridge: float) -> float:
    """The step that leaves a ridge, radians: the side between two of a triangle."""
    r = cutter / 2
    path = radius + r if outside else radius - r
    far = radius + ridge if outside else radius - ridge
    cosine = (path**2 + far**2 - r**2) / (2 * path * far)
    return 2 * math.acos(min(max(cosine, -1.0), 1.0))


@reckoning(
    "arc-points",
    group="Holes, patterns and dividing",
    title="An arc milled place by place",
    usual={"radius": 20, "cutter": 10, "first": 0, "last": 180},
    inputs=(
        Input("radius", LENGTH, "finished radius of the work", above=0, high=2000),
        Input("cutter", LENGTH, "diameter of the cutter", above=0, high=200),
        Input("first", ANGLE, "angle it begins at", 0.0, low=-360, high=360),
        Input("last", ANGLE, "angle it ends at", 180.0, low=-360, high=720),
        Input("form", TEXT, "the arc is", "rounded", choices=("rounded", "hollow")),
        Input("ridge", LENGTH, "ridge to be filed off", 0.05, low=0.001, high=5),
    ),
    results=(
        Result("path", LENGTH, "from the arc's centre to the cutter's axis"),
        Result("step", ANGLE, "from place to place"),
        Result("count", COUNT, "places"),
        Result("left", LENGTH, "ridge that stays between two"),
        Result("points", LENGTH, "x and y of the cutter's axis", {"at": ANGLE}),
    ),
    sources=("geometry of two circles about points of a third",),
)
def _arc_points(
    trail: Trail,
    radius: float,
    cutter: float,
    first: float,
    last: float,
    form: str,
    ridge: float,
) -> dict[str, Any]:
    outside = form == "rounded"
    if not outside and cutter >= 2 * radius - 1e-9:
        raise BadInput(
            "cutter", f"A hollow of {radius:g} mm takes less than {2 * radius:g} mm."
        )
    span = last - first
    if not 0 < span <= 360:
        raise BadInput("last", "It ends past where it begins, up to a turn further.")
    sign = "+" if outside else "−"
    path = trail.step(
        "Cutter's axis from the centre",
        f"{radius:g} {sign} {cutter:g} / 2",
        radius + cutter / 2 if outside else radius - cutter / 2,
    )
    most = math.degrees(_step(radius, cutter, outside, min(ridge, radius / 2)))
    if span > (MOST - 1) * most:
        raise BadInput("ridge", f"That takes more than {MOST} places: allow more.")
    gaps = math.ceil(span / most - 1e-9)
    step = trail.step("From place to place", f"{span:g}° / {gaps}", span / gaps, ANGLE)
    left = trail.step(
        "Ridge between two",
        f"√(({cutter:g} / 2)² − …), half a step aside",
        ridge_of(radius, cutter, outside, math.radians(step)),
    )
    trail.notes.append(
        "Zero on the arc's centre, angles from the right, against the clock. Rough "
        "near to it first; at each place feed the cutter down or in, then back out. "
        "File the ridges off."
    )
    trail.cautions.append("Lock the axis that is not wound: the cutter pulls it in.")
    turns = [first + step * i for i in range(gaps + 1)]
    return {
        "path": path,
        "step": step,
        "count": gaps + 1,
        "left": left,
        "points": [
            {
                "x": path * math.cos(math.radians(turn)),
                "y": path * math.sin(math.radians(turn)),
                "at": turn,
            }
            for turn in turns
        ],
    }
