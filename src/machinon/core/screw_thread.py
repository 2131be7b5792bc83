"""Metric screw threads: designation, basic sizes, limits of the 6H/6g classes."""

import functools
import math
import re
from dataclasses import dataclass
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

HALF_ROOT_3 = math.sqrt(3) / 2  # sharp height of a 60° thread of pitch 1


@dataclass(frozen=True, slots=True)
class Thread:
    """A metric thread; mm. Basic sizes by ISO 724 (formulas of ISO 68-1)."""

    name: str
    major: float
    pitch: float

    @property
    def pitch_diameter(self) -> float:
        return self.major - 0.75 * HALF_ROOT_3 * self.pitch

    @property
    def minor_internal(self) -> float:
        return self.major - 1.25 * HALF_ROOT_3 * self.pitch

    @property
    def minor_external(self) -> float:
        """At the root of the external thread's rounded profile (d3)."""
        return self.major - 17 / 12 * HALF_ROOT_3 * self.pitch

    @property
    def lead_angle(self) -> float:
        return math.degrees(math.atan(self.pitch / (math.pi * self.pitch_diameter)))


@dataclass(frozen=True, slots=True)
class ThreadLimits:
    """Limits of the usual classes 6H (inside) and 6g (outside), mm."""

    internal_minor_min: float
    internal_minor_max: float
    internal_pitch_min: float
    internal_pitch_max: float
    external_major_min: float
    external_major_max: float
    external_pitch_min: float
    external_pitch_max: float


_METRIC = re.compile(r"^M\s*(\d+(?:\.\d+)?)(?:\s*[x×X]\s*(\d+(?:\.\d+)?))?$")


@functools.cache
def _coarse() -> dict[float, float]:
    return {
        float(r["major_mm"]): float(r["pitch_mm"])
        for r in rows("metric_coarse_threads")
    }


def metric_thread(name: str, key: str = "thread") -> Thread:
    """The thread of a designation such as `M8` or `M45x4.5`.

    Raises BadInput on `key` for anything else, or a coarse pitch not tabulated.

    >>> round(metric_thread("M45x4.5").pitch_diameter, 3)
    42.077
    """
    match = _METRIC.match(name.strip())
    if match is None:
        raise BadInput(key, f"{name!r} is not a metric thread; write M8 or M45x4.5.")
    major = float(match.group(1))
    if match.group(2):
        pitch = float(match.group(2))
    elif major in _coarse():
        pitch = _coarse()[major]
    else:
        raise BadInput(key, f"M{major:g} has no coarse pitch; say it, as in M39x3.")
    if not 0 < pitch <= major / 2 or major > 300:
        raise BadInput(
            key,
            f"{name} cannot be cut: the pitch must be above 0 and up to "
            "half the diameter, the diameter up to 300 mm.",
        )
    return Thread(f"M{major:g}x{pitch:g}", major, pitch)


def thread_limits(thread: Thread) -> ThreadLimits:
    """Limits for 6H and 6g. Source: ISO 965-1:2013 Tables 1 to 5.

    Raises BadInput on `thread` where the diameter and pitch are not tabulated.

    >>> round(thread_limits(metric_thread("M42")).internal_pitch_max, 3)
    39.392
    """
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
    minor, pitch = thread.minor_internal, thread.pitch_diameter
    offset = float(line["g_deviation_um"]) / 1000
    return ThreadLimits(
        minor,
        minor + float(line["minor_internal_6_um"]) / 1000,
        pitch,
        pitch + float(width["internal_6_um"]) / 1000,
        thread.major + offset - float(line["major_external_6_um"]) / 1000,
        thread.major + offset,
        pitch + offset - float(width["external_6_um"]) / 1000,
        pitch + offset,
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
    title="Sizes of a metric thread",
    inputs=(Input("thread", TEXT, "the thread, such as M8 or M45x4.5"),),
    results=(
        Result("form", TEXT, "form of the thread"),
        Result("major", LENGTH, "major diameter"),
        Result("pitch", LENGTH, "pitch"),
        Result("pitch_diameter", LENGTH, "basic pitch diameter"),
        Result("minor_internal", LENGTH, "minor diameter of the nut"),
        Result("minor_external", LENGTH, "root diameter of the screw"),
        Result("flank_angle", ANGLE, "included angle of the flanks"),
        Result("lead_angle", ANGLE, "lead angle at the pitch diameter"),
        Result("height", LENGTH, "height of the sharp triangle"),
        Result("internal_minor_min", LENGTH, "smallest bore for 6H"),
        Result("internal_minor_max", LENGTH, "largest bore for 6H"),
        Result("internal_pitch_min", LENGTH, "least pitch diameter of the nut, 6H"),
        Result("internal_pitch_max", LENGTH, "most pitch diameter of the nut, 6H"),
    ),
    sources=("ISO 68-1:1998; ISO 724:1993", "ISO 965-1:2013 (6H)"),
)
def _thread(trail: Trail, thread: str) -> dict[str, Any]:
    one = metric_thread(thread)
    limits = thread_limits(one)
    height = trail.step(
        "Sharp height", f"0.866025 × {one.pitch:g}", HALF_ROOT_3 * one.pitch
    )
    trail.step(
        "Pitch diameter",
        f"{one.major:g} − 0.649519 × {one.pitch:g}",
        one.pitch_diameter,
    )
    trail.step(
        "Bore before threading, least",
        f"{one.major:g} − 1.082532 × {one.pitch:g}",
        one.minor_internal,
    )
    trail.step(
        "Bore before threading, most (6H)",
        f"{limits.internal_minor_min:.3f} + "
        f"{limits.internal_minor_max - limits.internal_minor_min:.3f}",
        limits.internal_minor_max,
    )
    return {
        "form": "metric 60°",
        "major": one.major,
        "pitch": one.pitch,
        "pitch_diameter": one.pitch_diameter,
        "minor_internal": one.minor_internal,
        "minor_external": one.minor_external,
        "flank_angle": 60.0,
        "lead_angle": one.lead_angle,
        "height": height,
        "internal_minor_min": limits.internal_minor_min,
        "internal_minor_max": limits.internal_minor_max,
        "internal_pitch_min": limits.internal_pitch_min,
        "internal_pitch_max": limits.internal_pitch_max,
    }
