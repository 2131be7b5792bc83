"""A reckoning on paper: its picture, results with every list, working and source."""

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from machinon.core.reckoning import Answer, Result, reckonings
from machinon.desk.paper_parts import Part, abreast, drawn, gap, words, write_parts
from machinon.desk.sheet import A4_UPRIGHT
from machinon.draw.answer_rows import columns, in_rows
from machinon.draw.drawing import Drawing
from machinon.draw.sketch import figure

PICTURE, NAMES = 430.0, 190.0  # page units: its height, and where the figures begin
MANY = 12  # places: more stand three abreast


def write_answer(
    answer: Answer,
    picture: Callable[[float, float, float], Drawing],
    path: Path,
    inch: bool,
) -> None:
    """Write an answer as PDF. Raises MachinonError where it cannot be written."""
    drawing = picture(A4_UPRIGHT[0], PICTURE, 12)
    parts = [drawn(drawing, below=14), *_parts(answer, inch)]
    unit = "inches" if inch else "millimetres"
    says = f"Lengths in {unit}, angles in degrees where no unit is said."
    write_parts(path, answer.title, says, ("Machinon",), parts)


def _parts(answer: Answer, inch: bool) -> Iterator[Part]:
    results = {result.key: result for result in reckonings()[answer.reckoner].results}
    for key, value in answer.results.items():
        if value not in ("", None, []):
            yield from _result(results[key], value, inch)
    yield gap(10)
    for step in answer.working:
        value = figure(step.value, step.kind, inch)
        yield words(f"{step.what}: {step.expression} = {value}", 11)
    yield gap(6)
    for text in (*answer.cautions, *answer.notes, *answer.sources):
        yield words(text, 10.5, "faint")


def _result(result: Result, value: Any, inch: bool) -> Iterator[Part]:
    name = words(result.words, 12, "faint", room=NAMES - 10)
    if not isinstance(value, list):
        said = words(figure(value, result.kind, inch), 12, bold=True, x=NAMES)
        yield abreast(name, said)
    elif isinstance(value[0], dict):
        yield words(result.words, 12, "faint", leads=True)
        yield from _table(result, value, inch)
    else:
        lines = in_rows(value, result.kind, inch).split("\n")
        across = 3 if len(lines) > MANY else 1
        wide, down = (A4_UPRIGHT[0] - NAMES) / across, -(-len(lines) // across)
        for n in range(down):
            row = [
                words(line, 12, x=NAMES + at * wide, room=wide - 8)
                for at, line in enumerate(lines[n::down])
            ]
            yield abreast(name, *row) if n == 0 else abreast(*row)


def _table(result: Result, rows: list[dict[str, Any]], inch: bool) -> Iterator[Part]:
    """Rows of results under the names of their columns."""
    wide = A4_UPRIGHT[0] / len(rows[0])

    def row(texts: list[str], ink: Any, leads: bool = False) -> Part:
        cells = [
            words(text, 11, ink, x=at * wide, room=wide - 8)
            for at, text in enumerate(texts)
        ]
        return abreast(*cells)._replace(leads=leads)

    head, *below = zip(*columns(result, rows, inch), strict=True)
    yield row(head, "faint", True)
    for cells in below:
        yield row(cells, "text")
    yield gap(6)
