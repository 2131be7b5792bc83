"""Force to push a broach through: a rule of thumb for choosing the press."""

from typing import Any

from machinon.core.materials import material as material_named
from machinon.core.quantity import COUNT, FACTOR, FORCE, LENGTH, NUMBER, TONNE
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

CHIP = 4.0  # times the tensile strength: what a chip of a broach resists; shop rule


@reckoning(
    "broach-force",
    group="Cutting",
    title="Force to push a broach, and the press to have",
    usual={"size": 10, "material": "mild steel", "length": 25},
    inputs=(
        Input(
            "size", LENGTH, "across the flats, or width of a keyway", above=0, high=200
        ),
        Input("material", TEXT, "what is broached"),
        Input("length", LENGTH, "of the hole", above=0, high=500),
        Input(
            "pitch", LENGTH, "from tooth to tooth; else by the length", None, above=0
        ),
        Input(
            "cut_per_tooth", LENGTH, "depth each tooth takes", 0.05, above=0, high=0.5
        ),
        Input(
            "edges",
            COUNT,
            "that cut at once: 4 of a square, 1 of a keyway",
            4,
            low=1,
            high=12,
        ),
    ),
    results=(
        Result("force", FORCE, "at the most teeth in the cut"),
        Result("teeth_in_cut", COUNT, "at once"),
        Result("press", FACTOR, "to have, in tonnes, with a third in hand"),
    ),
    sources=(
        "width of chip × depth × four times the tensile strength; pitch about "
        "1.75 √length: rules of thumb",
    ),
)
def _broach_force(
    trail: Trail,
    size: float,
    material: str,
    length: float,
    pitch: float | None,
    cut_per_tooth: float,
    edges: int,
) -> dict[str, Any]:
    if pitch is None:
        pitch = trail.step("Pitch", f"1.75 × √{length:g}", 1.75 * length**0.5)
    # the corners of a square are all that its broach cuts: half of each side
    chip = size / 2 if edges > 1 else size
    teeth = int(length / pitch) + 1
    strength = material_named(material).strength
    force = trail.step(
        "Force",
        f"{edges} × {chip:g} × {cut_per_tooth:g} × {CHIP:g} × {strength:g} × {teeth}",
        edges * chip * cut_per_tooth * CHIP * strength * teeth,
        FORCE,
    )
    trail.notes.append(
        "A rule of thumb, good to a half either way: a dull broach or a dry one takes "
        "far more. Lubricate it; stop and look where it hardens."
    )
    trail.cautions.append(
        "Broaches break and fly: guarded, in line, clear of the line of the press."
    )
    return {
        "force": force,
        "teeth_in_cut": teeth,
        "press": trail.step(
            "Press", f"1.33 × {force:.4g} / {TONNE:g}", force * 4 / 3 / TONNE, NUMBER
        ),
    }
