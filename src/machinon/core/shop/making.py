"""A piece to be made in a job, as the person decided it."""

import msgspec


class Moved(msgspec.Struct, frozen=True):
    """A step of the route moved by the person: just before or after another."""

    step: str
    beside: str
    later: bool = False
    because: str = ""  # why, where a rule of the shop speaks against it


class OwnStep(msgspec.Struct, frozen=True):
    """A step that the person added to the route."""

    key: str
    operation: str
    after: str  # the step that it follows
    title: str
    because: str = ""  # why, where a rule of the shop speaks against it


class Making(msgspec.Struct, frozen=True):
    """One piece of a family."""

    family: str
    # by key, as typed or as a link (`= bore.diameter + 6`); figures of a mate that
    # nothing measures stand among them
    sizes: dict[str, str] = {}
    mates: dict[str, str] = {}  # by role, the id of the piece
    material: str = ""  # empty for the family's usual one
    count: int = 1  # how many alike, where no size of the family says it
    inch: bool = False  # what follows a rule is round in inches, with inch screws
    # the features of a free piece, in their order, none for the usual ones
    parts: tuple[str, ...] = ()
    moved: tuple[Moved, ...] = ()  # steps of the route out of their usual place
    own: tuple[OwnStep, ...] = ()  # steps that the family does not have
    there: tuple[str, ...] = ()  # features that the piece it is made from has already
    old: str = ""  # the id of that piece where it is measured
    read_on: dict[str, str] = {}  # by size, the surface of it that tells it
    # what the rules made of the sizes that nobody typed when this was last kept, by key
    # as they would be typed, and the mark of the figures that they made it of
    ruled: dict[str, str] = {}
    ruled_of: str = ""

    @property
    def decided(self) -> "Making":
        """What the person decided, without what the rules made of the rest."""
        return msgspec.structs.replace(self, ruled={}, ruled_of="")
