"""Widgets that make do with little room."""

import re

from PySide6.QtCore import (
    QEvent,
    QModelIndex,
    QPersistentModelIndex,
    QPointF,
    QRect,
    QSize,
    Qt,
)
from PySide6.QtGui import QPainter, QPaintEvent, QPen, QResizeEvent
from PySide6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QGridLayout,
    QLabel,
    QRadioButton,
    QSizePolicy,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionComboBox,
    QStyleOptionViewItem,
    QTreeWidget,
    QTreeWidgetItem,
    QWidget,
)

from machinon.desk.faults import painted
from machinon.draw.lettering import in_lines

# px that must be to spare before what was broken into lines is joined again: more
# than a scroll bar takes, or the two would drive each other to and fro
SPARE = 40


class Abreast(QWidget):
    """Widgets side by side, one under the other where there is no room for that."""

    def __init__(
        self,
        most: int,
        *widgets: QWidget,
        even: bool = True,
        held: Qt.AlignmentFlag = Qt.AlignmentFlag.AlignTop,
    ) -> None:
        """most: in a row; even: alike in width, else the last takes the rest.

        held: where in its place each stands.
        """
        super().__init__()
        self.most, self.even, self.held = most, even, held
        self.columns = most
        self.grid = QGridLayout(self)
        self.grid.setContentsMargins(0, 0, 0, 0)
        self.widgets: list[QWidget] = []
        self._placed: list[QWidget] = []
        for widget in widgets:
            self.put(widget)

    def put(self, widget: QWidget) -> None:
        """Add one at the end."""
        self.widgets.append(widget)
        self.grid.addWidget(widget)
        self._place()

    def clear(self) -> None:
        """Let go of all of them."""
        for widget in self.widgets:
            self.grid.removeWidget(widget)
            widget.hide()
            widget.deleteLater()
        self.widgets = []

    @property
    def _shown(self) -> list[QWidget]:
        return [widget for widget in self.widgets if not widget.isHidden()]

    def _place(self) -> None:
        """Each that is shown in its row and column."""
        self._placed = self._shown
        abreast = min(self.columns, len(self._placed))
        for at, widget in enumerate(self._placed):
            self.grid.addWidget(widget, *divmod(at, self.columns), self.held)
        for i in range(self.most):
            wide = i < abreast if self.even else i == self.columns - 1
            self.grid.setColumnStretch(i, int(wide))

    def _least(self) -> list[int]:
        """The least width of each that is shown."""
        return [
            max(widget.minimumSizeHint().width(), widget.minimumWidth())
            for widget in self._shown
        ]

    def _columns(self, width: int) -> int:
        """Number of columns that have room in a row."""
        gap, least = self.grid.horizontalSpacing(), self._least()
        if self.even:
            room = (width + gap) // max(max(least, default=0) + gap, 1)
            return max(1, min(self.most, room))
        whole = sum(least) + gap * (len(least) - 1)
        return self.most if whole <= width else 1

    def _fit(self) -> None:
        columns = self._columns(self.width())
        if columns > self.columns:
            columns = max(self._columns(self.width() - SPARE), self.columns)
        if columns != self.columns or self._placed != self._shown:
            self.columns = columns
            self._place()
            self.updateGeometry()

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self._fit()

    def event(self, event: QEvent) -> bool:
        done = super().event(event)
        if event.type() == QEvent.Type.LayoutRequest:  # a text became longer
            self._fit()
        return done

    def minimumSizeHint(self) -> QSize:
        return QSize(max(self._least(), default=0), super().minimumSizeHint().height())


class Choosing(QRadioButton):
    """A radio button whose words go into more lines where there is no room."""

    def __init__(self, words: str) -> None:
        super().__init__(words)
        self.words = words
        # else its hint, the words in one line, is the least it takes
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        broken = self._broken(self.width())
        if broken.count("\n") < self.text().count("\n"):
            broken = self._broken(self.width() - SPARE)
        if broken.count("\n") != self.text().count("\n"):
            self.setText(broken)

    def _broken(self, width: int) -> str:
        """The words in as many lines as they need."""
        room = width - 2 * self.fontMetrics().horizontalAdvance("mm")
        wide = self.fontMetrics().horizontalAdvance
        return "\n".join(in_lines(self.words.split(), wide, room))

    def minimumSizeHint(self) -> QSize:
        longest = max(self.words.split(), key=len)
        wide = self.fontMetrics().horizontalAdvance(f"{longest}mmmm")
        return QSize(wide, super().sizeHint().height())


