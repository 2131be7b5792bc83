"""Cutting, measuring and loading threads: simulated, summed or searched."""

import math
import unittest
from fractions import Fraction
from itertools import pairwise

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.tapping import drills
from machinon.core.threads.thread_cutting import crest_flat

THREADS = (
    "M6",
    "M10",
    "M45x4.5",
    "1/4-20",
    "1-8",
    "1/2 BSW",
    "Tr20x4",
    "2BA",
    "1-5 Acme",
)


def asked(name, **inputs):
    return reckon(name, inputs).results


def refused(case, key, name, **inputs):
    with case.assertRaises(BadInput) as refusal:
        reckon(name, inputs)
    case.assertEqual(refusal.exception.key, key)
    return refusal.exception.message


class Passes(unittest.TestCase):
    def test_passes_add_up_to_the_depth_and_none_is_deeper_than_the_one_before(self):
        for thread in THREADS:
            for first in (None, 0.05, 0.3):
                found = asked("thread-passes", thread=thread, first=first)
                cuts = [cut["radial"] for cut in found["passes"][:-2]]
                with self.subTest(thread, first=first):
                    self.assertAlmostEqual(math.fsum(cuts), found["total_depth"])
                    for cut, other in pairwise(cuts):
                        self.assertLessEqual(other, cut + 1e-9)
                    self.assertEqual(
                        [cut["radial"] for cut in found["passes"][-2:]], [0, 0]
                    )

    def test_no_pass_rubs_but_perhaps_the_last(self):
        for thread in THREADS:
            for least in (0.02, 0.05, 0.1):
                found = asked("thread-passes", thread=thread, least=least, spring=0)
                cuts = [cut["radial"] for cut in found["passes"]]
                with self.subTest(thread, least=least):
                    self.assertTrue(all(cut >= least - 1e-9 for cut in cuts[:-1]))

    def test_what_a_bore_has_taken_is_not_cut_again(self):
        """M45 × 4.5 from a bore of 40.46: (45 − 40.46) / 2 = 2.27 to its root, along
        the compound 2.27 / cos 29.5° = 2.608."""
        nut = {"thread": "M45x4.5", "internal": True}
        found = asked("thread-passes", **nut, bore=40.46)
        self.assertAlmostEqual(found["total_depth"], 2.27, 3)
        self.assertAlmostEqual(found["compound_total"], 2.608, 3)
        for wrong in ({**nut, "bore": 39.0}, {**nut, "bore": 45.1},
                      {"thread": "M45x4.5", "bore": 41.0}):  # fmt: skip
            refused(self, "bore", "thread-passes", **wrong)

    def test_passes_take_equal_areas_of_chip(self):
        """The depth after n passes goes as the root of n while none is too light."""
        found = asked("thread-passes", thread="M20", first=0.3, least=0.002, spring=0)
        deep, depths = 0.0, []
        for cut in found["passes"][:5]:
            deep += cut["radial"]
            depths.append(deep)
        for n, depth in enumerate(depths, 1):
            self.assertAlmostEqual(depth / depths[0], math.sqrt(n), places=1)

    def test_the_compound_goes_further_by_its_angle(self):
        found = asked("thread-passes", thread="M10", angle=29)
        slant = math.cos(math.radians(29))
        for cut in found["passes"]:
            self.assertAlmostEqual(cut["compound"] * slant, cut["radial"])
        self.assertAlmostEqual(found["compound_total"] * slant, found["total_depth"])
        straight = asked("thread-passes", thread="M10", school="plunge", angle=29)
        self.assertAlmostEqual(straight["compound_total"], straight["total_depth"])

    def test_the_compound_stands_half_a_degree_under_half_the_flanks_angle(self):
        for thread, angle in (("M10", 29.5), ("1/2 BSW", 27), ("Tr20x4", 14.5)):
            found = asked("thread-passes", thread=thread)
            slant = math.cos(math.radians(angle))
            self.assertAlmostEqual(
                found["compound_total"] * slant, found["total_depth"]
            )
        refused(self, "angle", "thread-passes", thread="M10", angle=30.1)
        refused(self, "angle", "thread-passes", thread="1/2 BSW", angle=29.5)
        self.assertTrue(asked("thread-passes", thread="M10", angle=30))

    def test_depths_as_the_forms_say(self):
        """P = 1.5: sharp 0.866 P, screw 0.6134 P, nut 0.5413 P; Whitworth 0.6403 P."""
        for thread, depth, internal, share in (
            ("M10", "sharp", False, 0.866025),
            ("M10", "truncated", False, 0.613435),
            ("M10", "truncated", True, 0.541266),
            ("1/2 BSW", "truncated", False, 0.640327),
            ("1/2 BSW", "truncated", True, 0.640327),
        ):
            pitch = thread_of(thread).pitch
            found = asked(
                "thread-passes", thread=thread, depth=depth, internal=internal
            )
            with self.subTest(thread, depth=depth, internal=internal):
                self.assertAlmostEqual(found["total_depth"] / pitch, share, places=5)

    def test_a_run_out_groove_clears_the_tool(self):
        for thread in ("M10", "M45x4.5", "1-8"):
            sizes = thread_of(thread)
            screw = asked("thread-passes", thread=thread)
            nut = asked("thread-passes", thread=thread, internal=True)
            self.assertLess(screw["runout_groove_diameter"], sizes.minor_external)
            self.assertGreater(nut["runout_groove_diameter"], sizes.major)
            self.assertAlmostEqual(screw["runout_groove_width"], 3 * sizes.pitch)


