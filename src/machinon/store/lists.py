"""Lists in and out as CSV: what a shop owns, in files that any program reads."""

import csv
import io
import os
from collections.abc import Mapping
from pathlib import Path

from machinon.core.errors import BadInput, MachinonError
from machinon.core.shop import Instrument, Shop
from machinon.core.shop_entry import instrument_of, typed_instrument, with_instrument

INSTRUMENT_COLUMNS = (
    "name",
    "reads",
    "resolution",
    "uncertainty",
    "repeatability",
    "suits",
    "checked",
)
MOST_ROWS = 2000
MOST_BYTES = 2_000_000


class ListFileError(MachinonError):
    """A list cannot be read or written; says where and what is allowed."""


def export_instruments(shop: Shop, path: Path) -> None:
    """Write the instruments, sizes in each one's own unit. Raises ListFileError."""
    out = io.StringIO()
    writer = csv.DictWriter(out, INSTRUMENT_COLUMNS, lineterminator="\n")
    writer.writeheader()
    for one in shop.instruments:
        writer.writerow(typed_instrument(one))
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


def import_instruments(shop: Shop, path: Path) -> tuple[Shop, int]:
    """The shop with a file's instruments, and how many; all of them or none.

    One of a name that the shop has takes its place. Raises ListFileError that
    names the row and column.
    """
    rows = _rows(path)
    made = shop
    for number, row in enumerate(rows, 2):  # the first line names the columns
        try:
            made = with_instrument(made, _instrument(made, row))
        except BadInput as error:
            raise ListFileError(
                f"{path.name}, line {number}, {error.key}: {error.message} Nothing "
                "was imported."
            ) from None
    return made, len(rows)


def _instrument(shop: Shop, row: Mapping[str, str]) -> Instrument:
    name = row["name"].strip()
    same = next((one.id for one in shop.instruments if one.name == name), "")
    return instrument_of(row, same or new_instrument_id(shop, name))


def new_instrument_id(shop: Shop, name: str) -> str:
    """An id that no instrument of the shop has."""
    letters = "".join(c if c.isalnum() else "-" for c in name.lower())
    base = "-".join(part for part in letters.split("-") if part)[:40] or "instrument"
    taken = {one.id for one in shop.instruments}
    number, candidate = 2, base
    while candidate in taken:
        candidate, number = f"{base}-{number}", number + 1
    return candidate


def _rows(path: Path) -> list[dict[str, str]]:
    try:
        if path.stat().st_size > MOST_BYTES:
            raise ListFileError(
                f"{path.name} is too large for a list: up to {MOST_BYTES // 10**6} MB."
            )
        text = path.read_text(encoding="utf-8-sig")
    except OSError as error:
        raise ListFileError(f"{path} could not be read: {error.strerror}.") from error
    except UnicodeDecodeError:
        raise ListFileError(
            f"{path.name} is not a text file in UTF-8. Nothing was imported."
        ) from None
    reader = csv.DictReader(io.StringIO(text))
    columns = [(name or "").strip().lower() for name in reader.fieldnames or []]
    missing = [one for one in INSTRUMENT_COLUMNS[:-1] if one not in columns]
    odd = [one for one in columns if one not in INSTRUMENT_COLUMNS]
    if missing or odd:
        wrong = (
            f"it lacks {', '.join(missing)}" if missing else f"{odd[0]!r} is not one"
        )
        raise ListFileError(
            f"{path.name}: the columns are {', '.join(INSTRUMENT_COLUMNS)}; {wrong}. "
            "Nothing was imported."
        )
    reader.fieldnames = columns
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
