"""Questions about cutting: speeds, passes, times, bars."""

import math
import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.phrases.threads import thread_said
from machinon.core.ask.said import Said
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of

phrase = Phrases()

_BARE = ("number",)

_SIZES = ("size", "number")

MOST_GROUND = 2.0  # mm: what is ground off is less
IN_MM = 0.05  # from here on a bare feed is mm, whatever the nose was said in
COARSE = 13.0  # from here on a roughness is said in µin: 16, 32, 63, 125

MOST_BORED = 20  # times as wide as it was: no more is done pass by pass

THINNEST = 0.8  # mm: no mill is thinner in a shop

MOST_TEETH = 30  # of a mill: a larger figure is its speed

POINT = 0.3  # of its diameter: how long a drill's point is

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


@phrase("rotating-limit", "how fast 200 cast iron disc")
def _disc(s: Said) -> Inputs | None:
    disc = s.has("disc", "disk", "flywheel", "faceplate", "plate", "chuck")
    if s.hears(*_TOOLS):
        return None  # what a tool cuts it with is asked
    if s.has("weight"):
        return None
    asked = s.has("max", "maximum", "limit", "safe", "burst", "fast")
    if asked and s.has("jaw"):  # max rpm 8 in 4 jaw
        disc = True
        s.counted("jaw", "jaws")
    if not asked or not (disc or s.has("rpm", "speed")):
        return None
    s.has("limit", "speed", "rpm", "most", "run", "turn")
    metal = s.take("material") or ("cast iron" if disc else "")
    size = s.near("diameter") or s.size()
    if not metal or not size:
        return None
    return {"outside_diameter": size, "material": metal}


def _cuts_metal(s: Said) -> bool:
    """Whether a cut in a metal was said, as in `drill 10 brass` or `cut 40 steel`."""
    metal = any(p.kind == "material" and p.text.lower() not in _TOOLS for p in s.parts)
    cut = any(p.kind == "word" and p.word in (*_OPERATIONS, "cut") for p in s.parts)
    if metal and cut:
        s.has("cut")
    return metal and cut


def _metal_and_tool(s: Said) -> tuple[str, Inputs]:
    """The metal of the work, empty for none, and the tool where it was said by its."""
    metal, other = s.take("material"), s.take("material")
    if metal.lower() in _TOOLS:
        metal, other = other, metal
    said = [other.lower(), *(tool for tool in _TOOLS if s.has(tool))]
    tools = [tool for tool in said if tool in _TOOLS]
    return metal, {"tool": tools[-1]} if tools else {}


@phrase("cutting-power", "power to drill 20 mm in steel")
def _power(s: Said) -> Inputs | None:
    """What a cut takes of the motor; a milled one its width before its depth."""
    asked = s.has("power", "hp", "kw", "watt", "horsepower", "motor")
    cuts = s.hears("cutting") or _cuts_metal(s)
    if not asked and not (cuts and s.has("torque", "force", "load")):
        return None
    metal, given = _metal_and_tool(s)
    if not metal and not (s.hears("feed") and s.hears("deep", "depth", "doc", "cut")):
        return None
    given["material"] = metal or "steel"
    for operation in ("drill", "mill", "turn"):
        if s.has(operation):
            given["operation"] = operation
    milled, drilled = (given.get("operation") == word for word in ("mill", "drill"))
    teeth = s.near(*_EACH, kinds=_BARE) if milled else ""
    feed = s.of_each("turn", "rev", "revolution", *_EACH) or s.near("feed")
    depth = "" if drilled else s.near("deep", "depth", "doc")
    depth = depth or ("" if milled or drilled else s.near("cut"))
    wide = s.near("wide", "width") if milled else ""
    feed = feed or _thin(s)
    diameter = s.near("diameter", "cutter", "bar", "endmill") or s.size()
    diameter, depth, wide, feed = s.alike(diameter, depth, wide, feed)
    if not (diameter or depth) or (milled and not depth):
        return None
    told = {
        "diameter": diameter,
        "depth": depth,
        "width": wide,
        "feed_each": _a_turn(s, feed) if feed else "",
        "teeth": teeth,
        "surface_speed": s.take("speed"),
        "rpm": s.take("rpm"),
    }
    s.has("torque", "force", "load", "to", "needed", "need", "cut", "cutting", "deep")
    s.has("tool", "edge", "on", "of", "lathe", "speed", "bit", "for", "hole", *_EACH)
    s.has("slot", "end", "mill", "cutter", "bar", "diameter", "in", "a", "at")
    return given | {key: said for key, said in told.items() if said}


