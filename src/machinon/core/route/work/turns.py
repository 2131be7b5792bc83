"""Turning on from one division to the next, on a rotary table or a dividing head."""

from fractions import Fraction

from machinon.core.errors import BadInput
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.work.lines import Shown
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


def _turns(count: int, divider: Machine | None, answers: list[Answer]) -> str:
    """Turns of the handle for one division; empty where its worm is not known."""
    worm = round(divider.number("worm")) if divider else 0
    if divider is None or not worm:
        return ""
    plates = [round(one) for one in divider.numbers("plates")]
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
                holes = f" + {best['holes']} of {best['circle']}"
                return f"{best['turns']} turns" + (holes if best["holes"] else "")
    whole, rest = divmod(Fraction(worm, count), 1)
    return f"{whole} turns" + (f" + {dms(float(rest) * 360 / worm)}" if rest else "")
