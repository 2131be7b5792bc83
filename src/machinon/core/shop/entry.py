"""A shop's own things from typed text: instruments and lathes."""

import re
from collections.abc import Callable, Container, Mapping, Sequence
from typing import get_args

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.reckoning import PITCH, Input
from machinon.core.shop.things import (
    NOSE_SURFACES,
    Instrument,
    Lathe,
    Piece,
    Shop,
    SurfaceKind,
)
from machinon.core.tapers.tapers import taper_of

KINDS: tuple[SurfaceKind, ...] = get_args(SurfaceKind)

# what each kind of surface is called where instruments are entered
KIND_WORDS: Mapping[SurfaceKind, str] = {
    "outside": "outside diameters",
    "inside": "bores",
    "gap": "slots and gaps",
    "length": "lengths and depths",
    "pitch": "pitches",
    "span": "spans over holes",
    "runout": "run-out",
}


def bare(value: float, inch: bool) -> str:
    """A length as it would be typed, to read back as the same size.

    A bare number in the shop's unit; in an inch shop a size that is no round
    part of an inch stays in millimetres, and says so.

    >>> bare(12.7, True), bare(13.0, True), bare(13.0, False)
    ('0.5', '13mm', '13')
    """
    if inch and abs(round(value / quantity.INCH, 5) * quantity.INCH - value) > 1e-6:
        return f"{quantity.trimmed(f'{value:.9f}')}mm"
    number = value / quantity.INCH if inch else value
    return quantity.trimmed(f"{number:.9f}")


def length_said(value: float, inch: bool) -> str:
    """A length as it is read: as it would be typed, with its unit.

    >>> length_said(12.7, True), length_said(13.0, True), length_said(13.0, False)
    ('0.5 in', '13 mm', '13 mm')
    """
    text = bare(value, inch)
    if text.endswith("mm"):
        return f"{text[:-2]} mm"
    return f"{text} in" if inch else f"{text} mm"


def screw_said(pitch: float) -> str:
    """A lead screw as it is called: threads per inch where they come out whole.

    >>> screw_said(3.175), screw_said(4.0)
    ('8 tpi', '4 mm')
    """
    tpi = quantity.whole_tpi(pitch)
    return f"{tpi} tpi" if tpi else length_said(pitch, False)


def list_said(parts: Sequence[str]) -> str:
    """A list as it is read: all of a short one, ends and length of a long one.

    >>> list_said(["15", "16", "17", "18", "33"])
    '15, 16 … 33 (5)'
    """
    if len(parts) <= 3:
        return ", ".join(parts)
    return f"{parts[0]}, {parts[1]} … {parts[-1]} ({len(parts)})"


def id_of(name: str, other: str) -> str:
    """An id made from a name; `other` where nothing of it can be used.

    >>> id_of("Centre lathe 165 × 700", "item"), id_of("×", "item")
    ('centre-lathe-165-700', 'item')
    """
    letters = "".join(c if c.isalnum() else "-" for c in name.lower())
    return "-".join(part for part in letters.split("-") if part)[:40] or other


def unused(id: str, taken: Container[str]) -> str:
    """The id, numbered where it is taken.

    >>> unused("mill", {"mill", "mill-2"})
    'mill-3'
    """
    number, candidate = 2, id
    while candidate in taken:
        candidate, number = f"{id}-{number}", number + 1
    return candidate


def words(typed: Mapping[str, str], key: str, meaning: str, most: int = 80) -> str:
    """A name as typed. Raises BadInput on `key` for none, or one too long."""
    text = typed.get(key, "").strip()
    if not text:
        raise BadInput(key, f"Nothing is typed. Type {meaning}.")
    if not text.isprintable():
        raise BadInput(
            key,
            "It has a line break or a hidden sign: type it in one line.",
        )
    if len(text) > most:
        raise BadInput(
            key, f"{len(text)} signs are too many: up to {most} are allowed."
        )
    return text


def remark(typed: Mapping[str, str], key: str = "note", most: int = 200) -> str:
    """What was noted, empty for nothing. Raises BadInput on `key` for too much."""
    noted = typed.get(key, "").strip()
    return words(typed, key, "", most) if noted else ""


def instrument_of(typed: Mapping[str, str], id: str) -> Instrument:
    """An instrument from its entries; lengths bare in its own unit.

    typed: name, reads (mm or in), resolution, uncertainty, repeatability,
    suits (kinds with commas between), checked, and the range from least to
    most, both of which may be empty. Raises BadInput by entry.
    """
    reads = typed.get("reads", "mm").strip().lower() or "mm"
    if reads not in ("mm", "in"):
        raise unknown("reads", reads, ("mm", "in"))
    inch = reads == "in"

    def size(key: str, high: float) -> float:
        return quantity.parse(
            typed.get(key, ""), inch=inch, key=key, above=0, high=high
        )

    suits = []
    for word in typed.get("suits", "").split(","):
        if not word.strip():
            continue
        kind = next((kind_ for kind_ in KINDS if kind_ == word.strip()), None)
        if kind is None:
            raise unknown("suits", word.strip(), KINDS)
        suits.append(kind)
    if not suits:
        raise BadInput("suits", "Say at least one kind of surface that it measures.")
    uncertainty = size("uncertainty", 5)
    repeatability = size("repeatability", 5)
    if repeatability > uncertainty:
        raise BadInput(
            "repeatability",
            "Its repeatability (1 sigma) is part of its uncertainty (2 sigma): up to "
            f"{length_said(uncertainty, inch)} is allowed.",
        )
    least, most = (
        quantity.parse(text, inch=inch, key=key, low=0, high=10_000) if text else 0.0
        for key in ("least", "most")
        for text in [typed.get(key, "").strip()]
    )
    if most and not most > least:
        raise BadInput(
            "most", f"The range ends above its start, {length_said(least, inch)}."
        )
    return Instrument(
        id,
        words(typed, "name", "what you call it"),
        size("resolution", 5),
        uncertainty,
        repeatability,
        tuple(dict.fromkeys(suits)),
        inch,
        remark(typed, "checked", 80),
        least,
        most,
    )


