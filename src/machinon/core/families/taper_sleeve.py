"""Taper sleeve: a smaller taper's socket inside a larger taper's shank.

z = 0 is the small end of the shank, or of its tang; the collar and the mouth of the
socket are at the right. It is open right through, or its own tang closes it and a slot
across lets a drift in behind the tool, or a draw bar screws into it.
"""

from collections.abc import Iterable

from msgspec.structs import replace

from machinon.core.families._between_centres import (
    COPPER,
    dog_on,
    each_end,
    end_for_end,
)
from machinon.core.families._taper_shank import (
    GUIDED,
    SHANK_LONG,
    SOCKET,
    TANGED,
    back_end,
    draw_hole_end,
    drawn_home,
    finished_shank,
    near_to,
    rough_shank,
    shank_checks,
    shank_features,
    shank_outside,
    shank_sizes,
    small_end_steps,
    tang_holding,
    tanged,
    taper_ends,
    tapered,
)
from machinon.core.families._tapers import (
    inner_end,
    large_end,
    shank_end_of,
    socket_depth,
)
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Check,
    Family,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import POINT, Feature
from machinon.core.piece.milled_features import CrossSlot
from machinon.core.piece.round_sizes import downwards
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Cylinder, End, TaperBore
from machinon.core.reckoning import TEXT
from machinon.core.setting_out.cones import cone_depth
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of

OVER = 2.0  # mm: stock over each end
REACH = 0.8  # of its length: how far a drift's slot goes either way from a tang's end
ROOM = 0.3  # mm: the slot over the thickness of the tang
KEPT = 4.0  # mm of metal between what is open from the mouth and what closes the end
GRIP = 8.0  # mm of collar to knock it out by
ROUND = 1.0  # mm: the hole behind the socket over the round of the tang


def _inner(s: Values) -> str:
    return str(s["seat.taper"])


def _large(s: Values) -> float:
    return large_end(_inner(s), "seat.large")


def _deep(s: Values) -> float:
    """Past its gauge, or to where it meets the hole behind it."""
    meets = (s["seat.large"] - s["hole.diameter"]) / taper_of(_inner(s)).ratio
    return downwards(min(socket_depth(_inner(s), "seat.large"), meets), 0.5)


def _small(s: Values) -> float:
    """Small end of the socket."""
    large, deep = float(s["seat.large"]), float(s["seat.depth"])
    ratio = taper_of(_inner(s)).ratio
    return inner_end(large, ratio, deep, "seat.depth", "depth of the socket")


def _hole(s: Values) -> float:
    """The hole behind the socket: the tang's round goes into it, or what guides."""
    end = shank_end_of(_inner(s))
    return end.bore or min(end.diameter + ROUND, 0.9 * float(s["seat.large"]))


def _open(s: Values) -> bool:
    """Whether the hole goes right through it."""
    return bool(s["hole.depth"] == 0)


def _closed_by(s: Values) -> bool:
    """Whether something at the small end closes it: a tang, a draw bar's thread."""
    return tanged(s) or drawn_home(s)


def _slot(s: Values) -> float:
    return shank_end_of(_inner(s)).across + ROOM if tanged(s) else 0.0


def _slot_from(s: Values) -> float:
    end = shank_end_of(_inner(s))
    return end.reach - REACH * end.length


def _slot_ends(s: Values) -> float:
    """Where the slot ends, from the mouth."""
    return float(s["drift.from_mouth"] + s["drift.length"])


def _hole_deep(s: Values) -> float:
    """Its point ends where the drift's slot does, or past the socket; 0: it goes right
    through what nothing closes."""
    if not _closed_by(s):
        return 0.0
    if tanged(s):
        return downwards(_slot_ends(s) - cone_depth(s["hole.diameter"], POINT), 0.5)
    return float(s["seat.depth"]) + 2.0


def _closing(s: Values) -> float:
    """Length of what closes the small end: the tang, or the draw bar's hole; z."""
    return float(s["tang.length"]) if tanged(s) else draw_hole_end(s)


def _hole_ends(s: Values) -> float:
    """From the mouth to what is open of it, by the drift's slot or the hole's point."""
    point = float(s["hole.depth"] + cone_depth(s["hole.diameter"], POINT))
    return max(point, _slot_ends(s)) if s["drift.width"] else point


def _collar(s: Values) -> float:
    """As long as what is open from the mouth then stays clear of what closes it."""
    if _open(s):
        return GRIP
    _, taper = tapered(s)
    return max(GRIP, _hole_ends(s) + KEPT + _closing(s) - taper)


def _long(s: Values) -> float:
    return _mouth(s) + 2 * OVER


def _mouth(s: Values) -> float:
    return tapered(s)[1] + float(s["collar.length"])


