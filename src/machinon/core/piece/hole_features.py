"""Holes in whatever they are: as one is drilled, in what pattern, and where."""

import math
from collections.abc import Sequence
from typing import TypeAlias

import msgspec

from machinon.core.piece.feature import (
    FACE_AXES,
    PAST,
    POINT,
    BlockFace,
    Dimension,
    Face,
    Feature,
    along_axis,
)
from machinon.core.piece.hardware import sold_as
from machinon.core.piece.solid_cuts import (
    Cut,
    Drilled,
    Frame,
    Point,
    Sunk,
    across_axis,
    block_face,
    end_of,
    rectangle,
)
from machinon.core.setting_out.bolt_circle import even_angles, hole_points
from machinon.core.setting_out.cones import cone_depth
from machinon.core.sizes.reamers import LEAVES, nearest_reamer
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_named

# what is written at holes in a face, where their sizes have it
SAID = (
    *("diameter", "count", "circle", "screw", "thread", "drill", "depth", "reamed"),
    *("counterbore", "counterbore_depth", "across", "up", "kind", "pattern"),
    *("datum", "face", "lean", "leans", "start"),
)
# the way that a hole leans along its face, degrees
TOWARDS = {"right": 0.0, "up": 90.0, "left": 180.0, "down": 270.0}


class Hole(msgspec.Struct, frozen=True):
    """A hole as it is drilled: through, or `depth` deep to its shoulder."""

    diameter: float
    depth: float | None = None
    thread: str = ""  # tapped with it (diameter is then the drill)
    thread_depth: float = 0.0
    bore: float = 0.0  # of its counterbore
    bore_depth: float = 0.0  # of its counterbore
    sink: float = 0.0  # mouth of its countersink, 90°
    ream: bool = False  # to size after drilling
    flat: bool = False  # its floor is flat: bored or milled
    # a recess as deep as `depth` by a ball-ended cutter of the diameter
    ball: bool = False
    # across the flats that it is broached to, from the side of a round alone
    square: float = 0.0

    @property
    def rim(self) -> float:
        """Across its mouth: of a ball's recess less than the ball."""
        if not self.ball or self.depth is None or self.depth >= self.diameter / 2:
            return self.diameter
        return 2 * math.sqrt(self.depth * (self.diameter - self.depth))

    @property
    def widest(self) -> float:
        """Across its mouth with what is sunk there."""
        return max(self.rim, self.bore, self.sink)

    @property
    def mouth(self) -> tuple[Point, ...]:
        """Its edge in the face, about its middle, from the right down and round."""
        if self.square:
            h = self.square / 2
            return (h, 0), (h, -h), (-h, -h), (-h, 0), (-h, h), (h, h), (h, 0)
        r = self.widest / 2
        turns = [-math.tau * i / 24 for i in range(25)]
        return tuple((r * math.cos(turn), r * math.sin(turn)) for turn in turns)

    def threaded(self, through: float) -> float:
        """Depth of the full thread; through: depth to which a through hole goes."""
        return self.thread_depth or (through if self.depth is None else 0.0)

    def profile(self, through: float) -> tuple[Point, ...]:
        """(depth, radius) from the face down; through: to where a through hole goes."""
        r = self.diameter / 2
        if self.ball and self.depth is not None:
            # from the rim round to the middle of the floor
            turns = [math.acos(max(1 - self.depth / r, -1.0)) * i / 8 for i in range(9)]
            floor = [
                (self.depth - r + r * math.cos(turn), r * math.sin(turn))
                for turn in reversed(turns)
            ]
            return ((-PAST, floor[0][1]), *floor)
        down: list[Point] = []
        if self.sink > self.diameter:
            down += [
                (-PAST, self.sink / 2 + PAST),
                ((self.sink - self.diameter) / 2, r),
            ]
        elif self.bore > self.diameter:
            down += [(-PAST, self.bore / 2), (self.bore_depth, self.bore / 2)]
            down.append((self.bore_depth, r))
        else:
            down.append((-PAST, r))
        # one that ends before it begins takes nothing: a check says what is wrong
        begins = max(down[-1][0], 0.0)
        if self.depth is None:
            return (*down, (max(through + PAST, begins), r))
        deep = max(self.depth, begins)
        return (*down, (deep, r), (deep + self.point, 0.0))

    @property
    def point(self) -> float:
        """How far the point of its drill goes past its depth."""
        if self.flat:
            return 0.0
        return cone_depth(self.diameter, POINT)

    @property
    def drilled(self) -> "Hole":
        """The hole as its drill leaves it."""
        return msgspec.structs.replace(
            self, thread="", bore=0.0, sink=0.0, ream=False, square=0.0
        )

    @property
    def _across(self) -> str:
        """Its diameter; a reamed hole by the reamer that leaves it so, if one is
        sold."""
        reamer = nearest_reamer(self.diameter) if self.ream else None
        if reamer is not None and reamer.makes(self.diameter):
            return f"⌀{sold_as(reamer.size)} {LEAVES}"
        return f"⌀{self.diameter:g}"

    def says(self, count: int = 1) -> str:
        """The note at a hole: 4 × ⌀9, counterbore ⌀15 × 8.6."""
        many = f"{count} × " if count > 1 else ""
        drill = drill_named(self.diameter).removesuffix(" mm")
        deep = "" if self.depth is None else f" × {self.depth:g} deep"
        if self.thread:
            hole = f"{many}{thread_of(self.thread).says}"
            text = hole + (
                f" × {round(self.thread_depth, 1):g} deep" if self.thread_depth else ""
            )
            text += f", drill {drill}{deep}"
        elif self.square:
            text = f"{many}square {self.square:g}{deep}, drill {drill}"
        elif self.ball:
            text = f"{many}ball ⌀{self.diameter:g}{deep}, ⌀{self.rim:.2f} at the rim"
        else:
            text = f"{many}{self._across}{deep}" + (", reamed" if self.ream else "")
        if self.bore > self.diameter:
            text += f", counterbore ⌀{self.bore:g} × {self.bore_depth:g}"
        if self.sink > self.diameter:
            text += f", countersink ⌀{self.sink:g}"
        return text


