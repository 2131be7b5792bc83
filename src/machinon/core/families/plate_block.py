"""Plate block: squared from sawn stock, its features added one by one.

Seen from above, x runs along its length and y along its width, from the low left
corner; what is in a face is dimensioned from there, or from the face's centre.
"""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from msgspec.structs import replace

from machinon.core.families._dovetail import dovetail_steps
from machinon.core.families._opening import on_floor
from machinon.core.families._plate_checks import checks
from machinon.core.families._plate_features import (
    FACES,
    block_of,
    crosswise,
    face_of,
    feature_of_part,
    flank_under,
    floor_under,
    from_centre,
    hole_by_screw,
    holes_of_part,
    in_t_nuts,
    is_female,
    leaning,
    parts_of,
    slot_of,
)
from machinon.core.fits.tee_slot import standard_slot
from machinon.core.piece.block_features import EDGES, SixFaces
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Family,
    FreePart,
    Holding,
    Mate,
    MateSize,
    OfPart,
    Size,
    Step,
    Values,
    grown,
    spoken,
)
from machinon.core.piece.feature import BlockFace
from machinon.core.piece.hardware import Hardware, cap_screws
from machinon.core.piece.hole_features import TOWARDS
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import TEXT

KINDS = ("through", "tapped", "counterbored", "countersunk", "reamed")
OFF_EDGE = 15.0  # mm from the edges that a pocket begins at, where there is room
FLOOR = 0.3  # mm that the end mill leaves on the floor of a T-slot
# parts that are patterns of holes
DRILLED = ("hole", "row", "holes", "ring", "pattern")
# what the length and the width of a part's face come from
ITS_FACE = ("block.length", "block.width", "block.height", "{}.face")
AFTER = {  # what is done to a hole once it is drilled
    "tapped": "tap",
    "counterbored": "counterbore",
    "countersunk": "countersink",
    "reamed": "ream",
}


def build(s: Values) -> Body:
    long, wide, high = block = block_of(s)
    over = s["stock.over"]
    features = [SixFaces("block", *block), *(feature_of_part(s, n) for n in s["parts"])]
    high_corner = (long + over, wide + over, high + over)
    return Body(Block((-over, -over, -over), high_corner), tuple(features))


def _cut_off(s: Values) -> str:
    """An outline to begin with: the block with a corner cut off."""
    long, wide, _ = block_of(s)
    half, deep = long / 2, wide / 2
    return f"0,0 {long:g},0 {long:g},{deep:g} {half:g},{wide:g} 0,{wide:g}"


def _drilled(s: Values, name: str) -> list[Step]:
    """The steps of a pattern of holes, all in the set-up of the drill."""
    part, deep = floor_under(s, name)
    across = part and s[f"{part}.face"] != s[f"{name}.face"]
    note = on_floor(part, deep, "wall" if across else "floor")
    if vee := flank_under(s, name):
        note = (
            f"Before {spoken(vee)}, while there is a flat to start on. {note}".strip()
        )
    steps = [Step("drill", (name,), note=note)]
    work = AFTER.get(str(s[f"{name}.kind"]))
    if work:
        note = "In the set-up of the drill." if work == "tap" else ""
        steps.append(Step(work, (name,), note=note))
    return steps


