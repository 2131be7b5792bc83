"""The practice lathe, and how the coach fares on it."""

import random
import unittest

from machinon.core.practice.hands import (
    bench,
    by_care,
    by_the_coach,
    by_the_remainder,
)
from machinon.core.practice.lathe import Habits, PracticeLathe

TRUE = Habits(0.0, 0.0, 0.005, 0.0, 0.0, 0.7, 0.0, 0.0, 0.0)


def lathe(kind="external", **habits):
    own = Habits(**{**{n: getattr(TRUE, n) for n in Habits.__slots__}, **habits})
    return PracticeLathe(kind, 50.0, own, random.Random(1))


class Lathes(unittest.TestCase):
    def test_a_rigid_lathe_takes_what_is_dialled(self):
        shaft, bore = lathe(), lathe("internal")
        for machine in (shaft, bore):
            machine.cut_to(0.25)
        self.assertAlmostEqual(shaft.true, 49.5)
        self.assertAlmostEqual(bore.true, 50.5)

    def test_a_springy_bar_leaves_a_part_that_the_next_pass_finds(self):
        """A share of 0.8 of 0.5 is 0.4; the next 0.1 stands 0.2 before it: 0.16."""
        machine = lathe(compliance=0.25)
        machine.cut_to(0.5)
        self.assertAlmostEqual(machine.cut, 0.4)
        machine.cut_to(0.6)
        self.assertAlmostEqual(machine.cut, 0.56)
        machine.spring()
        self.assertAlmostEqual(machine.cut, 0.56 + 0.7 * 0.8 * 0.04)

    def test_a_slight_cut_rubs_and_takes_less_than_half_a_share(self):
        machine = lathe(rubs=0.01)
        machine.cut_to(0.004)
        self.assertLess(machine.cut, 0.004)

    def test_the_gauge_has_a_zero_and_the_work_is_warm(self):
        self.assertAlmostEqual(lathe(zero=0.004, warm=0.002).read(), 50.006)


class Runs(unittest.TestCase):
    def test_a_seed_is_always_the_same_job(self):
        self.assertEqual(by_the_coach(bench(7)), by_the_coach(bench(7)))

    def test_the_coach_lands_more_often_than_a_careful_hand_and_scraps_less(self):
        """120 jobs each; chances told at the end are true to a few in a hundred."""
        found = {
            hand: [hand(bench(seed)) for seed in range(120)]
            for hand in (by_the_coach, by_care, by_the_remainder)
        }
        inside = {
            hand: sum(outcome.inside for outcome in all) for hand, all in found.items()
        }
        past = {
            hand: sum(outcome.past for outcome in all) for hand, all in found.items()
        }
        self.assertGreater(inside[by_the_coach], inside[by_care] + 10)
        self.assertGreater(inside[by_care], inside[by_the_remainder])
        self.assertLess(past[by_the_coach], past[by_care])
        told = [outcome for outcome in found[by_the_coach] if outcome.said is not None]
        said = sum(outcome.said for outcome in told) / len(told)
        are = sum(outcome.inside for outcome in told) / len(told)
        self.assertAlmostEqual(said, are, delta=0.05)
