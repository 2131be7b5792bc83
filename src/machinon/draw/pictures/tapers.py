"""Pictures of tapers: the plug, its setting, rollers, pins, sine bar, tailstock."""

import math

from machinon.core.tapers.tapers import Taper, taper_of
from machinon.core.threads.tapping import drill_named
from machinon.draw.sketch import Sketch


def _plug(s: Sketch, taper: Taper, length: float, large: float) -> tuple[float, float]:
    """A plug lying with its large end at the right; returns both radii."""
    small = max(large - taper.ratio * length, 0.0)
    a, b = small / 2, large / 2
    s.frame(-length * 0.1, -b, length * 1.15, b, (9.5, 5.0))
    s.shape([(0, -a), (length, -b), (length, b), (0, a)], hatch=False)
    s.shape([(0, 0), (length, 0), (length, b), (0, a)], hatch=True)
    s.line((-length * 0.08, 0), (length * 1.1, 0), "centre", 1.0)
    return a, b


def _extent(taper: Taper) -> tuple[float, float]:
    """Large end and length, mm; drawn at will where the taper has none."""
    large = taper.large or 25.0
    return large, taper.length or min(large * 2.5, 0.9 * large / taper.ratio)


def taper(s: Sketch) -> None:
    taper = taper_of(str(s.values["name"]))
    large, length = _extent(taper)
    a, b = _plug(s, taper, length, large)
    if taper.large:
        s.across("large_diameter", (length, -b), (length, b), 4.4, "large end")
    if taper.small:
        s.across("small_diameter", (0, -a), (0, a), -4.4, "small end")
    if taper.length:
        s.across("length", (0, b), (length, b), 2.0)
    x = s.p(length / 2, 0)[0]
    s.tell("half_angle", (x, s.p(0, 0)[1] - 1.4 * s.size), "half angle")
    foot = s.p(0, -b)[1] + 2.2 * s.size
    s.tell("included_angle", (x - 9 * s.size, foot), "included")
    s.tell("ratio", (x, foot), "ratio")
    s.tell("taper_per_foot", (x + 9 * s.size, foot), "per foot")
    s.tell("tang", (x - 9 * s.size, foot + 3.4 * s.size), "tang")
    s.tell("draw_bar", (x + 9 * s.size, foot + 3.4 * s.size), "draw bar")
    s.ask("name", (s.board.width * 0.12, 2.4 * s.size), "taper")


def taper_end(s: Sketch) -> None:
    taper = taper_of(str(s.values["taper"]))
    large, length = s.r("large_end"), s.r("long")
    a, b = _plug(s, taper, length, large)
    keys = (("large", "large_end"), ("small", "small_end"), ("length", "long"))
    at = {
        "large": ((length, -b), (length, b), 4.4),
        "small": ((0.0, -a), (0.0, a), -4.4),
        "length": ((0.0, b), (length, b), 2.0),
    }
    for given, found in keys:
        said = s.values.get(given) is not None
        s.across(given if said else found, *at[given])
        if said:
            s.needless(found)
    x = s.p(length / 2, 0)[0]
    s.tell("half_angle", (x, s.p(0, 0)[1] - 1.4 * s.size), "half angle")
    s.ask("taper", (s.board.width * 0.12, 2.4 * s.size), "taper")


def taper_angle(s: Sketch) -> None:
    large, small, length = s.v("large"), s.v("small"), s.v("length")
    taper = Taper("", (large - small) / length)
    a, b = _plug(s, taper, length, large)
    s.across("large", (length, -b), (length, b), 4.4)
    s.across("small", (0, -a), (0, a), -4.4)
    s.across("length", (0, b), (length, b), 2.0)
    x = s.p(length / 2, 0)[0]
    s.tell("half_angle", (x, s.p(0, 0)[1] - 1.4 * s.size), "half angle")
    foot = s.p(0, -b)[1] + 2.2 * s.size
    s.tell("ratio", (x - 10 * s.size, foot), "ratio")
    s.tell("nearest", (x, foot), "nearest named")
    s.tell("error_minutes", (x + 10 * s.size, foot), "minutes away")


