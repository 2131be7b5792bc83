"""Pictures of the shop's small sums: sides, flats, strips, chains, rings, keys."""

import math

from machinon.core.quantity import LENGTH, length_text
from machinon.draw.drawing import Role
from machinon.draw.sketch import Sketch, figure


def half_way(s: Sketch) -> None:
    a, b, tip = s.v("edge_a"), s.v("edge_b"), s.v("tip") or 1.0
    low, high = min(a, b), max(a, b)
    wide = high - low
    tall = wide * 0.35
    s.frame(low - tip, -tall, high + tip, tall, (8, 4))
    s.box(low + tip / 2, -tall, high - tip / 2, tall * 0.5, hatch=True)
    for at in (low, high):
        s.circle(at, tall * 0.2, tip / 2, "measured", "ground")
    middle = s.r("centre")
    s.line((middle, -tall * 1.1), (middle, tall), "centre", 1.4)
    s.across("width", (low + tip / 2, -tall), (high - tip / 2, -tall), -1.6)
    top = s.p(0, tall)[1]
    s.ask("edge_a", (s.p(a, 0)[0], top), "first edge reads")
    s.ask("edge_b", (s.p(b, 0)[0], top), "second edge reads")
    s.tell("centre", (s.p(middle, 0)[0], s.p(0, tall * 0.75)[1] - s.size), "middle")
    s.tell("zero", (s.p(high, 0)[0], s.p(0, -tall)[1] + 3 * s.size), "preset there")


def side_offset(s: Sketch) -> None:
    wide, cutter, middle = s.v("distance"), s.v("cutter"), s.v("centre")
    off = (wide + cutter) / 2
    reach = off + cutter
    s.frame(-reach, -reach * 0.4, reach, reach * 0.4, (8, 4))
    s.box(-wide / 2, -reach * 0.3, wide / 2, reach * 0.3, hatch=True)
    for way in (-1, 1):
        s.circle(way * off, 0, cutter / 2, "cut", "ground")
        s.cross(way * off, 0, cutter * 0.6)
    s.line((0, -reach * 0.4), (0, reach * 0.4), "centre", 1.0)
    s.across("distance", (-wide / 2, reach * 0.3), (wide / 2, reach * 0.3), 1.6)
    y = s.p(0, -reach * 0.3)[1] + 2.6 * s.size
    s.tell("plus", (s.p(off, 0)[0], y), "axis to")
    s.tell("minus", (s.p(-off, 0)[0], y), "axis to")
    s.ask("cutter", (s.p(off, 0)[0], s.p(0, reach * 0.3)[1]), "cutter")
    at = f" at {length_text(middle, 0.01, s.inch)}" if middle else ""
    s.ask("centre", (s.p(0, 0)[0], y), f"middle{at}")


def saw_slot(s: Sketch) -> None:
    depth, wide, saw = s.v("depth"), s.v("width"), s.v("saw")
    deep = wide * 1.2
    whole = depth + wide * 2
    s.frame(-deep * 0.4, -whole, deep * 1.8, wide * 0.4, (9, 4))
    s.box(0, -whole, deep * 1.6, 0, hatch=True)
    s.box(0, -(depth + wide), deep, -depth, fill="ground", role="cut")
    for i, at in enumerate(s.results.get("positions") or []):
        role: Role = "measured" if i % 2 else "thin"
        s.box(-deep * 0.3, -(at + saw), deep, -at, fill="none", role=role)
    s.across("depth", (deep * 1.6, 0), (deep * 1.6, -depth), 3.0)
    s.across("width", (deep, -depth), (deep, -(depth + wide)), 1.6)
    left = s.p(-deep * 0.3, 0)[0] - s.size
    s.ask("saw", (left, s.p(0, -depth)[1]), anchor="right")
    s.tell("passes", (left, s.p(0, -whole)[1] - 2 * s.size), "passes", "right")
    s.tell("overlap", (left, s.p(0, -depth - wide)[1] + s.size), "overlap", "right")


