"""A piece of the shop as its picture, drawn from what it measures."""

from collections.abc import Callable, Mapping

from machinon.core.measuring import Measured
from machinon.core.quantity import length_text
from machinon.core.shop import Piece
from machinon.draw.drawing import Board, Drawing, Line, Point, Shape, Spot

UNKNOWN = 40.0  # mm: what is drawn where nothing is measured yet


def piece_drawing(
    piece: Piece,
    measured: Mapping[str, Measured | None],
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """Half section of a piece with its sizes; ties are the ids of its surfaces.

    measured: by surface id. Lengths that are not measured are drawn as a share
    of the diameter: the picture says so by leaving them without a figure.
    """
    board = Board(width, height, size)

    def has(id: str, other: float) -> float:
        found = measured.get(id)
        return found.size if found is not None else other

    outer, inner = _bands(piece, has)
    long = max((band[1] for band in (*outer, *inner)), default=UNKNOWN)
    tall = max((band[2] for band in (*outer, *inner)), default=UNKNOWN / 2)
    scale = min((width - 13 * size) / long, (height - 5 * size) / (2 * tall))
    left, axis = (width - long * scale) / 2, height / 2

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    face = [point for a, b, r, _ in outer for point in ((a, r), (b, r))]
    back = [point for a, b, r, _ in reversed(inner) for point in ((b, r), (a, r))]
    if not inner:
        back = [(outer[-1][1], 0.0), (outer[0][0], 0.0)]
    board.items.append(
        Shape(
            tuple(place(*point) for point in (*face, *back)),
            "outline",
            1.8,
            "panel",
            "right",
        )
    )
    # edges of the bore seen beyond the cut
    for a, b, r, _ in inner:
        for z in (a, b):
            board.line(place(z, 0), place(z, r), "outline", 1.2)
    lower = [(outer[0][0], 0.0), *((z, -r) for z, r in face), (outer[-1][1], 0.0)]
    board.items.append(
        Shape(tuple(place(*point) for point in lower), "outline", 1.8, "panel")
    )
    ends = place(-long * 0.06, 0), place(long * 1.06, 0)
    board.items.append(Line(*ends, "centre", 1.0))
    _figures(board, piece, measured, place, (outer, inner), inch)
    return board.done()


Band = tuple[float, float, float, str]


def _bands(
    piece: Piece, size: Callable[[str, float], float]
) -> tuple[list[Band], list[Band]]:
    """Outside and bore along the axis: from, to, radius, and the surface's id."""
    if piece.role == "nose":
        register = size("register", UNKNOWN)
        guide = size("register-length", 0.3 * register)
        end = size("nose-length", 0.8 * register)
        shoulder = 0.4 * register
        return [
            (0.0, shoulder, register * 0.68, ""),
            (shoulder, shoulder + guide, register / 2, "register"),
            (
                shoulder + guide,
                shoulder + end,
                size("thread-major", 0.97 * register) / 2,
                "thread-major",
            ),
        ], []
    if piece.role == "chuck":
        body = size("body", 3 * UNKNOWN)
        recess = size("recess", 0.72 * body)
        deep = size("recess-depth", 0.04 * body)
        long = 0.45 * body
        return [(0.0, long, body / 2, "body")], [
            (0.0, deep, recess / 2, "recess"),
            (deep, long, 0.16 * body, ""),
        ]
    outer: list[Band] = []
    inner: list[Band] = []
    at = 0.0
    for one in piece.surfaces:
        if one.kind == "outside":
            d = size(one.id, UNKNOWN)
            outer.append((at, at + 0.6 * d, d / 2, one.id))
            at += 0.6 * d
    long = max(at, 0.0)
    for one in piece.surfaces:
        if one.kind == "inside":
            d = size(one.id, UNKNOWN)
            inner.append((0.0, long or 0.5 * d, d / 2, one.id))
    if not outer:
        widest = max((band[2] for band in inner), default=UNKNOWN / 2)
        long = inner[0][1] if inner else UNKNOWN
        outer = [(0.0, long, 1.5 * widest, "")]
    # a bore wider than what is around it belongs to another end: left out
    least = min(band[2] for band in outer)
    return outer, [band for band in inner[:1] if band[2] < least]


def _figures(
    board: Board,
    piece: Piece,
    measured: Mapping[str, Measured | None],
    place: Callable[[float, float], Point],
    bands: tuple[list[Band], list[Band]],
    inch: bool,
) -> None:
    """Each surface's size where it lies; those without a place along the foot."""
    size = board.size
    drawn = set()
    for a, b, r, id in (*bands[0], *bands[1]):
        surface = piece.surface(id) if id else None
        if surface is None:
            continue
        x, y = place((a + b) / 2, r)
        inside = surface.kind in ("inside", "gap")
        at = (x, y + (1.1 if inside else -1.1) * size)
        _figure(board, surface.name, measured.get(id), at, id, inch)
        drawn.add(id)
    rest = [one for one in piece.surfaces if one.id not in drawn]
    for i, one in enumerate(rest):
        x = board.width * (i + 0.5) / len(rest)
        at = (x, board.height - 1.0 * size)
        _figure(board, one.name, measured.get(one.id), at, one.id, inch)


def _figure(
    board: Board, name: str, found: Measured | None, at: Point, id: str, inch: bool
) -> None:
    size = board.size
    x, y = at
    text = "to measure" if found is None else length_text(found.size, found.step, inch)
    board.text((x, y - 1.05 * size), name, 0.8 * size, "faint", backed=True)
    board.text(
        at, text, size, "cut" if found is None else "measured", bold=True, backed=True
    )
    wide = 0.62 * size * max(len(text), len(name))
    board.spots.append(Spot((x - wide / 2, y - 1.7 * size, wide, 2.4 * size), id, name))
