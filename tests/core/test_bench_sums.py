"""Sums that decide whether a part is scrap, worked by hand beside them."""

import cmath
import math
import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.setting_out.runout_stack import Element, best_clocking, likely
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import thread_of


class SettingUp(unittest.TestCase):
    def test_a_head_that_leans_cuts_nearer_on_one_side(self):
        """Left nearer by 0.06 over a sweep of 200: 0.03 over 100, atan 0.0003 =
        0.0172°. The sweep stands square to the spindle: low at the left, its top leans
        to the left, and goes clockwise."""
        head = {"sweep": 200, "left": 0.06, "right": 0, "front": 0.01, "back": 0.05}
        answer = reckon("head-tram", head)
        self.assertAlmostEqual(answer["across"], 0.03)
        self.assertAlmostEqual(answer["across_angle"], 0.01719, places=5)
        self.assertAlmostEqual(answer["across_to"], 0.03)
        self.assertIn("clockwise, seen from the front", answer["advice"])
        self.assertNotIn("tip", answer["advice"], "0.02 over 100 is left alone")
        # turned by the angle it reads alike: the left falls, the right rises
        fell = 100 * math.sin(math.radians(answer["across_angle"]))
        self.assertAlmostEqual(0.06 - fell, answer["across_to"], places=6)
        tipped = reckon("head-tram", {**head, "front": 0.12})
        self.assertIn("tip its top away from you", tipped["advice"])
        with self.assertRaises(BadInput):
            reckon("head-tram", {"sweep": 200, "left": 0, "right": 0, "front": 0.1})

    def test_a_jaw_is_tapped_at_the_end_that_stands_nearer(self):
        """0.08 over 100 is 0.12 at 150 from the bolt."""
        vise = {"travel": 100, "first": 0, "last": 0.08, "jaw": 150}
        answer = reckon("vise-tram", vise)
        self.assertAlmostEqual(answer["tap"], 0.12)
        self.assertIn("right end", answer["advice"])
        self.assertIn("leave it", reckon("vise-tram", {**vise, "last": 0.01})["advice"])

    def test_a_steady_off_to_the_side_turns_a_taper(self):
        """0.04 towards you at the steady is 0.08 on the diameter; a bar 0.02 thicker
        there reads 0.01 of it on each side."""
        read = {"top_chuck": 0, "top_steady": 0.06, "side_chuck": 0,
                "side_steady": 0.04, "apart": 250}  # fmt: skip
        answer = reckon("steady-centre", read)
        self.assertAlmostEqual(answer["lower"], 0.06)
        self.assertAlmostEqual(answer["cone"], 0.08)
        self.assertIn("Let it down and push it away", answer["advice"])
        thick = reckon("steady-centre", {**read, "taper": 0.02})
        self.assertAlmostEqual(thick["away"], 0.03)
        still = {**read, "top_steady": 0.002, "side_steady": -0.001}
        self.assertIn("true over 250", reckon("steady-centre", still)["advice"])

    def test_shims_lift_every_corner_to_the_highest(self):
        """A plane that rises 0.08 to the right and 0.03 to the back: with the shims all
        four stand as high. A corner up by 0.04 alone is a hundredth of twist."""
        corners = (0.0, 0.08, 0.11, 0.03)
        answer = reckon("packing", {"readings": corners})
        lifted = [c + foot["shim"] for c, foot in zip(corners, answer["shims"],
                                                    strict=True)]  # fmt: skip
        for height in lifted:
            self.assertAlmostEqual(height, 0.11)
        twisted = reckon("packing", {"readings": (0.04, 0, 0, 0)})
        self.assertAlmostEqual(twisted["twist"], 0.01)
        with self.assertRaises(BadInput):
            reckon("packing", {"readings": (0, 0, 0)})


class DovetailHalves(unittest.TestCase):
    def other(self, **given):
        play = {"pin": 9.525, "play_least": 0.02, "play_most": 0.05}
        return reckon("dovetail-mate", {**play, **given})

    def test_a_shallow_slot_lets_the_whole_tongue_in(self):
        """Tongue 45.402 at the root, 12.2 deep: 59.49 over its top."""
        top = 45.402 + 2 * 12.2 / math.tan(math.radians(60))
        slot = self.other(bottom=45.402, depth=12.2, new_depth=11)
        self.assertAlmostEqual(slot["bottom_lower"], top + 0.02)
        self.assertAlmostEqual(slot["bottom_upper"], top + 0.05)
        self.assertEqual(slot["bears"], "top")

    def test_either_half_is_found_again_from_the_other(self):
        for slot_depth, tongue_depth in ((11, 12.2), (12.2, 11), (12, 12)):
            with self.subTest(slot=slot_depth, tongue=tongue_depth):
                slot = self.other(bottom=45, depth=tongue_depth, new_depth=slot_depth)
                floor = (slot["bottom_lower"] + slot["bottom_upper"]) / 2
                tongue = self.other(
                    bottom=floor,
                    internal=True,
                    depth=slot_depth,
                    new_depth=tongue_depth,
                )
                root = (tongue["bottom_lower"] + tongue["bottom_upper"]) / 2
                self.assertAlmostEqual(root, 45)
                self.assertEqual(slot["bears"], tongue["bears"])

    def test_what_the_depths_do_not_let_bear_is_refused(self):
        with self.assertRaisesRegex(BadInput, "top touches first.*12.2 mm deep"):
            self.other(bottom=45, depth=12.2, new_depth=11, bears="shoulders")
        found = self.other(bottom=45, depth=12.2, new_depth=12.2, bears="shoulders")
        self.assertEqual(found["bears"], "shoulders")


