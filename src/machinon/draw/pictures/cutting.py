"""Pictures around the cut: speed, passes, bar, allowance, disc, lever."""

import itertools
import math

from machinon.core.cutting.tempering import temper_colours
from machinon.core.quantity import length_text
from machinon.draw.lettering import text_width
from machinon.draw.sketch import Sketch


def _turning(s: Sketch, radius: float, start: float, tip: float) -> None:
    """An arc with an arrow at its tip, round what turns; degrees."""
    s.arc(0, 0, radius, min(start, tip), max(start, tip), "measured", 2.0)
    behind = tip + math.copysign(8, start - tip)
    ends = (math.radians(end) for end in (tip, behind))
    at, towards = (s.p(radius * math.cos(a), radius * math.sin(a)) for a in ends)
    s.board.arrow(at, towards, "measured")


def speeds(s: Sketch) -> None:
    d = s.v("diameter")
    r = d / 2
    s.frame(-r * 1.5, -r * 1.2, r * 2.2, r * 1.2, (8, 3))
    s.circle(0, 0, r, "outline", "panel")
    s.cross(0, 0, r * 1.15)
    s.shape(
        [
            (r, 0),
            (r * 1.5, 0.1 * r),
            (r * 2.2, 0.1 * r),
            (r * 2.2, -0.5 * r),
            (r * 1.12, -0.5 * r),
        ],
        role="cut",
    )
    _turning(s, r * 1.12, 170, 100)
    x, y = s.p(0, 0)
    s.tell("rpm", (x, y - 2.4 * s.size), "turn at")
    s.ask("diameter", (x, y + 1.6 * s.size), "⌀ that turns")
    left = s.p(-r * 1.2, 0)[0] - s.size
    s.tell("surface_speed", (left, s.p(0, r * 0.7)[1]), "surface speed", "right")
    s.tell("rpm_ideal", (left, s.p(0, r * 0.7)[1] + 3 * s.size), "ideal", "right")
    s.tell("feed", (s.p(r * 1.8, 0)[0], s.p(0, -0.5 * r)[1] + 2.4 * s.size), "feed")
    s.ask("material", (left, s.p(0, -r * 0.3)[1]), anchor="right")
    s.ask(
        "tool", (s.p(r * 2.0, 0)[0], s.p(0, 0.3 * r)[1] - 1.2 * s.size), anchor="left"
    )
    s.ask("operation", (left, s.p(0, -r * 0.3)[1] + 3.6 * s.size), anchor="right")


def cutting_power(s: Sketch) -> None:
    """The cut in section, with what it takes beside it."""
    d, operation = s.v("diameter"), str(s.values.get("operation") or "turn")
    s.frame(-1.5 * d, -0.9 * d, 1.5 * d, 0.9 * d, (11, 4))
    {"turn": _turned, "drill": _drilled, "mill": _milled}[operation](s, d)
    left, right = s.p(-1.5 * d, 0)[0] - s.size, s.p(1.5 * d, 0)[0] + s.size
    top = s.p(0, 0.7 * d)[1]
    each = "feed a tooth" if operation == "mill" else "feed a turn"
    names = {"feed_each": each, "rpm": "speed"}
    for i, key in enumerate(("operation", "material", "feed_each", "rpm")):
        s.ask(key, (left, top + 3.2 * i * s.size), names.get(key, key), "right")
    for i, key in enumerate(("force", "torque", "power", "motor")):
        s.tell(key, (right, top + 3.2 * i * s.size), key, "left")


def _turned(s: Sketch, d: float) -> None:
    r, end, at = d / 2, 1.2 * d, 0.2 * d
    off = s.v("depth") or 0.08 * d
    above = [(-1.2 * d, r), (at, r), (at, r - off), (end, r - off)]
    s.shape([*above, *((x, -y) for x, y in reversed(above))], hatch=True)
    s.line((-1.4 * d, 0), (1.4 * d, 0), "centre", 1.0)
    low = -0.9 * d
    edge = [(at, off - r), (at + 0.35 * d, off - r - 0.08 * d), (at + 0.35 * d, low)]
    s.shape([*edge, (at + 0.03 * d, low)], role="cut")
    s.needless("width", "teeth")
    s.across("diameter", (-0.7 * d, -r), (-0.7 * d, r), 0.01, "⌀ that turns")
    s.ask("depth", (s.p(0.8 * d, 0)[0], s.p(0, r)[1] - 0.6 * s.size), "deep")


