"""Kinds of fit: what each is for, asks besides, and which schools there are."""

import functools
from collections.abc import Callable, Mapping

from msgspec import Struct
from msgspec.structs import replace as with_parts

from machinon.core.errors import BadInput
from machinon.core.fits.gripping import (
    bearing_seat,
    bonded,
    plain,
    pressed,
    shrunk,
    threaded,
)
from machinon.core.fits.mated_halves import (
    detent,
    dimple,
    dovetail,
    dowels,
    key_widths,
    taper,
    tee_nut,
)
from machinon.core.fits.meeting import Joined, Meeting
from machinon.core.materials import material
from machinon.core.quantity import TEMPERATURE, typed_again
from machinon.core.reckoning import TEXT, Input, reckonings
from machinon.core.shop.things import Surface
from machinon.core.sizes.fit import FitChoice, Joint
from machinon.core.survey.surface_kinds import form_key


class JointForm(Struct, frozen=True):
    """A kind of fit: its name, what it asks, the schools there are, its caution."""

    key: Joint
    name: str
    usual: str  # the character it starts from, empty for none
    # the kinds of surface it is offered on, all diameters and widths where empty
    starts: tuple[str, ...]
    schools: str
    caution: str
    work: Callable[[Meeting], Joined]
    asked: tuple[tuple[str, str, str], ...] = ()

    @property
    def asks(self) -> tuple[Input, ...]:
        """The inputs that the joint asks; empty ones have a stand-in."""
        return _asks(self.asked)


_OWN = {
    "other": Input("other", TEXT, "the new half is of", "steel"),
    "warm": Input("warm", TEMPERATURE, "working temperature", 20.0, low=-100, high=500),
    "in": Input(
        "in", TEXT, "the keyway measured is in the", "shaft", choices=("shaft", "hub")
    ),
}


@functools.cache
def _asks(asked: tuple[tuple[str, str, str], ...]) -> tuple[Input, ...]:
    """Inputs by reckoning and key, under the joint's own words."""
    found = []
    for reckoner, key, words in asked:
        if not reckoner:
            found.append(_OWN[key])
            continue
        given = next(i for i in reckonings()[reckoner].inputs if i.key == key)
        found.append(with_parts(given, meaning=words or given.meaning))
    return tuple(found)


def read_given(form: JointForm, key: str, typed: str, inch: bool) -> str:
    """A typed answer as it is kept: a number in base units, or a word.

    Empty text gives it up. Raises BadInput on `key`.
    """
    given = next((ask for ask in form.asks if ask.key == key), None)
    if given is None:
        raise BadInput(key, f"{form.name} asks no {key}.")
    if not typed.strip():
        return ""
    value = given.read(typed, inch)
    if given.key == "other":
        return material(str(value), key).name
    return value if isinstance(value, str) else typed_again(value)


def given_values(choice: FitChoice) -> dict[str, object]:
    """The answers given for a fit's joint, in base units."""
    given = {key: kept for key, kept in choice.given.items() if kept}
    if not given:  # what is asked is looked up among all reckonings
        return {}
    asks = {asked.key: asked for asked in form_of(choice).asks}
    return {key: asks[key].read(kept) for key, kept in given.items() if key in asks}


def _none(_: Meeting) -> Joined:
    return Joined()


_STEEL = (("", "other", ""), ("", "warm", ""))
_HUB = (
    ("press-fit", "length", "length of the fit (empty: one diameter)"),
    ("press-fit", "hub_outside", "outside of the hub (empty: two diameters)"),
)

