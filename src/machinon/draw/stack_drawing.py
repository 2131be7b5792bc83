"""The stack strip: spindle nose, plate and chuck along their axis, to scale."""

from typing import Literal

from machinon.core.job.plan import FitPlan, Plan
from machinon.draw.drawing import Board, Drawing, Line, Point, Shape, Spot
from machinon.draw.piece_shape import outline_of
from machinon.draw.section import draw_turned, finished_shape

SHOULDER = 18.0  # mm of spindle drawn behind the shoulder
CHUCK_DEPTH = 45.0  # mm of chuck body drawn; its length is not asked for


def stack_drawing(
    plan: Plan, width: float, height: float, size: float = 12.0
) -> Drawing:
    """The upper half section of the set-up; pieces not yet known are left out.

    Pieces are laid along z with the shoulder at 0. Ties are piece ids and
    `fit.N` for the numbered fits.
    """
    board = Board(width, height, size)
    plate = plan.plate
    if plate is None:
        drawn = plan.pieces and all(p.surfaces for p in plan.pieces.values())
        if plan.job.plate is None and drawn:
            _row(board, plan)
        else:
            _unknown(board, plan)
        return board.done()
    body = plan.measured.get((plan.job.pieces[1], "body"))
    body_radius = (body.size if body else plate.flange_diameter) / 2
    tall = max(plate.flange_diameter / 2, body_radius)
    total = SHOULDER + plate.seat + CHUCK_DEPTH
    scale = min((height - 2.6 * size) / tall, (width - 2 * size) / total)
    axis = height - 0.9 * size
    left = (width - total * scale) / 2 + SHOULDER * scale

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - max(r, 0.0) * scale

    def solid(
        points: list[tuple[float, float]], hatch: bool, tie: str, name: str
    ) -> None:
        at = tuple(place(z, r) for z, r in points)
        board.items.append(
            Shape(at, "outline", 1.4, "panel", "left" if hatch else "", tie=tie)
        )
        xs, ys = [p[0] for p in at], [p[1] for p in at]
        board.spots.append(
            Spot((min(xs), min(ys), max(xs) - min(xs), max(ys) - min(ys)), tie, name)
        )

    nose_r, major = plate.register_bore / 2, plate.thread.major / 2
    shoulder = min(nose_r * 1.35, plate.hub_diameter / 2)
    nose = plan.pieces[plan.job.pieces[0]]
    chuck = plan.pieces[plan.job.pieces[1]]
    draw_turned(board, finished_shape(plate), plate, place, both=False)
    solid(
        [
            (-SHOULDER, 0),
            (-SHOULDER, shoulder),
            (0, shoulder),
            (0, nose_r),
            (plate.nose_register_length, nose_r),
            (plate.nose_register_length, major),
            (plate.nose_length, major),
            (plate.nose_length, 0),
        ],
        False,
        nose.id,
        nose.name,
    )
    recess = plate.recess / 2
    bore = plate.thread_bore / 2 * 0.8
    solid(
        [
            (plate.seat, recess),
            (plate.seat, body_radius),
            (plate.seat + CHUCK_DEPTH, body_radius),
            (plate.seat + CHUCK_DEPTH, bore),
            (plate.seat + plate.recess_depth, bore),
            (plate.seat + plate.recess_depth, recess),
        ],
        True,
        chuck.id,
        chuck.name,
    )
    board.items.append(
        Line(
            (left - (SHOULDER + 4) * scale, axis),
            (left + (plate.seat + CHUCK_DEPTH + 4) * scale, axis),
            "centre",
            1.0,
        )
    )
    spots = {
        1: place(plate.nose_register_length / 2, nose_r),
        2: place((plate.nose_register_length + plate.nose_length) / 2, major),
        3: place(plate.seat + plate.spigot_height / 2, plate.spigot_diameter / 2),
        4: place(plate.hub_length + plate.flange_thickness / 2, plate.bolt_circle / 2),
    }
    for number, at in spots.items():
        _number(board, plan.fit(number), at)
    return board.done()


SHARE = 0.8  # of its column that the longest piece takes


def _row(board: Board, plan: Plan) -> None:
    """The pieces that are measured, side by side to one scale, on one axis."""
    outlines = [
        (
            piece,
            outline_of(
                piece, {s.id: plan.measured[piece.id, s.id] for s in piece.surfaces}
            ),
        )
        for piece in plan.pieces.values()
    ]
    size = board.size
    step = board.width / len(outlines)
    foot = 1.9 * size
    scale = min(
        (board.height - foot - 1.2 * size) / max(o.size[1] for _, o in outlines),
        SHARE * step / max(o.size[0] for _, o in outlines),
    )
    axis = board.height - foot
    for number, (piece, outline) in enumerate(outlines):
        long, high = outline.size
        at = (number + 0.5) * step - long * scale / 2
        points = tuple((at + x * scale, axis - y * scale) for x, y in outline.points)
        hatch: Literal["", "left"] = "left" if outline.cut else ""
        board.items.append(Shape(points, "outline", 1.4, "panel", hatch, tie=piece.id))
        board.spots.append(
            Spot(
                (at, axis - high * scale, long * scale, high * scale),
                piece.id,
                piece.name,
            )
        )
        board.text(
            ((number + 0.5) * step, axis + size),
            _cut(piece.name, step, 0.85 * size),
            0.85 * size,
            "faint",
        )
        for fit in plan.fits:
            place = outline.places.get(fit.choice.surface)
            if fit.choice.piece == piece.id and place is not None:
                _number(board, fit, (at + place[0] * scale, axis - place[1] * scale))
    if any(outline.turns for _, outline in outlines):
        board.line((4, axis), (board.width - 4, axis), "centre", 1.0)


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
    names = [piece.name for piece in plan.pieces.values()]
    if not names:
        return
    if plan.job.plate is not None:
        names.insert(1, "plate to make")
    step = board.width / len(names)
    for i, name in enumerate(names):
        left, right = i * step + 6, (i + 1) * step - 6
        top, bottom = board.height * 0.28, board.height * 0.72
        made = name == "plate to make"
        board.items.append(
            Shape(
                ((left, top), (right, top), (right, bottom), (left, bottom)),
                "cut" if made else "outline",
                1.4,
                "panel",
            )
        )
        short = (
            name
            if len(name) * board.size * 0.6 < step - 16
            else name[: int((step - 16) / board.size / 0.6) - 1] + "…"
        )
        board.text(
            ((left + right) / 2, (top + bottom) / 2),
            short,
            role="cut" if made else "text",
        )
    y = board.height / 2
    for i in range(1, len(names)):
        board.line((i * step - 6, y), (i * step + 6, y), "centre", 1.2)
