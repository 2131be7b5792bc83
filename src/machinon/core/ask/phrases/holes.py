"""Questions about holes and dividing: circles, dividing, polygons, chamfers, edges."""

import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import Said
from machinon.core.sizes.centre_drills import mouth_by

phrase = Phrases()

SLOPES = ("30", "45", "60")  # degrees that edges are broken at
_FIGURES = ("number", "size")
ANGLES = ("60", "82", "90", "100", "118", "120", "135", "140")  # of tools with a point


@phrase("hole-span", "3 holes span 103.15 hole 7.89")
def _span(s: Said) -> Inputs | None:
    span = s.near("span")
    if not span and s.has("pin"):
        span = s.near("measured", "read")
    centres = s.hears("from") or (s.hears("for") and s.touches("apart"))
    centres = not span and centres and s.has("circle", "diameter")
    if centres:  # pcd from chord 40 4 holes
        span = s.near("chord", "apart", "spacing", "between")
    if not span:
        return None
    counted = s.counted("holes", "hole")
    if not counted:
        return None
    s.has("adjacent", "neighbour", "centre", "center", "of", "apart")
    if centres:
        s.has("hole", "bolt", "circle", "square")
        s.counted("adjacent", "neighbours")
        return {"span": span, "hole": "0", "holes": counted}
    s.has("hole", "bolt", "circle", "screw", "over", "neighbour")
    hole = s.size()
    asked = {"span": span, "hole": hole, "holes": counted}
    return asked if hole else None


@phrase("centre-drill", "centre drill for a 20 bar")
def _centre_drill(s: Said) -> Inputs | None:
    if not (s.has("centre", "center") and s.has("drill")):
        return None
    if s.number_of("material", "rpm"):
        return None
    mouth = s.near("mouth") or _of_centre_drill(s)
    bar = "" if mouth else s.near("bar", "shaft", "round", "diameter") or s.size()
    s.has("for", "a", "which", "what", "size", "bar", "shaft", "round", "of", "hole")
    s.has("how", "deep", "steel", "mouth")
    if mouth:
        return {"mouth": mouth}
    return {"bar": bar} if bar else None


def _of_centre_drill(s: Said) -> str:
    """The mouth that a centre drill leaves that is said by its number: #3, or no more
    than centre drill 3; empty for none."""
    name = s.take("pin")
    if not name and not s.hears("for", "bar", "shaft", "round", "diameter", "mm"):
        bare = next((p for p in s.parts if p.kind == "number"), None)
        if bare is not None and mouth_by(f"#{bare.text}"):
            bare.used, name = True, f"#{bare.text}"
    mouth = mouth_by(name)
    return f"{mouth:g}mm" if mouth else ""


@phrase("drill-steps", "pilot drill for a 20 hole")
def _in_steps(s: Said) -> Inputs | None:
    stepped = s.has("pilot") or (s.hears("step", "steps", "stages") and s.has("step"))
    if not stepped or not s.has("drill", "hole") or s.number_of("thread", "material"):
        return None
    if s.hears("shaft", "depth", "deep", "cap", "reamer"):
        return None
    hole = s.near("hole", "drill") or s.size()
    s.has("drill", "hole", "open", "in", "stage", "up", "for", "a", "what", "size")
    return {"hole": hole} if hole else None


