"""Spanner for a ring nut: a hook round its outside, or two pins in its face.

Seen from above; the nut's axis is at the left, the handle runs to the right.
"""

import math
from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.families._dowels import reamed_to_keep
from machinon.core.piece.block_features import Outline, SixFaces
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Dimension, Feature
from machinon.core.piece.hardware import Hardware, plain_parts
from machinon.core.piece.hole_features import Grid, Hole, Holes
from machinon.core.piece.round_sizes import downwards, step_in
from machinon.core.piece.solid_cuts import Point
from machinon.core.piece.stock import Block
from machinon.core.quantity import ANGLE, TORQUE
from machinon.core.reckoning import TEXT

PLAY = 0.3  # mm: the hook's arc round the nut is that much larger on the radius
FREE = 0.1  # mm: least play of arc and nose, or it does not go on
SINGLE = 300.0  # N: one hand's pull at the end of a handle; a shop rule
SHEARS = 200.0  # N/mm²: what a hardened pin or a hook's nose carries


def _hook(s: Values) -> bool:
    return bool(s["head.kind"] == "hook")


def _arc(s: Values) -> float:
    """Radius of the arc of a hook, mm; none where it has pins."""
    return float(s["nut.diameter"] / 2 + PLAY) if _hook(s) else 0.0


def _arcs(s: Values) -> tuple[float, float] | None:
    """The radii that go round the nut and still bear on it."""
    half = s["nut.diameter"] / 2
    return (half + FREE, half + 2 * PLAY) if _hook(s) else None


def _noses(s: Values) -> tuple[float, float] | None:
    """The noses that go into the slot and do not rock in it."""
    return (s["nut.slot"] - 0.5, s["nut.slot"] - FREE) if _hook(s) else None


def _pin(s: Values) -> float:
    """Diameter of the pins, to half a millimetre; none of a hook."""
    if _hook(s):
        return 0.0
    return downwards(s["nut.hole"] - 0.1, step_in(0.5, s["inch"]))


def _head(s: Values) -> float:
    """Radius of the head, mm."""
    if _hook(s):
        return float(s["hook.arc"] + s["head.wall"])
    return float(s["nut.pitch"] / 2 + s["pins.diameter"] / 2 + s["head.wall"])


def _shape(s: Values) -> tuple[Point, ...]:
    """The outline of head and handle, about the nut's axis."""
    from shapely import Point as At
    from shapely import Polygon, box

    outer, half = _head(s), s["handle.width"] / 2
    round_head = At(0, 0).buffer(outer, quad_segs=24)
    handle = box(0, -half, outer + s["handle.length"], half)
    if not _hook(s):
        made = round_head.union(handle)
    else:
        inner = s["hook.arc"]
        far = 4 * outer
        last = math.radians(s["hook.reach"])
        turns = [last * i / 12 for i in range(13)]
        sector = Polygon(
            [(0, 0), *((far * math.cos(a), far * math.sin(a)) for a in turns)]
        )
        # the nose stands in, square to the nut, at the end of the arc
        out, along = (math.cos(last), math.sin(last)), (-math.sin(last), math.cos(last))
        wide = s["hook.width"]
        middle = inner + s["head.wall"] / 2
        tip = s["nut.diameter"] / 2 - s["hook.depth"]
        nose = Polygon(
            [
                (out[0] * r - along[0] * w, out[1] * r - along[1] * w)
                for r, w in ((tip, 0.0), (middle, 0.0), (middle, wide), (tip, wide))
            ]
        )
        ring = round_head.intersection(sector).union(handle)
        made = ring.difference(At(0, 0).buffer(inner, quad_segs=24)).union(nose)
    if made.geom_type != "Polygon":
        made = max(made.geoms, key=lambda part: part.area)
    points = [(float(a), float(b)) for a, b in made.exterior.coords[:-1]]
    return tuple(points if made.exterior.is_ccw else points[::-1])


