"""The cutting of a size at the dial, and the coach's advice on it."""

import math

from msgspec.structs import replace

from machinon.core.cutting.by_trial import advise_by_trial, approach
from machinon.core.cutting.coach import Advice, advise, forecast
from machinon.core.cutting.cut_state import WARM, CutState, Dial, reading_sigma
from machinon.core.errors import BadInput
from machinon.core.job.fit_plan import (
    FitPlan,
)
from machinon.core.job.habits import Habit
from machinon.core.job.job import GaugeCheck, Job
from machinon.core.materials import material
from machinon.core.piece.made import Made
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import (
    Instrument,
    Lathe,
    Shop,
)

STANDARD = 0.0005  # mm, one sigma of a setting rod or ring
ROUGHED = 1.0  # mm on the diameter that roughing leaves for the last cuts


def dial_for(
    fit: FitPlan | None,
    made: Made | None,
    lathe: Lathe | None,
    mill: Machine | None,
    compound: int = 0,
) -> Dial | None:
    """The dial that a fit's new half, or a size of the drawing, is cut by; None where
    no machine is known to have one. compound: as `CutLog` has it."""
    straight = fit is not None and fit.straight
    block = not made.body.turns if made is not None else straight
    if block and straight:
        division = mill.number("dial_division") if mill is not None else 0.0
        if division:
            return Dial("length", division)
    if lathe is None:
        return None
    if straight:
        return Dial("length", lathe.slide_division)
    if compound:
        return Dial("compound", lathe.slide_division, compound)
    return Dial(lathe.dial_reads, lathe.dial_division)


def cutting(
    job: Job,
    shop: Shop,
    dial: Dial | None,
    fit: FitPlan | None,
    habit: Habit,
    metal: str = "steel",
) -> tuple[CutState | None, Advice | None]:
    """The state of cutting a fit's new half, as the coach sees it. metal: of the
    piece."""
    if dial is None or fit is None or fit.choice.kind != "cylinder":
        return None, None
    low, high, aim = fit.lower, fit.upper, fit.aim
    by_trial = fit.could_fit
    if by_trial is not None:
        low, high = by_trial
        aim = high if fit.choice.exists == "hole" else low
    if low is None or high is None or aim is None:
        return None, None
    log = job.log.true
    try:
        gauge: Instrument | None = shop.instrument(log.instrument)
    except BadInput:
        gauge = fit.gauge
    reading, zero = (0.01, 0.0) if gauge is None else told_apart(gauge, log.checked)
    grown = material(metal).expansion * (low + high) / 2 * WARM
    state = CutState(
        fit.choice.exists == "hole",
        low,
        high,
        min(max(aim if fit.made is None or by_trial else fit.made, low), high),
        log.start,
        log.entries,
        2 * reading,
        dial.travel,
        log.deepest,
        log.least,
        log.school,
        math.hypot(zero, grown),
        ratio=habit.share,
        dial_sigma=habit.settles,
    )
    if by_trial is not None:
        return state, advise_by_trial(state, log.trial)
    return state, advise(state)


def told_apart(gauge: Instrument, check: GaugeCheck | None) -> tuple[float, float]:
    """One sigma of a reading of a gauge, and of what all its readings share, its zero;
    mm. The first is better known by reading again, the second by a check of it."""
    reading = reading_sigma(gauge.repeatability, gauge.resolution)
    if check is not None:
        read = reading / math.sqrt(len(check.readings))
        return reading, math.hypot(read, STANDARD)
    return reading, math.sqrt(max((gauge.uncertainty / 2) ** 2 - reading**2, 0.0))


def passes_to_come(state: CutState | None, fit: FitPlan | None) -> tuple[Advice, ...]:
    """The passes to come; before the first reading, from the roughed size."""
    if state is None or fit is None:
        return ()
    if fit.could_fit is not None:
        state = approach(state)
    if state.start is None:
        left = ROUGHED * (1 if state.external else -1)
        drawn = state.aim if fit.made is None or fit.could_fit else fit.made
        state = replace(state, start=drawn + left)
    return forecast(state)
