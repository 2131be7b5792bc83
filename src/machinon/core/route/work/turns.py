"""Turning on from one division to the next, on a rotary table or a dividing head."""

from collections.abc import Sequence
from fractions import Fraction
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.piece.shown import Shown
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.work.lines import WorkLine
from machinon.core.setting_out.bolt_circle import even_angles
from machinon.core.setting_out.dividing import dms
from machinon.core.shop.machines import Machine

ALIKE = 1e-4  # degrees that two steps may differ by, and are one


def turned_on(
    count: int, divider: Machine | None, name: str, answers: list[Answer]
) -> tuple[tuple[WorkLine, ...], list[tuple[Shown, ...]]]:
    """As `turned_to`, from one even division to the next."""
    return turned_to(even_angles(count), divider, name, answers)


def turned_to(
    angles: Sequence[float],
    divider: Machine | None,
    name: str,
    answers: list[Answer],
) -> tuple[tuple[WorkLine, ...], list[tuple[Shown, ...]]]:
    """The setting of the arms over a plate's circle of holes, where it has one; and for
    each angle, degrees, what is set, by `name`, and the turn of the handle from the one
    before: turns and holes where a plate has them, else turns and degrees; none where
    the steps are no even part of a turn."""
    steps = [(b - a) % 360 for a, b in pairwise(angles)]
    parts = round(360 / steps[0]) if steps else 0
    even = parts and all(abs(step - 360 / parts) < ALIKE for step in steps)
    by, arms = _turns(parts, divider, answers) if even else ("", ())
    found = []
    for n, at in enumerate(angles):
        more = (Shown("Turn on by", by, TEXT),) if n and by else ()
        found.append((Shown(name, dms(at), TEXT), *more))
    return arms, found


def one_way(angles: Sequence[float]) -> list[float]:
    """Angles of a full turn in the order in which a table is wound to them one way:
    from the lowest, or from behind the widest gap where they are not all round.

    >>> one_way([0, 30, 330])
    [330, 0, 30]
    """
    there = sorted(angles)
    gaps = [(b - a) % 360 for a, b in pairwise((*there[-1:], *there))]
    widest = max(gaps)
    first = 0 if widest < min(gaps) + ALIKE else gaps.index(widest)
    return [*there[first:], *there[:first]]


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
