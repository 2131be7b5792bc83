"""A question as one would say it: understood, answered in a sentence, or offered."""

import difflib
import re
from collections.abc import Mapping
from typing import Any

from msgspec import Struct

from machinon.core.ask.hearing import heard
from machinon.core.ask.own_figures import OwnFigures
from machinon.core.ask.phrases import PHRASES, Phrase, examples
from machinon.core.ask.question import question_of
from machinon.core.ask.said import Said
from machinon.core.ask.sentences import sentence
from machinon.core.ask.spoken_sums import spoken_sum
from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import Answer, Input, Reckoning, reckon, reckonings
from machinon.core.shop.entry import length_said

MOST_FOUND = 12
MOST_LETTERS = 200
OFFERED = 3
SAID_WHOLE = 10  # to a sum that was called by its name and no more
UNUSED = 2  # words beside a question that may be left over, and are then named

# inputs that a sentence leaves to what is usual, where the shop does not know them
_USUAL = {
    "dividing": ("worm", "plates"),
    "polygon": ("sides",),
    "t-nut": ("play_least", "play_most"),
    "shrink-fit": ("assembly_clearance", "hub_material", "shaft_material"),
    "change-gears": ("leadscrew", "gears"),
    "thread-dial": ("leadscrew",),
    "thread-engagement": ("screw_strength", "nut_strength"),
    "gauge-stack": ("pieces",),
    "measured-size": ("instrument_uncertainty",),
    "fit-target": ("instrument_uncertainty", "want"),
    "pieces": ("kerf",),
    "taper-setup": (),
}
# words of the shop that no title has
_ALSO = {
    "centring": "center indicator four jaw dial moves clock",
    "cleans-up": "clean true casting bar raw scale eccentric chuck enough",
    "change-gears": "wheels train banjo lathe",
    "runout": "tir wobble eccentric",
    "runout-stack": "error budget chain clocking",
    "make-or-buy": "price cost worth hours cheaper bought",
    "head-tram": "tramming mill spindle square table nod tilt",
    "vise-tram": "vice tramming jaw parallel swivel",
    "steady-centre": "fixed steady rest fingers taper bar height",
    "packing": "shim level corners support rock table faceplate",
    "shortfall": "detent lever clock putty feeler taper pin engagement",
    "runout-apart": "collet seat tool spindle wobble which",
    "thread-identify": "which thread unknown gauge what",
    "dovetail": "gib slide pins",
    "bond-gap": "glue retaining compound",
    "taper-setup": "compound slide offset indicator",
    "boring-bar": "chatter deflection stickout",
    "mass": "weight",
    "hardness": "rockwell brinell vickers hrc hb hv tensile strength hard",
    "other-units": "convert celsius fahrenheit newton psi bar kw hp gallon",
    "metal": "hardness brinell density strength modulus expansion properties material",
    "bolts-carry": "drive dowel chuck plate slip shear friction screws hold",
    "polygon": "hexagon square flats corners",
    "sine": "angle block slip",
    "temper-colour": "harden hardening straw purple blue silver steel",
    "cam-nose": "camlock cam lock d1 short taper lathe chuck mount",
    "taper-end": "small large end diameter cone length long",
    "nut": "hex jam lock washer spanner wrench flats height thickness",
    "hole-tap": "tap bolt screw drilled stripped which fits",
    "lever": "handle spanner torque",
    "screw-torque": "bolt tighten nut force preload grade class",
    "ream-drill": "reamer reaming stock allowance hole leave",
    "turned-finish": "surface roughness ra nose radius feed insert",
    "pitch": "tpi starts multi wires coarse fine metric",
    "gauge-stack": "slip blocks shim parallels packing",
    "thermal-size": "heat temperature warm cold",
    "edge-find": "edge finder zero read-out",
    "eccentric-packing": "crank cam offset three jaw chuck shim",
    "table-feed": "feed per tooth flute chip load mill handle seconds",
    "dial-turns": "handle handwheel inch metric wind graduations",
    "centre-drill": "center mouth bar between centres",
    "gear": "wheel pinion module diametral pitch teeth spur cutter blank",
    "hole-row": "line spaced evenly equally spread pitch coordinates",
    "bolt-circle": "holes pcd pattern coordinates",
    "detent": "ball dimple index",
    "play": "loose tight clearance slop fit gap shake",
}


