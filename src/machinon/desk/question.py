"""A reckoning being asked: what was typed, and the last good answer."""

from dataclasses import dataclass, field
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH, length_text, typed_again
from machinon.core.reckoning import Answer, Input, Reckoning, plain_name

# inputs of which one is given: the one typed last counts
ONE_OF: dict[str, tuple[tuple[str, ...], ...]] = {
    "centre-drill": (("bar", "mouth"),),
    "chamfer": (("leg", "face", "depth"),),
    "change-gears": (("pitch", "tpi"),),
    "countersink": (("diameter", "depth"),),
    "detent": (("land_diameter", "depth", "drill_angle"),),
    "dividing": (("divisions", "angle"),),
    "dovetail": (("measured", "width_top", "width_bottom"),),
    "flat": (("width", "depth", "across"),),
    "gear": (("module", "dp"),),
    "hardness": (("rockwell_c", "rockwell_b", "brinell", "vickers", "strength"),),
    "hole-row": (("pitch", "length"),),
    "knurl": (("pitch", "tpi"),),
    "table-feed": (("feed", "travel"),),
    "temper-colour": (("heat", "colour"),),
    "thread-dial": (("thread", "pitch"),),
    "thread-identify": (("measured_major", "measured_minor"), ("pitch", "tpi")),
    "turned-finish": (("feed", "roughness"),),
}
# of which two are given: the last two typed count
TWO_OF = {
    "arc": ("radius", "chord", "height", "angle"),
    "taper-end": ("large", "small", "length"),
    "triangle": ("side", "rise", "slope", "angle"),
}
# what a choice asks instead of what another one asked, to begin with; mm
ASKS: dict[tuple[str, str], dict[str, dict[str, float]]] = {
    ("mass", "shape"): {
        "bar": {"diameter": 50.0},
        "tube": {"outside_diameter": 50.0, "bore": 30.0},
        "hexagon": {"across_flats": 24.0},
        "block": {"width": 50.0, "height": 30.0},
    },
    ("taper-setup", "method"): {
        "compound": {},
        "indicator": {},
        "sine": {},
        "tailstock": {"length_between_centres": 200.0},
    },
}


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
        name = self.reckoning.name
        for group in ONE_OF.get(name, ()):
            if key in group:
                return [other for other in group if other != key]
        group = TWO_OF.get(name, ())
        others = [other for other in group if other != key and other in self.given]
        if key not in group or len(others) < 2:
            return []
        typed = [other for other in self.typed if other in others]
        kept = typed[-1] if typed else others[0]
        return [other for other in others if other != kept]

    def _ask_with(self, key: str, choice: str) -> None:
        """Asks the inputs of a choice, and not those of another one."""
        choices = ASKS.get((self.reckoning.name, key), {})
        if choice not in choices:
            return
        for asked in choices.values():
            for unasked in asked.keys() - choices[choice].keys():
                self._leave_out(unasked)
        for asked_key, value in choices[choice].items():
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
    unit = given.kind.unit if inch and given.kind.inch_unit else ""
    return f"{typed_again(float(value))}{unit}"
