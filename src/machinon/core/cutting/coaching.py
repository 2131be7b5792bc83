"""The coach by message: one state as JSON in, one advice out, nothing kept."""

import difflib
import functools
import math
import typing
from typing import Any, Literal

import msgspec

from machinon.core.cutting.coach import advise, warnings_of
from machinon.core.cutting.cut_state import (
    CUT_SIGMA,
    RATIO,
    TOUCH_SIGMA,
    WARM,
    CutEntry,
    CutState,
    Dial,
    reading_sigma,
)
from machinon.core.errors import BadInput
from machinon.core.materials import material

LARGEST = 5000.0  # mm: a diameter beyond this is a slip of the hand


class CutTarget(msgspec.Struct, frozen=True):
    """The surface to be cut and its band; mm on the diameter."""

    kind: Literal["external", "internal"]
    lower: float
    upper: float
    aim: float | None = None


class DialSaid(msgspec.Struct, frozen=True):
    """How the dial reads."""

    reads: Literal["radius", "diameter"]
    division: float  # one graduation as it reads, mm


class PassLimits(msgspec.Struct, frozen=True):
    """The deepest and the least pass; radial mm."""

    deepest: float = 1.0
    least: float = 0.01


class Zero(msgspec.Struct, frozen=True):
    """The gauge's zero error and its uncertainty; mm."""

    offset: float = 0.0
    sigma: float = 0.0


class Gauge(msgspec.Struct, frozen=True):
    """An instrument."""

    resolution: float
    sigma: float  # repeatability of one reading, mm
    zero: Zero | None = None


class School(msgspec.Struct, frozen=True):
    """Whether spring passes are taken."""

    spring_pass: Literal["always", "never", "free"] = "never"


class CutBar(msgspec.Struct, frozen=True):
    """A boring bar and how far it stands out; mm."""

    diameter: float
    overhang: float


class LearnedHabits(msgspec.Struct, frozen=True):
    """Habits learned from earlier jobs: share of the dial taken, radial sigmas in
    mm."""

    ratio: float | None = None
    touch_sigma: float = TOUCH_SIGMA
    dial_sigma: float = CUT_SIGMA


class LogLine(msgspec.Struct, frozen=True):
    """A line of the log; dial in radial mm from touch, measured in mm, °C."""

    dial: float
    measured: float | None = None
    spring: int = 0
    temperature: float = 20.0


class Request(msgspec.Struct, frozen=True):
    """All that is known before one advice."""

    feature: CutTarget
    dial: DialSaid
    instrument: Gauge
    start_diameter: float
    limits: PassLimits = PassLimits()
    school: School = School()
    bar: CutBar | None = None
    machine: LearnedHabits = LearnedHabits()
    material: str = "steel"
    touch: float = 0.0
    history: tuple[LogLine, ...] = ()


def advice_for(message: Any) -> dict[str, Any]:
    """One state as decoded JSON to one advice as JSON can carry it.

    Raises BadInput on the path of what is wrong in the message.
    """
    try:
        said = msgspec.convert(message, Request)
    except msgspec.ValidationError as error:
        says, _, place = str(error).partition(" - at `$")
        raise BadInput(place.strip("`.") or "state", f"{says}.") from None
    _spelled(message, Request)
    _possible(said)
    state = _state(said)
    dial = Dial(said.dial.reads, said.dial.division)
    advice = advise(state)
    assert advice.predicted is not None  # the start is always measured
    checked = said.instrument.zero is not None
    return {
        "action": advice.action,
        # without the dust of binary sums; a nanometre is below any dial
        "dial": round(advice.dial, 6),
        "infeed": round(advice.infeed, 6),
        "reading": round(dial.shows(advice.dial, said.touch), 6),
        "predicted": advice.predicted,
        "sigma": advice.sigma,
        "chance_in_band": advice.inside,
        "chance_past": advice.past,
        "why": " ".join([advice.why, *warnings_of(state, advice.action, checked)]),
    }


def _spelled(message: Any, kind: type[msgspec.Struct], path: str = "") -> None:
    """Refuse a key that is hardly another than one that is known: what it says would
    count for nothing. Others are let be. Raises BadInput on its path."""
    if not isinstance(message, dict):
        return
    fields = _fields(kind)
    for key, value in message.items():
        if key in fields:
            inner = fields[key]
            if inner is not None:
                for part in value if isinstance(value, list) else [value]:
                    _spelled(part, inner, f"{path}{key}.")
            continue
        near = difflib.get_close_matches(str(key), fields, 1, 0.75)
        if near:
            place = f"{path}{key}"
            raise BadInput(place, f"{place} is not known: {near[0]} is.")


