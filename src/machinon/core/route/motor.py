"""The motor that a cut takes at a usual feed, by the reckoning of its power."""

from typing import Any

from machinon.core.materials import material
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.steps import StepTold


def power_of_drill(step: StepTold, drill: float, rpm: float) -> Answer:
    """What a drill takes in the metal of a step where nothing is open before it."""
    return _power(step, rpm, operation="drill", diameter=drill)


def share_left(drill: float, there: float) -> float:
    """The share of the metal that a hole which is there leaves to a drill, both mm.

    >>> share_left(20, 10)
    0.75
    """
    return max(0.0, 1 - (there / drill) ** 2)


def motor_of(step: StepTold) -> float:
    """The motor to have for a step that drills or turns, kW; 0 where nothing turns."""
    if not step.speed:
        return 0.0
    if step.operation == "drill":
        whole = float(power_of_drill(step, step.drill, step.rpm)["motor"])
        return whole * share_left(step.drill, step.follows)
    metal = material(step.material)
    deep = min(metal.rough_depth, step.diameter / 4)
    cut = _power(
        step, step.rpm, diameter=step.diameter, depth=deep, feed_each=metal.rough_feed
    )
    return float(cut["motor"])


def _power(step: StepTold, rpm: float, **cut: Any) -> Answer:
    metal = material(step.material)
    asked = {"material": step.material, "tool": metal.tool, "rpm": rpm}
    return reckon("cutting-power", {**asked, **cut})
