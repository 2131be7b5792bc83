"""Pictures of fits and joints: two bands, rings, growing bars, weights."""

import math
from typing import Literal

from machinon.core.quantity import small_text
from machinon.core.threads.screw_thread import thread_of
from machinon.draw.drawing import Shape
from machinon.draw.sketch import Sketch

Lean = Literal["right", "left"]


def _bands(
    s: Sketch,
    hole: tuple[float, float],
    shaft: tuple[float, float],
    nominal: float,
    keys: tuple[str, str, str, str] | None,
) -> None:
    """Hole and shaft bands about the zero line, heights to scale in microns."""
    low = min(*hole, *shaft, nominal)
    high = max(*hole, *shaft, nominal)
    span = max(high - low, 0.004)
    top, bottom = 4.4 * s.size, s.floor - 2.8 * s.size

    def y(value: float) -> float:
        return bottom - (value - low) / span * (bottom - top)

    left, wide = s.board.width * 0.26, s.board.width * 0.16
    if not keys:  # clear of what is asked at the left, and of what is told at the right
        left = max(left, 13 * s.size)
        wide = min(wide, (s.board.width * 0.9 - 5 * s.size - left) / 3.1)
    zero = y(nominal)
    s.board.line((left - 3 * s.size, zero), (s.board.width * 0.86, zero), "centre", 1.2)
    s.note("0", (left - 3.6 * s.size, zero))
    sides: tuple[tuple[tuple[float, float], Lean, str], ...] = (
        (hole, "left", "hole"),
        (shaft, "right", "shaft"),
    )
    for i, (band, hatch, name) in enumerate(sides):
        x = left + i * 2.1 * wide
        a, b = y(band[1]), y(band[0])
        s.board.items.append(
            Shape(
                ((x, a), (x + wide, a), (x + wide, b), (x, b)),
                "outline",
                1.8,
                "panel",
                hatch,
            )
        )
        s.note(name, (x + wide / 2, top - 3.0 * s.size))
        for value, at, lift in ((band[1], a, -0.2), (band[0], b, 1.2)):
            if abs(value - nominal) > 1e-9:
                off = small_text(value - nominal, s.inch, signed=True)
                beside = (x - 0.4 * s.size, at)
                s.board.text(beside, off, 0.85 * s.size, "faint", "right", backed=True)
            if keys:
                key = keys[2 * i + (0 if value == band[1] else 1)]
                s.tell(key, (x + wide + 0.6 * s.size, at + lift * s.size), " ", "left")


def iso_limits(s: Sketch) -> None:
    nominal = s.v("nominal")
    low, high = s.r("lower"), s.r("upper")
    hole = str(s.values.get("zone", ""))[:1].isupper()
    top, bottom = 4.4 * s.size, s.floor - 2.6 * s.size
    ends = (min(low, nominal), max(high, nominal))
    span = max(ends[1] - ends[0], 0.004)

    def y(value: float) -> float:
        return bottom - (value - ends[0]) / span * (bottom - top)

    left, wide = s.board.width * 0.36, s.board.width * 0.22
    s.board.line(
        (left - 4 * s.size, y(nominal)),
        (left + wide + 4 * s.size, y(nominal)),
        "centre",
        1.2,
    )
    a, b = y(high), y(low)
    s.board.items.append(
        Shape(
            ((left, a), (left + wide, a), (left + wide, b), (left, b)),
            "cut",
            2.0,
            "panel",
            "left" if hole else "right",
        )
    )
    right = left + wide + s.size
    s.tell("upper", (right, a), anchor="left")
    s.tell(
        "lower", (right, b + (1.6 * s.size if b - a < 3 * s.size else 0)), anchor="left"
    )
    s.ask("nominal", (left - 4.5 * s.size, y(nominal)), anchor="right")
    s.ask("zone", (left + wide / 2, top - 2.2 * s.size))
    s.note(small_text(high - low, s.inch) + " wide", (left + wide / 2, (a + b) / 2))


