"""Slotted arbors that a taper screw opens."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import COUNT, LENGTH, NUMBER
from machinon.core.reckoning import PITCH, TEXT, Input, Result, Trail, reckoning
from machinon.core.tapers.tapers import taper_of


@reckoning(
    "expanding-arbor",
    group="Tapers",
    title="An expanding arbor: growth a turn of its taper screw",
    usual={
        "taper": "1:10",
        "pitch": 1,
        "slots": 4,
        "diameter": 30,
        "wall": 5,
        "play": 0.04,
    },
    usual_inch={"pitch": "20tpi"},
    inputs=(
        Input("taper", TEXT, "of the screw: 1:10, or 5deg a side"),
        Input("pitch", PITCH, "of the screw", above=0, high=10),
        Input("slots", COUNT, "that divide the arbor", low=2, high=16),
        Input("diameter", LENGTH, "of the arbor", above=0, high=500),
        Input("wall", LENGTH, "of a finger; else a sixth of it", None, above=0),
        Input("play", LENGTH, "in the bore, to be taken up", None, low=0),
        Input("length", LENGTH, "of the slots; else the diameter", None, above=0),
        Input("material", TEXT, "of the arbor", "alloy steel"),
    ),
    results=(
        Result("growth_per_turn", LENGTH, "on the diameter"),
        Result("turns_to_take_play", NUMBER, "until it holds"),
        Result("largest_growth", LENGTH, "before it yields"),
    ),
    sources=(
        "growth = pitch × change of diameter per length; a finger as a beam fixed at "
        "the slot's root: 2 σ L² / (3 E (t/2)) on the diameter",
    ),
)
def _expanding_arbor(
    trail: Trail,
    taper: str,
    pitch: float,
    slots: int,
    diameter: float,
    wall: float | None,
    play: float | None,
    length: float | None,
    material: str,
) -> dict[str, Any]:
    ratio = _ratio(taper)
    growth = trail.step(
        "A turn", f"{pitch:g} × {ratio:.5g} of diameter per length", pitch * ratio
    )
    metal = material_named(material)
    thick = diameter / 6 if wall is None else wall
    if not thick < diameter / 2:
        raise BadInput("wall", f"Under {diameter / 2:g} mm is allowed.")
    long = diameter if length is None else length
    largest = trail.step(
        "Before it yields",
        f"2 × {metal.yield_strength:g} × {long:g}² / (3 × {metal.modulus:g} × "
        f"{thick:.4g} / 2)",
        2 * metal.yield_strength * long**2 / (3 * metal.modulus * thick / 2),
    )
    results: dict[str, Any] = {"growth_per_turn": growth, "largest_growth": largest}
    if play is not None:
        results["turns_to_take_play"] = trail.step(
            "Turns", f"{play:g} / {growth:.4g}", play / growth, NUMBER
        )
        if play > largest:
            trail.cautions.append(
                "The play is more than it can open: a closer arbor, longer slots or a "
                "thinner wall."
            )
    trail.notes.append(
        f"A finger is taken as a flat spring, one of {slots}: it opens less evenly."
    )
    return results


def _ratio(taper: str) -> float:
    """Change of diameter per length. Raises BadInput on `taper`."""
    text = taper.strip().lower()
    for word in ("deg", "°"):
        if text.endswith(word):
            half = Input("taper", NUMBER, "half angle", above=0, high=45).read(
                text.removesuffix(word).strip()
            )
            return 2 * math.tan(math.radians(float(half)))
    return taper_of(taper, "taper").ratio
