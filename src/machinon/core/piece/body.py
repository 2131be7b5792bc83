"""A body: the stock less its cuts, at any point of the route.

Regions are cut with shapely, imported when the first body is built.
"""

import functools
import math
from collections.abc import Collection, Iterable, Mapping
from typing import TYPE_CHECKING, Any

from msgspec import Struct

from machinon.core.piece.feature import Face, Feature
from machinon.core.piece.shadow import Shadow, shadow_of
from machinon.core.piece.solid_cuts import Cut, Point, Turned
from machinon.core.piece.solids import solid_of
from machinon.core.piece.stock import Bar, Block, Round, Stock

if TYPE_CHECKING:
    from manifold3d import Manifold
    from shapely import Polygon
    from shapely.geometry.base import BaseGeometry


class Body(Struct, frozen=True, dict=True):
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
            name: face
            for feature in self.features
            for name, face in feature.faces().items()
        }

    def feature(self, name: str) -> Feature:
        return next(feature for feature in self.features if feature.name == name)

    def found(self, name: str) -> Feature | None:
        """The feature of a name; None where there is none."""
        return next(
            (feature for feature in self.features if feature.name == name), None
        )

    def face(self, name: str) -> Face | None:
        """A face of the body; None where the body as it stands has none so called."""
        return self.faces.get(name)

    def after(
        self,
        done: Iterable[tuple[str, float]],
        bare: Collection[str] = (),
        passed: Iterable[Feature] = (),
    ) -> "Body":
        """The shape in process: only these cuts done, each with the metal it leaves.

        bare: holes that are drilled only, not yet tapped, counterbored or sunk; passed:
        what the tool took off on its way, which later cuts go beyond.
        """
        left = dict(done)
        standing = []
        for feature in self.features:
            if feature.name in left:
                cut = feature.as_drilled() if feature.name in bare else feature
                standing.append(
                    cut.leaving(left[feature.name]) if left[feature.name] else cut
                )
        return Body(self.stock, (*standing, *passed))

    @functools.cached_property
    def cuts(self) -> tuple[Cut, ...]:
        return tuple(cut for feature in self.features for cut in cuts_of(feature))

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
        low, _, high, _ = self._bounds
        return low, high

    @functools.cached_property
    def _bounds(self) -> tuple[float, float, float, float]:
        """First station and least radius of what turns, last station and largest
        radius; all 0 where nothing is left of it."""
        if self.region.is_empty:
            return 0.0, 0.0, 0.0, 0.0
        low, inner, high, outer = map(float, self.region.bounds)
        return low, inner, high, outer

    @functools.cached_property
    def largest(self) -> float:
        """Largest diameter of what turns."""
        return 2 * self._bounds[3]

    @functools.cached_property
    def hollow(self) -> float:
        """Narrowest diameter of what is bored right through; 0 where nothing is."""
        return 2 * self._bounds[1]

    @functools.cached_property
    def turned_volume(self) -> float:
        """Volume of the turned body, its cross holes left out; Pappus, mm³."""
        region = self.region
        if region.is_empty:
            return 0.0
        return float(2 * math.pi * region.centroid.y * region.area)

    def radii(self, z: float) -> tuple[float, float]:
        """Inner and outer radius at a station; both 0 where there is no metal."""
        met: list[float] = []
        for (az, ar), (bz, br) in self.edges:
            if az == bz == z:  # square to the axis: met in both its ends
                met += ar, br
            elif az <= z <= bz or bz <= z <= az:
                met.append(ar + (br - ar) * (z - az) / (bz - az))
        return min(met, default=0.0), max(met, default=0.0)

    def radii_at(self, stations: Iterable[float]) -> list[tuple[float, float]]:
        """Inner and outer radius at each station; both 0 where there is no metal."""
        return list(map(self.radii, stations))

    @functools.cached_property
    def edges(self) -> list[tuple[Point, Point]]:
        """The edges of the half section, (z, r) to (z, r)."""
        return [
            edge
            for ring in self.rings()
            for edge in zip(ring, [*ring[1:], ring[0]], strict=True)
        ]

    # -- solids ------------------------------------------------------------

    @property
    def solid(self) -> "Manifold":
        """The body as a closed solid, made anew each time: one that is kept would
        outlive the program's end."""
        return solid_of(self.stock, self.cuts, self.rings() if self.turns else ())

    @functools.cached_property
    def shadow(self) -> Shadow:
        """The outlines of a block from three sides, and its size."""
        assert isinstance(self.stock, Block)
        return shadow_of(self.stock, self.cuts)

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
    from shapely import box, union_all

    whole = box(stock.start, stock.bore / 2, stock.end, stock.widest / 2)
    taken = map(_outline, cuts)
    return whole.difference(
        union_all([section for section in taken if section.area > 1e-12])
    )


# kept, as cuts are: the shapes in process share most, and an edit leaves most as they
# were
@functools.lru_cache(maxsize=1024)
def _outline(cut: Turned) -> "Polygon":
    """The half section of what a cut takes, (z, r)."""
    from shapely import Polygon

    return Polygon(cut.section)


@functools.lru_cache(maxsize=1024)
def cuts_of(feature: Feature) -> tuple[Cut, ...]:
    """The cuts of a feature."""
    return feature.cuts()
