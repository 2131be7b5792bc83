"""Gauge pictures: a fit's bands to scale, the readings on them, what is left."""

from machinon.core.fits.meeting import Band
from machinon.core.job.fit_plan import FitPlan
from machinon.core.quantity import (
    ANGLE,
    INCH,
    angle_text,
    length_range,
    length_text,
    small_text,
)
from machinon.draw.drawing import Board, Circle, Drawing, Mark, Role, Shape
from machinon.draw.lettering import text_width


def gauge_drawing(
    fit: FitPlan,
    readings: tuple[float, ...],
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """The picture of a fit, to scale up the page; bigger sizes are higher.

    readings: those of the existing half that count, mm.
    """
    # letters give way before a figure is cut; but what stands below has the whole width
    size, large = min(size, width / 27), min(size, width / 18, height / 22)
    below = fit.choice.kind == "bolts" and large > size
    board = Board(width, height, large if below else size)
    if fit.mate is None or fit.problem:
        return board.done()
    if fit.choice.kind == "joined":
        if fit.joined is not None:
            # what a sum makes of a reading is not where the reading lies
            shown = () if fit.mate.says else readings
            _rows(board, fit.joined.bands, shown, inch)
        return board.done()
    if fit.band is None:
        return board.done()
    if fit.choice.kind == "cylinder":
        _cylinder(board, fit, readings, inch)
    elif fit.choice.kind == "thread":
        _thread(board, fit, inch)
    else:
        _bolts(board, fit, inch, below)
    return board.done()


class _Scale:
    """Turns sizes into heights on the board, a margin kept above and below."""

    def __init__(
        self, board: Board, low: float, high: float, head: float = 3.0
    ) -> None:
        span = max(high - low, 0.002)
        self.low, self.high = low - 0.12 * span, high + 0.12 * span
        self.top = head * board.size
        self.bottom = board.height - 2.2 * board.size

    def y(self, value: float) -> float:
        share = (value - self.low) / (self.high - self.low)
        return self.bottom - share * (self.bottom - self.top)

    @property
    def per_micron(self) -> float:
        return (self.bottom - self.top) / (self.high - self.low) / 1000


def _ruler(board: Board, scale: _Scale, x: float, zero: float, inch: bool) -> None:
    """A rule in µm, or tenths of a thou, with steps of 1, 2 or 5, so that the eye has
    a scale."""
    unit, parts = ("thou", INCH / 10_000) if inch else ("µm", 0.001)
    want = 4.2 * board.size / (scale.per_micron * 1000 * parts)
    step = next(
        (s for s in (1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000) if s >= want), 5000
    )
    board.line((x, scale.top), (x, scale.bottom), "thin", 1.0)
    first = int((scale.low - zero) / parts // step) * step
    for at in range(first, int((scale.high - zero) / parts) + step, step):
        y = scale.y(zero + at * parts)
        if scale.top <= y <= scale.bottom:
            board.line((x - 5, y), (x, y), "thin", 1.0)
            said = f"{at / 10:+g}" if inch else f"{at:+d}"
            board.text(
                (x - 9, y),
                said.replace("-", "−") if at else "0",
                board.size * 0.8,
                "faint",
                "right",
            )
    board.text(
        (x - 9, scale.top - 1.1 * board.size), unit, board.size * 0.8, "faint", "right"
    )


def _band(
    board: Board,
    x: float,
    width: float,
    low: float,
    high: float,
    scale: _Scale,
    role: Role,
    hatch: bool,
) -> None:
    a, b = scale.y(high), scale.y(low)
    board.items.append(
        Shape(
            ((x, a), (x + width, a), (x + width, b), (x, b)),
            role,
            1.8,
            "panel",
            "right" if hatch else "",
        )
    )


def _figure(board: Board, x: float, y: float, text: str, role: Role) -> None:
    board.text((x, y), text, board.size, role, "left", backed=True)


def _cylinder(
    board: Board, fit: FitPlan, readings: tuple[float, ...], inch: bool
) -> None:
    assert fit.mate is not None
    assert fit.band is not None
    mate, band, size = fit.mate, fit.band, board.size
    low, high = float(band["lower"]), float(band["upper"])
    sign = -1 if fit.choice.exists == "hole" else 1
    # what the fit alone would allow, before the doubt is taken off
    wide = sorted(
        (
            mate.size + sign * band["clearance_min"],
            mate.size + sign * band["clearance_max"],
        )
    )
    made = [fit.made] if fit.made is not None else []
    edges = [mate.lower, mate.upper, low, high, *wide, *readings]
    span = max(edges) - min(edges)
    # a size typed far off is named, not allowed to shrink the picture
    edges += [m for m in made if min(edges) - span < m < max(edges) + span]
    scale = _Scale(board, min(edges), max(edges))
    left = 4.6 * size
    column = max((board.width - left - 2 * size) / 2, 8 * size)
    bar = min(column * 0.34, 7 * size)
    _ruler(board, scale, left, mate.size, inch)
    names = ("slot", "tongue") if fit.choice.joint == "slot" else ("hole", "shaft")
    has, wants = names if fit.choice.exists == "hole" else names[::-1]
    x0, x1 = left + 1.5 * size, left + 1.0 * size + column
    board.text(
        (x0, size * 1.1),
        f"{'As drawn' if mate.drawn else 'Measured'}: {has}",
        size,
        "measured",
        "left",
        bold=True,
    )
    board.text(
        (x1, size * 1.1),
        f"To make: {wants}",
        size,
        "cut",
        "left",
        bold=True,
    )
    _band(board, x0, bar, mate.lower, mate.upper, scale, "measured", False)
    y = scale.y(mate.size)
    board.line((x0 - 6, y), (x0 + bar + 6, y), "measured", 2.4)
    spread = bar / (len(readings) + 1) if readings else bar
    for i, value in enumerate(readings):
        board.items.append(
            Circle(
                (x0 + spread * (i + 1), scale.y(value)),
                size * 0.24,
                "measured",
                1.4,
                "ground",
            )
        )
    tx = x0 + bar + 10
    _figure(board, tx, y, length_text(mate.size, 0.001, inch), "measured")
    board.text(
        (tx, y + size * 1.15),
        f"± {small_text(mate.uncertainty, inch)}",
        size * 0.85,
        "faint",
        "left",
        backed=True,
    )
    # the doubt that the mate costs, then what is left
    board.items.append(
        Shape(
            tuple(
                (x, scale.y(v))
                for x, v in (
                    (x1, wide[1]),
                    (x1 + bar, wide[1]),
                    (x1 + bar, wide[0]),
                    (x1, wide[0]),
                )
            ),
            "faint",
            1.0,
            "none",
        )
    )
    tx = x1 + bar + 10
    if band["band"] > 0:
        _band(board, x1, bar, low, high, scale, "cut", True)
        gap = abs(scale.y(low) - scale.y(high))
        up, down = scale.y(high), scale.y(low)
        if gap < 3.2 * size:  # keep the three figures apart
            middle = (up + down) / 2
            up, down = middle - 1.6 * size, middle + 1.6 * size
            board.line((x1 + bar, scale.y(high)), (tx - 2, up), "thin", 0.8)
            board.line((x1 + bar, scale.y(low)), (tx - 2, down), "thin", 0.8)
        _figure(board, tx, up, length_text(high, 0.001, inch), "cut")
        _figure(board, tx, down, length_text(low, 0.001, inch), "cut")
        _figure(
            board, tx, (up + down) / 2, f"{small_text(band['band'], inch)} wide", "text"
        )
    else:
        y = scale.y((low + high) / 2)
        board.items.append(Mark((x1 + bar / 2, y), "stop", size * 1.4))
        _figure(board, tx, y, "nothing left", "stop")
    for m in made:
        bad = bool(fit.contradiction)
        y = min(max(scale.y(m), scale.top), scale.bottom)
        board.items.append(
            Mark((x1 - size * 0.9, y), "stop" if bad else "cut", size * 0.9)
        )
        if bad:
            board.text(
                (x1 + bar / 2, y + size * (1.1 if y < scale.top + size else -0.9)),
                "drawn " + length_text(m, 0.001, inch),
                size * 0.9,
                "stop",
                backed=True,
            )
    board.text(
        (board.width / 2, board.height - size * 0.8),
        "frame: what the fit allows; hatched: left after the mate's uncertainty",
        size * 0.85,
        "faint",
    )


def _rows(
    board: Board, bands: tuple[Band, ...], readings: tuple[float, ...], inch: bool
) -> None:
    """Bands one under the other, each about its own middle, to one scale.

    readings: those of the measured half, mm, laid on its band.

    A band far wider than the narrowest would leave that one a line: it is
    drawn to a scale of its own, and says so.
    """
    size = board.size
    widths = [band.width for band in bands if band.width > 0 and band.kind is not ANGLE]
    widest = max((width for width in widths if width <= 12 * min(widths)), default=0.01)
    row = (board.height - 1.4 * size) / max(len(bands), 1)
    left, right = 12.5 * size, board.width - 12.5 * size
    middle, half = (left + right) / 2, max((right - left) / 2, 2 * size)
    board.line((middle, 0.4 * size), (middle, board.height - size), "centre", 1.0)
    for i, band in enumerate(bands):
        y = (i + 0.62) * row + 0.5 * size
        role: Role = "measured" if band.measured else "cut"
        own = band.kind is ANGLE or band.width > widest
        wide = ""
        if band.kind is not ANGLE and band.width > 0:
            wide = small_text(band.width, inch) + " wide"
            wide += ", own scale" if own else ""
        # name and width stand in one line, smaller where it is short
        need = text_width(band.name + wide, 0.85 * size) + 2 * size
        words = 0.85 * size * min(1.0, board.width / need)
        above = y - min(1.25 * size, 0.4 * row)
        at = (size * 0.5, above)
        board.text(at, band.name, words, "faint", "left", backed=True)
        if wide:
            at = (board.width - size * 0.5, above)
            board.text(at, wide, words, "faint", "right", backed=True)
        if band.width <= 0 and band.measured:
            # a standard's own size, with no tolerance counted
            board.line((middle, y - 0.6 * size), (middle, y + 0.6 * size), role, 2.2)
            if band.kind is ANGLE:
                text = angle_text(band.aim, 3)
            else:
                text = f"{band.sign}{length_text(band.aim, 0.001, inch)}"
            _figure(board, middle + 0.8 * size, y, text, role)
            continue
        if band.width <= 0:
            board.items.append(Mark((middle, y), "stop", size * 1.2))
            _figure(board, middle + size, y, "nothing left", "stop")
            continue
        reach = half * (0.8 if own else 0.8 * band.width / widest)
        reach = max(reach, 2.0)
        bar = min(0.24 * row, size * 0.8)
        board.items.append(
            Shape(
                (
                    (middle - reach, y - bar),
                    (middle + reach, y - bar),
                    (middle + reach, y + bar),
                    (middle - reach, y + bar),
                ),
                role,
                1.8,
                "panel",
                "" if band.measured else "right",
            )
        )
        if band.measured and band.kind is not ANGLE:
            for value in readings:
                x = middle + 2 * reach * (value - band.aim) / band.width
                if abs(x - middle) <= half:
                    board.line((x, y - 1.5 * bar), (x, y + 1.5 * bar), role, 1.6)
        low, high = (
            (angle_text(band.lower, 3), angle_text(band.upper, 3))
            if band.kind is ANGLE
            else (
                band.sign + length_text(band.lower, 0.001, inch, unit=False),
                length_text(band.upper, 0.001, inch),
            )
        )
        board.text((middle - reach - 8, y), low, size, role, "right", backed=True)
        _figure(board, middle + reach + 8, y, high, role)


def _thread(board: Board, fit: FitPlan, inch: bool) -> None:
    assert fit.band is not None
    assert fit.thread is not None
    assert fit.mate is not None
    size, thread = board.size, fit.thread
    internal = fit.choice.exists == "shaft"
    names = {
        "crest": "bore before threading" if internal else "turned before threading",
        "pitch": "pitch diameter to cut",
    }

    def span(low: float, high: float) -> str:
        return length_range(low, high, inch=inch)

    mate = fit.mate
    rows: list[tuple[str, float, float, Role, str]] = [
        (
            f"crests, {mate.known_by}",
            mate.lower,
            mate.upper,
            "measured",
            span(mate.lower, mate.upper),
        )
    ]
    for part, name in names.items():
        low, high = fit.thread_limit(part, "min"), fit.thread_limit(part, "max")
        if low is not None and high is not None:
            rows.append((name, low, high, "cut", span(low, high)))
    # a root is bounded on one side only: it must clear the mate's crest
    open_end = 0.08 * thread.pitch
    if internal:
        at_least = f"{length_text(thread.major, 0.001, inch)} or more"
        rows.append(("root", thread.major, thread.major + open_end, "cut", at_least))
    else:
        root = thread.minor_external
        at_most = f"{length_text(root, 0.001, inch)} or less"
        rows.append(("root", root - open_end, root, "cut", at_most))
    low = min(thread.minor_internal, thread.minor_external if not internal else 1e9)
    scale = _Scale(board, low - 0.2, thread.major + 0.1 + open_end, 1.6)
    left = 2.5 * size
    bar = 5 * size
    # the thread's own shape beside the bands, so the diameters mean something
    half = thread.pitch / 2
    pixel = (scale.bottom - scale.top) / (scale.high - scale.low)
    # as wide as leaves its figures whole
    figures = max(text_width(text, size) for *_, text in rows)
    room = board.width - left - 2 * size - bar - 16 - figures
    across = max(min(half * pixel, board.width * 0.12, room / 3), size)
    tooth = []
    for i in range(4):
        tooth.append(
            (
                left + i * across,
                scale.y(thread.major if i % 2 else thread.minor_internal),
            )
        )
    board.items.append(Shape(tuple(tooth), "outline", 2.0, closed=False))
    x = left + 3 * across + 2 * size
    for _, low, high, role, _ in rows:
        _band(board, x, bar, low, high, scale, role, role == "cut")
    board.line(
        (left - 6, scale.y(thread.major)),
        (x + bar, scale.y(thread.major)),
        "centre",
        1.0,
    )
    tx = x + bar + 12
    # texts beside their bands, highest first, and never on each other
    rows.sort(key=lambda row: -(row[1] + row[2]))
    last = 1.4 * size
    for name, low, high, role, text in rows:
        middle = scale.y((low + high) / 2)
        y = max(middle, last + 2.4 * size)
        if y > middle + 1:
            board.line((x + bar, middle), (tx - 2, y), "thin", 0.8)
        last = y
        _figure(board, tx, y - size * 0.6, text, role)
        board.text((tx, y + size * 0.6), name, size * 0.85, "faint", "left")
    board.text(
        (tx, size),
        f"{thread.says}, class {fit.thread_class}" if fit.thread_class else thread.says,
        size,
        "text",
        "left",
        bold=True,
    )


def _bolts(board: Board, fit: FitPlan, inch: bool, below: bool) -> None:
    """A screw in its hole, what that leaves beside it; or below, for want of width."""
    assert fit.band is not None
    assert fit.circle is not None
    size = board.size
    assert fit.room is not None
    hole = float(fit.room["passing"])
    tapped = fit.room.inputs["new"] == "tapped"
    room, need = fit.bolt_room, fit.bolt_need
    screw = hole - 2 * room
    ok = room >= need
    lines: list[tuple[str, str, Role]] = [
        (
            "hole that exists, as measured" if tapped else "clearance hole",
            "⌀" + length_text(hole, 0.1, inch),
            "measured" if tapped else "cut",
        ),
        ("room round the screw", length_text(room, 0.01, inch), "text"),
        (
            "room wanted: drilling, uncertainty of the circle, play of the spigot",
            length_text(need, 0.01, inch),
            "measured" if ok else "stop",
        ),
        (
            "bolt circle, from span and hole",
            f"⌀{length_text(fit.circle['diameter'], 0.01, inch)} ± "
            f"{length_text(fit.circle_doubt, 0.01, inch)}",
            "measured",
        ),
    ]
    row = 2.9 * size
    words = max(
        max(text_width(text, size), text_width(name.split(":")[0], 0.85 * size))
        for name, text, _ in lines
    )
    if below:
        over = board.height - (len(lines) + 1) * row
        x, y, across = board.width / 2, over / 2, min(over - 3 * size, board.width / 2)
        tx, top = 2.5 * size, over + row
    else:
        x, y = board.width * 0.26, board.height / 2
        beside = 2 * (board.width - x - 3.5 * size - words)
        across = min(board.height - 5 * size, board.width * 0.42, beside)
        across = max(across, 4 * size)
        tx, top = x + across / 2 + 2.5 * size, y - 1.5 * row
    scale = across / hole
    ink: Role = "measured" if tapped else "cut"
    board.items.append(Circle((x, y), hole / 2 * scale, ink, 2.2, "ground"))
    board.items.append(Circle((x, y), screw / 2 * scale, "outline", 1.6, "panel"))
    # where the screw's edge may come to lie in the worst case
    board.items.append(
        Circle((x, y), (screw / 2 + need) * scale, "measured" if ok else "stop", 1.2)
    )
    board.line(
        (x - hole / 2 * scale - 8, y), (x + hole / 2 * scale + 8, y), "centre", 0.9
    )
    board.line(
        (x, y - hole / 2 * scale - 8), (x, y + hole / 2 * scale + 8), "centre", 0.9
    )
    for i, (name, text, role) in enumerate(lines):
        at = top + i * row
        _figure(board, tx, at, text, role)
        if text_width(name, size * 0.85) > board.width - tx:
            name = name.split(":")[0]
        board.text((tx, at + size * 1.15), name, size * 0.85, "faint", "left")
    board.items.append(
        Mark((tx - size, top + 2 * row), "proved" if ok else "stop", size * 0.8)
    )
