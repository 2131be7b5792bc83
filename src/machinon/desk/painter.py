"""Paints a Drawing with a theme's inks; decides nothing about the layout."""

import functools
from collections.abc import Iterator

from msgspec import Struct
from PySide6.QtCore import QLineF, QPointF, QRectF, Qt
from PySide6.QtGui import (
    QBrush,
    QFontMetricsF,
    QPaintEngine,
    QPainter,
    QPen,
    QPolygonF,
    QStaticText,
)

from machinon.desk.theme import Theme, font
from machinon.draw.drawing import OPEN, Circle, Drawing, Line, Mark, Role, Shape, Text
from machinon.draw.hatching import hatch_lines

HATCH_SPACING = 7.0
LEEWAY = 2.0  # px that words may touch, or stand over the edge
_NO_PEN, _NO_BRUSH = Qt.PenStyle.NoPen, Qt.BrushStyle.NoBrush
# of a degree, as Qt has arcs: where an open circle begins, and how far it goes
_SIXTEENTHS = round(16 * OPEN[0]), round(16 * (OPEN[1] - OPEN[0]))
_DASHES = {"centre": [9.0, 3.0, 2.0, 3.0], "hidden": [5.0, 3.0]}


def paint(
    painter: QPainter, drawing: Drawing, theme: Theme, ground: Role = "panel"
) -> None:
    """Paint every item, back to front; ground: what the page itself is."""
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    # on paper letters stay letters, which can be searched
    screen = painter.paintEngine().type() == QPaintEngine.Type.Raster
    for item in drawing.items:
        match item:
            case Line():
                painter.setPen(_pen(item.role, item.width, theme))
                painter.drawLine(QLineF(*item.start, *item.end))
            case Circle():
                painter.setPen(_pen(item.role, item.width, theme))
                painter.setBrush(theme.ink(item.fill))
                if item.open:
                    painter.drawArc(_square_round(item), *_SIXTEENTHS)
                else:
                    painter.drawEllipse(QPointF(*item.centre), item.radius, item.radius)
            case Shape():
                _paint_shape(painter, item, theme)
            case Text():
                _paint_text(painter, item, theme, ground, screen)
            case Mark():
                paint_mark(painter, item, theme)


def _square_round(circle: Circle) -> QRectF:
    (x, y), r = circle.centre, circle.radius
    return QRectF(x - r, y - r, 2 * r, 2 * r)


@functools.lru_cache(maxsize=512)
def _pen(role: Role, width: float, theme: Theme) -> QPen:
    pen = QPen(theme.ink(role), width)
    pen.setCapStyle(Qt.PenCapStyle.FlatCap)
    pen.setJoinStyle(Qt.PenJoinStyle.MiterJoin)
    if role in _DASHES:
        pen.setDashPattern([part / width for part in _DASHES[role]])
    return pen


def _paint_shape(painter: QPainter, shape: Shape, theme: Theme) -> None:
    polygon = QPolygonF([QPointF(*point) for point in shape.points])
    filled = shape.closed and shape.fill != "none"
    if filled:
        painter.setBrush(theme.ink(shape.fill))
    if filled and not shape.hatch:
        painter.setPen(_pen(shape.role, shape.width, theme))
        painter.drawPolygon(polygon)
        return
    if filled:
        painter.setPen(_NO_PEN)
        painter.drawPolygon(polygon)
    painter.setBrush(_NO_BRUSH)
    if shape.hatch:
        # bands hatch in their own ink, sections in the hatch's
        role: Role = "hatch" if shape.role == "outline" else shape.role
        painter.setPen(_pen(role, 0.9, theme))
        lines = hatch_lines(shape.points, HATCH_SPACING, shape.hatch)
        painter.drawLines([QLineF(*a, *b) for a, b in lines])
    painter.setPen(_pen(shape.role, shape.width, theme))
    if shape.closed:
        painter.drawPolygon(polygon)
    else:
        painter.drawPolyline(polygon)


