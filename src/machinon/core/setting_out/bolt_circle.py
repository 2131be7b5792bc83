"""Bolt circles: where the holes lie, and the circle found from a span."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import (
    FLAG,
    TEXT,
    Answer,
    Input,
    Result,
    Trail,
    reckon,
    reckoning,
)
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.threads.screws import cap_screws


def even_angles(count: int, start: float = 0.0) -> list[float]:
    """Where what stands evenly round lies, degrees; start: of the first.

    >>> even_angles(3, 90)
    [90.0, 210.0, 330.0]
    """
    return [start + 360 * i / count for i in range(count)]


def hole_points(
    holes: int, diameter: float, start: float = 0.0
) -> tuple[tuple[float, float], ...]:
    """Centres of equally spaced holes, (holes, 2), mm, counter-clockwise.

    start: degrees from the x axis of the first hole.

    >>> [round(x, 3) for x, y in hole_points(3, 100)]
    [50.0, -25.0, -25.0]
    """
    return tuple(
        (
            diameter / 2 * math.cos(math.radians(angle)),
            diameter / 2 * math.sin(math.radians(angle)),
        )
        for angle in even_angles(holes, start)
    )


def circle_from_span(span: float, hole: float, holes: int) -> float:
    """Bolt circle from the span over the outside of two neighbouring holes.

    span, hole: mm. Returns mm. Raises BadInput on `span` or `holes`.
    Source: geometry; span less one hole is the chord of one division.

    >>> round(circle_from_span(6.35 + 50, 6.35, 6), 6)
    100.0
    """
    if holes < 2:
        raise BadInput("holes", "A circle of holes has at least 2 holes.")
    if not span > hole >= 0:
        raise BadInput(
            "span", f"The span over two holes must be more than one hole ({hole:g} mm)."
        )
    return (span - hole) / math.sin(math.pi / holes)


@reckoning(
    "bolt-circle",
    group="Holes, patterns and dividing",
    title="Coordinates of a bolt circle",
    usual={"holes": 7, "diameter": 62},
    inputs=(
        Input("holes", COUNT, "number of holes", low=1, high=1000),
        Input("diameter", LENGTH, "diameter of the circle", above=0),
        Input("start", ANGLE, "angle of the first hole", default=0.0),
        Input("x", LENGTH, "centre, x", default=0.0),
        Input("y", LENGTH, "centre, y", default=0.0),
        Input(
            "from",
            TEXT,
            "where angles start",
            default="x-axis",
            choices=("x-axis", "12-oclock"),
        ),
        Input("clockwise", FLAG, "count clockwise", default=False),
    ),
    results=(
        Result("points", LENGTH, "hole centres, a pair x, y for each hole"),
        Result("chord", LENGTH, "centre to centre of neighbours"),
        Result("angle_step", ANGLE, "angle from hole to hole"),
    ),
    sources=("geometry",),
)
def _bolt_circle(trail: Trail, **given: Any) -> dict[str, Any]:
    holes, diameter = given["holes"], given["diameter"]
    zero = 90.0 if given["from"] == "12-oclock" else 0.0
    sense = -1.0 if given["clockwise"] else 1.0
    step = trail.step("Angle from hole to hole", f"360° / {holes}", 360 / holes, ANGLE)
    chord = 0.0
    if holes > 1:
        chord = trail.step(
            "Chord",
            f"{diameter:g} × sin(180° / {holes})",
            diameter * math.sin(math.pi / holes),
        )
    points = []
    for i in range(holes):
        angle = math.radians(zero + sense * (given["start"] + i * step))
        points.append(
            [
                given["x"] + diameter / 2 * math.cos(angle),
                given["y"] + diameter / 2 * math.sin(angle),
            ]
        )
    return {"points": points, "chord": chord, "angle_step": step}


@reckoning(
    "hole-span",
    group="Holes, patterns and dividing",
    title="Bolt circle from the span over two neighbouring holes",
    usual={"span": 103.15, "hole": 7.89, "holes": 3},
    inputs=(
        Input("span", LENGTH, "over the outside of two neighbouring holes", above=0),
        Input("hole", LENGTH, "diameter of one; 0 for centre to centre", low=0),
        Input("holes", COUNT, "number of holes in the circle", low=2, high=1000),
    ),
    results=(
        Result("chord", LENGTH, "centre to centre of neighbours"),
        Result("diameter", LENGTH, "diameter of the bolt circle"),
    ),
    sources=("geometry: chord = diameter × sin(180° / holes)",),
)
def _hole_span(trail: Trail, span: float, hole: float, holes: int) -> dict[str, Any]:
    diameter = circle_from_span(span, hole, holes)
    chord = trail.step("Centre to centre", f"{span:.3f} − {hole:.3f}", span - hole)
    trail.step("Bolt circle", f"{chord:.3f} / sin(180° / {holes})", diameter)
    return {"chord": chord, "diameter": diameter}


@reckoning(
    "hole-pattern",
    group="Holes, patterns and dividing",
    title="Three holes from the spans between them",
    usual={"hole": 6.5, "span_12": 66.5, "span_23": 56.5, "span_31": 86.5},
    inputs=(
        Input("hole", LENGTH, "diameter of one hole", low=0),
        Input("span_12", LENGTH, "over the outside of holes 1 and 2", above=0),
        Input("span_23", LENGTH, "over the outside of holes 2 and 3", above=0),
        Input("span_31", LENGTH, "over the outside of holes 3 and 1", above=0),
    ),
    results=(
        Result("diameter", LENGTH, "of the circle through the three"),
        Result("points", LENGTH, "hole centres, x along 1 to 2, 1 at the origin"),
        Result("centre", LENGTH, "of the circle, x and y"),
        Result("angles", ANGLE, "on the circle from hole 1 to 2, 2 to 3, 3 to 1"),
    ),
    sources=("geometry: the sides less one hole; diameter = abc / (2 × area)",),
)
def _hole_pattern(
    trail: Trail, hole: float, span_12: float, span_23: float, span_31: float
) -> dict[str, Any]:
    sides = []
    for key, span in (("span_12", span_12), ("span_23", span_23), ("span_31", span_31)):
        if not span > hole:
            raise BadInput(key, f"A span is more than one hole ({hole:g} mm).")
        sides.append(
            trail.step(
                f"Centres {key[-2]} to {key[-1]}", f"{span:g} − {hole:g}", span - hole
            )
        )
    a, b, c = sides
    if not 2 * max(sides) < a + b + c - 1e-9:
        raise BadInput(
            "span_31",
            "The longest span must be less than the other two together: as typed, the "
            "three holes do not close.",
        )
    half = (a + b + c) / 2
    area = math.sqrt(half * (half - a) * (half - b) * (half - c))
    diameter = trail.step(
        "Circle through them",
        f"{a:g} × {b:g} × {c:g} / (2 × {area:.4f} mm²)",
        a * b * c / (2 * area),
    )
    x = (a**2 + c**2 - b**2) / (2 * a)
    y = math.sqrt(max(c**2 - x**2, 0.0))
    centre_y = (x**2 + y**2 - a * x) / (2 * y)
    turned = [
        math.degrees(math.atan2(py - centre_y, px - a / 2))
        for px, py in ((0.0, 0.0), (a, 0.0), (x, y))
    ]
    angles = [(turned[(i + 1) % 3] - turned[i]) % 360 for i in range(3)]
    return {
        "diameter": diameter,
        "points": [[0.0, 0.0], [a, 0.0], [x, y]],
        "centre": [a / 2, centre_y],
        "angles": angles,
    }


DRILLING_ERROR = 0.1  # mm: how far a hole set by read-out may lie off


@reckoning(
    "bolt-room",
    group="Holes, patterns and dividing",
    title="Whether the screws of a circle find their holes",
    usual={"thread": "M8", "circle_doubt": 0.05},
    inputs=(
        Input("thread", TEXT, "the screws, such as M8 or 1/4-20"),
        Input(
            "fit",
            TEXT,
            "how free the screws are",
            default="normal",
            choices=("close", "normal", "loose"),
        ),
        Input(
            "new",
            TEXT,
            "what the new half has: clear holes, or tapped ones",
            default="clear",
            choices=("clear", "tapped"),
        ),
        Input(
            "measured",
            LENGTH,
            "hole, or screw in it, measured in the half that exists",
            default=None,
            above=0,
            high=300,
        ),
        Input("circle_doubt", LENGTH, "of the circle measured, two sigma", 0.0, low=0),
        Input("play", LENGTH, "of what centres the two parts", 0.0, low=0),
        Input("drilling", LENGTH, "how far a hole may lie off", DRILLING_ERROR, low=0),
    ),
    results=(
        Result("hole", LENGTH, "in the new half: clearance hole or tapping drill"),
        Result("passing", LENGTH, "the hole that the screw passes with room"),
        Result("room", LENGTH, "round a screw in that hole"),
        Result("need", LENGTH, "room that drilling, uncertainty and play need"),
        Result("warning", TEXT, "where the screws may bind, else empty"),
        Result("mismatch", TEXT, "where what was measured is of another screw"),
    ),
    sources=("geometry: half of each diameter; the drilling error is a shop rule",),
)
def _bolt_room(
    trail: Trail,
    thread: str,
    fit: str,
    new: str,
    measured: float | None,
    circle_doubt: float,
    play: float,
    drilling: float,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    if new == "tapped" and measured is None:
        raise BadInput(
            "measured",
            "Measure the holes of the half that exists: tapped holes leave no room.",
        )
    if new == "clear":
        clear = reckon("clearance-hole", {"thread": thread, "fit": fit})
        trail.source(str(clear["source"]))
        hole, passing = float(clear["diameter"]), float(clear["diameter"])
    else:
        assert measured is not None
        hole = float(reckon("tap-drill", {"thread": thread})["drill_size"])
        passing = measured
    room = trail.step(
        "Room round a screw",
        f"({passing:g} − {sizes.major:g}) / 2",
        max(passing - sizes.major, 0.0) / 2,
    )
    need = trail.step(
        "Room wanted",
        f"{drilling:g} + {circle_doubt:.4f} / 2 + {play:.4f} / 2",
        drilling + circle_doubt / 2 + play / 2,
    )
    mismatch = (
        "" if measured is None else _other_screw(sizes, measured, new == "tapped")
    )
    warning = ""
    if room < need:
        warning = (
            "The screws may bind: "
            + (
                "drill the next looser clearance hole, "
                if new == "clear"
                else "open up the holes that exist, take a smaller screw, "
            )
            + "or measure the bolt circle more surely."
        )
    trail.cautions += [text for text in (mismatch, warning) if text]
    return {
        "hole": hole,
        "passing": passing,
        "room": room,
        "need": need,
        "warning": warning,
        "mismatch": mismatch,
    }


OPEN = 1.35  # times the screw: a hole wider than this is another screw's


def _other_screw(thread: Thread, measured: float, clear: bool) -> str:
    """Why what was measured cannot belong to a screw; empty where it can.

    clear: the screw has to pass the hole that was measured; else it may also be
    its tapped hole, or the screw itself.
    """
    least = thread.major if clear else thread.minor_internal - 0.05
    if least <= measured <= OPEN * thread.major + 1:
        return ""
    near = min(
        cap_screws().values(),
        key=lambda screw: abs(screw.diameter - measured),
    )
    if clear and measured < least:
        return (
            f"{thread.name} does not pass the hole measured, {measured:.2f} mm: a "
            "smaller screw, or open the holes up."
        )
    return (
        f"Measured {measured:.2f} mm in the half that exists, but the screw chosen is "
        f"{thread.name}, {thread.major:.2f} mm: nearest to it is {near.size}."
    )


def circle_band(circle: float, room: Answer) -> tuple[float, float] | None:
    """The smallest and largest circle on which every screw still goes in, mm.

    circle: of the half that exists; room: the `bolt-room` of both. None where no room
    is left.
    """
    # the need has the drilling in it already, which the circle as drawn does not
    spare = float(room["room"]) - float(room["need"]) + DRILLING_ERROR
    return (circle - 2 * spare, circle + 2 * spare) if spare > 0 else None


@reckoning(
    "chord-check",
    group="Holes, patterns and dividing",
    title="Check a bolt circle over or inside pins",
    usual={"holes": 6, "diameter": 100, "pin": 6},
    inputs=(
        Input("holes", COUNT, "number of holes", low=2, high=1000),
        Input("diameter", LENGTH, "of the circle", above=0),
        Input("pin", LENGTH, "pins, or the holes themselves", default=0.0, low=0),
    ),
    results=(
        Result("over_pins", LENGTH, "over neighbouring pins"),
        Result("inside_pins", LENGTH, "between neighbouring pins"),
        Result("over_pins_opposite", LENGTH, "over the pair furthest apart"),
        Result("inside_pins_opposite", LENGTH, "between the pair furthest apart"),
    ),
    sources=("geometry: chord = diameter × sin(half the angle between)",),
)
def _chord_check(
    trail: Trail, holes: int, diameter: float, pin: float
) -> dict[str, Any]:
    chord = trail.step(
        "Neighbours",
        f"{diameter:g} × sin(180° / {holes})",
        diameter * math.sin(math.pi / holes),
    )
    if not pin < chord:
        raise BadInput(
            "pin", f"Neighbouring pins touch: under {chord:.3f} mm is allowed."
        )
    steps = holes // 2  # opposite, or the nearest to it where the count is odd
    far = trail.step(
        "Opposite",
        f"{diameter:g} × sin({steps} × 180° / {holes})",
        diameter * math.sin(math.pi * steps / holes),
    )
    return {
        "over_pins": chord + pin,
        "inside_pins": chord - pin,
        "over_pins_opposite": far + pin,
        "inside_pins_opposite": far - pin,
    }


@reckoning(
    "index-ring",
    group="Holes, patterns and dividing",
    title="A ring of index holes: do they fit",
    usual={"holes": 24, "diameter": 100, "hole_diameter": 6},
    inputs=(
        Input("holes", COUNT, "number of holes", low=2, high=1000),
        Input("diameter", LENGTH, "of their circle", above=0),
        Input("hole_diameter", LENGTH, "of each hole", above=0),
    ),
    results=(
        Result("land", LENGTH, "metal between neighbours; negative: they overlap"),
        Result("fits", FLAG, "whether they stay apart"),
        Result("angles", ANGLE, "of the holes"),
    ),
    sources=("geometry: land = chord − hole",),
)
def _index_ring(
    trail: Trail, holes: int, diameter: float, hole_diameter: float
) -> dict[str, Any]:
    chord = diameter * math.sin(math.pi / holes)
    land = trail.step(
        "Land",
        f"{diameter:g} × sin(180° / {holes}) − {hole_diameter:g}",
        chord - hole_diameter,
    )
    if land <= 0:
        trail.cautions.append("The holes overlap: a larger circle or smaller holes.")
    elif land < hole_diameter / 4:
        trail.notes.append("The land is thin: drill every other hole first.")
    return {
        "land": land,
        "fits": land > 0,
        "angles": even_angles(holes),
    }
