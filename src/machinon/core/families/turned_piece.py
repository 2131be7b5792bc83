"""Turned piece: any round, its features added one by one.

z = 0 is the left end. Steps and tapers stand side by side from there, in their order;
everything else lies on or in them.
"""

import math
import re
from collections.abc import Iterable
from typing import Literal

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families._tapers import large_end, socket_depth
from machinon.core.families._tapped import RUN_OUT, tap_drill, tapped, thread_checks
from machinon.core.piece.body import Body
from machinon.core.piece.family import (
    Check,
    Family,
    Holding,
    OfPart,
    Part,
    Size,
    Step,
    Values,
    at_least,
    grown,
    spoken,
)
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.hole_features import Circle, CrossHoles, Hole, Holes
from machinon.core.piece.stock import Round
from machinon.core.piece.turned_features import (
    Bevel,
    Bore,
    Centre,
    Cone,
    Cylinder,
    EdgeRound,
    End,
    FaceGroove,
    Flats,
    Groove,
    Keyway,
    Knurl,
    NutThread,
    Screw,
    Slits,
    TaperBore,
)
from machinon.core.quantity import COUNT
from machinon.core.reckoning import FLAG, TEXT
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import known_threads, thread_of
from machinon.core.wording import begun

PARTED = 8.0  # mm over the length from which a bar is parted off
OVER = 1.0  # mm: stock over the left end
UNDER = 0.5  # mm to a side that is left in an inside taper for its last cuts
AS_NAMED = 0.3  # mm: a socket's mouth that is further off is not that of its taper
LARGEST_TAP = 16.0  # mm: larger inside threads are cut on the lathe
DRILLED = 13.0  # mm: up to here a drilled hole needs no boring bar
ALONG = ("step", "taper")
EVEN = 0.1  # of a pitch by which a knurl may come out uneven
COARSE = re.compile(r"M\d+")  # a usual size, by its coarse pitch
SIDES: tuple[Side, Side] = ("right", "left")


def _kind(name: str) -> str:
    return name.rstrip("0123456789")


class _Axis:
    """What lies along the axis: name, where it starts and ends, its two diameters."""

    def __init__(self, s: Values) -> None:
        self.steps: list[tuple[str, float, float, float, float]] = []
        self.names: tuple[str, ...] = s["parts"]
        at = 0.0
        for name in self.names:
            if _kind(name) not in ALONG:
                continue
            long = float(s[f"{name}.length"])
            if not long:
                continue
            if _kind(name) == "step":
                a = b = float(s[f"{name}.diameter"])
            else:
                a, b = float(s[f"{name}.left"]), float(s[f"{name}.right"])
            self.steps.append((name, at, at + long, a, b))
            at += long
        if not self.steps:
            raise BadInput("step1.length", "A piece needs a step that has a length.")
        self.length = at
        widths = [max(a, b) for *_, a, b in self.steps]
        self.largest = max(widths)
        middle = widths.index(self.largest)
        # from the right is turned what comes from here on; the jaws have the rest
        self.middle = middle or min(1, len(widths) - 1)

    def of(self, kind: str) -> list[str]:
        """Its parts of a kind, in their order."""
        return [name for name in self.names if _kind(name) == kind]

    def end(self, side: Side) -> float:
        return self.length if side == "right" else 0.0

    def round_at(self, z: float) -> float:
        """Diameter at a station; 0 beyond the ends."""
        for _, start, stop, a, b in self.steps:
            if start - 1e-9 <= z <= stop + 1e-9:
                return a + (b - a) * (z - start) / (stop - start)
        return 0.0

    def outside(self, start: float, stop: float) -> float:
        """The least diameter between two stations."""
        inner = [z for _, a, b, *_ in self.steps for z in (a, b) if start < z < stop]
        ends = (start + 1e-6, stop - 1e-6)
        near = [z + off for z in inner for off in (-1e-6, 1e-6)]
        return min(self.round_at(z) for z in (*ends, *near))

    def side_of(self, z: float) -> Side:
        """The end from which a station is cut: beyond the largest step or before it."""
        return "right" if z >= self.steps[self.middle][1] - 1e-9 else "left"

    def shoulder(self, at: int) -> Literal["left", "right", ""]:
        """The end at which a step has its larger neighbour."""
        _, _, _, a, b = self.steps[at]
        left = at > 0 and self.steps[at - 1][4] > a
        right = at + 1 < len(self.steps) and self.steps[at + 1][3] > b
        return "left" if left else "right" if right else ""

    def inside(self, s: Values, name: str) -> tuple[Side, float, float, bool]:
        """A bore or inside thread: its end, where it starts and ends, if it goes
        through."""
        side: Side = s[f"{name}.end"]
        deep = float(s[f"{name}.depth"])
        through = not deep or deep >= self.length - 1e-6
        if through:
            return side, 0.0, self.length, True
        if side == "right":
            return side, self.length - deep, self.length, False
        return side, 0.0, deep, False


