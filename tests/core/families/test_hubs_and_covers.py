import math
import unittest

from machinon.core.families import family_of
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.route.work.listed import work_list
from tests.core.families.failing import check, each_is_said, failed, made


class Hubs(unittest.TestCase):
    def test_a_hub_for_20_has_the_keyway_of_the_table(self):
        """Shaft 20 takes a 6 × 6 key, 2.8 in the hub, and wants 1.7 × 20 + 2 × 2.8 = 40
        of hub; a millimetre inside of the M6 screws on 46 it is 38, and 6.2 of wall are
        left: (38 − 20.01) / 2 − 2.8."""
        piece = made("hub-adapter")
        self.assertEqual(piece.values["key.width"], 6)
        bore = piece.values["bore.diameter"]
        self.assertAlmostEqual(check(piece, "wall-key").have, (38 - bore) / 2 - 2.8)

    def test_a_hub_that_has_no_room_beside_the_screws_goes_round_them(self):
        """On 30 they leave 22 for a bore of 16, which with a keyway of 2.3 wants 26.6;
        30 + 6 + 2 are clear of them."""
        hub = made("hub-adapter", wheel_circle="30", shaft_diameter="16")
        self.assertEqual(hub.values["hub.diameter"], 38)
        self.assertTrue(check(hub, "bolts-hub").passed)

    def test_a_shaft_too_thin_for_a_key_is_held_by_the_set_screw_alone(self):
        """ISO 773 begins above 6: a shaft of 5 has none, 5 + 2 × 3 of hub carry M3."""
        hub = made("hub-adapter", shaft_diameter="5")
        self.assertNotIn("key", [feature.name for feature in hub.body.features])
        self.assertEqual(hub.values["hub.diameter"], 12)
        self.assertEqual(hub.values["grub.thread"], "M3")
        self.assertEqual(failed(hub), set())

    def test_a_keyway_is_as_deep_as_its_own_key_asks(self):
        """ISO 773: 2.3 for a 5 key, whatever the shaft; 3.3 for the 8 of a 25 shaft; a
        key that is none of a standard goes by its shaft."""
        for given, deep, key in (
            ({"key_bar.width": "5"}, 2.3, "key 5 × 30"),
            ({"shaft.diameter": "25"}, 3.3, "key 8 × 30"),
            ({"shaft.diameter": "25", "key_bar.width": "7.99"}, 3.3, "key 8 × 30"),
            ({"shaft.diameter": "25", "key_bar.width": "7"}, 3.3, "key 7.02 × 30"),
        ):
            with self.subTest(given):
                piece = make(family_of("hub-adapter"), given)
                self.assertAlmostEqual(piece.values["key.depth"], deep)
                self.assertIn(key, [part.name for part in piece.hardware])

    def test_what_usually_goes_wrong_with_a_hub(self):
        each_is_said(
            self,
            "hub-adapter",
            [
                ({"hub_diameter": "31"}, "wall-key"),
                ({"wheel_bore": "27"}, "boss-wall"),
                ({"shaft_length": "14"}, "hub-guides"),
                ({"boss_height": "8"}, "boss-in-wheel"),
                ({"key_width": "8.5"}, "key-narrow"),
                ({"hub_diameter": "60"}, "flange-seats"),
                ({"flange_thickness": "4"}, "flange-thin"),
                ({"flange_thickness": "5"}, "engagement"),
                ({"flange_diameter": "53"}, "bolts-edge"),
                ({"wheel_circle": "36"}, "bolts-boss"),
                ({"grub_thread": "M12"}, "grub-thread"),
                ({"grub_from_end": "4"}, "grub-in-hub"),
                ({"machine_clear": "31"}, "clearance"),
                ({"dowels_diameter": "5", "dowels_depth": "4"}, "dowels-held"),
                ({"dowels_diameter": "5", "dowels_depth": "6.5"}, "dowels-floor"),
                ({"dowels_diameter": "5", "dowels_length": "14"}, "dowels-short"),
                ({"dowels_diameter": "5", "dowels_circle": "53"}, "dowels-edge"),
                ({"dowels_diameter": "5", "dowels_circle": "34"}, "dowels-boss"),
                ({"dowels_diameter": "7", "wheel_bolts": "8"}, "dowels-screws"),
            ],
        )
        self.assertEqual(
            check(made("hub-adapter", seat_thickness="5"), "head-seats").have, 6
        )

    def test_on_its_own_screw_the_shaft_ends_short_of_the_seat(self):
        """A shaft of 30 ends 0.5 below the seat, so its screw pulls the hub home."""
        body = made("hub-adapter", seat_thickness="5").body
        self.assertEqual(body.feature("bore").end, 30.5)
        self.assertEqual(body.feature("recess").start, 35.5)

    def test_the_wheels_holes_tell_its_screws_until_somebody_does(self):
        for given, screw, hole in (
            ({}, "M6", 5.0),
            ({"wheel_hole": "8.6"}, "M8", 6.8),
            ({"wheel_hole": "8.6", "wheel_screw": "M6"}, "M6", 5.0),
            ({"wheel_hole": "8.6", "bolts_screw": "M5"}, "M5", 4.2),
        ):
            with self.subTest(given):
                hub = made("hub-adapter", **given)
                self.assertEqual(hub.values["bolts.screw"], screw)
                tapped = hub.body.feature("bolts").hole
                self.assertAlmostEqual(tapped.diameter, hole, delta=0.05)

    def test_dowels_stand_between_the_screws_and_out_by_what_is_pressed_flush(self):
        """Four screws on 46 from 12 o'clock: dowels at 135° and 315°, 46 apart. 12 long
        in holes of 5.5, they stand 6.5 out of 8."""
        hub = made("hub-adapter", dowels_diameter="5", dowels_circle="46")
        dowels = hub.body.feature("dowels")
        (ax, ay), (bx, by) = dowels.points
        self.assertAlmostEqual(ax, -23 * math.sqrt(0.5))
        self.assertAlmostEqual(math.dist((ax, ay), (bx, by)), 46)
        self.assertEqual(hub.values["dowels.length"], 12)
        steps = [s for up in hub.holdings for s in up.steps]
        press = next(s for s in steps if s.key == "press-dowels")
        self.assertIn("6.5 mm out", press.note)


