"""Dividing: turns and holes of a worm head, and angles of a rotary table."""

import math
from fractions import Fraction
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning

SHOWN = 10


def dms(angle: float) -> str:
    """Degrees as degrees, minutes and seconds.

    >>> dms(51.428571)
    '51°25′43″'
    """
    seconds = round(angle * 3600)
    return f"{seconds // 3600}°{seconds // 60 % 60:02d}′{seconds % 60:02d}″"


# the circles of the three plates that most heads come with
PLATES = (
    *(15, 16, 17, 18, 19, 20),
    *(21, 23, 27, 29, 31, 33),
    *(37, 39, 41, 43, 47, 49),
)


@reckoning(
    "dividing",
    group="Holes, patterns and dividing",
    title="Turns and holes of a dividing head or rotary table",
    usual={"divisions": 7, "worm": 40, "plates": PLATES},
    given=(one_of("divisions", "angle"),),
    inputs=(
        Input("divisions", COUNT, "of the circle", default=None, low=2, high=10_000),
        Input("angle", ANGLE, "to turn instead", default=None, above=0, high=360),
        Input("worm", COUNT, "turns of the worm for one of the head", low=1, high=360),
        Input("plates", COUNT, "hole circles there are", low=2, high=1000, many=True),
    ),
    results=(
        Result(
            "settings",
            COUNT,
            "turns, holes, circle and error; exact first",
            {"error": ANGLE},
        ),
        Result("angles", TEXT, "for a table's scale: angle of each division"),
        Result("angle_step", ANGLE, "of one division"),
    ),
    sources=("turns = worm / divisions; geometry",),
)
def _dividing(
    trail: Trail,
    divisions: int | None,
    angle: float | None,
    worm: int,
    plates: tuple[int, ...],
) -> dict[str, Any]:
    if divisions is not None:
        step = 360 / divisions
        turns = Fraction(worm, divisions)
    else:
        assert angle is not None
        step = angle
        turns = Fraction(angle).limit_denominator(10**7) * worm / 360
    trail.step(
        "Turns of the worm", f"{worm} × {step:.6g}° / 360°", float(turns), NUMBER
    )
    settings = []
    for circle in sorted(set(plates)):
        total = round(turns * circle)  # holes, nearest
        if total == 0:
            continue
        made = Fraction(total, circle)
        whole, holes = divmod(total, circle)
        error = 0.0 if made == turns else float((made - turns) * 360 / worm)
        settings.append(
            {"turns": whole, "holes": holes, "circle": circle, "error": error}
        )
    if not settings:
        raise BadInput("plates", "No circle of these is fine enough for that angle.")
    settings.sort(key=lambda setting: (abs(setting["error"]), setting["circle"]))
    if settings[0]["error"]:
        trail.cautions.append(
            f"No circle divides it exactly: the nearest is "
            f"{abs(settings[0]['error']) * 3600:.0f} seconds off at each step; index "
            "from the angles instead, so that it does not add up."
        )
    count = divisions or math.floor(360 / step + 1e-9)
    return {
        "settings": settings[:SHOWN],
        "angles": [dms(step * i) for i in range(min(count, 400))],
        "angle_step": step,
    }
