"""The registry of reckonings: each calculation declared once.

Screens, command line and help are made from the declarations; an answer
carries its working, so every number can be opened to where it came from.
"""

import functools
import importlib
import json
import math
import re
from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

from msgspec import Struct

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.in_inches import in_inches
from machinon.core.quantity import Kind

TEXT = Kind("word", "", {}, "H7")
FLAG = Kind("yes or no", "", {}, "yes or no")
PITCH = Kind(
    "pitch",
    "mm",
    quantity.LENGTH.units,
    "1.5 (mm) or 8tpi",
    limit=100.0,
    least=0.01,
    inch_fractions=True,
)
DRILLS = Kind("drill series or size", "", {}, "metric, fraction or 6.5mm")
SERIES = ("metric", "number", "letter", "fraction")
OBJECT = Kind("object", "", {}, "an object of named values")
MOST_LISTED = 2000  # values in a list
_TPI = re.compile(r"^\s*([\d./]+)\s*tpi\s*$", re.IGNORECASE)

# modules that declare reckonings; imported when the registry is first asked
SUBJECTS = (
    "sizes.limits",
    "sizes.inch_limits",
    "sizes.fit",
    "fits.play",
    "fits.joining",
    "fits.bearing_seat",
    "fits.ball_bearings",
    "fits.o_ring",
    "fits.dowel_pair",
    "fits.key_fit",
    "fits.tee_slot",
    "fits.ball_detent",
    "fits.screw_dimple",
    "materials",
    "threads.thread_limits",
    "survey.thread_find",
    "threads.thread_cutting",
    "threads.by_pitch",
    "threads.thread_dial",
    "threads.tapping",
    "threads.reaming",
    "threads.drill_steps",
    "threads.screws",
    "threads.hole_tap",
    "threads.taper_pipe",
    "threads.nuts",
    "threads.screw_torque",
    "threads.change_gears",
    "tapers.tapers",
    "tapers.taper_fit",
    "tapers.taper_set_up",
    "tapers.taper_pins",
    "tapers.cam_noses",
    "survey.measured_size",
    "survey.surface_sums",
    "fits.bolts_carry",
    "fits.dovetail",
    "fits.keyway",
    "setting_out.square_hole",
    "setting_out.pipe_joint",
    "setting_out.arc_points",
    "setting_out.arcs_and_vees",
    "setting_out.ball_turning",
    "setting_out.gauge_stack",
    "sizes.centre_drills",
    "setting_out.bolt_circle",
    "setting_out.hole_row",
    "setting_out.dividing",
    "setting_out.gear",
    "setting_out.polygon",
    "setting_out.cones",
    "setting_out.centring",
    "setting_out.cleaning_up",
    "setting_out.runout",
    "setting_out.runout_stack",
    "setting_out.runout_apart",
    "setting_out.clocking",
    "setting_out.alignment",
    "setting_out.eccentric",
    "setting_out.angles",
    "setting_out.indicator_angle",
    "setting_out.fine_feed",
    "cutting.speeds",
    "cutting.make_or_buy",
    "cutting.machining",
    "cutting.cutting_power",
    "cutting.tempering",
    "cutting.hardness",
    "setting_out.side_positions",
    "setting_out.flats",
    "setting_out.lengths",
    "setting_out.straightness",
    "cutting.broaching",
    "tapers.expanding_arbor",
    "cutting.cutting_time",
    "cutting.table_feed",
    "cutting.turned_finish",
    "setting_out.converting",
    "setting_out.other_units",
    "fits.rings_and_keys",
    "setting_out.slopes_and_knurls",
)


