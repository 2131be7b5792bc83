"""Keeper: a plate with a vee that holds a round down, screwed by counterbored holes."""

from collections.abc import Iterable

from machinon.core.families._plates import plate, touches
from machinon.core.piece.family import Check, Mate, MateSize, Values, at_least
from machinon.core.setting_out.arcs_and_vees import over_vee

GAP = 0.25  # mm that is left under it once it presses; shop rule


def checks(s: Values) -> Iterable[Check]:
    if "vee1" not in s["parts"]:
        return
    deep, low = touches(s["vee1.width"], s["vee1.angle"], s["round.diameter"])
    axis, _ = over_vee(s["round.diameter"], s["vee1.angle"])
    yield Check(
        "round-in-vee",
        "vee1",
        0.1 * deep <= low <= 0.9 * deep,
        f"A round of ⌀{s['round.diameter']:g} touches the vee {low:.2f} mm below "
        f"its mouth; between a tenth and nine tenths of {deep:.2f} mm is wanted.",
        have=low,
        need=0.1 * deep,
    )
    goes_in = s["round.diameter"] / 2 + deep - axis
    yield at_least(
        "presses",
        "vee1",
        s["round.stands"] - goes_in,
        0.05,
        "Gap under the keeper once it presses the round: else it seats and holds "
        "nothing",
    )


FAMILY = plate(
    "keeper",
    "Vee keeper",
    "Holds a round down in its seat: a vee, and two counterbored screws.",
    "60 × 30 × 24 over a round of 20 mm",
    "clamp vee cap strap bearing keeper bar holder",
    ("vee1", "holes1", "edge1"),
    {
        "block.length": "up(max(3*round.diameter, 1.2*round.diameter + 36), 1)",
        "block.width": "up(max(1.5*round.diameter, 18), 1)",
        "block.height": "up(max(1.2*round.diameter, 15), 1)",
        "vee.runs": "across",
        "vee.at": "block.length/2",
        "vee.width": (
            f"round(2*tan({{}}.angle/2)*(round.stands - {GAP} - round.diameter/2"
            " + round.diameter/2/sin({}.angle/2)), 0.1)",
            "so deep that the keeper presses before it seats",
        ),
        "holes.face": "bottom",
        "holes.up": "1",
        "holes.screw": "M6",
        "holes.from_side": "up((block.length - 1.2*round.diameter)/4, 0.5)",
        "holes.from_front": "block.width/2",
        "holes.across": "2",
    },
    mates=(
        Mate("round", "the round it holds", (
            MateSize("diameter", "its diameter", 20.0, ("shaft",)),
            MateSize("stands", "height over its seat's face", 8.0,
                     ("length", "shoulder")),
        )),
    ),
    checks=checks,
)  # fmt: skip
