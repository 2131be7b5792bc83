"""The job document: everything decided and recorded for one thing to be built."""

import statistics
from typing import Any, Literal, TypeAlias

import msgspec

from machinon.core.cutting.cut_state import CutEntry
from machinon.core.shop.making import Making
from machinon.core.shop.things import Surface
from machinon.core.sizes.fit import FitChoice

Stage = Literal["survey", "fits", "piece", "route", "cut", "proof"]
Trial = Literal["goes on", "tight", "loose"]
MADE_HERE = "made:"  # begins what stands for a piece that is made in the job itself
STAGES: tuple[Stage, ...] = ("survey", "fits", "piece", "route", "cut", "proof")


class GaugeCheck(msgspec.Struct, frozen=True):
    """A gauge read on a standard of known size; mm."""

    instrument: str
    standard: float
    readings: tuple[float, ...]

    @property
    def off(self) -> float:
        """How much the gauge reads over."""
        return statistics.fmean(self.readings) - self.standard


class CutLog(msgspec.Struct, frozen=True):
    """The cutting of one surface; mm, dial positions radial from touch."""

    start: float | None = None  # measured before the first cut
    # what the dial showed at touch, in its own reading, None until touched
    touch: float | None = None
    instrument: str = "micrometer"
    school: Literal["always", "never", "free"] = "never"  # spring passes
    deepest: float = 1.0
    least: float = 0.01
    entries: tuple[CutEntry, ...] = ()
    trial: Literal["", Trial] = ""  # how the mate went on (empty until asked)
    tool: str = ""  # that of the shelf it is cut with, empty where that is not known
    earlier: tuple["CutLog", ...] = ()  # of the pieces alike that were cut before
    check: GaugeCheck | None = None  # of the gauge, while this surface is cut
    # how far the compound is wound for a radial mm, where it feeds; 0: the cross slide
    compound: int = 0

    @property
    def checked(self) -> GaugeCheck | None:
        """The check of the gauge that it is read with now."""
        check = self.check
        return check if check and check.instrument == self.instrument else None

    @property
    def true(self) -> "CutLog":
        """The log with what its gauge reads over taken off."""
        check = self.check
        if check is None:
            return self
        off, start = check.off, self.start
        if start is not None and self.instrument == check.instrument:
            start -= off
        entries = tuple(
            msgspec.structs.replace(entry, measured=entry.measured - off)
            if entry.measured is not None
            and (entry.instrument or self.instrument) == check.instrument
            else entry
            for entry in self.entries
        )
        return msgspec.structs.replace(self, start=start, entries=entries)

    @property
    def all(self) -> tuple["CutLog", ...]:
        """The log of each piece alike, this one's the last."""
        return (*self.earlier, self)

    @property
    def of_next(self) -> "CutLog":
        """The log of the next piece alike, cut and read as this one."""
        of_this = msgspec.structs.replace(self, earlier=())
        return CutLog(
            instrument=self.instrument,
            school=self.school,
            deepest=self.deepest,
            least=self.least,
            tool=self.tool,
            earlier=(*self.earlier, of_this),
            check=self.check,
            compound=self.compound,
        )

    @property
    def pending(self) -> bool:
        """Whether a cut was taken that nobody has measured yet."""
        return bool(self.entries) and self.entries[-1].measured is None

    @property
    def last_read(self) -> CutEntry | None:
        """The entry that was measured last; None before the first."""
        read = (entry for entry in reversed(self.entries) if entry.measured is not None)
        return next(read, None)


class ProofLog(msgspec.Struct, frozen=True):
    """The final measurements: surfaces as made, and run-out all round."""

    surfaces: tuple[Surface, ...] = ()
    thread_tried: bool = False  # its thread was screwed home
    runout: tuple[float, ...] = ()
    runout_limit: float = 0.02  # mm
    tried: dict[str, Trial] = {}  # by surface, how its mate went on
    # by surface, why a size within the doubt is taken all the same
    accepted: dict[str, str] = {}
    undone_because: str = ""  # why steps were left out


