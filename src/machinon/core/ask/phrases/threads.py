"""Questions about threads: drills for them, their sizes, cutting and finding them."""

import math
import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import Said
from machinon.core.materials import material
from machinon.core.quantity import as_kept
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import FORMS, known_threads, thread_of
from machinon.core.threads.screw_torque import GRADES
from machinon.core.threads.screws import cap_screws
from machinon.core.threads.tapping import drills

phrase = Phrases()

_BARE = ("number", "size")
COARSEST = 26.0  # mm: no lead screw is coarser
THINNEST = 0.3  # in: bare wires up to here are inches where the thread is an inch one
# of an inch screw that these are asked of its threads make no difference
_HEADED = frozenset(("head", "counterbore", "cap", "socket", "allen", "grub"))


def thread_said(s: Said) -> str:
    """A thread as the tables know it: `m12 fine`, `bsw 1/2`, `acme 1-5`."""
    text = s.take("thread")
    s.take("long")  # of its screw: whoever asks it has it all the same
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
    if match := re.match(r"(?:g|bspp?)\s*(\d.*)", low):
        return f"G{match.group(1)}"
    if match := re.match(r"(.*\S)\s*bspp?$", low):
        return f"G{match[1]}"
    if s.has("acme") and "acme" not in low:
        return f"{low} Acme"
    return text


def _fine(name: str) -> str:
    """The usual fine pitch of a metric size: the coarsest of its fine ones."""
    size = name.upper().replace(" ", "")
    pitches = [
        thread.pitch
        for thread in known_threads().values()
        if thread.name.upper().startswith(f"{size}X")
    ]
    # M8 and M10 are usually cut a quarter finer, M12 on with 1.25 or 1.5
    usual = {"M8": 1.0, "M10": 1.25, "M12": 1.25}.get(size)
    pitch = usual if usual in pitches else max(pitches, default=0.0)
    return f"M{size[1:]}x{pitch:g}" if pitch else ""


def _numbered(s: Said) -> str:
    """The coarse thread of a numbered screw, as #8; empty where there is none."""
    number = s.take("pin")
    coarse = (t.name for t in known_threads().values() if t.series == "UNC")
    return next((n for n in coarse if n.startswith(f"{number}-")), "") if number else ""


def _coarse(s: Said) -> str:
    """The coarse thread of a size said in inches; empty where there is none."""
    size = s.size()
    if re.fullmatch(r"[\d /]*\d/\d+", size):
        size += "in"
    known = (t for t in known_threads().values() if t.series == "UNC")
    mm = s.mm(size) if size else 0.0
    return next((t.name for t in known if abs(t.major - mm) < 0.005), "")


def _metric_said(s: Said) -> str:
    """A metric coarse thread that was said by its size in mm; empty for none."""
    size = s.size()
    name = f"M{s.mm(size):g}" if size and size.lower().endswith("mm") else ""
    return name if name in cap_screws() else ""


def _wound(s: Said) -> bool:
    """Whether an insert of wire was said by a name of it that ends as it does."""
    called = [p for p in s.parts if p.kind == "word" and p.word.endswith("coil")]
    for part in called:
        part.used = True
    return bool(called)


LEAST_ENGAGED = 30.0  # % of a thread that anybody asks for


