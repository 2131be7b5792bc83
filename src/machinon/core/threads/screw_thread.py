"""Screw threads of every form kept here: designations and basic sizes."""

import functools
import math
import re
from collections.abc import Mapping
from fractions import Fraction
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH
from machinon.core.tables import rows

FormName = Literal[
    "metric", "unified", "whitworth", "ba", "trapezoidal", "acme", "pipe"
]


class Form(Struct, frozen=True):
    """A thread form; depths a side, per millimetre of pitch."""

    name: FormName
    words: str
    angle: float  # included, degrees
    height: float  # of the sharp triangle
    pitch_depth: float  # from the major to the pitch diameter
    internal: float  # to the minor diameter of the nut and of the screw
    external: float  # to the minor diameter of the nut and of the screw
    engaged: float  # what 100 % of thread means
    source: str

    @property
    def flat(self) -> bool:
        """Whether it is flat at its crests and moves a load: its nut is bored no wider
        than the standard has it, for all of its depth bears."""
        return self.name in ("trapezoidal", "acme")

    @property
    def compound(self) -> float:
        """What the compound is set over to feed along a flank, degrees: a little less
        than half the flanks' angle, so that the other is shaved."""
        return self.angle / 2 - 0.5


_H60 = math.sqrt(3) / 2
_H55 = 0.5 / math.tan(math.radians(27.5))
_H475 = 0.5 / math.tan(math.radians(23.75))
_H29 = 0.5 / math.tan(math.radians(14.5))
_H30 = 0.5 / math.tan(math.radians(15))
FORMS: Mapping[str, Form] = {
    form.name: form
    for form in (
        Form(
            "metric",
            "ISO metric 60°",
            60.0,
            _H60,
            3 / 8 * _H60,
            5 / 8 * _H60,
            17 / 24 * _H60,
            0.649519,
            "ISO 68-1:1998; ISO 724:1993",
        ),
        Form(
            "unified",
            "unified 60°",
            60.0,
            _H60,
            3 / 8 * _H60,
            5 / 8 * _H60,
            17 / 24 * _H60,
            0.649519,
            "ASME B1.1-2003",
        ),
        Form(
            "whitworth",
            "Whitworth 55°",
            55.0,
            _H55,
            _H55 / 3,
            2 / 3 * _H55,
            2 / 3 * _H55,
            0.640327,
            "BS 84:2007",
        ),
        Form("ba", "BA 47½°", 47.5, _H475, 0.3, 0.6, 0.6, 0.6, "BS 93:2008"),
        Form(
            "trapezoidal",
            "trapezoidal 30°",
            30.0,
            _H30,
            0.25,
            0.5,
            0.5,
            0.5,
            "ISO 2904:1977",
        ),
        Form(
            "acme",
            "Acme 29°",
            29.0,
            _H29,
            0.25,
            0.5,
            0.5,
            0.5,
            "ASME B1.5-1997",
        ),
        Form(
            "pipe",
            "parallel pipe 55°",
            55.0,
            _H55,
            _H55 / 3,
            2 / 3 * _H55,
            2 / 3 * _H55,
            0.640327,
            "ISO 228-1:2000",
        ),
    )
}


# on the diameter, to 10 threads an inch and above; ASME B1.5-1997
ACME_CLEARANCE = (0.020 * INCH, 0.010 * INCH)


def _crest_clearance(pitch: float) -> float:
    """Clearance at the root of a trapezoidal thread, mm. Source: ISO 2904:1977."""
    if pitch < 2:
        return 0.15
    if pitch <= 5:
        return 0.25
    return 0.5 if pitch <= 12 else 1.0


