"""The live pictures of the reckonings, by name."""

from collections.abc import Callable, Mapping
from typing import Any

from machinon.core.reckoning import Reckoning
from machinon.draw.drawing import Drawing, uncrowded
from machinon.draw.pictures import (
    cutting,
    fits,
    holes,
    joints,
    measuring,
    shop_sums,
    tapers,
    threads,
)
from machinon.draw.sketch import Sketch

Picture = Callable[[Sketch], None]

PICTURES: Mapping[str, Picture] = {
    **threads.PICTURES,
    **fits.PICTURES,
    **tapers.PICTURES,
    **holes.PICTURES,
    **measuring.PICTURES,
    **cutting.PICTURES,
    **joints.PICTURES,
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

    size: height of the figures, less where those to change would lie on each other.
    """
    picture = PICTURES.get(asked.name)

    def laid_out(share: float) -> tuple[Drawing, bool]:
        sketch = Sketch(
            asked, values, results, typed, width, height, size * share, inch, chips
        )
        if picture is not None and results:
            picture(sketch)
        return sketch.finish(), True

    return uncrowded(laid_out)
