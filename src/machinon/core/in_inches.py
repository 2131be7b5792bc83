"""Texts written in millimetres, turned into inches for an inch shop.

Families write their sentences in millimetres, with the trade's own turns: `⌀60`,
`8.6 deep`, `leave 0.5 mm`. An inch shop reads them in inches; what is a name stays:
threads, screws and drills of metric make.
"""

import functools
import re

from machinon.core.quantity import INCH, length_text, small_range, small_text, trimmed
from machinon.core.wording import begun

EXACT = 0.003  # of a 64th of an inch: a length so near is meant to be one
THOU = 0.05  # mm: what is said in tenths of a millimetre is meant to a thou or so
_N = r"\d+(?:\.\d+)?"
_KEPT = (
    rf"\b(?:M|Tr|G){_N}(?: × {_N}|x{_N})?"  # a thread or screw, its pitch or length
    rf"|[Pp]itch {_N}"  # of a thread
    rf"|{_N}°"
    rf"|\d+ × (?=⌀|M)"  # how many
    r"|\b(?:socket|bore|slot|groove) \d+(?= under size)"  # which one
)
# a drill or cutter is called by its size in the system that it is of
_TOOL = (
    r"(?:[Dd]rill(?: of| \d+ holes)?|Drill [a-z][a-z' -]*(?:\d+)?,|counterbore|"
    r"end mill(?: of)?|cutter(?: of)?|pin reamer|pins of|pegs to)"
)
_DRILL = rf"(?P<drill>\b{_TOOL} {_N})(?![\d.]*°| holes)(?: mm)?"  # no cutter 60°
_FRACTION = rf"\b{_TOOL} (?:(?:\d+ )?\d+/)?\d+ in\b"
_RINGS = rf"\brings (?:of|from) {_N} (?:and|to) {_N} mm"
_STAGES = rf"One after the other: {_N}(?:, {_N})* mm"
_ROUND = rf"⌀(?P<round>{_N})(?: × (?P<deep>{_N})(?!°))?"
_LIMIT = " and (?:up to|under) "
_LIST = rf"(?P<list>[-−]?{_N}(?:(?:, | to | and | × |{_LIMIT})[-−]?{_N})*) mm\b(?!²|³)"
_MICRONS = rf"(?P<microns>{_N}(?: to {_N})?) µm\b"
_BARE = (
    rf"(?P<bare>{_N})(?= (?:deep|wide|long|high|thick|over|across|under size|"
    rf"at its mouth|from|flush)\b)"
)
_CHAMFER = rf"(?P<chamfer>{_N})(?= × {_N}°)"
_DEEP = rf"(?P<and_deep>(?<= × ){_N}(?= deep))"
_RADIUS = rf"(?P<radius>(?<=\bR){_N})"
_OVER = rf"(?P<over>(?<=\bover ){_N}(?=$))"  # a taper that rises over a length
_TAPER = rf"(?P<taper>^{_N}(?:/{_N}){{2}}$)"  # large end, small end, length
# parts of a millimetre by the name that means ten-thousandths of an inch there
_SPOKEN = {
    "few hundredths": "a thou or two",
    "hundredth": "half a thou",
    "few tenths": "ten thou or so",
    "tenth or two": "a few thou",
}
_ABOUT = rf"\b[Aa] (?P<spoken>{'|'.join(_SPOKEN)})\b"
_NAMES = (_KEPT, _RINGS, _STAGES, _FRACTION, _DRILL)
_SIZES = (_ROUND, _DEEP, _CHAMFER, _LIST, _MICRONS, _BARE, _ABOUT)
_ALL = re.compile("|".join((*_NAMES, *_SIZES, _RADIUS, _OVER, _TAPER)))


