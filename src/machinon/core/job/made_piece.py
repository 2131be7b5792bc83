"""The piece of a job worked out: what the survey knows goes in, the rest follows."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import family_of
from machinon.core.fits.joints import joint_forms
from machinon.core.job.job import CutLog, Job, ProofLog, Work
from machinon.core.piece.family import (
    Family,
    FitBand,
    Made,
    Mate,
    MateSize,
    Size,
    Value,
    make,
)
from machinon.core.piece.features import Circle, Holes
from machinon.core.piece.relations import in_order
from machinon.core.quantity import typed_again
from machinon.core.reckoning import TEXT
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece, Reading, Shop, Surface
from machinon.core.sizes.fit import FitChoice
from machinon.core.survey.measuring import Measured, drawn_size, measure
from machinon.core.survey.surface_kinds import (
    SurfaceForm,
    form_key,
    new_surfaces,
    surface_forms,
    surface_groups,
)
from machinon.core.threads.screw_thread import thread_of

TOLD_BY_FIT = ("thread", "bolts")  # joints whose mate is more than one reading
Measures = Mapping[tuple[str, str], Measured | None]


@dataclass(frozen=True, slots=True)
class MadePiece:
    """What came of a making: the piece, or what is still to be known.

    asked: figures of a mate that no gauge reads, by key, still to be typed; problem:
    why it cannot be made as it is decided.
    """

    made: Made | None = None
    missing: tuple[str, ...] = ()
    asked: tuple[str, ...] = ()
    problem: str = ""


def surface_of(piece: Piece, one: MateSize) -> Surface | None:
    """The surface of a piece that a mate's size is read from."""
    for key in one.surfaces:
        for surface in piece.surfaces:
            if form_key(surface) == key:
                return surface
    return None


def worked_out(
    making: Making,
    pieces: Mapping[str, Piece],
    measured: Measures,
    found: Mapping[str, str],
    decided: Mapping[str, FitBand],
    left: Mapping[int, tuple[float, float]],
    numbers: Mapping[str, int],
) -> MadePiece:
    """Work a making out. found: sizes of mates that only a fit tells, as a thread or a
    circle; decided: by slot, the band of each fit that has one; left: by number of a
    fit, the ends of the band that is left, which a size can be linked to; numbers: of
    the fits, by slot.

    Never raises for a half-filled job: what is not known is named.
    """
    family = family_of(making.family)
    given: dict[str, str] = dict(making.sizes)
    if making.material:
        given["material"] = making.material
    told = {slot.mate for slot in family.fits if slot.joint in TOLD_BY_FIT}
    missing, asked = [], []
    for mate in family.mates:
        piece = pieces.get(making.mates.get(mate.role, ""))
        for one in mate.sizes:
            key = f"{mate.role}.{one.key}"
            if key in given:
                continue
            if key in told:
                known = {k: v for k, v in found.items() if k in (key, f"{key}.doubt")}
            elif one.aid:
                known = _aid_of(key, piece, one)
            else:
                known = _known(key, piece, one, measured) or {}
            if known:
                given |= known
            elif not one.optional:
                missing.append(f"{mate.words}: {one.words}")
                if not one.surfaces:
                    asked.append(key)
    if missing:
        return MadePiece(None, tuple(missing), tuple(asked))
    try:
        linked = {f"fit{number}": ends for number, ends in left.items()}
        made = make(family, given, decided=decided, bands=linked, numbers=numbers)
    except BadInput as error:
        return MadePiece(problem=f"{error.key}: {error.message}")
    return MadePiece(made)


def joint_told(work: Work, standing: Mapping[str, Piece]) -> dict[int, dict[str, Any]]:
    """By number of a fit, what the piece tells its joint, as far as it is said.

    `centred`: the number of the fit that centres what screws only hold; standing: the
    pieces that there are, by id.
    """
    making, numbers = work.making, work.fits
    if making is None:
        return {}
    family = family_of(making.family)
    sizes = {one.key: one for one in (*family.sizes, *_typed_of_mates(family))}
    found: dict[int, dict[str, Any]] = {}
    for slot in family.fits:
        if not slot.rests or slot.key not in numbers:
            continue
        values = {
            key: _said(sizes[key], making.sizes)
            or _word_of_mate(str(sizes[key].rule), making, family, standing)
            for key in slot.rests
        }
        told = {k: v for k, v in slot.tells(values).items() if v is not None}
        if slot.centred in numbers:
            told["centred"] = numbers[slot.centred]
        found[numbers[slot.key]] = told
    return found


