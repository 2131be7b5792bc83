"""The answer in one sentence, as a machinist would say it across the shop."""

from collections.abc import Callable, Mapping
from fractions import Fraction
from typing import Any

from machinon.core.cutting.hardness import SCALES
from machinon.core.cutting.speeds import fed_by
from machinon.core.fits.bearing_seat import SPOILT
from machinon.core.piece.hardware import with_unit
from machinon.core.quantity import (
    ANGLE,
    DURATION,
    FORCE,
    INCH,
    LENGTH,
    MASS,
    ROUGH,
    ROUGHNESS,
    STRESS,
    TEMPERATURE,
    TONNE,
    TORQUE,
    TRAVEL,
    Kind,
    fraction_text,
    length_range,
    length_text,
    other_text,
    plain,
    rough_text,
    small_text,
    surface_speed_in,
    text_of,
    whole_tpi,
)
from machinon.core.reckoning import Answer, reckon, reckonings
from machinon.core.setting_out.other_units import figure_text
from machinon.core.setting_out.runout import tells_oval
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of
from machinon.core.wording import begun

UNEXPLAINED = 0.1  # of a run-out: so much more than an offset is worth a closer look
ALIKE = 1.0  # minutes of arc: no further off, a taper is like one that has a name


class _Teller:
    """An answer's figures as words; inch: which unit stands first."""

    def __init__(self, answer: Answer, inch: bool) -> None:
        self.answer, self.inch = answer, inch

    def __getitem__(self, key: str) -> Any:
        return self.answer.results[key]

    def given(self, key: str) -> Any:
        return self.answer.inputs.get(key)

    def has(self, key: str) -> bool:
        return self.answer.results.get(key) not in (None, "")

    def size(self, key: str | float, step: float = 0.001) -> str:
        """A length with its unit, without noughts that say nothing."""
        value = float(self.answer.results[key] if isinstance(key, str) else key)
        text = length_text(value, step, self.inch)
        number, unit = text.rsplit(" ", 1)
        if "." in number:
            number = number.rstrip("0").rstrip(".")
        return f"{number} {unit}"

    def both(self, key: str | float, step: float = 0.001) -> str:
        """A length in both units, the shop's own first."""
        value = float(self.answer.results[key] if isinstance(key, str) else key)
        other = length_text(value, step, not self.inch)
        return f"{self.size(value, step)} ({other})"

    def rough(self, value: float, kind: Kind) -> str:
        """A force, mass and the like; an inch shop's pounds stand first."""
        said, other = rough_text(value, kind), other_text(value, kind)
        return f"{other} ({said})" if self.inch and other else said

    def heat(self, key: str) -> str:
        """A temperature in both units, the shop's own first."""
        value = float(self[key])
        said = rough_text(value, TEMPERATURE), other_text(value, TEMPERATURE)
        first, other = reversed(said) if self.inch else said
        return f"{first} ({other})"

    def angle(self, key: str) -> str:
        return text_of(float(self[key]), ANGLE)


def _edge(t: _Teller) -> str:
    """Where to dial, with the part on either side of what was touched."""
    there = float(t["position"])
    other = 2 * float(t.given("edge_reading")) - there
    sides = ("plus", "minus") if t.given("direction") == "+" else ("minus", "plus")
    return (
        f"Dial {t.both(there)} where the part lies on the {sides[0]} side of the "
        f"finder, {t.size(other)} where on the {sides[1]} side"
    )


def _stack(t: _Teller) -> str:
    """A stack in the unit of its set: slips of an inch set are no whole microns."""
    sizes = [1000 * float(piece) for piece in t.given("pieces")]
    inches = any(abs(size - round(size)) > WHOLE for size in sizes)
    told = _Teller(t.answer, inches or t.inch)
    pieces = (told.size(float(piece), 0.0001) for piece in t["pieces"])
    return f"Stack {' + '.join(p.split()[0] for p in pieces)}: {told.size('total')}"


def _turns(t: _Teller) -> str:
    turns, lines = int(t["turns"]), int(t["lines"])
    said = f"{turns} turn{'s' * (turns != 1)} and {lines} line{'s' * (lines != 1)}"
    short = float(t["short"])
    said += f": the dial stands at {t.both('reads')}"
    if abs(short) < SHORT:
        return said
    side = "short of it" if short > 0 else "past it"
    return f"{said}, {small_text(abs(short), t.inch)} {side}"


