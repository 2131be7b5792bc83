"""A piece worked out: every size of its family, and what rules each."""

import functools
import math
from collections.abc import Iterable, Mapping
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.materials import material
from machinon.core.piece.bands import FitBand, chain_band, fit_band
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    STOCK_BORE,
    By,
    Chain,
    Check,
    Family,
    FitSlot,
    Holding,
    MateSize,
    OfPart,
    Size,
    Value,
    Values,
    alike,
    at_least,
    grown,
    part_names,
    spoken,
)
from machinon.core.piece.feature import FACE_AXES, Feature
from machinon.core.piece.hardware import Hardware, sold_as
from machinon.core.piece.hole_features import CrossHoles, Holes
from machinon.core.piece.idle import idle
from machinon.core.piece.lost import lost
from machinon.core.piece.milled_features import CrossSlot, Flats, Keyway, Slits
from machinon.core.piece.relations import Expression, in_order
from machinon.core.piece.round_sizes import (
    ROUNDINGS,
    inch_screw,
    inch_step,
    round_inches,
    step_in,
    to_nearest,
    upwards,
)
from machinon.core.piece.shown import as_told
from machinon.core.piece.stock import CLEANS_UP, Block, Round
from machinon.core.piece.turned_features import End
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.sizes.general_tolerance import general_tolerance
from machinon.core.sizes.reamers import LEAVES
from machinon.core.threads.screws import screw_by
from machinon.core.wording import within

THREADS = ("thread", "screw")  # measures that are the name of one
COARSE = 0.5  # mm: what is rounded to less is meant to go on its mate
NOTHING = 0.1  # mm³ that are no piece


class Known(Struct, frozen=True):
    """A size with what it came to and why."""

    size: Size
    value: Value
    by: By
    because: str
    # of a band that it is linked to, or that what it meets leaves it, mm
    ends: tuple[float, float] | None = None


class Made(Struct, frozen=True, dict=True):
    """A family with every size known: one piece, worked out."""

    family: Family
    values: Values  # by size and by mate
    sizes: Mapping[str, Known]
    fits: tuple[FitBand, ...]
    body: Body
    checks: tuple[Check, ...]
    holdings: tuple[Holding, ...]
    material: str
    given: Mapping[str, str] = {}
    numbers: Mapping[str, int] = {}  # of its fits in a job, by slot
    count: int = 1  # how many alike are made

    @property
    def title(self) -> str:
        """What it is, and how many of them: "Stud, 4 off"."""
        off = f", {self.count} off" if self.count > 1 else ""
        return f"{self.family.name}{off}"

    @functools.cached_property
    def hardware(self) -> tuple[Hardware, ...]:
        """The bought parts that go with it."""
        return tuple(self.family.hardware(self.values))

    def limits(self, key: str) -> tuple[float, float] | None:
        """The limits that stand under a size on the drawing, mm; None where it has none
        of its own."""
        for band in self.fits:
            low, high = band.lower, band.upper
            if band.slot.rules == key and low is not None and high is not None:
                return low, high
        return self.sizes[key].ends

    @functools.cached_property
    def drawn_limits(self) -> Mapping[str, tuple[float, float]]:
        """The limits of those sizes that have any, by where they are drawn; mm."""
        drawn = (
            (known.size.drawn_at, self.limits(key)) for key, known in self.sizes.items()
        )
        return {place: ends for place, ends in drawn if ends is not None}

    def allowed(self, key: str) -> tuple[float, float]:
        """What the drawing lets a length be, mm: its own limits, else what ISO 2768
        gives it."""
        size = float(self.values[key])
        off = general_tolerance(size)
        return self.limits(key) or (max(size - off, 0.0), size + off)


