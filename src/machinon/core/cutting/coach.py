"""The coach at the dial: what to dial next, from what the tool really took.

Lengths on the dial are radial mm from touch, positive into the metal;
sizes are mm on the diameter. Works for shafts and bores alike.
"""

import functools
import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, Literal

from machinon.core.cutting.cut_belief import Belief, belief_of, cut_to, passed_at, phi
from machinon.core.cutting.cut_state import CutState, cuts_taken

Action = Literal["start", "cut", "trial", "measure", "spring", "stop", "scrapped"]


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do next and what will come of it.

    dial: radial mm from touch; infeed: from now; predicted, sigma: mm on the
    diameter; left: mm on the diameter to the aim; ratio: what the tool takes;
    inside, past: chances after it of being in the band, and past the limit that
    cannot be undone.
    """

    action: Action
    dial: float
    infeed: float
    predicted: float | None
    sigma: float
    left: float | None
    ratio: float
    ratio_known: bool
    why: str
    inside: float = 0.0
    past: float = 0.0


def dial_counts(state: CutState) -> float:
    """½ or 2 where the cuts show that the dial reads otherwise than was said.

    1 where it does not, or where nothing tells yet.
    """
    if state.start is None or not state.entries:
        return 1.0
    belief = belief_of(state)
    for factor in (0.5, 2.0):
        if float(belief.weight @ (belief.scale == factor)) > 0.5:
            return factor
    return 1.0


# what a surface is worth when it ends short of its band: workable still, hardly, or
# only by jumping the band
SHORT, TIGHT, LOST = 0.93, 0.7, 0.2
PAST = 0.5  # what a scrapped piece costs besides not being in the band
EFFORT = 0.01  # that much likelier a further cut or reading must make it
UNSURE = (0.05, 0.95)  # chances between which another reading is worth its time
WORTH_A_PASS = 0.1  # that much likelier a spring pass must make the band
READINGS = 3  # of one surface; more only repeat each other


@dataclass(frozen=True, slots=True)
class _Outlook:
    """Chances at a belief of being in the band and past it; and its worth."""

    inside: float
    past: float
    worth: float


class _Bench:
    """The band as depths into the metal, and what a belief is worth against it."""

    def __init__(self, state: CutState) -> None:
        assert state.start is not None
        sign = 1 if state.external else -1
        near, far = (
            (state.upper, state.lower) if state.external else (state.lower, state.upper)
        )
        self.state, self.sign = state, sign
        self.enter = sign * (state.start - near) / 2
        self.leave = sign * (state.start - far) / 2
        self.aim = sign * (state.start - state.aim) / 2

    def size(self, belief: Belief) -> float:
        """Where a belief has the surface, mm on the diameter."""
        assert self.state.start is not None
        return float(self.state.start - self.sign * 2 * belief.depth)

    def outlook(self, belief: Belief) -> _Outlook:
        inside, past, worth = self._weighed(belief)
        return _Outlook(float(inside), float(past), float(worth))

    def _weighed(self, belief: Belief) -> tuple[Any, Any, Any]:
        """In the band, past it, and the worth of both; (m,) for m positions."""
        import numpy as np

        sigma = np.sqrt(belief.var + (self.state.zero_sigma / 2) ** 2)
        short = phi((self.enter - belief.at) / sigma) @ belief.weight
        past = (1 - phi((self.leave - belief.at) / sigma)) @ belief.weight
        inside = np.maximum(1 - short - past, 0.0)
        # what is left must be a step that the dial and the tool can make, with
        # what sprang away under it
        step = np.maximum(
            belief.least_take(self.state.division), self.state.least * belief.taken
        )
        left, room = self.aim - belief.depth, self.leave - belief.depth
        workable = np.where(left > step, SHORT, np.where(room > step, TIGHT, LOST))
        return inside, past, inside + workable * short - PAST * past

    def best_cut(self, belief: Belief, most: float) -> tuple[float, _Outlook]:
        """The dial position that is worth most, and its outlook."""
        import numpy as np

        division = self.state.division
        need = max(self.aim - belief.depth, 0.0) / max(belief.taken, 0.1)
        first = whole(belief.dial, division) + division
        room = min(1.08 * need + 2 * division, max(most, division))
        count = max(int(room / division + 1e-6), 1)
        stride = max(count // CANDIDATES, 1)
        # from the deepest back, so that the positions near the aim are all tried
        dials = first + division * np.arange(count - 1, -1, -stride)
        weighed = self._weighed(passed_at(belief, dials[:, None], self.state))
        best = int(np.argmax(weighed[2]))
        inside, past, worth = (float(one[best]) for one in weighed)
        return float(dials[best]), _Outlook(inside, past, worth)


CANDIDATES = 24  # dial positions weighed for one cut


@functools.lru_cache(maxsize=256)
def advise(state: CutState) -> Advice:
    """The next thing to do. Never cuts past what the doubt allows.

    Far from size it roughs; then two equal measured cuts of a third of what
    is left; from there on the position that is likeliest to end in the band,
    where being past it is worth nothing and short of it nearly all.
    """
    if state.start is None:
        return Advice(
            "start",
            0.0,
            0.0,
            None,
            state.uncertainty / 2,
            None,
            state.ratio,
            False,
            "Measure the diameter, touch the tool on it and set the dial to zero.",
        )
    belief = belief_of(state)
    bench = _Bench(state)
    taken = cuts_taken(state)
    dial = belief.dial
    left = 2 * (bench.aim - float(belief.depth))  # on the diameter
    now = bench.outlook(belief)

    def advice(
        action: Action, why: str, to: float = dial, after: Belief = belief
    ) -> Advice:
        then = now if after is belief else bench.outlook(after)
        return Advice(
            action,
            to,
            to - dial,
            bench.size(after),
            2 * after.sigma,
            left,
            belief.taken,
            len(taken) >= 2,
            why,
            then.inside,
            then.past,
        )

    def cut(action: Action, infeed: float, why: str) -> Advice:
        """A pass to a whole division from touch, wherever the dial stands."""
        to = whole(dial + min(infeed, _deepest(state)), state.division)
        if to < dial + state.division - 1e-9:
            to = whole(dial, state.division) + state.division
        return advice(action, why, to, passed_at(belief, to, state))

    band = state.upper - state.lower
    need = left / 2 / max(belief.taken, 0.1)
    if state.entries and belief.odd is not None:
        return advice(
            "measure",
            "That reading does not go with the others: wipe, and read again.",
        )
    near = left < 6 * band + 24 * belief.sigma
    if state.entries and belief.seen == 0 and (near or len(taken) < 2):
        return advice(
            "measure", "Measure before the next cut: the sum from here rests on it."
        )
    if belief.seen and state.entries and now.past > 0.5:
        if belief.seen < 2:
            return advice(
                "measure", "The reading is past the band: wipe, and read again."
            )
        return advice(
            "scrapped",
            "It is past the band, and read again it stays so. Measure with a second "
            "instrument before giving it up.",
        )
    if not state.entries and now.inside + now.past > 0.5:
        return advice(
            "measure", "There is nothing left to cut by that size: read it again."
        )
    reserve = _reserve(state)
    if need > reserve + state.least and need > 1.2 * reserve:
        return cut(
            "cut",
            need - reserve,
            "Roughing: leaves enough for two equal cuts and a last one.",
        )
    # a roughing cut bends the work more: it is no equal of the last ones
    equal = [t for t in taken if t.dialled <= 0.5 * reserve]
    if len(equal) < 2 and need > 3 * state.least:
        share = (
            need / (3 - len(equal)) if not equal else min(equal[-1].dialled, need / 2)
        )
        which = "first" if not equal else "second"
        return cut(
            "trial",
            share,
            f"The {which} of two equal cuts: feed as you will "
            "for the last one, then measure. They tell what the tool takes.",
        )
    return _last(state, bench, belief, now, len(taken) >= 2, advice, cut)


def _last(
    state: CutState,
    bench: _Bench,
    belief: Belief,
    now: _Outlook,
    known: bool,
    advice: Callable[..., Advice],
    cut: Callable[..., Advice],
) -> Advice:
    """Near the band: read again, cut once more, pass without infeed, or end."""
    sigma = state.uncertainty / 4
    # another reading tells more only where it is surer than what is believed
    telling = belief.sigma > 0.55 * sigma and belief.seen < READINGS
    if state.entries and telling and UNSURE[0] < now.inside < UNSURE[1]:
        return advice(
            "measure",
            "In the band or not, within the doubt of one reading: read again.",
        )
    to, then = bench.best_cut(belief, state.deepest)
    if state.entries and state.spring_pass != "never":
        sprung = cut_to(belief, belief.dial, state)
        passed = bench.outlook(sprung)
        # a pass that leaves it where it is would only be asked for again
        if passed.inside > max(then.worth - EFFORT, now.inside + WORTH_A_PASS):
            return advice(
                "spring",
                "Less than a division is left: take a spring pass without moving the "
                "dial, then measure.",
                after=sprung,
            )
    if state.entries and now.inside + EFFORT >= then.worth:
        if now.inside > 0.5:
            return advice(
                "stop",
                "The reading lies in the band. Break the edge and try the mate before "
                "anything is moved.",
            )
        why = (
            "A further cut would more likely pass the band than reach it: leave it "
            "here, and try the mate. Stone or lap what is left."
        )
        if 2 * state.division > state.upper - state.lower:
            why = (
                "One division takes more than the band is wide: set the compound over "
                "for finer steps, or leave it here and try the mate."
            )
        return advice("stop", why)
    step = to - belief.dial
    band = state.upper - state.lower
    if step < 1.5 * state.division and 2 * state.division > band:
        why = (
            "One division takes more than is left to the middle. Set the compound over "
            "for finer steps."
        )
    elif step < 1.5 * state.division:
        why = "One division: the smallest step there is. Measure after it."
    elif step < state.least:
        why = (
            "A very light cut: it may rub and take nothing. A keen edge, and measure "
            "after it."
        )
    elif known and then.inside > 0.5:
        why = (
            f"The last cut, scaled: this tool takes {belief.taken * 100:.0f} % of what "
            "is dialled."
        )
    else:
        why = "A light cut that leaves a little, then measure: it tells what is taken."
    return cut("trial", step, why)


def forecast(state: CutState, most: int = 12) -> tuple[Advice, ...]:
    """The passes to come if every cut takes what is expected of it, in order.

    The next one is the advice itself; those after it by plain arithmetic, as
    nobody knows yet what the readings between will say.
    """
    advice = advise(state)
    if advice.predicted is None or advice.action in ("stop", "scrapped"):
        return ()
    passes = [advice] if advice.infeed > 0 else []
    sign = 1 if state.external else -1
    reserve = _reserve(state)
    dial, ratio = advice.dial, max(advice.ratio, 0.1)
    left = sign * (advice.predicted - state.aim)
    equal = sum(t.dialled <= 0.5 * reserve for t in cuts_taken(state))
    equal += sum(one.action == "trial" for one in passes)
    while len(passes) < most:
        need = left / 2 / ratio
        if need > 1.2 * reserve + state.least:
            step, action = need - reserve, "cut"
        elif equal < 2 and need > 3 * state.least:
            step, action, equal = need / (3 - equal), "trial", equal + 1
        else:
            step, action = need, "trial"
        step = whole(min(step, _deepest(state)), state.division)
        if step < state.division:
            break
        dial, left = dial + step, left - 2 * step * ratio
        passes.append(
            replace(
                advice,
                action=action,  # type: ignore[arg-type]
                dial=dial,
                infeed=step,
                predicted=state.aim + sign * left,
                why="",
            )
        )
    return tuple(passes)


def _reserve(state: CutState) -> float:
    """What roughing leaves: three equal parts, two to learn from; radial mm."""
    return max(3 * 3 * state.least, 0.3)


def _deepest(state: CutState) -> float:
    """The deepest pass in whole divisions, one at the least; radial mm."""
    return max(whole(state.deepest, state.division), state.division)


def whole(depth: float, division: float) -> float:
    """A depth rounded down to whole graduations, radial mm."""
    return math.floor(depth / division + 1e-6) * division
