"""Turning, boring, facing and grinding, pass by pass.

Source: the reckonings named in the answers; how much is left for the last cut and what
is tried when are shop rules.
"""

import math
from typing import Any

from machinon.core.cutting.cut_state import Dial
from machinon.core.materials import material
from machinon.core.piece.family import spoken
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import (
    Ball,
    Bevel,
    Bore,
    Centre,
    Cylinder,
    EdgeRound,
    End,
    FaceGroove,
    Groove,
    Knurl,
)
from machinon.core.quantity import ANGLE, COUNT, FOOT, plain
from machinon.core.reckoning import TEXT, reckon
from machinon.core.route.bars import of_a_slender_bar
from machinon.core.route.in_process import BESIDE
from machinon.core.route.steps import StepTold
from machinon.core.route.work.drilling import goes_to
from machinon.core.route.work.lines import (
    CARRIAGE,
    Machines,
    WorkLine,
    WorkList,
    dialled,
)
from machinon.core.wording import begun

# grinding, mm: shop rules for a light grinder or a spindle on the slide
TURNS_AT = 15.0  # m/min: the surface of what is ground, against the wheel
WHEEL_ROUGH, WHEEL_LAST = 0.01, 0.0025  # to a side and pass
LAST_GROUND = 0.02  # on the diameter, left for the last passes
RIDGE = 0.4  # mm that a file takes off between the steps of a ball of ⌀20 to ⌀40
LONGER = 5.0  # mm: the point of a drill, and what it goes past an end
LEAST = 0.02  # mm on the diameter: less is no cut of its own
HAND_WARM = 10.0  # degrees over the gauge


def passes_list(step: StepTold, at: Machines) -> WorkList | None:
    """The lines for turning, boring or facing, pass by pass; None where nothing is
    known of the metal there."""
    feature = step.cut[0] if step.cut else None
    stock = step.before.stock
    if isinstance(stock, Block) or feature is None:
        return None
    if isinstance(feature, End):
        ends = step.before.ends
        off = feature.z - ends[0] if feature.side == "left" else ends[1] - feature.z
        if off <= 0:
            return None
        first, last = step.after.ends
        faced = [f.side for f in step.after.features if isinstance(f, End)]
        deep = material(step.material).rough_depth
        whole = last - first if len(faced) > 1 else None
        inside = feature.z + BESIDE if feature.side == "left" else feature.z - BESIDE
        bored = step.after.radii(inside)[0] > 0
        return WorkList(tuple(_faced(off, whole, deep, bored)))
    if not isinstance(feature, Cylinder | Bore | Groove):
        return None
    inside = isinstance(feature, Bore) or getattr(feature, "inside", False)
    inner, outer = step.before.radii((feature.start + feature.end) / 2)
    start, finish = 2 * (inner if inside else outer), feature.diameter
    left = finish - start if inside else start - finish
    # a skim has no figures, only its note
    if start <= 0 or left < (LEAST if step.note else -LEAST):
        return None
    if left < LEAST:
        now = (Shown("⌀ now", start),)
        says = "Nothing more comes off: it was cut with what is beside it."
        return WorkList((WorkLine("whole", step.title, now, says),))
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
    stop, past = _stops(step, feature, finish / 2)
    says = "Spindle stopped for every measurement."
    if past:
        says += f" It goes {plain(past, 1)} mm past an end that is cut later"
        first, last = step.after.ends
        through = inside and float(stop[0].value) > last - first
        says += ": keep it clear of the chuck's face." if through else "."
    answers = [answer]
    says += of_a_slender_bar(step, answers)
    open_through = isinstance(feature, Bore) and feature.opens == "both"
    if open_through and start > stock.bore + LEAST and stop:  # no tube was drilled
        deep = goes_to(start)
        if float(stop[0].value) > deep + LONGER:
            says += (
                f" Its drill went {deep:g} mm deep from here: bore that far, the rest "
                "from the other end."
            )
    lines = [
        WorkLine(
            "touch",
            "Touch the work, dial to 0",
            (Shown("⌀ now", start), *(stop or _placed(step, feature))),
            says,
        )
    ]
    count = len(answer["passes"])
    for n, cut in enumerate(answer["passes"], 1):
        last = n == count  # that one brings it into its band
        fine = 0.001 if step.banded and last else 0.01
        figures = [
            dialled("Dial to", cut["dial"], dial),
            Shown("⌀ after", cut["diameter"], step=fine),
            *stop,
        ]
        lines.append(
            WorkLine(
                f"pass-{n}",
                "The last pass" if last else f"Pass {n} of {count}",
                tuple(figures),
                "Measure before it, and dial what is left." if last else "",
            )
        )
    return WorkList(tuple(lines), answers=tuple(answers))


