"""The back plate of Ottermere Lane as plain values, for tests of the core."""

from msgspec.structs import replace

from machinon.core.cutting.cut_state import CutEntry
from machinon.core.job.job import CutLog, Job
from machinon.core.job.made_piece import made_job
from machinon.core.job.plan import Plan
from machinon.core.job.planning import plan_of
from machinon.core.shop.making import Making
from machinon.core.shop.things import (
    CHUCK_SURFACES,
    NOSE_SURFACES,
    STARTER_INSTRUMENTS,
    Lathe,
    Piece,
    Reading,
    Shop,
    Surface,
)

REGISTER, THREAD, SPIGOT, BOLTS = 1, 2, 3, 4  # the fits of a back plate

SHOP = Shop(name="Ottermere Lane", instruments=STARTER_INSTRUMENTS)
LATHE = Lathe(
    "lathe",
    "Centre lathe 165 × 700",
    165,
    700,
    190,
    (45, 70, 110, 180, 290, 460, 740, 1200),
    "nose",
)
NOSE = {
    "register": ("micrometer", 45.992, 45.994),
    "register-length": ("depth-gauge", 12.02),
    "thread-major": ("micrometer", 44.86),
    "thread-pitch": ("thread-gauge", 4.5),
    "nose-length": ("depth-gauge", 36.05),
}
CHUCK = {
    "body": ("caliper", 130.0),
    "recess": ("bore-gauge", 95.018, 95.022, 95.020),
    "recess-depth": ("depth-gauge", 4.2),
    "bolt-hole": ("caliper", 7.89),
    "bolt-span": ("caliper", 103.15),
}


def read(surfaces: tuple[Surface, ...], readings: dict) -> tuple[Surface, ...]:
    """The surfaces with readings: id: (instrument, sizes…)."""
    return tuple(
        replace(
            surface,
            readings=tuple(
                Reading(size, readings[surface.id][0], temperature=20.0)
                for size in readings[surface.id][1:]
            )
            if surface.id in readings
            else (),
        )
        for surface in surfaces
    )


# sizes that leave nothing to a rule
PLATE = {
    "stock.diameter": "140",
    "stock.length": "45",
    "flange.diameter": "130",
    "flange.thickness": "18",
    "hub.diameter": "72",
    "hub.length": "17",
    "register.depth": "13",
    "spigot.height": "3.5",
    "bolts.screw": "M8",
    "bolts.bolting": "through",
    "chuck.bolts": "3",
}


def back_plate(sizes: dict[str, str] | None = None, material: str = "") -> Job:
    """The job with sizes of its plate changed."""
    making = Making("back-plate", {**PLATE, **(sizes or {})}, {}, material)
    mates = {"nose": _nose(NOSE), "chuck": _chuck(CHUCK)}
    return made_job("plate", "Back plate", "", "lathe", making, mates)


def _nose(readings: dict) -> Piece:
    surfaces = read(NOSE_SURFACES, readings)
    return Piece("nose", "Spindle nose", "nose", "steel", surfaces)


def _chuck(readings: dict) -> Piece:
    surfaces = read(CHUCK_SURFACES, readings)
    return Piece("chuck", "Three-jaw chuck", "chuck", "cast iron", surfaces)


def planned(
    job: Job | None = None, nose=NOSE, chuck=CHUCK, lathe=LATHE, shop=SHOP
) -> Plan:
    """The job worked out, with the scenario's readings or others."""
    pieces = {"nose": _nose(nose), "chuck": _chuck(chuck)}
    return plan_of(job or back_plate(), shop, lathe, pieces)


def with_cuts(job: Job, start: float, *cuts: tuple[float, float | None]) -> Job:
    """The job with its spigot after cuts (dial from touch, measured)."""
    entries = tuple(CutEntry(dial, measured) for dial, measured in cuts)
    log = CutLog(start=start, touch=0.0, entries=entries)
    return job.with_work(cutting=SPIGOT).with_log(log)
