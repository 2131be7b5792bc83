"""Vee block: carries a round in a vee while it is drilled or measured."""

import math
from collections.abc import Iterable

from machinon.core.families._plates import plate
from machinon.core.piece.family import Check, Mate, MateSize, Values, at_least


def checks(s: Values) -> Iterable[Check]:
    if "vee1" not in s["parts"]:
        return
    half = math.radians(s["vee1.angle"] / 2)
    deep = s["vee1.width"] / 2 / math.tan(half)
    for size in ("least", "largest"):
        radius = s[f"rounds.{size}"] / 2
        touches = deep - radius * math.cos(half) ** 2 / math.sin(half)
        yield Check(
            f"{size}-in-vee",
            "vee1",
            0.05 * deep <= touches <= 0.95 * deep,
            f"A round of ⌀{2 * radius:g} touches {touches:.2f} mm below the mouth of a "
            f"vee {deep:.2f} mm deep; it must touch well inside.",
            have=touches,
            need=0.05 * deep,
        )
    yield at_least(
        "foot",
        "block",
        s["block.width"],
        s["rounds.largest"],
        "Foot as wide as the largest round, so that it does not tip",
        grave=False,
    )


FAMILY = plate(
    "vee-block",
    "Vee block",
    "Carries a round in its vee, square to its foot, for drilling and measuring.",
    "80 × 60 × 50 for rounds of 12 to 40 mm",
    "support angle jig packing prism round holding drilling marking",
    ("vee1", "slot1", "slot2", "edge1"),
    {
        "block.length": "80",
        "block.width": "60",
        "block.height": "50",
        "vee.width": "44",
        "slot.face": "front|back",
        "slot.at": "round(block.height/3, 1)",
        "slot.depth": "6",
        "slot.width": "10",
    },
    mates=(
        Mate("rounds", "the rounds it carries", (
            MateSize("least", "thinnest", 12.0),
            MateSize("largest", "thickest", 40.0),
        )),
    ),
    checks=checks,
    ways=({"slot1.length": "30", "slot2.length": "30"},),
)  # fmt: skip
