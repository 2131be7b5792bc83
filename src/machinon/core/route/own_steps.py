"""Steps that a person adds to a route: heat, a weld, a press, glue, or anything in
words of their own.

What takes the piece off the machine is a holding of its own, after that of the step it
follows; words of one's own stand right after their step. Source: shop practice.
"""

from collections.abc import Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.piece.family import Holding, Step
from machinon.core.shop.making import OwnStep

OTHER = "other"  # the operation that is anything else


class OwnKind(Struct, frozen=True):
    """A kind of step that can be added."""

    words: str  # as it is chosen, and titled where nothing else is typed
    place: str = ""  # the holding that it is done in; empty for that of its step
    reason: str = ""


KINDS: Mapping[str, OwnKind] = {
    "harden": OwnKind(
        "Harden and temper it",
        "At the fire",
        "It moves and scales: what is finished to a band is ground after it.",
    ),
    "weld": OwnKind(
        "Weld",
        "On blocks, to be welded",
        "It draws as it cools: what must be true is cut after it.",
    ),
    "press": OwnKind(
        "Press in", "At the press", "Burrs off and both halves read before."
    ),
    "bond": OwnKind("Bond", "At the bench, to be bonded", "Clean, and tried dry."),
    OTHER: OwnKind("In words of your own"),
}


def with_own(
    holdings: Sequence[Holding], own: Sequence[OwnStep]
) -> tuple[Holding, ...]:
    """Holdings of named steps with those that were added; one whose step is gone comes
    last."""
    made = list(holdings)
    for added in own:
        step = Step(added.operation, (), title=added.title, key=added.key)
        at, where = _place(made, added.after)
        kind = KINDS[added.operation]
        if kind.place:
            new = Holding(added.key, "bench", kind.place, kind.reason, (step,))
            made.insert(at + 1, new)
        else:
            steps = made[at].steps
            made[at] = replace(
                made[at], steps=(*steps[: where + 1], step, *steps[where + 1 :])
            )
    return tuple(made)


def _place(holdings: Sequence[Holding], key: str) -> tuple[int, int]:
    """The holding of a step, and where in it; else the end of the last."""
    for at, holding in enumerate(holdings):
        for where, step in enumerate(holding.steps):
            if step.key == key:
                return at, where
    return len(holdings) - 1, len(holdings[-1].steps) - 1
