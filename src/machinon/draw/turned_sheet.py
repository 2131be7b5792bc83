"""The sheet of what turns: its half section, and the right end beside it."""

from collections.abc import Sequence
from typing import Literal, NamedTuple

from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import Flats, Keyway, ToTheMiddle
from machinon.core.piece.turned_features import Bevel, Centre, EdgeRound, Knurl, Sloping
from machinon.draw.drawing import Place, Point
from machinon.draw.end_view import draw_end_view
from machinon.draw.half_section import (
    draw_half_section,
    flats_seen,
    mouth_seen,
    turned_in,
)
from machinon.draw.sheet_layout import LANE, NOTE, PlacedNote, SheetLayout
from machinon.draw.sheet_words import Note

FACING = 180.0  # degrees at which a cross hole looks at whoever reads the sheet
SLENDER = 0.45  # of its length: what is thinner has its figures over and under it
STEP = 2.4  # figure heights from such a figure to the one over it

Stand = Literal["staggered", "led", "abreast"]  # how the diameters' figures stand


class Lane(NamedTuple):
    """Where the dimension line of a diameter stands beside the piece."""

    key: str
    out: float  # from the end of the piece, px
    half: float  # of the figure's width, px
    level: int = 0  # rows its figure stands above the piece, negative below it


class _TurnedFit(NamedTuple):
    """The scale of a turned piece's drawing, px a mm, and the room beside and over
    it."""

    scale: float
    room_x: float
    room_y: float
    left: float
    right: float
    over: float
    lanes: tuple[list[Lane], list[Lane]]
    below: list[list[str]]


