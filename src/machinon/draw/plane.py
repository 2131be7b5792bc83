"""A plane of the world on a page: figures of the trade drawn to scale."""

import math
from collections.abc import Iterable

from machinon.draw.drawing import Board, Circle, Line, Point, Role, Shape

LEAST = 0.4  # of the room, which the world gets however large the figures


class Plane:
    """Lines and shapes in mm, laid on a board; `frame` says what has to fit.

    left, width: the part of the page it may use, the whole of it if not said.
    """

    def __init__(
        self, board: Board, left: float = 0.0, width: float | None = None
    ) -> None:
        self.board = board
        self.left = left
        self.width = board.width if width is None else width
        self.size = board.size
        self._scale = 1.0
        self._at: Point = (0.0, 0.0)

    @property
    def floor(self) -> float:
        """Lowest page line that the picture may use."""
        return self.board.height

    def frame(
        self,
        left: float,
        low: float,
        right: float,
        high: float,
        margin: tuple[float, float] = (9.0, 3.6),
    ) -> None:
        """Fit a piece of the world onto the page; margin: in figure heights."""
        across, up = margin[0] * self.size, margin[1] * self.size
        room_x = max(self.width - 2 * across, LEAST * self.width)
        room_y = max(self.floor - 2 * up, LEAST * self.floor)
        wide, tall = max(right - left, 1e-9), max(high - low, 1e-9)
        self._scale = min(room_x / wide, room_y / tall)
        self._at = (
            self.left + self.width / 2 - (left + right) / 2 * self._scale,
            self.floor / 2 + (low + high) / 2 * self._scale,
        )

    def p(self, x: float, y: float) -> Point:
        """A world point on the page; up is up."""
        return self._at[0] + x * self._scale, self._at[1] - y * self._scale

    def length(self, size: float) -> float:
        return size * self._scale

    # -- lines -----------------------------------------------------------

    def line(
        self, a: Point, b: Point, role: Role = "outline", width: float = 1.8
    ) -> None:
        self.board.items.append(Line(self.p(*a), self.p(*b), role, width))

    def shape(
        self,
        points: Iterable[Point],
        hatch: bool = False,
        role: Role = "outline",
        fill: Role = "panel",
        closed: bool = True,
        width: float = 1.8,
    ) -> None:
        self.board.items.append(
            Shape(
                tuple(self.p(*point) for point in points),
                role,
                width,
                fill if closed else "none",
                "right" if hatch else "",
                closed,
            )
        )

    def box(
        self,
        left: float,
        low: float,
        right: float,
        high: float,
        hatch: bool = False,
        role: Role = "outline",
        fill: Role = "panel",
    ) -> None:
        self.shape(
            ((left, low), (right, low), (right, high), (left, high)), hatch, role, fill
        )

    def circle(
        self,
        x: float,
        y: float,
        radius: float,
        role: Role = "outline",
        fill: Role = "none",
        width: float = 1.8,
    ) -> None:
        self.board.items.append(
            Circle(self.p(x, y), self.length(radius), role, width, fill)
        )

    def arc(
        self,
        x: float,
        y: float,
        radius: float,
        start: float,
        end: float,
        role: Role = "outline",
        width: float = 1.8,
    ) -> None:
        """Part of a circle, degrees counter-clockwise."""
        steps = max(int(abs(end - start) / 4), 2)
        points = [
            (
                x + radius * math.cos(math.radians(start + (end - start) * i / steps)),
                y + radius * math.sin(math.radians(start + (end - start) * i / steps)),
            )
            for i in range(steps + 1)
        ]
        self.shape(points, role=role, closed=False, width=width)

    def cross(self, x: float, y: float, reach: float) -> None:
        """Centre lines."""
        self.line((x - reach, y), (x + reach, y), "centre", 1.0)
        self.line((x, y - reach), (x, y + reach), "centre", 1.0)
