"""Inch limits and fits: the standard fits of ANSI B4.1 by name."""

import functools
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import INCH, LENGTH
from machinon.core.reckoning import TEXT, Input, Trail, reckoning
from machinon.core.sizes.limits import FIT_RESULTS, kind_of_fit
from machinon.core.tables import rows

LARGEST = 12.41 * INCH  # where the table kept here ends
SOURCE = "ANSI B4.1-1967 (R2009), basic hole"


class InchFit(Struct, frozen=True):
    """One line of the table: a range of sizes and its limits, mm."""

    above: float
    to: float
    hole_upper: float
    shaft_upper: float
    shaft_lower: float


@functools.cache
def inch_fits() -> Mapping[str, tuple[InchFit, ...]]:
    """Every fit kept here, its ranges rising."""
    table: dict[str, list[InchFit]] = {}
    for r in rows("inch_fits"):
        table.setdefault(r["fit"], []).append(
            InchFit(
                float(r["above_in"]) * INCH,
                float(r["to_in"]) * INCH,
                *(
                    float(r[key]) / 1000 * INCH
                    for key in (
                        "hole_upper_thou",
                        "shaft_upper_thou",
                        "shaft_lower_thou",
                    )
                ),
            )
        )
    return {fit: tuple(lines) for fit, lines in table.items()}


def inch_fit(nominal: float, fit: str) -> InchFit:
    """The limits of a fit at a nominal, mm. Raises BadInput on `nominal` or `fit`.

    >>> round(inch_fit(25.4, "RC4").shaft_upper / 0.0254, 3)
    -0.8
    """
    known = inch_fits()
    name = fit.strip().upper().replace(" ", "")
    if name not in known:
        raise unknown("fit", fit, known)
    lines = known[name]
    for line in lines:
        # the printed ranges meet at sizes no one uses as a nominal
        if line.above < nominal <= line.to + 1e-9:
            return line
    raise BadInput(
        "nominal",
        f"{nominal / INCH:g} in is outside the table for {name}: above "
        f"{lines[0].above / INCH:g} in and up to {lines[-1].to / INCH:g} in is in "
        "it.",
    )


@reckoning(
    "inch-fit",
    group="Fits and materials",
    title="An inch fit by its name: RC, LC, LT, LN or FN",
    usual={"nominal": "1in", "fit": "RC4"},
    inputs=(
        Input("nominal", LENGTH, "the nominal size", above=0),
        Input("fit", TEXT, "the fit: RC1–RC9, LC1–LC11, LT1–LT6, LN1–LN3, FN1–FN5"),
    ),
    results=FIT_RESULTS,
    sources=(SOURCE,),
)
def _inch_fit(trail: Trail, nominal: float, fit: str) -> dict[str, Any]:
    line = inch_fit(nominal, fit)
    thou = INCH / 1000
    hole_upper = trail.step(
        "Largest hole",
        f"{nominal / INCH:g} in + {line.hole_upper / thou:.2f} thou",
        nominal + line.hole_upper,
    )
    shaft_upper = trail.step(
        "Largest shaft",
        f"{nominal / INCH:g} in {line.shaft_upper / thou:+.2f} thou",
        nominal + line.shaft_upper,
    )
    shaft_lower = trail.step(
        "Smallest shaft",
        f"{nominal / INCH:g} in {line.shaft_lower / thou:+.2f} thou",
        nominal + line.shaft_lower,
    )
    # tabulated hundredths of a thou are exact, their sums as floats are not
    most = trail.step(
        "Most play",
        "largest hole − smallest shaft",
        round(line.hole_upper - line.shaft_lower, 9),
    )
    least = trail.step(
        "Least play", "smallest hole − largest shaft", round(-line.shaft_upper, 9) + 0.0
    )
    kind = kind_of_fit(least, most)
    return {
        "hole_upper": hole_upper,
        "hole_lower": nominal,
        "shaft_upper": shaft_upper,
        "shaft_lower": shaft_lower,
        "clearance_max": most,
        "clearance_min": least,
        "kind": kind,
    }
