"""Screws: their clearance holes, heads, counterbores and engagement."""

import functools
import math
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import FORCE, INCH, LENGTH, NUMBER, STRESS
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckon, reckoning
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import (
    Thread,
    known_threads,
    metric_thread,
    thread_of,
)

HEADS = ("cap", "button", "countersunk", "hex", "set")
FITS = ("close", "normal", "loose")


class CapScrew(Struct, frozen=True):
    """A socket cap screw and its holes; mm."""

    size: str
    diameter: float
    pitch: float
    close: float
    normal: float
    loose: float
    head_diameter: float
    head_height: float
    key: float
    counterbore: float
    counterbore_depth: float

    @property
    def tapping_drill(self) -> float:
        """The drill there is for three quarters of its thread, mm."""
        return float(reckon("tap-drill", {"thread": self.size})["drill_size"])


class ClearanceHole(Struct, frozen=True):
    """Clearance holes of a screw; mm."""

    close: float
    normal: float
    loose: float
    source: str


class Head(Struct, frozen=True):
    """A screw's head, its key and its counterbore; mm."""

    head_diameter: float
    head_height: float
    key_size: float
    counterbore_diameter: float
    counterbore_depth: float
    source: str


def _sizes(row: dict[str, str], *keys: str) -> tuple[float, ...]:
    """Columns of a row in its own unit, as mm."""
    unit = INCH if row["unit"] == "in" else 1.0
    return tuple(float(row[key]) * unit for key in keys)


@functools.cache
def _holes() -> Mapping[str, ClearanceHole]:
    table = {}
    for r in rows("clearance_holes"):
        close, normal, loose = _sizes(r, *FITS)
        table[r["size"]] = ClearanceHole(close, normal, loose, r["source"])
    return table


@functools.cache
def clearance_holes() -> Mapping[Thread, ClearanceHole]:
    """The holes for screws, by the coarse thread of their size."""
    # of the smallest inch size there is only a fine one
    threads = sorted(
        known_threads().values(), key=lambda thread: thread.series == "UNF"
    )
    table: dict[Thread, ClearanceHole] = {}
    for size, hole in _holes().items():
        for thread in threads:
            coarse = thread.series == "coarse" and thread.name == size
            unified = thread.series in ("UNC", "UNF") and thread.name.startswith(
                f"{size}-"
            )
            if coarse or unified:
                table[thread] = hole
                break
    return table


@functools.cache
def _heads() -> Mapping[tuple[str, str], Head]:
    table = {}
    for r in rows("screw_heads"):
        wide, high, key, bore, depth = _sizes(
            r, "head_diameter", "head_height", "key", "counterbore", "counterbore_depth"
        )
        table[r["size"], r["head"]] = Head(wide, high, key, bore, depth, r["source"])
    return table


_TINY = ("M1.6", "M2", "M2.5", "#0", "#1", "#2", "#3", "#4")


@functools.cache
def cap_screws() -> Mapping[str, CapScrew]:
    """The cap screws kept here, 3 mm and up, by the name of their coarse thread."""
    table = {}
    for size, kind in _heads():
        metric = size.startswith("M")
        if kind == "cap" and size not in _TINY:
            thread = metric_thread(size) if metric else thread_of(f"{size} UNC")
            name = size if metric else thread.name
            table[name] = _cap_of(name, size, thread)
    return table


def _cap_of(name: str, size: str, thread: Thread) -> CapScrew:
    """The cap screw of a size in the tables, with that thread."""
    head, hole = _heads()[size, "cap"], _holes()[size]
    return CapScrew(
        name,
        thread.major,
        thread.pitch,
        hole.close,
        hole.normal,
        hole.loose,
        head.head_diameter,
        head.head_height,
        head.key_size,
        head.counterbore_diameter,
        head.counterbore_depth,
    )


def _finer(typed: str) -> CapScrew | None:
    """A cap screw of another thread than the coarse one of its size, or a tiny one:
    10-32, M10x1.25, M2.5; None where such are not sold."""
    try:
        thread = thread_of(typed)
    except BadInput:
        return None
    if thread.left or thread.starts > 1:
        return None
    size = size_of(thread)
    if size in cap_screws() and cap_screws()[size].pitch == thread.pitch:
        return cap_screws()[size]  # M10x1.5
    listed = ((t.major, t.pitch) for t in known_threads().values())
    sold = thread.form_name in ("metric", "unified") and (size, "cap") in _heads()
    if not sold or (thread.major, thread.pitch) not in listed:
        return None
    coarse = thread.form_name == "metric" and metric_thread(size).pitch == thread.pitch
    return _cap_of(size if coarse else thread.name, size, thread)


