"""Pictures of measuring: dovetail with pins, keyway, dials, stacks, vectors."""

import math

from machinon.core.fits.dovetail import pin_allowance
from machinon.core.quantity import LENGTH, small_text
from machinon.core.setting_out.runout import OVAL, resolve
from machinon.draw.charts import rose_drawing
from machinon.draw.drawing import Circle
from machinon.draw.sketch import Sketch, figure


def dovetail(s: Sketch) -> None:
    angle, pin = s.v("angle", 60), s.v("pin")
    bottom = s.r("width_bottom")
    depth = s.v("depth") or pin * 1.2
    internal = bool(s.values.get("internal"))
    lean = depth / math.tan(math.radians(angle))
    top = bottom / 2 + (-lean if internal else lean)
    reach = max(bottom / 2, top) + (0.3 * bottom if internal else 1.5 * pin)
    s.frame(-reach, -depth * 0.7, reach, depth, (8, 4.4))
    half = math.radians(angle) / 2
    centre = pin / 2 / math.tan(half)
    if internal:
        s.shape(
            [
                (-reach, depth),
                (-top, depth),
                (-bottom / 2, 0),
                (bottom / 2, 0),
                (top, depth),
                (reach, depth),
                (reach, -depth * 0.6),
                (-reach, -depth * 0.6),
            ],
            hatch=True,
        )
        x = bottom / 2 - centre
        inside = bottom / 2 - pin_allowance(pin, angle) / 2
        a, b = (-inside, depth * 0.5), (inside, depth * 0.5)
        key = "between_pins"
    else:
        s.shape(
            [
                (-top, depth),
                (top, depth),
                (bottom / 2, 0),
                (reach, 0),
                (reach, -depth * 0.6),
                (-reach, -depth * 0.6),
                (-reach, 0),
                (-bottom / 2, 0),
            ],
            hatch=True,
        )
        x = bottom / 2 + centre
        outside = bottom / 2 + pin_allowance(pin, angle) / 2
        a, b = (-outside, pin / 2), (outside, pin / 2)
        key = "over_pins"
    for side in (-1, 1):
        s.circle(side * x, pin / 2, pin / 2, "measured", "ground", 2.4)
    if internal:
        at = s.p(0, depth * 0.5)
        s.tell(key, at, "between the pins")
        s.line(a, b, "dimension", 0.9)
    else:
        s.across(key, (a[0], -depth * 0.6), (b[0], -depth * 0.6), -1.9, "over the pins")
    s.across("width_top", (-top, depth), (top, depth), 2.2, "top")
    s.put(
        "width_bottom",
        s.p(0, depth * (0.12 if not internal else -0.25)),
        "between corners",
    )
    s.across("depth", (reach, 0), (reach, depth), 3.0)
    s.ask("pin", (s.p(x, 0)[0], s.p(0, pin / 2)[1]))
    s.ask("angle", (s.p(-reach, 0)[0] - s.size, s.p(0, depth * 0.5)[1]), anchor="right")
    s.ask(
        "measured",
        (s.p(-reach, 0)[0] - s.size, s.p(0, -depth * 0.5)[1]),
        "read",
        "right",
    )


def keyway(s: Sketch) -> None:
    d = s.v("shaft_diameter")
    r = d / 2
    width = s.r("key_width")
    tool = s.v("tool_width", width)
    bore = s.values.get("bore") is not False
    deep = s.r("hub_depth") if bore else s.r("shaft_depth")
    corner = math.sqrt(max(r * r - tool * tool / 4, 0))
    outer = r * 1.5
    s.frame(
        -outer, -outer if bore else -r, outer, outer if bore else r * 1.25, (9, 3.2)
    )
    floor = r + deep if bore else r - deep
    if bore:
        s.circle(0, 0, outer, "outline", "panel")
        s.circle(0, 0, r, "outline", "ground")
        s.box(-width / 2, 0, width / 2, floor, fill="ground", role="none")
        s.arc(
            0,
            0,
            r,
            90 - math.degrees(math.asin(width / d)),
            90 + math.degrees(math.asin(width / d)),
            "hidden",
            1.0,
        )
    else:
        s.circle(0, 0, r, "outline", "panel")
        s.box(-width / 2, floor, width / 2, r * 1.05, fill="ground", role="none")
        s.arc(
            0,
            0,
            r,
            90 - math.degrees(math.asin(width / d)),
            90 + math.degrees(math.asin(width / d)),
            "hidden",
            1.0,
        )
    side = math.sqrt(max(r * r - width * width / 4, 0))
    for x in (-width / 2, width / 2):
        s.line((x, side), (x, floor))
    s.line((-width / 2, floor), (width / 2, floor), "cut", 3.0)
    # the flat tool as its corners touch
    s.line((-tool / 2, corner), (tool / 2, corner), "measured", 2.4)
    for x in (-tool / 2, tool / 2):
        at = s.p(x, corner)
        s.board.items.append(Circle(at, 4, "measured", 1.6, "measured"))
    s.cross(0, 0, r * 0.25)
    left, right = s.p(-outer, 0)[0] - s.size, s.p(outer, 0)[0] + s.size
    s.across("across", (outer * 0.98, -r), (outer * 0.98, floor), 2.6)
    s.tell("corner_drop", (left, s.p(0, corner)[1]), "corners touch first by", "right")
    s.tell(
        "feed_from_contact",
        (left, s.p(0, corner)[1] + 3.2 * s.size),
        "feed from contact",
        "right",
    )
    s.ask("contact", (left, s.p(0, corner)[1] + 7 * s.size), "touched with", "right")
    s.ask("shaft_diameter", s.p(0, -r * 0.45), "bore" if bore else "shaft")
    s.tell(
        "key_width",
        (s.p(0, 0)[0], s.p(0, outer if bore else r)[1] + 1.6 * s.size),
        "key wide",
    )
    s.tell(
        "key_height",
        (right + 2 * s.size, s.p(0, outer * 0.7)[1] - s.size),
        "key high",
        "left",
    )


