import math
import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import (
    ANGLE,
    COUNT,
    FEED,
    FORCE,
    LENGTH,
    PERCENT,
    SURFACE_SPEED,
    TEMPERATURE,
    TORQUE,
    angle_text,
    checked,
    length_text,
    list_parts,
    parse,
    plain,
    small_range,
    small_text,
    text_of,
)
from machinon.core.shop.things import Instrument
from tests.trials import SEED, TIMES


class TypedLengths(unittest.TestCase):
    def test_sizes_as_the_trade_types_them(self):
        for text, mm in (
            ("54", 54),
            ("54mm", 54),
            ("1 3/8in", 34.925),
            ('13/64"', 13 * 25.4 / 64),
            ('.0015"', 0.0381),
            ("50 thou", 1.27),
            ("2 tenths", 0.00508),
            ("5um", 0.005),
            ("28+6.35/2", 31.175),
            ("2.5in-6.5mm", 57),
            ("(1in + 3)/2", 14.2),
            ("3 × 12.5", 37.5),
            ("1in - 3/8", 15.875),
            ("13/32", 13 * 25.4 / 32),
            ("1 3/8", 34.925),
            ("1/2+3/8", 22.225),
            ("98.4/2-12", 37.2),
            ("10/4in", 63.5),
            ("1in/1/2", 12.7),
            ("−0.02", -0.02),
            ("100 sin 30", 50),
            ("2*(1in sin(30deg))", 25.4),
            ("10/cos 60", 20),
            ("12.5 tan(45d)", 12.5),
            ("3 sqrt 16", 12),
            ("50 pi", 157.0796326795),
        ):
            with self.subTest(text):
                self.assertAlmostEqual(parse(text), mm, places=9)

    def test_a_ratio_gives_its_angle_back_and_no_length(self):
        """A rise of 1 in 20 leans by 2.8624°."""
        self.assertAlmostEqual(parse("atan(1/20)", ANGLE), 2.862405226)
        self.assertAlmostEqual(parse("2*asin 0.5", ANGLE), 60)
        for text, kind in (
            ("atan 0.05", LENGTH),
            ("asin 2", ANGLE),
            ("sqrt -4", LENGTH),
        ):
            with self.assertRaisesRegex(BadInput, "gives an angle|There is no"):
                parse(text, kind)

    def test_a_bare_number_is_inches_in_an_inch_shop_and_units_still_rule(self):
        self.assertAlmostEqual(parse("1.5", inch=True), 38.1)
        self.assertAlmostEqual(parse("38.1mm", inch=True), 38.1)
        self.assertAlmostEqual(parse("1 3/8", inch=True), 34.925)

    def test_an_inch_shop_says_feeds_in_a_turn_and_speeds_in_feet(self):
        """80 taken for metres would turn it three times too fast."""
        self.assertAlmostEqual(parse("0.004", FEED, inch=True), 0.1016)
        self.assertAlmostEqual(parse("80", SURFACE_SPEED, inch=True), 24.384)
        self.assertEqual(parse("80m/min", SURFACE_SPEED, inch=True), 80)
        self.assertEqual(parse("80", SURFACE_SPEED), 80)
        self.assertEqual(text_of(24.384, SURFACE_SPEED, inch=True), "80 ft/min")
        self.assertEqual(text_of(0.1016, FEED, inch=True), "0.0040 in/rev")

    def test_what_is_allowed_is_said_in_the_unit_that_is_typed(self):
        for typed, kind, high, says in (
            ("60", LENGTH, 508, "60 in is outside what is allowed: up to 20 in."),
            ("2", FEED, 25.4, "2 in/rev is outside what is allowed: up to 1 in/rev."),
            ("90", ANGLE, 60, "90 deg is outside what is allowed: up to 60 deg."),
        ):
            with self.assertRaises(BadInput) as refusal:
                parse(typed, kind, inch=True, high=high)
            self.assertEqual(refusal.exception.message, says)
        gauge = Instrument("g", "Micrometer", 0.00254, 0.005, 0.001, (), inch=True)
        self.assertEqual(gauge.says(25.4), "1.0000 in")

    def test_an_inch_written_in_either_unit_is_the_same_size(self):
        for thou in (1, 15, 375, 1000, 2362):
            with self.subTest(thou):
                self.assertAlmostEqual(
                    parse(f"{thou} thou"), parse(f"{thou * 0.0254:.6f}"), places=9
                )

    def test_heat_force_and_torque_in_the_units_of_any_shop(self):
        """68 °F is 20 °C; 18 lbf·ft are 24.4 N·m, as 216 lbf·in and 2.49 kgf·m are."""
        for text in ("20", "20 °C", "68F", "68 °f"):
            self.assertAlmostEqual(parse(text, TEMPERATURE), 20)
        for text in ("18 ft lb", "18 lbf·ft", "216 in-lbs", "24.405 N·m", "2.4886 kgm"):
            self.assertAlmostEqual(parse(text, TORQUE), 24.405, places=2)
        for text in ("10kg", "10 kgf", "22.046 lb", "22.046lbf", "98.067 N"):
            self.assertAlmostEqual(parse(text, FORCE), 98.067, places=2)
        with self.assertRaises(BadInput):
            parse("20 foot", TORQUE)

    def test_angles_by_degrees_minutes_and_seconds(self):
        self.assertAlmostEqual(parse("5d42m38s", ANGLE), 5 + 42 / 60 + 38 / 3600)
        self.assertAlmostEqual(parse("12.5deg", ANGLE), 12.5)
        self.assertAlmostEqual(parse("30'", ANGLE), 0.5)

    def test_an_angle_s_parts_get_finer_and_belong_together(self):
        for text in ("5d4d3d", "30m5d", "90/2d30m", "5d4"):
            with self.subTest(text), self.assertRaises(BadInput):
                parse(text, ANGLE)
        self.assertEqual(parse("90/2d", ANGLE), 45)

    def test_a_decimal_comma_is_read_where_something_else_parts_the_list(self):
        for typed, parts in (
            ("0,005 0 -0,005 0", ["0.005", "0", "-0.005", "0"]),
            ("46,01; 46,02", ["46.01", "46.02"]),
            ("46,01, 46,02", ["46.01", "46.02"]),
            ("46.01,46.02", ["46.01", "46.02"]),
            ("1 3/8, 1 1/2", ["1 3/8", "1 1/2"]),
        ):
            with self.subTest(typed):
                self.assertEqual(list_parts(typed), parts)

    def test_rubbish_is_refused_with_what_is_allowed(self):
        for text in (
            "",
            "   ",
            "abc",
            "1..2",
            "3 4",
            "5/0",
            "1 3/0in",
            "2in*3in",
            "(3+4",
            "12,5",
            "1-3/8",
            "5 furlongs",
            "nan",
            "inf",
            "1e400",
            "9" * 400,
            "(" * 5000,
            "3mm in",
            "1/-2in",
            "1/(2in+3in)",
            "10/(2in+1mm)",
            "(1-1/2in)",
            "1/2 3/4",
            "28+1/2",
            "1/3",
        ):
            with self.subTest(text[:20]), self.assertRaises(BadInput) as refused:
                parse(text, key="size")
            self.assertEqual(refused.exception.key, "size")
            self.assertRegex(refused.exception.message, "Type|type")

    def test_whatever_is_typed_is_read_or_refused(self):
        """Two thousand entries of the trade's own signs, thrown together."""
        rng = random.Random(SEED)
        signs = [
            *"0123456789./-+*() \"'",
            "in",
            "mm",
            " thou",
            "1/2",
            "1 3/8",
            "5d",
            "m",
        ]
        for _ in range(2000 * TIMES):
            text = "".join(rng.choice(signs) for _ in range(rng.randint(1, 9)))
            for kind in (LENGTH, ANGLE):
                try:
                    value = parse(text, kind, inch=rng.random() < 0.3)
                except BadInput as error:
                    self.assertTrue(error.message)
                else:
                    self.assertTrue(math.isfinite(value), text)

    def test_what_no_shop_can_tell_from_nothing_is_nothing_where_that_is_allowed(self):
        for tiny in (1.8e-18, -6e-17, 5e-10):
            self.assertEqual(checked(tiny, LENGTH), 0)
            self.assertEqual(checked(tiny, LENGTH, low=0), 0)
            with self.assertRaisesRegex(BadInput, "smaller than a shop can tell"):
                checked(tiny, LENGTH, above=0)

    def test_the_limit_that_a_message_names_is_itself_accepted(self):
        with self.assertRaisesRegex(BadInput, "from 3 and up to 100 mm"):
            parse("2.999", low=3, high=100)
        self.assertEqual(parse("3", low=3, high=100), 3)
        self.assertEqual(parse("100", low=3, high=100), 100)

    def test_a_count_is_whole_and_a_percentage_is_percent(self):
        self.assertEqual(parse("7", COUNT), 7)
        self.assertEqual(parse("75%", PERCENT), 75)
        with self.assertRaisesRegex(BadInput, "whole"):
            parse("2.5", COUNT)


