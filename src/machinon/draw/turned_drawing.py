"""What turns: half section along the axis with its end view, dimensioned."""

import math
from collections.abc import Sequence

from machinon.core.shop.things import Piece
from machinon.core.survey.surface_kinds import beside, is_threaded
from machinon.core.wording import within
from machinon.draw.drawing import Board, Point, Role
from machinon.draw.end_shape import (
    Notch,
    Pattern,
    flats_of,
    notches_of,
    patterns_of,
)
from machinon.draw.lettering import text_width
from machinon.draw.piece_figures import PieceFigures
from machinon.draw.piece_shape import Readings, ShapeStep, sides_of, turned_of

CREST = 0.6  # of its pitch that a thread is drawn deep


class TurnedPicture(PieceFigures):
    """Thick lines are measured, thin ones stand for what is not measured yet."""

    def __init__(
        self, piece: Piece, measured: Readings, board: Board, inch: bool
    ) -> None:
        super().__init__(piece, measured, board, inch)
        self.turned = turned_of(piece, measured)
        self.patterns = patterns_of(piece, measured)
        self.notches = notches_of(piece, measured)
        self.flats = flats_of(piece, measured)
        sides = any(self._sided(step) for step in self.turned.outer)
        # an end view is drawn where there is something to be seen from there
        self.seen = bool(
            self.patterns or self.notches or self.flats or self.turned.inner or sides
        )
        circles = [pattern.circle + pattern.hole for pattern in self.patterns]
        self.across = max([2 * self.turned.radius, *circles])

    def lay_out(self) -> bool:
        """Draw it all; whether the piece has come out large enough to be read."""
        size, across = self.size, self.across
        left_side, right_side, inside = self._sides()
        reach = [self._reach(side) for side in (left_side, right_side)]
        gap, past = self._room_aside()
        high = self.board.height - self._head_room() - self._foot_room()
        wide = self.board.width - sum(reach) - gap - past - 2 * size
        world = self.turned.long + (across if self.seen else 0.0)
        self._scale = max(min(high / max(across, 1e-9), wide / world), 0.05)
        whole = sum(reach) + gap + past + world * self._scale
        left = (self.board.width - whole) / 2 + reach[0]
        axis = self._head_room() + across / 2 * self._scale
        self._at = (left, axis)
        self._half_section()
        right = left + self.turned.long * self._scale
        self._chain(left_side, -1, left)
        self._chain(right_side, 1, right)
        for step in inside:
            x, _ = self.p(*step.middle)
            self._dimension(step, x, x, 0.0)
        self._lengths()
        self._threads()
        if self.seen:
            self._at = (right + reach[1] + gap + across / 2 * self._scale, axis)
            self._end_view()
        self.along_the_foot()
        return self._scale * 2 * self.turned.radius > 9 * size

    # -- room --------------------------------------------------------------

    def _head_room(self) -> float:
        return (1.0 + 1.7 * bool(self.notches)) * self.size

    def _foot_room(self) -> float:
        """Room for the lengths, the notes on holes, and sizes without a place above."""
        placed = {step.id for step in (*self.turned.outer, *self.turned.inner)}
        placed |= {length.id for length in self.turned.lengths}
        placed |= {
            id for pattern in self.patterns for id in (pattern.id, pattern.hole_id)
        }
        placed |= {id for notch in self.notches for id in (notch.id, notch.across_id)}
        placed |= {flats.id for flats in self.flats}
        placed |= {step.id for step in self.turned.grooves}
        rows = 2.0 + 1.7 * len(self.turned.lengths) + 1.6 * bool(self.patterns)
        return rows * self.size + self.foot_room(placed)

    def _room_aside(self) -> tuple[float, float]:
        """Between section and end view, and past it for a keyway's width."""
        if not self.seen:
            return 0.0, 0.0
        aside = [self.wide(notch.across_id) + self.size for notch in self.notches]
        past = max((self.beside(notch.id) / 2 for notch in self.notches), default=0.0)
        flats = sum(self.wide(flats.id) + self.size for flats in self.flats)
        return 2.5 * self.size + sum(aside), max(past, flats)

    # -- along the axis ----------------------------------------------------

    def _lengths(self) -> None:
        """The lengths read, the shortest next to the piece."""
        y = self.p(0, -self.turned.radius)[1] + 1.5 * self.size
        for length in sorted(
            self.turned.lengths, key=lambda length: length.end - length.start
        ):
            ends = self.p(length.start, 0)[0], self.p(length.end, 0)[0]
            self.level(length.id, y, *ends, self.p(0, -length.radius)[1])
            y += 1.7 * self.size

    def _sided(self, step: ShapeStep) -> int:
        surface = self.piece.surface(step.id)
        return sides_of(surface) if surface is not None else 0

    def _sides(self) -> tuple[list[ShapeStep], list[ShapeStep], list[ShapeStep]]:
        """The diameters dimensioned at the left, and at the right.

        Their extension lines run through air: past narrower steps outside,
        through wider ones in the bore.
        """
        left: list[ShapeStep] = []
        right: list[ShapeStep] = []
        inside: list[ShapeStep] = []
        for at, step in enumerate(self.turned.inner):
            if step.id:
                wider = all(s.narrowest >= step.widest for s in self.turned.inner[:at])
                (left if wider else inside).append(step)
        for at, step in enumerate(self.turned.outer):
            if not step.id:
                continue
            if all(s.widest <= step.widest for s in self.turned.outer[at + 1 :]):
                right.append(step)
            elif all(s.widest <= step.widest for s in self.turned.outer[:at]):
                left.append(step)
            else:
                inside.append(step)
        for side in (left, right):
            side.sort(key=lambda step: step.widest)
        return left, right, [*inside, *self.turned.grooves]

    @property
    def _pitch(self) -> float:
        # figures stand staggered, so their lines may lie close; ISO 129-1
        return 2.4 * self.size

    def _reach(self, side: Sequence[ShapeStep]) -> float:
        """Reach of a side's dimensions from the piece."""
        if not side:
            return 0.5 * self.size
        start = 0.9 * self.size + self.wide(side[0].id) / 2
        return max(
            start + i * self._pitch + self.wide(step.id) / 2
            for i, step in enumerate(side)
        )

    def _chain(self, side: Sequence[ShapeStep], way: int, start: float) -> None:
        """Upright dimensions from the piece outward, their figures staggered."""
        if not side:
            return
        x = start + way * (0.9 * self.size + self.wide(side[0].id) / 2)
        for i, step in enumerate(side):
            shift = (i - (len(side) - 1) / 2) * 2.4 * self.size
            from_x, _ = self.p(*self._corner(step, way))
            self._dimension(step, x, from_x, shift)
            x += way * self._pitch

    @staticmethod
    def _corner(step: ShapeStep, way: int) -> Point:
        """Start of a step's extension line: at its wide end for a taper."""
        (a, r), (b, e) = step.points[0], step.points[-1]
        if r == 0:  # a ball
            return step.middle
        if r != e:
            return (a, r) if r > e else (b, e)
        return (b, e) if way > 0 else (a, r)

    def _dimension(
        self, step: ShapeStep, x: float, from_x: float, shift: float
    ) -> None:
        """A step's diameter at an abscissa; shift: of its figure below the axis."""
        text, name, role = self.figure_of(step.id, "" if self._sided(step) else "⌀")
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

    def _half_section(self) -> None:
        """Above the axis cut where there is a bore, below as seen from outside."""
        self.shape(
            self.turned.upper_half,
            hatch=bool(self.turned.inner),
            role="thin",
            width=0.9,
        )
        face = [(z, -r) for step in self.turned.outer for z, r in step.points]
        start, end = self.turned.outer[0].start, self.turned.outer[-1].end
        self.shape([(start, 0.0), *face, (end, 0.0)], role="thin", width=0.9)
        for bore in self.turned.inner:
            for z, r in (bore.points[0], bore.points[-1]):
                self.line((z, 0), (z, r), "thin", 0.9)
        for side, ways in ((self.turned.outer, (1, -1)), (self.turned.inner, (1,))):
            for before, step in zip((None, *side), side, strict=False):
                for way in ways:
                    self._measured_edges(step, before, way)
        self.line((-0.06 * end, 0), (1.06 * end, 0), "centre", 1.0)

    def _measured_edges(
        self, step: ShapeStep, before: ShapeStep | None, way: int
    ) -> None:
        """Draw thick what a step's readings say."""
        if not self.is_measured(step.id):
            return
        self.shape([(z, way * r) for z, r in step.points], closed=False)
        (a, r), (b, e) = step.points[0], step.points[-1]
        if step in self.turned.outer:
            # its shoulder, or the face of the piece
            low = before.points[-1][1] if before is not None else 0.0
            self.line((a, way * min(low, r)), (a, way * max(low, r)))
        if step.ended:
            self.line((b, 0.0), (b, way * e))

    def _threads(self) -> None:
        """A thin line at the other crest of each thread; its pitch as a figure."""
        for step in (*self.turned.outer, *self.turned.inner):
            surface = self.piece.surface(step.id) if step.id else None
            if surface is None or not is_threaded(surface):
                continue
            pitch = self.measured.get(beside(surface, "thread-pitch"))
            (a, r), (b, _) = step.points[0], step.points[-1]
            deep = CREST * pitch.size if pitch else 0.1 * r
            outside = surface.kind == "outside"
            other = r - deep if outside else r + deep
            for way in (1, -1) if outside else (1,):
                self.line((a, way * other), (b, way * other), "outline", 0.8)

    # -- from the end ------------------------------------------------------

    def _end_view(self) -> None:
        for step in self.turned.outer:
            self._seen_outside(step)
        for step in self.turned.inner:
            innermost = step is self.turned.inner[-1]
            role, width = self._ink(step)
            radius = self._corner(step, 1)[1]
            self.circle(0, 0, radius, role, "ground" if innermost else "none", width)
        self.cross(0, 0, self.across / 2 + self.size / self._scale)
        for notch in self.notches:
            self._notch(notch)
        aside = self.p(self.across / 2, 0)[0]
        for flats in self.flats:
            for chord in flats.chords():
                self.line(*chord)
            aside += self.size + self.wide(flats.id) / 2
            top, low = self.p(0, flats.top)[1], self.p(0, flats.low)[1]
            self.upright(flats.id, aside, top, low, self.p(0, 0)[0])
            aside += self.wide(flats.id) / 2
        x, y = self.p(0, -self.across / 2)
        for row, pattern in enumerate(self.patterns):
            self.circle(0, 0, pattern.circle / 2, "centre", width=1.0)
            for px, py in pattern.centres:
                self.circle(px, py, pattern.hole / 2, "outline", "ground", 1.6)
            self._pattern_words(pattern, x, y + (1.9 + 1.6 * row) * self.size)

    def _ink(self, step: ShapeStep) -> tuple[Role, float]:
        """Role of a step: thick where it was read."""
        return ("outline", 1.8) if self.is_measured(step.id) else ("thin", 0.9)

    def _seen_outside(self, step: ShapeStep) -> None:
        """A step's outside from the end: a circle, or its flats."""
        role, width = self._ink(step)
        sides = self._sided(step)
        if not sides:
            self.circle(0, 0, self._corner(step, 1)[1], role, "panel", width)
            return
        corner = step.widest / math.cos(math.pi / sides)
        turns = [math.pi * (2 * i + 1) / sides for i in range(sides)]
        points = [(corner * math.sin(a), corner * math.cos(a)) for a in turns]
        self.shape(points, role=role, width=width)

    def _notch(self, notch: Notch) -> None:
        """A keyway, with its width above and what it was read across beside it."""
        steps = self.turned.inner if notch.bore else self.turned.outer
        host = steps[-1].widest if steps else self.turned.radius
        half, floor = notch.width / 2, notch.floor
        reach = math.sqrt(max(host**2 - half**2, 0.0))
        edge = [(-half, reach), (-half, floor), (half, floor), (half, reach)]
        self.shape(edge, role="ground", fill="ground", width=0.5)
        self.shape(edge, closed=False)
        rim = self.across / 2
        above = self.p(0, rim)[1] - 1.5 * self.size
        ends = self.p(-half, 0)[0], self.p(half, 0)[0]
        self.level(notch.id, above, *ends, self.p(0, max(floor, reach))[1])
        aside = self.p(-rim, 0)[0] - self.size - self.wide(notch.across_id) / 2
        top, bottom = self.p(0, floor)[1], self.p(0, -host)[1]
        self.upright(notch.across_id, aside, top, bottom, self.p(0, 0)[0])

    def _pattern_words(self, pattern: Pattern, x: float, y: float) -> None:
        """Note beneath the end view: number, size and circle of the holes."""
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
            parts.append((f"{within(name)} {text[1:]}", id))
        wide = sum(text_width(part, size) for part, _ in parts) + size
        at = min(x - wide / 2, self.board.width - wide)
        for part, tie in parts:
            long = text_width(part, size)
            self.board.text((at + long / 2, y), part, size, "measured", backed=True)
            if tie:
                surface = self.piece.surface(tie)
                assert surface is not None
                self.board.choose((at, y - size, long, 2 * size), tie, surface.name)
                self.drawn.add(tie)
            at += long + size
