"""What the work is worth as it stands, and after whatever could be done next.

A piece in the band counts one, a piece past it less than nothing, and each cut and
reading takes a little. From the metal left, how well it is known and what the next
small cut may do, the best way on is found backwards from the end: stop, read again, or
so many divisions more. Lengths are radial mm.
"""

import functools
import math
from typing import Any

from msgspec import Struct

from machinon.core.cutting.cut_belief import (
    Belief,
    cut_to,
    looked_ahead,
    nodes,
    passed_at,
    phi,
)
from machinon.core.cutting.cut_state import CutState

# what a scrapped piece costs besides not being in the band; less where the gauge's zero
# was not checked, as no caution at the dial makes up for that
PAST, PAST_UNCHECKED = 3.0, 1.5
CUT, READ = 0.006, 0.008  # what a cut, and a reading, must gain to be worth its time
NEVER = -9.0  # of what cannot be done
FLOOR = 0.0013  # mm by which any cut comes out other than it was thought
TURNS = 6  # cuts looked ahead
LADDER = (1, 2, 3, 4, 5, 6, 8, 10, 13, 16, 20)  # divisions that a cut to come may take
PLACES = 160  # of the metal left that are weighed
MARGIN, ROOM = 0.015, 0.06  # mm weighed past the band, and before it at the least
OVERS, MOST_OVER = 8, 0.12  # of what sprang away: how many are weighed, and up to what
CANDIDATES, SMALL = 24, 6  # dial positions weighed for one cut, and smallest steps
LEAST_FOUND = 0.0005  # mm: a pass without infeed that takes less is none


class Chances(Struct, frozen=True):
    """Of being in the band, and past the limit that cannot be undone."""

    inside: float
    past: float


class _Table:
    """Worths by the metal left to the aim, at even places; (p,).

    enters, leaves: from the aim back to where the band begins, and on to where it ends;
    room: what is weighed before it; zero, read: variances of the gauge's zero and of a
    reading; all radial; costs: what a piece past the band does.
    """

    def __init__(
        self,
        enters: float,
        leaves: float,
        room: float,
        zero: float,
        read: float,
        costs: float,
    ) -> None:
        import numpy as np

        self.enters, self.leaves, self.zero, self.read = enters, leaves, zero, read
        self.costs = costs
        self.places = np.linspace(-leaves - MARGIN, enters + room, PLACES)
        self.overs = self.cut = np.zeros(0)

    def once_read(self, var: Any) -> Any:
        """What a reading leaves of a variance."""
        return var * self.read / (var + self.read)

    def ended(self, var: Any) -> Any:
        """Of surfaces known with these variances, (m,), left as they are; (m, p)."""
        import numpy as np

        sigma = np.sqrt(var + self.zero)[:, None]
        past = phi((-self.leaves - self.places) / sigma)
        short = phi((self.places - self.enters) / sigma)
        return np.maximum(1 - past - short, 0.0) - self.costs * past

    def blurs(self, sigma: Any) -> tuple[Any, Any, Any]:
        """How to see places known only so well, (m,): the places about each, (m, 5, p),
        one after each of those, and how far it is on to that, (m, 5, 1)."""
        import numpy as np

        z, _ = nodes()
        off = sigma[:, None] * z / (self.places[1] - self.places[0])
        down = np.floor(off)
        near = np.arange(PLACES) + down[..., None].astype(int)
        near = np.minimum(np.maximum(near, 0), PLACES - 1)
        return near, np.minimum(near + 1, PLACES - 1), (off - down)[..., None]

    def build(self, doubts: Any, takes: Any, overs: Any, first: Any) -> None:
        """Look back from the last cut to the next.

        doubts: (t,), variance of each cut to come before it is read; takes: (n,), what
        later ones take; first: (k, n), what the one after the next takes, by what
        sprang away before it, `overs`, (k,).
        """
        import numpy as np

        one = self.once_read(doubts)
        two = self.once_read(one)
        ends, ends_again = self.ended(one), self.ended(two)
        told, again = self.blurs(np.sqrt(doubts - one)), self.blurs(np.sqrt(one - two))
        _, w = nodes()

        def blurred(worth: Any, blurs: tuple[Any, Any, Any], turn: int) -> Any:
            near, far, part = (one[turn] for one in blurs)
            return w @ (worth[..., near] * (1 - part) + worth[..., far] * part)

        def surface(turn: int, cut: Any) -> Any:
            """Of one that a cut left, once read: end, read again, or cut."""
            second = blurred(np.maximum(ends_again[turn], cut), again, turn) - READ
            return np.maximum(np.maximum(ends[turn], cut), second)

        def cutting(turn: int, after: Any, takes: Any) -> Any:
            seen = blurred(after, told, turn)
            there = np.interp(self.places - takes[..., None], self.places, seen)
            return there.max(axis=-2) - CUT - READ

        last = len(doubts) - 1
        after = surface(last, np.full(PLACES, -1.0))
        for turn in range(last - 1, 0, -1):
            after = surface(turn, cutting(turn, after, takes))
        self.overs, self.cut = overs, surface(0, cutting(0, after, first))

    def after_cut(self, over: Any) -> Any:
        """Of a surface that the next cut leaves, once it is read, where the smallest
        one after it takes so much besides its own; over: (m,), gives (m, p)."""
        import numpy as np

        k = np.searchsorted(self.overs, over) - 1
        k = np.minimum(np.maximum(k, 0), len(self.overs) - 2)
        width = self.overs[k + 1] - self.overs[k]
        part = np.clip((over - self.overs[k]) / width, 0.0, 1.0)[:, None]
        return self.cut[k] * (1 - part) + self.cut[k + 1] * part

    def once_more(self, sigma: float, takes: Any, doubts: Any, over: Any) -> Any:
        """Of the surface as it is, one sigma known, once it is read again; (p,).

        takes, doubts, over: (n,), of a cut from it what it takes, its variance, and
        what the smallest one after it takes besides.
        """
        import numpy as np

        told = np.sqrt(np.maximum(doubts - self.once_read(doubts), 0.0))
        near, far, part = self.blurs(told)
        rows = self.after_cut(over)[:, None, :]
        _, w = nodes()
        seen = w @ (
            np.take_along_axis(rows, near, -1) * (1 - part)
            + np.take_along_axis(rows, far, -1) * part
        )
        there = self.places - takes[:, None]
        cut = np.max(
            [
                np.interp(at, self.places, row)
                for at, row in zip(there, seen, strict=True)
            ],
            axis=0,
        )
        ended = self.ended(self.once_read(np.array([sigma**2])))[0]
        return np.maximum(ended, cut - CUT - READ)


