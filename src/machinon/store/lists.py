"""Lists in and out as CSV: what a shop owns, in files that any program reads."""

import csv
import io
import os
from collections.abc import Callable, Iterable, Mapping, Sequence
from pathlib import Path
from typing import TypeVar

from msgspec.structs import replace

from machinon.core.belongings import Belongings, Item, item_of, typed_item, with_items
from machinon.core.errors import BadInput, MachinonError
from machinon.core.machines import MACHINE_KINDS, Machine, figure_forms, machine_of
from machinon.core.shop import Piece, Shop
from machinon.core.shop_entry import instrument_of, typed_instrument, with_instrument

INSTRUMENT_COLUMNS = (
    "name",
    "reads",
    "resolution",
    "uncertainty",
    "repeatability",
    "suits",
    "checked",
    "least",
    "most",
)
ITEM_COLUMNS = (
    "kind",
    "size",
    "name",
    "second",
    "length",
    "count",
    "material",
    "note",
)
MACHINE_COLUMNS = ("kind", "name", "figure", "value")
READING_COLUMNS = (
    "piece",
    "surface",
    "value_mm",
    "typed",
    "instrument",
    "place",
    "temperature_C",
    "at",
    "struck",
)
MOST_ROWS = 5000
MOST_BYTES = 2_000_000


Made = TypeVar("Made")


class ListFileError(MachinonError):
    """A list cannot be read or written; says where and what is allowed."""


# -- instruments ---------------------------------------------------------------


def export_instruments(shop: Shop, path: Path) -> None:
    """Write the instruments, sizes in each one's own unit. Raises ListFileError."""
    _write(path, INSTRUMENT_COLUMNS, map(typed_instrument, shop.instruments))


def import_instruments(shop: Shop, path: Path) -> tuple[Shop, int]:
    """The shop with a file's instruments, and how many; all of them or none.

    One of a name that the shop has takes its place. Raises ListFileError that
    names the row and column.
    """

    def add(made: Shop, row: Mapping[str, str]) -> Shop:
        name = row["name"].strip()
        same = next((one.id for one in made.instruments if one.name == name), "")
        id = same or new_instrument_id(made, name)
        return with_instrument(made, instrument_of(row, id))

    rows = _rows(path, INSTRUMENT_COLUMNS, INSTRUMENT_COLUMNS[:6])
    return _all_or_none(path, rows, shop, add), len(rows)


def new_instrument_id(shop: Shop, name: str) -> str:
    """An id that no instrument of the shop has."""
    letters = "".join(c if c.isalnum() else "-" for c in name.lower())
    base = "-".join(part for part in letters.split("-") if part)[:40] or "instrument"
    taken = {one.id for one in shop.instruments}
    number, candidate = 2, base
    while candidate in taken:
        candidate, number = f"{base}-{number}", number + 1
    return candidate


# -- shelves ---------------------------------------------------------------------


def export_shelf(shelf: Belongings, path: Path) -> None:
    """Write a shelf's items, bare sizes in mm. Raises ListFileError."""
    _write(path, ITEM_COLUMNS, (typed_item(one, False) for one in shelf.items))


def import_shelf(shelf: Belongings, path: Path) -> tuple[Belongings, int]:
    """The shelf with a file's items, and how many; all of them or none.

    A bare size is mm, any other has its unit (1/4in). Raises ListFileError
    that names the row and column.
    """

    rows = _rows(path, ITEM_COLUMNS, ITEM_COLUMNS[:2])
    none: tuple[Item, ...] = ()
    added = _all_or_none(
        path, rows, none, lambda made, row: (*made, item_of(row, shelf.id, False))
    )
    try:
        return with_items(shelf, added), len(rows)
    except BadInput as error:
        raise ListFileError(
            f"{path.name}: {error.message} Nothing was imported."
        ) from None


# -- machines --------------------------------------------------------------------


def export_machines(machines: Iterable[Machine], path: Path) -> None:
    """Write machines, one figure a row, sizes in mm. Raises ListFileError."""
    rows = []
    for one in machines:
        rows.append({"kind": one.kind, "name": one.name, "figure": "", "value": ""})
        rows += [
            {"kind": one.kind, "name": one.name, "figure": key, "value": value}
            for key, value in one.figures.items()
        ]
    _write(path, MACHINE_COLUMNS, rows)