EXACT = 0.01  # seconds of arc: a division off by less is exact
HAIR = 1e-6  # mm, by which a half is rounded up
OF_A_WHEEL = 600.0  # m/min: nothing is cut so fast
MANY = 8  # places in a row: of more the first and the last are said
WHOLE = 1e-3  # µm: a size this near to a whole one is one
SHORT = 0.0005  # mm: a slide that is no further off is there
A_MATCH = 0.05  # of 1: a thread that fits its readings worse is none of them
SAME_DRILL = 0.1  # mm apart: either does for the thread
Telling = Callable[[_Teller], str]


def _drill_named(t: _Teller, name: str, size: str) -> str:
    """A drill by its name, with its size where the name is none."""
    called = str(t[name])
    if called.endswith(("mm", "in")):
        return f"Drill {called}"
    told = length_text(float(t[size]) + HAIR, 0.01, t.inch)  # 3.175 is 3.18
    return f"Drill {called}, {told}"


def _tap_drill(t: _Teller) -> str:
    drill = _drill_named(t, "drill", "drill_size")
    said = f"{drill}: {t['engagement']:.0f} % of the thread"
    if t.given("kind") == "insert":
        said = f"{drill}, then the insert's own tap, {t.size('tap')} over its crests"
    inputs = {k: v for k, v in t.answer.inputs.items() if k != "series"}
    if inputs == t.answer.inputs:
        return said
    usual = reckon("tap-drill", inputs)
    if abs(float(usual["drill_size"]) - float(t["drill_size"])) < SAME_DRILL:
        return said
    return f"{said}; the usual {usual['drill']} is not among those there are"


def _thread(t: _Teller) -> str:
    pitch = float(t["pitch"])
    tpi = whole_tpi(pitch)
    form = str(t["form"])
    said = (
        f"{tpi} to the inch" if tpi and "metric" not in form else f"pitch {pitch:g} mm"
    )
    thread = thread_of(str(t.given("thread")))
    name = thread.says
    if thread.starts > 1:
        said += f", {thread.starts} starts with a lead of {thread.lead:g} mm"
    for half, key, crests, called in (
        ("screw", "external", "major", "over the crests"),
        ("nut", "internal", "minor", "bored"),
    ):
        if grade := t.given(f"{key}_class"):
            limits = (
                f"{called} {_between(t, f'{key}_{crests}')}, pitch diameter "
                f"{_between(t, f'{key}_pitch')}"
            )
            return f"{name}, a {grade} {half}: {limits}"
    return (
        f"{name}, {form}: {t.size('major')} over the crests, "
        f"{t.size('minor_external')} at the root, {t.size('pitch_diameter')} pitch "
        f"diameter, {said}, nut bored {t.size('minor_internal')}, "
        f"lead angle {t.angle('lead_angle')}"
    )


def _between(t: _Teller, key: str) -> str:
    """The limits of a size, the unit said once."""
    low, high = float(t[f"{key}_min"]), float(t[f"{key}_max"])
    return length_range(low, high, inch=t.inch)


def _screw_length(t: _Teller) -> str:
    sold = [with_unit(float(length)) for length in t["stock"]]
    holds = f"from {t.size('least')} it holds"
    if t.has("most"):
        holds += f", over {t.size('most')} it stands on the floor"
    return f"{' or '.join(sold) or 'None sold'}: {holds}"


def _limits(t: _Teller) -> str:
    limits = length_range(t["lower"], t["upper"], inch=t.inch)
    return f"{t.size(float(t.given('nominal')))} {t.given('zone')}: {limits}"


def _fit(t: _Teller) -> str:
    hole, shaft = (
        length_range(t[f"{half}_lower"], t[f"{half}_upper"], inch=t.inch)
        for half in ("hole", "shaft")
    )
    return f"Hole {hole}, shaft {shaft}: {_play(t)}"


def _measured_play(t: _Teller) -> str:
    play = float(t["play"])
    by = small_text(abs(play), t.inch)
    said = f"{by} of play" if play >= 0 else f"Tight by {by}"
    leans = f"; it leans {t.angle('tilt')} at most" if t.has("tilt") else ""
    return f"{said}: {t['like']}{leans}"


