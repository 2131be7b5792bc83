"""Finds a thread: candidates of every family ranked by the readings."""

import functools
import math
from typing import Any

from msgspec import Struct

from machinon.core.quantity import INCH, LENGTH, NUMBER
from machinon.core.reckoning import (
    FLAG,
    PITCH,
    TEXT,
    Input,
    Result,
    Trail,
    at_most_one_of,
    one_of,
    reckoning,
)
from machinon.core.sizes.likely import LITTLE, MOST, Likely
from machinon.core.threads.screw_thread import FormName, Thread, known_threads

SHOWN = 8
PITCH_DOUBT = 0.012  # share of the pitch that a gauge or a count leaves in doubt
FARTHEST = 30.0  # χ² beyond which a thread is not worth naming
SURE = 6.0  # χ² of two readings that nineteen of twenty true threads stay under
APART = 4.0  # difference of χ² below which two threads cannot be told apart


class Candidate(Struct, frozen=True):
    """A thread and how far the readings lie from it; mm, misfit is χ²."""

    thread: Thread
    major_error: float
    pitch_error: float | None
    misfit: float


# from here on spindles and other machine parts have inch threads of either form
LEAST_SPECIAL = 5 / 8 * INCH
UNUSUAL = 2.0  # χ² by which a special is less likely than a thread of a series


@functools.cache
def _possible() -> tuple[tuple[Thread, float], ...]:
    """Every thread to be thought of, and how unusual it is.

    A large inch thread of one form is made in the other as well: nothing but its
    flanks tells which.
    """
    known = known_threads().values()
    other: dict[FormName, FormName] = {"unified": "whitworth", "whitworth": "unified"}
    there = {
        (thread.form_name, round(thread.major, 3), round(thread.tpi, 3))
        for thread in known
    }
    found = [(thread, 0.0) for thread in known]
    for thread in known:
        form = other.get(thread.form_name)
        if form is None or thread.major < LEAST_SPECIAL - 1e-6:
            continue
        key = (form, round(thread.major, 3), round(thread.tpi, 3))
        if key not in there:
            there.add(key)
            size = thread.name.removesuffix(f" {thread.series}").split("-")[0].strip()
            end = "W" if form == "whitworth" else "UNS"
            twin = Thread(
                f"{size}-{thread.tpi:g} {end}", thread.major, thread.pitch, form, end
            )
            found.append((twin, UNUSUAL))
    return tuple(found)


@functools.lru_cache(maxsize=200)
def candidates(
    size: float, minor: bool, internal: bool, pitch: float | None, doubt: float
) -> tuple[Candidate, ...]:
    """Threads by misfit, best first; size: major or minor diameter as read, mm.

    A made thread is a little under its nominal crest outside, a little over
    inside; half of the usual tolerance is taken as its middle and its scatter.
    """
    found = []
    for thread, unusual in _possible():
        if minor:
            nominal = thread.minor_internal if internal else thread.minor_external
        else:
            nominal = thread.major
        usual = 0.09 * thread.pitch if internal and minor else 0.06 * thread.pitch
        lean = usual if internal else -usual
        error = size - nominal
        sigma = math.hypot(doubt / 2, usual)
        misfit = unusual + ((error - lean) / sigma) ** 2
        pitch_error = None
        if pitch is not None:
            pitch_error = pitch - thread.pitch
            misfit += (pitch_error / (PITCH_DOUBT * thread.pitch)) ** 2
        found.append(Candidate(thread, error, pitch_error, misfit))
    return tuple(sorted(found, key=lambda c: (c.misfit, c.thread.name)))


def likely_threads(
    size: float, inside: bool, pitch: float | None, doubt: float
) -> tuple[Likely, ...]:
    """The threads that a reading over the crests could be, likeliest first; mm.

    inside: across the crests of a nut; pitch: None while it is not measured.
    """
    ranked = candidates(size, inside, inside, pitch, doubt)
    near = [candidate for candidate in ranked if candidate.misfit < FARTHEST]
    weights = [math.exp(-candidate.misfit / 2) for candidate in near]
    whole = sum(weights)
    return tuple(
        Likely(candidate.thread.name, candidate.major_error, weight / whole)
        for candidate, weight in zip(near[:MOST], weights[:MOST], strict=True)
        if weight / whole >= LITTLE
    )


