"""Cut: the coach at the dial, readable from the lathe and worked by number keys."""

from PySide6.QtCore import Qt, QTimer
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import (
    QApplication,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from machinon.core.cutting.coach import Advice
from machinon.core.cutting.speeds import speed_text
from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, length_text
from machinon.core.route.steps import StepTold
from machinon.core.route.work.turning import carriage_stop
from machinon.core.shop.lessons import warning_of
from machinon.core.survey.as_typed import warmth_hint
from machinon.core.wording import within
from machinon.desk.bench import LEAST_STAGE, Bench, StageView
from machinon.desk.narrow import Abreast, OnePage, Roomy
from machinon.desk.stages.cut_screen import CutScreen, present
from machinon.desk.stages.cutting_tools import CuttingTools
from machinon.desk.stages.set_true import SetTrue
from machinon.desk.stages.work import WorkPage
from machinon.desk.theme import font
from machinon.desk.widgets import (
    LATER,
    DrawingView,
    EmptyPage,
    Field,
    Figure,
    area_of,
    button,
    keep_low,
    label,
    panel,
    set_ink,
    set_part,
)
from machinon.draw.charts import sneak_up_drawing
from machinon.draw.drawing import Drawing

# while it is cut by the dial
MIND = "Spindle stopped before every reading. Chuck key out. Mind the jaws."


class CutView(StageView):
    """The dial setting at the left, the chart in the middle, the number pad right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self._low = False
        self.screen: CutScreen | None = None
        self.step = label("", "head", wrap=True)
        self.head = label("", "large", wrap=True)
        self.large = label("")
        self.under = label("", "say", wrap=True)
        self.why = label("", "say", wrap=True)
        self.why.setMinimumHeight(self.look.px(44))
        self.left = Figure("Still to remove", "large")
        self.expected = Figure("Expected after it", "large")
        self.takes = Figure("The tool takes")
        self.passes = Figure("Passes to come")
        # what is further ahead follows what is to be done now
        self._coming = QTimer(self, singleShot=True, interval=LATER)
        self._coming.timeout.connect(self._show_passes)
        self.chart = DrawingView(
            self.look, self._chart, "Sneaking up on the size", 15.0
        )
        self.caution = label("", "", "stop", wrap=True)
        self.field = Field("", LENGTH, lambda: self._typed_in_inch(), large=True)
        self.field.from_wire = True
        self.field.taken.connect(lambda _: self.enter())
        self.enter_button = button("", self.enter, "main")
        self.reading_button = button("As a reading", self._take_reading)
        self.dial_button = button("As the dial", self._take_dial)
        self.dial_button.hide()
        self.prove = button("Prove it now", lambda: bench.go("proof", 0))
        self.prove.hide()
        self.finished = button("It is to size: on to Route", self._finish, "main")
        self.finished.setMinimumHeight(self.look.px(46))
        # of several alike
        self.next_one = button("", self.job.next_alike)
        self.next_one.setMinimumHeight(self.look.px(46))
        self.another = button("It is lost: another instead", self.job.another_alike)
        self.back = button("Undo", self._take_back)
        self.trial = self._trial_question()
        self.pad = self._number_pad()
        self.tools = CuttingTools(self.job)
        self.tools.left.connect(self.field.edit.setFocus)
        self.deepest = Field("Deepest pass a side", inch=lambda: self.job.inch)
        self.deepest.taken.connect(self._set_deepest)
        self.nothing = EmptyPage(self.look)
        self.lines = WorkPage(bench)
        self.lines.truing.connect(lambda: self._set_true(True))
        self.true = SetTrue(bench)
        self.true.left.connect(lambda: self._set_true(False))
        self._lay_out()

    # -- laying out ------------------------------------------------------

    def _number_pad(self) -> QWidget:
        pad = QWidget()
        grid = QGridLayout(pad)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(self.look.px(5))
        keys = ("7", "8", "9", "4", "5", "6", "1", "2", "3", ".", "0", "⌫")
        for i, key in enumerate(keys):
            button = QPushButton("del" if key == "⌫" else key)
            button.setProperty("part", "pad")
            button.setFocusPolicy(Qt.FocusPolicy.NoFocus)
            button.setSizePolicy(
                QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding
            )
            button.setMinimumHeight(self.look.px(32))
            button.clicked.connect(lambda _=False, key=key: self._pad(key))
            grid.addWidget(button, i // 3, i % 3)
        return pad

    def _trial_question(self) -> QWidget:
        box = QWidget()
        column = QVBoxLayout(box)
        column.setContentsMargins(0, 0, 0, 0)
        asks = "Break the edge, try the mate. How does it go?"
        column.addWidget(label(asks, "head", wrap=True))
        answers = Abreast(3)
        self.answers = {}
        for key, words in (
            ("goes on", "&Goes on"),
            ("tight", "&Tight"),
            ("loose", "&Loose"),
        ):
            answer = button(words, lambda key=key: self.job.answer_trial(key))
            answer.setCheckable(True)
            answer.setMinimumHeight(self.look.px(46))
            self.answers[key] = answer
            answers.put(answer)
        column.addWidget(answers)
        return box

    def _lay_out(self) -> None:
        px = self.look.px
        say = QVBoxLayout()
        say.setContentsMargins(px(16), px(10), px(12), px(8))
        say.setSpacing(px(3))
        say.addWidget(self.step)
        say.addStretch(1)
        say.addWidget(self.head)
        say.addWidget(self.large)
        say.addWidget(self.under)
        say.addSpacing(px(6))
        say.addWidget(self.why)
        say.addStretch(1)
        say.addWidget(Abreast(2, self.left, self.expected))
        say.addStretch(1)
        say.addWidget(self.caution)
        say.addWidget(self.prove, 0, Qt.AlignmentFlag.AlignLeft)

        middle = QVBoxLayout()
        middle.setContentsMargins(px(8), px(8), px(8), px(6))
        middle.addWidget(self.chart, 1)
        middle.addWidget(Abreast(2, self.takes, self.passes))
        middle.addWidget(self.trial)
        middle.addWidget(self.finished)
        middle.addWidget(self.next_one)
        middle.addWidget(self.another)
        middle.addWidget(self.tools)

        self.entry = right = QVBoxLayout()
        right.setContentsMargins(px(12), px(10), px(12), px(10))
        right.setSpacing(px(6))
        right.addWidget(self.field)
        right.addWidget(self.pad, 100)
        self.enter_button.setMinimumHeight(px(46))
        right.addWidget(self.enter_button)
        held = Qt.AlignmentFlag(0)  # each as wide as its place
        right.addWidget(
            Abreast(3, self.reading_button, self.dial_button, self.back, held=held)
        )
        right.addWidget(self.deepest)
        right.addStretch(1)

        work = Roomy()
        whole = QHBoxLayout(work)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(say, True), 38)
        whole.addWidget(panel(middle, True), 42)
        whole.addWidget(panel(right, True), 28)
        self.at_dial = work
        self.pages = OnePage(self.at_dial, self.lines, self.true, self.nothing)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(0, 0, 0, 0)
        outer.addWidget(self.pages)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        # where the words need more lines the stage is higher, and scrolls
        self._size_least()
        self._size_large()

    def _size_least(self) -> None:
        """Least height of the page at hand before it scrolls, without its words."""
        by_lines = self.pages.page in (self.lines, self.true)  # their figures give way
        self.setMinimumHeight(self.look.px(270 if by_lines else LEAST_STAGE))
        if not by_lines:
            keep_low(self.at_dial, self.pad, self.look.px(4 * 62))
            around = area_of(self)
            low = around is not None and around.viewport().height() < self.height()
            if low != self._low:
                self._low = low
                # not while it is being laid out
                QTimer.singleShot(0, self, self._place_enter)

    def _place_enter(self) -> None:
        """Puts the button to press before the keys in a low window."""
        self.entry.removeWidget(self.enter_button)
        after = self.field if self._low else self.pad
        self.entry.insertWidget(self.entry.indexOf(after) + 1, self.enter_button)

    def _size_large(self) -> None:
        """The figure to dial is as large as its panel allows."""
        text = self.large.text()
        room = self.width() * 0.31
        low = self.height() < self.look.px(480)
        tall = min(
            self.height() * (0.17 if low else 0.22), room / max(len(text), 4) / 0.66
        )
        self.large.setStyleSheet(f"font-size: {round(tall)}px; font-weight: bold;")
        self.large.setFont(font(tall, bold=True))
        self.large.setMinimumHeight(round(tall * 1.1))

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        plan = self.job.plan
        if plan.at_step is not None:
            page = self.true if self.job.truing else self.lines
            self.pages.show_page(page)
            self._size_least()
            page.refresh()
            return
        self.job.truing = False
        if plan.advice is None or plan.cut_state is None:
            self.pages.show_page(self.nothing)
            self._size_least()
            self._say_what_comes()
            return
        self.pages.show_page(self.at_dial)
        screen = present(self.job)
        cut_trial = self.job.job.log.trial
        self.screen = screen
        which = f"Piece {self.job.nth} of {self.job.job.count}: "
        step = self._cut_step()
        self.step.setText(which * (self.job.job.count > 1) + self._step_line(step))
        self.head.setText(screen.head)
        self.large.setText(screen.large)
        set_ink(self.large, screen.ink)
        self._size_large()
        self.under.setText(screen.under)
        why = screen.why
        if step is not None and screen.asks in ("start", "touch", "trial", "done"):
            # what is to be thought of before or after
            why = f"{why} {step.note}".strip()
        # a figure stays with its sign at the end of a line
        self.why.setText(why.replace(" %", "\u00a0%"))
        held = self._held()
        self.prove.setVisible(bool(held))
        self.caution.setText(
            f"Cut nothing yet: {plan.grave[0].says}"
            if plan.grave
            else held
            or "\n".join(
                (*map(warning_of, self.job.lessons(step) if step else ()), MIND)
            )
        )
        self.field.name.setText(screen.prompt)
        self.field.edit.setAccessibleName(screen.prompt)
        self.enter_button.setText(screen.enter)
        if screen.asks in ("start", "reading"):
            self.field.hint(warmth_hint(self._typed_in_inch()))
        elif not self.field.refused:
            self.field.hint("")
        begun = screen.asks not in ("start", "touch")
        self.reading_button.setVisible(screen.asks in ("cut", "spring"))
        self.dial_button.hide()
        self.trial.setVisible(screen.asks == "trial")
        more = self.job.job.count - self.job.nth
        over = screen.asks in ("trial", "done")
        self.finished.setVisible(screen.asks == "done" and more <= 0)
        self.next_one.setVisible(over and more > 0)
        self.next_one.setText(f"On to piece {self.job.nth + 1} of {self.job.job.count}")
        its = screen.asks == "done" or cut_trial == "goes on"
        set_part(self.next_one, "main" if its else "")
        lost = plan.advice.action == "scrapped" or cut_trial == "loose"
        self.another.setVisible(lost and self.job.job.count > 1)
        # the question of the trial fit comes before another reading
        set_part(self.enter_button, "" if over else "main")
        # by trial each answer is as likely as the others
        usual = not cut_trial and self._zone() == "band"
        set_part(self.answers["goes on"], "main" if usual else "")
        for key, answer in self.answers.items():
            answer.setChecked(cut_trial == key)
        undo = self.job.file.undoable(self.job.job.id)
        self.back.setEnabled(bool(undo))
        self.back.setToolTip(undo)
        self._show_figures(plan.advice, begun)
        self._show_settings()
        self._size_least()
        self.chart.refresh()
        if self.isVisible() and not self.field.refused:
            self.field.edit.setFocus()

    def _say_what_comes(self) -> None:
        """Why nothing can be cut, or what to take to the machine first."""
        plan = self.job.plan
        coming = self.job.next_step()
        if coming is not None:
            self.nothing.say(
                "Nothing is at the machine yet",
                f"By the route the next step is: {coming.title}.",
                ("To the machine", lambda: self._to_the_machine(coming)),
            )
            return
        missing, ways = self.bench.still_wanted()
        at = plan.at_machine
        band = "a fit with a band" if at is None else f"a band for the {plan.cut_name}"
        self.nothing.say(
            "Nothing can be cut to size yet",
            missing or f"Still to decide: {band}.",
            *(ways or [("To the fits", lambda: self.bench.go("fits", 0))]),
        )

    def use_instrument(self, id: str) -> None:
        """Read with this instrument from now on, where it can read the surface."""
        self.tools.use_instrument(id)

    @property
    def wanted(self) -> dict[str, float]:
        """The axis positions that the line at hand asks of a read-out, mm."""
        return self.lines.wanted if self.pages.page is self.lines else {}

    def _set_true(self, truing: bool) -> None:
        """Swaps the step for setting the work true, and back."""
        self.job.truing = truing
        self.refresh()
        self.begin()

    def _to_the_machine(self, step: StepTold) -> None:
        stage = self.job.to_step(step)
        self.bench.go(stage, step.fit)

    def _held(self) -> str:
        """The proof that is due before the piece comes off, while it is open."""
        for set_up in self.job.plan.route:
            for step in set_up.steps:
                if self._cuts_it(step):
                    return ""
                line = self.job.unproved(step)
                if line is not None and step.key not in self.job.job.done:
                    return (
                        f"Before the piece came off, {within(line.name)} was to be "
                        f"proved: {line.says}."
                    )
        return ""

    def step_here(self) -> StepTold | None:
        return self.job.plan.at_step or self._cut_step()

    def _cuts_it(self, step: StepTold) -> bool:
        """Whether a step of the route cuts what is at the machine."""
        work = self.job.job.work
        if work.at_size:
            return work.at_size in self.job.sizes_at_dial(step)
        return step.fit == work.cutting

    def _finish(self) -> None:
        """The size is as drawn: its step is done."""
        self.job.size_is_cut()
        self.bench.go("route", 0)

    def _cut_step(self) -> StepTold | None:
        """The step of the route that cuts what is at the machine, where one turns."""
        steps = (step for set_up in self.job.plan.route for step in set_up.steps)
        return next(
            (s for s in steps if self._cuts_it(s) and s.speed is not None), None
        )

    def _step_line(self, step: StepTold | None) -> str:
        fit = self.job.plan.at_machine
        assert fit is not None
        if step is not None:
            speed = speed_text(step.speed)
            # of what a step cuts, the length by itself
            if fit.straight:
                return f"{fit.choice.name}, {speed}"
            stop = carriage_stop(step)
            if stop is None:
                return f"{step.title}, {speed}"
            far = length_text(stop, 0.1, self.job.inch)
            return f"{step.title}, {speed}, carriage stops at {far}"
        goal = "its mate, by trial" if fit.could_fit else "its band"
        return f"{fit.choice.name}: the {self.job.plan.cut_name} to {goal}"

    def _show_figures(self, advice: Advice, begun: bool) -> None:
        inch = self.job.inch
        left = advice.left if begun else None
        if left is None:
            self.left.show_length(None, 0.001, inch)
        else:
            self.left.show_text(
                length_text(left, 0.001, inch, unit=False),
                "in" if inch else "mm",
                length_text(left, 0.001, not inch)
                + ("" if self.job.dial.straight else ", on ⌀"),
            )
        ahead = advice.predicted if begun and advice.infeed > 0 else None
        self.expected.show_length(ahead, 0.001, inch)
        measured = any(entry.measured is not None for entry in self.job.job.log.entries)
        how = "as usual, until measured"
        habit = self.job.plan.habit
        if habit and habit.count:
            earlier = "an earlier cut" if habit.count == 1 else f"{habit.count} cuts"
            how = f"as in {earlier} on this lathe, until measured"
        if measured:
            how = "so far: the touch is in it"
        if advice.ratio_known:
            how = "learned from the cuts"
        self.takes.show_text(f"{advice.ratio * 100:.0f} %", "of the dial", how)
        self._coming.start()

    def _show_passes(self) -> None:
        if self.job.plan.advice is None:
            return
        dial, touch = self.job.dial, self.job.touch
        coming = self.job.plan.passes
        self.passes.show_text(
            "  ".join(
                dial.text(dial.shows(advice.dial, touch)) for advice in coming[:4]
            )
            + (" …" if len(coming) > 4 else "")
            if coming
            else "none",
            "",
            f"{len(coming)} as it stands, on the dial" if coming else "",
        )
        if self.job.job.log.touch is None and coming:
            self.passes.show_text(
                f"{len(coming)}", "", "the dial settings follow from the touch"
            )

    def _zone(self) -> str:
        """The meaning of the shaded part of the picture."""
        fit = self.job.plan.at_machine
        return "could fit" if fit is not None and fit.could_fit else "band"

    def _show_settings(self) -> None:
        self.tools.refresh()
        cut = self.job.job.log
        if not self.deepest.edit.hasFocus():
            straight = self.job.dial.straight
            deepest = cut.deepest * (2 if straight else 1)
            self.deepest.name.setText("Deepest pass" + ("" if straight else " a side"))
            self.deepest.put(length_text(deepest, 0.01, self.job.inch))
            self.deepest.hint("")

    def _chart(self, width: float, height: float, size: float) -> Drawing:
        plan = self.job.plan
        if plan.cut_state is None or plan.advice is None:
            return Drawing(width, height, ())
        return sneak_up_drawing(
            plan.cut_state,
            plan.advice,
            width,
            height,
            size,
            self.job.inch,
            self._zone(),
        )

    def _typed_in_inch(self) -> bool:
        """A bare number is in the unit of what is read: dial or instrument."""
        if self.screen is None or self.screen.asks in ("cut", "spring", "touch"):
            return self.job.dial.inch
        return self.job.shop.instrument(self.job.job.log.instrument).inch

    # -- doing -----------------------------------------------------------

    def enter(self) -> None:
        """Take what is typed as what is asked for."""
        if self.screen is None:
            return
        typed = self.field.text()
        if self.screen.asks in ("cut", "spring", "reading") and typed.strip():
            self._tell_apart(typed)
            return
        act = {
            "start": self.job.measure_start,
            "touch": self.job.touch_at,
            "cut": self.job.cut_made,
            "spring": self.job.cut_made,
            "reading": self.job.measured_cut,
            "trial": self.job.measured_cut,
            "done": self.job.measured_cut,
        }[self.screen.asks]
        self._take(act, typed)

    def _take(self, act: object, typed: str) -> None:
        try:
            # the field is cleared first: a refusal puts the text back
            self.field.clear()
            act(typed)  # type: ignore[operator]
        except BadInput as error:
            self.field.put(typed)
            self.field.refuse(error.message)

    def _tell_apart(self, typed: str) -> None:
        """A setting of the dial or a reading, by what is possible; asked where both
        are, or where it is the one that was not asked for."""
        assert self.screen is not None
        at_dial, reads = self.job.could_be(typed)
        wants_dial = self.screen.asks != "reading"
        if at_dial and reads:
            self.field.refuse(
                "That can be the dial as well as a reading: say which it is."
            )
            self.reading_button.show()
            self.dial_button.show()
        elif reads:
            self._take(self.job.measured_cut, typed)
        elif wants_dial:
            self._take(self.job.cut_made, typed)
        elif at_dial:
            self.field.refuse(
                "A reading is asked for, and that is no size the work can have: was "
                "it the dial?"
            )
            self.dial_button.show()
        else:
            self._take(self.job.measured_cut, typed)

    def _take_dial(self) -> None:
        """A setting of the dial, where it could have been a reading."""
        self._take(self.job.cut_made, self.field.text())

    def _take_reading(self) -> None:
        """A reading of the surface as it now is, where a cut was expected."""
        self._take(self.job.measured_cut, self.field.text())

    def _take_back(self) -> None:
        self.field.clear()
        self.job.undo()

    def _set_deepest(self, typed: str) -> None:
        try:
            self.job.set_cutting("deepest", typed)
        except BadInput as error:
            self.deepest.refuse(error.message)
            return
        self.field.edit.setFocus()

    def _pad(self, key: str) -> None:
        if key == "⌫":
            self.field.edit.backspace()
        else:
            self.field.edit.insert(key)
        self.field.edit.setFocus()

    @property
    def at(self) -> str:
        return self.lines.at

    @at.setter
    def at(self, at: str) -> None:
        self.lines.at = at

    def begin(self) -> None:
        if self.pages.page is self.true:
            self.true.begin()
        elif self.pages.page is self.lines:
            self.lines.begin()
        else:
            self.field.edit.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        # a digit typed anywhere on the screen belongs to the entry
        at_dial = self.pages.page is self.at_dial
        if at_dial and event.text() and event.text() in "0123456789.":
            self.field.edit.setFocus()
            QApplication.sendEvent(self.field.edit, event)
            return
        super().keyPressEvent(event)
