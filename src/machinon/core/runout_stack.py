"""Run-out of a stack: worst, likely, and the best clocking of its pieces."""

import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import OBJECT, TEXT, Input, Result, Trail, reckoning

ASSEMBLIES = 1_000_000  # random assemblies that the likely values rest on
MOST_CLOCKINGS = 500_000
_KEYS = ("name", "eccentricity", "phase", "tilt", "overhang", "clockings")


@dataclass(frozen=True, slots=True)
class Element:
    """One piece of the stack. mm, degrees; clockings: positions it bolts in.

    tilt: of its seat; overhang: length from the seat to where it counts.
    """

    name: str
    eccentricity: float
    phase: float = 0.0
    tilt: float = 0.0
    overhang: float = 0.0
    clockings: int = 1

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
        one = Input("elements", kind, key, low=low)
        try:
            return float(one.read(given.get(key)))
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
        value("phase", ANGLE, 0.0, -3600),
        value("tilt", ANGLE, 0.0, 0),
        value("overhang", LENGTH, 0.0, 0),
        int(clockings),
    )


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


def best_clocking(elements: Sequence[Element]) -> tuple[tuple[int, ...], float]:
    """The bolt positions with the least eccentricity, and that eccentricity, mm.

    The first piece stays: only turning against each other counts. Positions
    are counted from 0. Raises BadInput on `elements` for too many to try.
    """
    counts = [one.clockings for one in elements]
    counts[0] = 1
    if math.prod(counts) > MOST_CLOCKINGS:
        raise BadInput(
            "elements",
            f"{math.prod(counts)} ways to clock them are too many: up to "
            f"{MOST_CLOCKINGS} are tried.",
        )
    vectors = []
    for one, count in zip(elements, counts, strict=True):
        angles = [
            math.radians(one.phase + 360 * k / one.clockings) for k in range(count)
        ]
        vectors.append(
            [complex(math.cos(a), math.sin(a)) * one.amplitude for a in angles]
        )
    best, value = (0,) * len(counts), math.inf
    for way in itertools.product(*(range(count) for count in counts)):
        total = abs(sum(v[k] for v, k in zip(vectors, way, strict=True)))
        if total < value - 1e-12:
            best, value = way, total
    return best, value


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
        ),
    ),
    results=(
        Result("best_clocking", TEXT, "position of each piece, its angle"),
        *(
            Result(key + end, LENGTH, words + (" on the needle" if end else ""))
            for key, words in (
                ("worst", "all high sides in line"),
                ("rss", "root of the sum of squares"),
                ("mean", "mean over random clockings"),
                ("percentile_95", "19 assemblies of 20 are better"),
                ("best_value", "clocked as best as the bolts allow"),
            )
            for end in ("", "_tir")
        ),
    ),
    sources=("vector sum of the offsets; a million seeded random assemblies",),
)
def _runout_stack(trail: Trail, elements: tuple[Any, ...]) -> dict[str, Any]:
    pieces = [element_of(one, i) for i, one in enumerate(elements)]
    sizes = [one.amplitude for one in pieces]
    worst = trail.step("Worst", " + ".join(f"{one:.4g}" for one in sizes), sum(sizes))
    rss = trail.step(
        "Root of the squares",
        "√(" + " + ".join(f"{one:.4g}²" for one in sizes) + ")",
        math.hypot(*sizes),
    )
    mean, most = likely(sizes)
    trail.step("Mean", f"over {ASSEMBLIES} random assemblies", mean)
    way, best = best_clocking(pieces)
    trail.step("Best clocked", "least vector sum over the bolt positions", best)
    results: dict[str, Any] = {}
    for key, value in (
        ("worst", worst),
        ("rss", rss),
        ("mean", mean),
        ("percentile_95", most),
        ("best_value", best),
    ):
        results[key] = value
        results[f"{key}_tir"] = 2 * value
    results["best_clocking"] = [
        {"name": one.name, "position": k, "angle": 360 * k / one.clockings}
        for one, k in zip(pieces, way, strict=True)
    ]
    return results
