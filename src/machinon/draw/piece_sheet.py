"""The drawing of any piece: its views, each size once, nothing missing.

Sizes that are drawn stand as dimensions; what is written at holes stands on leaders;
the rest stands along the foot. Every figure is tied to its size, so that it can be
changed where it stands.
"""

import math
from collections.abc import Callable, Container, Mapping, Sequence, Set
from typing import Literal, NamedTuple

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.in_inches import in_inches
from machinon.core.piece.block_features import FlankedSlot, Outline, RoundSeat, Slope
from machinon.core.piece.family import Made, Value, spoken
from machinon.core.piece.feature import Dimension
from machinon.core.piece.hole_features import (
    Arc,
    CrossHoles,
    Grid,
    Holes,
    turned_from,
)
from machinon.core.piece.hole_features import Circle as HoleCircle
from machinon.core.piece.shadow import VIEWS
from machinon.core.piece.turned_features import (
    Flats,
    Keyway,
    Knurl,
    Slits,
    Sloping,
)
from machinon.core.tapers.tapers import taper_of
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import (
    NEAR,
    SMALL,
    Board,
    Drawing,
    Point,
    Spot,
    text_width,
    uncrowded,
)
from machinon.draw.end_view import draw_end_view
from machinon.draw.half_section import draw_half_section
from machinon.draw.sheet_figures import (
    Figure,
    edges_said,
    feature_of,
    figure_of,
    figures_of,
    left_out,
    length_said,
    on_one_line,
    places_of,
    title_said,
)

Placing = Callable[[float, float], Point]  # a view's point on the page
Placed = tuple[Point, str, list[str]]  # what is written at a hole: where that is

FACING = 180.0  # degrees at which a cross hole looks at whoever reads the sheet
ROW = 2.6  # figure heights of a row of sizes along the foot
LANE = 2.3  # figure heights from one dimension line to the next
SLENDER = 0.45  # of its length: what is thinner has its figures over and under it
STEP = 2.4  # figure heights from such a figure to the one over it
NOTE = 1.7  # figure heights of a line written at a hole
# figure heights out of their usual place that words stand, for their leader's sake
ASIDE = (0, -1, 1, -2, 2, -3, 3, -5, 5, -8, 8, -12, 12, -17, -22, -28, -34)
_NOWHERE = Dimension("hole", 0.0, 0.0)
# how a measure is said that has no line of its own
SAID = {
    "count": "{} ×",
    "across": "{} across",
    "width": "{} wide",
    "depth": "{} deep",
    "pitch": "pitch {}",
    "pins": "{} between pins",
    "half_angle": "{} to the axis",
    "angle": "{} between flanks",
    "lean": "{} to the base",
    "rise": "{} high",
    "arc": "arc of radius {}",
    "reach": "{} round the nut",
}


def piece_sheet(
    made: Made,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
    paper: bool = False,
    stale: Set[str] = frozenset(),
    first_angle: bool = False,
    was: Mapping[str, Value] | None = None,
) -> Drawing:
    """The sheet of a piece on a page of that size, px.

    size: height of the figures, less where they would lie on each other; paper:
    without the sizes that would only bring a feature it has not; stale: sizes that were
    cut as they are no longer drawn; first_angle: what is seen from above stands below,
    what is seen from the right at the left; else as in third angle; was: sizes as they
    were drawn before, said beside those that differ.
    """
    places = places_of(made)
    figures = figures_of(made, inch, places)
    for key in stale & figures.keys():
        figures[key] = replace(figures[key], role="stop")
    for key in changed_since_then(made, was or {}):
        said = figure_of(made, replace(made.sizes[key], value=(was or {})[key]), inch)
        figures[key] = replace(figures[key], small=f"was {said.text}", role="cut")
    if paper:
        without = left_out(made)
        figures = {k: one for k, one in figures.items() if feature_of(k) not in without}

    def laid_out(share: float, aside: Set[str]) -> tuple[Drawing, bool]:
        board = Board(width, height, size * share)
        sheet = _Sheet(made, places, figures, board, aside, first_angle, inch)
        enough = sheet.turned() if made.body.turns else sheet.block()
        return board.done(), enough

    return uncrowded(laid_out, frozenset(), places.keys() - made.sizes.keys())


