"""A job as one JSON file that other programs can read.

docs/job-json.md says what is in it, docs/job.schema.json what it looks like.
"""

from collections.abc import Iterable
from pathlib import Path
from typing import Any

import msgspec
from msgspec import Struct

from machinon.core.job.job import Job
from machinon.core.job.plan import Plan
from machinon.core.job.proof import Verdict
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Instrument, Lathe, Piece
from machinon.store.lists import write_text
from machinon.store.shop_file import DaybookLine
from machinon.store.upgrades import FORMAT

PLACES = 6  # behind the point: far below what any gauge tells


class MeasuredSize(Struct, frozen=True):
    piece: str
    surface: str
    size: float
    unit: str
    uncertainty: float
    readings: int


class JobBand(Struct, frozen=True):
    fit: int
    name: str
    lower: float | None
    upper: float | None


class RouteStep(Struct, frozen=True):
    key: str
    holding: str
    title: str
    tool: str
    done: bool


class ProvedSize(Struct, frozen=True):
    name: str
    lower: float | None
    upper: float | None
    size: float | None
    verdict: Verdict


class JobLine(Struct, frozen=True):
    at: str
    says: str


class JobFile(Struct, frozen=True):
    """A job, the documents that belong to it, and what follows from them."""

    format: int
    job: Job
    pieces: list[Piece]
    lathe: Lathe | None
    mill: Machine | None
    instruments: list[Instrument]
    measured: list[MeasuredSize]
    bands: list[JobBand]
    sizes: dict[str, Any]
    steps: list[RouteStep]
    proof: list[ProvedSize]
    verdict: Verdict
    daybook: list[JobLine]


def write_job(plan: Plan, daybook: Iterable[DaybookLine], path: Path) -> None:
    """Write a job with all that belongs to it and follows from it.

    daybook: its lines, the oldest first. Raises ListFileError where it cannot be
    written.
    """
    text = msgspec.json.format(msgspec.json.encode(_job_file(plan, daybook)), indent=1)
    write_text(path, text.decode() + "\n")


def _job_file(plan: Plan, daybook: Iterable[DaybookLine]) -> JobFile:
    values = plan.made.values if plan.made is not None else {}
    return JobFile(
        FORMAT,
        plan.job,
        list(plan.pieces.values()),
        plan.lathe,
        plan.mill,
        list(plan.shop.instruments),
        [
            MeasuredSize(
                piece,
                surface,
                round(measured.size, PLACES),
                measured.kind.unit,
                round(measured.uncertainty, PLACES),
                measured.count,
            )
            for (piece, surface), measured in plan.measured.items()
            if measured is not None
        ],
        [
            JobBand(
                fit.choice.number,
                fit.choice.name,
                _number(fit.lower),
                _number(fit.upper),
            )
            for fit in plan.fits
        ],
        {
            key: round(value, PLACES) if isinstance(value, float) else value
            for key, value in values.items()
        },
        [
            RouteStep(
                step.key, up.title, step.title, step.tool, step.key in plan.job.done
            )
            for up in plan.route
            for step in up.steps
        ],
        [
            ProvedSize(
                line.name,
                _number(line.lower),
                _number(line.upper),
                _number(line.size),
                line.verdict,
            )
            for line in plan.proof
        ],
        plan.verdict,
        [JobLine(line.at, line.says) for line in daybook],
    )


def _number(value: float | None) -> float | None:
    return None if value is None else round(float(value), PLACES)
