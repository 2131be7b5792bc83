"""Plates that carry a chuck on a spindle nose with a flange: how the nose is bolted to
them, the chuck's side, and their order of work.

z = 0 is the face that seats on the spindle's flange; z grows towards the chuck.
"""

import math
from collections.abc import Callable, Iterable

from machinon.core.families._chuck_side import (
    FINISH,
    FINISHED,
    ROUGHED,
    SPIGOT,
    SPIGOT_SIZES,
    chuck,
    chuck_screws,
    screw_hole,
    screws_told,
    spigot_checks,
    tapped_for,
)
from machinon.core.families._opening import TO_BORE
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Check,
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
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.hole_features import HoleCircle, Holes
from machinon.core.piece.round_sizes import step_in, upwards
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Cylinder, End
from machinon.core.quantity import ANGLE, COUNT
from machinon.core.reckoning import TEXT
from machinon.core.shop.things import Surface
from machinon.core.threads.screws import CapScrew, cap_screw

OVER = 1.5  # mm: stock over the face that seats on the spindle
WEB = 8.0  # mm: least metal in front of the nose
EDGE = 2.0  # mm: least metal beside a hole or a head
OF = {"nose": "spindle's screws", "bolts": "chuck's screws"}


def _screw(s: Values, of: str) -> CapScrew:
    return cap_screw(str(s[f"{of}.screw"]))


def _clear(s: Values, of: str) -> float:
    """Across their thread or clearance hole, mm."""
    screw = _screw(s, of)
    return float(screw.diameter if tapped_for(s, of) else screw.normal)


def _across(s: Values, of: str) -> float:
    """Across their widest, the seat of a head where it is in the plate, mm."""
    screw = _screw(s, of)
    return float(screw.diameter if tapped_for(s, of) else screw.counterbore)


def _plate(s: Values) -> float:
    """A diameter as wide as the chuck and the spindle's flange, and past both
    circles."""
    past = max(s[f"{of}.circle"] + _across(s, of) + 2 * EDGE for of in OF)
    past = upwards(past, step_in(0.5, s["inch"]))
    return float(max(s["chuck.body"], s["spindle.flange"], past))


def _thick(nose: str) -> Callable[[Values], float]:
    """A rule: a twelfth of its width; room past the nose, for a head and what it pulls
    on, or for a thread. nose: the size that says how deep the nose goes in."""

    def thick(s: Values) -> float:
        needs = [s["plate.diameter"] / 12, s[nose] + WEB, 15.0]
        for of in OF:
            screw, hole = _screw(s, of), screw_hole(s, of)
            wanted = material(str(s["material"])).engagement * screw.diameter
            needs.append(wanted if hole.thread else hole.bore_depth + screw.diameter)
        return float(max(needs))

    return thick


def _nose_circle(s: Values) -> HoleCircle:
    """Half a pitch from the chuck's screws, so that the two are clear of each other."""
    count = int(s["nose.count"])
    return HoleCircle(count, s["nose.circle"], 90.0 + s["nose.turn"])


def _bolt_circle(s: Values) -> HoleCircle:
    return HoleCircle(int(s["bolts.count"]), s["bolts.circle"])


def _through(s: Values) -> float:
    """Depth of the metal where the spindle's screws go, spigot included."""
    inside = s["nose.circle"] < s["spigot.diameter"]
    return float(s["plate.thickness"] + (s["spigot.height"] if inside else 0.0))


def nose_plate(s: Values, seat: Feature) -> Body:
    """The plate; seat: what fits the spindle's nose."""
    thick = s["plate.thickness"]
    long = thick + s["spigot.height"]
    deep = _through(s)
    tapped, screwed = tapped_for(s, "bolts"), tapped_for(s, "nose")
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER),
        (
            End("rear", 0.0, "left"),
            Cylinder("plate", 0.0, thick, s["plate.diameter"], "thickness"),
            Cylinder("spigot", thick, long, s["spigot.diameter"], "height", "left"),
            End("front", long, "right"),
            Bore("hole", 0.0, long, s["hole.diameter"], "length"),
            seat,
            Holes("bolts", "right" if tapped else "left", _bolt_circle(s),
                  screw_hole(s, "bolts"), thick, level=thick if tapped else 0.0),
            Holes("nose", "left" if screwed else "right", _nose_circle(s),
                  screw_hole(s, "nose"), deep, level=0.0 if screwed else deep),
        ),
    )  # fmt: skip


