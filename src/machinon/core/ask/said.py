"""A spoken question taken apart: threads, tapers, sizes, materials and plain words.

Nothing is decided here: each part keeps how it was typed, and who uses it says so,
so that what nobody could use can be told.
"""

import functools
import re
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.materials import also_called, materials
from machinon.core.quantity import INCH, parse
from machinon.core.tables import rows
from machinon.core.tapers.tapers import SPELLED
from machinon.core.threads.screw_thread import known_threads

NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d*\.\d+|\d+)"
_UNIT = (
    r"(?:mm\b|cm\b|m\b(?!\s*/)|µm|μm|um\b|microns?\b"
    r"|inch(?:es)?\b|in\b|\"|″|''|thou\b|tenths?\b|ft\b)"
)
_INCHES = re.compile(r"\d\s*in(?:ch(?:es)?)?\b|[\"″]|''|thou", re.IGNORECASE)
_METRIC = re.compile(r"\d\s*[cm]m\b", re.IGNORECASE)
_BARE = re.compile(r"-?[\d./ ]+")
_SIGN = r"(?:(?<!\S)[-−](?=[\d.]))?"  # below zero: -0.02, but not 6-32
_SERIES = r"(?:unc|unf|unef|uns|un|bsw|bsf|whitworth|whit|w|acme)\b"
_LEFT = r"[\s-]*(?:lh|left[\s-]hand(?:ed)?)\b"
_STARTS = r"(?:ph)?\s?\d+(?:\.\d+)?\s?\(?p\s?\d+(?:\.\d+)?\)?"  # 8P4

# in this order: what is more than a number before the number in it
_PARTS: tuple[tuple[str, str], ...] = (
    ("thread", rf"m\s?\d+(?:\.\d+)?(?:\s?[x×]\s?\d+(?:\.\d+)?)?{_LEFT}"),
    ("thread", rf"(?:tr|m)\s?\d+(?:\.\d+)?\s?[x×]\s?{_STARTS}(?:{_LEFT})?"),
    ("thread", r"m\s?\d+(?:\.\d+)?(?:\s?[x×]\s?\d+(?:\.\d+)?)?\b(?![/.])"),
    ("thread", r"tr\s?\d+(?:\.\d+)?\s?[x×]\s?\d+(?:\.\d+)?"),
    ("thread", rf"acme\s*{NUMBER}\s*-\s*\d+(?:\.\d+)?"),
    ("thread", r"\d+\s?ba\b"),
    ("thread", rf"(?:g|bsp)\s?{NUMBER}(?!\s*[:x])"),
    ("thread", rf"{NUMBER}\s?bsp\b"),
    ("thread", rf"(?:bsw|bsf)\s+{NUMBER}(?:\s*-\s*\d+)?"),
    ("thread", rf"(?:{NUMBER}|#\d+)\s*-\s*\d+(?:\.\d+)?\s*{_SERIES}"),
    ("thread", r"(?:(?:\d+[\s-]+)?\d+/\d+|#\d+|\.\d+)\s*-\s*\d+(?:\.\d+)?(?!/)"),
    ("thread", r"[1-6]-(?:4\.5|11\.5|4|5|6|7|8|12|14|16|18|20)\b(?!-)"),
    (
        "thread",
        r"(?:0-80|1-64|1-72|2-56|2-64|3-48|3-56|4-40|4-48|5-40|5-44|6-32|6-40|8-32|8-36"
        r"|10-24|10-32|12-24|12-28)\b",
    ),
    ("thread", rf"(?:{NUMBER}|#\d+)\s*(?:unc|unf|unef|bsw|bsf)\b"),
    *(("taper", rf"{said.lower()}\b") for said, _ in SPELLED),
    ("taper", r"r8\b|5c\b|7/24\b"),
    ("taper", r"1\s?:\s?\d+(?:\.\d+)?"),
    ("taper", r"\d+(?:\.\d+)?/\d+(?:\.\d+)?/\d+(?:\.\d+)?"),
    ("ratio", r"\d+\s?:\s?1\b"),
    ("fit", r"[A-Z]{1,2}\d{1,2}/[a-z]{1,2}\d{1,2}|[a-z]{1,2}\d{1,2}/[a-z]{1,2}\d{1,2}"),
    ("inch fit", r"(?:rc|lc|lt|ln|fn)\s?\d{1,2}\b"),
    ("speed", rf"{NUMBER}\s*(?:m|ft)\s*/\s*min\b"),
    ("travel", rf"{NUMBER}\s*(?:mm|in|inch(?:es)?)\s*(?:/|per\s)\s*min(?:ute)?\b"),
    ("rpm", r"\d+(?:\.\d+)?\s*rpm\b"),  # 1/2 rpm is a half-inch drill
    ("tpi", rf"{NUMBER}\s*(?:tpi|threads?\s+(?:per|to\s+the|an)\s+inch)\b"),
    ("percent", rf"{NUMBER}\s*%"),
    ("angle", r"\d+d(?:\d+m)?(?:\d+s)?\b"),
    ("angle", rf"{NUMBER}\s*(?:deg(?:rees?)?\b|°)"),
    ("class", r"[1-3][ab]\b|[4-8][gh]\b"),
    ("pin", r"#\d+/?\d*"),
    ("bearing", r"6[0-3]\d{2}\b"),
    ("pair", rf"{NUMBER}\s*{_UNIT}?(?:\s*[x×*]\s*{NUMBER}\s*{_UNIT}?)+"),
    ("size", rf"{_SIGN}{NUMBER}\s*{_UNIT}"),
    ("number", rf"{_SIGN}{NUMBER}"),
    ("zone", r"(?:js|JS|za|ZA|zb|ZB|zc|ZC|[a-zA-Z])\d{1,2}\b"),
    ("word", r"[^\W\d_][\w&/'-]*"),
)
_SCANNER = re.compile(
    "|".join(f"(?P<k{i}>{pattern})" for i, (_, pattern) in enumerate(_PARTS)),
    re.IGNORECASE,
)
_SKIPPED = re.compile(r"[\s,;?!·=()\[\]]+")


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
        *("runout", "run-out"),
    )
)


