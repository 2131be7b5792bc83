"""Fits with bands of their own: tapers, keys, slots, dovetails, dowels, dimples."""

from machinon.core.errors import BadInput
from machinon.core.fits.keyway import keys
from machinon.core.fits.meeting import Band, Effect, Joined, Meeting
from machinon.core.quantity import ANGLE, FORCE, INCH, LENGTH, TORQUE
from machinon.core.reckoning import TEXT, reckon
from machinon.core.shop.things import SurfaceKind
from machinon.core.survey.surface_kinds import form_key
from machinon.core.tapers.tapers import taper_of


def taper(m: Meeting) -> Joined:
    slope = m.mate.slope
    if slope is None:
        raise BadInput(
            "place", "All readings are from one place: read it further along as well."
        )
    if abs(slope.ratio) <= max(2 * slope.doubt, 0.0005):
        raise BadInput(
            "place",
            f"There is no taper in these readings ({slope.ratio * 100:+.3f} mm in "
            "100 mm): it is a plain diameter, or the places are wrong.",
        )
    if slope.ratio > 0:
        raise BadInput(
            "place",
            "The readings grow along the taper: give the places from its large end.",
        )
    ratio, doubt, advice = -slope.ratio, slope.doubt, []
    name = m.word("taper", "")
    if name:
        named = taper_of(name, "taper")
        off = ratio - named.ratio
        if abs(off) > doubt:
            advice.append(
                f"The readings say 1 : {1 / ratio:.2f}, {named.name} is "
                f"1 : {1 / named.ratio:.2f}: further apart than their uncertainty. It "
                "is another taper, or worn."
            )
        ratio, doubt = named.ratio, 0.0
    answer = reckon(
        "taper-fit",
        {
            "ratio": ratio,
            "ratio_doubt": doubt,
            "diameter": m.mate.size,
            "diameter_doubt": m.mate.uncertainty,
            "length": m.number("length", slope.apart),
            "stand_off": m.number("stand_off", 0.5),
            "film": m.number("film", 0.003),
        },
    )
    side: SurfaceKind = "outside" if m.choice.exists == "hole" else "inside"
    bands = (
        Band(
            f"Half angle, {m.mate.known_by}",
            abs(slope.half_angle) - slope.half_angle_doubt,
            abs(slope.half_angle) + slope.half_angle_doubt,
            m.mate.answer,
            ANGLE,
            "",
            True,
        ),
        m.made(
            "Half angle", answer, "half_angle_lower", "half_angle_upper", kind=ANGLE
        ),
        m.has(f"Large end, {m.mate.known_by}", m.mate, "⌀"),
        m.made("Large end", answer, "diameter_lower", "diameter_upper", side, "⌀"),
    )
    touches = "large" if m.choice.exists == "hole" else "small"
    effects = (
        Effect("Indicator over 50 mm", answer["indicator"], LENGTH, answer),
        Effect("Set it within", answer["angle_share"], LENGTH, answer, True),
        Effect(
            "Holds by itself",
            "yes" if answer["holds"] else "no: draw it up",
            TEXT,
            answer,
        ),
    )
    if answer["warning"]:
        advice.append(str(answer["warning"]))
    advice.append(
        f"Blue shows it: too steep, it touches at its {touches} end first, too slow, "
        "at the other."
    )
    return Joined(bands, effects, answer, tuple(advice))


def dowels(m: Meeting) -> Joined:
    m.need("distance")
    answer = reckon(
        "dowel-pair",
        {
            "dowel": m.mate.size,
            "doubt": m.mate.uncertainty,
            **m.play(m.mate.size),
            **m.said("distance", "placing", "radius"),
        },
    )
    bands = (
        m.has(f"Dowel, {m.mate.known_by}", m.mate, "⌀"),
        m.made(
            "Hole it slides in", answer, "slides_lower", "slides_upper", "inside", "⌀"
        ),
        m.made(
            "Hole that keeps it", answer, "keeps_lower", "keeps_upper", "inside", "⌀"
        ),
    )
    effects = (
        Effect(
            "Room for the distance",
            answer["room"],
            LENGTH,
            answer,
            True,
            bool(answer["warning"]),
        ),
        Effect("Shake, stop to stop", answer["shake_at"], LENGTH, answer, True),
    )
    return Joined(
        bands, effects, answer, (answer["warning"],) if answer["warning"] else ()
    )


def nearest_key(width: float) -> tuple[str, float]:
    """The standard key nearest to a keyway's width: (metric or inch, mm)."""
    found = [
        (standard, key.width)
        for standard in ("metric", "inch")
        for key in keys(standard)
    ]
    return min(found, key=lambda pair: abs(pair[1] - width))


