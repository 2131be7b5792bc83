"""Sentences of what is measured, set and clocked."""

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.quantity import INCH, angle_text, length_range, small_text
from machinon.core.setting_out.runout import tells_oval

UNEXPLAINED = 0.1  # of a run-out: so much more than an offset is worth a closer look
WHOLE = 1e-3  # µm: a size this near to a whole one is one

LEAST = 0.005  # mm: no shim is thinner

tells = Tellings()


@tells("tailstock")
def _tailstock(t: Teller) -> str:
    if not t["move"]:
        return "The tailstock is in line"
    said = f"Move the tailstock {t.both('move')} {t['direction']}"
    if t.given("difference") is None:
        return said
    return f"{said}, where its end of the work is the thicker"


def _out_by(t: Teller, key: str) -> str:
    """How far something leans, and what to do."""
    return f"Out by {_leans(t, key)}. {t['advice']}"


def _leans(t: Teller, key: str) -> str:
    """How far something leans, whichever way, over a length that one has in mind."""
    over, words = (4 * INCH, "4 in") if t.inch else (100.0, "100 mm")
    return f"{t.size(abs(float(t[key])) / 100 * over)} over {words}"


@tells("measured-size")
def _mean(t: Teller) -> str:
    return f"{t.size('size')}, ± {small_text(float(t['uncertainty']), t.inch)}"


@tells("straightness")
def _straight(t: Teller) -> str:
    way = "falls" if float(t["slope"]) < 0 else "rises"
    return f"It {way} {_leans(t, 'slope')} and bows {t.size('bow')}"


@tells("packing")
def _packed(t: Teller) -> str:
    under = [
        f"{row['under']} {t.size(row['shim'], 0.01)}"
        for row in t["shims"]
        if row["shim"] > LEAST
    ]
    shimmed = f"Shim {', '.join(under)}" if under else "It lies level"
    twist = float(t["twist"])
    left = f"; {t.size(twist, 0.01)} of twist stays" if twist > LEAST else ""
    return f"{shimmed}{left}. {t['advice']}"


@tells("throw-angle")
def _throw(t: Teller) -> str:
    turned = angle_text(float(t["angle"]), 2)
    return f"{turned} from stop to stop; its arc rises {t.size('rise', 0.01)}"


@tells("key-sides")
def _key_widths(t: Teller) -> str:
    key, shaft, hub = (
        length_range(t[f"{part}_lower"], t[f"{part}_upper"], inch=t.inch)
        for part in ("key", "shaft", "hub")
    )
    return f"Key {key}; keyway in the shaft {shaft}, in the hub {hub}"


@tells("vise-tram")
def _vise_tram(t: Teller) -> str:
    return _out_by(t, "slope")


@tells("head-tram")
def _head_tram(t: Teller) -> str:
    return _out_by(t, "across")


@tells("dovetail")
def _dovetail(t: Teller) -> str:
    if t.given("internal"):
        return f"Between the pins: {t.both('between_pins')}"
    return f"Over the pins: {t.both('over_pins')}"


@tells("keyway")
def _keyway(t: Teller) -> str:
    wide, high = t.size("key_width"), t.size("key_height")
    depth = "hub_depth" if t.given("bore") else "shaft_depth"
    return (
        f"Key {wide} × {high}: {t.size(depth)} deep, {t.size('across')} across, feed "
        f"{t.size('feed_from_contact')} from the touch"
    )


@tells("woodruff")
def _woodruff(t: Teller) -> str:
    return (
        f"Key {t['key']}: cutter {t.both('cutter', 0.01)}, "
        f"{t.size('shaft_depth')} deep in the shaft"
    )


@tells("e-clip")
def _e_clip(t: Teller) -> str:
    return (
        f"Clip {t['size']:g} mm: groove {t.both('groove_diameter', 0.01)}, "
        f"{t.size('groove_width', 0.01)} wide"
    )


@tells("circlip")
def _circlip(t: Teller) -> str:
    return (
        f"Groove {t.both('groove_diameter', 0.01)}, {t.size('groove_width', 0.01)} wide"
    )


@tells("flat")
def _flat(t: Teller) -> str:
    return (
        f"{t.both('depth')} deep, {t.size('width')} wide, {t.size('across')} across to "
        "the far side"
    )


@tells("sine")
def _sine(t: Teller) -> str:
    return f"Slips under the sine bar: {t.both('stack', 0.0001)}"


@tells("angle-block")
def _angle_block(t: Teller) -> str:
    return f"Raise one end {t.both('height')}"


@tells("triangle")
def _triangle(t: Teller) -> str:
    return (
        f"{t.size('side')}, {t.size('rise')} and {t.size('slope')}: "
        f"{t.angle('angle')} and {t.angle('other_angle')}"
    )


@tells("arc-chord")
def _arc_chord(t: Teller) -> str:
    return f"Radius {t.both(float(t['diameter']) / 2)}"


@tells("gauge-stack")
def _stack(t: Teller) -> str:
    """A stack in the unit of its set: slips of an inch set are no whole microns."""
    sizes = [1000 * float(piece) for piece in t.given("pieces")]
    inches = any(abs(size - round(size)) > WHOLE for size in sizes)
    told = Teller(t.answer, inches or t.inch)
    pieces = (told.size(float(piece), 0.0001) for piece in t["pieces"])
    return f"Stack {' + '.join(p.split()[0] for p in pieces)}: {told.size('total')}"


@tells("fine-feed")
def _fine_feed(t: Teller) -> str:
    return (
        f"The topslide {t.both('travel')} for {t.both('off', 0.0001)} off the "
        f"diameter; the tool moves {t.size('along')} along"
    )


@tells("indicator-angle")
def _lever_indicator(t: Teller) -> str:
    return f"It moved {t.both('moved')}: it shows {t.size('too_much')} too much"


@tells("arc")
def _arc(t: Teller) -> str:
    return (
        f"Radius {t.both('radius')}, {t.size('chord')} from end to end, "
        f"{t.size('height')} high, {t.angle('angle')}: {t.size('length')} along it"
    )


@tells("vee")
def _vee(t: Teller) -> str:
    return (
        f"Its axis is {t.both('axis')} over the vee's bottom, its top {t.size('top')}"
    )


@tells("runout")
def _runout(t: Teller) -> str:
    said = f"It runs out {t.size('tir')}: {t.size('eccentricity')} off the middle"
    if tells_oval(t.answer):
        return f"{said}, {t.size('ovality')} out of round"
    rest = float(t["noise"]) > UNEXPLAINED * float(t["tir"])
    return f"{said}; the rest may be an oval: read 8 places" if rest else said


@tells("centring")
def _centring(t: Teller) -> str:
    return (
        f"Off the middle by {t.size('offset')}, high at {t['direction']:.0f}°; "
        f"it runs out {t.size('tir')}"
    )


@tells("angle")
def _angle(t: Teller) -> str:
    return (
        f"{t.angle('degrees')} is {t['minutes']}, {t['radians']:.6f} radians: tangent "
        f"{t['tangent']:.6f}, sine {t['sine']:.6f}, cosine {t['cosine']:.6f}; it rises "
        f"1 in {t['one_in']:.5g}, {float(t['rise']):.4g} in 100"
    )
