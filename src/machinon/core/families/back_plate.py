"""Back plate: carries a chuck on a threaded spindle nose.

z = 0 is the hub's end face, which seats on the spindle's shoulder; z grows towards
the chuck.
"""

from collections.abc import Iterable

from machinon.core.materials import material
from machinon.core.piece.body import Body, Round
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.features import (
    Bore,
    Circle,
    Cylinder,
    End,
    Hole,
    Holes,
    NutThread,
)
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

PILOT = 25.0  # mm: the largest drill before boring
FINISH = 0.5  # mm to a side, left for the spigot in place


def _thread_bore(s: Values) -> float:
    """The bore before threading: the middle of its band, else the basic minor."""
    found = reckon("thread", {"thread": s["thread.thread"]}).results
    least, most = found.get("internal_minor_min"), found.get("internal_minor_max")
    if least is None or most is None:
        return thread_of(str(s["thread.thread"])).minor_internal
    return float(least + most) / 2


def _hole(s: Values) -> Hole:
    screw = cap_screw(str(s["bolts.screw"]))
    if s["bolts.bolting"] == "into":
        return Hole(screw.tapping_drill, thread=screw.size)
    return Hole(
        screw.normal, bore=screw.counterbore, bore_depth=screw.counterbore_depth
    )


def _seat(s: Values) -> float:
    return float(s["hub.length"] + s["flange.thickness"])


def build(s: Values) -> Body:
    seat = _seat(s)
    length = seat + s["spigot.height"]
    into = s["bolts.bolting"] == "into"
    return Body(
        Round(s["stock.diameter"], -1.0, s["stock.length"] - 1.0),
        (
            End("hub_face", 0.0, "left"),
            Cylinder("hub", 0.0, s["hub.length"], s["hub.diameter"], shoulder="right"),
            Cylinder(
                "flange", s["hub.length"], seat, s["flange.diameter"], "thickness"
            ),
            Cylinder("spigot", seat, length, s["spigot.diameter"], "height", "left"),
            End("front", length, "right"),
            Bore("core", s["register.depth"], length, s["core.diameter"], "length"),
            NutThread(
                "thread",
                s["register.depth"],
                length,
                s["thread.thread"],
                s["core.diameter"],
            ),
            Bore(
                "register",
                0.0,
                s["register.depth"],
                s["register.diameter"],
                opens="left",
            ),
            Holes(
                "bolts",
                "right" if into else "left",
                Circle(int(s["bolts.count"]), s["bolts.circle"]),
                _hole(s),
                s["flange.thickness"],
                level=seat if into else s["hub.length"],
            ),
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["thread.thread"]))
    hole, screw = _hole(s), cap_screw(str(s["bolts.screw"]))
    length = _seat(s) + s["spigot.height"]
    half = s["bolts.circle"] / 2
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
        s["nose.register_length"] + 0.5,
        "Depth of the register bore, so that the thread clears the nose's register",
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
        min(s["nose.length"], length) - s["register.depth"],
        0.4 * thread.major,
        "Thread engaged on the nose (0.4 of its diameter)",
    )
    yield at_least(
        "nose-inside",
        "front",
        length - s["nose.length"],
        0.5,
        "Room between the end of the nose and the front of the spigot",
    )
    yield at_least(
        "spigot-recess",
        "spigot",
        s["chuck.recess_depth"] - s["spigot.height"],
        0.3,
        "Gap under the spigot: the chuck must seat on the face, not in its recess",
    )
    yield at_least(
        "spigot-wall",
        "spigot",
        (s["spigot.diameter"] - thread.major) / 2,
        3.0,
        "Wall of the spigot over the thread bored through it",
    )
    yield at_least(
        "hole-spigot",
        "bolts",
        half - hole.diameter / 2 - s["spigot.diameter"] / 2,
        0.5,
        "Metal between the bolt holes and the spigot",
    )
    yield at_least(
        "flange-thin",
        "flange",
        s["flange.thickness"],
        s["flange.diameter"] / 12,
        "Thickness of the flange (a twelfth of its diameter)",
    )
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - length,
        2.0,
        "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - s["flange.diameter"],
        2.0,
        "Stock over the flange to clean up",
    )
    if s["bolts.bolting"] == "into":
        wanted = material(str(s["material"])).engagement * screw.diameter
        yield at_least(
            "engagement",
            "bolts",
            s["flange.thickness"],
            wanted,
            f"Thread for the {screw.size} screws",
        )
        yield at_least(
            "hole-edge",
            "bolts",
            s["flange.diameter"] / 2 - half - hole.diameter / 2,
            3.0,
            "Metal between the tapped holes and the flange's edge",
        )
        return
    yield at_least(
        "heads-edge",
        "bolts",
        s["flange.diameter"] / 2 - half - hole.bore / 2,
        2.0,
        "Metal between the counterbores and the flange's edge",
    )
    yield at_least(
        "heads-hub",
        "bolts",
        half - hole.bore / 2 - s["hub.diameter"] / 2,
        0.5,
        "Room between the counterbores and the hub",
    )
    yield at_least(
        "under-head",
        "bolts",
        s["flange.thickness"] - hole.bore_depth,
        0.8 * screw.diameter,
        "Metal under the screw heads (0.8 of the screw)",
    )


