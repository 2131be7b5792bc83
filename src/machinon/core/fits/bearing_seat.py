"""Ball-bearing seats: how much of a bearing's own play its seat takes away."""

from typing import Any

from machinon.core.errors import BadInput
from machinon.core.materials import material
from machinon.core.quantity import LENGTH, NUMBER, TEMPERATURE
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.sizes.fit import rising_play
from machinon.core.tables import rows

# of a seat's interference, what reaches the raceway of a ring on a solid steel
# shaft, or in a stout housing; a shop rule
SHARE = {"inner": 0.8, "outer": 0.7}
# °C: of the shop, and what grease, cage and hardness of a usual bearing bear
ROOM, SPOILT = 20.0, 110.0
SLIPS = 0.005  # mm over its seat that a warm ring should be, to go home in one push


def usual_clearance(bore: float) -> tuple[float, float, str]:
    """Radial play of a new deep-groove bearing: least, most (mm), and source.

    bore: of the bearing, mm, above 2.5 to 120. Raises BadInput on `bore`.
    Source: ISO 5753-1:2009, Group N.

    >>> usual_clearance(25)[:2]
    (0.005, 0.02)
    """
    table = rows("bearing_clearance")
    for r in table:
        if float(r["above_mm"]) < bore <= float(r["to_mm"]):
            return float(r["least_um"]) / 1000, float(r["most_um"]) / 1000, r["source"]
    raise BadInput(
        "bore",
        f"{bore:g} mm is outside the table: above {float(table[0]['above_mm']):g} and "
        f"up to {float(table[-1]['to_mm']):g} mm is in it.",
    )


@reckoning(
    "bearing-seat",
    group="Fits and materials",
    title="What a bearing's seat leaves of its play",
    usual={"bore": 25, "play_least": -0.011, "play_most": -0.002},
    usual_inch={"bore": 25},
    inputs=(
        Input("bore", LENGTH, "of the bearing", above=2.5, high=120),
        Input(
            "ring",
            TEXT,
            "which ring the seat holds",
            default="inner",
            choices=("inner", "outer"),
        ),
        Input(
            "bearing",
            TEXT,
            "deep groove, or angular contact or taper roller in an adjusted pair",
            default="deep groove",
            choices=("deep groove", "angular", "taper roller"),
        ),
        Input(
            "arrangement",
            TEXT,
            "of an adjusted pair: O, a nut moves an inner ring; X, a cover an outer",
            default="O",
            choices=("O", "X"),
        ),
        Input("play_least", LENGTH, "of the seat, − is interference"),
        Input("play_most", LENGTH, "of the seat, − is interference"),
        Input("clearance_least", LENGTH, "the bearing's own play, least", None, low=0),
        Input("clearance_most", LENGTH, "the bearing's own play, most", None, low=0),
        Input("share", NUMBER, "of interference at the raceway", None, low=0, high=1),
    ),
    results=(
        Result("lost_least", LENGTH, "play the seat takes, least"),
        Result("lost_most", LENGTH, "play the seat takes, most"),
        Result("left_least", LENGTH, "play left in the bearing; − is preload"),
        Result("left_most", LENGTH, "play left in the bearing, most"),
        Result("warm_to", TEMPERATURE, "that an inner ring slips on at"),
        Result("adjusted", TEXT, "ring of a pair that the nut or cover moves"),
        Result("seat", TEXT, "how a ring of a pair has to sit"),
        Result("warning", TEXT, "where the seat does not suit, else empty"),
    ),
    sources=(
        "about 0.8 of the interference reaches the inner raceway, 0.7 the outer one: "
        "a shop rule for solid shafts and stout housings; so are 5 µm to slip on by "
        "and 110 °C at most: the maker's limit comes first",
    ),
)
def _bearing_seat(
    trail: Trail,
    bore: float,
    ring: str,
    bearing: str,
    arrangement: str,
    play_least: float,
    play_most: float,
    clearance_least: float | None,
    clearance_most: float | None,
    share: float | None,
) -> dict[str, Any]:
    rising_play(play_least, play_most)
    warm = _warmed(trail, bore, play_least) if ring == "inner" else {}
    if bearing != "deep groove":
        part = SHARE[ring] if share is None else share
        found = _adjusted(trail, ring, arrangement, play_least, play_most, part)
        return {**found, **warm}
    if clearance_least is None or clearance_most is None:
        clearance_least, clearance_most, source = usual_clearance(bore)
        trail.source(source)
    if not clearance_least <= clearance_most:
        raise BadInput(
            "clearance_most", f"The most is at least the least, {clearance_least:g} mm."
        )
    part = SHARE[ring] if share is None else share
    lost = []
    for name, play in (("least", play_most), ("most", play_least)):
        lost.append(
            trail.step(
                f"Taken by the seat, {name}",
                f"{part:g} × {max(-play, 0.0):.4f}",
                part * max(-play, 0.0),
            )
        )
    least = trail.step(
        "Left, least",
        f"{clearance_least:.4f} − {lost[1]:.4f}",
        clearance_least - lost[1],
    )
    most = trail.step(
        "Left, most", f"{clearance_most:.4f} − {lost[0]:.4f}", clearance_most - lost[0]
    )
    warning = ""
    if least < 0:
        warning = (
            "At the tight end the balls are squeezed: take an easier seat, or a "
            "bearing of a larger play group."
        )
        trail.cautions.append(warning)
    return {
        "lost_least": lost[0],
        "lost_most": lost[1],
        "left_least": least,
        "left_most": most,
        **warm,
        "warning": warning,
    }


