"""Threads cut by a single point, from the outside they are cut on to their mate.

Source: the reckonings named in the answers; what is tried when are shop rules.
"""

import math
from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.cutting.cut_state import Dial
from machinon.core.errors import BadInput
from machinon.core.materials import material
from machinon.core.piece.shown import Shown
from machinon.core.piece.turned_features import NutThread, Screw
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.bars import of_a_slender_bar
from machinon.core.route.in_process import BESIDE
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import (
    CARRIAGE,
    Machines,
    WorkLine,
    WorkList,
    dialled,
    way,
)
from machinon.core.route.work.turning import LEAST
from machinon.core.shop.things import Lathe
from machinon.core.threads.screw_thread import Thread

SCHOOLS = (
    ("flank", "along one flank, by the compound"),
    ("plunge", "straight in, by the cross slide"),
    ("alternate", "on either flank in turn"),
)
TRIED = (
    ("nut", "by its mate"),
    ("wires", "over three wires"),
    ("flat", "by the flat on its crest"),
)
COUNTED = 10  # threads that a rule is laid along


def thread_list(
    step: StepTold, feature: Screw | NutThread, at: Machines, ways: Mapping[str, str]
) -> WorkList:
    """A thread cut by a single point, from the wheels to the trial of its mate."""
    school = way("infeed", "Fed in", SCHOOLS, ways)
    asked = [school]
    answers: list[Answer] = []
    inside = isinstance(feature, NutThread)
    thread = feature.of
    if isinstance(feature, Screw):
        lines = _blank(step, feature, answers)
    else:
        end = _inner_end(step, feature)
        lines = [replace(end, note=end.note + of_a_slender_bar(step, answers))]
    lines += _geared(thread, at.lathe, answers)
    asks = {"thread": thread.name, "school": school.chosen, "internal": inside}
    if isinstance(feature, NutThread) and feature.bore > thread.minor_internal:
        asks["bore"] = feature.bore
    passes = reckon("thread-passes", asks)
    answers.append(passes)
    by_compound = school.chosen != "plunge"
    turns = "threads" if thread.starts == 1 else "turns"
    if by_compound:
        lines.append(
            WorkLine(
                "compound",
                "Set the compound over",
                (Shown("From square across", thread.form.compound, ANGLE),),
                "Half a degree under half the thread's angle, so that the back flank "
                "is shaved smooth. The tool stands square to the work by its gauge.",
            )
        )
    lines.append(
        WorkLine(
            "touch",
            "Touch, and set both dials to 0",
            (),
            "At every pass come back to 0 on the cross slide, or to a stop on it, and "
            "feed by the compound."
            if by_compound
            else "The cross slide feeds; note where it touched.",
        )
    )
    lines.append(
        WorkLine(
            "scratch",
            "Scratch it and count",
            (Shown(f"Over {COUNTED} {turns}", COUNTED * thread.lead),),
            "A few hundredths deep only. With a rule or a thread gauge: a wrong wheel "
            "shows now, and costs nothing yet.",
        )
    )
    lines += _fed(passes["passes"], by_compound, at.lathe, inside)
    if thread.starts > 1:
        lines.append(_next_start(thread))
    external = not inside and thread.form_name in ("metric", "unified")
    if external:
        asked.append(way("tried", "Tried", TRIED, ways))
    lines.append(
        _tried(
            thread.name,
            asked[-1].chosen if external else "nut",
            inside,
            answers,
        )
    )
    return WorkList(tuple(lines), tuple(asked), tuple(answers))


def _next_start(thread: Thread) -> WorkLine:
    """From one start to the next, and all its passes again."""
    return WorkLine(
        "starts",
        f"The next of {thread.starts} starts, all passes again",
        (
            Shown("Work turned on by", 360 / thread.starts, ANGLE),
            Shown("or the tool moved along by", thread.pitch, step=0.001),
        ),
        "The dog in the next of its slots; or the compound set along the axis moves "
        "the tool, and the cross slide feeds. Each start to the same depth.",
    )


