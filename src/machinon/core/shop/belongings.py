"""The lists of the shelves: tools, holding, hardware and stock."""

import functools
from collections.abc import Callable, Iterable, Mapping
from fractions import Fraction
from typing import Literal, get_args

import msgspec
from msgspec import Struct
from msgspec.structs import replace

from machinon.core import quantity
from machinon.core.errors import BadInput, unknown
from machinon.core.materials import material as material_named
from machinon.core.quantity import COUNT, INCH, LENGTH, fraction_text
from machinon.core.setting_out.gauge_stack import INCH_SET
from machinon.core.shop.entry import bare, length_said, remark, words
from machinon.core.tables import rows
from machinon.core.threads.nuts import nuts
from machinon.core.threads.screw_thread import Thread, thread_of
from machinon.core.threads.tapping import drills

Shelf = Literal["tools", "holding", "hardware", "stock"]
SHELVES: tuple[Shelf, ...] = get_args(Shelf)
SHELF_NAMES: Mapping[Shelf, str] = {
    "tools": "Tools",
    "holding": "Holding and packing",
    "hardware": "Hardware",
    "stock": "Stock rack",
}
MOST_ITEMS = 5000


class Item(msgspec.Struct, frozen=True):
    """A thing on a shelf; size, second, length in mm, 0 where it has none.

    What they mean is said by its kind; an angle among them is in degrees.
    """

    kind: str
    name: str
    size: float
    second: float = 0.0
    length: float = 0.0
    count: int = 1
    material: str = ""
    note: str = ""


class Belongings(msgspec.Struct, frozen=True, tag="belongings"):
    """One shelf with all its items; id is the shelf."""

    id: Shelf
    name: str
    items: tuple[Item, ...] = ()

    def of_kind(self, kind: str) -> tuple[Item, ...]:
        return tuple(item for item in self.items if item.kind == kind)


class ItemForm(Struct, frozen=True):
    """A kind of item: what its three sizes are, empty where it has none."""

    kind: str
    size: str
    second: str
    length: str


@functools.cache
def item_forms(shelf: Shelf) -> Mapping[str, ItemForm]:
    """The kinds of item on a shelf, by name."""
    return {
        r["kind"]: ItemForm(r["kind"], r["size"], r["second"], r["length"])
        for r in rows("belongings")
        if r["list"] == shelf
    }


def item_of(typed: Mapping[str, str], shelf: Shelf, inch: bool) -> Item:
    """An item from its entries: kind, name, size, second, length, count,
    material and note; an empty name is made from kind and size.

    Raises BadInput naming the entry.
    """
    forms = item_forms(shelf)
    kind = typed.get("kind", "").strip().lower()
    if kind not in {name.lower() for name in forms}:
        raise unknown("kind", kind, forms)
    form = next(form for form in forms.values() if form.kind.lower() == kind)

    def length(key: str, name: str, needed: bool) -> float:
        text = typed.get(key, "").strip()
        if not text and not needed:
            return 0.0
        if text and not name:
            raise BadInput(key, f"A {form.kind} has no such size: leave this empty.")
        own = inch and name != "angle"
        return quantity.parse(text, LENGTH, inch=own, key=key, above=0, high=20_000)

    size = length("size", form.size, True)
    second = length("second", form.second, False)
    if form.kind in ("collet", "vee block", "jack") and second and second < size:
        raise BadInput(
            "second",
            f"It must be at least the first, {length_said(size, inch)}: from small to "
            "large.",
        )
    count = 1
    if typed.get("count", "").strip():
        count = int(
            quantity.parse(typed["count"], COUNT, key="count", low=0, high=100_000)
        )
    made_of = typed.get("material", "").strip()
    name = typed.get("name", "").strip() or f"{form.kind} {bare(size, inch)}"
    return Item(
        form.kind,
        words({"name": name}, "name", "what it is"),
        size,
        second,
        length("length", form.length, False),
        count,
        material_named(made_of, "material").name if made_of else "",
        remark(typed),
    )


