"""The features of a free plate: its block, and the cuts in it."""

import math
from collections.abc import Iterator

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families._dovetail import dovetail_widths
from machinon.core.families._tapped import run_out, tapped
from machinon.core.piece.block_features import (
    CornerRounds,
    EdgeBevels,
    Flanked,
    MaleDovetail,
    Outline,
    Pocket,
    Rebate,
    RoundSeat,
    Slot,
    TeeSlot,
)
from machinon.core.piece.family import (
    Values,
    is_there,
    kind_of,
    spoken,
)
from machinon.core.piece.feature import BlockFace, Dimension, Feature
from machinon.core.piece.hole_features import (
    TOWARDS,
    Grid,
    Hole,
    HoleCircle,
    Holes,
    Pattern,
    Places,
)
from machinon.core.piece.outline import Corner, corners_of, outline_of, places_of
from machinon.core.piece.walls import lies_in, metal_between, opens
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

# of a block, in the order that they are cut from
FACES: tuple[BlockFace, ...] = ("top", "bottom", "front", "back", "left", "right")
LEVEL = 1e-6  # mm: as deep as the metal
# with a floor to drill in
FLOORED = ("slot", "pocket", "rebate", "dovetail", "tee", "bore")
MIDDLE = 0.2  # mm: so wide and deep a hole is looked for in a vee at its middle


def parts_of(s: Values, *kinds: str) -> list[str]:
    """Its parts of some kinds, in their order."""
    return [name for name in s["parts"] if kind_of(name) in kinds]


def block_of(s: Values) -> tuple[float, float, float]:
    """Its length, width and height, in mm."""
    return s["block.length"], s["block.width"], s["block.height"]


def face_of(s: Values, face: BlockFace) -> tuple[float, float, float]:
    """A face's length and width as one looks at it, and the depth behind it, in mm."""
    long, wide, high = block_of(s)
    return {
        "top": (long, wide, high),
        "bottom": (long, wide, high),
        "front": (long, high, wide),
        "back": (long, high, wide),
        "left": (wide, high, long),
        "right": (wide, high, long),
    }[face]


def crosswise(s: Values, name: str) -> bool:
    """Whether a part runs across the block, not along it."""
    return bool(s[f"{name}.runs"] == "across")


def is_female(s: Values, name: str) -> bool:
    """Whether a dovetail is a slot, not one that stands up."""
    return bool(s[f"{name}.form"] == "female")


def from_centre(s: Values, name: str) -> bool:
    """Whether a part is placed from the middle of its face, not from a corner."""
    return s.get(f"{name}.datum") == "centre"


def leaning(s: Values, name: str) -> bool:
    """Whether the holes of a part are not square to their face."""
    return bool(s.get(f"{name}.lean"))


def in_t_nuts(s: Values, holes: Holes) -> float:
    """How deep the slots are that screws through the block go into, mm; 0 where no
    slots are known, or the screws come out elsewhere than below."""
    down = holes.face == "top" and holes.hole.depth is None and not holes.lean
    known = all(is_there(s, f"slot.{key}") for key in ("lip", "head_depth"))
    return s["slot.lip"] + s["slot.head_depth"] if down and known else 0.0


def _listed(s: Values, name: str) -> Places:
    """Holes wherever they are typed, and as far beyond the middle of the face. Raises
    BadInput where two of them are one."""
    long, wide, _ = face_of(s, s[f"{name}.face"])
    x0, y0 = (long / 2, wide / 2) if from_centre(s, name) else (0.0, 0.0)
    key = f"{name}.places"
    found = [(x0 + x, y0 + y) for x, y in places_of(str(s[key]), key=key)]
    beyond = s[f"{name}.mirrored"]
    if beyond in ("left-right", "both"):
        found += [(long - x, y) for x, y in found]
    if beyond in ("up-down", "both"):
        found += [(x, wide - y) for x, y in found]
    # on the line itself a hole is its own mirror image
    return Places(tuple(dict.fromkeys((round(x, 6), round(y, 6)) for x, y in found)))


