"""The job at hand: its documents, what follows from them, how an act is kept."""

import functools
from collections.abc import Callable, Iterator, Mapping

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.habits import Cuts, Habit, habit_of
from machinon.core.job.job import Job, Stage, Work
from machinon.core.job.made_piece import gauged_by
from machinon.core.job.plan import Plan
from machinon.core.job.planning import plan_of
from machinon.core.job.rules_kept import as_last_kept, with_rules_kept
from machinon.core.materials import material
from machinon.core.piece.family import FitSlot
from machinon.core.quantity import length_text
from machinon.core.route.no_mill import ELSEWHERE
from machinon.core.shop.entry import KIND_WORDS
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Instrument, Lathe, Piece, Reading, Shop, Surface
from machinon.core.survey.as_typed import read_place, read_typed, read_warmth
from machinon.core.wording import within
from machinon.store.documents import Document
from machinon.store.shop_file import ShopFile, local_time

LAST_JOBS = 20  # that say what a lathe is used to take


class Notes(Struct, frozen=True):
    """The line under the stages: open checks, the caution, the saved state."""

    open_checks: str
    caution: str
    saved: str
    grave: bool
    unsaved: bool = False


class JobAtHand:
    """One job with everything that belongs to it, and how an act on it is kept."""

    def __init__(
        self, file: ShopFile, job_id: str, clock: Callable[[], str] = local_time
    ) -> None:
        self.file = file
        self._clock = clock
        self.job: Job
        self.shop: Shop
        self.lathe: Lathe | None
        self.pieces: dict[str, Piece]
        self.plan: Plan
        self.changed: Callable[[], None] = lambda: None
        self.truing = False  # the work is set true before its step goes on
        # sizes that stay as the job was last kept, though rules have changed since
        self.stayed: list[str] = []
        self.load(job_id)

    # -- the whole -------------------------------------------------------

    def load(self, job_id: str) -> None:
        """Read the job and its pieces from the shop file and work it out."""
        job = self.file.get(job_id)
        if not isinstance(job, Job):
            raise BadInput("job", "That job is not in this shop.")
        lathe = self.file.get(job.lathe) if job.lathe else None
        self.job = job
        self.shop = self.file.shop()
        self.lathe = lathe if isinstance(lathe, Lathe) else None
        found = {piece: self.file.get(piece) for piece in job.pieces}
        self.pieces = {id: p for id, p in found.items() if isinstance(p, Piece)}
        self._work_out()
        self._stay_as_kept()

    def _stay_as_kept(self) -> None:
        """Leave sizes as they were where the program's rules have changed since; no act
        of its own: it is kept with the next one."""
        job, self.stayed = as_last_kept(self.job, self.plan.bodies)
        if not self.stayed:
            return
        plan = self._planned(job, self.shop, self.pieces)
        if plan.problem and not self.plan.problem:
            self.stayed = []
            return
        self.job, self.plan = job, plan

    def _work_out(self) -> None:
        self.plan = self._planned(self.job, self.shop, self.pieces)

    def _planned(self, job: Job, shop: Shop, pieces: Mapping[str, Piece]) -> Plan:
        lathe, mill = self._lathe_of(job), self._mill_of(job)
        used_to = functools.partial(self._used_to, job)
        return plan_of(job, shop, lathe, pieces, mill, used_to, self._machines)

    def _lathe_of(self, job: Job) -> Lathe | None:
        if job.lathe == self.job.lathe:
            return self.lathe
        found = self.file.get(job.lathe)
        return found if isinstance(found, Lathe) else None

    def _mill_of(self, job: Job) -> Machine | None:
        """The mill of a job, else the first of the shop."""
        mills = [machine for machine in self._machines if machine.kind == "mill"]
        own = (machine for machine in mills if machine.id == job.mill)
        return next(own, mills[0] if mills else None)

    def _used_to(self, job: Job, what: Cuts) -> Habit:
        """Habit of the lathe in its last jobs; this one's own cuts speak later."""
        at = (job.lathe, job.cutting, what)
        if at not in self._habits:
            self._habits[at] = habit_of(self._other_jobs, job, what, self.shop)
        return self._habits[at]

    @functools.cached_property
    def _habits(self) -> dict[tuple[str, int, Cuts], Habit]:
        """Habits found so far, by the lathe and the fit at the machine."""
        return {}

    # read once, and only where something is at the machine
    @functools.cached_property
    def _other_jobs(self) -> list[Job]:
        found = self.file.all_of(Job, LAST_JOBS + 1)
        return [job for job in found if job.id != self.job.id][:LAST_JOBS]

    # read once, as the shelves are: a job does not change it
    @functools.cached_property
    def _machines(self) -> tuple[Machine, ...]:
        found = self.file.all_of(Machine)  # whichever of them was touched last
        return tuple(sorted(found, key=lambda machine: machine.id))

    @functools.cached_property
    def _lathes(self) -> tuple[Lathe, ...]:
        return tuple(self.file.all_of(Lathe))

    @property
    def _mill(self) -> Machine | None:
        return self._mill_of(self.job)

    def machines(self, kind: str) -> tuple[Lathe | Machine, ...]:
        """The lathes or the mills of the shop, the one that the job is on first."""
        own: tuple[Lathe | Machine | None, ...]
        if kind == "lathe":
            own = (self.lathe, *self._lathes)
        elif kind == "mill":
            own = (
                self._mill,
                *(machine for machine in self._machines if machine.kind == kind),
            )
        else:
            return ()
        return tuple(
            {machine.id: machine for machine in own if machine is not None}.values()
        )

    def places_for(self, kind: str) -> tuple[tuple[str, str], ...]:
        """Where work for a lathe or a mill may be done, the present one first: what
        `use_machine` takes, and in words."""
        found = tuple((at.id, f"on the {at.name}") for at in self.machines(kind))
        if kind != "mill" or found or self.lathe is None:
            return found
        own, other = (
            (self.lathe.id, "with the machines of this shop"),
            (ELSEWHERE, "on a mill elsewhere"),
        )
        return (own, other) if self.plan.no_mill else (other, own)

    def use_machine(self, kind: str, id: str) -> None:
        """Do the job's work for a lathe or a mill somewhere else."""
        at = dict(self.places_for(kind))[id]
        job = replace(self.job, **{kind: id})
        if job != self.job:
            self._keep(f"Work for the {kind}: {at}.", job)

    @property
    def _divider(self) -> Machine | None:
        """The first rotary table or dividing head of the shop."""
        kinds = ("rotary table", "dividing head")
        return next(
            (machine for machine in self._machines if machine.kind in kinds), None
        )

    def _keep(self, says: str, *documents: Document, size: str = "") -> None:
        """Work an act out, and only then keep it: what cannot be worked out is
        never on disk, where it would meet the person again at every start.

        size: the size that was typed. Raises BadInput on it where the piece can no
        longer be made, so that the last good one stays.
        """
        job, shop, pieces = self.job, self.shop, dict(self.pieces)
        joining = {
            id
            for document in documents
            if isinstance(document, Job)
            for id in document.pieces
        }
        for document in documents:
            if isinstance(document, Job):
                job = document
            elif isinstance(document, Piece) and document.id in {*pieces, *joining}:
                pieces[document.id] = document
            elif isinstance(document, Shop):
                shop = document
        plan = self._planned(job, shop, pieces)
        if size and plan.problem and not self.plan.problem:
            raise BadInput(size, plan.problem)
        if job is not self.job:
            job = with_rules_kept(job, plan.bodies)
            plan = replace(plan, job=job)
        kept = (job if isinstance(d, Job) else d for d in documents)
        self.file.act(self.job.id, says, *kept)
        self.lathe = plan.lathe
        self.job, self.shop, self.pieces, self.plan = job, shop, pieces, plan
        self.changed()

    def choose_work(self, key: str) -> None:
        """Piece, Route, Cut and Proof speak of this one from now on; no act of its own:
        it is kept with the next one."""
        if key != self.job.at:
            self.job = replace(self.job, at=key)
            self._work_out()
            self.changed()

    def slot_of(self, number: int) -> FitSlot | None:
        """The slot of a fit in the piece that is made; None for one that was added."""
        return next((slot for _, slot in self._slots(number)), None)

    def resting_on(self, number: int) -> Work | None:
        """The piece that rests on a fit, at hand or not; None for an added one."""
        return next((work for work, _ in self._slots(number)), None)

    def _slots(self, number: int) -> Iterator[tuple[Work, FitSlot]]:
        for work in self.job.works:
            for slot in family_for(work.making).fits if work.making else ():
                if work.fits.get(slot.key) == number:
                    yield work, slot

    def undo(self) -> str:
        """Undo the last act on this job; says which.

        Where that was its beginning, the job is `gone`.
        """
        return self._moved(self.file.undo(self.job.id))

    def redo(self) -> str:
        return self._moved(self.file.redo(self.job.id))

    def _moved(self, says: str) -> str:
        if says and not self.gone:
            self.load(self.job.id)
            self.changed()
        return says

    @property
    def gone(self) -> bool:
        """Whether the job is no longer in the shop."""
        return all(entry.id != self.job.id for entry in self.file.entries("job"))

    @property
    def inch(self) -> bool:
        """Whether inches are shown first in this shop."""
        return self.shop.inch

    def notes(self, stage: Stage) -> Notes:
        """The notes line of a stage."""
        grave = self.plan.grave
        if grave:
            more = f" (and {len(grave) - 1} more)" if len(grave) > 1 else ""
            checks = f"{grave[0].says}{more}"
        else:
            todo = self.plan.open.get(stage, ())
            checks = todo[0] if todo else "Nothing open in this stage."
        trouble = self.file.trouble
        saved = f"NOT on disk: {trouble}" if trouble else "Every entry is on disk"
        if self.file.look_only:
            saved = "Read only"
        making = self.job.making
        own = family_for(making).cautions if making is not None else {}
        caution = own.get(stage, _CAUTIONS[stage])
        return Notes(checks, caution, saved, bool(grave), bool(trouble))

    def _reading(
        self,
        typed: str,
        surface: Surface,
        instrument_id: str,
        temperature: str = "",
        place: str = "",
    ) -> Reading:
        instrument = self.shop.instrument(instrument_id)
        if not set(gauged_by(self.plan.made, surface)) & set(instrument.suits):
            raise BadInput(
                "reading",
                f"The {instrument.name} does not measure {KIND_WORDS[surface.kind]}: "
                "choose one that does.",
            )
        at = read_place(place, surface, instrument.inch)
        value = read_typed(typed, surface, instrument.inch)
        if not instrument.reaches(value):
            reach = " to ".join(
                length_text(end, 0.1, instrument.inch)
                for end in (instrument.least, instrument.most)
            )
            raise BadInput(
                "reading",
                f"The {instrument.name} measures {reach}: choose one that reaches.",
            )
        warm = read_warmth(temperature) if temperature.strip() else None
        return Reading(value, instrument.id, typed.strip(), at, warm, self._clock())

    def _cold(self, size: float, temperature: float) -> float:
        """A size read on the piece at a temperature, °C, as it is at 20 °C; mm."""
        made = self.plan.made
        metal = material(made.material if made is not None else "steel")
        return metal.cold(size, temperature)

    def _said(self, reading: Reading) -> str:
        instrument = self.shop.instrument(reading.instrument)
        text = length_text(reading.value, instrument.resolution, instrument.inch)
        return f"{text} by {within(instrument.name)}"

    def gauges(self, surface: Surface) -> tuple[Instrument, ...]:
        """Instruments of the shop that can read a surface, surest first."""
        kinds = gauged_by(self.plan.made, surface)
        return self.shop.instruments_for(*kinds)


_CAUTIONS: Mapping[Stage, str] = {
    "survey": "Spindle stopped and chuck key out before measuring.",
    "fits": "Edges and chips cut: wipe with a rag, never with the hand.",
    "piece": "Keep to the maker's limits of machine and tool.",
    "route": "Clamp the work and the tool well; eyes covered, chips brushed off.",
    "cut": "Stop the spindle before every reading; no gloves, sleeves up.",
    "proof": "Machine stopped before trying a mate; mind the fingers.",
}