def _paint_text(
    painter: QPainter, item: Text, theme: Theme, ground: Role, screen: bool
) -> None:
    words = _set(item.text, item.size, item.bold)
    at, y = _left_of(item, words.width), item.at[1]
    if item.backed:
        painter.fillRect(
            QRectF(at - 3, y - item.size * 0.6, words.width + 6, item.size * 1.2),
            theme.ink(ground),
        )
    painter.setFont(font(item.size, item.bold))
    painter.setPen(theme.ink(item.role))
    base = y + words.rise / 2
    if screen:
        painter.drawStaticText(QPointF(at, base - words.ascent), words.letters)
    else:
        painter.drawText(QPointF(at, base), item.text)


def _left_of(item: Text, width: float) -> float:
    x = item.at[0]
    return {"left": x, "centre": x - width / 2, "right": x - width}[item.anchor]


class _Set(Struct, frozen=True):
    """A text set in its type, which takes longer than to paint it."""

    letters: QStaticText
    width: float
    rise: float  # of its capitals
    ascent: float


@functools.lru_cache(maxsize=4096)
def _set(text: str, size: float, bold: bool) -> _Set:
    type_ = font(size, bold)
    metrics = QFontMetricsF(type_)
    letters = QStaticText(text)
    letters.setTextFormat(Qt.TextFormat.PlainText)
    letters.prepare(font=type_)
    return _Set(
        letters,
        metrics.horizontalAdvance(text),
        metrics.capHeight(),
        metrics.ascent(),
    )


def lying_on_each_other(drawing: Drawing) -> Iterator[tuple[str, ...]]:
    """Words that lie on each other, or one that is cut off, in the letters they are
    set in."""
    page = QRectF(0, 0, drawing.width, drawing.height)
    page.adjust(-LEEWAY, -LEEWAY, LEEWAY, LEEWAY)
    placed: list[tuple[str, QRectF]] = []
    for item in drawing.items:
        if not isinstance(item, Text) or not item.text.strip():
            continue
        words = _set(item.text, item.size, item.bold)
        top = item.at[1] - words.rise / 2
        place = QRectF(_left_of(item, words.width), top, words.width, words.rise)
        if not page.contains(place):
            yield (item.text,)
        place.adjust(LEEWAY / 2, LEEWAY / 2, -LEEWAY / 2, -LEEWAY / 2)
        yield from ((item.text, text) for text, at in placed if at.intersects(place))
        placed.append((item.text, place))


def paint_mark(painter: QPainter, mark: Mark, theme: Theme) -> None:
    """The sign of a state, told by its shape as well as by its ink.

    A tool's point: to be cut. A ring with a cross wire: measured. A block
    with a notch punched out: proved. A barred hexagon: stop.
    """
    x, y = mark.at
    r = mark.size / 2
    ink = theme.ink(mark.kind)
    painter.setPen(QPen(ink, max(1.4, mark.size / 8)))
    painter.setBrush(_NO_BRUSH)

    def polygon(*points: tuple[float, float]) -> QPolygonF:
        return QPolygonF([QPointF(x + a * r, y + b * r) for a, b in points])

    if mark.kind == "cut":
        painter.setBrush(QBrush(ink))
        painter.drawPolygon(polygon((-0.7, -1), (0.7, -1), (0.7, 0), (0, 1), (-0.7, 0)))
    elif mark.kind == "measured":
        painter.drawEllipse(QPointF(x, y), r * 0.8, r * 0.8)
        painter.drawLine(QPointF(x - 1.2 * r, y), QPointF(x + 1.2 * r, y))
    elif mark.kind == "proved":
        painter.setBrush(QBrush(ink))
        painter.drawPolygon(
            polygon((-1, -1), (1, -1), (1, 1), (0.4, 1), (0, 0.2), (-0.4, 1), (-1, 1))
        )
    else:
        painter.drawPolygon(
            polygon((-0.5, -0.9), (0.5, -0.9), (1, 0), (0.5, 0.9), (-0.5, 0.9), (-1, 0))
        )
        painter.setPen(QPen(ink, max(2.0, mark.size / 4)))
        painter.drawLine(QPointF(x - r * 0.55, y), QPointF(x + r * 0.55, y))
