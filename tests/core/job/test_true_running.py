import unittest

from msgspec.structs import replace

from machinon.core.job.job import ProofLog
from machinon.core.job.planning import plan_of
from machinon.core.job.true_running import expected_says, stations
from machinon.core.reckoning import reckon
from machinon.core.shop.things import Reading, Runs
from tests.scenario import CHUCK, LATHE, NOSE, SHOP, _chuck, _nose, back_plate, planned


def with_runs(job=None):
    """The nose read 2 µm out of the middle, high at 0°; the chuck 6 µm, at 90°."""
    nose = replace(_nose(NOSE), runs=(Runs((0.002, 0, -0.002, 0), "2026-03-01"),))
    chuck = replace(_chuck(CHUCK), runs=(Runs((0, 0.006, 0, -0.006), "2026-03-02"),))
    pieces = {"nose": nose, "chuck": chuck}
    return plan_of(job or back_plate(), SHOP, LATHE, pieces)


class WhatRunsOnWhat(unittest.TestCase):
    def test_play_lets_the_plate_run_out_and_the_chuck_by_both_plays(self):
        """The register slides with at most 25 µm, the spigot with at most 34: the plate
        swings 25, the chuck 59, and √(25² + 34²) = 42 with the high sides at chance."""
        plate, chuck = stations(planned())
        self.assertAlmostEqual(plate.most, 0.025, delta=2e-4)
        self.assertAlmostEqual(chuck.most, 0.059, delta=4e-4)
        self.assertAlmostEqual(chuck.typical, 0.0422, delta=3e-4)
        self.assertTrue(chuck.carried)

    def test_what_was_read_of_nose_and_chuck_is_added(self):
        """2 × (2 + 12.5) = 29, and 2 × (2 + 12.5 + 17 + 6) = 75."""
        plate, chuck = stations(with_runs())
        self.assertAlmostEqual(plate.most, 0.029, delta=2e-4)
        self.assertAlmostEqual(chuck.most, 0.075, delta=4e-4)
        answer = reckon("runout-stack", chuck.asked)
        self.assertAlmostEqual(answer["worst_tir"], chuck.most, places=4)
        self.assertAlmostEqual(answer["rss_tir"], chuck.typical, places=4)
        self.assertEqual(chuck.asked["elements"][-1]["clockings"], 3, "its bolts")

    def test_high_sides_that_are_known_are_turned_against_each_other(self):
        """Nose 2 at 0°, chuck 6 at 90°: a hole on, at 210°, √(3.20² + 3²) = 4.38 are
        left of 8; with the plays 2 × (4.38 + 12.5 + 17) = 68."""
        _, chuck = stations(with_runs())
        turned, most = chuck.clocked
        self.assertAlmostEqual(turned, 120)
        self.assertAlmostEqual(most, 0.0678, delta=4e-4)
        says = expected_says(with_runs(), False)
        self.assertIn("Best turned 120° from mark to mark", says)
        self.assertIsNone(stations(planned())[1].clocked, "no high side is known")

    def test_halves_that_were_measured_count_as_they_are(self):
        """A register of 46.003 on 45.993: 10 µm of play and the doubt of both."""
        surfaces = planned().job.proof.surfaces
        made = tuple(
            replace(
                surface, readings=(Reading(46.003, "bore-gauge", temperature=20.0),)
            )
            if surface.id == "fit.1"
            else surface
            for surface in surfaces
        )
        self.assertTrue(made)
        job = back_plate().with_work(proof=ProofLog(surfaces=made))
        plate, _ = stations(planned(job))
        self.assertGreater(plate.most, 0.010)
        self.assertLess(plate.most, 0.020)

    def test_a_reading_says_whether_the_seat_explains_it(self):
        def read(*turn: float) -> str:
            proof = replace(planned().job.proof, runout=turn)
            return expected_says(planned(back_plate().with_work(proof=proof)), False)

        self.assertIn("Its seat alone allows up to 25 µm", read(0.01, 0, -0.01, 0))
        self.assertIn("chip or a bruise", read(0.03, 0, -0.03, 0))
        # then the chuck stands on the plate as it ran: 60 + 34
        self.assertIn("on it: up to 94 µm", read(0.03, 0, -0.03, 0))

    def test_more_than_is_allowed_is_said_before_metal_is_cut(self):
        self.assertIn("More than the 20 µm allowed", expected_says(planned(), False))
        close = replace(planned().job.fit(1), want="wrung")
        job = back_plate().with_fit(close)
        self.assertIn("mounted: up to 16 µm.\n", expected_says(planned(job), False))