class TaperPins(unittest.TestCase):
    def test_a_large_end_standing_out_asks_smaller_drills(self):
        """#4 is 0.250 in; 10 mm out of a 30 mm hole: 6.35 - 40/48 = 5.517."""
        out = reckon("taper-pin", {"pin": "#4", "length": 30, "large_end_at": -10})
        through = out["drills"][0]
        self.assertEqual(through["depth"], 30)
        self.assertLess(through["drill"], 6.35 - 40 / 48)
        self.assertGreater(through["drill"], 6.35 - 40 / 48 - 0.15)
        deep = reckon("taper-pin", {"pin": "#4", "length": 30, "large_end_at": 5})
        self.assertGreater(deep["drills"][0]["drill"], through["drill"])

    def test_no_step_is_larger_than_the_taper_where_it_ends(self):
        for pin in ("#0", "#4", "#7", "5", "10"):
            for at in (-8.0, 0.0, 3.0):
                found = reckon(
                    "taper-pin", {"pin": pin, "length": 25, "large_end_at": at}
                )
                ratio = 1 / 48 if pin[0] == "#" else 1 / 50
                for step in found["drills"]:
                    with self.subTest(pin, at=at, step=step):
                        there = found["large_diameter"] - (step["depth"] - at) * ratio
                        self.assertLess(step["drill"], there)


class Threads(unittest.TestCase):
    def test_a_nose_whose_flanks_nobody_read_is_of_two_forms(self):
        found = reckon("thread-identify", {"measured_major": 28.5, "tpi": 12})
        names = [candidate["thread"] for candidate in found["candidates"][:2]]
        self.assertEqual(names, ["1 1/8-12 UNF", "1 1/8-12 W"])
        self.assertFalse(found["told_apart"])
        self.assertIn("flanks", found["decides"])

    def test_bsw_with_other_threads_to_the_inch_names_the_form(self):
        special = thread_of("1 1/8-12 BSW")
        self.assertEqual((special.form.angle, special.tpi), (55, 12))
        self.assertEqual(thread_of("1/4-26 BSW").name, thread_of("1/4 BSF").name)
        with self.assertRaises(BadInput):
            thread_of("1/4-20 UNF")

    def test_a_forming_tap_has_the_larger_hole(self):
        """5/16-18: 7.9375 - 0.68 x 1.4111 x 0.65 = 7.314; drill L is 7.366."""
        formed = reckon("tap-drill", {"thread": "5/16-18", "kind": "form"})
        self.assertAlmostEqual(formed["ideal"], 7.3138, places=4)
        self.assertEqual(formed["drill"], "L")
        cut = reckon("tap-drill", {"thread": "5/16-18"})
        self.assertGreater(formed["drill_size"], cut["drill_size"])


class KeywaysAndChamfers(unittest.TestCase):
    def test_a_flat_tool_meets_a_bore_with_its_corners(self):
        """Bore 16, key 5: 8 - sqrt(64 - 6.25) = 0.4007 over the depth of 2.3."""
        found = reckon("keyway", {"shaft_diameter": 16})
        self.assertAlmostEqual(found["feed_from_contact"], 2.3 + 0.4007, places=4)
        shaft = reckon("keyway", {"shaft_diameter": 16, "bore": "no"})
        self.assertAlmostEqual(shaft["feed_from_contact"], shaft["shaft_depth"])

    def test_a_chamfer_is_fed_less_square_to_its_face_than_along_the_side(self):
        found = reckon("chamfer", {"leg": 13})
        self.assertAlmostEqual(found["normal_depth"], 9.192, places=3)
        self.assertAlmostEqual(found["depth"], 13)


