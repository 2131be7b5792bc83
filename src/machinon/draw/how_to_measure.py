"""How to measure: a small picture for each kind of surface.

Some have two: there are two schools, or two ways by what instrument is there.
"""

import math
from collections.abc import Callable, Iterable, Mapping

from machinon.core.shop.things import Surface
from machinon.core.survey.surface_kinds import form_key
from machinon.draw.drawing import Board, Drawing, Point
from machinon.draw.lettering import text_width
from machinon.draw.plane import Plane

Scene = Callable[["_Bench"], str]  # draws, and says in a few words what it shows
FOOT = 1.9  # figure heights kept below for the words


class _Bench(Plane):
    """A scene's part of the page, with what instruments look like."""

    @property
    def floor(self) -> float:
        return self.board.height - FOOT * self.size

    def fit(self, left: float, low: float, right: float, high: float) -> None:
        self.frame(left, low, right, high, (0.8, 0.6))

    def anvil(self, x: float, y: float, angle: float, long: float = 3.0) -> None:
        """A measuring face that touches at x, y; angle: the way it pushes."""
        a = math.radians(angle)
        along, across = (math.cos(a), math.sin(a)), (-math.sin(a), math.cos(a))
        half = 0.28 * long
        self.shape(
            [
                (
                    x - along[0] * back + across[0] * side,
                    y - along[1] * back + across[1] * side,
                )
                for back, side in ((0, half), (long, half), (long, -half), (0, -half))
            ],
            role="measured",
            fill="ground",
        )

    def jaws(self, a: float, b: float, y: float, outside: bool = True) -> None:
        """Two level anvils, outside of a to b or inside of it."""
        left, right = (0.0, 180.0) if outside else (180.0, 0.0)
        self.anvil(a, y, left)
        self.anvil(b, y, right)

    def pit(
        self, half: float, floor: float, wide: float, top: float, base: float
    ) -> None:
        """A block from base to top with a recess in it, 2 × half across."""
        self.shape(
            [
                (-wide, top),
                (-half, top),
                (-half, floor),
                (half, floor),
                (half, top),
                (wide, top),
                (wide, base),
                (-wide, base),
            ],
            True,
        )

    def over(self, a: float, b: float, foot: float, y: float) -> None:
        """A length from a to b, read at y, with its ends carried up from foot."""
        self.line((a, foot), (a, y + 0.4), "measured", 1.4)
        self.line((b, foot), (b, y + 0.4), "measured", 1.4)
        self.line((a, y), (b, y), "measured", 2.4)

    def needle(self, x: float, y: float) -> None:
        """An indicator that stands on x, y."""
        self.line((x, y), (x, y + 3), "measured", 2.4)
        self.circle(x, y + 5, 2, "measured", "ground")
        self.line((x, y + 5), (x + 1, y + 6.2), "measured", 1.6)

    def rod(self, x: float, top: float, bottom: float) -> None:
        """A depth gauge: its bridge on top, its rod down to the bottom."""
        self.box(x - 4, top, x + 4, top + 1.4, role="measured", fill="ground")
        self.box(x - 0.5, bottom, x + 0.5, top + 5, role="measured", fill="ground")


def measuring_drawing(
    surface: Surface, width: float, height: float, size: float = 12.0
) -> Drawing:
    """The picture of how a surface is measured; empty for a kind that has none."""
    # a family's own surfaces are known by their id, all others by their form
    scenes = SCENES.get(surface.id) or SCENES.get(form_key(surface), ())
    board = Board(width, height, size)
    for i, scene in enumerate(scenes):
        part = width / len(scenes)
        said = scene(_Bench(board, i * part, part))
        words = 0.85 * min(size, 0.96 * part / text_width(said, 0.85))
        board.text(((i + 0.5) * part, height - 0.9 * size), said, words, "faint")
    return board.done()


def _round(radius: float, angles: Iterable[float]) -> list[Point]:
    """Points about the origin, angles in degrees."""
    turns = [math.radians(angle) for angle in angles]
    return [(radius * math.cos(a), radius * math.sin(a)) for a in turns]


# -- round --------------------------------------------------------------------


