"""The picture of a step: the face with its holes as one looks at it, the one at hand
lit and dimensioned from the zero; else the piece as the step leaves it."""

from collections.abc import Collection

from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import Arc, Holes
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.jigs import face_size
from machinon.core.piece.turned_features import Bore
from machinon.core.quantity import length_text
from machinon.core.route.operations import StepTold
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
)
from machinon.draw.drawing import Line as Stroke
from machinon.draw.lettering import text_width


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
    for n, (point, of) in enumerate(laps.items(), 1):
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
        # in its hole where it has room there: beside one at the edge a line runs
        marked = ticked and not here
        inside = not marked and text_width(f"{n}", size) < 1.3 * radius
        beside = 0.0 if inside else radius + 0.75 * size
        board.text((centre[0] + beside, centre[1] - beside * 0.6), f"{n}", size,
                   "cut" if here else "faint")  # fmt: skip
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
        _from_zero(board, hand.at, listed.zero, place, inch)


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


def _from_zero(board: Board, at: Point, at_zero: Point, place, inch: bool) -> None:  # type: ignore[no-untyped-def]
    """X and Y of the hole at hand, from the zero."""
    size, x, y = board.size, at[0] - at_zero[0], at[1] - at_zero[1]
    zero, hole = place(*at_zero), place(*at)
    corner = hole[0], zero[1]
    for a, b in ((zero, corner), (corner, hole)):
        if abs(a[0] - b[0]) + abs(a[1] - b[1]) > 1:
            board.items.append(Stroke(a, b, "cut", 1.4))

    def said(value: float) -> str:
        return length_text(value, 0.01, inch, unit=False)

    if abs(hole[0] - zero[0]) > 3.5 * size:
        under = zero[1] + (1.2 if y >= 0 else -0.7) * size
        board.text(((zero[0] + hole[0]) / 2, under), said(x), size, "cut",
                   backed=True)  # fmt: skip
    if abs(hole[1] - zero[1]) > 2.2 * size:
        out = 0.6 * size
        away: Anchor = "left" if x >= 0 else "right"
        beside = hole[0] + (out if x >= 0 else -out)
        board.text((beside, (zero[1] + hole[1]) / 2), said(y), size, "cut", away,
                   backed=True)  # fmt: skip
