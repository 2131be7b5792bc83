"""A heat, a torque, a pressure and the like in the units of other books."""

import functools
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import (
    FOOT,
    HORSE_POWER,
    INCH,
    NUMBER,
    POUND,
    POUND_FOOT,
    POUND_FORCE,
    TONNE,
    WEIGHT,
    parse,
    trimmed,
)
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

GALLON = 231 * INCH**3 / 1e6  # litres: the American one
IMPERIAL_GALLON = 4.54609  # litres
SQUARE_INCH = INCH**2  # mm²
FIGURES = 4  # that a gauge, a wrench or a meter is read to at the best


class Unit(Struct, frozen=True):
    """A unit of a measure, and how it is said or typed."""

    name: str
    said: tuple[str, ...]
    size: float  # of one, in the first unit of its measure
    nought: float = 0.0  # where it begins, in that unit

    def of(self, base: float) -> float:
        """What the first unit of its measure comes to in this one."""
        return (base - self.nought) / self.size


# the first unit of each is the one that the others are told in
MEASURES: Mapping[str, tuple[Unit, ...]] = {
    "length": (
        Unit("mm", ("millimetre", "millimeter"), 1.0),
        Unit("in", ("inch", "inches"), INCH),
        Unit("cm", ("centimetre", "centimeter"), 10.0),
        Unit("m", ("metre", "meter"), 1000.0),
        Unit("ft", ("foot",), 12 * INCH),
        Unit("yd", ("yard",), 36 * INCH),
    ),
    "temperature": (
        Unit("°C", ("c", "celsius", "centigrade"), 1.0),
        Unit("°F", ("f", "fahrenheit"), 1 / 1.8, -32 / 1.8),
        Unit("K", ("kelvin",), 1.0, -273.15),
    ),
    "torque": (
        Unit("N·m", ("nm", "newton metre", "newton meter"), 1.0),
        Unit(
            "lbf·ft",
            ("ft lb", "ft lbf", "lb ft", "lbf ft", "foot pound", "pound foot"),
            POUND_FOOT,
        ),
        Unit(
            "lbf·in",
            ("in lb", "in lbf", "lb in", "lbf in", "inch pound", "pound inch"),
            POUND_FOOT / 12,
        ),
        Unit("kgf·m", ("kg m", "kgf m"), WEIGHT),
    ),
    "mass": (
        Unit("kg", ("kilo", "kilogram"), 1.0),
        Unit("g", ("gram",), 0.001),
        Unit("lb", ("pound",), POUND),
        Unit("oz", ("ounce",), POUND / 16),
    ),
    "force": (
        Unit("N", ("newton",), 1.0),
        Unit("kN", ("kilonewton",), 1000.0),
        Unit("lbf", ("lb", "pound"), POUND_FORCE),
        Unit("kgf", ("kg", "kilo"), WEIGHT),
        Unit("tonf", ("tonne", "metric ton"), TONNE),
    ),
    "pressure": (
        Unit("bar", (), 1.0),
        Unit("psi", (), POUND_FORCE / SQUARE_INCH * 10),
        Unit("MPa", ("n/mm2", "n/mm²"), 10.0),
        Unit("kPa", (), 0.01),
        Unit("ksi", (), POUND_FORCE / SQUARE_INCH * 10_000),
        Unit("kgf/cm²", ("kg/cm2", "kg/cm²", "kgf/cm2"), WEIGHT / 10),
    ),
    "power": (
        Unit("kW", ("kilowatt",), 1.0),
        Unit("W", ("watt",), 0.001),
        Unit("hp", ("horsepower", "horse power"), HORSE_POWER),
        Unit("PS", ("metric hp",), 75 * WEIGHT / 1000),
    ),
    "surface speed": (
        Unit("m/min", ("metre a minute", "metre per minute"), 1.0),
        Unit("ft/min", ("sfm", "sfpm", "fpm", "foot a minute", "ft a min"), FOOT),
        Unit("m/s", (), 60.0),
    ),
    "travel": (
        Unit("mm/min", (), 1.0),
        Unit("in/min", ("ipm", "inch/min"), INCH),
    ),
    "feed": (
        Unit("mm/rev", ("mm a turn", "mm/turn", "mm per rev"), 1.0),
        Unit("in/rev", ("ipr", "in a turn", "in/turn", "inch/rev", "in per rev"), INCH),
        Unit("thou/rev", ("thou a turn", "thou/turn", "thou per rev"), INCH / 1000),
    ),
    "volume": (
        Unit("l", ("litre", "liter"), 1.0),
        Unit("ml", ("millilitre", "cm3", "cm³", "cc"), 0.001),
        Unit("US gal", ("gal", "gallon", "us gallon"), GALLON),
        Unit("imp gal", ("imperial gallon", "uk gallon"), IMPERIAL_GALLON),
        Unit("US fl oz", ("fl oz", "fluid ounce"), GALLON / 128),
        Unit("in³", ("in3", "cubic inch", "cu in"), INCH**3 / 1e6),
    ),
}
_BLANKS = re.compile(r"[\s·.*-]+")
_NUMBER = r"[-−]?(?:\d+\s+\d+/\d+|\d+/\d+|\d+(?:\.\d*)?|\.\d+)"


