"""The picture of a step: the face with its holes as one looks at it, the one at hand
lit and dimensioned from the zero; else the piece as the step leaves it."""

from collections.abc import Collection, Sequence
from itertools import pairwise
from math import dist, hypot

from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import Arc, Holes
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.jigs import face_size
from machinon.core.piece.turned_features import Bore
from machinon.core.quantity import length_text
from machinon.core.route.steps import StepTold
from machinon.core.route.work.holes import seen
from machinon.core.route.work.lines import WorkLine, WorkList
from machinon.draw.body_film import body_film
from machinon.draw.drawing import (
    Anchor,
    Board,
    Circle,
    Drawing,
    Mark,
    Point,
    Role,
    Shape,
    Spot,
    Text,
)
from machinon.draw.drawing import Line as Stroke
from machinon.draw.lettering import text_width

# where a hole's number is tried, from its middle
BESIDE = (
    (1.0, -0.6), (-1.0, -0.6), (1.0, 0.6), (-1.0, 0.6),
    (1.0, 0.0), (-1.0, 0.0), (0.0, -1.0), (0.0, 1.0),
)  # fmt: skip


def work_picture(
    step: StepTold,
    listed: WorkList,
    done: Collection[str],
    at: str,
    width: float,
    height: float,
    size: float,
    inch: bool = False,
) -> Drawing:
    """The picture of a step with the line at hand; done: keys of those ticked."""
    feature = step.cut[0] if step.cut else None
    if not isinstance(feature, Holes) or all(line.at is None for line in listed.lines):
        return body_film(step, width, height, size)
    board = Board(width, height, size)
    _face(board, step.after, feature, listed, done, at, inch)
    return board.done()


def _face(
    board: Board,
    body: Body,
    holes: Holes,
    listed: WorkList,
    done: Collection[str],
    at: str,
    inch: bool,
) -> None:
    size = board.size
    long, wide = face_size(body, holes.face)
    low = (-long / 2, -wide / 2) if holes.block is None else (0.0, 0.0)
    margin = min(5.2 * size, 0.17 * min(board.width, board.height))
    scale = min((board.width - 2 * margin) / long, (board.height - 2 * margin) / wide)
    left = (board.width - long * scale) / 2
    foot = board.height - (board.height - wide * scale) / 2

    def place(x: float, y: float) -> Point:
        return left + (x - low[0]) * scale, foot - (y - low[1]) * scale

    _outline(board, body, holes, place, scale)
    laps: dict[Point, list[WorkLine]] = {}
    for line in listed.lines:
        if line.at is not None:
            laps.setdefault(line.at, []).append(line)
    hand = next((line for line in listed.lines if line.key == at), None)
    ticks = {p: sum(line.key in done for line in of) for p, of in laps.items()}
    behind = ticks.get(hand.at, 0) if hand is not None and hand.at is not None else 0
    radius = max(holes.hole.diameter / 2 * scale, 0.35 * size)
    numbers: list[tuple[Point, Role, bool]] = []
    for point, of in laps.items():
        here = hand is not None and hand.at == point
        # done in this lap, or altogether
        ticked = behind < ticks[point] or ticks[point] == len(of)
        role: Role = "cut" if here else "proved" if ticked else "outline"
        centre = place(*point)
        board.items.append(
            Circle(centre, radius, role, 3.2 if here else 1.6,
                   "ground" if not ticked else "none")
        )  # fmt: skip
        if ticked and not here:
            board.items.append(Mark(centre, "proved", 1.1 * size))
        numbers.append((centre, "cut" if here else "faint", not ticked or here))
    zero = place(*listed.zero)
    for dx, dy in ((1.6, 0.0), (0.0, 1.6)):
        board.items.append(
            Stroke(
                (zero[0] - dx * size, zero[1] - dy * size),
                (zero[0] + dx * size, zero[1] + dy * size),
                "measured",
                2.0,
            )
        )
    if hand is not None and hand.at is not None:
        _from_zero(board, hand.at, listed.zero, place, radius, inch)
    _number(board, numbers, radius)


def _number(
    board: Board, holes: Sequence[tuple[Point, Role, bool]], radius: float
) -> None:
    """Each hole's number, within its ring where that is open and has room, else beside
    it; where there is no clear place for it, it is left out.

    holes: the middle of each, the role of its number, whether its ring is open.
    """
    size = board.size
    crossed = [
        item
        for item in board.items
        if isinstance(item, Stroke | Circle | Shape) and item.role != "centre"
    ]
    taken = [
        _room(item.at, item.text, item.size, item.anchor)
        for item in board.items
        if isinstance(item, Text)
    ]
    for n, (centre, role, open_ring) in enumerate(holes, 1):
        within = _room(centre, f"{n}", size)
        if open_ring and hypot(*within.rect[2:]) / 2 + 0.1 * size < radius:
            board.text(centre, f"{n}", size, role)
            continue
        out = radius + 0.75 * size
        found: list[tuple[int, Point, Spot]] = []
        for dx, dy in BESIDE:
            at = centre[0] + dx * out, centre[1] + dy * out
            room = _room(at, f"{n}", size)
            nearer = dist(at, centre) / 0.75  # plainly this hole's, and no other's
            if not (
                any(room.meets(other) for other in taken)
                or any(_reaches(room, hole, radius) for hole, *_ in holes)
                or any(dist(at, hole) < nearer for hole, *_ in holes if hole != centre)
            ):
                found.append((sum(_crosses(item, room) for item in crossed), at, room))
        if found:
            _, at, room = min(found, key=lambda place: place[0])
            taken.append(room)
            board.text(at, f"{n}", size, role, backed=True)


