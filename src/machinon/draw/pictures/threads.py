"""Pictures of threads: the profile with its drill, wires, passes; dial; wheels."""

import math

from machinon.core.quantity import INCH, length_text
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.threads.taper_pipe import TAPER
from machinon.core.threads.tapping import insert_hole
from machinon.draw.drawing import Point, Shape
from machinon.draw.sketch import Sketch

TURNS = 3


def _profile(s: Sketch, thread: Thread, internal: bool = False) -> tuple[float, float]:
    """Screw below, nut above, to scale; returns the heights of crest and root."""
    p = thread.pitch
    crest, root = thread.major / 2, thread.minor_external / 2
    depth = crest - root
    s.frame(-0.2 * p, root - 0.9 * depth, (TURNS + 0.2) * p, crest + 0.9 * depth)
    flat = p / 8
    flank = math.tan(math.radians(thread.form.angle / 2))
    run = depth * flank
    points = [(0.0, root)]
    for i in range(TURNS):
        middle = (i + 0.5) * p
        half = min(flat / 2, p / 2 - run)
        points += [
            (middle - half - run, root),
            (middle - half, crest),
            (middle + half, crest),
            (middle + half + run, root),
        ]
    points.append((TURNS * p, root))
    low = root - 0.8 * depth
    s.shape([(0, low), *points, (TURNS * p, low)], hatch=True)
    pitch = thread.pitch_diameter / 2
    s.line((-0.1 * p, pitch), ((TURNS + 0.1) * p, pitch), "centre", 1.0)
    return crest, root


def _of(s: Sketch) -> Thread:
    return thread_of(str(s.values["thread"]))


def thread(s: Sketch) -> None:
    thread = _of(s)
    crest, root = _profile(s, thread)
    p = thread.pitch
    s.across("pitch", (0.5 * p, crest), (1.5 * p, crest), 2.2)
    left, right = s.p(0, 0)[0] - 1.2 * s.size, s.p(TURNS * p, 0)[0] + 1.2 * s.size
    s.tell("major", (left, s.p(0, crest)[1]), anchor="right")
    s.tell(
        "pitch_diameter", (right, s.p(0, thread.pitch_diameter / 2)[1]), anchor="left"
    )
    s.tell("minor_external", (left, s.p(0, root)[1]), "root of the screw", "right")
    s.tell(
        "minor_internal",
        (right, s.p(0, root)[1] + 2.6 * s.size),
        "bore of the nut",
        "left",
    )
    s.tell("flank_angle", (s.p(1 * p, 0)[0], s.p(0, root)[1] - 1.2 * s.size), "flanks")
    s.tell("tpi", (right, s.p(0, crest)[1] - 1.0 * s.size), "per inch", "left")
    s.ask("thread", (s.board.width / 2, s.floor - 1.0 * s.size))


def tap_drill(s: Sketch) -> None:
    thread = insert_hole(_of(s)) if s.values.get("kind") == "insert" else _of(s)
    crest, _ = _profile(s, thread)
    p = thread.pitch
    drill = s.r("drill_size") / 2
    s.line((-0.2 * p, drill), ((TURNS + 0.2) * p, drill), "measured", 3.0)
    right = s.p(TURNS * p, 0)[0] + 1.2 * s.size
    left = s.p(0, 0)[0] - 1.2 * s.size
    y = s.p(0, drill)[1]
    s.tell("drill_size", (right, y), "drill", "left")
    s.tell("drill", (right, y + 2.6 * s.size), "by name", "left")
    s.tell("ideal", (left, y), "ideal", "right")
    s.note(
        f"gives {s.r('engagement'):.0f} % of thread",
        (s.board.width / 2, s.p(0, crest)[1] - 2.4 * s.size),
    )
    s.ask("thread", (left, s.p(0, crest)[1]), anchor="right")
    s.ask("engagement", (right, s.p(0, crest)[1]), "wanted", "left")


