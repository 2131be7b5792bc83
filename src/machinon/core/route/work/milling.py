"""Faces, slots, edges and saw cuts of blocks: where, and how deep at each pass.

Source: geometry; how deep a pass goes is a shop rule.
"""

import math
from collections.abc import Mapping, Sequence

from machinon.core.piece.block_features import (
    CornerRounds,
    EdgeBevels,
    EndToEnd,
    Flanked,
    MaleDovetail,
    Outline,
    Pocket,
    Rebate,
    RoundSeat,
    SawCuts,
    SixFaces,
    Slope,
    Slot,
    TeeSlot,
    behind,
)
from machinon.core.piece.body import Body
from machinon.core.piece.jigs import face_size, looked_at
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE, ROTATION
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import (
    SINE_BARS,
    Machines,
    WorkLine,
    WorkList,
    way,
)
from machinon.core.threads.tapping import drill_named

DEEPEST = 3.0  # mm: a pass of an end mill in a small machine
ON_A_SLIDE = 1.0  # mm: the same where a lathe's slide has the work
SHARE = 0.5  # of its width that a cutter goes down at once
SKIN = 0.05  # mm over a size: less is no cut
LAST = 0.2  # mm left for the last pass over the whole
ARC = 3.0  # mm: shorter than this it is a piece of a round corner
VEES = (("aslant", "work aslant, by an end mill"), ("cutter", "by an angle cutter"))
SLIM_TEETH = "The dovetail cutter has slim teeth: leave it nothing but the flanks."


def down(depth: float, width: float, light: bool = False) -> list[float]:
    """Depth of the cutter after each pass, mm; light: of lighter ones, on a slide.

    >>> down(6.2, 10)
    [3.0, 6.0, 6.2]
    """
    most = ON_A_SLIDE if light else DEEPEST
    most = min(most, SHARE * width) if width else most
    rough = depth - LAST if depth > 2 * LAST else depth
    count = max(math.ceil(rough / most - 1e-9), 1)
    found = [round(rough * n / count, 3) for n in range(1, count + 1)]
    return found if rough == depth else [*found, depth]


def _passes(
    step: StepTold, depth: float, width: float, note: str = ""
) -> list[WorkLine]:
    steps = down(depth, width, step.light)
    return [
        WorkLine(
            f"pass-{n}",
            f"Pass {n} of {len(steps)}" if n < len(steps) else "The last pass",
            (Shown("Depth", deep),),
            note if n < len(steps) else "Measure before it; feed one way.",
        )
        for n, deep in enumerate(steps, 1)
    ]


def squared_list(step: StepTold, faces: SixFaces) -> WorkList:
    """A block made square: each face against one that is flat already. What is bought
    to size is left."""
    stock = step.before.stock
    assert isinstance(stock, Block)
    long, wide, high = stock.size
    lines = _faced(step, faces, stock) if step.corners else _milled(faces, stock)
    over = {
        ("first", "fourth"): high - faces.height,
        ("second", "third"): wide - faces.width,
        ("fifth", "sixth"): long - faces.length,
    }
    bought = {key for keys, metal in over.items() if metal < SKIN for key in keys}
    left = tuple(line for line in lines if line.key not in bought) or lines
    faced = ((long, wide), (long, high), (wide, high)) if step.corners else ()
    speeds = (step.speed_at("face", math.hypot(*face)) for face in faced)
    return WorkList(left, answers=tuple(speeds))


def _milled(faces: SixFaces, stock: Block) -> tuple[WorkLine, ...]:
    """Its six faces in the vise of a mill."""
    long, wide, high = stock.size
    return (
        WorkLine(
            "first",
            "The largest face, its best side down",
            (Shown("Thickness now", high),),
            "Clean it up, no more. It is the face that all others are made from.",
        ),
        WorkLine(
            "second",
            "That face to the fixed jaw",
            (Shown("Width now", wide),),
            "A round bar at the moving jaw, so that it lies flat on the fixed one. "
            "Clean the edge up, try it with a square.",
        ),
        WorkLine(
            "third",
            "Turned over, on parallels: to width",
            (Shown("Width", faces.width),),
            "Same face to the fixed jaw, tap it down; the parallels must not slide.",
        ),
        WorkLine(
            "fourth",
            "First face down, on parallels: to height",
            (Shown("Height", faces.height),),
            "Measure at all four corners before the last cut.",
        ),
        WorkLine(
            "fifth",
            "Upright by the square: one end clean",
            (Shown("Length now", long),),
            "Or by the side of the cutter, the block lying flat.",
        ),
        WorkLine(
            "sixth",
            "The other end: to length",
            (Shown("Length", faces.length),),
            "Deburr after each face: a burr under it makes the next one aslant.",
        ),
    )