class Dial(unittest.TestCase):
    def test_a_pitch_closes_where_a_thread_of_it_does(self):
        for thread, pitch in (("5/16-18", "18tpi"), ("M8", 1.25), ("1/2-13", "13tpi")):
            for screw in ("8tpi", 4):
                of_thread = asked("thread-dial", thread=thread, leadscrew=screw)
                of_pitch = asked("thread-dial", pitch=pitch, leadscrew=screw)
                self.assertEqual(of_thread, of_pitch)
        refused(self, "thread", "thread-dial", leadscrew="8tpi")
        refused(self, "thread", "thread-dial", leadscrew=4, pitch=1, thread="M8")

    def test_on_every_mark_given_the_tool_falls_into_the_thread_and_on_no_other(self):
        """A turn of the dial is as many threads of the lead screw as it has teeth;
        between closings the carriage must have moved by whole threads of the work."""
        for thread in ("1/4-20", "5/16-18", "1/2-13", "1-8", "3/4-10", "M10", "M8"):
            for screw, leadscrew in (("8tpi", Fraction(127, 40)), ("4", Fraction(4))):
                for teeth in (16, 24, 32):
                    found = asked(
                        "thread-dial",
                        thread=thread,
                        leadscrew=screw,
                        dial_teeth=teeth,
                        dial_marks=8,
                    )
                    if found["keep_engaged"]:
                        continue
                    pitch = Fraction(thread_of(thread).pitch).limit_denominator(10**6)
                    good = [
                        mark
                        for mark in range(1, 9)
                        if (threads := Fraction(mark * teeth, 8)).denominator == 1
                        and (threads * leadscrew / pitch).denominator == 1
                    ]
                    with self.subTest(thread, screw=screw, teeth=teeth):
                        self.assertEqual(found["marks"], good)

    def test_an_inch_thread_on_a_metric_screw_stays_engaged(self):
        for thread, screw, mixed in (
            ("1/4-20", "4", True),
            ("M10", "8tpi", True),
            ("M7x0.7", "4", False),
        ):
            answer = reckon("thread-dial", {"thread": thread, "leadscrew": screw})
            if answer["keep_engaged"]:
                self.assertEqual("other way round" in answer["rule"], mixed, thread)
                self.assertIn("unwind", answer.cautions[0])
        self.assertTrue(
            asked("thread-dial", thread="1/4-20", leadscrew="4")["keep_engaged"]
        )

    def test_rules_in_words(self):
        for thread, words in (
            ("1-8", "anywhere"),
            ("1/4-20", "any mark"),
            ("5/16-18", "every 2nd mark: 2, 4, 6, 8"),
            ("5/8-11", "every 4th mark: 4, 8"),
        ):
            self.assertIn(
                words, asked("thread-dial", thread=thread, leadscrew="8tpi")["rule"]
            )


