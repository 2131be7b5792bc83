"""Pictures of what meets: seats, nuts, keys, tapers, dowels, balls and screws."""

import math

from machinon.core.fits.dovetail import pin_allowance
from machinon.draw.sketch import Sketch


def bearing_seat(s: Sketch) -> None:
    bore = s.v("bore")
    inner = s.values.get("ring") != "outer"
    r1, r2, r3, r4 = bore / 2, bore * 0.68, bore * 0.84, bore * 1.02
    wide = bore * 0.55
    s.frame(-wide * 1.6, -r4 * 0.1, wide * 1.6, r4 * 1.25, (10, 2.4))
    if inner:
        s.box(-wide * 1.5, 0, wide * 1.5, r1, hatch=True, role="cut")
    else:
        s.shape(
            [
                (-wide * 1.5, r4),
                (wide * 1.5, r4),
                (wide * 1.5, r4 * 1.22),
                (-wide * 1.5, r4 * 1.22),
            ],
            True,
            "cut",
        )
    s.box(-wide / 2, r1, wide / 2, r2, hatch=True)
    s.box(-wide / 2, r3, wide / 2, r4, hatch=True)
    s.circle(0, (r2 + r3) / 2, (r3 - r2) / 2 + bore * 0.06, "outline", "ground")
    s.line((-wide * 1.6, 0), (wide * 1.6, 0), "centre", 1.0)
    left = s.p(-wide * 1.6, 0)[0] - s.size
    right = s.p(wide * 1.6, 0)[0] + s.size
    y = s.p(0, r1 if inner else r4)[1]
    s.ask("play_least", (left, y - 1.6 * s.size), "seat's play, least", "right")
    s.ask("play_most", (left, y + 1.8 * s.size), "seat's play, most", "right")
    s.tell("left_least", (right, y - 1.6 * s.size), "play left, least", "left")
    s.tell("left_most", (right, y + 1.8 * s.size), "play left, most", "left")
    s.ask("bore", s.p(0, r1 * 0.45))
    s.ask("ring", (left, y - 5.4 * s.size), "ring", "right")


def o_ring_groove(s: Sketch) -> None:
    """The pressed ring in its groove, much enlarged: the groove below what it seals
    on, in a bore above its rod."""
    cord, depth, wide = s.v("cord"), s.r("depth"), s.r("width")
    where = str(s.values.get("where") or "piston")
    up = -1 if where == "bore" else 1
    half, end, body = wide / 2, 1.9 * wide, 0.9 * cord
    gap = 0.05 * cord
    s.frame(-end, -depth - body, end, depth + body, (9, 4))
    middle = depth / 2

    def at(x: float, y: float) -> tuple[float, float]:
        return x, up * (y - middle)

    grooved = [(-end, depth - gap), (-half, depth - gap), (-half, 0), (half, 0)]
    grooved += [(half, depth - gap), (end, depth - gap), (end, -body), (-end, -body)]
    s.shape([at(*point) for point in grooved], hatch=True)
    smooth = [(-end, depth), (end, depth), (end, depth + body), (-end, depth + body)]
    s.shape([at(*point) for point in smooth], hatch=True)
    flat = cord**2 / depth / 2  # as wide as it becomes when it is pressed
    turns = [math.radians(6 * i) for i in range(60)]
    s.shape(
        [at(flat * math.cos(a), middle * (1 + math.sin(a))) for a in turns], role="cut"
    )
    sealed = {"piston": "⌀ of the bore", "bore": "⌀ of the rod", "face": "⌀ outside"}
    left, right = s.p(-end, 0)[0] - s.size, s.p(end, 0)[0] + s.size
    y_sealed, y_floor = s.p(*at(0, depth))[1], s.p(*at(0, 0))[1]
    if where == "face":
        s.ask("diameter", (left, y_floor), sealed[where], "right")
        s.needless("groove_diameter")
    else:
        s.ask("diameter", (left, y_sealed), sealed[where], "right")
        s.tell("groove_diameter", (right, y_floor), "⌀ of the floor", "left")
    s.across("width", at(-half, 0), at(half, 0), -3.0 * up, "wide")
    s.across("depth", at(half, 0), at(half, depth), 2.6, "deep")
    s.ask("cord", s.p(0, 0), "cord")
    s.tell("squeeze", (right, y_sealed), "pressed by", "left")
    for i, (key, name) in enumerate(
        (("ring_inside", "ring's inside"), ("filled", "filled"), ("lead_in", "lead-in"))
    ):
        s.tell(key, ((i + 1) / 4 * s.board.width, 2.6 * s.size), name)


