"""Questions about sizes in other units, and the drill that is nearest."""

import math
import re
from itertools import pairwise

from machinon.core.ask.phrases.phrase import Inputs, Phrases
from machinon.core.ask.said import TENTHS, Said
from machinon.core.setting_out.other_units import is_length, spoken
from machinon.core.tables import rows
from machinon.core.threads.tapping import drills

phrase = Phrases()

LAST_SCREW = 14  # of those that go by numbers
LAST_DRILL = 80
MOST_A_TURN = 12.7  # mm: what moves further a turn is said to do so
LEAST_A_TURN = 0.5  # mm: a bare figure below it is of inches
LEAST_DRILL = 0.3  # mm: a bare figure below it is of inches


@phrase("convert", "letter drill f")
def _drill_name(s: Said) -> Inputs | None:
    letter = s.has("letter")
    decimal = s.number_of("pin") == 1 and s.has("decimal", "decimals")  # #7 in decimal
    if not s.has("drill") and not (letter or decimal):
        return None
    if s.hears("centre", "center", "taper"):  # they have numbers of their own
        return None
    s.has("number", "no", "size", "near", "nearest", "closest", "to")
    if letter:
        letters = [
            p for p in s.parts if not p.used and re.fullmatch("[a-zA-Z]", p.text)
        ]
        # a letter f drill: the a is none
        word = next((p for p in letters if p.text != "a"), next(iter(letters), None))
        if word is None:
            return _nearest("letter", s)
        word.used = True
        return _drill("letter", word.text.upper())
    number = s.take("pin")
    if number:
        return _drill("number", number)
    if re.search(r"\bnumber\s+drill\b", s.text.lower()):
        return _nearest("number", s)
    # a size: which drill is nearest
    value = s.take("size", "number")
    to = next((_TO[p.word] for p in s.parts if p.word in _TO and not p.used), "")
    if to:  # what a drill of that size is in the other unit
        s.has(*(word for word, meant in _TO.items() if meant == to))
    if to == "mm" and value.isdigit() and int(value) <= LAST_DRILL and _alone(s):
        return _drill("number", f"#{value}")  # nobody asks what 29 mm are in mm
    value = _of_inches(value)
    return {"value": value, "to": to or "drill"} if value and _alone(s) else None


def _of_inches(drill: str) -> str:
    """A drill's size with its unit, where a bare figure is too small for a metric
    one."""
    bare = re.fullmatch(r"0?\.\d+", drill)
    small = bare and 0 < float(drill) <= LEAST_DRILL
    return f"{drill}in" if small or TENTHS.fullmatch(drill) else drill


def _alone(s: Said) -> bool:
    """Whether nothing that says something is left: else it is another question."""
    return not s.unused


def _drill(series: str, name: str) -> Inputs | None:
    found = next(
        (r for r in rows("drills") if r["series"] == series and r["name"] == name), None
    )
    return {"value": f"{found['size_in']}in"} if found else None


def _nearest(series: str, s: Said) -> Inputs | None:
    """The drill of a series that is nearest to a size: letter drill for 8 mm."""
    size = s.mm(s.size())
    s.has("nearest", "closest", "for", "to", "drill", "what", "is")
    if not size or not _alone(s):
        return None
    near = min(drills(series), key=lambda drill: abs(drill.size - size))
    return _drill(series, near.name)


_FRACTION_IN_MM = re.compile(r"((?:\d+ )?\d+/\d+) ?mm", re.IGNORECASE)

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
    "metric": "mm",
    "imperial": "inch",
}


@phrase("convert", "13/32 in mm", keyed=False)
def _convert(s: Said) -> Inputs | None:
    value = s.take("size", "number")
    if not value:
        return None
    words = [p for p in s.parts if p.kind == "word" and p.word in _TO]
    # in inches as a fraction
    to = next((p for p in words if p.word == "fraction"), next(iter(words), None))
    if to is not None and to.word == "fraction":
        s.has("inch", "inches", "mm")
    if to is None and (inches := _FRACTION_IN_MM.fullmatch(value)):
        return {"value": f"{inches[1]}in", "to": "mm"}  # there are none of millimetres
    given: Inputs = {"value": value}
    if to is not None:
        to.used = True
        given["to"] = _TO[to.word]
        bare = re.fullmatch(r"[\d. /]+", value)
        # 0.0005 in um: nobody asks what half a micron of metal is in microns, nor for
        # the fraction of millimetres
        if bare and given["to"] in ("mm", "um", "fraction"):
            given["value"] = f"{value}in"
        if given["to"] == "drill":
            given["value"] = _of_inches(value)
            s.has("what", "is")
    s.has("nearest", "convert", "equivalent", "of")
    if to is not None:  # how many thou is 0.03 mm
        s.has("how", "many", "is", "are", "a", "af", "spanner", "wrench", "key")
    return given