SizesCut: TypeAlias = dict[str, float | str | bool]


class Work(msgspec.Struct, frozen=True):
    """One piece that is made in a job, or the new halves of its fits alone."""

    key: str = "1"
    making: Making | None = None  # None for the new halves of fits alone
    fits: dict[str, int] = {}  # by slot of its family, the number of the fit
    done: tuple[str, ...] = ()  # keys of finished steps
    cutting: int = 0  # the fit that is at the machine, 0 for none
    proof: ProofLog = ProofLog()
    kept_as: str = ""  # id of the shop's piece that it became
    at_size: str = ""  # the size at the machine, cut to its drawing and not to a fit
    done_as: dict[str, SizesCut] = {}  # by finished step, the sizes that it was cut to
    at_step: str = ""  # the step at the machine that is worked line by line
    ticked: dict[str, tuple[str, ...]] = {}  # by step, the lines done so far
    clocks: dict[str, str] = {}  # by step and line, when a clock that runs was started
    ways: dict[str, str] = {}  # how steps are done, by what was asked
    # by holding, each turn of indicator readings by which it was set true, mm
    trued: dict[str, tuple[tuple[float, ...], ...]] = {}

    def log_of(self, surface: str) -> str:
        """The name of the log that a surface of the proof was cut by."""
        kind, _, rest = surface.partition(".")
        return rest if kind == "fit" else f"{self.key}.{rest}"

    @property
    def as_mate(self) -> str:
        """The piece as a mate, where another piece of the job is made to it."""
        return f"{MADE_HERE}{self.key}"


class Job(msgspec.Struct, frozen=True, tag="job"):
    """Things to be built that belong together, with their reason."""

    id: str
    name: str
    reason: str = ""
    lathe: str = ""
    # ids of the existing pieces, in the order of the stack
    pieces: tuple[str, ...] = ()
    fits: tuple[FitChoice, ...] = ()
    works: tuple[Work, ...] = (Work(),)  # what is made, at least one
    at: str = "1"  # the key of that which Piece, Route, Cut and Proof speak of
    cuts: dict[str, CutLog] = {}  # the logs of fits, by number
    put_away: bool = False  # it is not listed with those under way
    # id of the shop's mill, empty for its first; where it has none, of the lathe that
    # serves as one, or ELSEWHERE
    mill: str = ""

    # -- the work that is spoken of ----------------------------------------

    @property
    def work(self) -> Work:
        return next(work for work in self.works if work.key == self.at)

    def with_work(self, **changes: Any) -> "Job":
        """The job with its work changed."""
        return msgspec.structs.replace(
            self,
            works=tuple(
                msgspec.structs.replace(work, **changes)
                if work.key == self.at
                else work
                for work in self.works
            ),
        )

    @property
    def making(self) -> Making | None:
        return self.work.making

    @property
    def done(self) -> tuple[str, ...]:
        return self.work.done

    @property
    def cutting(self) -> int:
        return self.work.cutting

    @property
    def proof(self) -> ProofLog:
        return self.work.proof

    @property
    def count(self) -> int:
        """How many alike are made of the piece that is spoken of."""
        return self.making.count if self.making is not None else 1

    @property
    def kept_as(self) -> str:
        return self.work.kept_as

    @property
    def log(self) -> CutLog:
        """The log of what is at the machine."""
        return self.cuts.get(self.at_dial, CutLog())

    def with_log(self, log: CutLog) -> "Job":
        return msgspec.structs.replace(self, cuts={**self.cuts, self.at_dial: log})

    @property
    def at_dial(self) -> str:
        """The name of the log of what is at the machine."""
        size = self.work.at_size
        return self.work.log_of(f"size.{size}" if size else f"fit.{self.cutting}")

    def fit(self, number: int) -> FitChoice:
        return next(fit for fit in self.fits if fit.number == number)

    def with_fit(self, fit: FitChoice) -> "Job":
        return msgspec.structs.replace(
            self,
            fits=tuple(
                fit if choice.number == fit.number else choice for choice in self.fits
            ),
        )
