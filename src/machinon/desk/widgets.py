"""The desk's own building blocks: drawings, figures, fields with messages."""

import time
from collections.abc import Callable

from PySide6.QtCore import QEvent, QRectF, QSize, Qt, QTimer, Signal
from PySide6.QtGui import (
    QAction,
    QContextMenuEvent,
    QGuiApplication,
    QKeyEvent,
    QKeySequence,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QResizeEvent,
)
from PySide6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QStyle,
    QStyleOptionButton,
    QToolTip,
    QVBoxLayout,
    QWidget,
)

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, Kind, both_text, length_text, parse
from machinon.core.reckoning import Answer
from machinon.desk.faults import CANNOT, faults, painted
from machinon.desk.narrow import FigureLabel
from machinon.desk.painter import lying_on_each_other, paint, paint_mark
from machinon.desk.theme import Theme
from machinon.draw.drawing import SHARES, Drawing, Mark, MarkKind, Role, Spot, Text
from machinon.draw.lettering import in_lines

Maker = Callable[[float, float, float], Drawing]
LATER = 30  # ms after which what is beside the work at hand is laid out again
ROOMY = 1.3  # scale of figures from which pictures and the daybook take less room


class Look:
    """The common look of every widget: the theme and the font scale now in force."""

    def __init__(self, theme: Theme, scale: float) -> None:
        self.theme = theme
        self.scale = scale

    def px(self, size: float) -> int:
        return round(size * self.scale)


class DrawingView(QWidget):
    """Shows a drawing laid out for its size; its spots can be chosen.

    Signals: spot_chosen(tie: str, place: QRectF) by mouse, touch or Enter; resized().
    """

    spot_chosen = Signal(str, QRectF)
    resized = Signal()

    def __init__(
        self,
        look: Look,
        maker: Maker,
        name: str,
        size: float = 13.0,
        ground: Role = "panel",
        shrinks: bool = False,
    ) -> None:
        """shrinks: its letters do before they lie on each other; else the maker sees
        to that."""
        super().__init__()
        self._shares = (*SHARES, 0.5) if shrinks else SHARES[:1]
        self._ground: Role = ground
        # paints its own ground, so that what lies under it need not be painted
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self._look = look
        self._maker = maker
        self._size = size
        self._drawing: Drawing | None = None
        self._stale = False
        self._later = QTimer(self, singleShot=True, interval=LATER)
        self._later.timeout.connect(self.refresh)
        self._at = -1
        self.setMouseTracking(True)
        self.setAccessibleName(name)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def drawing(self) -> Drawing:
        """The drawing at the present size, laid out once."""
        if self._stale:
            self.refresh()
        if self._drawing is None:
            width, height = max(self.width(), 1), max(self.height(), 1)
            size = self._size * self._look.scale
            try:
                for share in self._shares:
                    self._drawing = self._maker(width, height, size * share)
                    meeting = lying_on_each_other(self._drawing)
                    if len(self._shares) == 1 or not any(meeting):
                        break
            except Exception as error:
                faults.report(error)
                says = Text((width / 2, height / 2), CANNOT, size, "stop", "centre")
                self._drawing = Drawing(width, height, (says,))
            if self._drawing.spots:
                self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        return self._drawing

    def refresh(self) -> None:
        """Lay out again; painted only where something has changed."""
        self._stale = False
        self._later.stop()
        before, self._drawing = self._drawing, None
        if before is None or self.drawing() != before:
            self.update()

    def refresh_later(self) -> None:
        """Lay out again once what is at hand stands there: for what is beside it."""
        self._stale = True
        self._later.start()

    def rect_of(self, tie: str) -> QRectF | None:
        spot = self.drawing().spot(tie)
        return QRectF(*spot.rect) if spot else None

    def stand_on(self, tie: str) -> None:
        """Give the keys to a spot, as if the arrows had led to it."""
        ties = [spot.tie for spot in self.drawing().spots]
        self._at = ties.index(tie) if tie in ties else -1
        self.setFocus()
        self.update()

    def _under(self, x: float, y: float) -> Spot | None:
        # the one painted last lies on top
        for spot in reversed(self.drawing().spots):
            if spot.holds(x, y):
                return spot
        return None

    def resizeEvent(self, event: QEvent) -> None:
        self._drawing = None
        self.resized.emit()

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        # what is to be laid out later is painted as it was until then
        waits = self._stale and self._later.isActive() and self._drawing is not None
        drawing = (waits and self._drawing) or self.drawing()
        painter.fillRect(self.rect(), self._look.theme.ink(self._ground))
        paint(painter, drawing, self._look.theme, self._ground)
        if self.hasFocus() and 0 <= self._at < len(drawing.spots):
            painter.setPen(QPen(self._look.theme.ink("lit"), 2))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(QRectF(*drawing.spots[self._at].rect))

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        spot = self._under(event.position().x(), event.position().y())
        self.setCursor(
            Qt.CursorShape.PointingHandCursor if spot else Qt.CursorShape.ArrowCursor
        )
        if spot:
            QToolTip.showText(event.globalPosition().toPoint(), spot.label, self)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        spot = self._under(event.position().x(), event.position().y())
        if spot:
            self.spot_chosen.emit(spot.tie, QRectF(*spot.rect))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        spots = self.drawing().spots
        step = {
            Qt.Key.Key_Right: 1,
            Qt.Key.Key_Down: 1,
            Qt.Key.Key_Left: -1,
            Qt.Key.Key_Up: -1,
        }.get(Qt.Key(event.key()))
        if spots and step:
            self._at = (self._at + step) % len(spots)
            self.update()
        elif spots and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            spot = spots[max(self._at, 0)]
            self.spot_chosen.emit(spot.tie, QRectF(*spot.rect))
        else:
            super().keyPressEvent(event)


