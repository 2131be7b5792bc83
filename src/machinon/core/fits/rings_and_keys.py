"""Retaining rings in their grooves, and Woodruff keys in their seats."""

from collections.abc import Mapping
from typing import Any

from machinon.core.errors import BadInput, unknown
from machinon.core.quantity import INCH, LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning
from machinon.core.tables import rows


@reckoning(
    "circlip",
    group="Measuring over and across",
    title="Groove for a circlip on a shaft or in a bore",
    usual={"diameter": 20},
    usual_inch={"diameter": 20},
    inputs=(
        Input("diameter", LENGTH, "of the shaft or bore", above=0, high=100),
        Input("kind", TEXT, "where it sits", "shaft", choices=("shaft", "bore")),
    ),
    results=(
        Result("groove_diameter", LENGTH, "of the groove's floor"),
        Result("groove_width", LENGTH, "of the groove"),
        Result("thickness", LENGTH, "of the ring"),
        Result("source", TEXT, "the standard"),
    ),
    sources=("DIN 471 (shafts); DIN 472 (bores)",),
)
def _circlip(trail: Trail, diameter: float, kind: str) -> dict[str, Any]:
    known = [r for r in rows("circlips") if r["kind"] == kind]
    found = next(
        (r for r in known if abs(float(r["diameter_mm"]) - diameter) < 0.05), None
    )
    if found is None:
        near = sorted(known, key=lambda r: abs(float(r["diameter_mm"]) - diameter))[:2]
        sizes = " and ".join(sorted((r["diameter_mm"] for r in near), key=float))
        raise BadInput(
            "diameter",
            f"{diameter:g} mm has no ring: next to it are rings of {sizes} mm; "
            f"rings from {known[0]['diameter_mm']} to {known[-1]['diameter_mm']} mm "
            "are kept.",
        )
    groove = trail.step(
        "Groove",
        f"{kind} {diameter:g}, as tabulated",
        float(found["groove_diameter_mm"]),
    )
    trail.notes.append(
        "A square edge on the loaded side, and the ring's sharp side against the load."
    )
    return {
        "groove_diameter": groove,
        "groove_width": float(found["groove_width_mm"]),
        "thickness": float(found["thickness_mm"]),
        "source": found["source"],
    }


@reckoning(
    "e-clip",
    group="Measuring over and across",
    title="Groove for an E-clip, pushed on from the side",
    usual={"diameter": 10},
    inputs=(Input("diameter", LENGTH, "of the shaft", above=0, high=100),),
    results=(
        Result("size", LENGTH, "of the clip, as it is sold"),
        Result("groove_diameter", LENGTH, "of the groove's floor: the clip's size"),
        Result("groove_width", LENGTH, "of the groove"),
        Result("thickness", LENGTH, "of the clip"),
        Result("others", TEXT, "sizes that go on that shaft as well"),
    ),
    sources=("DIN 6799:2011",),
)
def _e_clip(trail: Trail, diameter: float) -> dict[str, Any]:
    known = rows("e_clips")

    def range_of(row: Mapping[str, str]) -> tuple[float, float]:
        return float(row["shaft_least_mm"]), float(row["shaft_most_mm"])

    fits = [row for row in known if range_of(row)[0] <= diameter <= range_of(row)[1]]
    if not fits:
        least, most = range_of(known[0])[0], range_of(known[-1])[1]
        raise BadInput(
            "diameter",
            f"No E-clip goes on {diameter:g} mm: from {least:g} to {most:g} mm there "
            "are some.",
        )
    # the one whose shafts it is in the middle of holds neither by little nor cuts deep;
    # of two such the shallower groove
    best = min(reversed(fits), key=lambda row: abs(sum(range_of(row)) / 2 - diameter))
    least, most = range_of(best)
    groove = trail.step(
        "Groove",
        f"size {best['size_mm']}, for shafts of {least:g} to {most:g}",
        float(best["size_mm"]),
    )
    trail.cautions.append(
        "It flies when it is pushed on or levered off: eyes covered, a rag over it."
    )
    return {
        "size": groove,
        "groove_diameter": groove,
        "groove_width": float(best["groove_width_mm"]),
        "thickness": float(best["thickness_mm"]),
        "others": [row["size_mm"] for row in fits if row is not best],
    }


@reckoning(
    "woodruff",
    group="Measuring over and across",
    title="A Woodruff key: cutter and depths",
    usual={"shaft": 25},
    usual_inch={"shaft": None, "key": "606"},
    inputs=(
        Input("shaft", LENGTH, "diameter of the shaft", None, above=0, high=200),
        Input("key", TEXT, "such as 6x9, or an inch number such as 404", None),
    ),
    results=(
        Result("key", TEXT, "its name"),
        Result("key_width", LENGTH, "width of the key"),
        Result("key_height", LENGTH, "height of the key"),
        Result("cutter", LENGTH, "diameter of the cutter"),
        Result("shaft_depth", LENGTH, "in the shaft, from its side"),
        Result("hub_depth", LENGTH, "in the hub"),
        Result("source", TEXT, "the standard"),
    ),
    sources=("ISO 3912 (metric); ASME B17.2 (inch)",),
)
def _woodruff(trail: Trail, shaft: float | None, key: str | None) -> dict[str, Any]:
    known = rows("woodruff_keys")
    if key is not None:
        word = key.strip().lower().replace("×", "x").replace(" ", "").lstrip("#")
        found = next((r for r in known if r["name"] == word), None)
        if found is None:
            raise unknown("key", word, [r["name"] for r in known])
    elif shaft is not None:
        metric = [r for r in known if r["standard"] == "metric"]
        found = next(
            (r for r in metric if float(r["above"]) < shaft <= float(r["to"])), None
        )
        if found is None:
            raise BadInput(
                "shaft",
                f"Above {metric[0]['above']} and up to {metric[-1]['to']} mm is in the "
                "table; name the key for another.",
            )
    else:
        raise BadInput("shaft", "Give the shaft's diameter, or the key.")
    unit = INCH if found["unit"] == "in" else 1.0

    def size(column: str) -> float:
        return float(found[column]) * unit

    trail.step("Key", f"{found['name']}, as tabulated", size("width"))
    trail.notes.append(
        "Metric depths are from the shaft's crown, inch ones from the seat's corner."
    )
    return {
        "key": found["name"],
        "key_width": size("width"),
        "key_height": size("height"),
        "cutter": size("cutter"),
        "shaft_depth": size("shaft_depth"),
        "hub_depth": size("hub_depth"),
        "source": found["source"],
    }