class Wires(unittest.TestCase):
    def test_a_wire_touches_both_flanks_as_drawn(self):
        """The groove's flanks meet below the pitch line, where groove is half a pitch
        wide; a round wire in it stands its radius over sin(half) above that point."""
        for thread in ("M8", "M24", "1/2-13", "1/2 BSW"):
            sizes = thread_of(thread)
            half = math.radians(sizes.form.angle / 2)
            for wire in (None, asked("thread-wires", thread=thread)["best_wire"] * 1.1):
                found = asked("thread-wires", thread=thread, wire=wire)
                size = wire or found["best_wire"]
                root = sizes.pitch_diameter / 2 - sizes.pitch / 4 / math.tan(half)
                centre = root + size / 2 / math.sin(half)
                with self.subTest(thread, wire=size):
                    self.assertAlmostEqual(found["over_wires"], 2 * centre + size)

    def test_the_best_wire_touches_at_the_pitch_line(self):
        for thread in ("M8", "1/2-13", "1/2 BSW", "Tr20x4"):
            sizes = thread_of(thread)
            half = math.radians(sizes.form.angle / 2)
            best = asked("thread-wires", thread=thread)["best_wire"]
            # along the pitch line it touches half a groove from the middle
            self.assertAlmostEqual(best / 2 * math.cos(half), sizes.pitch / 4)

    def test_wires_that_cannot_touch_are_refused(self):
        found = asked("thread-wires", thread="M10")
        for wire, good in (
            (found["wire_min"], True),
            (found["wire_max"], True),
            (found["wire_min"] - 0.01, False),
            (found["wire_max"] + 0.01, False),
        ):
            if good:
                self.assertTrue(asked("thread-wires", thread="M10", wire=wire))
            else:
                refused(self, "wire", "thread-wires", thread="M10", wire=wire)

    def test_what_was_read_over_the_wires_gives_the_pitch_diameter(self):
        found = asked("thread-wires", thread="M10")
        read = asked("thread-wires", thread="M10", measured=found["over_wires"] - 0.04)
        self.assertAlmostEqual(
            read["pitch_diameter"], thread_of("M10").pitch_diameter - 0.04
        )
        self.assertLess(found["over_wires_min"], found["over_wires_max"])
        self.assertLess(found["over_wires_max"], found["over_wires"])

    def test_a_pointed_tool_leaves_an_eighth_of_the_pitch_on_the_crest(self):
        """ISO 68-1: the crest of the basic profile is P/8 wide."""
        for thread in ("M8", "M45x4.5", "1/2-13"):
            sizes = thread_of(thread)
            flat = crest_flat(sizes, sizes.major, sizes.pitch_diameter)
            self.assertAlmostEqual(flat, sizes.pitch / 8, 4)

    def test_the_flat_of_a_class_lies_between_its_limits(self):
        found = asked("crest-flat", thread="M10")
        self.assertAlmostEqual(2 * found["flat"], found["flat_min"] + found["flat_max"])
        # 6g: 9.968 over the crests, 8.994 at most on the pitch line, tan 30° 0.57735
        by_hand = 0.75 - 0.974 * 0.57735
        self.assertAlmostEqual(found["flat_max"], by_hand, delta=0.0005)

    def test_the_flat_and_the_wires_tell_the_same_pitch_diameter(self):
        for thread in ("M8", "1/2-13", "1/2 BSW", "Tr20x4"):
            sizes = thread_of(thread)
            wires = asked("thread-wires", thread=thread)
            deeper = asked(
                "thread-wires", thread=thread, measured=wires["over_wires"] - 0.02
            )
            flat = crest_flat(sizes, sizes.major, sizes.pitch_diameter)
            lean = math.tan(math.radians(sizes.form.angle / 2))
            read = asked(
                "crest-flat",
                thread=thread,
                outside=sizes.major,
                measured=flat - 0.02 * lean,
            )
            with self.subTest(thread):
                self.assertAlmostEqual(read["pitch_diameter"], deeper["pitch_diameter"])

    def test_crests_that_the_flanks_do_not_reach_are_refused(self):
        # M10 x 1.5: 9.026 on the pitch line, and 0.75 / tan 30° more to its point
        self.assertTrue(asked("crest-flat", thread="M10", outside=10.325))
        refused(self, "outside", "crest-flat", thread="M10", outside=10.33)
        refused(self, "outside", "crest-flat", thread="M10", outside=9.025)

    def test_a_steep_lead_is_cautioned(self):
        self.assertTrue(reckon("thread-wires", {"thread": "Tr10x3"}).cautions)
        self.assertFalse(reckon("thread-wires", {"thread": "M10"}).cautions)


