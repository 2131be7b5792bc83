"""Keyways: key and depths for a shaft, and what the caliper reads across."""

import functools
import math
from typing import Any, Literal

from msgspec import Struct

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, LENGTH
from machinon.core.reckoning import FLAG, TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows

Standard = Literal["metric", "inch"]
STANDARDS: tuple[Standard, ...] = ("metric", "inch")
NEAR = 0.15  # mm: what a keyway is wider than its key, and a key off its standard


class Key(Struct, frozen=True):
    """A parallel key and its seats; mm.

    Depths of metric keys are printed from the crown of shaft or bore, those of
    inch keys from the corner where the seat's side begins.
    """

    above: float
    to: float
    width: float
    height: float
    shaft_depth: float
    hub_depth: float
    source: str


@functools.cache
def keys(standard: str) -> tuple[Key, ...]:
    """The keys of a standard, by shaft."""
    found = []
    for r in rows("keys"):
        if r["standard"] == standard:
            unit = INCH if r["unit"] == "in" else 1.0
            found.append(
                Key(
                    float(r["above"]) * unit,
                    float(r["to"]) * unit,
                    float(r["width"]) * unit,
                    float(r["height"]) * unit,
                    float(r["shaft_depth"]) * unit,
                    float(r["hub_depth"]) * unit,
                    r["source"],
                )
            )
    return tuple(found)


def key_near(width: float) -> tuple[Standard, Key] | None:
    """The standard key that a keyway of so many mm is for, and the standard of it; None
    where it is for none."""
    known = ((standard, key) for standard in STANDARDS for key in keys(standard))
    standard, key = min(known, key=lambda row: abs(row[1].width - width))
    return (standard, key) if abs(key.width - width) < NEAR else None


SLIMMEST = 50  # a key is no thinner than this part of its shaft
INCH_CLEARANCE = 0.005 * INCH  # over the key in the hub; ANSI B17.1-1967


def crown(diameter: float, width: float) -> float:
    """Height of a circle's crown over a chord of a width, mm.

    >>> round(crown(25, 8), 4)
    0.6573
    """
    return diameter / 2 - math.sqrt((diameter / 2) ** 2 - (width / 2) ** 2)


def _chosen(key: str | None, shaft: float, standard: str) -> Key:
    known = keys(standard)
    if key is None:
        for row in known:
            if row.above < shaft <= row.to + 1e-9:
                return row
        raise BadInput(
            "shaft_diameter",
            f"{shaft:g} mm is outside the table: above {known[0].above:g} and up to "
            f"{known[-1].to:g} mm is in it. Name the key as width x height.",
        )
    parts = key.lower().replace("×", "x").split("x")
    sizes = [
        quantity.parse(part, inch=standard == "inch", key="key", above=0, high=100)
        for part in parts
    ]
    if len(sizes) > 2:
        raise BadInput("key", "Write a key as 8x7, or its width alone.")
    for row in known:
        if abs(row.width - sizes[0]) < 1e-6 and (
            len(sizes) == 1 or abs(row.height - sizes[1]) < 1e-6
        ):
            return row
    height = sizes[1] if len(sizes) == 2 else sizes[0]
    return Key(
        0, 0, sizes[0], height, height / 2, height / 2, "half of the key in each"
    )


@reckoning(
    "keyway",
    group="Measuring over and across",
    title="A keyway: key, depths, and the size read across",
    usual={"shaft_diameter": 25},
    usual_inch={"standard": "inch"},
    inputs=(
        Input("shaft_diameter", LENGTH, "of shaft or bore", above=0, high=1000),
        Input("key", TEXT, "such as 8x7; else by the table", default=None),
        Input("standard", TEXT, "of the key", default="metric", choices=STANDARDS),
        Input("bore", FLAG, "whether it is cut in the bore", default=True),
        Input(
            "tool_width", LENGTH, "of the tool; else the key's", default=None, above=0
        ),
        Input(
            "contact",
            TEXT,
            "what the tool was touched with; else corners in a bore, crown on a shaft",
            default=None,
            choices=("crown", "corners"),
        ),
        Input("depth", LENGTH, "below its crown; else the key's", None, above=0),
    ),
    results=(
        Result("key_width", LENGTH, "width of the key"),
        Result("key_height", LENGTH, "height of the key"),
        Result("shaft_depth", LENGTH, "in the shaft, from its crown"),
        Result("hub_depth", LENGTH, "in the bore, from its crown"),
        Result("across", LENGTH, "far wall of bore or shaft to the keyway's floor"),
        Result("corner_drop", LENGTH, "corners of a flat tool before the middle"),
        Result("feed_from_contact", LENGTH, "from the first touch to full depth"),
    ),
    sources=("the key's own standard, named in the answer; geometry of the chord",),
)
def _keyway(
    trail: Trail,
    shaft_diameter: float,
    key: str | None,
    standard: str,
    bore: bool,
    tool_width: float | None,
    contact: str | None,
    depth: float | None,
) -> dict[str, Any]:
    if contact is None:
        # a flat tool meets a bore with its corners, a shaft with its middle
        contact = "corners" if bore else "crown"
    section = _chosen(key, shaft_diameter, standard)
    trail.source(section.source)
    tool = section.width if tool_width is None else tool_width
    if not section.width < shaft_diameter:
        raise BadInput(
            "key", f"The key is as wide as the shaft ({shaft_diameter:g} mm)."
        )
    if section.width < shaft_diameter / SLIMMEST:
        raise BadInput(
            "key",
            f"{section.width:g} mm is no key for {shaft_diameter:g} mm: a fiftieth of "
            "it or more is allowed. Write 0.25in where inches are meant.",
        )
    if not tool < shaft_diameter:
        raise BadInput("tool_width", f"Must be under {shaft_diameter:g} mm.")
    in_shaft, in_hub = section.shaft_depth, section.hub_depth
    if standard == "inch":
        radius = f"{shaft_diameter / 2:g}"
        rise = trail.step(
            "Crown over the seat's corner",
            f"{radius} − √({radius}² − {section.width / 2:g}²)",
            crown(shaft_diameter, section.width),
        )
        in_shaft, in_hub = in_shaft + rise, in_hub - rise + INCH_CLEARANCE
    if depth is not None:
        if not bore and not depth < shaft_diameter / 2:
            raise BadInput("depth", f"Under {shaft_diameter / 2:g} mm is allowed.")
        in_shaft, in_hub = (in_shaft, depth) if bore else (depth, in_hub)
    drop = trail.step(
        "Corners of the tool",
        f"{shaft_diameter / 2:g} − √({shaft_diameter / 2:g}² − {tool / 2:g}²)",
        crown(shaft_diameter, tool),
    )
    if bore:
        across = trail.step(
            "Across",
            f"{shaft_diameter:g} + {in_hub:.4g}",
            shaft_diameter + in_hub,
        )
        # in a bore a flat tool's corners touch the wall before its middle would
        feed = in_hub + (drop if contact == "corners" else 0.0)
    else:
        across = trail.step(
            "Across",
            f"{shaft_diameter:g} − {in_shaft:.4g}",
            shaft_diameter - in_shaft,
        )
        # on a shaft the crown is touched first; the corners meet it lower down
        feed = in_shaft - (drop if contact == "corners" else 0.0)
    trail.step("Feed from contact", f"depth, touched with the {contact}", feed)
    return {
        "key_width": section.width,
        "key_height": section.height,
        "shaft_depth": in_shaft,
        "hub_depth": in_hub,
        "across": across,
        "corner_drop": drop,
        "feed_from_contact": feed,
    }
