"""Pictures of the exercises judged by feel: the blue, the jaws, the depth cut."""

import math

from machinon.core.practice.judged import (
    DEEP,
    Centring,
    Exercise,
    TaperExercise,
    ThreadExercise,
)
from machinon.core.quantity import length_text
from machinon.draw.drawing import Board, Circle, Drawing, Shape


def judged_drawing(
    exercise: Exercise, width: float, height: float, size: float
) -> Drawing:
    """The picture of an exercise as it stands."""
    board = Board(width, height, size)
    match exercise:
        case TaperExercise():
            _blue(board, exercise)
        case Centring():
            _jaws(board, exercise)
        case ThreadExercise():
            _depth(board, exercise)
    return board.done()


def _blue(board: Board, taper: TaperExercise) -> None:
    """The plug, with the part of it that came out blue."""
    middle, long = board.height / 2, board.width * 0.7
    left = board.width * 0.15
    large, small = board.height * 0.3, board.height * 0.18

    def half(x: float) -> float:
        return large + (small - large) * (x - left) / long

    def piece(a: float, b: float) -> tuple[tuple[float, float], ...]:
        return (
            (a, middle - half(a)),
            (b, middle - half(b)),
            (b, middle + half(b)),
            (a, middle + half(a)),
        )

    board.items.append(Shape(piece(left, left + long), "outline", 1.6, "panel"))
    share = taper.rubbed
    # a bore that is too steep is wide at its mouth: it touches the plug's small end
    begins = left + long * (1 - share) if taper.error > 0 and share < 1 else left
    blued = piece(begins, begins + long * share)
    board.items.append(Shape(blued, "measured", 1.2, "none", "right"))
    board.line((left - 8, middle), (left + long + 8, middle), "centre", 1.0)
    below = middle + large + 1.6 * board.size
    board.text((left, below), "large end", role="faint")
    board.text((left + long, below), "small end", role="faint")


def _jaws(board: Board, centring: Centring) -> None:
    """The work from the tailstock: where the needle stood at each jaw."""
    cx, cy = board.width / 2, board.height / 2
    radius = min(board.width, board.height) * 0.27
    board.items.append(Circle((cx, cy), radius, "outline", 1.6))
    zero = centring.readings[0]
    words = radius > 4 * board.size  # with less room they stand below the picture alone
    for i, reading in enumerate(centring.readings):
        turn = math.radians(90 * i)
        x, y = math.cos(turn), -math.sin(turn)
        at = (cx + x * radius * 1.1, cy + y * radius * 1.1)
        off = (cx + x * radius * 1.3, cy + y * radius * 1.3)
        board.line(at, off, "cut", 5.0)
        if not words:
            continue
        word = (cx + x * radius * 1.55, cy + y * radius * 1.55)
        board.text((word[0], word[1] - 0.6 * board.size), f"jaw {i + 1}", role="faint")
        said = f"{reading - zero:+.2f}"
        board.text((word[0], word[1] + 0.7 * board.size), said, role="measured",
                   bold=True)  # fmt: skip


def _depth(board: Board, thread: ThreadExercise) -> None:
    """Draws the depth dialled in against that of the table."""
    left, right = board.width * 0.12, board.width * 0.88
    top, bottom = board.height * 0.42, board.height * 0.58
    share = min(thread.said / DEEP, 1.3)
    most = right - left
    at = left + most / 1.3
    filled = left + most * share / 1.3
    whole = ((left, top), (right, top), (right, bottom), (left, bottom))
    board.items.append(Shape(whole, "thin", 1.0))
    done = ((left, top), (filled, top), (filled, bottom), (left, bottom))
    board.items.append(Shape(done, "cut", 1.4, "none", "right"))
    board.line((at, top - board.size), (at, bottom + board.size), "outline", 1.6)
    above = top - 1.8 * board.size
    board.text((at, above), f"the table: {length_text(DEEP, 0.001)}", role="faint")
    board.text((filled, bottom + 1.6 * board.size), length_text(thread.said, 0.001),
               role="cut", bold=True)  # fmt: skip
