"""Tapers: set, proved by their own two diameters, blued, and brought to depth.

Source: the reckonings named in the answers; how far is measured is a shop rule.
"""

import math
from collections.abc import Mapping
from typing import Any

from machinon.core.materials import material
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import Cone, TaperBore
from machinon.core.quantity import ANGLE, COUNT, INCH, typed_again
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.route.bars import of_a_slender_bar
from machinon.core.route.slide import proved_over
from machinon.core.route.steps import StepTold
from machinon.core.route.work.lines import SINE_BARS, Way, WorkLine, WorkList, way
from machinon.core.setting_out.dividing import dms
from machinon.core.tapers.tapers import by_angle

TAPERS = (
    ("compound", "with the compound"),
    ("tailstock", "with the tailstock set over"),
)
PROVED = (
    ("bar", "along a true bar"),
    ("taper", "along a taper that is right"),
    ("sine", "along a sine bar on slips"),
)
BY_INDICATOR = "Prove the setting by indicator"
ALIKE = Shown("From end to end it reads", 0.0, step=0.001)
RUBBED = (
    ("", "not tried yet"),
    ("all", "all along"),
    ("large", "at the large end only"),
    ("small", "at the small end only"),
    ("hollow", "at both ends, not between"),
)
GAP = 0.01  # mm a side: about what a film of blue no longer bridges; a shop rule
COMPOUND = 60.0  # mm that a compound slide goes, about
SAME = 0.01  # degrees: a slide set so nearly stands right already
STRAIGHT = 1.0  # mm on the diameter left over a taper that is cut straight before
STEEP = 15.0  # degrees a side: a cone so steep has no socket, a gauge tries it


def taper_list(
    step: StepTold, feature: Cone | TaperBore, inch: bool, ways: Mapping[str, str]
) -> WorkList:
    """A taper: set, proved by its own two diameters, blued, and brought to depth."""
    small, large = sorted((feature.start_diameter, feature.end_diameter))
    long = feature.end - feature.start
    taper = "/".join(typed_again(size) for size in (large, small, long))
    angled = by_angle(feature.taper)
    if angled:
        taper = feature.taper
    inside = isinstance(feature, TaperBore)
    asked: list[Way] = []
    method = "compound"
    stock = step.after.stock
    if not inside and not isinstance(stock, Block):
        asked.append(way("taper", "Set", TAPERS, ways))
        method = asked[0].chosen
    moved = min(proved_over(inch), max(long, 5.0))
    given: dict[str, Any] = {"taper": taper, "method": method}
    if method == "tailstock":
        first, last = step.after.ends
        given["length_between_centres"] = last - first
    by_slide = method != "tailstock"
    along = "slide" if by_slide else "axis"
    wound = {**given, "travel": moved, "along": along}
    setting = reckon("taper-setup", wound)
    answers = [setting]
    if method == "tailstock":
        set_over = WorkLine(
            "set",
            "Set the tailstock over",
            (Shown("Offset", float(setting["tailstock_offset"]), step=0.001),),
            "Towards the tool where the small end is at the tailstock; for work "
            "between centres only.",
        )
    else:
        set_over = WorkLine(
            "set",
            "Set the compound",
            (Shown("From the axis", dms(float(setting["angle"])), TEXT),),
            "By its scale first: that is good to a quarter of a degree."
            + (_bites(inside) if long > COMPOUND else ""),
        )
    read = f"{step.key}.needle", "What the indicator read over that travel"
    differs = f"{step.key}.differ", "By how much the two differ, on ⌀"
    ratio = (large - small) / long
    apart = INCH if inch else 25.0  # round, as a rule is laid along it
    places = min(apart, long * 0.8)
    deeper, said = (INCH / 10, "0.1 in") if inch else (1.0, "1 mm")
    advance = reckon("taper-advance", {"taper": taper, "advance": deeper})
    answers.append(advance)
    shown = WorkLine(
        "indicator",
        BY_INDICATOR,
        (
            Shown("Slide wound by" if by_slide else "Carriage wound by", moved),
            Shown("It should read", float(setting["indicator_reading"]), step=0.001),
            *_nudge(wound, moved, _number(ways, read[0]), answers),
        ),
        "The indicator on the slide against a true bar, at centre height, wound along "
        "by its own dial; nudge the slide until it reads so."
        if by_slide
        else "The indicator on the carriage against a true bar between the centres; "
        "nudge the tailstock until it reads so.",
        asks=read,
    )
    if by_slide:
        proved = way("proved", "Proved", PROVED, ways)
        asked.append(proved)
        if proved.chosen == "taper":
            shown = _along_a_taper()
        elif proved.chosen == "sine":
            bar = way("sine", "Sine bar", SINE_BARS, ways)
            asked.append(bar)
            shown = _along_a_sine_bar(float(bar.chosen), given, answers)
    begun = any(f.name == feature.name for f in step.before.features)
    already = abs(step.slide - feature.half_angle) < SAME
    setting_lines = [
        *_straight(step, feature),
        *(() if already else (set_over, shown)),
        WorkLine(
            "rough",
            "Rough it, then two places",
            (
                Shown("Between the places", places),
                Shown("Difference on ⌀", ratio * places, step=0.001),
                *_nudge(given, places, _number(ways, differs[0]) / 2, answers),
            ),
            "More than that: the angle is too steep. Set it right while metal is left."
            + ("" if begun else of_a_slender_bar(step, answers)),
            asks=differs,
        ),
    ]
    lines = [] if begun else setting_lines
    asked = [] if begun or already else asked
    if step.leaves:
        return WorkList(tuple(lines), tuple(asked), tuple(answers))
    # one that has no name has no gauge either
    bare = isinstance(feature, Cone) and not feature.taper
    steep = isinstance(feature, Cone) and feature.half_angle >= STEEP
    if bare or steep or angled:
        lines = [*lines, *_by_a_gauge(feature)]
    else:
        rubbed = way("rubbed", "Blue rubbed", RUBBED, ways)
        asked.append(rubbed)
        depth = WorkLine(
            "depth",
            "Bring it to depth",
            (
                Shown(
                    f"{said} further in, on ⌀", advance["diameter_change"], step=0.001
                ),
            ),
            "From how far the gauge stands out: that many times as much off the "
            "diameter, half of it on the radius.",
        )
        lines = [*lines, _blued(feature, inch, rubbed), depth]
    return WorkList(tuple(lines), tuple(asked), tuple(answers))


