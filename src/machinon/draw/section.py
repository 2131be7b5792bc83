"""Half sections of turned pieces from their bands, cut half hatched."""

from collections.abc import Callable, Sequence

from machinon.core.piece.back_plate import Plate
from machinon.core.route.plate_route import Band
from machinon.core.route.plate_route import Shape as Turned
from machinon.draw.drawing import Board, Line, Point, Shape

Place = Callable[[float, float], Point]  # (z, r) in mm to the page


def outline(
    outer: Sequence[Band], inner: Sequence[Band]
) -> tuple[tuple[float, float], ...]:
    """The cut face of one half as (z, r) corners, closed.

    >>> outline([(0, 10, 20)], [])
    ((0, 0.0), (0, 20), (10, 20), (10, 0.0))
    """
    points: list[tuple[float, float]] = []
    for a, b, r in outer:
        points += [(a, r), (b, r)]
    start, end = outer[0][0], outer[-1][1]
    if not inner:
        return ((start, 0.0), *points, (end, 0.0))
    for a, b, r in reversed(inner):
        points += [(min(b, end), r), (max(a, start), r)]
    return tuple(points)


def draw_turned(
    board: Board,
    shape: Turned,
    plate: Plate,
    place: Place,
    lit: Sequence[str] = (),
    both: bool = True,
) -> None:
    """A half section: above the axis cut and hatched, below as seen from outside.

    place: turns (z, signed r) into a page point; lit: surfaces to stress;
    both: draw the lower half too.
    """
    corners = outline(shape.outer, shape.inner)
    board.items.append(
        Shape(tuple(place(z, r) for z, r in corners), "outline", 1.8, "panel", "right")
    )
    end = shape.outer[-1][1]
    start = shape.outer[0][0]
    if both:
        below = [(start, 0.0)]
        for a, b, r in shape.outer:
            below += [(a, -r), (b, -r)]
        below.append((end, 0.0))
        board.items.append(
            Shape(tuple(place(z, r) for z, r in below), "outline", 1.8, "panel")
        )
        for _a, b, r in shape.outer[:-1]:
            board.line(place(b, 0), place(b, -r), "outline", 1.2)
    # edges of the bore seen beyond the cut
    for a, b, r in shape.inner:
        for z in (a, b):
            if start <= z <= end:
                board.line(place(z, 0), place(z, r), "outline", 1.2)
    if shape.threaded:
        r = plate.thread.major / 2
        board.line(place(plate.register_depth, r), place(end, r), "outline", 0.8)
    if shape.holes != "none":
        _bolt_hole(board, plate, place, shape.holes == "finished")
    overhang = (end - start) * 0.06 + 3
    board.items.append(
        Line(place(start - overhang, 0), place(end + overhang, 0), "centre", 1.0)
    )
    for name in lit:
        for begin, finish in surface_lines(name, shape, plate):
            board.line(place(*begin), place(*finish), "lit", 3.4)


def _bolt_hole(board: Board, plate: Plate, place: Place, finished: bool) -> None:
    middle, half = plate.bolt_circle / 2, plate.hole / 2
    a, b = plate.hub_length, plate.seat
    board.items.append(
        Shape(
            (
                place(a, middle - half),
                place(b, middle - half),
                place(b, middle + half),
                place(a, middle + half),
            ),
            "outline",
            1.2,
            "ground",
        )
    )
    if finished and plate.bolting == "through":
        wide, deep = plate.screw.counterbore / 2, plate.screw.counterbore_depth
        board.items.append(
            Shape(
                (
                    place(a, middle - wide),
                    place(a + deep, middle - wide),
                    place(a + deep, middle + wide),
                    place(a, middle + wide),
                ),
                "outline",
                1.2,
                "ground",
            )
        )
    if finished and plate.bolting == "into":
        for r in (middle - plate.screw.diameter / 2, middle + plate.screw.diameter / 2):
            board.line(place(a, r), place(b, r), "outline", 0.8)
    board.line(place(a - 2, middle), place(b + 2, middle), "centre", 0.9)


Segment = tuple[tuple[float, float], tuple[float, float]]


def surface_lines(name: str, shape: Turned, plate: Plate) -> tuple[Segment, ...]:
    """Where a named surface lies on the cut half, as (z, r) segments."""
    start, end = shape.outer[0][0], shape.outer[-1][1]
    bore = shape.inner[-1][2] if shape.inner else 0.0
    first = shape.inner[0][2] if shape.inner else 0.0
    hub, seat = plate.hub_length, plate.seat
    table: dict[str, tuple[Segment, ...]] = {
        "hub_face": (((start, first), (start, shape.outer[0][2])),),
        "hub": (((start, plate.hub_diameter / 2), (hub, plate.hub_diameter / 2)),),
        "flange_back": (((hub, plate.hub_diameter / 2), (hub, shape.outer[-1][2])),),
        "bore": (((start, bore), (end, bore)),),
        "register_bore": (
            (
                (0, plate.register_bore / 2),
                (plate.register_depth, plate.register_bore / 2),
            ),
        ),
        "thread": (((plate.register_depth, bore), (end, bore)),),
        "flange": (
            (
                (hub, plate.flange_diameter / 2),
                (min(seat, end), plate.flange_diameter / 2),
            ),
        ),
        "seat": (((seat, shape.outer[-1][2]), (seat, plate.flange_diameter / 2)),),
        "spigot": (((seat, shape.outer[-1][2]), (end, shape.outer[-1][2])),),
        "front": (((end, bore), (end, shape.outer[-1][2])),),
        "bolts": (
            (
                (hub, plate.bolt_circle / 2 - plate.hole / 2),
                (seat, plate.bolt_circle / 2 - plate.hole / 2),
            ),
            (
                (hub, plate.bolt_circle / 2 + plate.hole / 2),
                (seat, plate.bolt_circle / 2 + plate.hole / 2),
            ),
        ),
        "stock": (
            ((start, plate.stock_diameter / 2), (end, plate.stock_diameter / 2)),
        ),
    }
    return table.get(name, ())


def finished_shape(plate: Plate) -> Turned:
    """The plate as it will be."""
    return Turned(
        (
            (0.0, plate.hub_length, plate.hub_diameter / 2),
            (plate.hub_length, plate.seat, plate.flange_diameter / 2),
            (plate.seat, plate.length, plate.spigot_diameter / 2),
        ),
        (
            (0.0, plate.register_depth, plate.register_bore / 2),
            (plate.register_depth, plate.length, plate.thread_bore / 2),
        ),
        True,
        "finished",
    )