def cap_screw(size: str, key: str = "thread") -> CapScrew:
    """A cap screw by its thread, such as `M8` or `1/4-20`. Raises BadInput on `key`.

    >>> cap_screw("5/16-18").size, cap_screw("10-32").size, cap_screw("M8x1").pitch
    ('5/16-18 UNC', '#10-32 UNF', 1.0)
    """
    known = cap_screws()
    bare = re.fullmatch(r"#?[\d/ ]+", size.strip())
    typed = thread_of(f"{size} UNC", key).name if bare else size
    found = known.get(typed) or known.get(typed.strip().upper()) or _finer(typed)
    if found is None:
        raise unknown(key, size, known)
    return found


LOOSE = 0.15  # mm: how much less usual a loose hole is than a close or a normal one
WORN = 0.1  # mm: how much thinner than its name a screw measures, or wider a thread
NEAR = 0.4  # mm: what is farther off belongs to none of the screws


@functools.cache
def screw_by(measured: float, tapped: bool = False, inch: bool = False) -> str:
    """The cap screw that a measured hole is for, mm; empty where none is near.

    tapped: the thread is in it, and it or the screw in it was measured; else it was
    drilled to pass the screw. inch: an inch one where both kinds would do, else a
    metric one. A shop rule.

    >>> screw_by(9.0), screw_by(7.9, tapped=True), screw_by(6.5, inch=True)
    ('M8', 'M8', '1/4-20 UNC')
    """

    def off(screw: CapScrew) -> float:
        if tapped:
            minor = thread_of(screw.size).minor_internal
            return min(
                abs(screw.diameter - WORN - measured), abs(minor + WORN - measured)
            )
        return min(
            abs(screw.close - measured),
            abs(screw.normal - measured),
            abs(screw.loose - measured) + LOOSE,
        )

    for inches in (inch, not inch):
        screws = [s for s in cap_screws().values() if s.size.startswith("M") != inches]
        nearest = min(screws, key=off)
        if off(nearest) <= NEAR:
            return nearest.size
    return ""


def stock_lengths(thread: Thread, set_screw: bool = False) -> tuple[float, ...]:
    """Lengths that screws of a thread are usually sold in, rising; mm."""
    kind, unit = "set" if set_screw else "head", "in" if thread.inch else "mm"
    factor = INCH if thread.inch else 1.0
    return tuple(
        float(r["length"]) * factor
        for r in rows("screw_lengths")
        if (r["kind"], r["unit"]) == (kind, unit)
    )


def size_of(thread: Thread) -> str:
    """The size by which the tables of holes and heads know a thread."""
    if thread.form_name == "metric":
        return f"M{thread.major:g}"
    if thread.form_name in ("unified", "whitworth"):
        return thread.name.rsplit("-", 1)[0].removesuffix(f" {thread.series}").strip()
    return thread.name


def _between(thread: Thread) -> ClearanceHole:
    """Holes for a screw without a table, by the room of metric ones next to it.

    Raises BadInput on `thread` for one larger or smaller than those.
    """
    known = sorted(
        (float(size[1:]), hole)
        for size, hole in _holes().items()
        if size.startswith("M")
    )
    below = [pair for pair in known if pair[0] <= thread.major]
    above = [pair for pair in known if pair[0] >= thread.major]
    if not below or not above:
        raise unknown("thread", thread.name, _holes())
    (low, small), (high, large) = below[-1], above[0]
    share = (thread.major - low) / (high - low) if high > low else 0.0

    def room(fit: str) -> float:
        here = getattr(small, fit) - low
        there = getattr(large, fit) - high
        return float(round(thread.major + here + share * (there - here), 1))

    return ClearanceHole(
        room("close"),
        room("normal"),
        room("loose"),
        "by the room of ISO 273; a shop rule",
    )


@reckoning(
    "clearance-hole",
    group="Threads",
    title="Clearance hole for a screw",
    usual={"thread": "M8"},
    inputs=(
        Input("thread", TEXT, "the screw, such as M8 or 1/4-20"),
        Input("fit", TEXT, "how free the screw is", default="normal", choices=FITS),
    ),
    results=(
        Result("diameter", LENGTH, "diameter of the hole"),
        Result("source", TEXT, "the standard"),
    ),
    sources=("ISO 273:1979 (metric); ASME B18.2.8-1999 (inch)",),
)
def _clearance_hole(trail: Trail, thread: str, fit: str) -> dict[str, Any]:
    sizes = thread_of(thread)
    size = size_of(sizes)
    hole = _holes().get(size)
    if hole is None:
        hole = _between(sizes)
        trail.notes.append(
            f"{sizes.name} has no table: as much room as a metric screw of its size."
        )
    diameter: float = getattr(hole, fit)
    trail.step("Clearance hole", f"{size}, {fit} series", diameter)
    return {"diameter": diameter, "source": hole.source}


