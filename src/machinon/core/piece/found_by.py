"""What a kind of piece is found by: the words of its name and of all it is for."""

import re
from collections.abc import Collection, Iterable
from itertools import pairwise

from msgspec import Struct

from machinon.core.piece.family import Family

SMALL = ("a", "an", "and", "for", "in", "of", "on", "the", "to", "with")


class FoundBy(Struct, frozen=True):
    """The words that something is found by."""

    named: frozenset[str]  # those of its name
    said: frozenset[str]  # all of them

    def answers(self, wanted: Collection[str]) -> int:
        """How many of these words begin one that it is found by."""
        return sum(any(word.startswith(w) for word in self.said) for w in wanted)

    def how_well(self, wanted: Collection[str]) -> int:
        """More where whole words were typed, most where they are in its name."""
        words = set(wanted)
        return 2 * len(words & self.named) + len(words & self.said)


def found_by(name: str, said: str) -> FoundBy:
    """What a name and what is said of it are found by.

    >>> found_by("Back plate", "for a chuck").answers(["backplate", "chucks"])
    1
    """
    named, every = _words(name), [*_words(name), *_words(said)]
    return FoundBy(_with_joined(named), _with_joined(every))


def of_family(family: Family) -> FoundBy:
    """What a family is found by."""
    return found_by(family.name, f"{family.also} {family.purpose} {family.example}")


def wanted_words(typed: str) -> list[str]:
    """The words that are typed but for the smallest.

    >>> wanted_words("nuts for the table")
    ['nut', 'table']
    """
    every = _words(typed)
    return [word for word in every if word not in SMALL] or every


def ranked(
    things: Iterable[tuple[str, FoundBy]], wanted: list[str], count: int
) -> list[str]:
    """The keys of what so many of the words speak of, what they say best first."""
    named = [(key, by) for key, by in things if by.answers(wanted) == count]
    # what it is comes last: a slide's nut is a nut
    last = wanted[-1:]
    named.sort(key=lambda thing: (-thing[1].answers(last), -thing[1].how_well(wanted)))
    return [key for key, _ in named]


def _with_joined(words: list[str]) -> frozenset[str]:
    """A back plate is a backplate, a draw bar a drawbar."""
    return frozenset(words).union(a + b for a, b in pairwise(words))


def _words(said: str) -> list[str]:
    """The words of what is said or typed; nuts and nut are one."""
    words = re.findall(r"[^\W_]+", said.casefold())
    return [w.removesuffix("s") if len(w) > 3 else w for w in words]
