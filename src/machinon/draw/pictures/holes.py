"""Pictures of patterns: bolt circles, pins, dividing, polygons, chamfers, edges."""

import math

from machinon.core.quantity import length_text
from machinon.core.setting_out.bolt_circle import hole_points
from machinon.draw.drawing import Anchor
from machinon.draw.lettering import text_width
from machinon.draw.sketch import Sketch


def _ring(
    s: Sketch,
    holes: int,
    diameter: float,
    hole: float,
    points: list[list[float]] | None = None,
) -> list[tuple[float, float]]:
    """The circle with its holes; returns their centres."""
    r = diameter / 2
    s.frame(-r - hole, -r - hole, r + hole, r + hole, (9, 2.6))
    s.circle(0, 0, r, "centre", width=1.0)
    s.cross(0, 0, r * 1.12)
    places = (
        [(p[0], p[1]) for p in points]
        if points
        else list(hole_points(holes, diameter, 90.0))
    )
    for x, y in places:
        s.circle(x, y, hole / 2, "outline", "panel")
    return places


def bolt_circle(s: Sketch) -> None:
    x0, y0 = s.v("x"), s.v("y")
    points = [[p[0] - x0, p[1] - y0] for p in s.results.get("points", [])]
    d = s.v("diameter")
    places = _ring(s, len(points), d, d * min(0.12, 1.2 / max(len(points), 1)), points)
    s.board.arrow(s.p(d * 0.56, 0), s.p(0, 0), "measured")
    s.board.arrow(s.p(0, d * 0.56), s.p(0, 0), "measured")
    s.note("x", (s.p(d * 0.6, 0)[0], s.p(0, 0)[1]))
    out = 1.0 + 3.2 * s.size / max(s.length(d / 2), 1)
    told = []
    for i, (x, y) in enumerate(places[:16]):
        anchor: Anchor = "centre"
        if abs(x) > d * 0.1:
            anchor = "left" if x > 0 else "right"
        figures = [
            length_text(at, 0.001, s.inch, unit=False) for at in (x + x0, y + y0)
        ]
        told.append((s.p(x * out, y * out), f"{i + 1}: {', '.join(figures)}", anchor))
    small = 0.85 * s.size
    # where they would be cut, their numbers: the list beside has the places
    wide = max((text_width(text, small) for _, text, _ in told), default=0.0)
    room = min(min(at[0], s.board.width - at[0]) for at, *_ in told) if told else 0.0
    for at, text, anchor in told:
        said = text if wide < room else text.partition(":")[0]
        s.board.text(at, said, small, "measured", anchor, backed=True)
    s.ask("diameter", s.p(0, 0), "on ⌀")
    s.ask("holes", (s.p(0, 0)[0], s.p(0, 0)[1] - 3.6 * s.size))
    s.tell("chord", (s.p(0, 0)[0], s.p(0, 0)[1] + 3.4 * s.size))


def hole_span(s: Sketch) -> None:
    count, d = int(s.v("holes")), s.r("diameter")
    hole = s.v("hole") or 0.06 * d  # read centre to centre, it may be any
    places = _ring(s, count, d, hole)
    (ax, ay), (bx, by) = places[0], places[1]
    away = math.hypot(bx - ax, by - ay)
    ux, uy = (bx - ax) / away * hole / 2, (by - ay) / away * hole / 2
    s.line((ax - ux, ay - uy), (bx + ux, by + uy), "measured", 2.6)
    middle = s.p((ax + bx) / 2, (ay + by) / 2)
    s.ask("span", middle)
    s.ask(
        "hole",
        (s.p(places[0][0], 0)[0] + 5 * s.size, s.p(0, places[0][1])[1]),
        "hole or screw",
    )
    s.tell("diameter", s.p(0, -d * 0.12), "bolt circle")
    s.ask("holes", s.p(-d * 0.3, d * 0.2))


