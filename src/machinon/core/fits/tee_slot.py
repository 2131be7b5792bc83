"""T-slots: the nut that goes into a measured slot."""

from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes.fit import rising_play
from machinon.core.tables import rows


def standard_slot(neck: float) -> Mapping[str, str]:
    """The row of the standard slot whose neck is nearest, mm."""
    return min(rows("tee_slots"), key=lambda r: abs(float(r["neck_mm"]) - neck))


@reckoning(
    "t-nut",
    group="Fits and materials",
    title="A T-nut for a measured slot",
    usual={
        "neck": 14.02,
        "head": 24,
        "head_height": 10,
        "lip": 14,
        "play_least": 0.05,
        "play_most": 0.093,
    },
    inputs=(
        Input("neck", LENGTH, "slot's neck at its tightest", above=0, high=100),
        Input("widest", LENGTH, "neck where it is worn; else the same", None, above=0),
        Input("head", LENGTH, "width of the slot below the lips", above=0, high=200),
        Input("head_height", LENGTH, "height below the lips", above=0, high=100),
        Input("lip", LENGTH, "from the table to under the lip", above=0, high=100),
        Input("neck_doubt", LENGTH, "uncertainty of the neck (2 sigma)", 0.0, low=0),
        Input("play_least", LENGTH, "of the tongue in the neck"),
        Input("play_most", LENGTH, "of the tongue in the neck"),
        Input("head_play", LENGTH, "kept free beside the head", 1.0, above=0),
        Input("height_play", LENGTH, "kept free over the head", 0.5, above=0),
    ),
    results=(
        Result("tongue_lower", LENGTH, "smallest tongue"),
        Result("tongue_upper", LENGTH, "largest tongue"),
        Result("shake", LENGTH, "most play of the smallest tongue where it is widest"),
        Result("head_lower", LENGTH, "narrowest head"),
        Result("head_upper", LENGTH, "widest head"),
        Result("height_lower", LENGTH, "thinnest head"),
        Result("height_upper", LENGTH, "thickest head"),
        Result("tongue_height", LENGTH, "highest tongue, kept under the table"),
        Result("overlap", LENGTH, "head under each lip, least"),
        Result("slot", TEXT, "the standard slot it is nearest to, and its stud"),
    ),
    sources=("geometry; what is kept free beside and over the head is a shop rule",),
)
def _t_nut(
    trail: Trail,
    neck: float,
    head: float,
    head_height: float,
    lip: float,
    widest: float | None,
    neck_doubt: float,
    play_least: float,
    play_most: float,
    head_play: float,
    height_play: float,
) -> dict[str, Any]:
    if not head > neck:
        raise BadInput("head", f"The head must be wider than the neck ({neck:g} mm).")
    rising_play(play_least, play_most)
    upper = trail.step(
        "Largest tongue",
        f"{neck:.4f} − {neck_doubt:.4f} − {play_least:.4f}",
        neck - neck_doubt - play_least,
    )
    lower = trail.step(
        "Smallest tongue",
        f"{upper:.4f} − ({play_most:.4f} − {play_least:.4f})",
        upper - (play_most - play_least),
    )
    wide = neck if widest is None else widest
    if wide < neck:
        raise BadInput("widest", f"From {neck:g} mm, the tightest, is allowed.")
    shake = trail.step(
        "Most play where it is widest",
        f"{wide:.4f} + {neck_doubt:.4f} − {lower:.4f}",
        wide + neck_doubt - lower,
    )
    head_upper = trail.step(
        "Widest head", f"{head:.3f} − {head_play:g}", head - head_play
    )
    thick = trail.step(
        "Thickest head",
        f"{head_height:.3f} − {height_play:g}",
        head_height - height_play,
    )
    if thick <= 2 * height_play:
        raise BadInput(
            "height_play", f"Under a third of {head_height:g} mm is allowed."
        )
    # half of what is kept free is the making's to spend
    head_lower, thin = head_upper - head_play / 2, thick - height_play / 2
    overlap = trail.step(
        "Under each lip, with the nut to one side",
        f"({head_lower:.3f} − {neck:.3f}) / 2 − {play_most:.4f}",
        (head_lower - neck) / 2 - play_most,
    )
    if not overlap > 0:
        raise BadInput(
            "head_play",
            f"Nothing is left under the lips: the head needs more than {neck:g} mm.",
        )
    if overlap < 0.15 * neck:
        trail.cautions.append(
            "Little metal stands under the lips: they may break out. Clamp lightly."
        )
    near = standard_slot(neck)
    trail.source(near["source"])
    trail.notes.append(
        "Do not tap the stud's hole through: a stud screwed through lifts the lips."
    )
    return {
        "tongue_lower": lower,
        "tongue_upper": upper,
        "shake": shake,
        "head_lower": head_lower,
        "head_upper": head_upper,
        "height_lower": thin,
        "height_upper": thick,
        "tongue_height": trail.step("Highest tongue", f"{lip:.3f} − 0.5", lip - 0.5),
        "overlap": overlap,
        "slot": f"{near['neck_mm']} mm, stud {near['stud']}",
    }
