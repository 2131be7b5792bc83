"""How wide words are set: a drawing is laid out without a font to ask.

Source: the advances of the type that ships with the program, regular and bold alike.
"""

import functools
import unicodedata
from collections.abc import Callable, Sequence

# letters by their width, in heights of the type
_BY_WIDTH = {
    0.2: "'|",
    0.25: ",;·′",
    0.3: ".:Iij°²³⁴",
    0.35: " !l",
    0.4: '"frt″',
    0.45: "()-J[s‹",
    0.5: "=]cz“”↕",
    0.525: "a",
    0.55: "$*/?FLS\\_`ekvxy£–−",
    0.6: "+CEKPTYZbdghnopqu}±øμν",
    0.65: "0123456789{<>ABDGRVXµßπρσχ",
    0.7: "&HUα€",
    0.75: "N^w~¼½¾…",
    0.8: "OQ×ω√",
    0.85: "#⌀",
    0.9: "%Mm↔",
    0.95: "W",
    1.0: "@",
}
_WIDTHS = {letter: w for w, letters in _BY_WIDTH.items() for letter in letters}
WIDE = 1.4  # of a letter that is not among them, and comes from another type


def text_width(text: str, size: float) -> float:
    """How wide a text is set in a height, in its unit; pairs of letters that move
    together make it a little less."""
    return size * _of_height(text)


def cut_short(text: str, size: float, room: float) -> str:
    """The text as far as it has room in a height."""
    if text_width(text, size) <= room:
        return text
    while len(text) > 1 and text_width(f"{text}…", size) > room:
        text = text[:-1].rstrip()
    return f"{text}…"


def in_lines(
    words: Sequence[str], width: Callable[[str], float], room: float, most: int = 0
) -> list[str]:
    """Words in as few lines as hold them.

    width: of a text, as room is; most: lines, the last of which takes all that is left,
    0 for as many as there are.
    """
    lines = [""]
    for word in words:
        longer = f"{lines[-1]} {word}".strip()
        if lines[-1] and len(lines) != most and width(longer) > room:
            lines.append(word)
        else:
            lines[-1] = longer
    return lines


@functools.lru_cache(maxsize=16_384)
def _of_height(text: str) -> float:
    return sum(map(_width, text))


def _width(letter: str) -> float:
    width = _WIDTHS.get(letter)
    if width is None:  # an accent makes a letter no wider
        width = _WIDTHS.get(unicodedata.normalize("NFD", letter)[0], WIDE)
    return width