@phrase("tap-drill", "tap drill 5/16-18")
def _tap(s: Said) -> Inputs | None:
    if s.hears("counterbore", "counterbored", "torque", "self"):
        return None  # its screw goes through, is tightened, or cuts its own
    thread = thread_said(s)
    percent = s.take("percent")
    drilled = ""
    figure = percent.rstrip(" %")
    if percent and s.mm(f"{figure}mm") < LEAST_ENGAGED:
        drilled, percent = figure, ""  # m8 drilled 7.2 percent thread
    elif s.has("percent", "percentage"):
        drilled = _named_drill(s) or s.near("drill", "hole") or s.size()
    threaded = s.has("thread", "threaded") and s.has("hole")
    insert = s.has("insert", "coil") or _wound(s)
    thread = thread or _in_two_parts(s)
    if not thread and s.hears("tap", "tapping") and not s.hears("hole", "bore"):
        thread = _metric_said(s)  # 6 mm tapping drill
    asked = s.has("tap", "drill") or percent or drilled
    if not thread or not (asked or threaded or insert):
        return None
    formed = s.has("form", "forming", "formed", "roll")
    s.has("hole", "size", "thread", "wire")
    given: Inputs = {"thread": thread}
    if formed:
        given["kind"] = "form"
    if insert:
        given["kind"] = "insert"
    if percent:
        given["engagement"] = percent
    if drilled:  # what such a hole leaves of it
        given["series"] = [as_kept(s.mm(drilled))]
        s.has("of", "does", "give", "a", "with", "what", "in", "for", "drilled")
    metal = s.take("material")
    return {**given, "material": metal} if metal else given


def _named_drill(s: Said) -> str:
    """The size of a drill that is said by its number; empty for none."""
    number = s.take("pin")
    return next((as_kept(d.size) for d in drills("number") if d.name == number), "")


def _in_two_parts(s: Said) -> str:
    """A thread that is tapped, said by its size and its pitch apart, or as a pipe's:
    `1/4 24 tpi`, `pipe thread 3/8`; empty for none."""
    if _pipe_said(s):
        size = "" if s.inch else s.size()
        return f"G{size}" if size else ""
    if not s.hears("tap", "tapping") or not s.number_of("tpi"):
        return ""
    pitch, wide = s.take("tpi"), re.sub(r" ?in(?:ch)?$", "", s.size())
    return f"{wide}-{pitch.split()[0]}" if pitch and wide else ""


def _pipe_said(s: Said) -> bool:
    """Whether a pipe's thread is spoken of, and not which: an inch shop has NPT, a
    metric one G."""
    return s.hears("thread", "threads", "tap") and s.has("pipe")


@phrase("taper-pipe-thread", "tap drill 1/4 npt")
def _taper_pipe(s: Said) -> Inputs | None:
    name = s.take("pipe taper")
    if not name and s.inch and _pipe_said(s):
        name = s.size()
        s.has("in")
        name = f"{name} npt" if name else ""
    if not name:
        return None
    s.has(
        "tap", "drill", "hole", "size", "taper", "pipe", "thread", "for", "of", "bore"
    )
    s.has("od", "outside", "diameter", "pitch", "tpi", "angle", "engagement", "depth")
    size, inch = re.subn(r"(?i)npt", "", name)
    size = re.sub(r"(?i)bspt|rc|bsp\s+taper(?:ed)?", "", size).strip()
    return {"name": f"{size} NPT" if inch else f"R{size}"}


@phrase("hole-tap", "which tap for a hole of 8.4")
def _of_hole(s: Said) -> Inputs | None:
    """The thread of a hole that is there, or the screw that goes through it."""
    if s.number_of("thread", "zone", "fit", "percent", "tpi", "pin"):
        return None
    asked = s.has("tap", "screw", "bolt", "thread")
    if not asked or not s.hears("hole", "bore"):
        return None
    if not s.hears("which", "what", "size", "fits", "fit", "through", "go", "goes"):
        return None
    hole = s.near("hole", "bore") or s.size()
    s.has("hole", "bore", "which", "what", "size", "fit", "through", "go", "a", "take")
    s.has("drilled", "for", "of", "in", "into", "can", "i", "use")
    return {"hole": hole} if hole else None