def two_zones(s: Sketch) -> None:
    nominal = s.v("nominal")
    _bands(
        s,
        (s.r("hole_lower"), s.r("hole_upper")),
        (s.r("shaft_lower"), s.r("shaft_upper")),
        nominal,
        ("hole_upper", "hole_lower", "shaft_upper", "shaft_lower"),
    )
    x = s.board.width * 0.1
    s.ask("nominal", (x, 2.4 * s.size))
    s.ask("fit", (x, 5.8 * s.size))
    right = s.board.width * 0.91
    s.tell("clearance_max", (right, s.floor * 0.3), "most play")
    s.tell("clearance_min", (right, s.floor * 0.3 + 3 * s.size), "least play")
    s.tell("kind", (right, s.floor * 0.3 + 6 * s.size), "kind")


def fit_target(s: Sketch) -> None:
    readings = s.values.get("existing") or ()
    mate = sum(readings) / len(readings)
    doubt = s.v("instrument_uncertainty")
    hole = s.values.get("kind") == "hole"
    existing = (mate - doubt, mate + doubt)
    made = tuple(sorted((s.r("lower"), s.r("upper"))))
    first, second = (existing, made) if hole else (made, existing)
    _bands(s, first, second, mate, None)  # type: ignore[arg-type]
    right = s.board.width * 0.9
    s.tell("upper", (right, s.floor * 0.25), "largest to make")
    s.tell("aim", (right, s.floor * 0.25 + 3 * s.size), "aim")
    s.tell("lower", (right, s.floor * 0.25 + 6 * s.size), "smallest")
    s.tell("band", (right, s.floor * 0.25 + 9 * s.size), "band left")
    x = s.board.width * 0.11
    s.ask("existing", (x, 2.4 * s.size), "mate's readings")
    s.ask("instrument_uncertainty", (x, 5.8 * s.size), "uncertainty")
    s.ask("want", (x, 9.2 * s.size), "fit wanted")
    s.ask("kind", (x, 12.6 * s.size), "what exists")


def bolts_carry(s: Sketch) -> None:
    """The circle with its screws, and with the pins between them."""
    r = s.v("circle") / 2
    bolts, pins = int(s.v("bolts")), int(s.v("pins"))
    screw = thread_of(str(s.values["thread"])).major / 2 if bolts else 0.0
    s.frame(-1.35 * r, -1.35 * r, 1.35 * r, 1.35 * r, (11, 4))
    s.circle(0, 0, 1.3 * r, "outline", "panel")
    s.circle(0, 0, r, "centre", "none", 1.0)
    for i in range(bolts):
        turned = math.radians(90 + 360 * i / bolts)
        x, y = r * math.cos(turned), r * math.sin(turned)
        s.circle(x, y, 1.5 * screw, "outline", "ground")
        s.circle(x, y, screw, "outline", "panel")
    on = s.v("pin_circle") / 2 or r
    for i in range(pins):
        # between two screws, wherever there are as many gaps
        gap = round(i * bolts / pins) / bolts if pins <= bolts else i / pins
        turned = math.radians(90 + 180 / max(bolts, 1) + 360 * gap)
        x, y = on * math.cos(turned), on * math.sin(turned)
        s.circle(x, y, s.v("pin") / 2, "cut", "ground")
    s.arc(0, 0, 0.62 * r, 25, 160, "stop", 2.4)
    tip, body = (
        s.p(0.62 * r * math.cos(angle), 0.62 * r * math.sin(angle))
        for angle in (math.radians(20), math.radians(27))
    )
    s.board.arrow(tip, body, "stop")
    s.ask("circle", s.p(0, 0), "on ⌀")
    s.tell("carries", s.p(0, -0.45 * r), "carries")
    right, left = s.p(1.35 * r, 0)[0] + s.size, s.p(-1.35 * r, 0)[0] - s.size
    y = s.p(0, 0)[1]
    s.ask("bolts", (left, y - 4 * s.size), anchor="right")
    s.ask("thread", (left, y), anchor="right")
    s.tell("tighten", (left, y + 4 * s.size), "tighten to", "right")
    s.tell("slips_at", (right, y - 3 * s.size), "faces slip at", "left")
    s.tell("shears_at", (right, y + 0.5 * s.size), "pins shear at", "left")
    s.tell("preload", (right, y + 4 * s.size), "each clamps with", "left")