class HoleCircle(msgspec.Struct, frozen=True, tag="circle"):
    """Holes evenly on a circle."""

    count: int
    diameter: float
    start: float = 90.0  # angle of the first
    at: Point = (0.0, 0.0)  # its centre

    def points(self) -> list[Point]:
        return [
            (self.at[0] + x, self.at[1] + y)
            for x, y in hole_points(self.count, self.diameter, self.start)
        ]


class Arc(msgspec.Struct, frozen=True, tag="arc"):
    """Holes along a part of a circle."""

    count: int
    diameter: float
    start: float  # degrees of the first, and on to the next
    pitch: float  # degrees of the first, and on to the next

    def points(self) -> list[Point]:
        turns = (math.radians(self.start + i * self.pitch) for i in range(self.count))
        r = self.diameter / 2
        return [(r * math.cos(turn), r * math.sin(turn)) for turn in turns]


class Grid(msgspec.Struct, frozen=True, tag="grid"):
    """Holes in rows."""

    across: int
    up: int
    pitch_across: float
    pitch_up: float
    at: Point = (0.0, 0.0)  # the first of them

    def points(self) -> list[Point]:
        return [
            (self.at[0] + i * self.pitch_across, self.at[1] + j * self.pitch_up)
            for j in range(self.up)
            for i in range(self.across)
        ]


class Places(msgspec.Struct, frozen=True, tag="places"):
    """Holes wherever they are said to be."""

    at: tuple[Point, ...]

    def points(self) -> list[Point]:
        return list(self.at)


Pattern: TypeAlias = HoleCircle | Arc | Grid | Places


