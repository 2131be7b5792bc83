"""Faces with holes as they are seen from outside, and a jig to drill them through.

The jig is printed or milled, laid on the face and drilled through. It seats by a rim
round the face, or over what stands up from a turned one (a spigot, a boss).
"""

import math
from collections.abc import Iterable

from machinon.core.errors import MachinonError
from machinon.core.piece.block_features import Pocket, SixFaces
from machinon.core.piece.body import Body
from machinon.core.piece.feature import BlockFace, Feature
from machinon.core.piece.hole_features import Hole, Holes, Places
from machinon.core.piece.solid_cuts import Point
from machinon.core.piece.stock import Block, Round
from machinon.core.piece.turned_features import Bore

PLATE = 8.0  # mm: the guide of the drill, as a rule of thumb twice its diameter
RIM = 4.0  # mm that the rim stands down, and is wide
PLAY = 0.2  # mm across, for a printed part
PILOT = 3.0  # mm: the drill that is guided; its hole is opened afterwards
CLEAR = 0.1  # mm that the guide is wider than its drill
# as they are kept, these faces are seen through the piece
MIRRORED = {True: ("left",), False: ("bottom", "back", "left")}


def _faces_with_holes(body: Body) -> list[BlockFace]:
    """The faces that have holes, in the order of the piece. Raises MachinonError where
    there is none."""
    found = [feature.face for feature in body.features if isinstance(feature, Holes)]
    if not found:
        raise MachinonError("There is no face with holes on this piece.")
    return list(dict.fromkeys(found))


def face_size(body: Body, face: BlockFace) -> tuple[float, float]:
    """Length and width of a face, mm; of what turns its largest diameter."""
    if body.turns:
        return body.largest, body.largest
    x0, y0, z0, x1, y1, z1 = body.shadow.box
    long, wide, high = x1 - x0, y1 - y0, z1 - z0
    if face in ("top", "bottom"):
        return long, wide
    return (long, high) if face in ("front", "back") else (wide, high)


def mirrored(body: Body, face: BlockFace) -> bool:
    """Whether a face is kept as seen through the piece."""
    return face in MIRRORED[body.turns]


def looked_at(body: Body, face: BlockFace, points: Iterable[Point]) -> list[Point]:
    """Places of a block's face as one looks at it, from its low left corner; mm."""
    long, _ = face_size(body, face)
    return [(long - x if mirrored(body, face) else x, y) for x, y in points]


def drill_jig(body: Body) -> Body:
    """A jig for the face with most holes that are square to it. Raises MachinonError
    where there is none.

    Seen with its seat towards one, so that it lies on the face when turned over.
    """
    faces = _faces_with_holes(body)
    every = [f for f in body.features if isinstance(f, Holes)]
    holes = [it for it in every if not it.lean and not it.sunk]
    if not holes:
        raise MachinonError(
            "A jig guides only holes that are square to their face, and begin in it."
        )
    face = max(faces, key=lambda f: sum(len(h.points) for h in holes if h.face == f))
    here = [holes for holes in holes if holes.face == face]
    # turned over: what is kept as seen through the piece stays as it is
    way = 1.0 if mirrored(body, face) else -1.0
    if body.turns:
        return _round_jig(body, face, here, way)
    long, wide = face_size(body, face)
    size = long + PLAY + 2 * RIM, wide + PLAY + 2 * RIM, PLATE + RIM
    low = RIM, RIM
    middle = size[0] / 2, RIM + PLAY / 2
    guides = tuple(
        _guides(holes, [(middle[0] + way * (x - long / 2), middle[1] + y)
                      for x, y in holes.points], PLATE + RIM, size)
        for holes in here
    )  # fmt: skip
    pocket = Pocket("seat", "top", size, low, (size[0] - RIM, size[1] - RIM), 0.0, RIM)
    return Body(Block((0, 0, 0), size), (SixFaces("jig", *size), pocket, *guides))


def _round_jig(body: Body, face: BlockFace, here: list[Holes], way: float) -> Body:
    """A disc over what stands up from the face, in the recess that it is the floor of,
    or with a rim round it."""
    level = here[0].level
    here = [holes for holes in here if holes.level == level]
    out = 1.0 if face == "right" else -1.0
    beyond = [
        2 * r for ring in body.rings() for z, r in ring if (z - level) * out > 1e-6
    ]
    around = 2 * body.radii(level - out * 1e-3)[1]
    circle = 2 * max(math.hypot(*point) for holes in here for point in holes.points)
    within = [wide for wide in beyond if wide < circle]
    walls = [wide for wide in beyond if wide > circle]
    seats: tuple[Feature, ...] = ()
    if within:
        seats = (Bore("seat", 0.0, PLATE, max(within) + PLAY),)
    if beyond:
        stock = Round(min(walls) - PLAY if walls else around, 0.0, PLATE)
    else:
        top = PLATE + RIM
        seats = (Bore("seat", PLATE, top, around + PLAY, opens="right"),)
        stock = Round(around + PLAY + 2 * RIM, 0.0, top)
    guides = tuple(
        _guides(holes, [(way * x, y) for x, y in holes.points], stock.end, None)
        for holes in here
    )
    return Body(stock, (*seats, *guides))


def _guides(
    of: Holes,
    points: list[Point],
    through: float,
    block: tuple[float, float, float] | None,
) -> Holes:
    """The guides of a pattern of holes, for a pilot drill or a smaller one."""
    guide = Hole(round(min(of.hole.diameter, PILOT) + CLEAR, 3))
    face: BlockFace = "right" if block is None else "top"
    level = through if block is None else 0.0
    return Holes(of.name, face, Places(tuple(points)), guide, through, level, block)
