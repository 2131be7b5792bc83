"""What a circle of screws carries by friction, and drive pins in it by shear."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, FORCE, LENGTH, NUMBER, STRESS, TORQUE
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckon, reckoning
from machinon.core.threads.screw_torque import GRADES

FRICTION = 0.15  # steel on steel or iron, clean and dry; shop rule
PIN_STRENGTH = 600.0  # MPa of a steel pin that is not hardened
SHEAR = 0.5  # of the tensile strength


@reckoning(
    "bolts-carry",
    group="Fits and materials",
    title="The torque that a circle of bolts or pins carries",
    usual={"bolts": 3, "thread": "M8", "circle": 110},
    inputs=(
        Input("bolts", COUNT, "how many screws", low=0, high=100),
        Input("thread", TEXT, "the screws, such as M8 or 5/16-18", None),
        Input("circle", LENGTH, "on which they sit", above=0, high=5000),
        Input("grade", TEXT, "of the screws, as by their torque", None, choices=GRADES),
        Input("oiled", TEXT, "their threads", "dry", choices=("dry", "oiled")),
        Input(
            "friction",
            NUMBER,
            "between the two faces; less where they are oily",
            default=FRICTION,
            above=0,
            high=1,
        ),
        Input("pins", COUNT, "how many drive pins besides", 0, low=0, high=100),
        Input("pin", LENGTH, "their diameter", None, above=0, high=200),
        Input(
            "pin_circle", LENGTH, "else that of the screws", None, above=0, high=5000
        ),
        Input("pin_strength", STRESS, "tensile, of the pins", PIN_STRENGTH, above=0),
        Input("safety", NUMBER, "times over", 2.0, low=1, high=10),
    ),
    results=(
        Result("tighten", TORQUE, "each screw"),
        Result("preload", FORCE, "that each clamps with"),
        Result("slips_at", TORQUE, "at which the faces slip"),
        Result("shears_at", TORQUE, "at which the pins shear"),
        Result("carries", TORQUE, "by the better of the two, with that safety"),
    ),
    sources=(
        "geometry: force × half the circle; 0.15 between clean dry faces, pins shear "
        "at half their tensile strength: shop rules",
    ),
)
def _bolts_carry(
    trail: Trail,
    bolts: int,
    thread: str | None,
    circle: float,
    grade: str | None,
    oiled: str,
    friction: float,
    pins: int,
    pin: float | None,
    pin_circle: float | None,
    pin_strength: float,
    safety: float,
) -> dict[str, Any]:
    if not bolts and not pins:
        raise BadInput(
            "bolts", "Without screws and pins nothing is carried: 1 or more."
        )
    if pins and pin is None:
        raise BadInput("pin", "It is missing: the diameter of the drive pins.")
    if bolts and thread is None:
        raise BadInput("thread", "It is missing: the screws, such as M8 or 5/16-18.")
    results, slips = {}, 0.0
    if bolts:
        asked = {"thread": thread, "oiled": oiled} | ({"grade": grade} if grade else {})
        screw = reckon("screw-torque", asked)
        for source in screw.sources:
            trail.source(source)
        preload = trail.step(
            "Each clamps with",
            f"as {screw['grade']} is tightened",
            screw["preload"],
            FORCE,
        )
        slips = trail.step(
            "The faces slip at",
            f"{bolts} × {preload:.5g} × {friction:g} × {circle:g} / 2000",
            bolts * preload * friction * circle / 2000,
            TORQUE,
        )
        results = {"tighten": screw["torque"], "preload": preload, "slips_at": slips}
        trail.cautions.append(
            "Screws come loose: tighten them evenly, and again after the first heavy "
            "cut."
        )
    shears = 0.0
    if pins and pin is not None:
        on = pin_circle or circle
        shears = results["shears_at"] = trail.step(
            "The pins shear at",
            f"{pins} × {SHEAR:g} × {pin_strength:g} × π / 4 × {pin:g}² × {on:g} / 2000",
            pins * SHEAR * pin_strength * math.pi / 4 * pin**2 * on / 2000,
            TORQUE,
        )
    if slips and shears:
        trail.notes.append(
            "The faces slip a little before pins bear: the better of the two counts, "
            "and not their sum."
        )
    better = max(slips, shears)
    return results | {
        "carries": trail.step(
            "Carries", f"{better:.5g} / {safety:g}", better / safety, TORQUE
        )
    }
