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
from machinon.core.cutting.cut_state import CutState, Taken, cuts_taken

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


PAST = 1.0  # what a scrapped piece costs besides not being in the band
EFFORT = 0.015  # that much likelier a further cut and its reading must make it
LOOSE = 0.3  # of a division: how unsure it is what it takes
COUNTS = 6  # divisions that a correction is weighed up to
THIRDS = ((-1.2247, 1 / 3), (0.0, 1 / 3), (1.2247, 1 / 3))  # a normal one in three
ONE = ((0.0, 1.0),)
SURE = 0.02  # chance of reaching the band that a cut by rule may have
STEP = 0.0005  # mm radial: from one place of the table of worths to the next
PLACES = 600  # at most, however wide band and division are
ROUNDS = 6  # cuts looked ahead
UNSURE = (0.05, 0.95)  # chances between which another reading is worth its time
WORTH_A_PASS = 0.1  # that much likelier a spring pass must make the band
IDLE = 2  # cuts in a row that took nothing
READINGS = 3  # of one surface; more only repeat each other


@dataclass(frozen=True, slots=True)
class _Outlook:
    """Chances at a belief of being in the band and past it; and its worth."""

    inside: float
    past: float
    worth: float


@dataclass(frozen=True, slots=True)
class _Table:
    """By the metal left to the aim, radial mm, what a surface that was read is worth:
    ended there, and after a cut that leaves so much of it, before it is read."""

    places: Any
    ends: Any
    cut: Any
    step: float

    def worth(self, left: Any, least: float, doubt: float) -> Any:
        """Of surfaces that leave so much, where the smallest cut takes `least`, one
        sigma `doubt`: that of ending, or of the best cut more."""
        import numpy as np

        takes = least + self.step * np.arange(COUNTS)[:, None]
        after = np.zeros((COUNTS, len(self.places)))
        for off, share in THIRDS if doubt > STEP else ONE:
            there = self.places - takes - off * doubt
            after = after + share * np.interp(there, self.places, self.cut)
        best = np.maximum(self.ends, after.max(axis=0) - EFFORT)
        return np.interp(left, self.places, best)


@functools.lru_cache(maxsize=64)
def _table(
    enters: float, leaves: float, step: float, read: float, zero: float, cut: float
) -> _Table:
    """enters, leaves: from the aim back to where the band begins and on to where it
    ends; step: what a division takes; read, zero, cut: one sigma of a reading, of the
    gauge's zero, and of what a cut takes; all radial mm. Found by looking back from the
    end, cut by cut."""
    import numpy as np

    first, last = -leaves - 0.02, enters + max(0.06, COUNTS * step)
    places = np.arange(first, last, max(STEP, (last - first) / PLACES))
    doubt = read / math.sqrt(1 + read**2 / (read**2 + cut**2))  # after a reading
    sigma = math.hypot(doubt, zero)
    past = phi((-leaves - places) / sigma)
    short = phi((places - enters) / sigma)
    ends = np.maximum(1 - past - short, 0.0) - PAST * past
    wide = math.sqrt(cut**2 + doubt**2)
    kernel = np.exp(-0.5 * ((places[None, :] - places[:, None]) / wide) ** 2)
    kernel /= kernel.sum(axis=1, keepdims=True)
    table = _Table(places, ends, kernel @ ends, step)
    for _ in range(ROUNDS):
        worths = table.worth(places, step, LOOSE * step)
        table = replace(table, cut=kernel @ worths)
    return table


@functools.cache
def _nodes() -> tuple[Any, Any]:
    """Where a normal distribution is asked, in sigmas, and what each answer weighs."""
    import numpy as np

    at, weight = np.polynomial.hermite_e.hermegauss(5)
    return at, weight / weight.sum()


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
        # what a reading after it will say it is worth, whatever is done then
        nodes, chances = _nodes()
        spread = np.sqrt(belief.var)[..., None] * nodes
        left = self.aim - belief.at[..., None] - spread
        least, doubt = belief.least_take(self.state.division)
        table = self.table(belief.taken)
        if left.ndim == 2:
            worth = table.worth(left, float(least), float(doubt)) @ chances
        else:
            rows = zip(left, least, doubt, strict=True)
            worth = np.array([table.worth(*row) for row in rows]) @ chances
        return inside, past, worth @ belief.weight

    def table(self, share: float) -> "_Table":
        """What a reading of the surface is worth by the metal that it leaves."""
        state = self.state
        return _table(
            round(self.aim - self.enter, 6),
            round(self.leave - self.aim, 6),
            round(state.division * max(round(share, 1), 0.3), 6),
            state.uncertainty / 4,
            state.zero_sigma / 2,
            state.dial_sigma,
        )

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


CANDIDATES = 16  # dial positions weighed for one cut


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
    if _grown(taken, belief, state):
        return advice(
            "measure",
            "It reads larger than before the cut: warm, a chip under the gauge, or the "
            "start was misread. Wipe it, let it cool, read again before any metal.",
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

    def safe(infeed: float) -> bool:
        """Whether a cut by rule leaves the band before it for certain."""
        to = whole(dial + min(infeed, _deepest(state)), state.division)
        after = bench.outlook(passed_at(belief, to, state))
        return after.inside + after.past < SURE

    if need > reserve + state.least and need > 1.2 * reserve and safe(need - reserve):
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
        if safe(share):
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
    if _took_nothing(state) >= IDLE:
        why = (
            "The last cuts took nothing, and all of it may come off at once: a keen "
            "edge, then the smallest step, and measure."
        )
    elif step < 1.5 * state.division and 2 * state.division > band:
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


def _grown(taken: tuple[Taken, ...], belief: Belief, state: CutState) -> bool:
    """Whether the last cut left it larger, by more than readings differ, and that was
    not read often enough to be believed."""
    sigma = state.uncertainty / 4
    return bool(taken) and taken[-1].removed < -4 * sigma and belief.seen < READINGS


def _took_nothing(state: CutState) -> int:
    """How many cuts in a row, the last ones, took less than readings differ by."""
    sigma, count = state.uncertainty / 4, 0
    for one in reversed(cuts_taken(state)):
        if one.removed > 2 * sigma:
            break
        count += 1
    return count


def _reserve(state: CutState) -> float:
    """What roughing leaves: three equal parts, two to learn from; radial mm."""
    return max(3 * 3 * state.least, 0.3)


def _deepest(state: CutState) -> float:
    """The deepest pass in whole divisions, one at the least; radial mm."""
    return max(whole(state.deepest, state.division), state.division)


def whole(depth: float, division: float) -> float:
    """A depth rounded down to whole graduations, radial mm."""
    return math.floor(depth / division + 1e-6) * division