def build(s: Values) -> Body:
    _, taper = tapered(s)
    mouth = _mouth(s)
    through = _open(s)
    start = 0.0 if through else mouth - s["hole.depth"]
    features: list[Feature] = [
        *(shank_outside(s) if through else shank_features(s)),
        Cylinder("collar", taper, mouth, s["collar.diameter"], shoulder="left"),
        End("front", mouth, "right"),
        Bore("hole", start, mouth, s["hole.diameter"], "length" if through else "depth",
             opens="both" if through else "right", pointed=not through),
        TaperBore("seat", mouth - s["seat.depth"], mouth, _small(s), s["seat.large"],
                  _inner(s)),
    ]  # fmt: skip
    if s["drift.width"]:
        near, far = mouth - s["drift.from_mouth"], mouth - _slot_ends(s)
        large, _ = taper_ends(s)
        features.append(CrossSlot("drift", far, near, large, s["drift.width"], mouth))
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    _, taper = tapered(s)
    large, _ = taper_ends(s)
    mouth = _mouth(s)
    outside, inside = taper_of(str(s["shank.taper"])).ratio, taper_of(_inner(s)).ratio
    yield at_least(
        "mouth-wall",
        "seat",
        (s["collar.diameter"] - s["seat.large"]) / 2,
        1.5,
        "Wall round the mouth of the socket",
    )
    # both tapers are straight: the wall is least at an end of what they share
    first = max(mouth - s["seat.depth"], tapered(s)[0])
    walls = [
        (
            large - outside * (taper - z) - (s["seat.large"] - inside * (mouth - z))
        ) / 2
        for z in (first, taper)
    ]  # fmt: skip
    yield at_least(
        "seat-wall",
        "seat",
        min(walls),
        max(1.0, 0.04 * large),
        "Wall between the socket and the shank (0.04 of it)",
    )
    bears = min(s["seat.depth"], (s["seat.large"] - s["hole.diameter"]) / inside)
    yield at_least(
        "seat-bears",
        "seat",
        bears,
        0.7 * (taper_of(_inner(s)).length or s["seat.depth"]),
        "Length that the shank in it bears on (0.7 of its taper)",
    )
    end = shank_end_of(_inner(s))
    yield at_least(
        "tool-enters",
        "hole",
        s["hole.diameter"] - max(end.guide, end.diameter if tanged(s) else 0.0),
        0.02 if end.guide else 0.1,
        "Hole over the end of the shank that goes in",
    )
    if _open(s) and _closed_by(s):
        says = "The hole goes right through what a tang or a draw bar's thread closes."
        yield Check("small-end", "hole", False, says)
    elif _open(s):
        yield at_least(
            "hole-wall",
            "hole",
            (back_end(s) - s["hole.diameter"]) / 2,
            1.0,
            "Wall of the sleeve at its small end",
        )
        if end.draw:
            yield at_least(
                "bar-passes",
                "hole",
                s["hole.diameter"] - thread_of(end.draw).major,
                0.3,
                "Hole over the draw bar of what goes in",
            )
    else:
        yield at_least(
            "holes-meet",
            "hole",
            mouth - _hole_ends(s) - _closing(s),
            3.0,
            "Metal between the hole and what closes the small end",
        )  # fmt: skip
    if s["drift.width"]:
        yield at_least(
            "drift-takes",
            "drift",
            s["drift.width"] - end.across,
            0.1,
            "Slot over the thickness of the tang in it",
        )
        yield at_least(
            "drift-reach",
            "drift",
            min(end.reach - s["drift.from_mouth"], _slot_ends(s) - end.reach),
            0.4 * end.length,
            "Slot on both sides of the tang's end, for the drift (0.4 of the tang)",
        )
    yield from shank_checks(s, _open(s))


