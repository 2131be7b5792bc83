"""Cover: closes a housing round a shaft: a lip in the housing's bore, a flange outside,
a grooved hole for the shaft.

z = 0 is the outer face; the lip that pinches the bearing's ring is at the right.
"""

from collections.abc import Iterable

from machinon.core.families._tapped import thread_within
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    Chain,
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
from machinon.core.piece.hardware import Hardware, cap_screws
from machinon.core.piece.hole_features import Hole, HoleCircle, Holes
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Cylinder,
    End,
    FaceGroove,
    Groove,
)
from machinon.core.quantity import COUNT
from machinon.core.reckoning import TEXT
from machinon.core.threads.screws import cap_screw

OVER = 1.5  # mm: stock over each end
EDGE = 1.5  # mm: least metal outside of a screw's head


def _screw(s: Values) -> str:
    """A screw whose hole leaves metal beside the bore."""
    room = s["housing.circle"] - s["housing.bore"] - 2.0
    return thread_within(0.85 * room, "M5", "M4", "M3")


def _screwed(s: Values) -> bool:
    return bool(s["bolts.count"])


def _flange(s: Values) -> float:
    """Past the heads of its screws; a plain lip over the bore where it has none."""
    if not _screwed(s):
        return float(s["housing.bore"] + 6)
    head = cap_screw(str(s["bolts.screw"])).counterbore
    return float(s["housing.circle"] + head + 2 * EDGE + 1)


def _groove_at(s: Values) -> float:
    """Station of the middle of the groove in the hole."""
    return float((s["flange.thickness"] + s["lip.length"] - s["hollow.depth"]) / 2)


def build(s: Values) -> Body:
    thick, lip = s["flange.thickness"], s["lip.length"]
    long = thick + lip
    features: list[Feature] = [
        End("outer", 0.0, "left"),
        Cylinder("flange", 0.0, thick, s["flange.diameter"], "thickness"),
        Cylinder("lip", thick, long, s["lip.diameter"], shoulder="left"),
        End("inner", long, "right"),
        Bore("hole", 0.0, long, s["hole.diameter"], "length"),
        Bevel("lead", long, s["lip.diameter"], 0.5, "right"),
    ]
    if s["hollow.depth"]:
        features.append(
            Bore("hollow", long - s["hollow.depth"], long, s["hollow.diameter"],
                 opens="right")
        )  # fmt: skip
    if s["trepan.depth"]:
        features.append(
            FaceGroove("trepan", 0.0, "left", s["trepan.inner"], s["trepan.outer"],
                       s["trepan.depth"])
        )  # fmt: skip
    if s["groove.width"]:
        middle, half = _groove_at(s), s["groove.width"] / 2
        features.append(
            Groove("groove", middle - half, middle + half, s["groove.diameter"],
                   inside=True)
        )  # fmt: skip
    if _screwed(s):
        screw = cap_screw(str(s["bolts.screw"]))
        hole = Hole(screw.normal, sink=0.0)
        pattern = HoleCircle(int(s["bolts.count"]), s["bolts.circle"])
        features.append(Holes("bolts", "left", pattern, hole, thick, level=0.0))
    return Body(
        Round(s["stock.diameter"], long + OVER - s["stock.length"], long + OVER),
        tuple(features),
    )