def _wheel(metal: str) -> str:
    """The wheel for a metal, by its abrasive."""
    if metal == "carbide":
        return "A diamond wheel"
    steels = ("mild steel", "steel", "alloy steel", "tool steel", "hardened steel")
    steel = metal in (*steels, "stainless")
    return "Aluminium oxide" if steel else "Silicon carbide"


def _rims(finish: float, at: Machines) -> tuple[Shown, ...]:
    """How fast the wheel's rim runs, where the grinder tells it, and the work turns."""
    work = Shown(
        "Work turns, rpm", round(1000 * TURNS_AT / math.pi / finish, -1), COUNT
    )
    if at.grinder is None:
        return (work,)
    wheel = at.grinder.number("wheel") * at.grinder.number("wheel_speed")
    if not wheel:
        return (work,)
    rim = math.pi * wheel / 1000  # m/min
    # as wheels are marked, in either system
    says = f"{rim / 60:.0f} m/s, {round(rim / FOOT, -1):.0f} ft/min"
    return (Shown("A full wheel's rim", says, TEXT), work)


def ground_list(step: StepTold, at: Machines) -> WorkList | None:
    """A diameter that is ground: the taper taken out first, cool before it is read."""
    feature = step.cut[0] if step.cut else None
    if not isinstance(feature, Cylinder | Bore):
        return None
    inside = isinstance(feature, Bore)
    inner, outer = step.before.radii((feature.start + feature.end) / 2)
    start, finish = 2 * (inner if inside else outer), feature.diameter
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
        WorkLine(
            "clean",
            f"Scale off, {how} clean, wheel trued",
            _rims(finish, at),
            f"{_wheel(step.material)}, grain 46 to 60, finer for a small bore; a "
            "hard piece wants a soft wheel. No faster than is marked on it, its guard "
            "on, run up alone for a minute.",
        ),
        WorkLine(
            "bow",
            "Read the run-out as it stands",
            (Shown("To come off a side", left / 2),),
            "Where it bows more than that, straighten it or begin a new one.",
        ),
        WorkLine(
            "taper",
            "Take the taper out on a waste part, or where metal is left",
            note="Read both ends alike before the real one is touched.",
        ),
        WorkLine(
            "rough",
            "Grind until it is clean all round, then on",
            (Shown("⌀ after", rough), Shown("Passes, about", float(count), COUNT)),
            f"{step.note} {WHEEL_ROUGH * 1000:g} µm on a side each; the thin end, and "
            "what bends, last.".strip(),
        ),
        WorkLine(
            "cool",
            "Let it cool, then read it",
            (Shown("Hand-warm it reads larger by", grown),),
            "As cold as the gauge: lay both on the same plate.",
        ),
        WorkLine(
            "last",
            "Last passes, read after each",
            (Shown("⌀ wanted", finish), Shown("Passes, about", float(last), COUNT)),
            f"{WHEEL_LAST * 1000:g} µm on a side each.",
        ),
        WorkLine(
            "spark",
            "Spark out: to and fro without feed until it is quiet",
            note="What sprang away comes off now, a few µm: stop short of the size for "
            "it. Cool and read once more.",
        ),
    )
    return WorkList(lines)


def _placed(step: StepTold, feature: Cylinder | Bore | Groove) -> tuple[Shown, ...]:
    """The place of a groove, or of a step between shoulders, from the end that stands
    out."""
    first, last = step.after.ends
    near = feature.start - first if step.out == "left" else last - feature.end
    end = Shown(f"From the {step.out or 'right'} end", near)
    if isinstance(feature, Groove):
        return end, Shown("Width", feature.end - feature.start)
    if not isinstance(feature, Cylinder) or near <= LEAST:
        return ()
    recess = all(_walls(step, feature, feature.diameter / 2))
    return (
        (end, Shown("Length", feature.end - feature.start))
        if recess or not step.out
        else ()
    )


def carriage_stop(step: StepTold) -> float | None:
    """Distance from the end that stands out to the carriage stop of a diameter, mm;
    None where nothing is in its way."""
    feature = step.cut[0] if step.cut else None
    if not isinstance(feature, Cylinder | Bore):
        return None
    stop, _ = _stops(step, feature, feature.diameter / 2)
    return float(stop[0].value) if stop else None


def _walls(step: StepTold, turned: Cylinder | Bore, radius: float) -> tuple[bool, bool]:
    """Whether metal is left in the tool's way at the left and at the right of a cut."""
    first, last = step.after.ends

    def stands(end: float, beside: float) -> bool:
        if not first < end + beside < last:
            return False
        inner, outer = step.after.radii(end + beside)
        if isinstance(turned, Bore):
            return inner < radius - BESIDE or bool(step.past(end, inside=True))
        return outer > radius + BESIDE

    return stands(turned.start, -BESIDE), stands(turned.end, BESIDE)