def undecided(ranked: tuple[Candidate, ...]) -> str:
    """Why the best two cannot be told apart and what would decide; else empty."""
    if len(ranked) < 2 or ranked[1].misfit - ranked[0].misfit >= APART:
        return ""
    first, second = ranked[0].thread, ranked[1].thread
    return (
        f"{first.name} and {second.name} cannot be told apart by these readings: "
        f"{_decides(first, second)}."
    )


def _decides(first: Thread, second: Thread) -> str:
    """The reading that would tell two threads apart."""
    if abs(first.pitch / second.pitch - 1) > 2 * PITCH_DOUBT:
        return (
            f"the pitch decides: {first.pitch:.3f} or {second.pitch:.3f} mm, "
            f"{first.tpi:.4g} or {second.tpi:.4g} to the inch; count over 25 mm"
        )
    if first.form.angle != second.form.angle:
        return (
            f"the flanks decide: {first.form.angle:g}° or {second.form.angle:g}° on "
            "a gauge held to the light"
        )
    return (
        f"the size decides: {first.major:.2f} or {second.major:.2f} mm over the crests"
    )


@reckoning(
    "thread-identify",
    group="Threads",
    title="Which thread it is, from a diameter and a pitch",
    usual={"measured_major": 7.85, "tpi": 18},
    usual_inch={"measured_major": 0.309 * INCH},
    given=(one_of("measured_major", "measured_minor"), at_most_one_of("pitch", "tpi")),
    inputs=(
        Input("measured_major", LENGTH, "over the crests", default=None, above=0),
        Input("measured_minor", LENGTH, "bore, or root", default=None, above=0),
        Input("pitch", PITCH, "pitch, if known", default=None, above=0, high=25.4),
        Input("tpi", NUMBER, "threads per inch", default=None, above=0, high=200),
        Input("internal", FLAG, "whether it is a nut", default=False),
        Input("uncertainty", LENGTH, "of the diameter", default=0.05, above=0, high=2),
    ),
    results=(
        Result(
            "candidates",
            TEXT,
            "thread, errors and score, best first",
            {"major_error": LENGTH, "pitch_error": LENGTH},
        ),
        Result("told_apart", FLAG, "whether the first stands out from the second"),
        Result("decides", TEXT, "the reading that would decide, else empty"),
    ),
    sources=("ISO 261; ASME B1.1; BS 84; BS 93; ISO 228-1; ranking is our own",),
)
def _identify(
    trail: Trail,
    measured_major: float | None,
    measured_minor: float | None,
    pitch: float | None,
    tpi: float | None,
    internal: bool,
    uncertainty: float,
) -> dict[str, Any]:
    if tpi is not None:
        pitch = INCH / tpi
    size = measured_major if measured_major is not None else measured_minor
    assert size is not None
    ranked = candidates(size, measured_major is None, internal, pitch, uncertainty)
    likely = [candidate for candidate in ranked if candidate.misfit < FARTHEST][
        :SHOWN
    ] or ranked[:3]
    if ranked[0].misfit > FARTHEST:
        trail.cautions.append(
            "No thread kept here is near: measure both again, or it is a special."
        )
    alike = undecided(ranked)
    if alike:
        trail.notes.append(alike)
    best = ranked[0]
    trail.step(
        "Diameter read less nominal",
        f"{size:.3f} − {size - best.major_error:.3f} for {best.thread.name}",
        best.major_error,
    )
    return {
        "candidates": [
            {
                "thread": candidate.thread.name,
                "major_error": candidate.major_error,
                "pitch_error": candidate.pitch_error,
                "score": math.exp(-candidate.misfit / 2),
            }
            for candidate in likely
        ],
        "told_apart": not alike,
        "decides": _decides(ranked[0].thread, ranked[1].thread) if alike else "",
    }