class Input(Struct, frozen=True):
    """One typed input. A required one has no default."""

    key: str
    kind: Kind
    meaning: str
    default: Any = ...
    # in an inch shop, where a usual figure is another one there; base units as well
    inch_default: Any = None
    above: float | None = None
    low: float | None = None
    high: float | None = None
    choices: tuple[str, ...] = ()
    many: bool = False
    # of a list whose entries have several values, each with its kind
    columns: tuple[tuple[str, Kind], ...] = ()
    # what each choice asks besides, with a usual value in base units
    asks: Mapping[str, Mapping[str, Any]] = {}

    @property
    def required(self) -> bool:
        return self.default is ...

    def left_out(self, inch: bool = False) -> Any:
        """Its value where nothing is given, in base units."""
        return self.inch_default if inch and self.inch_default else self.default

    @property
    def words(self) -> str:
        """Its name in plain words; how uncertain a size is stands as its ±."""
        return self.key.replace("_", " ").replace("doubt", "±")

    def read(self, given: Any, inch: bool = False) -> Any:
        """The value in base units. Raises BadInput naming this input."""
        if not self.many:
            return self._one(given, inch)
        if isinstance(given, str):
            given = self._parts(given)
        if not isinstance(given, list | tuple) or not given:
            raise BadInput(self.key, "Give a list, as in 46.01,46.02.")
        if len(given) > MOST_LISTED:
            raise BadInput(
                self.key, f"{len(given)} are too many: up to {MOST_LISTED} are allowed."
            )
        return tuple(self._one(part, inch) for part in given)

    def _parts(self, typed: str) -> Any:
        """A list as typed: JSON, or parts with commas between."""
        if typed.strip().startswith("["):
            try:
                return json.loads(typed)
            except ValueError:
                if self.kind is OBJECT:
                    raise BadInput(self.key, "That is no JSON list.") from None
        listed = typed.strip(" []")
        if self.kind in (TEXT, DRILLS, OBJECT):
            return [part for part in listed.split(",") if part.strip()]
        return quantity.list_parts(listed)

    def _one(self, given: Any, inch: bool) -> Any:
        if self.kind is OBJECT:
            if not isinstance(given, dict):
                raise BadInput(self.key, "Give a JSON list of objects.")
            return given
        if self.kind is FLAG:
            word = str(given).strip().lower()
            if word in ("true", "yes", "1", "on"):
                return True
            if word in ("false", "no", "0", "off"):
                return False
            raise BadInput(self.key, "Say yes or no.")
        if self.kind is TEXT:
            word = str(given).strip()
            if self.choices and word not in self.choices:
                raise unknown(self.key, word, self.choices)
            if not word:
                raise BadInput(self.key, f"Nothing is typed. Type {self.meaning}.")
            return word
        if isinstance(given, bool) or given is None:
            raise BadInput(self.key, self.kind.allowed)
        if self.kind is DRILLS:
            return self._drill(str(given).strip(), inch)
        if self.kind is PITCH and isinstance(given, str):
            given = self._pitch(given)
        if isinstance(given, int | float):
            # an integer of a line of JSON may have hundreds of digits
            value = float(given) if abs(given) < 1e300 else math.inf
            value = quantity.checked(
                value,
                self.kind,
                key=self.key,
                low=self.low,
                high=self.high,
                above=self.above,
            )
        else:
            value = quantity.parse(
                str(given),
                self.kind,
                inch=inch,
                key=self.key,
                low=self.low,
                high=self.high,
                above=self.above,
            )
        return int(value) if self.kind is quantity.COUNT else value

    def _drill(self, typed: str, inch: bool) -> str:
        """A series' name, or a size with its unit."""
        if typed.lower() in SERIES:
            return typed.lower()
        try:
            size = quantity.parse(typed, inch=inch, above=0, high=200)
        except BadInput as error:
            if typed.isalpha():
                raise unknown(self.key, typed, SERIES) from None
            raise BadInput(self.key, error.message) from None
        return quantity.as_kept(size)

    def _pitch(self, typed: str) -> Any:
        """Threads per inch as a pitch in mm; anything else as it was."""
        match = _TPI.match(typed)
        if match is None:
            return typed
        try:
            tpi = quantity.parse(match.group(1), quantity.NUMBER, key=self.key, above=0)
        except BadInput as error:
            raise BadInput(
                self.key, f"{error.message} Type threads per inch as 8tpi."
            ) from None
        return quantity.INCH / tpi


# what the name of a result that is a size ends in
_SIZES = (
    "lower",
    "upper",
    "diameter",
    "size",
    "width",
    "height",
    "depth",
    "length",
    "thickness",
    "drill",
    "pins",
    "base",
)


