"""Turned piece: any stepped round with a bore, a recess, a thread and a cross hole.

z = 0 is the left end. Steps stand side by side from there; one of no length is left
out. Bore, recess and thread are at the right end.
"""

from collections.abc import Iterable
from typing import Literal

from machinon.core.errors import BadInput
from machinon.core.piece.body import Body, Round
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    Size,
    Step,
    Values,
    at_least,
)
from machinon.core.piece.features import (
    Bevel,
    Bore,
    CrossHoles,
    Cylinder,
    End,
    Feature,
    Hole,
    Screw,
)
from machinon.core.reckoning import TEXT
from machinon.core.threads.screw_thread import thread_of

STEPS = ("step1", "step2", "step3", "step4", "step5")
OVER = 1.0  # mm: stock over the left end


class _Turned:
    """The steps that there are: name, where it starts and ends, diameter."""

    def __init__(self, s: Values) -> None:
        self.steps: list[tuple[str, float, float, float]] = []
        at = 0.0
        for name in STEPS:
            if long := float(s[f"{name}.length"]):
                wide = float(s[f"{name}.diameter"])
                self.steps.append((name, at, at + long, wide))
                at += long
        if not self.steps:
            raise BadInput("step1.length", "A piece needs a step that has a length.")
        self.length = at
        widths = [wide for *_, wide in self.steps]
        self.largest = max(widths)
        self.first, self.last = widths[0], widths[-1]
        self.middle = widths.index(self.largest)

    def turned(self, *, right: bool) -> list[Step]:
        """Steps as they are turned, from the largest outward, that with the right."""
        here = self.steps[self.middle :] if right else self.steps[: self.middle][::-1]
        return [
            Step("turn", (name,), title=f"Turn step {name[4:]} to ⌀{wide:g}")
            for name, _, _, wide in here
        ]

    def round_at(self, z: float) -> float:
        """Diameter at a station; 0 beyond the ends."""
        return next((wide for _, a, b, wide in self.steps if a <= z <= b), 0.0)

    def shoulder(self, at: int) -> Literal["left", "right", ""]:
        """The end at which a step has its larger neighbour."""
        wide = self.steps[at][3]
        left = at > 0 and self.steps[at - 1][3] > wide
        right = at + 1 < len(self.steps) and self.steps[at + 1][3] > wide
        return "left" if left else "right" if right else ""


def build(s: Values) -> Body:
    piece = _Turned(s)
    end = piece.length
    features: list[Feature] = [End("left_end", 0.0, "left")]
    for at, (name, start, stop, wide) in enumerate(piece.steps):
        side = piece.shoulder(at)
        features.append(Cylinder(name, start, stop, wide, shoulder=side))
    features.append(End("right_end", end, "right"))
    if s["bore.diameter"]:
        through = s["bore.depth"] >= end - 1e-6
        features.append(
            Bore("bore", 0.0 if through else end - s["bore.depth"], end,
                 s["bore.diameter"], opens="both" if through else "right",
                 pointed=not through)
        )  # fmt: skip
    if s["recess.diameter"]:
        deep = end - s["recess.depth"]
        features.append(Bore("recess", deep, end, s["recess.diameter"], opens="right"))
    if s["thread.thread"] != "none":
        start = end - s["thread.length"]
        features.append(Screw("thread", start, end, str(s["thread.thread"]), "left"))
    if s["hole.diameter"]:
        wide = piece.round_at(s["hole.from_end"])
        hole = Hole(s["hole.diameter"])
        features.append(CrossHoles("hole", s["hole.from_end"], wide, hole, wide))
    if s["edge.leg"]:
        leg = s["edge.leg"]
        features += [
            Bevel("left_edge", 0.0, piece.first, leg, "left"),
            Bevel("right_edge", end, piece.last, leg, "right"),
        ]
    return Body(
        Round(s["stock.diameter"], -OVER, s["stock.length"] - OVER), tuple(features)
    )


def checks(s: Values) -> Iterable[Check]:
    piece = _Turned(s)
    end = piece.length
    inside = [("bore", end - s["bore.depth"])] if s["bore.diameter"] else []
    if s["recess.diameter"]:
        inside.append(("recess", end - s["recess.depth"]))
    for name, start in inside:
        over = [step for step in piece.steps if step[2] > start + 1e-6]
        outside = min(wide for *_, wide in over)
        if s["thread.thread"] != "none":
            outside = min(outside, thread_of(str(s["thread.thread"])).minor_external)
        yield at_least(
            f"{name}-wall",
            name,
            (outside - s[f"{name}.diameter"]) / 2,
            1.0,
            f"Wall round the {name}",
        )
    if s["recess.diameter"] and s["bore.diameter"]:
        yield at_least(
            "recess-over-bore",
            "recess",
            s["recess.diameter"] - s["bore.diameter"],
            0.2,
            "Recess over the bore",
        )
    if s["thread.thread"] != "none":
        thread = thread_of(str(s["thread.thread"]))
        name, start, stop, wide = piece.steps[-1]
        yield at_least(
            "thread-crest",
            name,
            0.1 * thread.pitch - abs(wide - thread.major),
            0.0,
            f"Step under the thread within a tenth of a pitch of {thread.says}",
        )
        yield at_least(
            "thread-length",
            "thread",
            stop - start,
            s["thread.length"],
            "Step that the thread is on",
        )
    if s["hole.diameter"]:
        at, half = s["hole.from_end"], s["hole.diameter"] / 2
        inner = [min(at - half - a, b - at - half) for _, a, b, _ in piece.steps]
        yield at_least(
            "hole-on-a-step",
            "hole",
            max(inner),
            0.5,
            "Cross hole clear of the ends of its step",
        )
    slender = piece.length / min(wide for *_, wide in piece.steps)
    yield at_least(
        "held",
        "step1",
        6.0 - slender,
        0.0,
        "Free length under six of its thinnest diameter (else use the tailstock)",
        grave=False,
    )
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - end,
        2 * OVER,
        "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - piece.largest,
        0.0,
        "Stock over the largest step",
    )