def _room(at: Point, text: str, size: float, anchor: Anchor = "centre") -> Spot:
    """The rectangle that figures fill, with a little air round them: they stand 0.7 of
    their size high."""
    wide, air = text_width(text, size), 0.15 * size
    left = at[0] - {"left": 0.0, "centre": 0.5, "right": 1.0}[anchor] * wide
    return Spot((left - air, at[1] - size / 2, wide + 2 * air, size), "", text)


def _reaches(room: Spot, hole: Point, radius: float) -> bool:
    """Whether it comes within a hole's ring."""
    x, y, w, h = room.rect
    nearest = min(max(hole[0], x), x + w), min(max(hole[1], y), y + h)
    return dist(hole, nearest) < radius


def _crosses(item: Stroke | Circle | Shape, room: Spot) -> bool:
    """Whether a line of a drawing runs through a rectangle."""
    x, y, w, h = room.rect
    match item:
        case Stroke():
            return room.crossed(item.start, item.end, 0.0)
        case Shape():
            ring = (*item.points, item.points[0])
            return any(room.crossed(a, b, 0.0) for a, b in pairwise(ring))
        case Circle():
            corners = ((x, y), (x + w, y), (x, y + h), (x + w, y + h))
            far = max(dist(item.centre, corner) for corner in corners)
            return far > item.radius and _reaches(room, item.centre, item.radius)


def _outline(board: Board, body: Body, holes: Holes, place, scale: float) -> None:  # type: ignore[no-untyped-def]
    long, wide = face_size(body, holes.face)
    if holes.block is not None:
        corners = ((0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide))
        board.items.append(
            Shape(tuple(place(*c) for c in corners), "outline", 1.8, "panel")
        )
        others = [
            other
            for other in body.features
            if isinstance(other, Holes) and other.face == holes.face
        ]
        for other in others:
            if other.name != holes.name:
                for x, y in seen(body, other):
                    r = other.hole.diameter / 2 * scale
                    board.items.append(Circle(place(x, y), r, "faint", 1.2))
        return
    middle = place(0.0, 0.0)
    board.items.append(Circle(middle, long / 2 * scale, "outline", 1.8, "panel"))
    if isinstance(holes.pattern, HoleCircle | Arc):
        r = holes.pattern.diameter / 2 * scale
        board.items.append(Circle(middle, r, "centre", 1.0))
    bores = [f.diameter for f in body.features if isinstance(f, Bore)]
    for wide_bore in bores:
        board.items.append(Circle(middle, wide_bore / 2 * scale, "faint", 1.2))


def _from_zero(  # type: ignore[no-untyped-def]
    board: Board, at: Point, at_zero: Point, place, radius: float, inch: bool
) -> None:
    """X and Y of the hole at hand, from the zero; radius: where its ring begins."""
    size, x, y = board.size, at[0] - at_zero[0], at[1] - at_zero[1]
    zero, hole = place(*at_zero), place(*at)
    corner = hole[0], zero[1]
    for a, b in ((zero, corner), (corner, hole)):
        if (far := dist(a, b)) > 1:
            part = max(0.0, 1 - radius / far) if b == hole else 1.0
            end = a[0] + (b[0] - a[0]) * part, a[1] + (b[1] - a[1]) * part
            board.items.append(Stroke(a, end, "cut", 1.4))

    def said(value: float) -> str:
        return length_text(value, 0.01, inch, unit=False)

    if abs(hole[0] - zero[0]) > 3.5 * size:
        under = zero[1] + (1.2 if y >= 0 else -0.7) * size
        board.text(((zero[0] + hole[0]) / 2, under), said(x), size, "cut",
                   backed=True)  # fmt: skip
    if abs(hole[1] - zero[1]) > 2.2 * size:
        # beside a hole that is near, past its ring
        near = abs(hole[1] - zero[1]) / 2 < radius + 0.5 * size
        out = 0.6 * size + (radius if near else 0.0)
        away: Anchor = "left" if x >= 0 else "right"
        beside = hole[0] + (out if x >= 0 else -out)
        board.text((beside, (zero[1] + hole[1]) / 2), said(y), size, "cut", away,
                   backed=True)  # fmt: skip
