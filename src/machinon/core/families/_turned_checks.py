"""Whether the features of a free turned piece leave enough of it, and can be cut."""

import math
from collections.abc import Iterable

from machinon.core.families._bored_checks import bored_checks
from machinon.core.families._tapped import thread_checks
from machinon.core.families._turned_axis import (
    AT_MOUTH,
    OVER,
    Axis,
    end_face,
    feature_of_part,
    hole_of_part,
    inside_width,
    ledge_under,
    named_taper,
)
from machinon.core.piece.family import Check, Values, at_least, kind_of, spoken
from machinon.core.piece.feature import Side
from machinon.core.piece.milled_features import Flats, Keyway
from machinon.core.piece.stock import DRAWN
from machinon.core.piece.turned_features import Groove, Screw
from machinon.core.sizes.general_tolerance import general_tolerance
from machinon.core.tapers.tapers import taper_of
from machinon.core.wording import begun

OF_TAPER = 0.005  # mm: by so much the ends of a named taper may be off
OF_BALL = 0.02  # mm: by so much a ball's typed length may be off
HAIR = 1e-6  # mm past a shoulder
EVEN = 0.1  # of a pitch by which a knurl may come out uneven


def _taper_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Whether a taper's two ends are as far apart as its name says."""
    for name, start, stop, left, right in axis.steps:
        if kind_of(name) != "taper" or not (known := named_taper(s, name)):
            continue
        changes, wanted = abs(left - right), taper_of(known).ratio * (stop - start)
        yield Check(
            f"{name}-slope",
            name,
            abs(changes - wanted) <= OF_TAPER,
            f"From end to end {spoken(name)} changes by {changes:.3f} mm; as {known} "
            f"it does by {wanted:.3f} mm.",
        )


def _step_under(
    s: Values, axis: Axis, screw: Screw
) -> tuple[str, float, float, float, float]:
    """The step that a thread starts on; of one behind a journal, that it is most on."""
    if not s[f"{screw.name}.from_end"]:
        return axis.steps[-1 if s[f"{screw.name}.end"] == "right" else 0]
    return max(
        axis.steps, key=lambda at: min(at[2], screw.end) - max(at[1], screw.start)
    )


