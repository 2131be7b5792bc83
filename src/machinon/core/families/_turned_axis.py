"""The features of a free turned piece: its steps, and the features on or in them."""

import math
from collections.abc import Iterator
from typing import Literal

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families._tapped import run_out, tap_drill, tapped
from machinon.core.piece.family import Values, kind_of, spoken
from machinon.core.piece.feature import Feature, Side
from machinon.core.piece.hole_features import CrossHoles, Hole, HoleCircle, Holes
from machinon.core.piece.milled_features import Flats, Keyway, Slits
from machinon.core.piece.turned_features import (
    Ball,
    Bevel,
    Bore,
    Centre,
    EdgeRound,
    FaceGroove,
    Groove,
    Knurl,
    NutThread,
    Screw,
    TaperBore,
)
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.wording import begun

OVER = 1.0  # mm: stock over the left end
HELD = frozenset(("step", "bar"))  # what jaws hold
LEAST_BALL = 1.0  # mm along the axis
LARGEST_TAP = 16.0  # mm: larger inside threads are cut on the lathe
LEAST_BORED = 10.0  # mm: bore that a threading bar goes into
WORN_CREST = 0.3  # pitches that a bore may be over its thread's own and still leave it
AT_MOUTH = 0.1  # mm about an end within which its bores are looked for
ALONG = ("step", "taper", "ball", "bar")
# the sides of a bar by what it is called; 0 for a round one
SIDES_OF = {"round": 0, "square": 4, "hexagon": 6, "octagon": 8}


def necks(s: Values, name: str) -> tuple[float, float]:
    """The diameters of what stands at the left and right of a ball; 0 for an end of
    the piece. Raises BadInput on its diameter for a ball at a ball."""
    along = [name for name in s["parts"] if kind_of(name) in ALONG]
    place = along.index(name)

    def neck(beside: int, near: str) -> float:
        if not 0 <= beside < len(along):
            return 0.0
        other = along[beside]
        if kind_of(other) == "ball":
            raise BadInput(
                f"{name}.diameter",
                f"{begun(spoken(name))} stands at {spoken(other)}: put a step between "
                "them.",
            )
        if kind_of(other) == "bar":
            return over_bar(s, other)
        measure = "diameter" if kind_of(other) == "step" else near
        return float(s[f"{other}.{measure}"])

    return neck(place - 1, "right"), neck(place + 1, "left")


def ball_of(s: Values, name: str, at: float = 0.0) -> Ball:
    """A ball that begins at a station: half round to its tip at an end of the piece,
    half a ball before what is no thinner. Raises BadInput on its diameter where nothing
    of it is left."""
    wide, long = float(s[f"{name}.diameter"]), float(s.get(f"{name}.length", 0.0))
    left, right = necks(s, name)
    ball = Ball(name, at, at + long, wide, min(left, wide), min(right, wide))
    if sum(ball.sides) < LEAST_BALL:
        raise BadInput(
            f"{name}.diameter",
            f"{begun(spoken(name))} is lost between what stands at it: make it wider "
            f"than ⌀{min(left, right):g}.",
        )
    return ball


def over_bar(s: Values, name: str) -> float:
    """Diameter of a stretch of the bar itself, over its corners where it has sides."""
    across, sides = float(s[f"{name}.across"]), SIDES_OF[s["stock.shape"]]
    return across / math.cos(math.pi / sides) if sides else across


def named_taper(s: Values, name: str) -> str:
    """The name of the taper that a part is turned to; empty for one by its two ends.
    Raises BadInput on `taper` for a name that is none."""
    said = str(s[f"{name}.taper"])
    return "" if said == "none" else taper_of(said, f"{name}.taper").name


