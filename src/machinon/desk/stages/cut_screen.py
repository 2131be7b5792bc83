"""The texts of Cut at the dial: the size at hand, the next setting or reading, and
why."""

from typing import Literal

from msgspec import Struct

from machinon.core.cutting.coach import Advice
from machinon.core.cutting.cut_state import Dial
from machinon.core.in_inches import in_inches
from machinon.core.job.fit_plan import DrawnSize
from machinon.core.quantity import length_range, length_text
from machinon.desk.open_job import OpenJob

Asks = Literal["start", "touch", "cut", "spring", "reading", "trial", "done"]

# a cut that may be the last; a tool drawn back on turning work cuts a spiral
DRAWN_BACK = "Draw back with the spindle stopped."
MAY_BE_THE_LAST = 0.2  # chance of being in the band after it
_HEADS = {
    "cut": "Dial to",
    "trial": "Dial to",
    "spring": "Leave the dial at",
    "measure": "Measure now",
    "stop": "In the band",
    "scrapped": "Stop: past the band",
}


class CutScreen(Struct, frozen=True):
    """The texts of the screen, made from the plan by `present`."""

    asks: Asks  # what Enter takes next
    head: str
    large: str
    under: str
    why: str
    prompt: str
    enter: str
    ink: str  # of the large figure


def present(job: OpenJob) -> CutScreen:
    """The screen of the job as it stands; the job's advice must exist."""
    cut, advice = job.job.log, job.plan.advice
    assert advice is not None
    if cut.start is None:
        return _before_the_first_cut(job)
    if cut.touch is None:
        return _touching(job)
    if cut.pending and advice.action == "trial":
        return CutScreen(
            "reading",
            "Now measure",
            _asked(job),
            "spindle stopped, wiped clean",
            "The next cut depends on this reading.",
            "Reading",
            "Take the reading",
            "measured",
        )
    if advice.action in ("cut", "trial", "spring"):
        return _cutting(job, advice)
    if advice.action == "measure":
        expect = ""
        if cut.pending and advice.predicted is not None:
            expect = "expected " + length_text(advice.predicted, 0.001, job.inch)
        return CutScreen(
            "reading",
            _HEADS["measure"],
            _asked(job),
            expect or "the last reading, once more",
            advice.why,
            "Reading",
            "Take the reading",
            "measured",
        )
    return _ended(job, advice)


def _asked(job: OpenJob) -> str:
    """What is to be read, of a diameter and of a length."""
    return "Size now?" if job.dial.straight else "⌀ now?"


def _before_the_first_cut(job: OpenJob) -> CutScreen:
    name = job.plan.cut_name
    under = f"across the roughed {name}, spindle stopped"
    if job.dial.straight:
        under = f"{name}, spindle stopped; 0 where nothing is cut yet"
    return CutScreen(
        "start",
        "Measure first",
        _asked(job),
        under,
        "Everything is worked out from this size.",
        "Size before the first cut",
        "Take the size",
        "measured",
    )


def _touching(job: OpenJob) -> CutScreen:
    dial = job.dial
    says = (
        "Touching off is good to a few hundredths; the first measured cut corrects it."
    )
    return CutScreen(
        "touch",
        "Touch the tool on the work",
        "dial at touch?",
        f"as it reads{' in inches' if dial.inch else ''}, {_counted(dial)}",
        in_inches(says) if job.inch else says,
        "The dial reads at touch",
        "Take the touch",
        "cut",
    )


def _cutting(job: OpenJob, advice: Advice) -> CutScreen:
    """Where the dial goes next, or a spring pass where it stands."""
    dial, touch = job.dial, job.touch
    shown = dial.text(dial.shows(advice.dial, touch))
    if advice.action == "spring":
        return CutScreen(
            "spring",
            _HEADS["spring"],
            shown,
            "and pass once more",
            advice.why,
            "Enter: the spring pass is taken",
            "Pass taken",
            "cut",
        )
    now = advice.dial - advice.infeed
    lines = round(advice.infeed / dial.travel)
    slide = ", on the compound" if dial.over else ""
    under = (
        f"from {dial.text(dial.shows(now, touch))}: {lines} "
        f"{'line' if lines == 1 else 'lines'} in{slide}, wound inward only"
    )
    why = advice.why
    if advice.inside > MAY_BE_THE_LAST and not dial.straight:
        why = f"{why} {DRAWN_BACK}"
    return CutScreen(
        "cut",
        _HEADS[advice.action],
        shown,
        under,
        why,
        "Enter: cut taken. Or type where the dial stands",
        "Cut taken",
        "cut",
    )


def _ended(job: OpenJob, advice: Advice) -> CutScreen:
    """No cut is left to take: in the band, past it, or short of it for good."""
    plan, cut = job.plan, job.job.log
    head = _HEADS.get(advice.action, "")
    size = advice.predicted if advice.predicted is not None else 0.0
    large = length_text(size, 0.001, job.inch, unit=False)
    fit = plan.at_machine
    if fit is not None and fit.could_fit is not None and advice.action == "stop":
        return CutScreen(
            "trial",
            _BY_TRIAL_HEADS.get(cut.trial, "Try the mate"),
            large,
            f"what could fit is {_band(job)}",
            _BY_TRIAL.get(cut.trial) or advice.why,
            "Read it again, if in doubt",
            "Take the reading",
            {"goes on": "proved", "loose": "stop"}.get(cut.trial, "cut"),
        )
    if isinstance(fit, DrawnSize) and advice.action == "stop":
        return CutScreen(
            "done",
            head,
            large,
            f"the drawing allows {_band(job)}",
            "As the drawing wants it: break the edge, go on.",
            "Read it again, if in doubt",
            "Take the reading",
            "proved",
        )
    if advice.action == "scrapped":
        return CutScreen(
            "reading",
            head,
            large,
            f"the band is {_band(job)}",
            advice.why,
            "Read it again",
            "Take the reading",
            "stop",
        )
    reached = advice.inside > 0.5
    return CutScreen(
        "trial",
        head if reached else "Leave it: short of the band",
        large,
        f"the band is {_band(job)}",
        (_TRIAL[cut.trial] if reached else "") or advice.why,
        "Read it again, if in doubt",
        "Take the reading",
        "proved" if reached else "cut",
    )


def _counted(dial: Dial) -> str:
    """The kind of dial and the count of its lines."""
    if dial.straight:
        return "of the slide that feeds into it, mm for mm"
    if dial.over:
        return f"of the compound, set over {dial.angle:.2f}° from the axis"
    return f"counted on the {dial.reads}"


_BY_TRIAL_HEADS = {"goes on": "It goes on", "loose": "Too far"}
_BY_TRIAL = {
    "goes on": "That is its size: the fit is proved by its mate.",
    "loose": "Loose: it is past its fit. Read both halves again before giving it up.",
}
_TRIAL = {
    "": "",
    "goes on": "The mate goes on: the fit is proved at the machine.",
    "tight": "In the band but tight: look for a burr, a sharp corner or a warm part, "
    "clean both, read again. Cut only if the reading was wrong.",
    "loose": "In the band but loose: read both halves again before going on; strike "
    "a reading of the mate in Survey if it was wrong.",
}


def _band(job: OpenJob) -> str:
    state = job.plan.cut_state
    assert state is not None
    return length_range(state.lower, state.upper, inch=job.inch)
