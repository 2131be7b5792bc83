"""The lists and tables of an answer as they are read: short figures, in rows."""

import re
from typing import Any

from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    PERCENT,
    Kind,
    length_text,
    plain,
    trimmed,
)
from machinon.core.reckoning import Result, plain_name
from machinon.draw.sketch import figure

_NUMBER = re.compile(r"[−-]?\d+(\.\d+)?").fullmatch
MOST_LISTED = 400  # figures of one list; a longer one says how many more there are


def in_rows(values: list[Any], kind: Kind, inch: bool) -> str:
    """Figures after each other; places below each other, numbered as drawn."""
    shown = [entry(value, kind, inch) for value in values[:MOST_LISTED]]
    places = bool(values) and isinstance(values[0], list)
    if places:
        shown = [f"{n}: {place}" for n, place in enumerate(shown, 1)]
    if len(values) > len(shown):
        shown.append(f"and {len(values) - len(shown)} more")
    return ("\n" if places else ", ").join(shown) or "none"


def entry(value: Any, kind: Kind, inch: bool) -> str:
    """A figure of a list, or the two of a place."""
    if isinstance(value, list):
        return ", ".join(cell(item, kind, inch) for item in value)
    return cell(value, kind, inch)


def columns(result: Result, rows: list[dict[str, Any]], inch: bool) -> list[list[str]]:
    """The columns of a table, each under its name, its lengths to the same place."""
    found = []
    for key in rows[0]:
        kind = result.kind_of(key)
        cells = [cell(row.get(key), kind, inch) for row in rows]
        head = plain_name(key)
        if kind is LENGTH:
            head += f" ({'in' if inch else 'mm'})"
            cells = _to_one_place(cells)
        found.append([head, *cells])
    return found


def _to_one_place(cells: list[str]) -> list[str]:
    """Decimal numbers with as many places each as the longest of them."""
    places = {text: len(text.partition(".")[2]) for text in cells if _NUMBER(text)}
    most = max(places.values(), default=0)
    return [
        f"{text}{'' if '.' in text else '.'}{'0' * (most - places[text])}"
        if most and text in places
        else text
        for text in cells
    ]


def cell(value: Any, kind: Kind, inch: bool) -> str:
    """One figure of a table, short."""
    if value is None:
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list | tuple):
        return " × ".join(cell(side, kind, inch) for side in value)
    if isinstance(value, float) and kind is LENGTH:
        step = 0.0001 if abs(value) < 1 else 0.001
        return trimmed(length_text(value, step, inch, unit=False))
    if isinstance(value, int | float) and kind in (ANGLE, PERCENT):
        return figure(value, kind, inch)
    if isinstance(value, float):
        return trimmed(plain(value, 3))
    return str(value)
