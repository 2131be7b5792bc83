"""The notes of a sheet: at holes, and for sizes that no line can show."""

from collections.abc import Collection, Container, Mapping, Sequence
from typing import NamedTuple

from machinon.core.in_inches import in_inches
from machinon.core.piece.block_features import (
    CornerRounds,
    EdgeBevels,
    Flanked,
    MaleDovetail,
    Pocket,
    RoundSeat,
    Slot,
)
from machinon.core.piece.family import spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import Arc, CrossHoles, Grid, Holes, least_turn
from machinon.core.piece.hole_features import HoleCircle as HoleCircle
from machinon.core.piece.made import Made
from machinon.core.piece.milled_features import Flats, Keyway
from machinon.core.piece.turned_features import Bevel, Centre, EdgeRound, Knurl, Sloping
from machinon.core.quantity import trimmed
from machinon.draw.sheet_figures import (
    SheetFigure,
    feature_of,
    following_said,
    length_said,
    lost_round,
)

# how a measure is said that has no line of its own
SAID = {
    "count": "{} ×",
    "across": "{} across",
    "width": "{} wide",
    "depth": "{} deep",
    "pitch": "pitch {}",
    "neck": "neck {}",
    "head": "head {}",
    "height": "{} high",
    "lip": "lips {}",
    "pins": "{} between pins",
    "half_angle": "{} to the axis",
    "angle": "{} between flanks",
    "lean": "{} to the base",
    "rise": "{} high",
    "arc": "arc of radius {}",
    "reach": "{} round the nut",
    "radius": "R{}",
    "length": "{} between its ends",
    "turn": "turned {}",
}


class Note(NamedTuple):
    """A note at a feature, and the keys of the sizes in it."""

    feature: str
    text: str
    keys: list[str]


def notes_of(
    made: Made, figures: Mapping[str, SheetFigure], keys: Collection[str], inch: bool
) -> list[Note]:
    """The note of each feature that has sizes among `keys`."""
    by_feature: dict[str, list[str]] = {}
    for key in keys:
        place = made.sizes[key].size.drawn_at
        by_feature.setdefault(feature_of(place), []).append(key)
    found = []
    for name, said in by_feature.items():
        holes = made.body.feature(name)
        if isinstance(holes, Holes):
            text = holes.hole.says(len(holes.points))
            if isinstance(holes.pattern, HoleCircle | Arc):
                text += f" on ⌀{holes.pattern.diameter:g}"
            if isinstance(holes.pattern, Arc) and holes.many > 1:
                text += f", {holes.pattern.pitch:g}° apart"
            begin = [figures[key].text for key in said if key.endswith(".start")]
            text += f", the first at {begin[0]}" if begin else ""
            text += _turned(made, holes)
            text += f", {holes.leaning}" if holes.lean else ""
            text += "".join(f", then {lean:.1f}° aslant" for lean in holes.leans[1:])
        elif isinstance(holes, CrossHoles):
            text = holes.hole.says(_alike(made, holes, by_feature))
            text += f", {holes.apart:g}° apart" if holes.apart else ""
            if any(key.endswith(".start") for key in said):
                text += _round_from(made, holes)
        elif (told := _told_short(holes)) is not None:
            measure, words = told
            key = next((k for k in said if k.endswith(f".{measure}")), "")
            text = words.format(figures[key].text if key else spoken(name))
        else:
            text = _measures(made, figures, name, said, inch)
        if inch and isinstance(holes, Holes | CrossHoles):
            text = in_inches(text)
        if isinstance(holes, Holes):
            text += _apart(holes, inch)
        text += "".join(f" ({s})" for key in said if (s := figures[key].small))
        found.append(Note(name, text, said))
    return found


