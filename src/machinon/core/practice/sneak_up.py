"""An exercise at the dial: a job of its own, with a simulated lathe under it.

The job is a document like any other, so that the pages of Cut show it; it lives in a
shop of its own that is thrown away. What the lathe really did is told at the end.
"""

import random
from dataclasses import dataclass, field
from typing import Literal

import msgspec

from machinon.core.job.job import CutLog, Job, Trial, Work
from machinon.core.job.plan import Plan
from machinon.core.job.planning import plan_of
from machinon.core.practice.lathe import PracticeLathe
from machinon.core.practice.levels import LEVELS, HabitRanges, Level, drawn
from machinon.core.shop.things import (
    Instrument,
    Lathe,
    Piece,
    Reading,
    Shop,
    Surface,
    starter_instruments,
)
from machinon.core.sizes.fit import FitChoice
from machinon.core.survey.measuring import measure
from machinon.core.survey.surface_kinds import surface_forms

SneakKind = Literal["shaft", "bore", "length", "pins"]
Coached = Literal["on", "off", "after"]
WORDS: dict[SneakKind, str] = {
    "shaft": "A shaft turned to its bore",
    "bore": "A bore to its shaft, by a slim bar",
    "length": "A tongue milled to its slot, by the slide",
    "pins": "A dovetail's last flank, over its pins",
}
_MATES: dict[SneakKind, tuple[str, str]] = {  # form of the mate's surface, its joint
    "shaft": ("bore", "shaft"),
    "bore": ("shaft", "shaft"),
    "length": ("slot", "slot"),
    "pins": ("slot", "slot"),
}
PLAY = 0.012  # mm: least play that is wanted
NUMBER = "1"  # of the only fit


class Done(msgspec.Struct, frozen=True):
    """One thing that was done: the size that was read, what was true then, mm."""

    what: Literal["start", "cut", "spring", "reading"]
    dial: float = 0.0
    read: float | None = None
    true: float = 0.0


@dataclass
class SneakUp:
    """An exercise under way."""

    kind: SneakKind
    level: Level
    seed: int
    settings: HabitRanges
    lathe: PracticeLathe
    job: Job
    shop: Shop
    machine: Lathe
    mate: Piece
    band: tuple[float, float]
    log: list[Done] = field(default_factory=list)  # what was done, with what was true

    @property
    def plan(self) -> Plan:
        """The plan of its job as it began."""
        return plan_of(self.job, self.shop, self.machine, {self.mate.id: self.mate})

    def obey(self, dial: float, spring: bool) -> str:
        """A pass, as it was dialled; what is heard of it."""
        if spring:
            self.lathe.spring()
        else:
            self.lathe.cut_to(dial)
        self.log.append(Done("spring" if spring else "cut", dial, None,
                             self.lathe.true))  # fmt: skip
        return self.lathe.says

    def read(self) -> float:
        """The gauge's reading now; the work cools while one reads."""
        size = self.lathe.read()
        self.lathe.wait()
        what: Literal["start", "reading"] = "reading" if self._cut else "start"
        self.log.append(Done(what, self.lathe.setting, size, self.lathe.true))
        return size

    def wait(self, minutes: float = 5.0) -> None:
        """Let the work cool."""
        self.lathe.wait(minutes)

    @property
    def _cut(self) -> bool:
        return any(done.what in ("cut", "spring") for done in self.log)

    @property
    def mate_goes(self) -> Trial:
        """How the mate really goes on now, by the true sizes."""
        low, high = self.band
        true, external = self.lathe.true, self.lathe.kind == "external"
        if low <= true <= high:
            return "goes on"
        over = true > high
        return "tight" if over == external else "loose"


def begin(
    kind: SneakKind, level: Level, seed: int, own: HabitRanges | None = None
) -> SneakUp:
    """An exercise; the same seed is the same lathe. own: the settings of the level
    `own`."""
    settings = own if level == "own" and own is not None else LEVELS[level]
    chance = random.Random(f"{kind} {level} {seed}")
    size = round(chance.uniform(22.0, 60.0), 1)
    external = kind != "bore"
    division = round(chance.choice(settings.division)) / 1000
    gauge = _gauge(settings, external)
    doubt = (max((gauge.uncertainty / 2) ** 2 - gauge.repeatability**2, 0.0)) ** 0.5
    habits = drawn(settings, chance, size, not external, doubt)
    form_key, joint = _MATES[kind]
    form = surface_forms()[form_key]
    surface = Surface(form_key, form.name, form.kind, form.how)
    instruments = starter_instruments(False)
    shop = Shop(name="Practice", instruments=(*instruments, gauge))
    reads = shop.instruments_for(form.kind, size=size)[0]
    surface = msgspec.structs.replace(
        surface, readings=(Reading(size, reads.id, f"{size:g}", temperature=20.0),)
    )
    found = measure(surface, shop, "steel")
    assert found is not None
    wide = round(chance.uniform(*settings.band)) / 1000
    most = PLAY + wide + 2 * found.uncertainty
    mate = Piece("mate", "Mate", "other", "steel", (surface,))
    fit = FitChoice(
        int(NUMBER),
        WORDS[kind],
        mate.id,
        surface.id,
        "hole" if external else "shaft",
        "own",
        PLAY,
        round(most, 4),
        joint=joint,  # type: ignore[arg-type]
    )
    reads_as: Literal["diameter", "radius"] = (
        "diameter" if chance.random() < 0.5 else "radius"
    )
    of_size = 2 if reads_as == "radius" and kind in ("shaft", "bore") else 1
    while division * of_size > 0.8 * wide:
        division /= 2  # nobody hits a band between two lines
    machine = Lathe(
        "lathe", "Simulated lathe", 165, 700, 190, (90, 180, 360, 720), "",
        dial_reads=reads_as,
        dial_division=division,
    )  # fmt: skip
    log = CutLog(instrument=gauge.id, deepest=0.5, school="free")
    job = Job(
        "practice", WORDS[kind], "", machine.id, (mate.id,), (fit,),
        (Work(cutting=int(NUMBER)),), cuts={NUMBER: log},
    )  # fmt: skip
    exercise = SneakUp(
        kind, level, seed, settings,
        PracticeLathe("external" if external else "internal", 0.0, habits, chance),
        job, shop, machine, mate, (0.0, 0.0),
    )  # fmt: skip
    state = exercise.plan.cut_state
    assert state is not None
    exercise.band = state.lower, state.upper
    left = chance.uniform(0.3, 1.6)
    near = state.upper + left if external else state.lower - left
    exercise.lathe.start = round(near, 3)
    return exercise


def _gauge(settings: HabitRanges, external: bool) -> Instrument:
    """The gauge of the exercise, with the doubt that its maker would give it."""
    repeats = sum(settings.gauge) / 2000
    return Instrument(
        "practice-gauge",
        "Simulated gauge",
        0.001,
        round(2 * (repeats**2 + 0.0015**2) ** 0.5, 4),
        repeats,
        ("outside", "gap") if external else ("inside",),
    )
