"""Round sizes: what a rule that rounds comes to, in millimetres or in inches.

A family says its rules in millimetres: `up(bar.length + 4, 1)`, "20", an M6 screw. A
piece that is drawn in inches rounds to sixteenths instead, starts from 3/4 in and takes
1/4-20: sizes of metric make would be neither on its dial nor on its rack.
"""

import functools
import math
import re
from collections.abc import Callable, Mapping
from fractions import Fraction

from machinon.core.quantity import INCH, fraction_text
from machinon.core.threads.screw_thread import metric_thread, thread_of

# from a step in mm on, the step in inches; below the last a size is not round anyway
_STEPS = (
    (10.0, 1 / 2),
    (5.0, 1 / 8),
    (1.0, 1 / 16),
    (0.5, 1 / 32),
    (0.1, 0.005),
    (0.05, 0.002),
)
# from a size in mm on, what it is round to in inches
_ROUND = (
    *((75.0, 1 / 4), (15.0, 1 / 8), (6.0, 1 / 16), (1.2, 1 / 32)),
    *((0.5, 0.005), (0.0, 0.001)),
)
# the coarse inch screw that does the work of a metric one, by its size
_SCREWS = (
    *((3, "#6"), (4, "#8"), (5, "#10"), (6, "1/4"), (8, "5/16"), (10, "3/8")),
    *((12, "1/2"), (14, "5/8"), (16, "5/8"), (18, "3/4"), (20, "3/4"), (22, "7/8")),
    *((24, "1"), (27, "1-1/8"), (30, "1-1/4")),
)


def to_nearest(value: float, step: float = 1.0) -> float:
    """A value to the nearest step."""
    return round(value / step) * step


def upwards(value: float, step: float = 1.0) -> float:
    """A value to the next step, unless it is on one."""
    return math.ceil(value / step - 1e-9) * step


def downwards(value: float, step: float = 1.0) -> float:
    """A value to the last step, unless it is on one."""
    return math.floor(value / step + 1e-9) * step


def inch_step(step: float) -> float:
    """The step in round inches for one in round millimetres; mm.

    >>> inch_step(1) / 25.4
    0.0625
    """
    return next((inches * INCH for mm, inches in _STEPS if step >= mm - 1e-9), step)


def step_in(step: float, inch: bool) -> float:
    """The step as it is, or for a piece drawn in inches that in round inches; mm."""
    return inch_step(step) if inch else step


ROUNDINGS: Mapping[str, Callable[..., float]] = {
    "round": to_nearest,
    "up": upwards,
    "down": downwards,
}
INCH_ROUNDINGS: Mapping[str, Callable[..., float]] = {
    word: lambda value, step=1.0, way=way: way(value, inch_step(step))
    for word, way in ROUNDINGS.items()
}


def round_inches(size: float, low: float, high: float) -> float:
    """The round size in inches that is nearest to one in round millimetres, within its
    range where one is; mm.

    >>> round_inches(20, 5, 50) / 25.4
    0.75
    """
    step = next((inches for mm, inches in _ROUND if size >= mm), 0.001) * INCH
    ways = (to_nearest, upwards, downwards)
    found = (way(size, step) for way in ways)
    return next((near for near in found if low <= near <= high and near), size)


@functools.cache
def inch_screw(thread: str) -> str:
    """The coarse inch thread that does the work of a coarse metric one; any other
    thread, and what is none, stays.

    >>> inch_screw("M6")
    '1/4-20 UNC'
    """
    if not thread.startswith("M") or not thread[1:].replace(".", "").isdigit():
        return thread
    size = dict(_SCREWS).get(int(metric_thread(thread).major))
    return thread_of(f"{size} UNC").name if size else thread


# what stays in an example: tapers, ratios, angles, torques, pitches, threads with one
_KEPT = re.compile(
    r"Morse \d|1:\d+|[\d.]+(?:°| degrees| Nm)|pitch [\d.]+|M\d+ × [\d.]+"
    r"|(?P<screw>M\d+)|(?P<size>\d+(?:\.\d+)?)(?P<unit> mm)?"
)


def example_in_inches(text: str) -> str:
    """The example of a family as an inch shop would have one: round sizes, inch screws.

    >>> example_in_inches("90 × 25 × 20 on a stud of M10, in a slot of 14 mm")
    '3 1/2 × 1 × 3/4 on a stud of 3/8-16, in a slot of 9/16 in'
    """

    def said(found: re.Match[str]) -> str:
        if found["screw"]:
            return inch_screw(found["screw"]).removesuffix(" UNC")
        if not found["size"]:
            return found[0]
        size = float(found["size"])
        if size % 0.5:  # closer than a fraction
            text = f"{size / INCH:.3f}"
        else:
            inches = round_inches(size, 0.0, math.inf) / INCH
            text = fraction_text(Fraction(round(inches * 64), 64))
        return f"{text} in" if found["unit"] else text

    return _KEPT.sub(said, re.sub(r"\ban (?=M\d)", "a ", text))  # an M8, a 5/16-18
