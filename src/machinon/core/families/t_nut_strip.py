"""T-nuts cut from one strip: tongue to the measured slot, sawn apart last.

The strip lies with its length along x; the tongue stands up in the middle of its
width, the head below it. Both rebates are cut alike by turning the strip over.
"""

from collections.abc import Iterable

from machinon.core.families._tapped import drill_check, tap_drill, thread_within
from machinon.core.fits.tee_slot import standard_slot
from machinon.core.materials import material
from machinon.core.piece.block_features import Rebate, SawCuts, SixFaces
from machinon.core.piece.body import Body
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
from machinon.core.piece.hole_features import Grid, Hole, Holes
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Block
from machinon.core.quantity import COUNT
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.threads.screw_thread import thread_of

# of the thread, the least metal beside it: M20 in a slot of 22 has 0.05; and what inch
# nuts of the standard have, which take a stud thinner than their slot's bolt
WALL, INCH_WALL = 0.045, 0.07
STUDS = (
    "M48",
    "M42",
    "M36",
    "M30",
    "M24",
    "M20",
    "M16",
    "M12",
    "M10",
    "M8",
    "M6",
    "M5",
    "M4",
)
PLAY = 0.1  # mm: a tongue may be narrower than its slot by so much
BELOW = 0.3  # mm: the least that a tongue stays below the table
INCH_STUDS = ("3/4 UNC", "5/8 UNC", "1/2 UNC", "3/8 UNC", "5/16 UNC", "1/4 UNC")
SINK = 0.5  # mm to a side that a countersink stands over the thread
SIDE = 2.0  # mm of stock over the finished strip, each way


def _drill(s: Values) -> float:
    return tap_drill(str(s["thread.thread"]))


def _under(s: Values) -> tuple[float, float]:
    """The heights of a tongue that stays below the table and fills its slot."""
    return s["slot.lip"] - 1.0, s["slot.lip"] - BELOW


def _stud(s: Values) -> str:
    """The stud that goes with the nearest standard slot, or the next one that leaves
    the tongue a wall; of inch studs the thickest that does."""
    neck = s["slot.neck"]
    if s["inch"]:
        return thread_of(thread_within(neck / (1 + 2 * INCH_WALL), *INCH_STUDS)).name
    usual = thread_of(standard_slot(neck)["stud"]).major
    return thread_within(min(usual, (neck - PLAY) / (1 + 2 * WALL)), *STUDS)


def _pitch(s: Values) -> float:
    """Distance from nut to nut along the strip."""
    return float(s["nuts.length"] + s["saw.kerf"] + 2 * s["saw.clean"])


def _strip(s: Values) -> tuple[float, float, float]:
    long = s["nuts.length"] + (int(s["nuts.count"]) - 1) * _pitch(s)
    return long, s["head.width"], s["head.height"] + s["tongue.height"]


def _tapped(s: Values) -> Hole:
    thread = thread_of(str(s["thread.thread"]))
    # the last thread left whole keeps a stud from being screwed through
    deep = _strip(s)[2] - 1.5 * thread.pitch if s["thread.stopped"] else 0.0
    return Hole(
        s["thread.drill"],
        thread=thread.name,
        sink=thread.major + 2 * SINK,
        thread_depth=deep,
    )


def build(s: Values) -> Body:
    block, pitch, count = _strip(s), _pitch(s), int(s["nuts.count"])
    side, hole = (s["head.width"] - s["tongue.width"]) / 2, _tapped(s)
    nuts = Grid(count, 1, pitch, 0.0, (s["nuts.length"] / 2, s["head.width"] / 2))
    first = s["nuts.length"] + s["saw.clean"]
    cuts = tuple(first + i * pitch for i in range(count - 1))
    over = (block[0] + SIDE, block[1] + SIDE, block[2] + SIDE)
    return Body(
        Block((-SIDE, -SIDE, -SIDE), over),
        (
            SixFaces("strip", *block),
            Rebate("rebate_front", "front", block, side, s["tongue.height"]),
            Rebate("rebate_back", "back", block, side, s["tongue.height"]),
            Holes("thread", "top", nuts, hole, block[2], block=block),
            SawCuts("saw_cuts", block, cuts, s["saw.kerf"], s["saw.clean"]),
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["thread.thread"]))
    yield at_least(
        "wall",
        "thread",
        (s["tongue.width"] - thread.major) / 2,
        WALL * thread.major,
        f"Wall of the tongue beside the thread ({WALL:g} of it)",
    )
    yield drill_check("thread", _tapped(s), "the nuts")
    yield at_least(
        "under-lip",
        "head",
        (s["head.width"] - s["slot.neck"]) / 2,
        0.15 * s["slot.neck"],
        "Head under each lip (0.15 of the neck)",
    )
    yield at_least(
        "head-height",
        "head",
        s["slot.head_depth"] - s["head.height"],
        0.2,
        "Room under the head in its slot",
    )
    yield at_least(
        "tongue-height",
        "tongue",
        s["slot.lip"] - s["tongue.height"],
        BELOW,
        "Tongue below the table, so that it clamps the work and not itself",
    )
    wanted = 0.8 * thread.major * material("steel").engagement
    yield at_least(
        "engagement",
        "thread",
        _strip(s)[2] - (1.5 * thread.pitch if s["thread.stopped"] else 0.0),
        wanted,
        f"Thread for its stud, {thread.says}",
    )
    yield at_least(
        "length",
        "nuts",
        s["nuts.length"],
        1.2 * thread.major,
        "Length of a nut (1.2 times its thread)",
        grave=False,
    )


