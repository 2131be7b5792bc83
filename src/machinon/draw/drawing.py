"""A drawing as plain data, laid out on a page whose unit is one pixel or point.

Items name a role, never a colour; the painter's theme turns roles into ink.
`tie` joins an item to the surface, size or fit it stands for.
"""

import math
from collections import Counter
from collections.abc import Callable, Iterator, Sequence, Set
from dataclasses import dataclass, field
from typing import Literal

from msgspec import Struct

from machinon.draw.lettering import text_width

Point = tuple[float, float]
Role = Literal[
    "outline",
    "thin",
    "centre",
    "hidden",
    "hatch",
    "dimension",
    "text",
    "faint",
    "cut",
    "measured",
    "proved",
    "stop",
    "ground",
    "panel",
    "lit",
    "none",
]
Anchor = Literal["left", "centre", "right"]
Place = Callable[[float, float], Point]  # from a body's own millimetres to the page
EDGE = 1.8  # px: an outline
MarkKind = Literal["cut", "measured", "proved", "stop"]


class Line(Struct, frozen=True):
    """A straight line; width in page units."""

    start: Point
    end: Point
    role: Role = "outline"
    width: float = 1.6
    tie: str = ""


class Circle(Struct, frozen=True):
    """A circle, whole or open: three quarters of it, as a thread is drawn; ISO 6410."""

    centre: Point
    radius: float
    role: Role = "outline"
    width: float = 1.6
    fill: Role = "none"
    tie: str = ""
    open: bool = False
    beside: bool = False  # a figure that is backed


class Shape(Struct, frozen=True):
    """A closed polygon or an open chain; hatch leans "right", "left" or not."""

    points: tuple[Point, ...]
    role: Role = "outline"
    width: float = 1.6
    fill: Role = "none"
    hatch: Literal["", "right", "left"] = ""
    closed: bool = True
    tie: str = ""


class Text(Struct, frozen=True):
    """One line of text; `at` is its middle height, by its anchor."""

    at: Point
    text: str
    size: float
    role: Role = "text"
    anchor: Anchor = "centre"
    bold: bool = False
    backed: bool = False
    tie: str = ""
    beside: bool = False  # a figure that is backed


class Mark(Struct, frozen=True):
    """The sign of a state: its shape says it without colour."""

    at: Point
    kind: MarkKind
    size: float


class Spot(Struct, frozen=True):
    """A place that can be clicked: x, y, width, height, and what it is."""

    rect: tuple[float, float, float, float]
    tie: str
    label: str

    def holds(self, x: float, y: float) -> bool:
        left, top, width, height = self.rect
        return left <= x <= left + width and top <= y <= top + height

    def meets(self, other: "Spot", by: float = 0.0) -> bool:
        """Whether another lies on it by more than so much both ways, px."""
        (x, y, w, h), (left, top, wide, high) = self.rect, other.rect
        return (
            min(x + w, left + wide) - max(x, left) > by
            and min(y + h, top + high) - max(y, top) > by
        )

    def crossed(self, a: Point, b: Point, rim: float) -> bool:
        """Whether a line from a to b runs through it, a rim left out; px."""
        start, end = 0.0, 1.0  # of the line, what lies within so far
        for here, there, low, long in zip(
            a, b, self.rect[:2], self.rect[2:], strict=True
        ):
            low, high, way = low + rim, low + long - rim, there - here
            if way:
                at = sorted(((low - here) / way, (high - here) / way))
                start, end = max(start, at[0]), min(end, at[1])
            elif not low < here < high:
                return False
        return start < end


OPEN = 80.0, 350.0  # degrees from the right, up and round: what an open circle has
SMALL = 0.74  # of a figure's height: the name or other unit beside it
NEAR = 4.0  # px that a spot reaches beyond its figure
SHARES = (1.0, 0.85, 0.7, 0.6)  # of a figure's height, tried until none is crowded
Item = Line | Circle | Shape | Text | Mark


class Drawing(Struct, frozen=True):
    """A finished drawing: size of the page, items back to front, spots."""

    width: float
    height: float
    items: tuple[Item, ...]
    spots: tuple[Spot, ...] = ()
    # where each figure stands with its name, and what it is tied to
    figures: tuple[Spot, ...] = ()

    def spot(self, tie: str) -> Spot | None:
        return next((spot for spot in self.spots if spot.tie == tie), None)

    @property
    def crowded(self) -> bool:
        """Whether two figures lie on each other, or one is cut."""
        return next(self.troubles(), None) is not None

    def troubles(self) -> Iterator[tuple[str, ...]]:
        """Ties of the figures that are cut, and of each two that lie on each other."""
        return _troubles(self)


def _troubles(page: "Drawing | Board") -> Iterator[tuple[str, ...]]:
    for at, spot in enumerate(page.figures):
        x, y, w, h = spot.rect
        if x < -NEAR or x + w > page.width + NEAR or y + h > page.height + NEAR:
            yield (spot.tie,)
        for other in page.figures[at + 1 :]:
            if spot.meets(other, NEAR):
                yield spot.tie, other.tie