class ByPitch(unittest.TestCase):
    def test_a_pitch_alone_tells_what_a_thread_of_it_has(self):
        for thread in ("M10", "M45x4.5", "2BA", "1/4-20", "1/2 BSW"):
            sizes = thread_of(thread)
            with self.subTest(thread):
                found = asked(
                    "pitch",
                    pitch=sizes.pitch,
                    form=sizes.form_name,
                    diameter=sizes.major,
                )
                wires = asked("thread-wires", thread=thread)
                for key in ("best_wire", "wire_min", "wire_max"):
                    self.assertAlmostEqual(found[key], wires[key])
                self.assertAlmostEqual(found["tpi"], sizes.tpi)
                self.assertAlmostEqual(found["lead_angle"], sizes.lead_angle)
                for key, internal in (("depth_outside", False), ("depth_inside", True)):
                    cut = asked("thread-passes", thread=thread, internal=internal)
                    self.assertAlmostEqual(found[key], cut["total_depth"])

    def test_the_compound_goes_further_than_the_thread_is_deep(self):
        """At half the flanks' angle it goes along a flank: 0.6134 / cos 30° of 1.5."""
        found = asked("pitch", pitch=1.5, angle=30)
        self.assertAlmostEqual(found["compound"], 1.0625, 4)
        cut = asked("thread-passes", thread="M10", angle=30, internal=True)
        self.assertAlmostEqual(found["compound_inside"], cut["compound_total"])
        self.assertNotIn("compound", asked("pitch", pitch=1.5))
        refused(self, "angle", "pitch", pitch=1.5, angle=31)
        refused(self, "angle", "pitch", pitch=1.5, form="whitworth", angle=29.5)

    def test_each_start_moves_the_nut_a_pitch_more(self):
        """8 to the inch is 3.175; two of them lead 6.35, on 17.94 by 6.43°."""
        found = asked("pitch", pitch="8tpi", starts=2, diameter=20)
        self.assertAlmostEqual(found["lead"], 6.35)
        self.assertAlmostEqual(found["depth_outside"], 1.9477, 4)
        self.assertAlmostEqual(found["lead_angle"], 6.429, 3)
        # 2 × 3/8 × 0.866 × 3.175 are under the crests of any
        refused(self, "diameter", "pitch", pitch="8tpi", diameter=2.06)
        self.assertTrue(asked("pitch", pitch="8tpi", diameter=2.07))


class Engagement(unittest.TestCase):
    def test_a_screw_of_its_own_metal_needs_less_than_its_diameter(self):
        for thread in ("M6", "M12", "3/8-16"):
            found = asked(
                "thread-engagement", thread=thread, screw_strength=800, nut_strength=800
            )
            share = found["minimum_length"] / thread_of(thread).major
            self.assertTrue(0.4 < share < 0.8, share)
            self.assertEqual(found["strips_first"], "screw")

    def test_at_the_least_length_screw_and_thread_fail_together(self):
        """Sheared area of a nut's thread: π · major · share of the pitch that is
        metal there, half a pitch and what the flank adds to the pitch line."""
        thread = thread_of("M10")
        found = asked(
            "thread-engagement", thread="M10", screw_strength=800, nut_strength=220
        )
        metal = thread.pitch / 2 + math.tan(math.radians(30)) * (
            thread.major - thread.pitch_diameter
        )
        holds = (
            0.5
            * 220
            * math.pi
            * thread.major
            * metal
            * found["minimum_length"]
            / thread.pitch
        )
        core = (thread.pitch_diameter + thread.minor_external) / 2
        self.assertAlmostEqual(holds, 800 * math.pi / 4 * core**2, places=3)
        self.assertAlmostEqual(found["turns"], found["minimum_length"] / 1.5)

    def test_half_the_load_needs_half_the_length(self):
        full, half = (
            asked(
                "thread-engagement",
                thread="M8",
                screw_strength=800,
                nut_strength=220,
                preload=load,
            )["minimum_length"]
            for load in (10_000, 5_000)
        )
        self.assertAlmostEqual(full, 2 * half)


