"""What a kind of piece is found by: the words of its name and of all it is for."""

import difflib
import re
from collections.abc import Collection, Iterable
from itertools import chain, pairwise

from msgspec import Struct

from machinon.core.piece.family import Family

# what says nothing of what a thing is called
SMALL = (
    *("a", "an", "and", "for", "in", "of", "on", "the", "to", "with", "my", "new"),
    *("mm", "inch"),
)
SPELT_TOO = {
    "centre": "center",
    "vise": "vice",
    "adapter": "adaptor",
    "gauge": "gage",
}
ALIKE = 0.79  # how alike a word is to the one that was meant
NEAREST = 6  # things, where none is called what is typed


class FoundBy(Struct, frozen=True):
    """The words that something is found by."""

    named: frozenset[str]  # those of its name
    also: frozenset[str]  # and of what else it is called
    said: frozenset[str]  # and of what is said of it: all

    def answers(self, wanted: Collection[str]) -> int:
        """How many of these words begin one that it is found by."""
        return sum(
            _stem(w) in self.said or any(word.startswith(w) for word in self.said)
            for w in wanted
        )

    def is_called(self, typed: str) -> bool:
        """Whether all that was typed are whole words of it, and no beginnings."""
        return all(
            word in self.said or _stem(word) in self.said
            for word in _words(typed)
            if word not in SMALL and not word[0].isdigit()
        )

    def how_well(self, wanted: Collection[str]) -> int:
        """More where whole words were typed, most where they are in its name."""
        words = {*wanted, *map(_stem, wanted)}
        return sum(len(words & those) for those in (self.named, self.also, self.said))


class Found(Struct, frozen=True):
    """What was looked for: the keys, what is said best first."""

    keys: tuple[str, ...]
    named: bool  # whether all that was typed is said of each; else they are near


def found_by(name: str, also: str, purpose: str = "") -> FoundBy:
    """What a name, other names and what is said of it are found by.

    >>> found_by("Back plate", "", "for a chuck").answers(["backplate", "chucks"])
    2
    """
    return FoundBy(
        *(
            _all_ways(" ".join(said))
            for said in ((name,), (name, also), (name, also, purpose))
        )
    )


def of_family(family: Family) -> FoundBy:
    """What a family is found by."""
    return found_by(family.name, family.also, f"{family.purpose} {family.example}")


def looked_up(things: Iterable[tuple[str, FoundBy]], typed: str) -> Found:
    """What is called what is typed; where nothing is, those that most of its words
    speak of, a few of them."""
    known = list(things)
    every = _words(typed)
    wanted = [word for word in every if word not in SMALL] or every
    # a number is a size, unless something is called by it
    wanted = [
        word
        for word in wanted
        if not word[0].isdigit() or any(word in by.also for _, by in known)
    ] or wanted
    wanted = [_as_spelled(word, known) for word in wanted]
    answers = {key: by.answers(wanted) for key, by in known}
    most = max(answers.values(), default=0)
    # what it is comes last: a slide's nut is a nut
    last = wanted[-1:]
    best = sorted(
        ((key, by) for key, by in known if answers[key] == most),
        key=lambda thing: (-thing[1].answers(last), -thing[1].how_well(wanted)),
    )
    keys = tuple(key for key, _ in best)
    if most == len(wanted):
        return Found(keys, named=True)
    return Found(keys[:NEAREST] if most else (), named=False)


def _as_spelled(word: str, known: list[tuple[str, FoundBy]]) -> str:
    """A word, or where nothing is called so what is called nearly so."""
    if any(by.answers([word]) for _, by in known):
        return word
    words = sorted(frozenset().union(*(by.also for _, by in known)))
    near = difflib.get_close_matches(word, words, n=1, cutoff=ALIKE)
    return near[0] if near else word


def _all_ways(said: str) -> frozenset[str]:
    """The words of a text, and how else they are written: a back plate is a backplate,
    a center a centre, what is tapered a taper."""
    words = _words(said)
    joined = (a + b for a, b in pairwise(words))
    spelt = (SPELT_TOO[word] for word in words if word in SPELT_TOO)
    return frozenset(chain(words, joined, spelt, map(_stem, words)))


def _stem(word: str) -> str:
    """A word without its ending: tapping is by a tap, what is tapered has a taper."""
    bare = re.sub(r"(?<=....)(ing|ed)$", "", word)
    return re.sub(r"([bdgmnprt])\1$", r"\1", bare) if bare != word else word


def _words(said: str) -> list[str]:
    """The words of what is said or typed; nuts and nut are one."""
    words = re.findall(r"[^\W_]+", said.casefold())
    return [w.removesuffix("s") if len(w) > 3 else w for w in words]