def ball_bearing(s: Sketch) -> None:
    """The bearing cut open above its axis, on its shaft and in its housing."""
    r1, r4, wide = s.r("bore", 20) / 2, s.r("outside", 47) / 2, s.r("width", 14)
    ring = (r4 - r1) * 0.32
    long = 1.6 * wide
    s.frame(-long, -0.1 * r4, long, 1.3 * r4, (10, 2.4))
    s.box(-long, 0, long, r1, hatch=True, role="cut")
    corners = ((-long, r4), (long, r4), (long, 1.25 * r4), (-long, 1.25 * r4))
    s.shape([*corners], True, "cut")
    s.box(-wide / 2, r1, wide / 2, r1 + ring, hatch=True)
    s.box(-wide / 2, r4 - ring, wide / 2, r4, hatch=True)
    s.circle(0, (r1 + r4) / 2, (r4 - r1) * 0.3, "outline", "ground")
    s.line((-1.1 * long, 0), (1.1 * long, 0), "centre", 1.0)
    left, right = s.p(-long, 0)[0] - s.size, s.p(long, 0)[0] + s.size
    s.ask("number", (left, s.p(0, (r1 + r4) / 2)[1]), "its number", "right")
    s.tell("bore", (left, s.p(0, 0.4 * r1)[1]), "bore", "right")
    s.tell("outside", (left, s.p(0, 1.12 * r4)[1]), "outside", "right")
    s.tell("width", (right, s.p(0, (r1 + r4) / 2)[1]), "width", "left")
    y, step = s.p(0, 0.5 * r1)[1], 1.7 * s.size
    s.tell("shaft_upper", (right, y - step), "shaft, most", "left")
    s.tell("shaft_lower", (right, y + step), "least", "left")
    y = s.p(0, 1.12 * r4)[1]
    s.tell("housing_upper", (right, y - step), "housing, most", "left")
    s.tell("housing_lower", (right, y + step), "least", "left")


def t_nut(s: Sketch) -> None:
    neck, head, high, lip = (s.v(k) for k in ("neck", "head", "head_height", "lip"))
    tongue = (s.r("tongue_lower") + s.r("tongue_upper")) / 2
    wide = (s.r("head_lower") + s.r("head_upper")) / 2
    thick = (s.r("height_lower") + s.r("height_upper")) / 2
    deep = high + lip
    side = head * 0.95
    s.frame(-side, -deep - 0.25 * deep, side, 0.1 * deep, (9, 3.4))
    s.shape(
        [
            (-side, 0),
            (-neck / 2, 0),
            (-neck / 2, -lip),
            (-head / 2, -lip),
            (-head / 2, -deep),
            (head / 2, -deep),
            (head / 2, -lip),
            (neck / 2, -lip),
            (neck / 2, 0),
            (side, 0),
            (side, -deep * 1.22),
            (-side, -deep * 1.22),
        ],
        hatch=True,
    )
    top = -lip + s.r("tongue_height")
    s.shape(
        [
            (-tongue / 2, top),
            (-tongue / 2, -lip),
            (-wide / 2, -lip),
            (-wide / 2, -lip - thick),
            (wide / 2, -lip - thick),
            (wide / 2, -lip),
            (tongue / 2, -lip),
            (tongue / 2, top),
        ],
        role="cut",
    )
    s.line((0, 0.08 * deep), (0, -deep * 1.2), "centre", 1.0)
    s.across("neck", (-neck / 2, 0), (neck / 2, 0), 1.6)
    s.across("head", (-head / 2, -deep), (head / 2, -deep), -2.6)
    s.across("head_height", (side, -deep), (side, -lip), 4.6, "head height")
    s.across("lip", (side, -lip), (side, 0), 4.6)
    left = s.p(-side, 0)[0] - s.size
    s.tell("tongue_upper", (left, s.p(0, -lip * 0.3)[1]), "tongue, largest", "right")
    s.tell("head_upper", (left, s.p(0, -lip - high * 0.4)[1]), "head, widest", "right")
    s.tell("height_upper", s.p(0, -lip - thick / 2), "thickest")


