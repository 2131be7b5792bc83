"""Cutting a thread: its size by wires or by its crests, and the passes."""

import contextlib
import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.reckoning import FLAG, TEXT, Input, Result, Trail, reckoning
from machinon.core.threads.screw_thread import Form, Thread, thread_of
from machinon.core.threads.thread_limits import ThreadLimits, thread_limits

# share of the first pass that each depth rule gives; sharp cuts to a point
DEPTHS = ("sharp", "truncated", "minor")
SCHOOLS = ("plunge", "flank", "alternate")


def wire_range(thread: Thread) -> tuple[float, float, float]:
    """Best, smallest and largest wire that touches the flanks, mm.

    Best touches at the pitch line; the smallest just stands over the crest;
    the largest touches at the crest. Source: geometry of the basic profile.

    >>> [round(w, 4) for w in wire_range(thread_of("M10x1"))]
    [0.5774, 0.5052, 1.0104]
    """
    a = math.radians(thread.form.angle / 2)
    crest = (thread.major - thread.pitch_diameter) / 2
    reach = thread.pitch / (4 * math.tan(a)) + crest
    best = thread.pitch / (2 * math.cos(a))
    least = 2 * reach / (1 + 1 / math.sin(a))
    most = 2 * reach * math.sin(a) / math.cos(a) ** 2
    return best, least, most


def size_over_wires(thread: Thread, pitch_diameter: float, wire: float) -> float:
    """Size over three wires for a pitch diameter, mm; the lead angle left out."""
    a = math.radians(thread.form.angle / 2)
    return (
        pitch_diameter + wire * (1 + 1 / math.sin(a)) - thread.pitch / (2 * math.tan(a))
    )


def _kept_limits(thread: Thread, external_class: str | None) -> ThreadLimits | None:
    """The limits of a class; of the usual one where they are kept, else None."""
    if external_class is not None:
        return thread_limits(thread, "", external_class)
    if thread.form_name in ("metric", "unified"):
        with contextlib.suppress(BadInput):
            return thread_limits(thread)
    return None


