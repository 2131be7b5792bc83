"""Reamers leave H7: what a fit asks of a reamed hole is held against that."""

import unittest

from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.sizes.reamers import nearest_reamer


def bar(wish, bit="8"):
    """A boring bar whose bit measures so: its check of the reamer, and its reaming."""
    given = {"bit.diameter": bit, "fit.bits": wish}
    made = make(families()["single-point-bar"], given)
    (check,) = (c for c in made.checks if c.key == "reamer-bits")
    steps = [step for up in route_told(made) for step in up.steps]
    return check, next(step for step in steps if step.operation == "ream")


class Reamed(unittest.TestCase):
    def test_reamers_are_sold_in_both_systems(self):
        """7.938 is 5/16 in; H7 of 8 is 8.000 to 8.015."""
        reamer = nearest_reamer(8.009)
        self.assertEqual((reamer.size, reamer.lower, reamer.upper), (8, 8, 8.015))
        self.assertAlmostEqual(nearest_reamer(7.945).size, 25.4 * 5 / 16, places=9)
        # 12.7 is half an inch, and half a millimetre beside 12.5 and 13
        self.assertAlmostEqual(nearest_reamer(12.705).size, 12.7, places=9)

    def test_a_bit_in_a_reamed_hole_takes_the_usual_reamer(self):
        """h9 at 8 is 0 to 36 µm of play: all that H7 leaves goes on a bit as large as
        its name, and on one that is ground a little under it, as h8 is."""
        for bit in ("8.000", "7.985"):
            check, step = bar("reamed", bit)
            self.assertTrue(check.passed, bit)
            self.assertEqual((step.title, step.tool),
                             ("Ream bit 1 to 8 H7", "reamer 8 H7"))  # fmt: skip
        self.assertIn("8 H7 leaves 8.000 to 8.015 mm, 7.985 to 8.021 mm", check.says)

    def test_a_reamed_hole_is_drawn_as_its_reamer_leaves_it(self):
        """A pivot of 25 is known to 4 µm and may have 0 to 52 µm of play: 25.004 to
        25.048, of which 25 H7 leaves the part up to 25.021. 63/64 in H7 would do as
        well, and is no reamer that a metric shop looks for first."""
        for inch, reamer, size in ((False, "25 H7", 25.013), (True, "63/64", 25.014)):
            given = {"pin.diameter": "25"}
            made = make(families()["hinged-arm"], given, round_inch=inch)
            self.assertEqual(made.values["pivot.diameter"], size)
            (check,) = (c for c in made.checks if c.key == "reamer-pivot")
            self.assertIn(reamer, check.says)
            steps = [step for up in route_told(made) for step in up.steps]
            proof = next(step for step in steps if step.key == "prove-pivot")
            ends = [(shown.name, round(shown.value, 6)) for shown in proof.figures]
            self.assertEqual(ends, [("⌀ from", 25.004), ("⌀ to", 25.048)])

    def test_more_play_than_a_reamer_leaves_is_told(self):
        """f7 on 8.000 begins at 8.013, where H7 ends."""
        check, step = bar("goes-on", "8.000")
        self.assertFalse(check.passed)
        self.assertFalse(check.grave)
        self.assertIn("8 H7 leaves 0.3150 to 0.3156 in", check.says_in_inches)
        self.assertEqual((step.title, step.tool), ("Ream bit 1 to ⌀8.02", "reamer"))

    def test_a_hole_that_grips_is_no_reamer_s_that_leaves_play(self):
        self.assertFalse(nearest_reamer(4.99).makes(4.99))