def build(s: Values) -> Body:
    if not _hook(s) and s["pins.diameter"] < 0.5:
        raise BadInput("pins.diameter", "Pins are no smaller than half a millimetre.")
    shape = _shape(s)
    # the nut's axis, from the low left corner of what is sawn out
    x, y = (-min(point[way] for point in shape) for way in (0, 1))
    size = (
        x + max(point[0] for point in shape),
        y + max(point[1] for point in shape),
        float(s["plate.thickness"]),
    )
    half, outer = s["handle.width"] / 2, y + _head(s)
    measures = [
        ("handle", Dimension("x", x + _head(s), size[0], (y + half, 0.0))),
        ("width", Dimension("y", y - half, y + half, (size[0], 0.0))),
        ("wall", Dimension("y", outer - s["head.wall"], outer, (x, 0.0))),
    ]
    if _hook(s):
        on_arc = x, y + s["hook.arc"]
        measures += [
            (measure, Dimension("hole", 0.0, 0.0, on_arc))
            for measure in ("arc", "reach")
        ]
        measures.append(("middle_x", Dimension("x", 0.0, x, (y, 0.0))))
        measures.append(("middle_y", Dimension("y", 0.0, y, (x, 0.0))))
    at = tuple((px + x, py + y) for px, py in shape)
    features: list[Feature] = [
        SixFaces("plate", *size),
        Outline("shape", size, at, tuple(measures)),
    ]
    if not _hook(s):
        apart = s["nut.pitch"]
        two = Grid(1, 2, 0.0, apart, (x, y - apart / 2))
        hole = Hole(s["pins.diameter"], ream=True)
        features.insert(1, Holes("pins", "top", two, hole, size[2], block=size))
    over = s["stock.over"]
    long, wide = (math.ceil(side + over) for side in size[:2])
    stock = Block((-over, -over, 0.0), (long, wide, size[2]))
    return Body(stock, tuple(features))


def checks(s: Values) -> Iterable[Check]:
    arm = (s["handle.length"] + _head(s)) / 1000
    most = SINGLE * arm
    yield Check(
        "torque",
        "shape",
        s["nut.torque"] <= most <= 3 * s["nut.torque"],
        f"A hand of {SINGLE:g} N at its end gives {most:.0f} Nm; {s['nut.torque']:g} "
        f"are wanted, and no more than {3 * s['nut.torque']:.0f}, or the nut suffers.",
        grave=False,
    )
    if _hook(s):
        yield at_least(
            "arc-over-nut",
            "shape",
            s["hook.arc"] - s["nut.diameter"] / 2,
            FREE,
            "Arc larger than the nut, on the radius",
        )
        yield at_least(
            "nose-in-slot",
            "shape",
            s["nut.slot"] - s["hook.width"],
            FREE,
            "Slot of the nut wider than the nose",
        )
        yield at_least(
            "nose-short",
            "shape",
            s["nut.slot_depth"] - s["hook.depth"],
            0.2,
            "Slot deeper than the nose, so that the arc bears",
        )
        pull = s["nut.torque"] * 1000 / (s["nut.diameter"] / 2)
        stress = pull / (s["hook.width"] * s["plate.thickness"])
        place = "shape"
    else:
        yield at_least(
            "pins-in-holes",
            "pins",
            s["nut.hole"] - s["pins.diameter"],
            0.05,
            "Holes of the nut wider than the pins",
        )
        yield at_least(
            "pins-close",
            "pins",
            0.6 - (s["nut.hole"] - s["pins.diameter"]),
            0.0,
            "Pins not so thin that they bear on an edge",
            grave=False,
        )
        pull = s["nut.torque"] * 1000 / s["nut.pitch"]
        stress = pull / (math.pi / 4 * s["pins.diameter"] ** 2)
        place = "pins"
    yield Check(
        "shears",
        place,
        stress <= SHEARS,
        f"At that torque {'the nose' if _hook(s) else 'each pin'} carries "
        f"{stress:.0f} N/mm²; up to {SHEARS:.0f} does.",
        have=stress,
        need=SHEARS,
    )
    yield at_least(
        "swing",
        "shape",
        s["machine.clear"],
        s["plate.thickness"] + (0.0 if _hook(s) else 2.0),
        "Room over the nut for the spanner",
        grave=False,
    )


