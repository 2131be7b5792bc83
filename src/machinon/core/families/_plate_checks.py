"""Whether the features of a free plate leave enough of it, and can be cut."""

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise

from machinon.core.families._plate_features import (
    block_of,
    dovetail_of,
    face_of,
    feature_of_part,
    hole_of_part,
    parts_of,
    pattern_of,
    tee_of,
)
from machinon.core.families._tapped import thread_checks
from machinon.core.piece.block_features import EndToEnd, MaleDovetail
from machinon.core.piece.family import (
    Check,
    Values,
    at_least,
    is_there,
    kind_of,
    spoken,
)
from machinon.core.piece.outline import corners_of, outline_of
from machinon.core.threads.screws import cap_screw
from machinon.core.wording import begun


def _from_outlines(s: Values, points: Sequence[tuple[float, float]]) -> list[float]:
    """Distance of holes from the outlines of a plate; negative outside."""
    from shapely import Point, Polygon

    found = [math.inf]
    for name in parts_of(s, "outline"):
        shape = Polygon(outline_of(corners_of(str(s[f"{name}.points"]))))
        for point in map(Point, points):
            far = shape.exterior.distance(point)
            found.append(far if shape.contains(point) else -far)
    return found


def _holes_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, deep = face_of(s, s[f"{name}.face"])
    hole, points = hole_of_part(s, name), pattern_of(s, name).points()
    outer = max(hole.bore, hole.sink, hole.diameter) / 2
    said = spoken(name)
    near = min(min(x, long - x, y, wide - y) for x, y in points)
    if s[f"{name}.face"] in ("top", "bottom"):
        near = min(near, *_from_outlines(s, points))
    yield at_least(
        f"{name}-edge",
        name,
        near - outer,
        0.5 * hole.diameter,
        f"Metal between {said} and the edges (half a hole)",
    )
    for other in parts_of(s, "dovetail", "tee") if s[f"{name}.face"] == "top" else ():
        form = feature_of_part(s, other)
        assert isinstance(form, EndToEnd)
        inner, reach = sorted((form.mouth / 2, form.section[-1][0] / 2))
        off = [abs(point[0 if form.across else 1] - form.at) for point in points]
        yield at_least(
            f"{name}-beside-{other}",
            name,
            min(max(inner - x - outer, x - outer - reach) for x in off),
            0.0,
            f"Metal between {said} and the flanks of {spoken(other)}",
            grave=False,
        )
    apart = [math.dist(a, b) for a, b in pairwise(points)]
    if apart:
        yield at_least(
            f"{name}-apart",
            name,
            min(apart) - 2 * outer,
            0.25 * hole.diameter,
            f"Metal between neighbours of {said} (a quarter of a hole)",
        )
    if hole.bore:
        yield at_least(
            f"{name}-seat",
            name,
            (cap_screw(str(s[f"{name}.screw"])).head_diameter - hole.diameter) / 2,
            0.5,
            f"Seat of the screw heads in {said}",
        )
        yield at_least(
            f"{name}-under-head",
            name,
            deep - hole.bore_depth,
            0.8 * hole.diameter,
            f"Metal under the screw heads of {said}",
        )
    if hole.depth is not None:
        yield at_least(
            f"{name}-floor",
            name,
            deep - hole.depth - 0.3 * hole.diameter,
            1.0,
            f"Metal below the points of {said}",
        )
    yield from thread_checks(name, hole, str(s["material"]))


def _bore_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    x, y = s[f"{name}.from_side"], s[f"{name}.from_front"]
    yield at_least(
        f"{name}-wall",
        name,
        min(x, long - x, y, wide - y) - s[f"{name}.diameter"] / 2,
        3.0,
        f"Wall beside {spoken(name)} (below nothing it breaks out as a window)",
        grave=False,
    )
    if s[f"{name}.counterbore"]:
        yield at_least(
            f"{name}-pinch",
            name,
            high - s[f"{name}.counterbore_depth"],
            2.0,
            f"Metal under the counterbore of {spoken(name)}",
        )


