"""Paper: the one-page proof sheet as PDF, the drawing as SVG and PDF.

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
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.fit_sheet import FitLine, fit_lines, fit_readings
from machinon.core.job.plan import Plan
from machinon.core.job.true_running import stations
from machinon.core.quantity import length_text, small_text
from machinon.core.reckoning import Answer, reckonings
from machinon.core.setting_out.runout import resolve
from machinon.core.shop.things import Piece, Surface
from machinon.core.survey.surface_kinds import is_tapered
from machinon.core.survey.surface_sums import sum_of
from machinon.core.threads.thread_limits import with_class
from machinon.desk.painter import paint, paint_mark
from machinon.desk.theme import PRINT, font
from machinon.draw.charts import rose_drawing
from machinon.draw.drawing import Drawing, Mark
from machinon.draw.gauge_drawing import gauge_drawing
from machinon.draw.how_to_measure import measuring_drawing
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.proof_drawing import VERDICTS, band_drawing
from machinon.draw.sketch import figure
from machinon.draw.stack_drawing import stack_drawing
from machinon.store.lists import export_fits
from machinon.store.whole import written_whole

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


def write_sheet(plan: Plan, path: Path) -> None:
    """The proof on one page. Raises MachinonError where there is nothing to prove or it
    cannot be written."""
    if not plan.verdict_says:
        raise MachinonError("There is nothing to prove yet: finish Survey and Fits.")
    title = f"{plan.job.name}: proof"
    upright_pages(path, title, lambda painter: _sheet_page(painter, plan, *A4_UPRIGHT))


def write_answer(
    answer: Answer,
    picture: Callable[[float, float, float], Drawing],
    path: Path,
    inch: bool,
) -> None:
    """A reckoning on one page: its picture, results, working and source.

    Raises MachinonError as `write_drawing`.
    """

    def page(painter: QPainter) -> None:
        width, _ = A4_UPRIGHT
        say(painter, 0, 26, answer.title, 22, bold=True)
        put(painter, picture(width, 430, 12), 40)
        y = 500.0
        kinds = {
            result.key: result.kind for result in reckonings()[answer.reckoner].results
        }
        for key, value in answer.results.items():
            if isinstance(value, list | dict) or value in ("", None):
                continue
            say(painter, 0, y, key.replace("_", " "), 12, "faint")
            say(painter, 190, y, figure(value, kinds[key], inch), 12, bold=True)
            y += 18
        y += 14
        for step in answer.working:
            value = figure(step.value, step.kind, inch)
            line = f"{step.what}: {step.expression} = {value}"
            say(painter, 0, y, line[:100], 11)
            y += 17
        for text in (*answer.cautions, *answer.notes, *answer.sources):
            say(painter, 0, y + 8, text[:110], 10.5, "faint")
            y += 16

    upright_pages(path, answer.title, page)


FIT_ROW = 212.0  # page units from fit to fit
SET_UP = 102.0  # that the stack takes over them


def write_fit_sheet(plan: Plan, path: Path) -> None:
    """The set-up of a job, and every fit in it: mate, readings, what is wanted, the
    band and its gauge.

    The file's ending chooses .pdf or .csv. Raises MachinonError where there is no
    fit yet or it cannot be written.
    """
    if not plan.fits:
        raise MachinonError("There is no fit yet: add one in Fits first.")
    if path.suffix.lower() == ".csv":
        export_fits(plan, path)
        return
    title = f"{plan.job.name}: fits"
    lines = fit_lines(plan)
    wide, tall = A4_UPRIGHT
    high, room = SET_UP if plan.stack else 0.0, tall - 90
    at_first, each = int((room - high) // FIT_ROW), int(room // FIT_ROW)
    starts = [0, *range(at_first, len(lines), each)]

    def page(first: int) -> Callable[[QPainter], None]:
        def draw(painter: QPainter) -> None:
            say(painter, 0, 26, title, 20, bold=True)
            say(painter, 0, 48, f"{plan.shop.name}   {plan.job.reason}", 11, "faint")
            top, many = 62.0, each
            if not first:
                if plan.stack:
                    put(painter, stack_drawing(plan, wide, SET_UP - 8, 9.0), top)
                top, many = top + high, at_first
            for i in range(first, min(first + many, len(lines))):
                _fit_on_paper(painter, top, plan, plan.fits[i], lines[i])
                top += FIT_ROW
            say(
                painter,
                0,
                A4_UPRIGHT[1] - 5,
                "Uncertainties are 2 sigma, sizes at 20 °C. Machinon",
                11,
                "faint",
            )

        return draw

    upright_pages(path, title, *map(page, starts))


def _fit_on_paper(
    painter: QPainter, top: float, plan: Plan, fit: FitPlan, line: FitLine
) -> None:
    width, _ = A4_UPRIGHT
    painter.setPen(QPen(PRINT.ink("thin"), 0.8))
    painter.drawLine(QPointF(0, top), QPointF(width, top))
    say(painter, 0, top + 20, f"{line.number}   {line.name}", 14, bold=True)
    left = width * 0.44
    taken, room = fit_readings(plan, fit), (left - 14, FIT_ROW - 34)
    put(painter, gauge_drawing(fit, taken, *room, 9.0, plan.shop.inch), top + 26)
    parts = [
        ("Mate", line.mate, False),
        ("Read", "; ".join(line.readings) or "nothing yet", False),
        ("Size", line.measured, False),
        ("Wanted", line.wanted, False),
        *(("To make", piece.says, True) for piece in line.to_make),
        ("Follows", "; ".join(line.follows), False),
        ("Reason", line.reason, False),
        ("Note", line.says, False),
    ]
    y = top + 10
    for name, text, bold in parts:
        if not text or y > top + FIT_ROW - 14:
            continue
        say(painter, left, y + 10, name, 10, "faint")
        painter.setFont(font(11, bold))
        painter.setPen(QPen(PRINT.ink("text")))
        room = QRectF(left + 54, y, width - left - 54, top + FIT_ROW - y - 2)
        flags = int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap)
        painter.drawText(room, flags, text)
        y += painter.boundingRect(room, flags, text).height() + 3


BOXES = 4  # readings that a line of the measuring sheet has room for
ROW = 92.0  # page units from surface to surface


def write_measuring_sheet(title: str, pieces: Iterable[Piece], path: Path) -> None:
    """Writes the surfaces to be measured, each with its picture and boxes to write in.

    Raises MachinonError as `write_drawing`, and where there is nothing to measure.
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