def _metal(t: _Teller) -> str:
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


def _wires(t: _Teller) -> str:
    wire = t.answer.inputs.get("wire") or t["best_wire"]
    said = f"Over wires of {t.size(float(wire))}: {t.both('over_wires')}"
    if t.has("over_wires_min"):
        said += f"; limits {t.size('over_wires_min')} to {t.size('over_wires_max')}"
    if not t.has("pitch_diameter"):
        return said
    return f"{said}; as read the pitch diameter is {t.both('pitch_diameter')}"


def _pitch(t: _Teller) -> str:
    tpi = f"{float(t['tpi']):.4g} to the inch"
    lead = f", lead {t.both('lead')}" if t.given("starts") not in (None, 1) else ""
    said = (
        f"Pitch {t.size('pitch', 0.0001)}, {tpi}{lead}; {t.both('depth_outside')} deep "
        f"a side, in the nut {t.size('depth_inside')}"
    )
    if t.has("lead_angle"):
        said += f"; lead angle {t.angle('lead_angle')}"
    if t.has("compound"):
        angle = text_of(t.given("angle"), ANGLE)
        return (
            f"{said}; along the compound at {angle} {t.both('compound')}, in the nut "
            f"{t.size('compound_inside')}"
        )
    return f"{said}; best wire {t.size('best_wire')}"


def _thread_passes(t: _Teller) -> str:
    """The whole depth, straight in and as the compound counts it, and the passes."""
    deep = f"{t.both('total_depth')} deep a side"
    angle = t.given("angle")
    if angle is None:
        angle = thread_of(str(t.given("thread"))).form.compound
    if t.given("school") != "plunge" and angle:
        at = text_of(float(angle), ANGLE)
        deep += f", {t.both('compound_total')} by the compound at {at}"
    return f"{deep}, in {len(t['passes'])} passes"


def _play(t: _Teller) -> str:
    """The play from the tightest to the loosest pair, or the interference."""
    least, most = float(t["clearance_min"]), float(t["clearance_max"])
    tight, loose = (small_text(abs(limit), t.inch) for limit in (least, most))
    if least >= 0:
        return f"{t['kind']}, {tight} to {loose} of play"
    if most <= 0:
        return f"{t['kind']}, the shaft {loose} to {tight} over"
    return f"{t['kind']}, from the shaft {tight} over to {loose} of play"


def _speed(t: _Teller) -> str:
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


def _eccentric(t: _Teller) -> str:
    if t.has("corrected"):
        return f"Packing of {t.both('corrected')} instead, under one jaw"
    return (
        f"Packing of {t.both('packing')} under one jaw; the indicator then reads "
        f"{t.size('indicator')} from least to most"
    )


def _table_feed(t: _Teller) -> str:
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


def _gears(t: _Teller) -> str:
    trains = t["trains"]
    if not trains:
        return "No train of these wheels comes near enough"
    first = trains[0]
    wheels = " × ".join(
        f"{a}/{b}" for a, b in zip(first["drivers"], first["driven"], strict=True)
    )
    off = first["error_percent"]
    exact = "exactly" if abs(off) < 1e-9 else f"off by {off:+.3f} %"
    return f"Drivers over driven {wheels}, {exact}"


def _dividing(t: _Teller) -> str:
    settings = t["settings"]
    if not settings:
        return "No plate divides that"
    first = settings[0]
    turns = int(first["turns"])
    whole = f"{turns} turn{'s' if turns != 1 else ''}" if turns else ""
    holes = int(first["holes"])
    part = (
        f"{holes} hole{'s' if holes != 1 else ''} on the {first['circle']} circle"
        if holes
        else ""
    )
    said = " and ".join(words for words in (whole, part) if words) + " for each"
    off = abs(float(first["error"])) * 3600
    if off < EXACT:
        return said
    return f"{said}: not exact, {off:.0f}″ off at each, so set each by its own angle"


def _other_units(t: _Teller) -> str:
    measure = str(t["measure"])
    said = (
        f"{t.given('value')} is {figure_text(float(t['figure']), measure)} {t['unit']}"
    )
    return said if t.given("to") else "; ".join([said, *t["others"][:2]])


def _hardness(t: _Teller) -> str:
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


