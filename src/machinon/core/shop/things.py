"""The belongings of the shop: machines, pieces with their surfaces, instruments.

All are documents: immutable values that are kept whole in the shop file.
"""

import math
from typing import Literal

import msgspec

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH, length_text
from machinon.core.shop.making import Making
from machinon.core.wording import within

SurfaceKind = Literal["outside", "inside", "gap", "length", "pitch", "span", "runout"]


class Reading(msgspec.Struct, frozen=True, omit_defaults=True):
    """One measurement as it was taken."""

    value: float  # mm as the instrument showed it
    instrument: str
    typed: str = ""  # as it was typed
    # end and angle it was taken at, of a taper the distance from its end in mm
    place: str = ""
    temperature: float | None = None  # of the part, °C, None when nobody looked
    at: str = ""  # ISO time
    struck: str = ""  # why it does not count, empty while it does
    kept: str = ""  # why a reading that was pointed out counts all the same


class Surface(msgspec.Struct, frozen=True, omit_defaults=True):
    """A functional face of a piece and its readings; kind says what is read."""

    id: str
    name: str
    kind: SurfaceKind
    how: str = ""
    readings: tuple[Reading, ...] = ()
    # sizes that stand in a reading, by name, mm or degrees: the pins of a dovetail, the
    # parallel under a depth gauge, the number of holes
    aids: dict[str, float] = {}
    # the standard it is taken by while nothing was read on it, as `16 h6` or `MT2`
    given: str = ""


class Instrument(msgspec.Struct, frozen=True):
    """An instrument; lengths in mm."""

    id: str
    name: str
    resolution: float  # what it shows
    uncertainty: float  # of one reading, two sigma, with its zero
    repeatability: float  # one sigma of reading again
    suits: tuple[SurfaceKind, ...]  # surface kinds
    inch: bool = False
    checked: str = ""
    least: float = 0.0  # its range, 0 where that is not said
    most: float = 0.0  # its range, 0 where that is not said

    def proves(self, band: float) -> bool:
        """Whether its doubt fits into a band of a width, mm."""
        return self.uncertainty <= band / 2

    def says(self, size: float) -> str:
        """A length as it shows one, with its unit."""
        return length_text(size, self.resolution, self.inch)

    def reaches(self, size: float) -> bool:
        """Whether a size lies in its range, as far as that is said."""
        return self.least <= size and (not self.most or size <= self.most)


class Runs(msgspec.Struct, frozen=True):
    """The run-out of a piece as it was read once: round a turn, equally spaced, mm."""

    readings: tuple[float, ...]
    at: str


class Piece(msgspec.Struct, frozen=True, tag="piece"):
    """A part that exists."""

    id: str
    name: str
    role: Literal["nose", "chuck", "other"]  # what it is drawn as
    material: str = "steel"
    surfaces: tuple[Surface, ...] = ()
    note: str = ""
    making: Making | None = None  # how it was made, where that was in this shop
    runs: tuple[Runs, ...] = ()  # each time that its run-out was read

    def surface(self, id: str) -> Surface | None:
        return next((surface for surface in self.surfaces if surface.id == id), None)

    def names(self, surface: Surface) -> str:
        """A surface of it in a sentence: "Collets, length of their taper"."""
        return f"{self.name}, {within(surface.name)}"

    def with_surface(self, surface: Surface) -> "Piece":
        """The piece with one surface put in or changed."""
        if self.surface(surface.id) is None:
            return msgspec.structs.replace(self, surfaces=(*self.surfaces, surface))
        return msgspec.structs.replace(
            self,
            surfaces=tuple(
                surface if kept.id == surface.id else kept for kept in self.surfaces
            ),
        )