class Thread(Struct, frozen=True):
    """A screw thread's basic sizes; mm, diameters."""

    name: str
    major: float
    pitch: float
    form_name: FormName = "metric"
    series: str = ""
    starts: int = 1
    left: bool = False  # it goes on against the clock

    @property
    def lead(self) -> float:
        """How far a turn moves it, and what the lathe is geared for."""
        return self.starts * self.pitch

    @property
    def form(self) -> Form:
        return FORMS[self.form_name]

    @property
    def inch(self) -> bool:
        """Whether it is named by threads per inch."""
        return self.form_name in ("unified", "whitworth", "acme", "pipe")

    @property
    def says(self) -> str:
        """The name as it is written on a drawing."""
        return re.sub(r"(?<=\d)x(?=\d|Ph)", " × ", self.name)

    @property
    def tpi(self) -> float:
        return INCH / self.pitch

    @property
    def pitch_diameter(self) -> float:
        return self.major - 2 * self.form.pitch_depth * self.pitch

    @property
    def minor_internal(self) -> float:
        """Minor diameter of the nut: the bore before threading."""
        return self.major - 2 * self.form.internal * self.pitch

    @property
    def minor_external(self) -> float:
        """Minor diameter of the screw, at the root of its rounded profile."""
        minor = self.major - 2 * self.form.external * self.pitch
        if self.form_name == "trapezoidal":
            minor -= 2 * _crest_clearance(self.pitch)
        if self.form_name == "acme":
            minor -= ACME_CLEARANCE[self.tpi > 10]
        return minor

    @property
    def stress_area(self) -> float:
        """The section of the screw that breaks, mm². Source: ISO 898-1, by the mean of
        pitch and minor diameter; a unified one by ASME B1.1, D − 0.9743 P."""
        across = (self.pitch_diameter + self.minor_external) / 2
        if self.form_name == "unified":
            across = self.pitch_diameter - 3 / 8 * self.form.height * self.pitch
        return math.pi / 4 * across**2

    @property
    def lead_angle(self) -> float:
        return math.degrees(math.atan(self.lead / (math.pi * self.pitch_diameter)))


@functools.cache
def known_threads() -> Mapping[str, Thread]:
    """Every thread of the series kept here, by its name without blanks, in capitals."""
    table: dict[str, Thread] = {}
    for r in rows("thread_series"):
        major = float(r["major_mm"]) if r["major_mm"] else float(r["major_in"]) * INCH
        pitch = float(r["pitch_mm"]) if r["pitch_mm"] else INCH / float(r["tpi"])
        form: FormName = r["form"]  # type: ignore[assignment]
        table[_plain(r["name"])] = Thread(r["name"], major, pitch, form, r["series"])
    return table


def _plain(name: str) -> str:
    return re.sub(r"\s+", " ", name.replace("×", "x").strip()).upper()


# other ways to write them, in capitals: what is said, and how it stands here
_FRACTION = r"(?:\d+[\s-]+)?\d+/\d+"
_WRITTEN: tuple[tuple[re.Pattern[str], str], ...] = tuple(
    (re.compile(pattern), meant)
    for pattern, meant in (
        (rf"^({_FRACTION}|\d+)\s*BSPP?$", r"G\1"),
        (r"^BA\s*(\d+)$", r"\1BA"),
        (rf"^({_FRACTION})\s+(\d{{1,2}})$", r"\1-\2"),  # 1 1/2 8
        # the fine threads of model engineers are of Whitworth's form
        (rf"^({_FRACTION})\s*[-X]\s*(\d{{2}})\s*ME$", r"\1-\2 W"),
        (r"^(M\d+(?:\.\d+)?)\s*-\s*(\d+(?:\.\d+)?)$", r"\1X\2"),
    )
)


def _as_written_here(plain: str) -> str:
    for pattern, meant in _WRITTEN:
        plain = pattern.sub(meant, plain)
    return plain


