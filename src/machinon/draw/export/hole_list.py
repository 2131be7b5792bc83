"""Every hole with its place, as CSV: what is typed into a read-out."""

import csv
import io
import math
from pathlib import Path

from machinon.core.errors import MachinonError
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.made import Made
from machinon.core.route.work.holes import seen

COLUMNS = ("feature", "number", "face", "x", "y", "angle", "hole")


def hole_rows(made: Made) -> list[tuple[str, ...]]:
    """A row for each hole; x and y in mm from the datum, angle in degrees, each as its
    face is looked at.

    The datum: the axis of what turns, the low left corner of a block's face.
    """
    rows: list[tuple[str, ...]] = []
    for holes in made.body.features:
        if isinstance(holes, Holes):
            for number, (x, y) in enumerate(seen(made.body, holes), 1):
                angle = (
                    math.degrees(math.atan2(y, x)) % 360 if holes.block is None else 0
                )
                rows.append(
                    (
                        holes.name,
                        str(number),
                        holes.face,
                        f"{x + 0.0:.3f}",
                        f"{y + 0.0:.3f}",
                        f"{angle:.4f}" if holes.block is None else "",
                        ", ".join(filter(None, (holes.hole.says(), holes.leaning))),
                    )
                )
        elif isinstance(holes, CrossHoles):
            for number, angle in enumerate(holes.angles, 1):
                rows.append(
                    (
                        holes.name,
                        str(number),
                        "side",
                        f"{holes.z:.3f}",
                        "",
                        f"{angle % 360:.4f}",
                        holes.hole.says(),
                    )
                )
    return rows


def write_holes(made: Made, path: Path) -> None:
    """Write the list of holes. Raises MachinonError."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(COLUMNS)
    writer.writerows(hole_rows(made))
    try:
        path.write_text(out.getvalue(), encoding="utf-8", newline="")
    except OSError as error:
        raise MachinonError(f"{path} could not be written: {error.strerror}.") from None
