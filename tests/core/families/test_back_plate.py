import unittest

from machinon.core.families import family_of
from machinon.core.job.own_alike import own_alike
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.shop.making import Making
from machinon.core.shop.things import Piece


def plate(**given):
    return make(
        family_of("back-plate"),
        {name.replace("_", ".", 1): text for name, text in given.items()},
    )


def failed(made):
    return {check.key for check in made.checks if not check.passed}


def steps(made):
    return {step.key: step for up in route_told(made) for step in up.steps}


OLD = {"blank_kind": "old plate", "stock_diameter": "130", "stock_length": "40"}


class FromAnOldPlate(unittest.TestCase):
    """An old plate 40 long with its thread in it: hub 16, flange 18, spigot 3.5."""

    def test_what_is_there_already_is_in_every_picture_and_in_no_step(self):
        made = plate(**OLD)
        self.assertEqual(failed(made), set())
        cut = {name for step in steps(made).values() for name in step.features
               if step.operation not in ("prove", "mount", "deburr")}  # fmt: skip
        self.assertFalse(cut & {"thread", "core", "hub", "hub_face"})
        first = next(iter(steps(made).values()))
        self.assertIn("thread", {feature.name for feature in first.before.features})
        self.assertIn("Skim the old register", steps(made)["seat"].title)

    def test_enough_has_to_be_left_once_its_register_is_skimmed_off(self):
        """16 + 18 + 3.5 = 37.5: a plate of 37.8 leaves 0.3 to skim, half is wanted."""
        thin = plate(**{**OLD, "stock_length": "37.8"})
        self.assertEqual(failed(thin), {"stock-length"})
        small = plate(**{**OLD, "stock_diameter": "128"})
        # as large as it is drawn, the flange would lie outside of it
        self.assertEqual(failed(small), {"stock-diameter", "gone-flange"})


class IndexRing(unittest.TestCase):
    def test_one_plunger_serves_all_the_plates_of_a_shop(self):
        """Holes of 6, 6 deep, in a rim 18 thick: that of one plate has 8, one has
        none, and one is alike as far as it is known."""
        ring = {"ring.count": "24"}
        shop = [
            Piece(name, name, "other", making=Making(family, sizes))
            for name, family, sizes in (
                ("Plate 160", "back-plate", {**ring, "ring.diameter": "8"}),
                ("Plate 200", "back-plate", {**ring, "flange.thickness": "18mm"}),
                ("Plate 100", "back-plate", {}),
                ("Cover", "housing-cover", {}),
            )
        ]
        made = plate(flange_diameter="145", ring_count="60")
        self.assertEqual(
            own_alike(made, shop, False),
            "Index holes in the rim: not as on Plate 160, which has index holes 8 mm; "
            "as on Plate 200.",
        )
        self.assertEqual(own_alike(plate(), shop, False), "", "no ring, nothing said")
        self.assertEqual(own_alike(made, shop[2:], False), "")

    def test_its_holes_keep_a_land_a_rim_and_off_the_bolts(self):
        """⌀6 on a rim of 145: 145 sin 7.5° − 6 = 12.93 of land for 24 of them, and
        145 sin 1.8° − 6 = −1.45 for 100. Behind: (145 − 110 − 15)/2 = 10 to a head."""
        usual = {"flange_diameter": "145", "ring_count": "24"}
        made = plate(**usual)
        self.assertEqual(failed(made), set())
        land = next(check for check in made.checks if check.key == "ring-land")
        self.assertAlmostEqual(land.have, 12.926, places=3)
        for more, key in (
            ({"ring_count": "100"}, "ring-land"),
            ({"ring_diameter": "16"}, "ring-rim"),
            ({"ring_depth": "9.5"}, "ring-bolts"),
        ):
            with self.subTest(key):
                self.assertIn(key, failed(plate(**{**usual, **more})))

    def test_it_is_drilled_last_every_so_many_degrees(self):
        made = plate(flange_diameter="145", ring_count="24")
        self.assertEqual(list(steps(made))[-2], "ring")
        self.assertIn("Every 15°", steps(made)["ring"].note)


class Screws(unittest.TestCase):
    def test_inch_screws_bring_their_own_heads_and_drills(self):
        """5/16: head bore and clearance from the table of inch screws."""
        inch = plate(bolts_screw="5/16-18")
        hole = inch.body.feature("bolts").hole
        self.assertGreater(hole.diameter, 5 / 16 * 25.4)
        self.assertGreater(hole.bore, hole.diameter)

    def test_screws_from_the_chuck_are_tapped_into_the_plate(self):
        """M8: drill 6.8, and cast iron asks for 1.4 × 8 = 11.2 of thread."""
        made = plate(bolts_bolting="into")
        self.assertEqual(steps(made)["holes"].drill, 6.8)
        self.assertEqual(steps(made)["tap"].tap, "M8")
        thread = next(check for check in made.checks if check.key == "engagement")
        self.assertAlmostEqual(thread.need, 11.2)


if __name__ == "__main__":
    unittest.main()
