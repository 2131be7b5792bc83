"""One frame of the route's film strip: the piece as it is after a step."""

from machinon.core.piece.back_plate import Plate
from machinon.core.route.plate_route import Step
from machinon.draw.drawing import Board, Drawing, Point
from machinon.draw.section import draw_turned


def film_drawing(
    plate: Plate, step: Step, width: float, height: float, size: float = 11.0
) -> Drawing:
    """The piece after the step, to the same scale in every frame of a plate."""
    board = Board(width, height, size)
    tall, long = plate.stock_diameter, plate.stock_length
    scale = min((height - 0.8 * size) / tall, (width - 2 * size) / (long + 8))
    axis = height / 2
    left = (width - (long - 1) * scale) / 2

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    draw_turned(board, step.shape, plate, place, step.lit)
    return board.done()
