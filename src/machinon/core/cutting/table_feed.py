"""The feed of a mill's table, and how fast its handle is wound for it."""

import math
from typing import Any

from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, DURATION, FEED, LENGTH, ROTATION, TRAVEL
from machinon.core.reckoning import Input, Result, Trail, one_of, reckoning


@reckoning(
    "table-feed",
    group="Cutting",
    title="Feed of the table, and how fast to wind it",
    usual={
        "rpm": 800,
        "feed": 0.05,
        "teeth": 4,
        "turn": "4mm",
        "diameter": 12,
        "width": 4,
    },
    usual_inch={"turn": "0.1in"},
    given=(one_of("feed", "travel"),),
    inputs=(
        Input("rpm", ROTATION, "of the cutter", None, above=0),
        Input("teeth", COUNT, "of the cutter", None, low=1, high=400),
        Input("feed", LENGTH, "a tooth; else by the table's", None, above=0, high=10),
        Input("travel", TRAVEL, "of the table, where it is known", None, above=0),
        Input("turn", LENGTH, "that a turn of the handle winds", None, above=0),
        Input("length", LENGTH, "to cut, run in and out included", None, above=0),
        Input("diameter", LENGTH, "of the cutter, for the chip", None, above=0),
        Input("width", LENGTH, "of the cut across the feed", None, above=0),
    ),
    results=(
        Result("tooth", LENGTH, "feed of a tooth"),
        Result("per_turn", FEED, "feed of a turn of the cutter"),
        Result("table_feed", TRAVEL, "of the table"),
        Result("handle_time", DURATION, "to one turn of the handle"),
        Result("time", DURATION, "for the length"),
        Result("chip", LENGTH, "the chip where it is thickest"),
    ),
    sources=(
        "table feed = rpm × teeth × feed a tooth; the chip of a cut narrower than half "
        "the cutter: feed × 2 √(q − q²), q = width / diameter",
    ),
)
def _table_feed(
    trail: Trail,
    rpm: float | None,
    teeth: int | None,
    feed: float | None,
    travel: float | None,
    turn: float | None,
    length: float | None,
    diameter: float | None,
    width: float | None,
) -> dict[str, Any]:
    if (diameter is None) != (width is None):
        missing = "diameter" if diameter is None else "width"
        raise BadInput(missing, "The chip goes by both the cutter and the width.")
    found = dict[str, Any]()
    if travel is None or rpm is not None:
        if rpm is None:
            raise BadInput("rpm", "Give the speed: the table's feed goes by it.")
        if teeth is None:
            raise BadInput("teeth", "Say how many teeth the cutter has.")
        found = _of_the_cutter(trail, rpm, teeth, feed, travel)
    else:
        found["table_feed"] = travel
    table = float(found["table_feed"])
    if turn is not None:
        found["handle_time"] = trail.step(
            "A turn of the handle",
            f"60 × {turn:g} / {table:.6g}",
            60 * turn / table,
            DURATION,
        )
        trail.cautions.append(
            "Feed against the teeth: with them, a screw with play lets the cutter drag "
            "the table in."
        )
    if length is not None:
        found["time"] = trail.step(
            "The length",
            f"60 × {length:g} / {table:.6g}",
            60 * length / table,
            DURATION,
        )
    if diameter is not None and width is not None:
        if "tooth" not in found:
            raise BadInput("rpm", "Give the speed: the chip goes by it.")
        found["chip"] = _chip(trail, found["tooth"], diameter, width)
    return found


def _of_the_cutter(
    trail: Trail, rpm: float, teeth: int, feed: float | None, travel: float | None
) -> dict[str, Any]:
    """The feed of a tooth, of a turn and of the table, one of the ends known."""
    if feed is not None:
        each = trail.step("Feed a turn", f"{feed:g} × {teeth}", feed * teeth, FEED)
        table = trail.step("At the table", f"{rpm:g} × {each:.6g}", rpm * each, TRAVEL)
        return {"tooth": feed, "per_turn": each, "table_feed": table}
    assert travel is not None
    each = trail.step("Feed a turn", f"{travel:g} / {rpm:g}", travel / rpm, FEED)
    tooth = trail.step("Feed a tooth", f"{each:.6g} / {teeth}", each / teeth)
    return {"tooth": tooth, "per_turn": each, "table_feed": travel}


def _chip(trail: Trail, feed: float, diameter: float, width: float) -> float:
    """The chip where a tooth cuts it thickest, mm: at the middle of the cutter where
    the cut reaches so far, else where the tooth leaves or enters the side of it."""
    if width > diameter:
        raise BadInput("width", f"Up to the cutter's {diameter:g} mm.")
    part = width / diameter
    if part >= 0.5:
        return trail.step("Thickest chip", "the feed of a tooth", feed)
    share = 2 * math.sqrt(part - part**2)
    chip = trail.step(
        "Thickest chip",
        f"{feed:.4g} × 2 × √({part:.4g} − {part:.4g}²)",
        feed * share,
    )
    trail.notes.append(
        f"So narrow a cut thins the chip to {100 * share:.0f} % of the feed: "
        f"{feed / share:.3g} mm a tooth makes one as thick as the feed."
    )
    return chip
