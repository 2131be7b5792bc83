"""The live pictures of the reckonings, by name."""

from collections.abc import Callable, Mapping, Set
from typing import Any

from machinon.core.reckoning import Reckoning
from machinon.draw.drawing import SHARES, Board, Drawing, uncrowded
from machinon.draw.pictures import (
    cutting,
    fits,
    holes,
    joints,
    measuring,
    scales,
    setting_up,
    shop_sums,
    tapers,
    threads,
)
from machinon.draw.sketch import Sketch

Picture = Callable[[Sketch], None]
MOVED = 2  # figures set aside before all get smaller

PICTURES: Mapping[str, Picture] = {
    **threads.PICTURES,
    **fits.PICTURES,
    **tapers.PICTURES,
    **holes.PICTURES,
    **measuring.PICTURES,
    **cutting.PICTURES,
    **joints.PICTURES,
    **setting_up.PICTURES,
    **scales.PICTURES,
    **shop_sums.PICTURES,
}


def picture_of(
    asked: Reckoning,
    values: Mapping[str, Any],
    results: Mapping[str, Any],
    typed: Mapping[str, str],
    width: float,
    height: float,
    size: float = 14.0,
    inch: bool = False,
    chips: bool = True,
) -> Drawing:
    """The picture of a reckoning's last answer; without one, its inputs alone.

    size: height of the figures. What would lie on another goes to the foot, or is
    left to the list of results; where that is not enough the figures get smaller.
    """
    picture = PICTURES.get(asked.name)

    def drawn(share: float, aside: Set[str]) -> Sketch:
        sketch = Sketch(
            asked, values, results, typed, width, height, size * share, inch, aside
        )
        if picture is not None and results:
            picture(sketch)
        return sketch

    # what has no place is known only once the picture is drawn
    placeless = drawn(1.0, frozenset()).left_over()

    def laid_out(share: float, aside: Set[str]) -> tuple[Board, bool]:
        sketch = drawn(share, aside)
        if chips:
            sketch.along_the_foot()
        moved = len(aside - placeless)
        return sketch.board, share == SHARES[-1] or moved <= MOVED

    return uncrowded(laid_out, placeless)
