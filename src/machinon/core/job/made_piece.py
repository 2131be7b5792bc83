"""The piece of a job worked out: what the survey knows goes in, the rest follows."""

import re
from collections.abc import Mapping, Sequence
from itertools import groupby
from typing import Any, Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families, family_for
from machinon.core.fits.joints import joint_forms
from machinon.core.job.job import Job, ProofLog, Work
from machinon.core.piece.bands import FitBand
from machinon.core.piece.block_features import SixFaces
from machinon.core.piece.family import Family, Mate, MateSize, Size, Value, spoken
from machinon.core.piece.feature import Feature
from machinon.core.piece.made import Made, hole_of, make, screw_told, usual_word
from machinon.core.piece.turned_features import (
    Cylinder,
    End,
    NutThread,
    Screw,
    Sloping,
    TaperBore,
)
from machinon.core.quantity import LENGTH, as_kept, typed_again
from machinon.core.reckoning import TEXT
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece, Surface, SurfaceKind
from machinon.core.sizes.fit import FitChoice
from machinon.core.survey.measuring import Measured
from machinon.core.survey.surface_kinds import (
    SurfaceForm,
    form_key,
    kinds_that_read,
    new_surfaces,
    surface_forms,
    surface_groups,
)
from machinon.core.survey.surface_sums import aid_of, sum_of
from machinon.core.tapers.tapers import taper_of
from machinon.core.wording import begun, within

NEAR_GAUGE = 1.0  # mm: a named taper whose large end is no further from its gauge's
ANVIL = 1.0  # mm of a face that the anvil of a micrometer needs
BESIDE = 1e-3  # mm past the end of a cut
TOLD_BY_FIT = ("thread", "bolts")  # joints whose mate is more than one reading
Measures = Mapping[tuple[str, str], Measured | None]


class Wanted(Struct, frozen=True):
    """A size of a mate that is not known yet, by its words."""

    mate: Mate
    words: str
    key: str
    # where it is told: read in Survey, decided in Fits, or typed in Piece
    stage: Literal["survey", "fits", "piece"]


def told_of(missing: Sequence[Wanted]) -> str:
    """The unknown sizes in one line: "the shaft (its diameter, its length)"."""
    return ", ".join(f"{mate.words} ({words})" for mate, words in by_mate(missing))


def by_mate(missing: Sequence[Wanted]) -> list[tuple[Mate, str]]:
    """Each mate, and what is not known of it; they come one mate after the other."""
    groups = groupby(missing, key=lambda wanted: wanted.mate.role)
    found = [list(ones) for _, ones in groups]
    return [
        (ones[0].mate, ", ".join(wanted.words for wanted in ones)) for ones in found
    ]


class MadePiece(Struct, frozen=True):
    """The piece of a making, or the sizes that are still to be known."""

    made: Made | None = None
    missing: tuple[Wanted, ...] = ()
    problem: str = ""  # why it cannot be made as it is decided


def surface_of(piece: Piece, mate_size: MateSize) -> Surface | None:
    """The surface of a piece that a mate's size is read from."""
    for key in mate_size.surfaces:
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
    family = family_for(making)
    given: dict[str, str] = dict(making.sizes)
    if making.material:
        given["material"] = making.material
    if making.count > 1:
        given["count"] = str(making.count)
    told = {slot.mate for slot in family.fits if slot.joint in TOLD_BY_FIT}
    missing: list[Wanted] = []
    for mate in family.mates:
        piece = pieces.get(making.mates.get(mate.role, ""))
        for mate_size in mate.sizes:
            key = f"{mate.role}.{mate_size.key}"
            if key in given:
                continue
            if key in told:
                known = {k: v for k, v in found.items() if k in (key, f"{key}.doubt")}
            else:
                known = _found(key, piece, mate_size, measured)
            if known:
                given |= known
            elif not mate_size.optional or (mate.optional and piece is not None):
                stage = _where_told(key, piece, mate_size, measured)
                missing.append(Wanted(mate, mate_size.words, key, stage))
    if missing:
        return MadePiece(missing=tuple(missing))
    try:
        linked = {f"fit{number}": ends for number, ends in left.items()}
        made = make(
            family,
            given,
            round_inch=making.inch,
            decided=decided,
            bands=linked,
            numbers=numbers,
            read=_read(making, measured),
        )
    except BadInput as error:
        return MadePiece(problem=_said(family, error))
    return MadePiece(made)


