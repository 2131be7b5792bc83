"""A spoken question taken apart, and asked for its parts.

Nothing is decided here: each part keeps how it was typed, and who uses it says so,
so that what nobody could use can be told.
"""

import functools
import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.quantity import parse
from machinon.core.tables import rows

INCHES = re.compile(r"\d\s*in(?:ch(?:es)?)?\b|[\"″]|''|thou", re.IGNORECASE)
_METRIC = re.compile(r"\d\s*[cm]m\b", re.IGNORECASE)
_BARE = re.compile(r"-?[\d./ ]+")


# words that carry no meaning of their own in a question
@functools.cache
def _same() -> Mapping[str, str]:
    """Words by what they mean; empty for those that say nothing by themselves."""
    return {r["said"]: r["means"] for r in rows("said_words")}


# words that stand behind their figure: 40 wide, 6 holes, 1.25 pitch
_AFTER = frozenset(
    (
        *("wide", "long", "deep", "high", "tall", "thick", "pitch", "pcd", "bore"),
        *("hole", "holes", "bolt", "bolts", "pin", "pins", "roller", "rollers"),
        *("flute", "flutes", "tooth", "teeth", "divisions", "division", "warmer"),
        *("bar", "rod", "round", "cooler", "sides", "piece", "pieces"),
        *("nut", "nuts", "t-nut", "t-nuts", "interference", "tight", "newton", "n"),
        *("dia", "diameter", "od", "id", "large", "small", "chord", "kerf", "feed"),
        *("runout", "run-out", "af"),
    )
)


_ADJECTIVES = ("wide", "long", "deep", "high", "tall", "thick")
_ALWAYS_AFTER = ("od", "id")  # nearly: 50 od 40 id


# words of what a figure measures
_MEASURES = frozenset(
    (
        *("width", "length", "depth", "height", "thickness", "diameter", "bore"),
        *("outside", "inside", "overhang", "stickout", "feed", "interference", "tight"),
        *("chord", "sagitta", "cord", "rise", "radius", "kerf", "large", "small"),
        "span",
        *("neck", "mouth", "tip", "circle", "stick-out", "pitch", "rim"),
        *("out", "runout", "run-out", "swing"),
    )
)
# what has sizes, and may stand for the first of them: bar 20 long 100
_THINGS = frozenset(
    (
        *("bar", "rod", "round", "saw", "tube", "pipe", "hole", "ball", "drill"),
        *("pin", "shaft", "hub", "register", "spigot", "recess", "journal"),
    )
)
# units that are written behind their number, of what is no length
UNITS = frozenset(
    (
        *("nm", "n", "kn", "newton", "kg", "kgf", "kilo", "tonne", "lb", "lbf"),
        *("psi", "mpa", "kpa", "hp", "kw", "watt"),
        *("hrc", "hrb", "hb", "hv", "rockwell", "brinell", "vickers"),
    )
)
_COUNTED = frozenset(("bolt", "piece", "pass", "teeth"))  # 6 pieces, and no piece 6
# how well a word goes with a figure beside it: that more of them find one weighs more
# than how they are usually said, or that nothing stands between
_COUNTS, _SAYS, _IS_OF, _USUAL, _CLOSE = 14, 10, 6, 2, 1
_FIGURES = ("size", "number")
# words that may stand between a figure and its word
_BETWEEN = frozenset(("a", "at", "is", "of", "the"))


@functools.cache
def _plain(low: str) -> str:
    """A word as others say it, singular.

    >>> _plain("holes"), _plain("passes"), _plain("across")
    ('hole', 'pass', 'across')
    """
    for form in (low, low.removesuffix("es"), low.removesuffix("s")):
        if _same().get(form):
            return _same()[form]
    if len(low) > 3 and low.endswith("s") and low[-2:] not in ("ss", "us", "is", "as"):
        return low.removesuffix("es" if low.endswith("sses") else "s")
    return low


def _number_in(text: str) -> str:
    """`11` of `11 tpi`."""
    return re.sub(r"\s*[a-z].*", "", text, flags=re.IGNORECASE)


