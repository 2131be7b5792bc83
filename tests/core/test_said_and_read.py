"""How sizes are said, and what is read from how people type them."""

import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import (
    ANGLE,
    COUNT,
    DURATION,
    FACTOR,
    FORCE,
    INCH,
    LENGTH,
    MASS,
    NUMBER,
    PERCENT,
    ROTATION,
    STRESS,
    TEMPERATURE,
    TORQUE,
    angle_text,
    both_text,
    decimals,
    in_both_texts,
    length_text,
    other_text,
    parse,
    plain,
    rough_text,
    small_range,
    small_text,
    text_of,
    typed_again,
)
from machinon.core.shop.things import Surface
from machinon.core.survey.as_typed import read_place, read_typed
from tests.core.survey.test_surfaces import surface


class Said(unittest.TestCase):
    def test_a_length_has_the_digits_its_gauge_shows(self):
        for value, step, inch, text in (
            (45.9934, 0.001, False, "45.993 mm"),
            (45.9934, 0.01, False, "45.99 mm"),
            (45.9934, 0.1, False, "46.0 mm"),
            (45.9934, 0.5, False, "46.0 mm"),
            (45.9934, 1, False, "46 mm"),
            (25.4, 0.001, True, "1.0000 in"),
            (25.4254, 0.00254, True, "1.0010 in"),
        ):
            with self.subTest(value=value, step=step):
                self.assertEqual(length_text(value, step, inch), text)

    def test_decimals_are_those_of_the_step(self):
        for step, places in (
            (1, 0),
            (0.5, 1),
            (0.1, 1),
            (0.05, 2),
            (0.02, 2),
            (0.01, 2),
            (0.005, 3),
            (0.001, 3),
            (0.0005, 4),
        ):
            self.assertEqual(decimals(step), places, step)

    def test_small_differences_are_micrometres_or_thou(self):
        for value, inch, text in (
            (0.0004, False, "0.4 µm"),
            (0.00949, False, "9.5 µm"),
            (0.00996, False, "10 µm"),
            (0.0345, False, "34 µm"),
            (-0.0055, False, "−5.5 µm"),
            (0.0254, True, "1.0 thou"),
            (0.00254, True, "0.1 thou"),
        ):
            with self.subTest(value=value, inch=inch):
                self.assertIn(small_text(value, inch), (text, text.replace("34", "35")))
        self.assertEqual(small_text(0.012, signed=True), "+12 µm")
        self.assertEqual(small_text(0, signed=True), "0.0 µm")
        self.assertEqual(small_range(0.009, 0.025), "9.0 to 25 µm")

    def test_what_nobody_knows_better_is_said_to_three_figures(self):
        for value, kind, text in (
            (17534.2, FORCE, "17.5 kN"),
            (9999, FORCE, "10 kN"),
            (9440, FORCE, "9440 N"),
            (9.27094, FORCE, "9.27 N"),
            (0, FORCE, "0 N"),
            (-0.0123456, FORCE, "−0.0123 N"),
            (233.42, TORQUE, "233 N·m"),
            (193.9, TEMPERATURE, "194 °C"),
            (119.4, DURATION, "119 s"),
            (120, DURATION, "2.0 min"),
            (267.6, DURATION, "4.5 min"),
            (1043.4, DURATION, "17 min"),
            (1.69082, FACTOR, "1.69"),
        ):
            with self.subTest(value=value):
                self.assertEqual(rough_text(value, kind), text)

    def test_the_other_unit_in_small_print(self):
        self.assertEqual(other_text(1000, FORCE), "225 lbf")
        self.assertEqual(other_text(100, TORQUE), "73.8 lbf·ft")
        self.assertEqual(other_text(200, TEMPERATURE), "392 °F")
        self.assertEqual(other_text(2, FACTOR), "")
        self.assertEqual(other_text(400, STRESS), "58000 psi")
        self.assertAlmostEqual(parse("58ksi", STRESS), 399.896, 3)
        self.assertAlmostEqual(parse("5lb", MASS), 2.26796, 5)
        for inch, said in ((False, ("445 N", "100 lbf")), (True, ("100 lbf", "445 N"))):
            self.assertEqual(in_both_texts(444.82, FORCE, inch), said)
        self.assertEqual(both_text(12.7), "12.7 mm  =  0.5 in")

    def test_any_quantity_reads_with_its_unit(self):
        for value, kind, text in (
            (1.4377008, ANGLE, "1.4377°"),
            (45.0, ANGLE, "45°"),
            (7.0, COUNT, "7"),
            (73.9008, PERCENT, "73.9 %"),
            (318.31, ROTATION, "318 rpm"),
            (-0.05, NUMBER, "−0.05"),
        ):
            with self.subTest(value=value):
                self.assertEqual(text_of(value, kind), text)
        self.assertEqual(angle_text(2.87543, 3), "2.875°")
        self.assertEqual(text_of(25.4, LENGTH, True), "1.0000 in")

    def test_no_minus_before_a_nought(self):
        self.assertEqual(plain(-0.0004, 3), "0.000")
        self.assertEqual(plain(-0.0006, 3), "−0.001")