@phrase("ream-drill", "drill for 8 mm reamer")
def _ream(s: Said) -> Inputs | None:
    if not s.has("ream", "reamer", "reaming", "reamed"):
        return None
    fast = s.hears("speed", "rpm", "feed", "fast", "tolerance", "limits", "limit")
    metal = not s.hears("drill") and s.number_of("material")
    if fast or metal or s.number_of("rpm", "speed", "thread"):
        return None  # how fast it turns is asked
    asked = s.has("drill", "leave", "allowance", "hole", "before", "stock", "under")
    asked |= s.has("predrill")
    if not asked and any(p.kind in ("word", "zone") for p in s.parts if not p.used):
        return None  # a reamer and its size is enough, but for other questions
    s.has("size")
    s.take("material")
    left = s.near("leave") if s.number_of("size", "number") == 2 else ""
    reamer = s.near("ream", "reamer") or s.size()
    if left:
        s.has("leave", "for")
    s.take("zone")
    return {"reamer": reamer} if reamer else None


@phrase("screw-torque", "torque for m10 bolt")
def _torque(s: Said) -> Inputs | None:
    if s.hears("tap", "tapping"):
        return None  # what turns a tap is another torque
    torque = s.near("nm", "newton-metre", kinds=_BARE)
    thread = thread_said(s)
    asks = s.has("torque", "tighten", "preload", "clamp", "proof")
    force = next((s.near(n, kinds=_BARE) + n for n in ("kn", "n") if s.hears(n)), "")
    asks = asks or (s.hears("how") and s.has("tight"))
    graded = any(part.text in GRADES for part in s.parts)
    asks = asks or (graded and s.has("bolt", "screw", "strength", "strong", "hold"))
    if not thread or not (asks or torque) or s.hears("bearing", "bearings"):
        return None
    s.has("screw", "bolt", "nut", "force", "load", "at", "nm")
    given: Inputs = {"thread": thread}
    sae = s.near("grade", kinds=_BARE) if thread_of(thread).inch else ""
    if f"SAE {sae}" in GRADES:
        given["grade"] = f"SAE {sae}"
    grade = next((p for p in s.parts if p.text in GRADES), None)
    if grade is not None:
        grade.used = True
        s.has("grade", "class")
        given["grade"] = grade.text
    if s.has("oiled", "oil", "greased", "lubricated"):
        given["oiled"] = "oiled"
    if force[:1].isdigit() and not torque:
        return {**given, "preload": force}
    return {**given, "torque": torque} if torque else given


@phrase("clearance-hole", "clearance m8")
def _clearance(s: Said) -> Inputs | None:
    # m10 close hole
    fitting = s.hears("close", "normal", "loose", "free") and s.has("hole")
    if not s.has("clearance") and not fitting:
        return None
    if any(part.word in ("shaft", "bearing") for part in s.parts):
        return None  # no screw goes through it
    fine = s.has("fine")  # the hole, as the standard calls a close one: not the thread
    # of an inch screw whose threads were not said: its series makes no difference
    thread = thread_said(s) or _numbered(s) or _coarse(s)
    if not thread:
        return None
    s.has("hole", "drill", "screw", "bolt", "fit")
    for fit, also in (("close", "tight"), ("normal", "medium"), ("loose", "free")):
        if s.has(fit, also) or (fit == "close" and fine):
            return {"thread": thread, "fit": fit}
    return {"thread": thread}


