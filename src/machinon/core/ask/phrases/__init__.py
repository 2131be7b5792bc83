"""Questions that can be said in a line: which words ask for which sum.

Each phrase takes what it can use of what was said and makes the inputs of its
reckoning of it, or nothing where the question is another one. Inputs stay as they
were typed. The example is one that it answers.
"""

from collections.abc import Mapping

from machinon.core.ask.phrases import (
    cutting,
    fits,
    holes,
    measuring,
    metals,
    tapers,
    threads,
    units,
)
from machinon.core.ask.phrases.phrase import Phrase

__all__ = ["PHRASES", "Phrase", "examples"]

PHRASES = (
    *threads.phrase,
    *fits.phrase,
    *tapers.phrase,
    *holes.phrase,
    *measuring.phrase,
    *cutting.phrase,
    *metals.phrase,
    *units.phrase,
)


def examples() -> Mapping[str, str]:
    """An example for each reckoning that can be asked in a line, by its name."""
    found: dict[str, str] = {}
    for phrase in PHRASES:
        found.setdefault(phrase.reckoner, phrase.example)
    return found
