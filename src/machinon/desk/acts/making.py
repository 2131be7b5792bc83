"""Acts of Piece, Route and Cut: sizes, steps, and the work at the dial."""

import contextlib
import functools
from collections.abc import Iterator
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.cutting.cut_state import CutEntry, Dial
from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.at_dial import dial_for
from machinon.core.job.fit_plan import (
    FitPlan,
    can_be_cut,
    cut_as_drawn,
)
from machinon.core.job.job import CutLog, Job, Stage
from machinon.core.job.made_piece import (
    drawn_surface,
    proof_surface,
    ruled_by_fits,
    with_size,
)
from machinon.core.job.own_alike import own_alike
from machinon.core.job.proof import ProofLine
from machinon.core.job.since_cut import with_done, without_done
from machinon.core.piece.family import Value, spoken
from machinon.core.quantity import length_text
from machinon.core.route.operations import HoldingTold, StepTold, still_cut
from machinon.core.route.order import broken, in_order, keyed, stepped
from machinon.core.route.own_stock import own_stock
from machinon.core.route.own_tools import OwnTool, own_collet, own_tool
from machinon.core.route.work.lines import Line, Machines, WorkList
from machinon.core.route.work.listed import lines_in_inches, work_list
from machinon.core.route.work.set_true import read_round
from machinon.core.shop.belongings import Belongings
from machinon.core.shop.things import Piece, Surface
from machinon.core.wording import begun, within
from machinon.desk.acts.job import JobAtHand


class Drawn(Struct, frozen=True):
    """The job as it was before an act: when that was, and what it did."""

    at: str
    says: str
    job: Job


# worked to their size by lines of their own: a keyway to its key, a wheel by sparks
BY_LINES = ("keyway", "grind")
Way = Literal["proof", "fit", "size", "lines", "undecided"]
# what leaves a size that a slide is fed to
AT_A_SLIDE = ("turn", "bore", "face", "mill", "square", "groove", "keyway", "grind")


