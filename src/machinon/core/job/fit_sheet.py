"""The fits of a job in words: what was read, what is wanted, what is to be made."""

from msgspec import Struct

from machinon.core.fits.joints import form_of
from machinon.core.fits.meeting import Band, Effect
from machinon.core.job.fit_plan import FitPlan
from machinon.core.job.plan import Plan
from machinon.core.quantity import (
    ANGLE,
    LENGTH,
    NUMBER,
    angle_text,
    in_both_texts,
    length_text,
    plain,
    small_text,
)
from machinon.core.shop.things import Surface
from machinon.core.sizes.fit import characters
from machinon.core.survey.measuring import Measured, laid_back, measured_text
from machinon.core.survey.surface_kinds import is_tapered, is_threaded
from machinon.core.threads.thread_limits import with_class
from machinon.core.wording import within


class ToMake(Struct, frozen=True):
    """One size to be made: its limits in words, and what it is measured with."""

    name: str
    low: str
    high: str
    gauge: str

    @property
    def says(self) -> str:
        tail = f", by {within(self.gauge)}" if self.gauge else ""
        return f"{self.name}: {self.low} to {self.high}{tail}"


class FitLine(Struct, frozen=True):
    """One fit as it goes on paper; everything in words."""

    number: int
    name: str
    mate: str  # the half that exists
    readings: tuple[str, ...]  # as the instruments showed them
    measured: str
    wanted: str  # how the two shall go together
    reason: str
    to_make: tuple[ToMake, ...]
    follows: tuple[str, ...]  # what comes of it
    says: str  # what stands against it, or helps

    @property
    def cells(self) -> tuple[tuple[str, ...], ...]:
        """The line as rows of a list, one for each size that is to be made."""
        made = self.to_make or (ToMake("", "", "", ""),)
        return tuple(
            (
                str(self.number),
                self.name,
                self.mate,
                "; ".join(self.readings),
                self.measured,
                self.wanted,
                piece.name,
                piece.low,
                piece.high,
                piece.gauge,
                "; ".join(self.follows),
                self.reason,
                self.says,
            )
            for piece in made
        )


COLUMNS = (
    "fit",
    "name",
    "mate",
    "readings",
    "measured",
    "wanted",
    "to make",
    "smallest",
    "largest",
    "instrument",
    "follows",
    "reason",
    "note",
)


BOLT_WORDS = {
    "close": "close, laid out by read-out",
    "normal": "normal",
    "loose": "loose, laid out by hand",
}


def fit_lines(plan: Plan) -> tuple[FitLine, ...]:
    """Every fit of a job, in the order of their numbers."""
    return tuple(_line(plan, fit) for fit in plan.fits)


def fit_readings(plan: Plan, fit: FitPlan) -> tuple[float, ...]:
    """The readings of a fit's mate that count, laid back to one place; mm."""
    surface = plan.existing(fit)
    slope = fit.mate.slope if fit.mate else None
    readings = surface.readings if surface else ()
    return tuple(
        laid_back(reading, slope) for reading in readings if not reading.struck
    )


def _line(plan: Plan, fit: FitPlan) -> FitLine:
    inch = plan.shop.inch
    surface = plan.existing(fit)
    mate = "not entered"
    if surface is not None:
        mate = f"{surface.name} of {plan.standing[fit.choice.piece].name}"
    says = fit.problem or fit.contradiction or fit.unsaid or fit.advice
    if not says and fit.spent:
        says = "Nothing is left of its band."
    follows: list[str] = []
    if fit.play is not None and fit.band is not None and fit.choice.kind == "cylinder":
        ends = (fit.band["clearance_min"], fit.band["clearance_max"])
        follows.append("play " + " to ".join(small_text(v, inch) for v in ends))
    if fit.room is not None:
        hole = "tapped" if fit.room.inputs["new"] == "tapped" else "clear"
        follows.append(
            f"{hole} holes for {fit.room.inputs['thread']}, "
            f"{length_text(fit.room['hole'], 0.1, inch)}"
        )
        follows.append(f"room round a screw {length_text(fit.bolt_room, 0.01, inch)}")
    if fit.joined is not None:
        follows += [_effect(effect, inch) for effect in fit.joined.effects]
        says = says or " ".join(fit.joined.advice)
    return FitLine(
        fit.choice.number,
        fit.choice.name,
        mate,
        _readings(plan, surface) if surface else (),
        _measured(surface, fit.mate, inch) if surface and fit.mate else "not read yet",
        _wanted(fit),
        fit.choice.reason,
        _to_make(fit, inch),
        tuple(follows),
        says,
    )


