"""A figure that is set or read at the machine."""

from msgspec import Struct

from machinon.core.quantity import LENGTH, Kind

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


def from_to(name: str, low: float, high: float) -> tuple[Shown, Shown]:
    """What a size may be from and to, mm."""
    step = fineness(low, high)
    return Shown(f"{name} from", low, step=step), Shown(f"{name} to", high, step=step)
