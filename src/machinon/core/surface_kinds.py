"""The kinds of surface that a survey can add, each with how it is measured."""

import functools
import re
from collections.abc import Mapping
from dataclasses import dataclass

from machinon.core.errors import unknown
from machinon.core.fit import Joint
from machinon.core.shop import Piece, Surface, SurfaceKind
from machinon.core.tables import rows


@dataclass(frozen=True, slots=True)
class SurfaceForm:
    """A kind of surface: what it is called, what is read, how."""

    key: str
    name: str
    kind: SurfaceKind
    joint: Joint | None
    how: str


@functools.cache
def surface_forms() -> Mapping[str, SurfaceForm]:
    """Every kind of surface kept here, by key."""
    return {
        r["key"]: SurfaceForm(
            r["key"],
            r["name"],
            r["kind"],  # type: ignore[arg-type]
            r["joint"] or None,  # type: ignore[arg-type]
            r["how"],
        )
        for r in rows("surface_kinds")
    }


def likely_joint(surface: Surface) -> Joint:
    """What a fit on a surface is most likely for, by the form it was added as."""
    form = surface_forms().get(re.sub(r"-\d+$", "", surface.id))
    return (form.joint if form else None) or "shaft"


def new_surface(piece: Piece, key: str, name: str) -> Surface:
    """A surface of a kind for a piece, under an id that the piece has not used.

    name: empty for the kind's own. Raises BadInput on `surface`.
    """
    known = surface_forms()
    if key not in known:
        raise unknown("surface", key, known)
    form = known[key]
    taken = {one.id for one in piece.surfaces}
    number, id = 2, key
    while id in taken:
        id, number = f"{key}-{number}", number + 1
    words = name.strip()[:60] or form.name + (f" {number - 1}" if id != key else "")
    return Surface(id, words, form.kind, form.how)