def _of_face(s: Values, face: BlockFace) -> list[Step]:
    """Steps of one face, bores first: they are the zero of much that follows."""
    steps: list[Step] = []

    def here(*kinds: str) -> list[str]:
        return [name for name in parts_of(s, *kinds) if s[f"{name}.face"] == face]

    for name in here("bore"):
        title = f"Open {spoken(name)} by drills"
        leaves = min(1.0, s[f"{name}.diameter"] / 8)
        steps.append(Step("drill", (name,), leaves=leaves, title=title))
        steps.append(Step("bore", (name,), tool="boring head, or on the faceplate"))
    steps += [Step("mill", (name,)) for name in here("pocket", "rebate")]
    drilled = [name for name in here(*DRILLED) if not leaning(s, name)]
    # no drill starts on a flank: what begins in a vee or seat is drilled before it
    early = [name for name in drilled if flank_under(s, name)]
    for name in early:
        steps += _drilled(s, name)
    for name in here("vee"):
        tool = "end mill, the work aslant, or angle cutter"
        steps.append(Step("mill", (name,), tool=tool))
    for name in here("dovetail"):
        angle, pin = s[f"{name}.angle"], s[f"{name}.pin"]
        slot = is_female(s, name)
        steps += dovetail_steps(name, spoken(name), angle, pin, slot=slot)
    for name in here("tee"):
        steps += _tee_steps(name, spoken(name))
    for name in here("seat"):
        note = (
            "Clamp a scrap block on it, face to face, and bore along the seam: the "
            "bore is measured whole, and both halves together are as high as the "
            "blocks. Turn what lies in it to what the cutter really cut."
        )
        title = f"Bore {spoken(name)}, half of it in a scrap block"
        steps.append(Step("mill", (name,), title=title, tool="boring head", note=note))
    slots = [name for name in here("slot") if not slot_of(s, name).sawn]
    drilled = [name for name in drilled if name not in early]
    # a slot is milled first where holes begin on its floor
    begun_in = {floor_under(s, name)[0] for name in drilled}
    steps += [Step("mill", (name,)) for name in slots if name in begun_in]
    for name in drilled:
        steps += _drilled(s, name)
    steps += [Step("mill", (name,)) for name in slots if name not in begun_in]
    return steps


def _up(face: BlockFace) -> str:
    """How the block lies in the vise."""
    return "upper face up" if face == "top" else f"{face} face up"


def _sawn(s: Values, face: BlockFace) -> list[Step]:
    """The slits of a face."""
    slits = (slot_of(s, name) for name in parts_of(s, "slot"))
    caution = (
        "A slitting saw that grabs climbs into the work: clamp it low and hard, feed "
        "slowly against the teeth, and keep out of their line."
    )
    return [
        Step("saw", (slit.name,), caution=caution)
        for slit in slits
        if slit.face == face and slit.sawn
    ]


def _aslant(s: Values, name: str) -> Holding:
    """The set-up for holes that lean to their face: the work is leant instead."""
    lean, face = s[f"{name}.lean"], s[f"{name}.face"]
    drill, *more = _drilled(s, name)
    first = replace(
        drill,
        note="On the slope, first an end mill, plunged until it stands on a whole "
        "flat; then it is spotted and drilled.",
        caution="On a slope a drill walks off and snaps: flat first. The work must not "
        "slide down: a stop below it, clamps above.",
    )
    return Holding(
        f"leant-{name}",
        "mill",
        f"Leant by {lean:g}° on an angle block, {_up(face)}",
        f"So {spoken(name)} stands upright under the spindle.",
        (first, *more),
    )


def _tee_steps(name: str, said: str) -> tuple[Step, Step]:
    """Its neck by an end mill, its head by the cutter that is made for it."""
    return (
        Step("mill", (name,), leaves=FLOOR, title=f"Neck of {said} with an end mill",
             note="To its width, as the cutter of the head does not widen it.",
             key=f"neck-{name}"),
        Step("mill", (name,), title=f"Head of {said}", tool="T-slot cutter",
             note="Feed slowly, cut against the feed where a side is widened.",
             caution="Chips cannot get out by themselves: clear them all the way, or "
             "the cutter's thin neck breaks. Keep the hands off until it stands.",
             key=f"head-{name}"),
    )  # fmt: skip


