"""Dowels as they are bought, and the reamed holes that keep them."""

from machinon.core.piece.family import Step
from machinon.core.piece.hardware import sold_as
from machinon.core.quantity import INCH
from machinon.core.reckoning import Answer, reckon
from machinon.core.sizes.limits import limits_of_size

PLAY = 0.004, 0.016  # mm: of a dowel in the holes that slide on it; a shop rule


def as_bought(diameter: float) -> tuple[float, float]:
    """Least and most of a dowel that is sold by this diameter, mm.

    Source: ISO 8734, m6; ASME B18.8.2 standard series, 0.0002 in over within 0.0001,
    where it is sold in inches.
    """
    if sold_as(diameter).endswith(" in"):
        return diameter + 0.0001 * INCH, diameter + 0.0003 * INCH
    ground = limits_of_size(diameter, "m6")
    return ground.lower, ground.upper


def kept(diameter: float, apart: float | None = None) -> Answer:
    """The holes that keep and that slide on two bought dowels, mm; apart: where that
    matters."""
    least, most = as_bought(diameter)
    asked = {
        "dowel": (least + most) / 2,
        "doubt": (most - least) / 2,
        "distance": apart or 2 * most,
        "play_least": PLAY[0],
        "play_most": PLAY[1],
    }
    return reckon("dowel-pair", asked)


def reamed_to_keep(name: str, diameter: float, more: str = "") -> Step:
    """The reaming of holes that keep what is pressed in; more: what else to mind."""
    least, most = as_bought(diameter)
    pair = kept(diameter)
    keeps = f"{pair['keeps_lower']:.3f} to {pair['keeps_upper']:.3f} mm"
    return Step(
        "ream",
        (name,),
        note=f"Bought ones are {least:.3f} to {most:.3f} mm, {keeps} surely keeps "
        "them: try one in a scrap. Where it goes in by hand, ream a hair under, or "
        f"bond it.{more}",
    )
