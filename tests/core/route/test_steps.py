import math
import unittest
from itertools import pairwise

from machinon.core.cutting.speeds import feed_text
from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.reckoning import reckon
from machinon.core.route.duration import minutes_of
from machinon.core.route.steps import route_told
from machinon.core.shop.making import Moved
from machinon.core.threads.drill_steps import ladder


def steps(key, **given):
    sizes = {name.replace("_", ".", 1): text for name, text in given.items()}
    made = make(families()[key], sizes)
    return {step.key: step for up in route_told(made) for step in up.steps}


class Ladders(unittest.TestCase):
    def test_each_drill_follows_one_about_half_as_large(self):
        for drill in (3.0, 6.8, 8.5, 10.3, 13.0, 19.0, 25.0, 40.0):
            stages = ladder(drill)
            self.assertEqual(stages[-1], drill)
            self.assertLessEqual(stages[0], 8.0)
            for small, large in pairwise(stages):
                self.assertLessEqual(small, large / 2)
                self.assertGreater(small, large / 2 - 0.6)

    def test_by_the_drills_that_there_are_each_is_the_largest_up_to_half(self):
        """Of 6, 10 and 13: 13 under 25 / 2 is none, 10 is, 6 under 5 is none."""
        asked = {"hole": 25, "series": ["6mm", "10mm", "13mm"]}
        drills = reckon("drill-steps", asked)["drills"]
        self.assertEqual([row["size"] for row in drills], [10, 25])
        begun = reckon("drill-steps", {"hole": 25, "there": 10})["drills"]
        self.assertEqual([row["size"] for row in begun], [12.5, 25])
        with self.assertRaisesRegex(BadInput, "Under 20 mm"):
            reckon("drill-steps", {"hole": 20, "there": 20})

    def test_what_is_wider_than_25_is_bored_out_and_not_drilled(self):
        """No lathe of a home shop turns a drill of 50, and no rack has one."""
        wide = steps("spacer-sleeve", shaft_diameter="60")
        self.assertEqual(wide["drill-bore"].drills[-1], 25)
        self.assertEqual(wide["bore-bore"].before.feature("bore").diameter, 25)
        jig = {"part_bore": "95", "middle_diameter": "47", "pattern_circle": "110"}
        middle = steps("drill-plate", **jig)["bore-middle"].before.feature("middle")
        self.assertEqual(middle.diameter, 25)
        small = steps("drill-plate", part_bore="40", middle_diameter="20")
        self.assertNotIn("bore-middle", small)
        inch = make(families()["spacer-sleeve"], {"shaft.diameter": "60"}, False, True)
        drill = route_told(inch)[0].steps[1]
        self.assertEqual((drill.key, drill.drill), ("drill-bore", 25.4))

    def test_what_is_too_deep_for_a_blade_is_sawn_off(self):
        """A disc of 90 on a bore of 12 is 39 deep; one of 55 is 21."""
        for wide, title in (
            ("55", "Part off at the back, leave 0.5 mm"),
            ("90", "Saw off at the back, leave 1.5 mm"),
        ):
            step = steps("detent-plate", plate_diameter=wide)["part-back"]
            with self.subTest(wide):
                self.assertEqual(step.title, title)
                self.assertEqual(bool(step.speed), wide == "55")

    def test_they_are_said_where_there_are_several(self):
        self.assertIn("6.2, 12.5, 25 mm", steps("back-plate")["drill"].note)
        thin = steps("plate-block", parts="hole", hole1_screw="M6")
        self.assertNotIn("One after the other", thin["drill-hole1"].note)


class OfTube(unittest.TestCase):
    """A sleeve bored 20.02 right through, by a drill of 19 where it starts solid."""

    def test_a_hole_in_the_stock_spares_the_drill(self):
        self.assertEqual(steps("spacer-sleeve")["drill-bore"].drill, 19)
        for bore, spared in (("19", True), ("13", True), ("12.5", False)):
            found = steps("spacer-sleeve", stock_bore=bore)
            self.assertEqual("drill-bore" not in found, spared, bore)
        self.assertAlmostEqual(found["face-right_face"].before.hollow, 12.5)

    def test_a_drill_follows_the_hole_that_is_there(self):
        """A solid one is opened by 4.7 and 9.5 first; of 5 in the stock, by 9.5."""
        self.assertEqual(steps("spacer-sleeve")["drill-bore"].drills, (4.7, 9.5, 19))
        self.assertEqual(
            steps("spacer-sleeve", stock_bore="5")["drill-bore"].drills, (9.5, 19)
        )

    def test_the_hole_must_clean_up(self):
        """Half a millimetre to a side is bored out of it: 19, and no more."""
        for bore, does in (("19", True), ("19.5", False), ("22", False)):
            made = make(families()["spacer-sleeve"], {"stock.bore": bore})
            failed = [check.key for check in made.checks if not check.passed]
            self.assertEqual(failed, [] if does else ["stock-bore"], bore)

    def test_what_is_not_bored_through_is_made_of_no_tube(self):
        made = make(families()["turned-piece"], {"parts": "step", "stock.bore": "6"})
        failed = {check.key: check.says for check in made.checks if not check.passed}
        self.assertIn("no hole right through", failed["stock-bore"])
        with self.assertRaisesRegex(BadInput, "no wall"):
            make(families()["spacer-sleeve"], {"stock.bore": "40"})