def _across(s: _Bench) -> str:
    s.fit(-9, -9, 9, 9)
    s.circle(0, 0, 5.5, "outline", "panel")
    s.jaws(-5.5, 5.5, 0)
    s.anvil(0, 5.5, -90)
    s.anvil(0, -5.5, 90)
    return "across, and a quarter turn on"


def _both_ends(s: _Bench) -> str:
    s.fit(-9, -8, 9, 8)
    s.box(-8, -3.5, 8, 3.5)
    s.line((-9, 0), (9, 0), "centre", 1.0)
    for x in (-5.5, 5.5):
        s.anvil(x, 3.5, -90)
        s.anvil(x, -3.5, 90)
    return "front and back"


def _three_points(s: _Bench) -> str:
    s.fit(-8, -8, 8, 8)
    s.circle(0, 0, 7.5, "outline", "panel")
    s.circle(0, 0, 5.2, "outline", "ground")
    s.circle(0, 0, 1.6, "measured", "ground")
    angles = (90, 210, 330)
    for angle, (x, y) in zip(angles, _round(5.2, angles), strict=True):
        s.anvil(x, y, angle)
    return "three-point gauge"


def _telescope(s: _Bench) -> str:
    s.fit(-8, -8, 8, 8)
    for side in (-1, 1):
        s.box(-7.5, side * 4, 7.5, side * 7, hatch=True)
    s.box(0.2, -4, 1.4, 4, role="measured", fill="ground")
    s.line((1.4, 0), (8, 1.2), "measured", 2.4)
    return "telescoping gauge, then micrometer"


def _shoulder(s: _Bench) -> str:
    s.fit(-9, -7, 9, 8)
    s.shape(
        [(-8, -2), (0, -2), (0, -5), (7, -5), (7, 5), (0, 5), (0, 2), (-8, 2)], True
    )
    s.line((-9, 0), (9, 0), "centre", 1.0)
    s.line((-8, 7), (0, 7), "measured", 2.4)
    s.line((-8, 2.4), (-8, 7.8), "measured", 1.2)
    s.line((0, 5.2), (0, 7.8), "measured", 1.2)
    return "face to face"


def _into_depth(s: _Bench) -> str:
    s.fit(-9, -6, 9, 7)
    s.pit(3, -3, 8, 1, -5.5)
    s.rod(0, 1, -3)
    return "depth micrometer on the face"


def _over_parallel(s: _Bench) -> str:
    s.fit(-9, -6, 9, 7.5)
    s.pit(4, -4, 8, 0, -5.8)
    s.box(-6.5, 0, 6.5, 1.4, hatch=True, role="cut")
    s.rod(0, 1.4, -4)
    return "over a parallel, taken off"


def _groove(s: _Bench) -> str:
    s.fit(-9, -6, 9, 7)
    s.pit(1.6, 0, 8, 3, -4)
    s.box(-1.6, 0.2, 1.6, 6, role="measured", fill="ground")
    return "slips, or a pin that just enters"


def _groove_floor(s: _Bench) -> str:
    s.fit(-9, -8, 9, 8)
    for side in (-1, 1):
        s.shape(
            [
                (-8, 0),
                (-8, side * 5),
                (-1.2, side * 5),
                (-1.2, side * 2.6),
                (1.2, side * 2.6),
                (1.2, side * 5),
                (8, side * 5),
                (8, 0),
            ]
        )
        s.box(-0.7, side * 2.6, 0.7, side * 7.6, role="measured", fill="ground")
    s.line((-9, 0), (9, 0), "centre", 1.0)
    return "blade points on the floor"


def _needle_round(s: _Bench) -> str:
    s.fit(-9, -7, 9, 11)
    s.box(-8, -3, 3, 3)
    s.box(3, -6, 8, 6, hatch=True)
    s.line((-9, 0), (9, 0), "centre", 1.0)
    s.needle(-4, 3)
    return "one slow turn by hand"


