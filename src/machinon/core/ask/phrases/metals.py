"""Questions about metals: their weight, hardness, warmth and temper."""

from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import Said
from machinon.core.cutting.tempering import temper_colours
from machinon.core.quantity import ANGLE, parse

phrase = Phrases()

_BARE = ("number",)

_SIZES = ("size", "number")

_TEMPERATURE = ("angle", "number")

SHORT = 10  # times wider than long: no piece of bar is, unless it is said

LEAST_WARM = 0.3  # degrees: less is no warmth that anybody asks about
LEAST_HOT = 40.0  # °C: no shop is so warm, so it grows from 20


@phrase("mass", "weight 50 bar 200 steel")
def _weight(s: Said) -> Inputs | None:
    if not s.has("weight", "volume"):
        return None
    metal = s.take("material") or "steel"
    sizes = s.pair()
    if s.has("hex"):
        wide, *rest = sizes or [s.near("across", "af") or s.size()]
        told = "".join(rest[:1]) or s.near("length")
        wide, length = s.alike(wide, told or s.size())
        if length and not told and s.mm(length) < s.mm(wide):  # 24 af 1 m
            wide, length = length, wide
        s.has("bar", "rod", "across", "af", "flat")
        sides = {"across_flats": wide, "length": length}
        return {"shape": "hexagon", "material": metal, **sides} if length else None
    if s.has("tube", "pipe", "ring"):
        return _tube(s, metal, sizes)
    if sizes:
        thick = s.near("thickness") or (s.size() if s.hears("plate", "sheet") else "")
        if thick and len(sizes) == 2:
            sizes = s.alike(thick, *sizes)
        if len(sizes) == 3:
            keys = ("width", "height", "length")
            s.has("block", "plate")
            return {
                "shape": "block",
                "material": metal,
                **dict(zip(keys, sizes, strict=True)),
            }
        s.has("bar", "rod", "round")
        return {
            "shape": "bar",
            "material": metal,
            "diameter": sizes[0],
            "length": sizes[1],
        }
    if s.has("cube") and (side := s.size()):
        sides = dict.fromkeys(("width", "height", "length"), side)
        return {"shape": "block", "material": metal, **sides}
    length, square = s.near("length"), s.has("square")
    width, height = s.near("width"), s.near("height", "thickness")
    if width and height:
        width, height, length = s.alike(width, height, length or s.size())
        s.has("block", "plate", "bar")
        sides = {"width": width, "height": height, "length": length}
        return {"shape": "block", "material": metal, **sides} if length else None
    if s.has("disc", "disk", "round") or (
        s.hears("dia", "diameter") and (s.has("plate") or height)
    ):
        s.has("back")
        length = length or height
    said_long = bool(length)
    diameter = s.near("square") if square else ""
    diameter = diameter or s.near("diameter")
    diameter = diameter or s.near("bar", "rod", "round") or s.size()
    diameter, length = s.alike(diameter, length or s.size())
    if not said_long and length and s.mm(diameter) > SHORT * s.mm(length):
        diameter, length = length, diameter  # 25 mm bar 1 m
    s.has("bar", "rod", "round")
    if square:
        sides = {"width": diameter, "height": diameter, "length": length}
        return {"shape": "block", "material": metal, **sides} if length else None
    if not diameter or not length:
        return None
    return {"shape": "bar", "material": metal, "diameter": diameter, "length": length}


def _tube(s: Said, metal: str, sizes: list[str]) -> Inputs | None:
    """A tube of 60 x 40 x 200: outside, bore and length."""
    if not sizes:
        outside = s.near("outside", "diameter") or s.near("tube", "pipe", "ring")
        outside = outside or s.size()
        bore, length = s.near("bore", "inside"), s.near("length")
        sizes = s.alike(outside, bore or s.size(), length or s.size())
    if len(sizes) != 3 or not all(sizes):
        return None
    keys = ("outside_diameter", "bore", "length")
    return {"shape": "tube", "material": metal, **dict(zip(keys, sizes, strict=True))}


_LIKE = (
    *("hardness", "hard", "brinell", "soft", "density", "strength", "strong", "yield"),
    *("modulus", "stiffness", "expansion", "properties", "like"),
)


@phrase("metal", "hardness of tool steel")
def _metal(s: Said) -> Inputs | None:
    """What a metal is like; of no size."""
    metal = s.take("material")
    tapped = s.hears("tap") and s.has("form", "forming", "formed")
    speed = s.has("speed", "sfm", "sfpm")
    if speed:
        s.has("cutting", "surface", "turning", "drill", "turn", "mill", "of")
    alone = all(
        part.kind == "material" or part.is_noise or part.word in ("what", "is")
        for part in s.parts
    )
    if not metal or not (s.has(*_LIKE) or tapped or speed or alone):
        return None
    s.has("hss", "for", "with")
    if s.number_of(*_SIZES, "thread"):
        return None
    s.has("tap", "how", "is", "can", "i", "what", "of", "metal")
    return {"material": metal}


# the words of each scale; a Rockwell of no letter is that of hard steel
_SCALES = {
    "rockwell_c": ("hrc", "rc", "rockwell"),
    "rockwell_b": ("hrb", "rb"),
    "brinell": ("hb", "bhn", "hbw", "brinell"),
    "vickers": ("hv", "vickers", "vpn"),
    "strength": ("mpa", "tensile", "strength"),
}


