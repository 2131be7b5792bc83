"""Socket key: a square or hexagon cut from round, for a chuck's or a screw's socket,
with a cross handle.

z = 0 is the top of the head; the point is at the right.
"""

import math
from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.families._tapped import tap_drill, thread_within
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    FitSlot,
    Holding,
    Mate,
    MateSize,
    Ring,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware, plain_parts, set_screws
from machinon.core.piece.hole_features import CrossHoles, Hole
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Centre,
    Cylinder,
    End,
    NutThread,
)
from machinon.core.quantity import COUNT, TORQUE
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
SIDES = (4, 6)
HAND = 250.0  # N: a hand's push at the end of a handle; a shop rule
CLEARS = 0.1  # mm that its round is under what the socket's corners leave
LEFT = 0.75  # of a handle: what its screw may be as thick as, for the dimple
THINNEST, THINNEST_INCH = 3.0, 3.51  # mm: the thinnest screw for it, M3 or #6


def _corners(s: Values) -> float:
    """Diameter over the corners of the point, as sharp as they would be."""
    if s["socket.sides"] not in SIDES:
        raise BadInput("socket.sides", "A key's socket has 4 or 6 sides.")
    return float(s["point.across"] / math.cos(math.pi / s["socket.sides"]))


def _rounded(s: Values) -> float:
    """The round that the point is turned to before its flats: its corners are as round
    as the socket's."""
    sharp = _corners(s)
    half = s["socket.corner"] * (1 / math.cos(math.pi / s["socket.sides"]) - 1)
    return sharp - 2 * float(half)


def _rounds(s: Values) -> tuple[float, float]:
    """The rounds whose corners clear the socket's."""
    most = _rounded(s)
    return most - 2 * CLEARS, most


def _over_handle(s: Values) -> float:
    """Metal from the top to the handle's hole, mm."""
    return float((s["head.length"] - s["handle.hole"]) / 2)


def _screw(s: Values) -> str:
    """Thinner than the handle, so that its dimple leaves it strong; none where it is
    too thin for any and is pressed in."""
    if LEFT * s["handle.hole"] < (THINNEST_INCH if s["inch"] else THINNEST):
        return "none"
    return thread_within(0.7 * s["handle.hole"], "M6", "M5", "M4", "M3")


