"""A piece's sheet as PDF or SVG, with its frame and title block."""

import os
from pathlib import Path

from PySide6.QtWidgets import QApplication

from machinon.core.piece.family import Made
from machinon.desk.sheet import drawing_on_page, level_page
from machinon.desk.theme import load_fonts
from machinon.draw.piece_sheet import piece_sheet


def write_sheet(made: Made, path: Path, kind: str, inch: bool = False) -> None:
    """Write the sheet of a piece; kind: pdf or svg. Raises MachinonError.

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
        kind == "svg",
    )
    del application