def key_widths(m: Meeting) -> Joined:
    standard, width = nearest_key(m.mate.size)
    width = m.number("width", width)
    answer = reckon(
        "key-sides",
        {
            "width": width,
            "sits": m.word("sits", "normal"),
            "measured": m.mate.size,
            "doubt": m.mate.uncertainty,
            **m.play(width),
        },
    )
    in_shaft = m.word("in", "shaft") == "shaft"
    here, there = ("shaft", "hub") if in_shaft else ("hub", "shaft")
    bands = (
        m.has(f"Keyway in the {here}, measured", m.mate),
        m.made("Key", answer, "key_lower", "key_upper"),
        m.made(
            f"Keyway in the {there}",
            answer,
            f"{there}_lower",
            f"{there}_upper",
            "gap",
        ),
    )
    effects = [
        Effect("Bought key, least play", answer["bought_least"], LENGTH, answer, True),
        Effect("Bought key, most play", answer["bought_most"], LENGTH, answer, True),
    ]
    advice = []
    if answer["bought_least"] > 0.02:
        advice.append(
            f"A bought key of {width / INCH if standard == 'inch' else width:g} "
            f"{'in' if standard == 'inch' else 'mm'} would rock in it: make one to "
            "the keyway."
        )
    if "diameter" in m.given:
        diameter = m.number("diameter", 0.0)
        depth = reckon(
            "keyway",
            {
                "shaft_diameter": diameter,
                "key": f"{width / INCH if standard == 'inch' else width:g}",
                "standard": standard,
                "bore": in_shaft,
            },
        )
        load = reckon(
            "key-load",
            {
                "diameter": diameter,
                "width": width,
                "height": depth["key_height"],
                "length": m.number("length", 1.5 * diameter),
            },
        )
        where = "Bore to keyway floor" if in_shaft else "Shaft to keyway floor"
        effects += [
            Effect(where, depth["across"], LENGTH, depth),
            Effect("Carries", load["carries"], TORQUE, load),
            *m.machine(load),
        ]
    return Joined(bands, tuple(effects), answer, tuple(advice))


def tee_nut(m: Meeting) -> Joined:
    neck, doubt = m.mate.tightest
    answer = reckon(
        "t-nut",
        {
            "neck": neck,
            "widest": max(neck, 2 * m.mate.size - neck),
            "neck_doubt": doubt,
            "head": m.beside("tee-head").size,
            "head_height": m.beside("tee-head-depth").size,
            "lip": m.beside("tee-lip").size,
            **m.play(m.mate.size),
            **m.said("head_play", "height_play"),
        },
    )
    bands = (
        m.has(f"Neck, {m.mate.known_by}", m.mate),
        m.made("Tongue", answer, "tongue_lower", "tongue_upper"),
        m.made("Head, width", answer, "head_lower", "head_upper"),
        m.made("Head, thickness", answer, "height_lower", "height_upper"),
    )
    effects = (
        Effect("Most play where it is worn", answer["shake"], LENGTH, answer, True),
        Effect("Highest tongue", answer["tongue_height"], LENGTH, answer),
        Effect("Under each lip", answer["overlap"], LENGTH, answer),
        Effect("Standard slot", answer["slot"], TEXT, answer),
    )
    return Joined(bands, effects, answer)


def dovetail(m: Meeting) -> Joined:
    aids = m.surface.aids
    slot = form_key(m.surface) == "between-pins"
    asked: dict[str, object] = {
        "bottom": m.mate.size,
        "doubt": m.mate.uncertainty,
        "depth": aids["depth"],
        "angle": aids.get("angle", 60.0),
        "internal": slot,
        "pin": m.number("pin", aids["pin"]),
        "gib": m.number("gib", 0.0),
        **m.play(m.mate.size),
        **m.said("new_depth", "bears"),
    }
    answer = reckon("dovetail-mate", asked)
    pins = "over" if slot else "between"
    bands = (
        m.has("Between the corners, measured", m.mate),
        m.made(
            f"New half {pins} its pins",
            answer,
            "read_lower",
            "read_upper",
            "outside" if slot else "gap",
        ),
        m.made("Between the new corners", answer, "bottom_lower", "bottom_upper"),
    )
    effects = (
        Effect("Bears on flanks and", answer["bears"], TEXT, answer),
        Effect("Most play at a flank", answer["square_play"], LENGTH, answer, True),
        Effect("Pins to use", asked["pin"], LENGTH, answer),  # type: ignore[arg-type]
    )
    return Joined(bands, effects, answer)


def detent(m: Meeting) -> Joined:
    m.need("spring", "radius")
    recess = form_key(m.surface) == "detent"
    if not recess:
        m.need("depth")
    ball = m.surface.aids["ball"] if recess else m.mate.size
    asked: dict[str, object] = {
        "ball": ball,
        "depth": m.mate.size if recess else m.given["depth"],
        "doubt": m.mate.uncertainty if recess else 0.0,
        "spring": m.given["spring"],
        "radius": m.given["radius"],
        "alike": m.number("alike", 10.0),
    }
    answer = reckon("detent-hold", asked)
    has = m.has("Recess, depth measured" if recess else "Ball, measured", m.mate)
    bands = (
        has,
        m.made("Recesses, depth", answer, "depth_lower", "depth_upper", "length"),
        m.made("Ball's hole", answer, "hole_lower", "hole_upper", "inside", "⌀"),
    )
    effects = (
        Effect("Pushes out at", answer["hold"], FORCE, answer),
        Effect("Clicks over at", answer["torque"], TORQUE, answer),
        Effect("Rim across", answer["rim"], LENGTH, answer),
    )
    return Joined(bands, effects, answer)


def dimple(m: Meeting) -> Joined:
    m.need("screw", "wall", "around")
    given = m.said("screw", "wall", "around", "screws", "torque", "draw")
    answer = reckon("screw-dimple", {"body": m.mate.size, **given})
    bands = (
        m.has(f"Body, {m.mate.known_by}", m.mate, "⌀"),
        m.made("Dimple, depth", answer, "depth_lower", "depth_upper", "length"),
    )
    effects = (
        Effect("Dimple across its mouth", answer["mouth"], LENGTH, answer),
        Effect("Screw to buy, long", answer["length"], LENGTH, answer),
        Effect("Holds against pulling", answer["hold"], FORCE, answer),
        Effect("Carries", answer["carries"], TORQUE, answer),
        *m.machine(answer),
        Effect("Off towards the shoulder", answer["offset"], LENGTH, answer, True),
    )
    advice = [str(answer["warning"])] if answer["warning"] else []
    return Joined(bands, effects, answer, tuple(advice))
