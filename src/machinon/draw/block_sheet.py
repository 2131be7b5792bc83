"""The sheet of a block: three views with their dimensions."""

from collections.abc import Sequence
from functools import partial
from typing import NamedTuple

from machinon.core.piece.shadow import VIEWS
from machinon.draw.block_notes import BlockNotes
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import Place, Point
from machinon.draw.sheet_layout import LANE, NOTE
from machinon.draw.sheet_words import Note

GAP = 3.0  # figure heights between two views
SLENDER = 3.0  # times as long as it is wide


class _BlockFit(NamedTuple):
    """The scale of a block's drawing, and the room beside and over its views; px."""

    scale: float
    room: float  # for the views from left to right
    left: float
    top: float
    # of the column for what is written, none where it stands over all (`over`)
    words: float
    over: bool
    rows: dict[str, list[list[str]]]  # of dimensions, by their direction


class BlockSheet(BlockNotes):
    """Views from the front, from above and from the right, each size once."""

    def lay_out(self, anyhow: bool) -> bool:
        """Three views: from the front; from above over it and from the right at its
        right in third angle, below it and at its left in first."""
        size, box = self.size, self.made.body.shadow.box
        low, high = box[:3], box[3:]
        long, wide, tall = (float(b - a) for a, b in zip(low, high, strict=True))
        notes = self.note_lines()
        # in first angle what is not seen from above has its words over the upper views
        over_upper = [
            note
            for note in notes
            if self.first_angle and self.seen_at(note.feature).view != "top"
        ]
        beside_it = [note for note in notes if note not in over_upper]
        fitted = self._fitted((long, wide, tall), beside_it, over_upper)
        scale, rows, gap = fitted.scale, fitted.rows, GAP * size
        enough = scale * (wide + tall) > 9 * size
        if not (enough or anyhow):
            return False
        left, words, top = fitted.left, fitted.words, fitted.top
        if self.first_angle:
            spare = max(fitted.room - (long + wide) * scale - words, 0.0)
            aside = spare / 2 + size
            x0 = aside + wide * scale + left
            under, y0 = top, top + tall * scale + gap
        else:
            column = max(wide * scale, words)
            spare = max(fitted.room - long * scale - column, 0.0)
            x0, y0 = left + spare / 2, top
            under = y0 + wide * scale + gap
            aside = x0 + long * scale + gap

        def above(x: float, y: float) -> Point:
            return x0 + (x - low[0]) * scale, y0 + (high[1] - y) * scale

        def front(x: float, z: float) -> Point:
            return x0 + (x - low[0]) * scale, under + (high[2] - z) * scale

        def right(y: float, z: float) -> Point:
            return aside + (y - low[1]) * scale, under + (high[2] - z) * scale

        places = {"top": above, "front": front, "right": right}
        board, body = self.board, self.made.body
        for view in VIEWS:
            board.later(partial(draw_block_view, board, body, view, places[view]))
        # away from the view from above, on its free side
        edge, way = (y0 + wide * scale, 1) if self.first_angle else (y0, -1)
        self._level_rows(
            rows["x"],
            lambda x: above(x, 0.0)[0],
            lambda dimension: (
                above(0.0, dimension.at[0])[1] if dimension.at[0] else edge
            ),
            edge + way * 1.6 * size,
            way,
        )
        self._uprights(rows["y"], above, x0)
        self._uprights(rows["z"], front, x0)
        lines = len(rows["x"]) * LANE
        if not fitted.over:
            x, top = x0 + long * scale + gap, y0 + size
            floor = y0 + wide * scale + (0.0 if self.first_angle else gap - 1.2 * size)
            self.notes_beside(beside_it, places, x, top, floor)
        elif self.first_angle:
            self.notes_off(beside_it, places, edge + (lines + 1.2) * size, below=True)
        else:
            lines += len(notes) * NOTE + 0.8
            self.notes_off(notes, places, y0 - lines * size)
        if self.first_angle:
            self.notes_off(over_upper, places, 3.4 * size)
        self._title_and_foot()
        return enough

    def _fitted(
        self,
        sizes: tuple[float, float, float],
        beside_it: Sequence[Note],
        over_upper: Sequence[Note],
    ) -> _BlockFit:
        """The scale of the views; sizes: of the block, mm; its notes stand right of the
        upper view, over the right one, or above all, whichever leaves more for the
        views."""
        size, (long, wide, tall) = self.size, sizes
        by_kind: dict[str, list[str]] = {"x": [], "y": [], "z": []}
        for key, dimension in self.drawn.items():
            by_kind[dimension.kind].append(key)
        rows = {
            kind: self._lanes_along(self._reaches(keys, 0.0))
            for kind, keys in by_kind.items()
        }
        gap = GAP * size
        left = max(self._room_beside(rows[kind]) for kind in "yz")
        room_x = self.board.width - left - gap - 2 * size
        words = max((self._note_wide(note) for note in beside_it), default=0.0)
        over_it = len(over_upper) * NOTE * size
        above_all = (len(beside_it) + len(over_upper)) * NOTE * size
        for _ in range(2):  # how many rows there are depends on the scale, and back
            lanes = len(rows["x"]) * LANE * size
            room_y = self._floor() - lanes - gap - 5 * size - over_it
            fits = room_x / (long + wide)
            beside = min(fits, room_y / (wide + tall))
            if self.first_angle:  # the words have a column of their own, or stand below
                beside = min((room_x - words) / (long + wide), beside)
                below_all = len(beside_it) * NOTE * size
                over = min(fits, (room_y - below_all) / (wide + tall))
            else:
                if beside * wide < words:
                    beside = min((room_x - words) / long, beside)
                over = min(fits, (room_y - above_all) / (wide + tall))
            # from beside what is long leaders would run through all its other holes
            above_it = over > beside * (0.75 if long > SLENDER * wide else 1.0)
            scale = max(over if above_it else beside, 0.05)
            rows["x"] = self._lanes_along(self._reaches(by_kind["x"], scale))
        # above the views: the title, and the lengths where the upper one is that from
        # above
        top = 4.0 * size + (over_it if self.first_angle else lanes)
        if above_it:
            top, words = top + above_all * (not self.first_angle), 0.0
        return _BlockFit(scale, room_x, left, top, words, above_it, rows)

    def _room_beside(self, rows: list[list[str]]) -> float:
        """Room that the upright dimensions take beside their view."""
        return sum(
            (max(self._wide(key) for key in row) + 0.5 * self.size for row in rows),
            2 * self.size,
        )

    def _uprights(self, rows: list[list[str]], place: Place, x0: float) -> None:
        x = x0
        ends = {key: self._ends(key) for row in rows for key in row}
        spans = {
            key: (place(0, high)[1], place(0, low)[1])
            for key, (low, high) in ends.items()
        }
        for n, row in enumerate(rows):
            step = max(self._wide(key) for key in row)
            x -= step / 2 + 0.5 * self.size
            past = [y for outer in rows[n + 1 :] for key in outer for y in spans[key]]
            for key in row:
                dimension = self.drawn[key]
                near = place(dimension.at[0], 0)[0] if dimension.at[0] else x0
                others = [spans[o] for o in row if o != key]
                at = self._figure_at(key, spans[key], past, others)
                self._upright(key, x, spans[key], near, at=at)
            x -= step / 2

    def _figure_at(
        self,
        key: str,
        span: tuple[float, float],
        past: Sequence[float],
        others: Sequence[tuple[float, float]],
    ) -> float:
        """The place of an upright's figure on its line: in the middle, unless a line of
        another passes there and there is room within it or next to it; past: where
        those are, others: from where to where its row is taken, px."""
        (top, bottom), half = span, 0.8 * self.size
        if self.figures[key].small or not past:
            return 0.5
        long = max(bottom - top, 1.0)
        beside = (2.2 * self.size + half) / long
        for at in (0.5, 0.25, 0.75, 1 + beside, -beside):
            y = top + at * long
            within = 0 < at < 1
            crossed = any(abs(y - line) < half for line in past)
            free = within or (
                min(past) + half < y < max(past) - half
                and not any(a - 2 * half < y < b + 2 * half for a, b in others)
            )
            arrows = at == 0.5 or not within or min(at, 1 - at) * long > 2 * half
            if free and arrows and not crossed:
                return at
        return 0.5
