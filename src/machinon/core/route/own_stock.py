"""Stock for a piece from the shop's own rack, and the length left of it."""

import math
from collections.abc import Iterator
from typing import NamedTuple

from machinon.core.piece.family import STOCK_BORE
from machinon.core.piece.made import Made
from machinon.core.piece.stock import CLEANS_UP, DRAWN, Bar, Block, stock_said
from machinon.core.quantity import length_text
from machinon.core.setting_out.cleaning_up import run_out_most
from machinon.core.shop.belongings import Belongings, Item

KERF = 2.0  # mm: a saw cut, and what is faced off after it
TIGHT = 3.0  # mm: what runs out by more is set true anyhow
TUBES = ("tube", "casting")
ROUNDS = ("round", "casting", "tube")
FLATS = ("flat", "plate", "square")
SIDED = {4: ("square",), 6: ("hexagon",), 8: ("octagon",)}


class _Fit(NamedTuple):
    """A piece of stock that would do: its metal over what is needed, mm², and how long
    the piece lies in it, mm."""

    over: float
    item: Item
    long: float


def own_stock(made: Made, shelf: Belongings | None, inch: bool) -> str:
    """The advice of the stock shelf on a piece, in a sentence; empty where nothing
    listed there would do."""
    listed = _of_its_kind(made, shelf)
    if not listed:
        return ""
    body = made.body
    sided, hole = isinstance(body.stock, Bar), body.stock.bore
    best = _best(made, listed)
    if best is None:
        return f"Nothing on the rack would do: {_needed(made, inch)}."
    item, long = best.item, best.long
    said = f"On the rack: {item.name}"
    if not item.material:
        said += ", if that is the right metal"
    if item.kind == "tube" and not hole:
        said += ", which spares the drill"
    if body.turns and not sided:
        said += _may_swing(made, item, inch)
    wanted = made.count
    if not item.length:
        each = length_text(long + KERF, 1, inch)
        times = f"{wanted}\u00a0× " if wanted > 1 else ""
        return f"{said}. Cut {times}{each} off."
    there = _yields(best)
    if there < wanted:
        only = "one" if there == 1 else f"{there:g}"
        return f"{said}: enough for {only} of the {wanted}."
    many = f"enough for {there:g}" if there > 1 else "enough for one"
    # of the piece that the last of them is cut from
    last = (wanted - 1) % (there // item.count) + 1
    left = length_text(max(item.length - last * (long + KERF), 0.0), 1, inch)
    return f"{said}: {many}; {left} left after {'it' if wanted == 1 else 'them'}."


def sizes_of_rack(made: Made, shelf: Belongings | None) -> dict[str, float]:
    """The sizes of the piece's stock, mm, that what is best on the rack has otherwise
    than they are drawn; none where the drawing has no such size."""
    best = _best(made, _of_its_kind(made, shelf))
    if best is None or not made.body.turns or isinstance(made.body.stock, Bar):
        return {}
    item = best.item
    bore = item.second if item.kind == "tube" else made.body.stock.bore
    there = {"stock.diameter": item.size, STOCK_BORE.key: bore}
    return {
        key: value
        for key, value in there.items()
        if key in made.sizes and abs(float(made.sizes[key].value) - value) > 1e-3
    }


def _of_its_kind(made: Made, shelf: Belongings | None) -> list[Item]:
    """What the rack has of the kind of stock that the piece is cut from."""
    if shelf is None:
        return []
    stock = made.body.stock
    kinds: tuple[str, ...] = FLATS
    if isinstance(stock, Bar):
        kinds = SIDED[stock.sides]
    elif made.body.turns:
        kinds = TUBES if stock.bore else ROUNDS
    return [item for item in shelf.items if item.kind in kinds]


def _best(made: Made, listed: list[Item]) -> _Fit | None:
    """What wastes least of what would do, and gives all that are to be made."""
    right = [
        item for item in listed if not item.material or item.material == made.material
    ]
    stock = made.body.stock
    if isinstance(stock, Bar):
        fits = list(_of_its_flats(stock, right))
    else:
        fits = list(_turned(made, right) if made.body.turns else _blocks(made, right))
    return min(fits, key=lambda fit: (_yields(fit) < made.count, fit), default=None)


def _yields(fit: _Fit) -> float:
    """How many pieces it gives; no end of them where its length is not said."""
    item = fit.item
    if not item.length:
        return math.inf
    return int((item.length + KERF) / (fit.long + KERF)) * item.count


def _sides(made: Made) -> tuple[float, float, float]:
    """Length, width and height that a block needs with what cleans up."""
    low, high = made.body.shadow.box[:3], made.body.shadow.box[3:]
    a, b, c = (hi - lo + 2 * CLEANS_UP for lo, hi in zip(low, high, strict=True))
    return a, b, c


def _length(made: Made) -> float:
    """Length of bar that a turned piece takes, as its stock is drawn."""
    stock = made.body.stock
    assert not isinstance(stock, Block)
    return stock.end - stock.start


def _may_swing(made: Made, item: Item, inch: bool) -> str:
    """The run-out allowed to a round that only just cleans up; its skin is not known
    here."""
    most = run_out_most(item.size, made.body.largest)
    if most > TIGHT:
        return ""
    return f", clean while it runs out under {length_text(most, 0.1, inch)}"


def _turned(made: Made, items: list[Item]) -> Iterator[_Fit]:
    body = made.body
    least, long = body.largest + 2 * CLEANS_UP, _length(made)
    inside = max(body.hollow - 2 * CLEANS_UP, 0.0)
    for item in items:
        bore = item.second if item.kind == "tube" else 0.0
        if item.size < least or bore > inside or (0 < item.length < long):
            continue
        over = item.size**2 - least**2 + inside**2 - bore**2
        yield _Fit(math.pi / 4 * over, item, long)


def _of_its_flats(bar: Bar, items: list[Item]) -> Iterator[_Fit]:
    """Bars whose own flats stay on the piece."""
    long = bar.end - bar.start
    for item in items:
        off = abs(item.size - bar.across)
        if off <= DRAWN and (not item.length or item.length >= long):
            yield _Fit(off, item, long)


def _blocks(made: Made, items: list[Item]) -> Iterator[_Fit]:
    sides = sorted(_sides(made))
    for item in items:
        section = sorted((item.size, item.second or item.size))
        # the piece lies along the bar by its longest side, else across it
        for along in (2, 1, 0):
            across = [side for i, side in enumerate(sides) if i != along]
            long = sides[along]
            wide = all(a <= b for a, b in zip(across, section, strict=True))
            if wide and (not item.length or item.length >= long):
                over = section[0] * section[1] - across[0] * across[1]
                yield _Fit(over, item, long)
                break


def _needed(made: Made, inch: bool) -> str:
    if isinstance(made.body.stock, Bar):
        return f"{stock_said(made.body.stock, inch)} is needed"
    if made.body.turns:
        wide = length_text(made.body.largest + 2 * CLEANS_UP, 0.1, inch, unit=False)
        bore = ""
        if made.body.stock.bore:
            most = max(made.body.hollow - 2 * CLEANS_UP, 0.0)
            bore = f" × bore up to {length_text(most, 0.1, inch, unit=False)}"
        return f"⌀{wide}{bore} × {length_text(_length(made), 0.1, inch)} is needed"
    sides = " × ".join(
        length_text(side, 0.1, inch, unit=False) for side in _sides(made)
    )
    return f"{sides} {'in' if inch else 'mm'} is needed"