_FORMS = (
    JointForm(
        "thread",
        "Thread",
        "",
        ("thread-major", "thread-minor"),
        "Chase it until the mate goes on; or cut to wires and class, and trust them. A "
        "thread only pulls home: a register or a face must centre.",
        "Stop the spindle before trying the mate: a nut that catches winds itself up.",
        threaded,
        (
            ("", "other", ""),
            ("press-fit", "length", "length to be engaged (empty: one diameter)"),
        ),
    ),
    JointForm(
        "register",
        "Register: it centres, screws hold",
        "slides",
        (),
        "One school fits a register so that it must be tapped home; the other gives it "
        "a thou, as the screws hold and it only has to come back near enough.",
        "The register only centres; the bolts hold.",
        plain,
        _STEEL,
    ),
    JointForm(
        "shaft",
        "Shaft in a bore",
        "locates",
        (),
        "Ream and lap to feel, or cut to the band: a reamed hole is often no fit yet.",
        "",
        plain,
        _STEEL,
    ),
    JointForm(
        "slot",
        "Tongue, key or nut in a slot",
        "snug",
        (),
        "Fit it to the slot's middle, where it wears, or to its tight end, so that it "
        "goes everywhere: the first is true, the second is free.",
        "",
        plain,
        _STEEL,
    ),
    JointForm(
        "press",
        "Pressed for good",
        "press-firm",
        (),
        "Some make a press tight enough to need nothing else; others press lightly and "
        "pin it, so that it can be mended.",
        "Guarded, within the press's rating: hard and thin parts burst.",
        pressed,
        (
            *_HUB,
            ("press-fit", "shaft_bore", "bore of the inner part"),
            ("press-fit", "friction", "friction between the two"),
            *_STEEL,
        ),
    ),
    JointForm(
        "shrink",
        "Shrunk on",
        "shrink-firm",
        (),
        "Heat the hub well past what is needed and it drops on; or heat it less and "
        "cool the shaft as well, which spares a hardened hub.",
        "Hot parts burn, oil on them flares: gloves, dry tools, a clear way.",
        shrunk,
        (
            *_HUB,
            ("shrink-fit", "assembly_clearance", "play wanted to drop it on"),
            ("shrink-fit", "room", "the shop's own warmth"),
            *_STEEL,
        ),
    ),
    JointForm(
        "bond",
        "Bonded with retaining compound",
        "bond-usual",
        (),
        "Groove one half so that compound stays in the joint; or leave it smooth and "
        "thin, which is stronger and truer but wiped off when it is pushed home. Cold, "
        "oily or plated metal cures slowly: give it the time its sheet says.",
        "Compounds irritate the skin and heat frees them: gloves, the maker's sheet.",
        bonded,
        (
            ("bond-gap", "length", "length of the fit (empty: one diameter)"),
            ("bond-gap", "shear_strength", "strength in shear, by its data sheet"),
            ("bond-gap", "safety", "share kept in hand"),
            *_STEEL,
        ),
    ),
    JointForm(
        "bearing",
        "Bearing seat",
        "ring-turns",
        ("shaft", "bore"),
        "The ring that turns under the load is held firmly, the other may creep: so "
        "says the book. Slow, light tooling is often pushed together by hand.",
        "Press on the ring that is being fitted, never through the balls.",
        bearing_seat,
        (
            ("bearing-seat", "bearing", "kind of bearing"),
            ("bearing-seat", "arrangement", ""),
            ("bearing-seat", "bore", "bore of the bearing (empty: as measured)"),
            ("bearing-seat", "clearance_least", "its own play, least (empty: normal)"),
            ("bearing-seat", "clearance_most", "its own play, most (empty: normal)"),
            *_STEEL,
        ),
    ),
    JointForm(
        "taper",
        "Taper in a taper",
        "",
        ("taper-out", "taper-in", "taper-balls"),
        "Set the slide with an indicator along a good taper; or by sine bar, or by "
        "offset of the tailstock. Prove each with blue. A little more contact at the "
        "large end holds a tool truer than contact at the small end.",
        "Break the edges by stone, not by hand: a fresh taper cuts.",
        taper,
        (
            ("taper-setup", "taper", "a named taper (empty: as read)"),
            ("taper-fit", "length", "length of contact (empty: as read)"),
            ("taper-fit", "stand_off", ""),
            ("taper-fit", "film", ""),
        ),
    ),
    JointForm(
        "bolts",
        "Bolt circle",
        "normal",
        ("bolt-circle", "bolt-span", "hole-three"),
        "One tool round the whole circle by read-out; or each hole finished before the "
        "next, spotted through the part itself where there is no read-out.",
        "Clamp it: a drill that breaks through grabs and spins the part.",
        _none,
        (
            ("bolt-room", "thread", "the screws (empty: M8)"),
            ("hole-span", "holes", "how many holes the circle has"),
            ("bolt-room", "new", "the new half is drilled clear, or tapped"),
            ("bolt-room", "play", "play of what centres the two parts"),
            ("bolt-room", "drilling", ""),
        ),
    ),
    JointForm(
        "dowels",
        "Two dowels",
        "dowel-close",
        ("dowel", "shaft"),
        "Ream both parts together, clamped; or bore each to coordinates and relieve "
        "one dowel across the line between the two.",
        "Never drive a dowel into a blind hole that holds oil: it can burst the part.",
        dowels,
        (
            ("dowel-pair", "distance", "distance between the two"),
            ("dowel-pair", "placing", ""),
            ("dowel-pair", "radius", "where shake matters (empty: the distance)"),
        ),
    ),
    JointForm(
        "key",
        "Key: shaft, key and hub",
        "snug",
        ("key-width",),
        "Buy the key and cut both keyways to it; or make the key to a keyway that "
        "exists, worn as it is. A key drives; a set screw over it keeps the hub there.",
        "File a key held in the vise, never on a turning shaft.",
        key_widths,
        (
            ("", "in", ""),
            ("key-sides", "sits", "the key sits"),
            ("key-load", "diameter", "diameter of the shaft"),
            ("key-load", "length", "length of the key (empty: 1.5 diameters)"),
        ),
    ),
    JointForm(
        "tee",
        "T-nut in a T-slot",
        "free",
        ("tee-neck",),
        "Made in a strip and sawn up, or one by one. A loose nut is easy to place; one "
        "that fits the slot also squares what it holds.",
        "A stud screwed through lifts the lips: leave the last thread uncut.",
        tee_nut,
        (("t-nut", "head_play", ""), ("t-nut", "height_play", "")),
    ),
    JointForm(
        "dovetail",
        "Dovetail over or between pins",
        "dove-slides",
        ("over-pins", "between-pins"),
        "Cut both flanks to size and scrape; or cut it wide and take up with a gib, "
        "which also takes up wear.",
        "Dovetail cutters are thin at the neck: light cuts, the work well clamped.",
        dovetail,
        (
            ("dovetail-mate", "pin", "pins for the new half (empty: the same)"),
            ("dovetail-mate", "new_depth", "depth of the new half (empty: the same)"),
            ("dovetail-mate", "bears", "besides the flanks bears (empty: by depth)"),
            ("dovetail-mate", "gib", "gib, square to the flank (0: none)"),
        ),
    ),
    JointForm(
        "detent",
        "Sprung ball in a recess",
        "",
        ("detent", "ball"),
        "Drill shallow cones, which are easy to make alike; or sink the ball's own "
        "form, which holds longer. Recesses of equal depth click alike.",
        "A sprung ball flies: eyes covered, a rag over it when it is taken apart.",
        detent,
        (
            ("detent-hold", "spring", "push of the spring on the ball"),
            ("detent-hold", "radius", "radius of the circle of recesses"),
            ("detent-hold", "depth", "depth of the recess, for a ball measured"),
            ("detent-hold", "alike", ""),
        ),
    ),
    JointForm(
        "dimple",
        "Set screws in dimples",
        "",
        ("shaft", "register", "body"),
        "Spot through the tapped holes with the body in place; or drill the dimples a "
        "little nearer to the shoulder, so that the cones draw the body home.",
        "Screws that stand out catch sleeves: sink them under the surface.",
        dimple,
        (
            ("screw-dimple", "screw", ""),
            ("screw-dimple", "wall", "wall of the body under the dimple"),
            ("screw-dimple", "around", ""),
            ("screw-dimple", "screws", "how many screws"),
            ("screw-dimple", "torque", "tightened with (empty: by hand)"),
            ("screw-dimple", "draw", "dimple nearer to the shoulder by"),
        ),
    ),
)


