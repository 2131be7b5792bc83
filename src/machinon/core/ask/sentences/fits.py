"""Sentences of fits, limits and what joins two pieces."""

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.fits.bearing_seat import SPOILT
from machinon.core.quantity import (
    FORCE,
    TONNE,
    TORQUE,
    length_range,
    length_text,
    small_text,
)

tells = Tellings()


@tells("press-fit")
def _press_fit(t: Teller) -> str:
    return (
        f"Press with {t.rough(float(t['press_force']), FORCE)}, "
        f"{t['press_force'] / TONNE:.1f} tonnes; the hub is {t['safety']:.1f} times as "
        "strong as it must be"
    )


@tells("iso-limits")
def _limits(t: Teller) -> str:
    limits = length_range(t["lower"], t["upper"], inch=t.inch)
    return f"{t.size(float(t.given('nominal')))} {t.given('zone')}: {limits}"


@tells("bolts-carry")
def _bolts(t: Teller) -> str:
    carries = t.rough(float(t["carries"]), TORQUE)
    said = f"Carries {carries} with a safety of {t.given('safety'):g}"
    if not t.has("tighten"):
        return said
    return f"{said}; each screw tightened to {t.rough(float(t['tighten']), TORQUE)}"


@tells("fit-target")
def _other_half(t: Teller) -> str:
    if t["warning"]:
        return str(t["warning"])
    half = "shaft" if t.given("kind") == "hole" else "hole"
    sizes = length_range(t["lower"], t["upper"], inch=t.inch)
    aim = length_text(t["aim"], inch=t.inch)
    return f"Make the {half} {sizes}, aim at {aim}: {_play(t)}"


def _play(t: Teller) -> str:
    """The play from the tightest to the loosest pair, or the interference."""
    least, most = float(t["clearance_min"]), float(t["clearance_max"])
    tight, loose = (small_text(abs(limit), t.inch) for limit in (least, most))
    if least >= 0:
        return f"{tight} to {loose} of play"
    if most <= 0:
        return f"the shaft {loose} to {tight} over"
    return f"from the shaft {tight} over to {loose} of play"


@tells("iso-fit", "inch-fit")
def _fit(t: Teller) -> str:
    hole, shaft = (
        length_range(t[f"{half}_lower"], t[f"{half}_upper"], inch=t.inch)
        for half in ("hole", "shaft")
    )
    return f"Hole {hole}, shaft {shaft}: {t['kind']}, {_play(t)}"


@tells("play")
def _measured_play(t: Teller) -> str:
    play = float(t["play"])
    by = small_text(abs(play), t.inch)
    said = f"{by} of play" if play >= 0 else f"Tight by {by}"
    leans = f"; it leans {t.angle('tilt')} at most" if t.has("tilt") else ""
    return f"{said}: {t['like']}{leans}"


@tells("shrink-fit")
def _shrink_fit(t: Teller) -> str:
    return (
        f"Heat the hub to {t.heat('hub_temperature')}: it grows "
        f"{t.both('total_expansion', 0.01)} and drops on"
    )


@tells("o-ring-groove")
def _o_ring(t: Teller) -> str:
    sizes = f"{t.both('width', 0.01)} wide and {t.both('depth', 0.01)} deep"
    if t.given("where") != "face":
        sizes += f", its floor {t.size('groove_diameter')}"
    return (
        f"A groove {sizes}; the ring pressed by {t['squeeze']:.0f} %, "
        f"{t.size('ring_inside', 0.1)} inside"
    )


@tells("ball-bearing")
def _bearing(t: Teller) -> str:
    shaft, housing = (
        length_range(float(t[f"{seat}_lower"]), float(t[f"{seat}_upper"]), inch=t.inch)
        for seat in ("shaft", "housing")
    )
    *others, width = (t.size(key) for key in ("bore", "outside", "width"))
    sizes = " × ".join([*(size.split()[0] for size in others), width])
    number = t.given("number")
    return f"{number}: {sizes}; a shaft that turns in it {shaft}, its housing {housing}"


@tells("bearing-seat")
def _seat(t: Teller) -> str:
    if not t.has("left_least"):
        return f"This ring {t['seat']}; {t['adjusted']} sets the play"
    bore = float(t.given("bore"))
    low, high = bore - float(t.given("play_most")), bore - float(t.given("play_least"))
    slips = ""
    if t.has("warm_to"):
        slips = f"; warmed to {t.heat('warm_to')} its ring slips on"
        if t["warm_to"] > SPOILT:
            slips = "; it is pressed on, so much warmth would spoil it"
    turned = length_text(high, 0.001, t.inch)
    if length_text(low, 0.001, t.inch) != turned:
        turned = length_range(low, high, inch=t.inch)
    return (
        f"Turn the seat to {turned} for the ring that turns; the bearing keeps "
        f"{small_text(t['left_least'], t.inch)} to "
        f"{small_text(t['left_most'], t.inch)} of play{slips}"
    )


@tells("t-nut")
def _t_nut(t: Teller) -> str:
    return (
        f"Tongue {t.size('tongue_lower', 0.01)} to {t.size('tongue_upper', 0.01)}, "
        f"head {t.size('head_upper')} × {t.size('height_upper')} at most, where the "
        "slot is as the standard has it: measure yours"
    )


@tells("bond-gap")
def _bond_gap(t: Teller) -> str:
    return (
        f"Leave {small_text(t['gap_min'], t.inch)} to "
        f"{small_text(t['gap_max'], t.inch)} on the diameter; it holds "
        f"{t.rough(float(t['hold_force']), FORCE)}, or turns "
        f"{t.rough(float(t['torque']), TORQUE)}"
    )
