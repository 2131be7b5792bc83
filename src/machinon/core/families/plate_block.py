"""Plate block: squared from sawn stock, with holes, a bore, a slot, broken edges.

Seen from above, x runs along its length and y along its width, from the low left
corner; holes are dimensioned from there.
"""

from collections.abc import Iterable

from machinon.core.piece.body import Block, Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.features import (
    Circle,
    CornerRounds,
    EdgeBevels,
    Feature,
    Grid,
    Hole,
    Holes,
    Pattern,
    Places,
    SixFaces,
    Slot,
)
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

KINDS = ("through", "tapped", "counterbored", "countersunk", "reamed")
PATTERNS = ("none", "row", "rectangle", "circle")


def _block(s: Values) -> tuple[float, float, float]:
    return s["block.length"], s["block.width"], s["block.height"]


def _pattern(s: Values) -> Pattern:
    long, wide, _ = _block(s)
    x, y = s["holes.from_side"], s["holes.from_front"]
    across = int(s["holes.across"])
    if s["holes.pattern"] == "circle":
        return Circle(across, s["holes.circle"], 90.0, (long / 2, wide / 2))
    pitch = (long - 2 * x) / (across - 1) if across > 1 else 0.0
    if s["holes.pattern"] == "row":
        return Grid(across, 1, pitch, 0.0, (x, y))
    up = int(s["holes.up"])
    rise = (wide - 2 * y) / (up - 1) if up > 1 else 0.0
    return Grid(across, up, pitch, rise, (x, y))


def _hole(s: Values) -> Hole:
    thread = thread_of(str(s["holes.screw"]))
    deep = s["holes.depth"] or None
    kind = s["holes.kind"]
    if kind == "tapped":
        drill = float(reckon("tap-drill", {"thread": thread.name})["drill_size"])
        return Hole(drill, deep, thread=thread.name)
    if kind == "reamed":
        return Hole(thread.major, deep, ream=True)
    screw = cap_screw(str(s["holes.screw"]))
    if kind == "counterbored":
        wide, sunk = screw.counterbore, screw.counterbore_depth
        return Hole(screw.normal, deep, bore=wide, bore_depth=sunk)
    if kind == "countersunk":
        return Hole(screw.normal, deep, sink=2 * thread.major)
    return Hole(screw.normal, deep)


def _bore(s: Values) -> Hole:
    wide, deep = s["bore.counterbore"], s["bore.counterbore_depth"]
    return Hole(
        s["bore.diameter"],
        s["bore.depth"] or None,
        bore=wide,
        bore_depth=deep,
        flat=True,
    )


def build(s: Values) -> Body:
    block = _block(s)
    long, wide, high = block
    over = s["stock.over"]
    features: list[Feature] = [SixFaces("block", *block)]
    if s["bore.diameter"]:
        at = Places(((s["bore.from_side"], s["bore.from_front"]),))
        features.append(Holes("bore", "top", at, _bore(s), high, block=block))
    if s["holes.pattern"] != "none":
        pattern = _pattern(s)
        features.append(Holes("holes", "top", pattern, _hole(s), high, block=block))
    if s["stud.thread"] != "none":
        thread = str(s["stud.thread"])
        drill = float(reckon("tap-drill", {"thread": thread})["drill_size"])
        at = Places(((s["stud.from_side"], s["stud.from_front"]),))
        hole = Hole(drill, s["stud.depth"] or None, thread=thread)
        features.append(Holes("stud", "top", at, hole, high, block=block))
    if s["slot.width"]:
        y = s["slot.from_front"]
        line = ((-1.0, y), (long + 1.0, y))
        width, depth = s["slot.width"], s["slot.depth"]
        features.append(Slot("slot", "bottom", block, *line, width, depth))
    if s["corner.radius"]:
        features.append(CornerRounds("corner", block, s["corner.radius"]))
    if s["edge.leg"]:
        features.append(EdgeBevels("edge", block, s["edge.leg"]))
    high_corner = (long + over, wide + over, high + over)
    return Body(Block((-over, -over, -over), high_corner), tuple(features))


def checks(s: Values) -> Iterable[Check]:
    long, wide, high = _block(s)
    yield at_least("stock", "stock", s["stock.over"], 0.5, "Stock on each side")
    if s["holes.pattern"] != "none":
        hole = _hole(s)
        outer = max(hole.bore, hole.sink, hole.diameter) / 2
        nearest = min(min(x, long - x, y, wide - y) for x, y in _pattern(s).points())
        yield at_least(
            "holes-edge",
            "holes",
            nearest - outer,
            0.5 * hole.diameter,
            "Metal between the holes and the edges (half a hole)",
        )
        if s["holes.kind"] == "counterbored":
            yield at_least(
                "under-head",
                "holes",
                high - hole.bore_depth,
                0.8 * hole.diameter,
                "Metal under the screw heads",
            )
        if s["holes.depth"]:
            yield at_least(
                "holes-floor",
                "holes",
                high - s["holes.depth"] - 0.3 * hole.diameter,
                1.0,
                "Metal below the blind holes' points",
            )
    if s["bore.diameter"]:
        x, y = s["bore.from_side"], s["bore.from_front"]
        edge = min(x, long - x, y, wide - y)
        wall = edge - s["bore.diameter"] / 2
        yield at_least(
            "bore-wall",
            "bore",
            wall,
            3.0,
            "Wall beside the bore (below nothing it breaks out as a window)",
            grave=False,
        )
        if s["bore.counterbore"]:
            yield at_least(
                "bore-pinch",
                "bore",
                high - s["bore.counterbore_depth"],
                2.0,
                "Metal under the bore's counterbore",
            )
    if s["slot.width"]:
        yield at_least(
            "slot-floor", "slot", high - s["slot.depth"], 3.0, "Metal over the slot"
        )
    if s["lathe.centre_height"]:
        yield at_least(
            "height",
            "block",
            s["lathe.centre_height"] - high,
            0.0,
            "Height under the centre it is to stand below",
            grave=False,
        )