@functools.cache
def joint_forms() -> Mapping[Joint, JointForm]:
    """Every kind of fit that a surface can have besides a thread, by key."""
    return {form.key: form for form in _FORMS}


def form_of(choice: FitChoice) -> JointForm:
    """The kind of fit that a decision is of."""
    return joint_forms()[choice.joint]


def joints_on(surface: Surface) -> tuple[JointForm, ...]:
    """The kinds of fit that make sense on a surface, plain ones first."""
    key = form_key(surface)
    special = [form for form in _FORMS if form.starts and key in form.starts]
    # what has its own form only makes sense by it: a taper is no plain bore
    alone = {
        "taper-out",
        "taper-in",
        "taper-balls",
        "over-pins",
        "between-pins",
        "detent",
        "bolt-circle",
        "hole-three",
    }
    if key in alone:
        return tuple(special)
    if key in (*_OVER, *_INTO):
        return (joint_forms()["slot"],)
    return (*(form for form in _FORMS if not form.starts), *special)


# lengths that something goes over or into, as over a tongue or into a slot
_OVER = ("thickness", "width", "length", "shoulder")
_INTO = ("depth",)


def takes_fit(surface: Surface) -> bool:
    """Whether something can go into or over a surface, or be bolted to it."""
    by_form = {"taper-balls", *_OVER, *_INTO, *joint_forms()["bolts"].starts}
    return surface.kind in ("outside", "inside", "gap") or form_key(surface) in by_form


def is_inside(surface: Surface) -> bool:
    """Whether a surface is the hole of a fit; else it is the shaft."""
    into = ("taper-balls", *_INTO)
    return surface.kind in ("inside", "gap") or form_key(surface) in into
