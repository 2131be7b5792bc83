"""A figure that is set or read at the machine."""

from msgspec import Struct

from machinon.core.quantity import LENGTH, Kind


class Shown(Struct, frozen=True):
    """A figure that is set or read at the machine; a word where it is no size."""

    name: str
    value: float | str
    kind: Kind = LENGTH
    step: float = 0.01  # as fine as it is said, mm