class Axis:
    """The features along the axis: name, start and end, both diameters."""

    def __init__(self, s: Values) -> None:
        self.steps: list[tuple[str, float, float, float, float]] = []
        self.balls: dict[str, Ball] = {}
        self.names: tuple[str, ...] = s["parts"]
        self.sides = SIDES_OF[s["stock.shape"]]  # of the bar; 0 for a round one
        at = 0.0
        for name in self.names:
            if kind_of(name) not in ALONG:
                continue
            long = float(s[f"{name}.length"])
            if not long:
                continue
            if kind_of(name) == "step":
                a = b = float(s[f"{name}.diameter"])
            elif kind_of(name) == "ball":
                ball = self.balls[name] = ball_of(s, name, at)
                a, b = ball.at(at), ball.at(at + long)
            elif kind_of(name) == "bar":
                a = b = over_bar(s, name)
            else:
                a, b = float(s[f"{name}.left"]), float(s[f"{name}.right"])
            self.steps.append((name, at, at + long, a, b))
            at += long
        if not self.steps:
            raise BadInput("step1.length", "A piece needs a step that has a length.")
        self.length = at
        # the widest that each is
        self.widths = [
            self.balls[name].diameter if self._is_ball(n) else max(a, b)
            for n, (name, _, _, a, b) in enumerate(self.steps)
        ]
        self.largest = max(self.widths)
        middle = self.widths.index(self.largest)
        # from the right is turned what comes from here on; the jaws have the rest
        self.middle = middle or min(1, len(self.widths) - 1)
        kinds = [kind_of(name) for name, *_ in self.steps]
        before, after = kinds[: self.middle], kinds[self.middle :]
        self.held = bool(HELD.intersection(kinds))
        # a ball comes last, held by a step
        ball_last = "ball" in after and not HELD.intersection(after)
        ball_last = ball_last and bool(HELD.intersection(before))
        self.first: Side = "left" if ball_last else "right"

    def of(self, kind: str) -> list[str]:
        """Its parts of a kind, in their order."""
        return [name for name in self.names if kind_of(name) == kind]

    def has_corners(self, name: str) -> bool:
        """Whether a part along it is a stretch of hexagon or square bar."""
        return bool(self.sides) and kind_of(name) == "bar"

    def end(self, side: Side) -> float:
        return self.length if side == "right" else 0.0

    def round_at(self, z: float) -> float:
        """Diameter at a station; 0 beyond the ends."""
        for name, start, stop, a, b in self.steps:
            if start - 1e-9 <= z <= stop + 1e-9:
                if name in self.balls:
                    return self.balls[name].at(z)
                return a + (b - a) * (z - start) / (stop - start)
        return 0.0

    def across_at(self, s: Values, z: float) -> float:
        """What a hole from the side starts at: over two flats where there are some."""
        for name, start, stop, *_ in self.steps:
            if kind_of(name) == "bar" and start - 1e-9 <= z <= stop + 1e-9:
                return float(s[f"{name}.across"])
        return self.round_at(z)

    def outside(self, start: float, stop: float) -> float:
        """The least diameter between two stations."""
        inner = [z for _, a, b, *_ in self.steps for z in (a, b) if start < z < stop]
        ends = (start + 1e-6, stop - 1e-6)
        near = [z + off for z in inner for off in (-1e-6, 1e-6)]
        return min(self.round_at(z) for z in (*ends, *near))

    def thick_at(self, side: Side, inside: float, whole: bool = False) -> float:
        """How far from an end the first metal goes that is wider than that, or whole at
        both its ends: a hole through a flange ends behind it."""
        deep, met = 0.0, False
        for _, long, narrow, wide in self._from_end(side):
            if (narrow if whole else wide) > inside + 1e-6:
                met = True
            elif met:
                break
            deep += long
        return deep

    def shoulder_under(self, side: Side, inside: float) -> tuple[str, float]:
        """The first step from an end that is wider than that, and how far its shoulder
        is from there, mm; none and 0 where it is at the end, or none is so wide."""
        deep = 0.0
        for name, long, _, wide in self._from_end(side):
            if wide > inside + 1e-6:
                return (name, deep) if deep else ("", 0.0)
            deep += long
        return "", 0.0

    def _from_end(self, side: Side) -> Iterator[tuple[str, float, float, float]]:
        """Each step from an end on: its name, how long it is, how wide at its narrower
        end and where it is widest."""
        way = 1 if side == "left" else -1
        for (name, start, stop, a, b), wide in zip(
            self.steps[::way], self.widths[::way], strict=True
        ):
            yield name, stop - start, min(a, b), wide

    def side_of(self, z: float) -> Side:
        """The end from which a station is cut: beyond the largest step or before it."""
        return "right" if z >= self.steps[self.middle][1] - 1e-9 else "left"

    def shoulder(self, at: int) -> Literal["left", "right", ""]:
        """The end at which a step has its larger neighbour; none for one between
        larger ones, which no tool comes to from an end."""
        wide = self.widths[at] + 1e-6
        before, after = self.widths[:at], self.widths[at + 1 :]
        if max(before, default=0.0) > wide and max(after, default=0.0) > wide:
            return ""
        if before and (self.steps[at - 1][4] > wide or self._is_ball(at - 1)):
            return "left"
        if after and (self.steps[at + 1][3] > wide or self._is_ball(at + 1)):
            return "right"
        return ""

    def _is_ball(self, at: int) -> bool:
        return self.steps[at][0] in self.balls

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


