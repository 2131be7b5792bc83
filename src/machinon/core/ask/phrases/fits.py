"""Questions about fits: zones, presses, dowels and bearings."""

import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.phrases.threads import thread_said
from machinon.core.ask.said import ALIKE, TENTHS, Said
from machinon.core.errors import BadInput
from machinon.core.fits.ball_bearings import bearing_by, bearing_of
from machinon.core.fits.tee_slot import standard_slot
from machinon.core.quantity import INCH
from machinon.core.sizes.limits import limits_of_size

phrase = Phrases()
SHRUNK = "H7/s6"  # as one shrinks where nothing else is said
TIGHTEST = 0.99  # of an interference that was said
LEAST_FITTED = 0.5  # mm: what is less is the play itself
LEAST_BARE = 5.0  # mm: a bare size under this of an inch fit is inches

MOST_PLAY = 2.0  # mm
MOST_OF = 0.02  # of its size: more is no play
MOST_TIGHT = 0.5  # mm: no more is pressed
_FIGURES = ("size", "number")
_SHAFTS = (
    "shaft",
    "pin",
    "bar",
    "spigot",
    "register",
    "journal",
    "arbor",
    "dowel",
    "plug",
    "key",
    "tongue",
)
_HOLES = ("hole", "bore", "recess", "ring", "hub", "bush", "sleeve", "housing", "slot")

# fits by their usual words, on a hole of H7: shop rules, said with the answer
# by the words of ANSI B4.2 and of the shop
_FITS = (
    ("heavy", "H7/s6"),
    ("force", "H7/u6"),
    ("press", "H7/p6"),
    ("interference", "H7/p6"),
    ("push", "H7/k6"),
    ("sliding", "H7/g6"),
    ("slide", "H7/g6"),
    ("slip", "H7/g6"),
    ("running", "H7/f7"),
    ("locating", "H7/h6"),
    ("location", "H7/h6"),
    ("locational", "H7/h6"),
    ("transition", "H7/k6"),
    ("drive", "H7/s6"),
    ("loose", "H11/c11"),
)
# by the plain words of a fit, which is laid on the half that was measured
_WANTED = (
    (("press", "interference", "drive", "force"), "press"),
    (("push", "tapped"), "tapped"),
    (("slide", "sliding", "slip"), "slides"),
    (("run", "running", "spin"), "runs"),
    (("locate", "locating", "location", "snug", "close", "wring"), "wrung"),
    (("loose",), "runs-loose"),
    (("shrink",), "shrink-firm"),
)
TWICE = 0.05  # mm: what is said of a bearing's bore beside its number
WORN = 0.5  # mm by which a standard slot's neck may be off


def _zones(s: Said) -> str:
    """The zones of a hole and a shaft that were said, as H7/g6; empty for none."""
    fit = s.take("fit")
    if not fit:
        if s.number_of("zone") < 2:
            return ""
        first, other = s.take("zone"), s.take("zone")  # 40 H7 k6
        holes_last = other[:1].isupper() and first[:1].islower()
        fit = f"{other}/{first}" if holes_last else f"{first}/{other}"
    if fit.isupper():  # 40 H7/G6
        hole, _, shaft = fit.partition("/")
        fit = f"{hole}/{shaft.lower()}"
    if fit.islower():  # said in small letters the hole still comes first
        hole, _, shaft = fit.partition("/")
        if hole[0] == shaft[0] == "h" and int(hole[1:]) < int(shaft[1:]):
            hole, shaft = shaft, hole  # and has the coarser grade
        fit = f"{hole.upper()}/{shaft}"
    return fit


_TOLD = re.compile(
    rf"\b(?:(?P<hole>{'|'.join(_HOLES)})|{'|'.join(_SHAFTS)})\s+"
    r"(?:is|measures|measured|reads)\s+(?:at\s+)?[\d.]"
)


def _is_measured(s: Said, size: str) -> bool:
    """Whether a size is no round one, as one that exists is: 25.03, .7505 in."""
    parts = s.mm(size) / INCH * 64 if s.in_inches(size) else s.mm(size) * 10
    return abs(parts - round(parts)) > 1e-4


