"""The worth of the work as it stands, and after each possible next act.

A piece in the band counts one, a piece past it less than nothing, and each cut and
reading takes a little. What is done next is weighed by all that is believed; what may
follow it, by the plan that was made from the end. Lengths are radial mm.
"""

import functools
import math
from typing import TYPE_CHECKING, Any

from msgspec import Struct

from machinon.core.cutting.cut_belief import (
    PUSH,
    Ahead,
    Belief,
    as_it_is,
    cut_from,
    looked_ahead,
    nodes,
    passed_at,
    phi,
)
from machinon.core.cutting.cut_plan import (
    CUT,
    LEARNS,
    PAST,
    READ,
    ROOM,
    CutWorths,
    EndWorth,
    ThisLathe,
    once_read,
)
from machinon.core.cutting.cut_state import CutState

if TYPE_CHECKING:
    import numpy as np

NEVER = -9.0  # of what cannot be done
FLOOR = 0.0013  # mm by which any cut comes out other than it was thought
LEAST_FOUND = 0.0005  # mm: a pass without infeed that takes less is none
CANDIDATES, SMALL = 24, 6  # dial positions weighed for one cut, and smallest steps


class Chances(Struct, frozen=True):
    """Chances of being in the band, and past the limit that cannot be undone."""

    inside: float
    past: float


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
        self._band = EndWorth(
            self.aim - self.enter,
            self.leave - self.aim,
            (state.zero_sigma / 2) ** 2,
        )

    def size(self, belief: Belief) -> float:
        """The size that a belief expects, mm on the diameter."""
        assert self.state.start is not None
        return float(self.state.start - self.sign * 2 * belief.depth)

    def chances(self, belief: Belief) -> Chances:
        """Chances of a surface as it is believed to be, with the uncertainty of the
        gauge's zero."""
        import numpy as np

        sigma = np.sqrt(belief.var + (self.state.zero_sigma / 2) ** 2)
        short = float(phi((self.enter - belief.at) / sigma) @ belief.chance)
        past = float((1 - phi((self.leave - belief.at) / sigma)) @ belief.chance)
        return Chances(max(1 - short - past, 0.0), past)

    def ended(self, now: Chances) -> float:
        """The worth of ending with the surface as it is."""
        return now.inside - PAST * now.past

    def read_again(self) -> float:
        """The worth of one more reading: the surface is then left, or cut."""
        import numpy as np

        now = as_it_is(self.belief)
        left, lag, sure = self._told(now)
        plan = self._plan
        onward = plan.at(plan.passed, left, lag) - self._hoped(plan.passed)
        ended = self._band.ended(left, sure[..., None])
        return float(self._expected(now, np.maximum(ended, onward))) - READ

    @functools.cached_property
    def after_spring(self) -> Belief:
        """The belief after a pass without infeed."""
        return cut_from(self.state, self.belief.dial)

    def sprung(self) -> float:
        """The worth of a pass without infeed, and its reading."""
        if self.after_spring.depth - self.belief.depth < LEAST_FOUND:
            return NEVER
        worth = float(self._passed(as_it_is(self.after_spring)))
        return worth - self._hoped(self._plan.cut)

    @functools.cached_property
    def best_cut(self) -> tuple[float, float]:
        """The dial position that is worth most, radial mm from touch; and its worth."""
        import numpy as np

        dials, then, weighed = self._ahead
        worth = np.where(weighed, self._passed(then), NEVER)
        best = int(np.argmax(worth))
        return float(dials[best]), float(worth[best])

    @functools.cached_property
    def _ahead(self) -> tuple["np.ndarray", Ahead, "np.ndarray"]:
        """The dial positions of a cut of one division and of all that are weighed,
        radial mm from touch; the surfaces after them; and which are weighed."""
        import numpy as np

        belief, division = self.belief, self.state.division
        need = max(self.aim - belief.depth, 0.0) / max(belief.taken, 0.1)
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
        steps = np.union1d(steps, [0])
        dials = whole(belief.dial, division) + division * (1 + steps)
        then = looked_ahead(self.likely, dials[:, None], self.state)
        return dials, then, steps >= least

    def room_for_a_line(self) -> bool:
        """Whether the smallest cut stays before the aim, two sigma sure."""
        depth, var = self._a_line
        return bool(depth + 2 * math.sqrt(var) < self.aim)

    def _hoped(self, worth: Any) -> float:
        """How far the plan overrates going on from here against the worth of the next
        cut: an act must not be put off on the strength of that."""
        now = as_it_is(self.likely)
        said = self._plan.at(worth, self.aim - now.at, now.lag) @ now.chance
        return max(float(said) - self.best_cut[1], 0.0)

    def _passed(self, then: Ahead) -> "np.ndarray":
        """The worth of a pass that leaves such surfaces, and its reading."""
        left, lag, _ = self._told(then)
        worth = self._expected(then, self._plan.at(self._plan.read, left, lag))
        return worth - CUT - READ

    def _told(self, then: Ahead) -> tuple[Any, Any, Any]:
        """Outcomes of a reading: the metal left and the lag, (..., n, q), and the
        variances that stay, (..., n)."""
        z, _ = nodes()
        told, stays = once_read(then.var, self.read**2)
        said = told[..., None] * z
        left = self.aim - then.at[..., None] - said
        lag = then.lag[..., None] - then.own[..., None] * said
        return left, lag, stays

    def _expected(self, then: Ahead, worth: Any) -> "np.ndarray":
        """The mean of worths, (..., n, q), by reading and by distribution."""
        import numpy as np

        _, w = nodes()
        return np.asarray(((worth @ w) * then.chance).sum(axis=-1))

    def after(self, dial: float) -> Belief:
        """The belief after an advised cut."""
        return passed_at(dial, self.state)

    @functools.cached_property
    def _a_line(self) -> tuple[float, float]:
        """The surface after a cut of one division, and its variance."""
        _, then, _ = self._ahead
        chance, at, var = then.chance[0], then.at[0], then.var[0]
        depth = float((chance * at).sum())
        return depth, float((chance * (var + (at - depth) ** 2)).sum())

    @functools.cached_property
    def _plan(self) -> CutWorths:
        state, likely = self.state, self.likely
        # each cut that is read tells where the tool stands: the next is surer
        seat, read = state.dial_sigma**2 + FLOOR**2, self.read**2
        tools, tool = [], max(self._a_line[1] - seat, 0.0)
        for _ in range(LEARNS):
            tool = tool * (read + seat) / (tool + read + seat)
            tools.append(tool)
        rubs = float(likely.chance @ likely.rubs)
        return CutWorths(
            self._band,
            ThisLathe(
                share=min(likely.share, 1.0),
                push=float(likely.chance @ likely.mean[:, PUSH]),
                rubs=rubs,
                rubs_sigma=float(likely.chance @ (likely.rubs - rubs) ** 2) ** 0.5,
                division=state.division,
                seat=seat,
                tools=tuple(tools),
                read=read,
                springs=state.spring_pass != "never",
                again=state.spring_pass == "always",
            ),
        )


def whole(depth: float, division: float) -> float:
    """A depth rounded down to whole graduations, radial mm."""
    return math.floor(depth / division + 1e-6) * division
