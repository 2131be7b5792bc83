"""The back plate's drawing: half section and end view, dimensioned."""

from collections.abc import Mapping

from machinon.core.back_plate import PARAMETERS
from machinon.core.bolt_circle import hole_points
from machinon.core.plan import BOLTS, Plan
from machinon.core.quantity import length_text
from machinon.draw.drawing import (
    Board,
    Circle,
    Drawing,
    Mark,
    MarkKind,
    Point,
    Role,
    Shape,
    Spot,
)
from machinon.draw.section import draw_turned, finished_shape, surface_lines


def plate_drawing(
    plan: Plan, width: float, height: float, size: float = 13.0, inch: bool = False
) -> Drawing:
    """Half section and end view of the plan's plate on a page of that size.

    size: height of the figures. An empty drawing where there is no plate yet.
    """
    board = Board(width, height, size)
    plate = plan.plate
    if plate is None:
        return board.done()
    failed = {check.place for check in plan.grave}
    column = 6.4 * size
    tall = max(plate.flange_diameter, 1.0)
    section_side = 3 * column
    scale = min(
        (height - 8.5 * size) / tall,
        (width - 2 * section_side - 4 * size) / (tall + plate.length + 6),
    )
    scale = max(scale, 0.2)
    axis = 4.0 * size + tall / 2 * scale + (height - 8.5 * size - tall * scale) / 2
    left = section_side + size

    def place(z: float, r: float) -> Point:
        return left + z * scale, axis - r * scale

    draw_turned(board, finished_shape(plate), plate, place)
    for name in sorted(failed):
        for a, b in surface_lines(name, finished_shape(plate), plate):
            board.line(place(*a), place(*b), "stop", 3.2)

    figures = _figures(plan, inch)

    def across(key: str, diameter: float, from_z: float, x: float, at: float) -> None:
        text, small, role, name, number, mark = figures[key]
        board.upright(
            x,
            axis - diameter / 2 * scale,
            axis + diameter / 2 * scale,
            place(from_z, 0)[0],
            text,
            small,
            role,
            key,
            name,
            number,
            mark,
            at,
        )

    across("register_bore", plate.register_bore, 0, left - 0.5 * column, 0.5)
    across("thread", plate.thread.major, 0, left - 1.5 * column, 0.5)
    across("hub_diameter", plate.hub_diameter, 0, left - 2.5 * column, 0.5)
    right = place(plate.length, 0)[0]
    across(
        "spigot_diameter",
        plate.spigot_diameter,
        plate.length,
        right + 0.7 * column,
        0.42,
    )
    across("bolt_circle", plate.bolt_circle, plate.seat, right + 1.7 * column, 0.5)
    across(
        "flange_diameter", plate.flange_diameter, plate.seat, right + 2.7 * column, 0.58
    )

    top = axis - plate.flange_diameter / 2 * scale
    bottom = axis + plate.flange_diameter / 2 * scale

    def along(key: str, y: float, a: float, b: float, from_y: float) -> None:
        text, small, role, name, _number, _mark = figures[key]
        board.level(
            y, place(a, 0)[0], place(b, 0)[0], from_y, text, small, role, key, name
        )

    along("flange_thickness", top - 1.4 * size, plate.hub_length, plate.seat, top)
    along(
        "spigot_height",
        top - 3.1 * size,
        plate.seat,
        plate.length,
        axis - plate.spigot_diameter / 2 * scale,
    )
    along(
        "hub_length",
        bottom + 1.4 * size,
        0,
        plate.hub_length,
        axis + plate.hub_diameter / 2 * scale,
    )
    along(
        "register_depth",
        bottom + 3.3 * size,
        0,
        plate.register_depth,
        axis + plate.register_bore / 2 * scale,
    )
    centre = right + section_side + 2.0 * size + tall / 2 * scale
    _end_view(board, plan, centre, axis, scale)
    return board.done()


Figure = tuple[str, str, Role, str, int, MarkKind | None]


def _figures(plan: Plan, inch: bool) -> Mapping[str, Figure]:
    """Text, small text, role, name, fit number and mark of each size."""
    plate = plan.plate
    assert plate is not None
    out: dict[str, Figure] = {}
    bad_places = {check.place for check in plan.grave}
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
            role, mark = ("stop", "stop") if bad else ("cut", "cut")
        elif key in _PLACES and _PLACES[key] in bad_places:
            role, mark = "stop", "stop"
        out[key] = (text, small, role, parameter.name, parameter.fit, mark)
    out["thread"] = (
        plate.thread.name.replace("x", " × "),
        "6H",
        "cut",
        "thread",
        2,
        "cut",
    )
    return out


# which size stands for a place that a check points at
_PLACES = {
    "hub_diameter": "hub",
    "flange_thickness": "flange",
    "spigot_height": "spigot",
    "register_depth": "register_bore",
    "flange_diameter": "flange",
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
    board.text((x, below), note, size * 0.95, "stop" if bad else "cut")
    board.numbered((x - 0.31 * len(note) * size - size * 1.1, below), BOLTS, "cut")
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


def shape_bounds(drawing: Drawing) -> tuple[float, float]:
    """The furthest right and lowest point of any polygon: for layout tests."""
    points = [
        p for item in drawing.items if isinstance(item, Shape) for p in item.points
    ]
    return max(p[0] for p in points), max(p[1] for p in points)
