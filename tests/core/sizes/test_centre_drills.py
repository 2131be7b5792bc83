"""Centre drills: their standards' sizes against each other and their own geometry."""

import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.sizes.centre_drills import centre_drill_for
from machinon.core.tables import rows


class CentreDrills(unittest.TestCase):
    def test_a_mouth_lies_between_the_pilot_and_the_body(self):
        """ISO 6411 has its cone as long as 60° makes it: l2 = (D2 − d) / 2 tan 30°."""
        lengths = (0.97, 1.21, 1.52, 1.95, 2.42, 3.07, 3.9, 4.85, 5.98, 7.79, 9.7)
        metric = [row for row in rows("centre_drills") if row["name"][0] == "A"]
        self.assertEqual(len(metric), len(lengths))
        for row, length in zip(metric, lengths, strict=True):
            pilot, body, mouth = (
                float(row[key]) for key in ("pilot_mm", "body_mm", "mouth_mm")
            )
            self.assertEqual(row["name"], f"A{pilot:g}/{body:g}")
            cone = (mouth - pilot) / 2 / math.tan(math.radians(30))
            self.assertAlmostEqual(cone, length, delta=0.006)

    def test_a_number_s_mouth_is_that_of_its_metric_neighbour(self):
        """#2 to #8 are 3/16, 1/4, 5/16, 7/16, 1/2, 5/8 and 3/4 in thick."""
        inch = [row for row in rows("centre_drills") if row["name"][0] == "#"]
        bodies = [round(float(row["body_mm"]) / 25.4 * 16, 6) for row in inch]
        self.assertEqual(bodies, [2, 3, 4, 5, 7, 8, 10, 12])
        for row in inch:
            share = float(row["mouth_mm"]) / float(row["body_mm"])
            self.assertAlmostEqual(share, 0.83, delta=0.015)

    def test_the_smallest_that_makes_the_mouth_is_named(self):
        for mouth, name in ((2.0, "A1/3.15 or #1"), (8.5, "A4/10 or #5"), (8.6, "A5"),
                            (21.0, "A10/25"), (40.0, "")):  # fmt: skip
            self.assertEqual(centre_drill_for(mouth)[: len(name) or 1], name)

    def test_a_bar_is_carried_by_three_tenths_of_itself(self):
        """20 wants a mouth of 6: A3.15/8 or #4, (6 − 3.15) / 2 tan 30° of cone; 60 no
        more than 10, and 30 across is made by none."""
        twenty = reckon("centre-drill", {"bar": 20})
        self.assertEqual((twenty["metric"], twenty["inch"]), ("A3.15/8", "#4"))
        self.assertAlmostEqual(twenty["cone"], 2.468, places=3)
        self.assertEqual(reckon("centre-drill", {"bar": 60})["metric"], "A5/12.5")
        with self.assertRaisesRegex(BadInput, "21.2 mm is the widest"):
            reckon("centre-drill", {"mouth": 30})
        with self.assertRaisesRegex(
            BadInput, "less than the pilot of the smallest, 1 mm"
        ):
            reckon("centre-drill", {"bar": 2})