class Lathe(msgspec.Struct, frozen=True, tag="lathe"):
    """A lathe; mm and rpm."""

    id: str
    name: str
    centre_height: float
    between_centres: float
    swing_over_slide: float
    speeds: tuple[float, ...]
    nose: str  # the id of the piece that is its spindle nose
    # whether one turn of the cross dial is counted on the diameter
    dial_reads: Literal["diameter", "radius"] = "diameter"
    dial_division: float = 0.02  # one graduation as the dial reads, mm
    lead_screw: float = 4.0  # its pitch
    wheels: tuple[int, ...] = ()  # teeth of the change wheels there are
    tailstock: str = ""
    # whether any speed between the first and the last can be set
    stepless: bool = False
    figures: dict[str, str] = {}  # what else is known, by key, as text

    @property
    def speed_choices(self) -> tuple[float, ...]:
        """The speeds there are; of a stepless drive every 10 rpm from the lowest."""
        if not self.stepless:
            return self.speeds
        low, high = self.speeds[0], self.speeds[-1]
        count = int((high - low) // 10)
        return (*(low + 10 * i for i in range(count + 1)), high)

    @property
    def slide_division(self) -> float:
        """One line of the dial that feeds along the bed, mm; where it is not known, as
        on the cross dial."""
        return float(self.figures.get("slide_division", 0)) or self.dial_division

    @property
    def spindle_bore(self) -> float:
        """The largest bar that goes into the spindle, mm; 0 if not known."""
        return float(self.figures.get("spindle_bore", 0))

    @property
    def power(self) -> float:
        """Its motor, kW; 0 if not known."""
        return float(self.figures.get("power", 0))

    @property
    def torque(self) -> float:
        """Torque of the spindle at its lowest speed, N·m; 0 if not known.

        Source: torque = power / angular speed, losses left out.
        """
        if not self.speeds:
            return 0.0
        return self.power * 1000 / (min(self.speeds) * 2 * math.pi / 60)


class Lesson(msgspec.Struct, frozen=True):
    """A mistake, and its place: the family and the step, the operation with its tool,
    the job, ISO time."""

    says: str
    family: str
    step: str
    operation: str
    tool: str
    job: str
    at: str


class Shop(msgspec.Struct, frozen=True, tag="shop"):
    """The shop as a whole: its name, habits, instruments, and what it has learned."""

    id: str = "shop"
    name: str = ""
    inch: bool = False
    temperature: float = 20.0
    first_angle: bool = True
    instruments: tuple[Instrument, ...] = ()
    lessons: tuple[Lesson, ...] = ()

    def instrument(self, id: str) -> Instrument:
        """An instrument by id. Raises BadInput on `instrument`."""
        for instrument in self.instruments:
            if instrument.id == id:
                return instrument
        raise BadInput(
            "instrument",
            "That instrument is not in the shop; choose one of those listed.",
        )

    def instruments_for(
        self, *kinds: SurfaceKind, size: float | None = None
    ) -> tuple[Instrument, ...]:
        """Instruments that can measure a kind of surface, of a size, surest first."""
        return tuple(
            sorted(
                (
                    instrument
                    for instrument in self.instruments
                    if set(kinds) & set(instrument.suits)
                    and (size is None or instrument.reaches(size))
                ),
                key=lambda instrument: instrument.uncertainty,
            )
        )


# A set that most small shops have; a person edits it to what they own.
STARTER_INSTRUMENTS = (
    Instrument(
        "micrometer",
        "Micrometer set 0–150",
        0.001,
        0.004,
        0.0015,
        ("outside",),
        checked="on its setting rods",
        most=150,
    ),
    Instrument(
        "bore-gauge",
        "Three-point bore gauge",
        0.001,
        0.005,
        0.002,
        ("inside",),
        checked="in its setting ring",
        least=6,
        most=100,
    ),
    Instrument(
        "caliper",
        "Digital caliper",
        0.01,
        0.03,
        0.01,
        ("outside", "inside", "gap", "length", "span"),
        most=150,
    ),
    Instrument(
        "inch-micrometer",
        "Inch micrometer 1–2",
        0.00254,
        0.0076,
        0.0025,
        ("outside",),
        inch=True,
        least=25.4,
        most=50.8,
    ),
    Instrument(
        "depth-gauge", "Depth micrometer", 0.01, 0.015, 0.004, ("length",), most=150
    ),
    Instrument(
        "rule",
        "Steel rule 300",
        0.5,
        0.5,
        0.2,
        ("outside", "inside", "gap", "length", "span"),
        most=300,
    ),
    Instrument("tape", "Tape 3 m", 1.0, 1.5, 0.5, ("length", "span"), most=3000),
    Instrument("thread-gauge", "Thread gauge", 0.05, 0.05, 0.01, ("pitch",)),
    Instrument(
        "slips",
        "Slip gauges, 47 pieces",
        0.005,
        0.0025,
        0.001,
        ("gap",),
        checked="grade 2",
        least=1,
        most=200,
    ),
    Instrument("indicator", "Lever indicator", 0.002, 0.004, 0.001, ("runout",)),
)


def _in_inches(instrument: Instrument) -> Instrument:
    """An instrument of the usual set as an inch shop has it."""
    steps, name, most = _INCH_SET.get(
        instrument.id, (None, instrument.name, instrument.most / INCH)
    )
    return msgspec.structs.replace(
        instrument,
        name=name,
        resolution=steps * INCH if steps else instrument.resolution,
        inch=True,
        most=most * INCH,
    )


# resolution and range in inches, as they are bought
_INCH_SET: dict[str, tuple[float | None, str, float]] = {
    "micrometer": (0.0001, "Micrometer set 0–6 in", 6),
    "bore-gauge": (0.0001, "Three-point bore gauge", 4),
    "caliper": (0.0005, "Digital caliper", 6),
    "depth-gauge": (0.0005, "Depth micrometer", 6),
    "rule": (1 / 64, "Steel rule 12 in", 12),
    "tape": (1 / 32, "Tape 10 ft", 120),
    "slips": (0.0001, "Slip gauges, 81 pieces", 8),
    "indicator": (0.0001, "Lever indicator", 0),
}


def starter_instruments(inch: bool) -> tuple[Instrument, ...]:
    """The usual set, reading in the shop's own unit."""
    if not inch:
        return STARTER_INSTRUMENTS
    return tuple(
        _in_inches(instrument)
        for instrument in STARTER_INSTRUMENTS
        if instrument.id != "inch-micrometer"
    )


NOSE_SURFACES = (
    Surface(
        "register",
        "Register",
        "outside",
        "Across the plain part behind the thread, at two places a quarter turn apart.",
    ),
    Surface(
        "register-length",
        "Register length",
        "length",
        "From the shoulder to the first thread.",
    ),
    Surface(
        "thread-major",
        "Thread over the crests",
        "outside",
        "Over the crests at two places; a little under the nominal is usual.",
    ),
    Surface(
        "thread-pitch",
        "Thread pitch",
        "pitch",
        "Thread gauge, or ten crests with a caliper divided by ten.",
    ),
    Surface(
        "nose-length",
        "Nose length",
        "length",
        "From the shoulder to the end of the nose.",
    ),
)

CHUCK_SURFACES = (
    Surface("body", "Body diameter", "outside", "Across the chuck body."),
    Surface(
        "recess",
        "Rear recess",
        "inside",
        "Across the recess at three places; wipe it clean first.",
    ),
    Surface(
        "recess-depth",
        "Recess depth",
        "length",
        "From the rear face to the floor of the recess.",
    ),
    Surface(
        "bolt-hole",
        "Screw in a bolt hole",
        "outside",
        "Screw two screws in by hand and measure across one of them; across the "
        "hole itself where it is plain.",
    ),
    Surface(
        "bolt-span",
        "Span over two neighbours",
        "span",
        "Outside edge to outside edge of two neighbouring screws, or plain holes.",
    ),
)