@dataclass(slots=True)
class SaidPart:
    """One part of what was said."""

    kind: str
    text: str
    at: int
    used: bool = False  # by the question that was made of it
    unit: str = ""  # that follows a number, where it is not one of lengths

    @property
    def is_free(self) -> bool:
        """Whether nobody uses it yet, nor counts newtons and the like by it."""
        return not self.used and not self.unit

    @property
    def is_noise(self) -> bool:
        """Whether it says nothing by itself, as `for` and `the`."""
        return self.kind == "word" and _same().get(self.text.lower(), "-") == ""

    @property
    def word(self) -> str:
        """A word in its plain form: lower case, singular, as others say it."""
        return _plain(self.text.lower())


@dataclass
class Said:
    """The parts of a question, and which of them have been used."""

    parts: list[SaidPart] = field(default_factory=list)
    inch: bool = False  # a bare number is inches
    text: str = ""  # the whole of it, as it was said
    unclear: str = ""  # a size that may be inches or millimetres

    def again(self) -> "Said":
        """The same, with nothing used yet."""
        parts = [
            SaidPart(part.kind, part.text, part.at, unit=part.unit)
            for part in self.parts
        ]
        return Said(parts, self.inch, self.text)

    def has(self, *words: str) -> bool:
        """Whether one of these words was said; all of them are used then."""
        found = False
        plain = set(map(_plain, words))
        for part in self.parts:
            if part.kind == "word" and part.word in plain:
                part.used = found = True
        return found

    def hears(self, *words: str) -> bool:
        """Whether one of these words was said just so, in whatever sense; it uses
        none."""
        return any(part.text.lower() in words for part in self.parts)

    def number_of(self, *kinds: str) -> int:
        """How many parts of these kinds were said, used or not."""
        return sum(part.kind in kinds for part in self.parts)

    def take(self, *kinds: str) -> str:
        """The first part of a kind that nobody uses yet, but for newtons and the like;
        empty for none."""
        for part in self.parts:
            if part.kind in kinds and part.is_free:
                part.used = True
                return part.text
        return ""

    @property
    def screw_length(self) -> str:
        """The length in a screw's name, as of m8 x 20; empty for none."""
        return next((part.text for part in self.parts if part.kind == "long"), "")

    def take_again(self, text: str) -> None:
        """Uses a part that says again what was used already."""
        for part in self.parts:
            part.used = part.used or part.text == text

    def size(self) -> str:
        """The first size, with or without its unit."""
        return self.take("size", "number")

    def pair(self) -> list[str]:
        """The sizes of the first `5 x 40` or `6 x 9 x 20`; none where none was said."""
        text = self.take("pair")
        sizes = re.split(r"\s*[xX×*]\s*", text) if text else []
        return self.alike(*sizes, fractions=len(sizes) > 2)

    def alike(self, *sizes: str, fractions: bool = False) -> list[str]:
        """Sizes of one thing: the bare ones in the unit that another was said in; a
        fraction is inches as it is, and with fractions makes the others so."""
        inches = any(map(INCHES.search, sizes))
        inches = inches or (fractions and any("/" in size for size in sizes))
        metric = any(map(_METRIC.search, sizes))
        unit = "" if inches == metric else "in" if inches else "mm"
        bare = [_BARE.fullmatch(size) and "/" not in size for size in sizes]
        return [f"{o}{unit}" if b else o for o, b in zip(sizes, bare, strict=True)]

    def tpi(self) -> str:
        """Threads per inch; empty where they were not said."""
        return _number_in(self.take("tpi"))

    def in_inches(self, text: str) -> bool:
        """Whether a size was said in inches: by its unit, as a fraction, or bare."""
        bare = _BARE.fullmatch(text) is not None
        return (bare and (self.inch or "/" in text)) or bool(INCHES.search(text))

    def mm(self, text: str) -> float:
        """A size as it was said, mm; 0 for 1/0 and the like, which its sum refuses."""
        try:
            return parse(text, inch=self.inch)
        except BadInput:
            return 0.0

    def pitch_of(self, part: SaidPart) -> float:
        """A pitch, said as a size or as threads to the inch, mm."""
        if part.kind == "tpi":
            return self.mm(f"1in/({_number_in(part.text)})")
        return self.mm(part.text)

    def near(self, *words: str, kinds: Iterable[str] = ("size", "number")) -> str:
        """The size that stands next to a word: `tip 10`, but `10 wide`; a few words
        may stand between: `40 at the bottom`."""
        plain = set(map(_plain, words))
        for figure, unit in pairwise(self.parts):  # 20 kg 150, whatever follows
            if figure.unit in plain and figure.kind in kinds and not figure.used:
                figure.used = unit.used = True
                return figure.text
        for word, figure in self.told:
            if word.word in plain and figure.kind in kinds and figure.is_free:
                word.used = figure.used = True
                return figure.text
        others = [figure for word, figure in self.told if word.word not in plain]
        says = [p for p in self.parts if p.text.lower() not in _BETWEEN - plain]
        for parts in (self.parts, says):
            for part, beside in _beside(parts, plain):
                spoken = next(
                    (
                        p
                        for p in beside
                        if p.kind in kinds and p.is_free and p not in others
                    ),
                    None,
                )
                if spoken is not None:
                    spoken.used = part.used = True
                    return spoken.text
        return ""

    def behind(self, *words: str) -> str:
        """The size that follows a word, as in `touched at 23.4`."""
        plain = set(map(_plain, words))
        for at, word in enumerate(self.parts):
            if word.word not in plain:
                continue
            rest = self.parts[at + 1 :]
            says = (p for p in rest if p.text.lower() not in _BETWEEN)
            figure = next(says, None)
            if figure is None or not figure.is_free:
                continue
            if figure.kind in _FIGURES:
                word.used = figure.used = True
                return figure.text
        return ""

    def of_each(self, *of: str) -> str:
        """The size that stands before `a tooth` or `per turn`; empty for none."""
        for figure, by, each in self.threes:
            says = by.text.lower() in ("a", "per", "each", "/")
            named = each.word in of or each.text.lower() in of
            if figure.kind in _FIGURES and says and named and not figure.used:
                figure.used = each.used = True
                return figure.text
        return ""

    def from_to(self) -> tuple[str, str] | None:
        """The two sizes of `25 to 22`; None where they were not said so."""
        for first, to, other in self.threes:
            figures = first.kind in _FIGURES and other.kind in _FIGURES
            if figures and to.text.lower() == "to" and first.is_free and other.is_free:
                first.used = to.used = other.used = True
                return first.text, other.text
        return None

    @property
    def threes(self) -> Iterator[tuple[SaidPart, SaidPart, SaidPart]]:
        """Each part with the two behind it, as in `40 to 30`."""
        return zip(self.parts, self.parts[1:], self.parts[2:], strict=False)

    @functools.cached_property
    def told(self) -> list[tuple[SaidPart, SaidPart]]:
        """Words with the figures that they measure, each figure of one word."""
        return _told(self.parts)

    def count(self, *words: str) -> str:
        """A whole number next to a word, else the smallest one left."""
        found = self.near(*words, kinds=("number",)) if words else ""
        if found and found.isdigit():
            return found
        whole = [
            part
            for part in self.parts
            if part.kind == "number" and not part.used and part.text.isdigit()
        ]
        if not whole:
            return ""
        least = min(whole, key=lambda part: int(part.text))
        least.used = True
        return least.text

    def counted(self, *words: str) -> str:
        """The whole number right before one of these words, said just so: `6 flats`;
        empty for none."""
        for part, after in pairwise(self.parts):
            counts = part.kind == "number" and part.text.isdigit() and not part.used
            if counts and after.text.lower() in words:
                part.used = after.used = True
                return part.text
        return ""

    def listed(self, *words: str) -> list[int]:
        """The whole numbers behind a word, at least two: `plates 15 16 17`, `wheels 20
        to 65 by 5 and 127`."""
        plain = set(map(_plain, words))
        for at, word in enumerate(self.parts):
            if word.word not in plain:
                continue
            found, run = _run_of_numbers(self.parts[at + 1 :])
            if len(found) > 1:
                for part in (word, *run):
                    part.used = True
                return found
        return []

    def touches(self, *words: str) -> bool:
        """Whether a figure stands right before or behind one of these words."""
        plain = set(map(_plain, words))
        near = (beside for _, beside in _beside(self.parts, plain))
        return any(part.kind in _FIGURES for parts in near for part in parts)

    @property
    def unused(self) -> list[str]:
        """Parts that say something and that nobody uses."""
        return [part.text for part in self.parts if not part.used and not part.is_noise]

    @property
    def figures_left(self) -> list[str]:
        """Figures, threads and the like that nobody uses."""
        said = [part for part in self.parts if part.kind not in ("word", "material")]
        return [part.text for part in said if not part.used]

    @property
    def words_used(self) -> int:
        return sum(part.used and part.kind == "word" for part in self.parts)


