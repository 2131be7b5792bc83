"""Around the cut: passes, bars, allowances, limits of rotation, levers."""

import itertools
import math
from typing import Any

from machinon.core.cutting.cut_state import Dial
from machinon.core.cutting.cut_worth import whole
from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import (
    COUNT,
    FOOT,
    FORCE,
    INCH,
    LENGTH,
    MASS,
    NUMBER,
    ROTATION,
    STIFFNESS,
    TORQUE,
)
from machinon.core.reckoning import FLAG, TEXT, Input, Result, Trail, reckoning

# length to diameter up to which a bar usually stays quiet; shop rules
QUIET = {"carbide": 8.0, "tungsten alloy": 6.0}
QUIET_STEEL = 4.0
SLIM = 1.5  # times as long it cuts yet, lightly


# n in k = n E I / L³ of a bar, by how it is held
SUPPORTS = {"free": 3.0, "simple": 48.0, "steadied": 768 / 7, "fixed": 192.0}

MOST_PASSES = 2000  # that are listed


@reckoning(
    "passes",
    group="Cutting",
    title="Passes from one size to another",
    usual={"start": 50, "finish": 46},
    inputs=(
        Input("start", LENGTH, "size now", above=0, high=5000),
        Input("finish", LENGTH, "size wanted", above=0, high=5000),
        Input("most", LENGTH, "deepest pass", 1.0, 0.04 * INCH, above=0, high=20),
        Input("finish_cut", LENGTH, "last pass", 0.1, 0.004 * INCH, low=0, high=5),
        Input(
            "on",
            TEXT,
            "what the sizes are; length: a face, a step or a thickness",
            default="diameter",
            choices=("diameter", "length"),
        ),
        Input(
            "dial",
            TEXT,
            "what the dial counts; else diameter, or travel for a length",
            default=None,
            choices=("diameter", "radius"),
        ),
        Input(
            "division",
            LENGTH,
            "one line as it reads",
            default=0.02,
            inch_default=0.001 * INCH,
            above=0,
            high=1,
        ),
    ),
    results=(
        Result("passes", LENGTH, "size after it, and the dial from zero"),
        Result("count", COUNT, "how many"),
    ),
    sources=("equal roughing passes in whole divisions, then the finishing cut",),
)
def _passes(
    trail: Trail,
    start: float,
    finish: float,
    most: float,
    finish_cut: float,
    on: str,
    dial: str | None,
    division: float,
) -> dict[str, Any]:
    length = on == "length"
    if length and dial == "diameter":
        raise BadInput("dial", "A slide that feeds along a length reads its travel.")
    total = abs(start - finish) / (1 if length else 2)
    if total == 0:
        raise BadInput(
            "finish", f"It is {finish:g} mm already: another size is needed."
        )
    gauge = Dial("radius" if length or dial == "radius" else "diameter", division)
    sign = 1 if finish > start else -1
    if length:
        trail.step("To take off", f"|{start:g} − {finish:g}|", total)
    else:
        trail.step("To take off, radial", f"|{start:g} − {finish:g}| / 2", total)
    last = min(finish_cut, total)
    if last > most:
        last = most
        trail.notes.append(
            f"The finishing cut is held to the deepest pass, {most:g} mm."
        )
    rough = total - last
    if rough > MOST_PASSES * most:
        least = math.ceil(rough / MOST_PASSES * 1000) / 1000
        raise BadInput(
            "most",
            f"That makes more than {MOST_PASSES} passes: {least:g} mm or more a pass "
            "is allowed.",
        )
    depths = _roughing(rough, most, gauge.travel)
    if last > 1e-9:
        depths.append(total)
    return {
        "passes": [
            {
                on: start + sign * depth * (1 if length else 2),
                "dial": gauge.shows(depth, 0.0),
            }
            for depth in depths
        ],
        "count": len(depths),
    }


def _roughing(rough: float, most: float, travel: float) -> list[float]:
    """Depths from the start of equal passes in whole divisions, the last to `rough`.

    None is deeper than `most`, as far as the dial's own division allows.
    """
    count = math.ceil(rough / most - 1e-9) if rough > 1e-9 else 0
    for more in range(min(count, 20) + 1):
        steps = count + more
        depths = [whole(rough * i / steps, travel) for i in range(1, steps)]
        depths = sorted({depth for depth in depths if 0 < depth < rough - 1e-9})
        depths += [rough] * bool(steps)
        taken = [b - a for a, b in itertools.pairwise([0.0, *depths])]
        if all(cut <= most + 1e-9 for cut in taken):
            break
    return depths