def break_out(s: Sketch) -> None:
    bore, off, half = s.v("bore"), s.v("offset"), s.v("half_width")
    tall = max(bore, half) * 0.8
    s.frame(-half * 1.1, -tall, max(half, off + bore / 2) * 1.1, tall, (8, 4))
    s.box(-half, -tall, half, tall, hatch=True)
    s.circle(off, 0, bore / 2, "cut", "ground", 2.0)
    s.line((0, -tall), (0, tall), "centre", 1.0)
    s.cross(off, 0, bore * 0.6)
    s.across("offset", (0, -tall), (off, -tall), -1.4, "off the middle")
    s.across("half_width", (0, tall), (half, tall), 1.4, "middle to edge")
    s.ask("bore", s.p(off, 0))
    right = s.p(half, 0)[0] + s.size
    s.tell("wall", (right, s.p(0, tall * 0.4)[1]), "wall", "left")
    s.tell("opening", (right, s.p(0, -tall * 0.3)[1]), "window", "left")


def flat(s: Sketch) -> None:
    d, depth = s.v("diameter"), s.r("depth")
    r = d / 2
    half = s.r("width") / 2
    s.frame(-r, -r, r, r, (9, 3))
    start = math.degrees(math.atan2(r - depth, half))
    points = [
        (r * math.cos(math.radians(a)), r * math.sin(math.radians(a)))
        for a in [180 - start + (180 + 2 * start) * i / 48 for i in range(49)]
    ]
    s.shape(points, hatch=True)
    s.arc(0, 0, r, start, 180 - start, "hidden", 1.0)
    s.line((-half, r - depth), (half, r - depth), "cut", 2.6)
    s.across("width", (-half, r - depth), (half, r - depth), 3.2)
    s.across("across", (r, r - depth), (r, -r), 2.0)
    s.ask("diameter", s.p(0, -r * 0.3), "⌀")
    s.put("depth", (s.p(-r, 0)[0] - 2 * s.size, s.p(0, r * 0.9)[1]), "deep", "right")


def elongation(s: Sketch) -> None:
    thick, hole, long = s.v("thickness"), s.v("hole"), s.r("elongation")
    half = math.radians(s.v("opening_angle")) / 2
    wide = hole * 2.2 + long
    s.frame(-wide, -thick * 0.8, wide, thick * 1.3, (8, 3))
    s.shape(
        [(-wide, 0), (-hole / 2, 0), (-hole / 2, thick), (-wide, thick)], hatch=True
    )
    s.shape(
        [(hole / 2, 0), (wide, 0), (wide, thick), (hole / 2 + long, thick)], hatch=True
    )
    screw = s.v("screw") / 2
    run = math.tan(half)
    s.shape(
        [
            (-screw, -thick * 0.6),
            (screw, -thick * 0.6),
            (screw + run * thick * 1.8, thick * 1.2),
            (-screw + run * thick * 1.8, thick * 1.2),
        ],
        role="measured",
        fill="none",
    )
    s.across("width_at_face", (-hole / 2, thick), (hole / 2 + long, thick), 2.6)
    s.across("hole", (-hole / 2, 0), (hole / 2, 0), -2.6)
    s.across("thickness", (wide, 0), (wide, thick), 1.6)
    left = s.p(-wide, 0)[0] - s.size
    s.tell("elongation", (left, s.p(0, thick)[1]), "longer by", "right")
    s.tell("tilt", (left, s.p(0, thick * 0.3)[1]), "cutter tilted", "right")


def triangle(s: Sketch) -> None:
    side, rise = s.r("side"), s.r("rise")
    s.frame(0, 0, side, rise, (8, 4))
    s.shape([(0, 0), (side, 0), (side, rise)], hatch=True)
    s.across("side", (0, 0), (side, 0), -1.6)
    s.across("rise", (side, 0), (side, rise), 1.8)
    at = s.p(side / 2, rise / 2)
    s.put("slope", (at[0] - 4 * s.size, at[1] - 1.6 * s.size), "long side")
    corner = s.p(0, 0)
    s.put("angle", (corner[0] - s.size, corner[1] - 2 * s.size), "angle", "right")
    s.tell("other_angle", (s.p(side, 0)[0], s.p(0, rise)[1] - 1.6 * s.size), "angle")