class MarkView(QWidget):
    """A state's sign beside a text; nothing for a state without one."""

    def __init__(self, look: Look, kind: MarkKind | None = None, size: float = 15):
        super().__init__()
        self._look = look
        self._kind = kind
        self._size = look.px(size)
        self.setFixedSize(QSize(self._size + 6, self._size + 6))

    def set_kind(self, kind: MarkKind | None) -> None:
        self._kind = kind
        self.update()

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        if self._kind is None:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        at = (self.width() / 2, self.height() / 2)
        paint_mark(painter, Mark(at, self._kind, self._size), self._look.theme)


def label(text: str = "", part: str = "", ink: str = "", wrap: bool = False) -> QLabel:
    """A label of the style sheet's part and ink."""
    made = QLabel(text)
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setProperty("part", part)
    made.setProperty("ink", ink)
    made.setWordWrap(wrap)
    return made


class OneLine(QLabel):
    """A label that is cut off with an ellipsis, and says the whole as its tip."""

    def __init__(self, part: str = "") -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setProperty("part", part)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        painter.setPen(self.palette().windowText().color())
        text = self.fontMetrics().elidedText(
            self.text(), Qt.TextElideMode.ElideRight, self.width()
        )
        painter.drawText(
            self.rect(),
            int(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter),
            text,
        )


def set_ink(widget: QWidget, ink: str) -> None:
    """Change a label's ink by the style sheet."""
    if widget.property("ink") != ink:
        widget.setProperty("ink", ink)
        widget.style().unpolish(widget)
        widget.style().polish(widget)


def set_part(widget: QWidget, part: str) -> None:
    """Change what part a widget plays in the style sheet."""
    if widget.property("part") != part:
        widget.setProperty("part", part)
        widget.style().unpolish(widget)
        widget.style().polish(widget)


