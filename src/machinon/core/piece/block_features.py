"""Features of blocks: faces, slots, pockets, rebates, flanks, edges and outlines."""

import math
from typing import ClassVar, Literal

from msgspec.structs import replace

from machinon.core.piece.feature import (
    FACE_AXES,
    PAST,
    BlockFace,
    Dimension,
    Face,
    Feature,
)
from machinon.core.piece.solid_cuts import (
    Cut,
    Point,
    Sunk,
    arc,
    block_face,
    long_hole,
    rectangle,
)

SAWN = 3.0  # mm: what is narrower, and open at its ends, is sawn
AWAY = ("top", "back", "right")  # faces at the far ends of the block's axes


def behind(face: BlockFace, block: tuple[float, float, float]) -> float:
    """The block behind a face, mm."""
    return block["xyz".index(FACE_AXES[face][2])]


def _sunk_from(
    face: BlockFace, block: tuple[float, float, float], depth: float
) -> Dimension:
    """How the depth of what is sunk from a face is dimensioned."""
    low = behind(face, block) - depth if face in AWAY else 0.0
    return Dimension(FACE_AXES[face][2], low, low + depth)


def _off_corner(radius: float) -> float:
    """How far the middle of a rounded corner lies off both sides."""
    return (1 - math.sqrt(0.5)) * radius


class SixFaces(Feature, frozen=True):
    """A block squared to its size; what stands over it is taken off all round."""

    length: float
    width: float
    height: float

    def cuts(self) -> tuple[Cut, ...]:
        far = 10_000.0
        taken = []
        for name in ("left", "right", "front", "back", "top", "bottom"):
            frame = block_face(name, self.length, self.width, self.height)
            taken.append(Sunk(frame, rectangle(-far, -far, far, far), -far, 0.0))
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        at = {"left": 0.0, "right": self.length, "front": 0.0, "back": self.width}
        at |= {"bottom": 0.0, "top": self.height}
        return {
            f"{self.name}.{side}": Face("plane", {"at": value})
            for side, value in at.items()
        }

    def dimensions(self) -> dict[str, Dimension]:
        return {
            "length": Dimension("x", 0.0, self.length),
            "width": Dimension("y", 0.0, self.width),
            "height": Dimension("z", 0.0, self.height),
        }

    def leaving(self, metal: float) -> Feature:
        return self


