"""From readings to a size: mean, spread, uncertainty, doubts, likely nominal."""

import math
import statistics
from collections.abc import Iterator, Sequence

import msgspec
from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    Kind,
    length_text,
)
from machinon.core.reckoning import (
    Answer,
    reckon,
)
from machinon.core.shop.things import Instrument, Reading, Shop, Surface
from machinon.core.sizes.likely import Likely, likely_standards
from machinon.core.survey.as_made import as_made
from machinon.core.survey.as_typed import distance_of
from machinon.core.survey.disagreeing import Doubt, disagreeing
from machinon.core.survey.measured_size import ONE_PLACE, by_place
from machinon.core.survey.surface_kinds import form_key, is_tapered, is_threaded
from machinon.core.survey.surface_sums import missing_aids, sum_of, summed
from machinon.core.threads.screw_thread import thread_of


class TaperRead(Struct, frozen=True):
    """A taper as its readings say."""

    ratio: float  # change of diameter per length
    doubt: float  # of the ratio, two sigma
    apart: float  # between the outermost places, mm

    @property
    def half_angle(self) -> float:
        """Degrees."""
        return math.degrees(math.atan(self.ratio / 2))

    @property
    def half_angle_doubt(self) -> float:
        return math.degrees(self.doubt / 2)


class Measured(Struct, frozen=True):
    """The size of a surface by its readings; mm at 20 °C, uncertainty at two sigma."""

    # after the surface's sum, where it has one, in `kind`, which is what it `says`
    size: float
    uncertainty: float
    spread: float
    count: int  # of the readings used, 0 where a standard stands in for them
    step: float
    # readings that disagree, left out of the size while others remain
    doubts: tuple[Doubt, ...]
    nominal: str
    answer: Answer  # the working
    mean: float = 0.0  # of the readings as they are
    mean_doubt: float = 0.0
    kind: Kind = LENGTH
    says: str = ""
    refused: str = ""  # why that sum cannot be done
    taper: float | None = None  # of the back less the front
    out_of_round: float | None = None  # largest less smallest diameter of one end
    # of a tapered surface, whose size is that at its end
    slope: TaperRead | None = None
    shape: float = 0.0  # largest less smallest mean of the places that were named
    # the tightest of them, the narrowest of a slot, the thickest of a tongue
    tight: Answer | None = None
    likely: tuple[Likely, ...] = ()
    drawn: bool = False  # it is still to be made

    @property
    def known_by(self) -> str:
        """The source of its size, as its band is called."""
        if self.by_standard:
            return "by its standard"
        return "as drawn" if self.drawn else "measured"

    @property
    def by_standard(self) -> bool:
        """Whether a standard stands in for its readings."""
        return not self.count and not self.drawn

    @property
    def tightest(self) -> tuple[float, float]:
        """Size and doubt at the tightest place; of the whole where that is one."""
        if self.tight is None or self.says:
            return self.size, self.uncertainty
        return float(self.tight["size"]), float(self.tight["uncertainty"])

    @property
    def lower(self) -> float:
        return self.size - self.uncertainty

    @property
    def upper(self) -> float:
        return self.size + self.uncertainty


MOST_KEPT = 5000
_kept: dict[tuple[int, int, str], tuple[Surface, Shop, Measured | None]] = {}


def measure(surface: Surface, shop: Shop, material: str) -> Measured | None:
    """The size of a surface by its readings, or by its standard; else None.

    Raises BadInput where a reading's instrument is not in the shop.
    """
    # an edit leaves nearly all surfaces the very same values: asked once is enough
    key = (id(surface), id(shop), material)
    kept = _kept.get(key)
    if kept is not None and kept[0] is surface and kept[1] is shop:
        return kept[2]
    found = _measure(surface, shop, material)
    if len(_kept) >= MOST_KEPT:
        _kept.clear()
    _kept[key] = (surface, shop, found)
    return found


def drawn_size(surface: Surface, size: float) -> Measured:
    """The drawn size of a surface that is still to be made, in place of readings, with
    no uncertainty yet; of a span over holes, their circle's."""
    if {"hole", "holes"} <= surface.aids.keys():
        count, hole = round(surface.aids["holes"]), surface.aids["hole"]
        span = size * math.sin(math.pi / count) + hole
        answer = reckon("hole-span", {"span": span, "hole": hole, "holes": count})
    else:
        answer = reckon(
            "measured-size", {"readings": [size], "instrument_uncertainty": 1e-6}
        )
    return Measured(size, 0.0, 0.0, 0, 0.001, (), "", answer, size, drawn=True)


