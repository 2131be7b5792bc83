"""Size and uncertainty from readings, at 20 °C."""

import math
import statistics
from collections.abc import Mapping, Sequence
from typing import Any, TypeVar

from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import (
    COUNT,
    LENGTH,
    TEMPERATURE,
)
from machinon.core.reckoning import (
    TEXT,
    Input,
    Result,
    Trail,
    reckoning,
)


def at_reference(value: float, temperature: float, expansion: float) -> float:
    """A size read on a part and instrument lying together, at 20 °C; mm.

    Only the difference between the part's and a steel instrument's expansion
    shows. Source: ISO 1 (20 °C is the reference temperature).
    """
    warm = temperature - 20
    steel = material_named("steel").expansion
    return value * (1 + steel * warm) / (1 + expansion * warm)


T = TypeVar("T")
ONE_PLACE = "one place"


def by_place(values: Sequence[T], places: Sequence[str]) -> Mapping[str, Sequence[T]]:
    """Readings by where they were taken, in the order of the first of each."""
    found: dict[str, list[T]] = {}
    for value, place in zip(values, places, strict=True):
        found.setdefault(place, []).append(value)
    return found


@reckoning(
    "measured-size",
    group="Measuring over and across",
    title="Size and uncertainty from readings",
    usual={"readings": [46.0, 46.002], "instrument_uncertainty": 0.004},
    inputs=(
        Input("readings", LENGTH, "readings that count", many=True),
        Input("instrument_uncertainty", LENGTH, "of one reading, two sigma", above=0),
        Input(
            "repeatability", LENGTH, "one sigma of reading again", default=0.0, low=0
        ),
        Input("resolution", LENGTH, "what the instrument shows", default=0.0, low=0),
        Input(
            "temperature", TEMPERATURE, "of the part", default=20.0, low=-30, high=200
        ),
        Input("material", TEXT, "of the part", default="steel"),
        Input(
            "places",
            TEXT,
            "where each was read; different places may differ by right",
            default=None,
            many=True,
        ),
    ),
    results=(
        Result("size", LENGTH, "mean size at 20 °C"),
        Result("uncertainty", LENGTH, "two sigma"),
        Result("spread", LENGTH, "largest less smallest reading"),
        Result("from_instrument", LENGTH, "of the uncertainty, two sigma"),
        Result("from_scatter", LENGTH, "of the uncertainty, two sigma"),
        Result("from_warmth", LENGTH, "of the uncertainty, two sigma"),
        Result("count", COUNT, "readings used"),
    ),
    sources=("JCGM 100:2008 (combined uncertainty, k = 2)", "ISO 1:2022 (20 °C)"),
)
def _measured_size(
    trail: Trail,
    readings: tuple[float, ...],
    instrument_uncertainty: float,
    repeatability: float,
    resolution: float,
    temperature: float,
    material: str,
    places: tuple[str, ...] | None,
) -> dict[str, Any]:
    expansion = material_named(material).expansion
    count = len(readings)
    if places is None:
        places = (ONE_PLACE,) * count
    elif len(places) != count:
        raise BadInput("places", f"Give one for each reading: {count}.")
    groups = [tuple(group) for group in by_place(readings, places).values()]
    mean = trail.step(
        f"Mean of {count}" if len(groups) == 1 else f"Mean of {len(groups)} places",
        " + ".join(f"{v:.4g}" if count > 6 else f"{v:.4f}" for v in readings)
        + f" over {count}",
        statistics.fmean(statistics.fmean(group) for group in groups),
    )
    size = mean
    if temperature != 20:
        size = trail.step(
            "At 20 °C",
            f"read at {temperature:g} °C in {material}",
            at_reference(mean, temperature, expansion),
        )
    # only what was read again at the same place tells how well one reads
    again = count - len(groups)
    scatter = (
        math.sqrt(sum(statistics.pvariance(g) * len(g) for g in groups) / again)
        if again
        else 0.0
    )
    # few readings cannot prove better scatter than the instrument is known for
    repeat = trail.step(
        "Scatter of one reading",
        "the larger of what the readings show and the instrument is known for",
        max(scatter, repeatability),
    )
    part = trail.step(
        "Part and instrument 1 K apart",
        f"{size:.4g} × {expansion * 1e6:g}e-6 / √3",
        size * expansion / math.sqrt(3),
    )
    sigma = math.sqrt(
        (instrument_uncertainty / 2) ** 2
        + repeat**2 / count
        + resolution**2 / 12
        + part**2
    )
    doubt = trail.step(
        "Uncertainty, two sigma",
        "2 × √(instrument² + scatter²/n + step²/12 + heat²)",
        2 * sigma,
    )
    return {
        "size": size,
        "uncertainty": doubt,
        "count": count,
        "spread": max(readings) - min(readings),
        "from_instrument": math.hypot(
            instrument_uncertainty, resolution / math.sqrt(3)
        ),
        "from_scatter": 2 * repeat / math.sqrt(count),
        "from_warmth": 2 * part,
    }