# words of what a figure measures
_MEASURES = frozenset(
    (
        *("width", "length", "depth", "height", "thickness", "diameter", "bore"),
        *("outside", "inside", "overhang", "stickout", "feed", "interference", "tight"),
        *("chord", "sagitta", "rise", "radius", "kerf", "large", "small", "span"),
        *("neck", "mouth", "tip", "circle", "stick-out", "pitch", "rim"),
        *("out", "runout", "run-out", "swing"),
    )
)
# what has sizes, and may stand for the first of them: bar 20 long 100
_THINGS = frozenset(
    (
        *("bar", "rod", "round", "saw", "tube", "pipe", "hole", "ball", "drill"),
        *("pin", "shaft", "hub"),
    )
)
# units that are written behind their number, of what is no length
_UNITS = frozenset(
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

    def take(self, *kinds: str) -> str:
        """The first part of a kind that nobody uses yet, but for newtons and the like;
        empty for none."""
        for part in self.parts:
            if part.kind in kinds and part.is_free:
                part.used = True
                return part.text
        return ""

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
        return self.alike(*re.split(r"\s*[x×*]\s*", text)) if text else []

    def alike(self, *sizes: str, fractions: bool = False) -> list[str]:
        """Sizes of one thing: the bare ones in the unit that another was said in; a
        fraction is inches as it is, and with fractions makes the others so."""
        inches = any(map(_INCHES.search, sizes))
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
        return (bare and (self.inch or "/" in text)) or bool(_INCHES.search(text))

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
    if word.word in _THINGS:
        return _IS_OF + close
    return _SAYS + _USUAL * (behind == (said in _AFTER)) + close


@functools.cache
def _materials() -> re.Pattern[str]:
    names = sorted((*materials(), *also_called()), key=len, reverse=True)
    # the grade of a steel is a bare number: 1018, but 1018 mm
    grades = rf"(?!\d+\s*(?:{_UNIT}|rpm\b|[x×/.:]))"
    words = "|".join(map(re.escape, names))
    return re.compile(rf"\b{grades}(?:{words})\b", re.IGNORECASE)


# what is said in several words and is one part: 1/4 whitworth, BA 4, no 7 drill
_SAID_SO: tuple[tuple[re.Pattern[str], str], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), meant)
    for pattern, meant in (
        (r"(\d)\s*millimet(?:re|er)s?\b", r"\1 mm"),
        (r"(\d)\s*centimet(?:re|er)s?\b", r"\1 cm"),
        (r"(\d)\s*met(?:re|er)s?\b(?!\s*(?:/|per|a\b))", r"\1 m"),
        (r"(\d)\s*(?:foot|feet)\b", r"\1 ft"),
        (r"(\d)\s*(?:per\s*cent|pct)\b", r"\1 %"),
        (r"\bwhit(?:worth)?\b", "bsw"),
        (r"\bba\s+(\d+)\b", r"\1ba"),
        (r"\bset[\s-]+over\b", "setover"),
        (r"\bd1\s*-\s*(?=\d)|\bcam[\s-]*lock\s+(?=\d)", "cam-nose "),
        (r"\be[\s-]+(?:clip|ring)s?\b", "e-clip"),
        (r"\bpart(?:ing)?[\s-]+off\b", "parting"),
        # by its rise, both of one unit: angle 3 in 40, rise of 1 in 10
        (
            r"\b(?:angle|rise)\s+(?:of\s+)?(\d+(?:\.\d+)?)\s+in\s+(\d+(?:\.\d+)?)\s*$",
            r"slope \1 over \2",
        ),
        # a taper by its rise
        (
            r"\b(taper|cone|tailstock|setover|offset|compound)\b(.*?)\b1\s+in\s+"
            r"(\d+(?:\.\d+)?)\b",
            r"\1\2 1:\3",
        ),
        # as a level reads: 0.5 mm per metre
        (
            r"\b(\d+(?:\.\d+)?)\s*mm\s*(?:/|per|a|in\s+a)\s*m(?:et(?:re|er))?\b(?!\s*in)",
            r"\1 mm over 1000 mm",
        ),
        # found by readings at two places: taper 0.02 over 100
        (
            r"\btaper\s+(?:of\s+)?0?(\.\d+)\s+over\s+(\d+(?:\.\d+)?)\s*$",
            r"taper 0\1 in \2",
        ),
        (r"\b1\s+in\s+(\d+(?:\.\d+)?)\s+(taper|cone)\b", r"1:\1 \2"),
        (r"\b(large|big|small)\s+end\b", r"\1"),
        (r"\b3[\s-]+wires?\b", "three wire"),
        (r"\bcorner\s+to\s+corner\b", "across corners"),
        (r"\bt(?:ee)?[\s-]+(nut|slot)s?\b", r"t-\1"),
        (r"\bv[\s-]+block\b", "vee block"),
        (r"\btrap(?:ezoid(?:al)?)?\s+(?=\d+\s*[x×])", "tr"),
        (r"\b(?:number|no\.?)\s+(\d+)(?=\s+drill)", r"#\1"),
        # a metric thread without its m: tap 10x1.5, thread 39x4
        (
            r"\b((?:tap(?:ping)?(?:\s+drill)?|threads?|clearance(?:\s+hole)?)"
            r"(?:\s+for)?\s+)(?=\d+(?:\.\d+)?\s*[x×]\s*\d(?:\.\d+)?(?![\d.]))",
            r"\1m",
        ),
        (
            rf"\b(?:at\s+)?({NUMBER}(?:\s*{_UNIT})?)\s+(?:a|per|each|every)\s+pass\b",
            r"cut deepest \1",
        ),
        (rf"\bpasses\s+of\s+({NUMBER})", r"passes deepest \1"),
        (r"\bdrill\s+(?:number|no\.?)\s+(\d+)\b", r"drill #\1"),
        (
            r"(\d)\s*(?:m|metres?|meters?)\s+(?:per|a)\s+min(?:ute)?\b",
            r"\1 m/min",
        ),
        (r"\bslot\s+drill\b", "endmill"),
        (r"\bfly[\s-]+cut(?:ter|ting)?\b", "flycut"),
        (r"\b(taper\s+pin)\s+(?:number|no\.?)\s+(\d+)\b", r"\1 #\2"),
        (r"\bnumber\s+(\d)\s+(?=morse)", r"\1 "),
        # a drill is said to go so deep before how wide it is: drill 50 deep 10 mm
        (
            rf"\bdrill\s+({NUMBER}(?:\s*{_UNIT})?)\s+deep\s+({NUMBER}(?:\s*{_UNIT})?)",
            r"drill \2 depth \1",
        ),
        # a metric tap by its size: 10 mm tap
        (r"\b(\d+(?:\.5)?)\s*mm\s+tap\b", r"m\1 tap"),
        (r"\bhow\s+long\s+(?:to|does|will)\b", "time"),
        (r"\b(\d+)\s*to\s*1(?=\s+(?:worm|head|dividing|table))", r"\1:1"),
        (
            r"\b(\d+)\s*(?:deg(?:rees?)?|°)\s*(\d+)\s*(?:min(?:utes?)?\b|['′])",
            r"\1d\2m",
        ),
    )
)