class Holes(Feature, frozen=True):
    """Holes in a face."""

    # left or right of what turns (its station is `level`), or a face of a block whose
    # size is `block`
    face: BlockFace
    pattern: Pattern
    hole: Hole
    through: float  # how deep the metal is there
    level: float = 0.0
    block: tuple[float, float, float] | None = None
    from_centre: bool = False  # whether its places are said from the middle of the face
    beside: float | None = None  # along a block, the hole that its place is said from
    sunk: float = 0.0  # how far below a block's face they begin
    # degrees off square to the face that each pass through a mouth leans, and which way
    # along it: after one that goes straight, another leaves a hole long at its far end
    leans: tuple[float, ...] = (0.0,)
    towards: float = 0.0

    @property
    def frame(self) -> Frame:
        if self.block is not None:
            face = block_face(self.face, *self.block)
            if not self.sunk:
                return face
            at = face.at(0.0, 0.0, self.sunk)
            return msgspec.structs.replace(face, origin=at)
        return end_of(self.level, self.face == "left")

    @property
    def points(self) -> list[Point]:
        return self.pattern.points()

    @property
    def many(self) -> int:
        """Number of holes."""
        return len(self.points)

    @property
    def angles(self) -> list[float]:
        if self.block is not None:
            return []
        return [math.degrees(math.atan2(y, x)) for x, y in self.points]

    def as_drilled(self) -> Feature:
        first = self.leans[:1]
        return msgspec.structs.replace(self, hole=self.hole.drilled, leans=first)

    def leaving(self, metal: float) -> Feature:
        wide = max(self.hole.diameter - 2 * metal, 0.0)
        hole = msgspec.structs.replace(self.hole, diameter=wide)
        return msgspec.structs.replace(self, hole=hole)

    @property
    def lean(self) -> float:
        """Degrees off square to their face that they are drilled."""
        return self.leans[0]

    @property
    def reach(self) -> float:
        """Depth of the metal along a hole's axis."""
        return self.along(self.lean)

    def along(self, lean: float) -> float:
        """Depth of the metal along a pass that leans so, degrees."""
        return self.through / math.cos(math.radians(lean))

    @property
    def leaning(self) -> str:
        """How they stand to their face, where that is not square, as it is said."""
        if not self.lean:
            return ""
        way = next(way for way, angle in TOWARDS.items() if angle == self.towards)
        where = way if way in ("up", "down") else f"to the {way}"
        return f"{self.lean:g}° off square, {where}"

    def cuts(self) -> tuple[Cut, ...]:
        if self.hole.diameter <= 0:  # so much is left that nothing is cut yet
            return ()
        return tuple(
            self._drilled(at, lean) for lean in self.leans for at in self.points
        )

    def _drilled(self, at: Point, lean: float) -> Drilled:
        """A pass through the mouth of a hole."""
        if not lean:
            return Drilled(self.frame, at, self.hole.profile(self.through))
        slope = math.tan(math.radians(lean))
        over = self.hole.widest / 2 * slope  # where its far side still cuts metal
        profile = self.hole.profile(self.along(lean) + over)
        (high, wide), (low, next_wide), *rest = profile
        wide += over * (wide - next_wide) / (low - high)
        frame = self.frame.leant(at, lean, self.towards)
        down = (high - over, wide), (low, next_wide), *rest
        return Drilled(frame, (0.0, 0.0), down)

    def rim(
        self, at: Point, lean: float, deep: float = 0.0, wide: float = 0.0
    ) -> list[Point]:
        """Edge of a pass through a hole in its face, or in a plane so deep below it;
        wide: across it, its mouth if that is not said."""
        angle, way = math.radians(lean), math.radians(self.towards)
        cos, sin = math.cos(way), math.sin(way)
        across = (wide or self.hole.widest) / 2
        along, middle = across / math.cos(angle), deep * math.tan(angle)
        turns = (math.tau * n / 48 for n in range(48))
        ring = [(middle + along * math.cos(t), across * math.sin(t)) for t in turns]
        return [(at[0] + x * cos - y * sin, at[1] + x * sin + y * cos) for x, y in ring]

    def faces(self) -> dict[str, Face]:
        kind = "thread" if self.hole.thread else "hole"
        found = {
            self.name: Face(
                kind, {"diameter": self.hole.diameter, "count": len(self.points)}, True
            )
        }
        if isinstance(self.pattern, HoleCircle):
            at = {"diameter": self.pattern.diameter}
            found[f"{self.name}.circle"] = Face("hole", at, True)
        return found

    def dimensions(self) -> dict[str, Dimension]:
        x, y = self.points[0]
        found = dict.fromkeys(SAID, Dimension("hole", 0.0, 0.0, (x, y)))
        if isinstance(self.pattern, Arc):
            found["apart"] = found["circle"]
        if isinstance(self.pattern, HoleCircle):
            x, y = self.pattern.at  # its place is that of the circle's centre
        if isinstance(self.pattern, Places) and self.many > 1:
            return found | self._from_datum()
        if self.beside is not None:
            low, high = sorted((self.beside, x))
            found["pitch"] = Dimension("x", low, high, (y, 0.0))
        if self.block is not None and self.face in ("top", "bottom"):
            long, wide, _ = self.block if self.from_centre else (0.0, 0.0, 0.0)
            left, right = sorted((long / 2, x))
            low, high = sorted((wide / 2, y))
            found["from_side"] = Dimension("x", left, right, (y, 0.0))
            found["from_front"] = Dimension("y", low, high, (x, 0.0))
        elif self.block is not None:
            level = self.block[2] if self.from_centre else 0.0
            low, high = sorted((level / 2, y))
            found["from_front"] = Dimension("z", low, high)
            sideways = self.face in ("left", "right")
            end = self.block[1 if sideways else 0] if self.from_centre else 0.0
            low, high = sorted((end / 2, x))
            found["from_side"] = Dimension("y" if sideways else "x", low, high)
        return found

    def _from_datum(self) -> dict[str, Dimension]:
        """A line for the place of each hole, along and across its face."""
        size, flat = self.block or (0.0, 0.0, 0.0), self.face in ("top", "bottom")
        named = zip(("from_side", "from_front"), FACE_AXES[self.face], strict=False)
        found = {}
        for way, (measure, axis) in enumerate(named):
            zero = size["xyz".index(axis)] / 2 if self.from_centre else 0.0
            offs = {round(place[way] - zero, 6) for place in self.points}
            for n, place in enumerate(self.points, 1):
                off = place[way] - zero
                if off < 0 and round(-off, 6) in offs:
                    continue  # as far to the other side of the middle: told there
                low, high = sorted((zero, zero + off))
                beside = (place[1 - way] if flat else 0.0, 0.0)
                found[f"{measure}{n}"] = Dimension(axis, low, high, beside)
        return found