def thread_wires(s: Sketch) -> None:
    thread = _of(s)
    _, root = _profile(s, thread)
    p = thread.pitch
    wire = s.v("wire", s.r("best_wire"))
    a = math.radians(thread.form.angle / 2)
    centre = (
        thread.pitch_diameter / 2 + wire / (2 * math.sin(a)) - p / (4 * math.tan(a))
    )
    for x in (1 * p, 2 * p):
        s.circle(x, centre, wire / 2, "measured", "ground", 2.4)
    top = centre + wire / 2
    s.line((0.4 * p, top), (2.6 * p, top), "measured", 3.0)
    left, right = s.p(0, 0)[0] - 1.2 * s.size, s.p(TURNS * p, 0)[0] + 1.2 * s.size
    s.tell("over_wires", (right, s.p(0, top)[1]), "over the wires", "left")
    s.tell("best_wire", (left, s.p(0, centre)[1]), "best wire", "right")
    s.ask("thread", (left, s.p(0, root)[1]), anchor="right")
    s.ask("wire", (left, s.p(0, centre)[1] - 3.2 * s.size), "wire used", "right")
    s.ask("measured", (right, s.p(0, top)[1] + 3.4 * s.size), "read", "left")
    s.tell(
        "pitch_diameter", (right, s.p(0, root)[1] + s.size), "pitch diameter", "left"
    )


def pitch(s: Sketch) -> None:
    p, form = s.r("pitch"), str(s.values["form"])
    thread = Thread("", 100 * p, p, form)  # type: ignore[arg-type]
    crest, root = _profile(s, thread)
    wire, a = s.r("best_wire"), math.radians(thread.form.angle / 2)
    centre = (
        thread.pitch_diameter / 2 + wire / (2 * math.sin(a)) - p / (4 * math.tan(a))
    )
    s.circle(2 * p, centre, wire / 2, "measured", "ground", 2.4)
    left, right = s.p(0, 0)[0] - 1.2 * s.size, s.p(TURNS * p, 0)[0] + 1.2 * s.size
    starts = int(s.v("starts", 1))
    if starts < TURNS:
        s.across("lead", (0.5 * p, crest), ((0.5 + starts) * p, crest), 2.2)
    else:  # further than is drawn
        s.tell("lead", (s.p(1.5 * p, 0)[0], s.p(0, crest)[1] - 2.2 * s.size))
    middle = s.p(0, (crest + root) / 2)[1]
    top, low = middle - 4.4 * s.size, middle + 4.4 * s.size
    s.ask("pitch", (left, top), anchor="right")
    s.tell("tpi", (left, middle), "per inch", "right")
    s.ask("starts", (left, low), anchor="right")
    s.tell("best_wire", (right, top), "best wire", "left")
    s.tell("depth_outside", (right, middle), "depth of the screw", "left")
    s.tell("depth_inside", (right, low), "depth of the nut", "left")


def crest_flat(s: Sketch) -> None:
    thread = _of(s)
    crest, root = _profile(s, thread)
    p = thread.pitch
    flat = s.r("flat")
    s.across("flat", (1.5 * p - flat / 2, crest), (1.5 * p + flat / 2, crest), 3.0)
    left, right = s.p(0, 0)[0] - 1.2 * s.size, s.p(TURNS * p, 0)[0] + 1.2 * s.size
    top = s.p(0, crest)[1]
    s.ask("outside", (left, top), "over the crests", "right")
    s.ask("thread", (left, s.p(0, root)[1]), anchor="right")
    s.ask("measured", (right, top), "flat read", "left")
    s.tell("flat_max", (right, top + 3.4 * s.size), "not over", "left")
    s.tell("flat_min", (right, top + 6.4 * s.size), "not under", "left")
    s.tell("pitch_diameter", (right, top + 9.4 * s.size), "pitch diameter", "left")