class Slot(Feature, frozen=True):
    """A straight slot sunk from a face: its middle line, width and depth."""

    face: BlockFace
    block: tuple[float, float, float]
    a: Point
    b: Point
    width: float
    depth: float
    rounded: bool = False  # its ends are as round as its cutter
    # degrees that it is turned from there, about the middle of its first end or, where
    # it goes from end to end, about its own
    turn: float = 0.0

    @property
    def through(self) -> bool:
        """Whether it goes right through to the far face."""
        return self.depth >= behind(self.face, self.block)

    @property
    def sawn(self) -> bool:
        """Whether it is a slit that a slitting saw cuts at once."""
        return self.width < SAWN and not self.rounded

    @property
    def pivot(self) -> Point:
        """What it is turned about."""
        (ax, ay), (bx, by) = self.a, self.b
        return self.a if self.rounded else ((ax + bx) / 2, (ay + by) / 2)

    def turned(self, x: float, y: float) -> Point:
        """A place of it as it lies along or across its face, turned with it."""
        if not self.turn:
            return x, y
        px, py = self.pivot
        cos, sin = math.cos(math.radians(self.turn)), math.sin(math.radians(self.turn))
        along, up = x - px, y - py
        return px + along * cos - up * sin, py + along * sin + up * cos

    @property
    def rims(self) -> tuple[Point, ...]:
        """Places on its edge in the face: all round where it does not run out, or of
        one that goes from end to end beside its middle."""
        if self.rounded:
            u, v, _ = FACE_AXES[self.face]
            long, wide = (self.block["xyz".index(axis)] for axis in (u, v))
            edge = self.outline()
            inside = (at for at in edge if 0 < at[0] < long and 0 < at[1] < wide)
            return tuple(inside) or edge
        (x, y), half = self.pivot, self.width / 2
        if self.a[0] == self.b[0]:
            return self.turned(x - half, y), self.turned(x + half, y)
        return self.turned(x, y - half), self.turned(x, y + half)

    def outline(self) -> tuple[Point, ...]:
        """Its edge in the face, round once."""
        return tuple(self.turned(*point) for point in self._straight())

    def _straight(self) -> tuple[Point, ...]:
        if self.rounded:
            return long_hole(self.a, self.b, self.width)
        (ax, ay), (bx, by) = self.a, self.b
        long = math.hypot(bx - ax, by - ay) or 1.0
        nx, ny = -(by - ay) / long * self.width / 2, (bx - ax) / long * self.width / 2
        return (
            (ax - nx, ay - ny),
            (bx - nx, by - ny),
            (bx + nx, by + ny),
            (ax + nx, ay + ny),
        )

    def cuts(self) -> tuple[Cut, ...]:
        frame = block_face(self.face, *self.block)
        return (Sunk(frame, self.outline(), -PAST, self.depth),)

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("slot", {"width": self.width}, True),
            f"{self.name}.floor": Face("plane", {"depth": self.depth}),
        }

    def dimensions(self) -> dict[str, Dimension]:
        half = self.width / 2
        u, v, _ = FACE_AXES[self.face]
        across = self.a[0] == self.b[0]
        at, along = self.a if across else self.a[::-1]
        end = (self.b if across else self.b[::-1])[1]
        kind, other = (u, v) if across else (v, u)
        # where it is: at its first end, or in a face that looks away
        beside = self.pivot[1 if across else 0] if self.turn or self.rounded else 0.0
        if self.face in ("left", "right") and kind == "y":
            beside = self.block[0] if self.face == "right" else 0.0
        found = {
            "at": Dimension(kind, 0.0, at, (beside, 0.0)),
            "width": Dimension(kind, at - half, at + half, (beside, 0.0)),
            "depth": _sunk_from(self.face, self.block, self.depth),
        }
        said = dict.fromkeys(
            ("face", "runs", "length", "from_end", "turn"), Dimension("hole", 0.0, 0.0)
        )
        if self.rounded:
            found["from_end"] = Dimension(other, 0.0, along, (at, 0.0))
            found["length"] = Dimension(other, along, end, (at, 0.0))
        if self.through:
            found["depth"] = said["runs"]
        if self.turn:  # no line of the block measures these
            found |= dict.fromkeys(("width", "length", "turn"), said["runs"])
        return said | found

    @property
    def run(self) -> int:
        """The axis of the block that it runs along: 0 for x, 1 for y, 2 for z."""
        u, v, _ = FACE_AXES[self.face]
        return "xyz".index(v if self.a[0] == self.b[0] else u)

    @property
    def sides(self) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """The middles of its two sides in the block, half way down: x, y, z."""
        u, v, into = FACE_AXES[self.face]
        far = behind(self.face, self.block)
        deep = far - self.depth / 2 if self.face in AWAY else self.depth / 2
        (ax, ay), (bx, by) = self.a, self.b
        at = {u: (ax + bx) / 2, v: (ay + by) / 2, into: deep}
        over = u if ax == bx else v

        def side(half: float) -> tuple[float, ...]:
            there = at | {over: at[over] + half}
            return tuple(there[axis] for axis in ("x", "y", "z"))

        return side(-self.width / 2), side(self.width / 2)


