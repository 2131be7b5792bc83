"""Clamp plate: pulled down by four bolts, with a window over what it clamps."""

from collections.abc import Iterable

from machinon.core.families._plates import plate
from machinon.core.piece.family import Check, Mate, MateSize, Values, at_least


def checks(s: Values) -> Iterable[Check]:
    high = s["block.height"]
    yield at_least(
        "pinch",
        "block",
        s["clamped.height"] - s["clamped.floor"],
        0.1,
        "Clamped part over the floor that the plate is screwed to: else it seats there "
        "and pinches nothing",
    )
    span = s["block.length"] - 2 * s.get("holes1.from_side", 0.0)
    yield at_least(
        "bows",
        "block",
        high,
        span / 10,
        "Thickness over the span between its bolts (a tenth), so that it does not bow",
        grave=False,
    )


FAMILY = plate(
    "clamp-plate",
    "Clamp plate",
    "A plate on four bolts that clamps something down, with a window over it.",
    "100 × 70 × 12 on four M8, over a part that stands 20.3 over its floor",
    "keeper clamp cap strap window holding down retainer",
    ("holes1", "pocket1", "edge1"),
    {
        "block.length": "100",
        "block.width": "70",
        "block.height": "12",
        "holes.kind": "through",
        "pocket.length": "block.length - 60",
        "pocket.width": "block.width - 40",
        "pocket.from_side": "30",
        "pocket.from_front": "20",
        "pocket.radius": "4",
    },
    mates=(
        Mate("clamped", "what it clamps", (
            MateSize("height", "its height", 20.3, ("thickness", "length")),
            MateSize("floor", "from its foot to the plate's seat", 20.0,
                     ("depth", "shoulder")),
        )),
    ),
    checks=checks,
)  # fmt: skip
