"""The sheet of a piece in its own millimetres, for what carries true dimensions."""

from msgspec import Struct

from machinon.core.piece.made import Made
from machinon.core.piece.shadow import VIEWS
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import Board, Drawing, Place, Point
from machinon.draw.end_view import draw_end_view
from machinon.draw.half_section import draw_half_section
from machinon.draw.sheet_figures import (
    SheetFigure,
    edges_said,
    figures_of,
    places_of,
    title_said,
)
from machinon.draw.sheet_layout import SheetLayout


class MeasuredLine(Struct, frozen=True):
    """A dimension in the drawing's own millimetres: from a to b, its line at base."""

    a: Point
    b: Point
    base: Point
    angle: float  # 0 or 90
    text: str  # what is written, `<>` standing for the measured length


def sheet_in_mm(
    made: Made, first_angle: bool = False
) -> tuple[Drawing, list[MeasuredLine], list[tuple[Point, str, float]]]:
    """The views at 1:1 in mm with y up, their dimensions, and what is written.

    For formats that carry true dimensions.
    """
    board = Board(0.0, 0.0, 3.0)
    body = made.body
    places = places_of(made)
    figures = figures_of(made, False, places)
    lines: list[MeasuredLine] = []
    notes: list[tuple[Point, str, float]] = []
    sheet = SheetLayout(made, places, figures, board, frozenset())
    if body.turns:
        draw_half_section(board, body, lambda z, r: (z, r))
        half, (first, last) = body.largest / 2, body.ends
        x = first - half * 2.6 - 60 if first_angle else last + half * 2.6 + 60
        draw_end_view(board, body, (x, 0.0), 1.0)
        _turned_lines(sheet, lines, first, last, half)
        top = half + 20.0
    else:
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
        top = max(tall, over + wide) + 30.0
    written = [note.text for note in sheet.note_lines()]
    for text in (title_said(made), edges_said(made), *written, *_rest(sheet)):
        if text:
            notes.append(((0.0, top), text, 3.0))
            top += 5.0
    return board.done(), lines, notes


def _rest(sheet: SheetLayout) -> list[str]:
    return [
        f"{sheet.figures[key].name}: {sheet.figures[key].text}" for key in sheet.foot
    ]


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
    for key, dimension in sorted(sheet.drawn.items(), key=lambda item: item[1].at[0]):
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
        elif dimension.kind == "along":
            a, b = sorted((dimension.start, dimension.end))
            lines.append(MeasuredLine((a, -r), (b, -r), (a, under), 0, _said(figure)))
            under -= 7.0


def _block_lines(sheet: SheetLayout, lines: list[MeasuredLine], above: float) -> None:
    """above: how far up the view from above lies."""
    left, low = -10.0, min(above, 0.0) - 10.0
    for key, dimension in sheet.drawn.items():
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
