"""Features that a piece should share with the shop's earlier ones, so that one part
serves them all."""

from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.piece.family import Size, Value
from machinon.core.piece.made import Made
from machinon.core.shop.entry import length_said
from machinon.core.shop.things import Piece
from machinon.core.wording import begun

SAME = 5e-3  # mm


def own_alike(made: Made, pieces: Iterable[Piece], inch: bool) -> str:
    """How a piece differs from the shop's other pieces of its kind, in a sentence;
    empty where none has a feature to share."""
    family = made.family
    if not family.alike or not made.values[family.alike[0]]:
        return ""
    brings, *others = (family.size(key) for key in family.alike)
    said = []
    for piece in pieces:
        making = piece.making
        if making is None or making.family != family.key:
            continue
        if not _of(brings, making.sizes):
            continue
        differs = []
        for size in others:
            theirs = _of(size, making.sizes)
            if isinstance(theirs, float) and abs(theirs - made.values[size.key]) > SAME:
                differs.append(f"{size.words} {length_said(theirs, inch)}")
        said.append(
            f"not as on {piece.name}, which has {', '.join(differs)}"
            if differs
            else f"as on {piece.name}"
        )
    return begun(f"{brings.words}: {'; '.join(said)}.") if said else ""


def _of(size: Size, typed: dict[str, str]) -> Value | None:
    """A size of another piece as it was typed, or as it usually is; None where that
    rests on others."""
    for text in (typed.get(size.key, ""), size.rule):
        if isinstance(text, str) and text:
            try:
                return size.read(text, inch=False)
            except BadInput:
                continue
    return None
