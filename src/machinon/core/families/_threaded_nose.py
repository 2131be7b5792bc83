"""What screws onto a threaded spindle nose: register, thread, and the face that seats.

z = 0 is the end face, which seats on the spindle's shoulder.
"""

from collections.abc import Iterable

from machinon.core.families._opening import TO_BORE
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
from machinon.core.piece.feature import Feature
from machinon.core.piece.turned_features import Bore, NutThread
from machinon.core.reckoning import TEXT
from machinon.core.shop.things import NOSE_SURFACES
from machinon.core.threads.screw_thread import thread_of

UNWINDS = "A threaded nose unwinds when braked or reversed."


def spindle_nose(role: str) -> Mate:
    """The threaded nose that it goes on."""
    return Mate(role, "the spindle nose", (
        MateSize("register", "its register", 45.993, ("register",)),
        MateSize("register_length", "length of its register", 12.02,
                 ("register-length",)),
        MateSize("thread", "its thread", "M45x4.5", ("thread-major",)),
        MateSize("length", "its length", 36.05, ("nose-length", "shoulder")),
    ), seats="0", shape="nose", surfaces=NOSE_SURFACES)  # fmt: skip


def threaded_sizes(role: str) -> tuple[Size, ...]:
    """Sizes of register and thread by the spindle's."""
    return (
        Size("register.diameter", "register bore", f"{role}.register", low=5, high=250),
        Size("register.depth", "depth of the register bore",
             f"{role}.register_length + 1", "past the nose's register", 1, 100,
             step=0.5),
        Size("thread.thread", "thread", f"{role}.thread", "as the nose has", kind=TEXT,
             by="copy"),
        Size("core.diameter", "bore before threading", "0", low=3, high=250),
    )  # fmt: skip


def threaded_fits(role: str, what: str) -> tuple[FitSlot, ...]:
    """Register and thread on the spindle's; what: it is that goes on."""
    return (
        FitSlot("register", f"Nose register in {what}", "register.diameter",
                f"{role}.register", "shaft", "register", "slides"),
        FitSlot("thread", f"Nose thread in {what}", "core.diameter", f"{role}.thread",
                "shaft", "thread", "", step=0.01),
    )  # fmt: skip


def threaded_features(s: Values, bored: float, ends: float) -> tuple[Feature, ...]:
    """The bore for the thread, the thread and the register; bored: how deep the bore
    goes; ends: where the thread does, from the shoulder, mm."""
    return (
        Bore("core", 0.0, bored, s["core.diameter"], "length"),
        NutThread("thread", s["register.depth"], ends, s["thread.thread"],
                  s["core.diameter"]),
        Bore("register", 0.0, s["register.depth"], s["register.diameter"],
             opens="left"),
    )  # fmt: skip


def threaded_checks(s: Values, role: str, ends: float) -> Iterable[Check]:
    """Checks of register and thread in their hub; role: of the spindle; ends: where the
    thread does, from the shoulder, mm."""
    thread = thread_of(str(s["thread.thread"]))
    yield at_least(
        "wall",
        "hub",
        (s["hub.diameter"] - thread.major) / 2,
        max(6.0, thread.major / 6),
        "Wall of the hub over the thread (a sixth of the thread)",
    )
    yield at_least(
        "wall-register",
        "register",
        (s["hub.diameter"] - s["register.diameter"]) / 2,
        max(5.0, s["register.diameter"] / 8),
        "Wall of the hub over the register",
    )
    yield at_least(
        "register-clears",
        "register",
        s["register.depth"],
        s[f"{role}.register_length"] + 0.5,
        "Depth of the register bore, so that the thread clears the nose's register "
        "and the shoulder seats",
    )
    yield at_least(
        "register-length",
        "register",
        min(s["register.depth"], s[f"{role}.register_length"]),
        max(5.0, s["register.diameter"] / 8),
        "Length on which the register guides (an eighth of its diameter)",
    )
    yield at_least(
        "register-passes",
        "register",
        s["register.diameter"] - thread.major,
        0.05,
        "Register bore over the nose's thread, which it has to pass",
    )
    yield at_least(
        "thread-length",
        "thread",
        min(s[f"{role}.length"], ends) - s["register.depth"],
        0.4 * thread.major,
        "Thread engaged on the nose (0.4 of its diameter)",
    )


def threaded_steps(
    s: Values, *before: Step, ends: str = "Leave room behind it for the tool"
) -> tuple[Step, ...]:
    """Bore, register and thread in one chucking, proved there; before: what is cut just
    before the thread; ends: how its tool comes clear."""
    return (
        Step("drill", ("core",), leaves=TO_BORE, key="drill"),
        Step(
            "bore",
            ("core",),
            title=f"Bore for the thread, {s['core.diameter']:.2f} mm",
            note="To the minor diameter, middle of its band.",
            fit="thread",
            key="bore",
        ),
        Step(
            "bore",
            ("register",),
            title="Bore the register to its band",
            fit="register",
            note="Before the thread, while the bore is still whole.",
            key="register",
        ),
        *before,
        Step(
            "thread",
            ("thread",),
            fit="thread",
            caution=f"{ends}; never reach in.",
            key="thread",
        ),
        Step(
            "prove",
            ("register", "thread"),
            title="Prove register and thread before unchucking",
            tool="bore gauge, thread plug",
            hold=True,
            fit="register",
            note="Do not take it off before the fit is proved: it cannot be "
            "put back as true. Use a plug turned to the nose's readings.",
            key="prove-nose",
        ),
    )


def screwed_home(what: str) -> Step:
    """It goes on its own spindle; what: it is that goes on."""
    return Step(
        "mount",
        (),
        title="Clean, screw home against the shoulder",
        caution="A threaded nose unwinds under braking or reverse: do neither.",
        note=f"A chip on the shoulder tilts the {what}: wipe both faces.",
        key="mount",
    )
