"""A family: one kind of piece, its sizes and what rules each, its mates and fits.

A family is one file in `core.families` with a `FAMILY`. Everything else that is said
of it (help, command line, screens, sheets) is read from that value.
"""

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from typing import Any, Literal

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.in_inches import in_inches
from machinon.core.materials import material
from machinon.core.piece.body import Body
from machinon.core.piece.outline import corners_of, corners_text
from machinon.core.piece.relations import Expression, in_order
from machinon.core.quantity import COUNT, LENGTH, Kind
from machinon.core.reckoning import FLAG, TEXT, Answer, reckon
from machinon.core.setting_out.bolt_circle import circle_band
from machinon.core.shop.things import Surface
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw
from machinon.core.threads.thread_limits import crest_limits
from machinon.core.wording import begun, within

By = Literal["rule", "fit", "copy", "clearance", "chain", "link", "read", "typed"]
Value = float | str | bool
Values = Mapping[str, Any]
DOUBT = 0.004  # mm, two sigma: of a mate given as a bare size, as by micrometer


class Size(Struct, frozen=True):
    """A named size, `feature.measure`.

    rule: the expression it starts from, the word a text starts with, or what works it
    out from the sizes named in `rests`; why: the rule in words; by: what kind of rule;
    step: it is rounded to; at: the measure that it is, where its own name is none.
    """

    key: str
    words: str
    rule: str | Callable[[Values], Value]
    why: str = ""
    low: float = 0.0
    high: float = 2000.0
    kind: Kind = LENGTH
    choices: tuple[str, ...] = ()
    by: By = "rule"
    step: float = 0.0
    rests: tuple[str, ...] = ()
    at: str = ""

    @property
    def drawn_at(self) -> str:
        """The measure of a feature where the drawing has it."""
        return self.at or self.key

    @property
    def feature(self) -> str:
        return self.key.partition(".")[0]

    @property
    def measure(self) -> str:
        return self.key.partition(".")[2]

    def read(self, typed: str, inch: bool) -> Value:
        """A figure or a word as typed. Raises BadInput on the size."""
        text = typed.strip()
        if self.kind is TEXT:
            return self._word(text, inch)
        if self.kind is FLAG:
            if text.lower() not in ("yes", "no"):
                raise unknown(self.key, text, ("yes", "no"))
            return text.lower() == "yes"
        value = quantity.parse(text, self.kind, inch=inch, key=self.key)
        try:
            return self.checked(value)
        except BadInput as error:
            says = in_inches(error.message) if inch else error.message
            raise BadInput(self.key, says) from None

    def _word(self, text: str, inch: bool) -> str:
        if self.choices and text not in self.choices:
            raise unknown(self.key, text, self.choices)
        if self.measure == "points":
            return corners_text(corners_of(text, inch, self.key))
        if self.measure == "screw":
            return cap_screw(text, self.key).size
        if self.measure == "thread" and text != "none":
            return thread_of(text, self.key).name
        if self.measure == "material":
            return material(text, self.key).name
        if not text:
            raise BadInput(self.key, f"Nothing is typed. Type {self.words}.")
        return text

    def checked(self, value: float) -> float:
        """The figure, where it lies in its range. Raises BadInput with the range."""
        if not self.low - 1e-9 <= value <= self.high + 1e-9:
            nearest = min(max(value, self.low), self.high)
            unit = " mm" if self.kind is LENGTH else ""
            raise BadInput(
                self.key,
                f"{self.words}: {value:g}{unit} does not work, from {self.low:g} to "
                f"{self.high:g}{unit} does; the nearest is {nearest:g}{unit}.",
            )
        if self.kind is COUNT and abs(value - round(value)) > 1e-9:
            raise BadInput(self.key, f"{self.words}: {value:g} is not a whole number.")
        return value


