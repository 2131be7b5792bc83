"""Dowels are bought a hair over their name; what keeps them is reamed to that."""

import unittest

from machinon.core.families import families
from machinon.core.families._dowels import as_bought, kept
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list


class Dowels(unittest.TestCase):
    def test_a_dowel_of_5_is_m6(self):
        least, most = as_bought(5)
        self.assertAlmostEqual(least, 5.004, places=6)
        self.assertAlmostEqual(most, 5.012, places=6)

    def test_an_inch_dowel_is_two_tenths_over(self):
        """1/4 in: 0.2501 to 0.2503."""
        least, most = (size / 25.4 for size in as_bought(6.35))
        self.assertAlmostEqual(least, 0.2501, places=9)
        self.assertAlmostEqual(most, 0.2503, places=9)

    def test_its_hole_grips_every_dowel_that_is_sold(self):
        """n7 at 5 is 8 to 20 µm: 5.008 ± 4 µm less that is 4.992 to 4.996; what slides
        has 4 to 16 µm of play on any: 5.016 to 5.020."""
        pair = kept(5)
        ends = ("keeps_lower", "keeps_upper", "slides_lower", "slides_upper")
        found = [round(pair[key], 4) for key in ends]
        self.assertEqual(found, [4.992, 4.996, 5.016, 5.020])
        self.assertLess(pair["keeps_upper"], as_bought(5)[0])
        self.assertGreater(pair["slides_lower"], as_bought(5)[1])

    def test_a_hub_tells_both_holes_where_they_are_reamed(self):
        made = make(families()["hub-adapter"], {"dowels.diameter": "5"})
        steps = [step for up in route_told(made) for step in up.steps]
        (ream,) = (step for step in steps if step.operation == "ream")
        first = work_list(ream).lines[0]
        self.assertEqual(first.head, "First in a scrap")
        self.assertIn("4.992 to 4.996 mm surely keeps them", first.note)
        self.assertIn("slide at 5.016 to 5.020 mm", first.note)
