"""The piece that another is made from, measured whole: an old plate, a bought bush.

What of it stays is read in the Survey as any other piece, and the sizes follow.
"""

from collections.abc import Sequence

from msgspec.structs import replace

from machinon.core.job.made_piece import drawn_surface
from machinon.core.piece.made import Made
from machinon.core.route.order import NO_METAL
from machinon.core.route.steps import HoldingTold
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece
from machinon.core.survey.surface_kinds import new_surfaces


def stays(made: Made, route: Sequence[HoldingTold]) -> tuple[str, ...]:
    """The features that no step of the route cuts: the piece has them already."""
    cut = {
        name
        for up in route
        for step in up.steps
        if step.operation not in NO_METAL
        for name in step.features
    }
    return tuple(
        feature.name for feature in made.body.features if feature.name not in cut
    )


def to_be_read(made: Made, making: Making, route: Sequence[HoldingTold]) -> list[str]:
    """The sizes of what stays that a gauge reads, and that nobody typed or began to
    read yet."""
    names = stays(made, route)
    known = {*making.sizes, *making.read_on}
    return [
        key
        for key, size in made.sizes.items()
        if size.size.drawn_at.partition(".")[0] in names
        and key not in known
        and drawn_surface(made, key) is not None
    ]


def with_old_piece(
    made: Made, making: Making, old: Piece, keys: Sequence[str]
) -> tuple[Making, Piece]:
    """The making and the piece that it is made from, with a surface for each size."""
    read_on = dict(making.read_on)
    for key in keys:
        proof = drawn_surface(made, key)
        assert proof is not None
        forms = {"outside": "shaft", "inside": "bore"}
        form = forms.get(proof.kind, "length")
        surface = new_surfaces(old, form, proof.name)[0]
        old = old.with_surface(surface)
        read_on[key] = surface.id
    return replace(making, old=old.id, read_on=read_on), old


def still_read(made: Made, making: Making, route: Sequence[HoldingTold]) -> Making:
    """The making without the sizes of features that are cut after all, or are gone."""
    names = stays(made, route)
    kept = {
        key: surface
        for key, surface in making.read_on.items()
        if key in made.sizes
        and made.sizes[key].size.drawn_at.partition(".")[0] in names
    }
    return replace(making, read_on=kept)
