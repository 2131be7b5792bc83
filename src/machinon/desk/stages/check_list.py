"""The checks on a piece, failed ones first."""

import functools

from PySide6.QtCore import QRect, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QResizeEvent, QStaticText
from PySide6.QtWidgets import QWidget

from machinon.core.piece.family import Check
from machinon.desk.faults import painted
from machinon.desk.painter import paint_mark
from machinon.desk.theme import font
from machinon.desk.widgets import Look
from machinon.draw.drawing import Mark, MarkKind


class CheckList(QWidget):
    """The checks, failed ones first; one painted widget, as it changes with
    every edit and a widget for each line would cost more than the edit."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._checks: tuple[Check, ...] = ()
        self._rows: list[QRect] = []
        self.setAccessibleName("Checks")
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)

    def show_checks(self, checks: tuple[Check, ...]) -> None:
        before, rows = self._checks, self._rows
        if checks == before:
            return
        self._checks = checks
        self._lay_out()
        if len(before) != len(checks) or rows != self._rows:
            self.update()
        else:
            for old, new, row in zip(before, checks, rows, strict=True):
                if old != new:
                    self.update(row.adjusted(-row.left(), 0, 0, 0))
        says = "\n".join(check.says for check in checks)
        self.setAccessibleDescription(says)

    def _lay_out(self) -> None:
        px = self._look.px
        left, y = px(22), 0
        width = max(self.width() - left - px(4), px(60))
        self._rows = []
        for check in self._checks:
            tall = int(
                _written(check.says, width, 14 * self._look.scale).size().height()
            )
            self._rows.append(QRect(left, y, width, tall))
            y += tall + px(5)
        self.setMinimumHeight(y)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self._lay_out()

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        px, theme = self._look.px, self._look.theme
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(event.rect(), theme.ink("panel"))
        painter.setFont(font(14 * self._look.scale))
        for check, row in zip(self._checks, self._rows, strict=True):
            if not row.adjusted(-row.left(), 0, 0, 0).intersects(event.rect()):
                continue
            kind: MarkKind = "proved" if check.passed else "stop"
            at = (px(8), row.top() + px(9))
            paint_mark(painter, Mark(at, kind, px(13)), theme)
            painter.setPen(QPen(theme.ink("faint" if check.passed else "stop")))
            says = _written(check.says, row.width(), 14 * self._look.scale)
            painter.drawStaticText(row.topLeft(), says)


@functools.lru_cache(maxsize=1000)
def _written(text: str, width: int, size: float) -> QStaticText:
    """A text set in a column, for its height and to be painted."""
    made = QStaticText(text)
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setTextWidth(width)
    made.prepare(font=font(size))
    return made
