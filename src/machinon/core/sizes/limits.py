"""ISO limits and fits: zones of size from the tables of ISO 286."""

import functools
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct
from msgspec.structs import force_setattr

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

LARGEST = 500.0  # mm, where the tables kept here end
CLEAR = ("a", "b", "c", "d", "e", "f", "g", "h")  # shafts below the zero line
TIGHT = ("k", "m", "n", "p", "r", "s", "t", "u", "v", "x", "y", "z")
SHAFT_LETTERS = (*CLEAR, "j", "js", *TIGHT)
SOURCE = "ISO 286-1:2010 Tables 1, 4 and 5; limits as ISO 286-2:2010"
_ZONE = re.compile(r"^(js|JS|[a-zA-Z]{1,2})(\d{1,2})$")


class Limits(Struct, frozen=True):
    """A zone of size at a nominal; all lengths in mm."""

    nominal: float
    zone: str
    lower_deviation: float
    upper_deviation: float

    def __post_init__(self) -> None:
        # tabulated deviations are whole tenths of a micron; sums of floats are not
        for key in ("lower_deviation", "upper_deviation"):
            force_setattr(self, key, round(getattr(self, key), 4) + 0.0)

    @property
    def lower(self) -> float:
        return self.nominal + self.lower_deviation

    @property
    def upper(self) -> float:
        return self.nominal + self.upper_deviation

    @property
    def tolerance(self) -> float:
        return round(self.upper_deviation - self.lower_deviation, 4)


@functools.cache
def _grades() -> tuple[tuple[float, float, tuple[float, ...]], ...]:
    return tuple(
        (
            float(r["above_mm"]),
            float(r["to_mm"]),
            tuple(float(r[f"IT{g}_um"]) for g in range(1, 19)),
        )
        for r in rows("iso_tolerance_grades")
    )


@functools.cache
def _deviations() -> Mapping[str, tuple[tuple[float, float, float], ...]]:
    table: dict[str, list[tuple[float, float, float]]] = {}
    for r in rows("iso_fundamental_deviations"):
        table.setdefault(r["letter"], []).append(
            (float(r["above_mm"]), float(r["to_mm"]), float(r["deviation_um"]))
        )
    return {letter: tuple(lines) for letter, lines in table.items()}


def _nominal(nominal: float) -> float:
    if not 0 < nominal <= LARGEST:
        raise BadInput(
            "nominal",
            f"{nominal:g} mm is outside the table: "
            f"above 0 and up to {LARGEST:g} mm is in it.",
        )
    return nominal


def tolerance_grade(nominal: float, grade: int) -> float:
    """Width of the grade IT`grade` at a nominal size, mm.

    nominal: mm, above 0 to 500. Raises BadInput on `nominal` or `zone`.
    Source: ISO 286-1:2010 Table 1.

    >>> tolerance_grade(100, 7)
    0.035
    """
    _nominal(nominal)
    if not 1 <= grade <= 18:
        raise BadInput("zone", f"Grade {grade} is not in the table: 1 to 18 are.")
    for above, to, widths in _grades():
        if above < nominal <= to:
            return widths[grade - 1] / 1000
    raise AssertionError(nominal)


def _fundamental(letter: str, nominal: float, grade: int) -> float:
    """The tabulated deviation of a shaft letter nearest the zero line, mm."""
    if letter == "k" and not (4 <= grade <= 7 and nominal > 3):
        return 0.0
    lines = _deviations()[letter]
    for above, to, deviation in lines:
        if above < nominal <= to:
            return deviation / 1000
    raise BadInput(
        "nominal",
        f"{letter} is tabulated from above {lines[0][0]:g} mm up to {LARGEST:g} mm.",
    )


