"""A body: the stock less its cuts, at any point of the route.

Regions are cut with shapely, solids with manifold3d, both imported when the first
body is built.
"""

import functools
import math
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, TypeAlias

import msgspec

from machinon.core.piece.features import Face, Feature
from machinon.core.piece.solid_cuts import Cut, Drilled, Frame, Point, Sunk, Turned

if TYPE_CHECKING:
    import numpy as np
    from manifold3d import CrossSection, Manifold
    from numpy.typing import NDArray
    from shapely.geometry.base import BaseGeometry

SEGMENTS = 120  # sides of a circle in a solid
DEEP = 5_000.0  # mm: a cut from far outside starts here in a solid


class Round(msgspec.Struct, frozen=True, tag="round"):
    """Round bar or tube along z; mm."""

    diameter: float
    start: float
    end: float
    bore: float = 0.0

    @property
    def says(self) -> str:
        tube = f" × {self.bore:g} bore" if self.bore else ""
        return f"⌀{self.diameter:g}{tube} × {self.end - self.start:g}"


class Bar(msgspec.Struct, frozen=True, tag="bar"):
    """Square or hexagon bar along z; across its flats, mm."""

    sides: int
    across: float
    start: float
    end: float

    @property
    def says(self) -> str:
        shape = {4: "square", 6: "hexagon"}.get(self.sides, f"{self.sides} sides")
        return f"{shape} {self.across:g} × {self.end - self.start:g}"

    @property
    def corners(self) -> float:
        """Diameter over its corners."""
        return self.across / math.cos(math.pi / self.sides)


class Block(msgspec.Struct, frozen=True, tag="block"):
    """A sawn block, from one corner to the opposite one; mm."""

    low: tuple[float, float, float]
    high: tuple[float, float, float]

    @property
    def size(self) -> tuple[float, float, float]:
        a, b, c = (h - w for w, h in zip(self.low, self.high, strict=True))
        return a, b, c

    @property
    def says(self) -> str:
        return " × ".join(f"{one:g}" for one in self.size)


Stock: TypeAlias = Round | Bar | Block