def nose_checks(s: Values, mouth: float, depth: float) -> Iterable[Check]:
    """mouth, depth: of what fits the nose, mm."""
    thick, wide = s["plate.thickness"], s["plate.diameter"]
    yield at_least(
        "web",
        "hole",
        thick + s["spigot.height"] - depth,
        WEB,
        "Metal between the nose and the front",
    )
    yield from spigot_checks(s)
    yield at_least(
        "plate-thin",
        "plate",
        thick,
        wide / 12,
        "Thickness of the plate (a twelfth of its diameter)",
    )
    yield at_least(
        "hole-passes",
        "hole",
        s["hole.diameter"] - s["spindle.bore"],
        0.0,
        "Hole over the spindle's own, so that a bar goes through",
        grave=False,
    )
    yield at_least(
        "shoulder",
        "hole",
        (mouth - s["hole.diameter"]) / 2,
        3.0,
        "Metal of the plate in front of the nose",
    )
    yield at_least(
        "seats-wide",
        "rear",
        (min(wide, s["spindle.flange"]) - mouth) / 2,
        5.0,
        "Face that seats on the spindle's flange",
    )
    yield from _screw_place_checks(s, mouth)
    yield from _screw_hold_checks(s)
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - thick - s["spigot.height"],
        2.0,
        "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - wide,
        2.0,
        "Stock over the plate to clean up",
    )


def _screw_place_checks(s: Values, mouth: float) -> Iterable[Check]:
    """Metal round both circles of screws; mouth: of what fits the nose, mm."""
    circle, half = s["nose.circle"], s["spigot.diameter"] / 2
    yield at_least(
        "nose-mouth",
        "nose",
        (circle - _clear(s, "nose") - mouth) / 2,
        EDGE,
        "Metal between the spindle's screws and its nose",
    )
    yield at_least(
        "nose-spigot",
        "nose",
        abs(circle / 2 - half) - _across(s, "nose") / 2,
        0.5,
        "Metal between the spindle's screws and the edge of the spigot",
    )
    yield at_least(
        "bolts-spigot",
        "bolts",
        (s["bolts.circle"] - _clear(s, "bolts")) / 2 - half,
        0.5,
        "Metal between the chuck's screws and the spigot",
    )
    for of in OF:
        yield at_least(
            f"{of}-edge",
            of,
            (s["plate.diameter"] - s[f"{of}.circle"] - _across(s, of)) / 2,
            EDGE,
            f"Metal between the {OF[of]} and the plate's edge",
        )
    apart = min(
        math.dist(a, b)
        for a in _nose_circle(s).points()
        for b in _bolt_circle(s).points()
    )
    yield at_least(
        "circles-apart",
        "nose",
        apart - (_across(s, "nose") + _across(s, "bolts")) / 2,
        EDGE,
        "Metal between the spindle's screws and the chuck's",
    )
    if not tapped_for(s, "nose") and not tapped_for(s, "bolts"):
        yield at_least(
            "chuck-goes-on",
            "bolts",
            (s["bolts.circle"] - _across(s, "bolts") - s["spindle.flange"]) / 2,
            1.0,
            "Room past the spindle's flange to the chuck's screws: the plate is on it "
            "before the chuck covers its screws",
        )


def _screw_hold_checks(s: Values) -> Iterable[Check]:
    """Thread for the screws that go in, and metal under the heads of the others."""
    for of, metal in (("nose", _through(s)), ("bolts", s["plate.thickness"])):
        screw, hole = _screw(s, of), screw_hole(s, of)
        wanted = material(str(s["material"])).engagement * screw.diameter
        if hole.thread:
            yield at_least(
                f"{of}-engagement",
                of,
                metal,
                wanted,
                f"Thread for the {OF[of]} in {s['material']}",
            )
        else:
            yield at_least(
                f"{of}-under-head",
                of,
                metal - hole.bore_depth,
                0.8 * screw.diameter,
                f"Metal under the heads of the {OF[of]} (0.8 of the screw)",
            )