# where a figure may go on in another line: from and to, and between words, but never
# between a number and its unit
BREAKS = re.compile(r"(?<= to) |(?<=[a-z,]) (?=[A-Za-z]{2})")


class FigureLabel(QLabel):
    """A figure that goes into more lines where there is no room for one."""

    def __init__(self, part: str) -> None:
        super().__init__()
        self.setTextFormat(Qt.TextFormat.PlainText)
        self.setProperty("part", part)
        self.words = ""

    def say(self, words: str) -> None:
        """Show a figure, in one line until `fit` says how much room there is."""
        self.words = words
        self.setText(words)

    def fit(self, room: int) -> None:
        """Lays the items out in one line or more, by the room there is."""
        spare = room - self.fontMetrics().horizontalAdvance(self.words)
        if spare < 0:
            wide = self.fontMetrics().horizontalAdvance
            self.setText("\n".join(in_lines(self._parts, wide, room)))
        elif spare > SPARE:
            self.setText(self.words)

    @property
    def _parts(self) -> list[str]:
        return BREAKS.split(self.words)

    def minimumSizeHint(self) -> QSize:
        wide = max(map(self.fontMetrics().horizontalAdvance, self._parts))
        return QSize(wide, super().minimumSizeHint().height())


class Combo(QComboBox):
    """A list to choose from: its words are shortened, its arrow is always there."""

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        option = QStyleOptionComboBox()
        self.initStyleOption(option)
        side = self.fontMetrics().height() * 0.32
        room = self.width() - round(5 * side)
        option.currentText = self.fontMetrics().elidedText(  # type: ignore[attr-defined]
            option.currentText,  # type: ignore[attr-defined]
            Qt.TextElideMode.ElideRight,
            room,
        )
        style = self.style()
        style.drawComplexControl(
            QStyle.ComplexControl.CC_ComboBox, option, painter, self
        )
        style.drawControl(QStyle.ControlElement.CE_ComboBoxLabel, option, painter, self)
        x, y = self.width() - 2.4 * side, self.height() / 2 - side * 0.3
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self.palette().text().color(), max(side * 0.3, 1.6)))
        painter.drawPolyline(
            [QPointF(x - side, y), QPointF(x, y + side), QPointF(x + side, y)]
        )


def narrow_combo(name: str) -> Combo:
    """A list that takes the width there is, not that of its longest line."""
    made = Combo()
    made.setAccessibleName(name)
    made.setSizeAdjustPolicy(
        QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon
    )
    made.setMinimumContentsLength(10)
    return made


class Roomy(QWidget):
    """Asks for the lines that its wrapped words need at its width."""

    def minimumSizeHint(self) -> QSize:
        least, layout = super().minimumSizeHint(), self.layout()
        if layout is None or not layout.hasHeightForWidth():
            return least
        return least.expandedTo(QSize(0, layout.minimumHeightForWidth(self.width())))


class OnePage(QWidget):
    """Shows one of its pages and needs only the least room of that one.

    A stacked widget would ask for the tallest page, and for every wrapped
    text at its full height: the stages would scroll where they need not.
    """

    def __init__(self, *pages: QWidget) -> None:
        """pages: those that are there from the start; they go when this goes, also
        where they were never shown."""
        super().__init__()
        self._page: QWidget | None = None
        for page in pages:
            page.setParent(self)
            page.hide()

    @property
    def page(self) -> QWidget | None:
        """The page that is shown; None before the first."""
        return self._page

    def show_page(self, page: QWidget) -> None:
        """Bring a page to the front; it becomes a child of this widget."""
        if page is not self._page:
            if self._page is not None:
                self._page.hide()
            self._page = page
            page.setParent(self)
            page.setGeometry(self.rect())
            page.show()
            self.updateGeometry()

    def event(self, event: QEvent) -> bool:
        if event.type() == QEvent.Type.LayoutRequest:  # the page needs other room
            self.updateGeometry()
        return super().event(event)

    def minimumSizeHint(self) -> QSize:
        if self._page is None:
            return QSize(0, 0)
        return self._page.minimumSizeHint().expandedTo(self._page.minimumSize())

    def sizeHint(self) -> QSize:
        return self.minimumSizeHint()

    def resizeEvent(self, event: QResizeEvent) -> None:
        if self._page is not None:
            self._page.setGeometry(self.rect())


