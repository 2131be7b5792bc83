"""The clock of a line that may take only so long: started by hand, told in large."""

import time
from collections.abc import Callable

from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QWidget

from machinon.core.route.work.lines import Line, Shown
from machinon.desk.widgets import button

TICK = 200  # ms from one look at the clock to the next


class StepClock:
    """A button that starts and stops it; `figure` is what there is to show.

    changed: called as it goes on. began: when those that run did, by name, kept with
    the job. now: seconds, of any clock that never goes back.
    """

    def __init__(
        self,
        over: QWidget,
        changed: Callable[[], None],
        began: dict[str, float],
        now: Callable[[], float] = time.monotonic,
    ) -> None:
        self.button = button("", self._pressed)
        self._over = over
        self._changed, self._now = changed, now
        self._timer = QTimer(over, interval=TICK)
        self._timer.timeout.connect(changed)
        self._line: Line | None = None
        self._name = ""
        self._began = began

    def show_line(self, step: str, line: Line | None) -> None:
        """Stand for the line of a step; one that runs goes on if it is left."""
        self._line = line if line is not None and line.seconds else None
        self._name = f"{step}.{line.key}" if line is not None else ""
        self.button.setVisible(self._line is not None)
        if self.left:
            self._timer.start()
        else:
            self._timer.stop()  # not begun, or over
        if self._line is None:
            return
        runs = self._name in self._began
        whole = _told(self._line.seconds)
        self.button.setText("Stop the clock" if runs else f"Start the clock: {whole}")

    @property
    def left(self) -> float | None:
        """Seconds left of the line at hand, 0 once they are over; None unstarted."""
        if self._line is None or self._name not in self._began:
            return None
        gone = self._now() - self._began[self._name]
        return max(self._line.seconds - gone, 0.0)

    @property
    def figure(self) -> tuple[Shown, ...]:
        """What is left, to be read from where one works."""
        left = self.left
        if left is None:
            return ()
        return (Shown("left" if left else "the time is over", _told(left)),)

    def _pressed(self) -> None:
        if self._line is None:
            return
        if self._began.pop(self._name, None) is None:
            self._began[self._name] = self._now()
        self._over.setFocus()  # the keys go on to the lines
        self._changed()


def _told(seconds: float) -> str:
    """As a clock shows it.

    >>> _told(47.2), _told(600), _told(86400)
    ('0:48', '10:00', '24:00:00')
    """
    whole = -int(-seconds // 1)
    minutes, rest = divmod(whole, 60)
    hours, minutes_left = divmod(minutes, 60)
    if hours:
        return f"{hours}:{minutes_left:02}:{rest:02}"
    return f"{minutes}:{rest:02}"