def measured_size(s: Sketch) -> None:
    values = s.values.get("readings") or ()
    size, doubt = s.r("size"), s.r("uncertainty")
    reach = max([abs(v - size) for v in values] + [1.5 * doubt, 1e-6])
    middle, half = s.floor / 2, s.floor * 0.3

    def y(value: float) -> float:
        return float(middle - (value - size) / reach * half)

    left, right = s.board.width * 0.25, s.board.width * 0.72
    a, b = y(size + doubt), y(size - doubt)
    s.board.items.append(
        Shape(
            ((left, a), (right, a), (right, b), (left, b)),
            "measured",
            1.2,
            "panel",
            "left",
        )
    )
    s.board.line((left, middle), (right, middle), "measured", 2.4)
    for i, value in enumerate(values):
        x = left + (right - left) * (i + 1) / (len(values) + 1)
        s.board.line((x - 6, y(value)), (x + 6, y(value)), "outline", 3.0)
    s.tell("size", (right + s.size, middle), anchor="left")
    s.tell("uncertainty", (right + s.size, a), "± uncertainty", "left")
    s.ask("readings", (left - s.size, middle), anchor="right")
    s.ask("instrument_uncertainty", (left - s.size, a), "instrument ±", "right")


def play_runout(s: Sketch) -> None:
    s.frame(-1.7, -1.4, 1.7, 1.4)
    s.circle(0, 0, 1.3, "outline", "panel")
    s.circle(0, 0, 1.05, "outline", "ground")
    s.circle(-0.22, 0, 0.83, "cut", "panel")
    s.cross(0, 0, 1.45)
    s.cross(-0.22, 0, 0.3)
    right = s.p(1.45, 0)[0]
    s.ask("play", (right, s.p(0, 0.7)[1]), anchor="left")
    s.tell("offset", (s.p(-1.45, 0)[0], s.p(0, 0.7)[1]), anchor="right")
    s.tell("tir", (right, s.p(0, -0.7)[1]), "run-out", "left")
    s.note("play drawn enlarged", (s.board.width / 2, s.p(0, -1.38)[1]))


_FORCES = {
    "hardness": "Brinell",
    "strength": "tears at",
    "yield_strength": "yields at",
    "modulus": "stiffness",
    "density": "kg a cubic metre",
}
_WORK = {
    "growth": "100 mm, ten degrees warmer",
    "harmed": "heat harms it from",
    "turn_hss": "turned, HSS",
    "turn_carbide": "turned, carbide",
    "taps": "taps",
}


def metal(s: Sketch) -> None:
    """A bar of it, sawn, with what is usual for it on both sides."""
    s.frame(-2.2, -2.2, 2.6, 2.2)
    s.box(-1.6, -0.8, 1.4, 0.8)
    s.circle(1.4, 0, 0.8, "outline", "panel")
    s.line((-2, 0), (2.6, 0), "centre", 1.0)
    s.ask("material", s.p(-0.2, 0))
    left, right = s.p(-2.2, 0)[0], s.p(2.6, 0)[0]
    for keys, x, anchor in ((_FORCES, left, "right"), (_WORK, right, "left")):
        for n, (key, name) in enumerate(keys.items()):
            y = s.p(0, 0)[1] + (4.2 * n - 8.4) * s.size
            s.tell(key, (x, y), name, anchor)  # type: ignore[arg-type]


def measured_play(s: Sketch) -> None:
    """The shaft in its hole, lying against one side; the play drawn far too large."""
    s.frame(-1.7, -1.4, 1.7, 1.4)
    tight = s.r("play") <= 0
    s.circle(0, 0, 1.3, "outline", "panel")
    s.circle(0, 0, 1.05, "measured", "ground")
    s.circle(0 if tight else -0.22, 0, 1.05 if tight else 0.83, "measured", "panel")
    s.cross(0, 0, 1.45)
    left, right = s.p(-1.45, 0)[0], s.p(1.45, 0)[0]
    s.ask("hole", (right, s.p(0, 0.9)[1]), "hole", "left")
    s.ask("shaft", (left, s.p(0, 0.9)[1]), "shaft", "right")
    s.tell("play", (right, s.p(0, 0.2)[1]), "play", "left")
    s.tell("like", (s.board.width / 2, s.p(0, 1.38)[1] - s.size), "nearest to")
    s.tell("offset", (left, s.p(0, -0.2)[1]), "off the middle", "right")
    if s.has("length"):
        s.tell("tilt", (right, s.p(0, -0.6)[1]), "leans by", "left")
    s.note("play drawn enlarged", (s.board.width / 2, s.p(0, -1.38)[1]))