class Found(Struct, frozen=True):
    """A reckoning that fits what was said."""

    reckoning: Reckoning
    inputs: dict[str, Any]
    answer: Answer | None  # where the sentence is complete
    whose: tuple[str, ...] = ()  # what of the shop's own the inputs came from

    @property
    def wanted(self) -> list[Input]:
        """What else has to be said before it can be worked out."""
        return [
            asked
            for asked in self.reckoning.inputs
            if asked.required and asked.key not in self.inputs
        ]


class Understood(Struct, frozen=True):
    """The result of asking a question."""

    said: str
    understood: str = ""  # it in plain words
    found: Found | None = None
    sentence: str = ""  # the answer, or why there is none
    unused: tuple[str, ...] = ()  # words that were not understood
    offered: tuple[str, ...] = ()  # phrases like it, when lost
    left: tuple[str, ...] = ()  # figures that found no place in what was found

    @property
    def answer(self) -> Answer | None:
        """The answer to all that was said; one that passes a figure over is none."""
        return self.found.answer if self.found and not self.left else None


class _Candidate(Struct, frozen=True):
    """A question that could be meant, the likeliest first when sorted by `rank`."""

    rank: tuple[int, int, int]
    phrase: Phrase
    inputs: dict[str, Any]
    unused: tuple[str, ...]
    left: tuple[str, ...] = ()  # figures among them: the answer would pass them over


def understand(
    text: str, inch: bool = False, own: OwnFigures | None = None
) -> Understood:
    """Make a question of what was said, and answer it; never raises.

    own: the shop's machines and shelves, which the answer starts from.

    >>> understand("tap drill 5/16-18").sentence
    'Drill F, 6.53 mm: 77 % of the thread'
    """
    said = " ".join(text.split())
    if not said or len(said) > MOST_LETTERS:
        return Understood(said)
    refused: Understood | None = None
    question, mended = question_of(said)
    parts = heard(question, inch)
    for candidate in _sum(question, inch) or _candidates(parts):
        found, words, why = _asked(candidate, inch, own or OwnFigures())
        if mended:
            words = f"{words} (read as {', '.join(mended)})"
        if parts.unclear:
            return _unclear(said, words, parts.unclear, candidate.unused)
        left = candidate.left if found.answer is not None else ()
        if left:
            what = f"{' and '.join(left)} {'is' if len(left) == 1 else 'are'}"
            why = f"It is not clear what {what} for."
        elif found.answer is not None:
            return Understood(
                said, words, found, sentence(found.answer, inch), candidate.unused
            )
        if refused is None:
            refused = Understood(
                said,
                words,
                found,
                why,
                candidate.unused,
                _offered(said, found.reckoning.name),
                left,
            )
    return refused or Understood(said, unused=(said,), offered=_offered(said))


def _unclear(said: str, words: str, size: str, unused: tuple[str, ...]) -> Understood:
    """Asked back which unit was meant: one of them is 25 times as much."""
    number = size[:-2].strip()
    offered = tuple(said.replace(size, f"{number}{unit}") for unit in ("mm", "inch"))
    why = f"{number} inches, or {number} mm in it? Say {number}inch or {number}mm."
    return Understood(said, words, None, why, unused, offered)


def _sum(said: str, inch: bool) -> list[_Candidate]:
    """A sum of sizes, asked as a conversion is; empty for none."""
    written = spoken_sum(said, inch)
    phrase = next(phrase_ for phrase_ in PHRASES if phrase_.reckoner == "convert")
    return [_Candidate((0, 0, 0), phrase, {"value": written}, ())] if written else []


def _candidates(said: Said) -> list[_Candidate]:
    found = []
    for order, phrase in enumerate(PHRASES):
        trial = said.again()
        try:
            inputs = phrase.read(trial)
        except BadInput:  # of figures or a thread that cannot be nothing is asked
            continue
        if inputs is None:
            continue
        unused = tuple(trial.unused)
        # without a word that asks for it, every part must have been meant
        if len(unused) > (UNUSED if phrase.keyed else 0):
            continue
        rank = (len(unused), -trial.words_used, order)
        left = tuple(trial.figures_left)
        found.append(_Candidate(rank, phrase, inputs, unused, left))
    return sorted(found, key=lambda candidate: candidate.rank)


