"""Typed quantities: the one parser and the one formatter of the program.

People type sizes as the trade writes them (`1 3/8in`, `.0015"`, `2 tenths`,
`28+6.35/2`); inside, a length is millimetres and an angle is degrees.
"""

import functools
import math
import re
from collections.abc import Callable, Mapping
from decimal import Decimal
from enum import Enum, auto
from fractions import Fraction

from msgspec import Struct

from machinon.core.errors import BadInput

INCH = 25.4  # exactly, by definition (international inch, 1959)
FOOT = 0.3048  # m


class Kind(Struct, frozen=True):
    """A kind of quantity: its base unit and the unit words it understands."""

    name: str
    unit: str
    units: Mapping[str, float]
    examples: str
    limit: float = 1e9
    least: float = 1e-9  # what is smaller and not 0 is no figure of a shop
    inch_fractions: bool = False  # a bare 13/32 means inches, also in a metric shop
    inch_unit: str = ""  # of a bare number where inches come first

    def __hash__(self) -> int:
        return hash(self.name)

    @property
    def allowed(self) -> str:
        """The allowed entries, for a refusal."""
        return f"Type {self.one} such as {self.examples}."

    @property
    def one(self) -> str:
        """Its name with its article: `an angle`."""
        return f"{'an' if self.name[0] in 'aeiou' else 'a'} {self.name}"


LENGTH = Kind(
    "length",
    "mm",
    {
        "mm": 1.0,
        "cm": 10.0,
        "m": 1000.0,
        "um": 0.001,
        "µm": 0.001,
        "μm": 0.001,
        "micron": 0.001,
        "microns": 0.001,
        "in": INCH,
        "inch": INCH,
        "inches": INCH,
        '"': INCH,
        "″": INCH,
        "''": INCH,
        "ft": 12 * INCH,
        "thou": INCH / 1000,
        "tenth": INCH / 10000,
        "tenths": INCH / 10000,
    },
    '54, 1 3/8in, .0015", 50 thou, 2 tenths or 28+6.35/2',
    limit=100_000.0,
    least=1e-6,
    inch_fractions=True,
    inch_unit="in",
)
ANGLE = Kind(
    "angle",
    "deg",
    {
        "deg": 1.0,
        "degree": 1.0,
        "degrees": 1.0,
        "°": 1.0,
        "d": 1.0,
        "m": 1 / 60,
        "min": 1 / 60,
        "'": 1 / 60,
        "′": 1 / 60,
        "s": 1 / 3600,
        "sec": 1 / 3600,
        '"': 1 / 3600,
        "″": 1 / 3600,
        "rad": 180 / math.pi,
    },
    "12.5, 12.5deg or 5d42m38s",
    limit=3600.0,
)
# of a gear: millimetres in every shop, an inch shop's gears have a diametral pitch
MODULE = Kind("module", "mm", {"mm": 1.0}, "1.5", limit=50.0)
# where something stands high: no needle shows that better than to a degree
DIRECTION = Kind("direction", "deg", ANGLE.units, "120deg", limit=3600.0)
NUMBER = Kind("number", "", {}, "3 or 2.5")
COUNT = Kind("whole number", "", {}, "3 or 12", limit=1_000_000)
PERCENT = Kind("percentage", "%", {"%": 1.0}, "75%")
TEMPERATURE = Kind(
    "temperature",
    "°C",
    {"c": 1.0, "°c": 1.0, "degc": 1.0},
    "20, 23.5 or 68F",
    limit=2000.0,
)
POUND = 0.45359237  # kg
WEIGHT = 9.80665  # N of a kilogram
TONNE = 1000 * WEIGHT  # N
POUND_FORCE = POUND * WEIGHT  # N
POUND_FOOT = POUND_FORCE * FOOT  # N·m
HORSE_POWER = 550 * POUND_FOOT / 1000  # kW
PSI = POUND_FORCE / INCH**2  # MPa
STRESS = Kind(
    "stress",
    "MPa",
    {"mpa": 1.0, "n/mm2": 1.0, "gpa": 1000.0, "psi": PSI, "ksi": 1000 * PSI},
    "400 or 58000psi",
    limit=1e6,
    least=1e-3,
)
MASS = Kind(
    "mass",
    "kg",
    {"kg": 1.0, "g": 0.001, "lb": POUND, "oz": POUND / 16},
    "2.5kg, 40g or 5lb",
    limit=1e6,
)
VOLUME = Kind("volume", "mm³", {"mm3": 1.0, "cm3": 1000.0}, "1200", limit=1e15)
TORQUE = Kind(
    "torque",
    "N·m",
    {"nm": 1.0, "ftlb": POUND_FOOT, "inlb": POUND_FOOT / 12, "kgm": WEIGHT},
    "25 or 18ftlb",
    limit=1e9,
)
POWER = Kind(
    "power",
    "kW",
    {"kw": 1.0, "w": 0.001, "hp": HORSE_POWER},
    "0.75, 550W or 1hp",
    limit=1e6,
)
STIFFNESS = Kind("stiffness", "N/mm", {}, "1500", limit=1e12)
SLOPE = Kind("taper", "in/ft", {"in/ft": 1.0}, "0.6", limit=100.0)
FACTOR = Kind("factor", "", {}, "2 or 1.5")
DURATION = Kind("time", "s", {"s": 1.0, "min": 60.0}, "90 or 2min", limit=1e7)
FORCE = Kind(
    "force",
    "N",
    {
        "n": 1.0,
        "kn": 1000.0,
        "lbf": POUND_FORCE,
        "lb": POUND_FORCE,
        "kg": WEIGHT,
    },
    "200N, 1.5kN, 50lbf or 20kg",
    limit=1e9,
)
ROTATION = Kind("speed", "rpm", {"rpm": 1.0}, "540", limit=1e6)
SURFACE_SPEED = Kind(
    "surface speed",
    "m/min",
    {"m/min": 1.0, "ft/min": FOOT, "sfm": FOOT},
    "30 or 100ft/min",
    limit=1e5,
    inch_unit="ft/min",
)
FEED = Kind(
    "feed",
    "mm/rev",
    {"mm/rev": 1.0, "in/rev": INCH},
    "0.1 or 0.004in/rev",
    limit=1e3,
    inch_unit="in/rev",
)
TRAVEL = Kind(
    "travel",
    "mm/min",
    {"mm/min": 1.0, "in/min": INCH},
    "120 or 5in/min",
    limit=1e5,
    inch_unit="in/min",
)
MICROINCH = 0.0254  # µm
ROUGHNESS = Kind(
    "roughness",
    "µm",
    {
        **dict.fromkeys(("µm", "μm", "um", "micron", "microns"), 1.0),
        **dict.fromkeys(("µin", "uin"), MICROINCH),
    },
    "1.6 (µm) or 63uin",
    limit=1e3,
    inch_unit="µin",
)

