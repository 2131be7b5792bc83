"""The stack strip: the pieces of a job and what is made between them, to scale."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from machinon.core.families import family_of
from machinon.core.job.made_piece import ruled_by_fits
from machinon.core.job.plan import FitPlan, Plan
from machinon.core.piece.body import Body
from machinon.core.piece.family import Made
from machinon.core.piece.features import Circle, Holes
from machinon.core.piece.relations import Expression
from machinon.core.shop.things import Piece
from machinon.draw.body_views import draw_block_view, draw_upper_half
from machinon.draw.drawing import Board, Drawing, Point, Shape, Spot
from machinon.draw.piece_shape import Outline, outline_of

SHARE = 0.8  # of its column that the longest piece takes
MADE = "made"  # the tie of the piece that is made


def stack_drawing(
    plan: Plan, width: float, height: float, size: float = 12.0
) -> Drawing:
    """The set-up in section, from above the axis of what turns.

    Pieces that say where they seat stand together as they will be, else side by side.
    Ties are piece ids, `made`, and `fit.N` for the numbered fits.
    """
    board = Board(width, height, size)
    pieces = list(plan.pieces.values())
    if not all(piece.surfaces for piece in pieces) or not (pieces or plan.made):
        _unknown(board, plan)
        return board.done()
    outlines = [
        _Drawn(
            piece,
            outline_of(
                piece, {s.id: plan.measured[piece.id, s.id] for s in piece.surfaces}
            ),
        )
        for piece in pieces
    ]
    made = plan.made
    seats = _seats(plan, made) if made is not None else {}
    if made is not None and seats and seats.keys() == plan.pieces.keys():
        _together(board, plan, made, outlines, seats)
    else:
        _row(board, plan, outlines)
    return board.done()


@dataclass(frozen=True, slots=True)
class _Drawn:
    """A piece with its outline."""

    piece: Piece
    outline: Outline


def _seats(plan: Plan, made: Made) -> dict[str, float]:
    """Where the zero of each mate lies along what is made, by its id, mm."""
    if not made.body.turns or plan.job.making is None:
        return {}
    numbers = {
        k: float(v) for k, v in made.values.items() if isinstance(v, int | float)
    }
    return {
        plan.job.making.mates[mate.role]: Expression(mate.seats, mate.role).value(
            numbers
        )
        for mate in made.family.mates
        if mate.seats and mate.role in plan.job.making.mates
    }


def _together(
    board: Board,
    plan: Plan,
    made: Made,
    outlines: list[_Drawn],
    seats: dict[str, float],
) -> None:
    """What is made with its mates on it, on one axis."""
    size, body = board.size, made.body
    first, last = body.ends
    radius = body.largest / 2
    for one in outlines:
        start = seats[one.piece.id] - one.outline.zero
        long, high = one.outline.size
        first, last = min(first, start), max(last, start + long)
        radius = max(radius, high)
    scale = min(
        (board.height - 2.6 * size) / radius, (board.width - 2 * size) / (last - first)
    )
    axis = board.height - 0.9 * size
    left = (board.width - (last - first) * scale) / 2 - first * scale

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - max(r, 0.0) * scale

    draw_upper_half(board, body, place, "cut")
    _spot(board, [place(z, r) for z, r in body.rings()[0]], MADE, made.family.name)
    for one in outlines:
        start = seats[one.piece.id] - one.outline.zero
        _outline(board, one, [place(start + x, y) for x, y in one.outline.points])
    past = 4 * scale
    board.line(
        (left + first * scale - past, axis),
        (left + last * scale + past, axis),
        "centre",
        1.0,
    )
    for fit in plan.fits:
        for one in outlines:
            at = one.outline.places.get(fit.choice.surface)
            if one.piece.id != fit.choice.piece:
                continue
            start = seats[one.piece.id] - one.outline.zero
            spot = (start + at[0], at[1]) if at else _hole_of(made, fit)
            if spot is not None:
                _number(board, fit, place(*spot))


def _hole_of(made: Made, fit: FitPlan) -> Point | None:
    """The middle of a hole whose circle a fit rules, (z, r)."""
    name = ruled_by_fits(made).get(fit.choice.number, "").partition(".")[0]
    one = next((one for one in made.body.features if one.name == name), None)
    if not isinstance(one, Holes) or not isinstance(one.pattern, Circle):
        return None
    into = one.through / 2 if one.face == "left" else -one.through / 2
    return one.level + into, one.pattern.diameter / 2


def _row(board: Board, plan: Plan, outlines: list[_Drawn]) -> None:
    """The pieces side by side to one scale, on one axis; what is made second."""
    size = board.size
    body = plan.made.body if plan.made is not None else None
    making = plan.job.making
    step = board.width / (len(outlines) + bool(making))
    foot = 1.9 * size
    sizes = [one.outline.size for one in outlines]
    if body is not None:
        sizes.append(_size_of(body))
    scale = min(
        (board.height - foot - 1.2 * size) / max(high for _, high in sizes),
        SHARE * step / max(long for long, _ in sizes),
    )
    axis = board.height - foot
    columns: list[_Drawn | None] = [*outlines]
    if making is not None:
        columns.insert(1, None)
    for number, one in enumerate(columns):
        middle = (number + 0.5) * step
        if one is None:
            assert making is not None
            if plan.made is not None:
                _made_in_row(board, plan.made, middle, axis, scale)
            else:
                _not_known(board, middle, axis, step)
            name = f"{family_of(making.family).name}, to make"
            _name(board, name, middle, axis, step, made=True)
            continue
        long, _ = one.outline.size
        at = middle - long * scale / 2
        points = [(at + x * scale, axis - y * scale) for x, y in one.outline.points]
        _outline(board, one, points)
        _name(board, one.piece.name, middle, axis, step)
        for fit in plan.fits:
            place = one.outline.places.get(fit.choice.surface)
            if fit.choice.piece == one.piece.id and place is not None:
                _number(board, fit, (at + place[0] * scale, axis - place[1] * scale))
    if any(one.outline.turns for one in outlines) or (body and body.turns):
        board.line((4, axis), (board.width - 4, axis), "centre", 1.0)


def _size_of(body: Body) -> tuple[float, float]:
    """How long and how high a body is drawn in the row, mm."""
    if body.turns:
        first, last = body.ends
        return last - first, body.largest / 2
    x0, _, z0, x1, _, z1 = body.shadow.box
    return x1 - x0, z1 - z0


def _made_in_row(
    board: Board, made: Made, middle: float, axis: float, scale: float
) -> None:
    body = made.body
    long, high = _size_of(body)
    left = middle - long * scale / 2
    if body.turns:
        first, _ = body.ends
        draw_upper_half(
            board,
            body,
            lambda z, r: (left + (z - first) * scale, axis - r * scale),
            "cut",
        )
    else:
        x0, _, z0, *_ = body.shadow.box
        draw_block_view(
            board,
            body,
            "front",
            lambda x, z: (left + (x - x0) * scale, axis - (z - z0) * scale),
        )
    corners = [(left, axis), (left + long * scale, axis - high * scale)]
    _spot(board, corners, MADE, made.family.name)


def _not_known(board: Board, middle: float, axis: float, step: float) -> None:
    """What is made, while its sizes are not known."""
    half, high = 0.3 * step, axis - 2.4 * board.size
    corners = [(middle - half, axis), (middle + half, axis - high)]
    (a, low), (b, top) = corners
    points = ((a, low), (b, low), (b, top), (a, top))
    board.items.append(Shape(points, "cut", 1.4, "panel"))
    _spot(board, corners, MADE, "to make")


def _outline(board: Board, one: _Drawn, points: list[Point]) -> None:
    hatch: Literal["", "left"] = "left" if one.outline.cut else ""
    board.items.append(
        Shape(tuple(points), "outline", 1.4, "panel", hatch, tie=one.piece.id)
    )
    _spot(board, points, one.piece.id, one.piece.name)


def _spot(board: Board, points: list[Point], tie: str, name: str) -> None:
    xs, ys = [x for x, _ in points], [y for _, y in points]
    rect = (min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys))
    board.spots.append(Spot(rect, tie, name))


def _name(
    board: Board,
    name: str,
    middle: float,
    axis: float,
    step: float,
    made: bool = False,
) -> None:
    small = 0.85 * board.size
    board.text(
        (middle, axis + board.size),
        _cut(name, step, small),
        small,
        "cut" if made else "faint",
    )


def _cut(name: str, room: float, size: float) -> str:
    """A name as far as there is room for it."""
    most = int((room - size) / size / 0.6)
    return name if len(name) <= most else name[: max(most - 1, 1)] + "…"


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
    """The pieces by name, and whether each is made here; that after the first."""
    names = [(piece.name, False) for piece in plan.pieces.values()]
    if plan.job.making is not None:
        name = family_of(plan.job.making.family).name
        names.insert(1, (f"{name}, to make", True))
    yield from names