class Pocket(Feature, frozen=True):
    """A pocket sunk from a face, from one corner to the opposite one, its corners as
    round as its cutter."""

    face: BlockFace
    block: tuple[float, float, float]
    low: Point
    high: Point
    radius: float
    depth: float | None  # None for a window right through

    @property
    def places(self) -> list[Point]:
        """The middle of each corner, as its face is looked at."""
        (a, b), (c, d), off = self.low, self.high, _off_corner(self.radius)
        return [(x, y) for x in (c - off, a + off) for y in (d - off, b + off)]

    def outline(self) -> tuple[Point, ...]:
        (a, b), (c, d), r = self.low, self.high, self.radius
        if r <= 0:
            return rectangle(a, b, c, d)
        return (
            *arc((c - r, b + r), r, 270, 360),
            *arc((c - r, d - r), r, 0, 90),
            *arc((a + r, d - r), r, 90, 180),
            *arc((a + r, b + r), r, 180, 270),
        )

    def cuts(self) -> tuple[Cut, ...]:
        through = sum(self.block) + PAST  # past the far face, whichever it is
        deep = through if self.depth is None else self.depth
        return (Sunk(block_face(self.face, *self.block), self.outline(), -PAST, deep),)

    def faces(self) -> dict[str, Face]:
        (a, b), (c, d) = self.low, self.high
        found = {self.name: Face("slot", {"length": c - a, "width": d - b}, True)}
        if self.depth is not None:
            found[f"{self.name}.floor"] = Face("plane", {"depth": self.depth})
        return found

    def dimensions(self) -> dict[str, Dimension]:
        u, v, _ = FACE_AXES[self.face]
        (a, b), (c, d) = self.low, self.high
        # beside the view from above, what is in a side is taken from its edge
        flat, right = self.face in ("top", "bottom"), self.face == "right"
        over = (b if flat else self.block[0] if right else 0.0, 0.0)
        beside = (a if flat else 0.0, 0.0)
        found = {
            "from_side": Dimension(u, 0.0, a, over),
            "length": Dimension(u, a, c, over),
            "from_front": Dimension(v, 0.0, b, beside),
            "width": Dimension(v, b, d, beside),
        }
        said = Dimension("hole", 0.0, 0.0, self.places[0])
        found |= dict.fromkeys(("depth", "radius", "face"), said)
        if self.depth is not None:
            found["depth"] = _sunk_from(self.face, self.block, self.depth)
        return found


class Rebate(Feature, frozen=True):
    """A step along an edge of a block's top or bottom: `width` in from one of its
    sides, by `depth` into it."""

    side: Literal["front", "back", "left", "right"]
    block: tuple[float, float, float]
    width: float
    depth: float
    face: Literal["top", "bottom"] = "top"

    @property
    def room(self) -> float:
        """The block across it, mm."""
        return behind(self.side, self.block)

    def cuts(self) -> tuple[Cut, ...]:
        into = max(self.width, 0.0)  # one that lies outside takes nothing
        far = self.room
        low, high = (far - into, far + PAST) if self.side in AWAY else (-PAST, into)
        length, wide, _ = self.block
        outline = (
            rectangle(low, -PAST, high, wide + PAST)
            if self.side in ("left", "right")
            else rectangle(-PAST, low, length + PAST, high)
        )
        frame = block_face(self.face, *self.block)
        return (Sunk(frame, outline, -PAST, self.depth),)

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("plane", {"width": self.width}),
            f"{self.name}.floor": Face("plane", {"depth": self.depth}),
        }

    def dimensions(self) -> dict[str, Dimension]:
        high, far, top = self.block[2], self.room, self.face == "top"
        across = FACE_AXES[self.side][2]
        a, b = (far - self.width, far) if self.side in AWAY else (0.0, self.width)
        rest = (0.0, high - self.depth) if top else (self.depth, high)
        return {
            "width": Dimension(across, a, b, (0.0, high if top else 0.0)),
            "depth": _sunk_from(self.face, self.block, self.depth),
            "rest": Dimension("z", *rest),
            # what stands between this rebate and one like it at the other side
            "tongue": Dimension(across, self.width, far - self.width),
        }