class Covers(unittest.TestCase):
    def test_what_usually_goes_wrong_with_a_cover(self):
        each_is_said(
            self,
            "housing-cover",
            [
                ({"hollow_diameter": "50"}, "lip-wall"),
                ({"hole_diameter": "25.1"}, "clears-shaft"),
                ({"flange_diameter": "54"}, "flange-seats"),
                ({"housing_ring_bore": "51"}, "pinches-ring"),
                ({"hollow_diameter": "32"}, "ring-free"),
                ({"hollow_depth": "0"}, "ring-free"),
                ({"hollow_depth": "10"}, "floor"),
                ({"groove_width": "9"}, "groove-lands"),
                ({"trepan_depth": "4.5", "groove_width": "0"}, "trepan-floor"),
                ({"trepan_depth": "2", "trepan_outer": "31"}, "trepan-wide"),
                ({"trepan_depth": "2", "trepan_inner": "26"}, "trepan-hole"),
                ({"trepan_depth": "3.2"}, "trepan-groove"),
                ({"flange_diameter": "72"}, "heads-edge"),
                ({"housing_circle": "58", "bolts_screw": "M5"}, "holes-lip"),
                ({"flange_thickness": "2"}, "flange-thin"),
            ],
        )


class DieHolders(unittest.TestCase):
    def test_its_screws_stand_about_the_die_s_slit(self):
        """A die of 25 × 9 on an arbor of 16: 40 guide, 8 for chips, 9 for the die; the
        screws in its middle, 4.5 from the front, one up and one 60° on either side."""
        holder = made("die-holder")
        screws = holder.body.feature("screws")
        self.assertEqual(screws.angles, [30.0, 90.0, 150.0])
        self.assertEqual(holder.body.feature("front").z - screws.z, 4.5)
        self.assertEqual(screws.hole.thread, "M5x0.8")
        steps = [step for up in route_told(holder) for step in up.steps]
        tapped = next(step for step in steps if step.operation == "tap")
        turned = [line.figures[0].value for line in work_list(tapped).lines[1:]]
        self.assertEqual([turn[:-6] for turn in turned], ["0°", "60°", "120°"])
        # bore and recess in one chucking, both proved there
        first = route_told(holder)[0]
        held = next(step for step in first.steps if step.hold)
        self.assertEqual(held.features, ("bore", "recess"))
        cut = [step.features for step in first.steps]
        self.assertLess(cut.index(("recess",)), cut.index(held.features))

    def test_what_usually_goes_wrong_with_a_die_holder(self):
        each_is_said(
            self,
            "die-holder",
            [
                ({"body_diameter": "32"}, "screws-thread"),
                ({"screws_thread": "M8"}, "screws-edge"),
                ({"clear_diameter": "23"}, "die-seat"),
                ({"recess_depth": "7"}, "die-inside"),
                ({"clear_diameter": "15"}, "clear-bore"),
                ({"guide_length": "20"}, "guide-long"),
                ({"bar_depth": "11"}, "bar-wall"),
                ({"stock_length": "59"}, "stock-length"),
            ],
        )