class TurnedSheet(SheetLayout):
    """Half section and end view, diameters beside them and lengths below."""

    def lay_out(self, anyhow: bool) -> bool:
        """Half section, and the right end seen beside it: at the right in third angle,
        at the left in first."""
        body, size = self.made.body, self.size
        first, last = body.ends
        wide = body.largest
        notes = self.note_lines()
        top = (len(notes) * NOTE + 3.2) * size
        end_view = bool(notes) or any(d.inside for d in self.drawn.values())
        share = (last - first) + (wide * 1.15 if end_view else 0.0)
        slender = wide < SLENDER * (last - first)
        ways: tuple[Stand, ...] = ("led", "abreast") if slender else ("staggered",)
        fits = [self._fitted(way, top, share) for way in ways]
        scale, room_x, room_y, left, right, over, lanes, below = max(
            fits, key=lambda fitted: fitted.scale
        )
        # smaller figures give a long thin piece no more height
        slim = scale * wide > 3 * size and room_x > 0.7 * self.board.width
        enough = scale * wide > 7 * size
        if not (enough or slim or anyhow):
            return False
        spare = max(room_x - share * scale, 0.0)
        across = wide * 1.15 * scale if end_view and self.first_angle else 0.0
        x0 = left + spare / 2 + across - first * scale
        axis = top + over + max(room_y, wide * scale) / 2

        def place(z: float, r: float) -> Point:
            return x0 + z * scale, axis - r * scale

        self.board.later(lambda: draw_half_section(self.board, body, place))
        self._diameters(lanes, place, first, last)
        self._level_rows(
            below,
            lambda z: place(z, 0.0)[0],
            lambda dimension: place(0.0, -dimension.at[0])[1],
            axis + wide / 2 * scale + 1.6 * size,
        )
        if end_view:
            x = x0 + last * scale + right + wide / 2 * scale
            if self.first_angle:
                x = spare / 2 + size + 0.54 * wide * scale
            self.board.later(lambda: draw_end_view(self.board, body, (x, axis), scale))
            self._notes(notes, (x, axis), scale, top, place)
        else:
            self._notes(notes, place((first + last) / 2, 0.0), scale, top, place)
        self._title_and_foot()
        return enough or (slim and not self.board.crowded)

    def _fitted(self, way: Stand, top: float, share: float) -> _TurnedFit:
        """The scale of the piece, where its diameters stand so; top: room above it, px;
        share: what is drawn abreast, mm."""
        size, (first, last) = self.size, self.made.body.ends
        sides = self._lanes_across(first, last)
        along = [
            key for key, dimension in self.drawn.items() if dimension.kind == "along"
        ]
        below, over_only = self._lanes_along(self._reaches(along, 0.0)), (False, False)
        for _ in range(2):  # how many rows there are depends on the scale, and back
            lanes = (
                self._lanes(sides[0], way, over_only[0]),
                self._lanes(sides[1], way, over_only[1]),
            )
            left, right = (
                max((lane.out + lane.half for lane in side), default=0.0) + size
                for side in lanes
            )
            right += size
            room_x = self.board.width - left - right - 3 * size
            levels = [lane.level for lane in (*lanes[0], *lanes[1])]
            over = self._led(max(levels, default=0)) + size
            under = self._led(-min(levels, default=0)) + size
            under = max((len(below) * LANE + 1.5) * size, under)
            room_y = self._floor() - top - over - under
            scale = max(min(room_x / share, room_y / self.made.body.largest), 0.05)
            reaches, before = self._reaches(along, scale), (below, over_only)
            below = self._lanes_along(reaches)
            # a length may have its figure where one would stand under the piece
            over_only = (
                any(reach.low < first - 1e-6 for reach in reaches.values()),
                any(reach.high > last + 1e-6 for reach in reaches.values()),
            )
            if (below, over_only) == before:
                break
        return _TurnedFit(scale, room_x, room_y, left, right, over, lanes, below)

    def _lanes_across(self, first: float, last: float) -> tuple[list[str], list[str]]:
        """Diameters at the left and at the right, the smallest nearest to the piece."""
        middle = (first + last) / 2
        sides: tuple[list[str], list[str]] = ([], [])
        for key, dimension in sorted(
            self.drawn.items(), key=lambda item: item[1].at[0]
        ):
            if dimension.kind == "diameter":
                sides[(dimension.start + dimension.end) / 2 > middle].append(key)
        return sides

    def _lanes(self, keys: Sequence[str], way: Stand, over_only: bool) -> list[Lane]:
        """The places of a side's diameters, the smallest nearest.

        Neighbours have their figures at two heights, so that each only keeps clear of
        the other's line. On a slender piece there is no room for that: they stand over
        it and under it by turns, or over it alone, the next ones further out; or
        abreast of each other.
        """
        size, halves = self.size, [self._wide(key) / 2 for key in keys]
        found: list[Lane] = []
        for n, (key, wide) in enumerate(zip(keys, halves, strict=True)):
            before = found[-1].out if found else 0.0
            beside = halves[n - 1] if n else 0.0
            if way != "led":
                apart = wide + beside if way == "abreast" else max(wide, beside)
                found.append(Lane(key, before + apart + 0.8 * size, wide))
                continue
            turns = 1 if over_only else 2
            under = bool(n % turns)
            clear = [wide + 0.5 * size] if under else []  # of the lengths beside it
            clear += [  # of the figures that its line is led along
                lane.out + lane.half + 0.6 * size
                for lane in found
                if (lane.level < 0) == under
            ]
            level = 1 + n // turns
            out = max(before + 1.8 * size, *clear, 0.0)
            found.append(Lane(key, out, wide, -level if under else level))
        return found

    def _led(self, level: int) -> float:
        """Distance of a figure above or below a slender piece."""
        return (1.6 + (level - 1) * STEP) * self.size if level > 0 else 0.0

    def _diameters(
        self,
        lanes: tuple[list[Lane], list[Lane]],
        place: Place,
        first: float,
        last: float,
    ) -> None:
        size = self.size
        for side, beside in zip((-1, 1), lanes, strict=True):
            edge = place(first if side < 0 else last, 0.0)[0]
            for n, lane in enumerate(beside):
                key = lane.key
                dimension = self.drawn[key]
                x = edge + side * lane.out
                near = (
                    min(dimension.start, dimension.end)
                    if side < 0
                    else max(dimension.start, dimension.end)
                )
                top, bottom = (
                    place(near, dimension.at[0])[1],
                    place(near, -dimension.at[0])[1],
                )
                tall = max(bottom - top, 1)
                # staggered, so that no figure stands on its neighbour's line
                at = 0.5 + (0.5 - n % 2) * min(3.4 * size / tall, 0.5)
                if lane.level:
                    out = self._led(abs(lane.level))
                    out += place(0.0, -self.made.body.largest / 2)[1] - place(0.0, 0)[1]
                    at = 0.5 + (out if lane.level < 0 else -out) / tall
                self._upright(
                    key, x, (top, bottom), place(near, 0.0)[0], self._sign(key), at
                )

    def _notes(
        self,
        notes: Sequence[Note],
        centre: Point,
        scale: float,
        top: float,
        section: Place,
    ) -> None:
        """Each on a leader from its first hole, stacked above the views."""
        placed = []
        for note in notes:
            at, rim = self.led_to(note.feature, centre, scale, section)
            placed.append(PlacedNote(at, note, rim))
        y = top - (len(notes) * NOTE - 0.4) * self.size
        for label in self._stacked(placed):
            self._note(label, y)
            y += NOTE * self.size

    def led_to(
        self, name: str, centre: Point, scale: float, section: Place
    ) -> tuple[Point, float | None]:
        """Place on the page of a feature that has a note; and the radius of the circle
        about it that a leader ends on, px, None where it ends within an outline."""
        feature = self.made.body.feature(name)
        if isinstance(feature, Holes) and feature.block is None:
            # the uppermost of them, which no leader has to cross the piece to
            px, py = max(feature.points, key=lambda p: (round(p[1], 3), p[0]))
            at = centre[0] + px * scale, centre[1] - py * scale
            return at, feature.hole.rim / 2 * scale
        if isinstance(feature, Keyway):
            return (centre[0], centre[1] - feature.floor * scale), 0.0
        if isinstance(feature, CrossHoles):
            if abs(feature.angle - FACING) < 1e-6:  # in the half seen from outside
                return section(feature.z, -feature.hole.diameter / 4), None
            if feature not in turned_in(self.made.body):
                seen = mouth_seen(feature)
                if seen is not None:
                    return section(feature.z, seen), None
            return section(feature.z, feature.diameter / 2), 0.0
        if isinstance(feature, Sloping):
            middle = (feature.start_diameter + feature.end_diameter) / 4
            return section((feature.start + feature.end) / 2, middle), 0.0
        if isinstance(feature, EdgeRound):
            return section(*feature.at(45.0)), 0.0
        if isinstance(feature, Bevel):
            return section(*feature.middle), 0.0
        if isinstance(feature, Centre):
            return section(feature.z, feature.mouth / 2), 0.0
        if isinstance(feature, ToTheMiddle):
            middle = (feature.start + feature.end) / 2
            return section(middle, -feature.width / 2), 0.0
        if isinstance(feature, Flats):
            # the first is looked at square on, unless it cuts nothing
            faces = flats_seen(feature, self.made.body)
            low = min(faces[0]) if faces else -feature.across / 2
            return section((feature.start + feature.end) / 2, low / 2), None
        if isinstance(feature, Knurl):
            middle = (feature.start + feature.end) / 2
            return section(middle, -feature.diameter / 4), None
        return centre, None
