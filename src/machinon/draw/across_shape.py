"""The shape of what runs along a piece, cut across; lengths in mm."""

import math
from collections.abc import Callable

from msgspec import Struct

from machinon.core.shop.things import Surface
from machinon.core.survey.surface_kinds import beside, form_key
from machinon.draw.drawing import Point


class Section(Struct, frozen=True):
    """A piece cut across what runs along it; its middle at x 0, its open side at 0."""

    points: tuple[Point, ...]  # closed
    # the profile of its right half, from the open side down, that the readings say
    edge: tuple[Point, ...]
    solid: bool  # whether it stands up, like a tongue

    @property
    def deep(self) -> float:
        return -self.edge[-1][1]


def section_of(surface: Surface, size: Callable[[str, float], float]) -> Section:
    """The cross section of a form that runs along a piece: a T-slot, a dovetail, a
    slot."""
    form = form_key(surface)
    wide = size(surface.id, 14.0)
    if form == "tee-neck":
        head = size(beside(surface, "tee-head"), 1.7 * wide)
        high = size(beside(surface, "tee-head-depth"), 0.7 * wide)
        lip = size(beside(surface, "tee-lip"), 0.9 * wide)
        widths = [(wide, 0.0), (wide, -lip), (head, -lip), (head, -lip - high)]
    elif form in ("over-pins", "between-pins"):
        deep = surface.aids.get("depth", 0.1 * wide)
        lean = 2 * deep / math.tan(math.radians(surface.aids.get("angle", 60)))
        mouth = wide + (lean if form == "over-pins" else -lean)
        widths = [(mouth, 0.0), (wide, -deep)]
    else:
        widths = [(wide, 0.0), (wide, -0.6 * wide)]
    solid = form in ("over-pins", "tongue")
    edge = [(w / 2, y) for w, y in widths]
    floor = edge[-1][1]
    side, foot = max(w for w, _ in widths) * (0.8 if solid else 0.85), 1.8 * floor
    across = [(-x, y) for x, y in edge]
    if solid:
        right, left = [*edge, (side, floor)], [(-side, floor), *reversed(across)]
    else:
        right, left = [*reversed(edge), (side, 0.0)], [(-side, 0.0), *across]
    base = [(side, foot), (-side, foot)]
    points = (*right, *base, *left)
    return Section(points, tuple(edge), solid)


def pins_of(
    surface: Surface, section: Section
) -> tuple[tuple[float, float, float], ...]:
    """The two pins that a dovetail is read over: x, y and diameter.

    Source: geometry; a pin's centre lies on the bisector of the corner.
    """
    pin = surface.aids.get("pin", 0.0)
    if not pin or form_key(surface) not in ("over-pins", "between-pins"):
        return ()
    corner, floor = section.edge[-1]
    out = pin / 2 / math.tan(math.radians(surface.aids.get("angle", 60)) / 2)
    x = corner + out if section.solid else corner - out
    return ((x, floor + pin / 2, pin), (-x, floor + pin / 2, pin))
