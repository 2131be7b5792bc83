"""Features: what a cut leaves on a piece, each with a name that never changes.

A feature knows where it lies, what it takes out of the body, which faces it leaves,
and how each of its measures is dimensioned. Sizes are mm and degrees; stations along
a turned piece are z, from its left end.
"""

import math
from collections.abc import Mapping
from typing import Literal, TypeAlias

import msgspec
from msgspec import Struct

from machinon.core.piece.solid_cuts import (
    Cut,
    Drilled,
    Frame,
    Point,
    Sunk,
    Turned,
    across_axis,
    arc,
    block_face,
    end_of,
    rectangle,
    ring,
)
from machinon.core.setting_out.bolt_circle import hole_points
from machinon.core.threads.screw_thread import Thread, thread_of

Side = Literal["left", "right"]
BlockFace = Literal["top", "bottom", "front", "back", "left", "right"]
POINT = 118.0  # degrees: the point of a drill
PAST = 1.0  # mm that a through hole goes past the last metal
RUN_OUT = 0.6  # of a pitch: depth of a run-out groove below the thread's root


class Face(Struct, frozen=True):
    """A face that a feature leaves.

    kind: cylinder, cone, plane, thread, hole or slot; at: its figures, by measure.
    inside: whether the metal lies outside of it.
    """

    kind: str
    at: Mapping[str, float]
    inside: bool = False


class Dimension(Struct, frozen=True):
    """How a measure is dimensioned.

    kind: "diameter" of what turns (start and end are its stations), "along" a turned
    piece, "x", "y" or "z" of a block, "hole" for what is written at a hole. start, end:
    where it is taken; at: the other places of a block's line, or the radius.
    """

    kind: Literal["diameter", "along", "x", "y", "z", "hole"]
    start: float
    end: float
    at: tuple[float, float] = (0.0, 0.0)
    inside: bool = False


def _along(
    a: float, b: float, at: tuple[float, float] = (0.0, 0.0), inside: bool = False
) -> Dimension:
    """A length along the axis between two stations, whichever comes first."""
    return Dimension("along", min(a, b), max(a, b), at, inside)


class Feature(msgspec.Struct, frozen=True, tag=True):
    """One thing that a cut leaves."""

    name: str

    @property
    def kind(self) -> str:
        """Its kind in plain words: `taper bore`."""
        name = type(self).__name__
        return "".join(f" {c.lower()}" if c.isupper() else c for c in name).strip()

    def cuts(self) -> tuple[Cut, ...]:
        """What it takes out of the body."""
        raise NotImplementedError

    def faces(self) -> dict[str, Face]:
        """The faces it leaves, by name."""
        raise NotImplementedError

    def dimensions(self) -> dict[str, Dimension]:
        """How each of its measures is dimensioned."""
        return {}

    def leaving(self, metal: float) -> "Feature":
        """The same with metal left on it for a later cut, mm to a side."""
        return self

    def as_drilled(self) -> "Feature":
        """The same as its drill leaves it, before it is tapped or counterbored."""
        return self


# -- what turns ------------------------------------------------------------


class End(Feature, frozen=True):
    """A faced end; everything beyond it is taken off. other: the station of the other
    end, where the whole length is said."""

    z: float
    side: Side
    other: float | None = None

    def cuts(self) -> tuple[Cut, ...]:
        far = 10_000.0
        if self.side == "left":
            return (ring(-far, self.z, 0.0),)
        return (ring(self.z, far, 0.0),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"z": self.z})}

    def dimensions(self) -> dict[str, Dimension]:
        if self.other is None:
            return {}
        return {"length": _along(self.z, self.other)}

    def leaving(self, metal: float) -> Feature:
        out = -metal if self.side == "left" else metal
        return msgspec.structs.replace(self, z=self.z + out)


class Cylinder(Feature, frozen=True):
    """An outside diameter between two stations. along: what its length is called;
    shoulder: the end at which it has a shoulder, that of the larger neighbour."""

    start: float
    end: float
    diameter: float
    along: str = "length"
    shoulder: Literal["left", "right", ""] = ""

    def cuts(self) -> tuple[Cut, ...]:
        return (ring(self.start, self.end, self.diameter / 2),)

    def faces(self) -> dict[str, Face]:
        found = {self.name: Face("cylinder", {"diameter": self.diameter})}
        if self.shoulder:
            z = self.start if self.shoulder == "left" else self.end
            found[f"{self.name}.shoulder"] = Face("plane", {"z": z})
        return found

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "diameter": Dimension("diameter", self.start, self.end, radius),
            self.along: Dimension("along", self.start, self.end, radius),
        }

    def leaving(self, metal: float) -> Feature:
        out = {"left": (metal, 0.0), "right": (0.0, -metal), "": (0.0, 0.0)}
        left, right = out[self.shoulder]
        return msgspec.structs.replace(
            self,
            diameter=self.diameter + 2 * metal,
            start=self.start + left,
            end=self.end + right,
        )


