"""Pictures of setting up: head, vise, packing, a steady, rough stock."""

import math

from machinon.core.quantity import small_text
from machinon.draw.sketch import Sketch

MOST_LINES = 125  # of a dial that the eye can tell apart
STEEP = 0.14  # a lean as it is drawn: the true one is far too small to see


def fine_feed(s: Sketch) -> None:
    """From above: the work, and the topslide's way to it, steeper than it is."""
    angle = math.radians(max(s.v("angle"), 25.0))
    s.frame(-1.2, -1.2, 1.2, 0.7, (7, 3))
    s.box(-1.2, 0, 0.7, 0.6, hatch=True)
    s.line((-1.3, 0.3), (1.2, 0.3), "centre", 1.0)
    tip = (0.1, -0.02)
    long = min(1.0, 1.1 / math.sin(angle))
    start = (tip[0] + long * math.cos(angle), tip[1] - long * math.sin(angle))
    s.line(start, tip, "cut", 2.4)
    s.board.arrow(s.p(*tip), s.p(*start), "cut")
    s.line((start[0] - 0.9, start[1]), start, "thin", 1.0)
    s.arc(*start, 0.5, 180 - math.degrees(angle), 180, "measured", 1.4)
    x, y = s.p(*start)
    s.ask("angle", (s.p(start[0] - 0.75, 0)[0], y + 2.6 * s.size), "to the bed")
    s.ask("travel", (x + s.size, y), "topslide", "left")
    left = s.p(-1.2, 0)[0] - s.size
    s.ask("off", (left, s.p(0, 0)[1]), "off the diameter", "right")
    right = s.p(1.2, 0)[0]
    s.tell("a_line", (right, s.p(0, 0.5)[1]), "a line takes off", "left")
    s.tell("along", (right, s.p(0, 0.5)[1] + 3.4 * s.size), "along", "left")


def indicator_angle(s: Sketch) -> None:
    """The lever on the surface, as steep as it stands."""
    angle = math.radians(s.v("angle"))
    s.frame(-0.5, -0.3, 1.4, 1.15, (7, 3))
    s.box(-0.4, -0.25, 1.2, 0, hatch=True)
    ball = 0.045
    tip = (0.15, ball)
    pivot = (tip[0] + 0.8 * math.cos(angle), tip[1] + 0.8 * math.sin(angle))
    s.line(tip, pivot, "cut", 3.0)
    s.circle(*tip, ball, "cut", "panel")
    s.circle(*pivot, 0.13, "outline", "panel")
    s.line((tip[0], ball), (1.2, ball), "thin", 1.0)
    if angle:
        s.arc(*tip, 0.45, 0, math.degrees(angle), "measured", 1.4)
    right = s.p(1.2, 0)[0] + s.size
    s.ask("angle", (right, s.p(0, 0.2)[1]), "angle", "left")
    s.ask("reading", (s.p(*pivot)[0], s.p(*pivot)[1] - 4.2 * s.size), "reading")
    left = s.p(-0.4, 0)[0] - s.size
    y = s.p(0, 0.5)[1]
    for i, (key, name) in enumerate(
        (
            ("moved", "the surface moved"),
            ("too_much", "too much"),
            ("reads_true", "true"),
        )
    ):
        s.tell(key, (left + 5 * s.size, y + 3.4 * (i - 1) * s.size), name)


def _drawn(value: float) -> float:
    return math.copysign(STEEP, value) if abs(value) > 1e-9 else 0.0


