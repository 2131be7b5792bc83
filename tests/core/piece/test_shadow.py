"""What a block looks like from three sides."""

import unittest

from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.piece.shadow import VIEWS, shadow_of
from machinon.core.piece.solid_cuts import Sunk, block_face, rectangle
from machinon.core.piece.solids import solid_of
from machinon.core.piece.stock import Block
from machinon.core.route.steps import route_told

BLOCK = Block((0.0, 0.0, 0.0), (60.0, 40.0, 20.0))


SUNK = rectangle(10, 10, 30, 25)


def pocket(face, deep, outline=SUNK):
    return Sunk(block_face(face, *BLOCK.size), outline, -5.0, deep)


def area(rings):
    """Of outlines, openings taken off."""
    twice = 0.0
    for ring in rings:
        for (ax, ay), (bx, by) in zip(ring, [*ring[1:], ring[0]], strict=True):
            twice += ax * by - bx * ay
    return twice / 2


def seen(stock, cuts, view):
    """The area of the solid's own shadow: turned so that the view is from above."""
    turned = {"top": (0, 0, 0), "front": (-90, 0, 0), "right": (0, -90, 0)}[view]
    return solid_of(stock, cuts).rotate(turned).project().area()


class Shadows(unittest.TestCase):
    def test_every_step_of_every_block_looks_as_its_solid_does(self):
        count = 0
        for family in families().values():
            made = make(family, {})
            if made.body.turns:
                continue
            bodies = [step.after for up in route_told(made) for step in up.steps]
            for body in [made.body, *bodies]:
                sunk = tuple(cut for cut in body.cuts if isinstance(cut, Sunk))
                outlines = shadow_of(body.stock, sunk).outlines
                for view in VIEWS:
                    with self.subTest(family=family.key, view=view):
                        self.assertAlmostEqual(
                            area(outlines[view]), seen(body.stock, sunk, view), 3
                        )
                count += 1
        self.assertGreater(count, 10)

    def test_two_pockets_that_meet_inside_leave_a_window(self):
        """12 deep from either side of 20: 20 × 15 of 60 × 40 stands open."""
        both = (pocket("top", 12.0), pocket("bottom", 12.0))
        self.assertAlmostEqual(area(shadow_of(BLOCK, both).outlines["top"]), 2100)
        self.assertAlmostEqual(area(shadow_of(BLOCK, both[:1]).outlines["top"]), 2400)
        shallow = (pocket("top", 9.0), pocket("bottom", 9.0))
        self.assertAlmostEqual(area(shadow_of(BLOCK, shallow).outlines["top"]), 2400)

    def test_a_step_along_the_whole_block_is_seen_from_its_end_and_lowers_it(self):
        """15 wide and 8 deep, all along: 40 × 20 less 120 at its end."""
        step = pocket("top", 8.0, rectangle(-5, -5, 65, 15))
        found = shadow_of(BLOCK, (step,))
        self.assertAlmostEqual(area(found.outlines["right"]), 680)
        self.assertAlmostEqual(area(found.outlines["top"]), 2400)
        self.assertEqual(found.box, (0, 0, 0, 60, 40, 20))
        whole = pocket("top", 8.0, rectangle(-5, -5, 65, 45))
        self.assertEqual(shadow_of(BLOCK, (whole,)).box, (0, 0, 0, 60, 40, 12))


if __name__ == "__main__":
    unittest.main()