@phrase("fit-target", "shaft to slide in a 25.03 hole")
def _other_half(s: Said) -> Inputs | None:
    """The half to be made, for one that was measured."""
    if s.number_of("fit", "zone", "inch fit", "bearing", "thread", "taper", "pair"):
        return None
    if s.hears("tap", "bolt", "screw", "drill", "thread", "reamer", "bearing"):
        return None  # what goes into it is made already
    if s.number_of(*_FIGURES) != 1:
        return None
    want = next((fit for words, fit in _WANTED if s.has(*words)), "")
    asked = s.hears("fit", "suit", "for", "size", "make", "need", "want")
    told = _TOLD.search(s.text)
    if told:
        size, is_hole = s.size(), bool(told["hole"])
    else:
        shaft = s.near(*_SHAFTS, "stub")
        size = shaft or s.near(*_HOLES, "socket", "tube", "pipe")
        is_hole = not shaft
        if s.hears("tube", "pipe") and s.hears("on", "onto", "over"):
            is_hole = False
    if TENTHS.fullmatch(size) and s.mm(f"{size}mm") < LEAST_BARE:
        size = f"{size}in"
    if not (want or asked) or not size or not _is_measured(s, size):
        return None
    s.has(*_SHAFTS, *_HOLES, "fit", "suit", "make", "turn", "go", "into", "onto", "on")
    s.has("size", "what", "should", "be", "is", "it", "need", "clearance", "measured")
    given: Inputs = {"existing": size, "kind": "hole" if is_hole else "shaft"}
    return {**given, "want": want} if want else given


@phrase("iso-fit", "46 H7/g6", keyed=False)
def _pair_of_zones(s: Said) -> Inputs | None:
    fit, nominal = _zones(s), s.size()
    s.has("fit", "shaft", "hole", "bore", "play", "clearance", "interference")
    s.has("tight", "loose", "free", "least", "most", *(word for word, _ in _FITS))
    if s.has("between"):  # 20 H7 and 20 f7
        s.take_again(nominal)
    return {"nominal": nominal, "fit": fit} if fit and nominal else None


@phrase("iso-fit", "press fit 20 shaft")
def _press(s: Said) -> Inputs | None:
    if s.number_of("inch fit"):
        return None
    if not s.has("fit", "clearance", "play"):
        return None
    # how much over, and not how hot
    fit = SHRUNK if s.hears("interference") and s.has("shrink") else ""
    fit = fit or next((fit for word, fit in _FITS if s.has(word)), "")
    if not fit and s.has("bush", "journal"):  # what turns in one runs in it
        fit = "H7/f7"
    if not fit and s.has("register", "spigot"):  # what centres
        fit = "H7/h6"
        s.has("nose", "chuck", "plate", "recess", "back", "backplate", "spindle")
    nominal = s.size()
    s.has("shaft", "hole", "bore", "pin", "bush", "locate", "press", "interference")
    if not fit or not nominal or s.mm(nominal) < LEAST_FITTED:
        return None
    return {"nominal": nominal, "fit": fit}


@phrase("inch-fit", "2in FN2", keyed=False)
def _inch_fit(s: Said) -> Inputs | None:
    fit, nominal = s.take("inch fit"), s.size()
    s.has("fit", "running", "sliding", "locational", "force", "press", "shaft", "hole")
    s.has("clearance", "interference", "limit", "of")
    if re.fullmatch(r"[\d.]+", nominal) and s.mm(f"{nominal}mm") < LEAST_BARE:
        nominal = f"{nominal}in"  # an inch fit, and no shaft is that thin
    return {"nominal": nominal, "fit": fit} if fit and nominal else None


@phrase("play-runout", "run-out from 0.02 play")
def _out_by_play(s: Said) -> Inputs | None:
    if not (s.has("play", "slop", "clearance") and s.has("runout", "run-out", "tir")):
        return None
    play = s.size()
    s.has("from", "with", "of", "how", "much", "allow", "does", "give")
    return {"play": play} if play and s.mm(play) <= MOST_PLAY else None