def route(s: Values) -> tuple[Holding, ...]:
    piece = _Turned(s)
    right = [Step("face", ("right_end",))]
    right += piece.turned(right=True)
    if s["bore.diameter"]:
        right.append(Step("drill", ("bore",), leaves=0.25))
        right.append(Step("bore", ("bore",)))
    if s["recess.diameter"]:
        right.append(Step("bore", ("recess",)))
    if s["thread.thread"] != "none":
        right.append(Step("thread", ("thread",)))
    edges = bool(s["edge.leg"])
    right += [Step("bevel", ("right_edge",))] if edges else []
    left = [Step("face", ("left_end",), title="Face to length")]
    left += piece.turned(right=False)
    left += [Step("bevel", ("left_edge",))] if edges else []
    last = [Step("deburr", ())]
    if s["hole.diameter"]:
        last.insert(0, Step("drill", ("hole",)))
    return (
        Holding(
            "right",
            "lathe",
            "In the chuck, right end out",
            "What must run true together is cut in one chucking: bore, recess, thread "
            "and the steps of this end.",
            tuple(right),
        ),
        Holding(
            "left",
            "lathe",
            "Turned round, in soft jaws or a collet",
            "Set by the indicator on a finished step, then to length.",
            tuple(left),
        ),
        Holding(
            "last",
            "drill" if s["hole.diameter"] else "lathe",
            "In a vee block" if s["hole.diameter"] else "Off the machine",
            "Across last: a hole spoils a cut that runs over it.",
            tuple(last),
        ),
    )


def _steps() -> tuple[Size, ...]:
    usual = (("20", "30"), ("40", "12"), ("25", "20"), ("20", "0"), ("16", "0"))
    found = []
    for number, (name, (wide, long)) in enumerate(zip(STEPS, usual, strict=True), 1):
        found += [
            Size(f"{name}.length", f"length of step {number}", long,
                 "" if long != "0" else "0 leaves it out", 0, 1000),
            Size(f"{name}.diameter", f"step {number}", wide, "", 1, 500),
        ]  # fmt: skip
    return tuple(found)


LENGTH_OF_ALL = " + ".join(f"{name}.length" for name in STEPS)
WIDEST = f"max({', '.join(f'{name}.diameter' for name in STEPS)})"

FAMILY = Family(
    "turned-piece",
    "Turned piece",
    "Any stepped round: up to five steps, a bore, a recess, a thread, a cross hole.",
    "as a collar of 40 mm between ends of 20 and 25 mm",
    also="shaft stub bush stepped round bar pin stud boss hub arbor knob adapter",
    sizes=(
        Size("stock.diameter", "stock diameter", f"up({WIDEST} + 2, 1)", "a clean-up",
             2, 520),
        Size("stock.length", "stock length", f"up({LENGTH_OF_ALL} + 3, 1)",
             "both faces", 3, 1500),
        *_steps(),
        Size("bore.diameter", "bore", "0", "0 for none", 0, 400),
        Size("bore.depth", "depth of the bore", f"max({LENGTH_OF_ALL}, 1)", "through",
             1, 1500),
        Size("recess.diameter", "recess at the right end", "0", "0 for none", 0, 400),
        Size("recess.depth", "depth of the recess", "5", "", 0.5, 500),
        Size("thread.thread", "thread at the right end", "none", "", kind=TEXT),
        Size("thread.length", "length of the thread", "12", "", 2, 500),
        Size("hole.diameter", "cross hole", "0", "0 for none", 0, 100),
        Size("hole.from_end", "cross hole from the left end", "step1.length/2",
             "the middle of step 1", 0, 1500),
        Size("edge.leg", "chamfer of both ends", "0.5", "", 0, 20),
    ),
    build=build,
    route=route,
    checks=checks,
    full={
        "step4.length": "15",
        "step5.length": "16",
        "step5.diameter": "16",
        "bore.diameter": "6",
        "bore.depth": "40",
        "recess.diameter": "9",
        "thread.thread": "M16",
        "hole.diameter": "5",
    },
    surfaces={
        "shaft": "step1.diameter",
        "shaft-2": "step2.diameter",
        "shaft-3": "step3.diameter",
        "shaft-4": "step4.diameter",
        "shaft-5": "step5.diameter",
        "bore": "bore.diameter",
        "recess": "recess.diameter",
        "recess-depth": "recess.depth",
    },
)  # fmt: skip
