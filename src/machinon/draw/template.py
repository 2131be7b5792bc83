"""A paper template at 1:1: a face with its holes, slots and pockets, stuck on and
punched through."""

from collections.abc import Sequence

from machinon.core.errors import MachinonError
from machinon.core.piece.block_features import Outline, Pocket, Slot
from machinon.core.piece.body import Body
from machinon.core.piece.family import spoken
from machinon.core.piece.feature import BlockFace
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.jigs import face_size, mirrored
from machinon.core.piece.made import Made
from machinon.core.piece.turned_features import Bore
from machinon.core.reckoning import Answer
from machinon.draw.drawing import Board, Circle, Drawing, Point, Shape

CHECK = 50.0  # mm: the line by which the print is measured
CROSS = 4.0  # mm that a cross goes past its hole


def marked_faces(body: Body) -> list[BlockFace]:
    """The faces with something to mark out, in the order of the piece. Raises
    MachinonError where there is none."""
    found: list[BlockFace] = []
    for feature in body.features:
        if isinstance(feature, Holes | Slot | Pocket):
            found.append(feature.face)
        elif isinstance(feature, Outline):
            found.append("top")
    if not found:
        raise MachinonError(
            "There is nothing to mark out on this piece: no holes, slots or pockets."
        )
    return list(dict.fromkeys(found))


def template(
    made: Made, face: BlockFace, width: float, height: float, unit: float
) -> Drawing:
    """A face at 1:1 on a page; unit: of the page's own units to a mm.

    Raises MachinonError where the face is larger than the page.
    """
    body = made.body
    board = Board(width, height, 11.0)
    long, wide = face_size(body, face)
    foot = 22.0 * unit  # for the words and the line to measure
    if long * unit > width or wide * unit > height - foot:
        raise MachinonError(
            f"The template is {long:.0f} × {wide:.0f} mm, and a page has "
            f"{width / unit:.0f} × {(height - foot) / unit:.0f} mm: lay the holes out "
            "by their list instead."
        )
    mirror = -1.0 if mirrored(body, face) else 1.0
    low = (0.0, 0.0) if body.turns else (-long / 2, -wide / 2)
    middle = width / 2, (height - foot) / 2

    def place(x: float, y: float) -> Point:
        across, up = low[0] + x, low[1] + y
        return middle[0] + mirror * across * unit, middle[1] - up * unit

    if body.turns:
        _round_face(board, made, face, middle, unit)
    else:
        flat = face in ("top", "bottom")
        corners = (0.0, 0.0), (long, 0.0), (long, wide), (0.0, wide)
        for outline in body.shadow.outlines["top"] if flat else (corners,):
            points = tuple(place(*corner) for corner in outline)
            board.items.append(Shape(points, "outline", 1.0))
    for sunk in body.features:
        if isinstance(sunk, Slot | Pocket) and sunk.face == face:
            edge = [place(*point) for point in _on_face(sunk.outline(), long, wide)]
            board.items += [Shape(tuple(edge), "outline", 0.8)] if edge else []
    for holes in body.features:
        if isinstance(holes, Holes) and holes.face == face:
            for at in holes.points:
                if holes.lean:
                    rim = holes.rim(at, holes.lean, wide=holes.hole.diameter)
                    mouth = tuple(place(*point) for point in rim)
                    board.items.append(Shape(mouth, "outline", 0.8))
                radius = 0.0 if holes.lean else holes.hole.diameter / 2
                _cross(board, place(*at), radius, unit)
    what = f"{made.family.name}, {spoken(face)} as seen from outside"
    _measure_it(board, what, height, unit)
    return board.done()


def _on_face(ring: Sequence[Point], long: float, wide: float) -> list[Point]:
    """As much of an outline as lies on a face, mm; a slot may run out of it."""
    from shapely import Polygon, box

    part = Polygon(ring).intersection(box(0.0, 0.0, long, wide))
    return list(part.exterior.coords)[:-1] if isinstance(part, Polygon) else []


def wrapped(answer: Answer, width: float, height: float, unit: float) -> Drawing:
    """A pipe's template at 1:1 on a page, to be wrapped round it; answer: of
    `pipe-joint`. Raises MachinonError where it is longer than the page.
    """
    around, deep = float(answer["around"]), float(answer["deepest"])
    foot, straight = 22.0 * unit, 20.0
    if around * unit > width or (deep + straight) * unit > height - foot:
        raise MachinonError(
            f"The template is {around:.0f} mm long, a page {width / unit:.0f} mm wide: "
            "lay it out by its points instead."
        )
    board = Board(width, height, 11.0)
    left, base = (width - around * unit) / 2, (straight + deep + 20.0) * unit
    curve = tuple(
        (left + point["along"] * unit, base - point["up"] * unit)
        for point in answer["points"]
    )
    low = base + straight * unit
    ends = (left + around * unit, low), (left, low)
    board.items.append(Shape((*curve, *ends), "outline", 1.0))
    for point, (x, y) in zip(answer["points"], curve, strict=True):
        board.line((x, y), (x, low), "thin", 0.5)
        if round(point["at"]) % 90 == 0:
            board.text((x, low + 3 * unit), f"{point['at']:.0f}°", 9.0, "faint")
    board.text((left, low + 9 * unit), "Sharp side at both ends", 10.0, anchor="left")
    _measure_it(board, answer.title, height, unit)
    return board.done()


def _round_face(
    board: Board, made: Made, face: BlockFace, middle: Point, unit: float
) -> None:
    """The largest round, the bores that open on the face, and its centre."""
    body = made.body
    board.items.append(Circle(middle, body.largest / 2 * unit, "outline", 1.0))
    for feature in body.features:
        if isinstance(feature, Bore) and feature.opens in (face, "both"):
            board.items.append(
                Circle(middle, feature.diameter / 2 * unit, "outline", 0.8)
            )
    _cross(board, middle, 0.0, unit)


def _cross(board: Board, at: Point, radius: float, unit: float) -> None:
    """A hole with a cross through its centre, fine enough for a punch."""
    reach = (radius + CROSS) * unit
    x, y = at
    if radius:
        board.items.append(Circle(at, radius * unit, "outline", 0.8))
    board.line((x - reach, y), (x + reach, y), "outline", 0.5)
    board.line((x, y - reach), (x, y + reach), "outline", 0.5)


def _measure_it(board: Board, what: str, height: float, unit: float) -> None:
    """Writes the title, and a line to measure on the print before it is trusted."""
    y = height - 6.0 * unit
    board.line((0.0, y), (CHECK * unit, y), "outline", 0.8)
    for x in (0.0, CHECK * unit):
        board.line((x, y - 2 * unit), (x, y + 2 * unit), "outline", 0.8)
    right = CHECK * unit + 4 * unit
    board.text((right, y), "50 mm: measure it before you trust it", anchor="left")
    board.text((0.0, y - 9 * unit), f"{what}, 1:1", anchor="left", bold=True)
