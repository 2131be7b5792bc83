"""Holes in a row: from one to the next, or spread over a length."""

from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, LENGTH
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning


@reckoning(
    "hole-row",
    group="Holes, patterns and dividing",
    title="Holes in a row",
    usual={"holes": 5, "length": 200, "edge": 15},
    given=(one_of("pitch", "length"),),
    inputs=(
        Input("holes", COUNT, "how many", low=2, high=500),
        Input("pitch", LENGTH, "from one to the next", default=None, above=0),
        Input("length", LENGTH, "or what they are spread over", default=None, above=0),
        Input(
            "edge",
            LENGTH,
            "from its ends to the first and last; else the gaps are all alike",
            default=None,
            low=0,
        ),
        Input("start", LENGTH, "where the read-out counts from", default=0.0),
    ),
    results=(
        Result("pitch", LENGTH, "from one to the next"),
        Result("first", LENGTH, "position of the first"),
        Result("last", LENGTH, "position of the last"),
        Result("positions", LENGTH, "of all, in their order"),
    ),
    sources=("geometry",),
)
def _hole_row(
    trail: Trail,
    holes: int,
    pitch: float | None,
    length: float | None,
    edge: float | None,
    start: float,
) -> dict[str, Any]:
    if pitch is not None:
        first = start + (edge or 0.0)
    else:
        assert length is not None
        if edge is None:
            pitch = trail.step(
                "Gaps alike", f"{length:g} / ({holes} + 1)", length / (holes + 1)
            )
            first = start + pitch
        elif 2 * edge >= length:
            raise BadInput("edge", f"Under half of the length: {length / 2:g} mm.")
        else:
            pitch = trail.step(
                "From one to the next",
                f"({length:g} − 2 × {edge:g}) / ({holes} − 1)",
                (length - 2 * edge) / (holes - 1),
            )
            first = start + edge
    last = trail.step(
        "The last", f"{first:g} + {holes - 1} × {pitch:g}", first + (holes - 1) * pitch
    )
    # each from the first, so that no rounding adds up
    positions = [first + n * pitch for n in range(holes)]
    return {"pitch": pitch, "first": first, "last": last, "positions": positions}