def typed_instrument(instrument: Instrument) -> dict[str, str]:
    """An instrument's entries as they would be typed again."""

    def size(value: float) -> str:
        return bare(value, instrument.inch)

    return {
        "name": instrument.name,
        "reads": "in" if instrument.inch else "mm",
        "resolution": size(instrument.resolution),
        "uncertainty": size(instrument.uncertainty),
        "repeatability": size(instrument.repeatability),
        "suits": ",".join(instrument.suits),
        "checked": instrument.checked,
        "least": size(instrument.least) if instrument.least else "",
        "most": size(instrument.most) if instrument.most else "",
    }


def with_instrument(shop: Shop, instrument: Instrument) -> Shop:
    """The shop with an instrument added, or changed where its id is there."""
    kept = [instrument if old.id == instrument.id else old for old in shop.instruments]
    if all(old.id != instrument.id for old in shop.instruments):
        kept.append(instrument)
    return replace(shop, instruments=tuple(kept))


def lathe_of(typed: Mapping[str, str], inch: bool, base: Lathe) -> Lathe:
    """A lathe from its entries; what has no entry stays as in `base`.

    typed: name, centre_height, between_centres, swing_over_slide, speeds (a
    list, or a range), dial_reads, dial_division, lead_screw (a pitch or 8tpi),
    wheels (a list, may be empty), tailstock (a taper, may be empty). Raises
    BadInput naming the entry.
    """
    name = words(typed, "name", "what you call the lathe")

    def length(key: str, low: float, high: float) -> float:
        return quantity.parse(typed[key], inch=inch, key=key, low=low, high=high)

    height = length("centre_height", 20, 1000)
    between = length("between_centres", 50, 10_000)
    slide = length("swing_over_slide", 10, 2 * height)
    stepless = _RANGE.match(typed["speeds"])
    listed = typed["speeds"].replace(";", ",").split(",")
    parts = stepless.groups() if stepless else listed
    speeds = sorted(
        {
            quantity.parse(part, quantity.ROTATION, key="speeds", above=0, high=20_000)
            for part in parts
        }
    )
    if stepless and len(speeds) < 2:
        raise BadInput("speeds", "A range goes from its lowest to its highest speed.")
    division = length("dial_division", 0.001, 1)
    lead_screw = Input("lead_screw", PITCH, "", above=0, high=50).read(
        typed["lead_screw"], inch
    )
    wheels: tuple[int, ...] = ()
    if typed.get("wheels", "").strip():
        wheels = Input("wheels", quantity.COUNT, "", low=8, high=300, many=True).read(
            typed["wheels"]
        )
    tailstock = base.tailstock
    if "tailstock" in typed:
        text = typed["tailstock"].strip()
        tailstock = taper_of(text, "tailstock").name if text else ""
    reads = typed["dial_reads"]
    if reads not in ("diameter", "radius"):
        raise unknown("dial_reads", reads, ("diameter", "radius"))
    return replace(
        base,
        name=name,
        centre_height=height,
        between_centres=between,
        swing_over_slide=slide,
        speeds=tuple(speeds),
        dial_reads="radius" if reads == "radius" else "diameter",
        dial_division=division,
        lead_screw=lead_screw,
        wheels=wheels,
        tailstock=tailstock,
        stepless=bool(stepless),
    )


# 50 to 2000, or 50-2000: any speed between the two
_RANGE = re.compile(r"^\s*([\d.]+)\s*(?:-|–|to)\s*([\d.]+)\s*(?:rpm)?\s*$")


def speeds_text(lathe: Lathe) -> str:
    """A lathe's speeds as a list, or as the range of a stepless drive."""
    if lathe.stepless:
        return f"{lathe.speeds[0]:g} to {lathe.speeds[-1]:g}"
    return ", ".join(f"{speed:g}" for speed in lathe.speeds)


NO_LATHE = Lathe("", "", 0, 0, 0, (), "")  # what a new one is entered over


def with_nose(lathe: Lathe, new_id: Callable[[str], str]) -> tuple[Piece, Lathe]:
    """A new lathe with its nose as a piece to be measured; new_id: from a name."""
    name = f"Spindle nose of {lathe.name}"
    nose = Piece(new_id(name), name, "nose", "steel", NOSE_SURFACES)
    return nose, replace(lathe, id=new_id(lathe.name), nose=nose.id)


def typed_lathe(lathe: Lathe, inch: bool) -> dict[str, str]:
    """A lathe's entries as they would be typed again."""

    def size(value: float) -> str:
        return bare(value, inch)

    return {
        "name": lathe.name,
        "centre_height": size(lathe.centre_height),
        "between_centres": size(lathe.between_centres),
        "swing_over_slide": size(lathe.swing_over_slide),
        "speeds": speeds_text(lathe),
        "dial_reads": lathe.dial_reads,
        "dial_division": size(lathe.dial_division),
        "lead_screw": f"{bare(lathe.lead_screw, False)}mm",
        "wheels": ", ".join(str(wheel) for wheel in lathe.wheels),
        "tailstock": lathe.tailstock,
    }