def typed_item(item: Item, inch: bool) -> dict[str, str]:
    """An item's entries as they would be typed again."""

    def size(value: float) -> str:
        return bare(value, inch) if value else ""

    return {
        "kind": item.kind,
        "name": item.name,
        "size": size(item.size),
        "second": size(item.second),
        "length": size(item.length),
        "count": str(item.count),
        "material": item.material,
        "note": item.note,
    }


def with_items(shelf: Belongings, added: tuple[Item, ...]) -> Belongings:
    """The shelf with items put on it; one of the same kind and name is replaced.

    Raises BadInput on `name` where the shelf would hold too many.
    """
    new = {(item.kind, item.name): item for item in added}
    kept = [new.pop((old.kind, old.name), old) for old in shelf.items]
    made = (*kept, *new.values())
    if len(made) > MOST_ITEMS:
        raise BadInput("name", f"A shelf holds up to {MOST_ITEMS} items.")
    return replace(shelf, items=tuple(sorted(made, key=lambda i: (i.kind, i.size))))


def without_item(shelf: Belongings, item: Item) -> Belongings:
    """The shelf without an item."""
    return replace(shelf, items=tuple(i for i in shelf.items if i != item))


# -- starter sets -------------------------------------------------------------


class StarterSet(Struct, frozen=True):
    """A set that is added with one action and edited to what one owns."""

    key: str
    shelf: Shelf
    name: str
    items: Callable[[], tuple[Item, ...]]
    inch: bool = False  # as an inch shop has it


def _drills(series: str, least: float, most: float) -> tuple[Item, ...]:
    return tuple(
        Item("drill", f"drill {drill.name}", round(drill.size, 4))
        for drill in drills(series)
        if least - 1e-9 <= drill.size <= most + 1e-9
    )


def _metric_drills(step: float) -> tuple[Item, ...]:
    count = round(12 / step)
    return tuple(
        Item("drill", f"drill {1 + i * step:.4g} mm", round(1 + i * step, 4))
        for i in range(count + 1)
    )


def _slips() -> tuple[Item, ...]:
    """The 47 pieces: 1.005; 1.01 to 1.09; 1.1 to 1.9; 1 to 24; 25 to 100."""
    sizes = [1.005]
    sizes += [1 + i / 100 for i in range(1, 10)]
    sizes += [1 + i / 10 for i in range(1, 10)]
    sizes += [float(i) for i in range(1, 25)]
    sizes += [25.0, 50.0, 75.0, 100.0]
    return tuple(Item("slip gauge", f"slip {size:g}", round(size, 4)) for size in sizes)


def _taps(threads: Iterable[str]) -> tuple[Item, ...]:
    return tuple(
        Item("tap", f"{name} {sort}", round(thread.major, 4), thread.pitch)
        for name, thread in _threads(threads)
        for sort in ("taper", "plug", "bottoming")
    )


def _screws(threads: Iterable[str], lengths: Mapping[str, float]) -> tuple[Item, ...]:
    """Twenty of each; lengths: in mm, by their names."""
    return tuple(
        Item(
            "screw",
            f"{name} × {said} cap",
            round(thread.major, 4),
            thread.pitch,
            long,
            20,
        )
        for name, thread in _threads(threads)
        for said, long in lengths.items()
    )


def _nuts(threads: Iterable[str]) -> tuple[Item, ...]:
    """Twenty of each."""
    return tuple(
        Item("nut", f"nut {name}", round(thread.major, 4), thread.pitch, 0.0, 20)
        for name, thread in _threads(threads)
    )


def _washers(screws: Iterable[str]) -> tuple[Item, ...]:
    """Twenty of each, as large and thick as their standard has them."""
    return tuple(
        Item(
            "washer",
            f"washer for {name}",
            round(thread.major, 4),
            nuts()[name.partition("-")[0]].washer_outside,
            nuts()[name.partition("-")[0]].washer_thickness,
            20,
        )
        for name, thread in _threads(screws)
    )


