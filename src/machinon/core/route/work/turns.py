"""Turning on from one division to the next, on a rotary table or a dividing head."""

from fractions import Fraction
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.work.lines import Line, Shown
from machinon.core.setting_out.dividing import dms
from machinon.core.shop.machines import Machine


def turned_on(
    count: int, divider: Machine | None, name: str, answers: list[Answer]
) -> list[tuple[Shown, ...]]:
    """For each division its angle from the first, by `name`, and how far the handle is
    turned on to it: turns and holes where a plate has them, else turns and degrees."""
    by = _turns(count, divider, answers)
    found = []
    for n in range(count):
        angle = Shown(name, dms(360.0 * n / count), TEXT)
        more = (Shown("Turn on by", by, TEXT),) if n and by else ()
        found.append((angle, *more))
    return found


def arms(count: int, divider: Machine | None) -> tuple[Line, ...]:
    """How the arms over a plate's circle of holes are set; none where it needs none."""
    _, best = _by_plate(count, divider)
    if not best or not best["holes"]:
        return ()
    figures = (
        Shown("Circle of holes", float(best["circle"]), COUNT),
        Shown("Spaces between the arms", float(best["holes"]), COUNT),
    )
    note = (
        "The hole that the pin stands in is not counted. Wind one way only, and lock "
        "the spindle before each cut."
    )
    return (Line("arms", "Set the plate and its arms", figures, note),)


def _by_plate(
    count: int, divider: Machine | None
) -> tuple[Answer | None, dict[str, Any]]:
    """The circle of holes that divides exactly; nothing where none of them does."""
    worm = round(divider.number("worm")) if divider else 0
    plates = [round(one) for one in divider.numbers("plates")] if divider else []
    if not worm or not plates:
        return None, {}
    try:
        asked = {"divisions": count, "worm": worm, "plates": plates}
        answer = reckon("dividing", asked)
    except BadInput:
        return None, {}  # no circle of its plates is fine enough
    best = answer["settings"][0]
    return answer, {} if best["error"] else best


def _turns(count: int, divider: Machine | None, answers: list[Answer]) -> str:
    """Turns of the handle for one division; empty where its worm is not known."""
    worm = round(divider.number("worm")) if divider else 0
    if not worm:
        return ""
    answer, best = _by_plate(count, divider)
    if answer is not None:
        answers.append(answer)
    if best:
        holes = f" + {best['holes']} of {best['circle']}"
        return f"{best['turns']} turns" + (holes if best["holes"] else "")
    whole, rest = divmod(Fraction(worm, count), 1)
    return f"{whole} turns" + (f" + {dms(float(rest) * 360 / worm)}" if rest else "")