class MateSize(Struct, frozen=True):
    """A measured surface of a mate. usual: as in the family's own example; surfaces:
    the kinds of surface that it may be read from, or whose readings have it as `aid`;
    none for what is typed; least: that it may be."""

    key: str
    words: str
    usual: float | str
    surfaces: tuple[str, ...] = ()
    optional: bool = False
    kind: Kind = LENGTH
    aid: str = ""
    least: float = 0.0

    @property
    def called(self) -> str:
        """What the surface is called that it is read on: "Bore" for "its bore"."""
        words = self.words
        for whose in ("its ", "their ", "the "):
            words = words.removeprefix(whose)
        return begun(words)

    def value(self, key: str, text: str, inch: bool = False) -> float | str:
        """A figure or a word as typed. Raises BadInput on `key`."""
        if not isinstance(self.usual, str):
            return quantity.parse(
                text, self.kind, inch=inch, key=key, low=self.least, high=5000
            )
        if not text.strip():
            raise BadInput(key, f"Nothing is typed. Type {self.words}.")
        return thread_of(text, key).name if self.key == "thread" else text.strip()

    def kept(self, key: str, text: str, inch: bool = False) -> str:
        """It as it is whatever the shop's unit will be. Raises BadInput on `key`."""
        value = self.value(key, text, inch)
        if isinstance(value, str):
            return value
        unit = "mm" if self.kind is LENGTH else ""
        return f"{quantity.typed_again(value)}{unit}"


class Mate(Struct, frozen=True):
    """What a piece goes on or carries: its role, and what of it is measured.

    seats: where its own zero lies along the piece when both are together, an
    expression; empty where that is not said; shape, metal, surfaces: what a new one is
    drawn as, made of and starts with, where its sizes do not say it well enough.
    """

    role: str
    words: str
    sizes: tuple[MateSize, ...]
    seats: str = ""
    shape: Literal["nose", "chuck", "other"] = "other"
    metal: str = "steel"
    surfaces: tuple[Surface, ...] = ()

    @property
    def called(self) -> str:
        """What a piece of it is called at first: "Shaft" for "the shaft"."""
        return begun(self.words.removeprefix("the "))

    @property
    def optional(self) -> bool:
        """Whether the piece can be made without it."""
        return all(one.optional for one in self.sizes)


class FitSlot(Struct, frozen=True):
    """A fit of the family: the size it rules, and the half that exists.

    joint: the kind of fit, whose words it is chosen by; want: as it starts; tells: what
    the piece tells the joint that it would ask, from the sizes it `rests` on; centred:
    the slot whose play screws have to leave room for.
    """

    key: str
    words: str
    rules: str
    mate: str
    exists: Literal["hole", "shaft"]
    joint: str
    want: str
    step: float = 0.001
    rests: tuple[str, ...] = ()
    tells: Callable[[Values], Mapping[str, Any]] = lambda values: {}
    centred: str = ""


class Chain(Struct, frozen=True):
    """A fit along a line: links by size or mate with their signs, less the size that
    it rules, leave a gap from `least` to `most` (sizes or mates themselves); over: it
    stands out past them by that instead."""

    key: str
    words: str
    rules: str
    links: tuple[tuple[str, int], ...]
    least: str
    most: str
    want: str = "as said"
    step: float = 0.01
    over: bool = False

    @property
    def rests(self) -> tuple[str, ...]:
        return (*(name for name, _ in self.links), self.least, self.most)

    @property
    def told(self) -> str:
        """The sum, as it is said."""
        links = "".join(
            f" {'+' if sign > 0 else '−'} {key}" for key, sign in self.links
        )
        verb = "and" if self.over else "less"
        return f"{links.removeprefix(' + ')}, {verb} {self.least} to {self.most}"


class Check(Struct, frozen=True):
    """One check. place: the feature it points at; grave: cutting would scrap the piece
    or be unsafe; have, need: mm, where it compares two sizes; fit: number of the fit
    it concerns in a job."""

    key: str
    place: str
    passed: bool
    says: str
    grave: bool = True
    have: float | None = None
    need: float | None = None
    fit: int = 0


def at_least(
    key: str, place: str, have: float, need: float, says: str, grave: bool = True
) -> Check:
    """A check that one size is at least another."""
    return Check(
        key,
        place,
        have >= need - 1e-9,
        f"{says}: {have:.2f} mm, at least {need:.2f} mm wanted.",
        grave,
        have,
        need,
    )


class FitBand(Struct, frozen=True):
    """A fit worked out: the sizes it lies between; None where no band is left.

    aim: the middle of what was wanted, also where no band is left of it; problem: why
    none is left; empty too where no limits are kept for it.
    """

    slot: FitSlot | Chain
    want: str
    lower: float | None
    upper: float | None
    answer: Answer
    aim: float
    problem: str = ""


class Known(Struct, frozen=True):
    """A size with what it came to and why; ends: of a band that it is linked to."""

    size: Size
    value: Value
    by: By
    because: str
    ends: tuple[float, float] | None = None