def taper_setup(s: Sketch) -> None:
    taper = taper_of(str(s.values["taper"]))
    large, length = _extent(taper)
    method = s.values.get("method")
    if method == "sine":
        _sine_bar(s, s.r("angle"), s.v("sine_length"), "sine_length", "sine_stack")
        s.tell("angle", (s.board.width * 0.85, 2.6 * s.size))
    else:
        a, b = _plug(s, taper, length, large)
        x = s.p(length / 2, 0)[0]
        s.tell("angle", (x, s.p(0, 0)[1] - 1.4 * s.size), "half angle to set")
        if method == "tailstock":
            s.tell(
                "tailstock_offset",
                (s.p(length, 0)[0], s.p(0, -b)[1] + 2.4 * s.size),
                "set the tailstock over",
            )
            s.ask(
                "length_between_centres",
                (x, s.p(0, -b)[1] + 2.4 * s.size),
                "between centres",
            )
        elif s.has("travel"):
            # the indicator walks along the flank
            for share in (0.1, 0.9):
                y = a + (b - a) * share
                s.circle(
                    length * share, y + large * 0.22, large * 0.12, "measured", "ground"
                )
                s.line(
                    (length * share, y),
                    (length * share, y + large * 0.1),
                    "measured",
                    2.0,
                )
            s.across(
                "travel",
                (length * 0.1, b + large * 0.4),
                (length * 0.9, b + large * 0.4),
                1.0,
            )
            s.tell(
                "indicator_reading",
                (s.p(length, 0)[0] + 3 * s.size, s.p(0, b)[1] - s.size),
                "it rises",
                "left",
            )
            s.ask(
                "reading",
                (s.p(length, 0)[0] + 3 * s.size, s.p(0, 0)[1]),
                "read",
                "left",
            )
            s.tell(
                "correction_minutes",
                (x, s.p(0, -b)[1] + 2.4 * s.size),
                "turn the slide further, minutes",
            )
    s.ask("taper", (s.board.width * 0.1, 2.4 * s.size))
    s.ask("method", (s.board.width * 0.3, 2.4 * s.size))


def taper_advance(s: Sketch) -> None:
    taper = taper_of(str(s.values["taper"]))
    advance = s.r("advance")
    large = taper.large or 25.0
    length = max(taper.length or large * 2.5, advance * 2)
    length = min(length, 0.9 * large / taper.ratio + advance)
    a, b = _plug(s, taper, length, large)
    s.line((advance, a), (length + advance, b), "cut", 2.0)
    s.line((advance, -a), (length + advance, -b), "cut", 2.0)
    s.across("advance", (length, b), (length + advance, b), 2.4)
    x = s.p(length / 2, 0)[0]
    s.ask("diameter_change", (x, s.p(0, 0)[1] - 1.4 * s.size), "off the diameter")
    s.tell("radial_infeed", (x, s.p(0, 0)[1] + 2.4 * s.size), "infeed, radial")
    s.ask("taper", (s.board.width * 0.12, 2.4 * s.size))


def taper_over_rollers(s: Sketch) -> None:
    base, ratio, roller = s.r("diameter_at_base"), s.r("ratio"), s.v("roller")
    low, high = s.v("height_low"), s.v("height_high")
    tall = high + 2.2 * roller
    half = math.atan(ratio / 2)

    def at(height: float) -> float:
        return base / 2 + height * ratio / 2

    reach = at(tall) + 2.2 * roller
    s.frame(-reach, 0, reach, tall, (9, 3))
    s.shape([(-at(0), 0), (at(0), 0), (at(tall), tall), (-at(tall), tall)], hatch=True)
    s.line((-reach, 0), (reach, 0))
    s.line((0, -tall * 0.05), (0, tall * 1.05), "centre", 1.0)
    for height, role in ((low, "measured"), (high, "measured")):
        y = height + roller / 2
        x = at(y) + roller / 2 / math.cos(half)
        for side in (-1, 1):
            s.circle(side * x, y, roller / 2, role, "ground", 2.2)  # type: ignore[arg-type]
            if height > 0:
                s.box(
                    side * (x - roller * 0.6),
                    0,
                    side * (x + roller * 0.6),
                    height,
                    fill="none",
                )
    left, right = s.p(-reach, 0)[0] - 0.6 * s.size, s.p(reach, 0)[0] + 0.6 * s.size
    ylow, yhigh = s.p(0, low + roller / 2)[1], s.p(0, high + roller / 2)[1]
    s.ask("reading_low", (right, ylow), "over, low", "left")
    s.ask("reading_high", (right, yhigh), "over, high", "left")
    s.ask("height_low", (left, ylow), "blocks, low", "right")
    s.ask("height_high", (left, yhigh), "blocks, high", "right")
    middle = (ylow + yhigh) / 2
    s.tell("half_angle", (s.p(0, 0)[0], middle), "half angle")
    s.tell("diameter_at_base", (s.p(0, 0)[0], ylow + s.size), "at the base")
    s.tell("error_minutes", (s.p(0, 0)[0], yhigh), "minutes off")