def _by_a_gauge(cone: Cone | TaperBore) -> list[WorkLine]:
    """The last cuts on a cone that nothing mates: its angle by a gauge, then the end
    that can be measured, its small one outside and its mouth inside."""
    ends = cone.start_diameter, cone.end_diameter
    held = "A lamp behind it. Light at the small end only: the slide stands too steep."
    end, words = Shown("⌀ small end", min(ends)), "its small end"
    if isinstance(cone, TaperBore):
        held, end, words = "", Shown("⌀ at its mouth", max(ends)), "its mouth"
    last = f"The angle is right: light cuts by the same slide until {words} is so."
    angle = Shown("Whole angle", 2 * cone.half_angle, ANGLE)
    return [
        WorkLine("gauge", "Hold a gauge or protractor to it", (angle,), held),
        WorkLine("depth", "Bring it to size", (end,), last),
    ]


def _along_a_taper() -> WorkLine:
    """The setting of the slide proved along a taper that is right."""
    note = (
        "The indicator on the slide, at centre height, along a good taper in the "
        "spindle or between centres; first turn that to the middle of its run-out."
    )
    return WorkLine("indicator", BY_INDICATOR, (ALIKE,), note)


def _along_a_sine_bar(
    long: float, given: Mapping[str, Any], answers: list[Answer]
) -> WorkLine:
    """The setting of the slide proved along a sine bar, mm, on its slips."""
    found = reckon("taper-setup", {**given, "method": "sine", "sine_length": long})
    answers.append(found)
    figures = (Shown("Slips under its end", found["sine_stack"], step=0.001), ALIKE)
    note = (
        "The sine bar on its side, its slips against a straight edge along the bed; "
        "the indicator on the slide along the bar, wound by the slide."
    )
    return WorkLine("indicator", BY_INDICATOR, figures, note)


