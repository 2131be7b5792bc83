"""The route of a back plate: set-ups, steps, and the shape after each step."""

from dataclasses import dataclass, replace
from typing import Literal

from machinon.core.piece.back_plate import Plate
from machinon.core.reckoning import Answer, reckon
from machinon.core.shop.things import Lathe
from machinon.core.threads.tapping import drills

Holes = Literal["none", "drilled", "finished"]
Band = tuple[float, float, float]  # from z, to z, radius; mm

FACE_ALLOWANCE = 1.0  # mm left on the nose side when the blank is sawn
FINISH_ALLOWANCE = 0.5  # mm on the radius, left for the spigot in place
PILOT = 25.0  # mm: the largest drill before boring
TO_BORE = 1.0  # mm on the diameter that a drill leaves for the boring bar


@dataclass(frozen=True, slots=True)
class Shape:
    """A turned piece in process: outside and bore as bands along z."""

    outer: tuple[Band, ...]
    inner: tuple[Band, ...] = ()
    threaded: bool = False
    holes: Holes = "none"


@dataclass(frozen=True, slots=True)
class Step:
    """One operation. lit: surfaces just cut; fit: the fit it must satisfy.

    drill: diameter of the drill it takes, mm; tap: the thread of its tap.
    """

    key: str
    title: str
    tool: str
    lit: tuple[str, ...]
    shape: Shape
    speed: Answer | None
    note: str = ""
    caution: str = ""
    fit: int = 0
    hold: bool = False
    drill: float = 0.0
    tap: str = ""


@dataclass(frozen=True, slots=True)
class SetUp:
    """One holding of the piece, with the reason why it comes here."""

    key: str
    title: str
    reason: str
    steps: tuple[Step, ...]


def pilot_drill(bore: float) -> float:
    """The drill before a bore: it leaves something to bore, mm.

    >>> pilot_drill(40), pilot_drill(17.5)
    (25.0, 16.5)
    """
    most = min(PILOT, bore - TO_BORE)
    below = [one.size for one in drills("metric") if one.size <= most + 1e-9]
    return below[-1] if below else bore / 2


def route_of(plate: Plate, lathe: Lathe) -> tuple[SetUp, ...]:
    """Set-ups and steps in order, for a plate with every size known.

    Speeds by the `speeds` reckoning from the lathe's own list.
    """

    def speed(operation: str, diameter: float, tool: str = "hss") -> Answer:
        return reckon(
            "speeds",
            {
                "material": plate.material,
                "tool": tool,
                "operation": operation,
                "diameter": diameter,
                "machine_speeds": list(lathe.speed_choices) or None,
            },
        )

    stock = plate.stock_diameter / 2
    end = plate.stock_length - FACE_ALLOWANCE
    hub, flange = plate.hub_diameter / 2, plate.flange_diameter / 2
    spigot = plate.spigot_diameter / 2
    minor = plate.thread_bore / 2
    register = plate.register_bore / 2
    pilot = pilot_drill(plate.thread_bore)
    blank = Shape(((-FACE_ALLOWANCE, end, stock),))
    faced = Shape(((0.0, end, stock),))
    hubbed = Shape(((0.0, plate.hub_length, hub), (plate.hub_length, end, stock)))
    drilled = replace(hubbed, inner=((0.0, end, pilot / 2),))
    bored = replace(hubbed, inner=((0.0, end, minor),))
    registered = replace(
        hubbed,
        inner=(
            (0.0, plate.register_depth, register),
            (plate.register_depth, end, minor),
        ),
    )
    threaded = replace(registered, threaded=True)
    nose_side = SetUp(
        "nose-side",
        "In the chuck, nose side out",
        "The nose side comes first: register, thread and the face that seats on the "
        "shoulder are cut in one chucking, so they are true to each other.",
        (
            Step(
                "face-hub",
                "Face the hub end",
                "facing tool",
                ("hub_face",),
                faced,
                speed("face", plate.stock_diameter),
                caution="Hold at least 15 mm; keep the speed down for a rough blank.",
            ),
            Step(
                "hub",
                "Turn the hub and the back of the flange",
                "knife tool",
                ("hub", "flange_back"),
                hubbed,
                speed("turn", plate.stock_diameter),
            ),
            Step(
                "drill",
                f"Drill through, {pilot:g} mm in stages",
                "drills",
                ("bore",),
                drilled,
                speed("drill", pilot),
                drill=pilot,
                caution="The drill grabs as it breaks through: ease the feed.",
            ),
            Step(
                "bore",
                f"Bore for the thread, {plate.thread_bore:.2f} mm",
                "boring bar",
                ("bore",),
                bored,
                speed("bore", plate.thread_bore),
                note="To the minor diameter, middle of its band.",
                fit=2,
            ),
            Step(
                "register",
                "Bore the register to its band",
                "boring bar",
                ("register_bore",),
                registered,
                speed("bore", plate.register_bore),
                note="Before the thread, while the bore is still whole.",
                fit=1,
            ),
            Step(
                "thread",
                f"Cut the thread {plate.thread.name}",
                "threading tool",
                ("thread",),
                threaded,
                speed("thread", plate.thread.major),
                caution="Run out into the register bore; never reach in.",
                fit=2,
            ),
            Step(
                "prove-nose",
                "Prove register and thread before unchucking",
                "bore gauge, thread plug",
                ("register_bore", "thread"),
                threaded,
                None,
                note="Do not take it off before the fit is proved: it cannot be put "
                "back as true. Use a plug turned to the nose's readings.",
                fit=1,
                hold=True,
            ),
        ),
    )
    front = ((0.0, plate.hub_length, hub), (plate.hub_length, end, flange))
    seat = plate.seat
    turned = replace(threaded, outer=front)
    roughed = replace(
        threaded,
        outer=(
            (0.0, plate.hub_length, hub),
            (plate.hub_length, seat + 0.2, flange),
            (seat + 0.2, plate.length + 0.2, spigot + FINISH_ALLOWANCE),
        ),
        inner=_cut_to(threaded.inner, plate.length + 0.2),
    )
    faced_front = replace(
        roughed,
        outer=(
            (0.0, plate.hub_length, hub),
            (plate.hub_length, seat, flange),
            (seat, plate.length, spigot + FINISH_ALLOWANCE),
        ),
        inner=_cut_to(threaded.inner, plate.length),
    )
    finished = replace(
        faced_front,
        outer=(
            (0.0, plate.hub_length, hub),
            (plate.hub_length, seat, flange),
            (seat, plate.length, spigot),
        ),
    )
    in_place = SetUp(
        "in-place",
        "On its own spindle nose",
        "Spigot and seat are finished in place, on the spindle they will run on: what "
        "the register lets go is cut away here and does not come back.",
        (
            Step(
                "mount",
                "Clean, screw home against the shoulder",
                "by hand",
                ("hub_face",),
                threaded,
                None,
                caution="A threaded nose unwinds under braking or reverse: do neither.",
                note="A chip on the shoulder tilts the plate: wipe both faces.",
            ),
            Step(
                "flange",
                "Turn the flange",
                "knife tool",
                ("flange",),
                turned,
                speed("turn", plate.stock_diameter),
            ),
            Step(
                "rough-spigot",
                f"Rough the front, leave {2 * FINISH_ALLOWANCE:g} mm on the spigot",
                "knife tool",
                ("spigot", "front"),
                roughed,
                speed("turn", plate.flange_diameter),
            ),
            Step(
                "seat",
                "Finish the seat and the front",
                "facing tool",
                ("seat", "front"),
                faced_front,
                speed("face", plate.flange_diameter),
                note="The seat decides whether the chuck runs true: one clean cut, "
                "from the spigot outward.",
            ),
            Step(
                "spigot",
                "Finish the spigot to its band",
                "keen knife tool",
                ("spigot",),
                finished,
                speed("turn", plate.spigot_diameter),
                note="Worked in the Cut stage.",
                fit=3,
            ),
            Step(
                "prove-spigot",
                "Try the chuck before the plate comes off",
                "the chuck itself",
                ("spigot", "seat"),
                finished,
                None,
                note="Do not take it off before the fit is proved.",
                fit=3,
                hold=True,
                caution="Spindle locked or belt off; mind the fingers: the chuck is "
                "heavy and its edges are sharp.",
            ),
        ),
    )
    holes = SetUp(
        "holes",
        "On the drill or mill table, seat up",
        "Holes come last: the spigot is the centre they are laid out from, and a "
        "drilled flange would cut in and out.",
        _hole_steps(plate, finished),
    )
    if blank.outer[0][1] <= 0:
        return ()
    return (nose_side, in_place, holes)