@phrase("cap-screw", "counterbore m8")
def _head(s: Said) -> Inputs | None:
    if s.has("broach") or s.hears("dimple", "low"):  # of low heads nothing is kept
        return None
    thread = thread_said(s)
    headed = _HEADED.intersection(part.word for part in s.parts)
    if s.hears("wrench", "spanner") and s.hears("bolt", "screw"):
        headed |= {"head"}
    if not thread and headed:
        thread = _numbered(s) or _coarse(s)
    if not thread:
        return None
    if s.has("grub"):  # before its hex key
        s.has("key", "size", "allen", "hex", "hexagon", "screw", "socket")
        return {"thread": thread, "head": "set"}
    of_hexagon = s.hears("head", "bolt", "screw", "nut")
    hexagons = {"hex", "hexagon"}
    hex_key = any(a.word in hexagons and b.word == "key" for a, b in pairwise(s.parts))
    if hex_key or (s.hears("key") and not of_hexagon and s.hears(*hexagons)):
        s.has("key", "size", "cap", *hexagons)  # of that kind, for no hexagon head
        others = (kind for kind in ("button", "countersunk", "set") if s.has(kind))
        s.has("head", "screw", "socket")
        head = next(others, "")
        return {"thread": thread, **({"head": head} if head else {})}
    if s.hears("bolt") and s.has("across", "corner", "flat"):
        s.has("head", "bolt", "flat", "corner")
        return {"thread": thread, "head": "hex"}
    for kind in ("button", "countersunk", "hex", "set", "cap"):
        if s.has(kind) | (kind == "countersunk" and s.has("countersink", "csk")):
            if kind == "countersunk":  # such heads are of 90 degrees
                s.near("countersunk", "countersink", kinds=("number", "angle"))
                for part in s.parts:
                    part.used |= part.kind == "angle" and part.text.startswith("90")
            s.has("head", "screw", "size", "key", "counterbore", "socket", "diameter")
            return {"thread": thread, **({} if kind == "cap" else {"head": kind})}
    if s.has("head", "counterbore", "socket"):
        s.has("drill", "and", "depth", "size", "diameter")
        return {"thread": thread}
    if s.has("allen"):
        s.has("key", "size")
        return {"thread": thread}
    if not s.hears("nut") and s.has("spanner", "wrench"):
        s.has("size", "bolt", "screw")
        return {"thread": thread, "head": "hex"}
    return None


_IN_UNIT = re.compile(r"\b(?:in|to)\s+(?:mm|inch(?:es)?|decimals?)\b", re.IGNORECASE)


@phrase("nut", "nut and washer m10")
def _nut(s: Said) -> Inputs | None:
    if s.hears("t", "collet", "strip", "drill", "tap", "engagement", "strength"):
        return None
    if s.hears("spring", "lock") and s.hears("washer", "washers"):
        return None  # those are others
    if s.hears("pitch", "minor", "core", "root", "bore", "leadscrew"):
        return None  # what its thread is
    if _IN_UNIT.search(s.text):  # 1/2 af in mm
        return None
    if s.hears("af") and s.hears("corner", "corners"):
        return None  # a hexagon so wide
    spanned = s.hears("af") or (s.hears("across") and s.hears("flat", "flats"))
    if not s.has("nut", "locknut", "washer") and not spanned:
        return None
    thread = thread_said(s) or _numbered(s) or _coarse(s)
    if not thread:
        return None
    s.has("washer", "spanner", "wrench", "size", "height", "high", "thick", "thin")
    s.has("hexagon", "hex", "lock", "thickness", "diameter", "hole", "outside", "flats")
    s.has("across", "corners", "af", "jam", "flat", "bolt", "screw")
    return {"thread": thread}


@phrase("pitch", "helix angle of 4 mm lead on 25 diameter")
def _helix(s: Said) -> Inputs | None:
    """How steep the turns of a lead stand on a diameter."""
    if not (s.has("helix") or s.hears("lead")) or not s.has("angle"):
        return None
    if s.number_of("thread"):
        return None
    # said which is which: in 20 mm lead 5 either is the lead
    diameter = s.near("diameter", "round", "bar") or s.behind("on")
    tpi = s.tpi()
    lead = f"{tpi}tpi" if tpi else s.near("lead", "pitch")
    diameter = diameter or (s.size() if tpi else "")
    s.has("on", "of", "lead", "diameter", "for", "a")
    return {"pitch": lead, "diameter": diameter} if lead and diameter else None


@phrase("thread-wires", "wires m24")
def _wires(s: Said) -> Inputs | None:
    thread = thread_said(s)
    if not thread or s.hears("insert", "inserts"):
        return None
    read = s.near("measured", "reading", "read")
    wire = s.near("wire") or (s.behind("with") if s.hears("over", "wires") else "")
    if not wire and not s.has("wire"):
        return None
    s.has("three", "over", "wire", "size", "measurement", "with")
    wire, read = (_in_its_unit(s, thread, size) for size in (wire, read))
    given: Inputs = {"thread": thread, "wire": wire, "measured": read}
    given["external_class"] = s.take("class")
    return {key: value for key, value in given.items() if value}