class Cone(Feature, frozen=True):
    """An outside taper or cone; taper: its name where it has one."""

    start: float
    end: float
    start_diameter: float
    end_diameter: float
    taper: str = ""

    def cuts(self) -> tuple[Cut, ...]:
        far = 10_000.0
        a, b = self.start_diameter / 2, self.end_diameter / 2
        return (
            Turned(
                ((self.start, a), (self.end, b), (self.end, far), (self.start, far))
            ),
        )

    def faces(self) -> dict[str, Face]:
        half = math.degrees(
            math.atan2(
                self.end_diameter - self.start_diameter, 2 * (self.end - self.start)
            )
        )
        large = max(self.start_diameter, self.end_diameter)
        return {self.name: Face("cone", {"diameter": large, "half_angle": half})}

    def dimensions(self) -> dict[str, Dimension]:
        large = max(self.start_diameter, self.end_diameter)
        at = self.start if self.start_diameter == large else self.end
        small = self.end if at == self.start else self.start
        return {
            "diameter": Dimension("diameter", at, at, (large / 2, 0.0)),
            "large": Dimension("diameter", at, at, (large / 2, 0.0)),
            "small": Dimension(
                "diameter",
                small,
                small,
                (min(self.start_diameter, self.end_diameter) / 2, 0.0),
            ),
            "left": Dimension(
                "diameter", self.start, self.start, (self.start_diameter / 2, 0.0)
            ),
            "right": Dimension(
                "diameter", self.end, self.end, (self.end_diameter / 2, 0.0)
            ),
            "length": Dimension("along", self.start, self.end, (large / 2, 0.0)),
            **dict.fromkeys(
                ("taper", "rise", "half_angle"),
                Dimension("hole", self.start, self.end, (large / 2, 0.0)),
            ),
        }

    def leaving(self, metal: float) -> Feature:
        return msgspec.structs.replace(
            self,
            start_diameter=self.start_diameter + 2 * metal,
            end_diameter=self.end_diameter + 2 * metal,
        )


class Screw(Feature, frozen=True):
    """An outside thread. runs_out: the end that has its run-out groove."""

    start: float
    end: float
    thread: str
    runs_out: Literal["left", "right", ""] = ""

    @property
    def of(self) -> Thread:
        return thread_of(self.thread)

    @property
    def groove(self) -> float:
        """Diameter of the run-out groove."""
        return self.of.minor_external - 0.2 * self.of.pitch

    def cuts(self) -> tuple[Cut, ...]:
        taken = [ring(self.start, self.end, self.of.major / 2)]
        if self.runs_out:
            wide = min(2.0 * self.of.pitch, (self.end - self.start) / 3)
            a, b = (
                (self.start, self.start + wide)
                if self.runs_out == "left"
                else (self.end - wide, self.end)
            )
            taken.append(ring(a, b, self.groove / 2))
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        one = self.of
        return {self.name: Face("thread", {"diameter": one.major, "pitch": one.pitch})}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.of.major / 2, 0.0)
        return {
            "thread": Dimension("diameter", self.start, self.end, radius),
            "length": Dimension("along", self.start, self.end, radius),
        }


class Groove(Feature, frozen=True):
    """A groove turned round the outside, or in a bore. end_at: the station of the end
    that its place is said from."""

    start: float
    end: float
    diameter: float
    inside: bool = False
    end_at: float = 0.0

    def cuts(self) -> tuple[Cut, ...]:
        if self.inside:
            return (ring(self.start, self.end, 0.0, self.diameter / 2),)
        return (ring(self.start, self.end, self.diameter / 2),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("cylinder", {"diameter": self.diameter}, self.inside)}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "diameter": Dimension(
                "diameter", self.start, self.end, radius, self.inside
            ),
            "width": Dimension("along", self.start, self.end, radius, self.inside),
            "from_end": _along(self.end_at, self.start, radius, self.inside),
        }


