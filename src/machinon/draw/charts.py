"""The charts at the machine: sneaking up on a size, and the run-out rose."""

import math
from collections.abc import Sequence

from machinon.core.cutting.coach import Advice
from machinon.core.cutting.cut_state import CutState
from machinon.core.quantity import length_text, small_text
from machinon.core.setting_out.runout import Runout
from machinon.draw.drawing import Board, Circle, Drawing, Line, Mark, Role, Shape


def sneak_up_drawing(
    state: CutState,
    advice: Advice,
    width: float,
    height: float,
    size: float = 15.0,
    inch: bool = False,
    zone: str = "band",
) -> Drawing:
    """Cut by cut towards the band: dots are measured, the open mark is expected.

    The height is stretched near the band (a square-root scale), so that both
    the first cut and the last micron can be seen; the band is hatched, and called
    what `zone` says.
    """
    size = min(size, width / 25)  # letters give way before a figure is cut
    board = Board(width, height, size)
    if state.start is None:
        return board.done()
    sign = 1 if state.external else -1
    points = [("start", state.start)]
    for number, entry in enumerate(state.entries, 1):
        if entry.measured is not None:
            points.append((str(number), entry.measured))
    expected = advice.predicted if advice.infeed > 0 else None
    far = max(
        [abs(v - state.aim) for _, v in points] + [state.upper - state.lower, 0.02]
    )
    left, right = 7.5 * size, width - 5.5 * size
    top, bottom = 1.6 * size, height - 2.4 * size
    zero = top + (bottom - top) * 0.72  # the aim: room below for what is past

    def y(value: float) -> float:
        off = sign * (value - state.aim) / far
        up = (zero - top) if off >= 0 else (bottom - zero)
        return zero - math.copysign(math.sqrt(min(abs(off), 1.0)), off) * up

    a, b = sorted((y(state.upper), y(state.lower)))
    board.items.append(
        Shape(
            ((left, a), (right, a), (right, b), (left, b)), "cut", 1.6, "panel", "right"
        )
    )
    past = state.lower if state.external else state.upper
    for value in (state.upper, state.lower):
        limit: Role = "stop" if value == past else "cut"
        board.line((left, y(value)), (right, y(value)), limit, 2.2)
        at = a - size * 0.5 if y(value) == a else b + size * 0.6
        board.text(
            (left - 8, at),
            length_text(value, 0.001, inch, unit=False),
            size * 0.9,
            limit,
            "right",
        )
    count = len(points) + (1 if expected is not None else 0)
    step = (right - left - 2 * size) / max(count - 1, 1)
    xs = [left + size + i * min(step, 9 * size) for i in range(count)]
    for i, (label, value) in enumerate(points):
        if i:
            board.line(
                (xs[i - 1], y(points[i - 1][1])), (xs[i], y(value)), "measured", 2
            )
        board.text((xs[i], bottom + size * 1.2), label, size * 0.85, "faint")
        board.items.append(Mark((xs[i], y(value)), "measured", size * 0.75))
    last = points[-1][1]
    board.text(
        (xs[len(points) - 1] + size * 0.9, y(last) - size * 0.7),
        length_text(last, 0.001, inch, unit=False),
        size,
        "measured",
        "left",
        backed=True,
    )
    if expected is not None:
        x = xs[-1]
        board.items.append(Line((xs[-2], y(last)), (x, y(expected)), "cut", 1.4))
        board.line(
            (x, y(expected - 2 * advice.sigma)),
            (x, y(expected + 2 * advice.sigma)),
            "cut",
            1.4,
        )
        board.items.append(Mark((x, y(expected)), "cut", size * 0.85))
        board.text(
            (x + size * 0.9, y(expected) - size * 0.7),
            length_text(expected, 0.001, inch, unit=False),
            size,
            "cut",
            "left",
            backed=True,
        )
        board.text((x, bottom + size * 1.2), "next", size * 0.85, "cut")
    at = (a + b) / 2
    # the last figure may reach out to here: what the zone is makes way for it
    figure = y(expected if expected is not None else last) - size * 0.7
    if xs[-1] + 4.5 * size > right and -2.6 * size < figure - at < 2.2 * size:
        at = figure - 2.6 * size if figure > at else figure + 1.6 * size
    board.text((right + 8, at), zone, size * 0.9, "cut", "left")
    board.text(
        (right + 8, at + size * 1.1),
        small_text(state.upper - state.lower, inch),
        size * 0.8,
        "faint",
        "left",
    )
    return board.done()


