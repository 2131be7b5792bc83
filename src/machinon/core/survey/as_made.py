"""A surface taken as its standard has it, while nobody has read it: 16 h6, MT2,
M20x2.5."""

import re

from msgspec import Struct

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.reckoning import Answer, reckon
from machinon.core.shop.things import Surface
from machinon.core.sizes.limits import LARGEST
from machinon.core.survey.surface_kinds import is_tapered, is_threaded
from machinon.core.survey.surface_sums import sum_of
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.thread_limits import crest_limits

KEY = "given"
_ZONED = re.compile(r"^(?P<size>.+?)\s*(?P<zone>[A-Za-z]{1,2}\d{1,2})$")
_SIDES = {"inside": "hole", "gap": "hole", "outside": "shaft"}


class AsMade(Struct, frozen=True):
    """A surface by its standard; mm, uncertainty at two sigma."""

    size: float
    doubt: float  # half the standard's own band
    answer: Answer
    # change of diameter per length where it is a taper, and length over which it is
    # given
    ratio: float | None = None
    length: float = 0.0


def takes_standard(surface: Surface) -> bool:
    """Whether a standard can stand in for a surface's readings."""
    if is_tapered(surface):
        return True
    if sum_of(surface) is not None:
        return False
    return surface.kind in _SIDES


def example_for(surface: Surface, inch: bool = False) -> str:
    """An example of typing a surface's standard; inch: a bare size is inches."""
    if is_tapered(surface):
        return "MT2"
    if is_threaded(surface):
        return "3/4-10" if inch else "M20x2.5"
    zone = "h6" if _SIDES[surface.kind] == "shaft" else "H7"
    return f"{'5/8' if inch else '16'} {zone}"


def read_as_made(typed: str, surface: Surface, inch: bool = False) -> str:
    """A typed standard as it is kept; empty takes it back.

    Raises BadInput on `given`, saying what is allowed.

    >>> read_as_made("16h6", Surface("shaft", "Shank", "outside"))
    '16 h6'
    """
    text = " ".join(typed.split())
    if not text:
        return ""
    if not takes_standard(surface):
        raise BadInput(KEY, "No standard stands in for readings here: measure it.")
    if is_tapered(surface):
        taper = taper_of(text, KEY)
        if taper.large is None:
            raise BadInput(
                KEY,
                f"{taper.name} says how steep, not how large: read the surface, or "
                "give both ends and the length, as 24/20/80.",
            )
        return taper.name
    if is_threaded(surface):
        return thread_of(text, KEY).name
    match = _ZONED.match(text)
    side, example = _SIDES[surface.kind], example_for(surface, inch)
    if match is None:
        raise BadInput(
            KEY,
            f"Give the size with its zone, as {example}: a size alone does not say "
            "how far it may be off.",
        )
    size = quantity.parse(
        match["size"], inch=inch, key=KEY, above=0, high=LARGEST, kind=quantity.LENGTH
    )
    zone = match["zone"]
    if zone[0].isupper() != (side == "hole"):
        raise BadInput(
            KEY,
            f"{zone} is a zone for a {'shaft' if side == 'hole' else 'hole'}: "
            f"a {side} has one like {example.split()[1]}.",
        )
    try:
        reckon("iso-limits", {"nominal": size, "zone": zone})
    except BadInput as error:
        raise BadInput(KEY, error.message) from None
    return f"{quantity.typed_again(size)} {zone}"


def as_made(surface: Surface) -> AsMade | None:
    """The standard size of a surface; None where it has none."""
    if not surface.given:
        return None
    if is_tapered(surface):
        answer = reckon("taper", {"name": surface.given})
        return AsMade(
            float(answer["large_diameter"]),
            0.0,
            answer,
            float(answer["ratio"]),
            float(answer["length"] or 0.0),
        )
    if is_threaded(surface):
        return _crests(surface)
    if surface.kind == "pitch":
        answer = reckon("thread", {"thread": surface.given})
        return AsMade(float(answer["pitch"]), 0.0, answer)
    size, _, zone = surface.given.rpartition(" ")
    answer = reckon("iso-limits", {"nominal": float(size), "zone": zone})
    low, high = float(answer["lower"]), float(answer["upper"])
    return AsMade((low + high) / 2, (high - low) / 2, answer)


def _crests(surface: Surface) -> AsMade:
    """A thread over its crests, in the limits of the usual class where some are kept,
    else as its form has it."""
    answer = reckon("thread", {"thread": surface.given})
    inside = surface.kind == "inside"
    limits = crest_limits(answer, "internal" if inside else "external")
    if limits is None:
        return AsMade(
            float(answer["minor_internal" if inside else "major"]), 0.0, answer
        )
    low, high = limits
    return AsMade((low + high) / 2, (high - low) / 2, answer)