class Bevel(Feature, frozen=True):
    """An edge broken at a station: leg along the axis, at an angle to it."""

    z: float
    diameter: float
    leg: float
    side: Side
    inside: bool = False
    angle: float = 45.0

    def cuts(self) -> tuple[Cut, ...]:
        into = self.leg if self.side == "left" else -self.leg
        rise = self.leg * math.tan(math.radians(self.angle))
        r = self.diameter / 2
        far = 0.0 if self.inside else r + rise
        top = r + rise if self.inside else r - rise
        past = self.z - (1 if self.side == "left" else -1) * 1e-6
        if self.inside:
            return (
                Turned(
                    ((past, far), (self.z + into, far), (self.z + into, r), (past, top))
                ),
            )
        return (
            Turned(
                ((past, top), (self.z + into, r), (self.z + into, far), (past, far))
            ),
        )

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face(
                "cone",
                {"diameter": self.diameter, "half_angle": self.angle},
                self.inside,
            )
        }


class Bore(Feature, frozen=True):
    """A round hole along the axis, bored or drilled; pointed: the end of a drill."""

    start: float
    end: float
    diameter: float
    along: str = "depth"
    opens: Literal["left", "right", "both"] = "both"
    pointed: bool = False

    def cuts(self) -> tuple[Cut, ...]:
        r = self.diameter / 2
        if not self.pointed:
            return (ring(self.start, self.end, 0.0, r),)
        tip = r / math.tan(math.radians(POINT / 2))
        if self.opens == "left":
            points = (
                (self.start, 0.0),
                (self.end + tip, 0.0),
                (self.end, r),
                (self.start, r),
            )
        else:
            points = (
                (self.start - tip, 0.0),
                (self.end, 0.0),
                (self.end, r),
                (self.start, r),
            )
        return (Turned(points),)

    def faces(self) -> dict[str, Face]:
        found = {self.name: Face("cylinder", {"diameter": self.diameter}, True)}
        if self.opens != "both":
            z = self.end if self.opens == "left" else self.start
            found[f"{self.name}.floor"] = Face("plane", {"z": z})
        return found

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "diameter": Dimension("diameter", self.start, self.end, radius, True),
            self.along: Dimension("along", self.start, self.end, radius, True),
        }

    def leaving(self, metal: float) -> Feature:
        return msgspec.structs.replace(
            self, diameter=max(self.diameter - 2 * metal, 0.0)
        )


class TaperBore(Feature, frozen=True):
    """An inside taper between two stations."""

    start: float
    end: float
    start_diameter: float
    end_diameter: float
    taper: str = ""

    def cuts(self) -> tuple[Cut, ...]:
        a, b = self.start_diameter / 2, self.end_diameter / 2
        return (
            Turned(
                ((self.start, 0.0), (self.end, 0.0), (self.end, b), (self.start, a))
            ),
        )

    def faces(self) -> dict[str, Face]:
        half = math.degrees(
            math.atan2(
                self.end_diameter - self.start_diameter, 2 * (self.end - self.start)
            )
        )
        large = max(self.start_diameter, self.end_diameter)
        return {self.name: Face("cone", {"diameter": large, "half_angle": half}, True)}

    def dimensions(self) -> dict[str, Dimension]:
        large = max(self.start_diameter, self.end_diameter)
        at = self.start if self.start_diameter == large else self.end
        mouth = Dimension("diameter", at, at, (large / 2, 0.0), True)
        deep = Dimension("along", self.start, self.end, (large / 2, 0.0), True)
        said = Dimension("hole", self.start, self.end, (large / 2, 0.0), True)
        return {
            **dict.fromkeys(("diameter", "large", "mouth"), mouth),
            **dict.fromkeys(("length", "depth"), deep),
            **dict.fromkeys(("taper", "half_angle"), said),
        }

    def leaving(self, metal: float) -> Feature:
        return msgspec.structs.replace(
            self,
            start_diameter=max(self.start_diameter - 2 * metal, 0.0),
            end_diameter=max(self.end_diameter - 2 * metal, 0.0),
        )


class NutThread(Feature, frozen=True):
    """An inside thread in a bore; bore: as it is before threading."""

    start: float
    end: float
    thread: str
    bore: float

    @property
    def of(self) -> Thread:
        return thread_of(self.thread)

    def cuts(self) -> tuple[Cut, ...]:
        return (ring(self.start, self.end, 0.0, self.bore / 2),)

    def faces(self) -> dict[str, Face]:
        one = self.of
        return {
            self.name: Face("thread", {"diameter": one.major, "pitch": one.pitch}, True)
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.of.major / 2, 0.0)
        return {
            "thread": Dimension("diameter", self.start, self.end, radius, True),
            "length": Dimension("along", self.start, self.end, radius, True),
            "depth": Dimension("along", self.start, self.end, radius, True),
        }