def _hole_steps(plate: Plate, finished: Shape) -> tuple[Step, ...]:
    screw = plate.screw
    drilled, done = (
        replace(finished, holes="drilled"),
        replace(finished, holes="finished"),
    )
    table = "read-out zero on the spigot"

    def speed(operation: str, diameter: float) -> Answer:
        return reckon(
            "speeds",
            {
                "material": plate.material,
                "tool": "hss",
                "operation": operation,
                "diameter": diameter,
            },
        )

    drill = Step(
        "holes",
        f"Spot and drill {plate.bolts} holes {plate.hole:g} mm on "
        f"{plate.bolt_circle:.2f} mm",
        f"drill {plate.hole:g}, {table}",
        ("bolts",),
        drilled,
        speed("drill", plate.hole),
        fit=4,
        drill=plate.hole,
        note="Through drill"
        if plate.bolting == "through"
        else f"This is the tapping drill for {screw.size}, not the clearance drill "
        f"({screw.normal:g}).",
        caution="Clamp it: a plate that grabs spins. Goggles on.",
    )
    if plate.bolting == "through":
        last = Step(
            "counterbore",
            f"Counterbore {screw.counterbore:g} mm, "
            f"{screw.counterbore_depth:g} deep, from the nose side",
            f"counterbore {screw.counterbore:g}",
            ("bolts",),
            done,
            speed("countersink", screw.counterbore),
            fit=4,
            caution="Clamp again after turning it over.",
        )
    else:
        last = Step(
            "tap",
            f"Tap {screw.size} in the same set-up",
            f"tap {screw.size}",
            ("bolts",),
            done,
            None,
            fit=4,
            tap=screw.size,
            note="In the same set-up as the drill: the tap starts straight.",
        )
    return (
        drill,
        last,
        Step(
            "deburr",
            "Break every edge, clean, mount the chuck",
            "by hand",
            ("bolts", "seat"),
            done,
            None,
            caution="Burrs cut: use the scraper away from the hand.",
        ),
    )


def _cut_to(bands: tuple[Band, ...], end: float) -> tuple[Band, ...]:
    return tuple((a, min(b, end), r) for a, b, r in bands if a < end)
