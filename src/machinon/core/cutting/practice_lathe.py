"""A lathe that behaves like a bad one: the coach is tuned on it.

Lengths on the dial are radial mm from touch, positive into the metal; sizes are mm on
the diameter.
"""

import random
from dataclasses import dataclass, field
from typing import Literal

from machinon.core.materials import material

MISREAD = 0.01  # of readings are slips of the hand or eye
WARM = 0.7  # degrees, one sigma, that work is warmer than anybody felt
EXPANSION = material("steel").expansion  # for each degree


@dataclass(frozen=True, slots=True)
class Habits:
    """What this lathe, bar, tool and gauge really do; nobody at it knows them.

    compliance: how much of what stands before the tool springs away, over what is
    taken; push_off: what a keen or dull edge pushes off, radial mm; rubs: below this
    it only rubs, radial mm; touch: by how much the touch was off; seating: one sigma of
    each setting; finds: share of what is left that a spring pass takes; zero: what the
    gauge reads too much, mm; warm: what the work has grown, mm; reads: one sigma of a
    reading, mm.
    """

    compliance: float
    push_off: float
    rubs: float
    touch: float
    seating: float
    finds: float
    zero: float
    warm: float
    reads: float


def habits(
    chance: random.Random, reads: float, size: float, bar: bool = False
) -> Habits:
    """A lathe drawn at chance. reads: sigma of its gauge, mm; size: of the work, mm on
    the diameter; bar: a boring bar."""
    share = chance.uniform(0.75, 0.97) if bar else chance.uniform(0.88, 1.0)
    return Habits(
        1 / share - 1,
        chance.uniform(0.0, 0.010),
        chance.uniform(0.004, 0.014),
        chance.gauss(0.0, 0.015),
        chance.uniform(0.0008, 0.0030),
        chance.uniform(0.4, 0.9),
        chance.gauss(0.0, reads),
        max(chance.gauss(0.0, WARM), 0.0) * EXPANSION * size,
        reads,
    )


@dataclass(slots=True)
class PracticeLathe:
    """One surface on it. true: its size at 20 °C as it now is, mm on the diameter."""

    kind: Literal["external", "internal"]
    start: float
    habits: Habits
    chance: random.Random
    cut: float = 0.0  # radial depth taken so far
    setting: float = 0.0  # where the dial stands
    seat: float = field(default=0.0)  # how this setting came to lie

    @property
    def true(self) -> float:
        sign = 1 if self.kind == "external" else -1
        return self.start - sign * 2 * self.cut

    def cut_to(self, dial: float) -> None:
        """A pass at a dial position."""
        self.setting = dial
        self.seat = self.chance.gauss(0.0, self.habits.seating)
        self._pass(1.0)

    def spring(self) -> None:
        """Once more without moving the dial."""
        self._pass(self.habits.finds)

    def _pass(self, share: float) -> None:
        mine = self.habits
        ahead = self.setting + mine.touch + self.seat - self.cut
        if ahead <= 0:
            return
        # push-off fades where the edge no longer bites
        bites = min(ahead / (2 * mine.rubs), 1.0)
        taken = ahead / (1 + mine.compliance) - mine.push_off * bites
        if ahead < mine.rubs:
            taken *= self.chance.uniform(0.0, 0.9)
        self.cut += max(taken, 0.0) * share

    def read(self) -> float:
        """A reading as the gauge shows it."""
        mine = self.habits
        seen = self.true + mine.zero + mine.warm + self.chance.gauss(0.0, mine.reads)
        if self.chance.random() < MISREAD:
            seen += self.chance.choice((-1, 1)) * self.chance.uniform(0.02, 0.3)
        return round(seen, 3)
