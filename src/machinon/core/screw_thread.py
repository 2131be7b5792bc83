"""Screw threads: designations, basic sizes and limits of every form kept here."""

import functools
import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from fractions import Fraction
from typing import Any, Literal

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, INCH, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

FormName = Literal["metric", "unified", "whitworth", "ba", "trapezoidal", "pipe"]


@dataclass(frozen=True, slots=True)
class Form:
    """A thread form; depths a side, per millimetre of pitch.

    angle: included, degrees; height: of the sharp triangle; pitch_depth: from
    the major to the pitch diameter; internal, external: to the minor diameter
    of the nut and of the screw; engaged: what 100 % of thread means.
    """

    name: FormName
    words: str
    angle: float
    height: float
    pitch_depth: float
    internal: float
    external: float
    engaged: float
    source: str


_H60 = math.sqrt(3) / 2
_H55 = 0.5 / math.tan(math.radians(27.5))
_H475 = 0.5 / math.tan(math.radians(23.75))
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


def _crest_clearance(pitch: float) -> float:
    """Clearance at the root of a trapezoidal thread, mm. Source: ISO 2904:1977."""
    if pitch < 2:
        return 0.15
    if pitch <= 5:
        return 0.25
    return 0.5 if pitch <= 12 else 1.0


@dataclass(frozen=True, slots=True)
class Thread:
    """A screw thread's basic sizes; mm, diameters."""

    name: str
    major: float
    pitch: float
    form_name: FormName = "metric"
    series: str = ""

    @property
    def form(self) -> Form:
        return FORMS[self.form_name]

    @property
    def inch(self) -> bool:
        """Whether it is named by threads per inch."""
        return self.form_name in ("unified", "whitworth", "pipe")

    @property
    def tpi(self) -> float:
        return INCH / self.pitch

    @property
    def pitch_diameter(self) -> float:
        return self.major - 2 * self.form.pitch_depth * self.pitch

    @property
    def minor_internal(self) -> float:
        """Of the nut: the bore before threading."""
        return self.major - 2 * self.form.internal * self.pitch

    @property
    def minor_external(self) -> float:
        """Of the screw, at the root of its rounded profile."""
        minor = self.major - 2 * self.form.external * self.pitch
        if self.form_name == "trapezoidal":
            minor -= 2 * _crest_clearance(self.pitch)
        return minor

    @property
    def lead_angle(self) -> float:
        return math.degrees(math.atan(self.pitch / (math.pi * self.pitch_diameter)))


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


_METRIC = re.compile(r"^M\s*(\d+(?:\.\d+)?)(?:\s*X\s*(\d+(?:\.\d+)?))?$")
_TRAPEZOIDAL = re.compile(r"^TR\s*(\d+(?:\.\d+)?)\s*X\s*(\d+(?:\.\d+)?)$")
_BA = re.compile(r"^(\d+)\s*BA$")
_PIPE = re.compile(r"^G\s*((?:\d+\s+)?\d+(?:/\d+)?)(?:\s*A|\s*B)?$")
_SIZE = r"(#?\d+(?:\.\d+)?|(?:\d+[\s-]+)?\d+/\d+|\.\d+)\"?"
_INCH = re.compile(
    rf"^{_SIZE}(?:\s*[-X]\s*(\d+(?:\.\d+)?))?\s*(UNC|UNF|UNEF|UNS|UN|BSW|BSF|WHIT|W)?$"
)
_WORDS = (
    "a thread is written as M12, M12x1.5, 1/4-20, 5/16-18 UNC, #10-32, 1/4 BSW, "
    "3/8 BSF, 2BA, 1 1/8-12 W, Tr20x4 or G1/4"
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


def thread_of(name: str, key: str = "thread") -> Thread:
    """The thread of any designation of the contract. Raises BadInput on `key`.

    >>> thread_of("5/16-18").name, thread_of("1 1/8-12 W").form_name
    ('5/16-18 UNC', 'whitworth')
    """
    plain = _plain(name)
    if plain.startswith("M") and _METRIC.match(plain):
        return metric_thread(name, key)
    if match := _TRAPEZOIDAL.match(plain):
        major, pitch = float(match.group(1)), float(match.group(2))
        _possible(name, major, pitch, key)
        return Thread(f"Tr{major:g}x{pitch:g}", major, pitch, "trapezoidal", "Tr")
    if match := _BA.match(plain):
        return _listed(f"{match.group(1)}BA", name, key)
    if match := _PIPE.match(plain):
        return _listed(f"G{match.group(1)}", name, key)
    if match := _INCH.match(plain):
        return _inch_thread(name, match.group(1), match.group(2), match.group(3), key)
    raise BadInput(key, f"{name!r} is not a thread known here; {_WORDS}.")


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
            key, f"{name!r} does not say its threads per inch; write 1/4-20 or 1/4 BSW."
        )
    whitworth = series in ("BSW", "BSF", "WHIT", "W")
    # a bare W or UN, or none, names the form; the series follows from the pitch
    wanted = {"W": ("BSW", "BSF"), "WHIT": ("BSW", "BSF"), "UNS": ()}.get(
        series or "", (series,) if series else ("UNC", "UNF", "UNEF", "UN")
    )
    form: FormName = "whitworth" if whitworth else "unified"
    for one in known_threads().values():
        if (
            one.form_name == form
            and abs(one.major - major) < 1e-6
            and one.series in wanted
            and (tpi is None or abs(one.tpi - float(tpi)) < 1e-6)
        ):
            return one
    if tpi is None or series in ("UNC", "UNF", "UNEF", "BSW", "BSF"):
        raise BadInput(
            key,
            f"{name!r} is not in the {series} series; leave the series out, or write "
            f"{'W' if whitworth else 'UNS'} for a special.",
        )
    if float(tpi) <= 0:
        raise BadInput(key, "Threads per inch must be above 0.")
    pitch = INCH / float(tpi)
    _possible(name, major, pitch, key)
    end = "W" if whitworth else "UNS"
    return Thread(f"{size}-{float(tpi):g} {end}", major, pitch, form, end)


