"""The boring bar that a hole lets in, and how far it sticks out; shop rules."""

from typing import NamedTuple

from machinon.core.piece.turned_features import Bore
from machinon.core.route.in_process import BESIDE
from machinon.core.route.steps import StepTold

GOES_IN = 0.75  # of the hole's diameter: the rest is room for the bit and the chips


class Bar(NamedTuple):
    """The thickest bar for a bore, and how far it sticks out; mm. through: it may come
    from either end."""

    thick: float
    out: float
    through: bool

    @property
    def slender(self) -> float:
        """How many times its thickness it sticks out."""
        return self.out / self.thick


def bar_of(step: StepTold) -> Bar | None:
    """The bar for a step that bores on the lathe; None where it bores nothing."""
    bore = step.cut[0] if step.cut else None
    if step.operation != "bore" or not isinstance(bore, Bore) or not step.before.turns:
        return None
    hole = 2 * step.before.radii((bore.start + bore.end) / 2)[0]
    if hole <= 0:
        return None
    first, last = step.after.ends
    reach = {"right": last - bore.start, "left": bore.end - first}
    out = reach[step.out] if step.out else bore.end - bore.start
    left, right = step.finished
    through = bore.start < left + BESIDE and bore.end > right - BESIDE
    return Bar(GOES_IN * hole, out, through)
