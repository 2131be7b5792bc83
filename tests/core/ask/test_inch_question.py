"""What an inch shop is asked first: its own round figures, not converted ones."""

import unittest

from machinon.core.ask.inch_question import inch_question
from machinon.core.ask.own_figures import Own
from machinon.core.quantity import FEED, INCH, LENGTH
from machinon.core.reckoning import reckon, reckonings


def lengths(value):
    if isinstance(value, list | tuple):
        for part in value:
            yield from lengths(part)
    elif isinstance(value, int | float):
        yield value / INCH


class InchQuestions(unittest.TestCase):
    def test_each_can_be_answered_and_its_sizes_are_round_in_inches(self):
        for name, reckoning in reckonings().items():
            asked = inch_question(reckoning)
            with self.subTest(name):
                reckoning.answer(asked, inch=True)
            for given in reckoning.inputs:
                if given.kind not in (LENGTH, FEED) or given.key in (
                    reckoning.usual_inch
                ):
                    continue
                for inches in lengths(asked.get(given.key)):
                    with self.subTest(name, key=given.key, inches=inches):
                        self.assertAlmostEqual(inches * 1e5, round(inches * 1e5), 5)

    def test_what_stands_beside_a_round_size_stands_beside_the_round_inches(self):
        asked = inch_question(reckonings()["fit-target"])["existing"]
        for bore, inches in zip(asked, (3.5007, 3.5009, 3.5008), strict=True):
            self.assertAlmostEqual(bore / INCH, inches)

    def test_what_is_another_thing_there_is_declared(self):
        known = reckonings()
        gear = inch_question(known["gear"])
        self.assertEqual((gear.get("module"), gear["dp"]), (None, 12))
        self.assertEqual(inch_question(known["nut"])["thread"], "3/8-16 UNC")
        self.assertEqual(inch_question(known["change-gears"])["leadscrew"], "8tpi")

    def test_what_the_shop_owns_comes_first(self):
        mine = Own({"leadscrew": "6mm"})
        asked = mine.with_usual(reckonings()["change-gears"], inch=True)
        self.assertEqual((asked["leadscrew"], asked["tpi"]), ("6mm", 20))

    def test_a_dial_of_an_inch_shop_reads_thousandths(self):
        dial = {
            inch: reckon("fine-feed", {"angle": 30, "travel": 1}, inch)["a_line"]
            for inch in (False, True)
        }
        self.assertAlmostEqual(dial[False], 0.02)
        self.assertAlmostEqual(dial[True], 0.001 * INCH)


if __name__ == "__main__":
    unittest.main()
