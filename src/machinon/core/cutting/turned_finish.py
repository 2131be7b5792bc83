"""The ridges that a round-nosed tool leaves."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import FEED, LENGTH, ROUGHNESS
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning

# from crest to valley, in parts of the mean roughness of parabolas side by side
CREST_TO_MEAN = 9 * math.sqrt(3) / 4


@reckoning(
    "turned-finish",
    group="Cutting",
    title="Ridges that a turning tool leaves",
    usual={"nose_radius": 0.4, "feed": 0.1},
    given=(one_of("feed", "roughness"),),
    inputs=(
        Input("nose_radius", LENGTH, "of the tool", low=0.02, high=20),
        Input("feed", FEED, "a turn", default=None, above=0, high=10),
        Input("roughness", ROUGHNESS, "wanted, Ra", default=None, above=0, high=100),
    ),
    results=(
        Result("height", ROUGHNESS, "from crest to valley"),
        Result("roughness", ROUGHNESS, "mean roughness, Ra"),
        Result("feed", FEED, "a turn"),
    ),
    sources=("geometry; height = f² / (8 r), Ra = f² / (18√3 r)",),
)
def _turned_finish(
    trail: Trail, nose_radius: float, feed: float | None, roughness: float | None
) -> dict[str, Any]:
    if roughness is not None:
        feed = trail.step(
            "Feed a turn",
            f"√(18√3 × {nose_radius:g} × {roughness:g} / 1000)",
            math.sqrt(8 * CREST_TO_MEAN * nose_radius * roughness / 1000),
            FEED,
        )
    assert feed is not None
    if feed > 2 * nose_radius:
        raise BadInput(
            "feed" if roughness is None else "roughness",
            f"A nose of {nose_radius:.3g} mm leaves ridges as high as it is from "
            f"{2 * nose_radius:.3g} mm a turn on: finer is allowed.",
        )
    height = trail.step(
        "From crest to valley",
        f"1000 × {feed:.4g}² / (8 × {nose_radius:g})",
        1000 * feed**2 / (8 * nose_radius),
        ROUGHNESS,
    )
    mean = trail.step(
        "Mean roughness",
        f"{height:.4g} / {CREST_TO_MEAN:.4g}",
        height / CREST_TO_MEAN,
        ROUGHNESS,
    )
    trail.notes.append(
        "What the tool's shape leaves at best: a built-up edge, tearing and chatter "
        "often make it twice that."
    )
    return {"height": height, "roughness": mean, "feed": feed}