def taper_pin(s: Sketch) -> None:
    length = s.v("length")
    large, small = s.r("large_diameter"), s.r("small_diameter")
    wide = large * 1.6
    s.frame(0, -wide, length, wide, (9, 3.4))
    for side in (-1, 1):
        s.shape(
            [
                (0, side * large / 2),
                (length, side * small / 2),
                (length, side * wide),
                (0, side * wide),
            ],
            hatch=True,
        )
    s.line((-length * 0.05, 0), (length * 1.05, 0), "centre", 1.0)
    for i, step in enumerate(s.results.get("drills") or []):
        r, depth = step["drill"] / 2, step["depth"]
        for side in (-1, 1):
            s.line((0, side * r), (depth, side * r), "cut", 1.8)
        s.line((depth, -r), (depth, r), "cut", 1.8)
        at = s.p(depth, 0)
        s.board.text(
            (at[0] - 2.6 * s.size, at[1] - (1.2 - 1.3 * (i % 2)) * s.size),
            drill_named(step["drill"]),
            s.size,
            "cut",
            backed=True,
        )
    s.across("large_diameter", (0, -large / 2), (0, large / 2), -3.8, "large end")
    s.across(
        "small_diameter", (length, -small / 2), (length, small / 2), 3.8, "small end"
    )
    s.across("length", (0, wide), (length, wide), 1.8)
    s.ask("pin", (s.board.width * 0.1, s.floor - 1.4 * s.size))
    s.note(
        "orange: step drills before the reamer",
        (s.board.width / 2, s.floor - 0.8 * s.size),
    )


def _sine_bar(
    s: Sketch, angle: float, length: float, length_key: str, stack_key: str
) -> None:
    a = math.radians(angle)
    r = length * 0.07
    stack = length * math.sin(a)
    s.frame(-2 * r, 0, length + 3 * r, max(stack + 3 * r, length * 0.35), (7, 3.6))
    s.line((-3 * r, 0), (length + 4 * r, 0))
    x, y = length * math.cos(a), r + stack
    s.box(x - 1.6 * r, 0, x + 1.6 * r, stack, hatch=True)
    up = (-math.sin(a) * r, math.cos(a) * r)
    s.shape(
        [
            (0 + 0.4 * up[0], r + 0.4 * up[1]),
            (x + 0.4 * up[0], y + 0.4 * up[1]),
            (x + 2 * up[0], y + 2 * up[1]),
            (2 * up[0], r + 2 * up[1]),
        ]
    )
    s.circle(0, r, r, "outline", "ground")
    s.circle(x, y, r, "outline", "ground")
    s.across(stack_key, (x + 1.6 * r, 0), (x + 1.6 * r, stack), 3.2, "stack")
    middle = s.p(x / 2 + 2 * up[0], (r + y) / 2 + 2 * up[1])
    s.ask(length_key, (middle[0], middle[1] - 1.8 * s.size), "between rollers")


def sine(s: Sketch) -> None:
    _sine_bar(s, s.v("angle"), s.v("length"), "length", "stack")
    s.ask("angle", (s.p(0, 0)[0] + 7 * s.size, s.p(0, 0)[1] - 1.4 * s.size))


