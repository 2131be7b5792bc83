"""A piece of the shop as its picture, drawn from what it measures."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from machinon.core.measuring import Measured, measured_text
from machinon.core.shop import Piece, Surface
from machinon.core.surface_kinds import beside, form_key
from machinon.draw.drawing import Board, Drawing, Line, Point, Shape, Spot
from machinon.draw.plane import Plane

TRACE = 0.1  # mm: the least that is drawn of a surface
UNKNOWN = 40.0  # mm: what is drawn where nothing is measured yet


@dataclass(frozen=True, slots=True)
class Outline:
    """A piece as it is drawn beside others; mm, its left end at 0.

    points: of the upper half of what turns, of the whole section of what does
    not; turns: which; places: where each surface lies, by its id.
    """

    points: tuple[Point, ...]
    turns: bool
    places: Mapping[str, Point]

    @property
    def size(self) -> tuple[float, float]:
        """How long and how high it is."""
        return max(x for x, _ in self.points), max(y for _, y in self.points)


def outline_of(piece: Piece, measured: Mapping[str, Measured | None]) -> Outline:
    """The outline of a piece, drawn from what it measures; see `piece_drawing`."""
    section = _sectioned(piece)
    if section is not None:
        points = _section_points(section, _sizes(measured))
        left, low = min(x for x, _ in points), min(y for _, y in points)
        shifted = tuple((x - left, y - low) for x, y in points)
        high = max(y for _, y in shifted)
        return Outline(shifted, False, {section.id: (-left, high)})
    outer, inner = _bands(piece, _sizes(measured), measured)
    places = {
        id: ((a + b) / 2, (r + e) / 2) for a, b, r, e, id in (*outer, *inner) if id
    }
    return Outline(tuple(_upper_half(outer, inner)), True, places)


def _sizes(measured: Mapping[str, Measured | None]) -> Callable[[str, float], float]:
    """A surface's size by its id, or what stands for it."""

    def size(id: str, other: float) -> float:
        found = measured.get(id)
        # places typed wrongly can leave nothing: it is drawn as a trace of itself
        return max(found.size, TRACE) if found is not None else other

    return size


def _sectioned(piece: Piece) -> Surface | None:
    """The surface that a piece is cut across at; None for one drawn along its axis."""
    if any(_round(one) for one in piece.surfaces):
        return None
    return next((one for one in piece.surfaces if form_key(one) in _SECTIONS), None)


def _upper_half(outer: "list[Band]", inner: "list[Band]") -> list[Point]:
    face = [point for a, b, r, e, _ in outer for point in ((a, r), (b, e))]
    back = [point for a, b, r, e, _ in reversed(inner) for point in ((b, e), (a, r))]
    if inner and inner[-1][1] < outer[-1][1]:  # a blind hole, or a taper's plug
        back = [(outer[-1][1], 0.0), (inner[-1][1], 0.0), *back]
    return [*face, *(back or [(outer[-1][1], 0.0), (outer[0][0], 0.0)])]


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
    section = _sectioned(piece)
    if section is not None:
        _section(board, section, _sizes(measured))
        _rest(board, piece, measured, set(), inch)
        return board.done()
    outer, inner = _bands(piece, _sizes(measured), measured)
    long = max((band[1] for band in (*outer, *inner)), default=UNKNOWN)
    tall = max((max(band[2:4]) for band in (*outer, *inner)), default=UNKNOWN / 2)
    scale = min((width - 13 * size) / long, (height - 5 * size) / (2 * tall))
    left, axis = (width - long * scale) / 2, height / 2

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    board.items.append(
        Shape(
            tuple(place(*point) for point in _upper_half(outer, inner)),
            "outline",
            1.8,
            "panel",
            "right",
        )
    )
    # edges of the bore seen beyond the cut
    for a, b, r, e, _ in inner:
        for z, radius in ((a, r), (b, e)):
            board.line(place(z, 0), place(z, radius), "outline", 1.2)
    face = [point for a, b, r, e, _ in outer for point in ((a, r), (b, e))]
    lower = [(outer[0][0], 0.0), *((z, -r) for z, r in face), (outer[-1][1], 0.0)]
    board.items.append(
        Shape(tuple(place(*point) for point in lower), "outline", 1.8, "panel")
    )
    ends = place(-long * 0.06, 0), place(long * 1.06, 0)
    board.items.append(Line(*ends, "centre", 1.0))
    _figures(board, piece, measured, place, (outer, inner), inch)
    return board.done()


# along the axis: from, to, radius at either end, and the surface's id
Band = tuple[float, float, float, float, str]


def _band(a: float, b: float, diameter: float, id: str) -> Band:
    return (a, b, diameter / 2, diameter / 2, id)


def _round(surface: Surface) -> bool:
    """Whether a surface can be drawn along the axis of its piece."""
    own = form_key(surface)
    return own not in _SECTIONS and surface.kind in ("outside", "inside")