def changed_since_then(made: Made, was: Mapping[str, Value]) -> list[str]:
    """The sizes of a piece that were drawn otherwise, in their order."""

    def same(a: Value, b: Value) -> bool:
        if isinstance(a, int | float) and isinstance(b, int | float):
            return abs(a - b) < 1e-6
        return a == b

    return [
        k for k, one in made.sizes.items() if k in was and not same(one.value, was[k])
    ]


class MeasuredLine(Struct, frozen=True):
    """A dimension in the drawing's own millimetres: from a to b, its line at base.

    text: what is written, `<>` standing for the measured length; angle: 0 or 90.
    """

    a: Point
    b: Point
    base: Point
    angle: float
    text: str


def sheet_in_mm(
    made: Made, first_angle: bool = False
) -> tuple[Drawing, list[MeasuredLine], list[tuple[Point, str, float]]]:
    """The views at 1:1 in mm with y up, their dimensions, and what is written.

    For formats that carry true dimensions.
    """
    board = Board(0.0, 0.0, 3.0)
    body = made.body
    places = places_of(made)
    figures = figures_of(made, False, places)
    lines: list[MeasuredLine] = []
    notes: list[tuple[Point, str, float]] = []
    sheet = _Sheet(made, places, figures, board, frozenset())
    if body.turns:
        draw_half_section(board, body, lambda z, r: (z, r))
        half, (first, last) = body.largest / 2, body.ends
        x = first - half * 2.6 - 60 if first_angle else last + half * 2.6 + 60
        draw_end_view(board, body, (x, 0.0), 1.0)
        _turned_lines(sheet, lines, first, last, half)
        top = half + 20.0
    else:
        box = body.shadow.box
        long, wide, tall = (box[i + 3] - box[i] for i in range(3))
        # room for the lines of dimensions beside and below
        over = -(wide + 30) if first_angle else tall + 30
        beside = -(wide + 90) if first_angle else long + 30
        views: dict[str, Placing] = {
            "top": lambda x, y: (x, y + over),
            "front": lambda x, z: (x, z),
            "right": lambda y, z: (y + beside, z),
        }
        for view in VIEWS:
            draw_block_view(board, body, view, views[view])
        _block_lines(sheet, lines, over)
        top = max(tall, over + wide) + 30.0
    written = [text for _, text, _ in sheet.note_lines()]
    for text in (title_said(made), edges_said(made), *written, *_rest(sheet)):
        if text:
            notes.append(((0.0, top), text, 3.0))
            top += 5.0
    return board.done(), lines, notes


def _rest(sheet: "_Sheet") -> list[str]:
    return [
        f"{sheet.figures[key].name}: {sheet.figures[key].text}" for key in sheet.foot
    ]


def _said(figure: Figure, sign: str = "") -> str:
    tail = f" ({figure.small})" if figure.small else ""
    return f"{sign}(<>)" if figure.aside else f"{sign}<>{tail}"


def _turned_lines(
    sheet: "_Sheet", lines: list[MeasuredLine], first: float, last: float, half: float
) -> None:
    out = {-1: first - 10.0, 1: last + 10.0}
    under = -half - 10.0
    for key, one in sorted(sheet.drawn.items(), key=lambda item: item[1].at[0]):
        figure, r = sheet.figures[key], one.at[0]
        if one.kind == "diameter":
            side = 1 if (one.start + one.end) / 2 > (first + last) / 2 else -1
            z = max(one.start, one.end) if side > 0 else min(one.start, one.end)
            thread = key.endswith(".thread")
            text = _said(figure, "%%c")
            if thread:
                text = ", ".join(filter(None, (figure.text, figure.small)))
            lines.append(MeasuredLine((z, -r), (z, r), (out[side], 0.0), 90, text))
            out[side] += side * 9.0
        elif one.kind == "along":
            a, b = sorted((one.start, one.end))
            lines.append(MeasuredLine((a, -r), (b, -r), (a, under), 0, _said(figure)))
            under -= 7.0


def _block_lines(sheet: "_Sheet", lines: list[MeasuredLine], above: float) -> None:
    """above: how far up the view from above lies."""
    left, low = -10.0, min(above, 0.0) - 10.0
    for key, one in sheet.drawn.items():
        text = _said(sheet.figures[key])
        if one.kind == "x":
            y = above + one.at[0]
            lines.append(MeasuredLine((one.start, y), (one.end, y), (0, low), 0, text))
            low -= 7.0
        else:
            lift = above if one.kind == "y" else 0.0
            a, b = (one.at[0], one.start + lift), (one.at[0], one.end + lift)
            lines.append(MeasuredLine(a, b, (left, 0.0), 90, text))
            left -= 9.0


