"""Change gears: trains from the wheels there are, exact ones first."""

import functools
from collections.abc import Sequence
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, INCH, LENGTH, NUMBER, PERCENT
from machinon.core.reckoning import PITCH, Input, Result, Trail, one_of, reckoning
from machinon.core.threads.thread_dial import exact

CLEAR = 15  # teeth by which a pair must overreach its neighbour; a rule of thumb
EXACT = 1e-9


class Train(Struct, frozen=True):
    """A train of wheels; pitch in mm."""

    drivers: tuple[int, ...]
    driven: tuple[int, ...]
    pitch: float
    error_percent: float
    mounts: bool  # by the usual sum rule


def mounts(
    drivers: Sequence[int], driven: Sequence[int]
) -> tuple[bool, tuple[int, int]]:
    """Whether some order of four wheels fits the banjo: (does it, order of driven).

    First driver and first driven must overreach the second driver, second
    driver and second driven the first driven, by `CLEAR` teeth.
    """
    a, c = drivers
    for b, d in ((driven[0], driven[1]), (driven[1], driven[0])):
        if a + b >= c + CLEAR and c + d >= b + CLEAR:
            return True, (b, d)
    return False, (driven[0], driven[1])


@functools.cache
def _pairs(count: int) -> tuple[Any, Any, Any]:
    """Every two of so many wheels, and which pairs share one; (n,), (n,), (n, n)."""
    import numpy as np

    first, second = np.triu_indices(count, 1)
    shared = (
        (first[:, None] == first)
        | (first[:, None] == second)
        | (second[:, None] == first)
        | (second[:, None] == second)
    )
    return first, second, shared


def trains(
    pitch: float, leadscrew: float, gears: Sequence[int], most: int
) -> list[Train]:
    """The best trains of two and four wheels, exact ones first.

    pitch, leadscrew: mm; gears: teeth of the wheels there are, each used once.
    Source: pitch = leadscrew × product of drivers / product of driven.
    """
    import numpy as np

    teeth = np.sort(np.asarray(gears, dtype=np.int64))
    count = len(teeth)
    wanted = pitch / leadscrew
    found: list[tuple[float, int, tuple[int, ...], tuple[int, ...]]] = []
    ratio = teeth[:, None] / teeth[None, :]
    off = np.abs(ratio / wanted - 1)
    np.fill_diagonal(off, np.inf)
    for at in np.argsort(off, axis=None, kind="stable")[: 4 * most]:
        i, j = divmod(int(at), count)
        if np.isfinite(off[i, j]):
            found.append((float(off[i, j]), 2, (int(teeth[i]),), (int(teeth[j]),)))
    if count >= 4:
        first, second, shared = _pairs(count)
        product = (teeth[first] * teeth[second]).astype(float)
        off = product[:, None] * (1 / (product * wanted))
        np.abs(np.subtract(off, 1, out=off), out=off)
        off[shared] = np.inf
        # many pairs have the same ratio: look far enough to fill the list, and at
        # every exact one, as not each of them can be mounted
        look = 6 * most + 30 + int((off < EXACT).sum())
        look = min(off.size - 1, look)
        near = np.argpartition(off, look, axis=None)[: look + 1]
        near = near[np.isfinite(off.flat[near])]
        over, under = np.divmod(near, len(product))
        chosen = (teeth[part[at]] for at in (over, under) for part in (first, second))
        for error, a, c, b, d in zip(
            off.flat[near].tolist(),
            *(column.tolist() for column in chosen),
            strict=True,
        ):
            found.append((error, 4, (a, c), (b, d)))
    out: list[Train] = []
    seen: set[tuple[tuple[int, ...], tuple[int, ...]]] = set()
    for error, size, drivers, driven in found:
        key = (tuple(sorted(drivers)), tuple(sorted(driven)))
        if key in seen:
            continue
        seen.add(key)
        fits, order = True, driven
        if size == 4:
            fits, order = mounts(drivers, driven)
        top, bottom = 1, 1
        for wheel in drivers:
            top *= wheel
        for wheel in driven:
            bottom *= wheel
        made = leadscrew * top / bottom
        percent = 0.0 if error < EXACT else (made / pitch - 1) * 100
        out.append(Train(drivers, order, made, percent, fits))
    out.sort(
        key=lambda train: (
            round(abs(train.error_percent), 9),
            not train.mounts,
            len(train.drivers),
            sum(train.drivers) + sum(train.driven),
            train.drivers,
        )
    )
    return out


@reckoning(
    "change-gears",
    group="Threads",
    title="Change gears for a pitch",
    usual={
        "tpi": 20,
        "leadscrew": 4,
        "gears": [20, 25, 30, 35, 40, 45, 50, 60, 65, 80, 100, 127],
    },
    usual_inch={"leadscrew": "8tpi"},
    given=(one_of("pitch", "tpi"),),
    inputs=(
        Input("pitch", PITCH, "pitch to cut", default=None, above=0, high=100),
        Input(
            "tpi", NUMBER, "threads per inch to cut", default=None, above=0, high=500
        ),
        Input("leadscrew", PITCH, "pitch of the lead screw, or 8tpi", above=0, high=50),
        Input(
            "gears", COUNT, "teeth of every wheel there is", low=8, high=300, many=True
        ),
        Input(
            "max_error", PERCENT, "most error allowed", default=None, low=0, high=100
        ),
        Input("most", COUNT, "trains to list", default=10, low=1, high=200),
    ),
    results=(
        Result(
            "trains",
            NUMBER,
            "drivers, driven, pitch and errors, exact ones first",
            {"pitch": LENGTH, "error_percent": PERCENT, "error_per_100mm": LENGTH},
        ),
    ),
    sources=("pitch = lead screw × drivers / driven; the sum rule is a rule of thumb",),
)
def _change_gears(
    trail: Trail,
    pitch: float | None,
    tpi: float | None,
    leadscrew: float,
    gears: tuple[int, ...],
    max_error: float | None,
    most: int,
) -> dict[str, Any]:
    if len(gears) < 2:
        raise BadInput("gears", "A train takes at least 2 wheels.")
    if len(gears) > 60:
        raise BadInput(
            "gears", f"{len(gears)} wheels are too many: up to 60 are allowed."
        )
    wanted = float(exact(pitch if pitch is not None else INCH / (tpi or 1)))
    screw = float(exact(leadscrew))
    found = trains(wanted, screw, gears, most)
    if max_error is not None:
        found = [train for train in found if abs(train.error_percent) <= max_error]
        if not found:
            trail.cautions.append(f"No train comes within {max_error:g} %.")
    chosen = found[:most]
    if chosen:
        best = chosen[0]
        trail.step(
            "Best train",
            f"{screw:g} × {' × '.join(map(str, best.drivers))} / "
            f"({' × '.join(map(str, best.driven))})",
            best.pitch,
        )
        if not best.mounts:
            trail.notes.append("By the sum rule the first cannot be mounted; try it.")
    trail.notes.append(
        f"A train mounts if each pair overreaches its neighbour by {CLEAR} teeth: a "
        "rule of thumb, the banjo decides."
    )
    return {
        "trains": [
            {
                "drivers": list(train.drivers),
                "driven": list(train.driven),
                "pitch": train.pitch,
                "error_percent": train.error_percent,
                # a share of the pitch is the same share of 100 mm
                "error_per_100mm": train.error_percent,
                "mounts": train.mounts,
            }
            for train in chosen
        ]
    }