def _bore_for(thread: str) -> float:
    """The bore before an inside thread: its drill, or the basic minor diameter."""
    one = thread_of(thread)
    return tap_drill(thread) if one.major <= LARGEST_TAP else one.minor_internal


def _keyed_bore(s: Values, axis: _Axis, name: str) -> tuple[float, float, float]:
    """Where a keyway inside starts and ends, and the bore that it is in: the narrowest
    that goes through. Raises BadInput on `width` where none does."""
    through = [
        float(s[f"{bore}.diameter"])
        for bore in axis.of("bore")
        if axis.inside(s, bore)[3]
    ]
    if not through:
        raise BadInput(
            f"{name}.width",
            f"width of {spoken(name)}: it is pushed through a bore, and none goes "
            "through; add one.",
        )
    return 0.0, axis.length, min(through)


def _socket(s: Values, axis: _Axis, name: str) -> TaperBore:
    """An inside taper, its mouth in the end that it is cut from."""
    taper = taper_of(str(s[f"{name}.taper"]), f"{name}.taper")
    mouth, deep = float(s[f"{name}.mouth"]), float(s[f"{name}.depth"])
    small = mouth - taper.ratio * deep
    if small <= 0:
        raise BadInput(
            f"{name}.depth",
            f"depth of {spoken(name)}: it ends in a point at "
            f"{mouth / taper.ratio:.1f} mm.",
        )
    if s[f"{name}.end"] == "right":
        start, end = axis.length - deep, axis.length
        return TaperBore(name, start, end, small, mouth, taper.name)
    return TaperBore(name, 0.0, deep, mouth, small, taper.name)


def _hole(s: Values, name: str, depth: float | None = None) -> Hole:
    thread = str(s[f"{name}.thread"])
    if thread == "none":
        return Hole(float(s[f"{name}.diameter"]), depth)
    return tapped(thread, depth)


def _feature(s: Values, axis: _Axis, name: str) -> Feature:
    """One of the features that lie on or in the steps."""

    def size(measure: str) -> float:
        return float(s[f"{name}.{measure}"])

    match _kind(name):
        case "bore":
            side, start, stop, through = axis.inside(s, name)
            flat = s[f"{name}.floor"] == "flat"
            return Bore(
                name,
                start,
                stop,
                size("diameter"),
                opens="both" if through else side,
                pointed=not through and not flat,
            )
        case "nut":
            side, start, stop, through = axis.inside(s, name)
            thread = str(s[f"{name}.thread"])
            nut = NutThread(name, start, stop, thread, _bore_for(thread))
            if through or nut.of.major > LARGEST_TAP:
                return nut
            room = RUN_OUT * nut.of.pitch
            if side == "right":
                return replace(nut, before=min(room, start))
            return replace(nut, beyond=min(room, axis.length - stop))
        case "thread":
            side, long = s[f"{name}.end"], size("length")
            ends = (axis.length - long, axis.length) if side == "right" else (0.0, long)
            runs: Side = "left" if side == "right" else "right"
            return Screw(name, *ends, str(s[f"{name}.thread"]), runs)
        case "groove" | "undercut":
            at = size("from_end")
            inside = _kind(name) == "undercut"
            return Groove(name, at, at + size("width"), size("diameter"), inside)
        case "socket":
            return _socket(s, axis, name)
        case "trepan":
            side = s[f"{name}.end"]
            return FaceGroove(
                name,
                axis.end(side),
                side,
                size("inner"),
                size("outer"),
                size("depth"),
            )
        case "centre":
            side = s[f"{name}.end"]
            return Centre(name, axis.end(side), side, size("mouth"))
        case "edge":
            side = s[f"{name}.end"]
            z = axis.end(side)
            return Bevel(name, z, axis.round_at(z), size("leg"), side)
        case "round":
            side = s[f"{name}.end"]
            z = axis.end(side)
            return EdgeRound(name, z, axis.round_at(z), size("radius"), side)
        case "bore_keyway":
            start, stop, wide = _keyed_bore(s, axis, name)
            sizes = size("width"), size("depth")
            return Keyway(name, start, stop, wide, *sizes, inside=True)
        case "slit":
            side, long = s[f"{name}.end"], size("length")
            start = 0.0 if side == "left" else axis.length - long
            stop = start + long
            met = [
                max(a, b) for _, z0, z1, a, b in axis.steps if z0 < stop and start < z1
            ]
            width, count = size("width"), int(s[f"{name}.count"])
            return Slits(name, start, stop, max(met), width, count)
        case "knurl":
            at, crossed = size("from_end"), bool(s[f"{name}.crossed"])
            wide = axis.round_at(at + size("length") / 2)
            return Knurl(name, at, at + size("length"), wide, size("pitch"), crossed)
        case "cross":
            z, count = size("from_end"), int(s[f"{name}.count"])
            wide = axis.round_at(z)
            deep = wide if count == 1 else wide / 2
            return CrossHoles(name, z, wide, _hole(s, name), deep, count)
        case "ring":
            side, deep = s[f"{name}.end"], size("depth")
            hole = _hole(s, name, deep or None)
            circle = Circle(int(s[f"{name}.count"]), size("circle"))
            return Holes(name, side, circle, hole, axis.length, level=axis.end(side))
        case "flat":
            at = size("from_end")
            count = int(s[f"{name}.count"])
            return Flats(name, at, at + size("length"), size("across"), count)
    at = size("from_end")
    wide = axis.round_at(at + size("length") / 2)
    return Keyway(name, at, at + size("length"), wide, size("width"), size("depth"))


