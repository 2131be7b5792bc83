"""The job document: everything decided and recorded for one thing to be built."""

from typing import Literal

import msgspec

from machinon.core.cutting.cut_state import CutEntry
from machinon.core.shop.making import Making
from machinon.core.shop.things import Surface
from machinon.core.sizes.fit import FitChoice

Stage = Literal["survey", "fits", "piece", "route", "cut", "proof"]
Trial = Literal["goes on", "tight", "loose"]
STAGES: tuple[Stage, ...] = ("survey", "fits", "piece", "route", "cut", "proof")


class CutLog(msgspec.Struct, frozen=True):
    """The cutting of one surface; mm, dial positions radial from touch.

    start: measured before the first cut; touch: what the dial showed at touch,
    in its own reading, None until touched; trial: how the mate went on (empty
    until asked); school: spring passes.
    """

    start: float | None = None
    touch: float | None = None
    instrument: str = "micrometer"
    school: Literal["always", "never", "free"] = "never"
    deepest: float = 1.0
    least: float = 0.01
    entries: tuple[CutEntry, ...] = ()
    trial: Literal["", Trial] = ""


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


class Job(msgspec.Struct, frozen=True, tag="job"):
    """One thing to be built, with its reason.

    pieces: ids of the existing pieces, in the order of the stack; making: None for a
    job of fits alone; done: keys of finished steps; cuts: the logs of fits, by number;
    cutting: the fit that is at the machine, 0 for none; kept_as: id of the shop's
    piece that it became; put_away: it is not listed with those under way.
    """

    id: str
    name: str
    reason: str = ""
    lathe: str = ""
    pieces: tuple[str, ...] = ()
    fits: tuple[FitChoice, ...] = ()
    making: Making | None = None
    done: tuple[str, ...] = ()
    cuts: dict[str, CutLog] = {}
    cutting: int = 0
    proof: ProofLog = ProofLog()
    kept_as: str = ""
    put_away: bool = False

    @property
    def log(self) -> CutLog:
        """The log of what is at the machine."""
        return self.cuts.get(str(self.cutting), CutLog())

    def with_log(self, log: CutLog) -> "Job":
        return msgspec.structs.replace(self, cuts={**self.cuts, str(self.cutting): log})

    def fit(self, number: int) -> FitChoice:
        return next(one for one in self.fits if one.number == number)

    def with_fit(self, fit: FitChoice) -> "Job":
        return msgspec.structs.replace(
            self,
            fits=tuple(fit if one.number == fit.number else one for one in self.fits),
        )
