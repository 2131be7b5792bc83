"""The order of work: what the shop's rules say of it, and steps moved by the person.

A step may be moved within its holding or into another one. What no metal allows (a tap
before its drill) is refused; what a rule of the shop speaks against is said, and done
all the same once a reason is given.
"""

from collections.abc import Iterator, Sequence
from typing import NamedTuple

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.piece.family import Holding, Step
from machinon.core.shop.making import Moved

# of a drilled hole, in the holding of its drill; broached, under the press
AFTER_DRILL = ("tap", "counterbore", "countersink", "ream", "bore", "broach")
AFTER_SAW = (
    "mill",
    "square",
    "deburr",
    "prove",
    "saw",
    "harden",
    "grind",
    "mount",
    "other",
)
AFTER_HEAT = (
    "grind",
    "prove",
    "deburr",
    "mark",
    "mount",
    "press",
    "bond",
    "harden",
    "other",
)
NO_METAL = (
    "mark",
    "prove",
    "mount",
    "bond",
    "deburr",
    "other",
)  # operations that leave the shape
FREE = ("mark", "deburr", "prove", "saw", "other")  # done wherever the piece is


class Broken(Struct, frozen=True):
    """A rule of the shop that an order of work breaks, at a step."""

    step: str
    says: str
    # no metal allows it; otherwise it can be overruled with a reason
    never: bool = False


class PlacedStep(NamedTuple):
    """A step in its place."""

    number: int
    holding: Holding
    step: Step

    def of(self, other: "PlacedStep") -> bool:
        """Whether both cut the same feature."""
        return bool(set(self.step.features) & set(other.step.features))


def keyed(holdings: Sequence[Holding]) -> tuple[Holding, ...]:
    """Every step with a name that stays: its own, or operation and first feature."""
    seen: dict[str, int] = {}

    def named(step: Step) -> Step:
        name = step.key or "-".join([step.operation, *step.features[:1]])
        seen[name] = seen.get(name, 0) + 1
        return replace(step, key=name if seen[name] == 1 else f"{name}-{seen[name]}")

    return tuple(
        replace(holding, steps=tuple(named(step) for step in holding.steps))
        for holding in holdings
    )


def in_order(
    holdings: Sequence[Holding], moved: Sequence[Moved]
) -> tuple[Holding, ...]:
    """Holdings of named steps as the person moved these; a holding may come out empty.

    What no longer fits the piece (a feature was taken out) is passed over.
    """
    made = list(holdings)
    for move in moved:
        step = next((s for h in made for s in h.steps if s.key == move.step), None)
        if step is None or not any(
            s.key == move.beside for h in made for s in h.steps if s is not step
        ):
            continue
        for at, holding in enumerate(made):
            left = [step for step in holding.steps if step.key != move.step]
            for where, later in enumerate(left):
                if later.key == move.beside:
                    left.insert(where + move.later, step)
                    break
            made[at] = replace(holding, steps=tuple(left))
    return tuple(made)


def stepped(
    holdings: Sequence[Holding], moved: Sequence[Moved], key: str, later: bool
) -> tuple[Moved, ...]:
    """The moves with one more: a step one place earlier or later.

    From the end of its holding it goes into the next. Raises BadInput on `step` at the
    ends of the route.
    """
    now = in_order(holdings, moved)
    rows = [(up, step.key) for up, holding in enumerate(now) for step in holding.steps]
    at = next(number for number, (_, name) in enumerate(rows) if name == key)
    other = at + (1 if later else -1)
    if not 0 <= other < len(rows):
        raise BadInput("step", f"It is the {'last' if later else 'first'} step.")
    within = rows[at][0] == rows[other][0]
    # across the gap between two holdings it stays between the same neighbours
    after = later if within else not later
    beside = rows[other][1]
    left = tuple(moved for moved in moved if moved.step != key)
    move = Moved(key, beside, after)
    wanted = in_order(now, [move])
    # its earlier moves are let go of, unless another step stands where it does by them
    for fewer in (left, (*left, move)):
        if in_order(holdings, fewer) == wanted:
            return fewer
    return (*moved, move)


def broken(holdings: Sequence[Holding], planned: Sequence[Holding]) -> list[Broken]:
    """The rules that an order of named steps breaks; planned: the family's own."""
    home = {step.key: holding.key for holding in planned for step in holding.steps}
    placed = [
        PlacedStep(number, holding, step)
        for number, (holding, step) in enumerate(
            (holding, step) for holding in holdings for step in holding.steps
        )
    ]
    firsts = {holding.steps[0].key for holding in planned if holding.steps}
    out: list[Broken] = []
    for at in placed:
        before, after = placed[: at.number], placed[at.number + 1 :]
        out += _impossible(at, after)
        here = [p for p in before if p.holding is at.holding]
        if at.step.operation == "mount" and here and at.step.key in firsts:
            out.append(Broken(at.step.key, "The piece is held by it first.", True))
        out += _against_the_rules(at, before, home)
    return out


def _impossible(placed: PlacedStep, after: Sequence[PlacedStep]) -> Iterator[Broken]:
    """Orders that no metal allows: a feature's steps the other way round."""
    for other in after:
        if other.step.operation in NO_METAL or not placed.of(other):
            continue
        if placed.step.operation in AFTER_DRILL and other.step.operation == "drill":
            yield Broken(placed.step.key, "There is no hole for it yet.", True)
        elif placed.step.operation == "prove":
            yield Broken(placed.step.key, "It is not cut yet.", True)
        elif other.step.leaves > placed.step.leaves:
            yield Broken(placed.step.key, "It is roughed before it is finished.", True)


def _against_the_rules(
    placed: PlacedStep, before: Sequence[PlacedStep], home: dict[str, str]
) -> Iterator[Broken]:
    """Orders that a rule of the shop speaks against."""
    step = placed.step
    here = [other for other in before if other.holding is placed.holding]
    drilled = [p for p in before if p.step.operation == "drill" and p.of(placed)]
    elsewhere = drilled and drilled[-1] not in here and step.operation != "broach"
    if step.operation in AFTER_DRILL and elsewhere:
        yield Broken(
            step.key,
            "Finish a hole in the holding of its drill: set up again it is never quite "
            "in line.",
        )
    elif step.hold and not any(other.of(placed) for other in here):
        yield Broken(
            step.key,
            "It is proved where it was cut: once it has come off it cannot be put back "
            "as true.",
        )
    elif step.operation not in FREE and placed.holding.key != home[step.key]:
        yield Broken(
            step.key,
            "What must run true together is cut in one holding: here it is only as "
            "true to the rest as the piece is set up again.",
        )
    if step.operation not in AFTER_HEAT and any(
        other.step.operation == "harden" for other in before
    ):
        yield Broken(step.key, "It is hard by then: only a wheel cuts it.")
    if step.operation not in AFTER_SAW and any(
        other.step.operation == "saw" for other in before
    ):
        yield Broken(
            step.key, "Sawing comes last: what is sawn off is hard to hold for it."
        )