Stand = Literal["staggered", "led", "abreast"]  # how the diameters' figures stand


class Lane(NamedTuple):
    """A diameter's line beside the piece: how far out, and half as wide as its figure,
    px; level: of that figure, how many it is over the piece, less than none under it,
    0 on its line."""

    key: str
    out: float
    half: float
    level: int = 0


class _Fitted(NamedTuple):
    """How large what turns is drawn, px a mm, and what is taken beside and over it."""

    scale: float
    room_x: float
    room_y: float
    left: float
    right: float
    over: float
    lanes: tuple[list[Lane], list[Lane]]
    below: list[list[str]]


class _Sheet:
    """One layout of a sheet; `aside`: sizes that stand along the foot."""

    def __init__(
        self,
        made: Made,
        places: dict[str, Dimension],
        figures: dict[str, Figure],
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
        self.foot = [
            key
            for key in figures
            if (key not in self.places or key in aside) and self._counts(key)
        ]
        self.notes = [
            key
            for key, one in self.places.items()
            if one.kind == "hole" and key not in aside
        ]
        self.drawn = {
            key: one
            for key, one in self.places.items()
            if one.kind != "hole" and key not in aside
        }
        for first, *more in on_one_line(self.drawn, figures):
            for key in more:
                del self.drawn[key]
            if more:
                names = ", and ".join(figures[key].name for key in (first, *more))
                both = replace(figures[first], name=names)
                self.figures = {**self.figures, first: both}

    def _counts(self, key: str) -> bool:
        """Whether a size is there to be seen: of a feature that the piece has not, only
        the one that would bring it."""
        first = next(
            one for one in self.figures if one.split(".")[0] == key.split(".")[0]
        )
        drawn = {one.split(".")[0] for one in self.places}
        features = {one.name for one in self.made.body.features}
        name = key.split(".")[0]
        absent = name not in features and name not in drawn
        return key == first or not absent or self._speaks_of_more(name)

    def _speaks_of_more(self, name: str) -> bool:
        """Whether a name is of the stock or the like, and no feature's at all."""
        family = self.made.family
        known = {feature_of(one) for way in (family.full, *family.ways) for one in way}
        return name not in known

    # -- room --------------------------------------------------------------

    def _wide(self, key: str) -> float:
        one = self.figures[key]
        sign = "⌀" if self.places.get(key, _NOWHERE).kind == "diameter" else ""
        figure = text_width(sign + one.text, self.size)
        figure += one.room(self.size)
        return max(figure, text_width(one.small, SMALL * self.size)) + self.size

    def _abreast(self) -> int:
        widest = max(
            (
                max(
                    text_width(self.figures[key].text, self.size),
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
        """What it is, of what and from what; and the sizes without a place."""
        made, size = self.made, self.size
        says = title_said(made, self.inch)
        self.board.text((0.6 * size, 1.1 * size), says, size, "faint", "left")
        edges, small = edges_said(made, self.inch), SMALL * size
        self.board.text((0.6 * size, 2.3 * size), edges, small, "faint", "left")
        shown = (self.figures[key] for key in self.foot)
        rows = [(one.text, one.name, one.role, one.key) for one in shown]
        self.board.along_the_foot(rows, self._abreast(), ROW)

    # -- what turns --------------------------------------------------------

    def turned(self) -> bool:
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
            fits, key=lambda one: one.scale
        )
        # smaller figures give a long thin piece no more height
        slim = scale * wide > 3 * size and room_x > 0.7 * self.board.width
        enough = scale * wide > 7 * size
        spare = max(room_x - share * scale, 0.0)
        across = wide * 1.15 * scale if end_view and self.first_angle else 0.0
        x0 = left + spare / 2 + across - first * scale
        axis = top + over + max(room_y, wide * scale) / 2

        def place(z: float, r: float) -> Point:
            return x0 + z * scale, axis - r * scale

        draw_half_section(self.board, body, place)
        self._diameters(lanes, place, first, last)
        self._lengths(below, place, axis + wide / 2 * scale + 1.6 * size)
        if end_view:
            x = x0 + last * scale + right + wide / 2 * scale
            if self.first_angle:
                x = spare / 2 + size + 0.54 * wide * scale
            draw_end_view(self.board, body, (x, axis), scale)
            self._notes(notes, (x, axis), scale, top, place)
        else:
            self._notes(notes, place((first + last) / 2, 0.0), scale, top, place)
        self._title_and_foot()
        return enough or (slim and not self.board.done().crowded)

    def _fitted(self, way: Stand, top: float, share: float) -> _Fitted:
        """How large the piece is drawn, where its diameters stand so; top: what is
        taken above it, px; share: what is drawn abreast, mm."""
        size, (first, last) = self.size, self.made.body.ends
        sides = self._lanes_across(first, last)
        along = [key for key, one in self.drawn.items() if one.kind == "along"]
        below, over_only = self._lanes_along(along, 0.0), False
        for _ in range(2):  # how many rows there are depends on the scale, and back
            lanes = (
                self._lanes(sides[0], way, False),
                self._lanes(sides[1], way, over_only),
            )
            left, right = (
                max((one.out + one.half for one in side), default=0.0) + size
                for side in lanes
            )
            right += size
            room_x = self.board.width - left - right - 3 * size
            levels = [one.level for one in (*lanes[0], *lanes[1])]
            over = self._led(max(levels, default=0)) + size
            under = self._led(-min(levels, default=0)) + size
            under = max((len(below) * LANE + 1.5) * size, under)
            room_y = self._floor() - top - over - under
            scale = max(min(room_x / share, room_y / self.made.body.largest), 0.05)
            below = self._lanes_along(along, scale)
            # a length may have its figure where one would stand under the piece
            over_only = any(self._span(key, scale)[1] > last + 1e-6 for key in along)
        return _Fitted(scale, room_x, room_y, left, right, over, lanes, below)

    def _lanes_across(self, first: float, last: float) -> tuple[list[str], list[str]]:
        """Diameters at the left and at the right, the smallest nearest to the piece."""
        middle = (first + last) / 2
        sides: tuple[list[str], list[str]] = ([], [])
        for key, one in sorted(self.drawn.items(), key=lambda item: item[1].at[0]):
            if one.kind == "diameter":
                sides[(one.start + one.end) / 2 > middle].append(key)
        return sides

    def _lanes(self, keys: Sequence[str], way: Stand, over_only: bool) -> list[Lane]:
        """Where the diameters of a side stand, the smallest nearest.

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
                one.out + one.half + 0.6 * size
                for one in found
                if (one.level < 0) == under
            ]
            level = 1 + n // turns
            out = max(before + 1.8 * size, *clear, 0.0)
            found.append(Lane(key, out, wide, -level if under else level))
        return found

    def _led(self, level: int) -> float:
        """How far from a slender piece a figure stands over it or under it."""
        return (1.6 + (level - 1) * STEP) * self.size if level > 0 else 0.0

    def _diameters(
        self,
        lanes: tuple[list[Lane], list[Lane]],
        place: Placing,
        first: float,
        last: float,
    ) -> None:
        size = self.size
        for side, beside in zip((-1, 1), lanes, strict=True):
            edge = place(first if side < 0 else last, 0.0)[0]
            for n, lane in enumerate(beside):
                key = lane.key
                one = self.drawn[key]
                x = edge + side * lane.out
                near = min(one.start, one.end) if side < 0 else max(one.start, one.end)
                top, bottom = place(near, one.at[0])[1], place(near, -one.at[0])[1]
                figure = self.figures[key]
                sign = "" if key.endswith(".thread") else "⌀"
                tall = max(bottom - top, 1)
                # staggered, so that no figure stands on its neighbour's line
                at = 0.5 + (0.5 - n % 2) * min(3.4 * size / tall, 0.5)
                if lane.level:
                    out = self._led(abs(lane.level))
                    out += place(0.0, -self.made.body.largest / 2)[1] - place(0.0, 0)[1]
                    at = 0.5 + (out if lane.level < 0 else -out) / tall
                self.board.upright(
                    x,
                    top,
                    bottom,
                    place(near, 0.0)[0],
                    sign + figure.text,
                    figure.small,
                    figure.role,
                    key,
                    figure.name,
                    figure.number,
                    figure.mark,
                    at=at,
                )

    def _lanes_along(self, keys: Sequence[str], scale: float) -> list[list[str]]:
        """Lengths in rows in which none lies over another, the shortest nearest.

        scale: px a mm; a short one has its figure beside it.
        """
        rows: list[list[str]] = []
        spans = {key: self._span(key, scale) for key in keys}
        for key in sorted(
            keys, key=lambda k: abs(self.drawn[k].end - self.drawn[k].start)
        ):
            a, b = spans[key]
            for row in rows:
                if all(b <= spans[o][0] + 0.01 or a >= spans[o][1] - 0.01 for o in row):
                    row.append(key)
                    break
            else:
                rows.append([key])
        return rows

    def _span(self, key: str, scale: float) -> tuple[float, float]:
        """From where to where a length's line and figure reach, mm."""
        one, figure = self.drawn[key], self.figures[key]
        a, b = sorted((one.start, one.end))
        if not scale:
            return a, b
        text = text_width(figure.text, self.size) + figure.room(self.size)
        if figure.small:
            text += text_width(figure.small, SMALL * self.size) + 0.5 * self.size
        out = 1.3 * self.size
        if (b - a) * scale >= text + 2.5 * self.size:
            return a, b
        return a - out / scale, b + (out + text + self.size) / scale

    def _lengths(self, rows: list[list[str]], place: Placing, y: float) -> None:
        for row in rows:
            for key in row:
                one, figure = self.drawn[key], self.figures[key]
                a, b = sorted((one.start, one.end))
                self.board.level(
                    y,
                    place(a, 0.0)[0],
                    place(b, 0.0)[0],
                    place(a, -one.at[0])[1],
                    figure.text,
                    figure.small,
                    figure.role,
                    key,
                    figure.name,
                    figure.number,
                    figure.mark,
                )
            y += LANE * self.size

    # -- what is written at holes --------------------------------------------

    def note_lines(self) -> list[tuple[str, str, list[str]]]:
        """By feature: what is written there, and the sizes that it says."""
        by_feature: dict[str, list[str]] = {}
        for key in self.notes:
            place = self.made.sizes[key].size.drawn_at
            by_feature.setdefault(feature_of(place), []).append(key)
        found = []
        for name, keys in by_feature.items():
            one = self.made.body.feature(name)
            if isinstance(one, Holes):
                text = one.hole.says(len(one.points))
                if isinstance(one.pattern, HoleCircle | Arc):
                    text += f" on ⌀{one.pattern.diameter:g}"
                if isinstance(one.pattern, Arc) and one.many > 1:
                    text += f", {one.pattern.pitch:g}° apart"
                text += self._turned(one)
                if one.tilt:
                    text += f", then {one.tilt:.1f}° aslant"
            elif isinstance(one, CrossHoles):
                text = one.hole.says(self._alike(one, by_feature))
            elif isinstance(one, RoundSeat):
                text = f"{spoken(name)}: round ⌀{self.figures[keys[0]].text}"
            else:
                text = self._measures(name, keys)
            if self.inch and isinstance(one, Holes | CrossHoles):
                text = in_inches(text)
            if isinstance(one, Holes):
                text += self._apart(one)
            ends = [self.figures[k].small for k in keys if self.figures[k].small]
            text += "".join(f" ({one})" for one in ends)
            found.append((name, text, keys))
        return found

    def _alike(self, one: CrossHoles, written: Container[str]) -> int:
        """How many cross holes there are like it with nothing written of their own."""
        others = (
            other.count
            for other in self.made.body.features
            if isinstance(other, CrossHoles)
            and (other.hole, other.angle) == (one.hole, one.angle)
            and other.name not in written
        )
        return one.count + sum(others)

    def _turned(self, one: Holes) -> str:
        """How far its holes are turned from those of the first other circle."""
        if one.block is not None:
            return ""
        first = next(f for f in self.made.body.features if isinstance(f, Holes))
        turned = turned_from(one, first)
        return f", {turned:g}° from the {spoken(first.name)}" if turned else ""

    def _apart(self, one: Holes) -> str:
        """How far the holes of rows are from each other: only the first has lines."""
        grid = one.pattern
        if not isinstance(grid, Grid):
            return ""
        ways = ((grid.across, grid.pitch_across), (grid.up, grid.pitch_up))
        steps = [length_said(pitch, self.inch) for many, pitch in ways if many > 1]
        return f", {' × '.join(steps)} apart" if steps else ""

    def _measures(self, name: str, keys: list[str]) -> str:
        """What is said of a feature that is no hole: `slits: 3 × 1.5 wide`."""
        said = {}
        for key in keys:
            measure = self.made.sizes[key].size.drawn_at.partition(".")[2]
            said[measure] = SAID.get(measure, "{}").format(self.figures[key].text)
        one = self.made.body.feature(name)
        count = f"{said.pop('count')} " if "count" in said else ""
        if isinstance(one, Sloping) and "taper" in said:
            said["taper"] += f", {taper_of(one.taper).half_angle:.3f}° a side"
        if isinstance(one, Flats):
            count = "1 flat, " if one.count == 1 else f"{one.count} flats, "
        if isinstance(one, FlankedSlot) and "pins" in said:
            pin, flank = length_said(one.pin, self.inch), 90 - one.half_angle
            said["pins"] += f" of ⌀{pin}, flanks at {flank:g}°"
        return f"{spoken(name)}: {count}{', '.join(said.values())}"

    def _notes(
        self,
        notes: list[tuple[str, str, list[str]]],
        centre: Point,
        scale: float,
        top: float,
        section: Placing,
    ) -> None:
        """Each on a leader from its first hole, stacked above the views."""
        size = self.size
        placed = []
        for name, text, keys in notes:
            one = self.made.body.feature(name)
            at = centre
            if isinstance(one, Holes) and one.block is None:
                # the uppermost of them, which no leader has to cross the piece to
                px, py = max(one.points, key=lambda p: (round(p[1], 3), p[0]))
                at = centre[0] + px * scale, centre[1] - py * scale
            elif isinstance(one, Keyway):
                at = centre[0], centre[1] - one.diameter / 2 * scale
            elif isinstance(one, CrossHoles):
                faces = abs(one.angle - FACING) < 1e-6  # in the half seen from outside
                up = -one.hole.diameter / 4 if faces else one.diameter / 2
                at = section(one.z, up)
            elif isinstance(one, Sloping):
                middle = (one.start_diameter + one.end_diameter) / 4
                at = section((one.start + one.end) / 2, middle)
            elif isinstance(one, Flats | Knurl | Slits):
                wide = one.across if isinstance(one, Flats) else one.diameter
                at = section((one.start + one.end) / 2, -wide / 4)
            placed.append((at, text, keys))
        y = top - (len(notes) * NOTE - 0.4) * size
        for at, text, keys in self._stacked(placed):
            self._note(text, keys, at, y)
            y += NOTE * size

    def _stacked(self, placed: list[Placed]) -> list[Placed]:
        """From the top down, so that no leader runs through the words under it; else
        the leftmost first."""
        left = sorted(placed, key=lambda note: note[0][0])
        found: list[Placed] = []

        def through(note: Placed) -> tuple[int, int]:
            # in their usual places; and in those left of their own leaders as well
            lead = self._words(*note)[1]
            met = both = 0
            for one in left:
                if one is note:
                    continue
                (x, _, half), (far, _, _) = (
                    self._words(*one, aside) for aside in (0.0, self._left_of(one))
                )
                met += abs(lead - x) < half
                both += max(abs(lead - x), abs(lead - far)) < half
            return met, both

        while left:
            found.append(min(left, key=through))
            left.remove(found[-1])
        return found

    def _left_of(self, note: Placed) -> float:
        """By how much words stand out of their place that end before their leader."""
        _, text, keys = note
        return -self._note_wide(text, keys) - self.size

    def _words(
        self, at: Point, text: str, keys: list[str], aside: float = 0.0
    ) -> tuple[float, float, float]:
        """The middle of what is written at a hole, where its leader comes to it, and
        half its width; aside: by how much it stands out of its usual place, px."""
        half = (self._note_wide(text, keys) - self.size) / 2
        most = self.board.width - half - 4
        x = min(max(at[0] + half + self.size + aside, half + 4), most)
        half += 2
        return x, min(max(at[0], x - half), x + half), half

    def _note(self, text: str, keys: list[str], at: Point, y: float) -> None:
        """Written where its leader comes to it past the figures that stand already, and
        no leader that is drawn runs through it."""
        left = self._left_of((at, text, keys))
        usual = [one * self.size for one in ASIDE]
        for aside in (*usual, left, 0.0):  # as usual in the end, where no way is free
            words = self._words(at, text, keys, aside)
            x, end = self._led_to(at, words, y)
            half, high = words[-1], 0.7 * self.size
            place = Spot((x - half, y - high, 2 * half, 2 * high), "", "")
            met = any(place.crossed(*lead, NEAR / 2) for lead in self.leads)
            if not met and not self._runs_through(at, end):
                break
        self.leads.append((at, end))
        self.board.line(at, end, "dimension", 0.8)
        self._written(text, keys, (x, y))

    def _led_to(
        self, at: Point, words: tuple[float, float, float], y: float
    ) -> tuple[float, Point]:
        """The middle of words at a height, and the end of their leader."""
        x, lead, half = words
        across = abs(at[0] - x) < half  # then the leader ends under or over the words
        short = 0.7 * self.size * across
        return x, (lead, y + (short if at[1] > y else -short))

    def _runs_through(self, at: Point, end: Point) -> bool:
        """Whether a leader would run through a figure that stands already."""
        return any(one.crossed(at, end, NEAR / 2) for one in self.board.figures)

    def _written(
        self, text: str, keys: list[str], at: Point, flush: bool = False
    ) -> None:
        """What is said at a hole, tied to the first of its sizes; flush: with those
        under it at the left."""
        figure = self.figures[keys[0]]
        number = next((n for k in keys if (n := self.figures[k].number)), 0)
        mark = next((m for k in keys if (m := self.figures[k].mark)), None)
        role = "stop" if mark else figure.role
        name = figure.name
        if len(keys) > 1:
            name += f", and {len(keys) - 1} more"
        self.board.label(at, text, "", role, keys[0], name, number, mark, flush=flush)

    # -- blocks --------------------------------------------------------------

    def block(self) -> bool:
        """Three views: from the front; from above over it and from the right at its
        right in third angle, below it and at its left in first."""
        body, size = self.made.body, self.size
        box = body.shadow.box
        low, high = box[:3], box[3:]
        long, wide, tall = (float(b - a) for a, b in zip(low, high, strict=True))
        by_kind: dict[str, list[str]] = {"x": [], "y": [], "z": []}
        for key, one in self.drawn.items():
            by_kind[one.kind].append(key)
        rows = {kind: self._lanes_along(keys, 0.0) for kind, keys in by_kind.items()}
        notes = self.note_lines()
        gap = 3 * size
        left = max(self._room_beside(rows[kind]) for kind in "yz")
        room_x = self.board.width - left - gap - 2 * size
        # what is written at holes stands right of the upper view, over the right one,
        # or above all, whichever leaves more for the views
        # in first angle what is not seen from above has its words over the upper views
        over_upper = [
            note
            for note in notes
            if self.first_angle and self._seen_at(note[0])[0] != "top"
        ]
        beside_it = [note for note in notes if note not in over_upper]
        words = max(
            (self._note_wide(text, keys) for _, text, keys in beside_it), default=0
        )
        above_all = len(notes) * NOTE * size
        over_it = len(over_upper) * NOTE * size
        for _ in range(2):
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
            scale = max(beside, over, 0.05)
            rows["x"] = self._lanes_along(by_kind["x"], scale)
        # above the views: the title, and the lengths where the upper one is that from
        # above
        top = 4.0 * size + (over_it if self.first_angle else lanes)
        if over > beside:
            top, words = top + above_all * (not self.first_angle), 0.0
        enough = scale * (wide + tall) > 9 * size
        if self.first_angle:
            spare = max(room_x - (long + wide) * scale - words, 0.0)
            aside = spare / 2 + size
            x0 = aside + wide * scale + left
            under, y0 = top, top + tall * scale + gap
        else:
            column = max(wide * scale, words)
            spare = max(room_x - long * scale - column, 0.0)
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
        for view in VIEWS:
            draw_block_view(self.board, body, view, places[view])
        # away from the view from above, on its free side
        edge, way = (y0 + wide * scale, 1) if self.first_angle else (y0, -1)
        y = edge + way * 1.6 * size
        for row in rows["x"]:
            for key in row:
                one, figure = self.drawn[key], self.figures[key]
                a, b = above(one.start, 0)[0], above(one.end, 0)[0]
                start = edge if not one.at[0] else above(0, one.at[0])[1]
                self.board.level(
                    y, min(a, b), max(a, b), start, figure.text, figure.small,
                    figure.role, key, figure.name, figure.number, figure.mark,
                )  # fmt: skip
            y += way * LANE * size
        self._uprights(rows["y"], above, x0)
        self._uprights(rows["z"], front, x0)
        lines = len(rows["x"]) * LANE
        if over > beside and self.first_angle:
            self._block_notes(beside_it, places, None, edge + (lines + 1.2) * size)
        elif over > beside:
            lines += len(notes) * NOTE + 0.8
            self._block_notes(notes, places, None, y0 - lines * size)
        else:
            self._block_notes(beside_it, places, x0 + long * scale + gap, y0 + size)
        if self.first_angle:
            self._block_notes(over_upper, places, None, 3.4 * size)
        self._title_and_foot()
        return enough

    def _room_beside(self, rows: list[list[str]]) -> float:
        """How wide the upright dimensions stand beside their view."""
        return sum(
            (max(self._wide(key) for key in row) + 0.5 * self.size for row in rows),
            2 * self.size,
        )

    def _uprights(self, rows: list[list[str]], place: Placing, x0: float) -> None:
        x = x0
        for row in rows:
            step = max(self._wide(key) for key in row)
            x -= step / 2 + 0.5 * self.size
            for key in row:
                one, figure = self.drawn[key], self.figures[key]
                top = place(0, max(one.start, one.end))[1]
                bottom = place(0, min(one.start, one.end))[1]
                self.board.upright(
                    x, top, bottom, place(one.at[0], 0)[0] if one.at[0] else x0,
                    figure.text, figure.small, figure.role, key, figure.name,
                    figure.number, figure.mark,
                )  # fmt: skip
            x -= step / 2

    def _note_wide(self, text: str, keys: list[str]) -> float:
        """How wide what is written at a hole stands, with the fit's number."""
        lead = max(self.figures[key].room(self.size) for key in keys)
        return text_width(text, self.size) + lead + self.size

    def _seen_at(self, name: str) -> tuple[str, list[Point]]:
        """The view of a block that a feature's words belong to, and where in it."""
        seen = {"front": "front", "back": "front", "left": "right", "right": "right"}
        one = self.made.body.feature(name)
        if isinstance(one, Holes):
            return seen.get(one.face, "top"), one.points
        if isinstance(one, FlankedSlot):
            half = one.depth / 2
            level = one.block[2] - half if one.face == "top" else half
            return "front" if one.across else "right", [(one.at, level)]
        if isinstance(one, RoundSeat):
            long, wide, _ = one.block
            at = (one.at, 0.8 * wide) if one.across else (0.9 * long, one.at)
            return "top", [at]
        if isinstance(one, Slope):
            long = one.block[0]
            return "front", [(0.75 * long, one.low + 0.75 * one.rise)]
        said = one.dimensions().values() if isinstance(one, Outline) else ()
        return "top", [line.at for line in said if line.kind == "hole"] or [(0.0, 0.0)]

    def _block_notes(
        self,
        notes: list[tuple[str, str, list[str]]],
        views: Mapping[str, Placing],
        x: float | None,
        y: float,
    ) -> None:
        """Each from the hole of its pattern nearest to it: beside the upper view, from
        x, or above all."""

        def near(place: Point) -> tuple[float, float]:
            off = abs(place[1] - y)
            return (off, -place[0]) if x is None else (-place[0], off)

        placed = []
        for name, text, keys in notes:
            view, places = self._seen_at(name)
            at = min((views[view](*one) for one in places), key=near)
            placed.append((at, text, keys))
        if x is None:
            for at, text, keys in self._stacked(placed):
                self._note(text, keys, at, y)
                y += NOTE * self.size
            return
        # from what lies abreast of them to what lies below, so that no leaders cross
        placed.sort(key=lambda note: math.atan2(note[0][0] - x, note[0][1] - y))
        for n, (at, text, keys) in enumerate(placed, 1):
            wide = self._note_wide(text, keys)
            self._lead(at, (x - 0.4 * self.size, y), len(placed) - n)
            self._written(text, keys, (x + wide / 2, y), flush=True)
            y += NOTE * self.size

    def _lead(self, at: Point, words: Point, under: int) -> None:
        """A leader from the left of some words to a place; under: how many lines stand
        below them, which it passes at their left."""
        x, y = words
        passed = under * NOTE * self.size / max(at[1] - y, 1.0)
        if at[0] > x and passed < 1:
            x = min(x, (x - at[0] * passed) / (1 - passed))
            self.board.line(words, (x, y), "dimension", 0.8)
        self.board.line(at, (x, y), "dimension", 0.8)
