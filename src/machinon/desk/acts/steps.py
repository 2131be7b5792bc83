"""Acts of Route and Cut: steps, their lines, and the order of work."""

from collections.abc import Mapping, Sequence
from typing import Literal

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.job.fit_plan import can_be_cut
from machinon.core.job.job import Stage
from machinon.core.job.proof import ProofLine
from machinon.core.job.since_cut import without_done
from machinon.core.quantity import length_text
from machinon.core.route.order import Broken, broken, in_order, stepped
from machinon.core.route.steps import HoldingTold, StepTold, planned
from machinon.core.route.work.lines import Machines, WorkLine, WorkList
from machinon.core.route.work.listed import lines_in_inches, work_list
from machinon.core.route.work.set_true import read_round
from machinon.core.shop.entry import words
from machinon.core.shop.lessons import lesson_said, lessons_at, warning_of
from machinon.core.shop.making import OwnStep
from machinon.core.shop.things import Lesson
from machinon.core.wording import within
from machinon.desk.acts.dial import AT_A_SLIDE, DialActs

# worked to their size by lines of their own: a keyway to its key, a wheel by sparks, a
# block face by face
BY_LINES = ("keyway", "grind", "square")
Way = Literal["proof", "fit", "size", "lines", "undecided"]


class StepActs(DialActs):
    """Acts on steps, and on lines within a step."""

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

    def lessons(self, step: StepTold) -> tuple[Lesson, ...]:
        """Lessons of such a step, the newest first."""
        making = self.job.making
        assert making is not None
        told = self.plan.in_mm.get(step.key, step)
        return lessons_at(self.shop, making.family, step.key, step.operation, told.tool)

    def cautions(self, step: StepTold) -> str:
        """The cautions of a step: its own, then its lessons."""
        before = (warning_of(lesson) for lesson in self.lessons(step))
        return "\n".join(filter(None, (step.caution, *before)))

    def learn(self, key: str, typed: str) -> None:
        """Note what went wrong at a step, so that it comes back there. Raises BadInput
        on `lesson`."""
        step, making = self.plan.step(key), self.job.making
        assert step is not None
        assert making is not None
        told = self.plan.in_mm.get(key, step)
        lesson = Lesson(
            lesson_said(typed),
            making.family,
            key,
            step.operation,
            told.tool,
            self.job.name,
            self._clock(),
        )
        self._keep(
            f"Went wrong at “{step.title}”: {lesson.says}",
            replace(self.shop, lessons=(*self.shop.lessons, lesson)),
        )

    def forget(self, lesson: Lesson) -> None:
        """Take a lesson away that needs no warning any more."""
        left = tuple(noted for noted in self.shop.lessons if noted != lesson)
        self._keep(
            f"No longer warned of: {lesson.says}", replace(self.shop, lessons=left)
        )

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
        """The lines of the step at the machine; none where none is."""
        step = self.plan.at_step
        return WorkList(()) if step is None else self.lines_of(step)

    def lines_of(self, step: StepTold) -> WorkList:
        """The lines of a step of the route."""
        held = self._holding.of_kind("pin") if self._holding else ()
        pins = tuple(item.size for item in held)
        at = Machines(
            self.lathe,
            self._divider,
            pins,
            self._mill,
            next((m for m in self._machines if m.kind == "grinder"), None),
            marks_out=self._mill is None,
            inch=self.inch,
        )
        told = self.plan.in_mm.get(step.key, step)
        found = work_list(told, at, self.job.work.ways)
        if not self.inch or self.own_step(step.key) is not None:
            return found  # what a person typed stays
        return lines_in_inches(found, told.close)

    @property
    def lines_done(self) -> tuple[str, ...]:
        """The lines of the step at the machine that are ticked."""
        work = self.job.work
        return work.ticked.get(work.at_step, ())

    def tick_line(self, key: str, done: bool = True) -> None:
        """Tick a line of the step at the machine, or untick it: then the step is to be
        done again as well."""
        work, there = self.job.work, self.lines_done
        line = next(line for line in self.lines.lines if line.key == key)
        if done == (key in there):
            return
        kept = (
            (*there, key)
            if done
            else tuple(done_key for done_key in there if done_key != key)
        )
        said = "done" if done else "to do again"
        job = self.job if done else without_done(self.job, work.at_step)
        ticked = {**work.ticked, work.at_step: kept}
        self._keep(f"{line.head}: {said}.", job.with_work(ticked=ticked))

    def press_clock(self, line: WorkLine) -> None:
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

    def clock_of(self, line: WorkLine) -> str:
        """When the clock of a line of the step at the machine was started; empty where
        it does not run."""
        return self.job.work.clocks.get(f"{self.job.work.at_step}.{line.key}", "")

    def choose_way(self, key: str, answer: str) -> None:
        """Chooses how steps are done from now on, by the question: `places`,
        `turned`."""
        ways = self.job.work.ways
        if ways.get(key) != answer:
            self._keep("At the machine: done another way.",
                       self.job.with_work(ways={**ways, key: answer}))  # fmt: skip

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
        """Largest run-out on the indicator for the work to be true, mm."""
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
        """Takes how true it is to be. Raises BadInput on `true`."""
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

    def next_step(self, behind: str | None = None) -> StepTold | None:
        """The first step that is not done after another, that at the machine unless it
        is told: from the first on where the route has no such one. None for the end."""
        steps = [step for up in self.plan.route for step in up.steps]
        keys = [step.key for step in steps]
        at = self.job.work.at_step if behind is None else behind
        after = steps[keys.index(at) + 1 :] if at in keys else steps
        return next((step for step in after if step.key not in self.job.done), None)

    def way_of(self, step: StepTold) -> Way:
        """The way a step is worked: `proof` before the piece comes off, `fit` or `size`
        at the dial, `lines` one by one; `undecided` where its fit has no band yet."""
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
        usual = planned(made, making.there, making.own)
        moved = stepped(usual, making.moved, key, later)
        was = broken(in_order(usual, making.moved), usual)
        now = broken(in_order(usual, moved), usual)
        news = self._spoken_against(was, now, titles, because)
        reasons = {moved.step: moved.because for moved in making.moved}
        why = because.strip() or reasons.get(key, "")
        moved = tuple(
            replace(moved, because=why) if moved.step == key else moved
            for moved in moved
        )
        place = "later" if later else "earlier"
        reason = f", because {because.strip()}" if news else ""
        self._keep(
            f"Step moved {place}: {titles[key]}{reason}.",
            self.job.with_work(making=replace(making, moved=moved)),
        )

    @staticmethod
    def _spoken_against(
        was: Sequence[Broken],
        now: Sequence[Broken],
        titles: Mapping[str, str],
        because: str,
    ) -> list[Broken]:
        """The rules that an order of work breaks and the one before did not.

        Raises BadInput on `step` for what no metal allows, and on `because` where no
        reason is given for the rest.
        """
        news = [rule for rule in now if rule not in was]
        for rule in sorted(news, key=lambda rule: not rule.never):
            if rule.never or not because.strip():
                at = "step" if rule.never else "because"
                raise BadInput(at, f"{titles[rule.step]}: {rule.says}")
        return news

    def add_step(
        self, after: str, operation: str, title: str, because: str = ""
    ) -> str:
        """Add a step of the person's own after one of the route; its key.

        Raises BadInput on `title`, and on `because` where a rule of the shop speaks
        against it and no reason is given.
        """
        making, made = self.job.making, self.plan.made
        assert making is not None
        assert made is not None
        text = words({"title": title}, "title", "what is done", 120)
        number = 1
        taken = {own.key for own in making.own}
        while f"own{number}" in taken:
            number += 1
        own = OwnStep(f"own{number}", operation, after, text, because.strip())
        before = planned(made, making.there, making.own)
        usual = planned(made, making.there, (*making.own, own))
        was = broken(in_order(before, making.moved), before)
        now = broken(in_order(usual, making.moved), usual)
        steps = {step.key: step.title for up in self.plan.route for step in up.steps}
        news = self._spoken_against(was, now, {**steps, own.key: text}, because)
        reason = f", because {because.strip()}" if news else ""
        self._keep(
            f"Step added: {text}{reason}.",
            self.job.with_work(making=replace(making, own=(*making.own, own))),
        )
        return own.key

    def own_step(self, key: str) -> OwnStep | None:
        """A step that the person added; None for one of the family's."""
        making = self.job.making
        own = making.own if making is not None else ()
        return next((step for step in own if step.key == key), None)

    def drop_step(self, key: str) -> None:
        """Take a step out again that the person added. Raises BadInput on `step` for
        one that is done."""
        making, own = self.job.making, self.own_step(key)
        assert making is not None
        assert own is not None
        if key in self.job.done:
            raise BadInput("step", f"{own.title}: it is done already.")
        left = tuple(step for step in making.own if step.key != key)
        moved = tuple(m for m in making.moved if key not in (m.step, m.beside))
        self._keep(
            f"Step taken out: {own.title}.",
            self.job.with_work(making=replace(making, own=left, moved=moved)),
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
        return next((moved.because for moved in moves if moved.step == key), None)

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