def _rings(s: Sketch, outside: float, bore: float) -> None:
    d = s.v("diameter")
    length = s.v("length", d * 0.8)
    s.frame(-length * 0.75, -outside / 2, length * 0.75, outside / 2)
    for side in (-1, 1):
        s.box(-length / 2, side * d / 2, length / 2, side * outside / 2, hatch=True)
    s.shape(
        [
            (-length * 0.7, -d / 2),
            (length * 0.7, -d / 2),
            (length * 0.7, d / 2),
            (-length * 0.7, d / 2),
        ]
    )
    if bore:
        for side in (-1, 1):
            s.line(
                (-length * 0.7, side * bore / 2),
                (length * 0.7, side * bore / 2),
                "hidden",
                1.1,
            )
    s.line((-length * 0.8, 0), (length * 0.8, 0), "centre", 1.0)


def press_fit(s: Sketch) -> None:
    outside = s.v("hub_outside")
    _rings(s, outside, s.v("shaft_bore"))
    length, d = s.v("length"), s.v("diameter")
    s.across("length", (-length / 2, outside / 2), (length / 2, outside / 2), 2.0)
    s.across(
        "hub_outside",
        (length / 2, -outside / 2),
        (length / 2, outside / 2),
        11.5,
        "hub",
    )
    s.across("diameter", (length * 0.7, -d / 2), (length * 0.7, d / 2), 3.4)
    left = s.p(-length * 0.75, 0)[0] - s.size
    y = s.p(0, 0)[1]
    s.ask("interference", (left, y - 5 * s.size), anchor="right")
    s.tell("pressure", (left, y - 1.4 * s.size), anchor="right")
    s.tell("press_force", (left, y + 1.6 * s.size), "force", "right")
    s.tell("torque", (left, y + 4.6 * s.size), anchor="right")
    s.tell("safety", (s.p(0, 0)[0], s.p(0, outside / 2 * 0.75)[1]), "hub's safety")


def shrink_fit(s: Sketch) -> None:
    d = s.v("diameter")
    _rings(s, d * 1.7, 0)
    at = s.p(0, 0)
    s.tell(
        "hub_temperature",
        (at[0], s.p(0, d * 0.66)[1] + 0.4 * s.size),
        "heat the hub to",
    )
    s.across("diameter", (d * 0.56, -d / 2), (d * 0.56, d / 2), 3.4)
    left = s.p(-d * 0.6, 0)[0] - s.size
    s.ask("interference", (left, at[1] - 3.4 * s.size), anchor="right")
    s.ask("assembly_clearance", (left, at[1]), "play to drop on", "right")
    s.tell("total_expansion", (left, at[1] + 3.4 * s.size), "to grow by", "right")
    s.ask("hub_material", (s.board.width * 0.84, 2.4 * s.size), "hub")
    s.ask("shaft_material", (s.board.width * 0.84, 5.8 * s.size), "shaft")


def bond_gap(s: Sketch) -> None:
    d = s.v("diameter")
    _rings(s, d * 1.6, 0)
    length = s.v("length")
    y = s.p(0, 0)[1]
    s.across("length", (-length / 2, d * 0.8), (length / 2, d * 0.8), 2.0)
    s.across("diameter", (length * 0.7, -d / 2), (length * 0.7, d / 2), 3.4)
    left = s.p(-length * 0.75, 0)[0] - s.size
    s.tell("gap_min", (left, y - 3 * s.size), "least gap", "right")
    s.tell("gap_max", (left, y), "most gap", "right")
    s.tell("hold_force", s.p(0, d * 0.65), "holds")
    s.tell("torque", s.p(0, -d * 0.65), "torque")


