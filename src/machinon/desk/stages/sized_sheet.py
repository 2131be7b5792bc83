"""A drawing whose sizes are changed in place, and the checks on it.

What the stage Piece is for every kind of piece.
"""

import functools

from PySide6.QtCore import QRect, QRectF, Qt
from PySide6.QtGui import QFontMetrics, QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from machinon.core.errors import BadInput
from machinon.core.piece.family import Check
from machinon.desk.bench import Bench, StageView
from machinon.desk.faults import painted
from machinon.desk.painter import paint_mark
from machinon.desk.size_edit import SizeEdit
from machinon.desk.theme import font
from machinon.desk.widgets import (
    DrawingView,
    Look,
    button,
    label,
    panel,
    scrolled,
    set_ink,
)
from machinon.draw.drawing import Drawing, Mark, MarkKind


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
        self._checks = checks
        self._lay_out()
        if len(before) != len(checks) or rows != self._rows:
            self.update()
        else:
            for old, new, row in zip(before, checks, rows, strict=True):
                if old != new:
                    self.update(row.adjusted(-row.left(), 0, 0, 0))
        if before != checks:
            says = "\n".join(check.says for check in checks)
            self.setAccessibleDescription(says)

    def _lay_out(self) -> None:
        px = self._look.px
        left, y = px(22), 0
        width = max(self.width() - left - px(4), px(60))
        self._rows = []
        for check in self._checks:
            tall = _height(check.says, width, 14 * self._look.scale)
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
            painter.drawText(row, _WRAPPED, check.says)


@functools.lru_cache(maxsize=1000)
def _height(text: str, width: int, size: float) -> int:
    """How tall a text is set in a column."""
    room = QRect(0, 0, width, 10_000)
    return QFontMetrics(font(size)).boundingRect(room, _WRAPPED, text).height()


_WRAPPED = int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)


class SizedSheet(StageView):
    """The drawing with its entry at the left; what stands above the checks, `beside`,
    and the checks at the right."""

    def __init__(self, bench: Bench, follow: str) -> None:
        """follow: the words of the button that takes back what was typed."""
        super().__init__(bench)
        px = self.look.px
        self.drawing = DrawingView(self.look, self._drawing, "Drawing of the piece")
        self.drawing.spot_chosen.connect(self._on_spot_chosen)
        self.edit = SizeEdit(self.drawing, self.look)
        self.edit.setAccessibleName("Size")
        self.edit.returnPressed.connect(self._on_size_entered)
        self._key = ""
        self.says = label("", "faint", wrap=True)
        self.open_fit = button("", self._open_fit)
        self.open_fit.hide()
        self.follow = button(follow, self._follow)
        self.follow.hide()
        self._fit = 0
        self.checks_title = label("", "head", wrap=True)
        self.checks = CheckList(self.look)
        self.beside = QVBoxLayout()

        left = QVBoxLayout()
        left.setContentsMargins(px(8), px(6), px(8), px(6))
        left.addWidget(self.drawing, 1)
        self.foot = foot = QHBoxLayout()
        foot.addWidget(self.says, 1)
        foot.addWidget(self.open_fit)
        foot.addWidget(self.follow)
        left.addLayout(foot)
        column = QVBoxLayout()
        column.setContentsMargins(px(12), px(10), px(8), px(8))
        column.addLayout(self.beside)
        column.addSpacing(px(6))
        column.addWidget(self.checks_title)
        column.addWidget(scrolled(self.checks), 1)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 70)
        whole.addWidget(panel(column, True), 30)

    # -- what each kind of piece says for itself --------------------------

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a size of the drawing."""
        raise NotImplementedError

    def _drawing(self, width: float, height: float, size: float) -> Drawing:
        raise NotImplementedError

    def _hint(self) -> None:
        """What to do while no size is being typed."""
        raise NotImplementedError

    def _on_spot_chosen(self, key: str, place: QRectF | None) -> None:
        self.begin_edit(key, place)

    # -- shared -----------------------------------------------------------

    def _show_sheet(self) -> None:
        """The drawing, its checks, and the hint unless a size is being typed."""
        plan = self.job.plan
        failed, passed = plan.failed, [one for one in plan.checks if one.passed]
        if not plan.checks:
            self.checks_title.setText("")
        elif failed:
            self.checks_title.setText(
                f"{len(failed)} of {len(plan.checks)} checks fail"
            )
        else:
            self.checks_title.setText(f"All {len(plan.checks)} checks pass")
        set_ink(self.checks_title, "stop" if plan.grave else "")
        self.checks.show_checks((*failed, *passed))
        if not self.edit.isVisible():
            self._hint()
        self.drawing.refresh()

    def _tell(self, text: str, ink: str = "") -> None:
        self.says.setText(text)
        set_ink(self.says, ink)
        for i in range(1, self.foot.count()):
            self.foot.itemAt(i).widget().hide()

    def _offer_fit(self, number: int) -> None:
        """The way to the fit that rules the size at hand; 0 for none."""
        self._fit = number
        self.open_fit.setText(f"Open fit {number}")
        self.open_fit.setVisible(bool(number))

    def _on_size_entered(self) -> None:
        try:
            self.job.set_size(self._key, self.edit.text())
        except BadInput as error:
            self.edit.refuse()
            self.says.setText(error.message)
            set_ink(self.says, "stop")
            return
        self._close_edit()

    def _close_edit(self) -> None:
        self.edit.close_over()
        self._hint()

    def _open_fit(self) -> None:
        self._close_edit()
        self.bench.go("fits", self._fit)

    def _follow(self) -> None:
        self.job.set_size(self._key, "")
        self._close_edit()
