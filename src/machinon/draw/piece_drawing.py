"""A piece of the shop as its picture, drawn and dimensioned from its readings.

Thick lines are measured; thin ones stand for what is not measured yet. Each
figure carries the name of its surface and is tied to it.
"""

import math
from collections.abc import Sequence

from machinon.core.measuring import measured_text
from machinon.core.quantity import length_text
from machinon.core.shop import Piece, Surface
from machinon.core.surface_kinds import beside, form_key
from machinon.draw.drawing import SHARES, Board, Drawing, Point, Role, Spot, text_width
from machinon.draw.piece_shape import (
    Pattern,
    Readings,
    Section,
    Step,
    Turned,
    notches_of,
    patterns_of,
    pins_of,
    section_of,
    sectioned,
    sides_of,
    sizes,
    turned_of,
)
from machinon.draw.plane import Plane

NAME = 0.74  # of a figure's height: the name beneath it
CREST = 0.6  # of its pitch that a thread is drawn deep
ROW = 2.6  # figure heights that a line of figures along the foot takes
ABREAST = 4  # figures in such a line


def piece_drawing(
    piece: Piece,
    measured: Readings,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """Half section and end view of a piece, or the section of what is cut across.

    measured: by surface id; ties are the ids of the surfaces. What has no place
    in the picture stands along its foot.
    """
    for share in SHARES:
        picture = _Picture(piece, measured, width, height, size * share, inch)
        large = picture.lay_out()
        drawing = picture.board.done()
        if large and not drawing.crowded:
            break
    return drawing


class _Picture(Plane):
    """Lays a piece out; `drawn` holds the surfaces that have their figure."""

    def __init__(
        self,
        piece: Piece,
        measured: Readings,
        width: float,
        height: float,
        size: float,
        inch: bool,
    ) -> None:
        super().__init__(Board(width, height, size))
        self.piece, self.measured, self.inch = piece, measured, inch
        self.drawn: set[str] = set()

    def lay_out(self) -> bool:
        """Draw it all; whether the piece has come out large enough to be read."""
        section = sectioned(self.piece)
        if section is not None:
            self._section(section_of(section, sizes(self.measured)), section)
            self._along_the_foot()
            return True
        return self._turned(turned_of(self.piece, self.measured))

    # -- figures ---------------------------------------------------------

    def figure_of(self, id: str, sign: str = "⌀") -> tuple[str, str, Role]:
        """A surface's figure, its name, and the ink of its state."""
        surface = self.piece.surface(id)
        assert surface is not None
        found = self.measured.get(id)
        if found is None:
            return "to measure", surface.name, "cut"
        name = surface.name
        if found.slope is not None and found.likely:
            name = f"{name}, {found.likely[0].name}"
        elif found.says and found.says not in name:
            name = f"{name}: {found.says.lower()}"
        text = measured_text(found, self.inch)
        return sign + text, name, "measured"

    def _wide(self, id: str) -> float:
        """Room that a surface's figure takes with its name beneath it."""
        text, name, _ = self.figure_of(id)
        return max(text_width(text, self.size), text_width(name, NAME * self.size))

    def _beside(self, id: str) -> float:
        """Room that it takes with its name beside it, past the arrow."""
        text, name, _ = self.figure_of(id)
        figure, words = text_width(text, self.size), text_width(name, NAME * self.size)
        return figure + words + 4 * self.size

    def _along_the_foot(self) -> None:
        """The surfaces that have no place in the picture."""
        rest = [one.id for one in self.piece.surfaces if one.id not in self.drawn]
        rows = [rest[i : i + ABREAST] for i in range(0, len(rest), ABREAST)]
        y = self.board.height + 0.8 * self.size - ROW * self.size * len(rows)
        for row in rows:
            for i, id in enumerate(row):
                x = self.board.width * (i + 0.5) / len(row)
                text, name, role = self.figure_of(id, "")
                self.board.label((x, y), text, name, role, id, name)
            y += ROW * self.size

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

    # -- what turns --------------------------------------------------------

    def _turned(self, turned: Turned) -> bool:
        board, size = self.board, self.size
        left_side, right_side, inside = self._sides(turned)
        reach = [self._reach(side) for side in (left_side, right_side)]
        patterns = patterns_of(self.piece, self.measured)
        notches = notches_of(self.piece, self.measured)
        flats = [s for s in turned.outer if s.id and self._flats(s)]
        seen = bool(patterns or notches or flats or turned.inner)
        tall, long = 2 * turned.radius, turned.long
        beyond = max((p.circle + p.hole for p in patterns), default=0.0)
        across = max(tall, beyond)
        top = (1.0 + 1.7 * bool(notches)) * size
        rows = len(turned.lengths)
        foot = (2.0 + 1.7 * rows + 1.6 * bool(patterns or flats)) * size
        # what has no place in the picture stands below it
        known = {one.id for one in (*turned.outer, *turned.inner)}
        known |= {one.id for one in turned.lengths}
        known |= {id for one in patterns for id in (one.id, one.hole_id)}
        known |= {id for one in notches for id in (one.id, one.across_id)}
        rest = sum(one.id not in known for one in self.piece.surfaces)
        foot += ROW * size * math.ceil(rest / ABREAST)
        aside = [self._wide(one.across_id) + size for one in notches]
        gap = 2.5 * size + sum(aside) if seen else 0.0
        # a keyway's width stands beside its arrows
        past = max((self._beside(one.id) / 2 for one in notches), default=0.0)
        room = board.width - sum(reach) - gap - past - 2 * size
        self._scale = max(
            min(
                (board.height - top - foot) / max(across, 1e-9),
                room / (long + (across if seen else 0.0)),
            ),
            0.05,
        )
        whole = sum(reach) + gap + past
        whole += (long + (across if seen else 0.0)) * self._scale
        left = (board.width - whole) / 2 + reach[0]
        axis = top + across / 2 * self._scale
        self._at = (left, axis)
        self._half_section(turned)
        self._chain(left_side, -1, left)
        self._chain(right_side, 1, left + long * self._scale)
        for step in inside:
            x, _ = self.p(*step.middle)
            self._dimension(step, x, x, 0.0)
        y = axis + turned.radius * self._scale + 1.5 * size
        for length in sorted(turned.lengths, key=lambda one: one.end - one.start):
            self.level(
                length.id,
                y,
                self.p(length.start, 0)[0],
                self.p(length.end, 0)[0],
                self.p(0, -length.radius)[1],
            )
            y += 1.7 * size
        self._threads(turned)
        if seen:
            centre = left + (long * self._scale) + reach[1] + gap
            self._at = (centre + across / 2 * self._scale, axis)
            self._end_view(turned, across)
        self._along_the_foot()
        return self._scale * tall > 9 * size

    def _flats(self, step: Step) -> int:
        surface = self.piece.surface(step.id)
        return sides_of(surface) if surface is not None else 0

    def _sides(self, turned: Turned) -> tuple[list[Step], list[Step], list[Step]]:
        """Which diameters are dimensioned at the left, at the right, where they are.

        Their extension lines run through air: past narrower steps outside,
        through wider ones in the bore.
        """
        left: list[Step] = []
        right: list[Step] = []
        inside: list[Step] = []
        for at, step in enumerate(turned.inner):
            if step.id:
                wider = all(s.narrowest >= step.widest for s in turned.inner[:at])
                (left if wider else inside).append(step)
        for at, step in enumerate(turned.outer):
            if not step.id:
                continue
            if all(s.widest <= step.widest for s in turned.outer[at + 1 :]):
                right.append(step)
            elif all(s.widest <= step.widest for s in turned.outer[:at]):
                left.append(step)
            else:
                inside.append(step)
        for side in (left, right):
            side.sort(key=lambda step: step.widest)
        return left, right, inside

    @property
    def _pitch(self) -> float:
        # figures stand staggered, so their lines may lie close; ISO 129-1
        return 2.4 * self.size

    def _reach(self, side: Sequence[Step]) -> float:
        """How far the dimensions of a side spread from the piece."""
        if not side:
            return 0.5 * self.size
        start = 0.9 * self.size + self._wide(side[0].id) / 2
        return max(
            start + i * self._pitch + self._wide(step.id) / 2
            for i, step in enumerate(side)
        )

    def _chain(self, side: Sequence[Step], way: int, start: float) -> None:
        """Upright dimensions from the piece outward, their figures staggered."""
        if not side:
            return
        x = start + way * (0.9 * self.size + self._wide(side[0].id) / 2)
        for i, step in enumerate(side):
            shift = (i - (len(side) - 1) / 2) * 2.4 * self.size
            from_x, _ = self.p(*self._corner(step, way))
            self._dimension(step, x, from_x, shift)
            x += way * self._pitch

    @staticmethod
    def _corner(step: Step, way: int) -> Point:
        """Where a step's extension line begins: at its wide end for a taper."""
        (a, r), (b, e) = step.points[0], step.points[-1]
        if len(step.points) > 2:
            return step.middle
        if r != e:
            return (a, r) if r > e else (b, e)
        return (b, e) if way > 0 else (a, r)

    def _dimension(self, step: Step, x: float, from_x: float, shift: float) -> None:
        """A step's diameter at an abscissa; shift: of its figure below the axis."""
        text, name, role = self.figure_of(step.id, "" if self._flats(step) else "⌀")
        _, radius = self._corner(step, 1)
        (_, axis), half = self.p(0, 0), self.length(radius)
        at = min(max(0.5 + shift / max(2 * half, 1.0), 0.0), 1.0)
        self.board.upright(
            x,
            axis - half,
            axis + half,
            from_x,
            text,
            name,
            role,
            step.id,
            name,
            at=at,
        )
        self.drawn.add(step.id)

    def _half_section(self, turned: Turned) -> None:
        """Above the axis cut where there is a bore, below as seen from outside."""
        self.shape(turned.upper_half, hatch=bool(turned.inner), role="thin", width=0.9)
        face = [(z, -r) for one in turned.outer for z, r in one.points]
        start, end = turned.outer[0].start, turned.outer[-1].end
        self.shape([(start, 0.0), *face, (end, 0.0)], role="thin", width=0.9)
        for one in turned.inner:
            for z, r in (one.points[0], one.points[-1]):
                self.line((z, 0), (z, r), "thin", 0.9)
        for side, ways in ((turned.outer, (1, -1)), (turned.inner, (1,))):
            for before, step in zip((None, *side), side, strict=False):
                for way in ways:
                    self._measured_edges(step, before, way, turned)
        self.line((-0.06 * end, 0), (1.06 * end, 0), "centre", 1.0)

    def _measured_edges(
        self, step: Step, before: Step | None, way: int, turned: Turned
    ) -> None:
        """Draw thick what a step's readings say."""
        measured = self.measured.get(step.id) is not None if step.id else False
        if measured:
            points = [(z, way * r) for z, r in step.points]
            self.shape(points, closed=False)
            (a, r), (b, e) = step.points[0], step.points[-1]
            outside = step in turned.outer
            if outside and (a == 0 or before is not None):
                low = before.points[-1][1] if before is not None else 0.0
                self.line((a, way * min(low, r)), (a, way * max(low, r)))
            if step.ended:
                self.line((b, 0.0), (b, way * e))

    def _threads(self, turned: Turned) -> None:
        """A thin line at the other crest of each thread; its pitch as a figure."""
        for step in (*turned.outer, *turned.inner):
            surface = self.piece.surface(step.id) if step.id else None
            form = form_key(surface) if surface is not None else ""
            if surface is None or form not in ("thread-major", "thread-minor"):
                continue
            pitch = self.measured.get(beside(surface, "thread-pitch"))
            (a, r), (b, _) = step.points[0], step.points[-1]
            deep = CREST * pitch.size if pitch else 0.1 * r
            other = r - deep if form == "thread-major" else r + deep
            for way in (1, -1) if form == "thread-major" else (1,):
                self.line((a, way * other), (b, way * other), "outline", 0.8)

    # -- from the end ------------------------------------------------------

    def _end_view(self, turned: Turned, across: float) -> None:
        size = self.size
        x, y = self.p(0, 0)
        for step in turned.outer:
            known = self.measured.get(step.id) is not None if step.id else False
            width = 1.8 if known else 0.9
            sides = self._flats(step)
            if sides:
                round = step.widest / math.cos(math.pi / sides)
                turns = [math.pi * (2 * i + 1) / sides for i in range(sides)]
                self.shape(
                    [(round * math.sin(a), round * math.cos(a)) for a in turns],
                    role="outline" if known else "thin",
                    width=width,
                )
            else:
                radius = self._corner(step, 1)[1]
                self.circle(
                    0, 0, radius, "outline" if known else "thin", "panel", width
                )
        for step in turned.inner:
            known = bool(step.id) and self.measured.get(step.id) is not None
            self.circle(
                0,
                0,
                self._corner(step, 1)[1],
                "outline" if known else "thin",
                "ground" if step is turned.inner[-1] else "none",
                1.8 if known else 0.9,
            )
        self.cross(0, 0, across / 2 + size / self._scale)
        for notch in notches_of(self.piece, self.measured):
            host = self._host_radius(turned, notch.bore)
            half = notch.width / 2
            reach = math.sqrt(max(host**2 - half**2, 0.0))
            floor = notch.floor
            edge = [(-half, reach), (-half, floor), (half, floor), (half, reach)]
            self.shape(edge, role="ground", fill="ground", width=0.5)
            self.shape(edge, closed=False)
            above = y - self.length(across / 2) - 1.5 * size
            self.level(
                notch.id,
                above,
                x - self.length(half),
                x + self.length(half),
                self.p(0, max(notch.floor, reach))[1],
            )
            self.upright(
                notch.across_id,
                x - self.length(across / 2) - size - self._wide(notch.across_id) / 2,
                self.p(0, notch.floor)[1],
                self.p(0, -host)[1],
                x,
            )
        below = y + self.length(across / 2) + 1.9 * size
        for pattern in patterns_of(self.piece, self.measured):
            self.circle(0, 0, pattern.circle / 2, "centre", width=1.0)
            for px, py in pattern.centres:
                self.circle(px, py, pattern.hole / 2, "outline", "ground", 1.6)
            self._pattern_words(pattern, x, below)
            below += 1.6 * size

    def _host_radius(self, turned: Turned, bore: bool) -> float:
        steps = turned.inner if bore else turned.outer
        return steps[-1].widest if steps else turned.radius

    def _pattern_words(self, pattern: Pattern, x: float, y: float) -> None:
        """How many holes of what size on what circle, beneath the end view."""
        id, hole_id, holes = pattern.id, pattern.hole_id, len(pattern.centres)
        found = self.measured.get(id)
        assert found is not None
        hole = self.measured.get(hole_id)
        size = self.size
        parts = []
        if hole is not None:
            parts.append((f"{holes} × {self.figure_of(hole_id)[0]}", hole_id))
        else:
            parts.append((f"{holes} holes", ""))
        text, name, _ = self.figure_of(id)
        if found.says:
            parts.append((f"on {text}", id))
        else:
            parts.append((f"{name.lower()} {text[1:]}", id))
        wide = sum(text_width(part, size) for part, _ in parts) + size
        at = min(x - wide / 2, self.board.width - wide)
        for part, tie in parts:
            long = text_width(part, size)
            self.board.text((at + long / 2, y), part, size, "measured", backed=True)
            if tie:
                surface = self.piece.surface(tie)
                assert surface is not None
                self.board.spots.append(
                    Spot((at, y - size, long, 2 * size), tie, surface.name)
                )
                self.drawn.add(tie)
            at += long + size

    # -- across ------------------------------------------------------------

    def _section(self, section: Section, one: Surface) -> None:
        """Cut across, with what was read where it was read."""
        size = self.size
        pins = pins_of(one, section)
        side = max(x for x, _ in section.points)
        if section.solid and pins:
            side = max(side, pins[0][0] + pins[0][2] / 2)
        low = min(y for _, y in section.points)
        self.frame(-side, low, side, 0, (3, 4.2))
        head = self.piece.surface(beside(one, "tee-head"))
        aside = max(self._beside(s.id) for s in (one, head) if s is not None)
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
            self._pins(one, section, pins[0], above, foot)
        else:
            at = self.p(-open_x, 0)[0], self.p(open_x, 0)[0]
            self.level(one.id, above, *at, self.p(0, 0)[1])
        if form_key(one) == "tee-neck":
            self._tee(one, edge, self.p(side, 0)[0] + 5 * size, foot)

    def _pins(
        self,
        one: Surface,
        section: Section,
        pin: tuple[float, float, float],
        above: float,
        foot: float,
    ) -> None:
        """The reading over the pins, and what it makes of the corners."""
        found = self.measured.get(one.id)
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
            above, left, right, from_y, read, one.name, role, one.id, one.name
        )
        self.drawn.add(one.id)
        if found is not None:
            corner = section.edge[-1][0]
            text, _, _ = self.figure_of(one.id, "")
            self.board.level(
                foot,
                self.p(-corner, 0)[0],
                self.p(corner, 0)[0],
                self.p(0, -section.deep)[1],
                text,
                found.says.lower(),
                role,
                one.id,
                one.name,
            )

    def _tee(
        self, one: Surface, edge: tuple[Point, ...], x: float, foot: float
    ) -> None:
        """Head, lip and height of a T-slot, those that were added with its neck."""
        (_, _), (_, lip), (head, _), (_, floor) = edge
        have = {s.id for s in self.piece.surfaces}
        keys = ("tee-head", "tee-lip", "tee-head-depth")
        ids = {key: beside(one, key) for key in keys}
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
