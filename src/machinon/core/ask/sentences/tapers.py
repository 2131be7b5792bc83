"""Sentences of tapers and their set-up."""

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.tapers.tapers import by_angle, named_tapers, taper_of
from machinon.core.threads.tapping import drill_named

ALIKE = 1.0  # minutes of arc: no further off, a taper is like one that has a name

tells = Tellings()


def _slope(t: Teller) -> str:
    return (
        f"1 : {1 / float(t['ratio']):.4g}, compound at {t.angle('half_angle')}, "
        f"{t.angle('included_angle')} included, {t['taper_per_foot']:.4g} in/ft"
    )


def _by_angle(t: Teller) -> str:
    """Which angle a taper was taken to have, where it was said by that; before what it
    comes to."""
    name = taper_of(str(t.given("taper"))).name
    return f"{name}: " if by_angle(name) else ""


@tells("taper")
def _taper(t: Teller) -> str:
    ends = ""
    if t.has("large_diameter"):
        ends = f", {t.size('large_diameter')} at its large end"
        if t.has("small_diameter"):
            ends += f" and {t.size('small_diameter')} after {t.size('length')}"
    if t.has("tang"):
        ends += f"; tang {t.size('tang')}"
    if t.has("draw_bar"):
        ends += f"; draw bar {t['draw_bar']}"
    name = taper_of(str(t.given("name"))).name
    called = f"{name}: " if name in named_tapers() or "/" in name else ""
    return f"{called}{_slope(t)}{ends}"


@tells("taper-angle")
def _from_ends(t: Teller) -> str:
    off = abs(float(t["error_minutes"]))
    near = f", like {t['nearest']}" if off < ALIKE else ""
    return f"{_slope(t)}{near}"


@tells("taper-setup")
def _set_up(t: Teller) -> str:
    of = _by_angle(t)
    if t.has("tailstock_offset"):
        return f"{of}Move the tailstock {t.both('tailstock_offset')}"
    if t.has("indicator_reading"):
        along = t.given("along") or "axis"
        read = t.both("indicator_reading")
        return f"{of}The indicator reads {read} over the travel along the {along}"
    if t.has("sine_stack"):
        return f"{of}Slips under the sine bar: {t.both('sine_stack', 0.0001)}"
    return f"{of}Compound at {t.angle('angle')}"


@tells("taper-advance")
def _taper_advance(t: Teller) -> str:
    if t.given("diameter_change") is not None:
        return f"{_by_angle(t)}It goes in {t.both('advance')} further"
    change, a_side = t.both("diameter_change"), t.size("radial_infeed")
    return f"{_by_angle(t)}{change} on the diameter, {a_side} a side"


@tells("taper-pin")
def _pin(t: Teller) -> str:
    steps = ", ".join(
        f"{drill_named(drill['drill'])} to {t.size(drill['depth'], 0.1)}"
        for drill in t["drills"]
    )
    return (
        f"Ends {t.size('large_diameter')} and {t.size('small_diameter')}; drill {steps}"
    )


@tells("taper-end")
def _taper_end(t: Teller) -> str:
    large, small = t.both("large_end", 0.001), t.both("small_end", 0.001)
    return f"{_by_angle(t)}From {large} to {small} over {t.size('long', 0.01)}"


@tells("cam-nose")
def _cam_nose(t: Teller) -> str:
    return (
        f"Taper {t.both('taper', 0.001)} at the flange, 1:4; {t['studs']} studs on "
        f"{t.size('circle')}"
    )