class Torque(unittest.TestCase):
    def test_the_section_that_breaks_is_that_of_the_standards(self):
        """ISO 898-1 table 4, mm²; ASME B1.1 table of tensile stress areas, in²."""
        for thread, area in (
            ("M6", 20.1), ("M8", 36.6), ("M10", 58.0), ("M12", 84.3), ("M16", 157),
            ("M20", 245), ("M24", 353), ("1/4-20", 0.0318 * 645.16),
            ("3/8-16", 0.0775 * 645.16), ("1/2-13", 0.1419 * 645.16),
            ("1-8", 0.606 * 645.16),
        ):  # fmt: skip
            with self.subTest(thread):
                self.assertAlmostEqual(thread_of(thread).stress_area / area, 1, 2)

    def test_a_screw_is_tightened_to_three_quarters_of_its_proof_load(self):
        """580 N/mm² on 57.99 mm² of an M10 of 8.8: 25.2 kN, which 50.5 N·m clamp dry
        and a quarter less oiled."""
        dry, oiled = (asked("screw-torque", thread="M10", oiled=o) for o in
                      ("dry", "oiled"))  # fmt: skip
        self.assertAlmostEqual(dry["preload"], 25226, delta=1)
        self.assertAlmostEqual(dry["torque"], 50.45, 2)
        self.assertAlmostEqual(oiled["torque"], 0.75 * dry["torque"])
        back = asked("screw-torque", thread="M10", torque=dry["torque"])
        self.assertAlmostEqual(back["preload"], dry["preload"])
        self.assertAlmostEqual(back["share"], 75)

    def test_each_screw_has_the_proof_stress_of_its_size(self):
        for thread, grade, proof in (
            ("M16", "8.8", 580), ("M20", "8.8", 600), ("M8", "12.9", 970),
            ("3/4-10", "SAE 2", 379.2), ("7/8-9", "SAE 2", 227.5),
            ("1/2-13", None, 586.1),
        ):  # fmt: skip
            given = {"grade": grade} if grade else {}
            with self.subTest(thread, grade=grade):
                found = asked("screw-torque", thread=thread, **given)
                self.assertAlmostEqual(found["stress"], 0.75 * proof)
        refused(self, "grade", "screw-torque", thread="M42", grade="8.8")
        refused(self, "torque", "screw-torque", thread="M8", torque=9, preload=9)

    def test_a_screw_past_its_proof_load_is_cautioned(self):
        self.assertTrue(reckon("screw-torque", {"thread": "M6", "torque": 20}).cautions)
        self.assertFalse(reckon("screw-torque", {"thread": "M6", "torque": 9}).cautions)


class Reaming(unittest.TestCase):
    def test_the_drill_before_a_reamer_leaves_it_enough(self):
        """Of a metric reamer a metric drill, of an inch one an inch drill."""
        for reamer, drill, stock in ((8, "7.8 mm", 0.2), (20, "19.5 mm", 0.5),
                                     ("3/8in", "23/64 in", 25.4 / 64)):  # fmt: skip
            with self.subTest(reamer):
                found = asked("ream-drill", reamer=reamer)
                self.assertEqual(found["drill"], drill)
                self.assertAlmostEqual(found["stock"], stock)

    def test_it_is_one_of_those_there_are(self):
        found = asked("ream-drill", reamer=8, series=["7mm", "7.5mm", "7.9mm"])
        self.assertEqual(found["drill"], "7.5 mm")


