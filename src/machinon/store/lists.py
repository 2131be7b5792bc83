"""Lists in and out as CSV: what a shop owns, in files that any program reads."""

import csv
import io
import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any, TypeVar

from msgspec.structs import replace

from machinon.core.errors import BadInput, MachinonError, unknown
from machinon.core.job.fit_sheet import COLUMNS, fit_lines
from machinon.core.job.plan import Plan
from machinon.core.materials import material
from machinon.core.quantity import TEMPERATURE, parse, typed_again
from machinon.core.shop.belongings import (
    Belongings,
    Item,
    item_of,
    typed_item,
    with_items,
)
from machinon.core.shop.entry import (
    KIND_WORDS,
    NO_LATHE,
    id_of,
    instrument_of,
    lathe_of,
    typed_instrument,
    typed_lathe,
    unused,
    with_instrument,
    with_nose,
    words,
)
from machinon.core.shop.machines import (
    MACHINE_KINDS,
    Machine,
    figure_forms,
    machine_of,
    read_figures,
)
from machinon.core.shop.things import (
    CHUCK_SURFACES,
    NOSE_SURFACES,
    Lathe,
    Piece,
    Reading,
    Shop,
    Surface,
)
from machinon.core.survey.as_typed import read_place, read_typed
from machinon.core.survey.surface_kinds import (
    form_key,
    is_tapered,
    kinds_that_read,
    surface_forms,
)
from machinon.core.survey.surface_sums import read_aid
from machinon.store.whole import written_whole

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
PIECE_COLUMNS = (
    "piece",
    "role",
    "material",
    "surface",
    "name",
    "aids",
    "value_mm",
    "typed",
    "instrument",
    "place",
    "temperature_c",
    "at",
    "struck",
    "kept",
)
# surfaces that go by a family's own names, by the role of the piece
FAMILIES: Mapping[str, tuple[Surface, ...]] = {
    "nose": NOSE_SURFACES,
    "chuck": CHUCK_SURFACES,
    "other": (),
}
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
        same = next(
            (
                instrument.id
                for instrument in made.instruments
                if instrument.name == name
            ),
            "",
        )
        id = same or new_instrument_id(made, name)
        return with_instrument(made, instrument_of(row, id))

    rows = _rows(path, INSTRUMENT_COLUMNS, INSTRUMENT_COLUMNS[:6])
    return _all_or_none(path, rows, shop, add), len(rows)


def new_instrument_id(shop: Shop, name: str) -> str:
    """An id that no instrument of the shop has."""
    return unused(
        id_of(name, "instrument"), {instrument.id for instrument in shop.instruments}
    )


# -- shelves ---------------------------------------------------------------------


def export_shelf(shelf: Belongings, path: Path) -> None:
    """Write a shelf's items, bare sizes in mm. Raises ListFileError."""
    _write(path, ITEM_COLUMNS, (typed_item(item, False) for item in shelf.items))


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


def export_machines(machines: Iterable[Machine | Lathe], path: Path) -> None:
    """Write machines, one figure a row, sizes in mm. Raises ListFileError."""
    rows = []
    for machine in machines:
        if isinstance(machine, Lathe):
            kind, figures = "lathe", typed_lathe(machine, False) | machine.figures
            figures = {k: v for k, v in figures.items() if k != "name" and v}
        else:
            kind, figures = machine.kind, machine.figures
        whole = {"kind": kind, "name": machine.name}
        rows.append(whole)
        rows += [{**whole, "figure": k, "value": v} for k, v in figures.items()]
    _write(path, MACHINE_COLUMNS, rows)


def import_machines(
    machines: Sequence[Machine | Lathe], path: Path, new_id: Callable[[str], str]
) -> tuple[tuple[Machine | Lathe | Piece, ...], int]:
    """A file's machines, and how many; all of them or none.

    Those of a known name are changed where the file says something; a new lathe
    comes with its nose as a piece. new_id: makes an id from a name. Raises
    ListFileError that names the row or the machine.
    """
    typed: dict[tuple[str, str], dict[str, str]] = {}
    fresh = _each_once(new_id)

    def add(_: None, row: Mapping[str, str]) -> None:
        kind, name = row["kind"].strip().lower(), words(row, "name", "its name")
        if kind not in ("lathe", *MACHINE_KINDS):
            raise unknown("kind", kind, ("lathe", *MACHINE_KINDS))
        figures = typed.setdefault((kind, name), {})
        key = row["figure"].strip()
        known = [form.key for form in figure_forms(kind)]
        if kind == "lathe":
            known += [k for k in typed_lathe(NO_LATHE, False) if k != "name"]
        if key and key not in known:
            raise unknown("figure", key, known)
        if key:
            figures[key] = row["value"]
            read_figures(kind, figures, False)

    _all_or_none(path, _rows(path, MACHINE_COLUMNS, MACHINE_COLUMNS), None, add)
    made: list[Machine | Lathe | Piece] = []
    for (kind, name), figures in typed.items():
        old = next((m for m in machines if (_kind(m), m.name) == (kind, name)), None)
        try:
            if kind == "lathe":
                made += _lathe_of(figures | {"name": name}, old, fresh)
            else:
                made.append(_machine_of(figures | {"name": name}, kind, old, fresh))
        except BadInput as error:
            raise ListFileError(
                f"{path.name}, {name}, {error.key}: {error.message} Nothing was "
                "imported."
            ) from None
    return tuple(made), len(typed)


