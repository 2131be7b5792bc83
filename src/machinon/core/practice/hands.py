"""A whole job at the practice lathe: someone cuts to a band, and what came of it."""

import random
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from msgspec import Struct

from machinon.core.cutting.coaching import advice_for
from machinon.core.practice.lathe import WORN, PracticeLathe, habits

BANDS = (0.010, 0.016, 0.025, 0.040)  # mm on the diameter
STOCK = (0.3, 6.0)  # mm on the diameter that are to come off
MOST = 60  # stops after which a hand gives up


class Outcome(Struct, frozen=True):
    """The result of a job."""

    inside: bool
    past: bool
    stops: int  # cuts and readings
    band: float  # mm
    # the chance of the band that was told at the end, where it was
    said: float | None = None
    # by how many of its sigma each cut that was measured came out other than was told
    off: tuple[float, ...] = ()


@dataclass(slots=True)
class PracticeBench:
    """A lathe with its work, and the state as a coach is told it."""

    lathe: PracticeLathe
    state: dict[str, Any]
    stops: int = 0
    off: list[float] = field(default_factory=list)

    @property
    def outside(self) -> bool:
        return self.lathe.kind == "external"

    @property
    def division(self) -> float:
        """Division of the dial, radial mm."""
        dial = self.state["dial"]
        return float(dial["division"]) / (2 if dial["reads"] == "diameter" else 1)

    def cut(self, dial: float) -> None:
        self.lathe.cut_to(dial)
        self.stops += 1
        self.state["history"].append({"dial": dial, "measured": None, "spring": 0})

    def spring(self) -> None:
        self.lathe.spring()
        self.stops += 1
        dial = self.state["history"][-1]["dial"]
        self.state["history"].append({"dial": dial, "measured": None, "spring": 1})

    def read(self) -> float:
        size = self.lathe.read()
        self.stops += 1
        history = self.state["history"]
        if history and history[-1]["measured"] is None:
            history[-1]["measured"] = size
        else:
            dial = history[-1]["dial"] if history else 0.0
            history.append({"dial": dial, "measured": size, "spring": 0})
        return size

    def ended(self, said: float | None = None) -> Outcome:
        feature = self.state["feature"]
        low, high, true = feature["lower"], feature["upper"], self.lathe.true
        past = true < low if self.outside else true > high
        inside = low <= true <= high
        return Outcome(inside, past, self.stops, high - low, said, tuple(self.off))


Hand = Callable[[PracticeBench], Outcome]
Ask = Callable[[dict[str, Any]], dict[str, Any]]  # the coach, as it is asked


def bench(
    seed: int, zero: bool = False, slide: tuple[float, float] = WORN
) -> PracticeBench:
    """A job drawn at chance; the same seed is the same job. zero: the gauge was
    checked on a ring; slide: the least and the most of its scatter from setting to
    setting, one sigma, radial mm."""
    chance = random.Random(seed)
    outside = chance.random() < 0.5
    band, reads = chance.choice(BANDS), chance.choice((0.001, 0.0015, 0.002))
    low = round(chance.uniform(20, 80), 3)
    own = habits(chance, reads, low, bar=not outside, slide=slide)
    near, sign = (low + band, 1) if outside else (low, -1)
    start = near + sign * chance.uniform(*STOCK)
    kind = "external" if outside else "internal"
    lathe = PracticeLathe(kind, start, own, chance)  # type: ignore[arg-type]
    diameter = chance.random() < 0.5
    division = chance.choice((0.01, 0.02) if diameter else (0.0025, 0.005, 0.01))
    while division * (1 if diameter else 2) > 0.8 * band:
        division /= 2
    gauge: dict[str, Any] = {"resolution": 0.001, "sigma": reads}
    if zero:
        offset = own.zero + chance.gauss(0, reads / 4)
        gauge["zero"] = {"offset": offset, "sigma": reads / 4}
    state: dict[str, Any] = {
        "feature": {"kind": kind, "lower": low, "upper": low + band},
        "dial": {"reads": "diameter" if diameter else "radius", "division": division},
        "limits": {"deepest": 0.5, "least": 0.01},
        "instrument": gauge,
        "school": {"spring_pass": chance.choice(("never", "free"))},
        "start_diameter": lathe.read(),
        "history": [],
    }
    if not outside:
        out = 4.0 if own.compliance < 1 / 9 else 6.5
        state["bar"] = {"diameter": 16, "overhang": 16 * out}
    return PracticeBench(lathe, state)


def by_the_coach(at: PracticeBench, ask: Ask = advice_for) -> Outcome:
    """A hand that does what the coach says."""
    for _ in range(MOST):
        advice = ask(at.state)
        action = advice["action"]
        if action in ("stop", "scrapped"):
            return at.ended(advice["chance_in_band"] if action == "stop" else None)
        if action in ("cut", "trial"):
            at.cut(advice["dial"])
        elif action == "spring":
            at.spring()
        if action in ("trial", "spring"):
            at.off.append((at.lathe.true - advice["predicted"]) / advice["sigma"])
        if action != "cut":
            at.read()
    return at.ended()


def by_the_remainder(at: PracticeBench) -> Outcome:
    """A hasty hand: it dials what is left, until nothing is."""
    return _by_shares(at, (1.0,))


def by_care(at: PracticeBench) -> Outcome:
    """A careful hand: half of what is left, half again, then the rest: like cuts leave
    nearly the same behind."""
    return _by_shares(at, (0.5, 0.5, 1.0))


def _by_shares(at: PracticeBench, shares: tuple[float, ...]) -> Outcome:
    feature = at.state["feature"]
    aim = (feature["lower"] + feature["upper"]) / 2
    size, dial = at.state["start_diameter"], 0.0
    sign = 1 if at.outside else -1
    for turn in range(MOST // 2):
        left = sign * (size - aim) / 2
        if at.stops and left < (feature["upper"] - feature["lower"]) / 4:
            break  # in the band, or past it
        going = min(shares[min(turn, len(shares) - 1)] * left, 0.5)
        dial += max(int(going / at.division + 1e-6), 1) * at.division
        at.cut(dial)
        size = at.read()
    return at.ended()