def _run_of_numbers(parts: list[SaidPart]) -> tuple[list[int], list[SaidPart]]:
    """The whole numbers that parts begin with, and the parts that say them."""
    found, run, by = list[int](), list[SaidPart](), False
    for part in parts:
        if part.kind == "number" and part.text.isdigit():
            if by and len(found) > 1:  # 20 to 65 by 5
                first, last = found[-2:]
                found[-2:] = range(first, last + 1, max(int(part.text), 1))
            else:
                found.append(int(part.text))
        elif part.text.lower() not in ("and", "to", "by"):
            break
        by = part.text.lower() == "by"
        run.append(part)
    return found, run


def _beside(
    parts: list[SaidPart], words: set[str]
) -> Iterator[tuple[SaidPart, list[SaidPart]]]:
    """Each of these words that was said, with its neighbours, the likelier first."""
    for i, part in enumerate(parts):
        if part.kind != "word" or part.word not in words:
            continue
        before, after = parts[max(i - 1, 0) : i], parts[i + 1 : i + 2]
        behind = part.text.lower() in _AFTER
        yield part, before + after if behind else after + before


def _told(parts: list[SaidPart]) -> list[tuple[SaidPart, SaidPart]]:
    """Words of measures with their figures: as many as find one beside them, each a
    figure of its own, and of two ways the one that the words are usual in. So 20 long
    has another length than bar 20 long 100."""
    told = _MEASURES | _THINGS | _COUNTED
    said = [
        (i, part)
        for i, part in enumerate(parts)
        if part.kind in _FIGURES
        or (part.word in told and parts[max(i - 1, 0)].text.lower() != "boring")
    ]
    # the best ways for what has been gone through: worth, and the pairs
    best: list[tuple[int, list[tuple[SaidPart, SaidPart]]]] = [(0, []), (0, [])]
    for (i, first), (j, other) in pairwise(said):
        worth, pairs = best[-1]
        more = _goes_with(first, other, parts[i + 1 : j])
        if more and best[-2][0] + more > worth:
            pair = (other, first) if first.kind in _FIGURES else (first, other)
            worth, pairs = best[-2][0] + more, [*best[-2][1], pair]
        best.append((worth, pairs))
    return best[-1][1]


def _goes_with(first: SaidPart, other: SaidPart, between: list[SaidPart]) -> int:
    """How well two parts of which one is the other's figure go together; 0 for not at
    all."""
    behind = first.kind in _FIGURES
    if behind == (other.kind in _FIGURES):
        return 0
    if any(p.kind != "material" and p.text.lower() not in _BETWEEN for p in between):
        return 0
    word = other if behind else first
    said, close = word.text.lower(), _CLOSE * (not between)
    if word.word in _COUNTED or said == "holes":
        return _COUNTS * behind
    if word.word in _THINGS or (said in _ALWAYS_AFTER and not behind):
        return _IS_OF + close
    # of depth 10 wide, the depth may be what is asked
    adjective = behind and said in _ADJECTIVES
    return _SAYS + _USUAL * (behind == (said in _AFTER)) + adjective + close


# a bare size as only inches are read: .7495, 1.0005
TENTHS = re.compile(r"0?\.\d{3,}|\d\.\d{4,}")
ALIKE = 0.05  # of its size by which two that go together may differ
