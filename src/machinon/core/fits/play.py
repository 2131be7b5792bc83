"""How two parts that were both measured go together."""

import math
from typing import Any

from machinon.core.quantity import ANGLE, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes import limits
from machinon.core.sizes.fit import wanted_play, words_for

SAID_BY = ("shaft",)  # the joint whose words tell how free a fit is
NOT_SAID = ("goes-on", "reamed")  # what these are for is no measure of their play
JAMS = 0.01  # of the size: a shaft larger by this does not go in by any force


@reckoning(
    "play",
    group="Fits and materials",
    title="The play of two measured parts",
    usual={"hole": [20.013], "shaft": [19.985], "uncertainty": 0.003, "length": 30},
    inputs=(
        Input("hole", LENGTH, "readings of the hole", above=0, high=3000, many=True),
        Input("shaft", LENGTH, "readings of the shaft", above=0, high=3000, many=True),
        Input("uncertainty", LENGTH, "of each (2 sigma)", default=0.0, low=0, high=1),
        Input(
            "length",
            LENGTH,
            "on which they guide each other",
            default=None,
            above=0,
            high=3000,
        ),
    ),
    results=(
        Result("play", LENGTH, "on the diameter; negative: interference"),
        Result("least", LENGTH, "that it may be"),
        Result("most", LENGTH, "that it may be"),
        Result("offset", LENGTH, "how far one lies off the other's middle at most"),
        Result("tilt", ANGLE, "how far one leans in the other at most"),
        Result("like", TEXT, "the words that it comes nearest to"),
    ),
    sources=(
        "play = hole − shaft; two uncertainties add up as the root of their squares; "
        "the words by the zones that they stand for, ISO 286-1:2010",
    ),
)
def _play(
    trail: Trail,
    hole: tuple[float, ...],
    shaft: tuple[float, ...],
    uncertainty: float,
    length: float | None,
) -> dict[str, Any]:
    bore = trail.step("The hole", f"mean of {len(hole)}", sum(hole) / len(hole))
    round_ = trail.step("The shaft", f"mean of {len(shaft)}", sum(shaft) / len(shaft))
    play = trail.step("Play", f"{bore:.4f} − {round_:.4f}", bore - round_)
    doubt = math.sqrt(2) * uncertainty
    low = trail.step(
        "Least",
        f"{min(hole):.4f} − {max(shaft):.4f} − √2 × {uncertainty:g}",
        min(hole) - max(shaft) - doubt,
    )
    high = trail.step(
        "Most",
        f"{max(hole):.4f} − {min(shaft):.4f} + √2 × {uncertainty:g}",
        max(hole) - min(shaft) + doubt,
    )
    room = max(high, 0.0)
    found = {
        "play": play,
        "least": low,
        "most": high,
        "offset": trail.step("Off the middle", f"{room:.4f} / 2", room / 2),
        "like": _like(bore, play),
    }
    if length is not None:
        found["tilt"] = trail.step(
            "It leans by",
            f"atan({room:.4f} / {length:g})",
            math.degrees(math.atan(room / length)),
            ANGLE,
        )
    if low < 0 < high:
        trail.cautions.append(
            "It may have play or may be tight: measure closer, or try one in the other."
        )
    return found


def _like(size: float, play: float) -> str:
    """The words of a shaft's fit that a play comes nearest to; mm."""
    if -play > JAMS * size:
        return "does not go in: the shaft is far larger than the hole"
    if size > limits.LARGEST:
        return "play" if play > 0 else "interference"
    scale = {
        character.words: wanted_play(character.key, size, "hole")
        for joint in SAID_BY
        for character in words_for(joint)  # type: ignore[arg-type]
        if character.key not in NOT_SAID
    }
    loosest = max(wanted.most for wanted in scale.values())
    if play > 2 * loosest:
        return "looser than anything that is to fit"
    if play < 2 * min(wanted.least for wanted in scale.values()):
        return "tighter than a press: shrink it on, or take more off"
    return min(
        scale,
        key=lambda words: abs(play - (scale[words].least + scale[words].most) / 2),
    )
