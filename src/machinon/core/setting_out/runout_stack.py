"""Run-out of a stack: worst, likely, and the best clocking of its pieces."""

import cmath
import itertools
import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import OBJECT, TEXT, Input, Result, Trail, reckoning

ASSEMBLIES = 1_000_000  # random assemblies that the likely values rest on
MOST_CLOCKINGS = 500_000
_KEYS = ("name", "eccentricity", "phase", "tilt", "overhang", "clockings")


class Element(Struct, frozen=True):
    """One piece of the stack. mm, degrees."""

    name: str
    eccentricity: float
    # where its high side stands, from its own mark; None where nobody knows
    phase: float | None = None
    tilt: float = 0.0  # of its seat
    overhang: float = 0.0  # length from the seat to where it counts
    clockings: int = 1  # positions it bolts in

    @property
    def amplitude(self) -> float:
        """Eccentricity where it counts, tilt and offset taken together."""
        return self.eccentricity + self.overhang * math.tan(math.radians(self.tilt))


def element_of(given: Mapping[str, Any], index: int) -> Element:
    """An element from an object's values. Raises BadInput on `elements`."""
    for key in given:
        if key not in _KEYS:
            raise BadInput(
                "elements", f"{key!r} is not known; an element has " + ", ".join(_KEYS)
            )

    def value(key: str, kind: Any, default: float | None, low: float) -> float:
        if given.get(key) is None and default is not None:
            return default
        asked = Input("elements", kind, key, low=low)
        try:
            return float(asked.read(given.get(key)))
        except BadInput as error:
            raise BadInput(
                "elements", f"{key} of element {index + 1}: {error.message}"
            ) from None

    clockings = value("clockings", LENGTH, 1.0, 1)
    if clockings != round(clockings) or clockings > 360:
        raise BadInput("elements", "clockings is a whole number from 1 to 360.")
    return Element(
        str(given.get("name") or f"piece {index + 1}"),
        value("eccentricity", LENGTH, None, 0),
        None if given.get("phase") is None else value("phase", ANGLE, None, -3600),
        value("tilt", ANGLE, 0.0, 0),
        value("overhang", LENGTH, 0.0, 0),
        int(clockings),
    )


def together(amplitudes: Sequence[float]) -> tuple[float, float]:
    """Eccentricity of pieces on each other, mm: all high sides in line, and the root
    mean square over all ways that they may stand.

    >>> together([0.003, 0.004])
    (0.007, 0.005)
    """
    return sum(amplitudes), math.hypot(*amplitudes)


def likely(amplitudes: Sequence[float], count: int = ASSEMBLIES) -> tuple[float, float]:
    """Mean and 95th percentile of the eccentricity over random phases, mm.

    Always the same answer for the same pieces: the draw is seeded.
    """
    import numpy as np

    if len(amplitudes) == 1:
        return amplitudes[0], amplitudes[0]
    draw = np.random.default_rng(1)
    # phases in 1/65536 of a turn: finer than any reading, and a table look-up
    turn = np.linspace(0, 2 * np.pi, 65536, endpoint=False)
    x = np.full(count, amplitudes[0], dtype=np.float32)  # the first one sets zero
    y = np.zeros(count, dtype=np.float32)
    for amplitude in amplitudes[1:]:
        phase = draw.integers(0, 65536, count, dtype=np.uint16)
        x += (amplitude * np.cos(turn)).astype(np.float32)[phase]
        y += (amplitude * np.sin(turn)).astype(np.float32)[phase]
    size = np.sqrt(x * x + y * y)
    at = int(0.95 * count)
    return float(size.mean(dtype=np.float64)), float(np.partition(size, at)[at])


class Clocking(Struct, frozen=True):
    """How to turn the pieces against each other for the least eccentricity."""

    positions: tuple[int, ...]  # of each piece on the one it sits on, counted from 0
    turned: tuple[float, ...]  # the same in degrees
    left: float  # the eccentricity that remains, mm


def best_clocking(elements: Sequence[Element]) -> Clocking:
    """The bolt positions that leave the least eccentricity.

    The first piece stays. A piece turns with the one that it sits on, so turning
    one turns all beyond it. One without a known phase is taken as free to turn to
    wherever is best: that is how good a search by trial can become.
    Raises BadInput on `elements` for too many ways to try.
    """
    counts = [
        1 if i == 0 or element.phase is None else element.clockings
        for i, element in enumerate(elements)
    ]
    if math.prod(counts) > MOST_CLOCKINGS:
        raise BadInput(
            "elements",
            f"{math.prod(counts)} ways to clock them are too many: up to "
            f"{MOST_CLOCKINGS} are tried.",
        )
    free = [element.amplitude for element in elements if element.phase is None]
    best, known, least = (0,) * len(counts), 0j, math.inf
    for way in itertools.product(*(range(count) for count in counts)):
        total = sum(_vectors(elements, way), 0j)
        left = _closed(abs(total), free)
        if left < least - 1e-12:
            best, known, least = way, total, left
    return Clocking(best, _turned(elements, best, known, free), least)


def _vectors(elements: Sequence[Element], way: Sequence[int]) -> Iterator[complex]:
    """The offsets of the pieces whose phase is known, each as it then stands."""
    turned = 0.0
    for element, position in zip(elements, way, strict=True):
        turned += 360 * position / element.clockings
        if element.phase is not None:
            yield cmath.rect(element.amplitude, math.radians(element.phase + turned))


