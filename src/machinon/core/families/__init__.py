"""The families: one file each, found by its folder.

A file has a `FAMILY`; one whose name begins with _ has what several share. Nothing else
in the program names one.
"""

import difflib
import functools
import importlib
import pkgutil
from collections.abc import Mapping

from machinon.core.errors import BadInput, unknown
from machinon.core.piece.family import Family, grown
from machinon.core.piece.found_by import looked_up, of_family
from machinon.core.shop.making import Making

MISSPELLED = 0.8  # how alike two names are of which one was meant


@functools.cache
def families() -> Mapping[str, Family]:
    """Every family by its key, in the order of their names."""
    found = (
        importlib.import_module(f"{__name__}.{module.name}").FAMILY
        for module in pkgutil.iter_modules(__path__)
        if not module.name.startswith("_")
    )
    return {
        family.key: family
        for family in sorted(found, key=lambda family: str(family.name))
    }


def family_of(key: str) -> Family:
    """A family by its key. Raises BadInput with the nearest: one misspelled, else what
    these words speak of."""
    known = families()
    if key in known:
        return known[key]
    near = difflib.get_close_matches(key, known, n=1, cutoff=MISSPELLED)
    if not near and any(letter.isalnum() for letter in key):
        found = looked_up(((k, of_family(family)) for k, family in known.items()), key)
        near = list(found.keys) if found.named else []
    if near:
        raise BadInput("family", f"{key!r} is not known; did you mean {near[0]}?")
    raise unknown("family", key, known)


def family_for(making: Making) -> Family:
    """The family of a piece to be made, with its own parts where it is a free one."""
    if not making.parts:
        return family_of(making.family)
    return _with_parts(making.family, making.parts)


@functools.lru_cache(maxsize=64)
def _with_parts(key: str, parts: tuple[str, ...]) -> Family:
    return grown(family_of(key), parts)