def _stops(
    step: StepTold, turned: Cylinder | Bore | Groove, radius: float
) -> tuple[tuple[Shown, ...], float]:
    """The carriage stop, from the end, where a shoulder or a floor is left, and how far
    past the end of what is cut it lies, mm."""
    if isinstance(turned, Groove):
        return (), 0.0
    first, last = step.after.ends
    # the side that the feature names, else where metal is left beside it
    walls = {"right": "left", "left": "right"}  # where a bore opens, its floor is not
    opens = turned.opens if isinstance(turned, Bore) else ""
    side = turned.shoulder if isinstance(turned, Cylinder) else walls.get(opens, "")
    left, right = _walls(step, turned, radius)
    if left and right and not side:
        return (), 0.0  # no tool comes to it from an end: it is a recess
    if step.out:
        # the tool comes from the end that stands out
        left, right = left and step.out == "right", right and step.out == "left"
    elif side:
        left, right = side == "left", side == "right"
    if left == right:
        return (), 0.0
    past = step.past(turned.start if left else turned.end, isinstance(turned, Bore))
    stop = last - turned.start if left else turned.end - first
    return (Shown(CARRIAGE, stop + past),), past


def _faced(
    off: float, length: float | None, deep: float, bored: bool
) -> list[WorkLine]:
    """deep: of a pass, mm; length: of the piece when it is done; None while its other
    end is as sawn; bored: there is a hole in the middle."""
    across = "Right across" if bored else "To the centre, no pip left"
    count = max(math.ceil(off / deep - 1e-9), 1)
    done = [] if length is None else [Shown("Length after", length)]
    return [
        WorkLine(
            f"pass-{n}",
            f"Face, pass {n} of {count}" if count > 1 else "Face it",
            (
                Shown("Faced off so far", off * n / count),
                *(done if n == count else ()),
            ),
            f"{across}; then set the slide to 0 on this face." if n == count else "",
        )
        for n in range(1, count + 1)
    ]


def _leg(bevel: Bevel) -> tuple[Shown, ...]:
    return Shown("Leg", bevel.leg), Shown("Angle", bevel.angle, ANGLE)


def _ball_list(feature: Ball) -> WorkList:
    """The steps over a ball from its right end and from its left, then the file."""
    lines = []
    ball = feature.diameter
    ridge = max(min(RIDGE, 0.02 * ball), 0.01 * ball)
    for side, station in (("right", feature.end), ("left", feature.start)):
        if abs(station - feature.z) < LEAST:
            continue  # half a ball: this side of its middle is another step
        neck = feature.at(station)
        tip = neck < LEAST
        given = {"ball": ball, "neck": 0.0 if tip else neck, "ridge": ridge}
        found = reckon("ball-turning", given)
        steps = [row for row in found["steps"] if (row["from"] == 0.0) == tip]
        lines += [
            WorkLine(
                f"{side}{n}",
                f"From the {side}, step {n} of {len(steps)}",
                (
                    Shown("⌀", row["diameter"]),
                    Shown("Length", row["to"] - row["from"]),
                ),
                f"From {'the tip' if tip else 'the neck'} on." if n == 1 else "",
            )
            for n, row in enumerate(steps, 1)
        ]
    says = "File the ridges off; a ring of smaller bore rubs where it is high."
    figures = (Shown("⌀", ball),)
    return WorkList((*lines, WorkLine("file", "File it round", figures, says)))


def one_cut(step: StepTold) -> WorkList | None:
    """The line of a single cut, with its figures: an edge, a centre, parting off."""
    knurl = step.cut[0] if step.cut else None
    figures: tuple[Shown, ...]
    match knurl:
        case Bevel() if len(step.cut) > 1:
            edges = [edge for edge in step.cut if isinstance(edge, Bevel)]
            return WorkList(
                tuple(
                    WorkLine(edge.name, begun(spoken(edge.name)), _leg(edge), step.note)
                    for edge in edges
                )
            )
        case Bevel():
            figures = _leg(knurl)
        case Ball():
            return _ball_list(knurl)
        case EdgeRound():
            figures = (Shown("Radius", knurl.radius),)
        case Centre():
            figures = (Shown("Mouth ⌀", knurl.mouth),)
        case Knurl():
            figures = (
                Shown("Pitch", knurl.pitch),
                Shown("Length", knurl.end - knurl.start),
            )
        case FaceGroove():
            figures = (
                Shown("⌀ from", knurl.inner),
                Shown("to", knurl.outer),
                Shown("Depth", knurl.depth),
            )
        case End() if step.operation in ("part", "saw-off"):
            first, last = step.after.ends
            figures = (Shown("Length after", last - first),)
        case _:
            return None
    return WorkList((WorkLine("whole", step.title, figures, step.note),))
