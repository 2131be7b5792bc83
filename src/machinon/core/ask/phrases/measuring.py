"""Questions about measuring: dovetails, keys, flats, slips, triangles."""

import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.phrases.tapers import one_sided
from machinon.core.ask.said import ALIKE, TENTHS, Said

phrase = Phrases()

LEAST_TURNED = 1.0  # mm: what is less is no diameter, but the difference of two

MOST_PIN = 40.0  # mm, and inches: a whole number over it is the dovetail's angle
DOVETAILS = ("45", "55", "60")  # degrees, as they are cut
VEES = ("60", "90", "120")  # degrees, as they are cut
MOST_OUT = 0.05  # of its travel that a vise stands off; more was said of something else
CORNERS = 4
RIGHT = 90.0  # degrees
TRAVEL = 10.0  # mm: of an indicator; readings further apart are of something else


@phrase("dovetail", "dovetail 60 deg 10mm pins 40 wide")
def _dovetail(s: Said) -> Inputs | None:
    if not s.has("dovetail") or s.hears("measured", "reads", "read"):
        return None  # from a reading its width is asked
    angle = s.take("angle")
    pin = s.near("pin", "roller")
    depth = s.near("depth")
    wide = s.near("width", "bottom", "corner")
    top = s.near("top")
    s.has("pin", "roller", "over", "between")
    pin = pin or s.size()
    if not pin:
        return None
    whole, _, part = pin.partition(" ")
    if "/" in part and not angle and s.mm(f"{whole}mm") > MOST_PIN:  # 60 3/8 pins
        angle, pin = f"{whole}deg", part
    at_top = bool(top) or s.has("top")
    for figure in s.parts:  # pins 8 60
        if not angle and not figure.used and figure.text in DOVETAILS:
            figure.used, angle = True, figure.text
    if at_top and not depth:
        return None  # how wide it is at its corners depends on that
    width = top or wide or s.size()
    if width:  # no pin is as wide as its dovetail
        pin, width, depth = s.alike(pin, width, depth)
        pin, width = sorted((pin, width), key=s.mm)
    given: Inputs = {"pin": pin}
    if width:  # else it is asked
        given["width_top" if at_top else "width_bottom"] = width
    angle = angle or s.near("dovetail", "pin", kinds=("number",))
    if depth:
        given["depth"] = depth
    if angle:
        given["angle"] = angle
    if s.has("female", "slot", "internal", "inside"):
        given["internal"] = "yes"
    return given


@phrase("keyway", "keyway 25")
def _keyway(s: Said) -> Inputs | None:
    if not s.has("keyway", "key") or s.has("woodruff") or s.number_of("zone"):
        return None  # of a zone the limits are asked
    if s.hears("allen", "hex", "hexagon", "screw", "spanner"):
        return None  # a key that turns a screw
    pair = s.pair()
    size = s.size()
    other = "" if pair else s.size()
    if not size and len(pair) == 2:  # its shaft is asked for
        s.has("depth", "deep", "size", "for", "shaft")
        return {"key": "x".join(pair)}
    if not size:
        return None
    if other:
        size, other = s.alike(size, other, fractions=True)
    # a 10 mm keyway is 10 wide, on a shaft that nobody said
    keys = [o for o, b in pairwise(s.parts) if b.word in ("key", "keyway") and o.used]
    if keys and not other and not s.hears("shaft", "bore"):
        s.has("depth", "deep", "size", "for", "hub")
        return {"key": size}
    # 8 in a bore of 30: a key is narrower than what it is in
    *width, shaft = sorted(filter(None, (size, other)), key=s.mm)
    given: Inputs = {"shaft_diameter": shaft}
    if width:
        (given["key"],) = width
    if s.in_inches((pair or width or [shaft])[0]):
        given["standard"] = "inch"
    hub = s.has("bore", "hub")
    if s.has("shaft") and not hub:
        given["bore"] = "no"
    s.has("on", "depth")
    return {**given, "key": "x".join(pair)} if pair else given


@phrase("woodruff", "woodruff 6x9")
def _woodruff(s: Said) -> Inputs | None:
    if not s.has("woodruff"):
        return None
    s.has("key", "cutter", "keyway")
    pair = s.pair()
    if pair:
        return {"key": "x".join(pair)}
    if s.has("shaft"):
        size = s.size()
        return {"shaft": size} if size else None
    number = s.take("pin").lstrip("#") or s.take("number")
    if number.isdigit() and int(number) >= 200:
        return {"key": number}
    # an inch key is called by its width: many keys are as wide
    return {"shaft": number} if number and not s.in_inches(number) else None


