"""The families: one file each, found by its folder.

A file has a `FAMILY`; one whose name begins with _ has what several share. Nothing else
in the program names one.
"""

import functools
import importlib
import pkgutil
from collections.abc import Mapping

from machinon.core.errors import unknown
from machinon.core.piece.family import Family


@functools.cache
def families() -> Mapping[str, Family]:
    """Every family by its key, in the order of their names."""
    found = (
        importlib.import_module(f"{__name__}.{one.name}").FAMILY
        for one in pkgutil.iter_modules(__path__)
        if not one.name.startswith("_")
    )
    return {one.key: one for one in sorted(found, key=lambda one: str(one.name))}


def family_of(key: str) -> Family:
    """A family by its key. Raises BadInput with the nearest."""
    known = families()
    if key not in known:
        raise unknown("family", key, known)
    return known[key]
