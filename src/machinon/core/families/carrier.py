"""Carrier: a chuck without a shank is bonded into it, and it is bolted to a back plate.

z = 0 is the rear face, which seats on the plate; z grows to the front, where the chuck
goes in.
"""

from collections.abc import Iterable

from machinon.core.errors import BadInput
from machinon.core.families._tapped import run_out, tapped, thread_within
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
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
    spoken,
)
from machinon.core.piece.hardware import (
    Hardware,
    cap_screws,
    set_screws,
    sold_as,
    with_unit,
)
from machinon.core.piece.hole_features import CrossHoles, Hole, HoleCircle, Holes
from machinon.core.piece.shown import Shown
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import Bore, Cylinder, End, Groove
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT, Answer, reckon
from machinon.core.setting_out.bolt_circle import hole_points
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw
from machinon.core.threads.tapping import drill_named, drill_under

OVER = 1.5  # mm: stock over each end
UNDER = 0.5  # mm to a side: the bore is left under size until it turns on its spindle
DIMPLED = 0.5  # of a grub screw: the least wall that its dimple goes into
CLEAR = 2.0  # mm: least bore between a grub screw and an end of it


def _thread_depth(s: Values) -> float:
    """Depth that the metal asks of a screw's thread."""
    screw = cap_screw(str(s["bolts.screw"]))
    return round(material(str(s["material"])).engagement * screw.diameter)


def _tapped(s: Values) -> Hole:
    screw = cap_screw(str(s["bolts.screw"]))
    deep = s["bolts.depth"]
    return Hole(
        screw.tapping_drill,
        depth=deep + run_out(screw.size),
        thread=screw.size,
        thread_depth=deep,
    )


def _grub(s: Values) -> Hole:
    return tapped(str(s["grubs.thread"]))


def _grub_thread(s: Values) -> str:
    """M6, or what the wall of the chuck bears a dimple for."""
    return thread_within(s["held.wall"] / DIMPLED, "M6", "M5", "M4", "M3")


def _dimple(s: Values) -> Answer | BadInput:
    """The dimples that the grub screws stand in, and how long these are; or why the
    walls do not let them."""
    given = {
        "screw": s["grubs.thread"],
        "body": s["held.outside"],
        "wall": s["held.wall"],
        "around": (s["body.diameter"] - s["bore.diameter"]) / 2,
        "screws": int(s["bolts.count"]),
    }
    try:
        return reckon("screw-dimple", given)
    except BadInput as error:
        return error


def _dimpled(s: Values) -> Step:
    """Drilling of the dimples through the tapped holes without harming their thread."""
    title, tool = "Spot a dimple through each tapped hole", "drill and stop"
    found = _dimple(s)
    if isinstance(found, BadInput):
        note = found.message
        return Step("mount", (), title=title, note=note, tool=tool, key="dimple")
    drill = drill_under(_grub(s).diameter - 0.1, s["inch"])
    deep = (found["depth_lower"] + found["depth_upper"]) / 2
    wall = (s["body.diameter"] - s["bore.diameter"]) / 2
    return Step(
        "mount",
        (),
        title=title,
        note=f"A drill of {drill_named(drill)} goes through the thread without "
        f"touching it: {wall + deep:.1f} mm deep in all from the outside, {deep:.1f} "
        f"mm of it in the chuck. Cone-point screws {s['grubs.thread']} × "
        f"{sold_as(found['length'])} then end under the outside.",
        tool=tool,
        key="dimple",
        figures=(
            Shown("Drill", drill_named(drill), TEXT),
            Shown("Deep in all", wall + deep, step=0.1),
            Shown("of it in the chuck", deep, step=0.1),
        ),
    )


def _floor(s: Values) -> float:
    """Station of the floor of the bore, z."""
    return float(s["body.length"] - s["bore.depth"])


def _groove_count(s: Values) -> int:
    """Two, where a grub screw has room between them; one, where it has room beside
    it."""
    grub = thread_of(str(s["grubs.thread"])).major
    if s["bore.depth"] / 3 - s["grooves.width"] >= grub + 1:
        return 2
    return 1 if s["bore.depth"] / 4 - grub / 2 >= CLEAR else 0


def _grub_place(s: Values) -> float:
    """The middle of the bore, or of the land before it where a groove is there."""
    middle, count = s["body.length"] - s["bore.depth"] / 2, int(s["grooves.count"])
    return float(middle + (count % 2) * s["bore.depth"] / (count + 1) / 2)