def _bands(
    piece: Piece,
    size: Callable[[str, float], float],
    measured: Mapping[str, Measured | None],
) -> tuple[list[Band], list[Band]]:
    """Outside and bore of a piece along its axis."""
    if piece.role == "nose":
        register = size("register", UNKNOWN)
        guide = size("register-length", 0.3 * register)
        end = size("nose-length", 0.8 * register)
        shoulder = 0.4 * register
        crests = size("thread-major", 0.97 * register)
        return [
            _band(0.0, shoulder, register * 1.36, ""),
            _band(shoulder, shoulder + guide, register, "register"),
            _band(shoulder + guide, shoulder + end, crests, "thread-major"),
        ], []
    if piece.role == "chuck":
        body = size("body", 3 * UNKNOWN)
        recess = size("recess", 0.72 * body)
        deep = size("recess-depth", 0.04 * body)
        long = 0.45 * body
        return [_band(0.0, long, body, "body")], [
            _band(0.0, deep, recess, "recess"),
            _band(deep, long, 0.32 * body, ""),
        ]
    outer: list[Band] = []
    inner: list[Band] = []
    at = 0.0
    for one in piece.surfaces:
        if one.kind == "outside" and _round(one):
            d = size(one.id, UNKNOWN)
            outer.append(_length(at, d, one.id, measured))
            at = outer[-1][1]
    for one in piece.surfaces:
        if one.kind == "inside" and _round(one):
            d = size(one.id, UNKNOWN)
            own = _length(0.0, d, one.id, measured)
            inner.append(
                own
                if not at or one.id.startswith("taper")
                else (0.0, at, d / 2, d / 2, one.id)
            )
    if not outer:
        widest = max((band[2] for band in inner), default=UNKNOWN / 2)
        long = inner[0][1] if inner else UNKNOWN
        outer = [_band(0.0, long, 3 * widest, "")]
    # a bore wider than what is around it belongs to another end: left out
    least = min(min(band[2:4]) for band in outer)
    return outer, [band for band in inner[:1] if band[2] < least]


def _length(
    at: float, diameter: float, id: str, measured: Mapping[str, Measured | None]
) -> Band:
    """A cylinder a share of its diameter long, or a taper as far as it was read."""
    found = measured.get(id)
    if found is None or found.slope is None:
        return _band(at, at + 0.6 * diameter, diameter, id)
    long = found.slope.apart
    return (
        at,
        at + long,
        diameter / 2,
        max(diameter + found.slope.ratio * long, 0.0) / 2,
        id,
    )


_SECTIONS = ("tee-neck", "over-pins", "between-pins", "slot", "tongue", "key-width")


def _section(board: Board, one: Surface, size: Callable[[str, float], float]) -> None:
    """The section of a piece, filling the board."""
    around = _section_points(one, size)
    plane = Plane(board)
    side, low = max(x for x, _ in around), min(y for _, y in around)
    plane.frame(-side, low, side, 0, (3, 3.6))
    plane.shape(around, hatch=True)
    plane.line((0, -0.05 * low), (0, low), "centre", 1.0)


def _section_points(one: Surface, size: Callable[[str, float], float]) -> list[Point]:
    """What runs along a piece, cut across: a T-slot, a dovetail, a slot.

    Its middle is at 0, its open side at height 0.
    """
    form = form_key(one)
    wide = size(one.id, 14.0)
    aids = one.aids
    if form == "tee-neck":
        head = size(beside(one, "tee-head"), 1.7 * wide)
        high = size(beside(one, "tee-head-depth"), 0.7 * wide)
        lip = size(beside(one, "tee-lip"), 0.9 * wide)
        edge = [(wide, 0), (wide, -lip), (head, -lip), (head, -lip - high)]
        deep = lip + high
    elif form in ("over-pins", "between-pins"):
        deep = aids.get("depth", 0.1 * wide)
        lean = 2 * deep / math.tan(math.radians(aids.get("angle", 60)))
        root, mouth = wide, wide + (lean if form == "over-pins" else -lean)
        edge = [(mouth, 0), (root, -deep)]
    else:
        deep = 0.6 * wide
        edge = [(wide, 0), (wide, -deep)]
    solid = form in ("over-pins", "tongue")
    far = max(w for w, _ in edge)
    side, under = far * (0.85 if not solid else 0.8), 0.8 * deep
    if solid:
        right = [(w / 2, y) for w, y in edge]
        left = [(-x, y) for x, y in reversed(right)]
        around = [
            *right,
            (side, -deep),
            (side, -deep - under),
            (-side, -deep - under),
            (-side, -deep),
            *left,
        ]
    else:
        right = [(w / 2, y) for w, y in edge]
        left = [(-x, y) for x, y in right]
        around = [
            (-side, 0),
            *left,
            *reversed(right),
            (side, 0),
            (side, -deep - under),
            (-side, -deep - under),
        ]
    return around


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
    for a, b, r, e, id in (*bands[0], *bands[1]):
        surface = piece.surface(id) if id else None
        if surface is None:
            continue
        x, y = place((a + b) / 2, (r + e) / 2)
        inside = surface.kind in ("inside", "gap")
        at = (x, y + (1.1 if inside else -1.1) * size)
        _figure(board, surface.name, measured.get(id), at, id, inch)
        drawn.add(id)
    _rest(board, piece, measured, drawn, inch)


def _rest(
    board: Board,
    piece: Piece,
    measured: Mapping[str, Measured | None],
    drawn: set[str],
    inch: bool,
) -> None:
    """The surfaces that have no place in the picture, along its foot."""
    size = board.size
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
    if found is not None and found.slope is not None and found.likely:
        name = f"{name}, {found.likely[0].name}"
    text = "to measure" if found is None else measured_text(found, inch)
    board.text((x, y - 1.05 * size), name, 0.8 * size, "faint", backed=True)
    board.text(
        at, text, size, "cut" if found is None else "measured", bold=True, backed=True
    )
    wide = 0.62 * size * max(len(text), len(name))
    board.spots.append(Spot((x - wide / 2, y - 1.7 * size, wide, 2.4 * size), id, name))