@reckoning(
    "boring-bar",
    group="Cutting",
    title="Stiffness and deflection of a boring bar",
    usual={"bar_diameter": 16, "overhang": 80},
    inputs=(
        Input("bar_diameter", LENGTH, "of the bar", low=0.5, high=500),
        Input(
            "overhang",
            LENGTH,
            "out of the holder, or between its two supports",
            low=1,
            high=5000,
        ),
        Input("bar_material", TEXT, "of the bar", default="steel"),
        Input("force", FORCE, "of the cut", default=100.0, above=0),
        Input(
            "support",
            TEXT,
            "free: held at one end; simple: rests at both; steadied: held at one, "
            "rests at the other; fixed: held at both",
            default="free",
            choices=tuple(SUPPORTS),
        ),
    ),
    results=(
        Result("stiffness", STIFFNESS, "at the cut"),
        Result("deflection", LENGTH, "under the force"),
        Result("length_to_diameter", NUMBER, "overhang over diameter"),
        Result("times_free", NUMBER, "as stiff as the same bar held at one end"),
        Result("advice", TEXT, "in a sentence"),
    ),
    sources=(
        "beams: k = n E I / L³, I = π d⁴ / 64; n is 3 held at one end with the cut at "
        "the other; with the cut in the middle 48 resting at both ends, 768/7 held at "
        "one and resting at the other, 192 held at both; limits are shop rules",
    ),
)
def _boring_bar(
    trail: Trail,
    bar_diameter: float,
    overhang: float,
    bar_material: str,
    force: float,
    support: str,
) -> dict[str, Any]:
    bar = material_named(bar_material, "bar_material")
    inertia = math.pi * bar_diameter**4 / 64
    beam = SUPPORTS[support]
    stiffness = trail.step(
        "Stiffness",
        f"{beam:.5g} × {bar.modulus:g} × π × {bar_diameter:g}⁴ / 64 / {overhang:g}³",
        beam * bar.modulus * inertia / overhang**3,
        STIFFNESS,
    )
    deflection = trail.step(
        "Deflection", f"{force:g} / {stiffness:.5g}", force / stiffness
    )
    slim = overhang / bar_diameter
    times = beam / SUPPORTS["free"]
    # stiffness goes with the cube of the length
    quiet = QUIET.get(bar.name, QUIET_STEEL) * times ** (1 / 3)
    if "steel" in bar.name:
        trail.notes.append(
            "Steel of any kind, soft, tough or hardened, is equally stiff: only a "
            "thicker or shorter bar, a support, or carbide is stiffer."
        )
    if slim <= quiet:
        advice = "Stiff enough for usual cuts."
    elif slim <= SLIM * quiet:
        advice = "Slim: light cuts, a keen tool of small radius, equal last passes."
    else:
        advice = (
            "Too slim: it will chatter. A thicker, shorter or carbide bar, or a "
            "support at its end, is needed."
        )
    return {
        "times_free": times,
        "stiffness": stiffness,
        "deflection": deflection,
        "length_to_diameter": slim,
        "advice": advice,
    }


@reckoning(
    "grinding-allowance",
    group="Cutting",
    title="What to leave for grinding",
    usual={"diameter": 20, "length": 200},
    inputs=(
        Input("diameter", LENGTH, "to be ground", above=0, high=500),
        Input("length", LENGTH, "of the piece", above=0, high=3000),
        Input("hardened", FLAG, "whether it is hardened before", default=True),
    ),
    results=(
        Result("allowance_on_diameter", LENGTH, "to leave"),
        Result("expected_warp", LENGTH, "bow to be ground out"),
    ),
    sources=("a shop rule: 0.1 + 0.002 d, and twice the bow 0.0002 L √(L/d)",),
)
def _grinding_allowance(
    trail: Trail, diameter: float, length: float, hardened: bool
) -> dict[str, Any]:
    warp = 0.0
    if hardened:
        warp = trail.step(
            "Bow",
            f"0.0002 × {length:g} × √({length:g} / {diameter:g})",
            0.0002 * length * math.sqrt(length / diameter),
        )
    allowance = trail.step(
        "Allowance",
        f"0.1 + 0.002 × {diameter:g} + 2 × {warp:.3g}",
        0.1 + 0.002 * diameter + 2 * warp,
    )
    trail.notes.append("A rule of thumb: steels and furnaces differ; try one first.")
    return {"allowance_on_diameter": allowance, "expected_warp": warp}


