"""Turning on from one division to the next, on a rotary table or a dividing head."""

from fractions import Fraction

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.work.lines import Shown, WorkLine
from machinon.core.setting_out.dividing import dms
from machinon.core.shop.machines import Machine


def turned_on(
    count: int, divider: Machine | None, name: str, answers: list[Answer]
) -> tuple[tuple[WorkLine, ...], list[tuple[Shown, ...]]]:
    """The setting of the arms over a plate's circle of holes, where it has one; and for
    each division its angle from the first, by `name`, and the turn of the handle: turns
    and holes where a plate has them, else turns and degrees."""
    by, arms = _turns(count, divider, answers)
    found = []
    for n in range(count):
        angle = Shown(name, dms(360.0 * n / count), TEXT)
        more = (Shown("Turn on by", by, TEXT),) if n and by else ()
        found.append((angle, *more))
    return arms, found


def _turns(
    count: int, divider: Machine | None, answers: list[Answer]
) -> tuple[str, tuple[WorkLine, ...]]:
    """Turns of the handle for one division, empty where its worm is not known; and how
    the arms are set, where it comes out by holes."""
    worm = round(divider.number("worm")) if divider else 0
    if divider is None or not worm:
        return "", ()
    plates = [round(number) for number in divider.numbers("plates")]
    if plates:
        try:
            asked = {"divisions": count, "worm": worm, "plates": plates}
            answer = reckon("dividing", asked)
        except BadInput:
            pass  # no circle of its plates is fine enough
        else:
            answers.append(answer)
            best = answer["settings"][0]
            if not best["error"]:
                turns = f"{best['turns']} turns"
                if not best["holes"]:
                    return turns, ()
                by = f"{turns} + {best['holes']} of {best['circle']}"
                return by, (_arms(best["circle"], best["holes"]),)
    whole, rest = divmod(Fraction(worm, count), 1)
    by = f"{whole} turns" + (f" + {dms(float(rest) * 360 / worm)}" if rest else "")
    return by, ()


def _arms(circle: int, holes: int) -> WorkLine:
    """The setting of the arms over a plate's circle of holes."""
    figures = (
        Shown("Circle of holes", float(circle), COUNT),
        Shown("Spaces between the arms", float(holes), COUNT),
    )
    note = (
        "The hole that the pin stands in is not counted. Wind one way only, and lock "
        "the spindle before each cut."
    )
    return WorkLine("arms", "Set the plate and its arms", figures, note)
