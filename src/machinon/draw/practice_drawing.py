"""Progress over time: each exercise as a mark, the share that landed as a line."""

from collections.abc import Sequence

from machinon.core.practice.record import Record, running
from machinon.draw.drawing import Board, Drawing, Mark, MarkKind, Shape

SHOWN = 60  # exercises


def progress_drawing(
    records: Sequence[Record], width: float, height: float, size: float
) -> Drawing:
    """The last exercises from left to right; nothing before the second."""
    board = Board(width, height, size)
    last = list(records)[-SHOWN:]
    if len(last) < 2:
        board.text((width / 2, height / 2), "Two exercises make a line", role="faint")
        return board.done()
    shares = running(records)[-SHOWN:]
    left, right = 4.5 * size, width - size
    top, bottom = 1.2 * size, height - 3.4 * size

    def x(i: int) -> float:
        return left + (right - left) * i / (len(last) - 1)

    for share, words in ((0.0, "none"), (0.5, "half"), (1.0, "all")):
        y = bottom - (bottom - top) * share
        board.line((left, y), (right, y), "thin", 0.8)
        board.text((left - 0.5 * size, y), words, 0.8 * size, "faint", "right")
    points = tuple(
        (x(i), bottom - (bottom - top) * share) for i, share in enumerate(shares)
    )
    board.items.append(Shape(points, "proved", 2.2, closed=False))
    for i, record in enumerate(last):
        kind: MarkKind = "proved" if record.inside else "stop" if record.past else "cut"
        board.items.append(Mark((x(i), height - 1.4 * size), kind, 0.9 * size))
    return board.done()
