"""A form taught from a line that was received: which part of it is which."""

import re
from collections.abc import Mapping
from typing import Literal

from msgspec import Struct

from machinon.core.errors import BadInput
from machinon.devices.line_form import GROUPS, NUMBER, UNITS, LineForm, compiled

PartKind = Literal["number", "word", "sign", "gap"]
_PART = re.compile(rf"(?P<number>{NUMBER})|(?P<word>[^\W\d_]+|\")|(?P<sign>[+\-−])|.")


class LinePart(Struct, frozen=True):
    """A part of a line: a number, a word, a sign, or what lies between."""

    text: str
    kind: PartKind

    @property
    def can_be(self) -> tuple[str, ...]:
        """The possible meanings to choose from."""
        return {
            "number": ("value", "x", "y", "z"),
            "word": ("unit", "axis"),
            "sign": (),
            "gap": (),
        }[self.kind]


def parts_of(line: str) -> list[LinePart]:
    """A line taken apart.

    >>> [part.text for part in parts_of("A1: -3.250 mm")]
    ['A', '1', ': ', '-', '3.250', ' ', 'mm']
    """
    found: list[LinePart] = []
    for word in _PART.finditer(line.strip()):
        kind: PartKind = "gap"
        for name in ("number", "word", "sign"):
            if word.group(name):
                kind = name
        if kind == "gap" and found and found[-1].kind == "gap":
            found[-1] = LinePart(found[-1].text + word.group(), "gap")
        else:
            found.append(LinePart(word.group(), kind))
    return found


def taught(line: str, told: Mapping[int, str], unit: str = "mm") -> LineForm:
    """The form of a line in which some parts, by their place, were told.

    A number that was told keeps its sign; what was not told must be there as it is,
    but for numbers, which may be others. unit: of figures without one. Raises BadInput
    on `line` where nothing told is a figure, or one thing is told twice.
    """
    parts = parts_of(line)
    names = list(told.values())
    if len(set(names)) < len(names) or not set(names) <= set(GROUPS):
        raise BadInput("line", "Each part is one thing, and each thing stands once.")
    if not {"value", "x", "y", "z"} & set(names):
        raise BadInput("line", "Say which number is the value, or X, Y or Z.")
    if "unit" in names:
        word = parts[next(at for at, name in told.items() if name == "unit")].text
        if word.lower() not in UNITS:
            raise BadInput("line", f"{word} is no unit: {', '.join(UNITS)} are.")
    pattern = ""
    for at, part in enumerate(parts):
        name = told.get(at, "")
        after = told.get(at + 1, "")
        signed = part.kind == "sign" and after in ("value", "x", "y", "z")
        if signed:
            continue  # it belongs to the number
        pattern += _pattern_of(part, name)
    compiled(pattern)
    return LineForm("taught", pattern, unit)


def _pattern_of(part: LinePart, name: str) -> str:
    match part.kind:
        case "number" if name == "value":
            return rf"(?P<sign>[+\-−])?\s*(?P<value>{NUMBER})"
        case "number" if name:
            return rf"(?P<{name}>[+\-−]?\s*{NUMBER})"
        case "number":
            return NUMBER
        case "word" if name == "unit":
            return r"(?P<unit>mm|inch|in|\"|µm|um)?"
        case "word" if name == "axis":
            return r"(?P<axis>[A-Za-z]+)"
        case "sign":
            return r"[+\-−]?"
        case "gap":
            # as many blanks as there are: figures are often lined up
            blank = [
                r"\s*" if letter.isspace() else re.escape(letter)
                for letter in part.text
            ]
            return re.sub(r"(\\s\*)+", lambda _: r"\s*", "".join(blank))
    return re.escape(part.text)
