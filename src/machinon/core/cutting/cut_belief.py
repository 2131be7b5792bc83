"""The belief about the surface while it is cut, from dial and readings.

A tool takes a share of what stands before it, less what its edge pushes off; below a
depth that nobody knows it only rubs. What is not known is a normal distribution over
five things - the surface, the touch, how this setting came to lie, the share and the
push-off - and of such distributions a few are kept side by side: for each usual share,
for rubbing or biting, for a reading that was sound or a slip. The readings say which of
them this lathe is.
"""

import functools
import math
from typing import TYPE_CHECKING, Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.cutting.cut_state import CutEntry, CutState

if TYPE_CHECKING:
    import numpy as np

# what is not known: radial mm into the metal from where the cutting began; SHARE of one
SURFACE, TOUCH, SEAT, SHARE, PUSH = range(5)
AHEAD = (-1.0, 1.0, 1.0, 0.0, 0.0)  # with the dial: the metal before the tool

SHARES, SHARE_STEP = (0.64, 0.72, 0.80, 0.88, 0.96), 0.04  # one for each, give or take
SHARE_SIGMA, ODD_SIGMA, ODD = 0.05, 0.15, 0.3  # most lathes, and the odd one
PUSHES, PUSHES_SIGMA = 0.005, 0.003  # mm that an edge pushes off
RUBBING = ((0.5, 0.3), (0.9, 0.4), (1.3, 0.3))  # of the least pass, and how often
LEAST_RUB = 0.002  # mm: no edge bites below
SCALES = ((1.0, 0.94), (2.0, 0.03), (0.5, 0.03))  # the dial reads otherwise: rare
SLOWER, SLOWER_CHANCE = (0.95, 0.9, 0.85), 0.03  # a slide goes less than it says
RUB, RUB_SIGMA = 0.45, 0.26  # part of its take that a rubbing tool takes
FINDS, FINDS_SIGMA = 0.65, 0.15  # part of it that a pass without infeed takes
# mm by which a reading slips, and how often: a line, a figure, a whole turn
SLIPS = ((0.015, 0.004), (0.15, 0.0055), (5.0, 0.0005))
ALIKE = 6  # sigmas within which two odd readings say the same
KEPT, LEAST_CHANCE = 36, 1e-5  # distributions side by side
RULED_OUT = 0.03  # of the likeliest: less counts for nothing where one figure is told
REMEMBERED = 100  # lines of a log of which each one's belief is kept
LIKELY = 8e-3  # of those that are looked ahead with


class Belief(Struct, frozen=True, dict=True):
    """Distributions of what is not known, and where the tool stands."""

    chance: "np.ndarray"  # (n,)
    scale: "np.ndarray"  # (n,), by which the dial's travel is more than it says
    rubs: "np.ndarray"  # (n,), mm before the tool from where on it bites
    slip: "np.ndarray"  # (n,), 1 where the last reading was a slip
    mean: "np.ndarray"  # (n, 5)
    cov: "np.ndarray"  # (n, 5, 5)
    dial: float = 0.0  # radial mm from touch
    seen: int = 1  # readings since the last pass
    # what was read last, radial mm, where that was taken for a slip
    odd: float | None = None
    # how far off what was expected the last reading was, in sigmas
    surprise: float = 0.0
    # how well all readings were, the logarithm of their likelihood
    foreseen: float = 0.0

    @property
    def at(self) -> "np.ndarray":
        """Depth of the surface from the start by distribution, radial mm; (n,)."""
        return self.mean[:, SURFACE]

    @property
    def var(self) -> "np.ndarray":
        """The variance of each; (n,)."""
        return self.cov[:, SURFACE, SURFACE]

    @functools.cached_property
    def depth(self) -> float:
        """Depth of the surface from the start, radial mm."""
        chance, at, _ = self._main
        return float(chance @ at)

    @functools.cached_property
    def sigma(self) -> float:
        """One sigma of that depth, all of them together; mm."""
        chance, at, var = self._main
        off = at - chance @ at
        return float((chance @ (var + off**2)) ** 0.5)

    @functools.cached_property
    def _main(self) -> tuple["np.ndarray", "np.ndarray", "np.ndarray"]:
        """Chances, depths and variances without what is all but ruled out: it lies far
        off and drowns the rest."""
        of = self.chance > RULED_OUT * self.chance.max()
        chance = self.chance[of]
        return chance / chance.sum(), self.at[of], self.var[of]

    @property
    def share(self) -> float:
        """The share of what stands before the tool that it takes."""
        return float(self.chance @ self.mean[:, SHARE])

    @property
    def share_sigma(self) -> float:
        """One sigma of that share."""
        off = self.mean[:, SHARE] - self.share
        return math.sqrt(self.chance @ (off**2 + self.cov[:, SHARE, SHARE]))

    @property
    def taken(self) -> float:
        """The share of the dial that the tool takes, as far as is known."""
        share = self.mean[:, SHARE].clip(max=1.0)  # no tool takes what is not there
        return float(self.chance @ (share * self.scale))

    @property
    def doubted(self) -> float:
        """The chance that the last reading was a slip."""
        return float(self.chance @ self.slip)

    def likely(self) -> "Belief":
        """Only what is likely enough to weigh: all but one part in some hundreds."""
        import numpy as np

        of = np.flatnonzero(self.chance > LIKELY)
        return self._only(of, self.chance[of])

    def _only(self, of: Any, chance: Any) -> "Belief":
        """The distributions at these places, with new chances."""
        return replace(
            self,
            chance=chance / chance.sum(),
            scale=self.scale[of],
            rubs=self.rubs[of],
            slip=self.slip[of],
            mean=self.mean[of],
            cov=self.cov[of],
        )