_TOKEN = re.compile(
    r"\s*(?:(?P<mixed>\d+\s+\d+/\d+)|(?P<fraction>\d+/\d+(?![\d.]))"
    r"|(?P<number>\d+(?:\.\d*)?|\.\d+)"
    r"|(?P<op>[-+*/()−×])"
    r"|(?P<unit>''|[^\W\d_]+(?:/[^\W\d_]+\d?)?|°[cC]?|%|[\"'″′]))"
)
# of an angle in degrees, and back to it
RATIOS: Mapping[str, Callable[[float], float]] = {
    "sin": lambda angle: math.sin(math.radians(angle)),
    "cos": lambda angle: math.cos(math.radians(angle)),
    "tan": lambda angle: math.tan(math.radians(angle)),
}
_ANGLES: Mapping[str, Callable[[float], float]] = {
    "asin": lambda ratio: math.degrees(math.asin(ratio)),
    "acos": lambda ratio: math.degrees(math.acos(ratio)),
    "atan": lambda ratio: math.degrees(math.atan(ratio)),
}
_NAMED = {*RATIOS, *_ANGLES, "sqrt", "pi", "π"}
# 1-3/8 with no blanks: a mixed number to some, a difference to others
_HYPHENED = re.compile(r"(?<![\d./])\d+-\d+/\d+(?!\d)")


