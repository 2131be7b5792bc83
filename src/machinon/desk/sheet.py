"""Pages written as PDF, SVG and PNG; the drawing in its frame, the measuring sheet.

Always in the light theme; written beside its place and moved there whole.
"""

import html
import re
from collections.abc import Callable, Iterable, Sequence
from pathlib import Path
from typing import Literal

from PySide6.QtCore import QMarginsF, QPointF, QRectF, QSize, Qt
from PySide6.QtGui import (
    QFontMetricsF,
    QImage,
    QPageLayout,
    QPageSize,
    QPainter,
    QPdfWriter,
    QPen,
)
from PySide6.QtSvg import QSvgGenerator

from machinon.core.errors import MachinonError
from machinon.core.shop.things import Piece, Surface
from machinon.core.survey.surface_kinds import is_tapered
from machinon.core.survey.surface_sums import sum_of
from machinon.desk.painter import paint
from machinon.desk.theme import PRINT, font
from machinon.draw.drawing import Drawing
from machinon.draw.how_to_measure import measuring_drawing
from machinon.store.whole import written_whole

CAUTION = "Keep to the maker's limits of machine and holding, and to local rules."
DOUBT = "Uncertainties are 2 sigma, sizes at 20 °C. Machinon"
DPI = 144
# pages are laid out in units of 1/96 inch, as the screen is
A4_LEVEL = (1047.0, 718.0)
A4_UPRIGHT = (718.0, 1047.0)


def _written_whole(path: Path, write: Callable[[Path], bool]) -> None:
    def done(beside: Path) -> None:
        if not write(beside):
            raise MachinonError(
                f"{path} could not be written. Choose a folder that may be written to."
            )

    try:
        written_whole(path, done)
    except OSError as error:
        raise MachinonError(
            f"{path} could not be written: {error.strerror}."
        ) from error


def _pdf(
    path: Path,
    title: str,
    orientation: QPageLayout.Orientation,
    *pages: Callable[[QPainter], None],
) -> bool:
    writer = QPdfWriter(str(path))
    writer.setResolution(DPI)
    writer.setTitle(title)
    writer.setCreator("Machinon")
    writer.setPageLayout(
        QPageLayout(
            QPageSize(QPageSize.PageSizeId.A4),
            orientation,
            QMarginsF(10, 10, 10, 10),
            QPageLayout.Unit.Millimeter,
        )
    )
    painter = QPainter()
    if not painter.begin(writer):
        return False
    try:
        painter.scale(DPI / 96, DPI / 96)
        for number, page in enumerate(pages):
            if number:
                writer.newPage()
            page(painter)
    finally:
        ended = painter.end()
    return ended


def upright_pages(path: Path, title: str, *pages: Callable[[QPainter], None]) -> None:
    """Write upright pages as PDF, whole or not at all. Raises MachinonError."""
    upright = QPageLayout.Orientation.Portrait
    _written_whole(path, lambda beside: _pdf(beside, title, upright, *pages))


PaperKind = Literal["svg", "pdf", "png"]
SVG_DOTS = 96  # units of a level page to the inch
_WORDS = re.compile(
    r'(<text [^>]*font-size="([\d.]+)" font-weight="(\d+)"[^>]*?)\s*>([^<]*)<'
)


def _held_wide(words: re.Match[str]) -> str:
    """Words of an SVG with the width they are set in, where their type is missing."""
    start, size, weight, text = words.groups()
    metrics = QFontMetricsF(font(float(size), int(weight) > 500))
    wide = metrics.horizontalAdvance(html.unescape(text))
    held = f'textLength="{wide:.1f}" lengthAdjust="spacingAndGlyphs"'
    return f"{start} {held}>{text}<"


PNG_DOTS = 2.5  # of a picture to each of the page's, about 240 an inch


def level_page(
    path: Path, title: str, page: Callable[[QPainter], None], kind: PaperKind
) -> None:
    """Write one level page. Raises MachinonError if it cannot be."""

    def png(beside: Path) -> bool:
        picture = QImage(
            *(round(side * PNG_DOTS) for side in A4_LEVEL), QImage.Format.Format_RGB32
        )
        picture.fill(Qt.GlobalColor.white)
        painter = QPainter()
        painter.begin(picture)
        try:
            painter.scale(PNG_DOTS, PNG_DOTS)
            page(painter)
        finally:
            painter.end()
        return picture.save(str(beside), "PNG")

    def svg(beside: Path) -> bool:
        maker = QSvgGenerator()
        maker.setFileName(str(beside))
        maker.setTitle(title)
        maker.setSize(QSize(*(round(side) for side in A4_LEVEL)))
        maker.setViewBox(QRectF(0, 0, *A4_LEVEL))
        maker.setResolution(SVG_DOTS)
        painter = QPainter()
        if not painter.begin(maker):
            return False
        try:
            page(painter)
        finally:
            ended = painter.end()
        drawn = beside.read_text("utf-8")
        beside.write_text(_WORDS.sub(_held_wide, drawn), "utf-8")
        return ended

    def pdf(beside: Path) -> bool:
        return _pdf(beside, title, QPageLayout.Orientation.Landscape, page)

    _written_whole(path, {"svg": svg, "pdf": pdf, "png": png}[kind])