def key_sides(s: Sketch) -> None:
    width = s.v("width")
    r = width * 1.9
    s.frame(-r * 1.5, -0.25 * r, r * 1.5, 1.75 * r, (9, 2.6))
    s.box(-r * 1.45, r * 1.02, r * 1.45, r * 1.7, hatch=True)
    s.shape(
        [
            (r * math.sin(math.radians(a)), r * math.cos(math.radians(a)))
            for a in range(-70, 71, 5)
        ]
    )
    half = width / 2
    s.box(-half * 1.06, r * 0.55, half * 1.06, r * 1.4, fill="ground", role="outline")
    s.box(-half, r * 0.57, half, r * 1.36, hatch=True, role="cut")
    left, right = s.p(-r * 1.5, 0)[0] - s.size, s.p(r * 1.5, 0)[0] + s.size
    middle = s.p(0, r * 0.9)[1]
    apart = max(s.length(0.5 * r), 2.5 * s.size)
    for row, part in ((-1, "hub"), (0, "key"), (1, "shaft")):
        y = middle + row * apart
        s.tell(f"{part}_lower", (left, y), f"{part}, narrowest", "right")
        s.tell(f"{part}_upper", (right, y), f"{part}, widest", "left")
    s.ask("width", s.p(0, r * 0.2), "key's width")


def key_load(s: Sketch) -> None:
    d, width, high, long = (s.v(k) for k in ("diameter", "width", "height", "length"))
    s.frame(-d * 0.6, -d * 0.62, d * 0.7 + long, d * 0.62, (8, 3.2))
    s.circle(0, 0, d / 2, "outline", "panel")
    s.cross(0, 0, d * 0.58)
    s.box(-width / 2, d / 2 - high / 2, width / 2, d / 2 + high / 2, True, "cut")
    at = d * 0.7
    s.box(at, -d / 2, at + long, d / 2)
    s.box(
        at + long * 0.02,
        d / 2 - high / 2,
        at + long * 0.98,
        d / 2 + high / 2,
        True,
        "cut",
    )
    s.across("diameter", (at + long, -d / 2), (at + long, d / 2), 4.4)
    s.across("length", (at, -d / 2), (at + long, -d / 2), -2.0)
    s.ask("width", s.p(-d * 0.3, d * 0.25))
    s.ask("height", s.p(d * 0.3, -d * 0.15))
    x = s.p(at + long / 2, 0)[0]
    s.tell("carries", (x, s.p(0, 0.12 * d)[1]), "carries")
    s.tell("side_pressure", (x, s.p(0, -0.2 * d)[1]), "pressure")


