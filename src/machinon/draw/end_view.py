"""What turns, as seen from its right end."""

import functools
import math

from machinon.core.piece.body import Body
from machinon.core.piece.hole_features import Arc, Holes
from machinon.core.piece.hole_features import Circle as HoleCircle
from machinon.core.piece.solid_cuts import Point
from machinon.core.piece.turned_features import Ball, EdgeRound, Flats, Keyway, Slits
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import EDGE, Board, Circle, Line, Place, Role, Shape


def draw_end_view(board: Board, body: Body, centre: Point, scale: float) -> None:
    """What turns as seen from its right end."""

    def place(x: float, y: float) -> Point:
        return centre[0] + x * scale, centre[1] - y * scale

    begun = len(board.items)
    largest = body.largest / 2
    board.items.append(Circle(centre, largest * scale, "outline", EDGE, "panel"))
    radii, bore = _seen_radii(body)
    for radius in sorted(radii):
        if radius < largest - 1e-3:
            fill: Role = "ground" if radius == bore else "none"
            board.items.append(Circle(centre, radius * scale, "outline", 1.4, fill))
    for one in body.features:
        match one:
            case Holes() if one.block is None:
                _holes(board, one, place, scale)
            case Keyway():
                _keyway(board, body, one, place, scale)
            case Slits():
                _slits(board, body, one, place)
            case Flats():
                _flats(board, body, one, place)
    reach = 1.08 * largest
    board.items.append(Line(place(-reach, 0), place(reach, 0), "centre", 1.0))
    board.items.append(Line(place(0, reach), place(0, -reach), "centre", 1.0))
    board.once(begun)


def _holes(board: Board, one: Holes, place: Place, scale: float) -> None:
    """Holes in a face, with what is sunk or tapped at their mouths."""
    hole, through = one.hole, one.hole.depth is None
    near: Role = "outline" if one.face == "right" else "hidden"
    if isinstance(one.pattern, HoleCircle | Arc):
        circle = one.pattern.diameter / 2 * scale
        board.items.append(Circle(place(0, 0), circle, "centre", 1.0))
    for x, y in one.points:
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
            board.items.append(Circle(at, crest, "thin", 0.9))


def _keyway(board: Board, body: Body, one: Keyway, place: Place, scale: float) -> None:
    """Its floor and sides, and the round open where it goes in from this end."""
    half, top = one.width / 2, one.diameter / 2
    rim = math.sqrt(max(top**2 - half**2, 0.0))  # height at which its sides meet it
    floor = top + one.depth if one.inside else top - one.depth
    left, right = (place(x, floor) for x in (-half, half))
    first, last = body.ends
    if one.end >= last and (one.start <= first or not one.inside):
        past = rim - 1 / scale if one.inside else top + 1 / scale
        clear: Role = "ground" if one.inside else "panel"
        mouth = (left, right, place(half, past), place(-half, past))
        board.items.append(Shape(mouth, clear, 0.5, clear))
    role = _seen_as(body, one.end, top, one.inside)
    sides = (place(-half, rim), left, right, place(half, rim))
    board.items.append(Shape(sides, role, 1.4, closed=False))


def _slits(board: Board, body: Body, one: Slits, place: Place) -> None:
    half, outer = one.width / 2, one.diameter / 2
    inner = max(half, body.radii(one.end - 1e-4)[0])
    for i in range(one.count):
        turn = math.radians(90.0 + 360.0 * i / one.count)
        cos, sin = math.cos(turn), math.sin(turn)
        for side in (-half, half):
            a, b = (
                place(r * cos - side * sin, r * sin + side * cos)
                for r in (inner, outer)
            )
            board.items.append(Line(a, b, "outline", 1.4))


def _flats(board: Board, body: Body, one: Flats, place: Place) -> None:
    radius = body.radii(one.start + 1e-4)[1]
    role = _seen_as(body, one.end, radius)
    if one.count > 2:
        turn = math.pi / one.count
        corner = one.across / 2 / math.cos(turn)
        turns = [turn * (2 * i + 1) for i in range(one.count)]
        points = [place(corner * math.cos(a), corner * math.sin(a)) for a in turns]
        board.items.append(Shape(tuple(points), role, 1.4))
        return
    for side in (1, -1)[: one.count]:
        x = side * one.across / 2
        y = math.sqrt(max(radius**2 - x**2, 0.0))
        board.items.append(Line(place(x, -y), place(x, y), role, 1.4))


def _seen_as(body: Body, end: float, radius: float, inside: bool = False) -> Role:
    """How what is cut into a round is drawn as seen from the right: hidden where as
    much metal stands before its end."""
    _, last = body.ends
    corners = {z for ring in body.rings() for z, _ in ring if end < z < last}
    sides = [z + off for z in (end, *corners, last) for off in (-1e-4, 1e-4)]
    before = body.radii_at([z for z in sides if end < z < last])
    if inside:
        hides = any(inner < radius + 1e-3 for inner, _ in before)
    else:
        hides = any(outer > radius - 1e-3 for _, outer in before)
    return "hidden" if hides else "outline"


@functools.lru_cache(maxsize=64)
def _seen_radii(body: Body) -> tuple[set[float], float]:
    """Radii of the edges that are seen from the right end, and that of the bore that
    goes through; 0 for none."""
    stations = sorted({z for ring in body.rings() for z, _ in ring}, reverse=True)
    # a rounded edge runs into face and round without an edge of its own
    rounded = [
        (one.centre[1], one.diameter / 2)
        for one in body.features
        if isinstance(one, EdgeRound) and one.side == "right"
    ]
    balls = [one for one in body.features if isinstance(one, Ball)]

    def smooth(z: float, r: float) -> bool:
        """Whether the round there has no edge: of a ball only its width is seen."""
        if any(one.holds(z, r) and r < one.diameter / 2 - 1e-3 for one in balls):
            return True
        return any(low - 1e-3 < r < high - 1e-3 for low, high in rounded)

    seen: set[float] = set()
    largest, least = 0.0, math.inf
    sides = [z + beside for z in stations for beside in (-1e-4, 1e-4)]
    for z, (inner, outer) in zip(sides, body.radii_at(sides), strict=True):
        if outer > largest + 1e-3:
            largest = outer
            if not smooth(z, outer):
                seen.add(round(outer, 3))
        if outer > 0 and inner < least - 1e-3:
            if inner > 1e-3:
                seen.add(round(inner, 3))
            least = inner
    return seen, round(least, 3)
