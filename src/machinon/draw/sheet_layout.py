"""The common ground of all sheets: figures, foot and notes."""

from collections.abc import Callable, Mapping, Sequence, Set
from typing import NamedTuple

from msgspec.structs import replace

from machinon.core.piece.feature import Dimension
from machinon.core.piece.made import Made
from machinon.core.piece.turned_features import Ball
from machinon.draw.drawing import NEAR, SMALL, Board, Point, Spot
from machinon.draw.lettering import text_width
from machinon.draw.sheet_figures import (
    SheetFigure,
    edges_said,
    feature_of,
    on_one_line,
    title_said,
)
from machinon.draw.sheet_words import Note, notes_of

ROW = 2.6  # figure heights of a row of sizes along the foot
LANE = 2.3  # figure heights from one dimension line to the next
NOTE = 1.7  # figure heights of a line written at a hole
# figure heights out of their usual place that words stand, for their leader's sake
ASIDE = (0, -1, 1, -2, 2, -3, 3, -5, 5, -8, 8, -12, 12, -17, -22, -28, -34)
_NOWHERE = Dimension("hole", 0.0, 0.0)


class PlacedNote(NamedTuple):
    """A note, and where on the page its leader ends."""

    at: Point
    note: Note
    # of the circle about that place that it ends on, px; None where it ends within an
    # outline
    rim: float | None


class Words(NamedTuple):
    """The place of a note, px: its middle, the end of its leader, and half its
    width."""

    middle: float
    lead: float
    half: float


class Reach(NamedTuple):
    """How far a length's dimension line and figure reach along the piece, mm."""

    low: float
    high: float
    length: float  # the dimension itself
    before: bool = False  # its figure stands beside it at the left