def _tokens(text: str, kind: Kind) -> list[tuple[str, str]]:
    out: list[tuple[str, str]] = []
    at = 0
    while at < len(text):
        if text[at:].isspace():
            break
        match = _TOKEN.match(text, at)
        if match is None:
            raise BadInput(
                "", f"{text[at:].strip()[0]!r} has no meaning here. " + kind.allowed
            )
        sort = match.lastgroup or ""
        out.append((sort, match.group(sort).replace("−", "-").replace("×", "*")))
        at = match.end()
    return out


def _is_scale_fraction(over: int, under: int) -> bool:
    """Whether a fraction is one of an inch as scales and drills have them."""
    return under in (2, 4, 8, 16, 32, 64, 128) and 0 < over < under


class _Is(Enum):
    """The form of a value while it is worked out."""

    BARE = auto()  # a number with no unit yet
    FRACTION = auto()  # a bare fraction of an inch, as 13/32
    BASED = auto()  # in the base unit


class _Term(Struct, frozen=True):
    """A value while it is worked out: its number, and whether it has its unit yet."""

    value: float
    sort: _Is


class _Reader:
    """Recursive descent over sums, products and fractions with units."""

    def __init__(self, text: str, kind: Kind, bare_factor: float) -> None:
        self.kind = kind
        self.factor = bare_factor
        self.tokens = _tokens(text, kind)
        self.at = 0

    def refuse(self, why: str) -> BadInput:
        return BadInput("", f"{why} {self.kind.allowed}")

    def peek(self, sort: str, ahead: int = 0) -> str:
        at = self.at + ahead
        if at < len(self.tokens) and self.tokens[at][0] == sort:
            return self.tokens[at][1]
        return ""

    def based(self, term: _Term) -> float:
        if term.sort is _Is.BARE:
            return term.value * self.factor
        return term.value * (INCH if term.sort is _Is.FRACTION else 1.0)

    def whole(self) -> float:
        term = self.sum()
        if self.at < len(self.tokens):
            raise self.refuse(f"{self.tokens[self.at][1]!r} stands where it cannot.")
        return self.based(term)

    def sum(self) -> _Term:
        left = self.product()
        while self.peek("op") in ("+", "-"):
            sign = 1 if self.tokens[self.at][1] == "+" else -1
            self.at += 1
            right = self.product()
            sorts = {left.sort, right.sort}
            if len(sorts) == 1:
                left = _Term(left.value + sign * right.value, left.sort)
                continue
            if sorts == {_Is.BARE, _Is.FRACTION} and self.factor != INCH:
                raise self.refuse(
                    "A bare fraction is inches and a bare number is millimetres: "
                    "give both their unit."
                )
            left = _Term(self.based(left) + sign * self.based(right), _Is.BASED)
        return left

    def product(self) -> _Term:
        left = self.signed()
        while self.peek("op") in ("*", "/"):
            op = self.tokens[self.at][1]
            self.at += 1
            if op == "*":
                left = self._times(left, self.signed())
            else:
                left = self._over(left)
        if self._named:  # 100 sin 30
            left = self._times(left, self.product())
        return left

    def _times(self, left: _Term, right: _Term) -> _Term:
        if _Is.BARE not in (left.sort, right.sort):
            raise self.refuse("Two sizes cannot be multiplied or divided here.")
        sort = right.sort if left.sort is _Is.BARE else left.sort
        return _Term(left.value * right.value, sort)

    def _over(self, left: _Term) -> _Term:
        """Divide by what follows; in 6.5/4in the unit is that of the quotient."""
        right = self._divisor()
        if right.value == 0:
            raise self.refuse("Nothing can be divided by zero.")
        quotient = left.value / right.value
        word = self.peek("unit")
        if not word or self._named or left.sort is not _Is.BARE:
            return _Term(quotient, left.sort)
        term = self.with_unit(_Term(quotient, _Is.BARE))
        if self.peek("number"):
            raise self.refuse("Nothing can be divided by a size here.")
        return term

    def _divisor(self) -> _Term:
        """The bare number that a size is divided by, its own unit left unread."""
        fraction = self.peek("fraction")
        if fraction:  # in 9/16/2 each stroke divides what stands before it
            over, under = fraction.split("/")
            self.tokens[self.at : self.at + 1] = [
                ("number", over),
                ("op", "/"),
                ("number", under),
            ]
        number = self.peek("number")
        if number:
            self.at += 1
            return _Term(float(number), _Is.BARE)
        right = self.signed()
        if right.sort is not _Is.BARE:
            raise self.refuse("Nothing can be divided by a size here.")
        if self.peek("unit") and not self._named:
            raise self.refuse("It is not clear what the unit belongs to.")
        return right

    def signed(self) -> _Term:
        if self.peek("op") in ("+", "-"):
            sign = -1 if self.tokens[self.at][1] == "-" else 1
            self.at += 1
            term = self.signed()
            return _Term(sign * term.value, term.sort)
        return self.value()

    @property
    def _named(self) -> str:
        """The function that stands here, `sin`, or `pi`; empty for neither."""
        word = self.peek("unit").lower()
        return word if word in _NAMED else ""

    def _worked(self, name: str) -> _Term:
        """A function of what follows it: sin 30, tan(2d30m), sqrt(2); or pi."""
        self.at += 1
        if name in ("pi", "π"):
            return _Term(math.pi, _Is.BARE)
        inner = _Reader("", ANGLE if name in RATIOS else NUMBER, 1.0)
        inner.tokens, inner.at = self.tokens, self.at
        of = inner.based(inner.signed())
        self.at = inner.at
        if name in _ANGLES and self.kind is not ANGLE:
            raise self.refuse(f"{name} gives an angle.")
        try:
            work = RATIOS.get(name) or _ANGLES.get(name) or math.sqrt
            return _Term(work(of), _Is.BARE)
        except ValueError:
            raise self.refuse(f"There is no {name} of {of:g}.") from None

    def value(self) -> _Term:
        if name := self._named:
            return self._worked(name)
        if self.peek("op") == "(":
            self.at += 1
            inner = self.sum()
            if self.peek("op") != ")":
                raise self.refuse("A closing bracket is missing.")
            self.at += 1
            return self.with_unit(inner)
        written = self.peek("mixed") or self.peek("fraction")
        if written:
            self.at += 1
            return self.with_unit(self._fraction(written))
        number = self.peek("number")
        if not number:
            raise self.refuse("A number is missing.")
        self.at += 1
        return self.with_unit(_Term(float(number), _Is.BARE))

    def _fraction(self, written: str) -> _Term:
        *whole, over, under = (int(part) for part in re.split(r"[\s/]+", written))
        if under == 0:
            raise self.refuse("Nothing can be divided by zero.")
        value = sum(whole) + over / under
        if self.kind.inch_fractions:
            if _is_scale_fraction(over, under):
                return _Term(value, _Is.FRACTION)
            bare = not self.peek("unit") and self.factor != INCH
            if bare and (whole or over < under):
                raise self.refuse(f"{written} of what? Give it a unit.")
        if self.peek("unit") and self.peek("number", 1):  # 90/2d30m
            raise self.refuse("It is not clear what is divided.")
        return _Term(value, _Is.BARE)

    def with_unit(self, term: _Term) -> _Term:
        word = self.peek("unit")
        if not word or self._named:
            return term
        if term.sort is _Is.BASED:
            raise self.refuse("A unit is given twice.")
        self.at += 1
        factor = self._factor(word)
        value = term.value * factor
        # 5d42m38s: parts written together add up, each finer than the one before
        while self.kind is ANGLE and self.peek("number"):
            part = float(self.peek("number"))
            finer = self.kind.units.get(self.peek("unit", 1).lower(), 0.0)
            if not 0 < finer < factor:
                raise self.refuse(
                    "After degrees come minutes, after minutes seconds, each once."
                )
            self.at += 2
            value += part * finer
            factor = finer
        return _Term(value, _Is.BASED)

    def _factor(self, word: str) -> float:
        factor = self.kind.units.get(word.lower())
        if factor is None:
            raise self.refuse(f"{word!r} is not a unit of {self.kind.one}.")
        return factor