def _readings(plan: Plan, surface: Surface) -> tuple[str, ...]:
    """Readings by the instrument they were taken with; struck ones are left out."""
    by_tool: dict[str, list[str]] = {}
    for reading in surface.readings:
        if reading.struck:
            continue
        tool = plan.shop.instrument(reading.instrument)
        text = length_text(reading.value, tool.resolution, tool.inch)
        if reading.place:
            text += (
                f" at {reading.place}" if is_tapered(surface) else f" ({reading.place})"
            )
        by_tool.setdefault(tool.name, []).append(text)
    return tuple(f"{', '.join(all)}, {tool}" for tool, all in by_tool.items())


def _measured(surface: Surface, mate: Measured, inch: bool) -> str:
    if mate.refused:
        return mate.refused
    text = measured_text(surface, mate, inch)
    if is_threaded(surface) and mate.by_standard:
        return f"{text}, not read"
    if mate.kind is not ANGLE:
        text += f" ± {small_text(mate.uncertainty, inch)}"
    if mate.slope is not None and mate.slope.ratio:
        text += f", taper 1 : {1 / abs(mate.slope.ratio):.3f}"
    return text if mate.count else f"{text}, as {surface.given}, not read"


def _wanted(fit: FitPlan) -> str:
    choice = fit.choice
    if choice.kind == "thread":
        return with_class(fit.thread, fit.thread_class) if fit.thread else ""
    if choice.kind == "bolts":
        word = choice.want if choice.want in BOLT_WORDS else "normal"
        return f"Screws: {BOLT_WORDS[word]}"
    form = form_of(choice).name
    want = choice.want
    if want in characters() and fit.band is not None:
        return f"{form}; {characters()[want].words}"
    return f"{form}; play of its own" if want == "own" else form


def _to_make(fit: FitPlan, inch: bool) -> tuple[ToMake, ...]:
    gauge = ""
    if fit.gauge is not None and fit.band is not None:
        proves = fit.gauge.proves(float(fit.band.results.get("band", 0)))
        gauge = fit.gauge.name if proves else ""
    made: list[ToMake] = []
    if fit.choice.kind == "thread":
        for part, words in (("pitch", "pitch diameter"), ("crest", "before threading")):
            low, high = (fit.thread_limit(part, end) for end in ("min", "max"))
            if low is not None and high is not None:
                made.append(_sized(words, low, high, "", inch))
    elif fit.choice.kind == "bolts":
        if fit.lower is not None and fit.upper is not None:
            # no finer than holes are drilled
            least = length_text(fit.lower, 0.01, inch)
            most = length_text(fit.upper, 0.01, inch)
            made.append(ToMake("bolt circle ⌀", least, most, ""))
    elif fit.choice.kind == "cylinder" and fit.lower is not None:
        assert fit.upper is not None
        words = "width" if fit.choice.joint in ("slot", "tee", "key") else "diameter"
        made.append(_sized(words, fit.lower, fit.upper, gauge, inch))
    for band in fit.joined.bands if fit.joined else ():
        if not band.measured:
            made.append(_band(band, inch))
    return tuple(made)


def _band(band: Band, inch: bool) -> ToMake:
    gauge = band.gauge.name if band.gauge else ""
    if band.kind is ANGLE:
        ends = (angle_text(band.lower, 3), angle_text(band.upper, 3))
        return ToMake(band.name, *ends, gauge)
    return _sized(band.name, band.lower, band.upper, gauge, inch)


def _sized(name: str, low: float, high: float, gauge: str, inch: bool) -> ToMake:
    return ToMake(name, _length(low, inch), _length(high, inch), gauge)


def _length(value: float, inch: bool) -> str:
    return length_text(value, 0.001, inch)


def _effect(effect: Effect, inch: bool) -> str:
    value = effect.value
    if isinstance(value, str):
        return f"{effect.name}: {value}"
    if effect.small:
        said = small_text(value, inch)
    elif effect.kind is LENGTH:
        said = length_text(value, 0.01, inch)
    elif effect.kind is NUMBER:
        said = plain(value, 1)
    else:
        said = in_both_texts(value, effect.kind, inch)[0]
    return f"{effect.name}: {said}"