class EnterButton(QPushButton):
    """A push button that Enter presses as the space bar does.

    Where its words have no room they go into more lines, and a word that has none is
    shown shortened.
    """

    _broken = 0  # lines that it has more than one

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        option = QStyleOptionButton()
        self.initStyleOption(option)
        option.text = "\n".join(  # type: ignore[attr-defined]
            self.fontMetrics().elidedText(
                line,
                Qt.TextElideMode.ElideRight,
                self._room(),
                int(Qt.TextFlag.TextShowMnemonic.value),
            )
            for line in self._lines()
        )
        self.style().drawControl(
            QStyle.ControlElement.CE_PushButton, option, painter, self
        )

    def _room(self) -> int:
        """Width for its words, px."""
        option = QStyleOptionButton()
        self.initStyleOption(option)
        contents = QStyle.SubElement.SE_PushButtonContents
        return self.style().subElementRect(contents, option, self).width()

    def _lines(self) -> list[str]:
        """Its words, in as many lines as they need."""
        wide = self.fontMetrics().horizontalAdvance
        lines = in_lines(self.text().split(" "), wide, self._room())
        return lines if len(lines) > 1 else [self.text()]

    def _break(self) -> None:
        broken = len(self._lines()) - 1
        if broken != self._broken:
            self._broken = broken
            self.updateGeometry()
            self.update()

    def setText(self, text: str) -> None:
        if text != self.text():
            super().setText(text)
            self._break()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._break()

    def sizeHint(self) -> QSize:
        return super().sizeHint() + QSize(0, self._broken * self.fontMetrics().height())

    def minimumSizeHint(self) -> QSize:
        return self.sizeHint()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.click()
        else:
            super().keyPressEvent(event)


def button(
    text: str, pressed: Callable[[], object], part: str = "", tip: str = ""
) -> QPushButton:
    """A push button that calls `pressed`."""
    made = EnterButton(text)
    made.setProperty("part", part)
    made.setToolTip(tip)
    made.setAutoDefault(False)  # Enter in an entry is the entry's, not a Cancel beside
    made.clicked.connect(lambda: pressed())
    return made


def panel(layout: QVBoxLayout | QHBoxLayout, shares: bool = False) -> QFrame:
    """A framed panel around a layout.

    shares: its width follows from its share of the row alone, not its texts.
    """
    made = QFrame()
    if shares:
        made.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
    made.setProperty("panel", True)
    made.setLayout(layout)
    return made


WayOn = tuple[str, Callable[[], object]]  # what a button says, and what it does


class EmptyPage(QFrame):
    """A page with nothing yet, and the buttons that start it."""

    def __init__(self, look: Look, framed: bool = True) -> None:
        super().__init__()
        self.setProperty("panel", framed)
        self.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Preferred)
        self.title = label("", "title", wrap=True)
        self.words = label("", "", wrap=True)
        self.start = button("", lambda: self._ways[0][1](), "main")
        self.other = button("", lambda: self._ways[1][1]())
        self._ways: tuple[WayOn, ...] = ()
        ways = QHBoxLayout()
        ways.setSpacing(look.px(10))
        ways.addWidget(self.start)
        ways.addWidget(self.other)
        ways.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(*(4 * (look.px(28),)))
        column.setSpacing(look.px(14))
        column.addStretch(2)
        column.addWidget(self.title)
        column.addWidget(self.words)
        column.addLayout(ways)
        column.addStretch(3)

    def say(self, title: str, words: str, *ways: WayOn) -> None:
        """Say what goes here, and the way to it: one, or a second beside it."""
        self.title.setText(title)
        self.words.setText(words)
        self._ways = ways
        for side, shown in enumerate((self.start, self.other)):
            shown.setVisible(side < len(ways))
            shown.setText(ways[side][0] if side < len(ways) else "")


def scrolled(widget: QWidget) -> QScrollArea:
    """The widget in an area that scrolls up and down only."""
    area = QScrollArea()
    area.setWidget(widget)
    area.setWidgetResizable(True)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    return area


def area_of(widget: QWidget) -> QScrollArea | None:
    """The scroll area of a widget, where it has one."""
    around = widget.parentWidget()
    while around is not None and not isinstance(around, QScrollArea):
        around = around.parentWidget()
    return around


ANY = 10_000  # px: as high as there is room


def keep_low(page: QWidget, part: QWidget, most: int) -> None:
    """Limits a part's height where a page scrolls: what is under it stays near."""
    around = area_of(page)
    room = page if around is None else around.viewport()
    scrolls = page.minimumSizeHint().height() > room.height()
    part.setMaximumHeight(most if scrolls else ANY)


def bring_into_view(widget: QWidget) -> None:
    """Scroll what a widget lies in so that it is seen, once its place is known."""

    def scroll() -> None:
        around = area_of(widget)
        if around is not None:
            around.ensureWidgetVisible(widget)

    QTimer.singleShot(0, widget, scroll)


