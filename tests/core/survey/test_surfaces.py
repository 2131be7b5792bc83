"""Surfaces: what is added together, the sums behind readings, shape and standards."""

import math
import unittest

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.shop.things import Piece, Reading, Surface
from machinon.core.sizes.likely import likely_standards
from machinon.core.survey.as_typed import read_place, read_typed
from machinon.core.survey.measuring import measure, measured_text
from machinon.core.survey.reseating import reseating
from machinon.core.survey.surface_kinds import (
    new_surfaces,
    surface_forms,
    surface_groups,
)
from machinon.core.survey.surface_sums import SUMS, missing_aids, read_aid
from machinon.core.survey.thread_find import likely_threads
from machinon.draw.how_to_measure import SCENES
from tests.scenario import SHOP

PIECE = Piece("part", "Part", "other")


def surface(key: str, *readings, instrument="micrometer", **aids) -> Surface:
    """A surface of a form read with one instrument; a reading may have its place."""
    form = surface_forms()[key]
    pairs = [
        reading if isinstance(reading, tuple) else (reading, "") for reading in readings
    ]
    return Surface(
        key,
        form.name,
        form.kind,
        form.how,
        tuple(Reading(size, instrument, place=place) for size, place in pairs),
        aids,
    )


def measured(surface: Surface):
    return measure(surface, SHOP, "steel")


class WhatIsAdded(unittest.TestCase):
    def test_what_only_means_something_together_is_added_together(self):
        piece = PIECE
        for _ in range(2):
            for surface in new_surfaces(piece, "tee"):
                piece = piece.with_surface(surface)
        self.assertEqual(
            [surface.id for surface in piece.surfaces][3:5], ["tee-lip", "tee-neck-2"]
        )
        with self.assertRaisesRegex(BadInput, "did you mean"):
            new_surfaces(PIECE, "dovetial-out")

    def test_every_kind_can_be_added_and_has_its_picture(self):
        offered = {f.key for g in surface_groups().values() for f in g.forms}
        self.assertEqual(offered, set(surface_forms()))
        self.assertLessEqual(offered, set(SCENES))

    def test_every_kind_has_an_instrument_in_the_usual_set(self):
        for form in surface_forms().values():
            self.assertTrue(SHOP.instruments_for(form.kind), form.key)