@phrase("speeds", "speed mild steel 40")
def _speed(s: Said) -> Inputs | None:
    surface = s.take("speed")
    rpm = s.take("rpm")
    # how far to feed for so much off, or by a topslide set over
    if s.hears("off", "topslide", "compound"):
        return None
    if s.has("hp", "kw", "power", "watt", "chuck"):  # its maker knows what it bears
        return None
    # the speed is known, or the feed of a tooth: that is another question
    known = bool(rpm) and not s.has("feed")
    if known or s.hears("per", "time"):
        return None
    asked = s.has("speed", "rpm", "feed", "surface", "fast") or bool(surface)
    if not asked and not _cuts_metal(s):
        return None
    s.has("speed", "rpm", "feed", "surface", "cutting", "lathe", "mill", "end")
    given: Inputs = {"machine_speeds": [rpm.split("r")[0].strip()]} if rpm else {}
    metal, tool = _metal_and_tool(s)
    given |= tool
    if rpm and not metal:  # 0.05 a tooth at 1000 rpm asks another sum
        return None
    teeth = s.near("teeth", kinds=_BARE)
    for operation in _OPERATIONS:
        if any(p.kind == "word" and p.word == operation for p in s.parts):
            s.has(operation)
            given["operation"] = operation
            break
    s.near("pitch")  # how fine a thread is: of no matter for its speed
    diameter = s.take("size") or s.near("diameter") or s.size()
    s.has("diameter", "tool", "cutter", "bar", "bit")
    if asked and not diameter and given.get("operation") in ("tap", "thread"):
        thread = thread_said(s)
        diameter = f"{thread_of(thread).major:g}mm" if thread else ""
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


_IN_SO_MANY = re.compile(r"\bin \w+ (?:cuts|passes)\b", re.IGNORECASE)


@phrase("passes", "passes 13 to 12.1")
def _passes(s: Said) -> Inputs | None:
    taken = s.hears("take") and s.hears("off") and s.number_of(*_SIZES) == 3
    if not (s.has("pass", "cut") or taken) or s.has("slot", "width") or s.hears("saw"):
        return None
    if s.hears("off"):
        return _taken_off(s)
    # in three cuts: how deep they are is asked here, not how many
    many = [
        figure
        for before, figure, word in s.threes
        if word.text.lower() in ("cuts", "passes")
        and figure.text.isdigit()
        and before.text.lower() != "to"
        and (s.number_of(*_SIZES) > 2 or _IN_SO_MANY.search(s.text))
    ]
    for figure in many:
        figure.used = True
    most = _deepest(s)
    start, finish = s.from_to() or (s.near("from"), "")
    finish = finish or s.near("to")
    start, finish = start or s.size(), finish or s.size()
    s.has("turn", "turned", "bar", "down", "rough", "take")
    if s.number_of(*_SIZES) == 3:  # passes 30 to 24 1 mm
        most = most or s.size()
    start, finish, most = s.alike(start, finish, most)
    if not start or not finish or s.mm(finish) > MOST_BORED * s.mm(start):
        return None
    if most and s.mm(most) > abs(s.mm(start) - s.mm(finish)):
        return None  # no pass is as deep as that
    for figure in many:
        figure.used = False  # it is said that this was not understood
    given: Inputs = {"start": start, "finish": finish}
    if s.has("length", "face", "thickness"):
        given["on"] = "length"
    return {**given, "most": most} if most else given


def _deepest(s: Said) -> str:
    """The depth of a pass: at 0.5, 2 deepest."""
    behind = s.behind("deepest", "at")
    return behind or s.near("deepest", "at", "most", "max", "maximum", "depth")


def _taken_off(s: Said) -> Inputs | None:
    """Passes that take so much off a size: take 4 off 40 at 0.5."""
    most = _deepest(s)
    off = next(
        (
            (a, b)
            for a, by, b in s.threes
            if by.text.lower() == "off" and a.kind in _SIZES and b.kind in _SIZES
        ),
        None,
    )
    if off is None:
        return None
    for part in off:
        part.used = True
    less, start, most = s.alike(*(part.text for part in off), most or s.size())
    s.has("take", "many")
    given: Inputs = {"start": start, "finish": f"({start})-({less})"}
    return {**given, "most": most} if most else given


