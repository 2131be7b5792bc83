"""Nuts and washers: their standards' sizes against those of heads and holes."""

import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckon
from machinon.core.threads.nuts import nuts
from machinon.core.threads.screw_thread import thread_of

METRIC = {size: nut for size, nut in nuts().items() if size[0] == "M"}
UNIFIED = {size: nut for size, nut in nuts().items() if size[0] != "M"}


def screw(size):
    return thread_of(size if size[0] == "M" else f"{size} UNC")


class Nuts(unittest.TestCase):
    def test_a_nut_takes_the_spanner_of_its_screw_s_head(self):
        """ISO 272 gives both one width; of ASME only 7/16 has a larger nut, 11/16."""
        for size, nut in nuts().items():
            if size in ("M2", "M2.5", "M18", "M22", "M27", "9/16"):
                continue  # no such head is kept
            head = reckon("cap-screw", {"thread": screw(size).name, "head": "hex"})
            more = INCH / 16 if size == "7/16" else 0.0
            self.assertAlmostEqual(nut.across_flats, head["key_size"] + more, msg=size)

    def test_a_metric_washer_has_the_close_hole_of_its_screw(self):
        """ISO 7089 takes it from ISO 273, and is twice its screw across, about."""
        for size, nut in METRIC.items():
            close = reckon("clearance-hole", {"thread": size, "fit": "close"})
            self.assertEqual(nut.washer_hole, close["diameter"], size)
        for size, nut in nuts().items():
            self.assertTrue(
                1.75 <= nut.washer_outside / screw(size).major <= 2.51, size
            )

    def test_an_inch_washer_is_a_thirty_second_or_a_sixteenth_free(self):
        for size, nut in UNIFIED.items():
            major = screw(size).major
            free = 1 / 16 if major > 0.7 * INCH else 1 / 32
            self.assertAlmostEqual(
                nut.washer_hole / INCH, major / INCH + free, delta=0.0006
            )

    def test_heights_keep_their_proportion(self):
        """From M5 on 0.79 to 0.99 of the screw; a thin one half of it from M8 on, and
        of an inch screw 7/8 and about 9/16 at most."""
        for size, nut in METRIC.items():
            major = screw(size).major
            if major >= 5:
                self.assertTrue(0.79 * major <= nut.height <= 0.95 * major, size)
            if major >= 8:
                self.assertEqual(nut.thin_height, major / 2, size)
        for size, nut in UNIFIED.items():
            major = screw(size).major
            self.assertAlmostEqual(nut.height / major, 0.89, delta=0.02, msg=size)
            self.assertTrue(0.55 <= nut.thin_height / major <= 0.66, size)

    def test_how_far_the_screw_stands_out(self):
        """Washer 2, nut 8.4 and two threads of 1.5 are 13.4; 16 / cos 30° = 18.475."""
        ten = reckon("nut", {"thread": "M10"})
        self.assertAlmostEqual(ten["stands"], 13.4)
        self.assertAlmostEqual(ten["across_corners"], 18.475, places=3)
        self.assertEqual((ten["across_flats"], ten["older_flats"]), (16, 17))
        self.assertNotIn("older_flats", reckon("nut", {"thread": "M8"}).results)
        bare = reckon("nut", {"thread": "M10x1", "washers": 0, "past": 0})
        self.assertEqual(bare["stands"], 8.4)
        with self.assertRaisesRegex(BadInput, "1/2 BSW has no nut kept here"):
            reckon("nut", {"thread": "1/2 BSW"})
