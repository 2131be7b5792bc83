"""A job worked out: everything that follows from its readings and decisions.

`plan_of` is the one place where readings become sizes, fits become bands,
bands become a piece, and the piece becomes checks, a route, cuts and proof.
It is a pure function: change a reading, work it out again, all follows.
"""

import contextlib
import functools
import math
from collections.abc import Callable, Collection, Iterator, Mapping
from typing import Any

from msgspec import Struct
from msgspec.structs import replace
from msgspec.structs import replace as replace_struct

from machinon.core.cutting.by_trial import advise_by_trial, approach
from machinon.core.cutting.coach import Advice, advise, forecast
from machinon.core.cutting.cut_state import CutState, Dial, reading_sigma
from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.in_inches import in_inches
from machinon.core.job.as_it_is import still_read
from machinon.core.job.fit_plan import (
    FitPlan,
    against,
    can_be_cut,
    cut_as_drawn,
    fit_plan,
    with_bolts,
)
from machinon.core.job.habits import Cuts, Habit
from machinon.core.job.job import STAGES, Job, Stage, Work
from machinon.core.job.made_here import aids_of, holes_of, made_in_order, stand_in
from machinon.core.job.made_piece import (
    Wanted,
    joint_told,
    ruled_by_fits,
    told_of,
    worked_out,
)
from machinon.core.job.proof import (
    SAYS,
    ProofLine,
    Verdict,
    overall,
    proof_line,
    runout_answer,
)
from machinon.core.job.since_cut import changed_checks, changed_since
from machinon.core.piece.family import (
    Check,
    FitBand,
    Made,
)
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.machine_checks import (
    along_the_route,
    on_the_lathe,
    on_the_mill,
)
from machinon.core.route.operations import (
    HoldingTold,
    StepTold,
    route_in_inches,
    route_told,
)
from machinon.core.route.order import NO_METAL
from machinon.core.shop.machines import Machine
from machinon.core.shop.making import Making
from machinon.core.shop.things import (
    Instrument,
    Lathe,
    Piece,
    Shop,
    Surface,
    SurfaceKind,
)
from machinon.core.sizes.general_tolerance import general_tolerance
from machinon.core.survey.measuring import Measured, measure
from machinon.core.wording import within

ROUGHED = 1.0  # mm on the diameter that roughing leaves for the last cuts


