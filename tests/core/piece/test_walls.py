"""Metal between a hole and what is cut from another face, by hand-worked sums."""

import math
import random
import unittest

from machinon.core.families import families
from machinon.core.piece.block_features import Flanked, Pocket, Slot
from machinon.core.piece.hole_features import Hole, Holes, Places
from machinon.core.piece.made import make
from machinon.core.piece.solids import SEGMENTS, solid_of
from machinon.core.piece.stock import Block
from machinon.core.piece.walls import in_metal, wall
from tests.core.families.failing import check
from tests.trials import SEED, TIMES

BLOCK = (100.0, 60.0, 30.0)
DEPTHS = {"top": 30.0, "front": 60.0, "left": 100.0}


def hole(face, at, *, diameter=8.0, depth=None, **sizes):
    drilled = Hole(diameter, depth, **sizes)
    return Holes("hole", face, Places((at,)), drilled, DEPTHS[face], block=BLOCK)


class Walls(unittest.TestCase):
    def test_metal_that_is_left_beside_a_hole(self):
        across = hole("front", (40, 12))  # 8 wide, its middle 12 up
        pocket = Pocket("pocket", "top", BLOCK, (20, 20), (60, 50), 3.0, 12.5)
        tongue = Slot("slot", "top", BLOCK, (50, -1), (50, 61), 10.0, 20.0)
        vee = Flanked("vee", "top", BLOCK, 30.0, 10.0, False, 20.0, 0.0)
        over = hole("top", (40, 30), depth=13, flat=True)
        for name, drilled, other, metal in (
            ("under a pocket: 30 - 12.5 - 16", across, pocket, 1.5),
            ("beside a slot: 45 - 40 - 4", across, tongue, 1.0),
            ("past another: 49 - 40 - 4 - 4", hole("top", (49, 30)), across, 1.0),
            ("into its side: 47 - 40 - 4 - 4", hole("top", (47, 30)), across, -1.0),
            ("over another: 30 - 13 - 16", over, across, 1.0),
            ("beside a vee's mouth: 20 - 15.2 - 4", hole("top", (50, 15.2)), vee, 0.8),
            ("into the pocket's side", hole("front", (17, 25)), pocket, -1.0),
        ):
            with self.subTest(name):
                self.assertAlmostEqual(wall(drilled, other), metal, delta=0.01)

    def test_what_opens_into_another_is_meant_to(self):
        across = hole("front", (40, 12))
        for name, other in (
            ("crossed in the middle", hole("top", (40, 30))),
            ("a narrow one into its side", hole("top", (43, 30), diameter=3)),
            ("into a pocket", Pocket("p", "top", BLOCK, (20, 20), (60, 50), 3.0, 20)),
            ("far off", hole("top", (80, 30))),
        ):
            with self.subTest(name):
                self.assertEqual(wall(across, other), math.inf)

    def test_a_slanted_wall_by_chance_as_the_solids_have_it(self):
        """Two holes crossed askew in height and place, told by their solids."""
        chance, tried = random.Random(SEED), 0
        while tried < 10 * TIMES:
            low, side = chance.uniform(6, 24), chance.uniform(10, 90)
            a = hole("front", (50, low), diameter=chance.uniform(3, 9))
            deep = chance.uniform(4, 25)
            wide = chance.uniform(3, 9)
            b = hole("top", (side, 30), diameter=wide, depth=deep, flat=True)
            found = wall(b, a)
            if not 0 < found < 2:
                continue
            tried += 1
            box = Block((0, 0, 0), BLOCK)
            tools = [solid_of(box, ()) - solid_of(box, it.cuts()) for it in (a, b)]
            sides = a.hole.diameter * (1 - math.cos(math.pi / SEGMENTS))
            gap = tools[0].min_gap(tools[1], 5.0)
            self.assertAlmostEqual(found, gap, delta=0.02 + sides)

    def test_thread_is_what_other_cuts_leave_of_it(self):
        tapped = hole("top", (40, 30), diameter=6.8, thread="M8")
        pocket = Pocket("pocket", "top", BLOCK, (20, 20), (60, 50), 3.0, 21.0)
        across = hole("front", (40, 4.5), diameter=6.0)
        self.assertAlmostEqual(in_metal(tapped, 30.0, []), 30.0)
        self.assertAlmostEqual(in_metal(tapped, 30.0, [pocket]), 9.0)
        # and the hole that crosses it takes its width more
        self.assertAlmostEqual(in_metal(tapped, 30.0, [pocket, across]), 3.0, delta=0.1)

    def test_a_free_plate_says_both(self):
        given = {"parts": "hole pocket", "hole1.screw": "M8", "hole1.kind": "tapped",
                 "hole1.from_side": "30", "hole1.from_front": "25"}  # fmt: skip
        plate = families()["plate-block"]
        thin = check(make(plate, given | {"pocket1.depth": "24"}), "hole1-thread")
        self.assertEqual((thin.passed, thin.have, thin.need), (False, 6.0, 8.0))
        under = {"hole1.face": "front", "hole1.from_front": "15"}
        near = make(plate, given | under | {"pocket1.depth": "11.4"})
        near = check(near, "hole1-wall-to")
        self.assertFalse(near.passed)
        # its drill is 6.8: 30 - 11.4 - 15 - 3.4
        self.assertAlmostEqual(near.have, 0.2)

    def test_a_free_turned_piece_says_them(self):
        for given, key, metal in (
            # 33.4 / 2 - 28 / 2 - 5 / 2
            ({"parts": "step ring groove", "step1.diameter": "40",
              "ring1.end": "right", "ring1.circle": "28", "ring1.diameter": "5",
              "ring1.depth": "15", "groove1.diameter": "33.4"}, "ring1", 0.2),
            # 13.6 - 8 - 5
            ({"parts": "step cross cross", "step1.diameter": "40",
              "cross1.from_end": "8", "cross2.from_end": "13.6",
              "cross1.diameter": "5", "cross2.diameter": "5"}, "cross1", 0.6),
        ):  # fmt: skip
            with self.subTest(given["parts"]):
                made = make(families()["turned-piece"], given)
                self.assertAlmostEqual(check(made, f"{key}-wall-to").have, metal, 2)


if __name__ == "__main__":
    unittest.main()