def _threads(names: Iterable[str]) -> Iterable[tuple[str, Thread]]:
    return ((name, thread_of(name)) for name in names)


def _plain(kind: str, *sizes: float) -> Callable[[], tuple[Item, ...]]:
    def make() -> tuple[Item, ...]:
        return tuple(Item(kind, f"{kind} {size:g} mm", float(size)) for size in sizes)

    return make


def _plain_inches(kind: str, parts: int, *sizes: int) -> Callable[[], tuple[Item, ...]]:
    """Tools of so many parts of an inch."""
    fractions = [Fraction(size, parts) for size in sizes]
    return lambda: tuple(
        Item(kind, f"{kind} {fraction_text(size)} in", round(float(size) * INCH, 4))
        for size in fractions
    )


def _inch_slips() -> tuple[Item, ...]:
    return tuple(
        Item("slip gauge", f"slip {size:g} in", round(size * INCH, 6))
        for size in INCH_SET
    )


def _inch_collets() -> tuple[Item, ...]:
    """By 32nds, each closing by one of them, from 1/8 to 3/4."""
    sizes = [Fraction(i, 32) for i in range(4, 25)]
    return tuple(
        Item(
            "collet",
            f"collet {fraction_text(size)} in",
            float(size - Fraction(1, 32)) * INCH,
            float(size) * INCH,
        )
        for size in sizes
    )


def _gauge_pins() -> tuple[Item, ...]:
    """By thous, a thou over 0.060 to 0.250."""
    thous = range(61, 251)
    return tuple(
        Item("pin", f"pin {i / 1000:.3f} in", round(i * INCH / 1000, 4)) for i in thous
    )


def _collets() -> tuple[Item, ...]:
    return tuple(
        Item("collet", f"collet {size} to {size - 1}", size - 1.0, float(size))
        for size in range(2, 17)
    )


