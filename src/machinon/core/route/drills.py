"""The drill of a step, and the ladder of drills that opens a hole; shop rules."""

from machinon.core.piece.family import Step
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Hole, Holes
from machinon.core.piece.turned_features import Bore, NutThread, TaperBore
from machinon.core.threads.tapping import drills

PILOTED = 8.0  # mm: beyond it a drill wants a hole to follow
LADDER = 13.0  # mm: beyond it a hole is opened by drills step by step
REAMED = 0.15  # mm that a reamer takes off, at least


def hole_of(feature: Feature | None) -> Hole | None:
    return feature.hole if isinstance(feature, Holes | CrossHoles) else None


def drill_of(step: Step, feature: Feature | None) -> float:
    """The drill a step takes, mm: never over what it prepares; 0 for none."""
    if step.operation != "drill" or feature is None:
        return 0.0
    hole = hole_of(feature)
    if hole is not None and hole.ream:
        return _under(hole.diameter - REAMED)
    if hole is not None:
        wide = hole.diameter
    elif isinstance(feature, Bore):
        wide = feature.diameter
    elif isinstance(feature, NutThread):
        wide = feature.bore
    elif isinstance(feature, TaperBore):
        wide = min(feature.start_diameter, feature.end_diameter)
    else:
        return 0.0
    return _under(wide - 2 * step.leaves) if step.leaves else wide


def ladder(drill: float) -> tuple[float, ...]:
    """The drills that open a hole, each at most about twice the one before, so that its
    chisel edge has nothing to push through; mm.

    >>> ladder(25), ladder(6.8)
    ((6.2, 12.5, 25), (6.8,))
    """
    found = [drill]
    while found[0] > PILOTED:
        found.insert(0, _under(found[0] / 2))
    return tuple(found)


def _under(most: float) -> float:
    """The largest drill of the usual set that is not over a size, mm."""
    below = [drill.size for drill in drills("metric") if drill.size <= most + 1e-9]
    return below[-1] if below else most