@dataclass(frozen=True)
class Body:
    """Stock and features, in the order in which a drawing would name them."""

    stock: Stock
    features: tuple[Feature, ...]

    @property
    def turns(self) -> bool:
        """Whether it turns round an axis; else it is a block."""
        return not isinstance(self.stock, Block)

    @functools.cached_property
    def faces(self) -> Mapping[str, Face]:
        """Every face that its features leave, by name."""
        return {
            name: face for one in self.features for name, face in one.faces().items()
        }

    def feature(self, name: str) -> Feature:
        return next(one for one in self.features if one.name == name)

    def face(self, name: str) -> Face | None:
        """Where a face lies; None where the body as it stands has none so called."""
        return self.faces.get(name)

    def after(
        self, done: Iterable[tuple[str, float]], bare: Collection[str] = ()
    ) -> "Body":
        """The shape in process: only these cuts done, each with the metal it leaves.

        bare: holes that are drilled only, not yet tapped, counterbored or sunk.
        """
        left = dict(done)
        standing = []
        for one in self.features:
            if one.name in left:
                cut = one.as_drilled() if one.name in bare else one
                standing.append(cut.leaving(left[one.name]) if left[one.name] else cut)
        return Body(self.stock, tuple(standing))

    @functools.cached_property
    def cuts(self) -> tuple[Cut, ...]:
        return tuple(cut for one in self.features for cut in _cuts_of(one))

    # -- what turns --------------------------------------------------------

    @functools.cached_property
    def region(self) -> "BaseGeometry":
        """The half section of what turns, (z, r); a block has none."""
        assert not isinstance(self.stock, Block)
        return _cut_round(
            self.stock, tuple(cut for cut in self.cuts if isinstance(cut, Turned))
        )

    def rings(self) -> list[list[Point]]:
        """The half section as closed outlines of (z, r), the largest first."""
        return self._rings

    @functools.cached_property
    def _rings(self) -> list[list[Point]]:
        region = self.region
        parts: list[Any] = list(getattr(region, "geoms", [region]))
        parts = [part for part in parts if not part.is_empty and part.area > 1e-9]
        parts.sort(key=lambda part: -part.area)
        return [
            [(float(z), float(r)) for z, r in part.exterior.coords[:-1]]
            for part in parts
        ]

    @functools.cached_property
    def ends(self) -> tuple[float, float]:
        """First and last station of what turns."""
        low, _, high, _ = self.region.bounds
        return float(low), float(high)

    @functools.cached_property
    def largest(self) -> float:
        """Largest diameter of what turns."""
        return 2 * float(self.region.bounds[3])

    @functools.cached_property
    def turned_volume(self) -> float:
        """Of what turns, its cross holes left out; Pappus, mm³."""
        region = self.region
        if region.is_empty:
            return 0.0
        return float(2 * math.pi * region.centroid.y * region.area)

    def radii(self, z: float) -> tuple[float, float]:
        """Inner and outer radius at a station; both 0 where there is no metal."""
        return self.radii_at((z,))[0]

    def radii_at(self, stations: Sequence[float]) -> list[tuple[float, float]]:
        """Inner and outer radius at each station; both 0 where there is no metal."""
        import numpy as np

        z = np.asarray(stations, dtype=float)[:, None]
        az, ar, bz, br = self._edges
        along = np.where(bz == az, 1.0, bz - az)
        there = (np.minimum(az, bz) <= z) & (z <= np.maximum(az, bz))
        # an edge square to the axis is met in both its ends
        first = np.where(bz == az, ar, ar + (br - ar) * (z - az) / along)
        last = np.where(bz == az, br, first)
        low = np.where(there, np.minimum(first, last), np.inf).min(axis=1)
        high = np.where(there, np.maximum(first, last), 0.0).max(axis=1)
        low[~there.any(axis=1)] = 0.0
        return list(zip(low.tolist(), high.tolist(), strict=True))

    @functools.cached_property
    def _edges(self) -> "NDArray[np.float64]":
        """The edges of the half section: z and r of their starts, and of their ends."""
        import numpy as np

        return (
            np.array(
                [
                    (*a, *b)
                    for ring in self.rings()
                    for a, b in zip(ring, [*ring[1:], ring[0]], strict=True)
                ],
                dtype=float,
            )
            .reshape(-1, 4)
            .T
        )

    # -- solids ------------------------------------------------------------

    @property
    def solid(self) -> "Manifold":
        """The body as a closed solid, made anew each time: one that is kept would
        outlive the program's end."""
        return self._less(self.cuts)

    def _less(self, cuts: Collection[Cut]) -> "Manifold":
        """The stock less some of the cuts."""
        from manifold3d import Manifold, OpType

        sunk = [cut for cut in cuts if isinstance(cut, Sunk)]
        if isinstance(self.stock, Block):
            block, sunk = _faced(self.stock, sunk)
            made, sunk = _cut_through(block, sunk)
        elif isinstance(self.stock, Round):
            made = self._turned_solid()
        else:
            made = self._stock_solid() ^ self._turned_solid()
        for cut in sunk:
            made = made - _sunk(cut)
            made.num_tri()  # worked out one by one: few and small, twice as quick
        tools = [_drilled(cut) for cut in cuts if isinstance(cut, Drilled)]
        return Manifold.batch_boolean([made, *tools], OpType.Subtract)

    def _stock_solid(self) -> "Manifold":
        from manifold3d import CrossSection, Manifold

        stock = self.stock
        if isinstance(stock, Block):
            return Manifold.cube(stock.size).translate(stock.low)
        if isinstance(stock, Round):
            return Manifold()
        turn = math.pi / stock.sides
        radius = stock.corners / 2
        points = [
            (
                radius * math.cos(turn * (2 * i + 1)),
                radius * math.sin(turn * (2 * i + 1)),
            )
            for i in range(stock.sides)
        ]
        bar = Manifold.extrude(CrossSection([points]), stock.end - stock.start)
        return bar.translate((0, 0, stock.start))

    def _turned_solid(self) -> "Manifold":
        from manifold3d import CrossSection, FillRule, Manifold

        # an equal area keeps volumes true where a circle has many sides
        wide = _even_area(SEGMENTS)
        outlines = [[(r * wide, z) for z, r in ring] for ring in self.rings()]
        section = CrossSection(outlines, FillRule.EvenOdd)
        # revolved about y, which becomes z
        return Manifold.revolve(section, SEGMENTS)

    @functools.cached_property
    def shadow(self) -> "Shadow":
        """What a block looks like from three sides, and how large it is.

        A hole changes what is seen of the outside only along its own axis, and is taken
        out of that view alone: it need not be cut in the solid to be drawn.
        """
        assert isinstance(self.stock, Block)
        return _shadow(self.stock, self.cuts)

    @functools.cached_property
    def volume(self) -> float:
        """mm³."""
        return float(self.solid.volume())

    @functools.cached_property
    def stock_volume(self) -> float:
        """mm³."""
        return Body(self.stock, ()).volume