def _convert(t: _Teller) -> str:
    value = float(t["mm"])
    wanted = t.given("to")
    mm, inch = f"{_trim(value, 4)} mm", f"{_trim(float(t['inch']), 5)} in"
    drill = ""
    if t.has("drill"):
        error = float(t["drill_error"])
        drill = f"drill {t['drill']}"
        drill += "" if abs(error) < 0.0005 else f", {small_text(error, t.inch, True)}"
    fraction = ""
    if abs(float(t["fraction_error"])) < 0.005:
        fraction = f"{t['fraction']} in"
    if wanted == "drill":
        if not drill:
            return f"No drill is near {mm}"
        exact = abs(float(t["drill_error"])) < 0.0005
        return f"{mm} is {'' if exact else 'nearest to '}{drill}"
    if wanted == "um":
        return f"{inch} is {_trim(float(t['um']), 2)} µm"
    if wanted == "thou":
        return f"{mm} is {_trim(float(t['thou']), 2)} thou"
    if wanted == "inch":
        return f"{mm} is {inch}"
    if wanted == "fraction":
        error = float(t["fraction_error"])
        if abs(error) < 0.0005:
            return f"{inch} is {t['fraction']} in"
        off = small_text(error, t.inch, True)
        return f"{mm} is nearest to {t['fraction']} in, {off}"
    first, second = (inch, mm) if t.inch else (mm, inch)
    if wanted == "mm":
        first, second = inch, mm
    more = "".join(f"; {words}" for words in (fraction, drill) if words)
    if not t.inch and _is_inch_decimal(value):
        more += f"; {_trim(value, 6)} in would be {_trim(value * INCH, 3)} mm"
    return f"{first} is {second}{more}"


def _is_inch_decimal(value: float) -> bool:
    """Whether a bare decimal looks like a 64th of an inch: 0.3125."""
    return (
        0 < value < 1
        and abs(value * 64 - round(value * 64)) < 1e-6
        and abs(value * 10 - round(value * 10)) > 1e-6
    )


def _trim(value: float, places: int) -> str:
    text = plain(round(value, 9), places)  # 3/64 is 0.04688: no noise tips it
    return text.rstrip("0").rstrip(".") if "." in text else text


def _surface(t: _Teller) -> str:
    speed = float(t["surface_speed"])
    said = "{:.0f} {} at its outside".format(*surface_speed_in(speed, t.inch))
    # what a wheel may turn at is marked on it by the second
    return f"{said}, {speed / 60:.0f} m/s" if speed > OF_A_WHEEL else said


def _circle(t: _Teller) -> str:
    return (
        f"{t.given('holes')} holes on {t.size(float(t.given('diameter')))}: "
        f"{t.size('chord')} centre to centre, {text_of(t['angle_step'], ANGLE)} apart"
    )


def _row(t: _Teller) -> str:
    places = [
        length_text(float(place), 0.001, t.inch, unit=False) for place in t["positions"]
    ]
    if len(places) > MANY:
        places = [*places[:3], "…", places[-1]]
    return f"At {', '.join(places)} {'in' if t.inch else 'mm'}: {t.both('pitch')} apart"


def _taper(t: _Teller) -> str:
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
    called = "" if name.startswith("1:") else f"{name}: "
    return f"{called}{_slope(t)}{ends}"


def _slope(t: _Teller) -> str:
    return (
        f"1 : {1 / float(t['ratio']):.4g}, compound at {t.angle('half_angle')}, "
        f"{t.angle('included_angle')} included, {t['taper_per_foot']:.4g} in/ft"
    )


def _from_ends(t: _Teller) -> str:
    off = abs(float(t["error_minutes"]))
    near = f", like {t['nearest']}" if off < ALIKE else ""
    return f"{_slope(t)}{near}"


def _set_up(t: _Teller) -> str:
    if t.has("tailstock_offset"):
        return f"Move the tailstock {t.both('tailstock_offset')}"
    if t.has("indicator_reading"):
        along = t.given("along") or "axis"
        read = t.both("indicator_reading")
        return f"The indicator reads {read} over the travel along the {along}"
    if t.has("sine_stack"):
        return f"Slips under the sine bar: {t.both('sine_stack', 0.0001)}"
    return f"Compound at {t.angle('angle')}"


def _polygon(t: _Teller) -> str:
    return (
        f"{t.size('across_flats')} across flats: {t.both('round_needed')} of round, "
        f"{t.size('depth_per_flat')} deep each"
    )


