"""What the shop's shelf has for the drills and taps of a route."""

import unittest
from dataclasses import replace

from machinon.core.route.own_tools import own_tool
from machinon.core.shop.belongings import STARTER_SETS, Belongings, Item, with_items
from tests.scenario import planned

STEP = planned().route[-1].steps[-1]  # by hand: it takes neither drill nor tap


def shelf(*sets: str, items: tuple[Item, ...] = ()) -> Belongings:
    made = Belongings("tools", "Tools", items)
    for one in STARTER_SETS:
        if one.key in sets:
            made = with_items(made, one.items())
    return made


class OwnTools(unittest.TestCase):
    def says(self, where, inch=False, **needs):
        return own_tool(replace(STEP, **needs), where, inch)

    def test_the_drill_that_is_there_is_named_with_what_is_known_of_it(self):
        self.assertEqual(self.says(shelf("drills"), drill=9.0), "yours: drill 9 mm")
        worn = Item("drill", "the long one", 9.0, note="cuts 9.1")
        self.assertIn("cuts 9.1", self.says(shelf(items=(worn,)), drill=9.0))

    def test_look_alikes_in_the_rack_are_pointed_out(self):
        """A number 13 is 4.699 mm, a tenth under 4.8: the eye takes it for it."""
        says = self.says(shelf("drills-fine", "number-drills"), drill=4.8)
        self.assertIn("yours: drill 4.8 mm; measure it", says)
        self.assertIn("drill #13", says)

    def test_what_is_missing_is_said_with_what_lies_next_to_it(self):
        says = self.says(shelf("drills"), drill=6.8)
        self.assertEqual(
            says, "6.80 mm is not on the shelf; next to it drill 6.5 mm and drill 7 mm"
        )
        self.assertIn("0.2677 in", self.says(shelf("drills"), True, drill=6.8))

    def test_beyond_the_largest_one_bores(self):
        says = self.says(shelf("drills"), drill=25.0)
        self.assertIn("up to drill 13 mm, bore from there", says)

    def test_every_tap_of_the_thread_counts_and_another_pitch_does_not(self):
        has = shelf("taps")
        self.assertEqual(
            self.says(has, tap="M8"), "yours: M8 taper, M8 plug, M8 bottoming"
        )
        self.assertEqual(self.says(has, tap="M8x1"), "no M8x1 tap on the shelf")

    def test_nothing_is_said_where_nothing_is_known(self):
        self.assertEqual(self.says(None, drill=9.0), "")
        self.assertEqual(self.says(shelf("taps"), drill=9.0), "")
        self.assertEqual(self.says(shelf("drills"), tap="M8"), "")
        self.assertEqual(self.says(shelf("drills", "taps")), "", "no drill, no tap")
