"""Setting up: the first machine of a shop and the start of a job, from typed text."""

from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.job import Job, back_plate_job
from machinon.core.reckoning import PITCH, Input
from machinon.core.shop import (
    CHUCK_SURFACES,
    NOSE_SURFACES,
    STARTER_INSTRUMENTS,
    Lathe,
    Piece,
)
from machinon.store.shop_file import ShopFile

NEW_CHUCK = "new"


def enter_first_machine(file: ShopFile, typed: Mapping[str, str], inch: bool) -> Lathe:
    """The shop, its starter instruments, and its first lathe; kept as one act.

    typed: shop, name, centre_height, between_centres, swing_over_slide, speeds
    (a list), dial_reads, dial_division, lead_screw (a pitch or 8tpi), wheels (a
    list, may be empty). Raises BadInput naming the entry.
    """
    shop_name = _words(typed, "shop", "the shop's name")
    name = _words(typed, "name", "what you call the lathe")

    def length(key: str, low: float, high: float) -> float:
        return quantity.parse(typed[key], inch=inch, key=key, low=low, high=high)

    height = length("centre_height", 20, 1000)
    between = length("between_centres", 50, 10_000)
    slide = length("swing_over_slide", 10, 2 * height)
    speeds = sorted(
        {
            quantity.parse(part, quantity.ROTATION, key="speeds", above=0, high=20_000)
            for part in typed["speeds"].replace(";", ",").split(",")
        }
    )
    division = length("dial_division", 0.001, 1)
    lead_screw = Input("lead_screw", PITCH, "", above=0, high=50).read(
        typed["lead_screw"], inch
    )
    wheels: tuple[int, ...] = ()
    if typed.get("wheels", "").strip():
        wheels = Input("wheels", quantity.COUNT, "", low=8, high=300, many=True).read(
            typed["wheels"]
        )
    reads = typed["dial_reads"]
    if reads not in ("diameter", "radius"):
        raise unknown("dial_reads", reads, ("diameter", "radius"))
    nose = Piece("lathe-nose", "Spindle nose", "nose", "steel", NOSE_SURFACES)
    lathe = Lathe(
        "lathe",
        name,
        height,
        between,
        slide,
        tuple(speeds),
        nose.id,
        "radius" if reads == "radius" else "diameter",
        division,
        lead_screw,
        wheels=wheels,
    )
    shop = replace(
        file.shop(), name=shop_name, inch=inch, instruments=STARTER_INSTRUMENTS
    )
    file.act(
        "shop", f"Shop set up: {shop_name}. Lathe entered: {name}.", shop, nose, lathe
    )
    return lathe


def begin_back_plate(file: ShopFile, typed: Mapping[str, str]) -> Job:
    """A new back-plate job, and its chuck where that is new; kept as one act.

    typed: name, reason, lathe (an id), chuck (an id or NEW_CHUCK), chuck_name.
    Raises BadInput naming the entry.
    """
    name = _words(typed, "name", "what the job is called")
    lathe = file.get(typed["lathe"])
    if not isinstance(lathe, Lathe):
        raise BadInput("lathe", "Choose the lathe that the plate is for.")
    chuck = file.get(typed["chuck"]) if typed["chuck"] != NEW_CHUCK else None
    if chuck is None:
        chuck_name = _words(typed, "chuck_name", "what the chuck is called")
        id = file.new_id(chuck_name)
        chuck = Piece(id, chuck_name, "chuck", "cast iron", CHUCK_SURFACES)
    assert isinstance(chuck, Piece)
    job = back_plate_job(
        file.new_id(name),
        name,
        typed.get("reason", "").strip(),
        lathe.id,
        lathe.nose,
        chuck.id,
    )
    file.act(job.id, f"Job begun: {name}.", chuck, job)
    return job


def _words(typed: Mapping[str, str], key: str, meaning: str) -> str:
    text = typed.get(key, "").strip()
    if not text:
        raise BadInput(key, f"Nothing is typed. Type {meaning}.")
    if len(text) > 80:
        raise BadInput(key, f"{len(text)} signs are too many: up to 80 are allowed.")
    return text
