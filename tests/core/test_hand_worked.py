"""Reckonings for the bench against figures worked by hand."""

import math
import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.reckoning import reckon


class HandWorked(unittest.TestCase):
    def told(self, name, inputs, places=3, **expected):
        """The answer holds the expected figures, to so many places."""
        results = reckon(name, inputs).results
        for key, value in expected.items():
            with self.subTest(name, result=key):
                if isinstance(value, float):
                    self.assertAlmostEqual(results[key], value, places)
                else:
                    self.assertEqual(results[key], value)


class Keys(HandWorked):
    def test_a_normal_key_has_the_tables_three_widths(self):
        """8 mm: shaft N9 0/−36 µm, key h9 0/−36 µm, hub JS9 ±18 µm."""
        self.told(
            "key-sides",
            {"width": 8},
            shaft_lower=7.964,
            shaft_upper=8.0,
            key_lower=7.964,
            key_upper=8.0,
            hub_lower=7.982,
            hub_upper=8.018,
        )

    def test_a_key_made_to_a_measured_keyway_binds_at_no_end_of_its_doubt(self):
        """8.020 ± 0.004, play 0 to 0.015: from 8.024 − 0.015 to 8.016."""
        self.told(
            "key-sides",
            {"width": 8, "measured": 8.02, "doubt": 0.004},
            key_lower=8.009,
            key_upper=8.016,
        )

    def test_a_key_bears_on_half_its_height(self):
        """Ø25, 8 × 7 × 30: 3.5 × 30 mm² at 12.5 mm; 80 N·m is 6400 N."""
        self.told(
            "key-load",
            {"diameter": 25, "width": 8, "height": 7, "length": 30, "torque": 80},
            carries=131.25,
            side_force=6400.0,
            side_pressure=6400 / 105,
            shear=6400 / 240,
        )


class Seats(HandWorked):
    def test_a_seat_takes_four_fifths_of_its_interference_from_the_inner_ring(self):
        """Bore 25, group N: 5 to 20 µm; the seat is 2 to 15 µm tight."""
        self.told(
            "bearing-seat",
            {"bore": 25, "play_least": -0.015, "play_most": -0.002},
            lost_least=0.0016,
            lost_most=0.012,
            left_least=-0.007,
            left_most=0.0184,
            places=5,
        )

    def test_an_aluminium_hub_on_steel_loosens_as_it_warms(self):
        """Ø50, 50 K: 11.5 millionths apart are 28.75 µm."""
        self.told(
            "fit-warm",
            {
                "diameter": 50,
                "play_least": 0.01,
                "play_most": 0.03,
                "hub_material": "aluminium",
                "shaft_material": "steel",
                "temperature": 70,
            },
            change=0.02875,
            least=0.03875,
            most=0.05875,
            places=6,
        )

    def test_a_hot_hub_grips_where_its_growth_is_the_interference(self):
        """Ø40, 30 µm: 0.03 / (11.5e-6 × 40) = 65.2 K above the shop."""
        inputs = {
            "diameter": 40,
            "length": 30,
            "hub_outside": 70,
            "interference": 0.03,
            "hub_material": "steel",
        }
        self.told(
            "shrink-time",
            {**inputs, "hub_temperature": 200},
            grips_at=20 + 0.03 / (11.5e-6 * 40),
        )
        seconds = [
            reckon("shrink-time", {**inputs, "hub_temperature": hot}).results["seconds"]
            for hot in (120, 160, 200)
        ]
        self.assertEqual(seconds, sorted(set(seconds)))  # hotter lasts longer

    def test_play_lets_the_needle_show_as_much_as_itself(self):
        self.told("play-runout", {"play": 0.02}, offset=0.01, tir=0.02)


