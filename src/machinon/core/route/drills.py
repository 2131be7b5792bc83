"""The drill of a step, by what it opens; shop rules."""

from machinon.core.piece.family import Step
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Hole, Holes
from machinon.core.piece.turned_features import Bore, NutThread, TaperBore
from machinon.core.quantity import INCH
from machinon.core.threads.drill_steps import SAWN
from machinon.core.threads.reaming import drill_before
from machinon.core.threads.tapping import drill_under

SAME = 1e-3  # mm
LADDER = 13.0  # mm: beyond it a hole is opened by drills step by step


def hole_of(feature: Feature | None) -> Hole | None:
    return feature.hole if isinstance(feature, Holes | CrossHoles) else None


def drill_of(step: Step, feature: Feature | None, inch: bool = False) -> float:
    """The drill a step takes, mm: never over what it prepares; 0 for none.

    inch: one of the inch sets, where what it prepares leaves a choice.
    """
    if step.operation != "drill" or feature is None:
        return 0.0
    hole = hole_of(feature)
    if hole is not None and hole.ream:
        return drill_before(hole.diameter, inch)
    wide = drilled_width(feature)
    most = INCH if inch else SAWN  # a boring bar or head does the rest
    if step.leaves and wide:
        return drill_under(min(wide - 2 * step.leaves, most), inch)
    return min(wide, most) if isinstance(feature, Holes) else wide


def bored_to(feature: Feature | None, drill: float) -> float:
    """What a hole in a face is bored to after its drill, both mm; 0 where the drill
    makes it."""
    if not isinstance(feature, Holes) or feature.hole.ream or drill < SAWN:
        return 0.0
    wide = feature.hole.diameter
    return wide if wide > drill + SAME else 0.0


def drilled_width(feature: Feature) -> float:
    """How wide the drilled hole of a feature is where it is narrowest, mm; 0 where
    nothing of it is drilled."""
    match feature:
        case Holes() | CrossHoles():
            return feature.hole.diameter
        case Bore():
            return feature.diameter
        case NutThread():
            return feature.bore
        case TaperBore():
            return min(feature.start_diameter, feature.end_diameter)
    return 0.0


def travel(bore: Bore | NutThread | TaperBore) -> tuple[float, float]:
    """Start and end of a drill's travel along the axis, to its shoulder; stations."""
    return bore.drilled if isinstance(bore, NutThread) else (bore.start, bore.end)