def dovetail_mate(s: Sketch) -> None:
    angle, depth, bottom = s.v("angle", 60), s.v("depth"), s.v("bottom")
    slot = bool(s.values.get("internal"))
    pin = s.v("pin")
    new = s.v("new_depth") or depth
    slot_depth, tongue_depth = (depth, new) if slot else (new, depth)
    deeper = max(depth, new)
    cot = 1 / math.tan(math.radians(angle))
    # the tongue's root and top, the slot's floor and open side
    root = bottom / 2 - (deeper * cot if slot else 0.0)
    wide = root + deeper * cot
    top, open_side = root + tongue_depth * cot, wide - slot_depth * cot
    side = wide * 1.45
    gap = deeper * 0.7
    s.frame(-side, -deeper * 0.9, side, 2 * deeper + gap + deeper * 0.5, (8, 2.6))
    low = deeper + gap
    # below: the tongue upright; above: the slot that goes over it
    tongue = [
        (-top, tongue_depth),
        (top, tongue_depth),
        (root, 0),
        (side, 0),
        (side, -deeper * 0.7),
        (-side, -deeper * 0.7),
        (-side, 0),
        (-root, 0),
    ]
    s.shape(tongue, hatch=True, role="cut" if slot else "measured")
    s.shape(
        [
            (-side, low),
            (-open_side, low),
            (-wide, low + slot_depth),
            (wide, low + slot_depth),
            (open_side, low),
            (side, low),
            (side, low + slot_depth + deeper * 0.5),
            (-side, low + slot_depth + deeper * 0.5),
        ],
        hatch=True,
        role="measured" if slot else "cut",
    )
    half = math.radians(angle) / 2
    centre = pin / 2 / math.tan(half)
    if slot:  # the tongue is to be made: pins in its root
        for sign in (-1, 1):
            s.circle(sign * (root + centre), pin / 2, pin / 2, "outline", "ground")
        reach = root + pin_allowance(pin, angle) / 2
        s.across(
            "read_upper", (-reach, pin / 2), (reach, pin / 2), -3.4, "over pins, most"
        )
        y = low + slot_depth
        s.across("bottom", (-wide, y), (wide, y), 2.0, "measured")
    else:
        for sign in (-1, 1):
            s.circle(
                sign * (wide - centre),
                low + slot_depth - pin / 2,
                pin / 2,
                "outline",
                "ground",
            )
        reach = wide - pin_allowance(pin, angle) / 2
        at = low + slot_depth - pin / 2
        s.across("read_upper", (-reach, at), (reach, at), 3.4, "between pins, most")
        s.across("bottom", (-root, 0), (root, 0), -3.0, "measured")
    right = s.p(side, 0)[0] + 0.5 * s.size
    s.ask("depth", (right, s.p(0, deeper / 2)[1]), anchor="left")
    s.ask("pin", (right, s.p(0, low + deeper / 2)[1]), anchor="left")
    left = s.p(-side, 0)[0] - 0.5 * s.size
    s.tell("square_play", (left, s.p(0, deeper + gap / 2)[1]), "at a flank", "right")


def taper_fit(s: Sketch) -> None:
    d, long, ratio = s.v("diameter"), s.v("length"), s.v("ratio")
    small = d - ratio * long
    out = d * 1.7
    s.frame(-long * 0.12, -out / 2, long * 1.25, out / 2, (8, 3.4))
    for sign in (-1, 1):
        s.shape(
            [
                (0, sign * small / 2),
                (long, sign * d / 2),
                (long, sign * out / 2),
                (0, sign * out / 2),
            ],
            hatch=True,
        )
    s.shape(
        [
            (-long * 0.1, -small / 2 + ratio * long * 0.05),
            (long * 1.15, -d / 2 - ratio * long * 0.07),
            (long * 1.15, d / 2 + ratio * long * 0.07),
            (-long * 0.1, small / 2 - ratio * long * 0.05),
        ],
        role="cut",
    )
    s.line((-long * 0.2, 0), (long * 1.3, 0), "centre", 1.0)
    # where blue shows first when the angle is off by the film
    s.line((long * 0.82, d / 2 - ratio * long * 0.09), (long, d / 2), "measured", 5)
    s.line((0, small / 2), (long * 0.18, small / 2 + ratio * long * 0.09), "thin", 5)
    s.across("length", (0, out / 2), (long, out / 2), 1.8)
    s.across("diameter", (long * 1.15, -d / 2), (long * 1.15, d / 2), 4.6, "large end")
    x = s.p(long / 2, 0)[0]
    y = s.p(0, 0)[1]
    s.tell("half_angle_lower", (x - 3 * s.size, y - 0.7 * s.size), "half angle from")
    s.tell("half_angle_upper", (x + 3 * s.size, y + 1.6 * s.size), "to")
    foot = s.p(0, -out / 2)[1] + 1.8 * s.size
    s.tell("indicator", (x - 8 * s.size, foot), "indicator over travel")
    s.tell("angle_share", (x + 8 * s.size, foot), "to within")


