"""Questions that can be said in a line: which words ask for which sum.

Each phrase takes what it can use of what was said and makes the inputs of its
reckoning of it, or nothing where the question is another one. Inputs stay as they
were typed. The example is one that it answers.
"""

import re
from collections.abc import Callable, Mapping
from itertools import pairwise
from typing import Any

from msgspec import Struct

from machinon.core.ask.said import Said
from machinon.core.quantity import parse
from machinon.core.sizes.limits import limits_of_size
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import known_threads

Inputs = dict[str, Any]
Reader = Callable[[Said], Inputs | None]


class Phrase(Struct, frozen=True):
    """A question: its reckoning, an example, and what reads it.

    keyed: whether a word must be said for it; without one every part must be used.
    """

    reckoner: str
    example: str
    read: Reader
    keyed: bool = True


PHRASES: list[Phrase] = []


def _phrase(
    reckoner: str, example: str, keyed: bool = True
) -> Callable[[Reader], Reader]:
    def declare(read: Reader) -> Reader:
        PHRASES.append(Phrase(reckoner, example, read, keyed))
        return read

    return declare


def _thread(s: Said) -> str:
    """A thread as the tables know it: `m12 fine`, `bsw 1/2`, `acme 1-5`."""
    text = s.take("thread")
    if not text:
        return ""
    low = " ".join(text.lower().replace("×", "x").split())
    if s.has("fine"):
        fine = _fine(low)
        if fine:
            return fine
    s.has("coarse", "thread", "screw", "bolt")
    if match := re.match(r"(bsw|bsf)\s+(.*)", low):
        return f"{match.group(2)} {match.group(1).upper()}"
    if match := re.match(r"acme\s*(.*)", low):
        return f"{match.group(1)} Acme"
    if match := re.match(r"(?:g|bsp)\s*(\d.*)", low):
        return f"G{match.group(1)}"
    if low.endswith("bsp"):
        return f"G{low.removesuffix('bsp').strip()}"
    if s.has("acme") and "acme" not in low:
        return f"{low} Acme"
    return text


def _fine(name: str) -> str:
    """The usual fine pitch of a metric size: the coarsest of its fine ones."""
    size = name.upper().replace(" ", "")
    pitches = [
        one.pitch
        for one in known_threads().values()
        if one.name.upper().startswith(f"{size}X")
    ]
    # M8 and M10 are usually cut a quarter finer, M12 on with 1.25 or 1.5
    usual = {"M8": 1.0, "M10": 1.25, "M12": 1.25}.get(size)
    pitch = usual if usual in pitches else max(pitches, default=0.0)
    return f"M{size[1:]}x{pitch:g}" if pitch else ""


# -- threads ---------------------------------------------------------------------


@_phrase("tap-drill", "tap drill 5/16-18")
def _tap(s: Said) -> Inputs | None:
    thread = _thread(s)
    percent = s.take("percent")
    if not thread or not (s.has("tap", "drill") or percent):
        return None
    formed = s.has("form", "forming", "formed", "roll")
    s.has("hole", "size", "thread")
    given: Inputs = {"thread": thread}
    if formed:
        given["kind"] = "form"
    if percent:
        given["engagement"] = percent
    return given


