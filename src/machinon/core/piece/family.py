"""A family: one kind of piece, its sizes and what rules each, its mates and fits.

A family is one file in `core.families` with a `FAMILY`. Everything else that is said
of it (help, command line, screens, sheets) is read from that value.
"""

import functools
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
from machinon.core.piece.feature import Side
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.outline import (
    corners_of,
    corners_text,
    places_of,
    places_text,
)
from machinon.core.piece.shown import Shown
from machinon.core.quantity import COUNT, LENGTH, Kind, length_text, plain
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.shop.things import Surface
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screw
from machinon.core.wording import begun

By = Literal["rule", "fit", "copy", "clearance", "chain", "link", "read", "typed"]
Value = float | str | bool
Values = Mapping[str, Any]


class Size(Struct, frozen=True):
    """A named size, `feature.measure`."""

    key: str
    words: str
    # the expression it starts from, the word a text starts with, or what works it out
    # from the sizes named in `rests`
    rule: "str | Callable[[Values], Value] | OfPart"
    why: str = ""  # the rule in words
    low: float = 0.0
    high: float = 2000.0
    kind: Kind = LENGTH
    choices: tuple[str, ...] = ()
    by: By = "rule"  # what kind of rule
    step: float = 0.0  # it is rounded to
    up: float = 0.0  # it is rounded up to, by its rule
    rests: tuple[str, ...] = ()
    at: str = ""  # the measure that it is, where its own name is none
    # the least and most that what it meets leaves it, mm, where no fit rules it and the
    # general tolerance would let it off; none where it meets nothing
    limits: Callable[[Values], tuple[float, float] | None] = lambda values: None

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
            says = in_inches(error.message, fine=True) if inch else error.message
            raise BadInput(self.key, says) from None

    def _word(self, text: str, inch: bool) -> str:
        if self.choices and text not in self.choices:
            raise unknown(self.key, text, self.choices)
        if self.is_listed:
            return self._listed(text, inch, False)
        if self.measure == "screw":
            return cap_screw(text, self.key).size
        if self.measure == "thread" and text != "none":
            return thread_of(text, self.key).name
        if self.measure == "material":
            return material(text, self.key).name
        if not text:
            raise BadInput(self.key, f"Nothing is typed. Type {self.words}.")
        return text

    def word_again(self, word: str, inch: bool) -> str:
        """A word of it as it would be typed again, lengths in the shop's unit."""
        return self._listed(word, False, inch) if self.is_listed else word

    @property
    def is_listed(self) -> bool:
        """Whether it is places or corners, one after another."""
        return self.measure in ("points", "places")

    def _listed(self, text: str, inch: bool, again: bool) -> str:
        """Places or corners as they are typed in one unit, as they would be in another;
        inch, again: whether bare figures are inches. Raises BadInput on the size."""
        if self.measure == "points":
            return corners_text(corners_of(text, inch, self.key), again)
        return places_text(places_of(text, inch, self.key), again)

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


class OfPart(Struct, frozen=True):
    """A rule of a part that asks its own sizes: it is called with the part's name and
    the values."""

    rule: Callable[[str, Values], Value]


class MateSize(Struct, frozen=True):
    """A measured surface of a mate."""

    key: str
    words: str
    usual: float | str  # as in the family's own example
    # the kinds of surface that it may be read from, or whose readings have it as `aid`;
    # none for what is typed
    surfaces: tuple[str, ...] = ()
    optional: bool = False
    kind: Kind = LENGTH
    aid: str = ""
    least: float = 0.0  # that it may be
    # of screws that nobody names: the mate's size that tells them, their holes, and the
    # size that says whether those are tapped; without one they pass the screws
    by: str = ""
    bolting: str = ""

    @property
    def called(self) -> str:
        """The name of the surface that it is read on: "Bore" for "its bore"."""
        words = self.words
        for whose in ("its ", "their ", "the "):
            words = words.removeprefix(whose)
        return begun(words)

    def value(self, key: str, text: str, inch: bool = False) -> float | str:
        """A figure or a word as typed. Raises BadInput on `key`."""
        if not isinstance(self.usual, str):
            high = 360 if self.kind is quantity.ANGLE else 5000
            return quantity.parse(
                text, self.kind, inch=inch, key=key, low=self.least, high=high
            )
        if not text.strip():
            raise BadInput(key, f"Nothing is typed. Type {self.words}.")
        if self.key == "screw":
            return cap_screw(text, key).size
        return thread_of(text, key).name if self.key == "thread" else text.strip()

    def kept(self, key: str, text: str, inch: bool = False) -> str:
        """It as it is whatever the shop's unit will be. Raises BadInput on `key`."""
        value = self.value(key, text, inch)
        if isinstance(value, str):
            return value
        return quantity.as_kept(value, self.kind)