def _sheet_page(painter: QPainter, plan: Plan, width: float, height: float) -> None:
    inch = plan.shop.inch
    say(painter, 0, 26, plan.job.name, 22, bold=True)
    say(painter, 0, 48, f"{plan.shop.name}   {plan.job.reason}", 12, "faint")
    kind = VERDICTS.get(plan.verdict)
    if kind:
        paint_mark(painter, Mark((12, 78), kind, 22), PRINT)
    say(painter, 32, 84, plan.verdict_says, 14, kind or "text", bold=True)
    y = 118.0
    made = plan.made
    if made is not None:
        first = plan.shop.first_angle
        drawn = piece_sheet(made, width, 330, 8.5, inch, True, first_angle=first)
        put(painter, drawn, 104)
        y = 448.0
    if plan.proof:
        say(painter, 0, y, "Made, against what the mates want", 15, bold=True)
    y += 10
    for line in plan.proof:
        put(painter, band_drawing(line, width * 0.56, 66, 11, inch), y)
        painter.setFont(font(11))
        painter.setPen(QPen(PRINT.ink("text")))
        painter.drawText(
            QRectF(width * 0.6, y + 2, width * 0.4, 46),
            int(Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap),
            f"{line.name}: {line.says}",
        )
        if line.measured is not None:
            count = line.measured.count
            say(
                painter,
                width * 0.6,
                y + 60,
                f"{count} reading{'s' if count != 1 else ''}, spread "
                f"{small_text(line.measured.spread, inch)}",
                11,
                "faint",
            )
        y += 70
    own = made.numbers.values() if made is not None else ()
    for fit in plan.fits:
        if fit.thread is None or fit.choice.number not in own:
            continue
        home = plan.job.proof.thread_tried
        tried = "screwed home, seats on the shoulder" if home else "not tried yet"
        says = f"Thread {with_class(fit.thread, fit.thread_class)}: {tried}"
        say(painter, 0, y + 14, says, 12)
        y += 26
    y += 14
    x = 0.0
    lines = []
    if made is not None and made.family.runs:
        say(painter, 0, y, "How it runs", 15, bold=True)
        lines = _runs_on_paper(painter, plan, y)
        x = 280.0
    for fit in plan.fits:
        if fit.mate is not None:
            lines.append(
                f"Mate of fit {fit.choice.number}: "
                f"{length_text(fit.mate.size, fit.mate.step, inch)} ± "
                f"{small_text(fit.mate.uncertainty, inch)}"
            )
    for i, text in enumerate(lines):
        say(painter, x, y + 34 + i * 21, text, 12)
    y += 34 + len(lines) * 21
    if made is not None:
        grave = f"{len(plan.failed)} of {len(plan.checks)} checks fail"
        fine = f"All {len(plan.checks)} checks of the drawing pass"
        say(painter, x, y, grave if plan.failed else fine, 12)
    say(
        painter,
        0,
        height - 22,
        made.family.cautions.get("sheet", CAUTION) if made is not None else CAUTION,
        11,
        "faint",
    )
    say(
        painter,
        0,
        height - 5,
        "Uncertainties are 2 sigma, sizes at 20 °C. Machinon",
        11,
        "faint",
    )


def _runs_on_paper(painter: QPainter, plan: Plan, top: float) -> list[str]:
    """The rose of the run-out, and what is said beside it."""
    inch, proof = plan.shop.inch, plan.job.proof
    found = resolve(proof.runout) if len(proof.runout) >= 3 else None
    rose = rose_drawing(proof.runout, found, proof.runout_limit, 250, 250, 10, inch)
    put(painter, rose, top + 6)
    lines = [
        f"Run-out allowed: {small_text(proof.runout_limit, inch)} on the indicator"
    ]
    lines += [
        f"Its seat allows up to {small_text(station.most, inch)}"
        for station in stations(plan)
        if not station.carried
    ]
    if plan.runout is None:
        return [*lines, "not measured yet"]
    return [
        *lines,
        f"Indicator, high less low: {small_text(plan.runout['tir'], inch)}",
        f"Offset of the centre: {small_text(plan.runout['eccentricity'], inch)}, "
        f"high side at {plan.runout['phase']:.0f}°",
        f"Out of round: {small_text(plan.runout['ovality'], inch)}",
        f"Residual: {small_text(plan.runout['noise'], inch)}",
    ]


CAUTION = "Keep to the maker's limits of machine and holding, and to local rules."