@phrase("other-units", "30 ft lb in Nm", keyed=False)
def _other_units(s: Said) -> Inputs | None:
    """A heat, a torque and the like, which are not told apart as sizes are."""
    asked = spoken(s.text) or spoken(s.text, alone=True)
    if asked is None or is_length(asked):
        return None
    for part in s.parts:
        part.used = True
    return {"value": asked.value, **({"to": asked.to} if asked.to else {})}


@phrase("convert", "drill #43", keyed=False)
def _number_drill(s: Said) -> Inputs | None:
    """A number that no screw has."""
    number = s.take("pin")
    above = number[1:].isdigit() and int(number[1:]) > LAST_SCREW
    return _drill("number", number) if above else None


@phrase("dial-turns", "25 mm by a handle of 0.1 inch a turn")
def _by_handle(s: Said) -> Inputs | None:
    """A travel by a handle that moves so far a turn; a line is a thou, or 0.02 mm."""
    screw = s.hears("turns") and s.hears("screw", "pitch", "leadscrew")
    if not (s.has("handle", "handwheel", "dial") or screw):
        return None
    if s.hears("thread", "indicator"):
        return None
    if s.hears("to", "from"):  # to turn 25.4 from 26.1
        return None
    each = turn = s.of_each("turn")
    turn = turn or (s.near("screw", "pitch") if screw else s.near("turn"))
    if tpi := s.tpi():
        turn = f"1in/{tpi}"
    line = s.behind("line", "division", "graduation")
    lines = s.near("line", "division", "graduation", kinds=("number",))
    travel = s.near("travel") or s.size()
    if line and lines and not turn:  # 100 lines of .001
        (line, _) = s.alike(line, travel)
        turn = f"{lines}*({line})"
    if not each and turn and travel and s.mm(turn) > max(s.mm(travel), MOST_A_TURN):
        turn, travel = travel, turn  # handle 0.1 turn 37.5 mm
    if re.fullmatch(r"0?\.\d+", turn) and float(turn) < LEAST_A_TURN:
        turn = f"{turn}in"  # no handle moves so little
    turn, line = s.alike(turn, line)
    s.has("turn", "line", "division", "feed", "wind", "move", "screw", "pitch", "on")
    s.has("leadscrew", "for", "a")
    if not (travel and turn):
        return None
    line = line or ("0.001in" if s.in_inches(turn) else "0.02mm")
    doubled = s.has("diameter")
    given = {"travel": travel, "turn": turn, "division": line}
    return {**given, "dial": "diameter"} if doubled else given


@phrase("convert", "8 tpi in mm")
def _pitch(s: Said) -> Inputs | None:
    tpi = s.tpi()
    if not tpi or not s.has("mm", "millimetre", "pitch"):
        return None
    s.has("thread", "screw")
    return {"value": f"1in/{tpi}", "to": "mm"}


_ROUND, _ACROSS = ("circumference", "perimeter"), ("diameter", "radius")


@phrase("convert", "circumference of 50")
def _round_it(s: Said) -> Inputs | None:
    if not s.has(*_ROUND):
        return None
    if s.number_of("size", "number") != 1:
        return None
    turns = 2 * math.pi if s.has("radius") else math.pi
    said = [part.word if part.kind == "word" else "" for part in s.parts]
    order = [word for word in said if word in (*_ROUND, *_ACROSS, "")]
    size = s.size()
    # diameter from circumference 400, or 400 circumference, what diameter
    if len(order) == 3 and order[1] in _ROUND:
        s.has(*_ACROSS, "what", "from")
        return {"value": f"({size})/{turns:.10g}"}
    s.has("round", "diameter", "bar", "circle", "disc", "shaft")
    return {"value": f"{turns:.10g}*({size})"} if size else None


@phrase("convert", "diameter of radius 12.5")
def _twice(s: Said) -> Inputs | None:
    """A diameter by its radius or the other way round, or twice a size."""
    if s.number_of("size", "number") != 1:
        return None
    if s.has("double", "twice"):
        return {"value": f"2*({s.size()})"}
    if not (s.has("radius") and s.has("diameter")):
        return None
    # the figure is of the one that stands right beside it, and the other is asked
    beside = {
        word.word
        for pair in pairwise(s.parts)
        for figure, word in (pair, pair[::-1])
        if figure.kind in ("size", "number")
    }
    if len(beside & {"radius", "diameter"}) != 1:
        return None
    size = s.size()
    return {"value": f"2*({size})" if "radius" in beside else f"({size})/2"}


@phrase("convert", "half of 98.4 less 12")
def _half(s: Said) -> Inputs | None:
    # half of 86.4 plus a 10 cutter radius is no such sum
    halves = sum(part.word == "half" for part in s.parts)
    if s.hears("angle", "radius") or halves > 1 or not s.has("half"):
        return None
    first = s.size()
    less, more = s.has("less", "minus"), s.has("plus", "more")
    if not first:
        return None
    if not less and not more:
        return {"value": f"({first})/2"}
    second = s.size()
    return {"value": f"({first})/2{'-' if less else '+'}{second}"} if second else None