@phrase("circlip", "circlip 20 shaft")
def _circlip(s: Said) -> Inputs | None:
    if not s.has("circlip", "snap"):
        return None
    size = s.size()
    s.has("ring", "groove", "shaft")
    if not size:
        return None
    bore = s.has("bore", "internal", "hole", "inside")
    return {"diameter": size, **({"kind": "bore"} if bore else {})}


@phrase("e-clip", "e-clip 10 shaft")
def _e_clip(s: Said) -> Inputs | None:
    if not s.has("e-clip", "eclip", "e-ring"):
        return None
    size = s.near("shaft", "pin") or s.size()
    s.has("ring", "groove", "shaft", "pin", "for")
    return {"diameter": size} if size else None


@phrase("flat", "flat 8 wide on 12.1")
def _flat(s: Said) -> Inputs | None:
    if not s.has("flat") or s.hears("spanner", "wrench"):  # one each side
        return None
    if s.counted("flats"):
        return None
    on = s.behind("on")  # before its depth, which may be what is asked
    wide, depth, across = s.near("width"), s.near("depth"), s.near("across")
    diameter = on or s.near("diameter", "round", "shaft") or s.size()
    s.has("round", "shaft", "bar", "width", "depth", "cut")
    if not (wide or depth or across):
        wide = s.size()  # flat 10 on 25
    given = {"width": wide, "depth": depth, "across": across}
    said = {key: value for key, value in given.items() if value}
    if len(said) != 1 or not diameter:
        return None
    return {"diameter": diameter, **said}


_FROM_STACK = re.compile(
    r"\bangle\s+(?:for|from|of|by)\s+(?:a\s+)?[\d.]+(?!\s*deg)", re.I
)


@phrase("sine", "sine bar 30 deg 5 inch")
def _sine(s: Said) -> Inputs | None:
    stack = s.number_of("angle") and s.has("stack", "slips")  # stack for 5 degrees
    if not (s.has("sine") or stack):
        return None
    s.has("bar")
    if _FROM_STACK.search(s.text):
        return None  # the angle is asked
    angle = s.take("angle") or s.take("number")
    for whole, part in pairwise(s.parts):  # 14 degrees 30
        both = sum(p.kind in ("size", "number") and not p.used for p in s.parts) > 1
        minutes = part.kind == "number" and part.text.isdigit() and int(part.text) < 60
        if whole.text == angle and both and minutes and not part.used:
            part.used = True
            angle = f"{float(re.sub('[^0-9.]', '', angle)) + int(part.text) / 60:.6g}"
    length = s.size()
    if re.fullmatch(r"[\d.]+", angle) and float(angle) > RIGHT:
        angle, length = length, angle  # sine 100 7.5
    return {"angle": angle, "length": length} if angle and length else None


@phrase("triangle", "angle of a sine bar 100 on a stack of 25")
def _of_stack(s: Said) -> Inputs | None:
    """The angle of a sine bar by what one end lies on."""
    by_stack = s.hears("stack", "slips") or _FROM_STACK.search(s.text)
    if not by_stack or not s.hears("angle") or not s.has("sine"):
        return None
    stack = s.near("stack", "slip") or s.behind("for", "from", "of", "by")
    length = s.near("bar", "sine") or s.behind("on") or s.size()
    s.has("bar", "angle", "from", "with", "on", "over", "what", "is")
    return {"rise": stack, "slope": length} if stack and length else None


@phrase("angle-block", "angle block 15 deg 80 long")
def _block(s: Said) -> Inputs | None:
    if not s.has("block", "packing", "wedge"):
        return None
    angle = s.take("angle")
    length = s.near("length") or s.size()
    s.has("angle")
    return {"angle": angle, "length": length} if angle and length else None


_RATIOS = ("tan", "tangent", "sin", "sine", "cos", "cosine")


@phrase("angle", "8 degrees 30 minutes in decimals")
def _angle(s: Said) -> Inputs | None:
    """An angle said otherwise, or one of its ratios; a sine bar has its own sum."""
    if sum(part.kind != "word" for part in s.parts) != 1:
        return None
    if s.hears("bar", "whose", "inverse"):  # of a ratio that is known
        return None
    ratio = s.has(*_RATIOS)
    alone = len(s.parts) == 1 and re.fullmatch(r"\d+d\d+m", s.parts[0].text)
    asked = s.has("minute", "decimal", "radian", "second", "slope") or alone
    if not ratio and not asked:
        return None
    s.has("degree", "angle", "rise", "convert", "to", "as", "a", "in", "into")
    angle = s.take("angle") or (s.take("number") if ratio else "")
    return {"angle": angle} if angle else None