def _celsius(match: re.Match[str]) -> str:
    return f"{(float(match[1]) - 32) / 1.8:.6g}"


# units that are no factor of the kind's own, or that are written in several ways
_Meant = str | Callable[[re.Match[str]], str]
_SAID: Mapping[str, tuple[tuple[re.Pattern[str], _Meant], ...]] = {
    "temperature": (
        (re.compile(r"^(-?\d+(?:\.\d+)?)\s*(?:°|deg)?\s*f$", re.IGNORECASE), _celsius),
        (re.compile(r"°\s*c$", re.IGNORECASE), "c"),
    ),
    "torque": (
        (re.compile(r"n[\s·.*-]*m$", re.IGNORECASE), "nm"),
        (re.compile(r"(ft|in)[\s·.*-]*lbf?s?$", re.IGNORECASE), r"\1lb"),
        (re.compile(r"lbf?s?[\s·.*-]*(ft|in)$", re.IGNORECASE), r"\1lb"),
        (re.compile(r"kgf?[\s·.*-]*m$", re.IGNORECASE), "kgm"),
    ),
    "force": ((re.compile(r"\b(?:kgf|kilos?)$", re.IGNORECASE), "kg"),),
}


def parse(
    text: str,
    kind: Kind = LENGTH,
    *,
    inch: bool = False,
    key: str = "",
    low: float | None = None,
    high: float | None = None,
    above: float | None = None,
) -> float:
    """Read a typed quantity; returns it in the base unit of its kind.

    inch: a bare length is inches, a bare feed inches a turn, a bare surface speed feet
    a minute; a bare fraction of a length (13/32, 1 3/8) always is inches. low, high:
    allowed range, both accepted; above: must be more than this.
    Raises BadInput(key) saying what is allowed.

    >>> parse('1 3/8in'), parse('1 3/8')
    (34.925, 34.925)
    >>> round(parse('2.5in-6.5mm'), 6)
    57.0
    >>> parse('28+6.35/2')
    31.175
    >>> round(parse('5d42m38s', ANGLE), 4)
    5.7106
    >>> round(parse('20*tan(1d26m)'), 4), round(parse('100 sin 30'), 4)
    (0.5004, 50.0)
    """
    text = text.strip()
    for said, meant in _SAID.get(kind.name, ()):
        text = said.sub(meant, text)
    try:
        if not text:
            raise BadInput("", f"Nothing is typed. {kind.allowed}")
        if len(text) > 200:
            raise BadInput("", f"That is too long to be {kind.one}. {kind.allowed}")
        if re.search(r"\d,\d", text):
            raise BadInput(
                "", f"Write the decimal with a point, not a comma. {kind.allowed}"
            )
        if _HYPHENED.search(text):
            raise BadInput(
                "",
                f"{text!r} could mean a mixed number or a difference: type a "
                "blank (1 3/8in) for the one, units (1in - 3/8in) for the other.",
            )
        factor = kind.units[kind.inch_unit] if inch and kind.inch_unit else 1.0
        try:
            value = _figure(text, kind, factor)
        except (RecursionError, OverflowError):
            raise BadInput(
                "", f"That is too long to be {kind.one}. {kind.allowed}"
            ) from None
        return checked(value, kind, low=low, high=high, above=above, inch=inch)
    except BadInput as error:
        raise BadInput(key, error.message) from None