def _typed_of_mates(family: Family) -> list[Size]:
    """What of the mates is typed, as sizes of the family."""
    return [
        Size(key, one.words, "", low=1e-6, kind=one.kind)
        for key, one in family.mate_keys.items()
        if not one.surfaces
    ]


def _said(size: Size, typed: Mapping[str, str]) -> Value | None:
    """A size as typed, or as it usually is where that is a word; None else."""
    text = typed.get(size.key, "")
    if not text:
        word = size.kind is TEXT and isinstance(size.rule, str) and "." not in size.rule
        return str(size.rule) if word else None
    try:
        return size.read(text, inch=False)
    except BadInput:
        return None  # a link, or what no longer reads


def _word_of_mate(
    key: str, making: Making, family: Family, standing: Mapping[str, Piece]
) -> str | None:
    """A word that a mate gives, as the screws of its holes: what it is made by, else
    the usual one; None where the key is none of a mate's."""
    one = family.mate_keys.get(key)
    if one is None or not isinstance(one.usual, str):
        return None
    piece = standing.get(making.mates.get(key.partition(".")[0], ""))
    surface = surface_of(piece, one) if piece is not None else None
    return surface.given if surface is not None and surface.given else one.usual


def ruled_by_fits(made: Made) -> dict[int, str]:
    """By number of a fit, the size that it rules: by its slot, or by a link to it."""
    ruled = {
        made.numbers[slot.key]: slot.rules
        for slot in made.family.fits
        if slot.key in made.numbers
    }
    for key, known in made.sizes.items():
        found = (
            re.fullmatch(r"=\s*fit(\d+)", known.because) if known.by == "link" else None
        )
        if found:
            ruled.setdefault(int(found[1]), key)
    return ruled


def made_in_order(works: Sequence[Work]) -> list[Work]:
    """The works of a job, each after those that it is made to."""
    by_key = {one.as_mate: one for one in works}
    rests = {
        one.as_mate: [id for id in one.making.mates.values() if id in by_key]
        if one.making
        else []
        for one in works
    }
    return [by_key[id] for id in in_order(rests)]


def stand_in(
    work: Work, made: Made | None, cuts: Mapping[str, CutLog], shop: Shop
) -> tuple[Piece, dict[str, Measured | None]]:
    """What stands for a piece that is made here, as a mate: its surfaces as they were
    read after it was made, else as drawn.

    made: None before it is worked out; then only what is read or typed is there.
    """
    assert work.making is not None
    family = family_of(work.making.family)
    metal = work.making.material or family.material
    ruled = _ruled(work)
    proved = {one.id: one for one in work.proof.surfaces}
    surfaces: list[Surface] = []
    measured: dict[str, Measured | None] = {}
    for form_name, key in family.surfaces.items():
        size = family.size(key)
        value = made.values[key] if made else _said(size, work.making.sizes)
        form = _form(form_name)
        words = size.words[:1].upper() + size.words[1:]
        id = f"fit.{ruled[key]}" if key in ruled else f"size.{key}"
        readings = proved[id].readings if id in proved else ()
        readings = readings or _at_the_dial(cuts.get(id.removeprefix("fit.")))
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
    return Piece(work.as_mate, family.name, "other", metal, tuple(surfaces)), measured


def whole_stand_in(work: Work) -> Piece:
    """What stands for a piece that is made here, with every surface that others can be
    made to, whether it is known yet or not."""
    assert work.making is not None
    family = family_of(work.making.family)
    surfaces = [
        _form(name).surface(name, family.size(key).words)
        for name, key in family.surfaces.items()
    ]
    metal = work.making.material or family.material
    return Piece(work.as_mate, family.name, "other", metal, tuple(surfaces))