class Plan(Struct, frozen=True, dict=True):
    """A job worked out. missing: what keeps the piece from being drawn; problem: why it
    cannot be as decided; standing: the pieces with what stands for those that are made
    here; bodies: what is made, by the key of its work; changed: by finished step, the
    sizes that were drawn otherwise when it was cut, with the sentence for each; in_mm:
    by its key, a step before it was said in inches."""

    job: Job
    shop: Shop
    lathe: Lathe | None
    pieces: Mapping[str, Piece]
    measured: Mapping[tuple[str, str], Measured | None]
    fits: tuple[FitPlan, ...]
    missing: tuple[Wanted, ...] = ()
    checks: tuple[Check, ...] = ()
    route: tuple[HoldingTold, ...] = ()
    cut_state: CutState | None = None
    advice: Advice | None = None
    proof: tuple[ProofLine, ...] = ()
    runout: Answer | None = None
    verdict: Verdict = "open"
    verdict_says: str = ""
    made: Made | None = None
    problem: str = ""
    open: Mapping[Stage, tuple[str, ...]] = {}
    standing: Mapping[str, Piece] = {}
    bodies: Mapping[str, Made | None] = {}
    changed: Mapping[str, Mapping[str, str]] = {}
    dial: Dial | None = None
    habit: Habit | None = None
    mill: Machine | None = None
    in_mm: Mapping[str, StepTold] = {}

    @property
    def asked(self) -> tuple[str, ...]:
        """The sizes of its mates that no gauge reads, still to be typed."""
        return tuple(one.key for one in self.missing if one.stage == "piece")

    @property
    def stale(self) -> frozenset[str]:
        """The sizes that are drawn otherwise than they were cut."""
        return frozenset(key for sizes in self.changed.values() for key in sizes)

    @property
    def passes(self) -> tuple[Advice, ...]:
        """The passes to come; worked out when they are asked for."""
        return _passes(self.cut_state, self.at_machine)

    @functools.cached_property
    def at_machine(self) -> FitPlan | None:
        """The fit whose new half is at the machine, or the size of the drawing; None
        where none is."""
        if self.job.work.at_size:
            made, key = self.made, self.job.work.at_size
            return cut_as_drawn(made, key, self.shop) if made is not None else None
        number = self.job.cutting
        return next((one for one in self.fits if one.choice.number == number), None)

    @property
    def at_step(self) -> StepTold | None:
        """The step that is worked line by line; None where none is."""
        return self.step(self.job.work.at_step)

    def step(self, key: str) -> StepTold | None:
        """A step of the route; None for one that it has no longer."""
        steps = (step for up in self.route for step in up.steps)
        return next((step for step in steps if step.key == key), None)

    @property
    def next_to_cut(self) -> FitPlan | None:
        """The first fit of the route, not done yet, that is cut to its band."""
        for holding in self.route:
            for step in holding.steps:
                if step.fit and step.key not in self.job.done and not step.hold:
                    fit = self.fit(step.fit)
                    if can_be_cut(fit):
                        return fit
        return None

    def existing(self, fit: FitPlan) -> Surface | None:
        """The surface that a fit's mate is; None where it is not entered."""
        piece = self.standing.get(fit.choice.piece)
        return piece.surface(fit.choice.surface) if piece else None

    def fit(self, number: int) -> FitPlan:
        return next(one for one in self.fits if one.choice.number == number)

    @property
    def failed(self) -> tuple[Check, ...]:
        return tuple(check for check in self.checks if not check.passed)

    @property
    def grave(self) -> tuple[Check, ...]:
        """Failed checks that must be settled before metal is cut."""
        return tuple(check for check in self.failed if check.grave)

    @property
    def stack(self) -> tuple[Piece, ...]:
        """What exists and stays: without the pieces that others are made from."""
        used = {w.making.old for w in self.job.works if w.making is not None}
        return tuple(one for id, one in self.pieces.items() if id not in used)

    @property
    def grave_stages(self) -> tuple[Stage, ...]:
        """Stages in which something stands that must be settled before cutting."""
        if not self.grave:
            return ()
        fits: tuple[Stage, ...] = ("fits",) if any(c.fit for c in self.grave) else ()
        return (*fits, "piece", "route")


def plan_of(
    job: Job,
    shop: Shop,
    lathe: Lathe | None,
    pieces: Mapping[str, Piece],
    mill: Machine | None = None,
    used_to: Callable[[Cuts], Habit] | None = None,
) -> Plan:
    """Work a job out. pieces: those the job names, by id; mill: where blocks are made;
    used_to: what the lathe is used to take of such cuts. Never raises
    for a half-filled job: what is not known is named in `missing` and `open`."""
    measured = {
        (piece.id, surface.id): measure(surface, shop, piece.material)
        for piece in pieces.values()
        for surface in piece.surfaces
    }
    drawing = _Drawing(job, shop, lathe, mill, dict(pieces), measured)
    for work in made_in_order(job.works):
        drawing.take(work)
    plan = drawing.plan_of(job.at)
    dial = dial_for(plan.at_machine, plan.made, lathe, mill)
    fit = plan.at_machine
    habit = None
    if used_to is not None and fit is not None and dial is not None:
        side: Cuts = "shafts" if fit.choice.exists == "hole" else "bores"
        habit = used_to("lengths" if dial.straight else side)
    state, advice = _cutting(job, shop, dial, fit, habit or Habit())
    plan = replace(plan, dial=dial, cut_state=state, advice=advice, habit=habit)
    return _with_open(_proved(_in_inches(plan) if shop.inch else plan))


