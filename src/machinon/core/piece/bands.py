"""The band that a fit or a chain leaves the size it rules."""

from collections.abc import Mapping
from typing import Any

from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.piece.family import Chain, FitSlot, Values
from machinon.core.piece.shown import as_told
from machinon.core.reckoning import Answer, reckon
from machinon.core.setting_out.bolt_circle import circle_band
from machinon.core.sizes.fit import nothing_left
from machinon.core.sizes.reamers import Reamer, nearest_reamer, reamers_near
from machinon.core.threads.thread_limits import crest_limits
from machinon.core.wording import within

REAMED = "reamed"  # the fit whose hole is left as its tool leaves it
DOUBT = 0.004  # mm, two sigma: of a mate given as a bare size, as by micrometer


class FitBand(Struct, frozen=True):
    """A fit worked out: the sizes it lies between; None where no band is left."""

    slot: FitSlot | Chain
    want: str
    lower: float | None
    upper: float | None
    answer: Answer
    aim: float  # the middle of what was wanted, also where no band is left of it
    problem: str = ""  # why none is left; empty too where no limits are kept for it

    @property
    def wanted(self) -> tuple[float, float] | None:
        """The sizes that would do if the mate's own were known without a doubt, mm;
        None where they are no matter of play."""
        ends = ("clearance_min", "clearance_max")
        least, most = (self.answer.results.get(end) for end in ends)
        if least is None or most is None:
            return None
        half = (float(most) - float(least)) / 2
        return self.aim - half, self.aim + half

    def reamed(self, inch: bool) -> tuple[Reamer, bool] | None:
        """The reamer that is sold for such a hole, and whether it does; None where the
        size is no matter of play. inch: which is taken where both do."""
        if self.wanted is None:
            return None
        low, high = self.wanted
        size = (low + high) / 2
        for reamer in reamers_near(size, inch):
            if reamer.does(low, high):
                return reamer, True
        return nearest_reamer(size, inch), False

    def drawn(self, inch: bool) -> float:
        """The size to draw, mm: the middle of what was wanted, of that only what the
        reamer leaves where the hole is left to one. inch: as for `reamed`."""
        found = self.reamed(inch) if self.want == REAMED else None
        if found is None or self.lower is None or self.upper is None:
            return self.aim
        reamer, does = found
        if not does:
            return self.aim
        low, high = max(reamer.lower, self.lower), min(reamer.upper, self.upper)
        return (low + high) / 2 if low < high else self.aim


def fit_band(
    slot: FitSlot,
    want: str,
    values: Values,
    doubts: Mapping[str, float],
    fits: Mapping[str, FitBand],
) -> FitBand:
    """The band that a fit leaves the size it rules. Raises BadInput on the fit.

    fits: those of the sizes that it rests on.
    """
    try:
        if slot.joint == "thread":
            made = "internal" if slot.exists == "shaft" else "external"
            asked = {"thread": str(values[slot.mate])}
            if want:
                asked[f"{made}_class"] = want
            return thread_band(slot, want, reckon("thread", asked))
        doubt = doubts.get(slot.mate, DOUBT)
        if slot.joint == "bolts":
            centred = fits.get(slot.centred)
            play = centred.answer["clearance_max"] if centred else 0.0
            screws = {"circle_doubt": doubt, "fit": want, "play": max(play, 0.0)}
            screws |= {k: v for k, v in slot.tells(values).items() if k != "holes"}
            room = reckon("bolt-room", screws)
            return bolt_band(slot, want, float(values[slot.mate]), room)
        if slot.joint == "dovetail":
            return _dovetail(slot, want, values, doubt)
        return _target(slot, want, float(values[slot.mate]), doubt)
    except BadInput as error:
        raise BadInput(f"fit.{slot.key}", error.message) from None


