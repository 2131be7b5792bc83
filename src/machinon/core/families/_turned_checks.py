"""Whether the features of a free turned piece leave enough of it, and can be cut."""

import math
from collections.abc import Iterable, Sequence

from machinon.core.families._tapped import thread_checks
from machinon.core.families._turned_axis import (
    LARGEST_TAP,
    OVER,
    Axis,
    bore_for,
    end_face,
    feature_of_part,
    hole_of_part,
    named_taper,
    socket_of,
)
from machinon.core.piece.family import (
    Check,
    Values,
    at_least,
    kind_of,
    spoken,
)
from machinon.core.piece.feature import Side
from machinon.core.piece.turned_features import (
    Bore,
    Flats,
    Groove,
    Keyway,
    NutThread,
    Screw,
)
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.screw_thread import thread_of
from machinon.core.wording import begun

AS_NAMED = 0.3  # mm: a socket's mouth that is further off is not that of its taper
OF_TAPER = 0.005  # mm: by so much the ends of a named taper may be off
OF_BALL = 0.02  # mm: by so much a ball's typed length may be off
EVEN = 0.1  # of a pitch by which a knurl may come out uneven


def _wall(s: Values, axis: Axis, start: float, stop: float) -> float:
    """The least diameter outside of a bore, threads and grooves counted."""
    found = [axis.outside(start, stop)]
    for name in (*axis.of("thread"), *axis.of("groove")):
        feature = feature_of_part(s, axis, name)
        if isinstance(feature, Screw) and feature.start < stop and start < feature.end:
            found.append(feature.of.minor_external)
        if isinstance(feature, Groove) and feature.start < stop and start < feature.end:
            found.append(feature.diameter)
    return min(found)


def _bored_to(s: Values, name: str) -> float:
    """The diameter that a bore, a groove in it or an inside thread goes out to."""
    if kind_of(name) == "nut":
        return thread_of(str(s[f"{name}.thread"])).major
    return float(s[f"{name}.diameter"])


def _bores(s: Values, axis: Axis) -> list[Bore]:
    bores = (feature_of_part(s, axis, name) for name in axis.of("bore"))
    return [bore for bore in bores if isinstance(bore, Bore)]


def _inside(s: Values, axis: Axis, start: float, stop: float) -> float:
    """The widest that is bored or tapped anywhere between two stations; 0 for solid."""
    found = [0.0]
    for name in (*axis.of("bore"), *axis.of("nut")):
        _, first, last, _ = axis.inside(s, name)
        if first < stop and start < last:
            found.append(_bored_to(s, name))
    for name in axis.of("socket"):
        taper = socket_of(s, axis, name)
        if taper.start < stop and start < taper.end:
            found.append(taper.large)
    return max(found)


def _inside_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in (*axis.of("bore"), *axis.of("nut"), *axis.of("undercut")):
        if kind_of(name) == "undercut":
            start = s[f"{name}.from_end"]
            stop = start + s[f"{name}.width"]
        else:
            _, start, stop, _ = axis.inside(s, name)
            feature = feature_of_part(s, axis, name)
            if isinstance(feature, NutThread):
                start, stop = feature.drilled
        wide = _bored_to(s, name)
        yield at_least(
            f"{name}-wall",
            name,
            (_wall(s, axis, start, stop) - wide) / 2,
            1.0,
            f"Wall round {spoken(name)}",
        )
        if kind_of(name) == "nut":
            yield from _crest_checks(s, axis, name)
        if kind_of(name) == "undercut":
            bored = _inside(s, axis, start, stop)
            yield at_least(
                f"{name}-deep",
                name,
                wide - bored if bored else 0.0,
                0.1,
                f"Floor of {spoken(name)} over the bore that it is in",
            )
            ends = [0.0, axis.length]
            for other in axis.of("undercut"):
                if other != name:
                    at = float(s[f"{other}.from_end"])
                    ends += [at, at + float(s[f"{other}.width"])]
            land = min(
                *(start - z for z in ends if z < start - 1e-6),
                *(z - stop for z in ends if z > stop + 1e-6),
                axis.length,
            )
            yield at_least(
                f"{name}-land",
                name,
                land,
                max(0.5, (wide - bored) / 8),
                f"Land beside {spoken(name)} (a quarter of its depth)",
            )