def _arc(s: _Bench) -> str:
    s.fit(-10, -6, 10, 9)
    rim = [(x, y - 6) for x, y in _round(9, range(20, 161, 5))]
    s.shape([(-8.5, -6), (8.5, -6), *rim], True)
    for x in (-6.0, 6.0):
        s.anvil(x, math.sqrt(81 - 36) - 6, -90, 4.2)
    s.box(-7, 4.9, 7, 6.3, role="measured", fill="ground")
    s.box(-0.5, 3, 0.5, 8.5, role="measured", fill="ground")
    return "two feet and a depth gauge"


# -- threads and tapers ---------------------------------------------------------


def _thread(s: _Bench, inside: bool) -> None:
    teeth = [
        (x, (3 if i % 2 else 4.2)) for i, x in enumerate([-8 + j for j in range(17)])
    ]
    for side in (-1, 1):
        edge = [(x, side * (y if not inside else 8.4 - y)) for x, y in teeth]
        base = 0.0 if not inside else side * 7.5
        s.shape([(-8, base), *edge, (8, base)], inside)


def _crests_out(s: _Bench) -> str:
    s.fit(-9, -8, 9, 8)
    _thread(s, False)
    s.line((-9, 0), (9, 0), "centre", 1.0)
    s.anvil(-3, 4.2, -90)
    s.anvil(-3, -4.2, 90)
    return "over the crests"


def _crests_in(s: _Bench) -> str:
    s.fit(-9, -8, 9, 8)
    _thread(s, True)
    s.anvil(0, 4.2, 90, 4.2)
    s.anvil(0, -4.2, -90, 4.2)
    return "across the nut's crests"


def _gauge_leaf(s: _Bench) -> str:
    s.fit(-9, -2, 9, 8)
    tooth = [(-8 + i, 2.4 if i % 2 else 0.4) for i in range(17)]
    s.shape([(-8, -1.5), *tooth, (8, -1.5)], True)
    s.shape(
        [(-5, 7), *((x, y + 0.25) for x, y in tooth[3:14]), (5, 7)], role="measured"
    )
    return "leaf of the thread gauge"


def _ten_crests(s: _Bench) -> str:
    s.fit(-11, -2, 11, 8)
    tooth = [(-10 + i, 2.4 if i % 2 else 0.4) for i in range(21)]
    s.shape([(-10, -1.5), *tooth, (10, -1.5)], True)
    s.over(-9, 9, 2.6, 5.4)
    return "over many crests, divided"


def _taper_two(s: _Bench) -> str:
    s.fit(-10, -8, 10, 8)
    s.shape([(-9, -2.6), (9, -5), (9, 5), (-9, 2.6)])
    s.line((-10, 0), (10, 0), "centre", 1.0)
    for x in (-6.0, 6.0):
        y = 2.6 + (x + 9) / 18 * 2.4
        s.anvil(x, y, -90)
        s.anvil(x, -y, 90)
    return "at two distances from the large end"


def _taper_rollers(s: _Bench) -> str:
    s.fit(-10, 0, 10, 15)
    s.box(-9, -0.6, 9, 0, hatch=True)
    s.shape([(-3, 0), (3, 0), (4.6, 14), (-4.6, 14)])
    for low, role in ((0.0, "thin"), (6.0, "cut")):
        for side in (-1, 1):
            if low:
                s.box(side * 4.2, 0, side * 7, low, role="cut")
            x = 3 + 1.6 * low / 14 + 1.35
            s.circle(side * x, low + 1.2, 1.2, role, "ground")  # type: ignore[arg-type]
    s.jaws(-6.4, 6.4, 7.2)
    return "over rollers, low and on blocks"


def _taper_bore(s: _Bench) -> str:
    s.fit(-10, -8, 10, 8)
    for side in (-1, 1):
        s.shape(
            [(-9, side * 2.4), (9, side * 4.6), (9, side * 7.6), (-9, side * 7.6)], True
        )
    s.line((-10, 0), (10, 0), "centre", 1.0)
    for x in (-4.0, 5.0):
        y = 2.4 + (x + 9) / 18 * 2.2
        s.anvil(x, y, 90, 2.2)
        s.anvil(x, -y, -90, 2.2)
    return "at two depths from the open end"


