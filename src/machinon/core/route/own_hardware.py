"""The hardware of a piece, and the part of it that lies on the shop's own shelf."""

from msgspec.structs import replace

from machinon.core.in_inches import part_with_units
from machinon.core.piece.hardware import Hardware
from machinon.core.piece.made import Made
from machinon.core.shop.belongings import Belongings, Item

CUT_OFF = ("key",)  # what is bought long and sawn to its length
SAME, ALONG = 0.006, 0.3  # mm: of one size, and of one length


def own_hardware(
    made: Made, shelf: Belongings | None, inch: bool = False
) -> tuple[str, ...]:
    """A line for each kind of bought part; where the shelf lists such parts at all, it
    says whether this one is there."""
    parts = (_asked_for(hardware, made.count, inch) for hardware in made.hardware)
    return tuple(
        part.says + _said(part, shelf.of_kind(part.kind) if shelf else ())
        for part in parts
    )


def _asked_for(hardware: Hardware, many: int, inch: bool) -> Hardware:
    name = part_with_units(hardware.name) if inch else hardware.name
    return replace(hardware, name=name, count=hardware.count * many)


def _said(hardware: Hardware, listed: tuple[Item, ...]) -> str:
    if not listed or not hardware.size:  # a spring goes by its force
        return ""
    fits = [
        item
        for item in listed
        if abs(item.size - hardware.size) < SAME
        and (not hardware.length or not item.length or _long_enough(hardware, item))
    ]
    if not fits:
        return ": to be had"
    long = sorted((item for item in fits if item.length), key=lambda item: item.length)
    if long and not hardware.length:
        both = dict.fromkeys((long[0].name, long[-1].name))
        return f", as long as its mate needs: yours, {' to '.join(both)}"
    best = max(fits, key=lambda item: item.count)
    if best.count < hardware.count and hardware.kind not in CUT_OFF:
        return f": only {best.count} of yours, {best.name}"
    return f": yours, {best.name}"


def _long_enough(hardware: Hardware, item: Item) -> bool:
    over = item.length - hardware.length
    return over > -ALONG if hardware.kind in CUT_OFF else abs(over) < ALONG