class Holding(Struct, frozen=True):
    """One way of holding the piece on one machine, and what is done in it.

    held: "jaws" where a chuck has it by its outside, "centres" where it turns between
    two; how well that holds is checked then.
    """

    key: str
    machine: str
    title: str
    reason: str
    steps: tuple["Step", ...]
    held: Literal["", "jaws", "centres"] = ""


class Step(Struct, frozen=True):
    """One operation on one or more features, as a family asks for it.

    leaves: metal left for a later cut, mm to a side; title, tool, note, caution: where
    the operation's own words do not say enough; hold: the piece stays where it is until
    this is proved; fit: the fit that is proved here; of: what a title calls the feature
    where its name does not say it: `the far hole`.
    """

    operation: str
    features: tuple[str, ...]
    leaves: float = 0.0
    title: str = ""
    tool: str = ""
    note: str = ""
    caution: str = ""
    fit: str = ""
    hold: bool = False
    key: str = ""
    of: str = ""


class Part(Struct, frozen=True):
    """A feature that a free piece can have, as often as it is added.

    sizes: its measures, as keys; in their words and rules {} stands for the part
    itself, {n} for its number, {all} for the length of the piece and {widest} for its
    largest diameter;
    along: it lies along the axis, with these diameters; surfaces: what others can be
    made to, by kind of surface the measure.
    """

    key: str
    words: str
    sizes: tuple[Size, ...]
    along: tuple[str, ...] = ()
    surfaces: tuple[tuple[str, str], ...] = ()


class Family(Struct, frozen=True):
    """A kind of piece.

    example: what it is usually made to, in a sentence; proof: sizes that are proved
    besides those that a fit rules;
    full: what to give so that every feature it can have is there; ways: what to give
    besides for another way of making it, or by itself where it lists parts; runs:
    whether its run-out is proved; also: other words that it is found by; cautions: by
    stage, or `sheet`, where the usual one does not say what matters here; surfaces:
    what others can be made to, by kind of surface the size that it has; parts: the
    features that a free piece can have, names: those that it has, in their order, own:
    its sizes without theirs; alike: what should be alike on all of the kind that a shop
    has, after the size that brings it.
    """

    key: str
    name: str
    purpose: str
    example: str
    sizes: tuple[Size, ...]
    build: Callable[[Values], Body]
    route: Callable[[Values], tuple[Holding, ...]]
    checks: Callable[[Values], Iterable[Check]] = lambda values: ()
    mates: tuple[Mate, ...] = ()
    fits: tuple[FitSlot, ...] = ()
    chains: tuple[Chain, ...] = ()
    proof: tuple[str, ...] = ()
    material: str = "mild steel"
    full: Mapping[str, str] = {}
    ways: tuple[Mapping[str, str], ...] = ()
    runs: bool = False
    also: str = ""
    cautions: Mapping[str, str] = {}
    surfaces: Mapping[str, str] = {}
    parts: tuple[Part, ...] = ()
    names: tuple[str, ...] = ()
    own: tuple[Size, ...] = ()
    alike: tuple[str, ...] = ()

    def part(self, name: str) -> Part:
        """What part a name is of: `groove2`. Raises BadInput naming the nearest."""
        key = name.rstrip("0123456789")
        for one in self.parts:
            if one.key == key:
                return one
        raise unknown("parts", name, [one.key for one in self.parts])

    def size(self, key: str) -> Size:
        """A size by its key. Raises BadInput naming the nearest."""
        for one in self.sizes:
            if one.key == key:
                return one
        raise unknown(key, key, [one.key for one in self.sizes])

    @property
    def slots(self) -> tuple[FitSlot | Chain, ...]:
        """Everything that rules a size by a band."""
        return (*self.fits, *self.chains)

    @property
    def mate_keys(self) -> dict[str, MateSize]:
        """Every measured size of every mate: `nose.register`."""
        return {
            f"{mate.role}.{one.key}": one for mate in self.mates for one in mate.sizes
        }


def spoken(name: str) -> str:
    """A feature's name as it is said: `groove 2`, `hub face`."""
    return re.sub(r"(?<=[a-z])(\d+)$", r" \1", name).replace("_", " ")


