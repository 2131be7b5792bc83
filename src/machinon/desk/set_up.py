"""Setting up: the first machine of a shop, from typed text."""

from collections.abc import Mapping

from msgspec.structs import replace

from machinon.core.shop.entry import lathe_of, words
from machinon.core.shop.things import NOSE_SURFACES, Lathe, Piece, starter_instruments
from machinon.store.shop_file import ShopFile


def enter_first_machine(file: ShopFile, typed: Mapping[str, str], inch: bool) -> Lathe:
    """The shop, its starter instruments, and its first lathe; kept as one act.

    typed: shop, and the entries of `lathe_of`. Raises BadInput naming the entry.
    """
    shop_name = words(typed, "shop", "the shop's name")
    nose = Piece("lathe-nose", "Spindle nose", "nose", "steel", NOSE_SURFACES)
    lathe = lathe_of(typed, inch, Lathe("lathe", "", 0, 0, 0, (), nose.id))
    shop = replace(
        file.shop(), name=shop_name, inch=inch, instruments=starter_instruments(inch)
    )
    file.act(
        "shop",
        f"Shop set up: {shop_name}. Lathe entered: {lathe.name}.",
        shop,
        nose,
        lathe,
    )
    return lathe