@functools.lru_cache(maxsize=2048)
def _figure(text: str, kind: Kind, factor: float) -> float:
    """What a text comes to; kept, as the sizes of a piece are read at every edit."""
    return _Reader(text, kind, factor).whole()


def list_parts(text: str) -> list[str]:
    """The parts of a typed list; a comma between digits may be the decimal one.

    Semicolons or blanks between the parts leave the comma to the decimals; with
    neither, and no blank after a comma, commas part the list.

    >>> list_parts("46.01,46.02"), list_parts("0,005 0 -0,005 0")
    (['46.01', '46.02'], ['0.005', '0', '-0.005', '0'])
    """
    text = text.strip()
    if ";" in text:
        parts = text.split(";")
    elif re.search(r",\s|\s,", text):
        parts = re.split(r"\s*,\s+|\s+,\s*", text)
    elif re.search(r"\s", text) and not _FRACTION_AFTER_BLANK.search(text):
        parts = text.split()
    else:
        return [part for part in text.split(",") if part.strip()]
    return [_DECIMAL_COMMA.sub(".", part.strip()) for part in parts if part.strip()]


# 1 3/8 and 50 thou have a blank inside, which parts no list
_FRACTION_AFTER_BLANK = re.compile(r"\d\s+\d+/\d|\d\s+[^\W\d_]|\s[-+*/−×]\s")
_DECIMAL_COMMA = re.compile(r"(?<=\d),(?=\d)")