def pattern_of(s: Values, name: str) -> Pattern:
    """Places of a part's holes on its face, from the low left corner, in mm. Raises
    BadInput on places that are none."""
    if kind_of(name) == "pattern":
        return _listed(s, name)
    long, wide, _ = face_of(s, s[f"{name}.face"])
    x, y = s[f"{name}.from_side"], s[f"{name}.from_front"]
    if from_centre(s, name):
        x, y = long / 2 - x, wide / 2 - y
    if kind_of(name) == "hole":
        return Places(((x, y),))
    if kind_of(name) == "ring":
        count = int(s[f"{name}.count"])
        return HoleCircle(count, s[f"{name}.circle"], s[f"{name}.start"], (x, y))
    across = int(s[f"{name}.across"])
    up = int(s[f"{name}.up"]) if kind_of(name) == "holes" else 1
    pitch = (long - 2 * x) / (across - 1) if across > 1 else 0.0
    rise = (wide - 2 * y) / (up - 1) if up > 1 else 0.0
    return Grid(across, up, pitch, rise, (x, y))


def hole_of_part(s: Values, name: str) -> Hole:
    """The hole of a part, as wide as it is said to be."""
    return replace(hole_by_screw(s, name), diameter=float(s[f"{name}.diameter"]))


def hole_by_screw(s: Values, name: str) -> Hole:
    """The hole for a screw: tapped, reamed, plain, counterbored or countersunk."""
    thread = thread_of(str(s[f"{name}.screw"]))
    deep = s[f"{name}.depth"] or None
    kind = s[f"{name}.kind"]
    if kind == "tapped":
        return tapped(thread.name, deep)
    if kind == "reamed":
        return Hole(thread.major, deep, ream=True)
    screw = cap_screw(str(s[f"{name}.screw"]))
    if kind == "counterbored":
        wide, sunk = screw.counterbore, screw.counterbore_depth
        return Hole(screw.normal, deep, bore=wide, bore_depth=sunk)
    if kind == "countersunk":
        return Hole(screw.normal, deep, sink=2 * thread.major)
    return Hole(screw.normal, deep)


def holes_of_part(s: Values, name: str) -> Holes:
    """The holes of a part that drills some. Raises BadInput on the size that cannot
    be."""
    holes = feature_of_part(s, name)
    assert isinstance(holes, Holes)
    return holes


def bore_of_part(s: Values, name: str) -> Hole:
    """A bore by its own diameter, with its counterbore if it has one."""
    return Hole(
        s[f"{name}.diameter"],
        s[f"{name}.depth"] or None,
        bore=s[f"{name}.counterbore"],
        bore_depth=s[f"{name}.counterbore_depth"],
        flat=True,
    )


def dovetail_of(s: Values, name: str) -> Flanked:
    """A dovetail as wide as its pins say. Raises BadInput on the size of it that cannot
    be."""
    slot = is_female(s, name)
    read, pin, deep, angle = (
        float(s[f"{name}.{measure}"]) for measure in ("pins", "pin", "depth", "angle")
    )
    try:
        mouth, corners = dovetail_widths(read, pin, deep, angle, slot)
    except BadInput as error:
        measure = "pins" if error.key == "measured" else error.key
        raise BadInput(
            f"{name}.{measure}", f"{spoken(name)}: {error.message}"
        ) from None
    across, at = crosswise(s, name), float(s[f"{name}.at"])
    form = Flanked if slot else MaleDovetail
    face = s[f"{name}.face"]
    return form(name, face, block_of(s), at, deep, across, mouth, corners, pin)


def tee_of(s: Values, name: str) -> TeeSlot:
    """A T-slot. Raises BadInput where its head is no wider than its neck."""
    at, neck, head, high, lip = (
        float(s[f"{name}.{measure}"])
        for measure in ("at", "neck", "head", "height", "lip")
    )
    if head <= neck:
        said = f"{spoken(name)}: the head must be wider than the neck ({neck:g} mm)."
        raise BadInput(f"{name}.head", said)
    block, across = block_of(s), crosswise(s, name)
    face = s[f"{name}.face"]
    return TeeSlot(name, face, block, at, lip + high, across, neck, head, high)