_METRIC = ("M3", "M4", "M5", "M6", "M8", "M10", "M12")
_UNC = tuple(
    f"{size} UNC"
    for size in ("#6-32", "#8-32", "#10-24", "1/4-20", "5/16-18", "3/8-16", "1/2-13")
)
_LENGTHS = {f"{long}": float(long) for long in (12, 16, 20, 25, 30, 40)}
_INCH_LENGTHS = {
    f"{fraction_text(Fraction(i, 4))} in": i / 4 * INCH for i in range(2, 9)
}
STARTER_SETS: tuple[StarterSet, ...] = (
    StarterSet(
        "drills",
        "tools",
        "Metric drills 1 to 13 by halves",
        lambda: _metric_drills(0.5),
    ),
    StarterSet(
        "drills-fine",
        "tools",
        "Metric drills 1 to 13 by tenths",
        lambda: _metric_drills(0.1),
    ),
    StarterSet(
        "number-drills",
        "tools",
        "Number drills",
        lambda: _drills("number", 0, 10),
        True,
    ),
    StarterSet(
        "letter-drills",
        "tools",
        "Letter drills",
        lambda: _drills("letter", 0, 20),
        True,
    ),
    StarterSet(
        "inch-drills",
        "tools",
        "Inch drills 1/16 to 1/2",
        lambda: _drills("fraction", INCH / 16, INCH / 2),
        True,
    ),
    StarterSet(
        "taps", "tools", "Taps M3 to M12, three of each", lambda: _taps(_METRIC)
    ),
    StarterSet(
        "reamers",
        "tools",
        "Hand reamers 3 to 12",
        _plain("reamer", 3, 4, 5, 6, 8, 10, 12),
    ),
    StarterSet(
        "end-mills",
        "tools",
        "End mills 3 to 20",
        _plain("end mill", 3, 4, 5, 6, 8, 10, 12, 16, 20),
    ),
    StarterSet("slips", "holding", "Slip gauges, 47 pieces", _slips),
    StarterSet(
        "parallels",
        "holding",
        "Parallels 12 to 40",
        _plain("parallel", 12, 16, 20, 24, 28, 32, 36, 40),
    ),
    StarterSet("collets", "holding", "Collets 1 to 16, a millimetre each", _collets),
    StarterSet(
        "pins",
        "holding",
        "Measuring pins 1 to 10 by halves",
        _plain("pin", *(1 + i / 2 for i in range(19))),
    ),
    StarterSet(
        "screws",
        "hardware",
        "Cap screws M4 to M10",
        lambda: _screws(_METRIC[1:-1], _LENGTHS),
    ),
    StarterSet("nuts", "hardware", "Nuts M4 to M12", lambda: _nuts(_METRIC[1:])),
    StarterSet(
        "washers", "hardware", "Washers for M4 to M12", lambda: _washers(_METRIC[1:])
    ),
    StarterSet(
        "dowels", "hardware", "Dowels 3 to 12", _plain("dowel", 3, 4, 5, 6, 8, 10, 12)
    ),
    StarterSet(
        "balls", "hardware", "Balls 3 to 12", _plain("ball", 3, 4, 5, 6, 8, 10, 12)
    ),
    StarterSet(
        "bars",
        "stock",
        "Round bars 10 to 50",
        _plain("round", 10, 12, 16, 20, 25, 30, 40, 50),
    ),
    StarterSet(
        "inch-taps",
        "tools",
        "UNC taps #6 to 1/2, three of each",
        lambda: _taps(_UNC),
        True,
    ),
    StarterSet(
        "inch-reamers",
        "tools",
        "Hand reamers 1/8 to 1/2",
        _plain_inches("reamer", 16, *range(2, 9)),
        True,
    ),
    StarterSet(
        "inch-end-mills",
        "tools",
        "End mills 1/8 to 3/4",
        _plain_inches("end mill", 16, 2, 3, 4, 5, 6, 8, 10, 12),
        True,
    ),
    StarterSet(
        "inch-slips", "holding", "Slip gauges, 81 pieces in inches", _inch_slips, True
    ),
    StarterSet(
        "inch-parallels",
        "holding",
        "Parallels 1/2 to 1 5/8",
        _plain_inches("parallel", 8, *range(4, 14)),
        True,
    ),
    StarterSet(
        "inch-collets", "holding", "Collets 1/8 to 3/4, by 32nds", _inch_collets, True
    ),
    StarterSet(
        "gauge-pins",
        "holding",
        "Gauge pins 0.061 to 0.250 in",
        _gauge_pins,
        True,
    ),
    StarterSet(
        "inch-screws",
        "hardware",
        "Cap screws #8 to 3/8",
        lambda: _screws(_UNC[1:-1], _INCH_LENGTHS),
        True,
    ),
    StarterSet(
        "inch-nuts", "hardware", "Nuts #8 to 1/2", lambda: _nuts(_UNC[1:]), True
    ),
    StarterSet(
        "inch-washers",
        "hardware",
        "Washers for 1/4 to 1/2",
        lambda: _washers(_UNC[3:]),
        True,
    ),
    StarterSet(
        "inch-dowels",
        "hardware",
        "Dowels 1/8 to 1/2",
        _plain_inches("dowel", 16, 2, 3, 4, 5, 6, 8),
        True,
    ),
    StarterSet(
        "inch-balls",
        "hardware",
        "Balls 1/8 to 1/2",
        _plain_inches("ball", 32, 4, 5, 6, 7, 8, 10, 12, 16),
        True,
    ),
    StarterSet(
        "inch-bars",
        "stock",
        "Round bars 3/8 to 2",
        _plain_inches("round", 8, 3, 4, 5, 6, 8, 10, 12, 16),
        True,
    ),
)


def starter_sets(shelf: Shelf, inch: bool = False) -> tuple[StarterSet, ...]:
    """The sets for a shelf, in one unit."""
    return tuple(s for s in STARTER_SETS if (s.shelf, s.inch) == (shelf, inch))
