"""Tapping: drills by name in four systems, and the drill for a tap."""

import functools
from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.materials import material as material_of
from machinon.core.quantity import INCH, LENGTH, PERCENT, fraction_text
from machinon.core.reckoning import (
    DRILLS,
    SERIES,
    TEXT,
    Input,
    Result,
    Trail,
    reckoning,
)
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import Thread, thread_of

INCH_SERIES = ("fraction", "number", "letter")
# %; a wire insert's hole is cut deeper: the coil lies against the crests that are left
USUAL_ENGAGEMENT = {"cut": 75.0, "form": 65.0, "insert": 76.0}
LEAST, MOST = 55, 85  # % of thread: less strips early, more breaks taps
LEAST_BORNE = 90  # % of a trapezoidal or Acme thread's depth
AS_DRILLED = 0.01  # mm: no two drills of a set are as close as this
SAME = 1e-6  # mm: less is dust of the sums
FORMED = 0.68  # of the pitch: what a forming tap raises; makers' rule


class Drill(Struct, frozen=True):
    """A drill by its name; size in mm."""

    name: str
    size: float


@functools.cache
def drills(series: str) -> tuple[Drill, ...]:
    """The drills of a series, rising. Raises BadInput on `series`."""
    if series == "metric":
        sizes = [i / 10 for i in range(3, 131)] + [13 + i / 2 for i in range(1, 75)]
        return tuple(Drill(f"{size:g} mm", size) for size in sizes)
    if series == "fraction":
        return tuple(
            Drill(fraction_text(Fraction(i, 64)), i / 64 * INCH) for i in range(1, 129)
        )
    if series in ("number", "letter"):
        found = (
            Drill(r["name"], float(r["size_in"]) * INCH)
            for r in rows("drills")
            if r["series"] == series
        )
        return tuple(sorted(found, key=lambda drill: drill.size))
    raise unknown("series", series, SERIES)


@functools.cache
def _named() -> Mapping[float, str]:
    """The name of each drill of a series by its size to the micron."""
    found: dict[float, str] = {}
    for series in SERIES:
        for drill in drills(series):
            found.setdefault(round(drill.size, 3), drill.name)
    return found


@functools.lru_cache(maxsize=1024)
def inch_drill(size: float) -> str:
    """The name of an inch drill by its size in mm: by its fraction, where it has one;
    empty where there is none, and for a metric one."""
    metric = abs(20 * size - round(20 * size)) < SAME  # they go by half tenths
    for series in INCH_SERIES:
        near = min(drills(series), key=lambda drill: abs(drill.size - size))
        off = abs(near.size - size)
        if off < SAME or (off < AS_DRILLED and not metric):
            return f"{near.name} in" if series == "fraction" else near.name
    return ""


@functools.lru_cache(maxsize=1024)
def drill_under(most: float, inch: bool = False) -> float:
    """The largest drill of the usual set that is not over a size, mm."""
    known = drills("fraction" if inch else "metric")
    below = [drill.size for drill in known if drill.size <= most + SAME]
    return below[-1] if below else most


def drill_over(least: float, inch: bool = False) -> float:
    """The smallest drill of the usual set that is not under a size, mm."""
    known = drills("fraction" if inch else "metric")
    above = (drill.size for drill in known if drill.size >= least - SAME)
    return next(above, least)


def drill_named(size: float) -> str:
    """A drill as one asks for it, its size in mm.

    >>> drill_named(6.8), drill_named(5.1054), drill_named(7.137)
    ('6.8 mm', '#7', '9/32 in')
    """
    return inch_drill(size) or f"{round(size, 3):g} mm"


def drills_of(words: Sequence[str]) -> tuple[Drill, ...]:
    """Drills of named series, or of a list of sizes with their units, rising."""
    found: dict[float, Drill] = {}
    for word in words:
        if word in SERIES:
            made: tuple[Drill, ...] = drills(word)
        else:
            size = quantity.parse(word, key="series", above=0, high=200)
            made = (Drill(_named().get(round(size, 3), f"{size:g} mm"), size),)
        for drill in made:
            found.setdefault(round(drill.size, 4), drill)
    return tuple(found[size] for size in sorted(found))


DRILLS_THERE = Input(
    "series",
    DRILLS,
    "drills there are: metric, number, letter, fraction or sizes",
    default=None,
    many=True,
)


def full_thread(thread: Thread) -> float:
    """The part of its diameter that a whole cut thread takes, mm."""
    return 2 * thread.form.engaged * thread.pitch


def insert_hole(thread: Thread) -> Thread:
    """The thread that is tapped for a coiled wire insert: of the screw's pitch, larger
    by the height of a whole thread on each side, so that the wire leaves the screw's.

    >>> round(insert_hole(thread_of("M6")).major, 3)
    7.299
    """
    return replace(thread, major=thread.major + full_thread(thread))


