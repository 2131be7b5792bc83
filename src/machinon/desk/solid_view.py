"""A piece as a solid that is turned by the mouse or the arrows."""

import functools

import numpy as np
from PySide6.QtCore import QPointF, Qt, QTimer
from PySide6.QtGui import (
    QColor,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPolygonF,
)
from PySide6.QtWidgets import QSizePolicy, QWidget

from machinon.core.piece.body import Body
from machinon.desk.faults import painted
from machinon.desk.theme import Theme
from machinon.desk.widgets import Look
from machinon.draw.solid_picture import (
    Mesh,
    Picture,
    faces_of,
    mesh_of,
    picture_of,
)

REST = 120  # ms without a move until the picture is drawn in full
STEP = 15.0  # degrees of an arrow key
FIRST = (30.0, 25.0)  # how it is seen at first: turned, from above


class SolidView(QWidget):
    """Rough while it is turned, in full once it rests; nothing is asked of a graphics
    card."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._body: Body | None = None
        self._turn, self._tilt = FIRST
        self._from: QPointF | None = None
        self._turning = False
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(REST)
        self._rest.timeout.connect(self._come_to_rest)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("The piece as a solid; the arrows turn it")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)

    def show_body(self, body: Body | None) -> None:
        if body != self._body:
            self._body = body
            self.update()

    def turn_by(self, turn: float, tilt: float) -> None:
        """Turn it further, degrees; never past looking at it from straight above."""
        self._turn = (self._turn + turn) % 360
        self._tilt = min(max(self._tilt + tilt, -90.0), 90.0)
        self._turning = True
        self._rest.start()
        self.update()

    def _come_to_rest(self) -> None:
        self._turning = False
        self.update()

    @painted
    def paintEvent(self, painter: QPainter, event: QPaintEvent) -> None:
        theme = self._look.theme
        painter.fillRect(self.rect(), theme.ink("panel"))
        if self._body is None:
            return
        mesh = _mesh(self._body)
        if not len(mesh.corners):
            return
        width, height = max(self.width(), 1), max(self.height(), 1)
        seen = (self._turn, self._tilt, width, height)
        if self._turning:
            _paint_rough(painter, mesh, theme, *seen)
        else:
            painter.drawImage(0, 0, _image(_picture(mesh, *seen), theme))

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self._from = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._from is not None:
            moved = event.position() - self._from
            self._from = event.position()
            self.turn_by(-0.6 * moved.x(), 0.6 * moved.y())

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        self._from = None

    def keyPressEvent(self, event: QKeyEvent) -> None:
        by = {
            Qt.Key.Key_Left: (STEP, 0.0),
            Qt.Key.Key_Right: (-STEP, 0.0),
            Qt.Key.Key_Up: (0.0, -STEP),
            Qt.Key.Key_Down: (0.0, STEP),
        }.get(Qt.Key(event.key()))
        if by is None:
            super().keyPressEvent(event)
        else:
            self.turn_by(*by)


@functools.lru_cache(maxsize=2)
def _mesh(body: Body) -> Mesh:
    return mesh_of(body)


@functools.lru_cache(maxsize=4)
def _picture(mesh: Mesh, turn: float, tilt: float, width: int, height: int) -> Picture:
    return picture_of(mesh, turn, tilt, width, height)


def _metal(theme: Theme, bright: float) -> QColor:
    """The colour of metal as bright as that."""
    dark, light = theme.ink("panel"), theme.ink("thin")
    if dark.lightnessF() > light.lightnessF():  # on paper lit faces are the lighter
        dark, light = light, theme.ink("ground")

    def mixed(a: int, b: int) -> int:
        return round(a + (b - a) * bright)

    return QColor(
        mixed(dark.red(), light.red()),
        mixed(dark.green(), light.green()),
        mixed(dark.blue(), light.blue()),
    )


def _paint_rough(
    painter: QPainter,
    mesh: Mesh,
    theme: Theme,
    turn: float,
    tilt: float,
    width: int,
    height: int,
) -> None:
    """Its faces from the furthest to the nearest, fast enough to turn."""
    painter.setPen(Qt.PenStyle.NoPen)
    colors = [_metal(theme, step / 31) for step in range(32)]
    points, bright = faces_of(mesh, turn, tilt, width, height)
    for corners, shade in zip(points.tolist(), bright.tolist(), strict=True):
        painter.setBrush(colors[int(shade * 31)])
        painter.drawConvexPolygon(QPolygonF([QPointF(x, y) for x, y in corners]))


def _image(picture: Picture, theme: Theme) -> QImage:
    """The picture in the theme's inks."""
    steps = np.array(
        [_metal(theme, step / 255).getRgb()[:3] for step in range(256)], dtype=np.uint8
    )
    pixels = steps[np.clip(picture.bright * 255, 0, 255).astype(np.uint8)]
    pixels[~picture.there] = theme.ink("panel").getRgb()[:3]
    pixels[picture.edges] = theme.ink("outline").getRgb()[:3]
    pixels = np.ascontiguousarray(pixels)
    height, width, _ = pixels.shape
    made = QImage(pixels.data, width, height, 3 * width, QImage.Format.Format_RGB888)
    return made.copy()  # the pixels are let go of
