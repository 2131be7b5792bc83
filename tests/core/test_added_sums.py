"""The shop's small sums, each against a figure worked by hand."""

import math
import unittest
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.materials import materials
from machinon.core.quantity import INCH
from machinon.core.reckoning import reckon
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import thread_of


class Sums(unittest.TestCase):
    def told(self, name, given, **expected):
        answer = reckon(name, given)
        for key, value in expected.items():
            with self.subTest(name, result=key):
                if isinstance(value, list):
                    for have, want in zip(answer[key], value, strict=True):
                        self.assertAlmostEqual(have, want, places=3)
                elif isinstance(value, int | float):
                    self.assertAlmostEqual(answer[key], value, places=3)
                else:
                    self.assertEqual(answer[key], value)
        return answer

    def test_half_way_between_two_edges_touched_from_outside(self):
        self.told(
            "half-way",
            {"edge_a": 2, "edge_b": 102, "tip": 10},
            centre=52.0,
            width=90.0,
            zero=50.0,
        )

    def test_both_sides_of_a_tongue_with_one_cutter(self):
        self.told(
            "side-offset",
            {"distance": 14, "cutter": 10, "centre": 50, "stock": 3},
            plus=62.0,
            minus=38.0,
            first_plus=65.0,
            first_minus=35.0,
        )

    def test_a_slot_of_five_with_a_saw_of_two_takes_three_passes(self):
        self.told(
            "saw-slot",
            {"depth": 6, "width": 5, "saw": 2},
            passes=3,
            positions=[6.0, 7.5, 9.0],
            from_touch=[8.0, 9.5, 11.0],
            overlap=0.5,
        )
        self.told(
            "saw-slot", {"depth": 6, "width": 2, "saw": 2}, passes=1, positions=[6.0]
        )

    def test_the_table_goes_as_fast_as_the_teeth_bite(self):
        """800 × 4 × 0.05; a fifth of the cutter in the cut: 2 √(0.2 × 0.8) = 0.8 of the
        feed. A handle of 4 mm a turn: 40 turns a minute."""
        told = self.told(
            "table-feed",
            {"rpm": 800, "teeth": 4, "feed": 0.05, "diameter": 10, "width": 2,
             "turn": "4mm", "length": 120},
            table_feed=160.0, chip=0.04, handle_time=1.5, time=45.0,
        )  # fmt: skip
        back = {"rpm": 800, "teeth": 4, "travel": told["table_feed"]}
        self.told("table-feed", back, tooth=0.05, per_turn=0.2)
        for part in (5, 8, 10):  # a tooth that passes the middle bites in full
            wide = {**back, "diameter": 10, "width": part}
            self.told("table-feed", wide, chip=0.05)

    def test_no_drill_is_told_for_a_size_that_none_is_near(self):
        for size, near in ((0.005, False), (0.3, True), (12, True), (90, False)):
            self.assertEqual(
                "drill" in reckon("convert", {"value": size}).results, near
            )

    def test_an_angle_is_said_in_every_way(self):
        """45 degrees rise as far as they run; 1 in 20 is 2.8624 degrees."""
        self.told("angle", {"angle": 45}, rise=100.0, one_in=1.0, minutes="45°00′00″")
        self.told("angle", {"angle": "2d51m45s"}, degrees=2.8625, one_in=19.999)
        self.told("angle", {"angle": 30}, sine=0.5, cosine=0.866, radians=0.5236)

    def test_two_measured_parts_have_their_play_and_what_it_is_like(self):
        """20.013 and 20.015 over 19.985: 29, and 28 to 30 less and more 3 √2. On 30 mm
        it leans atan(0.03424 / 30). At 20, g6 is 7 to 20 µm, f7 20 to 41, e8 40 to 73,
        h6 0 to 13, n6 is 15 to 28 over and r6 28 to 41."""
        told = self.told(
            "play",
            {"hole": [20.013, 20.015], "shaft": [19.985], "uncertainty": 0.003,
             "length": 30},
            play=0.029, least=0.028 - 0.003 * 2**0.5, most=0.03 + 0.003 * 2**0.5,
        )  # fmt: skip
        self.assertAlmostEqual(told["offset"], told["most"] / 2)
        self.assertAlmostEqual(told["tilt"], math.degrees(math.atan(told["most"] / 30)))
        for play, words in (
            (0.5, "looser than anything"), (0.06, "runs free"), (0.03, "runs: "),
            (0.015, "moves along"), (0.004, "locates"), (-0.02, "light press"),
            (-0.036, "press for good"), (-0.1, "tighter than a press"),
            (-0.5, "does not go in"),
        ):  # fmt: skip
            like = reckon("play", {"hole": [20], "shaft": [20 - play]})["like"]
            with self.subTest(play):
                self.assertTrue(like.startswith(words), like)

    def test_holes_in_a_row_are_as_far_apart_as_there_is_room(self):
        """200 less 15 at both ends in four; six gaps alike for five holes in 120; from
        10 on every 25."""
        self.told("hole-row", {"holes": 5, "length": 200, "edge": 15}, pitch=42.5,
                  positions=[15.0, 57.5, 100.0, 142.5, 185.0])  # fmt: skip
        self.told("hole-row", {"holes": 5, "length": 120}, pitch=20.0, first=20.0,
                  last=100.0)  # fmt: skip
        self.told("hole-row", {"holes": 3, "pitch": 25, "start": 10},
                  positions=[10.0, 35.0, 60.0])  # fmt: skip
        for given, key in (
            ({"holes": 3}, "pitch"), ({"holes": 3, "pitch": 5, "length": 40}, "pitch"),
            ({"holes": 3, "length": 40, "edge": 20}, "edge"),
        ):  # fmt: skip
            with self.subTest(given), self.assertRaises(BadInput) as caught:
                reckon("hole-row", given)
            self.assertEqual(caught.exception.key, key)

    def test_a_hole_takes_the_tap_whose_drill_it_is(self):
        """Every usual thread's own drill leads back to it. 8.4 leaves M10 82 %, and is
        the close hole of M8; 5/16-18 stands 0.46 free in it."""
        for name in ("M4", "M6", "M8", "M10", "M12", "1/4-20", "3/8-16", "#8-32"):
            drill = reckon("tap-drill", {"thread": name})["drill_size"]
            first = reckon("hole-tap", {"hole": drill})["taps"][0]["thread"]
            with self.subTest(name):
                self.assertTrue(first.startswith(name), first)
        found = reckon("hole-tap", {"hole": 8.4})
        self.assertAlmostEqual(found["taps"][0]["engagement"], 82.1, places=1)
        room = {o["screw"]: round(o["room"], 2) for o in found["through"]}
        self.assertEqual(room, {"M8": 0.4, "5/16-18 UNC": 0.46})
        for fit in ("close", "normal"):
            hole = reckon("clearance-hole", {"thread": "M6", "fit": fit})["diameter"]
            through = reckon("hole-tap", {"hole": hole})["through"]
            self.assertEqual(through[0]["screw"], "M6")

    def test_a_gear_is_read_over_as_many_teeth_as_the_tables_say(self):
        """Span over k teeth of module 1 at 20°, as gear tables print it; 20 DP of 40
        teeth is 2 in round its pitch circle, 2.1 in outside, 0.10785 in deep."""
        for teeth, k, span in (
            (14, 2, 4.6243), (17, 2, 4.6663), (20, 3, 7.6604), (30, 4, 10.7526),
            (45, 6, 16.8670),
        ):  # fmt: skip
            self.told("gear", {"teeth": teeth, "module": 1}, span_teeth=k)
            found = reckon("gear", {"teeth": teeth, "module": 1})["span"]
            self.assertAlmostEqual(found, span, places=3, msg=f"{teeth} teeth")
        inch = reckon("gear", {"teeth": 40, "dp": 20, "mate": 60})
        self.assertAlmostEqual(inch["outside_diameter"] / INCH, 2.1)
        self.assertAlmostEqual(inch["depth"] / INCH, 0.10785)
        self.assertAlmostEqual(inch["centres"] / INCH, 2.5)
        # the chord and its height lie on the pitch circle
        half, up = inch["thickness"] / 2, inch["outside_diameter"] / 2 - inch["height"]
        self.assertAlmostEqual(math.hypot(half, up), inch["pitch_diameter"] / 2)
        for given in ({"teeth": 20}, {"teeth": 20, "module": 1, "dp": 20}):
            with self.assertRaises(BadInput) as caught:
                reckon("gear", given)
            self.assertEqual(caught.exception.key, "module")

    def test_a_metal_warns_of_the_tap_it_does_not_take(self):
        """Cast iron crumbles under a forming tap, and nothing taps hardened steel."""
        for metal, kind, warns in (
            ("aluminium", "form", ""), ("cast iron", "form", "one that cuts"),
            ("cast iron", "cut", ""), ("hardened steel", "cut", "before it is hard"),
        ):  # fmt: skip
            asked = {"thread": "M6", "kind": kind, "material": metal}
            cautions = " ".join(reckon("tap-drill", asked).cautions)
            with self.subTest(metal, kind=kind):
                self.assertEqual(bool(warns), bool(cautions))
                self.assertIn(warns, cautions)

    def test_a_metal_grows_as_its_sum_of_warmth_says(self):
        """A hundred millimetres and ten degrees, for every metal."""
        for name in materials():
            grown = reckon("thermal-size", {"size": 100, "temperature": 30,
                                            "material": name})["change"]  # fmt: skip
            growth = reckon("metal", {"material": name})["growth"]
            self.assertAlmostEqual(growth, grown, delta=0.0003, msg=name)

    def test_a_play_that_may_be_none_says_so(self):
        near = {"hole": [20.002], "shaft": [20], "uncertainty": 0.003}
        (caution,) = reckon("play", near).cautions
        self.assertIn("try one in the other", caution)

    def test_a_table_feed_says_what_it_lacks(self):
        for given, lacks in (
            ({"rpm": 800, "teeth": 4}, "feed"),
            ({"rpm": 800, "teeth": 4, "feed": 0.05, "travel": 160}, "feed"),
            ({"teeth": 4, "feed": 0.05}, "rpm"),
            ({"rpm": 800, "feed": 0.05}, "teeth"),
            ({"travel": 160, "width": 4}, "diameter"),
            ({"travel": 160, "width": 4, "diameter": 10}, "rpm"),
        ):
            with self.subTest(given), self.assertRaises(BadInput) as caught:
                reckon("table-feed", given)
            self.assertEqual(caught.exception.key, lacks)

    def test_a_bore_near_an_edge_breaks_out_in_a_window(self):
        """r 10, centre 8 from the edge: 2 sqrt(100 - 64) = 12."""
        self.told(
            "break-out",
            {"bore": 20, "offset": 12, "half_width": 20},
            from_edge=8.0,
            opening=12.0,
            wall=-2.0,
            other_wall=22.0,
        )

    def test_a_flat_is_found_again_from_any_of_its_parts(self):
        whole = self.told("flat", {"diameter": 10, "width": 8}, depth=2.0, across=8.0)
        for key in ("depth", "across"):
            self.told("flat", {"diameter": 10, key: whole[key]}, width=8.0)

    def test_a_hole_made_long_for_an_arm_that_swings(self):
        """h = 10: 10 tan 10 + 6 / (2 cos 10) - 3.25 = 1.7633 + 3.0463 - 3.25."""
        self.told(
            "elongation",
            {"opening_angle": 20, "thickness": 10, "hole": 6.5, "screw": 6},
            elongation=1.5596,
            width_at_face=8.0596,
        )
        self.told(
            "elongation",
            {"opening_angle": 0.5, "thickness": 1, "hole": 8, "screw": 6},
            elongation=0.0,
        )

    def test_a_strip_of_eight_nuts(self):
        """8 x 24 + 7 x (1.5 + 1) = 209.5."""
        self.told(
            "strip-length",
            {"pieces": 8, "length": 24, "kerf": 1.5, "clean_up": 0.5},
            strip=209.5,
            pitch=26.5,
            sawn_length=25.0,
        )

    def test_a_blind_m8_sixteen_deep_with_a_plug_tap(self):
        """16 + 4 x 1.25 = 21; the 6.8 drill's point adds 3.4 / tan 59."""
        self.told(
            "drill-depth",
            {"thread": "M8", "thread_depth": 16},
            full_depth=21.0,
            tip_depth=21 + 3.4 / math.tan(math.radians(59)),
            turns=12.8,
        )

    def test_the_screws_that_hold_and_do_not_reach_the_floor(self):
        self.told(
            "screw-length",
            {"grip": 12, "engagement": 9, "thread_depth": 16, "screw": "M6"},
            least=21.0,
            most=27.0,
            stock=[25.0],
        )
        with self.assertRaisesRegex(BadInput, "too shallow"):
            reckon(
                "screw-length",
                {"grip": 12, "engagement": 9, "thread_depth": 8, "screw": "M6"},
            )

    def test_a_chain_of_lengths_gives_the_link_that_is_still_to_be_made(self):
        """60 - 15 - x between 0.05 and 0.15, others within 0.03: 44.88 to 44.92."""
        links = [
            {"name": "housing", "length": 60, "tolerance": 0.01},
            {"name": "bearing", "length": 15, "tolerance": 0.02, "sign": "-"},
            {"name": "spacer", "length": 44.9, "sign": "-"},
        ]
        self.told(
            "length-chain",
            {"links": links, "unknown": "spacer", "gap_least": 0.05, "gap_most": 0.15},
            total=0.1,
            worst_least=0.07,
            worst_most=0.13,
            likely=math.hypot(0.01, 0.02),
            lower=44.88,
            upper=44.92,
        )
        with self.assertRaises(BadInput) as no:
            reckon("length-chain", {"links": links, "unknown": "spacr"})
        self.assertEqual(no.exception.key, "unknown")

    def test_slope_and_bow_along_a_line(self):
        self.told(
            "straightness",
            {"readings": [0, 0.01, 0.02, 0.03], "spacing": 50, "base": 200},
            slope=0.02,
            bow=0.0,
            shim=0.04,
        )

    def test_out_of_square_by_two_gaps(self):
        self.told(
            "squareness-gaps",
            {"gaps": [{"at": 10, "gap": 0.02}, {"at": 90, "gap": 0.06}], "length": 100},
            error=0.05,
        )

    def test_an_expanding_arbor_grows_by_its_taper(self):
        self.told(
            "expanding-arbor",
            {"taper": "1:10", "pitch": 1, "slots": 4, "diameter": 30, "play": 0.04},
            growth_per_turn=0.1,
            turns_to_take_play=0.4,
        )

    def test_the_time_of_six_passes(self):
        """(80 + 2) / (300 x 0.1) = 2.733 minutes and ten seconds, six times."""
        self.told(
            "cutting-time",
            {"length": 80, "passes": 6, "rpm": 300, "feed": 0.1},
            minutes=6 * (82 / 30 + 10 / 60),
        )

    def test_one_length_in_every_unit(self):
        self.told(
            "convert",
            {"value": "13/32"},
            mm=10.31875,
            inch=0.40625,
            fraction="13/32",
            thou=406.25,
            drill="13/32",
        )

    def test_a_piece_laid_at_thirty_degrees_rises_by_half_its_length(self):
        found = self.told("angle-block", {"angle": 30, "length": 80}, height=40.0)
        self.assertAlmostEqual(sum(found["stack"]), 40)

    def test_diameters_that_come_out_in_whole_teeth(self):
        found = self.told("knurl", {"pitch": 1, "diameter": 20}, teeth=63)
        for size, teeth in zip(found["best_diameters"], (62, 63), strict=True):
            self.assertAlmostEqual(size, teeth / math.pi)

    def test_three_four_five(self):
        self.told("triangle", {"side": 3, "rise": 4}, slope=5.0, angle=53.1301)
        self.told("triangle", {"slope": 5, "angle": 30}, rise=2.5)

    def test_a_broach_through_twice_the_length_has_more_teeth_in_the_cut(self):
        short = reckon(
            "broach-force", {"size": 10, "material": "mild steel", "length": 20}
        )
        long = reckon(
            "broach-force", {"size": 10, "material": "mild steel", "length": 80}
        )
        self.assertGreater(long["teeth_in_cut"], short["teeth_in_cut"])
        self.assertIn("rule of thumb", short.notes[0])