@phrase("gear", "gear 30 teeth module 2")
def _gear(s: Said) -> Inputs | None:
    """A gear's blank and teeth; change gears are asked by their pitch."""
    geared = s.hears("gear", "wheel", "pinion") or (
        s.hears("module", "mod", "dp")
        and s.hears("teeth", "tooth", "centre", "center", "centres")
    )
    rolls = s.hears("pitch") and s.has("circle", "diameter", "pcd") and s.has("pitch")
    if not geared or s.hears("leadscrew", "screw") or (s.hears("pitch") and not rolls):
        return None
    module = s.behind("module", "mod")
    module = module or s.near("module", "mod", kinds=("number", "size"))
    if not module and s.hears("teeth", "tooth"):  # m1.5, as a gear's is written
        module = re.sub(r"(?i)^m\s*", "", s.take("thread", "zone"))
        module = module if re.fullmatch(r"\d*\.?\d+", module) else ""
    dp = "" if module else s.near("dp", "diametral", kinds=("number",))
    dp = dp or ("" if module else s.behind("dp"))  # 60 teeth dp 20 outside
    outside = ""
    if not module and not dp:  # which it is, is asked
        outside = s.near("outside", "od", "diameter", "measures")
    if s.hears("over") and s.number_of("number") > 1:
        s.behind("over")  # over 3 teeth: over how many it is measured is told
    mate = ""
    if s.has("centre", "distance", "apart"):  # of 20 and 40 teeth
        first, mate = s.take("number"), s.near("teeth", "tooth", kinds=("number",))
        teeth, mate = first, mate or s.take("number")
    else:
        teeth = s.near("teeth", "tooth", kinds=("number",))
    if not teeth and (module or dp):
        teeth = s.take("number")
    s.has("and", "between", "to", "on", "two", "gears")
    s.has("gear", "wheel", "pinion", "spur", "blank", "outside", "diameter", "depth")
    s.has("cutter", "module", "dp", "teeth", "size", "of", "for", "span", "measurement")
    s.has("which", "what", "module", "pitch", "is", "a", "it", "mod")
    by = {"module": module, "dp": dp, "outside": outside}
    told = {key: said for key, said in by.items() if said}
    if not teeth.isdigit() or not told:
        return None
    given: Inputs = {"teeth": teeth, **told}
    return {**given, "mate": mate} if mate else given


_ROW = ("row", "line", "spread", "spaced", "evenly", "equally", "divide", "apart")


@phrase("hole-row", "5 holes in a row over 200 edge 15")
def _row(s: Said) -> Inputs | None:
    """Holes along a line: so far apart, or spread over a length."""
    if s.hears("circle", "pcd", "index", "span", "pin", "diameter", "worm"):
        return None
    apart = s.hears("holes") and (s.touches("apart") or s.touches("spacing"))
    apart = apart or re.search(r"\bholes\s+over\s+[\d.]", s.text) is not None
    edged = s.hears("holes") and s.hears("edge", "edges") and s.hears("spacing")
    if not (s.hears("row", "line", "spread") or apart or edged) and not (
        s.hears("evenly", "equally", "spaced") and s.hears("over", "long", "length")
    ):
        return None
    count = s.count("hole", "bolt", "screw")
    edge = s.near("edge", "end", "ends")
    start = s.near("start", "starting", "first")
    pitch = s.near("apart", "spacing", "pitch", "every")
    length = s.near("over", "length", "on", "along") or ("" if pitch else s.size())
    edge, start, pitch, length = s.alike(edge, start, pitch, length)
    s.has("hole", "bolt", "screw", "in", "a", "at", "from", "each", *_ROW)
    if not count or not (pitch or length):
        return None
    told = {"holes": count, "pitch": pitch, "edge": edge, "start": start}
    if not pitch:
        told["length"] = length
    return {key: said for key, said in told.items() if said}


_COUNTED_OFF = re.compile(r"\bspacing\s+(?:of\s+|for\s+)?\d+\s+holes\b")


@phrase("bolt-circle", "bolt circle 6 holes 80mm")
def _circle(s: Said) -> Inputs | None:
    if s.has("span"):  # over neighbours, which is no diameter
        return None
    if s.hears("shaft", "clearance", "play", "tight", "loose"):  # of one hole
        return None
    circle = s.has("circle", "pattern")
    holes = s.hears("holes", "bolts")  # hole 10 is one of them
    holes = holes or (s.hears("divisions") and s.has("division") and s.hears("chord"))
    no_circle = s.has("index", "divide", "square", "rectangle")
    # a figure that says how far they are apart is not their circle
    spaced = s.touches("apart", "spacing") and not _COUNTED_OFF.search(s.text)
    no_circle = no_circle or spaced or _chord_said(s)
    if not (circle or holes) or no_circle:
        return None
    s.has("bolt", "hole", "equal", "spaced", "evenly", "equally", "coordinate")
    s.has("chord", "spacing", "far", "between", "centre", "apart")
    turned = ("start", "starting", "first", "rotated")
    angled = s.behind("angle") if s.hears("start") and s.has("start") else ""
    start = angled or s.behind(*turned)
    if not start and s.hears(*turned, "from"):  # on 80, first at 15 degrees
        start = s.take("angle") or s.near(*turned, kinds=("number",))
    s.has(*turned, "from")
    s.has("x", "y")
    given: Inputs = {"start": start} if start else {}
    ringed = _ringed(s)
    if ringed:
        count = s.count("hole", "bolt")
        s.take("size")  # of the holes, which the circle does not ask
        return {"holes": count, "diameter": ringed, **given} if count else None
    twice = s.has("radius")
    sized = s.take("size")
    if sized:
        other = s.take("size")  # of the holes, which the circle does not ask
        if other and s.mm(other) > s.mm(sized):
            sized = other
        count = s.count("hole", "bolt")
        across = f"2*({sized})" if twice else sized
        return {"holes": count, "diameter": across, **given} if count else None
    # in millimetres a circle is larger than its count, in inches hardly ever
    counted = s.near("hole", "bolt", kinds=("number",)) if s.inch else ""
    first, second = counted or s.take("number"), s.take("number")
    if not first or not second:
        return None
    count, diameter = first, second
    if not counted and not (first.isdigit() and not second.isdigit()):
        # of two bare numbers the circle is the larger one
        count, diameter = sorted((first, second), key=_value)
    if not count.isdigit():
        return None
    s.has("diameter")
    across = f"2*({diameter})" if twice else diameter
    return {"holes": count, "diameter": across, **given}


