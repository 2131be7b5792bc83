"""Questions about sizes in other units, and the drill that is nearest."""

import re

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import Said
from machinon.core.tables import rows

phrase = Phrases()


@phrase("convert", "letter drill f")
def _drill_name(s: Said) -> Inputs | None:
    letter = s.has("letter")
    if not s.has("drill") and not letter:
        return None
    s.has("number", "no", "size")
    if letter:
        word = next(
            (p for p in s.parts if not p.used and re.fullmatch("[a-zA-Z]", p.text)),
            None,
        )
        if word is None:
            return None
        word.used = True
        return _drill("letter", word.text.upper())
    number = s.take("pin")
    if number:
        return _drill("number", number)
    # a size: which drill is nearest
    value = s.take("size", "number")
    return {"value": value, "to": "drill"} if value and _alone(s) else None


def _alone(s: Said) -> bool:
    """Whether nothing that says something is left: else it is another question."""
    return not s.unused


def _drill(series: str, name: str) -> Inputs | None:
    found = next(
        (r for r in rows("drills") if r["series"] == series and r["name"] == name), None
    )
    return {"value": f"{found['size_in']}in"} if found else None


_TO = {
    "mm": "mm",
    "millimetre": "mm",
    "inch": "inch",
    "inche": "inch",
    "thou": "thou",
    "um": "um",
    "µm": "um",
    "micron": "um",
    "tenth": "thou",
    "decimal": "inch",
    "fraction": "fraction",
    "drill": "drill",
}


@phrase("convert", "13/32 in mm", keyed=False)
def _convert(s: Said) -> Inputs | None:
    value = s.take("size", "number")
    if not value:
        return None
    to = next((p for p in s.parts if p.kind == "word" and p.word in _TO), None)
    given: Inputs = {"value": value}
    if to is not None:
        to.used = True
        given["to"] = _TO[to.word]
        bare = re.fullmatch(r"[\d. /]+", value)
        # 0.0005 in um: nobody asks what half a micron of metal is in microns, nor for
        # the fraction of millimetres
        if bare and given["to"] in ("mm", "um", "fraction"):
            given["value"] = f"{value}in"
    s.has("nearest", "convert")
    return given


@phrase("convert", "8 tpi in mm")
def _pitch(s: Said) -> Inputs | None:
    tpi = s.tpi()
    if not tpi or not s.has("mm", "millimetre", "pitch"):
        return None
    s.has("thread", "screw")
    return {"value": f"1in/{tpi}", "to": "mm"}


@phrase("convert", "half of 98.4 less 12")
def _half(s: Said) -> Inputs | None:
    if not s.has("half"):
        return None
    first = s.size()
    less, more = s.has("less", "minus"), s.has("plus", "more")
    if not first:
        return None
    if not less and not more:
        return {"value": f"({first})/2"}
    second = s.size()
    return {"value": f"({first})/2{'-' if less else '+'}{second}"} if second else None