def slot_of(s: Values, name: str) -> Slot:
    """A slot from end to end, or between the centres of its round ends."""
    block, face = block_of(s), s[f"{name}.face"]
    long, wide, deep = face_of(s, face)
    at, width, depth = s[f"{name}.at"], s[f"{name}.width"], s[f"{name}.depth"] or deep
    first, closed = s[f"{name}.from_end"], s[f"{name}.length"]
    across = crosswise(s, name)
    end, turn = wide if across else long, float(s[f"{name}.turn"])
    # from one end to the other, or between the centres of its round ends
    past = max(long, wide) if turn else 1.0
    a, b = (first, first + closed) if closed else (-past, end + past)
    first_end, last_end = ((at, a), (at, b)) if across else ((a, at), (b, at))
    return Slot(
        name, face, block, first_end, last_end, width, depth, bool(closed), turn
    )


def feature_of_part(s: Values, name: str) -> Feature:
    """The features that a part cuts into the block. Raises BadInput on the size that
    cannot be."""
    feature = _alone(s, name)
    if not isinstance(feature, Holes):
        return feature
    sunk = floor_under(s, name)[1]
    if sunk:
        feature = replace(feature, sunk=sunk, through=feature.through - sunk)
    if feature.hole.depth and feature.hole.depth >= feature.reach - LEVEL:
        through = replace(feature.hole, depth=None, thread_depth=0.0)
        feature = replace(feature, hole=through)
    if kind_of(name) != "bore" and feature.hole.depth is None and not feature.lean:
        feature = replace(feature, through=_far_end(s, feature))
    if feature.hole.thread and feature.hole.depth:
        others = tuple(_alone(s, part) for part in s["parts"] if part != name)
        return _tapped_out(feature, others)
    return feature


def _far_end(s: Values, holes: Holes) -> float:
    """How deep the metal is that holes go through, mm. What a tap or a reamer goes into
    must be gone before: it is cut from a face that comes first."""
    first = FACES[: FACES.index(holes.face)]
    sized = holes.hole.thread or holes.hole.ream
    ends = [
        metal_between(holes, _alone(s, part))[1]
        for part in parts_of(s, *FLOORED)
        if s[f"{part}.face"] != holes.face and (s[f"{part}.face"] in first or not sized)
    ]
    return min(ends, default=holes.through)


def floor_under(s: Values, name: str) -> tuple[str, float]:
    """The part on whose floor all holes of a part begin, or beside whose wall if it is
    cut from another face before, and how deep that is, mm; none and 0 where they begin
    in the face. A bore is the zero of much else, and counted from the face; so are
    holes that lean."""
    holes = _alone(s, name)
    assert isinstance(holes, Holes)
    if kind_of(name) == "bore" or holes.lean:
        return "", 0.0
    found = [
        (part, floor)
        for part, cut, floor in _floors_under(s, holes)
        if lies_in(holes, cut, 0.0, floor)
    ]
    found += [
        (part, metal_between(holes, _alone(s, part))[0])
        for part in parts_of(s, *FLOORED)
        if s[f"{part}.face"] in FACES[: FACES.index(holes.face)]
    ]
    part, deep = max(found, key=lambda it: it[1], default=("", 0.0))
    return (part, deep) if deep else ("", 0.0)


def floor_of_some(s: Values, name: str) -> str:
    """The part on whose floor some holes of a part begin while others begin in the
    face; empty where there is none."""
    holes = _alone(s, name)
    assert isinstance(holes, Holes)
    if holes.lean or holes.many < 2 or floor_under(s, name)[0]:
        return ""
    return next(
        (
            part
            for part, cut, floor in _floors_under(s, holes)
            if lies_in(holes, cut, 0.0, floor, some=True)
        ),
        "",
    )


def flank_under(s: Values, name: str) -> str:
    """The vee or round seat of the same face that holes of a part begin in: no drill
    starts on its flanks. Empty for none."""
    holes = _alone(s, name)
    assert isinstance(holes, Holes)
    middles = replace(holes, hole=Hole(MIDDLE, holes.hole.depth))
    found = (
        part
        for part in parts_of(s, "vee", "seat")
        if s[f"{part}.face"] == holes.face
        and lies_in(middles, _alone(s, part), 0.0, MIDDLE, some=True)
    )
    return next(found, "")


def _floors_under(s: Values, holes: Holes) -> Iterator[tuple[str, Feature, float]]:
    """The floors that are cut from the face of holes: the part, its cut, how deep."""
    for part in parts_of(s, *FLOORED):
        if s[f"{part}.face"] == holes.face:
            cut = _alone(s, part)
            for floor in _floors(cut):
                if 0 < floor < holes.through:
                    yield part, cut, floor