def _ringed(s: Said) -> str:
    """The figure right before the circle that it is of: 4.5 bc; empty for none, or one
    that counts its holes."""
    for n, (figure, circle) in enumerate(pairwise(s.parts)):
        counts = n and s.parts[n - 1].word in ("hole", "bolt")
        sized = figure.kind in ("size", "number") and figure.is_free
        if sized and circle.word == "circle" and not counts:
            figure.used = True
            return figure.text
    return ""


def _value(text: str) -> float:
    parts = text.split()
    total = 0.0
    for part in parts:
        over, _, under = part.partition("/")
        total += float(over) / float(under or 1) if float(under or 1) else 0.0
    return total


def _chord_said(s: Said) -> bool:
    """Whether a figure is that of the chord, and not of the holes that it is asked of:
    chord 7 holes."""
    at = next((i for i, p in enumerate(s.parts) if p.word == "chord"), len(s.parts))
    counted = s.parts[at + 2 : at + 3]
    if counted and counted[0].word == "hole" and s.parts[at + 1].kind == "number":
        return False
    return s.touches("chord")


@phrase("chord-check", "check 6 holes on 100 pins 6")
def _check(s: Said) -> Inputs | None:
    if not s.has("check", "over", "across") or not s.has("pin"):
        return None
    if s.has("measured", "read"):  # the circle is asked
        return None
    count = s.near("hole", kinds=("number",))
    first, other = s.size(), s.size()
    s.has("hole", "bolt", "circle", "on", "diameter")
    if not (count.isdigit() and first and other):
        return None
    pin, circle = sorted((first, other), key=s.mm)
    return {"holes": count, "diameter": circle, "pin": pin}


@phrase("dividing", "7 divisions 40:1")
def _dividing(s: Said) -> Inputs | None:
    ratio = s.take("ratio")
    if not (s.has("divide", "index", "indexing") or ratio):
        return None
    worm = ratio.split(":")[0].strip() if ratio else s.near("worm", kinds=("number",))
    for many, to, one in s.threes:
        if not worm and to.word == "to" and one.text == "1" and many.text.isdigit():
            many.used = to.used = one.used = True  # 40 to 1
            worm = many.text
    if not worm and s.hears("dividing", "indexing") and (said := s.behind("on")):
        worm = said  # dividing 17 on 40
    if not worm and s.number_of("number") == 2:
        # dividing head 40 52 teeth, rotary table 90 7 divisions
        worm = s.near("head", "table", kinds=("number",))
    plates = s.listed("plate", "circle")
    turn = next((p for p in s.parts if p.text == "360"), None)
    if turn is not None and s.number_of("number") > 1:
        turn.used = True  # divide 360 by 7
    angle = s.take("angle") or s.near("angle", kinds=("number",))
    count = "" if angle else s.count("divide", "step")
    s.has("worm", "head", "rotary", "table", "plate", "hole", "teeth", "dividing")
    s.has("step", "turn")
    if not angle and not count:
        return None
    given: Inputs = {"angle": angle} if angle else {"divisions": count}
    given |= {"plates": plates} if plates else {}
    return {**given, "worm": worm} if worm else given


def _bare_angle(s: Said) -> str:
    """The angle of a tool that was said without its degrees, beside a size."""
    sizes = [part for part in s.parts if part.kind in ("number", "size")]
    bare = next((part for part in sizes if part.text in ANGLES), None)
    if bare is None or len(sizes) < 2:
        return ""
    bare.used = True
    return bare.text


