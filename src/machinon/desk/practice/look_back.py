"""After an exercise: what was true beside what was read, and one lesson."""

from collections.abc import Callable

from PySide6.QtWidgets import QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.practice.debrief import Debrief, ReviewStep
from machinon.core.quantity import length_text
from machinon.desk.practice.practice_job import PracticeJob
from machinon.desk.widgets import Look, button, label, panel, scrolled

WORDS = {"start": "start", "cut": "cut", "spring": "spring pass", "reading": "reading"}


class LookBack(QWidget):
    """The debrief of an exercise at the dial."""

    def __init__(
        self,
        look: Look,
        job: PracticeJob,
        told: Debrief,
        again: Callable[[], None],
        other: Callable[[], None],
    ) -> None:
        super().__init__()
        self.look, self.job, self.told = look, job, told
        px = look.px
        ink = (
            "proved" if told.outcome.inside else "stop" if told.outcome.past else "cut"
        )
        self.says = label(told.says, "title", ink, wrap=True)
        self.lesson = label(told.lesson, "say", wrap=True)
        coach = told.coach
        ended = "in the band" if coach.inside else "scrap" if coach.past else "short"
        self.coach = label(
            f"Following the coach on this lathe: {ended}, {coach.stops} stops.",
            "",
            "measured",
            wrap=True,
        )
        head = QVBoxLayout()
        for label_ in (self.says, self.lesson, self.coach):
            head.addWidget(label_)
        self.again = button("The same lathe again", again)
        self.other = button("Another one", other, "main")
        buttons = QVBoxLayout()
        buttons.addWidget(self.other)
        buttons.addWidget(self.again)
        buttons.addStretch(1)
        top = QHBoxLayout()
        top.addLayout(head, 1)
        top.addLayout(buttons)
        steps = QVBoxLayout()
        steps.setContentsMargins(px(12), px(8), px(8), px(8))
        steps.addWidget(label("What was done, what was true", "head"))
        steps.addWidget(scrolled(self._steps()), 1)
        truths = QVBoxLayout()
        truths.setContentsMargins(px(12), px(8), px(8), px(8))
        truths.addWidget(label("What the lathe really did", "head"))
        truths.addWidget(scrolled(self._habits()), 1)
        below = QHBoxLayout()
        below.addWidget(panel(steps, True), 62)
        below.addWidget(panel(truths, True), 38)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(px(16), px(10), px(16), px(10))
        whole.addLayout(top)
        whole.addLayout(below, 1)

    def _steps(self) -> QWidget:
        table = QWidget()
        grid = QGridLayout(table)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setHorizontalSpacing(self.look.px(14))
        beside = "the coach" if self.job.coached != "off" else ""
        for column, words in enumerate(("", "dial", "read", "true", beside)):
            grid.addWidget(label(words, "faint"), 0, column)
        for row, step in enumerate(self.told.steps, 1):
            for column, (text, ink) in enumerate(self._row(step)):
                grid.addWidget(label(text, "", ink), row, column)
        grid.setColumnStretch(4, 1)
        grid.setRowStretch(len(self.told.steps) + 1, 1)
        return table

    def _row(self, step: ReviewStep) -> tuple[tuple[str, str], ...]:
        done, inch = step.done, self.job.inch
        dial = self.job.dial
        moved = done.what == "cut"
        at = dial.text(dial.shows(done.dial, self.job.touch)) if moved else ""
        read = "" if done.read is None else length_text(done.read, 0.001, inch, False)
        true = length_text(done.true, 0.001, inch, False)
        return (
            (WORDS[done.what], ""),
            (at, "cut"),
            (read, "measured"),
            (true, "proved"),
            (self._coach(step), "faint"),
        )

    def _coach(self, step: ReviewStep) -> str:
        told, dial = step.coach, self.job.dial
        if told is None or self.job.coached == "off":
            return ""
        shown = dial.text(dial.shows(told.dial, self.job.touch))
        return {
            "cut": f"cut at {shown}",
            "trial": f"cut at {shown}, then read",
            "spring": "pass once more",
            "measure": "read it",
            "stop": "stop: in the band",
            "scrapped": "past the band",
            "start": "read it first",
        }.get(told.action, told.action)

    def _habits(self) -> QWidget:
        table = QWidget()
        grid = QGridLayout(table)
        grid.setContentsMargins(0, 0, 0, 0)
        for row, (name, value) in enumerate(self.told.habits):
            grid.addWidget(label(name, "faint", wrap=True), row, 0)
            grid.addWidget(label(value, "head"), row, 1)
        grid.setRowStretch(len(self.told.habits), 1)
        grid.setColumnStretch(0, 1)
        return table