def route(s: Values) -> tuple[Holding, ...]:
    drilled: list[Step] = []
    if s["bore.diameter"]:
        drilled += [
            Step("drill", ("bore",), leaves=1.0, title="Open the bore by drills"),
            Step("bore", ("bore",), tool="boring head"),
        ]
    for name, on in (("holes", s["holes.pattern"]), ("stud", s["stud.thread"])):
        if on != "none":
            drilled.append(Step("drill", (name,)))
            kind = s["holes.kind"] if name == "holes" else "tapped"
            work = {
                "tapped": "tap",
                "counterbored": "counterbore",
                "countersunk": "countersink",
                "reamed": "ream",
            }.get(str(kind))
            if work:
                note = "In the set-up of the drill." if work == "tap" else ""
                drilled.append(Step(work, (name,), note=note))
    shaped: list[Step] = []
    if s["slot.width"]:
        shaped.append(Step("mill", ("slot",), title="Turn it over, mill the slot"))
    if s["corner.radius"]:
        shaped.append(Step("mill", ("corner",), title="Round the corners"))
    if s["edge.leg"]:
        shaped.append(Step("mill", ("edge",), title="Chamfer the upper edges"))
    return (
        Holding(
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
        ),
        Holding(
            "holes",
            "mill",
            "In the vise, zeroed on the low left corner",
            "All holes come from one zero: what must agree is drilled in one holding.",
            tuple(drilled) or (Step("mark", ("block",), title="Nothing to drill"),),
        ),
        Holding(
            "shape",
            "mill",
            "In the vise",
            "Edges come last: until then they locate it.",
            (*shaped, Step("deburr", ())),
        ),
    )


FAMILY = Family(
    "plate-block",
    "Plate block",
    "A squared block or plate with holes, a bore, a slot, broken edges.",
    "as a 100 × 60 × 30 block with four counterbored holes for M8",
    also="riser base bracket jig stop clamp bar plate cube",
    sizes=(
        Size("block.length", "length", "100", "", 2, 1000),
        Size("block.width", "width", "60", "", 2, 600),
        Size("block.height", "height", "30", "", 1, 400),
        Size("stock.over", "stock on each side", "1.5", "sawn stock", 0, 20),
        Size("holes.pattern", "pattern of the holes", "rectangle", "", kind=TEXT,
             choices=PATTERNS),
        Size("holes.kind", "kind of the holes", "counterbored", "", kind=TEXT,
             choices=KINDS),
        Size("holes.screw", "screws", "M8", "", kind=TEXT),
        Size("holes.across", "holes along the length", "2", "", 1, 40, COUNT),
        Size("holes.up", "holes along the width", "2", "", 1, 40, COUNT),
        Size("holes.from_side", "holes from the sides", "15", "", 0, 500),
        Size("holes.from_front", "holes from front and back", "15", "", 0, 500),
        Size("holes.circle", "circle of the holes", "block.width*0.7",
             "seven tenths of the width", 2, 900, step=1),
        Size("holes.depth", "depth of the holes", "0", "0 goes through", 0, 400),
        Size("bore.diameter", "bore", "0", "0 for none", 0, 400),
        Size("bore.from_side", "bore from the left", "post.width/2",
             "half the tool post's width", 0, 1000, by="clearance"),
        Size("bore.from_front", "bore from the front", "block.width/2", "in the middle",
             0, 600),
        Size("bore.depth", "depth of the bore", "0", "0 goes through", 0, 400),
        Size("bore.counterbore", "counterbore of the bore", "0", "0 for none", 0, 400),
        Size("bore.counterbore_depth", "its depth", "0", "", 0, 400),
        Size("stud.thread", "stud hole", "none", "none, or a thread", kind=TEXT),
        Size("stud.from_side", "stud from the left", "block.length/2", "in the middle",
             0, 1000),
        Size("stud.from_front", "stud from the front", "block.width/2", "in the middle",
             0, 600),
        Size("stud.depth", "depth of the stud hole", "0", "0 goes through", 0, 400),
        Size("slot.width", "slot in the underside", "0", "0 for none", 0, 300),
        Size("slot.depth", "depth of the slot", "5", "", 0.1, 200),
        Size("slot.from_front", "slot from the front", "block.width/2", "in the middle",
             0, 600),
        Size("corner.radius", "corner radius", "0", "0 for none", 0, 100),
        Size("edge.leg", "chamfer of the upper edges", "0.5", "broken edges", 0, 50),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("post", "the tool post", (
            MateSize("width", "its width", 80.0, ("width", "thickness"), True),
        )),
        Mate("lathe", "the lathe it stands on", (
            MateSize("centre_height", "centre over the slide", 33.0,
                     ("centre-height",), True),
        )),
    ),
    proof=("block.height",),
    ways=({"holes.pattern": "circle"},),
    full={
        "block.length": "120", "block.width": "90", "bore.diameter": "30",
        "bore.counterbore": "40", "bore.counterbore_depth": "6", "bore.depth": "20",
        "bore.from_front": "45", "stud.thread": "M12", "stud.from_side": "85",
        "stud.depth": "15", "slot.width": "14", "slot.depth": "5",
        "corner.radius": "4", "edge.leg": "1", "holes.depth": "22",
        "bore.from_side": "40",
    },
    surfaces={"length": "block.length", "width": "block.width",
              "thickness": "block.height", "bore": "bore.diameter"},
)  # fmt: skip
