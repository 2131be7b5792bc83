"""Acts at the dial: touches, cuts, readings and trials of the size at hand."""

import contextlib
from typing import Literal

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.cutting.cut_state import CutEntry, Dial
from machinon.core.errors import BadInput
from machinon.core.job.at_dial import dial_for
from machinon.core.job.fit_plan import (
    FitPlan,
    can_be_cut,
    cut_as_drawn,
)
from machinon.core.job.job import CutLog, GaugeCheck, Job
from machinon.core.job.made_piece import (
    drawn_surface,
    proof_surface,
)
from machinon.core.quantity import length_text, small_text
from machinon.core.route.steps import StepTold
from machinon.core.shop.things import Instrument, Surface
from machinon.core.survey.as_typed import apart_from_warmth
from machinon.core.wording import within
from machinon.desk.acts.making import MakingActs

MOST_OFF = 0.05  # mm: what reads further off is set, not reckoned with
# what leaves a size that a slide is fed to
AT_A_SLIDE = ("turn", "bore", "face", "mill", "square", "groove", "keyway", "grind")


def off_said(check: GaugeCheck, gauge: Instrument) -> str:
    """How far off a gauge was read on a standard: "3 µm over on 25.000 mm"."""
    off = small_text(abs(check.off), gauge.inch)
    at = gauge.says(check.standard)
    return f"{off} {'over' if check.off > 0 else 'under'} on {at}"


