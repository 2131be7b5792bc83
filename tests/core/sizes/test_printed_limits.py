"""Limits of threads as the standards print them, by size from small to large."""

import unittest

from machinon.core.reckoning import reckon

# ASME B1.1, classes 2A and 2B, inches: major and pitch diameter of the screw,
# minor and pitch diameter of the nut, least and most
UNIFIED = {
    "4-40": (0.1061, 0.1112, 0.0925, 0.0950, 0.0849, 0.0939, 0.0958, 0.0991),
    "10-24": (0.1818, 0.1890, 0.1586, 0.1619, 0.145, 0.156, 0.1629, 0.1672),
    "10-32": (0.1831, 0.1891, 0.1658, 0.1688, 0.156, 0.164, 0.1697, 0.1736),
    "5/16-18": (0.3026, 0.3113, 0.2712, 0.2752, 0.252, 0.265, 0.2764, 0.2817),
    "3/8-16": (0.3643, 0.3737, 0.3287, 0.3331, 0.307, 0.321, 0.3344, 0.3401),
    "3/8-24": (0.3667, 0.3739, 0.3430, 0.3468, 0.330, 0.340, 0.3479, 0.3528),
    "1/2-20": (0.4906, 0.4987, 0.4619, 0.4662, 0.446, 0.457, 0.4675, 0.4731),
    "5/8-11": (0.6113, 0.6234, 0.5589, 0.5644, 0.527, 0.546, 0.5660, 0.5732),
    "3/4-10": (0.7353, 0.7482, 0.6773, 0.6832, 0.642, 0.663, 0.6850, 0.6927),
    "3/4-16": (0.7391, 0.7485, 0.7029, 0.7079, 0.682, 0.696, 0.7094, 0.7159),
    "1-8": (0.9830, 0.9980, 0.9100, 0.9168, 0.865, 0.890, 0.9188, 0.9276),
    "1 1/2-6": (1.4794, 1.4976, 1.3812, 1.3893, 1.320, 1.350, 1.3917, 1.4022),
}

# ISO 965-2, 6g and 6H, mm: in the same order
METRIC = {
    "M3": (2.874, 2.980, 2.580, 2.655, 2.459, 2.599, 2.675, 2.775),
    "M4": (3.838, 3.978, 3.433, 3.523, 3.242, 3.422, 3.545, 3.663),
    "M5": (4.826, 4.976, 4.361, 4.456, 4.134, 4.334, 4.480, 4.605),
    "M6": (5.794, 5.974, 5.212, 5.324, 4.917, 5.153, 5.350, 5.500),
    "M8": (7.760, 7.972, 7.042, 7.160, 6.647, 6.912, 7.188, 7.348),
    "M10": (9.732, 9.968, 8.862, 8.994, 8.376, 8.676, 9.026, 9.206),
    "M12": (11.701, 11.966, 10.679, 10.829, 10.106, 10.441, 10.863, 11.063),
    "M16": (15.682, 15.962, 14.503, 14.663, 13.835, 14.210, 14.701, 14.913),
    "M20": (19.623, 19.958, 18.164, 18.334, 17.294, 17.744, 18.376, 18.600),
    "M24": (23.577, 23.952, 21.803, 22.003, 20.752, 21.252, 22.051, 22.316),
    "M30": (29.522, 29.947, 27.462, 27.674, 26.211, 26.771, 27.727, 28.007),
    "M36": (35.465, 35.940, 33.118, 33.342, 31.670, 32.270, 33.402, 33.702),
}
KEYS = (
    "external_major_min",
    "external_major_max",
    "external_pitch_min",
    "external_pitch_max",
    "internal_minor_min",
    "internal_minor_max",
    "internal_pitch_min",
    "internal_pitch_max",
)


class Printed(unittest.TestCase):
    def holds(self, table, unit, within):
        for name, printed in table.items():
            answer = reckon("thread", {"thread": name})
            for key, value in zip(KEYS, printed, strict=True):
                with self.subTest(name, limit=key):
                    coarse = (
                        unit > 1 and round(value, 3) == value
                    )  # printed to the thou
                    room = 0.00051 if coarse and "minor" in key else within
                    self.assertLessEqual(abs(answer[key] / unit - value), room)

    def test_unified_threads(self):
        self.holds(UNIFIED, 25.4, 0.00011)  # as far as editions differ

    def test_metric_threads(self):
        self.holds(METRIC, 1, 0.0006)

    def test_a_screw_always_enters_a_nut_of_its_size(self):
        for name in (*UNIFIED, *METRIC, "M45x4.5", "M20x1.5", "1-12 UNF"):
            answer = reckon("thread", {"thread": name})
            with self.subTest(name):
                self.assertLessEqual(
                    answer["external_pitch_max"], answer["internal_pitch_min"] + 1e-9
                )
                for part in ("external_major", "external_pitch", "internal_pitch"):
                    self.assertLess(answer[f"{part}_min"], answer[f"{part}_max"])


# ISO 286-2, µm: the deviations of zones a small shop meets
ZONES = {
    (6, "H7"): (0, 12),
    (6, "g6"): (-12, -4),
    (6, "m6"): (4, 12),
    (10, "h9"): (-36, 0),
    (16, "H8"): (0, 27),
    (16, "f7"): (-34, -16),
    (20, "JS9"): (-26, 26),
    (20, "N9"): (-52, 0),
    (25, "k6"): (2, 15),
    (25, "P7"): (-35, -14),
    (30, "js6"): (-6.5, 6.5),
    (40, "j6"): (-5, 11),
    (40, "K7"): (-18, 7),
    (40, "M7"): (-25, 0),
    (50, "N7"): (-33, -8),
    (50, "s6"): (43, 59),
    (50, "d9"): (-142, -80),
    (60, "e8"): (-106, -60),
    (60, "J7"): (-12, 18),
    (80, "n6"): (20, 39),
    (80, "G7"): (10, 40),
    (100, "r6"): (51, 73),
    (100, "c11"): (-390, -170),
    (120, "R7"): (-76, -41),
    (150, "H6"): (0, 25),
    (200, "p6"): (50, 79),
    (200, "F8"): (50, 122),
    (300, "h6"): (-32, 0),
    (400, "js7"): (-28, 28),  # 57 wide, rounded down to whole halves
}


class Zones(unittest.TestCase):
    def test_deviations_as_printed(self):
        for (size, zone), (lower, upper) in ZONES.items():
            answer = reckon("iso-limits", {"nominal": size, "zone": zone})
            with self.subTest(size=size, zone=zone):
                found = [
                    round((answer[end] - size) * 1000, 3) for end in ("lower", "upper")
                ]
                self.assertEqual(found, [lower, upper])

    def test_a_hole_of_the_same_letter_mirrors_the_shaft(self):
        """Letters a to h: the hole's nearer limit is the shaft's, turned over."""
        for letter in "cdefgh":
            for size in (4, 12, 45, 130, 350):
                shaft = reckon("iso-limits", {"nominal": size, "zone": f"{letter}8"})
                hole = reckon(
                    "iso-limits", {"nominal": size, "zone": f"{letter.upper()}8"}
                )
                with self.subTest(letter, size=size):
                    self.assertAlmostEqual(hole["lower"] - size, size - shaft["upper"])
                    self.assertAlmostEqual(hole["upper"] - size, size - shaft["lower"])
