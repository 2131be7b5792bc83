"""What is typed into a reckoning's picture, without a window."""

import math
import unittest

from machinon.core.reckoning import FLAG, reckonings
from machinon.desk.question import Question


def asked(name):
    reckoning = reckonings()[name]
    question = Question(reckoning, dict(reckoning.usual))
    question.work_out(False)
    return question


class WhatTakesAnothersPlace(unittest.TestCase):
    def test_of_alternatives_the_one_typed_last_counts(self):
        """A flat 8 wide on a round of 30, then one that is 2 deep: 26 across ... its
        width is 2 √(15² − 13²) = 14.967. A knurl of 25 teeth to the inch."""
        flat = asked("flat")
        flat.put("diameter", "30", False)
        flat.put("depth", "2", False)
        self.assertIsNone(flat.wrong)
        self.assertAlmostEqual(flat.answer["width"], 2 * math.sqrt(56))
        knurl = asked("knurl")
        knurl.put("tpi", "25", False)
        self.assertIsNone(knurl.wrong)
        self.assertNotIn("pitch", knurl.given)

    def test_what_is_given_instead_is_taken_without_a_word(self):
        """Each is a second way to ask the same, and puts the first one aside."""
        for name, key, text in (
            ("centre-drill", "mouth", "6"),
            ("countersink", "depth", "2"),
            ("gear", "dp", "16"),
            ("hardness", "brinell", "200"),
            ("hole-row", "pitch", "20"),
            ("table-feed", "travel", "120"),
            ("taper-end", "small", "15"),
            ("temper-colour", "heat", "230"),
            ("thread-dial", "pitch", "1.5"),
            ("turned-finish", "roughness", "1.6"),
        ):
            with self.subTest(name):
                question = asked(name)
                question.put(key, text, False)
                self.assertIsNone(question.wrong)
                self.assertEqual(question.given[key], text)

    def test_of_a_triangle_the_last_two_count(self):
        """3 and 4 make 5; then 5 along the slope and 30°: it rises 2.5."""
        question = asked("triangle")
        for key, text in (("side", "3"), ("rise", "4")):
            question.put(key, text, False)
        self.assertAlmostEqual(question.answer["slope"], 5)
        for key, text in (("slope", "5"), ("angle", "30")):
            question.put(key, text, False)
        self.assertIsNone(question.wrong)
        self.assertAlmostEqual(question.answer["rise"], 2.5)

    def test_a_shape_asks_its_own_sizes(self):
        """A tube of 50 with a bore of 30: π/4 (50² − 30²) a millimetre."""
        question = asked("mass")
        length = float(question.values["length"])
        question.put("shape", "tube", False)
        self.assertIsNone(question.wrong)
        self.assertAlmostEqual(question.answer["volume"], math.pi / 4 * 1600 * length)
        question.put("shape", "block", False)
        self.assertEqual(set(question.given) & {"bore", "diameter", "width"}, {"width"})

    def test_every_choice_of_every_reckoning_can_be_made(self):
        """But of one: tapped holes meet holes that have to be measured."""
        for name, reckoning in reckonings().items():
            for given in reckoning.inputs:
                choices = given.choices or ("yes", "no") * (given.kind is FLAG)
                for choice in choices:
                    question = asked(name)
                    question.put(given.key, choice, False)
                    if (name, choice) != ("bolt-room", "tapped"):
                        with self.subTest(name, choice=choice):
                            self.assertIsNone(question.wrong)

    def test_what_cannot_be_left_out_stays(self):
        question = asked("mass")
        before = dict(question.given)
        question.put("diameter", "", False)
        self.assertIsNotNone(question.wrong)
        self.assertEqual(question.given, before)


if __name__ == "__main__":
    unittest.main()
