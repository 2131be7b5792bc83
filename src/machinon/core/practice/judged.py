"""Exercises judged by feel: a thread to its nut, a taper to its blue, a rough casting.

Each is a small machine: what is seen, what can be done, and whether it is over. Lengths
are mm, angles minutes of arc.
"""

import math
import random
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.practice.levels import LEVELS, HabitRanges, Level
from machinon.core.quantity import small_text
from machinon.core.reckoning import Answer
from machinon.core.route.work.lines import WorkLine
from machinon.core.route.work.set_true import set_true

JudgedKind = Literal["thread", "taper", "centring"]
MOST = 60  # doings after which the coach gives up


class Ask(Struct, frozen=True):
    """A figure that is typed for a doing."""

    key: str
    words: str
    unit: str
    low: float  # what is allowed
    high: float  # what is allowed


class Seen(Struct, frozen=True):
    """The person's view: a word or figure, large, and the line under it."""

    head: str
    large: str
    under: str


class Judged(Struct, frozen=True):
    """The result of such an exercise."""

    inside: bool
    past: bool
    stops: int
    truths: tuple[tuple[str, str], ...]  # what nobody could see, in words
    lesson: str


@dataclass
class Exercise:
    """The common ground of all exercises."""

    kind: JudgedKind
    level: Level
    seed: int
    settings: HabitRanges
    chance: random.Random
    stops: int = 0  # doings so far
    over: bool = False  # whether it is decided

    @property
    def asks(self) -> tuple[Ask, ...]:
        """The figures that a doing takes."""
        raise NotImplementedError

    def seen(self) -> Seen:
        """The person's view of the work now."""
        raise NotImplementedError

    def advised(self) -> dict[str, float]:
        """The figures that the coach would have now, by ask."""
        raise NotImplementedError

    def tip(self) -> str:
        """The coach's advice now."""
        raise NotImplementedError

    def do(self, typed: Mapping[str, float]) -> None:
        """Do it. Raises BadInput on the figure."""
        for ask in self.asks:
            value = typed.get(ask.key, 0.0)
            if not (math.isfinite(value) and ask.low <= value <= ask.high):
                raise BadInput(
                    ask.key, f"From {ask.low:g} to {ask.high:g} {ask.unit} is allowed."
                )
        self.stops += 1
        self._do({ask.key: typed.get(ask.key, 0.0) for ask in self.asks})

    def _do(self, typed: Mapping[str, float]) -> None:
        raise NotImplementedError

    def ended(self) -> Judged:
        """The result if it ended now."""
        raise NotImplementedError


def begin_judged(
    kind: JudgedKind, level: Level, seed: int, own: HabitRanges | None = None
) -> Exercise:
    """An exercise; the same seed is the same machine and the same work."""
    settings = own if level == "own" and own is not None else LEVELS[level]
    chance = random.Random(f"{kind} {level} {seed}")
    kinds: dict[JudgedKind, type[Exercise]]
    kinds = {"thread": ThreadExercise, "taper": TaperExercise, "centring": Centring}
    return kinds[kind](kind, level, seed, settings, chance)


def by_the_tips(
    kind: JudgedKind, level: Level, seed: int, own: HabitRanges | None = None
) -> Judged:
    """The result of following the coach on the same machine."""
    made = begin_judged(kind, level, seed, own)
    while not made.over and made.stops < MOST:
        made.do(made.advised())
    return made.ended()


# -- a thread to its nut -----------------------------------------------------

PITCH = 2.0
DEEP = 0.6134 * PITCH  # radial, of the outside thread: H 17/24, ISO 68-1
STARTS = 0.10  # mm on the pitch diameter: tighter, a nut does not even start
SHAKES = 0.14  # mm: looser, it shakes
LEFT = 0.3  # of what is left by the table goes in with the next pass
LAST = 0.025  # mm: the smallest pass that bites