@phrase("pitch", "wires for 1.5 pitch")
def _by_pitch(s: Said) -> Inputs | None:
    if s.hears("acme", "trapezoidal", "buttress", "square"):
        return None  # those are no vees
    starts = s.near("start", kinds=("number",))
    tpi = s.tpi()
    pitch = f"{tpi}tpi" if tpi else s.near("pitch")
    if not pitch and starts and s.has("lead"):  # lead of 4 start 2 mm
        pitch = s.take("size")
    if not pitch and s.hears("tpi", "pitch") and s.number_of("size", "number") == 1:
        pitch = s.size()  # what tpi is 1.5 mm, thread depth 1.25 pitch
    asked = s.has("wire", "tpi", "depth", "infeed") or bool(tpi and s.has("height"))
    asked = asked or (s.hears("thread") and len(s.parts) == 3)  # 0.9 pitch thread
    by_compound = s.has("compound") or (s.has("slide") and s.has("top"))
    if by_compound and not pitch and s.number_of("size", "number") == 1:
        pitch = s.near("thread")  # the compound for a 2 mm thread
        s.has("much", "how", "for")
    if not pitch or not (asked or starts or by_compound) or thread_said(s):
        return None
    s.has("best", "pitch", "lead", "thread", "screw", "over", "three", "single")
    s.has("set", "feed", "top", "point")
    given: Inputs = {"pitch": pitch.replace(" ", "")}
    if s.has("whitworth", "whit", "bsw", "bsf"):
        given["form"] = "whitworth"
    angle = s.take("angle")
    if not by_compound and angle[:2] in ("55", "60"):  # of its flanks
        given |= {"form": "whitworth"} if angle[:2] == "55" else {}
        angle = ""
    if by_compound and not angle:
        angle = s.behind("at") or s.take("number")
    if by_compound and not angle:
        angle = f"{FORMS[given.get('form', 'metric')].compound:g}"
    named = {"angle": angle, "starts": starts}
    return {**given, **{key: said for key, said in named.items() if said}}


def _in_its_unit(s: Said, thread: str, size: str) -> str:
    """A bare size over an inch thread's wires, or of them, that is no millimetres."""
    bare = re.fullmatch(r"\d*\.\d+", size) and not s.inch
    if not bare or not thread_of(thread).inch:
        return size
    small = float(size) <= THINNEST or float(size) < 0.2 * thread_of(thread).major
    return f"{size}in" if small else size


@phrase("crest-flat", "flat on the crest of m24")
def _crest(s: Said) -> Inputs | None:
    if not s.has("crest"):
        return None
    thread = thread_said(s)
    if not thread:
        return None
    s.has("flat", "width", "on")
    return {"thread": thread}


@phrase("thread-passes", "m45x4.5 depth of thread")
def _thread_depth(s: Said) -> Inputs | None:
    thread = thread_said(s)
    asked = s.has("depth", "pass", "infeed", "passe", "single") | s.has("compound")
    asked |= s.has("undercut", "relief", "run-out", "runout") and s.has(
        "undercut", "groove", "thread", "width"
    )
    if not thread or s.has("countersink", "counterbore", "strip"):
        return None
    turned = s.number_of("angle") and not s.hears("lead", "helix", "deep")
    asked = asked or bool(turned)  # 29.5 degrees 1/2-13
    if not (asked or (s.hears("slide") and s.has("top", "compound"))):
        return None
    s.has("cut", "single", "point", "slide", "set", "feed", "travel", "external")
    given: Inputs = {"thread": thread}
    if s.has("internal", "nut", "inside", "bore"):
        given["internal"] = "yes"
    if s.has("plunge"):
        return {**given, "school": "plunge"}
    angle = s.take("angle") or s.near("at", kinds=_BARE)
    if not angle and not s.hears("deep", "long"):
        angle = s.take("number")
    return {**given, **({"angle": angle} if angle else {})}