class Holes(HandWorked):
    def test_even_thirds_on_a_hundred_circle(self):
        """Sides of 50√3, and one 6 mm hole more over the outside."""
        span = 50 * math.sqrt(3) + 6
        answer = reckon(
            "hole-pattern",
            {"hole": 6, "span_12": span, "span_23": span, "span_31": span},
        ).results
        self.assertAlmostEqual(answer["diameter"], 100)
        for angle in answer["angles"]:
            self.assertAlmostEqual(angle, 120)

    def test_three_holes_anywhere_are_found_again_from_their_spans(self):
        rng = random.Random(11)
        for _ in range(50):
            radius, hole = rng.uniform(20, 90), rng.uniform(3, 9)
            turns = sorted(rng.uniform(i * 2, i * 2 + 1.5) for i in range(3))
            spots = [radius * complex(math.cos(t), math.sin(t)) for t in turns]
            spans = {
                f"span_{i + 1}{j + 1}": abs(spots[i] - spots[j]) + hole
                for i, j in ((0, 1), (1, 2), (2, 0))
            }
            self.told("hole-pattern", {"hole": hole, **spans}, diameter=2 * radius)

    def test_screws_want_drilling_error_and_half_of_each_doubt(self):
        """M8 in 9 mm: 0.5 round the screw; 0.1 + 0.3 / 2 + 0.6 / 2 wanted."""
        inputs = {"thread": "M8", "circle_doubt": 0.3, "play": 0.6}
        self.told("bolt-room", inputs, hole=9.0, room=0.5, need=0.55)
        self.assertTrue(reckon("bolt-room", inputs).results["warning"])

    def test_six_forties_on_a_hundred_leave_ten_between(self):
        """The chord of a sixth is the radius."""
        self.told(
            "index-ring",
            {"holes": 6, "diameter": 100, "hole_diameter": 40},
            land=10.0,
            fits=True,
        )
        self.told(
            "index-ring",
            {"holes": 6, "diameter": 100, "hole_diameter": 51},
            land=-1.0,
            fits=False,
        )

    def test_a_square_hole_is_refused_where_its_corners_break_through(self):
        self.told(
            "square-hole",
            {"size": 10, "bar": 25},
            pilot=10.4,
            drill=10.4,
            corner_distance=10 * math.sqrt(2),
            wall=(25 - 10 * math.sqrt(2)) / 2,
        )
        with self.assertRaises(BadInput) as refused:
            reckon("square-hole", {"size": 10, "bar": 14})
        self.assertEqual(refused.exception.key, "bar")

    def test_a_counterbore_for_a_cap_screw(self):
        """M8 by ISO 4762 and DIN 974-1: head 13 × 8, key 6, sunk 15 × 8.6."""
        self.told(
            "cap-screw",
            {"thread": "M8"},
            head_diameter=13.0,
            head_height=8.0,
            key_size=6.0,
            counterbore_diameter=15.0,
            counterbore_depth=8.6,
        )


class Bench(HandWorked):
    def test_an_arc_is_found_again_from_any_of_its_chords(self):
        rng = random.Random(5)
        for _ in range(50):
            radius, half = rng.uniform(5, 200), rng.uniform(0.1, 1.5)
            self.told(
                "arc-chord",
                {
                    "chord": 2 * radius * math.sin(half),
                    "height": radius * (1 - math.cos(half)),
                },
                radius=radius,
            )

    def test_a_chord_as_long_as_its_arm_is_a_sixth_of_a_turn(self):
        self.told("throw-angle", {"chord": 50, "arm": 50}, angle=60.0)
        with self.assertRaises(BadInput):
            reckon("throw-angle", {"chord": 101, "arm": 50})

    def test_two_balls_find_the_taper_again_that_held_them(self):
        """A ball's centre lies where the flank is its radius away, squarely."""
        half = math.atan(0.0502 / 2)

        def depth(ball):
            centre = (23.825 / 2 - ball / 2 / math.cos(half)) / math.tan(half)
            return centre - ball / 2

        self.told(
            "taper-balls",
            {
                "small": 20,
                "large": 23,
                "depth_small": depth(20),
                "depth_large": depth(23),
            },
            diameter=23.825,
            ratio=0.0502,
            places=6,
        )

    def test_twice_as_deep_into_a_taper_takes_twice_off(self):
        """1:20, 5 mm further: 0.25 mm on the diameter."""
        self.told(
            "taper-advance",
            {"taper": "1:20", "advance": 5},
            diameter_change=0.25,
            radial_infeed=0.125,
        )

    def test_half_the_bar_and_the_whole_block_come_off_a_reading(self):
        self.told("reading-less", {"reading": 60, "bar": 10, "parallel": 5}, size=50.0)

    def test_warm_aluminium_is_larger_than_the_steel_that_measures_it(self):
        """100 mm at 30 °C: 10 K of 23 less 11.5 millionths are 11.5 µm."""
        self.told(
            "measured-size",
            {
                "readings": [100.0],
                "instrument_uncertainty": 0.004,
                "temperature": 30,
                "material": "aluminium",
            },
            size=99.9885,
            places=4,
        )

    def test_a_t_nut_is_clear_of_its_slot_and_still_under_both_lips(self):
        """Neck 14.02 ± 0.01, play 0.1 to 0.2: tongue 13.81 to 13.91."""
        self.told(
            "t-nut",
            {
                "neck": 14.02,
                "neck_doubt": 0.01,
                "head": 24,
                "head_height": 10,
                "lip": 14,
                "play_least": 0.1,
                "play_most": 0.2,
            },
            tongue_lower=13.81,
            tongue_upper=13.91,
            head_upper=23.0,
            height_upper=9.5,
            overlap=4.04,
        )

    def test_a_set_screw_in_its_dimple_pushes_by_its_torque(self):
        """M6 at 3 N·m: 3 / (0.2 × 6 mm) = 2500 N; three of them on Ø30."""
        self.told(
            "screw-dimple",
            {"screw": "M6", "body": 30, "wall": 5, "around": 8, "torque": 3},
            depth_lower=1.2,
            depth_upper=2.4,
            push=2500.0,
            hold=7500.0,
            carries=112.5,
        )
