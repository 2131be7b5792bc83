"""The quality of the simulated lathe: three levels, or each habit by itself."""

import math
import random
from collections.abc import Mapping
from typing import Any, Literal

import msgspec

from machinon.core.errors import BadInput
from machinon.core.practice.lathe import EXPANSION, WARM, Habits

Level = Literal["calm", "usual", "worn", "own"]
Span = tuple[float, float]


class HabitRanges(msgspec.Struct, frozen=True):
    """The range that each habit is drawn from; both ends alike where it is fixed."""

    band: Span = (16.0, 25.0)  # of the size, µm on the diameter
    # share of a cut that the tool takes, a boring bar's in `bar`
    takes: Span = (0.88, 1.0)
    bar: Span = (0.75, 0.97)
    push_off: Span = (0.0, 10.0)  # µm on a side, touch as one sigma
    rubs: Span = (4.0, 14.0)  # µm on a side, touch as one sigma
    touch: Span = (15.0, 15.0)  # µm on a side, touch as one sigma
    seating: Span = (0.8, 3.0)  # µm on a side, touch as one sigma
    gauge: Span = (1.0, 2.0)  # one sigma of a reading, µm
    lies: Span = (1.0, 1.0)  # the gauge's zero, in its own doubts
    slips: Span = (1.0, 1.0)  # readings in a hundred that are slips
    warm: Span = (0.0, 3.0)  # degrees that a millimetre of cut heats the work
    backlash: Span = (0.05, 0.15)  # of the screw, mm
    wear: Span = (0.0, 0.3)  # µm on a side, touch as one sigma
    division: Span = (10.0, 20.0)  # lines of the dial, µm as it reads


# what a habit may be, in the settings' own units
ALLOWED: Mapping[str, Span] = {
    "band": (4.0, 200.0),
    "takes": (0.5, 1.0),
    "bar": (0.5, 1.0),
    "push_off": (0.0, 50.0),
    "rubs": (0.5, 50.0),
    "touch": (0.0, 200.0),
    "seating": (0.0, 20.0),
    "gauge": (0.1, 20.0),
    "lies": (0.0, 10.0),
    "slips": (0.0, 30.0),
    "warm": (0.0, 50.0),
    "backlash": (0.0, 2.0),
    "wear": (0.0, 10.0),
    "division": (1.0, 50.0),
}
LEVELS: Mapping[Level, HabitRanges] = {
    "calm": HabitRanges(
        band=(25.0, 40.0),
        takes=(0.95, 1.0),
        bar=(0.9, 0.98),
        push_off=(0.0, 3.0),
        rubs=(3.0, 6.0),
        touch=(8.0, 8.0),
        seating=(0.5, 1.0),
        gauge=(0.8, 1.2),
        lies=(0.3, 0.3),
        slips=(0.0, 0.0),
        warm=(0.0, 0.0),
        backlash=(0.02, 0.05),
        wear=(0.0, 0.0),
    ),
    "usual": HabitRanges(),
    "worn": HabitRanges(
        band=(10.0, 16.0),
        takes=(0.8, 0.95),
        bar=(0.7, 0.9),
        push_off=(4.0, 15.0),
        rubs=(8.0, 20.0),
        touch=(30.0, 30.0),
        seating=(1.5, 4.0),
        lies=(1.5, 2.0),
        slips=(3.0, 5.0),
        warm=(3.0, 10.0),
        backlash=(0.1, 0.4),
        wear=(0.3, 1.5),
    ),
}
LEVEL_WORDS: Mapping[Level, str] = {
    "calm": "A good lathe: it takes what is dialled, nearly",
    "usual": "A usual one: it springs, pushes off, warms and rubs",
    "worn": "A worn one: a slack screw, a doubtful gauge, a dull edge",
    "own": "As you set it",
}


def own_settings(typed: Mapping[str, float]) -> HabitRanges:
    """Settings in which each habit is what was typed, the rest as usual. Raises
    BadInput on the habit."""
    found: dict[str, Any] = {}
    for key, value in typed.items():
        if key not in ALLOWED:
            raise BadInput(key, f"{key} is no habit: {', '.join(ALLOWED)} are.")
        low, high = ALLOWED[key]
        if not (math.isfinite(value) and low <= value <= high):
            raise BadInput(key, f"From {low:g} to {high:g} is allowed.")
        found[key] = (value, value)
    return msgspec.structs.replace(HabitRanges(), **found)


def drawn(
    settings: HabitRanges, chance: random.Random, size: float, bar: bool, doubt: float
) -> Habits:
    """A lathe drawn at chance. size: of the work, mm; bar: a boring bar; doubt: of the
    gauge's zero, one sigma, mm."""

    def between(span: Span, unit: float = 1.0) -> float:
        return chance.uniform(*span) * unit

    micron = 0.001
    share = between(settings.bar if bar else settings.takes)
    reads = between(settings.gauge, micron)
    zero = chance.gauss(0.0, between(settings.lies) * doubt)
    heat = between(settings.warm)
    return Habits(
        compliance=1 / share - 1,
        push_off=between(settings.push_off, micron),
        rubs=between(settings.rubs, micron),
        touch=chance.gauss(0.0, between(settings.touch, micron)),
        seating=between(settings.seating, micron),
        finds=chance.uniform(0.4, 0.9),
        zero=zero,
        warm=max(chance.gauss(0.0, WARM), 0.0) * EXPANSION * size if heat else 0.0,
        reads=reads,
        slips=between(settings.slips, 0.01),
        backlash=between(settings.backlash),
        heats=heat * EXPANSION * size,
        cools=0.6,
        wears=between(settings.wear, micron),
    )