def grown(family: Family, names: Sequence[str]) -> Family:
    """A free piece's family with these parts, in this order."""
    own = family.own or family.sizes
    along = [(name, family.part(name).along) for name in names]
    lengths = [f"{name}.length" for name, wide in along if wide]
    widths = [f"{name}.{one}" for name, wide in along for one in wide]
    of_all = {
        "{all}": f"({' + '.join(lengths) or '0'})",
        "{widest}": f"max({', '.join([*widths, '0', '0'])})",
    }
    sizes = [_named(size, "", of_all) for size in own]
    first = {size.key for size in own}
    surfaces = {form: key for form, key in family.surfaces.items() if key in first}
    for name in names:
        part = family.part(name)
        sizes += [_named(size, name, of_all) for size in part.sizes]
        for form, measure in part.surfaces:
            number = sum(one.startswith(form) for one in surfaces) + 1
            key = form if number == 1 else f"{form}-{number}"
            surfaces[key] = f"{name}.{measure}"
    return replace(
        family, sizes=tuple(sizes), own=own, names=tuple(names), surfaces=surfaces
    )


def _named(size: Size, name: str, of_all: Mapping[str, str]) -> Size:
    """A size of a part as that of one of them."""
    rule = size.rule
    number = name.lstrip("abcdefghijklmnopqrstuvwxyz_") or "1"
    if isinstance(rule, str):
        # of a word there may be one for each in turn: right|left
        words = rule.split("|")
        rule = words[(int(number) - 1) % len(words)]
        for sign, text in of_all.items():
            rule = rule.replace(sign, text)
        rule = rule.replace("{}", name).replace("{n}", number)
    key = f"{name}.{size.key}" if name else size.key
    return replace(
        size, key=key, words=size.words.replace("{}", spoken(name)), rule=rule
    )


def part_names(family: Family, typed: str) -> tuple[str, ...]:
    """Parts as they are listed, `step, step, bore` or `step1, bore2`, each with its
    number. Raises BadInput on `parts`."""
    names: list[str] = []
    for word in re.findall(r"[^,\s]+", typed):
        key = family.part(word).key
        if word == key:
            number = 1
            while f"{key}{number}" in names:
                number += 1
            word = f"{key}{number}"
        if word in names:
            raise BadInput("parts", f"{word} is listed twice.")
        names.append(word)
    return tuple(names)


class Made(Struct, frozen=True, dict=True):
    """A family with every size known: one piece, worked out.

    values: by size and by mate; numbers: of its fits in a job, by slot.
    """

    family: Family
    values: Values
    sizes: Mapping[str, Known]
    fits: tuple[FitBand, ...]
    body: Body
    checks: tuple[Check, ...]
    holdings: tuple[Holding, ...]
    material: str
    given: Mapping[str, str] = {}
    numbers: Mapping[str, int] = {}


def make(
    family: Family,
    given: Mapping[str, str],
    inch: bool = False,
    decided: Mapping[str, FitBand] | None = None,
    bands: Mapping[str, tuple[float, float]] | None = None,
    numbers: Mapping[str, int] | None = None,
    read: Mapping[str, str] | None = None,
) -> Made:
    """Work a piece out from what was given; the rest follows its rules.

    decided: by slot, a fit that was worked out already; bands: by name, other bands
    that a link may speak of, as their middle: `= fit2`; mm; numbers: of the fits in a
    job, by slot, else as the family counts them; read: sizes as they were measured on
    the piece that it is made from, in mm; one that is typed stands before it.

    given: by size, mate (`nose.register`), its doubt (`nose.register.doubt`) or fit
    (`fit.register`), as typed; a size that starts with = is a link. Raises BadInput on
    the first that cannot be.
    """
    if "parts" in given and family.parts:
        family = grown(family, part_names(family, given["parts"]))
    wants, typed, mates, doubts, metal = _sorted_out(family, given, inch)
    read = {k: v for k, v in (read or {}).items() if k not in typed}
    typed |= read
    present = [slot for slot in family.slots if _stands(family, slot, given)]
    slots = {slot.rules: slot for slot in present}
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
            rests[size.key] = (
                *rests.get(size.key, ()),
                *_needs(slots[size.key], family),
            )
    known: dict[str, Known] = {}
    middles = {name: round(sum(ends) / 2, 3) for name, ends in (bands or {}).items()}
    values: dict[str, Any] = {**middles, **mates, "material": metal}
    values["parts"] = family.names
    fits: dict[str, FitBand] = {}
    for key in in_order(rests):
        size = family.size(key)
        slot = slots.get(key)
        if isinstance(slot, Chain):
            fits[slot.key] = _chain(slot, values, doubts)
        elif slot is not None:
            fits[slot.key] = (decided or {}).get(slot.key) or _fitted(
                slot, wants.get(slot.key, slot.want), values, doubts, fits
            )
        text = typed.get(key, "")
        if key in links:
            found = size.checked(
                _rounded(links[key].value(_numbers(values)), size.step)
            )
            ends = (bands or {}).get(text.removeprefix("=").strip())
            known[key] = Known(size, found, "link", text.strip(), ends)
        elif text:
            by: By = "read" if key in read else "typed"
            says = "as the old piece measures" if key in read else "typed"
            known[key] = Known(size, size.read(text, inch), by, says)
        elif slot is not None:
            known[key] = _by_band(size, fits[slot.key], mates)
        else:
            known[key] = Known(size, _by_rule(size, values), size.by, _why(size))
        values[key] = known[key].value
    body = family.build(values)
    _whole(body)
    checks = (*_fit_checks(known, fits), *family.checks(values))
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
        numbers or {slot.key: n for n, slot in enumerate(family.fits, 1)},
    )


