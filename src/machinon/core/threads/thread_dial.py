"""The thread dial: on which marks the half-nuts may close."""

from fractions import Fraction
from typing import Any

from machinon.core.quantity import COUNT, INCH
from machinon.core.reckoning import (
    FLAG,
    PITCH,
    TEXT,
    Input,
    Result,
    Trail,
    one_of,
    reckoning,
)
from machinon.core.threads.screw_thread import thread_of


def exact(pitch: float) -> Fraction:
    """A pitch as the fraction of a millimetre that it was meant as.

    >>> exact(25.4 / 13)
    Fraction(127, 65)
    """
    return Fraction(pitch).limit_denominator(20_000)


def _by_the_inch(pitch: float) -> bool:
    """Whether a pitch, mm, is a whole number of halves of a thread to the inch."""
    return abs(INCH / pitch - round(2 * INCH / pitch) / 2) < 1e-6


@reckoning(
    "thread-dial",
    group="Threads",
    title="On which marks of the thread dial the half-nuts may close",
    usual={"thread": "5/16-18", "leadscrew": "8tpi"},
    given=(one_of("thread", "pitch"),),
    inputs=(
        Input(
            "thread",
            TEXT,
            "the thread to cut, such as M8, 5/16-18 or Tr20x4",
            default=None,
        ),
        Input(
            "pitch",
            PITCH,
            "or its pitch alone, such as 1.5 or 18tpi",
            default=None,
            above=0,
            high=50,
        ),
        Input("leadscrew", PITCH, "pitch of the lead screw, or 8tpi", above=0, high=50),
        Input(
            "dial_teeth",
            COUNT,
            "teeth of the dial's wheel",
            default=16,
            low=4,
            high=200,
        ),
        Input("dial_marks", COUNT, "marks on the dial", default=8, low=1, high=64),
    ),
    results=(
        Result("rule", TEXT, "what to do"),
        Result("marks", COUNT, "marks on which they may close"),
        Result("keep_engaged", FLAG, "whether they must stay closed"),
    ),
    sources=(
        "the carriage must have moved by whole threads of both the screw and the work",
    ),
)
def _thread_dial(
    trail: Trail,
    thread: str | None,
    pitch: float | None,
    leadscrew: float,
    dial_teeth: int,
    dial_marks: int,
) -> dict[str, Any]:
    if thread is not None:
        pitch, inch_work = thread_of(thread).lead, thread_of(thread).inch
    else:
        assert pitch is not None
        inch_work = _by_the_inch(pitch)
    ratio = exact(pitch) / exact(leadscrew)
    # after this many threads of the lead screw both are in step again
    steps = ratio.numerator
    trail.notes.append(
        f"Work and lead screw are in step every {steps} threads of the lead screw, "
        f"{float(steps * exact(leadscrew)):.4g} mm."
    )
    inch_screw = _by_the_inch(leadscrew)
    if dial_teeth % steps:
        rule = (
            "Keep the half-nuts closed: withdraw the tool, stop, and reverse the "
            "spindle to come back."
        )
        if inch_work != inch_screw:
            rule += " The work is inch and the screw is not, or the other way round."
        trail.cautions.append("A threaded nose may unwind when the spindle reverses.")
        return {"rule": rule, "marks": [], "keep_engaged": True}
    marks = [
        mark
        for mark in range(1, dial_marks + 1)
        if mark * dial_teeth % dial_marks == 0
        and (mark * dial_teeth // dial_marks) % steps == 0
    ]
    if steps == 1:
        rule = "Close the half-nuts anywhere: every thread of the lead screw will do."
    elif len(marks) == dial_marks:
        rule = "Close on any mark."
    elif len(marks) == 1:
        rule = "Close on the same mark each time."
    else:
        every = dial_marks // len(marks)
        end = {2: "nd", 3: "rd"}.get(every, "th")
        rule = f"Close on every {every}{end} mark: {', '.join(map(str, marks))}."
    return {"rule": rule, "marks": marks, "keep_engaged": False}