def _blank(step: StepTold, screw: Screw, answers: list[Answer]) -> list[WorkLine]:
    """The blank of a thread: its outside, and the groove that it runs out in."""
    answer = reckon("thread", {"thread": screw.thread})
    answers.append(answer)
    # the depth of the passes counts from the largest that the thread may be; not of
    # all forms are limits kept
    limits = answer.results
    wide = float(limits.get("external_major_max") or screw.of.major)
    least = float(limits.get("external_major_min") or 0.0)
    middle = (screw.start + screw.end) / 2
    now = 2 * step.before.radii(middle)[1]
    lines = []
    if now - wide > LEAST:
        deep = material(step.material).rough_depth
        passes = math.ceil((now - wide) / 2 / deep)
        figures = (
            Shown("⌀ now", now),
            Shown("⌀ after", wide),
            *([Shown("Not under", least)] if least else []),
            Shown("Passes, about", float(passes), COUNT),
            *_ends(step, screw),
        )
        note = (
            "The depth of the thread counts from this ⌀: what comes out smaller stops "
            "sooner, by half of it."
        )
        lines.append(
            WorkLine("outside", "Turn it to the thread's outside", figures, note)
        )
    if screw.runs_out:
        groove = (
            Shown("⌀ of its floor", screw.groove),
            Shown("Width", screw.groove_width),
        )
        lines.append(
            WorkLine(
                "groove",
                f"Groove it at its {screw.runs_out} end",
                groove,
                "The tool runs out in it: no wider than it must be, corners round.",
            )
        )
    elif _runs_over(step, screw):
        lines.append(
            WorkLine(
                "ends",
                "Set a stop past it",
                (Shown(CARRIAGE, _stop(step, screw) + screw.of.pitch / 2),),
                "The round beside it is thinner than the thread's root: the tool runs "
                "out over it, half a pitch past the thread, and draws back there.",
            )
        )
    elif _ends(step, screw):
        lines.append(
            WorkLine(
                "ends",
                "Mark where it ends",
                (Shown("Thread length", screw.end - screw.start),),
                "No groove: draw the tool out there at every pass, the spindle turning "
                "slowly; rather a little short of it than beyond.",
            )
        )
    return lines


def _runs_over(step: StepTold, screw: Screw) -> bool:
    """Whether the round behind a thread is thinner than its root."""
    beyond = screw.start - BESIDE if _from_right(step, screw) else screw.end + BESIDE
    low, high = step.after.ends
    if not low < beyond < high:
        return False
    return step.after.radii(beyond)[1] <= screw.of.minor_external / 2


def _from_right(step: StepTold, screw: Screw) -> bool:
    first, last = step.after.ends
    if step.out:
        return step.out == "right"
    return last - screw.end < screw.start - first


def _ends(step: StepTold, screw: Screw) -> tuple[Shown, ...]:
    """Where the carriage stops for a thread, from the end that stands out; nowhere
    where it runs off the work."""
    first, last = step.after.ends
    stop = _stop(step, screw)
    return (Shown(CARRIAGE, stop),) if stop < last - first - LEAST else ()


def _stop(step: StepTold, screw: Screw) -> float:
    """How far a thread's end lies from the end that stands out, mm."""
    first, last = step.after.ends
    return last - screw.start if _from_right(step, screw) else screw.end - first


def _inner_end(step: StepTold, nut: NutThread) -> WorkLine:
    """Where the tool stops in an inside thread: behind the work, in a relief, or in
    the metal."""
    thread, (first, last) = nut.of, step.after.ends
    right = step.out == "right" if step.out else last - nut.end < nut.start - first
    far, deeper = (nut.start, -1) if right else (nut.end, 1)
    deep = last - far if right else far - first
    past = step.past(far, inside=True)
    beyond = far + deeper * (past + BESIDE)
    goes = "begins" if thread.left else "stops"
    if not first < beyond < last:
        return WorkLine(
            "ends",
            "Room for the tool behind the work",
            (Shown(CARRIAGE, deep + past + thread.pitch),),
            f"Right through: it {goes} behind the work. Try with the spindle off that "
            "tool and bar clear the jaws and the chuck's face there.",
        )
    if step.after.radii(beyond)[0] > thread.major / 2 - BESIDE:
        return WorkLine(
            "ends",
            "Set a stop in the relief",
            (Shown(CARRIAGE, deep + past + thread.pitch / 2),),
            f"The tool is clear there, and {goes} there at every pass.",
        )
    if nut.before if right else nut.beyond:
        return WorkLine(
            "ends",
            "Mark on the bar where it may end",
            (Shown(CARRIAGE, deep + thread.pitch),),
            "Draw the tool out there towards the middle at every pass, the spindle "
            "turning slowly; a turn more is no matter: it is bored wider there later.",
        )
    return WorkLine(
        "ends",
        "Mark on the bar where it ends",
        (Shown(CARRIAGE, deep),),
        "No relief: draw the tool out there towards the middle at every pass, the "
        "spindle turning slowly; rather a little short of it than beyond.",
    )