def _said(family: Family, error: BadInput) -> str:
    """Why a piece cannot be made, with the words of the size that does not work."""
    sizes = (*family.sizes, *_typed_of_mates(family))
    words = next((size.words for size in sizes if size.key == error.key), "")
    says = error.message
    if words and not says.startswith(words):
        says = f"{words}: {says}"
    return begun(says)


def _read(making: Making, measured: Measures) -> dict[str, str]:
    """The sizes that are measured on the piece it is made from, as far as they are."""
    found = {}
    for key, surface in making.read_on.items():
        read = measured.get((making.old, surface))
        if read is not None and not read.refused:
            found[key] = as_kept(read.size)
    return found


def joint_told(
    work: Work, standing: Mapping[str, Piece], measured: Measures
) -> dict[int, dict[str, Any]]:
    """By number of a fit, what the piece tells its joint, as far as it is known.

    `centred`: the number of the fit that centres what screws only hold; standing: the
    pieces that there are, by id.
    """
    making, numbers = work.making, work.fits
    if making is None:
        return {}
    family = family_for(making)
    sizes = {size.key: size for size in (*family.sizes, *_typed_of_mates(family))}
    found: dict[int, dict[str, Any]] = {}
    for slot in family.fits:
        if not slot.rests or slot.key not in numbers:
            continue
        values = {
            key: said(sizes[key], making)
            or _word_of_mate(str(sizes[key].rule), making, family, standing, measured)
            or _aid_of_mate(key, making, family, standing)
            for key in slot.rests
        }
        told = {k: v for k, v in slot.tells(values).items() if v is not None}
        if slot.centred in numbers:
            told["centred"] = numbers[slot.centred]
        found[numbers[slot.key]] = told
    return found


def _typed_of_mates(family: Family) -> list[Size]:
    """The typed sizes of the mates, as sizes of the family."""
    return [
        Size(key, mate_size.words, "", low=1e-6, kind=mate_size.kind)
        for key, mate_size in family.mate_keys.items()
        if not mate_size.surfaces
    ]


def said(size: Size, making: Making) -> Value | None:
    """A size as typed, or as it usually is where that is a word; None else."""
    text = making.sizes.get(size.key, "")
    if not text:
        word = size.kind is TEXT and isinstance(size.rule, str) and "." not in size.rule
        return usual_word(size, making.inch) if word else None
    try:
        return size.read(text, inch=False)
    except BadInput:
        return None  # a link, or what no longer reads


def _word_of_mate(
    key: str,
    making: Making,
    family: Family,
    standing: Mapping[str, Piece],
    measured: Measures,
) -> str | None:
    """A word that a mate gives, as the screws of its holes: what it is made by, or
    what the holes tell, else the usual one; None where the key is none of a mate's."""
    mate_size = family.mate_keys.get(key)
    if mate_size is None or not isinstance(mate_size.usual, str):
        return None
    role = key.partition(".")[0]
    piece = standing.get(making.mates.get(role, ""))
    surface = surface_of(piece, mate_size) if piece is not None else None
    if surface is not None and surface.given:
        return surface.given
    if hole := hole_of(key, mate_size):
        other = family.mate_keys[hole]
        found = _found(hole, piece, other, measured) | making.sizes
        if hole in found:
            size = float(other.value(hole, found[hole]))
            return screw_told(mate_size, family, size, making.sizes, making.inch)
    return mate_size.usual


def _aid_of_mate(
    key: str, making: Making, family: Family, standing: Mapping[str, Piece]
) -> float | None:
    """A figure that stands in a mate's readings, as the depth of its dovetail; None
    without."""
    mate_size = family.mate_keys.get(key)
    piece = standing.get(making.mates.get(key.partition(".")[0], ""))
    if mate_size is None or piece is None or not mate_size.aid:
        return None
    return next(
        (s.aids[mate_size.aid] for s in piece.surfaces if mate_size.aid in s.aids), None
    )


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


