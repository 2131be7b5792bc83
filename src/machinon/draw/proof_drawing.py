"""A line of the proof drawn: the band wanted, and where the made size lies."""

import functools

from machinon.core.job.proof import ProofLine
from machinon.core.quantity import length_text, small_text
from machinon.draw.drawing import Board, Drawing, Mark, MarkKind, Role, Shape
from machinon.draw.lettering import cut_short, in_lines, text_width

WIDE = 0.5  # mm: a band of which thousandths say nothing
LINES = 2  # of what is said of a size that has no band
ACROSS = 14.0  # letters as high as they are wide that a line has room for at least
VERDICTS: dict[str, MarkKind] = {
    "proved": "proved",
    "near": "measured",
    "failed": "stop",
}


def band_drawing(
    line: ProofLine, width: float, height: float, size: float = 13.0, inch: bool = False
) -> Drawing:
    """Name and figures above, a level rule with the band below; sizes grow right."""
    figure = ""
    step = 0.001
    if line.lower is not None and line.upper is not None:
        step = 0.01 if line.upper - line.lower >= WIDE else step
    if line.size is not None:
        made = length_text(line.size, step, inch)
        figure = f"{made} ± {small_text(line.doubt, inch)}"
    # letters give way before a figure is cut, or meets the name or its neighbour
    abreast = 6.1 + text_width(line.name + figure, 1.0)
    size = min(size, width / ACROSS, width / abreast)
    board = Board(width, height, size)
    if line.fit:
        board.numbered((size * 1.2, size * 1.3), line.fit)
    board.text((size * 2.3, size * 1.3), line.name, anchor="left", bold=True)
    verdict = VERDICTS.get(line.verdict)
    if verdict:
        corner = width - 1.4 * size, 1.4 * size
        board.items.append(Mark(corner, verdict, 1.3 * size))
    role: Role = {
        "open": "faint",
        "proved": "proved",
        "near": "measured",
        "failed": "stop",
    }[line.verdict]  # type: ignore[assignment]
    right = width - size * 2.8
    no_band = line.lower is None or line.upper is None
    if line.size is None and not no_band:
        room = right - size * 2.8 - text_width(line.name, size)
        # what it is measured over is asked below
        shorter = (line.says, line.says.partition(":")[0], "open")
        says = next((form for form in shorter if text_width(form, size) < room), "")
        board.text((right, size * 1.3), says, role="faint", anchor="right")
    elif line.size is not None:
        board.text((right, size * 1.3), figure, role=role, anchor="right", bold=True)
    if line.lower is None or line.upper is None:
        # as large as its lines take all of it
        small, room = size, width - 2.8 * size
        while text_width(line.says, small) > 0.9 * LINES * room:
            small *= 0.95
        wide = functools.partial(text_width, size=small)
        for row, part in enumerate(in_lines(line.says.split(), wide, room, LINES)):
            place = size * 2.3, size * (3 + 1.3 * row)
            board.text(place, cut_short(part, small, room), small, role, "left")
        return board.done()
    left, end, y = size * 2.3, width - size * 1.4, size * 3.1
    span = max(line.upper - line.lower, step)  # a band may be no wider than a line
    middle = (line.lower + line.upper) / 2

    def x(value: float) -> float:
        share = (value - middle) / span
        return (left + end) / 2 + max(-1.0, min(1.0, share)) * (end - left) / 2

    board.line((left, y), (end, y), "thin", 1.0)
    a, b, half = x(line.lower), x(line.upper), size * 0.55
    board.items.append(
        Shape(
            ((a, y - half), (b, y - half), (b, y + half), (a, y + half)),
            "cut",
            1.4,
            "panel",
            "right",
        )
    )
    for value, at in ((line.lower, a), (line.upper, b)):
        board.text(
            (at, y + size * 1.35),
            length_text(value, step, inch, unit=False),
            size * 0.85,
            "faint",
        )
    if line.size is not None:
        c = x(line.size)
        board.line(
            (x(line.size - line.doubt), y), (x(line.size + line.doubt), y), role, 3.0
        )
        kind = VERDICTS.get(line.verdict, "measured")
        board.items.append(Mark((c, y), kind, size * 1.1))
    return board.done()