def beside(view: QAbstractItemView) -> int:
    """Width of an item's sign and margins beside its words, px."""
    sign = view.style().pixelMetric(QStyle.PixelMetric.PM_SmallIconSize, None, view)
    return sign + view.fontMetrics().height() * 3 // 2


class FiguresTree(QTreeWidget):
    """Names below their headings, each with its figure: beside it, or beneath it where
    the names would have no room."""

    def __init__(self) -> None:
        super().__init__()
        self.setHeaderHidden(True)
        self.setColumnCount(2)
        self.setRootIsDecorated(False)
        self.setWordWrap(True)
        self.setItemDelegateForColumn(0, _NamedFigures(self))
        header = self.header()
        header.setStretchLastSection(False)
        header.setSectionResizeMode(0, header.ResizeMode.Stretch)
        header.setSectionResizeMode(1, header.ResizeMode.ResizeToContents)
        header.sectionResized.connect(lambda *_: self.scheduleDelayedItemsLayout())

    def add(self, below: QTreeWidgetItem, name: str, figure: str) -> QTreeWidgetItem:
        item = QTreeWidgetItem(below, [name, figure])
        item.setTextAlignment(
            1, Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        )
        return item

    @property
    def spent(self) -> int:
        """Width before a name: indentation, its sign and its margins, px."""
        return 2 * self.indentation() + beside(self)

    @property
    def figures_beneath(self) -> bool:
        return self.isColumnHidden(1)

    def fit(self) -> None:
        """Put the figures where there is room for them."""
        advance = self.fontMetrics().horizontalAdvance
        tops = map(self.topLevelItem, range(self.topLevelItemCount()))
        items = [top.child(i) for top in tops for i in range(top.childCount())]
        names = [item.text(0) for item in items]
        # in two lines at the most, but for a long word
        lines = [advance(name) // 2 for name in names]
        lines += [advance(word) for name in names for word in name.split()]
        figures = [advance(item.text(1)) for item in items]
        wants = self.spent + max(lines, default=0) + max(figures, default=0)
        spare = SPARE if self.figures_beneath else 0
        self.setColumnHidden(1, self.viewport().width() < wants + spare)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()


class InLines(QStyledItemDelegate):
    """Gives the items of a list the lines that their words need beside their signs."""

    def __init__(self, view: QAbstractItemView) -> None:
        super().__init__(view)
        self._view = view

    def _room(self) -> int:
        """Width for the words, px."""
        return self._view.viewport().width() - beside(self._view)

    def sizeHint(
        self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> QSize:
        told = QStyleOptionViewItem(option)
        self.initStyleOption(told, index)
        room, wraps = QRect(0, 0, self._room(), 10_000), Qt.TextFlag.TextWordWrap
        lines = option.fontMetrics.boundingRect(room, wraps, told.text).height()
        wide = super().sizeHint(option, index).width()
        return QSize(wide, lines + option.fontMetrics.height() * 3 // 4)


class _NamedFigures(InLines):
    """Names with a line more for a figure beneath."""

    def __init__(self, tree: FiguresTree) -> None:
        super().__init__(tree)
        self._tree = tree

    def _room(self) -> int:
        return self._tree.columnWidth(0) - self._tree.spent

    def initStyleOption(
        self,
        option: QStyleOptionViewItem,
        index: QModelIndex | QPersistentModelIndex,
    ) -> None:
        super().initStyleOption(option, index)
        if index.parent().isValid() and self._tree.figures_beneath:
            figure = index.siblingAtColumn(1).data()  # type: ignore[union-attr]
            option.text = f"{index.data()}\u2028{figure}"  # type: ignore[attr-defined]

    def sizeHint(
        self, option: QStyleOptionViewItem, index: QModelIndex | QPersistentModelIndex
    ) -> QSize:
        if not index.parent().isValid():  # a heading has the whole line
            return QStyledItemDelegate.sizeHint(self, option, index)
        return super().sizeHint(option, index)