def _in_inches(plan: Plan) -> Plan:
    """The plan of an inch shop: what it says was said in millimetres so far."""
    fits = (
        replace(
            one,
            contradiction=in_inches(one.contradiction),
            problem=in_inches(one.problem),
            advice=in_inches(one.advice),
        )
        for one in plan.fits
    )
    return replace(
        plan,
        fits=tuple(fits),
        checks=tuple(replace(one, says=in_inches(one.says)) for one in plan.checks),
        route=route_in_inches(plan.route),
        in_mm={step.key: step for up in plan.route for step in up.steps},
        problem=in_inches(plan.problem),
    )


class _Drawing:
    """The pieces of a job as they are worked out one after the other, each a mate for
    those after it."""

    def __init__(
        self,
        job: Job,
        shop: Shop,
        lathe: Lathe | None,
        mill: Machine | None,
        pieces: dict[str, Piece],
        measured: dict[tuple[str, str], Measured | None],
    ) -> None:
        self.job, self.shop, self.lathe, self.mill = job, shop, lathe, mill
        self.own = dict(pieces)
        self.standing, self.measured = pieces, measured
        self.fits: dict[int, FitPlan] = {}
        self.plans: dict[str, Plan] = {}
        self.owned = {n for work in job.works for n in work.fits.values()}
        # what is typed or read of a piece stands before it is worked out
        for work in job.works:
            if work.making is not None:
                self._stand(*stand_in(work, None, job.cuts, shop))
        # fits that no piece rests on, as far as what they are on exists
        self._settle({}, {c.number for c in job.fits} - self.owned)

    def take(self, work: Work) -> None:
        """Work one piece out, with the fits that it rests on."""
        told = joint_told(work, self.standing)
        self._settle(told, set(work.fits.values()))
        plan = self._blank(replace_struct(self.job, at=work.key))
        if work.making is not None:
            plan = _with_making(plan, work.making, work)
        self.fits |= {fit.choice.number: fit for fit in plan.fits}
        self.plans[work.key] = plan
        if plan.made is not None:
            self._stand(*stand_in(work, plan.made, self.job.cuts, self.shop))
            waiting = {c.number for c in self.job.fits if c.piece == work.as_mate}
            self._settle({}, waiting - self.owned)

    def _stand(self, piece: Piece, sizes: Mapping[str, Measured | None]) -> None:
        self.standing[piece.id] = piece
        self.measured |= {(piece.id, id): one for id, one in sizes.items()}

    def _settle(
        self, told: Mapping[int, Mapping[str, Any]], numbers: Collection[int]
    ) -> None:
        for choice in self.job.fits:
            if choice.number in numbers:
                self.fits[choice.number] = fit_plan(
                    choice, told, self.shop, self.lathe, self.standing, self.measured
                )
        fits = tuple(self.fits.values())
        for number in numbers:
            self.fits[number] = with_bolts(self.fits[number], told, fits)

    def _blank(self, job: Job) -> Plan:
        fits = [self.fits.get(one.number) for one in job.fits]
        return Plan(
            job,
            self.shop,
            self.lathe,
            self.own,
            self.measured,
            tuple(one for one in fits if one is not None),
            standing=self.standing,
            mill=self.mill,
        )

    def plan_of(self, key: str) -> Plan:
        """The plan of one piece, with all fits and bodies of the job."""
        plan = self.plans[key]
        fits = tuple(self.fits[one.number] for one in self.job.fits)
        bodies = {key: one.made for key, one in self.plans.items()}
        return replace(plan, fits=fits, bodies=bodies, standing=self.standing)


