"""A machine as its picture: an outline to scale, its figures where they belong.

Every figure is tied to its key, so that it can be changed where it stands; those
that have no place in the outline stand along its foot.
"""

import math
from collections.abc import Callable, Mapping, Set

from machinon.core.shop.machines import MachineFigure
from machinon.draw.drawing import SMALL, Board, Drawing, Point, Role, uncrowded
from machinon.draw.lettering import text_width
from machinon.draw.plane import Plane

ROW = 2.8  # figure heights that a line of figures along the foot takes
LEAST = 0.6  # of its scale without a foot: an outline gets no smaller for its figures


Figures = Mapping[str, MachineFigure]


def machine_drawing(
    kind: str, figures: Figures, width: float, height: float, size: float = 13.0
) -> Drawing:
    """The picture of a machine of a kind; figures: all that it has, by key.

    size: height of the figures. What would lie on another in the outline goes to
    its foot; only where that is full do the figures get smaller.
    """

    trial = _Machine(Board(width, height, size), figures, frozenset())
    OUTLINES[kind](trial)
    # what finds no place is known only once the outline is drawn
    placeless = figures.keys() - trial.placed

    def laid_out(share: float, below: Set[str]) -> tuple[Board, bool]:
        machine = _Machine(Board(width, height, size * share), figures, below)
        OUTLINES[kind](machine)
        machine.along_the_foot()
        return machine.board, machine.length(1) >= LEAST * trial.length(1)

    return uncrowded(laid_out, placeless)


class _Machine(Plane):
    """An outline with the figures that are known; what is not known says so."""

    def __init__(self, board: Board, figures: Figures, below: Set[str]) -> None:
        super().__init__(board)
        self.figures = figures
        self.placed: set[str] = set()
        self.below = below

    @property
    def abreast(self) -> int:
        """Number of figures beside each other along the foot."""
        widest = max(
            (
                max(
                    text_width(self._said(key)[0], self.size),
                    text_width(self.figures[key].name, SMALL * self.size),
                )
                for key in self.below
            ),
            default=1.0,
        )
        return max(int(self.board.width / (widest + 2 * self.size)), 1)

    @property
    def floor(self) -> float:
        rows = math.ceil(len(self.below) / self.abreast)
        return self.board.height - rows * ROW * self.size

    def of(self, key: str, other: float) -> float:
        """A figure's size, or what the outline takes where it is not known."""
        figure = self.figures.get(key)
        return (figure.size if figure else 0.0) or other

    def _shows(self, key: str) -> bool:
        """Whether a figure stands in the outline."""
        if key not in self.figures or key in self.below:
            return False
        self.placed.add(key)
        return True

    def _said(self, key: str) -> tuple[str, Role]:
        text = self.figures[key].text
        return (text, "measured") if text else ("not said yet", "cut")

    def say(self, key: str, name: str, at: Point) -> None:
        """A figure with its name beneath it at a world point."""
        if self._shows(key):
            x, y = self.p(*at)
            text, role = self._said(key)
            place = x, y - 0.5 * self.size
            self.board.label(place, text, name, role, key, self.figures[key].name)

    def level(
        self, key: str, name: str, y: float, ends: tuple[float, float], low: float
    ) -> None:
        """A figure as a dimension at a height, its extension lines from `low`."""
        if not self._shows(key):
            return
        text, role = self._said(key)
        left, right = (self.p(x, y)[0] for x in ends)
        at, from_y = self.p(0, y)[1], self.p(0, low)[1]
        whole = self.figures[key].name
        self.board.level(at, left, right, from_y, text, name, role, key, whole)

    def upright(
        self, key: str, name: str, x: float, ends: tuple[float, float], near: float
    ) -> None:
        """The same beside a height; ends: low and high; near: where it is read."""
        if not self._shows(key):
            return
        text, role = self._said(key)
        bottom, top = (self.p(x, y)[1] for y in ends)
        at, from_x = self.p(x, 0)[0], self.p(near, 0)[0]
        whole = self.figures[key].name
        self.board.upright(at, top, bottom, from_x, text, name, role, key, whole)

    def along_the_foot(self) -> None:
        """The figures without a place in the outline."""
        figures = []
        for key in self.figures:
            if key in self.below:
                text, role = self._said(key)
                figures.append((text, self.figures[key].name, role, key))
        self.board.along_the_foot(figures, self.abreast, ROW)

    # -- what machines are made of -----------------------------------------

    def wheel(self, x: float, y: float, r: float) -> None:
        """A handwheel seen flat."""
        self.circle(x, y, r, fill="panel", width=1.4)
        self.circle(x, y, 0.2 * r, width=1.2)

    def thin(self, a: Point, b: Point) -> None:
        self.line(a, b, "thin", 1.0)


