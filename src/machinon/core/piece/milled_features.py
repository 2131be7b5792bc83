"""What is milled or sawn into a turned piece: flats, slots, slits and keyways."""

import math

from machinon.core.piece.feature import Dimension, Face, Feature
from machinon.core.piece.solid_cuts import Cut, Point, Sunk, across_axis, arc, rectangle
from machinon.core.setting_out.bolt_circle import even_angles


class Flats(Feature, frozen=True):
    """Flats evenly round a turned piece, each half of `across` from the axis."""

    start: float
    end: float
    across: float  # over two that lie opposite
    count: int
    # the round that an odd number of them is read across to, as none lies opposite
    round: float = 0.0

    @property
    def read(self) -> float:
        """What a micrometer reads: over two, or from one to the far side."""
        return (self.across + self.round) / 2 if self.count % 2 else self.across

    @property
    def says(self) -> str:
        """How it is read: `across`, `to the far side`."""
        return "to the far side" if self.count % 2 else "across"

    @property
    def angles(self) -> list[float]:
        return even_angles(self.count)

    def spans(self, radius: float) -> list[tuple[float, float]]:
        """Of each flat on a round, the turns that it begins and ends at, degrees."""
        if self.across / 2 >= radius:
            return []
        half = math.degrees(math.acos(max(self.across / 2 / radius, -1.0)))
        if self.count > 1:
            half = min(half, 180 / self.count)
        return [(turn - half, turn + half) for turn in self.angles]

    def chords(self, radius: float) -> list[tuple[Point, Point]]:
        """Each flat on a round as it is seen along the axis, from end to end."""
        found = []
        for begin, end in self.spans(radius):
            out = self.across / 2 / math.cos(math.radians(end - begin) / 2)
            turns = math.radians(begin), math.radians(end)
            a, b = ((out * math.cos(t), out * math.sin(t)) for t in turns)
            found.append((a, b))
        return found

    def section(self, radius: float) -> list[Point]:
        """The outline of a round with these flats, seen along the axis."""
        found = [point for left in self.arcs(radius) for point in left]
        return found or [a for a, _ in self.chords(radius)]

    def arcs(self, radius: float) -> list[list[Point]]:
        """What the flats leave of a round, seen along the axis."""
        spans = self.spans(radius)
        found = []
        for (_, end), (begin, _) in zip(spans, [*spans[1:], *spans[:1]], strict=True):
            until = end + (begin - end) % 360.0
            if until - end > 1e-6:
                found.append(arc((0.0, 0.0), radius, end, until))
        return found

    def cuts(self) -> tuple[Cut, ...]:
        out = self.across / 2
        long = self.end - self.start
        return tuple(
            Sunk(
                across_axis(self.start, angle, out),
                rectangle(0, -10_000, long, 10_000),
                -10_000.0,
                0.0,
            )
            for angle in self.angles
        )

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("plane", {"across": self.read})}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.across / 2, 0.0)
        return {
            "length": Dimension("along", self.start, self.end, radius),
            "from_end": Dimension("along", 0.0, self.start, radius),
            "across": Dimension("hole", self.start, self.end, radius),
            "count": Dimension("hole", self.start, self.end, radius),
        }


class ToTheMiddle(Feature, frozen=True):
    """Slots along the axis of a turned piece, each cut from outside to the middle."""

    start: float
    end: float
    diameter: float
    width: float

    @property
    def angles(self) -> list[float]:
        """Where they open, degrees."""
        raise NotImplementedError

    def cuts(self) -> tuple[Cut, ...]:
        long, half, deep = self.end - self.start, self.width / 2, self.diameter / 2
        return tuple(
            Sunk(
                across_axis(self.start, angle, deep),
                rectangle(0, -half, long, half),
                -10.0,
                deep,
            )
            for angle in self.angles
        )

    def faces(self) -> dict[str, Face]:
        return {self.name: Face("slot", {"width": self.width}, True)}

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            "length": Dimension("along", self.start, self.end, radius),
            "width": Dimension("hole", self.start, self.end, radius),
        }


class CrossSlot(ToTheMiddle, frozen=True):
    """A slot right across, from one place along the axis to another."""

    mouth: float  # the end that its place is said from, z

    @property
    def angles(self) -> list[float]:
        """Towards who looks at its side, and away from there."""
        return even_angles(2, 0.0)

    def dimensions(self) -> dict[str, Dimension]:
        radius = (self.diameter / 2, 0.0)
        return {
            **super().dimensions(),
            "from_mouth": Dimension("along", self.end, self.mouth, radius),
        }


class Slits(ToTheMiddle, frozen=True):
    """Saw cuts along the axis from an end, evenly round it."""

    count: int

    @property
    def angles(self) -> list[float]:
        return even_angles(self.count, 90.0)

    def dimensions(self) -> dict[str, Dimension]:
        found = super().dimensions()
        return {**found, "count": found["width"]}


class Keyway(Feature, frozen=True):
    """A keyway along a shaft or a bore: depth from the surface at its middle."""

    start: float
    end: float
    diameter: float
    width: float
    depth: float
    inside: bool = False
    angle: float = 90.0

    @property
    def angles(self) -> list[float]:
        return [self.angle]

    @property
    def floor(self) -> float:
        """Distance of its floor from the axis."""
        deep = self.depth if self.inside else -self.depth
        return self.diameter / 2 + deep

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
