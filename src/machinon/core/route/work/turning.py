"""Turning, threads and tapers, pass by pass.

Source: the reckonings named in the answers; how much is left for the last cut and what
is tried when are shop rules.
"""

import math
from collections.abc import Mapping
from typing import Any

from machinon.core.cutting.cut_state import Dial
from machinon.core.errors import BadInput
from machinon.core.materials import material
from machinon.core.piece.family import spoken
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Centre,
    Cone,
    Cylinder,
    End,
    FaceGroove,
    Groove,
    Knurl,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.in_process import BESIDE
from machinon.core.route.operations import StepTold
from machinon.core.route.work.lines import (
    CARRIAGE,
    Line,
    Machines,
    Shown,
    Way,
    WorkList,
    way,
)
from machinon.core.setting_out.dividing import dms
from machinon.core.shop.things import Lathe
from machinon.core.wording import begun

SCHOOLS = (
    ("flank", "along one flank, by the compound"),
    ("plunge", "straight in, by the cross slide"),
    ("alternate", "on either flank in turn"),
)
TRIED = (("nut", "by its mate"), ("wires", "over three wires"))
TAPERS = (
    ("compound", "with the compound"),
    ("tailstock", "with the tailstock set over"),
)
RUBBED = (
    ("", "not tried yet"),
    ("all", "all along"),
    ("large", "at the large end only"),
    ("small", "at the small end only"),
    ("hollow", "at both ends, not between"),
)
GAP = 0.01  # mm a side: about what a film of blue no longer bridges; a shop rule
COUNTED = 10  # threads that a rule is laid along
COMPOUND = 60.0  # mm that a compound slide goes, about
STRAIGHT = 1.0  # mm on the diameter left over a taper that is cut straight before
APART = 25.0  # mm between the places where a taper is measured
TRAVEL = 40.0  # mm that the indicator goes along the slide

# grinding, mm: shop rules for a light grinder or a spindle on the slide
WHEEL_ROUGH, WHEEL_LAST = 0.01, 0.0025  # to a side and pass
LAST_GROUND = 0.02  # on the diameter, left for the last passes
LEAST = 0.02  # mm on the diameter: less is no cut of its own
HAND_WARM = 10.0  # degrees over the gauge