def ruled_sizes(work: Work) -> dict[str, int]:
    """By size of a piece that is made, the number of the fit that rules it."""
    assert work.making is not None
    slots = {slot.key: slot.rules for slot in family_for(work.making).fits}
    ruled = {slots[slot]: number for slot, number in work.fits.items()}
    for key, text in work.making.sizes.items():
        if found := re.fullmatch(r"=\s*fit(\d+)", text):
            ruled.setdefault(key, int(found[1]))
    return ruled


def wish_of(fit: FitChoice) -> str:
    """The character of a fit, as a family is told it."""
    if fit.want == "own":
        ends = (fit.clearance_min, fit.clearance_max)
        return " to ".join(as_kept(end) for end in ends)
    return fit.want


def _found(
    key: str, piece: Piece | None, mate_size: MateSize, measured: Measures
) -> dict[str, str]:
    """A mate's size as far as the survey knows it."""
    if mate_size.aid:
        return _aid_of(key, piece, mate_size)
    return _known(key, piece, mate_size, measured) or {}


def _known(
    key: str, piece: Piece | None, mate_size: MateSize, measured: Measures
) -> dict[str, str] | None:
    """A mate's size as measured with its doubt, or the standard that it is of; None
    while it is unknown."""
    surface = surface_of(piece, mate_size) if piece is not None else None
    if piece is None or surface is None:
        return None
    found = measured.get((piece.id, surface.id))
    if found is None or found.refused:
        return None
    if isinstance(mate_size.usual, str):
        name = surface.given or (found.likely[0].name if found.likely else "")
        return {key: name} if name else None
    doubt = found.uncertainty + found.shape / 2
    sizes = {key: found.size, f"{key}.doubt": doubt}
    return {name: as_kept(size) for name, size in sizes.items()}


def _aid_of(key: str, piece: Piece | None, mate_size: MateSize) -> dict[str, str]:
    """A figure that stands in a mate's readings, as the number of its holes."""
    for surface in piece.surfaces if piece else ():
        found = aid_of(surface, mate_size.aid)
        if found is not None:
            return {key: typed_again(found)}
    return {}


def _where_told(
    key: str, piece: Piece | None, mate_size: MateSize, measured: Measures
) -> Literal["survey", "fits", "piece"]:
    """The stage that tells a mate's size while it is not known."""
    if not mate_size.surfaces:
        surfaces = piece.surfaces if piece is not None else ()
        sums = [sum_of(surface) for surface in surfaces]
        asks = {ask.key for found in sums if found for ask in found.asks}
        return "survey" if mate_size.aid in asks else "piece"
    read = _known(key, piece, mate_size, measured) is not None
    return "fits" if read else "survey"


def could_be(mate: Mate, piece: Piece) -> bool:
    """Whether a piece has every surface that a mate's sizes are read on."""
    return all(
        surface_of(piece, mate_size) is not None
        for mate_size in mate.sizes
        if mate_size.surfaces and (mate.optional or not mate_size.optional)
    )


# surfaces that so many pieces have that they say nothing of what one is
_EVERYWHERE = frozenset(
    ("shaft", "bore", "hole", "width", "thickness", "length", "depth", "shoulder")
)
_WORD = re.compile(r"[^\W\d_]{3,}")
_SAID_OF_ANY = frozenset(
    ("the", "its", "what", "goes", "that", "are", "for", "made", "bar", "part")
)


def likely_mate(mate: Mate, piece: Piece) -> bool:
    """Whether a piece that could be a mate likely is the one: by what it is called, or
    as few others have such surfaces."""
    rare = any(
        mate_size.surfaces and not _EVERYWHERE.intersection(mate_size.surfaces)
        for mate_size in mate.sizes
        if mate.optional or not mate_size.optional
    )
    wanted = _WORD.findall(f"{mate.words} {mate.also}".casefold())
    names = _WORD.findall(piece.name.casefold().partition(",")[0])
    return rare or any(
        name.startswith(word) or word.startswith(name)
        for word in set(wanted) - _SAID_OF_ANY
        for name in set(names) - _SAID_OF_ANY
    )