# how many there are, in words
_COUNT_WORDS = (
    *("two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"),
    *("eleven", "twelve"),
)
_IN_WORDS = re.compile(
    rf"\b({'|'.join(_COUNT_WORDS)})(?=[\s-]+(?:holes?|bolts?|screws?|starts?|pieces?"
    r"|flutes?|teeth|tooth|(?:t-)?nuts?|divisions?|sides?|passes)\b)-?",
    re.IGNORECASE,
)
# a taper of so much in so much, both of one unit: taper 1 in 20, 10 in 100 taper
_IN_SO_MUCH = re.compile(
    r"(?<![\d/.:])\b(?P<first>(?:taper|slope|gradient)\s+(?:of\s+)?)?"
    r"(?P<rise>\d+(?:\.\d+)?)\s+in\s+(?P<run>\d+(?:\.\d+)?)(?!\w|\.\d)"
    r"(?(first)(?!\s*(?:mm|in\s+\d|long|\"|″))|(?=\s+(?:taper|slope|gradient)\b))",
    re.IGNORECASE,
)
# a taper by the foot, both ways in inches: 5/8 per foot
_FOOT = re.compile(
    rf"(?<![\w:.])({NUMBER})\s*(?:in(?:ch(?:es)?)?\b|\"|″)?\s*(?:taper\s+)?"
    r"(?:/|per|to\s+the|a)\s*"
    r"(?:ft|foot)\b(?!\s*(?:/|pin))",
    re.IGNORECASE,
)
# the same said the other way round: taper per foot 5/8
_PER_FOOT = re.compile(
    rf"\b(?:taper\s+)?per\s+(?:ft|foot)\s+(?:of\s+)?({NUMBER})(?![\d.]|\s*(?:deg|°|:))",
    re.IGNORECASE,
)
# an inch thread said without its hyphen, where threads are spoken of: 3/8 in 24
_APART = re.compile(
    r"(?<![\d/])((?:\d+\s+)?\d+/\d+)\s*(?:in(?:ch)?\b|\"|″)?\s*[x×]?\s*(\d{1,2})\b"
    r"(?:\s*tpi\b)?(?![/.])",
    re.IGNORECASE,
)
_OF_THREADS = re.compile(
    r"\b(?:tap|tapping|threads?|clearance|wires?|screws?|bolts?|counterbore|tpi)\b",
    re.IGNORECASE,
)
_UNKNOWN = re.compile(r"\b(?:which|unknown|identify|gears?|wheels?)\b", re.IGNORECASE)