_METRIC = re.compile(r"^M\s*(\d+(?:\.\d+)?)(?:\s*X\s*(\d+(?:\.\d+)?))?$")
# 10x1.5 is metric, as no thread of ten inches is so coarse; 10x32 is number ten
_BARE = re.compile(r"^(\d+(?:\.\d+)?)\s*X\s*(\d+(?:\.\d+)?)$")
COARSEST = 8.0  # mm: the coarsest pitch of a metric thread
COARSEST_INCH = 10.2  # mm: Whitworth's six inches have 2.5 threads to the inch
_TRAPEZOIDAL = re.compile(r"^TR\s*(\d+(?:\.\d+)?)\s*X\s*(\d+(?:\.\d+)?)$")
_ACME = re.compile(
    r"^(?:ACME\s*)?((?:\d+\s+)?\d+/\d+|\d+(?:\.\d+)?)\s*-\s*(\d+(?:\.\d+)?)"
    r"(?:\s*ACME)?$"
)
# the lead and the pitch of several starts; ISO 965-1 and ISO 2904
_STARTS = re.compile(
    r"^((?:M|TR)\s*\d+(?:\.\d+)?)\s*X\s*(?:PH)?\s*(\d+(?:\.\d+)?)\s*"
    r"\(?\s*P\s*(\d+(?:\.\d+)?)\s*\)?$"
)
_LEFT = re.compile(r"[\s-]*(?:LH|LEFT[\s-]HAND(?:ED)?)$")
MOST_STARTS = 8
_BA = re.compile(r"^(\d+)\s*BA$")
_PIPE = re.compile(r"^G\s*((?:\d+\s+)?\d+(?:/\d+)?)(?:\s*A|\s*B)?$")
_SIZE = r"(#?\d+(?:\.\d+)?|(?:\d+[\s-]+)?\d+/\d+|\.\d+)\"?"
_INCH = re.compile(
    rf"^{_SIZE}(?:\s*[-X]\s*(\d+(?:\.\d+)?))?\s*(UNC|UNF|UNEF|UNS|UN|BSW|BSF|WHIT|W)?$"
)
_WORDS = (
    "a thread is written as M12, M12x1.5, 1/4-20, 5/16-18 UNC, #10-32, 1/4 BSW, "
    "3/8 BSF, 2BA, 1 1/8-12 W, Tr20x4, 1-5 Acme or G1/4; M16x2-LH is a left-hand one, "
    "Tr20x8P4 has a lead of 8"
)


def metric_thread(name: str, key: str = "thread") -> Thread:
    """The thread of a metric designation such as `M8` or `M45x4.5`.

    Raises BadInput on `key` for anything else, or a coarse pitch not tabulated.

    >>> round(metric_thread("M45x4.5").pitch_diameter, 3)
    42.077
    """
    match = _METRIC.match(_plain(name))
    if match is None:
        raise BadInput(key, f"{name!r} is not a metric thread; write M8 or M45x4.5.")
    major = float(match.group(1))
    if match.group(2):
        pitch = float(match.group(2))
    else:
        coarse = known_threads().get(f"M{major:g}")
        if coarse is None:
            raise BadInput(key, f"M{major:g} has no coarse pitch; say it, as in M39x3.")
        pitch = coarse.pitch
    _possible(name, major, pitch, key)
    return Thread(f"M{major:g}x{pitch:g}", major, pitch)


def _possible(name: str, major: float, pitch: float, key: str) -> None:
    if not 0 < pitch <= major / 2 or major > 300:
        raise BadInput(
            key,
            f"{name} cannot be cut: the pitch must be above 0 and up to "
            "half the diameter, the diameter up to 300 mm.",
        )


def _pitch_by(tpi: str, key: str) -> float:
    """The pitch of so many threads to the inch, mm. Raises BadInput on `key`."""
    if float(tpi) <= 0:
        raise BadInput(key, "Threads per inch must be above 0.")
    return INCH / float(tpi)


@functools.lru_cache(maxsize=256)  # a piece asks for its own again and again
def thread_of(name: str, key: str = "thread") -> Thread:
    """The thread of any designation of the contract. Raises BadInput on `key`.

    >>> thread_of("5/16-18").name, thread_of("1 1/8-12 W").form_name
    ('5/16-18 UNC', 'whitworth')
    """
    plain = _as_written_here(_plain(name))
    if found := _LEFT.search(plain):
        right = thread_of(plain[: found.start()], key)
        return replace(right, name=f"{right.name}-LH", left=True)
    if match := _STARTS.match(plain):
        return _of_starts(name, match, key)
    if plain.startswith("M") and _METRIC.match(plain):
        return metric_thread(plain, key)
    if match := _TRAPEZOIDAL.match(plain):
        major, pitch = float(match.group(1)), float(match.group(2))
        _possible(name, major, pitch, key)
        return Thread(f"Tr{major:g}x{pitch:g}", major, pitch, "trapezoidal", "Tr")
    if "ACME" in plain and (match := _ACME.match(plain)):
        size, tpi = match.groups()
        major, pitch = _diameter(size) * INCH, _pitch_by(tpi or "1", key)
        _possible(name, major, pitch, key)
        return Thread(f"{size}-{float(tpi):g} ACME", major, pitch, "acme", "ACME")
    if match := _BA.match(plain):
        return _listed(f"{match.group(1)}BA", name, key)
    if match := _PIPE.match(plain):
        return _listed(f"G{match.group(1)}", name, key)
    if match := _BARE.match(plain):
        major, pitch = map(float, match.groups())
        if pitch <= min(major / 2, COARSEST):
            return metric_thread(f"M{plain}", key)
    if match := _INCH.match(plain):
        return _inch_thread(name, match.group(1), match.group(2), match.group(3), key)
    raise BadInput(key, f"{name!r} is not a thread known here; {_WORDS}.")


