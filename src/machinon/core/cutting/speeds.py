"""Cutting speeds: the surface speed of a cut and the speed the machine has."""

import math
from collections.abc import Sequence
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import (
    COUNT,
    FEED,
    LENGTH,
    ROTATION,
    SURFACE_SPEED,
    TRAVEL,
    length_text,
    plain,
    text_of,
)
from machinon.core.reckoning import TEXT, Answer, Input, Result, Trail, reckoning

# share of the plain turning speed, and a usual feed in mm a turn, the most of a tool
# whose feed grows with its width
OPERATIONS = {
    "turn": (1.0, 0.1),
    "bore": (0.8, 0.08),
    "face": (1.0, 0.1),
    "drill": (0.8, 0.25),
    "ream": (0.35, 0.4),
    "thread": (0.35, 0.0),
    "part": (0.5, 0.05),
    "countersink": (0.4, 0.1),
    "tap": (0.3, 0.0),
    "mill": (0.9, 0.05),  # a tooth
    "flycut": (0.8, 0.1),
    "knurl": (0.4, 0.2),
    "saw": (0.9, 0.02),  # a tooth
}
PER_TOOTH = ("mill", "saw")
GROWS = {"drill": 0.015, "ream": 0.025, "mill": 0.005}  # of the tool's own diameter
TOOLS = ("hss", "cobalt", "carbide", "brazed")


def usual_speed(material: str, tool: str, operation: str) -> float:
    """Recommended surface speed, m/min. Raises BadInput on `material`."""
    metal = material_named(material)
    if metal.ground_only:
        raise BadInput(
            "material", f"{metal.name} is ground, not cut with a {tool} tool."
        )
    if metal.hard and tool != "carbide":
        raise BadInput("tool", f"{metal.name} is cut with carbide, or ground.")
    base = {
        "hss": metal.turn_hss,
        "cobalt": 1.25 * metal.turn_hss,
        "carbide": metal.turn_carbide,
        "brazed": 0.7 * metal.turn_carbide,
    }[tool]
    return base * OPERATIONS[operation][0]


def machine_speed(ideal: float, speeds: Sequence[float]) -> float:
    """The machine's nearest speed at or below the ideal, else its slowest; rpm."""
    below = [speed for speed in speeds if speed <= ideal]
    return max(below) if below else min(speeds)


def turning_speed(trail: Trail, what: str, speed: float, diameter: float) -> float:
    """The speed (rpm) at which a diameter (mm) runs at a surface speed (m/min), as a
    step of the working. Source: v = π d n / 1000."""
    return trail.step(
        what,
        f"1000 × {speed:g} / (π × {diameter:g})",
        1000 * speed / (math.pi * diameter),
        ROTATION,
    )


def usual_feed(operation: str, diameter: float) -> float:
    """A feed to start with, mm a turn, of a cutter a tooth; a diameter in mm."""
    most = OPERATIONS[operation][1]
    return min(GROWS[operation] * diameter, most) if operation in GROWS else most


