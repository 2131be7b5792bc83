"""The drawing of any piece: its views, each size once, nothing missing.

Sizes that are drawn stand as dimensions; what is written at holes stands on leaders;
the rest stands along the foot. Every figure is tied to its size, so that it can be
changed where it stands.
"""

from collections.abc import Mapping, Set

from msgspec.structs import replace

from machinon.core.piece.family import Value
from machinon.core.piece.made import Made
from machinon.draw.block_sheet import BlockSheet
from machinon.draw.drawing import SHARES, Board, Drawing, uncrowded
from machinon.draw.sheet_figures import (
    figure_of,
    figures_of,
    on_the_sheet,
    places_of,
)
from machinon.draw.turned_sheet import TurnedSheet


def piece_sheet(
    made: Made,
    width: float,
    height: float,
    size: float = 13.0,
    inch: bool = False,
    paper: bool = False,
    stale: Set[str] = frozenset(),
    first_angle: bool = False,
    was: Mapping[str, Value] | None = None,
) -> Drawing:
    """The sheet of a piece on a page of that size, px.

    size: height of the figures, less where they would lie on each other; paper:
    without the sizes that would only bring a feature it has not; stale: sizes that were
    cut as they are no longer drawn; first_angle: what is seen from above stands below,
    what is seen from the right at the left; else as in third angle; was: sizes as they
    were drawn before, said beside those that differ.
    """
    places = places_of(made)
    figures = figures_of(made, inch, places)
    for key in stale & figures.keys():
        figures[key] = replace(figures[key], role="stop")
    for key in changed_since_then(made, was or {}):
        said = figure_of(made, replace(made.sizes[key], value=(was or {})[key]), inch)
        figures[key] = replace(figures[key], small=f"was {said.text}", role="cut")
    figures = on_the_sheet(made, figures, places, paper)
    kind = TurnedSheet if made.body.turns else BlockSheet

    def laid_out(share: float, aside: Set[str]) -> tuple[Board, bool]:
        board = Board(width, height, size * share)
        sheet = kind(made, places, figures, board, aside, first_angle, inch)
        # what will not do is only drawn where nothing smaller is tried
        enough = sheet.lay_out(anyhow=share == SHARES[-1])
        return board, enough

    return uncrowded(laid_out, frozenset(), places.keys() - made.sizes.keys())


def changed_since_then(made: Made, was: Mapping[str, Value]) -> list[str]:
    """The sizes of a piece that were drawn otherwise, in their order."""

    def same(a: Value, b: Value) -> bool:
        if isinstance(a, int | float) and isinstance(b, int | float):
            return abs(a - b) < 1e-6
        return a == b

    return [
        k
        for k, known in made.sizes.items()
        if k in was and not same(known.value, was[k])
    ]
