"""The best way on from any surface that has just been read, found from the end.

Two things tell how to go on: the metal left to the aim, and how far the surface still
stands before the tool's line, as that springs away and comes off with the next pass.
From the last cut backwards, the worth of each such state is that of the best of ending
there, reading once more, a pass without infeed, or so many divisions and a reading. How
a setting came to lie stays with that cut: the dial, not the surface, is where the next
one starts from. Lengths are radial mm.
"""

import math
from typing import Any

from msgspec import Struct

from machinon.core.cutting.cut_belief import (
    FINDS,
    FINDS_SIGMA,
    biting,
    nodes,
    phi,
    pushed_off,
    rubbing,
)

# what a cut and a reading must gain to be worth their time, and what a scrapped piece
# costs besides not being in the band
CUT, READ, PAST = 0.008, 0.006, 2.0
TURNS = 8  # cuts looked ahead
LEARNS = 4  # of them that make the place of the tool surer for the next
LADDER = (1, 2, 3, 4, 6, 9, 13, 20)  # divisions that a cut to come may take
# mm that a surface may stand before the tool's line; behind it, where that lay deeper
LAGS = (-0.006, -0.003, 0.0, 0.003, 0.006, 0.010, 0.016, 0.025, 0.040, 0.070, 0.120)
PLACES = 96  # of the metal left that are weighed
MARGIN, ROOM = 0.015, 0.06  # mm weighed past the band, and before it at the least
FAR = 3  # places where a normal distribution is asked for what lies far ahead
LOST = -1.0  # of a surface from which nothing more may be done


class EndWorth(Struct, frozen=True):
    """The worth of a surface left as it is."""

    enters: float  # from the aim back to where the band begins
    leaves: float  # from the aim on to where it ends
    zero: float  # variance of the gauge's zero

    def ended(self, left: Any, var: Any) -> Any:
        """The worth of ending with so much left to the aim, known with these
        variances."""
        import numpy as np

        sigma = np.sqrt(var + self.zero)
        past = phi((-self.leaves - left) / sigma)
        short = phi((left - self.enters) / sigma)
        return np.maximum(1 - past - short, 0.0) - PAST * past


class ThisLathe(Struct, frozen=True):
    """The lathe as it is known at this point of the work."""

    # share, push, rubs, rubs_sigma: what the tool takes of the metal before it, what
    # its edge pushes off, and from where on it bites
    share: float
    push: float
    rubs: float
    rubs_sigma: float
    division: float  # of the dial
    seat: float  # variance of how a setting comes to lie
    # variances of where the tool's line is, at each cut to come; the last for all after
    tools: tuple[float, ...]
    read: float  # variance of a reading
    springs: bool  # whether a pass without infeed may be taken
    again: bool  # whether one follows each cut

    def takes(self, ahead: Any, var: Any) -> tuple[Any, Any]:
        """A pass with so much metal before the tool, uncertain by a variance: the metal
        it removes, and the variance that rubbing adds."""
        import numpy as np

        there = np.maximum(ahead, 0.0)
        full = pushed_off(there, self.share, self.push, biting(there, self.rubs))
        below = phi((self.rubs - ahead) / np.sqrt(var + self.rubs_sigma**2))
        part, doubt = rubbing(below)
        return full * part, full**2 * doubt


def once_read(var: Any, read: float) -> tuple[Any, Any]:
    """Spread of the reading of a surface known with a variance, one sigma; and the
    variance that is left afterwards."""
    import numpy as np

    return var / np.sqrt(var + read), var * read / (var + read)


class _Passes(Struct, frozen=True):
    """The effect of passes from each lag, (t, k, n): by turn, lag and pass."""

    takes: Any  # what comes off
    stays: Any  # what then stands before the tool
    var: Any  # variance of the surface
    own: Any  # how much nearer to the tool's line it is for each mm deeper


