"""Carriage stop: clamped on the vee of a lathe's bed, its screw stops the carriage."""

import math
from collections.abc import Iterable

from machinon.core.families._plates import plate
from machinon.core.piece.family import (
    Check,
    Holding,
    Mate,
    MateSize,
    Step,
    Values,
    at_least,
)
from machinon.core.quantity import ANGLE


def _bears(s: Values) -> tuple[float, float]:
    """The two heights between which the groove bears on the bed's flanks: from its
    floor at their top, and from its mouth at their foot; mm.

    The groove and the vee have one angle, and lie together along their flanks.
    """
    half = math.radians(s["bed.angle"] / 2)
    deep = s["vee1.width"] / 2 / math.tan(half)
    sharp = s["bed.crest"] / 2 / math.tan(half)  # what is missing of its sharp top
    return sharp, deep - sharp


def checks(s: Values) -> Iterable[Check]:
    if "vee1" not in s["parts"]:
        return
    clear, bears = _bears(s)
    yield Check(
        "angle",
        "vee1",
        abs(s["vee1.angle"] - s["bed.angle"]) < 0.25,
        f"The groove has {s['vee1.angle']:g}°, the bed {s['bed.angle']:g}°: else it "
        "rocks on an edge.",
    )
    yield at_least(
        "over-the-crest",
        "vee1",
        clear,
        0.3,
        "Gap over the bed's crest: it must bear on the flanks alone",
    )
    yield at_least(
        "bears",
        "vee1",
        min(bears, s["bed.height"]),
        0.5 * s["bed.height"],
        "Flanks that bear (half of the bed's vee)",
    )
    yield at_least(
        "carriage-passes",
        "block",
        s["bed.room"] - s["block.height"],
        1.0,
        "Room under what passes over it",
        grave=False,
    )
    if "hole1" in s["parts"]:
        deep = s["vee1.width"] / 2 / math.tan(math.radians(s["vee1.angle"] / 2))
        up = s["hole1.from_front"]
        yield at_least(
            "screw-clear",
            "hole1",
            s["block.height"] - deep - up,
            4.0,
            "Metal between the stop screw's axis and the groove",
        )


FAMILY = plate(
    "carriage-stop",
    "Carriage stop",
    "Clamped on the vee of the bed: a fine screw that the carriage runs up to.",
    "60 × 60 × 40 on a bed vee of 90°, 12 high with a flat of 3",
    "bed stop micrometer vee lathe bedstop depth shoulder",
    ("vee1", "hole1", "holes1", "edge1"),
    {
        "block.length": "60",
        # land on both sides of the groove for the screws
        "block.width": "max(60, up(vee1.width + 37, 1))",
        "block.height": "min(40, down(bed.room - 2, 1))",
        "vee.runs": "along",
        "vee.at": "block.width/2",
        "vee.angle": "bed.angle",
        "vee.width": "up(bed.crest + 1.6*bed.height, 0.5)",
        "hole.face": "right",
        "hole.screw": "M10",
        "hole.from_side": "block.width/2",
        "hole.from_front": "12",
        "hole.depth": "35",
        "holes.face": "bottom",
        "holes.across": "2",
        "holes.up": "2",
        "holes.screw": "M6",
        "holes.from_side": "12",
        "holes.from_front": "9.5",
    },
    mates=(
        Mate("bed", "the bed it goes on", (
            MateSize("angle", "angle of its vee, flank to flank", 90.0, kind=ANGLE,
                     least=20),
            MateSize("crest", "flat on top of its vee", 3.0, ("width", "thickness")),
            MateSize("height", "height of its vee", 12.0,
                     ("depth", "length", "shoulder")),
            MateSize("room", "from the bed's flat to what passes over it", 60.0),
        )),
    ),
    checks=checks,
    after=(
        Holding(
            "transfer",
            "bench",
            "On its bed, the plate that clamps it held against it",
            "What is marked from the stop itself fits it, wherever its holes came out.",
            (
                Step("mark", (), key="transfer", tool="punch, or pointed screws",
                     title="Transfer its holes to the plate that clamps it",
                     note="A punch that fits them; in tapped holes pointed screws that "
                     "stand out a little: pressed on, each pricks its own "
                     "middle."),
            ),
        ),
    ),
    ways=({"bed.angle": "70", "bed.crest": "4"},),
)  # fmt: skip