def _ruled(work: Work) -> dict[str, int]:
    """By size of a piece that is made, the number of the fit that rules it."""
    assert work.making is not None
    slots = {one.key: one.rules for one in family_of(work.making.family).fits}
    ruled = {slots[slot]: number for slot, number in work.fits.items()}
    for key, text in work.making.sizes.items():
        if found := re.fullmatch(r"=\s*fit(\d+)", text):
            ruled.setdefault(key, int(found[1]))
    return ruled


@dataclass(frozen=True, slots=True)
class RingOfHoles:
    """Holes on a circle as they are measured: how many, and what a span over them is
    taken by, mm: the hole, or the screw in it where it is tapped (empty for none)."""

    count: int
    across: float
    screw: str = ""

    @property
    def says(self) -> str:
        """Over what the span is taken."""
        if self.screw:
            return f"over {self.screw} screws in two neighbours"
        return f"over two neighbouring holes of {self.across:g} mm"


def holes_of(made: Made, key: str) -> RingOfHoles | None:
    """The holes on the circle that a size is of."""
    name = key.partition(".")[0]
    feature = next((one for one in made.body.features if one.name == name), None)
    if not isinstance(feature, Holes) or not isinstance(feature.pattern, Circle):
        return None
    hole = feature.hole
    across = thread_of(hole.thread).major if hole.thread else hole.diameter
    return RingOfHoles(feature.pattern.count, across, hole.thread)


def aids_of(holes: RingOfHoles | None) -> dict[str, float]:
    """What stands in the span over two holes of a circle."""
    return {"hole": holes.across, "holes": float(holes.count)} if holes else {}


def _at_the_dial(log: CutLog | None) -> tuple[Reading, ...]:
    """The last reading at the dial, which stands until it is measured again."""
    if log is None:
        return ()
    last = next((e for e in reversed(log.entries) if e.measured is not None), None)
    if last is None or last.measured is None:
        return ()
    return (Reading(last.measured, last.instrument or log.instrument, at=last.at),)


def wish_of(fit: FitChoice) -> str:
    """How a fit shall go, as a family is told it."""
    if fit.want == "own":
        ends = (fit.clearance_min, fit.clearance_max)
        return " to ".join(f"{typed_again(one)}mm" for one in ends)
    return fit.want


def _known(
    key: str, piece: Piece | None, one: MateSize, measured: Measures
) -> dict[str, str] | None:
    """A mate's size as measured with its doubt, or the standard that it is of; None
    while it is unknown."""
    surface = surface_of(piece, one) if piece is not None else None
    if piece is None or surface is None:
        return None
    found = measured.get((piece.id, surface.id))
    if found is None or found.refused:
        return None
    if isinstance(one.usual, str):
        name = surface.given or (found.likely[0].name if found.likely else "")
        return {key: name} if name else None
    doubt = found.uncertainty + found.shape / 2
    sizes = {key: found.size, f"{key}.doubt": doubt}
    return {name: f"{typed_again(size)}mm" for name, size in sizes.items()}


def _aid_of(key: str, piece: Piece | None, one: MateSize) -> dict[str, str]:
    """What stands in a mate's readings, as the number of its holes."""
    for surface in piece.surfaces if piece else ():
        if one.aid in surface.aids:
            return {key: typed_again(surface.aids[one.aid])}
    return {}


def could_be(mate: Mate, piece: Piece) -> bool:
    """Whether a piece has every surface that a mate's sizes are read on."""
    measured = [one for one in mate.sizes if one.surfaces and not one.optional]
    return all(surface_of(piece, one) is not None for one in measured)


def mate_pieces(family: Family) -> dict[str, Piece]:
    """A new piece for each mate that has something to measure, with its surfaces.

    The ids are the roles; whoever keeps them gives them their own.
    """
    found = {}
    for mate in family.mates:
        name = mate.words.removeprefix("the ").capitalize()
        piece = Piece(mate.role, name, mate.shape, mate.metal, mate.surfaces)
        for one in mate.sizes:
            group = "" if one.optional else _group_of(one)
            if group and surface_of(piece, one) is None:
                for surface in new_surfaces(piece, group):
                    piece = piece.with_surface(surface)
        if piece.surfaces:
            found[mate.role] = piece
    return found