def _floor_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Whether what is sunk to a floor leaves metal there, unless another meets it."""
    spans = _inside_spans(s, axis)
    for name in (*axis.of("bore"), *axis.of("nut")):
        low, high, across = spans[name]
        side, *_, through = axis.inside(s, name)
        if through:
            continue
        tip = low if side == "right" else high
        others = [span for other, span in spans.items() if other != name]
        meets = [wide for a, b, wide in others if a - 1e-6 <= tip <= b + 1e-6]
        if max(meets, default=0.0) > across - 0.01:
            continue
        if meets:  # a ring is left round the narrower one
            point = _point(s, axis, name)
            tip += point if side == "right" else -point
            others = [other for other in others if other[2] > across - 0.01]
        yield at_least(
            f"{name}-floor",
            name,
            _behind(axis, side, tip, [(a, b) for a, b, _ in others]),
            1.0,
            f"Metal left at the floor of {spoken(name)}",
        )
    for name in axis.of("trepan"):
        side = s[f"{name}.end"]
        deep = s[f"{name}.depth"]
        floor = axis.length - deep if side == "right" else deep
        # at its width, where no drill's point is
        wider = [
            (feature.start, feature.end)
            for feature in (feature_of_part(s, axis, other) for other in spans)
            if isinstance(feature, Bore) and feature.diameter > s[f"{name}.inner"]
        ]
        # where the outside falls below its own, nothing is behind it either
        wider += [
            (start, stop)
            for _, start, stop, left, right in axis.steps
            if max(left, right) < s[f"{name}.outer"]
        ]
        yield at_least(
            f"{name}-floor",
            name,
            _behind(axis, side, floor, wider),
            1.0,
            f"Metal left at the floor of {spoken(name)}",
        )


def _inside_spans(s: Values, axis: Axis) -> dict[str, tuple[float, float, float]]:
    """Of all that is bored: from where to where at the axis, and how wide."""
    found = {
        name: (*_bored_along(s, axis, name), _hole_across(s, name))
        for name in (*axis.of("bore"), *axis.of("nut"))
    }
    for name in axis.of("socket"):
        taper = socket_of(s, axis, name)
        found[name] = (taper.start, taper.end, taper.large)
    return found


def _behind(
    axis: Axis, side: Side, floor: float, others: Sequence[tuple[float, float]]
) -> float:
    """Metal behind a floor that is looked at from an end, up to the far face or to
    what is cut there; mm."""
    if side == "right":
        return floor - max([0.0, *(b for a, b in others if a < floor)])
    return min([axis.length, *(a for a, b in others if b > floor)]) - floor


def _hole_across(s: Values, name: str) -> float:
    """Diameter of a bore, or of that before an inside thread."""
    if kind_of(name) == "nut":
        return bore_for(str(s[f"{name}.thread"]))
    return float(s[f"{name}.diameter"])


def _bored_along(s: Values, axis: Axis, name: str) -> tuple[float, float]:
    """From where to where a bore or an inside thread takes metal at the axis."""
    feature, point = feature_of_part(s, axis, name), _point(s, axis, name)
    if isinstance(feature, NutThread):
        return feature.drilled
    assert isinstance(feature, Bore)
    if feature.opens == "left":
        return feature.start, feature.end + point
    return feature.start - point, feature.end


def _point(s: Values, axis: Axis, name: str) -> float:
    """How far the point of a bore's drill goes past its depth; 0 for a thread."""
    feature = feature_of_part(s, axis, name)
    return feature.point if isinstance(feature, Bore) else 0.0


def _crest_checks(s: Values, axis: Axis, name: str) -> Iterable[Check]:
    """Whether a bore all along an inside thread leaves it its crests."""
    nut = feature_of_part(s, axis, name)
    assert isinstance(nut, NutThread)
    over = [
        bore.diameter
        for bore in _bores(s, axis)
        if bore.start <= nut.start + 1e-6 and nut.end - 1e-6 <= bore.end
    ]
    if over:
        yield at_least(
            f"{name}-crest",
            name,
            nut.bore + 0.3 * nut.of.pitch - max(over),
            0.0,
            f"Bore that {spoken(name)} is in, under its crests",
        )