class EndToEnd(Feature, frozen=True):
    """A form of one section along a block's top or bottom, from end to end."""

    SAID: ClassVar[tuple[str, ...]] = ()  # what of it is written at it

    face: Literal["top", "bottom"]
    block: tuple[float, float, float]
    at: float  # its middle, from the front or, where it runs across, from the left
    depth: float
    across: bool

    @property
    def section(self) -> tuple[tuple[float, float], ...]:
        """Its width at each depth where that changes, from the face down."""
        raise NotImplementedError

    @property
    def mouth(self) -> float:
        """Its width at the face."""
        return self.section[0][0]

    @property
    def sides(self) -> tuple[Point, Point]:
        """The middles of its two sides next to the face, as it is looked along."""
        (wide, high), (other, low) = self.section[:2]
        half, deep = (wide + other) / 4, (high + low) / 2
        level = self.block[2] - deep if self.face == "top" else deep
        return (self.at - half, level), (self.at + half, level)

    @property
    def undercut(self) -> bool:
        """Whether metal stands over it, so that only its own cutter gets there."""
        return self.section[-1][0] > self.mouth

    @property
    def room(self) -> float:
        """The block across it, mm."""
        return self.block[0] if self.across else self.block[1]

    def _sides(self) -> tuple[tuple[Point, ...], tuple[Point, ...]]:
        """Its left side from over the face to its floor, its right side back up."""
        _, _, high = self.block
        end, out = (high, 1.0) if self.face == "top" else (0.0, -1.0)
        half = [(self.mouth / 2, end + out * PAST)]
        half += [(wide / 2, end - out * deep) for wide, deep in self.section]
        return (
            tuple((self.at - wide, v) for wide, v in half),
            tuple((self.at + wide, v) for wide, v in reversed(half)),
        )

    def _through(self, *outlines: tuple[Point, ...]) -> tuple[Cut, ...]:
        name, long = (
            ("front", self.block[1]) if self.across else ("left", self.block[0])
        )
        frame = block_face(name, *self.block)
        return tuple(Sunk(frame, outline, -PAST, long + PAST) for outline in outlines)

    def cuts(self) -> tuple[Cut, ...]:
        left, right = self._sides()
        return self._through((*left, *right))

    def dimensions(self) -> dict[str, Dimension]:
        level = self.block[2] if self.face == "top" else 0.0
        a, b = self.at - self.mouth / 2, self.at + self.mouth / 2
        kind: Literal["x", "y"] = "x" if self.across else "y"
        said = Dimension("hole", a, b, (self.at, 0.0))
        return {
            "at": Dimension(kind, 0.0, self.at, (0.0, level)),
            "depth": _sunk_from(self.face, self.block, self.depth),
            **dict.fromkeys(self.SAID, said),
        }


class Flanked(EndToEnd, frozen=True):
    """One whose flanks lean: a vee, or a dovetail."""

    SAID: ClassVar = ("form", "width", "angle", "half_angle", "face", "pins", "runs")

    wide: float  # its widths at the face and below; none on the floor is a vee
    floor: float  # its widths at the face and below; none on the floor is a vee
    pin: float = 0.0  # diameter of the pins that it is read over

    @property
    def section(self) -> tuple[tuple[float, float], ...]:
        return (self.wide, 0.0), (self.floor, self.depth)

    @property
    def half_angle(self) -> float:
        """Angle of a flank to the middle plane, degrees."""
        return math.degrees(math.atan2(abs(self.mouth - self.floor) / 2, self.depth))

    def leaving(self, metal: float) -> Feature:
        """A dovetail is roughed as a plain slot, as wide as its mouth lets one in."""
        if not self.undercut:
            return self
        wide = self.mouth - 2 * metal
        return replace(self, wide=wide, floor=wide, depth=self.depth - metal)

    def faces(self) -> dict[str, Face]:
        return {
            f"{self.name}.flanks": Face(
                "plane", {"half_angle": self.half_angle, "width": self.mouth}, True
            )
        }


