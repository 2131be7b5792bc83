"""An eccentric turned in a three-jaw chuck: packing under one of its jaws."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, length_text
from machinon.core.reckoning import Input, Result, Trail, reckoning

ASIDE = math.sin(math.radians(60))  # of the throw: how far it puts the bar off a jaw
MOST = 0.35  # of the bar's diameter: with more throw the jaws no longer close round it


@reckoning(
    "eccentric-packing",
    group="Setting up",
    title="Packing under one jaw, to turn an eccentric",
    usual={"throw": 3, "diameter": 30, "jaw": 4},
    inputs=(
        Input("throw", LENGTH, "of the eccentric: its axis off the bar's", above=0),
        Input("diameter", LENGTH, "of the bar in the jaws", above=0),
        Input("jaw", LENGTH, "width of a jaw's face; else wide", None, low=0, high=100),
        Input("reads", LENGTH, "an indicator, least to most, so packed", None, above=0),
    ),
    results=(
        Result("packing", LENGTH, "under one jaw"),
        Result("indicator", LENGTH, "reads then on the bar, least to most"),
        Result("corrected", LENGTH, "packing instead, by what it read"),
    ),
    sources=(
        "geometry of three jaws at 120°: 1.5 × the throw where their faces bear flat, "
        "less what the bar goes in between narrower ones",
        f"a throw of up to {MOST:g} of the bar's diameter, a shop rule",
    ),
)
def _eccentric_packing(
    trail: Trail,
    throw: float,
    diameter: float,
    jaw: float | None,
    reads: float | None,
) -> dict[str, Any]:
    most = MOST * diameter
    if throw > most:
        raise BadInput(
            "throw",
            f"Up to {length_text(most, 0.1)} is allowed in a bar of {diameter:g} mm: "
            "turn more between centres of its own.",
        )
    radius = diameter / 2
    # a jaw narrower than that bears with a corner, and closes further on the bar
    past = 0.0 if jaw is None else max(ASIDE * throw - jaw / 2, 0.0)
    packing = trail.step("Faces that bear flat", f"1.5 × {throw:g}", 1.5 * throw)
    if past:
        further = trail.step(
            "Narrow ones close further",
            f"{radius:g} − √({radius:g}² − ({ASIDE:.4f} × {throw:g} − {jaw:g} / 2)²)",
            _further(radius, past),
        )
        packing = trail.step(
            "Packing", f"{packing:.4f} − {further:.4f}", packing - further
        )
    elif jaw is None:
        trail.notes.append(
            f"Narrow jaws want up to {_further(radius, ASIDE * throw):.3f} mm less: "
            "give the width of their faces, or go by what the indicator reads."
        )
    found = {
        "packing": packing,
        "indicator": trail.step("The indicator", f"2 × {throw:g}", 2 * throw),
    }
    if reads is not None:
        found["corrected"] = trail.step(
            "Packing instead",
            f"{packing:.4f} + 1.5 × ({throw:g} − {reads:g} / 2)",
            packing + 1.5 * (throw - reads / 2),
        )
        if found["corrected"] <= 0:
            raise BadInput(
                "reads",
                f"It should read {2 * throw:g} mm, and that is twice as much: read it "
                "again.",
            )
    trail.cautions.append(
        "It turns out of balance and sweeps wider: turn it round by hand first, begin "
        "slow, and see that the packing is gripped along the whole jaw."
    )
    return found


def _further(radius: float, past: float) -> float:
    """How much further corners close on a round that stands past them, mm."""
    return radius - math.sqrt(radius**2 - past**2)
