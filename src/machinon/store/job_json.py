"""A job as one JSON file that other programs can read; docs/job-json.md says what is
in it."""

import json
from collections.abc import Iterable
from pathlib import Path
from typing import Any

import msgspec

from machinon.core.job.plan import Plan
from machinon.store.lists import ListFileError
from machinon.store.shop_file import DaybookLine
from machinon.store.upgrades import FORMAT
from machinon.store.whole import written_whole

PLACES = 6  # behind the point: far below what any gauge tells


def write_job(plan: Plan, daybook: Iterable[DaybookLine], path: Path) -> None:
    """Write a job with all that belongs to it and follows from it.

    daybook: its lines, the oldest first. Raises ListFileError where it cannot be
    written.
    """
    text = json.dumps(_job(plan, daybook), indent=1, ensure_ascii=False) + "\n"
    try:
        written_whole(path, lambda beside: beside.write_text(text, encoding="utf-8"))
    except OSError as error:
        raise ListFileError(
            f"{path} could not be written: {error.strerror}."
        ) from error


def _job(plan: Plan, daybook: Iterable[DaybookLine]) -> dict[str, Any]:
    return {
        "format": FORMAT,
        "job": msgspec.to_builtins(plan.job),
        "pieces": [msgspec.to_builtins(one) for one in plan.pieces.values()],
        "lathe": msgspec.to_builtins(plan.lathe),
        "mill": msgspec.to_builtins(plan.mill),
        "instruments": msgspec.to_builtins(plan.shop.instruments),
        "measured": [
            {
                "piece": piece,
                "surface": surface,
                "size": _number(one.size),
                "unit": one.kind.unit,
                "uncertainty": _number(one.uncertainty),
                "readings": one.count,
            }
            for (piece, surface), one in plan.measured.items()
            if one is not None
        ],
        "bands": [
            {
                "fit": fit.choice.number,
                "name": fit.choice.name,
                "lower": _number(fit.lower),
                "upper": _number(fit.upper),
            }
            for fit in plan.fits
        ],
        "sizes": {
            key: _number(value) if isinstance(value, float) else value
            for key, value in (plan.made.values if plan.made else {}).items()
        },
        "steps": [
            {
                "key": step.key,
                "holding": up.title,
                "title": step.title,
                "tool": step.tool,
                "done": step.key in plan.job.done,
            }
            for up in plan.route
            for step in up.steps
        ],
        "proof": [
            {
                "name": line.name,
                "lower": _number(line.lower),
                "upper": _number(line.upper),
                "size": _number(line.size),
                "verdict": line.verdict,
            }
            for line in plan.proof
        ],
        "verdict": plan.verdict,
        "daybook": [{"at": one.at, "says": one.says} for one in daybook],
    }


def _number(value: float | None) -> float | None:
    return None if value is None else round(float(value), PLACES)
