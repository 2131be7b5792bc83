"""The stack strip: the pieces of a job and what is made between them, to scale."""

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.families import family_for
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.made_piece import ruled_by_fits
from machinon.core.job.plan import Plan
from machinon.core.piece.family import Chain
from machinon.core.piece.hole_features import Circle, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.relations import Expression
from machinon.core.quantity import length_text
from machinon.core.threads.screws import cap_screw
from machinon.draw.block_views import draw_block_view
from machinon.draw.drawing import (
    Board,
    Drawing,
    Point,
    Role,
    Shape,
    Spot,
    text_width,
)
from machinon.draw.half_section import draw_upper_half
from machinon.draw.piece_shape import Outline, outline_of

TO_MAKE = ", to make"  # after the name of a piece that is made here
SHARE = 0.8  # of its column that the longest piece takes


class _Part(Struct, frozen=True):
    """A piece that exists, by its outline, or one that is made here; at: where its own
    zero lies along the whole, mm; lit: it is the one that is spoken of."""

    tie: str
    name: str
    outline: Outline | None = None
    made: Made | None = None
    at: float = 0.0
    lit: bool = False

    @property
    def ends(self) -> tuple[float, float]:
        """Where it begins and ends along the whole."""
        if self.made is not None:
            first, last = self.made.body.ends
            return self.at + first, self.at + last
        assert self.outline is not None
        start = self.at - self.outline.zero
        return start, start + self.outline.size[0]

    @property
    def size(self) -> tuple[float, float]:
        """How long and how high it is drawn, mm."""
        if self.outline is not None:
            return self.outline.size
        assert self.made is not None
        body = self.made.body
        if body.turns:
            first, last = body.ends
            return last - first, body.largest / 2
        x0, _, z0, x1, _, z1 = body.shadow.box
        return x1 - x0, z1 - z0

    @property
    def turns(self) -> bool:
        if self.outline is not None:
            return self.outline.turns
        return self.made is not None and self.made.body.turns


def stack_drawing(
    plan: Plan, width: float, height: float, size: float = 12.0
) -> Drawing:
    """The set-up in section, from above the axis of what turns.

    Pieces that say where they seat stand together as they will be, else side by side.
    Ties are the ids of pieces, of made ones what stands for them, and `fit.N` for the
    numbered fits.
    """
    board = Board(width, height, size)
    pieces = list(plan.stack)
    made = any(one is not None for one in plan.bodies.values())
    if not all(piece.surfaces for piece in pieces) or not (pieces or made):
        _unknown(board, plan)
        return board.done()
    parts = _parts(plan)
    together = _seated(plan, parts)
    if together is not None:
        _together(board, plan, together)
    else:
        _row(board, plan, parts)
    return board.done()


def _parts(plan: Plan) -> dict[str, _Part]:
    """Every piece by its tie, what is made second."""
    found = [
        _Part(
            piece.id,
            piece.name,
            outline_of(
                piece, {s.id: plan.measured[piece.id, s.id] for s in piece.surfaces}
            ),
        )
        for piece in plan.stack
    ]
    made = [
        _Part(
            work.as_mate,
            f"{family_for(work.making).name}{TO_MAKE}",
            made=plan.bodies.get(work.key),
            lit=work.key == plan.job.at,
        )
        for work in plan.job.works
        if work.making is not None
    ]
    return {one.tie: one for one in (*found[:1], *made, *found[1:])}