def _bar_of(s: Said) -> bool:
    """Whether the bar's length was said: bar 300 pieces 22."""
    return any(a.word == "bar" and b.kind == "number" for a, b in pairwise(s.parts))


@phrase("strip-length", "strip for 8 pieces 24 long kerf 1.5")
def _strip(s: Said) -> Inputs | None:
    # saw 6 pieces 50 long kerf 2
    sawn = s.hears("pieces") and s.hears("kerf", "saw")
    if not (s.has("strip", "bar", "stock") or sawn) or not s.has("kerf", "saw"):
        return None
    if s.hears("into", "from", "many") or _bar_of(s):  # how many, is asked
        return None
    kerf, facing = s.near("kerf", "saw"), s.near("facing", "face", "clean")
    count = s.near("piece", "t-nut", "nut", kinds=_BARE)
    kerf, long = s.alike(kerf, s.near("length") or s.size())
    s.has("for", "piece", "t-nut", "nut", "each", "stock", "cut")
    if not (count.isdigit() and long):
        return None
    given = {"pieces": count, "length": long} | ({"kerf": kerf} if kerf else {})
    return {**given, "clean_up": facing} if facing else given


@phrase("saw-slot", "saw 3 slot 6 wide 20 deep")
def _saw_slot(s: Said) -> Inputs | None:
    if not (s.has("saw") and s.has("slot")):
        return None
    wide = s.near("width") if s.hears("wide", "width") else s.behind("slot")
    depth = s.near("depth")
    saw, width, depth = s.alike(s.near("saw") or s.size(), wide, depth)
    if not (saw and width and depth):
        return None
    return {"saw": saw, "width": width, "depth": depth}


_SAWN = ("piece", "part", "nut", "t-nut", "spacer", "washer", "collar", "ring", "blank")


@phrase("pieces", "how many pieces 35 long from a bar 1000 saw 3")
def _pieces(s: Said) -> Inputs | None:
    into = s.hears("into")
    many = s.has("many", "from", "number") or into or _bar_of(s)
    cut = s.has(*_SAWN) or (into and s.hears("lengths"))
    whole = s.hears("bar", "strip") or (s.hears("long") and s.hears("from"))
    if not (cut or (s.hears("many") and whole)) or not many:
        return None
    kerf, bar = s.near("kerf") or s.near("saw"), s.near("bar", "strip", "stock")
    long = s.near("length")
    bar, long, kerf = s.alike(bar or s.size(), long or s.size(), kerf or s.size())
    s.has("many", "from", "bar", "strip", "stock", "with", "each", "cut", "get", "saw")
    if not (bar and long):
        return None
    said = sorted(filter(None, (bar, long, kerf)), key=s.mm, reverse=True)
    return dict(zip(("bar", "length", "kerf"), said, strict=False))


@phrase("surface-speed", "surface speed of 75 at 400 rpm")
def _surface_speed(s: Said) -> Inputs | None:
    rpm = s.take("rpm")
    wheel = s.hears("sfm", "fpm", "sfpm", "wheel")
    if not rpm and s.hears("rim") and s.number_of("size", "number") == 2:
        fast = next((p for p in s.parts if p.text.isdigit() and int(p.text) > 99), None)
        if fast is not None:  # rim speed 8 inch 3450
            fast.used, rpm = True, f"{fast.text}rpm"
    if not rpm and wheel and (said := s.behind("at")):
        rpm = f"{said}rpm"  # sfm of 1.5 in at 300
    asks = s.has("surface", "speed", "sfm", "fpm", "sfpm", "rim", "m/min", "ft/min") | (
        s.has("wheel", "grind") and not s.hears("gear", "gears")
    )
    if not rpm or not (asks or (s.has("metre", "meter", "feet") and s.has("minute"))):
        return None
    diameter = s.near("diameter") or s.size()
    s.has("cutting", "turning", "turn", "at", "bar", "work")
    return {"diameter": diameter, "rpm": rpm} if diameter else None