def _finely(size: float) -> str:
    """A length to a hundredth of a millimetre, or to the tenth of a thou that it is
    of."""
    return f"{size:.3f}".removesuffix("0")


def route(s: Values) -> tuple[Holding, ...]:
    first = s["nuts.length"] / 2
    count = min(int(s["nuts.count"]), 3)
    pitch = _pitch(s)
    middles = ", ".join(_finely(first + i * pitch) for i in range(count))
    side = (s["head.width"] - s["tongue.width"]) / 2
    return (
        Holding(
            "strip",
            "mill",
            "In the vise, on parallels",
            "All nuts are cut as one strip: it is held well and every nut is alike.",
            (
                Step("square", ("strip",), note="Tram the vise first."),
                Step(
                    "mill",
                    ("rebate_front",),
                    title=f"Mill the first rebate, {side:.2f} wide, "
                    f"{s['tongue.height']:.2f} deep",
                    note="Wind to a stop or note the dial.",
                ),
                Step(
                    "mill",
                    ("rebate_back",),
                    title="Turn the strip round, mill the second at the same dial",
                    note="Turned over, both sides come out alike: the tongue is in the "
                    "middle whatever the vise does.",
                    fit="tongue",
                ),
                Step(
                    "prove",
                    ("rebate_front", "rebate_back"),
                    title="Try the strip in every slot before it leaves the vise",
                    tool="the table itself",
                    hold=True,
                    fit="tongue",
                ),
            ),
        ),
        Holding(
            "holes",
            "mill",
            "In the same vise, tongue up",
            "Holes are drilled while the strip is whole: no nut has to be held alone.",
            (
                Step(
                    "mark",
                    ("thread",),
                    title="Lay out each nut and its middle",
                    note=f"Middles from the end: {middles} mm; then every "
                    f"{_finely(pitch)} mm.",
                    figures=(
                        Shown("The first from the end", first),
                        Shown("From one to the next", pitch),
                    ),
                ),
                Step("drill", ("thread",)),
                Step(
                    "tap",
                    ("thread",),
                    note="Start under power at the lowest speed, finish by hand."
                    + (
                        " Stop short: the last thread stays whole."
                        if s["thread.stopped"]
                        else ""
                    ),
                ),
                Step("countersink", ("thread",), note="Both sides."),
            ),
        ),
        Holding(
            "saw",
            "mill",
            "In the vise, sawn last",
            "Sawing comes last: until then the strip is one piece to hold.",
            (
                Step("saw", ("saw_cuts",)),
                Step(
                    "mill",
                    (),
                    title="Clean the sawn ends, two nuts at a time",
                    note="One at each end of the jaws: the vise does not rack.",
                    figures=(Shown("Length of a nut", s["nuts.length"]),),
                ),
                Step("deburr", ()),
            ),
        ),
    )


FAMILY = Family(
    "t-nut-strip",
    "T-nuts in a strip",
    "Nuts for a table's T-slots, cut as one strip from the measured slot.",
    "as six nuts M12 for a slot of 14 mm",
    also="tee nut slot clamp table",
    many="nuts.count",
    sizes=(
        Size("nuts.count", "how many", "6", "a table's worth", 1, 40, COUNT),
        Size("nuts.length", "length of a nut", "round(slot.head*0.9, 1)",
             "nine tenths of the head", 5, 200, at="saw_cuts.piece"),
        Size("tongue.width", "tongue", "slot.neck", low=2, high=60,
             at="rebate_front.tongue"),
        Size("tongue.height", "height of the tongue", "slot.lip - 0.5",
             "a little below the table", 1, 60, by="clearance", step=0.1,
             at="rebate_front.depth", limits=_under),
        Size("head.width", "width of the head", "slot.head - 1", "with a little play",
             4, 120, by="clearance", step=0.1, at="strip.width"),
        Size("head.height", "height of the head", "slot.head_depth - 0.5",
             "with a little play", 2, 60, by="clearance", step=0.1,
             at="rebate_front.rest"),
        Size("thread.thread", "thread", _stud, "the stud of the nearest standard slot",
             kind=TEXT),
        Size("thread.drill", "tapping drill", _drill, "for its usual share of thread",
             1, 60, rests=("thread.thread",)),
        Size("thread.stopped", "last thread left whole", "yes",
             "so that no stud is screwed through", kind=FLAG),
        Size("saw.kerf", "width of the saw cut", "1.6", "a slitting saw", 0.3, 6,
             at="saw_cuts.kerf"),
        Size("saw.clean", "left at each sawn end", "0.3", "to clean up", 0, 3),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("slot", "the T-slot", (
            MateSize("neck", "its neck at the tightest place", 14.03, ("tee-neck",)),
            MateSize("head", "width of its head", 24.1, ("tee-head",)),
            MateSize("head_depth", "height of its head", 10.1, ("tee-head-depth",)),
            MateSize("lip", "height of its lips", 12.1, ("tee-lip",)),
        ), seats="head.height + slot.lip"),
    ),
    fits=(
        FitSlot("tongue", "Tongue in the slot", "tongue.width", "slot.neck",
                "hole", "slot", "free", 0.01),
    ),
    surfaces={"tongue": "tongue.width", "thickness": "head.height"},
)  # fmt: skip