def _told_short(feature: Feature) -> tuple[str, str] | None:
    """The measure of a feature that is written, and the words about it; empty for one
    that is only named. None for what is told by all its measures."""
    match feature:
        case EdgeBevels():
            return "leg", f"{feature.called} {{}} × 45°"
        case Bevel():
            return "leg", f"{{}} × {feature.angle:g}°"
        case Centre():
            return "mouth", "centre ⌀{}"
        case EdgeRound():
            return "radius", "R{}"
        case CornerRounds():
            return "radius", "corners R{}"
        case RoundSeat():
            return "diameter", f"{spoken(feature.name)}: round ⌀{{}}"
        case Slot() if not feature.turn:
            ends = "round ends" if feature.rounded else "from end to end"
            return "", f"{{}}: {ends}{', through' if feature.through else ''}"
    return None


def _alike(made: Made, holes: CrossHoles, written: Container[str]) -> int:
    """Number of like cross holes without a note of their own."""
    others = (
        other.count
        for other in made.body.features
        if isinstance(other, CrossHoles)
        and (other.hole, other.angle) == (holes.hole, holes.angle)
        and other.name not in written
    )
    return holes.count + sum(others)


def _round_from(made: Made, holes: CrossHoles) -> str:
    """Turn of its holes from the first keyway, flat or other hole from the side."""
    kinds = Keyway, Flats, CrossHoles
    for other in made.body.features:
        if isinstance(other, kinds) and other.name != holes.name:
            turned = least_turn(holes.angles, other.angles)
            return f", {turned:g}° from {spoken(other.name)}" if turned else ""
    return ""


def _turned(made: Made, holes: Holes) -> str:
    """Turn of its holes from those of the first other circle."""
    if holes.block is not None:
        return ""
    first = next(f for f in made.body.features if isinstance(f, Holes))
    turned = least_turn(holes.angles, first.angles)
    return f", {turned:g}° from the {spoken(first.name)}" if turned else ""


def _apart(holes: Holes, inch: bool) -> str:
    """Distance of holes in rows: only the first has lines."""
    grid = holes.pattern
    if not isinstance(grid, Grid):
        return ""
    ways = ((grid.across, grid.pitch_across), (grid.up, grid.pitch_up))
    steps = [length_said(pitch, inch) for many, pitch in ways if many > 1]
    return f", {' × '.join(steps)} apart" if steps else ""


def _measures(
    made: Made,
    figures: Mapping[str, SheetFigure],
    name: str,
    keys: Sequence[str],
    inch: bool,
) -> str:
    """The note of a feature that is no hole: `slits: 3 × 1.5 wide`."""
    said = {}
    for key in keys:
        measure = made.sizes[key].size.drawn_at.partition(".")[2]
        said[measure] = SAID.get(measure, "{}").format(figures[key].text)
    for shown in ("face", "runs", "form"):
        said.pop(shown, None)
    feature = made.body.feature(name)
    count = f"{said.pop('count')} " if "count" in said else ""
    if isinstance(feature, Sloping) and "taper" in said:
        by = f"{said['taper']}, " if feature.taper else ""
        half = trimmed(f"{feature.half_angle:.3f}")
        said["taper"] = f"{by}{half}° a side"
    if isinstance(feature, Pocket) and "depth" in said:
        said["depth"] = "through"  # its depth has a line where it has a floor
    if isinstance(feature, Slot):
        if not feature.rounded:
            said.pop("from_end", None)
            said["length"] = "from end to end"
        if feature.through:
            said["depth"] = "through"
    if isinstance(feature, Knurl):
        said["pitch"] += ", crossed" if feature.crossed else ", straight"
    if isinstance(feature, Flats):
        many = "1 flat" if feature.count == 1 else f"{feature.count} flats"
        told = [text.replace("across", feature.says) for text in said.values()]
        if wide := lost_round(made, feature):
            told.append(f"from ⌀{following_said(wide, inch)}")
        return ", ".join((many, *told))
    if isinstance(feature, Flanked) and "pins" in said:
        said.pop("angle", None)  # it stands to the floor, and is said with the pins
        pin, flank = length_said(feature.pin, inch), 90 - feature.half_angle
        if isinstance(feature, MaleDovetail):
            said["pins"] = said["pins"].replace("between", "over")
        said["pins"] += f" of ⌀{pin}, flanks at {flank:g}°"
    return f"{spoken(name)}: {count}{', '.join(said.values())}"