def _lathe(s: _Machine) -> None:
    high = s.of("centre_height", 160)
    long = s.of("between_centres", 3.5 * high)
    head, end = 2.2 * high, long + 1.35 * high
    s.frame(-head - 0.2 * high, -2.1 * high, end, 1.35 * high, (1.5, 1.6))
    for left in (-0.95 * head, long + 0.15 * high):  # the feet
        s.box(left, -2.1 * high, left + 0.9 * high, -1.35 * high)
    s.box(-head, -1.35 * high, end, -high)
    s.thin((-head, -1.08 * high), (end, -1.08 * high))
    s.box(-head, -high, 0, 0.85 * high)
    bore = s.of("spindle_bore", 0.16 * high) / 2
    for r in (bore, -bore):
        s.line((-head, r), (0.14 * high, r), "hidden", 1.0)
    s.box(0, -0.16 * high, 0.14 * high, 0.16 * high, hatch=True)
    s.shape(  # the tailstock leans back over its foot
        [
            (long + 0.02 * high, -high),
            (long + 0.1 * high, 0.28 * high),
            (long + 0.85 * high, 0.28 * high),
            (long + 0.95 * high, -high),
        ]
    )
    s.box(long - 0.28 * high, -0.12 * high, long + 0.1 * high, 0.12 * high)
    s.box(long + 0.85 * high, -0.06 * high, long + 1.1 * high, 0.06 * high)
    s.box(long + 1.1 * high, -0.3 * high, long + 1.18 * high, 0.3 * high)
    slide = s.of("swing_over_slide", 1.2 * high) / 2
    tool = s.of("tool_height", 0.14 * high)
    at = 0.52 * long
    s.box(at - 0.75 * high, -1.3 * high, at + 0.75 * high, -high)  # saddle, apron
    s.wheel(at - 0.4 * high, -1.16 * high, 0.2 * high)
    s.box(at - 0.3 * high, -high, at + 0.3 * high, -min(slide, 0.95 * high))
    if slide > tool:
        s.box(at - 0.2 * high, -slide, at + 0.2 * high, -tool)
    s.box(at - 0.12 * high, -tool, at + 0.12 * high, 0.04 * high)
    s.thin((-0.4 * head, -1.22 * high), (at - 0.75 * high, -1.22 * high))
    s.thin((at + 0.75 * high, -1.22 * high), (end - 0.1 * high, -1.22 * high))
    s.line((-head - 0.15 * high, 0), (end, 0), "centre", 1.0)
    s.level("between_centres", "between centres", 0.95 * high, (0.14 * high, long), 0)
    s.upright("centre_height", "centre height", 0.2 * long, (-high, 0), 0.14 * high)
    s.upright(
        "swing_over_slide", "over the slide", 0.75 * long, (-slide, slide), 0.75 * long
    )
    s.say("seat", "nose", (0.75 * high, 0.45 * high))
    s.say("spindle_bore", "spindle bore", (-0.5 * head, 0.3 * high))
    s.say("speeds", "rpm", (-0.5 * head, -0.5 * high))
    s.say("tailstock", "tailstock", (long + 0.55 * high, 0.65 * high))
    s.say("lead_screw", "lead screw", (0.72 * long, -1.62 * high))
    s.say("dial_division", "a line of the cross dial", (at - 0.4 * high, -1.62 * high))
    s.say("power", "motor", (-0.5 * head, -1.62 * high))
    s.say("tool_height", "centre over the tool's slide", (at, 0.38 * high))


