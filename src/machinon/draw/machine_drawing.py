"""A machine as its picture: an outline to scale, its figures where they belong."""

from collections.abc import Callable, Mapping

from machinon.core.quantity import length_text
from machinon.draw.drawing import Board, Drawing, Point
from machinon.draw.plane import Plane


class _Machine(Plane):
    """An outline with the figures that are known; what is not known says so."""

    def __init__(self, board: Board, figures: Mapping[str, float], inch: bool) -> None:
        super().__init__(board)
        self.figures = figures
        self.inch = inch

    def of(self, key: str, other: float) -> float:
        """A figure, or what the outline takes where it is not known."""
        return self.figures.get(key) or other

    def say(self, key: str, name: str, at: Point, unit: str = "mm") -> None:
        """A figure by its name at a world point."""
        self._say(key, name, self.p(*at), unit)

    def _say(self, key: str, name: str, at: Point, unit: str) -> None:
        """The same at a point of the page."""
        value = self.figures.get(key)
        x, y = at
        self.board.text((x, y - 0.6 * self.size), name, 0.8 * self.size, "faint")
        if not value:
            text = "not said yet"
        elif unit == "mm":
            text = length_text(value, 0.1 if value % 1 else 1, self.inch)
        else:
            text = f"{value:g} {unit}".strip()
        self.board.text(
            (x, y + 0.6 * self.size),
            text,
            self.size,
            "measured" if value else "cut",
            bold=True,
            backed=True,
        )

    def column(self, at: Point, *said: tuple[str, str, str]) -> None:
        """Figures one under the other from a world point: key, name, unit."""
        x, y = self.p(*at)
        for row, (key, name, unit) in enumerate(said):
            self._say(key, name, (x, y + row * 2.7 * self.size), unit)

    def span(self, key: str, name: str, a: Point, b: Point) -> None:
        """A figure as a dimension between two world points, level or upright."""
        self.line(a, b, "dimension", 0.9)
        self.board.arrow(self.p(*a), self.p(*b))
        self.board.arrow(self.p(*b), self.p(*a))
        self.say(key, name, ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2))


def machine_drawing(
    kind: str,
    figures: Mapping[str, float],
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
) -> Drawing:
    """The picture of a machine of a kind; figures: by key, mm and numbers."""
    board = Board(width, height, size)
    OUTLINES[kind](_Machine(board, figures, inch))
    return board.done()


def _lathe(s: _Machine) -> None:
    high = s.of("centre_height", 160)
    long = s.of("between_centres", 3.5 * high)
    head = 2.2 * high
    s.frame(-head - 0.3 * high, -1.2 * high, long + 1.3 * high, 1.1 * high, (2, 2.4))
    s.box(-head, -1.15 * high, long + 1.2 * high, -high)  # the bed, seen flat
    s.box(-head, -high, 0, 0.85 * high)
    s.box(0, -0.16 * high, 0.14 * high, 0.16 * high, hatch=True)
    s.box(long, -high, long + high, 0.35 * high)
    s.box(long - 0.3 * high, -0.14 * high, long, 0.14 * high)
    slide = s.of("swing_over_slide", 1.2 * high) / 2
    s.box(0.42 * long, -high, 0.62 * long, -slide)
    s.box(0.49 * long, -slide, 0.55 * long, -0.02 * high)
    s.line((-head - 0.2 * high, 0), (long + 1.2 * high, 0), "centre", 1.0)
    s.span(
        "between_centres",
        "between centres",
        (0.14 * high, 0.75 * high),
        (long, 0.75 * high),
    )
    s.span("centre_height", "centre height", (0.25 * long, -high), (0.25 * long, 0))
    s.say("swing_over_slide", "swings over the slide", (0.78 * long, -0.5 * high))
    s.say("spindle_bore", "spindle bore", (-0.5 * head, 0.3 * high))
    s.say("lead_screw", "lead screw", (-0.5 * head, -0.35 * high))
    s.say("power", "motor", (-0.5 * head, -0.75 * high), "kW")


def _mill(s: _Machine) -> None:
    long, up = s.of("table_length", 700), s.of("under_spindle", 400)
    s.frame(-0.75 * long, -1.1 * up, 0.75 * long, 1.1 * up, (2, 1.6))
    s.box(-0.16 * long, -1.05 * up, 0.16 * long, up)  # the column behind
    s.box(-0.14 * long, -0.9 * up, 0.14 * long, -0.14 * up, fill="ground")
    s.box(-long / 2, -0.14 * up, long / 2, 0)
    neck = s.of("tee_slot", 14)
    for i in (-1, 0, 1):  # the slots run along the table: seen from its end
        s.box(
            i * long * 0.06 - neck / 2,
            -0.05 * up,
            i * long * 0.06 + neck / 2,
            0,
            fill="ground",
        )
    s.box(-0.2 * long, 0.62 * up, 0.2 * long, up)
    s.box(-0.05 * long, 0.45 * up, 0.05 * long, 0.62 * up, hatch=True)
    s.line((0, 0.42 * up), (0, 1.08 * up), "centre", 1.0)
    s.span("table_length", "table", (-long / 2, -0.3 * up), (long / 2, -0.3 * up))
    s.span(
        "under_spindle", "under the spindle", (0.42 * long, 0), (0.42 * long, 0.45 * up)
    )
    s.column(
        (-0.62 * long, 0.95 * up),
        ("travel_x", "travel x", "mm"),
        ("travel_y", "travel y", "mm"),
        ("travel_z", "travel z", "mm"),
        ("tee_slot", "T-slot", "mm"),
    )
    s.say("power", "motor", (0.55 * long, 0.85 * up), "kW")


