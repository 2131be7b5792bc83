"""What a screw is tightened to, and what it clamps with."""

import functools
from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import FORCE, PERCENT, STRESS, TORQUE
from machinon.core.reckoning import (
    TEXT,
    Input,
    Result,
    Trail,
    at_most_one_of,
    reckoning,
)
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import Thread, thread_of

# share of the torque that turns into pull, T = K F d; a rule of thumb
DRY, OILED = 0.2, 0.15
SHARE = 75.0  # percent of the proof load that a screw is usually tightened to


@functools.cache
def _grades() -> Mapping[str, tuple[tuple[float, float, str], ...]]:
    """By grade: up to what diameter, mm, its proof stress, MPa, and the source."""
    found: dict[str, tuple[tuple[float, float, str], ...]] = {}
    for r in rows("screw_grades"):
        proof = float(r["up_to_mm"]), float(r["proof_MPa"]), r["source"]
        found[r["grade"]] = (*found.get(r["grade"], ()), proof)
    return found


GRADES = ("4.6", "5.6", "8.8", "10.9", "12.9", "SAE 2", "SAE 5", "SAE 8")


def pull_of(torque: float, diameter: float, factor: float = DRY) -> float:
    """What a screw of a diameter, mm, clamps with at a torque, N·m; N."""
    return 1000 * torque / (factor * diameter)


def _proof(thread: Thread, grade: str) -> tuple[float, str]:
    for most, proof, source in _grades()[grade]:
        if thread.major <= most + 1e-6:
            return proof, source
    raise BadInput("grade", f"{grade} goes up to {_grades()[grade][-1][0]:g} mm.")


@reckoning(
    "screw-torque",
    group="Threads",
    title="Torque of a screw, and what it clamps with",
    usual={"thread": "M8"},
    given=(at_most_one_of("torque", "preload"),),
    inputs=(
        Input("thread", TEXT, "the screw, such as M8 or 1/4-20"),
        Input("torque", TORQUE, "that it is tightened to", default=None, above=0),
        Input("preload", FORCE, "that it is to clamp with", default=None, above=0),
        Input(
            "grade",
            TEXT,
            "by its head; else 8.8, of an inch screw SAE 5",
            default=None,
            choices=GRADES,
        ),
        Input("oiled", TEXT, "its thread", default="dry", choices=("dry", "oiled")),
    ),
    results=(
        Result("torque", TORQUE, "for three quarters of its proof load, unless said"),
        Result("preload", FORCE, "that it clamps with"),
        Result("stress", STRESS, "in its thread"),
        Result("share", PERCENT, "of its proof load, past which it stays long"),
        Result("grade", TEXT, "that this is for"),
    ),
    sources=(
        "torque = K × preload × diameter, K = 0.2 dry, 0.15 oiled; a rule of thumb",
        "ISO 898-1:2013 and SAE J429:2014: proof stress; area of (d2 + d3) / 2",
    ),
)
def _screw_torque(
    trail: Trail,
    thread: str,
    torque: float | None,
    preload: float | None,
    grade: str | None,
    oiled: str,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    grade = grade or ("SAE 5" if sizes.inch else "8.8")
    proof, source = _proof(sizes, grade)
    trail.source(source)
    factor = OILED if oiled == "oiled" else DRY
    area = sizes.stress_area
    if torque is not None:
        preload = trail.step(
            "Clamps with",
            f"{torque:g} × 1000 / ({factor:g} × {sizes.major:g})",
            pull_of(torque, sizes.major, factor),
            FORCE,
        )
    else:
        if preload is None:
            preload = trail.step(
                "Clamps with",
                f"{SHARE:g} % × {proof:g} × {area:.4g}",
                SHARE / 100 * proof * area,
                FORCE,
            )
        torque = trail.step(
            "Torque",
            f"{factor:g} × {preload:.5g} × {sizes.major:g} / 1000",
            factor * preload * sizes.major / 1000,
            TORQUE,
        )
    stress = trail.step("Stress", f"{preload:.5g} / {area:.4g}", preload / area, STRESS)
    share = 100 * stress / proof
    if share > 100:
        trail.cautions.append(
            f"Past its proof load: {sizes.name} of {grade} stays long, then breaks."
        )
    trail.notes.append(
        "Friction makes it half as much again, or as much less: the maker's figure "
        "comes first."
    )
    return {
        "torque": torque,
        "preload": preload,
        "stress": stress,
        "share": share,
        "grade": grade,
    }
