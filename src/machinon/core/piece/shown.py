"""A figure that is set or read at the machine."""

from msgspec import Struct

from machinon.core.piece.round_sizes import downwards, upwards
from machinon.core.quantity import LENGTH, Kind, length_range

WIDE = 0.1  # mm: limits further apart are told to a hundredth


class Shown(Struct, frozen=True):
    """A figure that is set or read at the machine; a word where it is no size."""

    name: str
    value: float | str
    kind: Kind = LENGTH
    step: float = 0.01  # as fine as it is said, mm


def fineness(low: float, high: float) -> float:
    """How fine limits are told, mm."""
    return 0.001 if high - low < WIDE else 0.01


def limits_said(low: float, high: float, inch: bool = False) -> str:
    """Limits in words, as fine as they are told."""
    return length_range(low, high, fineness(low, high), inch)


def as_told(low: float, high: float) -> tuple[float, float]:
    """Limits as they stand on the drawing: no wider, and no finer than they are apart.

    >>> as_told(63.5005, 63.51175), as_told(19.506, 20.001)
    ((63.501, 63.511), (19.51, 20.0))
    """
    step = fineness(low, high)
    return round(upwards(low, step), 3), round(downwards(high, step), 3)


def from_to(name: str, low: float, high: float) -> tuple[Shown, Shown]:
    """What a size may be from and to, mm."""
    step = fineness(low, high)
    return Shown(f"{name} from", low, step=step), Shown(f"{name} to", high, step=step)