def checks(s: Values) -> Iterable[Check]:
    wall = (s["lip.diameter"] - max(
        s["hole.diameter"], s["hollow.diameter"] if s["hollow.depth"] else 0.0,
        s["groove.diameter"] if s["groove.width"] and not s["hollow.depth"] else 0.0)
    ) / 2  # fmt: skip
    yield at_least("lip-wall", "lip", wall, 1.5, "Wall of the lip")
    yield at_least(
        "clears-shaft",
        "hole",
        s["hole.diameter"] - s["shaft.diameter"],
        0.2,
        "Hole over the shaft: it closes, it does not guide",
    )
    yield at_least(
        "flange-seats",
        "flange",
        (s["flange.diameter"] - s["lip.diameter"]) / 2,
        1.5,
        "Flange over the housing's bore",
    )
    yield at_least(
        "pinches-ring",
        "lip",
        (s["lip.diameter"] - s["housing.ring_bore"]) / 2,
        1.0,
        "Lip on the outer ring's face",
    )
    opening, over = ("hollow", "Hollow") if s["hollow.depth"] else ("hole", "Hole")
    yield at_least(
        "ring-free",
        opening,
        s[f"{opening}.diameter"] - s["housing.inner_ring"],
        1.0,
        f"{over} over the inner ring, which turns",
    )
    if s["hollow.depth"]:
        yield at_least(
            "floor",
            "hollow",
            s["flange.thickness"] + s["lip.length"] - s["hollow.depth"],
            1.5,
            "Floor left over the hollow",
        )
    if s["groove.width"]:
        land = (s["flange.thickness"] + s["lip.length"] - s["hollow.depth"]
                - s["groove.width"]) / 2  # fmt: skip
        yield at_least(
            "groove-lands", "groove", land, 0.8, "Land on both sides of the groove"
        )
    if s["trepan.depth"]:
        yield at_least(
            "trepan-floor",
            "trepan",
            s["flange.thickness"] - s["trepan.depth"],
            1.0,
            "Metal under the groove in the face",
        )
        yield at_least(
            "trepan-wide",
            "trepan",
            (s["trepan.outer"] - s["trepan.inner"]) / 2,
            1.0,
            "Width of the groove in the face, for its tool",
        )
        yield at_least(
            "trepan-hole",
            "trepan",
            (s["trepan.inner"] - s["hole.diameter"]) / 2,
            1.0,
            "Metal between the groove in the face and the hole",
        )
        if s["groove.width"] and s["groove.diameter"] > s["trepan.inner"] - 2:
            yield at_least(
                "trepan-groove",
                "trepan",
                _groove_at(s) - s["groove.width"] / 2 - s["trepan.depth"],
                1.0,
                "Metal between the groove in the face and that in the hole",
            )
    if _screwed(s):
        screw = cap_screw(str(s["bolts.screw"]))
        head = screw.counterbore
        yield at_least(
            "heads-edge",
            "bolts",
            (s["flange.diameter"] - s["bolts.circle"] - head) / 2,
            EDGE,
            "Flange outside of the screws' heads",
        )
        yield at_least(
            "holes-lip",
            "bolts",
            (s["bolts.circle"] - screw.normal - s["lip.diameter"]) / 2,
            1.0,
            "Metal between the screws and the lip",
        )
        if s["trepan.depth"]:
            yield at_least(
                "heads-trepan",
                "bolts",
                (s["bolts.circle"] - head - s["trepan.outer"]) / 2,
                0.5,
                "Face between the screws' heads and the groove in it",
            )
        yield at_least(
            "flange-thin",
            "flange",
            s["flange.thickness"],
            0.6 * screw.diameter,
            "Thickness of the flange under the heads (0.6 of the screw)",
        )


def route(s: Values) -> tuple[Holding, ...]:
    hollow = (Step("bore", ("hollow",)),) if s["hollow.depth"] else ()
    groove = (Step("groove", ("groove",), note="Filled with grease or felt it keeps "
                   "the dirt out."),) if s["groove.width"] else ()  # fmt: skip
    trepan = (Step("groove", ("trepan",), title="Cut the groove in the face",
                   tool="trepanning tool", note="Relieved on its outer side, or it "
                   "rubs; slow."),) if s["trepan.depth"] else ()  # fmt: skip
    bolts = (
        Holding(
            "bolts",
            "mill",
            "On the table, outer face up",
            "The housing's own circle.",
            (Step("drill", ("bolts",)),),
        ),
    ) if _screwed(s) else ()  # fmt: skip
    return (
        Holding(
            "inner",
            "lathe",
            "In the chuck, lip out",
            "Lip, hole and the flange's inner face in one chucking.",
            (
                Step("face", ("inner",), of="the inner side"),
                Step("drill", ("hole",), leaves=0.5),
                Step("bore", ("hole",)),
                *hollow,
                *groove,
                Step("turn", ("flange",)),
                Step("turn", ("lip",), fit="lip", note="Its length is cut last, "
                     "against the chain: the lip must pinch the ring before the "
                     "flange seats."),
                Step("bevel", ("lead",)),
                Step("prove", ("lip",), title="Try it in the housing", hold=True,
                     tool="the housing", fit="lip"),
            ),
            "jaws",
        ),
        Holding(
            "outer",
            "lathe",
            "Turned round, by the flange in soft jaws",
            "Little holds it: light cuts, or it bows.",
            (
                Step("face", ("outer",), title="Face to its thickness"),
                *trepan,
            ),
        ),
        *bolts,
        Holding("last", "bench", "Off the machine", "Nothing sharp near a seal.",
                (Step("deburr", ()),)),
    )  # fmt: skip