def blued_list(
    step: StepTold, feature: Cone | TaperBore, inch: bool, ways: Mapping[str, str]
) -> WorkList:
    """A taper that is proved by blue: where it rubs, and what that means."""
    rubbed = way("rubbed", "Blue rubbed", RUBBED, ways)
    blued = _blued(feature, inch, rubbed)
    whole = WorkLine("whole", step.title, step.figures, step.note)
    return WorkList((blued, whole), (rubbed,))


def _bites(inside: bool) -> str:
    """The ways of cutting a taper that is longer than the compound's travel."""
    other = "" if inside else ", or with the tailstock set over"
    return (
        f" It is longer than most compounds go: in two settings of the carriage{other}."
    )


def _straight(step: StepTold, taper: Cone | TaperBore) -> list[WorkLine]:
    """The straight cut along the carriage that leaves little for the compound."""
    small, large = sorted((taper.start_diameter, taper.end_diameter))
    inner, outer = step.before.radii((taper.start + taper.end) / 2)
    left = 2 * step.leaves + STRAIGHT
    if isinstance(taper, TaperBore):
        now, then, head = 2 * inner, small - left, "Bore it straight first"
    else:
        now, then, head = 2 * outer, large + left, "Turn it straight first"
    metal = abs(now - then)
    if metal < STRAIGHT or (now > then) == isinstance(taper, TaperBore) or not now:
        return []
    passes = math.ceil(metal / 2 / material(step.material).rough_depth)
    figures = (
        Shown("⌀ now", now),
        Shown("⌀ after", then),
        Shown("Length", taper.end - taper.start),
        Shown("Passes, about", float(passes), COUNT),
    )
    note = "The compound is wound by hand: it has only the taper left."
    return [WorkLine("straight", head, figures, note)]


def _number(ways: Mapping[str, str], key: str) -> float:
    """A length that was read at the machine, mm; 0 until it is."""
    return float(ways.get(key) or 0.0)


def _nudge(
    given: Mapping[str, Any], travel: float, reading: float, answers: list[Answer]
) -> list[Shown]:
    """The turn that the slide still needs, from the reading over a travel."""
    if not reading:
        return []
    asked = {**given, "method": "compound", "travel": travel, "reading": reading}
    asked.pop("length_between_centres", None)
    answer = reckon("taper-setup", asked)
    answers.append(answer)
    minutes = float(answer["correction_minutes"])
    words = "Steeper by" if minutes > 0 else "Less steep by"
    return [Shown(words, f"{abs(minutes):.1f}′", TEXT)]


def _blued(feature: Cone | TaperBore, inch: bool, rubbed: Way) -> WorkLine:
    """The meaning of the blue. A gap of `GAP` at the end that did not rub is where to
    begin: a thinner one would have rubbed."""
    inside = isinstance(feature, TaperBore)
    head = f"Blue it with its {'plug' if inside else 'socket'}"
    long = feature.end - feature.start
    if feature.taper:
        taper = Shown("Taper", feature.taper, TEXT)
    else:
        taper = Shown("Half angle", feature.half_angle, ANGLE)
    if rubbed.chosen not in ("large", "small"):
        note = {
            "": "Thinly, in three lines along it; a quarter turn. Then say where it "
            "rubbed.",
            "all": "All along, a little stronger at the large end: that is how it "
            "should be. Leave the slide alone.",
            "hollow": "At both ends and not between: the tool is not at centre height, "
            "or the slide is loose. Set the tool, not the angle.",
        }[rubbed.chosen]
        return WorkLine("blue", head, (taper,), note)
    steeper = (rubbed.chosen == "large") == inside
    minutes = math.degrees(math.atan(GAP / long)) * 60
    words = "Steeper by" if steeper else "Less steep by"
    travel = min(proved_over(inch), max(long, 5.0))
    return WorkLine(
        "blue",
        head,
        (
            Shown(words, f"{minutes:.1f}′", TEXT),
            Shown("On the indicator, over", travel),
            Shown("that is", GAP / long * travel, step=0.001),
        ),
        "Begin with that, take a light cut over the whole, blue it again.",
    )
