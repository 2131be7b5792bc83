"""What the shop's own machines and shelves put into a reckoning's usual question."""

from collections.abc import Iterable, Mapping
from typing import Any

from machinon.core.belongings import Belongings
from machinon.core.machines import Machine
from machinon.core.reckoning import Reckoning
from machinon.core.shop import Lathe


def own_question(
    one: Reckoning,
    lathe: Lathe | None,
    machines: Iterable[Machine],
    shelves: Mapping[str, Belongings],
) -> dict[str, Any]:
    """The usual question of a reckoning, about what the shop owns.

    shelves: by id. What the shop does not know stays as it usually is.
    """
    given = dict(one.usual)
    keys = {asked.key for asked in one.inputs}
    own: dict[str, Any] = {}
    if lathe is not None:
        own |= {
            "leadscrew": lathe.lead_screw,
            "gears": list(lathe.wheels),
            "machine_speeds": list(lathe.speed_choices),
        }
    if one.name == "dividing":
        own |= _dividing(machines)
    if one.name == "gauge-stack" and "holding" in shelves:
        slips = [i.size for i in shelves["holding"].of_kind("slip gauge")]
        own["pieces"] = slips
    if one.name == "tap-drill" and "tools" in shelves:
        sizes = [f"{i.size:g}" for i in shelves["tools"].of_kind("drill")]
        # a rack with gaps is no series to choose from
        if len(sizes) >= 20:
            own["series"] = sizes
    return given | {key: value for key, value in own.items() if value and key in keys}


def _dividing(machines: Iterable[Machine]) -> dict[str, Any]:
    """Worm and plates of the first machine that divides."""
    for one in machines:
        if one.number("worm"):
            plates = [int(circle) for circle in one.numbers("plates")]
            return {"worm": int(one.number("worm")), "plates": plates}
    return {}