def is_tapped(thread: Thread) -> bool:
    """Whether an inside thread is tapped; what is larger is cut on the lathe, and
    sooner where a shop seldom has the tap: of a trapezoidal or Acme thread."""
    if thread.form.flat:
        return thread.minor_internal < LEAST_BORED
    return thread.major <= LARGEST_TAP


def bore_for(thread: str) -> float:
    """The bore before an inside thread: its drill, or the basic minor diameter."""
    sizes = thread_of(thread)
    return tap_drill(thread) if is_tapped(sizes) else sizes.minor_internal


def _screw(s: Values, axis: Axis, name: str) -> Screw:
    """An outside thread from its end inward, or so far from it: between the journals of
    a lead screw. Its tool runs out in a groove, or where the round is thinner."""
    side, away = s[f"{name}.end"], float(s[f"{name}.from_end"])
    far = away + float(s[f"{name}.length"])
    whole = axis.length
    start, stop = (whole - far, whole - away) if side == "right" else (away, far)
    thread = str(s[f"{name}.thread"])
    end_at = axis.end(side) if away else None
    if away:
        beyond = start - AT_MOUTH if side == "right" else stop + AT_MOUTH
        if axis.round_at(beyond) <= thread_of(thread).minor_external:
            return Screw(name, start, stop, thread, "", end_at)
    runs: Side = "left" if side == "right" else "right"
    return Screw(name, start, stop, thread, runs, end_at)


def bored_already(s: Values, axis: Axis, name: str) -> str | None:
    """The widest bore all along an inside thread that its crests are cut in, where
    there is one; a wider one leaves it none."""
    thread = str(s[f"{name}.thread"])
    _, start, stop, _ = axis.inside(s, name)
    own, pitch = bore_for(thread), thread_of(thread).pitch
    found = {}
    for bore in axis.of("bore"):
        _, first, last, _ = axis.inside(s, bore)
        wide = float(s[f"{bore}.diameter"])
        along = first < start + 1e-6 and stop < last + 1e-6
        if along and own - 1e-6 <= wide <= own + WORN_CREST * pitch:
            found[bore] = wide
    return max(found, key=lambda bore: found[bore], default=None)


def _nut(s: Values, axis: Axis, name: str) -> NutThread:
    """An inside thread from its end inward, up to where a wider bore from the far end
    takes its crests; of one right through, from either."""
    side, start, stop, through = axis.inside(s, name)
    thread = str(s[f"{name}.thread"])
    own = bored_already(s, axis, name)
    nut = NutThread(
        name,
        start,
        stop,
        thread,
        float(s[f"{own}.diameter"]) if own else bore_for(thread),
    )
    room = 0.0 if through or not is_tapped(nut.of) else run_out(thread)
    first, last = start, stop  # of its drill
    if side == "right":
        first = max(start - room, 0.0)
    else:
        last = min(stop + room, axis.length)
    for bore in axis.of("bore"):
        mouth, begin, end, all_along = axis.inside(s, bore)
        wider = float(s[f"{bore}.diameter"]) > nut.of.major and not all_along
        if wider and (through or mouth != side):
            start = max(start, end) if mouth == "left" else start
            stop = min(stop, begin) if mouth == "right" else stop
    if start >= stop:  # a check says that nothing is left of it
        return replace(nut, before=nut.start - first, beyond=last - nut.end)
    return replace(nut, start=start, end=stop, before=start - first, beyond=last - stop)