def _grooves(s: Values) -> list[Groove]:
    """Grooves that keep the compound, evenly along the bore."""
    count, wide = int(s["grooves.count"]), s["grooves.width"]
    floor, deep = _floor(s), s["grooves.depth"]
    step = s["bore.depth"] / (count + 1)
    return [
        Groove(
            f"groove{i}",
            floor + i * step - wide / 2,
            floor + i * step + wide / 2,
            s["bore.diameter"] + 2 * deep,
            inside=True,
        )
        for i in range(1, count + 1)
    ]


def build(s: Values) -> Body:
    long, count = s["body.length"], int(s["bolts.count"])
    floor, circle = _floor(s), HoleCircle(count, s["bolts.circle"])
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER),
        (
            End("rear_face", 0.0, "left"),
            Cylinder("body", 0.0, long, s["body.diameter"]),
            End("front", long, "right"),
            Bore("register", 0.0, s["register.depth"], s["register.diameter"],
                 opens="left"),
            Bore("through", 0.0, long, s["through.diameter"], "length"),
            Bore("bore", floor, long, s["bore.diameter"], opens="right"),
            *_grooves(s),
            Holes("bolts", "left", circle, _tapped(s), floor),
            CrossHoles("grubs", s["grubs.from_end"], s["body.diameter"], _grub(s),
                       (s["body.diameter"] - s["bore.diameter"]) / 2, count,
                       90.0 + 180.0 / count),
        ),
    )  # fmt: skip


def checks(s: Values) -> Iterable[Check]:
    yield from _bolt_checks(s)
    yield from _grub_checks(s)
    yield from _bore_checks(s)
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - s["body.diameter"],
        2.0,
        "Stock over the outside to clean up",
    )
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - s["body.length"],
        2 * OVER,
        "Stock over the length to face both ends",
    )


def _bolt_checks(s: Values) -> Iterable[Check]:
    screw, circle = cap_screw(str(s["bolts.screw"])), s["bolts.circle"]
    yield at_least(
        "bolts-bore",
        "bolts",
        (circle - screw.diameter - s["bore.diameter"]) / 2,
        2.0,
        "Metal between the bolts' threads and the bore",
    )
    yield at_least(
        "bolts-edge",
        "bolts",
        (s["body.diameter"] - circle - screw.diameter) / 2,
        3.0,
        "Metal between the bolts' threads and the outside",
    )
    yield at_least(
        "bolts-register",
        "bolts",
        (circle - screw.diameter - s["register.diameter"]) / 2,
        2.0,
        "Metal between the bolts' threads and the register",
    )


def _grub_checks(s: Values) -> Iterable[Check]:
    grub, screw = thread_of(str(s["grubs.thread"])), cap_screw(str(s["bolts.screw"]))
    deep = _tapped(s).depth or 0.0
    _, y = hole_points(2 * int(s["bolts.count"]), s["bolts.circle"])[1]
    # the axis of a grub screw passes half a pitch beside the nearest bolt
    beside = y - (screw.diameter + grub.major) / 2
    along = s["grubs.from_end"] - grub.major / 2 - deep
    yield at_least(
        "grubs-bolts",
        "grubs",
        max(beside, along),
        1.5,
        "Metal between a grub screw and the bolts' holes beside or behind it",
    )
    yield at_least(
        "grub-thread",
        "grubs",
        (s["body.diameter"] - s["bore.diameter"]) / 2,
        1.2 * grub.major,
        "Wall that a grub screw's thread is in (1.2 times the screw)",
    )
    front = s["body.length"] - s["grubs.from_end"]
    dimple = _dimple(s)
    if isinstance(dimple, BadInput):
        yield Check("grub-long", "grubs", False, dimple.message, grave=False)
    else:
        yield at_least(
            "grub-long",
            "grubs",
            float(dimple["engaged"]),
            0.8 * grub.major,
            f"Thread that a grub screw of {dimple['length']:g} mm is held by",
            grave=False,
        )
    yield at_least(
        "grubs-in-the-bore",
        "grubs",
        min(s["grubs.from_end"] - _floor(s), front) - grub.major / 2,
        CLEAR,
        "Grub screws clear of both ends of the bore",
    )
    for groove in _grooves(s):
        middle = (groove.start + groove.end) / 2
        yield at_least(
            f"grubs-{groove.name}",
            "grubs",
            abs(s["grubs.from_end"] - middle) - (grub.major + s["grooves.width"]) / 2,
            0.5,
            f"Bore between a grub screw and {spoken(groove.name)}, which would fill "
            "its thread with the compound",
            grave=False,
        )