@phrase("lever", "lever 200 N at 250")
def _lever(s: Said) -> Inputs | None:
    if not s.has("lever", "torque", "spanner", "handle", "moment"):
        return None
    if s.hears("nm"):
        return None  # the torque is known, and how long or how hard is asked
    force, arm = _force(s), s.size()
    s.has("force", "arm", "length", "at", "on")
    return {"force": force, "arm": arm} if force and arm else None


def _force(s: Said) -> str:
    """A force in newtons, or by the weight of pounds or kilograms; empty for none."""
    if pounds := s.near("lbf", "lb", kinds=_BARE):
        return f"{pounds}lbf"
    if kilos := s.near("kg", "kilo", "kgf", kinds=_BARE):
        return f"{kilos}kg"
    return s.near("n", "newton", kinds=_BARE)


@phrase("grinding-allowance", "leave for grinding 20 by 200 long")
def _grinding(s: Said) -> Inputs | None:
    if not s.has("grind") or s.hears("off", "pass", "passes"):
        return None
    soft = s.has("soft", "unhardened")
    pair = s.pair()
    length = pair[1] if len(pair) == 2 else s.near("length")
    diameter = pair[0] if pair else s.size()
    diameter, length = s.alike(diameter, length or s.size())
    if any(said and s.mm(said) < MOST_GROUND for said in (diameter, length)):
        return None  # the allowance is known
    s.has("leave", "allowance", "stock", "hardened", "for", "by", "much", "diameter")
    if not diameter or not length:
        return None
    given: Inputs = {"diameter": diameter, "length": length}
    return {**given, "hardened": "no"} if soft else given


@phrase("cleans-up", "clean up 48 from 50 run out 0.6")
def _cleans(s: Said) -> Inputs | None:
    if not s.has("clean"):
        return None
    runs = s.near("out", "runout", "run-out", "swing")
    runs, first, other = s.alike(runs, s.size(), s.size())
    s.has("up", "run", "true", "from", "stock", "bar", "out")
    if not (runs and first and other):
        return None
    size, stock = sorted((first, other), key=s.mm)
    return {"stock": stock, "size": size, "run_out": runs}


_EACH = ("tooth", "teeth", "flute")


@phrase("table-feed", "feed 0.05 a tooth 4 flutes 800 rpm")
def _table_feed(s: Said) -> Inputs | None:
    """The feed of a tooth or a turn at the table, or the other way round."""
    travel, a_turn = _travel(s), ""
    each = s.of_each(*_EACH)
    if not each and s.hears("per") and s.has(*_EACH):
        each = s.behind(*_EACH)  # feed per tooth 0.05
    if not each and s.hears("chip") and not travel:
        each = s.near("load")
    turning = s.hears("minute", "min") or s.number_of("rpm")
    if not each and turning:
        each = a_turn = s.of_each("rev", "revolution")
    flutes = s.hears(*_EACH, "flutes")
    turned = s.number_of("rpm") or (s.hears("table") and s.hears("feed"))
    if not (travel or each) and flutes and turned:
        each = _thin(s)  # 4 flutes 0.05 600 rpm
    usual = not (travel or each) and s.hears("feed") and flutes
    if not (travel or each or usual):
        return None
    rpm = s.take("rpm")
    if not rpm and each and not s.number_of("rpm") and s.hears("table"):
        rpm = f"{said}rpm" if (said := _fast(s)) else ""
    teeth = "1" if a_turn else s.near(*_EACH, kinds=_BARE)
    rpm = rpm or (s.behind("at") if usual else "")
    handle = s.near("turn") if s.hears("handle", "wind") else ""
    length = s.near("length", "cut", "over")
    if not length and s.hears("time", "long"):
        length = s.size()
    metal = s.take("material") or ("steel" if usual else "")
    # how wide it is, is not asked where its speed is known
    wide = metal or (each and rpm and s.hears("mill", "endmill", "cutter"))
    wide = wide or (travel and s.hears("chip")) or (each and rpm and s.hears("rate"))
    cutter = s.near("cutter", "mill", "diameter") or (s.size() if wide else "")
    speeds = None
    if metal and cutter and (usual or (each and not rpm)):
        asked = {"diameter": s.mm(cutter), "material": metal, "operation": "mill"}
        speeds = reckon("speeds", asked)
    if usual and speeds and teeth.isdigit():  # as such a cutter is usually fed
        each = f"{speeds['feed']:.4g}mm"
    s.has("time", "minute", "feed", "wind", "handle", "table", "mill", "end", "cutter")
    s.has("fast", "turn", "cut", "per", "rate", "chip", "load", "mm", "in", *_EACH)
    if each and not rpm and speeds:
        rpm = f"{speeds['rpm']:.0f}"
    told = {
        "rpm": rpm,
        "travel": travel,
        "feed": each,
        "teeth": teeth,
        "turn": handle,
        "length": length,
    }
    given = {key: said for key, said in told.items() if said}
    return given if len(given) > 1 else None