@phrase("countersink", "countersink 12 wide 90 deg hole 6")
def _cone(s: Said) -> Inputs | None:
    spot = s.has("countersink", "csk") or s.has("spot")
    one = s.hears("point", "tip")
    point = not spot and one and s.has("point", "tip")
    s.has("drill", "length")
    spot = spot or (s.hears("deep", "depth") and s.has("cone") and not s.hears("taper"))
    if s.hears("edge", "ball") or s.number_of("thread", "material"):
        return None
    if not (spot or point):
        return None
    angle = s.take("angle") or _bare_angle(s)
    hole, depth = s.near("hole"), s.near("depth")
    if point and depth:
        return None  # a hole's, not the point's
    wide = "" if depth else s.near("width", "diameter", "mouth") or s.size()
    s.has("drill", "point", "length", "depth", "included", "mouth", "wide", "hole")
    s.has("chamfer")
    given: Inputs = {"depth": depth} if depth else {"diameter": wide}
    if not (wide or depth):
        return None
    angle = angle or ("118" if point else "")
    given |= {"angle": angle} if angle else {}
    return {**given, "hole": hole} if hole else given


@phrase("polygon", "hex 17 from round")
def _polygon(s: Said) -> Inputs | None:
    words = [part.text.lower() for part in s.parts]
    if s.has("broach") or {"hole", "holes", "thread", "threads"}.intersection(words):
        return None
    if "square" in words and "key" in words:  # one in a keyway
        return None
    counted = s.counted("flats")  # 6 flats on a 30 round
    if counted:
        words.remove("flats")
    sides = int(counted) if counted in _FLATS else _sides(s, words)
    size = s.size()
    if not sides or not size:
        return None
    bar = s.behind("on", "from")
    if bar and s.mm(bar) > s.mm(size):  # a 14 mm square on 20 mm
        size, bar = s.alike(size, bar)
        s.has("mill", "deep", "depth", "round", "bar", "rod", "shaft", "cut", "flat")
        return {"sides": sides, "across_flats": size, "round": bar}
    s.has("round", "flat", "across", "af", "bar", "rod", "corner", "shaft")
    s.has("largest", "biggest", "needed", "need", "distance")
    if _is_of_round(size, words):
        return {"sides": sides, "round": size}
    return {**({} if sides == 6 else {"sides": sides}), "across_flats": size}


def _sides(s: Said, words: list[str]) -> int:
    """Number of sides that were said; 0 for none."""
    if s.has("polygon"):
        return int(s.count("side") or 0)
    for called, sides in _CALLED:
        if s.has(*called):
            return sides
    across = "across" in words and ("flats" in words or "corners" in words)
    # what is measured across flats is mostly a hexagon
    return 6 if across or "af" in words else 0


_FLATS = ("3", "4", "5", "6", "8", "10", "12")
_CALLED = (
    (("hex",), 6),
    (("square",), 4),
    (("pentagon", "pentagonal"), 5),
    (("octagon", "octagonal", "oct"), 8),
)
_SIDED = ("hexagon", "hexagonal", *(word for words, _ in _CALLED for word in words))


def _is_of_round(size: str, words: list[str]) -> bool:
    """Whether the round was said, not what it is across flats: `from 25`, but
    `17 from round`; `25 bar`, but `what bar for 17` and `hex bar 17`; `across
    corners`, but not of `17 hex`; the largest `in 30`."""
    at = words.index(size.lower())
    before, behind = words[max(at - 1, 0)], words[min(at + 1, len(words) - 1)]
    if {"af", "flats", "needed", "need", "distance"}.intersection(words):
        return False  # what round it takes is asked
    if behind in _SIDED or behind == "from":
        return False
    if behind == "across" and "corners" not in words:
        return False
    if before == "from" or behind in ("round", "bar", "rod", "shaft"):
        return True
    said = " ".join(words)
    return (
        re.search(r"(?<!hex )(?<!hexagon )(?<!square )\b(?:bar|rod)\b(?! for\b)", said)
        is not None
        or "across corners" in said
        or re.search(r"\b(?:largest|biggest)\b", said) is not None
    )