def _socket_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in axis.of("socket"):
        taper = socket_of(s, axis, name)
        yield at_least(
            f"{name}-wall",
            name,
            min(
                (axis.round_at(z) - wide) / 2
                for z, wide in (
                    (taper.start, taper.start_diameter),
                    (taper.end, taper.end_diameter),
                )
            ),
            2.0,
            f"Wall round {spoken(name)}",
        )
        small = min(taper.start_diameter, taper.end_diameter)
        inner = taper.start if s[f"{name}.end"] == "right" else taper.end
        through = [
            bore.diameter
            for bore in _bores(s, axis)
            if bore.start - 1e-6 <= inner <= bore.end + 1e-6
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
        named = taper_of(taper.taper).large
        if named is not None:
            yield Check(
                f"{name}-mouth",
                name,
                abs(taper.large - named) <= AS_NAMED,
                f"{taper.taper} is {named:.3f} mm wide at its mouth, {spoken(name)} "
                f"{taper.large:.3f} mm: a shank stands out of a narrow one and goes "
                "too deep into a wide one.",
                grave=False,
            )


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


def _run_out_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Whether the tool of an inside thread that ends at a floor has room there."""
    for name in axis.of("nut"):
        nut = feature_of_part(s, axis, name)
        side, start, stop, through = axis.inside(s, name)
        assert isinstance(nut, NutThread)
        if through or nut.of.major <= LARGEST_TAP:
            continue  # a tap's room is drilled
        floor = start if side == "right" else stop
        room = 0.0
        for other in (*axis.of("undercut"), *axis.of("bore")):
            open_ = feature_of_part(s, axis, other)
            if isinstance(open_, Groove) and open_.diameter >= nut.of.major:
                if open_.start - 1e-6 <= floor <= open_.end + 1e-6:
                    room = max(room, open_.end - open_.start)
            elif isinstance(open_, Bore) and open_.diameter >= nut.bore:
                beyond = floor - open_.start if side == "right" else open_.end - floor
                room = max(room, beyond)
        yield at_least(
            f"{name}-runs-out",
            name,
            room,
            2 * nut.of.pitch,
            f"Room at the floor of {spoken(name)} for the tool to run out: a groove in "
            "the bore, or a bore beyond it",
            grave=False,
        )


def _outside_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in axis.of("thread"):
        screw = feature_of_part(s, axis, name)
        assert isinstance(screw, Screw)
        at = axis.steps[-1 if s[f"{name}.end"] == "right" else 0]
        yield at_least(
            f"{name}-crest",
            name,
            0.1 * screw.of.pitch - abs(max(at[3:]) - screw.of.major),
            0.0,
            f"Step under {spoken(name)} within a tenth of a pitch of {screw.of.says}",
        )
        yield at_least(
            f"{name}-length",
            name,
            at[2] - at[1],
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
    for name in axis.of("ring"):
        side: Side = s[f"{name}.end"]
        hole = hole_of_part(s, name, float(s[f"{name}.depth"]) or None)
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
            (min(outer, between) - hole.widest) / 2,
            1.0,
            f"Metal between the holes of {spoken(name)} and the edges of their face",
        )
        yield from _beside_steps(s, axis, name, hole.widest / 2)
        thick = _thick_at(axis, side, circle)
        if hole.depth is not None and hole.depth < thick:
            yield at_least(
                f"{name}-floor",
                name,
                thick - hole.depth - hole.point,
                0.5,
                f"Metal below the points of {spoken(name)}",
            )


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


def _thick_at(axis: Axis, side: Side, circle: float) -> float:
    """Metal from an end face on to the next face back, at holes on a circle; mm."""
    thick = 0.0
    steps = axis.steps if side == "left" else axis.steps[::-1]
    for _, start, stop, left, right in steps:
        if min(left, right) <= circle:
            break
        thick += stop - start
    return thick


def _beside_steps(s: Values, axis: Axis, name: str, half: float) -> Iterable[Check]:
    """Whether holes in a face stay in or clear of the steps behind it that they go on
    along; half: of the hole, mm."""
    middle, deep = s[f"{name}.circle"] / 2, float(s[f"{name}.depth"]) or axis.length
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
        broken = [edge for edge in axis.of("edge") if s[f"{edge}.end"] == side]
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
    """Whether what begins at a station lies on one step, and on no taper."""
    under = [step for step in axis.steps if step[1] - 1e-6 <= start < step[2] - 1e-6]
    room = under[0][2] - start if under and under[0][3] == under[0][4] else 0.0
    said = f"Step that {spoken(name)} is on"
    return at_least(f"{name}-on-a-step", name, room, long, said)


def _milled_checks(s: Values, axis: Axis) -> Iterable[Check]:
    for name in axis.of("keyway"):
        start, long = s[f"{name}.from_end"], s[f"{name}.length"]
        wide = axis.round_at(start + long / 2)
        bored = _inside(s, axis, start, start + long)
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
        if bored := _inside(s, axis, start, stop):
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
        if bored := _inside(s, axis, start, stop):
            yield at_least(
                f"{name}-core",
                name,
                (s[f"{name}.inner"] - bored) / 2,
                1.0,
                f"Wall inside of {spoken(name)}",
            )
    for name in (*axis.of("centre"), *axis.of("edge")):
        _, at, wide = end_face(s, axis, name)
        bored = _inside(s, axis, at - 0.1, at + 0.1)
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
            step = axis.steps[-1 if at else 0]
            yield at_least(
                f"{name}-room",
                name,
                min(step[2] - step[1], (wide - bored) / 2),
                s[f"{name}.leg"],
                f"Room for {spoken(name)}",
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
    yield from _inside_checks(s, axis)
    yield from _floor_checks(s, axis)
    yield from _socket_checks(s, axis)
    yield from _taper_checks(s, axis)
    yield from _run_out_checks(s, axis)
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
    yield at_least(
        "stock-diameter",
        "stock",
        s["stock.diameter"] - axis.largest,
        0.0,
        "Stock over the largest step",
    )