def dowel_pair(s: Sketch) -> None:
    d, apart = s.v("dowel"), s.v("distance")
    show = min(apart, d * 8)
    wide = show + 4 * d
    high = 2.4 * d
    s.frame(-wide / 2, -high, wide / 2, high, (7, 3.2))
    s.box(-wide / 2, -high, wide / 2, -0.06 * d, hatch=True)
    s.box(-wide / 2, 0.06 * d, wide / 2, high, hatch=True)
    for sign in (-1, 1):
        x = sign * show / 2
        s.box(x - d * 0.62, 0.06 * d, x + d * 0.62, high * 0.85, fill="ground")
        s.box(x - d / 2, -high * 0.8, x + d / 2, high * 0.8, role="measured")
        s.line((x, -high * 1.05), (x, high * 1.05), "centre", 1.0)
    s.across("distance", (-show / 2, high), (show / 2, high), 1.8)
    s.ask("dowel", s.p(0, high * 0.45))
    x = s.p(0, 0)[0]
    foot = s.p(0, -high)[1] + 1.8 * s.size
    s.tell("slides_lower", (x - 13 * s.size, foot), "it slides in, from")
    s.tell("slides_upper", (x - 5 * s.size, foot), "to")
    s.tell("keeps_lower", (x + 5 * s.size, foot), "it is kept in, from")
    s.tell("keeps_upper", (x + 13 * s.size, foot), "to")
    s.tell("shake_at", s.p(0, -high * 0.5), "shake")


def detent_hold(s: Sketch) -> None:
    ball, depth = s.v("ball"), s.v("depth")
    r = ball / 2
    rim = s.r("rim") / 2
    hole = (s.r("hole_lower") + s.r("hole_upper")) / 4
    top = ball - depth + 1.6 * r
    s.frame(-r * 3, -depth - r, r * 3, top, (7, 2.4))
    half = math.degrees(math.asin(min(rim / r, 1.0)))
    s.shape(
        [(-r * 3, 0), (-rim, 0)]
        + [
            (r * math.sin(math.radians(a)), r - depth - r * math.cos(math.radians(a)))
            for a in [(-half + 2 * half * i / 16) for i in range(17)]
        ]
        + [(rim, 0), (r * 3, 0), (r * 3, -depth - r), (-r * 3, -depth - r)],
        hatch=True,
    )
    for sign in (-1, 1):
        s.shape(
            [
                (sign * hole, 0.12 * r),
                (sign * r * 2.4, 0.12 * r),
                (sign * r * 2.4, top),
                (sign * hole, top),
            ],
            hatch=True,
        )
    s.circle(0, r - depth, r, "outline", "panel")
    turns = 5
    base = ball - depth
    zig = [
        ((-1) ** i * hole * 0.8, base + (top - base) * i / (2 * turns))
        for i in range(2 * turns + 1)
    ]
    s.shape(zig, role="cut", closed=False)
    s.ask("ball", s.p(0, r - depth))
    left, right = s.p(-r * 3, 0)[0] - s.size, s.p(r * 3, 0)[0] + s.size
    s.ask("spring", (right, s.p(0, top * 0.8)[1]), anchor="left")
    s.ask("depth", (right, s.p(0, -depth)[1]), anchor="left")
    s.tell("hold", (left, s.p(0, r * 0.6)[1]), "pushes out at", "right")
    s.tell("torque", (left, s.p(0, -r * 0.9)[1]), "clicks at", "right")
    s.ask("radius", (left, s.p(0, top * 0.85)[1]), "circle's radius", "right")


def screw_dimple(s: Sketch) -> None:
    wall, around = s.v("wall"), s.v("around")
    depth = (s.r("depth_lower") + s.r("depth_upper")) / 2
    mouth = s.r("mouth") / 2
    d = mouth * 2 / 0.6  # a dimple of middling depth is 0.6 of its screw across
    side = d * 2.2
    s.frame(-side, -wall, side, around * 1.15, (8, 2.6))
    s.shape(
        [
            (-side, 0),
            (-mouth, 0),
            (0, -mouth),
            (mouth, 0),
            (side, 0),
            (side, -wall),
            (-side, -wall),
        ],
        hatch=True,
    )
    for sign in (-1, 1):
        s.shape(
            [
                (sign * d / 2, 0.04 * d),
                (sign * side, 0.04 * d),
                (sign * side, around),
                (sign * d / 2, around),
            ],
            hatch=True,
        )
    tip = -min(depth, mouth)
    s.shape(
        [
            (0, tip),
            (d / 2, tip + d / 2),
            (d / 2, around * 0.92),
            (-d / 2, around * 0.92),
            (-d / 2, tip + d / 2),
        ],
        role="cut",
    )
    s.line((0, -wall * 1.05), (0, around * 1.12), "centre", 1.0)
    left, right = s.p(-side, 0)[0], s.p(side, 0)[0]
    s.across("around", (side, 0), (side, around), 4.4, "around")
    s.across("wall", (side, -wall), (side, 0), 4.4)
    s.ask("screw", s.p(0, around * 0.6))
    s.tell("length", (left - s.size, s.p(0, around * 0.7)[1]), "screw, long", "right")
    s.tell(
        "depth_lower", (left - s.size, s.p(0, around * 0.1)[1]), "dimple from", "right"
    )
    s.tell("depth_upper", (left - s.size, s.p(0, -wall * 0.6)[1]), "to", "right")
    s.tell("hold", ((left + right) / 2, s.p(0, -wall * 0.72)[1]), "holds")


