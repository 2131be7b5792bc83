"""The page of Cut on the simulated lathe: with the coach's word, or without it."""

from msgspec.structs import replace
from PySide6.QtCore import QEvent, QObject, Qt, Signal
from PySide6.QtGui import QKeyEvent

from machinon.core.quantity import length_range, length_text
from machinon.desk.bench import Bench
from machinon.desk.practice.practice_job import PracticeJob
from machinon.desk.stages.cut import CutView
from machinon.desk.widgets import set_ink
from machinon.draw.charts import sneak_up_drawing
from machinon.draw.drawing import Drawing

MEASURE, TRY = "+", "*"  # keys beside the numbers


class PracticeCut(CutView):
    """Signals: measure_wished(); try_wished()."""

    measure_wished = Signal()
    try_wished = Signal()

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.field.edit.installEventFilter(self)

    @property
    def practice(self) -> PracticeJob:
        assert isinstance(self.job, PracticeJob)
        return self.job

    @property
    def wants_reading(self) -> bool:
        """Whether the page asks what the gauge shows."""
        return self.screen is not None and self.screen.asks in ("start", "reading")

    def refresh(self) -> None:
        super().refresh()
        # the lathe answers, metal does not come back, and nothing is set up here
        given = (self.trial, self.tools, self.deepest)
        for widget in (*given, self.back, self.finished, self.prove):
            widget.hide()
        alone = self.practice.coached != "on"
        for figure in (self.left, self.expected, self.takes, self.passes):
            figure.setVisible(not alone)
        if alone and self.screen is not None:
            self._leave_alone()

    def _chart(self, width: float, height: float, size: float) -> Drawing:
        plan = self.job.plan
        if self.practice.coached == "on" or None in (plan.cut_state, plan.advice):
            return super()._chart(width, height, size)
        assert plan.cut_state is not None
        assert plan.advice is not None
        # what was read, and nothing of what will come
        silent = replace(plan.advice, predicted=None, infeed=0.0)
        inch, zone = self.job.inch, self._zone()
        state = plan.cut_state
        return sneak_up_drawing(state, silent, width, height, size, inch, zone)

    def _leave_alone(self) -> None:
        """Nothing of what the coach would say."""
        assert self.screen is not None
        if self.screen.asks in ("start", "touch"):
            return
        log, inch = self.job.job.log, self.job.inch
        last = log.last_read.measured if log.last_read else log.start
        low, high = self.practice.exercise.band
        self.screen = replace(self.screen, asks="cut")
        self.head.setText("Your turn")
        self.large.setText(
            "?" if last is None else length_text(last, 0.001, inch, unit=False)
        )
        set_ink(self.large, "measured")
        self._size_large()
        band = length_range(low, high, inch=inch)
        self.under.setText(f"was read last; the band is {band}")
        dial = self.job.dial
        at = log.entries[-1].dial if log.entries else 0.0
        stands = dial.text(dial.shows(at, self.job.touch))
        self.why.setText(
            f"The dial stands at {stands}. Type where it is to stand for the next cut, "
            "or what the gauge shows."
        )
        self.field.name.setText("Dial, or reading")
        self.enter_button.setText("Take it")
        self.reading_button.hide()

    def enter(self) -> None:
        """Take what is typed; with nothing typed at the end, try the mate."""
        typed = self.field.text().strip()
        if self.screen is not None and not typed:
            if self.screen.asks in ("trial", "done"):
                self.try_wished.emit()
                return
            if self.practice.coached != "on" and self.screen.asks == "cut":
                self.field.refuse("Type where the dial is to stand.")
                return
        super().enter()

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if (
            event.type() == QEvent.Type.KeyPress
            and isinstance(event, QKeyEvent)
            and watched is self.field.edit
            and not self.field.text()
        ):
            wish = {MEASURE: self.measure_wished, TRY: self.try_wished}
            if event.text() in wish:
                wish[event.text()].emit()
                return True
        return bool(super().eventFilter(watched, event))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Plus:
            self.measure_wished.emit()
            return
        super().keyPressEvent(event)
