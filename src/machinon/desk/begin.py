"""The start of a job, from typed text."""

from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.job.job import Job, ProofLog, back_plate_job
from machinon.core.job.made_piece import first_fits, mate_pieces, proof_surfaces
from machinon.core.piece.family import Family
from machinon.core.quantity import COUNT, parse
from machinon.core.shop.entry import words
from machinon.core.shop.making import Making
from machinon.core.shop.things import CHUCK_SURFACES, Lathe, Piece
from machinon.core.survey.surface_kinds import form_key
from machinon.store.shop_file import ShopFile

NEW_CHUCK = "new"
NEW_MATE = "new"


def begin_job(file: ShopFile, typed: Mapping[str, str]) -> Job:
    """A new job of the kind that `what` says: "plate", "other", or a family.

    Nothing is begun of a kind that nobody chose.

    Other jobs have Survey and Fits only: typed is then name and reason.
    Raises BadInput naming the entry.
    """
    what = typed.get("what", "")
    if what == "plate":
        return begin_back_plate(file, typed)
    if what in families():
        return begin_made(file, families()[what], typed)
    if what != "other":
        raise BadInput("what", "Choose what is to be made.")
    name = words(typed, "name", "what the job is called")
    lathe = next((entry.id for entry in file.entries("lathe")), "")
    job = Job(
        file.new_id(name),
        name,
        typed.get("reason", "").strip(),
        lathe,
        proof=ProofLog(),
    )
    file.act(job.id, f"Job begun: {name}.", job)
    return job


def could_be_mate(file: ShopFile, wanted: Piece) -> list[Piece]:
    """The pieces of the shop that have every surface a mate is read on."""
    forms = {form_key(one) for one in wanted.surfaces}
    found = (file.get(entry.id) for entry in file.entries("piece"))
    return [
        one
        for one in found
        if isinstance(one, Piece) and forms <= {form_key(s) for s in one.surfaces}
    ]


def made_before(file: ShopFile, family: Family) -> list[Piece]:
    """The shop's pieces of a family, whose sizes another can start from."""
    found = (file.get(entry.id) for entry in file.entries("piece"))
    return [
        one
        for one in found
        if isinstance(one, Piece) and one.making and one.making.family == family.key
    ]


def begin_made(file: ShopFile, family: Family, typed: Mapping[str, str]) -> Job:
    """A new job that makes a piece of a family, and its mates where they are new.

    typed: name, reason, by `mate.ROLE` the id of a piece, or NEW_MATE, and as `like`
    the id of a piece made before whose sizes it starts from. Raises BadInput naming
    the entry.
    """
    name = words(typed, "name", "what the job is called")
    mates: dict[str, Piece] = {}
    new: list[Piece] = []
    for role, wanted in mate_pieces(family).items():
        chosen = typed.get(f"mate.{role}", NEW_MATE)
        found = file.get(chosen) if chosen != NEW_MATE else None
        if not isinstance(found, Piece):
            found = replace(wanted, id=file.new_id(wanted.name))
            new.append(found)
        mates[role] = found
    fits = first_fits(family, mates)
    before = next(
        (one for one in made_before(file, family) if one.id == typed.get("like")), None
    )
    start = before.making if before and before.making else Making(family.key)
    job = Job(
        file.new_id(name),
        name,
        typed.get("reason", "").strip(),
        next((entry.id for entry in file.entries("lathe")), ""),
        tuple(dict.fromkeys(piece.id for piece in mates.values())),
        fits,
        proof=ProofLog(surfaces=proof_surfaces(family, fits)),
        making=replace(start, mates={role: piece.id for role, piece in mates.items()}),
    )
    file.act(job.id, f"Job begun: {name}.", *new, job)
    return job


def begin_back_plate(file: ShopFile, typed: Mapping[str, str]) -> Job:
    """A new back-plate job, and its chuck where that is new; kept as one act.

    typed: name, reason, lathe (an id), chuck (an id or NEW_CHUCK), chuck_name, and
    how many bolts hold the chuck, which may stay empty.
    Raises BadInput naming the entry.
    """
    name = words(typed, "name", "what the job is called")
    lathe = file.get(typed["lathe"])
    if not isinstance(lathe, Lathe):
        raise BadInput("lathe", "Choose the lathe that the plate is for.")
    bolts = None
    if typed.get("bolts", "").strip():
        bolts = int(parse(typed["bolts"], COUNT, key="bolts", low=2, high=24))
    chuck = file.get(typed["chuck"]) if typed["chuck"] != NEW_CHUCK else None
    if chuck is None:
        chuck_name = words(typed, "chuck_name", "what the chuck is called")
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
        bolts,
    )
    file.act(job.id, f"Job begun: {name}.", chuck, job)
    return job
