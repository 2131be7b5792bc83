"""Pieces that are made in one job and go together: what stands for each as a mate,
and which is made to which."""

from collections.abc import Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.families import family_for
from machinon.core.job.job import CutLog, Job, ProofLog, Work
from machinon.core.job.made_piece import (
    form_of_surface,
    named_surfaces,
    proof_surface,
    ruled_sizes,
    said,
    size_surface,
    with_size,
)
from machinon.core.piece.hole_features import HoleCircle, Holes
from machinon.core.piece.made import Made
from machinon.core.piece.relations import in_order
from machinon.core.quantity import as_kept
from machinon.core.shop.things import Piece, Reading, Shop, Surface
from machinon.core.survey.measuring import Measured, drawn_size, measure
from machinon.core.threads.screw_thread import thread_of
from machinon.core.wording import begun


def made_in_order(works: Sequence[Work]) -> list[Work]:
    """The works of a job, each after those that it is made to."""
    by_key = {work.as_mate: work for work in works}
    rests = {
        work.as_mate: [id for id in work.making.mates.values() if id in by_key]
        if work.making
        else []
        for work in works
    }
    return [by_key[id] for id in in_order(rests)]


def stand_in(
    work: Work, made: Made | None, cuts: Mapping[str, CutLog], shop: Shop
) -> tuple[Piece, dict[str, Measured | None]]:
    """A piece that is made here, as a mate: its surfaces as they were read after it was
    made, else as drawn.

    made: None before it is worked out; then only what is read or typed is there.
    """
    assert work.making is not None
    family = family_for(work.making)
    metal = work.making.material or family.material
    ruled = ruled_sizes(work)
    proved = {surface.id: surface for surface in work.proof.surfaces}
    surfaces: list[Surface] = []
    measured: dict[str, Measured | None] = {}
    for form_name, key in family.surfaces.items():
        size = family.size(key)
        value = made.values[key] if made else said(size, work.making)
        form = form_of_surface(form_name)
        words = begun(size.words)
        id = f"fit.{ruled[key]}" if key in ruled else f"size.{key}"
        readings = proved[id].readings if id in proved else ()
        readings = readings or read_at_dial(cuts.get(work.log_of(id)))
        holes = holes_of(made, key) if made and form_name == "bolt-circle" else None
        surface = form.surface(form_name, words, readings, aids_of(holes))
        if holes is not None:
            surface = replace(surface, given=holes.screw)
        found = measure(surface, shop, metal) if readings else None
        if found is None and isinstance(value, int | float) and value > 0:
            found = drawn_size(surface, float(value))
        if found is not None:
            surfaces.append(surface)
            measured[form_name] = found
    for surface in named_surfaces(made) if made else ():
        surfaces.append(surface)
        measured[surface.id] = measure(surface, shop, metal)
    return Piece(work.as_mate, family.name, "other", metal, tuple(surfaces)), measured


def whole_stand_in(work: Work, made: Made | None) -> Piece:
    """A piece that is made here, as a mate with every surface that others can be made
    to, whether it is known yet or not; its tapers and threads once it is worked out."""
    assert work.making is not None
    family = family_for(work.making)
    surfaces = [
        form_of_surface(name).surface(name, family.size(key).words)
        for name, key in family.surfaces.items()
    ]
    surfaces += named_surfaces(made) if made else ()
    metal = work.making.material or family.material
    return Piece(work.as_mate, family.name, "other", metal, tuple(surfaces))


class RingOfHoles(Struct, frozen=True):
    """Holes on a circle as they are measured: how many, and what a span over them is
    taken by, mm: the hole, or the screw in it where it is tapped (empty for none)."""

    count: int
    across: float
    screw: str = ""

    @property
    def says(self) -> str:
        """The two holes that the span is taken over, in words."""
        if self.screw:
            return f"over {self.screw} screws in two neighbours"
        return f"over two neighbouring holes of {self.across:g} mm"


def holes_of(made: Made, key: str) -> RingOfHoles | None:
    """The holes on the circle that a size is of."""
    name = key.partition(".")[0]
    feature = made.body.found(name)
    if not isinstance(feature, Holes) or not isinstance(feature.pattern, HoleCircle):
        return None
    hole = feature.hole
    across = thread_of(hole.thread).major if hole.thread else hole.diameter
    return RingOfHoles(feature.pattern.count, across, hole.thread)


def aids_of(holes: RingOfHoles | None) -> dict[str, float]:
    """The figures that stand in the span over two holes of a circle."""
    return {"hole": holes.across, "holes": float(holes.count)} if holes else {}


