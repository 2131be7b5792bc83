"""A taper shank: what goes into a spindle's or tailstock's socket, and its small end.

z = 0 is the small end, or that of its tang or of the round behind a steep taper; what
stands in front of the socket begins where the taper ends.
"""

from collections.abc import Callable, Iterable

from machinon.core.families._arbor_head import FINISH, mouth
from machinon.core.families._tapers import CLOSE, large_end, shank_end_of, usual_length
from machinon.core.families._tapped import CHIP_ROOM, tap_drill, thread_within
from machinon.core.piece.family import (
    Check,
    Holding,
    Mate,
    MateSize,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import POINT, Feature
from machinon.core.piece.milled_features import Flats
from machinon.core.piece.turned_features import (
    Bore,
    Centre,
    Cone,
    Cylinder,
    End,
    NutThread,
)
from machinon.core.reckoning import TEXT
from machinon.core.setting_out.cones import cone_depth
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of

BY_STANDARD = "by its standard, else in proportion"
HOLDS = 5.0  # degrees of half angle: a steeper taper lets go by itself
OVER = 0.1  # mm by which the round behind it may stand over a taper's small end
AT_THE_END = 0.05  # mm that the large end of a taper may be off by its drawing
STEEP = (
    " It lets go by itself: the draw bar holds it, and what drives it is the spindle's "
    "dogs or key. Slot the collar or the shank for them, or see that it clears them."
)


def tanged(s: Values) -> bool:
    return bool(s["tang.across"])


def drawn_home(s: Values) -> bool:
    """Whether a draw bar screws into it."""
    return bool(s["draw.thread"] != "none" and not tanged(s))


def guided(s: Values) -> bool:
    """Whether a straight round behind the taper guides it in the spindle's bore."""
    return bool(s["guide.diameter"] and not tanged(s))


def tapered(s: Values) -> tuple[float, float]:
    """Start and end of the taper, z; at its end it has its large diameter."""
    guide = float(s["guide.length"] if guided(s) else 0.0)
    start = float(s["tang.length"]) if tanged(s) else guide
    return start, start + float(s["shank.length"])


def taper_ends(s: Values) -> tuple[float, float]:
    """Large and small end of the taper."""
    large = float(s["shank.large"])
    return large, large - taper_of(str(s["shank.taper"])).ratio * s["shank.length"]


def back_end(s: Values) -> float:
    """Diameter of the end that the draw bar screws into."""
    return float(s["guide.diameter"]) if guided(s) else taper_ends(s)[1]


def _large(s: Values) -> float:
    """Diameter of the taper at the collar: wider than at the socket's face, which it
    stands off."""
    taper = str(s["shank.taper"])
    wider = taper_of(taper).ratio * float(s["shank.off"])
    return large_end(taper, "shank.large") + wider


def near_to(key: str) -> Callable[[Values], tuple[float, float]]:
    """Limits of a taper's large end, mm: by how much it may stand out or in.

    Source: a shop rule; of a Morse taper that is a millimetre either way.
    """
    return lambda s: (float(s[key]) - AT_THE_END, float(s[key]) + AT_THE_END)


def _long(s: Values) -> float:
    taper = str(s["shank.taper"])
    if tanged(s):
        return shank_end_of(taper).reach + float(s["shank.off"] - s["tang.length"])
    return usual_length(taper, "shank.large") + float(s["shank.off"])


def _by_standard(what: str) -> Callable[[Values], float]:
    """A rule: that of a shank of its taper."""
    return lambda s: float(getattr(shank_end_of(str(s["shank.taper"])), what))


def _tang(s: Values) -> float:
    return (
        shank_end_of(str(s["shank.taper"])).across if s["shank.end"] == "tang" else 0.0
    )


def _draw(s: Values) -> str:
    """The taper's standard draw-bar thread, else one that leaves a wall in the shank's
    small end."""
    if s["shank.end"] != "draw bar" or tanged(s):
        return "none"
    small = back_end(s)
    usual = shank_end_of(str(s["shank.taper"])).draw
    ladder = ("M16", "M12", "M10", "M8", "M6", "M5", "M4", "M3")
    return usual or thread_within(0.6 * small, *ladder)


def _draw_depth(s: Values) -> float:
    if s["draw.thread"] == "none":
        return 6.0  # of none: any that can be
    return 2 * thread_of(str(s["draw.thread"])).major


def _steep(s: Values) -> bool:
    """Whether its taper does not hold by itself."""
    return taper_of(str(s["shank.taper"])).half_angle > HOLDS


def draw_hole_end(s: Values) -> float:
    """How far the draw bar's hole comes towards the front, to its point, z."""
    if not drawn_home(s):
        return 0.0
    bar = thread_of(str(s["draw.thread"]))
    point = cone_depth(tap_drill(bar.name), POINT)
    return float(s["draw.depth"] + CHIP_ROOM * bar.pitch + point)


def solid_checks(s: Values, taper: float) -> Iterable[Check]:
    """Metal between a draw bar's hole and the end of the taper, z, of a solid shank."""
    if hole := draw_hole_end(s):
        yield at_least(
            "holes-meet",
            "draw",
            taper - hole,
            8.0,
            "Metal in front of the draw bar's hole",
        )


def _guides(s: Values) -> tuple[float, float] | None:
    """Those of a round that goes into a bore of its own size, as R8's does."""
    if not (shank_end_of(str(s["shank.taper"])).guides and guided(s)):
        return None
    return float(s["guide.diameter"]) - CLOSE, float(s["guide.diameter"])


def _guide_note(s: Values) -> str:
    return "It goes into the spindle's bore: try it there." if _guides(s) else ""


def shank_features(s: Values) -> list[Feature]:
    """The shank with its tang, its draw bar's thread or the round behind it, and the
    centre in its small end."""
    return [*shank_outside(s), *_small_end(s)]


def shank_outside(s: Values) -> list[Feature]:
    """The shank without what goes into its small end."""
    start, end = tapered(s)
    large, small = taper_ends(s)
    features: list[Feature] = [
        End("small_end", 0.0, "left"),
        Cone("shank", start, end, small, large, str(s["shank.taper"])),
    ]
    if tanged(s):
        wide = s["tang.round"]
        features += [
            Cylinder("tail", 0.0, start, wide, shoulder="right"),
            Flats("tang", 0.0, start, s["tang.across"], 2),
        ]
    if guided(s):
        features.append(
            Cylinder("guide", 0.0, start, s["guide.diameter"], shoulder="right")
        )
    return features


def _small_end(s: Values) -> list[Feature]:
    """What goes into the small end: the draw bar's thread, a centre."""
    if not drawn_home(s):
        return [Centre("back_centre", 0.0, "left", round(0.3 * back_end(s), 1))]
    draw = str(s["draw.thread"])
    bar, drill = thread_of(draw), tap_drill(draw)
    return [
        Bore("draw_hole", 0.0, s["draw.depth"] + CHIP_ROOM * bar.pitch, drill,
             opens="left", pointed=True),
        NutThread("draw", 0.0, s["draw.depth"], draw, drill),
        Centre("back_centre", 0.0, "left", mouth(bar.major)),
    ]  # fmt: skip


def shank_checks(s: Values, through: bool = False) -> Iterable[Check]:
    """Checks of the shank and its small end; what stands in front is a collar.
    through: a draw bar goes through it, into what it carries."""
    large, small = taper_ends(s)
    taper = taper_of(str(s["shank.taper"]))
    if taper.large is not None:
        yield at_least(
            "collar-off",
            "shank",
            (large - taper.large) / taper.ratio,
            1.0,
            "Gap from the socket's face to the collar: the taper must bear, not the "
            "collar",
        )
    yield at_least(
        "collar-socket",
        "collar",
        s["collar.diameter"] - large,
        1.0,
        "Collar over the socket's mouth",
        grave=False,
    )
    if tanged(s):
        yield at_least(
            "tang-clears",
            "tang",
            (small - s["tang.round"]) / 2,
            0.1,
            "Small end of the taper over the round of its tang",
        )
        yield at_least(
            "tang-flat",
            "tang",
            s["tang.round"] - s["tang.across"],
            1.0,
            "Round of the tang over its flats",
        )
    if guided(s):
        guide = float(s["guide.diameter"])
        form = "Round behind the taper ⌀{}, and ⌀{} where the taper ends"
        lengths = (guide, small)
        says = form.format(*(f"{length:.2f}" for length in lengths)) + ", mm."
        over = guide > small + OVER
        yield Check(
            "guide-clears",
            "guide",
            not over,
            says,
            grave=False,
            form=form + ", in.",
            lengths=lengths,
        )
    if drawn_home(s):
        bar = thread_of(str(s["draw.thread"]))
        yield at_least(
            "draw-wall",
            "draw",
            (back_end(s) - bar.major) / 2,
            0.12 * back_end(s),
            "Wall of the shank round the draw-bar's thread",
        )
    if _steep(s) and not through:
        drawn = drawn_home(s)
        held = "A draw bar holds it." if drawn else "It needs the thread of a draw bar."
        says = f"{taper.name} is too steep to hold by itself. {held}"
        yield Check("drawn-home", "shank", drawn, says)


def small_end_steps(s: Values) -> tuple[Step, ...]:
    """The small end faced, with its draw bar's thread and its centre."""
    draw = (
        Step("drill", ("draw_hole",), of="the draw-bar hole"),
        Step("tap", ("draw",), of="the draw bar"),
    )
    drawn = drawn_home(s)
    return (
        Step("face", ("small_end",)),
        *(draw if drawn else ()),
        Step("centre", ("back_centre",), note="True to the thread." if drawn else ""),
    )


def rough_shank(s: Values) -> tuple[Step, ...]:
    """The shank with a little left on it, between centres, its small end out."""
    half = taper_of(str(s["shank.taper"])).half_angle
    return (
        *((Step("turn", ("tail",)),) if tanged(s) else ()),
        *((Step("turn", ("guide",), leaves=FINISH),) if guided(s) else ()),
        Step(
            "taper",
            ("shank",),
            leaves=FINISH,
            title=f"Rough the taper, compound at {half:.4f}°",
            note="Set it by an indicator along a known taper.",
        ),
    )


def finished_shank(s: Values) -> tuple[Step, ...]:
    """The shank finished and blued, when no dog stands on it any more."""
    return (
        *((Step("turn", ("guide",), note=_guide_note(s)),) if guided(s) else ()),
        Step(
            "taper",
            ("shank",),
            title="Finish the taper to its blue",
            note="Blue at the large end only: the angle is too steep.",
        ),
        Step(
            "prove",
            ("shank",),
            title="Blue it in its socket",
            tool="the socket, blue",
            note="Taken from the centres and put back as often as it needs."
            + (STEEP if _steep(s) else ""),
        ),
    )


def tang_holding(s: Values) -> tuple[Holding, ...]:
    """The tang milled, where it has one."""
    if not tanged(s):
        return ()
    return (
        Holding(
            "tang",
            "mill",
            "In a dividing head or vee block, by the collar",
            "The tang comes once the taper is proved: it is not what drives it, the "
            "taper is; a drift knocks it out by it.",
            (
                Step(
                    "mill",
                    ("tang",),
                    title=f"Mill the tang to {s['tang.across']:g} mm",
                    note="The same off both sides: it stands in the middle of its "
                    "slot. Round its corners, or they bruise the socket.",
                ),
                Step("deburr", ("tang",), key="deburr-tang"),
            ),
        ),
    )


def drawn_if_steep(s: Values) -> str:
    """What the small end has of a shank that the cut pushes home, where it holds."""
    return "draw bar" if _steep(s) else "nothing"


def shank_sizes(
    usual: str | Callable[[Values], str] = "draw bar", why: str = "draws it home"
) -> tuple[Size, ...]:
    """Sizes of the shank; usual: what its small end has, and why."""
    return (
        Size("shank.taper", "taper", "socket.taper", "as the socket has", kind=TEXT,
             by="copy"),
        Size("shank.end", "what its small end has", usual, why, kind=TEXT,
             rests=() if isinstance(usual, str) else ("shank.taper",),
             choices=("draw bar", "tang", "nothing")),
        Size("shank.off", "from the socket's face to the collar", _by_standard("off"),
             BY_STANDARD, 0, 60, rests=("shank.taper",)),
        Size("shank.large", "large end of the shank", _large,
             "by its standard, at the collar", 3, 200,
             rests=("shank.taper", "shank.off"), step=0.001,
             limits=near_to("shank.large")),
        Size("shank.length", "length of the shank", _long, BY_STANDARD, 10, 400,
             rests=("shank.taper", "shank.off", "tang.across", "tang.length"),
             step=0.1),
        Size("tang.across", "tang", _tang, BY_STANDARD + "; 0 for none", 0, 60,
             rests=("shank.taper", "shank.end")),
        Size("tang.length", "length of the tang", _by_standard("length"),
             BY_STANDARD, 3, 80, rests=("shank.taper",)),
        Size("tang.round", "round of the tang", _by_standard("diameter"),
             BY_STANDARD, 2, 100, rests=("shank.taper",), at="tail.diameter"),
        Size("guide.diameter", "round behind the taper", _by_standard("guide"),
             "by its standard; 0 for none", 0, 150, rests=("shank.taper",), step=0.01,
             limits=_guides),
        Size("guide.length", "length of the round behind the taper",
             lambda s: shank_end_of(str(s["shank.taper"])).guide_length or 10.0,
             "by its standard", 1, 300, rests=("shank.taper",)),
        Size("draw.thread", "draw-bar thread", _draw, BY_STANDARD, kind=TEXT, rests=(
            "shank.taper", "shank.end", "shank.large", "shank.length", "tang.across",
            "tang.length", "guide.diameter")),
        Size("draw.depth", "depth of the draw-bar's thread", _draw_depth,
             "two diameters", 5, 100, rests=("draw.thread",), step=0.1),
    )  # fmt: skip


# of the shank, that its length goes by
SHANK_LONG = (
    "shank.length",
    "tang.across",
    "tang.length",
    "guide.diameter",
    "guide.length",
)
SOCKET = Mate("socket", "the socket it goes in", (
    MateSize("taper", "its taper", "MT3", ("taper-in",)),
), seats="shank.ends - shank.off", turned=True)  # fmt: skip
# ways in which a shank is made, beside the usual
TANGED = {"shank.end": "tang", "tang.length": "20"}
GUIDED = {"guide.diameter": "18", "guide.length": "15"}
