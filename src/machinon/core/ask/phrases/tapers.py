"""Questions about tapers: angles, settings and pins."""

import re

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import Said
from machinon.core.tapers.shanks import shank_ends
from machinon.core.tapers.tapers import taper_of

phrase = Phrases()

PINS = ("1:50", "1:48")  # the tapers of a metric pin and of an inch one
LONGEST = 6  # of the taper pins that have numbers, inches


def _said_taper(s: Said) -> str:
    """A taper by its name, ratio or ends, or by the angle of a taper or cone; empty for
    none."""
    if taper := s.take("taper"):
        return taper
    if not s.hears("taper", "cone", "tapered"):
        return ""
    angle = s.take("angle")
    if angle and s.has("half", "side"):
        s.has("a", "per", "each", "angle")
        return f"{angle} half"
    s.has("included", "angle", "whole", "of")
    return f"{angle} included" if angle else ""


def one_sided(s: Said) -> str:
    """The ratio of a slope, which only one side has: slope 1 in 20, gib 1:60; empty for
    none."""
    sloped = s.hears("slope", "gradient", "incline", "gib")
    if not sloped or s.hears("taper", "cone"):
        return ""
    for part in s.parts:
        if part.kind == "taper" and re.fullmatch(r"1:[\d.]+", part.text):
            part.used = True
            return part.text
    return ""


@phrase("taper-setup", "mt2 offset 200 between centres")
def _offset(s: Said) -> Inputs | None:
    taper = _said_taper(s)
    if not taper:
        return None
    if s.has("offset", "setover", "tailstock") | s.has("centre", "between"):
        length = s.size()
        s.has("between", "centre", "length", "long", "bar", "set", "over", "taper")
        if not length:
            return None
        return {
            "taper": taper,
            "method": "tailstock",
            "length_between_centres": length,
        }
    if s.has("indicator", "indicate", "clock", "dial", "dti"):
        given: Inputs = {"taper": taper, "method": "indicator"}
        travel = s.size()
        s.has("travel", "over", "reading", "taper")
        return {**given, "travel": travel} if travel else given
    if s.has("sine"):
        length = s.size()
        s.has("bar", "stack", "slip", "on", "for", "set", "angle", "gage", "block")
        given = {"taper": taper, "method": "sine"}
        return {**given, "sine_length": length} if length else given
    if s.has("compound", "topslide", "slide", "angle") and s.has("set", "compound"):
        return {"taper": taper}
    return None


@phrase("cam-nose", "d1-4")
def _cam_nose(s: Said) -> Inputs | None:
    if not s.has("cam-nose"):
        return None
    size = s.near("cam-nose", kinds=("number",)) or s.take("number")
    s.has("nose", "spindle", "taper", "studs", "chuck", "circle", "plate")
    return {"size": size} if size else None


@phrase("taper-setup", "tailstock offset for 20 to 18 over 100 bar 250")
def _offset_of_ends(s: Said) -> Inputs | None:
    """The tailstock set over for a taper by its two ends."""
    if s.take("taper") or not s.has("offset", "setover", "tailstock"):
        return None
    whole = s.behind("bar", "centre") or s.near("bar", "centre", "between")
    long = s.behind("over") or s.near("over", "length")
    whole = whole or s.near("length", "long")  # over 3, length 8
    sizes = s.alike(s.size(), s.size(), long, whole)
    s.has("from", "to", "set", "over", "taper", "length", "bar", "centre", "between")
    if not all(sizes):
        return None
    *ends, long, whole = sizes
    small, large = sorted(ends, key=s.mm)
    return {
        "taper": f"{s.mm(large):.6g}/{s.mm(small):.6g}/{s.mm(long):.6g}",
        "method": "tailstock",
        "length_between_centres": whole,
    }


# take off for a 0.5 deeper plug
_HOW_FAR = re.compile(r"\bhow\s+(?:far|much)\s+(?:further|deeper)\b.*\bfor\b", re.I)
_TAKEN_FOR = re.compile(r"\btake\s+off\b(?!\s+\d)", re.IGNORECASE)


@phrase("taper-advance", "taper 1:20 over 50")
def _over(s: Said) -> Inputs | None:
    taper = "" if one_sided(s) else _said_taper(s)
    words = ("over", "advance", "further", "deeper", "proud", "stands")
    into = s.hears("off") and s.hears("take", "taken") and s.has("go", "goes")
    much = s.hears("much") and s.hears("taper")  # in 100 mm
    if not taper or not (s.has(*words) or much or into):
        return None
    s.has("taper", "plug", "gauge", "socket", "diameter", "i", "if", "of", "a", "in")
    s.has("how", "much", "far", "does", "go", "to", "for", "from", "its", "is", "by")
    size, off = s.size(), s.hears("off") and s.has("off") and s.has("take")
    if not size:
        return None
    # if I take so much off, how far it goes; else how much for so far
    further = (off and not _TAKEN_FOR.search(s.text)) or _HOW_FAR.search(s.text)
    return {"taper": taper, "diameter_change" if further else "advance": size}


