"""What a step that proves has to show: the sizes wanted, and how they are read.

Source: ISO 2768-1 for what no fit rules; where a size is read is a shop rule.
"""

from collections.abc import Iterator, Mapping

from msgspec.structs import replace

from machinon.core.piece.block_features import Flanked, Rebate, SixFaces, Slope
from machinon.core.piece.family import spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Holes
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.shown import Shown, from_to
from machinon.core.piece.turned_features import (
    Bore,
    Cone,
    Cylinder,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.quantity import ANGLE
from machinon.core.reckoning import TEXT, reckon
from machinon.core.route.steps import StepTold
from machinon.core.route.work.dovetails import proved_dovetail
from machinon.core.route.work.lines import Machines, WorkLine, WorkList
from machinon.core.route.work.tapers import blued_list
from machinon.core.sizes.general_tolerance import general_tolerance
from machinon.core.threads.screw_thread import thread_of
from machinon.core.wording import begun


def proved_list(step: StepTold, at: Machines, ways: Mapping[str, str]) -> WorkList:
    """The lines of a step that proves features: each with the sizes it should have."""
    match step.cut[0] if step.cut else None:
        case SixFaces() as block:
            return _squared(step, block)
        case Cone() | TaperBore() as taper:
            return blued_list(step, taper, at.inch, ways)
        case Flanked() as flanked if flanked.undercut:
            return proved_dovetail(step, flanked, at, ways)
        case Slope() as slope:
            return _sloping(step, slope)
    whole = WorkLine("whole", step.title, step.figures, step.note)
    each = [line for feature in step.cut for line in _wanted(step, feature)]
    if len(each) == 1:
        line = each[0]
        figures = step.figures or line.figures
        return WorkList((replace(whole, figures=figures, note=step.note or line.note),))
    return WorkList((*each, whole))


def _within(
    step: StepTold,
    feature: Feature,
    measure: str,
    value: float,
    name: str = "",
    fine: float = 0.01,
) -> tuple[Shown, ...]:
    """A size of a feature, or what it may be from and to where it has limits of its
    own; name: where it is not the measure's; fine: how fine it is told where it has
    none, mm."""
    name = name or begun(measure)
    ends = step.limits.get(f"{feature.name}.{measure}")
    return from_to(name, *ends) if ends else (Shown(name, value, step=fine),)


def _wanted(step: StepTold, feature: Feature) -> Iterator[WorkLine]:
    """What is read of a feature, and how; nothing where it has no size of its own."""
    fine = 0.001 if step.close else 0.01  # of a size that others go on
    figures: tuple[Shown, ...]
    how = ""
    match feature:
        case Cylinder() | Bore():
            figures = (
                *_within(step, feature, "diameter", feature.diameter, "⌀", fine),
                *_within(step, feature, feature.along, feature.end - feature.start),
            )
            how = "Clean and cool, at three places, two ways across each."
        case Screw() | NutThread():
            figures = (
                Shown("Thread", thread_of(feature.thread).says, TEXT),
                Shown("Length", feature.end - feature.start),
            )
            how = "By hand, all along; where it binds, look for a burr at its start."
        case Flats():
            figures = (
                *_within(step, feature, "across", feature.across, "Across flats", fine),
                Shown("Length", feature.end - feature.start),
            )
            how = "Over every pair of flats, at both ends."
        case Rebate():
            figures = (
                *_within(step, feature, "width", feature.width),
                Shown("Depth", feature.depth),
            )
            if tongue := step.limits.get(f"{feature.name}.tongue"):
                figures += from_to("Tongue", *tongue)
        case Holes(hole=hole) if hole.ball and hole.depth is not None:
            figures = Shown("Ball ⌀", hole.diameter), Shown("Depth", hole.depth)
        case Holes(hole=hole) if not hole.thread:
            figures = (Shown("⌀", hole.diameter, step=fine),)
        case _:
            return
    yield WorkLine(feature.name, begun(spoken(feature.name)), figures, how)


def _squared(step: StepTold, block: SixFaces) -> WorkList:
    """A block: its corners first, then its three sizes."""
    figures = [
        _within(step, block, measure, getattr(block, measure))
        for measure in ("length", "width", "height")
    ]
    free = [figure.value for (figure, *more) in figures if not more]
    widths = [f"±{general_tolerance(float(size)):g} mm" for size in free]
    within = ", ".join(widths if len(set(widths)) > 1 else widths[:1])
    how = "Each at its four corners"
    how += f"; {within} where nothing else rules it." if free else "."
    return WorkList(
        (
            WorkLine(
                "square",
                "The square on every face",
                note=step.note
                or "No light under its blade, against the face that "
                "all others were made from.",
            ),
            WorkLine(
                "sizes",
                "Its three sizes",
                tuple(figure for both in figures for figure in both),
                how,
            ),
        )
    )


def _sloping(step: StepTold, slope: Slope) -> WorkList:
    """A slope: level again once slips of its sine lie under the low end."""
    answer = reckon("sine", {"angle": slope.angle, "length": slope.block[0]})
    figures = (
        Shown("Angle", slope.angle, ANGLE),
        Shown("Slips under its low end", float(answer["stack"]), step=0.001),
    )
    note = step.note or (
        "It rests on the edge of its high end, on a surface plate: the indicator then "
        "reads the same from end to end."
    )
    return WorkList((WorkLine("whole", step.title, figures, note),), (), (answer,))
