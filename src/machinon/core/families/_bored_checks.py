"""Whether what is bored in a free turned piece leaves it its walls and its floors."""

from collections.abc import Iterable, Mapping, Sequence

from machinon.core.families._turned_axis import (
    WORN_CREST,
    Axis,
    bore_for,
    bored_to,
    feature_of_part,
    inside_width,
    is_tapped,
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
    Groove,
    NutThread,
    Screw,
)
from machinon.core.tapers.tapers import taper_of

AS_NAMED = 0.3  # mm: a socket's mouth that is further off is not that of its taper


def bored_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Of bores, inside threads, sockets and the grooves in them."""
    yield from _inside_checks(s, axis)
    yield from _floor_checks(s, axis)
    yield from _socket_checks(s, axis)
    yield from _run_out_checks(s, axis)


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


def _bored(s: Values, axis: Axis) -> dict[str, Bore | NutThread]:
    """Bores and inside threads."""
    names = (*axis.of("bore"), *axis.of("nut"))
    found = {name: feature_of_part(s, axis, name) for name in names}
    return {
        name: feature
        for name, feature in found.items()
        if isinstance(feature, Bore | NutThread)
    }


def _bores(s: Values, axis: Axis) -> list[Bore]:
    return [bore for bore in _bored(s, axis).values() if isinstance(bore, Bore)]


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
        wide = bored_to(s, name)
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
            bored = inside_width(s, axis, start, stop)
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
            before = [start - z for z in ends if z < start - 1e-6]
            beyond = [z - stop for z in ends if z > stop + 1e-6]
            land = min([*before, *beyond, axis.length])
            yield at_least(
                f"{name}-land",
                name,
                land,
                max(0.5, (wide - bored) / 8),
                f"Land beside {spoken(name)} (a quarter of its depth)",
            )


def _floor_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Whether what is sunk to a floor leaves metal there, unless another meets it."""
    bored = _bored(s, axis)
    spans = _inside_spans(s, axis, bored)
    for name, hole in bored.items():
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
            point = hole.point if isinstance(hole, Bore) else 0.0
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
            (bore.start, bore.end)
            for bore in bored.values()
            if isinstance(bore, Bore) and bore.diameter > s[f"{name}.inner"]
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


def _inside_spans(
    s: Values, axis: Axis, bored: Mapping[str, Bore | NutThread]
) -> dict[str, tuple[float, float, float]]:
    """Of all that is bored: from where to where at the axis, and how wide, which is
    before it is threaded."""
    found = {
        name: (*hole.drilled, hole.diameter if isinstance(hole, Bore) else hole.bore)
        for name, hole in bored.items()
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
            bore_for(nut.thread) + WORN_CREST * nut.of.pitch - max(over),
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


def _run_out_checks(s: Values, axis: Axis) -> Iterable[Check]:
    """Whether the tool of an inside thread that ends at a floor has room there."""
    for name in axis.of("nut"):
        nut = feature_of_part(s, axis, name)
        side, start, stop, through = axis.inside(s, name)
        assert isinstance(nut, NutThread)
        if through or is_tapped(nut.of):
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
