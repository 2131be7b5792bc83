"""Figures of the bench, laid out in coordinates or found again by search."""

import cmath
import itertools
import math
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon
from machinon.core.setting_out.gauge_stack import stack
from machinon.core.setting_out.runout import resolve
from machinon.core.tapers.tapers import taper_of
from machinon.core.threads.change_gears import CLEAR, trains
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import stock_lengths


def asked(name, **inputs):
    return reckon(name, inputs).results


def refused(case, key, name, **inputs):
    with case.assertRaises(BadInput) as refusal:
        reckon(name, inputs)
    case.assertEqual(refusal.exception.key, key)
    return refusal.exception.message


class Eccentrics(unittest.TestCase):
    def test_the_bar_stands_off_by_its_throw_in_three_jaws_that_are_alike(self):
        """Packed, it lies on its packing and on the faces of the other two jaws, or on
        their corners; all faces are as far from the spindle's axis."""
        for throw, diameter, jaw in ((3, 30, 8), (3, 30, 4), (3, 30, 0), (8, 25, 5)):
            with self.subTest(throw=throw, jaw=jaw):
                packed = asked(
                    "eccentric-packing", throw=throw, diameter=diameter, jaw=jaw
                )
                middle = complex(0, -throw)  # of the bar; the packing lies over it
                face = diameter / 2 - throw + packed["packing"]
                for way in (-1, 1):
                    out = cmath.exp(1j * math.radians(90 + way * 120))
                    seen = middle / out  # from the spindle along the jaw
                    aside = min(max(seen.imag, -jaw / 2), jaw / 2)
                    far = abs(complex(face, aside) - seen)
                    self.assertAlmostEqual(far, diameter / 2)
        wide = asked("eccentric-packing", throw=3, diameter=30, jaw=8)
        self.assertEqual((wide["packing"], wide["indicator"]), (4.5, 6))
        self.assertEqual(asked("eccentric-packing", throw=3, diameter=30), wide)

    def test_packing_is_mended_by_what_the_indicator_reads(self):
        """5.8 is a throw of 2.9: 1.5 × 0.1 more."""
        read = asked("eccentric-packing", throw=3, diameter=30, reads=5.8)
        self.assertAlmostEqual(read["corrected"], 4.65)
        refused(self, "reads", "eccentric-packing", throw=3, diameter=30, reads=12.1)
        refused(self, "throw", "eccentric-packing", throw=10.6, diameter=30)