def _knurl(t: _Teller) -> str:
    sizes = " or ".join(t.size(diameter) for diameter in t["best_diameters"])
    return f"Turn it to {sizes}: whole teeth; it grows about {t.size('growth', 0.01)}"


def _dovetail(t: _Teller) -> str:
    if t.given("internal"):
        return f"Between the pins: {t.both('between_pins')}"
    return f"Over the pins: {t.both('over_pins')}"


def _keyway(t: _Teller) -> str:
    wide, high = t.size("key_width"), t.size("key_height")
    depth = "hub_depth" if t.given("bore") else "shaft_depth"
    return (
        f"Key {wide} × {high}: {t.size(depth)} deep, {t.size('across')} across, feed "
        f"{t.size('feed_from_contact')} from the touch"
    )


def _pin(t: _Teller) -> str:
    steps = ", ".join(
        f"{t.size(drill['drill'])} to {t.size(drill['depth'], 0.1)}"
        for drill in t["drills"]
    )
    return (
        f"Ends {t.size('large_diameter')} and {t.size('small_diameter')}; drill {steps}"
    )


def _seat(t: _Teller) -> str:
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


def _passes(t: _Teller) -> str:
    key = "length" if t.given("on") == "length" else "diameter"
    sizes = [length_text(row[key], 0.01, t.inch, unit=False) for row in t["passes"]]
    more = " …" if len(sizes) > 6 else ""
    count = int(t["count"])
    unit = "in" if t.inch else "mm"
    passes = "pass" if count == 1 else "passes"
    return f"{count} {passes}: to {', '.join(sizes[:6])}{more} {unit}"


def _rotating(t: _Teller) -> str:
    by_custom = t.has("rim_rpm") and t["rim_rpm"] < t["rpm_limit"]
    limit = float(t["rim_rpm"] if by_custom else t["rpm_limit"])
    step = 10 ** max(len(str(int(limit))) - 2, 0)
    rule = "By the custom for its metal" if by_custom else "By strength alone"
    return (
        f"{rule} {int(limit // step * step)} rpm; the maker's limit and the "
        "way it is held come first"
    )


def _cutting_time(t: _Teller) -> str:
    count, minutes = int(t["passes"]), float(t["minutes"])
    passes = "pass" if count == 1 else "passes"
    whole = plain(minutes, 0 if minutes >= 10 else 1)
    return f"{whole} minutes for {count} {passes}, with setting each"


def _identify(t: _Teller) -> str:
    found = t["candidates"]
    if not found or float(found[0]["score"]) < A_MATCH:
        near = f"; the nearest is {found[0]['thread']}" if found else ""
        return f"No thread that is kept here measures so{near}"
    if not t["told_apart"] and len(found) > 1:
        return f"{found[0]['thread']} or {found[1]['thread']}: {t['decides']}"
    return f"{found[0]['thread']}"


def _hole_tap(t: _Teller) -> str:
    taps = [f"{o['thread']} ({o['engagement']:.0f} %)" for o in t["taps"][:3]]
    said = f"It takes a tap {', '.join(taps)}" if taps else "It takes no tap as it is"
    if t["through"]:
        screws = (
            f"{o['screw']} ({t.size(o['room'], 0.01)} of room)" for o in t["through"]
        )
        said += f"; {' or '.join(screws)} goes through"
    return said


def _centre_drill(t: _Teller) -> str:
    names = " or ".join(str(t[key]) for key in ("metric", "inch") if t[key])
    return (
        f"Centre drill {names}, until its mouth is {t.both('mouth', 0.1)} wide: "
        f"{t.size('cone', 0.1)} of cone"
    )


def _out_by(t: _Teller, key: str) -> str:
    """How far something leans, over a length that one has in mind, and what to do."""
    over, words = (4 * INCH, "4 in") if t.inch else (100.0, "100 mm")
    return (
        f"Out by {t.size(abs(float(t[key])) / 100 * over)} over {words}. {t['advice']}"
    )


def _runout(t: _Teller) -> str:
    said = f"It runs out {t.size('tir')}: {t.size('eccentricity')} off the middle"
    if tells_oval(t.answer):
        return f"{said}, {t.size('ovality')} out of round"
    rest = float(t["noise"]) > UNEXPLAINED * float(t["tir"])
    return f"{said}; the rest may be an oval: read 8 places" if rest else said