def route(s: Values) -> tuple[Holding, ...]:
    square = Holding(
        "square",
        "mill",
        "In the vise, six faces in order",
        "Each face is milled against one that is flat already: largest first, its "
        "neighbour on it, then the opposite ones on parallels.",
        (
            Step("mark", ("block",), title="Deburr the sawn faces, mark the best"),
            Step("square", ("block",), title="Mill the six faces to size"),
            Step(
                "prove",
                ("block",),
                title="Square and micrometer before it goes on",
                tool="square, micrometer",
            ),
        ),
    )
    holdings = [square]
    for face in FACES:
        steps = _of_face(s, face)
        if not steps:
            continue
        holdings.append(
            Holding(
                face,
                "mill",
                f"In the vise, {_up(face)}",
                "All that must agree is measured from one corner, the low left one, "
                "and cut in one holding.",
                tuple(steps),
            )
        )
    leant = [name for name in parts_of(s, *DRILLED) if leaning(s, name)]
    holdings += [_aslant(s, name) for name in leant]
    for face in FACES:
        slits = _sawn(s, face)
        if slits:
            title = f"In the vise, {_up(face)}, for the slits"
            reason = "Sawn once every hole is in: a slit lets the block spring."
            holdings.append(Holding(f"saw-{face}", "mill", title, reason, tuple(slits)))
    shaped = [
        Step("mill", (name,), title="Round the corners")
        for name in parts_of(s, "corner")
    ]
    for name in parts_of(s, "outline"):
        title = f"Saw near {spoken(name)}, mill or file to its line"
        note = "Stick the template on, or mark it out: the saw leaves a little."
        shaped.append(Step("mill", (name,), title=title, note=note))
    for name in parts_of(s, "edge"):
        edges = f"the {EDGES[s[f'{name}.which']]}"
        shaped.append(
            Step(
                "mill",
                (name,),
                title=f"Chamfer {edges}",
                note="Its depth is taken square to the face.",
            )
        )
    last = Holding(
        "shape",
        "mill",
        "In the vise",
        "Edges come last: until then they locate it.",
        (*shaped, Step("deburr", ())),
    )
    return (*holdings, last)


def _on_its_face(way: int, *more: str) -> dict[str, Any]:
    """The middle of a part's face as its rule, the way the face's length goes (0) or
    across (1), and what that rests on."""

    def middle(name: str, s: Values) -> float:
        return 0.0 if from_centre(s, name) else face_of(s, s[f"{name}.face"])[way] / 2

    return {
        "rule": OfPart(middle),
        "why": "in the middle",
        "rests": (*ITS_FACE, *more),
    }


def _wide(name: str, s: Values) -> float:
    return hole_by_screw(s, name).diameter


def _circle(name: str, s: Values) -> float:
    return 0.6 * min(face_of(s, s[f"{name}.face"])[:2])


def _three(name: str, s: Values) -> str:
    """Three places in a face to begin with."""
    long, wide, _ = face_of(s, s[f"{name}.face"])
    x, y = (long / 2, wide / 2) if from_centre(s, name) else (0.0, 0.0)
    places = ((0.25, 0.25), (0.5, 0.8), (0.75, 0.25))
    return " ".join(f"{a * long - x:g},{b * wide - y:g}" for a, b in places)


def _across(name: str, s: Values) -> float:
    """The middle of a part's face, across the way it runs."""
    long, wide, _ = face_of(s, s[f"{name}.face"])
    return (long if crosswise(s, name) else wide) / 2


def _off_edge(way: int) -> Callable[[str, Values], float]:
    """The place of a pocket along its face (0) or across it (1): in the middle of a
    face that leaves little beside it."""

    def off(name: str, s: Values) -> float:
        room = face_of(s, s[f"{name}.face"])[way]
        taken = float(s[f"{name}.{('length', 'width')[way]}"])
        return max(min(OFF_EDGE, (room - taken) / 2), 0.0)

    return off


def _by_pins(name: str, s: Values) -> float:
    """The first size of a dovetail over or between its pins, mm."""
    return 14.0 if is_female(s, name) else 40.0


def _standard(column: str) -> OfPart:
    """A figure of the standard T-slot nearest to a part's neck, mm."""
    return OfPart(lambda name, s: float(standard_slot(s[f"{name}.neck"])[column]))