class FaceGroove(Feature, frozen=True):
    """A groove or recess turned into an end face."""

    z: float
    side: Side
    inner: float
    outer: float
    depth: float

    def cuts(self) -> tuple[Cut, ...]:
        far = -10_000.0 if self.side == "left" else 10_000.0
        into = self.depth if self.side == "left" else -self.depth
        a, b = sorted((far, self.z + into))
        return (ring(a, b, self.inner / 2, self.outer / 2),)

    def faces(self) -> dict[str, Face]:
        into = self.depth if self.side == "left" else -self.depth
        return {
            self.name: Face("cylinder", {"diameter": self.outer}, True),
            f"{self.name}.floor": Face("plane", {"z": self.z + into}),
        }

    def dimensions(self) -> dict[str, Dimension]:
        into = self.depth if self.side == "left" else -self.depth
        a, b = sorted((self.z, self.z + into))
        return {
            "inner": Dimension("diameter", a, b, (self.inner / 2, 0.0)),
            "outer": Dimension("diameter", a, b, (self.outer / 2, 0.0), True),
            "depth": Dimension("along", a, b, (self.outer / 2, 0.0), True),
        }


class Centre(Feature, frozen=True):
    """A centre hole in an end: 60°, its mouth as wide as said."""

    z: float
    side: Side
    mouth: float

    def cuts(self) -> tuple[Cut, ...]:
        deep = self.mouth / 2 / math.tan(math.radians(30))
        into = deep if self.side == "left" else -deep
        return (
            Turned(((self.z, 0.0), (self.z + into, 0.0), (self.z, self.mouth / 2))),
        )

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("cone", {"diameter": self.mouth, "half_angle": 30.0}, True)
        }


class Flats(Feature, frozen=True):
    """Flats round a turned piece: 2, 4 or 6 of them, or one; across: over two."""

    start: float
    end: float
    across: float
    count: int

    def cuts(self) -> tuple[Cut, ...]:
        out = self.across / 2
        long = self.end - self.start
        taken = []
        for i in range(self.count):
            frame = across_axis(self.start, 360.0 * i / self.count, out)
            taken.append(
                Sunk(frame, rectangle(0, -10_000, long, 10_000), -10_000.0, 0.0)
            )
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"across": self.across})}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.across / 2, 0.0)
        return {
            "length": Dimension("along", self.start, self.end, radius),
            "from_end": Dimension("along", 0.0, self.start, radius),
            "across": Dimension("hole", self.start, self.end, radius),
            "count": Dimension("hole", self.start, self.end, radius),
        }


class Slits(Feature, frozen=True):
    """Saw cuts along the axis from an end, evenly round it, each to the middle."""

    start: float
    end: float
    diameter: float
    width: float
    count: int

    def cuts(self) -> tuple[Cut, ...]:
        long, half, deep = self.end - self.start, self.width / 2, self.diameter / 2
        return tuple(
            Sunk(
                across_axis(self.start, 90.0 + 360.0 * i / self.count, deep),
                rectangle(0, -half, long, half),
                -10.0,
                deep,
            )
            for i in range(self.count)
        )

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("slot", {"width": self.width}, True)}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "length": Dimension("along", self.start, self.end, radius),
            "width": Dimension("hole", self.start, self.end, radius),
            "count": Dimension("hole", self.start, self.end, radius),
        }


class Knurl(Feature, frozen=True):
    """A knurled length of a round: pitch from crest to crest round it, crossed at 30°
    or straight. It is drawn at the diameter that it is turned to before."""

    start: float
    end: float
    diameter: float
    pitch: float
    crossed: bool = True

    def cuts(self) -> tuple[Cut, ...]:
        return ()  # it is rolled, not cut

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("cylinder", {"diameter": self.diameter})}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "pitch": Dimension("hole", self.start, self.end, radius),
            "length": Dimension("along", self.start, self.end, radius),
        }


class Keyway(Feature, frozen=True):
    """A keyway along a shaft or a bore: depth from the surface at its middle."""

    start: float
    end: float
    diameter: float
    width: float
    depth: float
    inside: bool = False
    angle: float = 90.0

    def cuts(self) -> tuple[Cut, ...]:
        long = self.end - self.start
        half = self.width / 2
        frame = across_axis(self.start, self.angle, self.diameter / 2)
        outline = rectangle(0, -half, long, half)
        if self.inside:
            return (Sunk(frame, outline, -self.depth, self.diameter / 2),)
        return (Sunk(frame, outline, -10.0, self.depth),)

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("slot", {"width": self.width, "depth": self.depth}, True)
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "length": Dimension("along", self.start, self.end, radius),
            "from_end": Dimension("along", 0.0, self.start, radius),
            "width": Dimension("hole", self.start, self.end, radius),
            "depth": Dimension("hole", self.start, self.end, radius),
        }


