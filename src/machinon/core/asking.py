"""Finding a reckoning by what one would say, and answering it where that is all."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.own_figures import OwnFigures
from machinon.core.quantity import LENGTH, length_text, text_of
from machinon.core.reckoning import Answer, Reckoning, reckon, reckonings

MOST_FOUND = 12

# sentences that are complete: named groups are inputs of the reckoning
_SIZE = r"[\d./\s]*[\d.]\s*(?:mm|in|\"|thou)?"
_THREAD = (
    r"m\s*\d[\d.]*(?:\s*[x×]\s*[\d.]+)?|tr\s*\d[\d.]*\s*x\s*[\d.]+|\d+\s*ba"
    r"|g\s*\d[\d/ ]*"
    r"|#?\d[\d/. ]*-\s*\d[\d.]*(?:\s*(?:unc|unf|unef|uns|un|w))?|\d[\d/ ]*\s*bs[wf]"
)
_TAPER = r"mt\s*\d|morse\s*\d|b&s\s*\d+|jt\s*\d+|er\s*\d+|r8|5c|7/24|1\s*:\s*[\d.]+"
_SAID: tuple[tuple[str, str], ...] = (
    (
        "tap-drill",
        rf"(?:tap(?:ping)?\s+)?drill(?:\s+for)?\s+(?P<thread>{_THREAD})(?:\s+tap)?",
    ),
    ("tap-drill", rf"(?P<thread>{_THREAD})\s+tap(?:ping)?(?:\s+drill)?"),
    (
        "clearance-hole",
        rf"clear(?:ance)?(?:\s+hole)?(?:\s+for)?\s+(?P<thread>{_THREAD})",
    ),
    ("clearance-hole", rf"(?P<thread>{_THREAD})\s+clear(?:ance)?(?:\s+hole)?"),
    (
        "cap-screw",
        rf"(?:cap\s*screw|screw\s+head|counterbore|head)\s+(?P<thread>{_THREAD})",
    ),
    ("thread-wires", rf"(?:three\s+)?wires?\s+(?:for\s+)?(?P<thread>{_THREAD})"),
    ("thread-wires", rf"(?P<thread>{_THREAD})\s+(?:over\s+)?wires?"),
    ("thread-passes", rf"(?P<thread>{_THREAD})\s+passes"),
    ("thread", rf"(?:thread\s+)?(?P<thread>{_THREAD})"),
    (
        "iso-fit",
        rf"(?P<nominal>{_SIZE})\s+(?P<fit>[A-Za-z]{{1,2}}\d{{1,2}}/[a-z]{{1,2}}\d{{1,2}})",
    ),
    ("inch-fit", rf"(?P<nominal>{_SIZE})\s+(?P<fit>(?:rc|lc|lt|ln|fn)\s*\d+)"),
    ("iso-limits", rf"(?P<nominal>{_SIZE})\s+(?P<zone>[A-Za-z]{{1,2}}\d{{1,2}})"),
    ("taper", rf"(?P<name>{_TAPER})(?:\s+(?:taper|angle|seat))?"),
    ("bolt-circle", rf"(?P<holes>\d+)\s+holes\s+on\s+(?P<diameter>{_SIZE})"),
    ("polygon", rf"hex(?:agon)?\s+(?P<across_flats>{_SIZE})"),
    ("keyway", rf"key(?:way)?\s+(?P<shaft_diameter>{_SIZE})"),
    ("square-hole", rf"square\s+hole\s+(?P<size>{_SIZE})"),
    ("sine", rf"sine\s+(?P<angle>[\d.]+(?:deg|°)?)\s+(?:on\s+)?(?P<length>{_SIZE})"),
    ("dividing", r"divide\s+(?:by\s+)?(?P<divisions>\d+)"),
    ("change-gears", r"gears\s+(?:for\s+)?(?P<tpi>[\d.]+)\s*tpi"),
    ("change-gears", rf"gears\s+(?:for\s+)?(?P<pitch>{_SIZE})"),
    ("chamfer", rf"chamfer\s+(?P<leg>{_SIZE})"),
    ("speeds", rf"speeds?\s+(?P<material>[a-z ]+?)\s+(?P<diameter>{_SIZE})"),
    ("taper-pin", rf"(?:taper\s+)?pin\s+(?P<pin>#?\d+)\s+(?P<length>{_SIZE})"),
)
# inputs that a sentence leaves to what is usual: the head's worm, the wheels
_LEFT_OUT = {
    "dividing": ("worm", "plates"),
    "polygon": ("sides",),
    "change-gears": ("leadscrew", "gears"),
}
# words of the shop that no title has
_ALSO = {
    "centring": "center indicator four jaw dial moves clock",
    "change-gears": "wheels train banjo lathe",
    "runout": "tir wobble eccentric",
    "runout-stack": "error budget chain clocking",
    "thread-identify": "which thread unknown gauge what",
    "dovetail": "gib slide pins",
    "bond-gap": "glue retaining compound",
    "taper-setup": "compound slide offset indicator",
    "boring-bar": "chatter deflection stickout",
    "mass": "weight",
    "polygon": "hexagon square flats corners",
    "sine": "angle block slip",
    "lever": "handle spanner torque",
    "gauge-stack": "slip blocks shim parallels packing",
    "thermal-size": "heat temperature warm cold",
    "edge-find": "edge finder zero read-out",
    "bolt-circle": "holes pcd pattern coordinates",
    "detent": "ball dimple index",
}


@dataclass(frozen=True, slots=True)
class Found:
    """A reckoning that fits what was said; answer: where the sentence is complete.

    whose: what of the shop's own the inputs came from.
    """

    reckoning: Reckoning
    inputs: dict[str, Any]
    answer: Answer | None
    whose: tuple[str, ...] = ()


def ask(text: str, inch: bool = False, own: OwnFigures | None = None) -> list[Found]:
    """Reckonings that fit what was typed, the best first; never raises.

    own: the shop's machines and shelves, which a sentence starts from.

    >>> [f.reckoning.name for f in ask("tap drill 5/16-18")][0]
    'tap-drill'
    """
    said = " ".join(text.split())
    found = list(_complete(said, inch, own or OwnFigures()))
    seen = {one.reckoning.name for one in found}
    for one in _by_words(said):
        if one.name not in seen:
            found.append(Found(one, {}, None))
    return found[:MOST_FOUND]


def _complete(said: str, inch: bool, own: OwnFigures) -> Iterator[Found]:
    seen = set()
    for name, pattern in _SAID:
        match = re.fullmatch(pattern, said, re.IGNORECASE)
        if match is None or name in seen:
            continue
        one = reckonings()[name]
        inputs = {key: value.strip() for key, value in match.groupdict().items()}
        mine = own.of(one)
        usual = {key: one.usual[key] for key in _LEFT_OUT.get(name, ())}
        inputs = {**usual, **mine.inputs, **inputs}
        try:
            answer = reckon(name, inputs, inch)
        except BadInput:
            continue
        seen.add(name)
        yield Found(one, inputs, answer, mine.whose)


def _by_words(said: str) -> list[Reckoning]:
    """Those whose name, title or words hold what was typed, most of it first."""
    words = [word for word in re.split(r"[^a-z0-9]+", said.lower()) if word]
    scored = []
    for one in reckonings().values():
        meanings = " ".join(given.meaning for given in one.inputs)
        near = f"{one.name} {one.title} {_ALSO.get(one.name, '')}".lower()
        far = f"{one.group} {meanings}".lower()
        score = sum(
            3 * bool(re.search(rf"\b{re.escape(word)}", near))
            + bool(re.search(rf"\b{re.escape(word)}", far))
            for word in words
        )
        if score or not words:
            scored.append((-score, one.group, one.name, one))
    return [one for *_, one in sorted(scored, key=lambda s: s[:3])]


def headline(answer: Answer, inch: bool = False) -> str:
    """The answer in a line: its first figures, in both unit systems."""
    kinds = {one.key: one.kind for one in reckonings()[answer.reckoner].results}
    parts = []
    for key, value in answer.results.items():
        kind, name = kinds[key], key.replace("_", " ")
        if isinstance(value, bool) or value in ("", None):
            continue
        if isinstance(value, str):
            parts.append(f"{name} {value}")
        elif isinstance(value, int | float):
            if kind is LENGTH:
                said = (
                    f"{length_text(value, 0.001, inch)} "
                    f"({length_text(value, 0.001, not inch)})"
                )
            else:
                said = text_of(float(value), kind)
            parts.append(f"{name} {said}")
        if len(parts) == 3:
            break
    return "   ".join(parts)
