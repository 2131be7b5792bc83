"""Knurled knob: a head to be turned by fingers, on a threaded bore or a stud's end.

z = 0 is the boss's face; the knurled head is at the right.
"""

import math
from collections.abc import Iterable

from machinon.core.families._tapped import CHIP_ROOM, tap_drill
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
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
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Cylinder,
    End,
    Knurl,
    NutThread,
)
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.threads.screw_thread import thread_of

OVER = 1.0  # mm: stock over each end
FLOOR = 1.0  # mm: least over a hole that stops
EDGE = 1.0  # mm: the head's edges, broken where the knurl ends


def _through(s: Values) -> bool:
    """Whether the hole goes through: a thread so deep leaves no floor over it."""
    return bool(s["boss.length"] + s["head.length"] - s["thread.depth"] < FLOOR)


def teeth(s: Values) -> int:
    """Whole teeth round the head, the nearest number under its wished diameter."""
    return int(math.pi * s["head.about"] / s["knurl.pitch"])


def _diameter(s: Values) -> float:
    """The diameter on which the wheel's teeth come out even."""
    return teeth(s) * float(s["knurl.pitch"]) / math.pi


def build(s: Values) -> Body:
    boss, head = s["boss.length"], s["head.length"]
    long, wide = boss + head, s["head.diameter"]
    thread, drill = str(s["thread.thread"]), tap_drill(str(s["thread.thread"]))
    deep = min(s["thread.depth"], long)
    room = long - deep if _through(s) else CHIP_ROOM * thread_of(thread).pitch
    features: list[Feature] = [
        End("boss_face", 0.0, "left"),
        Cylinder("boss", 0.0, boss, s["boss.diameter"], shoulder="right"),
        Cylinder("head", boss, long, wide),
        End("top", long, "right"),
        Bore("hole", 0.0, deep + room, drill,
             opens="both" if _through(s) else "left", pointed=not _through(s)),
        NutThread("thread", 0.0, deep, thread, drill),
        Bevel("mouth", 0.0, drill, round(thread_of(thread).pitch, 1), "left",
              inside=True),
        Bevel("back_edge", boss, wide, EDGE, "left"),
        Bevel("top_edge", long, wide, EDGE, "right"),
        Knurl("knurl", boss + EDGE, long - EDGE, wide, s["knurl.pitch"],
              bool(s["knurl.crossed"])),
    ]  # fmt: skip
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    thread = thread_of(str(s["thread.thread"]))
    yield at_least(
        "wall",
        "boss",
        (s["boss.diameter"] - thread.major) / 2,
        0.25 * thread.major,
        "Wall of the boss over the thread (a quarter of it)",
    )
    yield at_least(
        "engaged",
        "thread",
        min(s["thread.depth"], s["stud.length"]),
        thread.major,
        "Thread on the stud (its diameter)",
    )
    if not _through(s):
        room = CHIP_ROOM * thread.pitch + thread.major / 3
        yield at_least(
            "floor",
            "hole",
            s["boss.length"] + s["head.length"] - s["thread.depth"] - room,
            FLOOR,
            "Floor left over the drilled hole",
        )
    yield at_least(
        "knurl-long",
        "knurl",
        s["head.length"] - 2 * EDGE,
        4.0,
        "Knurl for the fingers",
        grave=False,
    )
    yield at_least(
        "shoulder",
        "head",
        (s["head.diameter"] - s["boss.diameter"]) / 2,
        1.0,
        "Head over its boss",
    )


def route(s: Values) -> tuple[Holding, ...]:
    count = teeth(s)
    form = "crossed" if s["knurl.crossed"] else "straight"
    return (
        Holding(
            "knurl",
            "lathe",
            "In the chuck, boss out, a centre in its hole",
            "The knurl pushes hard: it is rolled while the bar is still thick behind "
            "it, before anything slender.",
            (
                Step("face", ("boss_face",)),
                Step("drill", ("hole",)),
                Step("bevel", ("mouth",)),
                Step("turn", ("head",), note=f"To this size {count} teeth come out "
                     "even; a little over or under and the wheels cut twice."),
                Step("knurl", ("knurl",), title=f"Knurl the head, {form}, "
                     f"{s['knurl.pitch']:g} mm pitch",
                     note="In at once by half its depth, plenty of oil, then along; "
                     "slow."),
                Step("turn", ("boss",)),
                Step("tap", ("thread",), note="In the set-up of its drill."),
                Step("bevel", ("back_edge",)),
                Step("part", ("top",), leaves=0.5),
            ),
            "jaws",
        ),
        Holding(
            "top",
            "lathe",
            "Turned round, on a stud with a lock nut or by the boss",
            "Jaws would crush the knurl: hold it by its own thread.",
            (
                Step("face", ("top",)),
                Step("bevel", ("top_edge",)),
                Step("prove", ("thread",), title="Try it on its stud",
                     tool="its stud"),
                Step("deburr", ()),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "knob",
    "Knurled knob",
    "A knob for fingers on a screw or stud; its diameter suits the knurl's teeth.",
    "for an M6 stud, about 25 across, pitch 1",
    also="thumb nut thumbscrew grip handle knurl clamping",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(head.diameter + 1, 1)",
             "a clean-up", 4, 150),
        Size("stock.length", "stock length",
             "up(boss.length + head.length + 25, 1)", "and what the jaws hold", 10,
             300),
        Size("head.about", "head, about", "up(4*stud.size, 1)", "four times the screw",
             6, 120),
        Size("head.diameter", "head", _diameter, "its teeth come out even", 5, 125,
             rests=("head.about", "knurl.pitch"), step=0.01),
        Size("head.length", "length of the head",
             "up(max(0.4*head.about, stud.length + 1.5*stud.size - boss.length), 1)",
             "a floor over the hole", 4, 100),
        Size("knurl.pitch", "pitch of the knurl", "1", "as the wheels have", 0.3, 3),
        Size("knurl.crossed", "crossed", "yes", kind=FLAG),
        Size("boss.diameter", "boss", "up(2*stud.size, 1)", "twice the screw", 3, 100),
        Size("boss.length", "length of the boss", "up(0.6*stud.size, 1)", "", 0.5,
             100),
        Size("thread.thread", "thread", "stud.thread", "as its stud", kind=TEXT,
             by="copy"),
        Size("thread.depth", "depth of the thread", "stud.length", "as its stud", 2,
             100, by="copy", step=0.1),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        Mate("stud", "its screw or stud", (
            MateSize("thread", "its thread", "M6"),
            MateSize("size", "across its thread, about", 6.0, ("thread-major",)),
            MateSize("length", "thread that stands out for it", 9.0,
                     ("length", "shoulder")),
        ), around=(
            Ring("-2*stud.size", "min(stud.length, thread.depth)",
                 outside="stud.size"),
        )),
    ),
    ways=({"thread.depth": "18", "knurl.crossed": "no"},),
    surfaces={"shaft": "boss.diameter"},
)  # fmt: skip