def build(s: Values) -> Body:
    head, shank, point = s["head.length"], s["shank.length"], s["point.length"]
    long = head + shank + point
    screw: list[Feature] = []
    if s["screw.thread"] != "none":
        thread, over = str(s["screw.thread"]), _over_handle(s)
        drill = tap_drill(thread)
        # into the handle's hole, for the tap to run out
        screw = [
            Bore("screw_hole", 0.0, over + drill, drill, opens="left"),
            NutThread("screw", 0.0, over, thread, drill),
        ]
    features: list[Feature] = [
        End("top", 0.0, "left"),
        Cylinder("head", 0.0, head, s["head.diameter"]),
        Cylinder("shank", head, head + shank, s["shank.diameter"], shoulder="left"),
        Cylinder("point_round", head + shank, long, s["point.round"], shoulder="left"),
        End("tip", long, "right"),
        Flats("point", head + shank, long, s["point.across"], int(s["socket.sides"])),
        Centre("tip_centre", long, "right", round(0.25 * s["point.across"], 1)),
        Bevel("tip_edge", long, s["point.round"], round(0.06 * s["point.round"], 1),
              "right"),
        Bevel("top_edge", 0.0, s["head.diameter"], 0.5, "left"),
        CrossHoles("handle", head / 2, s["head.diameter"], Hole(s["handle.hole"]),
                   s["head.diameter"]),
        *screw,
    ]  # fmt: skip
    return Body(
        Round(s["stock.diameter"], long + OVER - s["stock.length"], long + OVER),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "point-reaches",
        "point",
        s["socket.depth"] - s["point.length"],
        0.3,
        "Socket deeper than the point is long: the shoulder seats, not the tip",
        grave=False,
    )
    yield at_least(
        "point-held",
        "point",
        s["point.length"],
        0.8 * s["point.across"],
        "Point in the socket (0.8 of its size), so that it does not round off",
    )
    yield Check(
        "corners",
        "point",
        s["point.round"] <= _corners(s) + 1e-9,
        f"Its round of ⌀{s['point.round']:g} leaves corners; sharp ones would stand at "
        f"⌀{_corners(s):.2f}.",
        have=_corners(s),
        need=s["point.round"],
    )
    yield at_least(
        "shank-passes",
        "shank",
        s["shank.diameter"],
        0.95 * s["point.round"],
        "Shank as strong as the point",
        grave=False,
    )
    yield at_least(
        "head-wall",
        "handle",
        (s["head.diameter"] - s["handle.hole"]) / 2,
        0.2 * s["head.diameter"],
        "Wall of the head beside the handle (a fifth of it)",
    )
    yield at_least(
        "handle-in-head",
        "handle",
        _over_handle(s),
        2.0,
        "Metal over and under the handle's hole",
    )
    if s["screw.thread"] != "none":
        major = thread_of(str(s["screw.thread"])).major
        yield at_least(
            "screw-held",
            "screw",
            _over_handle(s),
            0.8 * major,
            "Thread that holds the screw over the handle (0.8 of it)",
        )
        yield at_least(
            "screw-thin",
            "screw",
            LEFT * s["handle.hole"],
            major,
            "Three quarters of the handle for its screw, whose dimple weakens it",
        )
    arm = s["handle.length"] / 2 / 1000
    most = 2 * HAND * arm
    yield Check(
        "torque",
        "handle",
        most >= s["socket.torque"] and most <= 2.5 * s["socket.torque"],
        f"Two hands of {HAND:g} N on a handle of {s['handle.length']:g} mm give "
        f"{most:.0f} Nm; {s['socket.torque']:g} are wanted, and no more than "
        f"{2.5 * s['socket.torque']:.0f}, or the socket suffers.",
        grave=False,
    )
    # shear of a square or hexagon: torque over 0.2 of its size cubed
    stress = s["socket.torque"] * 1000 / (0.2 * s["point.across"] ** 3)
    yield Check(
        "shear",
        "point",
        stress <= 300.0,
        f"The point carries {stress:.0f} N/mm² at that torque; up to 300 is wanted of "
        "a tempered tool steel, 120 of a mild one.",
        have=stress,
        need=300.0,
        grave=False,
    )
    yield at_least(
        "swing",
        "handle",
        s["machine.clear"] - s["handle.length"] / 2,
        3.0,
        "Room for the handle to swing past headstock and slide",
        grave=False,
    )


