"""What fits on what: pieces of the shop whose measured surfaces go together."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from machinon.core.measuring import Measured
from machinon.core.shop import Piece, Surface

TIGHTEST, LOOSEST = -0.15, 0.6  # mm of play: beyond, two sizes were never meant to meet


@dataclass(frozen=True, slots=True)
class Mate:
    """Two surfaces that go together; play in mm on the diameter, - is interference.

    doubt: of the play, two sigma.
    """

    surface: Surface
    piece: Piece
    mate: Surface
    play: float
    doubt: float

    @property
    def says(self) -> str:
        """How they go together, in the words of the shop."""
        if self.play < -self.doubt:
            return "has to be pressed or drawn on"
        if self.play <= self.doubt:
            return "just goes or just does not: try it"
        if self.play < 0.04:
            return "slides on"
        return "goes on loosely" if self.play > 0.15 else "goes on easily"


def mates_of(
    piece: Piece,
    others: Iterable[Piece],
    measured: Mapping[tuple[str, str], Measured | None],
) -> tuple[Mate, ...]:
    """Surfaces of other pieces that a piece's round surfaces go into or over.

    Closest first. Threads and lengths are not compared: a diameter alone does
    not say whether they mate.
    """
    found = []
    for surface in piece.surfaces:
        mine = measured.get((piece.id, surface.id))
        if mine is None or not _round(surface):
            continue
        for other in others:
            if other.id == piece.id:
                continue
            for mate in other.surfaces:
                theirs = measured.get((other.id, mate.id))
                if theirs is None or not _round(mate) or mate.kind == surface.kind:
                    continue
                outside, inside = mine.size, theirs.size
                if surface.kind in ("inside", "gap"):
                    outside, inside = inside, outside
                play = inside - outside
                if TIGHTEST <= play <= LOOSEST:
                    doubt = (mine.uncertainty**2 + theirs.uncertainty**2) ** 0.5
                    found.append(Mate(surface, other, mate, play, doubt))
    return tuple(sorted(found, key=lambda one: abs(one.play)))


def _round(surface: Surface) -> bool:
    return surface.kind in ("outside", "inside") and "thread" not in surface.id
