"""A solid seen from any side: its triangles into a shaded picture, by NumPy alone."""

import math

import numpy as np
from msgspec import Struct
from numpy.typing import NDArray

from machinon.core.piece.body import Body

Floats = NDArray[np.float64]
LIGHT = np.array([-0.35, 0.5, 0.8])  # from over the left shoulder of who looks
AMBIENT = 0.25
CREASE = 0.25  # how far two neighbouring normals differ at an edge that is drawn
MARGIN = 0.04  # of the picture left free on each side


class Mesh(Struct, frozen=True, eq=False):  # one of each: told by identity
    """A solid's triangles: corners (n, 3, 3), mm."""

    corners: Floats

    @property
    def normals(self) -> Floats:
        """Outward normals of the triangles, (n, 3)."""
        a, b, c = self.corners[:, 0], self.corners[:, 1], self.corners[:, 2]
        found = np.cross(b - a, c - a)
        long = np.linalg.norm(found, axis=1, keepdims=True)
        return np.asarray(found / np.maximum(long, 1e-12))


class Picture(Struct, frozen=True, eq=False):
    """The rendered view: bright (height, width), 0 to 1, nought where nothing is."""

    bright: Floats
    edges: NDArray[np.bool_]  # where a line is drawn
    there: NDArray[np.bool_]  # where the solid is


def mesh_of(body: Body) -> Mesh:
    """The triangles of a body, in the middle of its own space."""
    mesh = body.solid.to_mesh()
    points = np.asarray(mesh.vert_properties, dtype=np.float64)[:, :3]
    if len(points):
        points = points - (points.min(axis=0) + points.max(axis=0)) / 2
    if body.turns:
        points = points[:, [2, 0, 1]]  # its axis lies level
    return Mesh(points[np.asarray(mesh.tri_verts)])


def looked_at(turn: float, tilt: float) -> Floats:
    """Rotation from the solid's own axes to the picture's: right, up, and towards who
    looks.

    turn: round the upright axis, tilt: from above, degrees.
    """
    a, b = math.radians(turn), math.radians(tilt)
    right = (math.cos(a), math.sin(a), 0.0)
    near = (math.sin(a) * math.cos(b), -math.cos(a) * math.cos(b), math.sin(b))
    up = np.cross(near, right)
    return np.array([right, up, near])


def _faced(
    mesh: Mesh, turn: float, tilt: float, width: int, height: int
) -> tuple[Floats, Floats, float]:
    """The triangles that face who looks, in px with their depth in mm, their normals,
    and the scale, px a mm, which turning does not change."""
    axes = looked_at(turn, tilt)
    normals = mesh.normals @ axes.T
    front = normals[:, 2] > 0
    corners, normals = mesh.corners[front] @ axes.T, normals[front]
    points = mesh.corners.reshape(-1, 3)
    wide = float(np.hypot(points[:, 0], points[:, 1]).max()) or 1.0
    high = float(np.abs(points[:, 2]).max())
    angle = math.radians(tilt)
    tall = wide * abs(math.sin(angle)) + high * abs(math.cos(angle))
    scale = (0.5 - MARGIN) * min(width / wide, height / tall)
    corners[:, :, 0] = width / 2 + corners[:, :, 0] * scale
    corners[:, :, 1] = height / 2 - corners[:, :, 1] * scale
    return corners, normals, scale


def _lit(normals: Floats) -> Floats:
    """Brightness of faces, 0 to 1."""
    light = LIGHT / np.linalg.norm(LIGHT)
    return np.asarray(AMBIENT + (1 - AMBIENT) * np.clip(normals @ light, 0, 1))


def faces_of(
    mesh: Mesh, turn: float, tilt: float, width: int, height: int
) -> tuple[Floats, Floats]:
    """Its faces from the furthest to the nearest: corners (n, 3, 2) in px, and how
    bright each is. Faces that cut each other's depth may hide what they should not."""
    corners, normals, _ = _faced(mesh, turn, tilt, width, height)
    order = np.argsort(corners[:, :, 2].mean(axis=1))
    return corners[order][:, :, :2], _lit(normals)[order]


def picture_of(
    mesh: Mesh, turn: float, tilt: float, width: int, height: int
) -> Picture:
    """The solid as it is seen, as large as the picture lets it be, px."""
    corners, normals, scale = _faced(mesh, turn, tilt, width, height)
    depth = np.full((height, width), -np.inf)
    which = np.full((height, width), -1)
    for i, (x, y, z) in enumerate(corners.transpose(0, 2, 1)):
        _fill(x, y, z, depth, which, i)
    there = which >= 0
    bright = np.where(there, _lit(normals)[which], 0.0)
    return Picture(bright, _edges(normals, which, depth, there, scale), there)


def _fill(
    x: Floats,
    y: Floats,
    z: Floats,
    depth: Floats,
    which: NDArray[np.int64],
    index: int,
) -> None:
    """One triangle into the picture, where it is nearest."""
    height, width = depth.shape
    left, right = max(math.ceil(x.min() - 0.5), 0), min(int(x.max() + 0.5), width)
    top, foot = max(math.ceil(y.min() - 0.5), 0), min(int(y.max() + 0.5), height)
    if left >= right or top >= foot:
        return
    area = (x[1] - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (y[1] - y[0])
    if abs(area) < 1e-9:
        return
    px = np.arange(left, right) + 0.5
    py = (np.arange(top, foot) + 0.5)[:, None]
    b = ((px - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (py - y[0])) / area
    c = ((x[1] - x[0]) * (py - y[0]) - (px - x[0]) * (y[1] - y[0])) / area
    at = z[0] + b * (z[1] - z[0]) + c * (z[2] - z[0])
    near = depth[top:foot, left:right]
    over = (b >= -1e-9) & (c >= -1e-9) & (b + c <= 1 + 1e-9) & (at > near)
    near[over] = at[over]
    which[top:foot, left:right][over] = index


def _edges(
    normals: Floats,
    which: NDArray[np.int64],
    depth: Floats,
    there: NDArray[np.bool_],
    scale: float,
) -> NDArray[np.bool_]:
    """The edges: faces that meet at an angle, or one that stands before another."""
    facing = np.where(there[:, :, None], normals[which], 0.0)
    level = np.where(there, depth, 0.0)
    found = np.zeros_like(there)
    for axis in (0, 1):
        turned = np.abs(np.diff(facing, axis=axis)).sum(axis=2) > CREASE
        step = np.abs(np.diff(level, axis=axis)) > 6 / scale
        rim = np.diff(there, axis=axis)
        later = found[1:] if axis == 0 else found[:, 1:]
        later |= turned | step | rim
    return found
