"""Cap screws: their holes, heads, counterbores and engagement."""

import functools
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from machinon.core.errors import unknown
from machinon.core.materials import material
from machinon.core.quantity import LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.screw_thread import metric_thread
from machinon.core.tables import rows


@dataclass(frozen=True, slots=True)
class CapScrew:
    """A socket cap screw and its holes; mm."""

    size: str
    diameter: float
    pitch: float
    close: float
    normal: float
    loose: float
    head_diameter: float
    head_height: float
    key: float
    counterbore: float
    counterbore_depth: float
    source: str

    @property
    def tapping_drill(self) -> float:
        """Major less pitch: the usual drill, about 77 % of thread; mm."""
        return self.diameter - self.pitch


@functools.cache
def cap_screws() -> Mapping[str, CapScrew]:
    """The cap screws kept here, by size."""
    table = {}
    for r in rows("screws"):
        thread = metric_thread(r["size"])
        head = float(r["head_height_mm"])
        table[r["size"]] = CapScrew(
            r["size"],
            thread.major,
            thread.pitch,
            float(r["close_mm"]),
            float(r["normal_mm"]),
            float(r["loose_mm"]),
            float(r["head_diameter_mm"]),
            head,
            float(r["key_mm"]),
            float(r["counterbore_mm"]),
            head + float(r["counterbore_extra_mm"]),
            r["source"],
        )
    return table


def cap_screw(size: str, key: str = "thread") -> CapScrew:
    """A cap screw by size, such as `M8`. Raises BadInput on `key`."""
    known = cap_screws()
    if size not in known:
        raise unknown(key, size, known)
    return known[size]


@reckoning(
    "clearance-hole",
    group="Threads",
    title="Clearance hole for a screw",
    inputs=(
        Input("thread", TEXT, "the screw, such as M8"),
        Input(
            "fit",
            TEXT,
            "how free the screw is",
            default="normal",
            choices=("close", "normal", "loose"),
        ),
    ),
    results=(
        Result("diameter", LENGTH, "diameter of the hole"),
        Result("source", TEXT, "the standard"),
    ),
    sources=("ISO 273:1979",),
)
def _clearance_hole(trail: Trail, thread: str, fit: str) -> dict[str, Any]:
    screw = cap_screw(thread)
    size = {"close": screw.close, "normal": screw.normal, "loose": screw.loose}[fit]
    trail.step("Clearance hole", f"{thread}, {fit} series", size)
    return {"diameter": size, "source": "ISO 273:1979"}


@reckoning(
    "screw-engagement",
    group="Threads",
    title="Engagement that a screw wants in a material",
    inputs=(
        Input("thread", TEXT, "the screw, such as M8"),
        Input("material", TEXT, "what it is screwed into"),
    ),
    results=(
        Result("minimum_length", LENGTH, "least engaged length"),
        Result("diameters", NUMBER, "the same in screw diameters"),
    ),
    sources=("shop rule: one diameter in steel, more in softer or brittle metal",),
)
def _engagement(trail: Trail, thread: str, material: str) -> dict[str, Any]:
    screw = cap_screw(thread)
    ratio = _material(material).engagement
    least = trail.step(
        "Least engagement", f"{ratio:g} × {screw.diameter:g}", ratio * screw.diameter
    )
    return {"minimum_length": least, "diameters": ratio}


_material = material  # the reckoning's own input is called `material`