class MaleDovetail(Flanked, frozen=True):
    """A dovetail that stands up, the block cut away on both sides of it.

    wide, floor: its widths on top and at its foot.
    """

    @property
    def undercut(self) -> bool:
        return self.floor < self.wide

    def leaving(self, metal: float) -> Feature:
        """It is roughed straight, as wide as its top."""
        wide = self.wide + 2 * metal
        return replace(self, wide=wide, floor=wide, depth=self.depth - metal)

    def cuts(self) -> tuple[Cut, ...]:
        left, right = self._sides()
        over, foot = left[0][1], left[-1][1]
        near, far = -PAST, self.room + PAST
        return self._through(
            ((near, over), (near, foot), *reversed(left)),
            (*reversed(right), (far, foot), (far, over)),
        )


class TeeSlot(EndToEnd, frozen=True):
    """A T-slot: its neck between the lips, and the wider head below them."""

    SAID: ClassVar = ("neck", "head", "height", "lip", "face", "runs")

    neck: float
    head: float
    # of the head, from the floor up to the lips; a head no wider than the neck is the
    # plain slot that is cut first
    height: float

    @property
    def section(self) -> tuple[tuple[float, float], ...]:
        lip, floor = self.depth - self.height, self.depth
        neck, head = self.neck, self.head
        return (neck, 0.0), (neck, lip), (head, lip), (head, floor)

    def leaving(self, metal: float) -> Feature:
        """Its neck alone is cut first; the floor is left for the cutter of its head."""
        return replace(
            self, head=self.neck, depth=self.depth - metal, height=self.height - metal
        )

    def faces(self) -> dict[str, Face]:
        sides = {"neck": self.neck, "head": self.head}
        return {
            f"{self.name}.{key}": Face("slot", {"width": wide}, True)
            for key, wide in sides.items()
        }


EDGES = {"top": "upper edges", "bottom": "lower edges", "upright": "upright edges"}


class EdgeBevels(Feature, frozen=True):
    """The four upright edges, or those round the top or the bottom, broken by a leg at
    45°."""

    block: tuple[float, float, float]
    leg: float
    which: Literal["upright", "top", "bottom"] = "top"
    without: tuple[str, ...] = ()  # sides of it whose edge was cut away before

    @property
    def called(self) -> str:
        """Its edges in words: `upper edges`."""
        return EDGES[self.which]

    def cuts(self) -> tuple[Cut, ...]:
        length, width, height = self.block
        leg = self.leg
        if self.which == "upright":
            frame = block_face("top", *self.block)
            corners: list[tuple[Point, ...]] = [
                ((-PAST, -PAST), (leg, -PAST), (leg, 0), (0, leg), (-PAST, leg)),
                (
                    (length + PAST, -PAST),
                    (length + PAST, leg),
                    (length, leg),
                    (length - leg, 0),
                    (length - leg, -PAST),
                ),
                (
                    (length + PAST, width + PAST),
                    (length - leg, width + PAST),
                    (length - leg, width),
                    (length, width - leg),
                    (length + PAST, width - leg),
                ),
                (
                    (-PAST, width + PAST),
                    (-PAST, width - leg),
                    (0, width - leg),
                    (leg, width),
                    (leg, width + PAST),
                ),
            ]
            return tuple(
                Sunk(frame, corner, -PAST, height + PAST) for corner in corners
            )
        taken = []
        top = self.which == "top"
        level, over = (height, height + PAST) if top else (0.0, -PAST)
        below = height - leg if top else leg
        for near, far, long, deep in (
            ("front", "back", length, width),
            ("left", "right", width, length),
        ):
            # seen along the edge: a triangle off both corners, and what is outside
            frame = block_face("left" if near == "front" else "front", *self.block)
            for side, out, edge, along in (
                (near, -PAST, 0.0, leg),
                (far, deep + PAST, deep, deep - leg),
            ):
                if side in self.without:
                    continue
                slant = (edge, below), (along, level)
                outline = ((out, below), *slant, (along, over), (out, over))
                taken.append(Sunk(frame, outline, -PAST, long + PAST))
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"leg": self.leg})}

    @property
    def places(self) -> list[Point]:
        """Where it lies as it is seen from above: each corner, or on each edge."""
        long, wide, _ = self.block
        if self.which == "upright":
            off = self.leg / 2
            return [(x, y) for x in (long - off, off) for y in (wide - off, off)]
        found = []
        for part in (0.8, 0.2):  # of each edge, where another cut may have taken one
            on = {
                "right": (long, part * wide),
                "back": (part * long, wide),
                "front": (part * long, 0.0),
                "left": (0.0, part * wide),
            }
            left = [at for side, at in on.items() if side not in self.without]
            found += left or list(on.values())  # where all went, they are said anywhere
        return found

    def dimensions(self) -> dict[str, Dimension]:
        said = Dimension("hole", 0.0, 0.0, self.places[0])
        return dict.fromkeys(("leg", "which"), said)