def _one_in(match: re.Match[str]) -> str:
    rise, run = float(match["rise"]), float(match["run"])
    return f"{match['first'] or ''}1:{run / rise:g}" if rise else match[0]


def _by_the_foot(match: re.Match[str]) -> str:
    try:
        return f"1:{12 * INCH / parse(f'{match[1]}in', above=0):g}"
    except BadInput:
        return match[0]


def _joined(match: re.Match[str]) -> str:
    """`3/8-24` where there is such a thread, else as it was said."""
    name = f"{match[1]}-{match[2]}"
    known = any(listed.startswith(f"{name} UN") for listed in known_threads())
    return name if known else match[0]


# the sign of a diameter, beside the length of what has it
_ROUND = re.compile(
    rf"[⌀Øø∅]\s*({NUMBER}(?:\s*{_UNIT})?)(?![\d.]|\s*[x×])", re.IGNORECASE
)
_LONG = re.compile(r"\b(?:long|length|weight|mass|heavy)\b", re.IGNORECASE)
# a surface speed in feet a minute: 100 sfm, sfm 100, 100 ft/min
_FEET = re.compile(
    r"\b(?:(\d+(?:\.\d+)?)\s*"
    r"(?:ft\s*/\s*min|(?:feet|ft)\s+(?:per|a)\s+min(?:ute)?|sfm|sfpm|fpm)\b"
    r"|(?:sfm|sfpm|fpm)\s+(\d+(?:\.\d+)?))",
    re.IGNORECASE,
)


