"""The side of a plate that a chuck sits on: a spigot for its recess, cut in place."""

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from machinon.core.piece.family import (
    Check,
    FitSlot,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.hardware import Hardware, cap_screws
from machinon.core.piece.hole_features import Hole
from machinon.core.quantity import COUNT
from machinon.core.shop.things import CHUCK_SURFACES
from machinon.core.threads.screws import cap_screw

FINISH = 0.5  # mm to a side, left on the front for the cut in place

SPIGOT_SIZES = (
    Size("spigot.diameter", "spigot diameter", "chuck.recess", low=5, high=500),
    Size("spigot.height", "spigot height", "chuck.recess_depth - 0.7",
         "clear of the recess's floor", 0.5, 50, by="clearance", step=0.1),
)  # fmt: skip
SPIGOT = FitSlot("spigot", "Plate spigot in chuck", "spigot.diameter", "chuck.recess",
                 "hole", "register", "slides")  # fmt: skip


def chuck(seats: str) -> Mate:
    """The chuck; seats: where its rear face lies along the plate, an expression."""
    return Mate("chuck", "the chuck", (
        MateSize("body", "its body", 130.0, ("body", "shaft")),
        MateSize("recess", "its recess", 95.02, ("recess",)),
        MateSize("recess_depth", "depth of its recess", 4.2, ("recess-depth",)),
        MateSize("bolts", "how many bolts hold it", 3.0, kind=COUNT, aid="holes"),
        MateSize("bolt_circle", "its bolt circle", 110.0,
                 ("bolt-span", "bolt-circle")),
        MateSize("hole", "its bolt holes", 9.0, ("bolt-hole", "hole"), True),
        MateSize("screw", "its screws", "M8", ("bolt-circle",), True, by="hole",
                 bolting="bolts.bolting"),
    ), seats=seats, shape="chuck", metal="cast iron",
        surfaces=CHUCK_SURFACES)  # fmt: skip


def tapped_for(s: Values, of: str) -> bool:
    """Whether the plate has the thread for these screws; else their heads are in it."""
    return bool(s[f"{of}.bolting"] == "into")


def screw_hole(s: Values, of: str) -> Hole:
    """A hole for one of these screws: their thread, or clear with a seat for a head."""
    screw = cap_screw(str(s[f"{of}.screw"]))
    if tapped_for(s, of):
        return Hole(screw.tapping_drill, thread=screw.size)
    return Hole(
        screw.normal, bore=screw.counterbore, bore_depth=screw.counterbore_depth
    )


def chuck_screws(s: Values, of: str, mate: str, thick: float, use: str) -> Hardware:
    """The screws of a circle: through the plate, or those that the mate brings."""
    count = s[f"{mate}.bolts"]
    if tapped_for(s, of):
        return cap_screws(str(s[f"{of}.screw"]), count, f"{use}, through it")
    through = thick - screw_hole(s, of).bore_depth
    return cap_screws(str(s[f"{of}.screw"]), count, use, through, at=of)


def screws_told(of: str, mate: str) -> Callable[[Values], Mapping[str, Any]]:
    """The inputs of those screws' joint; the hole only as far as it is measured."""

    def told(s: Values) -> dict[str, Any]:
        into = tapped_for(s, of)
        told = {
            "thread": s[f"{of}.screw"],
            "new": "tapped" if into else "clear",
            "holes": s[f"{mate}.bolts"],
        }
        if into and f"{mate}.hole" in s:
            told["measured"] = s[f"{mate}.hole"]
        return told

    return told


def spigot_checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "spigot-recess",
        "spigot",
        s["chuck.recess_depth"] - s["spigot.height"],
        0.3,
        "Gap under the spigot: the chuck must seat on the face, not in the bottom of "
        "its recess",
    )
    yield at_least(
        "spigot-length",
        "spigot",
        s["spigot.height"],
        2.0,
        "Height of the spigot, so that it guides",
    )


# on the spindle that it will run on, its outside turned before
ROUGHED = Step(
    "turn",
    ("spigot",),
    leaves=FINISH,
    title=f"Rough the front, leave {2 * FINISH:g} mm on the spigot",
    key="rough-spigot",
)
FINISHED = (
    Step(
        "turn",
        ("spigot",),
        title="Finish the spigot to its band",
        tool="keen knife tool",
        fit="spigot",
        note="Then the seat, in one clean cut from the spigot outward: it decides "
        "whether the chuck runs true.",
        key="spigot",
    ),
    Step(
        "prove",
        ("spigot",),
        title="Try the chuck before the plate comes off",
        tool="the chuck itself",
        hold=True,
        fit="spigot",
        note="Do not take it off before the fit is proved.",
        caution="Spindle locked or belt off; mind the fingers: the chuck is heavy and "
        "its edges are sharp.",
        key="prove-spigot",
    ),
)
