import math
import unittest

import numpy as np

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.setting_out.runout import resolve


def turned(offset, phase, oval, tilt=0.0, count=12):
    """Readings of a disc off its centre and out of round, mm."""
    return [
        0.3
        + offset * math.cos(math.radians(360 * i / count - phase))
        + oval / 4 * math.cos(2 * math.radians(360 * i / count - tilt))
        for i in range(count)
    ]


class RunOut(unittest.TestCase):
    def test_offset_and_out_of_round_are_told_apart(self):
        found = resolve(turned(0.02, 75, 0.012, 30))
        self.assertAlmostEqual(found.eccentricity, 0.02, places=9)
        self.assertAlmostEqual(found.phase, 75, places=6)
        self.assertAlmostEqual(found.ovality, 0.012, places=9)
        self.assertAlmostEqual(found.noise, 0, places=9)

    def test_a_centred_round_disc_shows_nothing(self):
        found = resolve([0.1] * 8)
        self.assertEqual(found.tir, 0)
        self.assertAlmostEqual(found.eccentricity, 0, places=12)

    def test_where_one_starts_turns_the_phase_and_nothing_else(self):
        readings = turned(0.02, 60, 0.01)
        later = resolve(readings[3:] + readings[:3])
        self.assertAlmostEqual(later.eccentricity, 0.02, places=9)
        self.assertAlmostEqual(later.phase, (60 - 90) % 360, places=6)

    def test_two_jaws_of_a_four_jaw(self):
        """Four readings 0, 40, 0, −40 µm: 40 µm offset, towards 90°."""
        found = resolve((0, 0.04, 0, -0.04))
        self.assertAlmostEqual(found.eccentricity, 0.04, places=9)
        self.assertAlmostEqual(found.phase, 90, places=6)
        self.assertAlmostEqual(found.tir, 0.08, places=9)

    def test_too_few_or_badly_spread_readings_are_refused(self):
        with self.assertRaisesRegex(BadInput, "at least 3"):
            resolve((0.1, 0.2))
        with self.assertRaisesRegex(BadInput, "go round"):
            resolve((0.1, 0.2, 0.3), (0, 0, 0))
        with self.assertRaisesRegex(BadInput, "2 angles for 3"):
            resolve((0.1, 0.2, 0.3), (0, 90))


class Speeds(unittest.TestCase):
    def test_cast_iron_with_hss_on_95(self):
        """1000 · 22 / (π · 95) = 73.7 rpm; the lathe has 70."""
        answer = reckon(
            "speeds",
            {
                "material": "cast iron",
                "diameter": 95,
                "machine_speeds": [45, 70, 110],
            },
        )
        self.assertAlmostEqual(answer["rpm_ideal"], 73.71, places=2)
        self.assertEqual(answer["rpm"], 70)

    def test_a_thin_tool_is_fed_less(self):
        """A drill of 3: 0.045 a turn, of 10 0.15, of 25 no more than 0.25; a slot drill
        of 4 with two teeth: 2 × 0.02."""
        for operation, wide, teeth, feed in (
            ("drill", 3, 1, 0.045),
            ("drill", 10, 1, 0.15),
            ("drill", 25, 1, 0.25),
            ("ream", 8, 1, 0.2),
            ("mill", 4, 2, 0.04),
            ("mill", 50, 4, 0.2),
        ):
            asked = {"material": "steel", "operation": operation, "teeth": teeth}
            answer = reckon("speeds", {**asked, "diameter": wide})
            self.assertAlmostEqual(answer["feed"], feed, msg=f"{operation} {wide}")

    def test_a_cutter_of_known_teeth_tells_the_feed_of_the_table(self):
        """22.5 m/min on 12 mm are 597 rpm; four times 0.05 a tooth, 119 a minute."""
        asked = {"material": "steel", "diameter": 12, "operation": "mill"}
        found = reckon("speeds", {**asked, "teeth": 4})
        self.assertAlmostEqual(found["table_feed"], 596.83 * 0.2, 1)
        self.assertNotIn("table_feed", reckon("speeds", asked).results)

    def test_the_ridges_of_a_round_nose_are_those_of_its_arcs(self):
        """0.1² / (8 × 0.4) are 3.1 µm; the mean told by an arc cut into slices."""
        for feed, nose in ((0.1, 0.4), (0.2, 0.8), (0.05, 0.2)):
            with self.subTest(feed=feed, nose=nose):
                found = reckon("turned-finish", {"feed": feed, "nose_radius": nose})
                x = np.linspace(-feed / 2, feed / 2, 20_001)
                arc = 1000 * (nose - np.sqrt(nose**2 - x**2))
                self.assertAlmostEqual(found["height"] / np.ptp(arc), 1, 2)
                mean = np.abs(arc - arc.mean()).mean()
                self.assertAlmostEqual(found["roughness"] / mean, 1, 2)
                asked = {"roughness": found["roughness"], "nose_radius": nose}
                self.assertAlmostEqual(reckon("turned-finish", asked)["feed"], feed)

    def test_a_feed_that_leaves_whole_noses_standing_is_refused(self):
        self.assertTrue(reckon("turned-finish", {"feed": 0.8, "nose_radius": 0.4}))
        for given, key in (
            ({"feed": 0.81}, "feed"),
            ({"roughness": 60}, "roughness"),
            ({"feed": 0.1, "roughness": 1}, "feed"),
            ({}, "feed"),
        ):
            with self.subTest(given), self.assertRaises(BadInput) as refused:
                reckon("turned-finish", {"nose_radius": 0.4, **given})
            self.assertEqual(refused.exception.key, key)

    def test_a_machine_that_is_too_fast_says_so(self):
        answer = reckon(
            "speeds", {"material": "steel", "diameter": 300, "machine_speeds": [90]}
        )
        self.assertEqual(answer["rpm"], 90)
        self.assertIn("faster than wanted", answer.cautions[0])
