"""What a lathe is used to take of the dial, from the cuts that its jobs have kept."""

from collections.abc import Iterable
from dataclasses import dataclass

from machinon.core.cutting.cut_belief import belief_of
from machinon.core.cutting.cut_state import RATIO, CutState, cuts_taken
from machinon.core.job.job import CutLog, Job
from machinon.core.sizes.fit import FLAT_JOINTS

TELLS = 3  # measured cuts of a surface from which on it tells something
ALREADY = 2  # surfaces that what is usual anywhere counts for
DOUBT = 0.004  # mm, two sigma of a reading: of any gauge that is cut by


@dataclass(frozen=True, slots=True)
class Habit:
    """share: of what stands before the tool; count: surfaces it is learned from."""

    share: float = RATIO
    count: int = 0


def habit_of(jobs: Iterable[Job], lathe: str, external: bool) -> Habit:
    """What this lathe took of shafts, or of bores, in these jobs; mixed with what is
    usual, which a few surfaces do not outweigh."""
    shares = [
        share
        for job in jobs
        if job.lathe == lathe
        for name, log in job.cuts.items()
        if (share := _share(job, name, log, external)) is not None
    ]
    total = ALREADY * RATIO + sum(shares)
    return Habit(total / (ALREADY + len(shares)), len(shares))


def _share(job: Job, name: str, log: CutLog, external: bool) -> float | None:
    """What one log tells; None for nothing, and for no diameter of that side."""
    choice = next((one for one in job.fits if str(one.number) == name), None)
    if choice is None or log.start is None:
        return None
    if choice.kind != "cylinder" or choice.joint in FLAT_JOINTS:
        return None
    if (choice.exists == "hole") != external:
        return None
    state = CutState(
        external, 0.0, 1.0, 0.5, log.start, log.entries, DOUBT, 0.01, least=log.least
    )
    if len(cuts_taken(state)) < TELLS:
        return None
    return min(belief_of(state).share, 1.0)
