"""Set true: a turn of readings, the jaw that pushes, again until it runs true."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout

from machinon.core.errors import BadInput
from machinon.core.quantity import length_text, small_text
from machinon.core.reckoning import Answer
from machinon.core.route.work.lines import WorkLine
from machinon.core.route.work.set_true import CHUCKS, chuck_of, set_true
from machinon.core.setting_out.runout import resolve
from machinon.desk.bench import Bench
from machinon.desk.narrow import Combo, Roomy
from machinon.desk.widgets import DrawingView, Field, button, label, panel, set_ink
from machinon.draw.charts import rose_drawing
from machinon.draw.drawing import Drawing
from machinon.draw.large_figures import figures_drawing


class SetTrue(Roomy):
    """The push at the left, the turn in the middle, the entry at the right.

    Signals: left() when the person goes back to the step.
    """

    left = Signal()

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench, self.job, self.look = bench, bench.job, bench.look
        self.line = WorkLine("read", "")
        self.answer: Answer | None = None
        self.step = label("", "head", wrap=True)
        self.head = label("", "large", wrap=True)
        self.figures = DrawingView(self.look, self._figures, "What to move", 15.0)
        self.note = label("", "say", wrap=True)
        self.caution = label(
            "Chuck key out before it turns; turn it by hand, the drive off.",
            "",
            "stop",
            wrap=True,
        )
        self.sums = button("working", self._open_sums, "link")
        self.rose = DrawingView(self.look, self._rose, "The turn, enlarged", 14.0)
        self.field = Field("", None, large=True)
        self.field.taken.connect(self._take)
        self.take = button("Take the turn", lambda: self._take(self.field.text()))
        self.chuck = Combo()
        self.chuck.setAccessibleName("Held in")
        for key, words in CHUCKS:
            self.chuck.addItem(words, key)
        self.chuck.activated.connect(
            lambda _: self.job.choose_way("chuck", self.chuck.currentData())
        )
        self.limit = Field("True within", inch=lambda: self.job.inch)
        self.limit.taken.connect(self._take_limit)
        self.before = label("", "faint", wrap=True)
        self.back = button("Undo", self.job.undo)
        self.done = button("On with the step", self.left.emit, "main")
        self._lay_out()

    def _lay_out(self) -> None:
        px = self.look.px
        say = QVBoxLayout()
        say.setContentsMargins(px(16), px(10), px(12), px(8))
        say.addWidget(self.step)
        say.addWidget(self.head)
        say.addWidget(self.figures, 1)
        say.addWidget(self.note)
        say.addWidget(self.caution)
        say.addWidget(self.sums, 0, Qt.AlignmentFlag.AlignLeft)
        middle = QVBoxLayout()
        middle.setContentsMargins(px(8), px(8), px(8), px(6))
        middle.addWidget(self.rose, 1)
        right = QVBoxLayout()
        right.setContentsMargins(px(10), px(10), px(10), px(10))
        right.addWidget(self.field)
        right.addWidget(self.take)
        right.addWidget(self.before)
        right.addStretch(1)
        right.addWidget(self.chuck)
        right.addWidget(self.limit)
        foot = QHBoxLayout()
        foot.addWidget(self.back, 1)
        foot.addWidget(self.done, 2)
        right.addLayout(foot)
        self.done.setMinimumHeight(px(46))
        self.beside = panel(middle, True)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(say, True), 38)
        whole.addWidget(self.beside, 34)
        whole.addWidget(panel(right, True), 30)
        self.figures.setMinimumHeight(px(60))
        self.rose.setMinimumHeight(px(90))

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.beside.setVisible(self.width() >= self.look.px(800))

    @property
    def _turn(self) -> tuple[float, ...]:
        turns = self.job.turns_read
        return turns[-1] if turns else ()

    def refresh(self) -> None:
        up, inch = self.job.holding, self.job.inch
        if up is None:
            return
        chosen = chuck_of(self.job.job.work.ways).chosen
        self.line, self.answer = set_true(
            self._turn, self.job.true_within, chosen, inch
        )
        self.step.setText(up.title)
        self.head.setText(self.line.head)
        self.note.setText(self.line.note)
        is_true = self.line.key == "true"
        set_ink(self.head, "proved" if is_true else "")
        self.sums.setVisible(self.answer is not None)
        unit = "in" if inch else "mm"
        self.field.name.setText(f"Readings round a turn, {unit}: 0 0.12 0.30 0.18")
        self.field.edit.setAccessibleName("Readings round a turn")
        self.chuck.setCurrentIndex(self.chuck.findData(chosen))
        if not self.limit.edit.hasFocus():
            self.limit.put(length_text(self.job.true_within, 0.001, inch))
        needles = [max(turn) - min(turn) for turn in self.job.turns_read]
        said = ", ".join(small_text(needle, inch) for needle in needles)
        self.before.setText(f"Swing so far: {said}" if needles else "")
        for view in (self.figures, self.rose):
            view.refresh()

    def _figures(self, width: float, height: float, size: float) -> Drawing:
        return figures_drawing(self.line.figures, width, height, size, self.job.inch)

    def _rose(self, width: float, height: float, size: float) -> Drawing:
        turn = self._turn
        found = resolve(turn) if len(turn) >= 3 else None
        limit = self.job.true_within
        return rose_drawing(turn, found, limit, width, height, size, self.job.inch)

    # -- doing -----------------------------------------------------------

    def _take(self, typed: str) -> None:
        try:
            self.field.clear()
            self.job.read_round(typed)
        except BadInput as error:
            self.field.put(typed)
            self.field.refuse(error.message)
            return
        self.field.edit.setFocus()

    def _take_limit(self, typed: str) -> None:
        try:
            self.job.set_true_within(typed)
        except BadInput as error:
            self.limit.refuse(error.message)
            return
        self.field.edit.setFocus()

    def _open_sums(self) -> None:
        if self.answer is not None:
            self.bench.open_working(self.answer)

    def begin(self) -> None:
        self.field.edit.setFocus()