def build(s: Values) -> Body:
    axis = _Axis(s)
    features: list[Feature] = [End("left_end", 0.0, "left")]
    for at, (name, start, stop, a, b) in enumerate(axis.steps):
        if _kind(name) == "step":
            side = axis.shoulder(at)
            features.append(Cylinder(name, start, stop, a, shoulder=side))
        else:
            features.append(Cone(name, start, stop, a, b))
    features.append(End("right_end", axis.length, "right"))
    features += [_feature(s, axis, n) for n in axis.names if _kind(n) not in ALONG]
    end = axis.length + OVER  # what is longer is for the jaws, and parted off
    return Body(
        Round(s["stock.diameter"], end - s["stock.length"], end), tuple(features)
    )


def _wall(s: Values, axis: _Axis, start: float, stop: float) -> float:
    """The least diameter outside of a bore, threads and grooves counted."""
    found = [axis.outside(start, stop)]
    for name in (*axis.of("thread"), *axis.of("groove")):
        one = _feature(s, axis, name)
        if isinstance(one, Screw) and one.start < stop and start < one.end:
            found.append(one.of.minor_external)
        if isinstance(one, Groove) and one.start < stop and start < one.end:
            found.append(one.diameter)
    return min(found)


def _inside_checks(s: Values, axis: _Axis) -> Iterable[Check]:
    for name in (*axis.of("bore"), *axis.of("nut"), *axis.of("undercut")):
        if _kind(name) == "undercut":
            start = s[f"{name}.from_end"]
            stop = start + s[f"{name}.width"]
        else:
            _, start, stop, _ = axis.inside(s, name)
            one = _feature(s, axis, name)
            if isinstance(one, NutThread):
                start, stop = one.drilled
        threaded = _kind(name) == "nut"
        wide = (
            thread_of(str(s[f"{name}.thread"])).major
            if threaded
            else float(s[f"{name}.diameter"])
        )
        yield at_least(
            f"{name}-wall",
            name,
            (_wall(s, axis, start, stop) - wide) / 2,
            1.0,
            f"Wall round {spoken(name)}",
        )