class CutWorths:
    """Worths by lag and by the metal left, at even places; each (k, p).

    read: of a surface once it is read, whatever is best; cut: of going on from it by a
    cut; passed: the same, or by a pass without infeed.
    """

    def __init__(self, band: EndWorth, lathe: ThisLathe) -> None:
        import numpy as np

        self.band = band
        self.lags = np.array(LAGS)
        room = max(ROOM, 1.3 * LADDER[-1] * lathe.division)
        self.places = np.linspace(-band.leaves - MARGIN, band.enters + room, PLACES)
        self.width = float(self.places[1] - self.places[0])
        # the first and the last place stand for all beyond them
        self._wide = np.zeros((len(LAGS), 3 * PLACES + 1), np.float32)
        self._seen = np.lib.stride_tricks.sliding_window_view(
            self._wide, PLACES + 1, axis=1
        )
        self._look_back(lathe)

    def _look_back(self, lathe: ThisLathe) -> None:
        """Works out the worths backwards, from the last cut to the next."""
        import numpy as np

        read, doubt = lathe.read, lathe.seat + np.array(lathe.tools)
        _, sure = once_read(doubt, read)
        told, two = once_read(sure, read)
        ended, ended_again = (
            self.band.ended(self.places, var[:, None]).astype(np.float32)
            for var in (sure, two)
        )
        z, w = nodes(FAR)
        rows = np.arange(len(LAGS))[:, None]
        again = rows, *self._shifted(told[:, None, None] * z, w)
        passes = _passes(self.lags, lathe, doubt[:, None, None])
        ways = self._once_passed(passes, read)
        after = np.full((len(LAGS), 1, PLACES), LOST, np.float32)
        self.read = after[:, 0]
        for turn in range(TURNS - 1, -1, -1):
            as_sure = min(turn, len(lathe.tools) - 1)
            if turn < TURNS - 1:
                after = self._moved(self.read, ways, as_sure)
            self.passed = after.max(axis=1) - CUT - READ
            second = np.maximum(ended_again[as_sure], self.passed)
            self.read = np.maximum(
                np.maximum(ended[as_sure], self.passed),
                self._moved(second, again, as_sure) - READ,
            )
        self.cut = after[:, : len(LADDER)].max(axis=1) - CUT - READ

    def at(self, worth: Any, left: Any, lag: Any) -> Any:
        """A worth of this plan at single states; left and lag go together in shape."""
        import numpy as np

        k, part = self._between(lag)
        place = _within((left - self.places[0]) / self.width, 0.0, PLACES - 1.001)
        j = place.astype(int)
        on = place - j
        flat, at = worth.ravel(), k * PLACES + j
        near = flat[at] * (1 - on) + flat[at + 1] * on
        at = at + PLACES
        far = flat[at] * (1 - on) + flat[at + 1] * on
        # beyond the table one measured cut more brings it to a fifth
        beyond = np.log(np.maximum(left / self.places[-1], 1.0)) / math.log(5)
        return near * (1 - part) + far * part - (CUT + READ) * beyond

    def _between(self, lag: Any) -> tuple[Any, Any]:
        """The lag below, and how far on it is to the next."""
        import numpy as np

        k = _within(np.searchsorted(self.lags, lag) - 1, 0, len(LAGS) - 2)
        low = self.lags[k]
        return k, _within((lag - low) / (self.lags[k + 1] - low), 0.0, 1.0)

    def _once_passed(self, passes: _Passes, read: float) -> tuple[Any, Any, Any]:
        """The worth of going on from the readings after passes."""
        import numpy as np

        z, w = nodes(FAR)
        told, _ = once_read(passes.var, read)
        said = told[..., None] * z
        k, part = self._between(passes.stays[..., None] - passes.own[..., None] * said)
        start, weights = self._shifted(-(passes.takes[..., None] + said), w)
        part = part.astype(np.float32)[..., None, :]
        return (
            np.concatenate([k, k + 1], axis=-1),
            np.concatenate([start, start], axis=-1),
            np.concatenate([weights * (1 - part), weights * part], axis=-1),
        )

    def _shifted(self, off: Any, weight: Any) -> tuple[Any, Any]:
        """The places where rows of worths that are shifted by an offset, (..., q),
        start; and the weights of what is seen from there and from one place on,
        (..., 2, q)."""
        import numpy as np

        shift = off / self.width
        down = np.floor(shift)
        on = shift - down
        weights = np.stack([weight * (1 - on), weight * on], axis=-2)
        return (
            _within(down.astype(int) + PLACES, 0, 2 * PLACES),
            weights.astype(np.float32),  # half of the time
        )

    def _moved(self, worth: Any, moves: tuple[Any, Any, Any], turn: int) -> Any:
        """The sums of rows of a worth, so seen; (..., p)."""
        wide, (rows, start, weights) = self._wide, moves
        wide[:, :PLACES] = worth[:, :1]
        wide[:, PLACES : 2 * PLACES] = worth
        wide[:, 2 * PLACES :] = worth[:, -1:]
        rows = rows[turn] if rows.ndim > 2 else rows
        found = weights[turn] @ self._seen[rows, start[turn]]
        return found[..., 0, :-1] + found[..., 1, 1:]


def _within(values: Any, least: float, most: float) -> Any:
    """Values held within limits, in half of the time that `numpy.clip` takes."""
    import numpy as np

    return np.minimum(np.maximum(values, least), most)


def _passes(lags: Any, lathe: ThisLathe, doubt: Any) -> _Passes:
    """Cuts of so many divisions, and last a pass without infeed where one may be taken;
    doubt: (t, 1, 1), the variance of where the tool stands."""
    import numpy as np

    steps = np.array(LADDER) * lathe.division
    ahead = lags[:, None] + steps
    takes, rubs = lathe.takes(ahead, doubt)
    stays = ahead - takes
    if lathe.again:
        found, _ = lathe.takes(stays, doubt)
        takes, stays = takes + FINDS * found, stays - FINDS * found
    var = lathe.share**2 * doubt + rubs
    # what this setting or the rubbing did goes on the surface; the line stays
    own = (lathe.share**2 * lathe.seat + rubs) / var
    if not lathe.springs:
        return _Passes(takes, stays, var, own)
    full, rubs = lathe.takes(lags[:, None], doubt)
    spring = FINDS * full
    found = FINDS**2 * rubs + (FINDS_SIGMA * full) ** 2 + 1e-8
    return _Passes(
        np.concatenate([takes, spring], axis=-1),
        np.concatenate([stays, lags[:, None] - spring], axis=-1),
        np.concatenate([var, found], axis=-1),
        np.concatenate([own, np.ones_like(spring)], axis=-1),
    )