@phrase("taper-angle", "taper 25 to 20 over 50")
def _from_ends(s: Said) -> Inputs | None:
    angle = s.has("angle") and s.hears("to")
    angle = angle or (s.hears("to") and s.hears("over"))  # 1.5 to 1.25 over 4
    if not s.has("taper", "cone", "compound", "topslide") and not angle:
        return None
    first, other = s.from_to() or ("", "")  # 25 to 22 long 60
    length = s.near("over", "length")
    first, other = first or s.size(), other or s.size()
    length = length or (s.size() if s.hears("to") else "")  # 12 to 10 in 40
    length, first, other = s.alike(length, first, other)
    s.has("from", "to", "angle", "diameter", "large", "small", "end")
    if not first or not other or not length:
        return None
    small, large = sorted((first, other), key=s.mm)
    return {"large": large, "small": small, "length": length}


@phrase("taper-pin", "taper pin #4 25 long")
def _taper_pin(s: Said) -> Inputs | None:
    if not s.has("pin") or s.has("dovetail"):
        return None
    taper, pin = s.has("taper"), s.take("pin")
    if any(part.text.replace(" ", "") in PINS for part in s.parts):
        taper = bool(s.take("taper"))
    if not (taper or pin) or s.hears("deeper", "further"):
        return None
    length = s.near("length")
    pair = s.pair()
    if pair:
        pin, length = pair[:2]
    pin = pin or s.size()
    length = length or s.size()
    numbered = pin.startswith("#") or s.in_inches(pin)  # 1/4 is #4
    if length and not s.inch and not numbered and s.mm(length) < s.mm(pin):
        pin, length = length, pin  # 6 length 40
    if pin.isdigit() and (s.in_inches(length) if length else s.inch):
        pin = f"#{pin}"  # an inch shop's pins have numbers, a metric one's sizes
    if (numbered or pin.startswith("#")) and re.fullmatch(r"[\d./ ]+", length):
        # those are an inch standard's, of 6 inches at the most: no pin is 3 mm long
        length = f"{length}in" if s.mm(f"{length}mm") <= LONGEST else length
    s.has("length", "drill", "ream", "size", "hole", "end")
    return {"pin": pin} | ({"length": length} if length else {}) if pin else None


@phrase("taper-end", "taper 1:10 large end 20 length 40")
def _taper_end(s: Said) -> Inputs | None:
    """The end that was not said, or the length."""
    taper = _said_taper(s)
    if not taper:
        return None
    given: Inputs = {"taper": taper}
    known = taper_of(taper).large
    if known and s.hears("small") and s.number_of("size", "number") == 1:
        s.has("small", "end", "large", "from", "of", "at", "diameter", "after", "long")
        # small end of mt3 at 50 from large
        return {**given, "large": f"{known:g}mm", "length": s.size()}
    for key, words in (
        ("large", ("large", "big", "from")),
        ("small", ("small", "to", "down")),
        ("length", ("length", "long", "over", "after", "deep")),
    ):
        size = s.near(*words)
        if size:
            given[key] = size
    if "length" not in given and s.hears("long", "length"):  # 20 to 16, how long
        ends = s.alike(*(given.get(key) or s.size() for key in ("large", "small")))
        if all(ends):
            given["small"], given["large"] = sorted(ends, key=s.mm)
    s.has(
        "taper", "gib", "end", "cone", "diameter", "of", "how", "is", "a", "from", "to"
    )
    s.has("large", "big", "small", "long", "length")
    return given if len(given) == 3 else None


@phrase("taper", "mt3 angle", keyed=False)
def _taper(s: Said) -> Inputs | None:
    taper = "" if one_sided(s) else _said_taper(s)
    if not taper:
        return None
    s.has("taper", "angle", "degree", "seat", "size", "large", "small", "end", "half")
    s.has("cone", "of", "is", "a", "line", "setting", "set")
    s.has("shank", "socket", "arbor", "collet", "diameter", "bore", "drill", "chuck")
    s.has("slope", "ratio", "per", "foot", "ft", "tpf", "included", "steep")
    s.has("measure", "does")
    s.has("dimension", "dimensions", "inches", "attachment", "long", "length", "gauge")
    shank = shank_ends().get(taper_of(taper).name)
    if shank is not None and shank.draw:
        s.has("draw", "bar", "drawbar", "thread")
    if shank is not None and shank.across and s.has("tang"):
        s.has("thickness", "width")
    return {"name": taper}


@phrase("taper-balls", "taper hole by balls 10 and 16 at depths 42 and 8")
def _by_balls(s: Said) -> Inputs | None:
    """A small ball deep down, and a large one near the mouth."""
    if not s.has("balls") or not s.has("taper", "cone", "bore"):
        return None
    s.has("hole", "bore", "depth", "deep", "at", "down", "and", "by", "with", "measure")
    s.has("large", "small", "top", "of")
    said = []
    while size := s.size():
        said.append(size)
    if len(said) != 4:
        return None
    balls, depths = sorted(said[:2], key=s.mm), sorted(said[2:], key=s.mm)
    keys = ("small", "large", "depth_large", "depth_small")
    return dict(zip(keys, s.alike(*balls, *depths), strict=True))