class Typed(unittest.TestCase):
    def test_units_of_either_system_wherever_they_stand(self):
        for typed, inch, size in (
            ("12.7", False, 12.7),
            ("0.5", True, 12.7),
            ("0.5in", False, 12.7),
            ('1/2"', False, 12.7),
            ("12.7mm", True, 12.7),
            ("1 1/2in", False, 38.1),
            ("1/2", False, 12.7),
            ("50thou", False, 1.27),
            ("3 tenths", False, 0.00762),
            ("25um", False, 0.025),
            ("1.5cm", False, 15),
            ("2in + 1mm", False, 51.8),
            ("(98.4 - 12)/2", False, 43.2),
            ("2*3.5mm", True, 7),
        ):
            with self.subTest(typed, inch=inch):
                self.assertAlmostEqual(parse(typed, LENGTH, inch=inch), size)

    def test_angles_in_degrees_and_minutes(self):
        for typed, angle in (
            ("29.5", 29.5),
            ("1d30m", 1.5),
            ("2°", 2),
            ("1°30'", 1.5),
            ("30'", 0.5),
        ):
            with self.subTest(typed):
                self.assertAlmostEqual(parse(typed, ANGLE), angle)

    def test_what_has_two_readings_or_none_is_refused(self):
        for typed in (
            "1/-2in",
            "1/2 3/4",
            "5d4d3d",
            "10mm*2mm",
            "",
            "abc",
            "1..2",
            "2 3",
            "1e400",
            "nan",
            "--",
            "(2",
            "2)",
            "1/0",
        ):
            with self.subTest(typed), self.assertRaises(BadInput):
                parse(typed, LENGTH)

    def test_the_ends_of_a_range_are_in_it(self):
        self.assertEqual(parse("5", LENGTH, low=5, high=10), 5)
        self.assertEqual(parse("10", LENGTH, low=5, high=10), 10)
        for typed, says in (("4.999", "5"), ("10.001", "10")):
            with self.assertRaisesRegex(BadInput, says):
                parse(typed, LENGTH, key="width", low=5, high=10)
        with self.assertRaisesRegex(BadInput, "above 0"):
            parse("0", LENGTH, above=0)

    def test_a_count_is_whole(self):
        self.assertEqual(parse("7", COUNT), 7)
        with self.assertRaisesRegex(BadInput, "not a whole number"):
            parse("7.5", COUNT)

    def test_what_is_typed_again_is_the_same_number(self):
        chance = random.Random(4)
        for _ in range(300):
            value = round(10 ** chance.uniform(-5, 4), 6)
            text = typed_again(value)
            with self.subTest(text):
                self.assertNotIn("e", text)
                self.assertEqual(float(text), value)


class Readings(unittest.TestCase):
    def test_a_pitch_is_typed_as_threads_to_the_inch_or_as_a_length(self):
        pitch = Surface("thread-pitch", "Thread pitch", "pitch", "")
        for typed, size in (
            ("8tpi", INCH / 8),
            ("11.5 TPI", INCH / 11.5),
            ("1.75", 1.75),
            ("0.1in", 2.54),
        ):
            self.assertAlmostEqual(read_typed(typed, pitch, False), size)
        for typed in ("-8tpi", "0tpi", "nantpi", "inftpi", "1e-9tpi", "tpi", "26", "0"):
            with self.subTest(typed), self.assertRaises(BadInput) as refusal:
                read_typed(typed, pitch, False)
            self.assertEqual(refusal.exception.key, "reading")

    def test_a_run_out_may_be_nothing_and_a_diameter_not(self):
        needle = Surface("runout", "Run-out", "runout", "")
        shaft = Surface("shaft", "Shaft", "outside", "")
        self.assertEqual(read_typed("0", needle, False), 0)
        for typed, read in (
            ("0", shaft),
            ("21", needle),
            ("2001", shaft),
            ("-1", shaft),
        ):
            with self.subTest(typed), self.assertRaises(BadInput):
                read_typed(typed, read, False)
        self.assertAlmostEqual(read_typed("1.001", shaft, True), 1.001 * INCH)

    def test_a_place_is_a_distance_along_a_taper_and_a_word_elsewhere(self):
        slope = surface("taper-out")
        for text, inch, place in (
            ("30", False, "30 mm"),
            ("1.5in", False, "38.1 mm"),
            ("0", False, "0 mm"),
            ("1.5", True, "38.1 mm"),
        ):
            self.assertEqual(read_place(text, slope, inch), place)
        for text in ("", "front", "-3"):
            with self.subTest(text), self.assertRaises(BadInput):
                read_place(text, slope, False)
        bore = surface("bore")
        self.assertEqual(read_place("Front 90deg", bore, False), "front 90°")
        self.assertEqual(read_place(" ", bore, False), "")
