"""Steps that open a hole along the axis of a piece."""

from machinon.core.piece.family import Step, spoken
from machinon.core.threads.drill_steps import SAWN

LONG_DRILL = 8.0  # diameters: deeper, a hole is drilled from both ends to meet
TO_BORE = 0.5  # mm to a side that a drill leaves for the boring bar


def opened(name: str, wide: float, note: str = "") -> tuple[Step, ...]:
    """A hole that is drilled, and bored out where it is wider than a drill; none where
    it has no width (mm)."""
    if wide > SAWN:
        drill = Step("drill", (name,), leaves=TO_BORE, note=note)
        return drill, Step("bore", (name,))
    return (Step("drill", (name,), note=note),) if wide else ()


def on_floor(part: str, deep: float, what: str = "floor") -> str:
    """The note at holes that begin on the floor of a part, or what else it has, so deep
    (mm) under the face; nothing where they begin in the face."""
    if not part:
        return ""
    on = f"On the {what} of {spoken(part)}: it lies {deep:g} mm under the face"
    return f"{on}, depths count from there."
