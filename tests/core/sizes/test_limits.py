import itertools
import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.sizes.limits import CLEAR, TIGHT, limits_of_size, tolerance_grade
from machinon.core.tables import rows


class PrintedLimits(unittest.TestCase):
    def test_spot_values_of_the_printed_tables(self):
        """Lower and upper deviation in µm as ISO 286-2 prints them."""
        for nominal, zone, lower, upper in (
            (46, "H7", 0, 25),
            (46, "g6", -25, -9),
            (95, "g6", -34, -12),
            (95, "H7", 0, 35),
            (95, "h6", -22, 0),
            (95, "f7", -71, -36),
            (95, "k6", 3, 25),
            (25, "h6", -13, 0),
            (25, "js9", -26, 26),
            (25, "n6", 15, 28),
            (25, "p6", 22, 35),
            (25, "s6", 35, 48),
            (25, "K7", -15, 6),
            (25, "M7", -21, 0),
            (25, "N7", -28, -7),
            (25, "P7", -35, -14),
            (40, "K6", -13, 3),
            (40, "N6", -28, -12),
            (40, "P6", -37, -21),
            (40, "JS7", -12, 12),
            (40, "F8", 25, 64),
            (40, "G7", 9, 34),
            (300, "M6", -41, -9),
            (400, "r6", 114, 150),
            (2, "k6", 0, 6),
            (12, "d9", -93, -50),
            (80, "e8", -106, -60),
            (25, "u6", 48, 61),
            (25, "c11", -240, -110),
            (60, "t6", 66, 85),
            (100, "x7", 178, 213),
            (25, "j6", -4, 9),
            (25, "J7", -9, 12),
            (50, "U7", -86, -61),
        ):
            with self.subTest(f"{nominal} {zone}"):
                found = limits_of_size(nominal, zone)
                self.assertEqual(round(found.lower_deviation * 1000, 1), lower)
                self.assertEqual(round(found.upper_deviation * 1000, 1), upper)

    def test_grades_follow_the_tolerance_unit(self):
        """IT6 to IT16 are 10 to 1000 i, i = 0.45 ∛D + 0.001 D; ISO 286-1."""
        units = (10, 16, 25, 40, 64, 100, 160, 250, 400, 640, 1000)
        factors = dict(enumerate(units, 6))
        for row in rows("iso_tolerance_grades"):
            low, high = float(row["above_mm"]), float(row["to_mm"])
            if low == 0:
                low = 1  # the standard's first step uses its own mean
            mean = math.sqrt(low * high)
            unit = 0.45 * mean ** (1 / 3) + 0.001 * mean
            for grade, factor in factors.items():
                printed = float(row[f"IT{grade}_um"])
                with self.subTest(high=high, grade=grade):
                    # the standard rounds to handy numbers, most below 3 mm
                    self.assertAlmostEqual(
                        printed / (factor * unit), 1, delta=0.16 if high == 3 else 0.12
                    )

    def test_grades_and_deviations_grow_with_size(self):
        sizes = [2, 5, 8, 15, 25, 40, 60, 100, 150, 200, 280, 350, 450]
        for grade in range(1, 19):
            widths = [tolerance_grade(size, grade) for size in sizes]
            self.assertEqual(widths, sorted(widths), f"IT{grade}")
        for letter in (*CLEAR, *TIGHT):
            first = _lines(letter)[0][0] if letter != "h" else 0
            off = [
                abs(
                    limits_of_size(s, f"{letter}6").upper_deviation
                    if letter in CLEAR
                    else limits_of_size(s, f"{letter}6").lower_deviation
                )
                for s in sizes
                if s > first
            ]
            self.assertEqual(off, sorted(off), letter)

    def test_the_tables_reach_to_500_mm_without_a_gap(self):
        starts = {"t": 24, "v": 14, "y": 18}  # the standard leaves the rest empty
        for letter in (*CLEAR[:-1], "j5", "j6", "j7", "J6", "J7", "J8", *TIGHT):
            lines = _lines(letter)
            self.assertEqual(lines[0][0], starts.get(letter, 0), letter)
            self.assertEqual(lines[-1][1], 500, letter)
            for (_, end), (start, _) in itertools.pairwise(lines):
                self.assertEqual(end, start, letter)

    def test_a_hole_from_d_to_h_is_the_shaft_turned_over(self):
        for letter in CLEAR:
            for nominal in (3, 18, 95, 250):
                shaft = limits_of_size(nominal, f"{letter}7")
                hole = limits_of_size(nominal, f"{letter.upper()}7")
                self.assertEqual(hole.lower_deviation, -shaft.upper_deviation)
                self.assertEqual(hole.upper_deviation, -shaft.lower_deviation)

    def test_far_deviations_follow_the_standards_formulas(self):
        """ISO 286-1 Annex: a, b, c by the size; t to z are IT7 + k D."""
        for row in rows("iso_fundamental_deviations"):
            low, high = float(row["above_mm"]), float(row["to_mm"])
            mean = math.sqrt(max(low, 1) * high)
            it7 = tolerance_grade(high, 7) * 1000
            formula = {
                "a": 265 + 1.3 * mean if high <= 120 else 3.5 * mean,
                "b": 140 + 0.85 * mean if high <= 160 else 1.8 * mean,
                "c": 52 * mean**0.2 if high <= 40 else 95 + 0.8 * mean,
                "t": it7 + 0.63 * mean,
                "u": it7 + mean,
                "v": it7 + 1.25 * mean,
                "x": it7 + 1.6 * mean,
                "y": it7 + 2 * mean,
                "z": it7 + 2.5 * mean,
            }.get(row["letter"])
            if formula is not None and high > 10:
                with self.subTest(row["letter"], high=high):
                    printed = abs(float(row["deviation_um"]))
                    # rounded to handy numbers, and freely in the small sizes
                    free = 0.14 if high <= 40 else 0.06
                    self.assertAlmostEqual(printed / formula, 1, delta=free)