class Figure(QWidget):
    """A number as the hero: its name, the figure, its unit, the other unit small.

    Signals: opened(answer: Answer) when its working is asked for.
    """

    opened = Signal(object)

    def __init__(self, name: str, part: str = "figure") -> None:
        super().__init__()
        self._answer: Answer | None = None
        self._name = label(name, "faint", wrap=True)
        self._value = FigureLabel(part)
        self._unit = label("", "faint")
        self._small = FigureLabel("faint")
        self._working = button("working", self._open, "link")
        self._working.setToolTip("Open the formula, the numbers put in, the source")
        row = QHBoxLayout()
        row.setSpacing(5)
        row.addWidget(self._value)
        row.addWidget(self._unit, 0, Qt.AlignmentFlag.AlignBottom)
        row.addStretch(1)
        under = QHBoxLayout()
        under.setSpacing(5)
        under.addWidget(self._small)
        under.addWidget(self._working)
        under.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(1)
        column.addWidget(self._name)
        column.addLayout(row)
        column.addLayout(under)
        column.addStretch(1)
        self._working.hide()

    def show_length(
        self,
        value: float | None,
        step: float,
        inch: bool,
        ink: str = "",
        answer: Answer | None = None,
        sign: str = "",
    ) -> None:
        """A length with as many digits as `step` (mm) supports; None: not known."""
        if value is None:
            self.show_text("–", "", "", ink, None)
            return
        self.show_text(
            sign + length_text(value, step, inch, unit=False),
            "in" if inch else "mm",
            length_text(value, step, not inch),
            ink,
            answer,
        )

    def show_text(
        self,
        text: str,
        unit: str = "",
        small: str = "",
        ink: str = "",
        answer: Answer | None = None,
    ) -> None:
        self._value.say(text)
        set_ink(self._value, ink)
        self._unit.setText(unit)
        self._small.say(small)
        self._small.setVisible(bool(small))
        self._answer = answer
        self._working.setVisible(answer is not None)
        self._fit()

    def set_name(self, name: str) -> None:
        self._name.setText(name)

    def name(self) -> str:
        return self._name.text()

    def text(self) -> str:
        return self._value.words

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def _fit(self) -> None:
        """Breaks the words into more lines where one is too long."""
        for line, beside in ((self._value, self._unit), (self._small, self._working)):
            taken = 0 if beside.isHidden() else beside.sizeHint().width()
            line.fit(self.width() - taken)

    def _open(self) -> None:
        if self._answer is not None:
            self.opened.emit(self._answer)

    def contextMenuEvent(self, event: QContextMenuEvent) -> None:
        menu = QMenu(self)
        copy = QAction("Copy", menu)
        text = f"{self._value.words} {self._unit.text()}".strip()
        copy.triggered.connect(lambda: QGuiApplication.clipboard().setText(text))
        menu.addAction(copy)
        menu.exec(event.globalPos())


class LineEntry(QLineEdit):
    """A line entry that leaves Undo to the desk once its own text has none."""

    def minimumSizeHint(self) -> QSize:
        # never lower than what its text needs
        return QSize(super().minimumSizeHint().width(), self.sizeHint().height())

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.ShortcutOverride:
            assert isinstance(event, QKeyEvent)
            undo = event.matches(QKeySequence.StandardKey.Undo)
            redo = event.matches(QKeySequence.StandardKey.Redo)
            if (undo and not self.isUndoAvailable()) or (
                redo and not self.isRedoAvailable()
            ):
                event.ignore()
                return False
        return super().event(event)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        # the decimal key of many number pads types a comma
        pad = event.modifiers() & Qt.KeyboardModifier.KeypadModifier
        if pad and event.key() == Qt.Key.Key_Comma:
            self.insert(".")
            return
        super().keyPressEvent(event)


class Typed:
    """Tells a burst of a gauge that types from a hand, and its second go from a first.

    A gauge types a whole figure within a few hundredths of a second.
    """

    QUICK = 0.03  # seconds a letter: no hand is as quick
    AGAIN = 0.5  # seconds in which the same figure, or a bare Enter, is one too many

    def __init__(self) -> None:
        self._begun, self._before = 0.0, ""
        self._burst, self._at = "", -1.0

    def changed(self, text: str, now: float) -> None:
        """The text is now this."""
        if len(text) <= 1 or not text.startswith(self._before):
            self._begun = now
        self._before = text

    def entered(self, text: str, now: float) -> bool:
        """Whether Enter counts."""
        soon = self._burst and now - self._at < self.AGAIN
        if soon and text in ("", self._burst):
            return False
        burst = len(text) > 3 and now - self._begun < self.QUICK * len(text)
        self._burst, self._at = (text, now) if burst else ("", now)
        return True