def _measure(surface: Surface, shop: Shop, material: str) -> Measured | None:
    counted = [(i, r) for i, r in enumerate(surface.readings) if not r.struck]
    if not counted:
        return _by_standard(surface)
    if missing_aids(surface):
        return None
    tools = [shop.instrument(r.instrument) for _, r in counted]
    # readings by several instruments are as sure as the worst of them
    worst = max(tools, key=lambda tool: tool.uncertainty)
    temperatures = [r.temperature for _, r in counted if r.temperature is not None]
    slope = _slope([r for _, r in counted], worst) if is_tapered(surface) else None
    values = [laid_back(r, slope) for _, r in counted]
    # along a taper readings are laid back to one place; elsewhere places may differ
    places = [
        ONE_PLACE if slope is not None else _where(surface, i, r)
        for i, (_, r) in enumerate(counted)
    ]

    def size_of(readings: Sequence[float], places: Sequence[str]) -> Answer:
        return reckon(
            "measured-size",
            {
                "readings": list(readings),
                "instrument_uncertainty": worst.uncertainty,
                "repeatability": worst.repeatability,
                "resolution": worst.resolution,
                "temperature": statistics.fmean(temperatures) if temperatures else 20.0,
                "material": material,
                "places": list(places),
            },
        )

    doubts = tuple(
        Doubt(counted[d.index][0], d.off, d.cause)
        for d in _doubted(surface, values, places, worst)
        if not counted[d.index][1].kept
    )
    # of mountings, how far apart they come out is the very answer
    if 0 < len(doubts) < len(counted) and form_key(surface) != "reseat":
        # until somebody decides, the size is what the others say
        found = _measure(_apart(surface, doubts), shop, material)
        assert found is not None
        return replace(found, doubts=(*doubts, *found.doubts))

    answer = size_of(values, places)
    groups = by_place(values, places)
    tight, shape = None, 0.0
    if len(groups) > 1:
        pick = min if surface.kind in ("inside", "gap") else max
        where = pick(groups, key=lambda place: statistics.fmean(groups[place]))
        tight = size_of(groups[where], [where] * len(groups[where]))
        means = [statistics.fmean(group) for group in groups.values()]
        shape = max(means) - min(means)
    size, doubt = answer["size"], answer["uncertainty"]
    if slope is not None:
        # the end lies outside of most readings: the slope's doubt reaches there
        middle = statistics.fmean(distance_of(r.place) for _, r in counted)
        doubt = math.hypot(doubt, slope.doubt * middle)
    taper, out_of_round = _shape([r for _, r in counted])
    found = Measured(
        size,
        doubt,
        answer["spread"],
        answer["count"],
        worst.resolution,
        doubts,
        "",
        answer,
        size,
        doubt,
        taper=taper,
        out_of_round=out_of_round,
        slope=slope,
        shape=shape,
        tight=tight,
    )
    return _with_likely(surface, _with_sum(surface, found))


def _apart(surface: Surface, doubts: Sequence[Doubt]) -> Surface:
    """The surface with the readings that disagree set aside."""
    aside = {d.index: d.cause for d in doubts}
    return msgspec.structs.replace(
        surface,
        readings=tuple(
            msgspec.structs.replace(reading, struck=aside[i]) if i in aside else reading
            for i, reading in enumerate(surface.readings)
        ),
    )


def _by_standard(surface: Surface) -> Measured | None:
    """A surface nobody has read, as the standard it is taken by has it."""
    made = as_made(surface)
    if made is None:
        return None
    slope = TaperRead(-made.ratio, 0.0, made.length) if made.ratio is not None else None
    return Measured(
        made.size,
        made.doubt,
        0.0,
        0,
        FINE,
        (),
        surface.given,
        made.answer,
        made.size,
        made.doubt,
        slope=slope,
    )


FINE = 0.001  # mm: to what a standard's own size is shown
WORN = 0.2  # mm: by how much a slot may differ along its length and be no misreading


def _where(surface: Surface, index: int, reading: Reading) -> str:
    """The place a reading belongs to; a slot is read along its length."""
    if reading.place:
        return reading.place
    return f"reading {index + 1}" if surface.kind == "gap" else ONE_PLACE


def _doubted(
    surface: Surface,
    values: Sequence[float],
    places: Sequence[str],
    tool: Instrument,
) -> Iterator[Doubt]:
    """Readings that disagree with others of the same place.

    Named places differ by right: that is the piece's shape. Of a slot read without
    them, only what no wear explains is pointed out.
    """
    unnamed = [i for i, place in enumerate(places) if place.startswith("reading ")]
    groups = {
        place: [i for i, at in enumerate(places) if at == place] for place in places
    }
    for at in [unnamed, *groups.values()]:
        found = disagreeing(
            [values[i] for i in at], tool.repeatability, tool.uncertainty
        )
        for doubt in found:
            if at is not unnamed or abs(doubt.off) > WORN:
                yield Doubt(at[doubt.index], doubt.off, doubt.cause)


