"""Lengths that add up: strips, chains, screws, and holes drilled for a thread."""

import math
from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.errors import unknown as not_known
from machinon.core.quantity import ANGLE, COUNT, LENGTH, NUMBER
from machinon.core.reckoning import (
    OBJECT,
    TEXT,
    Input,
    Result,
    Trail,
    reckon,
    reckoning,
)
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import stock_lengths

LEADS = {"taper": 8, "plug": 4, "bottoming": 2}  # threads of a tap that cut short


@reckoning(
    "strip-length",
    group="Cutting",
    title="A strip that is sawn into pieces",
    usual={"pieces": 8, "length": 24, "kerf": 1.5, "clean_up": 0.5},
    inputs=(
        Input("pieces", COUNT, "how many", low=1, high=1000),
        Input("length", LENGTH, "of one, finished", above=0),
        Input("kerf", LENGTH, "what the saw takes", low=0, high=50),
        Input("clean_up", LENGTH, "on each sawn face", 0.0, low=0, high=50),
        Input("ends", LENGTH, "to come off at each end", 0.0, low=0, high=500),
    ),
    results=(
        Result("strip", LENGTH, "to begin with"),
        Result("pitch", LENGTH, "from piece to piece"),
        Result("centres", LENGTH, "of the pieces, from the strip's end"),
        Result("sawn_length", LENGTH, "of a piece between two saw cuts"),
    ),
    sources=("n lengths, n − 1 cuts with their clean-up, and both ends",),
)
def _strip(
    trail: Trail,
    pieces: int,
    length: float,
    kerf: float,
    clean_up: float,
    ends: float,
) -> dict[str, Any]:
    cut = kerf + 2 * clean_up
    strip = trail.step(
        "Strip",
        f"{pieces} × {length:g} + {pieces - 1} × ({kerf:g} + 2 × {clean_up:g}) + "
        f"2 × {ends:g}",
        pieces * length + (pieces - 1) * cut + 2 * ends,
    )
    pitch = trail.step("From piece to piece", f"{length:g} + {cut:g}", length + cut)
    return {
        "strip": strip,
        "pitch": pitch,
        "centres": [ends + length / 2 + i * pitch for i in range(pieces)],
        "sawn_length": length + 2 * clean_up,
    }


@reckoning(
    "pieces",
    group="Cutting",
    title="How many pieces come from a bar",
    usual={"bar": 1000, "length": 35, "kerf": 3, "clean_up": 0.5},
    inputs=(
        Input("bar", LENGTH, "that is there", above=0),
        Input("length", LENGTH, "of a piece, finished", above=0),
        Input("kerf", LENGTH, "what the saw or parting tool takes", low=0, high=50),
        Input("clean_up", LENGTH, "on each face of a piece", 0.0, low=0, high=50),
        Input("held", LENGTH, "that stays in the chuck at the end", 0.0, low=0),
    ),
    results=(
        Result("pieces", COUNT, "that come from it"),
        Result("left", LENGTH, "of the bar"),
        Result("each", LENGTH, "of the bar for a piece, its cut and all"),
    ),
    sources=("whole pieces with their clean-up and cuts; the last may be the rest",),
)
def _pieces(
    trail: Trail, bar: float, length: float, kerf: float, clean_up: float, held: float
) -> dict[str, Any]:
    sawn = length + 2 * clean_up
    each = trail.step(
        "A piece", f"{length:g} + 2 × {clean_up:g} + {kerf:g}", sawn + kerf
    )
    room = bar - held
    # where nothing is held the last piece is what is left, without a cut
    spare = kerf if held == 0 else 0.0
    count = math.floor((room + spare) / each + 1e-9)
    if count < 1:
        need = held + sawn + (kerf if held else 0.0)
        raise BadInput("bar", f"From {need:g} mm: one piece needs as much.")
    said = f"({bar:g} − {held:g}{f' + {kerf:g}' if spare else ''}) / {each:g}"
    trail.step("Pieces", f"{said}, rounded down", float(count), COUNT)
    cuts = count - 1 if room - count * sawn - (count - 1) * kerf < kerf else count
    left = bar - count * sawn - cuts * kerf
    trail.step("Left", f"{bar:g} − {count} × {sawn:g} − {cuts} × {kerf:g}", left)
    return {"pieces": count, "left": left, "each": each}


