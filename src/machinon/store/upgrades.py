"""Documents of older formats brought up to the present one, step by step.

Each step takes a document as plain values from one format to the next and says
why. What a step knows of an old format is written out here: the program's own
defaults may change, an old document may not.
"""

import re
from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import Any

FORMAT = 13  # of the documents that are written now

Plain = dict[str, Any]


def upgraded(document: Plain, written: int) -> Plain:
    """A document of an older format as the present one would have it."""
    for number in range(written, FORMAT):
        document = STEPS[number](document)
    return document


def _defaults_written_out(document: Plain) -> Plain:
    """Format 1 left out whatever was as usual, so that changing what is usual
    would have changed old jobs. From format 2 on every size is written."""
    kind = document.get("type")
    document = {**_USUAL_1.get(str(kind), {}), **document}
    if kind == "job":
        document["fits"] = _each("fit", document["fits"])
        for fit in document["fits"]:
            fit["given"] = _plain_decimals(fit["given"])
        document["cut"] = {**_USUAL_1["cut"], **document["cut"]}
        document["cut"]["entries"] = _each("entry", document["cut"]["entries"])
        document["proof"] = {**_USUAL_1["proof"], **document["proof"]}
        if isinstance(document["plate"], dict):
            document["plate"] = {**_USUAL_1["plate"], **document["plate"]}
    elif kind == "shop":
        document["instruments"] = _each("instrument", document["instruments"])
    elif kind == "belongings":
        document["items"] = _each("item", document["items"])
    if "figures" in document:
        document["figures"] = _plain_decimals(document["figures"])
    return document


def _plain_decimals(texts: Plain) -> Plain:
    """Format 1 wrote small figures as 5e-05, which nothing reads."""
    return {
        key: f"{Decimal(text):f}" if re.fullmatch(r"-?[\d.]+e[-+]?\d+", text) else text
        for key, text in texts.items()
    }


def _each(name: str, listed: Any) -> list[Any]:
    return [{**_USUAL_1[name], **item} for item in listed]


# what format 1 meant where nothing was written
_USUAL_1: Mapping[str, Mapping[str, Any]] = {
    "shop": {
        "id": "shop",
        "name": "",
        "inch": False,
        "temperature": 20.0,
        "first_angle": True,
        "instruments": [],
    },
    "instrument": {"inch": False, "checked": "", "least": 0.0, "most": 0.0},
    "lathe": {
        "dial_reads": "diameter",
        "dial_division": 0.02,
        "lead_screw": 4.0,
        "wheels": [],
        "tailstock": "",
        "stepless": False,
        "figures": {},
    },
    "machine": {"figures": {}, "seat": "", "note": ""},
    "belongings": {"items": []},
    "item": {
        "second": 0.0,
        "length": 0.0,
        "count": 1,
        "material": "",
        "note": "",
    },
    "piece": {"material": "steel", "surfaces": [], "note": ""},
    "job": {
        "reason": "",
        "lathe": "",
        "pieces": [],
        "fits": [],
        "plate": None,
        "done": [],
        "cut": {},
        "proof": {},
        "kept_as": "",
        "put_away": False,
    },
    "fit": {
        "exists": "shaft",
        "want": "slides",
        "clearance_min": 0.0,
        "clearance_max": 0.0,
        "thread": "",
        "reason": "",
        "joint": "register",
        "given": {},
    },
    "plate": {
        "material": "cast iron",
        "stock_diameter": 140.0,
        "stock_length": 45.0,
        "flange_diameter": 130.0,
        "flange_thickness": 18.0,
        "hub_diameter": 72.0,
        "hub_length": 17.0,
        "register_bore": None,
        "register_depth": 13.0,
        "spigot_diameter": None,
        "spigot_height": 3.5,
        "bolts": 3,
        "bolt_circle": None,
        "bolt_size": "M8",
        "bolting": "through",
    },
    "cut": {
        "start": None,
        "touch": None,
        "instrument": "micrometer",
        "school": "never",
        "deepest": 1.0,
        "least": 0.01,
        "entries": [],
        "trial": "",
    },
    "entry": {"measured": None, "spring": 0, "instrument": "", "at": ""},
    "proof": {
        "surfaces": [
            {
                "id": "register_bore",
                "name": "Register bore",
                "kind": "inside",
                "how": "Bore gauge at two depths, before the plate leaves the chuck.",
            },
            {
                "id": "spigot_diameter",
                "name": "Spigot",
                "kind": "outside",
                "how": "Across the spigot at three places, in place on the spindle.",
            },
            {
                "id": "bolt_circle",
                "name": "Span over two bolt holes",
                "kind": "span",
                "how": "Outside edge to outside edge of two neighbouring holes.",
            },
        ],
        "thread_tried": False,
        "runout": [],
        "runout_limit": 0.02,
        "tried": {},
        "accepted": {},
        "undone_because": "",
    },
}