def shrink_time(s: Sketch) -> None:
    """The hub's cooling as a curve, down to where it grips."""
    hot, grips, room = s.v("hub_temperature"), s.r("grips_at"), s.v("room", 20)
    total = max(s.r("seconds"), 1e-6)
    rate = math.log((hot - room) / (grips - room)) / total
    span = 1.4 * total
    high = hot - room
    s.frame(0, 0, 16, 10, (9, 3.4))

    def at(t: float, temperature: float) -> tuple[float, float]:
        return 16 * t / span, 10 * (temperature - room) / high

    s.line((0, 0), (16, 0), "thin", 1.2)
    s.line((0, 0), (0, 10.5), "thin", 1.2)
    s.shape(
        [
            at(span * i / 40, room + high * math.exp(-rate * span * i / 40))
            for i in range(41)
        ],
        role="stop",
        closed=False,
        width=2.4,
    )
    x, y = at(total, grips)
    s.line((0, y), (x, y), "cut", 1.2)
    s.line((x, 0), (x, y), "cut", 1.2)
    left = s.p(0, 0)[0] - s.size
    s.ask("hub_temperature", (left, s.p(0, 10)[1]), "hub, hot", "right")
    s.tell("grips_at", (left, s.p(0, y)[1]), "grips at", "right")
    s.ask("room", (left, s.p(0, 0)[1]), "room", "right")
    s.tell("seconds", (s.p(x, 0)[0], s.p(0, 0)[1] + 1.8 * s.size), "seconds in air")
    s.tell("placing", (s.p(12, 0)[0], s.p(0, 8)[1]), "seconds round the shaft")


def fit_warm(s: Sketch) -> None:
    s.frame(0, 0, 12, 6, (8, 3))
    for x, role in ((1.0, "outline"), (7.2, "stop")):
        s.box(x, 0.6, x + 3.6, 5.4, hatch=True, role=role)  # type: ignore[arg-type]
        s.box(x - 0.4, 2, x + 4.0, 4)
    s.ask("play_least", s.p(2.8, 3.4), "play at 20 °C, least")
    s.ask("play_most", s.p(2.8, 1.4), "most")
    s.tell("least", s.p(9, 3.4), "at work, least")
    s.tell("most", s.p(9, 1.4), "most")
    s.ask("temperature", s.p(9, 5.9), "at")
    s.tell("change", s.p(6, 5.0), "change")
    s.ask("hub_material", s.p(1.6, 5.9), "outer")
    s.ask("shaft_material", s.p(4.6, 5.9), "inner")


def bolt_room(s: Sketch) -> None:
    hole, room, need = s.r("passing"), s.r("room"), s.r("need")
    screw = hole - 2 * room
    tapped = s.values.get("new") == "tapped"
    s.frame(-hole * 0.6, -hole * 0.6, hole * 0.6, hole * 0.6, (12, 2.4))
    s.circle(0, 0, hole / 2, "cut", "ground", 2.2)
    s.circle(0, 0, screw / 2, "outline", "panel")
    s.circle(
        0, 0, screw / 2 + need, "measured" if room >= need else "stop", "none", 1.2
    )
    s.cross(0, 0, hole * 0.56)
    s.ask("thread", s.p(0, 0), "screw")
    right, left = s.p(hole * 0.6, 0)[0] + s.size, s.p(-hole * 0.6, 0)[0] - s.size
    y = s.p(0, 0)[1]
    name = "tapping drill" if tapped else "clearance hole"
    s.tell("hole", (right, y - 4 * s.size), name, "left")
    s.tell("room", (right, y), "room round it", "left")
    s.tell("need", (right, y + 4 * s.size), "room wanted", "left")
    s.ask("circle_doubt", (left, y - 4 * s.size), "circle's uncertainty", "right")
    s.ask("play", (left, y), "play of the centring", "right")
    s.ask("drilling", (left, y + 4 * s.size), "drilling", "right")


