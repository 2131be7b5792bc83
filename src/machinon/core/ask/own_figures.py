"""The inputs that the shop's own machines and shelves supply to a reckoning."""

from collections.abc import Iterable, Mapping
from typing import Any

from msgspec import Struct

from machinon.core.ask.inch_question import inch_question
from machinon.core.quantity import as_kept
from machinon.core.reckoning import Reckoning
from machinon.core.shop.belongings import Belongings
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe

# a rack with gaps is no series to choose from
LEAST_DRILLS = 20


class Own(Struct, frozen=True):
    """Inputs that the shop knows, each with its unit, and whose they are."""

    inputs: Mapping[str, Any] = {}
    whose: tuple[str, ...] = ()

    def with_usual(self, reckoning: Reckoning, inch: bool = False) -> dict[str, Any]:
        """The usual question of a reckoning, about what the shop owns.

        inch: as an inch shop would ask it.
        """
        usual = inch_question(reckoning) if inch else reckoning.usual
        return {**usual, **self.inputs}


class OwnFigures(Struct, frozen=True):
    """The machines and shelves of a shop that a reckoning can be about."""

    lathe: Lathe | None = None
    machines: tuple[Machine, ...] = ()
    shelves: Mapping[str, Belongings] = {}  # by id

    def of(self, reckoning: Reckoning) -> Own:
        """The inputs of a reckoning that the shop knows; others are left out."""
        inputs: dict[str, Any] = {}
        whose: list[str] = []
        keys = {asked.key for asked in reckoning.inputs}
        for name, own in self._known(reckoning.name):
            known = {k: v for k, v in own.items() if v and k in keys}
            if known:
                inputs |= known
                whose.append(f"{name}: {_listed(known)}")
        return Own(inputs, tuple(whose))

    def _known(self, reckoner: str) -> Iterable[tuple[str, dict[str, Any]]]:
        lathe = self.lathe
        if lathe is not None:
            yield (
                lathe.name,
                {
                    "leadscrew": lathe.lead_screw,
                    "gears": list(lathe.wheels),
                    "machine_speeds": list(lathe.speed_choices),
                },
            )
            if reckoner == "passes":
                # a slide along the bed reads its travel, whatever the cross one counts
                radius = "radius" if lathe.dial_reads == "radius" else ""
                yield (
                    lathe.name,
                    {"division": as_kept(lathe.dial_division), "dial": radius},
                )
        if reckoner == "dividing":
            divides = next((m for m in self.machines if m.number("worm")), None)
            if divides is not None:
                yield (
                    divides.name,
                    {
                        "worm": int(divides.number("worm")),
                        "plates": [int(circle) for circle in divides.numbers("plates")],
                    },
                )
        if reckoner == "gauge-stack" and "holding" in self.shelves:
            slips = self.shelves["holding"].of_kind("slip gauge")
            yield (
                "your slips",
                {"pieces": [as_kept(slip.size) for slip in slips]},
            )
        if "tools" in self.shelves:
            drills = self.shelves["tools"].of_kind("drill")
            if len(drills) >= LEAST_DRILLS:
                yield (
                    "your drills",
                    {"series": [as_kept(d.size) for d in drills]},
                )


_NAMES = {
    "leadscrew": "lead screw",
    "gears": "wheels",
    "machine_speeds": "speeds",
    "division": "dial line",
    "dial": "dial",
    "worm": "worm",
    "plates": "plates",
}


def _listed(known: Mapping[str, Any]) -> str:
    words = []
    for key, value in known.items():
        name = _NAMES.get(key, "")
        if isinstance(value, list):
            words.append(f"{len(value)} {name or 'sizes'}")
        else:
            said = value if isinstance(value, str) else f"{value:g}"
            words.append(f"{name} {said}")
    return ", ".join(words)
