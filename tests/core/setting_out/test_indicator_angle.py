import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


class IndicatorAngle(unittest.TestCase):
    def test_a_level_lever_reads_true_and_one_at_60_degrees_twice_too_much(self):
        for angle, moved in ((0, 0.1), (30, 0.0866), (60, 0.05)):
            found = reckon("indicator-angle", {"reading": 0.1, "angle": angle})
            self.assertAlmostEqual(found["moved"], moved, places=4)
            self.assertAlmostEqual(found["moved"] + found["too_much"], 0.1)

    def test_a_lever_that_stands_up_is_refused(self):
        with self.assertRaises(BadInput) as refused:
            reckon("indicator-angle", {"reading": 0.1, "angle": 90})
        self.assertEqual(refused.exception.key, "angle")
