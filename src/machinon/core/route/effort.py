"""What a piece takes: metal, chips, time; for a thought whether to buy it."""

from collections.abc import Sequence

from machinon.core.materials import material
from machinon.core.piece.family import Made
from machinon.core.quantity import plain
from machinon.core.route.operations import HoldingTold

SET_UP = 10.0  # minutes to hold a piece anew and true it; a shop rule


def effort_said(made: Made, route: Sequence[HoldingTold]) -> str:
    """Metal in, metal off and hours, in a sentence.

    Source: volumes by the piece's own solid; density of its material; minutes of its
    steps, and `SET_UP` for each holding.
    """
    density = material(made.material).density / 1e9  # kg a mm³
    stock, piece = (v * density for v in (made.body.stock_volume, made.body.volume))
    minutes = sum(step.minutes for up in route for step in up.steps)
    minutes += SET_UP * len(route)
    hours, rest = divmod(round(minutes / 10) * 10, 60)
    time = f"{hours:.0f} h {rest:.0f} min" if hours else f"{rest:.0f} min"
    return (
        f"{_mass(stock)} of {made.material}, {_mass(stock - piece)} of it chips; about "
        f"{time} with setting up. Weigh that against a bought one."
    )


def _mass(kg: float) -> str:
    """A mass as one says it.

    >>> _mass(2.345), _mass(0.0123)
    ('2.3 kg', '12 g')
    """
    return f"{plain(kg, 1)} kg" if kg >= 1 else f"{plain(kg * 1000, 0)} g"
