import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.route.steps import route_told
from machinon.core.tables import rows
from tests.core.families.failing import check, each_is_said, failed, made

SWINGS = {"swing_screw": "M6", "place_opens": "40"}  # each arm swings half


class Swings(unittest.TestCase):
    def test_a_hole_is_long_where_the_screw_comes_out_aslant(self):
        """10 tan 20° + 6 / (2 cos 20°) − 6.6 / 2 = 3.64 + 3.19 − 3.3 = 3.53 in an arm
        of 10: the cutter leans atan 0.353 = 19.45°, and takes about 6.6 × 3.53 × 10 / 2
        = 116 mm³ more than a straight hole of π / 4 × 6.6² × 10 = 342."""
        arm = made("hinged-arm", **SWINGS)
        hole = arm.body.feature("swing")
        self.assertAlmostEqual(hole.leans[1], 19.45, delta=0.1)
        taken = made("hinged-arm").body.volume - arm.body.volume
        self.assertAlmostEqual(taken, 342 + 116, delta=10)
        titles = [step.title for up in arm.holdings for step in up.steps]
        self.assertTrue(any("Lean the head 19.5°" in title for title in titles), titles)


class Detents(unittest.TestCase):
    def test_the_throw_at_the_knob_is_a_chord_of_its_arc(self):
        """40 at a knob 100 out: 2 asin(0.2) = 23.07°, the casting 15° off upright."""
        plate = made("detent-plate", lever_travel="40", recesses_middle="-15")
        self.assertAlmostEqual(plate.values["recesses.throw"], 23.07, 2)
        (x, y) = plate.body.feature("recesses").points[1]
        self.assertAlmostEqual(math.degrees(math.atan2(y, x)), 75)

    def test_gasket_and_shims_stand_in_the_chain(self):
        """9.0 less 0.4 of gasket leaves 0.1 to 0.3: 8.4; without a place it is as
        thick as its recesses want."""
        place = {"room_height": "9", "room_gasket": "0.4"}
        self.assertAlmostEqual(made("detent-plate", **place).values["plate.thickness"],
                               8.4)  # fmt: skip
        self.assertEqual(made("detent-plate").values["plate.thickness"], 5)

    def test_the_lever_is_pinned_through_its_hub_by_a_pin_drilled_in_steps(self):
        """A shaft of 12 bears 3.6: a pin of 3 is 3 + 24.5 / 50 = 3.49 thick at the face
        of a hub of 24, from which it stands 0.5; at the far face 3.0 less 0.05 for the
        reamer is drilled 2.9. One of 4 is too thick; an inch shaft takes #2/0, 0.141
        thick: #0 with 0.156 is more than 0.3 of 12."""
        plate = made("detent-plate")
        self.assertEqual(plate.values["pin.size"], "3")
        pin = next(s for up in plate.holdings for s in up.steps if s.key == "pin")
        told = {figure.name: figure.value for figure in pin.figures}
        self.assertEqual(told["Drill 2.9 mm to"], 24)
        self.assertEqual(told["By hand the pin stands out by"], 0.5)
        self.assertIn("taper pin 3 × 24", [h.name for h in plate.hardware])
        inch = make(families()["detent-plate"], {}, round_inch=True)
        self.assertEqual(inch.values["pin.size"], "#2/0")
        with self.assertRaises(BadInput) as refused:
            made("detent-plate", pin_size="#7/0", lever_hub="200")
        self.assertEqual(refused.exception.key, "pin.size")

    def test_the_ball_of_a_detent_meets_no_screw_on_its_way(self):
        """Six places 30° apart roll over 150°: no three screws on their circle are all
        clear of that, though one at 90° is 15° off the recesses beside it. On a circle
        of their own they are."""
        for count in range(2, 9):
            plate = made("detent-plate", recesses_count=f"{count}")
            self.assertNotIn("screws-clear", failed(plate))
        on_the_way = made(
            "detent-plate",
            recesses_count="6",
            screws_circle="= recesses.circle",
            screws_start="90",
        )
        self.assertIn("screws-clear", failed(on_the_way))
        aside = made("detent-plate", recesses_count="6")
        rim, head = 2 * math.sqrt(0.9 * (6 - 0.9)), 8
        apart = (aside.values["screws.circle"] - aside.values["recesses.circle"]) / 2
        self.assertGreater(apart, (rim + head) / 2 + 0.5)


