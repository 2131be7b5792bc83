import unittest

from machinon.core.asking import ask, headline
from machinon.core.reckoning import reckonings


class WhatOneWouldSay(unittest.TestCase):
    def test_sentences_that_are_complete(self):
        for said, name, inputs in (
            ("tap drill 5/16-18", "tap-drill", {"thread": "5/16-18"}),
            ("drill for M8", "tap-drill", {"thread": "M8"}),
            ("#10-32 tap drill", "tap-drill", {"thread": "#10-32"}),
            ("clearance hole 1/4-20", "clearance-hole", {"thread": "1/4-20"}),
            ("25 h6", "iso-limits", {"nominal": "25", "zone": "h6"}),
            ("1 1/2in H7/g6", "iso-fit", {"nominal": "1 1/2in", "fit": "H7/g6"}),
            ("2in FN2", "inch-fit", {"nominal": "2in", "fit": "FN2"}),
            ("mt3 angle", "taper", {"name": "mt3"}),
            ("7/24", "taper", {"name": "7/24"}),
            ("7 holes on 62", "bolt-circle", {"holes": "7", "diameter": "62"}),
            ("2ba", "thread", {"thread": "2ba"}),
            ("3/8 BSF", "thread", {"thread": "3/8 BSF"}),
            ("Tr20x4", "thread", {"thread": "Tr20x4"}),
            ("key 25", "keyway", {"shaft_diameter": "25"}),
            ("sine 12.5 100", "sine", {"angle": "12.5", "length": "100"}),
            ("chamfer 2", "chamfer", {"leg": "2"}),
            ("taper pin #5 38", "taper-pin", {"pin": "#5", "length": "38"}),
        ):
            with self.subTest(said):
                found = ask(said)[0]
                self.assertEqual(found.reckoning.name, name)
                self.assertEqual(found.inputs, inputs)
                self.assertTrue(headline(found.answer))

    def test_what_is_left_out_is_what_the_shop_usually_has(self):
        for said, name in (
            ("divide 7", "dividing"),
            ("gears 20 tpi", "change-gears"),
            ("gears 1.5", "change-gears"),
            ("hex 17", "polygon"),
        ):
            with self.subTest(said):
                self.assertEqual(ask(said)[0].reckoning.name, name)
                self.assertIsNotNone(ask(said)[0].answer)

    def test_words_of_the_shop_find_their_reckoning(self):
        for word, name in (
            ("weight", "mass"),
            ("chatter", "boring-bar"),
            ("glue", "bond-gap"),
            ("four jaw", "centring"),
            ("parallels", "gauge-stack"),
            ("handle", "lever"),
            ("gib", "dovetail"),
            ("half-nuts", "thread-dial"),
            ("tailstock", "tailstock"),
        ):
            with self.subTest(word):
                self.assertIn(name, [one.reckoning.name for one in ask(word)[:3]])

    def test_every_reckoning_is_found_by_its_own_name_and_title(self):
        for one in reckonings().values():
            for said in (one.name, one.name.replace("-", " "), one.title):
                with self.subTest(said):
                    names = [found.reckoning.name for found in ask(said)]
                    self.assertIn(one.name, names[:4])

    def test_nonsense_finds_nothing_and_harms_nothing(self):
        for said in ("", "   ", "zzzz", "M", "((((", "25 q6", "9" * 300, "a" * 5000):
            with self.subTest(said[:10]):
                for found in ask(said):
                    self.assertIsNone(found.answer)

    def test_both_units_stand_in_the_line(self):
        answer = ask("25 h6")[0].answer
        self.assertIn("25.000 mm (0.9843 in)", headline(answer))
        self.assertIn("0.9843 in (25.000 mm)", headline(answer, inch=True))