def thermal_size(s: Sketch) -> None:
    s.frame(0, 0, 10, 5, (6, 3))
    s.box(0, 3, 10, 4.4, role="stop")
    s.box(0, 0.6, 9.5, 2.0)
    s.line((9.5, 0.2), (9.5, 4.8), "thin", 1.0)
    s.line((10, 0.2), (10, 4.8), "thin", 1.0)
    s.ask("size", s.p(3.4, 3.7))
    s.ask("temperature", s.p(7.4, 3.7), "at")
    s.tell("size_at_reference", s.p(3.4, 1.2), "size")
    s.ask("reference", s.p(7.4, 1.2), "at")
    s.tell("change", s.p(9.75, 5.3), "change")
    s.ask("material", s.p(0.8, 5.4))


def mass(s: Sketch) -> None:
    shape = s.values.get("shape")
    length = s.v("length")
    if shape == "block":
        wide, high = s.v("width"), s.v("height")
        keys = ("width", "height")
    elif shape == "hexagon":
        high = s.v("across_flats")
        wide, keys = high / math.cos(math.radians(30)), ("across_flats", "")
    else:
        wide = high = s.v("diameter", s.v("outside_diameter"))
        keys = ("diameter", "") if shape == "bar" else ("outside_diameter", "bore")
    every = {"diameter", "outside_diameter", "bore", "width", "height", "across_flats"}
    s.needless(*(every - {*keys}))
    slant = 0.35 * length
    s.frame(0, 0, wide + slant, high + slant * 0.6)
    dx, dy = slant, slant * 0.6
    if shape == "block":
        s.shape(
            [
                (wide, 0),
                (wide + dx, dy),
                (wide + dx, high + dy),
                (dx, high + dy),
                (0, high),
                (wide, high),
            ]
        )
        s.box(0, 0, wide, high)
        s.line((wide, high), (wide + dx, high + dy))
        s.across("width", (0, 0), (wide, 0), -2.0)
        s.across("height", (0, 0), (0, high), -3.4)
    elif shape == "hexagon":
        turns = [math.radians(60 * n) for n in range(6)]
        ring = [
            (wide / 2 * (1 + math.cos(t)), high / 2 + wide / 2 * math.sin(t))
            for t in turns
        ]
        s.shape([(x + dx, y + dy) for x, y in ring])
        # what is seen of its far side lies past its right, upper right and top
        seen = [ring[5], ring[0], ring[1], ring[2]]
        s.shape([*seen, *((x + dx, y + dy) for x, y in reversed(seen))])
        for x, y in seen:
            s.line((x, y), (x + dx, y + dy))
        s.shape(ring)
        s.across("across_flats", (0, 0), (0, high), -3.4)
    else:
        r = wide / 2
        s.circle(r + dx, r + dy, r, "outline", "panel")
        # where the axis, aslant by 0.6, has its tangents
        along = 0.6 * r / math.hypot(1, 0.6), r / math.hypot(1, 0.6)
        (ax, ay), (bx, by) = (
            (r - side * along[0], r + side * along[1]) for side in (1, -1)
        )
        sides = [(ax, ay), (ax + dx, ay + dy), (bx + dx, by + dy), (bx, by)]
        s.shape(sides, role="none", fill="panel")
        s.line(sides[0], sides[1])
        s.line(sides[2], sides[3])
        s.circle(r, r, r, "outline", "panel")
        if shape == "tube":
            s.circle(r, r, s.v("bore") / 2, "outline", "ground")
            s.ask("bore", s.p(r, r))
        s.across(keys[0], (0, 0), (wide, 0), -2.0, "outside" if shape == "tube" else "")
    s.ask("length", s.p(wide + dx * 0.9, dy * 0.2))
    s.tell("mass", (s.board.width * 0.86, 3 * s.size))
    s.tell("volume", (s.board.width * 0.86, 6 * s.size))
    s.ask("material", (s.board.width * 0.14, 2.4 * s.size))
    s.ask("shape", (s.board.width * 0.14, 5.8 * s.size))


PICTURES = {
    "iso-limits": iso_limits,
    "iso-fit": two_zones,
    "inch-fit": two_zones,
    "fit-target": fit_target,
    "bolts-carry": bolts_carry,
    "measured-size": measured_size,
    "play-runout": play_runout,
    "play": measured_play,
    "metal": metal,
    "press-fit": press_fit,
    "shrink-fit": shrink_fit,
    "bond-gap": bond_gap,
    "thermal-size": thermal_size,
    "mass": mass,
}
