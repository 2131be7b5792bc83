"""Run-out: readings round a turn resolved into offset, out-of-round and rest."""

import math
from collections.abc import Sequence
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, DIRECTION, LENGTH
from machinon.core.reckoning import Answer, Input, Result, Trail, reckoning

OVAL = 5  # readings that an oval needs: it and the offset have two figures each


class Runout(Struct, frozen=True):
    """A run-out resolved; lengths in mm, phase in degrees."""

    tir: float
    eccentricity: float  # offset of the centre
    phase: float  # where the first harmonic is highest
    ovality: float  # largest less smallest diameter from the second harmonic
    lobes: int  # the strongest harmonic above the first (0: none stands out)
    noise: float  # root mean square of what both harmonics leave
    mean: float
    second: tuple[float, float]

    def at(self, angle: float) -> float:
        """The fitted curve (offset and oval) at an angle, mm."""
        a = math.radians(angle)
        return (
            self.mean
            + self.eccentricity * math.cos(a - math.radians(self.phase))
            + self.second[0] * math.cos(2 * a)
            + self.second[1] * math.sin(2 * a)
        )


def tells_oval(answer: Answer) -> bool:
    """Whether a run-out was read in so many places that an oval would show."""
    return len(answer.inputs["readings"]) >= OVAL


def resolve(readings: Sequence[float], angles: Sequence[float] | None = None) -> Runout:
    """Fit offset and oval to indicator readings round one turn.

    readings: (n,), mm, high = surface towards the indicator; angles: (n,),
    degrees, equally spaced from 0 when not given. At least 3 readings; the
    oval needs `OVAL`. Raises BadInput on `readings` or `angles`.
    Source: least squares on the first two harmonics (Fourier).
    """
    import numpy as np

    count = len(readings)
    if count < 3:
        raise BadInput(
            "readings",
            "Take at least 3 readings round the turn; 8 show an oval as well.",
        )
    if angles is None:
        angles = [360 * i / count for i in range(count)]
    elif len(angles) != count:
        raise BadInput(
            "angles", f"{len(angles)} angles for {count} readings: give one for each."
        )
    values = np.asarray(readings, dtype=float)
    turn = np.radians(np.asarray(angles, dtype=float))
    columns = [np.ones(count), np.cos(turn), np.sin(turn)]
    if count >= OVAL:
        columns += [np.cos(2 * turn), np.sin(2 * turn)]
    matrix = np.column_stack(columns)
    if np.linalg.matrix_rank(matrix) < matrix.shape[1]:
        raise BadInput(
            "angles",
            "The angles do not go round: spread them over the whole turn, each once.",
        )
    fitted, *_ = np.linalg.lstsq(matrix, values, rcond=None)
    rest = values - matrix @ fitted
    second = (float(fitted[3]), float(fitted[4])) if count >= OVAL else (0.0, 0.0)
    first = math.hypot(fitted[1], fitted[2])
    phase = math.degrees(math.atan2(fitted[2], fitted[1])) % 360
    # each harmonic by itself, for equally spaced readings only a description
    lobes, strongest = 0, 0.0
    for order in range(2, (count - 1) // 2 + 1):
        size = 2 / count * abs(np.sum(values * np.exp(-1j * order * turn)))
        if size > strongest + 1e-12:
            lobes, strongest = order, float(size)
    if strongest < 1e-9:
        lobes = 0
    return Runout(
        float(values.max() - values.min()),
        first,
        phase if first > 1e-12 else 0.0,
        4 * math.hypot(*second),
        lobes,
        float(np.sqrt(np.mean(rest**2))),
        float(fitted[0]),
        second,
    )


# readings round a turn: what run-out and centring both start from
TURN_INPUTS = (
    Input("readings", LENGTH, "indicator readings round one turn", many=True),
    Input(
        "angles",
        ANGLE,
        "their angles, equally spaced if left out",
        default=None,
        many=True,
    ),
)


@reckoning(
    "runout",
    group="Setting up",
    title="Run-out resolved into offset and out-of-round",
    usual={"readings": [0.012, 0.02, 0.016, 0.004, -0.008, -0.012, -0.006, 0.004]},
    inputs=TURN_INPUTS,
    results=(
        Result("tir", LENGTH, "largest less smallest reading"),
        Result("eccentricity", LENGTH, "offset of the centre"),
        Result("phase", DIRECTION, "angle of the high side"),
        Result("ovality", LENGTH, "largest less smallest diameter"),
        Result("lobes", COUNT, "lobes that stand out"),
        Result("noise", LENGTH, "what is left (root mean square)"),
    ),
    sources=("least squares on the first two harmonics of the turn",),
)
def _runout(
    trail: Trail, readings: tuple[float, ...], angles: tuple[float, ...] | None
) -> dict[str, Any]:
    found = resolve(readings, angles)
    trail.step(
        "Full indicator movement",
        f"{max(readings):.4f} − {min(readings):.4f}",
        found.tir,
    )
    trail.step(
        "Offset of the centre", "amplitude of the first harmonic", found.eccentricity
    )
    trail.step("Out of round", "4 × amplitude of the second harmonic", found.ovality)
    if len(readings) < OVAL:
        trail.notes.append(
            f"Fewer than {OVAL} readings cannot tell an oval from an offset."
        )
    return {
        "tir": found.tir,
        "eccentricity": found.eccentricity,
        "phase": found.phase,
        "ovality": found.ovality,
        "lobes": found.lobes,
        "noise": found.noise,
    }
