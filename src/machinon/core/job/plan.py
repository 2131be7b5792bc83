"""A job worked out: its sizes, fits, piece, checks, route, cuts and proof."""

import functools
from collections.abc import Mapping

from msgspec import Struct

from machinon.core.cutting.coach import Advice
from machinon.core.cutting.cut_state import CutState, Dial
from machinon.core.job.at_dial import passes_to_come
from machinon.core.job.fit_plan import (
    FitPlan,
    can_be_cut,
    cut_as_drawn,
)
from machinon.core.job.habits import Habit
from machinon.core.job.job import Job, Stage
from machinon.core.job.made_piece import (
    Wanted,
)
from machinon.core.job.proof import (
    ProofLine,
    Verdict,
)
from machinon.core.piece.family import Check
from machinon.core.piece.made import Made
from machinon.core.reckoning import Answer
from machinon.core.route.no_mill import NoMill
from machinon.core.route.steps import (
    HoldingTold,
    StepTold,
)
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import (
    Lathe,
    Piece,
    Shop,
    Surface,
    SurfaceKind,
)
from machinon.core.survey.measuring import Measured
from machinon.core.wording import within


class Plan(Struct, frozen=True, dict=True):
    """A job worked out."""

    job: Job
    shop: Shop
    lathe: Lathe | None
    pieces: Mapping[str, Piece]
    measured: Mapping[tuple[str, str], Measured | None]
    fits: tuple[FitPlan, ...]
    missing: tuple[Wanted, ...] = ()  # what keeps the piece from being drawn
    checks: tuple[Check, ...] = ()
    route: tuple[HoldingTold, ...] = ()
    cut_state: CutState | None = None
    advice: Advice | None = None
    proof: tuple[ProofLine, ...] = ()
    runout: Answer | None = None
    verdict: Verdict = "open"
    verdict_says: str = ""
    made: Made | None = None
    problem: str = ""  # why it cannot be as decided
    open: Mapping[Stage, tuple[str, ...]] = {}
    # the pieces with what stands for those that are made here
    standing: Mapping[str, Piece] = {}
    bodies: Mapping[str, Made | None] = {}  # what is made, by the key of its work
    # by finished step, the sizes that were drawn otherwise when it was cut, with the
    # sentence for each
    changed: Mapping[str, Mapping[str, str]] = {}
    dial: Dial | None = None
    habit: Habit | None = None
    mill: Machine | None = None
    no_mill: NoMill | None = None  # what is used in place of a mill; None where one is
    grinder: Machine | None = None
    # by its key, a step before it was said in inches
    in_mm: Mapping[str, StepTold] = {}

    @property
    def asked(self) -> tuple[str, ...]:
        """The sizes of its mates that no gauge reads, still to be typed."""
        return tuple(wanted.key for wanted in self.missing if wanted.stage == "piece")

    @property
    def stale(self) -> frozenset[str]:
        """The sizes that are drawn otherwise than they were cut."""
        return frozenset(key for sizes in self.changed.values() for key in sizes)

    @property
    def passes(self) -> tuple[Advice, ...]:
        """The passes to come; worked out when they are asked for."""
        return passes_to_come(self.cut_state, self.at_machine)

    @functools.cached_property
    def at_machine(self) -> FitPlan | None:
        """The fit whose new half is at the machine, or the size of the drawing; None
        where none is."""
        if self.job.work.at_size:
            made, key = self.made, self.job.work.at_size
            return cut_as_drawn(made, key, self.shop) if made is not None else None
        number = self.job.cutting
        return next((fit for fit in self.fits if fit.choice.number == number), None)

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
        return next(fit for fit in self.fits if fit.choice.number == number)

    @property
    def failed(self) -> tuple[Check, ...]:
        return tuple(check for check in self.checks if not check.passed)

    @property
    def grave(self) -> tuple[Check, ...]:
        """Failed checks that must be settled before metal is cut."""
        return tuple(check for check in self.failed if check.grave)

    @property
    def stack(self) -> tuple[Piece, ...]:
        """The existing pieces that stay: without those that others are made from."""
        used = {w.making.old for w in self.job.works if w.making is not None}
        return tuple(piece for id, piece in self.pieces.items() if id not in used)

    @property
    def grave_stages(self) -> tuple[Stage, ...]:
        """Stages in which something stands that must be settled before cutting."""
        if not self.grave:
            return ()
        fits: tuple[Stage, ...] = ("fits",) if any(c.fit for c in self.grave) else ()
        return (*fits, "piece", "route")

    @property
    def cut_name(self) -> str:
        """The size or step at the machine, in a word or two."""
        fit = self.at_machine
        if fit is None:
            return "fit"
        words: dict[SurfaceKind, str] = {
            "outside": "outside diameter",
            "inside": "bore",
        }
        if fit.choice.joint == "slot":
            return "tongue" if fit.choice.exists == "hole" else "slot"
        return words.get(fit.measured_as, within(fit.choice.name))
