"""The sheet of a piece in its own millimetres, for what carries true dimensions."""

import math
from collections.abc import Mapping

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.piece.feature import Dimension
from machinon.core.piece.made import Made
from machinon.core.piece.shadow import VIEWS
from machinon.draw.block_sheet import BlockSheet
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import (
    Board,
    Circle,
    Drawing,
    Item,
    Line,
    Place,
    Point,
    Shape,
)
from machinon.draw.end_view import draw_end_view
from machinon.draw.half_section import draw_half_section
from machinon.draw.sheet_figures import (
    SheetFigure,
    edges_said,
    figures_of,
    on_the_sheet,
    places_of,
    title_said,
)
from machinon.draw.sheet_layout import SheetLayout
from machinon.draw.turned_sheet import TurnedSheet

ROW = 5.0  # mm from one line of words to the next
ASIDE = 4.0  # mm that words stand right of the place that they are led to


class MeasuredLine(Struct, frozen=True):
    """A dimension in the drawing's own millimetres: from a to b, its line at base."""

    a: Point
    b: Point
    base: Point
    angle: float  # 0 or 90
    text: str  # what is written, `<>` standing for the measured length


class WrittenNote(Struct, frozen=True):
    """What is written, from its lower left on, and the place that it is led to, if any:
    on an outline, or within one."""

    at: Point
    text: str
    led_to: Point | None = None
    inside: bool = False


def sheet_in_mm(
    made: Made, first_angle: bool = False
) -> tuple[Drawing, list[MeasuredLine], list[WrittenNote]]:
    """The views at 1:1 in mm with y up, their dimensions, and what is written.

    For formats that carry true dimensions.
    """
    board = Board(0.0, 0.0, 3.0)
    body = made.body
    places = places_of(made)
    figures = on_the_sheet(made, figures_of(made, False, places), places, paper=True)
    lines: list[MeasuredLine] = []
    of = TurnedSheet if body.turns else BlockSheet
    sheet = of(made, places, figures, board, frozenset(), first_angle)
    if isinstance(sheet, TurnedSheet):
        draw_half_section(board, body, lambda z, r: (z, r))
        half, (first, last) = body.largest / 2, body.ends
        x = first - half * 2.6 - 60 if first_angle else last + half * 2.6 + 60
        end = Board(0.0, 0.0, board.size)
        draw_end_view(end, body, (x, 0.0), 1.0)
        board.items += map(_turned_up, end.items)
        _turned_lines(sheet, lines, first, last, half)
        led = _led_in_section(sheet, (x, 0.0))
        top = half + 10.0
    else:
        assert isinstance(sheet, BlockSheet)
        box = body.shadow.box
        long, wide, tall = (box[i + 3] - box[i] for i in range(3))
        # room for the lines of dimensions beside and below
        over = -(wide + 30) if first_angle else tall + 30
        beside = -(wide + 90) if first_angle else long + 30
        views: dict[str, Place] = {
            "top": lambda x, y: (x, y + over),
            "front": lambda x, z: (x, z),
            "right": lambda y, z: (y + beside, z),
        }
        for view in VIEWS:
            draw_block_view(board, body, view, views[view])
        _block_lines(sheet, lines, over)
        led = _led_in_views(sheet, views)
        top = max(tall, over + wide) + 10.0
    notes = _stacked(led, top)
    said = [t for t in (title_said(made), edges_said(made), *_rest(sheet)) if t]
    top += (len(notes) + 1 + len(said)) * ROW
    notes += (WrittenNote((0.0, top - n * ROW), text) for n, text in enumerate(said))
    return board.done(), lines, notes


def _turned_up(item: Item) -> Item:
    """An item of a page, whose y goes down, with y up."""

    def up(at: Point) -> Point:
        return at[0], -at[1]

    match item:
        case Line():
            return replace(item, start=up(item.start), end=up(item.end))
        case Circle():
            return replace(item, centre=up(item.centre))
        case Shape():
            return replace(item, points=tuple(map(up, item.points)))
    return replace(item, at=up(item.at))


Led = tuple[str, Point, float | None]  # words, their place, and the rim about it


