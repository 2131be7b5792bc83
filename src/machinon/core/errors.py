"""Errors that are meant, and fit to show a person."""

import difflib
from collections.abc import Iterable


class MachinonError(Exception):
    """Something the person can understand and put right."""


class BadInput(MachinonError):
    """A figure or word that cannot be used; names the input it came from."""

    def __init__(self, key: str, message: str) -> None:
        super().__init__(message)
        self.key = key
        self.message = message


def unknown(key: str, word: str, known: Iterable[str]) -> BadInput:
    """The refusal of a name that is not known, offering the nearest that is."""
    names = list(known)
    near = difflib.get_close_matches(word, names, n=1, cutoff=0.5)
    if near:
        hint = f"did you mean {near[0]}?"
    else:
        hint = "known are " + ", ".join(names[:12]) + (" …" if len(names) > 12 else ".")
    return BadInput(key, f"{word!r} is not known; {hint}")