class Ring(Struct, frozen=True):
    """A part of a mate as it stands about the axis of a piece: from where to where
    along it, and its diameters.

    All are expressions in its sizes, in which a thread is its major diameter and
    `feature.begins` and `feature.ends` are where one lies along the axis.
    """

    start: str
    end: str
    bore: str = ""  # none for what is solid
    outside: str = ""  # as it was read, if it is not said


class Mate(Struct, frozen=True):
    """A part that the piece goes on or carries: its role, and its measured surfaces."""

    role: str
    words: str
    sizes: tuple[MateSize, ...]
    # where its own zero lies along the piece when both are together, or how high the
    # mouth of its slot stands over a block's foot, an expression as in a ring; empty
    # where that is not said
    seats: str = ""
    turned: bool = False  # it is turned end for end there
    # what is drawn of it there, where its readings do not tell enough to draw it by
    around: tuple[Ring, ...] = ()
    # shape, metal, surfaces: what a new one is drawn as, made of and starts with, where
    # its sizes do not say it well enough
    shape: Literal["nose", "chuck", "other"] = "other"
    metal: str = "steel"
    surfaces: tuple[Surface, ...] = ()
    also: str = ""  # other words for such a piece

    @property
    def called(self) -> str:
        """The first name of such a piece: "Shaft" for "the shaft"."""
        return begun(self.words.removeprefix("the "))

    @property
    def optional(self) -> bool:
        """Whether the piece can be made without it."""
        return all(mate_size.optional for mate_size in self.sizes)


class FitSlot(Struct, frozen=True):
    """A fit of the family: the size it rules, and the half that exists."""

    key: str
    words: str
    rules: str
    mate: str
    exists: Literal["hole", "shaft"]
    joint: str  # the kind of fit, whose words it is chosen by
    want: str  # as it starts
    step: float = 0.001
    rests: tuple[str, ...] = ()
    # what the piece tells the joint that it would ask, from the sizes it `rests` on
    tells: Callable[[Values], Mapping[str, Any]] = lambda values: {}
    centred: str = ""  # the slot whose play screws have to leave room for


class Chain(Struct, frozen=True):
    """A fit along a line: links by size or mate with their signs, less the size that it
    rules, leave a gap from `least` to `most` (sizes or mates themselves)."""

    key: str
    words: str
    rules: str
    links: tuple[tuple[str, int], ...]
    least: str
    most: str
    want: str = "as said"
    step: float = 0.01
    over: bool = False  # it stands out past them by that instead

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
    """One check."""

    key: str
    place: str  # the feature it points at
    passed: bool
    says: str
    grave: bool = True  # cutting would scrap the piece or be unsafe
    have: float | None = None  # mm, where it compares two sizes
    need: float | None = None  # mm, where it compares two sizes
    fit: int = 0  # number of the fit it concerns in a job
    # the words for inches, with {} for each of its lengths, mm; where there are none,
    # the rounded millimetres are turned
    form: str = ""
    lengths: tuple[float, ...] = ()

    @property
    def says_in_inches(self) -> str:
        """What it says to an inch shop."""
        said = in_inches(self.form or self.says)
        for length in self.lengths:
            said = said.replace("{}", length_text(length, inch=True, unit=False), 1)
        return said


def is_there(values: Values, key: str) -> bool:
    """Whether a size of a mate is known, and not only what is usual."""
    return key in values and key not in values["away"]


UNTYPED = 5e-4  # mm: what four decimals of an inch leave unsaid


def at_least(
    key: str, place: str, have: float, need: float, says: str, grave: bool = True
) -> Check:
    """A check that one size is at least another."""
    passed = have >= need - UNTYPED
    # what falls short by a hair is told apart from what is wanted
    digits = 2 if passed or round(have, 2) != round(need, 2) else 3
    return Check(
        key,
        place,
        passed,
        f"{says}: {plain(have, digits)} mm, at least {need:.{digits}f} mm wanted.",
        grave,
        have,
        need,
        form=f"{says}: {{}} in, at least {{}} in wanted.",
        lengths=(have, need),
    )


