"""Make it or buy it: metal and hours against a price."""

from typing import Any

from machinon.core.quantity import COUNT, DURATION, MASS, NUMBER
from machinon.core.reckoning import TEXT, Input, Result, Trail, reckoning

ALIKE = 0.1  # of the bought one: nearer than that, the price decides nothing


@reckoning(
    "make-or-buy",
    group="Cutting",
    title="Make it or buy it",
    usual={"stock": 1.7, "per_kg": 4, "time": 7200, "hour": 15, "bought": 48},
    inputs=(
        Input("stock", MASS, "metal that one piece takes", low=0),
        Input("per_kg", NUMBER, "price of a kilogram of it, in your money", low=0),
        Input("time", DURATION, "to make one, with setting up", low=0),
        Input("hour", NUMBER, "what an hour is worth to you; 0 for the fun of it",
              low=0),
        Input("tools", NUMBER, "price of tools that only this needs", default=0.0,
              low=0),
        Input("bought", NUMBER, "price of a bought one, carriage and all", low=0),
        Input("count", COUNT, "how many are wanted", default=1, low=1, high=1000),
    ),
    results=(
        Result("made", NUMBER, "price of those that are made"),
        Result("bought_price", NUMBER, "price of those that are bought"),
        Result("saved", NUMBER, "by making them (− is lost)"),
        Result("from_hour", NUMBER, "worth of an hour at which both cost the same"),
        Result("advice", TEXT, "what that means"),
    ),
    sources=("count × (stock × price + time × worth of an hour) + tools",),
)  # fmt: skip
def _make_or_buy(
    trail: Trail,
    stock: float,
    per_kg: float,
    time: float,
    hour: float,
    tools: float,
    bought: float,
    count: int,
) -> dict[str, Any]:
    hours = time / 3600
    metal = trail.step(
        "Metal", f"{count} × {stock:g} × {per_kg:g}", count * stock * per_kg, NUMBER
    )
    worth = trail.step(
        "Hours", f"{count} × {hours:.4g} × {hour:g}", count * hours * hour, NUMBER
    )
    made = trail.step(
        "Made", f"{metal:.4g} + {worth:.4g} + {tools:g}", metal + worth + tools, NUMBER
    )
    price = trail.step("Bought", f"{count} × {bought:g}", count * bought, NUMBER)
    saved = trail.step("Saved", f"{price:.4g} − {made:.4g}", price - made, NUMBER)
    even = None
    if hours:
        even = trail.step(
            "The same at",
            f"({price:.4g} − {metal:.4g} − {tools:g}) / ({count} × {hours:.4g})",
            (price - metal - tools) / (count * hours),
            NUMBER,
        )
    if abs(saved) <= ALIKE * price:
        advice = "They cost the same: make it if the size, the fit or the fun matters."
    elif saved > 0:
        advice = "Making it is cheaper."
    else:
        advice = (
            "Buying is cheaper, if the bought one fits as well as you would make it."
        )
    trail.notes.append("What you learn and what fits exactly has no price here.")
    return {
        "made": made,
        "bought_price": price,
        "saved": saved,
        "from_hour": even,
        "advice": advice,
    }