def _jobs_make_pieces(document: Plain) -> Plain:
    """From format 3 on a job may make a piece of any family, and cut any of its fits;
    before, a back plate and its spigot. A piece that was made keeps how."""
    if document.get("type") == "job":
        document = {"making": None, "cuts": {}, "cutting": 0, **document}
    elif document.get("type") == "piece":
        document = {"making": None, **document}
    return document


_PLATE_SIZES = {  # as format 3 called a plate's sizes, and as a piece has them now
    "stock_diameter": "stock.diameter",
    "stock_length": "stock.length",
    "flange_diameter": "flange.diameter",
    "flange_thickness": "flange.thickness",
    "hub_diameter": "hub.diameter",
    "hub_length": "hub.length",
    "register_bore": "register.diameter",
    "register_depth": "register.depth",
    "spigot_diameter": "spigot.diameter",
    "spigot_height": "spigot.height",
    "bolt_circle": "bolts.circle",
}
_PROVED = {
    "register_bore": "fit.1",
    "spigot_diameter": "fit.3",
    "bolt_circle": "fit.4",
}


# what a turned piece of format 3 was where nothing was typed
_TURNED_3 = {
    "step1.length": "30mm",
    "step1.diameter": "20mm",
    "step2.length": "12mm",
    "step2.diameter": "40mm",
    "step3.length": "20mm",
    "step3.diameter": "25mm",
    "step4.length": "0",
    "step4.diameter": "20mm",
    "step5.length": "0",
    "step5.diameter": "16mm",
    "bore.diameter": "0",
    "recess.diameter": "0",
    "recess.depth": "5mm",
    "thread.thread": "none",
    "thread.length": "12mm",
    "hole.diameter": "0",
    "hole.from_end": "= step1.length/2",
    "edge.leg": "0.5mm",
}
# its features as parts now, with what says that it has them
_PARTS_3 = {
    **{f"step{n}": (f"step{n}", f"step{n}.length") for n in range(1, 6)},
    "bore": ("bore1", "bore.diameter"),
    "recess": ("bore2", "recess.diameter"),
    "thread": ("thread1", "thread.thread"),
    "hole": ("cross1", "hole.diameter"),
    "edge": ("edge1", "edge.leg"),
}


_BLOCK_3 = {
    "holes.pattern": "rectangle",
    "holes.kind": "counterbored",
    "holes.screw": "M8",
    "holes.across": "2",
    "holes.up": "2",
    "holes.from_side": "15mm",
    "holes.from_front": "15mm",
    "holes.circle": "= block.width*0.7",
    "holes.depth": "0mm",
    "bore.diameter": "0",
    "bore.from_front": "= block.width/2",
    "bore.depth": "0mm",
    "bore.counterbore": "0mm",
    "bore.counterbore_depth": "0mm",
    "stud.thread": "none",
    "stud.from_side": "= block.length/2",
    "stud.from_front": "= block.width/2",
    "stud.depth": "0mm",
    "slot.width": "0",
    "slot.depth": "5mm",
    "slot.from_front": "= block.width/2",
    "corner.radius": "0",
    "edge.leg": "0.5mm",
}


