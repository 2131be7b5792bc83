"""Two halves that meet: what a joint is worked out from, and what comes of it."""

from collections.abc import Mapping

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, TORQUE, Kind
from machinon.core.reckoning import TEXT, Answer, Input
from machinon.core.shop.things import (
    Instrument,
    Lathe,
    Piece,
    Shop,
    Surface,
    SurfaceKind,
)
from machinon.core.sizes.fit import FitChoice, wanted_play
from machinon.core.survey.measuring import Measured
from machinon.core.survey.surface_kinds import beside


class Band(Struct, frozen=True):
    """A size with its limits, mm or degrees; measured, or to be made."""

    name: str
    lower: float
    upper: float
    answer: Answer
    kind: Kind = LENGTH
    sign: str = ""
    measured: bool = False
    # the instrument of the shop that can prove it, None where none can
    gauge: Instrument | None = None

    @property
    def width(self) -> float:
        return self.upper - self.lower

    @property
    def aim(self) -> float:
        return (self.lower + self.upper) / 2


class Effect(Struct, frozen=True):
    """Something that follows."""

    name: str
    value: float | str
    kind: Kind
    answer: Answer
    small: bool = False  # a length to be said in µm or thou
    grave: bool = False  # it must not be left so


def turned_by(lathe: Lathe | None, answer: Answer) -> tuple[Effect, ...]:
    """The torque of a lathe, to set beside that which a joint carries by an answer."""
    if lathe is None:
        return ()
    said: float | str = lathe.torque or "its motor is not known: see Shop"
    kind = TORQUE if lathe.torque else TEXT
    return (Effect("The lathe turns at most", said, kind, answer),)


class Joined(Struct, frozen=True):
    """A joint worked out."""

    bands: tuple[Band, ...] = ()
    effects: tuple[Effect, ...] = ()
    picture: Answer | None = None  # the answer whose picture shows it
    advice: tuple[str, ...] = ()

    @property
    def first(self) -> Band | None:
        """The band that is cut to first; None for a joint without its own."""
        return next((band for band in self.bands if not band.measured), None)


class Meeting(Struct, frozen=True):
    """The inputs of a joint: the half that exists and the person's answers."""

    choice: FitChoice
    piece: Piece
    surface: Surface
    mate: Measured
    # of the job, by piece and surface id
    measured: Mapping[tuple[str, str], Measured | None]
    given: Mapping[str, object]  # what the joint asks, in base units
    shop: Shop
    lathe: Lathe | None
    asks: tuple[Input, ...]  # what it asks
    band: Answer | None = None  # of a plain fit

    def number(self, key: str, other: float) -> float:
        """A figure that was given, or what stands for it until it is."""
        value = self.given.get(key)
        return float(value) if isinstance(value, int | float) else other

    def word(self, key: str, other: str) -> str:
        value = self.given.get(key)
        return value if isinstance(value, str) else other

    def said(self, *keys: str) -> dict[str, object]:
        """Those figures that were given, as a reckoning's inputs."""
        return {key: self.given[key] for key in keys if key in self.given}

    def need(self, *keys: str) -> None:
        """Refuse while a figure that the joint needs is not typed. Raises BadInput."""
        for key in keys:
            if key not in self.given:
                given = next(ask for ask in self.asks if ask.key == key)
                raise BadInput(key, f"Type this first: {given.meaning}.")

    def machine(self, answer: Answer) -> tuple[Effect, ...]:
        """The torque of the lathe, to set beside that which the joint carries."""
        return turned_by(self.lathe, answer)

    def beside(self, key: str) -> Measured:
        """The surface of the same group. Raises BadInput where it has no reading."""
        found = self.measured.get((self.piece.id, beside(self.surface, key)))
        if found is None:
            raise BadInput(
                key, f"The {key.replace('-', ' ')} is not measured yet: see Survey."
            )
        if found.refused:
            raise BadInput(key, found.refused)
        return found

    @property
    def outer(self) -> str:
        """Material of the outer part."""
        return self.piece.material if self.choice.exists == "hole" else self.other

    @property
    def inner(self) -> str:
        return self.other if self.choice.exists == "hole" else self.piece.material

    @property
    def other(self) -> str:
        """Material of the half to be made; steel until it is said."""
        return self.word("other", "steel")

    def play(self, nominal: float) -> dict[str, float]:
        """Least and most play wanted, as a reckoning's inputs."""
        if self.choice.want == "own":
            return {
                "play_least": self.choice.clearance_min,
                "play_most": self.choice.clearance_max,
            }
        wanted = wanted_play(self.choice.want, nominal, self.choice.exists)
        return {"play_least": wanted.least, "play_most": wanted.most}

    def made(
        self,
        name: str,
        answer: Answer,
        lower: str,
        upper: str,
        side: SurfaceKind = "outside",
        sign: str = "",
        kind: Kind = LENGTH,
    ) -> Band:
        """A band to be made, with the instrument that can prove it."""
        low, high = float(answer[lower]), float(answer[upper])
        gauge = None
        if kind is LENGTH:
            gauge = next(
                (
                    instrument
                    for instrument in self.shop.instruments_for(side, size=low)
                    if instrument.proves(high - low)
                ),
                None,
            )
        return Band(name, low, high, answer, kind, sign, False, gauge)

    def has(self, name: str, found: Measured, sign: str = "") -> Band:
        """The half that exists, as a band of what it is known to be."""
        return Band(
            name, found.lower, found.upper, found.answer, found.kind, sign, True
        )