def _seated(plan: Plan, parts: Mapping[str, _Part]) -> list[_Part] | None:
    """The parts where they seat, from the piece that no other is a mate of; None where
    not all of them say where."""
    works = {one.as_mate: one for one in plan.job.works if one.making is not None}
    mates = {
        id for one in works.values() if one.making for id in one.making.mates.values()
    }
    roots = [tie for tie in works if tie not in mates]
    found: list[_Part] = []

    def seat(tie: str, at: float) -> None:
        part = parts.get(tie)
        if part is None or any(one.tie == tie for one in found):
            return
        found.append(replace(part, at=at))
        work, made = works.get(tie), part.made
        if work is None or made is None or work.making is None:
            return
        numbers = {
            k: float(v) for k, v in made.values.items() if isinstance(v, int | float)
        }
        for mate in made.family.mates:
            if mate.seats and mate.role in work.making.mates:
                along = Expression(mate.seats, mate.role).value(numbers)
                seat(work.making.mates[mate.role], at + along)

    if len(roots) == 1:
        seat(roots[0], 0.0)
    whole = len(found) == len(parts) > 1
    drawn = all(one.turns for one in found)
    return found if whole and drawn else None


def _together(board: Board, plan: Plan, parts: list[_Part]) -> None:
    """All on one axis, as they will be."""
    size = board.size
    first = min(one.ends[0] for one in parts)
    last = max(one.ends[1] for one in parts)
    radius = max(one.size[1] for one in parts)
    scale = min(
        (board.height - 2.6 * size) / radius, (board.width - 2 * size) / (last - first)
    )
    axis = board.height - 0.9 * size
    left = (board.width - (last - first) * scale) / 2 - first * scale

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - max(r, 0.0) * scale

    # what exists stands in front of what is made, and the piece at hand in front of all
    for one in sorted(parts, key=lambda one: (one.lit, one.made is None)):

        def seated(z: float, r: float, at: float = one.at) -> Point:
            return place(at + z, r)

        _draw(board, one, seated)
        if one.made is not None:
            _screws(board, one.made, seated)
    past = 4 * scale
    board.line(
        (left + first * scale - past, axis),
        (left + last * scale + past, axis),
        "centre",
        1.0,
    )
    by_tie = {one.tie: one for one in parts}
    for fit in plan.fits:
        spot = _meets(by_tie, fit)
        if spot is not None:
            _number(board, fit, place(*spot))


def _draw(board: Board, one: _Part, place: Callable[[float, float], Point]) -> None:
    """A part; place: from its own (z, r) to the page."""
    if one.outline is not None:
        zero = one.outline.zero
        points = [place(x - zero, y) for x, y in one.outline.points]
        hatch: Literal["", "left"] = "left" if one.outline.cut else ""
        board.items.append(
            Shape(tuple(points), "outline", 1.4, "panel", hatch, tie=one.tie)
        )
    elif one.made is not None:
        body = one.made.body
        role: Role = "cut" if one.lit else "measured"
        if body.turns:
            draw_upper_half(board, body, place, role)
            points = [place(z, r) for z, r in body.rings()[0]]
        else:
            x0, _, z0, x1, _, z1 = body.shadow.box
            draw_block_view(board, body, "front", lambda x, z: place(x - x0, z - z0))
            points = [place(0, 0), place(x1 - x0, z1 - z0)]
    else:
        return
    _spot(board, points, one.tie, one.name)


def _screws(board: Board, made: Made, place: Callable[[float, float], Point]) -> None:
    """The screws that hold it, one of each circle: the head on its seat, the shank into
    what it is screwed to."""
    for one in made.hardware:
        if not one.at or not one.length:
            continue
        holes = made.body.feature(one.at)
        assert isinstance(holes, Holes)
        head = cap_screw(one.thread)
        out = 1.0 if holes.face == "left" else -1.0
        seat = holes.level + out * holes.hole.bore_depth
        middle = math.hypot(*holes.points[0])
        for near, far, wide in (
            (seat - out * head.head_height, seat, head.head_diameter),
            (seat, seat + out * one.length, head.diameter),
        ):
            low, high = middle - wide / 2, middle + wide / 2
            corners = (near, low), (far, low), (far, high), (near, high)
            points = tuple(place(z, r) for z, r in corners)
            board.items.append(Shape(points, "measured", 1.0, "ground"))