@phrase("angle", "5 degrees in mm per 100")
def _per_hundred(s: Said) -> Inputs | None:
    """An angle as its rise over a hundred."""
    angle = s.take("angle") or s.near("degree", kinds=("number",))
    hundred = next((p for p in s.parts if p.text in ("100", "100mm", "100 mm")), None)
    if not angle or hundred is None or not s.has("per", "in"):
        return None
    hundred.used = True
    s.has("mm", "over", "rise", "a", "is", "how", "much", "degree")
    return {"angle": angle}


@phrase("angle", "angle between 7 holes")
def _shared_turn(s: Said) -> Inputs | None:
    """A whole turn shared by so many; a circle of a known size has its own sum."""
    if sum(part.kind != "word" for part in s.parts) != 1:
        return None
    if not s.has("angle", "degree"):
        return None
    shared = ("hole", "tooth", "spoke", "division", "slot", "flute", "jaw", "flat")
    if not s.has(*shared):
        return None
    count = s.count()
    s.has("how", "many", "between", "apart", "from", "equally", "spaced", "evenly")
    # from a right angle on the ratios say nothing
    return {"angle": f"360/{count}"} if count and int(count) > 4 else None


@phrase("triangle", "triangle 3 4")
def _triangle(s: Said) -> Inputs | None:
    if not s.has("triangle", "hypotenuse", "pythagoras", "diagonal"):
        return None
    angle = s.take("angle")
    # of two bare sizes the long side is what is asked: hypotenuse 30 40
    bare = not any(p.kind == "word" and p.word in ("side", "base") for p in s.parts)
    bare = bare and not s.hears("opposite", "adjacent", "angle")
    asked = bare and sum(p.kind in ("size", "number") for p in s.parts) == 2
    slope = "" if asked else s.near("hypotenuse", "slope")
    s.has("hypotenuse")
    pair = s.pair()  # the diagonal of 40 x 30
    first = pair[0] if pair else s.size()
    second = pair[1] if pair else "" if angle or slope else s.size()
    s.has("right", "side", "base", "rectangle", "plate", "opposite", "adjacent")
    s.has("angle")
    if angle and (slope or first):
        return {"slope" if slope else "side": slope or first, "angle": angle}
    if slope and first:
        return {"slope": slope, "side": first}
    return {"side": first, "rise": second} if first and second else None


@phrase("triangle", "angle opposite 10 adjacent 100")
def _by_sides(s: Said) -> Inputs | None:
    rise, side = s.near("opposite"), s.near("adjacent")
    angle = s.take("angle") or s.near("angle", kinds=("number",))
    s.has("angle", "triangle", "right")
    told = {"side": side, "rise": rise, "angle": angle}
    given = {key: said for key, said in told.items() if said}
    return given if (side or rise) and len(given) == 2 else None


@phrase("triangle", "slope 5 over 100")
def _slope(s: Said) -> Inputs | None:
    moved = s.has("indicator") and s.has("moved", "move", "read")
    if s.take("angle") or (s.hears("taper", "cone") and not moved):
        return None
    asked = s.has("slope", "rise", "angle", "incline", "drop", "rake", "gradient")
    if ratio := one_sided(s):
        rise, _, side = ratio.partition(":")
        s.has("gib", "over", "long", "length", "on", "in")
        over = s.size()
        return {"rise": f"({over})/{side}" if over else rise, "side": over or side}
    asked = s.has("degree") or asked or moved
    if not (asked or (s.hears("out") and s.has("square"))) or s.has("turn"):
        return None
    if not s.has("over", "run", "along", "in", "per", "across"):
        return None
    rise, side = s.alike(s.size(), s.size())
    # a slide that is set over moves along the slope
    along = "slope" if s.has("compound", "topslide", "slide") else "side"
    s.has("dial", "tilt", "taper", "half", "get", "feed", "line")
    return {"rise": rise, along: side} if rise and side else None


_INVERSE = {
    "rise": ("arctan", "atan", "arctangent"),
    "slope": ("arcsin", "asin", "arcsine"),
    "side": ("arccos", "acos", "arccosine"),
}


