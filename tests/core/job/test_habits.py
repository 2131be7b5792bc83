"""What a lathe is used to take, from the cuts that were kept."""

import unittest

from machinon.core.cutting.cut_state import RATIO, CutEntry
from machinon.core.job.habits import habit_of
from machinon.core.job.job import CutLog, Job
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


class Habits(unittest.TestCase):
    def test_nothing_cut_is_as_usual_anywhere(self):
        self.assertEqual(habit_of([], "big", True).share, RATIO)
        self.assertEqual(habit_of([Job("j", "a job")], "big", True).count, 0)

    def test_bores_by_a_slim_bar_take_less_and_shafts_are_kept_apart(self):
        jobs = [cut(0.8), cut(0.82), cut(0.8), cut(0.98, "hole")]
        bores = habit_of(jobs, "big", False)
        self.assertEqual(bores.count, 3)
        self.assertTrue(0.82 < bores.share < 0.91, bores)
        shafts = habit_of(jobs, "big", True)
        self.assertEqual(shafts.count, 1)
        self.assertGreater(shafts.share, 0.95)

    def test_another_lathe_two_cuts_and_a_slot_tell_nothing(self):
        for job in (cut(0.8, lathe="small"), cut(0.8, cuts=2), cut(0.8, joint="slot")):
            self.assertEqual(habit_of([job], "big", False).count, 0)