class Tables(unittest.TestCase):
    def test_the_other_end_of_a_taper_gives_that_taper_back(self):
        for name, large, length in (("1:20", 24.0, 80.0), ("7/24", 44.45, 30.0)):
            found = reckon(
                "taper-end", {"taper": name, "large": large, "length": length}
            )
            ends = {"large": large, "small": found["small_end"], "length": length}
            with self.subTest(name):
                back = reckon("taper-angle", ends)
                self.assertAlmostEqual(
                    back["half_angle"], found["half_angle"], places=6
                )
                for left_out, key in (("large", "large_end"), ("length", "long")):
                    given = {k: v for k, v in ends.items() if k != left_out}
                    other = reckon("taper-end", {"taper": name, **given})
                    self.assertAlmostEqual(other[key], ends[left_out])
        for given, key in (
            ({"large": 20}, "large"),
            ({"large": 20, "small": 16, "length": 80}, "large"),
            ({"large": 16, "small": 20}, "large"),
            ({"large": 5, "length": 200}, "length"),
        ):
            with self.subTest(given), self.assertRaises(BadInput) as caught:
                reckon("taper-end", {"taper": "1:20", **given})
            self.assertEqual(caught.exception.key, key)

    def test_a_cam_nose_is_alike_in_millimetres_and_inches(self):
        """Tapers and circles as the inch standard has them, rounded there to a tenth of
        a thou and to whole thou; a metric stud is the coarser side of the inch one."""
        inches = {
            3: (2.125, 2.781),
            4: (2.5005, 3.25),
            5: (3.2505, 4.125),
            6: (4.188, 5.25),
            8: (5.5007, 6.75),
            11: (7.7507, 9.25),
        }
        for size, (taper, circle) in inches.items():
            found = reckon("cam-nose", {"size": size})
            with self.subTest(size):
                self.assertAlmostEqual(found["taper"] / 25.4, taper, delta=1e-4)
                self.assertAlmostEqual(found["circle"] / 25.4, circle, delta=0.0025)
                metric, inch = (
                    reckon("thread", {"thread": found[key]})["major"]
                    for key in ("stud_metric", "stud_inch")
                )
                self.assertLess(abs(metric - inch), 1.2)
                self.assertLess(found["taper"], found["circle"] - 12)
        with self.assertRaises(BadInput):
            reckon("cam-nose", {"size": 7})

    def test_a_circlip_s_groove_is_a_little_wider_than_the_ring(self):
        """A tenth wider to 1.75, 0.15 from 2 on; deeper on larger shafts."""
        for row in rows("circlips"):
            with self.subTest(row):
                thick = float(row["thickness_mm"])
                wide = float(row["groove_width_mm"])
                over = {True: 0.1, False: 0.15}[thick < 2]
                self.assertAlmostEqual(wide - thick, over if thick > 0.5 else 0.1)
                size = float(row["diameter_mm"])
                deep = abs(size - float(row["groove_diameter_mm"]))
                self.assertTrue(0.03 * size <= deep <= 0.07 * size + 0.1)

    def test_an_e_clip_is_named_by_its_groove_and_goes_on_its_shafts(self):
        """Each range begins over the last one's and ends over it; the groove is wider
        than the clip by 0.04 or 0.05, and at least 0.2 deeper than the thinnest
        shaft. 10 lies in the middle of what a clip of 8 goes on."""
        clips = [{k: float(v) for k, v in row.items() if k != "source"}
                 for row in rows("e_clips")]  # fmt: skip
        for clip, larger in pairwise(clips):
            for key in ("size_mm", "shaft_least_mm", "shaft_most_mm"):
                self.assertLess(clip[key], larger[key])
        for clip in clips:
            self.assertGreaterEqual(
                clip["shaft_least_mm"] - clip["size_mm"], 0.2 - 1e-9
            )
            free = clip["groove_width_mm"] - clip["thickness_mm"]
            self.assertIn(round(free, 3), (0.04, 0.05))
        ten = reckon("e-clip", {"diameter": 10})
        self.assertEqual((ten["size"], ten["groove_width"]), (8.0, 1.05))
        self.assertEqual(ten["others"], ["7", "9"])
        with self.assertRaisesRegex(BadInput, "from 1 to 42"):
            reckon("e-clip", {"diameter": 60})

    def test_printed_circlips(self):
        """DIN 471: 20 x 1.2 in a groove of 19; DIN 472: 47 x 1.75 in 49.5."""
        shaft = reckon("circlip", {"diameter": 20})
        self.assertEqual((shaft["groove_diameter"], shaft["groove_width"]), (19, 1.3))
        bore = reckon("circlip", {"diameter": 47, "kind": "bore"})
        self.assertEqual((bore["groove_diameter"], bore["thickness"]), (49.5, 1.75))
        with self.assertRaisesRegex(BadInput, "22 and 24"):
            reckon("circlip", {"diameter": 23})

    def test_a_woodruff_key_fills_both_seats(self):
        """Inch: hub depth is half the width and 0.006 in, both depths the height."""
        for row in rows("woodruff_keys"):
            with self.subTest(row["name"]):
                both = float(row["shaft_depth"]) + float(row["hub_depth"])
                high = float(row["height"])
                if row["standard"] == "inch":
                    self.assertAlmostEqual(both, high + 0.001, delta=0.0006)
                    half = float(row["width"]) / 2
                    self.assertAlmostEqual(
                        float(row["hub_depth"]), half + 0.006, delta=0.0001
                    )
                else:
                    self.assertTrue(0.15 <= both - high <= 0.35)

    def test_woodruff_keys_by_shaft_and_by_number(self):
        found = reckon("woodruff", {"key": "6x9"})
        self.assertEqual((found["cutter"], found["key_width"]), (22, 6))
        self.assertEqual(reckon("woodruff", {"shaft": 24})["key"], "6x9")
        inch = reckon("woodruff", {"key": "404"})
        self.assertAlmostEqual(inch["cutter"], INCH / 2)

    def test_acme_is_half_a_pitch_deep(self):
        """1-5 Acme: pitch 0.2 in, pitch diameter 0.9, nut bored 0.8 in."""
        thread = thread_of("1-5 Acme")
        self.assertAlmostEqual(thread.pitch_diameter, 0.9 * INCH)
        self.assertAlmostEqual(thread.minor_internal, 0.8 * INCH)
        self.assertAlmostEqual(thread.minor_external, 0.78 * INCH)

    def test_a_screw_without_a_table_gets_a_metric_one_s_room(self):
        found = reckon("clearance-hole", {"thread": "2BA"})
        self.assertAlmostEqual(found["diameter"], 5.2)
        self.assertIn("no table", found.notes[0] if hasattr(found, "notes") else "")
