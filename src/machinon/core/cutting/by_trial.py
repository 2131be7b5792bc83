"""Cutting to the mate itself, where no band is left that a gauge could prove.

The state's band is then all that could fit: from surely too tight to surely too loose.
The coach works to just before its tight end; from there one smallest step at a time,
each tried, until the mate goes on.
"""

from msgspec.structs import replace

from machinon.core.cutting.coach import Advice, advise
from machinon.core.cutting.cut_belief import belief_of
from machinon.core.cutting.cut_state import CutState


def approach(state: CutState) -> CutState:
    """The same work with the band just before anything could go on."""
    room = max(4 * state.division, 2 * state.uncertainty)
    if state.external:
        low, high = state.upper, state.upper + room
    else:
        low, high = state.lower - room, state.lower
    return replace(state, lower=low, upper=high, aim=(low + high) / 2)


def advise_by_trial(state: CutState, trial: str) -> Advice:
    """The next thing to do; trial: how the mate went on last, empty for not tried."""
    before = approach(state)
    found = advise(before)
    size = last_size(state)
    if state.start is None or size is None or not _arrived(before, size):
        return found
    at = state.entries[-1].dial if state.entries else 0.0
    belief = belief_of(state)
    sign = 1 if state.external else -1
    left = max(sign * (size - (state.lower if state.external else state.upper)), 0.0)
    found = replace(
        found, action="stop", dial=at, infeed=0.0, predicted=size, left=left, inside=1.0
    )
    if state.entries and state.entries[-1].measured is None:
        return replace(
            found,
            action="measure",
            why="Measure it before the mate is tried: the size that goes on is kept.",
        )
    if trial == "tight":
        takes = 2 * state.division * belief.taken
        why = "Tight: the smallest step there is, measure, and try the mate again."
        if takes > state.upper - state.lower:
            why = (
                "Tight, and one division takes more than all that could fit: set the "
                "compound over for finer steps, or polish, and try again."
            )
        return replace(
            found,
            action="trial",
            dial=at + state.division,
            infeed=state.division,
            predicted=size - sign * takes,
            why=why,
        )
    return replace(
        found,
        why="Break the edge and try the mate. A lead-in of 2 to 3 mm, or half the "
        "length, can be taken to size first: a step too far costs only that.",
    )


def last_size(state: CutState) -> float | None:
    """The last reading, or the size before the first cut; mm on the diameter."""
    read = (entry.measured for entry in reversed(state.entries))
    return next((reading for reading in read if reading is not None), state.start)


def _arrived(before: CutState, size: float) -> bool:
    return size <= before.upper if before.external else size >= before.lower
