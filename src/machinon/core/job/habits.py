"""The usual cut of a lathe, learned from the logs that its jobs have kept."""

import contextlib
import math
from collections.abc import Iterable, Iterator, Sequence
from typing import Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.cutting.cut_belief import belief_of
from machinon.core.cutting.cut_state import (
    CUT_SIGMA,
    RATIO,
    CutState,
    cuts_taken,
    reading_sigma,
)
from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.job import CutLog, Job
from machinon.core.shop.things import Shop
from machinon.core.sizes.fit import FLAT_JOINTS, FitChoice

Cuts = Literal["shafts", "bores", "lengths"]
TELLS = 3  # measured cuts of a surface from which on it tells something
ALREADY = 2  # surfaces that what is usual anywhere counts for
SAME = 2  # times that a surface counts for which the metal is the same, or the tool
DOUBT = 0.004  # mm, two sigma of a reading: of a gauge that the shop has no longer
# mm, one sigma of how settings lie: of a slide whose play is taken up, to a worn one
SETTLING = (0.0010, CUT_SIGMA, 0.0029)
SETTLED = 6  # surfaces cut last that tell it
COARSE = 0.006  # mm, two sigma of a reading that tells nothing of it


class Habit(Struct, frozen=True):
    """How a lathe and its tool cut, as earlier jobs showed."""

    share: float = RATIO  # taken of what stands before the tool
    count: int = 0  # surfaces it is learned from
    settles: float = CUT_SIGMA  # how the slide comes to lie, one sigma, radial mm


def habit_of(
    jobs: Iterable[Job], like: Job, what: Cuts, shop: Shop | None = None
) -> Habit:
    """The habit of a job's lathe, learned from these jobs, the last first; mixed with
    the usual one, which a few surfaces do not outweigh.

    Of its own metal they count twice, and cut with its own tool or bar twice as much
    again. Lengths are compared within a kind of piece, as one is milled and another
    turned. shop: whose gauges they were read with.
    """
    family, metal = _made_of(like, str(like.cutting))
    tool = like.log.tool
    total, weight, count = ALREADY * RATIO, float(ALREADY), 0
    slide: list[CutState] = []
    for job in jobs:
        if job.lathe != like.lathe:
            continue
        for name, log in _logs_of(job):
            other, of = _made_of(job, name)
            if what == "lengths" and other != family:
                continue
            fit = next((fit for fit in job.fits if str(fit.number) == name), None)
            state = _cut(fit, log, shop) if fit is not None else None
            if fit is None or state is None:
                continue
            kind = _kind(fit)
            # shafts and bores are cut by the same slide
            same = kind == what or "lengths" not in (kind, what)
            if same and state.uncertainty < COARSE:
                slide.append(state)
            if kind == what:
                counts = SAME if metal and of == metal else 1
                counts *= SAME if tool and log.tool == tool else 1
                total += counts * min(belief_of(state).share, 1.0)
                weight += counts
                count += 1
    return Habit(total / weight, count, _settles(slide[:SETTLED]))


def _logs_of(job: Job) -> Iterator[tuple[str, CutLog]]:
    """Each surface that was cut, of every piece alike, by the name of its logs."""
    for name, logs in job.cuts.items():
        for log in logs.all:
            yield name, log


def _settles(states: Sequence[CutState]) -> float:
    """Scatter of settings on the slide that cut these surfaces: each candidate as
    likely as it foresaw their readings."""
    if not states:
        return CUT_SIGMA
    foreseen = [
        sum(
            belief_of(replace(cut_state, dial_sigma=sigma)).foreseen
            for cut_state in states
        )
        for sigma in SETTLING
    ]
    likely = [math.exp(chance - max(foreseen)) for chance in foreseen]
    squares = sum(w * sigma**2 for w, sigma in zip(likely, SETTLING, strict=True))
    return math.sqrt(squares / sum(likely))


def _made_of(job: Job, name: str) -> tuple[str, str]:
    """The family and the metal of the piece that a fit belongs to; empty for none."""
    for work in job.works:
        numbers = [str(fit) for fit in work.fits.values()]
        if work.making is not None and name in numbers:
            metal = work.making.material or family_for(work.making).material
            return work.making.family, metal
    return "", ""


def _kind(fit: FitChoice) -> Cuts:
    """The kind of cut that a fit asks for."""
    if fit.joint in FLAT_JOINTS:
        return "lengths"
    return "shafts" if fit.exists == "hole" else "bores"


def _cut(fit: FitChoice, log: CutLog, shop: Shop | None) -> CutState | None:
    """A surface that was cut for a fit, whatever its band was; None where its log tells
    nothing."""
    if log.start is None or fit.kind != "cylinder":
        return None
    doubt = DOUBT
    if shop is not None:
        with contextlib.suppress(BadInput):
            gauge = shop.instrument(log.instrument)
            doubt = 2 * reading_sigma(gauge.repeatability, gauge.resolution)
    state = CutState(
        fit.exists == "hole",
        0.0,
        1.0,
        0.5,
        log.start,
        log.entries,
        doubt,
        0.01,
        least=log.least,
    )
    return state if len(cuts_taken(state)) >= TELLS else None