@functools.cache
def _sums() -> tuple[Any, Any]:
    """The normal distribution's sum at even places."""
    import numpy as np

    at = np.linspace(-6.5, 6.5, 6501)
    return at, np.array([0.5 * (1 + math.erf(x / math.sqrt(2))) for x in at])


def phi(x: Any) -> Any:
    """The normal distribution's sum, elementwise, good to 2e-7: looked up, as it is
    asked thousands of times for one advice."""
    import numpy as np

    return np.interp(x, *_sums())


@functools.cache
def nodes(count: int = 5) -> tuple[Any, Any]:
    """Points of a normal distribution, in sigmas, and their weights."""
    import numpy as np

    at, weight = np.polynomial.hermite_e.hermegauss(count)
    return at, weight / weight.sum()


def first_belief(state: CutState) -> Belief:
    """Before any cut: the start as it was read, the touch as it may be off."""
    import numpy as np

    middle = (RUBBING[1][0], 1.0)
    rows = [
        (share, rubs * max(state.least, LEAST_RUB), scale, usual * often * read, slip)
        for slip, read in ((0.0, 1 - sum(often for _, often in SLIPS)), *SLIPS)
        for scale, usual in (*SCALES, *((share, 1.0) for share in SLOWER))
        if not slip or scale == 1
        for share in (SHARES[-1:] if scale in SLOWER else SHARES)
        for rubs, often in ((middle,) if slip or scale != 1 else RUBBING)
    ]
    share, rubs, scale, chance, slip = (
        np.array(column) for column in zip(*rows, strict=True)
    )
    off = share - state.ratio
    usual = (1 - ODD) * _bell(off, SHARE_SIGMA) + ODD * _bell(off, ODD_SIGMA)
    slower = np.isin(scale, SLOWER)
    chance *= np.where(slower, 1.0, usual)
    for of in (slower, ~slower):  # a slide's chance is its own
        chance[of] /= chance[of].sum()
    chance *= np.where(slower, SLOWER_CHANCE, 1 - SLOWER_CHANCE)
    # one sigma of the start as it was read, on the radius, squared
    reading = state.read_sigma**2 + slip**2
    mean, cov = np.zeros((len(rows), 5)), np.zeros((len(rows), 5, 5))
    mean[:, SHARE], mean[:, PUSH] = share, PUSHES
    # the tool was touched on the surface that was read: what that was off, both are
    cov[:, :SEAT, :SEAT] = reading[:, None, None]
    cov[:, TOUCH, TOUCH] += state.touch_sigma**2
    cov[:, SHARE, SHARE], cov[:, PUSH, PUSH] = SHARE_STEP**2, PUSHES_SIGMA**2
    return Belief(chance, scale, rubs, np.zeros(len(rows)), mean, cov)


