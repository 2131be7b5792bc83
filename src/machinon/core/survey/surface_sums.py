"""Sums that stand between a reading and a size: pins, parallels, chords.

A dovetail is read over pins and a centre height over a bar; what stands in the
reading (the surface's aids) is asked for first, and the size follows.
"""

import math
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, LENGTH, NUMBER, Kind
from machinon.core.reckoning import (
    Answer,
    Input,
    Result,
    Trail,
    reckon,
    reckoning,
    reckonings,
)
from machinon.core.shop.things import Surface
from machinon.core.survey.surface_kinds import form_key


class Sum(Struct, frozen=True):
    """The sum from a surface's reading to its size."""

    reckoner: str
    reading: str  # keys of the reckoning
    result: str  # keys of the reckoning
    says: str  # what the size is
    aids: tuple[str, ...]  # inputs of the reckoning that are typed with the surface
    fixed: Mapping[str, Any]  # those that follow from the kind
    kind: Kind = LENGTH

    @property
    def asks(self) -> tuple[Input, ...]:
        """The aids as inputs, with what is allowed."""
        inputs = {given.key: given for given in reckonings()[self.reckoner].inputs}
        return tuple(inputs[key] for key in self.aids)


SUMS: Mapping[str, Sum] = {
    "over-pins": Sum(
        "dovetail",
        "measured",
        "width_bottom",
        "Between the corners",
        ("pin", "angle", "depth"),
        {},
    ),
    "between-pins": Sum(
        "dovetail",
        "measured",
        "width_bottom",
        "Between the corners",
        ("pin", "angle", "depth"),
        {"internal": True},
    ),
    "bolt-circle": Sum(
        "hole-span", "span", "diameter", "Bolt circle", ("hole", "holes"), {}
    ),
    "hole-three": Sum(
        "hole-pattern",
        "span_31",
        "diameter",
        "Circle through the three",
        ("hole", "span_12", "span_23"),
        {},
    ),
    "hole-span": Sum(
        "hole-span", "span", "chord", "Centre to centre", ("hole",), {"holes": 2}
    ),
    "depth": Sum("reading-less", "reading", "size", "Depth", ("parallel",), {}),
    "centre-height": Sum(
        "reading-less", "reading", "size", "Centre height", ("bar", "parallel"), {}
    ),
    "detent": Sum(
        "detent", "land_diameter", "depth", "Depth of the recess", ("ball",), {}
    ),
    "arc": Sum("arc-chord", "height", "diameter", "Diameter", ("chord",), {}),
    "taper-balls": Sum(
        "taper-balls",
        "depth_large",
        "diameter",
        "Diameter at the open end",
        ("small", "large", "depth_small"),
        {},
    ),
    "throw": Sum("throw-angle", "chord", "angle", "Angle", ("arm",), {}, ANGLE),
}


def sum_of(surface: Surface) -> Sum | None:
    """The sum of a surface's kind; None where the reading is the size."""
    return SUMS.get(form_key(surface))


def missing_aids(surface: Surface) -> tuple[Input, ...]:
    """Sizes to be typed before a reading of the surface means anything."""
    its_sum = sum_of(surface)
    if its_sum is None:
        return ()
    return tuple(
        ask
        for ask in its_sum.asks
        if _needed(its_sum, ask) and ask.key not in surface.aids
    )


def aid_of(surface: Surface, key: str) -> float | None:
    """A size that goes with a surface's readings: as typed, else as they were worked
    out; None while it is not known."""
    its_sum = sum_of(surface)
    if key in surface.aids or its_sum is None or not surface.readings:
        return surface.aids.get(key)
    usual = next((ask.default for ask in its_sum.asks if ask.key == key), None)
    return usual if isinstance(usual, float | int) else None


def _needed(its_sum: Sum, ask: Input) -> bool:
    # without its depth a dovetail cannot be laid against its mate
    return ask.required or (its_sum.reckoner == "dovetail" and ask.key == "depth")


def summed(surface: Surface, reading: float) -> Answer | None:
    """The size behind a reading, worked; None where the reading is the size.

    Raises BadInput for an aid that cannot be, on its key.
    """
    its_sum = sum_of(surface)
    if its_sum is None:
        return None
    return reckon(
        its_sum.reckoner, {**its_sum.fixed, **surface.aids, its_sum.reading: reading}
    )


def read_aid(surface: Surface, key: str, typed: str, inch: bool) -> float:
    """An aid as typed, mm or degrees. Raises BadInput on its key."""
    its_sum = sum_of(surface)
    asked = next((a for a in its_sum.asks if a.key == key), None) if its_sum else None
    if asked is None:
        raise BadInput(key, f"{surface.name} needs no {key}.")
    return float(asked.read(typed, inch))