@dataclass
class ThreadExercise(Exercise):
    """M24 × 2 cut by passes; the nut in hand tells."""

    taken: float = 0.0  # radial mm so far
    said: float = 0.0  # what was dialled in so far
    last: str = "The tool has just touched the bar."

    def __post_init__(self) -> None:
        self.share = self.chance.uniform(*self.settings.takes)
        self.rubs = self.chance.uniform(*self.settings.rubs) / 1000
        # neither the nut nor the bar is quite what the table says
        self.wanted = DEEP + self.chance.gauss(-0.01, 0.02)
        self.ahead = 0.0

    @property
    def asks(self) -> tuple[Ask, ...]:
        return (Ask("infeed", "Infeed of the next pass, 0 for one without", "mm", 0.0,
                    0.5),)  # fmt: skip

    @property
    def play(self) -> float:
        """Play of the nut on the pitch diameter, mm; negative is tight."""
        return 2 * (self.taken - self.wanted)

    def seen(self) -> Seen:
        return Seen(
            self.last, self._nut(), f"dialled in {self.said:.3f} of {DEEP:.3f} mm"
        )

    def _nut(self) -> str:
        if self.play > SHAKES:
            return "loose: it shakes"
        if self.play >= 0:
            return "it goes on"
        if self.play > -STARTS:
            turns = 1 + 3 * (1 + self.play / STARTS)
            return f"tight after {turns:.0f} turns"
        return "it does not start"

    def advised(self) -> dict[str, float]:
        left = DEEP - self.said
        near = left <= 0.1 or -STARTS < self.play < 0
        return {"infeed": LAST if near else round(max(left * LEFT, LAST), 2)}

    def tip(self) -> str:
        infeed = self.advised()["infeed"]
        if -STARTS < self.play < 0:
            return f"It starts: go in by {infeed:g} mm, or pass once more without."
        if infeed > LAST:
            return f"Go in by {infeed:.2f} mm, then less each time."
        return f"Try the nut after each pass of {infeed:g} mm."

    def _do(self, typed: Mapping[str, float]) -> None:
        self.said += typed["infeed"]
        self.ahead += typed["infeed"]
        took = self.ahead * (self.share if typed["infeed"] else 0.6 * self.share)
        if self.ahead < self.rubs:
            took *= self.chance.uniform(0.0, 0.6)
            self.last = "It only rubbed."
        else:
            self.last = "A chip from both flanks."
        self.taken += took
        self.ahead -= took
        self.over = self.play >= 0

    def ended(self) -> Judged:
        good = 0 <= self.play <= SHAKES
        truths = (
            ("Play of the nut", small_text(max(self.play, 0.0))),
            ("The tool took", f"{100 * self.share:.0f} % of each pass"),
            ("This nut wanted", f"{self.wanted:.3f} mm; the table says {DEEP:.3f}"),
        )
        lesson = "It goes on without shake: the nut told more than the table."
        if self.play > SHAKES:
            lesson = "Loose: near the end a pass takes what was left before it as well."
        elif self.play < 0:
            lesson = "Not on yet: pass without infeed before you go in further."
        return Judged(good, self.play > SHAKES, self.stops, truths, lesson)


# -- a taper to its blue -------------------------------------------------------

BLUE = 1.5  # minutes: nearer than that it is blue all along
PASSES = 8  # light cuts before the plug goes in too far


@dataclass
class TaperExercise(Exercise):
    """A taper bore set by its blue. error: minutes that the slide stands off, plus
    where it is too steep."""

    def __post_init__(self) -> None:
        steep = self.chance.choice((-1, 1))
        self.error = steep * self.chance.uniform(4.0, 16.0 + self.settings.touch[1] / 5)
        # a slide that is tapped round goes a little more or less than is meant
        self.slack = self.chance.uniform(0.85, 1.15)

    @property
    def asks(self) -> tuple[Ask, ...]:
        return (Ask("turn", "Turn the slide by, plus for steeper", "minutes", -60.0,
                    60.0),)  # fmt: skip

    @property
    def rubbed(self) -> float:
        """Share of its length that is blue."""
        return min(BLUE / max(abs(self.error), 1e-9), 1.0)

    def seen(self) -> Seen:
        if abs(self.error) <= BLUE:
            return Seen("The plug comes out", "blue all along", self._cuts())
        # a bore that is too steep is too wide at its mouth: the plug touches inside
        end = "small end" if self.error > 0 else "large end"
        part = f"over {100 * self.rubbed:.0f} % of its length"
        return Seen(
            "The plug comes out", f"blue at the {end}", f"{part}; {self._cuts()}"
        )

    def _cuts(self) -> str:
        return f"{self.stops} of {PASSES} light cuts taken"

    def advised(self) -> dict[str, float]:
        by = BLUE / self.rubbed
        return {"turn": round(-by if self.error > 0 else by)}

    def tip(self) -> str:
        by = abs(self.advised()["turn"])
        way = "less steep, minus" if self.error > 0 else "steeper, plus"
        return (
            f"Blue over {100 * self.rubbed:.0f} % means about {by:.0f} minutes: turn "
            f"it {way}, take a light cut, blue it again."
        )

    def _do(self, typed: Mapping[str, float]) -> None:
        self.error += typed["turn"] * self.slack + self.chance.gauss(0.0, 0.3)
        self.over = abs(self.error) <= BLUE or self.stops >= PASSES

    def ended(self) -> Judged:
        good = abs(self.error) <= BLUE
        spent = self.stops >= PASSES and not good
        truths = (
            ("It stands off by", f"{abs(self.error):.1f} minutes"),
            ("A turn of the slide went", f"{100 * self.slack:.0f} % of what was meant"),
        )
        lesson = "Blue all along. The length of the blue told how far to turn."
        if spent:
            lesson = "The plug goes in too far now: let the first blue tell how much."
        elif not good:
            lesson = "Not there yet: blue at one end asks for another turn."
        return Judged(good, spent, self.stops, truths, lesson)


