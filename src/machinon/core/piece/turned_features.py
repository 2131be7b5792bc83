"""Features that are turned: ends, diameters, tapers, threads, grooves, bores."""

import math
from typing import Literal

import msgspec

from machinon.core.piece.feature import (
    POINT,
    Dimension,
    Face,
    Feature,
    Side,
    along_axis,
)
from machinon.core.piece.solid_cuts import Cut, Point, Turned, ring
from machinon.core.setting_out.ball_turning import middle_to_neck
from machinon.core.setting_out.cones import cone_depth
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import Thread, thread_of

RUN_OUT = 0.6  # of a pitch: depth of a run-out groove below the thread's root

ARC = 12  # straight pieces that a quarter of a round edge is drawn by


class End(Feature, frozen=True):
    """A faced end; everything beyond it is taken off."""

    z: float
    side: Side
    # the station of the other end, where the whole length is said
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
        return {"length": along_axis(self.z, self.other)}

    def leaving(self, metal: float) -> Feature:
        out = -metal if self.side == "left" else metal
        return msgspec.structs.replace(self, z=self.z + out)


class Cylinder(Feature, frozen=True):
    """An outside diameter between two stations."""

    start: float
    end: float
    diameter: float
    along: str = "length"  # what its length is called
    # the end at which it has a shoulder, that of the larger neighbour
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


class BarAsItIs(Cylinder, frozen=True):
    """A stretch of round bar that no tool comes to, called by what it is across."""

    def dimensions(self) -> dict[str, Dimension]:
        found = super().dimensions()
        return {**found, "across": found["diameter"]}


class Sloping(Feature, frozen=True):
    """A taper or cone between two stations."""

    start: float
    end: float
    start_diameter: float
    end_diameter: float
    taper: str = ""  # its name where it has one

    @property
    def widens(self) -> float:
        """Change of diameter for each mm to the right."""
        return (self.end_diameter - self.start_diameter) / (self.end - self.start)

    @property
    def large(self) -> float:
        """Diameter of its larger end."""
        return max(self.start_diameter, self.end_diameter)

    @property
    def half_angle(self) -> float:
        """Degrees: that of its name, else between its ends."""
        if self.taper:
            return taper_of(self.taper).half_angle
        falls = abs(self.end_diameter - self.start_diameter)
        return math.degrees(math.atan(falls / 2 / (self.end - self.start)))

    @property
    def ends(self) -> tuple[float, float]:
        """The stations of the larger and of the smaller end."""
        if self.start_diameter == self.large:
            return self.start, self.end
        return self.end, self.start

    def _slope(self, inside: bool) -> dict[str, Face]:
        half = math.degrees(
            math.atan2(
                self.end_diameter - self.start_diameter, 2 * (self.end - self.start)
            )
        )
        at = {"diameter": self.large, "half_angle": half}
        return {self.name: Face("cone", at, inside)}


class Cone(Sloping, frozen=True):
    """An outside taper or cone."""

    def cuts(self) -> tuple[Cut, ...]:
        far = 10_000.0
        a, b = self.start_diameter / 2, self.end_diameter / 2
        return (
            Turned(
                ((self.start, a), (self.end, b), (self.end, far), (self.start, far))
            ),
        )

    def faces(self) -> dict[str, Face]:
        return self._slope(inside=False)

    def dimensions(self) -> dict[str, Dimension]:
        large, (at, small) = self.large, self.ends
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


class Ball(Feature, frozen=True):
    """A ball between two stations."""

    start: float
    end: float
    diameter: float
    left: float = 0.0  # its necks there; 0 for its tip
    right: float = 0.0  # its necks there; 0 for its tip

    @property
    def sides(self) -> tuple[float, float]:
        """Distance to either side of its middle, to its necks or its tip."""
        ball = self.diameter
        return middle_to_neck(ball, self.left), middle_to_neck(ball, self.right)

    @property
    def z(self) -> float:
        """Its middle."""
        return self.start + self.sides[0]

    def at(self, z: float) -> float:
        """Its diameter at a station."""
        off = min(abs(z - self.z), self.diameter / 2)
        thick = math.sqrt(self.diameter**2 - (2 * off) ** 2)
        return max(thick, self.left if z < self.z else self.right)

    def holds(self, z: float, r: float) -> bool:
        """Whether a point lies on its round between its necks, where no edge is seen;
        none is where a round of its own diameter joins it."""
        left, right = self.sides
        between = self.z - left + 1e-6 < z < self.z + right - 1e-6
        return (between or abs(z - self.z) < 1e-6) and abs(r - self.at(z) / 2) < 1e-3

    def cuts(self) -> tuple[Cut, ...]:
        far, radius = 10_000.0, self.diameter / 2
        left, right = self.sides
        right = min(right, self.end - self.z)
        first, last = (math.asin(x / radius) for x in (-left, right))
        top = min(last, 0.0)  # its middle, where it is as wide as it is said to be
        turns = [first + (top - first) * i / ARC for i in range(ARC)]
        turns += [top + (last - top) * i / ARC for i in range(ARC + 1)]
        over = [(self.z + radius * math.sin(t), radius * math.cos(t)) for t in turns]
        over.append((self.end, max(over[-1][1], self.right / 2)))
        return (Turned((*over, (self.end, far), (self.start, far))),)

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("ball", {"diameter": self.diameter})}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "diameter": Dimension("diameter", self.z, self.z, radius),
            "length": Dimension("along", self.start, self.end, radius),
        }

    def leaving(self, metal: float) -> Feature:
        """The blank that it is turned from."""
        wide = self.diameter + 2 * metal
        return Cylinder(self.name, self.start, self.end, wide)


