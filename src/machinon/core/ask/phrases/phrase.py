"""A question that can be said in a line, and how one is declared."""

from collections.abc import Callable
from typing import Any

from msgspec import Struct

from machinon.core.ask.said import Said

Inputs = dict[str, Any]
Reader = Callable[[Said], Inputs | None]


class Phrase(Struct, frozen=True):
    """A question: its reckoning, an example, and what reads it."""

    reckoner: str
    example: str
    read: Reader
    # whether a word must be said for it; without one every part must be used
    keyed: bool = True


class Phrases(list[Phrase]):
    """The phrases of a subject, each declared where its function stands."""

    def __call__(
        self, reckoner: str, example: str, keyed: bool = True
    ) -> Callable[[Reader], Reader]:
        def declare(read: Reader) -> Reader:
            self.append(Phrase(reckoner, example, read, keyed))
            return read

        return declare
