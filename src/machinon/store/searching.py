"""Finding what the shop holds by what it is called or what was said of it."""

from collections.abc import Callable

from msgspec import Struct

from machinon.core.shop.things import Piece
from machinon.store.shop_file import DaybookLine, ShopFile, ShopFileError

MOST_PIECES = 200  # whose surfaces are looked through; the ones touched last
MOST = 8  # of each kind


class Hit(Struct, frozen=True):
    """Something found."""

    kind: str  # job, piece, surface, lathe, machine, belongings or line
    id: str  # of the document, for a line of the job it belongs to
    name: str
    detail: str = ""
    part: str = ""  # of a surface


def search(file: ShopFile, text: str) -> list[Hit]:
    """Entries that hold every word, jobs first; nothing for less than two letters."""
    words = text.lower().split()
    if len("".join(words)) < 2:
        return []

    def fits(*where: str) -> bool:
        whole = " ".join(where).lower()
        return all(word in whole for word in words)

    hits: list[Hit] = []
    for kind in ("job", "piece", "lathe", "machine", "belongings"):
        found = [e for e in file.entries(kind) if fits(e.name)]
        hits += [Hit(kind, e.id, e.name) for e in found[:MOST]]
    hits += _surfaces(file, fits)
    hits += [_line(line) for line in file.daybook_with(words, MOST)]
    return hits


def _surfaces(file: ShopFile, fits: Callable[..., bool]) -> list[Hit]:
    found = []
    for entry in file.entries("piece")[:MOST_PIECES]:
        try:
            piece = file.get(entry.id)
        except ShopFileError:
            continue
        if not isinstance(piece, Piece):
            continue
        for surface in piece.surfaces:
            if fits(surface.name, piece.name) and not fits(piece.name):
                count = sum(not reading.struck for reading in surface.readings)
                says = f"{count} readings" if count else "not measured"
                found.append(
                    Hit(
                        "surface",
                        piece.id,
                        f"{surface.name} of {piece.name}",
                        says,
                        surface.id,
                    )
                )
    return found[:MOST]


def _line(line: DaybookLine) -> Hit:
    return Hit("line", line.context, line.says, line.at[:10])
