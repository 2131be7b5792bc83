"""Tapers by name, by ratio or by two diameters: slope, angles and sizes."""

import functools
import math
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import ANGLE, FACTOR, INCH, LENGTH, NUMBER, SLOPE
from machinon.core.reckoning import (
    TEXT,
    Input,
    Result,
    Trail,
    one_of,
    reckoning,
    two_of,
)
from machinon.core.tables import rows
from machinon.core.tapers.shanks import shank_ends

# half angles that their standards give as angles, degrees
ANGLES = {"R8": (16 + 51 / 60) / 2, "5C": 10.0, "ER": 8.0}


class Taper(Struct, frozen=True):
    """A taper; its sizes in mm, None where its standard gives none."""

    name: str
    ratio: float  # change of diameter per length
    large: float | None = None
    small: float | None = None
    length: float | None = None
    source: str = "geometry"

    @property
    def half_angle(self) -> float:
        return math.degrees(math.atan(self.ratio / 2))

    @property
    def per_foot(self) -> float:
        """Change of diameter in inches per foot of length."""
        return self.ratio * 12


@functools.cache
def named_tapers() -> Mapping[str, Taper]:
    """Every taper kept here, by name."""
    table = {}
    for r in rows("tapers"):
        unit = INCH if r["unit"] == "in" else 1.0

        def size(key: str, r: dict[str, str] = r, unit: float = unit) -> float | None:
            return float(r[key]) * unit if r[key] else None

        large, small, length = size("large"), size("small"), size("length")
        angle = next((a for name, a in ANGLES.items() if r["name"].startswith(name)), 0)
        if r["ratio"]:
            ratio = 1 / float(r["ratio"])
        elif r["per_foot_in"]:
            ratio = float(r["per_foot_in"]) / 12
        else:
            ratio = 2 * math.tan(math.radians(angle))
        table[r["name"]] = Taper(r["name"], ratio, large, small, length, r["source"])
    return table


# how the usual ones are said, in capitals: Morse taper 2, no. 3 Morse, Jacobs 33
SPELLED = (
    (r"(?:MT|MK|CM|MORSE(?: TAPER)?)(?: NO\.?)? ?#?(\d)", "MT"),
    (r"(?:NO\.? ?|#)?(\d) ?(?:MT|MORSE(?: TAPER)?)", "MT"),
    (r"(?:B ?& ?S|BROWN (?:AND|&) SHARPE)(?: TAPER)?(?: NO\.?)? ?#?(\d+)", "B&S"),
    (r"(?:JT|JACOBS(?: TAPER)?)(?: NO\.?)? ?#?(\d+)", "JT"),
    (r"(\d+) ?JT", "JT"),
    (r"ER[ -]?(\d+)", "ER"),
    (r"R[ -](8)", "R"),
    # by itself it is a tolerance as well
    (r"B(10|12|16|18|22|24) TAPER", "B"),
    (r"TAPER B(10|12|16|18|22|24)", "B"),
    # the steep ones, by their standard or as one says them: a 40 taper
    (r"(?:ISO|NT|SK|BT|NMTB|INT)(?: TAPER)? ?(30|40|45|50)(?: TAPER)?", "ISO"),
    (r"(?<!OVER )(?<!TO )(?<!IN )(30|40|45|50) TAPER", "ISO"),
    (r"(\d+) (?:B ?& ?S|BROWN (?:AND|&) SHARPE)", "B&S"),
)
_RATIO = re.compile(r"^1\s*(?::|IN)\s*(\d+(?:\.\d+)?)$")
_ANGLE = re.compile(r"^(.*(?:°|DEG).*?)\s*(|INCLUDED|IN ALL|HALF|A SIDE|PER SIDE)$")
_PER_FOOT = re.compile(r"^([\d./ ]+?)\s*(?:IN/FT|TPF|PER FOOT)$")
STEEPEST = 4  # of diameter to length
INCLUDED = "° included"  # how the name of one ends that is known by its angle


