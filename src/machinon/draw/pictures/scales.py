"""One value on the scales of several units, ruled above each other."""

import math
from collections.abc import Callable, Iterable, Sequence

from machinon.core.cutting.hardness import SCALES, by_vickers, vickers
from machinon.core.setting_out.other_units import MEASURES, figure_text
from machinon.draw.lettering import text_width
from machinon.draw.sketch import Sketch

TOP, ROW = 4.6, 5.0  # figure heights over the first rule, and from one to the next
TICKS = 5  # of a rule, about
NICE = (1.0, 2.0, 2.5, 5.0, 10.0)
LINES = {
    "rockwell_c": (20, 30, 40, 50, 60),
    "rockwell_b": (50, 60, 70, 80, 90),
    "brinell": (100, 150, 200, 300, 400, 600),
    "vickers": (100, 150, 200, 300, 400, 600, 900),
    "strength": (300, 400, 600, 800, 1000, 1500, 2000),
}


class _Rules:
    """Rules under each other, and a line through all of them where the value lies.

    names: they stand before the rules; told: what stands behind them; at: the value, as
    a share of their width.
    """

    def __init__(
        self, s: Sketch, names: Sequence[str], told: Sequence[str], at: float
    ) -> None:
        self.s, self.at = s, at
        room = s.floor - TOP * s.size
        self.row = min(ROW * s.size, room / len(names))
        self.y = TOP * s.size + 0.4 * self.row
        before, behind = (
            max(text_width(text, s.size) for text in texts) + 2 * s.size
            for texts in (names, told)
        )
        self.left, self.right = before, s.board.width - behind

    def along(self, share: float) -> float:
        return self.left + share * (self.right - self.left)

    def rule(
        self, name: str, lines: Iterable[tuple[float, str]], ends: tuple[float, float]
    ) -> None:
        """The next one, with its lines at shares of the width."""
        s, board = self.s, self.s.board
        first, last = (self.along(end) for end in ends)
        left = (self.left - 0.8 * s.size, self.y)
        board.text(left, name, s.size, "faint", "right")
        board.line((first, self.y), (last, self.y), "outline", 1.4)
        clear = self.left - s.size
        for share, text in lines:
            x, half = self.along(share), text_width(text, 0.72 * s.size) / 2
            board.line((x, self.y), (x, self.y - 0.45 * s.size), "outline", 1.0)
            # clear of the value's line and of its neighbour
            if x - half > clear and abs(x - self.along(self.at)) > half + 0.2 * s.size:
                board.text((x, self.y - 1.0 * s.size), text, 0.72 * s.size, "faint")
                clear = x + half + 0.2 * s.size
        self.y += self.row

    def mark(self) -> None:
        x = self.along(self.at)
        ends = (x, (TOP - 0.6) * self.s.size), (x, self.y - 0.6 * self.row)
        self.s.board.line(*ends, "cut", 2.2)


def hardness(s: Sketch) -> None:
    """The scales by their Vickers hardness, the soft end drawn out."""
    whole = by_vickers("vickers")
    least, most = math.log(whole[0][0]), math.log(whole[-1][0])

    def share(hv: float) -> float:
        return (math.log(hv) - least) / (most - least)

    names = [scale.name for scale in SCALES.values()]
    rules = _Rules(s, names, ("strength", "2000 MPa"), share(s.r("vickers")))
    for key, scale in SCALES.items():
        pairs = by_vickers(key)
        lines = [(share(vickers(n, key)), str(n)) for n in LINES[key]]
        at = rules.right + 0.8 * s.size, rules.y
        s.put(key, at, "strength" if key == "strength" else scale.name, "left")
        rules.rule(scale.name, lines, (share(pairs[0][0]), share(pairs[-1][0])))
    rules.mark()


def other_units(s: Sketch) -> None:
    """The units of the measure, each ruled over what is asked and half as much more."""
    measure = str(s.results["measure"])
    units = MEASURES[measure]
    asked = next(unit for unit in units if unit.name == s.results["unit"])
    base = s.r("figure") * asked.size + asked.nought
    ends = sorted((0.0, 1.5 * base or 1.0))
    told = [f"{figure_text(unit.of(base), measure)} {unit.name}" for unit in units]
    at = (base - ends[0]) / (ends[1] - ends[0])
    rules = _Rules(s, [unit.name for unit in units], told, at)
    for unit, text in zip(units, told, strict=True):
        least, most = map(unit.of, ends)
        lines = [
            ((at - least) / (most - least), figure_text(at, ""))
            for at in _round_ones(least, most)
        ]
        wanted = unit is asked
        s.board.text(
            (rules.right + 0.8 * s.size, rules.y), text, s.size,
            "measured" if wanted else "text", "left", bold=wanted,
        )  # fmt: skip
        rules.rule(unit.name, lines, (0.0, 1.0))
    rules.mark()
    s.ask("value", (rules.left, 2.4 * s.size), "figure with its unit", "left")
    s.ask("to", (rules.along(0.5), 2.4 * s.size), "wanted in", "left")


def _round_ones(least: float, most: float) -> Sequence[float]:
    """Round figures from one to the other, about as many as a rule has lines."""
    rough = (most - least) / TICKS
    tens = 10.0 ** math.floor(math.log10(rough))
    step = next(tens * nice for nice in NICE if tens * nice >= rough * (1 - 1e-9))
    first = math.ceil(least / step - 1e-9)
    return [n * step for n in range(first, math.floor(most / step + 1e-9) + 1)]


PICTURES: dict[str, Callable[[Sketch], None]] = {
    "hardness": hardness,
    "other-units": other_units,
}