def square_hole(s: Sketch) -> None:
    size, bar = s.v("size"), s.v("bar")
    corners = s.r("corner_distance")
    reach = (bar or corners * 1.25) / 2
    s.frame(-reach, -reach, reach, reach, (10, 2.6))
    s.circle(0, 0, reach, "outline" if bar else "hidden", "panel")
    h = size / 2
    s.box(-h, -h, h, h, fill="ground")
    drill = s.r("drill") / 2
    s.circle(0, 0, drill, "cut", width=2.0)
    s.cross(0, 0, reach * 1.1)
    s.line((-h, -h), (h, h), "centre", 1.0)
    s.across("size", (-h, -reach), (h, -reach), -1.6)
    left, right = s.p(-reach, 0)[0] - s.size, s.p(reach, 0)[0] + s.size
    y = s.p(0, 0)[1]
    s.tell("drill", (left, y), "drill first", "right")
    s.tell("corner_distance", (right, s.p(0, h)[1]), "over corners", "left")
    s.tell("wall", (right, y + 2 * s.size), "wall at corners", "left")
    s.ask("bar", (left, s.p(0, reach * 0.8)[1]), anchor="right")
    s.tell("drill_name", (left, y + 3 * s.size), "by name", "right")
    s.put("pilot", (right, s.p(0, -h)[1]), "broach's pilot", "left")


def gauge_stack(s: Sketch) -> None:
    chosen = s.results.get("pieces") or []
    total = sum(chosen)
    s.frame(-total * 0.5, 0, total * 0.5, total, (10, 2.6))
    wide = total * 0.26
    y, last = 0.0, s.board.height
    for piece in sorted(chosen, reverse=True):
        s.box(-wide, y, wide, y + piece, hatch=False)
        at = s.p(0, y + piece / 2)
        text = figure(piece, LENGTH, s.inch)
        if s.length(piece) > 1.4 * s.size:
            s.board.text(at, text, s.size, "text")
        else:
            last = min(at[1], last - 1.3 * s.size)  # thin ones stand close
            s.board.text(
                (s.p(wide, 0)[0] + 0.6 * s.size, last),
                text,
                0.9 * s.size,
                "text",
                "left",
            )
        y += piece
    s.line((-wide * 1.6, 0), (wide * 1.6, 0))
    s.across("total", (-wide, 0), (-wide, total), -3.2, "sum")
    right = s.board.width * 0.88
    s.ask("target", (right, s.floor * 0.3))
    s.ask("pieces", (right, s.floor * 0.3 + 3.8 * s.size), "pieces there are")
    s.tell("error", (right, s.floor * 0.3 + 7.6 * s.size), "off by")


def _rose(s: Sketch, limit: float) -> None:
    readings = s.values.get("readings") or ()
    found = resolve(readings, s.values.get("angles"))
    inner = rose_drawing(
        readings, found, limit, s.board.width, s.floor, s.size, s.inch, 0.6
    )
    s.board.items.extend(inner.items)