@phrase("thread-engagement", "m6x1 engagement")
def _engagement(s: Said) -> Inputs | None:
    thread = thread_said(s)
    metal = s.take("material")
    deep = metal and (s.has("depth") or (s.hears("thread") and s.has("length")))
    # how far should an m6 screw go into cast iron
    deep = deep or (metal and s.hears("far", "much") and s.has("into", "in"))
    if not thread or not (s.has("engagement", "strip") or deep):
        return None
    s.has("least", "minimum", "length", "tap", "hole", "into", "screw", "bolt", "go")
    s.has("far", "should", "much", "must")
    if not metal:
        return {"thread": thread}
    return {"thread": thread, "nut_strength": material(metal).strength}


@phrase("screw-length", "length of m8 screw through 12 into 20")
def _screw_length(s: Said) -> Inputs | None:
    by_nut = s.has("nut")
    if not s.has("length") and not by_nut:
        return None
    screw, grip = thread_said(s), s.near("through", "under", "grip", "plate")
    if not grip and s.hears("plate"):  # screw length 20 plate
        grip = s.near("length")
    deep = s.near("into", "blind", "hole", "deep")
    s.has("screw", "bolt", "cap", "head", "for", "deep", "how", "plate", "hole")
    if not screw or not grip:
        return None
    grip, deep = s.alike(grip, deep)
    if by_nut:
        return {"screw": screw, "grip": grip, **_through_a_nut(s, screw)}
    return {"screw": screw, "grip": grip, **({"thread_depth": deep} if deep else {})}


def _through_a_nut(s: Said, screw: str) -> Inputs:
    """What a screw holds by in its nut, with two threads past it, and its washer."""
    nut = reckon("nut", {"thread": screw})
    thick = float(nut["washer_thickness"])
    given = {"engagement": f"{float(nut['stands']) - thick:.6g}mm"}
    return {**given, "washer": f"{thick:.6g}mm"} if s.has("washer") else given


@phrase("drill-depth", "drill depth m8 16 deep")
def _blind(s: Said) -> Inputs | None:
    thread = thread_said(s)
    turns = s.has("turn") and s.hears("depth", "deep")  # of the tap, 15 deep
    if not thread or not (s.has("drill", "blind", "hole") or turns):
        return None
    if not s.has("depth"):
        return None
    depth = ""
    for figure, word in pairwise(s.parts):  # 12 turns of the tap
        if word.text.lower() == "turns" and figure.kind == "number":
            figure.used = True
            depth = f"{s.mm(f'{figure.text}mm') * thread_of(thread).pitch:.5g}mm"
    depth = depth or s.size() or s.screw_length
    s.has("should", "tap", "how", "many", "for")
    if not depth:
        return None
    for tap in ("taper", "plug", "bottoming"):
        if s.has(tap):
            return {"thread": thread, "thread_depth": depth, "tap": tap}
    return {"thread": thread, "thread_depth": depth}


@phrase("thread", "m12 fine", keyed=False)
def _plain_thread(s: Said) -> Inputs | None:
    thread = thread_said(s)
    if not thread and (s.has("screw") or s.hears("major", "minor", "pitch")):
        thread = _numbered(s)
    if not thread:
        return None
    gauged = s.has("go", "nogo", "limit", "tolerance") | s.has("gauge")
    s.has("pitch", "size", "minor", "major", "diameter", "core", "effective", "tpi")
    s.has("root", "pipe", "nose", "spindle", "leadscrew")
    s.has("many", "per", "inch", "thread", "helix", "lead", "angle")
    s.has("outside", "over", "crest", "class")
    if s.hears("bore", "minor", "core", "root", "pitch", "leadscrew"):
        s.has("bore", "nut")
    given: Inputs = {"thread": thread}
    if gauged and not s.number_of("class"):  # of the usual ones
        inner, outer = ("2B", "2A") if thread_of(thread).inch else ("6H", "6g")
        return {**given, "internal_class": inner, "external_class": outer}
    while grade := s.take("class"):
        unified = grade[-1] in "aAbB"  # of a metric nut the letter is a capital
        grade = grade.upper() if unified else grade
        nut = grade[-1] == "B" if unified else grade[-1].isupper()
        given["internal_class" if nut else "external_class"] = grade
    return given