def reading_less(s: Sketch) -> None:
    reading, bar, block = s.v("reading"), s.v("bar"), s.v("parallel")
    s.frame(-reading * 0.5, 0, reading * 0.5, reading, (10, 3))
    wide = reading * 0.45
    s.box(-wide, -0.08 * reading, wide, 0, hatch=True)
    if block:
        s.box(-wide * 0.5, 0, wide * 0.5, block, hatch=True)
    if bar:
        s.circle(0, reading - bar / 2, bar / 2, "outline", "panel")
        s.cross(0, reading - bar / 2, bar * 0.7)
    s.across("reading", (wide, 0), (wide, reading), 3.6)
    s.across("size", (-wide, block), (-wide, reading - bar / 2), -4.6, "size")
    s.ask("bar", s.p(wide * 0.35, reading - bar / 2))
    s.ask("parallel", s.p(0, max(block / 2, reading * 0.06)))


def arc_chord(s: Sketch) -> None:
    chord, high, r = s.v("chord"), s.v("height"), s.r("radius")
    half = math.degrees(math.asin(min(chord / 2 / r, 1.0)))
    if high > r:
        half = 180 - half
    s.frame(-chord * 0.6, -high * 0.4, chord * 0.6, high * 1.3, (9, 3.2))
    s.arc(0, high - r, r, 90 - half, 90 + half)
    s.line((-chord / 2, 0), (chord / 2, 0), "thin", 1.2)
    s.line((0, 0), (0, high), "centre", 1.0)
    s.across("chord", (-chord / 2, 0), (chord / 2, 0), -2.0)
    s.across("height", (chord / 2, 0), (chord / 2, high), 4.4)
    s.tell("diameter", s.p(0, high * 0.45), "diameter")
    s.tell("radius", (s.p(-chord * 0.5, 0)[0], s.p(0, high)[1]), "radius", "right")


def arc(s: Sketch) -> None:
    r, half = s.r("radius"), s.r("angle") / 2
    wide = r * (1.0 if half > 90 else math.sin(math.radians(half)))
    low = min(0.0, r * math.cos(math.radians(half)))
    s.frame(-wide, low, wide, r, (9, 3.6))
    s.arc(0, 0, r, 90 - half, 90 + half)
    turn = math.radians(half)
    x, y = r * math.sin(turn), r * math.cos(turn)
    for end in (-x, x):
        s.line((0, 0), (end, y), "thin", 1.0)
    s.line((-x, y), (x, y), "thin", 1.2)
    s.line((0, y), (0, r), "centre", 1.0)
    s.put("radius", s.p(x * 0.5, y * 0.5), "radius", "left")
    s.put("angle", s.p(0, r * 0.12 if half < 90 else -r * 0.2), "angle")
    s.put("chord", s.p(-x * 0.5, y), "chord")
    s.put("height", s.p(0, (y + r) / 2), "height", "left")
    s.tell("length", (s.p(0, 0)[0], s.p(0, r)[1] - 1.2 * s.size), "along it")