@reckoning(
    "reading-less",
    group="Measuring over and across",
    title="A reading less the bar and the parallel in it",
    usual={"reading": 145.02, "bar": 20, "parallel": 10},
    inputs=(
        Input("reading", LENGTH, "as it was read", above=0),
        Input("bar", LENGTH, "bar or pin, half of it is taken off", 0.0, low=0),
        Input("parallel", LENGTH, "parallel or block, all of it is", 0.0, low=0),
    ),
    results=(Result("size", LENGTH, "what is left"),),
    sources=("geometry: half the bar and the whole block stand in the reading",),
)
def _reading_less(
    trail: Trail, reading: float, bar: float, parallel: float
) -> dict[str, Any]:
    size = trail.step(
        "Size",
        f"{reading:g} − {bar:g} / 2 − {parallel:g}",
        reading - bar / 2 - parallel,
    )
    if not size > 0:
        raise BadInput(
            "reading",
            f"The reading must be more than what stands in it "
            f"({bar / 2 + parallel:g} mm).",
        )
    return {"size": size}


@reckoning(
    "arc-chord",
    group="Measuring over and across",
    title="Diameter of an arc from a chord and its height",
    usual={"height": 10, "chord": 60},
    inputs=(
        Input("height", LENGTH, "of the arc over the chord", above=0),
        Input("chord", LENGTH, "between the two feet", above=0),
    ),
    results=(
        Result("diameter", LENGTH, "of the whole circle"),
        Result("radius", LENGTH, "half of it"),
    ),
    sources=("geometry: diameter = height + chord² / (4 × height)",),
)
def _arc_chord(trail: Trail, height: float, chord: float) -> dict[str, Any]:
    diameter = trail.step(
        "Diameter",
        f"{height:g} + {chord:g}² / (4 × {height:g})",
        height + chord**2 / (4 * height),
    )
    return {"diameter": diameter, "radius": diameter / 2}


@reckoning(
    "taper-balls",
    group="Tapers",
    title="A taper bore from two balls and a depth gauge",
    usual={"small": 19, "large": 22, "depth_small": 62, "depth_large": 5},
    inputs=(
        Input("small", LENGTH, "diameter of the small ball", above=0),
        Input("large", LENGTH, "diameter of the large ball", above=0),
        Input("depth_small", LENGTH, "from the face to the small ball's top", low=0),
        Input("depth_large", LENGTH, "from the face to the large ball's top", low=0),
    ),
    results=(
        Result("diameter", LENGTH, "at the open end"),
        Result("half_angle", ANGLE, "of the taper"),
        Result("ratio", NUMBER, "change of diameter per length"),
    ),
    sources=(
        "geometry: sin(half angle) = difference of the radii over that of the "
        "centres' depths",
    ),
)
def _taper_balls(
    trail: Trail, small: float, large: float, depth_small: float, depth_large: float
) -> dict[str, Any]:
    if not large > small:
        raise BadInput("large", f"The large ball must be more than {small:g} mm.")
    apart = trail.step(
        "Centres apart",
        f"({depth_small:g} + {small:g} / 2) − ({depth_large:g} + {large:g} / 2)",
        depth_small + small / 2 - depth_large - large / 2,
    )
    rise = (large - small) / 2
    if not apart > rise:
        raise BadInput(
            "depth_large",
            "The large ball lies too deep: it must stand well above the small one.",
        )
    half = trail.step(
        "Half angle",
        f"asin({rise:g} / {apart:.4f})",
        math.degrees(math.asin(rise / apart)),
        ANGLE,
    )
    slope = math.tan(math.radians(half))
    # at its centre's depth the bore is a ball over the cosine wide
    at_centre = large / math.cos(math.radians(half))
    diameter = trail.step(
        "At the open end",
        f"{large:g} / cos({half:.4f}°) + 2 × {depth_large + large / 2:g} × "
        f"tan({half:.4f}°)",
        at_centre + 2 * (depth_large + large / 2) * slope,
    )
    return {"diameter": diameter, "half_angle": half, "ratio": 2 * slope}


@reckoning(
    "throw-angle",
    group="Measuring over and across",
    title="Angle of a lever's throw from its chord",
    usual={"chord": 60, "arm": 80},
    inputs=(
        Input("chord", LENGTH, "from stop to stop, straight across", above=0),
        Input("arm", LENGTH, "from the pivot to where it was measured", above=0),
    ),
    results=(
        Result("angle", ANGLE, "of the whole throw"),
        Result("rise", LENGTH, "height of the arc over its chord"),
    ),
    sources=("geometry: chord = 2 × arm × sin(angle / 2)",),
)
def _throw_angle(trail: Trail, chord: float, arm: float) -> dict[str, Any]:
    if not chord <= 2 * arm:
        raise BadInput("chord", f"The chord is at most twice the arm, {2 * arm:g} mm.")
    angle = trail.step(
        "Angle",
        f"2 × asin({chord:g} / (2 × {arm:g}))",
        2 * math.degrees(math.asin(chord / (2 * arm))),
        ANGLE,
    )
    rise = trail.step(
        "Rise",
        f"{arm:g} × (1 − cos({angle / 2:.4f}°))",
        arm * (1 - math.cos(math.radians(angle / 2))),
    )
    return {"angle": angle, "rise": rise}