def heard(text: str, inch: bool = False) -> Said:
    """Take what was said apart; what is no word of any kind is left out. inch: a bare
    number is inches."""
    text = whole_text = re.sub(r"(?<=\d),(?=\d)", ".", text)
    # a hyphen joins a mixed number to its fraction: 1-3/8 in, not 1 less 3/8
    text = re.sub(r"(?<![\d/-])(\d+)-(\d+/\d+)(?!\s*-?\d)", r"\1 \2", text)
    text = _IN_WORDS.sub(lambda m: f"{_COUNT_WORDS.index(m[1].lower()) + 2} ", text)
    for pattern, meant in _SAID_SO:
        text = pattern.sub(meant, text)
    text = _IN_SO_MUCH.sub(_one_in, text)
    text = _PER_FOOT.sub(_by_the_foot, _FOOT.sub(_by_the_foot, text))
    if _OF_THREADS.search(text) and not _UNKNOWN.search(text):
        text = _APART.sub(_joined, text)
    if _LONG.search(text):  # ⌀30 × 200 long
        text = _ROUND.sub(r"\1 dia", text)
    text = _FEET.sub(lambda m: f"{m[1] or m[2]} ft/min", text)
    said = Said(inch=inch, text=whole_text)
    at = 0
    while at < len(text):
        skipped = _SKIPPED.match(text, at)
        if skipped:
            at = skipped.end()
            continue
        metal = _materials().match(text, at)
        if metal and (at == 0 or not text[at - 1].isalnum()):
            said.parts.append(SaidPart("material", metal.group(), at))
            at = metal.end()
            continue
        match = _SCANNER.match(text, at)
        if match is None:
            at += 1
            continue
        kind = _PARTS[int((match.lastgroup or "k0")[1:])][0]
        whole = match.group()
        if kind in ("size", "pair") and whole.lower().endswith("in"):
            told = _after_in(text, match)
            if told == "mm":
                whole = re.sub(r"\s*in$", "", whole, flags=re.IGNORECASE)
                kind = "number" if kind == "size" else kind
            elif told == "unclear" and not inch:
                said.unclear = whole.strip()
        if kind == "thread" and re.fullmatch(
            r"g\s?(?:[5-9]|\d\d)", whole, re.IGNORECASE
        ):
            kind = "zone"  # g6 is a tolerance, no pipe
        said.parts.append(SaidPart(kind, whole.strip().replace("−", "-"), at))
        at += len(whole)
    for figure, behind in pairwise(said.parts):
        if figure.kind == "number" and behind.word in _UNITS:
            figure.unit = behind.word
    return said


ALIKE = 0.05  # of its size by which two that go together may differ
MOST_INCHES = 6  # of a metal: 6 in steel are inches, 50 in steel are millimetres
MOST_UNCLEAR = 24  # what lies between can be either, and so can a drill of 5
_HOLES = "bore|hole|hub|housing|slot|bush|sleeve|ring"
_LEADS = re.compile(
    r"(?:mm|cm|um|µm|thou|tenths?|inch(?:es)?|drills|drill\s+sizes?|passes"
    r"|hrc|hrb|hv|hb|rockwell|vickers|brinell)\b"
    r"|(?:(?:an?|the)\s+(?:[\d./]+\s+)?|[\d./]+\s+)"
    rf"(?:{_HOLES}|shaft|plate|block|keyway)\b",
    re.IGNORECASE,
)
_WITHIN = re.compile(
    rf"(?:an?\s+|the\s+)?(?:(?:{_HOLES})\s+(?:of\s+)?)?"
    r"(\d*\.?\d+)\s*(?![\d/.]|mm|in\b|inch|x)",
    re.IGNORECASE,
)
# where it is held; so much in a foot or a turn is of inches
_HELD = re.compile(
    r"(?:(?:an?|the)\s+)?(?:(?:three|four|\d)[\s-]+jaw|chuck|vice|vise|collet|steady)\b",
    re.IGNORECASE,
)
_SMALL = re.compile(r"\b(?:drill|ream|reamer|tap|mill|cutter)\b", re.IGNORECASE)


def _after_in(text: str, match: re.Match[str]) -> str:
    """The unit of a size that ends with `in`: `inches`; `mm` where the word leads on,
    as in 50 in steel, 12.7 in mm, 8 in 30 bore; `unclear` where it may be either.

    Turned as millimetres, inches would be turned 25 times as fast.
    """
    rest = text[match.end() :].lstrip()
    if _LEADS.match(rest):
        return "mm"
    largest = max(map(float, re.findall(r"\d+(?:\.\d+)?", match.group())))
    beside = text[: match.start()] + text[match.end() :]
    within = None if _INCHES.search(beside) else _WITHIN.match(rest)
    if within and abs(float(within.group(1)) - largest) < ALIKE * largest:
        # one in the other: 19.98 in 20.02
        return "mm" if largest > MOST_INCHES else "unclear"
    if _HELD.match(rest) and not largest % 1 and "/" not in match.group():
        return "mm" if largest > MOST_UNCLEAR else "unclear"
    # a part of an inch, or beside another size in inches: 2 in bar 12 in steel
    if (
        not _materials().match(rest)
        or not re.search(r"\d\s+in$", match.group())
        or "/" in match.group()
        or largest % 1
        or _INCHES.search(beside)
    ):
        return "inches"
    if largest > MOST_UNCLEAR:
        return "mm"
    small = largest > 1 and _SMALL.search(beside) is not None
    return "unclear" if largest > MOST_INCHES or small else "inches"
