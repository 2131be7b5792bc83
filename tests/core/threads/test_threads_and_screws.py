import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.setting_out.bolt_circle import circle_from_span, hole_points
from machinon.core.survey.thread_find import candidates, undecided
from machinon.core.tables import rows
from machinon.core.threads.screw_thread import metric_thread, thread_of
from machinon.core.threads.screws import cap_screw, cap_screws, screw_by, stock_lengths
from machinon.core.threads.thread_limits import thread_limits


class HandsAndStarts(unittest.TestCase):
    def test_a_left_hand_thread_has_the_sizes_of_a_right_hand_one(self):
        for typed, name in (
            ("M16 LH", "M16x2-LH"),
            ("m16x1.5-lh", "M16x1.5-LH"),
            ("1/2-10 Acme LH", "1/2-10 ACME-LH"),
            ("Tr20x8P4 LH", "Tr20x8P4-LH"),
        ):
            with self.subTest(typed):
                left = thread_of(typed)
                self.assertEqual((left.name, left.left), (name, True))
                self.assertEqual(thread_of(name), left, "as it is kept")
                right = thread_of(name.removesuffix("-LH"))
                self.assertEqual((left.major, left.pitch), (right.major, right.pitch))
                self.assertFalse(right.left)

    def test_two_starts_double_the_lead_and_leave_the_form_alone(self):
        """Tr20x8P4: 18 on the pitch diameter as Tr20x4; atan(8 / 18 π) = 8.05°."""
        one, two = thread_of("Tr20x4"), thread_of("Tr20x8(P4)")
        self.assertEqual((two.starts, two.lead, two.pitch), (2, 8, 4))
        self.assertEqual(two.pitch_diameter, one.pitch_diameter)
        self.assertAlmostEqual(two.lead_angle, 8.0523, 3)
        self.assertEqual(thread_of("M16xPh3P1.5").says, "M16 × Ph3P1.5")
        for typed in ("Tr20x9P4", "Tr20x4P4", "Tr20x40P4"):
            with self.assertRaises(BadInput):
                thread_of(typed)

    def test_the_half_nuts_and_the_wheels_go_by_the_lead(self):
        """A lead of 8 on a screw of 4 is in step every second thread of it."""
        two = reckon("thread-dial", {"thread": "Tr20x8P4", "leadscrew": 4})
        by_lead = reckon("thread-dial", {"pitch": 8, "leadscrew": 4})
        self.assertEqual(two["marks"], by_lead["marks"])