class Shown(unittest.TestCase):
    def test_no_more_digits_than_the_step_supports(self):
        self.assertEqual(length_text(12.70049, 0.01), "12.70 mm")
        self.assertEqual(length_text(12.7, 0.001, inch=True), "0.5000 in")
        self.assertEqual(length_text(12.7, 1), "13 mm")

    def test_what_is_shown_can_be_typed_again(self):
        for value in (0.004, 0.5, 46.009, 95.02, 110.0, -3.25):
            for inch in (False, True):
                with self.subTest(value=value, inch=inch):
                    shown = length_text(value, 0.001, inch)
                    step = 0.0001 * 25.4 if inch else 0.001
                    self.assertAlmostEqual(parse(shown), value, delta=step / 2 + 1e-9)

    def test_small_differences_have_their_own_words(self):
        self.assertEqual(small_text(0.012), "12 µm")
        self.assertEqual(small_text(0.0055, signed=True), "+5.5 µm")
        self.assertEqual(small_text(-0.0127, inch=True), "−0.5 thou")
        self.assertEqual(small_range(0.012, 0.034), "12 to 34 µm")

    def test_there_is_no_minus_zero(self):
        self.assertEqual(plain(-0.0001, 2), "0.00")
        self.assertEqual(angle_text(-math.pi, 2), "−3.14°")

    def test_lengths_are_capped_where_no_shop_reaches(self):
        with self.assertRaisesRegex(BadInput, "no size a shop can hold"):
            parse("2000000", LENGTH)