def make(
    family: Family,
    given: Mapping[str, str],
    inch: bool = False,
    round_inch: bool = False,
    decided: Mapping[str, FitBand] | None = None,
    bands: Mapping[str, tuple[float, float]] | None = None,
    numbers: Mapping[str, int] | None = None,
    read: Mapping[str, str] | None = None,
) -> Made:
    """Work a piece out from what was given; the rest follows its rules.

    inch: bare lengths are inches; round_inch: what follows a rule is round in inches,
    with inch screws; decided: by slot, a fit that was worked out already; bands: by
    name, other bands that a link may speak of, as their middle: `= fit2`; mm; numbers:
    of the fits in a job, by slot, else as the family counts them; read: sizes as they
    were measured on the piece that it is made from, in mm; one that is typed stands
    before it.

    given: by size, mate (`nose.register`), its doubt (`nose.register.doubt`) or fit
    (`fit.register`), as typed, `count` how many alike; a size that starts with = is a
    link. Raises BadInput on the first that cannot be.
    """
    count = 1
    if "count" in given:
        sizes, count = alike(family, given["count"])
        given = sizes | {key: text for key, text in given.items() if key != "count"}
    if "parts" in given and family.parts:
        family = grown(family, part_names(family, given["parts"]))
    wants, typed, mates, doubts, metal = _sorted_out(family, given, inch)
    read = {k: v for k, v in (read or {}).items() if k not in typed}
    typed |= read
    present = [slot for slot in family.slots if _stands(family, slot, given)]
    slots = {slot.rules: slot for slot in present}
    rests, links = _rests_on(family, typed, slots)
    known: dict[str, Known] = {}
    middles = {name: round(sum(ends) / 2, 3) for name, ends in (bands or {}).items()}
    values: dict[str, Any] = {**middles, **mates, "material": metal}
    values["parts"] = family.names
    values["inch"] = round_inch
    optional = {key for key, mate in family.mate_keys.items() if mate.optional}
    told = _told_by_holes(family, given, mates, round_inch)
    values |= told
    values["away"] = frozenset(optional - given.keys() - told.keys())
    fits: dict[str, FitBand] = {}
    for key in in_order(rests):
        size, slot = family.size(key), slots.get(key)
        if isinstance(slot, Chain):
            own = {k: _off(known[k], values) for k, _ in slot.links if k in known}
            fits[slot.key] = chain_band(slot, values, {**doubts, **own})
        elif slot is not None:
            fits[slot.key] = (decided or {}).get(slot.key) or fit_band(
                slot, wants.get(slot.key, slot.want), values, doubts, fits
            )
        if key in links:
            known[key] = _by_link(size, typed[key], links[key], values, bands or {})
        elif key in read:
            was = size.read(typed[key], inch)
            known[key] = Known(size, was, "read", "as the old piece measures")
        elif typed.get(key):
            known[key] = Known(size, size.read(typed[key], inch), "typed", "typed")
        elif slot is not None:
            known[key] = _by_band(size, fits[slot.key], mates, round_inch)
        else:
            known[key] = _ruled(size, rests[key], values)
        values[key] = known[key].value
    for key, found in known.items():
        limits = found.size.limits(values)
        if limits is not None and found.ends is None:
            low, high = as_told(*limits)
            if low <= float(found.value) <= high:  # else it is meant to be otherwise
                known[key] = replace(found, ends=(low, high))
    solid = family.build(values)
    body = _of_tube(solid, values)
    _whole(body)
    checks = (
        *_fit_checks(known, fits),
        *_reamed(body, known, fits, round_inch),
        *family.checks(values),
        *_tube_bored(body, solid),
        *_gone(solid, family.free),
    )
    return Made(
        family,
        values,
        {size.key: known[size.key] for size in family.sizes},
        tuple(fits[slot.key] for slot in present),
        body,
        checks,
        family.route(values),
        metal,
        dict(given),
        {slot.key: n for n, slot in enumerate(family.fits, 1)}
        if numbers is None
        else numbers,
        count,
    )


def _rests_on(
    family: Family, typed: Mapping[str, str], slots: Mapping[str, FitSlot | Chain]
) -> tuple[dict[str, tuple[str, ...]], dict[str, Expression]]:
    """The names that each size is reckoned from, and the links that were typed; slots:
    by the size that each rules."""
    rests: dict[str, tuple[str, ...]] = {}
    links: dict[str, Expression] = {}
    for size in family.sizes:
        text = typed.get(size.key, "")
        if text.startswith("="):
            if size.kind in (TEXT, FLAG):
                raise BadInput(size.key, f"{size.words}: a sum is no word for it.")
            links[size.key] = Expression(text, size.key)
            rests[size.key] = links[size.key].names
        elif text:
            rests[size.key] = ()
        elif size.key not in slots:
            rests[size.key] = _names_of(size)
        if size.key in slots:
            # a band is worked out whatever rules the size
            needs = _needs(slots[size.key], family)
            rests[size.key] = (*rests.get(size.key, ()), *needs)
    return rests, links


