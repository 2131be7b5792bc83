"""How deep a drill as it is usually sold goes."""

from machinon.core.tables import rows


def flutes_of(diameter: float) -> float | None:
    """Length of a drill's flutes, mm: of the jobber series up to 20 mm, of those with a
    taper shank beyond; None for a size that neither has.

    >>> flutes_of(10.5), flutes_of(10.6), flutes_of(10.7), flutes_of(25), flutes_of(60)
    (87.0, 87.0, 94.0, 160.0, None)
    """
    for row in rows("drill_flutes"):
        if float(row["over_mm"]) < diameter <= float(row["to_mm"]):
            return float(row["flutes_mm"])
    return None


def reach_of(diameter: float) -> float:
    """How deep the point of a drill goes with a diameter of its flutes left outside for
    the chips, mm; without end for a size that is not listed.

    Source: the length of its flutes; what is left outside is a shop rule.

    >>> reach_of(10.5)
    76.5
    """
    flutes = flutes_of(diameter)
    return float("inf") if flutes is None else flutes - diameter