def read_at_dial(log: CutLog | None) -> tuple[Reading, ...]:
    """The last reading at the dial of each piece alike, while no cut has followed
    it."""
    logs = [each.true for each in log.all] if log is not None else []
    kept = "one of several alike" if len(logs) > 1 else ""
    return tuple(
        Reading(
            read.measured, read.instrument or each.instrument, at=read.at, kept=kept
        )
        for each in logs
        if (read := each.last_read) and read.measured is not None and not each.pending
    )


def with_mates_proved(job: Job, work: Work) -> Job:
    """The job in which what a new piece is fitted to is measured once it is made."""
    works = {work.as_mate: work for work in job.works}
    for fit in job.fits:
        if fit.piece in works and fit.number in work.fits.values():
            works[fit.piece] = _to_be_measured(works[fit.piece], fit.surface)
    return replace(job, works=tuple(works.values()))


def _to_be_measured(work: Work, form: str) -> Work:
    """A piece with one of its sizes among what is measured of it, where no fit rules
    it and proves it anyway."""
    assert work.making is not None
    family = family_for(work.making)
    key = family.surfaces[form]
    surface = size_surface(family, key, form)
    if key in ruled_sizes(work) or any(s.id == surface.id for s in work.proof.surfaces):
        return work
    surfaces = (*work.proof.surfaces, surface)
    return replace(work, proof=replace(work.proof, surfaces=surfaces))


def could_turn(job: Job, number: int) -> bool:
    """Whether the half of a fit that is made to the other could be made before it."""
    return _both_halves(job, number) is not None


def _both_halves(job: Job, number: int) -> tuple[Work, str, Work, str, str] | None:
    """The piece that a fit is on and its size there; the piece that is made to it, its
    size, and as what kind of surface that is a mate. None where a half is no piece of
    the job that is made."""
    fit = job.fit(number)
    works = {work.as_mate: work for work in job.works if work.making is not None}
    first = works.get(fit.piece)
    second = next(
        (work for work in works.values() if number in ruled_sizes(work).values()), None
    )
    if first is None or second is None or fit.kind != "cylinder":
        return None
    assert first.making is not None
    assert second.making is not None
    key = next(size for size, n in ruled_sizes(second).items() if n == number)
    family = family_for(second.making)
    form = family.form_of(key)
    if not form:
        return None
    there = family_for(first.making).surfaces[fit.surface]
    return first, there, second, key, form


def turned(job: Job, bodies: Mapping[str, Made | None], number: int) -> Job:
    """The job with the two halves of a fit in the other order.

    The half that was made to the other keeps its size as drawn, typed; the other is
    linked to the fit, or, where the fit is one of its own slots, ruled by it again.
    """
    halves = _both_halves(job, number)
    assert halves is not None
    first, there, second, key, form = halves
    assert first.making is not None
    assert second.making is not None
    made = bodies[second.key]
    drawn = float(made.values[key]) if made is not None else 0.0
    # the one that is made by itself now
    alone = replace(
        second,
        making=with_size(second.making, key, as_kept(drawn)),
        fits={slot: n for slot, n in second.fits.items() if n != number},
        proof=proof_without(second, f"fit.{number}"),
    )
    alone = _to_be_measured(alone, form)
    # the one that is made to it
    slots = {slot.rules: slot.key for slot in family_for(first.making).fits}
    own = slots.get(there, "")
    free = bool(own) and own not in first.fits
    to_it = replace(
        first,
        making=with_size(first.making, there, "" if free else f"= fit{number}"),
        fits={**first.fits, own: number} if free else first.fits,
        proof=proof_without(first, f"size.{there}"),
    )
    fit = job.fit(number)
    fit = replace(
        fit,
        piece=second.as_mate,
        surface=form,
        exists="shaft" if fit.exists == "hole" else "hole",
    )
    line = proof_surface(fit)
    to_it = replace(
        to_it,
        proof=replace(to_it.proof, surfaces=(*to_it.proof.surfaces, line)),
    )
    changed = {alone.key: alone, to_it.key: to_it}
    works = tuple(changed.get(work.key, work) for work in job.works)
    return replace(job.with_fit(fit), works=works)


def proof_without(work: Work, id: str) -> ProofLog:
    """The surfaces measured of a piece, less one."""
    surfaces = tuple(surface for surface in work.proof.surfaces if surface.id != id)
    return replace(work.proof, surfaces=surfaces)
