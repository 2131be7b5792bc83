import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon

# widths of grooves by cord, as handbooks print them, with room for swelling
WIDTHS = {1.78: 2.4, 2.62: 3.6, 3.53: 4.8, 5.33: 7.2, 6.99: 9.6}


def groove(**given):
    return reckon("o-ring-groove", {"cord": 2.62, "diameter": 30, **given})


class ORingGrooves(unittest.TestCase):
    def test_widths_are_those_of_handbooks(self):
        for cord, wide in WIDTHS.items():
            for motion in ("still", "moving"):
                found = groove(cord=cord, diameter=60, motion=motion)["width"]
                self.assertAlmostEqual(found / wide, 1, delta=0.09, msg=cord)

    def test_a_piston_is_turned_by_its_bore_and_a_bore_by_its_rod(self):
        """2.62 pressed by 20.5 % leaves 2.083 either side of 30."""
        self.assertAlmostEqual(groove()["groove_diameter"], 30 - 2 * 2.0829, places=3)
        found = groove(where="bore")
        self.assertAlmostEqual(found["groove_diameter"], 30 + 2 * 2.0829, places=3)
        self.assertEqual(found["ring_inside"], 30)

    def test_a_ring_fills_its_groove_to_what_is_said(self):
        for where, motion in (
            ("piston", "still"),
            ("bore", "moving"),
            ("face", "still"),
        ):
            found = groove(where=where, motion=motion)
            share = math.pi / 4 * 2.62**2 / (found["depth"] * found["width"])
            self.assertAlmostEqual(share * 100, found["filled"])
            self.assertTrue(60 < found["filled"] < 85)

    def test_what_moves_is_pressed_less_and_a_thin_cord_more(self):
        for cord in (1.5, 2, 3, 4, 5, 8):
            still, moving = (
                groove(cord=cord, motion=motion)["squeeze"]
                for motion in ("still", "moving")
            )
            self.assertTrue(10 < moving < still < 30, cord)
        self.assertGreater(groove(cord=2)["squeeze"], groove(cord=3)["squeeze"])

    def test_the_lead_in_is_as_high_as_the_ring_stands_out(self):
        found = groove()
        stands = 2.62 - found["depth"]
        self.assertAlmostEqual(found["lead_in"] * math.tan(math.radians(15)), stands)

    def test_where_no_groove_goes_is_said(self):
        for given, key in (
            ({"diameter": 4}, "diameter"),
            ({"diameter": 7, "where": "face"}, "diameter"),
            ({"where": "face", "motion": "moving"}, "motion"),
        ):
            with self.assertRaises(BadInput) as refused:
                groove(**given)
            self.assertEqual(refused.exception.key, key)
