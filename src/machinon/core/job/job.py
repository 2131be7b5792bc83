"""The job document: everything decided and recorded for one thing to be built."""

from typing import Literal

import msgspec

from machinon.core.cutting.cut_state import CutEntry
from machinon.core.piece.back_plate import BackPlate
from machinon.core.shop.making import Making
from machinon.core.shop.things import Surface
from machinon.core.sizes.fit import FitChoice

Stage = Literal["survey", "fits", "piece", "route", "cut", "proof"]
Trial = Literal["goes on", "tight", "loose"]
SPIGOT = 3  # the fit of a back plate that its own log belongs to
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

    thread_tried: the plate was screwed home to the shoulder; runout_limit: mm.
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


PROOF_SURFACES = (
    Surface(
        "register_bore",
        "Register bore",
        "inside",
        "Bore gauge at two depths, before the plate leaves the chuck.",
    ),
    Surface(
        "spigot_diameter",
        "Spigot",
        "outside",
        "Across the spigot at three places, in place on the spindle.",
    ),
    Surface(
        "bolt_circle",
        "Span over two bolt holes",
        "span",
        "Outside edge to outside edge of two neighbouring holes.",
    ),
)


class Job(msgspec.Struct, frozen=True, tag="job"):
    """One thing to be built, with its reason.

    pieces: ids of the existing pieces, in the order of the stack; plate and making
    are None for a job that keeps survey and fits only; done: keys of finished
    steps; cut: the log of a plate's spigot; cuts: of other fits, by number; cutting:
    the fit that is at the machine, 0 for a plate's spigot; kept_as: id of the shop's
    piece that it became; put_away: it is not listed with those under way.
    """

    id: str
    name: str
    reason: str = ""
    lathe: str = ""
    pieces: tuple[str, ...] = ()
    fits: tuple[FitChoice, ...] = ()
    plate: BackPlate | None = None
    making: Making | None = None
    done: tuple[str, ...] = ()
    cut: CutLog = CutLog()
    cuts: dict[str, CutLog] = {}
    cutting: int = 0
    proof: ProofLog = ProofLog(surfaces=PROOF_SURFACES)
    kept_as: str = ""
    put_away: bool = False

    @property
    def own_log(self) -> bool:
        """Whether what is at the machine is a plate's spigot."""
        return self.plate is not None and self.cutting in (0, SPIGOT)

    @property
    def log(self) -> CutLog:
        """The log of what is at the machine."""
        if self.own_log:
            return self.cut
        return self.cuts.get(str(self.cutting), CutLog())

    def with_log(self, log: CutLog) -> "Job":
        if self.own_log:
            return msgspec.structs.replace(self, cut=log)
        return msgspec.structs.replace(self, cuts={**self.cuts, str(self.cutting): log})

    def fit(self, number: int) -> FitChoice:
        return next(one for one in self.fits if one.number == number)

    def with_fit(self, fit: FitChoice) -> "Job":
        return msgspec.structs.replace(
            self,
            fits=tuple(fit if one.number == fit.number else one for one in self.fits),
        )


def back_plate_job(
    id: str,
    name: str,
    reason: str,
    lathe: str,
    nose: str,
    chuck: str,
    bolts: int | None = None,
) -> Job:
    """A new job: a plate that carries a chuck on a threaded nose, four fits.

    bolts: how many hold the chuck, None where nobody has counted them yet.
    """
    return Job(
        id,
        name,
        reason,
        lathe,
        (nose, chuck),
        fits=(
            FitChoice(
                1,
                "Nose register in plate",
                "cylinder",
                nose,
                "register",
                "shaft",
                "slides",
            ),
            FitChoice(
                2, "Nose thread in plate", "thread", nose, "thread-major", "shaft", ""
            ),
            FitChoice(
                3,
                "Plate spigot in chuck",
                "cylinder",
                chuck,
                "recess",
                "hole",
                "slides",
            ),
            FitChoice(4, "Bolts", "bolts", chuck, "bolt-span", "hole", "normal"),
        ),
        plate=BackPlate(bolts=bolts),
    )