def rose_drawing(
    readings: Sequence[float],
    found: Runout | None,
    limit: float,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
    share: float = 1.0,
) -> Drawing:
    """Run-out round a turn, much enlarged: readings, fitted curve, high side.

    share: how much of the width the rose may take, in the middle of it.
    """
    board = Board(width, height, size)
    x, y = width / 2, height / 2
    radius = min(share * width, height) / 2 - 3.4 * size
    if radius <= 0:
        return board.done()
    mean = found.mean if found else (sum(readings) / len(readings) if readings else 0.0)
    reach = max([abs(v - mean) for v in readings] + [limit / 2, 0.002])
    base, swing = radius * 0.62, radius * 0.34

    def at(angle: float, value: float) -> tuple[float, float]:
        r = base + (value - mean) / reach * swing
        return (
            x + r * math.cos(math.radians(angle)),
            y - r * math.sin(math.radians(angle)),
        )

    board.items.append(Circle((x, y), base, "centre", 1.0))
    half = min(limit / 2 / reach, 1.2) * swing
    for r in (base - half, base + half):
        board.items.append(Circle((x, y), r, "cut", 1.0))
    for i in range(0, 360, 45):
        end = radius + 2
        board.line(
            (x + end * math.cos(math.radians(i)), y - end * math.sin(math.radians(i))),
            (
                x + (end + 6) * math.cos(math.radians(i)),
                y - (end + 6) * math.sin(math.radians(i)),
            ),
            "thin",
            1.0,
        )
        away = radius + 1.6 * size
        board.text(
            (
                x + away * math.cos(math.radians(i)),
                y - away * math.sin(math.radians(i)),
            ),
            f"{i}°",
            size * 0.8,
            "faint",
        )
    if found is not None:
        curve = tuple(at(a, found.at(a)) for a in range(0, 361, 4))
        board.items.append(Shape(curve, "measured", 2.0, closed=False))
    for i, value in enumerate(readings):
        board.items.append(
            Mark(at(360 * i / len(readings), value), "measured", size * 0.6)
        )
    if found is not None and found.eccentricity > 0.0002:
        a = math.radians(found.phase)
        tip = (x + base * 0.8 * math.cos(a), y - base * 0.8 * math.sin(a))
        board.line((x, y), tip, "stop" if found.tir > limit else "proved", 2.4)
        board.arrow(tip, (x, y), "stop" if found.tir > limit else "proved")
        # beside the arrow, from its middle on
        along = x + 0.42 * (tip[0] - x), y + 0.42 * (tip[1] - y)
        steep = abs(math.sin(a)) > abs(math.cos(a))
        board.text(
            (along[0] + 0.6 * size, along[1]) if steep else (along[0], along[1] - size),
            "high side",
            size * 0.85,
            "text",
            "left" if steep else "centre",
            backed=True,
        )
    return board.done()


def readings_drawing(
    values: Sequence[float],
    struck: Sequence[bool],
    doubted: Sequence[bool],
    size_found: float,
    uncertainty: float,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """Readings in the order taken, about their mean; hatched: the doubt of the size.

    values, struck, doubted: (n,), mm; a reading that is struck, or set apart
    because it disagrees, is drawn at the edge with its figure, so that it does not
    flatten the others.
    """
    board = Board(width, height, size)
    apart = [a or b for a, b in zip(struck, doubted, strict=True)]
    if all(apart):
        apart = list(struck)
    counted = [v for v, out in zip(values, apart, strict=True) if not out]
    reach = max([abs(v - size_found) for v in counted] + [1.6 * uncertainty, 0.001])
    left, right = 5.2 * size, width - 5.4 * size
    top, bottom = 1.2 * size, height - 2.2 * size
    middle = (top + bottom) / 2

    def y(value: float) -> float:
        share = max(-1.15, min(1.15, (value - size_found) / reach))
        return middle - share * (bottom - top) / 2 / 1.15

    high, low = y(size_found + uncertainty), y(size_found - uncertainty)
    board.items.append(
        Shape(
            ((left, high), (right, high), (right, low), (left, low)),
            "measured",
            1.0,
            "panel",
            "left",
        )
    )
    board.line((left, middle), (right, middle), "measured", 2.2)
    board.text(
        (right + 8, middle),
        length_text(size_found, 0.001, inch, unit=False),
        size,
        "measured",
        "left",
        bold=True,
    )
    for value, at in ((uncertainty, high), (-uncertainty, low)):
        board.text(
            (left - 8, at),
            small_text(value, inch, signed=True),
            size * 0.85,
            "faint",
            "right",
        )
    step = (right - left) / (len(values) + 1)
    step = min(step, 9 * size)
    for i, value in enumerate(values):
        spot = (left + step * (i + 1), y(value))
        board.text((spot[0], bottom + size * 1.2), str(i + 1), size * 0.85, "faint")
        if struck[i] or doubted[i]:
            board.items.append(Mark(spot, "stop", size * 0.9))
            board.text(
                (spot[0] + size * 0.8, spot[1]),
                length_text(value, 0.001, inch, unit=False)
                + (" struck" if struck[i] else " set apart" if apart[i] else ""),
                size * 0.85,
                "stop",
                "left",
                backed=True,
            )
        else:
            board.items.append(Mark(spot, "measured", size * 0.8))
    return board.done()
