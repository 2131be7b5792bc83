import math
import unittest

from machinon.core.families import family_of
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told


def carrier(**given):
    return make(
        family_of("carrier"),
        {name.replace("_", ".", 1): text for name, text in given.items()},
    )


def failed(made):
    return {check.key for check in made.checks if not check.passed}


class Carriers(unittest.TestCase):
    """As usual: a chuck of 60 mm goes 40 deep into a body of 100 by 52."""

    def test_its_wall_is_shared_by_bolts_and_grub_screws(self):
        """Wall from 60.065 to 100: the circle lies in its middle, near enough 80."""
        made = carrier()
        self.assertEqual(made.values["bolts.circle"], 80)
        self.assertEqual(made.values["body.length"], 40 + 8 + 4)
        self.assertEqual(failed(made), set())

    def test_grub_screws_stand_between_the_grooves(self):
        """A bore 40 deep to the front at 52, its middle at 32: with one groove there,
        a quarter of the bore before it; with three, an eighth."""
        for count, place in ((0, 32), (1, 42), (2, 32), (3, 37)):
            made = carrier(grooves_count=f"{count}")
            self.assertEqual(made.values["grubs.from_end"], place)
            told = {key for key in failed(made) if key.startswith("grubs-groove")}
            self.assertEqual(told, set())

    def test_grub_screws_pass_half_a_pitch_beside_the_bolts(self):
        """Four bolts on 80: 40 sin 45° = 28.28 from a grub screw's axis to a bolt's;
        less 3 and 3 for the two M6, 22.28 mm."""
        made = carrier()
        check = next(check for check in made.checks if check.key == "grubs-bolts")
        self.assertAlmostEqual(check.have, 40 * math.sin(math.pi / 4) - 6)
        # twelve on 70 with M10 in 40 mm of length, right behind the bolts' ends
        tight = carrier(
            bolts_count="12",
            bolts_circle="78",
            bolts_screw="M8",
            bolts_depth="20",
            grubs_thread="M12",
            grubs_from_end="20",
        )
        self.assertIn("grubs-bolts", failed(tight))

    def test_what_usually_goes_wrong_is_said_before_metal_is_lost(self):
        for given, key in (
            ({"bolts_circle": "68"}, "bolts-bore"),
            ({"bolts_circle": "113"}, "bolts-edge"),
            ({"register_diameter": "84"}, "bolts-register"),
            ({"body_diameter": "73", "bolts_circle": "66"}, "grub-thread"),
            ({"grubs_from_end": "50"}, "grubs-in-the-bore"),
            ({"body_length": "46"}, "web"),
            ({"through_diameter": "58"}, "web-over-hole"),
            ({"bore_depth": "20"}, "grip"),
            ({"grooves_count": "4", "grooves_width": "6"}, "groove-lands"),
            ({"register_depth": "2"}, "register-guides"),
        ):
            with self.subTest(key):
                self.assertIn(key, failed(carrier(**given)))

    def test_its_bore_is_finished_on_its_own_spindle_and_pinned_last(self):
        up = {
            holding.key: [s.key for s in holding.steps]
            for holding in route_told(carrier())
        }
        self.assertEqual(list(up), ["rear", "bolts", "in-place", "grubs", "tight"])
        place = up["in-place"]
        self.assertLess(place.index("rough-bore"), place.index("bore"))
        self.assertLess(place.index("bore"), place.index("prove-bore"))
        self.assertEqual(up["grubs"][-2:], ["bond", "dimple"])
        grooves = [key for key in place if key.startswith("groove")]
        self.assertEqual(len(grooves), 2)
        none = [
            s.key
            for holding in route_told(carrier(grooves_count="0"))
            for s in holding.steps
        ]
        self.assertFalse([key for key in none if key.startswith("groove")])

    def test_dimples_are_drilled_through_the_thread_and_never_touch_it(self):
        """M6 is drilled 5.0, so 4.9 goes through. In a wall of 20 a dimple between 0.2
        and 0.4 of 6 is 1.8 deep: 21.8 from the outside, a screw of 20."""
        steps = [s for up in carrier().holdings for s in up.steps]
        note = next(s.note for s in steps if s.key == "dimple")
        self.assertIn("drill of 4.9 mm", note)
        self.assertIn("21.8 mm deep in all", note)
        self.assertIn("M6 × 20", note)

    def test_a_thin_chuck_has_thin_grub_screws_or_none(self):
        """A dimple is 0.2 of its screw deep at least, and half the wall stays: M4 in a
        wall of 2, of 1 not even M3."""
        thin = carrier(held_wall="2")
        self.assertEqual(thin.values["grubs.thread"], "M4")
        self.assertEqual(failed(thin), set())
        told = {check.key: check for check in carrier(held_wall="1").checks}
        self.assertFalse(told["grub-long"].passed)
        self.assertIn("1.20 mm of wall", told["grub-long"].says)

    def test_the_gap_is_the_compounds(self):
        """Usual: 30 to 100 µm on 60 ± 0.004, so 60.034 to 60.096."""
        (bore,) = carrier().fits
        self.assertAlmostEqual(bore.lower, 60.034)
        self.assertAlmostEqual(bore.upper, 60.096)


if __name__ == "__main__":
    unittest.main()