def _tee_checks(s: Values, name: str) -> Iterable[Check]:
    _, _, high = block_of(s)
    slot, said = tee_of(s, name), spoken(name)
    yield at_least(
        f"{name}-floor",
        name,
        high - slot.depth,
        max(3.0, slot.height / 2),
        f"Metal left under {said} (half its head's height)",
    )
    yield at_least(
        f"{name}-sides",
        name,
        min(slot.at, slot.room - slot.at) - slot.head / 2,
        slot.neck / 2,
        f"Metal beside the head of {said} (half its neck)",
    )
    yield at_least(
        f"{name}-lips",
        name,
        slot.depth - slot.height,
        0.7 * slot.neck,
        f"Lips of {said}: thinner ones break out under a clamp",
        grave=False,
    )
    beside = (tee_of(s, n) for n in parts_of(s, "tee") if n > name)
    apart = [
        abs(other.at - slot.at) - (other.head + slot.head) / 2
        for other in beside
        if other.across == slot.across
    ]
    if apart:
        yield at_least(
            f"{name}-apart",
            name,
            min(apart),
            slot.neck / 2,
            f"Metal between {said} and the next (half its neck)",
        )


def _part_checks(s: Values, name: str) -> Iterable[Check]:
    long, wide, high = block_of(s)
    match kind_of(name):
        case "hole" | "row" | "holes" | "ring":
            yield from _holes_checks(s, name)
        case "bore":
            yield from _bore_checks(s, name)
        case "slot" | "rebate":
            deep = face_of(s, s[f"{name}.face"])[2] if kind_of(name) == "slot" else high
            yield at_least(
                f"{name}-floor",
                name,
                deep - s[f"{name}.depth"],
                3.0,
                f"Metal left at the floor of {spoken(name)}",
            )
        case "dovetail":
            flanked = dovetail_of(s, name)
            yield at_least(
                f"{name}-floor",
                name,
                high - flanked.depth,
                3.0,
                f"Metal left under {spoken(name)}",
            )
            beside = (
                min(flanked.at, flanked.room - flanked.at)
                - max(flanked.mouth, flanked.floor) / 2
            )
            if isinstance(flanked, MaleDovetail):
                yield at_least(
                    f"{name}-inside",
                    name,
                    beside,
                    0.0,
                    f"Block beside the top of {spoken(name)}",
                )
                yield at_least(
                    f"{name}-foot",
                    name,
                    flanked.floor,
                    flanked.depth,
                    f"Foot of {spoken(name)} (as wide as it is high)",
                )
                return
            yield at_least(
                f"{name}-sides",
                name,
                beside,
                max(3.0, flanked.depth / 2),
                f"Metal beside the foot of {spoken(name)} (half its depth)",
            )
        case "tee":
            yield from _tee_checks(s, name)
        case "vee":
            half = math.radians(s[f"{name}.angle"] / 2)
            yield at_least(
                f"{name}-floor",
                name,
                high - s[f"{name}.width"] / 2 / math.tan(half),
                3.0,
                f"Metal left under {spoken(name)}",
            )
        case "seat":
            wide, deep = s[f"{name}.diameter"], s[f"{name}.depth"]
            yield at_least(
                f"{name}-floor",
                name,
                high - deep,
                max(3.0, wide / 4),
                f"Metal left under {spoken(name)} (a quarter of it)",
            )
            yield at_least(
                f"{name}-half",
                name,
                wide / 2 - deep,
                0.0,
                f"{begun(spoken(name))} no deeper than half its round, or "
                "nothing goes in",
            )
        case "outline":
            corners = corners_of(str(s[f"{name}.points"]))
            yield at_least(
                f"{name}-inside",
                name,
                min(min(x, long - x, y, wide - y) for x, y, _ in corners),
                0.0,
                f"Corners of {spoken(name)} inside the block",
            )
        case "pocket":
            x, y = s[f"{name}.from_side"], s[f"{name}.from_front"]
            far = x + s[f"{name}.length"], y + s[f"{name}.width"]
            yield at_least(
                f"{name}-wall",
                name,
                min(x, y, long - far[0], wide - far[1]),
                3.0,
                f"Wall beside {spoken(name)}",
                grave=False,
            )
            yield at_least(
                f"{name}-corners",
                name,
                min(s[f"{name}.length"], s[f"{name}.width"]) / 2,
                s[f"{name}.radius"],
                f"Half the width of {spoken(name)} for the cutter in its corners",
            )
            if s[f"{name}.depth"]:
                yield at_least(
                    f"{name}-floor",
                    name,
                    high - s[f"{name}.depth"],
                    2.0,
                    f"Metal left at the floor of {spoken(name)}",
                )


def checks(s: Values) -> Iterable[Check]:
    yield at_least("stock", "stock", s["stock.over"], 0.5, "Stock on each side")
    for name in s["parts"]:
        yield from _part_checks(s, name)
    if is_there(s, "lathe.centre_height"):
        yield at_least(
            "height",
            "block",
            s["lathe.centre_height"] - s["block.height"],
            0.0,
            "Height under the centre it is to stand below",
            grave=False,
        )
