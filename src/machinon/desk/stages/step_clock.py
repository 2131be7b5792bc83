"""The clock of a line that may take only so long: started by hand, told in large."""

from collections.abc import Callable
from datetime import datetime

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from machinon.core.piece.shown import Shown
from machinon.core.route.work.lines import WorkLine
from machinon.desk.open_job import OpenJob
from machinon.desk.widgets import button

TICK = 200  # ms from one look at the clock to the next


class StepClock:
    """A button that starts and stops it; `figure` is what there is to show.

    changed: called as it goes on; job: keeps when it was started, so that it runs on
    while the page, or the program, is closed; now: the time of day.
    """

    def __init__(
        self,
        over: QWidget,
        changed: Callable[[], None],
        job: OpenJob,
        now: Callable[[], datetime] = lambda: datetime.now().astimezone(),
    ) -> None:
        self.button = button("", self._pressed)
        self._over = over
        self._job, self._now = job, now
        self._timer = QTimer(over, interval=TICK)
        self._timer.timeout.connect(changed)
        self._line: WorkLine | None = None

    def show_line(self, line: WorkLine | None) -> None:
        """Stand for a line of the step at the machine."""
        self._line = line if line is not None and line.seconds else None
        self.button.setVisible(self._line is not None)
        if self.left:
            self._timer.start()
        else:
            self._timer.stop()  # not begun, or over
        if self._line is None:
            return
        runs = self._job.clock_of(self._line)
        whole = _told(self._line.seconds)
        self.button.setText("Stop the clock" if runs else f"Start the clock: {whole}")

    @property
    def left(self) -> float | None:
        """Seconds left of the line at hand, 0 once they are over; None unstarted."""
        began = self._job.clock_of(self._line) if self._line is not None else ""
        if self._line is None or not began:
            return None
        gone = (self._now() - datetime.fromisoformat(began)).total_seconds()
        return max(self._line.seconds - max(gone, 0.0), 0.0)

    @property
    def figure(self) -> tuple[Shown, ...]:
        """The time left, to be read from the machine."""
        left = self.left
        if left is None:
            return ()
        return (Shown("left" if left else "the time is over", _told(left)),)

    def _pressed(self) -> None:
        if self._line is None:
            return
        self._job.press_clock(self._line)
        self._over.setFocus()  # the keys go on to the lines


def _told(seconds: float) -> str:
    """The seconds as a clock shows them.

    >>> _told(47.2), _told(600), _told(86400)
    ('0:48', '10:00', '24:00:00')
    """
    whole = -int(-seconds // 1)
    minutes, rest = divmod(whole, 60)
    hours, minutes_left = divmod(minutes, 60)
    if hours:
        return f"{hours}:{minutes_left:02}:{rest:02}"
    return f"{minutes}:{rest:02}"
