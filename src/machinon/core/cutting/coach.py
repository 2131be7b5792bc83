"""The coach at the dial: what to do next, from what the tool really took.

Lengths on the dial are radial mm from touch, positive into the metal;
sizes are mm on the diameter. Works for shafts and bores alike.
"""

import functools
import math
from collections.abc import Callable
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.cutting.cut_belief import Belief, belief_of
from machinon.core.cutting.cut_state import CutState, cuts_taken
from machinon.core.cutting.cut_worth import NEVER, Chances, Worths, whole

Action = Literal["start", "cut", "trial", "measure", "spring", "stop", "scrapped"]


class Advice(Struct, frozen=True):
    """What to do next and the result to expect.

    sigma and chances hold the doubt of the gauge's zero as well.
    """

    action: Action
    dial: float  # radial mm from touch
    infeed: float  # from now
    predicted: float | None  # mm on the diameter
    sigma: float  # mm on the diameter
    left: float | None  # mm on the diameter to the aim
    ratio: float  # what the tool takes
    ratio_known: bool
    why: str
    # inside, past: chances after it of being in the band, and past the limit that
    # cannot be undone
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
        if float(belief.chance @ (belief.scale == factor)) > 0.5:
            return factor
    return 1.0


def warnings_of(state: CutState, action: Action, checked: bool) -> list[str]:
    """Warnings of an experienced machinist: at the start, and again near the end, when
    something can still be done about it. checked: the gauge was, on a standard."""
    band, sigma = state.upper - state.lower, state.uncertainty / 2
    out = []
    matters = not state.entries or action not in ("cut", "measure")
    if matters and 2 * state.division > band:
        out.append("A division is wider than the band: set the compound over.")
    if matters and 4 * sigma > band:
        out.append("The gauge is too coarse for this band: use a surer one.")
    elif matters and band < 10 * sigma and not checked:
        out.append("Check the gauge on a ring or standard of this size.")
    factor = dial_counts(state)
    if factor != 1:
        out.append(
            f"The first cut took {factor:g} times what was dialled: the dial does not "
            "read what was said (radius or diameter?)."
        )
    return out


READINGS = 3  # of one surface; more only repeat each other
SURE = 0.02  # chance of reaching the band that a cut by rule may have
SPRINGS = 4  # passes without infeed at one setting: the next ones bring little
IDLE = 2  # cuts in a row that took nothing
SURPRISING = 3  # sigmas off what was expected from which on it is read again
TELLS = (0.02, 0.1)  # chance of the band, or of a slip, from which on it is read again
RESERVE = 0.2  # mm radial that roughing leaves besides what springs away, or so many
RESERVES = 6  # of the least pass
LEAST_SHARE = 0.5  # of the metal before it that any tool takes
NEAR, NEAR_SIGMAS = 2, 6  # bands and sigmas left, on the diameter, where it is read
LEAVES = 0.04  # mm radial that the cut before the last is thought to leave