def _closed(fixed: float, free: Sequence[float]) -> float:
    """The least sum of a vector and others of any direction."""
    longest = max([fixed, *free])
    return max(2 * longest - fixed - sum(free), 0.0)


def _turned(
    elements: Sequence[Element], way: Sequence[int], known: complex, free: list[float]
) -> tuple[float, ...]:
    """The turn of each piece; a free one from its high side at 0°, degrees."""
    aims = iter(_directions(known, free))
    turned = []
    for element, position in zip(elements, way, strict=True):
        if element.phase is None:
            turned.append(math.degrees(next(aims)) % 360)
        else:
            turned.append(360 * position / element.clockings)
    return tuple(turned)


def _directions(known: complex, free: Sequence[float]) -> list[float]:
    """Directions of free vectors that close on a known one best, radians.

    The vectors are gathered into three, the longest alone, which then make a
    triangle; where the longest is longer than all others they stand against it.
    """
    sizes = [abs(known), *free]
    order = sorted(range(len(sizes)), key=lambda i: -sizes[i])
    groups: list[list[int]] = [[order[0]], [], []]
    lengths = [sizes[order[0]], 0.0, 0.0]
    for i in order[1:]:
        to = 1 if lengths[1] <= lengths[2] else 2
        groups[to].append(i)
        lengths[to] += sizes[i]
    a, b, c = lengths
    if a >= b + c or not b or not c:
        bends = (math.pi, math.pi)
    else:
        # outside angles of the triangle a, b, c
        bends = (
            math.pi - math.acos((a * a + b * b - c * c) / (2 * a * b)),
            math.pi + math.acos((a * a + c * c - b * b) / (2 * a * c)),
        )
    aims = [0.0] * len(sizes)
    for group, bend in zip(groups, (0.0, *bends), strict=True):
        for i in group:
            aims[i] = bend
    # all turned so that the known one lies where it does
    start = cmath.phase(known) - aims[0] if abs(known) else -aims[1]
    return [aim + start for aim in aims[1:]]


@reckoning(
    "runout-stack",
    group="Measuring over and across",
    title="Run-out of a stack of pieces: worst, likely, best clocked",
    usual={
        "elements": [
            {"name": "nose", "eccentricity": 0.004, "phase": 20},
            {"name": "plate", "eccentricity": 0.01, "phase": 100, "clockings": 1},
            {"name": "chuck", "eccentricity": 0.012, "clockings": 3},
        ]
    },
    inputs=(
        Input(
            "elements",
            OBJECT,
            "name, eccentricity, [phase], [tilt], [overhang], [clockings]",
            many=True,
            columns=(
                ("name", TEXT),
                ("eccentricity", LENGTH),
                ("phase", ANGLE),
                ("tilt", ANGLE),
                ("overhang", LENGTH),
                ("clockings", COUNT),
            ),
        ),
    ),
    results=(
        Result(
            "best_clocking",
            TEXT,
            "position of each piece on the one it sits on, and how far that turns it",
            {"angle": ANGLE, "position": COUNT},
        ),
        *(
            Result(key + end, LENGTH, words + (" on the indicator" if end else ""))
            for key, words in (
                ("worst", "all high sides in line"),
                ("rss", "root of the sum of squares"),
                ("mean", "mean over random clockings"),
                ("percentile_95", "19 assemblies of 20 are better"),
                ("best", "turned against each other as well as can be"),
                ("best_value", "the same as best"),
            )
            for end in ("", "_tir")
        ),
    ),
    sources=("vector sum of the offsets; a million seeded random assemblies",),
)
def _runout_stack(trail: Trail, elements: tuple[Any, ...]) -> dict[str, Any]:
    pieces = [element_of(element, i) for i, element in enumerate(elements)]
    sizes = [element.amplitude for element in pieces]
    worst, rss = together(sizes)
    trail.step("Worst", " + ".join(f"{size:.4g}" for size in sizes), worst)
    trail.step(
        "Root of the squares",
        "√(" + " + ".join(f"{size:.4g}²" for size in sizes) + ")",
        rss,
    )
    mean, most = likely(sizes)
    trail.step("Mean", f"over {ASSEMBLIES} random assemblies", mean)
    best = best_clocking(pieces)
    trail.step(
        "Best clocked",
        "least vector sum, each piece turning all that it carries",
        best.left,
    )
    if any(element.phase is None for element in pieces):
        trail.notes.append(
            "Where a high side is not known, the best is what turning that piece by "
            "trial can reach: mark each high side and the positions can be named."
        )
    results: dict[str, Any] = {}
    for key, value in (
        ("worst", worst),
        ("rss", rss),
        ("mean", mean),
        ("percentile_95", most),
        ("best", best.left),
        ("best_value", best.left),
    ):
        results[key] = value
        results[f"{key}_tir"] = 2 * value
    results["best_clocking"] = [
        {
            "name": element.name,
            "position": position if element.phase is not None else None,
            "angle": turned,
        }
        for element, position, turned in zip(
            pieces, best.positions, best.turned, strict=True
        )
    ]
    return results