def _turned_by(t: _Teller, key: str) -> str:
    """A key or spanner as it is sold: in millimetres, or as a fraction of an inch."""
    if not thread_of(str(t.given("thread"))).inch:
        return f"{t[key]:g} mm"
    parts = float(t[key]) / INCH * 64
    if abs(parts - round(parts)) > 0.01:
        return t.size(key)  # the smallest inch keys have no fraction
    return f"{fraction_text(Fraction(round(parts), 64))} in"


def _cap_screw(t: _Teller) -> str:
    turned_by = _turned_by(t, "key_size")
    if not t["head_height"]:
        return f"No head; key {turned_by}"
    return (
        f"Head {t.size('head_diameter')} × {t.size('head_height')}, "
        f"{'spanner' if t.given('head') == 'hex' else 'key'} {turned_by}, counterbore "
        f"{t.size('counterbore_diameter')} × {t.size('counterbore_depth')}"
    )


def _nut(t: _Teller) -> str:
    older = f" (older ones {t['older_flats']:g} mm)" if t.has("older_flats") else ""
    return (
        f"Nut: spanner {_turned_by(t, 'across_flats')}{older}, {t.size('height')} "
        f"high, a thin one {t.size('thin_height')}; washer {t.size('washer_outside')} "
        f"across, {t.size('washer_thickness')} thick; the screw stands out by "
        f"{t.both('stands', 0.1)}"
    )


