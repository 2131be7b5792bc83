"""Which centre drill makes a centre hole, by the mouth that it shall have."""

from machinon.core.tables import rows


def centre_drill_for(mouth: float) -> str:
    """The smallest centre drill of either series that makes a mouth so wide, mm, by its
    pilot and body in millimetres or its number in inches; empty where none does.

    >>> centre_drill_for(5.4), centre_drill_for(17.0), centre_drill_for(30)
    ('A3.15/8 or #4', 'A8/20', '')
    """
    metric, inch = "", ""
    for row in rows("centre_drills"):
        if float(row["mouth_mm"]) < mouth - 1e-9:
            continue
        if row["name"].startswith("#"):
            inch = inch or row["name"]
        else:
            metric = metric or row["name"]
    return " or ".join(name for name in (metric, inch) if name)
