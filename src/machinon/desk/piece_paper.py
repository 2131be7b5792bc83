"""A piece on paper and for other programs: its sheet, its solid, its holes."""

import os
from collections.abc import Mapping
from pathlib import Path

from PySide6.QtWidgets import QApplication

from machinon.core.piece.family import Made
from machinon.desk.sheet import PaperKind, drawing_on_page, level_page
from machinon.desk.theme import load_fonts
from machinon.draw.piece_sheet import piece_sheet


def write_sheet(made: Made, path: Path, kind: PaperKind, inch: bool = False) -> None:
    """Write the sheet of a piece with frame and title block. Raises MachinonError.

    Works without a screen: an application is made where there is none yet.
    """
    if QApplication.instance() is None:
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
        application = QApplication([])
        load_fonts()
    else:
        application = None
    cells = (
        (made.family.name, made.family.purpose),
        (f"Material: {made.material}", f"From {made.body.stock.says}"),
        (
            "Sizes in inches" if inch else "Sizes in mm",
            "Two limits under a size: cut to the measured mate",
        ),
    )
    level_page(
        path,
        made.family.name,
        lambda painter: drawing_on_page(
            painter, lambda w, h: piece_sheet(made, w, h, 12.0, inch, True), cells
        ),
        kind,
    )
    del application


FILES: Mapping[str, tuple[str, str]] = {
    "pdf": ("Drawing, PDF", "pdf"),
    "svg": ("Drawing, SVG", "svg"),
    "png": ("Drawing as a picture", "png"),
    "dxf": ("Drawing for CAD, DXF", "dxf"),
    "stl": ("Solid, STL", "stl"),
    "3mf": ("Solid, 3MF", "3mf"),
    "holes": ("List of holes, CSV", "csv"),
}  # by kind: what it is called, and how its file ends


def write_piece(made: Made, kind: str, path: Path, inch: bool = False) -> None:
    """Write one file of a piece, of a kind of `FILES`. Raises MachinonError."""
    if kind in ("svg", "pdf", "png"):
        write_sheet(made, path, kind, inch)  # type: ignore[arg-type]
    elif kind == "dxf":
        from machinon.draw.export.sheet_dxf import write_dxf

        write_dxf(made, path)
    elif kind == "holes":
        from machinon.draw.export.hole_list import write_holes

        write_holes(made, path)
    else:
        from machinon.draw.export import solids

        (solids.write_stl if kind == "stl" else solids.write_3mf)(made, path)