class MetricThreads(unittest.TestCase):
    def test_printed_sizes(self):
        """Pitch and minor diameter as ISO 724 prints them."""
        for name, pitch_diameter, minor in (
            ("M6", 5.350, 4.917),
            ("M8", 7.188, 6.647),
            ("M10", 9.026, 8.376),
            ("M12", 10.863, 10.106),
            ("M20", 18.376, 17.294),
            ("M36", 33.402, 31.670),
            ("M39x3", 37.051, 35.752),
        ):
            with self.subTest(name):
                thread = metric_thread(name)
                self.assertAlmostEqual(thread.pitch_diameter, pitch_diameter, places=3)
                self.assertAlmostEqual(thread.minor_internal, minor, places=3)

    def test_printed_limits(self):
        """6H and 6g of ISO 965-2: M8 and M12."""
        m8, m12 = (thread_limits(metric_thread(n)) for n in ("M8", "M12"))
        self.assertAlmostEqual(m8.internal_minor_max, 6.912, places=3)
        self.assertAlmostEqual(m8.internal_pitch_max, 7.348, places=3)
        self.assertAlmostEqual(m8.external_major_max, 7.972, places=3)
        self.assertAlmostEqual(m8.external_major_min, 7.760, places=3)
        self.assertAlmostEqual(m12.internal_minor_max, 10.441, places=3)
        self.assertAlmostEqual(m12.external_pitch_max, 10.829, places=3)
        self.assertAlmostEqual(m12.external_pitch_min, 10.679, places=3)

    def test_tables_agree_with_the_formulas_of_the_standard(self):
        """ISO 965-1: TD1 = 230 P^0.7, Td2 = 90 P^0.4 d^0.1, TD2 = 1.32 Td2."""
        # the printed figures are rounded to the R 40 series of preferred numbers
        for row in rows("metric_thread_by_pitch"):
            pitch = float(row["pitch_mm"])
            minor = 433 * pitch - 190 * pitch**1.22 if pitch < 1 else 230 * pitch**0.7
            major = 180 * pitch ** (2 / 3) - 3.15 / math.sqrt(pitch)
            with self.subTest(pitch):
                self.assertAlmostEqual(
                    float(row["minor_internal_6_um"]) / minor, 1, delta=0.055
                )
                self.assertAlmostEqual(
                    float(row["major_external_6_um"]) / major, 1, delta=0.055
                )
                self.assertAlmostEqual(
                    float(row["g_deviation_um"]), -(15 + 11 * pitch), delta=1.6
                )
        for row in rows("metric_thread_pitch_diameter"):
            pitch = float(row["pitch_mm"])
            mean = math.sqrt(float(row["above_mm"]) * float(row["to_mm"]))
            external = 90 * pitch**0.4 * mean**0.1
            with self.subTest(row):
                self.assertAlmostEqual(
                    float(row["external_6_um"]) / external, 1, delta=0.06
                )
                self.assertAlmostEqual(
                    float(row["internal_6_um"]) / (1.32 * external), 1, delta=0.06
                )

    def test_the_nose_is_recognised_from_its_readings(self):
        for major, pitch, name in ((44.864, 4.5, "M45"), (38.85, 4.0, "M39")):
            ranked = candidates(major, False, False, pitch, 0.01)
            self.assertEqual(ranked[0].thread.name, name)
            self.assertEqual(undecided(ranked), "")
        inch = candidates(38.0, False, False, 25.4 / 8, 0.01)
        self.assertIn("the flanks decide: 55° or 60°", undecided(inch))

    def test_no_thread_by_that_name(self):
        for name in ("M0", "M45x40", "5/16-18", "M", "M19"):
            with self.subTest(name), self.assertRaises(BadInput) as no:
                metric_thread(name)
            self.assertEqual(no.exception.key, "thread")


class NumberSizes(unittest.TestCase):
    def test_ten_thirty_two_is_number_ten_and_one_eight_is_an_inch(self):
        for typed, name, major in (
            ("10-32", "#10-32 UNF", 0.19),
            ("10 UNC", "#10-24 UNC", 0.19),
            ("4-40", "#4-40 UNC", 0.112),
            ("8-32 UNC", "#8-32 UNC", 0.164),
            ("1-64", "#1-64 UNC", 0.073),
            ("1-8", "1-8 UNC", 1.0),
            ("1-14 UNS", "1-14 UNS", 1.0),
            ("4-4", "4-4 UNC", 4.0),
            ("2 UNC", "2-4.5 UNC", 2.0),
        ):
            with self.subTest(typed):
                thread = thread_of(typed)
                self.assertEqual(thread.name, name)
                self.assertAlmostEqual(thread.major, major * 25.4)
        with self.assertRaisesRegex(BadInput, "#10-28"):
            thread_of("10-28")

    def test_an_m_that_is_left_out_makes_no_thread_of_ten_inches(self):
        for typed, name in (
            ("10x1.5", "M10x1.5"),
            ("39 × 4", "M39x4"),
            ("10x32", "#10-32 UNF"),
            ("1x8", "1-8 UNC"),
            ("1/4x20", "1/4-20 UNC"),
        ):
            self.assertEqual(thread_of(typed).name, name)
        with self.assertRaisesRegex(BadInput, "M10x1.5"):
            thread_of("10-1.5")


