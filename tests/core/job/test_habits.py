"""What a lathe is used to take, from the cuts that were kept."""

import unittest

from msgspec.structs import replace

from machinon.core.cutting.cut_state import CUT_SIGMA, RATIO, CutEntry
from machinon.core.job.habits import habit_of
from machinon.core.job.job import CutLog, Job, Work
from machinon.core.shop.making import Making
from machinon.core.shop.things import Instrument, Shop
from machinon.core.sizes.fit import FitChoice


def cut(share, exists="shaft", lathe="big", cuts=4, joint="shaft"):
    """A job whose tool took such a share of what stood before it, 0.3 deep at first."""
    sign = -1 if exists == "hole" else 1
    taken, entries = 0.0, []
    for i in range(cuts):
        dial = 0.3 + 0.1 * i
        taken += share * (dial - taken)
        entries.append(CutEntry(dial, 30 + sign * 2 * taken))
    fit = FitChoice(1, "a fit", "mate", "surface", exists, joint=joint)
    log = CutLog(start=30.0, touch=0.0, entries=tuple(entries))
    return Job("j", "a job", lathe=lathe, fits=(fit,), cuts={"1": log})


LIKE = Job("new", "a new one", lathe="big")


def made_of(job, metal, family="stud"):
    """The same job, its fit on a piece of a family in a metal."""
    work = Work(making=Making(family, material=metal), fits={"a": 1}, cutting=1)
    return replace(job, works=(work,))


def lying(off, cuts=8):
    """A job whose settings come to lie by so much too deep and too shallow by turns."""
    taken, entries = 0.0, []
    for i in range(cuts):
        dial = 0.1 + 0.05 * i
        taken += 0.95 * (dial + off * (-1) ** i - taken)
        entries.append(CutEntry(dial, round(30 + 2 * taken, 3)))
    return read_with("", replace(cut(0.9).cuts["1"], entries=tuple(entries)))


def read_with(gauge, log):
    """The job of a log that was read with a gauge."""
    return replace(cut(0.9), cuts={"1": replace(log, instrument=gauge)})


class Habits(unittest.TestCase):
    def test_nothing_cut_is_as_usual_anywhere(self):
        self.assertEqual(habit_of([], LIKE, "shafts").share, RATIO)
        self.assertEqual(habit_of([Job("j", "a job")], LIKE, "shafts").count, 0)

    def test_bores_by_a_slim_bar_take_less_and_shafts_are_kept_apart(self):
        jobs = [cut(0.8), cut(0.82), cut(0.8), cut(0.98, "hole")]
        bores = habit_of(jobs, LIKE, "bores")
        self.assertEqual(bores.count, 3)
        self.assertTrue(0.82 < bores.share < 0.91, bores)
        shafts = habit_of(jobs, LIKE, "shafts")
        self.assertEqual(shafts.count, 1)
        self.assertGreater(shafts.share, 0.95)

    def test_the_same_metal_counts_twice(self):
        """Two surfaces as usual, 0.97; one of brass at 0.96 and one of steel at 0.8:
        for steel (2 × 0.97 + 0.96 + 2 × 0.8) / 5, for brass it is the other way."""
        jobs = [made_of(cut(0.96), "brass"), made_of(cut(0.8), "steel")]
        found = {
            metal: habit_of(jobs, made_of(LIKE, metal), "bores").share
            for metal in ("steel", "brass", "bronze")
        }
        self.assertTrue(found["steel"] < found["bronze"] < found["brass"], found)

    def test_the_same_bar_counts_twice(self):
        def by(job, bar):
            return job.with_log(replace(job.log, tool=bar))

        slim = by(replace(cut(0.8), works=(Work(cutting=1),)), "bar 10")
        stout = by(replace(cut(0.96), works=(Work(cutting=1),)), "bar 25")
        found = {
            bar: habit_of([slim, stout], by(replace(LIKE, works=(Work(cutting=1),)),
                                            bar), "bores").share
            for bar in ("bar 10", "bar 25", "")
        }  # fmt: skip
        self.assertTrue(found["bar 10"] < found[""] < found["bar 25"], found)

    def test_lengths_are_learned_within_a_kind_of_piece(self):
        slots = [made_of(cut(0.9, joint="slot"), "steel", "t-nut-strip")]
        for family, count in (("t-nut-strip", 1), ("stud", 0)):
            like = made_of(LIKE, "steel", family)
            self.assertEqual(habit_of(slots, like, "lengths").count, count)
        self.assertEqual(habit_of(slots, LIKE, "bores").count, 0)

    def test_another_lathe_two_cuts_and_a_slot_tell_nothing(self):
        for job in (cut(0.8, lathe="small"), cut(0.8, cuts=2), cut(0.8, joint="slot")):
            self.assertEqual(habit_of([job], LIKE, "bores").count, 0)

    def test_a_tight_slide_is_told_from_a_worn_one(self):
        """By 0.5 µm to either side, or by 4."""
        self.assertEqual(habit_of([], LIKE, "bores").settles, CUT_SIGMA)
        tight, worn = (
            habit_of([lying(off)] * 3, LIKE, "bores").settles for off in (0.0005, 0.004)
        )
        self.assertTrue(0.0009 < tight < 0.0014, tight)
        self.assertTrue(0.0025 < worn < 0.003, worn)

    def test_shafts_and_bores_share_a_slide_that_lengths_do_not(self):
        bores = [lying(0.004)] * 3
        self.assertGreater(habit_of(bores, LIKE, "shafts").settles, 0.0025)
        self.assertEqual(habit_of(bores, LIKE, "lengths").settles, CUT_SIGMA)

    def test_a_coarse_gauge_tells_nothing_of_the_slide(self):
        gauge = Instrument("rule", "Caliper", 0.02, 0.03, 0.01, ("inside",))
        shop = Shop(instruments=(gauge,))
        jobs = [read_with("rule", lying(0.004).cuts["1"])] * 3
        found = habit_of(jobs, LIKE, "bores", shop)
        self.assertEqual((found.count, found.settles), (3, CUT_SIGMA))
