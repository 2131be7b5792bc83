"""Steps moved out of their usual place: refused, spoken against, or free."""

import contextlib
import random
import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.route.order import broken, in_order, keyed, stepped
from machinon.core.route.steps import route_told
from machinon.core.shop.making import Moved, OwnStep


class Order(unittest.TestCase):
    """T-nuts: two rebates, proved; drilled, tapped, countersunk; sawn last."""

    def setUp(self):
        self.made = make(families()["t-nut-strip"], {})
        self.planned = keyed(self.made.holdings)

    def order(self, *moved):
        return [s.key for h in in_order(self.planned, moved) for s in h.steps]

    def says(self, *moved):
        return broken(in_order(self.planned, moved), self.planned)

    def test_a_step_moves_one_place_and_back(self):
        before = self.order()
        once = stepped(self.planned, (), "tap-thread", later=True)
        at = before.index("tap-thread")
        self.assertEqual(self.order(*once).index("tap-thread"), at + 1)
        self.assertEqual(stepped(self.planned, once, "tap-thread", later=False), ())

    def test_from_the_end_of_a_holding_it_goes_into_the_next(self):
        moved = stepped(self.planned, (), "countersink-thread", later=True)
        self.assertEqual(self.order(*moved), self.order())
        holdings = in_order(self.planned, moved)
        self.assertEqual(holdings[2].steps[0].key, "countersink-thread")
        self.assertIn("holding of its drill", self.says(*moved)[0].says)

    def test_however_often_steps_are_moved_each_goes_one_place(self):
        chance = random.Random(3)
        moved = ()
        for _ in range(200):
            before = self.order(*moved)
            key, later = chance.choice(before), chance.random() < 0.5
            with contextlib.suppress(BadInput):
                moved = stepped(self.planned, moved, key, later)
            gone = self.order(*moved)
            at = before.index(key)
            self.assertLessEqual(abs(gone.index(key) - at), 1)
            self.assertEqual(
                [step for step in before if step != key],
                [step for step in gone if step != key],
            )

    def test_a_holding_with_nothing_left_to_cut_hinders_no_move(self):
        """What is there already on an old piece may leave a holding without a step."""
        bare = (*self.planned, replace(self.planned[0], key="bare", steps=()))
        self.assertEqual(broken(bare, bare), [])

    def test_no_tap_goes_in_before_its_drill(self):
        told = self.says(Moved("tap-thread", "drill-thread"))
        self.assertTrue(told[0].never)
        self.assertIn("no hole", told[0].says)

    def test_nothing_is_proved_before_it_is_cut(self):
        told = self.says(Moved("prove-rebate_front", "mill-rebate_front"))
        self.assertTrue(any(rule.never for rule in told))

    def test_what_is_sawn_off_is_hard_to_hold(self):
        told = self.says(Moved("saw-saw_cuts", "countersink-thread"))
        self.assertEqual([rule.never for rule in told], [False])
        self.assertIn("last", told[0].says)

    def test_a_countersink_may_come_before_the_tap(self):
        self.assertEqual(self.says(Moved("countersink-thread", "tap-thread")), [])

    def test_the_film_shows_the_new_order(self):
        moved = (Moved("saw-saw_cuts", "drill-thread"),)
        steps = [s for h in route_told(self.made, moved=moved) for s in h.steps]
        drill = next(step for step in steps if step.operation == "drill")
        self.assertIn("saw_cuts", [feature.name for feature in drill.before.features])

    def test_a_step_of_a_feature_that_is_gone_is_passed_over(self):
        gone = Moved("tap-thread", "ream-elsewhere", later=True)
        self.assertEqual(self.order(gone), self.order())

    def test_what_takes_it_off_the_machine_is_a_holding_and_words_a_step_in_theirs(
        self,
    ):
        own = (
            OwnStep("own1", "other", "drill-thread", "Stamp the size on it"),
            OwnStep("own2", "harden", "drill-thread", "Harden them"),
            OwnStep("own3", "bond", "gone", "Glue a pad on"),
        )
        told = route_told(self.made, own=own)
        keys = {up.key: [step.key for step in up.steps] for up in told}
        (at,) = (up for up, steps in keys.items() if "own1" in steps)
        steps = keys[at]
        self.assertEqual(steps[steps.index("own1") - 1], "drill-thread")
        self.assertEqual(list(keys)[list(keys).index(at) + 1], "own2")
        self.assertEqual(list(keys)[-1], "own3", "after a step that is not there")
        self.assertIn("Hot steel", told[list(keys).index("own2")].steps[0].caution)

    def test_the_first_has_nowhere_to_go(self):
        with self.assertRaises(BadInput):
            stepped(self.planned, (), self.order()[0], later=False)

    def test_a_register_is_cut_in_the_holding_of_what_it_runs_true_to(self):
        planned = keyed(make(families()["back-plate"], {}).holdings)
        spigot = next(h for h in planned if any(s.key == "spigot" for s in h.steps))
        after = planned[planned.index(spigot) + 1 :]
        before = planned[: planned.index(spigot)]
        other = (before[-1] if before else after[0]).steps[-1]
        told = broken(
            in_order(planned, [Moved("spigot", other.key, later=True)]), planned
        )
        self.assertTrue(any("true together" in rule.says for rule in told), told)


if __name__ == "__main__":
    unittest.main()
