"""The boring bar that a hole lets in, and how far it sticks out; shop rules."""

from typing import NamedTuple

from machinon.core.cutting.machining import QUIET, QUIET_STEEL, SLIM
from machinon.core.piece.body import Body
from machinon.core.piece.feature import Side
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import Bore, End, NutThread, TaperBore
from machinon.core.quantity import plain
from machinon.core.reckoning import Answer, reckon
from machinon.core.route.in_process import BESIDE
from machinon.core.route.steps import StepTold

GOES_IN = 0.75  # of the hole's diameter: the rest is room for the bit and the chips
BORED = {"bore": Bore, "taper": TaperBore, "thread": NutThread}  # by its operation
OTHERWISE = {  # where no bar does
    "bore": " Ream it or lap it.",
    "taper": " Drill it in steps, finish it with a taper reamer.",
    "thread": " Tap it.",
}


class Bar(NamedTuple):
    """The thickest bar for a bore, and how far it sticks out; mm. through: it may come
    from either end."""

    thick: float
    out: float
    through: bool

    @property
    def slender(self) -> float:
        """How many times its thickness it sticks out."""
        return self.out / self.thick

    @property
    def most(self) -> float:
        """How many times it may, of carbide."""
        return QUIET["carbide"] * (2 if self.through else 1)


def bar_of(step: StepTold) -> Bar | None:
    """The bar for a step that bores on the lathe; None where it bores nothing."""
    bore = step.cut[0] if step.cut else None
    kind = BORED.get(step.operation)
    if kind is None or not isinstance(bore, kind) or not step.before.turns:
        return None
    middle = (bore.start + bore.end) / 2
    there = [
        hole.diameter
        for hole in step.before.features
        if isinstance(hole, Bore) and hole.start <= middle <= hole.end
    ]
    hole = max(there, default=step.before.stock.bore)
    if isinstance(bore, TaperBore):  # it widens before the bar has to go all the way in
        hole = max(hole, min(bore.start_diameter, bore.end_diameter))
    if not hole:
        return None
    out = bore.end - bore.start
    if step.out == "right":
        out = end_of(step.after, "right") - bore.start
    elif step.out == "left":
        out = bore.end - end_of(step.after, "left")
    left, right = step.finished
    through = bore.start < left + BESIDE and bore.end > right - BESIDE
    return Bar(GOES_IN * hole, out, through and isinstance(bore, Bore))


def otherwise(step: StepTold, bar: Bar) -> str:
    """What to do where a bar of carbide is too slender too; empty where it is not."""
    if bar.slender <= QUIET["carbide"]:
        return ""
    if bar.slender <= bar.most:
        return " Bore it from both ends, or ream it."
    return OTHERWISE[step.operation]


def of_a_slender_bar(step: StepTold, answers: list[Answer]) -> str:
    """What a step's page says of a bar that is not stiff; its sum joins the answers."""
    bar = bar_of(step)
    if bar is None or bar.slender <= QUIET_STEEL:
        return ""
    steel = bar.slender <= SLIM * QUIET_STEEL
    asked = {
        "bar_diameter": bar.thick,
        "overhang": bar.out,
        "bar_material": "steel" if steel else "carbide",
    }
    answers.append(reckon("boring-bar", asked))
    says = f" A bar of {plain(bar.thick, 1)} mm goes in, {plain(bar.out, 0)} mm out"
    if steel:
        return f"{says}. {answers[-1]['advice']}"
    instead = otherwise(step, bar)
    if not instead:
        return f"{says}: of steel it chatters, of carbide it does not."
    return f"{says}: it chatters.{instead}"


def end_of(body: Body, side: Side) -> float:
    """Where an end of what turns stands, faced or as its stock is, mm."""
    for feature in body.features:
        if isinstance(feature, End) and feature.side == side:
            return feature.z
    stock = body.stock
    assert not isinstance(stock, Block)
    return stock.start if side == "left" else stock.end