def _sorted_out(
    family: Family, given: Mapping[str, str], inch: bool
) -> tuple[dict[str, str], dict[str, str], dict[str, Any], dict[str, float], str]:
    """Wishes, sizes as typed, mates, their doubts, and the metal."""
    wants: dict[str, str] = {}
    typed: dict[str, str] = {}
    mates: dict[str, Any] = {key: one.usual for key, one in family.mate_keys.items()}
    doubts: dict[str, float] = {}
    metal = family.material
    sizes = {one.key for one in family.sizes}
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
    return round(round(value / step) * step, 9) if step else value


def _by_rule(size: Size, values: Values) -> Value:
    found: Value
    if not isinstance(size.rule, str):
        found = size.rule(values)
    elif size.kind is TEXT:
        # a word may be that of a mate: nose.thread
        found = str(values.get(size.rule, size.rule))
    elif size.kind is FLAG:
        found = size.rule == "yes"
    else:
        found = Expression(size.rule, size.key).value(_numbers(values))
    if isinstance(found, str | bool):
        return found
    return size.checked(_rounded(float(found), size.step))


def _why(size: Size) -> str:
    if size.why:
        return size.why
    return f"= {size.rule}" if _names_of(size) else "as usual"


def _needs(slot: FitSlot | Chain, family: Family) -> tuple[str, ...]:
    """The sizes that must be known before a slot's band is worked out."""
    if isinstance(slot, Chain) or not slot.centred:
        return slot.rests
    centres = next(one for one in family.fits if one.key == slot.centred)
    return (*slot.rests, centres.rules)


def _fitted(
    slot: FitSlot,
    want: str,
    values: Values,
    doubts: Mapping[str, float],
    fits: Mapping[str, FitBand],
) -> FitBand:
    """The band that a fit leaves the size it rules. Raises BadInput on the fit.

    fits: those of the sizes that it rests on.
    """
    try:
        if slot.joint == "thread":
            made = "internal" if slot.exists == "shaft" else "external"
            asked = {"thread": str(values[slot.mate])}
            if want:
                asked[f"{made}_class"] = want
            return thread_band(slot, want, reckon("thread", asked))
        doubt = doubts.get(slot.mate, DOUBT)
        if slot.joint == "bolts":
            centred = fits.get(slot.centred)
            play = centred.answer["clearance_max"] if centred else 0.0
            screws = {"circle_doubt": doubt, "fit": want, "play": max(play, 0.0)}
            screws |= {k: v for k, v in slot.tells(values).items() if k != "holes"}
            room = reckon("bolt-room", screws)
            return bolt_band(slot, want, float(values[slot.mate]), room)
        if slot.joint == "dovetail":
            return _dovetail(slot, want, values, doubt)
        return _target(slot, want, float(values[slot.mate]), doubt)
    except BadInput as error:
        raise BadInput(f"fit.{slot.key}", error.message) from None


def thread_band(slot: FitSlot, want: str, answer: Answer) -> FitBand:
    """What is bored or turned before a thread that fits another is cut; answer: of
    `thread`."""
    inside = slot.exists == "shaft"
    limits = crest_limits(answer, "internal" if inside else "external")
    if limits is None:
        basic = float(answer["minor_internal" if inside else "major"])
        return FitBand(slot, want, None, None, answer, basic)
    return FitBand(slot, want, *limits, answer, sum(limits) / 2)


