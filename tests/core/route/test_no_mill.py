"""A shop with a lathe, a drill press, or both, and no mill."""

import math
import unittest
from itertools import pairwise

from machinon.core.families import families
from machinon.core.piece.made import make
from machinon.core.route.duration import minutes_of
from machinon.core.route.no_mill import ELSEWHERE, NoMill, in_place_of
from machinon.core.route.steps import route_told
from machinon.core.route.work.lines import Machines
from machinon.core.route.work.listed import work_list
from machinon.core.shop.machines import Machine
from machinon.core.shop.things import Lathe

LATHE = Lathe("lathe", "Lathe", 165, 700, 190, (45, 110, 290, 740), "")
PRESS = Machine("press", "Press", "drill", {"speeds": "300,600,1200"})
MILL = Machine("mill", "Mill", "mill")


def piece(family="plate-block", **sizes):
    given = {key.replace("_", "."): value for key, value in sizes.items()}
    return make(families()[family], given)


def routed(family="plate-block", lathe=LATHE, press=PRESS, **sizes):
    made = piece(family, **sizes)
    shop = NoMill(lathe, press)
    return route_told(made, lathe.speed_choices if lathe else (), no_mill=shop)


def squared(**sizes):
    (step,) = (s for s in routed(**sizes)[0].steps if s.operation == "square")
    return step


class WhatIsInItsPlace(unittest.TestCase):
    def test_a_shop_that_names_its_drill_press_is_taken_to_have_no_mill(self):
        self.assertEqual(in_place_of(None, "", LATHE, PRESS), NoMill(LATHE, PRESS))
        self.assertIsNone(in_place_of(MILL, "", LATHE, PRESS))
        self.assertIsNone(in_place_of(None, ELSEWHERE, LATHE, PRESS))

    def test_of_a_shop_that_names_its_lathe_alone_it_has_to_be_said(self):
        self.assertIsNone(in_place_of(None, "", LATHE, None))
        self.assertEqual(in_place_of(None, "lathe", LATHE, None), NoMill(LATHE, None))
        self.assertIsNone(in_place_of(None, "", None, None))


class TheRoute(unittest.TestCase):
    def test_of_every_family_the_same_is_cut_in_the_same_order(self):
        shops = NoMill(LATHE, None), NoMill(None, PRESS), NoMill(LATHE, PRESS)
        for key, family in families().items():
            made = make(family, {})
            usual = route_told(made)
            last = usual[-1].steps[-1].after
            for shop in shops:
                with self.subTest(family=key, shop=shop):
                    told = route_told(made, no_mill=shop)
                    self.assertEqual(
                        [s.key for up in told for s in up.steps],
                        [s.key for up in usual for s in up.steps],
                    )
                    self.assertEqual(
                        [up.usual for up in told], [up.machine for up in usual]
                    )
                    self.assertEqual(told[-1].steps[-1].after, last)

    def test_holes_are_drilled_on_the_drill_press_at_its_speeds(self):
        """A 9 drill in steel wants 849 rpm: the press has 600."""
        up = routed()[1]
        self.assertEqual(up.machine, "drill")
        self.assertEqual(up.title, "On the drill press: in the vise, upper face up")
        self.assertEqual(up.steps[0].rpm, 600)

    def test_what_is_milled_is_clamped_to_the_lathes_slide_and_cut_lightly(self):
        """A slot 6 deep: 2 passes of 2.9 and the last 0.2 on a mill, 6 and the last
        where a slide has the work."""
        given = {"parts": "slot", "slot1_width": "12mm", "slot1_depth": "6mm"}
        up = routed(**given)[1]
        self.assertEqual(up.title, "On the lathe's slide: in the vise, bottom face up")
        self.assertEqual(up.steps[0].speeds, LATHE.speeds)
        milled = route_told(piece(**given))[1].steps[0]
        for step, passes in ((milled, 3), (up.steps[0], 7)):
            lines = work_list(step).lines
            self.assertEqual(sum(o.key.startswith("pass") for o in lines), passes)

    def test_a_keyway_on_the_slide_goes_down_as_lightly(self):
        """5 wide and 3 deep: on a mill no pass is deeper than half the cutter."""

        def deepest(route):
            step = route[-1].steps[0]
            lines = [o for o in work_list(step).lines if o.key.startswith("pass")]
            downs = [0.0, *(float(o.figures[0].value) for o in lines)]
            return max(b - a for a, b in pairwise(downs))

        given = {"family": "turned-piece", "parts": "step keyway"}
        self.assertGreater(deepest(route_told(piece(**given))), 1.0)
        self.assertLessEqual(deepest(routed(**given)), 1.0)

    def test_a_press_alone_drills_and_leaves_the_rest_to_a_mill(self):
        machines = [up.machine for up in routed(lathe=None)]
        self.assertEqual(machines, ["mill", "drill", "mill"])


class InTheFourJaw(unittest.TestCase):
    def test_six_faces_are_faced_at_the_speed_of_their_corners(self):
        """103 × 63 sawn swings 120.739; steel faced at 25 m/min turns at 66 there, and
        an end of 63 × 33, which swings 71.12, at 112."""
        step = squared()
        self.assertAlmostEqual(step.corners, math.hypot(103, 63))
        lines = work_list(step, Machines(LATHE)).lines
        told = [[(f.name, round(float(f.value), 2)) for f in o.figures] for o in lines]
        self.assertEqual(told[0], [("Swings", 120.74), ("Speed", 45)])
        self.assertEqual(told[5], [("Length", 100), ("Speed", 110)])
        self.assertIn("sleeves", step.caution)
        opened = work_list(step, Machines(LATHE)).answers
        self.assertEqual([answer["rpm"] for answer in opened], [45, 45, 110])
        self.assertEqual(routed()[0].machine, "lathe")

    def test_setting_each_face_takes_longer_than_turning_it_over_in_a_vise(self):
        milled = route_told(piece())[0].steps[1]
        self.assertEqual(minutes_of(squared()), minutes_of(milled) + 6 * (8 - 3))

    def test_what_is_thin_or_swings_too_far_goes_to_the_slide(self):
        """330 swing over the bed, 6 of them left clear."""
        for sizes in (
            {"block_height": "5mm", "stock_over": "1mm"},
            {"block_length": "330mm"},
        ):
            self.assertEqual(routed(**sizes)[0].machine, "mill", sizes)