def _with_making(plan: Plan, making: Making, work: Work) -> Plan:
    """The plan with its piece worked out, as far as what is known goes."""
    by_number = {number: slot for slot, number in work.fits.items()}
    slots = {one.key: one for one in family_for(making).fits}
    known: dict[str, str] = {}
    decided: dict[str, FitBand] = {}
    for fit in plan.fits:
        slot = slots.get(by_number.get(fit.choice.number, ""))
        band = fit.band_for(slot) if slot is not None else None
        if slot is not None and band is not None:
            decided[slot.key] = band
            known |= fit.mate_for(slot)
    left = {
        fit.choice.number: (fit.lower, fit.upper)
        for fit in plan.fits
        if fit.lower is not None and fit.upper is not None
    }
    found = worked_out(
        making, plan.standing, plan.measured, known, decided, left, work.fits
    )
    made = found.made
    if made is None:
        return replace(plan, missing=found.missing, problem=found.problem)
    numbers = work.fits
    speeds = plan.lathe.speed_choices if plan.lathe else None
    milling = plan.mill.numbers("speeds") if plan.mill else ()
    route = route_told(made, speeds, numbers, making.moved, milling, making.there)
    if making.read_on:
        read = still_read(made, making, route)
        if read != making:
            return _with_making(plan, read, work)
    changed = changed_since(made, route, work, plan.shop.inch)
    checks = tuple(
        _by_trial(replace(one, fit=numbers.get(one.key.removeprefix("fit-"), 0)), plan)
        for one in (
            *made.checks,
            *on_the_lathe(made, plan.lathe),
            *on_the_mill(made, plan.mill),
            *along_the_route(route),
            *changed_checks(changed, route),
        )
    )
    ruled = ruled_by_fits(made)
    fits = tuple(
        against(fit, float(made.values[ruled[fit.choice.number]]))
        if fit.choice.number in ruled
        else fit
        for fit in plan.fits
    )
    route = _with_linked(route, ruled)
    return replace(
        plan, fits=fits, made=made, checks=checks, route=route, changed=changed
    )


def _still_to_make(plan: Plan) -> Iterator[str]:
    """The fits of the piece whose other half is made here too and only drawn yet."""
    ruled = ruled_by_fits(plan.made) if plan.made else {}
    for fit in plan.fits:
        if fit.choice.number in ruled and fit.mate is not None and fit.mate.drawn:
            surface, mate = plan.existing(fit), plan.standing[fit.choice.piece]
            half = mate.names(surface) if surface else mate.name
            yield (
                f"Fit {fit.choice.number}: its mate is only drawn yet ({half}). Make "
                "and measure it first, then this is cut to it."
            )


def _by_trial(check: Check, plan: Plan) -> Check:
    """A check that no band is left passes once the fit is cut to its mate by trial."""
    fit = next((one for one in plan.fits if one.choice.number == check.fit), None)
    if check.passed or fit is None or fit.could_fit is None:
        return check
    if str(check.fit) in plan.job.cuts:
        says = f"{fit.choice.name}: no band is left, so it is cut to its mate by trial."
        return replace(check, passed=True, says=says)
    return replace(check, says=f"{check.says} It can be cut to its mate by trial.")


def _with_linked(
    route: tuple[HoldingTold, ...], ruled: Mapping[int, str]
) -> tuple[HoldingTold, ...]:
    """The route with the fits that sizes are linked to, at the step that ends them."""
    steps = [step for up in route for step in up.steps]
    told = {step.fit for step in steps}
    # the last that cuts each feature
    ends = {s.features: s.key for s in steps if s.operation not in NO_METAL}
    fits = {
        ends.get((key.partition(".")[0],)): number
        for number, key in ruled.items()
        if number not in told
    }
    return tuple(
        replace(
            up,
            steps=tuple(replace(s, fit=fits.get(s.key, s.fit)) for s in up.steps),
        )
        for up in route
    )


def cut_name(plan: Plan) -> str:
    """What is at the machine, in a word or two."""
    fit = plan.at_machine
    if fit is None:
        return "fit"
    words: dict[SurfaceKind, str] = {
        "outside": "outside diameter",
        "inside": "bore",
    }
    if fit.choice.joint == "slot":
        return "tongue" if fit.choice.exists == "hole" else "slot"
    return words.get(fit.measured_as, within(fit.choice.name))