@phrase("hardness", "60 HRC in vickers")
def _hardness(s: Said) -> Inputs | None:
    """A hardness in the other scales, or a steel's strength by it."""
    if s.hears("rockwell") and s.has("b"):
        scales = {**_SCALES, "rockwell_c": ("hrc",), "rockwell_b": ("rockwell",)}
    else:
        scales = _SCALES
    for scale, said in scales.items():
        value = s.near(*said, kinds=_BARE)
        if not value:
            continue
        s.has(*(word for words in _SCALES.values() for word in words), "c")
        s.has("hardness", "hard", "scale", "in", "to", "of", "convert", "as")
        s.take("material")
        return {scale: value}
    return None


@phrase("thermal-size", "growth of 100 steel from 20 to 60 degrees")
def _growth(s: Said) -> Inputs | None:
    cooled = s.has("cool", "cooled", "freeze", "frozen")
    if not (
        s.has("growth", "grow", "expansion", "expand", "shrink", "longer") or cooled
    ):
        return None
    if any(part.word in ("fit", "interference") for part in s.parts):
        return None
    warm = s.near("to", kinds=_TEMPERATURE)
    cold = s.near("from", "c", "f", kinds=_TEMPERATURE) or s.take("angle")
    size, metal = s.size(), s.take("material")
    fahrenheit = s.has("f", "fahrenheit")
    s.has("c", "celsius", "degree", "temperature", "from", "heated", "by")
    s.has("shaft", "how", "much", "does")
    by_cold = warm.startswith("-") and (cooled or s.hears("shrink"))
    if not size or not (cold or by_cold):
        return None
    cold = cold or ("68" if fahrenheit else "20")  # the shop's
    given: Inputs = {"size": size, "material": metal or "steel"}
    if warm:
        here, there = _celsius(cold, fahrenheit), _celsius(warm, fahrenheit)
        return {**given, "temperature": here, "reference": there}
    if s.hears("at") and _celsius(cold, fahrenheit) >= LEAST_HOT:
        hot = _celsius(cold, fahrenheit)
        return {**given, "temperature": 20, "reference": hot}
    if s.hears("shrink", "from", "at", "to", "in"):
        return None  # at 10 degrees is not so much warmer
    by = parse(cold, ANGLE) / (1.8 if fahrenheit else 1)
    if abs(by) < LEAST_WARM:
        return None
    return {**given, "temperature": 20, "reference": round(20 + by, 2)}


def _celsius(said: str, fahrenheit: bool) -> float:
    degrees = parse(said, ANGLE)  # as one says them, they are the same
    return round((degrees - 32) / 1.8 if fahrenheit else degrees, 2)


@phrase("thermal-size", "100mm steel 10 deg warmer")
def _warm(s: Said) -> Inputs | None:
    at = s.has("at")
    measured = s.has("measured", "read", "reading") or (at and s.has("size"))
    warmth = s.has("temperature")
    warmer = s.has("warmer", "heat", "heated") or (warmth and s.has("rise"))
    cooler = s.has("cooler", "cold") or (warmth and s.has("drop"))
    # in a cold shop, and not so much colder
    measured = measured or (s.hears("cold") and s.hears("c", "f") and not s.hears("by"))
    metal = s.take("material")
    # at 28 degrees in steel: it was read so warm, and has not grown by that
    absolute = measured or (at and bool(metal) and not warmer and not cooler)
    if not (absolute or warmer or cooler):
        return None
    sizes = s.number_of(*_SIZES)
    if sizes > 1 and any(
        word.text.lower() in ("grow", "expand") and figure.kind in _SIZES
        for word, figure in pairwise(s.parts)
    ):
        return None  # how warm it has to be, is asked
    if s.hears("per", "each") and s.has("degree") and sizes == 1:
        one = {"material": metal or "steel", "temperature": 20, "reference": 21}
        return {"size": s.size(), **one}
    said = s.take("angle") or s.near("warmer", "cooler", "c", "f", kinds=_BARE)
    size, fahrenheit = s.size(), s.has("f", "fahrenheit")
    if not size or not said:
        return None
    s.has("degree", "c", "celsius")
    there = _celsius(said, fahrenheit)
    # it grows at 60 degrees: from 20 on, where nobody said by how much it is warmer
    if not absolute and not (at and s.hears("grow", "grows", "expand", "expands")):
        by = there - _celsius("0", fahrenheit)
        there = 20 + by * (1 if warmer else -1)
    given: Inputs = {"size": size, "material": metal or "steel"}
    if absolute:
        wanted = s.take("number")  # 95.02 measured at 26 c steel at 20
        at_last = {"reference": wanted} if wanted and s.hears("at") else {}
        return {**given, "temperature": round(there, 2), **at_last}
    return {**given, "temperature": 20, "reference": round(there, 2)}


@phrase("temper-colour", "temper straw")
def _tempered(s: Said) -> Inputs | None:
    coloured = s.has("colour", "color")
    names = {word for one in temper_colours() for word in one.name.split()}
    warm = s.hears("temperature") and s.hears(*names)
    if not s.has("temper", "tempering", "tempered") and not (coloured or warm):
        return None
    s.has("steel", "heat", "temperature", "c", "degree", "celsius", "at", "for", "what")
    shade = "pale " if s.has("pale", "light") else ""
    for one in temper_colours():
        uses = [use.strip() for use in one.suits.split(",")]
        if s.has(*uses, *(use.removesuffix("es") for use in uses)):
            s.has("a", "for")
            return {"colour": one.name}
        name = one.name.removeprefix("pale ")
        if one.name in (f"{shade}{name}", name) and s.has(name):
            return {"colour": f"{shade}{name}" if name == "straw" else name}
    fahrenheit = s.has("f", "fahrenheit")
    said = s.take("angle", "number")
    return {"heat": _celsius(said, fahrenheit)} if said else None