def _plain(unit: str) -> str:
    """A unit as it is looked up, however it was written.

    >>> _plain("Foot-Pounds"), _plain("degrees F"), _plain("lbf·ft")
    ('foot pound', 'f', 'lbf ft')
    """
    words = _BLANKS.sub(" ", unit.lower()).strip()
    words = re.sub(r"^(?:degrees?|deg|°)\s*(?=[a-z])", "", words)
    words = re.sub(r"\bfeet\b", "foot", words).replace("metres", "metre")
    return re.sub(r"(?<=[a-z]{2})s\b(?!/)", "", words)


@functools.cache
def _spelled() -> Mapping[str, tuple[tuple[str, Unit], ...]]:
    """The units by how they are written, each with its measure: a pound is two."""
    found: dict[str, list[tuple[str, Unit]]] = {}
    for measure, units in MEASURES.items():
        for unit in units:
            for said in (unit.name, *unit.said):
                words = _plain(said)
                for word in dict.fromkeys((words, words.replace(" ", ""))):
                    found.setdefault(word, []).append((measure, unit))
    return {word: tuple(units) for word, units in found.items()}


class Spoken(Struct, frozen=True):
    """A question after another unit: 30 ft lb in Nm."""

    value: str
    to: str = ""


_LED_BY = re.compile(
    rf"(?:what\s+is\s+|what's\s+|how\s+much\s+is\s+|convert\s+)?"
    rf"(?P<value>{_NUMBER}\s*\S.*?)"
    r"(?:\s+(?:in|to|into|as)\s+|\s*=\s*)(?:an?\s+|the\s+)?(?P<to>\S.*?)\s*\??",
    re.IGNORECASE,
)
_HOW_MANY = re.compile(
    rf"how\s+many\s+(?P<to>\S.*?)\s+(?:is|are|in|for|make)\s+"
    rf"(?P<value>{_NUMBER}\s*\S.*?)\s*\??",
    re.IGNORECASE,
)
_ALONE = re.compile(rf"(?P<value>{_NUMBER}\s*\S.*?)\s*\??", re.IGNORECASE)


def spoken(text: str, alone: bool = False) -> Spoken | None:
    """A question after another unit, where that is what was said; alone: a figure with
    its unit and no more.

    >>> spoken("30 ft lb in Nm")
    Spoken(value='30 ft lb', to='Nm')
    >>> spoken("20 in shaft"), spoken("68 F", alone=True)
    (None, Spoken(value='68 F', to=''))
    """
    for form in (_ALONE,) if alone else (_LED_BY, _HOW_MANY):
        match = form.fullmatch(text.strip())
        if match is None:
            continue
        said = Spoken(**match.groupdict())
        try:
            _read(said.value, said.to)
        except BadInput:
            continue
        return said
    return None