# -- holes, in whatever they are -------------------------------------------


class Hole(msgspec.Struct, frozen=True):
    """A hole as it is drilled: through, or `depth` deep to its shoulder.

    thread: tapped with it (diameter is then the drill); bore, bore_depth: of its
    counterbore; sink: mouth of its countersink, 90°; ream: to size after drilling;
    ball: a recess as deep as `depth` by a ball-ended cutter of the diameter; square:
    across the flats that it is broached to, from the side of a round alone.
    """

    diameter: float
    depth: float | None = None
    thread: str = ""
    thread_depth: float = 0.0
    bore: float = 0.0
    bore_depth: float = 0.0
    sink: float = 0.0
    ream: bool = False
    flat: bool = False  # its floor is flat: bored or milled
    ball: bool = False
    square: float = 0.0

    @property
    def rim(self) -> float:
        """Across its mouth: of a ball's recess less than the ball."""
        if not self.ball or self.depth is None or self.depth >= self.diameter / 2:
            return self.diameter
        return 2 * math.sqrt(self.depth * (self.diameter - self.depth))

    @property
    def mouth(self) -> tuple[Point, ...]:
        """Its edge in the face, about its middle, from the right down and round."""
        if self.square:
            h = self.square / 2
            return (h, 0), (h, -h), (-h, -h), (-h, 0), (-h, h), (h, h), (h, 0)
        r = max(self.rim, self.bore, self.sink) / 2
        turns = [-math.tau * i / 24 for i in range(25)]
        return tuple((r * math.cos(turn), r * math.sin(turn)) for turn in turns)

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
        if self.depth is None:
            return (*down, (through + PAST, r))
        tip = 0.0 if self.flat else r / math.tan(math.radians(POINT / 2))
        return (*down, (self.depth, r), (self.depth + tip, 0.0))

    @property
    def drilled(self) -> "Hole":
        """As its drill leaves it."""
        return msgspec.structs.replace(
            self, thread="", bore=0.0, sink=0.0, ream=False, square=0.0
        )

    def says(self, count: int = 1) -> str:
        """As it is written at a hole: 4 × ⌀9, counterbore ⌀15 × 8.6."""
        many = f"{count} × " if count > 1 else ""
        deep = "" if self.depth is None else f" × {self.depth:g} deep"
        if self.thread:
            one = f"{many}{thread_of(self.thread).says}"
            text = one + (
                f" × {self.thread_depth:.1f} deep" if self.thread_depth else ""
            )
            text += f", drill {self.diameter:g}{deep}"
        elif self.square:
            text = f"{many}square {self.square:g}{deep}, drill {self.diameter:g}"
        elif self.ball:
            text = f"{many}ball ⌀{self.diameter:g}{deep}, ⌀{self.rim:.2f} at the rim"
        else:
            text = f"{many}⌀{self.diameter:g}{deep}" + (", reamed" if self.ream else "")
        if self.bore > self.diameter:
            text += f", counterbore ⌀{self.bore:g} × {self.bore_depth:g}"
        if self.sink > self.diameter:
            text += f", countersink ⌀{self.sink:g}"
        return text


class Circle(msgspec.Struct, frozen=True, tag="circle"):
    """Holes evenly on a circle; start: angle of the first; at: its centre."""

    count: int
    diameter: float
    start: float = 90.0
    at: Point = (0.0, 0.0)

    def points(self) -> list[Point]:
        return [
            (self.at[0] + x, self.at[1] + y)
            for x, y in hole_points(self.count, self.diameter, self.start)
        ]


class Arc(msgspec.Struct, frozen=True, tag="arc"):
    """Holes along a part of a circle; start, pitch: degrees of the first, and on to
    the next."""

    count: int
    diameter: float
    start: float
    pitch: float

    def points(self) -> list[Point]:
        turns = (math.radians(self.start + i * self.pitch) for i in range(self.count))
        r = self.diameter / 2
        return [(r * math.cos(turn), r * math.sin(turn)) for turn in turns]


class Grid(msgspec.Struct, frozen=True, tag="grid"):
    """Holes in rows; at: the first of them."""

    across: int
    up: int
    pitch_across: float
    pitch_up: float
    at: Point = (0.0, 0.0)

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


