"""Holes, walked one by one: by the read-out, on the dividing head, or marked out.

Places are those of the face as one looks at it, X to the right and Y up. Source:
geometry; the order of laps and the way they are approached are shop rules.
"""

import math
from collections.abc import Iterator, Mapping, Sequence
from statistics import mean
from typing import NamedTuple

from machinon.core.piece.body import Body
from machinon.core.piece.family import spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Arc, CrossHoles, Hole, Holes, least_turn
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.jigs import face_size, looked_at, mirrored
from machinon.core.piece.milled_features import Flats, Keyway
from machinon.core.piece.shown import Shown
from machinon.core.piece.solid_cuts import Point
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.drills import bored_to, hole_of
from machinon.core.route.steps import StepTold
from machinon.core.route.work.drilling import (
    STARTS,
    depth_shown,
    in_its_flutes,
    tip,
    to_the_left,
    turns_shown,
)
from machinon.core.route.work.lines import (
    FROM_LEFT,
    SINE_BARS,
    Machines,
    Way,
    WorkLine,
    WorkList,
    way,
)
from machinon.core.route.work.turns import one_way, turned_to
from machinon.core.setting_out.cones import cone_depth
from machinon.core.setting_out.dividing import dms
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drill_named

TURNED, MARKED = ("turned", "on the rotary table"), ("marked", "marked out by hand")
ORDER = (("laps", "each tool round all holes"), ("holes", "hole by hole"))
ZERO = (("corner", "zero at the corner"), ("centre", "zero in the middle"))
SPOT = 90.0  # degrees, of a spot drill
SPOTTED = 16.0  # mm: the widest mouth that a spot drill leaves
BROKEN_EDGE = 0.4  # mm that a mouth is over its hole
POINT_ONLY = 0.8  # of the first drill, across a mouth that is only to start it
FLAT = "No deeper with the point: the floor is to be flat."
HOLDS = 2.5  # diameters of thread: more holds no more
WALKS = 0.1  # of its width: where a face falls more across a hole, its drill walks off
SAME = 0.01  # mm: holes so nearly as far apart are read once
TAPPED = (("hand", "by hand, the taps in turn"), ("power", "under power"))
# the edge that is raised for holes that lean right, left, up or down as one looks
RAISED = {0.0: "left", 180.0: "right", 90.0: "near", 270.0: "far"}
FROM_ONE_SIDE = "Come to every hole from the same side, so that backlash stays out."
BORED = "By a boring head, a few tenths a pass, measured before the last one."


class Lap(NamedTuple):
    """A tool that goes round the holes of a pattern."""

    key: str  # empty for the one that bores, taps or drills them at once
    head: str  # what is said of it beside the hole, where there are several
    drill: float = 0.0  # mm; 0 for none