def _drilled(s: Sketch, d: float) -> None:
    r, low, point = d / 2, -0.9 * d, -0.3 * d
    s.box(-1.2 * d, low, 1.2 * d, 0, hatch=True)
    top = 0.9 * d
    s.shape(
        [(-r, top), (-r, point), (0, point - 0.6 * r), (r, point), (r, top)], role="cut"
    )
    for i in range(4):
        y = point + 0.3 * i * d
        s.line((-r, y), (r, y + 0.3 * d), "thin", 1.0)
    s.across("diameter", (-r, top), (r, top), 1.6, "⌀ of the drill")
    s.needless("depth", "width", "teeth")


def _milled(s: Sketch, d: float) -> None:
    """Seen along the feed: the cutter in a slot, or at a shoulder on its left."""
    r, low, end = d / 2, -0.9 * d, 1.2 * d
    wide, deep = min(s.v("width") or d, d), min(s.v("depth") or 0.3 * d, 0.7 * d)
    over = [(-end, 0.0), (-r, 0.0), (-r, -deep), (wide - r, -deep)]
    over += [(r, 0.0), (end, 0.0), (end, low)] if wide == d else [(wide - r, low)]
    s.shape([*over, (-end, low)], hatch=True)
    s.box(-r, -deep, r, 0.9 * d, role="cut")
    s.across("diameter", (-r, 0.9 * d), (r, 0.9 * d), 1.6, "⌀ of the cutter")
    s.across("depth", (-r, -deep), (-r, 0), -2.4, "deep")
    s.across("width", (-r, -deep), (wide - r, -deep), -2.2, "wide")


def table_feed(s: Sketch) -> None:
    """The cutter from above, its teeth against the feed; the work fed towards it."""
    wide = s.v("diameter") or 10.0
    r, cut = wide / 2, min(s.v("width") or wide, wide)
    s.frame(-2.6 * r, -1.6 * r, 2.6 * r, 1.7 * r, (1, 2))
    wall = math.acos(1 - cut / r)  # of the round that stands in the work
    steps = [math.pi / 2 - i / 24 * wall for i in range(25)]
    round_ = [(r * math.cos(a), r * math.sin(a)) for a in steps]
    near = round_[-1][1]
    far = 1.7 * r
    s.shape(
        [(-2.6 * r, r), *round_, (2.6 * r, near), (2.6 * r, far), (-2.6 * r, far)],
        hatch=True,
    )
    s.circle(0, 0, r, "cut", "ground")
    teeth = min(int(s.v("teeth", 2)), 24)
    for i in range(teeth):
        a = math.radians(60 + 360 * i / teeth)
        root = (0.75 * r * math.cos(a + 0.15), 0.75 * r * math.sin(a + 0.15))
        s.line(root, (r * math.cos(a), r * math.sin(a)), "cut", 2.0)
    _turning(s, r * 1.16, 280, 210)
    level = min(near, 0.0) - 0.4 * r
    start, tip = s.p(2.5 * r, level), s.p(1.6 * r, level)
    s.line((2.5 * r, level), (1.6 * r, level), "measured", 1.4)
    s.board.arrow(tip, start, "measured")
    middle = (start[0] + tip[0]) / 2
    s.tell("table_feed", (middle, tip[1] + 2.6 * s.size), "at the table")
    s.tell("time", (middle, tip[1] + 6 * s.size), "for the length")
    x, y = s.p(0, 0)
    s.ask("rpm", (x, y - 1.9 * s.size), "turns at")
    s.ask("teeth", (x, y + 1.9 * s.size), "teeth")
    left = s.p(-2.5 * r, 0)[0]
    s.ask("feed", (left, y - 3 * s.size), "feed of a tooth", "left")
    if not s.values.get("feed"):
        s.tell("tooth", (left, y + s.size), "a tooth", "left")
    s.tell("per_turn", (left, y + 4.4 * s.size), "a turn of the cutter", "left")
    s.tell("handle_time", (left, y + 8 * s.size), "a turn of the handle", "left")
    if s.has("width"):
        s.across("width", (2.0 * r, near), (2.0 * r, r), 0.0)
        s.line((0, r), (2.6 * r, r), "centre", 1.0)
        at = math.pi / 2 - wall * 0.85
        s.tell("chip", s.p(1.1 * r * math.cos(at), 1.3 * r), "thickest chip")


