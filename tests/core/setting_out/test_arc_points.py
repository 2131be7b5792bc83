import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


def ridge_left(answer, radius, cutter, hollow):
    """What stands between the first two cuts, found by walking over the arc."""
    a, b = ((point["x"], point["y"]) for point in answer["points"][:2])
    worst = 0.0
    turn = math.radians(answer["points"][0]["at"] + answer["step"] / 2)
    for i in range(20001):
        far = radius * (0.5 + i / 20000)
        at = far * math.cos(turn), far * math.sin(turn)
        cut = min(math.dist(at, a), math.dist(at, b)) < cutter / 2
        metal = far > radius if not hollow else far < radius
        if metal and not cut:
            off = abs(far - radius)
            if off < cutter / 2:
                worst = max(worst, off)
    return worst


class ArcPoints(unittest.TestCase):
    def test_every_place_lies_on_one_path_and_the_ends_are_reached(self):
        """A rounded end of 20 by a cutter of 10: its axis goes round on 25."""
        answer = reckon("arc-points", {"radius": 20, "cutter": 10, "last": 90})
        self.assertEqual(answer["path"], 25)
        points = answer["points"]
        self.assertEqual((points[0]["x"], points[0]["y"]), (25, 0))
        self.assertAlmostEqual(points[-1]["y"], 25)
        self.assertEqual(len(points), answer["count"])
        for point in points:
            self.assertAlmostEqual(math.hypot(point["x"], point["y"]), 25)

    def test_the_ridge_is_what_walking_over_the_arc_finds(self):
        for radius, cutter, form in ((20, 10, "rounded"), (30, 16, "hollow")):
            asked = {"radius": radius, "cutter": cutter, "form": form, "ridge": 0.4}
            answer = reckon("arc-points", asked)
            self.assertLessEqual(answer["left"], 0.4 + 1e-9)
            walked = ridge_left(answer, radius, cutter, form == "hollow")
            self.assertAlmostEqual(walked, answer["left"], delta=0.002)

    def test_half_the_ridge_takes_more_places(self):
        """It grows with the square of the step: four times less by half of it."""
        coarse, fine = (
            reckon("arc-points", {"radius": 20, "cutter": 10, "ridge": ridge})
            for ridge in (0.2, 0.05)
        )
        self.assertAlmostEqual(fine["count"] / coarse["count"], 2, delta=0.2)

    def test_a_cutter_that_does_not_go_into_the_hollow_is_refused(self):
        for asked, key in (
            ({"radius": 10, "cutter": 20, "form": "hollow"}, "cutter"),
            ({"radius": 10, "cutter": 6, "first": 90, "last": 90}, "last"),
            ({"radius": 500, "cutter": 2, "ridge": 0.001, "last": 360}, "ridge"),
        ):
            with self.assertRaises(BadInput) as refused:
                reckon("arc-points", asked)
            self.assertEqual(refused.exception.key, key)
