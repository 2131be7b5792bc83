"""Operations: the kinds of work, with what each needs and what is said of it."""

from collections.abc import Mapping

from msgspec import Struct

from machinon.core.piece.block_features import Pocket, SawCuts, SixFaces, Slot
from machinon.core.piece.feature import Feature
from machinon.core.piece.milled_features import CrossSlot, Flats, Keyway, Slits

END_MILL, FACE_MILL, SAW = 20.0, 50.0, 80.0  # mm: cutters of a usual size
NAMED = ("end mill", "slot drill")  # are called by their size
BY_HAND = "saw and files"
CLEAR_OF = "Clamp it well; keep clear of the turning cutter."


class Operation(Struct, frozen=True):
    """A kind of work. machine_words: how the speeds are asked for; empty for none."""

    key: str
    verb: str
    tool: str
    speed: str = ""
    caution: str = ""


OPERATIONS: Mapping[str, Operation] = {
    operation.key: operation
    for operation in (
        Operation("mount", "Mount", "by hand"),
        Operation("face", "Face", "facing tool", "face"),
        Operation("turn", "Turn", "knife tool", "turn"),
        Operation("centre", "Centre-drill", "centre drill", "drill"),
        Operation(
            "drill",
            "Drill",
            "drill",
            "drill",
            "The drill grabs as it breaks through: ease the feed.",
        ),
        Operation("bore", "Bore", "boring bar", "bore"),
        Operation("ream", "Ream", "reamer", "ream", "Never turn a reamer backwards."),
        Operation(
            "thread",
            "Cut",
            "threading tool",
            "thread",
            "Never reach into a turning thread.",
        ),
        Operation("tap", "Tap", "tap"),
        Operation("groove", "Turn", "grooving tool", "part"),
        Operation("taper", "Turn the taper", "knife tool, compound set over", "turn"),
        Operation(
            "part",
            "Part off at",
            "parting tool",
            "part",
            "It jams and throws: slow, near the jaws, never catch it by hand.",
        ),
        Operation(
            "saw-off",
            "Saw off at",
            "saw, in its vise",
            "",
            "What it frees falls: hold it.",
        ),
        Operation("bevel", "Chamfer", "chamfer tool", "turn"),
        Operation(
            "knurl",
            "Knurl",
            "knurling wheels",
            "knurl",
            "It presses hard: support the work, keep fingers and rags away.",
        ),
        Operation(
            "grind",
            "Grind",
            "grinding wheel",
            "",
            "Ring-test the wheel, guard on, eyes covered; stand aside at the start.",
        ),
        Operation(
            "harden",
            "Harden and temper",
            "furnace or torch",
            "",
            "Hot steel and oil flare: gloves, face shield, a lid for the oil at hand.",
        ),
        Operation(
            "weld",
            "Weld",
            "welding set",
            "",
            "Eyes, skin and air: shield, gloves, a clear floor, no coated metal.",
        ),
        Operation(
            "press",
            "Press in",
            "arbor press",
            "",
            "Press square, guarded, within the press's rating.",
        ),
        Operation(
            "bond",
            "Bond",
            "compound, cloth, a stop",
            "",
            "Compounds irritate the skin: gloves, air, and the maker's sheet.",
        ),
        Operation(
            "broach",
            "Broach",
            "broach and bush",
            "",
            "It is brittle and flies: straight in, supported, out of the press's line.",
        ),
        Operation(
            "mill",
            "Mill",
            "end mill",
            "mill",
            CLEAR_OF,
        ),
        Operation("square", "Square up", "face mill", "mill", CLEAR_OF),
        Operation(
            "counterbore",
            "Counterbore",
            "counterbore",
            "countersink",
            "It grabs as it enters: clamp the work, and ease it in.",
        ),
        Operation("countersink", "Countersink", "countersink", "countersink"),
        Operation("keyway", "Cut", "slot drill", "mill", CLEAR_OF),
        Operation(
            "saw", "Saw", "slitting saw", "saw", "Hold both sides: no piece may fall."
        ),
        Operation(
            "deburr",
            "Break every edge, clean",
            "by hand",
            caution="Burrs cut: scrape away from the hand.",
        ),
        Operation("mark", "Mark out", "height gauge"),
        Operation("other", "Do", "by hand"),
        Operation("prove", "Prove", "gauge or mate"),
    )
}


def cutter_of(feature: Feature) -> float:
    """Width of the cutter that mills or saws a feature; 0 where it is none of its
    own."""
    match feature:
        case SawCuts() | Slits():
            return SAW
        case SixFaces():
            return FACE_MILL
        case Slot() if feature.sawn:
            return SAW
        case Slot() | CrossSlot():
            return min(feature.width, END_MILL)
        case Keyway():
            return feature.width
        case Pocket():
            (a, b), (c, d) = feature.low, feature.high
            return min(2 * feature.radius or END_MILL, c - a, d - b)
        case Flats():
            return END_MILL
    return 0.0