@functools.lru_cache
def taper_of(name: str, key: str = "name") -> Taper:
    """A taper by name as one says it, as a ratio `1:20`, by its angle, `16° included`
    or `8° half`, in inches to the foot, `0.75 in/ft`, or by both ends and length
    `24/20/80`, either end first.

    Raises BadInput on `key`.

    >>> round(taper_of("MT3").half_angle, 4), taper_of("Jacobs taper 33").name
    (1.4377, 'JT33')
    >>> taper_of("8 deg half").name, round(taper_of("3/4 in/ft").ratio, 4)
    ('16° included', 0.0625)
    """
    plain = " ".join(name.upper().split())
    for said, kind in SPELLED:
        if match := re.fullmatch(said, plain):
            plain = f"{kind}{match.group(1)}"
    for known, taper in named_tapers().items():
        if plain in (known.upper(), known.upper().removesuffix(" SEAT")):
            return taper
    match = _RATIO.match(plain)
    if match and float(match.group(1)) > 0:
        ratio = 1 / float(match.group(1))
        if ratio > STEEPEST:
            raise BadInput(key, f"A ratio is from 1:{1 / STEEPEST:g} on.")
        return Taper(f"1:{float(match.group(1)):g}", ratio)
    if found := _sloped(plain, key):
        return found
    parts = name.split("/")
    if len(parts) == 3:
        try:
            sizes = [quantity.parse(part, above=0) for part in parts]
        except BadInput as error:
            raise BadInput(key, f"end/other end/length: {error.message}") from None
        small, large = sorted(sizes[:2])
        return two_diameters(large, small, sizes[2], key)
    raise unknown(key, name, named_tapers())


def by_angle(name: str) -> bool:
    """Whether a taper's name is its angle alone: no shop has a gauge of it."""
    return name.endswith(INCLUDED)


def _sloped(said: str, key: str) -> Taper | None:
    """A taper by its angle or by inches to the foot, in capitals; None where it is
    neither."""
    if match := _ANGLE.match(said):
        if not match.group(2):
            raise BadInput(key, f"Say which: {said.lower()} included, or half.")
        half = match.group(2) in ("HALF", "A SIDE", "PER SIDE")
        most = 2 * math.degrees(math.atan(STEEPEST / 2))
        angle = quantity.parse(
            match.group(1).lower(),
            key=key,
            kind=ANGLE,
            above=0,
            high=round(most / 2 if half else most, 1),
        )
        whole = round(2 * angle if half else angle, 4)
        ratio = 2 * math.tan(math.radians(whole / 2))
        return Taper(f"{whole:.7g}{INCLUDED}", ratio)
    if match := _PER_FOOT.match(said):
        slope = quantity.parse(match.group(1), key=key, kind=NUMBER, above=0, high=48)
        slope = round(slope, 5)
        return Taper(f"{slope:g} in/ft", slope / 12)
    return None


def two_diameters(large: float, small: float, length: float, key: str) -> Taper:
    """The taper between two diameters a length apart; mm."""
    if not large > small:
        raise BadInput(
            key, f"The large end must be more than the small ({small:g} mm)."
        )
    return Taper(
        f"{large:g}/{small:g}/{length:g}",
        (large - small) / length,
        large,
        small,
        length,
    )


def nearest_taper(half_angle: float) -> tuple[Taper, float]:
    """The named taper nearest to a half angle, and the error in minutes of arc."""
    best = min(
        named_tapers().values(), key=lambda taper: abs(taper.half_angle - half_angle)
    )
    return best, (half_angle - best.half_angle) * 60


_ANGLE_RESULTS = (
    Result("ratio", NUMBER, "change of diameter per length"),
    Result("taper_per_foot", SLOPE, "inches of diameter per foot"),
    Result("included_angle", ANGLE, "whole angle"),
    Result("half_angle", ANGLE, "to which the compound is set"),
)


def _angles(trail: Trail, taper: Taper) -> dict[str, Any]:
    half = trail.step(
        "Half angle", f"atan({taper.ratio:.6f} / 2)", taper.half_angle, ANGLE
    )
    return {
        "ratio": taper.ratio,
        "taper_per_foot": trail.step(
            "Per foot", f"12 × {taper.ratio:.6f}", taper.per_foot, SLOPE
        ),
        "included_angle": 2 * half,
        "half_angle": half,
    }


