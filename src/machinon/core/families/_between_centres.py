"""Work between centres: what the dog covers is turned from the other end."""

from machinon.core.piece.family import Holding, Step
from machinon.core.piece.feature import Side

# of hexagon or square bar, while it is turned round
CORNERS = "Its corners knock until it is round: a stout tool, small first cuts."
COPPER = ", copper under it"
CATCHES = "The dog's tail catches sleeves and rags: sleeves up, no filing near it."


HOLES_AND_CENTRES = (
    "Both ends get their holes and a true centre first: everything after is turned "
    "between them."
)


def each_end(why: str, steps: tuple[Step, ...]) -> Holding:
    """What comes first: the ends in the chuck, one after the other."""
    return Holding("ends", "lathe", "In the chuck, each end in turn", why, steps)


def dog_on(where: str, out: Side, stands_still: bool = False) -> Step:
    """The first end; out: the end that is cut. A centre that turns in the headstock is
    turned true first; both of a grinder stand still."""
    title = f"Turn the headstock centre true, set the dog on {where}"
    if stands_still:
        title = f"Set the dog on {where}"
    return Step("mount", (), title=title, key="dog", out=out, caution=CATCHES)


def end_for_end(where: str, out: Side) -> Step:
    """The other end: between the same centres it runs as true as before."""
    title = f"Turn it end for end, the dog on {where}"
    return Step(
        "mount",
        (),
        title=title,
        key=f"{out}-end-out",
        out=out,
        caution=CATCHES,
        note="Wipe the centres and their holes; grease in the one that stands still.",
    )
