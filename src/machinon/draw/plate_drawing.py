"""The back plate's drawing: half section and end view, dimensioned."""

from collections.abc import Callable, Mapping

from machinon.core.job.plan import BOLTS, Plan
from machinon.core.piece.back_plate import PARAMETERS, Plate
from machinon.core.quantity import length_text
from machinon.core.setting_out.bolt_circle import hole_points
from machinon.draw.drawing import (
    SMALL,
    Board,
    Circle,
    Drawing,
    Mark,
    MarkKind,
    Point,
    Role,
    Spot,
    text_width,
)
from machinon.draw.section import draw_turned, finished_shape, surface_lines


def plate_drawing(
    plan: Plan, width: float, height: float, size: float = 13.0, inch: bool = False
) -> Drawing:
    """Half section and end view of the plan's plate on a page of that size.

    size: height of the figures, less where they would crowd out the piece. An
    empty drawing where there is no plate yet.
    """
    for share in (1.0, 0.85, 0.7):
        drawing, scale = _laid_out(plan, width, height, size * share, inch)
        if plan.plate is None or scale * plan.plate.flange_diameter > 13 * size * share:
            break
    return drawing


def _laid_out(
    plan: Plan, width: float, height: float, size: float, inch: bool
) -> tuple[Drawing, float]:
    """The drawing with figures of just that height, and its scale, px per mm."""
    board = Board(width, height, size)
    plate = plan.plate
    if plate is None:
        return board.done(), 1.0
    failed = {check.place for check in plan.grave}
    figures = _figures(plan, inch)

    def wide(key: str) -> float:
        """Room that the figure of an upright dimension takes."""
        text, small, _role, _name, number, mark = figures[key]
        figure = text_width(text, size) + size * (1.5 * bool(number))
        return max(figure, text_width(small, size * SMALL)) + size * (1 + bool(mark))

    # the figures stand staggered, so their lines may lie close; ISO 129-1
    pitch = 2.4 * size

    def reach(chain: Chain) -> float:
        """How far a chain of dimensions spreads from the piece."""
        start = 0.4 * size + wide(chain[0][0]) / 2
        return max(
            start + i * pitch + wide(key) / 2 for i, (key, *_rest) in enumerate(chain)
        )

    left_side, right_side = reach(_LEFT), reach(_RIGHT)
    tall = max(plate.flange_diameter, 1.0)
    scale = min(
        (height - 11 * size) / tall,
        (width - left_side - right_side - 6 * size) / (tall + plate.length),
    )
    scale = max(scale, 0.2)
    axis = height / 2
    whole = left_side + right_side + 4.4 * size + (tall + plate.length) * scale
    left = left_side + size + max((width - whole) / 2, 0)

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    draw_turned(board, finished_shape(plate), plate, place)
    for name in sorted(failed):
        for a, b in surface_lines(name, finished_shape(plate), plate):
            board.line(place(*a), place(*b), "stop", 3.2)

    def across(chain: Chain, side: int, start: float) -> None:
        x = start + side * (0.4 * size + wide(chain[0][0]) / 2)
        for key, diameter, shift in chain:
            text, small, role, name, number, mark = figures[key]
            half = diameter(plate) / 2 * scale
            at = 0.5 + shift * size / max(2 * half, 1.0)
            from_x = start
            if key in ("bolt_circle", "flange_diameter"):
                from_x = place(plate.seat, 0)[0]
            board.upright(
                x,
                axis - half,
                axis + half,
                from_x,
                text,
                small,
                role,
                key,
                name,
                number,
                mark,
                min(max(at, 0.0), 1.0),
            )
            x += side * pitch

    right = place(plate.length, 0)[0]
    across(_LEFT, -1, left)
    across(_RIGHT, 1, right)

    top = axis - plate.flange_diameter / 2 * scale
    bottom = axis + plate.flange_diameter / 2 * scale

    def along(key: str, y: float, a: float, b: float, from_y: float) -> None:
        text, small, role, name, _number, _mark = figures[key]
        board.level(
            y, place(a, 0)[0], place(b, 0)[0], from_y, text, small, role, key, name
        )

    along("flange_thickness", top - 1.5 * size, plate.hub_length, plate.seat, top)
    along(
        "spigot_height",
        top - 3.2 * size,
        plate.seat,
        plate.length,
        axis - plate.spigot_diameter / 2 * scale,
    )
    along(
        "hub_length",
        bottom + 1.5 * size,
        0,
        plate.hub_length,
        axis + plate.hub_diameter / 2 * scale,
    )
    along(
        "register_depth",
        bottom + 3.2 * size,
        0,
        plate.register_depth,
        axis + plate.register_bore / 2 * scale,
    )
    centre = right + right_side + 2.0 * size + tall / 2 * scale
    _end_view(board, plan, centre, axis, scale)
    return board.done(), scale


