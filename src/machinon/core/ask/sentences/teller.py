"""An answer's figures as words, and how a sentence is declared."""

from collections.abc import Callable
from typing import Any

from machinon.core.quantity import (
    ANGLE,
    TEMPERATURE,
    Kind,
    in_both_texts,
    length_text,
    text_of,
    trimmed,
    with_other,
)
from machinon.core.reckoning import Answer

HAIR = 1e-6  # mm, by which a half is rounded up


class Teller:
    """An answer's figures as words; inch: which unit stands first."""

    def __init__(self, answer: Answer, inch: bool) -> None:
        self.answer, self.inch = answer, inch

    def __getitem__(self, key: str) -> Any:
        return self.answer.results[key]

    def given(self, key: str) -> Any:
        return self.answer.inputs.get(key)

    def has(self, key: str) -> bool:
        return self.answer.results.get(key) not in (None, "")

    def size(self, key: str | float, step: float = 0.001) -> str:
        """A length with its unit, without noughts that say nothing."""
        value = float(self.answer.results[key] if isinstance(key, str) else key)
        text = length_text(value, step, self.inch)
        number, unit = text.rsplit(" ", 1)
        return f"{trimmed(number)} {unit}"

    def both(self, key: str | float, step: float = 0.001) -> str:
        """A length in both units, the shop's own first."""
        value = float(self.answer.results[key] if isinstance(key, str) else key)
        other = length_text(value, step, not self.inch)
        return f"{self.size(value, step)} ({other})"

    def rough(self, value: float, kind: Kind) -> str:
        """A force, mass and the like; an inch shop's pounds stand first."""
        said, other = in_both_texts(value, kind, self.inch)
        return f"{said} ({other})" if self.inch and other else said

    def heat(self, key: str | float) -> str:
        """A temperature in both units, the shop's own first."""
        value = float(self[key] if isinstance(key, str) else key)
        return with_other(value, TEMPERATURE, self.inch)

    def angle(self, key: str) -> str:
        return text_of(float(self[key]), ANGLE)


Telling = Callable[[Teller], str]


class Tellings(dict[str, Telling]):
    """The sentences of a subject, each declared where its function stands."""

    def __call__(self, *reckoners: str) -> Callable[[Telling], Telling]:
        def declare(tell: Telling) -> Telling:
            self.update(dict.fromkeys(reckoners, tell))
            return tell

        return declare


def drill_named(t: Teller, name: str, size: str) -> str:
    """A drill by its name, with its size where the name is none."""
    called = str(t[name])
    if called.endswith(("mm", "in")):
        return f"Drill {called}"
    told = length_text(float(t[size]) + HAIR, 0.01, t.inch)  # 3.175 is 3.18
    return f"Drill {called}, {told}"