def _bell(off: Any, sigma: Any) -> Any:
    import numpy as np

    return np.exp(-0.5 * (off / sigma) ** 2) / sigma


class Pass(Struct, frozen=True):
    """One pass, by distribution: first where it rubs, then where it bites."""

    chance: Any  # (..., 2n)
    # shift, narrower: (..., 2n), by how much the metal before the tool is more than it
    # was thought, and surer
    shift: Any
    narrower: Any
    pull: Any  # (2n, 5), what all the rest follows by
    before: Any  # (..., 2n), that metal
    take: Any  # (..., 2n), what comes off
    row: Any  # (..., 2n, 5), how much more of it for each thing not known
    rest: Any  # (..., 2n), its own variance


def set_to(belief: Belief, dial: float, state: CutState) -> Belief:
    """The belief once the tool stands at another line of the dial, before it cuts."""
    mean, cov = belief.mean.copy(), belief.cov.copy()
    mean[:, SEAT] = cov[:, SEAT, :] = cov[:, :, SEAT] = 0.0
    cov[:, SEAT, SEAT] = state.dial_sigma**2
    return replace(belief, mean=mean, cov=cov, dial=dial)


def _passes(belief: Belief, dial: Any, found: tuple[float, float]) -> Pass:
    """A pass of a tool that is set, to a dial position, radial mm from touch; or (m, 1)
    to weigh m of them. found: the part of its take that it takes, and one sigma."""
    import numpy as np

    ahead = belief.scale * dial + belief.mean @ np.array(AHEAD)
    along = belief.cov @ np.array(AHEAD)
    var = np.maximum(along @ np.array(AHEAD), 1e-12)
    sigma = np.sqrt(var)
    # a normal distribution cut in two at the depth from where on the tool bites
    edge = (belief.rubs - ahead) / sigma
    height = np.exp(-0.5 * edge**2) / math.sqrt(2 * math.pi)
    below = np.clip(phi(edge), 1e-9, 1 - 1e-9)
    low, high = height / below, height / (1 - below)
    shift = np.concatenate([-sigma * low, sigma * high], axis=-1)
    part = np.concatenate(
        [1 - edge * low - low**2, 1 + edge * high - high**2], axis=-1
    ).clip(1e-4, 1.0)
    chance = np.concatenate([belief.chance * below, belief.chance * (1 - below)], -1)
    before = twice(ahead) + shift
    spread = twice(sigma) * np.sqrt(part)
    z, w = nodes()
    there = np.maximum(before[..., None] + spread[..., None] * z, 0.0)
    share, push, rubs = (
        twice(values)[:, None]
        for values in (belief.mean[:, SHARE], belief.mean[:, PUSH], belief.rubs)
    )
    bites = biting(there, rubs)
    full = pushed_off(there, share, push, bites)
    count = len(belief.chance)
    takes = np.repeat([RUB, 1.0], count) * found[0]
    doubt = np.repeat([RUB_SIGMA, 0.0], count) * found[0] + found[1]
    take = full @ w * takes
    gain = (full * z) @ w / spread * takes
    of_share, of_push = there @ w * takes, -(bites @ w) * takes
    row = np.stack([-gain, gain, gain, of_share, of_push], axis=-1)
    own = (full**2) @ w
    rest = np.maximum(own * takes**2 - take**2 - (gain * spread) ** 2, 0.0)
    return Pass(
        chance,
        shift,
        twice(var) * (1 - part),
        twice(along / var[:, None], 0),
        before,
        take,
        row,
        rest + own * doubt**2,
    )


def biting(ahead: Any, rubs: Any) -> Any:
    """Share of the edge's push-off that acts: it fades with the depth of the bite."""
    import numpy as np

    return np.minimum(ahead / (2 * rubs), 1.0)


def pushed_off(ahead: Any, share: Any, push: Any, bites: Any) -> Any:
    """Metal removed by a tool that bites by so much; radial mm."""
    import numpy as np

    return np.maximum(share * ahead - push * bites, 0.0)


def rubbing(chance: Any) -> tuple[Any, Any]:
    """The part of its take that a tool takes where it rubs by such a chance, and the
    variance of that part."""
    part = 1 - chance * (1 - RUB)
    return part, chance * RUB_SIGMA**2 + chance * (1 - chance) * (1 - RUB) ** 2


