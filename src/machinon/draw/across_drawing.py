"""Cross sections of forms that run along a piece: slots, T-slots, dovetails,
tongues."""

from machinon.core.quantity import length_text
from machinon.core.shop.things import Piece, Surface
from machinon.core.survey.surface_kinds import beside, form_key
from machinon.draw.across_shape import Section, pins_of, section_of
from machinon.draw.drawing import Board, Point, Role
from machinon.draw.piece_figures import PieceFigures
from machinon.draw.piece_shape import Readings, sizes


class AcrossPicture(PieceFigures):
    """The section of a piece; a dovetail with the pins that it is read over."""

    def __init__(
        self,
        piece: Piece,
        surface: Surface,
        measured: Readings,
        board: Board,
        inch: bool,
    ) -> None:
        """surface: where the piece is cut across."""
        super().__init__(piece, measured, board, inch)
        self.surface = surface
        self.section = section_of(surface, sizes(measured))

    def lay_out(self) -> bool:
        """Draw it all, each figure where it was read; it is always large enough."""
        section, surface, size = self.section, self.surface, self.size
        pins = pins_of(surface, section)
        side = max(x for x, _ in section.points)
        if section.solid and pins:
            side = max(side, pins[0][0] + pins[0][2] / 2)
        low = min(y for _, y in section.points)
        self.frame(-side, low, side, 0, (3, 4.2))
        head = self.piece.surface(beside(surface, "tee-head"))
        aside = max(self.beside(s.id) for s in (surface, head) if s is not None)
        if self.length(2 * section.edge[0][0]) < 1.6 * aside:
            # figures that find no room between their arrows stand at the right
            self.width -= 0.7 * aside
            self.frame(-side, low, side, 0, (3, 4.2))
        self.shape(section.points, hatch=True, role="thin", width=0.9)
        edge = section.edge
        for way in (1, -1):
            self.shape([(way * x, y) for x, y in edge], closed=False)
        (x, floor), (open_x, _) = edge[-1], edge[0]
        if not section.solid:
            self.line((-x, floor), (x, floor))
        self.line((0, -0.05 * low), (0, low), "centre", 1.0)
        for px, py, pin in pins:
            self.circle(px, py, pin / 2, "measured", "ground")
        above = self.p(0, 0)[1] - 1.6 * size
        foot = self.p(0, low)[1] + 1.6 * size
        if pins:
            self._pins(surface, section, pins[0], above, foot)
        else:
            at = self.p(-open_x, 0)[0], self.p(open_x, 0)[0]
            self.level(surface.id, above, *at, self.p(0, 0)[1])
        if form_key(surface) == "tee-neck":
            self._tee(surface, edge, self.p(side, 0)[0] + 5 * size, foot)
        self.along_the_foot()
        return True

    def _pins(
        self,
        surface: Surface,
        section: Section,
        pin: tuple[float, float, float],
        above: float,
        foot: float,
    ) -> None:
        """The reading over the pins, and what it makes of the corners."""
        found = self.measured.get(surface.id)
        x, y, across = pin
        out = x + across / 2 if section.solid else x - across / 2
        read = (
            "to measure"
            if found is None
            else length_text(found.mean, found.step, self.inch)
        )
        role: Role = "cut" if found is None else "measured"
        left, right = self.p(-out, 0)[0], self.p(out, 0)[0]
        from_y = self.p(0, y)[1]
        self.board.level(
            above,
            left,
            right,
            from_y,
            read,
            surface.name,
            role,
            surface.id,
            surface.name,
        )
        self.drawn.add(surface.id)
        if found is not None:
            corner = section.edge[-1][0]
            text, _, _ = self.figure_of(surface.id, "")
            self.board.level(
                foot,
                self.p(-corner, 0)[0],
                self.p(corner, 0)[0],
                self.p(0, -section.deep)[1],
                text,
                found.says.lower(),
                role,
                surface.id,
                surface.name,
            )

    def _tee(
        self, surface: Surface, edge: tuple[Point, ...], x: float, foot: float
    ) -> None:
        """Head, lip and height of a T-slot, those that were added with its neck."""
        (_, _), (_, lip), (head, _), (_, floor) = edge
        have = {s.id for s in self.piece.surfaces}
        keys = ("tee-head", "tee-lip", "tee-head-depth")
        ids = {key: beside(surface, key) for key in keys}
        if ids["tee-head"] in have:
            at = self.p(-head, 0)[0], self.p(head, 0)[0]
            self.level(ids["tee-head"], foot, *at, self.p(0, floor)[1])
        for id, top, bottom in (
            (ids["tee-lip"], 0.0, lip),
            (ids["tee-head-depth"], lip, floor),
        ):
            if id in have:
                self.upright(
                    id, x, self.p(0, top)[1], self.p(0, bottom)[1], self.p(head, 0)[0]
                )