def _mill(s: _Machine) -> None:
    long, up = s.of("table_length", 700), s.of("under_spindle", 400)
    half, low = long / 2, -1.5 * up
    s.frame(-1.05 * half, low, 1.9 * half, 1.15 * up, (3.5, 1.4))
    s.box(-0.42 * half, low, 0.42 * half, low + 0.16 * up)  # the foot
    s.box(-0.3 * half, low + 0.16 * up, 0.3 * half, 0.92 * up)  # the column behind
    s.box(-0.27 * half, low + 0.36 * up, 0.27 * half, -0.34 * up)  # the knee
    s.wheel(0, low + 0.72 * up, 0.1 * half)
    s.box(-0.34 * half, -0.34 * up, 0.34 * half, -0.22 * up)  # the saddle
    s.box(-half, -0.22 * up, half, 0)
    s.thin((-half, -0.09 * up), (half, -0.09 * up))
    for side in (-1, 1):
        a, b = sorted((side * half, side * 1.05 * half))
        s.box(a, -0.19 * up, b, -0.03 * up)
    s.box(-0.26 * half, 0.66 * up, 0.26 * half, 0.98 * up)  # the head
    s.box(-0.1 * half, 0.52 * up, 0.1 * half, 0.66 * up)
    s.box(-0.06 * half, 0.42 * up, 0.06 * half, 0.52 * up, hatch=True)
    s.box(-0.16 * half, 0.98 * up, 0.16 * half, 1.14 * up)  # the motor
    s.line((0, 0.36 * up), (0, 1.18 * up), "centre", 1.0)
    s.level("table_length", "table", -0.5 * up, (-half, half), -0.22 * up)
    s.upright("under_spindle", "at most", 0.55 * half, (0, 0.42 * up), 0.06 * half)
    s.say("travel_x", "travel ↔", (-0.72 * half, 0.22 * up))
    s.say("travel_y", "travel in and out", (0.72 * half, -0.82 * up))
    s.say("travel_z", "travel ↕", (-0.72 * half, -1.0 * up))
    s.say("spindle", "spindle's seat", (-0.55 * half, 0.6 * up))
    s.say("vise_opens", "vise opens", (0.72 * half, 0.22 * up))
    s.say("speeds", "rpm", (0.7 * half, 0.85 * up))
    s.say("power", "motor", (-0.5 * half, 1.06 * up))
    _slots(s, (1.56 * half, 0.05 * up), 0.34 * half)


def _slots(s: _Machine, at: Point, half: float) -> None:
    """The table's end, with its slots across it, beside the front view."""
    count = int(s.of("tee_slots", 3))
    wide = s.of("table_width", 230)
    scale = 2 * half / wide
    pitch = min(s.of("tee_pitch", wide / (count + 0.5)), wide / max(count, 1)) * scale
    neck = min(s.of("tee_slot", 14) * scale, 0.4 * pitch) / 2
    x, y = at
    tall = max(0.42 * half, 7 * neck)
    s.box(x - half, y - tall, x + half, y, hatch=True)
    for i in range(count):
        c = x + (i - (count - 1) / 2) * pitch
        edge = [(neck, 0.0), (neck, -2 * neck), (1.8 * neck, -2 * neck)]
        edge.append((1.8 * neck, -3.6 * neck))
        right = [(c + dx, y + dy) for dx, dy in edge]
        left = [(c - dx, y + dy) for dx, dy in edge]
        s.shape([*right, *reversed(left)], fill="ground")
    first = x - (count - 1) / 2 * pitch
    if count > 1:
        ends = (first, first + pitch)
        s.level("tee_pitch", "apart", y + 0.42 * half, ends, y)
    s.level(
        "table_width", "wide", y - tall - 0.5 * half, (x - half, x + half), y - tall
    )
    s.say("tee_slot", "neck", (x, y - tall - 1.2 * half))
    s.say("tee_slots", "T-slots", (x, y - tall - 2.0 * half))


