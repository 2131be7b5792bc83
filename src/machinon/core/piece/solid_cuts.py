"""The geometry of cuts: turned, sunk from a face, or drilled.

All bodies stand in one space, mm: what turns has its axis along z and grows to the
right with it; a block lies with its length along x, its width along y and its height
along z, one corner at the origin. Angles are degrees, counter-clockwise from x.
"""

import functools
import math
from collections.abc import Sequence

from msgspec import Struct

Point = tuple[float, float]
Vector = tuple[float, float, float]
FAR = 10_000.0  # mm: beyond every body


class Frame(Struct, frozen=True):
    """A plane of the body. u and v lie in it, `into` points into the metal."""

    origin: Vector
    u: Vector
    v: Vector
    into: Vector

    def at(self, u: float, v: float, depth: float = 0.0) -> Vector:
        """A place of the plane in the body's space."""
        # written out: asked thousands of times for one drawing
        (x, y, z), (ux, uy, uz), (vx, vy, vz) = self.origin, self.u, self.v
        nx, ny, nz = self.into
        return (
            x + u * ux + v * vx + depth * nx,
            y + u * uy + v * vy + depth * ny,
            z + u * uz + v * vz + depth * nz,
        )

    @property
    def square(self) -> bool:
        """Whether it stands square to the body's space."""
        return all(axis.count(0) == 2 for axis in (self.u, self.v, self.into))

    def leant(self, at: Point, lean: float, towards: float) -> "Frame":
        """The plane through a place of this one of which `into` leans by some degrees,
        towards an angle of this plane; its u lies that way."""
        cos, sin = math.cos(math.radians(towards)), math.sin(math.radians(towards))
        along, off = math.cos(math.radians(lean)), math.sin(math.radians(lean))
        (ux, uy, uz), (vx, vy, vz) = self.u, self.v
        nx, ny, nz = self.into
        wx, wy, wz = cos * ux + sin * vx, cos * uy + sin * vy, cos * uz + sin * vz
        return Frame(
            self.at(*at),
            (along * wx - off * nx, along * wy - off * ny, along * wz - off * nz),
            (cos * vx - sin * ux, cos * vy - sin * uy, cos * vz - sin * uz),
            (along * nx + off * wx, along * ny + off * wy, along * nz + off * wz),
        )


class Turned(Struct, frozen=True):
    """A ring taken off in the lathe: its section, (z, r) with r from the axis."""

    section: tuple[Point, ...]


class Sunk(Struct, frozen=True):
    """A prism: its outline in the plane, taken from `top` to `bottom` below it."""

    frame: Frame
    outline: tuple[Point, ...]
    top: float
    bottom: float

    @property
    def is_box(self) -> bool:
        """Whether it is a plain box that stands square to the body."""
        left, low, right, high = extent(self.outline)
        corners = set(rectangle(left, low, right, high))
        plain = len(self.outline) == 4 and set(self.outline) == corners
        return plain and self.frame.square

    def span(self, top: float = -FAR) -> tuple[Vector, Vector]:
        """Its lowest and highest x, y and z; top: no more of it than from there."""
        at, top = self.frame.at, max(self.top, top)
        if self.frame.square:
            # each axis goes along one of the frame's: two corners have all its ends
            left, low, right, high = extent(self.outline)
            ends = [at(left, low, top), at(right, high, self.bottom)]
        else:
            ends = [at(u, v, d) for u, v in self.outline for d in (top, self.bottom)]
        (x0, x1), (y0, y1), (z0, z1) = (
            (min(axis), max(axis)) for axis in zip(*ends, strict=True)
        )
        return (x0, y0, z0), (x1, y1, z1)


class Drilled(Struct, frozen=True):
    """A hole: where it stands in the plane, and its profile as (depth, radius)."""

    frame: Frame
    at: Point
    profile: tuple[Point, ...]

    @property
    def in_metal(self) -> tuple[Point, ...]:
        """Its profile from the face down."""
        (above, first), (below, second), *_ = self.profile
        mouth = first + (second - first) * above / (above - below)
        return ((0.0, mouth), *self.profile[1:])


Cut = Turned | Sunk | Drilled


def ring(start: float, end: float, inner: float, outer: float = FAR) -> Turned:
    """A plain ring between two stations and two radii."""
    return Turned(((start, inner), (end, inner), (end, outer), (start, outer)))


def rectangle(left: float, low: float, right: float, high: float) -> tuple[Point, ...]:
    return (left, low), (right, low), (right, high), (left, high)


def arc(
    centre: Point, radius: float, start: float, end: float, steps: int = 0
) -> list[Point]:
    """Points along an arc, degrees; its chords leave it by under 2 µm in 10 mm."""
    x, y = centre
    turns = _turns(start, end, steps or max(int(abs(end - start) / 3), 2))
    return [(x + radius * cos, y + radius * sin) for cos, sin in turns]


@functools.lru_cache(maxsize=256)
def _turns(start: float, end: float, steps: int) -> tuple[Point, ...]:
    """Cosine and sine at even steps from one angle to another, degrees."""
    angles = (start + (end - start) * i / steps for i in range(steps + 1))
    return tuple((math.cos(a), math.sin(a)) for a in map(math.radians, angles))


def long_hole(a: Point, b: Point, width: float) -> tuple[Point, ...]:
    """The outline of a slot with round ends, from centre to centre."""
    along = math.degrees(math.atan2(b[1] - a[1], b[0] - a[0]))
    half = width / 2
    return (
        *arc(b, half, along - 90, along + 90),
        *arc(a, half, along + 90, along + 270),
    )


def end_of(z: float, from_left: bool) -> Frame:
    """The end face of a turned piece. Seen from outside, u is to the right on both."""
    if from_left:
        return Frame((0, 0, z), (1, 0, 0), (0, 1, 0), (0, 0, 1))
    return Frame((0, 0, z), (1, 0, 0), (0, 1, 0), (0, 0, -1))


@functools.lru_cache(maxsize=256)
def block_face(name: str, length: float, width: float, height: float) -> Frame:
    """A face of a block, seen square on: u to the right, v up, from its low corner.

    Top and bottom keep x and y; front and back x and z; left and right y and z.
    """
    return {
        "top": Frame((0, 0, height), (1, 0, 0), (0, 1, 0), (0, 0, -1)),
        "bottom": Frame((0, 0, 0), (1, 0, 0), (0, 1, 0), (0, 0, 1)),
        "front": Frame((0, 0, 0), (1, 0, 0), (0, 0, 1), (0, 1, 0)),
        "back": Frame((0, width, 0), (1, 0, 0), (0, 0, 1), (0, -1, 0)),
        "left": Frame((0, 0, 0), (0, 1, 0), (0, 0, 1), (1, 0, 0)),
        "right": Frame((length, 0, 0), (0, 1, 0), (0, 0, 1), (-1, 0, 0)),
    }[name]


def across_axis(z: float, angle: float, radius: float) -> Frame:
    """A plane that touches a turned piece at an angle: u along the axis."""
    turn = math.radians(angle)
    out = (math.cos(turn), math.sin(turn), 0.0)
    return Frame(
        (radius * out[0], radius * out[1], z),
        (0, 0, 1),
        (-out[1], out[0], 0.0),
        (-out[0], -out[1], 0.0),
    )


def extent(points: Sequence[Point]) -> tuple[float, float, float, float]:
    """Left, low, right, high."""
    xs, ys = zip(*points, strict=True)
    return min(xs), min(ys), max(xs), max(ys)
