"""The notes of a block's sheet, each led to its place in one of the views."""

import math
from collections.abc import Iterator, Mapping, Sequence
from itertools import permutations, product
from typing import NamedTuple

from machinon.core.piece.block_features import (
    CornerRounds,
    EdgeBevels,
    EndToEnd,
    Pocket,
    RoundSeat,
    Slope,
    Slot,
)
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.shadow import VIEWS
from machinon.draw.drawing import Place, Point, Spot
from machinon.draw.sheet_layout import NOTE, PlacedNote, SheetLayout
from machinon.draw.sheet_words import Note

LEAN = 0.4  # slope of a leader to the words beside a view


class _Seen(NamedTuple):
    """Where in a view a feature's words belong, mm: to one of some places, and to the
    circle about it, or None where they lie within an outline."""

    view: str
    places: Sequence[Point]
    rim: float | None = 0.0


class _Under(NamedTuple):
    """A note over its view, the places there that it is of, and the rim of each."""

    note: Note
    places: Sequence[Point]
    rim: float | None


class _Lead(NamedTuple):
    """A leader: how long it is, and from its place over a bend to the words."""

    long: float
    at: Point
    bend: Point
    end: Point


def _on(at: Point, ring: Sequence[Point]) -> bool:
    """Whether a point lies on a closed outline, within a few hundredths."""
    return any(
        math.dist(a, at) + math.dist(at, b) < math.dist(a, b) + 1e-4
        for a, b in zip(ring, (*ring[1:], ring[0]), strict=True)
    )