class Screw(Feature, frozen=True):
    """An outside thread."""

    start: float
    end: float
    thread: str
    runs_out: Literal["left", "right", ""] = ""  # the end that has its run-out groove
    end_at: float | None = None  # the station of the end that its place is said from

    @property
    def of(self) -> Thread:
        return thread_of(self.thread)

    @property
    def groove(self) -> float:
        """Diameter of the run-out groove."""
        return self.of.minor_external - 0.2 * self.of.pitch

    @property
    def groove_width(self) -> float:
        return min(2.0 * self.of.pitch, (self.end - self.start) / 3)

    def cuts(self) -> tuple[Cut, ...]:
        taken = [ring(self.start, self.end, self.of.major / 2)]
        if self.runs_out:
            wide = self.groove_width
            a, b = (
                (self.start, self.start + wide)
                if self.runs_out == "left"
                else (self.end - wide, self.end)
            )
            taken.append(ring(a, b, self.groove / 2))
        return tuple(taken)

    def faces(self) -> dict[str, Face]:
        thread = self.of
        return {
            self.name: Face("thread", {"diameter": thread.major, "pitch": thread.pitch})
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.of.major / 2, 0.0)
        told = {
            "thread": Dimension("diameter", self.start, self.end, radius),
            "length": Dimension("along", self.start, self.end, radius),
        }
        if self.end_at is not None:
            near = min(self.start, self.end, key=lambda z: abs(z - (self.end_at or 0)))
            told["from_end"] = along_axis(self.end_at, near, radius)
        return told


class Groove(Feature, frozen=True):
    """A groove turned round the outside, or in a bore."""

    start: float
    end: float
    diameter: float
    inside: bool = False
    end_at: float = 0.0  # the station of the end that its place is said from

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
            "from_end": along_axis(self.end_at, self.start, radius, self.inside),
        }


class Bevel(Feature, frozen=True):
    """An edge broken at a station: leg along the axis, at an angle to it."""

    z: float
    diameter: float
    leg: float
    side: Side
    inside: bool = False
    angle: float = 45.0

    @property
    def rise(self) -> float:
        """Height of its face on the radius, mm."""
        return self.leg * math.tan(math.radians(self.angle))

    @property
    def middle(self) -> Point:
        """The middle of its face: station and radius, mm."""
        into = self.leg if self.side == "left" else -self.leg
        up = self.rise if self.inside else -self.rise
        return self.z + into / 2, self.diameter / 2 + up / 2

    def cuts(self) -> tuple[Cut, ...]:
        into = self.leg if self.side == "left" else -self.leg
        rise, r = self.rise, self.diameter / 2
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

    def dimensions(self) -> dict[str, Dimension]:
        said = Dimension("hole", self.z, self.z, (self.diameter / 2, 0.0))
        return dict.fromkeys(("leg", "end", "of", "angle"), said)


class EdgeRound(Feature, frozen=True):
    """An outer edge rounded to a radius, tangent to face and round."""

    z: float
    diameter: float
    radius: float
    side: Side

    @property
    def out(self) -> float:
        """The way out of the face: 1 to the right, -1 to the left."""
        return 1.0 if self.side == "right" else -1.0

    @property
    def centre(self) -> Point:
        """The middle of its arc, (z, r)."""
        return self.z - self.out * self.radius, self.diameter / 2 - self.radius

    def at(self, angle: float) -> Point:
        """A point of its arc, from the face at 0° to the round at 90°."""
        (z, r), turn = self.centre, math.radians(angle)
        along, up = self.radius * math.cos(turn), self.radius * math.sin(turn)
        return z + self.out * along, r + up

    def holds(self, z: float, r: float) -> bool:
        """Whether a point lies on its arc, where no edge is seen."""
        cz, cr = self.centre
        off = math.hypot(z - cz, r - cr) - self.radius
        return abs(off) < 1e-3 and (z - cz) * self.out > -1e-6 and r > cr - 1e-6

    def cuts(self) -> tuple[Cut, ...]:
        arc = [self.at(90.0 * i / ARC) for i in range(ARC + 1)]
        past = self.z + self.out * 1e-6  # over the face
        far = self.diameter / 2 + self.radius
        return (Turned(((past, arc[0][1]), *arc, (arc[-1][0], far), (past, far))),)

    def faces(self) -> dict[str, Face]:
        sizes = {"diameter": self.diameter, "radius": self.radius}
        return {self.name: Face("round", sizes)}

    def dimensions(self) -> dict[str, Dimension]:
        z, r = self.at(45.0)
        return dict.fromkeys(("radius", "end"), Dimension("hole", z, z, (r, 0.0)))


