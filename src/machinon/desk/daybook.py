"""The daybook as a page, and the working of an answer as a window."""

from PySide6.QtCore import Qt, Signal
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import (
    QDialog,
    QGridLayout,
    QHBoxLayout,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from machinon.core.quantity import LENGTH, Kind, length_text, text_of
from machinon.core.reckoning import Answer, reckonings
from machinon.desk.start_page import day_text
from machinon.desk.widgets import Field, Look, button, label, scrolled
from machinon.store.shop_file import ShopFile


class DaybookPage(QWidget):
    """The dated record, newest first; it is only ever added to.

    Signals: left() to go back to where one was.
    """

    left = Signal()

    def __init__(self, look: Look, file: ShopFile, job_id: str) -> None:
        super().__init__()
        self.file, self._job_id = file, job_id
        self._names = {entry.id: entry.name for entry in file.entries("job")}
        self.lines = QTreeWidget()
        self.lines.setColumnCount(3)
        self.lines.setHeaderLabels(["When", "Job", "What"])
        self.lines.setRootIsDecorated(False)
        self.lines.setWordWrap(True)
        self.lines.setColumnWidth(0, look.px(170))
        self.lines.setColumnWidth(1, look.px(280))
        self.find = Field("Search the daybook", None)
        self.find.edit.textChanged.connect(lambda _: self._fill())
        self.scope = button("", self._change_scope)
        self.note = Field("Write a line of your own, then Enter", None)
        self.note.taken.connect(self._write)
        head = QHBoxLayout()
        head.addWidget(label("Daybook", "title"), 1)
        head.addWidget(self.scope, 0, Qt.AlignmentFlag.AlignVCenter)
        head.addWidget(button("Back", self.left.emit), 0)
        row = QHBoxLayout()
        row.addWidget(self.note, 3)
        row.addWidget(self.find, 1)
        column = QVBoxLayout(self)
        px = look.px
        column.setContentsMargins(px(28), px(18), px(28), px(14))
        column.addLayout(head)
        column.addLayout(row)
        column.addWidget(self.lines, 1)
        self._whole = not job_id
        self._fill()

    def _fill(self) -> None:
        self.scope.setVisible(bool(self._job_id))
        self.scope.setText("This job only" if self._whole else "The whole shop")
        wanted = self.find.text().strip().lower()
        self.lines.clear()
        for line in self.file.daybook("" if self._whole else self._job_id):
            name = self._names.get(line.context, "Shop")
            if wanted and wanted not in f"{name} {line.says}".lower():
                continue
            self.lines.addTopLevelItem(
                QTreeWidgetItem([day_text(line.at), name, line.says])
            )

    def _change_scope(self) -> None:
        self._whole = not self._whole
        self._fill()

    def _write(self, text: str) -> None:
        if text.strip():
            self.file.note(self._job_id or "shop", text.strip())
            self.note.clear()
            self._fill()


def working_of(look: Look, answer: Answer) -> QWidget:
    """An answer opened: what was put in, each step, the sources, the notes."""
    px = look.px
    inside = QWidget()
    column = QVBoxLayout(inside)
    column.addWidget(label("Put in", "head"))
    grid = QGridLayout()
    grid.setHorizontalSpacing(px(18))
    inputs = {given.key: given for given in reckonings()[answer.reckoner].inputs}
    for i, (key, value) in enumerate(answer.inputs.items()):
        grid.addWidget(label(inputs[key].meaning, "faint"), i, 0)
        grid.addWidget(label(_said(value, inputs[key].kind), wrap=True), i, 1)
    grid.setColumnStretch(1, 1)
    column.addLayout(grid)
    column.addWidget(label("Worked out", "head"))
    steps = QGridLayout()
    steps.setHorizontalSpacing(px(18))
    for i, step in enumerate(answer.working):
        steps.addWidget(label(step.what, "faint"), i, 0)
        steps.addWidget(label(step.expression, wrap=True), i, 1)
        steps.addWidget(label("= " + text_of(step.value, step.kind), "head"), i, 2)
        if step.kind is LENGTH:
            small = length_text(step.value, 0.001, inch=True)
            steps.addWidget(label(small, "faint"), i, 3)
    steps.setColumnStretch(1, 1)
    column.addLayout(steps)
    for ink, words in (("stop", answer.cautions), ("", answer.notes)):
        for text in words:
            column.addWidget(label(text, "", ink, wrap=True))
    column.addWidget(label("Source", "head"))
    for source in answer.sources:
        column.addWidget(label(source, "faint", wrap=True))
    column.addStretch(1)
    return inside


class WorkingWindow(QDialog):
    """The working of an answer in a window of its own."""

    def __init__(self, parent: QWidget, look: Look, answer: Answer) -> None:
        super().__init__(parent)
        self.setWindowTitle(f"Working: {answer.title}")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        px = look.px
        foot = QHBoxLayout()
        foot.addWidget(button("Copy", lambda: self._copy(answer)))
        foot.addStretch(1)
        foot.addWidget(button("Close", self.close))
        whole = QVBoxLayout(self)
        whole.setContentsMargins(px(18), px(14), px(18), px(12))
        whole.addWidget(label(answer.title, "title", wrap=True))
        whole.addWidget(scrolled(working_of(look, answer)), 1)
        whole.addLayout(foot)
        self.resize(px(720), px(560))

    @staticmethod
    def _copy(answer: Answer) -> None:
        lines = [answer.title]
        lines += [
            f"{s.what}: {s.expression} = {text_of(s.value, s.kind)}"
            for s in answer.working
        ]
        lines += [f"Source: {source}" for source in answer.sources]
        QGuiApplication.clipboard().setText("\n".join(lines))


def _said(value: object, kind: Kind) -> str:
    """An input as a person would write it."""
    if isinstance(value, tuple | list):
        return ", ".join(_said(item, kind) for item in value)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float | int):
        return text_of(value, kind)
    return str(value)