@functools.cache
def _fields(kind: type[msgspec.Struct]) -> dict[str, type[msgspec.Struct] | None]:
    """The keys of a structure, each with the structure that it may hold."""
    return {field.name: _struct(field.type) for field in msgspec.structs.fields(kind)}


def _struct(kind: Any) -> type[msgspec.Struct] | None:
    for part in (kind, *typing.get_args(kind)):
        if isinstance(part, type) and issubclass(part, msgspec.Struct):
            return part
    return None


def _possible(said: Request) -> None:
    """Refuse what no lathe can show. Raises BadInput on its path."""
    feature, gauge, machine = said.feature, said.instrument, said.machine
    zero = gauge.zero or Zero()
    ranges: list[tuple[str, float | None, float, float]] = [
        ("feature.lower", feature.lower, 0.01, LARGEST),
        ("feature.upper", feature.upper, 0.01, LARGEST),
        ("start_diameter", said.start_diameter, 0.01, LARGEST),
        ("dial.division", said.dial.division, 0.0001, 5),
        ("limits.deepest", said.limits.deepest, 0.001, 50),
        ("limits.least", said.limits.least, 0, 50),
        ("instrument.resolution", gauge.resolution, 0, 5),
        ("instrument.sigma", gauge.sigma, 0, 5),
        ("instrument.zero.offset", zero.offset, -5, 5),
        ("instrument.zero.sigma", zero.sigma, 0, 5),
        ("machine.ratio", machine.ratio, 0.1, 3),
        ("machine.touch_sigma", machine.touch_sigma, 0, 5),
        ("machine.dial_sigma", machine.dial_sigma, 0, 5),
        ("touch", said.touch, -1000, 1000),
    ]
    if said.bar is not None:
        ranges += [
            ("bar.diameter", said.bar.diameter, 0.1, 500),
            ("bar.overhang", said.bar.overhang, 0, 5000),
        ]
    before = 0.0
    for i, line in enumerate(said.history):
        ranges += [
            (f"history[{i}].dial", line.dial, before, 1000),
            (f"history[{i}].measured", line.measured, 0.01, LARGEST),
            (f"history[{i}].spring", line.spring, 0, 100),
            (f"history[{i}].temperature", line.temperature, -20, 200),
        ]
        before = line.dial
    for place, value, low, high in ranges:
        if value is not None and not (math.isfinite(value) and low <= value <= high):
            raise BadInput(place, f"{place} must lie from {low:g} to {high:g}.")
    if not feature.lower < feature.upper:
        raise BadInput("feature.upper", "The upper limit must lie above the lower.")
    if feature.aim is not None and not feature.lower <= feature.aim <= feature.upper:
        raise BadInput("feature.aim", "The aim must lie within the band.")


def _state(said: Request) -> CutState:
    """The state as the coach takes it: true sizes at 20 °C, radial divisions."""
    feature, gauge = said.feature, said.instrument
    zero = gauge.zero or Zero()
    metal = material(said.material, "material")
    entries = tuple(
        CutEntry(
            line.dial,
            None
            if line.measured is None
            else metal.cold(line.measured - zero.offset, line.temperature),
            line.spring,
        )
        for line in said.history
    )
    middle = (feature.lower + feature.upper) / 2
    reading = reading_sigma(gauge.sigma, gauge.resolution)
    # a zero that nobody checked is about as doubtful as a reading; and work that nobody
    # felt may be half a degree warm
    off = zero.sigma if gauge.zero is not None else reading
    warm = all(line.temperature == 20 for line in said.history)
    grown = metal.expansion * middle * WARM if warm else 0.0
    return CutState(
        feature.kind == "external",
        feature.lower,
        feature.upper,
        middle if feature.aim is None else feature.aim,
        said.start_diameter - zero.offset,
        entries,
        2 * reading,
        Dial(said.dial.reads, said.dial.division).travel,
        said.limits.deepest,
        said.limits.least,
        said.school.spring_pass,
        math.hypot(off, grown),
        said.machine.ratio or _usual_ratio(said.bar),
        said.machine.touch_sigma,
        said.machine.dial_sigma,
    )


def _usual_ratio(bar: CutBar | None) -> float:
    """Share of the dialled depth that a bar takes, before any proof: a rule of thumb.

    About 0.95 at four diameters out, 0.85 at seven; as a shaft with no bar named.
    """
    if bar is None:
        return RATIO
    out = bar.overhang / bar.diameter
    return max(0.99 - 0.01 * out if out <= 4 else 0.95 - (out - 4) / 30, 0.7)