class MakingActs(JobAtHand):
    """What is done while the piece is drawn and made."""

    def set_size(self, key: str, typed: str) -> None:
        """A size of the piece as typed on the drawing. Raises BadInput on `key`."""
        making = self.job.making
        assert making is not None
        family = family_for(making)
        text = typed.strip()
        name, said = key, text or "follows its rule again"
        if key in family.mate_keys:
            mate = family.mate_keys[key]
            name = mate.words
            text = mate.kept(key, text, self.inch)
        elif key != "material":
            size = family.size(key)
            name = size.words
            if text and not text.startswith("="):
                value = size.read(text, self.inch)
                # as it is whatever the shop's unit will be
                if size.kind is quantity.LENGTH:
                    text = f"{quantity.typed_again(float(value))}mm"
                elif size.measure == "points":
                    text = str(value)
        changed = with_size(making, key, text)
        if changed == making:
            return
        job = self.job.with_work(making=changed)
        self._keep(f"{family.name}, {name}: {said}.", job, size=key)

    def proves(self, key: str) -> bool:
        """Whether a size is measured in the proof."""
        return any(one.id == f"size.{key}" for one in self.job.proof.surfaces)

    def prove_size(self, key: str) -> None:
        """Measure a size of the drawing in the proof as well, or no longer.

        Raises BadInput on `key` for one that no gauge reads, that its fit proves, or
        that others are made to.
        """
        made, proof = self.plan.made, self.job.proof
        assert made is not None
        words = made.sizes[key].size.words
        surface = drawn_surface(made, key)
        if surface is None:
            raise BadInput(key, f"{words}: no gauge reads that.")
        if key in ruled_by_fits(made).values():
            raise BadInput(key, f"{words}: its fit proves it.")
        if not self.proves(key):
            surfaces = (*proof.surfaces, surface)
        elif any(one.piece == self.job.work.as_mate for one in self.job.fits):
            raise BadInput(key, f"{words}: another piece is made to it.")
        else:
            surfaces = tuple(one for one in proof.surfaces if one.id != surface.id)
        said = "proved as well" if len(surfaces) > len(proof.surfaces) else "not proved"
        job = self.job.with_work(proof=replace(proof, surfaces=surfaces))
        self._keep(f"{made.family.name}, {words}: {said}.", job)

    def drawn_before(self) -> list[Drawn]:
        """How the piece at hand was drawn before, the newest first: each time that a
        decision of it changed."""
        found: list[Drawn] = []
        at, making, after = self.job.at, self.job.making, None
        for line, job in self.file.history(self.job.id):
            work = next((w for w in getattr(job, "works", ()) if w.key == at), None)
            if work is None or work.making is None:
                break  # before it was begun
            if after is not None and work.making != making:
                assert isinstance(job, Job)
                found.append(Drawn(after.at, after.says, job))
            making, after = work.making, line
        return found

    def sizes_then(self, drawn: Drawn) -> dict[str, Value]:
        """The sizes of the piece at hand as it was drawn before, on the mates as they
        are now; empty where it could not be made."""
        job = replace(drawn.job, at=self.job.at)
        pieces = {id: one for id, one in self.pieces.items() if id in job.pieces}
        made = self._planned(job, self.shop, pieces).made
        return {} if made is None else {k: v.value for k, v in made.sizes.items()}

    def could_be_there(self, key: str) -> str:
        """The feature of a size that the piece may have already; empty for none."""
        made = self.plan.made
        assert made is not None
        name = made.sizes[key].size.drawn_at.partition(".")[0]
        cut = {one for up in made.holdings for s in up.steps for one in s.features}
        return name if name in cut else ""

    def mark_there(self, feature: str, there: bool) -> None:
        """Say that a feature is on the piece it is made from, so that no step cuts it;
        or that it is still to be cut."""
        making = self.job.making
        assert making is not None
        kept = tuple(one for one in making.there if one != feature)
        made = replace(making, there=(*kept, feature) if there else kept)
        said = "is there already" if there else "is to be cut"
        self._keep(f"{begun(spoken(feature))} {said}.",
                   self.job.with_work(making=made))  # fmt: skip

    def mark_step(self, key: str, done: bool) -> None:
        """Tick a step of the route, or untick it.

        Raises BadInput on `step` for one that holds the piece in its place until a
        fit is proved, while that is open.
        """
        steps = {step.key: step for up in self.plan.route for step in up.steps}
        line = self.unproved(steps[key]) if done else None
        if line is not None:
            raise BadInput(
                "step",
                f"Not off the machine yet: {within(line.name)} {line.says}. Prove it "
                "here first: it cannot be put back as true.",
            )
        job = self._with_done(key) if done else without_done(self.job, key)
        if not done:
            ticked = {k: v for k, v in job.work.ticked.items() if k != key}
            job = job.with_work(ticked=ticked)
        begun = job.work.clocks.items()
        clocks = {k: v for k, v in begun if not k.startswith(f"{key}.")}
        job = job.with_work(clocks=clocks)
        self._keep(
            f"Step {'done' if done else 'to do again'}: {steps[key].title}.", job
        )

    # -- a step, line by line ----------------------------------------------

    def work_at(self, key: str) -> None:
        """Put a step at the machine, to be worked line by line. Raises BadInput on
        `step` for one that the route has not."""
        step = self.plan.step(key)
        if step is None:
            raise BadInput("step", "The route has no such step any more.")
        if key != self.job.work.at_step:
            job = self.job.with_work(at_step=key, at_size="", cutting=0)
            self._keep(f"At the machine: {step.title}.", job)

    @property
    def lines(self) -> WorkList:
        """What is done in the step at the machine; no lines where none is."""
        step = self.plan.at_step
        return WorkList(()) if step is None else self.lines_of(step)

    def lines_of(self, step: StepTold) -> WorkList:
        """What is done in a step of the route."""
        held = self._holding.of_kind("pin") if self._holding else ()
        at = Machines(self.lathe, self._divider, tuple(one.size for one in held))
        told = self.plan.in_mm.get(step.key, step)
        found = work_list(told, at, self.job.work.ways)
        return lines_in_inches(found) if self.inch else found

    @property
    def lines_done(self) -> tuple[str, ...]:
        """The lines of the step at the machine that are ticked."""
        work = self.job.work
        return work.ticked.get(work.at_step, ())

    def tick_line(self, key: str, done: bool = True) -> None:
        """Tick a line of the step at the machine, or untick it: then the step is to be
        done again as well."""
        work, there = self.job.work, self.lines_done
        line = next(one for one in self.lines.lines if one.key == key)
        if done == (key in there):
            return
        kept = (*there, key) if done else tuple(one for one in there if one != key)
        said = "done" if done else "to do again"
        job = self.job if done else without_done(self.job, work.at_step)
        ticked = {**work.ticked, work.at_step: kept}
        self._keep(f"{line.head}: {said}.", job.with_work(ticked=ticked))

    def press_clock(self, line: Line) -> None:
        """Start the clock of a line of the step at the machine, or stop it."""
        clocks = dict(self.job.work.clocks)
        name = f"{self.job.work.at_step}.{line.key}"
        runs = clocks.pop(name, None) is not None
        if not runs:
            clocks[name] = self._clock()
        self._keep(
            f"Clock {'stopped' if runs else 'started'}: {line.head}.",
            self.job.with_work(clocks=clocks),
        )

    def clock_of(self, line: Line) -> str:
        """When the clock of a line of the step at the machine was started; empty where
        it does not run."""
        return self.job.work.clocks.get(f"{self.job.work.at_step}.{line.key}", "")

    def choose_way(self, key: str, answer: str) -> None:
        """How steps are done from now on, by what was asked: `places`, `turned`."""
        ways = self.job.work.ways
        if ways.get(key) != answer:
            self._keep("At the machine: done another way.",
                       self.job.with_work(ways={**ways, key: answer}))  # fmt: skip

    # -- set true in its chuck ----------------------------------------------

    @property
    def holding(self) -> HoldingTold | None:
        """The holding of the step at the machine; None where none is."""
        at = self.job.work.at_step
        ups = (u for u in self.plan.route if any(s.key == at for s in u.steps))
        return next(ups, None)

    @property
    def turns_read(self) -> tuple[tuple[float, ...], ...]:
        """Every turn of readings in the holding at the machine, the last one last."""
        up = self.holding
        return self.job.work.trued.get(up.key, ()) if up is not None else ()

    @property
    def true_within(self) -> float:
        """What the needle may show for the work to be true, mm."""
        return float(self.job.work.ways.get("true", "0.02"))

    def read_round(self, typed: str) -> None:
        """A turn of indicator readings in the holding at the machine, equally spaced.

        Raises BadInput on `readings`.
        """
        up = self.holding
        assert up is not None
        values = read_round(
            [
                quantity.parse(part, inch=self.inch, key="readings", low=-20, high=20)
                for part in quantity.list_parts(typed)
            ]
        )
        said = ", ".join(quantity.small_text(v, self.inch) for v in values)
        work = self.job.work
        trued = {**work.trued, up.key: (*self.turns_read, values)}
        self._keep(f"Set true, read {said}.", self.job.with_work(trued=trued))

    def set_true_within(self, typed: str) -> None:
        """How true it is to be. Raises BadInput on `true`."""
        value = quantity.parse(typed, inch=self.inch, key="true", low=0.001, high=2)
        ways = {**self.job.work.ways, "true": quantity.typed_again(value)}
        self._keep(
            f"To run true within {length_text(value, 0.001, self.inch)}.",
            self.job.with_work(ways=ways),
        )

    def read_at_step(self, key: str, typed: str) -> None:
        """A length read at the machine, as a line of the step asks it; nothing typed
        takes it back. Raises BadInput on `reading`."""
        ways = {k: v for k, v in self.job.work.ways.items() if k != key}
        said = "taken back"
        if typed.strip():
            value = quantity.parse(
                typed, inch=self.inch, key="reading", low=-50, high=50
            )
            ways[key] = quantity.typed_again(value)
            said = length_text(value, 0.001, self.inch)
        if ways != self.job.work.ways:
            job = self.job.with_work(ways=ways)
            self._keep(f"Read at the machine: {said}.", job)

    def next_step(self) -> StepTold | None:
        """The first step after that at the machine which is not done; None for the
        end of the route."""
        steps = [step for up in self.plan.route for step in up.steps]
        keys = [step.key for step in steps]
        at = self.job.work.at_step
        after = steps[keys.index(at) + 1 :] if at in keys else steps
        return next((one for one in after if one.key not in self.job.done), None)

    def way_of(self, step: StepTold) -> Way:
        """How a step is worked: `proof` before the piece comes off, `fit` or `size` at
        the dial, `lines` one by one; `undecided` where its fit has no band yet."""
        if step.hold and self.unproved(step) is not None:
            return "proof"
        if step.operation in BY_LINES:
            return "lines"
        fit = self.plan.fit(step.fit) if step.fit and not step.hold else None
        if fit is not None and step.operation in AT_A_SLIDE:
            if can_be_cut(fit) and self.can_dial(fit):
                return "fit"
            if fit.choice.kind == "cylinder" and not can_be_cut(fit):
                return "undecided"
        return "size" if self.lathe and self.proved_at_dial(step) else "lines"

    def to_step(self, step: StepTold) -> Stage:
        """Take a step to the machine by the way it is worked; says in which stage that
        goes on."""
        match self.way_of(step):
            case "proof":
                return "proof"
            case "undecided":
                return "fits"
            case "fit":
                self.cut_fit(step.fit)
            case "size":
                self.cut_size(self.proved_at_dial(step))
            case "lines":
                self.work_at(step.key)
        return "cut"

    def _with_done(self, *keys: str) -> Job:
        """The job with steps done to the sizes that are drawn now."""
        return with_done(self.job, self.plan.made, self.plan.route, keys)

    def move_step(self, key: str, later: bool, because: str = "") -> None:
        """Work a step one place earlier or later in the route.

        Raises BadInput on `step` for what no metal allows, and on `because` where a
        rule of the shop speaks against it and no reason is given.
        """
        making, made = self.job.making, self.plan.made
        assert making is not None
        assert made is not None
        titles = {step.key: step.title for up in self.plan.route for step in up.steps}
        if key in self.job.done:
            raise BadInput("step", f"{titles[key]}: it is done already.")
        planned = still_cut(keyed(made.holdings), making.there)
        moved = stepped(planned, making.moved, key, later)
        was = broken(in_order(planned, making.moved), planned)
        news = [
            one for one in broken(in_order(planned, moved), planned) if one not in was
        ]
        for one in sorted(news, key=lambda one: not one.never):
            if one.never or not because.strip():
                at = "step" if one.never else "because"
                raise BadInput(at, f"{titles[one.step]}: {one.says}")
        reasons = {one.step: one.because for one in making.moved}
        why = because.strip() or reasons.get(key, "")
        moved = tuple(
            replace(one, because=why) if one.step == key else one for one in moved
        )
        place = "later" if later else "earlier"
        reason = f", because {because.strip()}" if news else ""
        self._keep(
            f"Step moved {place}: {titles[key]}{reason}.",
            self.job.with_work(making=replace(making, moved=moved)),
        )

    def as_planned(self) -> None:
        """Put every step back in its usual place."""
        making = self.job.making
        assert making is not None
        if making.moved:
            self._keep(
                "Every step of the route in its usual place again.",
                self.job.with_work(making=replace(making, moved=())),
            )

    def moved_because(self, key: str) -> str | None:
        """The reason a step was moved for, empty for none; None if it was not."""
        making = self.job.making
        moves = making.moved if making is not None else ()
        return next((one.because for one in moves if one.step == key), None)

    def unproved(self, step: StepTold) -> ProofLine | None:
        """The line of the proof that a step holds the piece for, while it is open."""
        if not step.hold:
            return None
        return next(
            (
                line
                for line in self.plan.proof
                if line.fit == step.fit and line.verdict != "proved"
            ),
            None,
        )

    def own_tool(self, step: StepTold) -> OwnTool:
        """What the shop's shelf has for a step, and says of it."""
        return own_tool(step, self._tools, self.inch)

    def own_stock(self) -> str:
        """What the shop's rack has for the piece, a collet for its shank, and what it
        should have alike with its other pieces."""
        made = self.plan.made
        if made is None:
            return ""
        said = (
            own_stock(made, self._stock, self.inch),
            own_collet(made, self._holding, self.inch),
            own_alike(made, self._others(), self.inch),
        )
        return " ".join(one for one in said if one)

    # read once: they are asked for at every edit, and a job does not change them
    @functools.cached_property
    def _tools(self) -> Belongings | None:
        return self._shelf("tools")

    @functools.cached_property
    def _holding(self) -> Belongings | None:
        return self._shelf("holding")

    @functools.cached_property
    def _stock(self) -> Belongings | None:
        return self._shelf("stock")

    @functools.cached_property
    def _made_here(self) -> tuple[Piece, ...]:
        return tuple(one for one in self.file.all_of(Piece) if one.making)

    def _others(self) -> Iterator[Piece]:
        """What was made in the shop besides this piece; read when it is asked for."""
        kept = self.job.work.kept_as
        yield from (one for one in self._made_here if one.id != kept)

    def _shelf(self, id: str) -> Belongings | None:
        found = self.file.get(id)
        return found if isinstance(found, Belongings) else None

    @property
    def dial(self) -> Dial:
        """The dial of what is at the machine."""
        if self.plan.dial is not None:
            return self.plan.dial
        assert self.lathe is not None
        return Dial(self.lathe.dial_reads, self.lathe.dial_division)

    def can_dial(self, fit: FitPlan) -> bool:
        """Whether the shop has a slide that a fit's new half is cut by."""
        made, lathe = self.plan.made, self.lathe
        return dial_for(fit, made, lathe, self._mill) is not None

    def measure_start(self, typed: str) -> None:
        """The size before the first cut. Raises BadInput on `start`."""
        gauge = self.shop.instrument(self.job.log.instrument)
        # a slot's depth begins at nothing, a diameter never does
        least = -1e-9 if self.dial.straight else 0
        size = quantity.parse(
            typed, inch=gauge.inch, key="start", above=least, high=2000
        )
        state = self.plan.cut_state
        if state is not None and state.external and size < state.lower:
            raise BadInput(
                "start",
                f"{size:.3f} mm is already under the band: it must be above "
                f"{state.lower:.3f} mm before the first cut.",
            )
        if state is not None and not state.external and size > state.upper:
            raise BadInput(
                "start",
                f"{size:.3f} mm is already over the band: it must be under "
                f"{state.upper:.3f} mm before the first cut.",
            )
        self._keep(
            f"{length_text(size, gauge.resolution, gauge.inch)} before the first cut.",
            self.job.with_log(replace(self.job.log, start=size, entries=())),
        )

    def touch_at(self, typed: str) -> None:
        """What the dial shows with the tool touching. Raises BadInput on `touch`."""
        at = quantity.parse(typed, inch=self.dial.inch, key="touch", low=-500, high=500)
        self._keep(
            f"Touched at {self.dial.text(at)} on the dial.",
            self.job.with_log(replace(self.job.log, touch=at)),
        )

    @property
    def touch(self) -> float:
        """What the dial showed at touch, as it reads; 0 before it was said."""
        return self.job.log.touch or 0.0

    def could_be(self, typed: str) -> tuple[bool, bool]:
        """Whether what is typed at the dial can be its setting, and a reading.

        A setting lies from where the dial stands to the deepest pass from there; a
        reading lies by what is left to cut of the size known last.
        """
        cut, state = self.job.log, self.plan.cut_state
        gauge = self.shop.instrument(cut.instrument)
        before = cut.entries[-1].dial if cut.entries else 0.0
        at_dial = reads = False
        with contextlib.suppress(BadInput):
            seen = quantity.parse(typed, inch=self.dial.inch, low=-500, high=500)
            into = self.dial.position(seen, self.touch) - before
            at_dial = -1e-9 <= into <= cut.deepest + self.dial.travel
        with contextlib.suppress(BadInput):
            size = quantity.parse(typed, inch=gauge.inch, above=0, high=2000)
            last = cut.last_read.measured if cut.last_read else cut.start
            if state is not None and last is not None:
                # half a millimetre past either end is still a mistake at the dial
                ends = (state.lower, last) if state.external else (last, state.upper)
                reads = ends[0] - 0.5 <= size <= ends[1] + 0.5
        return at_dial, reads

    def cut_made(self, shown: str = "") -> None:
        """A pass was taken at the advised dial, or at the reading typed."""
        advice = self.plan.advice
        assert advice is not None
        cut = self.job.log
        before = cut.entries[-1].dial if cut.entries else 0.0
        position = advice.dial
        if shown.strip():
            typed = quantity.parse(
                shown, inch=self.dial.inch, key="dial", low=-500, high=500
            )
            position = self.dial.position(typed, self.touch)
            if position > before + cut.deepest + self.dial.travel + 1e-9:
                most = self.dial.text(self.dial.shows(before + cut.deepest, self.touch))
                raise BadInput(
                    "dial",
                    f"That is further than the deepest pass: up to {most} is allowed. "
                    "Was it meant as a reading?",
                )
            if position < before - 1e-9:
                low = self.dial.text(self.dial.shows(before, self.touch))
                raise BadInput(
                    "dial",
                    f"The dial stood at {low} already: {low} or more is allowed. "
                    "Undo the last entry if that was the mistake.",
                )
        spring = position <= before + 1e-9
        entry = CutEntry(
            round(position, 6), None, 1 if spring else 0, cut.instrument, self._clock()
        )
        seen = self.dial.text(self.dial.shows(position, self.touch))
        self._keep(
            "Spring pass, dial not moved."
            if spring
            else f"Cut taken at {seen} on the dial.",
            # how the mate went on was said of the size before
            self.job.with_log(replace(cut, entries=(*cut.entries, entry), trial="")),
        )

    def measured_cut(self, typed: str) -> None:
        """The reading after a cut, or one more of the same surface."""
        cut = self.job.log
        gauge = self.shop.instrument(cut.instrument)
        size = quantity.parse(typed, inch=gauge.inch, key="reading", above=0, high=2000)
        before, read_at = cut.start, 0.0
        if cut.last_read:
            before, read_at = cut.last_read.measured, cut.last_read.dial
        cut_since = 2 * ((cut.entries[-1].dial if cut.entries else 0.0) - read_at)
        if before is not None and abs(size - before) > 10 + cut_since:
            raise BadInput(
                "reading",
                f"{size:.3f} mm is more than {10 + cut_since:.0f} mm from the last "
                f"reading ({before:.3f} mm): a digit slipped? Type it again.",
            )
        entries = list(cut.entries)
        if entries and entries[-1].measured is None:
            entries[-1] = replace(entries[-1], measured=size, instrument=cut.instrument)
        elif entries:
            entries.append(
                CutEntry(entries[-1].dial, size, 0, cut.instrument, self._clock())
            )
        else:
            self._keep(
                f"Measured again before the first cut: {size:.3f} mm.",
                self.job.with_log(replace(cut, start=size)),
            )
            return
        self._keep(
            f"Measured {length_text(size, gauge.resolution, gauge.inch)}.",
            self.job.with_log(replace(cut, entries=tuple(entries), trial="")),
        )

    def answer_trial(self, answer: Literal["goes on", "tight", "loose"]) -> None:
        """How the mate went on; going on finishes the step and its hold."""
        steps = self._steps_of_the_fit() if answer == "goes on" else ()
        log = replace(self.job.log, trial=answer)
        job = self._with_done(*steps).with_log(log)
        self._keep(f"Trial of the mate: {answer}.", job)

    def _steps_of_the_fit(self) -> tuple[str, ...]:
        """The steps that are done once the fit at the machine is proved."""
        fit = self.plan.at_machine
        if fit is None or not self.plan.route:
            return ()
        return tuple(
            step.key
            for holding in self.plan.route
            for step in holding.steps
            if step.fit == fit.choice.number
        )

    def cut_fit(self, number: int) -> None:
        """Put a fit's new half at the machine: Cut speaks of it from now on.

        That is at the piece which rests on it. Raises BadInput on `fit` for one that
        the coach cannot work to.
        """
        work = self.resting_on(number)
        if work is not None:
            self.choose_work(work.key)
        fit = self.plan.fit(number)
        if not can_be_cut(fit):
            raise BadInput("fit", "Only a plain fit with a band left is cut here.")
        job = self.job.with_work(cutting=number, at_size="", at_step="")
        self._to_the_machine(job, fit, proof_surface(fit.choice))

    def _to_the_machine(self, job: Job, fit: FitPlan, line: Surface) -> None:
        """Keep what is cut now, with its log and its line in the proof."""
        proof = job.proof
        if all(one.id != line.id for one in proof.surfaces):
            surfaces = (*proof.surfaces, line)
            job = job.with_work(proof=replace(proof, surfaces=surfaces))
        if job.at_dial not in job.cuts:
            suits = self.shop.instruments_for(fit.measured_as, size=fit.aim)
            gauge = suits[0].id if suits else "micrometer"
            job = job.with_log(CutLog(instrument=gauge, tool=self._tool_of(fit)))
        if job != self.job:
            self._keep(f"To the machine: {fit.choice.name}.", job)

    def _tool_of(self, fit: FitPlan) -> str:
        """The tool of the shelf that a fit's new half is cut with; empty for none."""
        steps = (s for up in self.plan.route for s in up.steps)
        number = fit.choice.number
        step = next((s for s in steps if number and s.fit == number), None)
        own = self.own_tool(step).item if step is not None else None
        return own.name if own is not None else ""

    def sizes_at_dial(self, step: StepTold) -> tuple[str, ...]:
        """The sizes a step finishes at a slide, to its drawing; diameters first."""
        made = self.plan.made
        if made is None or step.operation not in AT_A_SLIDE:
            return ()
        found = []
        for key, known in made.sizes.items():
            name = known.size.drawn_at.partition(".")[0]
            if name not in step.features or not isinstance(known.value, float | int):
                continue
            if step.after.feature(name) != made.body.feature(name):
                continue  # metal is left for a later cut
            size = cut_as_drawn(made, key, self.shop)
            if size is not None:
                found.append((size.straight, key))
        return tuple(key for _, key in sorted(found, key=lambda one: one[0]))

    def proved_at_dial(self, step: StepTold) -> str:
        """The size of a step that is proved by itself, and so sneaked up on; empty for
        none."""
        sizes = self.sizes_at_dial(step)
        return next((key for key in sizes if self.proves(key)), "")

    def cut_size(self, key: str) -> None:
        """Put a size of the drawing at the machine, to be cut within its general
        tolerance. Raises BadInput on `size` for what cannot be cut so."""
        made = self.plan.made
        fit = cut_as_drawn(made, key, self.shop) if made is not None else None
        line = drawn_surface(made, key) if made is not None else None
        if fit is None or line is None:
            raise BadInput(
                "size",
                "Only a size that a slide is fed to, and no fit rules, is cut so.",
            )
        job = self.job.with_work(cutting=0, at_size=key, at_step="")
        self._to_the_machine(job, fit, line)

    def size_is_cut(self) -> None:
        """The size at the machine is as drawn: its steps are done."""
        key, fit = self.job.work.at_size, self.plan.at_machine
        assert fit is not None
        steps = [
            step.key
            for up in self.plan.route
            for step in up.steps
            if key and self.sizes_at_dial(step)[:1] == (key,)
        ]
        self._keep(
            f"{fit.choice.name} is cut to its drawing.",
            self._with_done(*steps).with_work(at_size=""),
        )

    def set_cutting(self, key: str, typed: str) -> None:
        """The coach's settings: instrument, school, deepest or least pass."""
        cut = self.job.log
        if key == "instrument":
            made = replace(cut, instrument=self.shop.instrument(typed).id)
            said = f"measured with {within(self.shop.instrument(typed).name)}"
        elif key == "school":
            made = replace(cut, school=typed)
            said = f"spring passes: {typed}"
        else:
            value = quantity.parse(typed, inch=self.inch, key=key, low=0.002, high=10)
            made = replace(cut, **{key: value})
            if self.dial.straight:
                value /= 2
            at_once = value * (2 if self.dial.straight else 1)
            said = f"{key} pass {at_once:g} mm{'' if self.dial.straight else ' a side'}"
        if made != cut:
            self._keep(f"At the dial: {said}.", self.job.with_log(made))
