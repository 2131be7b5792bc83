"""Sentences of places, patterns and shapes that are set out."""

from machinon.core.ask.sentences.teller import Teller, Tellings, drill_named
from machinon.core.quantity import ANGLE, length_text, text_of

WHOLE = 1e-6  # a diametral pitch that is one
EXACT = 0.01  # seconds of arc: a division off by less is exact
MANY = 8  # places in a row: of more the first and the last are said

tells = Tellings()


@tells("centre-drill")
def _centre_drill(t: Teller) -> str:
    names = " or ".join(str(t[key]) for key in ("metric", "inch") if t[key])
    return (
        f"Centre drill {names}, until its mouth is {t.both('mouth', 0.1)} wide: "
        f"{t.size('cone', 0.1)} of cone"
    )


@tells("drill-steps")
def _drill_steps(t: Teller) -> str:
    return f"Drill {', then '.join(str(row['drill']) for row in t['drills'])}"


@tells("countersink")
def _countersink(t: Teller) -> str:
    return f"{t.both('diameter')} across goes {t.both('depth')} deep to its point" + (
        f"; {t.both('from_touch')} from the touch on the hole"
        if t.has("from_touch")
        else ""
    )


@tells("bolt-circle")
def _circle(t: Teller) -> str:
    return (
        f"{t.given('holes')} holes on {t.size(float(t.given('diameter')))}: "
        f"{t.size('chord')} centre to centre, {text_of(t['angle_step'], ANGLE)} apart"
    )


@tells("hole-row")
def _row(t: Teller) -> str:
    places = [
        length_text(float(place), 0.001, t.inch, unit=False) for place in t["positions"]
    ]
    if len(places) > MANY:
        places = [*places[:3], "…", places[-1]]
    return f"At {', '.join(places)} {'in' if t.inch else 'mm'}: {t.both('pitch')} apart"


@tells("dividing")
def _dividing(t: Teller) -> str:
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


@tells("gear")
def _gear(t: Teller) -> str:
    blank = "Blank"
    if t.has("centres"):
        blank = f"{t.both('centres')} between their axes; blank"
    elif t.given("outside") is not None:  # which it is, was asked
        pitch, module = float(t["dp"]), float(t["module"])
        whole = abs(pitch - round(pitch)) < WHOLE
        named = f"Diametral pitch {pitch:.0f}" if whole else f"Module {module:.4g}"
        blank = f"{named}: blank"
    return (
        f"{blank} {t.both('outside_diameter', 0.01)}, pitch circle "
        f"{t.size('pitch_diameter')}, {t.size('depth', 0.01)} deep, "
        f"cutter {t['cutter']}; {t.size('span')} over {t['span_teeth']} teeth"
    )


@tells("polygon")
def _polygon(t: Teller) -> str:
    return (
        f"{t.size('across_flats')} across flats: {t.both('round_needed')} of round, "
        f"{t.size('depth_per_flat')} deep each"
    )


@tells("pipe-joint")
def _pipe_joint(t: Teller) -> str:
    return (
        f"Cut {t.both('deepest')} deep at its sharp side; a template "
        f"{t.size('around')} long"
    )


@tells("arc-points")
def _arc_points(t: Teller) -> str:
    return (
        f"{t['count']:.0f} places, {t['step']:.3f}° apart, the cutter's axis "
        f"{t.both('path')} from the centre; {t.size('left')} of ridge"
    )


@tells("chord-check")
def _chord_check(t: Teller) -> str:
    return (
        f"Neighbours: {t.size('over_pins')} over the pins, {t.size('inside_pins')} "
        "between them"
    )


@tells("chamfer")
def _chamfer(t: Teller) -> str:
    return (
        f"Leg {t.size('leg')}, face {t.size('face')}; fed square to it "
        f"{t.size('normal_depth')}"
    )


@tells("square-hole")
def _square_hole(t: Teller) -> str:
    return (
        f"{drill_named(t, 'drill_name', 'drill')} first; "
        f"{t.size('corner_distance')} over the corners"
    )


@tells("hole-span")
def _hole_span(t: Teller) -> str:
    return f"Bolt circle {t.both('diameter', 0.01)}; {t.size('chord')} centre to centre"


@tells("edge-find")
def _edge(t: Teller) -> str:
    """Where to dial, with the part on either side of what was touched."""
    there = float(t["position"])
    other = 2 * float(t.given("edge_reading")) - there
    sides = ("plus", "minus") if t.given("direction") == "+" else ("minus", "plus")
    return (
        f"Dial {t.both(there)} where the part lies on the {sides[0]} side of the "
        f"finder, {t.size(other)} where on the {sides[1]} side"
    )


@tells("half-way")
def _half_way(t: Teller) -> str:
    return f"The middle is at {t.both('centre')}"


@tells("eccentric-packing")
def _eccentric(t: Teller) -> str:
    if t.has("corrected"):
        return f"Packing of {t.both('corrected')} instead, under one jaw"
    return (
        f"Packing of {t.both('packing')} under one jaw; the indicator then reads "
        f"{t.size('indicator')} from least to most"
    )


@tells("detent")
def _detent(t: Teller) -> str:
    return (
        f"{t.both('depth', 0.01)} deep, {t.both('land_diameter', 0.01)} across its "
        f"rim; the ball rises {t.size('rise', 0.01)} out of it"
    )


@tells("index-ring")
def _index_ring(t: Teller) -> str:
    return (
        f"{t.both('land', 0.01)} of metal between neighbours"
        if t["fits"]
        else f"They overlap by {t.both(-float(t['land']), 0.01)}"
    )