def _warmed(trail: Trail, bore: float, play_least: float) -> dict[str, float]:
    """How warm an inner ring has to be to slip on; nothing where it goes on cold."""
    if play_least >= 0:
        return {}
    grows = material("alloy steel").expansion * bore
    warm = trail.step(
        "Slips on at",
        f"{ROOM:g} + ({-play_least:.4f} + {SLIPS:g}) / ({grows:.3g} a degree)",
        ROOM + (SLIPS - play_least) / grows,
        TEMPERATURE,
    )
    if warm > SPOILT:
        trail.cautions.append(
            f"Over {SPOILT:g} °C grease, cage and hardness of a bearing suffer: no "
            "warmer, and press it on by that ring."
        )
    return {"warm_to": warm}


def _adjusted(
    trail: Trail,
    ring: str,
    arrangement: str,
    play_least: float,
    play_most: float,
    part: float,
) -> dict[str, Any]:
    """A seat of a pair whose play is set by moving one ring along its seat."""
    moved, by = ("inner", "nut") if arrangement == "O" else ("outer", "cover")
    lost = [
        trail.step(
            f"Taken by the seat, {name}",
            f"{part:g} × {max(-play, 0.0):.4f}",
            part * max(-play, 0.0),
        )
        for name, play in (("least", play_most), ("most", play_least))
    ]
    warning = ""
    if ring == moved and play_least < 0:
        warning = (
            f"In an {arrangement} arrangement the {by} moves an {moved} ring: that "
            "seat must let it slide, so no interference."
        )
        trail.cautions.append(warning)
    trail.notes.append(
        "The nut sets the play: press the firm rings home first, then tighten while "
        "turning it, until it has no play, and lock it. What a firm seat takes is set "
        "again with it."
        if moved == "inner"
        else "The cover sets the play by its shim or thread: press the firm rings home "
        "first, then set it while turning, until it has no play."
    )
    trail.notes.append(
        "O: the lines of contact meet far apart, stiff against tilting; a shaft that "
        "warms lengthens and eases the preload."
        if arrangement == "O"
        else "X: the lines of contact meet close together, which bears a bent shaft "
        "better; a shaft that warms lengthens and adds preload: leave a little play."
    )
    trail.notes.append("The maker's preload and speed limit come first.")
    return {
        "lost_least": lost[0],
        "lost_most": lost[1],
        "adjusted": f"the {moved} ring, by the {by}",
        "seat": "slides along its seat" if ring == moved else "sits firm",
        "warning": warning,
    }