# -- a rough casting in four jaws ----------------------------------------------


@dataclass
class Centring(Exercise):
    """A rough casting set true by its four jaws. x, y: where its middle stands, mm,
    towards jaw 1 and jaw 2."""

    readings: tuple[float, ...] = field(default=())

    def __post_init__(self) -> None:
        self.x, self.y = (self.chance.uniform(-1.5, 1.5) for _ in range(2))
        rough = 0.02 + self.settings.gauge[1] * 0.02
        self.rough = [self.chance.gauss(0.0, rough / 3) for _ in range(2)]
        self.share = self.chance.uniform(0.85, 1.0)
        self.limit = 0.03 if self.level == "calm" else 0.02
        self._read()

    @property
    def asks(self) -> tuple[Ask, ...]:
        return (
            Ask("one", "Push from jaw 1 towards jaw 3", "mm", -3.0, 3.0),
            Ask("two", "Push from jaw 2 towards jaw 4", "mm", -3.0, 3.0),
        )

    def _read(self) -> None:
        sigma = self.settings.gauge[1] / 1000
        places = (self.x, self.y, -self.x, -self.y)
        self.readings = tuple(
            round(place + self.rough[i % 2] + self.chance.gauss(0.0, sigma), 3)
            for i, place in enumerate(places)
        )

    @property
    def off(self) -> float:
        """Distance of its middle from the axis, mm."""
        return math.hypot(self.x, self.y)

    def seen(self) -> Seen:
        zero = self.readings[0]
        said = "   ".join(f"{i}: {reading - zero:+.2f}" for i, reading in
                          enumerate(self.readings, 1))  # fmt: skip
        return Seen("Reading at each jaw", said, "plus where it stands nearer")

    def _told(self) -> tuple[WorkLine, Answer | None]:
        zero = self.readings[0]
        needle = [reading - zero for reading in self.readings]
        return set_true(needle, 2 * self.limit, "four")

    def advised(self) -> dict[str, float]:
        _, answer = self._told()
        found = {"one": 0.0, "two": 0.0}
        for move in answer["moves"] if answer is not None else ():
            name = "one" if move["from"] % 180 == 0 else "two"
            found[name] = round(move["move"] * (1 if move["from"] < 180 else -1), 3)
        return found

    def tip(self) -> str:
        line, answer = self._told()
        moves = answer["moves"] if answer is not None else []
        pushes = ", ".join(
            f"from jaw {move['from'] / 90 + 1:.0f} by {move['move']:.3f}"
            for move in moves
        )
        return f"{line.head}. {f'Push {pushes}.' if pushes else ''}".strip()

    def _do(self, typed: Mapping[str, float]) -> None:
        slip = 0.02 * self.settings.seating[1] / 3
        for_x = typed["one"] * self.share + 0.03 * typed["two"]
        for_y = typed["two"] * self.share + 0.03 * typed["one"]
        self.x -= for_x + self.chance.gauss(0.0, slip) * bool(typed["one"])
        self.y -= for_y + self.chance.gauss(0.0, slip) * bool(typed["two"])
        self._read()
        self.over = self.off <= self.limit

    def ended(self) -> Judged:
        good = self.off <= self.limit
        truths = (
            ("Its middle stands off by", small_text(self.off)),
            ("A push went", f"{100 * self.share:.0f} % of what was turned"),
            ("It is out of round by", small_text(abs(self.rough[0] - self.rough[1]))),
        )
        lesson = "True. Half of the difference of two opposite jaws is the push."
        if not good:
            lesson = (
                "Not true yet: read two opposite jaws, push by half the difference."
            )
        return Judged(good, False, self.stops, truths, lesson)
