"""Sentences of screws, threads and what they go into."""

from fractions import Fraction

from machinon.core.ask.sentences.teller import Teller, Tellings, drill_named
from machinon.core.piece.hardware import with_unit
from machinon.core.quantity import (
    ANGLE,
    FORCE,
    INCH,
    TORQUE,
    fraction_text,
    length_range,
    text_of,
    whole_tpi,
)
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of

A_MATCH = 0.05  # of 1: a thread that fits its readings worse is none of them
SAME_DRILL = 0.1  # mm apart: either does for the thread

tells = Tellings()


def _turned_by(t: Teller, key: str) -> str:
    """A key or spanner as it is sold: in millimetres, or as a fraction of an inch."""
    if not thread_of(str(t.given("thread"))).inch:
        return f"{t[key]:g} mm"
    parts = float(t[key]) / INCH * 64
    if abs(parts - round(parts)) > 0.01:
        return t.size(key)  # the smallest inch keys have no fraction
    return f"{fraction_text(Fraction(round(parts), 64))} in"


@tells("nut")
def _nut(t: Teller) -> str:
    older = f" (older ones {t['older_flats']:g} mm)" if t.has("older_flats") else ""
    across, thick, hole = (
        t.size(f"washer_{key}") for key in ("outside", "thickness", "hole")
    )
    return (
        f"Nut: spanner {_turned_by(t, 'across_flats')}{older}, {t.size('height')} "
        f"high, a thin one {t.size('thin_height')}; washer {across} across, {thick} "
        f"thick, its hole {hole}; the screw stands out by {t.both('stands', 0.1)}"
    )


@tells("hole-tap")
def _hole_tap(t: Teller) -> str:
    taps = [f"{o['thread']} ({o['engagement']:.0f} %)" for o in t["taps"][:3]]
    said = f"It takes a tap {', '.join(taps)}" if taps else "It takes no tap as it is"
    if t["through"]:
        screws = (
            f"{o['screw']} ({t.size(o['room'], 0.01)} of room)" for o in t["through"]
        )
        said += f"; {' or '.join(screws)} goes through"
    return said


@tells("taper-pipe-thread")
def _taper_pipe(t: Teller) -> str:
    drills = [str(t["drill"]), str(t["inch_drill"])]
    hole, other = reversed(drills) if t.inch else drills
    return (
        f"{float(t['tpi']):g} to the inch on a half angle of {t.angle('half_angle')}; "
        f"the screw {t.size('major')} outside, {t.size('end_outside')} at its end, "
        f"the hole drilled {hole} ({other}), {t.size('by_hand')} go in by hand"
    )


@tells("tap-drill")
def _tap_drill(t: Teller) -> str:
    drill = drill_named(t, "drill", "drill_size")
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


def _between(t: Teller, key: str) -> str:
    """The limits of a size, the unit said once."""
    low, high = float(t[f"{key}_min"]), float(t[f"{key}_max"])
    return length_range(low, high, inch=t.inch)


@tells("thread")
def _thread(t: Teller) -> str:
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
    halves = [
        f"a {grade} {half}: {called} {_between(t, f'{key}_{crests}')}, "
        f"pitch diameter {_between(t, f'{key}_pitch')}"
        for half, key, crests, called in (
            ("screw", "external", "major", "over the crests"),
            ("nut", "internal", "minor", "bored"),
        )
        if (grade := t.given(f"{key}_class"))
    ]
    if halves:
        return f"{name}, {'; '.join(halves)}"
    return (
        f"{name}, {form}: {t.size('major')} over the crests, "
        f"{t.size('minor_external')} at the root, {t.size('pitch_diameter')} pitch "
        f"diameter, {said}, nut bored {t.size('minor_internal')}, "
        f"lead angle {t.angle('lead_angle')}"
    )


@tells("screw-length")
def _screw_length(t: Teller) -> str:
    sold = [with_unit(float(length)) for length in t["stock"]]
    holds = f"from {t.size('least')} it holds"
    if t.has("most"):
        holds += f", over {t.size('most')} it stands on the floor"
    return f"{' or '.join(sold) or 'None sold'}: {holds}"