class Sums(unittest.TestCase):
    def test_what_stands_in_a_reading_is_taken_out(self):
        """Each by hand: pins d (1 + cot 30°) = 27.3205; a chord of 73.4 over sin 45°;
        half a bar of 20 and a block of 10; a rim of 4.08 under a ball of 6."""
        for key, reading, aids, size in (
            ("over-pins", 137.32, {"pin": 10, "depth": 14}, 109.9995),
            ("between-pins", 98.9, {"pin": 10, "depth": 14}, 126.2205),
            ("bolt-circle", 80.0, {"hole": 6.6, "holes": 4}, 103.8033),
            ("hole-span", 86.0, {"hole": 6.0}, 80.0),
            # sides of 30, 40 and 50: a right angle, the circle stands on the longest
            ("hole-three", 56.0, {"hole": 6, "span_12": 36, "span_23": 46}, 50.0),
            ("centre-height", 145.0, {"bar": 20, "parallel": 10}, 125.0),
            ("depth", 22.0, {"parallel": 12}, 10.0),
            ("detent", 4.08, {"ball": 6}, 0.80036),
            ("throw", 60.0, {"arm": 80}, 44.0486),
            ("arc", 10.0, {"chord": 60}, 100.0),
        ):
            with self.subTest(key):
                found = measured(surface(key, reading, instrument="caliper", **aids))
                self.assertAlmostEqual(found.size, size, places=4)
                self.assertTrue(found.says)

    def test_two_balls_lie_in_the_taper_that_they_find(self):
        """Balls laid into a bore of 24 mm and 1 : 20 touch at R = (12 − z/40) cos a."""
        half = math.atan(1 / 40)
        depths = [
            (12 - ball / 2 / math.cos(half)) / math.tan(half) - ball / 2
            for ball in (20.0, 22.0)
        ]
        found = measured(
            surface(
                "taper-balls",
                depths[1],
                instrument="depth-gauge",
                small=20.0,
                large=22.0,
                depth_small=depths[0],
            )
        )
        self.assertAlmostEqual(found.size, 24.0, places=6)
        self.assertAlmostEqual(-1 / found.slope.ratio, 20.0, places=6)

    def test_the_reading_s_doubt_goes_through_the_sum(self):
        """At 45° a span's doubt counts 1.414 times in the circle."""
        span = surface("bolt-circle", 80.0, instrument="caliper", hole=6.6, holes=4)
        found = measured(span)
        self.assertAlmostEqual(found.uncertainty / found.mean_doubt, 2**0.5, places=4)

    def test_an_angle_is_said_as_one(self):
        throw = surface("throw", 60.0, instrument="caliper", arm=80)
        self.assertEqual(measured_text(throw, measured(throw), False), "44.05°")

    def test_a_pitch_stays_what_it_is_in_either_unit(self):
        for pitch, says in ((25.4 / 8, "8 tpi"), (4.5, "4.50 mm"), (0.2, "0.20 mm")):
            thread = surface("thread-pitch", pitch, instrument="thread-gauge")
            for inch in (False, True):
                with self.subTest(says, inch=inch):
                    self.assertEqual(
                        measured_text(thread, measured(thread), inch), says
                    )

    def test_a_reading_waits_for_what_stands_in_it(self):
        bare = surface("over-pins")
        self.assertEqual([a.key for a in missing_aids(bare)], ["pin", "depth"])
        with self.assertRaises(BadInput) as refused:
            read_typed("137.32", bare, False)
        self.assertEqual(refused.exception.key, "pin")
        self.assertIsNone(measured(surface("over-pins", 137.32)))

    def test_what_cannot_be_is_refused_where_it_was_typed(self):
        ring = surface("bolt-circle", hole=6.6, holes=4)
        with self.assertRaisesRegex(BadInput, "more than one hole"):
            read_typed("6", ring, False)
        with self.assertRaisesRegex(BadInput, "from 2"):
            read_aid(ring, "holes", "1", False)  # a pattern of one hole
        three = surface("hole-three", hole=6, span_12=36, span_23=46)
        with self.assertRaisesRegex(BadInput, "do not close"):
            read_typed("90", three, False)
        with self.assertRaisesRegex(BadInput, "Up to the ball"):
            read_typed("7", surface("detent", ball=6), False)
        with self.assertRaises(BadInput):
            read_aid(surface("shaft"), "pin", "10", False)

    def test_a_sum_that_cannot_be_done_is_said_and_no_size_is_made_of_it(self):
        found = measured(surface("over-pins", 20.0, pin=10, depth=14))
        self.assertIn("Nothing is left", found.refused)
        self.assertEqual((found.says, found.likely), ("", ()))

    def test_a_gauge_that_types_like_a_keyboard_is_read(self):
        shaft = surface("shaft")
        for typed in ("45.993", "+0045.993 mm", " 45.993mm", "1.81075 in"):
            self.assertAlmostEqual(read_typed(typed, shaft, False), 45.993, places=3)

    def test_every_sum_names_inputs_that_its_reckoning_has(self):
        for listed in SUMS.values():
            self.assertEqual(len(listed.asks), len(listed.aids))


