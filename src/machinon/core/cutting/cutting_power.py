"""What a cut takes: the force on its edge, the torque and the power of the motor."""

import math
from typing import Any

from machinon.core.cutting.speeds import (
    TOOLS,
    turning_speed,
    usual_feed,
    usual_speed,
)
from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import (
    COUNT,
    FEED,
    FORCE,
    LENGTH,
    POWER,
    ROTATION,
    STRESS,
    SURFACE_SPEED,
    TORQUE,
    VOLUME,
)
from machinon.core.reckoning import (
    TEXT,
    Input,
    Result,
    Trail,
    at_most_one_of,
    reckoning,
)

WORN = 1.3  # times the force of a keen edge; shop rule
REACHES = 0.8  # of the motor's power: the rest stays in belts and gears; shop rule
LIP = math.sin(math.radians(59))  # of a drill's edge to its axis


@reckoning(
    "cutting-power",
    group="Cutting",
    title="Force, torque and power of a cut",
    usual={
        "material": "mild steel",
        "operation": "mill",
        "diameter": 12,
        "depth": 5,
        "width": 6,
    },
    given=(at_most_one_of("surface_speed", "rpm"),),
    inputs=(
        Input("material", TEXT, "what is cut"),
        Input("operation", TEXT, "how", "turn", choices=("turn", "drill", "mill")),
        Input("tool", TEXT, "what cuts", "hss", choices=TOOLS),
        Input(
            "diameter",
            LENGTH,
            "of the work that turns, the drill or the cutter",
            above=0,
            high=2000,
        ),
        Input(
            "depth",
            LENGTH,
            "off the radius, or along the cutter; a drill has none",
            None,
            above=0,
            high=200,
        ),
        Input("width", LENGTH, "across the cutter; else all of it", None, above=0),
        Input(
            "feed_each",
            FEED,
            "a turn, of a cutter a tooth; else a usual one",
            None,
            above=0,
            high=5,
        ),
        Input("teeth", COUNT, "of the cutter", 4, low=1, high=100),
        Input("surface_speed", SURFACE_SPEED, "else the usual one", None, above=0),
        Input("rpm", ROTATION, "else by the surface speed", None, above=0),
    ),
    results=(
        Result("rpm", ROTATION, "that it turns at"),
        Result("feed_each", FEED, "a turn, of a cutter a tooth"),
        Result("resists", STRESS, "of the chip, for each mm² of it"),
        Result("force", FORCE, "on the edge; a drill has it on each lip"),
        Result("torque", TORQUE, "of the spindle"),
        Result("removed", VOLUME, "in a minute"),
        Result("power", POWER, "at a keen edge"),
        Result("motor", POWER, "to have, by a worn edge"),
    ),
    sources=(
        "Kienzle: force = k₁ × chip / √√h, k₁ usual shop figures of the metal",
        "a worn edge takes 1.3 times as much, a fifth stays in the drive: shop rules",
    ),
)
def _cutting_power(
    trail: Trail,
    material: str,
    operation: str,
    tool: str,
    diameter: float,
    depth: float | None,
    width: float | None,
    feed_each: float | None,
    teeth: int,
    surface_speed: float | None,
    rpm: float | None,
) -> dict[str, Any]:
    metal = material_named(material)
    if rpm is None:
        speed = surface_speed or usual_speed(material, tool, operation)
        rpm = turning_speed(trail, "Speed", speed, diameter)
    elif not metal.chip:
        raise BadInput("material", f"{metal.name} is ground, not cut.")
    feed = feed_each
    if feed is None:
        feed = trail.step("Feed", "as usual", usual_feed(operation, diameter), FEED)
    if operation == "drill":
        thick, arm, edges = feed / 2 * LIP, diameter / 4, 2
        volume = math.pi * diameter**2 / 4 * feed * rpm
        how = f"π × {diameter:g}² / 4 × {feed:g} × {rpm:.4g}"
    elif operation == "mill":
        if depth is None:
            raise BadInput("depth", "It is missing: how deep, along the cutter.")
        wide = diameter if width is None else width
        if wide > diameter:
            raise BadInput("width", f"At most the cutter's diameter, {diameter:g} mm.")
        thick, arm, edges = _mean_chip(feed, wide / diameter), diameter / 2, 1
        volume = wide * depth * feed * teeth * rpm
        how = f"{wide:g} × {depth:g} × {feed:g} × {teeth} × {rpm:.4g}"
    else:
        depth = metal.rough_depth if depth is None else depth
        if depth >= diameter / 2:
            raise BadInput("depth", f"Less than the radius, {diameter / 2:g} mm.")
        thick, arm, edges = feed, (diameter - depth) / 2, 1
        volume = math.pi * 2 * arm * depth * feed * rpm
        how = f"π × ({diameter:g} − {depth:g}) × {depth:g} × {feed:g} × {rpm:.4g}"
    chip = trail.step("Chip", "mean thickness", thick)
    resists = trail.step(
        "It resists",
        f"{metal.chip:g} / √(√{chip:.4g})",
        metal.chip_force(chip),
        STRESS,
    )
    removed = trail.step("Taken off in a minute", how, volume, VOLUME)
    torque = trail.step(
        "Torque",
        f"{resists:.5g} × {removed:.5g} / (2 π × {rpm:.4g} × 1000)",
        resists * removed / (2 * math.pi * rpm * 1000),
        TORQUE,
    )
    force = trail.step(
        "Force",
        f"{torque:.5g} × 1000 / {arm:g} / {edges}",
        torque * 1000 / arm / edges,
        FORCE,
    )
    power = trail.step(
        "Power at the edge",
        f"{resists:.5g} × {removed:.5g} / 60000 / 1000",
        resists * removed / 60e6,
        POWER,
    )
    motor = trail.step(
        "Motor", f"{power:.4g} × {WORN:g} / {REACHES:g}", power * WORN / REACHES, POWER
    )
    trail.notes.append(
        "Good to a third either way: the rake, the edge and the oil count. A drill in "
        "a hole that is there takes less."
    )
    trail.cautions.append(
        "Work and tool must be held against it, and stopped before they are touched."
    )
    return {
        "rpm": rpm,
        "feed_each": feed,
        "resists": resists,
        "force": force,
        "torque": torque,
        "removed": removed,
        "power": power,
        "motor": motor,
    }


def _mean_chip(feed: float, share: float) -> float:
    """Mean thickness (mm) of a tooth's chip, by its feed (mm) and the share of its
    diameter that a cutter is in the work. Source: fed area over the arc."""
    arc = math.acos(1 - 2 * share)
    return 2 * feed * share / arc