def thread_list(
    step: StepTold, one: Screw | NutThread, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """A thread cut by a single point, from the wheels to the trial of its mate."""
    school = way("infeed", "Fed in", SCHOOLS, ways)
    asked = [school]
    answers: list[Answer] = []
    inside = isinstance(one, NutThread)
    thread = one.of
    lines = _blank(step, one, answers) if isinstance(one, Screw) else []
    lines += _geared(thread.name, thread.pitch, at.lathe, answers)
    asks = {"thread": thread.name, "school": school.chosen, "internal": inside}
    if isinstance(one, NutThread) and one.bore > thread.minor_internal:
        asks["bore"] = one.bore
    passes = reckon("thread-passes", asks)
    answers.append(passes)
    by_compound = school.chosen != "plunge"
    if by_compound:
        half = thread.form.angle / 2 - 0.5
        lines.append(
            Line(
                "compound",
                "Set the compound over",
                (Shown("From square across", half, ANGLE),),
                "Half a degree under half the thread's angle, so that the back flank "
                "is shaved smooth. The tool stands square to the work by its gauge.",
            )
        )
    lines.append(
        Line(
            "touch",
            "Touch, and set both dials to 0",
            (),
            "At every pass come back to 0 on the cross slide and feed by the compound."
            if by_compound
            else "The cross slide feeds; note where it touched.",
        )
    )
    lines.append(
        Line(
            "scratch",
            "Scratch it and count",
            (Shown(f"Over {COUNTED} threads", COUNTED * thread.pitch),),
            "A few hundredths deep only. With a rule or a thread gauge: a wrong wheel "
            "shows now, and costs nothing yet.",
        )
    )
    lines += _fed(passes["passes"], by_compound, at.lathe, inside)
    external = not inside and thread.form_name in ("metric", "unified")
    if external:
        asked.append(way("tried", "Tried", TRIED, ways))
    lines.append(
        _tried(
            thread.name,
            external and asked[-1].chosen == "wires",
            inside,
            answers,
        )
    )
    return WorkList(tuple(lines), tuple(asked), tuple(answers))


def _blank(step: StepTold, one: Screw, answers: list[Answer]) -> list[Line]:
    """What a thread is cut on: its outside, and the groove that it runs out in."""
    answer = reckon("thread", {"thread": one.thread})
    answers.append(answer)
    # the depth of the passes counts from the largest that the thread may be
    wide = float(answer["external_major_max"] or one.of.major)
    middle = (one.start + one.end) / 2
    now = 2 * step.before.radii(middle)[1]
    lines = []
    if now - wide > LEAST:
        deep = material(step.material).rough_depth
        passes = math.ceil((now - wide) / 2 / deep)
        stop = _shoulder(step, one, wide / 2)
        figures = (
            Shown("⌀ it has now", now),
            Shown("⌀ then", wide),
            Shown("Passes about", float(passes), COUNT),
            *stop,
        )
        note = "The depth of the thread counts from it: measure it."
        lines.append(Line("outside", "Turn it to the thread's outside", figures, note))
    if one.runs_out:
        groove = Shown("⌀ its floor", one.groove), Shown("Wide", one.groove_width)
        lines.append(
            Line(
                "groove",
                f"Groove it at its {one.runs_out} end",
                groove,
                "The tool runs out in it: no wider than it must be, corners round.",
            )
        )
    return lines


def _geared(
    name: str, pitch: float, lathe: Lathe | None, answers: list[Answer]
) -> list[Line]:
    """The wheels for its pitch, and where the half-nuts may close."""
    figures: tuple[Shown, ...] = (Shown("Pitch", pitch, step=0.001),)
    note = "By the plate on the gear box, or change wheels."
    if lathe is not None and len(lathe.wheels) > 1:
        asked = {"pitch": pitch, "leadscrew": lathe.lead_screw,
                 "gears": list(lathe.wheels)}  # fmt: skip
        try:
            train = reckon("change-gears", asked)
        except BadInput:
            pass
        else:
            answers.append(train)
            best = train["trains"][0]
            said = " × ".join(
                f"{a}/{b}" for a, b in zip(best["drivers"], best["driven"], strict=True)
            )
            figures = (*figures, Shown("Drivers / driven", said, TEXT))
            off = best["error_percent"]
            note = "Exact." if not off else f"{off:+.3f} % off, as near as these go."
            if not best["mounts"]:
                note += " By the usual rule these may not reach: try them on the banjo."
    lines = [Line("gears", "Set the pitch", figures, f"{note} Spindle off.")]
    if lathe is not None:
        dial = reckon("thread-dial", {"thread": name, "leadscrew": lathe.lead_screw})
        answers.append(dial)
        marks = ", ".join(str(one) for one in dial["marks"])
        shown = (Shown("Close them on", marks, TEXT),) if marks else ()
        lines.append(Line("nuts", "Half-nuts", shown, str(dial["rule"])))
    return lines


def _fed(
    passes: list[dict[str, float]], by_compound: bool, lathe: Lathe | None, inside: bool
) -> list[Line]:
    """Each pass with what the dial shows then."""
    lines, gone = [], 0.0
    dial = None
    if lathe is not None and not by_compound:
        dial = Dial(lathe.dial_reads, lathe.dial_division)
    counts = dial.factor if dial is not None else 1
    slide = "Compound to" if by_compound else "Cross slide to"
    deepening = [one for one in passes if one["radial"]]
    for n, one in enumerate(deepening, 1):
        cut = one["compound"] if by_compound else one["radial"] * counts
        gone += cut
        lines.append(
            Line(
                f"pass-{n}",
                f"Pass {n} of {len(deepening)}",
                (_set(slide, gone, dial), Shown("This pass", cut)),
                "Back out before you come back."
                if not inside
                else "Back out towards the middle before you come back.",
            )
        )
    for n in range(1, len(passes) - len(deepening) + 1):
        lines.append(
            Line(
                f"spring-{n}",
                "Again, nothing fed",
                (_set(slide, gone, dial),),
                "A spring pass: the work and tool give less each time.",
            )
        )
    return lines


def _set(name: str, to: float, dial: Dial | None) -> Shown:
    """What a slide is set to: in the dial's own unit where the dial is known."""
    return Shown(name, to) if dial is None else Shown(name, dial.text(to), TEXT)


def _tried(thread: str, wires: bool, inside: bool, answers: list[Answer]) -> Line:
    again = (
        "Too tight: a hundredth more and both spring passes again. Once it is out of "
        "the chuck, only pick the thread up anew with the half-nuts closed, tool out, "
        "and the slack taken up."
    )
    if wires:
        answer = reckon("thread-wires", {"thread": thread})
        answers.append(answer)
        figures = [Shown("Wire", float(answer["best_wire"]), step=0.001)]
        for end, words in (("max", "Not over"), ("min", "Not under")):
            size = answer.results.get(f"over_wires_{end}")
            if size is not None:
                figures.append(Shown(words, float(size), step=0.001))
        return Line("try", "Measure over three wires", tuple(figures), again)
    what = "Try its screw" if inside else "Try its nut"
    return Line(
        "try", what, (), f"Spindle stopped, thread wiped and brushed clean. {again}"
    )


def taper_list(
    step: StepTold, one: Cone | TaperBore, ways: Mapping[str, str]
) -> WorkList:
    """A taper: set, proved by its own two diameters, blued, and brought to depth."""
    small, large = sorted((one.start_diameter, one.end_diameter))
    long = one.end - one.start
    taper = f"{large:g}/{small:g}/{long:g}"
    inside = isinstance(one, TaperBore)
    asked: list[Way] = []
    method = "compound"
    stock = step.after.stock
    if not inside and not isinstance(stock, Block):
        asked.append(way("taper", "Set", TAPERS, ways))
        method = asked[0].chosen
    moved = min(TRAVEL, max(long, 5.0))
    given: dict[str, Any] = {"taper": taper, "method": method, "travel": moved}
    if method == "tailstock":
        first, last = step.after.ends
        given["length_between_centres"] = last - first
    setting = reckon("taper-setup", given)
    answers = [setting]
    if method == "tailstock":
        set_over = Line(
            "set",
            "Set the tailstock over",
            (Shown("Offset", float(setting["tailstock_offset"]), step=0.001),),
            "Towards the tool where the small end is at the tailstock; for work "
            "between centres only.",
        )
    else:
        set_over = Line(
            "set",
            "Set the compound",
            (Shown("From the axis", dms(float(setting["angle"])), TEXT),),
            "By its scale first: that is good to a quarter of a degree."
            + (_bites(inside) if long > COMPOUND else ""),
        )
    read = f"{step.key}.needle", "What the needle read over that travel"
    differs = f"{step.key}.differ", "By how much the two differ, on ⌀"
    ratio = (large - small) / long
    places = min(APART, long * 0.8)
    told = one.taper or taper
    advance = reckon("taper-advance", {"taper": taper, "advance": 1.0})
    answers.append(advance)
    setting_lines = [
        *_straight(step, one),
        set_over,
        Line(
            "indicator",
            "Prove the setting by indicator",
            (
                Shown("Over a travel of", moved),
                Shown("It must read", float(setting["indicator_reading"]), step=0.001),
                *_nudge(given, moved, _number(ways, read[0]), answers),
            ),
            "The indicator on the slide against a true bar, at centre height; nudge "
            "the slide until it reads so.",
            asks=read,
        ),
        Line(
            "rough",
            "Rough it, then two places",
            (
                Shown("Places apart", places),
                Shown("Differ by, on ⌀", ratio * places, step=0.001),
                *_nudge(given, places, _number(ways, differs[0]) / 2, answers),
            ),
            "More than that: the angle is too steep. Set it right while metal is left.",
            asks=differs,
        ),
    ]
    to_depth = [
        _blued(told, long, moved, inside, way("rubbed", "Blue rubbed", RUBBED, ways)),
        Line(
            "depth",
            "Bring it to depth",
            (Shown("1 mm further in, on ⌀", advance["diameter_change"], step=0.001),),
            "From how far the gauge stands out: that many times as much off the "
            "diameter, half of it on the radius.",
        ),
    ]
    begun = any(f.name == one.name for f in step.before.features)
    lines = [] if begun else setting_lines
    asked = [] if begun else asked
    if not step.leaves:
        lines = [*lines, *to_depth]
        asked.append(way("rubbed", "Blue rubbed", RUBBED, ways))
    return WorkList(tuple(lines), tuple(asked), tuple(answers))


def _bites(inside: bool) -> str:
    """How a taper is cut that the compound does not reach over."""
    other = "" if inside else ", or with the tailstock set over"
    return (
        f" It is longer than most compounds go: in two settings of the carriage{other}."
    )


def _straight(step: StepTold, one: Cone | TaperBore) -> list[Line]:
    """What is cut along the carriage before, so that the compound has little left."""
    small, large = sorted((one.start_diameter, one.end_diameter))
    inner, outer = step.before.radii((one.start + one.end) / 2)
    left = 2 * step.leaves + STRAIGHT
    if isinstance(one, TaperBore):
        now, then, head = 2 * inner, small - left, "Bore it straight first"
    else:
        now, then, head = 2 * outer, large + left, "Turn it straight first"
    metal = abs(now - then)
    if metal < STRAIGHT or (now > then) == isinstance(one, TaperBore) or not now:
        return []
    passes = math.ceil(metal / 2 / material(step.material).rough_depth)
    figures = (
        Shown("⌀ it has now", now),
        Shown("⌀ then", then),
        Shown("Long", one.end - one.start),
        Shown("Passes about", float(passes), COUNT),
    )
    note = "The compound is wound by hand: it has only the taper left."
    return [Line("straight", head, figures, note)]


def _number(ways: Mapping[str, str], key: str) -> float:
    """A length that was read at the machine, mm; 0 until it is."""
    return float(ways.get(key) or 0.0)


def _nudge(
    given: Mapping[str, Any], travel: float, reading: float, answers: list[Answer]
) -> list[Shown]:
    """How far the slide is still to be turned, from what was read over a travel."""
    if not reading:
        return []
    asked = {**given, "method": "compound", "travel": travel, "reading": reading}
    asked.pop("length_between_centres", None)
    answer = reckon("taper-setup", asked)
    answers.append(answer)
    minutes = float(answer["correction_minutes"])
    words = "Steeper by" if minutes > 0 else "Less steep by"
    return [Shown(words, f"{abs(minutes):.1f}′", TEXT)]


def _blued(told: str, long: float, travel: float, inside: bool, rubbed: Way) -> Line:
    """What the blue says. A gap of `GAP` at the end that did not rub is where to begin:
    thinner than that it would have rubbed."""
    head = f"Blue it with its {'plug' if inside else 'socket'}"
    taper = Shown("Taper", told, TEXT)
    if rubbed.chosen not in ("large", "small"):
        note = {
            "": "Thinly, in three lines along it; a quarter turn. Then say where it "
            "rubbed.",
            "all": "All along, a little stronger at the large end: that is how it "
            "should be. Leave the slide alone.",
            "hollow": "At both ends and not between: the tool is not at centre height, "
            "or the slide is loose. Set the tool, not the angle.",
        }[rubbed.chosen]
        return Line("blue", head, (taper,), note)
    steeper = (rubbed.chosen == "large") == inside
    minutes = math.degrees(math.atan(GAP / long)) * 60
    words = "Steeper by" if steeper else "Less steep by"
    return Line(
        "blue",
        head,
        (
            Shown(words, f"{minutes:.1f}′", TEXT),
            Shown("On the needle, over", travel),
            Shown("that is", GAP / long * travel, step=0.001),
        ),
        "Begin with that, take a light cut over the whole, blue it again.",
    )


def passes_list(step: StepTold, at: Machines) -> WorkList | None:
    """What is turned, bored or faced, pass by pass; None where nothing is known of the
    metal there."""
    one = step.cut[0] if step.cut else None
    stock = step.before.stock
    if isinstance(stock, Block) or one is None:
        return None
    if isinstance(one, End):
        ends = step.before.ends
        off = one.z - ends[0] if one.side == "left" else ends[1] - one.z
        if off <= 0:
            return None
        first, last = step.after.ends
        faced = [f.side for f in step.after.features if isinstance(f, End)]
        deep = material(step.material).rough_depth
        whole = last - first if len(faced) > 1 else None
        inside = one.z + BESIDE if one.side == "left" else one.z - BESIDE
        bored = step.after.radii(inside)[0] > 0
        return WorkList(tuple(_faced(off, whole, deep, bored)))
    if not isinstance(one, Cylinder | Bore | Groove):
        return None
    inside = isinstance(one, Bore) or getattr(one, "inside", False)
    inner, outer = step.before.radii((one.start + one.end) / 2)
    start, finish = 2 * (inner if inside else outer), one.diameter
    left = finish - start if inside else start - finish
    # a skim has no figures, only its note
    if start <= 0 or left < (LEAST if step.note else -LEAST):
        return None
    if left < LEAST:
        now = (Shown("⌀ it has now", start),)
        says = "Nothing more comes off: it was cut with what is beside it."
        return WorkList((Line("whole", step.title, now, says),))
    lathe = at.lathe
    given: dict[str, Any] = {
        "start": start,
        "finish": finish,
        "most": material(step.material).rough_depth,
    }
    dial = None
    if lathe is not None:
        given |= {"dial": lathe.dial_reads, "division": lathe.dial_division}
        dial = Dial(lathe.dial_reads, lathe.dial_division)
    answer = reckon("passes", given)
    stop = _shoulder(step, one, finish / 2)
    lines = [
        Line(
            "touch",
            "Touch the work, dial to 0",
            (Shown("⌀ it has now", start), *(stop or _placed(step, one))),
            "Spindle stopped for every measurement.",
        )
    ]
    count = len(answer["passes"])
    for n, cut in enumerate(answer["passes"], 1):
        figures = [
            _set("Dial to", cut["dial"], dial),
            Shown("⌀ then", cut["diameter"]),
            *stop,
        ]
        last = n == count
        lines.append(
            Line(
                f"pass-{n}",
                "The last pass" if last else f"Pass {n} of {count}",
                tuple(figures),
                "Measure before it, and dial what is left." if last else "",
            )
        )
    return WorkList(tuple(lines), answers=(answer,))


def ground_list(step: StepTold) -> WorkList | None:
    """A diameter that is ground: the taper taken out first, cool before it is read."""
    one = step.cut[0] if step.cut else None
    if not isinstance(one, Cylinder | Bore):
        return None
    inside = isinstance(one, Bore)
    inner, outer = step.before.radii((one.start + one.end) / 2)
    start, finish = 2 * (inner if inside else outer), one.diameter
    sign = -1 if inside else 1
    left = sign * (start - finish)
    if start <= 0 or left < 0.02:
        return None
    rough = finish + sign * min(LAST_GROUND, left / 2)
    count = math.ceil(sign * (start - rough) / 2 / WHEEL_ROUGH - 1e-9)
    last = math.ceil(sign * (rough - finish) / 2 / WHEEL_LAST - 1e-9)
    grown = material(step.material).expansion * HAND_WARM * finish
    how = "spindle" if inside else "centres"
    lines = (
        Line(
            "clean",
            f"Scale off, {how} clean, wheel trued",
            note="A wheel as its maker says, its guard on, run up alone for a minute; "
            "a hard piece wants a soft wheel.",
        ),
        Line(
            "bow",
            "Read the run-out as it stands",
            (Shown("On a side to come off", left / 2),),
            "Where it bows more than that, straighten it or begin a new one.",
        ),
        Line(
            "taper",
            "Take the taper out on a waste part, or where metal is left",
            note="Read both ends alike before the real one is touched.",
        ),
        Line(
            "rough",
            "Grind until it is clean all round, then on",
            (Shown("⌀ then", rough), Shown("Passes about", float(count), COUNT)),
            f"{step.note} {WHEEL_ROUGH * 1000:g} µm on a side each; the thin end, and "
            "what bends, last.".strip(),
        ),
        Line(
            "cool",
            "Let it cool, then read it",
            (Shown("Hand-warm it reads larger by", grown),),
            "As cold as the gauge: lay both on the same plate.",
        ),
        Line(
            "last",
            "Last passes, read after each",
            (Shown("⌀ wanted", finish), Shown("Passes about", float(last), COUNT)),
            f"{WHEEL_LAST * 1000:g} µm on a side each.",
        ),
        Line(
            "spark",
            "Spark out: to and fro without feed until it is quiet",
            note="What sprang away comes off now, a few µm: stop short of the size for "
            "it. Cool and read once more.",
        ),
    )
    return WorkList(lines)


def _placed(step: StepTold, one: Cylinder | Bore | Groove) -> tuple[Shown, ...]:
    """Where a groove is cut, or what stands between shoulders, from the end that stands
    out."""
    first, last = step.after.ends
    near = one.start - first if step.out == "left" else last - one.end
    end = Shown(f"From the {step.out or 'right'} end", near)
    if isinstance(one, Groove):
        return end, Shown("Wide", one.end - one.start)
    between = isinstance(one, Cylinder) and step.out is None and near > LEAST
    return (end, Shown("Long", one.end - one.start)) if between else ()


def carriage_stop(step: StepTold) -> float | None:
    """How far from the end that stands out the carriage stops where a diameter is cut,
    mm; None where nothing is in its way."""
    one = step.cut[0] if step.cut else None
    if not isinstance(one, Cylinder | Bore):
        return None
    stop = _shoulder(step, one, one.diameter / 2)
    return float(stop[0].value) if stop else None


def _shoulder(
    step: StepTold, one: Cylinder | Bore | Groove | Screw, radius: float
) -> tuple[Shown, ...]:
    """Where the carriage stops, from the end, where a shoulder or a floor is left."""
    if isinstance(one, Groove):
        return ()
    first, last = step.after.ends

    def stands(z: float) -> bool:
        """Whether metal stands in the tool's way there."""
        if not first < z < last:
            return False
        inner, outer = step.after.radii(z)
        if isinstance(one, Bore):
            return inner < radius - BESIDE
        return outer > radius + BESIDE

    # the side that the feature names, else where metal is left beside it
    walls = {"right": "left", "left": "right"}  # where a bore opens, its floor is not
    opens = one.opens if isinstance(one, Bore) else ""
    side = one.shoulder if isinstance(one, Cylinder) else walls.get(opens, "")
    left, right = stands(one.start - BESIDE), stands(one.end + BESIDE)
    if step.out:
        # the tool comes from the end that stands out
        left, right = left and step.out == "right", right and step.out == "left"
    elif side:
        left, right = side == "left", side == "right"
    if left and not right:
        return (Shown(CARRIAGE, last - one.start),)
    if right and not left:
        return (Shown(CARRIAGE, one.end - first),)
    return ()


def _faced(off: float, length: float | None, deep: float, bored: bool) -> list[Line]:
    """deep: of a pass, mm; length: of the piece when it is done; None while its other
    end is as sawn; bored: there is a hole in the middle."""
    across = "Right across" if bored else "To the centre, no pip left"
    count = max(math.ceil(off / deep - 1e-9), 1)
    done = [] if length is None else [Shown("Length then", length)]
    return [
        Line(
            f"pass-{n}",
            f"Face, pass {n} of {count}" if count > 1 else "Face it",
            (
                Shown("Off the end so far", off * n / count),
                *(done if n == count else ()),
            ),
            f"{across}; then set the slide to 0 on this face." if n == count else "",
        )
        for n in range(1, count + 1)
    ]


def _leg(one: Bevel) -> tuple[Shown, ...]:
    return Shown("Leg", one.leg), Shown("Angle", one.angle, ANGLE)


def one_cut(step: StepTold) -> WorkList | None:
    """What is done in one go, with its figures: an edge, a centre, parting off."""
    one = step.cut[0] if step.cut else None
    figures: tuple[Shown, ...]
    match one:
        case Bevel() if len(step.cut) > 1:
            edges = [edge for edge in step.cut if isinstance(edge, Bevel)]
            return WorkList(
                tuple(
                    Line(edge.name, begun(spoken(edge.name)), _leg(edge), step.note)
                    for edge in edges
                )
            )
        case Bevel():
            figures = _leg(one)
        case Centre():
            figures = (Shown("Mouth ⌀", one.mouth),)
        case Knurl():
            figures = Shown("Pitch", one.pitch), Shown("Long", one.end - one.start)
        case FaceGroove():
            figures = (
                Shown("⌀ from", one.inner),
                Shown("to", one.outer),
                Shown("Deep", one.depth),
            )
        case End() if step.operation == "part":
            first, last = step.after.ends
            figures = (Shown("Length then", last - first),)
        case _:
            return None
    return WorkList((Line("whole", step.title, figures, step.note),))