class Shape(unittest.TestCase):
    def test_taper_and_out_of_round_where_places_differ(self):
        found = measured(
            surface(
                "shaft",
                (25.000, "front 0°"),
                (25.004, "front 90°"),
                (25.010, "back 0°"),
                (25.012, "back 90°"),
            )
        )
        self.assertAlmostEqual(found.taper, 0.009, places=6)
        self.assertAlmostEqual(found.out_of_round, 0.004, places=6)
        self.assertIsNone(measured(surface("shaft", 25.0, 25.1)).taper)

    def test_places_are_typed_as_one_says_them(self):
        bore, cone = surface("bore"), surface("taper-in")
        for typed, kept in (("", ""), ("Front", "front"), ("back 90", "back 90°")):
            self.assertEqual(read_place(typed, bore, False), kept)
        self.assertEqual(read_place("2in", cone, False), "50.8 mm")
        for wrong in ("sideways", "front 400", "90 front"):
            with self.assertRaisesRegex(BadInput, "front, middle, back"):
                read_place(wrong, bore, False)

    def test_a_taper_is_the_line_through_its_readings(self):
        """MT3 is 1 : 19.922; 50 mm along it the diameter is 2.5098 smaller."""
        socket = surface(
            "taper-in",
            (23.825, "0 mm"),
            (23.825 - 25 / 19.922, "25 mm"),
            (23.825 - 50 / 19.922, "50 mm"),
            instrument="bore-gauge",
        )
        found = measured(socket)
        self.assertAlmostEqual(found.size, 23.825, places=6)
        self.assertAlmostEqual(-1 / found.slope.ratio, 19.922, places=3)
        self.assertEqual(found.nominal, "MT3")
        self.assertEqual(found.doubts, (), "readings along a taper differ by right")
        one_place = replace(socket, readings=socket.readings[:1])
        self.assertIsNone(measured(one_place).slope)


class Standards(unittest.TestCase):
    def first(self, *asked):
        return likely_standards(*asked)[0].name

    def test_what_it_was_made_to(self):
        for asked, name in (
            (("shaft", "outside", 15.98, 0.006), "16 mm shaft"),
            (("shaft", "outside", 19.05, 0.004), "3/4 in shaft"),
            (("tee-neck", "gap", 14.03, 0.004), "14 mm T-slot, studs M12"),
            (("key-width", "gap", 6.02, 0.004), "6 mm key, shafts over 17 to 22"),
            (("hexagon", "outside", 15.9, 0.03), "16 mm hexagon, as of M10"),
            (("taper-out", "outside", 17.7, 0.005, 0.04995, 2e-5), "MT2"),
        ):
            with self.subTest(name):
                self.assertEqual(self.first(*asked), name)
        self.assertEqual(likely_standards("shaft", "outside", 41.23, 0.004), ())

    def test_a_socket_is_likelier_the_whole_morse_taper_than_a_chuck_s_part_of_it(self):
        """B18 and B24 are Morse 2 and 3 cut short; B16 has a size of its own."""
        for size, ratio, likeliest in (
            (17.78, 0.04995, "MT2"), (23.851, 0.05016, "MT3"), (15.73, 0.04995, "B16"),
        ):  # fmt: skip
            socket = ("taper-in", "inside", size, 0.008, ratio, 2e-4)
            first, second = likely_standards(*socket)[:2]
            self.assertEqual(first.name, likeliest)
            self.assertGreater(first.chance, 1.4 * second.chance)

    def test_chances_add_up_and_fall(self):
        found = likely_threads(7.9, False, None, 0.03)
        self.assertGreater(len(found), 1, "without a pitch several are possible")
        chances = [likely.chance for likely in found]
        self.assertEqual(chances, sorted(chances, reverse=True))
        self.assertLessEqual(sum(chances), 1 + 1e-9)

    def test_an_inch_thread_in_a_metric_shaft_is_found(self):
        names = {likely.name for likely in likely_threads(7.85, False, 25.4 / 18, 0.03)}
        self.assertEqual(names, {"5/16-18 UNC", "5/16 BSW"})

    def test_a_bearing_s_size_is_said(self):
        found = likely_standards("shaft", "outside", 25.004, 0.004)
        self.assertIn("bearing of 25", found[0].note)


class Reseating(unittest.TestCase):
    def says(self, *runouts):
        mounted = surface("reseat", *runouts, instrument="indicator")
        return reseating(measured(mounted))

    def test_five_mountings_tell(self):
        self.assertIn("5 more times", self.says())
        self.assertIn("1 more time ", self.says(0.01, 0.01, 0.012, 0.01))
        self.assertIn("nothing is amiss", self.says(0.01, 0.008, 0.012, 0.01, 0.01))
        self.assertIn("clocked out", self.says(0.05, 0.05, 0.052, 0.05, 0.051))
        self.assertIn("burrs", self.says(0.01, 0.05, 0.02, 0.01, 0.04))