@phrase("triangle", "arctan 0.05")
def _angle_of(s: Said) -> Inputs | None:
    """The angle of a tangent, a sine or a cosine, drawn with a side of 1."""
    for key, words in _INVERSE.items():
        if s.has(*words) and (value := s.take("number")):
            s.has("of")
            given = f"{value}mm"
            if key == "rise":
                return {"side": "1mm", "rise": given}
            return {"slope": "1mm", "rise" if key == "slope" else "side": given}
    return None


@phrase("triangle", "3 degrees over 50")
def _rise(s: Said) -> Inputs | None:
    angle = s.take("angle")
    if not angle or not s.has("over", "along") or s.hears("taper", "cone", "tailstock"):
        return None
    side = s.size()
    s.has("rise")
    return {"side": side, "angle": angle} if side else None


@phrase("arc-chord", "radius from chord 40 height 5")
def _arc(s: Said) -> Inputs | None:
    curve = s.has("chord") or (s.has("curve", "arc") and s.hears("radius"))
    if not curve or s.has("hole", "circle", "division"):
        return None
    known = s.hears("radius") and s.hears("chord") and s.hears("sagitta")
    known = known and not s.hears("from")
    if known or s.near("radius"):  # the height is another question
        return None
    height = s.near("height", "rise", "sagitta")
    chord = s.near("chord", "width") or s.size()
    s.has("radius", "arc", "height", "curve")
    height = height or s.size()
    return {"chord": chord, "height": height} if chord and height else None


@phrase("arc", "arc of 30 degrees radius 50")
def _arc_of_radius(s: Said) -> Inputs | None:
    if not s.has("arc", "chord", "sagitta") or s.has("hole", "circle", "cutter"):
        return None
    if s.has("every", "coordinate", "point", "place"):  # it is milled so
        return None
    radius = s.near("radius")
    angle = s.take("angle") or s.near("angle", kinds=("number",))
    if not radius and (across := s.near("diameter")):
        radius = f"({across})/2"
    if not radius and angle and s.has("radius"):  # arc length 50 radius 30 degrees
        radius = s.size()
    if not radius:
        return None
    chord = s.near("chord")
    height = s.near("height", "rise")
    s.has("length", "arc", "height", "rise", "long", "over")
    parts = {"angle": angle, "chord": chord, "height": height}
    given = {key: said for key, said in parts.items() if said}
    return {"radius": radius, **given} if len(given) == 1 else None


@phrase("fine-feed", "topslide at 6 degrees for 0.01 off the diameter")
def _fine_feed(s: Said) -> Inputs | None:
    if not s.has("topslide", "compound", "slide"):
        return None
    angle = s.take("angle") or (s.behind("at") if s.hears("off") else "")
    if not angle or s.number_of("taper", "thread", "tpi") or s.hears("taper", "depth"):
        return None
    size = s.size()
    s.has("off", "diameter", "move", "for", "how", "far", "does", "at", "to", "takes")
    moves = s.has("travel") or re.search(r"\bmuch (?:is |comes )?off\b", s.text)
    s.has("set", "over", "top", "feed", "with", "take", "a", "of", "much", "come")
    return {"travel" if moves else "off": size, "angle": angle} if size else None


@phrase("indicator-angle", "indicator at 20 degrees reads 0.05")
def _lever_indicator(s: Said) -> Inputs | None:
    if not s.has("indicator", "cosine") or not (angle := s.take("angle")):
        return None
    reading = s.near("reads", "reading", "shows") or s.size()
    s.has("at", "lever", "dial", "test", "angle", "dti", "error", "gauge", "tip")
    return {"reading": reading, "angle": angle} if reading else None


@phrase("vee", "20 round in a vee")
def _vee(s: Said) -> Inputs | None:
    stands = s.hears("v") and s.has("v") and s.hears("height", "over", "block")
    if not (s.has("vee") or stands) or s.has("difference") or s.hears("pins"):
        return None
    if s.hears("what", "which") and s.hears("stands"):
        return None  # the round is asked, and how high it stands is known
    if s.hears("throw", "eccentric"):
        return None
    angle, mouth = s.take("angle"), s.near("mouth", "width")
    for figure, word in pairwise(s.parts):  # a 60 vee
        if word.word == "vee" and figure.text in VEES and not angle:
            figure.used, angle = True, figure.text
    if not angle and s.number_of("size", "number") > 1:  # vee block 1 in 90
        for part in s.parts:
            if part.text in VEES and part.is_free and not angle:
                part.used, angle = True, part.text
    diameter = s.near("round", "bar", "rod", "diameter") or s.size()
    s.has(
        "block", "height", "in", "round", "bar", "rod", "lie", "stand", "high", "over"
    )
    if not diameter:
        return None
    angle = angle or s.near("vee", kinds=("number",))
    parts = {"diameter": diameter, "angle": angle, "mouth": mouth}
    return {key: said for key, said in parts.items() if said}


