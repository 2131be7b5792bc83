"""What turns, seen from its right end."""

import functools
import math
from itertools import chain, pairwise, product

from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import Arc, Holes
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.milled_features import Flats, Keyway, ToTheMiddle
from machinon.core.piece.solid_cuts import Point
from machinon.core.piece.turned_features import (
    Ball,
    EdgeRound,
    FaceGroove,
    NutThread,
    Screw,
)
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import EDGE, Board, Circle, Line, Place, Role, Shape
from machinon.draw.half_section import round_under

BOTH = (1e-4, -1e-4)  # mm beside a station, as one looks from the right
APART = 0.01  # mm: circles so near are one


def draw_end_view(board: Board, body: Body, centre: Point, scale: float) -> None:
    """Draws what turns as seen from its right end."""

    def place(x: float, y: float) -> Point:
        return centre[0] + x * scale, centre[1] - y * scale

    begun = len(board.items)
    largest, round_it = body.largest / 2, _flats_all_round(body)
    if round_it is None:
        board.items.append(Circle(centre, largest * scale, "outline", EDGE, "panel"))
    else:
        ring = tuple(place(x, y) for x, y in round_it.section(largest))
        board.items.append(Shape(ring, "outline", EDGE, "panel"))
    radii, bore = _seen_radii(body)
    # the chamfer of a thread is left out, its root stands for it; ISO 6410
    leads = [screw for screw in body.features if isinstance(screw, Screw)]
    for radius in sorted(radii):
        if any(_in_thread(screw, radius) for screw in leads):
            continue
        if round_it is not None and radius > round_it.across / 2:
            for left in round_it.arcs(radius):
                rim = tuple(place(x, y) for x, y in left)
                board.items.append(Shape(rim, "outline", 1.4, closed=False))
        elif radius < largest - 1e-3:
            fill: Role = "ground" if radius == bore else "none"
            board.items.append(Circle(centre, radius * scale, "outline", 1.4, fill))
    for feature in body.features:
        match feature:
            case Screw() | NutThread(threaded=True):
                _thread(board, body, feature, centre, scale)
            case FaceGroove() if feature.side == "right":
                for radius in (feature.inner / 2, feature.outer / 2):
                    role = _seen_as(body, feature.z, radius)
                    board.items.append(Circle(centre, radius * scale, role, 1.4))
            case Holes() if feature.block is None:
                _holes(board, feature, place, scale)
            case Keyway():
                _keyway(board, body, feature, place, scale)
            case ToTheMiddle():
                _slits(board, body, feature, place)
            case Flats() if feature != round_it:
                _flats(board, body, feature, place)
    reach = 1.08 * largest
    board.items.append(Line(place(-reach, 0), place(reach, 0), "centre", 1.0))
    board.items.append(Line(place(0, reach), place(0, -reach), "centre", 1.0))
    board.once(begun)


def _in_thread(screw: Screw, radius: float) -> bool:
    """Whether a radius lies between the root of a thread and its crest."""
    root = screw.of.minor_external / 2
    return root - 0.5 * screw.of.pitch < radius < screw.of.major / 2 - 1e-3


def _thread(
    board: Board, body: Body, thread: Screw | NutThread, centre: Point, scale: float
) -> None:
    """The root of a screw or the crest of a nut, where it is seen; ISO 6410."""
    inside = isinstance(thread, NutThread)
    radius = (thread.of.major if inside else thread.of.minor_external) / 2
    if _seen_as(body, thread.end, radius, inside) == "outline":
        ring = Circle(centre, radius * scale, "thin", 0.9, open=True)
        board.items.append(ring)


def _holes(board: Board, holes: Holes, place: Place, scale: float) -> None:
    """Holes in a face, with what is sunk or tapped at their mouths."""
    hole, through = holes.hole, holes.hole.depth is None
    near: Role = "outline" if holes.face == "right" else "hidden"
    if isinstance(holes.pattern, HoleCircle | Arc):
        circle = holes.pattern.diameter / 2 * scale
        board.items.append(Circle(place(0, 0), circle, "centre", 1.0))
    for x, y in holes.points:
        at, radius = place(x, y), hole.rim / 2 * scale
        if through:
            board.items.append(Circle(at, radius, "outline", 1.4, "ground"))
        else:
            board.items.append(Circle(at, radius, near, 1.4))
        for wide in (hole.bore, hole.sink):
            if wide > hole.diameter:
                board.items.append(Circle(at, wide / 2 * scale, near, 1.0))
        if hole.thread:
            crest = thread_of(hole.thread).major / 2 * scale
            board.items.append(Circle(at, crest, "thin", 0.9, open=True))


