import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import family_of
from machinon.core.piece.family import make
from machinon.core.route.operations import route_told


def turned(**given):
    return make(
        family_of("turned-piece"),
        {name.replace("_", ".", 1): text for name, text in given.items()},
    )


def failed(made):
    return {check.key for check in made.checks if not check.passed}


class TurnedPieces(unittest.TestCase):
    """⌀20 × 30, ⌀40 × 12, ⌀25 × 20, chamfers of 0.5 left off for the sums."""

    def test_its_volume_is_that_of_its_steps(self):
        made = turned(edge_leg="0")
        wanted = math.pi / 4 * (20**2 * 30 + 40**2 * 12 + 25**2 * 20)
        self.assertAlmostEqual(made.body.volume / wanted, 1, places=5)

    def test_the_largest_step_and_all_to_its_right_are_turned_first(self):
        first, second, _ = route_told(turned())
        self.assertEqual(
            [s.features[0] for s in first.steps if s.operation == "turn"],
            ["step2", "step3"],
        )
        self.assertEqual(
            [s.features[0] for s in second.steps if s.operation == "turn"], ["step1"]
        )

    def test_a_step_without_length_is_left_out_and_one_has_to_stay(self):
        made = turned(step2_length="0")
        self.assertEqual((made.body.largest, made.body.ends), (25, (0, 50)))
        none = {f"step{n}_length": "0" for n in (1, 2, 3)}
        with self.assertRaises(BadInput) as caught:
            turned(**none)
        self.assertIn("has a length", caught.exception.message)

    def test_a_bore_leaves_a_wall_and_a_thread_its_crest(self):
        """M16: root of the screw 13.546 at most; a bore of 12 leaves 0.7 round it."""
        studs = {"step3_diameter": "16", "thread_thread": "M16"}
        self.assertEqual(failed(turned(**studs, bore_diameter="8")), set())
        self.assertIn("bore-wall", failed(turned(**studs, bore_diameter="12")))
        wide = turned(thread_thread="M16")
        self.assertIn("thread-crest", failed(wide), "the step is 25")

    def test_a_cross_hole_keeps_off_the_shoulder(self):
        self.assertEqual(failed(turned(hole_diameter="5")), set())
        near = turned(hole_diameter="5", hole_from_end="29")
        self.assertIn("hole-on-a-step", failed(near))
