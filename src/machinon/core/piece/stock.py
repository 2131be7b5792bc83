"""The stock of a piece: round or sided bar, tube, or a sawn block."""

import math
from typing import ClassVar, TypeAlias

import msgspec

from machinon.core.in_inches import sizes_in_inches

CLEANS_UP = 0.5  # mm to a side: what a sawn or rolled face needs to come clean
DRAWN = 0.25  # mm: how far the flats of a drawn bar may be off what is wanted


class Round(msgspec.Struct, frozen=True, tag="round"):
    """Round bar or tube along z; mm."""

    diameter: float
    start: float
    end: float
    bore: float = 0.0

    @property
    def widest(self) -> float:
        """Diameter of what swings."""
        return self.diameter

    @property
    def says(self) -> str:
        tube = f" × {self.bore:g} bore" if self.bore else ""
        return f"⌀{self.diameter:g}{tube} × {self.end - self.start:g}"


class Bar(msgspec.Struct, frozen=True, tag="bar"):
    """Square or hexagon bar along z; across its flats, mm."""

    sides: int
    across: float
    start: float
    end: float

    @property
    def says(self) -> str:
        shape = {4: "square", 6: "hexagon"}.get(self.sides, f"{self.sides} sides")
        return f"{shape} {self.across:g} × {self.end - self.start:g}"

    bore: ClassVar[float] = 0.0  # it is solid

    @property
    def widest(self) -> float:
        """Diameter of what swings: over its corners."""
        return self.across / math.cos(math.pi / self.sides)


class Block(msgspec.Struct, frozen=True, tag="block"):
    """A sawn block, from one corner to the opposite one; mm."""

    bore: ClassVar[float] = 0.0  # it is solid
    low: tuple[float, float, float]
    high: tuple[float, float, float]

    @property
    def size(self) -> tuple[float, float, float]:
        a, b, c = (h - w for w, h in zip(self.low, self.high, strict=True))
        return a, b, c

    @property
    def says(self) -> str:
        # sawn to tenths at best, and never short
        return " × ".join(f"{math.ceil(10 * side - 1e-6) / 10:g}" for side in self.size)


Stock: TypeAlias = Round | Bar | Block


def stock_said(stock: Stock, inch: bool = False) -> str:
    """The stock in words, in the units of the shop: "⌀40 × 93"."""
    if not inch:
        return stock.says
    # the tenths of a millimetre would make 4.126 of 4 1/8
    sides = stock.size if isinstance(stock, Block) else ()
    return sizes_in_inches(" × ".join(map(str, sides)) or stock.says)