def role_of(family: Family, piece: Piece) -> Mate | None:
    """The mate of a family that a piece could be, the likeliest; None: it is none.

    What a family can do without it is not, unless it likely is.
    """
    roles = mate_pieces(family)
    able = [m for m in family.mates if m.role in roles and could_be(m, piece)]
    likely = [mate for mate in able if likely_mate(mate, piece)]
    needed = [mate for mate in able if not mate.optional]
    return next(iter(likely or needed), None)


def made_for(piece: Piece) -> list[Family]:
    """The families that a piece could be a mate of, the likeliest first, and after them
    those that build up anything."""
    mates = {f.key: role_of(f, piece) for f in families().values() if not f.free}
    able = {key: likely_mate(mate, piece) for key, mate in mates.items() if mate}
    likeliest = sorted(able, key=lambda key: not able[key])
    return [
        *(families()[key] for key in likeliest),
        *(family for family in families().values() if family.free),
    ]


def mate_pieces(family: Family) -> dict[str, Piece]:
    """A new piece for each mate that has something to measure, with its surfaces.

    The ids are the roles; whoever keeps them gives them their own.
    """
    found = {}
    for mate in family.mates:
        piece = Piece(mate.role, mate.called, mate.shape, mate.metal, mate.surfaces)
        for mate_size in mate.sizes:
            wanted = mate.optional or not mate_size.optional
            group = _group_of(mate_size) if wanted else ""
            if group and surface_of(piece, mate_size) is None:
                for surface in new_surfaces(piece, group, mate_size.called):
                    piece = piece.with_surface(surface)
        if piece.surfaces:
            found[mate.role] = piece
    return found


def _group_of(mate_size: MateSize) -> str:
    """The group of surfaces that is added for a mate's size; empty for none."""
    for wanted in mate_size.surfaces:
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
        mate_size = family.mate_keys[slot.mate]
        surface = surface_of(piece, mate_size) if piece is not None else None
        if piece is None or surface is None:
            continue
        form = joint_forms()[slot.joint]  # type: ignore[index]
        fits[slot.key] = FitChoice(
            number,
            slot.words,
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
    family = family_for(making)
    fits = first_fits(family, mates, first)
    work = Work(
        key,
        replace(making, mates={role: piece.id for role, piece in mates.items()}),
        {slot: fit.number for slot, fit in fits.items()},
        proof=ProofLog(surfaces=proof_surfaces(family, tuple(fits.values()))),
    )
    return work, tuple(fits.values())


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
    ("dovetail", "hole"): "over-pins",
    ("dovetail", "shaft"): "between-pins",
    ("bolts", "hole"): "bolt-circle",
    ("bolts", "shaft"): "bolt-circle",
}


def half_of(joint: str, exists: str) -> str:
    """The form of surface that the new half of a fit is: `register`, `bore`."""
    return _HALVES.get((joint, exists)) or ("shaft" if exists == "hole" else "bore")


def proof_surface(fit: FitChoice, name: str = "") -> Surface:
    """The surface that is measured to prove a fit's new half."""
    form = surface_forms()[half_of(fit.joint, fit.exists)]
    words = fit.name
    if fit.joint == "bolts":
        words = f"{form.name} ({within(words)})"
    return Surface(f"fit.{fit.number}", name or words, form.kind, form.how)


def form_of_surface(name: str) -> SurfaceForm:
    """A kind of surface; a piece with several of them numbers them: `shaft-2`."""
    return surface_forms()[re.sub(r"-\d+$", "", name)]


def size_surface(family: Family, key: str, form_name: str) -> Surface:
    """The surface of a size that no fit rules, as others are made to it."""
    form = form_of_surface(form_name)
    words = family.size(key).words
    name = begun(words)
    return Surface(f"size.{key}", name, form.kind, form.how)


def drawn_surface(made: Made, key: str) -> Surface | None:
    """The surface that is measured to prove a size against the drawing; None for one
    that no gauge reads, as a count or a word."""
    size = made.sizes[key].size
    if size.kind is not LENGTH:
        return None
    name, _, measure = size.drawn_at.partition(".")
    feature = made.body.found(name)
    at = feature.dimensions().get(measure) if feature is not None else None
    if at is None:
        return None
    form = "length"
    if at.kind == "diameter":
        form = "bore" if at.inside else "shaft"
    return size_surface(made.family, key, form)