@reckoning(
    "drill-depth",
    group="Threads",
    title="How deep to drill for a blind thread",
    usual={"thread": "M8", "thread_depth": 16},
    inputs=(
        Input("thread_depth", LENGTH, "of full thread", above=0),
        Input("thread", TEXT, "the thread, such as M8 or 1/4-20"),
        Input("tap", TEXT, "last tap used", "plug", choices=tuple(LEADS)),
        Input("drill", LENGTH, "the tapping drill; else the usual", None, above=0),
        Input("point_angle", ANGLE, "of the drill", 118.0, low=60, high=180),
        Input("chip_room", LENGTH, "under the tap for chips", 0.0, low=0),
    ),
    results=(
        Result("lead_threads", NUMBER, "that the tap's lead leaves short"),
        Result("full_depth", LENGTH, "of the hole, to the shoulder of the point"),
        Result("tip_depth", LENGTH, "of the hole, to the point"),
        Result("turns", NUMBER, "of full thread"),
    ),
    sources=("leads of taps: taper 8 threads, plug 4, bottoming 2; a shop rule",),
)
def _drill_depth(
    trail: Trail,
    thread_depth: float,
    thread: str,
    tap: str,
    drill: float | None,
    point_angle: float,
    chip_room: float,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    if drill is None:
        drill = float(reckon("tap-drill", {"thread": thread})["drill_size"])
    lead = LEADS[tap]
    full = trail.step(
        "To the shoulder",
        f"{thread_depth:g} + {lead} × {sizes.pitch:.4g} + {chip_room:g}",
        thread_depth + lead * sizes.pitch + chip_room,
    )
    point = drill / (2 * math.tan(math.radians(point_angle) / 2))
    tip = trail.step(
        "To the point",
        f"{full:g} + {drill:g} / (2 tan {point_angle / 2:g}°)",
        full + point,
    )
    return {
        "lead_threads": float(lead),
        "full_depth": full,
        "tip_depth": tip,
        "turns": trail.step(
            "Turns",
            f"{thread_depth:g} / {sizes.pitch:.4g}",
            thread_depth / sizes.pitch,
            NUMBER,
        ),
    }


@reckoning(
    "screw-length",
    group="Threads",
    title="Which length of screw to take",
    usual={"grip": 12, "engagement": 9, "thread_depth": 16, "screw": "M6"},
    inputs=(
        Input("grip", LENGTH, "thickness under the head", low=0),
        Input("engagement", LENGTH, "of thread that must hold", None, above=0),
        Input(
            "thread_depth",
            LENGTH,
            "of the tapped hole, where it is blind",
            None,
            above=0,
        ),
        Input("washer", LENGTH, "thickness of washers", 0.0, low=0),
        Input("clear", LENGTH, "to keep from the hole's floor", 1.0, low=0),
        Input("screw", TEXT, "the screw, such as M6 or 1/4-20"),
    ),
    results=(
        Result("least", LENGTH, "shortest that holds"),
        Result("most", LENGTH, "longest that does not reach the floor"),
        Result("stock", LENGTH, "lengths sold between the two"),
    ),
    sources=("grip, washers and thread; lengths as they are usually sold",),
)
def _screw_length(
    trail: Trail,
    grip: float,
    engagement: float | None,
    thread_depth: float | None,
    washer: float,
    clear: float,
    screw: str,
) -> dict[str, Any]:
    thread = thread_of(screw, "screw")
    if engagement is None and thread_depth is None:
        raise BadInput("engagement", "Give the engagement or the depth of the thread.")
    if engagement is None:
        assert thread_depth is not None
        engagement = min(thread_depth - clear, thread.major)
    if not engagement > 0:
        raise BadInput("clear", "Nothing is left to hold: less clearance.")
    least = trail.step(
        "At least",
        f"{grip:g} + {washer:g} + {engagement:g}",
        grip + washer + engagement,
    )
    sold = [
        stock_length
        for stock_length in stock_lengths(thread)
        if stock_length >= least - 1e-9
    ]
    results: dict[str, Any] = {"least": least}
    if thread_depth is not None:
        most = trail.step(
            "At most",
            f"{grip:g} + {washer:g} + {thread_depth:g} − {clear:g}",
            grip + washer + thread_depth - clear,
        )
        if most < least:
            raise BadInput(
                "thread_depth",
                f"The hole is too shallow: from {engagement + clear:.4g} mm of thread.",
            )
        results["most"] = most
        sold = [stock for stock in sold if stock <= most + 1e-9]
    else:
        sold = sold[:3]
    if not sold:
        trail.cautions.append(
            "No length sold lies between: shorten a longer one, or use a washer."
        )
    return {**results, "stock": sold}


_LINK_KEYS = ("name", "length", "tolerance", "sign")


@reckoning(
    "length-chain",
    group="Measuring over and across",
    title="Lengths in a row: the gap, or the link that is still to be made",
    usual={
        "links": [
            {"name": "housing", "length": 60.02, "tolerance": 0.02, "sign": "+"},
            {"name": "bearing", "length": 15, "tolerance": 0.05, "sign": "-"},
            {"name": "spacer", "length": 44.9, "tolerance": 0.02, "sign": "-"},
        ],
        "unknown": "spacer",
        "gap_least": 0.05,
        "gap_most": 0.2,
    },
    inputs=(
        Input(
            "links",
            OBJECT,
            "name, length, [tolerance ±], sign + or −",
            many=True,
            columns=(
                ("name", TEXT),
                ("length", LENGTH),
                ("tolerance", LENGTH),
                ("sign", TEXT),
            ),
        ),
        Input("gap_least", LENGTH, "least gap wanted", None),
        Input("gap_most", LENGTH, "most gap wanted", None),
        Input("unknown", TEXT, "the link that is still to be made", None),
    ),
    results=(
        Result("total", LENGTH, "the gap at the middle of all"),
        Result("worst_least", LENGTH, "the gap where all add up against it"),
        Result("worst_most", LENGTH, "the gap where all add up for it"),
        Result("likely", LENGTH, "± from the total, root of the squares"),
        Result("lower", LENGTH, "shortest the unknown link may be"),
        Result("upper", LENGTH, "longest the unknown link may be"),
    ),
    sources=("sum of lengths with their signs; worst case and root of the squares",),
)
def _chain(
    trail: Trail,
    links: tuple[Any, ...],
    gap_least: float | None,
    gap_most: float | None,
    unknown: str | None,
) -> dict[str, Any]:
    read = [_link(link, i) for i, link in enumerate(links)]
    names = [name for name, *_ in read]
    if unknown is not None and unknown not in names:
        raise _unknown_link(unknown, names)
    total = trail.step(
        "Gap",
        " ".join(f"{'+' if way > 0 else '−'} {size:g}" for _, size, _, way in read),
        sum(way * size for _, size, _, way in read),
    )
    slack = trail.step(
        "All tolerances",
        " + ".join(f"{slack:g}" for _, _, slack, _ in read),
        sum(slack for _, _, slack, _ in read),
    )
    results: dict[str, Any] = {
        "total": total,
        "worst_least": total - slack,
        "worst_most": total + slack,
        "likely": trail.step(
            "Likely",
            "√(" + " + ".join(f"{slack:g}²" for _, _, slack, _ in read) + ")",
            math.hypot(*(slack for _, _, slack, _ in read)),
        ),
    }
    if unknown is None:
        return results
    if gap_least is None or gap_most is None or not gap_least < gap_most:
        raise BadInput(
            "gap_most", "Say the least and the most gap wanted, the most above it."
        )
    others = [link for link in read if link[0] != unknown]
    way = next(way for name, _, _, way in read if name == unknown)
    rest = sum(w * size for _, size, _, w in others)
    play = sum(slack for _, _, slack, _ in others)
    # the link may spend what the others leave of the gap's range
    ends = sorted(way * (gap - rest) for gap in (gap_least + play, gap_most - play))
    if gap_least + play > gap_most - play:
        raise BadInput(
            "gap_most",
            f"The other links vary by ±{play:g} mm: a range of more than "
            f"{2 * play:g} mm is needed for the gap.",
        )
    for end, word in zip(ends, ("shortest", "longest"), strict=True):
        trail.step(f"{unknown}, {word}", "gap less all others", end)
    if not ends[0] > 0:
        raise BadInput("links", f"Nothing is left for {unknown}.")
    return {**results, "lower": ends[0], "upper": ends[1]}


def _unknown_link(name: str, names: list[str]) -> BadInput:
    return not_known("unknown", name, names)


def _link(given: Mapping[str, Any], index: int) -> tuple[str, float, float, int]:
    """Name, length, tolerance ±, and +1 or −1. Raises BadInput on `links`."""
    for key in given:
        if key not in _LINK_KEYS:
            raise BadInput(
                "links", f"{key!r} is not known; a link has {', '.join(_LINK_KEYS)}."
            )
    name = str(given.get("name") or f"link {index + 1}")
    sign = str(given.get("sign", "+")).strip().replace("−", "-")
    if sign not in ("+", "-"):
        raise BadInput("links", f"The sign of {name} is + or −.")
    try:
        size = Input("length", LENGTH, "length", low=0).read(given.get("length"))
        slack = Input("tolerance", LENGTH, "tolerance", low=0).read(
            given.get("tolerance", 0.0)
        )
    except BadInput as error:
        raise BadInput("links", f"{error.key} of {name}: {error.message}") from None
    return name, float(size), float(slack), 1 if sign == "+" else -1
