"""Screw or shaft with a hexagon: turned between centres, its thread cut on the lathe to
a nut in hand, a groove for its retainer, the hexagon last; or turned from a bar that
has the hexagon already.

z = 0 is the top of the head; the thread's end is at the right.
"""

import math
from collections.abc import Iterable

from machinon.core.families._between_centres import (
    COPPER,
    CORNERS,
    dog_on,
    each_end,
    end_for_end,
)
from machinon.core.families._tapped import lead_in
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
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.round_sizes import step_in, upwards
from machinon.core.piece.stock import DRAWN, Bar, Round
from machinon.core.piece.turned_features import (
    Bevel,
    Centre,
    Cylinder,
    End,
    Groove,
    Screw,
)
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
FINISH = 0.25  # mm to a side, left for the finishing cuts between centres
SHARE = 0.4  # of the thread's root: the deepest groove that leaves it its strength


def _long(s: Values) -> float:
    return float(s["head.length"] + s["shank.length"] + s["thread.length"])


def _root(s: Values) -> float:
    return thread_of(str(s["thread.thread"])).minor_external


def _tip(s: Values) -> float:
    """Mouth of the centre in the thread's end."""
    return round(0.4 * _root(s), 1)


def _across(s: Values) -> float:
    """The usual spanner for the thread, one and a half times it; past the hole."""
    thread = thread_of(str(s["nut.thread"])).major
    return float(max(1.5 * thread, 1.3 * s["hole.diameter"]))


def _threaded(s: Values) -> float:
    """Length of the thread: through the nut, with room to run out."""
    return float(s["nut.length"] + 4 * thread_of(str(s["thread.thread"])).pitch)


def _corners(s: Values) -> float:
    """Diameter over the corners of the head."""
    return float(s["head.across"] / math.cos(math.pi / int(s["head.sides"])))


def _sided(s: Values) -> bool:
    """Whether the bar has the head's flats."""
    return bool(s["stock.shape"] == "as the head")


def _bar(s: Values) -> float:
    if _sided(s):
        return float(s["head.across"])
    return upwards(_corners(s) + 2, step_in(1.0, s["inch"]))


def build(s: Values) -> Body:
    head, shank = s["head.length"], s["shank.length"]
    long, thread = _long(s), str(s["thread.thread"])
    wide = _corners(s)
    features: list[Feature] = [
        End("top", 0.0, "left"),
        Cylinder("shank", head, head + shank, s["shank.diameter"], shoulder="left"),
        Screw("thread", head + shank, long, thread, runs_out="left"),
        End("tip", long, "right"),
        lead_in("tip_edge", long, thread, "right"),
        Bevel("top_edge", 0.0, wide, round(0.12 * head + 0.3, 1), "left", angle=60.0),
        Flats("hexagon", 0.0, head, s["head.across"], int(s["head.sides"])),
        Centre("tip_centre", long, "right", _tip(s)),
    ]  # fmt: skip
    if not _sided(s):
        mouth = round(0.3 * s["head.across"], 1)
        features += [
            Cylinder("head_round", 0.0, head, wide),
            Centre("top_centre", 0.0, "left", mouth),
        ]
    if s["groove.width"]:
        at = s["groove.from_head"] + head
        features.append(
            Groove(
                "groove", at, at + s["groove.width"], s["groove.diameter"], end_at=head
            )
        )
    wide, far = s["stock.diameter"], s["stock.length"] - OVER
    stock = (
        Bar(int(s["head.sides"]), wide, -OVER, far)
        if _sided(s)
        else Round(wide, -OVER, far)
    )
    return Body(stock, tuple(features))


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["thread.thread"]))
    if _sided(s):
        over = s["stock.diameter"] - s["head.across"]
        yield Check(
            "bar-across",
            "stock",
            abs(over) <= DRAWN,
            f"The bar's flats are the head's: {s['stock.diameter']:g} mm across for "
            f"{s['head.across']:g} mm, up to {DRAWN:g} mm apart is wanted.",
            have=over,
            need=DRAWN,
        )
    yield at_least(
        "thread-long",
        "thread",
        s["thread.length"] - s["nut.length"],
        2 * thread.pitch,
        "Thread past its nut, with the run-out (two pitches)",
    )
    yield at_least(
        "shoulder",
        "shank",
        (s["head.across"] - s["shank.diameter"]) / 2,
        0.1 * s["shank.diameter"],
        "Bearing of the head on its seat",
    )
    yield at_least(
        "head-high",
        "hexagon",
        s["head.length"],
        0.6 * thread.major,
        "Height of the head (0.6 of the thread)",
    )
    yield at_least(
        "centre-in-tip",
        "tip_centre",
        thread.minor_external - _tip(s),
        1.0,
        "Root of the thread over the centre in its end",
    )
    if s["groove.width"]:
        yield at_least(
            "groove-core",
            "groove",
            s["groove.diameter"],
            (1 - SHARE) * s["shank.diameter"],
            "Core left in the groove (0.6 of the shank)",
        )
        yield at_least(
            "groove-on-shank",
            "groove",
            s["shank.length"] - s["groove.from_head"] - s["groove.width"],
            s["groove.width"] / 2,
            "Shank left past the groove",
        )
    slim = _long(s) / s["shank.diameter"]
    yield Check(
        "slender",
        "shank",
        slim <= 12.0,
        f"It is {slim:.1f} diameters long; over 12 it wants a steady or it turns "
        "barrel-shaped.",
        grave=False,
        have=slim,
        need=12.0,
    )


