"""A piece to be made in a job, as the person decided it."""

import msgspec


class Moved(msgspec.Struct, frozen=True):
    """A step of the route moved by the person: just before or after another.

    because: why, where a rule of the shop speaks against it.
    """

    step: str
    beside: str
    later: bool = False
    because: str = ""


class Making(msgspec.Struct, frozen=True):
    """One piece of a family.

    sizes: by key, as typed or as a link (`= bore.diameter + 6`); figures of a mate that
    nothing measures stand among them; mates: by role, the id of the piece; material:
    empty for the family's usual one; parts: the features of a free piece, in their
    order, none for the usual ones; moved: steps of the route out of their usual place;
    there: features that the piece it is made from has already; old: the id of that
    piece where it is measured; read_on: by size, the surface of it that tells it.
    """

    family: str
    sizes: dict[str, str] = {}
    mates: dict[str, str] = {}
    material: str = ""
    parts: tuple[str, ...] = ()
    moved: tuple[Moved, ...] = ()
    there: tuple[str, ...] = ()
    old: str = ""
    read_on: dict[str, str] = {}