class CornerRounds(Feature, frozen=True):
    """The four upright corners of a block, rounded."""

    block: tuple[float, float, float]
    radius: float

    def cuts(self) -> tuple[Cut, ...]:
        length, width, height = self.block
        r, frame = self.radius, block_face("top", *self.block)
        taken = []
        for x, y, turn in (
            (0.0, 0.0, 180.0),
            (length, 0.0, 270.0),
            (length, width, 0.0),
            (0.0, width, 90.0),
        ):
            cx = r if x == 0 else length - r
            cy = r if y == 0 else width - r
            far_x = -PAST if x == 0 else length + PAST
            far_y = -PAST if y == 0 else width + PAST
            points = arc((cx, cy), r, turn, turn + 90)
            first, last = points[0], points[-1]
            # out from both ends of the arc, round the corner
            a = (far_x, first[1]) if turn in (180.0, 0.0) else (first[0], far_y)
            b = (last[0], far_y) if turn in (180.0, 0.0) else (far_x, last[1])
            taken.append(
                Sunk(frame, (*points, b, (far_x, far_y), a), -PAST, height + PAST)
            )
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("cylinder", {"radius": self.radius})}

    @property
    def places(self) -> list[Point]:
        """The middle of each as it is seen from above."""
        (long, wide, _), off = self.block, _off_corner(self.radius)
        return [(x, y) for x in (long - off, off) for y in (wide - off, off)]

    def dimensions(self) -> dict[str, Dimension]:
        return {"radius": Dimension("hole", 0.0, 0.0, self.places[0])}


class Slope(Feature, frozen=True):
    """The top of a block made aslant: it stands `low` high at the left end and rises
    by an angle to the right; degrees."""

    block: tuple[float, float, float]
    low: float
    angle: float

    @property
    def rise(self) -> float:
        """Difference in height from the left end to the right, mm."""
        return self.block[0] * math.tan(math.radians(self.angle))

    def cuts(self) -> tuple[Cut, ...]:
        long, wide, high = self.block
        top = self.low + self.rise
        over = max(high, top) + PAST
        # its corners lie on the ends of the block, where they are seen
        slant = (0.0, self.low), (long, top)
        outline = (
            (-PAST, self.low),
            *slant,
            (long + PAST, top),
            (long + PAST, over),
            (-PAST, over),
        )
        front = block_face("front", *self.block)
        return (Sunk(front, outline, -PAST, wide + PAST),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"angle": self.angle})}

    def dimensions(self) -> dict[str, Dimension]:
        long = self.block[0]
        said = Dimension("hole", 0.0, long, (long / 2, self.low + self.rise / 2))
        return {"low": Dimension("z", 0.0, self.low), "lean": said}


