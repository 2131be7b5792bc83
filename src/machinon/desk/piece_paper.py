"""A piece on paper and for other programs: its sheet, its solid, its holes."""

import functools
import os
from collections.abc import Mapping
from pathlib import Path

from msgspec.structs import replace
from PySide6.QtCore import QCoreApplication
from PySide6.QtWidgets import QApplication

from machinon.core.piece.jigs import drill_jig
from machinon.core.piece.made import Made
from machinon.core.piece.stock import stock_said
from machinon.core.reckoning import Answer
from machinon.desk.painter import paint
from machinon.desk.sheet import (
    A4_UPRIGHT,
    PaperKind,
    drawing_on_page,
    level_page,
    upright_pages,
)
from machinon.desk.theme import PRINT, load_fonts
from machinon.draw.piece_sheet import piece_sheet
from machinon.draw.template import marked_faces, template, wrapped

MM = 96 / 25.4  # of a page's units to a mm


def write_sheet(
    made: Made,
    path: Path,
    kind: PaperKind,
    inch: bool = False,
    first_angle: bool = False,
) -> None:
    """Write the sheet of a piece with frame and title block. Raises MachinonError.

    Works without a screen: an application is made where there is none yet.
    """
    application = _application()
    angle = "first" if first_angle else "third"
    cells = (
        (made.title, made.family.purpose),
        (f"Material: {made.material}", f"From {stock_said(made.body.stock, inch)}"),
        (
            f"Sizes in {'inches' if inch else 'mm'}, {angle} angle, ISO 2768-m",
            "Two limits under a size: cut to the measured mate",
        ),
    )
    level_page(
        path,
        made.family.name,
        lambda painter: drawing_on_page(
            painter,
            lambda w, h: piece_sheet(
                made, w, h, 12.0, inch, True, first_angle=first_angle
            ),
            cells,
        ),
        kind,
    )
    del application


def _application() -> QCoreApplication:
    """The application that paints letters; made where the program has no window."""
    running = QApplication.instance()
    if running is not None:
        return running
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    made = QApplication([])
    load_fonts()
    return made


def write_template(made: Made, path: Path) -> None:
    """Write a page at 1:1 for each face with something to mark out, as PDF. Raises
    MachinonError."""
    application = _application()
    width, height = A4_UPRIGHT
    drawn = [
        template(made, face, width, height, MM) for face in marked_faces(made.body)
    ]
    pages = [
        functools.partial(paint, drawing=drawing, theme=PRINT) for drawing in drawn
    ]
    upright_pages(path, f"{made.family.name}: template", *pages)
    del application


def write_wrapped(answer: Answer, path: Path) -> None:
    """Write a pipe's template at 1:1 as PDF. Raises MachinonError."""
    drawn = wrapped(answer, *A4_UPRIGHT, MM)
    upright_pages(path, answer.title, lambda painter: paint(painter, drawn, PRINT))


FILES: Mapping[str, tuple[str, str]] = {
    "pdf": ("Drawing, PDF", "pdf"),
    "svg": ("Drawing, SVG", "svg"),
    "png": ("Drawing as a picture", "png"),
    "dxf": ("Drawing for CAD, DXF", "dxf"),
    "stl": ("Solid, STL", "stl"),
    "3mf": ("Solid, 3MF", "3mf"),
    "holes": ("List of holes, CSV", "csv"),
    "template": ("Template at 1:1, PDF", "pdf"),
    "jig": ("Drill jig as a solid, STL", "stl"),
}  # by kind: what it is called, and how its file ends


def write_piece(
    made: Made, kind: str, path: Path, inch: bool = False, first_angle: bool = False
) -> None:
    """Write one file of a piece, of a kind of `FILES`. Raises MachinonError."""
    if kind in ("svg", "pdf", "png"):
        write_sheet(made, path, kind, inch, first_angle)  # type: ignore[arg-type]
    elif kind == "template":
        write_template(made, path)
    elif kind == "dxf":
        from machinon.draw.export.sheet_dxf import write_dxf

        write_dxf(made, path, first_angle)
    elif kind == "holes":
        from machinon.draw.export.hole_list import write_holes

        write_holes(made, path)
    else:
        from machinon.draw.export import solids

        if kind == "jig":
            made = replace(made, body=drill_jig(made.body))
        (solids.write_3mf if kind == "3mf" else solids.write_stl)(made, path)
