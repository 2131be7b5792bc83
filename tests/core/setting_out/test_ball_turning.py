import math
import unittest
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


class BallTurning(unittest.TestCase):
    def test_a_ball_of_20_on_a_neck_of_12(self):
        """Behind its middle √(10² − 6²) = 8, so 18 from the tip. A ridge of 1 lets the
        squares go by (1 + 1 / 10)² − 1 = 0.21: five steps of a fifth before the middle,
        1 − 0.6² = 0.64 in four behind it, less the first of each: the blank."""
        found = reckon("ball-turning", {"ball": 20, "neck": 12, "ridge": 1})
        self.assertEqual((found["length"], found["count"]), (18, 4 + 3))
        self.assertAlmostEqual(found["left"], 10 * (math.sqrt(1.2) - 1))
        first = found["steps"][0]
        self.assertAlmostEqual(first["diameter"], 20 * math.sqrt(0.8))
        self.assertAlmostEqual(first["to"], 10 - math.sqrt(20))
        self.assertAlmostEqual(found["steps"][4]["diameter"], 20 * math.sqrt(0.84))
        self.assertAlmostEqual(found["steps"][4]["from"], 10 + 4)

    def test_no_step_cuts_into_the_ball_and_each_leaves_the_same(self):
        """Walked over: the corner of every step stands as far out of the ball as is
        said, and where a step ends it touches the ball."""
        for ball, neck, ridge in ((20, 0, 0.5), (30, 11, 0.3), (9, 8, 0.2)):
            asked = {"ball": ball, "neck": neck, "ridge": ridge}
            found = reckon("ball-turning", asked)
            radius = ball / 2
            self.assertLessEqual(found["left"], ridge + 1e-9)
            before = [step for step in found["steps"] if step["from"] == 0]
            for step in before:
                on = math.hypot(radius - step["to"], step["diameter"] / 2)
                self.assertAlmostEqual(on, radius, msg="its end lies on the ball")
            for step, inner in pairwise(before):
                corner = math.hypot(radius - inner["to"], step["diameter"] / 2)
                self.assertAlmostEqual(corner - radius, found["left"], delta=ridge / 3)
                self.assertGreater(corner, radius)

    def test_half_the_ridge_takes_twice_the_steps(self):
        coarse, fine = (
            reckon("ball-turning", {"ball": 40, "ridge": ridge})["count"]
            for ridge in (0.4, 0.2)
        )
        self.assertAlmostEqual(fine / coarse, 2, delta=0.1)

    def test_what_is_no_ball_on_a_neck_is_refused(self):
        for asked, key in (
            ({"ball": 20, "neck": 20}, "neck"),
            ({"ball": 400, "ridge": 0.01}, "ridge"),
        ):
            with self.assertRaises(BadInput) as refused:
                reckon("ball-turning", asked)
            self.assertEqual(refused.exception.key, key)