TELLINGS: Mapping[str, Telling] = {
    "nut": _nut,
    "centre-drill": _centre_drill,
    "hole-tap": _hole_tap,
    "tap-drill": _tap_drill,
    "cutting-time": _cutting_time,
    "turned-finish": lambda t: (
        f"{t.size('feed')} a turn leaves ridges of "
        f"{text_of(t['height'], ROUGHNESS, t.inch)}, "
        f"Ra {text_of(t['roughness'], ROUGHNESS, t.inch)} at best"
    ),
    "rotating-limit": _rotating,
    "thread": _thread,
    "screw-length": _screw_length,
    "tailstock": lambda t: (
        f"Move the tailstock {t.both('move')} {t['direction']}"
        if t["move"]
        else "The tailstock is in line"
    ),
    "vise-tram": lambda t: _out_by(t, "slope"),
    "head-tram": lambda t: _out_by(t, "across"),
    "ream-drill": lambda t: (
        f"{_drill_named(t, 'drill', 'drill_size')}: {t.both('stock', 0.01)} on the "
        "diameter are left for the reamer"
    ),
    "screw-torque": lambda t: (
        f"{t.rough(float(t['torque']), TORQUE)} clamp with "
        f"{t.rough(float(t['preload']), FORCE)}, {t['share']:.0f} % of the proof "
        f"load of grade {t['grade']}"
    ),
    "clearance-hole": lambda t: f"Clearance hole {t.both('diameter', 0.01)}",
    "cap-screw": _cap_screw,
    "thread-wires": _wires,
    "pitch": _pitch,
    "press-fit": lambda t: (
        f"Press with {t.rough(float(t['press_force']), FORCE)}, "
        f"{t['press_force'] / TONNE:.1f} tonnes; the hub is {t['safety']:.1f} times as "
        "strong as it must be"
    ),
    "countersink": lambda t: (
        f"{t.both('diameter')} across goes {t.both('depth')} deep to its point"
        + (
            f"; {t.both('from_touch')} from the touch on the hole"
            if t.has("from_touch")
            else ""
        )
    ),
    "saw-slot": lambda t: (
        f"{t['passes']} passes: wind the saw down by "
        + ", ".join(t.size(float(depth)) for depth in t["from_touch"])
        + " from where its far face touched"
    ),
    "crest-flat": lambda t: f"Flat on the crest {t.both('flat')}",
    "thread-dial": lambda t: str(t["rule"]),
    "thread-passes": _thread_passes,
    "thread-engagement": lambda t: (
        f"At least {t.both('minimum_length', 0.1)} engaged, {t['turns']:.1f} turns"
    ),
    "thread-identify": _identify,
    "drill-depth": lambda t: (
        f"Drill {t.both('full_depth', 0.1)} to the shoulder, "
        f"{t.size('tip_depth', 0.1)} to the point"
    ),
    "iso-limits": _limits,
    "iso-fit": _fit,
    "play": _measured_play,
    "metal": _metal,
    "inch-fit": _fit,
    "shrink-fit": lambda t: (
        f"Heat the hub to {t.heat('hub_temperature')}: it grows "
        f"{t.both('total_expansion', 0.01)} and drops on"
    ),
    "bearing-seat": _seat,
    "t-nut": lambda t: (
        f"Tongue {t.size('tongue_lower', 0.01)} to {t.size('tongue_upper', 0.01)}, "
        f"head {t.size('head_upper')} × {t.size('height_upper')} at most, where the "
        "slot is as the standard has it: measure yours"
    ),
    "taper": _taper,
    "taper-angle": _from_ends,
    "taper-setup": _set_up,
    "taper-advance": lambda t: (
        f"{t.both('diameter_change')} on the diameter, {t.size('radial_infeed')} a side"
    ),
    "taper-pin": _pin,
    "bolt-circle": _circle,
    "hole-row": _row,
    "dividing": _dividing,
    "gear": lambda t: (
        f"Blank {t.both('outside_diameter', 0.01)}, {t.size('depth', 0.01)} deep, "
        f"cutter {t['cutter']}; {t.size('span')} over {t['span_teeth']} teeth"
    ),
    "change-gears": _gears,
    "polygon": _polygon,
    "pipe-joint": lambda t: (
        f"Cut {t.both('deepest')} deep at its sharp side; a template "
        f"{t.size('around')} long"
    ),
    "arc-points": lambda t: (
        f"{t['count']:.0f} places, {t['step']:.3f}° apart, the cutter's axis "
        f"{t.both('path')} from the centre; {t.size('left')} of ridge"
    ),
    "chord-check": lambda t: (
        f"Neighbours: {t.size('over_pins')} over the pins, {t.size('inside_pins')} "
        "between them"
    ),
    "chamfer": lambda t: (
        f"Leg {t.size('leg')}, face {t.size('face')}; fed square to it "
        f"{t.size('normal_depth')}"
    ),
    "square-hole": lambda t: (
        f"{_drill_named(t, 'drill_name', 'drill')} first; "
        f"{t.size('corner_distance')} over the corners"
    ),
    "hole-span": lambda t: (
        f"Bolt circle {t.both('diameter', 0.01)}; {t.size('chord')} centre to centre"
    ),
    "edge-find": _edge,
    "temper-colour": lambda t: (
        f"{begun(str(t['colour']))}, from {t.heat('least')} to {t.heat('most')}: "
        f"{t['suits']}"
    ),
    "dial-turns": _turns,
    "half-way": lambda t: f"The middle is at {t.both('centre')}",
    "dovetail": _dovetail,
    "keyway": _keyway,
    "woodruff": lambda t: (
        f"Key {t['key']}: cutter {t.both('cutter', 0.01)}, "
        f"{t.size('shaft_depth')} deep in the shaft"
    ),
    "taper-end": lambda t: (
        f"From {t.both('large_end', 0.001)} to {t.both('small_end', 0.001)} over "
        f"{t.size('long', 0.01)}"
    ),
    "cam-nose": lambda t: (
        f"Taper {t.both('taper', 0.001)} at the flange, 1:4; {t['studs']} studs on "
        f"{t.size('circle')}"
    ),
    "e-clip": lambda t: (
        f"Clip {t['size']:g} mm: groove {t.both('groove_diameter', 0.01)}, "
        f"{t.size('groove_width', 0.01)} wide"
    ),
    "circlip": lambda t: (
        f"Groove {t.both('groove_diameter', 0.01)}, {t.size('groove_width', 0.01)} wide"
    ),
    "flat": lambda t: (
        f"{t.both('depth')} deep, {t.size('width')} wide, {t.size('across')} across to "
        "the far side"
    ),
    "sine": lambda t: f"Slips under the sine bar: {t.both('stack', 0.0001)}",
    "angle-block": lambda t: f"Raise one end {t.both('height')}",
    "triangle": lambda t: (
        f"{t.size('side')}, {t.size('rise')} and {t.size('slope')}: "
        f"{t.angle('angle')} and {t.angle('other_angle')}"
    ),
    "arc-chord": lambda t: f"Radius {t.both(float(t['diameter']) / 2)}",
    "gauge-stack": _stack,
    "arc": lambda t: (
        f"Radius {t.both('radius')}, {t.size('chord')} from end to end, "
        f"{t.size('height')} high, {t.angle('angle')}: {t.size('length')} along it"
    ),
    "vee": lambda t: (
        f"Its axis is {t.both('axis')} over the vee's bottom, its top {t.size('top')}"
    ),
    "runout": _runout,
    "centring": lambda t: (
        f"Off the middle by {t.size('offset')}, high at {t['direction']:.0f}°; "
        f"it runs out {t.size('tir')}"
    ),
    "pieces": lambda t: f"{t['pieces']:.0f} pieces, {t.both('left', 0.1)} left",
    "speeds": _speed,
    "table-feed": _table_feed,
    "eccentric-packing": _eccentric,
    "surface-speed": _surface,
    "strip-length": lambda t: (
        f"Saw off {t.both('strip', 0.1)}; the pieces are {t.size('pitch')} apart"
    ),
    "grinding-allowance": lambda t: (
        f"Leave {t.both('allowance_on_diameter', 0.01)} on the diameter"
    ),
    "cleans-up": lambda t: (
        f"{t['advice']} Stock of {t.both('stock_needed', 0.1)} would do"
    ),
    "passes": _passes,
    "mass": lambda t: t.rough(float(t["mass"]), MASS),
    "thermal-size": lambda t: (
        f"{'Longer' if t['change'] > 0 else 'Shorter'} by "
        f"{small_text(abs(t['change']), t.inch)}"
    ),
    "detent": lambda t: (
        f"{t.both('depth', 0.01)} deep, {t.both('land_diameter', 0.01)} across its "
        f"rim; the ball rises {t.size('rise', 0.01)} out of it"
    ),
    "index-ring": lambda t: (
        f"{t.both('land', 0.01)} of metal between neighbours"
        if t["fits"]
        else f"They overlap by {t.both(-float(t['land']), 0.01)}"
    ),
    "bond-gap": lambda t: (
        f"Leave {small_text(t['gap_min'], t.inch)} to "
        f"{small_text(t['gap_max'], t.inch)} on the diameter; it holds "
        f"{t.rough(float(t['hold_force']), FORCE)}, or turns "
        f"{t.rough(float(t['torque']), TORQUE)}"
    ),
    "broach-force": lambda t: (
        f"About {t.rough(float(t['force']), FORCE)}: a press of {t['press']:.1f} tonnes"
    ),
    "knurl": _knurl,
    "ball-turning": lambda t: (
        f"{t['count']:.0f} steps leave {t.size('left')} to the file; it is "
        f"{t.both('length')} long"
    ),
    "boring-bar": lambda t: (
        f"{t['advice']} Gives {small_text(t['deflection'], t.inch)}"
    ),
    "convert": _convert,
    "other-units": _other_units,
    "hardness": _hardness,
    "angle": lambda t: (
        f"{t.angle('degrees')} is {t['minutes']}, {t['radians']:.6f} radians: tangent "
        f"{t['tangent']:.6f}, sine {t['sine']:.6f}, cosine {t['cosine']:.6f}; it rises "
        f"1 in {t['one_in']:.5g}"
    ),
}


def sentence(answer: Answer, inch: bool = False) -> str:
    """The answer in one sentence; its first figures where none is kept for it."""
    telling = TELLINGS.get(answer.reckoner)
    if telling is not None:
        return telling(_Teller(answer, inch))
    teller = _Teller(answer, inch)
    parts = []
    for result in reckonings()[answer.reckoner].results:
        value = answer.results.get(result.key)
        if value in (None, "") or isinstance(value, bool | list | dict):
            continue
        if isinstance(value, str):
            parts.append(f"{result.words} {value}")
        elif result.kind is LENGTH:
            parts.append(f"{result.words} {teller.both(float(value))}")
        else:
            known, kind = float(value), result.kind
            rough = kind in ROUGH
            said = teller.rough(known, kind) if rough else text_of(known, kind, inch)
            parts.append(f"{result.words} {said}")
        if len(parts) == 2:
            break
    text = ", ".join(parts)
    return begun(text)