# -- limits ----------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class ThreadLimits:
    """Limits of an internal and an external class, mm."""

    internal_minor_min: float
    internal_minor_max: float
    internal_pitch_min: float
    internal_pitch_max: float
    external_major_min: float
    external_major_max: float
    external_pitch_min: float
    external_pitch_max: float


# tolerance of a grade over that of grade 6; ISO 965-1:2013 clause 13
_OUTSIDE = {3: 0.5, 4: 0.63, 5: 0.8, 6: 1.0, 7: 1.25, 8: 1.6, 9: 2.0}
_INSIDE = {4: 0.63, 5: 0.8, 6: 1.0, 7: 1.25, 8: 1.6}
_MAJOR = {4: 0.63, 6: 1.0, 8: 1.6}
_R40 = tuple(
    float(x)
    for x in [
        "1",
        "1.06",
        "1.12",
        "1.18",
        "1.25",
        "1.32",
        "1.4",
        "1.5",
        "1.6",
        "1.7",
        "1.8",
        "1.9",
        "2",
        "2.12",
        "2.24",
        "2.36",
        "2.5",
        "2.65",
        "2.8",
        "3",
        "3.15",
        "3.35",
        "3.55",
        "3.75",
        "4",
        "4.25",
        "4.5",
        "4.75",
        "5",
        "5.3",
        "5.6",
        "6",
        "6.3",
        "6.7",
        "7.1",
        "7.5",
        "8",
        "8.5",
        "9",
        "9.5",
        "10",
    ]
)
_CLASS = re.compile(r"^(?:(\d)([A-Za-z]))?(\d)([A-Za-z])$")


def _preferred(micrometres: float) -> float:
    """The nearest preferred number, by which the tables are rounded; µm."""
    power: float = 10.0 ** math.floor(math.log10(micrometres))
    return min(_R40, key=lambda one: abs(one - micrometres / power)) * power


def _metric_class(name: str, key: str, external: bool) -> tuple[int, int, str]:
    """Grade for pitch, grade for crest, and position of a class such as 5g6g."""
    match = _CLASS.match(name.strip())
    if match is None:
        raise BadInput(key, f"{name!r} is not a class; write 6H for a nut, 6g a screw.")
    pitch_grade, position = match.group(3), match.group(4)
    crest_grade = pitch_grade
    if match.group(1):
        pitch_grade = match.group(1)
        if match.group(2) != position:
            raise BadInput(key, f"{name!r}: both positions must be the same.")
    pitch, crest = int(pitch_grade), int(crest_grade)
    allowed = "efgh" if external else "GH"
    grades = (_OUTSIDE, _MAJOR) if external else (_INSIDE, _INSIDE)
    if position not in allowed or pitch not in grades[0]:
        kinds = "4h, 6g, 6h, 8g" if external else "4H, 5H, 6H, 7H, 6G"
        raise BadInput(key, f"{name!r} is not kept here; usual are {kinds}.")
    if crest not in grades[1]:
        # 5g, 5h, 7g: the crest takes the next grade that exists
        crest = min(grades[1], key=lambda grade: (abs(grade - crest), -grade))
    return pitch, crest, position


