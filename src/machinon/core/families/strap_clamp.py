"""Strap clamp: a strap on a stud, its heel on a jack screw, its nose on the work."""

from collections.abc import Iterable

from machinon.core.families._plates import plate
from machinon.core.piece.family import Check, Mate, MateSize, Values, at_least
from machinon.core.piece.hardware import Hardware, by_thread
from machinon.core.quantity import TORQUE
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screw_torque import pull_of

BENDS = 250.0  # N/mm²: what a strap of mild steel carries and comes back
NOSE = 8.0  # mm of the strap on the work


def _arms(s: Values) -> tuple[float, float]:
    """Distances from the stud to the work, and to the heel, with the stud at the slot's
    end next to the work; mm."""
    stud = s["pocket1.from_side"] + s["pocket1.length"] - s["pocket1.width"] / 2
    return s["block.length"] - NOSE / 2 - stud, stud - s["hole1.from_side"]


def checks(s: Values) -> Iterable[Check]:
    if not {"pocket1", "hole1"} <= set(s["parts"]):
        return
    near, far = _arms(s)
    yield at_least(
        "near-the-work",
        "pocket1",
        far,
        near,
        "From the stud to the heel: at least as far as to the work, or the heel takes "
        "most of the pull",
    )
    if near <= 0 or far <= 0:
        return
    across = thread_of(str(s["stud.thread"])).major
    pull = pull_of(s["stud.torque"], across)
    on_work = pull * far / (near + far)
    yield Check(
        "holds",
        "pocket1",
        on_work >= 0.5 * pull - 1e-6,
        f"{s['stud.torque']:g} Nm on its nut pull {pull / 1000:.1f} kN, "
        f"{on_work / 1000:.1f} kN of it on the work.",
        grave=False,
    )
    left = max(s["block.width"] - s["pocket1.width"], 0.1)
    bent = pull * near * far / (near + far)
    stress = 6 * bent / (left * s["block.height"] ** 2)
    yield Check(
        "bends",
        "block",
        stress <= BENDS,
        f"Beside the stud it carries {stress:.0f} N/mm²; up to {BENDS:.0f} of a mild "
        "steel. Thicker, wider or less torque.",
        have=stress,
        need=BENDS,
    )
    yield at_least(
        "stud-passes",
        "pocket1",
        s["pocket1.width"] - across,
        0.5,
        "Slot wider than the stud",
    )
    screw = thread_of(str(s["hole1.screw"])).major
    yield at_least(
        "heel-screw",
        "hole1",
        s["block.height"],
        screw,
        "Thread in the strap for its jack screw (its own diameter)",
        grave=False,
    )


def hardware(s: Values) -> Iterable[Hardware]:
    yield by_thread("screw", "jack screw", str(s["hole1.screw"]), "under the heel")


FAMILY = plate(
    "strap-clamp",
    "Strap clamp",
    "Holds work to a table by a stud: slotted, its heel raised by a jack screw.",
    "90 × 26 × 20 on a stud of M10, tightened to 25 Nm",
    "clamp hold-down toe finger step heel T-slot table strap",
    ("pocket1", "hole1", "edge1"),
    {
        "block.length": "up(8.5*stud.across + 5, 1)",
        "block.width": "up(2.6*stud.across, 1)",
        "block.height": "up(max(2*stud.across, 1.8*stud.across + 2), 1)",
        "pocket.width": "up(stud.across + 1, 2)",
        "pocket.radius": "pocket1.width/2",
        "pocket.from_side": "up(2.6*stud.across, 1)",
        "pocket.from_front": "(block.width - pocket1.width)/2",
        "pocket.length": "up(3.6*stud.across + 1, 1)",
        "hole.screw": "stud.thread",
        "hole.from_side": "up(1.2*stud.across, 1)",
        "hole.from_front": "block.width/2",
        "edge.leg": "1",
    },
    mates=(
        Mate("stud", "the stud it goes on", (
            MateSize("across", "its diameter", 10.0, ("shaft",)),
            MateSize("thread", "its thread", "M10"),
            MateSize("torque", "what its nut is tightened to, Nm", 25.0, kind=TORQUE),
        )),
    ),
    checks=checks,
    hardware=hardware,
    ways=({"stud.across": "12", "stud.thread": "M12", "stud.torque": "40"},),
)  # fmt: skip