def import_machines(
    machines: Sequence[Machine], path: Path, new_id: Callable[[str], str]
) -> tuple[tuple[Machine, ...], int]:
    """A file's machines, those of a known name changed; all of them or none.

    new_id: makes an id from a name. Raises ListFileError that names the row.
    """
    typed: dict[tuple[str, str], dict[str, str]] = {}

    def add(_: None, row: Mapping[str, str]) -> None:
        kind, name = row["kind"].strip().lower(), row["name"].strip()
        if kind not in MACHINE_KINDS:
            raise BadInput("kind", f"Kinds are {', '.join(MACHINE_KINDS)}.")
        machine_of({"name": name}, kind, "", False)
        figures = typed.setdefault((kind, name), {})
        key = row["figure"].strip()
        forms = {form.key: form for form in figure_forms(kind)}
        if key and key not in forms:
            raise BadInput("figure", f"Figures of a {kind} are {', '.join(forms)}.")
        if key:
            kept = forms[key].read(row["value"], False)
            figures[key] = forms[key].typed(kept, False)

    rows = _rows(path, MACHINE_COLUMNS, MACHINE_COLUMNS)
    _all_or_none(path, rows, None, add)
    made = []
    for (kind, name), figures in typed.items():
        old = next((m for m in machines if (m.kind, m.name) == (kind, name)), None)
        new = machine_of(
            {**figures, "name": name},
            kind,  # type: ignore[arg-type]
            old.id if old else new_id(name),
            False,
        )
        made.append(
            replace(
                new, seat=old.seat, note=old.note, figures=old.figures | new.figures
            )
            if old
            else new
        )
    return tuple(made), len(made)


# -- readings --------------------------------------------------------------------


def export_readings(
    pieces: Iterable[Piece], instrument: Mapping[str, str], path: Path
) -> None:
    """Write every reading of pieces; instrument: names by id. Raises ListFileError."""
    rows = [
        {
            "piece": piece.name,
            "surface": surface.name,
            "value_mm": f"{one.value:.6g}",
            "typed": one.typed,
            "instrument": instrument.get(one.instrument, one.instrument),
            "place": one.place,
            "temperature_C": "" if one.temperature is None else f"{one.temperature:g}",
            "at": one.at,
            "struck": one.struck,
        }
        for piece in pieces
        for surface in piece.surfaces
        for one in surface.readings
    ]
    _write(path, READING_COLUMNS, rows)


# -- files -----------------------------------------------------------------------


def _all_or_none(
    path: Path,
    rows: list[dict[str, str]],
    start: Made,
    add: Callable[[Made, Mapping[str, str]], Made],
) -> Made:
    """What the rows make, one after the other; a bad one undoes them all."""
    made = start
    for number, row in enumerate(rows, 2):  # the first line names the columns
        try:
            made = add(made, row)
        except BadInput as error:
            raise ListFileError(
                f"{path.name}, line {number}, {error.key}: {error.message} Nothing "
                "was imported."
            ) from None
    return made


def _write(
    path: Path, columns: Sequence[str], rows: Iterable[Mapping[str, str]]
) -> None:
    """Write rows beside the place, then move them there whole."""
    out = io.StringIO()
    writer = csv.DictWriter(out, columns, lineterminator="\n")
    writer.writeheader()
    writer.writerows(rows)
    beside = path.with_name(f".{path.name}.part")
    try:
        beside.write_text(out.getvalue(), encoding="utf-8")
        os.replace(beside, path)
    except OSError as error:
        raise ListFileError(
            f"{path} could not be written: {error.strerror}."
        ) from error
    finally:
        beside.unlink(missing_ok=True)


def _rows(
    path: Path, columns: Sequence[str], needed: Sequence[str]
) -> list[dict[str, str]]:
    """The rows of a file under known columns. Raises ListFileError."""
    try:
        if path.stat().st_size > MOST_BYTES:
            raise ListFileError(
                f"{path.name} is too large for a list: up to {MOST_BYTES // 10**6} MB "
                f"and {MOST_ROWS} rows. Nothing was imported."
            )
        text = path.read_text(encoding="utf-8-sig")
    except OSError as error:
        raise ListFileError(f"{path} could not be read: {error.strerror}.") from error
    except UnicodeDecodeError:
        raise ListFileError(
            f"{path.name} is not a text file in UTF-8. Nothing was imported."
        ) from None
    reader = csv.DictReader(io.StringIO(text))
    found = [(name or "").strip().lower() for name in reader.fieldnames or []]
    missing = [one for one in needed if one not in found]
    odd = [one for one in found if one not in columns]
    if missing or odd:
        wrong = (
            f"it lacks {', '.join(missing)}" if missing else f"{odd[0]!r} is not one"
        )
        raise ListFileError(
            f"{path.name}: the columns are {', '.join(columns)}; {wrong}. Nothing was "
            "imported."
        )
    reader.fieldnames = found
    rows: list[dict[str, str]] = []
    for row in reader:
        if len(rows) == MOST_ROWS:
            raise ListFileError(
                f"{path.name} has more than {MOST_ROWS} rows. Nothing was imported."
            )
        # a short row leaves None, a long one a rest under None
        if None in row:
            raise ListFileError(
                f"{path.name}, line {reader.line_num}: more columns than the first "
                "line names. Nothing was imported."
            )
        rows.append({key: value or "" for key, value in row.items()})
    return rows