def gauged_by(made: Made | None, surface: Surface) -> tuple[SurfaceKind, ...]:
    """The kinds of instrument that can read a surface, one that a piece is proved on
    too: a length between faces that stand free is gripped by a micrometer."""
    kind, _, name = surface.id.partition(".")
    key = name
    if kind == "chain" and made is not None:
        bands = (band.slot for band in made.fits)
        key = next((slot.rules for slot in bands if slot.key == name), "")
    if kind in ("size", "chain") and made is not None and is_gripped(made, key):
        return (surface.kind, "outside")
    return kinds_that_read(surface)


def is_gripped(made: Made, key: str) -> bool:
    """Whether the faces of a length stand free on both sides, so that the anvils of a
    micrometer reach them."""
    if key not in made.sizes:
        return False
    name, _, measure = made.sizes[key].size.drawn_at.partition(".")
    feature = made.body.found(name)
    if isinstance(feature, SixFaces):
        return True
    at = feature.dimensions().get(measure) if feature is not None else None
    if not isinstance(feature, Cylinder | End) or at is None or at.kind != "along":
        return False
    first, last = sorted((at.start, at.end))
    stations = (first - BESIDE, (first + last) / 2, last + BESIDE)
    before, there, after = (out for _, out in made.body.radii_at(stations))
    return there - max(before, after) >= ANVIL


def proof_surfaces(family: Family, fits: Sequence[FitChoice]) -> tuple[Surface, ...]:
    """The surfaces that prove a piece of a family: each size that a band rules, and
    those that the family names."""
    # a thread is proved by its mate alone
    found = [proof_surface(fit) for fit in fits if fit.kind != "thread"]
    form = surface_forms()["length"]
    for chain in family.chains:
        found.append(Surface(f"chain.{chain.key}", chain.words, form.kind, form.how))
    for key in family.proof:
        found.append(size_surface(family, key, family.form_of(key) or "length"))
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
        ruled = ruled_sizes(work)
        for form, key in family_for(work.making).surfaces.items():
            kinds[f"fit.{ruled[key]}" if key in ruled else f"size.{key}"] = form
    taken: dict[str, int] = {}
    found = []
    for surface in surfaces:
        key = re.sub(r"-\d+$", "", kinds.get(surface.id, "length"))
        taken[key] = taken.get(key, 0) + 1
        id = key if taken[key] == 1 else f"{key}-{taken[key]}"
        found.append(
            replace(surface, id=id, aids=dict(aids.get(surface.id, surface.aids)))
        )
    return tuple(found)


def named_surfaces(made: Made) -> tuple[Surface, ...]:
    """The tapers and threads of a piece that have a name, as they are by their
    standard: others are made to them, and go on by them."""
    piece = Piece("", "", "other", "")
    for feature in made.body.features:
        group, given = _named(feature)
        name = begun(spoken(feature.name))
        if group.startswith("thread") and "thread" not in name.lower():
            name += " thread"
        for surface in new_surfaces(piece, group) if given else ():
            whose = f"{name}, pitch" if surface.kind == "pitch" else name
            piece = piece.with_surface(replace(surface, name=whose, given=given))
    return piece.surfaces


def _named(feature: Feature) -> tuple[str, str]:
    """The group of surfaces that a taper or thread is, and its name; empty for what has
    none."""
    if isinstance(feature, Screw | NutThread):
        outside = isinstance(feature, Screw)
        return "thread-out" if outside else "thread-in", feature.of.name
    if not isinstance(feature, Sloping) or not feature.taper:
        return "", ""
    large = taper_of(feature.taper).large
    widest = max(feature.start_diameter, feature.end_diameter)
    if large is None or abs(widest - large) > NEAR_GAUGE:
        return "", ""  # of that angle, and of another size
    inside = isinstance(feature, TaperBore)
    return "taper-in" if inside else "taper-out", feature.taper
