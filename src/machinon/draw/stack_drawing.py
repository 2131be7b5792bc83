"""The stack strip: spindle nose, plate and chuck along their axis, to scale."""

from machinon.core.plan import Plan
from machinon.draw.drawing import Board, Drawing, Line, Point, Shape, Spot
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
        fit = plan.fit(number)
        bad = bool(fit.problem or fit.contradiction)
        board.numbered(at, number, "stop" if bad else "cut")
        board.spots.append(
            Spot(
                (at[0] - size, at[1] - size, 2 * size, 2 * size),
                f"fit.{number}",
                fit.choice.name,
            )
        )
    return board.done()


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