def _bore_checks(s: Values) -> Iterable[Check]:
    yield at_least(
        "web",
        "through",
        _floor(s) - s["register.depth"],
        4.0,
        "Web left behind the bore",
    )
    yield at_least(
        "web-over-hole",
        "through",
        (min(s["bore.diameter"], s["register.diameter"]) - s["through.diameter"]) / 2,
        1.5,
        "Shoulder of the bore that the chuck stands on",
    )
    yield at_least(
        "grip",
        "bore",
        s["bore.depth"],
        0.5 * s["bore.diameter"],
        "Length that the chuck is held on (half of its diameter)",
    )
    if s["grooves.count"]:
        room = s["bore.depth"] / (s["grooves.count"] + 1) - s["grooves.width"]
        yield at_least(
            "groove-lands",
            "bore",
            room,
            3.0,
            "Land of the bore between grooves",
        )
    yield at_least(
        "register-guides",
        "register",
        s["register.depth"],
        2.5,
        "Depth of the register, so that it guides",
    )


def route(s: Values) -> tuple[Holding, ...]:
    grooves = [
        Step(
            "groove",
            (groove.name,),
            title="Groove the bore, "
            f"{s['body.length'] - (groove.start + groove.end) / 2:.1f} mm "
            "from the front",
            note="To its middle; it keeps the compound that would be wiped out.",
        )
        for groove in _grooves(s)
    ]
    return (
        Holding(
            "rear",
            "lathe",
            "In the chuck, rear end out",
            "Rear face and register are cut in one chucking, so they are square to "
            "each other. The plate's spigot is cut to this register, not the other way "
            "round: a spigot is easier to measure and to sneak up on.",
            (
                Step("face", ("rear_face",), note="A sawn or hardened end: keep the "
                     "speed down until it is through the skin."),
                Step("drill", ("through",), of="through", leaves=0.5),
                Step("bore", ("through",), of="through"),
                Step("bore", ("register",), note="Near its size will do: what it came "
                     "to rules the plate's spigot."),
                Step(
                    "prove",
                    ("register",),
                    title="Measure the register and write it down in Proof",
                    tool="bore gauge",
                    note="Before it leaves the chuck, at three places and two depths.",
                    key="read-register",
                ),
            ),
            "jaws",
        ),
        Holding(
            "bolts",
            "mill",
            "On the drill or mill table, rear up",
            "The register is the centre that the bolts are laid out from.",
            (
                Step("drill", ("bolts",), caution="Clamp it: it grabs as it enters."),
                Step("tap", ("bolts",), note="In the set-up of the drill."),
            ),
        ),
        Holding(
            "in-place",
            "lathe",
            "Bolted to its own plate, on the spindle",
            "The bore is left under size until here: it is finished turning on the "
            "spindle it will run on, so that it runs as true as the bearings do.",
            (
                Step(
                    "mount",
                    (),
                    title="Bolt it to its plate, indicate the outside",
                    tool="indicator",
                    caution="A threaded nose unwinds under braking or reverse.",
                    key="mount-on-plate",
                ),
                Step("face", ("front",)),
                Step("turn", ("body",)),
                Step("bore", ("bore",), leaves=UNDER, title="Rough the bore, "
                     f"{2 * UNDER:g} mm under size", key="rough-bore"),
                *grooves,
                Step("bore", ("bore",), title="Finish the bore to its band",
                     fit="bore", note="Equal light cuts; the gap is the compound's.",
                     key="bore"),
                Step(
                    "prove",
                    ("bore",),
                    title="Try the chuck dry before the carrier comes off",
                    tool="the chuck itself",
                    hold=True,
                    fit="bore",
                    note="It drops home on the web and does not tip.",
                    key="prove-bore",
                ),
            ),
        ),
        Holding(
            "grubs",
            "mill",
            "On its side in vee blocks or a dividing head",
            "Grub screws go half a pitch between the bolts, through the bored wall.",
            (
                Step("drill", ("grubs",)),
                Step("tap", ("grubs",)),
                Step("deburr", ("bore",), title="Break every edge, chase the threads"),
                Step(
                    "bond",
                    (),
                    title="Bond the chuck in, grub screws finger-tight",
                    note="Seconds are left to place it: have a stop ready. Leave it on "
                    "the spindle, turning by hand, until it holds.",
                    key="bond",
                ),
                _dimpled(s),
            ),
        ),
        Holding(
            "tight",
            "lathe",
            "On the spindle it will run on",
            "Its own bolts are what a tool can hold it by, in either direction.",
            (_pegged(s),),
        ),
    )  # fmt: skip