def _lines(letter: str) -> list[tuple[float, float]]:
    return [
        (float(r["above_mm"]), float(r["to_mm"]))
        for r in rows("iso_fundamental_deviations")
        if r["letter"] == letter
    ]


class Fits(unittest.TestCase):
    def test_h7_g6_at_46(self):
        """H7 is 46.000 to 46.025, g6 is 45.975 to 45.991: play 9 to 50 µm."""
        answer = reckon("iso-fit", {"nominal": 46, "fit": "H7/g6"})
        self.assertAlmostEqual(answer["clearance_min"], 0.009, places=6)
        self.assertAlmostEqual(answer["clearance_max"], 0.050, places=6)
        self.assertEqual(answer["kind"], "clearance")
        self.assertTrue(answer.sources)

    def test_kinds_of_fit(self):
        for fit, kind in (("H7/k6", "transition"), ("H7/s6", "interference")):
            self.assertEqual(
                reckon("iso-fit", {"nominal": 60, "fit": fit})["kind"], kind
            )

    def test_what_is_not_in_the_tables_is_refused_by_name(self):
        for inputs, key, says in (
            ({"nominal": 501, "zone": "H7"}, "nominal", "500"),
            ({"nominal": 0, "zone": "H7"}, "nominal", "above 0"),
            ({"nominal": float("nan"), "zone": "H7"}, "nominal", "no size"),
            ({"nominal": 20, "zone": "q6"}, "zone", "did you mean|known"),
            ({"nominal": 20, "zone": "H19"}, "zone", "1 to 18"),
            ({"nominal": 20, "zone": "7H"}, "zone", "letter and a grade"),
            ({"nominal": 20}, "zone", "missing"),
            ({"nominal": 20, "zone": "H7", "sise": 3}, "sise", "did you mean|known"),
        ):
            with self.subTest(inputs), self.assertRaisesRegex(BadInput, says) as no:
                reckon("iso-limits", inputs)
            self.assertEqual(no.exception.key, key)
        self.assertTrue(reckon("iso-limits", {"nominal": 500, "zone": "H7"})["upper"])
