"""A line on the run-out to expect, with its reckoning behind it."""

from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.job.true_running import expected_says, stations
from machinon.desk.bench import Bench
from machinon.desk.widgets import button, label


class RunOutLine(QWidget):
    """Run-out to expect of the piece and its load, from the fits, the seat and the
    readings."""

    def __init__(self, bench: Bench) -> None:
        super().__init__()
        self.bench = bench
        self.says = label("", "", wrap=True)
        self.sums = button("working", self._open, "link")
        head = QHBoxLayout()
        head.addWidget(label("Run-out to expect", "head", wrap=True), 1)
        head.addWidget(self.sums)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(head)
        column.addWidget(self.says)

    def refresh(self) -> None:
        plan = self.bench.job.plan
        text = expected_says(plan, self.bench.job.inch)
        self.says.setText(text)
        self.setVisible(bool(text))

    def _open(self) -> None:
        """The stack of all that lies off, to be turned against each other."""
        longest = max(
            stations(self.bench.job.plan), key=lambda station: len(station.parts)
        )
        self.bench.reckon("runout-stack", longest.asked)