@reckoning(
    "cap-screw",
    group="Threads",
    title="Head, key and counterbore of a screw",
    usual={"thread": "M8"},
    inputs=(
        Input("thread", TEXT, "the screw, such as M8 or 1/4-20"),
        Input("head", TEXT, "kind of head", default="cap", choices=HEADS),
    ),
    results=(
        Result("head_diameter", LENGTH, "largest; across corners of a hexagon"),
        Result("head_height", LENGTH, "height of the head"),
        Result("counterbore_diameter", LENGTH, "of the counterbore or countersink"),
        Result("counterbore_depth", LENGTH, "so that the head lies under"),
        Result("key_size", LENGTH, "across the flats of the key or hexagon"),
    ),
    sources=("the head's own standard, named in the answer",),
)
def _cap_screw(trail: Trail, thread: str, head: str) -> dict[str, Any]:
    screw = thread_of(thread)
    if head == "hex" and screw.form_name == "whitworth":
        raise BadInput(
            "thread",
            f"The hexagon of {screw.name} is not kept here, and is another than "
            "that of a unified screw as thick: measure it.",
        )
    size = size_of(screw)
    found = _heads().get((size, head))
    if found is None:
        sizes = [known for known, kind in _heads() if kind == head]
        raise BadInput(
            "thread", f"{size} with a {head} head is not kept here: {', '.join(sizes)}."
        )
    trail.source(found.source)
    trail.step("Head", f"{size}, {head}", found.head_diameter)
    return {
        "head_diameter": found.head_diameter,
        "head_height": found.head_height,
        "counterbore_diameter": found.counterbore_diameter,
        "counterbore_depth": found.counterbore_depth,
        "key_size": found.key_size,
    }


SHEAR = 0.5  # of the tensile strength: the standard's assumption


@reckoning(
    "thread-engagement",
    group="Threads",
    title="Engagement so that the screw breaks before a thread strips",
    usual={"thread": "M8", "screw_strength": 800, "nut_strength": 220},
    inputs=(
        Input("thread", TEXT, "the screw, such as M8 or 1/4-20"),
        Input("screw_strength", STRESS, "tensile strength of the screw", above=0),
        Input("nut_strength", STRESS, "tensile strength of the nut's metal", above=0),
        Input(
            "preload",
            FORCE,
            "to carry; else the screw's own strength",
            default=None,
            above=0,
        ),
    ),
    results=(
        Result("minimum_length", LENGTH, "least engaged length"),
        Result("turns", NUMBER, "the same in threads"),
        Result("strips_first", TEXT, "nut or screw"),
    ),
    sources=("FED-STD-H28/2B: shear areas of the basic profile, shear = tensile / 2",),
)
def _engagement(
    trail: Trail,
    thread: str,
    screw_strength: float,
    nut_strength: float,
    preload: float | None,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    half = math.tan(math.radians(sizes.form.angle / 2))
    area = sizes.stress_area
    load = preload
    if load is None:
        load = trail.step(
            "Screw breaks at",
            f"{area:.4g} × {screw_strength:g}",
            area * screw_strength,
            FORCE,
        )
    # sheared area for each millimetre of length
    nut_area = (
        math.pi
        * sizes.major
        / sizes.pitch
        * (sizes.pitch / 2 + half * (sizes.major - sizes.pitch_diameter))
    )
    screw_area = (
        math.pi
        * sizes.minor_internal
        / sizes.pitch
        * (sizes.pitch / 2 + half * (sizes.pitch_diameter - sizes.minor_internal))
    )
    nut = trail.step(
        "Nut strips below",
        f"{load:.5g} / ({SHEAR} × {nut_strength:g} × {nut_area:.4g})",
        load / (SHEAR * nut_strength * nut_area),
    )
    screw = trail.step(
        "Screw's thread strips below",
        f"{load:.5g} / ({SHEAR} × {screw_strength:g} × {screw_area:.4g})",
        load / (SHEAR * screw_strength * screw_area),
    )
    least = max(nut, screw)
    trail.notes.append("Add a thread for the chamfer and one for doubt.")
    return {
        "minimum_length": least,
        "turns": least / sizes.pitch,
        "strips_first": "nut" if nut >= screw else "screw",
    }
