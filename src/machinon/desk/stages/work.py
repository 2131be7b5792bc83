"""A step at the machine, line by line: what to set, where it is, what is done.

Enter or the space bar ticks the line at hand and goes on, Backspace takes the last tick
back, the arrows go to another line.
"""

from collections.abc import Sequence
from functools import partial

from PySide6.QtCore import QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QVBoxLayout, QWidget

from machinon.core.cutting.speeds import speed_text
from machinon.core.errors import BadInput
from machinon.core.piece.shown import Shown
from machinon.core.quantity import length_text
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import AXES, WorkLine, WorkList
from machinon.core.route.work.listed import note_besides
from machinon.core.wording import begun
from machinon.desk.bench import Bench
from machinon.desk.narrow import Combo, Roomy
from machinon.desk.stages.step_clock import StepClock
from machinon.desk.widgets import (
    DrawingView,
    Field,
    button,
    clear_layout,
    keep_low,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing
from machinon.draw.large_figures import figures_drawing, lines_drawing, lines_height
from machinon.draw.work_picture import work_picture

ROW = 15.0  # px at 100 %: letters of the list
# however long the words of what is beside the list: they give way, not the list
AS_WIDE = QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed


class WorkPage(Roomy):
    """The line to do at the left, the picture in the middle, all lines at the right.

    Signals: truing() to set the work true.
    """

    truing = Signal()

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench, self.job, self.look = bench, bench.job, bench.look
        self.list = WorkList(())
        self._step_key, self.at = "", ""
        self.step = label("", "head", wrap=True)
        self.how = label("", "faint", wrap=True)
        self.head = label("", "large", wrap=True)
        self.figures = DrawingView(self.look, self._figures, "What to set", 15.0)
        self.clock = StepClock(self, self._tick, self.job)
        self.note = label("", "say", wrap=True)
        self.asked = Field("", inch=lambda: self.job.inch)
        self.asked.from_wire = True
        self.asked.taken.connect(self._read)
        self.besides = label("", "", wrap=True)
        self.caution = label("", "", "stop", wrap=True)
        self.sums = button("working", self._open_sums, "link")
        self.picture = DrawingView(self.look, self._picture, "Where it is", 14.0)
        self.rows = DrawingView(self.look, self._rows, "What is done and to do", ROW)
        self.rows.spot_chosen.connect(self._choose)
        self.ways = QVBoxLayout()
        self.ways.setContentsMargins(0, 0, 0, 0)
        self.combos: dict[str, Combo] = {}
        self._asked: list[str] = []
        self.count = label("", "faint")
        self.done = button("", self.go_on, "main")
        self.back = button("Undo", self.take_back)
        self.to_route = button("To the route", lambda: bench.go("route", 0))
        self.true = button("set it true", self.truing.emit, "link")
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        say = QVBoxLayout()
        say.setContentsMargins(px(16), px(10), px(12), px(8))
        say.setSpacing(px(3))
        say.addWidget(self.step)
        say.addWidget(self.how)
        say.addWidget(self.besides)
        say.addSpacing(px(6))
        say.addWidget(self.head)
        say.addWidget(self.figures, 1)
        say.addWidget(self.clock.button)
        say.addWidget(self.asked)
        say.addWidget(self.note)
        say.addSpacing(px(4))
        say.addWidget(self.caution)
        links = QHBoxLayout()
        links.addWidget(self.sums)
        links.addStretch(1)
        links.addWidget(self.true)
        say.addLayout(links)
        middle = QVBoxLayout()
        middle.setContentsMargins(px(8), px(8), px(8), px(6))
        middle.addWidget(self.picture, 1)
        right = QVBoxLayout()
        right.setContentsMargins(px(10), px(10), px(10), px(10))
        right.addWidget(self.count)
        listed = QWidget()
        lines = QVBoxLayout(listed)
        lines.setContentsMargins(0, 0, px(4), 0)
        lines.addLayout(self.ways)
        lines.addWidget(self.rows)
        lines.addStretch(1)
        self.area = scrolled(listed)
        right.addWidget(self.area, 100)
        self.done.setMinimumHeight(px(46))
        right.addWidget(self.done)
        foot = QHBoxLayout()
        foot.addWidget(self.back, 1)
        foot.addWidget(self.to_route, 1)
        right.addLayout(foot)
        right.addStretch(1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(say, True), 38)
        self.beside = panel(middle, True)
        whole.addWidget(self.beside, 34)
        whole.addWidget(panel(right, True), 30)
        self.picture.setMinimumHeight(px(90))

    # -- showing ---------------------------------------------------------

    @property
    def line(self) -> WorkLine | None:
        """The line at hand; None once all are done."""
        return next((line for line in self.list.lines if line.key == self.at), None)

    @property
    def wanted(self) -> dict[str, float]:
        """The axis positions that the line at hand asks of a read-out, mm."""
        figures = self.line.figures if self.line else ()
        return {
            AXES[shown.name]: float(shown.value)
            for shown in figures
            if shown.name in AXES and not isinstance(shown.value, str)
        }

    def refresh(self) -> None:
        step = self.job.plan.at_step
        if step is None:
            return
        self.list = self.job.lines
        if step.key != self._step_key:
            self._step_key, self.at = step.key, ""
        self._stand_on_the_next()
        line = self.line
        self.step.setText(step.title)
        speed = f", {speed_text(step.speed)}" if step.speed is not None else ""
        own = self.job.own_tool(step).says
        with_own = f". {begun(own)}" if own else ""
        self.how.setText(f"{step.tool}{speed}{with_own}")
        self.besides.setText(note_besides(step, self.list))
        self.besides.setVisible(bool(self.besides.text()))
        self._show_line(step, line)
        left = len(self._left())
        many = len(self.list.lines)
        self.count.setText(f"{many - left} of {many} done")
        self._show_done(step, left)
        self.back.setEnabled(bool(self.job.lines_done))
        up = self.job.holding
        self.true.setVisible(up is not None and up.machine == "lathe")
        self.sums.setVisible(bool(self.list.answers))
        self._show_ways()
        self.rows.setFixedHeight(
            round(lines_height(self.list.lines, ROW * self.look.scale))
        )
        self._show_figures()
        keep_low(self, self.area, self.look.px(150))
        for view in (self.picture, self.rows):
            view.refresh()
        self._reveal()

    def _left(self) -> list[WorkLine]:
        done = self.job.lines_done
        return [line for line in self.list.lines if line.key not in done]

    def _stand_on_the_next(self) -> None:
        """Stay on the line that was chosen, else on the first that is not done."""
        left = [line.key for line in self._left()]
        if self.at not in left:
            keys = [line.key for line in self.list.lines]
            after = keys[keys.index(self.at) :] if self.at in keys else keys
            self.at = next((k for k in after if k in left), left[0] if left else "")

    def _show_line(self, step: StepTold, line: WorkLine | None) -> None:
        grave = self.job.plan.grave
        if line is None:
            self.head.setText("All done here")
            self.note.setText("Chips brushed off, the next step is at hand.")
        else:
            self.head.setText(line.head)
            self.note.setText(line.note)
        self.caution.setText(
            f"Cut nothing yet: {grave[0].says}" if grave else self.job.cautions(step)
        )
        self.caution.setVisible(bool(self.caution.text()))
        self._show_asked(line)
        self.clock.show_line(line)
        set_ink(self.head, "proved" if line is None else "")
        set_ink(self.note, "")  # a refusal has been read by now

    def _show_asked(self, line: WorkLine | None) -> None:
        """The entry of what is read at the machine, where the line asks it."""
        key, words = line.asks if line is not None else ("", "")
        self.asked.setVisible(bool(key))
        self.asked.name.setText(words)
        self.asked.edit.setAccessibleName(words or "Reading")
        if key and not self.asked.refused:
            known = self.job.job.work.ways.get(key, "")
            text = length_text(float(known), 0.001, self.job.inch) if known else ""
            self.asked.put(text)

    def _show_done(self, step: StepTold, left: int) -> None:
        coming = self.job.next_step()
        if step.key in self.job.job.done and not left:
            self.done.setText(f"Next: {coming.title}" if coming else "To the proof")
        elif left > 1:
            self.done.setText("Done: the next one")
        elif left:
            self.done.setText("Done: that was the last")
        else:
            self.done.setText("The step is done")

    def _for_the_coach(self) -> Sequence[str]:
        """Two sizes of the step at most, that of the line at hand before others."""
        step, made, line = self.job.plan.at_step, self.job.plan.made, self.line
        if step is None or made is None or self.job.lathe is None:
            return ()
        sizes = self.job.sizes_at_dial(step)
        named = {figure.name.casefold() for figure in line.figures} if line else set()
        here = [key for key in sizes if made.sizes[key].size.words.casefold() in named]
        return (here or sizes)[:2]

    def _show_ways(self) -> None:
        made, sizes = self.job.plan.made, self._for_the_coach()
        wanted = [*(way.key for way in self.list.ways), *sizes]
        if self._asked != wanted:
            self._asked = wanted
            clear_layout(self.ways)
            self.combos = {}
            for way in self.list.ways:
                combo = Combo()
                combo.setAccessibleName(way.asks)
                combo.setSizePolicy(*AS_WIDE)
                for key, words in way.answers:
                    combo.addItem(f"{way.asks}: {words}", key)
                combo.activated.connect(lambda _, key=way.key: self._choose_way(key))
                self.combos[way.key] = combo
                self.ways.addWidget(combo)
            for key in sizes:
                assert made is not None
                words = f"With the coach: {made.sizes[key].size.words}"
                asks = button(words, partial(self._sneak_up, key))
                asks.setSizePolicy(*AS_WIDE)
                self.ways.addWidget(asks)
        for way in self.list.ways:
            combo = self.combos[way.key]
            combo.setCurrentIndex(combo.findData(way.chosen))

    def _reveal(self) -> None:
        keys = [line.key for line in self.list.lines]
        if self.at in keys:
            row = lines_height(self.list.lines[:1], ROW * self.look.scale)
            middle = self.rows.y() + (keys.index(self.at) + 0.5) * row
            self.area.ensureVisible(0, round(middle), 0, round(1.5 * row))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        # with little room what to set goes before where it is
        self.beside.setVisible(self.width() >= self.look.px(800))
        keep_low(self, self.area, self.look.px(150))

    def _figures(self, width: float, height: float, size: float) -> Drawing:
        return figures_drawing(self._shown(), width, height, size, self.job.inch)

    def _show_figures(self) -> None:
        self.figures.setMinimumHeight(self.look.px(80 if self._shown() else 0))
        self.figures.refresh()

    def _shown(self) -> Sequence[Shown]:
        """What is to be set, or the time that is left."""
        return self.clock.figure or (self.line.figures if self.line else ())

    def _picture(self, width: float, height: float, size: float) -> Drawing:
        step = self.job.plan.at_step
        if step is None:
            return Drawing(width, height, ())
        return work_picture(
            step,
            self.list,
            self.job.lines_done,
            self.at,
            width,
            height,
            size,
            self.job.inch,
        )

    def _rows(self, width: float, height: float, size: float) -> Drawing:
        return lines_drawing(
            self.list.lines, self.job.lines_done, self.at, width, height, size
        )

    def _tick(self) -> None:
        """The clock went on."""
        self.clock.show_line(self.line)
        self._show_figures()

    # -- doing -----------------------------------------------------------

    def go_on(self) -> None:
        """Tick the line at hand; once all are, the step; then on to the next."""
        step = self.job.plan.at_step
        if step is None:
            return
        line = self.line
        if step.key in self.job.job.done and line is None:
            self._to_the_next()
            return
        if line is not None:
            self.job.tick_line(line.key)
        if not self._left():
            try:
                self.job.mark_step(step.key, True)
            except BadInput as error:
                self.note.setText(error.message)
                set_ink(self.note, "stop")
                return
        self.setFocus()

    def _to_the_next(self) -> None:
        coming = self.job.next_step()
        if coming is None:
            self.bench.go("proof", 0)
            return
        stage = self.job.to_step(coming)
        self.at = ""
        self.bench.go(stage, coming.fit)

    def take_back(self) -> None:
        """Untick the line that was ticked last."""
        done = self.job.lines_done
        if not done:
            return
        last = done[-1]
        self.job.tick_line(last, done=False)
        self.at = last
        self.refresh()
        self.setFocus()

    def _choose(self, key: str, _place: QRectF | None = None) -> None:
        """Bring another line to hand; one that is done is to be done again."""
        if key in self.job.lines_done and self._step_key not in self.job.job.done:
            self.job.tick_line(key, done=False)
        self.at = key
        self.refresh()
        self.setFocus()

    def _choose_way(self, key: str) -> None:
        self.job.choose_way(key, self.combos[key].currentData())

    def _read(self, typed: str) -> None:
        """Takes a reading that a line asks for."""
        line = self.line
        if line is None:
            return
        before = self.job.job.work.ways.get(line.asks[0])
        try:
            self.job.read_at_step(line.asks[0], typed)
        except BadInput as error:
            self.asked.refuse(error.message)
            return
        if self.job.job.work.ways.get(line.asks[0]) == before:
            self.go_on()  # Enter once more, or nothing to say

    def _sneak_up(self, key: str) -> None:
        """Cut one size of the step with the coach instead."""
        self.job.cut_size(key)

    def _open_sums(self) -> None:
        answers = self.list.answers
        if len(answers) == 1:
            self.bench.open_working(answers[0])
            return
        menu = QMenu(self)
        for answer in answers:
            menu.addAction(answer.title, partial(self.bench.open_working, answer))
        menu.popup(self.sums.mapToGlobal(self.sums.rect().bottomLeft()))

    def begin(self) -> None:
        self.setFocus()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if self.asked.edit.hasFocus():
            super().keyPressEvent(event)  # it was meant for the entry
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.go_on()
        elif event.key() == Qt.Key.Key_Backspace:
            self.take_back()
        elif event.key() in (Qt.Key.Key_Down, Qt.Key.Key_Up):
            keys = [line.key for line in self._left()]
            if self.at in keys:
                step = 1 if event.key() == Qt.Key.Key_Down else -1
                self.at = keys[(keys.index(self.at) + step) % len(keys)]
                self.refresh()
        else:
            super().keyPressEvent(event)