class Screws(unittest.TestCase):
    def test_what_usually_goes_wrong_with_a_screw(self):
        each_is_said(
            self,
            "hexagon-screw",
            [
                ({"thread_length": "22"}, "thread-long"),
                ({"head_across": "18"}, "shoulder"),
                ({"head_length": "8"}, "head-high"),
                ({"groove_width": "3", "groove_diameter": "9"}, "groove-core"),
                ({"groove_width": "3", "groove_from_head": "18"}, "groove-on-shank"),
                ({"hole_depth": "180"}, "slender"),
                (
                    {"stock_shape": "as the head", "stock_diameter": "25"},
                    "bar-across",
                ),
            ],
        )

    def test_a_bar_that_has_the_flats_spares_milling_them(self):
        round_bar = made("hexagon-screw")
        sided = made("hexagon-screw", stock_shape="as the head")
        self.assertEqual(sided.body.stock.says, "hexagon 24 × 62")
        steps = [step.operation for up in route_told(sided) for step in up.steps]
        self.assertNotIn("mill", steps)
        self.assertEqual(steps.count("centre"), 1, "only the tip has one")
        # the same screw but for the centre hole in the head of the other
        self.assertAlmostEqual(sided.body.volume / round_bar.body.volume, 1, delta=0.01)
        self.assertLess(sided.body.stock_volume, round_bar.body.stock_volume * 0.75)

    def test_what_usually_goes_wrong_with_a_stud(self):
        each_is_said(
            self,
            "stud",
            [
                ({"below_depth": "8"}, "foot-held"),
                ({"below_floor": "12"}, "foot-clear"),
                ({"lower_length": "10"}, "shoulder"),
                ({"upper_length": "12"}, "upper-down"),
                ({"held_hole": "10"}, "passes"),
                ({"stud_diameter": "8"}, "core"),
            ],
        )

    def test_what_usually_goes_wrong_with_a_knob(self):
        each_is_said(
            self,
            "knob",
            [
                ({"boss_diameter": "8"}, "wall"),
                ({"stud_length": "4"}, "engaged"),
                ({"head_length": "9"}, "floor"),
                ({"head_length": "5", "thread_depth": "9"}, "knurl-long"),
                ({"head_about": "13"}, "shoulder"),
            ],
        )

    def test_a_knob_has_whole_teeth_whatever_it_is_wished_to_be(self):
        for about in (18.0, 22.5, 31.0):
            wide = made("knob", head_about=f"{about}").values["head.diameter"]
            teeth = math.pi * wide
            self.assertAlmostEqual(teeth, round(teeth), delta=0.02)
            self.assertTrue(about - 0.35 < wide <= about)


class Keys(unittest.TestCase):
    def test_a_hexagon_for_a_socket_has_its_corners(self):
        """8.03 across: 8.03 / cos 30° = 9.27 over sharp corners, less what a radius of
        0.5 takes, 2 × 0.5 (1 / cos 30° − 1) = 0.155, and a tenth that clears them."""
        piece = made("socket-key", socket_sides="6")
        across = piece.values["point.across"]
        sharp = across / math.cos(math.radians(30))
        self.assertAlmostEqual(piece.values["point.round"], sharp - 0.2547, delta=0.006)

    def test_what_usually_goes_wrong_with_a_key(self):
        each_is_said(
            self,
            "socket-key",
            [
                ({"point_length": "14"}, "point-reaches"),
                ({"point_length": "5"}, "point-held"),
                ({"point_round": "12"}, "corners"),
                ({"shank_diameter": "9"}, "shank-passes"),
                ({"handle_hole": "11"}, "head-wall"),
                ({"head_length": "9"}, "handle-in-head"),
                ({"handle_length": "60"}, "torque"),
                ({"socket_torque": "60"}, "shear"),
                ({"machine_clear": "40"}, "swing"),
                ({"head_length": "13", "screw_thread": "M4"}, "screw-held"),
                ({"screw_thread": "M6"}, "screw-thin"),
            ],
        )

    def test_a_screw_along_the_axis_keeps_the_handle(self):
        """A head of 18 with a handle of 7: (18 − 7)/2 = 5.5 of M4 over it, its dimple a
        quarter of M4 deep; pressed in, the handle needs none."""
        piece = made("socket-key")
        screw = piece.body.feature("screw")
        self.assertEqual((screw.thread, screw.end), ("M4", 5.5))
        (dimple,) = (
            s for up in route_told(piece) for s in up.steps if s.key == "dimple"
        )
        self.assertIn("1.0 deep", dimple.title)
        pressed = made("socket-key", screw_thread="none")
        self.assertNotIn("screw", {feature.name for feature in pressed.body.features})