class Speeds(unittest.TestCase):
    def test_a_step_turns_as_fast_as_the_round_it_cuts_allows(self):
        """Cast iron 22 m/min: on the spigot, 95.997 as roughed, 72.9 rpm; on the front
        out to the blank of 135, 51.9."""
        found = steps("back-plate")
        self.assertAlmostEqual(found["spigot"].rpm, 22000 / 3.14159 / 95.997, 1)
        self.assertAlmostEqual(found["face-hub"].rpm, 22000 / 3.14159 / 135, 1)

    def test_a_cutter_turns_as_fast_as_its_own_width_allows(self):
        """Mild steel is turned at 30 m/min by high-speed steel and milled at nine
        tenths of it: a saw of 80 turns at 107, an end mill of 8 ten times as fast."""
        for key, step, tool, wide in (
            ("t-nut-strip", "saw-saw_cuts", "slitting saw", 80),
            ("plate-block", "square-block", "face mill", 50),
            ("vee-block", "mill-slot1", "end mill 10 mm", 10),
            ("keeper", "mill-edge1", "90° cutter", 20),
            ("clamp-plate", "mill-pocket1", "end mill 8 mm", 8),
        ):
            found = steps(key)[step]
            self.assertEqual(found.tool, tool)
            self.assertAlmostEqual(found.rpm, 27_000 / math.pi / wide, 3)

    def test_one_parts_and_grooves_at_half_the_speed_and_knurls_below_it(self):
        """Mild steel is turned at 30 m/min: parted and grooved at 15, knurled at 12."""
        for key, step, part in (
            ("spacer-sleeve", "part", 0.5),
            ("housing-cover", "groove-groove", 0.5),
            ("knob", "knurl-knurl", 0.4),
        ):
            found = next(s for k, s in steps(key).items() if k.startswith(step))
            self.assertAlmostEqual(found.speed["surface_speed"], part * 30, msg=key)

    def test_a_feed_is_a_turn_s_and_a_cutter_s_is_a_tooth_s(self):
        """Nobody said how many teeth it has: 0.05 a turn would only rub."""
        feeds = {
            step: feed_text(steps("t-nut-strip")[step].speed)
            for step in ("mill-rebate_front", "saw-saw_cuts", "drill-thread")
        }
        self.assertEqual(list(feeds.values()), [
            "feed 0.05 mm a tooth", "feed 0.02 mm a tooth", "feed 0.15 mm a turn",
        ])  # fmt: skip
        counted = reckon("speeds", {"material": "steel", "diameter": 20,
                                    "operation": "mill", "teeth": 4})  # fmt: skip
        self.assertEqual(feed_text(counted), "feed 0.20 mm a turn")
        self.assertEqual(feed_text(steps("back-plate")["thread"].speed), "")

    def test_nothing_turns_where_it_is_pushed_or_filed(self):
        self.assertEqual(steps("hub-adapter")["keyway-key"].rpm, 0)
        self.assertEqual(steps("ring-nut-spanner")["mill-shape"].rpm, 0)

    def test_what_is_cut_to_nothing_has_no_speed(self):
        """A bevel of 45 on a piece of 30: its point is thinner than any tool."""
        sizes = {"stock.length": "33.526", "edge1.leg": "45"}
        made = make(families()["turned-piece"], sizes)
        late = (Moved("turn-step1", "bevel-edge2", True, "for once"),)
        told = [step for up in route_told(made, moved=late) for step in up.steps]
        pointed = next(step for step in told if step.key == "turn-step1")
        self.assertIsNone(pointed.speed)
        self.assertGreater(minutes_of(pointed), 0)

    def test_a_bore_turns_by_its_own_diameter(self):
        found = steps("turned-piece", parts="step bore", step1_diameter="60",
                      bore1_diameter="20")  # fmt: skip
        self.assertGreater(found["bore-bore1"].rpm, 2 * found["turn-step1"].rpm)


if __name__ == "__main__":
    unittest.main()