def checked(
    value: float,
    kind: Kind,
    *,
    key: str = "",
    low: float | None = None,
    high: float | None = None,
    above: float | None = None,
    inch: bool = False,
) -> float:
    """The value itself, if it is a number inside what is allowed.

    What is smaller than a shop can tell is 0, where 0 is allowed. inch: what is allowed
    is said in inches.
    """
    unit = f" {kind.unit}" if kind.unit else ""
    of = 1.0
    if inch and kind.inch_unit:
        unit, of = f" {kind.inch_unit}", kind.units[kind.inch_unit]

    def said(number: float) -> str:
        return f"{number:g}" if of == 1 else f"{round(number / of, 4):g}"

    if not math.isfinite(value) or abs(value) > kind.limit:
        raise BadInput(
            key,
            f"That is no size a shop can hold: up to {said(kind.limit)}{unit} is. "
            + kind.allowed,
        )
    if value and abs(value) < kind.least:
        if (above is None or above < 0) and (low is None or low <= 0):
            return 0.0  # what a sum of cosines leaves of nothing, say
        raise BadInput(
            key,
            f"That is smaller than a shop can tell: from {kind.least:g}{unit} on is "
            f"not. {kind.allowed}",
        )
    if kind is COUNT and value != round(value):
        raise BadInput(key, f"{value:g} is not a whole number. {kind.allowed}")
    if (
        (above is not None and not value > above)
        or (low is not None and not value >= low)
        or (high is not None and not value <= high)
    ):
        least = (
            f"above {said(above)}"
            if above is not None
            else (f"from {said(low)}" if low is not None else "")
        )
        most = f"up to {said(high)}" if high is not None else ""
        span = " and ".join(part for part in (least, most) if part)
        raise BadInput(
            key, f"{value / of:.6g}{unit} is outside what is allowed: {span}{unit}."
        )
    return value


def decimals(step: float) -> int:
    """Decimal places that a step (resolution, or a tenth of a band) supports.

    >>> [decimals(s) for s in (0.02, 0.01, 0.001, 0.5, 5.0)]
    [2, 2, 3, 1, 0]
    """
    if not step > 0:
        return 3
    return max(0, min(6, math.ceil(-math.log10(step) - 1e-9)))


def plain(value: float, places: int) -> str:
    """A number with a true minus sign and never a minus zero."""
    text = f"{value:.{places}f}"
    if float(text) == 0:
        text = text.lstrip("-")
    return text.replace("-", "−")


def trimmed(number: str) -> str:
    """A decimal number without noughts at its end that say nothing.

    >>> trimmed("12.50"), trimmed("12.000"), trimmed("120")
    ('12.5', '12', '120')
    """
    return number.rstrip("0").rstrip(".") if "." in number else number


def typed_again(value: float) -> str:
    """A number as it would be typed: plain decimals that read back the same.

    >>> typed_again(0.00005), typed_again(12.0), typed_again(1e-9)
    ('0.00005', '12', '0.000000001')
    """
    return f"{Decimal(f'{value:.10g}'):f}"


def as_kept(value: float, kind: Kind = LENGTH) -> str:
    """A number as a job keeps it: as it would be typed, and a length with its unit, as
    the shop may change to the other.

    >>> as_kept(12.7), as_kept(3, COUNT)
    ('12.7mm', '3')
    """
    return f"{typed_again(value)}{'mm' if kind is LENGTH else ''}"


