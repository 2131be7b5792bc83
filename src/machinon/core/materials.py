"""Properties of materials: expansion, weight, stiffness, cutting speed, grip of a
screw."""

import functools
import math
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import (
    LENGTH,
    MASS,
    NUMBER,
    STRESS,
    SURFACE_SPEED,
    TEMPERATURE,
    VOLUME,
)
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows


class Material(Struct, frozen=True):
    """A material of the shop."""

    name: str
    expansion: float  # per kelvin
    # surface speed for plain turning, m/min, 0 where it is not turned
    turn_hss: float
    turn_carbide: float
    strength: float  # tensile, MPa
    yield_strength: float  # MPa
    modulus: float  # MPa
    poisson: float
    density: float  # kg/m³
    specific_heat: float  # J/(kg·K)
    hardness: float  # Brinell, as usually bought
    hurt_above: float  # °C from which heat harms it
    form_tap: bool  # whether its threads can be formed
    engagement: float  # screw engagement wanted, in diameters
    rim: float  # m/s that custom lets a rim of it run, 0 where only strength rules
    chip: float  # MPa that a chip 1 mm thick resists its edge, 0 where none comes off
    source: str

    def cold(self, size: float, temperature: float) -> float:
        """A size at 20 °C, read on work of another temperature; mm, °C.

        By warm work the gauge is still at 20 °C; work that is colder lies in a cold
        shop, its steel gauge with it. Source: ISO 1 (20 °C is the reference
        temperature).
        """
        gauge = material("steel").expansion * min(temperature - 20, 0.0)
        return size * (1 + gauge) / (1 + self.expansion * (temperature - 20))

    @property
    def hard(self) -> bool:
        """Whether only carbide or a grinding wheel cuts it."""
        return self.turn_hss == 0

    @property
    def ground_only(self) -> bool:
        """Whether a wheel alone takes anything off it."""
        return self.turn_carbide == 0

    @property
    def tool(self) -> str:
        """The tool that a home shop turns it with."""
        return "carbide" if self.hard else "hss"

    @property
    def rough_depth(self) -> float:
        """Depth of a roughing pass, mm; a rule of thumb for a light lathe."""
        return 0.15 if self.hard else 1.5

    @property
    def rough_feed(self) -> float:
        """mm a turn, as a rule of thumb."""
        return 0.05 if self.hard else 0.1

    def chip_force(self, thick: float) -> float:
        """MPa that a chip of a thickness, mm, resists its edge: a thin one more.

        Source: Kienzle's rule, k = k₁ / √√h, for a keen edge.
        """
        return float(self.chip * thick**-0.25)

    def rim_rpm(self, diameter: float) -> float:
        """Speed (rpm) at which a rim of this diameter (mm) runs as fast as custom lets
        it; infinite where only strength rules.

        Source: rim speed = π × diameter × speed.
        """
        if not self.rim:
            return math.inf
        return self.rim * 60_000 / (math.pi * diameter)


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
            float(r["yield_MPa"]),
            float(r["modulus_MPa"]),
            float(r["poisson"]),
            float(r["density_kg_m3"]),
            float(r["specific_heat_J_kgK"]),
            float(r["hardness_HB"]),
            float(r["hurt_above_C"]),
            r["form_tap"] == "yes",
            float(r["engagement_ratio"]),
            float(r["rim_m_s"]),
            float(r["chip_MPa"]),
            r["source"],
        )
        for r in rows("materials")
    }


@functools.cache
def also_called() -> Mapping[str, str]:
    """Other names of the materials, as the grades of steel, and what each counts as."""
    return {r["said"]: r["means"] for r in rows("material_names")}


def material(name: str, key: str = "material") -> Material:
    """A material by name. Raises BadInput on `key`."""
    known = materials()
    word = name.strip().lower().replace("-", " ").replace("_", " ")
    also = also_called()
    word = also.get(word) or also.get(f"{word} stainless") or word  # 304
    if word not in known:
        raise unknown(key, name, known)
    return known[word]


_material = material  # the reckoning's own input is called `material`

# the sizes of each beside its length, with usual ones in mm
SHAPES = {
    "bar": {"diameter": 50.0},
    "tube": {"outside_diameter": 50.0, "bore": 30.0},
    "block": {"width": 50.0, "height": 30.0},
    "hexagon": {"across_flats": 24.0},
}