@phrase("runout", "runout 0 0.03 0.05 0.02")
def _runout(s: Said) -> Inputs | None:
    return _readings(s) if s.has("runout", "run-out", "tir", "wobble") else None


_READ = ("total", "dial", "reads", "reading", "read", "runs", "all")


@phrase("runout", "indicator reads 0.4 total, how far to move")
def _from_middle(s: Said) -> Inputs | None:
    """How far off the middle a piece is that runs out so much."""
    told = s.has("runout", "run-out", "tir", "wobble")
    told = told or (s.has("jaw", "indicator", "clock", "centring") and s.has(*_READ))
    s.counted("jaw", "jaws")
    if not told or s.number_of("size", "number") != 1 or s.hears("play", "shim"):
        return None
    if s.hears("throw", "eccentric", "offset"):
        return None  # it runs out by twice that
    out = s.size()
    s.has(*_READ, "jaw", "chuck", "indicator", "of", "four", "how", "far", "much", "to")
    s.has("move", "adjust", "push", "off", "it", "is", "by", "in", "the", "runs", "out")
    if not out or s.mm(out) >= TRAVEL:
        return None
    half = f"({out})/2"
    return {"readings": ["0", half, out, half]}


@phrase("centring", "four jaw 0.10 0.25 0.30 0.15")
def _centring(s: Said) -> Inputs | None:
    if not s.has("jaw", "centring", "clock"):
        return None
    s.counted("jaw", "jaws")  # of the chuck
    return _readings(s)


def _readings(s: Said, least: int = 3) -> Inputs | None:
    """Readings, three at least; none that no indicator has."""
    s.counted("readings", "places", "points")  # 8 readings 0 1 2 3
    said = []
    while reading := s.size():
        said.append(reading)
    s.has("reading", "indicator", "dial", "four", "chuck", "of")
    unit = re.search(r"(?:thou|tenths?|um|µm|microns?)$", said[-1]) if said else None
    if unit and all(re.fullmatch(r"-?[\d.]+", reading) for reading in said[:-1]):
        said = [*(f"{reading} {unit[0]}" for reading in said[:-1]), said[-1]]
    read = [s.mm(reading) for reading in said]
    sound = len(said) >= least and max(read) - min(read) < TRAVEL
    return {"readings": said} if sound else None


@phrase("measured-size", "average of 20.012 20.015 20.013")
def _mean(s: Said) -> Inputs | None:
    if not s.has("average", "mean", "readings"):
        return None
    s.has("and", "is", "what", "size", "measured", "diameter", "shaft", "bore", "hole")
    found = _readings(s, least=2)
    if found and all(map(TENTHS.fullmatch, found["readings"])):
        found["readings"] = [f"{reading}in" for reading in found["readings"]]
    return found


@phrase("straightness", "straight 0 0.02 0.05 0.06 0.08 every 50")
def _straight(s: Said) -> Inputs | None:
    """Readings at equal steps along a line."""
    if not s.has("straight", "straightness", "bow", "bowed", "level", "slope"):
        return None
    spacing = s.near("every", "each", "per", "spacing", "step", "apart")
    s.has("bed", "way", "along", "in", "reading", "line", "how")
    readings = _readings(s)
    if not readings or not spacing:  # how far apart they are is asked for
        return readings
    return {**readings, "spacing": spacing}


@phrase("packing", "shim four corners 0 0.08 0.11 0.03")
def _packed(s: Said) -> Inputs | None:
    if not s.has("shim", "pack", "packing") or not s.has("corner", "support", "foot"):
        return None
    s.has("under", "level", "plate", "four", "read", "casting")
    readings = _readings(s)
    return readings if readings and len(readings["readings"]) == CORNERS else None


