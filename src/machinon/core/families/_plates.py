"""Plates that begin as a plate block with the right features on it already.

Each is a plate block in all it can do; its own file says what it starts with, what it
goes on, and what usually goes wrong with it.
"""

import math
from collections.abc import Callable, Iterable, Mapping
from itertools import chain

from msgspec.structs import replace

from machinon.core.families import plate_block
from machinon.core.families._plate_checks import checks as plate_checks
from machinon.core.piece.family import Check, Family, Holding, Mate, Size, Values, grown
from machinon.core.piece.hardware import Hardware
from machinon.core.setting_out.arcs_and_vees import over_vee


def touches(width: float, angle: float, diameter: float) -> tuple[float, float]:
    """Depth of a vee, and how far below its mouth a round touches the flanks, mm.

    width: of the vee at its mouth; angle: flank to flank, degrees.
    """
    deep = width / 2 / math.tan(math.radians(angle / 2))
    _, touch = over_vee(diameter, angle)
    return deep, deep - touch


def plate(
    key: str,
    name: str,
    purpose: str,
    example: str,
    also: str,
    names: tuple[str, ...],
    starts: Mapping[str, str | tuple[str, str]],
    mates: tuple[Mate, ...] = (),
    checks: Callable[[Values], Iterable[Check]] = lambda values: (),
    ways: tuple[Mapping[str, str], ...] = (),
    after: tuple[Holding, ...] = (),
    hardware: Callable[[Values], Iterable[Hardware]] = lambda values: (),
) -> Family:
    """A kind of plate. names: the features it starts with; starts: by size, or by part
    and measure (`holes.screw`), the rule it starts from instead, with its words where
    the rule does not speak for itself; after: what is done with it once it is a
    plate."""
    block = plate_block.FAMILY
    # it stands on no lathe and under no tool post
    starts = {"bore.from_side": "block.length/2", **starts}

    def begun(size: Size, of: str = "") -> Size:
        rule = starts.get(f"{of}.{size.key}" if of else size.key)
        if rule is None:
            return size
        rule, why = rule if isinstance(rule, tuple) else (rule, "")
        return replace(size, rule=rule, why=why)

    parts = tuple(
        replace(part, sizes=tuple(begun(size, part.key) for size in part.sizes))
        for part in block.parts
    )
    bare = replace(
        block,
        key=key,
        name=name,
        purpose=purpose,
        example=example,
        also=also,
        free=False,
        own=tuple(begun(size) for size in block.own),
        parts=parts,
        mates=mates,
        checks=lambda values: chain(plate_checks(values), checks(values)),
        hardware=lambda values: chain(plate_block.hardware(values), hardware(values)),
        route=lambda values: (*plate_block.route(values), *after),
        full={},
        ways=ways,
    )
    return grown(bare, names)
