"""Whether a part comes back to the same place each time it is mounted."""

from machinon.core.quantity import small_text
from machinon.core.survey.measuring import Measured

MOUNTINGS = 5
GOOD = 0.010  # mm of spread that turning does not notice; a shop rule


def reseating(found: Measured | None, inch: bool = False) -> str:
    """The result of mounting it again and again, and the next move.

    found: run-outs read after each mounting, mm.
    """
    count = found.count if found else 0
    if found is None or count < MOUNTINGS:
        left = MOUNTINGS - count
        return f"Mount it {left} more time{'s' if left != 1 else ''} and read each."
    spread = small_text(found.spread, inch)
    if found.spread <= GOOD:
        if found.size > 3 * GOOD:
            return (
                f"It comes back within {spread}, but off by as much each time: that "
                "can be cut or clocked out."
            )
        return f"It comes back within {spread}: nothing is amiss."
    return (
        f"It comes back {spread} apart. Wipe seat and mate with a clean hand, feel for "
        "burrs and stone them, mark one position and mount it there, tighten in turn; "
        "then test again."
    )
