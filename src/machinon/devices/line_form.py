"""The form of a device's lines: what in a line is the value, its unit, its axis.

A form is a pattern with named groups. `value` with `sign` and `unit` is one figure, of
the axis in `axis` where that is there too; `x`, `y` and `z` are figures by their place.
"""

import functools
import math
import re
from collections.abc import Mapping

import msgspec

from machinon.core.errors import BadInput

FURTHEST = 10_000.0  # mm: beyond it a figure is nonsense
LONGEST = 200  # letters of a line that still is one
NUMBER = r"\d+(?:[.,]\d*)?"
UNITS = {"mm": 1.0, "in": 25.4, "inch": 25.4, '"': 25.4, "µm": 0.001, "um": 0.001}
GROUPS = ("sign", "value", "unit", "axis", "x", "y", "z")
_SEPARATORS = re.compile(r"[\s,;:|]*")


class NotUnderstood(Exception):
    """A line that a form cannot read, and why, in words."""


class LineForm(msgspec.Struct, frozen=True):
    """The form of a device's lines."""

    name: str
    pattern: str
    unit: str = "mm"  # what a figure without one is in
    axes: dict[str, str] = {}  # our axis by what the line calls it
    turned: tuple[str, ...] = ()  # our axes that count the other way round

    @property
    def _pattern(self) -> re.Pattern[str]:
        return compiled(self.pattern)

    def read(self, line: str) -> dict[str, float]:
        """The figures of a line, mm, by axis; "" for a gauge's own. Raises
        NotUnderstood with the reason."""
        text = line.strip()
        if not text:
            raise NotUnderstood("an empty line")
        if len(text) > LONGEST:
            raise NotUnderstood(f"{len(text)} letters long")
        found = self._found(text)
        values: dict[str, float] = {}
        for groups in found:
            for axis, written, sign in _figures(groups):
                value = self._value(written, sign, groups.get("unit"))
                own = self.axes.get(axis, axis.upper())
                if own in values:
                    raise NotUnderstood(f"{own or 'the value'} stands in it twice")
                values[own] = -value if own in self.turned else value
        if not values:
            raise NotUnderstood("no figure in it")
        return values

    def _found(self, text: str) -> list[dict[str, str | None]]:
        if "axis" not in self._pattern.groupindex:
            match = self._pattern.fullmatch(text)
            if match is None:
                raise NotUnderstood(f"not of the form “{self.name}”")
            return [match.groupdict()]
        found, at = [], 0
        while at < len(text):
            at = _past_gap(text, at)
            part = self._pattern.match(text, at)
            if part is None or part.end() == at:
                rest = text[at : at + 12]
                raise NotUnderstood(f"“{rest}” is not of the form “{self.name}”")
            found.append(part.groupdict())
            at = _past_gap(text, part.end())
        return found

    def _value(self, written: str, sign: str, unit: str | None) -> float:
        word = (unit or self.unit).lower()
        if word not in UNITS:
            raise NotUnderstood(f"{unit} is no unit: {', '.join(UNITS)} are")
        value = float(written.replace(",", ".")) * UNITS[word]
        if not math.isfinite(value) or value > FURTHEST:
            raise NotUnderstood(f"{written} is no length")
        return -value if sign == "-" else value


def _past_gap(text: str, at: int) -> int:
    gap = _SEPARATORS.match(text, at)
    return gap.end() if gap else at


def _figures(groups: Mapping[str, str | None]) -> list[tuple[str, str, str]]:
    """(axis, figure, sign) of what a match found."""
    found = []
    if groups.get("value"):
        written = groups["value"] or ""
        sign = groups.get("sign") or ""
        found.append((groups.get("axis") or "", written, sign))
    for axis in ("x", "y", "z"):
        written = groups.get(axis) or ""
        if written:
            bare = written.lstrip("+-− ")
            sign = "-" if written.lstrip()[0] in "-−" else ""
            found.append((axis, bare, sign))
    return [
        (axis, digits, "-" if sign in ("-", "−") else "")
        for axis, digits, sign in found
    ]


def axes_told(typed: str) -> tuple[dict[str, str], tuple[str, ...]]:
    """Axes as they are told, `A=X, B=-Y`: ours by what the line calls them, and those
    of ours that count the other way round. Raises BadInput on `axes`.

    >>> axes_told("A=X, B=-Y")
    ({'A': 'X', 'B': 'Y'}, ('Y',))
    """
    axes: dict[str, str] = {}
    turned: list[str] = []
    for word in re.split(r"[,;\s]+", typed.strip()):
        if not word:
            continue
        found = re.fullmatch(r"(\w*)=([+-]?)([A-Za-z])", word)
        if found is None:
            raise BadInput("axes", f"{word} is none: A=X or B=-Y is how it is told.")
        own = found[3].upper()
        axes[found[1]] = own
        if found[2] == "-":
            turned.append(own)
    return axes, tuple(turned)


@functools.lru_cache(maxsize=64)
def compiled(pattern: str) -> re.Pattern[str]:
    """A pattern ready to be used. Raises BadInput on `pattern`."""
    try:
        made = re.compile(pattern)
    except re.error as error:
        raise BadInput("pattern", f"That is no pattern: {error}.") from None
    unknown = set(made.groupindex) - set(GROUPS)
    if unknown:
        raise BadInput(
            "pattern", f"{sorted(unknown)[0]} is no part: {', '.join(GROUPS)} are."
        )
    if not {"value", "x", "y", "z"} & set(made.groupindex):
        raise BadInput("pattern", "Nothing in it is a figure: name value, x, y or z.")
    return made


_SIGN = r"(?P<sign>[+\-−])?\s*"
_UNIT = r"\s*(?P<unit>mm|inch|in|\"|µm|um)?"
_PLACED = rf"[+\-−]?\s*{NUMBER}"

FORMS: Mapping[str, LineForm] = {
    "number": LineForm("a number, with or without its unit",
                       rf"{_SIGN}(?P<value>{NUMBER}){_UNIT}"),
    "named": LineForm("axis and number: X 12.345 Y -3.2",
                      rf"(?P<axis>[A-Za-z])\s*[:=]?\s*{_SIGN}(?P<value>{NUMBER}){_UNIT}"),
    "columns": LineForm("numbers in columns: 12.345; -3.2; 0",
                        rf"(?P<x>{_PLACED})[;,\s]+(?P<y>{_PLACED})"
                        rf"(?:[;,\s]+(?P<z>{_PLACED}))?"),
}  # fmt: skip
