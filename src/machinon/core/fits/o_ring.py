"""The groove of an O-ring: how far its cord is pressed, and the room it needs."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, LENGTH, PERCENT
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

FILLED = {"still": 0.72, "moving": 0.68}  # of the groove: rubber swells; shop rules
STRETCHED = 1.03  # times its own inside, in a groove outside; from 1 to 5 % will do
LEAD_IN = 15.0  # degrees of the chamfer over which it slips in


def squeeze_of(cord: float, kind: str) -> float:
    """Share of a cord (mm) that its groove presses it: `still`, `moving` or `face`;
    between the cords of the table in proportion."""
    import numpy as np  # when it is first needed: the window does not wait for it

    table = rows("o_ring_squeeze")
    cords = [float(row["cord_mm"]) for row in table]
    shares = [float(row[f"{kind}_percent"]) for row in table]
    return float(np.interp(cord, cords, shares)) / 100


@reckoning(
    "o-ring-groove",
    group="Fits and materials",
    title="The groove of an O-ring",
    usual={"cord": 2.62, "diameter": 30},
    usual_inch={"cord": 0.103 * INCH},
    inputs=(
        Input("cord", LENGTH, "thickness of the ring", low=0.5, high=20),
        Input("diameter", LENGTH, "that it seals on; a face's groove outside", above=0),
        Input(
            "where",
            TEXT,
            "the groove: on a piston in its bore, in a bore round its rod, in a face",
            "piston",
            choices=("piston", "bore", "face"),
        ),
        Input("motion", TEXT, "what it does", "still", choices=tuple(FILLED)),
    ),
    results=(
        Result("squeeze", PERCENT, "of its cord"),
        Result("depth", LENGTH, "from the floor to what it seals on"),
        Result("groove_diameter", LENGTH, "of the floor; of a face the outside"),
        Result("width", LENGTH, "of the groove"),
        Result("filled", PERCENT, "of the groove by the ring"),
        Result("ring_inside", LENGTH, "of the ring to look for"),
        Result("lead_in", LENGTH, "long, at 15°, over which it slips in"),
    ),
    sources=(
        "usual shop figures for rubber of 70 Shore: squeeze by the cord; the ring "
        "fills 72 % of its groove, 68 % where it moves",
    ),
)
def _o_ring_groove(
    trail: Trail, cord: float, diameter: float, where: str, motion: str
) -> dict[str, Any]:
    if where == "face" and motion == "moving":
        raise BadInput("motion", "In a face it lies still.")
    share = squeeze_of(cord, "face" if where == "face" else motion)
    trail.step("Squeeze", "by the cord, in the table", share * 100, PERCENT)
    depth = trail.step("Depth", f"{cord:g} × (1 − {share:.4g})", cord * (1 - share))
    section = math.pi / 4 * cord**2
    fill = FILLED[motion]
    width = trail.step(
        "Width",
        f"π / 4 × {cord:g}² / ({fill:g} × {depth:.4g})",
        section / (fill * depth),
    )
    least = {"piston": 2 * depth, "bore": 0.0, "face": 2 * width}[where]
    if diameter <= least:
        raise BadInput("diameter", f"Over {least:.3g} mm, or no groove goes into it.")
    lead_in = {}
    if where == "face":
        floor = diameter
        inside = trail.step("Ring", f"{diameter:g} − 2 × {cord:g}", diameter - 2 * cord)
        trail.notes.append(
            "For pressure from inside: the ring lies against the groove's outside."
        )
    else:
        out = 1 if where == "bore" else -1
        floor = trail.step(
            "Groove",
            f"{diameter:g} {'+' if out > 0 else '−'} 2 × {depth:.4g}",
            diameter + out * 2 * depth,
        )
        inside = (
            trail.step("Ring", "as its rod", diameter)
            if where == "bore"
            else trail.step("Ring", f"{floor:.4g} / {STRETCHED:g}", floor / STRETCHED)
        )
        lead_in["lead_in"] = trail.step(
            "Lead-in",
            f"({cord:g} − {depth:.4g}) / tan {LEAD_IN:g}",
            (cord - depth) / math.tan(math.radians(LEAD_IN)),
        )
    trail.notes.append(
        "Corners of the floor 0.2 to 0.4 mm round, edges broken, sides square, the "
        "floor and what slides on it smooth: Ra 1.6 µm still, 0.4 µm moving. Grease it."
    )
    trail.cautions.append(
        "The ring's maker says which rubber bears the oil, the heat and the pressure; "
        "pressure work is the business of qualified people."
    )
    return {
        "squeeze": share * 100,
        "depth": depth,
        "width": width,
        "groove_diameter": floor,
        "filled": fill * 100,
        "ring_inside": inside,
        **lead_in,
    }