def _geared(
    thread: Thread, lathe: Lathe | None, answers: list[Answer]
) -> list[WorkLine]:
    """The wheels for its lead, and where the half-nuts may close."""
    figures: tuple[Shown, ...] = (Shown("Pitch", thread.pitch, step=0.001),)
    head, note = "Set the pitch", "By the plate on the gear box, or change wheels."
    if thread.starts > 1:
        figures = (*figures, Shown("Lead", thread.lead, step=0.001))
        head = "Set the lead"
    if lathe is not None and len(lathe.wheels) > 1:
        asked = {"pitch": thread.lead, "leadscrew": lathe.lead_screw,
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
    lines = [WorkLine("gears", head, figures, f"{note} Spindle off.")]
    if thread.left:
        lines.append(
            WorkLine(
                "hand",
                "Left hand: reverse the tumbler",
                note="The carriage runs away from the headstock: begin in the groove "
                "at its inner end. The compound is set over to the other side.",
            )
        )
    if lathe is not None:
        asks = {"thread": thread.name, "leadscrew": lathe.lead_screw}
        dial = reckon("thread-dial", asks)
        answers.append(dial)
        marks = ", ".join(str(mark) for mark in dial["marks"])
        shown = (Shown("Close them on", marks, TEXT),) if marks else ()
        lines.append(WorkLine("nuts", "Half-nuts", shown, str(dial["rule"])))
    return lines


def _fed(
    passes: list[dict[str, float]], by_compound: bool, lathe: Lathe | None, inside: bool
) -> list[WorkLine]:
    """Each pass with what the dial shows then."""
    lines, gone = [], 0.0
    dial = None
    if lathe is not None and not by_compound:
        dial = Dial(lathe.dial_reads, lathe.dial_division)
    counts = dial.factor if dial is not None else 1
    slide = "Compound to" if by_compound else "Cross slide to"
    deepening = [cut for cut in passes if cut["radial"]]
    for n, this in enumerate(deepening, 1):
        cut = this["compound"] if by_compound else this["radial"] * counts
        gone += cut
        lines.append(
            WorkLine(
                f"pass-{n}",
                f"Pass {n} of {len(deepening)}",
                (dialled(slide, gone, dial), Shown("This pass", cut)),
                "Back out before you come back."
                if not inside
                else "Back out towards the middle before you come back.",
            )
        )
    for n in range(1, len(passes) - len(deepening) + 1):
        lines.append(
            WorkLine(
                f"spring-{n}",
                "Again, nothing fed",
                (dialled(slide, gone, dial),),
                "A spring pass: the work and tool give less each time.",
            )
        )
    return lines


def _tried(thread: str, by: str, inside: bool, answers: list[Answer]) -> WorkLine:
    again = (
        "Too tight: a hundredth more and both spring passes again. Once it is out of "
        "the chuck, only pick the thread up anew with the half-nuts closed, tool out, "
        "and the slack taken up."
    )
    if by == "flat":
        answer = reckon("crest-flat", {"thread": thread})
        answers.append(answer)
        flats = [
            Shown(words, float(answer[f"flat_{end}"]))
            for words, end in (("Not over", "max"), ("Not under", "min"))
        ]
        how = "By a magnifier with a scale, at several places: good to a tenth or two."
        return WorkLine("try", "Measure the flat on its crest", tuple(flats), how)
    if by == "wires":
        answer = reckon("thread-wires", {"thread": thread})
        answers.append(answer)
        figures = [Shown("Wire", float(answer["best_wire"]), step=0.001)]
        for end, words in (("max", "Not over"), ("min", "Not under")):
            size = answer.results.get(f"over_wires_{end}")
            if size is not None:
                figures.append(Shown(words, float(size), step=0.001))
        return WorkLine("try", "Measure over three wires", tuple(figures), again)
    what = "Try its screw" if inside else "Try its nut"
    return WorkLine(
        "try", what, (), f"Spindle stopped, thread wiped and brushed clean. {again}"
    )
