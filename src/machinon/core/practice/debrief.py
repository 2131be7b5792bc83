"""After an exercise: what was true, what the lathe did, what would have been better."""

from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.cutting.coach import Advice, advise
from machinon.core.cutting.cut_state import CutEntry, CutState
from machinon.core.practice.hands import Outcome
from machinon.core.practice.playing import by_the_coach, ended
from machinon.core.practice.sneak_up import Done, SneakUp, begin
from machinon.core.quantity import length_text, small_text

SLIP = 0.015  # mm: a reading that is further off was a slip
MANY = 1.4  # times the coach's stops


class ReviewStep(Struct, frozen=True):
    """One thing that was done, beside what the coach would have said then."""

    done: Done
    coach: Advice | None  # None where nothing was to be decided


class Debrief(Struct, frozen=True):
    """The debrief after an exercise."""

    steps: tuple[ReviewStep, ...]
    outcome: Outcome
    true: float
    # what the lathe really did, in words and figures
    habits: tuple[tuple[str, str], ...]
    coach: Outcome  # what following it would have given on the same lathe
    lesson: str  # a sentence

    @property
    def says(self) -> str:
        """The result in a sentence."""
        where = "In the band" if self.outcome.inside else "Short of the band"
        if self.outcome.past:
            where = "Past the band: scrap"
        stops = self.outcome.stops
        return f"{where}, at {length_text(self.true, 0.001)} after {stops} stops."


def debrief(exercise: SneakUp, inch: bool = False) -> Debrief:
    """Look back on an exercise as it stands."""
    again = begin(exercise.kind, exercise.level, exercise.seed, exercise.settings)
    steps = tuple(_steps(exercise))
    outcome, coach = ended(exercise), by_the_coach(again)
    return Debrief(
        steps,
        outcome,
        exercise.lathe.true,
        tuple(_habits(exercise, inch)),
        coach,
        _lesson(exercise, steps, outcome, coach, inch),
    )


def _steps(exercise: SneakUp) -> Iterator[ReviewStep]:
    state = exercise.plan.cut_state
    assert state is not None
    for done in exercise.log:
        told = advise(state) if state.start is not None else None
        yield ReviewStep(done, told)
        state = _after(state, done)


def _after(state: CutState, done: Done) -> CutState:
    if done.what == "start":
        return replace(state, start=done.read)
    entries = list(state.entries)
    if done.what in ("cut", "spring"):
        entries.append(CutEntry(done.dial, None, int(done.what == "spring")))
    elif entries and entries[-1].measured is None:
        entries[-1] = CutEntry(entries[-1].dial, done.read, entries[-1].spring)
    else:
        entries.append(CutEntry(done.dial, done.read))
    return replace(state, entries=tuple(entries))


def _habits(exercise: SneakUp, inch: bool) -> Iterator[tuple[str, str]]:
    mine = exercise.lathe.habits
    yield "The tool takes", f"{100 / (1 + mine.compliance):.0f} % of the dial"
    yield "The edge pushes off", f"{small_text(mine.push_off, inch)} a side"
    yield "It rubs under", f"{small_text(mine.rubs, inch)} a side"
    yield "The touch was off by", f"{small_text(abs(mine.touch), inch)} a side"
    yield "Each setting lies within", f"{small_text(2 * mine.seating, inch)} a side"
    yield "The gauge read", _signed(mine.zero, inch)
    yield "One reading repeats to", small_text(2 * mine.reads, inch)
    if mine.backlash:
        yield "Play in the screw", length_text(mine.backlash, 0.01, inch)
    grown = exercise.lathe.grown
    if mine.heats or grown:
        yield "Warm at the end by", small_text(grown, inch)
    if mine.wears:
        yield "The edge lost", f"{small_text(exercise.lathe.worn, inch)} a side"


def _signed(zero: float, inch: bool) -> str:
    side = "too much" if zero > 0 else "too little"
    return f"{small_text(abs(zero), inch)} {side}"


def _lesson(
    exercise: SneakUp,
    steps: Sequence[ReviewStep],
    outcome: Outcome,
    coach: Outcome,
    inch: bool,
) -> str:
    """The one thing to take home."""
    mine, lathe = exercise.lathe.habits, exercise.lathe
    readings = [step.done for step in steps if step.done.read is not None]
    known = mine.zero + max(lathe.grown, mine.warm)
    slips = [
        done for done in readings if abs((done.read or 0.0) - done.true - known) > SLIP
    ]
    last = readings[-1] if readings else None
    cuts = [step for step in steps if step.done.what in ("cut", "spring")]
    if not cuts:
        return "Nothing was cut: begin by a trial cut that leaves plenty."
    if not outcome.inside and last in slips:
        assert last is not None
        off = abs((last.read or 0.0) - last.true)
        return (
            f"The last reading was a slip of {length_text(off, 0.01, inch)}: what you "
            "did not expect, read once more before you believe it."
        )
    if outcome.past:
        deep = _infeed(cuts)
        return (
            f"The last pass went in by {length_text(deep, 0.001, inch)}: take the last "
            "two alike, and small enough that the worst of both still lies in the band."
        )
    if not outcome.inside and lathe.grown > outcome.band / 2:
        return (
            f"It was read {small_text(lathe.grown, inch)} warm: let it cool before the "
            "last cut, or the size is gone by dinner."
        )
    rubbed = sum(step.done.what == "cut" and _rubs(exercise, steps, step)
                 for step in steps)  # fmt: skip
    if rubbed > 2:
        return (
            f"{rubbed} passes only rubbed: under {small_text(mine.rubs, inch)} a side "
            "the edge does not bite, so leave the last cut deep enough."
        )
    if not outcome.inside:
        return "There is metal left: it can still be cut. Measure, and go on."
    if outcome.stops > MANY * coach.stops:
        return (
            f"In the band, by {outcome.stops} stops where {coach.stops} would do: cut "
            "deeper while much is left, and read less often."
        )
    if mine.compliance > 0.1:
        return (
            f"In the band, on a lathe that takes only {100 / (1 + mine.compliance):.0f}"
            " % of the dial: two like cuts told you so."
        )
    return "In the band, and by few stops. Try it on a worse lathe."


def _infeed(cuts: Sequence[ReviewStep]) -> float:
    before = cuts[-2].done.dial if len(cuts) > 1 else 0.0
    return cuts[-1].done.dial - before


def _rubs(exercise: SneakUp, steps: Sequence[ReviewStep], step: ReviewStep) -> bool:
    """Whether a pass took nearly nothing."""
    at = list(steps).index(step)
    before = steps[at - 1].done.true if at else exercise.lathe.start
    return abs(step.done.true - before) < exercise.lathe.habits.rubs / 2