@functools.lru_cache(maxsize=256)
def advise(state: CutState) -> Advice:
    """The next thing to do. Never cuts past what the doubt allows.

    Far from size it roughs; from there on it does what is worth most: end, read
    again, a pass without infeed, or so many divisions more and a reading.
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
    worths = Worths(state, belief)
    taken = cuts_taken(state)
    dial = belief.dial
    left = 2 * (worths.aim - belief.depth)  # on the diameter
    now = worths.chances(belief)

    def advice(
        action: Action, why: str, to: float = dial, after: Belief = belief
    ) -> Advice:
        then = now if after is belief else worths.chances(after)
        return Advice(
            action,
            to,
            to - dial,
            worths.size(after),
            math.hypot(2 * after.sigma, state.zero_sigma),
            left,
            belief.taken,
            len(taken) >= 2,
            why,
            then.inside,
            then.past,
        )

    band = state.upper - state.lower
    if state.entries and belief.doubted > 0.5 and belief.seen < READINGS:
        return advice(
            "measure",
            "That reading does not go with the others: wipe, and read again.",
        )
    if _grown(belief, state):
        return advice(
            "measure",
            "It reads larger than before the cut: warm, a chip under the gauge, or the "
            "start was misread. Wipe it, let it cool, read again before any metal.",
        )
    if dial_counts(state) != 1 and len(taken) == 1 and belief.seen < 2:
        return advice(
            "measure",
            "The first cut took half or twice what was dialled: read again. If it "
            "stays so, the dial does not read what was said, radius or diameter.",
        )
    near = left < NEAR * band + NEAR_SIGMAS * belief.sigma
    if state.entries and belief.seen == 0 and (near or not taken):
        return advice(
            "measure",
            "Measure now: the next cut is worked out from that reading.",
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
    if state.entries and belief.seen == 1 and belief.surprise > SURPRISING:
        return advice(
            "measure",
            "It is not where the cuts before it lead to: wipe, and read again before "
            "the next cut.",
        )
    step = _roughs(left, belief, state)
    if step:
        to = whole(dial + step, state.division)
        after = worths.after(to)
        then = worths.chances(after)
        if to >= dial + state.division - 1e-9 and then.inside + then.past < SURE:
            return advice(
                "cut",
                "Roughing: leaves enough for a measured cut that tells what the tool "
                "takes, and the last ones.",
                to,
                after,
            )
    return _last(state, worths, now, len(taken) >= 2, advice)


def _roughs(left: float, belief: Belief, state: CutState) -> float:
    """The roughing cut that is due, radial mm on the dial; 0 where none is."""
    scale = max(belief.taken, 0.1) / max(belief.share, 0.1)
    step = _roughing(left / 2, belief.share - belief.share_sigma, state)
    return min(step / scale, _deepest(state))


def _roughing(left: float, share: float, state: CutState) -> float:
    """A roughing cut, however deep, that leaves the reserve and what springs away;
    radial mm, 0 where it is not worth one."""
    springs = 1 / max(share, LEAST_SHARE) - 1
    reserve = max(RESERVES * state.least, RESERVE)
    if left < 1.5 * reserve + (1 + springs) * state.least:
        return 0.0
    return (left - reserve) / (1 + springs)


def _last(
    state: CutState,
    worths: Worths,
    now: Chances,
    known: bool,
    advice: Callable[..., Advice],
) -> Advice:
    """Near the band: read again, cut once more, pass without infeed, or end."""
    belief = worths.belief
    to, cut = worths.best_cut
    again = ending = sprung = NEVER
    if state.entries:
        ending = worths.ended(now)
        inside, slip = TELLS
        telling = now.inside + now.past > inside or belief.doubted > slip
        if telling and belief.seen < READINGS:
            again = worths.read_again()
        if state.spring_pass != "never" and _sprung(state) < SPRINGS:
            sprung = worths.sprung()
    best = max(cut, again, ending, sprung)
    if again == best:
        return advice(
            "measure",
            "One reading cannot tell whether it is in the band: read again."
            if now.inside + now.past > TELLS[0]
            else "One more reading is worth more here than it costs: read again.",
        )
    if sprung == best:
        return advice(
            "spring",
            "What sprang away is about what is left: take a pass without moving the "
            "dial, then measure.",
            after=worths.after_spring,
        )
    if ending == best and (now.inside > TELLS[0] or not worths.room_for_a_line()):
        return advice("stop", _why_ended(state, now))
    if ending == best:  # nothing is promising, but there is metal left for a line
        to = whole(belief.dial, state.division) + state.division
    after = worths.after(to)
    if worths.chances(after).past > 0.5:
        return advice("stop", _why_ended(state, now))
    return advice("trial", _why_cut(state, worths, to, after, known), to, after)


def _why_ended(state: CutState, now: Chances) -> str:
    if now.inside > 0.5:
        return (
            "The reading lies in the band. Break the edge and try the mate before "
            "anything is moved."
        )
    if 2 * state.division > state.upper - state.lower:
        return (
            "One division takes more than the band is wide: set the compound over "
            "for finer steps, or leave it here and try the mate."
        )
    return (
        "A further cut would more likely pass the band than reach it: leave it "
        "here, and try the mate. Stone or lap what is left."
    )


def _why_cut(
    state: CutState, worths: Worths, to: float, after: Belief, known: bool
) -> str:
    belief = worths.belief
    step = to - belief.dial
    then = worths.chances(after)
    if _took_nothing(state) >= IDLE:
        return (
            "The last cuts took nothing, and all of it may come off at once: a keen "
            "edge, then the smallest step, and measure."
        )
    if step < 1.5 * state.division:
        left = worths.aim - belief.depth
        if 2 * state.division > max(state.upper - state.lower, 1.5 * left):
            return (
                "One division takes more than is left to the middle. Set the compound "
                "over for finer steps."
            )
        if after.depth - belief.depth > 1.5 * state.division:
            return (
                "One division, and what sprang away before comes off with it. "
                "Measure after it."
            )
        return "One division: the smallest step there is. Measure after it."
    if step < state.least:
        return (
            "A very light cut: it may rub and take nothing. A keen edge, and measure "
            "after it."
        )
    takes = f"this tool takes {belief.taken * 100:.0f} % of what is dialled."
    if known and then.inside > 0.5:
        return f"The last cut, scaled: {takes}"
    if known and then.inside > 0.2:
        return f"It may reach the band already, so measure after it: {takes}"
    if not known:
        return (
            "A measured cut: feed as you will for the last one. It tells what the tool "
            "takes."
        )
    return "A light cut that leaves a little, then measure: it tells what is taken."


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
    dial, ratio = advice.dial, max(advice.ratio, 0.1)
    left = sign * (advice.predicted - state.aim)
    while len(passes) < most:
        need = left / 2 / ratio
        step, action = _roughing(left / 2, ratio, state), "cut"
        if not step:
            step, action = need - LEAVES if need > 3 * LEAVES else need, "trial"
        step = whole(min(step, _deepest(state)), state.division)
        if step < state.division:
            break
        dial, left = dial + step, left - 2 * step * ratio
        passes.append(
            replace(
                advice,
                action=action,
                dial=dial,
                infeed=step,
                predicted=state.aim + sign * left,
                why="",
            )
        )
    return tuple(passes)


def _grown(belief: Belief, state: CutState) -> bool:
    """Whether the last cut left it larger, by more than readings differ, and that was
    not read often enough to be believed."""
    if not belief.seen or belief.seen >= READINGS:
        return False
    read = [(0.0, state.start)]
    read += [(entry.dial, entry.measured) for entry in state.entries]
    sizes = [(dial, size) for dial, size in read if size is not None]
    before = [size for dial, size in sizes if dial < belief.dial - 1e-9]
    grown = (sizes[-1][1] - before[-1]) / 2 if before else 0.0
    sign = 1 if state.external else -1
    return sign * grown > 4 * state.read_sigma


def _sprung(state: CutState) -> int:
    """Number of passes taken without infeed since the dial was last moved."""
    last = state.entries[-1].dial
    return sum(entry.spring for entry in state.entries if entry.dial >= last - 1e-9)


def _took_nothing(state: CutState) -> int:
    """Number of cuts in a row, the last ones, that removed less than readings
    scatter."""
    sigma, count = state.read_sigma, 0
    for taken in reversed(cuts_taken(state)):
        if taken.removed > 2 * sigma:
            break
        count += 1
    return count


def _deepest(state: CutState) -> float:
    """The deepest pass in whole divisions, one at the least; radial mm."""
    return max(whole(state.deepest, state.division), state.division)