def _faced(step: StepTold, faces: SixFaces, stock: Block) -> tuple[WorkLine, ...]:
    """Its six faces in the four-jaw of a lathe."""
    long, wide, high = stock.size

    def turned(
        key: str, head: str, now: Shown, face: tuple[float, float], note: str
    ) -> WorkLine:
        rpm = step.rpm_at("face", math.hypot(*face))
        return WorkLine(key, head, (now, Shown("Speed", rpm, ROTATION)), note)

    return (
        turned(
            "first",
            "The largest face out",
            Shown("Swings", step.corners, step=1.0),
            (long, wide),
            "A jaw on each edge, soft packing under it, in the middle by eye. Clean it "
            "up, no more: all others are made from it.",
        ),
        turned(
            "second",
            "One long edge out",
            Shown("Width now", wide),
            (long, high),
            "The first face along the axis: an indicator on the carriage, run along "
            "it, stays still. Clean the edge up, try it with a square.",
        ),
        turned(
            "third",
            "The other edge out: to width",
            Shown("Width", faces.width),
            (long, high),
            "The edge that is done on parallels against the chuck's face, tapped "
            "down; the parallels out before it turns.",
        ),
        turned(
            "fourth",
            "The other large face out: to height",
            Shown("Height", faces.height),
            (long, wide),
            "The first face on parallels against the chuck's face; take them out "
            "before it turns. Measure at all four corners before the last cut.",
        ),
        turned(
            "fifth",
            "One end out: clean",
            Shown("Length now", long),
            (wide, high),
            "A face and an edge along the axis, both by the indicator.",
        ),
        turned(
            "sixth",
            "The other end: to length",
            Shown("Length", faces.length),
            (wide, high),
            "Deburr after each face: a burr under it makes the next one aslant.",
        ),
    )


def _down(step: StepTold, high: float, deep: float | None) -> float:
    """Travel of the cutter downwards, mm: right through all that lie on each other
    where nothing is left under it."""
    return high * step.stacked if deep is None or deep >= high else deep


def _over_it(
    form: EndToEnd, note: str, *figures: Shown, head: str = "Over the middle of it"
) -> WorkLine:
    """Path of the cutter along it, with more of its figures."""
    return WorkLine(
        "place", head, (Shown("Middle from the edge", form.at), *figures), note
    )


def _tee_lines(slot: TeeSlot) -> tuple[WorkLine, ...]:
    """Its head: the floor first, then up to the lips and out to either side."""
    return (
        WorkLine(
            "floor",
            "Cutter down to the floor, its height locked",
            (Shown("Depth", slot.depth),),
            "It cleans the floor that the end mill left. Into the slot from its end, "
            "turning; never stop it inside.",
        ),
        WorkLine(
            "middle",
            "Through along the middle",
            (Shown("Middle from the edge", slot.at),),
            "Slow feed, the chips out all the way: air or a brush, never a finger.",
        ),
        WorkLine(
            "lips",
            "Up under the lips",
            (
                Shown("Head's height", slot.height),
                Shown("Lips", slot.depth - slot.height),
            ),
            "Where the cutter is thinner than the head is high: up by what is missing, "
            "locked again, through once more.",
        ),
        WorkLine(
            "sides",
            "Out to either side",
            (Shown("Head's width", slot.head),),
            "Where the cutter is narrower: by half of what is missing to one side, "
            "then to the other; cut against the feed.",
        ),
        WorkLine(
            "try",
            "Try a T-nut from end to end",
            (),
            "Break the edges of the neck first. It must slide all the way.",
        ),
    )


def sunk_list(step: StepTold, at: Machines, ways: Mapping[str, str]) -> WorkList | None:
    """The lines for milling into a face or an edge; None where no numbers are known."""
    slot = step.cut[0] if step.cut else None
    match slot:
        case Slot():
            return _slot_list(step, slot)
        case Pocket():
            return _pocket_list(step, slot)
        case Rebate():
            return _rebate_list(step, slot)
        case TeeSlot() if not slot.undercut:
            place = _over_it(
                slot,
                "A cutter under the width first; then either side, measured.",
                Shown("Neck", slot.neck),
            )
            return WorkList((place, *_passes(step, slot.depth, slot.neck)))
        case TeeSlot():
            return WorkList(_tee_lines(slot))
        case MaleDovetail() if not slot.undercut:
            place = _over_it(
                slot,
                SLIM_TEETH,
                Shown("Standing", slot.wide),
                head="Down on both sides of it",
            )
            beside = max(slot.at, slot.room - slot.at) - slot.wide / 2
            return WorkList((place, *_passes(step, slot.depth, beside)))
        case Flanked() if slot.mouth == slot.floor:
            place = _over_it(slot, SLIM_TEETH, Shown("Width", slot.mouth))
            return WorkList((place, *_passes(step, slot.depth, slot.mouth)))
        case Flanked():
            return _vee_list(step, slot, at, ways)
        case RoundSeat():
            return _seat_list(slot)
        case CornerRounds():
            return _corner_list(slot)
        case EdgeBevels():
            return _bevel_list(slot)
        case Outline():
            return _along(slot)
        case Slope():
            return _aslant(step, slot, ways)
        case SawCuts():
            return _saw_list(slot)
    return None