class Plates(unittest.TestCase):
    def test_the_nuts_of_every_standard_slot_are_sound(self):
        """ISO 299 at its least: M20 in a slot of 22 leaves the tongue 0.98 a side."""
        for row in rows("tee_slots"):
            with self.subTest(row["neck_mm"]):
                lip = float(row["depth_least_mm"]) - float(row["head_height_most_mm"])
                nuts = made(
                    "t-nut-strip",
                    slot_neck=row["neck_mm"],
                    slot_head=row["head_least_mm"],
                    slot_head_depth=row["head_height_least_mm"],
                    slot_lip=f"{lip}",
                )
                self.assertEqual(nuts.values["thread.thread"], row["stud"])
                self.assertEqual(failed(nuts), set())

    def test_a_stud_of_any_thread_reaches_below_what_it_clamps(self):
        for thread, share in (("M6", 0.6), ("M12", 1.2), ("M20", 2.0)):
            with self.subTest(thread):
                stud = made(
                    "stud",
                    below_thread=thread,
                    below_depth=f"{12 * share}",
                    below_floor=f"{16 * share}",
                    held_height=f"{75 * share}",
                    held_hole=f"{11 * share}",
                    nut_thread=thread,
                    nut_height=f"{8.4 * share}",
                    washer_thickness=f"{2 * share}",
                )
                self.assertEqual(failed(stud), set())

    def test_a_keeper_of_any_size_presses_before_it_seats(self):
        """Its vee is cut so deep that about 0.25 is left under it."""
        for wide, stands in ((6, 2.5), (12, 5), (20, 8), (20.64, 8), (40, 15)):
            with self.subTest(wide):
                given = {"round_diameter": f"{wide}", "round_stands": f"{stands}"}
                keeper = made("keeper", **given)
                self.assertAlmostEqual(check(keeper, "presses").have, 0.25, delta=0.05)
                self.assertEqual(failed(keeper), set())

    def test_what_usually_goes_wrong_with_clamps_and_keepers(self):
        each_is_said(
            self,
            "clamp-plate",
            [
                ({"clamped_height": "20.05"}, "pinch"),
                ({"block_height": "6"}, "bows"),
            ],
        )
        each_is_said(
            self,
            "keeper",
            [
                ({"vee1_width": "15"}, "round-in-vee"),
                ({"vee1_width": "25"}, "presses"),
                ({"block_height": "14"}, "vee1-floor"),
            ],
        )

    def test_what_usually_goes_wrong_with_a_dovetail_stop(self):
        each_is_said(
            self,
            "dovetail-stop",
            [
                ({"block_width": "84"}, "side-wall"),
                ({"block_height": "23"}, "wall-over-stop"),
                ({"lock_thread": "M20"}, "lock-in-wall"),
                ({"lock_thread": "M12"}, "lock-on-flank"),
                ({"block_length": "20"}, "long-enough"),
                ({"cutter_depth": "10"}, "cutter"),
                ({"lock_plug": "0"}, "plug"),
                ({"lock_plug": "9", "lock_thread": "M6"}, "lock-in-wall"),
                ({"stop_length": "35"}, "stop-reach"),
            ],
        )

    def test_the_plug_slides_in_what_is_not_tapped(self):
        """The wall beside the slot is 15.98 at its foot, 6.15 / tan 60° = 3.55 less
        where the screw is: 12.43, and 5 of it are the plug's."""
        hole = made("dovetail-stop").body.feature("lock").hole
        self.assertAlmostEqual(hole.thread_depth, 15.98 - 3.55 - 5, delta=0.05)
        self.assertIsNone(hole.depth)

    def test_the_shoulders_or_the_top_bear_as_it_was_wished(self):
        """A slide 12 deep: its slot is 12.3 where the shoulders bear, 11.7 where the
        top does."""
        for word, deep in (("shoulders", 12.3), ("top", 11.7)):
            piece = made("dovetail-stop", slot_bears=word)
            self.assertAlmostEqual(piece.values["slot.depth"], deep)
            (band,) = piece.fits
            self.assertEqual(band.answer["bears"], word)

    def test_what_usually_goes_wrong_with_arms_vees_and_detents(self):
        each_is_said(
            self,
            "hinged-arm",
            [
                ({"arm_width": "14"}, "eye"),
                ({"far_thread": "M14"}, "far-eye"),
                ({"arm_length": "70"}, "round-ends"),
                ({"slot_length": "20", "slot_width": "12"}, "slot-side"),
                ({"slot_length": "44"}, "slot-ends"),
                ({"place_clear": "69"}, "swings"),
                ({"arm_thickness": "10.1"}, "fork"),
                ({**SWINGS, "swing_from_pivot": "8"}, "swing-holes"),
                ({**SWINGS, "fork_gap": "26", "arm_thickness": "25"}, "swing-reach"),
                ({**SWINGS, "slot_length": "20"}, "swing-slot"),
            ],
        )
        each_is_said(
            self,
            "vee-block",
            [
                ({"rounds_largest": "70", "vee1_width": "44"}, "largest-in-vee"),
                ({"rounds_least": "1"}, "least-in-vee"),
                ({"block_width": "38", "vee1_width": "34"}, "foot"),
            ],
        )
        each_is_said(
            self,
            "detent-plate",
            [
                ({"lever_throw": "10"}, "lands"),
                ({"plate_diameter": "50"}, "rim-edge"),
                ({"recesses_circle": "18"}, "rim-bore"),
                ({"plate_thickness": "2"}, "floor"),
                ({"screws_start": "80"}, "screws-clear"),
                ({"plate_diameter": "53"}, "screws-edge"),
                ({"screws_count": "2"}, "even"),
                ({"lever_holds": "3"}, "holds"),
                ({"recesses_depth": "2.5"}, "depth"),
            ],
        )