@reckoning(
    "taper",
    group="Tapers",
    title="A taper by its name",
    usual={"name": "MT3"},
    inputs=(
        Input(
            "name", TEXT, "MT3, B&S9, JT33, ER25, 1:20, 16° included, end/end/length"
        ),
    ),
    results=(
        *_ANGLE_RESULTS,
        Result("large_diameter", LENGTH, "at the gauge line or large end"),
        Result("small_diameter", LENGTH, "at the small end"),
        Result("length", LENGTH, "between the two"),
        Result("tang", LENGTH, "thickness of the shank's tang"),
        Result("draw_bar", TEXT, "thread of the draw bar"),
    ),
    sources=("the taper's own standard, named in the answer",),
)
def _taper(trail: Trail, name: str) -> dict[str, Any]:
    taper = taper_of(name)
    trail.source(taper.source)
    results = _angles(trail, taper)
    for key, value in (
        ("large_diameter", taper.large),
        ("small_diameter", taper.small),
        ("length", taper.length),
    ):
        if value is not None:
            results[key] = value
    if (shank := shank_ends().get(taper.name)) is not None:
        trail.source(shank.source)
        results |= {"tang": shank.across} if shank.across else {}
        results |= {"draw_bar": shank.draw} if shank.draw else {}
    return results


@reckoning(
    "taper-end",
    group="Tapers",
    title="The other end of a taper, or how long it is",
    usual={"taper": "1:10", "large": 20, "length": 40},
    given=(two_of("large", "small", "length"),),
    inputs=(
        Input("taper", TEXT, "1:20, 7/24, MT3 or end/end/length"),
        Input("large", LENGTH, "diameter at the large end", None, above=0),
        Input("small", LENGTH, "diameter at the small end", None, low=0),
        Input("length", LENGTH, "between the two", None, above=0),
    ),
    results=(
        Result("large_end", LENGTH, "diameter at the large end"),
        Result("small_end", LENGTH, "diameter at the small end"),
        Result("long", LENGTH, "between the two"),
        Result("half_angle", ANGLE, "to which the compound is set"),
    ),
    sources=("geometry: large − small = length × taper",),
)
def _taper_end(
    trail: Trail,
    taper: str,
    large: float | None,
    small: float | None,
    length: float | None,
) -> dict[str, Any]:
    named = taper_of(taper, "taper")
    trail.source(named.source)
    ratio = named.ratio
    if length is None:
        assert large is not None
        assert small is not None
        if not large > small:
            raise BadInput("large", f"The large end must be over {small:g} mm.")
        length = trail.step(
            "Length", f"({large:g} − {small:g}) / {ratio:.6f}", (large - small) / ratio
        )
    elif small is None:
        assert large is not None
        small = trail.step(
            "Small end", f"{large:g} − {length:g} × {ratio:.6f}", large - length * ratio
        )
        if small < 0:
            most = large / ratio
            raise BadInput("length", f"It comes to a point after {most:.4g} mm.")
    else:
        large = trail.step(
            "Large end", f"{small:g} + {length:g} × {ratio:.6f}", small + length * ratio
        )
    return {
        "large_end": large,
        "small_end": small,
        "long": length,
        "half_angle": named.half_angle,
    }


@reckoning(
    "taper-angle",
    group="Tapers",
    title="A taper from two diameters and the length between",
    usual={"large": 24, "small": 20, "length": 80},
    inputs=(
        Input("large", LENGTH, "diameter at the large end", above=0),
        Input("small", LENGTH, "diameter at the small end", low=0),
        Input("length", LENGTH, "between the two", above=0),
    ),
    results=(
        *_ANGLE_RESULTS,
        Result("nearest", TEXT, "the nearest named taper"),
        Result("error_minutes", FACTOR, "half angle less that of the nearest, minutes"),
    ),
    sources=("geometry",),
)
def _taper_angle(
    trail: Trail, large: float, small: float, length: float
) -> dict[str, Any]:
    taper = two_diameters(large, small, length, "large")
    trail.step("Ratio", f"({large:g} − {small:g}) / {length:g}", taper.ratio, NUMBER)
    results = _angles(trail, taper)
    nearest, error = nearest_taper(taper.half_angle)
    trail.notes.append(f"Nearest is {nearest.name}, {error:+.1f} minutes of arc away.")
    return {**results, "nearest": nearest.name, "error_minutes": error}