def _asked(
    candidate: _Candidate, inch: bool, own: OwnFigures
) -> tuple[Found, str, str]:
    """The question asked: what came of it, its words, and why it was refused."""
    reckoning = reckonings()[candidate.phrase.reckoner]
    mine = own.of(reckoning)
    usual = {key: reckoning.usual[key] for key in _USUAL.get(reckoning.name, ())}
    target = str(candidate.inputs.get("target", ""))
    if reckoning.name == "gauge-stack" and Said(inch=inch).in_inches(target):
        usual["pieces"] = reckoning.usual_inch["pieces"]
    inputs = {**usual, **mine.inputs, **candidate.inputs}
    assumed = [key for key in usual if key not in {**mine.inputs, **candidate.inputs}]
    words = _in_words(
        reckoning, candidate.inputs, {key: usual[key] for key in assumed}, inch
    )
    try:
        answer = reckon(reckoning.name, inputs, inch)
    except BadInput as error:
        found = Found(reckoning, inputs, None, mine.whose)
        wanted = [
            f"{asked.key.replace('_', ' ')} ({asked.meaning})" for asked in found.wanted
        ]
        why = f"Say this too: {', '.join(wanted)}." if wanted else error.message
        return found, words, why
    return Found(reckoning, inputs, answer, mine.whose), words, ""


def _in_words(
    reckoning: Reckoning,
    inputs: Mapping[str, Any],
    usual: Mapping[str, Any],
    inch: bool,
) -> str:
    """The question as it was understood, and what was taken as usual."""
    said = ", ".join(
        f"{key.replace('_', ' ')} {value}" for key, value in inputs.items()
    )
    text = f"{reckoning.title}: {said}"
    lengths = {asked.key for asked in reckoning.inputs if asked.kind is LENGTH}
    plain = [
        f"{key.replace('_', ' ')} "
        + (length_said(value, inch) if key in lengths else str(value))
        for key, value in usual.items()
        if not isinstance(value, list | tuple)
    ]
    return f"{text} (usual: {', '.join(plain)})" if plain else text


def _offered(said: str, understood: str = "") -> tuple[str, ...]:
    """The phrases that are nearest to what was said; first of all that of a sum."""
    known = examples()
    by_words = [
        known[reckoning.name]
        for reckoning in _by_words(said)
        if reckoning.name in known
    ]
    alike = difflib.get_close_matches(
        said.lower(), list(known.values()), n=OFFERED, cutoff=0.3
    )
    first = [known[understood]] if understood in known else []
    offered = dict.fromkeys([*first, *by_words, *alike, *known.values()])
    return tuple(offered)[:OFFERED]


def found_with(told: Understood) -> list[Found]:
    """The understood question, if there is one, then reckonings with similar words.

    >>> [f.reckoning.name for f in found_with(understand("tap drill 5/16-18"))][0]
    'tap-drill'
    """
    found = (
        [told.found] if told.found and (told.found.answer or told.found.wanted) else []
    )
    seen = {found.reckoning.name for found in found}
    for reckoning in _by_words(told.said[:MOST_LETTERS]):
        if reckoning.name not in seen:
            found.append(Found(reckoning, {}, None))
    return found[:MOST_FOUND]


def _by_words(said: str) -> list[Reckoning]:
    """Reckonings whose name, title or words contain what was typed, best match
    first."""
    words = [word for word in re.split(r"[^a-z0-9]+", said.lower()) if word]
    scored = []
    for reckoning in reckonings().values():
        meanings = " ".join(given.meaning for given in reckoning.inputs)
        also = _ALSO.get(reckoning.name, "")
        near = f"{reckoning.name} {reckoning.title} {also}".lower()
        far = f"{reckoning.group} {meanings}".lower()
        score = sum(
            3 * bool(re.search(rf"\b{re.escape(word)}", near))
            + bool(re.search(rf"\b{re.escape(word)}", far))
            for word in words
        )
        if words == reckoning.name.split("-"):
            score += SAID_WHOLE
        if score or not words:
            scored.append((-score, reckoning.group, reckoning.name, reckoning))
    return [reckoning for *_, reckoning in sorted(scored, key=lambda s: s[:3])]