# a piece is worked out at each step of its route, over and over while it is edited
@functools.lru_cache(maxsize=512)
def _cut_round(stock: Round | Bar, cuts: tuple[Turned, ...]) -> "BaseGeometry":
    """The half section of bar or tube after turning, (z, r)."""
    from shapely import Polygon, box, union_all

    inner = stock.bore / 2 if isinstance(stock, Round) else 0.0
    wide = stock.diameter if isinstance(stock, Round) else stock.corners
    whole = box(stock.start, inner, stock.end, wide / 2)
    taken = [Polygon(cut.section) for cut in cuts]
    return whole.difference(union_all([one for one in taken if one.area > 1e-12]))


# which axes a view shows, across and up, and the one it looks along
VIEWS = {"top": (0, 1, 2), "front": (0, 2, 1), "right": (1, 2, 0)}


@dataclass(frozen=True, slots=True)
class Shadow:
    """A solid as it is seen; mm.

    box: lowest and highest x, y, z; outlines: by view, closed rings of (across, up), an
    opening the other way round.
    """

    box: tuple[float, ...]
    outlines: Mapping[str, "Rings"]


Rings = tuple[tuple[Point, ...], ...]


# the shapes in process share most of their cuts, and an edit leaves most as they were
@functools.lru_cache(maxsize=1024)
def _cuts_of(feature: Feature) -> tuple[Cut, ...]:
    return feature.cuts()


@functools.lru_cache(maxsize=128)
def _shadow(stock: Block, cuts: tuple[Cut, ...]) -> "Shadow":
    from manifold3d import CrossSection, FillRule, OpType

    sunk = tuple(cut for cut in cuts if isinstance(cut, Sunk))
    box, plain = _milled(stock, sunk)
    outlines = {}
    for view, rings in plain.items():
        found = [_open(cut, view, box) for cut in cuts if isinstance(cut, Drilled)]
        holes = [hole for hole in found if hole]
        if holes:
            seen = CrossSection(rings, FillRule.Positive)
            seen = CrossSection.batch_boolean([seen, *holes], OpType.Subtract)
            rings = _polygons(seen)
        outlines[view] = rings
    return Shadow(box, outlines)


@functools.lru_cache(maxsize=128)
def _milled(
    stock: Block, cuts: tuple[Sunk, ...]
) -> tuple[tuple[float, ...], dict[str, Rings]]:
    """The box of a block less what was sunk, and its outline in each view. Steps that
    drill and tap leave both as they are."""
    solid = Body(stock, ())._less(cuts)
    box = tuple(float(one) for one in solid.bounding_box())
    views = {view: solid.transform(_looking(view)).project() for view in VIEWS}
    return box, {view: _polygons(seen) for view, seen in views.items()}


def _faced(stock: Block, cuts: Sequence[Sunk]) -> tuple[Block, list[Sunk]]:
    """The block after those cuts that take a whole side of it off, and the others."""
    low, high = list(stock.low), list(stock.high)
    others = []
    for cut in cuts:
        if len(cut.outline) != 4:
            others.append(cut)
            continue
        ends = [
            cut.frame.at(u, v, d) for u, v in cut.outline for d in (cut.top, cut.bottom)
        ]
        first, last = (
            [side(one) for one in zip(*ends, strict=True)] for side in (min, max)
        )
        square = all(
            point[i] in (first[i], last[i]) for point in ends for i in range(3)
        )
        over = [first[i] <= low[i] and last[i] >= high[i] for i in range(3)]
        if not square or over.count(True) != 2:
            others.append(cut)
            continue
        axis = over.index(False)
        if first[axis] <= low[axis] < last[axis]:
            low[axis] = last[axis]
        elif first[axis] < high[axis] <= last[axis]:
            high[axis] = first[axis]
        elif low[axis] < last[axis] and first[axis] < high[axis]:
            others.append(cut)  # in two
    (x0, y0, z0), (x1, y1, z1) = low, high
    return Block((x0, y0, z0), (x1, y1, z1)), others