class Polygons(unittest.TestCase):
    def corners(self, sides, circle):
        turn = 2 * math.pi / sides
        return [circle / 2 * cmath.exp(1j * turn * i) for i in range(sides)]

    def test_flats_of_an_even_number_lie_opposite_each_other(self):
        for sides in (4, 6, 8, 12):
            found = asked("polygon", sides=sides, across_flats=20)
            at = self.corners(sides, found["across_corners"])
            near, far = (at[0] + at[1]) / 2, (at[sides // 2] + at[sides // 2 + 1]) / 2
            self.assertAlmostEqual(abs(near - far), 20)

    def test_of_an_odd_number_a_flat_lies_opposite_a_corner(self):
        for sides in (3, 5, 7):
            found = asked("polygon", sides=sides, across_flats=20)
            at = self.corners(sides, found["across_corners"])
            flat = (at[sides // 2] + at[sides // 2 + 1]) / 2
            self.assertAlmostEqual(abs(at[0] - flat), 20)
            again = asked("polygon", sides=sides, round=found["across_corners"])
            self.assertAlmostEqual(again["across_flats"], 20)

    def test_each_flat_is_as_deep_as_the_bar_stands_over_it(self):
        found = asked("polygon", sides=6, across_flats=17, round=20)
        self.assertAlmostEqual(found["depth_per_flat"], (20 - 17) / 2)
        self.assertAlmostEqual(found["round_needed"], 17 / math.cos(math.pi / 6))

    def test_a_bar_under_the_corners_is_said_and_one_under_the_flats_refused(self):
        notes = reckon("polygon", {"sides": 6, "across_flats": 17, "round": 18}).notes
        self.assertIn("not be sharp", notes[0])
        self.assertIn(
            "17.0000",
            refused(self, "round", "polygon", sides=6, across_flats=17, round=16.9),
        )
        self.assertTrue(asked("polygon", sides=6, across_flats=17, round=17))
        refused(self, "across_flats", "polygon", sides=6)


class Triangles(unittest.TestCase):
    def test_any_two_parts_give_the_same_triangle(self):
        whole = {"side": 80, "rise": 60, "slope": 100, "angle": 36.869897645844}
        for pair in itertools.combinations(whole, 2):
            found = asked("triangle", **{key: whole[key] for key in pair})
            for key, value in whole.items():
                with self.subTest(pair, part=key):
                    self.assertAlmostEqual(found[key], value, places=6)
            self.assertAlmostEqual(found["other_angle"], 90 - whole["angle"])

    def test_one_part_or_three_or_a_long_side_that_is_short(self):
        refused(self, "side", "triangle", side=3)
        refused(self, "side", "triangle", side=3, rise=4, slope=5)
        refused(self, "side", "triangle", side=5, slope=5)
        refused(self, "rise", "triangle", rise=6, slope=5)


class Cones(unittest.TestCase):
    def test_a_right_angle_goes_half_as_deep_as_it_is_wide(self):
        found = asked("countersink", diameter=12, hole=6)
        self.assertAlmostEqual(found["depth"], 6)
        # it touches a hole of 6 when its point is 3 below the face
        self.assertAlmostEqual(found["from_touch"], 3)
        self.assertAlmostEqual(asked("countersink", depth=6)["diameter"], 12)

    def test_the_point_of_a_drill_is_three_tenths_of_it_long(self):
        for wide in (3, 10, 25):
            found = asked("countersink", diameter=wide, angle=118)
            self.assertAlmostEqual(found["depth"] / wide, 0.3004, 4)
            given = {"depth": found["depth"], "angle": 118}
            self.assertAlmostEqual(asked("countersink", **given)["diameter"], wide)

    def test_a_hole_as_wide_as_its_mouth_leaves_nothing_to_sink(self):
        self.assertTrue(asked("countersink", diameter=12, hole=11.9))
        refused(self, "hole", "countersink", diameter=12, hole=12)
        refused(self, "diameter", "countersink", angle=90)
        refused(self, "diameter", "countersink", diameter=12, depth=3)


class Balls(unittest.TestCase):
    def test_a_ball_in_a_drilled_dimple_touches_where_the_cone_is_tangent(self):
        """Ball 6 in a 118° point: the ring lies where the radius is square to the
        flank, 3 cos 59° from the axis and 3 sin 59° below the ball's centre."""
        found = asked("detent", ball=6, drill_angle=118)
        half = math.radians(59)
        self.assertAlmostEqual(found["land_diameter"], 6 * math.cos(half))
        self.assertAlmostEqual(found["depth"], 3 - 3 * math.sin(half))

    def test_rim_and_depth_give_each_other(self):
        for depth in (0.4, 1.0, 2.9):
            rim = asked("detent", ball=6, depth=depth)["land_diameter"]
            again = asked("detent", ball=6, land_diameter=rim)
            self.assertAlmostEqual(again["depth"], depth)
            # the rim's points lie on the ball
            self.assertAlmostEqual((rim / 2) ** 2 + (3 - depth) ** 2, 9)
        self.assertAlmostEqual(asked("detent", ball=6, depth=3)["land_diameter"], 6)
        refused(self, "depth", "detent", ball=6, depth=3.1)
        refused(self, "land_diameter", "detent", ball=6, land_diameter=6.1)
        refused(self, "land_diameter", "detent", ball=6)
        refused(self, "land_diameter", "detent", ball=6, depth=1, drill_angle=90)


class Rollers(unittest.TestCase):
    def test_a_cone_drawn_from_its_base_is_found_again(self):
        """The roller touches the flank; its centre is r along the normal from it."""
        base, half, roller = 30.0, math.radians(1.5), 8.0

        def over(height):
            z = height + roller / 2
            flank = base / 2 + z * math.tan(half)
            return 2 * (flank + roller / 2 / math.cos(half) + roller / 2)

        found = asked(
            "taper-over-rollers",
            roller=roller,
            height_low=5,
            reading_low=over(5),
            height_high=45,
            reading_high=over(45),
        )
        self.assertAlmostEqual(found["diameter_at_base"], base)
        self.assertAlmostEqual(found["half_angle"], 1.5)
        self.assertAlmostEqual(found["ratio"], 2 * math.tan(half))

    def test_how_far_it_is_from_the_taper_it_should_be(self):
        morse = taper_of("MT3")

        def off(more):
            half = math.radians(morse.half_angle + more / 60)
            return asked(
                "taper-over-rollers",
                roller=6,
                height_low=0,
                reading_low=60,
                height_high=50,
                reading_high=60 + 100 * math.tan(half),
                taper="MT3",
            )["error_minutes"]

        self.assertAlmostEqual(off(0), 0, places=6)
        self.assertAlmostEqual(off(3), 3, places=6)
        self.assertAlmostEqual(off(-2), -2, places=6)

    def test_it_may_stand_on_its_large_end(self):
        found = asked(
            "taper-over-rollers",
            roller=6,
            height_low=0,
            reading_low=62.5,
            height_high=50,
            reading_high=60,
            taper="MT3",
        )
        self.assertLess(found["half_angle"], 0)
        self.assertLess(abs(found["error_minutes"]), 1)


class SawSlots(unittest.TestCase):
    def test_passes_cover_the_slot_from_side_to_side(self):
        for width, saw in ((5, 2), (6, 2), (6.1, 2), (2, 2), (7.3, 1.6)):
            found = asked("saw-slot", depth=4, width=width, saw=saw)
            first, last = found["positions"][0], found["positions"][-1]
            with self.subTest(width=width, saw=saw):
                self.assertAlmostEqual(first, 4)
                self.assertAlmostEqual(last + saw, 4 + width)
                self.assertEqual(found["passes"], len(found["positions"]))
                self.assertEqual(found["passes"], math.ceil(width / saw - 1e-9))
                for position, other in itertools.pairwise(found["positions"]):
                    self.assertAlmostEqual(position + saw - other, found["overlap"])
                    self.assertGreaterEqual(found["overlap"], -1e-9)
                for position, touched in zip(
                    found["positions"], found["from_touch"], strict=True
                ):
                    self.assertAlmostEqual(touched - position, saw)
        self.assertEqual(asked("saw-slot", depth=4, width=2, saw=2)["overlap"], 0)
        refused(self, "saw", "saw-slot", depth=4, width=2, saw=2.1)


class Spans(unittest.TestCase):
    def test_three_holes_lie_where_their_spans_say(self):
        found = asked("hole-pattern", hole=8, span_12=58, span_23=48, span_31=68)
        point, two, three = (complex(*at) for at in found["points"])
        self.assertAlmostEqual(abs(point - two), 50)
        self.assertAlmostEqual(abs(two - three), 40)
        self.assertAlmostEqual(abs(three - point), 60)
        centre = complex(*found["centre"])
        for at in (point, two, three):
            self.assertAlmostEqual(2 * abs(at - centre), found["diameter"])
        turns = [cmath.phase(at - centre) for at in (point, two, three)]
        for i, angle in enumerate(found["angles"]):
            between = math.degrees(turns[(i + 1) % 3] - turns[i]) % 360
            self.assertAlmostEqual(angle, between)
        self.assertAlmostEqual(sum(found["angles"]), 360)


class RunOut(unittest.TestCase):
    def read(self, count, *waves):
        """A part's readings round a turn; waves: order, size, phase in degrees."""
        turns = [2 * math.pi * i / count for i in range(count)]
        return [
            sum(a * math.cos(n * t - math.radians(p)) for n, a, p in waves)
            for t in turns
        ]

    def test_offset_oval_and_lobes_are_each_found(self):
        found = resolve(self.read(16, (1, 0.02, 50), (2, 0.004, 10)))
        self.assertAlmostEqual(found.eccentricity, 0.02)
        self.assertAlmostEqual(found.phase, 50)
        self.assertAlmostEqual(found.ovality, 0.016)
        self.assertEqual(found.lobes, 2)
        self.assertAlmostEqual(found.noise, 0)

    def test_three_lobes_are_no_oval(self):
        found = resolve(self.read(24, (1, 0.01, 0), (3, 0.005, 0)))
        self.assertEqual(found.lobes, 3)
        self.assertAlmostEqual(found.ovality, 0)
        self.assertAlmostEqual(found.noise, 0.005 / math.sqrt(2))

    def test_the_strongest_lobes_are_named(self):
        found = resolve(self.read(24, (3, 0.002, 0), (5, 0.006, 0), (2, 0.001, 0)))
        self.assertEqual(found.lobes, 5)
        self.assertEqual(resolve(self.read(24, (1, 0.01, 0))).lobes, 0)
        self.assertEqual(resolve([0.01] * 8).phase, 0)

    def test_four_readings_show_no_oval(self):
        notes = reckon("runout", {"readings": self.read(4, (1, 0.01, 0))}).notes
        self.assertIn("Fewer than 5", notes[0])
        notes = reckon("runout", {"readings": self.read(5, (1, 0.01, 0))}).notes
        self.assertEqual(list(notes), [])


WHEELS = (20, 24, 30, 36, 40, 45, 50, 60, 63, 80, 100, 127)


class Gears(unittest.TestCase):
    def test_a_train_cuts_the_pitch_it_says(self):
        for train in trains(1.5, 4.0, WHEELS, 20):
            over, under = math.prod(train.drivers), math.prod(train.driven)
            self.assertAlmostEqual(4.0 * over / under, train.pitch)

    def test_no_wheel_is_used_more_often_than_there_are(self):
        for train in trains(2.0, 4.0, (20, 30, 40, 60), 20):
            used = [*train.drivers, *train.driven]
            self.assertEqual(len(used), len(set(used)), used)

    def test_wheels_of_a_compound_train_clear_each_other_s_shafts(self):
        """The first pair's sum of teeth stands over the next wheel, and back."""
        for train in trains(0.35, 4.0, WHEELS, 40):
            if len(train.drivers) == 2:
                (a, c), (b, d) = train.drivers, train.driven
                fits = a + b >= c + CLEAR and c + d >= b + CLEAR
                swapped = a + d >= c + CLEAR and c + b >= d + CLEAR
                with self.subTest(drivers=(a, c), driven=(b, d)):
                    self.assertEqual(train.mounts, fits)  # in the order that fits
                    self.assertFalse(swapped and not fits)

    def test_an_exact_train_comes_first_and_the_rest_by_how_near_they_are(self):
        found = trains(1.27, 4.0, WHEELS, 12)
        errors = [round(abs(train.pitch - 1.27), 9) for train in found]
        self.assertEqual(errors[0], 0)
        self.assertEqual(errors, sorted(errors))

    def test_nothing_nearer_is_left_out(self):
        """Every way to place four of six wheels, tried one by one."""
        wheels = (20, 30, 35, 45, 50, 65)
        best = min(
            abs(4 * a * c / (b * d) - 1.8)
            for a, b, c, d in itertools.permutations(wheels, 4)
            if a + b >= c + CLEAR and c + d >= b + CLEAR
        )
        best = min(
            best, *(abs(4 * a / b - 1.8) for a, b in itertools.permutations(wheels, 2))
        )
        self.assertAlmostEqual(abs(trains(1.8, 4.0, wheels, 3)[0].pitch - 1.8), best)


class Stacks(unittest.TestCase):
    def test_no_stack_of_fewer_pieces_makes_the_size(self):
        pieces = (1.001, 1.005, 1.01, 1.02, 1.1, 1.5, 2, 3, 5, 10, 20)
        for target in (4.105, 13.021, 22.2, 6.501):
            made = stack(target, pieces, 5, 0)
            if made is None:
                for count in range(1, 6):
                    for some in itertools.combinations(pieces, count):
                        self.assertNotAlmostEqual(sum(some), target, places=5)
                continue
            self.assertAlmostEqual(sum(made), target)
            for fewer in range(1, len(made)):
                for some in itertools.combinations(pieces, fewer):
                    self.assertNotAlmostEqual(sum(some), target, places=5)

    def test_a_piece_that_is_there_twice_can_be_used_twice(self):
        self.assertEqual(stack(20, (10, 10, 7), 3, 0), (10, 10))
        self.assertIsNone(stack(20, (10, 7), 3, 0))
        self.assertEqual(stack(30, (10, 10, 7, 10), 3, 0), (10, 10, 10))

    def test_within_a_tolerance_the_nearest_of_the_fewest_is_taken(self):
        self.assertAlmostEqual(stack(10.022, (10, 10.03, 10.01), 2, 0.05)[0], 10.03)
        self.assertIsNone(stack(10.02, (10, 10.1), 1, 0.01))


class Screws(unittest.TestCase):
    def test_a_screw_holds_and_does_not_reach_the_floor(self):
        for grip, depth in ((12, 16), (5, 9), (20, 12)):
            found = asked(
                "screw-length", grip=grip, engagement=8, thread_depth=depth, screw="M6"
            )
            for length in found["stock"]:
                self.assertGreaterEqual(length - grip, 8)
                self.assertLessEqual(length - grip, depth - 1)
            sold = stock_lengths(thread_of("M6"))
            left_out = [
                length for length in sold if grip + 8 <= length <= grip + depth - 1
            ]
            self.assertEqual(found["stock"], left_out)

    def test_without_an_engagement_it_goes_in_its_own_diameter(self):
        deep = asked("screw-length", grip=10, thread_depth=30, screw="M8")
        self.assertAlmostEqual(deep["least"], 18)
        shallow = asked("screw-length", grip=10, thread_depth=6, screw="M8")
        self.assertAlmostEqual(shallow["least"], 15)
        refused(self, "engagement", "screw-length", grip=10, screw="M8")
        refused(self, "clear", "screw-length", grip=10, thread_depth=0.5, screw="M8")
        refused(
            self,
            "thread_depth",
            "screw-length",
            grip=10,
            engagement=8,
            thread_depth=8.5,
            screw="M8",
        )

    def test_through_a_nut_the_three_shortest_that_hold(self):
        found = asked("screw-length", grip=20, engagement=8, washer=1.6, screw="M8")
        sold = [
            stock_length
            for stock_length in stock_lengths(thread_of("M8"))
            if stock_length >= 29.6
        ]
        self.assertEqual(found["stock"], sold[:3])
        self.assertNotIn("most", found)


class Springs(unittest.TestCase):
    def test_a_turn_of_the_screw_opens_the_arbor_by_the_taper(self):
        """A half angle of 5° on a pitch of 1: 2 tan 5° = 0.175 a turn."""
        found = asked(
            "expanding-arbor",
            taper="5deg",
            pitch=1,
            slots=4,
            diameter=30,
            play=0.07,
            material="steel",
        )
        turn = 2 * math.tan(math.radians(5))
        self.assertAlmostEqual(found["growth_per_turn"], turn)
        self.assertAlmostEqual(found["turns_to_take_play"], 0.07 / turn)

    def test_a_longer_or_thinner_finger_opens_further(self):
        usual = {"taper": "1:10", "pitch": 1, "slots": 4, "diameter": 30}
        plain = asked("expanding-arbor", **usual, material="steel")["largest_growth"]
        long = asked("expanding-arbor", **usual, material="steel", length=60)
        thin = asked("expanding-arbor", **usual, material="steel", wall=2.5)
        self.assertAlmostEqual(long["largest_growth"] / plain, 4)
        self.assertAlmostEqual(thin["largest_growth"] / plain, 2)
        refused(self, "wall", "expanding-arbor", **usual, material="steel", wall=15)


class Passes(unittest.TestCase):
    def test_time_is_travel_over_feed(self):
        """Three passes of 92 mm at 200 rpm and 0.1: 3 · 92 / 20 = 13.8 min."""
        found = asked(
            "cutting-time",
            length=90,
            approach=2,
            passes=3,
            rpm=200,
            feed=0.1,
            between=0,
        )
        self.assertAlmostEqual(found["minutes"], 13.8)

    def test_passes_are_counted_up_never_down(self):
        for finish, passes in ((44, 3), (44.1, 3), (43.9, 4), (49.9, 1)):
            found = asked(
                "cutting-time",
                length=10,
                start=50,
                finish=finish,
                most=1,
                rpm=100,
                feed=0.1,
            )
            self.assertEqual(found["passes"], passes, finish)
