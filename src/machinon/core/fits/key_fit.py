"""Keys: the three widths that meet at one, and what a key carries."""

from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import FORCE, LENGTH, STRESS, TORQUE
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes.limits import limits_of_size

# shaft and hub keyway by how the key sits; the key itself is h9
ZONES = {"free": ("H9", "D10"), "normal": ("N9", "JS9"), "close": ("P9", "P9")}


@reckoning(
    "key-sides",
    group="Fits and materials",
    title="The three widths of a key: shaft, key, hub",
    usual={"width": 8},
    inputs=(
        Input("width", LENGTH, "of the key, nominal", above=0, high=100),
        Input(
            "sits",
            TEXT,
            "how the key sits",
            default="normal",
            choices=("free", "normal", "close"),
        ),
        Input("measured", LENGTH, "width of a keyway that exists", None, above=0),
        Input("doubt", LENGTH, "of that width, two sigma", 0.0, low=0),
        Input("play_least", LENGTH, "of a key made to it", 0.0),
        Input("play_most", LENGTH, "of a key made to it", 0.015),
    ),
    results=(
        Result("shaft_lower", LENGTH, "keyway in the shaft, narrowest"),
        Result("shaft_upper", LENGTH, "keyway in the shaft, widest"),
        Result("key_lower", LENGTH, "key, narrowest"),
        Result("key_upper", LENGTH, "key, widest"),
        Result("hub_lower", LENGTH, "keyway in the hub, narrowest"),
        Result("hub_upper", LENGTH, "keyway in the hub, widest"),
        Result("bought_least", LENGTH, "play of a bought key in the measured keyway"),
        Result("bought_most", LENGTH, "play of a bought key, most"),
    ),
    sources=(
        "ISO/R 773:1969 (shaft H9, N9, P9; hub D10, JS9, P9; key h9), by the zones of "
        "ISO 286-1:2010",
    ),
)
def _key_sides(
    trail: Trail,
    width: float,
    sits: str,
    measured: float | None,
    doubt: float,
    play_least: float,
    play_most: float,
) -> dict[str, Any]:
    shaft_zone, hub_zone = ZONES[sits]
    shaft, hub, key = (
        limits_of_size(width, zone) for zone in (shaft_zone, hub_zone, "h9")
    )
    results: dict[str, Any] = {}
    key_lower, key_upper = key.lower, key.upper
    grown = 0.0
    if measured is not None:
        if abs(measured - width) > 0.1 * width:
            raise BadInput(
                "width",
                f"A keyway measured {measured:.3f} mm is not one for a key of "
                f"{width:g} mm: within a tenth of it is allowed.",
            )
        key_upper = trail.step(
            "Key, widest",
            f"{measured:.4f} − {doubt:.4f} − {play_least:.4f}",
            measured - doubt - play_least,
        )
        key_lower = trail.step(
            "Key, narrowest",
            f"{measured:.4f} + {doubt:.4f} − {play_most:.4f}",
            measured + doubt - play_most,
        )
        results["bought_least"] = measured - key.upper
        results["bought_most"] = measured - key.lower
        # a key made over size carries the other keyway with it
        grown = key_upper - key.upper
    results["key_lower"], results["key_upper"] = key_lower, key_upper
    for part, zone in (("shaft", shaft), ("hub", hub)):
        for end, size in (("lower", zone.lower), ("upper", zone.upper)):
            results[f"{part}_{end}"] = trail.step(
                f"Keyway in the {part}, {end}",
                f"{zone.zone} on {width + grown:.4f}",
                size + grown,
            )
    return results


@reckoning(
    "key-load",
    group="Fits and materials",
    title="What a key carries on its sides",
    usual={"diameter": 25, "width": 8, "height": 7, "length": 30},
    inputs=(
        Input("diameter", LENGTH, "of the shaft", above=0),
        Input("width", LENGTH, "of the key", above=0),
        Input("height", LENGTH, "of the key", above=0),
        Input("length", LENGTH, "over which it bears", above=0),
        Input("torque", TORQUE, "that it has to carry", None, above=0),
        Input(
            "pressure",
            STRESS,
            "allowed on its sides",
            default=100.0,
            above=0,
            high=1000,
        ),
    ),
    results=(
        Result("carries", TORQUE, "torque at the allowed pressure"),
        Result("side_force", FORCE, "on the key at the torque asked"),
        Result("side_pressure", STRESS, "at the torque asked"),
        Result("shear", STRESS, "in the key at the torque asked"),
    ),
    sources=(
        "half the key's height bears at half the shaft's diameter; 100 MPa is usual "
        "for steel in steel, 60 MPa for cast iron: a shop rule",
    ),
)
def _key_load(
    trail: Trail,
    diameter: float,
    width: float,
    height: float,
    length: float,
    torque: float | None,
    pressure: float,
) -> dict[str, Any]:
    if not width < diameter:
        raise BadInput("width", f"The key must be narrower than {diameter:g} mm.")
    results: dict[str, Any] = {
        "carries": trail.step(
            "Carries",
            f"{pressure:g} × {height:g} / 2 × {length:g} × {diameter:g} / 2000",
            pressure * height / 2 * length * diameter / 2000,
            TORQUE,
        )
    }
    if torque is not None:
        force = trail.step(
            "Force on its side",
            f"2000 × {torque:g} / {diameter:g}",
            2000 * torque / diameter,
            FORCE,
        )
        results["side_force"] = force
        results["side_pressure"] = trail.step(
            "Pressure",
            f"{force:.5g} / ({height:g} / 2 × {length:g})",
            force / (height / 2 * length),
            STRESS,
        )
        results["shear"] = trail.step(
            "Shear",
            f"{force:.5g} / ({width:g} × {length:g})",
            force / (width * length),
            STRESS,
        )
        if results["side_pressure"] > pressure:
            trail.cautions.append("The key's sides give: a longer key, or two of them.")
    return results
