"""Each kind of surface has its picture of where the instrument goes."""

import unittest

from machinon.core.shop.things import Surface
from machinon.draw.drawing import Text
from machinon.draw.how_to_measure import SCENES, measuring_drawing
from tests.draw.test_drawings import points

WIDTH, HEIGHT = 380.0, 180.0


def picture(id: str):
    return measuring_drawing(Surface(id, id, "outside"), WIDTH, HEIGHT)


class HowToMeasure(unittest.TestCase):
    def test_each_picture_shows_where_the_instrument_touches_and_says_how(self):
        for key, scenes in SCENES.items():
            with self.subTest(key):
                drawing = picture(key)
                roles = {getattr(item, "role", "") for item in drawing.items}
                self.assertIn("measured", roles)
                words = [item for item in drawing.items if isinstance(item, Text)]
                self.assertGreaterEqual(len(words), len(scenes))

    def test_no_picture_runs_off_its_place(self):
        for key in SCENES:
            for x, y in points(picture(key)):
                with self.subTest(key):
                    self.assertTrue(-1 <= x <= WIDTH + 1 and -1 <= y <= HEIGHT + 1)

    def test_further_surfaces_of_a_kind_are_measured_alike(self):
        self.assertEqual(picture("slot"), picture("slot-3"))
        self.assertEqual(picture("no such kind").items, ())
