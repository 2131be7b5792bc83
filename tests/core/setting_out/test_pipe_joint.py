import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


def met(theta, pipe, on, angle):
    """Where a line along the pipe meets the round, by halving: an independent way.

    The round lies along x; the pipe rises in the x, y plane, leaning to +x.
    """
    lean, r = math.radians(angle), pipe / 2
    along = math.cos(lean), math.sin(lean), 0.0
    sharp = math.sin(lean), -math.cos(lean), 0.0
    start = [r * math.cos(theta) * k for k in sharp]
    start[2] += r * math.sin(theta)

    def outside(t):
        y, z = start[1] + t * along[1], start[2]
        return math.hypot(y, z) - on / 2

    # from the plane where y is nothing, outwards
    low, high = -start[1] / along[1], 10 * on
    for _ in range(80):
        middle = (low + high) / 2
        low, high = (low, middle) if outside(middle) > 0 else (middle, high)
    return high


class PipeJoint(unittest.TestCase):
    def test_each_place_is_where_a_line_meets_the_round(self):
        for pipe, on, angle in ((25, 42, 60), (30, 30, 90), (20, 60, 35)):
            answer = reckon("pipe-joint", {"pipe": pipe, "on": on, "angle": angle})
            rows = answer["points"]
            first = met(0.0, pipe, on, angle)
            for row in rows:
                far = met(math.radians(row["at"]), pipe, on, angle)
                with self.subTest(pipe=pipe, at=row["at"]):
                    self.assertAlmostEqual(
                        row["up"] - rows[0]["up"], first - far, places=6
                    )

    def test_square_on_it_the_depth_is_the_arrow_of_its_chord(self):
        """30 on 60, square: 30 − √(30² − 15²) = 4.019."""
        answer = reckon("pipe-joint", {"pipe": 30, "on": 60})
        self.assertAlmostEqual(answer["deepest"], 30 - math.sqrt(675), places=4)
        self.assertAlmostEqual(answer["around"], 30 * math.pi)

    def test_a_pipe_thicker_than_its_round_is_refused(self):
        with self.assertRaisesRegex(BadInput, "up to 20"):
            reckon("pipe-joint", {"pipe": 25, "on": 20})
