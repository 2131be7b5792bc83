"""The job document: everything decided and recorded for one thing to be built."""

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


class CutLog(msgspec.Struct, frozen=True):
    """The cutting of one surface; mm, dial positions radial from touch.

    start: measured before the first cut; touch: what the dial showed at touch,
    in its own reading, None until touched; trial: how the mate went on (empty
    until asked); school: spring passes; tool: that of the shelf it is cut with, empty
    where that is not known.
    """

    start: float | None = None
    touch: float | None = None
    instrument: str = "micrometer"
    school: Literal["always", "never", "free"] = "never"
    deepest: float = 1.0
    least: float = 0.01
    entries: tuple[CutEntry, ...] = ()
    trial: Literal["", Trial] = ""
    tool: str = ""

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
    """The final measurements: surfaces as made, and run-out all round.

    thread_tried: its thread was screwed home; runout_limit: mm.
    tried: by surface, how its mate went on; accepted: by surface, why a size within
    the doubt is taken all the same; undone_because: why steps were left out.
    """

    surfaces: tuple[Surface, ...] = ()
    thread_tried: bool = False
    runout: tuple[float, ...] = ()
    runout_limit: float = 0.02
    tried: dict[str, Trial] = {}
    accepted: dict[str, str] = {}
    undone_because: str = ""


SizesCut: TypeAlias = dict[str, float | str | bool]


class Work(msgspec.Struct, frozen=True):
    """One piece that is made in a job, or the new halves of its fits alone.

    making: None for the latter; fits: by slot of its family, the number of the fit;
    done: keys of finished steps; cutting: the fit that is at the machine, 0 for none;
    at_size: instead of it, the size that is cut to its drawing;
    at_step: instead of both, the step that is worked line by line; ticked: by step, the
    lines done so far; clocks: by step and line, when a clock that runs was started;
    ways: how steps are done, by what was asked; trued: by holding, each turn of
    indicator readings by which it was set true, mm;
    done_as: by finished step, the sizes that it was cut to;
    kept_as: id of the shop's piece that it became.
    """

    key: str = "1"
    making: Making | None = None
    fits: dict[str, int] = {}
    done: tuple[str, ...] = ()
    cutting: int = 0
    proof: ProofLog = ProofLog()
    kept_as: str = ""
    at_size: str = ""
    done_as: dict[str, SizesCut] = {}
    at_step: str = ""
    ticked: dict[str, tuple[str, ...]] = {}
    clocks: dict[str, str] = {}
    ways: dict[str, str] = {}
    trued: dict[str, tuple[tuple[float, ...], ...]] = {}

    def log_of(self, surface: str) -> str:
        """The name of the log that a surface of the proof was cut by."""
        kind, _, rest = surface.partition(".")
        return rest if kind == "fit" else f"{self.key}.{rest}"

    @property
    def as_mate(self) -> str:
        """What stands for it where another piece of the job is made to it."""
        return f"{MADE_HERE}{self.key}"


class Job(msgspec.Struct, frozen=True, tag="job"):
    """Things to be built that belong together, with their reason.

    pieces: ids of the existing pieces, in the order of the stack; works: what is made,
    at least one; at: the key of that which Piece, Route, Cut and Proof speak of; cuts:
    the logs of fits, by number; put_away: it is not listed with those under way; mill:
    id of the shop's mill, empty for its first.
    """

    id: str
    name: str
    reason: str = ""
    lathe: str = ""
    pieces: tuple[str, ...] = ()
    fits: tuple[FitChoice, ...] = ()
    works: tuple[Work, ...] = (Work(),)
    at: str = "1"
    cuts: dict[str, CutLog] = {}
    put_away: bool = False
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