def route(s: Values) -> tuple[Holding, ...]:
    sides = int(s["socket.sides"])
    kind = {4: "square", 6: "hexagon"}.get(sides, f"{sides} sides")
    turn = 360 / sides
    held = s["screw.thread"] != "none"
    screwed = (
        Step("drill", ("screw_hole",), of="the handle's screw",
             note="Into the handle's hole: ease the feed where it breaks through."),
        Step("tap", ("screw",), of="the handle's screw"),
    ) if held else ()  # fmt: skip
    deep = thread_of(str(s["screw.thread"])).major / 4 if held else 0.0
    handle = (
        Holding(
            "handle-in",
            "bench",
            "Off the machine, the handle in its hole",
            "A screw along the axis keeps the handle where it is, and lets it out.",
            (
                Step("mark", (), key="dimple", tool="the screw, drill",
                     title="Mark the handle by the screw's point, drill its dimple "
                     f"{deep:.1f} deep",
                     note="Not through the thread: a drill of its own size harms it. A "
                     "cone point in the dimple, its head under the face.",
                     figures=(Shown("Deep", deep, step=0.1),)),
            ),
        ),
    ) if held else ()  # fmt: skip
    return (
        Holding(
            "turning",
            "lathe",
            "In the chuck, point out, the tailstock in it",
            "Point, shank and head in one chucking; the round of the point gives its "
            "corners their radius.",
            (
                Step("face", ("tip",)),
                Step("centre", ("tip_centre",)),
                Step("turn", ("head",)),
                Step("turn", ("shank",)),
                Step("turn", ("point_round",)),
                Step("bevel", ("tip_edge",)),
                Step("part", ("top",), leaves=0.5),
            ),
            "jaws",
        ),
        Holding(
            "flats",
            "mill",
            "In a dividing head or a collet block, by its head",
            f"Opposite flats in turn: each pass comes off twice. {sides} stops, "
            f"{turn:g}° apart.",
            (
                Step("mill", ("point",), title=f"Mill the {kind} to its socket",
                     fit="point", note="Half of what is over to each side; measure "
                     "across before the last pass."),
                Step("prove", ("point",), title="Try it in the socket", fit="point",
                     tool="the socket", hold=True),
            ),
        ),
        Holding(
            "handle",
            "mill",
            "In the vise by two flats, lying level",
            "The cross hole stands level with a flat, so that the handle tells where "
            "the corners are.",
            (
                Step("drill", ("handle",)),
                Step("deburr", ()),
            ),
        ),
        Holding(
            "ends",
            "lathe",
            "In the chuck by the shank",
            "The parted end is faced last.",
            (
                Step("face", ("top",)),
                *screwed,
                Step("bevel", ("top_edge",)),
            ),
            "jaws",
        ),
        Holding(
            "heat",
            "bench",
            "At the fire",
            "Only the point is hardened: a file must just skate on it, and the shank "
            "stays tough.",
            (
                Step("harden", (), title="Harden the point, temper it, try it with a "
                     "file", key="harden"),
            ),
        ),
        *handle,
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    yield plain_parts("rod", s["handle.hole"], 1, "the handle", s["handle.length"])
    if s["screw.thread"] != "none":
        yield set_screws(
            str(s["screw.thread"]), 1, "holds the handle", _over_handle(s), "screw"
        )


FAMILY = Family(
    "socket-key",
    "Socket key",
    "A square or hexagon key for a chuck's or a screw's socket, with a cross handle.",
    "for a square socket of 8 mm, 14 deep",
    also="chuck key spanner wrench square hexagon tommy bar T-handle",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(head.diameter + 1, 1)",
             "a clean-up", 3, 120),
        Size("stock.length", "stock length",
             "up(head.length + shank.length + point.length"
             " + max(20, head.diameter + 2), 1)",
             "and what the jaws hold", 15, 500),
        Size("head.diameter", "head", "up(1.9*socket.across, 1)",
             "a wall beside the handle", 3, 100),
        Size("head.length", "length of the head", "up(2*handle.hole + 4, 1)",
             "twice the handle", 4, 100),
        Size("shank.diameter", "shank", "up(point.round, 0.5)",
             "as thick as the point", 2, 100),
        Size("shank.length", "length of the shank", "up(5*socket.across, 5)",
             "five times its size", 0.5, 300),
        Size("point.across", "point across flats", "socket.across", low=2, high=60),
        Size("point.round", "round of the point", lambda s: _rounded(s) - CLEARS,
             "clears the socket's corners", 2, 90, rests=("point.across",), step=0.01,
             at="point_round.diameter", limits=_rounds),
        Size("point.length", "length of the point",
             "min(down(socket.depth - 0.5, 0.5), up(1.5*socket.across, 0.5))",
             "under the socket's depth", 2, 80),
        Size("handle.hole", "hole for the handle", "round(0.9*socket.across, 0.5)",
             "a little under the point", 2, 40, at="handle.diameter"),
        Size("screw.thread", "screw that keeps the handle", _screw,
             "into a dimple of it; none where it is pressed in", kind=TEXT,
             rests=("handle.hole",)),
        Size("handle.length", "length of the handle",
             "min(max(up(4*socket.torque, 10), 20), 600)",
             "what two hands give", 20, 600),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("socket", "the socket", (
            MateSize("across", "its size across flats", 8.05, ("slot", "groove")),
            MateSize("depth", "its depth", 14.0, ("depth", "recess-depth")),
            MateSize("sides", "its sides: 4 or 6", 4.0, kind=COUNT),
            MateSize("corner", "radius of its corners", 0.5, optional=True),
            MateSize("torque", "what it is tightened to, Nm", 25.0, kind=TORQUE),
        ), around=(
            Ring("point_round.begins", "point_round.begins + socket.depth",
                 "point.round", "2*point.round"),
        )),
        Mate("machine", "where it is turned", (
            MateSize("clear", "room round its axis", 120.0),
        )),
    ),
    fits=(
        FitSlot("point", "Point in its socket", "point.across", "socket.across", "hole",
                "slot", "glides"),
    ),
    material="tool steel",
    ways=({"socket.sides": "6"}, {"screw.thread": "none"}),
    surfaces={"flats": "point.across"},
    cautions={
        "proof": "Never leave a key in a chuck: take the hand off only with the key in "
        "it.",
    },
)  # fmt: skip
