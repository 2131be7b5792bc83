"""Sentences of speeds, passes and tools."""

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.cutting.speeds import fed_by
from machinon.core.quantity import (
    DURATION,
    FORCE,
    POWER,
    ROUGHNESS,
    TORQUE,
    TRAVEL,
    length_text,
    plain,
    small_text,
    surface_speed_in,
    text_of,
)

OF_A_WHEEL = 600.0  # m/min: nothing is cut so fast

tells = Tellings()


@tells("cutting-time")
def _cutting_time(t: Teller) -> str:
    count, minutes = int(t["passes"]), float(t["minutes"])
    passes = "pass" if count == 1 else "passes"
    whole = plain(minutes, 0 if minutes >= 10 else 1)
    return f"{whole} minutes for {count} {passes}, with setting each"


@tells("turned-finish")
def _turned_finish(t: Teller) -> str:
    return (
        f"{t.size('feed')} a turn leaves ridges of "
        f"{text_of(t['height'], ROUGHNESS, t.inch)}, "
        f"Ra {text_of(t['roughness'], ROUGHNESS, t.inch)} at best"
    )


@tells("rotating-limit")
def _rotating(t: Teller) -> str:
    by_custom = t.has("rim_rpm") and t["rim_rpm"] < t["rpm_limit"]
    limit = float(t["rim_rpm"] if by_custom else t["rpm_limit"])
    step = 10 ** max(len(str(int(limit))) - 2, 0)
    rule = "By the custom for its metal" if by_custom else "By strength alone"
    return (
        f"{rule} {int(limit // step * step)} rpm; the maker's limit and the "
        "way it is held come first"
    )


@tells("saw-slot")
def _saw_slot(t: Teller) -> str:
    return (
        f"{t['passes']} passes: wind the saw down by "
        + ", ".join(t.size(float(depth)) for depth in t["from_touch"])
        + " from where its far face touched"
    )


@tells("pieces")
def _pieces(t: Teller) -> str:
    return f"{t['pieces']:.0f} pieces, {t.both('left', 0.1)} left"


@tells("speeds")
def _speed(t: Teller) -> str:
    rpm = f"{t['rpm']:.0f} rpm"
    own = (
        f", the machine's nearest to {t['rpm_ideal']:.0f}"
        if t.given("machine_speeds")
        else ""
    )
    feed = f", feed {t.size('feed')} a {fed_by(t.answer)}" if t["feed"] else ""
    if t.has("table_feed"):
        feed += f", {text_of(float(t['table_feed']), TRAVEL, t.inch)} at the table"
    speed, unit = surface_speed_in(t["surface_speed"], t.inch)
    return f"{rpm}{own}{feed}, {speed:.0f} {unit}"


@tells("cutting-power")
def _power(t: Teller) -> str:
    return (
        f"{t.rough(float(t['power']), POWER)} at a keen edge, a motor of "
        f"{t.rough(float(t['motor']), POWER)}; {t.rough(float(t['force']), FORCE)} on "
        f"{'each lip' if t.given('operation') == 'drill' else 'the edge'}, "
        f"{t.rough(float(t['torque']), TORQUE)} at {t['rpm']:.0f} rpm"
    )


@tells("table-feed")
def _table_feed(t: Teller) -> str:
    table = text_of(float(t["table_feed"]), TRAVEL, t.inch)
    if t.given("travel"):
        said = f"{t.size('tooth')} a tooth at {table}" if t.has("tooth") else table
    elif t.given("teeth") == 1:
        said = f"{table}, {t.size('per_turn')} a turn"
    else:
        said = f"{table} at the table, {t.size('per_turn')} a turn of the cutter"
    if t.has("handle_time"):
        said += f": a turn of the handle in {float(t['handle_time']):.2g} s"
    if t.has("time"):
        said += f"; {text_of(float(t['time']), DURATION)} for the length"
    if t.has("chip"):
        said += f"; the chip is {t.size('chip')} at its thickest"
    return said


@tells("surface-speed")
def _surface(t: Teller) -> str:
    speed = float(t["surface_speed"])
    here, there = (
        "{:.0f} {}".format(*surface_speed_in(speed, inch))
        for inch in (t.inch, not t.inch)
    )
    said = f"{here} ({there}) at its outside"
    # what a wheel may turn at is marked on it by the second
    return f"{said}, {speed / 60:.0f} m/s" if speed > OF_A_WHEEL else said


@tells("strip-length")
def _strip_length(t: Teller) -> str:
    return f"Saw off {t.both('strip', 0.1)}; the pieces are {t.size('pitch')} apart"


@tells("grinding-allowance")
def _grinding_allowance(t: Teller) -> str:
    return f"Leave {t.both('allowance_on_diameter', 0.01)} on the diameter"


@tells("cleans-up")
def _cleans_up(t: Teller) -> str:
    return f"{t['advice']} Stock of {t.both('stock_needed', 0.1)} would do"


@tells("passes")
def _passes(t: Teller) -> str:
    key = "length" if t.given("on") == "length" else "diameter"
    sizes = [length_text(row[key], 0.01, t.inch, unit=False) for row in t["passes"]]
    more = " …" if len(sizes) > 6 else ""
    count = int(t["count"])
    unit = "in" if t.inch else "mm"
    passes = "pass" if count == 1 else "passes"
    return f"{count} {passes}: to {', '.join(sizes[:6])}{more} {unit}"


@tells("broach-force")
def _broach_force(t: Teller) -> str:
    return (
        f"About {t.rough(float(t['force']), FORCE)}: a press of {t['press']:.1f} tonnes"
    )


@tells("knurl")
def _knurl(t: Teller) -> str:
    sizes = " or ".join(t.size(diameter) for diameter in t["best_diameters"])
    return f"Turn it to {sizes}: whole teeth; it grows about {t.size('growth', 0.01)}"


@tells("ball-turning")
def _ball_turning(t: Teller) -> str:
    return (
        f"{t['count']:.0f} steps leave {t.size('left')} to the file; it is "
        f"{t.both('length')} long"
    )


@tells("boring-bar")
def _boring_bar(t: Teller) -> str:
    return f"{t['advice']} Gives {small_text(t['deflection'], t.inch)}"