def chord_check(s: Sketch) -> None:
    count, d, pin = int(s.v("holes")), s.v("diameter"), s.v("pin")
    shown = pin or d * 0.08
    places = _ring(s, count, d, shown)
    (ax, ay), (bx, by) = places[0], places[1]
    s.line((ax, ay), (bx, by), "measured", 2.2)
    far = places[count // 2]
    s.line((ax, ay), far, "measured", 1.2)
    right = s.p(d * 0.62, 0)[0]
    s.tell("over_pins", (right, s.p(0, d * 0.4)[1]), "over neighbours", "left")
    s.tell(
        "inside_pins", (right, s.p(0, d * 0.4)[1] + 3 * s.size), "between them", "left"
    )
    left = s.p(-d * 0.62, 0)[0]
    s.tell("over_pins_opposite", (left, s.p(0, d * 0.4)[1]), "over opposite", "right")
    s.tell(
        "inside_pins_opposite",
        (left, s.p(0, d * 0.4)[1] + 3 * s.size),
        "between them",
        "right",
    )
    s.ask("diameter", (s.p(0, 0)[0] - 4 * s.size, s.p(0, 0)[1]), "on ⌀")
    s.ask("pin", (right, s.p(0, -d * 0.3)[1]), anchor="left")
    s.ask("holes", (left, s.p(0, -d * 0.3)[1]), anchor="right")


def index_ring(s: Sketch) -> None:
    count, d, hole = int(s.v("holes")), s.v("diameter"), s.v("hole_diameter")
    _ring(s, min(count, 360), d, hole)
    x, y = s.p(0, 0)
    s.tell("land", (x, y - 2.6 * s.size), "land between holes")
    s.ask("diameter", (x, y + s.size), "on ⌀")
    s.ask("holes", (s.p(-d * 0.62, 0)[0], y), anchor="right")
    s.ask("hole_diameter", (s.p(d * 0.62, 0)[0], y), "hole", "left")
    s.tell("fits", (x, y + 4.6 * s.size), "stay apart")


def dividing(s: Sketch) -> None:
    settings = s.results.get("settings") or []
    if not settings:
        return
    best = settings[0]
    circle = best["circle"]
    s.frame(-1.1, -1.1, 1.1, 1.1, (9, 2.6))
    s.circle(0, 0, 1.1, "outline", "panel")
    for i in range(circle):
        a = math.radians(90 - 360 * i / circle)
        lit = i in (0, best["holes"])
        s.circle(
            0.9 * math.cos(a),
            0.9 * math.sin(a),
            0.035,
            "cut" if lit else "thin",
            "cut" if lit else "ground",
        )
    for i in (0, best["holes"]):
        a = math.radians(90 - 360 * i / circle)
        s.line((0, 0), (0.84 * math.cos(a), 0.84 * math.sin(a)), "cut", 2.4)
    x, y = s.p(0, 0)
    s.board.text(
        (x, y - 2 * s.size),
        f"{best['turns']} turns",
        1.3 * s.size,
        "measured",
        bold=True,
        backed=True,
    )
    s.board.text(
        (x, y + 2.2 * s.size),
        f"+ {best['holes']} holes of {circle}",
        1.3 * s.size,
        "measured",
        bold=True,
        backed=True,
    )
    error = best["error"] * 3600
    s.note(
        "exact" if error == 0 else f"{error:+.1f}″ off each step", (x, y + 4.4 * s.size)
    )
    left, right = s.p(-1.2, 0)[0], s.p(1.2, 0)[0]
    s.ask("angle" if s.values.get("angle") else "divisions", (left, y), anchor="right")
    s.ask("worm", (right, y - 3 * s.size), "worm, to 1", "left")
    s.ask("plates", (right, y + 2 * s.size), "circles there are", "left")
    s.tell("angle_step", (left, y + 4 * s.size), "each step", "right")


def polygon(s: Sketch) -> None:
    sides = int(s.v("sides", 6))
    corners = s.r("across_corners")
    r = corners / 2
    bar = s.v("round", corners) / 2
    reach = max(r, bar)
    s.frame(-reach, -reach, reach, reach, (10, 4))
    s.circle(0, 0, bar, "outline", "panel")
    turn = math.pi / sides - math.pi / 2
    s.shape(
        [
            (
                r * math.cos(2 * math.pi * i / sides + turn),
                r * math.sin(2 * math.pi * i / sides + turn),
            )
            for i in range(sides)
        ],
        hatch=True,
    )
    s.cross(0, 0, reach * 1.1)
    inside = r * math.cos(math.pi / sides)
    if sides % 2 == 0:
        s.across("across_flats", (reach, -inside), (reach, inside), 3.6)
    else:
        s.put("across_flats", (s.p(reach, 0)[0] + 5 * s.size, s.p(0, 0)[1]))
    s.tell("across_corners", (s.p(-reach, 0)[0] - s.size, s.p(0, 0)[1]), anchor="right")
    s.tell(
        "depth_per_flat",
        (s.p(0, 0)[0], s.p(0, reach)[1] - 1.2 * s.size),
        "depth of each",
    )
    s.ask("round", (s.p(-reach, 0)[0] - s.size, s.p(0, reach * 0.8)[1]), "bar", "right")
    s.ask("sides", s.p(0, 0))


def countersink(s: Sketch) -> None:
    wide, deep, hole = s.r("diameter"), s.r("depth"), s.v("hole")
    reach, low = 0.9 * wide, 1.35 * max(deep, 0.3 * wide)
    s.frame(-reach, -low, reach, 0.35 * wide, (8, 4))
    foot = deep * (1 - hole / wide)
    half = [(reach, 0), (wide / 2, 0), (hole / 2, -foot)]
    if hole:
        for side in (-1, 1):
            sides = [*half, (hole / 2, -low), (reach, -low)]
            s.shape([(side * x, y) for x, y in sides], hatch=True)
    else:
        left = [(-x, y) for x, y in reversed(half)]
        s.shape([*half, *left[1:], (-reach, -low), (reach, -low)], hatch=True)
    s.line((0, -low), (0, 0.2 * wide), "centre", 1.0)
    for side in (-1, 1):
        s.line((side * wide / 2, 0), (0, -deep), "cut", 2.4)
    s.across("diameter", (-wide / 2, 0), (wide / 2, 0), 2.4, "mouth")
    s.across("depth", (reach, 0), (reach, -deep), 3.2, "to its point")
    left_side = s.p(-reach, 0)[0] - s.size
    s.ask("angle", (left_side, s.p(0, -0.3 * deep)[1]), "included", "right")
    s.ask("hole", (left_side, s.p(0, -deep)[1]), "hole", "right")
    s.tell("from_touch", (left_side, s.p(0, -low)[1]), "from the touch", "right")


def chamfer(s: Sketch) -> None:
    leg, depth = s.r("leg"), s.r("depth")
    reach = 2.4 * max(leg, depth)
    s.frame(-reach, -reach, leg, depth * 0.3, (8, 4))
    s.shape(
        [(-reach, 0), (-leg, 0), (0, -depth), (0, -reach), (-reach, -reach)], hatch=True
    )
    s.line((-leg, 0), (0, 0), "hidden", 1.0)
    s.line((0, 0), (0, -depth), "hidden", 1.0)
    s.line((-leg, 0), (0, -depth), "cut", 3.0)
    s.across("leg", (-leg, 0), (0, 0), 2.4)
    s.across("depth", (0, 0), (0, -depth), 3.4)
    # from the corner square to the slant
    foot = s.r("normal_depth") / math.hypot(leg, depth)
    square = (-foot * depth, -foot * leg)
    s.line((0, 0), square, "dimension", 1.2)
    s.board.arrow(s.p(0, 0), s.p(*square))
    s.board.arrow(s.p(*square), s.p(0, 0))
    at = s.p(square[0] / 2, square[1] / 2)
    s.tell(
        "normal_depth", (at[0] + 6 * s.size, s.p(0, 0)[1] - 4 * s.size), "square to it"
    )
    at = s.p(-leg / 2, -depth / 2)
    s.put("face", (at[0] - 5 * s.size, at[1] + 3 * s.size))
    s.ask("angle", (s.p(-reach, 0)[0] + 5 * s.size, s.p(0, -reach)[1] - 2 * s.size))


def edge_find(s: Sketch) -> None:
    tip = s.v("tip_diameter") or 6.0
    offset = s.v("offset")
    way = -1 if s.values.get("direction") == "-" else 1
    reach = max(abs(offset), tip) * 1.15
    s.frame(-tip * 1.4, -tip * 1.2, reach, tip * 1.4, (8, 4))
    mirror = way

    def at(x: float, y: float) -> tuple[float, float]:
        middle = (reach - tip * 1.4) / 2
        return (middle + mirror * (x - middle), y)

    s.shape([at(0, 0), at(reach, 0), at(reach, -tip), at(0, -tip)], hatch=True)
    cx, cy = at(-tip / 2, -tip * 0.2)
    s.circle(cx, cy, tip / 2, "measured", "ground")
    s.shape(
        [
            at(-tip * 0.75, tip * 0.3),
            at(-tip * 0.25, tip * 0.3),
            at(-tip * 0.25, tip * 1.3),
            at(-tip * 0.75, tip * 1.3),
        ]
    )
    fx, _ = at(offset, 0)
    s.line((fx, -tip * 1.1), (fx, tip * 0.8), "centre", 1.2)
    s.across("offset", at(0, 0), at(offset, 0), 2.6)
    x, y = s.p(cx, cy)
    s.ask("tip_diameter", (x, y), "tip")
    s.ask(
        "edge_reading",
        (x, s.p(0, tip * 1.3)[1] - 1.6 * s.size),
        "reads when it touches",
    )
    s.tell("position", (s.p(fx, 0)[0], s.p(0, tip * 0.9)[1] - 2 * s.size), "dial to")


def hole_pattern(s: Sketch) -> None:
    points = [(float(x), float(y)) for x, y in s.results["points"]]
    cx, cy = (float(result) for result in s.results["centre"])
    r, hole = s.r("diameter") / 2, s.v("hole") / 2
    s.frame(cx - r * 1.25, cy - r * 1.25, cx + r * 1.25, cy + r * 1.25, (9, 1.6))
    s.circle(cx, cy, r, "centre", width=1.0)
    s.cross(cx, cy, 0.12 * r)
    for i, (x, y) in enumerate(points):
        s.line((x, y), points[(i + 1) % 3], "thin", 1.2)
    for i, (x, y) in enumerate(points):
        s.circle(x, y, hole, "outline", "ground")
        s.board.text(s.p(x, y), str(i + 1), 0.9 * s.size)
    for i, key in enumerate(("span_12", "span_23", "span_31")):
        (ax, ay), (bx, by) = points[i], points[(i + 1) % 3]
        s.ask(key, s.p((ax + bx) / 2, (ay + by) / 2), key.replace("_", " "))
    s.tell("diameter", (s.board.width * 0.86, 3 * s.size), "circle through them")


def pipe_joint(s: Sketch) -> None:
    """The template laid flat, the pipe on its round beside it."""
    around, deep = s.r("around", 80.0), s.r("deepest", 15.0)
    pipe, on, angle = s.v("pipe", 25), s.v("on", 42), math.radians(s.v("angle", 90))
    low = -2.2 * on - deep
    s.frame(-0.1 * around, low - 0.2 * on, 1.1 * around, 1.6 * deep, (7, 3))
    rows = s.results.get("points") or []
    curve = [(float(row["along"]), float(row["up"])) for row in rows]
    if curve:
        s.shape([(0.0, -0.4 * deep), *curve, (around, -0.4 * deep)], role="cut")
    s.across("around", (0, -0.4 * deep), (around, -0.4 * deep), -1.6)
    s.across("deepest", (around, 0), (around, deep), 2.4)
    x, y, r = around / 2, low + on / 2, pipe / 2
    s.box(0.1 * around, y - on / 2, 0.9 * around, y + on / 2)
    out, aside = (math.cos(angle), math.sin(angle)), (math.sin(angle), -math.cos(angle))
    top = 1.2 * on
    ends = []
    for side in (1, -1):
        t = (on / 2 + side * r * math.cos(angle)) / math.sin(angle)
        a = x + t * out[0] + side * r * aside[0], y + t * out[1] + side * r * aside[1]
        b = a[0] + (top - t) * out[0], a[1] + (top - t) * out[1]
        ends.append((a, b))
    s.shape([ends[0][0], ends[0][1], ends[1][1], ends[1][0]])
    s.line((x, y), (x + top * out[0], y + top * out[1]), "centre", 1.0)
    s.line((0.05 * around, y), (0.95 * around, y), "centre", 1.0)
    s.ask("pipe", s.p(*ends[0][1]), "pipe", "left")
    s.ask("on", (s.p(0.1 * around, 0)[0], s.p(0, y)[1]), "round", "right")
    s.ask("angle", s.p(x + 0.25 * around, y), "between the axes")


def arc_points(s: Sketch) -> None:
    """The arc, the cutter at every place, and from where they are counted."""
    radius, cutter = s.v("radius", 20), s.v("cutter", 10)
    first, last = math.radians(s.v("first", 0)), math.radians(s.v("last", 180))
    path = s.r("path", radius + cutter / 2)
    wide = max(path + cutter / 2, radius)
    s.frame(-wide, -wide, wide, wide, (6, 3))
    turns = [first + (last - first) * i / 60 for i in range(61)]
    s.shape(
        [(radius * math.cos(t), radius * math.sin(t)) for t in turns],
        closed=False,
    )
    s.cross(0, 0, 0.25 * radius)
    for point in s.results.get("points") or []:
        s.circle(float(point["x"]), float(point["y"]), cutter / 2, "cut", width=0.9)
    x, y = s.p(0, -0.25 * radius)  # under the cross
    s.ask("radius", (x, y + 2.3 * s.size))
    s.ask("cutter", (x, y + 5.4 * s.size))
    s.tell("count", (x, y + 8.3 * s.size))
    for key, turn in (("first", first), ("last", last)):
        at = s.p(1.15 * wide * math.cos(turn), 1.15 * wide * math.sin(turn))
        s.ask(key, at)


def hole_row(s: Sketch) -> None:
    """The row on its bar, from where it is counted."""
    places = [float(place) for place in s.results.get("positions") or [0.0, 1.0]]
    start, edge = s.v("start"), s.v("edge")
    pitch = s.r("pitch", 1.0)
    end = start + s.v("length", places[-1] + max(edge, 0.7 * pitch) - start)
    wide = end - start
    r = min(0.22 * pitch, 0.06 * wide)
    high = 0.22 * wide
    s.frame(start, -high, end, high)
    s.box(start, -high / 2, end, high / 2)
    s.line((start, 0), (end, 0), "centre", 1.0)
    for place in places[:80]:
        s.circle(place, 0, r, "cut", "ground")
    s.across("pitch", (places[0], 0), (places[1], 0), -3.4)
    s.across("length", (start, high / 2), (end, high / 2), 3.4)
    x, y = s.p(places[0], -high / 2)
    s.tell("first", (x, y + 4.4 * s.size), "the first at")
    s.tell("last", (s.p(places[-1], 0)[0], y + 4.4 * s.size), "the last at")


def gear(s: Sketch) -> None:
    """The gear with plain teeth, its pitch circle, and the mate's where it has one."""
    teeth = int(s.v("teeth", 30))
    outside, root = s.r("outside_diameter", 64.0) / 2, s.r("root_diameter", 55.0) / 2
    pitch = s.r("pitch_diameter", 60.0) / 2
    s.frame(-outside * 1.2, -outside * 1.05, outside * 1.2, outside * 1.05, (12, 3))
    outline = []
    for n in range(teeth):
        for part, r in ((-0.3, root), (-0.14, outside), (0.14, outside), (0.3, root)):
            turn = math.tau * (n + part) / teeth
            outline.append((r * math.sin(turn), r * math.cos(turn)))
    s.shape(outline)
    s.circle(0, 0, pitch, "centre", width=1.0)
    s.cross(0, 0, 0.2 * outside)
    x, y = s.p(0, 0)
    s.ask("teeth", (x, y - 3.0 * s.size))
    s.ask("module" if s.values.get("dp") is None else "dp", (x, y + 3.0 * s.size))
    left, right = s.p(-outside * 1.1, 0)[0], s.p(outside * 1.1, 0)[0]
    for keys, at, anchor in (
        (("outside_diameter", "pitch_diameter", "root_diameter"), left, "right"),
        (("depth", "span", "centres"), right, "left"),
    ):
        for n, key in enumerate(keys):
            s.tell(key, (at, y + 4.4 * (n - 1) * s.size), "", anchor)  # type: ignore[arg-type]


PICTURES = {
    "gear": gear,
    "hole-row": hole_row,
    "arc-points": arc_points,
    "pipe-joint": pipe_joint,
    "hole-pattern": hole_pattern,
    "bolt-circle": bolt_circle,
    "hole-span": hole_span,
    "chord-check": chord_check,
    "index-ring": index_ring,
    "dividing": dividing,
    "polygon": polygon,
    "countersink": countersink,
    "chamfer": chamfer,
    "edge-find": edge_find,
}