def head_tram(s: Sketch) -> None:
    """The head from the front over its table, the sweep from above beside it."""
    wide = s.v("sweep")
    lean = _drawn(s.r("across"))
    s.frame(-wide, -wide * 0.15, wide * 3.0, wide * 1.3, (5, 6))
    s.box(-wide * 0.9, -wide * 0.1, wide * 0.9, 0, hatch=True)
    # left nearer: the top leans to the left, its sweep stands low at the left
    up = (-math.sin(lean), math.cos(lean))
    over = (math.cos(lean), math.sin(lean))
    foot = wide * 0.25
    s.line(
        (-over[0] * wide / 2, foot - over[1] * wide / 2),
        (over[0] * wide / 2, foot + over[1] * wide / 2),
        "measured",
        2.0,
    )
    half, top = wide * 0.16, wide * 0.9
    base = wide * 0.45
    corners = ((-half, base), (half, base), (half, top), (-half, top))
    s.shape(
        [
            (x * over[0] + (y - foot) * up[0], foot + x * over[1] + (y - foot) * up[1])
            for x, y in corners
        ],
        hatch=False,
    )
    s.line((0, foot), (up[0] * wide, foot + up[1] * wide), "centre", 1.0)
    s.line((0, 0), (0, wide * 1.1), "centre", 0.8)
    s.ask("left", s.p(-wide * 0.75, wide * 0.45), "left")
    s.ask("right", s.p(wide * 0.75, wide * 0.45), "right")
    s.tell("across_angle", s.p(0, wide * 1.3), "turn by")
    s.tell("across_to", s.p(-wide * 0.75, wide * 0.95), "both read then")
    # from above
    x, y, r = wide * 2.1, wide * 0.55, wide * 0.42
    s.circle(x, y, r, "measured")
    s.cross(x, y, r * 0.3)
    s.ask("sweep", s.p(x, y), "swept")
    s.put("back", s.p(x, y + r * 1.35), "back")
    s.put("front", s.p(x, y - r * 1.35), "front")
    s.tell("along_angle", s.p(x + r * 1.7, y + r * 0.5), "tip by")
    s.tell("along_to", s.p(x + r * 1.7, y - r * 0.6), "both read then")


def vise_tram(s: Sketch) -> None:
    """The vise from above, its fixed jaw leaning against the table's way."""
    travel, jaw = s.v("travel"), s.v("jaw")
    long = max(travel * 1.3, jaw)
    lean = -_drawn(s.r("slope"))
    s.frame(-long * 0.7, -long * 0.55, long * 0.7, long * 0.5, (6, 5))
    turn = (math.cos(lean), math.sin(lean))

    def at(x: float, y: float) -> tuple[float, float]:
        return x * turn[0] - y * turn[1], x * turn[1] + y * turn[0]

    half = long / 2
    for low, high in ((0.0, long * 0.14), (-long * 0.42, -long * 0.26)):
        s.shape([at(-half, low), at(half, low), at(half, high), at(-half, high)])
    s.line((-long * 0.68, 0), (long * 0.68, 0), "centre", 1.0)
    s.across("travel", (-travel / 2, 0), (travel / 2, 0), 4.2, "table moved")
    s.ask("first", s.p(-long * 0.52, -long * 0.13), "first")
    s.ask("last", s.p(long * 0.52, -long * 0.13), "last")
    s.tell("tap", s.p(0, -long * 0.13), "tap its end by")
    s.ask("jaw", s.p(0, -long * 0.55), "bolt to where it is tapped")


def packing(s: Sketch) -> None:
    """The piece from above, each support with its shim."""
    s.frame(-1.2, -0.9, 1.2, 0.9, (8, 4))
    s.box(-1.0, -0.6, 1.0, 0.6, hatch=False)
    places = ((-1, -0.6), (1, -0.6), (1, 0.6), (-1, 0.6))
    shims = s.results.get("shims") or []
    for (x, y), shim in zip(places, shims, strict=False):
        s.circle(x * 0.86, y * 0.8, 0.06, "cut")
        page = s.p(x * 0.5, y * 0.72)
        s.board.text(
            page,
            small_text(shim["shim"], s.inch),
            s.size,
            "measured",
            bold=True,
            backed=True,
        )
        s.note("shim", (page[0], page[1] - 1.2 * s.size))
    s.ask("readings", s.p(0, 0.06))
    s.tell("twist", s.p(0, -0.9), "twist")


