"""Pipe threads on a taper, which seal in their own flanks: NPT, and R with Rc."""

import functools
import math
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, INCH, LENGTH, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows
from machinon.core.threads.tapping import drill_named, drill_over

TAPER = 1 / 16  # on the diameter
HALF_ANGLE = math.degrees(math.atan(TAPER / 2))
_NPT, _R = 60.0, 55.0  # flanks, degrees
_DEEP = {_NPT: 0.8, _R: 0.640327}  # of the thread, in pitches
_NAME = re.compile(
    r"(?:(?P<before>NPT|RC|R)\s*)?(?P<size>(?:\d+[\s-]+)?\d+/\d+|\d+)"
    r"(?:\s*-\s*(?:27|18|14|11\.5|11½))?(?:\s*(?P<behind>NPT|RC|R))?",
    re.IGNORECASE,
)


class TaperPipeThread(Struct, frozen=True):
    """A pipe thread on a taper of 1 in 16 on the diameter, in mm."""

    name: str
    flanks: float
    """The angle between them, degrees; square to the axis, not to the cone."""
    tpi: float
    major: float
    """Of an R over its crests in the plane to which a nut goes on by hand; of an NPT
    the outside of its pipe."""
    by_hand: float
    """How far the screw goes into its hole by hand."""
    useful: float
    """Length of full thread on the screw."""
    source: str

    @property
    def pitch(self) -> float:
        return INCH / self.tpi

    @property
    def depth(self) -> float:
        return _DEEP[self.flanks] * self.pitch

    @property
    def pitch_diameter(self) -> float:
        """At the screw's end. Source: ASME B1.20.1, E0; ISO 7-1."""
        if self.flanks == _NPT:
            return self.major - (0.05 * self.major / INCH + 1.1) * self.pitch
        return self.major - self.depth - self.by_hand * TAPER


@functools.cache
def taper_pipe_threads() -> Mapping[str, TaperPipeThread]:
    """The taper pipe threads kept here by their name, as `1/4 NPT` or `R1/4`."""
    table = {}
    for row in rows("taper_pipe_threads"):
        unit = INCH if row["unit"] == "in" else 1.0
        table[row["name"]] = TaperPipeThread(
            row["name"],
            _NPT if row["name"].endswith("NPT") else _R,
            float(row["tpi"]),
            float(row["major"]) * unit,
            float(row["by_hand"]) * unit,
            float(row["useful"]) * unit,
            row["source"],
        )
    return table


def taper_pipe_thread(name: str) -> TaperPipeThread:
    """The thread of a designation. Raises BadInput on `name`.

    >>> taper_pipe_thread("NPT 1-1/4").tpi, taper_pipe_thread("rc 1/2").name
    (11.5, 'R1/2')
    """
    if match := _NAME.fullmatch(name.strip()):
        size = " ".join(re.split(r"[\s-]+", match["size"]))
        system = (match["before"] or match["behind"] or "").upper()
        called = f"{size} NPT" if system == "NPT" else f"R{size}"
        if system and (found := taper_pipe_threads().get(called)):
            return found
    sizes = [kept for kept in taper_pipe_threads() if kept.endswith("NPT")]
    raise BadInput(
        "name",
        f"{name!r} is no taper pipe thread kept here: {sizes[0]} to {sizes[-1]}, R1/16 "
        "to R2.",
    )


@reckoning(
    "taper-pipe-thread",
    group="Threads",
    title="A pipe thread on a taper: NPT, or R and its hole Rc",
    usual={"name": "1/4 NPT"},
    inputs=(Input("name", TEXT, "such as 1/4 NPT, R 1/2 or Rc 1/2"),),
    results=(
        Result("tpi", NUMBER, "threads per inch"),
        Result("flank_angle", ANGLE, "between the flanks, square to the axis"),
        Result("half_angle", ANGLE, "of the cone, to its axis: set the compound"),
        Result("major", LENGTH, "NPT: the pipe's outside; R: the crests, by hand"),
        Result("end_outside", LENGTH, "the screw's blank at its end"),
        Result("end_pitch_diameter", LENGTH, "of the screw at its end"),
        Result("useful", LENGTH, "full thread on the screw"),
        Result("by_hand", LENGTH, "goes in by hand"),
        Result("depth", LENGTH, "of the thread, square to the axis"),
        Result("mouth", LENGTH, "of the hole, bored on the taper"),
        Result("mouth_pitch_diameter", LENGTH, "of the hole's thread at its mouth"),
        Result("least_hole", LENGTH, "straight hole that a taper tap opens"),
        Result("drill", TEXT, "for it, metric"),
        Result("inch_drill", TEXT, "for it, in inches"),
    ),
    sources=("ASME B1.20.1-2013: NPT", "ISO 7-1:1994: R and Rc"),
)
def _taper_pipe_thread(trail: Trail, name: str) -> dict[str, Any]:
    thread = taper_pipe_thread(name)
    pitch, depth = thread.pitch, thread.depth
    if thread.flanks == _NPT:
        how = f"{thread.major:g} − ({0.05 * thread.major / INCH:.4f} + 1.1) × {pitch:g}"
    else:
        how = f"{thread.major:g} − {depth:.4f} − {thread.by_hand:g} / 16"
    end = trail.step("Pitch diameter at the screw's end", how, thread.pitch_diameter)
    outside = trail.step(
        "Over the crests there", f"{end:.4f} + {depth:.4f}", end + depth
    )
    mouth = trail.step(
        "Pitch diameter at the hole's mouth",
        f"{end:.4f} + {thread.by_hand:g} / 16",
        end + thread.by_hand * TAPER,
    )
    bored = trail.step("Bored there", f"{mouth:.4f} − {depth:.4f}", mouth - depth)
    least = trail.step(
        "Straight hole: bored where the screw's end stands",
        f"{end:.4f} − {depth:.4f}",
        end - depth,
    )
    trail.notes.append(
        "Set the threading tool square to the axis, not to the cone. The drill is the "
        "next one up from the straight hole; a taper reamer before the tap spares it."
    )
    trail.cautions.append(
        "What carries pressure, gas or steam is the business of qualified people, "
        "under local codes."
    )
    return {
        "tpi": thread.tpi,
        "flank_angle": thread.flanks,
        "half_angle": HALF_ANGLE,
        "major": thread.major,
        "end_outside": outside,
        "end_pitch_diameter": end,
        "useful": thread.useful,
        "by_hand": thread.by_hand,
        "depth": depth,
        "mouth": bored,
        "mouth_pitch_diameter": mouth,
        "least_hole": least,
        "drill": drill_named(drill_over(least)),
        "inch_drill": drill_named(drill_over(least, inch=True)),
    }
