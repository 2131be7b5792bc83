"""The end of a piece: circles of holes, keyways."""

import math

from msgspec import Struct

from machinon.core.setting_out.bolt_circle import circle_from_span, hole_points
from machinon.core.shop.things import Piece
from machinon.core.survey.surface_kinds import beside, form_key
from machinon.draw.drawing import Point
from machinon.draw.piece_shape import Readings, host_of, is_outside

CHUCK_HOLES = 3  # how many a chuck has is asked in its job: most have three


class Pattern(Struct, frozen=True):
    """Holes on a circle: diameters, the centres (x, y), and their surfaces."""

    circle: float
    hole: float
    centres: tuple[Point, ...]
    id: str
    hole_id: str


class Notch(Struct, frozen=True):
    """A keyway seen from the end: width, and from the middle to its floor."""

    width: float
    floor: float
    bore: bool  # whether it is cut into the bore, outward from it
    id: str
    across_id: str


class EndFlats(Struct, frozen=True):
    """One flat or two on a round of a radius: the heights they are read between."""

    radius: float
    top: float
    low: float
    id: str

    def chords(self) -> tuple[tuple[Point, Point], ...]:
        """The flats seen from the end."""
        ends = []
        for y in (self.top, self.low):
            half = math.sqrt(max(self.radius**2 - y**2, 0.0))
            if half:
                ends.append(((-half, y), (half, y)))
        return tuple(ends)


def patterns_of(piece: Piece, measured: Readings) -> tuple[Pattern, ...]:
    """Circles of holes whose holes and spans are measured."""
    found = []
    for surface in piece.surfaces:
        span = measured.get(surface.id)
        form = form_key(surface)
        if span is None or span.refused:
            continue
        if form == "bolt-circle" and span.says and surface.aids.get("holes"):
            holes = int(surface.aids["holes"])
            centres = hole_points(holes, span.size, 90.0)
            hole = surface.aids.get("hole", 0.0)
            id = beside(surface, "hole")
            found.append(Pattern(span.size, hole, centres, surface.id, id))
        elif form == "hole-three" and span.says:
            given = span.answer.results
            x, y = given["centre"]
            centres = tuple((px - x, py - y) for px, py in given["points"])
            hole = surface.aids.get("hole", 0.0)
            id = beside(surface, "hole")
            found.append(Pattern(span.size, hole, centres, surface.id, id))
        elif form == "bolt-span":
            hole_found = measured.get("bolt-hole")
            if hole_found is not None and span.size > hole_found.size:
                circle = circle_from_span(span.size, hole_found.size, CHUCK_HOLES)
                centres = hole_points(CHUCK_HOLES, circle, 90.0)
                found.append(
                    Pattern(circle, hole_found.size, centres, surface.id, "bolt-hole")
                )
    return tuple(found)


def notches_of(piece: Piece, measured: Readings) -> tuple[Notch, ...]:
    """Keyways whose width and floor are measured."""
    found = []
    for surface in piece.surfaces:
        across_id = beside(surface, "key-across")
        width, across = measured.get(surface.id), measured.get(across_id)
        host = host_of(piece, surface, measured)
        mate = measured.get(host.id) if host is not None else None
        if form_key(surface) != "key-width" or not (width and across and host and mate):
            continue
        # from the far side: of the shaft, or of the bore
        floor = across.size - mate.size / 2
        found.append(
            Notch(width.size, floor, not is_outside(host), surface.id, across_id)
        )
    return tuple(found)


def flats_of(piece: Piece, measured: Readings) -> tuple[EndFlats, ...]:
    """Flats that are cut on a round, where both are measured."""
    found = []
    for surface in piece.surfaces:
        size, host = measured.get(surface.id), host_of(piece, surface, measured)
        mate = measured.get(host.id) if host is not None else None
        if not (size and host and mate and is_outside(host)):
            continue
        r = mate.size / 2
        if form_key(surface) == "flats" and size.size / 2 < r:
            found.append(EndFlats(r, size.size / 2, -size.size / 2, surface.id))
        elif form_key(surface) == "flat" and r < size.size < 2 * r:
            found.append(EndFlats(r, size.size - r, -r, surface.id))
    return tuple(found)