@phrase("pipe-joint", "pipe 25 on tube 42 at 60 deg")
def _pipe_joint(s: Said) -> Inputs | None:
    if not s.has("pipe", "saddle", "fishmouth", "notch"):
        return None
    pipe, on = s.size(), s.size()
    if not pipe or not on:
        return None
    pipe, on = sorted((pipe, on), key=s.mm)  # it sits on what is thicker
    angle = s.take("angle")
    s.has("on", "tube", "round", "pipe", "at", "joint", "template")
    return {"pipe": pipe, "on": on, **({"angle": angle} if angle else {})}


@phrase("arc-points", "round an end radius 20 by points cutter 10")
def _arc_points(s: Said) -> Inputs | None:
    if not s.has("point", "place") or not s.has("round", "arc", "end", "hollow"):
        return None
    # 20 radius 10 cutter, or radius 20 cutter 10
    names = ("radius", "cutter")
    said = [p for p in s.parts if p.kind in _FIGURES or p.word in names]
    ahead = bool(said) and said[0].kind in _FIGURES
    for a, b in pairwise(said):
        figure, name = (a, b) if ahead else (b, a)
        if name.word == "cutter" and figure.kind in _FIGURES:
            figure.used = True
            cutter, radius = figure.text, s.size()
            break
    else:
        radius, cutter = s.size(), s.size()
    if not radius or not cutter:
        return None
    s.has("radius", "cutter", "end", "by", "with", "an", "arc", "milled")
    return {"radius": radius, "cutter": cutter}


@phrase("side-offset", "tongue 14 wide by a cutter of 10")
def _both_sides(s: Said) -> Inputs | None:
    """Where a cutter goes for either side of what stands between."""
    if not s.has("tongue", "tenon"):
        return None
    cutter = s.behind("cutter", "mill")
    wide = s.near("tongue", "tenon", "wide")
    cutter = cutter or s.near("cutter", "mill") or s.size()
    s.has("by", "with", "end", "both", "sides", "wide", "cutter", "mill", "offset")
    return {"distance": wide, "cutter": cutter} if wide and cutter else None


@phrase("eccentric-packing", "packing for a throw of 3 on a bar of 30")
def _eccentric(s: Said) -> Inputs | None:
    thrown = ("throw", "eccentric", "offset", "crank", "cam")
    s.counted("jaw", "jaws")  # of the chuck
    packed = s.has("packing", "pack", "shim", "jaw")
    if s.hears("tailstock", "taper") or not packed or not s.has(*thrown):
        return None
    wide = s.near("width") or s.near("face")
    throw = s.behind(*thrown) or s.near(*thrown) or s.size()
    throw, bar, wide = s.alike(throw, s.size(), wide)
    s.has("jaw", "bar", "round", "three", "chuck", "diameter", "under", "face", "off")
    s.has("work")
    if not throw:
        return None
    if not bar:
        return {"throw": throw}
    if s.mm(throw) > s.mm(bar):
        throw, bar = bar, throw
    return {"throw": throw, "diameter": bar, **({"jaw": wide} if wide else {})}


@phrase("chamfer", "chamfer 1 x 45")
def _chamfer(s: Said) -> Inputs | None:
    if not s.has("chamfer", "bevel") or s.hears("thread"):
        return None
    s.behind("on")  # what is chamfered, whose size is of no matter
    pair, angle = s.pair(), s.take("angle")
    if pair:
        leg, degrees = pair[:2]
        return {"leg": leg, "angle": degrees}
    leg = s.size()
    if not leg:
        return None
    if s.has("face", "width") and not s.hears("leg"):
        return {"face": leg, **({"angle": angle} if angle else {})}
    s.has("leg")
    angle = angle or s.near("at", kinds=("number",)) or s.take("number")
    s.has("depth", "deep", "at")
    if angle and leg in SLOPES and angle not in SLOPES:
        leg, angle = angle, leg  # 45 chamfer .03
    return {"leg": leg, **({"angle": angle} if angle else {})}


@phrase("chamfer", "depth along a 45 degree face for a 10 leg")
def _face_of_leg(s: Said) -> Inputs | None:
    leg = s.near("leg", "side")
    if not leg or not s.has("face", "slant", "facet"):
        return None
    s.has("depth", "along", "leg")
    angle = s.take("angle")
    return {"leg": leg, **({"angle": angle} if angle else {})}