@phrase("key-load", "torque of a key 8 x 7 x 40 on a 25 shaft")
def _key_load(s: Said) -> Inputs | None:
    """What a key carries, by its width, height and length."""
    if not s.has("key") or s.hears("hex", "allen", "woodruff"):
        return None
    if not s.has("torque", "load", "carry", "hold", "strength", "transmit"):
        return None
    sides = s.pair()
    diameter = s.near("shaft", "bore", "diameter") or s.size()
    if len(sides) != 3 or not diameter:
        return None
    s.has("how", "much", "of", "on", "shaft", "does")
    return dict(
        zip(("diameter", "width", "height", "length"), (diameter, *sides), strict=True)
    )


@phrase("bolts-carry", "torque that 3 m8 bolts on 110 carry")
def _carried(s: Said) -> Inputs | None:
    """What the screws of a circle carry by friction, or pins in it by shear."""
    if not s.has("carry", "hold", "transmit", "torque", "slip"):
        return None
    pins = s.counted("pins", "dowels")
    bolts = s.counted("bolts", "screws")
    thread = thread_said(s)
    if not bolts and thread:
        bolts = s.count()
    if not (bolts and thread) and not pins:
        return None
    circle = s.near("circle", "pcd") or s.behind("on")
    pin = s.near("pin", "dowel") if pins else ""
    circle, pin = s.alike(circle or s.size(), pin or (s.size() if pins else ""))
    s.has(
        "torque", "that", "what", "how", "much", "bolt", "screw", "pin", "dowel", "of"
    )
    s.has("on", "a", "circle", "pcd", "drive", "does", "do", "will", "before")
    if not circle or (pins and not pin):
        return None
    given: Inputs = {"bolts": bolts or "0", "circle": circle}
    given |= {"thread": thread} if thread else {}
    return given | ({"pins": pins, "pin": pin} if pins else {})


_IN = re.compile(
    r"\d(?:\s*mm)?\s+in\s+(?:an?\s+)?[\d.]", re.IGNORECASE
)  # one lies in the other


@phrase("play", "is 0.02 too much play on 25")
def _so_much_play(s: Said) -> Inputs | None:
    """How a play is called on a size: on a shaft of just that."""
    told = ("play", "clearance", "slop", "shake")
    if not s.has(*told) or s.hears("runout", "run-out", "tir", "hole", "for", "length"):
        return None
    size = s.behind("on", "in") or s.near("shaft", "pin", "spigot")
    play, size = s.alike(s.size(), size)
    if not play or not size or s.mm(play) > MOST_OF * s.mm(size):
        return None
    s.has("on", "in", "a", "shaft", "pin", "spigot", "is", "too", "much", "how", "of")
    return {"hole": f"({size})+({play})", "shaft": size}


@phrase("play", "play of shaft 19.985 in hole 20.013")
def _measured_pair(s: Said) -> Inputs | None:
    """A hole and a shaft that were both measured."""
    asked = s.has("play", "loose", "slop", "clearance", "fit", "gap", "tight", "shake")
    shaft, hole = s.near(*_SHAFTS), s.near(*_HOLES)
    if not asked and not (shaft and hole):
        return None
    said = bool(shaft or hole)
    length = s.near("length", "engaged")
    shaft, hole, length = s.alike(shaft or s.size(), hole or s.size(), length)
    if not shaft or not hole:
        return None
    if not said and s.mm(hole) < s.mm(shaft) and not _IN.search(s.text):
        shaft, hole = hole, shaft  # 20.03 and 20; but 25.01 in 25 is tight
    if abs(s.mm(hole) - s.mm(shaft)) > ALIKE * s.mm(hole):
        return None
    tenths = [TENTHS.fullmatch(size) for size in (shaft, hole)]
    bare = all(re.fullmatch(r"[\d.]+", size) for size in (shaft, hole))
    if any(tenths) and bare and s.mm(f"{hole}mm") < LEAST_BARE:
        shaft, hole = f"{shaft}in", f"{hole}in"
    s.has(
        *_SHAFTS,
        *_HOLES,
        "of",
        "in",
        "is",
        "how",
        "between",
        "and",
        "on",
        "interference",
        "press",
    )
    return {"hole": hole, "shaft": shaft} | ({"length": length} if length else {})


# a size and M7, as a zone is said; a screw has no size before it
_ZONE_M = re.compile(
    r"^\s*(?:(?:the|a|hole|bore|shaft|limits?|of|tolerance|for)\s+)*"
    r"\d+(?:\.\d+)?\s*(?:mm)?\s*m(?:[4-9]|1[01])\s*$",
    re.IGNORECASE,
)