@reckoning(
    "speeds",
    group="Cutting",
    title="Speed and feed of a cut",
    usual={"material": "steel", "diameter": 25},
    inputs=(
        Input("material", TEXT, "what is cut", default=None),
        Input(
            "surface_speed",
            SURFACE_SPEED,
            "known already; else by the material",
            default=None,
            above=0,
        ),
        Input("tool", TEXT, "what cuts", default="hss", choices=TOOLS),
        Input("operation", TEXT, "how", default="turn", choices=tuple(OPERATIONS)),
        Input("diameter", LENGTH, "diameter that turns: work or cutter", above=0),
        Input("teeth", COUNT, "of the cutter", default=1, low=1, high=400),
        Input(
            "machine_speeds",
            ROTATION,
            "the machine's own speeds",
            default=None,
            above=0,
            many=True,
        ),
    ),
    results=(
        Result("surface_speed", SURFACE_SPEED, "recommended surface speed"),
        Result("rpm_ideal", ROTATION, "speed that gives it"),
        Result("rpm", ROTATION, "the machine's nearest at or below"),
        Result("feed", FEED, "a feed to start with"),
        Result("table_feed", TRAVEL, "the same at the table, where the teeth are said"),
    ),
    sources=("usual shop figures for material and tool; rpm = 1000 v / (π d)",),
)
def _speeds(
    trail: Trail,
    material: str | None,
    surface_speed: float | None,
    tool: str,
    operation: str,
    diameter: float,
    teeth: int,
    machine_speeds: tuple[float, ...] | None,
) -> dict[str, Any]:
    if surface_speed is not None:
        speed = trail.step("Surface speed", "as said", surface_speed, SURFACE_SPEED)
    elif material is None:
        raise BadInput("material", "Say what is cut, or the surface speed.")
    else:
        speed = trail.step(
            "Surface speed",
            f"{tool} in {material}, {operation}",
            usual_speed(material, tool, operation),
            SURFACE_SPEED,
        )
    ideal = turning_speed(trail, "Ideal speed", speed, diameter)
    rpm = ideal
    if machine_speeds:
        rpm = trail.step(
            "The machine's own",
            "nearest at or below",
            machine_speed(ideal, machine_speeds),
            ROTATION,
        )
        if rpm > ideal:
            trail.cautions.append("The machine's slowest speed is faster than wanted.")
    feed = usual_feed(operation, diameter)
    if operation in GROWS:
        part, most = GROWS[operation], OPERATIONS[operation][1]
        each = "Feed a tooth" if operation in PER_TOOTH else "Feed a turn"
        trail.step(each, f"{part:g} × {diameter:g}, at most {most:g}", feed, FEED)
    if operation in PER_TOOTH:
        feed = trail.step(
            "Feed a turn", f"{feed:g} × {teeth} teeth", feed * teeth, FEED
        )
    if operation in ("thread", "tap"):
        trail.notes.append("The feed is the thread's own pitch.")
    trail.notes.append("A figure to start from: listen, look at the chip, change it.")
    found = {"surface_speed": speed, "rpm_ideal": ideal, "rpm": rpm, "feed": feed}
    if operation in PER_TOOTH and teeth > 1:
        found["table_feed"] = trail.step(
            "Feed of the table", f"{rpm:.4g} × {feed:g}", rpm * feed, TRAVEL
        )
    return found


def speed_text(answer: Answer) -> str:
    """A speed as one sets it: a machine's own, or rounded to what a belt gives."""
    rpm = float(answer["rpm"])
    if rpm == round(rpm):
        return text_of(rpm, ROTATION)
    step = 10 if rpm >= 100 else 5
    return f"about {plain(rpm // step * step, 0)} rpm"


def feed_text(answer: Answer, inch: bool = False) -> str:
    """A feed to start with. Empty where the feed is a thread's own."""
    feed = float(answer["feed"])
    if not feed:
        return ""
    return f"feed {length_text(feed, 0.01, inch)} a {fed_by(answer)}"


def fed_by(answer: Answer) -> str:
    """What a feed is counted by: a turn, or a tooth where their number is not known."""
    said = answer.inputs
    return "tooth" if said["operation"] in PER_TOOTH and said["teeth"] == 1 else "turn"


@reckoning(
    "surface-speed",
    group="Cutting",
    title="Surface speed of what turns",
    usual={"diameter": 75, "rpm": 400},
    inputs=(
        Input("diameter", LENGTH, "that turns: work or cutter", above=0),
        Input("rpm", ROTATION, "that it turns at", above=0),
    ),
    results=(Result("surface_speed", SURFACE_SPEED, "at its outside"),),
    sources=("v = π d n / 1000",),
)
def _surface_speed(trail: Trail, diameter: float, rpm: float) -> dict[str, Any]:
    return {
        "surface_speed": trail.step(
            "Surface speed",
            f"π × {diameter:g} × {rpm:g} / 1000",
            math.pi * diameter * rpm / 1000,
            SURFACE_SPEED,
        )
    }