def centring(s: Sketch) -> None:
    _rose(s, 0.0)
    x = s.board.width * 0.87
    y = s.floor * 0.2
    for i, move in enumerate(s.results.get("moves") or []):
        at = y + i * 5.4 * s.size
        s.board.text(
            (x, at),
            f"push {move['from']:g}° to {move['towards']:g}°",
            s.size,
            "cut",
            bold=True,
            backed=True,
        )
        s.board.text(
            (x, at + 1.4 * s.size),
            small_text(move["move"], s.inch),
            1.2 * s.size,
            "measured",
            bold=True,
            backed=True,
        )
        s.note(
            f"indicator {small_text(move['indicator'], s.inch)}", (x, at + 2.8 * s.size)
        )
    s.tell("residual", (x, s.floor * 0.86), "what remains")
    left = s.board.width * 0.12
    s.tell("offset", (left, s.floor * 0.2))
    s.tell("direction", (left, s.floor * 0.2 + 3 * s.size), "high side at")
    s.tell("tir", (left, s.floor * 0.2 + 6 * s.size), "run-out")
    s.tell("high_spot", (left, s.floor * 0.2 + 9 * s.size), "single spot at")
    s.ask("readings", (left, s.floor * 0.8))


def runout(s: Sketch) -> None:
    _rose(s, 0.0)
    x = s.board.width * 0.88
    for i, (key, name) in enumerate(
        (
            ("tir", "run-out"),
            ("eccentricity", "offset"),
            ("ovality", "out of round"),
            ("noise", "residual"),
        )
    ):
        if key != "ovality" or len(s.values["readings"]) >= OVAL:
            s.tell(key, (x, s.floor * 0.2 + i * 3.2 * s.size), name)
    left = s.board.width * 0.12
    s.tell("phase", (left, s.floor * 0.2), "high side at")
    s.ask("readings", (left, s.floor * 0.8))


def runout_stack(s: Sketch) -> None:
    elements = s.values.get("elements") or ()
    clocked = {
        i: turned["angle"]
        for i, turned in enumerate(s.results.get("best_clocking") or [])
    }
    worst = s.r("worst") or 1.0
    s.frame(-worst, -worst, worst, worst, (10, 2.2))
    named = -math.inf
    for key, name in (
        ("worst", "worst"),
        ("percentile_95", "19 of 20"),
        ("mean", "mean"),
    ):
        share = s.r(key)
        s.circle(0, 0, share, "thin" if key == "worst" else "centre", width=1.0)
        x, y = s.p(0, share)
        if y - named > 1.5 * s.size:  # circles all but alike have one name
            s.note(name, (x, y - 0.7 * s.size))
            named = y
    s.cross(0, 0, worst * 0.1)
    x = y = carried = 0.0  # a piece turns with the one it sits on
    for i, element in enumerate(elements):
        size = (
            float(element.get("eccentricity") or 0)
            if isinstance(element.get("eccentricity"), int | float)
            else 0.0
        )
        phase = (
            float(element.get("phase") or 0)
            if isinstance(element.get("phase"), int | float)
            else 0
        )
        if element.get("phase") is None:  # free to turn: its direction itself
            angle = math.radians(clocked.get(i, 0.0))
        else:
            carried += clocked.get(i, 0.0)
            angle = math.radians(phase + carried)
        nx, ny = x + size * math.cos(angle), y + size * math.sin(angle)
        s.line((x, y), (nx, ny), "measured", 2.6)
        s.board.arrow(s.p(nx, ny), s.p(x, y), "measured")
        at, height = s.p((x + nx) / 2, (y + ny) / 2)
        aside = s.size if i % 2 else -s.size
        name = str(element.get("name") or i + 1)
        s.note(name, (at + aside, height), "left" if i % 2 else "right")
        x, y = nx, ny
    s.line((0, 0), (x, y), "proved", 3.0)
    right, left = s.board.width * 0.88, s.board.width * 0.12
    for i, (key, name) in enumerate(
        (
            ("best_tir", "best clocked, on the indicator"),
            ("mean_tir", "mean, on the indicator"),
            ("percentile_95_tir", "19 of 20, on the indicator"),
            ("worst_tir", "worst, on the indicator"),
        )
    ):
        s.tell(key, (right, s.floor * 0.2 + i * 3.2 * s.size), name)
    s.ask("elements", (left, s.floor * 0.5), "pieces")