def _of_starts(name: str, match: re.Match[str], key: str) -> Thread:
    """A thread of several starts by its size, its lead and its pitch, as typed."""
    size, lead, pitch = match.groups()
    one = thread_of(f"{size}x{pitch}", key)
    starts = round(float(lead) / one.pitch)
    if not 2 <= starts <= MOST_STARTS or abs(starts * one.pitch - float(lead)) > 1e-6:
        raise BadInput(
            key,
            f"{name}: the lead is two to {MOST_STARTS} times the pitch, as in "
            "Tr20x8P4.",
        )
    mark = "Ph" if one.form_name == "metric" else ""
    across = f"{'M' if mark else 'Tr'}{one.major:g}"
    called = f"{across}x{mark}{float(lead):g}P{one.pitch:g}"
    return replace(one, name=called, starts=starts)


def _listed(plain: str, name: str, key: str) -> Thread:
    found = known_threads().get(plain)
    if found is None:
        raise BadInput(key, f"{name!r} is not in its series; {_WORDS}.")
    return found


def _diameter(size: str) -> float:
    """A thread's size in inches: #10, 1 1/8, .25."""
    if size.startswith("#"):
        return 0.060 + 0.013 * int(size[1:])
    return float(sum(Fraction(part) for part in re.split(r"[\s-]+", size)))


def _inch_thread(
    name: str, size: str, tpi: str | None, series: str | None, key: str
) -> Thread:
    try:
        major = _diameter(size) * INCH
    except (ValueError, ZeroDivisionError):
        raise BadInput(key, f"{name!r} is not a thread known here; {_WORDS}.") from None
    if tpi is None and series not in ("UNC", "UNF", "UNEF", "BSW", "BSF"):
        raise BadInput(
            key,
            f"{name!r} does not say its threads per inch; write 1/4-20 or 1/4 BSW, "
            "and M8 for a metric one.",
        )
    whitworth = series in ("BSW", "BSF", "WHIT", "W")
    # a bare W or UN, or none, names the form; the series follows from the pitch
    wanted: tuple[str, ...] = (series,) if series else ("UNC", "UNF", "UNEF", "UN")
    if whitworth and tpi is not None:
        wanted = ("BSW", "BSF")
    elif series == "UNS":
        wanted = ()
    form: FormName = "whitworth" if whitworth else "unified"
    # 10-32 is number ten: no ten-inch thread is as fine
    numbered = _diameter(f"#{size}") * INCH if size.isdigit() else major
    for size_of in (major, numbered):
        for thread in known_threads().values():
            if (
                thread.form_name == form
                and abs(thread.major - size_of) < 1e-6
                and thread.series in wanted
                and (tpi is None or abs(thread.tpi - float(tpi)) < 1e-6)
            ):
                return thread
    # BSW with other threads to the inch names the form: 1 1/8-12 BSW is a special
    if tpi is None or series in ("UNC", "UNF", "UNEF"):
        raise BadInput(
            key,
            f"{name!r} is not in the {series} series; leave the series out, or write "
            f"{'W' if whitworth else 'UNS'} for a special.",
        )
    pitch = _pitch_by(tpi, key)
    if numbered != major and float(tpi) >= 20 and major > INCH:
        raise BadInput(
            key,
            f"{size} inches with {float(tpi):g} threads to the inch? Write "
            f"#{size}-{float(tpi):g} for number {size}.",
        )
    if not series and pitch > COARSEST_INCH:
        raise BadInput(
            key,
            f"{size} inches with {float(tpi):g} threads to the inch? Write "
            f"M{size}x{float(tpi):g} for a metric one.",
        )
    _possible(name, major, pitch, key)
    end = "W" if whitworth else "UNS"
    return Thread(f"{size}-{float(tpi):g} {end}", major, pitch, form, end)
