import math
import unittest

import numpy as np

from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.draw.solid_picture import faces_of, mesh_of, picture_of


def solid(key, **given):
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    return mesh_of(make(families()[key], sizes).body)


class SolidPictures(unittest.TestCase):
    def test_seen_square_on_a_block_is_its_own_face(self):
        """100 × 60 × 30 from the front: 100 to 30, and the front alone, evenly lit."""
        seen = picture_of(solid("plate-block", parts=""), 0, 0, 500, 300)
        rows, columns = np.nonzero(seen.there)
        wide, high = np.ptp(columns) + 1, np.ptp(rows) + 1
        self.assertAlmostEqual(wide / high, 100 / 30, delta=0.05)
        self.assertEqual(len(np.unique(seen.bright[seen.there])), 1)

    def test_a_bore_is_looked_through(self):
        """A sleeve seen along its axis is a ring of its two diameters."""
        mesh = solid("spacer-sleeve")
        made = make(families()["spacer-sleeve"], {})
        outer = made.values["sleeve.diameter"]
        inner = made.values["bore.diameter"]
        seen = picture_of(mesh, 90, 0, 400, 400)
        share = seen.there.sum() / (
            math.pi / 4 * np.ptp(np.nonzero(seen.there)[0]) ** 2
        )
        self.assertAlmostEqual(share, 1 - (inner / outer) ** 2, delta=0.02)
        self.assertFalse(seen.there[200, 200], "through its middle")

    def test_what_stands_before_hides_what_is_behind(self):
        """A T-nut from above shows no dark side: only faces that look up."""
        seen = picture_of(solid("t-nut-strip"), 0, 90, 500, 200)
        self.assertGreater(seen.bright[seen.there].min(), 0.25)
        self.assertTrue(seen.edges.any())

    def test_faces_come_from_the_furthest_to_the_nearest_and_all_on_the_picture(self):
        for turn, tilt in ((0, 0), (30, 25), (200, -60)):
            points, bright = faces_of(solid("back-plate"), turn, tilt, 300, 200)
            self.assertEqual(len(points), len(bright))
            self.assertTrue((points > -1).all())
            self.assertLess(points[:, :, 0].max(), 301)
            self.assertLess(points[:, :, 1].max(), 201)

    def test_turning_does_not_change_its_size(self):
        mesh = solid("plate-block", parts="")
        highs = {
            np.ptp(np.nonzero(picture_of(mesh, turn, 0, 300, 200).there)[0])
            for turn in (0, 45, 90, 200)
        }
        self.assertLessEqual(max(highs) - min(highs), 1)


if __name__ == "__main__":
    unittest.main()
