"""What a lathe is used to take of the dial, from the cuts that its jobs have kept."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from machinon.core.cutting.cut_belief import belief_of
from machinon.core.cutting.cut_state import RATIO, CutState, cuts_taken
from machinon.core.families import family_for
from machinon.core.job.job import CutLog, Job
from machinon.core.sizes.fit import FLAT_JOINTS

Cuts = Literal["shafts", "bores", "lengths"]
TELLS = 3  # measured cuts of a surface from which on it tells something
ALREADY = 2  # surfaces that what is usual anywhere counts for
SAME = 2  # times that a surface counts for which the metal is the same, or the tool
DOUBT = 0.004  # mm, two sigma of a reading: of any gauge that is cut by


@dataclass(frozen=True, slots=True)
class Habit:
    """share: of what stands before the tool; count: surfaces it is learned from."""

    share: float = RATIO
    count: int = 0


def habit_of(jobs: Iterable[Job], like: Job, what: Cuts) -> Habit:
    """What the lathe of a job took in these ones; mixed with what is usual, which a few
    surfaces do not outweigh.

    Of its own metal they count twice, and cut with its own tool or bar twice as much
    again. Lengths are compared within a kind of piece, as one is milled and another
    turned.
    """
    family, metal = _made_of(like, str(like.cutting))
    tool = like.log.tool
    total, weight, count = ALREADY * RATIO, float(ALREADY), 0
    for job in jobs:
        if job.lathe != like.lathe:
            continue
        for name, log in job.cuts.items():
            other, of = _made_of(job, name)
            if what == "lengths" and other != family:
                continue
            share = _share(job, name, log, what)
            if share is not None:
                counts = SAME if metal and of == metal else 1
                counts *= SAME if tool and log.tool == tool else 1
                total += counts * share
                weight += counts
                count += 1
    return Habit(total / weight, count)


def _made_of(job: Job, name: str) -> tuple[str, str]:
    """The family and the metal of the piece that a fit belongs to; empty for none."""
    for work in job.works:
        numbers = [str(one) for one in work.fits.values()]
        if work.making is not None and name in numbers:
            metal = work.making.material or family_for(work.making).material
            return work.making.family, metal
    return "", ""


def _share(job: Job, name: str, log: CutLog, what: Cuts) -> float | None:
    """What one log tells; None for nothing, and for what is no cut of that kind."""
    choice = next((one for one in job.fits if str(one.number) == name), None)
    if choice is None or log.start is None or choice.kind != "cylinder":
        return None
    external = choice.exists == "hole"
    side = "shafts" if external else "bores"
    if what != ("lengths" if choice.joint in FLAT_JOINTS else side):
        return None
    state = CutState(
        external, 0.0, 1.0, 0.5, log.start, log.entries, DOUBT, 0.01, least=log.least
    )
    if len(cuts_taken(state)) < TELLS:
        return None
    return min(belief_of(state).share, 1.0)
