"""The kinds of surface that a survey can add, each with how it is measured."""

import functools
import re
from collections.abc import Mapping

from msgspec import Struct

from machinon.core.errors import unknown
from machinon.core.shop.things import Piece, Reading, Surface, SurfaceKind
from machinon.core.sizes.fit import Joint
from machinon.core.tables import rows


class SurfaceForm(Struct, frozen=True):
    """A kind of surface: what it is called, what is read, how."""

    key: str
    name: str
    kind: SurfaceKind
    joint: Joint | None
    how: str

    def surface(
        self,
        id: str,
        name: str = "",
        readings: tuple[Reading, ...] = (),
        aids: Mapping[str, float] | None = None,
    ) -> Surface:
        """A surface of this kind; name: empty for the kind's own."""
        own = name or self.name
        return Surface(id, own, self.kind, self.how, readings, dict(aids or {}))


class SurfaceGroup(Struct, frozen=True):
    """Surfaces that are added in one go, as they only mean something together."""

    key: str
    part: str  # the part of the menu that it stands in
    name: str
    forms: tuple[SurfaceForm, ...]


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


@functools.cache
def surface_groups() -> Mapping[str, SurfaceGroup]:
    """The groups that can be added, by key, those of one part of the menu together."""
    forms = surface_forms()
    return {
        r["key"]: SurfaceGroup(
            r["key"],
            r["part"],
            r["name"],
            tuple(forms[name] for name in r["surfaces"].split()),
        )
        for r in rows("surface_groups")
    }


def form_key(surface: Surface) -> str:
    """The key of the form a surface was added as: its id without the number."""
    return re.sub(r"-\d+$", "", surface.id)


def is_tapered(surface: Surface) -> bool:
    """Whether a surface's readings are taken along a taper."""
    return form_key(surface) in ("taper-out", "taper-in")


def is_threaded(surface: Surface) -> bool:
    """Whether a surface's readings are taken over the crests of a thread."""
    return form_key(surface) in ("thread-major", "thread-minor")


# what is gripped from outside as a diameter is, so that a micrometer reads it too
_GRIPPED = ("thickness", "width", "length", "flat")


def kinds_that_read(surface: Surface) -> tuple[SurfaceKind, ...]:
    """The kinds of instrument that can read a surface."""
    if form_key(surface) in _GRIPPED:
        return (surface.kind, "outside")
    return (surface.kind,)


def beside(surface: Surface, key: str) -> str:
    """The id of another surface of the same group, added in the same go.

    >>> beside(Surface("tee-neck-2", "Neck", "inside"), "tee-head")
    'tee-head-2'
    """
    return key + surface.id.removeprefix(form_key(surface))


def likely_joint(surface: Surface) -> Joint:
    """The likely purpose of a fit on a surface, by the form it was added as."""
    form = surface_forms().get(form_key(surface))
    return (form.joint if form else None) or "shaft"


def new_surfaces(piece: Piece, key: str, name: str = "") -> tuple[Surface, ...]:
    """The surfaces of a group for a piece, under ids that the piece has not used.

    name: of a group of one; empty for the kind's own. Raises BadInput on
    `surface`.
    """
    groups = surface_groups()
    if key not in groups:
        raise unknown("surface", key, groups)
    forms = groups[key].forms
    taken = {surface.id for surface in piece.surfaces}
    number = 1
    while any(_numbered(form.key, number) in taken for form in forms):
        number += 1
    return tuple(
        form.surface(
            _numbered(form.key, number),
            (name.strip()[:60] if len(forms) == 1 else "")
            or form.name + (f" {number}" if number > 1 else ""),
        )
        for form in forms
    )


def _numbered(key: str, number: int) -> str:
    return key if number == 1 else f"{key}-{number}"