def thread_passes(s: Sketch) -> None:
    thread = _of(s)
    total = s.r("total_depth")
    half = total * math.tan(math.radians(thread.form.angle / 2))
    s.frame(-3 * half - total, -total * 1.15, 3 * half + total, total * 0.5)
    s.shape(
        [
            (-3 * half, 0),
            (-half, 0),
            (0, -total),
            (half, 0),
            (3 * half, 0),
            (3 * half, -total * 1.3),
            (-3 * half, -total * 1.3),
        ],
        hatch=True,
    )
    done = 0.0
    for one_pass in s.results.get("passes", []):
        done += one_pass["radial"]
        reach = (total - done) * half / total if total else 0
        if one_pass["radial"]:
            s.line((-reach, -done), (reach, -done), "cut", 1.6)
    s.across("total_depth", (3 * half, 0), (3 * half, -total), 3.0)
    left = s.p(-3 * half, 0)[0] - s.size
    y = s.p(0, 0)[1]
    s.ask("thread", (left, y), anchor="right")
    s.ask("school", (left, y + 3.4 * s.size), anchor="right")
    s.ask("depth", (left, y + 6.8 * s.size), anchor="right")
    count = sum(1 for one_pass in s.results.get("passes", []) if one_pass["radial"])
    s.note(f"{count} passes", (s.p(0, 0)[0], y - 1.4 * s.size))
    s.tell("compound_total", (s.p(0, 0)[0], y - 3.4 * s.size), "along the compound")


def thread_dial(s: Sketch) -> None:
    s.frame(-1.4, -1.4, 1.4, 1.4)
    s.circle(0, 0, 1.15, "outline", "panel")
    s.circle(0, 0, 0.16)
    count = int(s.v("dial_marks", 8))
    good = set(s.results.get("marks", []))
    anywhere = "anywhere" in str(s.results.get("rule", ""))
    for mark in range(1, count + 1):
        a = math.radians(90 - 360 * (mark % count) / count)
        role = "proved" if mark in good else "thin"
        s.line(
            (0.85 * math.cos(a), 0.85 * math.sin(a)),
            (1.1 * math.cos(a), 1.1 * math.sin(a)),
            role,  # type: ignore[arg-type]
            5.0 if mark in good else 1.4,
        )
        at = s.p(0.68 * math.cos(a), 0.68 * math.sin(a))
        s.board.text(at, str(mark), s.size, role, bold=mark in good)  # type: ignore[arg-type]
    x, y = s.p(0, 1.25)
    s.board.arrow((x, y + 0.3 * s.size), (x, y - s.size), "stop")
    left, right = s.p(-1.3, 0)[0], s.p(1.3, 0)[0]
    s.ask("thread", (left, s.p(0, 0.7)[1]), "thread to cut", "right")
    s.ask("leadscrew", (left, s.p(0, 0)[1]), "lead screw", "right")
    s.ask("dial_teeth", (right, s.p(0, 0.7)[1]), "teeth of its wheel", "left")
    s.ask("dial_marks", (right, s.p(0, 0)[1]), "marks", "left")
    words = (
        "closed all the time" if s.results.get("keep_engaged") else "green: close here"
    )
    s.note("close anywhere" if anywhere else words, (x, s.p(0, -1.32)[1]))


def change_gears(s: Sketch) -> None:
    trains = s.results.get("trains") or []
    if not trains:
        return
    best = trains[0]
    drivers, driven = best["drivers"], best["driven"]
    pairs = list(zip(drivers, driven, strict=True))
    radius = [(a / 2, b / 2) for a, b in pairs]
    # along a line: driver, driven; the driven shares its shaft with the next driver
    x, places = 0.0, []
    for a, b in radius:
        places.append((x, a, b))
        x += a + b
    big = max(max(a, b) for a, b in radius)
    s.frame(-radius[0][0], -big, x + radius[-1][1], big, (7, 5.0))
    for i, (at, a, b) in enumerate(places):
        s.circle(
            at, 0, a, "cut" if i == 0 else "outline", "panel" if i == 0 else "none"
        )
        s.circle(at + a + b, 0, b, "outline")
        for x_, r, teeth in ((at, a, pairs[i][0]), (at + a + b, b, pairs[i][1])):
            s.cross(x_, 0, r * 0.2)
            lift = r * (0.55 if r == a else -0.55)
            s.board.text(
                s.p(x_, lift), str(teeth), 1.15 * s.size, "text", bold=True, backed=True
            )
    y = s.p(0, big)[1] - 2.8 * s.size
    s.ask("tpi" if s.has("tpi") else "pitch", (s.board.width * 0.2, y), "to cut")
    s.ask("leadscrew", (s.board.width * 0.5, y), "lead screw")
    s.ask("gears", (s.board.width * 0.8, y), "wheels there are")
    low = s.p(0, -big)[1] + 1.6 * s.size
    wrong = best["error_percent"]
    off = (
        f"{0.12 * wrong:+.5f} in per foot" if s.inch else f"{wrong:+.4f} mm per 100 mm"
    )
    says = "exact" if wrong == 0 else off.replace("-", "−")
    mounts = "" if best["mounts"] else "; may not mount by the sum rule"
    s.note(
        f"{' × '.join(map(str, drivers))} drive {' × '.join(map(str, driven))}: "
        f"{says}{mounts}",
        (s.board.width / 2, low),
    )