def passes(s: Sketch) -> None:
    on = str(s.values.get("on") or "diameter")
    # a diameter is drawn by its radius, a length as it is
    share = 1.0 if on == "length" else 0.5
    start, finish = s.v("start") * share, s.v("finish") * share
    done = s.results.get("passes") or []
    low, high = min(start, finish), max(start, finish)
    gap = max(high - low, 1e-6)
    count = max(len(done), 1)
    wide = gap * max(2.4, 0.5 * count)
    s.frame(0, low - 0.5 * gap, wide, high + 0.2 * gap, (9, 4))
    step = wide / (count + 1)
    sizes = [start, *(row[on] * share for row in done)]
    points = [(0.0, start)]
    for i, size in enumerate(sizes):
        points += [(i * step, size), ((i + 1) * step, size)]
    floor = low - 0.4 * gap
    if finish < start:
        s.shape([(0, floor), *points, (wide, floor)], hatch=True)
    else:
        top = high + 0.15 * gap
        s.shape([(0, top), *points, (wide, top)], hatch=True)
    shown = 12
    line = max(s.v("division"), 0.01)  # no more figures than the dial has
    clear = s.p(0, 0)[0]
    for i, row in enumerate(done[:shown]):
        x, y = s.p((i + 1.5) * step, row[on] * share)
        size, dial = (
            length_text(value, line, s.inch, unit=False)
            for value in (row[on], row["dial"])
        )
        half = text_width(size, 0.9 * s.size) / 2
        if x - half < clear:  # all of them stand in the table
            continue
        clear = x + half + 0.3 * s.size
        s.board.text((x, y - 0.9 * s.size), size, 0.9 * s.size, "measured", backed=True)
        below = x, s.p(0, floor)[1] + 1.2 * s.size
        s.board.text(below, dial, 0.9 * s.size, "cut")
    s.note("dial", (s.p(0, 0)[0], s.p(0, floor)[1] + 1.2 * s.size))
    left, right = s.p(0, 0)[0] - s.size, s.p(wide, 0)[0] + s.size
    s.ask("start", (left, s.p(0, start)[1]), anchor="right")
    s.ask("finish", (right, s.p(0, finish)[1]), anchor="left")


def boring_bar(s: Sketch) -> None:
    d, out = s.v("bar_diameter"), s.v("overhang")
    support = str(s.values.get("support") or "free")
    two = support != "free"  # supported at both ends, the cut in the middle
    s.frame(-0.5 * out, -2.2 * d, out * (1.5 if two else 1.08), 2.2 * d, (6, 4))
    held = [] if support == "simple" else [(-0.45 * out, 0.0)]
    if support == "fixed":
        held.append((out, out * 1.45))
    for left, right in held:
        for side in (-1, 1):
            s.box(left, side * d / 2, right, side * 1.5 * d, hatch=True)
    s.box(-0.45 * out, -d / 2, out * (1.45 if two else 1.0), d / 2)
    for at in {"simple": (0.0, out), "steadied": (out,)}.get(support, ()):
        s.shape([(at, -d / 2), (at - d / 3, -1.1 * d), (at + d / 3, -1.1 * d)])
    # the bent bar, far enlarged
    bend = 0.9 * d
    points = []
    for i in range(21):
        t = i / 20
        sag = 4 * t * (1 - t) if two else (3 * t * t - t**3) / 2
        points.append((out * t, -d / 2 - bend * sag))
    s.shape(points, role="stop", closed=False, width=1.6)
    tip = s.p(out / 2 if two else out, -d / 2)
    s.board.arrow(
        (tip[0], tip[1] + 0.4 * s.size), (tip[0], tip[1] - 3 * s.size), "stop"
    )
    s.across("overhang", (0, 1.5 * d), (out, 1.5 * d), 1.6)
    s.ask("bar_diameter", s.p(out * 0.4, 0))
    s.tell("deflection", (s.p(out, 0)[0], s.p(0, -1.9 * d)[1] + s.size), "it gives")
    s.tell("stiffness", (s.p(out * 0.3, 0)[0], s.p(0, -1.9 * d)[1] + s.size))
    s.tell(
        "length_to_diameter",
        (s.p(out * 0.62, 0)[0], s.p(0, -1.9 * d)[1] + s.size),
        "length to ⌀",
    )
    s.note("bend drawn enlarged", (s.p(out * 0.5, 0)[0], s.p(0, -d * 1.6)[1] - s.size))
    advice = str(s.results.get("advice", ""))
    s.note(advice, (s.board.width / 2, s.floor - 0.4 * s.size))