def _taper_balls(s: _Bench) -> str:
    s.fit(-9, -10, 9, 9)
    for side in (-1, 1):
        s.shape([(side * 2, -9), (side * 4.4, 5), (side * 8, 5), (side * 8, -9)], True)
    s.circle(0, -5.6, 2.5, "measured", "ground")
    s.circle(0, 1.8, 3.8, "measured", "ground")
    s.box(-6, 5, 6, 6.2, role="measured", fill="ground")
    return "two balls and a depth gauge"


# -- holes ----------------------------------------------------------------------


def _span(s: _Bench) -> str:
    s.fit(-11, -5, 11, 6)
    s.box(-10.5, -4, 10.5, 4)
    for x in (-5, 5):
        s.circle(x, 0, 2, "outline", "ground")
        s.line((x, -3), (x, 3), "centre", 1.0)
    s.over(-7, 7, 0, 5)
    return "outside to outside"


def _on_circle(s: _Bench) -> str:
    s.fit(-10, -10, 10, 10)
    s.circle(0, 0, 9, "outline", "panel")
    s.circle(0, 0, 6.2, "centre", "none", 1.0)
    points = _round(6.2, (90, 210, 330))
    for x, y in points:
        s.circle(x, y, 1.3, "outline", "ground")
    (ax, ay), (bx, by) = points[0], points[2]
    far = math.hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / far, (by - ay) / far
    s.line(
        (ax - 1.3 * ux, ay - 1.3 * uy), (bx + 1.3 * ux, by + 1.3 * uy), "measured", 2.6
    )
    return "two neighbours, outside to outside"


def _triangle(s: _Bench) -> str:
    s.fit(-10, -8, 10, 8)
    points = ((-7.0, -5.0), (6.0, -4.0), (0.0, 5.5))
    s.box(-10, -7.6, 10, 7.6)
    for i, (x, y) in enumerate(points):
        to = points[(i + 1) % 3]
        last = i == 2
        s.line((x, y), to, "measured" if last else "thin", 2.6 if last else 1.2)
    for i, (x, y) in enumerate(points):
        s.circle(x, y, 1.4, "outline", "ground")
        s.board.text(s.p(x, y), str(i + 1), 0.85 * s.size)
    return "each pair, outside to outside"


def _hole(s: _Bench) -> str:
    s.fit(-7, -6, 7, 6)
    s.box(-6.5, -5.5, 6.5, 5.5)
    s.circle(0, 0, 3, "outline", "ground")
    s.jaws(-3, 3, 0, outside=False)
    return "inside jaws"


def _screw_in(s: _Bench) -> str:
    s.fit(-8, -6, 8, 7)
    s.box(-7.5, -5.5, 7.5, 0, hatch=True)
    s.box(-2, -4, 2, 5.5)
    s.jaws(-2, 2, 3)
    return "over a screw in it"


def _rim(s: _Bench) -> str:
    s.fit(-9, -5, 9, 5)
    s.box(-8.5, -4.5, 8.5, 0, hatch=True)
    s.shape(_round(3.4, range(180, 361, 9)), fill="ground")
    s.over(-3.4, 3.4, 0, 3.6)
    return "across the rim"


def _ball_in(s: _Bench) -> str:
    s.fit(-9, -5, 9, 11)
    s.box(-8.5, -4.5, 8.5, 0, hatch=True)
    s.shape(_round(2.6, range(180, 361, 9)), fill="ground")
    s.circle(0, 0.6, 3, "measured", "ground")
    s.needle(0, 3.6)
    return "a ball in each, to compare"


# -- slots and flats --------------------------------------------------------------


def _slot(s: _Bench) -> str:
    s.fit(-8, -5, 8, 6)
    s.pit(3, -2, 7.5, 3, -4.5)
    for x in (-3.0, -1.0, 0.6):
        s.box(x, -1.8, x + (2.0 if x < 0.5 else 2.4), 5, role="measured", fill="ground")
    return "slips wrung together"


def _slot_inside(s: _Bench) -> str:
    s.fit(-8, -5, 8, 6)
    s.pit(3, -2, 7.5, 3, -4.5)
    s.box(-3, -0.4, 3, 1.2, role="measured", fill="ground")
    s.line((0, 1.2), (0, 6), "measured", 2.4)
    return "telescoping gauge, both ends"


