"""From readings to a size: mean, spread, uncertainty, doubts, likely nominal."""

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Any

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.materials import material as material_named
from machinon.core.quantity import COUNT, INCH, LENGTH, TEMPERATURE
from machinon.core.reckoning import (
    TEXT,
    Answer,
    Input,
    Result,
    Trail,
    reckon,
    reckoning,
)
from machinon.core.shop import Shop, Surface

STEEL = 11.5e-6  # per kelvin: what instruments are made of


@dataclass(frozen=True, slots=True)
class Doubt:
    """A reading that disagrees with the others: which, and the likely cause."""

    index: int
    off: float
    cause: str


@dataclass(frozen=True, slots=True)
class Measured:
    """What the readings of a surface say; mm at 20 °C, doubt at two sigma."""

    size: float
    uncertainty: float
    spread: float
    count: int
    step: float
    doubts: tuple[Doubt, ...]
    nominal: str
    answer: Answer

    @property
    def lower(self) -> float:
        return self.size - self.uncertainty

    @property
    def upper(self) -> float:
        return self.size + self.uncertainty


def likely_nominal(size: float, doubt: float, kind: str) -> tuple[float, str]:
    """The nominal size a measured one was most likely made to: (mm, words).

    size, doubt: mm. Whole millimetres first, halves next, then inch
    sixteenths and sixty-fourths; (0, "") where none is close. A shop rule.

    >>> likely_nominal(15.985, 0.006, "outside")[1]
    '16 mm shaft'
    """
    word = {"outside": "shaft", "inside": "bore"}.get(kind, "")
    reach = max(3 * doubt, 0.0007 * size + 0.012)
    ladder = ((1.0, 1.0), (0.5, 0.8), (INCH / 16, 0.7), (INCH / 64, 0.35))
    for step, share in ladder:
        nearest = round(size / step) * step
        if nearest > 0 and abs(size - nearest) <= reach * share:
            if (step < 1 and step not in (0.5,)) or step > 1:
                part = Fraction(round(size / step), round(INCH / step))
                whole, rest = divmod(part.numerator, part.denominator)
                text = " ".join(
                    p
                    for p in (
                        str(whole) if whole else "",
                        f"{rest}/{part.denominator}" if rest else "",
                    )
                    if p
                )
                return nearest, f"{text} in {word}".strip()
            return nearest, f"{nearest:g} mm {word}".strip()
    return 0.0, ""


def at_reference(value: float, temperature: float, expansion: float) -> float:
    """A size read on a part and instrument lying together, at 20 °C; mm.

    Only the difference between the part's and a steel instrument's expansion
    shows. Source: ISO 1 (20 °C is the reference temperature).
    """
    warm = temperature - 20
    return value * (1 + STEEL * warm) / (1 + expansion * warm)


def _cause(off: float, median: float, value: float) -> str:
    known = (
        (0.5, "half a millimetre off: one turn of the micrometer's thimble misread?"),
        (0.025 * INCH, "0.025 in off: one turn of an inch thimble misread?"),
        (1.0, "a whole millimetre off: the scale misread?"),
        (0.1, "a tenth of a millimetre off: a digit slipped?"),
        (10.0, "ten millimetres off: a digit slipped?"),
    )
    slack = max(0.02 * abs(off), 0.008)
    for size, cause in known:
        if abs(abs(off) - size) <= slack:
            return cause
    for factor, cause in (
        (INCH, "typed in the wrong unit?"),
        (1 / INCH, "typed in the wrong unit?"),
        (10.0, "the point slipped?"),
        (0.1, "the point slipped?"),
    ):
        if abs(value - median * factor) < 0.02 * abs(value):
            return cause
    return "a burr, dirt or a warm part? Wipe it and measure again."


def disagreeing(
    values: Sequence[float], repeatability: float, uncertainty: float
) -> tuple[Doubt, ...]:
    """Readings too far from the median of all to be scatter; mm.

    Far is more than four robust sigmas (median deviation, at least the
    instrument's repeatability) and more than its uncertainty. Two readings
    that disagree are both pointed out: nobody can tell which is wrong.
    """
    if len(values) < 2:
        return ()
    median = statistics.median(values)
    if len(values) == 2:
        off = values[1] - values[0]
        if abs(off) <= max(6 * repeatability, 2 * uncertainty):
            return ()
        cause = "these two disagree: " + _cause(off, values[0], values[1])
        return (Doubt(0, -off, cause), Doubt(1, off, cause))
    scatter = 1.4826 * statistics.median(abs(v - median) for v in values)
    far = max(4 * max(scatter, repeatability), 1.5 * uncertainty)
    return tuple(
        Doubt(i, v - median, _cause(v - median, median, v))
        for i, v in enumerate(values)
        if abs(v - median) > far
    )


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
    ),
    results=(
        Result("size", LENGTH, "mean size at 20 °C"),
        Result("uncertainty", LENGTH, "two sigma"),
        Result("spread", LENGTH, "largest less smallest reading"),
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
) -> dict[str, Any]:
    expansion = material_named(material).expansion
    count = len(readings)
    mean = trail.step(
        f"Mean of {count}",
        " + ".join(f"{v:.4g}" if count > 6 else f"{v:.4f}" for v in readings)
        + f" over {count}",
        statistics.fmean(readings),
    )
    size = mean
    if temperature != 20:
        size = trail.step(
            "At 20 °C",
            f"read at {temperature:g} °C in {material}",
            at_reference(mean, temperature, expansion),
        )
    scatter = statistics.stdev(readings) if count > 1 else 0.0
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
    }


def measure(surface: Surface, shop: Shop, material: str) -> Measured | None:
    """What a surface's readings say; None while none counts.

    Raises BadInput where a reading's instrument is not in the shop.
    """
    counted = [(i, r) for i, r in enumerate(surface.readings) if not r.struck]
    if not counted:
        return None
    tools = [shop.instrument(r.instrument) for _, r in counted]
    # readings by several instruments are as sure as the worst of them
    worst = max(tools, key=lambda tool: tool.uncertainty)
    temperatures = [r.temperature for _, r in counted if r.temperature is not None]
    answer = reckon(
        "measured-size",
        {
            "readings": [r.value for _, r in counted],
            "instrument_uncertainty": worst.uncertainty,
            "repeatability": worst.repeatability,
            "resolution": worst.resolution,
            "temperature": statistics.fmean(temperatures) if temperatures else 20.0,
            "material": material,
        },
    )
    doubts = tuple(
        Doubt(counted[d.index][0], d.off, d.cause)
        for d in disagreeing(
            [r.value for _, r in counted], worst.repeatability, worst.uncertainty
        )
        if not counted[d.index][1].kept
    )
    size, doubt = answer["size"], answer["uncertainty"]
    nominal = ""
    if surface.kind in ("outside", "inside"):
        _, nominal = likely_nominal(size, doubt, surface.kind)
    return Measured(
        size,
        doubt,
        answer["spread"],
        answer["count"],
        worst.resolution,
        doubts,
        nominal,
        answer,
    )


def read_typed(typed: str, surface: Surface, inch: bool) -> float:
    """The value of a typed reading, mm. Raises BadInput on `reading`.

    A pitch may be typed as `8tpi` as well as a length.
    """
    text = typed.strip().lower()
    if surface.kind == "pitch" and text.endswith("tpi"):
        try:
            return INCH / float(text[:-3])
        except (ValueError, ZeroDivisionError):
            raise BadInput("reading", "Type threads per inch as 8tpi.") from None
    high = 25.0 if surface.kind == "pitch" else 2000.0
    return quantity.parse(typed, LENGTH, inch=inch, key="reading", above=0, high=high)