def clearance_hole(s: Sketch) -> None:
    thread = _of(s)
    hole = s.r("diameter")
    s.frame(-hole * 1.6, -hole * 0.8, hole * 1.6, hole * 0.8)
    for side in (-1, 1):
        s.box(side * hole / 2, -hole * 0.7, side * hole * 1.4, hole * 0.7, hatch=True)
    s.box(-thread.major / 2, -hole * 0.8, thread.major / 2, hole * 0.8)
    s.line((0, -hole * 0.85), (0, hole * 0.85), "centre", 1.0)
    s.across("diameter", (-hole / 2, hole * 0.7), (hole / 2, hole * 0.7), 2.4, "hole")
    s.ask("thread", s.p(0, 0))
    s.ask("fit", (s.p(hole, 0)[0], s.p(0, 0)[1]))


def taper_pipe_thread(s: Sketch) -> None:
    """The screw to the left with its end to the right, the hole's mouth facing it."""
    end, depth = s.r("end_outside") / 2, s.r("depth")
    useful = s.r("useful")
    pitch, lean = INCH / s.r("tpi"), TAPER / 2
    gap, body = 1.9 * useful, 0.5 * useful
    mouth = s.r("mouth") / 2
    wide = max(1.5 * end, mouth + 2 * depth)
    s.frame(-useful - body, -wide, gap + 1.2 * useful, wide, (6, 4))

    def teeth(x: float, r: float, long: float) -> list[Point]:
        """Crest and root in turn, from x on, on a cone that narrows."""
        turns = int(2 * long / pitch)
        return [
            (x + i * pitch / 2, r - lean * i * pitch / 2 - depth * (i % 2))
            for i in range(turns + 1)
        ]

    pipe = end + useful * lean
    over = teeth(-useful, pipe, useful)
    outline = [(-useful - body, pipe), (-useful, pipe), *over, (0, end - depth)]
    s.shape([*outline, *((x, -y) for x, y in reversed(outline))])
    deep = useful + pitch
    inside = teeth(gap, mouth + depth, deep)
    far = (gap + deep, inside[-1][1])
    for side in (1, -1):
        block = [(gap, wide), *inside, far, (gap + deep, wide)]
        s.shape([(x, side * y) for x, y in block], hatch=True)
    s.line((-useful - body, 0), (gap + 1.2 * useful, 0), "centre", 1.0)
    s.across("useful", (-useful, -end), (0, -end), -3.0, "full thread")
    s.across("end_outside", (0, -end), (0, end), 3.0, "its end")
    s.across("mouth", (gap, -mouth), (gap, mouth), -3.0, "its mouth")
    top = s.p(0, pipe)[1] - 1.4 * s.size
    left = s.p(-useful / 2, 0)[0]
    s.tell("end_pitch_diameter", (left, s.p(0, 0)[1] - 1.2 * s.size), "pitch there")
    right = s.p(gap + deep / 2, 0)[0]
    s.tell("mouth_pitch_diameter", (right, s.p(0, 0)[1] - 1.2 * s.size), "pitch there")
    s.ask("name", (left, top), "thread")
    body_at = (s.p(-useful - body, 0)[0] - s.size, s.p(0, 0)[1])
    s.tell("major", body_at, "pipe" if s.r("flank_angle") == 60 else "major", "right")
    foot = s.floor - 1.0 * s.size
    for i, (key, name) in enumerate(
        (
            ("tpi", "per inch"),
            ("half_angle", "half angle"),
            ("by_hand", "goes in by hand"),
            ("depth", "thread deep"),
            ("least_hole", "straight hole"),
            ("inch_drill" if s.inch else "drill", "its drill"),
            ("drill" if s.inch else "inch_drill", "or"),
        )
    ):
        s.tell(key, ((i + 0.5) / 7 * s.board.width, foot), name)