def runout_apart(s: Sketch) -> None:
    """The offsets one after the other, as they add up to what the needle shows."""
    parts = ("seat", "collet", "tool")
    sizes = [(name, s.r(name), math.radians(s.r(f"{name}_at"))) for name in parts]
    ends = [(0.0, 0.0)]
    for _, size, at in sizes:
        x, y = ends[-1]
        ends.append((x + size * math.cos(at), y + size * math.sin(at)))
    most = max([1e-6, *(math.hypot(x, y) for x, y in ends)]) * 1.15
    s.frame(-most, -most, most, most, (12, 2.2))
    s.circle(0, 0, math.hypot(*ends[-1]), "centre", width=1.0)
    s.cross(0, 0, most * 0.1)
    for (name, size, _), begin, end in zip(sizes, ends, ends[1:], strict=False):
        if size < most * 0.02:
            continue
        s.line(begin, end, "measured", 2.6)
        s.board.arrow(s.p(*end), s.p(*begin), "measured")
        s.note(name, s.p((begin[0] + end[0]) / 2, (begin[1] + end[1]) / 2))
    s.line((0, 0), ends[-1], "proved", 3.0)
    left, right = s.board.width * 0.12, s.board.width * 0.88
    for i, (key, name) in enumerate(
        (
            ("first", "as it is"),
            ("collet_turned", "collet turned"),
            ("tool_turned", "tool turned"),
        )
    ):
        y = s.floor * 0.15 + i * 6.4 * s.size
        s.ask(key, (left, y), name)
        s.ask(f"{key}_at", (left, y + 3.0 * s.size), "high at")
    for i, name in enumerate(parts):
        y = s.floor * 0.15 + i * 6.4 * s.size
        s.tell(name, (right, y), name)
        s.tell(f"{name}_at", (right, y + 3.0 * s.size), "high at")


def shortfall(s: Sketch) -> None:
    """The shaft and its part, as it stands and as it shall, the putty between."""
    radius, shaft = s.v("radius"), s.v("shaft") / 2
    angle = math.radians(s.r("angle"))
    far = radius * 1.25
    # turned more than it is, so that the eye sees which way
    seen = math.copysign(max(abs(angle), math.radians(8)), angle or 1.0)
    s.frame(-shaft * 1.6, -shaft * 1.8, far, far * math.sin(abs(seen)) + shaft, (8, 3))
    s.circle(0, 0, shaft, "outline", "panel")
    s.cross(0, 0, shaft * 1.3)
    s.line((shaft, 0), (far, 0), "outline", 2.4)
    s.line(
        (shaft * math.cos(seen), shaft * math.sin(seen)),
        (far * math.cos(seen), far * math.sin(seen)),
        "cut",
        2.4,
    )
    s.line((radius, 0), (radius * math.cos(seen), radius * math.sin(seen)), "measured")
    s.ask("radius", s.p(radius / 2, -shaft * 0.9), "to here")
    s.ask("squashed", s.p(radius, -shaft * 0.9), "squashed")
    s.ask("shaft", s.p(0, -shaft * 1.7), "shaft")
    s.tell("angle", s.p(far * 0.6, far * 0.6 * math.sin(seen) + shaft * 0.9), "turn by")
    s.tell("short", s.p(far, far * math.sin(seen) + shaft * 0.9), "short")
    s.tell("shift", s.p(0, shaft * 1.9), "pin's hole moves")


def detent(s: Sketch) -> None:
    ball, depth, land = s.v("ball"), s.r("depth"), s.r("land_diameter")
    r = ball / 2
    s.frame(-r * 1.6, -depth * 1.3 - r * 0.4, r * 1.6, ball - depth, (9, 2.8))
    half = math.degrees(math.asin(min(land / ball, 1.0)))
    s.shape(
        [(-r * 1.6, 0), (-land / 2, 0)]
        + [
            (r * math.sin(math.radians(a)), r - depth - r * math.cos(math.radians(a)))
            for a in [(-half + 2 * half * i / 16) for i in range(17)]
        ]
        + [
            (land / 2, 0),
            (r * 1.6, 0),
            (r * 1.6, -depth - r * 0.5),
            (-r * 1.6, -depth - r * 0.5),
        ],
        hatch=True,
    )
    s.circle(0, r - depth, r, "outline", "panel")
    s.cross(0, r - depth, r * 0.3)
    s.ask("ball", s.p(0, r - depth))
    s.across(
        "land_diameter",
        (-land / 2, -depth - r * 0.5),
        (land / 2, -depth - r * 0.5),
        -1.4,
        "rim",
    )
    right = s.p(r * 1.6, 0)[0] + s.size
    s.put("depth", (right, s.p(0, -depth / 2)[1]), anchor="left")
    s.tell("rise", (right, s.p(0, r)[1]), "ball rises", "left")


PICTURES = {
    "dovetail": dovetail,
    "keyway": keyway,
    "square-hole": square_hole,
    "gauge-stack": gauge_stack,
    "centring": centring,
    "runout": runout,
    "runout-stack": runout_stack,
    "runout-apart": runout_apart,
    "detent": detent,
    "shortfall": shortfall,
}