def is_length(said: Spoken) -> bool:
    """Whether it is of millimetres and inches, which are told with their drills."""
    _, measure, unit, asked = _read(said.value, said.to)
    if measure != "length" or unit.name == "yd":
        return False
    return asked is None or asked.name in ("mm", "in")


def _known(word: str, key: str) -> tuple[tuple[str, Unit], ...]:
    found = _spelled().get(_plain(word))
    if found is None:
        usual = ", ".join(units[1].name for units in MEASURES.values())
        raise BadInput(
            key, f"{word!r} is no unit known here. Type one such as {usual}."
        )
    return found


def _read(text: str, to: str) -> tuple[float, str, Unit, Unit | None]:
    """A figure, its measure and unit, and the unit that is asked for."""
    match = re.match(rf"\s*({_NUMBER})\s*(.*)", text.replace("−", "-"))
    if match is None or not match[2]:
        raise BadInput(
            "value", "Type a figure with its unit, such as 30 ft lb or 68 F."
        )
    known = _known(match[2], "value")
    figure = parse(match[1], NUMBER, key="value")
    if not to:
        return figure, *known[0], None
    for measure, unit in known:
        for other, asked in _known(to, "to"):
            if other == measure:
                return figure, measure, unit, asked
    raise BadInput("to", f"{match[2]} is a {known[0][0]}, and {to} is none.")


def figure_text(value: float, measure: str) -> str:
    """A figure as a gauge or a wrench is read: to a tenth of a degree, else to four
    figures.

    >>> figure_text(40.6745, "torque"), figure_text(-40.0, "temperature")
    ('40.67', '−40')
    """
    text = f"{value:.1f}" if measure == "temperature" else f"{value:.{FIGURES}g}"
    if "e" in text:
        text = f"{float(text):.10f}" if abs(value) < 1 else f"{float(text):.0f}"
    return trimmed(text).replace("-", "−") if float(text) else "0"


@reckoning(
    "other-units",
    group="Measuring over and across",
    title="A heat, torque, pressure and the like in other units",
    usual={"value": "30 ft lb"},
    inputs=(
        Input("value", TEXT, "the figure with its unit"),
        Input("to", TEXT, "unit asked for; else all", None),
    ),
    results=(
        Result("figure", NUMBER, "in the unit asked for, else in the usual other one"),
        Result("unit", TEXT, "that it is in"),
        Result("measure", TEXT, "what is measured"),
        Result("others", TEXT, "in the other units of it"),
    ),
    sources=(
        "inch 25.4 mm and pound 0.45359237 kg exactly (1959); weight 9.80665 N a kg",
    ),
)
def _other_units(trail: Trail, value: str, to: str | None) -> dict[str, Any]:
    figure, measure, unit, asked = _read(value, to or "")
    units = MEASURES[measure]
    base = figure * unit.size + unit.nought
    lowest = units[-1].nought if measure == "temperature" else None
    if lowest is not None and base < lowest:
        raise BadInput("value", "Nothing is colder than −273.15 °C.")
    if unit.nought:
        formula = f"({figure:g} − {unit.of(0.0):g}) × {unit.size:.6g}"
    else:
        formula = f"{figure:g} × {unit.size:.8g}"
    trail.step(f"In {units[0].name}", formula, base, NUMBER)
    asked = asked or next(other for other in units if other is not unit)
    shown = asked.of(base)
    if asked is not units[0]:
        nought = f" + {asked.of(0.0):g}" if asked.nought else ""
        trail.step(
            f"In {asked.name}", f"{base:.6g} / {asked.size:.8g}{nought}", shown, NUMBER
        )
    return {
        "figure": shown,
        "unit": asked.name,
        "measure": measure,
        "others": [
            f"{figure_text(other.of(base), measure)} {other.name}"
            for other in units
            if other not in (unit, asked)
        ],
    }