def _thin(s: Said) -> str:
    """A figure that is too small for a cutter: what a tooth takes; empty for none."""
    for part in s.parts:
        if part.kind in _SIZES and not part.used and 0 < s.mm(part.text) < THINNEST:
            part.used = True
            return part.text
    return ""


def _fast(s: Said) -> str:
    """A bare figure that is too large for teeth: a speed, rpm; empty for none."""
    for part in s.parts:
        figure = int(part.text) if part.kind == "number" and part.text.isdigit() else 0
        if part.is_free and figure > MOST_TEETH:
            part.used = True
            return part.text
    return ""


def _travel(s: Said) -> str:
    """A feed by the minute, as its sum reads it."""
    said = re.match(r"([\d./ ]+)(mm|in)", s.take("travel").lower())
    return f"{said[1].strip()}{said[2]}/min" if said else ""


@phrase("cutting-time", "time 100 long 0.1 feed 500 rpm")
def _cutting_time(s: Said) -> Inputs | None:
    if not s.has("time", "minute") or s.hears("per"):
        return None
    rpm, diameter = s.take("rpm"), s.near("diameter")
    feed = s.near("feed", kinds=("number", "size"))
    ends = s.alike(*(s.from_to() or ()))
    length = s.near("length", "over", "depth")
    drill = s.near("drill")
    length = length or s.size()
    if s.hears("face", "facing") and rpm and not length:  # face 100 diameter
        length, diameter = diameter, ""
    if not (rpm or diameter or drill) and s.has("drill"):  # drill 50 deep 10 mm
        drill = s.size()
    passes = "" if ends else s.near("pass", kinds=_BARE) or "1"
    metal = s.take("material")
    metal = metal or ("" if rpm or not (drill or diameter or ends) else "steel")
    s.has("cutting", "cut", "turn", "pass", "bar", "for", "drill")
    if rpm and not feed and not diameter:  # 150 long 0.2 mm 400 rpm
        feed = s.take("size", "number")
    if drill and metal and not rpm:
        asked = {"diameter": s.mm(drill), "material": metal, "operation": "drill"}
        speed, metal = reckon("speeds", asked), ""
        rpm = f"{speed['rpm']:.0f} rpm"
        feed = feed or f"{speed['feed']:g} mm"
    if not length or not (rpm or ((diameter or ends) and metal)):
        return None
    if feed:
        feed = _a_turn(s, feed)
    if s.has("face", "facing"):
        length = f"({length})/2"  # across a bar it feeds to the middle
    given: Inputs = {"length": length}
    given |= dict(zip(("start", "finish"), ends, strict=False))
    # a drill's point goes through as well
    point = f"{s.mm(drill) * POINT + 2:.4g}mm" if drill else ""
    named = (
        *(("rpm", rpm), ("feed", feed), ("approach", point)),
        ("diameter", diameter or drill),
    )
    given |= {key: value for key, value in (*named, ("passes", passes)) if value}
    return {**given, "material": metal} if metal else given


def _a_turn(s: Said, feed: str) -> str:
    """A feed as it was said, a turn."""
    inches = s.in_inches(feed)
    return f"{s.mm(feed) / INCH:g}in/rev" if inches else f"{s.mm(feed):g}mm/rev"