def grinding_allowance(s: Sketch) -> None:
    d, length = s.v("diameter"), s.v("length")
    s.frame(0, -d, length, d, (9, 5))
    s.box(0, -d / 2, length, d / 2, role="hidden", fill="none")
    bow = 0.35 * d
    top, under = [], []
    for i in range(21):
        x = length * i / 20
        y = bow * 4 * (i / 20) * (1 - i / 20) - bow / 2
        top.append((x, d * 0.62 + y))
        under.append((x, -d * 0.62 + y))
    s.shape([*top, *reversed(under)], role="outline")
    s.line((0, 0), (length, 0), "centre", 1.0)
    s.across("length", (0, d), (length, d), 1.4)
    s.across("diameter", (0, -d / 2), (0, d / 2), -3.2)
    x = s.p(length / 2, 0)[0]
    s.tell("allowance_on_diameter", (x, s.p(0, 0)[1]), "leave on the diameter")
    s.tell("expected_warp", (s.p(length, 0)[0] + s.size, s.p(0, 0)[1]), "bow", "left")
    s.note("bow drawn enlarged", (x, s.p(0, -d)[1] + s.size))


def rotating_limit(s: Sketch) -> None:
    r, bore = s.v("outside_diameter") / 2, s.v("bore") / 2
    s.frame(-r, -r, r, r, (9, 3))
    s.circle(0, 0, r, "outline", "panel")
    if bore:
        s.circle(0, 0, bore, "outline", "ground")
    s.cross(0, 0, r * 1.08)
    s.arc(0, 0, r * 0.85, 100, 165, "stop", 2.0)
    heavy = s.v("unbalance_radius")
    if heavy:
        s.circle(min(heavy, r) * 0.7, min(heavy, r) * 0.7, r * 0.07, "stop", "stop")
        s.tell(
            "unbalance_force",
            (s.p(r, 0)[0] + s.size, s.p(0, r * 0.7)[1]),
            "pulls",
            "left",
        )
    x, y = s.p(0, 0)
    s.tell("rpm_limit", (x, s.p(0, -r * 0.45)[1]), "at most, by strength")
    s.tell("rim_rpm", (x, s.p(0, r * 0.6)[1]), "at most, by custom")
    s.across("outside_diameter", (-r, -r), (r, -r), -1.8)
    s.ask("bore", (x, y))
    s.ask("material", (s.p(-r, 0)[0] - s.size, y), anchor="right")
    s.note("the maker's limit comes first", (x, s.p(0, r)[1] - 1.4 * s.size))


def surface_speed(s: Sketch) -> None:
    r = s.v("diameter") / 2
    s.frame(-r, -r, r, r, (8, 5))
    s.circle(0, 0, r, "outline", "panel")
    s.cross(0, 0, r * 1.1)
    _turning(s, r * 1.12, 30, 80)
    x, y = s.p(0, 0)
    s.ask("rpm", (x, y - 2.4 * s.size))
    s.ask("diameter", (x, y + 3.4 * s.size))
    s.tell("surface_speed", (s.p(r, 0)[0], s.p(0, r)[1]), "at its outside", "left")


def turned_finish(s: Sketch) -> None:
    """The ridges much enlarged, the nose of the tool in the last of them."""
    feed = s.r("feed")
    # drawn higher than they are, so that they are seen
    tall = max(s.r("height") / 1000, 0.25 * feed)
    s.frame(-2 * feed, -1.4 * tall, 2 * feed, 3.2 * tall, (9, 5))
    steps = [i / 12 - 0.5 for i in range(13)]
    ridges = [
        ((n + 0.5 + u) * feed, 4 * tall * u * u) for n in range(-2, 2) for u in steps
    ]
    s.shape([(-2 * feed, -1.2 * tall), *ridges, (2 * feed, -1.2 * tall)], hatch=True)
    edge = [((1.5 + 1.3 * u) * feed, 4 * tall * (1.3 * u) ** 2) for u in steps]
    s.shape([(0.85 * feed, 3 * tall), *edge, (2.15 * feed, 3 * tall)], role="cut")
    s.across("feed", (-0.5 * feed, tall), (0.5 * feed, tall), 2.4)
    left = s.p(-2 * feed, 0)[0] - s.size
    s.tell("height", (left, s.p(0, tall)[1]), "crest to valley", "right")
    s.put("roughness", (left, s.p(0, -tall)[1]), "Ra, at best", "right")
    s.ask("nose_radius", (s.p(1.5 * feed, 0)[0], s.p(0, 2.2 * tall)[1]), "nose")