def _socket_checks(s: Values, axis: _Axis) -> Iterable[Check]:
    for name in axis.of("socket"):
        one = _socket(s, axis, name)
        yield at_least(
            f"{name}-wall",
            name,
            min(
                (axis.round_at(z) - wide) / 2
                for z, wide in (
                    (one.start, one.start_diameter),
                    (one.end, one.end_diameter),
                )
            ),
            2.0,
            f"Wall round {spoken(name)}",
        )
        small = min(one.start_diameter, one.end_diameter)
        inner = one.start if s[f"{name}.end"] == "right" else one.end
        bores = [_feature(s, axis, bore) for bore in axis.of("bore")]
        through = [
            bore.diameter
            for bore in bores
            if isinstance(bore, Bore) and bore.start - 1e-6 <= inner <= bore.end + 1e-6
        ]
        yield at_least(
            f"{name}-begins",
            name,
            max(through, default=0.0),
            min(3.0, small),
            f"Bore down to the bottom of {spoken(name)}, which its tool begins in",
        )
        yield at_least(
            f"{name}-bears",
            name,
            small - max(through, default=0.0),
            0.2,
            f"Small end of {spoken(name)} over the bore behind it",
        )
        named = taper_of(one.taper).large
        if named is not None:
            yield Check(
                f"{name}-mouth",
                name,
                abs(one.large - named) <= AS_NAMED,
                f"{one.taper} is {named:.3f} mm wide at its mouth, {spoken(name)} "
                f"{one.large:.3f} mm: a shank stands out of a narrow one and goes too "
                "deep into a wide one.",
                grave=False,
            )


def _run_out_checks(s: Values, axis: _Axis) -> Iterable[Check]:
    """Whether the tool of an inside thread that ends at a floor has room there."""
    for name in axis.of("nut"):
        one = _feature(s, axis, name)
        side, start, stop, through = axis.inside(s, name)
        assert isinstance(one, NutThread)
        if through or one.of.major <= LARGEST_TAP:
            continue  # a tap's room is drilled
        floor = start if side == "right" else stop
        room = 0.0
        for other in (*axis.of("undercut"), *axis.of("bore")):
            open_ = _feature(s, axis, other)
            if isinstance(open_, Groove) and open_.diameter >= one.of.major:
                if open_.start - 1e-6 <= floor <= open_.end + 1e-6:
                    room = max(room, open_.end - open_.start)
            elif isinstance(open_, Bore) and open_.diameter >= one.bore:
                beyond = floor - open_.start if side == "right" else open_.end - floor
                room = max(room, beyond)
        yield at_least(
            f"{name}-runs-out",
            name,
            room,
            2 * one.of.pitch,
            f"Room at the floor of {spoken(name)} for the tool to run out: a groove in "
            "the bore, or a bore beyond it",
            grave=False,
        )


def _outside_checks(s: Values, axis: _Axis) -> Iterable[Check]:
    for name in axis.of("thread"):
        one = _feature(s, axis, name)
        assert isinstance(one, Screw)
        at = axis.steps[-1 if s[f"{name}.end"] == "right" else 0]
        yield at_least(
            f"{name}-crest",
            name,
            0.1 * one.of.pitch - abs(max(at[3:]) - one.of.major),
            0.0,
            f"Step under {spoken(name)} within a tenth of a pitch of {one.of.says}",
        )
        yield at_least(
            f"{name}-length",
            name,
            at[2] - at[1],
            one.end - one.start,
            f"Step that {spoken(name)} is on",
        )
    for name in axis.of("groove"):
        at, wide = s[f"{name}.from_end"], s[f"{name}.width"]
        yield at_least(
            f"{name}-deep",
            name,
            axis.outside(at, at + wide) - s[f"{name}.diameter"],
            0.1,
            f"Step over the floor of {spoken(name)}",
        )
    for name in axis.of("cross"):
        at, half = s[f"{name}.from_end"], _hole(s, name).diameter / 2
        inner = [min(at - half - a, b - at - half) for _, a, b, *_ in axis.steps]
        yield at_least(
            f"{name}-on-a-step",
            name,
            max(inner),
            0.5,
            f"Holes of {spoken(name)} clear of the ends of their step",
        )
    for name in axis.of("ring"):
        side: Side = s[f"{name}.end"]
        hole = _hole(s, name, float(s[f"{name}.depth"]) or None)
        circle = float(s[f"{name}.circle"])
        yield from thread_checks(name, hole, str(s["material"]))
        inside = [
            float(s[f"{bore}.diameter"])
            for bore in axis.of("bore")
            if s[f"{bore}.end"] == side
        ]
        outer = axis.round_at(axis.end(side)) - circle
        between = circle - max(inside) if inside else circle
        yield at_least(
            f"{name}-edges",
            name,
            (min(outer, between) - hole.diameter) / 2,
            1.0,
            f"Metal between the holes of {spoken(name)} and the edges of their face",
        )


