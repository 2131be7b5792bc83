"""What materials do that matters here: grow with heat, take a speed, hold a screw."""

import functools
from collections.abc import Mapping
from dataclasses import dataclass

from machinon.core.errors import unknown
from machinon.core.tables import rows


@dataclass(frozen=True, slots=True)
class Material:
    """A material of the shop.

    expansion: per kelvin; turn_*: surface speed for plain turning, m/min;
    strength: tensile, MPa; engagement: screw engagement wanted, in diameters.
    """

    name: str
    expansion: float
    turn_hss: float
    turn_carbide: float
    strength: float
    engagement: float
    source: str


@functools.cache
def materials() -> Mapping[str, Material]:
    """Every material known, by name."""
    return {
        r["name"]: Material(
            r["name"],
            float(r["expansion_per_K"]),
            float(r["turn_hss_m_min"]),
            float(r["turn_carbide_m_min"]),
            float(r["strength_MPa"]),
            float(r["engagement_ratio"]),
            r["source"],
        )
        for r in rows("materials")
    }


def material(name: str) -> Material:
    """A material by name. Raises BadInput on `material`."""
    known = materials()
    if name not in known:
        raise unknown("material", name, known)
    return known[name]