Pattern: TypeAlias = Circle | Arc | Grid | Places


class Holes(Feature, frozen=True):
    """Holes in a face. face: left or right of what turns (its station is `level`), or
    a face of a block whose size is `block`; through: how deep the metal is there;
    from_centre: whether its places are said from the middle of the face;
    beside: along a block, the hole that its place is said from; tilt: degrees by which
    a second pass through the same mouth leans along the face, so that it is long at
    the far end."""

    face: BlockFace
    pattern: Pattern
    hole: Hole
    through: float
    level: float = 0.0
    block: tuple[float, float, float] | None = None
    from_centre: bool = False
    beside: float | None = None
    tilt: float = 0.0

    @property
    def frame(self) -> Frame:
        if self.block is not None:
            return block_face(self.face, *self.block)
        return end_of(self.level, self.face == "left")

    @property
    def points(self) -> list[Point]:
        return self.pattern.points()

    @property
    def many(self) -> int:
        """How many holes it is."""
        return len(self.points)

    def as_drilled(self) -> Feature:
        return msgspec.structs.replace(self, hole=self.hole.drilled, tilt=0.0)

    def cuts(self) -> tuple[Cut, ...]:
        profile = self.hole.profile(self.through)
        tilts = (0.0, self.tilt) if self.tilt else (0.0,)
        return tuple(
            Drilled(self.frame, at, profile, tilt)
            for tilt in tilts
            for at in self.points
        )

    def faces(self) -> dict[str, Face]:
        kind = "thread" if self.hole.thread else "hole"
        found = {
            self.name: Face(
                kind, {"diameter": self.hole.diameter, "count": len(self.points)}, True
            )
        }
        if isinstance(self.pattern, Circle):
            at = {"diameter": self.pattern.diameter}
            found[f"{self.name}.circle"] = Face("hole", at, True)
        return found

    def dimensions(self) -> dict[str, Dimension]:
        x, y = self.points[0]
        said = ("diameter", "count", "circle", "screw", "thread", "drill", "depth")
        found = dict.fromkeys(
            (
                *said,
                *("across", "up", "kind", "pattern", "counterbore", "datum", "face"),
            ),
            Dimension("hole", 0.0, 0.0, (x, y)),
        )
        if isinstance(self.pattern, Arc):
            found["apart"] = found["circle"]
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