def keyed_bore(s: Values, axis: Axis, name: str) -> tuple[float, float, float]:
    """Start and end of an inside keyway, and its bore: the narrowest that goes through.
    Raises BadInput on `width` where none does."""
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


def socket_of(s: Values, axis: Axis, name: str) -> TaperBore:
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


def hole_of_part(s: Values, name: str, depth: float | None = None) -> Hole:
    thread = str(s[f"{name}.thread"])
    if thread != "none":
        return tapped(thread, depth)
    wide, ream = float(s[f"{name}.diameter"]), bool(s[f"{name}.reamed"])
    head = float(s.get(f"{name}.counterbore", 0.0))
    sunk = float(s[f"{name}.counterbore_depth"]) if head else 0.0
    return Hole(wide, depth, bore=head, bore_depth=sunk, ream=ream)


def bored_to(s: Values, name: str) -> float:
    """The diameter that a bore, a groove in it or an inside thread goes out to."""
    if kind_of(name) == "nut":
        return thread_of(str(s[f"{name}.thread"])).major
    return float(s[f"{name}.diameter"])


def _through_ring(
    s: Values, axis: Axis, side: Side, circle: float, wide: float
) -> float:
    """How deep the metal is that holes on a circle go through: to the back of a flange,
    or into what is bored from the other end."""
    thick = axis.thick_at(side, circle - wide)
    for name in (*axis.of("bore"), *axis.of("nut")):
        _, first, last, _ = axis.inside(s, name)
        floor = first if side == "left" else axis.length - last
        if floor > AT_MOUTH and bored_to(s, name) >= circle + wide:
            thick = min(thick, floor)
    return thick


def ledge_under(s: Values, axis: Axis, name: str) -> tuple[str, float]:
    """The step on whose shoulder holes of a face all begin, or the bore on whose flat
    floor, and how deep that is, mm; none and 0 where they begin in the face."""
    side, wide = s[f"{name}.end"], hole_of_part(s, name).widest
    shoulder = axis.shoulder_under(side, s[f"{name}.circle"] - wide)
    if shoulder[1]:
        return shoulder
    span = s[f"{name}.circle"] + wide
    found = [
        (bore, float(s[f"{bore}.depth"]))
        for bore in axis.of("bore")
        if s[f"{bore}.end"] == side
        and s[f"{bore}.floor"] == "flat"
        and not axis.inside(s, bore)[3]
        and s[f"{bore}.diameter"] >= span
    ]
    return max(found, key=lambda it: it[1], default=("", 0.0))


def as_deep_as_the_metal(hole: Hole, thick: float) -> Hole:
    """A hole that goes through where it is said to be deeper than the metal is."""
    blind = hole.depth is not None and hole.depth < thick - 1e-6
    return hole if blind else replace(hole, depth=None)


def holes_between(s: Values, axis: Axis, start: float, stop: float) -> Iterator[str]:
    """The bores and inside threads that are anywhere between two stations."""
    for name in (*axis.of("bore"), *axis.of("nut")):
        _, first, last, _ = axis.inside(s, name)
        if first < stop and start < last:
            yield name


def inside_width(s: Values, axis: Axis, start: float, stop: float) -> float:
    """The widest that is bored or tapped anywhere between two stations; 0 for solid."""
    found = [0.0, *(bored_to(s, n) for n in holes_between(s, axis, start, stop))]
    for name in axis.of("socket"):
        taper = socket_of(s, axis, name)
        if taper.start < stop and start < taper.end:
            found.append(taper.large)
    return max(found)