def _rolled_checks(s: Values, axis: _Axis) -> Iterable[Check]:
    for name in axis.of("round"):
        at = axis.steps[-1 if s[f"{name}.end"] == "right" else 0]
        yield at_least(
            f"{name}-room",
            name,
            min(at[2] - at[1], min(at[3:]) / 2),
            s[f"{name}.radius"],
            f"Step under the radius of {spoken(name)}",
        )
        side = s[f"{name}.end"]
        broken = [one for one in axis.of("edge") if s[f"{one}.end"] == side]
        if broken:
            yield Check(
                f"{name}-alone",
                name,
                False,
                f"{begun(spoken(name))} and {spoken(broken[0])} are of one edge: take "
                "one of them out.",
                grave=False,
            )
    for name in axis.of("bore_keyway"):
        one = _feature(s, axis, name)
        assert isinstance(one, Keyway)
        reach = one.diameter / 2 + one.depth
        yield at_least(
            f"{name}-wall",
            name,
            axis.outside(one.start, one.end) / 2 - reach,
            max(1.5, one.width / 3),
            f"Wall outside of {spoken(name)} (a third of its width)",
        )
        yield at_least(
            f"{name}-narrow",
            name,
            one.diameter / 2.5,
            one.width,
            f"Bore for the width of {spoken(name)} (two fifths of it)",
        )
    for name in axis.of("slit"):
        yield at_least(
            f"{name}-holds",
            name,
            axis.length - s[f"{name}.length"],
            2.0,
            f"Solid left behind {spoken(name)}",
        )
    for name in axis.of("knurl"):
        start, long = s[f"{name}.from_end"], s[f"{name}.length"]
        under = [one for one in axis.steps if one[1] - 1e-6 <= start < one[2] - 1e-6]
        room = under[0][2] - start if under and under[0][3] == under[0][4] else 0.0
        yield at_least(
            f"{name}-on-a-step", name, room, long, f"Step that {spoken(name)} is on"
        )
        pitch = s[f"{name}.pitch"]
        wide = axis.round_at(start + long / 2)
        count = max(round(math.pi * wide / pitch), 1)
        even = count * pitch / math.pi
        yield Check(
            f"{name}-even",
            name,
            abs(wide - even) <= EVEN * pitch,
            f"{count} teeth of {spoken(name)} come out even on ⌀{even:.2f}, its step "
            f"is ⌀{wide:.2f}: off by much, the wheels cut twice.",
            grave=False,
        )


def checks(s: Values) -> Iterable[Check]:
    axis = _Axis(s)
    yield from _rolled_checks(s, axis)
    yield from _inside_checks(s, axis)
    yield from _socket_checks(s, axis)
    yield from _run_out_checks(s, axis)
    yield from _outside_checks(s, axis)
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - axis.length,
        2 * OVER,
        "Stock over the length to face both ends",
    )
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - axis.largest,
        0.0,
        "Stock over the largest step",
    )


def _bored(s: Values, name: str) -> list[Step]:
    """A bore drilled, and bored where a drill does not finish it."""
    wide, flat = s[f"{name}.diameter"], s[f"{name}.floor"] == "flat"
    if wide <= DRILLED and not flat:
        return [Step("drill", (name,))]
    return [Step("drill", (name,), leaves=0.25), Step("bore", (name,))]


def _is_tapped(s: Values, name: str) -> bool:
    return thread_of(str(s[f"{name}.thread"])).major <= LARGEST_TAP


def _threaded(s: Values, name: str) -> list[Step]:
    """An inside thread tapped, or bored for it where no tap is that large."""
    if _is_tapped(s, name):
        return [
            Step("drill", (name,)),
            Step("tap", (name,), note="Started in the tailstock: it stands straight."),
        ]
    return [
        Step("drill", (name,), leaves=0.5),
        Step("bore", (name,)),
    ]


