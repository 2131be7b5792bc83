"""Consequences of a plain fit: grip, bond, run-out, and behaviour when warm."""

from machinon.core.errors import BadInput
from machinon.core.fits.bearing_seat import SPOILT
from machinon.core.fits.meeting import Effect, Joined, Meeting
from machinon.core.materials import material
from machinon.core.quantity import DURATION, FORCE, LENGTH, NUMBER, TEMPERATURE, TORQUE
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.survey.surface_kinds import form_key
from machinon.core.wording import within


def _plays(m: Meeting) -> tuple[float, float]:
    assert m.band is not None
    return float(m.band["clearance_min"]), float(m.band["clearance_max"])


def _warm(m: Meeting) -> tuple[Effect, ...]:
    """The play at work, where that is not the shop's own warmth."""
    least, most = _plays(m)
    if m.number("warm", 20.0) == 20.0:
        return ()
    answer = reckon(
        "fit-warm",
        {
            "diameter": m.mate.size,
            "play_least": least,
            "play_most": most,
            "hub_material": m.outer,
            "shaft_material": m.inner,
            "temperature": m.number("warm", 20.0),
        },
    )
    held = most <= 0
    turned = (answer["most"] > 0) if held else (answer["least"] < 0 <= least)
    return (
        Effect("Least play, warm", answer["least"], LENGTH, answer, True, turned),
        Effect("Most play, warm", answer["most"], LENGTH, answer, True, turned),
    )


def plain(m: Meeting) -> Joined:
    effects = _warm(m)
    advice: tuple[str, ...] = ()
    if any(effect.grave for effect in effects):
        advice = ("At work the fit turns into another one: see the play when warm.",)
    elif m.choice.joint == "shaft" and _plays(m)[1] <= 0:
        advice = (
            "Say above that it is pressed, shrunk or bonded: force and torque follow.",
        )
    return Joined((), effects, None, advice)


def _grip(m: Meeting, interference: float, length: float, outside: float) -> Answer:
    return reckon(
        "press-fit",
        {
            "diameter": m.mate.size,
            "length": length,
            "hub_outside": outside,
            "shaft_bore": m.number("shaft_bore", 0.0),
            "interference": interference,
            "hub_material": m.outer,
            "shaft_material": m.inner,
            "friction": m.number("friction", 0.12),
        },
    )


def _gripping(m: Meeting) -> tuple[Answer, Answer | None, list[Effect], list[str]]:
    """A press at its tightest and loosest, and what both mean."""
    least, most = _plays(m)
    size = m.mate.size
    length, outside = m.number("length", size), m.number("hub_outside", 2 * size)
    if least >= 0:
        raise BadInput(
            "want", "There is no interference in this: choose a press, or own play < 0."
        )
    tight = _grip(m, -least, length, outside)
    loose = _grip(m, -most, length, outside) if most < 0 else None
    carried = float(loose["torque"]) if loose else 0.0
    effects = [
        Effect("Carries at least", carried, TORQUE, loose or tight),
        *m.machine(tight),
        Effect(
            "Hub's safety", tight["safety"], NUMBER, tight, False, tight["safety"] < 1
        ),
    ]
    advice: list[str] = []
    if loose is None:
        advice.append("At its loose end it does not grip at all.")
    if tight["safety"] < 1:
        yields = tight.cautions[0]
        advice.insert(0, f"Stop: at the tight end {within(yields)}")
    warm = _warm(m)
    if any(effect.grave for effect in warm):
        advice.append("At work the grip is lost at the loose end.")
    return tight, loose, [*effects, *warm], advice


def threaded(m: Meeting) -> Joined:
    """A thread's engagement: the screw shall break before either half strips."""
    assert m.band is not None
    thread = str(m.band.inputs["thread"])
    screw, nut = (m.other, m.piece.material)
    if m.choice.exists == "shaft":
        screw, nut = nut, screw
    answer = reckon(
        "thread-engagement",
        {
            "thread": thread,
            "screw_strength": material(screw).strength,
            "nut_strength": material(nut).strength,
        },
    )
    least = float(answer["minimum_length"])
    length = m.number("length", float(m.band["major"]))
    short = length < least
    effects = (
        Effect("Engaged", length, LENGTH, answer, grave=short),
        Effect("Wanted, so that no thread strips", least, LENGTH, answer),
        Effect("Turns engaged", length / m.band["pitch"], NUMBER, m.band),
        Effect("Strips first", answer["strips_first"], TEXT, answer),
    )
    advice = (
        ("Shorter than it takes to break the screw: it would strip first.",)
        if short
        else ()
    )
    return Joined((), effects, None, advice)


PRESS_IN_HAND = 1.5  # a press is taken half as strong again as the force worked out


