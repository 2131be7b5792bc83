"""The screws that go with what is made, as they are seen in the stack."""

import math
from collections.abc import Iterator

from msgspec.structs import replace

from machinon.core.piece.body import Body
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.solid_cuts import rectangle
from machinon.core.piece.turned_features import NutThread
from machinon.core.threads.screws import CapScrew, cap_screws
from machinon.draw.drawing import Board, Place, Point, Shape
from machinon.draw.half_section import turned_in

# a cylinder on the page's plane: from where to where its axis goes, and its width
Cylinder = tuple[Point, Point, float]


def draw_screws(board: Board, made: Made, place: Place) -> None:
    """The screws that hold it: the head on its seat, the shank into what it is screwed
    to; of those in one end of what turns, one. place: from (z, r) of what turns, from
    (x, z) of a block seen from the front."""
    body = made.body
    shown = turned_in(body) if body.turns else body.features
    for hardware in made.hardware:
        if not hardware.at or not hardware.length:
            continue
        head = cap_screws().get(hardware.thread) if hardware.kind == "screw" else None
        for feature in body.features:
            # some that are alike are numbered
            if hardware.at not in (feature.name, feature.name.rstrip("0123456789")):
                continue
            if isinstance(feature, Holes) and feature not in shown:
                continue
            for a, b, wide in _screws_in(feature, hardware, body, head):
                _draw_cylinder(board, a, b, wide, place)


def _screws_in(
    feature: Feature, hardware: Hardware, body: Body, head: CapScrew | None
) -> Iterator[Cylinder]:
    """The screws in a feature, of each first its head, where it has one."""
    if isinstance(feature, CrossHoles):
        # its tip at the end of the thread, or on what lies in a hole that it meets
        met = (
            other.hole.diameter / 2
            for other in body.features
            if isinstance(other, CrossHoles)
            and other is not feature
            and other.z == feature.z
        )
        end = feature.diameter / 2 - feature.hole.threaded(feature.through)
        tip = max(end, *met, 0.0)
        yield (feature.z, tip), (feature.z, tip + hardware.length), hardware.size
    elif isinstance(feature, NutThread):
        first, last = body.ends
        if feature.start - first < last - feature.end:
            seat, into = (feature.start, 0.0), (1.0, 0.0)
        else:
            seat, into = (feature.end, 0.0), (-1.0, 0.0)
        yield from _with_head(
            seat, into, hardware, head, hardware.asked.get("grip", 0.0)
        )
    elif isinstance(feature, Holes):
        hole = feature.hole
        # the head of one in a tapped hole stands on what it holds there
        grip = hardware.asked.get("grip", 0.0) if hole.thread else -hole.bore_depth
        if feature.block is None:
            into = (1.0 if feature.face == "left" else -1.0, 0.0)
            seat = feature.level, math.hypot(*feature.points[0])
            yield from _with_head(seat, into, hardware, head, grip)
        elif feature.face in ("top", "bottom") and hole.bore_depth:
            up, high = feature.face == "top", feature.block[2] - feature.sunk
            into = (0.0, -1.0 if up else 1.0)
            # as far as it is in the block: there is no room in the strip for the rest
            within = replace(
                hardware, length=min(hardware.length, high - hole.bore_depth)
            )
            for x in sorted({round(x, 6) for x, _ in feature.points}):
                seat = x, high if up else feature.sunk
                yield from _with_head(seat, into, within, head, grip)


def _with_head(
    face: Point, into: Point, hardware: Hardware, head: CapScrew | None, grip: float
) -> Iterator[Cylinder]:
    """A screw that goes through a face; grip: how far before it its head is seated."""

    def at(along: float) -> Point:
        return face[0] + along * into[0], face[1] + along * into[1]

    if head is not None:
        yield at(-grip - head.head_height), at(-grip), head.head_diameter
    yield at(-grip), at(hardware.length - grip), hardware.size


def _draw_cylinder(board: Board, a: Point, b: Point, wide: float, place: Place) -> None:
    """It from the side; of what lies on the axis, the half above it."""
    half = wide / 2
    if a[0] == b[0]:
        corners = rectangle(a[0] - half, a[1], a[0] + half, b[1])
    else:
        corners = rectangle(a[0], max(a[1] - half, 0.0), b[0], a[1] + half)
    points = tuple(place(z, r) for z, r in corners)
    board.items.append(Shape(points, "measured", 1.0, "ground"))