def _from(s: Values, axis: _Axis, side: Side) -> list[Step]:
    """Everything that is cut from one end, in its order."""
    right = side == "right"
    steps = [Step("face", ("right_end",))]
    if not right:
        steps = [Step("face", ("left_end",), title="Face to length")]

    def here(kind: str) -> list[str]:
        if kind in ("groove", "undercut", "knurl"):
            return [
                n for n in axis.of(kind) if axis.side_of(s[f"{n}.from_end"]) == side
            ]
        return [n for n in axis.of(kind) if s[f"{n}.end"] == side]

    steps += [Step("centre", (name,)) for name in here("centre")]
    # the narrow ones first: a drill follows the hole that is there
    narrow = sorted(here("bore"), key=lambda name: float(s[f"{name}.diameter"]))
    if right:
        along = axis.steps[axis.middle :]
    else:
        along = axis.steps[: axis.middle][::-1]
    for name, start, stop, a, b in along:
        if _kind(name) == "step":
            title = f"Turn step {name[4:]} to ⌀{a:g}"
            steps.append(Step("turn", (name,), title=title))
        else:
            title = f"Turn taper {name[5:]}, ⌀{a:g} to ⌀{b:g} over {stop - start:g}"
            steps.append(Step("taper", (name,), title=title))
    steps += [
        Step(
            "knurl",
            (name,),
            note="In at once by half its depth, plenty of oil, then along; slow.",
        )
        for name in here("knurl")
    ]
    for name in narrow:
        steps += _bored(s, name)
    for name in here("socket"):
        half = taper_of(str(s[f"{name}.taper"])).half_angle
        steps += [
            Step("taper", (name,), leaves=UNDER, key=f"rough-{name}",
                 title=f"Bore {spoken(name)} under size, compound at {half:.4f}°"),
            Step("taper", (name,), title=f"Finish {spoken(name)} to its blue",
                 note="Contact all along, a little stronger at the mouth."),
        ]  # fmt: skip
    for name in here("nut"):
        steps += _threaded(s, name)
    for kind in ("undercut", "groove", "trepan"):
        steps += [Step("groove", (name,)) for name in here(kind)]
    # a thread is cut last: its tool runs out in a groove
    large = [n for n in here("nut") if not _is_tapped(s, n)]
    steps += [Step("thread", (name,)) for name in (*large, *here("thread"))]
    steps += [Step("bevel", (name,)) for name in here("edge")]
    steps += [
        Step(
            "bevel",
            (name,),
            title=f"Round the {side} edge, R{s[f'{name}.radius']:g}",
            tool="radius tool, or file and gauge",
        )
        for name in here("round")
    ]
    return steps


def _last(s: Values, axis: _Axis) -> list[Step]:
    """What does not turn."""
    steps = []
    for name in (*axis.of("ring"), *axis.of("cross")):
        steps.append(Step("drill", (name,)))
        if s[f"{name}.thread"] != "none":
            steps.append(Step("tap", (name,), note="In the set-up of the drill."))
    steps += [Step("mill", (name,)) for name in axis.of("flat")]
    steps += [Step("keyway", (name,)) for name in axis.of("keyway")]
    steps += [Step("saw", (name,)) for name in axis.of("slit")]
    return [*steps, Step("deburr", ())]


def _keyed(s: Values, axis: _Axis) -> tuple[Holding, ...]:
    """The keyways that go through a bore; none where there are none."""
    steps = tuple(
        Step(
            "keyway",
            (name,),
            title=f"Broach or slot {spoken(name)}, {s[f'{name}.width']:g} wide",
            tool="broach and bush",
            caution="Stand clear of the press; oil the broach, keep it upright.",
        )
        for name in axis.of("bore_keyway")
    )
    if not steps:
        return ()
    return (
        Holding(
            "keyed",
            "bench",
            "Under the press, on a guide bush, or in the lathe with a slotting tool",
            "The keyway follows the bore: measure to the far wall of it.",
            steps,
        ),
    )


def route(s: Values) -> tuple[Holding, ...]:
    axis = _Axis(s)
    last = _last(s, axis)
    milled = len(last) > 1
    right = _from(s, axis, "right")
    if s["stock.length"] - axis.length >= PARTED:
        right.append(Step("part", ("left_end",), leaves=OVER))
    return (
        Holding(
            "right",
            "lathe",
            "In the chuck, right end out",
            "What must run true together is cut in one chucking: bores, threads and "
            "the steps of this end.",
            tuple(right),
            "jaws",
        ),
        Holding(
            "left",
            "lathe",
            "Turned round, in soft jaws or a collet",
            "Set by the indicator on a finished step, then to length.",
            tuple(_from(s, axis, "left")),
            "jaws",
        ),
        *_keyed(s, axis),
        Holding(
            "last",
            "mill" if milled else "lathe",
            "In a vee block or a dividing head" if milled else "Off the machine",
            "What does not turn comes last: a hole spoils a cut that runs over it.",
            tuple(last),
        ),
    )


def _at_its_end(name: str, s: Values) -> float:
    """The diameter at the end that a part is cut from."""
    axis = _Axis(s)
    return axis.round_at(axis.end(s[f"{name}.end"]))


def _circle(name: str, s: Values) -> float:
    return 0.7 * _at_its_end(name, s)