def least_turn(angles: Sequence[float], others: Sequence[float]) -> float:
    """The least turn from one of some angles to one of the others, degrees."""
    between = ((a - b) % 360 for a in angles for b in others)
    return round(min(min(turn, 360 - turn) for turn in between), 2)


class CrossHoles(Feature, frozen=True):
    """Holes into a turned piece from its side, evenly round it from an angle on."""

    z: float
    diameter: float  # of the round they start on
    hole: Hole
    through: float
    count: int = 1
    angle: float = 90.0
    # end_at, beside: stations that its place is said from, of an end and a neighbour
    end_at: float = 0.0
    beside: float | None = None
    apart: float = 0.0  # degrees from one to the next, on both sides of the angle

    @property
    def many(self) -> int:
        """Number of holes."""
        return self.count

    @property
    def angles(self) -> list[float]:
        if not self.apart:
            return even_angles(self.count, self.angle)
        first = self.angle - self.apart * (self.count - 1) / 2
        return [first + n * self.apart for n in range(self.count)]

    def as_drilled(self) -> Feature:
        return msgspec.structs.replace(self, hole=self.hole.drilled)

    def cuts(self) -> tuple[Cut, ...]:
        profile = self.hole.profile(self.through)
        half = self.hole.square / 2
        deep = self.hole.depth or self.through + PAST
        frames = [
            across_axis(self.z, angle, self.diameter / 2) for angle in self.angles
        ]
        square: tuple[Cut, ...] = tuple(
            Sunk(frame, rectangle(-half, -half, half, half), -10.0, deep)
            for frame in (frames if half else ())
        )
        return square + tuple(Drilled(frame, (0.0, 0.0), profile) for frame in frames)

    def faces(self) -> dict[str, Face]:
        kind = "thread" if self.hole.thread else "hole"
        return {
            self.name: Face(
                kind, {"diameter": self.hole.diameter, "count": self.count}, True
            )
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        places = {"from_end": self.end_at, "pitch": self.beside}
        along = {
            key: along_axis(at, self.z, radius)
            for key, at in places.items()
            if at is not None
        }
        said = ("diameter", "thread", "depth", "count", "reamed", "start")
        return along | dict.fromkeys(said, Dimension("hole", self.z, self.z, radius))