@_phrase("clearance-hole", "clearance m8")
def _clearance(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread or not s.has("clearance"):
        return None
    s.has("hole", "drill")
    for fit in ("close", "normal", "loose"):
        if s.has(fit):
            return {"thread": thread, "fit": fit}
    return {"thread": thread}


@_phrase("cap-screw", "counterbore m8")
def _head(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread:
        return None
    for kind in ("button", "countersunk", "hex", "set", "cap"):
        if s.has(kind) | (kind == "countersunk" and s.has("countersink")):
            s.has("head", "screw", "size", "key", "counterbore", "socket")
            return {"thread": thread, **({} if kind == "cap" else {"head": kind})}
    if s.has("head", "counterbore", "socket"):
        return {"thread": thread}
    return None


@_phrase("thread-wires", "wires m24")
def _wires(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread or not s.has("wire"):
        return None
    s.has("three", "over")
    return {"thread": thread}


@_phrase("crest-flat", "flat on the crest of m24")
def _crest(s: Said) -> Inputs | None:
    if not s.has("crest"):
        return None
    thread = _thread(s)
    if not thread:
        return None
    s.has("flat", "width", "on")
    return {"thread": thread}


@_phrase("thread-passes", "m45x4.5 depth of thread")
def _thread_depth(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread or not s.has("depth", "pass", "infeed", "passe"):
        return None
    s.has("cut", "compound")
    return {"thread": thread}


@_phrase("thread-engagement", "m6x1 engagement")
def _engagement(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread or not s.has("engagement", "strip", "strips"):
        return None
    s.has("least", "minimum", "length")
    return {"thread": thread}


@_phrase("drill-depth", "drill depth m8 16 deep")
def _blind(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread or not s.has("drill", "blind", "hole") or not s.has("depth"):
        return None
    depth = s.size()
    if not depth:
        return None
    for tap in ("taper", "plug", "bottoming"):
        if s.has(tap):
            return {"thread": thread, "thread_depth": depth, "tap": tap}
    return {"thread": thread, "thread_depth": depth}


@_phrase("thread", "m12 fine", keyed=False)
def _plain_thread(s: Said) -> Inputs | None:
    thread = _thread(s)
    if not thread:
        return None
    s.has("pitch", "size", "minor", "major", "diameter", "core")
    return {"thread": thread}


@_phrase("change-gears", "1.25 pitch 4mm leadscrew")
def _gears(s: Said) -> Inputs | None:
    lead = _lead(s)
    asked = s.has("gear", "wheel", "change", "train")
    if not lead and not asked:
        return None
    tpi = s.take("tpi")
    pitch = "" if tpi else s.near("pitch") or s.size()
    if not tpi and not pitch:
        return None
    s.has("pitch", "thread", "cut", "lathe")
    given: Inputs = {"leadscrew": lead} if lead else {}
    if tpi:
        return {"tpi": re.sub(r"\s*[a-z].*", "", tpi, flags=re.I), **given}
    return {"pitch": pitch, **given}


def _lead(s: Said) -> str:
    """The lead screw that was said, as a pitch or threads to the inch."""
    for i, part in enumerate(s.parts):
        if part.kind != "word" or part.word != "lead":
            continue
        part.used = True
        if i + 1 < len(s.parts) and s.parts[i + 1].text.lower() == "screw":
            s.parts[i + 1].used = True
        for other in (i - 1, i + 2, i + 1):
            if 0 <= other < len(s.parts):
                one = s.parts[other]
                if one.kind in ("size", "number", "tpi") and not one.used:
                    one.used = True
                    return one.text.replace(" ", "")
    return ""


@_phrase("thread-identify", "which thread 7.85 18tpi")
def _which(s: Said) -> Inputs | None:
    if not s.has("identify", "unknown") and not (
        s.has("thread") and any(p.text.lower() == "which" for p in s.parts)
    ):
        return None
    tpi, major = s.take("tpi"), s.size()
    if not major:
        return None
    given: Inputs = {"measured_major": major}
    if tpi:
        given["tpi"] = re.sub(r"\s*[a-z].*", "", tpi, flags=re.I)
    else:
        pitch = s.near("pitch") or s.size()
        if pitch:
            given["pitch"] = pitch
    s.has("pitch")
    return given


# -- fits --------------------------------------------------------------------------


@_phrase("iso-fit", "46 H7/g6", keyed=False)
def _pair_of_zones(s: Said) -> Inputs | None:
    fit, nominal = s.take("fit"), s.size()
    s.has("fit", "shaft", "hole", "bore", "play", "clearance", "interference")
    if fit.islower():  # said in small letters the hole still comes first
        hole, _, shaft = fit.partition("/")
        fit = f"{hole.upper()}/{shaft}"
    return {"nominal": nominal, "fit": fit} if fit and nominal else None


@_phrase("iso-fit", "press fit 20 shaft")
def _press(s: Said) -> Inputs | None:
    if not (s.has("press") and s.has("fit")):
        return None
    nominal = s.size()
    s.has("shaft", "hole", "bore", "pin", "bush")
    # the usual one that stays: a shop rule, said with the answer
    return {"nominal": nominal, "fit": "H7/p6"} if nominal else None


@_phrase("inch-fit", "2in FN2", keyed=False)
def _inch_fit(s: Said) -> Inputs | None:
    fit, nominal = s.take("inch fit"), s.size()
    return {"nominal": nominal, "fit": fit} if fit and nominal else None


@_phrase("iso-limits", "25 h6", keyed=False)
def _zone(s: Said) -> Inputs | None:
    zone, nominal = s.take("zone"), s.size()
    s.has("limit", "tolerance", "shaft")
    if s.has("hole", "bore", "reamer", "ream"):
        zone = zone.upper()
    return {"nominal": nominal, "zone": zone} if zone and nominal else None


@_phrase("iso-fit", "10 dowel press")
def _dowel(s: Said) -> Inputs | None:
    if not s.has("dowel"):
        return None
    nominal = s.size()
    if not nominal:
        return None
    slides = s.has("slide", "sliding", "slip", "easy")
    s.has("press", "tight", "hole", "ream", "pin")
    # dowels are bought to m6
    return {"nominal": nominal, "fit": "G7/m6" if slides else "H7/m6"}


@_phrase("bearing-seat", "bearing seat 6204")
def _bearing(s: Said) -> Inputs | None:
    number = s.take("bearing")
    asked = s.has("bearing")
    bore = _bearing_bore(number) if number else (s.near("bore") or s.size())
    if not asked and not number:
        return None
    if not bore:
        return None
    s.has("seat", "shaft", "fit")
    if s.has("housing", "outer", "outside"):  # the other ring: not this question
        return None
    try:
        size = float(re.sub(r"[^\d.]", "", bore))
        zone = limits_of_size(size, "k6")
    except ValueError:
        return None
    # the ring that turns, on a shaft of k6
    return {
        "bore": bore,
        "play_least": -zone.upper_deviation,
        "play_most": -zone.lower_deviation,
    }


def _bearing_bore(number: str) -> str:
    found = next((r for r in rows("ball_bearings") if r["name"] == number), None)
    return f"{found['bore_mm']}mm" if found else ""


# -- tapers ------------------------------------------------------------------------


@_phrase("taper-setup", "mt2 offset 200 between centres")
def _offset(s: Said) -> Inputs | None:
    taper = s.take("taper")
    if not taper:
        return None
    if s.has("offset", "setover") | s.has("centre", "between"):
        length = s.size()
        s.has("between", "centre", "tailstock", "length")
        if not length:
            return None
        return {
            "taper": taper,
            "method": "tailstock",
            "length_between_centres": length,
        }
    if s.has("indicator", "clock", "dial", "dti"):
        given: Inputs = {"taper": taper, "method": "indicator"}
        travel = s.size()
        return {**given, "travel": travel} if travel else given
    if s.has("compound", "topslide", "slide", "angle") and s.has("set", "compound"):
        return {"taper": taper}
    return None


@_phrase("taper-advance", "taper 1:20 over 50")
def _over(s: Said) -> Inputs | None:
    taper = s.take("taper")
    if not taper or not s.has("over", "advance", "further", "deeper"):
        return None
    s.has("taper")
    advance = s.size()
    return {"taper": taper, "advance": advance} if advance else None


@_phrase("taper-pin", "taper pin #4 25 long")
def _taper_pin(s: Said) -> Inputs | None:
    if not s.has("pin") or s.has("dovetail"):
        return None
    s.has("taper")
    pin = s.take("pin")
    length = s.near("length")
    pin = pin or s.size()
    length = length or s.size()
    s.has("length", "drill", "ream", "reamer")
    return {"pin": pin, "length": length} if pin and length else None


@_phrase("taper", "mt3 angle", keyed=False)
def _taper(s: Said) -> Inputs | None:
    taper = s.take("taper")
    if not taper:
        return None
    s.has("taper", "angle", "seat", "size", "large", "small", "end", "half")
    s.has("shank", "socket", "arbor", "drawbar")
    return {"name": taper}


# -- holes and dividing -------------------------------------------------------------


@_phrase("hole-span", "3 holes span 103.15 hole 7.89")
def _span(s: Said) -> Inputs | None:
    span = s.near("span")
    if not span:
        return None
    counted = next(
        (
            p
            for p, after in pairwise(s.parts)
            if p.kind == "number" and p.text.isdigit() and after.text.lower() == "holes"
        ),
        None,
    )
    if counted is None:
        return None
    counted.used = True
    s.has("hole", "bolt", "circle", "screw", "over", "neighbour")
    hole = s.size()
    asked = {"span": span, "hole": hole, "holes": counted.text}
    return asked if hole else None


@_phrase("bolt-circle", "bolt circle 6 holes 80mm")
def _circle(s: Said) -> Inputs | None:
    if s.has("span"):  # over neighbours, which is no diameter
        return None
    circle = s.has("circle", "pattern")
    holes = any(p.kind == "word" and p.word == "hole" for p in s.parts)
    if not circle and not holes:
        return None
    s.has("bolt", "hole", "equal", "spaced", "evenly", "equally")
    sized = s.take("size")
    if sized:
        count = s.count("hole", "bolt")
        return {"holes": count, "diameter": sized} if count else None
    first, second = s.take("number"), s.take("number")
    if not first or not second:
        return None
    # of two bare numbers the circle is the larger one
    count, diameter = sorted((first, second), key=_value)
    if not count.isdigit():
        return None
    s.has("diameter")
    return {"holes": count, "diameter": diameter}


def _value(text: str) -> float:
    parts = text.split()
    total = 0.0
    for part in parts:
        over, _, under = part.partition("/")
        total += float(over) / float(under or 1) if float(under or 1) else 0.0
    return total


@_phrase("dividing", "7 divisions 40:1")
def _dividing(s: Said) -> Inputs | None:
    if not s.has("divide", "index", "indexing"):
        return None
    ratio = s.take("ratio")
    worm = ratio.split(":")[0].strip() if ratio else s.near("worm", kinds=("number",))
    angle = s.take("angle")
    count = "" if angle else s.count("divide")
    s.has("worm", "head", "table", "plate", "hole")
    if not angle and not count:
        return None
    given: Inputs = {"angle": angle} if angle else {"divisions": count}
    return {**given, "worm": worm} if worm else given


@_phrase("polygon", "hex 17 from round")
def _polygon(s: Said) -> Inputs | None:
    sides = next(
        (n for word, n in (("hex", 6), ("square", 4), ("octagon", 8)) if s.has(word)),
        None,
    )
    if sides is None or s.has("broach"):
        return None
    if any(p.kind == "word" and p.word == "hole" for p in s.parts):
        return None
    flats = s.size()
    if not flats:
        return None
    from_bar = any(p.text.lower() in ("bar", "rod") for p in s.parts)
    s.has("round", "flat", "across", "af", "bar", "rod", "corner")
    if from_bar:
        return {"sides": sides, "round": flats}
    return {**({} if sides == 6 else {"sides": sides}), "across_flats": flats}


@_phrase("pipe-joint", "pipe 25 on tube 42 at 60 deg")
def _pipe_joint(s: Said) -> Inputs | None:
    if not s.has("pipe", "saddle", "fishmouth", "notch"):
        return None
    pipe, on = s.size(), s.size()
    if not pipe or not on:
        return None
    angle = s.take("angle")
    s.has("on", "tube", "round", "pipe", "at", "joint", "template")
    return {"pipe": pipe, "on": on, **({"angle": angle} if angle else {})}


@_phrase("arc-points", "round an end radius 20 by points cutter 10")
def _arc_points(s: Said) -> Inputs | None:
    if not s.has("points", "places") or not s.has("round", "arc", "end", "hollow"):
        return None
    radius, cutter = s.size(), s.size()
    if not radius or not cutter:
        return None
    s.has("radius", "cutter", "end", "by", "with", "an", "arc", "milled")
    return {"radius": radius, "cutter": cutter}


@_phrase("chamfer", "chamfer 1 x 45")
def _chamfer(s: Said) -> Inputs | None:
    if not s.has("chamfer", "bevel"):
        return None
    pair, angle = s.take("pair"), s.take("angle")
    if pair:
        leg, degrees = re.split(r"\s*[x×*]\s*", pair)[:2]
        return {"leg": leg, "angle": degrees}
    leg = s.size()
    if not leg:
        return None
    if s.has("face", "width"):
        return {"face": leg, **({"angle": angle} if angle else {})}
    s.has("leg")
    return {"leg": leg, **({"angle": angle} if angle else {})}


@_phrase("half-way", "half way 2 102 tip 10")
def _half_way(s: Said) -> Inputs | None:
    if not (s.has("half-way", "halfway", "middle") or (s.has("half") and s.has("way"))):
        return None
    tip = s.near("tip", "finder")
    a, b = s.size(), s.size()
    s.has("between", "edge")
    if not a or not b:
        return None
    return {"edge_a": a, "edge_b": b, **({"tip": tip} if tip else {})}


@_phrase("square-hole", "square hole 10")
def _square_hole(s: Said) -> Inputs | None:
    if not s.has("square") or not s.has("hole", "broach"):
        return None
    size = s.size()
    s.has("drill", "pilot")
    return {"size": size} if size else None


# -- measuring ---------------------------------------------------------------------


@_phrase("dovetail", "dovetail 60 deg 10mm pins 40 wide")
def _dovetail(s: Said) -> Inputs | None:
    if not s.has("dovetail"):
        return None
    angle = s.take("angle")
    pin = s.near("pin", "roller")
    wide = s.near("width", "bottom", "corner")
    depth = s.near("depth")
    top = s.near("top")
    s.has("pin", "roller", "over", "between")
    pin = pin or s.size()
    if not pin:
        return None
    given: Inputs = {"pin": pin}
    if top and depth:
        given["width_top"] = top
    else:
        given["width_bottom"] = wide or top or s.size()
    if not given.get("width_bottom") and not given.get("width_top"):
        return None
    if depth:
        given["depth"] = depth
    if angle:
        given["angle"] = angle
    if s.has("female", "slot", "internal", "inside"):
        given["internal"] = "yes"
    return given


@_phrase("keyway", "keyway 25")
def _keyway(s: Said) -> Inputs | None:
    if not s.has("keyway", "key") or s.has("woodruff"):
        return None
    shaft = s.size()
    if not shaft:
        return None
    given: Inputs = {"shaft_diameter": shaft}
    if s.has("shaft"):
        given["bore"] = "no"
    s.has("bore", "hub")
    pair = s.take("pair")
    return {**given, "key": pair} if pair else given


@_phrase("woodruff", "woodruff 6x9")
def _woodruff(s: Said) -> Inputs | None:
    if not s.has("woodruff"):
        return None
    s.has("key", "cutter", "keyway")
    pair = s.take("pair")
    if pair:
        return {"key": re.sub(r"\s*[x×*]\s*", "x", pair)}
    if s.has("shaft"):
        size = s.size()
        return {"shaft": size} if size else None
    number = s.take("number")
    if number.isdigit() and int(number) >= 200:
        return {"key": number}
    return {"shaft": number} if number else None


@_phrase("circlip", "circlip 20 shaft")
def _circlip(s: Said) -> Inputs | None:
    if not s.has("circlip", "snap"):
        return None
    size = s.size()
    s.has("ring", "groove", "shaft")
    if not size:
        return None
    bore = s.has("bore", "internal", "hole", "inside")
    return {"diameter": size, **({"kind": "bore"} if bore else {})}


@_phrase("flat", "flat 8 wide on 12.1")
def _flat(s: Said) -> Inputs | None:
    if not s.has("flat"):
        return None
    wide, depth, across = s.near("width"), s.near("depth"), s.near("across")
    diameter = s.near("diameter", "round", "on", "shaft") or s.size()
    s.has("round", "shaft", "bar")
    given = {"width": wide, "depth": depth, "across": across}
    said = {key: value for key, value in given.items() if value}
    if len(said) != 1 or not diameter:
        return None
    return {"diameter": diameter, **said}


@_phrase("sine", "sine bar 30 deg 5 inch")
def _sine(s: Said) -> Inputs | None:
    if not s.has("sine"):
        return None
    s.has("bar")
    angle = s.take("angle") or s.take("number")
    length = s.size()
    return {"angle": angle, "length": length} if angle and length else None


@_phrase("angle-block", "angle block 15 deg 80 long")
def _block(s: Said) -> Inputs | None:
    if not s.has("block", "packing", "wedge"):
        return None
    angle = s.take("angle")
    length = s.near("length") or s.size()
    s.has("angle")
    return {"angle": angle, "length": length} if angle and length else None


@_phrase("triangle", "triangle 3 4")
def _triangle(s: Said) -> Inputs | None:
    if not s.has("triangle", "hypotenuse", "pythagoras"):
        return None
    angle = s.take("angle")
    # of two bare sizes the long side is what is asked: hypotenuse 30 40
    bare = not any(p.kind == "word" and p.word in ("side", "base") for p in s.parts)
    asked = bare and sum(p.kind in ("size", "number") for p in s.parts) == 2
    slope = "" if asked else s.near("hypotenuse", "slope")
    s.has("hypotenuse")
    first = s.size()
    second = "" if angle or slope else s.size()
    s.has("right", "side", "base")
    if angle and (slope or first):
        return {"slope" if slope else "side": slope or first, "angle": angle}
    if slope and first:
        return {"slope": slope, "side": first}
    return {"side": first, "rise": second} if first and second else None


@_phrase("triangle", "3 degrees over 50")
def _rise(s: Said) -> Inputs | None:
    angle = s.take("angle")
    if not angle or not s.has("over", "along"):
        return None
    side = s.size()
    s.has("rise")
    return {"side": side, "angle": angle} if side else None


@_phrase("arc-chord", "radius from chord 40 height 5")
def _arc(s: Said) -> Inputs | None:
    if not s.has("chord"):
        return None
    if s.near("radius"):  # it is known: the height is another question
        return None
    height = s.near("height", "rise", "sagitta")
    chord = s.near("chord") or s.size()
    s.has("radius", "arc", "height")
    height = height or s.size()
    return {"chord": chord, "height": height} if chord and height else None


@_phrase("gauge-stack", "slips for 41.275")
def _slips(s: Said) -> Inputs | None:
    if not s.has("slip", "stack", "gauge", "shim", "parallel"):
        return None
    target = s.size()
    return {"target": target} if target else None


# -- materials and cutting -----------------------------------------------------------

_OPERATIONS = (
    "drill",
    "ream",
    "tap",
    "thread",
    "part",
    "knurl",
    "countersink",
    "saw",
    "flycut",
    "mill",
    "bore",
    "turn",
)


_TOOLS = ("hss", "cobalt", "carbide", "brazed")


@_phrase("rotating-limit", "how fast 200 cast iron disc")
def _disc(s: Said) -> Inputs | None:
    if not s.has("disc", "disk", "flywheel", "faceplate"):
        return None
    s.has("fast", "limit", "speed", "rpm", "most", "run", "turn", "burst", "safe")
    metal = s.take("material")
    size = s.near("diameter") or s.size()
    if not metal or not size:
        return None
    return {"outside_diameter": size, "material": metal}


@_phrase("speeds", "speed mild steel 40")
def _speed(s: Said) -> Inputs | None:
    surface = s.take("speed")
    if s.take("rpm"):  # the speed is known: that is another question
        return None
    if not s.has("speed", "rpm", "feed", "surface", "fast") and not surface:
        return None
    s.has("speed", "rpm", "feed", "surface", "cutting", "lathe", "mill")
    given: Inputs = {}
    metal = s.take("material")
    if metal.lower() in _TOOLS:  # a tool's metal, not the work's
        given["tool"], metal = metal.lower(), s.take("material")
    elif (other := s.take("material")).lower() in _TOOLS:
        given["tool"] = other.lower()
    teeth = s.near("teeth", kinds=("number",))
    for operation in _OPERATIONS:
        if any(p.kind == "word" and p.word == operation for p in s.parts):
            s.has(operation)
            given["operation"] = operation
            break
    for tool in _TOOLS:
        if s.has(tool):
            given["tool"] = tool
    diameter = s.take("size") or s.near("diameter") or s.size()
    s.has("diameter", "tool", "cutter", "bar", "bit")
    if not diameter:
        return None
    if teeth:
        given |= {"teeth": teeth, "operation": given.get("operation", "mill")}
    if surface:
        given["surface_speed"] = surface
    elif metal:
        given["material"] = metal
    else:
        given["material"] = "steel"
    return {**given, "diameter": diameter}


@_phrase("passes", "passes 13 to 12.1")
def _passes(s: Said) -> Inputs | None:
    if not s.has("pass", "passe", "cut", "cuts"):
        return None
    most = s.near("deepest", "at", "most")
    start, finish = s.size(), s.size()
    if not start or not finish:
        return None
    given: Inputs = {"start": start, "finish": finish}
    if s.has("length", "face", "thickness"):
        given["on"] = "length"
    return {**given, "most": most} if most else given


@_phrase("mass", "weight 50 bar 200 steel")
def _weight(s: Said) -> Inputs | None:
    if not s.has("weight"):
        return None
    metal = s.take("material") or "steel"
    pair = s.take("pair")
    if pair:
        sizes = re.split(r"\s*[x×*]\s*", pair)
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
    length = s.near("length")
    diameter = s.near("bar", "rod", "round", "diameter") or s.size()
    length = length or s.size()
    s.has("bar", "rod", "round")
    if not diameter or not length:
        return None
    return {"shape": "bar", "material": metal, "diameter": diameter, "length": length}


@_phrase("cutting-time", "time 100 long 0.1 feed 500 rpm")
def _cutting_time(s: Said) -> Inputs | None:
    if not s.has("time", "minute"):
        return None
    rpm, diameter = s.take("rpm"), s.near("diameter")
    feed = s.near("feed", kinds=("number", "size"))
    length = s.near("long", "length", "over") or s.size()
    passes = s.near("passes", "pass", "passe", kinds=("number",)) or "1"
    metal = s.take("material")
    s.has("cutting", "cut", "turn", "turning", "pass", "bar", "for")
    if not length or not (rpm or (diameter and metal)):
        return None
    given: Inputs = {"length": length}
    named = (("rpm", rpm), ("feed", feed), ("diameter", diameter))
    given |= {key: value for key, value in (*named, ("passes", passes)) if value}
    return {**given, "material": metal} if metal else given


@_phrase("thermal-size", "100mm steel 10 deg warmer")
def _warm(s: Said) -> Inputs | None:
    warmth = s.has("temperature")
    warmer = s.has("warmer", "heat", "heated", "hotter") or (warmth and s.has("rise"))
    cooler = s.has("cooler", "cold", "colder") or (warmth and s.has("drop"))
    if not warmer and not cooler:
        return None
    metal = s.take("material") or "steel"
    change = s.take("angle") or s.near("warmer", "cooler", kinds=("number",))
    size = s.size()
    number = re.match(r"[\d.]+", change)
    if not size or not number:
        return None
    s.has("degree", "c", "celsius")
    by = float(number.group()) * (1 if warmer else -1)
    return {"size": size, "material": metal, "temperature": 20 + by}


@_phrase("knurl", "knurl 20")
def _knurl(s: Said) -> Inputs | None:
    if not s.has("knurl"):
        return None
    tpi = s.take("tpi")
    pitch = s.near("pitch")
    diameter = s.near("diameter", "on") or s.size()
    if not diameter:
        return None
    if tpi:
        return {"tpi": re.sub(r"\s*[a-z].*", "", tpi, flags=re.I), "diameter": diameter}
    # 25 pitch 1: the teeth are the smaller
    pitch, diameter = sorted((pitch or "1mm", diameter), key=parse)
    return {"pitch": pitch or "1mm", "diameter": diameter}


@_phrase("boring-bar", "boring bar 16 out 80")
def _bar(s: Said) -> Inputs | None:
    if not s.has("bore") or not s.has("bar"):
        return None
    out = s.near("out", "overhang", "stickout")
    diameter = s.size()
    out = out or s.size()
    tool = next((t for t in ("carbide",) if s.has(t)), "")
    if not diameter or not out:
        return None
    given: Inputs = {"bar_diameter": diameter, "overhang": out}
    return {**given, "bar_material": tool} if tool else given


# -- lengths in other units -----------------------------------------------------------


@_phrase("convert", "letter drill f")
def _drill_name(s: Said) -> Inputs | None:
    letter = s.has("letter")
    if not s.has("drill") and not letter:
        return None
    s.has("number", "no", "size")
    if letter:
        word = next(
            (p for p in s.parts if not p.used and re.fullmatch("[a-zA-Z]", p.text)),
            None,
        )
        if word is None:
            return None
        word.used = True
        return _drill("letter", word.text.upper())
    number = s.take("pin")
    if number:
        return _drill("number", number)
    # a size: which drill is nearest
    value = s.take("size", "number")
    return {"value": value, "to": "drill"} if value and _alone(s) else None


def _alone(s: Said) -> bool:
    """Whether nothing that says something is left: else it is another question."""
    return not s.unused


def _drill(series: str, name: str) -> Inputs | None:
    found = next(
        (r for r in rows("drills") if r["series"] == series and r["name"] == name), None
    )
    return {"value": f"{found['size_in']}in"} if found else None


_TO = {
    "mm": "mm",
    "millimetre": "mm",
    "inch": "inch",
    "inche": "inch",
    "thou": "thou",
    "um": "um",
    "µm": "um",
    "micron": "um",
    "fraction": "fraction",
    "drill": "drill",
}


@_phrase("convert", "13/32 in mm", keyed=False)
def _convert(s: Said) -> Inputs | None:
    value = s.take("size", "number")
    if not value:
        return None
    to = next((p for p in s.parts if p.kind == "word" and p.word in _TO), None)
    given: Inputs = {"value": value}
    if to is not None:
        to.used = True
        given["to"] = _TO[to.word]
        bare = re.fullmatch(r"[\d. /]+", value)
        # 0.0005 in um: nobody asks what half a micron of metal is in microns
        if bare and given["to"] in ("mm", "um"):
            given["value"] = f"{value}in"
    s.has("nearest", "convert")
    return given


@_phrase("convert", "half of 98.4 less 12")
def _half(s: Said) -> Inputs | None:
    if not s.has("half"):
        return None
    first = s.size()
    less, more = s.has("less", "minus"), s.has("plus", "more")
    if not first:
        return None
    if not less and not more:
        return {"value": f"({first})/2"}
    second = s.size()
    return {"value": f"({first})/2{'-' if less else '+'}{second}"} if second else None


def examples() -> Mapping[str, str]:
    """An example for each reckoning that can be asked in a line, by its name."""
    found: dict[str, str] = {}
    for one in PHRASES:
        found.setdefault(one.reckoner, one.example)
    return found