def _sorted_out(
    family: Family, given: Mapping[str, str], inch: bool
) -> tuple[dict[str, str], dict[str, str], dict[str, Any], dict[str, float], str]:
    """Wishes, sizes as typed, mates, their doubts, and the metal."""
    wants: dict[str, str] = {}
    typed: dict[str, str] = {}
    mates: dict[str, Any] = {
        key: mate_size.usual for key, mate_size in family.mate_keys.items()
    }
    doubts: dict[str, float] = {}
    metal = family.material
    sizes = {size.key for size in family.sizes}
    slots = {slot.key for slot in family.fits}
    for key, text in given.items():
        if key == "parts" and family.parts:
            continue
        if key == "material":
            known = material(text.strip())
            if known.ground_only:
                raise BadInput(key, f"{known.name} is ground: no step here cuts it.")
            metal = known.name
        elif key.startswith("fit."):
            if key[4:] not in slots:
                raise unknown(key, key, [f"fit.{slot}" for slot in slots])
            wants[key[4:]] = text.strip()
        elif key.endswith(".doubt") and key[:-6] in mates:
            doubts[key[:-6]] = quantity.parse(text, inch=inch, key=key, low=0, high=5)
        elif key in mates:
            mates[key] = family.mate_keys[key].value(key, text, inch)
        elif key in sizes:
            typed[key] = text.strip()
        else:
            raise unknown(key, key, [*sizes, *mates, *(f"fit.{s}" for s in slots)])
    return wants, typed, mates, doubts, metal


def _told_by_holes(
    family: Family, given: Mapping[str, str], mates: Mapping[str, Any], inch: bool
) -> dict[str, str]:
    """The screws of the mates' holes, where those are known and they are not."""
    return {
        key: screw_told(mate_size, family, mates[hole], given, inch)
        for key, mate_size in family.mate_keys.items()
        if (hole := hole_of(key, mate_size)) in given and key not in given
    }


def hole_of(key: str, mate_size: MateSize) -> str:
    """The mate's size that tells its screws, their hole; empty for any other size."""
    return f"{key.partition('.')[0]}.{mate_size.by}" if mate_size.by else ""


def screw_told(
    mate_size: MateSize,
    family: Family,
    hole: float,
    given: Mapping[str, str],
    inch: bool,
) -> str:
    """The screw that a mate's holes, mm, are for; the usual one where none is near.

    given: sizes as typed, of which one may say that the holes are tapped.
    """
    tapped = False
    if mate_size.bolting:
        said = given.get(mate_size.bolting) or family.size(mate_size.bolting).rule
        tapped = said != "into"
    return screw_by(hole, tapped, inch) or str(mate_size.usual)


def _stands(family: Family, slot: FitSlot | Chain, given: Mapping[str, str]) -> bool:
    """Whether a slot has its other half: a mate that it can do without may be away,
    and then the size it rules goes by its own rule."""
    links = [key for key, _ in slot.links] if isinstance(slot, Chain) else [slot.mate]
    away = {mate.role for mate in family.mates if mate.optional}
    return all(key in given for key in links if key.partition(".")[0] in away)


def _names_of(size: Size) -> tuple[str, ...]:
    if not isinstance(size.rule, str) or size.kind in (TEXT, FLAG):
        return size.rests
    return Expression(size.rule, size.key).names


def _numbers(values: Values) -> dict[str, float]:
    return {
        key: float(value)
        for key, value in values.items()
        if isinstance(value, int | float)
    }


def _rounded(value: float, step: float) -> float:
    return round(to_nearest(value, step), 9) if step else value


def _by_rule(size: Size, values: Values, inch: bool) -> Value:
    """What a rule comes to. inch: round in inches."""
    found: Value
    if not isinstance(size.rule, str):
        assert not isinstance(size.rule, OfPart), "it has its part's name by now"
        found = size.rule(values)
    elif size.kind is TEXT:
        # a word may be that of a mate: nose.thread
        known = values.get(size.rule)
        return usual_word(size, inch) if known is None else str(known)
    elif size.kind is FLAG:
        found = size.rule == "yes"
    else:
        found = Expression(size.rule, size.key).value(_numbers(values), inch)
    if isinstance(found, bool):
        return found
    if isinstance(found, str):
        return inch_screw(found) if inch and size.measure in THREADS else found
    value, step = float(found), size.step
    if inch and size.kind is LENGTH:
        if isinstance(size.rule, str) and not _names_of(size):
            value = round_inches(value, size.low, size.high)
        step = step if size.by == "copy" and step < COARSE else inch_step(step)
    if size.up:
        value = upwards(value, step_in(size.up, inch))
    return size.checked(_rounded(value, step))


