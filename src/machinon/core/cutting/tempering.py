"""How far a hardened plain steel is let down: by its heat or by its colour."""

import functools
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import TEMPERATURE
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning
from machinon.core.tables import rows


class TemperColour(Struct, frozen=True):
    """A colour that bright steel takes on, the heats of it, °C, and what it suits."""

    name: str
    least: float
    most: float
    suits: str


@functools.cache
def temper_colours() -> tuple[TemperColour, ...]:
    """The colours in the order that they come as the steel gets hotter."""
    return tuple(
        TemperColour(r["colour"], float(r["from_C"]), float(r["to_C"]), r["suits"])
        for r in rows("temper_colours")
    )


@reckoning(
    "temper-colour",
    group="Fits and materials",
    title="Tempering by colour",
    usual={"colour": "purple"},
    given=(one_of("heat", "colour"),),
    inputs=(
        Input("heat", TEMPERATURE, "wanted; else by the colour", None, low=0),
        Input(
            "colour",
            TEXT,
            "wanted; else by the heat",
            None,
            choices=tuple(colour.name for colour in temper_colours()),
        ),
    ),
    results=(
        Result("colour", TEXT, "of bright steel"),
        Result("least", TEMPERATURE, "where it begins"),
        Result("most", TEMPERATURE, "where the next one begins"),
        Result("suits", TEXT, "what it is usual for: the hardest first"),
        Result("next", TEXT, "colour that follows; empty for none"),
    ),
    sources=(
        "usual shop figures of plain carbon steel, some minutes at its heat; longer, "
        "the next colour shows",
    ),
)
def _temper_colour(
    trail: Trail, heat: float | None, colour: str | None
) -> dict[str, Any]:
    known = temper_colours()
    first, last = known[0], known[-1]
    if heat is not None and not first.least <= heat <= last.most:
        raise BadInput(
            "heat", f"Steel colours from {first.least:g} to {last.most:g} °C."
        )
    at = next(
        place
        for place, one in enumerate(known)
        if one.name == colour or (heat is not None and heat <= one.most)
    )
    found = known[at]
    trail.cautions.append(
        "The steel's own sheet comes first: alloyed and high-speed steels colour at "
        "other heats. Tongs, gloves, eyes covered; oil flares."
    )
    return {
        "colour": found.name,
        "least": found.least,
        "most": found.most,
        "suits": found.suits,
        "next": known[at + 1].name if found is not last else "",
    }