def _shank(s: Values) -> tuple[Step, ...]:
    """What is turned and threaded from the tip."""
    thread = thread_of(str(s["thread.thread"]))
    groove = (Step("groove", ("groove",)),) if s["groove.width"] else ()
    return (
        Step("turn", ("shank",), leaves=FINISH, note=CORNERS if _sided(s) else ""),
        Step("turn", ("shank",), title="Finish the shank to its band", fit="shank",
             note="Read both ends: they tell where the tailstock stands."),
        *groove,
        Step("bevel", ("tip_edge",)),
        Step("thread", ("thread",),
             note=f"Pitch {thread.pitch:g}. On a lead screw of the other system keep "
             "the half nuts shut to the end and run back under power. Try the nut, or "
             "wires; stop when it goes on by hand."),
        Step("prove", ("thread",), title="Try the nut before it comes off",
             tool="its nut", hold=True,
             note="Where it binds: clean both, look for a burr on the first turn, then "
             "one more pass at the same depth."),
    )  # fmt: skip


def route(s: Values) -> tuple[Holding, ...]:
    sides = int(s["head.sides"])
    shank = _shank(s)
    if _sided(s):
        return (
            Holding(
                "by-its-flats",
                "lathe",
                "In the chuck by its flats, the tailstock in its tip",
                "Shank and thread in one holding. The flats are as true as the bar "
                "was drawn: a collet or three-jaw holds six of them, a four-jaw four.",
                (
                    Step("face", ("tip",)),
                    Step("centre", ("tip_centre",)),
                    *shank,
                ),
                "jaws",
            ),
            Holding(
                "head",
                "lathe",
                "Turned round, by its shank in a collet or soft jaws",
                "The head to its height, and its corners chamfered.",
                (
                    Step("face", ("top",)),
                    Step("bevel", ("top_edge",)),
                    Step("deburr", ()),
                ),
            ),
        )
    return (
        each_end(
            "Both ends get their centre first: everything after is turned between "
            "them, so it can be put back as often as the thread asks.",
            (
                Step("face", ("top",)),
                Step("centre", ("top_centre",)),
                Step("face", ("tip",), title="Turn it round, face to length"),
                Step("centre", ("tip_centre",)),
            ),
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, with a dog",
            "Turn a trial cut at both ends and bring the tailstock over by half of "
            "what they differ, before anything is near its size.",
            (
                dog_on("the bar's tip", "left"),
                Step("turn", ("head_round",), title="Turn the head to "
                     f"⌀{_corners(s):.1f}, over its corners"),
                Step("bevel", ("top_edge",)),
                end_for_end("the head" + COPPER, "right"),
                *shank,
            ),
            "centres",
        ),
        Holding(
            "hexagon",
            "mill",
            "In a dividing head or a collet block, by the shank",
            f"{sides} flats, {360 / sides:g}° apart; opposite ones bring it to size.",
            (
                Step("mill", ("hexagon",), title=f"Mill {sides} flats to "
                     f"{s['head.across']:g} across", note="One pass over all, then "
                     "measure across two and take half of what is over."),
                Step("deburr", ()),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "hexagon-screw",
    "Screw with a hexagon",
    "A screw or threaded shaft with a hexagon or square head, to a nut in hand.",
    "to an M16 nut, 40 long under its head, 24 across flats",
    also="bolt shaft leadscrew lead draw bar shoulder head hex nut special fastener "
    "adjusting",
    sizes=(
        Size("stock.shape", "the bar is", "round", "", kind=TEXT,
             choices=("round", "as the head")),
        Size("stock.diameter", "stock diameter", _bar, "over the corners, or its flats "
             "as the head's", 5, 200,
             rests=("head.across", "head.sides", "stock.shape")),
        Size("stock.length", "stock length",
             "up(head.length + shank.length + thread.length + 4, 1)", "both faces", 12,
             1500),
        Size("head.across", "head across flats", _across,
             "one and a half threads, past its hole", 4, 150, up=1,
             at="hexagon.across"),
        Size("head.sides", "its flats", "6", "", kind=TEXT, at="hexagon.count",
             choices=("4", "6", "8")),
        Size("head.length", "height of the head", "up(0.4*head.across, 1)", "", 2, 100,
             at="hexagon.length"),
        Size("shank.diameter", "plain shank", "hole.diameter", low=3, high=140),
        Size("shank.length", "length of the plain shank", "up(hole.depth, 1)",
             "what it goes through", 1, 500),
        Size("groove.width", "groove for the retainer", "0", "0 for none", 0, 20),
        Size("groove.from_head", "groove from the head", "shank.length/2", "", 0, 500,
             step=0.5, at="groove.from_end"),
        Size("groove.diameter", "floor of the groove", "0.8*shank.diameter", "", 2,
             140, step=0.1),
        Size("thread.thread", "thread", "nut.thread", "as its nut", kind=TEXT,
             by="copy"),
        Size("thread.length", "length of the thread", _threaded,
             "its nut, and the run-out", 3, 500, rests=("thread.thread",), step=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("nut", "its nut", (
            MateSize("thread", "its thread", "M16"),
            MateSize("length", "length screwed in", 20.0,
                     ("depth", "length", "thickness")),
        ), around=(
            Ring("shank.begins + hole.depth", "shank.begins + hole.depth + nut.length",
                 "nut.thread"),
        )),
        Mate("hole", "what it passes through", (
            MateSize("diameter", "the hole", 17.0, ("bore", "hole")),
            MateSize("depth", "its thickness there", 20.0,
                     ("thickness", "depth", "length")),
        ), around=(
            Ring("shank.begins", "shank.begins + hole.depth", "hole.diameter",
                 "1.2*head.across"),
        )),
    ),
    fits=(
        FitSlot("shank", "Shank in its hole", "shank.diameter", "hole.diameter", "hole",
                "shaft", "runs"),
    ),
    runs=False,
    full={"groove.width": "3", "shank.length": "24"},
    ways=({"stock.shape": "as the head"},),
    surfaces={"shaft": "shank.diameter"},
)  # fmt: skip
