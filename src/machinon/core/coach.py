"""The coach at the dial: what to dial next, from what the tool really took.

Lengths on the dial are radial mm from touch, positive into the metal;
sizes are mm on the diameter. Works for shafts and bores alike.
"""

import math
from dataclasses import dataclass, replace
from statistics import NormalDist
from typing import Literal

import msgspec

Action = Literal["start", "cut", "trial", "measure", "spring", "stop", "scrapped"]

# A shaft takes a little less than is dialled; how sure that is before any proof.
RATIO, RATIO_SIGMA = 0.97, 0.04
TOUCH_SIGMA = 0.015  # mm radial: how well a tool touches the work
CUT_SIGMA = 0.002  # mm radial: how alike two equal cuts come out


class CutEntry(msgspec.Struct, frozen=True, omit_defaults=True):
    """One line of the log: dial position reached, then the reading if any."""

    dial: float
    measured: float | None = None
    spring: int = 0
    instrument: str = ""
    at: str = ""


@dataclass(frozen=True, slots=True)
class CutState:
    """Where the job stands; see the module for signs and units.

    uncertainty: of one reading, two sigma; division: radial mm of one
    graduation; deepest, least: radial mm of one pass; zero_sigma: doubt of the
    gauge's zero, mm; ratio, touch_sigma, dial_sigma: what is expected of this
    lathe before any proof, radial.
    """

    external: bool
    lower: float
    upper: float
    aim: float
    start: float | None
    entries: tuple[CutEntry, ...]
    uncertainty: float
    division: float
    deepest: float = 1.0
    least: float = 0.01
    spring_pass: Literal["always", "never", "free"] = "never"
    zero_sigma: float = 0.0
    ratio: float = RATIO
    touch_sigma: float = TOUCH_SIGMA
    dial_sigma: float = CUT_SIGMA

    def chances(self, size: float, sigma: float) -> tuple[float, float]:
        """Chances that a size is in the band, and past what cannot be undone.

        sigma: of the size by its readings; the gauge's zero is added.
        """
        doubt = math.hypot(sigma, self.zero_sigma)
        normal = NormalDist(size, max(doubt, 1e-9))
        below, above = normal.cdf(self.lower), 1 - normal.cdf(self.upper)
        return max(1 - below - above, 0.0), below if self.external else above


@dataclass(frozen=True, slots=True)
class Dial:
    """The cross slide's dial. division: one graduation as it reads, mm."""

    reads: Literal["diameter", "radius"]
    division: float

    @property
    def factor(self) -> int:
        """What the dial counts for one millimetre of the tool's travel."""
        return 2 if self.reads == "diameter" else 1

    @property
    def travel(self) -> float:
        """How far one graduation moves the tool, radial mm."""
        return self.division / self.factor

    def shows(self, dial: float, touch: float) -> float:
        """What the dial reads at a radial position from touch; mm as it reads.

        >>> Dial("diameter", 0.02).shows(0.5, touch=1.2)
        2.2
        """
        return touch + dial * self.factor

    def position(self, shown: float, touch: float) -> float:
        """The radial position from touch at a reading of the dial, mm."""
        return (shown - touch) / self.factor


@dataclass(frozen=True, slots=True)
class Taken:
    """What one measured cut took: dialled and really removed, radial mm."""

    dialled: float
    removed: float
    first: bool

    @property
    def ratio(self) -> float:
        return self.removed / self.dialled