def _coarse(name: str, s: Values) -> str:
    """The largest coarse metric thread that its step can carry."""
    wide = _at_its_end(name, s) + 1e-6
    sizes = [one for one in known_threads().values() if COARSE.fullmatch(one.name)]
    least = min(sizes, key=lambda one: one.major)
    fits = [one for one in sizes if one.major <= wide]
    return max(fits, key=lambda one: one.major, default=least).name


def _mouth(name: str, s: Values) -> float:
    return large_end(str(s[f"{name}.taper"]), f"{name}.taper")


def _long(name: str, s: Values) -> float:
    return socket_depth(str(s[f"{name}.taper"]), f"{name}.taper")


def _end(usual: str = "right") -> Size:
    return Size("end", "end that {} is cut from", usual, "", kind=TEXT, choices=SIDES)


def _thread(usual: str) -> Size:
    return Size("thread", "thread of {}", usual, "", kind=TEXT)


PARTS = (
    Part("step", "A step", (
        Size("length", "length of {}", "20", "", 0, 1000),
        Size("diameter", "{}", "10 + 10*{n}", "", 1, 500),
    ), along=("diameter",), surfaces=(("shaft", "diameter"),)),
    Part("taper", "A taper", (
        Size("length", "length of {}", "25", "", 0.5, 1000),
        Size("left", "{} at its left", "20", "", 1, 500),
        Size("right", "{} at its right", "16", "", 1, 500),
    ), along=("left", "right")),
    Part("bore", "A bore", (
        _end(),
        Size("diameter", "{}", "8", "", 1, 400),
        Size("depth", "depth of {}", "0", "0 goes through", 0, 1500),
        Size("floor", "floor of {}", "drilled", "", kind=TEXT,
             choices=("drilled", "flat")),
    ), surfaces=(("bore", "diameter"), ("recess", "diameter"),
                 ("recess-depth", "depth"))),
    Part("socket", "A taper inside", (
        _end(),
        Size("taper", "taper of {}", "MT2", "", kind=TEXT),
        Size("mouth", "mouth of {}", OfPart(_mouth), "as its standard has it", 2, 200,
             step=0.001, rests=("{}.taper",)),
        Size("depth", "depth of {}", OfPart(_long), "past its gauge", 2, 400,
             step=0.5, rests=("{}.taper",)),
    )),
    Part("thread", "A thread outside", (
        _end(),
        Size("thread", "thread of {}", OfPart(_coarse), "what its step carries",
             kind=TEXT, rests=("{}.end", "{along}")),
        Size("length", "length of {}", "12", "", 2, 500),
    )),
    Part("nut", "A thread inside", (
        _end(), _thread("M8"), Size("depth", "depth of {}", "16", "0 goes through",
                                    0, 500),
    )),
    Part("groove", "A groove outside", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("width", "width of {}", "3", "", 0.3, 200),
        Size("diameter", "floor of {}", "{widest} - 4", "two deep", 0.5, 500),
    )),
    Part("undercut", "A groove in a bore", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("width", "width of {}", "2", "", 0.3, 200),
        Size("diameter", "floor of {}", "12", "", 1, 400),
    )),
    Part("trepan", "A groove in a face", (
        _end(),
        Size("inner", "{} inside", "12", "", 1, 480),
        Size("outer", "{} outside", "16", "", 1.5, 490),
        Size("depth", "depth of {}", "3", "", 0.2, 200),
    )),
    Part("cross", "Holes from the side", (
        Size("from_end", "{} from the left end", "{all}/2", "the middle", 0, 1500),
        Size("diameter", "hole of {}", "5", "", 0.5, 100),
        Size("count", "how many holes {} has", "1", "", 1, 24, COUNT),
        _thread("none"),
    )),
    Part("ring", "Holes in a face, on a circle", (
        _end(),
        Size("count", "how many holes {} has", "4", "", 1, 60, COUNT),
        Size("circle", "circle of {}", OfPart(_circle), "well inside", 2, 480,
             step=0.5, rests=("{}.end", "{along}")),
        Size("diameter", "hole of {}", "5", "", 0.5, 100),
        Size("depth", "depth of {}", "12", "0 goes through", 0, 1000),
        _thread("none"),
    )),
    Part("flat", "Flats", (
        Size("from_end", "{} from the left end", "0", "the end", 0, 1500),
        Size("length", "length of {}", "10", "", 0.5, 1000),
        Size("across", "across {}", "17", "", 1, 490),
        Size("count", "how many flats {} has", "2", "", 1, 12, COUNT),
    )),
    Part("keyway", "A keyway", (
        Size("from_end", "{} from the left end", "5", "", 0, 1500),
        Size("length", "length of {}", "15", "", 1, 1000),
        Size("width", "width of {}", "5", "", 0.5, 100),
        Size("depth", "depth of {}", "3", "from the round", 0.2, 60),
    )),
    Part("bore_keyway", "A keyway through the bore", (
        Size("width", "width of {}", "3", "", 1, 100),
        Size("depth", "depth of {}", "1.4", "from the round", 0.2, 60),
    )),
    Part("centre", "A centre hole", (
        _end("right|left"), Size("mouth", "mouth of {}", "5", "", 0.5, 60),
    )),
    Part("edge", "A chamfer", (
        _end("right|left"), Size("leg", "{}", "0.5", "", 0.05, 50),
    )),
    Part("round", "A rounded edge", (
        _end("right|left"), Size("radius", "radius of {}", "2", "", 0.1, 100),
    )),
    Part("slit", "Saw slits from an end", (
        _end(),
        Size("count", "how many slits {} has", "2", "", 1, 12, COUNT),
        Size("width", "width of {}", "1.5", "a slitting saw", 0.3, 10),
        Size("length", "length of {}", "{all}/3", "", 1, 1000, step=0.5),
    )),
    Part("knurl", "A knurl", (
        Size("from_end", "{} from the left end", "1", "", 0, 1500),
        Size("length", "length of {}", "15", "", 1, 500),
        Size("pitch", "pitch of {}", "1", "as the wheels have", 0.3, 3),
        Size("crossed", "{} crossed", "yes", kind=FLAG),
    )),
)  # fmt: skip