def pressed(m: Meeting) -> Joined:
    tight, loose, effects, advice = _gripping(m)
    force = [
        Effect("To press it home, least", loose["press_force"], FORCE, loose)
        if loose
        else Effect("To press it home, least", 0.0, FORCE, tight),
        Effect("To press it home, most", tight["press_force"], FORCE, tight),
        Effect("Press to have", PRESS_IN_HAND * tight["press_force"], FORCE, tight),
    ]
    return Joined((), (*force, *effects), tight, tuple(advice))


def shrunk(m: Meeting) -> Joined:
    _, _, effects, advice = _gripping(m)
    size = m.mate.size
    least, _ = _plays(m)
    drop = m.number("assembly_clearance", max(0.001 * size, 0.02))
    room = m.number("room", 20.0)
    heat = reckon(
        "shrink-fit",
        {
            "diameter": size,
            "interference": -least,
            "assembly_clearance": drop,
            "hub_material": m.outer,
            "shaft_material": m.inner,
            "room": room,
        },
    )
    hot = float(heat["hub_temperature"])
    time = reckon(
        "shrink-time",
        {
            "diameter": size,
            "length": m.number("length", size),
            "hub_outside": m.number("hub_outside", 2 * size),
            "interference": -least,
            "hub_temperature": hot,
            "hub_material": m.outer,
            "room": room,
        },
    )
    first = [
        Effect("Heat the hub to", hot, TEMPERATURE, heat, False, bool(heat["warning"])),
        Effect("Time once round it", time["placing"], DURATION, time),
    ]
    if heat["warning"]:
        advice.insert(0, str(heat["warning"]))
    return Joined((), (*first, *effects), heat, tuple(advice))


def bonded(m: Meeting) -> Joined:
    size = m.mate.size
    least, most = _plays(m)
    asked: dict[str, object] = {
        "diameter": size,
        "length": m.number("length", size),
        "shear_strength": m.number("shear_strength", 15.0),
        "safety": m.number("safety", 2.0),
    }
    answer = reckon("bond-gap", asked)
    advice: list[str] = []
    if least < 0:
        advice.append("At the tight end there is no gap: the compound is scraped off.")
    elif most > answer["gap_max"]:
        advice.append("The widest gap is more than most compounds cure in.")
    effects = (
        Effect("Gap, least", least, LENGTH, m.band or answer, True, least < 0),
        Effect("Gap, most", most, LENGTH, m.band or answer, True),
        Effect("Holds along", answer["hold_force"], FORCE, answer),
        Effect("Carries", answer["torque"], TORQUE, answer),
        *m.machine(answer),
        *_warm(m),
    )
    return Joined((), effects, answer, tuple(advice))


def _own_bore(m: Meeting) -> float | None:
    """The bore of the bearing whose outside is the mate, where it was measured."""
    for surface in m.piece.surfaces:
        found = m.measured.get((m.piece.id, surface.id))
        if form_key(surface) == "bore" and found is not None and not found.refused:
            return found.size
    return None


def bearing_seat(m: Meeting) -> Joined:
    inner = m.choice.exists == "hole"
    least, most = _plays(m)
    bore = m.mate.size if inner else _own_bore(m)
    if bore is None:
        m.need("bore")
    asked: dict[str, object] = {
        "bore": m.number("bore", round(bore or 0.0, 3)),
        "ring": "inner" if inner else "outer",
        "play_least": least,
        "play_most": most,
        **m.said("clearance_least", "clearance_most", "bearing", "arrangement"),
    }
    answer = reckon("bearing-seat", asked)
    warm = float(answer.results.get("warm_to") or 0.0)
    slips: tuple[Effect, ...] = ()
    if warm:
        hot = warm > SPOILT
        slips = (Effect("Ring slips on at", warm, TEMPERATURE, answer, False, hot),)
    if "left_least" not in answer.results:  # the nut sets the play of a pair
        adjusted = (
            Effect("Moved by the nut or cover", answer["adjusted"], TEXT, answer),
            Effect("Seat takes, most", answer["lost_most"], LENGTH, answer, True),
        )
        wrong = bool(answer["warning"])
        slides = Effect("This ring", answer["seat"], TEXT, answer, grave=wrong)
        says = [str(answer["warning"])] if wrong else []
        return Joined(
            (), (slides, *adjusted, *slips, *_warm(m)), answer, (*says, *answer.notes)
        )
    effects = (
        Effect(
            "Bearing's play left, least",
            answer["left_least"],
            LENGTH,
            answer,
            True,
            answer["left_least"] < 0,
        ),
        Effect("Bearing's play left, most", answer["left_most"], LENGTH, answer, True),
        *slips,
        *_warm(m),
    )
    return Joined(
        (), effects, answer, (answer["warning"],) if answer["warning"] else ()
    )