def _tongue(s: _Bench) -> str:
    s.fit(-9, -6, 9, 6)
    s.shape(
        [(-7, -5), (7, -5), (7, -1), (3, -1), (3, 4), (-3, 4), (-3, -1), (-7, -1)], True
    )
    s.jaws(-3, 3, 2)
    return "across the flats"


def _key_slot(s: _Bench) -> str:
    s.fit(-8, -7, 8, 9)
    s.circle(0, 0, 6.5, "outline", "panel")
    s.box(-1.6, 3, 1.6, 6.6, fill="ground", role="outline")
    s.box(-1.5, 3.1, 1.5, 8.6, role="measured", fill="ground")
    return "slips, or a key that enters"


def _key_floor(s: _Bench) -> str:
    s.fit(-9, -9, 9, 9)
    s.circle(0, 0, 8.5, "outline", "panel")
    s.circle(0, 0, 5, "outline", "ground")
    s.box(-1.4, 0, 1.4, 6.6, fill="ground", role="none")
    s.line((-1.4, 4.8), (-1.4, 6.6))
    s.line((1.4, 4.8), (1.4, 6.6))
    s.line((-1.4, 6.6), (1.4, 6.6))
    s.line((0, -5), (0, 6.6), "measured", 2.6)
    return "far wall to the floor"


_TEE = (
    (-9, 4),
    (-2.4, 4),
    (-2.4, 0.5),
    (-5, 0.5),
    (-5, -3),
    (5, -3),
    (5, 0.5),
    (2.4, 0.5),
    (2.4, 4),
    (9, 4),
    (9, -5.5),
    (-9, -5.5),
)


def _tee(s: _Bench) -> None:
    s.fit(-9.4, -6, 9.4, 7)
    s.shape(_TEE, True)


def _tee_neck(s: _Bench) -> str:
    _tee(s)
    s.box(-2.4, 1, 2.4, 6, role="measured", fill="ground")
    return "slips in the neck"


def _tee_head(s: _Bench) -> str:
    _tee(s)
    s.line((-5, -1.2), (5, -1.2), "measured", 2.8)
    s.line((0, -1.2), (0, 6), "measured", 2.0)
    return "inside jaws under the lips"


def _tee_height(s: _Bench) -> str:
    _tee(s)
    s.line((3.8, -3), (3.8, 0.5), "measured", 2.8)
    return "floor to under the lip"


def _tee_lip(s: _Bench) -> str:
    _tee(s)
    s.line((0, 0.5), (0, 6), "measured", 2.4)
    s.line((0, 0.5), (3.4, 0.5), "measured", 2.4)
    s.line((-4, 4), (4, 4), "measured", 1.2)
    return "hooked rule under the lip"


def _pins_out(s: _Bench) -> str:
    s.fit(-11, -5, 11, 6)
    s.shape(
        [(-7, 5), (7, 5), (4.1, 0), (10, 0), (10, -4), (-10, -4), (-10, 0), (-4.1, 0)],
        True,
    )
    for side in (-1, 1):
        s.circle(side * 6.7, 1.5, 1.5, "measured", "ground")
    s.jaws(-8.2, 8.2, 1.5)
    return "over two equal pins"


def _pins_in(s: _Bench) -> str:
    s.fit(-11, -6, 11, 6)
    s.shape(
        [
            (-10, 5),
            (-4.6, 5),
            (-7.5, 0),
            (7.5, 0),
            (4.6, 5),
            (10, 5),
            (10, -5),
            (-10, -5),
        ],
        True,
    )
    for side in (-1, 1):
        s.circle(side * 4.9, 1.5, 1.5, "measured", "ground")
    s.box(-3.4, 0.7, 3.4, 2.3, role="measured", fill="ground")
    return "between two equal pins"


