"""What a piece goes with, chosen anew while its job is under way."""

import re
from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import family_for
from machinon.core.job.job import MADE_HERE, Job
from machinon.core.job.made_here import proof_without, with_mates_proved
from machinon.core.job.made_piece import first_fits, proof_surface
from machinon.core.piece.family import FitSlot
from machinon.core.shop.things import Piece


def made_to(job: Job) -> set[str]:
    """The pieces made here, as mates, that are made to the one that is spoken of, and
    to those again."""
    found = {job.work.as_mate}
    while True:
        more = {
            other.as_mate
            for other in job.works
            if other.making and found.intersection(other.making.mates.values())
        }
        if more <= found:
            return found - {job.work.as_mate}
        found |= more


def with_mates(job: Job, mates: Mapping[str, Piece], sizes: Mapping[str, str]) -> Job:
    """The job with the piece that is spoken of made to these mates.

    mates: by role, all that it goes with; sizes: as typed of them, by key. A fit keeps
    its number, its character and its cuts, and is on the new mate from now on; what was
    typed of a mate that goes is dropped with it. Raises BadInput on `mate.ROLE` where
    the piece was cut to what goes, or a size is linked to its fit.
    """
    making = job.making
    assert making is not None
    family, before = family_for(making), making.mates
    now = {role: piece.id for role, piece in mates.items()}
    changed = {role for role in before | now if now.get(role) != before.get(role)}
    gone = {key for key in family.mate_keys if key.partition(".")[0] in changed}
    kept = {key: text for key, text in making.sizes.items() if key not in gone}
    job = job.with_work(making=replace(making, mates=now, sizes={**kept, **sizes}))
    for slot in family.fits:
        role = slot.mate.partition(".")[0]
        if role in changed:
            job = _refitted(job, slot, mates.get(role))
    joining = (id for id in now.values() if not id.startswith(MADE_HERE))
    job = replace(job, pieces=tuple(dict.fromkeys((*job.pieces, *joining))))
    return _less(with_mates_proved(job, job.work), set(before.values()))


def _refitted(job: Job, slot: FitSlot, piece: Piece | None) -> Job:
    """The job with the fit of a slot on another mate, a new one where there was none;
    none is left where the piece has no such mate any more."""
    work, making = job.work, job.work.making
    assert making is not None
    family = family_for(making)
    role = slot.mate.partition(".")[0]
    number = work.fits.get(slot.key)
    first = max((fit.number for fit in job.fits), default=0) + 1
    fits = first_fits(family, {role: piece} if piece else {}, first)
    fit = fits.get(slot.key)
    if fit is None:
        return job if number is None else _unfitted(job, role, number)
    if number is not None:
        old = job.fit(number)
        return job.with_fit(
            replace(old, piece=fit.piece, surface=fit.surface, thread="")
        )
    fit = replace(fit, number=first)
    proof = proof_without(work, f"size.{slot.rules}")  # its fit proves it now
    if fit.kind != "thread":
        proof = replace(proof, surfaces=(*proof.surfaces, proof_surface(fit)))
    job = replace(job, fits=(*job.fits, fit))
    return job.with_work(fits={**work.fits, slot.key: first}, proof=proof)


def _unfitted(job: Job, role: str, number: int) -> Job:
    """The job without a fit of the piece that is spoken of."""
    if str(number) in job.cuts:
        says = f"Fit {number} was cut to it already, so it stays."
        raise BadInput(f"mate.{role}", says)
    linked = re.compile(rf"=.*\bfit{number}\b")
    for making in (work.making for work in job.works if work.making):
        for key, text in making.sizes.items():
            if linked.match(text):
                says = f"{key} is linked to fit {number}: change that first."
                raise BadInput(f"mate.{role}", says)
    work = job.work
    job = replace(job, fits=tuple(fit for fit in job.fits if fit.number != number))
    return job.with_work(
        fits={slot: n for slot, n in work.fits.items() if n != number},
        proof=proof_without(work, f"fit.{number}"),
        cutting=0 if work.cutting == number else work.cutting,
    )


def _less(job: Job, ids: set[str]) -> Job:
    """The job without those of these pieces that nothing in it is made to."""
    used = {fit.piece for fit in job.fits}
    for making in (work.making for work in job.works if work.making):
        used |= {making.old, *making.mates.values()}
    kept = (id for id in job.pieces if id in used or id not in ids)
    return replace(job, pieces=tuple(kept))