def _pegged(s: Values) -> Step:
    """A tool that sits in the heads of the bolts, to screw the whole on and off."""
    key = cap_screw(str(s["bolts.screw"])).key
    return Step(
        "mount",
        (),
        title=f"A peg tool for its bolt heads: pegs to {with_unit(key)} sockets on "
        f"⌀{s['bolts.circle']:g}",
        tool="peg tool",
        note="It sits in the sockets, so it turns both ways. A spindle without a lock "
        "is held by a strap round the plate, or hard wood between chuck jaws and bed; "
        "never by a gear's tooth.",
        caution="Drive off at the switch; the tool out before it is on again.",
        key="peg-tool",
        figures=(
            Shown("Sockets", with_unit(key), TEXT),
            Shown("On ⌀", s["bolts.circle"]),
        ),
    )


def hardware(s: Values) -> Iterable[Hardware]:
    bolts = s["bolts.count"]
    yield cap_screws(str(s["bolts.screw"]), bolts, "from the plate")
    found = _dimple(s)
    if not isinstance(found, BadInput):
        long = float(found["length"])
        yield set_screws(
            str(s["grubs.thread"]), bolts, "cone point, for the dimples", long, "grubs"
        )


FAMILY = Family(
    "carrier",
    "Chuck carrier",
    "Holds a chuck that has no shank: bonded in, pinned by grub screws, on a plate.",
    "for a collet chuck of 60 mm, outside 100 mm",
    also="collet shankless adapter body holder spindle chuck",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(body.diameter + 3, 1)",
             "a clean-up", 20, 520),
        Size("stock.length", "stock length", "up(body.length + 4, 1)", "both faces",
             10, 500),
        STOCK_BORE,
        Size("body.diameter", "outside", "up(held.outside + 40, 5)",
             "room for bolts and grub screws in its wall", 20, 500),
        Size("body.length", "length", "bore.depth + 8 + register.depth",
             "the bore, a web of 8 and the register", 10, 400, step=0.5),
        Size("register.diameter", "register at the rear",
             "round(bolts.circle - 16, 1)", "inside of the bolts", 10, 400),
        Size("register.depth", "depth of the register", "4", "", 1, 50, step=0.1),
        Size("through.diameter", "hole through the web",
             "min(held.outside/2, register.diameter - 6, 20)",
             "to push the chuck out, or for a draw tube", 3, 200, step=0.5),
        Size("bore.diameter", "bore for the chuck", "held.outside", low=8, high=300),
        Size("bore.depth", "depth of the bore", "held.length",
             "as long as the chuck is held", 4, 300, by="copy", step=0.5),
        Size("grooves.count", "grooves evenly along the bore", _groove_count,
             "two, or fewer in a short bore", 0, 4, COUNT,
             rests=("bore.depth", "grooves.width", "grubs.thread")),
        Size("grooves.width", "width of a groove", "2", "", 0.5, 10,
             at="groove1.width"),
        Size("grooves.depth", "depth of a groove", "0.4", "", 0.1, 3),
        Size("bolts.count", "bolts", "4", "", 3, 12, COUNT),
        Size("bolts.circle", "bolt circle",
             "round((body.diameter + bore.diameter)/2, 1)", "the middle of the wall",
             10, 480),
        Size("bolts.screw", "bolts' screws", "M6", kind=TEXT),
        Size("bolts.depth", "depth of the bolts' thread", _thread_depth,
             "what the metal asks", 3, 100, rests=("bolts.screw",)),
        Size("grubs.thread", "grub screws", _grub_thread, "whose dimple half the "
             "chuck's wall bears", kind=TEXT, rests=("held.wall",)),
        Size("grubs.from_end", "grub screws from the rear", _grub_place,
             "the middle of the bore, beside the grooves", 3, 400, step=0.5,
             rests=("body.length", "bore.depth", "grooves.count")),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("held", "the chuck without a shank", (
            MateSize("outside", "its body", 60.0, ("shaft", "register")),
            MateSize("length", "length that goes in", 40.0, ("shoulder", "length")),
            MateSize("wall", "its wall under the screws", 8.0, ("thickness",), True),
        ), seats="body.length - bore.depth"),
    ),
    fits=(
        FitSlot("bore", "Chuck bonded into the carrier", "bore.diameter",
                "held.outside", "shaft", "bond", "bond-usual"),
    ),
    runs=True,
    ways=({"grooves.count": "0"},),
    surfaces={
        "recess": "register.diameter",
        "recess-depth": "register.depth",
        "shaft": "body.diameter",
        "bolt-circle": "bolts.circle",
    },
    cautions={
        "proof": "Spindle locked or belt off before the chuck is tried in its bore.",
    },
)  # fmt: skip
