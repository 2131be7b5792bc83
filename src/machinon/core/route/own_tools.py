"""What the shop's own shelf has for a step of the route."""

from machinon.core.quantity import length_text
from machinon.core.route.operations import StepTold
from machinon.core.shop.belongings import Belongings
from machinon.core.threads.screw_thread import thread_of

SAME = 0.006  # mm: drills of one size, whatever system names them
ALIKE = 0.25  # mm: drills that are easily taken for one another


def own_tool(step: StepTold, shelf: Belongings | None, inch: bool) -> str:
    """What the tool shelf says of the drill or tap that a step takes.

    Empty where the step takes neither, or none of that kind is listed.
    """
    if shelf is None:
        return ""
    if step.drill:
        return _own_drill(step.drill, shelf, inch)
    if step.tap:
        return _own_tap(step.tap, shelf)
    return ""


def _own_drill(wanted: float, shelf: Belongings, inch: bool) -> str:
    drills = sorted(shelf.of_kind("drill"), key=lambda one: one.size)
    if not drills:
        return ""
    own = next((one for one in drills if abs(one.size - wanted) < SAME), None)
    if own is None:
        near = [one for one in drills if one.size < wanted][-1:]
        near += [one for one in drills if one.size > wanted][:1]
        names = " and ".join(one.name for one in near)
        if wanted > drills[-1].size:
            return f"not on the shelf: it goes up to {names}, bore from there"
        said = length_text(wanted, 0.01, inch)
        return f"{said} is not on the shelf; next to it {names}"
    others = [
        one
        for one in drills
        if SAME <= abs(one.size - wanted) < ALIKE and one.name != own.name
    ]
    note = f" ({own.note})" if own.note else ""
    if not others:
        return f"yours: {own.name}{note}"
    alike = ", ".join(one.name for one in others[:4])
    return f"yours: {own.name}{note}; measure it, {alike} look like it"


def _own_tap(thread: str, shelf: Belongings) -> str:
    taps = shelf.of_kind("tap")
    if not taps:
        return ""
    wanted = thread_of(thread, "thread")
    own = [
        one.name + (f" ({one.note})" if one.note else "")
        for one in taps
        if abs(one.size - wanted.major) < 0.01
        and (not one.second or abs(one.second - wanted.pitch) < 0.01)
    ]
    return f"yours: {', '.join(own)}" if own else f"no {thread} tap on the shelf"