class Holding(Struct, frozen=True):
    """One way of holding the piece on one machine, and what is done in it."""

    key: str
    machine: str
    title: str
    reason: str
    steps: tuple["Step", ...]
    # "jaws" where a chuck has it by its outside, "centres" where it turns between two;
    # how well that holds is checked then
    held: Literal["", "jaws", "centres"] = ""
    # how many lie on each other, so that what goes through one goes through all
    stacked: int = 1


class Step(Struct, frozen=True):
    """One operation on one or more features, as a family asks for it."""

    operation: str
    features: tuple[str, ...]
    leaves: float = 0.0  # metal left for a later cut, mm to a side
    title: str = ""  # where the operation's own words do not say enough
    tool: str = ""  # where the operation's own words do not say enough
    note: str = ""  # where the operation's own words do not say enough
    caution: str = ""  # where the operation's own words do not say enough
    fit: str = ""  # the fit that is proved here
    hold: bool = False  # the piece stays where it is until this is proved
    key: str = ""
    # what a title calls the feature where its name does not say it: `the far hole`
    of: str = ""
    # the end that stands out of the holding from here on, where no face that is cut in
    # it tells
    out: Side | None = None
    # what is set or read in it, where its feature does not tell
    figures: tuple[Shown, ...] = ()
    slide: float = 0.0  # degrees from the axis, that it sets the compound to


# of any piece, in a job or asked for by the command
HOW_MANY = Size("count", "how many alike", "1", "", 1, 99, COUNT)


# of a piece with a hole right through, which a tube or a cored casting may start with
STOCK_BORE = Size("stock.bore", "stock bore", "0", "0 is solid", 0, 300)


class FreePart(Struct, frozen=True):
    """A feature that a free piece can have, as often as it is added."""

    key: str
    words: str
    # its measures, as keys; in their words and rules {} stands for the part itself, {n}
    # for its number, {all} for the length of the piece and {widest} for its largest
    # diameter
    sizes: tuple[Size, ...]
    along: tuple[str, ...] = ()  # it lies along the axis, with these diameters
    # what others can be made to, by kind of surface the measure
    surfaces: tuple[tuple[str, str], ...] = ()


class Family(Struct, frozen=True):
    """A kind of piece."""

    key: str
    name: str
    purpose: str
    example: str  # what it is usually made to, in a sentence
    sizes: tuple[Size, ...]
    build: Callable[[Values], Body]
    route: Callable[[Values], tuple[Holding, ...]]
    checks: Callable[[Values], Iterable[Check]] = lambda values: ()
    mates: tuple[Mate, ...] = ()
    fits: tuple[FitSlot, ...] = ()
    chains: tuple[Chain, ...] = ()
    proof: tuple[str, ...] = ()  # sizes that are proved besides those that a fit rules
    material: str = "mild steel"
    # what to give so that every feature it can have is there
    full: Mapping[str, str] = {}
    # what to give besides for another way of making it, or by itself where it lists
    # parts
    ways: tuple[Mapping[str, str], ...] = ()
    runs: bool = False  # whether its run-out is proved
    also: str = ""  # other words that it is found by
    free: bool = False  # it is any piece, built up of its parts
    # by stage, or `sheet`, where the usual one does not say what matters here
    cautions: Mapping[str, str] = {}
    # what others can be made to, by kind of surface the size that it has
    surfaces: Mapping[str, str] = {}
    # the features that a free piece can have, names: those that it has, in their order,
    # own: its sizes without theirs
    parts: tuple[FreePart, ...] = ()
    names: tuple[str, ...] = ()
    own: tuple[Size, ...] = ()
    # what should be alike on all of the kind that a shop has, after the size that
    # brings it
    alike: tuple[str, ...] = ()
    # what is bought to go with it
    hardware: Callable[[Values], Iterable[Hardware]] = lambda values: ()
    # the size that says how many alike, where one piece of stock gives them all
    many: str = ""
    # the fits that are closed on in use, whose play is gone then
    grips: tuple[str, ...] = ()

    def part(self, name: str) -> FreePart:
        """The part that a name is of: `groove2`. Raises BadInput naming the nearest."""
        key = kind_of(name)
        for part in self.parts:
            if part.key == key:
                return part
        raise unknown("parts", name, [part.key for part in self.parts])

    def size(self, key: str) -> Size:
        """A size by its key. Raises BadInput naming the nearest."""
        for size in self.sizes:
            if size.key == key:
                return size
        raise unknown(key, key, [size.key for size in self.sizes])

    def form_of(self, key: str) -> str:
        """The form of the surface that a size is, as others are made to it; empty where
        nothing is."""
        return next((form for form, size in self.surfaces.items() if size == key), "")

    @property
    def slots(self) -> tuple[FitSlot | Chain, ...]:
        """Everything that rules a size by a band."""
        return (*self.fits, *self.chains)

    @property
    def mate_keys(self) -> dict[str, MateSize]:
        """Every measured size of every mate: `nose.register`."""
        return {
            f"{mate.role}.{mate_size.key}": mate_size
            for mate in self.mates
            for mate_size in mate.sizes
        }