def route(s: Values) -> tuple[Holding, ...]:
    flat = Holding(
        "flat",
        "mill",
        "In the vise, the plate flat",
        "From plate of its thickness: only its edges are cut.",
        (
            Step("mark", ("plate",), title="Stick the template on, punch the middles"),
            Step("square", ("plate",), title="Cut the blank to length and width"),
            *(
                (
                    Step("drill", ("pins",)),
                    reamed_to_keep("pins", s["pins.diameter"]),
                    Step("prove", ("pins",), title="Span over two pins against the "
                         "nut's holes", tool="caliper, two pins"),
                )
                if not _hook(s)
                else ()
            ),
        ),
    )  # fmt: skip
    shape = Holding(
        "shape",
        "bench",
        "In the bench vise",
        "Sawn near the line and filed to it; the arc and the nose by the nut itself.",
        (
            Step("mill", ("shape",), title="Saw near the line, file to it",
                 tool="saw and files", note="Blue the nut, try it on, file where it "
                 "shows." if _hook(s) else ""),
            Step("deburr", ()),
        ),
    )  # fmt: skip
    last = Step(
        "harden" if _hook(s) else "press",
        (),
        title="Harden the nose, temper it tough" if _hook(s) else "Press the pins in",
        note=""
        if _hook(s)
        else "They stand out by what the nut's holes are deep, less a little.",
        key="last",
    )
    end = Holding("end", "bench", "At the bench", "What bears is hard.", (last,))
    return flat, shape, end


def hardware(s: Values) -> Iterable[Hardware]:
    if not _hook(s):
        yield plain_parts("dowel", s["pins.diameter"], 2, "in the nut's holes")


FAMILY = Family(
    "ring-nut-spanner",
    "Ring nut spanner",
    "Turns a ring nut: a hook round its outside, or two pins in its face.",
    "as a hook for a slotted nut of 45 mm",
    also="hook pin peg face C spanner wrench lock nut bearing nut slotted template",
    sizes=(
        Size("head.kind", "how it takes the nut", "hook", "by its slots", kind=TEXT,
             choices=("hook", "pins")),
        Size("head.wall", "wall of the head", "up(0.22*nut.diameter, 1)", "", 3, 60,
             at="shape.wall"),
        Size("plate.thickness", "thickness of the plate",
             "down(min(nut.thick, 8), 0.5)",
             "no thicker than the nut", 2, 30, at="plate.height"),
        Size("hook.arc", "radius of the arc", _arc, "the nut's, and play", 0, 400,
             rests=("head.kind",), at="shape.arc", limits=_arcs),
        Size("hook.reach", "how far the hook goes round", "130",
             "more than a third of the nut", 60, 200, ANGLE, at="shape.reach"),
        Size("hook.width", "width of the nose", "down(nut.slot - 0.2, 0.1)",
             "into the slot", 1, 40, limits=_noses),
        Size("hook.depth", "how far the nose stands in",
             "down(nut.slot_depth - 0.4, 0.1)", "short of the slot's floor", 0.5, 20),
        Size("pins.diameter", "pins", _pin, "a little under the holes", 0, 20,
             rests=("head.kind",)),
        Size("handle.length", "length of the handle", "up(nut.torque*1000/220, 10)",
             "what one hand gives", 30, 600, at="shape.handle"),
        Size("handle.width", "width of the handle", "up(0.45*nut.diameter, 1)", "", 6,
             80, at="shape.width"),
        Size("stock.over", "stock round it", "1.5", "sawn", 0, 20),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("nut", "the ring nut", (
            MateSize("diameter", "its outside", 45.0, ("shaft",)),
            MateSize("slot", "width of its slots", 5.0, ("slot", "groove")),
            MateSize("slot_depth", "depth of its slots", 2.5, ("depth",)),
            MateSize("thick", "its thickness", 9.0, ("thickness", "length")),
            MateSize("pitch", "between two opposite holes in its face", 34.0,
                     least=2),
            MateSize("hole", "those holes", 4.2),
            MateSize("torque", "what it is tightened to, Nm", 30.0, kind=TORQUE),
        )),
        Mate("machine", "where it is turned", (
            MateSize("clear", "room over the nut", 15.0),
        )),
    ),
    material="tool steel",
    full={"hook.width": "4.8"},
    ways=({"head.kind": "pins"},),
    proof=("plate.thickness",),
    cautions={
        "proof": "Spindle locked or in back gear, machine off at its switch: pull the "
        "spanner towards you, never push.",
    },
)  # fmt: skip
