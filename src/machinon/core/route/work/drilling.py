"""What is said of a drill or tap wherever it works: how deep, and how fast.

Source: geometry; the speeds' reckoning; shop rules.
"""

from typing import Any

from machinon.core.materials import material
from machinon.core.piece.feature import POINT
from machinon.core.piece.round_sizes import downwards
from machinon.core.piece.shown import Shown
from machinon.core.quantity import NUMBER
from machinon.core.reckoning import reckon
from machinon.core.route.steps import StepTold
from machinon.core.setting_out.cones import cone_depth
from machinon.core.threads.screw_thread import thread_of

STARTS = "A drill that starts by itself wanders."


def tip(diameter: float) -> float:
    """Length of a drill's point beyond its shoulder, mm.

    >>> round(tip(10), 3)
    3.004
    """
    return cone_depth(diameter, POINT)


def depth_shown(words: str, deep: float) -> Shown:
    """A depth that no drill or tap is held to closer than a tenth, mm."""
    return Shown(words, deep, step=0.1)


def turns_shown(thread: str, deep: float) -> Shown:
    """Counted by halves, and none too many: a tap that is on the floor breaks."""
    return Shown("Turns", downwards(deep / thread_of(thread).lead, 0.5), NUMBER)


def drill_rpm(step: StepTold, drill: float) -> float:
    """The speed of one of the drills that a step takes, to the nearest ten."""
    asked: dict[str, Any] = {
        "material": step.material,
        "tool": material(step.material).tool,
        "operation": "drill",
        "diameter": drill,
    }
    if step.speeds:
        asked["machine_speeds"] = list(step.speeds)
    rpm = float(reckon("speeds", asked)["rpm"])
    return rpm if step.speeds else round(rpm, -1)
