import unittest

from machinon.core.families import families, family_of
from machinon.core.piece.family import at_least
from machinon.core.piece.made import make
from machinon.core.piece.relations import Expression
from machinon.core.piece.round_sizes import (
    example_in_inches,
    inch_screw,
    round_inches,
)
from machinon.core.quantity import INCH
from machinon.core.route.steps import route_in_inches, route_told
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import cap_screws

COARSE = ("M3", "M4", "M5", "M6", "M8", "M10", "M12", "M16", "M20", "M24")


def in_inches(key, **given):
    """A family's piece round in inches: lengths in inches, words as they are."""
    typed = {name.replace("__", "."): text for name, text in given.items()}
    made = make(family_of(key), typed, inch=True, round_inch=True)
    return {
        name: round(value / INCH, 6) if isinstance(value, float) else value
        for name, value in made.values.items()
    }


class RoundInInches(unittest.TestCase):
    def test_four_decimals_of_an_inch_fail_no_check(self):
        """2.3622 in are 59.99988 mm, meant as 60; 59.99 are too short."""
        for have, passed in ((2.3622 * 25.4, True), (59.99, False)):
            self.assertEqual(at_least("k", "p", have, 60, "Long").passed, passed)

    def test_a_screw_with_a_hexagon_for_a_half_inch_nut(self):
        """Across one and a half times it, 3/4; the head 0.4 of that, 0.3, up to 5/16;
        over the corners 0.866, a bar of 1 in."""
        sizes = in_inches("hexagon-screw", nut__thread="1/2-13", hole__diameter=".501")
        self.assertEqual(sizes["head.across"], 0.75)
        self.assertEqual(sizes["head.length"], 0.3125)
        self.assertEqual(sizes["stock.diameter"], 1.0)
        self.assertEqual(sizes["thread.thread"], "1/2-13 UNC")

    def test_a_plate_block_starts_from_inches_and_takes_inch_screws(self):
        """5/16 clears by 11/32, sinks in 17/32."""
        sizes = in_inches("plate-block")
        self.assertEqual(
            [sizes[f"block.{side}"] for side in ("length", "width", "height")],
            [4.0, 2.375, 1.125],
        )
        self.assertEqual(sizes["holes1.screw"], "5/16-18 UNC")
        made = make(family_of("plate-block"), {}, round_inch=True)
        said = [
            (step.title, step.tool)
            for up in route_in_inches(route_told(made))
            for step in up.steps
        ]
        self.assertIn(("Drill 4 holes 11/32 in, holes 1", "drill 11/32 in"), said)
        self.assertIn("counterbore 17/32 in", [tool for _, tool in said])

    def test_what_a_mate_says_stays(self):
        """The wheel's M6 screws, not the hub's own set screw; the hub as long as the
        old one; a 1/4 key in a 1 in shaft, by the inch table."""
        sizes = in_inches(
            "hub-adapter",
            shaft__diameter="1",
            wheel__screw="M6",
            like__hub_length="1.003",
        )
        self.assertEqual(sizes["bolts.screw"], "M6")
        self.assertEqual(sizes["grub.thread"], "1/4-20 UNC")
        self.assertAlmostEqual(sizes["hub.length"], 1.003, 2)
        self.assertEqual(sizes["key.width"], 0.25)

    def test_a_nut_s_tongue_keeps_a_wall_beside_an_inch_thread(self):
        """By the standard of inch slots a 9/16 slot takes a 3/8 nut, 13/16 a 5/8 one;
        by that of metric ones 14 takes M12."""
        for slot, stud in (("9/16", "3/8-16 UNC"), ("13/16", "5/8-11 UNC")):
            sizes = in_inches("t-nut-strip", slot__neck=slot)
            self.assertEqual(sizes["thread.thread"], stud)
        metric = make(family_of("t-nut-strip"), {"slot.neck": "14"})
        self.assertEqual(metric.values["thread.thread"], "M12")

    def test_an_example_is_one_of_an_inch_shop(self):
        for metric, inch in (
            ("for an M6 stud, about 25 across, pitch 1",
             "for a 1/4-20 stud, about 1 across, pitch 1"),
            ("on a Morse 3 shank for a saw of 22 mm bore and 3 mm width",
             "on a Morse 3 shank for a saw of 7/8 in bore and 1/8 in width"),
            ("of 15° on 80 × 24, for work 40 wide",
             "of 15° on 3 1/4 × 1, for work 1 5/8 wide"),
            ("a gap of 45.03 mm on a nose M45 × 4.5, to 25 Nm",
             "a gap of 1.773 in on a nose M45 × 4.5, to 25 Nm"),
        ):  # fmt: skip
            self.assertEqual(example_in_inches(metric), inch)
        for family in families().values():
            said = example_in_inches(family.example)
            self.assertNotRegex(said, r" mm|M\d+\b(?! ×)", family.key)

    def test_what_is_typed_is_not_rounded(self):
        sizes = in_inches("plate-block", block__length="3.97", block__width="= 51mm")
        self.assertEqual(sizes["block.length"], 3.97)
        self.assertAlmostEqual(sizes["block.width"], 51 / INCH, 5)

    def test_a_rule_that_rounds_rounds_up_in_either_system(self):
        rule = Expression("up(bar + 4, 1)")
        self.assertEqual(rule.value({"bar": 16.2}), 21)
        self.assertAlmostEqual(rule.value({"bar": 16.2}, inch=True), 13 / 16 * INCH)

    def test_a_round_size_stays_in_its_range(self):
        """5 mm is nearest to 3/16, 4.76: where at least 5 are wanted it is 7/32."""
        self.assertAlmostEqual(round_inches(5, 0, 50), 3 / 16 * INCH)
        self.assertAlmostEqual(round_inches(5, 5, 50), 7 / 32 * INCH)

    def test_an_inch_screw_does_the_work_of_its_metric_one(self):
        """As thick to a fifth, and sold as a cap screw."""
        for metric in COARSE:
            with self.subTest(metric):
                inch = inch_screw(metric)
                ratio = thread_of(inch).major / thread_of(metric).major
                self.assertLess(abs(ratio - 1), 0.2)
                self.assertIn(inch, cap_screws())
        self.assertEqual(inch_screw("M12 × 1"), "M12 × 1")
        self.assertEqual(inch_screw("none"), "none")