class DrillPlates(unittest.TestCase):
    def test_what_usually_goes_wrong_with_a_drill_plate(self):
        each_is_said(
            self,
            "drill-plate",
            [
                ({"plate_thickness": "9"}, "guides"),
                ({"plate_diameter": "69"}, "edge"),
                ({"middle_diameter": "38"}, "middle-wall"),
                ({"spigot_length": "12"}, "spigot-short"),
                ({"spigot_length": "1"}, "spigot-guides"),
                ({"pattern_count": "24"}, "between-holes"),
                ({"pin_diameter": "6", "pin_turn": "8"}, "pin-clear"),
            ],
        )

    def test_a_pin_half_a_pitch_on_is_as_far_from_both_neighbours(self):
        """Six on 60, a pin at 30°: 60 sin 15° = 15.53 to either; less half of 6.8 and
        of 6, 9.13."""
        piece = made("drill-plate", pin_diameter="6")
        self.assertAlmostEqual(
            check(piece, "pin-clear").have, 60 * math.sin(math.radians(15)) - 6.4
        )


class DrawTubeSleeves(unittest.TestCase):
    def test_a_ball_looks_out_of_its_mouth_by_the_chord(self):
        """A ball of 4.5 in a mouth of 4.0: 2.25 − √(4.5² − 4.0²) / 2 = 1.219, less a
        lip of 0.6."""
        piece = made("draw-tube-sleeve")
        mouth = piece.body.feature("mouths").hole.diameter
        sunk = 2.25 - math.sqrt(4.5**2 - mouth**2) / 2
        self.assertAlmostEqual(check(piece, "ball-reaches").have, sunk - 0.6)

    def test_what_usually_goes_wrong_with_a_sleeve_on_a_draw_tube(self):
        each_is_said(
            self,
            "draw-tube-sleeve",
            [
                ({"sleeve_diameter": "22", "bevel_rise": "0"}, "wall"),
                ({"bevel_rise": "2"}, "goes-in"),
                ({"sleeve_diameter": "32"}, "bevel-centres"),
                ({"sleeve_diameter": "33", "bevel_rise": "0"}, "bears"),
                ({"balls_diameter": "5"}, "ball-passes"),
                ({"balls_lip": "3"}, "ball-reaches"),
                ({"spring_solid": "4", "balls_thread": "M6"}, "spring-solid"),
                ({"balls_from_end": "3"}, "balls-edge"),
                ({"stock_length": "61"}, "stock-length"),
            ],
        )
