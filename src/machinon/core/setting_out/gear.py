"""A spur gear to be cut: its blank, its teeth, and what they are read over."""

import math
from typing import Any

from machinon.core.quantity import ANGLE, COUNT, INCH, LENGTH, MODULE, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, one_of, reckoning

# teeth that each cutter of a set of eight is for
CUTTERS = (12, 14, 17, 21, 26, 35, 55, 135)
DEPTH = 2.25  # modules; by diametral pitch 2.157 / DP, as its cutters have it
INCH_DEPTH = 2.157
# what cutters are sold for: ISO 54:1996, both series; diametral pitches as usual
MODULES = (
    *(0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1.0, 1.125, 1.25, 1.375, 1.5, 1.75, 2.0),
    *(2.25, 2.5, 2.75, 3.0, 3.5, 4.0, 4.5, 5.0, 5.5, 6.0, 7.0, 8.0, 9.0, 10.0),
)
PITCHES = (
    *(3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 14, 16, 18, 20, 22, 24, 26, 28, 30, 32, 36, 40),
    *(48, 64),
)
ALIKE = 0.015  # of itself that a measured module may be off


@reckoning(
    "gear",
    group="Holes, patterns and dividing",
    title="A spur gear: blank, depth and size over its teeth",
    usual={"teeth": 30, "module": 2, "mate": 45},
    usual_inch={"module": None, "dp": 12},
    given=(one_of("module", "dp", "outside"),),
    inputs=(
        Input("teeth", COUNT, "of the gear", low=6, high=500),
        Input("module", MODULE, "its module", default=None, above=0, high=50),
        Input("dp", NUMBER, "or its diametral pitch", default=None, above=0, high=200),
        Input("outside", LENGTH, "or as an old one measures", None, above=0, high=5000),
        Input("mate", COUNT, "teeth of the one it runs with", None, low=6, high=500),
        Input("pressure_angle", ANGLE, "of the teeth", 20.0, low=14, high=30),
    ),
    results=(
        Result("module", MODULE, "that it is cut by"),
        Result("dp", NUMBER, "the same as a diametral pitch"),
        Result("outside_diameter", LENGTH, "of the blank"),
        Result("pitch_diameter", LENGTH, "on which it rolls"),
        Result("depth", LENGTH, "of the whole tooth, from the outside"),
        Result("root_diameter", LENGTH, "at the floor of the teeth"),
        Result("cutter", TEXT, "of a set of eight"),
        Result("turn", ANGLE, "from tooth to tooth"),
        Result("span_teeth", COUNT, "that a micrometer spans"),
        Result("span", LENGTH, "over so many, without backlash"),
        Result("thickness", LENGTH, "of a tooth, straight across the pitch line"),
        Result("height", LENGTH, "from the outside down to there"),
        Result("centres", LENGTH, "from its axis to the mate's, without backlash"),
    ),
    sources=(
        "involute gears of standard height: outside = m (z + 2); depth 2.25 m "
        "(ISO 53:1998), 2.157 / DP for cutters by diametral pitch; span over k teeth = "
        "m cos a (π (k − 1/2) + z (tan a − a))",
    ),
)
def _gear(
    trail: Trail,
    teeth: int,
    module: float | None,
    dp: float | None,
    outside: float | None,
    mate: int | None,
    pressure_angle: float,
) -> dict[str, Any]:
    if outside is not None:
        module, dp = _usual(trail, outside, teeth)
    m = module
    if m is None:
        assert dp is not None
        m = trail.step("Module", f"25.4 / {dp:g}", INCH / dp)
    pitch = trail.step("Pitch diameter", f"{m:.6g} × {teeth}", m * teeth)
    over = trail.step("Outside", f"{m:.6g} × ({teeth} + 2)", m * (teeth + 2))
    modules = INCH_DEPTH if module is None else DEPTH
    depth = trail.step("Depth", f"{modules:g} × {m:.6g}", modules * m)
    a = math.radians(pressure_angle)
    # as many as are spanned near the pitch line
    k = max(round(teeth * pressure_angle / 180 + 0.5), 2)
    span = trail.step(
        f"Over {k} teeth",
        f"{m:.6g} × cos {pressure_angle:g}° × (π × {k - 0.5:g} + {teeth} × inv "
        f"{pressure_angle:g}°)",
        m * math.cos(a) * (math.pi * (k - 0.5) + teeth * (math.tan(a) - a)),
    )
    half = math.pi / 2 / teeth
    found: dict[str, Any] = {
        "module": m,
        "dp": dp or INCH / m,
        "outside_diameter": over,
        "pitch_diameter": pitch,
        "depth": depth,
        "root_diameter": trail.step(
            "Root", f"{over:.6g} − 2 × {depth:.6g}", over - 2 * depth
        ),
        "cutter": _cutter(teeth),
        "turn": trail.step("From tooth to tooth", f"360 / {teeth}", 360 / teeth, ANGLE),
        "span_teeth": k,
        "span": span,
        "thickness": trail.step(
            "Across a tooth",
            f"{pitch:.6g} × sin(90° / {teeth})",
            pitch * math.sin(half),
        ),
        "height": trail.step(
            "Down to there",
            f"{m:.6g} + {pitch / 2:.6g} × (1 − cos(90° / {teeth}))",
            m + pitch / 2 * (1 - math.cos(half)),
        ),
    }
    if mate is not None:
        found["centres"] = trail.step(
            "To the mate's axis",
            f"{m:.6g} × ({teeth} + {mate}) / 2",
            m * (teeth + mate) / 2,
        )
    if teeth < CUTTERS[0]:
        trail.cautions.append("Under 12 teeth the cutter undercuts them.")
    return found


def _usual(
    trail: Trail, outside: float, teeth: int
) -> tuple[float | None, float | None]:
    """The module or the diametral pitch that cutters are sold for and an outside, mm,
    is nearest to; the module as measured where it is near none."""
    read = trail.step(
        "Module as measured", f"{outside:g} / ({teeth} + 2)", outside / (teeth + 2)
    )
    module = min(MODULES, key=lambda one: abs(one - read))
    dp = min(PITCHES, key=lambda one: abs(INCH / one - read))
    by_module = abs(module - read) <= abs(INCH / dp - read)
    near = module if by_module else INCH / dp
    name, other = f"module {module:g}", f"diametral pitch {dp:g}"
    if not by_module:
        name, other = other, name
    if abs(near - read) > ALIKE * read:
        trail.cautions.append(
            "It is near no usual module or pitch: count again, or the teeth are "
            "stubbed or shifted."
        )
        return read, None
    trail.notes.append(
        f"Nearest to {name}, which would measure {near * (teeth + 2):.2f} mm; {other} "
        "is next. Worn tips read small."
    )
    return (module, None) if by_module else (None, float(dp))


def _cutter(teeth: int) -> str:
    """The teeth that its cutter is for: the sets are numbered in two ways."""
    at = max((n for n, least in enumerate(CUTTERS) if least <= teeth), default=0)
    least = CUTTERS[at]
    if at == len(CUTTERS) - 1:
        return f"for {least} teeth to a rack"
    return f"for {least} to {CUTTERS[at + 1] - 1} teeth"