def hole_tap(s: Sketch) -> None:
    """The hole cut open; the likeliest thread in it, the screw that goes through."""
    hole = s.v("hole", 10.0)
    taps = s.results.get("taps") or []
    s.frame(-hole * 1.6, -hole * 0.8, hole * 1.6, hole * 0.8)
    for side in (-1, 1):
        s.box(side * hole / 2, -hole * 0.7, side * hole * 1.4, hole * 0.7, hatch=True)
    if taps:
        r = float(taps[0]["major"]) / 2
        for wall in (-r, r):
            s.line((wall, -hole * 0.7), (wall, hole * 0.7), "cut", 1.0)
    s.line((0, -hole * 0.85), (0, hole * 0.85), "centre", 1.0)
    s.across("hole", (-hole / 2, hole * 0.7), (hole / 2, hole * 0.7), 2.4, "hole")


def ream_drill(s: Sketch) -> None:
    """The hole from above: the drill's, and what the reamer takes round it."""
    wide, drill = s.v("reamer"), s.r("drill_size")
    s.frame(-wide, -0.75 * wide, wide, 0.75 * wide)
    s.box(-0.9 * wide, -0.7 * wide, 0.9 * wide, 0.7 * wide, hatch=True)
    s.circle(0, 0, wide / 2, "cut", "ground", 2.4)
    s.circle(0, 0, drill / 2, "measured", "panel", 2.4)
    s.cross(0, 0, 0.3 * wide)
    side = s.p(0.9 * wide, 0)[0] + s.size, s.p(0, 0)[1]
    s.ask("reamer", (s.p(-0.9 * wide, 0)[0] - s.size, side[1]), anchor="right")
    s.tell("drill", (side[0], side[1] - 2.2 * s.size), anchor="left")
    s.tell("drill_size", (side[0], side[1] + 1.2 * s.size), "its size", "left")
    s.tell("stock", (side[0], side[1] + 4.6 * s.size), "left for the reamer", "left")


def drill_steps(s: Sketch) -> None:
    """The hole cut open: each drill a step wider than the one before."""
    rows = s.results.get("drills", ())
    sizes = [float(row["size"]) for row in rows] or [1.0]
    wide, step = sizes[-1], 0.35 * sizes[-1]
    deep = step * len(sizes)
    s.frame(-1.5 * wide, -deep - 0.3 * wide, 1.5 * wide, 0.3 * wide)
    for side in (-1, 1):
        wall = [(side * 1.2 * wide, 0.0)]
        for n, size in enumerate(reversed(sizes)):
            wall += [(side * size / 2, -n * step), (side * size / 2, -(n + 1) * step)]
        wall.append((side * 1.2 * wide, -deep))
        s.shape(wall, hatch=True)
    s.line((0, 0.15 * wide), (0, -deep - 0.15 * wide), "centre", 1.0)
    x, y = s.p(-1.2 * wide, -deep / 2)
    s.ask("hole", (x - s.size, y - 2.2 * s.size), "opened to", "right")
    s.ask("there", (x - s.size, y + 1.2 * s.size), "already there", "right")
    x = s.p(1.2 * wide, 0)[0] + s.size
    for n, row in enumerate(reversed(rows)):
        s.note(str(row["drill"]), (x, s.p(0, -(n + 0.5) * step)[1]), "left")