def _polygon(s: _Bench, sides: int) -> None:
    s.fit(-9, -9, 9, 9)
    turn = 180 / sides
    r = 5 / math.cos(math.radians(turn))
    s.shape(_round(r, [turn + 360 * i / sides for i in range(sides)]))
    flats = [360 / sides * i for i in range(sides // 2)]
    for a, (x, y) in zip(flats, _round(5, flats), strict=True):
        s.anvil(x, y, a + 180)
        s.anvil(-x, -y, a)


def _square(s: _Bench) -> str:
    _polygon(s, 4)
    return "both pairs"


def _hexagon(s: _Bench) -> str:
    _polygon(s, 6)
    return "all three pairs"


def _flat(s: _Bench) -> str:
    s.fit(-8, -9, 8, 9)
    s.shape(_round(6, range(130, 411, 5)))
    y = 6 * math.sin(math.radians(130))
    s.anvil(0, y, -90)
    s.anvil(0, -6, 90)
    return "flat to the far side"


# -- lengths ------------------------------------------------------------------------


def _height(s: _Bench) -> str:
    s.fit(-9, -1, 9, 15)
    s.box(-8.5, -0.9, 8.5, 0, hatch=True)
    s.circle(1, 9, 3, "outline", "panel")
    s.line((-3, 9), (5, 9), "centre", 1.0)
    s.line((-5, 0), (-5, 12), "measured", 2.4)
    s.line((-5, 12), (1.5, 12), "measured", 2.4)
    return "over a bar, half of it off"


def _throw(s: _Bench) -> str:
    s.fit(-9, -1, 9, 11)
    for end in _round(9, (60, 120)):
        s.line((0, 0), end, "outline", 4)
    s.circle(0, 0, 0.9, "outline", "panel")
    s.line((-4.5, 7.8), (4.5, 7.8), "measured", 2.6)
    return "stop to stop, straight across"


def _free(s: _Bench) -> str:
    s.fit(-9, -6, 9, 6)
    s.box(-8.5, -5.5, -3, 5.5, hatch=True)
    s.box(3.4, -5.5, 8.5, 5.5, hatch=True)
    s.box(-3, -2, 3.2, 2, role="measured", fill="ground")
    return "the largest piece that passes"


def _thick(s: _Bench) -> str:
    s.fit(-9, -6, 9, 6)
    s.box(-8, -2, 8, 2, hatch=True)
    for x in (-5.5, 0.0, 5.5):
        s.anvil(x, 2, -90)
        s.anvil(x, -2, 90)
    return "at three places"


SCENES: Mapping[str, tuple[Scene, ...]] = {
    "shaft": (_across, _both_ends),
    "bore": (_three_points, _telescope),
    "register": (_across,),
    "register-length": (_shoulder,),
    "recess": (_three_points, _telescope),
    "recess-depth": (_into_depth,),
    "shoulder": (_shoulder,),
    "nose-length": (_shoulder,),
    "depth": (_into_depth, _over_parallel),
    "body": (_across,),
    "thread-major": (_crests_out,),
    "thread-minor": (_crests_in,),
    "thread-pitch": (_gauge_leaf, _ten_crests),
    "taper-out": (_taper_two, _taper_rollers),
    "taper-in": (_taper_bore, _taper_balls),
    "taper-balls": (_taper_balls,),
    "arc": (_arc,),
    "bolt-circle": (_on_circle,),
    "bolt-span": (_on_circle,),
    "bolt-hole": (_screw_in, _hole),
    "hole": (_hole, _screw_in),
    "hole-span": (_span,),
    "hole-three": (_triangle,),
    "dowel": (_across, _both_ends),
    "slot": (_slot, _slot_inside),
    "tongue": (_tongue,),
    "key-width": (_key_slot,),
    "key-across": (_key_floor,),
    "tee-neck": (_tee_neck,),
    "tee-head": (_tee_head,),
    "tee-head-depth": (_tee_height,),
    "tee-lip": (_tee_lip,),
    "over-pins": (_pins_out,),
    "between-pins": (_pins_in,),
    "square": (_square,),
    "hexagon": (_hexagon,),
    "flats": (_tongue,),
    "flat": (_flat,),
    "groove": (_groove,),
    "groove-diameter": (_groove_floor,),
    "detent": (_rim, _ball_in),
    "ball": (_across,),
    "centre-height": (_height,),
    "runout": (_needle_round,),
    "reseat": (_needle_round,),
    "throw": (_throw,),
    "clearance": (_free,),
    "thickness": (_thick,),
    "width": (_thick,),
    "length": (_thick,),
}