@phrase("iso-limits", "25 h6", keyed=False)
def _zone(s: Said) -> Inputs | None:
    zone, nominal = s.take("zone"), s.size()
    shaft = s.has("shaft")
    if not zone and s.hears("tolerance", "limits", "limit") and s.has("ream", "reamed"):
        zone = "H7"  # as a reamer leaves it
        s.has("hole")
    if not zone and nominal:  # m6 of a shaft, 25 M7: no thread
        zone = s.take("thread")
        small = shaft and re.fullmatch(r"m\d{1,2}", zone)
        zone = zone if small or _ZONE_M.search(s.text) else ""
    s.has("limit", "tolerance", "size", "interference", "smallest", "largest", "iso")
    s.has("grade", "least", "most", "in", "inch", "mm", "diameter", "max", "min")
    # of a keyway the zone is a hole's, whatever letter was typed
    if s.has("keyway", "slot", "hub") and zone:
        zone = zone.upper()
    s.has("key")
    # a shaft of g6 for a bore stays one; alone with a bore the small letter is its zone
    if s.has("hole", "bore", "ream") and not shaft:
        zone = zone.upper()
    return {"nominal": nominal, "zone": zone} if zone and nominal else None


@phrase("iso-fit", "10 dowel press")
def _dowel(s: Said) -> Inputs | None:
    if not s.has("dowel") or s.hears("shear", "strength", "carry"):
        return None
    nominal = s.size()
    if not nominal:
        return None
    slides = s.has("slide", "sliding", "slip", "easy")
    if s.hears("m6") and s.number_of("thread") == 1:  # its own zone
        s.take("thread")
    s.has("press", "tight", "hole", "ream", "pin")
    # dowels are bought to m6
    return {"nominal": nominal, "fit": "G7/m6" if slides else "H7/m6"}


@phrase("t-nut", "t-nut for a 14 slot")
def _t_nut(s: Said) -> Inputs | None:
    if not s.has("t-nut", "t-slot") or s.hears("strip"):
        return None
    neck = s.size()
    if not neck:
        return None
    s.has("nut", "slot", "neck", "size")
    # the standard slot at its smallest: such a nut goes into any of them
    row = standard_slot(s.mm(neck))
    slot = {key: float(value) for key, value in row.items() if key.endswith("_mm")}
    if abs(slot["neck_mm"] - s.mm(neck)) > WORN:
        return {"neck": neck}  # of another standard: its head and lip must be read
    return {
        "neck": neck,
        "head": f"{slot['head_least_mm']:g}mm",
        "head_height": f"{slot['head_height_least_mm']:g}mm",
        "lip": f"{slot['depth_least_mm'] - slot['head_height_most_mm']:g}mm",
    }


def _tightest(fit: str, nominal: float) -> str:
    """The most interference of a fit as H7/s6; empty where it goes on cold."""
    hole, _, shaft = fit.partition("/")
    high = limits_of_size(nominal, shaft).upper_deviation
    most = high - limits_of_size(nominal, hole).lower_deviation
    return f"{most:.5g}mm" if most > 0 else ""


def _in_proportion(s: Said) -> float:
    """The interference for each mm of the diameter, of `1 thou per inch`; 0 where it
    was not said so."""
    for unit in ("inch", "mm"):
        if each := s.of_each(unit):
            each, long = s.alike(each, f"1{unit}")
            return s.mm(each) / s.mm(long)
    return 0.0


def _share_of(s: Said, share: float, wide: str) -> str:
    """That interference of a diameter, in the unit that this was said in."""
    tight = share * s.mm(wide)
    return f"{tight / INCH:.4g}in" if s.in_inches(wide) else f"{tight:.4g}mm"