def _group_of(one: MateSize) -> str:
    """The group of surfaces that is added for a mate's size; empty for none."""
    for wanted in one.surfaces:
        for group in surface_groups().values():
            if wanted in (form.key for form in group.forms):
                return group.key
    return ""


def first_fits(
    family: Family, mates: Mapping[str, Piece], first: int
) -> dict[str, FitChoice]:
    """By slot, the fits of a new making, each on the surface of its mate; first: the
    number that they begin with."""
    fits: dict[str, FitChoice] = {}
    for number, slot in enumerate(family.fits, first):
        role = slot.mate.partition(".")[0]
        piece = mates.get(role)
        one = family.mate_keys[slot.mate]
        surface = surface_of(piece, one) if piece is not None else None
        if piece is None or surface is None:
            continue
        form = joint_forms()[slot.joint]  # type: ignore[index]
        fits[slot.key] = FitChoice(
            number,
            slot.words,
            form.kind,
            piece.id,
            surface.id,
            slot.exists,
            slot.want,
            joint=form.key,
        )
    return fits


def made_job(
    id: str,
    name: str,
    reason: str,
    lathe: str,
    making: Making,
    mates: Mapping[str, Piece],
) -> Job:
    """A new job that makes a piece; mates: by role, those it is made to."""
    work, fits = new_work("1", making, mates, 1)
    pieces = dict.fromkeys(piece.id for piece in mates.values())
    return Job(id, name, reason, lathe, tuple(pieces), fits, (work,))


def new_work(
    key: str, making: Making, mates: Mapping[str, Piece], first: int
) -> tuple[Work, tuple[FitChoice, ...]]:
    """A piece to be made, with its fits, numbered from the first free one."""
    family = family_of(making.family)
    fits = first_fits(family, mates, first)
    work = Work(
        key,
        replace(making, mates={role: piece.id for role, piece in mates.items()}),
        {slot: fit.number for slot, fit in fits.items()},
        proof=ProofLog(surfaces=proof_surfaces(family, tuple(fits.values()))),
    )
    return work, tuple(fits.values())


def with_mates_proved(job: Job, work: Work) -> Job:
    """The job in which what a new piece is fitted to is measured once it is made."""
    works = {one.as_mate: one for one in job.works}
    for fit in job.fits:
        if fit.piece in works and fit.number in work.fits.values():
            works[fit.piece] = _to_be_measured(works[fit.piece], fit.surface)
    return replace(job, works=tuple(works.values()))


def _to_be_measured(work: Work, form: str) -> Work:
    """A piece with one of its sizes among what is measured of it, where no fit rules
    it and proves it anyway."""
    assert work.making is not None
    family = family_of(work.making.family)
    key = family.surfaces[form]
    one = size_surface(family, key, form)
    if key in _ruled(work) or any(s.id == one.id for s in work.proof.surfaces):
        return work
    surfaces = (*work.proof.surfaces, one)
    return replace(work, proof=replace(work.proof, surfaces=surfaces))


def could_turn(job: Job, number: int) -> bool:
    """Whether the half of a fit that is made to the other could be made before it."""
    return _both_halves(job, number) is not None