# an edit leaves most of what is said as it was
@functools.lru_cache(maxsize=4096)
def in_inches(text: str, fine: bool = False, short: bool = False) -> str:
    """A sentence in millimetres with its lengths in inches: to a tenth of a thou where
    it has hundredths, else to a thou.

    fine: to a tenth of a thou always, as for a size that has a band; short: without the
    noughts at its end, as for what is allowed.

    >>> in_inches("Turn spigot to ⌀21.996, leave 0.5 mm")
    'Turn spigot to ⌀0.8660, leave 0.020 in'
    >>> in_inches("Drill 4 holes 6.6 mm, counterbore ⌀11 × 6.4, tap M8 × 1.25")
    'Drill 4 holes 6.6 mm, counterbore ⌀0.433 × 0.252, tap M8 × 1.25'
    """
    return _ALL.sub(functools.partial(_said, fine, short), text)


# of a bought part: threads with a length, and what has its unit
_NAMED = re.compile(
    rf"\bM{_N}(?: × {_N})?|#?(?:\d+ )?(?:\d+/)?\d+-\d+|(?:\d+ )?\d+/\d+ in\b"
    rf"|{_N} (?:in|mm|N)\b|#\d+(?:/\d+)?|(?P<bare>{_N})"
)


def part_with_units(name: str) -> str:
    """A bought part as an inch shop asks for it: what has no unit is of metric make.

    >>> part_with_units("key 3/16 in × 30")
    'key 3/16 in × 30 mm'
    """
    return _NAMED.sub(lambda found: found[0] + " mm" * bool(found["bare"]), name)


def length_in_inches(value: float, fine: bool = False) -> str:
    """A length in mm as an inch drawing says it: to the thou, as in 1.500, since a
    fourth digit would ask for a closer size; but for parts such as 5/16. No unit.

    fine: to a tenth of a thou always, as what was given so.

    >>> length_in_inches(38.1), length_in_inches(7.9375), length_in_inches(10)
    ('1.500', '0.3125', '0.394')
    """
    parts = value / INCH * 64
    fine = fine or abs(parts - round(parts)) < EXACT
    text = length_text(value, 0.0005 if fine else THOU, inch=True, unit=False)
    if not value:
        return "0"
    longer = len(text.partition(".")[2]) > 3
    return text[:-1] if longer and text[-1] == "0" else text


def sizes_in_inches(text: str) -> str:
    """Sizes alone, as those of stock, each of them a length in millimetres.

    >>> sizes_in_inches("63 × 33 × 27"), sizes_in_inches("⌀11.1125 × 105")
    ('2.480 × 1.299 × 1.063 in', '⌀0.4375 × 4.134 in')
    """

    def said(found: re.Match[str]) -> str:
        return length_in_inches(float(found.group()))

    return f"{re.sub(_N, said, text)} in"


def _said(fine: bool, short: bool, found: re.Match[str]) -> str:
    parts = found.groupdict()
    inches = functools.partial(_inches, fine, short)

    def each(text: str) -> str:
        return re.sub(_N, lambda match: inches(match.group()), text)

    if parts["drill"]:
        return f"{parts['drill']} mm"
    if parts["round"]:
        deep = f" × {inches(parts['deep'])}" if parts["deep"] else ""
        return f"⌀{inches(parts['round'])}{deep}"
    if parts["list"]:
        return f"{each(parts['list'])} in"
    if parts["microns"]:
        low, *high = (float(micron) / 1000 for micron in parts["microns"].split(" to "))
        return small_range(low, high[0], True) if high else small_text(low, True)
    if parts["taper"]:
        return each(parts["taper"])
    if parts["spoken"]:
        said = _SPOKEN[parts["spoken"]]
        return begun(said) if found.group()[0] == "A" else said
    names = ("bare", "chamfer", "and_deep", "radius", "over")
    bare = next((parts[name] for name in names if parts[name]), "")
    return inches(bare) if bare else found.group()


def _inches(fine: bool, short: bool, millimetres: str) -> str:
    """The length as finely as it was said, and no finer than a tenth of a thou."""
    places = len(millimetres.partition(".")[2])
    step = min(10.0**-places, 0.01) if fine or places > 1 else THOU
    text = length_text(float(millimetres), step, inch=True, unit=False)
    return trimmed(text) if short else text