def split_zone(zone: str, key: str = "zone") -> tuple[str, int]:
    """Letter and grade of a zone such as `H7`. Raises BadInput on `key`."""
    match = _ZONE.match(zone.strip())
    if match is None:
        raise BadInput(
            key,
            f"{zone!r} is not a zone; a zone is a letter and a grade "
            "such as H7 (a hole) or g6 (a shaft).",
        )
    letter, grade = match.group(1), int(match.group(2))
    if letter.lower() not in SHAFT_LETTERS or letter not in (
        letter.lower(),
        letter.upper(),
    ):
        raise unknown(
            key,
            zone,
            [f"{letter}{grade}" for letter in SHAFT_LETTERS]
            + [f"{letter.upper()}{grade}" for letter in SHAFT_LETTERS],
        )
    if not 1 <= grade <= 18:
        raise BadInput(key, f"Grade {grade} is not in the table: 1 to 18 are.")
    return letter, grade


def limits_of_size(nominal: float, zone: str) -> Limits:
    """Deviations of an ISO zone; capitals are holes, small letters shafts.

    nominal: mm, above 0 to 500. Raises BadInput on `nominal` or `zone`.
    Source: ISO 286-1:2010 Tables 1, 4 and 5. A hole's zone mirrors the
    shaft's; K, M, N to IT8 and P to Z to IT7 are moved by the difference
    of two neighbouring grades (the tables' delta).

    >>> limits_of_size(46, "H7").upper
    46.025
    """
    nominal = _nominal(nominal)
    letter, grade = split_zone(zone)
    small = letter.lower()
    width = tolerance_grade(nominal, grade)
    if small == "js":
        half = width / 2
        if 7 <= grade <= 11:  # the tables round odd widths down to a whole half micron
            half = (round(width * 1000) // 2) / 1000
        return Limits(nominal, zone, -half, half)
    if small == "j":
        return _j_limits(nominal, zone, letter, grade, width)
    if letter == small:
        base = _fundamental(small, nominal, grade)
        if small in CLEAR:
            return Limits(nominal, zone, base - width, base)
        return Limits(nominal, zone, base, base + width)
    if small in CLEAR:
        base = -_fundamental(small, nominal, grade)
        return Limits(nominal, zone, base, base + width)
    upper = _hole_upper(small, nominal, grade)
    return Limits(nominal, zone, upper - width, upper)


def _j_limits(
    nominal: float, zone: str, letter: str, grade: int, width: float
) -> Limits:
    """j and J, whose deviations are tabulated for a few grades only."""
    known = (5, 6, 7) if letter == "j" else (6, 7, 8)
    if grade not in known:
        raise BadInput(
            "zone",
            f"{letter} is tabulated for the grades {known[0]} to {known[-1]}; "
            f"{'js' if letter == 'j' else 'JS'}{grade} lies evenly on both sides.",
        )
    off = _fundamental(f"{letter}{grade}", nominal, grade)
    if letter == "j":
        return Limits(nominal, zone, off, off + width)
    return Limits(nominal, zone, off - width, off)


def _hole_upper(small: str, nominal: float, grade: int) -> float:
    """Upper deviation ES of the holes K to Z, mm."""
    if small in ("k", "m", "n"):
        moved = grade <= 8
        if small == "n" and grade > 8:
            return -0.004 if nominal <= 3 else 0.0
        if small == "k" and grade > 8:
            raise BadInput("zone", "K is tabulated to grade 8 only.")
    else:
        moved = grade <= 7
    # the hole's rule starts from the shaft's column of the middle grades
    base = -_fundamental(small, nominal, 6)
    if not moved or nominal <= 3:
        return base
    if small == "m" and grade == 6 and 250 < nominal <= 315:
        return -0.009  # the table's one exception (M6)
    delta = tolerance_grade(nominal, grade) - tolerance_grade(nominal, grade - 1)
    return round(base + delta, 4) if grade > 2 else base


def split_fit(fit: str, key: str = "fit") -> tuple[str, str]:
    """The hole's and the shaft's zone of a fit such as `H7/g6`."""
    hole, slash, shaft = fit.replace(" ", "").partition("/")
    if not slash or not hole[:1].isupper() or not shaft[:1].islower():
        raise BadInput(
            key,
            f"{fit!r} is not a fit; a fit names the hole's zone, a "
            "stroke and the shaft's, such as H7/g6.",
        )
    split_zone(hole, key)
    split_zone(shaft, key)
    return hole, shaft


def kind_of_fit(least: float, most: float) -> str:
    """Clearance, transition or interference, from the least and the most play."""
    if least >= 0:
        return "clearance"
    return "interference" if most <= 0 else "transition"


FIT_RESULTS = (
    Result("hole_upper", LENGTH, "largest hole"),
    Result("hole_lower", LENGTH, "smallest hole"),
    Result("shaft_upper", LENGTH, "largest shaft"),
    Result("shaft_lower", LENGTH, "smallest shaft"),
    Result("clearance_max", LENGTH, "most play"),
    Result("clearance_min", LENGTH, "least play; negative is interference"),
    Result("kind", TEXT, "clearance, transition or interference"),
)


@reckoning(
    "iso-limits",
    group="Fits and materials",
    title="Limits of size of an ISO zone",
    usual={"nominal": 46, "zone": "H7"},
    inputs=(
        Input("nominal", LENGTH, "the nominal size", above=0, high=LARGEST),
        Input("zone", TEXT, "the zone: H7 is a hole, g6 a shaft"),
    ),
    results=(
        Result("upper_deviation", LENGTH, "upper limit less nominal"),
        Result("lower_deviation", LENGTH, "lower limit less nominal"),
        Result("upper", LENGTH, "largest size"),
        Result("lower", LENGTH, "smallest size"),
        Result("tolerance", LENGTH, "width of the zone"),
    ),
    sources=(SOURCE,),
)
def _iso_limits(trail: Trail, nominal: float, zone: str) -> dict[str, Any]:
    limits = limits_of_size(nominal, zone)
    _, grade = split_zone(zone)
    trail.step("Width of the grade", f"IT{grade} at {nominal:g} mm", limits.tolerance)
    trail.step(
        "Upper limit", f"{nominal:g} {limits.upper_deviation:+.4f}", limits.upper
    )
    trail.step(
        "Lower limit", f"{nominal:g} {limits.lower_deviation:+.4f}", limits.lower
    )
    return {
        "upper_deviation": limits.upper_deviation,
        "lower_deviation": limits.lower_deviation,
        "upper": limits.upper,
        "lower": limits.lower,
        "tolerance": limits.tolerance,
    }


@reckoning(
    "iso-fit",
    group="Fits and materials",
    title="An ISO fit: both zones and the play between them",
    usual={"nominal": 46, "fit": "H7/g6"},
    inputs=(
        Input("nominal", LENGTH, "the nominal size", above=0, high=LARGEST),
        Input("fit", TEXT, "the fit, hole first: H7/g6"),
    ),
    results=FIT_RESULTS,
    sources=(SOURCE,),
)
def _iso_fit(trail: Trail, nominal: float, fit: str) -> dict[str, Any]:
    hole_zone, shaft_zone = split_fit(fit)
    hole = limits_of_size(nominal, hole_zone)
    shaft = limits_of_size(nominal, shaft_zone)
    most = trail.step(
        "Most play",
        f"{hole.upper:.4f} − {shaft.lower:.4f}",
        round(hole.upper_deviation - shaft.lower_deviation, 4),
    )
    least = trail.step(
        "Least play",
        f"{hole.lower:.4f} − {shaft.upper:.4f}",
        round(hole.lower_deviation - shaft.upper_deviation, 4),
    )
    kind = kind_of_fit(least, most)
    return {
        "hole_upper": hole.upper,
        "hole_lower": hole.lower,
        "shaft_upper": shaft.upper,
        "shaft_lower": shaft.lower,
        "clearance_max": most,
        "clearance_min": least,
        "kind": kind,
    }
