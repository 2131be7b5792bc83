"""What is believed of the surface while it is cut, from dial and readings.

Two ways of taking metal are kept side by side, each with a range of habits:
the tool takes a constant share of what is dialled; or it takes a share of
what stands before it, and what sprang away is found by the next pass. A
Kalman filter runs for each; the readings say which lathe this one is.
"""

import functools
import math
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Any

from machinon.core.cutting.cut_state import CutState

if TYPE_CHECKING:
    import numpy as np


# habits: the share taken, with how usual it is about the lathe's own figure
SHARES = tuple(0.60 + 0.02 * i for i in range(21))
SHARE_SIGMA, ODD_SIGMA, ODD = 0.05, 0.15, 0.2  # most lathes, and the odd one
SPRINGS = 0.8  # chance that what springs away is found by the next pass
SCALES = ((1.0, 0.94), (2.0, 0.03), (0.5, 0.03))  # the dial reads otherwise: rare
SLIP = 0.01  # of readings are slips of the hand or eye
SLIP_RANGE = 0.5  # mm over which a slip may lie anywhere
RULED_OUT = 0.02  # of the likeliest hypothesis: less counts for nothing
RUB = 0.4  # share of a too light cut that is taken, give or take as much
AGAIN, AGAIN_SIGMA = 0.75, 0.15  # share of what was left that a spring pass takes
SPRING_PASS_SIGMA = 0.002  # mm: what a pass without infeed may take at most


@dataclass(frozen=True, slots=True)
class Belief:
    """Hypotheses about the surface: weights, and where each believes it is.

    weight, share, finds, scale: (n,), how likely each is and its habits; at:
    depth of the surface from the start, radial mm into the metal; zero: where
    the dial's zero lies on the same line; var, cov, zero_var: of the two; each
    (n,), or (m, n) for m dial positions weighed at once. dial: where the tool
    stands, or (m, 1); passes: taken so far; seen: readings since the last pass;
    odd: the last reading where it was taken for a slip.
    """

    weight: "np.ndarray"
    share: "np.ndarray"
    finds: "np.ndarray"
    scale: "np.ndarray"
    at: "np.ndarray"
    zero: "np.ndarray"
    var: "np.ndarray"
    cov: "np.ndarray"
    zero_var: "np.ndarray"
    dial: Any = 0.0
    passes: int = 0
    seen: int = 1
    odd: float | None = None

    def _kept(self) -> tuple[Any, Any]:
        """The hypotheses that are not all but ruled out, and their weights.

        Those others lie far off and would drown the rest.
        """
        kept = self.weight > RULED_OUT * self.weight.max()
        return kept, self.weight[kept] / self.weight[kept].sum()

    @property
    def depth(self) -> Any:
        """Depth of the surface from the start, radial mm; (m,) for m positions."""
        kept, weight = self._kept()
        return self.at[..., kept] @ weight

    @property
    def sigma(self) -> float:
        """One sigma of that depth, the hypotheses' spread and all; mm."""
        kept, weight = self._kept()
        at = self.at[..., kept]
        spread = (at - (at @ weight)[..., None]) ** 2
        return float(((self.var[..., kept] + spread) @ weight) ** 0.5)

    def least_take(self, division: float) -> tuple[Any, Any]:
        """What the smallest next pass would take, what sprang away before with it, and
        one sigma of that; radial mm, (m,) for m positions."""
        import numpy as np

        ahead = np.where(
            self.finds,
            self.zero + self.scale * (self.dial + division) - self.at,
            self.scale * division,
        )
        takes = np.maximum(self.share * ahead, 0.0)
        mean = takes @ self.weight
        return mean, np.sqrt((takes - mean[..., None]) ** 2 @ self.weight)

    @property
    def taken(self) -> float:
        """The share of the dial that the tool takes, as far as is known."""
        return float(self.weight @ (self.share * self.scale))


def phi(x: Any) -> Any:
    """The normal distribution's sum, elementwise, good to 1e-7.

    Source: Abramowitz and Stegun 7.1.26.
    """
    import numpy as np

    z = np.abs(x) / math.sqrt(2)
    t = 1 / (1 + 0.3275911 * z)
    tail = t * (
        0.254829592
        + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))
    )
    half = 1 - tail * np.exp(-z * z)
    return 0.5 * (1 + np.sign(x) * half)


def first_belief(state: CutState) -> Belief:
    """Before any cut: the start as it was read, the touch as it may be off."""
    import numpy as np

    rows = [
        (share, finds, scale, usual * chance)
        for scale, chance in SCALES
        for finds, usual in ((1.0, SPRINGS), (0.0, 1 - SPRINGS))
        for share in (SHARES if scale == 1 else SHARES[15::2])
    ]
    share, finds, scale, prior = (
        np.array(column) for column in zip(*rows, strict=True)
    )
    off = (share - state.ratio) / SHARE_SIGMA
    usual = np.exp(-0.5 * off**2) / SHARE_SIGMA
    odd = np.exp(-0.5 * (off * SHARE_SIGMA / ODD_SIGMA) ** 2) / ODD_SIGMA
    weight = prior * ((1 - ODD) * usual + ODD * odd)
    # a scale's chance is its own, however many shares stand for it
    for one, chance in SCALES:
        at = scale == one
        weight[at] *= chance / weight[at].sum()
    count = len(rows)
    reading = (state.uncertainty / 4) ** 2  # one sigma, on the radius, squared
    same = np.full(count, reading)
    return Belief(
        weight / weight.sum(),
        share,
        finds == 1.0,
        scale,
        np.zeros(count),
        np.zeros(count),
        same,
        same,
        same + state.touch_sigma**2,
    )