def alike(family: Family, typed: str) -> tuple[dict[str, str], int]:
    """The sizes and the count of so many pieces alike: where one piece of stock gives
    them all, the family's own size. Raises BadInput on `count`."""
    count = int(HOW_MANY.read(typed, False))
    return ({family.many: str(count)}, 1) if family.many else ({}, count)


def kind_of(name: str) -> str:
    """The kind of a part, without its number: `step` of `step2`."""
    return name.rstrip("0123456789")


@functools.lru_cache(maxsize=1024)
def spoken(name: str) -> str:
    """A feature's name as it is said: `groove 2`, `hub face`."""
    words = re.sub(r"^tee(?=\d)", "T-slot", name).replace("_", " ")
    return re.sub(r"(?<=[a-z])(\d+)$", r" \1", words)


def grown(family: Family, names: Sequence[str]) -> Family:
    """A free piece's family with these parts, in this order."""
    own = family.own or family.sizes
    along = [(name, family.part(name).along) for name in names]
    lengths = [f"{name}.length" for name, wide in along if wide]
    widths = [f"{name}.{measure}" for name, wide in along for measure in wide]
    lies = {"{along}": (*lengths, *widths)}
    of_all = {
        "{all}": f"({' + '.join(lengths) or '0'})",
        "{widest}": f"max({', '.join([*widths, '0', '0'])})",
    }
    sizes = [_named(size, "", of_all, lies) for size in own]
    first = {size.key for size in own}
    surfaces = {form: key for form, key in family.surfaces.items() if key in first}
    for name in names:
        part = family.part(name)
        others = [
            f"{other}.{measure}"
            for other, wide in along
            if kind_of(other) != part.key
            for measure in wide
        ]
        rests = {**lies, "{across}": others}
        sizes += [_named(size, name, of_all, rests) for size in part.sizes]
        for form, measure in part.surfaces:
            of_form = re.compile(rf"{form}(-\d+)?")
            number = sum(bool(of_form.fullmatch(surface)) for surface in surfaces) + 1
            key = form if number == 1 else f"{form}-{number}"
            surfaces[key] = f"{name}.{measure}"
    return replace(
        family, sizes=tuple(sizes), own=own, names=tuple(names), surfaces=surfaces
    )


def _named(
    size: Size, name: str, of_all: Mapping[str, str], lies: Mapping[str, Sequence[str]]
) -> Size:
    """A size of a part as that of one of them; lies: what `{along}`, the sizes of all
    that lies along the axis, and `{across}`, the diameters of what there is not of its
    kind, stand for among those that it rests on."""
    rule = size.rule
    number = name.lstrip("abcdefghijklmnopqrstuvwxyz_") or "1"
    if isinstance(rule, str):
        # of a word there may be one for each in turn: right|left
        words = rule.split("|")
        rule = words[(int(number) - 1) % len(words)]
        for sign, text in of_all.items():
            rule = rule.replace(sign, text)
        rule = rule.replace("{}", name).replace("{n}", number)
    elif isinstance(rule, OfPart):
        rule = functools.partial(rule.rule, name)
    return replace(
        size,
        key=f"{name}.{size.key}" if name else size.key,
        words=size.words.replace("{}", spoken(name)),
        rule=rule,
        rests=tuple(
            key
            for rest in size.rests
            for key in lies.get(rest, (rest.replace("{}", name),))
        ),
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