def _keyway(
    board: Board, body: Body, keyway: Keyway, place: Place, scale: float
) -> None:
    """Its floor and sides, and the round open where it goes in from this end."""
    half, top = keyway.width / 2, keyway.diameter / 2
    rim = math.sqrt(max(top**2 - half**2, 0.0))  # height at which its sides meet it
    left, right = (place(x, keyway.floor) for x in (-half, half))
    first, last = body.ends
    if keyway.end >= last and (keyway.start <= first or not keyway.inside):
        past = rim - 1 / scale if keyway.inside else top + 1 / scale
        clear: Role = "ground" if keyway.inside else "panel"
        mouth = (left, right, place(half, past), place(-half, past))
        board.items.append(Shape(mouth, clear, 0.5, clear))
    role = _seen_as(body, keyway.end, top, keyway.inside)
    sides = (place(-half, rim), left, right, place(half, rim))
    board.items.append(Shape(sides, role, 1.4, closed=False))


def _slits(board: Board, body: Body, slits: ToTheMiddle, place: Place) -> None:
    half, outer = slits.width / 2, slits.diameter / 2
    inner = max(half, body.radii(slits.end - 1e-4)[0])
    before = _before(body, slits.end)
    ends = {r for both in before for r in both if inner < r < outer}
    parts = list(pairwise(sorted({inner, outer, *ends})))
    for turn in map(math.radians, slits.angles):
        cos, sin = math.cos(turn), math.sin(turn)
        for side, (low, high) in product((-half, half), parts):
            hidden = any(a <= (low + high) / 2 <= b for a, b in before)
            start, end = (
                place(r * cos - side * sin, r * sin + side * cos) for r in (low, high)
            )
            role: Role = "hidden" if hidden else "outline"
            board.items.append(Line(start, end, role, 1.4))


def _flats_all_round(body: Body) -> Flats | None:
    """Flats that leave nothing of the largest round, all along it."""
    largest = body.largest / 2
    for flats in body.features:
        if isinstance(flats, Flats) and flats.spans(largest):
            beside = (flats.start - 1e-4, flats.end + 1e-4)
            places = [z for z, r in chain(*body.rings()) if r > largest - 1e-6]
            if places and beside[0] < min(places) and max(places) < beside[1]:
                return flats
    return None


def _flats(board: Board, body: Body, flats: Flats, place: Place) -> None:
    radius = round_under(flats, body)
    role = _seen_as(body, flats.end, radius)
    for a, b in flats.chords(radius):
        board.items.append(Line(place(*a), place(*b), role, 1.4))


def _seen_as(body: Body, end: float, radius: float, inside: bool = False) -> Role:
    """Role of a cut in a round as seen from the right: hidden where as much metal
    stands before its end."""
    before = _before(body, end)
    if inside:
        hides = any(inner < radius + 1e-3 for inner, _ in before)
    else:
        hides = any(outer > radius - 1e-3 for _, outer in before)
    return "hidden" if hides else "outline"


def _before(body: Body, end: float) -> list[tuple[float, float]]:
    """The metal that stands before a station as seen from the right: radii from and
    to, at each corner of it."""
    _, last = body.ends
    corners = {z for ring in body.rings() for z, _ in ring if end < z < last}
    sides = [z + off for z in (end, *corners, last) for off in BOTH]
    return body.radii_at([z for z in sides if end < z < last])


@functools.lru_cache(maxsize=64)
def _seen_radii(body: Body) -> tuple[set[float], float]:
    """Radii of the edges that are seen from the right end, and that of the bore that
    goes through; 0 for none."""
    corners: dict[float, set[float]] = {}
    for z, r in chain(*body.rings()):
        corners.setdefault(z, set()).add(r)
    # a rounded edge runs into face and round without an edge of its own
    rounded = [
        (edge.centre[1], edge.diameter / 2)
        for edge in body.features
        if isinstance(edge, EdgeRound) and edge.side == "right"
    ]
    balls = [feature for feature in body.features if isinstance(feature, Ball)]

    def smooth(z: float, r: float) -> bool:
        """Whether the round there has no edge: of a ball only its width is seen."""
        if any(ball.holds(z, r) and r < ball.diameter / 2 - 1e-3 for ball in balls):
            return True
        return any(low - 1e-3 < r < high - 1e-3 for low, high in rounded)

    def cornered(z: float, r: float) -> bool:
        """Whether there is an edge, and not a cone or a round that goes on."""
        return any(abs(r - corner) < 2e-3 for corner in corners[z])

    seen: set[float] = set()
    largest, least = 0.0, math.inf
    sides = [(z, z + off) for z in sorted(corners, reverse=True) for off in BOTH]
    radii = body.radii_at([beside for _, beside in sides])
    for (z, beside), (inner, outer) in zip(sides, radii, strict=True):
        if outer > largest + APART:
            largest = outer
            if cornered(z, outer) and not smooth(beside, outer):
                seen.add(round(outer, 3))
        if outer > 0 and inner < least - APART:
            if inner > 1e-3 and cornered(z, inner):
                seen.add(round(inner, 3))
            least = inner
    return seen, round(least, 3)