def thread_limits(
    thread: Thread, internal_class: str = "", external_class: str = ""
) -> ThreadLimits:
    """Limits for two classes, 6H and 6g (2B and 2A) where none is named, mm.

    Raises BadInput on `thread` where the diameter and pitch are not tabulated,
    on `internal_class` or `external_class` for a class not kept.
    Source: ISO 965-1:2013 Tables 1 to 5 (grades other than 6 by its ratios,
    rounded to preferred numbers); ASME B1.1-2003 clause 5 (formulas).

    >>> round(thread_limits(metric_thread("M42")).internal_pitch_max, 3)
    39.392
    """
    if thread.form_name == "unified":
        return _unified_limits(thread, internal_class or "2B", external_class or "2A")
    if thread.form_name != "metric":
        raise BadInput(
            "thread",
            f"Limits are kept for metric and unified threads, not for {thread.name}.",
        )
    inside = _metric_class(internal_class or "6H", "internal_class", False)
    outside = _metric_class(external_class or "6g", "external_class", True)
    by_pitch = {float(r["pitch_mm"]): r for r in rows("metric_thread_by_pitch")}
    line = by_pitch.get(thread.pitch)
    width = next(
        (
            r
            for r in rows("metric_thread_pitch_diameter")
            if float(r["above_mm"]) < thread.major <= float(r["to_mm"])
            and float(r["pitch_mm"]) == thread.pitch
        ),
        None,
    )
    if line is None or width is None:
        raise BadInput(
            "thread",
            f"{thread.name} has no tabulated limits; the usual "
            "pitches from M3 to M180 have.",
        )

    def graded(six: str, ratio: float) -> float:
        value = float(six)
        return (value if ratio == 1.0 else _preferred(value * ratio)) / 1000

    def position(letter: str) -> float:
        if letter in "hH":
            return 0.0
        value = float(line[f"{letter.lower()}_deviation_um"]) / 1000
        return -value if letter == "G" else value

    minor, pitch = thread.minor_internal, thread.pitch_diameter
    up, down = position(inside[2]), position(outside[2])
    return ThreadLimits(
        minor + up,
        minor + up + graded(line["minor_internal_6_um"], _INSIDE[inside[1]]),
        pitch + up,
        pitch + up + graded(width["internal_6_um"], _INSIDE[inside[0]]),
        thread.major + down - graded(line["major_external_6_um"], _MAJOR[outside[1]]),
        thread.major + down,
        pitch + down - graded(width["external_6_um"], _OUTSIDE[outside[0]]),
        pitch + down,
    )


_UNIFIED = {"1A": 1.5, "2A": 1.0, "3A": 0.75, "1B": 1.95, "2B": 1.3, "3B": 0.975}


def _unified_limits(
    thread: Thread, internal_class: str, external_class: str
) -> ThreadLimits:
    """ASME B1.1-2003 clause 5.8, rounded as its tables are; inches inside."""
    for name, key, end in (
        (internal_class, "internal_class", "B"),
        (external_class, "external_class", "A"),
    ):
        if name.upper() not in _UNIFIED or not name.upper().endswith(end):
            raise BadInput(key, f"{name!r} is not a class; 1{end}, 2{end}, 3{end} are.")
    inside, outside = internal_class.upper(), external_class.upper()
    d, p = thread.major / INCH, thread.pitch / INCH
    engaged = d if thread.series in ("UNC", "UNF") or p >= 1 / 8 else 9 * p
    base = 0.0015 * d ** (1 / 3) + 0.0015 * math.sqrt(engaged) + 0.015 * p ** (2 / 3)
    allowance = 0.0 if outside == "3A" else round(0.3 * base, 4)
    crest = (0.09 if outside == "1A" else 0.06) * p ** (2 / 3)
    if inside == "3B":
        bore = 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002
        least = 0.12 * p if p >= 1 / 12.5 else 0.23 * p - 1.5 * p * p
        bore = min(max(bore, least), 0.394 * p)
    elif d < 0.25:
        bore = 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002
        bore = min(max(bore, 0.25 * p - 0.4 * p * p), 0.394 * p)
    else:
        bore = 0.25 * p - 0.4 * p * p if p <= 0.25 else 0.15 * p
    # 1B and 2B are printed to the thou, 3B to the tenth
    places = 4 if inside == "3B" else 3
    minor = d - 2 * thread.form.internal * p
    pitch = thread.pitch_diameter / INCH
    major_max, pitch_max = d - allowance, pitch - allowance
    return ThreadLimits(
        round(minor, places) * INCH,
        round(minor + bore, places) * INCH,
        round(pitch, 4) * INCH,
        round(pitch + _UNIFIED[inside] * base, 4) * INCH,
        round(major_max - crest, 4) * INCH,
        round(major_max, 4) * INCH,
        round(pitch_max - _UNIFIED[outside] * base, 4) * INCH,
        round(pitch_max, 4) * INCH,
    )


