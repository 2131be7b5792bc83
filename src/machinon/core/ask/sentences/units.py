"""Sentences of figures in other units and of the dial."""

import math

from machinon.core.ask.sentences.teller import Teller, Tellings
from machinon.core.quantity import INCH, plain, small_text, trimmed
from machinon.core.setting_out.other_units import figure_text

NOISE = 1e-11  # of a figure that is rounded
SHORT = 0.0005  # mm: a slide that is no further off is there

tells = Tellings()


@tells("dial-turns")
def _turns(t: Teller) -> str:
    turns, lines = int(t["turns"]), int(t["lines"])
    said = f"{turns} turn{'s' * (turns != 1)} and {lines} line{'s' * (lines != 1)}"
    short = float(t["short"])
    said += f": the dial stands at {t.both('reads')}"
    if abs(short) < SHORT:
        return said
    side = "short of it" if short > 0 else "past it"
    return f"{said}, {small_text(abs(short), t.inch)} {side}"


def _is_inch_decimal(value: float) -> bool:
    """Whether a bare decimal looks like a 64th of an inch: 0.3125."""
    return (
        0 < value < 1
        and abs(value * 64 - round(value * 64)) < 1e-6
        and abs(value * 10 - round(value * 10)) > 1e-6
    )


def _trim(value: float, places: int) -> str:
    # 3/64 is 0.04688, 37/64 0.57813: no noise tips it, and a half is rounded up
    return trimmed(plain(round(value, 9) + math.copysign(NOISE, value), places))


@tells("convert")
def _convert(t: Teller) -> str:
    value = float(t["mm"])
    wanted = t.given("to")
    mm, inch = f"{_trim(value, 4)} mm", f"{_trim(float(t['inch']), 5)} in"
    drill = ""
    if t.has("drill"):
        error = float(t["drill_error"])
        drill = f"drill {t['drill']}"
        drill += "" if abs(error) < 0.0005 else f", {small_text(error, t.inch, True)}"
    fraction = ""
    if abs(float(t["fraction_error"])) < 0.005 < value:
        fraction = f"{t['fraction']} in"
    if wanted == "drill":
        if not drill:
            return f"No drill is near {mm}"
        exact = abs(float(t["drill_error"])) < 0.0005
        size = inch if t.inch else mm
        return f"{size} is {'' if exact else 'nearest to '}{drill}"
    if wanted == "um":
        return f"{inch} is {_trim(float(t['um']), 2)} µm"
    if wanted == "thou":
        return f"{mm} is {_trim(float(t['thou']), 2)} thou"
    if wanted == "inch":
        told = abs(float(t["fraction_error"])) < 0.0005 and t.inch
        return f"{t['fraction']} in is {inch}" if told else f"{mm} is {inch}"
    if wanted == "fraction":
        error = float(t["fraction_error"])
        if abs(error) < 0.0005:
            return f"{inch} is {t['fraction']} in"
        off = small_text(error, t.inch, True)
        return f"{mm} is nearest to {t['fraction']} in, {off}"
    first, second = (inch, mm) if t.inch else (mm, inch)
    if wanted == "mm":
        first, second = inch, mm
    more = "".join(f"; {words}" for words in (fraction, drill) if words)
    if not t.inch and _is_inch_decimal(value):
        more += f"; {_trim(value, 6)} in would be {_trim(value * INCH, 3)} mm"
    return f"{first} is {second}{more}"


@tells("other-units")
def _other_units(t: Teller) -> str:
    measure = str(t["measure"])
    said = (
        f"{t.given('value')} is {figure_text(float(t['figure']), measure)} {t['unit']}"
    )
    return said if t.given("to") else "; ".join([said, *t["others"][:2]])
