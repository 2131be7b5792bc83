"""Pages made of parts from the top down, each of which stays in one piece."""

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import NamedTuple

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QFontMetricsF, QPainter, QPen

from machinon.desk.sheet import A4_UPRIGHT, put, say, upright_pages
from machinon.desk.theme import PRINT, Role, font
from machinon.draw.drawing import Drawing

HEAD, FOOT, FOOT_LINE = 62.0, 26.0, 17.0  # page units of its head and its foot
WRAPS = int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)


class Part(NamedTuple):
    """A part of a page."""

    tall: float
    paint: Callable[[QPainter, float], None]  # from a height down
    leads: bool = False  # never the last on its page


def words(
    text: str,
    size: float,
    ink: Role = "text",
    bold: bool = False,
    leads: bool = False,
    x: float = 0.0,
    room: float = 0.0,
) -> Part:
    """Words that break where the page ends, or after `room`."""
    wide = room or A4_UPRIGHT[0] - x
    letters = font(size, bold)
    tall = QFontMetricsF(letters).boundingRect(QRectF(0, 0, wide, 1e4), WRAPS, text)

    def draw(painter: QPainter, top: float) -> None:
        painter.setFont(letters)
        painter.setPen(QPen(PRINT.ink(ink)))
        painter.drawText(QRectF(x, top, wide, tall.height() + 2), WRAPS, text)

    return Part(tall.height() + 2, draw, leads)


def drawn(drawing: Drawing, x: float = 0.0, below: float = 8.0) -> Part:
    """A drawing, with some room below it."""
    return Part(
        drawing.height + below, lambda painter, top: put(painter, drawing, top, x)
    )


def gap(tall: float, leads: bool = False) -> Part:
    return Part(tall, lambda painter, top: None, leads)


def rule(width: float = 0.8, below: float = 4.0, leads: bool = True) -> Part:
    """A line across the page."""

    def draw(painter: QPainter, top: float) -> None:
        painter.setPen(QPen(PRINT.ink("outline"), width))
        painter.drawLine(QPointF(0, top), QPointF(A4_UPRIGHT[0], top))

    return Part(below, draw, leads)


def column(parts: Sequence[Part]) -> Part:
    """Parts under each other as one."""

    def draw(painter: QPainter, top: float) -> None:
        for part in parts:
            part.paint(painter, top)
            top += part.tall

    return Part(sum(part.tall for part in parts), draw)


def abreast(*parts: Part) -> Part:
    """Parts that begin at one height, as one."""

    def draw(painter: QPainter, top: float) -> None:
        for part in parts:
            part.paint(painter, top)

    return Part(max(part.tall for part in parts), draw)


def on_pages(parts: Sequence[Part], room: float) -> list[list[Part]]:
    """Parts on pages of so much room; what leads goes with what it leads to."""
    pages: list[list[Part]] = [[]]
    left, parts = room, list(parts)
    while parts:
        first = next((n for n, part in enumerate(parts) if not part.leads), 0)
        together, parts = parts[: first + 1], parts[first + 1 :]
        tall = sum(part.tall for part in together)
        if tall > left and pages[-1]:
            pages.append([])
            left = room
        pages[-1] += together
        left -= tall
    return pages


def write_parts(
    path: Path, title: str, says: str, foot: Sequence[str], parts: Sequence[Part]
) -> None:
    """Write parts as PDF under their title, as many pages as they take; foot: the
    lines at the end of each. Raises MachinonError where it cannot be written."""
    lines = FOOT_LINE * (len(foot) - 1)
    pages = on_pages(parts, A4_UPRIGHT[1] - HEAD - FOOT - lines)
    wide, tall = A4_UPRIGHT

    def page(number: int) -> Callable[[QPainter], None]:
        def draw(painter: QPainter) -> None:
            say(painter, 0, 26, title, 20, bold=True, room=wide)
            say(painter, 0, 48, says, 11, "faint", room=wide)
            column(pages[number]).paint(painter, HEAD)
            *others, last = foot
            for n, line in enumerate(others):
                say(painter, 0, tall - 5 - lines + n * FOOT_LINE, line, 10, "faint")
            numbered = f"Page {number + 1} of {len(pages)}    {last}"
            last = numbered if len(pages) > 1 else last
            say(painter, 0, tall - 5, last, 10, "faint")

        return draw

    upright_pages(path, title, *(page(number) for number in range(len(pages))))