def _both_halves(job: Job, number: int) -> tuple[Work, str, Work, str, str] | None:
    """The piece that a fit is on and its size there; the piece that is made to it, its
    size, and as what kind of surface that is a mate. None where a half is no piece of
    the job that is made."""
    fit = job.fit(number)
    works = {one.as_mate: one for one in job.works if one.making is not None}
    first = works.get(fit.piece)
    second = next(
        (one for one in works.values() if number in _ruled(one).values()), None
    )
    if first is None or second is None or fit.kind != "cylinder":
        return None
    assert first.making is not None
    assert second.making is not None
    key = next(size for size, n in _ruled(second).items() if n == number)
    family = family_of(second.making.family)
    form = next((form for form, size in family.surfaces.items() if size == key), "")
    if not form:
        return None
    there = family_of(first.making.family).surfaces[fit.surface]
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
        making=with_size(second.making, key, f"{typed_again(drawn)}mm"),
        fits={slot: n for slot, n in second.fits.items() if n != number},
        proof=_proof_without(second, f"fit.{number}"),
    )
    alone = _to_be_measured(alone, form)
    # the one that is made to it
    slots = {one.rules: one.key for one in family_of(first.making.family).fits}
    own = slots.get(there, "")
    free = bool(own) and own not in first.fits
    to_it = replace(
        first,
        making=with_size(first.making, there, "" if free else f"= fit{number}"),
        fits={**first.fits, own: number} if free else first.fits,
        proof=_proof_without(first, f"size.{there}"),
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
    works = tuple(changed.get(one.key, one) for one in job.works)
    return replace(job.with_fit(fit), works=works)


def _proof_without(work: Work, id: str) -> ProofLog:
    """What is measured of a piece, less one surface."""
    surfaces = tuple(one for one in work.proof.surfaces if one.id != id)
    return replace(work.proof, surfaces=surfaces)


def with_size(making: Making, key: str, typed: str) -> Making:
    """The making with one size as typed; nothing typed puts it under its rule again."""
    text = typed.strip()
    if key == "material":
        return replace(making, material=text)
    sizes = {name: value for name, value in making.sizes.items() if name != key}
    if text:
        sizes[key] = text
    return replace(making, sizes=sizes)


# what the new half of a fit is proved as, and called in the shop, by its joint
_HALVES = {
    ("register", "hole"): "register",
    ("register", "shaft"): "recess",
    ("slot", "hole"): "tongue",
    ("slot", "shaft"): "slot",
    ("bolts", "hole"): "bolt-circle",
    ("bolts", "shaft"): "bolt-circle",
}


def half_of(joint: str, exists: str) -> str:
    """The form of surface that the new half of a fit is: `register`, `bore`."""
    return _HALVES.get((joint, exists)) or ("shaft" if exists == "hole" else "bore")


def proof_surface(fit: FitChoice, name: str = "") -> Surface:
    """What is measured to prove a fit's new half."""
    form = surface_forms()[half_of(fit.joint, fit.exists)]
    words = form.name if fit.joint == "bolts" else fit.name
    return Surface(f"fit.{fit.number}", name or words, form.kind, form.how)


def _form(name: str) -> SurfaceForm:
    """A kind of surface; a piece with several of them numbers them: `shaft-2`."""
    return surface_forms()[re.sub(r"-\d+$", "", name)]


def size_surface(family: Family, key: str, form_name: str) -> Surface:
    """What is measured of a size that no fit rules, as others are made to it."""
    form = _form(form_name)
    words = family.size(key).words
    name = words[:1].upper() + words[1:]
    return Surface(f"size.{key}", name, form.kind, form.how)


def proof_surfaces(family: Family, fits: Sequence[FitChoice]) -> tuple[Surface, ...]:
    """What is measured to prove a piece of a family: each size that a band rules."""
    # a thread is proved by its mate alone
    found = [proof_surface(fit) for fit in fits if fit.kind != "thread"]
    form = surface_forms()["length"]
    for chain in family.chains:
        found.append(Surface(f"chain.{chain.key}", chain.words, form.kind, form.how))
    return tuple(found)


def shop_surfaces(
    work: Work,
    surfaces: Sequence[Surface],
    fits: Sequence[FitChoice],
    aids: Mapping[str, Mapping[str, float]],
) -> tuple[Surface, ...]:
    """Proved surfaces as those of a piece of the shop, so that it can be a mate.

    aids: by surface, what stands in its readings, as the holes that a span is over.
    """
    kinds = {f"fit.{fit.number}": half_of(fit.joint, fit.exists) for fit in fits}
    if work.making is not None:
        ruled = _ruled(work)
        for form, key in family_of(work.making.family).surfaces.items():
            kinds[f"fit.{ruled[key]}" if key in ruled else f"size.{key}"] = form
    taken: dict[str, int] = {}
    found = []
    for one in surfaces:
        key = re.sub(r"-\d+$", "", kinds.get(one.id, "length"))
        taken[key] = taken.get(key, 0) + 1
        id = key if taken[key] == 1 else f"{key}-{taken[key]}"
        found.append(replace(one, id=id, aids=dict(aids.get(one.id, one.aids))))
    return tuple(found)