class Screws(unittest.TestCase):
    def test_no_thread_has_none_to_the_inch(self):
        for name in ("1/4-0", "1-0 Acme", "1 1/8-0 W"):
            with self.subTest(name), self.assertRaises(BadInput) as refusal:
                thread_of(name)
            self.assertIn("above 0", refusal.exception.message)

    def test_a_whitworth_hexagon_is_not_that_of_a_unified_screw(self):
        """1/2 BSW has 0.82 in across its flats, 1/2-13 has 3/4: none is told of it."""
        unified = reckon("cap-screw", {"thread": "1/2-13", "head": "hex"})
        self.assertAlmostEqual(unified["key_size"] / 25.4, 0.75)
        with self.assertRaises(BadInput) as refusal:
            reckon("cap-screw", {"thread": "1/2 BSW", "head": "hex"})
        self.assertIn("measure it", refusal.exception.message)

    def test_every_screw_goes_through_its_holes_and_into_its_counterbore(self):
        for screw in cap_screws().values():
            with self.subTest(screw.size):
                self.assertLess(screw.diameter, screw.close)
                self.assertLess(screw.close, screw.normal)
                self.assertLess(screw.normal, screw.loose)
                self.assertLess(screw.head_diameter, screw.counterbore)
                # printed flush for inch screws, a little under for metric ones
                self.assertGreaterEqual(screw.counterbore_depth, screw.head_height)
                self.assertAlmostEqual(screw.head_height, screw.diameter, delta=0.02)

    def test_inch_screws_and_their_lengths_are_known_as_metric_ones_are(self):
        for head in ("cap", "button", "countersunk", "hex", "set"):
            for size in ("M6", "1/4-20"):
                with self.subTest(size, head=head):
                    asked = {"thread": size, "head": head}
                    self.assertGreater(reckon("cap-screw", asked)["key_size"], 0)
        self.assertEqual(cap_screw("5/16-18").size, "5/16-18 UNC")
        self.assertAlmostEqual(cap_screw("1/4-20").tapping_drill, 5.105, places=2)
        sold = stock_lengths(thread_of("1/4-20"), set_screw=True)
        self.assertAlmostEqual(sold[7], 19.05)
        self.assertIn(20, stock_lengths(thread_of("M6")))

    def test_a_finer_thread_has_the_head_of_its_size_and_a_drill_of_its_own(self):
        """#10-32 takes a #21 (4.039), #10-24 a #25 (3.797); M8 × 1 a 7.0, M8 a 6.8."""
        for fine, coarse, drill in (("10-32", "#10-24 UNC", 4.039), ("M8x1", "M8", 7.0),
                                    ("7/16-20", "7/16-14 UNC", 9.921)):  # fmt: skip
            screw, usual = cap_screw(fine), cap_screw(coarse)
            self.assertEqual(screw.head_diameter, usual.head_diameter)
            self.assertEqual(screw.normal, usual.normal)
            self.assertAlmostEqual(screw.tapping_drill, drill, delta=0.001)
        self.assertEqual(cap_screw("M10x1.5").size, "M10")
        tiny = {"#4": "#4-40 UNC", "M2.5": "M2.5", "2-56": "#2-56 UNC"}
        self.assertEqual({size: cap_screw(size).size for size in tiny}, tiny)
        for none in ("M16x2-LH", "M9", "Tr20x4", "1/4 BSW", "M3x0.1", "3-4"):
            with self.assertRaises(BadInput):
                cap_screw(none)

    def test_a_thread_may_be_written_as_others_write_it(self):
        for said, name in (
            ("1/4 BSP", "G1/4"), ("BA 4", "4BA"), ("1/2 13", "1/2-13 UNC"),
            ("1 1/2 8", "1 1/2-8 UN"), ("M8-1.25", "M8x1.25"),
            ("1/4 x 40 ME", "1/4-40 W"),
        ):  # fmt: skip
            self.assertEqual(thread_of(said).name, name)
        self.assertEqual(thread_of("1/4-40 ME").form_name, "whitworth")

    def test_a_sunk_head_is_as_high_as_its_angle_makes_it(self):
        """An inch one is 82 degrees: (head - screw) / 2 / tan 41."""
        for size in ("#8", "1/4", "3/8", "1/2", "3/4"):
            thread = f"{size} UNC"
            head = reckon("cap-screw", {"thread": thread, "head": "countersunk"})
            rise = (head["head_diameter"] - thread_of(thread).major) / 2
            self.assertAlmostEqual(
                head["head_height"], rise / math.tan(math.radians(41)), delta=0.06
            )

    def test_tapped_holes_leave_their_screws_only_the_room_of_the_other_half(self):
        """Holes read 9.0 for M8: half a millimetre all round."""
        tapped = reckon("bolt-room", {"thread": "M8", "new": "tapped", "measured": 9})
        self.assertAlmostEqual(tapped["room"], 0.5)
        self.assertAlmostEqual(tapped["hole"], 6.8)
        with self.assertRaises(BadInput) as no:
            reckon("bolt-room", {"thread": "M8", "new": "tapped"})
        self.assertEqual(no.exception.key, "measured")

    def test_a_screw_measured_and_another_chosen_are_pointed_out(self):
        for measured, new, says in (
            (5.9, "clear", "nearest to it is M6"),
            (6.6, "tapped", "does not pass"),
            (20.0, "clear", "nearest to it is"),
        ):
            with self.subTest(measured):
                found = reckon(
                    "bolt-room", {"thread": "M8", "measured": measured, "new": new}
                )
                self.assertIn(says, found["mismatch"])
        for measured in (6.7, 7.88, 9.0):
            right = reckon("bolt-room", {"thread": "M8", "measured": measured})
            self.assertEqual(right["mismatch"], "")

    def test_a_hole_tells_its_screw_whichever_half_the_thread_is_in(self):
        for inch in (False, True):
            for screw in cap_screws().values():
                if screw.size.startswith("M") == inch:
                    continue
                for size, tapped in (
                    (screw.close, False),
                    (screw.normal, False),
                    (screw.diameter - 0.12, True),
                ):
                    with self.subTest(screw.size, size=size):
                        self.assertEqual(screw_by(size, tapped, inch), screw.size)
        self.assertEqual(screw_by(6.8), "M6")
        self.assertEqual(screw_by(6.8, tapped=True), "M8")
        self.assertEqual(screw_by(6.7, inch=True), "1/4-20 UNC")
        self.assertEqual(screw_by(200.0), "")

    def test_printed_clearance_holes(self):
        """ISO 273, medium series."""
        for size, hole in (("M5", 5.5), ("M6", 6.6), ("M8", 9), ("M12", 13.5)):
            self.assertEqual(
                reckon("clearance-hole", {"thread": size})["diameter"], hole
            )


class BoltCircles(unittest.TestCase):
    def test_span_gives_back_the_circle(self):
        """The span over two neighbours is the chord and one hole."""
        for holes in (3, 4, 6):
            points = hole_points(holes, 110)
            span = math.dist(points[0], points[1]) + 7.9
            self.assertAlmostEqual(circle_from_span(span, 7.9, holes), 110, places=9)

    def test_first_hole_at_twelve_and_clockwise(self):
        answer = reckon(
            "bolt-circle",
            {"holes": 4, "diameter": 100, "from": "12-oclock", "clockwise": True},
        )
        for point, wanted in zip(
            answer["points"], ((0, 50), (50, 0), (0, -50), (-50, 0)), strict=True
        ):
            self.assertAlmostEqual(point[0], wanted[0], places=9)
            self.assertAlmostEqual(point[1], wanted[1], places=9)
        self.assertAlmostEqual(answer["chord"], 100 * math.sin(math.pi / 4))

    def test_a_span_within_one_hole_is_refused(self):
        with self.assertRaisesRegex(BadInput, "more than one hole"):
            circle_from_span(7, 7.9, 3)