# names of results and their columns that say nothing to a person as they are
_PLAIN = {
    "angle_step": "angle from hole to hole",
    "band": "band left",
    "best_tir": "best clocked, on the indicator",
    "best_value": "best clocked",
    "best_value_tir": "best clocked, on the indicator",
    "circle": "hole circle",
    "clearance": "play",
    "corner_drop": "corners touch before the middle by",
    "error_minutes": "off by, minutes of arc",
    "error_per_100mm": "off in 100 mm",
    "error_percent": "off by, percent",
    "external_major": "over the screw's crests",
    "external_pitch": "screw's pitch diameter",
    "feed": "feed a turn",
    "feed_each": "feed a turn or a tooth",
    "feed_from_contact": "feed from the first touch",
    "flat_max": "flat, not over",
    "flat_min": "flat, not under",
    "high_spot": "single spot at",
    "internal_minor": "nut's bore",
    "internal_pitch": "nut's pitch diameter",
    "left_least": "play left, least",
    "left_most": "play left, most",
    "length_to_diameter": "length over diameter",
    "lost_least": "taken by the seat, least",
    "lost_most": "taken by the seat, most",
    "major_error": "off on the diameter",
    "mean": "average",
    "mean_tir": "average, on the indicator",
    "motor": "motor to have",
    "normal_depth": "depth square to the face",
    "offset_x": "offset towards 0°",
    "offset_y": "offset towards 90°",
    "percentile_95": "19 of 20 are better than",
    "percentile_95_tir": "19 of 20 are better than, on the indicator",
    "phase": "high side at",
    "pin_max": "largest pin that sits",
    "pitch_error": "off in pitch",
    "press": "press to have, tonnes",
    "read_lower": "on the pins, least",
    "read_upper": "on the pins, most",
    "removed": "taken off in a minute",
    "resists": "resists, a mm² of chip",
    "rim_rpm": "speed limit by custom",
    "rpm": "speed",
    "rpm_ideal": "ideal speed",
    "rpm_limit": "speed limit by strength",
    "rss": "likely",
    "rss_tir": "likely, on the indicator",
    "score": "fits",
    "seconds": "until it grips",
    "strips_first": "strips first",
    "times_free": "times as stiff as held at one end",
    "tir": "run-out on the indicator",
    "told_apart": "sure",
    "tpi": "threads to the inch",
    "um": "micrometres",
    "warm_to": "slips on at",
    "wire_max": "largest wire",
    "wire_min": "smallest wire",
    "worst_tir": "worst, on the indicator",
}


_ENDS = {"lower": "least", "min": "least", "upper": "most", "max": "most"}


def plain_name(key: str) -> str:
    """A result or a column by what a person calls it.

    >>> plain_name("wire_min"), plain_name("best_wire"), plain_name("tongue_upper")
    ('smallest wire', 'best wire', 'tongue, most')
    """
    if key in _PLAIN:
        return _PLAIN[key]
    name, _, end = key.rpartition("_")
    if name and end in _ENDS:
        return f"{plain_name(name)}, {_ENDS[end]}"
    return key.replace("_", " ")


class Given(Struct, frozen=True):
    """Inputs of which so many are given: the others follow, or say the same."""

    keys: tuple[str, ...]
    count: int = 1
    needed: bool = True  # where not, none of them may be given too

    def check(self, values: Mapping[str, Any]) -> None:
        """Raises BadInput where too few of them or too many are given."""
        given = [key for key in self.keys if values[key] is not None]
        if len(given) != self.count and (given or self.needed):
            raise BadInput(self.keys[0], f"{self.words}.")

    @property
    def words(self) -> str:
        """What is asked for: `Give one of leg, face and depth`."""
        number = "two" if self.count == 2 else "one" if self.needed else "at most one"
        *names, last = (key.replace("_", " ") for key in self.keys)
        return f"Give {number} of {', '.join(names)} and {last}"


def one_of(*keys: str) -> Given:
    """Of these inputs one is given."""
    return Given(keys)


def two_of(*keys: str) -> Given:
    """Of these inputs two are given."""
    return Given(keys, 2)


def at_most_one_of(*keys: str) -> Given:
    """Of these inputs one is given, or none."""
    return Given(keys, needed=False)


class Result(Struct, frozen=True):
    """One named result."""

    key: str
    kind: Kind
    meaning: str
    # of a list of rows, those that are not of its kind
    columns: Mapping[str, Kind] = {}

    @property
    def words(self) -> str:
        """Its name in plain words."""
        return plain_name(self.key)

    @property
    def is_size(self) -> bool:
        """Whether it is a size of something, which cannot be under 0; one that can be
        says what that means."""
        return (
            self.kind in (quantity.LENGTH, quantity.ANGLE)
            and self.key.rpartition("_")[2] in _SIZES
            and "negative" not in self.meaning
        )

    def kind_of(self, column: str) -> Kind:
        """The kind of one column of its rows."""
        return self.columns.get(column, self.kind)


class WorkingStep(Struct, frozen=True):
    """One line of working: what it is, the sum written out, its value."""

    what: str
    expression: str
    value: float
    kind: Kind