def screw_torque(s: Sketch) -> None:
    """A screw through one part into another, pulled together by its head."""
    d = _of(s).major
    wide, high = 2.4 * d, 1.3 * d
    s.frame(-wide, -2.2 * d, wide, high + 0.8 * d)
    for side in (-1, 1):
        s.box(side * 0.55 * d, 0, side * wide, high, hatch=True)
        s.box(side * 0.5 * d, -2.2 * d, side * wide, 0, hatch=True)
    s.box(-d / 2, -2 * d, d / 2, high)
    s.box(-0.8 * d, high, 0.8 * d, high + 0.7 * d, fill="ground")
    for side in (-1, 1):
        x = side * 1.5 * d
        for start, end in (((x, high + 0.8 * d), (x, high)), ((x, -2.2 * d), (x, 0))):
            tip, foot = s.p(*end), s.p(*start)
            s.board.line(tip, foot, "stop", 1.0)
            s.board.arrow(tip, foot, "stop")
    left, right = s.p(-wide, 0)[0] - s.size, s.p(wide, 0)[0] + s.size
    top, low = s.p(0, high)[1], s.p(0, -1.4 * d)[1]
    s.ask("thread", (left, s.p(0, 0)[1]), anchor="right")
    s.put("torque", (right, top), "tightened to", "left")
    s.put("preload", (left, top), "clamps with", "right")
    s.tell("share", (right, low), "of its proof load", "left")


def cap_screw(s: Sketch) -> None:
    thread = _of(s)
    bore, deep = s.r("counterbore_diameter"), s.r("counterbore_depth")
    head, high = s.r("head_diameter"), s.r("head_height")
    d = thread.major
    deep = max(deep, 0.3 * d)
    low = -deep - 1.6 * d
    wide = max(bore, head) * 0.95
    s.frame(-wide, low, wide, deep * 0.3)
    hole = d * 1.1
    for side in (-1, 1):
        s.shape(
            [
                (side * wide, 0),
                (side * bore / 2, 0),
                (side * bore / 2, -deep),
                (side * hole / 2, -deep),
                (side * hole / 2, low),
                (side * wide, low),
            ],
            hatch=True,
        )
    if s.values.get("head") == "countersunk":
        s.shape(
            [
                (-head / 2, -deep + high),
                (head / 2, -deep + high),
                (d / 2, -deep),
                (d / 2, low),
                (-d / 2, low),
                (-d / 2, -deep),
            ],
        )
    else:
        s.box(-d / 2, low, d / 2, -deep)
        if high:
            s.box(-head / 2, -deep, head / 2, -deep + high)
        key = s.r("key_size")
        s.box(-key / 2, -deep + high * 0.45, key / 2, -deep + high, fill="ground")
    s.across("counterbore_diameter", (-bore / 2, 0), (bore / 2, 0), 2.2, "counterbore")
    s.across("counterbore_depth", (wide, 0), (wide, -deep), 3.2, "deep")
    left = s.p(-wide, 0)[0] - s.size
    s.tell("head_diameter", (left, s.p(0, -deep)[1]), "head", "right")
    s.tell("head_height", (left, s.p(0, -deep)[1] + 2.8 * s.size), "high", "right")
    s.tell("key_size", (left, s.p(0, -deep)[1] + 5.6 * s.size), "key", "right")
    s.ask("thread", s.p(0, low * 0.8))
    s.ask("head", (s.p(wide, 0)[0] + 2 * s.size, s.p(0, low * 0.85)[1]), anchor="left")


def nut(s: Sketch) -> None:
    """What is held cut open, the screw through it with washers and nut on top."""
    d, flats, high = _of(s).major, s.r("across_corners"), s.r("height")
    wide, thick = s.r("washer_outside") / 2, s.r("washer_thickness")
    top, hole = int(s.v("washers", 1)) * thick, s.r("washer_hole") / 2
    stands, edge, low = s.r("stands"), 1.5 * wide, -0.6 * d
    s.frame(-edge, low, edge, stands)
    for side in (-1, 1):
        s.box(side * hole, low, side * edge, 0, hatch=True)
    s.box(-d / 2, low, d / 2, stands)
    for i in range(int(s.v("washers", 1))):
        s.box(-wide, i * thick, wide, (i + 1) * thick, fill="ground")
    s.box(-flats / 2, top, flats / 2, top + high, fill="ground")
    for side in (-1, 1):
        s.line((side * flats / 4, top), (side * flats / 4, top + high), "thin", 0.8)
    s.across("stands", (edge, 0), (edge, stands), 3.0, "stands out")
    left = s.p(-edge, 0)[0] - s.size
    s.tell("height", (left, s.p(0, top + high)[1]), "high", "right")
    s.tell("washer_outside", (left, s.p(0, 0)[1] - s.size), "washer", "right")
    s.tell("across_flats", s.p(0, top + high / 2), "spanner")
    s.ask("thread", s.p(0, low / 2))