def _floors(cut: Feature) -> Iterator[float]:
    """How far below its face the floors of a cut are, mm."""
    if isinstance(cut, Holes):  # a bore
        yield from (cut.hole.bore_depth, cut.hole.depth or 0.0)
    elif isinstance(cut, Slot | Pocket | Rebate | Flanked | TeeSlot):
        yield 0.0 if isinstance(cut, MaleDovetail) else cut.depth or 0.0


def _tapped_out(holes: Holes, others: tuple[Feature, ...]) -> Holes:
    """Tapped holes as deep as they are, or, where they end at what another cut takes,
    drilled on into that: their thread goes all the way then, for a screw to come
    out."""
    hole = holes.hole
    assert hole.depth is not None
    more = run_out(hole.thread)
    here, there = hole.depth - more, hole.depth
    if not opens(holes, there, more + hole.point, others):
        return holes
    if opens(holes, here, more, others):  # a thread as deep as before comes out
        return holes
    return replace(holes, hole=replace(hole, depth=there + more, thread_depth=there))


def _alone(s: Values, name: str) -> Feature:
    """The features of a part as if it were the only one. Raises BadInput on the size
    that cannot be."""
    block, face = block_of(s), s.get(f"{name}.face", "top")

    def size(measure: str) -> float:
        return float(s[f"{name}.{measure}"])

    match kind_of(name):
        case "hole" | "row" | "holes" | "ring" | "pattern":
            return Holes(
                name,
                face,
                pattern_of(s, name),
                hole_of_part(s, name),
                face_of(s, face)[2],
                block=block,
                from_centre=from_centre(s, name),
                leans=(float(s.get(f"{name}.lean", 0.0)),),
                towards=TOWARDS[s.get(f"{name}.leans", "right")],
            )
        case "bore":
            at = Places(((size("from_side"), size("from_front")),))
            deep = face_of(s, face)[2]
            return Holes(name, face, at, bore_of_part(s, name), deep, block=block)
        case "slot":
            return slot_of(s, name)
        case "pocket":
            x, y = size("from_side"), size("from_front")
            far = x + size("length"), y + size("width")
            blind = 0 < size("depth") < face_of(s, face)[2]
            floor = size("depth") if blind else None
            return Pocket(name, face, block, (x, y), far, size("radius"), floor)
        case "vee":
            wide = size("width")
            deep = wide / 2 / math.tan(math.radians(size("angle") / 2))
            across = crosswise(s, name)
            return Flanked(name, face, block, size("at"), deep, across, wide, 0.0)
        case "dovetail":
            return dovetail_of(s, name)
        case "tee":
            return tee_of(s, name)
        case "seat":
            across = crosswise(s, name)
            wide, deep = size("diameter"), size("depth")
            return RoundSeat(name, block, size("at"), wide, deep, across, face)
        case "rebate":
            side = s[f"{name}.side"]
            return Rebate(name, side, block, size("width"), size("depth"), face)
        case "corner":
            return CornerRounds(name, block, size("radius"))
        case "outline":
            corners = corners_of(str(s[f"{name}.points"]), key=f"{name}.points")
            points = outline_of(corners, f"{name}.points")
            return Outline(name, block, points, _corner_lines(corners))
    which = s[f"{name}.which"]
    return EdgeBevels(name, block, size("leg"), which, tuple(cut_away(s, which)))


def cut_away(s: Values, face: str) -> Iterator[str]:
    """The sides whose edge at the top or the bottom is gone."""
    for name in parts_of(s, "rebate"):
        if s[f"{name}.face"] == face:
            yield s[f"{name}.side"]
    for name in parts_of(s, "dovetail"):
        if not is_female(s, name) and s[f"{name}.face"] == face:
            yield from ("left", "right") if crosswise(s, name) else ("front", "back")


def _corner_lines(corners: list[Corner]) -> tuple[tuple[str, Dimension], ...]:
    """The place of each corner of an outline, from the left and from the front."""
    return tuple(
        line
        for n, (x, y, _) in enumerate(corners, 1)
        for line in (
            (f"x{n}", Dimension("x", 0.0, x, (y, 0.0))),
            (f"y{n}", Dimension("y", 0.0, y, (x, 0.0))),
        )
    )