class ClampsStopsAndSpanners(unittest.TestCase):
    def test_a_strap_clamp_shares_its_pull_by_its_arms(self):
        """25 Nm on M10 pull 25 / (0.2 × 0.010) = 12.5 kN. The stud at 57: 29 to the
        work, 45 to the heel at 12; 12.5 × 45 / 74 = 7.6 kN on the work."""
        told = {check.key: check for check in made("strap-clamp").checks}
        self.assertEqual((told["near-the-work"].need, told["near-the-work"].have),
                         (29, 45))  # fmt: skip
        self.assertIn("12.5 kN, 7.6 kN", told["holds"].says)
        # M = 12.5 kN × 29 × 45 / 74; W = (26 − 12) 20² / 6
        self.assertAlmostEqual(told["bends"].have, 12500 * 29 * 45 / 74 * 6 / 5600)

    def test_what_usually_goes_wrong_with_a_strap_clamp(self):
        each_is_said(
            self,
            "strap-clamp",
            [
                ({"block_height": "12"}, "bends"),
                ({"hole1_from_side": "35"}, "near-the-work"),
                ({"pocket1_width": "10.2"}, "stud-passes"),
                ({"block_height": "9"}, "heel-screw"),
            ],
        )

    def test_a_carriage_stop_bears_on_the_flanks_of_its_bed(self):
        """A bed vee of 90°, 12 high with a flat of 3: the flat lies 1.5 under its sharp
        top. A groove 22.5 wide is 11.25 deep, and 9.75 of its flanks bear."""
        told = {check.key: check for check in made("carriage-stop").checks}
        self.assertAlmostEqual(told["over-the-crest"].have, 1.5)
        self.assertAlmostEqual(told["bears"].have, 9.75)
        # what clamps it is marked from it, once it is whole
        *_, last = (s.key for up in route_told(made("carriage-stop")) for s in up.steps)
        self.assertEqual(last, "transfer")

    def test_no_bed_has_a_vee_without_an_angle(self):
        with self.assertRaisesRegex(BadInput, "from 20 and up to 360 deg") as said:
            make(families()["carriage-stop"], {"bed.angle": "0", "vee1.angle": "45"})
        self.assertEqual(said.exception.key, "bed.angle")

    def test_what_usually_goes_wrong_with_a_carriage_stop(self):
        each_is_said(
            self,
            "carriage-stop",
            [
                ({"vee1_angle": "88"}, "angle"),
                ({"bed_crest": "0.4"}, "over-the-crest"),
                ({"vee1_width": "12"}, "bears"),
                ({"hole1_from_front": "27"}, "screw-clear"),
                ({"bed_room": "38", "block_height": "40"}, "carriage-passes"),
            ],
        )

    def test_a_hook_carries_the_nut_s_torque_on_its_nose(self):
        """30 Nm on a nut of 45: 1333 N on a nose of 4.8 × 8."""
        told = {check.key: check for check in made("ring-nut-spanner").checks}
        self.assertAlmostEqual(told["shears"].have, 30_000 / 22.5 / (4.8 * 8))

    def test_pins_share_it_as_a_couple(self):
        """34 between them: 882 N on each pin of 4."""
        pins = made("ring-nut-spanner", head_kind="pins")
        told = {check.key: check for check in pins.checks}
        self.assertAlmostEqual(told["shears"].have, 30_000 / 34 / (math.pi * 4))
        (a, b) = pins.body.feature("pins").points
        self.assertAlmostEqual(math.dist(a, b), 34)

    def test_a_hook_is_sawn_from_no_more_plate_than_it_takes(self):
        """Round a nut of 45 on an arc of 22.8, with a wall of 10, over a handle of 21:
        32.8 + 10.5 wide; from 43.3 with 1.5 round it, 46.5 of plate."""
        hook = made("ring-nut-spanner")
        self.assertEqual(hook.values["hook.arc"], 22.8)
        self.assertAlmostEqual(hook.body.shadow.box[4], 43.3)
        self.assertEqual(hook.body.stock.high[1] - hook.body.stock.low[1], 46.5)

    def test_what_usually_goes_wrong_with_a_spanner(self):
        each_is_said(
            self,
            "ring-nut-spanner",
            [
                ({"hook_arc": "22.5"}, "arc-over-nut"),
                ({"hook_width": "5.2"}, "nose-in-slot"),
                ({"hook_depth": "2.5"}, "nose-short"),
                ({"hook_width": "1", "plate_thickness": "3"}, "shears"),
                ({"handle_length": "40"}, "torque"),
                ({"head_kind": "pins", "pins_diameter": "4.3"}, "pins-in-holes"),
                ({"head_kind": "pins", "pins_diameter": "3"}, "pins-close"),
                ({"machine_clear": "6"}, "swing"),
            ],
        )

    def test_an_angle_block_is_as_high_as_its_sine(self):
        """15° over 80 rise 80 tan 15° = 21.436; a minute of it is 25 µm."""
        block = made("sloped-block")
        self.assertAlmostEqual(block.values["block.height"], 5 + 21.44)
        volume = 80 * 24 * (5 + 21.436 / 2)
        self.assertAlmostEqual(block.body.volume, volume - 4 * 0.5 * 15.7, delta=15)
        told = {check.key: check for check in block.checks}
        self.assertIn("25 µm", told["minute"].says)

    def test_what_usually_goes_wrong_with_an_angle_block(self):
        each_is_said(
            self,
            "sloped-block",
            [
                ({"block_height": "20"}, "top"),
                ({"block_height": "30"}, "no-land"),
                ({"slope_low": "1"}, "low-end"),
                ({"block_width": "10", "work_width": "40"}, "holds-the-work"),
                ({"window_diameter": "14"}, "window-wall"),
            ],
        )
