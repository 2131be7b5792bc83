"""The state of cutting one surface: its log, its dial, the metal each cut took.

Lengths on the dial are radial mm from touch, positive into the metal; sizes are mm
on the diameter. Shafts and bores alike; of a length, half of the travel is radial.
"""

import math
from typing import Literal

import msgspec
from msgspec import Struct

from machinon.core.quantity import INCH

RATIO = 0.97  # a shaft takes a little less than is dialled
# mm radial: how well a tool touches the work: 0.015 is common, with paper it is more
TOUCH_SIGMA = 0.02
CUT_SIGMA = 0.0016  # mm radial: how a slide comes to lie at a setting
WARM = 0.5  # degrees that work may be warm without anybody saying so


class CutEntry(msgspec.Struct, frozen=True):
    """One line of the log: dial position reached, then the reading if any."""

    dial: float
    measured: float | None = None
    spring: int = 0
    instrument: str = ""
    at: str = ""


class CutState(Struct, frozen=True):
    """The state of the job; see the module for signs and units."""

    external: bool
    lower: float
    upper: float
    aim: float
    start: float | None
    entries: tuple[CutEntry, ...]
    uncertainty: float  # of one reading, two sigma
    division: float  # radial mm of one graduation
    deepest: float = 1.0  # radial mm of one pass
    least: float = 0.01  # radial mm of one pass
    spring_pass: Literal["always", "never", "free"] = "never"
    zero_sigma: float = 0.0  # doubt of the gauge's zero, mm
    # ratio, touch_sigma, dial_sigma: what is expected of this lathe before any proof,
    # radial
    ratio: float = RATIO
    touch_sigma: float = TOUCH_SIGMA
    dial_sigma: float = CUT_SIGMA

    @property
    def read_sigma(self) -> float:
        """One sigma of a reading, radial mm."""
        return self.uncertainty / 4


def reading_sigma(repeats: float, resolution: float) -> float:
    """One sigma of a reading by what a gauge repeats to, one sigma, and what it shows;
    mm, never quite nothing."""
    return max(math.hypot(repeats, resolution / math.sqrt(12)), 1e-6)


def _is_whole(number: float) -> bool:
    return abs(number - round(number)) < 1e-6


class Dial(Struct, frozen=True):
    """The dial of a slide."""

    # what it counts; a "length" changes by all that the tool travels where a diameter
    # changes by twice that, so half of the travel stands for a radial mm
    reads: Literal["diameter", "radius", "length", "compound"]
    division: float  # one graduation as it reads, mm
    # of the compound set over, how far it is wound for one radial mm
    over: int = 0

    @property
    def angle(self) -> float:
        """Degrees from the axis that the compound is set over to feed so.

        >>> round(Dial("compound", 0.02, 10).angle, 2)
        5.74
        """
        return math.degrees(math.asin(1 / self.over))

    @property
    def straight(self) -> bool:
        """Whether a length is cut, not a diameter."""
        return self.reads == "length"

    @property
    def factor(self) -> int:
        """Change of the dial's reading for one radial millimetre."""
        if self.over:
            return self.over
        return 1 if self.reads == "radius" else 2

    @property
    def travel(self) -> float:
        """Travel of the tool for one graduation, radial mm."""
        return self.division / self.factor

    @property
    def inch(self) -> bool:
        """Whether its lines are parts of an inch: no metric dial has such lines.

        >>> Dial("diameter", 0.0254).inch, Dial("radius", 0.02).inch
        (True, False)
        """
        tenths, steps = self.division / INCH * 10_000, self.division / 0.005
        return _is_whole(tenths) and not _is_whole(steps)

    def text(self, shown: float) -> str:
        """A reading as the dial shows it, as far as its lines go; in its own unit.

        >>> Dial("diameter", 0.02).text(1.2), Dial("radius", 0.0254).text(1.2192)
        ('1.20', '0.048')
        """
        unit = INCH if self.inch else 1.0
        least = 3 if self.inch else 2
        places = least if _is_whole(self.division / unit * 10**least) else least + 1
        return f"{shown / unit + 0.0:.{places}f}"

    def shows(self, dial: float, touch: float) -> float:
        """The dial's reading at a radial position from touch; mm as it reads.

        >>> Dial("diameter", 0.02).shows(0.5, touch=1.2)
        2.2
        """
        return touch + dial * self.factor

    def position(self, shown: float, touch: float) -> float:
        """The radial position from touch at a reading of the dial, mm."""
        return (shown - touch) / self.factor


class Taken(Struct, frozen=True):
    """The depth dialled and the depth really removed by one measured cut, radial mm."""

    dialled: float
    removed: float
    first: bool

    @property
    def ratio(self) -> float:
        return self.removed / self.dialled


def cuts_taken(state: CutState) -> tuple[Taken, ...]:
    """Every measured cut as dialled against removed, in order."""
    out: list[Taken] = []
    if state.start is None:
        return ()
    dial, size, first = 0.0, state.start, True
    sign = 1 if state.external else -1
    for entry in state.entries:
        if entry.measured is None:
            continue
        if entry.dial > dial + 1e-9:
            out.append(
                Taken(entry.dial - dial, sign * (size - entry.measured) / 2, first)
            )
            first = False
        dial, size = entry.dial, entry.measured
    return tuple(out)