def export_fits(plan: Plan, path: Path) -> None:
    """The fits of a job, one row for each size to be made.

    Raises ListFileError where it cannot be written.
    """
    rows = [
        dict(zip(COLUMNS, cells, strict=True))
        for line in fit_lines(plan)
        for cells in line.cells
    ]
    _write(path, COLUMNS, rows)


def _kind(machine: Machine | Lathe) -> str:
    return machine.kind if isinstance(machine, Machine) else "lathe"


def _machine_of(
    typed: Mapping[str, str],
    kind: str,
    old: Machine | Lathe | None,
    new_id: Callable[[str], str],
) -> Machine:
    id = old.id if old else new_id(typed["name"])
    new = machine_of(typed, kind, id, False)  # type: ignore[arg-type]
    if not isinstance(old, Machine):
        return new
    figures = old.figures | new.figures
    return replace(new, seat=old.seat, note=old.note, figures=figures)


def _lathe_of(
    typed: Mapping[str, str],
    old: Machine | Lathe | None,
    new_id: Callable[[str], str],
) -> tuple[Lathe | Piece, ...]:
    base = old if isinstance(old, Lathe) else NO_LATHE
    said = {**typed_lathe(base, False), **typed}
    new = replace(
        lathe_of(said, False, base),
        figures=base.figures | read_figures("lathe", typed, False),
    )
    return (new,) if base.id else with_nose(new, new_id)


# -- pieces ----------------------------------------------------------------------


def export_pieces(
    pieces: Iterable[Piece], instrument: Mapping[str, str], path: Path
) -> None:
    """Write pieces with every reading; a surface without one has a row of its own.

    instrument: names by id. Raises ListFileError.
    """
    rows = []
    for piece in pieces:
        whole = {"piece": piece.name, "role": piece.role, "material": piece.material}
        if not piece.surfaces:
            rows.append(whole)
        for surface in piece.surfaces:
            part = {
                **whole,
                "surface": surface.id,
                "name": surface.name,
                "aids": "; ".join(
                    f"{k}={typed_again(v)}" for k, v in surface.aids.items()
                ),
            }
            if not surface.readings:
                rows.append(part)
            for read in surface.readings:
                warm = read.temperature
                reading = {
                    "value_mm": typed_again(read.value),
                    "typed": read.typed,
                    "instrument": instrument.get(read.instrument, read.instrument),
                    "place": read.place,
                    "temperature_c": "" if warm is None else f"{warm:g}",
                    "at": read.at,
                    "struck": read.struck,
                    "kept": read.kept,
                }
                rows.append({**part, **reading})
    _write(path, PIECE_COLUMNS, rows)


def import_pieces(
    pieces: Sequence[Piece], shop: Shop, path: Path, new_id: Callable[[str], str]
) -> tuple[tuple[Piece, ...], int]:
    """The pieces that a file changes or adds, and how many; all of them or none.

    A piece that is known by its name is added to: what it has stays, a reading
    that it has already is not taken again. new_id: makes an id from a name.
    Raises ListFileError that names the row and column.
    """
    known = {piece.name: piece for piece in pieces}
    fresh = _each_once(new_id)
    # the same size may well have been read twice: each that a surface had stands
    # for one row of the file
    had: dict[tuple[str, str], Counter[tuple[object, ...]]] = {}

    def add(made: dict[str, Piece], row: Mapping[str, str]) -> dict[str, Piece]:
        name = words(row, "piece", "what the piece is called")
        piece = made.get(name) or known.get(name)
        if piece is None:
            piece = _new_piece(name, row, fresh(name))
        if row.get("surface", "").strip():
            surface = _surface_of(piece, row)
            if row.get("value_mm", "").strip():
                reading = _reading_of(surface, row, shop)
                at = piece.id, surface.id
                if at not in had:
                    had[at] = Counter(map(_taken, surface.readings))
                if had[at][_taken(reading)]:
                    had[at][_taken(reading)] -= 1
                else:
                    surface = replace(surface, readings=(*surface.readings, reading))
            piece = piece.with_surface(surface)
        return {**made, name: piece}

    none: dict[str, Piece] = {}
    made = _all_or_none(path, _rows(path, PIECE_COLUMNS, ("piece",)), none, add)
    changed = tuple(piece for name, piece in made.items() if known.get(name) != piece)
    return changed, len(changed)


def _taken(reading: Reading) -> tuple[object, ...]:
    """The key that tells one reading from another, whether it was struck since or
    not."""
    return round(reading.value, 6), reading.instrument, reading.place, reading.at


