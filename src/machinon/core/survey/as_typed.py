"""A reading and its place as they are typed."""

import re

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, TEMPERATURE
from machinon.core.reckoning import (
    PITCH,
    Input,
)
from machinon.core.shop.things import Surface
from machinon.core.survey.surface_kinds import is_tapered
from machinon.core.survey.surface_sums import missing_aids, summed

HAND_HOT = 45.0  # °C: what is hotter is not held, and not measured in the hand
_PLACE = re.compile(
    r"^(?P<end>front|middle|back|left|right|top|bottom|corner(?: \d)?)?"
    r"\s*(?:(?P<angle>\d{1,3})\s*(?:°|deg)?)?$"
)


def read_place(typed: str, surface: Surface, inch: bool) -> str:
    """A place as typed: an end and an angle, or a distance along a taper.

    Raises BadInput on `place`.

    >>> read_place(" Back 90deg", Surface("bore", "Bore", "inside"), False)
    'back 90°'
    """
    text = typed.strip().lower()
    if is_tapered(surface):
        if not text:
            raise BadInput(
                "place",
                "Say how far from the taper's end it was read: without two places "
                "there is no taper.",
            )
        at = quantity.parse(text, LENGTH, inch=inch, key="place", low=0, high=2000)
        return f"{quantity.typed_again(at)} mm"
    match = _PLACE.match(text)
    if match is None or (match["angle"] and int(match["angle"]) > 360):
        raise BadInput(
            "place",
            "Type a place (front, middle, back, left, right, top, bottom, corner 1), "
            "an angle (0 to 360), or both: back 90.",
        )
    parts = (match["end"] or "", f"{int(match['angle'])}°" if match["angle"] else "")
    return " ".join(part for part in parts if part)


def distance_of(place: str) -> float:
    """Distance of a reading along a taper, mm; 0 where nothing is said."""
    return float(place.removesuffix(" mm")) if place.endswith(" mm") else 0.0


def apart_from_warmth(typed: str) -> tuple[str, float | None]:
    """A reading as typed, and the part's temperature where it stands beside it, °C.

    Raises BadInput on `temperature`.

    >>> apart_from_warmth("95.041 @ 28"), apart_from_warmth("3.742in at 80F")[0]
    (('95.041', 28.0), '3.742in')
    """
    size, *warm = re.split(r"\s*(?:@|\bat\b)\s*", typed.strip(), maxsplit=1)
    return size, read_warmth(warm[0]) if warm and warm[0] else None


def warmth_hint(inch: bool) -> str:
    """How a reading of warm work is typed."""
    return f"where it is warm: {'1.0004 @ 82F' if inch else '25.41 @ 28'}"


def read_warmth(typed: str) -> float:
    """A part's temperature as typed, °C; what no hand holds has to say its unit, as it
    is likelier meant in Fahrenheit. Raises BadInput on `temperature`.

    >>> read_warmth("68F"), read_warmth("23.5")
    (20.0, 23.5)
    """
    text = typed.strip()
    warm = quantity.parse(text, TEMPERATURE, key="temperature", low=-30, high=200)
    if warm > HAND_HOT and not re.search("[a-zA-Z]", text):
        raise BadInput(
            "temperature",
            f"{text} °C would burn the hand: type {text}F, or {text}C if it is so.",
        )
    return warm


def read_typed(typed: str, surface: Surface, inch: bool) -> float:
    """The value of a typed reading, mm. Raises BadInput on `reading`.

    A pitch may be typed as `8tpi` as well as a length; what the surface's sum
    cannot use is refused here, and an aid that is not typed yet by its name.
    """
    if surface.kind == "pitch":
        pitch = Input("reading", PITCH, "the pitch", above=0, high=25).read(typed, inch)
        return float(pitch)
    lacks = missing_aids(surface)
    if lacks:
        raise BadInput(
            lacks[0].key, f"Type this first, the reading needs it: {lacks[0].meaning}."
        )
    if surface.kind == "runout":
        return quantity.parse(typed, LENGTH, inch=inch, key="reading", low=0, high=20)
    value = quantity.parse(typed, LENGTH, inch=inch, key="reading", above=0, high=2000)
    try:
        summed(surface, value)
    except BadInput as error:
        raise BadInput("reading", error.message) from None
    return value
