"""The coach asked by message: signs, shares and chances as a lathe has them."""

import io
import json
import unittest
from contextlib import redirect_stderr

from machinon.commandline import coach_command, stream
from machinon.core.cutting.coaching import advice_for
from machinon.core.errors import BadInput

SHAFT = {
    "feature": {"kind": "external", "lower": 94.990, "upper": 95.004},
    "dial": {"reads": "diameter", "division": 0.02},
    "instrument": {
        "resolution": 0.001,
        "sigma": 0.001,
        "zero": {"offset": 0.0, "sigma": 0.0},
    },
    "start_diameter": 96.0,
    "touch": 1.2,
}


def cut(*lines, **changes):
    history = [dict(zip(("dial", "measured"), line, strict=True)) for line in lines]
    return advice_for({**SHAFT, "history": history, **changes})


class OddSituations(unittest.TestCase):
    """What a machinist looking on would stop at."""

    def test_a_shaft_that_grew_is_read_again_before_any_metal(self):
        for readings in ((96.05,), (96.05, 96.051)):
            advice = cut(*((0.1, reading) for reading in readings))
            self.assertEqual(advice["action"], "measure")
        self.assertIn("larger than before the cut", advice["why"])

    def test_cuts_that_took_nothing_may_all_come_off_at_once(self):
        light = ((0.1, 95.8), (0.2, 95.6), (0.47, 95.03), (0.475, 95.03), (0.48, 95.03))
        advice = cut(*light)
        self.assertEqual(advice["action"], "trial")
        self.assertIn("all of it may come off at once", advice["why"])

    def test_a_misspelt_key_is_refused_where_it_stands(self):
        for message, place in (
            ({**SHAFT, "histroy": []}, "histroy"),
            ({**SHAFT, "limits": {"deapest": 0.3}}, "limits.deapest"),
            ({**SHAFT, "history": [{"dial": 0.1, "mesured": 95.8}]}, "history.mesured"),
        ):
            with self.assertRaisesRegex(BadInput, "is not known") as raised:
                advice_for(message)
            self.assertEqual(raised.exception.key, place)
        self.assertTrue(advice_for({**SHAFT, "job": "plate", "history": []}))

    def test_a_gauge_whose_zero_nobody_checked_is_less_sure(self):
        """Unchecked, a zero is about as doubtful as a reading, and work of 95 mm may
        be half a degree warm: 95 · 11.7e-6 · 0.5 is 0.6 µm."""
        unchecked = {"resolution": 0.001, "sigma": 0.001}
        lines = (0.1, 95.8), (0.2, 95.6), (0.505, 94.995)
        sure, unsure = cut(*lines), cut(*lines, instrument=unchecked)
        self.assertGreater(unsure["sigma"], sure["sigma"])
        self.assertGreaterEqual(unsure["sigma"], 0.00104)
        self.assertLess(unsure["chance_in_band"], sure["chance_in_band"])

    def test_the_same_warning_is_not_given_with_every_roughing_cut(self):
        coarse = {"reads": "diameter", "division": 0.05}
        self.assertIn("wider than the band", cut(dial=coarse)["why"])
        rough = cut((0.1, 97.8), dial=coarse, start_diameter=98.0)
        self.assertEqual(rough["action"], "cut")
        self.assertNotIn("wider than the band", rough["why"])