def _of_parts(making: Plain | None) -> Plain | None:
    """A piece with fixed features as one with the parts that it has."""
    if making is None:
        return None
    making = {"parts": [], **making}
    if making["family"] == "turned-piece":
        return _turned_of_parts(making)
    if making["family"] == "plate-block":
        return _block_of_parts(making)
    return making


def _there(text: str) -> bool:
    """Whether a size said that its feature is there."""
    return text != "none" and bool(text.strip(" m.0"))


def _renamed(text: str, names: Mapping[str, str]) -> str:
    """A link with the features it speaks of as they are called now."""
    if not text.startswith("="):
        return text
    return re.sub(r"\b([a-z]+\d?)\.", lambda m: f"{names.get(m[1], m[1])}.", text)


def _block_of_parts(making: Plain) -> Plain:
    sizes = {**_BLOCK_3, **making["sizes"]}
    pattern = sizes["holes.pattern"]
    kind = {"row": "row", "circle": "ring"}.get(pattern, "holes")
    names = {
        "holes": "" if pattern == "none" else f"{kind}1",
        "bore": "bore1" if _there(sizes["bore.diameter"]) else "",
        "stud": "hole1" if _there(sizes["stud.thread"]) else "",
        "slot": "slot1" if _there(sizes["slot.width"]) else "",
        "corner": "corner1" if _there(sizes["corner.radius"]) else "",
        "edge": "edge1" if _there(sizes["edge.leg"]) else "",
    }
    names = {old: new for old, new in names.items() if new}
    called = {"stud.thread": "screw", "slot.from_front": "at"}
    # what each pattern has no use for
    drop = {"holes.pattern"}
    if kind == "ring":
        called["holes.across"] = "count"
        drop |= {"holes.up", "holes.from_side", "holes.from_front"}
    else:
        drop |= {"holes.circle"} | ({"holes.up"} if kind == "row" else set())
    found = {}
    for key, text in sizes.items():
        name, _, measure = key.partition(".")
        if name in ("block", "stock"):
            found[key] = _renamed(text, names)
        elif name in names and key not in drop:
            new = f"{names[name]}.{called.get(key, measure)}"
            found[new] = _renamed(text, names)
    return {**making, "parts": list(names.values()), "sizes": found}


def _turned_of_parts(making: Plain) -> Plain:
    sizes = {**_TURNED_3, **making["sizes"]}
    there = {
        name: part for name, (part, says) in _PARTS_3.items() if _there(sizes[says])
    }
    found = {}
    for key, text in sizes.items():
        name, _, measure = key.partition(".")
        if name == "stock":
            found[key] = _renamed(text, there)
        elif name in there:
            found[f"{there[name]}.{measure}"] = _renamed(text, there)
    if "recess" in there:
        found["bore2.floor"] = "flat"
    parts = list(there.values())
    if "edge" in there:
        parts.append("edge2")
        found |= {"edge2.end": "left", "edge2.leg": "= edge1.leg"}
    return {**making, "parts": parts, "sizes": found}


_SLOTS_3 = {  # the fits of each family of format 3, in their order
    "back-plate": ("register", "spigot"),
    "collet-arbor": ("spigot",),
    "taper-arbor": ("spigot",),
    "spacer-sleeve": ("bore",),
    "t-nut-strip": ("tongue",),
    "plate-block": (),
    "turned-piece": (),
}
# what a made plate's surfaces are called as those of any piece
_MADE = {
    "register_bore": "recess",
    "spigot_diameter": "register",
    "bolt_circle": "bolt-span",
}


