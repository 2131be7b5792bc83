"""What the end of a piece shows: circles of holes, keyways."""

from dataclasses import dataclass

from machinon.core.bolt_circle import circle_from_span, hole_points
from machinon.core.shop import Piece
from machinon.core.surface_kinds import beside, form_key
from machinon.draw.drawing import Point
from machinon.draw.piece_shape import Readings, is_outside, is_round

CHUCK_HOLES = 3  # how many a chuck has is asked in its job: most have three


@dataclass(frozen=True, slots=True)
class Pattern:
    """Holes on a circle: diameters, the centres (x, y), and their surfaces."""

    circle: float
    hole: float
    centres: tuple[Point, ...]
    id: str
    hole_id: str


@dataclass(frozen=True, slots=True)
class Notch:
    """A keyway seen from the end: width, and from the middle to its floor.

    bore: whether it is cut into the bore, outward from it.
    """

    width: float
    floor: float
    bore: bool
    id: str
    across_id: str


def patterns_of(piece: Piece, measured: Readings) -> tuple[Pattern, ...]:
    """Circles of holes whose holes and spans are measured."""
    found = []
    for one in piece.surfaces:
        span = measured.get(one.id)
        form = form_key(one)
        if span is None or span.refused:
            continue
        if form == "bolt-circle" and span.says and one.aids.get("holes"):
            holes = int(one.aids["holes"])
            centres = hole_points(holes, span.size, 90.0)
            hole = one.aids.get("hole", 0.0)
            id = beside(one, "hole")
            found.append(Pattern(span.size, hole, centres, one.id, id))
        elif form == "hole-three" and span.says:
            given = span.answer.results
            x, y = given["centre"]
            centres = tuple((px - x, py - y) for px, py in given["points"])
            hole = one.aids.get("hole", 0.0)
            id = beside(one, "hole")
            found.append(Pattern(span.size, hole, centres, one.id, id))
        elif form == "bolt-span":
            hole_found = measured.get("bolt-hole")
            if hole_found is not None and span.size > hole_found.size:
                circle = circle_from_span(span.size, hole_found.size, CHUCK_HOLES)
                centres = hole_points(CHUCK_HOLES, circle, 90.0)
                found.append(
                    Pattern(circle, hole_found.size, centres, one.id, "bolt-hole")
                )
    return tuple(found)


def notches_of(piece: Piece, measured: Readings) -> tuple[Notch, ...]:
    """Keyways whose width and floor are measured."""
    found = []
    round_ones = [one for one in piece.surfaces if is_round(one)]
    for one in piece.surfaces:
        across_id = beside(one, "key-across")
        width, across = measured.get(one.id), measured.get(across_id)
        if form_key(one) != "key-width" or width is None or across is None:
            continue
        before = [
            r
            for r in round_ones
            if piece.surfaces.index(r) < piece.surfaces.index(one)
            and measured.get(r.id) is not None
        ]
        if not before:
            continue
        host = before[-1]
        mate = measured[host.id]
        assert mate is not None
        # from the far side: of the shaft, or of the bore
        floor = across.size - mate.size / 2
        found.append(Notch(width.size, floor, not is_outside(host), one.id, across_id))
    return tuple(found)