class Bore(Feature, frozen=True):
    """A round hole along the axis, bored or drilled."""

    start: float
    end: float
    diameter: float
    along: str = "depth"
    opens: Literal["left", "right", "both"] = "both"
    pointed: bool = False  # the end of a drill

    @property
    def point(self) -> float:
        """How far the point of its drill goes past its depth."""
        return cone_depth(self.diameter, POINT) if self.pointed else 0.0

    @property
    def drilled(self) -> tuple[float, float]:
        """Start and end of what it takes at the axis, the drill's point with it."""
        if self.opens == "left":
            return self.start, self.end + self.point
        return self.start - self.point, self.end

    def cuts(self) -> tuple[Cut, ...]:
        r = self.diameter / 2
        if not self.pointed:
            return (ring(self.start, self.end, 0.0, r),)
        first, last = self.drilled
        points = ((first, 0.0), (last, 0.0), (self.end, r), (self.start, r))
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


class TaperBore(Sloping, frozen=True):
    """An inside taper."""

    def cuts(self) -> tuple[Cut, ...]:
        a, b = self.start_diameter / 2, self.end_diameter / 2
        return (
            Turned(
                ((self.start, 0.0), (self.end, 0.0), (self.end, b), (self.start, a))
            ),
        )

    def faces(self) -> dict[str, Face]:
        return self._slope(inside=True)

    def dimensions(self) -> dict[str, Dimension]:
        large, (at, _) = self.large, self.ends
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
    """An inside thread in a bore."""

    start: float
    end: float
    thread: str
    bore: float  # as it is before threading
    # before, beyond: mm that its drill goes further than its start and its end, for the
    # tap to run out
    before: float = 0.0
    beyond: float = 0.0
    threaded: bool = True  # not yet, where only its hole is there

    @property
    def of(self) -> Thread:
        return thread_of(self.thread)

    def cuts(self) -> tuple[Cut, ...]:
        first, last = self.drilled
        return (ring(first, last, 0.0, self.bore / 2),)

    def shows(self) -> tuple[Cut, ...]:
        if not self.threaded:
            return self.cuts()
        return (ring(self.start, self.end, 0.0, self.of.major / 2),)

    def as_drilled(self) -> Feature:
        return msgspec.structs.replace(self, threaded=False)

    @property
    def drilled(self) -> tuple[float, float]:
        """Start and end of its drill's travel."""
        return self.start - self.before, self.end + self.beyond

    @property
    def hole(self) -> Bore:
        """What is drilled and bored for it, before the thread is cut."""
        return Bore(self.name, *self.drilled, self.bore)

    def faces(self) -> dict[str, Face]:
        thread = self.of
        return {
            self.name: Face(
                "thread", {"diameter": thread.major, "pitch": thread.pitch}, True
            )
        }

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.of.major / 2, 0.0)
        return {
            "thread": Dimension("diameter", self.start, self.end, radius, True),
            "length": Dimension("along", self.start, self.end, radius, True),
            "depth": Dimension("along", self.start, self.end, radius, True),
            "drilled": Dimension("along", *self.drilled, radius, True),
        }

    def leaving(self, metal: float) -> Feature:
        return msgspec.structs.replace(self, bore=max(self.bore - 2 * metal, 0.0))


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

    @property
    def depth(self) -> float:
        """How deep its cone goes."""
        return cone_depth(self.mouth, 60)

    def cuts(self) -> tuple[Cut, ...]:
        into = self.depth if self.side == "left" else -self.depth
        return (
            Turned(((self.z, 0.0), (self.z + into, 0.0), (self.z, self.mouth / 2))),
        )

    def faces(self) -> dict[str, Face]:
        return {
            self.name: Face("cone", {"diameter": self.mouth, "half_angle": 30.0}, True)
        }

    def dimensions(self) -> dict[str, Dimension]:
        said = Dimension("hole", self.z, self.z, (self.mouth / 2, 0.0))
        return dict.fromkeys(("mouth", "end"), said)


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
            "from_end": Dimension("along", 0.0, self.start, radius),
        }