class RoundSeat(Feature, frozen=True):
    """A seat for something round in a block's top or bottom: part of a bore."""

    block: tuple[float, float, float]
    at: float  # its middle, from the front or, where it runs across, from the left
    diameter: float
    depth: float  # up to half its diameter
    across: bool = False
    face: Literal["top", "bottom"] = "top"

    @property
    def floor(self) -> tuple[Point, ...]:
        """The arc of its section, from side to side, as it is looked along."""
        radius = self.diameter / 2
        half = math.degrees(math.acos(max(1 - self.depth / radius, 0.0)))
        over, up = radius - self.depth, self.face == "top"
        centre = (self.at, self.block[2] + over if up else -over)
        middle = 270 if up else 90
        return tuple(arc(centre, radius, middle - half, middle + half))

    @property
    def sides(self) -> tuple[Point, Point]:
        """Places on it, half way up on either side."""
        quarter = len(self.floor) // 4
        return self.floor[quarter], self.floor[-1 - quarter]

    def cuts(self) -> tuple[Cut, ...]:
        long, wide, high = self.block
        floor, over = self.floor, high + PAST if self.face == "top" else -PAST
        outline = ((floor[0][0], over), *floor, (floor[-1][0], over))
        name, run = ("front", wide) if self.across else ("left", long)
        return (Sunk(block_face(name, *self.block), outline, -PAST, run + PAST),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("cylinder", {"diameter": self.diameter}, True)}

    def dimensions(self) -> dict[str, Dimension]:
        level = self.block[2] if self.face == "top" else 0.0
        kind: Literal["x", "y"] = "x" if self.across else "y"
        said = Dimension("hole", 0.0, 0.0, (self.at, level))
        return {
            "at": Dimension(kind, 0.0, self.at, (0.0, level)),
            "depth": _sunk_from(self.face, self.block, self.depth),
            **dict.fromkeys(("diameter", "face", "runs"), said),
        }


class Outline(Feature, frozen=True):
    """The metal outside of an outline, taken off a block from its top right down."""

    block: tuple[float, float, float]
    points: tuple[Point, ...]  # corners and arcs, counter-clockwise
    # what its family draws a line for, with how that is dimensioned
    measures: tuple[tuple[str, Dimension], ...] = ()

    def dimensions(self) -> dict[str, Dimension]:
        return dict(self.measures)

    def cuts(self) -> tuple[Cut, ...]:
        length, width, height = self.block
        # from its lowest corner, so that the way in crosses no metal
        low_at = min(range(len(self.points)), key=lambda n: self.points[n][1])
        points = self.points[low_at:] + self.points[:low_at]
        x, past = points[0][0], 10.0
        left, low, right, high = -past, -past, length + past, width + past
        # once round outside, in to the outline, round that the other way, out again
        frame = (
            (x, low),
            (right, low),
            (right, high),
            (left, high),
            (left, low),
            (x, low),
        )
        within = (points[0], *reversed(points))
        outside = (*frame, *within)
        top = block_face("top", *self.block)
        return (Sunk(top, outside, -past, height + past),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"sides": float(len(self.points))})}


class SawCuts(Feature, frozen=True):
    """A strip sawn into pieces: where each cut lies along it, how wide it is, and what
    is cleaned off each sawn end afterwards."""

    block: tuple[float, float, float]
    starts: tuple[float, ...]
    kerf: float
    clean: float = 0.0

    def cuts(self) -> tuple[Cut, ...]:
        _, width, height = self.block
        frame = block_face("top", *self.block)
        return tuple(
            Sunk(
                frame,
                rectangle(x, -PAST, x + self.kerf, width + PAST),
                -PAST,
                height + PAST,
            )
            for x in self.starts
        )

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"kerf": self.kerf})}

    def dimensions(self) -> dict[str, Dimension]:
        if not self.starts:
            return {}
        first = self.starts[0]
        return {
            "piece": Dimension("x", 0.0, first - self.clean),
            "kerf": Dimension("x", first, first + self.kerf),
        }
