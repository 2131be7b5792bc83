"""Short-taper spindle noses whose chucks are drawn home by studs and cams."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

RATIO = 0.25  # of every short taper of these noses, on the diameter


@reckoning(
    "cam-nose",
    group="Tapers",
    title="A spindle nose with cams and studs, by its size",
    usual={"size": 4},
    inputs=(Input("size", COUNT, "4 for a D1-4", low=1, high=30),),
    results=(
        Result("taper", LENGTH, "at the flange: two noses of a size are alike"),
        Result("half_angle", ANGLE, "of the taper, to which a slide is set"),
        Result("flange", LENGTH, "outside of the spindle's flange"),
        Result("studs", COUNT, "how many draw the chuck home"),
        Result("circle", LENGTH, "on which they stand"),
        Result("span", LENGTH, "middle to middle of two neighbours"),
        Result("stud_metric", TEXT, "thread of a metric stud"),
        Result("stud_inch", TEXT, "thread of an inch stud"),
    ),
    sources=("ISO 702-2:2007", "ANSI B5.9-1967"),
)
def _cam_nose(trail: Trail, size: int) -> dict[str, Any]:
    known = {int(row["size"]): row for row in rows("cam_noses")}
    if size not in known:
        sizes = ", ".join(map(str, known))
        raise BadInput("size", f"There is no nose of size {size} here: {sizes}.")
    row = known[size]
    circle, studs = float(row["circle_mm"]), int(row["studs"])
    half = trail.step(
        "Half angle", "atan(1/4 / 2)", math.degrees(math.atan(RATIO / 2)), ANGLE
    )
    span = trail.step(
        "From stud to stud",
        f"{circle:g} × sin(180° / {studs})",
        circle * math.sin(math.pi / studs),
    )
    trail.notes.append(
        "Bore the taper to your own nose: by hand it stands a hair off the flange, and "
        "the cams draw it home. Each must lock between its two marks; where it goes "
        "past, that stud is a turn too far out."
    )
    return {
        "taper": float(row["taper_mm"]),
        "half_angle": half,
        "flange": float(row["flange_mm"]),
        "studs": studs,
        "circle": circle,
        "span": span,
        "stud_metric": row["stud_metric"],
        "stud_inch": row["stud_inch"],
    }