def _back_plates_are_pieces(document: Plain) -> Plain:
    """From format 4 on a job may make several pieces, each with its own steps and
    proof, a free piece has parts, and a back plate is a piece of its family like any
    other: its sizes are those of a making, its spigot's log that of fit 3, its proof
    by its fits; one that was made has surfaces of the usual kinds."""
    if document.get("type") == "piece":
        document = {**document, "making": _of_parts(document["making"])}
    if document.get("type") == "piece" and document["role"] == "plate":
        surfaces = [
            {**surface, "id": _MADE.get(surface["id"], surface["id"])}
            for surface in document["surfaces"]
        ]
        return {**document, "role": "other", "surfaces": surfaces}
    if document.get("type") != "job":
        return document
    document = dict(document)
    plate, cut = document.pop("plate"), document.pop("cut")
    making, proof = _of_parts(document.pop("making")), document.pop("proof")
    work: Plain = {
        "key": "1",
        "making": making,
        "fits": {},
        "done": document.pop("done"),
        "cutting": document.pop("cutting"),
        "proof": proof,
        "kept_as": document.pop("kept_as"),
    }
    document["works"], document["at"] = [work], "1"
    document["fits"] = [
        {
            **fit,
            "surface": _MADE.get(fit["surface"], fit["surface"]),
            "joint": fit["kind"]
            if fit["kind"] in ("thread", "bolts")
            else fit["joint"],
        }
        for fit in document["fits"]
    ]
    if making is not None:
        numbers = {fit["number"] for fit in document["fits"]}
        slots = enumerate(_SLOTS_3[making["family"]], 1)
        work["fits"] = {slot: number for number, slot in slots if number in numbers}
    if plate is None:
        # a job without a plate had the three lines of one all the same
        surfaces = [
            surface for surface in proof["surfaces"] if surface["id"] not in _PROVED
        ]
        work["proof"] = {**proof, "surfaces": surfaces}
        return document
    sizes = {
        now: f"{Decimal(repr(plate[key])).normalize():f}mm"
        for key, now in _PLATE_SIZES.items()
        if plate[key] is not None
    }
    sizes |= {"bolts.screw": plate["bolt_size"], "bolts.bolting": plate["bolting"]}
    if plate["bolts"] is not None:
        sizes["chuck.bolts"] = str(plate["bolts"])
    if len(document["pieces"]) < 2:
        raise ValueError("a plate without what it is made for")
    nose, chuck = document["pieces"][:2]
    work["fits"] = {"register": 1, "thread": 2, "spigot": 3, "bolts": 4}
    work["making"] = {
        "family": "back-plate",
        "sizes": sizes,
        "mates": {"nose": nose, "chuck": chuck},
        "material": plate["material"],
        "parts": [],
    }
    document["cuts"] = {**document["cuts"], "3": cut}
    work["cutting"] = work["cutting"] or 3
    surfaces = [
        {**surface, "id": _PROVED.get(surface["id"], surface["id"])}
        for surface in proof["surfaces"]
    ]
    work["proof"] = {**proof, "surfaces": surfaces}
    for part in ("tried", "accepted"):
        found = {_PROVED.get(key, key): said for key, said in proof[part].items()}
        work["proof"][part] = found
    return document


def _steps_keep_their_sizes(document: Plain) -> Plain:
    """Format 4 to 5: what a finished step was cut to is kept; of older ones nobody
    knows."""
    for work in document.get("works", ()):
        work["done_as"] = {}
    return document


def _steps_are_worked_by_lines(document: Plain) -> Plain:
    """Format 5 to 6: kept are the lines of a step that are done, which features are
    there before the first step, and each time that a piece's run-out was read. Drawings
    were third angle whatever the shop said, and stay so."""
    for work in document.get("works", ()):
        work |= {"at_step": "", "ticked": {}, "ways": {}, "trued": {}}
    if document.get("type") == "piece":
        document["runs"] = []
    for holder in (document, *document.get("works", ())):
        if holder.get("making"):
            holder["making"]["there"] = []
    if document.get("type") == "shop":
        document["first_angle"] = False
    return document


def _old_pieces_are_measured(document: Plain) -> Plain:
    """Format 6 to 7: the piece that another is made from is measured as any other; how
    a fit is worked out follows from what it is for; a cut says what it is cut with."""
    for fit in document.get("fits", ()):
        if fit.pop("kind") == "thread":
            fit["joint"] = "thread"
    for log in document.get("cuts", {}).values():
        log["tool"] = ""
    for holder in (document, *document.get("works", ())):
        if holder.get("making"):
            holder["making"] |= {"old": "", "read_on": {}}
    return document