def usual_word(size: Size, inch: bool) -> str:
    """The word that a size starts with. inch: of a thread, the inch one."""
    word = str(size.rule)
    return inch_screw(word) if inch and size.measure in THREADS else word


def _why(size: Size, inch: bool) -> str:
    if size.why:
        return size.why
    if not isinstance(size.rule, str) or not _names_of(size):
        return "as usual"
    rounds = inch and any(f"{word}(" in size.rule for word in ROUNDINGS)
    return f"= {size.rule}{', round in inches' if rounds else ''}"


def _needs(slot: FitSlot | Chain, family: Family) -> tuple[str, ...]:
    """The sizes that must be known before a slot's band is worked out."""
    if isinstance(slot, Chain) or not slot.centred:
        return slot.rests
    centres = next(fit for fit in family.fits if fit.key == slot.centred)
    return (*slot.rests, centres.rules)


def _by_link(
    size: Size,
    text: str,
    link: Expression,
    values: Values,
    bands: Mapping[str, tuple[float, float]],
) -> Known:
    """A size that is linked to others; with the ends of the band that it is alone."""
    found = size.checked(_rounded(link.value(_numbers(values)), size.step))
    ends = bands.get(text.removeprefix("=").strip())
    return Known(size, found, "link", text.strip(), ends)


def _off(known: Known, values: Values) -> float:
    """How far a link of the piece's own may be off by the drawing, each way, mm."""
    limits = known.size.limits(values)
    if limits is None:
        return general_tolerance(float(known.value)) if known.value else 0.0
    return (limits[1] - limits[0]) / 2


def _ruled(size: Size, rests: tuple[str, ...], values: Values) -> Known:
    """A size by its rule; one that goes by a mate that is away goes by nothing."""
    inch = bool(values["inch"])
    found = _by_rule(size, values, inch)
    if rests and values["away"].issuperset(rests):
        return Known(size, found, "rule", "as usual")
    return Known(size, found, size.by, _why(size, inch))


def _by_band(size: Size, band: FitBand, mates: Values, inch: bool) -> Known:
    slot, drawn = band.slot, band.drawn(inch)
    aim = _rounded(drawn, slot.step)
    if band.lower is not None and band.upper is not None:
        # no round size lies in a narrow band
        aim = aim if band.lower <= aim <= band.upper else round(drawn, 3)
    size.checked(aim)
    if isinstance(slot, Chain):
        return Known(size, aim, "chain", f"{slot.words}: {slot.told}")
    mate = mates[slot.mate]
    on = mate if isinstance(mate, str) else f"{float(mate):.3f} mm"
    return Known(
        size, aim, "fit", f"{slot.words}: {band.want or 'usual class'} on {on}"
    )


def _fit_checks(
    known: Mapping[str, Known], fits: Mapping[str, FitBand]
) -> Iterable[Check]:
    """Whether what is drawn agrees with each mate as measured."""
    for band in fits.values():
        slot = band.slot
        value = known[slot.rules].value
        place = slot.rules.partition(".")[0]
        key = f"fit-{slot.key}"
        if band.problem:
            yield Check(key, place, False, f"{slot.words}: {band.problem}")
            continue
        if band.lower is None or band.upper is None:
            continue  # nothing is kept to compare it with
        inside = band.lower - 1e-9 <= float(value) <= band.upper + 1e-9
        lengths = float(value), band.lower, band.upper
        form = f"{slot.words}: {{}} in drawn, the mate wants {{}} to {{}} in."
        drawn, low, high = (f"{length:.3f}" for length in lengths)
        says = f"{slot.words}: {drawn} mm drawn, the mate wants {low} to {high} mm."
        yield Check(key, place, inside, says, form=form, lengths=lengths)