def route(s: Values) -> tuple[Holding, ...]:
    through = _open(s)
    half = taper_of(_inner(s)).half_angle
    hole = Step(
        "drill",
        ("hole",),
        note="Right through, from both ends to meet where it is long."
        if through
        else "Clear the chips often.",
    )
    drift = (
        Holding(
            "drift",
            "mill",
            "In a dividing head or vee block, by the collar",
            "The slot breaks into the hole before the socket is finished, so that no "
            "burr stands in it.",
            (
                Step("mill", ("drift",), tool="slot drill",
                     title=f"Mill the drift's slot, {s['drift.width']:g} mm wide, "
                     "right through", note="Half from each side, its middle on the "
                     "axis. How it is turned to the sleeve's own tang makes no "
                     "difference.",
                     figures=(Shown("From the mouth", float(s["drift.from_mouth"])),
                              Shown("Long", float(s["drift.length"])))),
                Step("deburr", ("drift",), key="deburr-drift"),
            ),
        ),
    )  # fmt: skip
    ends = (
        (Step("face", ("small_end",)), Step("face", ("front",), title="Turn it round, "
                                            "face to length"), hole)
        if through
        else (*small_end_steps(s), Step("face", ("front",), title="Turn it round, face "
                                        "to length"), hole)
    )  # fmt: skip
    return (
        each_end(
            "The hole first: everything outside is turned true to it.",
            ends,
        ),
        Holding(
            "between-centres",
            "lathe",
            "Between centres, wide ones or plugs in the holes",
            "The shank is roughed first and finished last: no dog stands on it then.",
            (
                dog_on("the mouth's end", "left"),
                *rough_shank(s),
                end_for_end("the roughed shank", "right"),
                Step("turn", ("collar",)),
                end_for_end("the collar" + COPPER, "left"),
                *finished_shank(s),
                Step("deburr", ()),
            ),
            "centres",
        ),
        *tang_holding(s),
        *(drift if s["drift.width"] else ()),
        Holding(
            "seat",
            "lathe",
            "By its own taper, in the spindle",
            "The socket is bored where the sleeve will sit: in a taper like that, "
            "wiped and driven or drawn home. Then both are true to each other.",
            (
                Step("mount", (), title=f"Slide to {half:.4f}°, by an indicator along "
                     "a known taper", tool="indicator", key="set-slide",
                     slide=half),
                Step("taper", ("seat",), leaves=0.15, title="Rough the socket"),
                Step("taper", ("seat",), title="Finish the socket to its blue",
                     note="Contact all along, a little stronger at the mouth."),
                Step("prove", ("seat",), title="Blue a good taper in it, read a test "
                     "bar", tool="blue, test bar, indicator",
                     note="The bar must not stand on the floor or on its tang: the "
                     "taper alone carries it."),
                Step("deburr", (), key="deburr-seat"),
            ),
        ),
    )  # fmt: skip


FAMILY = Family(
    "taper-sleeve",
    "Taper sleeve",
    "Lets a smaller taper shank into a larger socket: one taper inside another.",
    "for a Morse 2 shank in a Morse 4 socket",
    also="drill reducing sleeve reduction adapter socket Morse MT1 MT2 MT3 MT4 MT5 R8 "
    "drift tang",
    sizes=(
        Size("stock.diameter", "stock diameter",
             "up(max(collar.diameter, shank.large) + 2, 1)", "a clean-up", 10, 300),
        Size("stock.length", "stock length", _long, "both faces", 20, 800, up=1,
             rests=(*SHANK_LONG, "collar.length")),
        STOCK_BORE,
        *shank_sizes("nothing", "left open, so that a draw bar goes through"),
        Size("collar.diameter", "collar", "up(shank.large + 3, 1)",
             "to knock it out by", 6, 290),
        Size("collar.length", "length of the collar", _collar,
             "a grip, clear of what is behind", 1, 200, up=0.5,
             rests=(*SHANK_LONG, "draw.thread", "draw.depth", "hole.diameter",
                    "hole.depth", "drift.width", "drift.from_mouth", "drift.length")),
        Size("seat.taper", "taper of the socket", "tool.taper", "as what goes in it",
             kind=TEXT, by="copy"),
        Size("seat.large", "large end of the socket", _large, "by its standard", 3, 200,
             rests=("seat.taper",), step=0.001, limits=near_to("seat.large")),
        Size("seat.depth", "depth of the socket", _deep, "past its gauge, or to the "
             "hole", 6, 400, rests=("seat.taper", "seat.large", "hole.diameter"),
             step=0.5),
        Size("hole.diameter", "hole behind the socket", _hole,
             "over the end of what goes in", 1, 150,
             rests=("seat.taper", "seat.large"), step=0.01),
        Size("hole.depth", "depth of the hole behind it", _hole_deep,
             "0 goes right through", 0, 500,
             rests=("seat.depth", "hole.diameter", "tang.across", "draw.thread",
                    "drift.from_mouth", "drift.length"), step=0.5),
        Size("drift.width", "slot for a drift", _slot,
             "over the tang in it; 0 for none", 0, 60,
             rests=("seat.taper", "tang.across"), step=0.1),
        Size("drift.from_mouth", "from the mouth to the slot", _slot_from,
             "before the end of the tang in it", 3, 400, rests=("seat.taper",),
             step=0.5),
        Size("drift.length", "length of the slot",
             lambda s: 2 * REACH * shank_end_of(_inner(s)).length,
             "for a drift behind that tang", 2, 200, rests=("seat.taper",), step=0.5),
    ),
    build=build,
    route=route,
    checks=checks,
    mates=(
        replace(SOCKET, sizes=(
            MateSize("taper", "its taper", "MT4", ("taper-in",)),
        )),
        Mate("tool", "the shank that goes in it", (
            MateSize("taper", "its taper", "MT2", ("taper-out",)),
        ), seats="seat.ends", turned=True),
    ),
    material="alloy steel",
    runs=True,
    ways=(TANGED, {"shank.end": "draw bar"}, GUIDED),
)  # fmt: skip
