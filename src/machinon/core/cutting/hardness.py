"""Hardness in the scales that it is read and written in, and the strength with it."""

import functools
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import NUMBER, STRESS
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

# the column of the table that each reads
SCALES: Mapping[str, str] = {
    "HRC": "HRC",
    "HRB": "HRB",
    "HB": "HB",
    "HV": "HV",
    "MPa": "strength_MPa",
}
Pairs = Sequence[tuple[float, float]]


@functools.cache
def by_vickers(scale: str) -> Pairs:
    """What a scale reads at each Vickers hardness where it reads, the softest first."""
    column = SCALES[scale]
    return tuple(
        (float(r["HV"]), float(r[column])) for r in rows("hardness") if r[column]
    )


def _between(pairs: Pairs, at: float) -> float | None:
    """The value on a straight line between neighbours; None beyond the ends."""
    for (a, first), (b, last) in pairwise(pairs):
        if a <= at <= b:
            return first + (last - first) * (at - a) / (b - a)
    return None


def vickers(value: float, scale: str) -> float:
    """The Vickers hardness of a reading in a scale of `SCALES`.

    >>> round(vickers(60, "HRC"))
    698
    """
    pairs = by_vickers(scale)
    found = _between([(read, hv) for hv, read in pairs], value)
    if found is None:
        least, most = pairs[0][1], pairs[-1][1]
        raise BadInput("value", f"{scale} is told from {least:g} to {most:g}.")
    return found


def reads(hv: float, scale: str) -> float | None:
    """What a scale reads of a Vickers hardness, as near as it is told; None where it
    does not reach."""
    found = _between(by_vickers(scale), hv)
    return found if found is None else round(found, 1 if scale.startswith("HR") else 0)


@reckoning(
    "hardness",
    group="Fits and materials",
    title="A hardness in other scales, and the strength with it",
    usual={"value": 60, "scale": "HRC"},
    inputs=(
        Input("value", NUMBER, "as it was read or is asked for", above=0),
        Input("scale", TEXT, "that it is in; MPa is tensile strength", "HRC",
              choices=tuple(SCALES)),
    ),
    results=(
        Result("vickers", NUMBER, "HV"),
        Result("brinell", NUMBER, "HB; nothing where its ball would suffer"),
        Result("rockwell_c", NUMBER, "HRC; nothing below 20"),
        Result("rockwell_b", NUMBER, "HRB; nothing above 100"),
        Result("strength", STRESS, "that it tears at"),
    ),
    sources=(
        "ISO 18265 Table A.1, carbon and low-alloy steels; straight between its rows: "
        "within a few per cent. Other metals and cold-worked ones differ",
    ),
)  # fmt: skip
def _hardness(trail: Trail, value: float, scale: str) -> dict[str, Any]:
    hv = trail.step(
        "Vickers", f"{value:g} {scale}, from the table", vickers(value, scale), NUMBER
    )
    return {
        "vickers": round(hv),
        "brinell": reads(hv, "HB"),
        "rockwell_c": reads(hv, "HRC"),
        "rockwell_b": reads(hv, "HRB"),
        "strength": reads(hv, "MPa"),
    }
