"""Piece: the drawing, whose sizes are changed in place, and the checks on it."""

import functools

from PySide6.QtCore import QRect, QRectF, Qt
from PySide6.QtGui import (
    QFontMetrics,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.materials import materials
from machinon.core.piece.back_plate import PARAMETERS, Check
from machinon.core.quantity import length_text
from machinon.core.threads.screws import cap_screws
from machinon.desk.bench import Bench, StageView
from machinon.desk.faults import painted
from machinon.desk.narrow import Combo
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
from machinon.draw.plate_drawing import plate_drawing


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


class PieceView(StageView):
    """The drawing fills the stage; what goes with it and the checks stand right."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.drawing = DrawingView(self.look, self._drawing, "Drawing of the piece")
        self.drawing.spot_chosen.connect(self._on_spot_chosen)
        self.edit = SizeEdit(self.drawing, self.look)
        self.edit.setAccessibleName("Size")
        self.edit.returnPressed.connect(self._on_size_entered)
        self._key = ""
        self.says = label("", "faint", wrap=True)
        self.open_fit = button("", self._open_fit)
        self.open_fit.hide()
        self.follow = button("Follow the fit again", self._follow_fit)
        self.follow.hide()
        self._fit = 0

        self.material = self._combo("Material", list(materials()))
        self.bolts = self._combo("Bolts", ["", "2", "3", "4", "6", "8"])
        self.bolt_size = self._combo("Screw", list(cap_screws()))
        self.bolting = self._combo("Bolted", ["through", "into"])
        self.bolting.setItemText(0, "through the plate")
        self.bolting.setItemText(1, "into the plate, tapped")
        self.stock = button("", lambda: self._on_spot_chosen("stock_diameter", None))
        self.stock_length = button(
            "", lambda: self._on_spot_chosen("stock_length", None)
        )
        for one in (self.stock, self.stock_length):
            one.setProperty("part", "size")
        self.checks = CheckList(self.look)
        self.drawing.setMinimumHeight(self.look.px(300))
        self._lay_out()

    def _combo(self, name: str, words: list[str]) -> QComboBox:
        combo = Combo()
        combo.setAccessibleName(name)
        for word in words:
            combo.addItem(word, word)
        return combo

    def _lay_out(self) -> None:
        px = self.look.px
        for combo, key in (
            (self.material, "material"),
            (self.bolts, "bolts"),
            (self.bolt_size, "bolt_size"),
            (self.bolting, "bolting"),
        ):
            combo.activated.connect(
                lambda _at, combo=combo, key=key: self.job.set_size(
                    key, combo.currentData()
                )
            )
        goes = QGridLayout()
        goes.setVerticalSpacing(px(4))
        for row, (name, widget) in enumerate(
            (
                ("Material", self.material),
                ("Screws", self.bolt_size),
                ("How many", self.bolts),
                ("Bolted", self.bolting),
                ("Stock ⌀", self.stock),
                ("Stock length", self.stock_length),
            )
        ):
            goes.addWidget(label(name, "faint"), row, 0)
            goes.addWidget(widget, row, 1)
        goes.setColumnStretch(1, 1)
        column = QVBoxLayout()
        column.setContentsMargins(px(12), px(10), px(8), px(8))
        column.addLayout(goes)
        self.checks_title = label("", "head", wrap=True)
        column.addSpacing(px(6))
        column.addWidget(self.checks_title)
        column.addWidget(scrolled(self.checks), 1)

        left = QVBoxLayout()
        left.setContentsMargins(px(8), px(6), px(8), px(6))
        left.addWidget(self.drawing, 1)
        foot = QHBoxLayout()
        foot.addWidget(self.says, 1)
        foot.addWidget(self.open_fit)
        foot.addWidget(self.follow)
        left.addLayout(foot)
        side = panel(column, True)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(panel(left, True), 70)
        whole.addWidget(side, 30)

    # -- showing ---------------------------------------------------------

    def refresh(self) -> None:
        plate = self.job.job.plate
        assert plate is not None
        for combo, word in (
            (self.material, plate.material),
            (self.bolts, "" if plate.bolts is None else str(plate.bolts)),
            (self.bolt_size, plate.bolt_size),
            (self.bolting, plate.bolting),
        ):
            if combo.findData(word) < 0:
                combo.addItem(word, word)
            combo.setCurrentIndex(combo.findData(word))
        for one, key in (
            (self.stock, "stock_diameter"),
            (self.stock_length, "stock_length"),
        ):
            value = getattr(plate, key)
            one.setText(length_text(value, 0.1, self.job.inch))
            one.setToolTip(length_text(value, 0.1, not self.job.inch))
        self._fill_checks()
        if not self.edit.isVisible():
            self._hint()
        self.drawing.refresh()

    def _hint(self) -> None:
        plan = self.job.plan
        if plan.plate is None:
            self._tell(
                "Nothing can be drawn yet. Still to measure or decide: "
                + ", ".join(plan.missing)
                + ".",
                "stop",
            )
        else:
            self._tell(
                "Choose a size on the drawing and type. Orange sizes are ruled by "
                "the fit whose number they carry."
            )

    def _tell(self, text: str, ink: str = "") -> None:
        self.says.setText(text)
        set_ink(self.says, ink)
        self.open_fit.hide()
        self.follow.hide()

    def _fill_checks(self) -> None:
        plan = self.job.plan
        failed, passed = plan.failed, [c for c in plan.checks if c.passed]
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

    def begin(self) -> None:
        self.drawing.setFocus()

    def _drawing(self, width: float, height: float, size: float) -> Drawing:
        return plate_drawing(self.job.plan, width, height, size, self.job.inch)

    # -- doing -----------------------------------------------------------

    def _on_spot_chosen(self, tie: str, place: QRectF | None) -> None:
        self._fit = {"thread": 2, "bolts": 4}.get(tie, 0)
        if tie in PARAMETERS:
            self._fit = PARAMETERS[tie].fit
            self.begin_edit(tie, place)
        elif self._fit:
            self.bench.go("fits", self._fit)

    def begin_edit(self, key: str, place: QRectF | None = None) -> None:
        """Open the entry on a size of the drawing."""
        self._key = key
        one = PARAMETERS[key]
        plate = self.job.plan.plate or self.job.job.plate
        value = getattr(plate, key)
        text = "" if value is None else length_text(value, 0.001, self.job.inch)
        self.edit.open_over(place or self.drawing.rect_of(key), text)
        self._tell(f"{one.name.capitalize()}: type a size, then Enter.")
        if one.fit:
            self.open_fit.setText(f"Open fit {one.fit}")
            self.open_fit.show()
            own = getattr(self.job.job.plate, key) is not None
            self.follow.setVisible(own)
            if not own:
                self.says.setText(
                    f"{one.name.capitalize()} follows fit {one.fit}. A size "
                    "typed here takes its place and is checked against the mate."
                )

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

    def _follow_fit(self) -> None:
        self.job.set_size(self._key, "")
        self._close_edit()