def hardware(s: Values) -> Iterable[Hardware]:
    if _screwed(s):
        yield cap_screws(
            str(s["bolts.screw"]),
            s["bolts.count"],
            "for the housing",
            s["flange.thickness"],
            at="bolts",
        )


FAMILY = Family(
    "housing-cover",
    "Housing cover",
    "Closes a housing round a shaft: lip in its bore, pinching the bearing's ring.",
    "for a housing of 52 mm bore and a shaft of 25 mm",
    also="bearing cap end cap retainer lid press fit slip fit flange plate",
    sizes=(
        Size("stock.diameter", "stock diameter", "up(flange.diameter + 2, 1)",
             "a clean-up", 10, 520),
        Size("stock.length", "stock length",
             "up(flange.thickness + lip.length + 12, 1)", "and what the jaws hold", 6,
             200),
        STOCK_BORE,
        Size("flange.diameter", "flange", _flange, "past the screws' heads", 10, 500,
             rests=("bolts.count", "bolts.screw"), up=1),
        Size("flange.thickness", "thickness of the flange", "5", "", 1.5, 60),
        Size("lip.diameter", "lip", "housing.bore", low=8, high=450),
        Size("lip.length", "length of the lip", "0", low=1, high=80, step=0.01),
        Size("hole.diameter", "hole for the shaft", "up(shaft.diameter + 0.5, 0.5)",
             "clear of it", 2, 400),
        Size("hollow.diameter", "hollow", "up(housing.inner_ring + 2, 1)",
             "over the inner ring", 0, 420),
        Size("hollow.depth", "depth of the hollow", "1.5", "0 for none", 0, 60),
        Size("groove.width", "groove in the hole", "2", "0 for none", 0, 30),
        Size("groove.diameter", "floor of that groove", "hole.diameter + 4", "two deep",
             2, 420),
        Size("trepan.depth", "groove in the outer face", "0", "0 for none", 0, 30),
        Size("trepan.inner", "that groove inside", "hole.diameter + 4", "", 3, 450),
        Size("trepan.outer", "that groove outside", "trepan.inner + 4", "", 4, 460),
        Size("bolts.count", "screws", "housing.bolts", "as the housing has; 0 pressed",
             0, 12, COUNT, by="copy"),
        Size("bolts.circle", "their circle", "housing.circle", "as the housing has", 8,
             480, by="copy", step=0.01),
        Size("bolts.screw", "which", _screw, "between the bore and their circle",
             kind=TEXT),
    ),
    build=build,
    route=route,
    checks=checks,
    hardware=hardware,
    mates=(
        Mate("housing", "the housing", (
            MateSize("bore", "its bore", 52.02, ("bore", "recess")),
            MateSize("depth", "from its face to the ring", 6.0,
                     ("recess-depth", "depth")),
            MateSize("ring_bore", "inside of the outer ring", 45.0),
            MateSize("inner_ring", "outside of the inner ring", 32.0),
            MateSize("bolts", "screws in it", 4.0, kind=COUNT),
            MateSize("circle", "their circle", 64.0),
        ), around=(
            Ring("lip.begins", "lip.begins + 2.5*housing.depth", "housing.bore",
                 "max(flange.diameter, 1.3*housing.bore)"),
            Ring("lip.begins + housing.depth", "lip.begins + 2.5*housing.depth",
                 "housing.ring_bore", "housing.bore"),
            Ring("lip.begins + housing.depth", "lip.begins + 2.5*housing.depth",
                 "shaft.diameter", "housing.inner_ring"),
        )),
        Mate("shaft", "the shaft", (
            MateSize("diameter", "its diameter", 25.0, ("shaft",)),
        ), around=(
            Ring("-shaft.diameter/2", "lip.begins + 3*housing.depth",
                 outside="shaft.diameter"),
        )),
        Mate("pinch", "the pinch on the ring", (
            MateSize("least", "least", 0.02),
            MateSize("most", "most", 0.08),
        )),
    ),
    fits=(
        FitSlot("lip", "Lip in the housing", "lip.diameter", "housing.bore", "hole",
                "register", "slides"),
    ),
    chains=(
        Chain("pinch", "Lip on the ring", "lip.length", (("housing.depth", 1),),
              "pinch.least", "pinch.most", over=True, step=0.01),
    ),
    full={"trepan.depth": "2"},
    ways=({"bolts.count": "0", "hollow.depth": "0", "hole.diameter": "34"},),
    surfaces={"register": "lip.diameter", "register-length": "lip.length"},
)  # fmt: skip