def cut_to(belief: Belief, dial: Any, state: CutState) -> Belief:
    """The belief after one pass at a dial position, radial mm from touch.

    dial: a number, or (m, 1) to weigh m positions at once.
    """
    import numpy as np

    step = dial - belief.dial
    # finding: share of what stands before the tool; not: share of the step alone
    finding = belief.finds | (belief.passes == 0)
    ahead = np.where(
        finding, belief.zero + belief.scale * dial - belief.at, belief.scale * step
    )
    # a tool never adds metal, and one that barely touches rubs
    idle = ahead < 0
    light = (ahead < max(0.6 * state.least, 0.004)) & ~idle
    cuts = finding & ~idle & ~light
    again = step < 1e-9
    share = np.where(again, AGAIN, belief.share)
    take = share * ahead * np.where(idle, 0.0, np.where(light, RUB, 1.0))
    gain = np.where(cuts, share, 0.0)
    keep = 1 - gain
    noise = np.where(idle, 0.0, state.dial_sigma**2)
    noise = noise + np.where(light, (share * ahead * RUB) ** 2, 0.0)
    noise = noise + np.where(again & cuts, (AGAIN_SIGMA * ahead) ** 2, 0.0)
    noise = noise + np.where(again & ~finding, SPRING_PASS_SIGMA**2, 0.0)
    var, cov, zero_var = belief.var, belief.cov, belief.zero_var
    return replace(
        belief,
        at=belief.at + take,
        var=keep**2 * var + 2 * keep * gain * cov + gain**2 * zero_var + noise,
        cov=keep * cov + gain * zero_var,
        dial=dial,
        passes=belief.passes + 1,
        seen=0,
    )


def passed_at(belief: Belief, dial: Any, state: CutState) -> Belief:
    """The belief after an advised cut; one school takes a spring pass after each."""
    made = cut_to(belief, dial, state)
    return cut_to(made, dial, state) if state.spring_pass == "always" else made


def read_at(belief: Belief, depth: float, sigma: float) -> Belief:
    """The belief after a reading of the surface; depth, sigma: radial mm.

    One that a slip explains better than any habit moves nothing, until a second
    one says the same.
    """
    import numpy as np

    off = depth - belief.at
    variance = belief.var + sigma**2
    true = np.exp(-0.5 * off**2 / variance) / np.sqrt(2 * math.pi * variance)
    real = (1 - SLIP) * float(belief.weight @ true)
    if real < SLIP / SLIP_RANGE:
        if belief.odd is None or abs(depth - belief.odd) > 6 * sigma:
            return replace(belief, seen=belief.seen + 1, odd=depth)
        return _begun_again(belief, depth, sigma)
    weight = belief.weight * true
    gain, zero_gain = belief.var / variance, belief.cov / variance
    return replace(
        belief,
        weight=weight / weight.sum(),
        at=belief.at + gain * off,
        zero=belief.zero + zero_gain * off,
        var=belief.var * (1 - gain),
        cov=belief.cov * (1 - gain),
        zero_var=belief.zero_var - zero_gain * belief.cov,
        seen=belief.seen + 1,
        odd=None,
    )


def _begun_again(belief: Belief, depth: float, sigma: float) -> Belief:
    """Two readings alike overrule what was believed: the start was misread, or
    the tool did what none of the habits would."""
    import numpy as np

    shift = depth - belief.depth
    same = np.full(len(belief.weight), sigma**2 / 2)
    return replace(
        belief,
        at=np.full(len(belief.weight), depth),
        zero=belief.zero + shift,
        var=same,
        cov=np.zeros(len(belief.weight)),
        zero_var=same + max(abs(shift), 0.01) ** 2,
        seen=belief.seen + 1,
        odd=None,
    )


@functools.lru_cache(maxsize=256)
def belief_of(state: CutState) -> Belief:
    """What is believed after the whole log of a state that has its start."""
    assert state.start is not None
    belief = first_belief(state)
    sign = 1 if state.external else -1
    sigma = state.uncertainty / 4
    last = 0.0
    for entry in state.entries:
        moved = entry.dial > last + 1e-9
        if moved:
            belief = cut_to(belief, entry.dial, state)
        for _ in range(entry.spring):
            belief = cut_to(belief, entry.dial, state)
        if entry.measured is not None:
            belief = read_at(belief, sign * (state.start - entry.measured) / 2, sigma)
        last = entry.dial
    return belief
