import unittest

from machinon.core.reckoning import reckon


class FineFeed(unittest.TestCase):
    def test_at_5_74_degrees_a_side_goes_in_by_a_tenth_of_the_dial(self):
        found = reckon("fine-feed", {"travel": 0.1, "angle": 5.739, "division": 0.01})
        self.assertAlmostEqual(found["off"] / 2, 0.01, places=5)
        self.assertAlmostEqual(found["a_line"], 0.002, places=5)

    def test_at_30_degrees_the_dial_reads_the_diameter_and_square_to_it_the_side(self):
        for angle, off in ((30, 0.4), (90, 0.8)):
            found = reckon("fine-feed", {"travel": 0.4, "angle": angle})
            self.assertAlmostEqual(found["off"], off)

    def test_what_is_to_come_off_tells_the_travel_and_back(self):
        travel = reckon("fine-feed", {"off": 0.01, "angle": 6})["travel"]
        found = reckon("fine-feed", {"travel": travel, "angle": 6})
        self.assertAlmostEqual(found["off"], 0.01)
        self.assertAlmostEqual(found["along"] ** 2 + (0.01 / 2) ** 2, travel**2)