def _outside_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in axis.of("thread"):
        screw = feature_of_part(s, axis, name)
        assert isinstance(screw, Screw)
        at = _step_under(s, axis, screw)
        wide = 0.0 if axis.has_corners(at[0]) else max(at[3:])
        yield at_least(
            f"{name}-crest",
            name,
            0.1 * screw.of.pitch - abs(wide - screw.of.major),
            0.0,
            f"Step under {spoken(name)} within a tenth of a pitch of {screw.of.says}",
        )
        yield at_least(
            f"{name}-length",
            name,
            min(at[2], screw.end) - max(at[1], screw.start)
            if s[f"{name}.from_end"]
            else at[2] - at[1],
            screw.end - screw.start,
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
        land = _land_beside(s, axis, name)
        if land is not None:
            yield at_least(
                f"{name}-land",
                name,
                land,
                max(0.5, (axis.outside(at, at + wide) - s[f"{name}.diameter"]) / 8),
                f"Land beside {spoken(name)} (a quarter of its depth)",
            )
    for name in axis.of("cross"):
        at, half = s[f"{name}.from_end"], hole_of_part(s, name).diameter / 2
        inner = [min(at - half - a, b - at - half) for _, a, b, *_ in axis.steps]
        yield at_least(
            f"{name}-on-a-step",
            name,
            max(inner),
            0.5,
            f"Holes of {spoken(name)} clear of the ends of their step",
        )
        if deep := s[f"{name}.depth"]:
            hole = hole_of_part(s, name, deep)
            yield at_least(
                f"{name}-floor",
                name,
                axis.round_at(at) - deep - hole.point,
                0.5,
                f"Metal below the points of {spoken(name)}, at the far side",
            )
    for name in axis.of("ring"):
        side: Side = s[f"{name}.end"]
        hole = hole_of_part(s, name, float(s[f"{name}.depth"]) or None)
        circle = float(s[f"{name}.circle"])
        yield from thread_checks(name, hole, str(s["material"]))
        hub, rim = _land_round(s, axis, name)
        yield at_least(
            f"{name}-edges",
            name,
            (min(rim - circle, circle - hub) - hole.widest) / 2,
            1.0,
            f"Metal between the holes of {spoken(name)} and the edges of their face",
        )
        yield from _beside_steps(s, axis, name, hole.widest / 2)
        thick = axis.thick_at(side, circle, whole=True)
        thick -= ledge_under(s, axis, name)[1]
        if hole.depth is not None and hole.depth < thick:
            yield at_least(
                f"{name}-floor",
                name,
                thick - hole.depth - hole.point,
                0.5,
                f"Metal below the points of {spoken(name)}",
            )


def _land_round(s: Values, axis: Axis, name: str) -> tuple[float, float]:
    """The ring of metal that holes of a face begin in: its inside and its outside,
    mm."""
    ledge, down = ledge_under(s, axis, name)
    side, way = s[f"{name}.end"], 1 if s[f"{name}.end"] == "left" else -1
    at = axis.end(side) + way * down
    bored = [
        float(s[f"{bore}.diameter"])
        for bore in axis.of("bore")
        if axis.inside(s, bore)[3]
        or (s[f"{bore}.end"] == side and s[f"{bore}.depth"] > down)
    ]
    if kind_of(ledge) == "bore":
        return max(bored, default=0.0), float(s[f"{ledge}.diameter"])
    hub = axis.round_at(at - way * HAIR)  # 0 off the end
    return max([hub, *bored]), axis.round_at(at + way * HAIR)


def _land_beside(s: Values, axis: Axis, name: str) -> float | None:
    """What stands between a groove and the next fall of the outside, mm; None where no
    land stands there."""
    at = float(s[f"{name}.from_end"])
    end = at + float(s[f"{name}.width"])
    others = [feature_of_part(s, axis, n) for n in axis.of("groove") if n != name]
    lands = []
    for edge, way in ((at, -1), (end, 1)):
        top = axis.round_at(edge + way * 1e-6) - 0.1
        falls = [0.0 if way < 0 else axis.length]
        for _, start, stop, left, right in axis.steps:
            if (left if way > 0 else right) < top:
                falls.append(start if way > 0 else stop)
        for groove in others:
            assert isinstance(groove, Groove)
            if groove.diameter < top:
                falls.append(groove.start if way > 0 else groove.end)
        lands += [way * (z - edge) for z in falls if way * (z - edge) > 1e-6]
    return min(lands, default=None)


def _beside_steps(s: Values, axis: Axis, name: str, half: float) -> Iterable[Check]:
    """Whether holes in a face stay in or clear of the steps behind it that they go on
    along; half: of the hole, mm."""
    middle, deep = s[f"{name}.circle"] / 2, float(s[f"{name}.depth"]) or axis.length
    deep += ledge_under(s, axis, name)[1]
    behind = [
        (left, right)
        for _, start, stop, left, right in axis.steps
        if (
            start < deep and start > 0
            if s[f"{name}.end"] == "left"
            else stop > axis.length - deep and stop < axis.length
        )
    ]
    if behind:
        yield at_least(
            f"{name}-sides",
            name,
            min(
                max(min(ends) / 2 - middle, middle - max(ends) / 2) - half
                for ends in behind
            ),
            0.5,
            f"Holes of {spoken(name)} from the outside of the steps behind their face",
            grave=False,
        )


def _rolled_checks(s: Values, axis: Axis) -> Iterable[Check]:
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
        broken = [
            edge
            for edge in axis.of("edge")
            if s[f"{edge}.end"] == side and s[f"{edge}.of"] == "outside"
        ]
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
        keyway = feature_of_part(s, axis, name)
        assert isinstance(keyway, Keyway)
        yield at_least(
            f"{name}-wall",
            name,
            axis.outside(keyway.start, keyway.end) / 2 - keyway.floor,
            max(1.5, keyway.width / 3),
            f"Wall outside of {spoken(name)} (a third of its width)",
        )
        yield at_least(
            f"{name}-narrow",
            name,
            keyway.diameter / 2.5,
            keyway.width,
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
        yield _on_a_step(axis, name, start, long)
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


def _on_a_step(axis: Axis, name: str, start: float, long: float) -> Check:
    """Whether what begins at a station lies on one step, on no taper and no flats."""
    under = [step for step in axis.steps if step[1] - 1e-6 <= start < step[2] - 1e-6]
    room = 0.0
    if under and under[0][3] == under[0][4] and not axis.has_corners(under[0][0]):
        room = under[0][2] - start
    said = f"Step that {spoken(name)} is on"
    return at_least(f"{name}-on-a-step", name, room, long, said)


def _milled_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in axis.of("keyway"):
        start, long = s[f"{name}.from_end"], s[f"{name}.length"]
        wide = axis.round_at(start + long / 2)
        bored = inside_width(s, axis, start, start + long)
        yield _on_a_step(axis, name, start, long)
        yield at_least(
            f"{name}-narrow",
            name,
            wide / 2.5,
            s[f"{name}.width"],
            f"Round for the width of {spoken(name)} (two fifths of it)",
        )
        yield at_least(
            f"{name}-deep",
            name,
            wide / 4,
            s[f"{name}.depth"],
            f"Round for the depth of {spoken(name)} (a quarter of it)",
            grave=False,
        )
        yield at_least(
            f"{name}-floor",
            name,
            (wide - bored) / 2 - s[f"{name}.depth"],
            max(1.0, wide / 10),
            f"Metal under {spoken(name)} (a tenth of its round)",
        )
    for name in axis.of("flat"):
        flats = feature_of_part(s, axis, name)
        assert isinstance(flats, Flats)
        start, stop = flats.start, flats.end
        met = [
            axis.round_at(z)
            for _, a, b, *_ in axis.steps
            if a < stop and start < b
            for z in (max(a, start) + 1e-6, min(b, stop) - 1e-6)
        ]
        over = max(met, default=0.0) - flats.across
        yield at_least(
            f"{name}-deep",
            name,
            over / 2 if flats.count % 2 else over,
            0.1,
            f"Round over {spoken(name)}",
        )
        if bored := inside_width(s, axis, start, stop):
            yield at_least(
                f"{name}-wall",
                name,
                (flats.across - bored) / 2,
                1.0,
                f"Wall at {spoken(name)}",
            )


def _face_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """What is cut in the faces of the ends, and their edges."""
    for name in axis.of("trepan"):
        at, deep = axis.end(s[f"{name}.end"]), s[f"{name}.depth"]
        start, stop = (at - deep, at) if at else (0.0, deep)
        yield at_least(
            f"{name}-wall",
            name,
            (axis.outside(start, stop) - s[f"{name}.outer"]) / 2,
            1.0,
            f"Wall outside of {spoken(name)}",
        )
        if bored := inside_width(s, axis, start, stop):
            yield at_least(
                f"{name}-core",
                name,
                (s[f"{name}.inner"] - bored) / 2,
                1.0,
                f"Wall inside of {spoken(name)}",
            )
    for name in (*axis.of("centre"), *axis.of("edge")):
        _, at, wide = end_face(s, axis, name)
        bored = inside_width(s, axis, at - AT_MOUTH, at + AT_MOUTH)
        if kind_of(name) == "centre":
            mouth = s[f"{name}.mouth"]
            yield at_least(
                f"{name}-face",
                name,
                min(wide - mouth, mouth - bored),
                0.5,
                f"Face round {spoken(name)}, and it over the bore it is in",
            )
        else:
            step, leg = axis.steps[-1 if at else 0], s[f"{name}.leg"]
            deep = leg * math.tan(math.radians(s[f"{name}.angle"]))
            yield at_least(
                f"{name}-room",
                name,
                min(step[2] - step[1] - leg, (wide - bored) / 2 - deep),
                0.0,
                f"Metal left beside {spoken(name)}",
            )


def _ball_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name, ball in axis.balls.items():
        long, needs = ball.end - ball.start, sum(ball.sides)
        yield Check(
            f"{name}-length",
            name,
            abs(long - needs) <= OF_BALL,
            f"{begun(spoken(name))} is {long:.2f} long; between what it stands at it "
            f"is {needs:.2f} long.",
        )
    if axis.balls and not axis.held:
        yield Check(
            "ball-held",
            "stock",
            False,
            "Turned round, nothing is there to hold it by but balls and tapers: leave "
            "a step for the jaws, or work between centres.",
            grave=False,
        )


def checks(s: Values) -> Iterable[Check]:
    axis = Axis(s)
    yield from _ball_checks(s, axis)
    yield from _rolled_checks(s, axis)
    yield from bored_checks(s, axis)
    yield from _taper_checks(s, axis)
    yield from _outside_checks(s, axis)
    yield from _milled_checks(s, axis)
    yield from _face_checks(s, axis)
    yield at_least(
        "stock-length",
        "stock",
        s["stock.length"] - axis.length,
        2 * OVER,
        "Stock over the length to face both ends",
    )
    turned = [
        wide
        for (name, *_), wide in zip(axis.steps, axis.widths, strict=True)
        if kind_of(name) != "bar"
    ]
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - max(turned, default=0.0),
        0.0,
        "Stock over the largest step",
    )
    for name in axis.of("bar"):
        across = float(s[f"{name}.across"])
        over, most = s["stock.diameter"] - across, max(DRAWN, general_tolerance(across))
        yield Check(
            f"{name}-across",
            name,
            abs(over) <= most + 1e-9,
            f"{begun(spoken(name))} is the stock itself: {s['stock.diameter']:g} mm "
            f"across for {across:g} mm, up to {most:g} mm apart is wanted.",
            have=over,
            need=most,
        )