def thread_engagement(s: Sketch) -> None:
    thread = _of(s)
    least, d = s.r("minimum_length"), thread.major
    s.frame(-1.6 * d, -least - 0.5 * d, 1.6 * d, d)
    for side in (-1, 1):
        s.box(side * d / 2, -least, side * 1.5 * d, 0, hatch=True)
    s.box(-d / 2, -least - 0.4 * d, d / 2, 0.4 * d)
    s.box(-0.8 * d, 0.4 * d, 0.8 * d, d)
    turns = int(least / thread.pitch)
    for i in range(min(turns, 60)):
        y = -i * thread.pitch
        s.line((-d / 2, y), (d / 2, y - thread.pitch / 2), "thin", 0.8)
    s.across("minimum_length", (1.5 * d, 0), (1.5 * d, -least), 3.6, "least engaged")
    left = s.p(-1.5 * d, 0)[0] - 0.6 * s.size
    s.ask("thread", s.p(0, 0.7 * d))
    s.ask("nut_strength", (left, s.p(0, -least / 2)[1]), "nut's strength", "right")
    s.ask("screw_strength", (left, s.p(0, 0.7 * d)[1]), "screw's strength", "right")
    s.tell("strips_first", (s.p(1.0 * d, 0)[0], s.p(0, -least / 2)[1]), "strips first")


def thread_identify(s: Sketch) -> None:
    found = s.results.get("candidates") or []
    x = 0.34 * s.board.width
    wide = 0.56 * s.board.width
    top = 5.2 * s.size
    step = min((s.floor - top - s.size) / max(len(found), 1), 4 * s.size)
    s.ask(
        "measured_major" if s.values.get("measured_major") else "measured_minor",
        (0.16 * s.board.width, 2.2 * s.size),
    )
    s.ask(
        "tpi" if s.values.get("tpi") else "pitch", (0.42 * s.board.width, 2.2 * s.size)
    )
    s.ask("uncertainty", (0.66 * s.board.width, 2.2 * s.size), "uncertainty")
    for i, row in enumerate(found):
        y = top + i * step
        s.board.text(
            (x - s.size, y), row["thread"], s.size, "text", "right", bold=i == 0
        )
        share = max(row["score"], 0.01)
        a, b = y - 0.5 * s.size, y + 0.5 * s.size
        s.board.items.append(
            Shape(
                ((x, a), (x + wide * share, a), (x + wide * share, b), (x, b)),
                "measured",
                1.2,
                "panel",
                "right" if i else "left",
            )
        )
        off = row["major_error"]
        said = length_text(abs(off), 0.001, s.inch)
        s.board.text(
            (x + 0.5 * s.size, y + 1.1 * s.size),
            f"{'−' if off < 0 else '+'}{said} off its nominal",
            0.8 * s.size,
            "faint",
            "left",
        )
    decides = str(s.results.get("decides", ""))
    if decides:
        s.note(decides[:90], (s.board.width / 2, s.floor - 0.4 * s.size))


PICTURES = {
    "thread": thread,
    "tap-drill": tap_drill,
    "thread-wires": thread_wires,
    "pitch": pitch,
    "crest-flat": crest_flat,
    "thread-passes": thread_passes,
    "thread-dial": thread_dial,
    "change-gears": change_gears,
    "clearance-hole": clearance_hole,
    "ream-drill": ream_drill,
    "drill-steps": drill_steps,
    "hole-tap": hole_tap,
    "taper-pipe-thread": taper_pipe_thread,
    "screw-torque": screw_torque,
    "cap-screw": cap_screw,
    "nut": nut,
    "thread-engagement": thread_engagement,
    "thread-identify": thread_identify,
}
