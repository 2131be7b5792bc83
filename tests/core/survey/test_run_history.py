import unittest

from machinon.core.errors import BadInput
from machinon.core.shop.things import Runs
from machinon.core.survey.run_history import runs_said, turn_of

NEW = Runs((0.0, 0.003, 0.006, 0.003), "2026-03-14T10:00:00+00:00")


class RunOutAgain(unittest.TestCase):
    def test_each_time_is_said_with_its_day(self):
        self.assertEqual(runs_said((NEW,), False), "Run-out: 6.0 µm on 2026-03-14.")

    def test_a_few_microns_are_the_reading(self):
        again = Runs((0.0, 0.004, 0.008, 0.004), "2026-11-26")
        self.assertIn("It runs as it did", runs_said((NEW, again), False))

    def test_a_chip_on_the_seat_throws_it_out_of_the_middle(self):
        """0, 15, 30, 15: offset 15 µm; new it was 3."""
        again = Runs((0.0, 0.015, 0.030, 0.015), "2026-11-26")
        says = runs_said((NEW, again), False)
        self.assertIn("24 µm worse, out of the middle", says)
        self.assertIn("chip", says)

    def test_an_oval_is_its_own_shape(self):
        """20 µm at two opposite places of eight: no offset at all."""
        oval = Runs((0.0, 0.01, 0.02, 0.01, 0.0, 0.01, 0.02, 0.01), "2026-11-26")
        self.assertIn("by its shape", runs_said((NEW, oval), False))

    def test_two_readings_are_refused(self):
        with self.assertRaisesRegex(BadInput, "three readings"):
            turn_of("0 0.01", False)