NO_SIGN = re.compile(r"(?<![\w.)])-(?=0(?:\.0+)?(?![\d.]))")  # of nothing
MINUS = re.compile(r"(?<![\w.)])-(?=[\d.])")
AFTER_A_SIGN = re.compile(r"(?<=[+−×/] )(−[\d.]+)")
POWER = re.compile(r"[\d.]+e-\d+")


def _as_written(expression: str) -> str:
    """A sum as one writes it.

    >>> _as_written("14.07 − -0.05"), _as_written("2.3e-05 × 40")
    ('14.07 − (−0.05)', '0.000023 × 40')
    """
    if "-" not in expression:
        return expression
    plain = POWER.sub(lambda found: f"{float(found[0]):.10f}".rstrip("0"), expression)
    return AFTER_A_SIGN.sub(r"(\1)", MINUS.sub("−", NO_SIGN.sub("", plain)))


@dataclass(slots=True)
class Trail:
    """Collects the working while a reckoning runs."""

    steps: list[WorkingStep] = field(default_factory=list)
    cautions: list[str] = field(default_factory=list)
    notes: list[str] = field(default_factory=list)
    sources: list[str] = field(default_factory=list)

    def step(
        self, what: str, expression: str, value: float, kind: Kind = quantity.LENGTH
    ) -> float:
        """Write a line of working; returns the value."""
        self.steps.append(WorkingStep(what, _as_written(expression), value + 0.0, kind))
        return value

    def source(self, source: str) -> None:
        if source not in self.sources:
            self.sources.append(source)


class Answer(Struct, frozen=True):
    """A reckoning's results with everything needed to open them."""

    reckoner: str
    title: str
    inputs: Mapping[str, Any]
    results: Mapping[str, Any]
    units: Mapping[str, str]
    working: tuple[WorkingStep, ...]
    sources: tuple[str, ...]
    cautions: tuple[str, ...]
    notes: tuple[str, ...]

    def __getitem__(self, key: str) -> Any:
        return self.results[key]

    def as_json(self) -> dict[str, Any]:
        """The answer as plain values for one JSON object."""
        return {
            "reckoner": self.reckoner,
            "inputs": dict(self.inputs),
            "results": dict(self.results),
            "units": dict(self.units),
            "working": [
                {
                    "what": s.what,
                    "expression": s.expression,
                    "value": s.value,
                    "unit": s.kind.unit,
                }
                for s in self.working
            ],
            "sources": list(self.sources),
            "cautions": list(self.cautions),
            "notes": list(self.notes),
        }


class Reckoning(Struct, frozen=True):
    """A declared reckoning."""

    name: str
    group: str
    title: str
    usual: Mapping[str, Any]  # a question that one would ask it
    # what of it is another thing in an inch shop; None: it is not asked there
    usual_inch: Mapping[str, Any]
    given: tuple[Given, ...]
    inputs: tuple[Input, ...]
    results: tuple[Result, ...]
    sources: tuple[str, ...]
    work: Callable[..., Mapping[str, Any]]

    def read(self, given: Mapping[str, Any], inch: bool = False) -> dict[str, Any]:
        """All inputs in base units, defaults filled in. Raises BadInput."""
        known = {given.key: given for given in self.inputs}
        for key in given:
            if key not in known:
                raise unknown(key, key, known)
        values: dict[str, Any] = {}
        for asked in self.inputs:
            if asked.key in given and given[asked.key] is not None:
                values[asked.key] = asked.read(given[asked.key], inch)
            elif asked.required:
                raise BadInput(asked.key, f"{asked.key} is missing: {asked.meaning}.")
            else:
                values[asked.key] = asked.left_out(inch)
        for group in self.given:
            group.check(values)
        return values

    def answer(self, given: Mapping[str, Any], inch: bool = False) -> Answer:
        """Work it out. Raises BadInput naming the input at fault.

        inch: bare lengths are inches, and what is said of them is in inches.
        """
        try:
            return self._answer(given, inch)
        except BadInput as error:
            if not inch:
                raise
            raise BadInput(error.key, _in_inches(error.message)) from None

    def _answer(self, given: Mapping[str, Any], inch: bool) -> Answer:
        values = self.read(given, inch)
        trail = Trail()
        for asked in self.inputs:
            if asked.kind is quantity.PERCENT and asked.key in given:
                values[asked.key] = _percent(given[asked.key], values[asked.key], trail)
        results = {
            key: _unsigned(value) for key, value in self.work(trail, **values).items()
        }
        self._sound(results)
        kinds = {result.key: result.kind for result in self.results}
        return Answer(
            self.name,
            self.title,
            {key: value for key, value in values.items() if value is not None},
            results,
            {key: kinds[key].unit for key in results},
            tuple(trail.steps),
            self.sources + tuple(s for s in trail.sources if s not in self.sources),
            *(
                tuple(map(_in_inches, texts) if inch else texts)
                for texts in (trail.cautions, trail.notes)
            ),
        )

    def _sound(self, results: Mapping[str, Any]) -> None:
        """Raises BadInput where figures lead to what cannot exist."""
        for result in self.results:
            value = results.get(result.key)
            for number in _numbers(value):
                if not math.isfinite(number):
                    raise BadInput(
                        self._first(),
                        "These figures lead beyond what can be worked out.",
                    )
            if isinstance(value, float) and value < -1e-9 and result.is_size:
                would = quantity.typed_again(float(f"{value:.4g}"))
                raise BadInput(
                    self._first(),
                    f"These sizes leave nothing: {result.key.replace('_', ' ')} would "
                    f"be {would} {result.kind.unit}. Only sizes above 0 can be made.",
                )

    def _first(self) -> str:
        """The input that a refusal of the whole question stands at."""
        return next(
            (given.key for given in self.inputs if given.kind is quantity.LENGTH),
            self.inputs[0].key,
        )