@reckoning(
    "taper-advance",
    group="Tapers",
    title="Further into a taper: how much to take off",
    usual={"taper": "MT3", "advance": 2},
    given=(one_of("advance", "diameter_change"),),
    inputs=(
        Input("taper", TEXT, "the taper, by name or ratio"),
        Input("advance", LENGTH, "how much further in it must go", None, above=0),
        Input("diameter_change", LENGTH, "taken off its diameter", None, above=0),
    ),
    results=(
        Result("advance", LENGTH, "how much further in it goes"),
        Result("diameter_change", LENGTH, "on the diameter"),
        Result("radial_infeed", LENGTH, "at the cross slide, radial"),
    ),
    sources=("geometry: diameter = ratio × advance",),
)
def _taper_advance(
    trail: Trail, taper: str, advance: float | None, diameter_change: float | None
) -> dict[str, Any]:
    ratio = taper_of(taper, "taper").ratio
    if advance is None:
        assert diameter_change is not None
        advance = trail.step(
            "Further in", f"{diameter_change:g} / {ratio:.6f}", diameter_change / ratio
        )
    else:
        diameter_change = trail.step(
            "Diameter", f"{ratio:.6f} × {advance:g}", ratio * advance
        )
    return {
        "advance": advance,
        "diameter_change": diameter_change,
        "radial_infeed": trail.step(
            "Radius", f"{diameter_change:.5f} / 2", diameter_change / 2
        ),
    }


@reckoning(
    "taper-over-rollers",
    group="Tapers",
    title="A male taper measured over two equal rollers at two heights",
    usual={
        "roller": 10,
        "height_low": 0,
        "reading_low": 50,
        "height_high": 40,
        "reading_high": 52,
    },
    usual_inch={"reading_high": 2.1 * INCH},
    inputs=(
        Input("roller", LENGTH, "diameter of each roller", above=0),
        Input("height_low", LENGTH, "blocks under the rollers, low", low=0),
        Input("reading_low", LENGTH, "over the rollers, low", above=0),
        Input("height_high", LENGTH, "blocks under the rollers, high", above=0),
        Input("reading_high", LENGTH, "over the rollers, high", above=0),
        Input("taper", TEXT, "taper it should be", default=None),
    ),
    results=(
        Result("half_angle", ANGLE, "of the taper"),
        Result("ratio", NUMBER, "change of diameter per length"),
        Result("diameter_at_base", LENGTH, "at the plate it stands on"),
        Result(
            "error_minutes", FACTOR, "against the named taper, minutes of half angle"
        ),
    ),
    sources=(
        "geometry: tan(half) = (M2 − M1) / 2(h2 − h1); "
        "base = M1 − d(1 + 1/cos(half)) − (2 h1 + d) tan(half)",
    ),
)
def _taper_over_rollers(
    trail: Trail,
    roller: float,
    height_low: float,
    reading_low: float,
    height_high: float,
    reading_high: float,
    taper: str | None,
) -> dict[str, Any]:
    if not height_high > height_low:
        raise BadInput(
            "height_high", f"The high blocks must be above {height_low:g} mm."
        )
    tan = (reading_high - reading_low) / (2 * (height_high - height_low))
    half = trail.step(
        "Half angle",
        f"atan(({reading_high:g} − {reading_low:g}) / "
        f"(2 × ({height_high:g} − {height_low:g})))",
        math.degrees(math.atan(tan)),
        ANGLE,
    )
    # the roller's centre stands half a roller above its block; its contact is
    # aslant, so that the flank lies radius / cos(half) inside of the centre
    radius = roller / 2
    at_centre = reading_low - 2 * radius - 2 * radius / math.cos(math.radians(half))
    base = trail.step(
        "At the base",
        "reading − roller − roller / cos(half) − 2 (height + roller/2) tan(half)",
        at_centre - 2 * (height_low + radius) * tan,
    )
    if base <= 0:
        raise BadInput("reading_low", "These readings leave nothing at the base.")
    results: dict[str, Any] = {
        "half_angle": half,
        "ratio": 2 * tan,
        "diameter_at_base": base,
    }
    if taper is not None:
        wanted = taper_of(taper, "taper")
        # it may stand on either end
        results["error_minutes"] = (abs(half) - wanted.half_angle) * 60
    return results