class Worths:
    """The band as depths into the metal, and what a belief is worth against it."""

    def __init__(self, state: CutState, belief: Belief) -> None:
        assert state.start is not None
        self.state, self.belief = state, belief
        self.likely = belief.likely()  # what is all but ruled out costs only time
        self.sign = 1 if state.external else -1
        near, far = state.upper, state.lower
        if not state.external:
            near, far = far, near
        self.enter, self.leave, self.aim = (
            self.sign * (state.start - size) / 2 for size in (near, far, state.aim)
        )
        self.read = state.read_sigma
        # a zero that nobody checked is as doubtful as a reading: half of that
        checked = state.zero_sigma < 0.4 * state.uncertainty
        self.costs = PAST if checked else PAST_UNCHECKED

    def size(self, belief: Belief) -> float:
        """Where a belief has the surface, mm on the diameter."""
        assert self.state.start is not None
        return float(self.state.start - self.sign * 2 * belief.depth)

    def chances(self, belief: Belief) -> Chances:
        """Of a surface as it is believed to be, the gauge's zero in doubt as well."""
        import numpy as np

        sigma = np.sqrt(belief.var + (self.state.zero_sigma / 2) ** 2)
        short = float(phi((self.enter - belief.at) / sigma) @ belief.chance)
        past = float((1 - phi((self.leave - belief.at) / sigma)) @ belief.chance)
        return Chances(max(1 - short - past, 0.0), past)

    def ended(self, now: Chances) -> float:
        """Of the surface left as it is."""
        return now.inside - self.costs * now.past

    def read_again(self) -> float:
        """Of one more reading of the surface."""
        _, *steps = self._steps
        row = self._table.once_more(self.belief.sigma, *steps)
        return self._once_read(row[None, :], self.belief) - READ

    def sprung(self) -> float:
        """Of a pass without infeed, and its reading."""
        after = cut_to(self.belief, self.belief.dial, self.state)
        if after.depth - self.belief.depth < LEAST_FOUND:
            return NEVER
        return self._once_read(self._table.cut[:1], after) - CUT - READ

    def best_cut(self) -> tuple[float, float]:
        """The dial position that is worth most, radial mm from touch; and its worth."""
        import numpy as np

        belief, division = self.belief, self.state.division
        need = max(self.aim - belief.depth, 0.0) / max(belief.taken, 0.1)
        first = whole(belief.dial, division) + division
        room = min(1.15 * need + 3 * division, max(self.state.deepest, division))
        count = max(int(room / division + 1e-6), 1)
        # far from size a small step only costs time; and by lines wider than the band
        # it only leads to the same lines
        coarse = 2 * division > self.state.upper - self.state.lower
        far, part = (3 * division, 0.5) if coarse else (4 * ROOM, 1 / 6)
        least = int(part * need / division) if need > far else 0
        least = min(least, count - 1)
        steps = np.arange(least, count, max((count - least) // CANDIDATES, 1))
        if not least:
            steps = np.union1d(steps, np.arange(min(SMALL, count)))
        dials = first + division * steps
        chance, at, var, over = looked_ahead(self.likely, dials[:, None], self.state)
        worth = self._expected(self._table.after_cut(over), chance, at, var)
        best = int(np.argmax(worth))
        return float(dials[best]), float(worth[best]) - CUT - READ

    def room_for_a_line(self) -> bool:
        """Whether the smallest cut stays before the aim, two sigma sure."""
        _, takes, doubts, _ = self._steps
        left = self.aim - self.belief.depth
        return bool(takes[0] + 2 * math.sqrt(doubts[0]) < left)

    def after(self, dial: float) -> Belief:
        """The belief after an advised cut."""
        return passed_at(self.belief, dial, self.state)

    def _once_read(self, rows: Any, after: Belief) -> float:
        found = self._expected(
            rows, after.chance, after.at[None, :], after.var[None, :]
        )
        return float(found[0])

    def _expected(self, rows: Any, chance: Any, at: Any, var: Any) -> Any:
        """What readings of surfaces will say they are worth; each (m, n) to (m,)."""
        import numpy as np

        z, w = nodes()
        told = var / np.sqrt(var + self.read**2)
        left = self.aim - at[..., None] - told[..., None] * z
        places = self._table.places
        found = np.stack(
            [np.interp(one, places, row) for one, row in zip(left, rows, strict=True)]
        )
        # beyond the table one measured cut more brings it to a fifth
        far = np.log(np.maximum(left / places[-1], 1.0)) / math.log(5)
        found -= (CUT + READ) * far
        return ((found @ w) * chance).sum(axis=-1)

    @functools.cached_property
    def _steps(self) -> tuple[Any, Any, Any, Any]:
        """Of cuts of so many divisions from here: the steps, what they take, its
        variance, and what the smallest cut after each takes besides; each (n,)."""
        import numpy as np

        steps = np.array(LADDER) * self.state.division
        dials = (self.belief.dial + steps)[:, None]
        chance, at, var, over = looked_ahead(self.likely, dials, self.state)
        depth = (chance * at).sum(axis=1)
        doubts = (chance * (var + (at - depth[:, None]) ** 2)).sum(axis=1)
        return steps, depth - self.belief.depth, doubts, over

    @functools.cached_property
    def _table(self) -> _Table:
        import numpy as np

        state, share = self.state, self.belief.share
        steps, _, doubts, _ = self._steps
        table = _Table(
            self.aim - self.enter,
            self.leave - self.aim,
            max(ROOM, 1.3 * float(steps[-1])),
            (state.zero_sigma / 2) ** 2,
            self.read**2,
            self.costs,
        )
        # each cut that is read tells where the tool stands: the next is surer
        seat = state.dial_sigma**2 + FLOOR**2
        known = self.read**2 + seat
        doubt, tool = [], max(float(doubts[0]) - seat, 0.0)
        for _ in range(TURNS):
            tool = tool * known / (tool + known)
            doubt.append(seat + tool)
        # like cuts take nearly all that is dialled; after a deep one what sprang away
        # comes off with the smallest
        overs = np.geomspace(
            state.division / 2, max(MOST_OVER, state.division), OVERS - 1
        )
        overs = np.append(0.0, overs)
        table.build(
            np.array(doubt),
            steps * (1 + share) / 2,
            overs,
            share * steps + overs[:, None],
        )
        return table


def whole(depth: float, division: float) -> float:
    """A depth rounded down to whole graduations, radial mm."""
    return math.floor(depth / division + 1e-6) * division