def angle(s: Sketch) -> None:
    """A wedge of the angle; the steep ones are drawn by their height."""
    rise = s.r("tangent")
    wide, tall = (1.0, rise) if rise < 1 else (1 / rise, 1.0)
    s.frame(0, 0, 1.3, max(tall, 0.3), (8, 6))
    s.shape([(0, 0), (wide, 0), (wide, tall)], hatch=True)
    corner = s.p(0, 0)
    s.ask("angle", (corner[0] - s.size, corner[1] - 2 * s.size), "angle", "right")
    s.tell("minutes", (corner[0] - s.size, corner[1] + 2 * s.size), "is", "right")
    right = s.p(wide, 0)[0] + s.size
    middle = s.p(0, tall / 2)[1]
    over = f"over {length_text(100, 1, s.inch)}"
    s.tell("rise", (right, middle - 2 * s.size), over, "left")
    s.tell("one_in", (right, middle + 2 * s.size), "rises one in", "left")
    foot = s.p(0, 0)[1] + 2.6 * s.size
    for n, key in enumerate(("sine", "cosine", "tangent", "radians")):
        s.tell(key, (corner[0] + (4 + 9 * n) * s.size, foot + 3.4 * s.size), key)


def strip_length(s: Sketch) -> None:
    count, length = int(s.v("pieces")), s.v("length")
    strip, pitch, ends = s.r("strip"), s.r("pitch"), s.v("ends")
    tall = strip * 0.12
    s.frame(0, -tall, strip, tall, (4, 5))
    s.box(0, -tall, strip, tall, hatch=False)
    for i in range(min(count, 60)):
        left = ends + i * pitch
        s.box(left, -tall, left + length, tall, hatch=True)
    s.across("strip", (0, tall), (strip, tall), 3.6)
    s.across("length", (ends, -tall), (ends + length, -tall), -1.6)
    if count > 1:
        y = s.p(0, -tall)[1] + 4.4 * s.size
        s.tell("pitch", (s.p(ends + pitch, 0)[0], y), "piece to piece")
    s.ask("pieces", (s.p(strip / 2, 0)[0], s.p(0, 0)[1]), "pieces")


def pieces(s: Sketch) -> None:
    bar, each, kerf = s.v("bar"), s.r("each", s.v("length")), s.v("kerf")
    count, held = int(s.r("pieces")), s.v("held")
    tall = bar * 0.07
    s.frame(0, -tall, bar, tall, (4, 5))
    s.box(0, -tall, bar, tall, hatch=False)
    for i in range(min(count, 60)):
        s.box(i * each, -tall, (i + 1) * each - kerf, tall, hatch=True)
    if held:
        s.line((bar - held, -tall), (bar - held, tall), "thin", 1.0)
    s.across("bar", (0, tall), (bar, tall), 3.6)
    s.across("length", (0, -tall), (each - kerf, -tall), -1.6)
    s.tell("pieces", (s.p(bar / 2, 0)[0], s.p(0, 0)[1]))
    s.tell("left", (s.p(bar, 0)[0], s.p(0, -tall)[1] + 4.4 * s.size), "left", "right")


def drill_depth(s: Sketch) -> None:
    full, tip, thread = s.r("full_depth"), s.r("tip_depth"), s.v("thread_depth")
    r = max(s.v("drill") / 2, full * 0.12)
    wide = r * 3
    s.frame(-wide, -tip * 1.1, wide, tip * 0.1, (9, 3))
    s.box(-wide, -tip * 1.1, wide, 0, hatch=True)
    s.shape(
        [(-r, 0), (r, 0), (r, -full), (0, -tip), (-r, -full)], fill="ground", role="cut"
    )
    for side in (-1.18, 1.18):
        s.line((side * r, 0), (side * r, -thread), "measured", 2.4)
    s.across("thread_depth", (-wide, 0), (-wide, -thread), -2.2, "thread")
    s.across("full_depth", (wide, 0), (wide, -full), 1.8, "to the shoulder")
    s.across("tip_depth", (wide, 0), (wide, -tip), 7.0, "to the point")
    s.ask("thread", s.p(0, -thread * 0.4))


