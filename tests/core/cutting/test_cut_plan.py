import unittest

from msgspec.structs import replace

from machinon.core.cutting.cut_plan import CutWorths, EndWorth, ThisLathe

BAND = EndWorth(enters=0.004, leaves=0.004, zero=0.0005**2)
LATHE = ThisLathe(
    share=0.9,
    push=0.004,
    rubs=0.008,
    rubs_sigma=0.003,
    division=0.005,
    seat=0.0015**2,
    tools=(0.0015**2,) * 6,
    read=0.0005**2,
    springs=False,
    again=False,
)


class Onward(unittest.TestCase):
    """A band of 8 µm on the radius, lines of 5, a tool that takes nine tenths."""

    def setUp(self):
        self.plan = CutWorths(BAND, LATHE)

    def worth(self, of, left, lag):
        return float(self.plan.at(getattr(self.plan, of), left, lag))

    def test_a_surface_in_the_band_is_left_as_it_is_and_one_past_it_is_lost(self):
        self.assertGreater(self.worth("read", 0.0, 0.003), 0.97)
        self.assertLess(self.worth("cut", 0.0, 0.003), self.worth("read", 0.0, 0.003))
        self.assertLess(self.worth("read", -0.010, 0.003), -0.9)

    def test_with_metal_left_it_is_cut(self):
        for left in (0.02, 0.04, 0.06):
            with self.subTest(left):
                self.assertAlmostEqual(
                    self.worth("read", left, 0.003),
                    self.worth("cut", left, 0.003),
                    delta=0.01,
                )
                self.assertGreater(self.worth("cut", left, 0.003), 0.6)

    def test_where_more_sprang_away_than_is_left_any_cut_goes_past(self):
        """0.040 before the tool and a line of 0.005: 0.9 × 0.045 less 0.004 is 0.037,
        where 0.020 is left. It is worth nothing to go on, and nothing to end."""
        self.assertLess(self.worth("cut", 0.020, 0.040), 0.0)
        self.assertAlmostEqual(self.worth("read", 0.020, 0.040), 0.0, delta=0.01)

    def test_a_pass_without_infeed_brings_off_what_sprang_away(self):
        """It takes 0.65 of 0.9 × 0.040 less 0.004: 0.021, where 0.020 is left."""
        self.plan = CutWorths(BAND, replace(LATHE, springs=True))
        self.assertGreater(self.worth("passed", 0.020, 0.040), 0.3)
        self.assertLess(self.worth("cut", 0.020, 0.040), 0.0)

    def test_the_surer_a_setting_lies_the_more_a_cut_is_worth(self):
        rough = CutWorths(BAND, replace(LATHE, seat=0.004**2, tools=(0.004**2,) * 6))
        for left in (0.02, 0.04):
            with self.subTest(left):
                self.assertGreater(
                    self.worth("cut", left, 0.003),
                    float(rough.at(rough.cut, left, 0.003)) + 0.05,
                )
