"""Sums of sizes as one says them: half of 86.4 plus a 10 cutter radius."""

import re

from machinon.core.errors import BadInput
from machinon.core.quantity import parse

# 10-32 is a thread, and 3/8 a size
_ADDED = re.compile(
    r"[+*()]|\s-\s|^[^/]*\.\d+\s*/\s*[\d.]+$|\d\s*(?:mm|in)\s*/\s*\d"
    r"|\d\s*(?:sin|cos|tan|pi)\b|\bsqrt\b"
)
_FRACTION = r"(?:\d+\s+)?\d+/\d+"
_FIGURE = rf"({_FRACTION}|\d*\.?\d+)(?!\.?\d|/)"
_ROUND = r"(?:cutter|pin|tip|bar|roller)"  # what goes by its diameter
_THING = rf"(?:{_ROUND}|block|parallel|washer|shim)s?"
_MEASURE = r"(?:width|span|length|diameter)"
_BEFORE, _BEHIND = r"(?<=[\dn)])\s+", r"\s+(?=[\d.(])"  # between two figures

# in this order: what is said, and how it is written
_WRITTEN = tuple(
    (re.compile(said, re.IGNORECASE), written)
    for said, written in (
        (r"^(?:what is|what's|whats|how much is)\s+(?:the\s+|a\s+)?", ""),
        (r"(?<=[a-z])\s+in\s+mm$", ""),
        # what the slide goes in for so much off the diameter: infeed for 0.5 off it
        (
            r"^(?:depth\s+of\s+cut|in-?feed|feed\s+in|how\s+(?:much|far)\s+"
            r"(?:(?:do\s+i|to)\s+)?(?:feed|go)(?:\s+in)?)\s+(?:for|to\s+take)\s+"
            rf"{_FIGURE}(\s*(?:mm|in|thou|\"))?\s+off(?:\s+(?:the|its|a))?\s+diameter$",
            r"(\1\2)/2",
        ),
        (r"^(?:the\s+)?(?:sum|total)\s+of\s+", ""),
        (
            rf"\bhalf\s+(?:of\s+)?(?:an?\s+|the\s+)?"
            rf"(?:{_MEASURE}\s+(?:(?:of|is)\s+)?)?" + _FIGURE,
            r"(\1)/2",
        ),
        (rf"\bradius\s+of\s+(?:an?|the)\s+{_FIGURE}(?=\s+{_ROUND}\b)", r"(\1)/2"),
        (rf"(?:\ban?\s+)?{_FIGURE}\s+(?:mm\s+)?{_ROUND}\s+radius\b", r"(\1)/2"),
        (rf"(?<=[\d)])\s+{_THING}\b", ""),
        (rf"{_BEFORE}plus{_BEHIND}", " + "),
        (rf"{_BEFORE}(?:minus|less){_BEHIND}", " - "),
        (rf"{_BEFORE}times{_BEHIND}", " * "),
    )
)


# 3/4 - .002 is no thread, with less than one turn to the inch; 1/4 - 20 is one
_LESS_SOME_THOU = re.compile(rf"{_FRACTION}\s*[-+]\s*0?\.\d+")
_BY_THE_INCH = re.compile(rf"{_FRACTION}\s*-\s*\d+")


def spoken_sum(said: str, inch: bool) -> str:
    """A sum of sizes as it may be typed anywhere else, also one that is refused there
    for its units: 3/4 - .002; empty for what is none.

    >>> spoken_sum("half the width 63.5 plus half of a 12 cutter", inch=False)
    '(63.5)/2 + (12)/2'
    """
    for words, written in _WRITTEN:
        said = words.sub(written, said)
    if _LESS_SOME_THOU.fullmatch(said.strip()):
        return said
    if not _ADDED.search(said):
        return ""
    try:
        if parse(said, inch=inch) < 0 and _BY_THE_INCH.fullmatch(said.strip()):
            return ""
    except BadInput:
        return ""
    return said
