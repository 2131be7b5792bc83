"""A picture of a reckoning: the thing to scale, with its figures where they are.

Figures that can be changed stand in a frame and are tied to their input; what
is worked out stands in the ink of a measured size.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from machinon.core.quantity import ANGLE, LENGTH, Kind, length_text, text_of
from machinon.core.reckoning import FLAG, Reckoning
from machinon.draw.drawing import (
    Anchor,
    Board,
    Circle,
    Drawing,
    Line,
    Point,
    Role,
    Shape,
    Spot,
    text_width,
)


class Sketch:
    """Collects a reckoning's picture; world sizes are mm or as `frame` says."""

    def __init__(
        self,
        asked: Reckoning,
        values: Mapping[str, Any],
        results: Mapping[str, Any],
        typed: Mapping[str, str],
        width: float,
        height: float,
        size: float = 14.0,
        inch: bool = False,
    ) -> None:
        """values: inputs in base units; typed: those that a person typed, as typed."""
        self.board = Board(width, height, size)
        self.asked = asked
        self.values = values
        self.results = results
        self.typed = typed
        self.inch = inch
        self.size = size
        self._shown: set[str] = set()
        self._told: set[str] = set()
        self._chips = self._chip_rows()
        self._scale = 1.0
        self._at: Point = (0.0, 0.0)

    # -- values ----------------------------------------------------------

    def v(self, key: str, default: float = 0.0) -> float:
        """An input as a number, or the default where there is none."""
        value = self.values.get(key)
        return float(value) if isinstance(value, int | float) else default

    def r(self, key: str, default: float = 0.0) -> float:
        """A result as a number, or the default."""
        value = self.results.get(key)
        return float(value) if isinstance(value, int | float) else default

    def has(self, key: str) -> bool:
        return self.values.get(key) is not None or self.results.get(key) is not None

    # -- the page --------------------------------------------------------

    @property
    def floor(self) -> float:
        """Lowest page line of the picture: the chips stand below it."""
        return self.board.height - (len(self._chips) * 2.3 + 0.6) * self.size

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
        room_x = max(self.board.width - 2 * across, 40)
        room_y = max(self.floor - 2 * up, 40)
        wide, tall = max(right - left, 1e-9), max(high - low, 1e-9)
        self._scale = min(room_x / wide, room_y / tall)
        self._at = (
            self.board.width / 2 - (left + right) / 2 * self._scale,
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

    # -- figures ---------------------------------------------------------

    def said(self, key: str) -> str:
        """An input as typed, else its value in the preferred unit."""
        if self.typed.get(key):
            return self.typed[key]
        value = self.values.get(key)
        kind = next(one.kind for one in self.asked.inputs if one.key == key)
        if value is None:
            return "–"
        if isinstance(value, tuple):
            return f"{len(value)} given"
        return figure(value, kind, self.inch)

    def ask(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """A figure that can be changed, in its frame, at a page point."""
        one = next(given for given in self.asked.inputs if given.key == key)
        label = name or one.key.replace("_", " ")
        text = self.said(key)
        size = self.size
        wide = text_width(text, size) + size
        name_wide = text_width(label, 0.8 * size)
        x, y = at
        whole = max(wide, name_wide)
        if anchor == "left":
            x += whole / 2
        elif anchor == "right":
            x -= whole / 2
        x = min(max(x, whole / 2 + 2), self.board.width - whole / 2 - 2)
        self.board.text((x, y - 1.4 * size), label, 0.8 * size, "faint", backed=True)
        half = 0.78 * size
        self.board.items.append(
            Shape(
                (
                    (x - wide / 2, y - half),
                    (x + wide / 2, y - half),
                    (x + wide / 2, y + half),
                    (x - wide / 2, y + half),
                ),
                "cut",
                1.4,
                "ground",
            )
        )
        self.board.text((x, y), text, size, "text", bold=True)
        self.board.spots.append(
            Spot((x - wide / 2, y - half, wide, 2 * half), key, one.meaning)
        )
        self._shown.add(key)

    def tell(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """A result at a page point; nothing where it was not worked out."""
        value = self.results.get(key)
        if value is None or isinstance(value, list | dict) or value == "":
            return
        kind = next(one.kind for one in self.asked.results if one.key == key)
        label = name or key.replace("_", " ")
        text = figure(value, kind, self.inch)
        x, y = at
        whole = max(text_width(text, self.size), text_width(label, 0.8 * self.size))
        if anchor == "left":
            x += whole / 2
        elif anchor == "right":
            x -= whole / 2
        x = min(max(x, whole / 2 + 2), self.board.width - whole / 2 - 2)
        self.board.text(
            (x, y - 1.05 * self.size), label, 0.8 * self.size, "faint", backed=True
        )
        self.board.text((x, y), text, self.size, "measured", bold=True, backed=True)
        self._told.add(key)

    def put(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """An input or a result, whichever the key is."""
        if key in self.results and self.values.get(key) is None:
            self.tell(key, at, name, anchor)
        elif any(one.key == key for one in self.asked.inputs):
            self.ask(key, at, name, anchor)
        else:
            self.tell(key, at, name, anchor)

    def across(
        self, key: str, a: Point, b: Point, offset: float, name: str = ""
    ) -> None:
        """A dimension between two world points, `offset` figure heights aside.

        Level and upright ones only; positive is up or to the right.
        """
        ax, ay = self.p(*a)
        bx, by = self.p(*b)
        off = offset * self.size
        if abs(ay - by) <= abs(ax - bx):
            y = (min(ay, by) if off > 0 else max(ay, by)) - off
            ends: Sequence[Point] = ((ax, y), (bx, y))
            past = -5 if off > 0 else 5
            for (x, _), from_y in zip(ends, (ay, by), strict=True):
                self.board.line((x, from_y), (x, y + past), "dimension", 0.8)
        else:
            x = (max(ax, bx) if off > 0 else min(ax, bx)) + off
            ends = ((x, ay), (x, by))
            past = 5 if off > 0 else -5
            for (_, y), from_x in zip(ends, (ax, bx), strict=True):
                self.board.line((from_x, y), (x + past, y), "dimension", 0.8)
        self.board.line(ends[0], ends[1], "dimension", 0.9)
        self.board.arrow(ends[0], ends[1])
        self.board.arrow(ends[1], ends[0])
        middle = ((ends[0][0] + ends[1][0]) / 2, (ends[0][1] + ends[1][1]) / 2)
        self.put(key, middle, name)

    def note(self, text: str, at: Point, anchor: Anchor = "centre") -> None:
        self.board.text(at, text, 0.85 * self.size, "faint", anchor, backed=True)

    # -- what has no place in the picture ---------------------------------

    def _chip_rows(self) -> list[list[str]]:
        """Inputs in rows as they may stand below; those drawn are left out later."""
        rows: list[list[str]] = [[]]
        used = 0.0
        for one in self.asked.inputs:
            wide = self._chip_width(one.key)
            if rows[-1] and used + wide > self.board.width - self.size:
                rows.append([])
                used = 0.0
            rows[-1].append(one.key)
            used += wide
        # most are drawn in the picture: room for what usually remains
        return rows[: max(1, (len(rows) + 1) // 2)]

    def _chip_width(self, key: str) -> float:
        name = text_width(key, 0.8 * self.size)
        return max(text_width(self.said(key), self.size) + self.size, name) + self.size

    def finish(self) -> Drawing:
        """The drawing, with the inputs that have no place in it along the foot."""
        rest = [one.key for one in self.asked.inputs if one.key not in self._shown]
        x, y = self.size * 0.6, self.floor + 1.9 * self.size
        for key in rest:
            wide = self._chip_width(key)
            if x + wide > self.board.width and x > self.size:
                x, y = self.size * 0.6, y + 2.3 * self.size
            self.ask(key, (x, y), anchor="left")
            x += wide
        return self.board.done()


def figure(value: Any, kind: Kind, inch: bool) -> str:
    """A value as it is read in a picture."""
    if kind is FLAG or isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    if kind is LENGTH:
        text = length_text(float(value), 0.0001 if abs(value) < 1 else 0.001, inch)
        number, unit = text.rsplit(" ", 1)
        if "." in number:
            number = number.rstrip("0").rstrip(".")
        return f"{number} {unit}"
    if kind is ANGLE:
        return f"{float(value):.4f}".rstrip("0").rstrip(".").replace("-", "−") + "°"
    return text_of(float(value), kind)
