"""What is to be made is found by what a machinist would call it."""

import unittest

from machinon.core.families import families
from machinon.core.piece.found_by import looked_up, of_family


class FoundBy(unittest.TestCase):
    def found(self, typed):
        things = ((key, of_family(family)) for key, family in families().items())
        return looked_up(things, typed)

    def test_the_first_card_is_what_was_meant(self):
        for typed, first in (
            ("ER32 collet holder", "collet-chuck"),
            ("a new draw bar for my mill", "draw-in-spindle"),
            ("drill sleeve", "taper-sleeve"),
            ("drive plate", "turned-piece"),
            ("gear cutter arbor", "collet-arbor"),
            ("hinge pins", "turned-piece"),
            ("motor shaft adaptor", "hub-adapter"),
            ("soft vice jaws", "plate-block"),
            ("steady rest finger", "turned-piece"),
            ("tool post", "plate-block"),
        ):
            found = self.found(typed)
            self.assertEqual((found.keys[0], found.named), (first, True), typed)

    def test_endings_spellings_and_sizes_are_no_other_names(self):
        for typed, like in (
            ("dead center", "dead centre"),
            ("tapered pin", "taper pin"),
            ("tapping guide", "tap guide"),
            ("gages", "gauge"),
            ("saw arbor 22 mm", "saw arbor"),
            ("10 T-nuts for a 14 mm slot", "T-nut slot"),
            ("stedy rest fingr", "steady rest finger"),
            ("back palte", "back plate"),
        ):
            found, other = self.found(typed), self.found(like)
            self.assertEqual((found.keys, found.named), (other.keys, True), typed)

    def test_a_number_that_is_a_name_is_kept(self):
        self.assertEqual(self.found("1-2-3 block").keys, ("plate-block",))

    def test_what_nothing_is_called_has_its_nearest_or_none(self):
        near = self.found("boring head shank")
        self.assertFalse(near.named)
        self.assertTrue(near.keys)
        self.assertEqual(self.found("wiggler").keys, ())


if __name__ == "__main__":
    unittest.main()
