"""Hexagon nuts and the flat washers under them."""

import functools
import math
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, INCH, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import size_of


class Nut(Struct, frozen=True):
    """A hexagon nut at its highest, its thin kind, and the washer under it; mm."""

    across_flats: float
    height: float
    thin_height: float
    washer_hole: float
    washer_outside: float
    washer_thickness: float
    older_flats: float
    """Across the flats of nuts by older standards; 0 where they are alike."""
    source: str


@functools.cache
def nuts() -> Mapping[str, Nut]:
    """The nuts kept here, by the size of their screw, such as `M8` or `1/4`.

    >>> nuts()["M10"].across_flats, nuts()["M10"].older_flats
    (16.0, 17.0)
    """
    table = {}
    for row in rows("nuts"):
        unit = INCH if row["unit"] == "in" else 1.0
        sizes = {
            key: float(row[key] or 0) * unit
            for key in Nut.__struct_fields__
            if key != "source"
        }
        table[row["size"]] = Nut(**sizes, source=row["source"])
    return table


@reckoning(
    "nut",
    group="Threads",
    title="A hexagon nut and its washer",
    usual={"thread": "M10"},
    inputs=(
        Input("thread", TEXT, "the screw, such as M8 or 1/4-20"),
        Input("washers", COUNT, "under the nut", 1, low=0, high=20),
        Input("past", NUMBER, "threads that shall stand out of it", 2, low=0, high=50),
    ),
    results=(
        Result("across_flats", LENGTH, "of the nut: its spanner"),
        Result("older_flats", LENGTH, "across nuts of older standards"),
        Result("across_corners", LENGTH, "of the nut, at most"),
        Result("height", LENGTH, "of the nut, at most"),
        Result("thin_height", LENGTH, "of a thin one, which locks another"),
        Result("washer_outside", LENGTH, "diameter of the washer"),
        Result("washer_hole", LENGTH, "hole of the washer"),
        Result("washer_thickness", LENGTH, "of one washer"),
        Result("stands", LENGTH, "the screw over what it holds"),
        Result("source", TEXT, "the standards"),
    ),
    sources=("the nut's and washer's own standards, named in the answer",),
)
def _nut(trail: Trail, thread: str, washers: int, past: float) -> dict[str, Any]:
    screw = thread_of(thread)
    size = size_of(screw)
    nut = nuts().get(size) if screw.form_name in ("metric", "unified") else None
    if nut is None:
        metric, inch = (
            [kept for kept in nuts() if (kept[0] == "M") is kind]
            for kind in (True, False)
        )
        raise BadInput(
            "thread",
            f"{screw.name} has no nut kept here: {metric[0]} to {metric[-1]} have, and "
            f"{inch[0]} to {inch[-1]} in of UNC and UNF.",
        )
    trail.source(nut.source)
    corners = trail.step(
        "Across its corners",
        f"{nut.across_flats:.4g} / cos 30°",
        nut.across_flats / math.cos(math.radians(30)),
    )
    stands = trail.step(
        "The screw stands out",
        f"{washers} × {nut.washer_thickness:.4g} + {nut.height:.4g} + {past:g} × "
        f"{screw.pitch:.4g}",
        washers * nut.washer_thickness + nut.height + past * screw.pitch,
    )
    return {
        "across_flats": nut.across_flats,
        **({"older_flats": nut.older_flats} if nut.older_flats else {}),
        "across_corners": corners,
        "height": nut.height,
        "thin_height": nut.thin_height,
        "washer_outside": nut.washer_outside,
        "washer_hole": nut.washer_hole,
        "washer_thickness": nut.washer_thickness,
        "stands": stands,
        "source": nut.source,
    }
