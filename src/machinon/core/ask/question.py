"""What is asked of what was typed: without the words about it, its words spelled."""

import difflib
import functools
import re
from collections.abc import Mapping

from machinon.core.tables import rows

ALIKE = 0.79  # how alike two words are of which one was meant
MOST_NEAR = 6  # words that are looked at
SHORTEST = 4  # letters: a shorter word is too soon another one

# what is said about a question, and no part of it
_ASKING = re.compile(
    r"^(?:what(?:'s|s|\s+is)(?=\s+(?:(?:the|an?)\s|\d))|please|hello|hi|ok|so|and|find"
    r"|calculate|compute|work\s+out|for my (?:lathe|mill|shop):?"
    r"|(?:i|we)\s+(?:need|want)(?:\s+to\s+(?:know|find))?"
    r"|(?:could|can|may)\s+i\s+have|how\s+(?:do|can)\s+i\s+(?:get|find|work\s+out)"
    r"|(?:(?:could|can|would|will)\s+you\s+)?(?:please\s+)?"
    r"(?:give|tell|show|get|find)\s+me)\s+(?:(?:the|an?)\s+)?(?=\S)",
    re.IGNORECASE,
)
_ASKED = re.compile(
    r"[\s,;.?!]*(?:[?!.]|(?<!\S)(?:please|thanks|thank you|now|today|exactly|roughly"
    r"|approximately|about|for me|on (?:the|my) lathe))\s*$",
    re.IGNORECASE,
)
# of what is said in words and figures: 94.997 in 95.02 in mm is no 95.02 inches
_IN_MM = re.compile(r"(?<=\d)\s+in\s+(?:mm|millimet(?:re|er)s?)$", re.IGNORECASE)
_CONVERTED = re.compile(
    r"(?:what|is|are|whats|convert|drill|size|letter|number|no|af|the|a|an|how|many|of|in"
    r"|inch|inches|thou|tpi|[^a-z]+)*",
    re.IGNORECASE,
)


_OF_SHAFT = re.compile(r"\b(?:SHAFT|PIN|JOURNAL|SPIGOT|SPINDLE)S?\b")
_WORD = re.compile(rf"(?<![\w.'/-])[a-z]{{{SHORTEST},}}(?![\w'/-])")


def question_of(text: str) -> tuple[str, tuple[str, ...]]:
    """What is asked, without the words about it and as it is spelled, and the words
    that were not; names and zones are left as they were typed.

    >>> question_of("Could you tell me the TPI of M8, please?")
    ('tpi of M8', ())
    >>> question_of("50 MM BORE G6 SHAFT")
    ('50 mm bore g6 shaft', ())
    >>> question_of("clearence for an M8 scerw")
    ('clearance for an M8 screw', ('clearance', 'screw'))
    """
    mended: list[str] = []
    question = _WORD.sub(lambda word: _spelled(word[0], mended), _plain(text))
    before = ""
    while before != question:
        before, question = question, _ASKED.sub("", _ASKING.sub("", question))
    bare = _IN_MM.sub("", question)
    figures = re.findall(r"\d+(?:[./]\d+)*", bare)
    converts = len(figures) < 2 and _CONVERTED.fullmatch(bare)
    return question if converts else bare, tuple(mended)


def _plain(text: str) -> str:
    """Words in small letters, decimal points, and no colons but those of a ratio."""
    # of a shaft's zone the letter is a small one, whatever key was held
    held = text.isupper() and _OF_SHAFT.search(text)
    words = r".+" if held else r"\b(?:[A-Za-z]{2,}|A)\b"
    text = re.sub(words, lambda word: word[0].lower(), text)
    text = re.sub(r"(?<=\d),(?=\d)", ".", text)
    # pcd: 80 and pcd = 80, but 1:20
    text = re.sub(r"\s*=\s*|\s*:(?=\s|$)|(?<!\d)\s*:\s*", " ", text)
    return " ".join(text.split())


@functools.cache
def _known() -> Mapping[str, bool]:
    """The words that are left as they are, and whether one asks by them."""
    return {row["word"]: row["asked"] == "yes" for row in rows("asked_words")}


@functools.cache
def _asked_by() -> tuple[str, ...]:
    return tuple(word for word, asked in _known().items() if asked)


def _spelled(word: str, mended: list[str]) -> str:
    """A word, or the one that it is nearest to, which is added to those mended."""
    if any(form in _known() for form in _forms(word)):
        return word
    near = difflib.get_close_matches(word, _asked_by(), n=MOST_NEAR, cutoff=ALIKE)
    if not near:
        return word
    # a letter is struck twice, two change places; the first one is seldom wrong
    meant = min(
        near,
        key=lambda other: (
            _once(other) != _once(word),
            other[0] != word[0],
            sorted(other) != sorted(word),
        ),
    )
    mended.append(meant)
    return meant


def _once(word: str) -> str:
    """A word without its doubled letters."""
    return re.sub(r"(.)\1+", r"\1", word)


def _forms(word: str) -> tuple[str, ...]:
    """A word, and what it may be of more than one."""
    return (
        (word,)
        if word.endswith("sss")
        else (word, word.removesuffix("s"), word.removesuffix("es"))
    )