@reckoning(
    "rotating-limit",
    group="Cutting",
    title="How fast a disc or plate may turn",
    usual={
        "outside_diameter": 250,
        "bore": 50,
        "material": "cast iron",
        "unbalance_mass": 0.2,
        "unbalance_radius": 100,
        "rpm": 500,
    },
    usual_inch={"unbalance_mass": "0.5lb"},
    inputs=(
        Input("outside_diameter", LENGTH, "of the disc", above=0, high=5000),
        Input("bore", LENGTH, "of the disc", default=0.0, low=0),
        Input("material", TEXT, "of the disc"),
        Input("unbalance_mass", MASS, "out of balance", default=None, above=0),
        Input("unbalance_radius", LENGTH, "at which it sits", default=None, above=0),
        Input(
            "rpm",
            ROTATION,
            "for the force; else the lower limit",
            default=None,
            above=0,
        ),
    ),
    results=(
        Result("rpm_limit", ROTATION, "with threefold safety against yield"),
        Result("rim_rpm", ROTATION, "that custom lets a rim of cast iron run"),
        Result("unbalance_force", FORCE, "at the speed"),
    ),
    sources=(
        "rotating disc: σ = (3+ν)/4 ρω² (R² + (1−ν)/(3+ν) r²), half of it unbored; "
        "safety 3 is a shop rule; cast iron under 30 m/s at its rim: the usual custom, "
        "for what hides in a casting",
    ),
)
def _rotating_limit(
    trail: Trail,
    outside_diameter: float,
    bore: float,
    material: str,
    unbalance_mass: float | None,
    unbalance_radius: float | None,
    rpm: float | None,
) -> dict[str, Any]:
    if not bore < outside_diameter:
        raise BadInput("bore", f"Must be under {outside_diameter:g} mm.")
    metal = material_named(material)
    outer, inner = outside_diameter / 2000, bore / 2000  # metres
    nu = metal.poisson
    if bore > 0:
        shape = (3 + nu) / 4 * (outer**2 + (1 - nu) / (3 + nu) * inner**2)
    else:
        shape = (3 + nu) / 8 * outer**2
    omega = math.sqrt(metal.yield_strength / 3 * 1e6 / (metal.density * shape))
    limit = trail.step(
        "Limit",
        f"60 / 2π × √({metal.yield_strength:g} MPa / 3 / ({metal.density:g} × "
        f"{shape:.4g}))",
        omega * 60 / (2 * math.pi),
        ROTATION,
    )
    trail.cautions.append(
        "The maker's limit of chuck and plate comes first: jaws, bolts and cracks are "
        "not in this sum."
    )
    results: dict[str, Any] = {"rpm_limit": limit}
    if metal.rim:
        results["rim_rpm"] = trail.step(
            f"Rim at {metal.rim:g} m/s",
            f"{metal.rim:g} × 60000 / (π × {outside_diameter:g})",
            metal.rim_rpm(outside_diameter),
            ROTATION,
        )
        trail.cautions.append(
            f"{metal.name.capitalize()} breaks without warning and hides its "
            f"faults: keep its rim under {metal.rim:g} m/s ({metal.rim / FOOT:.0f} "
            "ft/s), whatever the sum says."
        )
    if (unbalance_mass is None) != (unbalance_radius is None):
        key = "unbalance_radius" if unbalance_radius is None else "unbalance_mass"
        raise BadInput(key, f"{key} is missing: force needs mass and radius.")
    if unbalance_mass is not None and unbalance_radius is not None:
        speed = rpm or min(limit, metal.rim_rpm(outside_diameter))
        results["unbalance_force"] = trail.step(
            f"Force at {speed:.4g} rpm",
            f"{unbalance_mass:g} × {unbalance_radius:g}/1000 × (2π × {speed:.4g}/60)²",
            unbalance_mass * unbalance_radius / 1000 * (2 * math.pi * speed / 60) ** 2,
            FORCE,
        )
    return results


@reckoning(
    "lever",
    group="Cutting",
    title="Torque of a handle, key or spanner",
    usual={"force": 200, "arm": 300},
    usual_inch={"force": "45lbf"},
    inputs=(
        Input("force", FORCE, "at the hand", above=0),
        Input("arm", LENGTH, "from the axis", above=0),
    ),
    results=(Result("torque", TORQUE, "about the axis"),),
    sources=("torque = force × arm",),
)
def _lever(trail: Trail, force: float, arm: float) -> dict[str, Any]:
    return {
        "torque": trail.step(
            "Torque", f"{force:g} × {arm:g} / 1000", force * arm / 1000, TORQUE
        )
    }