def length_text(
    value: float, step: float = 0.001, inch: bool = False, unit: bool = True
) -> str:
    """A length in one unit system, with no more digits than `step` (mm) supports.

    >>> length_text(12.7, 0.01), length_text(12.7, 0.01, inch=True)
    ('12.70 mm', '0.5000 in')
    """
    if inch:
        # a tenth (0.0001 in) is the finest a shop reads
        places = min(4, decimals(step / INCH * 2))
        # 2 17/32 is 2.5312, as 21/32 is 0.6562: no noise of the reckoning tips it
        text = plain(round(value / INCH, 9), places)
        return f"{text} in" if unit else text
    text = plain(value, decimals(step))
    return f"{text} mm" if unit else text


def whole_tpi(pitch: float) -> int:
    """Threads per inch of a pitch in mm that is one of an inch; 0 for any other.

    >>> whole_tpi(3.175), whole_tpi(4.5)
    (8, 0)
    """
    tpi = INCH / pitch if pitch > 0 else 0.0
    # warm by a few degrees it is still the same thread; no usual metric pitch
    # lies as near a whole number, but for the finest
    return round(tpi) if tpi < 81 and abs(tpi - round(tpi)) < 0.005 else 0


def fraction_text(size: Fraction) -> str:
    """A fraction of an inch as it is said.

    >>> fraction_text(Fraction(11, 8)), fraction_text(Fraction(13, 32))
    ('1 3/8', '13/32')
    """
    sign = "−" if size < 0 else ""
    whole, rest = divmod(abs(size.numerator), size.denominator)
    parts = [str(whole)] if whole or not rest else []
    if rest:
        parts.append(f"{rest}/{size.denominator}")
    return sign + " ".join(parts)


def both_text(value: float) -> str:
    """A length just typed, in both units, to the micron and the tenth.

    >>> both_text(150.0), both_text(12.7)
    ('150 mm  =  5.9055 in', '12.7 mm  =  0.5 in')
    """
    metric, inch = trimmed(f"{value:.3f}"), trimmed(f"{value / INCH:.4f}")
    return f"{metric} mm  =  {inch} in"


def small_text(value: float, inch: bool = False, signed: bool = False) -> str:
    """A small difference: micrometres, or tenths and thou of an inch.

    >>> small_text(0.0055), small_text(0.0254, inch=True)
    ('5.5 µm', '1.0 thou')
    """
    if inch:
        text, unit = plain(value / INCH * 1000, 1), "thou"
    else:
        micro = value * 1000
        text, unit = plain(micro, 0 if abs(micro) >= 9.95 else 1), "µm"
    if signed and value > 0:
        text = "+" + text
    return f"{text} {unit}"


def small_range(low: float, high: float, inch: bool = False) -> str:
    """Two small differences with their unit said once.

    >>> small_range(0.012, 0.034)
    '12 to 34 µm'
    """
    return f"{small_text(low, inch).rsplit(' ', 1)[0]} to {small_text(high, inch)}"


def length_range(
    low: float, high: float, step: float = 0.001, inch: bool = False
) -> str:
    """Two lengths with their unit said once.

    >>> length_range(45.993, 46.006)
    '45.993 to 46.006 mm'
    """
    first = length_text(low, step, inch, unit=False)
    return f"{first} to {length_text(high, step, inch)}"


# what is never known in a shop to more than three figures
ROUGH = (FORCE, TORQUE, POWER, STRESS, STIFFNESS, FACTOR, MASS, VOLUME, TEMPERATURE)


def rough_text(value: float, kind: Kind) -> str:
    """A force, torque, stress, temperature, time or factor to three figures.

    None of them is ever known better in a shop.

    >>> rough_text(17534.2, FORCE), rough_text(9.27094, FORCE)
    ('17.5 kN', '9.27 N')
    """
    if kind is TEMPERATURE:
        value = round(value)
    elif value:
        value = round(value, 2 - math.floor(math.log10(abs(value))))
    if kind is MASS and abs(value) < 1:
        return f"{value * 1000:.10g} g".replace("-", "−")
    if kind is VOLUME and abs(value) >= 1000:
        return f"{value / 1000:.10g} cm³"
    if kind is POWER and abs(value) < 1:
        return f"{value * 1000:.10g} W"
    if kind is FORCE and abs(value) >= 10_000:
        return f"{value / 1000:g} kN".replace("-", "−")
    if kind is DURATION and abs(value) >= 120:
        # half a minute counts while there are few
        return f"{plain(value / 60, 1 if value < 600 else 0)} min"
    return f"{value:.10g} {kind.unit}".strip().replace("-", "−")