def dial_for(
    fit: FitPlan | None, made: Made | None, lathe: Lathe | None, mill: Machine | None
) -> Dial | None:
    """The dial that a fit's new half, or a size of the drawing, is cut by; None where
    no machine is known to have one."""
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
    return Dial(lathe.dial_reads, lathe.dial_division)


def _cutting(
    job: Job, shop: Shop, dial: Dial | None, fit: FitPlan | None, habit: Habit
) -> tuple[CutState | None, Advice | None]:
    """Where the cutting of a fit's new half stands, as the coach sees it."""
    if dial is None or fit is None or fit.choice.kind != "cylinder":
        return None, None
    low, high, aim = fit.lower, fit.upper, fit.aim
    by_trial = fit.could_fit
    if by_trial is not None:
        low, high = by_trial
        aim = high if fit.choice.exists == "hole" else low
    if low is None or high is None or aim is None:
        return None, None
    log = job.log
    try:
        gauge: Instrument | None = shop.instrument(log.instrument)
    except BadInput:
        gauge = fit.gauge
    reading, zero = (0.01, 0.0) if gauge is None else _told_apart(gauge)
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
        zero,
        ratio=habit.share,
        dial_sigma=habit.settles,
    )
    if by_trial is not None:
        return state, advise_by_trial(state, log.trial)
    return state, advise(state)


def _told_apart(gauge: Instrument) -> tuple[float, float]:
    """One sigma of a reading of a gauge, and of what all its readings share, its zero;
    mm. The first is better known by reading again, the second is not."""
    reading = reading_sigma(gauge.repeatability, gauge.resolution)
    return reading, math.sqrt(max((gauge.uncertainty / 2) ** 2 - reading**2, 0.0))


def _passes(state: CutState | None, fit: FitPlan | None) -> tuple[Advice, ...]:
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


def as_cut(plan: Plan, fit: FitPlan, at_dial: str) -> ProofLine | None:
    """How a fit's new half, or a size, came out at the machine; None where it was not
    cut. at_dial: the name of its log."""
    log = plan.job.cuts.get(at_dial)
    if log is None:
        return None
    size = log.last_read.measured if log.last_read else None
    if size is None:
        return None
    try:
        doubt = plan.shop.instrument(log.instrument).uncertainty
    except BadInput:
        doubt = 0.02
    line = proof_line(
        at_dial,
        fit.choice.name,
        fit.choice.number,
        fit.lower,
        fit.upper,
        None,
        size,
        doubt,
        log.trial,
        by_trial=fit.could_fit is not None,
    )
    external = fit.choice.exists == "hole"
    if log.pending and not log.trial:
        return replace(line, verdict="open", says="cut since it was read: measure it")
    if fit.lower is None or fit.upper is None:
        return line
    if size > fit.upper if external else size < fit.lower:
        # there is metal left to cut: that is no failed size
        return replace(line, verdict="open", says="not in its band yet")
    return line


def _cut_to_size(plan: Plan, fit: FitPlan, surface: Surface) -> ProofLine | None:
    """How it came out at the machine, once there is no metal left to cut."""
    line = as_cut(plan, fit, plan.job.work.log_of(surface.id))
    return line if line is not None and line.verdict != "open" else None