@reckoning(
    "thread-wires",
    group="Threads",
    title="Measuring a thread over three wires",
    usual={"thread": "M10"},
    inputs=(
        Input("thread", TEXT, "the thread, such as M8 or 5/16-18"),
        Input("wire", LENGTH, "the wires; else the best", default=None, above=0),
        Input("measured", LENGTH, "read over them", default=None, above=0),
        Input("external_class", TEXT, "class for limits", default=None),
    ),
    results=(
        Result("best_wire", LENGTH, "touches at the pitch line"),
        Result("wire_min", LENGTH, "smallest that stands over the crest"),
        Result("wire_max", LENGTH, "largest that touches the flanks"),
        Result("over_wires", LENGTH, "for the basic pitch diameter"),
        Result("over_wires_min", LENGTH, "least for the class"),
        Result("over_wires_max", LENGTH, "most for the class"),
        Result("pitch_diameter", LENGTH, "from the size read"),
    ),
    sources=("geometry; M = d2 + w(1 + 1/sin(α/2)) − P/2 · cot(α/2)",),
)
def _thread_wires(
    trail: Trail,
    thread: str,
    wire: float | None,
    measured: float | None,
    external_class: str | None,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    best, least, most = wire_range(sizes)
    trail.step(
        "Best wire", f"{sizes.pitch:g} / (2 cos {sizes.form.angle / 2:g}°)", best
    )
    used = best if wire is None else wire
    if not least - 5e-5 <= used <= most + 5e-5:  # as they are written
        raise BadInput(
            "wire",
            f"{used:g} mm cannot touch the flanks of {sizes.name}: from {least:.4f} "
            f"and up to {most:.4f} mm can.",
        )
    a = math.radians(sizes.form.angle / 2)
    over = trail.step(
        "Over wires",
        f"{sizes.pitch_diameter:.4f} + {used:.4f} × {1 + 1 / math.sin(a):.5f} − "
        f"{sizes.pitch:g} × {1 / (2 * math.tan(a)):.5f}",
        size_over_wires(sizes, sizes.pitch_diameter, used),
    )
    results: dict[str, Any] = {
        "best_wire": best,
        "wire_min": least,
        "wire_max": most,
        "over_wires": over,
    }
    if limits := _kept_limits(sizes, external_class):
        for end in ("min", "max"):
            size = getattr(limits, f"external_pitch_{end}")
            results[f"over_wires_{end}"] = size_over_wires(sizes, size, used)
    if measured is not None:
        results["pitch_diameter"] = trail.step(
            "Pitch diameter",
            f"{measured:g} − {over - sizes.pitch_diameter:.4f}",
            measured - (over - sizes.pitch_diameter),
        )
    if sizes.lead_angle > 5:
        trail.cautions.append(
            "The lead is steep: the wires lie aslant, and this sum is some microns off."
        )
    return results


def crest_flat(thread: Thread, outside: float, pitch_diameter: float) -> float:
    """Width of the flat that a pointed tool leaves on the crests, mm.

    outside: diameter over the crests, mm. Negative where the flanks meet below it.
    Source: geometry; at the pitch diameter the ridge is half a pitch wide.

    >>> round(crest_flat(thread_of("M8"), 8, thread_of("M8").pitch_diameter), 5)
    0.15625
    """
    return thread.pitch / 2 - (outside - pitch_diameter) * _slope(thread)


def _slope(thread: Thread) -> float:
    """Narrowing of half a ridge for each mm outwards."""
    return math.tan(math.radians(thread.form.angle / 2))


@reckoning(
    "crest-flat",
    group="Threads",
    title="A thread judged by the flat on its crests",
    usual={"thread": "M10"},
    inputs=(
        Input("thread", TEXT, "the thread, such as M8 or 5/16-18"),
        Input(
            "outside",
            LENGTH,
            "over the crests, as it was turned; else the most of its class",
            default=None,
            above=0,
        ),
        Input("measured", LENGTH, "width of the flat, read", default=None, above=0),
        Input("external_class", TEXT, "class for limits", default=None),
    ),
    results=(
        Result("flat", LENGTH, "middle of its class; else by the basic pitch diameter"),
        Result("flat_min", LENGTH, "least for the class: it is cut deepest there"),
        Result("flat_max", LENGTH, "most for the class"),
        Result("pitch_diameter", LENGTH, "from the flat read"),
    ),
    sources=("geometry; flat = P/2 − (d − d2) tan(α/2), crests not rounded",),
)
def _crest_flat(
    trail: Trail,
    thread: str,
    outside: float | None,
    measured: float | None,
    external_class: str | None,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    limits = _kept_limits(sizes, external_class)
    if outside is None:
        outside = limits.external_major_max if limits else sizes.major
    slope = _slope(sizes)
    # where the flanks of the basic thread meet, to the micron that is written
    sharp = round(sizes.pitch_diameter + sizes.pitch / 2 / slope, 3)
    if not sizes.pitch_diameter < outside <= sharp:
        raise BadInput(
            "outside",
            f"The crests of {sizes.name} lie above {sizes.pitch_diameter:.3f} mm and "
            f"up to {sharp:.3f} mm, where its flanks meet.",
        )
    least, most = sizes.pitch_diameter, sizes.pitch_diameter
    if limits:
        least, most = limits.external_pitch_min, limits.external_pitch_max
    aim = (least + most) / 2
    results = {
        "flat": trail.step(
            "Flat on the crest",
            f"{sizes.pitch:g} / 2 − ({outside:.4f} − {aim:.4f}) × "
            f"tan {sizes.form.angle / 2:g}°",
            max(crest_flat(sizes, outside, aim), 0.0),
        )
    }
    if limits:
        results["flat_min"] = max(crest_flat(sizes, outside, least), 0.0)
        results["flat_max"] = max(crest_flat(sizes, outside, most), 0.0)
    if measured is not None:
        if measured >= sizes.pitch:
            raise BadInput(
                "measured", f"Under the pitch, {sizes.pitch:g} mm, is allowed."
            )
        results["pitch_diameter"] = trail.step(
            "Pitch diameter",
            f"{outside:.4f} − ({sizes.pitch:g} / 2 − {measured:g}) / "
            f"tan {sizes.form.angle / 2:g}°",
            outside - (sizes.pitch / 2 - measured) / slope,
        )
        trail.cautions.append(
            f"0.1 mm more or less on the flat is {0.1 / slope:.2f} mm on the pitch "
            "diameter: wires, or the nut, tell more."
        )
    return results


def total_depth(thread: Thread, depth: str, internal: bool) -> float:
    """Depth of the tool below the crest, radial mm. See the contract's words."""
    form = thread.form
    if form.angle != 60:
        if internal:
            return (thread.major - thread.minor_internal) / 2
        if form.name in ("whitworth", "pipe") and depth == "sharp":
            return form.height * thread.pitch
        return (thread.major - thread.minor_external) / 2
    if depth == "sharp":
        return form.height * thread.pitch
    if internal:
        return (thread.major - thread.minor_internal) / 2
    return (thread.major - thread.minor_external) / 2


def _lighter_and_lighter(total: float, first: float, least: float) -> list[float]:
    """Radial passes that add up to the total, none deeper than the one before.

    None is lighter than `least` but a last one that neither joins the others nor
    can be made heavier at the expense of the first.
    """
    cuts: list[float] = []
    left = total
    while left > 1e-9:
        # equal areas of chip: the depth after n passes goes as the root of n
        step = max(first * math.sqrt(len(cuts) + 1) - (total - left), least)
        if step >= left - 1e-9:
            break
        cuts.append(step)
        left -= step
    rest = math.fsum(cuts[1:])
    if left >= least - 1e-9 or not cuts:
        return [*cuts, left]
    if rest and cuts[1] * (1 + left / rest) <= cuts[0] + 1e-9:
        return [cuts[0], *(cut * (1 + left / rest) for cut in cuts[1:])]
    if len(cuts) == 1 and total >= 2 * least:
        return [total - least, least]
    return [*cuts, left]


def refuse_dragging(angle: float, form: Form, what: str) -> None:
    """Refuse a compound set over past half the angle of the flanks, degrees; what: it
    is that is cut. Raises BadInput on `angle`."""
    if angle > form.angle / 2 + 1e-9:
        raise BadInput(
            "angle",
            f"At {angle:g}° the tool's back would drag: up to {form.angle / 2:g}° is "
            f"allowed for {what}.",
        )


def along_compound(trail: Trail, depth: float, angle: float) -> float:
    """What the compound is fed for a depth, mm, set over by an angle, degrees."""
    fed = depth / math.cos(math.radians(angle))
    return trail.step("Along the compound", f"{depth:.4f} / cos {angle:g}°", fed)


@reckoning(
    "thread-passes",
    group="Threads",
    title="Passes of a single-point thread",
    usual={"thread": "M10"},
    inputs=(
        Input("thread", TEXT, "the thread, such as M8 or 5/16-18"),
        Input("school", TEXT, "how it is fed in", default="flank", choices=SCHOOLS),
        Input(
            "angle",
            ANGLE,
            "of the compound; else half a degree under half the flanks'",
            default=None,
            low=0,
            high=60,
        ),
        Input("first", LENGTH, "first pass, radial", default=None, low=0.002, high=2),
        Input(
            "least", LENGTH, "lightest pass, radial", default=0.03, low=0.002, high=1
        ),
        Input(
            "spring", COUNT, "passes without feed at the end", default=2, low=0, high=9
        ),
        Input("depth", TEXT, "how deep", default="truncated", choices=DEPTHS),
        Input("internal", FLAG, "whether it is a nut", default=False),
        Input("bore", LENGTH, "of the nut, over its least", default=None, above=0),
    ),
    results=(
        Result("total_depth", LENGTH, "radial"),
        Result("passes", LENGTH, "radial and compound feed of each pass"),
        Result("compound_total", LENGTH, "along the compound"),
        Result("runout_groove_width", LENGTH, "of a run-out groove"),
        Result("runout_groove_diameter", LENGTH, "of a run-out groove"),
    ),
    sources=(
        "60°: 0.866025 P sharp, 0.613435 P outside, 0.541266 P inside; 55°: 0.640327 P",
        "equal areas: the depth grows as the root of the pass; groove a shop rule",
    ),
)
def _thread_passes(
    trail: Trail,
    thread: str,
    school: str,
    angle: float | None,
    first: float | None,
    least: float,
    spring: int,
    depth: str,
    internal: bool,
    bore: float | None,
) -> dict[str, Any]:
    sizes = thread_of(thread)
    form = sizes.form
    if angle is None:
        angle = form.compound
    if school == "plunge":
        angle = 0.0
    refuse_dragging(angle, form, sizes.name)
    total = trail.step(
        "Total depth",
        f"{depth}, {form.words}, pitch {sizes.pitch:g}",
        total_depth(sizes, depth, internal),
    )
    if bore is not None:
        if not internal:
            raise BadInput("bore", "Only a nut has a bore: say that it is one.")
        taken = (bore - sizes.minor_internal) / 2
        if not 0 <= taken < total:
            raise BadInput(
                "bore",
                f"{sizes.name} is bored to {sizes.minor_internal:.3f} mm at least, and "
                f"below {sizes.minor_internal + 2 * total:.3f} mm.",
            )
        total = trail.step(
            "Left of it",
            f"{total:.4f} − ({bore:.4f} − {sizes.minor_internal:.4f}) / 2",
            total - taken,
        )
    start = min(first if first is not None else 0.22 * math.sqrt(sizes.pitch), total)
    cuts = _lighter_and_lighter(total, start, least)
    slant = math.cos(math.radians(angle))
    passes = [{"radial": cut, "compound": cut / slant} for cut in cuts]
    passes += [{"radial": 0.0, "compound": 0.0}] * spring
    compound = along_compound(trail, total, angle)
    trail.notes.append(
        {
            "plunge": "Straight in with the cross slide: the chip curls from both "
            "flanks; for fine pitches.",
            "flank": "The compound feeds along one flank, a little less than half the "
            "angle, so that the other is shaved.",
            "alternate": "Feed on either flank in turn: for coarse pitches, the tool "
            "wears evenly.",
        }[school]
    )
    trail.cautions.append(
        "Never reach into a turning thread; stop before trying the nut."
    )
    groove = 0.1 * sizes.pitch
    return {
        "total_depth": total,
        "passes": passes,
        "compound_total": compound,
        "runout_groove_width": 3 * sizes.pitch,
        "runout_groove_diameter": (
            sizes.major + 2 * groove if internal else sizes.minor_external - 2 * groove
        ),
    }