class AskedByMessage(unittest.TestCase):
    def test_the_dial_shows_twice_the_travel_from_what_it_showed_at_touch(self):
        advice = cut()
        self.assertIn(advice["action"], ("cut", "trial"))
        self.assertAlmostEqual(advice["reading"], 1.2 + 2 * advice["dial"])
        self.assertAlmostEqual(advice["dial"] / 0.01, round(advice["dial"] / 0.01))
        radius = cut(dial={"reads": "radius", "division": 0.01})
        self.assertAlmostEqual(radius["dial"], advice["dial"])
        self.assertAlmostEqual(radius["reading"], 1.2 + radius["dial"])

    def test_a_position_between_two_lines_is_left_for_a_whole_division(self):
        advice = cut((0.103, 95.8))
        self.assertAlmostEqual(advice["dial"] / 0.01, round(advice["dial"] / 0.01))
        self.assertGreaterEqual(advice["infeed"], 0.01 - 1e-9)

    def test_in_the_band_it_stops_and_is_sure(self):
        advice = cut((0.1, 95.8), (0.2, 95.6), (0.51, 94.997))
        self.assertEqual(advice["action"], "stop")
        self.assertEqual(advice["infeed"], 0)
        self.assertGreater(advice["chance_in_band"], 0.99)
        self.assertLess(advice["chance_past"], 0.001)

    def test_the_limit_that_cannot_be_undone_is_the_lower_of_a_shaft(self):
        """Read 94.990 with sigma 1 µm: as likely past as not; of a bore, safe."""
        on_edge = cut((0.51, 94.990))
        self.assertAlmostEqual(on_edge["chance_past"], 0.5, delta=0.02)
        bore = cut(
            (0.51, 94.990),
            feature={**SHAFT["feature"], "kind": "internal"},
            start_diameter=94.0,
        )
        self.assertLess(bore["chance_past"], 0.002)

    def test_what_is_at_size_before_the_first_cut_is_read_again_and_left(self):
        self.assertEqual(cut(start_diameter=94.997)["action"], "measure")
        again = cut((0.0, 94.997), start_diameter=94.997)
        self.assertEqual((again["action"], again["infeed"]), ("stop", 0))
        under = cut((0.0, 94.9), (0.0, 94.9), start_diameter=94.9)
        self.assertEqual(under["action"], "scrapped")

    def test_a_warm_part_and_a_gauge_that_reads_long_are_put_right(self):
        """Steel 20 K warm at 95 mm is 95 · 11.5e-6 · 20 = 21.9 µm long."""
        warm = cut(history=[{"dial": 0.51, "measured": 95.0189, "temperature": 40}])
        self.assertEqual(warm["action"], "stop")
        self.assertAlmostEqual(warm["predicted"], 94.997, delta=0.0002)
        gauge = {**SHAFT["instrument"], "zero": {"offset": 0.02, "sigma": 0.003}}
        long = cut((0.51, 95.017), instrument=gauge)
        self.assertAlmostEqual(long["predicted"], 94.997, delta=0.0002)
        self.assertGreater(long["sigma"], 0.003)

    def test_what_is_odd_is_said(self):
        why = cut((0.2, 95.22))["why"]
        self.assertIn("2 times what was dialled", why)
        self.assertNotIn("times what was dialled", cut((0.2, 95.61))["why"])
        wide = cut(dial={"reads": "radius", "division": 0.05})["why"]
        self.assertIn("set the compound over", wide)
        gauge = {"resolution": 0.001, "sigma": 0.002}
        self.assertIn("ring or standard", cut(instrument=gauge)["why"])
        self.assertIn("too coarse", cut(instrument={**gauge, "sigma": 0.01})["why"])

    def test_after_a_dial_that_takes_double_the_next_cut_is_halved(self):
        honest, double = cut((0.2, 95.61)), cut((0.2, 95.22))
        self.assertLess(double["infeed"], honest["infeed"])
        taken = 95.22 - double["predicted"]
        self.assertAlmostEqual(taken, 4 * double["infeed"], delta=0.03)

    def test_a_refusal_names_its_place(self):
        for changes, place in (
            ({"feature": {"kind": "external", "lower": 1}}, "feature"),
            ({"start_diameter": float("nan")}, "start_diameter"),
            ({"history": [{"dial": 0.2}, {"dial": 0.1}]}, "history[1].dial"),
            ({"feature": {**SHAFT["feature"], "aim": 90}}, "feature.aim"),
            ({"material": "cheese"}, "material"),
            ({"school": {"spring_pass": "often"}}, "school.spring_pass"),
        ):
            with self.subTest(place), self.assertRaises(BadInput) as no:
                advice_for({**SHAFT, **changes})
            self.assertEqual(no.exception.key, place)

    def test_each_line_gets_one_answer_with_its_id(self):
        lines = [json.dumps({**SHAFT, "id": 7}), "{", json.dumps({"id": "b"})]
        out = io.StringIO()
        stream(io.StringIO("\n".join(lines)), out, advice_for)
        answers = [json.loads(line) for line in out.getvalue().splitlines()]
        self.assertEqual([answer.get("id") for answer in answers], [7, None, "b"])
        self.assertEqual(["error" in answer for answer in answers], [False, True, True])
        with redirect_stderr(io.StringIO()) as said:
            self.assertEqual(coach_command(["--odd"]), 2)
        self.assertIn("coach --stream", said.getvalue())