def nearest_metric(major: float, pitch: float) -> Thread | None:
    """The metric thread that a measured outside thread most likely is.

    major: mm over the crests, always a little under the nominal; pitch: mm.
    Returns None where no whole or half millimetre lies close enough above.
    """
    step = 1.0 if major > 12 else 0.5
    nominal = math.ceil(major / step - 0.02) * step
    known = [float(r["pitch_mm"]) for r in rows("metric_thread_by_pitch")]
    close = min(known, key=lambda one: abs(one - pitch))
    if abs(close - pitch) > 0.04 * close or nominal - major > 0.2 * close:
        return None
    return Thread(f"M{nominal:g}x{close:g}", nominal, close)


@reckoning(
    "thread",
    group="Threads",
    title="Sizes of a screw thread",
    usual={"thread": "M8"},
    inputs=(
        Input("thread", TEXT, "the thread, such as M8, 5/16-18 or 2BA"),
        Input("internal_class", TEXT, "class of the nut: 6H, 2B", default=None),
        Input("external_class", TEXT, "class of the screw: 6g, 2A", default=None),
    ),
    results=(
        Result("form", TEXT, "form of the thread"),
        Result("major", LENGTH, "major diameter"),
        Result("pitch", LENGTH, "pitch"),
        Result("tpi", NUMBER, "threads per inch"),
        Result("pitch_diameter", LENGTH, "basic pitch diameter"),
        Result("minor_internal", LENGTH, "minor diameter of the nut"),
        Result("minor_external", LENGTH, "root diameter of the screw"),
        Result("flank_angle", ANGLE, "included angle of the flanks"),
        Result("lead_angle", ANGLE, "lead angle at the pitch diameter"),
        Result("height", LENGTH, "height of the sharp triangle"),
        Result("internal_minor_min", LENGTH, "smallest bore of the nut"),
        Result("internal_minor_max", LENGTH, "largest bore of the nut"),
        Result("internal_pitch_min", LENGTH, "least pitch diameter of the nut"),
        Result("internal_pitch_max", LENGTH, "most pitch diameter of the nut"),
        Result("external_major_min", LENGTH, "least major diameter of the screw"),
        Result("external_major_max", LENGTH, "most major diameter of the screw"),
        Result("external_pitch_min", LENGTH, "least pitch diameter of the screw"),
        Result("external_pitch_max", LENGTH, "most pitch diameter of the screw"),
    ),
    sources=("the form's own standard, named in the answer",),
)
def _thread(
    trail: Trail, thread: str, internal_class: str | None, external_class: str | None
) -> dict[str, Any]:
    one = thread_of(thread)
    form = one.form
    trail.source(form.source)
    height = trail.step(
        "Sharp height", f"{form.height:.6f} × {one.pitch:g}", form.height * one.pitch
    )
    trail.step(
        "Pitch diameter",
        f"{one.major:g} − {2 * form.pitch_depth:.6f} × {one.pitch:g}",
        one.pitch_diameter,
    )
    trail.step(
        "Bore before threading, least",
        f"{one.major:g} − {2 * form.internal:.6f} × {one.pitch:g}",
        one.minor_internal,
    )
    results: dict[str, Any] = {
        "form": form.words,
        "major": one.major,
        "pitch": one.pitch,
        "tpi": one.tpi,
        "pitch_diameter": one.pitch_diameter,
        "minor_internal": one.minor_internal,
        "minor_external": one.minor_external,
        "flank_angle": form.angle,
        "lead_angle": one.lead_angle,
        "height": height,
    }
    asked = internal_class is not None or external_class is not None
    if not asked and form.name not in ("metric", "unified"):
        return results
    try:
        limits = thread_limits(one, internal_class or "", external_class or "")
    except BadInput:
        if asked:
            raise
        return results  # not tabulated, and not asked for
    inch = form.name == "unified"
    trail.source(
        "ASME B1.1-2003 clause 5.8" if inch else "ISO 965-1:2013 Tables 1 to 5"
    )
    wanted = (internal_class, external_class)
    both = wanted[0] is None and wanted[1] is None
    classes = (
        (internal_class or ("2B" if inch else "6H")),
        (external_class or ("2A" if inch else "6g")),
    )
    for side, named in zip(("internal", "external"), wanted, strict=True):
        if named is None and not both:
            continue
        for part in ("minor", "major", "pitch"):
            for end in ("min", "max"):
                key = f"{side}_{part}_{end}"
                if hasattr(limits, key):
                    results[key] = getattr(limits, key)
    trail.notes.append(f"Limits for {classes[0]} inside and {classes[1]} outside.")
    return results