def _proved(plan: Plan) -> Plan:
    """The plan with the proof of what its bands rule."""
    job, made = plan.job, plan.made
    material = made.material if made else "steel"
    chains = {f"chain.{b.slot.key}": b for b in made.fits} if made else {}
    lines = []
    for surface in job.proof.surfaces:
        number = int(surface.id[4:]) if surface.id.startswith("fit.") else 0
        fit = next((one for one in plan.fits if one.choice.number == number), None)
        band = chains.get(surface.id)
        measured = measure(surface, plan.shop, material)
        if surface.id.startswith("size."):
            lines.append(_size_line(plan, surface, measured))
            continue
        if fit is None and band is None:
            continue
        if fit is not None and fit.choice.kind == "bolts":
            lines.append(_circle_line(plan, surface, fit, measured))
            continue
        # the last reading at the dial stands until it is measured again
        cut = None
        if fit is not None and measured is None:
            cut = _cut_to_size(plan, fit, surface)
        ends: tuple[float | None, float | None] = (None, None)
        if fit is not None:
            ends = fit.lower, fit.upper
        elif band is not None:
            ends = band.lower, band.upper
        log = job.cuts.get(str(number))
        lines.append(
            proof_line(
                surface.id,
                surface.name,
                number,
                *ends,
                measured,
                cut.size if cut else None,
                cut.doubt if cut else 0.0,
                tried=job.proof.tried.get(surface.id, "") or (log.trial if log else ""),
                accepted=job.proof.accepted.get(surface.id, ""),
                by_trial=fit is not None and fit.could_fit is not None,
            )
        )
    if not lines and (made is None or job.fits):
        return plan
    runs = made is not None and made.family.runs
    runout = runout_answer(job.proof.runout)
    undone = tuple(
        step.title for up in plan.route for step in up.steps if step.key not in job.done
    )
    threaded = made is not None and any(s.joint == "thread" for s in made.family.fits)
    verdict, says = overall(
        lines,
        job.proof.thread_tried or not threaded,
        runout,
        job.proof.runout_limit,
        undone,
        job.proof.undone_because,
        runs,
        plan.shop.inch,
    )
    if plan.shop.inch:  # but not what a person typed
        lines = [
            one
            if one.key in job.proof.accepted
            else replace(one, says=in_inches(one.says))
            for one in lines
        ]
    return replace(
        plan, proof=tuple(lines), runout=runout, verdict=verdict, verdict_says=says
    )


def _size_line(plan: Plan, surface: Surface, measured: Measured | None) -> ProofLine:
    """The proof of a size that no fit rules: what others are made to is right as it is,
    the rest within the general tolerance of the drawing."""
    made, key = plan.made, surface.id.removeprefix("size.")
    forms = made.family.surfaces if made else {}
    rests = {one.choice.surface for one in plan.fits if one.choice.piece == _mate(plan)}
    form = next((form for form, size in forms.items() if size == key), "")
    if form not in rests:
        drawn = made.values.get(key) if made else None
        ends: tuple[float | None, float | None] = (None, None)
        if isinstance(drawn, int | float):
            off = general_tolerance(float(drawn))
            ends = drawn - off, drawn + off
        size = cut_as_drawn(made, key, plan.shop) if made and measured is None else None
        cut = _cut_to_size(plan, size, surface) if size is not None else None
        return proof_line(
            surface.id,
            surface.name,
            0,
            *ends,
            measured,
            cut.size if cut else None,
            cut.doubt if cut else 0.0,
            tried=plan.job.proof.tried.get(surface.id, ""),
            accepted=plan.job.proof.accepted.get(surface.id, ""),
        )
    measured = plan.measured.get((_mate(plan), form))
    if measured is None or measured.drawn:
        holes = holes_of(made, key) if made else None
        says = f"{SAYS['open']}: {holes.says}" if holes else SAYS["open"]
        return ProofLine(
            surface.id, surface.name, 0, None, None, None, None, 0.0, "open", says
        )
    return ProofLine(
        surface.id,
        surface.name,
        0,
        None,
        None,
        measured,
        measured.size,
        measured.uncertainty,
        "proved",
        "as made: what goes on it is made to this",
    )


def _mate(plan: Plan) -> str:
    """What stands for the piece at hand as a mate of others."""
    return plan.job.work.as_mate


