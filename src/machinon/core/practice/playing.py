"""Hands that play an exercise through: the coach's, a careful one, a hasty one."""

from collections.abc import Callable

from msgspec.structs import replace

from machinon.core.cutting.coach import advise
from machinon.core.cutting.cut_state import CutEntry, CutState
from machinon.core.practice.hands import MOST, Outcome
from machinon.core.practice.sneak_up import SneakUp

Hand = Callable[[SneakUp], Outcome]


def ended(exercise: SneakUp, said: float | None = None) -> Outcome:
    """The result of an exercise if it ended now."""
    low, high = exercise.band
    true, external = exercise.lathe.true, exercise.lathe.kind == "external"
    stops = sum(done.what != "start" for done in exercise.log)
    past = true < low if external else true > high
    return Outcome(low <= true <= high, past, stops, high - low, said)


def _begun(exercise: SneakUp) -> CutState:
    state = exercise.plan.cut_state
    assert state is not None
    return replace(state, start=exercise.read())


def cut(exercise: SneakUp, state: CutState, dial: float, spring: bool) -> CutState:
    """A pass, and the state after it."""
    exercise.obey(dial, spring)
    entry = CutEntry(round(dial, 6), None, int(spring))
    return replace(state, entries=(*state.entries, entry))


def read(exercise: SneakUp, state: CutState) -> CutState:
    """A reading, and the state after it."""
    size = exercise.read()
    entries = list(state.entries)
    if entries and entries[-1].measured is None:
        entries[-1] = CutEntry(entries[-1].dial, size, entries[-1].spring)
    elif entries:
        entries.append(CutEntry(entries[-1].dial, size))
    else:
        return replace(state, start=size)
    return replace(state, entries=tuple(entries))


def by_the_coach(exercise: SneakUp) -> Outcome:
    """A hand that does what the coach says."""
    state = _begun(exercise)
    for _ in range(MOST):
        advice = advise(state)
        if advice.action in ("stop", "scrapped"):
            inside = advice.inside if advice.action == "stop" else None
            return ended(exercise, inside)
        if advice.action != "measure":
            spring = advice.action == "spring"
            state = cut(exercise, state, advice.dial, spring)
        if advice.action != "cut":
            state = read(exercise, state)
    return ended(exercise)


def by_care(exercise: SneakUp) -> Outcome:
    """A careful hand: half of what is left, half again, then the rest."""
    return _by_shares(exercise, (0.5, 0.5, 1.0))


def by_haste(exercise: SneakUp) -> Outcome:
    """A hasty hand: it dials what is left, until nothing is."""
    return _by_shares(exercise, (1.0,))


def _by_shares(exercise: SneakUp, shares: tuple[float, ...]) -> Outcome:
    state, dial = _begun(exercise), 0.0
    assert state.start is not None
    sign = 1 if state.external else -1
    size = state.start
    for turn in range(MOST // 2):
        left = sign * (size - state.aim) / 2
        if turn and left < (state.upper - state.lower) / 4:
            break  # in the band, or past it
        going = min(shares[min(turn, len(shares) - 1)] * left, state.deepest)
        dial += max(int(going / state.division + 1e-6), 1) * state.division
        state = read(exercise, cut(exercise, state, dial, False))
        size = state.entries[-1].measured or size
    return ended(exercise)