def _each_once(new_id: Callable[[str], str]) -> Callable[[str], str]:
    """The same, but never twice the same id: none is kept before all are read."""
    given: set[str] = set()

    def fresh(name: str) -> str:
        id = unused(new_id(name), given)
        given.add(id)
        return id

    return fresh


def _new_piece(name: str, row: Mapping[str, str], id: str) -> Piece:
    role = row.get("role", "").strip() or "other"
    if role not in FAMILIES:
        raise unknown("role", role, FAMILIES)
    made = material(row.get("material", "").strip() or "steel", "material").name
    surfaces = FAMILIES[role] if role in ("nose", "chuck") else ()
    return Piece(id, name, role, made, surfaces)  # type: ignore[arg-type]


def _surface_of(piece: Piece, row: Mapping[str, str]) -> Surface:
    """The piece's surface of that id, or a new one of its kind."""
    id = row["surface"].strip()
    own = next((surface for surface in FAMILIES[piece.role] if surface.id == id), None)
    found = piece.surface(id) or own
    if found is None:
        kind = form_key(Surface(id, id, "outside"))
        forms = surface_forms()
        if kind not in forms:
            raise unknown("surface", kind, forms)
        found = forms[kind].surface(id, row.get("name", "").strip())
    aids = dict(found.aids)
    for part in filter(None, map(str.strip, row.get("aids", "").split(";"))):
        key, _, typed = part.partition("=")
        aids[key.strip()] = read_aid(found, key.strip(), typed, False)
    return replace(found, aids=aids)


def _reading_of(surface: Surface, row: Mapping[str, str], shop: Shop) -> Reading:
    name = row.get("instrument", "").strip()
    tool = next(
        (instrument for instrument in shop.instruments if instrument.name == name), None
    )
    if tool is None:
        raise unknown(
            "instrument", name, (instrument.name for instrument in shop.instruments)
        )
    if not set(kinds_that_read(surface)) & set(tool.suits):
        raise BadInput(
            "instrument", f"{tool.name} cannot measure {KIND_WORDS[surface.kind]}."
        )
    warm = row.get("temperature_c", "").strip()
    place = row.get("place", "").strip()
    return Reading(
        read_typed(row["value_mm"], surface, False),
        tool.id,
        row.get("typed", "").strip() or row["value_mm"].strip(),
        read_place(place, surface, False) if place or is_tapered(surface) else "",
        parse(warm, TEMPERATURE, key="temperature_c", low=-20, high=100)
        if warm
        else None,
        row.get("at", "").strip(),
        row.get("struck", "").strip(),
        row.get("kept", "").strip(),
    )


# -- files -----------------------------------------------------------------------


def _all_or_none(
    path: Path,
    rows: list[dict[str, str]],
    start: Made,
    add: Callable[[Made, Mapping[str, str]], Made],
) -> Made:
    """Makes things of the rows, one after the other; a bad row undoes them all."""
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
    out = io.StringIO()
    writer = csv.DictWriter(out, columns, lineterminator="\n")
    writer.writeheader()
    for row in rows:
        writer.writerow({key: _harmless(value) for key, value in row.items()})
    write_text(path, out.getvalue())


def write_text(path: Path, text: str) -> None:
    """Write a text beside the place, then move it there whole. Raises ListFileError
    where it cannot be written."""
    try:
        written_whole(path, lambda beside: beside.write_text(text, encoding="utf-8"))
    except OSError as error:
        raise ListFileError(
            f"{path} could not be written: {error.strerror}."
        ) from error


_NUMBER = re.compile(r"[-+]?[\d.]")


def _harmless(cell: str) -> str:
    """A cell that no spreadsheet takes for a formula; a number stays one."""
    if cell[:1] in ("=", "+", "-", "@") and not _NUMBER.match(cell):
        return f"'{cell}"
    return cell


def _as_meant(cell: str) -> str:
    """The cell as it was before it was made harmless."""
    return cell[1:] if cell[:2] in ("'=", "'+", "'-", "'@") else cell


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
    try:
        found = [(name or "").strip().lower() for name in reader.fieldnames or []]
    except csv.Error as error:
        raise _no_table(path, error) from None
    twice = [heading for heading, count in Counter(found).items() if count > 1]
    if twice:
        raise ListFileError(
            f"{path.name}: the column {twice[0]!r} stands twice. Nothing was imported."
        )
    missing = [heading for heading in needed if heading not in found]
    odd = [heading for heading in found if heading not in columns]
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
    for row in _read(path, reader):
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
        rows.append({key: _as_meant(value or "") for key, value in row.items()})
    return rows


def _read(
    path: Path, reader: Iterable[dict[str | Any, str | Any]]
) -> Iterator[dict[str | Any, str | Any]]:
    """The rows as they come. Raises ListFileError for what is no table."""
    try:
        yield from reader
    except csv.Error as error:
        raise _no_table(path, error) from None


def _no_table(path: Path, error: csv.Error) -> ListFileError:
    return ListFileError(
        f"{path.name} cannot be read as a table ({error}). Nothing was imported."
    )