@phrase("turned-finish", "finish at 0.1 feed with 0.4 nose")
def _finish(s: Said) -> Inputs | None:
    if not s.has("finish", "roughness", "ra", "rms"):
        return None
    wanted = ""
    for part in s.parts:
        if not wanted and part.kind == "size" and re.search("µm|um|micron", part.text):
            part.used, wanted = True, part.text
    nose = s.near("nose", "tip") or s.near("radius")
    wanted = wanted or s.near("ra", "rms", kinds=(*_BARE, "size"))
    wanted = wanted or s.behind("ra", "rms")
    feed = s.near("feed")
    if not (wanted or feed):
        wanted = s.near("finish", kinds=_BARE)  # surface finish 63
    if wanted and not nose and s.number_of("size", "number") == 2:
        nose = s.size()  # ra 63 1/32
    s.has("feed", "surface", "nose", "tool", "tip", "turn", "radius", "insert")
    if not nose:
        return None
    nose, feed = s.alike(nose, feed, fractions=s.mm(feed) < IN_MM)
    given: Inputs = {"nose_radius": nose}
    if feed:
        return {**given, "feed": _a_turn(s, feed)}
    if not wanted:
        return None
    if wanted.replace(".", "", 1).isdigit():  # in µm, or, of an inch drawing, in µin
        fine = float(wanted) < COARSE and not s.inch
        wanted = f"{wanted}µm" if fine else f"{wanted}µin"
    return {**given, "roughness": wanted}


@phrase("knurl", "knurl 20")
def _knurl(s: Said) -> Inputs | None:
    if not s.has("knurl"):
        return None
    tpi = s.tpi()
    if s.has("dp") and (teeth := s.near("dp", kinds=_BARE)):  # to an inch of diameter
        tpi = f"{float(teeth) / math.pi:.6g}"
    pitch = s.near("pitch")
    diameter = s.near("diameter", "on") or s.size()
    if not diameter:
        return None
    pitch = pitch or ("" if tpi else s.size())  # 25 mm 0.8
    if tpi:
        return {"tpi": tpi, "diameter": diameter}
    # 25 pitch 1: the teeth are the smaller
    pitch, diameter = sorted((pitch or "1mm", diameter), key=s.mm)
    return {"pitch": pitch or "1mm", "diameter": diameter}


@phrase("ball-turning", "turn a ball 20 neck 12")
def _ball(s: Said) -> Inputs | None:
    if s.has("point", "sprung", "spring", "detent"):
        return None  # it asks another sum
    turned, end = s.has("turn", "neck", "handle", "step", "steps"), s.has("end")
    if not (s.has("ball") and (turned or end)) and not (s.has("round") and end):
        return None
    s.has("a", "on", "of")
    neck, radius = s.near("neck"), s.near("radius")
    ball = f"2*({radius})" if radius else s.near("ball") or s.size()
    if not ball:
        return None
    neck = neck or s.size()
    return {"ball": ball, **({"neck": neck} if neck else {})}


@phrase("boring-bar", "boring bar 16 out 80")
def _bar(s: Said) -> Inputs | None:
    bends = s.has("deflection", "overhang", "chatter", "stiff", "stiffness")
    if not (s.has("bore") or bends) or not s.has("bar"):
        return None
    force, pair = _force(s), s.pair()
    out = (
        pair[1]
        if len(pair) == 2
        else s.near("overhang", "stickout", "stick-out", "out", "length")
    )
    diameter = pair[0] if pair else s.near("diameter") or s.size()
    diameter, out = s.alike(diameter, out or s.size(), fractions=True)
    if out and s.mm(out) < s.mm(diameter):  # it stands out further than it is thick
        diameter, out = out, diameter
    metal = s.take("material")
    s.has("stick", "sticking", "out", "diameter", "length", "force", "load", "at")
    if not diameter or not out:
        return None
    given: Inputs = {"bar_diameter": diameter, "overhang": out}
    given |= {"force": force} if force else {}
    return {**given, "bar_material": metal} if metal else given


@phrase("broach-force", "force to broach a 6 square 20 long")
def _broached(s: Said) -> Inputs | None:
    if not s.has("broach", "broaching") or not s.has("force", "press", "push", "tonne"):
        return None
    length = s.near("length", "depth")
    keyed = s.has("keyway", "key")
    metal = s.take("material") or "steel"
    s.has("square", "hole", "through", "length", "need", "a")
    size = s.size()
    if not (size and length):
        return None
    given = {"size": size, "length": length, "material": metal}
    return {**given, "edges": "1"} if keyed else given