@phrase("change-gears", "gears for a module 1 worm on 4mm leadscrew")
def _worm_gears(s: Said) -> Inputs | None:
    """A worm is cut as a thread: its pitch is π times the module of its wheel."""
    if not s.hears("module", "mod"):
        return None
    # mm, whatever the shop reads
    module = s.mm(f"{s.behind('module', 'mod').removesuffix('mm')}mm")
    lead = _lead(s)
    if not (module and lead):
        return None
    s.has("gear", "wheel", "change", "train", "worm", "thread", "cut")
    return {"leadscrew": lead, "pitch": f"{math.pi * module:.6g}mm"}


@phrase("change-gears", "1.25 pitch 4mm leadscrew")
def _gears(s: Said) -> Inputs | None:
    no_gears = ("helix", "angle", "module", "grinding", "rpm", "speed", "mark", "marks")
    if s.hears(*no_gears) or s.number_of("rpm"):
        return None
    if s.hears("tooth", "teeth") and not s.hears("pitch", "leadscrew", "screw", "tpi"):
        return None  # a gear itself
    wheels = s.listed("wheel", "gear") or s.listed("with")
    lead = _lead(s)
    thread = thread_said(s) if s.hears("gear", "gears", "wheels", "change") else ""
    if thread and (lead or (lead := s.take("tpi").replace(" ", ""))):  # gears for m8
        s.has("gear", "wheel", "change", "train", "thread", "cut", "lathe", "pitch")
        own = {"leadscrew": lead, "pitch": as_kept(thread_of(thread).pitch)}
        return {**own, **({"gears": wheels} if wheels else {})}
    asked = s.has("gear", "wheel", "change", "train")
    if s.hears("turns") and not asked:
        return None  # of the lead screw: so far it moves
    # 1.25 mm pitch on 8 tpi
    asked = asked or bool(s.number_of("tpi") and s.hears("pitch") and s.hears("on"))
    if not (lead or asked) or s.has("half", "half-nut", "dial"):
        return None
    # a metric pitch on an inch lead screw
    pitch = "" if lead else s.near("pitch", kinds=_BARE)
    if not pitch and not lead and (said := _before_on(s)):  # 1.5 mm on 8 tpi
        pitch = said
    tpi = "" if pitch else s.tpi()
    if pitch and not lead:  # 1.25 pitch on 8 tpi
        lead = s.take("tpi").replace(" ", "")
    if tpi and not lead:  # 20 tpi on 4 mm
        lead = s.size().replace(" ", "")
    pitch = pitch or ("" if tpi else s.near("pitch", kinds=_BARE) or s.size())
    if not tpi and not pitch:
        return None
    if not lead:
        lead = s.near("screw", kinds=("size", "number", "tpi")).replace(" ", "")
    if not lead and tpi and (other := s.tpi()):  # 26 tpi on 8 tpi: cut on the coarser
        tpi, lead = sorted((tpi, other), key=lambda count: s.mm(f"1in/({count})"))
        lead = f"{lead}tpi"
    s.has("pitch", "thread", "cut", "lathe")
    given: Inputs = {"leadscrew": lead} if lead else {}
    given |= {"gears": wheels} if wheels else {}
    if tpi:
        return {"tpi": tpi, **given}
    return {"pitch": pitch, **given}


def _before_on(s: Said) -> str:
    """The pitch, as a size, of a thread that is cut on a screw of so many threads to
    the inch; empty for none."""
    for size, on, screw in s.threes:
        if size.kind in _BARE and on.text.lower() == "on" and screw.kind == "tpi":
            size.used = True
            return size.text.replace(" ", "")
    return ""