@phrase("reading-less", "measured 58.32 over a 10 pin to centre")
def _less_the_pin(s: Said) -> Inputs | None:
    """To the middle of a hole, from the far side of the pin in it."""
    if not s.has("centre", "center", "middle") or s.hears("drill", "finder", "jaw"):
        return None
    pin = s.near("pin", "roller", "plug", "dowel")
    parallel = s.near("parallel", "block")
    reading = s.size()
    s.has(
        "measured", "measure", "reading", "over", "from", "edge", "hole", "how", "far"
    )
    s.has("in", "read", "reads", "it", "is", "across")
    if not pin or not reading or s.mm(reading) <= s.mm(pin):
        return None
    given = {"reading": reading, "bar": pin}
    return {**given, "parallel": parallel} if parallel else given


@phrase("throw-angle", "throw of an 80 arm over a chord of 60")
def _throw(s: Said) -> Inputs | None:
    arm = s.near("arm", "lever", "handle") or s.near("length")
    chord = s.near("chord", "throw", "swing") or s.size()
    s.has("angle", "throw", "swing", "swings", "over", "lever", "at", "through")
    if not arm or not chord or s.mm(chord) >= 2 * s.mm(arm):
        return None
    return {"arm": arm, "chord": chord} if s.hears("chord", "throw", "swing") else None


@phrase("key-sides", "limits of an 8 mm key")
def _key_widths(s: Said) -> Inputs | None:
    """How wide a key is, and the keyways of shaft and hub."""
    if not s.has("key", "keyway"):
        return None
    asked = s.has("limit", "tolerance", "sides", "play", "fit", "loose", "tight")
    width = s.size()
    if not asked or not width or s.number_of("size", "number", "pair") > 1:
        return None
    s.has("width", "wide", "shaft", "hub", "and", "mm", "how", "close", "normal")
    return {"width": width}


@phrase("gauge-stack", "slips for 41.275")
def _slips(s: Said) -> Inputs | None:
    # no angle block is 1.2345: slips are said so
    fine = any(re.search(r"\.\d{3}", part.text) for part in s.parts)
    if s.hears("broach", "keyway"):
        return None
    blocks = (s.has("gage") or fine) and s.has("block")
    if not s.has("slip", "stack", "gauge", "shim", "parallel") and not blocks:
        return None
    s.has("block")
    if s.has("ream", "fit", "bush", "pin", "taper", "roller"):  # it is to slip on it
        return None
    target = s.size()
    return {"target": target} if target else None


@phrase("vise-tram", "vise out 0.08 over 100")
def _vise(s: Said) -> Inputs | None:
    """How far its fixed jaw stands off; the right end reads more."""
    if not s.has("vise", "vice"):
        return None
    first, other = s.alike(s.size(), s.size())
    s.has("fixed", "jaw", "over", "in", "out", "off", "by", "tram", "square", "along")
    if not first or not other:
        return None
    off, travel = sorted((first, other), key=s.mm)
    if s.mm(off) > MOST_OUT * s.mm(travel):
        return None
    return {"travel": travel, "first": "0", "last": off, "jaw": travel}


@phrase("tailstock", "tailstock turned 30 and 30.05 over 100")
def _tailstock(s: Said) -> Inputs | None:
    """Two diameters turned in one pass, at the headstock's end first, so far apart;
    between centres that far too, where nobody says how long the bar is."""
    if not s.has("tailstock") or s.hears("offset", "setover"):
        return None
    if s.number_of("taper", "angle") or (s.hears("taper") and not s.hears("over")):
        return None
    long = s.near("between", "length")
    first, other, apart = s.alike(s.size(), s.size(), s.size())
    if s.mm(first) < LEAST_TURNED:  # 0.05 over 150 on 300: their difference
        s.has("out", "over", "on", "taper", "thicker", "bar", "by", "off", "correct")
        told = {"difference": first, "apart": other, "length": long or apart or other}
        return told if other else None
    s.has("turned", "turn", "over", "apart", "out", "line", "bar", "diameter", "and")
    s.has("centre", "center", "between", "long", "adjust", "align", "of", "test")
    if not apart or abs(s.mm(first) - s.mm(other)) > ALIKE * s.mm(first):
        return None
    far = {"diameter_a": first, "diameter_b": other, "apart": apart}
    return {**far, "length": long or apart}


@phrase("head-tram", "tram 0.04 over 200")
def _tram(s: Said) -> Inputs | None:
    head = s.hears("head") and s.has("align")
    if not (s.has("tram", "tramming") or head) or s.hears("vise", "vice"):
        return None
    first, other = s.alike(s.size(), s.size())
    s.has("mill", "head", "over", "in", "out", "off", "by")
    if not first or not other:
        return None
    off, sweep = sorted((first, other), key=s.mm)
    return {"sweep": sweep, "left": "0", "right": off}
