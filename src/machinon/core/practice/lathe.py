"""A lathe that behaves like a bad one: the coach is tuned on it.

Lengths on the dial are radial mm from touch, positive into the metal; sizes are mm on
the diameter.
"""

import random
from dataclasses import dataclass, field
from typing import Literal

from msgspec import Struct

from machinon.core.materials import material

MISREAD = 0.01  # of readings are slips of the hand or eye
WARM = 0.7  # degrees, one sigma, that work is warmer than anybody felt
# one sigma of how a slide comes to lie at a setting, radial mm: of a worn one, of most,
# and of one whose gibs were looked after
WORN, FAIR, SNUG = (0.0008, 0.0030), (0.0007, 0.0025), (0.0006, 0.0020)
CHATTERS = 0.05  # mm radial that springs away before it sings
EXPANSION = material("steel").expansion  # for each degree


class Habits(Struct, frozen=True):
    """The true behaviour of this lathe, bar, tool and gauge; nobody at it knows it."""

    # how much of what stands before the tool springs away, over what is taken
    compliance: float
    push_off: float  # what a keen or dull edge pushes off, radial mm
    rubs: float  # below this it only rubs, radial mm
    touch: float  # by how much the touch was off
    seating: float  # one sigma of each setting
    finds: float  # share of what is left that a spring pass takes
    zero: float  # what the gauge reads too much, mm
    warm: float  # what the work has grown, mm
    reads: float  # one sigma of a reading, mm
    slips: float = MISREAD  # share of the readings that are slips
    # of the screw, radial mm, winding back by less leaves the tool where it was
    backlash: float = 0.0
    heats: float = 0.0  # mm that a pass makes the work grow for each mm of its depth
    cools: float = 1.0  # share of the growth that is left after a minute
    wears: float = 0.0  # what the edge loses in a pass, radial mm


def habits(
    chance: random.Random,
    reads: float,
    size: float,
    bar: bool = False,
    slide: tuple[float, float] = WORN,
) -> Habits:
    """A lathe drawn at chance. reads: sigma of its gauge, mm; size: of the work, mm on
    the diameter; bar: a boring bar; slide: least and most of its scatter, as WORN."""
    share = chance.uniform(0.75, 0.97) if bar else chance.uniform(0.88, 1.0)
    return Habits(
        1 / share - 1,
        chance.uniform(0.0, 0.010),
        chance.uniform(0.004, 0.014),
        chance.gauss(0.0, 0.015),
        chance.uniform(*slide),
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
    slide: float = 0.0  # where the tool stands: behind the dial by up to the backlash
    seat: float = field(default=0.0)  # how this setting came to lie
    grown: float = field(init=False)  # mm that the work is warm now
    worn: float = 0.0  # radial mm that the edge lost
    says: str = ""  # what is heard and seen of the last pass

    def __post_init__(self) -> None:
        self.grown = self.habits.warm

    @property
    def true(self) -> float:
        sign = 1 if self.kind == "external" else -1
        return self.start - sign * 2 * self.cut

    def wind_to(self, dial: float) -> None:
        """Wind the dial to a place; the slide follows once the play is taken up."""
        self.setting = dial
        self.slide = min(max(self.slide, dial), dial + self.habits.backlash)

    def wait(self, minutes: float = 1.0) -> None:
        """Let it cool."""
        self.grown *= self.habits.cools**minutes

    def cut_to(self, dial: float) -> None:
        """A pass at a dial position."""
        self.wind_to(dial)
        self.seat = self.chance.gauss(0.0, self.habits.seating)
        self._pass(1.0)

    def spring(self) -> None:
        """Takes one more pass without moving the dial."""
        self._pass(self.habits.finds)

    def _pass(self, share: float) -> None:
        mine = self.habits
        ahead = self.slide + mine.touch + self.seat - self.worn - self.cut
        if ahead <= 0:
            self.says = "No chip: the tool does not reach."
            return
        # push-off fades where the edge no longer bites
        bites = min(ahead / (2 * mine.rubs), 1.0)
        taken = ahead / (1 + mine.compliance) - mine.push_off * bites
        if ahead < mine.rubs:
            taken *= self.chance.uniform(0.0, 0.9)
        taken = max(taken, 0.0) * share
        self.cut += taken
        self.grown += mine.heats * taken
        self.worn += mine.wears
        self.says = _heard(ahead, taken, mine)

    def read(self) -> float:
        """A reading as the gauge shows it."""
        mine = self.habits
        seen = self.true + mine.zero + self.grown + self.chance.gauss(0.0, mine.reads)
        if self.chance.random() < mine.slips:
            seen += self.chance.choice((-1, 1)) * self.chance.uniform(0.02, 0.3)
        return round(seen, 3)


def _heard(ahead: float, taken: float, mine: Habits) -> str:
    """The look and sound of a pass."""
    if ahead < mine.rubs or taken <= 0:
        return "It only rubs: dust, and a shine where the edge slid over."
    if ahead * mine.compliance > CHATTERS:
        return "It chatters: the bar sings and the wall shows waves."
    if taken < 2 * mine.rubs:
        return "A thread of a chip, fine as hair."
    return "A good chip, curling off."
