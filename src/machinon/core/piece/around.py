"""The mates of a piece where they stand about its axis, once both are together."""

from msgspec import Struct

from machinon.core.piece.family import Mate, Ring
from machinon.core.piece.made import Made
from machinon.core.piece.relations import Expression
from machinon.core.threads.screw_thread import thread_of

WALL = 1.6  # bores that a ring is wide whose outside nobody read


class RingSection(Struct, frozen=True):
    """A ring cut along its axis: from where to where, and its radii; mm."""

    start: float
    end: float
    inner: float
    outer: float


def seat_of(mate: Mate, made: Made) -> float:
    """Station of a mate's own zero along a piece, mm. Raises BadInput for a size or a
    feature that it has not."""
    return _worked_out(mate.seats, made)


def rings_of(mate: Mate, made: Made, read: float = 0.0) -> tuple[RingSection, ...]:
    """Rings of a mate about a piece; none that has no length. read: how wide it was
    read outside, mm, 0 for nowhere. Raises BadInput for a size or a feature that the
    piece has not."""
    found = (_ring(ring, made, read) for ring in mate.around)
    return tuple(ring for ring in found if ring.start < ring.end)


def _ring(ring: Ring, made: Made, read: float) -> RingSection:
    inner = _worked_out(ring.bore, made) / 2 if ring.bore else 0.0
    outer = max(WALL * inner, read / 2)
    if ring.outside:
        outer = _worked_out(ring.outside, made) / 2
    start, end = (_worked_out(text, made) for text in (ring.start, ring.end))
    return RingSection(start, end, inner, outer)


def _worked_out(text: str, made: Made) -> float:
    expression = Expression(text, "mate")
    known = {
        name: at for name in expression.names if (at := _known(name, made)) is not None
    }
    return expression.value(known)


def _known(name: str, made: Made) -> float | None:
    """A size, the major diameter of a thread, or where a feature lies; None for what
    the piece has not."""
    if name in made.values:
        value = made.values[name]
        return thread_of(value).major if isinstance(value, str) else float(value)
    feature, _, end = name.partition(".")
    at = {"begins": "start", "ends": "end"}.get(end, "")
    return getattr(made.body.found(feature), at, None)