def _drill(s: _Machine) -> None:
    up, throat = s.of("under_spindle", 500), s.of("throat", 180)
    out = throat
    s.frame(-1.4 * out, -0.3 * up, 2.6 * out, 1.5 * up, (4, 1.0))
    s.box(-0.7 * out, -0.3 * up, 1.5 * out, -0.2 * up)
    s.box(-0.18 * out, -0.2 * up, 0.18 * out, 1.45 * up)
    s.box(-0.26 * out, -0.12 * up, 0.26 * out, 0)  # the table's arm
    s.box(0.26 * out, -0.05 * up, 1.6 * out, 0)
    s.box(-0.75 * out, 1.1 * up, 1.35 * out, 1.38 * up)
    s.box(-0.75 * out, 1.38 * up, 1.25 * out, 1.45 * up)  # the belt's cover
    s.box(-0.68 * out, 0.86 * up, -0.3 * out, 1.1 * up)  # the motor behind
    s.box(0.86 * out, 0.98 * up, 1.14 * out, 1.1 * up)
    s.box(0.93 * out, 0.86 * up, 1.07 * out, 0.98 * up, hatch=True)
    s.wheel(1.12 * out, 1.2 * up, 0.07 * up)
    s.line((out, -0.3 * up), (out, 1.5 * up), "centre", 1.0)
    s.line((0, -0.34 * up), (0, 1.5 * up), "centre", 1.0)
    s.level("throat", "from the column", 0.2 * up, (0, out), 0.2 * up)
    s.upright("under_spindle", "at most", 1.75 * out, (0, 0.86 * up), 1.07 * out)
    s.say("travel_z", "travel ↕", (1.85 * out, 1.05 * up))
    s.say("spindle", "spindle's seat", (1.95 * out, 1.3 * up))
    s.say("power", "motor", (-1.15 * out, 0.98 * up))
    s.say("speeds", "rpm", (-1.2 * out, 1.3 * up))
    s.say("largest", "largest drill in steel", (-1.0 * out, 0.35 * up))


def _grinder(s: _Machine) -> None:
    high, long = s.of("centre_height", 100), s.of("between_centres", 400)
    wheel = s.of("wheel", 2 * high)
    s.frame(-2.3 * high, -1.5 * high, long + 2.3 * high, 0.3 * high + wheel, (2, 1.0))
    s.box(-1.4 * high, -1.5 * high, long + 1.4 * high, -1.2 * high)
    s.box(-1.3 * high, -1.2 * high, long + 1.3 * high, -high)  # the swivelling table
    s.box(-1.1 * high, -high, -0.1 * high, 0.55 * high)
    s.shape([(-0.1 * high, -0.14 * high), (0, 0), (-0.1 * high, 0.14 * high)])
    s.box(long + 0.1 * high, -high, long + 0.9 * high, 0.4 * high)
    tip = [
        (long + 0.1 * high, -0.14 * high),
        (long, 0),
        (long + 0.1 * high, 0.14 * high),
    ]
    s.shape(tip)
    s.box(0.12 * long, -0.1 * high, 0.88 * long, 0.1 * high)
    x, y = 0.5 * long, 0.1 * high + wheel / 2
    s.circle(x, y, wheel / 2, fill="panel")
    s.circle(x, y, s.of("wheel_bore", 0.25 * wheel) / 2)
    s.cross(x, y, 0.56 * wheel)
    s.line((-1.2 * high, 0), (long + high, 0), "centre", 1.0)
    s.level("between_centres", "between centres", -0.5 * high, (0, long), 0)
    s.upright("centre_height", "centre height", -1.75 * high, (-high, 0), -1.1 * high)
    s.say("wheel", "largest wheel", (x + 0.75 * wheel, y + 0.25 * wheel))
    s.say("wheel_bore", "its bore", (x - 0.7 * wheel, y + 0.25 * wheel))
    s.say("wheel_speed", "wheel's rpm", (x + 0.75 * wheel, y - 0.15 * wheel))
    s.say("head_taper", "work head", (-0.6 * high, -0.4 * high))
    s.say("swivel", "swivels", (long + 1.85 * high, -1.0 * high))


