"""Joining without screws: press, shrink and bonded fits, and growth by heat."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.materials import Material, material
from machinon.core.quantity import (
    DURATION,
    FACTOR,
    FORCE,
    LENGTH,
    NUMBER,
    STRESS,
    TEMPERATURE,
    TORQUE,
)
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

# what compounds are made to fill, on the diameter; a shop rule
GAP_LEAST, GAP_MOST = 0.03, 0.10


@reckoning(
    "press-fit",
    group="Fits and materials",
    title="Pressure, force and torque of a press fit",
    usual={
        "diameter": 30,
        "length": 25,
        "hub_outside": 60,
        "interference": 0.03,
        "hub_material": "steel",
        "shaft_material": "steel",
    },
    inputs=(
        Input("diameter", LENGTH, "diameter of the fit", above=0),
        Input("length", LENGTH, "length of the fit", above=0),
        Input("hub_outside", LENGTH, "outside diameter of the hub", above=0),
        Input("shaft_bore", LENGTH, "bore of a hollow shaft", default=0.0, low=0),
        Input("interference", LENGTH, "on the diameter", above=0),
        Input("hub_material", TEXT, "what the hub is made of"),
        Input("shaft_material", TEXT, "what the shaft is made of"),
        Input("friction", NUMBER, "between the two", default=0.12, above=0, high=1),
    ),
    results=(
        Result("pressure", STRESS, "between hub and shaft"),
        Result("hub_stress", STRESS, "hoop stress at the hub's bore (tension)"),
        Result("shaft_stress", STRESS, "hoop stress at the shaft (− is compression)"),
        Result("press_force", FORCE, "to press it home or off"),
        Result("torque", TORQUE, "that it carries"),
        Result("safety", FACTOR, "hub's yield over its stress (Tresca)"),
        Result("most_interference", LENGTH, "before the hub yields"),
        Result("least_outside", LENGTH, "of a hub that bears this interference"),
    ),
    sources=("Lamé's thick cylinders, plane stress; usual shop figures of materials",),
)
def _press_fit(
    trail: Trail,
    diameter: float,
    length: float,
    hub_outside: float,
    shaft_bore: float,
    interference: float,
    hub_material: str,
    shaft_material: str,
    friction: float,
) -> dict[str, Any]:
    if not hub_outside > diameter:
        raise BadInput("hub_outside", f"The hub must be larger than {diameter:g} mm.")
    if not shaft_bore < diameter:
        raise BadInput("shaft_bore", f"The bore must be under {diameter:g} mm.")
    if not interference < diameter / 20:
        raise BadInput(
            "interference", f"Interference must be under {diameter / 20:g} mm."
        )
    hub, shaft = (
        material(hub_material, "hub_material"),
        material(shaft_material, "shaft_material"),
    )
    wide = (hub_outside**2 + diameter**2) / (hub_outside**2 - diameter**2)
    narrow = (diameter**2 + shaft_bore**2) / (diameter**2 - shaft_bore**2)
    give = (wide + hub.poisson) / hub.modulus + (narrow - shaft.poisson) / shaft.modulus
    pressure = trail.step(
        "Pressure",
        f"{interference:g} / ({diameter:g} × (({wide:.4f} + {hub.poisson:g}) / "
        f"{hub.modulus:g} + ({narrow:.4f} − {shaft.poisson:g}) / {shaft.modulus:g}))",
        interference / (diameter * give),
        STRESS,
    )
    hoop = trail.step(
        "Hoop stress in the hub",
        f"{pressure:.4g} × {wide:.4f}",
        pressure * wide,
        STRESS,
    )
    force = trail.step(
        "Force",
        f"{friction:g} × {pressure:.4g} × π × {diameter:g} × {length:g}",
        friction * pressure * math.pi * diameter * length,
        FORCE,
    )
    torque = trail.step(
        "Torque", f"{force:.5g} × {diameter:g} / 2000", force * diameter / 2000, TORQUE
    )
    safety = trail.step(
        "Safety of the hub",
        f"{hub.yield_strength:g} / ({hoop:.4g} + {pressure:.4g})",
        hub.yield_strength / (hoop + pressure),
        FACTOR,
    )
    # all stresses go with the interference
    most = trail.step(
        "Most before it yields",
        f"{interference:g} × {safety:.4g}",
        interference * safety,
    )
    results: dict[str, Any] = {}
    if safety < 1:
        helps = [f"at most {most * 1000:.0f} µm of interference"]
        outside = _least_outside(
            diameter, interference, hub, (narrow - shaft.poisson) / shaft.modulus
        )
        if outside is not None:
            results["least_outside"] = outside
            helps.append(f"a hub of {outside:.1f} mm outside")
        if shaft_bore == 0:
            helps.append("a hollow shaft")
        trail.cautions.append(
            "The hub yields. What helps: " + ", or ".join(helps) + "."
        )
    trail.cautions.append("Stand clear of the press; a hard part can fly in pieces.")
    return {
        "pressure": pressure,
        "hub_stress": hoop,
        "shaft_stress": -pressure * narrow,
        "press_force": force,
        "torque": torque,
        "safety": safety,
        "most_interference": most,
        **results,
    }


def _least_outside(
    diameter: float, interference: float, hub: Material, shaft_gives: float
) -> float | None:
    """The least outside of a hub that does not yield, mm; None where none does.

    shaft_gives: what the shaft yields elastically, per MPa and mm of diameter.
    """

    def safety(outside: float) -> float:
        wide = (outside**2 + diameter**2) / (outside**2 - diameter**2)
        give = (wide + hub.poisson) / hub.modulus + shaft_gives
        pressure = interference / (diameter * give)
        return hub.yield_strength / (pressure * (wide + 1))

    low, high = diameter * 1.001, diameter * 8
    if safety(high) < 1:
        return None
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (low, middle) if safety(middle) >= 1 else (middle, high)
    return high


@reckoning(
    "shrink-fit",
    group="Fits and materials",
    title="How hot a hub must be to drop on",
    usual={
        "diameter": 50,
        "interference": 0.05,
        "assembly_clearance": 0.05,
        "hub_material": "steel",
        "shaft_material": "steel",
    },
    inputs=(
        Input("diameter", LENGTH, "diameter of the fit", above=0),
        Input("interference", LENGTH, "on the diameter, cold", low=0),
        Input("assembly_clearance", LENGTH, "play wanted to drop it on", low=0),
        Input("hub_material", TEXT, "what the hub is made of"),
        Input("shaft_material", TEXT, "what the shaft is made of"),
        Input("room", TEMPERATURE, "of the shop", default=20.0, low=-30, high=60),
        Input(
            "shaft_temperature",
            TEMPERATURE,
            "of a cooled shaft; else the room's",
            default=None,
            low=-200,
            high=100,
        ),
    ),
    results=(
        Result("hub_temperature", TEMPERATURE, "to heat the hub to"),
        Result("total_expansion", LENGTH, "by which the hub must exceed the shaft"),
        Result("warning", TEXT, "where the heat harms the hub, else empty"),
    ),
    sources=("linear expansion; usual shop figures of materials",),
)
def _shrink_fit(
    trail: Trail,
    diameter: float,
    interference: float,
    assembly_clearance: float,
    hub_material: str,
    shaft_material: str,
    room: float,
    shaft_temperature: float | None,
) -> dict[str, Any]:
    hub, shaft = (
        material(hub_material, "hub_material"),
        material(shaft_material, "shaft_material"),
    )
    total = trail.step(
        "To be made up",
        f"{interference:g} + {assembly_clearance:g}",
        interference + assembly_clearance,
    )
    cold = room if shaft_temperature is None else shaft_temperature
    shrunk = diameter * shaft.expansion * (room - cold)
    if shrunk:
        trail.step(
            "By the shaft's cold",
            f"{diameter:g} × {shaft.expansion:g} × ({room:g} − {cold:g})",
            shrunk,
        )
    temperature = trail.step(
        "Hub",
        f"{room:g} + ({total:g} − {shrunk:.4g}) / ({hub.expansion:g} × {diameter:g})",
        room + (total - shrunk) / (hub.expansion * diameter),
        TEMPERATURE,
    )
    warning = ""
    if temperature > hub.hurt_above:
        warning = (
            f"{hub.name} is harmed above about {hub.hurt_above:g} °C: cool the shaft "
            "as well, or take less interference."
        )
        trail.cautions.append(warning)
    trail.cautions.append("Hot and cold parts burn: gloves, dry tools, a trial first.")
    return {
        "hub_temperature": temperature,
        "total_expansion": total,
        "warning": warning,
    }


FILM = 0.03  # W/(m·K): warm air in the play
AIR = 20.0  # W/(m²·K): a hot hub in still air, radiation and all; a shop rule


@reckoning(
    "shrink-time",
    group="Fits and materials",
    title="How long a hot hub stays large enough",
    usual={
        "diameter": 50,
        "length": 40,
        "hub_outside": 100,
        "interference": 0.05,
        "hub_temperature": 200,
        "hub_material": "steel",
    },
    inputs=(
        Input("diameter", LENGTH, "diameter of the fit", above=0),
        Input("length", LENGTH, "length of the hub", above=0),
        Input("hub_outside", LENGTH, "outside diameter of the hub", above=0),
        Input("interference", LENGTH, "on the diameter, cold", low=0),
        Input(
            "hub_temperature", TEMPERATURE, "of the hub as it is taken out", high=600
        ),
        Input("hub_material", TEXT, "what the hub is made of"),
        Input("room", TEMPERATURE, "of the shop", default=20.0, low=-30, high=60),
    ),
    results=(
        Result("grips_at", TEMPERATURE, "at which the play is gone"),
        Result("seconds", DURATION, "from the oven until it would grip, in still air"),
        Result("placing", DURATION, "seconds once it is round the cold shaft"),
    ),
    sources=(
        "a ring in still air, 20 W/(m²·K); round the shaft, heat crosses the play's "
        "film of air, 0.03 W/(m·K), the ring staying centred: shop rules",
    ),
)
def _shrink_time(
    trail: Trail,
    diameter: float,
    length: float,
    hub_outside: float,
    interference: float,
    hub_temperature: float,
    hub_material: str,
    room: float,
) -> dict[str, Any]:
    if not hub_outside > diameter:
        raise BadInput("hub_outside", f"The hub must be larger than {diameter:g} mm.")
    hub = material(hub_material, "hub_material")
    grips = trail.step(
        "Grips at",
        f"{room:g} + {interference:g} / ({hub.expansion:g} × {diameter:g})",
        room + interference / (hub.expansion * diameter),
        TEMPERATURE,
    )
    if not hub_temperature > grips > room:
        raise BadInput(
            "hub_temperature",
            f"The hub must be hotter than {grips:.0f} °C to go on at all.",
        )
    ring = math.pi / 4 * (hub_outside**2 - diameter**2)
    heat = hub.density * ring * length * 1e-9 * hub.specific_heat
    skin = (math.pi * (hub_outside + diameter) * length + 2 * ring) * 1e-6
    seconds = trail.step(
        "Seconds in hand",
        f"{heat:.4g} J/K / ({AIR:g} × {skin:.4g} m²) × "
        f"ln(({hub_temperature:.0f} − {room:g}) / ({grips:.0f} − {room:g}))",
        heat / (AIR * skin) * math.log((hub_temperature - room) / (grips - room)),
        DURATION,
    )
    over = hub_temperature - grips
    spent = over - (grips - room) * math.log((hub_temperature - room) / (grips - room))
    placing = trail.step(
        "Seconds round the shaft",
        f"{heat:.4g} J/K × {hub.expansion:g} × {diameter:g} / 2 × {spent:.4g} K / "
        f"({FILM:g} × π × {diameter:g} × {length:g} mm²)",
        heat
        * hub.expansion
        * diameter
        / 2000
        * spent
        / (FILM * math.pi * diameter * length * 1e-6),
        DURATION,
    )
    trail.notes.append(
        "Where it touches it grips at once: one straight push to the stop, and hold it."
    )
    return {"grips_at": grips, "seconds": seconds, "placing": placing}


@reckoning(
    "fit-warm",
    group="Fits and materials",
    title="A fit at its working temperature",
    usual={
        "diameter": 30,
        "play_least": 0.007,
        "play_most": 0.02,
        "hub_material": "aluminium",
        "shaft_material": "steel",
        "temperature": 60,
    },
    inputs=(
        Input("diameter", LENGTH, "diameter of the fit", above=0),
        Input("play_least", LENGTH, "at 20 °C, − is interference"),
        Input("play_most", LENGTH, "at 20 °C, − is interference"),
        Input("hub_material", TEXT, "what the outer part is made of"),
        Input("shaft_material", TEXT, "what the inner part is made of"),
        Input("temperature", TEMPERATURE, "of both at work", low=-100, high=500),
    ),
    results=(
        Result("change", LENGTH, "of the play; − is tighter"),
        Result("least", LENGTH, "play at work, least"),
        Result("most", LENGTH, "play at work, most"),
    ),
    sources=("ISO 1:2022; linear expansion, usual shop figures of materials",),
)
def _fit_warm(
    trail: Trail,
    diameter: float,
    play_least: float,
    play_most: float,
    hub_material: str,
    shaft_material: str,
    temperature: float,
) -> dict[str, Any]:
    if play_least > play_most:
        raise BadInput(
            "play_most", f"The most play must be at least the least ({play_least:g})."
        )
    hub, shaft = (
        material(hub_material, "hub_material"),
        material(shaft_material, "shaft_material"),
    )
    change = trail.step(
        "Change of the play",
        f"{diameter:g} × ({hub.expansion:g} − {shaft.expansion:g}) × "
        f"({temperature:g} − 20)",
        diameter * (hub.expansion - shaft.expansion) * (temperature - 20),
    )
    return {
        "change": change,
        "least": trail.step(
            "Least", f"{play_least:.4f} + {change:.4f}", play_least + change
        ),
        "most": trail.step(
            "Most", f"{play_most:.4f} + {change:.4f}", play_most + change
        ),
    }


@reckoning(
    "bond-gap",
    group="Fits and materials",
    title="Gap, hold and torque of a bonded fit",
    usual={"diameter": 25, "length": 20},
    inputs=(
        Input("diameter", LENGTH, "diameter of the fit", above=0),
        Input("length", LENGTH, "length of the fit", above=0),
        Input(
            "shear_strength",
            STRESS,
            "of the cured compound, by its data sheet",
            default=15.0,
            above=0,
        ),
        Input("safety", NUMBER, "share kept in hand", default=2.0, low=1),
    ),
    results=(
        Result("gap_min", LENGTH, "least gap on the diameter"),
        Result("gap_max", LENGTH, "most gap on the diameter"),
        Result("hold_force", FORCE, "along the axis"),
        Result("torque", TORQUE, "that it carries"),
    ),
    sources=("force = strength × area / safety; the gap is a shop rule",),
)
def _bond_gap(
    trail: Trail, diameter: float, length: float, shear_strength: float, safety: float
) -> dict[str, Any]:
    area = math.pi * diameter * length
    force = trail.step(
        "Hold",
        f"{shear_strength:g} × π × {diameter:g} × {length:g} / {safety:g}",
        shear_strength * area / safety,
        FORCE,
    )
    torque = trail.step(
        "Torque", f"{force:.5g} × {diameter:g} / 2000", force * diameter / 2000, TORQUE
    )
    trail.notes.append(
        "The compound's data sheet comes first. Seconds are left to place it: try it "
        "dry before."
    )
    return {
        "gap_min": GAP_LEAST,
        "gap_max": GAP_MOST,
        "hold_force": force,
        "torque": torque,
    }


@reckoning(
    "thermal-size",
    group="Fits and materials",
    title="A size at another temperature, as at 20 °C",
    usual={"size": 100, "temperature": 30, "material": "aluminium"},
    inputs=(
        Input("size", LENGTH, "as it is at the temperature", above=0),
        Input("temperature", TEMPERATURE, "of the part", low=-200, high=1000),
        Input("material", TEXT, "of the part"),
        Input("reference", TEMPERATURE, "wanted", default=20.0, low=-200, high=1000),
    ),
    results=(
        Result("size_at_reference", LENGTH, "at the reference temperature"),
        Result("change", LENGTH, "size as it is less size at the reference"),
    ),
    sources=("ISO 1:2022; linear expansion, usual shop figures",),
)
def _thermal_size(
    trail: Trail, size: float, temperature: float, material: str, reference: float
) -> dict[str, Any]:
    expansion = _material(material).expansion
    warm = temperature - reference
    cold = trail.step(
        f"At {reference:g} °C",
        f"{size:g} / (1 + {expansion:g} × {warm:g})",
        size / (1 + expansion * warm),
    )
    change = trail.step("Change", f"{size:g} − {cold:.6f}", size - cold)
    return {"size_at_reference": cold, "change": change}


_material = material  # the reckoning's own input is called `material`