def _lip(name: str, s: Values) -> float:
    """The least depth of that slot less the head."""
    row = standard_slot(s[f"{name}.neck"])
    return float(row["depth_least_mm"]) - float(row["head_height_least_mm"])


def _where(
    side: Mapping[str, Any], across: Mapping[str, Any] | None = None
) -> tuple[Size, Size]:
    """Words for the place of a hole: from the low left corner of its face as drawn, or
    from its middle."""
    across = across or _on_its_face(1)
    return (
        Size("from_side", "{} along its face", low=0, high=1000, **side),
        Size("from_front", "{} across its face", low=0, high=600, **across),
    )


_FACE = Size("face", "face of {}", "top", "", kind=TEXT, choices=FACES)
# of what goes from end to end
_UPPER = Size("face", "face of {}", "top", "", kind=TEXT, choices=("top", "bottom"))
_DATUM = Size("datum", "what {} is measured from", "corner", "", kind=TEXT,
              choices=("corner", "centre"))  # fmt: skip


def _made(kind: str, screw: str) -> tuple[Size, ...]:
    """The sizes that every hole of a pattern has."""
    return (
        _FACE,
        Size("kind", "kind of {}", kind, "", kind=TEXT, choices=KINDS),
        Size("screw", "screws of {}", screw, "", kind=TEXT),
        Size("depth", "depth of {}", "0", "0 goes through", 0, 400),
        Size("diameter", "{} across", OfPart(_wide), "as its screw or tap asks", 0.3,
             200, step=0.001, rests=("{}.kind", "{}.screw")),
    )  # fmt: skip


_ASLANT = (
    Size("lean", "lean of {}", "0", "0 is square to its face", 0, 60, ANGLE),
    Size("leans", "where {} leans to", "right", "", kind=TEXT, choices=(*TOWARDS,)),
)