def _led_in_section(sheet: TurnedSheet, centre: Point) -> list[Led]:
    """The notes of what turns; centre: of its end view."""
    found = []
    for note in sheet.note_lines():
        # a page's y goes down
        (x, y), rim = sheet.led_to(note.feature, centre, 1.0, lambda z, r: (z, -r))
        found.append((note.text, (x, -y), rim))
    return found


def _led_in_views(sheet: BlockSheet, views: Mapping[str, Place]) -> list[Led]:
    """The notes of a block, each to the highest of its places."""
    found = []
    for note in sheet.note_lines():
        view, places, rim = sheet.seen_at(note.feature)
        at = max((views[view](*at) for at in places), key=lambda at: (at[1], at[0]))
        found.append((note.text, at, rim))
    return found


def _stacked(led: list[Led], low: float) -> list[WrittenNote]:
    """Notes over the views from a height up, each a little right of its place: the
    leftmost highest, so that no leader runs through another's words."""
    found = []
    for n, (text, (x, y), rim) in enumerate(sorted(led, key=lambda led: -led[1][0])):
        words = x + ASIDE, low + n * ROW
        apart = math.dist(words, (x, y))
        on = (rim or 0.0) / apart
        end = x + (words[0] - x) * on, y + (words[1] - y) * on
        found.append(WrittenNote(words, text, end, rim is None))
    return found


def _rest(sheet: SheetLayout) -> list[str]:
    return [
        f"{sheet.figures[key].name}: {sheet.figures[key].in_a_row}"
        for key in sheet.foot
    ]


def _long(dimension: Dimension) -> float:
    return abs(dimension.end - dimension.start)


def _said(figure: SheetFigure, sign: str = "") -> str:
    tail = f" ({figure.small})" if figure.small else ""
    return f"{sign}(<>)" if figure.aside else f"{sign}<>{tail}"


def _turned_lines(
    sheet: SheetLayout,
    lines: list[MeasuredLine],
    first: float,
    last: float,
    half: float,
) -> None:
    out = {-1: first - 10.0, 1: last + 10.0}
    under = -half - 10.0
    for key, dimension in sorted(sheet.drawn.items(), key=lambda it: it[1].at[0]):
        figure, r = sheet.figures[key], dimension.at[0]
        if dimension.kind == "diameter":
            side = (
                1 if (dimension.start + dimension.end) / 2 > (first + last) / 2 else -1
            )
            z = (
                max(dimension.start, dimension.end)
                if side > 0
                else min(dimension.start, dimension.end)
            )
            thread = key.endswith(".thread")
            text = _said(figure, "%%c")
            if thread:
                text = ", ".join(filter(None, (figure.text, figure.small)))
            lines.append(MeasuredLine((z, -r), (z, r), (out[side], 0.0), 90, text))
            out[side] += side * 9.0
    # the shortest length nearest, so that no line crosses another
    for key, dimension in sorted(sheet.drawn.items(), key=lambda it: _long(it[1])):
        if dimension.kind != "along":
            continue
        (a, b), r = sorted((dimension.start, dimension.end)), dimension.at[0]
        said = _said(sheet.figures[key])
        lines.append(MeasuredLine((a, -r), (b, -r), (a, under), 0, said))
        under -= 7.0


def _block_lines(sheet: SheetLayout, lines: list[MeasuredLine], above: float) -> None:
    """above: how far up the view from above lies."""
    left, low = -10.0, min(above, 0.0) - 10.0
    for key, dimension in sorted(sheet.drawn.items(), key=lambda it: _long(it[1])):
        text = _said(sheet.figures[key])
        if dimension.kind == "x":
            y = above + dimension.at[0]
            lines.append(
                MeasuredLine(
                    (dimension.start, y), (dimension.end, y), (0, low), 0, text
                )
            )
            low -= 7.0
        else:
            lift = above if dimension.kind == "y" else 0.0
            a, b = (
                (dimension.at[0], dimension.start + lift),
                (dimension.at[0], dimension.end + lift),
            )
            lines.append(MeasuredLine(a, b, (left, 0.0), 90, text))
            left -= 9.0