class PassesAndBars(unittest.TestCase):
    def test_a_face_takes_as_many_passes_as_its_length_says(self):
        face = reckon(
            "passes", {"start": 128.2, "finish": 125, "most": 0.1, "on": "length"}
        )
        self.assertEqual(face["count"], 32)
        self.assertAlmostEqual(face["passes"][-1]["length"], 125)
        turned = reckon("passes", {"start": 128.2, "finish": 125, "most": 0.1})
        self.assertEqual(turned["count"], 16)

    def test_a_bar_held_at_both_ends_is_many_times_as_stiff(self):
        for support, times in (
            ("free", 1),
            ("simple", 16),
            ("steadied", 256 / 7),
            ("fixed", 64),
        ):
            with self.subTest(support):
                bar = {"bar_diameter": 16, "overhang": 100, "support": support}
                found = reckon("boring-bar", bar)
                self.assertAlmostEqual(found["times_free"], times)
                free = reckon("boring-bar", {**bar, "support": "free"})
                self.assertAlmostEqual(
                    found["stiffness"] / free["stiffness"], times, places=6
                )

    def test_no_steel_is_stiffer_than_another(self):
        found = [
            reckon(
                "boring-bar",
                {"bar_diameter": 16, "overhang": 80, "bar_material": metal},
            )
            for metal in ("mild steel", "tool steel", "alloy steel")
        ]
        stiff = [answer["stiffness"] for answer in found]
        self.assertLess(max(stiff) / min(stiff), 1.05)
        self.assertIn("equally stiff", found[0].notes[0])


class SquareHoles(unittest.TestCase):
    def test_an_inch_broach_starts_from_its_own_rule_and_drills(self):
        for size, pilot, drill in (
            ("3/8", 25 / 64, "25/64"),
            ("1/2", 17 / 32, "17/32"),
        ):
            with self.subTest(size):
                found = reckon("square-hole", {"size": size})
                self.assertAlmostEqual(found["pilot"], pilot * 25.4)
                self.assertEqual(found["drill_name"], drill)

    def test_the_broach_s_own_pilot_and_the_shop_s_own_drills_come_first(self):
        found = reckon("square-hole", {"size": 10, "pilot": 10.2})
        self.assertAlmostEqual(found["drill"], 10.2)
        own = reckon("square-hole", {"size": 10, "series": "10mm, 11mm"})
        self.assertAlmostEqual(own["drill"], 11)
        with self.assertRaises(BadInput):
            reckon("square-hole", {"size": 10, "pilot": 9.9})


class Tapers(unittest.TestCase):
    def test_either_end_may_be_named_first(self):
        there = reckon("taper", {"name": "24/20/80"}).results
        back = reckon("taper", {"name": "20/24/80"}).results
        self.assertEqual(there["half_angle"], back["half_angle"])
        self.assertEqual(back["small_diameter"], 20)

    def test_a_jacobs_taper_s_rate_and_its_ends_agree(self):
        """The rate rules; the ends are rounded to a tenth."""
        jacobs = [r for r in rows("tapers") if r["name"].startswith("JT")]
        self.assertEqual(len(jacobs), 8)
        for row in jacobs:
            with self.subTest(row["name"]):
                grown = float(row["per_foot_in"]) / 12 * float(row["length"])
                ends = float(row["large"]) - float(row["small"])
                self.assertAlmostEqual(grown, ends, delta=0.00002)
        rate = reckon("taper", {"name": "JT6"})["taper_per_foot"]
        self.assertAlmostEqual(rate, 0.62292, places=9)


class RunOut(unittest.TestCase):
    def test_turning_unmarked_pieces_never_ends_worse_than_chance(self):
        rng = random.Random(3)
        for _ in range(40):
            pieces = [
                Element(str(i), rng.uniform(0.001, 0.05))
                for i in range(rng.randint(2, 6))
            ]
            best = best_clocking(pieces)
            sizes = [element.amplitude for element in pieces]
            self.assertLessEqual(best.left, likely(sizes, 2000)[0])
            total = sum(
                cmath.rect(element.amplitude, math.radians(turned))
                for element, turned in zip(pieces, best.turned, strict=True)
            )
            self.assertAlmostEqual(abs(total), best.left)

    def test_a_piece_turns_with_the_one_it_sits_on(self):
        """The plate turned half round takes the chuck's high side along."""
        nose = Element("nose", 0.02, 0)
        plate = Element("plate", 0.01, 0, clockings=2)
        chuck = Element("chuck", 0.01, 0)
        best = best_clocking([nose, plate, chuck])
        self.assertEqual(best.positions, (0, 1, 0))
        self.assertAlmostEqual(best.left, 0)

    def test_a_hollow_is_told_as_one_and_refuses_nothing(self):
        """Three jaws within 0.02, the fourth reads 0.11 less: a pit in the casting."""
        found = reckon("centring", {"readings": [0, 0.02, 0.01, -0.11]})
        self.assertEqual(found["high_spot"], 270)
        self.assertAlmostEqual(found["high_spot_height"], -0.12)

    def test_one_high_spot_is_no_offset(self):
        found = reckon("centring", {"readings": [10, 10, 10, 22]})
        self.assertEqual(found["high_spot"], 270)
        self.assertIn("not an offset", found.cautions[0])
        offset = reckon("centring", {"readings": [10.02, 10, 9.98, 10]})
        self.assertNotIn("high_spot", offset.results)