class DialActs(MakingActs):
    """Acts of cutting a size, and the choice of the size at hand."""

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
        size, warm = self._read_at_dial(typed, "start", least)
        state = self.plan.cut_state
        if state is not None and state.external and size < state.lower:
            raise BadInput(
                "start",
                f"{gauge.says(size)} is already under the band: it must be above "
                f"{gauge.says(state.lower)} before the first cut.",
            )
        if state is not None and not state.external and size > state.upper:
            raise BadInput(
                "start",
                f"{gauge.says(size)} is already over the band: it must be under "
                f"{gauge.says(state.upper)} before the first cut.",
            )
        self._keep(
            f"{gauge.says(size)}{warm} before the first cut.",
            self.job.with_log(replace(self.job.log, start=size, entries=())),
        )

    def touch_at(self, typed: str) -> None:
        """Takes the dial's reading at touch. Raises BadInput on `touch`."""
        at = quantity.parse(typed, inch=self.dial.inch, key="touch", low=-500, high=500)
        self._keep(
            f"Touched at {self.dial.text(at)} on the dial.",
            self.job.with_log(replace(self.job.log, touch=at)),
        )

    @property
    def touch(self) -> float:
        """The dial's reading at touch; 0 before it was said."""
        return self.job.log.touch or 0.0

    def could_be(self, typed: str) -> tuple[bool, bool]:
        """Whether what is typed at the dial can be its setting, and a reading.

        A setting lies from where the dial stands to the deepest pass from there; a
        reading lies by what is left to cut of the size known last.
        """
        cut, state = self.job.log, self.plan.cut_state
        before = cut.entries[-1].dial if cut.entries else 0.0
        at_dial = reads = False
        with contextlib.suppress(BadInput):
            seen = quantity.parse(typed, inch=self.dial.inch, low=-500, high=500)
            into = self.dial.position(seen, self.touch) - before
            at_dial = -1e-9 <= into <= cut.deepest + self.dial.travel
        with contextlib.suppress(BadInput):
            size, _ = self._read_at_dial(typed, "reading")
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

    def _read_at_dial(
        self, typed: str, key: str, above: float = 0
    ) -> tuple[float, str]:
        """A reading at the dial, mm at 20 °C, and what is said of it where the work's
        temperature was typed beside it. Raises BadInput on `key`, or `temperature`."""
        gauge = self.shop.instrument(self.job.log.instrument)
        text, warm = apart_from_warmth(typed)
        size = quantity.parse(text, inch=gauge.inch, key=key, above=above, high=2000)
        if warm is None:
            return size, ""
        read = gauge.says(size)
        return self._cold(size, warm), f" at 20 °C, {read} at {warm:g}"

    def measured_cut(self, typed: str) -> None:
        """The reading after a cut, or one more of the same surface."""
        cut = self.job.log
        gauge = self.shop.instrument(cut.instrument)
        size, warm = self._read_at_dial(typed, "reading")
        before, read_at = cut.start, 0.0
        if cut.last_read:
            before, read_at = cut.last_read.measured, cut.last_read.dial
        cut_since = 2 * ((cut.entries[-1].dial if cut.entries else 0.0) - read_at)
        if before is not None and abs(size - before) > 10 + cut_since:
            raise BadInput(
                "reading",
                f"{gauge.says(size)} is more than "
                f"{length_text(10 + cut_since, 1, gauge.inch)} from the last reading "
                f"({gauge.says(before)}): a digit slipped? Type it again.",
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
                f"Measured again before the first cut: {gauge.says(size)}.",
                self.job.with_log(replace(cut, start=size)),
            )
            return
        self._keep(
            f"Measured {gauge.says(size)}{warm}.",
            self.job.with_log(replace(cut, entries=tuple(entries), trial="")),
        )

    @property
    def nth(self) -> int:
        """Which of several pieces alike is at the machine, from 1."""
        return len(self.job.log.all)

    def next_alike(self) -> None:
        """The next of several pieces alike at the machine."""
        self._keep(
            f"Piece {self.nth + 1} of {self.job.count} at the machine.",
            self.job.with_log(self.job.log.of_next),
        )

    def another_alike(self) -> None:
        """Another piece for the one at the machine, which is lost."""
        log = self.job.log
        self._keep(
            f"Piece {self.nth} of {self.job.count} is lost: another in its place.",
            self.job.with_log(replace(log.of_next, earlier=log.earlier)),
        )

    def answer_trial(self, answer: Literal["goes on", "tight", "loose"]) -> None:
        """Takes how the mate went on; going on finishes the step and its hold, of the
        last of several alike."""
        last = self.nth >= self.job.count
        steps = self._steps_of_the_fit() if answer == "goes on" and last else ()
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
        if all(surface.id != line.id for surface in proof.surfaces):
            surfaces = (*proof.surfaces, line)
            job = job.with_work(proof=replace(proof, surfaces=surfaces))
        if job.at_dial not in job.cuts:
            suits = self.shop.instruments_for(*fit.read_by, size=fit.aim)
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
        return tuple(key for _, key in sorted(found, key=lambda pair: pair[0]))

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

    def feed_by(self, compound: int, shown: str = "") -> None:
        """Feed by the compound set over, or by the cross slide again (0), from where
        the tool stands. shown: what that dial reads now, needed once the tool has
        touched. Raises BadInput on `shown`."""
        log, plan = self.job.log, self.plan
        dial = dial_for(plan.at_machine, plan.made, self.lathe, self._mill, compound)
        assert dial is not None
        touch = None
        if log.touch is not None:
            at = quantity.parse(shown, inch=dial.inch, key="shown", low=-500, high=500)
            stands = log.entries[-1].dial if log.entries else 0.0
            touch = at - stands * dial.factor
        by = f"the compound at {dial.angle:.2f}°" if compound else "the cross slide"
        self._keep(
            f"Fed by {by} from here on.",
            self.job.with_log(replace(log, compound=compound, touch=touch)),
        )

    def check_gauge(self, typed: str) -> None:
        """The gauge at the dial as it was read on a standard: its size, then one
        reading or more; nothing typed takes the check back. Raises BadInput on `check`.
        """
        gauge = self.shop.instrument(self.job.log.instrument)
        parts = [
            quantity.parse(part, inch=gauge.inch, key="check", low=0, high=2000)
            for part in quantity.list_parts(typed)
        ]
        if len(parts) == 1:
            raise BadInput(
                "check", "Type the standard's size, then what it reads on it."
            )
        check = GaugeCheck(gauge.id, parts[0], tuple(parts[1:])) if parts else None
        if check is not None and abs(check.off) > MOST_OFF:
            most = small_text(MOST_OFF, gauge.inch)
            raise BadInput(
                "check",
                f"It reads {small_text(check.off, gauge.inch)} off: up to {most} is "
                "taken off here. Set the gauge, or type the standard again.",
            )
        says = f"{gauge.name}: check taken back."
        if check is not None:
            says = f"{gauge.name} reads {off_said(check, gauge)}."
        self._keep(says, self.job.with_log(replace(self.job.log, check=check)))

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
            said = f"{key} pass {length_text(at_once, 0.001, self.inch)}"
            said += "" if self.dial.straight else " a side"
        if made != cut:
            self._keep(f"At the dial: {said}.", self.job.with_log(made))
