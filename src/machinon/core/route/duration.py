"""About how long a step takes: the metal over what a light tool takes off, and hands.

Source: shop rules for a small lathe and mill; the cutting figures of the materials.
"""

import math

from machinon.core.materials import Material, material
from machinon.core.piece.block_features import Outline, SixFaces
from machinon.core.piece.body import cuts_of
from machinon.core.piece.feature import Feature
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.milled_features import Flats, ToTheMiddle
from machinon.core.piece.solid_cuts import Sunk, extent
from machinon.core.piece.stock import Block
from machinon.core.piece.turned_features import Ball, NutThread, Screw
from machinon.core.route.drills import bored_to
from machinon.core.route.steps import StepTold

STANDING = {
    "mount": 5.0,
    "mark": 5.0,
    "deburr": 5.0,
    "prove": 3.0,
    "other": 10.0,
    "press": 5.0,
    "bond": 10.0,
    "broach": 10.0,
    "keyway": 10.0,
    "thread": 15.0,
    "weld": 20.0,
    "saw-off": 10.0,
    "grind": 20.0,
    "harden": 90.0,
}  # minutes of what takes its time whatever is cut
BANDED = ("turn", "bore", "face", "mill")  # what is cut bit by bit
HANDLING = 1.0  # minutes to set a tool and wind back
TOUCHED = 2.0  # minutes to touch off on the mill and to measure
TURNED_OVER = 3.0  # minutes to turn a block over, bed it and deburr it
SET_TRUE = 8.0  # minutes to set the face of a block true in four jaws
SNEAKED_UP = 8.0  # minutes of cuts and readings until a size is in its band
BLUED = 15.0  # minutes of setting, bluing and turning until a taper bears
EACH_HOLE, EACH_TAPPED, EACH_FLAT = 0.5, 2.0, 2.0  # minutes, to find it and do it
EACH_BORED = 8.0  # minutes, by a boring head
EACH_LAP = 0.3  # minutes, to find a hole and to spot or drill it
MILLED = 60.0  # mm³ a minute for each m/min that high-speed steel may cut the metal at
BALL = 20.0  # minutes to turn a ball in its steps and to file it
FILED = 50.0  # mm² of edge a minute, sawn near a line and filed to it
PARTED = 0.04  # mm a turn


def minutes_of(step: StepTold) -> float:
    """Time for a step, minutes."""
    if step.operation in STANDING:
        threads = [f for f in step.cut if isinstance(f, Screw | NutThread)]
        again = threads[0].of.starts if threads and step.operation == "thread" else 1
        return again * STANDING[step.operation]
    metal = material(step.material)
    if step.operation == "part":
        cut = step.diameter / 2 / (PARTED * step.rpm) if step.rpm else 0.0
    elif step.before.turns:
        cut = _turned(step, metal)
    else:
        cut = TOUCHED + sum(_milled(step, feature, metal) for feature in step.cut)
    if step.operation == "taper" and not step.leaves:
        cut += BLUED
    elif step.banded and step.operation in BANDED:
        cut += SNEAKED_UP
    each = EACH_TAPPED if step.operation == "tap" else EACH_HOLE
    if step.operation == "drill":  # spotted first, and each drill set
        tools = 1 + len(step.drills)
        cut, each = cut + (tools - 1) * HANDLING, tools * EACH_LAP
    for feature in step.cut:
        if isinstance(feature, Holes | CrossHoles):
            cut += each * feature.many
            if step.operation == "drill" and bored_to(feature, step.drill):
                cut += EACH_BORED * feature.many
        elif isinstance(feature, Ball):
            cut += BALL
        elif isinstance(feature, Flats | ToTheMiddle):
            cut += EACH_FLAT * len(feature.angles)
    return round(HANDLING + cut, 1)


def _turned(step: StepTold, metal: Material) -> float:
    taken = step.before.turned_volume - step.after.turned_volume
    section = metal.rough_feed * metal.rough_depth
    rate = step.rpm * math.pi * step.diameter * section  # mm³ a minute
    return taken / rate if rate else 0.0


def _milled(step: StepTold, feature: Feature, metal: Material) -> float:
    """Volume that an end mill removes from a block, by its outline and its depth."""
    rate = MILLED * (metal.turn_hss or metal.turn_carbide / 4)
    stock = step.before.stock
    if isinstance(feature, SixFaces) and isinstance(stock, Block):
        taken = math.prod(stock.size) - feature.length * feature.width * feature.height
        return 6 * (SET_TRUE if step.corners else TURNED_OVER) + taken / rate
    if isinstance(feature, Outline):
        round_it = zip(
            feature.points, (*feature.points[1:], feature.points[0]), strict=True
        )
        return sum(math.dist(a, b) for a, b in round_it) * feature.block[2] / FILED
    box = step.before.shadow.box
    roughed = [it for it in step.before.features if it.name == feature.name]
    taken = _sunk(feature, box) - sum(_sunk(it, box) for it in roughed)
    return max(taken, 0.0) / rate


def _sunk(feature: Feature, box: tuple[float, ...]) -> float:
    """About what a feature's prisms take out of a box, mm³."""
    taken = 0.0
    for cut in cuts_of(feature):
        if not isinstance(cut, Sunk) or not cut.frame.square:
            continue
        low, high = cut.span()
        sides = [
            max(min(last, far) - max(first, near), 0.0)
            for first, last, near, far in zip(low, high, box[:3], box[3:], strict=True)
        ]
        left, under, right, over = extent(cut.outline)
        filled = abs(_area(cut)) / ((right - left) * (over - under))
        taken += math.prod(sides) * filled
    return taken


def _area(cut: Sunk) -> float:
    round_it = zip(cut.outline, (*cut.outline[1:], cut.outline[0]), strict=True)
    return sum(x * v - u * y for (x, y), (u, v) in round_it) / 2