@phrase("shrink-fit", "shrink fit 50 interference 0.05")
def _shrink(s: Said) -> Inputs | None:
    heated = s.has("heat", "hot", "temperature")
    heated = heated and s.hears("hub", "ring", "collar", "fit", "interference", "bore")
    grown = s.number_of("size", "number") == 2 and s.has("grow", "expand")
    if not (s.has("shrink") or heated or grown):
        return None
    if s.has("bearing"):  # it is not heated as a hub is: its maker says how far
        return None
    share = _in_proportion(s)
    tight, room = s.near("interference", "tight", "over"), s.near("clearance")
    if share:
        first, room = s.alike(s.size(), room)
        other = _share_of(s, share, first) if first else ""
    elif (fit := _zones(s)) and (first := s.size()):
        other, (room, _) = _tightest(fit, s.mm(first)), s.alike(room, first)
    else:
        first, other, room = s.alike(s.size(), tight or s.size(), room)
        if first and not other and s.hears("shrink"):
            other = _tightest(SHRUNK, s.mm(first))
    s.has("fit", "hub", "shaft", "on", "drop", "slip", "ring", "collar", "bore", "pin")
    if not first or not other:
        return None
    tight, wide = sorted((first, other), key=s.mm)
    if s.mm(tight) > s.mm(wide) / 2:  # both were measured: a hub of 25 on 25.03
        wide, tight = tight, f"{s.mm(wide) - s.mm(tight):.5g}mm"
    if s.mm(tight) > MOST_TIGHT * max(1.0, s.mm(wide) / 100):
        return None  # no interference
    metal = s.take("material")
    given: Inputs = {"diameter": wide, "interference": tight}
    if grown:
        s.has("by", "bore", "how", "housing", "much")
    room = room or ("0" if grown else "")
    given |= {"assembly_clearance": room} if room else {}
    return {**given, "hub_material": metal} if metal else given


@phrase("press-fit", "force to press 25 pin 30 long 0.02 interference 50 hub")
def _press_force(s: Said) -> Inputs | None:
    if not s.has("force", "load", "tonne", "interference"):
        return None
    if not s.has("press"):
        return None
    share = _in_proportion(s)
    length = s.near("length")
    tight = "" if share else s.near("interference", "tight")
    metal = s.take("material") or "steel"
    if not tight and s.hears("fit"):  # a size so small can be nothing else
        small = (p for p in s.parts if p.kind in ("size", "number") and not p.used)
        part = next((p for p in small if 0 < s.mm(p.text) < MOST_TIGHT), None)
        if part is not None:
            part.used, tight = True, part.text
    length, tight, first, other = s.alike(length, tight, s.size(), s.size())
    s.has("pin", "shaft", "hub", "bush", "interference", "into", "outside", "fit")
    if not ((tight or share) and first):
        return None
    # without the hub's outside or its length it is asked for those
    diameter, *outside = sorted(filter(None, (first, other)), key=s.mm)
    if share:
        tight = _share_of(s, share, diameter)
    given: Inputs = {"diameter": diameter} | ({"length": length} if length else {})
    given |= {"hub_outside": outside[0]} if outside else {}
    metals = {"hub_material": metal, "shaft_material": s.take("material") or "steel"}
    return {**given, "interference": tight, **metals}


_SEATED = (
    *("seat", "shaft", "fit", "slip", "drop", "interference", "tight", "bore", "play"),
    *("heat", "hot", "warm", "housing", "press", "turn", "for"),
)


@phrase("bearing-seat", "bearing seat 6204")
def _bearing(s: Said) -> Inputs | None:
    number = s.take("bearing")
    if number and not s.hears(*_SEATED):
        return None  # its own sizes are asked
    asked = s.has("bearing")
    bore = _of_bearing(number, "bore_mm") if number else (s.near("bore") or s.size())
    if not (asked or number) or not bore:
        return None
    heated = s.has("heat", "hot", "warm")
    tight = (s.near("interference", "tight") or s.size()) if heated else ""
    s.has("seat", "shaft", "fit", "slip", "drop", "interference", "bore", "size")
    if number:  # a 6004 on a shaft of 20 is said twice
        again = s.near("shaft", "bore")
        if again and abs(s.mm(again) - s.mm(bore)) > TWICE:
            return None
    elsewhere = s.hears("bore") and number and not _own_bore(s, number)
    if s.has("housing", "outer", "outside") or elsewhere:  # the other ring: not this
        return None
    if tight:
        most = -s.mm(tight) * TIGHTEST  # of a seat that is measured
        return {"bore": bore, "play_least": f"-{tight}", "play_most": f"{most:.5f}mm"}
    try:
        zone = limits_of_size(s.mm(bore), "k6")
    except BadInput:  # no size that the tables have
        return None
    # the ring that turns, on a shaft of k6
    return {
        "bore": bore,
        "play_least": -zone.upper_deviation,
        "play_most": -zone.lower_deviation,
    }


