"""The effort of a piece: metal, chips, time; to weigh making it against buying it."""

from collections.abc import Sequence

from msgspec import Struct

from machinon.core.materials import material
from machinon.core.piece.made import Made
from machinon.core.quantity import plain
from machinon.core.route.duration import minutes_of
from machinon.core.route.steps import HoldingTold

SET_UP = 10.0  # minutes to hold a piece anew and true it; a shop rule


class Effort(Struct, frozen=True):
    """The effort of a piece."""

    metal: str
    stock: float  # kg
    chips: float  # kg
    minutes: float  # with setting up
    count: int = 1  # of pieces alike, each of which takes that

    @property
    def says(self) -> str:
        """Metal in, metal off and hours of all of them, in a sentence."""
        count, minutes = self.count, self.minutes * self.count
        hours, rest = divmod(round(minutes / 10) * 10, 60)
        parts = [f"{hours:.0f} h"] * bool(hours) + [f"{rest:.0f} min"] * bool(rest)
        time = " ".join(parts) or "a few minutes"
        return (
            f"{_mass(self.stock * count)} of {self.metal}, "
            f"{_mass(self.chips * count)} of it chips; about {time} with setting up"
            f"{f', for all {count}' if count > 1 else ''}."
        )

    @property
    def asked(self) -> dict[str, float]:
        """The inputs of the reckoning `make-or-buy`."""
        minutes = round(self.minutes / 10) * 10
        asked = {"stock": round(self.stock, 2), "time": 60.0 * minutes}
        return asked | ({"count": float(self.count)} if self.count > 1 else {})


def effort(made: Made, route: Sequence[HoldingTold]) -> Effort:
    """The effort of making a piece.

    Source: volumes by the piece's own solid; density of its material; minutes of its
    steps, and `SET_UP` for each holding.
    """
    density = material(made.material).density / 1e9  # kg a mm³
    stock, piece = (v * density for v in (made.body.stock_volume, made.body.volume))
    minutes = sum(minutes_of(step) for up in route for step in up.steps)
    minutes += SET_UP * len(route)
    return Effort(made.material, stock, stock - piece, minutes, made.count)


def _mass(kg: float) -> str:
    """A mass as one says it.

    >>> _mass(2.345), _mass(0.0123)
    ('2.3 kg', '12 g')
    """
    return f"{plain(kg, 1)} kg" if kg >= 1 else f"{plain(kg * 1000, 0)} g"