def holes_list(
    step: StepTold, holes: Holes, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """The holes of a pattern in a face, as the step cuts them."""
    asked: list[Way] = []
    answers: list[Answer] = []
    circle = holes.pattern if isinstance(holes.pattern, HoleCircle | Arc) else None
    if not holes.lean:
        asked.append(way("places", "Laid out", _places(circle, at), ways))
    turned = any(w.chosen == "turned" for w in asked)
    # leant, the work has no edges that an axis could be set by
    marked = bool(holes.lean) or any(w.chosen == "marked" for w in asked)
    if holes.block is not None and not turned and not marked:
        asked.append(way("zero", "Read from", (*ZERO, *_bores(step, holes)), ways))
    powered = False
    if step.operation == "tap":
        asked.append(way("tap", "Tapped", TAPPED, ways))
        powered = asked[-1].chosen == "power"
    laps = _laps(step, holes)
    if len(laps) > 1 and len(holes.points) > 1:
        asked.append(way("order", "In what order", ORDER, ways))
    by_hole = any(w.key == "order" and w.chosen == "holes" for w in asked)
    read_from = next((w.chosen for w in asked if w.key == "zero"), "")
    faced, zero = seen(step.after, holes), (0.0, 0.0)
    if marked:
        places: list[tuple[Shown, ...]] = [()] * len(faced)
        drills = step.operation == "drill"
        lines = list(_marked_out(holes, circle, faced, answers)) if drills else []
        if holes.lean and drills:
            asked.append(way("sine", "Sine bar", SINE_BARS, ways))
            length = float(asked[-1].chosen)
            lines += _leant(step.after, holes, length, answers)
    elif turned:
        assert circle is not None
        if isinstance(circle, HoleCircle):
            zero = mean(x for x, _ in faced), mean(y for _, y in faced)
        there = {_from_the_top(point, zero): point for point in faced}
        angles = one_way(list(there))
        faced = [there[angle] for angle in angles]
        arms, places = turned_to(angles, at.divider, "Table at", answers)
        lines = [_on_the_table(circle, holes), *arms]
    else:
        if read_from == "centre":
            long, wide = face_size(step.after, holes.face)
            zero = long / 2, wide / 2
        bored = step.before.found(read_from)
        if isinstance(bored, Holes):
            (zero,) = seen(step.after, bored)
        places = [(Shown("X", x - zero[0]), Shown("Y", y - zero[1])) for x, y in faced]
        lines = [_zero(step.after, holes, read_from)]
    if step.operation == "ream" and step.note:
        lines.insert(0, WorkLine("scrap", "First in a scrap", (), step.note))
    each = list(zip(faced, places, strict=True))
    note = _under_power(holes.hole) if powered else _note(step, holes)
    done = _each_hole(step, holes, laps, by_hole, each, note)
    if step.operation == "drill" and len(places) > 1:
        early = laps[0].key == "spot" and not by_hole
        wide = _mouth(step)[0] if early else holes.hole.drilled.diameter
        # as soon as they are spotted, so that nothing is lost by a slip
        done.insert(len(each) if early else len(done),
                    _checked(holes, circle, wide, answers))  # fmt: skip
    return WorkList((*lines, *done), tuple(asked), tuple(answers), zero)


def _places(
    circle: HoleCircle | Arc | None, at: Machines
) -> tuple[tuple[str, str], ...]:
    """The ways to lay holes out, the usual one of the shop first."""
    words = "by the read-out or dials"
    if at.mill is not None and at.mill.figures.get("readout_axes"):
        read_out = at.mill.number("readout_axes") >= 2
        words = "by the read-out" if read_out else "by the dials"
    turned = (TURNED,) if circle is not None and circle.count > 1 else ()
    if at.marks_out:
        return (MARKED, ("axes", words), *turned)
    return (("axes", words), *turned, MARKED)


def _marked_out(
    holes: Holes,
    circle: HoleCircle | Arc | None,
    faced: Sequence[Point],
    answers: list[Answer],
) -> Iterator[WorkLine]:
    """Lines scribed and punched by hand; faced: the holes as one looks at them.

    Source: geometry; what a punch hits is a shop rule.
    """
    if isinstance(circle, HoleCircle) and holes.block is None:
        asked = {"holes": circle.count, "diameter": circle.diameter}
        answer = reckon("bolt-circle", asked)
        answers.append(answer)
        figures = [Shown("Circle's radius", circle.diameter / 2)]
        if circle.count > 1:
            figures.append(Shown("Hole to hole", float(answer["chord"])))
        yield WorkLine(
            "scribe",
            "Scribe the circle, step it off",
            tuple(figures),
            "The circle on the lathe, by a point in the holder, the work turned by "
            "hand; or by dividers from a plug in its bore. Then hole to hole, until "
            "they close.",
        )
    else:
        across, up = ("Right of the axis", "Over the axis")
        if holes.block is not None:
            across, up = ("From the left edge", "From the near edge")
        for n, (x, y) in enumerate(faced, 1):
            yield WorkLine(
                f"mark-{n}",
                f"Mark hole {n} of {len(faced)}" if len(faced) > 1 else "Mark the hole",
                (Shown(across, x), Shown(up, y)),
                "Dye on, the block on its side on a flat plate, a height gauge."
                if holes.block is not None
                else "Dye on, a height gauge, the work in a vee: first its middle.",
                (x, y),
            )
    yield WorkLine(
        "punch",
        "Prick each cross, look, then punch it",
        (),
        "Through a glass: a prick can still be drawn over. A punch hits within 0.2 mm "
        "at best: enough for screws with room, not for dowels or a fit.",
    )


def _leant(
    body: Body, holes: Holes, bar: float, answers: list[Answer]
) -> Iterator[WorkLine]:
    """The work set so that holes that lean stand upright, and for each of them a flat
    to start on; bar: length of the sine bar, mm."""
    stack = reckon("sine", {"angle": holes.lean, "length": bar})
    answers.append(stack)
    towards = holes.towards
    if mirrored(body, holes.face) and towards in (0.0, 180.0):
        towards = 180.0 - towards
    yield WorkLine(
        "lean",
        f"Raise its {RAISED[towards]} edge",
        (
            Shown("Lean", holes.lean, ANGLE),
            Shown("Slips under the sine bar", stack["stack"], step=0.001),
        ),
        "On an angle block or a tilting vise, set by a sine bar or a good protractor. "
        "A stop below it, clamps above: it must not slide down.",
    )
    wide = drill_named(holes.hole.drilled.diameter)
    for n in range(holes.many):
        _, head = _named(n, holes.many, Lap("", ""), 1)
        yield WorkLine(
            f"flat-{n + 1}",
            f"{head}: a flat first",
            (Shown("Down from the mark", _over(holes)),),
            "A point in the spindle on its punched mark: there the quill's stop is 0. "
            f"Then an end mill of {wide}, down until the whole of it has cut.",
        )


def _over(holes: Holes) -> float:
    """How far below the middle of a hole's mouth its low side is, where it leans; mm
    along its axis."""
    half = holes.hole.drilled.diameter / 2
    return half * math.tan(math.radians(holes.lean))


def _laps(step: StepTold, holes: Holes | CrossHoles) -> list[Lap]:
    """The tools that one hole after the other gets: spotted where it starts in the
    solid, then its drills."""
    if not step.drill:
        return [Lap("", "")]
    drills = step.drills
    laps = [
        Lap(
            f"{drill:g}" if len(drills) > 1 else "",
            f"drill {drill_named(drill)}",
            drill,
        )
        for drill in drills
    ]
    if bored := bored_to(holes, step.drill):
        laps.append(Lap("bored", f"bore to ⌀{bored:.4g}"))
    return [*([Lap("spot", "spot it")] if _in_the_solid(step, holes) else []), *laps]


def _in_the_solid(step: StepTold, holes: Holes | CrossHoles) -> bool:
    """Whether nothing is open yet where holes start."""
    return not any(_opens(there, holes) for there in step.before.features)


def _opens(there: Feature, holes: Holes | CrossHoles) -> bool:
    """Whether other holes are where these start."""
    if isinstance(there, Holes) and isinstance(holes, Holes):
        apart = [math.dist(holes.points[0], point) for point in there.points]
        return there.face == holes.face and min(apart) < SAME
    if isinstance(there, CrossHoles) and isinstance(holes, CrossHoles):
        turned = least_turn(there.angles, holes.angles)
        return abs(there.z - holes.z) < SAME and turned < SAME
    return False


def _mouth(step: StepTold) -> tuple[float, bool]:
    """Across what a spot drill leaves, mm, and whether that breaks the edge of the
    hole: not where its mouth is cut away later or too wide."""
    holes = step.drawn[0]
    hole = hole_of(holes)
    assert hole is not None
    if isinstance(holes, Holes) and holes.lean:
        return round(POINT_ONLY * step.drills[0], 1), False
    across = thread_of(hole.thread).major if hole.thread else hole.diameter
    wide = round(across + BROKEN_EDGE, 1)
    if hole.widest <= wide <= SPOTTED and not (hole.ball or hole.square):
        return wide, True
    return round(POINT_ONLY * step.drills[0], 1), False


def _spotted(step: StepTold, over: float) -> tuple[Shown, str]:
    """How deep a spot drill goes, and what it leaves; over: depth of the flat that it
    starts on."""
    mouth, broken = _mouth(step)
    what = ", so that the hole's edge is broken" if broken else ", its point only"
    note = (
        f"About {step.rpm_at('drill', mouth):.0f} rpm. A spot drill of {SPOT:g}°, "
        f"{mouth:g} mm across{what}."
    )
    return depth_shown("Point at", over + cone_depth(mouth, SPOT)), note


def _each_hole(
    step: StepTold,
    holes: Holes,
    laps: Sequence[Lap],
    by_hole: bool,
    places: Sequence[tuple[Point, tuple[Shown, ...]]],
    how: str,
) -> list[WorkLine]:
    """A line for each hole and tool: all with one tool, or a hole with all of them.

    places: where each is on the face, and what the machine shows there; how: what is
    said of each.
    """
    many, lines = len(places), []
    numbered = [(lap, n) for lap in laps for n in range(many)]
    if by_hole:
        numbered = [(lap, n) for n in range(many) for lap in laps]
    for lap, n in numbered:
        key, head = _named(n, many, lap, len(laps))
        on_face, shown = places[n]
        if lap.key == "spot":
            point, note = _spotted(step, _over(holes))
            if holes.sunk:
                note = f"{note} It touches {holes.sunk:g} mm under the face."
            lines.append(WorkLine(key, head, (*shown, point), note, on_face))
            continue
        deep = _deep(step, holes.hole, holes.reach + _over(holes), lap.drill)
        if lap.key == "bored":
            lines.append(WorkLine(key, head, (*shown, *deep), BORED, on_face))
            continue
        note = how
        if lap.drill and holes.hole.flat and holes.hole.depth is not None:
            deep = (Shown("Point at", holes.hole.depth),)
            note = f"{note} {FLAT}".strip()
        if len(laps) > 1:  # which drills come is seen from the lines
            note = note.partition("One after the other")[0]
            note = f"About {step.rpm_at('drill', lap.drill):.0f} rpm. {note}".strip()
        deep, note = _in_its_flutes(step, holes.hole, lap, deep, note)
        lines.append(WorkLine(key, head, (*shown, *deep), note, on_face))
    return lines


def _in_its_flutes(
    step: StepTold, hole: Hole, lap: Lap, deep: tuple[Shown, ...], note: str
) -> tuple[tuple[Shown, ...], str]:
    """The depth of a lap and its note, where its drill's flutes end before."""
    if not lap.drill:
        return deep, note
    through = hole.depth is None
    deep, short = in_its_flutes(lap.drill, deep, lap.drill == step.drill, through)
    return deep, f"{note} {short}".strip()


def _named(n: int, many: int, lap: Lap, laps: int) -> tuple[str, str]:
    """The key and the head of a hole's line: n counts from 0, of many holes; its tool
    is named where several laps are made."""
    head = f"Hole {n + 1} of {many}" if many > 1 else "The hole"
    key = f"{lap.key}-{n + 1}" if lap.key else f"{n + 1}"
    return key, f"{head}, {lap.head}" if laps > 1 else head


def seen(body: Body, holes: Holes) -> list[Point]:
    """The holes of a face as one looks at it: from the axis of what turns, or from the
    low left corner of a block's face; mm."""
    # without the dust of sines: a nanometre is below any read-out
    points = [(round(x, 6) + 0.0, round(y, 6) + 0.0) for x, y in holes.points]
    if holes.block is not None:
        return looked_at(body, holes.face, points)
    back = mirrored(body, holes.face)
    return [(0.0 - x if back else x, y) for x, y in points]


def _bores(step: StepTold, holes: Holes) -> Iterator[tuple[str, str]]:
    """The bores and reamed holes of the same face that an indicator finds."""
    for there in step.before.features:
        if isinstance(there, Holes) and there.face == holes.face and there.many == 1:
            true = there.hole.flat or there.hole.ream
            if true and there.name != holes.name and not there.lean:
                yield there.name, f"{spoken(there.name)}, by indicator"


def _zero(body: Body, holes: Holes, read_from: str) -> WorkLine:
    if holes.block is None:
        return WorkLine(
            "zero",
            "Zero on the axis",
            (Shown("X", 0.0), Shown("Y", 0.0)),
            "Clock a turned diameter until the spindle stands over its middle, and set "
            f"both axes to 0. {FROM_ONE_SIDE}",
        )
    turned = " It was turned over left for right." if mirrored(body, holes.face) else ""
    if body.found(read_from) is not None:
        return WorkLine(
            "zero",
            f"Zero on {spoken(read_from)}",
            (Shown("X", 0.0), Shown("Y", 0.0)),
            "An indicator in the spindle, swept round the bore until it reads the same "
            f"all round: there both axes are 0.{turned} {FROM_ONE_SIDE}",
        )
    if read_from == "centre":
        long, wide = face_size(body, holes.face)
        return WorkLine(
            "zero",
            "Zero in the middle",
            (Shown("Half of X", long / 2), Shown("Half of Y", wide / 2)),
            "Touch both edges of an axis, halve what lies between, do the same across."
            f"{turned} {FROM_ONE_SIDE}",
        )
    side = " face" if holes.face in ("left", "right") else ""
    return WorkLine(
        "zero",
        f"Zero on the low left corner of the {holes.face}{side}",
        (),
        "Touch the left edge and set X to minus half the finder; the near edge, and "
        f"set Y to minus half of it.{turned} {FROM_ONE_SIDE}",
    )


def _from_the_top(point: Point, centre: Point) -> float:
    """Degrees that a hole stands round from the top of its face as one looks at it,
    against the clock."""
    x, y = point[0] - centre[0], point[1] - centre[1]
    return round(math.degrees(math.atan2(y, x)) - 90, 6) % 360


def _on_the_table(circle: HoleCircle | Arc, holes: Holes) -> WorkLine:
    return WorkLine(
        "zero",
        "Out from the table's axis",
        (Shown("From the axis", circle.diameter / 2),),
        "Clock the table's hole under the spindle, and the "
        f"{'middle of the circle' if holes.block else 'work'} true on it, the top of "
        "its drawing to the back. Then Y by half the circle, the spindle towards the "
        "back: from 0 the work turns clockwise. Wind one way; lock before drilling.",
    )


def _deep(
    step: StepTold, hole: Hole, through: float, drill: float
) -> tuple[Shown, ...]:
    """Depth of the tool; through all that are stacked, of which one is tapped."""
    through *= 1 if step.operation == "tap" else step.stacked
    if step.operation == "counterbore":
        return (Shown("Depth", hole.bore_depth),)
    if step.operation == "countersink":
        return (Shown("Across its mouth", hole.sink),)
    if step.operation == "tap":
        deep = hole.threaded(through)
        return (depth_shown("Thread depth", deep), turns_shown(hole.thread, deep))
    if hole.depth is not None:
        deep = hole.depth
        if drill and not hole.flat:
            return (
                depth_shown("To the shoulder", deep),
                depth_shown("Point at", deep + tip(drill)),
            )
        return (Shown("Depth", deep),)
    if drill:
        return (depth_shown("Point at", through + tip(drill)),)
    return (Shown("Through", through),)


def _under_power(hole: Hole) -> str:
    """How a machine taps a hole: the chip goes ahead where that is open."""
    if hole.depth is None and not hole.thread_depth:
        return (
            "The slowest speed, a spiral-point tap: it pushes its chips ahead. "
            "Reverse as soon as it is through."
        )
    return (
        "The slowest speed, a spiral-flute tap: it draws its chips out. Switch off "
        "early, so that it runs down short of where it ends; the last turns by hand."
    )


def _note(step: StepTold, holes: Holes | CrossHoles) -> str:
    hole, through = holes.hole, holes.through
    if isinstance(holes, Holes):
        through = holes.reach
    if step.operation == "tap":
        more = " Blind: clear the chips, then a bottoming tap." if hole.depth else ""
        if hole.threaded(through) > HOLDS * thread_of(hole.thread).major:
            more += (
                " Beyond two and a half diameters a thread holds no more: where no "
                "screw has to travel in it, drill the rest clear."
            )
        back = "Half a turn back at every turn or two to break the chip"
        if step.material in ("cast iron", "brass"):
            back = "No need to turn back in this metal, but clear the chips"
        left = to_the_left(hole.thread)
        return f"Start it square in the holding of the drill. {back}.{left}{more}"
    if step.operation == "ream":
        lead = (
            " Blind: its lead leaves the last of it under size." if hole.depth else ""
        )
        return f"Slow, fed steadily in and out, never turned backwards.{lead}"
    if step.operation == "counterbore":
        return f"{step.note} Try a screw's head: it lies under the face.".strip()
    if step.operation == "drill" and isinstance(holes, Holes) and holes.lean:
        return "Counted from the punched mark, where the quill's stop is 0."
    if step.operation == "drill" and hole.depth is not None and not hole.flat:
        return "The point stands deeper than the shoulder: count from where it touched."
    return step.note


def _checked(
    holes: Holes, circle: HoleCircle | Arc | None, wide: float, answers: list[Answer]
) -> WorkLine:
    """The check by rule or caliper over neighbours, and over the pair furthest
    apart; wide: across each as it is now, mm."""
    if isinstance(circle, HoleCircle):
        asked = {"holes": circle.count, "diameter": circle.diameter, "pin": wide}
        answer = reckon("chord-check", asked)
        answers.append(answer)
        over, across = float(answer["over_pins"]), float(answer["over_pins_opposite"])
    else:
        apart = [math.dist(a, b) for n, a in enumerate(holes.points)
                 for b in holes.points[n + 1:]]  # fmt: skip
        over, across = min(apart) + wide, max(apart) + wide
    figures = [Shown("Over two neighbours", over)]
    if across > over + SAME:
        figures.append(Shown("Over the furthest", across))
    return WorkLine(
        "check",
        "Check before the next tool",
        tuple(figures),
        "With rule or caliper over the outsides of the holes: a slip of a whole turn "
        "shows at once.",
    )


def broach_list(step: StepTold, holes: CrossHoles) -> WorkList:
    """A square hole pushed through its pilot, cut by cut."""
    size = holes.hole.square
    asked = {"size": size, "material": step.material, "length": holes.diameter}
    force = reckon("broach-force", asked)
    lines = (
        WorkLine(
            "support",
            "Support it under the hole",
            (Shown("Square", size), Shown("Pilot", holes.hole.diameter)),
            "On a vee with a hole under it, the bar's axis level and across the ram: "
            "it must not tip.",
        ),
        WorkLine(
            "start",
            "Start it square",
            (Shown("Push", f"{float(force['force']) / 1000:.1f} kN", TEXT),),
            "The first teeth by hand, a small square at two sides; oil. A press of "
            f"{math.ceil(10 * force['press']) / 10:.1f} t has a third in hand.",
        ),
        WorkLine(
            "release",
            "Release and look, every few teeth",
            (),
            "Let the ram up so that it finds its way; brush the chips out. If it "
            "leans, press it back out and start again from the other side.",
        ),
        WorkLine(
            "try",
            "Try the bit in it",
            (Shown("Across", size),),
            "Corners cleaned by a three-square file.",
        ),
    )
    return WorkList(lines, answers=(force,))


def cross_list(step: StepTold, holes: CrossHoles) -> WorkList:
    """Holes into a round from its side."""
    first, last = step.after.ends
    head, note = (
        "Over the middle of the round",
        "Touch both sides of the round and halve, or lay a rule across under a "
        f"point until it lies level.{_round_from(step.after, holes)}",
    )
    flat = _on_a_flat(step.before, holes)
    if flat:
        head = "Over the middle of the flat"
        note = "The flat level by the indicator; touch both sides of it and halve."
    figures = (
        Shown(FROM_LEFT, holes.z - first),
        Shown("or from the right", last - holes.z),
    )
    lines = [WorkLine("zero", head, figures, note)]
    down = 0.0 if flat else _falls(step.before, holes)
    sloped = down > WALKS * holes.hole.drilled.diameter
    if sloped and step.drill:
        lines.append(
            WorkLine(
                "flat",
                "A flat first",
                (Shown("Down from its middle", down / 2),),
                f"An end mill of {drill_named(holes.hole.drilled.diameter)}, until the "
                "whole of it has cut: on a slope a drill walks off.",
            )
        )
    laps = _laps(step, holes)
    for n in range(holes.count):
        for lap in laps:
            key, head = _named(n, holes.count, lap, len(laps))
            turned: tuple[Shown, ...] = ()
            if holes.count > 1:
                turn = (holes.angles[n] - holes.angles[0]) % 360
                turned = (Shown("Turned by", dms(turn), TEXT),)
            deep = _deep(step, holes.hole, holes.through, lap.drill)
            note = _note(step, holes)
            if lap.key == "spot":
                deep = (
                    Shown("Across its mouth", POINT_ONLY * laps[1].drill, step=0.1),
                )
                crown = "In the middle" if flat or sloped else "On the crown"
                note = f"{crown}, a spot drill's point only. {STARTS}"
            deep, note = _in_its_flutes(step, holes.hole, lap, deep, note)
            lines.append(WorkLine(key, head, (*turned, *deep), note))
    return WorkList(tuple(lines))


def _on_a_flat(body: Body, holes: CrossHoles) -> bool:
    """Whether holes from the side begin square on flats."""
    return any(
        isinstance(there, Flats)
        and there.start <= holes.z <= there.end
        and least_turn(holes.angles, there.angles) < SAME
        for there in body.features
    )


def _falls(body: Body, holes: CrossHoles) -> float:
    """How much lower one side of their mouths is than the other, along the axis, mm."""
    half = holes.hole.drilled.diameter / 2
    (_, left), (_, right) = body.radii_at((holes.z - half, holes.z + half))
    return abs(left - right)


def _round_from(body: Body, holes: CrossHoles) -> str:
    """How far round the axis they stand from what else the piece has there: keyways,
    flats, other holes from the side, holes in a face; a sentence, or nothing."""
    others = [feature for feature in body.features if feature.name != holes.name]
    for kind in (Keyway, Flats, CrossHoles, Holes):
        for other in others:
            if isinstance(other, kind) and other.angles:
                turn = least_turn(holes.angles, other.angles)
                where = f"{turn:g}° round from" if turn else "in line with"
                stands = "It stands" if holes.count == 1 else "They stand"
                return f" {stands} {where} {_called(other)}."
    return ""


def _called(feature: Feature) -> str:
    if isinstance(feature, Flats) and feature.count > 1:
        return "a flat"
    name = spoken(feature.name)
    return name if name[-1].isdigit() else f"the {name}"
