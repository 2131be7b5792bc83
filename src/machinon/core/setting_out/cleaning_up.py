"""Whether stock comes clean all round, as it runs in the chuck."""

from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import LENGTH
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning


def run_out_most(stock: float, size: float, skin: float = 0.0) -> float:
    """Largest run-out of stock, on the indicator, that still cleans up all round: mm.

    stock, size: rough and finished diameter, either the larger (a cored hole is
    opened); skin: of scale or sand to a side. Negative where it never does.
    """
    return abs(stock - size) - 2 * skin


@reckoning(
    "cleans-up",
    group="Setting up",
    title="Whether stock comes clean, as it runs in the chuck",
    usual={"stock": 50, "size": 48, "run_out": 0.6, "skin": 0.3},
    inputs=(
        Input("stock", LENGTH, "across the rough stock, or its cored hole", above=0),
        Input("size", LENGTH, "diameter that it is turned or bored to", above=0),
        Input("run_out", LENGTH, "full indicator swing of the rough stock", low=0),
        Input("skin", LENGTH, "scale, sand or hard skin to a side", 0.0, low=0),
    ),
    results=(
        Result("least", LENGTH, "of metal that comes off at the low side"),
        Result("most", LENGTH, "of metal that comes off at the high side"),
        Result("spare", LENGTH, "of sound metal under the skin, at the low side"),
        Result("run_out_most", LENGTH, "largest indicator swing that still cleans up"),
        Result("stock_needed", LENGTH, "stock that comes clean as it runs now"),
        Result("advice", TEXT, "what to do"),
    ),
    sources=(
        "geometry: a side loses half the difference of the diameters, less or more "
        "by half the indicator's swing",
    ),
)
def _cleans_up(
    trail: Trail, stock: float, size: float, run_out: float, skin: float
) -> dict[str, Any]:
    if stock == size:
        raise BadInput("size", "Rough and finished size must differ.")
    bored = size > stock
    off = trail.step("Off a side", f"|{stock:g} − {size:g}| / 2", abs(stock - size) / 2)
    # a bore takes least where the hole already reaches out furthest: the same sum
    least = trail.step("Low side", f"{off:g} − {run_out:g} / 2", off - run_out / 2)
    most = trail.step("High side", f"{off:g} + {run_out:g} / 2", off + run_out / 2)
    spare = trail.step("Spare", f"{least:g} − {skin:g}", least - skin)
    may = trail.step(
        "May swing",
        f"|{stock:g} − {size:g}| − 2 × {skin:g}",
        run_out_most(stock, size, skin),
    )
    way = -1 if bored else 1
    needed = trail.step(
        "Stock needed",
        f"{size:g} {'−' if bored else '+'} ({run_out:g} + 2 × {skin:g})",
        size + way * (run_out + 2 * skin),
    )
    if spare > 0:
        advice = "It comes clean as it runs now."
    elif may > 0:
        advice = "Set it truer first: as it runs now, a place stays raw."
    elif bored:
        advice = "It cannot come clean, however true: bore larger, or cast smaller."
    else:
        advice = "It cannot come clean, however true: take larger stock."
    trail.notes.append(
        "Read it at both ends: a bent bar runs out more away from the jaws."
    )
    results: dict[str, Any] = {"least": least, "most": most, "spare": spare}
    if may > 0:
        results["run_out_most"] = may
    if needed > 0:
        results["stock_needed"] = needed
    return {**results, "advice": advice}