def route(s: Values) -> tuple[Holding, ...]:
    last = (
        Step("tap", ("bolts",), note="In the set-up of the drill: it starts straight.")
        if s["bolts.bolting"] == "into"
        else Step("counterbore", ("bolts",), note="From the nose side.")
    )
    pilot = max((s["core.diameter"] - PILOT) / 2, 0.5)
    return (
        Holding(
            "nose-side",
            "lathe",
            "In the chuck, nose side out",
            "Register, thread and the face that seats on the shoulder are cut in one "
            "chucking, so they are true to each other.",
            (
                Step("face", ("hub_face",), caution="Hold at least 15 mm."),
                Step("turn", ("hub",)),
                Step("drill", ("core",), leaves=pilot),
                Step("bore", ("core",), note="To the middle of its band."),
                Step("bore", ("register",), fit="register", note="Before the thread."),
                Step("thread", ("thread",), note="Run out into the register bore."),
                Step(
                    "prove",
                    ("register", "thread"),
                    title="Prove register and thread before unchucking",
                    tool="bore gauge, thread plug",
                    hold=True,
                    fit="register",
                    note="It cannot be put back as true.",
                ),
            ),
        ),
        Holding(
            "in-place",
            "lathe",
            "On its own spindle nose",
            "Spigot and seat are finished in place, on the spindle they will run on.",
            (
                Step(
                    "mount",
                    (),
                    title="Clean, screw home against the shoulder",
                    caution="A threaded nose unwinds under braking: do not.",
                ),
                Step("turn", ("flange",)),
                Step("turn", ("spigot",), leaves=FINISH, title="Rough the spigot"),
                Step("face", ("front",)),
                Step("turn", ("spigot",), fit="spigot", note="One clean cut."),
                Step(
                    "prove",
                    ("spigot",),
                    title="Try the chuck before the plate comes off",
                    tool="the chuck itself",
                    hold=True,
                    fit="spigot",
                    caution="Spindle locked or belt off; the chuck is heavy.",
                ),
            ),
        ),
        Holding(
            "holes",
            "mill",
            "On the drill or mill table",
            "Holes come last: the spigot is the centre they are laid out from.",
            (
                Step("drill", ("bolts",), caution="Clamp it: it grabs."),
                last,
                Step("deburr", ("bolts",)),
            ),
        ),
    )


FAMILY = Family(
    "back-plate",
    "Back plate",
    "Carries a chuck on a threaded spindle nose, spigot cut to the chuck's recess.",
    "for a three-jaw chuck of 130 mm on a nose M45 × 4.5",
    also="chuck adapter nose flange three-jaw four-jaw",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(flange.diameter + 4, 5)",
             "the flange and a clean-up", 10, 600),
        Size("stock.length", "stock length", "up(hub.length + flange.thickness "
             "+ spigot.height + 3, 5)", "the length and both faces", 5, 400),
        Size("flange.diameter", "flange diameter", "chuck.body", "as wide as the chuck",
             20, 600, by="copy"),
        Size("flange.thickness", "flange thickness", "max(flange.diameter/12, 18)",
             "a twelfth of the flange, at least 18", 3, 100, step=0.5),
        Size("hub.diameter", "hub diameter", "round(nose.register*1.5, 1)",
             "half as large again as the register", 12, 400),
        Size("hub.length", "hub length", "max(nose.length + 1.5 - flange.thickness "
             "- spigot.height, 5)", "so that the nose stays inside", 2, 150, step=0.5),
        Size("register.diameter", "register bore", "nose.register",
             low=5, high=250),
        Size("register.depth", "depth of the register bore", "nose.register_length + 1",
             "past the nose's register", 1, 100, step=0.5),
        Size("thread.thread", "thread", "nose.thread", "as the nose has", kind=TEXT,
             by="copy"),
        Size("core.diameter", "bore before threading", _thread_bore,
             "middle of the thread's minor band", 3, 250, step=0.01,
             rests=("thread.thread",)),
        Size("spigot.diameter", "spigot diameter", "chuck.recess", low=5, high=500),
        Size("spigot.height", "spigot height", "chuck.recess_depth - 0.7",
             "clear of the recess's floor", 0.5, 50, by="clearance", step=0.1),
        Size("bolts.count", "bolts", "chuck.bolts", "as the chuck has", 2, 24, COUNT,
             by="copy"),
        Size("bolts.circle", "bolt circle", "chuck.bolt_circle", "as the chuck has", 10,
             550, by="copy", step=0.01),
        Size("bolts.screw", "screws", "M8", "as the chuck takes", kind=TEXT),
        Size("bolts.bolting", "where the screws go", "through",
             "through the plate into the chuck", kind=TEXT,
             choices=("through", "into")),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("nose", "the spindle nose", (
            MateSize("register", "its register", 45.993, ("register",)),
            MateSize("register_length", "length of its register", 12.02, ("length",)),
            MateSize("thread", "its thread", "M45x4.5", ("thread-major",)),
            MateSize("length", "its length", 36.05, ("length",)),
        )),
        Mate("chuck", "the chuck", (
            MateSize("body", "its body", 130.0, ("outside",)),
            MateSize("recess", "its recess", 95.02, ("inside",)),
            MateSize("recess_depth", "depth of its recess", 4.2, ("length",)),
            MateSize("bolts", "how many bolts it has", 3.0),
            MateSize("bolt_circle", "its bolt circle", 110.0, ("span",)),
        )),
    ),
    fits=(
        FitSlot("register", "Register on the nose", "register.diameter",
                "nose.register", "shaft", "register", "slides"),
        FitSlot("spigot", "Spigot in the chuck's recess", "spigot.diameter",
                "chuck.recess", "hole", "register", "slides"),
    ),
    proof=("register.diameter", "spigot.diameter", "bolts.circle"),
    runs=True,
    material="cast iron",
)  # fmt: skip
