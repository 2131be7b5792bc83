"""The route of a shop that has no mill: what is planned for one is done on its drill
press and its lathe.

Source: usual practice; what a four-jaw holds and a slide bears are shop rules.
"""

import math
from collections.abc import Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.piece.family import Holding, Step
from machinon.core.piece.stock import Block, Stock
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe

ELSEWHERE = "elsewhere"  # in place of a mill's id: it is milled on one that is not ours
# what a drill press does as well
DRILLED = (
    "drill",
    "tap",
    "ream",
    "counterbore",
    "countersink",
    "mark",
    "prove",
    "deburr",
    "bond",
    "mount",
)
BESIDE = ("mark", "prove", "deburr")  # done on either machine, between the cuts
GRIPPED = 10.0  # mm: what is thinner stands no four jaws on its edges
CLEAR = 6.0  # mm between the bed and what swings over it


class NoMill(Struct, frozen=True):
    """What a shop without a mill has in its place; one of them at least."""

    lathe: Lathe | None
    drill_press: Machine | None


def in_place_of(
    mill: Machine | None, chosen: str, lathe: Lathe | None, drill_press: Machine | None
) -> NoMill | None:
    """What a job uses in place of a mill; None where it has one, or one elsewhere.

    chosen: what was chosen for the job, as `Job.mill`. A shop that names its drill
    press and no mill is taken to have none; of another it has to be said.
    """
    if mill is not None or chosen == ELSEWHERE:
        return None
    if drill_press is None and (lathe is None or chosen != lathe.id):
        return None
    return NoMill(lathe, drill_press)


def corners_of(stock: Stock) -> float:
    """What a block swings when its largest face is faced, corner to corner, mm; 0 for
    what is no block."""
    if not isinstance(stock, Block):
        return 0.0
    _, wide, long = sorted(stock.size)
    return math.hypot(wide, long)


def without_mill(
    holdings: Sequence[Holding], stock: Stock, shop: NoMill
) -> tuple[Holding, ...]:
    """The holdings with those for a mill on the machines that there are."""

    def told(holding: Holding) -> Holding:
        if holding.machine != "mill":
            return holding
        done = {step.operation for step in holding.steps}
        if shop.drill_press is not None and done <= {*DRILLED}:
            return replace(
                holding,
                machine="drill",
                title=_on("drill press", holding.title),
            )
        if shop.lathe is None:
            return holding
        if "square" in done <= {"square", *BESIDE} and _is_gripped(stock, shop.lathe):
            return _in_the_four_jaw(holding)
        return replace(
            holding,
            title=_on("lathe's slide", holding.title),
            reason=f"{holding.reason} The cutter turns in the spindle, in a collet or "
            "its own holder with a draw-bar: out of the jaws of a chuck it creeps.",
        )

    return tuple(map(told, holdings))


def _on(machine: str, title: str) -> str:
    """The title of a holding with its machine before it."""
    title = title.replace("the drill or mill table", "the table")
    return f"On the {machine}: {title[0].lower()}{title[1:]}"


def _is_gripped(stock: Stock, lathe: Lathe) -> bool:
    """Whether four jaws hold a block by its edges, and it swings over the bed."""
    if not isinstance(stock, Block) or min(stock.size) < GRIPPED:
        return False
    return corners_of(stock) <= 2 * lathe.centre_height - CLEAR


def _in_the_four_jaw(holding: Holding) -> Holding:
    def told(step: Step) -> Step:
        if step.operation != "square":
            return step
        return replace(
            step,
            title="Face the six faces to size",
            tool="facing tool",
            caution="Corners and jaws are not seen as they turn: turn it once by hand, "
            "sleeves and fingers away.",
        )

    return replace(
        holding,
        machine="lathe",
        title="In the lathe's four-jaw, six faces in turn",
        reason="What is flat already lies against the chuck's face, or stands along "
        "the axis by the indicator: so each face comes out square to it.",
        steps=tuple(map(told, holding.steps)),
    )