def screw_length(s: Sketch) -> None:
    grip, least = s.v("grip") + s.v("washer"), s.r("least")
    deep = max(s.v("thread_depth") or (least - grip) * 1.3, 1.0)
    r = least * 0.1
    wide = least * 0.45
    s.frame(-wide, -(grip + deep * 1.15), wide, r * 2.4, (9, 3))
    s.box(-wide, -grip, wide, 0, hatch=True)
    s.box(-wide, -(grip + deep * 1.15), wide, -grip, hatch=True)
    s.box(-r, -(grip + deep), r, 0, fill="ground", role="thin")
    s.box(-r * 1.8, 0, r * 1.8, r * 2, role="measured")
    s.box(-r, -least, r, 0, role="measured", fill="panel")
    s.across("grip", (-wide, 0), (-wide, -grip), -2.0, "under the head")
    s.across("least", (wide, 0), (wide, -least), 1.8, "at least")
    left = s.p(-wide, 0)[0] - s.size
    y = s.p(0, -(grip + deep * 0.5))[1]
    s.put("engagement", (left, y), "must hold", "right")
    s.tell("most", (s.p(wide, 0)[0] + 8 * s.size, y), "at most", "left")
    sold = s.results.get("stock") or []
    text = ", ".join(figure(size, LENGTH, s.inch) for size in sold)
    s.note(f"sold: {text or 'none'}", (s.board.width / 2, s.floor - 0.8 * s.size))


def length_chain(s: Sketch) -> None:
    links = s.values.get("links") or ()
    sizes = []
    for link in links:
        value = link.get("length")
        way = -1 if str(link.get("sign", "+")).strip() in ("-", "−") else 1
        sizes.append((str(link.get("name") or ""), way, value))
    lengths = [v for _, _, v in sizes if isinstance(v, int | float)]
    whole = max([*lengths, 1.0])
    row = whole * 0.1
    s.frame(0, -len(sizes) * row, whole * 1.2, 0.5 * row, (5, 4))
    x = 0.0
    for i, (name, way, value) in enumerate(sizes):
        long = float(value) if isinstance(value, int | float) else whole / 2
        ahead = x + way * long
        left, right = sorted((x, ahead))
        made = name == s.values.get("unknown")
        low, high = -(i + 0.9) * row, -(i + 0.1) * row
        s.box(left, low, right, high, role="cut" if made else "measured")
        s.note(name, s.p((left + right) / 2, (low + high) / 2))
        x = ahead
    right = s.board.width - 5 * s.size
    s.tell("total", (right, s.floor * 0.18), "gap")
    s.tell("worst_least", (right, s.floor * 0.18 + 3 * s.size), "at least")
    s.tell("worst_most", (right, s.floor * 0.18 + 6 * s.size), "at most")
    s.tell("lower", (right, s.floor * 0.18 + 9 * s.size), "link, shortest")
    s.tell("upper", (right, s.floor * 0.18 + 12 * s.size), "link, longest")


def straightness(s: Sketch) -> None:
    readings = s.values.get("readings") or ()
    count = len(readings)
    low, high = min(readings, default=0.0), max(readings, default=1.0)
    tall = max(high - low, 1e-6)
    wide = tall * 3
    s.frame(0, low - tall * 0.3, wide, high + tall * 0.3, (6, 4))
    points = [(wide * i / max(count - 1, 1), value) for i, value in enumerate(readings)]
    s.shape(points, role="measured", closed=False, width=2.0)
    mean = sum(readings) / max(count, 1)
    rise = s.r("slope") / 100 * s.v("spacing") * (count - 1)
    s.line((0, mean - rise / 2), (wide, mean + rise / 2), "cut", 2.0)
    top = s.floor * 0.12
    s.tell("slope", (s.board.width * 0.3, top), f"in {length_text(100, 1, s.inch)}")
    s.tell("bow", (s.board.width * 0.55, top), "bow")
    s.tell("shim", (s.board.width * 0.8, top), "shim")
    s.note("heights drawn enlarged", (s.board.width / 2, s.floor - 0.8 * s.size))