def lever(s: Sketch) -> None:
    arm = s.v("arm")
    s.frame(-arm * 0.2, -arm * 0.3, arm * 1.1, arm * 0.35, (7, 4))
    s.shape([(0, arm * 0.06), (arm, arm * 0.03), (arm, -arm * 0.03), (0, -arm * 0.06)])
    s.circle(0, 0, arm * 0.12, "outline", "panel")
    s.circle(0, 0, arm * 0.05, "outline", "ground")
    tip = s.p(arm, arm * 0.03)
    s.board.line(tip, (tip[0], tip[1] - 4 * s.size), "stop", 2.4)
    s.board.arrow(tip, (tip[0], tip[1] - 3 * s.size), "stop")
    s.across("arm", (0, -arm * 0.14), (arm, -arm * 0.14), -1.8)
    s.ask("force", (tip[0], tip[1] - 5.4 * s.size))
    s.tell("torque", (s.p(0, 0)[0], s.p(0, arm * 0.16)[1] - 1.6 * s.size))


def ball_turning(s: Sketch) -> None:
    """Above the axis the steps over the ball that they leave, below it the ball."""
    radius, neck = s.v("ball") / 2, s.v("neck") / 2
    long = s.r("length", radius)
    # its tip at the right, the neck going on to the left
    s.frame(-long - 0.7 * radius, -1.1 * radius, 0, 1.2 * radius, (8, 5))
    half = neck or radius
    s.box(-long - 0.7 * radius, -half, -long, half)
    turns = [math.pi * i / 90 for i in range(91)]
    ball = [(radius * (math.cos(t) - 1), radius * math.sin(t)) for t in turns]
    ball = [point for point in ball if -point[0] <= long]
    s.shape([*ball, (-long, half), (-long, 0)], hatch=True)
    s.shape([*((x, -y) for x, y in ball), (-long, -half), (-long, 0)], fill="panel")
    steps = [
        tuple(float(piece[key]) for key in ("from", "to", "diameter"))
        for piece in s.results.get("steps") or []
    ]
    for behind in (False, True):
        # down the stairs from the blank, towards the tip or the neck
        edge = -long if behind else 0.0
        stairs = [(-radius, radius)]
        for low, high, diameter in steps:
            if (low > 0) == behind:
                at = -low if behind else -high
                stairs += [(at, stairs[-1][1]), (at, diameter / 2)]
        stairs += [(edge, stairs[-1][1])]
        for stair, other in itertools.pairwise(stairs):
            s.line(stair, other, "cut", 1.6)
    s.line((-long - radius, 0), (0.2 * radius, 0), "centre", 1.0)
    s.across("ball", (-radius, -radius), (-radius, radius), 0.0)
    s.across("length", (-long, -radius), (0, -radius), -1.8)
    s.ask("neck", (s.p(-long - 0.5 * radius, 0)[0], s.p(0, -half)[1] + 3 * s.size))
    x, y = s.p(0.1 * radius, 0.7 * radius)
    over = s.p(-radius, radius)
    s.tell("left", (over[0], over[1] - 3.4 * s.size), "ridge that stays")
    s.tell("count", (x, y + 3.2 * s.size), "steps", "left")
    s.ask("ridge", (x, y + 7.2 * s.size), anchor="left")


def temper_colour(s: Sketch) -> None:
    """The colours side by side as they come, the one that is wanted marked."""
    known = temper_colours()
    first, last = known[0].least, known[-1].most
    tall = (last - first) / 6
    s.frame(first, -2.2 * tall, last, 1.6 * tall, (2, 4))
    wanted = s.results.get("colour")
    for one in known:
        lit = one.name == wanted
        s.box(one.least, 0, one.most, tall, hatch=lit)
        x, y = s.p((one.least + one.most) / 2, tall)
        s.board.text((x, y - 0.9 * s.size), one.name, 1.1 * s.size,
                     "cut" if lit else "faint", bold=lit)  # fmt: skip
        if lit:
            s.tell("least", s.p(one.least, -0.5 * tall), "from", "right")
            s.tell("most", s.p(one.most, -0.5 * tall), "to", "left")
    if heat := s.v("heat"):
        s.line((heat, -0.1 * tall), (heat, 1.1 * tall), "cut", 2.4)
    middle = (first + last) / 2
    s.ask("colour", s.p(first, -1.3 * tall), "colour wanted", "left")
    s.ask("heat", s.p(last, -1.3 * tall), "or heat wanted", "right")
    s.tell("suits", s.p(middle, -2.0 * tall), "usual for")


PICTURES = {
    "temper-colour": temper_colour,
    "ball-turning": ball_turning,
    "speeds": speeds,
    "cutting-power": cutting_power,
    "table-feed": table_feed,
    "passes": passes,
    "boring-bar": boring_bar,
    "grinding-allowance": grinding_allowance,
    "rotating-limit": rotating_limit,
    "surface-speed": surface_speed,
    "turned-finish": turned_finish,
    "lever": lever,
}