def _own_bore(s: Said, number: str) -> bool:
    """Whether a bearing's own bore is spoken of: 6204 bore, bore of a 6204."""
    said = re.search(rf"\bbore\s+of\s+(?:an?\s+|the\s+)?{number}\b", s.text, re.I)
    return said is not None or any(
        a.text == number and b.word == "bore" for a, b in pairwise(s.parts)
    )


def _of_bearing(number: str, measure: str) -> str:
    found = bearing_of(number)
    return f"{found[measure]}mm" if found else ""


_SIZES_OF = ("dimension", "dimensions", "width", "size", "outside", "diameter", "od")


@phrase("o-ring-groove", "o-ring groove for 3 mm cord in 25 bore")
def _o_ring(s: Said) -> Inputs | None:
    if not s.has("o-ring"):
        return None
    s.has("groove", "depth", "deep", "width", "wide", "for", "a", "of", "in", "on")
    where = "face" if s.has("face") else "bore" if s.has("rod", "shaft") else "piston"
    cord = s.near("cord", "section", "thick", "thickness")
    on = s.near("bore", "rod", "shaft", "piston", "cylinder") or s.near("diameter")
    pair = s.pair()
    if len(pair) == 2:  # the ring itself, of 20 × 2.65: it just slips on such a rod
        (on, cord), where = pair, "bore" if where == "piston" else where
    first = cord or s.size()
    on, cord = s.alike(on or s.size(), first)
    moves = s.has("moving", "sliding", "dynamic", "reciprocating", "turning")
    s.has("static", "still", "bore", "piston", "groove", "seal", "size", "cylinder")
    if not cord:
        return None
    given: Inputs = {"cord": cord, "where": where}
    given |= {"diameter": on} if on else {}  # else it is asked for
    return {**given, "motion": "moving"} if moves else given


@phrase("ball-bearing", "6204 bearing dimensions")
def _bearing_sizes(s: Said) -> Inputs | None:
    number = s.take("bearing")
    if not number or s.hears("seat", "housing", "outer", "shaft", "bore", "heat"):
        return None
    s.has(
        *_SIZES_OF, "inside", "bearing", "ball", "big", "of", "a", "is", "how", "wide"
    )
    return {"number": number} if bearing_of(number) else None


@phrase("ball-bearing", "which bearing is 30 x 55 x 13")
def _bearing_by_sizes(s: Said) -> Inputs | None:
    """The number of a bearing whose rings were measured."""
    if not s.has("bearing"):
        return None
    sizes = s.pair() or [s.near("id", "bore", "inside"), s.near("od", "outside")]
    number = bearing_by(*map(s.mm, sizes)) if all(sizes) and len(sizes) < 4 else ""
    s.has("which", "what", "is", "number", "ball", "size", "id", "od")
    return {"number": number} if number else None


@phrase("iso-limits", "housing for a 6205 bearing")
def _housing(s: Said) -> Inputs | None:
    """The seat of an outer ring that stands still: H7, which it slides into."""
    number = s.take("bearing")
    if not (number or s.has("bearing")) or not s.has("housing", "outer", "bore"):
        return None
    named = s.hears("housing", "outer", "outside")
    if not named and (not number or _own_bore(s, number)):
        return None
    s.has("bearing", "seat", "hole", "ring", "size", "fit", "limit", "tolerance")
    outside = _of_bearing(number, "outside_mm") if number else s.size()
    return {"nominal": outside, "zone": "H7"} if outside else None


@phrase("bond-gap", "gap to bond a shaft 20 length 30")
def _bonded(s: Said) -> Inputs | None:
    if not s.has("bond", "bonded", "bonding", "glue", "glued", "gluing"):
        return None
    if s.touches("gap", "play"):  # it is known
        return None
    length = s.near("length")
    diameter = s.near("shaft", "bore", "diameter") or s.size()
    length = length or s.size()
    s.has("gap", "for", "compound", "joint", "hold", "play", "shaft", "length")
    return {"diameter": diameter, "length": length} if diameter and length else None