def nose_hardware(s: Values) -> Iterable[Hardware]:
    """The screws of the spindle and of the chuck."""
    thick = s["plate.thickness"]
    yield chuck_screws(s, "nose", "spindle", thick, "for the spindle")
    yield chuck_screws(s, "bolts", "chuck", thick, "for the chuck")


def _drilled(s: Values, of: str, drill: str, sink: str) -> tuple[Step, ...]:
    """The holes of one circle, with their thread or the seats of their heads."""
    called = f"the {OF[of]}"
    last = (
        Step("tap", (of,), fit=of, of=called,
             note="In the same set-up as the drill: the tap starts straight.")
        if tapped_for(s, of)
        else Step("counterbore", (of,), fit=of, of=called, note=sink,
                  caution="Clamp it again after turning it over.")
    )  # fmt: skip
    return (
        Step("drill", (of,), fit=of, of=called, note=drill,
             caution="Clamp it: a plate that grabs spins. Goggles on."),
        last,
    )  # fmt: skip


def nose_route(s: Values, seat: tuple[Step, ...]) -> tuple[Holding, ...]:
    """seat: how what fits the nose is cut and proved."""
    return (
        Holding(
            "front-side",
            "lathe",
            "In the chuck, chuck side out",
            "Both sides clean before a hole is drilled: it lies flat, and drill and "
            "tap go through.",
            (
                Step("face", ("front",), leaves=FINISH, key="rough-face",
                     title="Face the chuck's side clean",
                     note=f"{FINISH:g} mm stay on it for the cut in place."),
            ),
            "jaws",
        ),
        Holding(
            "nose-side",
            "lathe",
            "In the chuck, spindle side out",
            "What fits the nose and the face that seats on its flange are cut in one "
            "chucking, so they are true to each other.",
            (
                Step("face", ("rear",), title="Face the spindle side",
                     note="Flat or a hair hollow: a crowned face rocks on the flange."),
                Step("drill", ("hole",), leaves=TO_BORE),
                Step("bore", ("hole",)),
                *seat,
            ),
            "jaws",
        ),
        Holding(
            "nose-holes",
            "mill",
            "On the table, spindle side up",
            "The spindle's screws come next: with them it goes on its own nose.",
            (
                *_drilled(
                    s,
                    "nose",
                    "Zero on what fits the nose.",
                    "From the front, a little deeper than the head is high once the "
                    "face is finished: it must not touch the chuck.",
                ),
                Step("deburr", ("nose",), title="Break the edges of these holes"),
            ),
        ),
        Holding(
            "in-place",
            "lathe",
            "On its own spindle nose",
            "Spigot and seat are finished in place, on the spindle they will run on: "
            "whatever play the nose leaves is cut out here.",
            (
                Step("mount", (), title="Clean both faces, bolt it up evenly",
                     note="A chip tilts the plate. Go crosswise, in three rounds; mark "
                     "the hole that stands at the flange's mark.",
                     caution="No more speed than the blank allows: see that every "
                     "screw is home."),
                Step("turn", ("plate",), title="Turn the outside"),
                ROUGHED,
                Step("face", ("front",), title="Face the front"),
                *FINISHED,
            ),
        ),
        Holding(
            "holes",
            "mill",
            "On the table, centred on the spigot",
            "The chuck's screws come last: a drilled rim would cut in and out.",
            (
                *_drilled(
                    s,
                    "bolts",
                    "Zero on the spigot, half a pitch from the spindle's screws.",
                    "From the spindle side: the chuck is screwed on before both go "
                    "on the nose."
                    if tapped_for(s, "nose")
                    else "From the spindle side: the chuck goes on last, its screws "
                    "past the spindle's flange.",
                ),
                Step("deburr", ("bolts",),
                     title="Break every edge, clean, mount the chuck"),
            ),
        ),
    )  # fmt: skip