class CrossHoles(Feature, frozen=True):
    """Holes into a turned piece from its side, evenly round it from an angle on.

    end_at, beside: stations that its place is said from, of an end and a neighbour.
    """

    z: float
    diameter: float  # of the round they start on
    hole: Hole
    through: float
    count: int = 1
    angle: float = 90.0
    end_at: float = 0.0
    beside: float | None = None

    @property
    def many(self) -> int:
        """How many holes it is."""
        return self.count

    def as_drilled(self) -> Feature:
        return msgspec.structs.replace(self, hole=self.hole.drilled)

    def cuts(self) -> tuple[Cut, ...]:
        profile = self.hole.profile(self.through)
        half = self.hole.square / 2
        deep = self.hole.depth or self.through + PAST
        square: tuple[Cut, ...] = tuple(
            Sunk(
                across_axis(
                    self.z, self.angle + 360.0 * i / self.count, self.diameter / 2
                ),
                rectangle(-half, -half, half, half),
                -10.0,
                deep,
            )
            for i in range(self.count if half else 0)
        )
        return square + tuple(
            Drilled(
                across_axis(
                    self.z, self.angle + 360.0 * i / self.count, self.diameter / 2
                ),
                (0.0, 0.0),
                profile,
            )
            for i in range(self.count)
        )

    def faces(self) -> dict[str, Face]:
        kind = "thread" if self.hole.thread else "hole"
        return {
            self.name: Face(
                kind, {"diameter": self.hole.diameter, "count": self.count}, True
            )
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        said = {"from_end": self.end_at, "pitch": self.beside}
        along = {
            key: _along(at, self.z, radius)
            for key, at in said.items()
            if at is not None
        }
        return along | {
            "diameter": Dimension("hole", self.z, self.z, radius),
            "thread": Dimension("hole", self.z, self.z, radius),
            "depth": Dimension("hole", self.z, self.z, radius),
            "count": Dimension("hole", self.z, self.z, radius),
        }


# -- blocks ----------------------------------------------------------------


Axis: TypeAlias = Literal["x", "y", "z"]
# across and up a face as it is looked at, and into it
FACE_AXES: Mapping[BlockFace, tuple[Axis, Axis, Axis]] = {
    "top": ("x", "y", "z"),
    "bottom": ("x", "y", "z"),
    "front": ("x", "z", "y"),
    "back": ("x", "z", "y"),
    "left": ("y", "z", "x"),
    "right": ("y", "z", "x"),
}


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
    """A straight slot sunk from a face: its middle line, width and depth. rounded:
    its ends are as round as its cutter."""

    face: BlockFace
    block: tuple[float, float, float]
    a: Point
    b: Point
    width: float
    depth: float
    rounded: bool = False

    def outline(self) -> tuple[Point, ...]:
        from machinon.core.piece.solid_cuts import long_hole

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
        u, v, into = FACE_AXES[self.face]
        far = self.block["xyz".index(into)]
        low = far - self.depth if self.face in ("top", "back", "right") else 0.0
        across = self.a[0] == self.b[0]
        at, along = self.a if across else self.a[::-1]
        end = (self.b if across else self.b[::-1])[1]
        kind, other = (u, v) if across else (v, u)
        found = {
            "at": Dimension(kind, 0.0, at),
            "width": Dimension(kind, at - half, at + half),
            "depth": Dimension(into, low, low + self.depth),
        }
        if self.rounded:
            found["from_end"] = Dimension(other, 0.0, along, (at, 0.0))
            found["length"] = Dimension(other, along, end, (at, 0.0))
        return found


class Pocket(Feature, frozen=True):
    """A pocket sunk from a face, from one corner to the opposite one, its corners as
    round as its cutter; depth: None for a window right through."""

    face: BlockFace
    block: tuple[float, float, float]
    low: Point
    high: Point
    radius: float
    depth: float | None

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
        if self.face not in ("top", "bottom"):
            return {}
        (a, b), (c, d) = self.low, self.high
        found = {
            "from_side": Dimension("x", 0.0, a, (b, 0.0)),
            "length": Dimension("x", a, c, (b, 0.0)),
            "from_front": Dimension("y", 0.0, b, (a, 0.0)),
            "width": Dimension("y", b, d, (a, 0.0)),
        }
        if self.depth is not None:
            high = self.block[2]
            low = high - self.depth if self.face == "top" else 0.0
            found["depth"] = Dimension("z", low, low + self.depth)
        return found


class Rebate(Feature, frozen=True):
    """A step along an edge of a block's top: `width` in from the front or the back,
    down by `depth`."""

    side: Literal["front", "back"]
    block: tuple[float, float, float]
    width: float
    depth: float

    def cuts(self) -> tuple[Cut, ...]:
        length, wide, _ = self.block
        low, high = (
            (-PAST, self.width)
            if self.side == "front"
            else (wide - self.width, wide + PAST)
        )
        frame = block_face("top", *self.block)
        outline = rectangle(-PAST, low, length + PAST, high)
        return (Sunk(frame, outline, -PAST, self.depth),)

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("plane", {"width": self.width}),
            f"{self.name}.floor": Face("plane", {"depth": self.depth}),
        }

    def dimensions(self) -> dict[str, Dimension]:
        _, wide, high = self.block
        a, b = (0.0, self.width) if self.side == "front" else (wide - self.width, wide)
        return {
            "width": Dimension("y", a, b, (0.0, high)),
            "depth": Dimension("z", high - self.depth, high),
            "rest": Dimension("z", 0.0, high - self.depth),
            # what stands between this rebate and one like it at the other side
            "tongue": Dimension("y", self.width, wide - self.width),
        }


