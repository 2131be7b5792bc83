"""Hardness in the scales that it is read and written in, and the strength with it."""

import functools
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any, NamedTuple

from machinon.core.errors import BadInput
from machinon.core.quantity import NUMBER, STRESS
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning
from machinon.core.tables import rows


class Scale(NamedTuple):
    """A scale: how it is called, its column of the table, and the places it is read
    to."""

    name: str
    column: str
    places: int


SCALES: Mapping[str, Scale] = {
    "rockwell_c": Scale("HRC", "HRC", 1),
    "rockwell_b": Scale("HRB", "HRB", 1),
    "brinell": Scale("HB", "HB", 0),
    "vickers": Scale("HV", "HV", 0),
    "strength": Scale("MPa", "strength_MPa", 0),
}
Pairs = Sequence[tuple[float, float]]


@functools.cache
def by_vickers(scale: str) -> Pairs:
    """What a scale reads at each Vickers hardness where it reads, the softest first."""
    column = SCALES[scale].column
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

    >>> round(vickers(60, "rockwell_c"))
    698
    """
    pairs = by_vickers(scale)
    found = _between([(read, hv) for hv, read in pairs], value)
    if found is None:
        least, most = pairs[0][1], pairs[-1][1]
        name = SCALES[scale].name
        raise BadInput(scale, f"{name} is told from {least:g} to {most:g}.")
    return found


def reads(hv: float, scale: str) -> float | None:
    """What a scale reads of a Vickers hardness, as near as it is told; None where it
    does not reach."""
    found = _between(by_vickers(scale), hv)
    return found if found is None else round(found, SCALES[scale].places)


@reckoning(
    "hardness",
    group="Fits and materials",
    title="A hardness in other scales, and the strength with it",
    usual={"rockwell_c": 60},
    given=(one_of("rockwell_c", "rockwell_b", "brinell", "vickers", "strength"),),
    inputs=(
        Input("rockwell_c", NUMBER, "HRC, as read or asked for", None),
        Input("rockwell_b", NUMBER, "HRB, of soft steel", None),
        Input("brinell", NUMBER, "HB", None),
        Input("vickers", NUMBER, "HV", None),
        Input("strength", STRESS, "that it tears at", None),
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
)
def _hardness(trail: Trail, **asked: float | None) -> dict[str, Any]:
    key, value = next((key, hard) for key, hard in asked.items() if hard is not None)
    scale = SCALES[key]
    hv = trail.step(
        "Vickers",
        f"{value:g} {scale.name}, from the table",
        vickers(value, key),
        NUMBER,
    )
    return {scale: reads(hv, scale) for scale in SCALES}
