"""Exercises at the simulated lathe: what they hide, how they end, what is learned."""

import random
import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.practice.debrief import debrief
from machinon.core.practice.judged import begin_judged, by_the_tips
from machinon.core.practice.lathe import Habits, PracticeLathe
from machinon.core.practice.levels import LEVELS, own_settings
from machinon.core.practice.playing import by_care, by_haste, by_the_coach
from machinon.core.practice.sneak_up import WORDS, begin

RIGID = Habits(0.0, 0.0, 0.004, 0.0, 0.0, 0.7, 0.0, 0.0, 0.0, slips=0.0)


def lathe(**habits):
    return PracticeLathe("external", 50.0, replace(RIGID, **habits), random.Random(1))


class BadLathes(unittest.TestCase):
    def test_winding_back_by_less_than_the_play_leaves_the_tool_where_it_was(self):
        """0.3 of play: from 1.0 back to 0.8 the slide stays at 1.0, back to 0.5 it
        stands at 0.8."""
        machine = lathe(backlash=0.3)
        for dial, slide in ((1.0, 1.0), (0.8, 1.0), (0.5, 0.8), (0.7, 0.8), (0.9, 0.9)):
            machine.wind_to(dial)
            self.assertAlmostEqual(machine.slide, slide)

    def test_a_cut_warms_the_work_and_waiting_cools_it(self):
        """A millimetre deep at 0.02 mm for each is 0.02; three minutes at a half each
        leave an eighth of it."""
        machine = lathe(heats=0.02, cools=0.5)
        machine.cut_to(1.0)
        self.assertAlmostEqual(machine.read(), 48.02)
        machine.wait(3)
        self.assertAlmostEqual(machine.read(), 48.0025, delta=0.0006)

    def test_a_dull_edge_falls_behind_pass_by_pass(self):
        machine = lathe(wears=0.01)
        for dial in (0.5, 1.0, 1.5):
            machine.cut_to(dial)
        self.assertAlmostEqual(machine.cut, 1.5 - 0.02, msg="the third stood 0.02 back")

    def test_what_is_heard_tells_air_rubbing_a_chip_and_chatter(self):
        heard = []
        for share, dial in ((1.0, 0.0), (1.0, 0.002), (1.0, 0.3), (0.5, 0.3)):
            machine = lathe(compliance=1 / share - 1)
            machine.cut_to(dial)
            heard.append(machine.says.split(",")[0].split(":")[0])
        self.assertEqual(heard, ["No chip", "It only rubs", "A good chip",
                                 "It chatters"])  # fmt: skip


class SneakingUp(unittest.TestCase):
    def test_a_seed_repeats_the_lathe_and_another_does_not(self):
        for kind in WORDS:
            sneak_up, again = (begin(kind, "usual", 3) for _ in range(2))
            self.assertEqual(sneak_up.lathe.habits, again.lathe.habits)
            self.assertEqual([sneak_up.read() for _ in range(3)],
                             [again.read() for _ in range(3)])  # fmt: skip
            self.assertNotEqual(
                sneak_up.lathe.habits, begin(kind, "usual", 4).lathe.habits
            )

    def test_every_exercise_can_be_cut_and_no_line_is_wider_than_the_band(self):
        for kind in WORDS:
            for level in LEVELS:
                sneak_up = begin(kind, level, 5)
                plan, (low, high) = sneak_up.plan, sneak_up.band
                self.assertEqual(plan.advice.action, "start")
                travel = plan.dial.travel * 2
                self.assertLessEqual(travel, 0.81 * (high - low) + 1e-3, (kind, level))
                start, outside = sneak_up.lathe.start, sneak_up.lathe.kind == "external"
                self.assertTrue(start > high if outside else start < low)

    def test_the_worse_the_lathe_the_more_the_coach_is_worth(self):
        """8 of each kind by three hands."""
        for level, coach_lands in (("calm", 30), ("worn", 20)):
            landed = {
                hand: sum(hand(begin(kind, level, seed)).inside
                          for kind in WORDS for seed in range(8))
                for hand in (by_the_coach, by_care, by_haste)
            }  # fmt: skip
            self.assertGreaterEqual(landed[by_the_coach], coach_lands)
            self.assertGreaterEqual(landed[by_the_coach], landed[by_care])
            self.assertGreater(landed[by_care], landed[by_haste])

    def test_the_mate_goes_on_by_the_true_size(self):
        sneak_up = begin("shaft", "calm", 1)
        low, high = sneak_up.band
        sneak_up.lathe.habits = replace(sneak_up.lathe.habits, compliance=0.0)
        for size, goes in ((high + 0.01, "tight"), ((low + high) / 2, "goes on"),
                           (low - 0.01, "loose")):  # fmt: skip
            sneak_up.lathe.cut = (sneak_up.lathe.start - size) / 2
            self.assertEqual(sneak_up.mate_goes, goes)

    def test_habits_that_one_sets_are_taken_or_refused(self):
        """All habits at nothing but a share of 0.9: a pass of 1.0 takes 0.9."""
        still = dict.fromkeys(("push_off", "touch", "seating", "wear", "warm"), 0.0)
        own = own_settings({**still, "takes": 0.9})
        sneak_up = begin("shaft", "own", 1, own)
        sneak_up.obey(0.4, False)
        self.assertAlmostEqual(sneak_up.lathe.cut, 0.36)
        for key, value in (("takes", 0.1), ("slips", float("nan")), ("luck", 1.0)):
            with self.assertRaises(BadInput) as caught:
                own_settings({key: value})
            self.assertEqual(caught.exception.key, key)