def _with_sum(surface: Surface, found: Measured) -> Measured:
    """The size behind the reading, and what the reading's doubt makes of it."""
    its_sum = sum_of(surface)
    if its_sum is None:
        return found
    try:
        answer = summed(surface, found.mean)
        nudged = summed(surface, found.mean + NUDGE)
    except BadInput as error:
        # refused where it is typed; a reading struck afterwards can leave this
        return replace(found, refused=error.message)
    assert answer is not None
    assert nudged is not None
    size = float(answer[its_sum.result])
    slope = found.slope
    if "ratio" in answer.results:
        off = abs(float(nudged["ratio"]) - float(answer["ratio"])) / NUDGE
        apart = surface.aids["depth_small"] - found.mean
        # both depths are read, and each is as doubtful
        doubt = math.sqrt(2) * off * found.mean_doubt
        slope = TaperRead(-float(answer["ratio"]), doubt, apart)
    share = abs(float(nudged[its_sum.result]) - size) / NUDGE
    return replace(
        found,
        size=size,
        uncertainty=share * found.mean_doubt,
        answer=answer,
        kind=its_sum.kind,
        says=its_sum.says,
        slope=slope,
    )


NUDGE = 1e-4  # mm: how a sum turns a small change of the reading into the size's


def _with_likely(surface: Surface, found: Measured) -> Measured:
    if found.refused or (found.says and found.slope is None):
        # a width or a depth by its sum is made to no nominal diameter
        return found
    likely = likely_standards(
        "taper-in" if found.slope else form_key(surface),
        surface.kind,
        found.size,
        found.uncertainty,
        found.slope.ratio if found.slope else None,
        found.slope.doubt if found.slope else 0.0,
    )
    nominal = likely[0].name if likely else ""
    return replace(found, nominal=nominal, likely=likely)


PLACE_DOUBT = 0.1  # mm, one sigma: how well one finds a distance along a taper


def _slope(readings: Sequence[Reading], tool: Instrument) -> TaperRead | None:
    """The straight line through readings along a taper; None from one place."""
    at = [distance_of(r.place) for r in readings]
    middle = statistics.fmean(at)
    spread = sum((z - middle) ** 2 for z in at)
    if not spread > 0:
        return None
    ratio = sum((z - middle) * r.value for z, r in zip(at, readings, strict=True))
    ratio /= spread
    # the instrument's own error is in every reading alike and falls out
    single = math.hypot(tool.repeatability, ratio * PLACE_DOUBT)
    return TaperRead(ratio, 2 * single / math.sqrt(spread), max(at) - min(at))


def laid_back(reading: Reading, slope: TaperRead | None) -> float:
    """A reading as it would be at the end of its taper, mm; itself without one.

    Along a taper readings differ by right, and only then can be compared.
    """
    if slope is None or not reading.place.endswith(" mm"):
        return reading.value
    return reading.value - slope.ratio * distance_of(reading.place)


def _shape(readings: Sequence[Reading]) -> tuple[float | None, float | None]:
    """Taper and out-of-round from where the readings were taken; mm."""
    ends: dict[str, list[float]] = {}
    rounds: dict[str, dict[str, list[float]]] = {}
    for r in readings:
        if not r.place or r.place.endswith(" mm"):
            continue
        words = r.place.split()
        end = next((word for word in words if "°" not in word), "")
        angle = next((word for word in words if "°" in word), "")
        ends.setdefault(end, []).append(r.value)
        if angle:
            rounds.setdefault(end, {}).setdefault(angle, []).append(r.value)
    taper = None
    if "front" in ends and "back" in ends:
        taper = statistics.fmean(ends["back"]) - statistics.fmean(ends["front"])
    out_of_round = None
    for angles in rounds.values():
        if len(angles) > 1:
            means = [statistics.fmean(values) for values in angles.values()]
            out_of_round = max(out_of_round or 0.0, max(means) - min(means))
    return taper, out_of_round


def measured_text(surface: Surface, found: Measured, inch: bool) -> str:
    """A size as it is known, in its own unit and no finer than the instrument.

    A pitch stays what it is in either unit: threads per inch where they are whole,
    else millimetres. A thread that nobody has read is said by its name.
    """
    if is_threaded(surface) and found.by_standard:
        return thread_of(surface.given).says
    if surface.kind == "pitch":
        tpi = quantity.whole_tpi(found.size)
        if tpi:
            return f"{tpi} tpi"
        if not found.count:
            return f"{quantity.typed_again(found.size)} mm"  # its standard's own
        return length_text(found.size, found.step)
    if found.kind is ANGLE:
        places = 2 if found.uncertainty < 0.05 else 1
        return quantity.angle_text(found.size, places)
    return length_text(found.size, found.step, inch)