def _meets(parts: Mapping[str, _Part], fit: FitPlan) -> Point | None:
    """Where the halves of a fit meet along the whole, (z, r)."""
    mate = parts.get(fit.choice.piece)
    if mate is not None and mate.outline is not None:
        at = mate.outline.places.get(fit.choice.surface)
        if at is not None:
            return mate.ends[0] + at[0], at[1]
    for one in parts.values():
        if one.made is not None:
            at = _ruled_at(one.made, fit.choice.number)
            if at is not None:
                return one.at + at[0], at[1]
    return None


def _ruled_at(made: Made, number: int) -> Point | None:
    """The middle of what a fit rules on a piece, (z, r)."""
    key = ruled_by_fits(made).get(number, "")
    name, _, measure = key.partition(".")
    one = next((one for one in made.body.features if one.name == name), None)
    if isinstance(one, Holes) and isinstance(one.pattern, Circle):
        into = one.through / 2 if one.face == "left" else -one.through / 2
        return one.level + into, one.pattern.diameter / 2
    at = one.dimensions().get(measure) if one is not None else None
    if at is None or at.kind != "diameter":
        return None
    return (at.start + at.end) / 2, at.at[0]


def _row(board: Board, plan: Plan, parts: Mapping[str, _Part]) -> None:
    """The pieces side by side to one scale, on one axis."""
    size = board.size
    step = board.width / len(parts)
    foot = 1.9 * size
    known = [one for one in parts.values() if one.outline or one.made]
    chains = list(_chains(plan))
    above = 2.4 if chains else 1.2
    scale = min(
        (board.height - foot - above * size) / max(one.size[1] for one in known),
        SHARE * step / max(one.size[0] for one in known),
    )
    axis = board.height - foot
    seated: dict[str, _Part] = {}
    for number, one in enumerate(parts.values()):
        middle = (number + 0.5) * step
        _name(board, one, middle, axis, step)
        if one not in known:
            _not_known(board, one, middle, axis, step)
            continue
        start = middle - one.size[0] * scale / 2
        # along the row as if all were one whole, in its own millimetres
        at = start / scale - (one.ends[0] if one.turns else 0.0)
        seated[one.tie] = replace(one, at=at)

        def place(z: float, r: float, at: float = at) -> Point:
            return (at + z) * scale, axis - r * scale

        _draw(board, one, place)
    for fit in plan.fits:
        spot = _meets(seated, fit)
        if spot is not None:
            _number(board, fit, (spot[0] * scale, axis - spot[1] * scale))
    if any(one.turns for one in known):
        board.line((4, axis), (board.width - 4, axis), "centre", 1.0)
    for links in chains:
        _chain(board, links, seated, scale)


def _chains(plan: Plan) -> Iterator[list[tuple[str, str, Role]]]:
    """The chains of lengths of what is made, link by link: the tie of its piece, its
    length, and whether it is measured or ruled by the others."""
    inch = plan.shop.inch
    for work in plan.job.works:
        made = plan.bodies.get(work.key)
        if made is None or work.making is None:
            continue
        for band in made.fits:
            if not isinstance(band.slot, Chain) or band.lower is None:
                continue
            links: list[tuple[str, str, Role]] = []
            for name, _ in band.slot.links:
                tie = work.making.mates.get(name.partition(".")[0], work.as_mate)
                if tie == work.as_mate:
                    continue  # its own, and drawn on its sheet
                value = float(made.values[name])
                links.append((tie, length_text(value, inch=inch), "measured"))
            low = length_text(band.lower, inch=inch, unit=False)
            high = length_text(band.upper or band.lower, inch=inch)
            yield [*links, (work.as_mate, f"{low} to {high}", "cut")]