def _drill(s: _Machine) -> None:
    up, throat = s.of("under_spindle", 500), s.of("throat", 180)
    s.frame(-1.2 * throat, -0.3 * up, 2.6 * throat, 1.45 * up, (2, 1.6))
    s.box(-0.9 * throat, -0.25 * up, 1.3 * throat, -0.15 * up)
    s.box(-0.2 * throat, -0.15 * up, 0.2 * throat, 1.35 * up)
    s.box(0.2 * throat, 0, 1.6 * throat, -0.06 * up)
    s.box(-0.7 * throat, 0.95 * up + 0.15 * up, 1.5 * throat, 1.4 * up)
    s.box(0.85 * throat, 0.9 * up, 1.15 * throat, 1.1 * up, hatch=True)
    s.line((throat, -0.2 * up), (throat, 1.42 * up), "centre", 1.0)
    s.span("throat", "from the column", (0, 0.55 * up), (throat, 0.55 * up))
    s.span(
        "under_spindle",
        "under the spindle",
        (1.9 * throat, 0),
        (1.9 * throat, 0.9 * up),
    )
    s.say("travel_z", "travel", (2.3 * throat, 1.2 * up))
    s.say("largest", "largest drill", (-0.75 * throat, 0.3 * up))


def _grinder(s: _Machine) -> None:
    high, long = s.of("centre_height", 100), s.of("between_centres", 400)
    wheel = s.of("wheel", 2 * high)
    s.frame(-1.2 * high, -1.2 * high, long + 1.2 * high, 0.6 * high + wheel, (2, 1.6))
    s.box(-1.1 * high, -1.15 * high, long + 1.1 * high, -high)
    s.box(-high, -high, 0, 0.6 * high)
    s.box(long, -high, long + high, 0.4 * high)
    s.box(0, -0.1 * high, long, 0.1 * high)
    s.circle(long * 0.55, 0.1 * high + wheel / 2, wheel / 2, "outline", "panel")
    s.circle(long * 0.55, 0.1 * high + wheel / 2, s.of("wheel_bore", 0.25 * wheel) / 2)
    s.line((-1.1 * high, 0), (long + 1.1 * high, 0), "centre", 1.0)
    s.say("wheel", "largest wheel", (long * 0.55, 0.1 * high + wheel * 0.75))
    s.say("wheel_bore", "its bore", (long * 0.55, 0.1 * high + wheel * 0.3))
    s.span(
        "between_centres", "between centres", (0, -0.55 * high), (long, -0.55 * high)
    )
    s.say("centre_height", "centre height", (-0.55 * high, -0.4 * high))
    s.say("swivel", "swivels", (long + 0.5 * high, -0.4 * high), "°")


def _rotary_table(s: _Machine) -> None:
    across = s.of("table", 150)
    r = across / 2
    s.frame(-1.9 * r, -1.3 * r, 2.2 * r, 1.3 * r, (2, 1.6))
    s.box(-1.15 * r, -1.2 * r, 1.15 * r, 1.2 * r)
    s.circle(0, 0, r, "outline", "panel")
    neck = s.of("tee_slot", 0.08 * across)
    slots = int(s.of("tee_slots", 4))
    for i in range(slots):
        if i * 360 / slots in (0, 180):
            side = 1 if i == 0 else -1
            low, high = sorted((side * 0.3 * r, side * r))
            s.box(low, -neck / 2, high, neck / 2, fill="ground")
        elif i * 360 / slots in (90, 270):
            side = 1 if i * 360 / slots == 90 else -1
            low, high = sorted((side * 0.3 * r, side * r))
            s.box(-neck / 2, low, neck / 2, high, fill="ground")
    s.circle(0, 0, 0.14 * r, "outline", "ground")
    s.cross(0, 0, 1.1 * r)
    s.box(0.7 * r, -1.55 * r + 0.35 * r, 2.0 * r, -0.95 * r, hatch=True)
    s.say("table", "across", (-1.55 * r, 0.8 * r))
    s.say("worm", "worm", (1.75 * r, -0.55 * r), "to 1")
    s.say("centre_height", "upright, centre height", (1.7 * r, 0.8 * r))
    s.say("height", "lying, height", (1.7 * r, 0.3 * r))
    s.say("tee_slot", "T-slots", (-1.55 * r, 0.2 * r))


def _dividing_head(s: _Machine) -> None:
    high = s.of("centre_height", 100)
    s.frame(-2.4 * high, -1.2 * high, 2.4 * high, 1.2 * high, (2, 1.6))
    s.box(-1.5 * high, -1.15 * high, 1.5 * high, -high)
    s.box(-high, -high, high, 0.7 * high)
    s.circle(0, 0, 0.45 * high, "outline", "panel")
    s.circle(0, 0, 0.16 * high, "outline", "ground")
    s.circle(0, -0.7 * high, 0.22 * high, "outline", "ground")
    s.cross(0, 0, 0.9 * high)
    s.box(1.0 * high, -0.4 * high, 1.12 * high, 0.5 * high, hatch=True)
    s.line((1.12 * high, 0.05 * high), (1.6 * high, 0.05 * high), "outline", 4)
    s.line((1.6 * high, 0.05 * high), (1.6 * high, 0.6 * high), "outline", 4)
    s.span("centre_height", "centre height", (-1.75 * high, -high), (-1.75 * high, 0))
    s.say("worm", "worm", (2.0 * high, -0.5 * high), "to 1")
    s.say("tongue", "tongues", (-1.75 * high, 0.6 * high))


OUTLINES: Mapping[str, Callable[[_Machine], None]] = {
    "lathe": _lathe,
    "mill": _mill,
    "drill": _drill,
    "grinder": _grinder,
    "rotary table": _rotary_table,
    "dividing head": _dividing_head,
}
