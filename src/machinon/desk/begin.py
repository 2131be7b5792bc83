"""The start of a job, from typed text."""

from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families, family_for
from machinon.core.job.job import MADE_HERE, Job
from machinon.core.job.made_piece import could_be, made_job, mate_pieces
from machinon.core.piece.family import Family, Mate, alike
from machinon.core.shop.entry import remark, words
from machinon.core.shop.making import Making
from machinon.core.shop.things import Lathe, Piece
from machinon.store.shop_file import ShopFile

NEW_MATE = "new"
NO_MATE = "none"  # of one that the piece can be made without


def begin_job(file: ShopFile, typed: Mapping[str, str]) -> Job:
    """A new job of the kind that `what` says: "other", or a family.

    Nothing is begun of a kind that nobody chose.

    Other jobs have Survey and Fits only: typed is then name and reason.
    Raises BadInput naming the entry.
    """
    what = typed.get("what", "")
    if what in families():
        return begin_made(file, families()[what], typed)
    if what != "other":
        raise BadInput("what", "Choose what is to be made.")
    name = words(typed, "name", "what the job is called")
    reason = typed.get("reason", "").strip()
    job = Job(file.new_id(name), name, reason, _lathe_of(file, {}))
    file.act(job.id, f"Job begun: {name}.", job)
    return job


def could_be_mate(file: ShopFile, mate: Mate) -> list[Piece]:
    """The pieces of the shop that have every surface a mate is read on."""
    return [piece for piece in file.all_of(Piece) if could_be(mate, piece)]


def made_before(file: ShopFile, family: Family) -> list[Piece]:
    """The shop's pieces of a family, whose sizes another can start from."""
    return [
        piece
        for piece in file.all_of(Piece)
        if piece.making and piece.making.family == family.key
    ]


def begin_made(file: ShopFile, family: Family, typed: Mapping[str, str]) -> Job:
    """A new job that makes a piece of a family, and its mates where they are new.

    typed: name, reason and how many (`count`); by `mate.ROLE` the id of a piece,
    NO_MATE, or NEW_MATE and then by `name.ROLE` what it is called; by `size.ROLE.KEY`
    what of a mate is typed; as `like` the id of a piece made before that it starts
    from. All but the name may be missing.
    Raises BadInput naming the entry.
    """
    name = words(typed, "name", "what the job is called")
    mates, new = chosen_mates(file, family, typed)
    before = next(
        (piece for piece in made_before(file, family) if piece.id == typed.get("like")),
        None,
    )
    start = before.making if before and before.making else Making(family.key)
    # that one was made from its own
    start = replace(start.decided, count=1, old="", read_on={})
    if before is None:
        start = replace(start, inch=file.shop().inch)
    sizes = {**start.sizes, **typed_of_mates(family, typed, file.shop().inch)}
    start = of_many(replace(start, sizes=sizes), typed.get("count", ""))
    job = made_job(
        file.new_id(name),
        name,
        typed.get("reason", "").strip(),
        _lathe_of(file, mates),
        start,
        mates,
    )
    file.act(job.id, f"Job begun: {name}.", *new, job)
    return job


def chosen_mates(
    file: ShopFile,
    family: Family,
    typed: Mapping[str, str],
    standing: Mapping[str, Piece] | None = None,
) -> tuple[dict[str, Piece], list[Piece]]:
    """The mates by role as they were chosen, and those of them that are new.

    standing: by id, other pieces than the shop's that can be chosen.
    """
    mates: dict[str, Piece] = {}
    new: list[Piece] = []
    without = {mate.role: NO_MATE for mate in family.mates if mate.optional}
    for role, wanted in mate_pieces(family).items():
        chosen = typed.get(f"mate.{role}", without.get(role, NEW_MATE))
        if chosen == NO_MATE:
            continue
        found = file.get(chosen) if chosen != NEW_MATE else None
        found = (standing or {}).get(chosen, found)
        if not isinstance(found, Piece):
            called = remark(typed, f"name.{role}", 80) or wanted.name
            found = replace(wanted, id=file.new_id(called), name=called)
            new.append(found)
        mates[role] = found
    return mates, new


def of_many(making: Making, typed: str) -> Making:
    """A making of so many pieces alike; nothing typed leaves it as it is. Raises
    BadInput on `count`."""
    if not typed.strip():
        return making
    own, count = alike(family_for(making), typed)
    return replace(making, sizes={**making.sizes, **own}, count=count)


def typed_of_mates(
    family: Family, typed: Mapping[str, str], inch: bool = False
) -> dict[str, str]:
    """Those sizes of the mates that no gauge reads, as far as they were said; not of
    one that is made in the job, which tells them, nor of none."""
    found = {}
    for key, mate_size in family.mate_keys.items():
        chosen = typed.get(f"mate.{key.partition('.')[0]}", "")
        text = typed.get(f"size.{key}", "").strip()
        if text and not chosen.startswith((MADE_HERE, NO_MATE)):
            found[key] = mate_size.kept(f"size.{key}", text, inch)
    return found


def _lathe_of(file: ShopFile, mates: Mapping[str, Piece]) -> str:
    """The lathe whose nose is among the mates, else the first of the shop."""
    lathes = file.all_of(Lathe)
    noses = {piece.id for piece in mates.values()}
    own = (lathe for lathe in lathes if lathe.nose in noses)
    return next((lathe.id for lathe in (*own, *lathes)), "")
