"""Vee block: carries a round in a vee while it is drilled or measured."""

from collections.abc import Iterable

from machinon.core.families._plates import plate, touches
from machinon.core.piece.family import Check, Mate, MateSize, Values, at_least


def checks(s: Values) -> Iterable[Check]:
    if "vee1" not in s["parts"]:
        return
    for size in ("least", "largest"):
        wide = s[f"rounds.{size}"]
        deep, low = touches(s["vee1.width"], s["vee1.angle"], wide)
        yield Check(
            f"{size}-in-vee",
            "vee1",
            0.05 * deep <= low <= 0.95 * deep,
            f"A round of ⌀{wide:g} touches {low:.2f} mm below the mouth of a "
            f"vee {deep:.2f} mm deep; it must touch well inside.",
            have=low,
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
        "block.length": "up(2*rounds.largest, 5)",
        "block.width": "up(1.5*rounds.largest, 5)",
        "block.height": "up(1.25*rounds.largest, 5)",
        "vee.width": "round(1.1*rounds.largest, 0.5)",
        "slot.face": "front|back",
        "slot.at": "round(block.height/3, 1)",
        "slot.depth": "up(block.width/10, 1)",
        "slot.width": "up(block.height/5, 1)",
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
