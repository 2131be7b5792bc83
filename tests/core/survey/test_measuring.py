import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.shop.things import STARTER_INSTRUMENTS, Reading, Shop, Surface
from machinon.core.sizes.fit import wanted_play
from machinon.core.sizes.likely import likely_nominal
from machinon.core.survey.as_typed import read_typed
from machinon.core.survey.disagreeing import disagreeing
from machinon.core.survey.measured_size import at_reference
from machinon.core.survey.measuring import measure

SHOP = Shop(instruments=STARTER_INSTRUMENTS)


def surface(*sizes: float, kind="inside", instrument="bore-gauge") -> Surface:
    return Surface(
        "recess", "Recess", kind, readings=tuple(Reading(s, instrument) for s in sizes)
    )


class Readings(unittest.TestCase):
    def test_mean_spread_and_doubt(self):
        """Three readings, bore gauge ±5 µm at two sigma, repeats to 2 µm.

        sigma² = 2.5² + 2²/3 + 1²/12 + (95.02 · 10.5e-6 · 1000/√3)²
               = 6.25 + 1.33 + 0.083 + 0.332 = 8.00 µm², so ± 2 · 2.83 = 5.66.
        """
        found = measure(surface(95.018, 95.022, 95.020), SHOP, "cast iron")
        self.assertAlmostEqual(found.size, 95.020, places=6)
        self.assertAlmostEqual(found.spread, 0.004, places=6)
        self.assertAlmostEqual(found.uncertainty * 1000, 5.66, delta=0.01)
        self.assertEqual(found.nominal, "95 mm bore")
        self.assertEqual(found.doubts, ())

    def test_more_readings_never_make_it_less_sure(self):
        few = measure(surface(95.018, 95.022), SHOP, "cast iron")
        many = measure(surface(*[95.018, 95.022] * 4), SHOP, "cast iron")
        self.assertLess(many.uncertainty, few.uncertainty)

    def test_a_reading_that_disagrees_is_pointed_out_not_dropped(self):
        found = measure(surface(95.018, 95.022, 95.519, 95.02), SHOP, "cast iron")
        self.assertEqual([d.index for d in found.doubts], [2])
        self.assertIn("half a millimetre", found.doubts[0].cause)
        self.assertEqual(found.count, 3, "set apart until somebody decides")
        self.assertAlmostEqual(found.size, 95.02, 2)

    def test_two_readings_that_disagree_are_both_pointed_out_and_both_count(self):
        found = measure(surface(95.018, 95.519), SHOP, "cast iron")
        self.assertEqual(([d.index for d in found.doubts], found.count), ([0, 1], 2))

    def test_a_struck_reading_counts_no_more_and_a_kept_one_is_left_alone(self):
        made = surface(95.018, 95.022, 95.519, 95.02)
        slip = made.readings[2]
        struck = replace(slip, struck="misread")
        kept = replace(slip, kept="looked at")
        for reading, count in ((struck, 3), (kept, 4)):
            readings = (*made.readings[:2], reading, made.readings[3])
            found = measure(replace(made, readings=readings), SHOP, "cast iron")
            self.assertEqual(found.count, count)
            self.assertEqual(found.doubts, ())
        self.assertIsNone(measure(replace(made, readings=(struck,)), SHOP, "cast iron"))

    def test_of_two_that_disagree_both_are_doubted(self):
        doubts = disagreeing((46.0, 46.5), 0.002, 0.006)
        self.assertEqual([d.index for d in doubts], [0, 1])

    def test_the_cause_is_guessed_from_the_slip(self):
        for wrong, word in (
            (95.02 - 0.635, "inch thimble"),
            (96.02, "whole millimetre"),
            (9.502, "point slipped"),
            (95.02 / 25.4, "wrong unit"),
        ):
            with self.subTest(wrong):
                doubts = disagreeing((95.02, 95.021, wrong, 95.019), 0.002, 0.006)
                self.assertIn(word, doubts[0].cause)

    def test_a_warm_aluminium_part_is_smaller_at_20(self):
        """100 mm at 30 °C: (23 − 11.5)e-6 · 10 · 100 = 11.5 µm less."""
        self.assertAlmostEqual(at_reference(100, 30, 23e-6), 99.9885, places=4)
        self.assertAlmostEqual(at_reference(100, 30, 11.5e-6), 100, places=6)

    def test_likely_nominals(self):
        for size, doubt, kind, words in (
            (15.985, 0.006, "outside", "16 mm shaft"),
            (46.009, 0.006, "inside", "46 mm bore"),
            (22.23, 0.01, "outside", "7/8 in shaft"),
            (25.395, 0.006, "outside", "1 in shaft"),
            (33.33, 0.005, "outside", "1 5/16 in shaft"),
            (41.2, 0.004, "inside", ""),
        ):
            with self.subTest(size):
                self.assertEqual(likely_nominal(size, doubt, kind)[1], words)

    def test_a_pitch_may_be_threads_per_inch(self):
        pitch = Surface("pitch", "Pitch", "pitch")
        self.assertAlmostEqual(read_typed("8tpi", pitch, False), 3.175)
        with self.assertRaisesRegex(BadInput, "8tpi"):
            read_typed("0tpi", pitch, False)
        with self.assertRaises(BadInput):
            read_typed("nan", pitch, False)


