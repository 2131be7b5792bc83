"""Back plate: carries a chuck on a threaded spindle nose.

z = 0 is the hub's end face, which seats on the spindle's shoulder; z grows towards
the chuck.
"""

from collections.abc import Iterable

from machinon.core.families._chuck_side import (
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
from machinon.core.families._tapped import bolt_thread_check
from machinon.core.families._threaded_nose import (
    UNWINDS,
    screwed_home,
    spindle_nose,
    threaded_checks,
    threaded_features,
    threaded_fits,
    threaded_sizes,
    threaded_steps,
)
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Check,
    Family,
    FitSlot,
    Holding,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.feature import Feature
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.hole_features import CrossHoles, Hole, HoleCircle, Holes
from machinon.core.piece.round_sizes import step_in, upwards
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Cylinder, End
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw

OVER = 1.0  # mm: stock over the hub's face
EDGE, EDGE_INTO = 2.0, 3.0  # mm: least metal outside of a head and a tapped hole
UNDER_HEAD = 0.8  # of the screw: least metal under its head; shop rule


def _old(s: Values) -> bool:
    """Whether it is made from a plate that has its hub, register and thread."""
    return bool(s["blank.kind"] == "old plate")


def _flange(s: Values) -> float:
    """A diameter as wide as the chuck, and past its screws."""
    screw = cap_screw(str(s["bolts.screw"]))
    into = tapped_for(s, "bolts")
    room = screw.tapping_drill + 2 * EDGE_INTO if into else screw.counterbore + 2 * EDGE
    past = upwards(s["bolts.circle"] + room, step_in(0.5, s["inch"]))
    return float(max(s["chuck.body"], past))


def _thick(s: Values) -> float:
    """Stiff, with metal under the screws' heads or enough for their thread."""
    screw, hole = cap_screw(str(s["bolts.screw"])), screw_hole(s, "bolts")
    under = hole.bore_depth + UNDER_HEAD * screw.diameter
    thread = material(str(s["material"])).engagement * screw.diameter
    needs = thread if tapped_for(s, "bolts") else under
    return float(max(s["flange.diameter"] / 12, 18.0, needs))


def _seat(s: Values) -> float:
    return float(s["hub.length"] + s["flange.thickness"])


def _long(s: Values) -> float:
    """Over all, from the seat on the nose's shoulder to the front of the spigot."""
    return _seat(s) + float(s["spigot.height"])


def _index_hole(s: Values) -> Hole:
    return Hole(s["ring.diameter"], s["ring.depth"])


def build(s: Values) -> Body:
    seat = _seat(s)
    length = _long(s)
    into = tapped_for(s, "bolts")
    over = 0.0 if _old(s) else OVER
    ring: list[Feature] = []
    if s["ring.count"]:
        hole = _index_hole(s)
        middle = s["hub.length"] + s["flange.thickness"] / 2
        wide, count = s["flange.diameter"], int(s["ring.count"])
        ring.append(CrossHoles("ring", middle, wide, hole, s["ring.depth"], count))
    return Body(
        Round(s["stock.diameter"], -over, s["stock.length"] - over),
        (
            End("hub_face", 0.0, "left"),
            Cylinder("hub", 0.0, s["hub.length"], s["hub.diameter"], shoulder="right"),
            Cylinder(
                "flange", s["hub.length"], seat, s["flange.diameter"], "thickness"
            ),
            Cylinder("spigot", seat, length, s["spigot.diameter"], "height", "left"),
            End("front", length, "right"),
            *threaded_features(s, length, length),
            Holes(
                "bolts",
                "right" if into else "left",
                HoleCircle(int(s["bolts.count"]), s["bolts.circle"]),
                screw_hole(s, "bolts"),
                s["flange.thickness"],
                level=seat if into else s["hub.length"],
            ),
            *ring,
        ),
    )


def checks(s: Values) -> Iterable[Check]:
    yield from _nose_checks(s)
    thread = thread_of(str(s["thread.thread"]))
    half, hole = s["bolts.circle"] / 2, screw_hole(s, "bolts").diameter
    yield from spigot_checks(s)
    yield at_least(
        "spigot-wall",
        "spigot",
        (s["spigot.diameter"] - thread.major) / 2,
        3.0,
        "Wall of the spigot over the thread bored through it",
    )
    yield at_least(
        "hole-bore",
        "bolts",
        half - (hole + thread.major) / 2,
        3.0,
        "Metal between the bolt holes and the bore",
    )
    yield at_least(
        "hole-spigot",
        "bolts",
        half - hole / 2 - s["spigot.diameter"] / 2,
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
    yield from _stock_checks(s)
    yield from _ring_checks(s)
    yield from _tapped_checks(s) if tapped_for(s, "bolts") else _head_checks(s)


def _nose_checks(s: Values) -> Iterable[Check]:
    length = _long(s)
    yield from threaded_checks(s, "nose", length)
    yield at_least(
        "nose-inside",
        "front",
        length - s["nose.length"],
        0.5,
        "Room between the end of the nose and the front of the spigot",
    )


def _stock_checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - _long(s),
        0.5 if _old(s) else 2.0,
        "Old plate over the length, to skim its register and face off"
        if _old(s)
        else "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - s["flange.diameter"],
        0.0 if _old(s) else 2.0,
        "Old plate over the flange" if _old(s) else "Stock over the flange to clean up",
    )


def _tapped_checks(s: Values) -> Iterable[Check]:
    """Of screws that go into the plate."""
    hole = screw_hole(s, "bolts")
    yield bolt_thread_check(s)
    yield at_least(
        "hole-edge",
        "bolts",
        (s["flange.diameter"] - s["bolts.circle"] - hole.diameter) / 2,
        EDGE_INTO,
        "Metal between the tapped holes and the flange's edge",
    )


def _head_checks(s: Values) -> Iterable[Check]:
    """Of screws that go through it, their heads sunk."""
    hole, screw = screw_hole(s, "bolts"), cap_screw(str(s["bolts.screw"]))
    circle = s["bolts.circle"]
    yield at_least(
        "heads-edge",
        "bolts",
        (s["flange.diameter"] - circle - hole.bore) / 2,
        EDGE,
        "Metal between the screw heads' counterbores and the flange's edge",
    )
    yield at_least(
        "heads-hub",
        "bolts",
        (circle - hole.bore - s["hub.diameter"]) / 2,
        0.5,
        "Room between the counterbores and the hub",
    )
    yield at_least(
        "under-head",
        "bolts",
        s["flange.thickness"] - hole.bore_depth,
        UNDER_HEAD * screw.diameter,
        f"Metal under the screw heads ({UNDER_HEAD:g} of the screw)",
    )


def _ring_checks(s: Values) -> Iterable[Check]:
    if not s["ring.count"]:
        return
    wide, count = s["flange.diameter"], int(s["ring.count"])
    answer = reckon(
        "index-ring",
        {"holes": count, "diameter": wide, "hole_diameter": s["ring.diameter"]},
    )
    yield at_least(
        "ring-land",
        "ring",
        float(answer["land"]),
        s["ring.diameter"] / 4,
        "Land between neighbours of the index ring (a quarter of a hole)",
    )
    yield at_least(
        "ring-rim",
        "ring",
        (s["flange.thickness"] - s["ring.diameter"]) / 2,
        1.5,
        "Rim on both sides of the index holes",
    )
    head = screw_hole(s, "bolts").bore or screw_hole(s, "bolts").diameter
    yield at_least(
        "ring-bolts",
        "ring",
        (wide - s["bolts.circle"] - head) / 2 - s["ring.depth"] - _index_hole(s).point,
        0.5,
        "Metal between the points of the index holes and the bolts",
    )


def _ring_holding(s: Values) -> tuple[Holding, ...]:
    if not s["ring.count"]:
        return ()
    turn = 360 / s["ring.count"]
    return (
        Holding(
            "ring",
            "mill",
            "On the dividing head, between its centre and the tailstock",
            "The index ring is drilled last, all in one setting: what it divides can "
            "be no better than it is.",
            (
                Step(
                    "drill",
                    ("ring",),
                    note=f"Every {round(turn, 4):g}°; keep the same hand on the crank, "
                    "and lock it for each hole. Drilled for the plunger that is there: "
                    "Piece compares it with your other plates.",
                    key="ring",
                ),
                Step("deburr", ("ring",), key="deburr-ring"),
            ),
        ),
    )


def _nose_side(s: Values) -> Holding:
    """Register, thread and shoulder in one chucking; of an old plate they are there."""
    if _old(s):
        return Holding(
            "old-plate",
            "lathe",
            "The old plate as it is",
            "Its register and thread are what it runs by: nothing that is cut later "
            "mends them.",
            (
                Step(
                    "prove",
                    ("register", "thread"),
                    title="Try the old plate on the nose, measure its register",
                    tool="bore gauge, the nose",
                    fit="register",
                    note="It has to screw home by hand and seat on the shoulder.",
                    caution="Belt off: an old thread may bind half way.",
                    key="prove-nose",
                ),
            ),
        )
    return _new_nose_side(s)


def _front(s: Values) -> Step:
    if _old(s):
        return Step(
            "face",
            ("front",),
            title="Skim the old register and the face off",
            note="Only until it is clean all over: what is left over the thread is all "
            "there is.",
            key="seat",
        )
    return Step("face", ("front",), title="Face the front", key="seat")


def _new_nose_side(s: Values) -> Holding:
    return Holding(
        "nose-side",
        "lathe",
        "In the chuck, nose side out",
        "The nose side comes first: register, thread and the face that seats on "
        "the shoulder are cut in one chucking, so they are true to each other.",
        (
            Step(
                "face",
                ("hub_face",),
                title="Face the hub end",
                caution="Hold at least 15 mm; keep the speed down for a rough blank.",
                key="face-hub",
            ),
            Step(
                "turn",
                ("hub",),
                title="Turn the hub and the back of the flange",
                key="hub",
            ),
            *threaded_steps(s),
        ),
        "jaws",
    )


def route(s: Values) -> tuple[Holding, ...]:
    into = tapped_for(s, "bolts")
    screw = cap_screw(str(s["bolts.screw"]))
    tapping = (
        f"This is the tapping drill for {screw.size}, not the clearance drill "
        f"({screw.normal:g})."
    )
    last = (
        Step(
            "tap",
            ("bolts",),
            fit="bolts",
            note="In the same set-up as the drill: the tap starts straight.",
            key="tap",
        )
        if into
        else Step(
            "counterbore",
            ("bolts",),
            fit="bolts",
            note="From the nose side.",
            caution="Clamp again after turning it over.",
            key="counterbore",
        )
    )
    return (
        _nose_side(s),
        Holding(
            "in-place",
            "lathe",
            "On its own spindle nose",
            "Spigot and seat are finished in place, on the spindle they will run on: "
            "whatever play the register leaves is cut out here.",
            (
                screwed_home("plate"),
                Step("turn", ("flange",), title="Turn the flange", key="flange"),
                ROUGHED,
                _front(s),
                *FINISHED,
            ),
        ),
        Holding(
            "holes",
            "mill",
            "On the drill or mill table, seat up",
            "Holes come last: the spigot is the centre they are laid out from, and a "
            "drilled flange would cut in and out.",
            (
                Step(
                    "drill",
                    ("bolts",),
                    fit="bolts",
                    note=tapping
                    if into
                    else "Read-out zero on the spigot; or on the rotary table, "
                    "screwed on a nose adapter.",
                    caution="Clamp it: a plate that grabs spins. Goggles on.",
                    key="holes",
                ),
                last,
                Step(
                    "deburr",
                    ("bolts",),
                    title="Break every edge, clean, mount the chuck",
                    key="deburr",
                ),
            ),
        ),
        *_ring_holding(s),
    )


def hardware(s: Values) -> Iterable[Hardware]:
    yield chuck_screws(s, "bolts", "chuck", s["flange.thickness"], "for the chuck")


FAMILY = Family(
    "back-plate",
    "Back plate",
    "Carries a chuck on a threaded spindle nose, spigot cut to the chuck's recess.",
    "for a three-jaw chuck of 130 mm on a nose M45 × 4.5",
    also="chuck adapter nose flange three-jaw four-jaw",
    sizes=(
        Size("blank.kind", "what it is made from", "new", "a casting or a slice of bar",
             kind=TEXT, choices=("new", "old plate")),
        Size("stock.diameter", "stock diameter", "up(flange.diameter + 4, 5)",
             "the flange and a clean-up", 10, 600),
        Size("stock.length", "stock length", "up(hub.length + flange.thickness "
             "+ spigot.height + 3, 5)", "the length and both faces", 5, 400),
        STOCK_BORE,
        Size("flange.diameter", "flange diameter", _flange,
             "as wide as the chuck, or as its screws need", 20, 600, by="copy",
             step=0.5, rests=("bolts.circle", "bolts.screw", "bolts.bolting")),
        Size("flange.thickness", "flange thickness", _thick,
             "a twelfth of the flange, at least 18, and what its screws need", 3, 100,
             up=0.5, rests=("flange.diameter", "bolts.screw", "bolts.bolting")),
        Size("hub.diameter", "hub diameter", "round(nose.register*1.5, 1)",
             "half as large again as the register", 12, 400),
        Size("hub.length", "hub length", "max(nose.length + 1.5 - flange.thickness "
             "- spigot.height, 5)", "so that the nose stays inside", 2, 150, step=0.5),
        *threaded_sizes("nose"),
        *SPIGOT_SIZES,
        Size("bolts.count", "bolts", "chuck.bolts", "as the chuck has", 2, 24, COUNT,
             by="copy"),
        Size("bolts.circle", "bolt circle", "chuck.bolt_circle", "as the chuck has", 10,
             550, by="copy", step=0.01),
        Size("bolts.screw", "screws", "chuck.screw", "as the chuck takes", kind=TEXT),
        Size("bolts.bolting", "where the screws go", "through",
             "through the plate into the chuck", kind=TEXT,
             choices=("through", "into")),
        Size("ring.count", "index holes in the rim", "0", "0 for none", 0, 400, COUNT),
        Size("ring.diameter", "index holes", "6", "for the plunger", 1, 30),
        Size("ring.depth", "depth of the index holes", "6", "", 1, 60),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        spindle_nose("nose"),
        chuck("hub.length + flange.thickness"),
    ),
    fits=(
        *threaded_fits("nose", "plate"),
        SPIGOT,
        FitSlot("bolts", "Bolts", "bolts.circle", "chuck.bolt_circle", "hole", "bolts",
                "normal", step=0.01, tells=screws_told("bolts", "chuck"),
                centred="spigot",
                rests=("bolts.screw", "bolts.bolting", "chuck.bolts")),
    ),
    runs=True,
    material="cast iron",
    full={"ring.count": "24", "flange.diameter": "145"},
    ways=({"bolts.bolting": "into"}, {"blank.kind": "old plate"}),
    surfaces={
        "register": "spigot.diameter",
        "register-length": "spigot.height",
        "recess": "register.diameter",
        "recess-depth": "register.depth",
        "shaft": "flange.diameter",
        "bolt-circle": "bolts.circle",
    },
    # one plunger serves all the plates of a shop
    alike=("ring.count", "ring.diameter", "ring.depth", "flange.diameter",
           "flange.thickness", "hub.length"),
    cautions={
        "piece": "Keep to the maker's speed limit of chuck and plate.",
        "route": UNWINDS,
        "proof": "Lift the chuck with care: its edges are sharp and it is heavy.",
        "sheet": f"Keep to the maker's speed limits of chuck and plate. {UNWINDS}",
    },
)  # fmt: skip
