"""Machines besides the lathe's dials: mills, drills, grinders, tables, heads.

What is known of a machine is a short list of figures by its kind; none has
to be there before a job asks for it.
"""

import functools
from collections.abc import Mapping
from typing import Literal, get_args

import msgspec
from msgspec import Struct

from machinon.core import quantity
from machinon.core.errors import BadInput
from machinon.core.quantity import COUNT, LENGTH, NUMBER, POWER, in_both_texts
from machinon.core.shop.entry import (
    bare,
    length_said,
    list_said,
    remark,
    screw_said,
    speeds_text,
    words,
)
from machinon.core.shop.things import Lathe
from machinon.core.tables import rows
from machinon.core.tapers.tapers import taper_of

MachineKind = Literal["mill", "drill", "grinder", "rotary table", "dividing head"]
MACHINE_KINDS: tuple[MachineKind, ...] = get_args(MachineKind)


class Machine(msgspec.Struct, frozen=True, tag="machine"):
    """A machine of the shop; figures by key, lengths in mm, as text."""

    id: str
    name: str
    kind: MachineKind
    figures: dict[str, str] = {}
    # the id of the piece that is its spindle or table, empty while nothing of it is
    # measured
    seat: str = ""
    note: str = ""

    def number(self, key: str) -> float:
        """A figure as a number; 0 while it is not known."""
        text = self.figures.get(key, "")
        return float(text) if text else 0.0

    @property
    def power(self) -> float:
        """Its motor, kW; 0 if not known."""
        return self.number("power")

    def numbers(self, key: str) -> tuple[float, ...]:
        """A list of figures, a range every 10; empty while it is not known."""
        text = self.figures.get(key, "")
        if " to " in text:
            low, high = (float(part) for part in text.split(" to "))
            return (*(low + 10 * i for i in range(int((high - low) // 10) + 1)), high)
        return tuple(float(part) for part in text.split(",")) if text else ()


class MachineFigure(Struct, frozen=True):
    """A figure of a machine as it is shown."""

    name: str
    text: str  # empty while it is not known
    size: float = 0.0  # as a number, mm or a count; 0 where it is none


class FigureForm(Struct, frozen=True):
    """A figure that a kind of machine has."""

    key: str
    name: str
    # how it is typed and read
    kind: Literal["length", "count", "number", "power", "list", "taper"]
    low: float
    high: float
    hint: str

    def read(self, typed: str, inch: bool) -> str:
        """A typed figure as it is kept; empty for nothing. Raises BadInput."""
        text = typed.strip()
        if not text:
            return ""
        if self.kind == "taper":
            return taper_of(text, self.key).name
        if self.kind == "list" and " to " in text:
            low, high = (self._one(part, COUNT, inch) for part in text.split(" to ", 1))
            if not low < high:
                raise BadInput(self.key, "A range goes from its lowest to its highest.")
            return f"{low:g} to {high:g}"
        if self.kind == "list":
            parts = [part for part in text.replace(";", ",").split(",") if part.strip()]
            values = sorted({self._one(part, COUNT, inch) for part in parts})
            return ",".join(quantity.typed_again(value) for value in values)
        kinds = {"length": LENGTH, "count": COUNT, "number": NUMBER, "power": POWER}
        return quantity.typed_again(self._one(text, kinds[self.kind], inch))

    def _one(self, text: str, kind: quantity.Kind, inch: bool) -> float:
        return quantity.parse(
            text, kind, inch=inch, key=self.key, low=self.low, high=self.high
        )

    def said(self, kept: str, inch: bool) -> str:
        """A kept figure as it is read, with its unit; empty while it is not known."""
        if not kept:
            return ""
        if self.kind == "length":
            return length_said(float(kept), inch)
        if self.kind == "list":
            return list_said(kept.split(","))
        if self.kind == "power":
            return in_both_texts(float(kept), POWER, inch)[0]
        if self.kind == "number":
            return f"{float(kept):g} {self.hint}"
        return kept

    def shown(self, kept: str, inch: bool) -> MachineFigure:
        """A kept figure as a picture shows it."""
        number = kept and self.kind in ("length", "number", "power", "count")
        return MachineFigure(
            self.name, self.said(kept, inch), float(kept) if number else 0.0
        )

    def typed(self, kept: str, inch: bool) -> str:
        """A kept figure as it would be typed again."""
        if self.kind == "length" and kept:
            return bare(float(kept), inch)
        return kept.replace(",", ", ")


@functools.cache
def figure_forms(kind: str) -> tuple[FigureForm, ...]:
    """The figures that a kind of machine has, in the order they are asked."""
    return tuple(
        FigureForm(
            r["key"],
            r["name"],
            r["kind"],  # type: ignore[arg-type]
            float(r["low"] or 0),
            float(r["high"] or 0),
            r["hint"],
        )
        for r in rows("machine_figures")
        if r["machine"] == kind
    )


def shown_figures(
    kind: str, figures: Mapping[str, str], inch: bool
) -> dict[str, MachineFigure]:
    """Every figure that a kind of machine has, known or not, by key."""
    return {
        form.key: form.shown(figures.get(form.key, ""), inch)
        for form in figure_forms(kind)
    }


LATHE_ENTRIES = (
    ("name", "Name"),
    ("centre_height", "Centre height over the bed"),
    ("between_centres", "Between centres"),
    ("swing_over_slide", "Swings over the cross slide"),
    ("speeds", "Speeds, rpm"),
    ("dial_division", "One line of the cross dial"),
    ("lead_screw", "Lead screw, pitch or 8tpi"),
    ("wheels", "Change wheels, teeth"),
    ("tailstock", "Tailstock's taper"),
)
_LATHE_LENGTHS = (
    "centre_height",
    "between_centres",
    "swing_over_slide",
    "dial_division",
)


def lathe_figures(lathe: Lathe, inch: bool) -> dict[str, MachineFigure]:
    """Every figure of a lathe, known or not, by the key of its entry."""
    speeds = speeds_text(lathe)
    said = {
        "speeds": speeds if lathe.stepless else list_said(speeds.split(", ")),
        "wheels": list_said([str(teeth) for teeth in lathe.wheels]),
        "tailstock": lathe.tailstock,
        "lead_screw": screw_said(lathe.lead_screw),
    }
    found = {}
    for key, name in LATHE_ENTRIES[1:]:
        size = getattr(lathe, key)
        if key not in _LATHE_LENGTHS:
            found[key] = MachineFigure(name, said[key] if size else "")
        else:
            text = length_said(size, inch) if size else ""
            if key == "dial_division" and text:
                text += " on ⌀" if lathe.dial_reads == "diameter" else " a side"
            found[key] = MachineFigure(name, text, size)
    return {**found, **shown_figures("lathe", lathe.figures, inch)}


def lathe_so_far(typed: Mapping[str, str], inch: bool) -> dict[str, MachineFigure]:
    """A lathe's figures while they are typed; what cannot be read yet is not known."""
    found = {}
    for key, name in LATHE_ENTRIES[1:]:
        text, size = typed.get(key, "").strip(), 0.0
        if key in _LATHE_LENGTHS:
            try:
                size = quantity.parse(text, inch=inch, above=0)
            except BadInput:
                text = ""
            else:
                text = length_said(size, inch)
        found[key] = MachineFigure(name, text, size)
    return found


def read_figures(kind: str, typed: Mapping[str, str], inch: bool) -> dict[str, str]:
    """A machine's figures as typed; those left empty are not kept.

    Raises BadInput naming the entry.
    """
    found = {
        form.key: form.read(typed.get(form.key, ""), inch)
        for form in figure_forms(kind)
    }
    return {key: kept for key, kept in found.items() if kept}


def machine_of(
    typed: Mapping[str, str], kind: MachineKind, id: str, inch: bool, seat: str = ""
) -> Machine:
    """A machine from its entries: name, note, and its kind's figures.

    Raises BadInput naming the entry.
    """
    if kind not in MACHINE_KINDS:
        raise BadInput("kind", f"{kind} is no kind of machine kept here.")
    return Machine(
        id,
        words(typed, "name", "what you call the machine"),
        kind,
        read_figures(kind, typed, inch),
        seat,
        remark(typed),
    )