def tailstock(s: Sketch) -> None:
    length, apart = s.v("length"), s.v("apart")
    # the taper is far too small to see: drawn enlarged, and said so
    big = s.v("diameter_a") or s.v("diameter_b") or 0.2 * apart
    lean = max(min(-s.r("difference") / big * 30, 0.35), -0.35)
    r = length * 0.12
    start = (length - apart) / 2
    s.frame(0, -2.2 * r, length, 2.2 * r, (6, 4))
    s.shape(
        [
            (start, -r * (1 + lean)),
            (start + apart, -r * (1 - lean)),
            (start + apart, r * (1 - lean)),
            (start, r * (1 + lean)),
        ]
    )
    s.line((-length * 0.03, 0), (length * 1.03, 0), "centre", 1.0)
    s.shape([(0, 0), (-r, r * 0.5), (-r, -r * 0.5)])
    s.shape([(length, 0), (length + r, r * 0.5), (length + r, -r * 0.5)])
    s.across("length", (0, 1.6 * r), (length, 1.6 * r), 2.0, "between centres")
    s.across("apart", (start, -r * 1.4), (start + apart, -r * 1.4), -1.6)
    y = s.p(0, 0)[1]
    s.ask("diameter_a", (s.p(start, 0)[0], y), "at the headstock")
    s.ask("diameter_b", (s.p(start + apart, 0)[0], y), "at the tailstock")
    s.ask("difference", (s.p(length / 2, 0)[0], y - 1.4 * s.size), "thicker there by")
    s.tell("move", (s.p(length, 0)[0], s.p(0, -2 * r)[1]), "move it")
    s.tell(
        "direction", (s.p(length, 0)[0], s.p(0, -2 * r)[1] + 2.8 * s.size), "which way"
    )
    s.note("taper drawn enlarged", (s.p(length / 2, 0)[0], s.p(0, 0)[1] + 1.4 * s.size))


def cam_nose(s: Sketch) -> None:
    """The nose from the front, and its taper from the side."""
    _flange, taper, circle = s.r("flange"), s.r("taper"), s.r("circle")
    studs, r = int(s.r("studs", 3)), s.r("flange") / 2
    beside = -2.5 * r  # of the section
    s.frame(beside - 0.5 * r, -r * 1.05, r * 1.9, r * 1.05, (9, 4.5))
    s.circle(0, 0, r)
    s.circle(0, 0, taper / 2)
    s.circle(0, 0, circle / 2, "centre", width=1.0)
    for n in range(studs):
        turn = math.radians(90 + 360 * n / studs)
        s.circle(circle / 2 * math.cos(turn), circle / 2 * math.sin(turn), 0.07 * r)
    small = taper / 2 - 0.125 * 0.2 * r
    for side in (-1, 1):
        s.shape(
            [
                (beside - 0.4 * r, side * r),
                (beside, side * r),
                (beside, side * taper / 2),
                (beside + 0.2 * r, side * small),
                (beside + 0.2 * r, side * 0.3 * r),
                (beside - 0.4 * r, side * 0.3 * r),
            ],
            hatch=True,
        )
    s.line((beside - 0.5 * r, 0), (beside + 0.3 * r, 0), "centre", 1.0)
    s.across("taper", (beside, -taper / 2), (beside, taper / 2), 5.0, "taper")
    s.across("flange", (r, -r), (r, r), 3.5, "flange")
    x, y = s.p(0, 0)
    s.tell("circle", (x, y - 1.6 * s.size), "on ⌀")
    s.tell("studs", (x, y + 1.9 * s.size), "studs")


PICTURES = {
    "cam-nose": cam_nose,
    "taper": taper,
    "taper-angle": taper_angle,
    "taper-end": taper_end,
    "taper-setup": taper_setup,
    "taper-advance": taper_advance,
    "taper-over-rollers": taper_over_rollers,
    "taper-pin": taper_pin,
    "sine": sine,
    "tailstock": tailstock,
}