def bolt_band(slot: FitSlot, want: str, circle: float, room: Answer) -> FitBand:
    """The bolt circles on which every screw still goes in; circle, room: of the half
    that exists, mm and `bolt-room`."""
    problem = ""
    if room["room"] < room["need"]:
        problem = (
            f"{room['room']:.2f} mm room round a screw, {room['need']:.2f} mm wanted. "
            f"{room['mismatch'] or room['warning']}"
        )
    elif room["mismatch"]:
        problem = str(room["mismatch"])
    ends = circle_band(circle, room)
    if ends is None:
        return FitBand(slot, want, None, None, room, circle, problem)
    return FitBand(slot, want, *ends, room, circle, problem)


def _dovetail(slot: FitSlot, want: str, values: Values, doubt: float) -> FitBand:
    """The reading over or between the pins of a dovetail's other half."""
    bottom = float(values[slot.mate])
    play = _target(slot, want, bottom, 0.0).answer
    asked = {
        "bottom": bottom,
        "doubt": doubt,
        "play_least": play["clearance_min"],
        "play_most": play["clearance_max"],
        **slot.tells(values),
    }
    answer = reckon("dovetail-mate", asked)
    ends = float(answer["read_lower"]), float(answer["read_upper"])
    return FitBand(slot, want, *ends, answer, sum(ends) / 2)


def _target(slot: FitSlot, want: str, mate: float, doubt: float) -> FitBand:
    inputs: dict[str, Any] = {
        "existing": [mate],
        "instrument_uncertainty": doubt,
        "kind": slot.exists,
    }
    if " to " in want:
        ends = want.split(" to ", 1)
        for name, text in zip(("clearance_min", "clearance_max"), ends, strict=True):
            inputs[name] = quantity.parse(text, key=f"fit.{slot.key}")
    else:
        inputs["want"] = want
    return plain_band(slot, want, reckon("fit-target", inputs))


def plain_band(slot: FitSlot | Chain, want: str, answer: Answer) -> FitBand:
    """A band as `fit-target` leaves it."""
    aim = float(answer["aim"])
    if answer["band"] <= 0:
        warning = str(answer["warning"])
        says = within(warning)
        return FitBand(slot, want, None, None, answer, aim, says)
    ends = float(answer["lower"]), float(answer["upper"])
    return FitBand(slot, want, *ends, answer, aim)


def _chain(chain: Chain, values: Values, doubts: Mapping[str, float]) -> FitBand:
    """The band that a chain of lengths leaves its missing link."""
    whole = sum(sign * float(values[name]) for name, sign in chain.links)
    doubt = sum(doubts.get(name, DOUBT) for name, _ in chain.links)
    least, most = float(values[chain.least]), float(values[chain.most])
    if chain.over:
        least, most = -most, -least
    answer = reckon(
        "fit-target",
        {
            "existing": [whole],
            "instrument_uncertainty": doubt,
            "kind": "hole",
            "clearance_min": least,
            "clearance_max": most,
        },
    )
    return plain_band(chain, chain.want, answer)


def _by_band(size: Size, band: FitBand, mates: Values) -> Known:
    slot = band.slot
    aim = size.checked(_rounded(band.aim, slot.step))
    if isinstance(slot, Chain):
        return Known(size, aim, "chain", f"{slot.words}: {slot.told}")
    mate = mates[slot.mate]
    on = mate if isinstance(mate, str) else f"{float(mate):.3f}"
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
        says = f"{slot.words}: {float(value):.3f} mm drawn, the mate wants "
        says += f"{band.lower:.3f} to {band.upper:.3f} mm."
        yield Check(key, place, inside, says)


def _whole(body: Body) -> None:
    """Refuse a body of which nothing, or of what turns more than one part, is left."""
    from shapely.errors import GEOSException

    try:
        left = body.rings() if body.turns else body.shadow.outlines["top"]
    except GEOSException:
        raise BadInput("sizes", "No tool cuts a shape of these sizes.") from None
    if not left:
        raise BadInput("sizes", "Nothing is left of the stock with these sizes.")
    if body.turns and len(left) > 1:
        raise BadInput("sizes", "With these sizes the piece falls in two.")