def twice(values: Any, axis: int = -1) -> Any:
    """Repeats values: once for where the tool rubs, once for where it bites."""
    import numpy as np

    return np.concatenate([values, values], axis=axis)


class Ahead(Struct, frozen=True):
    """Surfaces that are known only so well, by distribution; each (..., n)."""

    chance: Any
    at: Any  # their depths and variances
    var: Any  # their depths and variances
    lag: Any  # how far each stands before the tool's line
    own: Any  # how much nearer to that it is for each mm that it is deeper than thought


def looked_ahead(belief: Belief, dials: Any, state: CutState) -> Ahead:
    """The surface after a pass to each of `dials`, (m, 1), radial mm from touch."""
    import numpy as np

    ready = set_to(belief, belief.dial, state)
    taken = _passes(ready, dials, (1.0, 0.0))
    at = twice(ready.at) + taken.pull[:, SURFACE] * taken.shift + taken.take
    row = taken.row.copy()
    row[..., SURFACE] += 1.0
    along = np.einsum("...ni,nij->...nj", row, twice(ready.cov, 0))
    pulled = (row * taken.pull).sum(axis=-1)
    var = (along * row).sum(axis=-1) - pulled**2 * taken.narrower + taken.rest
    touch = twice(ready.mean[:, TOUCH]) + taken.pull[:, TOUCH] * taken.shift
    with_touch = along[..., TOUCH] - pulled * taken.pull[:, TOUCH] * taken.narrower
    lag = twice(belief.scale) * dials + touch - at
    if state.spring_pass == "always":
        share, push, rubs = (
            twice(values)
            for values in (belief.mean[:, SHARE], belief.mean[:, PUSH], belief.rubs)
        )
        there = np.maximum(lag, 0.0)
        full = pushed_off(there, share, push, biting(there, rubs))
        full = full * np.where(there < rubs, RUB, 1.0)
        at, lag = at + FINDS * full, lag - FINDS * full
        var = var + (FINDS_SIGMA * full) ** 2
    var = np.maximum(var, 1e-12)
    return Ahead(taken.chance, at, var, lag, 1 - with_touch / var)


def as_it_is(belief: Belief) -> Ahead:
    """The surface as it stands, before anything more is done."""
    import numpy as np

    lag = belief.scale * belief.dial + belief.mean[:, TOUCH] - belief.at
    own = 1 - belief.cov[:, TOUCH, SURFACE] / np.maximum(belief.var, 1e-12)
    return Ahead(belief.chance, belief.at, belief.var, lag, own)


def _after(belief: Belief, taken: Pass) -> Belief:
    """The belief after a pass: what each distribution learns from rubbing or biting."""
    import numpy as np

    keep = np.argsort(-taken.chance)[:KEPT]
    keep = keep[taken.chance[keep] > LEAST_CHANCE]
    left = belief._only(keep % len(belief.chance), taken.chance[keep])
    pull = taken.pull[keep]
    mean = left.mean + pull * taken.shift[keep, None]
    cov = (
        left.cov
        - pull[:, :, None] * pull[:, None, :] * taken.narrower[keep, None, None]
    )
    mean[:, SURFACE] += taken.take[keep]
    # the surface moves by what is taken, and is in doubt with all that this rests on
    row = taken.row[keep]
    along = np.einsum("ni,nij->nj", row, cov)
    cov[:, SURFACE, :] += along
    cov[:, :, SURFACE] += along
    cov[:, SURFACE, SURFACE] += (row * along).sum(axis=1) + taken.rest[keep]
    slip = np.zeros(len(keep))
    return replace(
        left,
        mean=mean,
        cov=cov,
        seen=0,
        slip=slip,
        odd=None,
    )


def cut_to(belief: Belief, dial: float, state: CutState) -> Belief:
    """The belief after one pass at a dial position, radial mm from touch: the first
    one at it, or one more without moving."""
    if dial > belief.dial + 1e-9:
        belief = set_to(belief, dial, state)
        return _after(belief, _passes(belief, dial, (1.0, 0.0)))
    return _after(belief, _passes(belief, dial, (FINDS, FINDS_SIGMA)))