class LookingBack(unittest.TestCase):
    def test_true_sizes_stand_beside_the_read_ones_and_the_coachs_word(self):
        sneak_up = begin("bore", "usual", 2)
        outcome = by_care(sneak_up)
        told = debrief(sneak_up)
        self.assertEqual(told.outcome, outcome)
        for step in told.steps[1:]:
            self.assertIsNotNone(step.coach)
            if step.done.read is not None:
                self.assertLess(abs(step.done.read - step.done.true), 0.4)
        self.assertEqual(told.steps[-1].done.true, told.true)
        self.assertTrue(told.coach.inside, "the coach, on the same lathe")
        self.assertIn("stops", told.says)

    def test_one_lesson_for_each_way_to_go_wrong(self):
        hasty = begin("shaft", "usual", 1)
        by_haste(hasty)
        self.assertIn("last pass went in", debrief(hasty).lesson)
        idle = begin("shaft", "usual", 1)
        idle.read()
        self.assertIn("Nothing was cut", debrief(idle).lesson)
        slipped = begin("shaft", "own", 2, own_settings({"slips": 30.0}))
        slipped.read()
        slipped.obey(0.1, False)
        while abs(slipped.read() - slipped.lathe.true) < 0.02:
            pass
        self.assertIn("slip", debrief(slipped).lesson)
        done = begin("shaft", "calm", 1)
        by_the_coach(done)
        self.assertIn("In the band", debrief(done).lesson)


class ByFeel(unittest.TestCase):
    def test_a_thread_is_cut_to_its_nut_by_the_tips(self):
        for seed in range(12):
            exercise = begin_judged("thread", "usual", seed)
            while not exercise.over and exercise.stops < 60:
                left = 1.2268 - exercise.said
                tight = "tight" in exercise.seen().large
                exercise.do({"infeed": 0.025 if tight or left < 0.1 else 0.3 * left})
            told = exercise.ended()
            self.assertTrue(told.inside, (seed, told))
        exercise = begin_judged("thread", "usual", 3)
        while not exercise.over:
            exercise.do({"infeed": 0.5})
        self.assertTrue(exercise.ended().past, "half a millimetre at a time")

    def test_a_taper_is_turned_by_the_length_of_its_blue(self):
        """1.5 minutes are blue all along: a fifth blue is 7.5 minutes off."""
        for seed in range(12):
            exercise = begin_judged("taper", "usual", seed)
            while not exercise.over:
                off = 1.5 / exercise.rubbed
                small = "small end" in exercise.seen().large
                exercise.do({"turn": -off if small else off})
            self.assertTrue(exercise.ended().inside, seed)
        blind = begin_judged("taper", "usual", 1)
        while not blind.over:
            blind.do({"turn": 0.0})
        self.assertIn("too far", blind.ended().lesson)

    def test_a_rough_casting_is_centred_by_half_the_difference(self):
        for level in LEVELS:
            exercise = begin_judged("centring", level, 4)
            for _ in range(12):
                if exercise.over:
                    break
                a, b, c, d = exercise.readings
                exercise.do({"one": (a - c) / 2, "two": (b - d) / 2})
            self.assertTrue(exercise.ended().inside, level)

    def test_following_the_tips_ends_well_on_nearly_every_machine(self):
        for kind in ("thread", "taper", "centring"):
            for level in LEVELS:
                ends = [by_the_tips(kind, level, seed).inside for seed in range(20)]
                self.assertGreaterEqual(sum(ends), 17, (kind, level))

    def test_what_is_not_possible_is_refused_and_costs_nothing(self):
        exercise = begin_judged("taper", "usual", 1)
        with self.assertRaises(BadInput) as caught:
            exercise.do({"turn": 900.0})
        self.assertEqual((caught.exception.key, exercise.stops), ("turn", 0))


if __name__ == "__main__":
    unittest.main()
