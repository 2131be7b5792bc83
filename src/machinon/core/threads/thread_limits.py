"""Limits of screw threads by their class, and all sizes of a thread together."""

import math
import re
from typing import Any, Literal

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, INCH, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Answer, Input, Result, Trail, reckoning
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import Thread, thread_of


class ThreadLimits(Struct, frozen=True):
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
    return min(_R40, key=lambda step: abs(step - micrometres / power)) * power


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


def usual_class(thread: Thread, internal: bool) -> str:
    """The class that nuts or screws usually have; empty where none is kept."""
    both = {"metric": ("6H", "6g"), "unified": ("2B", "2A")}.get(thread.form_name)
    return both[0 if internal else 1] if both else ""


def with_class(thread: Thread, named: str) -> str:
    """A thread as written in a record, with its class where it has one."""
    return ", ".join(filter(None, (thread.says, named)))


def thread_limits(
    thread: Thread, internal_class: str = "", external_class: str = ""
) -> ThreadLimits:
    """Limits for two classes, 6H and 6g (2B and 2A) where none is named, mm.

    Raises BadInput on `thread` where the diameter and pitch are not tabulated,
    on `internal_class` or `external_class` for a class not kept.
    Source: ISO 965-1:2013 Tables 1 to 5 (grades other than 6 by its ratios,
    rounded to preferred numbers); ASME B1.1-2003 clause 5 (formulas).

    >>> round(thread_limits(thread_of("M42")).internal_pitch_max, 3)
    39.392
    """
    if thread.form_name == "unified":
        return _unified_limits(
            thread,
            internal_class or usual_class(thread, True),
            external_class or usual_class(thread, False),
        )
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
    # 3B and the smallest sizes are printed to the tenth of a thou, the rest to the
    # thou, from a least bore and a tolerance that were rounded to the tenth first
    places = 4 if inside == "3B" or d < 0.138 else 3
    minor = round(d - 2 * thread.form.internal * p, 4)
    largest = minor + round(bore, 4)
    pitch = thread.pitch_diameter / INCH
    major_max, pitch_max = d - allowance, pitch - allowance
    return ThreadLimits(
        round(minor, places) * INCH,
        math.floor(largest * 10**places + 0.5 + 1e-6) / 10**places * INCH,
        round(pitch, 4) * INCH,
        round(pitch + _UNIFIED[inside] * base, 4) * INCH,
        round(major_max - crest, 4) * INCH,
        round(major_max, 4) * INCH,
        round(pitch_max - _UNIFIED[outside] * base, 4) * INCH,
        round(pitch_max, 4) * INCH,
    )


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
    sizes = thread_of(thread)
    form = sizes.form
    trail.source(form.source)
    height = trail.step(
        "Sharp height",
        f"{form.height:.6f} × {sizes.pitch:g}",
        form.height * sizes.pitch,
    )
    trail.step(
        "Pitch diameter",
        f"{sizes.major:g} − {2 * form.pitch_depth:.6f} × {sizes.pitch:g}",
        sizes.pitch_diameter,
    )
    trail.step(
        "Bore before threading, least",
        f"{sizes.major:g} − {2 * form.internal:.6f} × {sizes.pitch:g}",
        sizes.minor_internal,
    )
    results: dict[str, Any] = {
        "form": form.words,
        "major": sizes.major,
        "pitch": sizes.pitch,
        "tpi": sizes.tpi,
        "pitch_diameter": sizes.pitch_diameter,
        "minor_internal": sizes.minor_internal,
        "minor_external": sizes.minor_external,
        "flank_angle": form.angle,
        "lead_angle": sizes.lead_angle,
        "height": height,
    }
    asked = internal_class is not None or external_class is not None
    if not asked and form.name not in ("metric", "unified"):
        return results
    try:
        limits = thread_limits(sizes, internal_class or "", external_class or "")
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
        internal_class or usual_class(sizes, True),
        external_class or usual_class(sizes, False),
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


def crest_limits(
    answer: Answer, side: Literal["internal", "external"]
) -> tuple[float, float] | None:
    """The diameter before threading, mm; None where no limits are kept.

    answer: a `thread` reckoning.
    """
    part = "minor" if side == "internal" else "major"
    ends = [answer.results.get(f"{side}_{part}_{end}") for end in ("min", "max")]
    if None in ends:
        return None
    return float(ends[0]), float(ends[1])  # type: ignore[arg-type]
