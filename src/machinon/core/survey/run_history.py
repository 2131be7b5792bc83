"""How true a piece ran, time after time: the lasting part, and the new one."""

from collections.abc import Sequence

from machinon.core.errors import BadInput
from machinon.core.quantity import list_parts, parse, small_text
from machinon.core.setting_out.runout import resolve
from machinon.core.shop.things import Runs

WORSE = 0.003  # mm of needle: less than that between two readings is the reading


def turn_of(typed: str, inch: bool) -> tuple[float, ...]:
    """A turn of readings as typed. Raises BadInput on `runs`."""
    values = [
        parse(part, inch=inch, key="runs", low=-5, high=5) for part in list_parts(typed)
    ]
    if len(values) < 3:
        raise BadInput(
            "runs",
            "A turn is three readings or more with a blank between; 8 show an oval.",
        )
    return tuple(values)


def runs_said(runs: Sequence[Runs], inch: bool) -> str:
    """Every reading of its run-out with its day, and what came since the first; empty
    where none was taken."""
    if not runs:
        return ""
    found = [resolve(runs.readings) for runs in runs]
    days = [
        f"{small_text(turn.tir, inch)} on {runs.at[:10]}"
        for runs, turn in zip(runs, found, strict=True)
    ]
    said = f"Run-out: {', '.join(days)}."
    if len(runs) < 2:
        return said
    first, last = found[0], found[-1]
    if last.tir - first.tir <= WORSE:
        return f"{said} It runs as it did."
    moved = last.eccentricity - first.eccentricity
    if moved > (last.tir - first.tir) / 4:
        return (
            f"{said} It runs {small_text(last.tir - first.tir, inch)} worse, out of "
            "the middle: look for a chip or a bruise on its seat, then at the fit."
        )
    return (
        f"{said} It runs {small_text(last.tir - first.tir, inch)} worse, by its shape: "
        "worn or bruised itself."
    )
