"""The answer in one sentence, as a machinist would say it across the shop."""

from machinon.core.ask.sentences import (
    cutting,
    fits,
    holes,
    measuring,
    metals,
    tapers,
    threads,
    units,
)
from machinon.core.ask.sentences.teller import Teller
from machinon.core.quantity import LENGTH, ROUGH, text_of
from machinon.core.reckoning import Answer, reckonings
from machinon.core.wording import begun

__all__ = ["TELLINGS", "sentence"]

TELLINGS = {
    **threads.tells,
    **fits.tells,
    **tapers.tells,
    **holes.tells,
    **measuring.tells,
    **cutting.tells,
    **metals.tells,
    **units.tells,
}


def sentence(answer: Answer, inch: bool = False) -> str:
    """The answer in one sentence; its first figures where none is kept for it."""
    telling = TELLINGS.get(answer.reckoner)
    if telling is not None:
        return telling(Teller(answer, inch))
    teller = Teller(answer, inch)
    parts = []
    for result in reckonings()[answer.reckoner].results:
        value = answer.results.get(result.key)
        if value in (None, "") or isinstance(value, bool | list | dict):
            continue
        if isinstance(value, str):
            parts.append(f"{result.words} {value}")
        elif result.kind is LENGTH:
            parts.append(f"{result.words} {teller.both(float(value))}")
        else:
            known, kind = float(value), result.kind
            rough = kind in ROUGH
            said = teller.rough(known, kind) if rough else text_of(known, kind, inch)
            parts.append(f"{result.words} {said}")
        if len(parts) == 2:
            break
    text = ", ".join(parts)
    return begun(text)