@phrase("elongation", "swing 20 degrees hole 6.5 screw 6 10 thick")
def _elongation(s: Said) -> Inputs | None:
    """How long a hole must be so that an arm swings on its screw."""
    if not s.has("elongation", "elongated", "elongate", "swing", "hinge"):
        return None
    angle = s.take("angle")
    thick, hole = s.near("thickness"), s.near("hole")
    screw = s.near("screw", "bolt")
    thick, hole, screw = s.alike(thick, hole, screw)
    s.has("for", "of", "a", "by", "slot", "arm", "swing", "how", "far", "much")
    if not (angle and thick and hole and screw):
        return None
    return {"opening_angle": angle, "thickness": thick, "hole": hole, "screw": screw}


_TOUCHED = ("touched", "touch", "reading", "read", "at")


@phrase("edge-find", "edge finder 10 touched at 23.4 hole 15 in")
def _edge(s: Said) -> Inputs | None:
    """From an edge that was touched to the edge itself, or to what lies in from it."""
    if not (s.has("edge") or s.hears("finder")) or not s.has(*_TOUCHED):
        return None
    touched = s.behind(*_TOUCHED)
    offset = s.behind("hole", "offset", "to")
    tip = s.near("tip", "finder", "diameter")
    tip, offset = tip or s.size(), offset or s.size()
    # a hole 15 in from the edge is no 15 inches, where the finder is 10
    inward = re.fullmatch(r"([\d.]+)\s+in", offset)
    if inward and not s.inch and re.fullmatch(r"\d+(\.\d+)?", tip) and s.mm(tip) > 1:
        offset = inward.group(1)
    tip, touched, offset = s.alike(tip, touched, offset)
    minus = s.has("minus")
    s.has("plus", "finder", "tip", "diameter", "hole", "offset", "centre", "side")
    if not (tip and touched):
        return None
    return {
        "edge_reading": touched,
        "tip_diameter": tip,
        "offset": offset or "0",
        "direction": "-" if minus else "+",
    }


@phrase("half-way", "half way 2 102 tip 10")
def _half_way(s: Said) -> Inputs | None:
    if s.has("taper", "cone"):
        return None
    half = s.has("half", "centre") and s.has("way", "between")
    # centre of 12.5 and 77.1
    half = half or (s.hears("of") and s.hears("and") and s.has("centre"))
    if not (s.has("half-way", "halfway", "middle") or half):
        return None
    tip = s.near("tip", "finder")
    tip, a, b = s.alike(tip, s.size(), s.size())
    s.has("between", "edge")
    if not a or not b:
        return None
    return {"edge_a": a, "edge_b": b, **({"tip": tip} if tip else {})}


@phrase("square-hole", "square hole 10")
def _square_hole(s: Said) -> Inputs | None:
    if not s.has("square") or not s.has("hole", "broach"):
        return None
    size = s.size()
    s.has("drill", "pilot")
    return {"size": size} if size else None


@phrase("detent", "detent ball 6 deep 1.2")
def _detent(s: Said) -> Inputs | None:
    """A dimple by its depth, its rim, or the drill that makes it."""
    sits = s.hears("ball") and s.has("recess", "sit", "protrude", "protrudes", "rise")
    sits = sits or (s.hears("ball") and s.hears("hole") and s.hears("depth", "deep"))
    dimple = s.has("detent", "dimple") | (sits and s.has("ball"))
    if not dimple:
        return None
    depth, rim = s.near("depth"), s.near("rim", "mouth", "width")
    angle = s.take("angle")
    s.has("recess", "drill", "a", "rim", "sit", "diameter")
    ball = s.near("ball") or s.size()
    if not (depth or rim or angle):  # a ball of 8 for a 5 mm dimple
        rim = s.near("dimple", "recess", "hole")
        s.has("depth")  # which is asked
    ball, depth, rim = s.alike(ball, depth, rim, fractions=True)
    told = {"depth": depth, "land_diameter": rim, "drill_angle": angle}
    given = {key: said for key, said in told.items() if said}
    return {"ball": ball, **given} if ball and len(given) == 1 else None


@phrase("index-ring", "24 index holes of 6 on a circle of 145")
def _index_ring(s: Said) -> Inputs | None:
    if not s.has("index") or not s.has("hole", "ring"):
        return None
    bare = ("number",)
    count = s.near("index", kinds=bare) or s.near("hole", kinds=bare)
    s.has("ring", "diameter", "circle", "rim", "on", "of")
    first, other = s.alike(s.size(), s.size())
    if not (count.isdigit() and first and other):
        return None
    hole, circle = sorted((first, other), key=s.mm)
    return {"holes": count, "diameter": circle, "hole_diameter": hole}
