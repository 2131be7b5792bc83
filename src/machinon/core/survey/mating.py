"""Pieces of the shop whose measured surfaces go together."""

from collections.abc import Iterable, Mapping

from msgspec import Struct

from machinon.core.shop.things import Piece, Surface
from machinon.core.survey.measuring import Measured
from machinon.core.survey.surface_kinds import (
    beside,
    form_key,
    is_threaded,
    surface_forms,
)
from machinon.core.survey.thread_find import likely_threads
from machinon.core.tapers.tapers import named_tapers
from machinon.core.threads.screw_thread import thread_of

PLAIN = ("shaft", "register", "dowels")  # joints of two plain diameters
TIGHTEST, LOOSEST = -0.15, 0.6  # mm of play: beyond, two sizes were never meant to meet


class MatedPair(Struct, frozen=True):
    """Two surfaces that go together; play in mm on the diameter, - is interference."""

    surface: Surface
    piece: Piece
    mate: Surface
    play: float
    doubt: float  # of the play, two sigma

    @property
    def says(self) -> str:
        """The sentence on how they go together, in the words of the shop."""
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
) -> tuple[MatedPair, ...]:
    """Surfaces of other pieces that a piece's round surfaces go into or over.

    Closest first. Threads and lengths are not compared here: a diameter alone
    does not say whether they mate; see `links_of`.
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
                    found.append(MatedPair(surface, other, mate, play, doubt))
    return tuple(sorted(found, key=lambda mate: abs(mate.play)))


def _round(surface: Surface) -> bool:
    """Whether it is a diameter that goes into, or over, another one: no bolt hole, no
    size across flats."""
    key = form_key(surface)
    form = surface_forms().get(key)
    plain = form.joint in PLAIN if form is not None else key != "bolt-hole"
    return plain and surface.kind in ("outside", "inside")


class MateLink(Struct, frozen=True):
    """A piece that goes on another by more than a diameter, or with a part between."""

    piece: Piece
    says: str
    direct: bool  # without anything to be made


def links_of(
    piece: Piece,
    others: Iterable[Piece],
    measured: Mapping[tuple[str, str], Measured | None],
) -> tuple[MateLink, ...]:
    """Threads and tapers that go together, and what an adapter would join.

    Direct ones first. A thread is known by its crests and pitch, a taper by
    its likeliest name, each by its standard where it is not read.
    """
    found: list[MateLink] = []
    for other in others:
        if other.id == piece.id:
            continue
        mine, theirs = _named(piece, measured), _named(other, measured)
        for name, inside in mine:
            if (name, not inside) in theirs:
                found.append(MateLink(other, f"goes on by its {name}", True))
        found += _tapers_apart(other, mine, theirs)
        if {piece.role, other.role} == {"nose", "chuck"}:
            found.append(MateLink(other, "goes on with a back plate between", False))
    return tuple(sorted(found, key=lambda link: not link.direct))


def _named(
    piece: Piece, measured: Mapping[tuple[str, str], Measured | None]
) -> set[tuple[str, bool]]:
    """Threads and tapers of a piece by name, and whether they are inside."""
    names = set()
    for surface in piece.surfaces:
        found = measured.get((piece.id, surface.id))
        if found is None:
            continue
        form = form_key(surface)
        if form in ("taper-out", "taper-in") and (found.likely or surface.given):
            # as it was read, or taken by its standard
            name = found.likely[0].name if found.likely else surface.given
            names.add((name, form == "taper-in"))
        if is_threaded(surface):
            inside = form == "thread-minor"
            pitch = measured.get((piece.id, beside(surface, "thread-pitch")))
            name = surface.given
            if pitch is not None and (found.count or pitch.count):
                ranked = likely_threads(
                    found.size, inside, pitch.size, found.uncertainty
                )
                name = ranked[0].name if ranked and ranked[0].chance > 0.5 else ""
            if name:
                names.add((thread_of(name).says, inside))
    return names


def _tapers_apart(
    other: Piece, mine: set[tuple[str, bool]], theirs: set[tuple[str, bool]]
) -> list[MateLink]:
    """Tapers of different names, one inside and one out: a sleeve joins them."""
    tapers = named_tapers()
    return [
        MateLink(other, f"goes on with a sleeve between, {socket} to {shank}", False)
        for a, inside in mine
        for b, other_inside in theirs
        if a in tapers and b in tapers and inside != other_inside and a != b
        for socket, shank in [(a, b) if inside else (b, a)]
        if (tapers[socket].large or 0) > (tapers[shank].large or 0)
    ]