def _clocks_are_kept(document: Plain) -> Plain:
    """Format 7 to 8: a clock that was started at a step runs on whatever happens; a job
    says which of the shop's mills it is done on, empty for the first."""
    for work in document.get("works", ()):
        work["clocks"] = {}
    if document.get("type") == "job":
        document["mill"] = ""
    return document


def _lessons_are_kept(document: Plain) -> Plain:
    """Format 8 to 9: the shop keeps what went wrong at a step, to warn of it there."""
    if document.get("type") == "shop":
        document["lessons"] = []
    return document


def _rules_round_in_millimetres(document: Plain) -> Plain:
    """Format 9 to 10: a piece says whether its rules round in inches; none did."""
    for holder in (document, *document.get("works", ())):
        if holder.get("making"):
            holder["making"]["inch"] = False
    return document


def _odd_flats_are_read_to_the_far_side(document: Plain) -> Plain:
    """Format 10 to 11: an odd number of flats is read from one to the far side of the
    round; before, its size was twice the distance from the axis. It was 17 mm where
    nothing was typed, and follows the round now."""
    for holder in (document, *document.get("works", ())):
        making = holder.get("making") or {}
        for name in making.get("parts", ()):
            if not name.startswith("flat"):
                continue
            sizes, key = making["sizes"], f"{name}.across"
            old = sizes.setdefault(key, "17mm").lstrip("= ")
            if sizes.get(f"{name}.count") in _ODD:
                wide = _round_at(making, name)
                if wide is not None:
                    sizes[key] = f"= ({old})/2 + {wide / 2:g}mm"
    return document


_ODD = ("1", "3", "5", "7", "9", "11")


def _round_at(making: Plain, name: str) -> float | None:
    """The round under some flats of a turned piece, mm; None where it cannot be told
    from its sizes."""
    from machinon.core.errors import BadInput
    from machinon.core.families import family_of
    from machinon.core.piece.family import grown
    from machinon.core.piece.made import make
    from machinon.core.piece.milled_features import Flats

    # as an even number, which no round is needed for
    given = {**making["sizes"], f"{name}.count": "2"}
    try:
        family = grown(family_of(making["family"]), tuple(making["parts"]))
        flats = make(family, given).body.feature(name)
    except BadInput:
        return None
    assert isinstance(flats, Flats)
    return flats.round


def _what_rules_made_is_kept(document: Plain) -> Plain:
    """Format 11 to 12: what the rules made of sizes is kept beside what was typed."""
    for holder in (document, *document.get("works", ())):
        if holder.get("making"):
            holder["making"] |= {"ruled": {}, "ruled_of": ""}
    return document


def _pieces_are_made_alike(document: Plain) -> Plain:
    """Format 12 to 13: a piece says how many alike are made, and a size that is cut has
    the logs of those before it; there was one of each. A route has added steps, a
    log the check of its gauge and the compound's feed; there were none."""
    for holder in (document, *document.get("works", ())):
        if holder.get("making"):
            holder["making"] |= {"count": 1, "own": []}
    for log in document.get("cuts", {}).values():
        log |= {"earlier": [], "check": None, "compound": 0}
    return document


# by the format that a step starts from
STEPS: Mapping[int, Callable[[Plain], Plain]] = {
    1: _defaults_written_out,
    2: _jobs_make_pieces,
    3: _back_plates_are_pieces,
    4: _steps_keep_their_sizes,
    5: _steps_are_worked_by_lines,
    6: _old_pieces_are_measured,
    7: _clocks_are_kept,
    8: _lessons_are_kept,
    9: _rules_round_in_millimetres,
    10: _odd_flats_are_read_to_the_far_side,
    11: _what_rules_made_is_kept,
    12: _pieces_are_made_alike,
}