def thread_band(slot: FitSlot, want: str, answer: Answer) -> FitBand:
    """The diameter before a thread that fits another is cut; answer: of `thread`."""
    inside = slot.exists == "shaft"
    limits = crest_limits(answer, "internal" if inside else "external")
    if limits is None:
        basic = float(answer["minor_internal" if inside else "major"])
        return FitBand(slot, want, None, None, answer, basic)
    return FitBand(slot, want, *limits, answer, sum(limits) / 2)


def bolt_band(slot: FitSlot, want: str, circle: float, room: Answer) -> FitBand:
    """The bolt circles on which every screw still goes in; circle, room: of the half
    that exists, mm and `bolt-room`."""
    problem = ""
    if room["room"] < room["need"]:
        problem = (
            f"{room['room']:.2f} mm room round a screw, {room['need']:.2f} mm wanted. "
            f"{room['mismatch'] or room['warning']}"
        )
    elif room["mismatch"]:
        problem = str(room["mismatch"])
    ends = circle_band(circle, room)
    if ends is None:
        return FitBand(slot, want, None, None, room, circle, problem)
    return FitBand(slot, want, *ends, room, circle, problem)


def _dovetail(slot: FitSlot, want: str, values: Values, doubt: float) -> FitBand:
    """The reading over or between the pins of a dovetail's other half."""
    bottom = float(values[slot.mate])
    play = _target(slot, want, bottom, 0.0).answer
    asked = {
        "bottom": bottom,
        "doubt": doubt,
        "play_least": play["clearance_min"],
        "play_most": play["clearance_max"],
        **slot.tells(values),
    }
    answer = reckon("dovetail-mate", asked)
    low, high = float(answer["read_lower"]), float(answer["read_upper"])
    if low >= high:
        says = within(nothing_left(asked["play_most"] - asked["play_least"], doubt))
        return FitBand(slot, want, None, None, answer, (low + high) / 2, says)
    return FitBand(slot, want, low, high, answer, (low + high) / 2)


def _target(slot: FitSlot, want: str, mate: float, doubt: float) -> FitBand:
    inputs: dict[str, Any] = {
        "existing": [mate],
        "instrument_uncertainty": doubt,
        "kind": slot.exists,
    }
    if " to " in want:
        ends = want.split(" to ", 1)
        for name, text in zip(("clearance_min", "clearance_max"), ends, strict=True):
            inputs[name] = quantity.parse(text, key=f"fit.{slot.key}")
    else:
        inputs["want"] = want
    return plain_band(slot, want, reckon("fit-target", inputs))


def plain_band(slot: FitSlot | Chain, want: str, answer: Answer) -> FitBand:
    """A band as `fit-target` leaves it."""
    aim = float(answer["aim"])
    if answer["band"] <= 0:
        warning = str(answer["warning"])
        says = within(warning)
        return FitBand(slot, want, None, None, answer, aim, says)
    ends = float(answer["lower"]), float(answer["upper"])
    return FitBand(slot, want, *ends, answer, aim)


def chain_band(chain: Chain, values: Values, doubts: Mapping[str, float]) -> FitBand:
    """The band that a chain of lengths leaves its missing link, as it is told.

    doubts: by link, of a mate as it was measured, and how far a link of the piece's own
    may be off by its drawing, mm.
    """
    whole = sum(sign * float(values[name]) for name, sign in chain.links)
    doubt = sum(doubts.get(name, DOUBT) for name, _ in chain.links)
    least, most = float(values[chain.least]), float(values[chain.most])
    if chain.over:
        least, most = -most, -least
    answer = reckon(
        "fit-target",
        {
            "existing": [whole],
            "instrument_uncertainty": doubt,
            "kind": "hole",
            "clearance_min": least,
            "clearance_max": most,
        },
    )
    band = plain_band(chain, chain.want, answer)
    if band.lower is None or band.upper is None:
        return band
    low, high = as_told(band.lower, band.upper)
    return replace(band, lower=low, upper=high) if low < high else band