def end_face(s: Values, axis: Axis, name: str) -> tuple[Side, float, float]:
    """The end that a part is cut from, its station and diameter. Raises BadInput on
    `end` for the tip of a ball."""
    side: Side = s[f"{name}.end"]
    z = axis.end(side)
    wide = axis.round_at(z)
    if not wide:
        raise BadInput(
            f"{name}.end",
            f"The {side} end is the tip of a ball: choose the other, or take "
            f"{spoken(name)} out.",
        )
    return side, z, wide


def mouth_of(s: Values, axis: Axis, name: str) -> float:
    """The diameter that is bored in the end that a part is cut from. Raises BadInput on
    what it is `of` where that is solid."""
    side, z, _ = end_face(s, axis, name)
    wide = inside_width(s, axis, z - AT_MOUTH, z + AT_MOUTH)
    if not wide:
        raise BadInput(
            f"{name}.of",
            f"Nothing is bored in the {side} end: choose outside, or bore it first.",
        )
    return wide


def feature_of_part(s: Values, axis: Axis, name: str) -> Feature:
    """One of the features that lie on or in the steps."""

    def size(measure: str) -> float:
        return float(s[f"{name}.{measure}"])

    match kind_of(name):
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
            return _nut(s, axis, name)
        case "thread":
            return _screw(s, axis, name)
        case "groove" | "undercut":
            at = size("from_end")
            inside = kind_of(name) == "undercut"
            return Groove(name, at, at + size("width"), size("diameter"), inside)
        case "socket":
            return socket_of(s, axis, name)
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
            side, z, wide = end_face(s, axis, name)
            inside = s[f"{name}.of"] == "bore"
            if inside:
                wide = mouth_of(s, axis, name)
            return Bevel(name, z, wide, size("leg"), side, inside, size("angle"))
        case "round":
            side, z, wide = end_face(s, axis, name)
            return EdgeRound(name, z, wide, size("radius"), side)
        case "bore_keyway":
            start, stop, wide = keyed_bore(s, axis, name)
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
            wide = axis.round_at(at + size("length") / 2) or axis.largest
            return Knurl(name, at, at + size("length"), wide, size("pitch"), crossed)
        case "cross":
            z, count = size("from_end"), int(s[f"{name}.count"])
            wide = axis.across_at(s, z)
            hole = hole_of_part(s, name, size("depth") or None)
            # several, or a thread, go through the wall of what is hollow there
            over = (z - hole.diameter / 2, z, z + hole.diameter / 2)
            hollow = min(inside_width(s, axis, place, place) for place in over)
            deep = wide / 2 - hollow / 2
            if count == 1 and not (hole.thread and hollow):
                deep = wide
            hole = as_deep_as_the_metal(hole, deep)
            return CrossHoles(name, z, wide, hole, deep, count, size("start"))
        case "ring":
            side, deep = s[f"{name}.end"], size("depth")
            hole = hole_of_part(s, name, deep or None)
            turn = size("start")
            circle = HoleCircle(int(s[f"{name}.count"]), size("circle"), turn)
            thick = _through_ring(s, axis, side, size("circle"), hole.diameter)
            _, down = ledge_under(s, axis, name)
            level = axis.end(side) + (down if side == "left" else -down)
            hole = as_deep_as_the_metal(hole, thick - down)
            return Holes(name, side, circle, hole, thick - down, level=level)
        case "flat":
            at, long, count = size("from_end"), size("length"), int(s[f"{name}.count"])
            across, wide = size("across"), axis.round_at(at + size("length") / 2)
            if count % 2:  # it is read to the far side of the round
                if across <= wide / 2:
                    raise BadInput(
                        f"{name}.across",
                        f"{begun(spoken(name))} would go past the axis: more than "
                        f"{wide / 2:g} mm from it to the far side of the ⌀{wide:g} "
                        "round does.",
                    )
                across = 2 * across - wide
            return Flats(name, at, at + long, across, count, wide)
    at = size("from_end")
    wide = axis.round_at(at + size("length") / 2)
    return Keyway(name, at, at + size("length"), wide, size("width"), size("depth"))