class FlankedSlot(Feature, frozen=True):
    """A slot whose flanks lean, along a block's top or bottom: a vee, or a dovetail.

    at: its middle, from the front or, where it runs across, from the left; mouth,
    floor: its widths; none on the floor is a vee.
    """

    face: Literal["top", "bottom"]
    block: tuple[float, float, float]
    at: float
    mouth: float
    floor: float
    depth: float
    across: bool = False

    @property
    def half_angle(self) -> float:
        """Of a flank to the middle plane, degrees."""
        return math.degrees(math.atan2(abs(self.mouth - self.floor) / 2, self.depth))

    def cuts(self) -> tuple[Cut, ...]:
        _, _, high = self.block
        end, out = (high, 1.0) if self.face == "top" else (0.0, -1.0)
        down = end - out * self.depth
        section = [
            (self.mouth, end + out * PAST),
            (self.mouth, end),
            (self.floor, down),
        ]
        outline = (
            *((self.at - wide / 2, v) for wide, v in section),
            *((self.at + wide / 2, v) for wide, v in reversed(section)),
        )
        name, long = (
            ("front", self.block[1]) if self.across else ("left", self.block[0])
        )
        return (Sunk(block_face(name, *self.block), outline, -PAST, long + PAST),)

    def faces(self) -> dict[str, Face]:
        return {
            f"{self.name}.flanks": Face(
                "plane", {"half_angle": self.half_angle, "width": self.mouth}, True
            )
        }

    def dimensions(self) -> dict[str, Dimension]:
        _, _, high = self.block
        level = high if self.face == "top" else 0.0
        a, b = self.at - self.mouth / 2, self.at + self.mouth / 2
        kind: Literal["x", "y"] = "x" if self.across else "y"
        deep = sorted((level, level + (self.depth if not level else -self.depth)))
        said = Dimension("hole", a, b, (self.at, 0.0))
        return {
            **dict.fromkeys(("mouth", "width"), Dimension(kind, a, b, (0.0, level))),
            "at": Dimension(kind, 0.0, self.at, (0.0, level)),
            "depth": Dimension("z", deep[0], deep[1]),
            **dict.fromkeys(("angle", "half_angle", "face", "pins", "runs"), said),
        }


class EdgeBevels(Feature, frozen=True):
    """The four upright edges, or those round the top, broken by a leg at 45°."""

    block: tuple[float, float, float]
    leg: float
    which: Literal["upright", "top"] = "top"

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
            return tuple(Sunk(frame, one, -PAST, height + PAST) for one in corners)
        taken = []
        for name, long, deep in (("front", length, width), ("left", width, length)):
            # seen along the edge: a triangle off both upper corners
            side = "left" if name == "front" else "front"
            frame = block_face(side, *self.block)
            for outline in (
                (
                    (-PAST, height - leg - PAST),
                    (-PAST, height + PAST),
                    (leg + PAST, height + PAST),
                ),
                (
                    (deep + PAST, height - leg - PAST),
                    (deep - leg - PAST, height + PAST),
                    (deep + PAST, height + PAST),
                ),
            ):
                taken.append(Sunk(frame, outline, -PAST, long + PAST))
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"leg": self.leg})}


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


class Slope(Feature, frozen=True):
    """The top of a block made aslant: it stands `low` high at the left end and rises
    by an angle to the right; degrees."""

    block: tuple[float, float, float]
    low: float
    angle: float

    @property
    def rise(self) -> float:
        """How much higher it stands at the right end, mm."""
        return self.block[0] * math.tan(math.radians(self.angle))

    def cuts(self) -> tuple[Cut, ...]:
        long, wide, high = self.block
        lean = self.rise / long
        over = high + PAST
        outline = (
            (-PAST, self.low - PAST * lean),
            (long + PAST, self.low + (long + PAST) * lean),
            (long + PAST, max(over, self.low + (long + PAST) * lean) + PAST),
            (-PAST, over + PAST),
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
    """A seat for something round in a block's top: part of a bore along or across it.

    at: its middle, from the front or, where it runs across, from the left; depth: up to
    half its diameter.
    """

    block: tuple[float, float, float]
    at: float
    diameter: float
    depth: float
    across: bool = False

    def cuts(self) -> tuple[Cut, ...]:
        long, wide, high = self.block
        radius = self.diameter / 2
        half = math.degrees(math.acos(max(1 - self.depth / radius, 0.0)))
        centre = (self.at, high - self.depth + radius)
        floor = arc(centre, radius, 270 - half, 270 + half)
        outline = (
            (floor[0][0], high + PAST),
            *floor,
            (floor[-1][0], high + PAST),
        )
        name, run = ("front", wide) if self.across else ("left", long)
        return (Sunk(block_face(name, *self.block), outline, -PAST, run + PAST),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("cylinder", {"diameter": self.diameter}, True)}

    def dimensions(self) -> dict[str, Dimension]:
        high = self.block[2]
        kind: Literal["x", "y"] = "x" if self.across else "y"
        said = Dimension("hole", 0.0, 0.0, (self.at, high))
        return {
            "at": Dimension(kind, 0.0, self.at, (0.0, high)),
            "depth": Dimension("z", high - self.depth, high),
            **dict.fromkeys(("diameter", "runs"), said),
        }


class Outline(Feature, frozen=True):
    """What stands outside of an outline, taken off a block from its top right down;
    points: corners and arcs, counter-clockwise; measures: what its family draws a line
    for, with how that is dimensioned."""

    block: tuple[float, float, float]
    points: tuple[Point, ...]
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