def _rotary_table(s: _Machine) -> None:
    across = s.of("table", 150)
    r = across / 2
    lying, height = s.of("height", 0.5 * across), s.of("centre_height", 0.7 * across)
    s.frame(-2.1 * r, -1.45 * r, 5.3 * r, 1.45 * r, (3, 1.4))
    s.box(-1.15 * r, -1.15 * r, 1.15 * r, 1.15 * r)
    s.circle(0, 0, r, fill="panel")
    neck = s.of("tee_slot", 0.08 * across) / 2
    slots = max(int(s.of("tee_slots", 4)), 1)
    for i in range(slots):
        a = 2 * math.pi * i / slots
        along, aside = (math.cos(a), math.sin(a)), (-math.sin(a), math.cos(a))
        s.shape(
            [
                (along[0] * d + aside[0] * w, along[1] * d + aside[1] * w)
                for d, w in ((0.3 * r, neck), (r, neck), (r, -neck), (0.3 * r, -neck))
            ],
            fill="ground",
        )
    s.circle(0, 0, 0.13 * r, fill="ground")
    s.cross(0, 0, 1.25 * r)
    s.box(1.15 * r, -0.75 * r, 1.5 * r, -0.45 * r, hatch=True)  # worm and its wheel
    s.box(1.5 * r, -1.0 * r, 1.6 * r, -0.2 * r)
    # standing on its edge, seen from the side
    foot = 3.2 * r
    s.box(foot - 0.6 * r, -height - 0.12 * r, foot + lying, -height)
    s.box(foot, -height, foot + 0.62 * lying, r * 0.95)
    s.box(foot + 0.62 * lying, -r, foot + lying, r)
    s.line((foot - 0.4 * r, 0), (foot + lying + 0.3 * r, 0), "centre", 1.0)
    s.level("table", "table across", 1.35 * r, (-r, r), 0)
    s.upright("centre_height", "standing", foot - 0.75 * r, (-height, 0), foot)
    s.level("height", "high, lying", 1.35 * r, (foot, foot + lying), r)
    s.say("tee_slot", "T-slots, neck", (-1.65 * r, 0.55 * r))
    s.say("tee_slots", "T-slots", (-1.65 * r, 0.1 * r))
    s.say("bore_taper", "centre hole", (-1.65 * r, -0.5 * r))
    s.say("worm", "turns of the worm", (1.75 * r, -1.2 * r))


def _dividing_head(s: _Machine) -> None:
    high = s.of("centre_height", 100)
    s.frame(-2.8 * high, -1.3 * high, 3.4 * high, 1.0 * high, (3, 1.4))
    s.box(-1.5 * high, -1.15 * high, 1.5 * high, -high)
    tongue = s.of("tongue", 14) / 2
    for x in (-1.1 * high, 1.1 * high):
        s.box(x - tongue, -1.25 * high, x + tongue, -1.15 * high, hatch=True)
    s.box(-high, -high, high, 0.3 * high)
    s.circle(0, 0, 0.78 * high, fill="panel")
    s.circle(0, 0, 0.4 * high, fill="panel")
    s.circle(0, 0, 0.16 * high, fill="ground")
    s.cross(0, 0, 0.92 * high)
    # the plate with its circles of holes, seen flat
    x, r = 2.2 * high, 0.75 * high
    s.circle(x, 0, r, fill="panel")
    for ring, holes in ((0.86, 24), (0.7, 20), (0.54, 16)):
        for i in range(holes):
            a = 2 * math.pi * i / holes
            s.circle(x + ring * r * math.cos(a), ring * r * math.sin(a), 0.03 * r,
                     width=1.0)  # fmt: skip
    s.box(x - 0.1 * high, -0.86 * r, x + 0.1 * high, 0.12 * high)  # the crank
    s.cross(x, 0, 1.1 * r)
    s.upright("centre_height", "centre height", -1.9 * high, (-high, 0), -high)
    s.say("tongue", "tongues", (-2.2 * high, -1.2 * high))
    s.say("bore_taper", "spindle", (-1.5 * high, 0.7 * high))
    s.say("worm", "turns of the worm", (x, -1.08 * high))


OUTLINES: Mapping[str, Callable[[_Machine], None]] = {
    "lathe": _lathe,
    "mill": _mill,
    "drill": _drill,
    "grinder": _grinder,
    "rotary table": _rotary_table,
    "dividing head": _dividing_head,
}