def _circle_line(
    plan: Plan, surface: Surface, fit: FitPlan, span: Measured | None
) -> ProofLine:
    """The proof of a bolt circle by the span over two of its holes as made."""
    circle, doubt = None, 0.0
    made, number = plan.made, fit.choice.number
    key = ruled_by_fits(made).get(number, "") if made else ""
    holes = holes_of(made, key) if made else None
    if span is not None and holes is not None:
        with contextlib.suppress(BadInput):  # a span that no circle has
            asked = {"span": span.size, **aids_of(holes)}
            circle = float(reckon("hole-span", asked)["diameter"])
            doubt = span.uncertainty / math.sin(math.pi / holes.count)
    line = proof_line(
        surface.id,
        surface.name,
        fit.choice.number,
        fit.lower,
        fit.upper,
        span if circle is not None else None,
        circle,
        doubt,
        tried=plan.job.proof.tried.get(surface.id, ""),
        accepted=plan.job.proof.accepted.get(surface.id, ""),
    )
    if span is None and holes is not None:
        line = replace(line, says=f"not measured yet: {holes.says}")
    return line


def _steps_left(plan: Plan) -> list[str]:
    steps = [step.key for holding in plan.route for step in holding.steps]
    left = [key for key in steps if key not in plan.job.done]
    return [f"{len(left)} of {len(steps)} steps to do."] if left else []


def _with_open(plan: Plan) -> Plan:
    """The plan with what is still open in each stage, in the order of work."""
    open_items: dict[Stage, list[str]] = {stage: [] for stage in STAGES}
    for piece in plan.pieces.values():
        for surface in piece.surfaces:
            found = plan.measured[piece.id, surface.id]
            if found is None:
                open_items["survey"].append(
                    f"{piece.names(surface)}: not measured yet."
                )
            elif found.refused:
                open_items["survey"].append(f"{piece.names(surface)}: {found.refused}")
            elif found.doubts:
                open_items["survey"].append(
                    f"{piece.names(surface)}: a reading disagrees."
                )
    alone = plan.made is not None  # it needs no mate to be drawn
    if not alone and not any(piece.surfaces for piece in plan.pieces.values()):
        open_items["survey"].append("Nothing that exists is entered yet.")
    if not alone and not plan.fits:
        open_items["fits"].append("No fit is decided yet.")
    for fit in plan.fits:
        text = fit.problem or fit.contradiction or fit.unsaid
        begun = fit.could_fit is not None and str(fit.choice.number) in plan.job.cuts
        if not text and fit.spent and not begun:
            text = "nothing is left of its band."
        if not text and fit.joined and any(e.grave for e in fit.joined.effects):
            grave = next(e.name for e in fit.joined.effects if e.grave)
            text = fit.joined.advice[0] if fit.joined.advice else f"{grave}: see why."
        if text:
            open_items["fits"].append(f"Fit {fit.choice.number}: {text}")
    if plan.job.making is not None:
        if plan.missing:
            open_items["piece"].append(f"Not known yet: {told_of(plan.missing)}.")
        if plan.problem:
            open_items["piece"].append(plan.problem)
        if plan.made is None:
            open_items["route"].append("The piece is not known yet.")
        open_items["piece"] += [check.says for check in plan.failed]
        open_items["route"] += _steps_left(plan)
    if plan.verdict_says:
        if plan.verdict != "proved":
            open_items["proof"].append(plan.verdict_says)
        elif plan.job.making is not None and not plan.job.kept_as:
            open_items["proof"].append("Proved, not yet put into the shop.")
    open_items["cut"] += _still_to_make(plan)
    if plan.at_step is not None and plan.at_step.key not in plan.job.done:
        open_items["cut"].append(f"At the machine: {plan.at_step.title}.")
    if plan.at_machine is not None:
        name = plan.at_machine.choice.name
        line = as_cut(plan, plan.at_machine, plan.job.at_dial)
        if line is None or line.verdict != "proved":
            says = line.says if line else "not cut yet"
            open_items["cut"].append(f"{name}: {says}.")
    if not open_items["cut"] and plan.made is not None:
        open_items["cut"] += _steps_left(plan)  # each is worked there
    return replace(
        plan, open={stage: tuple(items) for stage, items in open_items.items()}
    )