def uncrowded(
    lay_out: Callable[[float, Set[str]], "tuple[Board, bool]"],
    aside: Set[str] | None = None,
    spare: Set[str] = frozenset(),
) -> Drawing:
    """The drawing with the largest figures that do not lie on each other.

    lay_out: begins it with figures of a share of their height, those of some ties
    set aside of where they belong, and says whether it is well but for that.
    aside: what is so from the start; None where nothing can be. spare: what is so
    before all are much smaller.
    """
    tries = [(share, aside or frozenset()) for share in SHARES]
    if spare:
        tries[2:] = [(share, spare) for share in SHARES]
    for share, start in tries:
        moved = set(start)
        board, well = lay_out(share, moved)
        if aside is None and well and not board.crowded:
            break
        while well and aside is not None:
            met = Counter(
                tie
                for trouble in _troubles(board)
                for tie in trouble
                if tie not in moved
            )
            if not met:
                return board.done()
            moved.add(met.most_common(1)[0][0])
            board, well = lay_out(share, moved)
    return board.done()


def _layer(item: Item) -> int:
    """Lines, then what is backed, then the signs beside that."""
    match item:
        case Mark() | Circle(beside=True) | Text(beside=True):
            return 2
        case Text(backed=True):
            return 1
    return 0


@dataclass(slots=True)
class Board:
    """Collects items while a drawing is laid out."""

    width: float
    height: float
    size: float = 13.0
    items: list[Item] = field(default_factory=list)
    spots: list[Spot] = field(default_factory=list)
    figures: list[Spot] = field(default_factory=list)
    # what has no figures, by the item that it comes before
    put_off: list[tuple[int, Callable[[], None]]] = field(default_factory=list)

    @property
    def crowded(self) -> bool:
        """Whether two figures lie on each other so far, or one is cut."""
        return next(_troubles(self), None) is not None

    def later(self, draw: Callable[[], None]) -> None:
        """Draw here, once the whole is done, what has no figures of its own: a trial
        that is crowded does without."""
        self.put_off.append((len(self.items), draw))

    def done(self) -> Drawing:
        for at, draw in reversed(self.put_off):
            after, self.items = self.items[at:], self.items[:at]
            draw()
            self.items += after
        self.put_off.clear()
        # what is backed comes late, so that no later line runs through a figure
        return Drawing(
            self.width,
            self.height,
            tuple(sorted(self.items, key=_layer)),
            tuple(self.spots),
            tuple(self.figures),
        )

    def once(self, begun: int) -> None:
        """Drops items that repeat others, from item `begun` on."""
        self.items[begun:] = dict.fromkeys(self.items[begun:])

    def choose(
        self, rect: tuple[float, float, float, float], tie: str, name: str
    ) -> None:
        """A figure in its place, which can be chosen there."""
        self.spots.append(Spot(rect, tie, name))
        self.figures.append(self.spots[-1])

    def line(
        self, a: Point, b: Point, role: Role = "outline", width: float = 1.6
    ) -> None:
        self.items.append(Line(a, b, role, width))

    def text(
        self,
        at: Point,
        text: str,
        size: float = 0.0,
        role: Role = "text",
        anchor: Anchor = "centre",
        bold: bool = False,
        backed: bool = False,
    ) -> None:
        self.items.append(Text(at, text, size or self.size, role, anchor, bold, backed))

    def arrow(self, tip: Point, towards: Point, role: Role = "dimension") -> None:
        """A slim filled arrowhead at `tip`, its body towards `towards`."""
        angle = math.atan2(towards[1] - tip[1], towards[0] - tip[0])
        long, half = 0.75 * self.size, 0.13

        def corner(side: float) -> Point:
            return (
                tip[0] + long * math.cos(angle + side),
                tip[1] + long * math.sin(angle + side),
            )

        self.items.append(Shape((tip, corner(half), corner(-half)), role, 0.5, role))

    def leader(self, at: Point, words: Point, rim: float | None = 0.0) -> None:
        """A leader from words to a place on an outline, with an arrow; ISO 128-2.

        rim: radius of the circle about the place that it ends on, px; None where the
        place lies within an outline, and it ends with a dot.
        """
        apart = math.dist(at, words)
        if rim and apart > rim:
            on = rim / apart
            (x, y), (to_x, to_y) = at, words
            at = x + (to_x - x) * on, y + (to_y - y) * on
        self.line(at, words, "dimension", 0.8)
        if rim is None:
            dot = Circle(at, 0.14 * self.size, "dimension", 0.5, "dimension")
            self.items.append(dot)
        else:
            self.arrow(at, words)

    def label(
        self,
        at: Point,
        text: str,
        small: str,
        role: Role,
        tie: str,
        name: str,
        number: int = 0,
        mark: MarkKind | None = None,
        beside: bool = False,
        flush: bool = False,
    ) -> None:
        """A figure with the other unit small beneath or beside it; can be clicked.

        flush: it begins at its left, whatever its letters are.
        """
        size = self.size
        width = text_width(text, size)
        height = size * 1.3 + (size * 0.95 if small and not beside else 0)
        x, y = at
        shift = size * 1.5 if number else 0.0
        left = x + shift / 2 - width / 2
        if number or flush:  # a circle stands close before it, however wide it is
            self.text((left, y), text, role=role, anchor="left", backed=True)
        else:
            self.text((x, y), text, role=role, backed=True)
        marked = size * 1.2 if mark else 0.0
        if small and beside:
            self.text(
                (left + width + marked + size * 0.5, y),
                small,
                size * SMALL,
                "faint",
                "left",
                backed=True,
            )
        elif small:
            self.text(
                (x + shift / 2, y + size * 1.05),
                small,
                size * SMALL,
                "faint",
                backed=True,
            )
        if number:
            self.numbered((left - size * 0.75, y), number, role)
        if mark:
            self.items.append(Mark((left + width + size * 0.7, y), mark, size * 0.8))
        whole, start = width + shift, left - shift
        if small:
            long = text_width(small, size * SMALL)
            if beside:
                whole += marked + size * 0.5 + long
            elif long > whole:
                start, whole = x + shift / 2 - long / 2, long
        self.choose((start - 4, y - size * 0.8, whole + 8, height + 4), tie, name)

    def along_the_foot(
        self, figures: Sequence[tuple[str, str, Role, str]], abreast: int, row: float
    ) -> None:
        """Figures in rows at the foot: text, name, role and tie of each.

        abreast: in a row; row: its height, in figure heights.
        """
        rows = [figures[i : i + abreast] for i in range(0, len(figures), abreast)]
        y = self.height + (0.8 - row * len(rows)) * self.size
        for part in rows:
            for i, (text, name, role, tie) in enumerate(part):
                x = self.width * (i + 0.5) / len(part)
                self.label((x, y), text, name, role, tie, name)
            y += row * self.size

    def numbered(self, at: Point, number: int, role: Role = "text") -> None:
        """A fit's number in a circle."""
        size = self.size
        self.items.append(Circle(at, size * 0.62, role, 1.1, "ground", beside=True))
        self.items.append(
            Text(at, str(number), size * 0.78, role, bold=True, beside=True)
        )

    def upright(
        self,
        x: float,
        top: float,
        bottom: float,
        from_x: float,
        text: str,
        small: str,
        role: Role,
        tie: str,
        name: str,
        number: int = 0,
        mark: MarkKind | None = None,
        at: float = 0.5,
    ) -> None:
        """A vertical dimension with extension lines from `from_x`; ISO 129-1.

        at: where its figure stands, as a part of the line; beyond its ends the line is
        led on to it.
        """
        past = 5 if x > from_x else -5
        for y in (top, bottom):
            self.line((from_x, y), (x + past, y), "dimension", 0.8)
        # where it is narrow its arrows come from outside
        out = 1.3 * self.size if bottom - top < 2.9 * self.size else 0.0
        self.line((x, top - out), (x, bottom + out), "dimension", 0.8)
        self.arrow((x, top), (x, top - out if out else bottom))
        self.arrow((x, bottom), (x, bottom + out if out else top))
        y = top + (bottom - top) * at
        for end, away in ((top, -1), (bottom, 1)):
            if (y - end) * away > self.size:
                self.line((x, end), (x, y - 0.9 * away * self.size), "dimension", 0.8)
        self.label((x, y), text, small, role, tie, name, number, mark)

    def level(
        self,
        y: float,
        left: float,
        right: float,
        from_y: float,
        text: str,
        small: str,
        role: Role,
        tie: str,
        name: str,
        number: int = 0,
        mark: MarkKind | None = None,
        before: bool = False,
        shift: float = 0.0,
    ) -> None:
        """A horizontal dimension; its figure goes beside it where it is narrow, to the
        right or, before, to the left; else that far right of its middle."""
        past = 5 if y > from_y else -5
        for x in (left, right):
            self.line((x, from_y), (x, y + past), "dimension", 0.8)
        room = right - left
        aside = text_width(small, self.size * SMALL) + 0.5 * self.size if small else 0.0
        lead = 1.5 * self.size if number else 0.0
        aside += lead + (1.2 * self.size if mark else 0.0)
        if room >= text_width(text, self.size) + aside + 2.5 * self.size:
            self.line((left, y), (right, y), "dimension", 0.8)
            self.arrow((left, y), (right, y))
            self.arrow((right, y), (left, y))
            middle = (left + right - aside + lead) / 2 + shift
            self.label(
                (middle, y), text, small, role, tie, name, number, mark, beside=True
            )
            return
        out = 1.3 * self.size
        self.line((left - out, y), (right + out, y), "dimension", 0.8)
        self.arrow((left, y), (left - out, y))
        self.arrow((right, y), (right + out, y))
        wide = text_width(text, self.size)
        start = right + out + 4
        at_left = left - out - 4 - wide - aside
        if start + wide + aside > self.width or (before and at_left > 0):
            start = at_left
        self.label(
            (start + (lead + wide) / 2, y),
            text,
            small,
            role,
            tie,
            name,
            number,
            mark,
            beside=True,
        )