def _lead(s: Said) -> str:
    """The lead screw that was said, as a pitch or threads to the inch."""
    for i, part in enumerate(s.parts):
        if part.kind != "word" or part.word != "lead":
            continue
        part.used = True
        behind = i + 1
        if behind < len(s.parts) and s.parts[behind].text.lower() == "screw":
            s.parts[behind].used = True
            behind += 1
        beside = [s.parts[j] for j in (i - 1, behind) if 0 <= j < len(s.parts)]
        sizes = [
            p
            for p in beside
            if p.kind in ("size", "number", "tpi")
            and not p.used
            and s.pitch_of(p) < COARSEST
        ]
        if len(sizes) == 2:
            # a screw is cut on one that is coarser, unless it is said which is which
            said = s.parts[behind + 1].word if behind + 1 < len(s.parts) else ""
            size = sizes[0] if said == "pitch" else max(sizes, key=s.pitch_of)
        elif sizes:
            (size,) = sizes
        else:
            return ""
        size.used = True
        return size.text.replace(" ", "")
    return ""


@phrase("thread-dial", "thread dial m8 on 8tpi leadscrew")
def _dial(s: Said) -> Inputs | None:
    half_nuts = s.has("half-nut") or (s.has("half") and s.has("nut"))
    marked = s.number_of("tpi", "thread") and s.has("mark")
    if not (half_nuts or marked) and not (s.has("dial") and s.has("thread")):
        return None
    lead, thread = _lead(s), thread_said(s)
    tpi = "" if thread else s.tpi()
    pitch = f"{tpi}tpi" if tpi else "" if thread else s.near("pitch")
    if not lead and thread and (said := s.tpi()):  # m10 on 8 tpi
        lead = f"{said}tpi"
    if not lead and tpi and (said := s.near("pitch")):  # 1.5 pitch on 8 tpi
        pitch, lead, tpi = said, f"{tpi}tpi", ""
    if not lead and tpi and (other := s.tpi()):  # 26 tpi on 8 tpi: cut on the coarser
        tpi, lead = sorted((tpi, other), key=lambda count: s.mm(f"1in/({count})"))
        pitch, lead = f"{tpi}tpi", f"{lead}tpi"
    if half_nuts and not (thread or pitch or lead) and (said := s.behind("on")):
        lead, pitch = said.replace(" ", ""), s.size()  # for 1.5 on 4 mm
        s.has("when", "can", "i", "for")
    if not (thread or pitch) and s.inch and (said := s.take("number")):
        pitch = f"{said}tpi"  # thread dial 13
    if not (thread or pitch):
        return None
    s.has("thread", "dial", "close", "mark", "which", "pitch")
    work = {"thread": thread} if thread else {"pitch": pitch.replace(" ", "")}
    return {**work, **({"leadscrew": lead} if lead else {})}


@phrase("thread-identify", "which thread 7.85 18tpi")
def _which(s: Said) -> Inputs | None:
    tpis, sizes = s.number_of("tpi"), s.number_of("size", "number")
    sized = (tpis, sizes) == (1, 1) or (sizes == 2 and s.hears("pitch"))
    if s.hears("acme"):
        return None  # it is known
    asked = s.has("thread") and (s.hears("which", "what") or sized)
    if not (
        s.has("identify", "unknown") or asked or (sized and s.has("bolt", "screw"))
    ):
        return None
    tpi = s.tpi()
    pitch = "" if tpi else s.near("pitch", kinds=_BARE)
    major = s.near("diameter") or s.size()
    if not major:
        return None
    if re.fullmatch(r"[\d.]+", tpi) and re.fullmatch(r"[\d.]+", major):
        # no screw has ridges half as wide as it is thick: it was read in inches
        coarse = s.mm(f"1in/({tpi})") > s.mm(f"{major}mm") / 2
        major = f"{major}in" if coarse else major
    given: Inputs = {"measured_major": major}
    pitch = pitch or ("" if tpi else s.size())
    if tpi or pitch:
        given |= {"tpi": tpi} if tpi else {"pitch": pitch}
    s.has("pitch", "diameter")
    return given