def steady_centre(s: Sketch) -> None:
    """The bar from the side, in chuck and steady: its end where the steady has it."""
    long = s.v("apart")
    r = long * 0.09
    lift = _drawn(s.r("lower")) * long * 0.35
    s.frame(-long * 0.25, -long * 0.35, long * 1.2, long * 0.35, (5, 4))
    s.box(-long * 0.2, -long * 0.16, -long * 0.02, long * 0.16, hatch=True)
    s.shape([(0, -r), (long, lift - r), (long, lift + r), (0, r)])
    s.line((-long * 0.22, 0), (long * 1.15, 0), "centre", 1.0)
    for turn in (90.0, 210.0, 330.0):
        x, y = long * 0.95, lift
        out = math.sin(math.radians(turn))
        s.line((x, y + r * out), (x, y + 2.6 * r * out), "cut", 4.0)
    s.ask("top_chuck", s.p(long * 0.06, r * 2.6), "top")
    s.ask("top_steady", s.p(long * 0.72, lift + r * 2.6), "top")
    s.ask("side_chuck", s.p(long * 0.06, -r * 2.6), "side")
    s.ask("side_steady", s.p(long * 0.72, lift - r * 2.6), "side")
    s.across("apart", (0, -r), (long * 0.95, -r), -5.5)
    right = s.p(long * 1.08, 0)[0]
    s.tell("lower", (right, s.p(0, r * 2)[1]), "lower it by", "left")
    s.tell("away", (right, s.p(0, -r * 2)[1]), "push it away by", "left")


def eccentric_packing(s: Sketch) -> None:
    """The bar in three jaws, from the end: packing under the uppermost."""
    r, throw, packing = s.v("diameter") / 2, s.v("throw"), s.r("packing")
    half = (s.v("jaw") or 0.9 * r) / 2
    bears = r - throw + packing  # of every jaw's face, from the spindle's axis
    reach = bears + 0.6 * r
    s.frame(-1.2 * reach, -0.8 * reach, 1.2 * reach, reach, (3, 2))
    corners = ((bears, -half), (reach, -half), (reach, half), (bears, half))
    for turn in map(math.radians, (90.0, 210.0, 330.0)):
        x, y = math.cos(turn), math.sin(turn)
        s.shape([(x * a - y * b, y * a + x * b) for a, b in corners], hatch=True)
    s.circle(0, -throw, r, "outline", "panel")
    s.box(-half, bears - packing, half, bears, fill="ground", role="cut")
    s.cross(0, 0, 0.35 * r)
    s.cross(0, -throw, 0.35 * r)
    s.across("throw", (0, 0), (0, -throw), 4.0)
    x, y = s.p(half, bears - packing / 2)
    s.tell("packing", (x + s.size, y - s.size), "packing", "left")
    s.ask("diameter", s.p(0.0, -throw - 0.6 * r), "⌀ of the bar")
    left = s.p(-1.2 * reach, 0)[0]
    s.ask("jaw", (left, s.p(0, 0.85 * reach)[1]), "width of a jaw", "left")
    s.tell("indicator", (left, s.p(0, 0.45 * reach)[1]), "indicator reads", "left")
    s.tell("corrected", (left, s.p(0, 0.1 * reach)[1]), "packing instead", "left")


def cleans_up(s: Sketch) -> None:
    """The rough round from the end, off the spindle's middle; what is turned in it."""
    bored = s.v("size") > s.v("stock")
    big = max(s.v("stock"), s.v("size")) / 2
    off, comes_off = s.v("run_out") / 2, abs(s.v("stock") - s.v("size")) / 2
    # both drawn larger alike, so that the eye sees on which side metal is left
    seen = max(1.0, big * 0.14 / max(off, comes_off))
    small = max(big - seen * comes_off, big * 0.3)
    s.frame(-big * 1.75, -big * 1.25, big * 1.75, big * 1.25, (4, 3))
    s.circle(seen * off, 0, small if bored else big, "outline", "panel")
    s.circle(0, 0, big if bored else small, "cut")
    s.cross(0, 0, big * 0.25)
    side = big * 1.3
    s.ask("stock", s.p(0, big * 1.15), "rough")
    s.ask("size", s.p(0, -big * 0.55), "to be")
    s.ask("run_out", s.p(0, big * 0.5), "indicator swings")
    s.ask("skin", s.p(0, -big * 1.15), "skin")
    left, right = s.p(-side, 0)[0], s.p(side, 0)[0]
    # a bore takes least where the rough hole reaches out furthest
    low, high = (right, left) if bored else (left, right)
    s.tell("least", (low, s.p(0, 0)[1]), "comes off",
           "right" if low == left else "left")  # fmt: skip
    s.tell("most", (high, s.p(0, 0)[1]), "comes off",
           "left" if high == right else "right")  # fmt: skip
    s.tell("spare", (left, s.p(0, big * 0.8)[1]), "sound, at least", "right")
    s.tell("run_out_most", (right, s.p(0, big * 0.8)[1]), "may swing", "left")
    s.tell("stock_needed", (right, s.p(0, -big * 0.8)[1]), "stock needed", "left")


