import unittest
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.tables import rows

SERIES = ("60", "62", "63")
FIRST = {"00": 10, "01": 12, "02": 15, "03": 17}  # then five times the last two figures


class BallBearings(unittest.TestCase):
    def sizes(self, number):
        found = reckon("ball-bearing", {"number": number})
        return found["bore"], found["outside"], found["width"]

    def test_a_number_tells_the_bore(self):
        for row in rows("ball_bearings"):
            number, bore = row["name"], self.sizes(row["name"])[0]
            last = number[2:]
            small = int(number[-1]) if len(number) == 3 else None
            self.assertEqual(bore, small or FIRST.get(last) or 5 * int(last), number)

    def test_each_is_larger_than_the_one_before_and_the_next_series_than_it(self):
        names = [row["name"] for row in rows("ball_bearings")]
        for series in (*SERIES, "6"):
            mine = [
                self.sizes(name)
                for name in names
                if len(name) == 3 + (series != "6") and name.startswith(series)
            ]
            mine = mine[:6] if series == "6" else mine  # 604 to 609
            for (bore, outside, width), larger in pairwise(mine):
                self.assertLess(bore, larger[0])
                self.assertLess(outside, larger[1])
                self.assertLessEqual(width, larger[2])
        for last in (f"{n:02}" for n in range(11)):
            light, medium, heavy = (self.sizes(series + last) for series in SERIES)
            self.assertEqual(light[0], heavy[0])
            self.assertLess(light[1], medium[1])
            self.assertLess(medium[1], heavy[1])
        for last in range(4, 10):
            self.assertLess(self.sizes(f"60{last}")[1], self.sizes(f"62{last}")[1])

    def test_seals_change_no_size_and_a_number_that_is_none_offers_the_next(self):
        for sealed in ("6204-2RS", "6204 ZZ", "6204-2RS1"):
            self.assertEqual(self.sizes(sealed), (20, 47, 14))
        with self.assertRaisesRegex(BadInput, "did you mean 6206"):
            reckon("ball-bearing", {"number": "62066"})

    def test_its_shaft_is_tight_and_its_housing_lets_it_slide(self):
        """k6 on 20 is +2 to +15 µm, H7 on 47 0 to +25 µm, as ISO 286-2 prints them."""
        found = reckon("ball-bearing", {"number": "6204"})
        for key, wanted in (
            ("shaft_lower", 20.002),
            ("shaft_upper", 20.015),
            ("housing_lower", 47.0),
            ("housing_upper", 47.025),
        ):
            self.assertAlmostEqual(found[key], wanted)