class Field(QWidget):
    """A typed entry with its name above and its message below.

    What is typed stays until it is taken. While it can be read, the size is
    said back in both units; a refusal is shown in place of that.
    Signals: taken(text: str) on Enter. from_wire: whether it is a reading, which a
    gauge on a wire may enter.
    """

    taken = Signal(str)
    from_wire = False

    def __init__(
        self,
        name: str,
        kind: Kind | None = LENGTH,
        inch: Callable[[], bool] = lambda: False,
        large: bool = False,
        placeholder: str = "",
    ) -> None:
        super().__init__()
        self._kind = kind
        self._inch = inch
        self.name = label(name, "faint", wrap=True)
        self.edit = LineEntry()
        self.edit.setAccessibleName(name)
        self.edit.setPlaceholderText(placeholder)
        if large:
            self.edit.setProperty("lettering", "large")
        self.message = label("", "faint", wrap=True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addWidget(self.name)
        column.addWidget(self.edit)
        column.addWidget(self.message)
        self._typed = Typed()
        self.edit.returnPressed.connect(self._on_enter)
        self.edit.textChanged.connect(self._on_text_changed)
        self.message.hide()

    def text(self) -> str:
        return self.edit.text()

    def take(self, text: str) -> None:
        """Take a text as if it had been typed and entered."""
        self.edit.setText(text)
        self.taken.emit(text)

    def _on_enter(self) -> None:
        """A gauge that types like a keyboard may send twice, or an Enter too much."""
        if self._typed.entered(self.edit.text(), time.monotonic()):
            self.taken.emit(self.edit.text())
        elif self.edit.text():
            self.clear()
            self._say("sent twice: taken once", False)

    def put(self, text: str) -> None:
        self.edit.setText(text)
        self.edit.setCursorPosition(0)

    def hint(self, text: str) -> None:
        """Shows a hint under the entry while nothing is wrong with it."""
        if not self.refused:
            self._say(text, False)

    def clear(self) -> None:
        # not QLineEdit's own clear, which could be undone: Undo is the desk's then
        self.edit.setText("")
        self._say("", False)

    def accept(self) -> None:
        """Takes back a refusal."""
        self._say("", False)

    def refuse(self, message: str) -> None:
        """Say what is wrong and what is allowed; the text typed is kept."""
        self._say(message, True)
        self.edit.setFocus()
        self.edit.selectAll()

    def misread(self) -> str:
        """The fault of the text as a quantity; empty for a good one, or for words."""
        if self._kind is not None:
            try:
                parse(self.text(), self._kind, inch=self._inch())
            except BadInput as error:
                return error.message
        return ""

    @property
    def refused(self) -> bool:
        return bool(self.edit.property("wrong"))

    def _on_text_changed(self, text: str) -> None:
        self._typed.changed(text, time.monotonic())
        said = ""
        if self._kind is not None and text.strip():
            try:
                value = parse(text, self._kind, inch=self._inch())
            except BadInput:
                pass  # half typed; said when it is entered
            else:
                if self._kind is LENGTH:
                    said = both_text(value)
        self._say(said, False)

    def _say(self, text: str, wrong: bool) -> None:
        self.message.setText(text)
        self.message.setVisible(bool(text))
        set_ink(self.message, "stop" if wrong else "")
        if bool(self.edit.property("wrong")) != wrong:
            self.edit.setProperty("wrong", wrong)
            self.edit.style().unpolish(self.edit)
            self.edit.style().polish(self.edit)


def clear_layout(
    layout: QVBoxLayout | QHBoxLayout, keep: QWidget | None = None
) -> None:
    """Take every widget out of a layout and let go of it, but for one."""
    while layout.count():
        item = layout.takeAt(0)
        widget = item.widget() if item else None
        if widget is not None and widget is not keep:
            widget.hide()
            widget.deleteLater()