def _cut_through(block: Block, cuts: Sequence[Sunk]) -> tuple["Manifold", list[Sunk]]:
    """The block after those cuts that go right down through it, and the others.

    They are cut as outlines seen from above, which is ten times as quick as in solids.
    """
    from manifold3d import CrossSection, FillRule, Manifold, OpType

    (x0, y0, z0), (x1, y1, z1) = block.low, block.high
    through, others = [], []
    for cut in cuts:
        ends = sorted(cut.frame.at(0, 0, d)[2] for d in (cut.top, cut.bottom))
        upright = abs(cut.frame.into[2]) > 0.5
        if not (upright and ends[0] <= z0 and ends[1] >= z1):
            others.append(cut)
            continue
        outline = [cut.frame.at(u, v)[:2] for u, v in cut.outline]
        section = CrossSection([outline], FillRule.NonZero)
        if section.area() <= 0:
            section = CrossSection([outline[::-1]], FillRule.NonZero)
        through.append(section)
    if not through:
        return Body(block, ())._stock_solid(), others
    seen = CrossSection([[(x0, y0), (x1, y0), (x1, y1), (x0, y1)]])
    seen = CrossSection.batch_boolean([seen, *through], OpType.Subtract)
    return Manifold.extrude(seen, z1 - z0).translate((0, 0, z0)), others


def _polygons(section: "CrossSection") -> Rings:
    return tuple(
        tuple((float(x), float(y)) for x, y in ring) for ring in section.to_polygons()
    )


def _open(cut: Drilled, view: str, box: tuple[float, ...]) -> "CrossSection | None":
    """The opening that a hole leaves in the view along it; None unless it goes
    through."""
    from manifold3d import CrossSection

    across, up, along = VIEWS[view]
    out = cut.frame.into[along]
    last = max(depth for depth, _ in cut.profile)
    end = cut.frame.at(*cut.at, last)
    past = end[along] >= box[along + 3] if out > 0 else end[along] <= box[along]
    if cut.tilt or abs(out) < 0.5 or not past:
        return None
    radius = min(radius for _, radius in cut.profile if radius > 0)
    return CrossSection.circle(radius, 48).translate((end[across], end[up]))


def _looking(view: str) -> list[list[float]]:
    """What turns a solid so that a view is seen from above."""
    rows = [[1.0 if i == axis else 0.0 for i in range(4)] for axis in VIEWS[view]]
    if view == "front":  # keeps the hand of the space
        rows[2] = [-value for value in rows[2]]
    return rows


def _even_area(sides: int) -> float:
    """By how much a polygon's corners stand out for the area of its circle."""
    turn = 2 * math.pi / sides
    return math.sqrt(turn / math.sin(turn))


def _placed(made: "Manifold", frame: Frame, at: Point = (0.0, 0.0)) -> "Manifold":
    """A solid along +z moved into a frame, its z into the metal."""
    x, y, z = frame.at(*at)
    columns = (frame.u, frame.v, frame.into)
    matrix = [[columns[j][i] for j in range(3)] + [(x, y, z)[i]] for i in range(3)]
    u, v, n = columns
    turned = (
        u[0] * (v[1] * n[2] - v[2] * n[1])
        - u[1] * (v[0] * n[2] - v[2] * n[0])
        + u[2] * (v[0] * n[1] - v[1] * n[0])
    )
    if turned < 0:  # a frame seen from outside is left-handed
        made = made.mirror((0, 1, 0))
        matrix = [
            [columns[0][i], -columns[1][i], columns[2][i], (x, y, z)[i]]
            for i in range(3)
        ]
    return made.transform(matrix)


def _sunk(cut: Sunk) -> "Manifold":
    from manifold3d import CrossSection, FillRule, Manifold

    top, bottom = max(cut.top, -DEEP), min(cut.bottom, DEEP)
    outline = [
        (max(min(u, DEEP), -DEEP), max(min(v, DEEP), -DEEP)) for u, v in cut.outline
    ]
    section = CrossSection([outline], FillRule.NonZero)
    if section.area() <= 0:
        section = CrossSection([outline[::-1]], FillRule.NonZero)
    return _placed(
        Manifold.extrude(section, bottom - top).translate((0, 0, top)), cut.frame
    )


def _drilled(cut: Drilled) -> "Manifold":
    from manifold3d import CrossSection, FillRule, Manifold

    sides = 48
    wide = _even_area(sides)
    points = [(0.0, cut.profile[0][0])]
    points += [(radius * wide, depth) for depth, radius in cut.profile]
    if points[-1][0] > 0:
        points.append((0.0, cut.profile[-1][0]))
    section = CrossSection([points], FillRule.NonZero)
    if section.area() <= 0:
        section = CrossSection([points[::-1]], FillRule.NonZero)
    made = Manifold.revolve(section, sides)
    if cut.tilt:
        made = made.rotate((0, cut.tilt, 0))
    return _placed(made, cut.frame, cut.at)