FAMILY = grown(
    Family(
        "turned-piece",
        "Turned piece",
        "Any round: steps, tapers, bores, threads, grooves, holes, added one by one.",
        "as a stub of two steps with broken edges",
        also="shaft stub bush stepped round bar pin stud boss hub arbor knob adapter "
        "collar free",
        sizes=(
            Size("stock.diameter", "stock diameter", "up({widest} + 2, 1)",
                 "a clean-up", 2, 520),
            Size("stock.length", "stock length", "up({all} + 3, 1)", "both faces", 3,
                 1500),
        ),
        parts=PARTS,
        build=build,
        route=route,
        checks=checks,
        full={
            "parts": "step taper step bore bore nut thread groove undercut trepan edge",
            "step1.length": "30",
            "step1.diameter": "24",
            "taper1.left": "24",
            "taper1.right": "30",
            "step2.length": "40",
            "step2.diameter": "30",
            "bore1.diameter": "6",
            "bore2.end": "left",
            "bore2.diameter": "11",
            "bore2.depth": "20",
            "bore2.floor": "flat",
            "nut1.thread": "M10",
            "thread1.thread": "M30",
            "groove1.from_end": "62",
            "groove1.diameter": "26",
            "undercut1.from_end": "12",
            "undercut1.diameter": "14",
            "trepan1.inner": "16",
            "trepan1.outer": "20",
            "trepan1.end": "left",
            "edge1.leg": "1",
        },
        ways=(
            {
                "parts": "step step bore knurl round edge slit bore_keyway",
                "bore1.diameter": "6",
                "bore_keyway1.width": "2",
                "bore_keyway1.depth": "1",
                "step1.length": "22",
                "step1.diameter": "24.83",
                "step2.length": "12",
                "step2.diameter": "14",
                "edge1.end": "left",
                "knurl1.crossed": "no",
            },
            {
                "parts": "step taper bore socket",
                "step1.length": "20",
                "step1.diameter": "40",
                "taper1.left": "31.6",
                "taper1.right": "26.5",
                "taper1.length": "98",
                "bore1.diameter": "13",
                "socket1.end": "left",
            },
            {
                "parts": "step step step cross ring flat keyway centre edge edge",
                "step1.diameter": "24",
                "step1.length": "40",
                "step2.diameter": "60",
                "step3.diameter": "30",
                "cross1.from_end": "50",
                "ring1.circle": "20",
                "ring1.diameter": "4",
                "flat1.length": "8",
                "flat1.across": "22",
                "keyway1.from_end": "16",
                "keyway1.width": "3",
                "keyway1.depth": "1.5",
            },
        ),
    ),
    ("step1", "step2", "edge1", "edge2"),
)  # fmt: skip
