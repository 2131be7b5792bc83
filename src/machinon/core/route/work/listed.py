"""Chooses the lines of a step by its operation and features."""

from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.in_inches import in_inches
from machinon.core.piece.block_features import Flanked, SixFaces
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import Flats, Keyway, Slits
from machinon.core.piece.shown import Shown
from machinon.core.piece.turned_features import Bore, Cone, NutThread, Screw, TaperBore
from machinon.core.route.order import NO_METAL
from machinon.core.route.steps import StepTold
from machinon.core.route.work.along_axis import drilled_list, tapped_list
from machinon.core.route.work.by_hand import by_hand_list
from machinon.core.route.work.dovetails import dovetail_list
from machinon.core.route.work.holes import broach_list, cross_list, holes_list
from machinon.core.route.work.lines import Machines, Way, WorkLine, WorkList
from machinon.core.route.work.milling import squared_list, sunk_list
from machinon.core.route.work.on_a_round import flats_list, keyway_list, slits_list
from machinon.core.route.work.proving import proved_list
from machinon.core.route.work.tapers import taper_list
from machinon.core.route.work.threads import thread_list
from machinon.core.route.work.turning import ground_list, one_cut, passes_list


def work_list(
    step: StepTold, at: Machines | None = None, ways: Mapping[str, str] | None = None
) -> WorkList:
    """The lines of a step in millimetres. ways: choices made so far, by key."""
    try:
        found = by_hand_list(step, ways or {})
        found = found or _of_feature(step, at or Machines(), ways or {})
    except BadInput as error:
        # a piece whose checks fail is drawn all the same
        says = f"As it is drawn there are no figures for it: {error.message}"
        return WorkList((WorkLine("whole", step.title, (), says),))
    if found is not None:
        return found
    return WorkList((WorkLine("whole", step.title, step.figures, step.note),))


def note_besides(step: StepTold, found: WorkList) -> str:
    """What the note of a step says that none of its lines does; its drills are lines
    of their own."""
    said = step.note.partition("One after the other")[0].strip()
    return "" if any(said in line.note for line in found.lines) else said


def lines_in_inches(found: WorkList, fine: bool = False) -> WorkList:
    """Lines whose words speak of inches; their figures are shown in either unit.

    fine: of a step whose sizes are told to a tenth of a thou.
    """

    def figure(shown: Shown) -> Shown:
        value = in_inches(shown.value) if isinstance(shown.value, str) else shown.value
        return replace(shown, name=in_inches(shown.name), value=value)

    def line(line: WorkLine) -> WorkLine:
        return replace(
            line,
            head=in_inches(line.head, fine),
            figures=tuple(map(figure, line.figures)),
            note=in_inches(line.note),
            asks=(line.asks[0], in_inches(line.asks[1])),
        )

    def way(way: Way) -> Way:
        answers = tuple((key, in_inches(says)) for key, says in way.answers)
        return replace(way, asks=in_inches(way.asks), answers=answers)

    lines, ways = map(line, found.lines), map(way, found.ways)
    return replace(found, lines=tuple(lines), ways=tuple(ways))


def _of_feature(
    step: StepTold, at: Machines, ways: Mapping[str, str]
) -> WorkList | None:
    feature = step.cut[0] if step.cut else None
    if step.operation == "prove":
        return proved_list(step, at, ways)
    match feature:
        case Holes() if step.operation not in ("mark", "deburr"):
            return holes_list(step, feature, at, ways)
        case CrossHoles() if step.operation == "broach":
            return broach_list(step, feature)
        case CrossHoles() if step.operation not in ("mark", "deburr"):
            return cross_list(step, feature)
        case Screw() | NutThread() if step.operation == "thread":
            return thread_list(step, feature, at, ways)
        case Cone() | TaperBore() if step.operation in ("taper", "turn", "bore"):
            return taper_list(step, feature, at.inch, ways)
        case Keyway() if step.operation == "keyway":
            return keyway_list(step, feature)
        case Flats() if step.operation == "mill":
            return flats_list(step, feature, at, ways)
        case Flanked() if step.operation == "mill" and feature.undercut:
            return dovetail_list(step, feature, at, ways)
        case Slits() if step.operation == "saw":
            return slits_list(feature, at)
        case SixFaces() if step.operation == "square":
            return squared_list(step, feature)
        case NutThread() if step.operation == "tap":
            return tapped_list(step, feature)
        case Bore() | NutThread() | TaperBore() if step.operation == "drill":
            return drilled_list(step, feature, at.lathe)
    if step.operation in ("mill", "saw"):
        return sunk_list(step, at, ways)
    if step.operation == "grind":
        return ground_list(step, at)
    if step.operation in ("turn", "bore", "face", "groove"):
        passes = passes_list(step, at)
        if passes is not None:
            return passes
    return None if step.operation in NO_METAL else one_cut(step)
