"""Deep-groove ball bearings by their number: sizes, and the seats for them."""

import re
from collections.abc import Mapping
from typing import Any

from machinon.core.errors import unknown
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes.limits import limits_of_size
from machinon.core.tables import rows
from machinon.core.wording import begun

SHAFT, HOUSING = "k6", "H7"  # of a shaft that turns, and a housing that stands
ALIKE = 0.2  # mm, that the sizes of one bearing are read alike
_SEALS = re.compile(r"[\s-]*(?:2?(?:RS|Z)\w*|ZZ\w*|C3)$", re.IGNORECASE)


def bearing_of(number: str) -> Mapping[str, str] | None:
    """The row of a bearing by its number, with or without its seals: 6204-2RS; None
    for none that is kept.

    >>> bearing_of("608 ZZ")["outside_mm"], bearing_of("6204-2RS1")["width_mm"]
    ('22', '14')
    """
    plain = _SEALS.sub("", number.strip())
    return next((row for row in rows("ball_bearings") if row["name"] == plain), None)


def bearing_by(bore: float, outside: float, width: float = 0.0) -> str:
    """The number of the bearing of these sizes, mm; 0 for a width that is not known.
    Empty for none, or for more than one.

    >>> bearing_by(30, 55, 13), bearing_by(25, 52), bearing_by(25, 60)
    ('6006', '6205', '')
    """
    wanted = {"bore_mm": bore, "outside_mm": outside, "width_mm": width}
    found = [
        row["name"]
        for row in rows("ball_bearings")
        if all(
            not mm or abs(float(row[key]) - mm) < ALIKE for key, mm in wanted.items()
        )
    ]
    return found[0] if len(found) == 1 else ""


@reckoning(
    "ball-bearing",
    group="Fits and materials",
    title="A ball bearing by its number, and its seats",
    usual={"number": "6204"},
    inputs=(Input("number", TEXT, "as it is marked: 608, 6204, 6305-2RS"),),
    results=(
        Result("bore", LENGTH, "of its inner ring"),
        Result("outside", LENGTH, "of its outer ring"),
        Result("width", LENGTH, "of either ring"),
        Result("shaft_lower", LENGTH, "of a shaft that turns in a housing that stands"),
        Result("shaft_upper", LENGTH, "of that shaft"),
        Result("housing_lower", LENGTH, "of that housing, in which the ring can move"),
        Result("housing_upper", LENGTH, "of that housing"),
    ),
    sources=("ISO 15:2017", "ISO 286: k6 and H7 for usual loads, as shops take them"),
)
def _ball_bearing(trail: Trail, number: str) -> dict[str, Any]:
    found = bearing_of(number)
    if found is None:
        raise unknown("number", number, [row["name"] for row in rows("ball_bearings")])
    bore, outside, width = (
        float(found[f"{size}_mm"]) for size in ("bore", "outside", "width")
    )
    trail.notes.append(
        "The ring that turns under its load sits tight, the other slides. Seals and "
        "shields change none of its sizes."
    )
    results = {"bore": bore, "outside": outside, "width": width}
    for seat, size, zone in (("shaft", bore, SHAFT), ("housing", outside, HOUSING)):
        limits = limits_of_size(size, zone)
        for end, off in (
            ("lower", limits.lower_deviation),
            ("upper", limits.upper_deviation),
        ):
            what = f"{begun(seat)} {zone}, {'least' if end == 'lower' else 'most'}"
            results[f"{seat}_{end}"] = trail.step(
                what, f"{size:g} + {off:.4f}", size + off
            )
    return results
