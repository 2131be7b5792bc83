"""The back plate: its sizes, its shape, and the checks that can fail.

Along the axis z = 0 is the hub's end face, which seats on the spindle's
shoulder; z grows towards the chuck.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import msgspec

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.materials import material
from machinon.core.piece.family import Check
from machinon.core.shop.things import Lathe
from machinon.core.threads.screw_thread import Thread
from machinon.core.threads.screws import CapScrew, cap_screw
from machinon.core.threads.thread_limits import with_class

Bolting = Literal["through", "into"]


class BackPlate(msgspec.Struct, frozen=True, tag="back plate"):
    """The sizes a person sets; mm. None: follows the fit that rules it, or for the
    number of bolts: not said yet.

    bolting: "through" the plate into the chuck (heads in counterbores on the
    nose side) or "into" the plate (tapped; heads in the chuck).
    """

    material: str = "cast iron"
    stock_diameter: float = 140.0
    stock_length: float = 45.0
    flange_diameter: float = 130.0
    flange_thickness: float = 18.0
    hub_diameter: float = 72.0
    hub_length: float = 17.0
    register_bore: float | None = None
    register_depth: float = 13.0
    spigot_diameter: float | None = None
    spigot_height: float = 3.5
    bolts: int | None = None
    bolt_circle: float | None = None
    bolt_size: str = "M8"
    bolting: Bolting = "through"


@dataclass(frozen=True, slots=True)
class Parameter:
    """A size that can be typed on the drawing: its name and range, mm."""

    key: str
    name: str
    low: float
    high: float
    fit: int = 0  # number of the fit that rules it, 0: none


PARAMETERS: Mapping[str, Parameter] = {
    p.key: p
    for p in (
        Parameter("stock_diameter", "stock diameter", 10, 600),
        Parameter("stock_length", "stock length", 5, 400),
        Parameter("flange_diameter", "flange diameter", 20, 600),
        Parameter("flange_thickness", "flange thickness", 3, 100),
        Parameter("hub_diameter", "hub diameter", 12, 400),
        Parameter("hub_length", "hub length", 2, 150),
        Parameter("register_bore", "register bore", 5, 250, 1),
        Parameter("register_depth", "depth of the register bore", 1, 100),
        Parameter("spigot_diameter", "spigot diameter", 5, 500, 3),
        Parameter("spigot_height", "spigot height", 0.5, 50),
        Parameter("bolt_circle", "bolt circle", 10, 550, 4),
    )
}


def with_size(plate: BackPlate, key: str, typed: str, inch: bool) -> BackPlate:
    """The plate with one size changed as typed. Raises BadInput on `key`.

    Nothing typed puts a size that a fit rules back under its fit.
    """
    if key == "bolts":
        count = quantity.parse(typed, quantity.COUNT, key=key, low=2, high=24)
        return msgspec.structs.replace(plate, bolts=int(count))
    if key == "bolt_size":
        return msgspec.structs.replace(plate, bolt_size=cap_screw(typed, key).size)
    if key == "bolting":
        return msgspec.structs.replace(
            plate, bolting="into" if typed.strip() == "into" else "through"
        )
    if key == "material":
        return msgspec.structs.replace(plate, material=material(typed.strip()).name)
    one = PARAMETERS[key]
    if one.fit and not typed.strip():
        return msgspec.structs.replace(plate, **{key: None})
    try:
        value = quantity.parse(typed, inch=inch, key=key, low=one.low, high=one.high)
    except BadInput as error:
        raise BadInput(key, f"{one.name}: {error.message}") from None
    return msgspec.structs.replace(plate, **{key: value})


@dataclass(frozen=True, slots=True)
class Plate:
    """A back plate with every size known, and what it is made to fit; mm."""

    material: str
    stock_diameter: float
    stock_length: float
    flange_diameter: float
    flange_thickness: float
    hub_diameter: float
    hub_length: float
    register_bore: float
    register_depth: float
    thread: Thread
    thread_class: str
    thread_bore: float
    spigot_diameter: float
    spigot_height: float
    bolts: int
    bolt_circle: float
    screw: CapScrew
    bolting: Bolting
    nose_length: float
    nose_register_length: float
    recess: float
    recess_depth: float

    @property
    def thread_words(self) -> str:
        """Its thread as written in a record."""
        return with_class(self.thread, self.thread_class)

    @property
    def seat(self) -> float:
        """Where the chuck's rear face seats, z."""
        return self.hub_length + self.flange_thickness

    @property
    def length(self) -> float:
        return self.seat + self.spigot_height

    @property
    def hole(self) -> float:
        """Diameter of the bolt holes as drilled through the flange."""
        return (
            self.screw.normal
            if self.bolting == "through"
            else (self.screw.tapping_drill)
        )

    @property
    def under_head(self) -> float:
        """Metal left under a screw's head."""
        return self.flange_thickness - self.screw.counterbore_depth