class FitTargets(unittest.TestCase):
    def test_spigot_for_a_measured_recess(self):
        """Recess 95.020 ± 0.005, g6 at 95 is −34 to −12 µm.

        Largest: 95.020 − 0.005 − 0.012 = 95.003.
        Smallest: 95.020 + 0.005 − 0.034 = 94.991.
        """
        answer = reckon(
            "fit-target",
            {
                "existing": [95.018, 95.022],
                "instrument_uncertainty": 0.005,
                "kind": "hole",
                "want": "slides",
            },
        )
        self.assertAlmostEqual(answer["upper"], 95.003, places=6)
        self.assertAlmostEqual(answer["lower"], 94.991, places=6)
        self.assertAlmostEqual(answer["aim"], 94.997, places=6)
        self.assertAlmostEqual(answer["band"], 0.012, places=6)
        self.assertEqual(answer.cautions, ())

    def test_bore_for_a_measured_register(self):
        """Nose 45.993 ± 0.004; own play 10 to 40 µm: bore 46.007 to 46.029."""
        answer = reckon(
            "fit-target",
            {
                "existing": [45.993],
                "instrument_uncertainty": 0.004,
                "kind": "shaft",
                "clearance_min": 0.010,
                "clearance_max": 0.040,
            },
        )
        self.assertAlmostEqual(answer["lower"], 46.007, places=6)
        self.assertAlmostEqual(answer["upper"], 46.029, places=6)

    def test_with_no_doubt_the_worst_play_is_what_was_asked(self):
        """Worked back: hole less shaft at both ends of the band."""
        answer = reckon(
            "fit-target",
            {
                "existing": [60.0],
                "instrument_uncertainty": 0,
                "kind": "hole",
                "want": "H7/g6",
            },
        )
        self.assertAlmostEqual(60 - answer["upper"], answer["clearance_min"])
        self.assertAlmostEqual(60 - answer["lower"], answer["clearance_max"])

    def test_a_coarse_gauge_leaves_nothing_and_says_so(self):
        answer = reckon(
            "fit-target",
            {
                "existing": [95.02],
                "instrument_uncertainty": 0.03,
                "kind": "hole",
                "want": "slides",
            },
        )
        self.assertLess(answer["band"], 0)
        self.assertIn("Nothing is left", answer.cautions[0])

    def test_a_zone_for_the_wrong_half_is_refused(self):
        with self.assertRaisesRegex(BadInput, "for a hole, but the shaft"):
            wanted_play("G6", 95, "hole")
        self.assertAlmostEqual(wanted_play("g6", 95, "hole").least, 0.012)

    def test_neither_fit_nor_play_names_what_is_missing(self):
        given = {"existing": [20], "instrument_uncertainty": 0, "kind": "hole"}
        with self.assertRaises(BadInput) as no:
            reckon("fit-target", given)
        self.assertEqual(no.exception.key, "want")
