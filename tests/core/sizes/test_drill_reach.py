"""How deep drills go: the two standards against each other and their prints."""

import unittest
from itertools import pairwise

from machinon.core.sizes.drill_reach import flutes_of, reach_of
from machinon.core.tables import rows


class DrillFlutes(unittest.TestCase):
    def test_each_range_begins_where_the_last_one_ends_and_is_longer(self):
        ranges = [
            (float(row["over_mm"]), float(row["to_mm"]), float(row["flutes_mm"]))
            for row in rows("drill_flutes")
        ]
        for (_, to, flutes), (over, _, longer) in pairwise(ranges):
            self.assertEqual(to, over)
            self.assertGreater(longer, flutes)

    def test_usual_drills_are_as_long_as_printed(self):
        for drill, flutes in (
            (1, 12), (2, 24), (3, 33), (4.2, 43), (5, 52), (6.8, 69), (8, 75),
            (8.5, 75), (10, 87), (12, 101), (13, 101), (16, 120), (20, 140),
            (25, 160), (40, 200),
        ):  # fmt: skip
            with self.subTest(drill):
                self.assertEqual(flutes_of(drill), flutes)
        self.assertEqual(reach_of(10), 77)
        self.assertEqual(reach_of(80), float("inf"))
