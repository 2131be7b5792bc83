"""Tolerances of sizes without one on the drawing: ISO 2768-1."""

from machinon.core.tables import rows

MEDIUM = "m"  # what a workshop keeps without trying


def general_tolerance(size: float, grade: str = MEDIUM) -> float:
    """Tolerance of a length or diameter, each way, mm.

    grade: f fine, m medium, c coarse; sizes beyond the table take its last row, those
    under half a millimetre its first. Source: ISO 2768-1:1989 Table 1.

    >>> general_tolerance(30), general_tolerance(30.1), general_tolerance(100, "c")
    (0.2, 0.3, 0.8)
    """
    table = rows("general_tolerances")
    row = next((line for line in table if size <= float(line["to"])), table[-1])
    return float(row[grade])