def nose_sizes(nose: str, *seat: Size) -> tuple[Size, ...]:
    """Sizes of the plate; seat: those of what fits the nose, nose: that of them which
    says how deep it goes in."""
    return (
        Size("stock.diameter", "stock diameter", "up(plate.diameter + 3, 5)",
             "the plate and a clean-up", 20, 600),
        Size("stock.length", "stock length", "up(plate.thickness + spigot.height + 3, "
             "1)", "the length and both faces", 8, 200),
        STOCK_BORE,
        Size("plate.diameter", "plate", _plate, "as wide as the chuck and past its "
             "screws", 20, 590, by="copy", step=0.5,
             rests=("nose.circle", "nose.screw", "nose.bolting", "bolts.circle",
                    "bolts.screw", "bolts.bolting")),
        Size("plate.thickness", "thickness", _thick(nose),
             "stiff, with room for its screws", 6, 120, up=1,
             rests=("plate.diameter", nose, "nose.screw", "nose.bolting",
                    "bolts.screw", "bolts.bolting")),
        Size("hole.diameter", "hole through it", "up(spindle.bore + 1, 1)",
             "clear of the spindle's", 3, 300),
        *seat,
        *SPIGOT_SIZES,
        Size("nose.count", "spindle's screws", "spindle.bolts", "as its flange has", 2,
             12, COUNT, by="copy"),
        Size("nose.circle", "their circle", "spindle.bolt_circle", "as its flange has",
             10, 500, by="copy", step=0.01),
        Size("nose.screw", "which", "spindle.screw", "as the spindle takes",
             kind=TEXT),
        Size("nose.bolting", "spindle's screws go", "into",
             "from behind, screwed into the plate", kind=TEXT,
             choices=("into", "through")),
        Size("nose.turn", "turned from the chuck's screws", "180/nose.count",
             "half a pitch, degrees", 0, 180, kind=ANGLE),
        Size("bolts.count", "chuck's screws", "chuck.bolts", "as the chuck has", 2, 24,
             COUNT, by="copy"),
        Size("bolts.circle", "their circle", "chuck.bolt_circle", "as the chuck has",
             10, 550, by="copy", step=0.01),
        Size("bolts.screw", "which", "chuck.screw", "as the chuck takes", kind=TEXT),
        Size("bolts.bolting", "chuck's screws go", "through",
             "through the plate into the chuck", kind=TEXT,
             choices=("through", "into")),
    )  # fmt: skip


def spindle(*seat: MateSize, nose: Ring, surfaces: tuple[Surface, ...] = ()) -> Mate:
    """The spindle with its flange; seat: what of its nose is measured, surfaces: on
    what, where the kind of surface does not say it well enough; nose: as it stands in
    the plate."""
    flange = Ring("-spindle.flange/3", "0", "spindle.bore", "spindle.flange")
    return Mate("spindle", "the spindle", (
        *seat,
        MateSize("flange", "its flange", 92.0, ("shaft",)),
        MateSize("bolts", "screws in its flange", 3.0, kind=COUNT, aid="holes"),
        MateSize("bolt_circle", "their circle", 78.0, ("bolt-span", "bolt-circle")),
        MateSize("hole", "the holes in it", 9.0, ("bolt-hole", "hole"), True),
        MateSize("screw", "the screws in them", "M8", ("bolt-circle",), True,
                 by="hole", bolting="nose.bolting"),
        MateSize("bore", "its bore", 26.0, ("bore",)),
    ), around=(flange, nose), surfaces=surfaces)  # fmt: skip


CHUCK = chuck("plate.thickness")
CHUCK_FITS = (
    SPIGOT,
    FitSlot("bolts", "Chuck's screws", "bolts.circle", "chuck.bolt_circle", "hole",
            "bolts", "normal", step=0.01, tells=screws_told("bolts", "chuck"),
            centred="spigot", rests=("bolts.screw", "bolts.bolting", "chuck.bolts")),
)  # fmt: skip


def nose_screws(centred: str = "") -> FitSlot:
    """The fit of the spindle's screws; centred: the fit whose play they leave room
    for."""
    return FitSlot("nose", "Spindle's screws", "nose.circle", "spindle.bolt_circle",
                   "hole", "bolts", "normal", step=0.01,
                   tells=screws_told("nose", "spindle"), centred=centred,
                   rests=("nose.screw", "nose.bolting", "spindle.bolts"))  # fmt: skip


CAUTIONS = {
    "piece": "Keep to the maker's speed limit of chuck and plate.",
    "route": "See that every screw of the flange is home before the spindle turns.",
    "proof": "Lift the chuck with care: its edges are sharp and it is heavy.",
    "sheet": "Keep to the maker's speed limits of chuck and plate; every screw home.",
}