def squareness(s: Sketch) -> None:
    s.frame(-30, -10, 60, 110, (8, 3))
    s.shape([(-30, 0), (-8, 0), (-8, 110), (-30, 110)], hatch=True)
    s.shape([(0, 0), (50, 0), (50, 12), (12, 12), (20, 110), (8, 110)], role="measured")
    s.line((0, 0), (0, 110), "hidden", 1.0)
    s.tell("angle", s.p(40, 70), "out of square")
    s.tell("error", (s.p(40, 0)[0], s.p(0, 70)[1] + 3 * s.size), "over the length")


def broach_force(s: Sketch) -> None:
    size = s.v("size")
    long = s.v("length")
    wide = size * 2
    s.frame(-wide, 0, wide, long * 1.6, (9, 3))
    for side in (-1, 1):
        s.box(side * size / 2, 0, side * wide, long, hatch=True)
    teeth = max(int(s.r("teeth_in_cut")), 1)
    for i in range(min(teeth, 12)):
        y = long * (i + 0.5) / teeth
        s.line((-size / 2, y), (size / 2, y), "cut", 2.0)
    s.box(-size * 0.4, -0.0, size * 0.4, long * 1.5, fill="none", role="measured")
    s.board.arrow(s.p(0, long * 1.5), s.p(0, long * 1.62), "stop")
    s.across("length", (wide, 0), (wide, long), 1.8)
    s.ask("size", (s.p(0, 0)[0], s.p(0, 0)[1] + 2.2 * s.size))
    left = s.p(-wide, 0)[0] - s.size
    s.tell("force", (left, s.p(0, long)[1]), "force", "right")
    s.tell("press", (left, s.p(0, long)[1] + 3.2 * s.size), "press, tonnes", "right")


def expanding_arbor(s: Sketch) -> None:
    d = s.v("diameter")
    long = s.v("length") or d
    wall = s.v("wall") or d / 6
    r = d / 2
    s.frame(-long * 0.3, -r * 1.2, long * 1.4, r * 1.2, (8, 3))
    for side in (-1, 1):
        s.box(0, side * (r - wall), long, side * r, hatch=True)
    s.box(-long * 0.25, -r, 0, r, hatch=True)
    core = r - wall
    s.shape(
        [
            (long * 0.55, -core * 0.5),
            (long * 1.3, -core * 1.02),
            (long * 1.3, core * 1.02),
            (long * 0.55, core * 0.5),
        ],
        role="cut",
        fill="ground",
    )
    s.line((-long * 0.3, 0), (long * 1.4, 0), "centre", 1.0)
    s.across("diameter", (-long * 0.25, -r), (-long * 0.25, r), -2.0)
    right = s.p(long * 1.3, 0)[0] + s.size
    y = s.p(0, r)[1]
    s.tell("growth_per_turn", (right, y), "a turn", "left")
    s.tell("turns_to_take_play", (right, y + 3 * s.size), "turns for the play", "left")
    s.tell("largest_growth", (right, y + 6 * s.size), "at most", "left")
    s.ask("taper", s.p(long * 1.0, 0))


def cutting_time(s: Sketch) -> None:
    long = s.v("length")
    d = s.v("start") or s.v("diameter") or long * 0.5
    s.frame(0, -d * 0.7, long * 1.3, d * 0.7, (7, 4))
    s.box(0, -d / 2, long * 1.15, d / 2, hatch=False)
    s.line((-long * 0.03, 0), (long * 1.25, 0), "centre", 1.0)
    s.shape(
        [
            (long * 1.15, d / 2),
            (long * 1.2, d * 0.62),
            (long * 1.3, d * 0.62),
            (long * 1.3, d / 2),
        ],
        role="cut",
    )
    s.across("length", (0, d / 2), (long, d / 2), 1.8, "a pass")
    x, y = s.p(long * 0.55, 0)
    s.tell("minutes", (x, y), "minutes")
    s.tell("passes", (x - 9 * s.size, y), "passes")
    s.tell("per_pass", (x + 9 * s.size, y), "one pass")