def drawing_on_page(
    painter: QPainter,
    drawn: Callable[[float, float], Drawing],
    cells: Sequence[tuple[str, str]],
    width: float = A4_LEVEL[0],
    height: float = A4_LEVEL[1],
) -> None:
    """A drawing in its frame, with a title block of two lines in each cell."""
    painter.setPen(QPen(PRINT.ink("outline"), 1.2))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(QRectF(0.6, 0.6, width - 1.2, height - 1.2))
    block = 58.0
    paint(painter, drawn(width - 20, height - block - 20), PRINT)
    top = height - block
    painter.setPen(QPen(PRINT.ink("outline"), 1.2))
    painter.drawLine(QPointF(0.6, top), QPointF(width - 0.6, top))
    wanted = [
        max(_wide(painter, first, 13, i == 0), _wide(painter, second, 11)) + 14
        for i, (first, second) in enumerate(cells)
    ]
    spare, x = (width - 20 - sum(wanted)) / len(cells), 14.0
    for i, (first, second) in enumerate(cells):
        room = wanted[i] + spare
        say(painter, x, top + 20, first, 13, bold=i == 0, room=room - 14)
        say(painter, x, top + 41, second, 11, room=room - 14)
        x += room


def _wide(painter: QPainter, text: str, size: float, bold: bool = False) -> float:
    painter.setFont(font(size, bold))
    return painter.fontMetrics().horizontalAdvance(text)


def put(painter: QPainter, drawing: Drawing, top: float, left: float = 0.0) -> None:
    """Put a drawing on the page, in the inks of paper."""
    painter.save()
    painter.translate(left, top)
    paint(painter, drawing, PRINT)
    painter.restore()


def say(
    painter: QPainter,
    x: float,
    y: float,
    text: str,
    size: float,
    ink: str = "text",
    bold: bool = False,
    room: float = 0.0,
) -> None:
    """A line of words from its left end on, cut short where it has not the room."""
    painter.setFont(font(size, bold))
    painter.setPen(QPen(PRINT.ink(ink)))  # type: ignore[arg-type]
    if room:
        text = painter.fontMetrics().elidedText(
            text, Qt.TextElideMode.ElideRight, round(room)
        )
    painter.drawText(QPointF(x, y), text)


BOXES = 4  # readings that a line of the measuring sheet has room for
ROW = 92.0  # page units from surface to surface


def write_measuring_sheet(title: str, pieces: Iterable[Piece], path: Path) -> None:
    """Writes the surfaces to be measured, each with its picture and boxes to write in.

    Raises MachinonError where there is nothing to measure or it cannot be written.
    """
    lines = [(piece, surface) for piece in pieces for surface in piece.surfaces]
    if not lines:
        raise MachinonError("There is nothing to measure yet: add a surface first.")
    height = A4_UPRIGHT[1]
    each = int((height - 110) // ROW)
    parts = [lines[i : i + each] for i in range(0, len(lines), each)]

    def page(number: int) -> Callable[[QPainter], None]:
        def draw(painter: QPainter) -> None:
            say(painter, 0, 26, f"{title}: to measure", 20, bold=True)
            say(
                painter,
                0,
                48,
                "Stop the spindle, wipe, take off burrs. Write the instrument and what "
                "it shows.",
                11,
                "faint",
            )
            for i, (piece, surface) in enumerate(parts[number]):
                _to_measure(painter, 66 + i * ROW, piece, surface)
            say(
                painter,
                0,
                height - 6,
                f"Page {number + 1} of {len(parts)}{' ' * 8}by{' ' * 28}on{' ' * 28}"
                "parts at          °C",
                11,
                "faint",
            )

        return draw

    upright_pages(
        path, f"{title}: to measure", *(page(number) for number in range(len(parts)))
    )


def _to_measure(painter: QPainter, top: float, piece: Piece, surface: Surface) -> None:
    width, _ = A4_UPRIGHT
    painter.setPen(QPen(PRINT.ink("thin"), 0.8))
    painter.drawLine(QPointF(0, top), QPointF(width, top))
    put(painter, measuring_drawing(surface, 190, ROW - 8, 9.0), top + 4)
    x = 200.0
    say(painter, x, top + 17, surface.name, 13, bold=True)
    say(painter, x + 220, top + 17, piece.name, 11, "faint")
    aids = sum_of(surface)
    blanks = [ask.meaning for ask in (aids.asks if aids else ())]
    painter.setFont(font(9.5))
    painter.setPen(QPen(PRINT.ink("faint")))
    painter.drawText(
        QRectF(x, top + 22, width - x, 26),
        int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap),
        surface.how + "".join(f"  {blank}: ______" for blank in blanks),
    )
    side = 84.0
    painter.setPen(QPen(PRINT.ink("outline"), 1.0))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    for i in range(BOXES):
        painter.drawRect(QRectF(x + i * (side + 8), top + 54, side, 28))
    if is_tapered(surface):  # a reading means nothing without its distance
        for i in range(BOXES):
            say(painter, x + i * (side + 8) + side / 2, top + 79, "at", 8, "faint")
    say(painter, x + BOXES * (side + 8) + 4, top + 66, "instrument", 9.5, "faint")
    end = x + BOXES * (side + 8)
    painter.drawLine(QPointF(end + 4, top + 82), QPointF(width, top + 82))