def _vee_list(
    step: StepTold, vee: Flanked, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """A vee: a right-angled one by an end mill too, the work laid over so that side and
    end of the cutter leave a flank each."""
    asked, aslant = [], False
    if abs(vee.half_angle - 45) < 1e-6:
        asked.append(way("vee", "Cut", VEES, ways))
        aslant = asked[-1].chosen == "aslant"
    lines = [
        WorkLine(
            "slit",
            "Slit its bottom with a saw",
            (Shown("Middle from the edge", vee.at), Shown("Depth", vee.depth)),
            "So that the cutter's corner has somewhere to go.",
        )
    ]
    depths = down(vee.depth, 0.0, step.light)
    if aslant:
        lines.append(
            WorkLine(
                "place",
                "Lay it over in the vise",
                (
                    Shown("Over by", 45.0, ANGLE),
                    Shown(
                        "Cutter's flutes, at least",
                        vee.depth / math.sqrt(0.5),
                        step=0.1,
                    ),
                ),
                "In a vee, or by an angle block and the indicator. The corner of the "
                "end mill touches the face in the middle of the vee; both dials to 0.",
            )
        )
        passes = [
            _cornered(n, len(depths), deep * math.sqrt(0.5))
            for n, deep in enumerate(depths, 1)
        ]
    else:
        lines.append(
            _over_it(
                vee,
                "Rough a plain slot first, so that the angle cutter only has its "
                "flanks left.",
                Shown("Half angle", vee.half_angle, ANGLE),
                Shown("At its mouth", vee.mouth),
            )
        )
        passes = _passes(step, vee.depth, 0.0, "Both flanks alike.")
    found = _pinned(vee, at.pins)
    tried = WorkLine(
        "try",
        "Measure it over a pin",
        (
            Shown("Pin ⌀", float(found.inputs["diameter"])),
            Shown("Stands out", float(found["stands_out"])),
        ),
        "From the face beside it, at both ends: alike, or it does not lie level.",
    )
    return WorkList((*lines, *passes, tried), tuple(asked), (found,))


def _cornered(n: int, count: int, deep: float) -> WorkLine:
    """A pass of an end mill whose corner goes to the bottom of a vee."""
    last = "Measure before it; feed one way."
    return WorkLine(
        f"pass-{n}",
        "The last pass" if n == count else f"Pass {n} of {count}",
        (Shown("Down and across, each", deep),),
        last if n == count else "Its side leaves one flank, its end the other.",
    )


def _pinned(vee: Flanked, pins: Sequence[float]) -> Answer:
    """What a pin stands out of a vee: the shop's own that does by some of its
    diameter and touches the flanks, else one to the millimetre."""
    half = math.radians(vee.half_angle)
    low = 2.2 * vee.depth / (1 + 1 / math.sin(half))
    high = 0.9 * vee.mouth / math.cos(half)
    own = (pin for pin in sorted(pins) if low < pin < high)
    pin = next(own, math.ceil(1.1 * low))
    asked = {"diameter": pin, "angle": 2 * vee.half_angle, "mouth": vee.mouth}
    return reckon("vee", asked)


def _slot_list(step: StepTold, slot: Slot) -> WorkList:
    """A slot, straight down and then its sides."""
    across = slot.a[0] == slot.b[0]
    middle = slot.a[0] if across else slot.a[1]
    if slot.sawn and not slot.turn:
        return WorkList(_slit_lines(slot, middle))
    figures = [
        Shown("Middle from the edge", middle),
        Shown("Cutter, or narrower", slot.width),
    ]
    if slot.rounded:
        along = sorted((slot.a[across], slot.b[across]))
        figures.append(Shown("From", along[0]))
        figures.append(Shown("to", along[1]))
    start = "Start in a drilled hole. " if slot.rounded else ""
    note = (
        f"{start}A cutter under the width first, down the middle; then either side, "
        "measured, so that both come out where they should."
    )
    deep = _down(step, behind(slot.face, slot.block), slot.depth)
    if slot.turn:
        lines = _turned(step.after, slot, note)
    else:
        head = f"Over the middle of it, {slot.face} face up"
        lines = [WorkLine("place", head, tuple(figures), note)]
    return WorkList((*lines, *_passes(step, deep, slot.width)))


def _slit_lines(slot: Slot, middle: float) -> tuple[WorkLine, ...]:
    """A slit, at once to its depth."""
    return (
        WorkLine(
            "place",
            f"Saw over its middle, {slot.face} up",
            (Shown("Middle from the edge", middle), Shown("Saw", slot.width)),
            "Touch the edge with the side of the saw: from there the middle, and half "
            "of the saw.",
        ),
        WorkLine(
            "saw",
            "To its depth in one pass",
            (Shown("Depth", slot.depth),),
            "Feed by hand, against the teeth; brush the chips out of it. A nut or a "
            "wedge in its end keeps it from closing on the saw.",
        ),
    )


def _turned(body: Body, slot: Slot, how: str) -> list[WorkLine]:
    """A slot aslant on its face: two places of its middle are spotted while the work
    lies straight, and then brought to one line of the table."""
    (ax, ay), (bx, by), (px, py) = slot.a, slot.b, slot.pivot
    ends = slot.a, slot.b
    if not slot.rounded:  # its ends lie outside
        room = 0.3 * min(face_size(body, slot.face))
        size = math.dist(slot.a, slot.b)
        x, y = (bx - ax) / size * room, (by - ay) / size * room
        ends = (px - x, py - y), (px + x, py + y)
    turned_ends = (slot.turned(*end) for end in ends)
    places = sorted(looked_at(body, slot.face, turned_ends))
    (x0, y0), (x1, y1) = places
    what = "end" if slot.rounded else "of its middle line"
    lines = []
    for side, (x, y) in zip(("left", "right"), places, strict=True):
        head = f"Spot the {side} {what}, {slot.face} face up"
        figures = Shown("From the left edge", x), Shown("From the near edge", y)
        note = "With a centre drill, just its point, while the work lies straight."
        lines.append(WorkLine(f"spot-{side}", head, figures, note, (x, y)))
    turned = abs(math.degrees(math.atan2(y1 - y0, x1 - x0)))
    lines.append(
        WorkLine(
            "turn",
            "Turn it onto both spots",
            (Shown("Turned by", turned, ANGLE), Shown("Apart", math.dist(*places))),
            "A point in the spindle: over one spot, then along to the other, until one "
            "axis runs over both. Clamp, then look at both once more.",
        )
    )
    cutter = Shown("Cutter, or narrower", slot.width)
    lines.append(WorkLine("place", "Along over both spots", (cutter,), how))
    return lines


def _pocket_list(step: StepTold, pocket: Pocket) -> WorkList:
    """A pocket, round inside its walls."""
    (a, b), (c, d) = pocket.low, pocket.high
    r = pocket.radius
    how = (
        f"With a cutter of {drill_named(2 * r)}. Leave {LAST:g} mm round it for one "
        "last pass."
    )
    if not r:
        how = "File its corners square."
    elif min(c - a, d - b) < 2 * (r + LAST):
        how = (
            f"It is as wide as a cutter of {drill_named(2 * r)}. A smaller cutter down "
            "the middle leaves its sides for one last pass."
        )
    middle = ((a + c) / 2, (b + d) / 2)
    deep = _down(step, behind(pocket.face, pocket.block), pocket.depth)
    start = WorkLine(
        "start",
        "Drill a hole to start in",
        (Shown("X", middle[0]), Shown("Y", middle[1]), Shown("Depth", deep)),
        "As wide as the cutter, spotted first. Only a cutter with teeth to its middle "
        "goes down by itself, a little at a time.",
        middle,
    )
    place = WorkLine(
        "place",
        "The cutter's middle goes round inside",
        (
            Shown("X from", a + r),
            Shown("to", c - r),
            Shown("Y from", b + r),
            Shown("to", d - r),
        ),
        how,
    )
    return WorkList((start, place, *_passes(step, deep, 2 * r)))


def _rebate_list(step: StepTold, rebate: Rebate) -> WorkList:
    """A rebate along an edge."""
    place = WorkLine(
        "place",
        f"Along the {rebate.side} edge",
        (Shown("Width", rebate.width),),
        "Touch the side with the cutter turning, dial in its width less a "
        "little, and measure before the last pass.",
    )
    return WorkList((place, *_passes(step, rebate.depth, rebate.width)))


def _seat_list(seat: RoundSeat) -> WorkList:
    """A half-round seat, bored through it and a scrap block."""
    over = seat.diameter / 2 - seat.depth
    place = WorkLine(
        "place",
        "Over the seam with the scrap block",
        (
            Shown("Middle from the edge", seat.at),
            Shown("Middle over this block", over),
        ),
        "Clamp the scrap block face to face on it, zero on the seam.",
    )
    bored = WorkLine(
        "bore",
        "Bore through both",
        (Shown("Finished ⌀", seat.diameter),),
        "A drill first, then the boring head; measure it whole before they come apart.",
    )
    apart = WorkLine(
        "deep",
        "Apart: measure the seat",
        (Shown("Depth in this block", seat.depth),),
        "Number both halves; the scrap is the gauge for what lies in the seat.",
    )
    return WorkList((place, bored, apart))


def _corner_list(corners: CornerRounds) -> WorkList:
    """Its corners or ends, one after the other."""
    named, many = "Corner", 4
    how = "With a corner-rounding cutter, or filed to a button."
    if corners.radius > min(corners.block[:2]) / 2 - SKIN:
        named, many = "End", 2
        how = (
            "Swung about its middle from flank to flank, by light cuts; a stop "
            "at either side. Or filed to a button."
        )
    return WorkList(
        tuple(
            WorkLine(f"{named.lower()}-{n}", f"{named} {n} of {many}",
                 (Shown("Radius", corners.radius),), how)
            for n in range(1, many + 1)
        )
    )  # fmt: skip


def _bevel_list(bevels: EdgeBevels) -> WorkList:
    """Chamfers along its edges."""
    leg = bevels.leg
    return WorkList(
        (
            WorkLine(
                "leg",
                "Chamfer with a 90° cutter",
                (
                    Shown("Leg", leg),
                    Shown("Across its face", leg * math.sqrt(2)),
                ),
                "From where its flank touches the edge, go in by the leg.",
            ),
        )
    )


def _saw_list(saw: SawCuts) -> WorkList:
    """The cuts that part it."""
    return WorkList(
        tuple(
            WorkLine(
                f"cut-{n}",
                f"Cut {n} of {len(saw.starts)}",
                (
                    Shown("From the end", start),
                    Shown("Saw width", saw.kerf),
                ),
                "Leave the last bridge thin and break it off, or hold both sides.",
            )
            for n, start in enumerate(saw.starts, 1)
        )
    )


def _aslant(step: StepTold, slope: Slope, ways: Mapping[str, str]) -> WorkList:
    """A slope: set level by a sine bar, then down to its low end."""
    bar = way("sine", "Sine bar", SINE_BARS, ways)
    stack = reckon("sine", {"angle": slope.angle, "length": float(bar.chosen)})
    place = WorkLine(
        "place",
        "Set it aslant in the vise",
        (
            Shown("Angle", slope.angle, ANGLE),
            Shown("Slips under the sine bar", stack["stack"], step=0.001),
        ),
        "The sloping face level: by a sine bar against the fixed jaw, or by a "
        "protractor and then trued by the indicator along the face.",
    )
    touch = WorkLine(
        "touch",
        "Touch the edge that stands highest, dial to 0",
        (),
        "That over its low end: it comes off square to the slope.",
    )
    # the spindle goes down square to the slope, not to the base
    over = slope.block[2] - slope.low
    passes = _passes(step, over * math.cos(math.radians(slope.angle)), 0.0)
    return WorkList((place, touch, *passes), (bar,), (stack,))


def _along(outline: Outline) -> WorkList:
    """The straight sides of an outline, each with where it begins and its lean."""
    corners = list(
        zip(outline.points, (*outline.points[1:], outline.points[0]), strict=True)
    )
    sides = [(a, b) for a, b in corners if math.dist(a, b) > ARC]
    return WorkList(
        tuple(
            WorkLine(
                f"side-{n}",
                f"Side {n} of {len(sides)}",
                (
                    Shown("X", a[0]),
                    Shown("Y", a[1]),
                    Shown("Length", math.dist(a, b)),
                    Shown(
                        "To the front edge",
                        round(math.degrees(math.atan2(b[1] - a[1], b[0] - a[0])), 2),
                        ANGLE,
                    ),
                ),
                "Set it level under the cutter by an angle block, or file to the line.",
            )
            for n, (a, b) in enumerate(sides, 1)
        )
    )