class SheetLayout:
    """One layout of a sheet; `aside`: sizes that stand along the foot."""

    def __init__(
        self,
        made: Made,
        places: dict[str, Dimension],
        figures: dict[str, SheetFigure],
        board: Board,
        aside: Set[str],
        first_angle: bool = False,
        inch: bool = False,
    ) -> None:
        self.made, self.places = made, places
        self.figures, self.board = figures, board
        self.inch = inch
        self.first_angle = first_angle
        self.size = board.size
        self.leads: list[tuple[Point, Point]] = []  # leaders drawn to notes
        self._wides: dict[str, float] = {}  # of figures, as they are asked for
        self._asides: dict[str, float] = {}
        self.foot = [key for key in figures if key not in self.places or key in aside]
        self.notes = [
            key
            for key, dimension in self.places.items()
            if dimension.kind == "hole" and key not in aside
        ]
        self.drawn = {
            key: dimension
            for key, dimension in self.places.items()
            if dimension.kind != "hole" and key not in aside
        }
        for first, *more in on_one_line(self.drawn, figures):
            for key in more:
                del self.drawn[key]
            if more:
                names = ", and ".join(figures[key].name for key in (first, *more))
                both = replace(figures[first], name=names)
                self.figures = {**self.figures, first: both}

    def _sign(self, key: str) -> str:
        """The sign before a figure: of a round, of a ball; ISO 129."""
        if self.places.get(key, _NOWHERE).kind != "diameter" or key.endswith(".thread"):
            return ""
        ball = isinstance(self.made.body.feature(feature_of(key)), Ball)
        return "S⌀" if ball else "⌀"

    def _wide(self, key: str) -> float:
        """Width of a diameter's figure with room beside it, px."""
        if key not in self._wides:
            shown = self.figures[key]
            figure = text_width(self._sign(key) + shown.text, self.size)
            figure += shown.room(self.size)
            small = text_width(shown.small, SMALL * self.size)
            self._wides[key] = max(figure, small) + self.size
        return self._wides[key]

    def _abreast(self) -> int:
        widest = max(
            (
                max(
                    text_width(self.figures[key].in_a_row, self.size),
                    text_width(self.figures[key].name, SMALL * self.size),
                )
                for key in self.foot
            ),
            default=1.0,
        )
        return max(int(self.board.width / (widest + 1.6 * self.size)), 1)

    def _floor(self) -> float:
        """Lowest line that the views may use."""
        rows = -(-len(self.foot) // self._abreast()) if self.foot else 0
        return self.board.height - rows * ROW * self.size

    def _title_and_foot(self) -> None:
        """Draws the title with metal and stock, and the sizes without a place."""
        made, size = self.made, self.size
        says = title_said(made, self.inch)
        self.board.text((0.6 * size, 1.1 * size), says, size, "faint", "left")
        edges, small = edges_said(made, self.inch), SMALL * size
        self.board.text((0.6 * size, 2.3 * size), edges, small, "faint", "left")
        shown = (self.figures[key] for key in self.foot)
        rows = [
            (figure.in_a_row, figure.name, figure.role, figure.key) for figure in shown
        ]
        self.board.along_the_foot(rows, self._abreast(), ROW)

    def _level_rows(
        self,
        rows: Sequence[Sequence[str]],
        across: Callable[[float], float],
        begins: Callable[[Dimension], float],
        y: float,
        way: int = 1,
    ) -> None:
        """Lengths in rows from a height on, down or, way -1, up; across: where on the
        page a place along the piece is; begins: the height that a length begins at."""
        keys = [key for row in rows for key in row]
        reaches = self._reaches(keys, abs(across(1.0) - across(0.0)))
        for n, row in enumerate(rows):
            outer = [
                across(end) for o in rows[n + 1 :] for k in o for end in self._ends(k)
            ]
            for key in row:
                low, high = sorted(map(across, self._ends(key)))
                figure = self.figures[key]
                before = reaches[key].before
                shift = self._clear_of(key, (low, high), outer)
                self.board.level(
                    y, low, high, begins(self.drawn[key]), figure.text, figure.small,
                    figure.role, key, figure.name, figure.number, figure.mark, before,
                    shift,
                )  # fmt: skip
            y += way * LANE * self.size

    def _clear_of(
        self, key: str, span: tuple[float, float], outer: Sequence[float]
    ) -> float:
        """Shift of a figure to the right of its line's middle that keeps it clear of
        longer ones' lines, px."""
        (low, high), half = span, self._beside(key) / 2 - 0.9 * self.size
        middle, room = (low + high) / 2, (high - low) / 2 - 1.25 * self.size - half
        places = [0.0, *(x + side * half - middle for x in outer for side in (-1, 1))]
        for shift in sorted(places, key=abs):
            at = middle + shift
            if abs(shift) <= room and all(abs(x - at) > half - 0.1 for x in outer):
                return shift
        return 0.0

    def _upright(
        self,
        key: str,
        x: float,
        ends: tuple[float, float],
        from_x: float,
        sign: str = "",
        at: float = 0.5,
    ) -> None:
        """A size as an upright dimension; ends: from the top, px; at: where on the
        line its figure stands."""
        figure = self.figures[key]
        self.board.upright(
            x, *ends, from_x, sign + figure.text, figure.small, figure.role, key,
            figure.name, figure.number, figure.mark, at=at,
        )  # fmt: skip

    def _lanes_along(self, reaches: Mapping[str, Reach]) -> list[list[str]]:
        """Lengths in rows in which none lies over another, the shortest nearest."""
        rows: list[list[str]] = []
        for key in sorted(reaches, key=lambda name: reaches[name].length):
            a, b = reaches[key].low + 0.01, reaches[key].high - 0.01
            for row in rows:
                if all(b <= reaches[o].low or a >= reaches[o].high for o in row):
                    row.append(key)
                    break
            else:
                rows.append([key])
        return rows

    def _reaches(self, keys: Sequence[str], scale: float) -> dict[str, Reach]:
        """The reach of each length among the others; scale: px a mm, nought while it is
        not known.

        One too short for its figure has that beside it: at the right, or at the left
        where fewer lines of longer ones come down.
        """
        ends = {key: self._ends(key) for key in keys}
        found = {}
        for key, (a, b) in ends.items():
            beside = self._beside(key)
            if not scale or (b - a) * scale >= beside + 0.2 * self.size:
                found[key] = Reach(a, b, b - a)
                continue
            beside, out = beside / scale, 1.3 * self.size / scale
            longer = [
                end
                for both in ends.values()
                if both[1] - both[0] > b - a
                for end in both
            ]
            left = sum(a - beside < end < a - 1e-6 for end in longer)
            if left < sum(b + 1e-6 < end < b + beside for end in longer):
                found[key] = Reach(a - beside, b + out, b - a, before=True)
            else:
                found[key] = Reach(a - out, b + beside, b - a)
        return found

    def _ends(self, key: str) -> tuple[float, float]:
        """A length from its low end to its high one, mm."""
        dimension = self.drawn[key]
        return min(dimension.start, dimension.end), max(dimension.start, dimension.end)

    def _beside(self, key: str) -> float:
        """Reach of a figure that stands beside its line, past the line's end, px."""
        if key not in self._asides:
            figure = self.figures[key]
            text = text_width(figure.text, self.size) + figure.room(self.size)
            if figure.small:
                text += text_width(figure.small, SMALL * self.size) + 0.5 * self.size
            self._asides[key] = 2.3 * self.size + text
        return self._asides[key]

    def note_lines(self) -> list[Note]:
        """The notes at holes and at features without a line."""
        return notes_of(self.made, self.figures, self.notes, self.inch)

    def _stacked(self, placed: list[PlacedNote]) -> list[PlacedNote]:
        """The notes from the top down, so that no leader runs through those under it;
        else the leftmost first."""
        left = sorted(placed, key=lambda placed: placed.at[0])
        found: list[PlacedNote] = []

        def through(note: PlacedNote) -> tuple[int, int]:
            # in their usual places; and in those left of their own leaders as well
            lead = self._words(note).lead
            met = both = 0
            for placed in left:
                if placed is note:
                    continue
                usual, ended = (
                    self._words(placed),
                    self._words(placed, self._left_of(placed)),
                )
                met += abs(lead - usual.middle) < usual.half
                apart = max(abs(lead - usual.middle), abs(lead - ended.middle))
                both += apart < usual.half
            return met, both

        while left:
            found.append(min(left, key=through))
            left.remove(found[-1])
        return found

    def _left_of(self, placed: PlacedNote) -> float:
        """Shift of a note that ends before its leader."""
        return -self._note_wide(placed.note) - self.size

    def _words(self, placed: PlacedNote, aside: float = 0.0) -> Words:
        """The place of a note; aside: out of its usual place, px."""
        x = placed.at[0]
        half = (self._note_wide(placed.note) - self.size) / 2
        most = self.board.width - half - 4
        middle = min(max(x + half + self.size + aside, half + 4), most)
        half += 2
        return Words(middle, min(max(x, middle - half), middle + half), half)

    def _note(self, placed: PlacedNote, y: float) -> None:
        """Written where its leader comes to it past the figures that stand already, and
        no leader that is drawn runs through it."""
        usual = [step * self.size for step in ASIDE]
        # as usual in the end, where no way is free
        for aside in (*usual, self._left_of(placed), 0.0):
            words = self._words(placed, aside)
            end = self._led_up_to(placed.at, words, y)
            half, high = words.half, 0.7 * self.size
            place = Spot((words.middle - half, y - high, 2 * half, 2 * high), "", "")
            met = any(place.crossed(*lead, NEAR / 2) for lead in self.leads)
            if not met and not self._runs_through(placed.at, end):
                break
        self.leads.append((placed.at, end))
        self.board.leader(placed.at, end, placed.rim)
        self._written(placed.note, (words.middle, y))

    def _led_up_to(self, at: Point, words: Words, y: float) -> Point:
        """The end of the leader of words at a height."""
        # then the leader ends under or over the words
        across = abs(at[0] - words.middle) < words.half
        short = 0.7 * self.size * across
        return words.lead, y + (short if at[1] > y else -short)

    def _runs_through(self, at: Point, end: Point) -> bool:
        """Whether a leader would run through a figure that stands already."""
        return any(spot.crossed(at, end, NEAR / 2) for spot in self.board.figures)

    def _written(self, note: Note, at: Point, flush: bool = False) -> None:
        """Writes a note, tied to the first of its sizes; flush: with those under it at
        the left."""
        keys = note.keys
        figure = self.figures[keys[0]]
        number = next((n for k in keys if (n := self.figures[k].number)), 0)
        mark = next((m for k in keys if (m := self.figures[k].mark)), None)
        role = "stop" if mark else figure.role
        name = figure.name
        if len(keys) > 1:
            name += f", and {len(keys) - 1} more"
        self.board.label(
            at, note.text, "", role, keys[0], name, number, mark, flush=flush
        )

    def _note_wide(self, note: Note) -> float:
        """Width of a note, with the fit's number."""
        lead = max(self.figures[key].room(self.size) for key in note.keys)
        return text_width(note.text, self.size) + lead + self.size