@tells("ream-drill")
def _ream_drill(t: Teller) -> str:
    return (
        f"{drill_named(t, 'drill', 'drill_size')}: {t.both('stock', 0.01)} on the "
        "diameter are left for the reamer"
    )


@tells("screw-torque")
def _screw_torque(t: Teller) -> str:
    return (
        f"{t.rough(float(t['torque']), TORQUE)} clamp with "
        f"{t.rough(float(t['preload']), FORCE)}, {t['share']:.0f} % of the proof "
        f"load of grade {t['grade']}"
    )


@tells("clearance-hole")
def _clearance_hole(t: Teller) -> str:
    return f"Clearance hole {t.both('diameter', 0.01)}"


@tells("cap-screw")
def _cap_screw(t: Teller) -> str:
    turned_by = _turned_by(t, "key_size")
    if not t["head_height"]:
        return f"No head; key {turned_by}"
    return (
        f"Head {t.size('head_diameter')} × {t.size('head_height')}, "
        f"{'spanner' if t.given('head') == 'hex' else 'key'} {turned_by}, counterbore "
        f"{t.size('counterbore_diameter')} × {t.size('counterbore_depth')}"
    )


@tells("thread-wires")
def _wires(t: Teller) -> str:
    wire = t.answer.inputs.get("wire") or t["best_wire"]
    said = f"Over wires of {t.size(float(wire))}: {t.both('over_wires')}"
    if t.has("over_wires_min"):
        said += f"; limits {t.size('over_wires_min')} to {t.size('over_wires_max')}"
    if not t.has("pitch_diameter"):
        return said
    return f"{said}; as read the pitch diameter is {t.both('pitch_diameter')}"


@tells("pitch")
def _pitch(t: Teller) -> str:
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


@tells("crest-flat")
def _crest_flat(t: Teller) -> str:
    return f"Flat on the crest {t.both('flat')}"


@tells("thread-dial")
def _thread_dial(t: Teller) -> str:
    return str(t["rule"])


@tells("thread-passes")
def _thread_passes(t: Teller) -> str:
    """The whole depth, straight in and as the compound counts it, and the passes."""
    deep = f"{t.both('total_depth')} deep a side"
    angle = t.given("angle")
    if angle is None:
        angle = thread_of(str(t.given("thread"))).form.compound
    if t.given("school") != "plunge" and angle:
        at = text_of(float(angle), ANGLE)
        deep += f", {t.both('compound_total')} by the compound at {at}"
    groove = t.size("runout_groove_width", 0.1)
    return f"{deep}, in {len(t['passes'])} passes; a groove of {groove}"


@tells("thread-engagement")
def _thread_engagement(t: Teller) -> str:
    return f"At least {t.both('minimum_length', 0.1)} engaged, {t['turns']:.1f} turns"


@tells("thread-identify")
def _identify(t: Teller) -> str:
    found = t["candidates"]
    if not found or float(found[0]["score"]) < A_MATCH:
        near = f"; the nearest is {found[0]['thread']}" if found else ""
        return f"No thread that is kept here measures so{near}"
    if not t["told_apart"] and len(found) > 1:
        return f"{found[0]['thread']} or {found[1]['thread']}: {t['decides']}"
    return f"{found[0]['thread']}"


@tells("drill-depth")
def _drill_depth(t: Teller) -> str:
    return (
        f"Drill {t.both('full_depth', 0.1)} to the shoulder, "
        f"{t.size('tip_depth', 0.1)} to the point; "
        f"{round(t['turns'], 1):g} turns of the tap"
    )


@tells("change-gears")
def _gears(t: Teller) -> str:
    trains = t["trains"]
    if not trains:
        return "No train of these wheels comes near enough"
    first = trains[0]
    wheels = " × ".join(
        f"{a}/{b}" for a, b in zip(first["drivers"], first["driven"], strict=True)
    )
    off = first["error_percent"]
    exact = "exactly" if abs(off) < 1e-9 else f"off by {off:+.3f} %".replace("-", "−")
    return f"Drivers over driven {wheels}, {exact}"