def vee(s: Sketch) -> None:
    d, half = s.v("diameter"), math.radians(s.v("angle", 90) / 2)
    axis, top = s.r("axis"), s.r("top")
    deep = s.v("mouth", 2.4 * s.r("apart")) / (2 * math.tan(half))
    wide = deep * math.tan(half)
    out = wide + 0.5 * d
    s.frame(-out, -0.4 * d, out, max(top, deep), (9, 3))
    s.shape(
        [(-out, deep), (-wide, deep), (0, 0), (wide, deep), (out, deep),
         (out, -0.4 * d), (-out, -0.4 * d)],
        hatch=True,
    )  # fmt: skip
    s.circle(0, axis, d / 2, "measured", "ground")
    s.cross(0, axis, 0.6 * d)
    s.ask("diameter", s.p(0, axis + 0.22 * d))
    left, right = s.p(-out, 0)[0] - s.size, s.p(out, 0)[0] + s.size
    s.put("axis", (left, s.p(0, axis)[1]), "its axis", "right")
    s.put("top", (left, s.p(0, top)[1]), "its top", "right")
    s.tell("apart", (left, s.p(0, 0)[1]), "lines apart", "right")
    s.put("angle", s.p(0, -0.2 * d), "angle")
    s.tell("stands_out", (right, s.p(0, top)[1]), "over the vee", "left")
    s.tell("touches", (right, s.p(0, axis * 0.55)[1]), "touches below", "left")
    s.tell("rise", (right, s.p(0, 0)[1]), "rise for 1 more", "left")


def taper_balls(s: Sketch) -> None:
    small, large = s.v("small"), s.v("large")
    at_small = -s.v("depth_small") - small / 2
    at_large = -s.v("depth_large") - large / 2
    slope, wide = s.r("ratio") / 2, s.r("diameter") / 2
    low = at_small - small * 0.7
    s.frame(-wide * 2.2, low, wide * 2.2, large * 0.3, (9, 2.6))
    for sign in (-1, 1):
        s.shape(
            [
                (sign * wide, 0),
                (sign * (wide + slope * low), low),
                (sign * wide * 2, low),
                (sign * wide * 2, 0),
            ],
            hatch=True,
        )
    s.circle(0, at_small, small / 2, "measured", "ground")
    s.circle(0, at_large, large / 2, "measured", "ground")
    s.line((0, low), (0, large * 0.3), "centre", 1.0)
    s.ask("small", s.p(0, at_small))
    s.ask("large", s.p(0, at_large))
    left, right = s.p(-wide * 2.1, 0)[0], s.p(wide * 2.1, 0)[0]
    s.ask("depth_large", (right, s.p(0, at_large)[1]), "to the large ball", "left")
    s.ask("depth_small", (right, s.p(0, at_small)[1]), "to the small ball", "left")
    s.tell("diameter", (left, s.p(0, 0)[1] + s.size), "open end", "right")
    s.tell("half_angle", (left, s.p(0, at_small)[1]), "half angle", "right")
    s.tell("ratio", (left, s.p(0, (at_small + at_large) / 2)[1]), "ratio", "right")


def throw_angle(s: Sketch) -> None:
    arm, angle = s.v("arm"), s.r("angle")
    half = math.radians(angle / 2)
    s.frame(-arm, 0, arm, arm * 1.15, (7, 3.2))
    ends = [(sign * arm * math.sin(half), arm * math.cos(half)) for sign in (-1, 1)]
    for end in ends:
        s.line((0, 0), end, "outline", 4.0)
    s.arc(0, 0, arm, 90 - angle / 2, 90 + angle / 2, "thin", 1.2)
    s.circle(0, 0, arm * 0.06, "outline", "panel")
    s.across("chord", ends[0], ends[1], 2.2)
    s.tell("angle", s.p(0, arm * 0.45), "throw")
    s.ask("arm", s.p(arm * 0.55, arm * 0.3))
    s.tell("rise", (s.p(arm * 0.75, 0)[0], s.p(0, arm)[1]), "rise", "left")


PICTURES = {
    "bearing-seat": bearing_seat,
    "ball-bearing": ball_bearing,
    "o-ring-groove": o_ring_groove,
    "t-nut": t_nut,
    "key-sides": key_sides,
    "key-load": key_load,
    "dovetail-mate": dovetail_mate,
    "taper-fit": taper_fit,
    "dowel-pair": dowel_pair,
    "detent-hold": detent_hold,
    "screw-dimple": screw_dimple,
    "shrink-time": shrink_time,
    "fit-warm": fit_warm,
    "bolt-room": bolt_room,
    "reading-less": reading_less,
    "arc-chord": arc_chord,
    "arc": arc,
    "vee": vee,
    "taper-balls": taper_balls,
    "throw-angle": throw_angle,
}
