"""A read-out's figures as they are counted here: zero, preset and half are ours.

Nothing is sent to the device: what it counts from stays as it is.
"""

from collections.abc import Mapping
from dataclasses import dataclass, field

JUMP = 60.0  # mm in an instant: no slide goes as fast
IN = 1.0  # seconds within which that is an instant


@dataclass(slots=True)
class Mirror:
    """The axes of a read-out as they were last heard, and what each is counted from."""

    raw: dict[str, float] = field(default_factory=dict)
    # by axis, what the device shows where ours shows nothing
    zero: dict[str, float] = field(default_factory=dict)
    # seconds of the clock when each was heard last
    at: dict[str, float] = field(default_factory=dict)
    # axes that went further than any slide can
    jumped: set[str] = field(default_factory=set)

    def hear(self, values: Mapping[str, float], at: float) -> None:
        """Figures from the device, mm."""
        for axis, value in values.items():
            before, when = self.raw.get(axis), self.at.get(axis, at)
            if before is not None and at - when < IN and abs(value - before) > JUMP:
                self.jumped.add(axis)
            self.raw[axis], self.at[axis] = value, at

    @property
    def shown(self) -> dict[str, float]:
        """The figure of each axis here, mm."""
        return {axis: raw - self.zero.get(axis, 0.0) for axis, raw in self.raw.items()}

    def set_to(self, axis: str, value: float) -> None:
        """Let an axis show a value where it stands; nothing for one never heard."""
        if axis in self.raw:
            self.zero[axis] = self.raw[axis] - value
            self.jumped.discard(axis)

    def halve(self, axis: str) -> None:
        """Half of what it shows: the middle between where it was zero and here."""
        if axis in self.raw:
            self.set_to(axis, self.shown[axis] / 2)

    def trust(self) -> None:
        """Trusts a jump of the figures, which somebody looked at."""
        self.jumped.clear()