# upright dimensions from the piece outward: key, diameter, and how far the figure
# stands below the axis, in its own heights
Chain = tuple[tuple[str, Callable[[Plate], float], float], ...]
_LEFT: Chain = (
    ("register_bore", lambda plate: plate.register_bore, -1.2),
    ("thread", lambda plate: plate.thread.major, 1.2),
    ("hub_diameter", lambda plate: plate.hub_diameter, -3.6),
)
_RIGHT: Chain = (
    ("spigot_diameter", lambda plate: plate.spigot_diameter, 0.0),
    ("bolt_circle", lambda plate: plate.bolt_circle, -2.6),
    ("flange_diameter", lambda plate: plate.flange_diameter, 2.6),
)

Figure = tuple[str, str, Role, str, int, MarkKind | None]


def _figures(plan: Plan, inch: bool) -> Mapping[str, Figure]:
    """Text, small text, role, name, fit number and mark of each size."""
    plate = plan.plate
    assert plate is not None
    out: dict[str, Figure] = {}
    wrong = {_SIZE_OF_CHECK.get(check.key, "") for check in plan.grave}
    for key, parameter in PARAMETERS.items():
        value = getattr(plate, key)
        step = (
            0.001 if parameter.fit in (1, 3) else 0.01 if key == "bolt_circle" else 0.1
        )
        if abs(value / step - round(value / step)) > 1e-6:
            step = 0.01 if step > 0.01 else 0.001
        sign = "⌀" if key.endswith(("diameter", "bore", "circle")) else ""
        text = sign + length_text(value, step, inch, unit=False)
        small = length_text(value, step, not inch)
        role: Role = "text"
        mark: MarkKind | None = None
        if parameter.fit:
            bad = bool(plan.fit(parameter.fit).contradiction) or any(
                check.fit == parameter.fit for check in plan.grave
            )
            # the fit's number in its ring is the mark of a size ruled by a mate
            role, mark = ("stop", "stop") if bad else ("cut", None)
        elif key in wrong:
            role, mark = "stop", "stop"
        out[key] = (text, small, role, parameter.name, parameter.fit, mark)
    out["thread"] = (
        plate.thread.says,
        plate.thread_class,
        "cut",
        "thread",
        2,
        None,
    )
    return out


# the size that a failed check would have one change
_SIZE_OF_CHECK = {
    "wall": "hub_diameter",
    "wall-register": "hub_diameter",
    "register-length": "register_depth",
    "register-clears": "register_depth",
    "thread-length": "flange_thickness",
    "nose-inside": "flange_thickness",
    "spigot-recess": "spigot_height",
    "spigot-length": "spigot_height",
    "flange-thin": "flange_thickness",
    "under-head": "flange_thickness",
    "engagement": "flange_thickness",
    "heads-edge": "flange_diameter",
    "hole-edge": "flange_diameter",
    "stock-diameter": "flange_diameter",
    "heads-hub": "hub_diameter",
}


def _end_view(board: Board, plan: Plan, x: float, y: float, scale: float) -> None:
    """Seen from the chuck: first the outline, then the holes on their circle."""
    plate = plan.plate
    assert plate is not None
    size = board.size

    def ring(diameter: float, role: Role = "outline", width: float = 1.6) -> None:
        board.items.append(Circle((x, y), diameter / 2 * scale, role, width))

    board.items.append(
        Circle((x, y), plate.flange_diameter / 2 * scale, "outline", 1.8, "panel")
    )
    ring(plate.spigot_diameter)
    ring(plate.thread.major, "outline", 0.8)
    ring(plate.thread_bore)
    ring(plate.hub_diameter, "hidden", 1.0)
    ring(plate.bolt_circle, "centre", 1.0)
    bad = any(check.place == "bolts" for check in plan.grave)
    for px, py in hole_points(plate.bolts, plate.bolt_circle, 90.0):
        at = (x + px * scale, y - py * scale)
        board.items.append(
            Circle(
                at,
                plate.hole / 2 * scale,
                "stop" if bad else "outline",
                2.4 if bad else 1.6,
                "ground",
            )
        )
        if plate.bolting == "through":
            board.items.append(
                Circle(at, plate.screw.counterbore / 2 * scale, "hidden", 1.0)
            )
    reach = plate.flange_diameter / 2 * scale + size
    board.line((x - reach, y), (x + reach, y), "centre", 0.9)
    board.line((x, y - reach), (x, y + reach), "centre", 0.9)
    through = f"⌀{plate.hole:g}" if plate.bolting == "through" else plate.screw.size
    note = f"{plate.bolts} × {through}"
    if plate.bolting == "through":
        note += f", counterbore ⌀{plate.screw.counterbore:g} for {plate.screw.size}"
    below = y + reach + 1.2 * size
    board.text((x + size * 0.6, below), note, size * 0.95, "stop" if bad else "cut")
    half = text_width(note, size * 0.95) / 2
    board.numbered((x - half, below), BOLTS, "cut")
    board.spots.append(
        Spot(
            (
                x - 0.31 * len(note) * size,
                below - size,
                0.62 * len(note) * size,
                2 * size,
            ),
            "bolts",
            "bolts",
        )
    )
    if bad:
        board.items.append(
            Mark((x + 0.31 * len(note) * size + size, below), "stop", size * 0.8)
        )