@functools.lru_cache(maxsize=256)
def cut_from(state: CutState, dial: float) -> Belief:
    """The belief after one pass at a dial position, from where a state that has its
    start stands. What is advised is mostly done: then it is known already."""
    return cut_to(belief_of(state), dial, state)


def passed_at(dial: float, state: CutState) -> Belief:
    """The belief after an advised cut; one school takes a spring pass after each."""
    made = cut_from(state, dial)
    return cut_to(made, dial, state) if state.spring_pass == "always" else made


def read_at(belief: Belief, depth: float, sigma: float) -> Belief:
    """The belief after a reading of the surface; depth, sigma: radial mm. It may be
    sound, or a slip by little or by much: what comes later tells."""
    import numpy as np

    sound = 1 - sum(chance for _, chance in SLIPS)
    off = depth - belief.at
    chances, means, covs = [], [], []
    for wide, often in ((0.0, sound), *SLIPS):
        total = belief.var + sigma**2 + wide**2
        chances.append(belief.chance * often * _bell(off, np.sqrt(total)))
        gain = belief.cov[:, :, SURFACE] / total[:, None]
        means.append(belief.mean + gain * off[:, None])
        covs.append(belief.cov - gain[:, :, None] * belief.cov[:, None, SURFACE, :])
    count = len(belief.chance)
    chance = np.concatenate(chances)
    foreseen = belief.foreseen + math.log(max(float(chance.sum()), 1e-12))
    if not chance.sum() > 0:  # far off all that is believed: a slip, whatever it was
        chance[-count:] = belief.chance
    chance = chance / chance.sum()
    keep = np.argsort(-chance)[:KEPT]
    keep = keep[chance[keep] > LEAST_CHANCE]
    found = replace(
        belief._only(keep % count, chance[keep]),
        mean=np.concatenate(means)[keep],
        cov=np.concatenate(covs)[keep],
        slip=(keep >= count).astype(float),
        seen=belief.seen + 1,
        odd=None,
        surprise=abs(depth - belief.depth) / math.hypot(belief.sigma, sigma),
        foreseen=foreseen,
    )
    if found.doubted < 0.5:
        return found
    if belief.odd is not None and abs(depth - belief.odd) < ALIKE * sigma:
        return _begun_again(belief, (depth + belief.odd) / 2, sigma)
    return replace(found, odd=depth)


def _begun_again(belief: Belief, depth: float, sigma: float) -> Belief:
    """Two odd readings alike overrule what was believed: the tool or the work moved."""
    import numpy as np

    mean, cov = belief.mean.copy(), belief.cov.copy()
    shift = depth - belief.depth
    mean[:, SURFACE], mean[:, TOUCH] = depth, mean[:, TOUCH] + shift
    cov[:, SURFACE, :] = cov[:, :, SURFACE] = 0.0
    cov[:, SURFACE, SURFACE] = sigma**2 / 2
    cov[:, TOUCH, TOUCH] += shift**2
    sound = np.zeros(len(mean))
    return replace(
        belief, mean=mean, cov=cov, slip=sound, seen=belief.seen + 1, odd=None
    )


@functools.lru_cache(maxsize=1024)
def belief_of(state: CutState) -> Belief:
    """The belief after the whole log of a state that has its start."""
    if not state.entries:
        return first_belief(state)
    if len(state.entries) > REMEMBERED:
        belief = first_belief(state)
        for entry in state.entries:
            belief = _entered(belief, entry, state)
        return belief
    # a log grows line by line: what was believed before the last one is known
    before = replace(state, entries=state.entries[:-1])
    return _entered(belief_of(before), state.entries[-1], state, before)


def _entered(
    belief: Belief, entry: CutEntry, state: CutState, before: CutState | None = None
) -> Belief:
    """The belief after one more line of the log; before: the state that it was of."""
    assert state.start is not None
    passes = entry.spring + (entry.dial > belief.dial + 1e-9)
    if passes and before is not None:
        belief, passes = cut_from(before, entry.dial), passes - 1
    for _ in range(passes):
        belief = cut_to(belief, entry.dial, state)
    if entry.measured is None:
        return belief
    sign = 1 if state.external else -1
    depth = sign * (state.start - entry.measured) / 2
    return read_at(belief, depth, state.read_sigma)
