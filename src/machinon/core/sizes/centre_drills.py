"""Which centre drill makes a centre hole, by the mouth that it shall have."""

import math
from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning
from machinon.core.tables import rows

MOUTH = 0.3  # of the bar: a centre so wide carries it
MOST_MOUTH = 10.0  # mm: a heavier bar is carried by no more


def _smallest(mouth: float) -> dict[str, Mapping[str, str]]:
    """The smallest of each series that makes a mouth so wide, mm: A and #."""
    found: dict[str, Mapping[str, str]] = {}
    for row in rows("centre_drills"):
        if float(row["mouth_mm"]) >= mouth - 1e-9:
            found.setdefault(row["name"][0], row)
    return found


def centre_drill_for(mouth: float) -> str:
    """The smallest centre drill of either series that makes a mouth so wide, mm, by its
    pilot and body in millimetres or its number in inches; empty where none does.

    >>> centre_drill_for(5.4), centre_drill_for(17.0), centre_drill_for(30)
    ('A3.15/8 or #4', 'A8/20', '')
    """
    found = _smallest(mouth)
    return " or ".join(found[series]["name"] for series in "A#" if series in found)


def mouth_by(name: str) -> float:
    """The mouth that a centre drill of this name makes, mm; 0 for none of them.

    >>> mouth_by("#3"), mouth_by("#9")
    (5.3, 0.0)
    """
    known = {row["name"]: float(row["mouth_mm"]) for row in rows("centre_drills")}
    return known.get(name, 0.0)


@reckoning(
    "centre-drill",
    group="Setting up",
    title="Which centre drill, and how deep",
    usual={"bar": 20},
    given=(one_of("bar", "mouth"),),
    inputs=(
        Input("bar", LENGTH, "that turns on the centre", None, above=0, high=1000),
        Input("mouth", LENGTH, "or how wide its mouth shall be", None, above=0),
    ),
    results=(
        Result("mouth", LENGTH, "across its mouth"),
        Result("metric", TEXT, "by its pilot and body"),
        Result("inch", TEXT, "by its number"),
        Result("pilot", LENGTH, "of the metric one"),
        Result("cone", LENGTH, "depth of its cone, down to the pilot"),
    ),
    sources=(
        "ISO 866:1975, ISO 6411:1982 type A, ASME B94.11M; a mouth of 0.3 of the bar, "
        "up to 10 mm: a shop rule",
    ),
)
def _centre_drill(
    trail: Trail, bar: float | None, mouth: float | None
) -> dict[str, Any]:
    if mouth is None:
        assert bar is not None
        mouth = trail.step(
            "Mouth", f"{MOUTH:g} × {bar:g}, up to 10", min(MOUTH * bar, MOST_MOUTH)
        )
    found = _smallest(mouth)
    if "A" not in found:
        most = max(float(row["mouth_mm"]) for row in rows("centre_drills"))
        raise BadInput(
            "mouth", f"No centre drill makes {mouth:g} mm: {most:g} mm is the widest."
        )
    pilot = float(found["A"]["pilot_mm"])
    if mouth <= pilot:
        raise BadInput(
            "bar" if bar else "mouth",
            f"A mouth of {mouth:.4g} mm is less than the pilot of the smallest, "
            f"{pilot:g} mm.",
        )
    trail.notes.append("Its point breaks first: fast, straight in, out to clear it.")
    return {
        "mouth": mouth,
        "metric": found["A"]["name"],
        "inch": found["#"]["name"] if "#" in found else "",
        "pilot": pilot,
        "cone": trail.step(
            "Its cone",
            f"({mouth:.4g} − {pilot:g}) / 2 / tan 30°",
            (mouth - pilot) / 2 / math.tan(math.radians(30)),
        ),
    }