def other_text(value: float, kind: Kind, inch: bool = False) -> str:
    """The same in the measure that does not come first, for small print; empty where
    there is none.

    >>> other_text(1e9, VOLUME), other_text(-43.1, STRESS)
    ('61000 in³', '−6250 psi')
    """
    if inch and kind.inch_unit:
        return text_of(value, kind)
    if kind is FORCE:
        return f"{_figures(value / POUND_FORCE)} lbf"
    if kind is STRESS:
        return f"{_figures(value / PSI)} psi"
    if kind is STIFFNESS:
        return f"{_figures(value * INCH / POUND_FORCE)} lbf/in"
    if kind is TORQUE:
        return f"{_figures(value / POUND_FOOT)} lbf·ft"
    if kind is VOLUME:
        return f"{_figures(value / INCH**3)} in³"
    if kind is POWER:
        return f"{_figures(value / HORSE_POWER, 2)} hp"
    if kind is MASS:
        return f"{_figures(value / POUND)} lb"
    if kind is TEMPERATURE:
        return f"{plain(value * 1.8 + 32, 0)} °F"
    if kind is SURFACE_SPEED:
        return f"{value / FOOT:.0f} ft/min"
    if kind is FEED:
        return f"{plain(value / INCH, 4)} in/rev"
    if kind is TRAVEL:
        return f"{_figures(value / INCH, 2)} in/min"
    if kind is ROUGHNESS:
        return f"{_figures(value / MICROINCH, 2)} µin"
    return ""


def in_both_texts(value: float, kind: Kind, inch: bool) -> tuple[str, str]:
    """A force, mass and the like, and the same in the other measure, empty where there
    is none; an inch shop's pounds stand first.

    >>> in_both_texts(200.0, FORCE, inch=True)
    ('45 lbf', '200 N')
    """
    said, other = rough_text(value, kind), other_text(value, kind)
    return (other, said) if inch and other else (said, other)


def with_other(value: float, kind: Kind, inch: bool) -> str:
    """A force, mass and the like with the other measure behind it.

    >>> with_other(0.75, POWER, inch=False)
    '750 W (1 hp)'
    """
    return "{} ({})".format(*in_both_texts(value, kind, inch))


def _figures(value: float, count: int = 3) -> str:
    return f"{float(f'{value:.{count}g}'):.10g}".replace("-", "−")


def angle_text(value: float, places: int = 1) -> str:
    """Degrees as decimal text with the sign."""
    return f"{plain(value, places)}°"


def surface_speed_in(speed: float, inch: bool = False) -> tuple[float, str]:
    """A surface speed, m/min, as it is said, and its unit.

    >>> surface_speed_in(30.0), surface_speed_in(60.96, inch=True)
    ((30.0, 'm/min'), (200.0, 'ft/min'))
    """
    return (speed / FOOT, "ft/min") if inch else (speed, "m/min")


def text_of(value: float, kind: Kind, inch: bool = False) -> str:
    """Any quantity as a person reads it, with its unit.

    >>> text_of(153.4349, DIRECTION), text_of(14137.2, STIFFNESS)
    ('153°', '14100 N/mm')
    """
    if kind is LENGTH:
        return length_text(value, 0.001, inch)
    if kind is ANGLE:
        text = plain(value, 4)
        return f"{text.rstrip('0').rstrip('.')}°"
    if kind is DIRECTION:
        return f"{value:.0f}°"
    if kind is COUNT:
        return f"{value:.0f}"
    if kind is PERCENT:
        return f"{plain(value, 1)} %"
    if kind is ROTATION:
        return f"{value:.0f} rpm"
    if inch and kind.inch_unit:
        return other_text(value, kind)
    if kind is ROUGHNESS:
        return f"{_figures(value, 2)} µm"
    if kind in (DURATION, FACTOR, POWER, STIFFNESS, SURFACE_SPEED, TRAVEL, VOLUME):
        return rough_text(value, kind)
    unit = f" {kind.unit}" if kind.unit else ""
    return f"{value:.6g}{unit}".replace("-", "−")