def _chain(
    board: Board,
    links: Sequence[tuple[str, str, Role]],
    seated: Mapping[str, _Part],
    scale: float,
) -> None:
    """A chain along the top: each link over its piece, one line through them all."""
    y = 1.4 * board.size
    spans, said = [], []
    for tie, text, role in links:
        part = seated.get(tie)
        if part is None:
            continue
        left, right = ((part.at + z) * scale for z in (0.0, part.size[0]))
        for x in (left, right):
            board.line((x, y - 4), (x, y + 4), role, 1.2)
        board.line((left, y), (right, y), role, 1.6)
        said.append(((left + right) / 2, text, role))
        spans.append((left, right))
    # figures shrink before they lie on each other
    letters = 0.85 * board.size
    for (a, one, _), (b, two, _) in pairwise(sorted(said)):
        if b - a > 1:  # a piece may be a link twice
            wide = text_width(f"{one}{two}", 0.5) + 0.6
            letters = min(letters, (b - a) / wide)
    for middle, text, role in said:
        board.text((middle, y - 0.8 * board.size), text, letters, role)
    spans.sort()
    for (_, start), (stop, _) in pairwise(spans):
        board.line((start, y), (stop, y), "faint", 1.0)


def _not_known(
    board: Board, one: _Part, middle: float, axis: float, step: float
) -> None:
    """What is made, while its sizes are not known."""
    half, high = 0.3 * step, axis - 2.4 * board.size
    corners = [(middle - half, axis), (middle + half, axis - high)]
    (a, low), (b, top) = corners
    points = ((a, low), (b, low), (b, top), (a, top))
    board.items.append(Shape(points, "cut", 1.4, "panel"))
    _spot(board, corners, one.tie, one.name)


def _spot(board: Board, points: list[Point], tie: str, name: str) -> None:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    rect = (min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))
    board.spots.append(Spot(rect, tie, name))


def _name(board: Board, one: _Part, middle: float, axis: float, step: float) -> None:
    small = 0.85 * board.size
    role: Role = "cut" if one.lit else "measured" if one.outline is None else "faint"
    place = (middle, axis + board.size)
    board.text(place, _cut(one.name, step, small), small, role)


def _cut(name: str, room: float, size: float) -> str:
    """A name as far as there is room for it: its colour too says that it is made."""
    room -= size
    if text_width(name, size) > room:
        name = name.removesuffix(TO_MAKE)
    if text_width(name, size) <= room:
        return name
    while len(name) > 1 and text_width(f"{name}…", size) > room:
        name = name[:-1]
    return f"{name}…"


def _number(board: Board, fit: FitPlan, at: Point) -> None:
    """A fit's number where its surfaces meet."""
    size = board.size
    bad = bool(fit.problem or fit.contradiction or fit.spent)
    # two fits on one surface stand side by side
    while any(
        abs(one.rect[0] + size - at[0]) < size
        for one in board.spots
        if one.tie.startswith("fit.")
    ):
        at = (at[0] + 1.4 * size, at[1])
    board.numbered(at, fit.choice.number, "stop" if bad else "cut")
    board.spots.append(
        Spot(
            (at[0] - size, at[1] - size, 2 * size, 2 * size),
            f"fit.{fit.choice.number}",
            fit.choice.name,
        )
    )


def _unknown(board: Board, plan: Plan) -> None:
    """The pieces by name in a row, until their sizes are known."""
    names = list(_names(plan))
    if not names:
        return
    step = board.width / len(names)
    for i, (name, made) in enumerate(names):
        left, right = i * step + 6, (i + 1) * step - 6
        top, bottom = board.height * 0.28, board.height * 0.72
        board.items.append(
            Shape(
                ((left, top), (right, top), (right, bottom), (left, bottom)),
                "cut" if made else "outline",
                1.4,
                "panel",
            )
        )
        board.text(
            ((left + right) / 2, (top + bottom) / 2),
            _cut(name, step - 16 + board.size, board.size),
            role="cut" if made else "text",
        )
    y = board.height / 2
    for i in range(1, len(names)):
        board.line((i * step - 6, y), (i * step + 6, y), "centre", 1.2)


def _names(plan: Plan) -> Iterator[tuple[str, bool]]:
    """The pieces by name, and whether each is made here; those after the first."""
    names = [(piece.name, False) for piece in plan.stack]
    for work in reversed(plan.job.works):
        if work.making is not None:
            names.insert(1, (f"{family_for(work.making).name}{TO_MAKE}", True))
    yield from names