PARTS = (
    FreePart("hole", "A hole", (
        *_made("tapped", "M8"), _DATUM,
        *_where(_on_its_face(0, "{}.datum"), _on_its_face(1, "{}.datum")), *_ASLANT,
    )),
    FreePart("row", "Holes in a row", (
        *_made("through", "M6"),
        Size("across", "how many {} has", "3", "", 2, 40, COUNT),
        *_where({"rule": "15"}), *_ASLANT,
    )),
    FreePart("holes", "Holes in a rectangle", (
        *_made("counterbored", "M8"),
        Size("across", "{} along the length", "2", "", 1, 40, COUNT),
        Size("up", "{} along the width", "2", "", 1, 40, COUNT),
        _DATUM,
        Size("from_side", "{} from its ends", "15", "", 0, 500),
        Size("from_front", "{} from its sides", "15", "", 0, 500),
    )),
    FreePart("ring", "Holes on a circle", (
        *_made("tapped", "M5"),
        Size("count", "how many {} has", "6", "", 2, 60, COUNT),
        Size("circle", "circle of {}", OfPart(_circle), "well inside", 2, 900,
             step=0.5,
             rests=ITS_FACE),
        Size("start", "angle of the first of {}", "90", "at the back", -360, 360,
             ANGLE),
        *_where(_on_its_face(0)),
    )),
    FreePart("pattern", "Holes at places of their own", (
        *_made("through", "M6"), _DATUM,
        Size("places", "places of {}", OfPart(_three), "three to begin with", kind=TEXT,
             rests=("{}.datum", *ITS_FACE)),
        Size("mirrored", "{} once more, mirrored", "no", "", kind=TEXT,
             choices=("no", "left-right", "up-down", "both")), *_ASLANT,
    )),
    FreePart("bore", "A bore", (
        Size("diameter", "{}", "20", "", 2, 400), _FACE,
        *_where({"rule": "post.width/2", "why": "half the tool post's width"}),
        Size("depth", "depth of {}", "0", "0 goes through", 0, 400),
        Size("counterbore", "counterbore of {}", "0", "0 for none", 0, 400),
        Size("counterbore_depth", "counterbore's depth, {}", "0", "", 0, 400),
    ), surfaces=(("bore", "diameter"),)),
    FreePart("slot", "A slot or groove", (
        Size("face", "face of {}", "bottom", "", kind=TEXT, choices=FACES),
        Size("runs", "how {} runs", "along", "", kind=TEXT,
             choices=("along", "across")),
        Size("at", "middle of {} from the edge", OfPart(_across), "in the middle", 0,
             1000, rests=(*ITS_FACE, "{}.runs")),
        Size("width", "width of {}", "10", "", 0.5, 300),
        Size("depth", "depth of {}", "5", "0 goes through", 0, 400),
        Size("length", "{} between its ends", "0",
             "0 goes from end to end", 0, 1000),
        Size("from_end", "{} from the edge", "10", "", 0, 1000),
        Size("turn", "{} turned by", "0", "0 runs square to the edges", -89, 89, ANGLE),
    ), surfaces=(("slot", "width"),)),
    FreePart("pocket", "A pocket or window", (
        _FACE,
        Size("from_side", "{} along its face", OfPart(_off_edge(0)), "off its edge", 0,
             1000, rests=(*ITS_FACE, "{}.length")),
        Size("from_front", "{} across its face", OfPart(_off_edge(1)), "off its edge",
             0, 600, rests=(*ITS_FACE, "{}.width")),
        Size("length", "length of {}", "30", "", 1, 1000),
        Size("width", "width of {}", "20", "", 1, 600),
        Size("depth", "depth of {}", "0", "0 goes through", 0, 400),
        Size("radius", "corner radius of {}", "4", "half its cutter", 0, 100),
    )),
    FreePart("vee", "A vee groove", (
        _UPPER,
        Size("runs", "how {} runs", "along", "", kind=TEXT,
             choices=("along", "across")),
        Size("at", "middle of {} from the edge", "block.width/2", "in the middle", 0,
             1000),
        Size("angle", "angle of {}, flank to flank", "90", "", 20, 150, ANGLE),
        Size("width", "{} at its mouth", "20", "", 1, 400),
    )),
    FreePart("dovetail", "A dovetail", (
        _UPPER,
        Size("form", "form of {}", "female", "", kind=TEXT, choices=("female", "male")),
        Size("runs", "how {} runs", "along", "", kind=TEXT,
             choices=("along", "across")),
        Size("at", "middle of {} from the edge", OfPart(_across), "in the middle", 0,
             1000, rests=("{}.runs", "block.length", "block.width")),
        Size("depth", "depth of {}", "8", "", 0.5, 100),
        Size("angle", "angle of {}", "60", "to its floor", 35, 80, ANGLE),
        Size("pin", "pins that {} is read by", "6", "", 0.5, 40),
        Size("pins", "{} between its pins, or over them", OfPart(_by_pins), "", 1, 400,
             step=0.001, rests=("{}.form",)),
    )),
    FreePart("tee", "A T-slot", (
        _UPPER,
        Size("runs", "how {} runs", "along", "", kind=TEXT,
             choices=("along", "across")),
        Size("at", "middle of {} from the edge", OfPart(_across), "in the middle", 0,
             1000, rests=("{}.runs", "block.length", "block.width")),
        Size("neck", "neck of {}", "10", "", 3, 100),
        Size("head", "width of its head, {}", _standard("head_least_mm"),
             "as the standard slot has", 3, 200, rests=("{}.neck",)),
        Size("height", "height of its head, {}", _standard("head_height_least_mm"),
             "as the standard slot has", 1, 100, rests=("{}.neck",)),
        Size("lip", "lips of {}", OfPart(_lip), "as the standard slot has", 1, 200,
             rests=("{}.neck",)),
    ), surfaces=(("tee-neck", "neck"), ("tee-head", "head"),
                 ("tee-head-depth", "height"), ("tee-lip", "lip"))),
    FreePart("seat", "A half-round seat", (
        _UPPER,
        Size("diameter", "round of {}", "16", "", 1, 400),
        Size("depth", "depth of {}", "{}.diameter/2", "half the round", 0.2, 200),
        Size("runs", "how {} runs", "across", "", kind=TEXT,
             choices=("across", "along")),
        Size("at", "middle of {} from the edge", "block.length/2", "in the middle", 0,
             1000),
    ), surfaces=(("bore", "diameter"),)),
    FreePart("rebate", "A rebate", (
        _UPPER,
        Size("side", "side of {}", "front|back", "", kind=TEXT,
             choices=("front", "back", "left", "right")),
        Size("width", "width of {}", "10", "", 0.2, 400),
        Size("depth", "depth of {}", "8", "", 0.2, 400),
    )),
    FreePart("outline", "An outline by its corners", (
        Size("points", "corners of {}", _cut_off, "a corner cut off", kind=TEXT,
             rests=("block.length", "block.width")),
    )),
    FreePart("corner", "Rounded corners", (
        Size("radius", "radius of {}", "5", "", 0.2, 100),
    )),
    FreePart("edge", "Chamfers", (
        Size("leg", "{}", "0.5", "broken edges", 0.05, 50),
        Size("which", "edges of {}", "top", "", kind=TEXT,
             choices=(*EDGES,)),
    )),
)  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    """Screws for the holes that they go through, as far as their sizes say."""
    for name in parts_of(s, *DRILLED):
        kind, holes = s[f"{name}.kind"], holes_of_part(s, name)
        if kind in ("tapped", "reamed") or holes.hole.depth is not None:
            continue
        through = holes.reach - holes.hole.bore_depth
        nuts = in_t_nuts(s, holes)
        head = "countersunk" if kind == "countersunk" else "cap"
        use = f"in {spoken(name)}" + (", into T-nuts" if nuts else "")
        screw = str(s[f"{name}.screw"])
        yield cap_screws(screw, holes.many, use, through, nuts, head=head, at=name)