def dial_turns(s: Sketch) -> None:
    """The dial from its handle's side: where it stands now, and then."""
    turn, line = s.v("turn"), s.v("division")
    if turn <= 0 or line <= 0:
        return
    s.frame(-1.1, -1.25, 1.1, 1.2, (9, 2.6))
    s.circle(0, 0, 1.0, "outline", "panel")
    s.circle(0, 0, 0.3, "thin")
    lines = turn / line
    every = (
        1 if lines <= MOST_LINES else 10 ** math.ceil(math.log10(lines / MOST_LINES))
    )

    def at(reading: float, far: float) -> tuple[float, float]:
        a = math.pi / 2 - 2 * math.pi * reading / turn
        return far * math.cos(a), far * math.sin(a)

    for i in range(math.ceil(lines / every - 1e-6)):
        tall = 0.86 if i % 10 == 0 else 0.91 if i % 5 == 0 else 0.95
        s.line(at(i * every * line, tall), at(i * every * line, 1.0), "outline", 1.2)
    start, reads = s.v("start"), s.r("reads")
    s.line(at(start, 0.3), at(start, 0.82), "measured", 1.6)
    s.line(at(reads, 0.3), at(reads, 0.98), "cut", 2.6)
    left, right, y = s.p(-1.25, 0)[0], s.p(1.25, 0)[0], s.p(0, 0)[1]
    s.ask("travel", (left, y - 3 * s.size), "to wind", "right")
    s.ask("dial", (left, y), "it counts", "right")
    s.ask("start", (left, y + 3 * s.size), "stands at", "right")
    s.ask("turn", (right, y - 5 * s.size), "one turn", "left")
    s.ask("division", (right, y - 2.2 * s.size), "one line", "left")
    s.tell("turns", (right, y + 0.8 * s.size), "whole turns", "left")
    s.tell("lines", (right, y + 3 * s.size), "lines more", "left")
    s.tell("reads", (right, y + 5.2 * s.size), "it then reads", "left")
    s.tell("short", s.p(0, -1.25), "short by")


def centre_drill(s: Sketch) -> None:
    """The end of the bar cut open, its centre hole with the mouth and the pilot."""
    mouth, pilot = s.r("mouth", 6.0), s.r("pilot", 2.5)
    cone = s.r("cone", 2.0)
    bar = s.v("bar", 3.3 * mouth)
    r, deep = bar / 2, cone + 1.3 * pilot
    s.frame(-0.2 * bar, -0.7 * bar, 1.1 * bar, 0.7 * bar)
    for side in (-1, 1):
        inner = [(0, side * mouth / 2), (cone, side * pilot / 2),
                 (deep, side * pilot / 2), (deep, 0), (bar, 0)]  # fmt: skip
        s.shape([*inner, (bar, side * r), (0, side * r)], hatch=True)
    s.line((-0.1 * bar, 0), (1.05 * bar, 0), "centre", 1.0)
    s.across("bar", (bar, -r), (bar, r), 2.6)
    x, y = s.p(0, 0)
    s.tell("mouth", (x - s.size, y), "across its mouth", "right")
    x = (s.p(0, 0)[0] + s.p(bar, 0)[0]) / 2
    s.tell("metric", (x, s.p(0, r)[1] - 2.2 * s.size), "by its pilot and body")
    s.tell("inch", (x, s.p(0, -r)[1] + 2.4 * s.size), "or by its number")


PICTURES = {
    "dial-turns": dial_turns,
    "fine-feed": fine_feed,
    "indicator-angle": indicator_angle,
    "centre-drill": centre_drill,
    "eccentric-packing": eccentric_packing,
    "head-tram": head_tram,
    "vise-tram": vise_tram,
    "packing": packing,
    "steady-centre": steady_centre,
    "cleans-up": cleans_up,
}
