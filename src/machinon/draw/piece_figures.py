"""The figures of a piece on its picture: each surface's size with its name."""

import math

from machinon.core.shop.things import Piece
from machinon.core.survey.measuring import measured_text
from machinon.core.survey.surface_kinds import is_threaded
from machinon.draw.drawing import SMALL, Board, Role
from machinon.draw.lettering import text_width
from machinon.draw.piece_shape import Readings
from machinon.draw.plane import Plane

ROW = 2.6  # figure heights that a line of figures along the foot takes
ABREAST = 4  # figures in such a line


class PieceFigures(Plane):
    """A page for a piece; `drawn` holds the surfaces that have their figure."""

    def __init__(
        self, piece: Piece, measured: Readings, board: Board, inch: bool
    ) -> None:
        super().__init__(board)
        self.piece, self.measured, self.inch = piece, measured, inch
        self.drawn: set[str] = set()

    def is_measured(self, id: str) -> bool:
        return self.measured.get(id) is not None

    def figure_of(self, id: str, sign: str = "⌀") -> tuple[str, str, Role]:
        """A surface's figure, its name, and the ink of its state."""
        surface = self.piece.surface(id)
        assert surface is not None
        found = self.measured.get(id)
        if found is None:
            return "to measure", surface.name, "cut"
        name = surface.name
        standard = found.likely[0].name if found.likely else surface.given
        if found.slope is not None and standard:
            name = f"{name}, {standard}"
        elif found.says and found.says not in name:
            name = f"{name}: {found.says.lower()}"
        text = measured_text(surface, found, self.inch)
        named = is_threaded(surface) and found.by_standard
        return text if named else sign + text, name, "measured"

    def wide(self, id: str) -> float:
        """Room that a surface's figure takes with its name beneath it."""
        text, name, _ = self.figure_of(id)
        return max(text_width(text, self.size), text_width(name, SMALL * self.size))

    def beside(self, id: str) -> float:
        """Room that it takes with its name beside it, past the arrow."""
        text, name, _ = self.figure_of(id)
        figure, words = text_width(text, self.size), text_width(name, SMALL * self.size)
        return figure + words + 4 * self.size

    def along_the_foot(self) -> None:
        """The surfaces that have no place in the picture."""
        rest = [
            surface.id
            for surface in self.piece.surfaces
            if surface.id not in self.drawn
        ]
        figures = [(*self.figure_of(id, ""), id) for id in rest]
        self.board.along_the_foot(figures, ABREAST, ROW)

    def level(
        self, id: str, y: float, left: float, right: float, from_y: float
    ) -> None:
        """A length between two page abscissas, with its name beside it."""
        text, name, role = self.figure_of(id, "")
        self.board.level(y, left, right, from_y, text, name, role, id, name)
        self.drawn.add(id)

    def upright(
        self, id: str, x: float, top: float, bottom: float, from_x: float
    ) -> None:
        """A height between two page ordinates, with its name beneath it."""
        text, name, role = self.figure_of(id, "")
        self.board.upright(x, top, bottom, from_x, text, name, role, id, name)
        self.drawn.add(id)

    def foot_room(self, placed: set[str]) -> float:
        """Page units that the surfaces without a place take along the foot."""
        rest = sum(surface.id not in placed for surface in self.piece.surfaces)
        return ROW * self.size * math.ceil(rest / ABREAST)