def _reamed(
    body: Body, known: Mapping[str, Known], fits: Mapping[str, FitBand], inch: bool
) -> Iterable[Check]:
    """Whether a reamer that is sold leaves a hole that its mate goes by."""
    reamed: dict[Value, str] = {
        feature.hole.diameter: feature.name
        for feature in reversed(body.features)
        if isinstance(feature, Holes | CrossHoles) and feature.hole.ream
    }
    for band in fits.values():
        name = reamed.get(known[band.slot.rules].value)
        found = band.reamed(inch)
        if name is None or found is None or band.wanted is None:
            continue
        reamer, does = found
        mate = within(band.slot.words)
        says = f"Reamed for the {mate}: {sold_as(reamer.size)} {LEAVES} leaves "
        lengths = (reamer.lower, reamer.upper, *band.wanted)
        advice = (
            "Ream scrap first."
            if does
            else "Take another fit, an adjustable reamer, or bore it."
        )
        least, most, wants, to = (f"{length:.3f}" for length in lengths)
        yield Check(
            f"reamer-{band.slot.key}",
            name,
            does,
            f"{says}{least} to {most} mm, {wants} to {to} mm is wanted. {advice}",
            grave=False,
            form=f"{says}{{}} to {{}} in, {{}} to {{}} in is wanted. {advice}",
            lengths=lengths,
        )


def _of_tube(body: Body, values: Values) -> Body:
    """The body with the hole that is in its stock."""
    stock, bore = body.stock, float(values.get(STOCK_BORE.key, 0.0))
    if not bore or not isinstance(stock, Round):
        return body
    if bore >= stock.diameter:
        raise BadInput(STOCK_BORE.key, "The stock has no wall with that bore.")
    return replace(body, stock=replace(stock, bore=bore))


def _tube_bored(body: Body, solid: Body) -> Iterable[Check]:
    """Whether the hole in the stock leaves metal to bore; solid: as of solid bar."""
    if not body.stock.bore:
        return
    if solid.hollow:
        yield at_least(
            "stock-bore",
            "stock",
            (solid.hollow - body.stock.bore) / 2,
            CLEANS_UP,
            "Metal in the hole of the stock, to a side, to bore it clean",
        )
    else:
        says = "The piece has no hole right through: it cannot be made of tube."
        yield Check("stock-bore", "stock", False, says)


def _gone(body: Body, free: bool) -> Iterable[Check]:
    """What is drawn and yet not there; free: nobody planned what takes the place of
    what, as a thread does of its bore."""
    for name in dict.fromkeys((*lost(body), *(idle(body) if free else ()))):
        says = (
            f"Nothing is left of {spoken(name)}: larger cuts take it away, or it lies "
            "outside of the metal."
        )
        if _beyond_stock(body, name):
            says = "The stock is too short for what is drawn."
        yield Check(f"gone-{name}", name, False, says)


def _beyond_stock(body: Body, name: str) -> bool:
    """Whether a feature is an end that lies past the end of the stock."""
    end, stock = body.feature(name), body.stock
    if not isinstance(end, End) or isinstance(stock, Block):
        return False
    return not stock.start <= end.z <= stock.end


def _swallows(feature: Feature, body: Body) -> bool:
    """Whether a cut is as wide as what it is in, so that only the solid tells whether
    any of that is left."""
    match feature:
        case CrossHoles():
            first, last = body.ends
            return feature.hole.widest >= min(last - first, body.largest)
        case Slits():
            return feature.width * len(feature.angles) >= body.largest / 2
        case Keyway() | CrossSlot():
            return feature.width >= body.largest / 2
        case Flats():
            return feature.across <= body.hollow
        case Holes():
            wide, into = feature.hole.widest, "xyz".index(FACE_AXES[feature.face][2])
            if feature.block is None:
                sides = [body.largest / 2, 2 * body.largest]
            else:
                sides = [side for n, side in enumerate(feature.block) if n != into]
            together = feature.many * wide**2 >= math.prod(sides)
            return together or wide >= min(sides)
    return False


def _whole(body: Body) -> None:
    """Refuse a body of which nothing, or of what turns more than one part, is left."""
    from shapely.errors import GEOSException

    try:
        left = body.rings() if body.turns else body.shadow.outlines["top"]
    except GEOSException:
        raise BadInput("sizes", "No tool cuts a shape of these sizes.") from None
    wide = left and any(_swallows(feature, body) for feature in body.features)
    if not left or (wide and body.solid.volume() < NOTHING):
        raise BadInput("sizes", "Nothing is left of the stock with these sizes.")
    if body.turns and len(left) > 1:
        raise BadInput("sizes", "With these sizes the piece falls in two.")
