"""A reckoning being asked: what was typed, and the last good answer."""

from dataclasses import dataclass, field
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, ROUGH, length_text, typed_again
from machinon.core.reckoning import Answer, Input, Reckoning, plain_name


@dataclass(slots=True)
class Question:
    """A reckoning being asked: what was typed, and the last good answer."""

    reckoning: Reckoning
    given: dict[str, Any]  # inputs as the reckoning takes them
    typed: dict[str, str] = field(default_factory=dict)  # those a person typed
    answer: Answer | None = None
    values: dict[str, Any] = field(default_factory=dict)
    wrong: BadInput | None = None

    def work_out(self, inch: bool) -> None:
        """Answer it again; a refusal keeps the last good answer in the picture."""
        try:
            values = self.reckoning.read(self.given, inch)
            self.answer = self.reckoning.answer(self.given, inch)
        except BadInput as error:
            self.wrong = error
        else:
            self.values, self.wrong = values, None

    def put(self, key: str, text: str, inch: bool) -> None:
        """An input as typed; nothing typed leaves it out."""
        before = dict(self.given), dict(self.typed)
        self._leave_out(key)
        if text.strip():
            self.given[key] = self.typed[key] = text.strip()
            for other in self._instead(key):
                self._leave_out(other)
            self._ask_with(key, text.strip())
        self.work_out(inch)
        if self.wrong is not None and not text.strip():
            self.given, self.typed = before
            refused = self.wrong
            self.work_out(inch)
            self.wrong = refused

    def _leave_out(self, key: str) -> None:
        self.given.pop(key, None)
        self.typed.pop(key, None)

    def _instead(self, key: str) -> list[str]:
        """The inputs that one takes the place of."""
        group = next((some for some in self.reckoning.given if key in some.keys), None)
        if group is None:
            return []
        given = [other for other in group.keys if other != key and other in self.given]
        others = given[::-1]  # so that the first one stays, where none was typed
        # what was typed last stays, and what nobody typed goes first
        typed = list(self.typed)
        others.sort(key=lambda other: typed.index(other) if other in typed else -1)
        return others[: len(others) + 1 - group.count]

    def _ask_with(self, key: str, choice: str) -> None:
        """Asks the inputs of a choice, and not those of another one."""
        asks = next(one.asks for one in self.reckoning.inputs if one.key == key)
        mine = asks.get(choice, {})
        for asked in asks.values():
            for unasked in asked.keys() - mine.keys():
                self._leave_out(unasked)
        for asked_key, value in mine.items():
            self.given.setdefault(asked_key, value)


def as_typed(value: Any, given: Input, inch: bool) -> str:
    """An input's value as one would type it again."""
    if value is None:
        return ""
    if isinstance(value, str):
        return value
    if isinstance(value, dict):
        cells = ((name, part) for name, part in value.items() if part is not None)
        return " ".join(f"{plain_name(name)} {part}" for name, part in cells)
    if isinstance(value, list | tuple):
        return ", ".join(as_typed(part, given, inch) for part in value)
    if isinstance(value, bool):
        return "yes" if value else "no"
    if given.kind is LENGTH and inch:
        return length_text(float(value), 0.0001, False)
    said = given.kind.inch_unit or given.kind in ROUGH
    unit = given.kind.unit if inch and said else ""
    return f"{typed_again(float(value))}{unit}"