def _check(
    key: str, place: str, have: float, need: float, says: str, grave: bool = True
) -> Check:
    return Check(
        key,
        place,
        have >= need - 1e-9,
        f"{says}: {have:.1f} mm, at least {need:.1f} mm wanted.",
        grave,
        have,
        need,
    )


def checks_of(plate: Plate, lathe: Lathe) -> tuple[Check, ...]:
    """What could go wrong with this plate on this lathe, before metal is cut.

    Source: geometry; the margins are shop rules, each said in its check.
    """
    out = [
        _check(
            "wall",
            "hub",
            (plate.hub_diameter - plate.thread.major) / 2,
            max(6.0, plate.thread.major / 6),
            "Wall of the hub over the thread (a sixth of the thread)",
        ),
        _check(
            "wall-register",
            "register_bore",
            (plate.hub_diameter - plate.register_bore) / 2,
            max(5.0, plate.register_bore / 8),
            "Wall of the hub over the register",
        ),
        _check(
            "register-length",
            "register_bore",
            min(plate.register_depth, plate.nose_register_length),
            max(5.0, plate.register_bore / 8),
            "Length on which the register guides (an eighth of its diameter)",
        ),
        _check(
            "register-clears",
            "register_bore",
            plate.register_depth,
            plate.nose_register_length + 0.5,
            "Depth of the register bore, so that the thread clears the nose's "
            "register and the shoulder seats",
        ),
        _check(
            "register-passes",
            "register_bore",
            plate.register_bore - plate.thread.major,
            0.05,
            "Register bore over the nose's thread, which it has to pass",
        ),
        _check(
            "spigot-wall",
            "spigot",
            (plate.spigot_diameter - plate.thread.major) / 2,
            3.0,
            "Wall of the spigot over the thread bored through it",
        ),
        _check(
            "thread-length",
            "thread",
            min(plate.nose_length, plate.length) - plate.register_depth,
            0.4 * plate.thread.major,
            "Thread engaged on the nose (0.4 of its diameter)",
        ),
        _check(
            "nose-inside",
            "front",
            plate.length - plate.nose_length,
            0.5,
            "Room between the end of the nose and the front of the spigot",
        ),
        _check(
            "spigot-recess",
            "spigot",
            plate.recess_depth - plate.spigot_height,
            0.3,
            "Gap under the spigot: the chuck must seat on the face, not in the "
            "bottom of its recess",
        ),
        _check(
            "spigot-length",
            "spigot",
            plate.spigot_height,
            2.0,
            "Height of the spigot, so that it guides",
        ),
        _check(
            "hole-bore",
            "bolts",
            (plate.bolt_circle - plate.hole - plate.thread.major) / 2,
            3.0,
            "Metal between the bolt holes and the bore",
        ),
        _check(
            "hole-spigot",
            "bolts",
            (plate.bolt_circle - plate.hole - plate.spigot_diameter) / 2,
            0.5,
            "Metal between the bolt holes and the spigot",
        ),
        _check(
            "flange-thin",
            "flange",
            plate.flange_thickness,
            plate.flange_diameter / 12,
            "Thickness of the flange (a twelfth of its diameter)",
        ),
        _check(
            "stock-diameter",
            "stock",
            plate.stock_diameter - plate.flange_diameter,
            2.0,
            "Stock over the flange to clean up",
        ),
        _check(
            "stock-length",
            "stock",
            plate.stock_length - plate.length,
            2.0,
            "Stock over the length to face both ends",
        ),
        _check(
            "swing",
            "stock",
            2 * lathe.centre_height - plate.stock_diameter,
            6.0,
            f"Room for the stock to swing over the bed of {lathe.name}",
        ),
        _check(
            "swing-slide",
            "flange",
            lathe.swing_over_slide - plate.flange_diameter,
            4.0,
            "Room for the flange to swing over the cross slide",
            grave=False,
        ),
    ]
    half = plate.bolt_circle / 2
    if plate.bolting == "through":
        bore = plate.screw.counterbore
        out += [
            _check(
                "heads-edge",
                "bolts",
                plate.flange_diameter / 2 - half - bore / 2,
                2.0,
                "Metal between the screw heads' counterbores and the flange's edge",
            ),
            _check(
                "heads-hub",
                "bolts",
                half - bore / 2 - plate.hub_diameter / 2,
                0.5,
                "Room between the counterbores and the hub",
            ),
            _check(
                "under-head",
                "bolts",
                plate.under_head,
                0.8 * plate.screw.diameter,
                "Metal under the screw heads (0.8 of the screw)",
            ),
        ]
    else:
        wanted = material(plate.material).engagement * plate.screw.diameter
        out += [
            _check(
                "engagement",
                "bolts",
                plate.flange_thickness,
                wanted,
                f"Thread for the {plate.screw.size} screws in {plate.material}",
            ),
            _check(
                "hole-edge",
                "bolts",
                plate.flange_diameter / 2 - half - plate.hole / 2,
                3.0,
                "Metal between the tapped holes and the flange's edge",
            ),
        ]
    return tuple(out)