@reckoning(
    "mass",
    group="Fits and materials",
    title="Mass of a bar, tube, block or hexagon",
    usual={"shape": "bar", "diameter": 20, "length": 100, "material": "steel"},
    inputs=(
        Input("shape", TEXT, "what it is", choices=tuple(SHAPES), asks=SHAPES),
        Input("material", TEXT, "what it is made of"),
        Input("length", LENGTH, "its length", above=0),
        Input("diameter", LENGTH, "of a bar", default=None, above=0),
        Input("outside_diameter", LENGTH, "of a tube", default=None, above=0),
        Input("bore", LENGTH, "of a tube", default=None, above=0),
        Input("width", LENGTH, "of a block", default=None, above=0),
        Input("height", LENGTH, "of a block", default=None, above=0),
        Input("across_flats", LENGTH, "of a hexagon", default=None, above=0),
    ),
    results=(
        Result("mass", MASS, "its mass"),
        Result("volume", VOLUME, "its volume"),
    ),
    sources=("geometry; densities are usual shop figures",),
)
def _mass(trail: Trail, shape: str, material: str, **sizes: Any) -> dict[str, Any]:
    length = sizes.pop("length")
    for key in sizes:
        given = sizes[key] is not None
        if given and key not in SHAPES[shape]:
            has = ", ".join((*SHAPES[shape], "length"))
            raise BadInput(key, f"A {shape} has no {key}: it has {has}.")
        if not given and key in SHAPES[shape]:
            raise BadInput(key, f"{key} is missing: a {shape} needs it.")
    if shape == "bar":
        area = math.pi / 4 * sizes["diameter"] ** 2
        says = f"π/4 × {sizes['diameter']:g}²"
    elif shape == "tube":
        outside, bore = sizes["outside_diameter"], sizes["bore"]
        if not bore < outside:
            raise BadInput("bore", f"The bore must be under {outside:g} mm.")
        area = math.pi / 4 * (outside**2 - bore**2)
        says = f"π/4 × ({outside:g}² − {bore:g}²)"
    elif shape == "hexagon":
        area = math.sqrt(3) / 2 * sizes["across_flats"] ** 2
        says = f"√3/2 × {sizes['across_flats']:g}²"
    else:
        area = sizes["width"] * sizes["height"]
        says = f"{sizes['width']:g} × {sizes['height']:g}"
    volume = trail.step("Volume", f"{says} × {length:g}", area * length, VOLUME)
    density = _material(material).density
    mass = trail.step(
        "Mass", f"{volume:.6g} mm³ × {density:g} kg/m³", volume * density * 1e-9, MASS
    )
    return {"mass": mass, "volume": volume}


@reckoning(
    "metal",
    group="Fits and materials",
    title="What a metal is like",
    usual={"material": "mild steel"},
    inputs=(Input("material", TEXT, "the metal"),),
    results=(
        Result("hardness", NUMBER, "Brinell, as it is usually bought"),
        Result("strength", STRESS, "at which it tears"),
        Result("yield_strength", STRESS, "from which it stays bent"),
        Result("modulus", STRESS, "its stiffness"),
        Result("density", NUMBER, "kg a cubic metre"),
        Result("growth", LENGTH, "of 100 mm, ten degrees warmer"),
        Result("harmed", TEMPERATURE, "from which heat harms it"),
        Result("turn_hss", SURFACE_SPEED, "to turn it with high-speed steel"),
        Result("turn_carbide", SURFACE_SPEED, "to turn it with carbide"),
        Result("taps", TEXT, "which taps it takes"),
    ),
    sources=("usual shop figures: mid-range of common handbooks",),
)
def _metal(trail: Trail, material: str) -> dict[str, Any]:
    metal = _material(material)
    trail.sources.append(metal.source)
    found: dict[str, Any] = {
        "hardness": metal.hardness,
        "strength": metal.strength,
        "yield_strength": metal.yield_strength,
        "modulus": metal.modulus,
        "density": metal.density,
        "growth": trail.step(
            "Growth", f"100 × 10 × {metal.expansion:.3g}", 1000 * metal.expansion
        ),
        "harmed": metal.hurt_above,
    }
    if metal.turn_hss:
        found["turn_hss"] = metal.turn_hss
    if metal.turn_carbide:
        found["turn_carbide"] = metal.turn_carbide
    if not metal.hard:
        found["taps"] = "cutting or forming" if metal.form_tap else "cutting only"
    return found
