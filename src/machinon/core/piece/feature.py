"""A feature: what a cut leaves on a piece, with a name that never changes.

It knows where it lies, what it takes out of the body, which faces it leaves, and how
each of its measures is dimensioned. Sizes are mm and degrees; stations along a turned
piece are z, from its left end.
"""

from collections.abc import Mapping
from typing import Literal

import msgspec
from msgspec import Struct

from machinon.core.piece.solid_cuts import Cut

Side = Literal["left", "right"]
BlockFace = Literal["top", "bottom", "front", "back", "left", "right"]
Axis = Literal["x", "y", "z"]
# across and up a face as it is looked at, and into it
FACE_AXES: Mapping[BlockFace, tuple[Axis, Axis, Axis]] = {
    "top": ("x", "y", "z"),
    "bottom": ("x", "y", "z"),
    "front": ("x", "z", "y"),
    "back": ("x", "z", "y"),
    "left": ("y", "z", "x"),
    "right": ("y", "z", "x"),
}
POINT = 118.0  # degrees: the point of a drill
PAST = 1.0  # mm that a through hole goes past the last metal


class Face(Struct, frozen=True):
    """A face that a feature leaves."""

    kind: str  # cylinder, cone, plane, round, thread, hole or slot
    at: Mapping[str, float]  # its figures, by measure
    inside: bool = False  # whether the metal lies outside of it


class Dimension(Struct, frozen=True):
    """How a measure is dimensioned."""

    # "diameter" of what turns (start and end are its stations), "along" a turned piece,
    # "x", "y" or "z" of a block, "hole" for what is written at a hole
    kind: Literal["diameter", "along", "x", "y", "z", "hole"]
    start: float  # where it is taken
    end: float  # where it is taken
    # the other places of a block's line, or the radius
    at: tuple[float, float] = (0.0, 0.0)
    inside: bool = False


def along_axis(
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

    @property
    def angles(self) -> list[float]:
        """Where it lies round the axis, degrees; nothing for what is all round."""
        return []

    def cuts(self) -> tuple[Cut, ...]:
        """The cuts that make it."""
        raise NotImplementedError

    def shows(self) -> tuple[Cut, ...]:
        """What is its own to take: its cuts, and what they do not draw, as a thread."""
        return self.cuts()

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
