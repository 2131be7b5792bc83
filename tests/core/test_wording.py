import unittest

from machinon.core.wording import begun, within


class Wording(unittest.TestCase):
    def test_only_the_first_letter_changes_and_not_that_of_a_sign(self):
        for name, inside in (
            ("Register", "register"),
            ("Thread M45 × 4.5", "thread M45 × 4.5"),
            ("T-slot head width", "T-slot head width"),
            ("M8 screw", "M8 screw"),
            ("A wall of 2 mm", "a wall of 2 mm"),
            ("", ""),
        ):
            self.assertEqual(within(name), inside)
            self.assertEqual(within(inside), inside)
        self.assertEqual(begun("bore for M8"), "Bore for M8")
        self.assertEqual(begun(""), "")