class TapDrills(unittest.TestCase):
    def test_the_drill_named_is_the_nearest_there_is(self):
        sizes = [drill.size for drill in drills("metric")]
        for thread in ("M3", "M5", "M8", "M16", "M10x1"):
            for engagement in (60, 70, 80):
                found = asked("tap-drill", thread=thread, engagement=engagement)
                nearest = min(abs(size - found["ideal"]) for size in sizes)
                self.assertAlmostEqual(
                    abs(found["drill_size"] - found["ideal"]), nearest
                )

    def test_a_wire_insert_has_a_drill_and_a_tap_of_its_own(self):
        """Drills as DIN 8140-2 gives them, and the larger thread: M6 has 1.299 over it.
        Of 1/4-20 that is 0.250 + 0.065 in, after a drill of 17/64."""
        for thread, drill, tap in (
            ("M3", 3.2, 3.650),
            ("M4", 4.2, 4.909),
            ("M5", 5.2, 6.039),
            ("M6", 6.3, 7.299),
            ("M8", 8.4, 9.624),
            ("M10", 10.5, 11.949),
            ("M12", 12.5, 14.273),
            ("1/4-20", 25.4 * 17 / 64, 25.4 * 0.31495),
        ):
            with self.subTest(thread):
                found = asked("tap-drill", thread=thread, kind="insert")
                self.assertAlmostEqual(found["drill_size"], drill, 3)
                self.assertAlmostEqual(found["tap"], tap, 3)

    def test_a_share_and_a_percentage_ask_the_same(self):
        self.assertEqual(
            asked("tap-drill", thread="M8", engagement=0.7)["ideal"],
            asked("tap-drill", thread="M8", engagement=70)["ideal"],
        )

    def test_beside_it_stand_two_smaller_and_two_larger(self):
        found = asked("tap-drill", thread="M8")
        sizes = [drill["size"] for drill in found["alternatives"]]
        self.assertEqual(len(sizes), 4)
        self.assertEqual(sizes, sorted(sizes))
        self.assertTrue(sizes[1] < found["drill_size"] < sizes[2])
        for drill in found["alternatives"]:
            larger = drill["size"] > found["drill_size"]
            self.assertEqual(drill["engagement"] < found["engagement"], larger)

    def test_a_lead_screws_nut_is_bored_to_its_standard_and_no_wider(self):
        """Tr16 × 4: 16 − 4, and 12.375 at most; of 3/4-6 Acme 0.5833 to 0.5917 in."""
        for name, series, drill in (
            ("Tr16x4", None, 12.0),
            ("Tr20x4", None, 16.0),
            ("3/4-6 Acme", ["metric"], 15.0),
        ):
            answer = reckon("tap-drill", {"thread": name, "series": series})
            self.assertAlmostEqual(answer["drill_size"], drill)
            self.assertEqual(answer.cautions, ())
        # three quarters of a thread strip no screw, but they wear
        less = reckon("tap-drill", {"thread": "Tr16x4", "engagement": "75%"})
        self.assertEqual(less["drill_size"], 13)
        self.assertIn("90 %", less.cautions[0])

    def test_no_drill_is_offered_that_the_tap_cannot_follow(self):
        """M8 after 6 would be cut 1.2 times as deep as it can; after 8 not at all."""
        rack = ["6mm", "6.5mm", "7mm", "7.5mm", "8mm"]
        found = asked("tap-drill", thread="M8", series=rack)
        self.assertEqual([d["size"] for d in found["alternatives"]], [6.5, 7.5])

    def test_too_much_and_too_little_thread_are_cautioned(self):
        for engagement, words in ((95, "breaks taps"), (40, "strips early"), (75, "")):
            cautions = reckon(
                "tap-drill", {"thread": "M8", "engagement": engagement}
            ).cautions
            if words:
                self.assertIn(words, cautions[0])
            else:
                self.assertEqual(list(cautions), [])

    def test_a_shelf_without_a_drill_near_says_what_it_has(self):
        says = refused(self, "series", "tap-drill", thread="M8", series=["3", "4"])
        self.assertIn("3.00 to 4.00", says)
        says = refused(self, "series", "tap-drill", thread="M3", series=["8", "9"])
        self.assertIn("8.00 to 9.00", says)
