"""From readings to sizes, to bands, to a piece, its checks, route, cuts and proof.

`plan_of` is a pure function: change a reading, work it out again, all follows.
"""

from collections.abc import Callable, Collection, Mapping
from typing import Any

from msgspec.structs import replace
from msgspec.structs import replace as replace_struct

from machinon.core.families import family_for
from machinon.core.in_inches import in_inches
from machinon.core.job.as_it_is import still_read
from machinon.core.job.as_made import proved
from machinon.core.job.at_dial import cutting, dial_for
from machinon.core.job.fit_plan import (
    FitPlan,
    against,
    fit_plan,
    with_bolts,
)
from machinon.core.job.habits import Cuts, Habit
from machinon.core.job.job import Job, Work
from machinon.core.job.made_here import made_in_order, stand_in
from machinon.core.job.made_piece import (
    joint_told,
    ruled_by_fits,
    worked_out,
)
from machinon.core.job.plan import Plan
from machinon.core.job.since_cut import changed_checks, changed_since
from machinon.core.job.still_open import with_open
from machinon.core.piece.bands import FitBand
from machinon.core.piece.family import Check
from machinon.core.route.machine_checks import (
    along_the_route,
    by_the_motor,
    on_the_drill_press,
    on_the_grinder,
    on_the_lathe,
    on_the_mill,
)
from machinon.core.route.no_mill import in_place_of
from machinon.core.route.order import NO_METAL
from machinon.core.route.steps import (
    HoldingTold,
    route_in_inches,
    route_told,
)
from machinon.core.shop.machines import Machine
from machinon.core.shop.making import Making
from machinon.core.shop.things import (
    Lathe,
    Piece,
    Shop,
)
from machinon.core.survey.measuring import Measured, measure


def plan_of(
    job: Job,
    shop: Shop,
    lathe: Lathe | None,
    pieces: Mapping[str, Piece],
    mill: Machine | None = None,
    used_to: Callable[[Cuts], Habit] | None = None,
    others: Collection[Machine] = (),
) -> Plan:
    """Work a job out. pieces: those the job names, by id; mill: where blocks are made;
    used_to: what the lathe is used to take of such cuts; others: what else the shop
    has. Never raises for a half-filled job: what is not known is named in `missing` and
    `open`."""
    measured = {
        (piece.id, surface.id): measure(surface, shop, piece.material)
        for piece in pieces.values()
        for surface in piece.surfaces
    }
    drawing = _Drawing(job, shop, lathe, mill, others, dict(pieces), measured)
    for work in made_in_order(job.works):
        drawing.take(work)
    plan = drawing.plan_of(job.at)
    by = job.log.compound
    dial = dial_for(plan.at_machine, plan.made, lathe, mill, by)
    fit = plan.at_machine
    habit = None
    if used_to is not None and fit is not None and dial is not None:
        side: Cuts = "shafts" if fit.choice.exists == "hole" else "bores"
        habit = used_to("lengths" if dial.straight else side)
    metal = plan.made.material if plan.made is not None else "steel"
    state, advice = cutting(job, shop, dial, fit, habit or Habit(), metal)
    plan = replace(plan, dial=dial, cut_state=state, advice=advice, habit=habit)
    return with_open(proved(_in_inches(plan) if shop.inch else plan))


def _in_inches(plan: Plan) -> Plan:
    """The plan of an inch shop: what it says was said in millimetres so far."""
    making = plan.job.making
    own = {step.key for step in making.own} if making is not None else set()
    fits = (
        replace(
            fit,
            contradiction=in_inches(fit.contradiction, fine=True),
            problem=in_inches(fit.problem, fine=True),
            advice=in_inches(fit.advice, fine=True),
        )
        for fit in plan.fits
    )
    return replace(
        plan,
        fits=tuple(fits),
        checks=tuple(
            replace(check, says=check.says_in_inches) for check in plan.checks
        ),
        route=route_in_inches(plan.route, own),
        in_mm={step.key: step for up in plan.route for step in up.steps},
        problem=in_inches(plan.problem, fine=True),
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
        others: Collection[Machine],
        pieces: dict[str, Piece],
        measured: dict[tuple[str, str], Measured | None],
    ) -> None:
        self.job, self.shop, self.lathe, self.mill = job, shop, lathe, mill
        first = {machine.kind: machine for machine in reversed([*others])}
        self.no_mill = in_place_of(mill, job.mill, lathe, first.get("drill"))
        self.grinder = first.get("grinder")
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
        told = joint_told(work, self.standing, self.measured)
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
        self.measured |= {(piece.id, id): measured for id, measured in sizes.items()}

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
            self.fits[number] = with_bolts(self.fits[number], told, fits, self.lathe)

    def _blank(self, job: Job) -> Plan:
        fits = [self.fits.get(fit.number) for fit in job.fits]
        return Plan(
            job,
            self.shop,
            self.lathe,
            self.own,
            self.measured,
            tuple(fit for fit in fits if fit is not None),
            standing=self.standing,
            mill=self.mill,
            no_mill=self.no_mill,
            grinder=self.grinder,
        )

    def plan_of(self, key: str) -> Plan:
        """The plan of one piece, with all fits and bodies of the job."""
        plan = self.plans[key]
        fits = tuple(self.fits[fit.number] for fit in self.job.fits)
        bodies = {key: plan.made for key, plan in self.plans.items()}
        return replace(plan, fits=fits, bodies=bodies, standing=self.standing)


def _with_making(plan: Plan, making: Making, work: Work) -> Plan:
    """The plan with its piece worked out, as far as what is known goes."""
    by_number = {number: slot for slot, number in work.fits.items()}
    slots = {slot.key: slot for slot in family_for(making).fits}
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
    route = route_told(
        made,
        speeds,
        numbers,
        making.moved,
        plan.mill.numbers("speeds") if plan.mill else (),
        making.there,
        making.own,
        plan.no_mill,
    )
    if making.read_on:
        read = still_read(made, making, route)
        if read != making:
            return _with_making(plan, read, work)
    drill_press = plan.no_mill.drill_press if plan.no_mill else None
    changed = changed_since(made, route, work, plan.shop.inch)
    checks = tuple(
        _by_trial(
            replace(check, fit=numbers.get(check.key.removeprefix("fit-"), 0)), plan
        )
        for check in (
            *made.checks,
            *on_the_lathe(made, plan.lathe),
            *on_the_mill(made, plan.mill),
            *on_the_drill_press(route, drill_press),
            *on_the_grinder(made, route, plan.grinder),
            *by_the_motor(
                route,
                {
                    "lathe": plan.lathe,
                    "mill": plan.lathe if plan.no_mill else plan.mill,
                    "drill": drill_press,
                },
            ),
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
    route = _for_all(_with_linked(route, ruled), made.count)
    return replace(
        plan, fits=fits, made=made, checks=checks, route=route, changed=changed
    )


def _for_all(route: tuple[HoldingTold, ...], count: int) -> tuple[HoldingTold, ...]:
    """The route of several pieces alike: each holding serves all of them."""
    if count == 1:
        return route
    says = f"All {count} in this holding before the next is set up."
    return tuple(replace(up, reason=f"{up.reason} {says}".strip()) for up in route)


def _by_trial(check: Check, plan: Plan) -> Check:
    """A check that no band is left passes once the fit is cut to its mate by trial."""
    fit = next((fit for fit in plan.fits if fit.choice.number == check.fit), None)
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
