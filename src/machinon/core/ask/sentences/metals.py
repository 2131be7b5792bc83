"""Sentences of metals: their weight, hardness, warmth and temper."""

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.cutting.hardness import SCALES
from machinon.core.quantity import (
    MASS,
    STRESS,
    VOLUME,
    rough_text,
    small_text,
    surface_speed_in,
)
from machinon.core.wording import begun

tells = Tellings()


@tells("metal")
def _metal(t: Teller) -> str:
    name = begun(str(t.given("material")))
    said = (
        f"{name}: about {t['hardness']:.0f} Brinell, tears at {t['strength']:.0f} MPa; "
        f"{float(t['density']) / 1000:.2f} kg a litre; 100 mm grow "
        f"{small_text(float(t['growth']), t.inch)} with ten degrees"
    )
    if t.has("turn_hss"):
        speed, unit = surface_speed_in(t["turn_hss"], t.inch)
        said += f"; turned at {speed:.0f} {unit} with HSS"
    return said + (f"; taps: {t['taps']}" if t.has("taps") else "")


@tells("temper-colour")
def _temper_colour(t: Teller) -> str:
    return (
        f"{begun(str(t['colour']))}, from {t.heat('least')} to {t.heat('most')}: "
        f"{t['suits']}"
    )


@tells("mass")
def _mass(t: Teller) -> str:
    volume = t.rough(float(t["volume"]), VOLUME)
    return f"{t.rough(float(t['mass']), MASS)}, of {volume}"


@tells("thermal-size")
def _thermal_size(t: Teller) -> str:
    by = small_text(abs(t["change"]), t.inch)
    there = t.heat(float(t.given("reference")))
    grows = "shorter" if t["change"] > 0 else "longer"
    return f"{begun(grows)} by {by} at {there}: {t.both('size_at_reference', 0.0001)}"


@tells("hardness")
def _hardness(t: Teller) -> str:
    """The scales that it can be read in, but for the one that it was."""
    given = next(key for key in SCALES if t.given(key) is not None)
    told = [
        f"{t[key]:g} {scale.name}"
        for key, scale in SCALES.items()
        if key not in (given, "strength") and t.has(key)
    ]
    if t.has("strength") and given != "strength":
        told.append(f"tears at {rough_text(float(t['strength']), STRESS)}")
    said = f"{t.given(given):g} {SCALES[given].name} is about {', '.join(told)}"
    return said if t.has("brinell") else f"{said}; too hard for Brinell's ball"
