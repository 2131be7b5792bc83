"""What the shop's rack has for a piece."""

import unittest

from msgspec.structs import replace

from machinon.core.families import family_of
from machinon.core.piece.made import make
from machinon.core.route.own_stock import own_stock, sizes_of_rack
from machinon.core.shop.belongings import Belongings, Item


def rack(*items: Item) -> Belongings:
    return Belongings("stock", "Stock", items)


class OwnStock(unittest.TestCase):
    """A sleeve of 28 by 45 turned from bar: 29 across, 67 long with what the jaws
    hold."""

    sleeve = make(family_of("spacer-sleeve"), {})
    block = make(family_of("plate-block"), {})

    def says(self, made, *items, inch=False):
        return own_stock(made, rack(*items), inch)

    def test_the_least_bar_that_cleans_up_is_named_with_how_many_it_gives(self):
        long = self.sleeve.body.stock.end - self.sleeve.body.stock.start
        says = self.says(
            self.sleeve,
            Item("round", "round 50", 50, length=500),
            Item("round", "round 30", 30, length=500, material="mild steel"),
            Item("round", "round 28", 28, length=500),
        )
        self.assertIn("round 30, clean while it runs out under 2.0 mm", says)
        self.assertIn(f"enough for {int(502 // (long + 2))}", says)
        self.assertIn(f"{500 - long - 2:.0f} mm left", says)

    def test_how_true_it_must_run_is_said_where_there_is_little_over(self):
        """An hour is lost where a bar of 30 for 28 is turned as a bent one hangs."""
        roomy = self.says(self.sleeve, Item("round", "round 50", 50, length=500))
        self.assertIn("round 50", roomy)
        self.assertNotIn("runs out", roomy)

    def test_a_tube_does_whose_bore_cleans_up(self):
        """Bored 20 right through: up to 19 inside, and then it wastes the least."""
        bar = Item("round", "round 30", 30, length=500)
        for inside, named in ((19.0, "tube"), (19.5, "round 30")):
            tube = Item("tube", "tube 32", 32, inside, 500)
            says = self.says(self.sleeve, bar, tube)
            self.assertIn(f"On the rack: {named}", says)
        self.assertIn(
            "spares the drill",
            self.says(self.sleeve, bar, replace(tube, second=18.0)),
        )

    def test_the_stock_can_be_drawn_as_the_rack_has_it(self):
        """A tube of 32 × 18 is no bar of 30; once it is drawn so, nothing differs."""
        tube = rack(Item("tube", "tube 32", 32, 18, 500))
        found = sizes_of_rack(self.sleeve, tube)
        self.assertEqual(found, {"stock.diameter": 32, "stock.bore": 18})
        typed = {key: f"{value:g}" for key, value in found.items()}
        as_it_is = make(family_of("spacer-sleeve"), typed)
        self.assertEqual(sizes_of_rack(as_it_is, tube), {})
        plate = rack(Item("plate", "plate 120 × 40", 120, 40, 500))
        self.assertEqual(sizes_of_rack(self.block, plate), {})
        self.assertEqual(sizes_of_rack(self.sleeve, None), {})

    def test_a_bar_of_six_flats_is_one_of_its_own_size(self):
        made = make(family_of("hexagon-screw"), {"stock.shape": "as the head"})
        self.assertEqual(made.body.stock.says, "hexagon 24 × 62")
        right = Item("hexagon", "hexagon 24", 24, length=300)
        wide = Item("hexagon", "hexagon 27", 27, length=300)
        round_bar = Item("round", "round 40", 40, length=300)
        says = self.says(made, wide, right, round_bar)
        self.assertIn("hexagon 24, if that is the right metal: enough for 4", says)
        says = self.says(made, wide, round_bar)
        self.assertIn("Nothing on the rack would do: hexagon 24 × 62 is needed", says)

    def test_another_metal_and_a_bar_that_is_too_short_are_passed_over(self):
        for item in (
            Item("round", "round 30", 30, length=500, material="brass"),
            Item("round", "round 30", 30, length=40),
            Item("round", "round 28", 28),
        ):
            says = self.says(self.sleeve, item)
            self.assertIn("Nothing on the rack would do: ⌀29.0 ×", says)

    def test_of_several_alike_the_bar_that_gives_them_all_comes_before_the_thinner(
        self,
    ):
        """Each takes 67 mm and a cut of 2; 150 mm of the thinner give only two."""
        four = make(family_of("spacer-sleeve"), {"count": "4"})
        self.assertEqual(four.title, "Spacer sleeve, 4 off")
        long = four.body.stock.end - four.body.stock.start
        short = Item("round", "round 30", 30, length=150)
        says = self.says(four, short, Item("round", "round 35", 35, length=300))
        self.assertIn(f"enough for {int(302 // (long + 2))}; ", says)
        self.assertIn("round 35", says)
        self.assertIn(f"{300 - 4 * (long + 2):.0f} mm left after them", says)
        self.assertIn("enough for 2 of the 4", self.says(four, short))
        loose = self.says(four, Item("round", "round 30", 30))
        self.assertIn(f"Cut 4\u00a0× {long + 2:.0f} mm off", loose)

    def test_of_a_bar_of_unknown_length_and_metal_both_are_left_to_be_seen(self):
        says = self.says(self.sleeve, Item("round", "round 30", 30))
        self.assertIn("if that is the right metal", says)
        self.assertIn("off", says)

    def test_a_block_lies_whichever_way_it_fits(self):
        """100 × 60 × 30 needs 101 × 61 × 31: from a plate 101 wide it is cut across."""
        across = Item("plate", "plate 120 × 35", 120, 35, 70)
        along = Item("flat", "flat 65 × 32", 65, 32, 1000, material="mild steel")
        self.assertIn("plate 120 × 35", self.says(self.block, across))
        says = self.says(self.block, across, along)
        self.assertIn("flat 65 × 32: enough for 9", says)  # 1002 / 103
        thin = Item("flat", "flat 65 × 30", 65, 30, 1000)
        self.assertIn("101.0 × 61.0 × 31.0 mm is needed", self.says(self.block, thin))

    def test_where_nothing_of_the_kind_is_listed_nothing_is_said(self):
        self.assertEqual(self.says(self.block, Item("round", "round 50", 50)), "")
        self.assertEqual(own_stock(self.block, None, False), "")