def make_or_buy(s: Sketch) -> None:
    """Both prices side by side: the metal below, the hours on it."""
    made, bought = s.r("made"), s.r("bought_price")
    most = max(made, bought, 1e-6)
    s.frame(0, 0, 2.2 * most, most, (9, 5))
    metal = s.v("count", 1) * s.v("stock") * s.v("per_kg")
    hours = max(made - metal - s.v("tools"), 0.0)
    low = 0.0
    for part in (metal, hours, s.v("tools")):
        if part > 0:
            s.box(0.3 * most, low, 0.7 * most, low + part, hatch=low == 0.0)
            low += part
    s.box(1.5 * most, 0, 1.9 * most, bought, hatch=False)
    s.line((0, 0), (2.2 * most, 0))
    above = 1.6 * s.size
    s.tell("made", (s.p(0.5 * most, 0)[0], s.p(0, made)[1] - above), "made")
    s.tell("saved", (s.p(1.1 * most, 0)[0], s.p(0, most / 2)[1]), "saved by making")
    s.ask("bought", (s.p(1.7 * most, 0)[0], s.p(0, bought)[1] - above), "a bought one")
    left = s.p(0.3 * most, 0)[0] - s.size
    s.put("stock", (left, s.p(0, metal / 2)[1]), anchor="right")
    s.put("time", (left, min(s.p(0, metal + hours / 2)[1], s.p(0, 0)[1] - 4 * s.size)),
          anchor="right")  # fmt: skip


def convert(s: Sketch) -> None:
    value = abs(s.v("value")) or 1.0
    s.frame(0, 0, value, value * 0.4, (4, 4))
    s.line((0, value * 0.2), (value, value * 0.2))
    for i in range(9):
        tall = value * (0.09 if i % 4 == 0 else 0.05)
        s.line((value * i / 8, value * 0.2), (value * i / 8, value * 0.2 + tall))
    s.across("value", (0, value * 0.2), (value, value * 0.2), 3.0, "length")
    y = s.p(0, value * 0.2)[1] + 3 * s.size
    keys = ("mm", "inch", "fraction", "thou", "drill")
    for i, key in enumerate(keys):
        s.tell(key, (s.board.width * (i + 0.5) / len(keys), y))


def circlip(s: Sketch) -> None:
    d, groove = s.v("diameter"), s.r("groove_diameter")
    wide, inside = s.r("groove_width"), s.values.get("kind") == "bore"
    r, g = d / 2, groove / 2
    long = d * 0.6
    s.frame(-long, -r * 1.5, long, r * 1.5, (9, 4))
    half = wide / 2
    outer = r * 1.45
    for side in (-1, 1):
        face = outer if inside else 0.0
        s.shape(
            [
                (-long, side * r),
                (-half, side * r),
                (-half, side * g),
                (half, side * g),
                (half, side * r),
                (long, side * r),
                (long, side * face),
                (-long, side * face),
            ],
            hatch=True,
        )
    s.line((-long, 0), (long, 0), "centre", 1.0)
    s.across("diameter", (-long, -r), (-long, r), -2.4)
    s.across("groove_diameter", (long, -g), (long, g), 2.4, "groove")
    s.tell("groove_width", (s.p(0, 0)[0], s.p(0, outer)[1] - 1.4 * s.size), "wide")
    s.tell("thickness", (s.p(0, 0)[0], s.p(0, 0)[1]), "ring")


def woodruff(s: Sketch) -> None:
    cutter, high = s.r("cutter"), s.r("key_height")
    deep, hub = s.r("shaft_depth"), s.r("hub_depth")
    r = cutter / 2
    wide = r * 1.8
    s.frame(-wide, -deep * 1.8, wide, hub * 2.5, (9, 4))
    s.box(-wide, -deep * 1.8, wide, 0, hatch=True)
    centre = r - deep
    half = math.sqrt(max(r * r - centre * centre, 0.0))
    start = math.degrees(math.atan2(-centre, half))
    points = [
        (
            r * math.cos(math.radians(a)),
            centre + r * math.sin(math.radians(a)),
        )
        for a in [180 - start + (180 + 2 * start) * i / 40 for i in range(41)]
    ]
    s.shape(points, role="cut", fill="ground")
    top = high - deep
    s.shape([*points, (half, top), (-half, top)], role="measured", fill="panel")
    s.tell("cutter", (s.p(0, 0)[0], s.p(0, -deep)[1] + 2.6 * s.size), "cutter")
    s.across("shaft_depth", (wide, 0), (wide, -deep), 1.8, "in the shaft")
    left = s.p(-wide, 0)[0] - s.size
    s.tell("key_width", (left, s.p(0, 0)[1]), "key wide", "right")
    s.tell("key_height", (left, s.p(0, 0)[1] + 3 * s.size), "key high", "right")
    s.tell("hub_depth", (left, s.p(0, 0)[1] + 6 * s.size), "in the hub", "right")


