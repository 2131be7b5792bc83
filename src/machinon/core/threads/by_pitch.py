"""What follows from the pitch of a thread alone, whatever its diameter."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, INCH, LENGTH, NUMBER
from machinon.core.reckoning import PITCH, TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.screw_thread import Thread
from machinon.core.threads.thread_cutting import (
    along_compound,
    refuse_dragging,
    total_depth,
    wire_range,
)

# forms whose depth and wires follow from the pitch
FORM_NAMES = ("metric", "unified", "whitworth", "ba")
THICK = 100.0  # pitches: of any thread that thick the depth a side is the same


@reckoning(
    "pitch",
    group="Threads",
    title="A pitch: threads to the inch, lead, depth and wires",
    usual={"pitch": "1.5"},
    usual_inch={"pitch": "20tpi"},
    inputs=(
        Input(
            "pitch", PITCH, "the pitch, or threads per inch as 8tpi", low=0.05, high=26
        ),
        Input("starts", COUNT, "of the thread", default=1, low=1, high=12),
        Input("form", TEXT, "of the thread", default="metric", choices=FORM_NAMES),
        Input(
            "diameter", LENGTH, "of the thread, for its angle", default=None, above=0
        ),
        Input("angle", ANGLE, "of the compound, to feed by it", default=None, low=0),
    ),
    results=(
        Result("pitch", LENGTH, "from a crest to the next"),
        Result("tpi", NUMBER, "threads per inch"),
        Result("lead", LENGTH, "a turn moves it, and the lathe is geared for it"),
        Result("depth_outside", LENGTH, "radial, of the screw"),
        Result("depth_inside", LENGTH, "radial, of the nut"),
        Result("compound", LENGTH, "along the compound to the screw's depth"),
        Result("compound_inside", LENGTH, "along the compound to the nut's"),
        Result("best_wire", LENGTH, "touches at the pitch line"),
        Result("wire_min", LENGTH, "smallest that stands over the crest"),
        Result("wire_max", LENGTH, "largest that touches the flanks"),
        Result("lead_angle", ANGLE, "on the pitch diameter"),
    ),
    sources=(
        "60°: 0.613435 P outside, 0.541266 P inside; 55°: 0.640327 P; BA: 0.6 P",
        "geometry; lead = starts × pitch, best wire = P / (2 cos(α/2))",
    ),
)
def _pitch(
    trail: Trail,
    pitch: float,
    starts: int,
    form: str,
    diameter: float | None,
    angle: float | None,
) -> dict[str, Any]:
    thread = Thread("", THICK * pitch, pitch, form)  # type: ignore[arg-type]
    best, least, most = wire_range(thread)
    half = thread.form.angle / 2
    if angle is not None:
        refuse_dragging(angle, thread.form, thread.form.words)
    results = {
        "pitch": pitch,
        "tpi": trail.step(
            "Threads per inch", f"25.4 / {pitch:g}", INCH / pitch, NUMBER
        ),
        "lead": trail.step("Lead", f"{starts} × {pitch:g}", starts * pitch),
    }
    for key, words, internal in (
        ("depth_outside", "Depth of the screw", False),
        ("depth_inside", "Depth of the nut", True),
    ):
        depth = total_depth(thread, "truncated", internal)
        results[key] = trail.step(words, f"{depth / pitch:.6f} × {pitch:g}", depth)
        if angle is not None:
            compound = "compound_inside" if internal else "compound"
            results[compound] = along_compound(trail, depth, angle)
    results["best_wire"] = trail.step(
        "Best wire", f"{pitch:g} / (2 cos {half:g}°)", best
    )
    results |= {"wire_min": least, "wire_max": most}
    if diameter is not None:
        across = diameter - 2 * thread.form.pitch_depth * pitch
        if across <= 0:
            raise BadInput(
                "diameter",
                f"Over {diameter - across:.3f} mm is allowed for a pitch of {pitch:g}.",
            )
        results["lead_angle"] = trail.step(
            "Lead angle",
            f"atan({starts * pitch:g} / (π × {across:.4f}))",
            math.degrees(math.atan2(starts * pitch, math.pi * across)),
            ANGLE,
        )
    if starts > 1:
        trail.notes.append(
            f"Gear for the lead. The next start lies {360 / starts:g}° on, or one "
            "pitch along the bed."
        )
    return results