@dataclass(frozen=True, slots=True)
class Advice:
    """What to do next and what will come of it.

    dial: radial mm from touch; infeed: from now; predicted, sigma: mm on the
    diameter; left: mm on the diameter to the aim; ratio: what the tool takes.
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


def dial_counts(state: CutState) -> float:
    """½ or 2 where the first cut shows that the dial reads otherwise than was said.

    1 where it does not, or where the cut was too light beside the touch to tell.
    """
    first = next(iter(cuts_taken(state)), None)
    if first is not None and first.dialled > 5 * state.touch_sigma:
        for factor in (0.5, 2.0):
            if abs(first.ratio / (factor * state.ratio) - 1) < 0.15:
                return factor
    return 1.0


def learned_ratio(state: CutState) -> tuple[float, float]:
    """What the tool really takes of a dialled depth, and its one sigma.

    A weighted mean of the prior and of each measured cut; the first cut
    carries the doubt of the touch. Source: inverse-variance weighting.
    """
    weight = 1 / RATIO_SIGMA**2
    # a dial that takes twice what is said is believed at once: half is safe to doubt
    scale = max(dial_counts(state), 1.0)
    total = state.ratio * scale * weight
    reading = state.uncertainty / 2
    for taken in cuts_taken(state):
        sigma = math.hypot(reading / math.sqrt(2), state.dial_sigma)
        if taken.first:
            sigma = math.hypot(sigma, state.touch_sigma)
        sigma = max(sigma / taken.dialled, 0.005)
        # a cut that took nothing or far too much teaches nothing about the rest
        if not 0.5 < taken.ratio / scale < 1.5:
            continue
        weight += 1 / sigma**2
        total += taken.ratio / sigma**2
    return total / weight, 1 / math.sqrt(weight)


def present_size(state: CutState) -> tuple[float | None, float, float]:
    """Size now, its one sigma, and the dial position now.

    Measured where it was, predicted from the last reading where it was not.
    """
    ratio, ratio_sigma = learned_ratio(state)
    size, dial = state.start, 0.0
    sigma = state.uncertainty / 2
    now = 0.0
    touched = True
    for entry in state.entries:
        if entry.measured is not None:
            size, dial, sigma = entry.measured, entry.dial, state.uncertainty / 2
            touched = entry.dial <= 1e-9
        now = entry.dial
    if size is None:
        return None, sigma, now
    step = now - dial
    if step > 0:
        size -= 2 * step * ratio * (1 if state.external else -1)
        extra = 2 * math.hypot(step * ratio_sigma, state.dial_sigma)
        if touched:
            extra = math.hypot(extra, 2 * state.touch_sigma)
        sigma = math.hypot(sigma, extra)
    return size, sigma, now


def advise(state: CutState) -> Advice:
    """The next thing to do. Never cuts past what the doubt allows.

    Far from size it roughs; then two equal measured cuts of a third of what
    is left; then one cut scaled by what the tool really took.
    """
    ratio, ratio_sigma = learned_ratio(state)
    size, sigma, dial = present_size(state)
    taken = cuts_taken(state)
    known = len(taken) >= 2
    sign = 1 if state.external else -1

    def advice(action: Action, infeed: float, why: str) -> Advice:
        predicted, doubt = size, sigma
        if infeed > 0:  # to a whole division from touch, wherever the dial stands
            deepest = max(whole(state.deepest, state.division), state.division)
            to = whole(dial + min(infeed, deepest), state.division)
            infeed = to - dial
            if infeed < state.division - 1e-9:
                infeed += state.division
        if infeed > 0 and size is not None:
            predicted = size - sign * 2 * infeed * ratio
            extra = math.hypot(infeed * ratio_sigma, state.dial_sigma)
            doubt = math.hypot(sigma, 2 * extra)
            if not taken:
                doubt = math.hypot(doubt, 2 * state.touch_sigma)
        left = None if size is None else sign * (size - state.aim)
        return Advice(
            action, dial + infeed, infeed, predicted, doubt, left, ratio, known, why
        )

    if size is None:
        return advice(
            "start",
            0.0,
            "Measure the diameter, touch the tool on it and set the dial to zero.",
        )
    measured = not state.entries or state.entries[-1].measured is not None
    left = sign * (size - state.aim)  # on the diameter
    past = state.lower if state.external else state.upper
    if measured and state.entries:
        if sign * (size - past) < -sigma:
            return advice(
                "scrapped",
                0.0,
                "The reading is past the band. Measure again "
                "with a second instrument before giving it up.",
            )
        if state.lower <= size <= state.upper:
            return advice(
                "stop",
                0.0,
                "The reading lies in the band. Break the edge and "
                "try the mate before anything is moved.",
            )
        if sign * (size - past) < 0:
            return advice(
                "measure",
                0.0,
                "The reading is just past the band, within its doubt. Measure again.",
            )
    band = state.upper - state.lower
    near = left < 6 * band + 12 * sigma
    if not measured and (near or (state.entries[-1].dial > 0 and len(taken) < 2)):
        return advice(
            "measure",
            0.0,
            "Measure before the next cut: the sum from here rests on it.",
        )
    need = left / 2 / ratio
    # three equal parts: two to learn from, the last one scaled by what they took
    reserve = max(3 * 3 * state.least, 0.3)
    if need > reserve + state.least and need > 1.2 * reserve:
        return advice(
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
        return advice(
            "trial",
            share,
            f"The {which} of two equal cuts: feed as you will "
            "for the last one, then measure. They tell what the tool takes.",
        )
    step = whole(need, state.division)
    predicted = size - sign * 2 * step * ratio
    doubt = math.hypot(sigma, 2 * math.hypot(step * ratio_sigma, state.dial_sigma))
    # stay two sigmas on the safe side of the limit that cannot be undone
    while (
        step > state.division
        and sign * (predicted - past) < 1.6 * doubt
        and (sign * (predicted - state.aim) < 0)
    ):
        step -= state.division
        predicted = size - sign * 2 * step * ratio
    if step < state.division:
        if state.division * 2 > band and state.spring_pass == "never":
            return advice(
                "trial",
                state.division,
                "One division takes more than is "
                "left to the middle. Set the compound over for finer steps.",
            )
        if state.spring_pass == "never":
            return advice(
                "trial",
                state.division,
                "One division: the smallest step there is. Measure after it.",
            )
        return advice(
            "spring",
            0.0,
            "Less than a division is left: take a spring pass "
            "without moving the dial, then measure.",
        )
    if step < state.least:
        return advice(
            "trial",
            max(step, state.division),
            "A very light cut: it may rub "
            "and take nothing. A keen edge, and measure after it.",
        )
    if known:
        return advice(
            "trial",
            step,
            f"The last cut, scaled: this tool takes "
            f"{ratio * 100:.0f} % of what is dialled.",
        )
    return advice("trial", step, "A light cut, then measure.")


def forecast(state: CutState, most: int = 12) -> tuple[Advice, ...]:
    """The passes to come if every cut takes what is expected of it, in order."""
    passes: list[Advice] = []
    for _ in range(2 * most):
        advice = advise(state)
        if advice.action in ("start", "stop", "scrapped") or len(passes) == most:
            break
        if advice.infeed > 0:
            passes.append(advice)
        entry = CutEntry(
            advice.dial, advice.predicted, 1 if advice.action == "spring" else 0
        )
        state = replace(state, entries=(*state.entries, entry))
    return tuple(passes)


def whole(depth: float, division: float) -> float:
    """A depth rounded down to whole graduations, radial mm."""
    return math.floor(depth / division + 1e-6) * division
