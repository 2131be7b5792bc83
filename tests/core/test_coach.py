import dataclasses
import random
import unittest

from machinon.core.coach import (
    CutEntry,
    CutState,
    Dial,
    advise,
    cuts_taken,
    forecast,
    learned_ratio,
)

SHAFT = CutState(
    external=True,
    lower=94.990,
    upper=95.004,
    aim=94.997,
    start=96.0,
    entries=(),
    uncertainty=0.004,
    division=0.005,
)


def after(state: CutState, *cuts) -> CutState:
    return dataclasses.replace(state, entries=tuple(CutEntry(*cut) for cut in cuts))


def worked(state: CutState, ratio: float, rng: random.Random) -> tuple[str, float, int]:
    """Follow the coach on a lathe that takes `ratio` of the dial.

    Returns how it ended, the true size, and the number of cuts.
    """
    sign = -1 if state.external else 1
    true, dial, cuts = state.start, 0.0, 0
    error = rng.gauss(0, 0.010)  # of the touch, radial
    for _ in range(30):
        advice = advise(state)
        if advice.action in ("stop", "scrapped"):
            return advice.action, true, cuts
        if advice.infeed > 0:
            step = advice.infeed + (error if dial == 0 else 0)
            true += sign * 2 * step * ratio + rng.gauss(0, 0.001)
            dial = advice.dial
            cuts += 1
        reading = round(true + rng.gauss(0, state.uncertainty / 4), 3)
        entry = CutEntry(dial, reading)
        state = dataclasses.replace(state, entries=(*state.entries, entry))
    return "lost", true, cuts


class AtTheDial(unittest.TestCase):
    def test_nothing_is_advised_before_the_first_measurement(self):
        self.assertEqual(advise(dataclasses.replace(SHAFT, start=None)).action, "start")

    def test_two_equal_cuts_then_one_scaled_by_what_the_tool_took(self):
        """Touch 96.000; two cuts of 0.11 take 0.100 each (on the radius).

        0.803 left at 0.91 of the dial is 0.44 radial; the third cut is scaled.
        """
        state = dataclasses.replace(SHAFT, start=95.60)
        first = advise(state)
        self.assertEqual(first.action, "trial")
        state = after(state, (0.10, 95.42))
        second = advise(state)
        self.assertAlmostEqual(second.infeed, 0.10, places=6)
        self.assertIn("second of two equal", second.why)
        state = after(state, (0.10, 95.42), (0.20, 95.24))
        last = advise(state)
        ratio, _ = learned_ratio(state)
        self.assertAlmostEqual(ratio, 0.915, delta=0.02)
        self.assertAlmostEqual(last.infeed, 0.243 / 2 / ratio, delta=state.division)
        self.assertIn("scaled", last.why)

    def test_what_the_tool_took_is_dialled_against_removed(self):
        taken = cuts_taken(after(SHAFT, (0.1, None), (0.2, 95.62), (0.3, 95.43)))
        self.assertAlmostEqual(taken[0].dialled, 0.2)
        self.assertAlmostEqual(taken[0].removed, 0.19)
        self.assertAlmostEqual(taken[1].ratio, 0.95)

    def test_it_stops_in_the_band_and_only_there(self):
        for size, action in (
            (95.004, "stop"),
            (94.990, "stop"),
            (94.9895, "measure"),
            (94.98, "scrapped"),
        ):
            with self.subTest(size):
                self.assertEqual(advise(after(SHAFT, (0.5, size))).action, action)
        self.assertIn(advise(after(SHAFT, (0.5, 95.02))).action, ("trial", "cut"))

    def test_a_bore_is_the_shaft_turned_inside_out(self):
        """Mirrored about a size, a bore gets the same dial as a shaft."""
        bore = dataclasses.replace(
            SHAFT, external=False, lower=96.996, upper=97.010, aim=97.003
        )
        for cuts in ((), ((0.1, 0.19),), ((0.1, 0.19), (0.2, 0.38))):
            shaft = after(SHAFT, *((d, 96.0 - off) for d, off in cuts))
            hole = after(bore, *((d, 96.0 + off) for d, off in cuts))
            self.assertAlmostEqual(advise(shaft).infeed, advise(hole).infeed, places=6)

    def test_advice_is_in_whole_divisions_and_never_deeper_than_allowed(self):
        state = dataclasses.replace(SHAFT, start=99.0, deepest=0.5, division=0.01)
        for advice in forecast(state):
            self.assertLessEqual(advice.infeed, 0.5 + 1e-9)
            self.assertAlmostEqual(
                advice.dial / 0.01, round(advice.dial / 0.01), places=6
            )

    def test_a_division_wider_than_the_band_wants_the_compound_set_over(self):
        state = dataclasses.replace(SHAFT, division=0.02)
        self.assertIn("compound", advise(after(state, (0.4, 95.01))).why)

    def test_following_it_ends_in_the_band_on_lathes_of_all_habits(self):
        """200 made-up lathes, shafts and bores, seeded: none is scrapped."""
        rng = random.Random(7)
        for i in range(200):
            state = SHAFT
            if i % 2:
                state = dataclasses.replace(
                    SHAFT, external=False, lower=96.996, upper=97.010, aim=97.003
                )
            ending, true, cuts = worked(state, rng.uniform(0.85, 1.0), rng)
            self.assertEqual(ending, "stop", i)
            self.assertLess(abs(true - state.aim), 0.007 + 0.004, i)
            self.assertLessEqual(cuts, 9, i)


class Dials(unittest.TestCase):
    def test_a_diameter_dial_counts_twice_the_travel(self):
        dial = Dial("diameter", 0.02)
        self.assertAlmostEqual(dial.travel, 0.01)
        self.assertAlmostEqual(dial.shows(0.42, touch=1.2), 2.04)

    def test_a_position_read_back_is_the_position_dialled(self):
        for reads in ("diameter", "radius"):
            dial = Dial(reads, 0.02)
            self.assertAlmostEqual(dial.position(dial.shows(0.37, 1.3), 1.3), 0.37)
