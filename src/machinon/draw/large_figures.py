"""Figures to be read from the machine, as large as there is room for, and the list of
what is done and to do."""

from collections.abc import Collection, Sequence

from machinon.core.piece.shown import Shown
from machinon.core.quantity import LENGTH, length_text, text_of
from machinon.core.reckoning import TEXT
from machinon.core.route.work.lines import WorkLine
from machinon.draw.drawing import Board, Drawing, Mark, Role, Shape
from machinon.draw.lettering import cut_short, text_width

NAME = 1.15  # of the drawing's own letters: what a figure is
LARGEST = 190.0  # px at 100 %: a figure is never larger
WORTH = 1.2  # times as tall: figures stand after their names for no less
LEAST = 0.72  # of the drawing's letters: smaller a line of the list is not set
ROW = 2.5  # figure heights of a line of the list


def shown_text(shown: Shown, inch: bool) -> tuple[str, str]:
    """A figure and its unit, as they are read at the machine."""
    if shown.kind is TEXT or isinstance(shown.value, str):
        return str(shown.value), ""
    if shown.kind is LENGTH:
        text = length_text(shown.value, shown.step, inch, unit=False)
        return text, "in" if inch else "mm"
    text = text_of(shown.value, shown.kind, inch)
    number, _, unit = text.partition(" ")
    return number, unit


def figures_drawing(
    figures: Sequence[Shown], width: float, height: float, size: float, inch: bool
) -> Drawing:
    """The figures, as many abreast as makes them largest, each with its name over it;
    or one below the other with their names before them."""
    board = Board(width, height, size)
    if not figures:
        return board.done()
    said = [shown_text(shown, inch) for shown in figures]
    widest = max(max(text_width(text, 1.0) for text, _ in said), 2.0)
    units = max(text_width(unit, NAME * size) for _, unit in said)
    names = max(text_width(shown.name, NAME * size) for shown in figures) + size

    def tall_in(columns: int) -> float:
        """Height of the figures in so many columns, their names over them."""
        rows = -(-len(figures) // columns)
        across = (width / columns - units - 1.4 * size) / widest
        return min(across, height / rows - (NAME + 1.1) * size, LARGEST * size / 15)

    def tall_after_names() -> float:
        """Height of the figures one below the other, their names before them."""
        across = (width - names - units - 1.4 * size) / widest
        return min(across, height / len(figures) - 0.4 * size, LARGEST * size / 15)

    columns = max(range(1, len(figures) + 1), key=tall_in)
    tall = max(tall_in(columns), size)
    # so it is in a low and wide place
    if beside := tall_after_names() > WORTH * tall:
        columns, tall = 1, tall_after_names()
    room_y = height / -(-len(figures) // columns)
    room_x, before = width / columns, names if beside else 0.0
    for n, (shown, (text, unit)) in enumerate(zip(figures, said, strict=True)):
        x = (n % columns) * room_x + 0.4 * size
        y = (n // columns) * room_y
        if beside:
            middle = y + room_y / 2
            named = middle + 0.2 * tall
        else:
            middle = y + (NAME + 0.7) * size + tall / 2
            named = y + 0.8 * size
        room = (before or room_x) - 0.6 * size
        letters = min(NAME * size, room / text_width(shown.name, 1.0))
        board.text((x, named), shown.name, letters, "faint", "left")
        board.text((x + before, middle), text, tall, "cut", "left", bold=True)
        if unit:
            past = tall * text_width(text, 1.0) + 0.4 * size
            room = (room_x - before - 0.5 * size - past) / text_width(unit, 1.0)
            letters = min(NAME * size, room)
            at = x + before + past, middle + 0.2 * tall
            board.text(at, unit, letters, "faint", "left")
    return board.done()


def lines_height(lines: Sequence[WorkLine], size: float) -> float:
    """Height of the list, px."""
    return len(lines) * ROW * size + 0.4 * size


def lines_drawing(
    lines: Sequence[WorkLine],
    done: Collection[str],
    at: str,
    width: float,
    height: float,
    size: float,
) -> Drawing:
    """A row for each line: ticked, at hand, or to come; each can be chosen."""
    board = Board(width, height, size)
    for n, line in enumerate(lines):
        top = n * ROW * size + 0.2 * size
        middle = top + ROW * size / 2
        here = line.key == at
        if here:
            box = (2, top + 2), (width - 2, top + 2)
            low = (width - 2, top + ROW * size - 2), (2, top + ROW * size - 2)
            board.items.append(Shape((*box, *low), "cut", 2.0, "ground"))
        if line.key in done:
            board.items.append(Mark((1.2 * size, middle), "proved", size))
        role: Role = "text" if here else "faint" if line.key in done else "text"
        words, room = line.head, width - 2.9 * size
        # letters come in whole pixels
        letters = min(
            size, max(int(room / text_width(words, 1.0)), round(LEAST * size))
        )
        words = cut_short(words, letters, room)
        board.text((2.3 * size, middle), words, letters, role, "left", bold=here)
        rect = (0.0, top, width, ROW * size)
        board.choose(rect, line.key, line.head)
    return board.done()