@reckoning(
    "tap-drill",
    group="Threads",
    title="Drill for a tap",
    usual={"thread": "M8"},
    inputs=(
        Input("thread", TEXT, "the thread, such as M8 or 5/16-18"),
        Input(
            "kind",
            TEXT,
            "of tap; insert: for a coiled wire insert",
            default="cut",
            choices=tuple(USUAL_ENGAGEMENT),
        ),
        Input(
            "engagement",
            PERCENT,
            "of full thread; else 75 % cut, all of a trapezoidal or Acme thread, 65 % "
            "formed, 76 % for an insert",
            default=None,
            above=0,
            high=100,
        ),
        DRILLS_THERE,
        Input("material", TEXT, "that is tapped", default=None),
    ),
    results=(
        Result("ideal", LENGTH, "the drill that would give just that"),
        Result("drill", TEXT, "the nearest there is"),
        Result("drill_size", LENGTH, "its size"),
        Result("engagement", PERCENT, "what that drill really gives"),
        Result("tap", LENGTH, "over the crests of the tap"),
        Result(
            "alternatives",
            TEXT,
            "the drills on either side",
            {"size": LENGTH, "engagement": PERCENT},
        ),
    ),
    sources=(
        "100 % of thread is 0.649519 P a side (60°), 0.640327 P (55°), 0.5 P (Tr and "
        "Acme: ISO 2904:1977, ASME B1.5-1997); "
        "forming taps by 0.68 P, a makers' rule; wire inserts: DIN 8140-2",
    ),
)
def _tap_drill(
    trail: Trail,
    thread: str,
    kind: str,
    engagement: float | None,
    series: tuple[str, ...] | None,
    material: str | None,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    if material is not None:
        _warn_of_the_metal(trail, material, kind)
    if kind == "insert":
        screw = sizes.major
        sizes = insert_hole(sizes)
        trail.step(
            "The insert's own thread",
            f"{screw:g} + {full_thread(sizes):.4f}",
            sizes.major,
        )
        trail.notes.append("It wants its own tap, of that size: not the screw's.")
    whole = sizes.form.flat and kind == "cut" and engagement is None
    if engagement is None:
        engagement = 100.0 if whole else USUAL_ENGAGEMENT[kind]
    elif engagement < 1:
        engagement *= 100
    full = FORMED * sizes.pitch if kind == "form" else full_thread(sizes)
    ideal = trail.step(
        "Ideal drill",
        f"{sizes.major:g} − {full:.4f} × {engagement:g} %",
        sizes.major - full * engagement / 100,
    )
    if series is None:
        series = ("number", "letter", "fraction") if sizes.inch else ("metric",)
    rack = drills_of(series)
    if not rack[0].size <= ideal + 0.5 or ideal > rack[-1].size + 0.5:
        raise BadInput(
            "series",
            f"No drill of the series is near {ideal:.2f} mm: it has "
            f"{rack[0].size:.2f} to {rack[-1].size:.2f} mm.",
        )
    # the larger when equally near, and none under a bore that is needed whole
    able = [i for i, d in enumerate(rack) if not whole or d.size > ideal - SAME]
    if not able:
        raise BadInput("series", f"No drill of the series opens {ideal:.2f} mm.")
    at = min(able, key=lambda i: (round(abs(rack[i].size - ideal), 6), -rack[i].size))

    def gives(drill: Drill) -> float:
        return (sizes.major - drill.size) / full * 100

    chosen = rack[at]
    real = trail.step(
        "It gives",
        f"({sizes.major:g} − {chosen.size:.4g}) / {full:.4f}",
        gives(chosen),
        PERCENT,
    )
    if sizes.form.flat:
        trail.notes.append(
            "All of its depth bears: the nut is bored to its standard's size, and not "
            "for three quarters of the thread."
        )
        if real < LEAST_BORNE:
            trail.cautions.append(f"Less than {LEAST_BORNE} % of its depth bears.")
    elif real > MOST:
        trail.cautions.append(
            f"More than {MOST} % of thread breaks taps in tough metal."
        )
    elif real < LEAST:
        trail.cautions.append(f"Less than {LEAST} % of thread strips early.")
    around = rack[max(at - 2, 0) : at] + rack[at + 1 : at + 3]
    # of a coarse rack the next ones may leave no thread, or more than there is room for
    around = tuple(drill for drill in around if 0 < gives(drill) <= 100)
    return {
        "ideal": ideal,
        "drill": chosen.name,
        "drill_size": chosen.size,
        "engagement": real,
        "tap": sizes.major,
        "alternatives": [
            {"drill": d.name, "size": d.size, "engagement": gives(d)} for d in around
        ],
    }


def _warn_of_the_metal(trail: Trail, name: str, kind: str) -> None:
    """Raises BadInput for a metal that is not known."""
    metal = material_of(name)
    if metal.hard:
        trail.cautions.append(f"No tap cuts {metal.name}: tap it before it is hard.")
    elif kind == "form" and not metal.form_tap:
        trail.cautions.append(
            f"A forming tap wants a metal that flows: in {metal.name} take one that "
            "cuts, with its own drill."
        )