class BlockNotes(SheetLayout):
    """What is written at the features of a block, and its leaders."""

    def seen_at(self, name: str) -> _Seen:
        """The view of a block that a feature's words belong to, and where in it."""
        seen = {"front": "front", "back": "front", "left": "right", "right": "right"}
        feature = self.made.body.feature(name)
        if isinstance(feature, Holes):
            view = seen.get(feature.face, "top")
            return _Seen(view, feature.points, feature.hole.rim / 2)
        if isinstance(feature, Slot):  # where it is looked into, or along it
            if feature.rounded or feature.turn:
                return _Seen(seen.get(feature.face, "top"), feature.rims)
            view = next(view for view, axes in VIEWS.items() if axes[2] == feature.run)
            x, y, _ = VIEWS[view]
            return _Seen(view, [(side[x], side[y]) for side in feature.sides])
        if isinstance(feature, EndToEnd | RoundSeat):
            return _Seen("front" if feature.across else "right", feature.sides)
        if isinstance(feature, Slope):
            long = feature.block[0]
            at = 0.75 * long, feature.low + 0.75 * feature.rise
            return _Seen("front", [at])
        if isinstance(feature, Pocket):
            return _Seen(seen.get(feature.face, "top"), feature.places)
        if isinstance(feature, EdgeBevels | CornerRounds):
            # another cut may have taken some of them
            rings = self.made.body.shadow.outlines["top"]
            there = [at for at in feature.places if any(_on(at, r) for r in rings)]
            return _Seen("top", there or feature.places)
        said = feature.dimensions().values()
        return _Seen("top", [line.at for line in said if line.kind == "hole"])

    def _places(
        self, note: Note, views: Mapping[str, Place]
    ) -> tuple[list[Point], float | None]:
        """Places on the page that a note can be led to, and the rim about each, px."""
        view, places, rim = self.seen_at(note.feature)
        place = views[view]
        scale = math.dist(place(1.0, 0.0), place(0.0, 0.0))
        return [place(*at) for at in places], rim and rim * scale

    def notes_off(
        self,
        notes: Sequence[Note],
        views: Mapping[str, Place],
        top: float,
        below: bool = False,
    ) -> None:
        """Over or below all views from top down, each from the place nearest to it."""
        placed = []
        for note in notes:
            places, rim = self._places(note, views)
            at = min(places, key=lambda at: (abs(at[1] - top), -at[0]))
            placed.append(PlacedNote(at, note, rim))
        stacked = self._stacked(placed)  # from what stands furthest from its view
        for n, label in enumerate(stacked):
            down = len(stacked) - 1 - n if below else n
            self._note(label, top + down * NOTE * self.size)

    def notes_beside(
        self,
        notes: Sequence[Note],
        views: Mapping[str, Place],
        x: float,
        top: float,
        floor: float,
    ) -> None:
        """Right of the upper view from x on, between top and floor: each abreast of its
        place, those of the view from the right just over that."""
        step = NOTE * self.size
        abreast: list[PlacedNote] = []
        over: list[_Under] = []
        for note in notes:
            places, rim = self._places(note, views)
            if self.seen_at(note.feature).view == "right":
                over.append(_Under(note, places, rim))
            else:
                abreast.append(PlacedNote(max(places), note, rim))

        def level(label: PlacedNote) -> float:
            # all leaders lean alike, so that none crosses another
            return min(max(label.at[1] - LEAN * (x - label.at[0]), top), floor)

        def turned(label: PlacedNote) -> float:
            return math.atan2(label.at[0] - x, label.at[1] - level(label))

        abreast.sort(key=lambda label: (level(label), turned(label)))
        wanted = [*map(level, abreast), *(floor for _ in over)]
        last = max(floor, top + (len(notes) - 1) * step)
        levels: list[float] = []
        for n, y in enumerate(wanted):
            above = levels[-1] + step if levels else top
            levels.append(min(max(y, above), last - (len(wanted) - 1 - n) * step))
        for label, y in zip(abreast, levels, strict=False):
            self.board.leader(label.at, (x - 0.4 * self.size, y), label.rim)
            self._written_from(label.note, (x, y))
        lines = [(x, y) for y in levels[len(abreast) :]]
        for under, lead, line in zip(*self._led_down(over, lines), lines, strict=True):
            if lead.bend != lead.end:
                self.board.line(lead.end, lead.bend, "dimension", 0.8)
            self.board.leader(lead.at, lead.bend, under.rim)
            self._written_from(under.note, line)

    def _written_from(self, note: Note, left: Point) -> None:
        """Writes a note from its left end on."""
        x, y = left
        self._written(note, (x + self._note_wide(note) / 2, y), flush=True)

    def _led_down(
        self, labels: Sequence[_Under], lines: Sequence[Point]
    ) -> tuple[Sequence[_Under], Sequence[_Lead]]:
        """Notes in the order in which their leaders to places below them are shortest
        in all, and those leaders; lines: the left end of each line of words."""
        orders = permutations(labels) if len(labels) < 4 else [tuple(labels)]
        step = NOTE * self.size

        def leads(order: Sequence[_Under]) -> list[_Lead]:
            words = [
                Spot((x, y - step / 2, self._note_wide(note), step), "", "")
                for (x, y), (note, *_) in zip(lines, order, strict=True)
            ]
            return [
                min(self._ways_down(label.places, words[n], words[n + 1 :]))
                for n, label in enumerate(order)
            ]

        tried = [(order, leads(order)) for order in orders]
        return min(tried, key=lambda tried: sum(lead.long for lead in tried[1]))

    def _ways_down(
        self, places: Sequence[Point], words: Spot, under: Sequence[Spot]
    ) -> Iterator[_Lead]:
        """Leaders from some words to places below them that run through none of those
        under them: from below the words, and from beside them."""
        x, top, wide, high = words.rect
        aside = 0.4 * self.size

        def past(at: Point, side: int, y: float, lines: Sequence[Spot]) -> float:
            # where at a height it is clear of lines at their left, -1, or right, 1
            out = -math.inf
            for line in lines:
                left, upper, long, _ = line.rect
                edge = left + long if side > 0 else left - aside
                part = min((upper + high - y) / max(at[1] - y, 1.0), 0.9)
                out = max(out, side * (edge - at[0] * part) / (1 - part))
            return side * out

        for at, side in product(places, (-1, 1)):
            y = top + high
            clear = past(at, side, y, under)
            # aslant, so that it does not lie along a centre line
            from_x = max(side * clear, side * at[0] + 1.6 * self.size) * side
            from_x = min(max(from_x, x), x + wide)
            if side * from_x >= side * clear:
                below = from_x, y
                yield _Lead(math.dist(at, below), at, below, below)
            y = top + high / 2
            end = (x + wide if side > 0 else x - aside), y
            bend = past(at, side, y, (words, *under)), y
            long = math.dist(at, bend) + math.dist(bend, end)
            yield _Lead(long, at, bend, end)
