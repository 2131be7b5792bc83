"""How wide words are set: a drawing is laid out without a font to ask.

Source: the advances of the type that ships with the program, regular and bold alike.
"""

import functools
import unicodedata

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


def in_lines(text: str, size: float, room: float, most: int) -> list[str]:
    """The text in lines that have room in a height, broken between words; what goes
    past the last of them is cut short."""
    lines: list[str] = []
    for word in text.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and (len(lines) == most or text_width(longer, size) <= room):
            lines[-1] = longer
        else:
            lines.append(word)
    return [cut_short(line, size, room) for line in lines]


@functools.lru_cache(maxsize=16_384)
def _of_height(text: str) -> float:
    return sum(map(_width, text))


def _width(letter: str) -> float:
    width = _WIDTHS.get(letter)
    if width is None:  # an accent makes a letter no wider
        width = _WIDTHS.get(unicodedata.normalize("NFD", letter)[0], WIDE)
    return width