FAMILY = grown(
    Family(
        "plate-block",
        "Plate block",
        "A squared block or plate: holes, bores, slots, pockets, edges, one by one.",
        "as a 100 × 60 × 30 block with four counterbored holes for M8",
        also="riser base bracket jig stop clamp bar plate cube keeper retainer cover "
        "free window table T-slot mill vise soft jaws steady rest tool post quick "
        "change boring parting knurling tool holder toolmaker parallels 1-2-3 spacer "
        "shim step collet block fixture sub indicator gib strip driving dog carrier",
        free=True,
        sizes=(
            Size("block.length", "length", "100", "", 2, 1000),
            Size("block.width", "width", "60", "", 2, 600),
            Size("block.height", "height", "30", "", 1, 400),
            Size("stock.over", "stock on each side", "1.5", "sawn stock", 0, 20),
        ),
        parts=PARTS,
        build=build,
        route=route,
        checks=checks,
        hardware=hardware,
        mates=(
            Mate("post", "the tool post", (
                MateSize("width", "its width", 80.0, ("width", "thickness"), True),
            )),
            Mate("lathe", "the lathe it stands on", (
                MateSize("centre_height", "centre over the slide", 33.0,
                         ("centre-height",), True),
                MateSize("slide", "width of its slide", 90.0, ("width", "thickness"),
                         True),
            )),
            Mate("slot", "the T-slots it is bolted to", (
                MateSize("lip", "height of their lips", 12.1, ("tee-lip",), True),
                MateSize("head_depth", "height of their heads", 10.1,
                         ("tee-head-depth",), True),
            )),
        ),
        proof=("block.height",),
        full={
            "parts": "holes hole bore slot rebate corner edge",
            "block.length": "120",
            "block.width": "90",
            "holes1.depth": "22",
            "hole1.screw": "M12",
            "hole1.from_side": "85",
            "hole1.depth": "18",
            "bore1.diameter": "30",
            "bore1.counterbore": "40",
            "bore1.counterbore_depth": "6",
            "bore1.depth": "20",
            "bore1.from_side": "40",
            "slot1.width": "14",
            "rebate1.width": "4",
            "rebate1.depth": "6",
            "corner1.radius": "4",
            "edge1.leg": "1",
        },
        ways=(
            {
                "parts": "ring row holes pocket slot edge",
                "ring1.screw": "M4",
                "ring1.from_side": "65",
                "ring1.circle": "30",
                "row1.face": "front",
                "row1.kind": "reamed",
                "row1.from_front": "15",
                "row1.depth": "12",
                "holes1.datum": "centre",
                "holes1.kind": "through",
                "holes1.screw": "M5",
                "holes1.from_side": "44",
                "holes1.from_front": "24",
                "pocket1.length": "20",
                "pocket1.from_front": "23",
                "pocket1.width": "14",
                "pocket1.depth": "10",
                "slot1.face": "bottom",
                "slot1.runs": "across",
                "slot1.at": "85",
                "slot1.length": "30",
                "slot1.width": "8",
                "slot1.depth": "6",
                "edge1.which": "upright",
            },
            {"parts": "outline", "block.height": "8"},
            {
                "parts": "pattern hole slot",
                "pattern1.datum": "centre",
                "pattern1.places": "38,20 25,20",
                "pattern1.mirrored": "both",
                "hole1.kind": "through",
                "hole1.lean": "25",
                "hole1.leans": "up",
                "slot1.face": "top",
                "slot1.length": "20",
                "slot1.width": "6",
                "slot1.at": "25",
                "slot1.from_end": "12",
                "slot1.turn": "20",
            },
            {
                "parts": "seat seat",
                "seat2.runs": "along",
                "seat2.at": "20",
                "seat2.depth": "5",
            },
            {
                "parts": "dovetail dovetail",
                "block.width": "60",
                "dovetail2.runs": "across",
                "dovetail2.at": "70",
                "dovetail1.depth": "6",
            },
            {"parts": "dovetail", "dovetail1.form": "male"},
            {
                "parts": "bore pocket pocket rebate rebate tee",
                "block.width": "70",
                "block.height": "40",
                "bore1.face": "front",
                "bore1.from_side": "25",
                "bore1.depth": "25",
                "pocket1.face": "right",
                "pocket1.from_side": "20",
                "pocket1.from_front": "12",
                "pocket1.width": "12",
                "pocket1.depth": "8",
                "pocket2.face": "back",
                "pocket2.from_side": "60",
                "pocket2.from_front": "22",
                "pocket2.length": "25",
                "pocket2.width": "14",
                "pocket2.depth": "9",
                "rebate1.face": "bottom",
                "rebate1.side": "left",
                "rebate2.face": "top",
                "rebate2.side": "right",
                "tee1.face": "bottom",
                "tee1.runs": "across",
                "tee1.at": "62",
                "tee1.neck": "8",
            },
            {
                "parts": "vee seat dovetail",
                "vee1.face": "bottom",
                "vee1.width": "14",
                "seat1.face": "bottom",
                "seat1.at": "70",
                "dovetail1.face": "bottom",
                "dovetail1.runs": "across",
                "dovetail1.at": "30",
                "dovetail1.depth": "6",
            },
            {
                "parts": "tee tee",
                "block.width": "80",
                "block.height": "32",
                "tee1.at": "22",
                "tee1.neck": "12",
                "tee2.at": "58",
            },
            {
                "parts": "vee vee",
                "vee1.width": "16",
                "vee2.runs": "across",
                "vee2.at": "80",
                "vee2.angle": "60",
                "vee2.width": "10",
            },
        ),
        surfaces={"length": "block.length", "width": "block.width",
                  "thickness": "block.height"},
    ),
    ("holes1", "edge1"),
)  # fmt: skip