def angle_block(s: Sketch) -> None:
    run, high = s.r("run"), s.r("height")
    thick = s.v("length") * 0.12
    a = math.radians(s.v("angle"))
    lean = (-thick * math.sin(a), thick * math.cos(a))
    s.frame(-thick, 0, run + thick, high + thick, (8, 4))
    s.line((-thick, 0), (run + thick * 2, 0), "outline", 2.0)
    s.shape([(0, 0), (run, high), (run + lean[0], high + lean[1]), lean], hatch=True)
    wide = thick * 0.7
    y = 0.0
    for piece in s.results.get("stack") or []:
        s.box(run - wide, y, run + wide * 0.2, y + piece, role="measured", hatch=False)
        y += piece
    s.across("height", (run + wide, 0), (run + wide, high), 2.0)
    s.across("run", (0, 0), (run, 0), -1.8)
    at = s.p(run / 2, high / 2)
    s.ask("length", (at[0] - 4 * s.size, at[1] - 3 * s.size), "along the slope")
    s.ask("angle", (s.p(0, 0)[0] - s.size, s.p(0, 0)[1] - 2 * s.size), anchor="right")


def knurl(s: Sketch) -> None:
    d, teeth = s.v("diameter"), max(int(s.r("teeth")), 3)
    r = d / 2
    s.frame(-r * 1.1, -r * 1.1, r * 1.1, r * 1.1, (9, 3))
    shown = min(teeth, 120)
    points = []
    for i in range(2 * shown):
        a = math.pi * i / shown
        size = r * (1.0 if i % 2 else 0.96)
        points.append((size * math.cos(a), size * math.sin(a)))
    s.shape(points, hatch=True)
    s.ask("diameter", s.p(0, 0))
    right, left = s.p(r, 0)[0] + s.size, s.p(-r, 0)[0] - s.size
    s.tell("teeth", (right, s.p(0, r * 0.6)[1]), "teeth", "left")
    s.tell("growth", (right, s.p(0, 0)[1]), "grows", "left")
    best = s.results.get("best_diameters") or []
    for i, diameter in enumerate(best):
        text = length_text(diameter, 0.001, s.inch)
        y = s.p(0, r * 0.6)[1] + i * 2.2 * s.size
        s.board.text((left, y), text, s.size, "measured", "right", bold=True)
    s.note("turn it to", (left - 3 * s.size, s.p(0, r * 0.6)[1] - 1.8 * s.size))
    s.put("pitch", (left, s.p(0, -r * 0.5)[1]), "pitch", "right")


PICTURES = {
    "half-way": half_way,
    "side-offset": side_offset,
    "saw-slot": saw_slot,
    "break-out": break_out,
    "flat": flat,
    "elongation": elongation,
    "triangle": triangle,
    "strip-length": strip_length,
    "pieces": pieces,
    "drill-depth": drill_depth,
    "screw-length": screw_length,
    "length-chain": length_chain,
    "straightness": straightness,
    "squareness-gaps": squareness,
    "broach-force": broach_force,
    "expanding-arbor": expanding_arbor,
    "cutting-time": cutting_time,
    "make-or-buy": make_or_buy,
    "convert": convert,
    "angle": angle,
    "circlip": circlip,
    "e-clip": circlip,
    "woodruff": woodruff,
    "angle-block": angle_block,
    "knurl": knurl,
}
