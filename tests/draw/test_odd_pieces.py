"""Whatever is asked of a free piece, sound or not, it is drawn."""

import math
import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.families import families
from machinon.core.piece.family import grown, part_names
from machinon.core.piece.made import make
from machinon.core.quantity import ANGLE, COUNT, LENGTH
from machinon.core.route.machine_checks import along_the_route
from machinon.core.route.steps import route_told
from machinon.draw.body_film import body_film
from machinon.draw.drawing import Circle, Line, Shape
from machinon.draw.piece_sheet import piece_sheet
from tests.trials import SEED, TIMES

PIECES = 8
TYPED = {
    "points": ("0,0 80,0 80,40r6 0,40", "0,0 60@0 40@120", "0,0 100,0 50,60"),
    "places": ("10,10 40,20", "50,30", "2,2 98,58 20,90 20,30"),
}
FAR = 50_000.0  # px: a line that long runs for ever, however wrong the sizes are


def typed_at_will(sizes, chance):
    """Something for about half of them."""
    given = {}
    for size in sizes:
        if size.choices:
            given[size.key] = chance.choice(size.choices)
        elif size.measure in TYPED:
            given[size.key] = chance.choice(TYPED[size.measure])
        elif size.kind in (LENGTH, ANGLE) and chance.random() < 0.5:
            large = chance.uniform(size.low, min(size.high, 120))
            usual = chance.uniform(0.5, 60)
            given[size.key] = f"{chance.choice((size.low, large, usual)):.1f}"
        elif size.kind is COUNT and chance.random() < 0.5:
            given[size.key] = f"{chance.randint(1, 7)}"
    return given


def odd_pieces(key, chance):
    """Free pieces of parts and sizes at will."""
    family = families()[key]
    kinds = [part.key for part in family.parts]
    left = PIECES * TIMES
    while left:
        parts = ["step"] * (key == "turned-piece")
        parts += chance.choices(kinds, k=chance.randint(1, 6))
        given = {"parts": " ".join(parts)}
        try:
            sizes = grown(family, part_names(family, given["parts"])).sizes
            yield make(family, given | typed_at_will(sizes, chance))
        except BadInput:
            continue
        left -= 1


def places(item):
    match item:
        case Line():
            return item.start, item.end
        case Circle():
            return (item.centre,)
        case Shape():
            return item.points
    return ()


class OddFamilies(unittest.TestCase):
    def test_sizes_at_will_are_worked_out_or_refused(self):
        chance = random.Random(SEED)
        for family in families().values():
            for _ in range(0 if family.free else PIECES * TIMES):
                given = typed_at_will(family.sizes, chance)
                with self.subTest(family.key, given=given):
                    try:
                        made = make(family, given)
                    except BadInput as refusal:
                        self.assertTrue(refusal.message)
                        continue
                    self.assertGreater(made.body.volume, 0)
                    for check in along_the_route(route_told(made)):
                        self.assertTrue(check.says)

    def test_a_hole_through_a_wall_that_is_not_there_takes_nothing(self):
        """A recess of 43 in a body of 39 leaves no wall for the die's screws."""
        made = make(families()["die-holder"], {"recess.diameter": "43"})
        self.assertGreater(made.body.volume, 20_000)
        self.assertIn("gone-screws", {c.key for c in made.checks if not c.passed})

    def test_a_flat_deeper_than_its_bar_leaves_no_bar_and_says_so(self):
        given = {
            "work.bore": "9.6",
            "stock.diameter": "4",
            "stock.length": "20",
            "bar.overhang": "6",
            "bits.from_end": "3",
            "flat.depth": "18.8",
        }
        made = make(families()["single-point-bar"], given)
        self.assertTrue(piece_sheet(made, 900, 560).items)
        self.assertTrue(route_told(made))
        failed = {check.key for check in made.checks if not check.passed}
        self.assertIn("gone-bar", failed)


class OddPieces(unittest.TestCase):
    def test_they_are_drawn_and_their_steps_as_well(self):
        chance = random.Random(SEED)
        for key in ("turned-piece", "plate-block"):
            for made in odd_pieces(key, chance):
                with self.subTest(key, given=made.given):
                    self.drawn(made, first_angle=chance.random() < 0.5)

    def test_edges_that_other_cuts_take_and_stock_far_too_short_are_drawn(self):
        """Two males of a dovetail take all upper edges; a bar of 3 for 74 has nothing
        left once both ends are faced."""
        edges = {"parts": "edge dovetail dovetail", "edge1.which": "top",
                 "dovetail1.form": "male", "dovetail1.runs": "across",
                 "dovetail2.form": "male", "dovetail2.runs": "along"}  # fmt: skip
        bar = {"parts": "step step bar bore", "stock.shape": "octagon",
               "stock.length": "3", "step1.diameter": "55", "step2.length": "38",
               "step2.diameter": "13", "bar1.across": "28", "bar1.length": "15",
               "bore1.end": "right", "bore1.diameter": "17"}  # fmt: skip
        self.drawn(make(families()["plate-block"], edges))
        self.drawn(make(families()["turned-piece"], bar))

    def drawn(self, made, first_angle=False):
        self.assertGreater(made.body.volume, 0, "nothing is left of it")
        drawings = [
            piece_sheet(made, 900, 560, first_angle=first_angle),
            *(
                body_film(step, 200, 150)
                for up in route_told(made)
                for step in up.steps
            ),
        ]
        for x, y in (
            point
            for drawing in drawings
            for item in drawing.items
            for point in places(item)
        ):
            self.assertLess(math.hypot(x, y), FAR)