_in_inches = functools.partial(in_inches, fine=True, short=True)


def _unsigned(value: Any) -> Any:
    """Nothing is nothing, though a sum of figures may have left it a sign."""
    return 0.0 if isinstance(value, float) and value == 0 else value


def _numbers(value: Any) -> Iterator[float]:
    """Every number in a result."""
    if isinstance(value, float):
        yield value
    elif isinstance(value, Mapping):
        for inner in value.values():
            yield from _numbers(inner)
    elif isinstance(value, list | tuple):
        for inner in value:
            yield from _numbers(inner)


def _percent(given: Any, value: Any, trail: Trail) -> Any:
    """0.75 without a sign means 75 %, and that is said."""
    bare = not (isinstance(given, str) and "%" in given)
    if bare and value is not None and 0 < value < 1:
        trail.notes.append(f"{value:g} is taken as {value * 100:g} %.")
        return value * 100
    return value


_declared: dict[str, Reckoning] = {}


def reckoning(
    name: str,
    *,
    group: str,
    title: str,
    usual: Mapping[str, Any],
    usual_inch: Mapping[str, Any] = {},
    given: tuple[Given, ...] = (),
    inputs: tuple[Input, ...],
    results: tuple[Result, ...],
    sources: tuple[str, ...],
) -> Callable[[Callable[..., Mapping[str, Any]]], Callable[..., Mapping[str, Any]]]:
    """Declare the function below as a reckoning; it gets a Trail and its inputs."""

    def declare(
        work: Callable[..., Mapping[str, Any]],
    ) -> Callable[..., Mapping[str, Any]]:
        _declared[name] = Reckoning(
            name, group, title, usual, usual_inch, given, inputs, results, sources, work
        )
        return work

    return declare


@functools.cache
def reckonings() -> Mapping[str, Reckoning]:
    """Every declared reckoning by name, grouped and sorted."""
    for subject in SUBJECTS:
        importlib.import_module(f"machinon.core.{subject}")
    return dict(sorted(_declared.items(), key=lambda item: (item[1].group, item[0])))


def reckon(name: str, inputs: Mapping[str, Any], inch: bool = False) -> Answer:
    """Answer one reckoning. Raises BadInput, for an unknown name on `reckoner`."""
    known = reckonings()
    if name not in known:
        raise unknown("reckoner", name, known)
    # an answer follows from its inputs alone: a plan asks most of them again
    question = (name, inch, *((key, _fixed(value)) for key, value in inputs.items()))
    try:
        found = _answered.get(question)
    except TypeError:  # an input that is a mapping, say
        return known[name].answer(inputs, inch)
    if found is None:
        if len(_answered) >= MOST_ANSWERS:
            _answered.clear()
        found = _answered[question] = known[name].answer(inputs, inch)
    return found


MOST_ANSWERS = 2000
_answered: dict[tuple[Any, ...], Answer] = {}


def _fixed(value: Any) -> Any:
    """The value as part of a key; 1, 1.0 and True are different questions."""
    if isinstance(value, list | tuple):
        return tuple(_fixed(inner) for inner in value)
    return (type(value), value)
