"""A picture of a reckoning: the thing to scale, with its figures where they are.

Figures that can be changed stand in a frame and are tied to their input; what
is worked out stands in the ink of a measured size.
"""

from collections.abc import Mapping, Sequence, Set
from typing import Any

from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    ROUGH,
    Kind,
    in_both_texts,
    length_text,
    plain,
    text_of,
    trimmed,
)
from machinon.core.reckoning import FLAG, Reckoning
from machinon.draw.drawing import Anchor, Board, Point, Role, Shape, Spot
from machinon.draw.lettering import text_width
from machinon.draw.plane import Plane

CHIP = 2.9  # figure heights that a row of inputs along the foot takes


class Sketch(Plane):
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
        aside: Set[str] = frozenset(),
    ) -> None:
        """values: inputs in base units; typed: those that a person typed, as typed.

        aside: keys that get no place in the picture; inputs among them can stand
        along its foot.
        """
        super().__init__(Board(width, height, size))
        self.asked = asked
        self.values = values
        self.results = results
        self.typed = typed
        self.inch = inch
        self.aside = aside
        self._shown: set[str] = set()
        self._chips = self._chip_rows()

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
        return self.board.height - (len(self._chips) * CHIP + 0.6) * self.size

    def _is_found(self, key: str) -> bool:
        """Whether an input was left out, and worked out from the others."""
        value = self.results.get(key)
        told = value not in (None, "") and not isinstance(value, bool | list | dict)
        return told and self.values.get(key) is None

    # -- figures ---------------------------------------------------------

    def said(self, key: str) -> str:
        """An input as typed, else its value in the preferred unit, given or worked
        out."""
        kind = next(given.kind for given in self.asked.inputs if given.key == key)
        typed = self.typed.get(key, "")
        if typed:  # a bare force is newtons in every shop
            bare = kind in ROUGH and typed[-1].isdigit()
            return f"{typed} {kind.unit}" if bare else typed
        found = self._is_found(key)
        value = self.results.get(key) if found else self.values.get(key)
        if value is None:
            return "–"
        if isinstance(value, tuple):
            if len(value) != 1 or isinstance(value[0], dict):
                return f"{len(value)} given"
            (value,) = value
        return figure(value, kind, self.inch and (found or kind not in ROUGH))

    def ask(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """A figure that can be changed, in its frame, at a page point."""
        self._shown.add(key)
        if key not in self.aside:
            self._framed(key, at, name, anchor)

    def _framed(self, key: str, at: Point, name: str, anchor: Anchor) -> None:
        given = next(given for given in self.asked.inputs if given.key == key)
        label = name or given.words
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
        y = max(y, 1.9 * size)  # its name stands above it
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
        role: Role = "measured" if self._is_found(key) else "text"
        self.board.text((x, y), text, size, role, bold=True)
        self.board.spots.append(
            Spot((x - wide / 2, y - half, wide, 2 * half), key, given.meaning)
        )
        top = y - 1.75 * size
        self.board.figures.append(
            Spot((x - whole / 2, top, whole, y + half - top), key, given.meaning)
        )

    def tell(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """A result at a page point; nothing where it was not worked out."""
        value = self.results.get(key)
        if value is None or isinstance(value, list | dict) or value == "":
            return
        if key in self.aside:
            return
        kind = next(result.kind for result in self.asked.results if result.key == key)
        label = name or key.replace("_", " ")
        text = figure(value, kind, self.inch)
        x, y = at
        whole = max(text_width(text, self.size), text_width(label, 0.8 * self.size))
        if anchor == "left":
            x += whole / 2
        elif anchor == "right":
            x -= whole / 2
        x = min(max(x, whole / 2 + 2), self.board.width - whole / 2 - 2)
        y = max(y, 1.6 * self.size)
        self.board.text(
            (x, y - 1.05 * self.size), label, 0.8 * self.size, "faint", backed=True
        )
        self.board.text((x, y), text, self.size, "measured", bold=True, backed=True)
        top = y - 1.45 * self.size
        self.board.figures.append(
            Spot((x - whole / 2, top, whole, y + 0.6 * self.size - top), key, label)
        )

    def put(
        self, key: str, at: Point, name: str = "", anchor: Anchor = "centre"
    ) -> None:
        """An input or a result, whichever the key is; what is both can be changed."""
        if any(given.key == key for given in self.asked.inputs):
            self.ask(key, at, name, anchor)
        else:
            self.tell(key, at, name, anchor)

    def across(
        self, key: str, a: Point, b: Point, offset: float, name: str = ""
    ) -> None:
        """A dimension between two world points, `offset` figure heights aside.

        Level and upright ones only; positive is up or to the right.
        """
        if key in self.aside:
            self.put(key, a)
            return
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
        # a long one in smaller letters, not cut off
        letters = min(0.85 * self.size, self.board.width / text_width(text, 1.0))
        self.board.text(at, text, letters, "faint", anchor, backed=True)

    # -- what has no place in the picture ---------------------------------

    def needless(self, *keys: str) -> None:
        """Inputs that what is asked has no use for: they stand nowhere."""
        self._shown.update(keys)

    def left_over(self) -> set[str]:
        """The inputs that found no place in the picture."""
        return {given.key for given in self.asked.inputs} - self._shown

    def _chip_rows(self) -> list[list[str]]:
        """The inputs that stand along the foot, in rows."""
        rows: list[list[str]] = []
        used = 0.0
        for given in self.asked.inputs:
            if given.key not in self.aside:
                continue
            wide = self._chip_width(given.key)
            if not rows or used + wide > self.board.width - self.size:
                rows.append([])
                used = 0.0
            rows[-1].append(given.key)
            used += wide
        return rows

    def _chip_width(self, key: str) -> float:
        name = text_width(key, 0.8 * self.size)
        return max(text_width(self.said(key), self.size) + self.size, name) + self.size

    def along_the_foot(self) -> None:
        """The inputs that have no place in the picture."""
        y = self.floor + 1.9 * self.size
        for row in self._chips:
            x = self.size * 0.6
            for key in row:
                self._framed(key, (x, y), "", "left")
                x += self._chip_width(key)
            y += CHIP * self.size


def figure(value: Any, kind: Kind, inch: bool) -> str:
    """A value as it is read in a picture."""
    if kind is FLAG or isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, str):
        return value
    if kind is LENGTH:
        text = length_text(float(value), 0.0001 if abs(value) < 1 else 0.001, inch)
        number, unit = text.rsplit(" ", 1)
        return f"{trimmed(number)} {unit}"
    if kind is ANGLE:
        return trimmed(plain(float(value), 4)) + "°"
    if kind in ROUGH:
        return in_both_texts(float(value), kind, inch)[0]
    return text_of(float(value), kind, inch)
