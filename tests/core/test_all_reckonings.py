"""Every reckoning of the trade, against tables, closed forms and inverses."""

import itertools
import json
import math
import random
import unittest

from machinon.core.errors import BadInput
from machinon.core.quantity import INCH
from machinon.core.reckoning import FLAG, OBJECT, TEXT, reckon, reckonings
from machinon.core.sizes.inch_limits import inch_fits
from machinon.core.tables import rows
from machinon.core.tapers.tapers import named_tapers
from machinon.core.threads.change_gears import trains
from machinon.core.threads.screw_thread import known_threads, thread_of
from machinon.core.threads.tapping import drills
from tests.trials import SEED, TIMES

USUAL = {name: dict(reckoning.usual) for name, reckoning in reckonings().items()}


def numbers(value):
    if isinstance(value, dict):
        for inner in value.values():
            yield from numbers(inner)
    elif isinstance(value, list | tuple):
        for inner in value:
            yield from numbers(inner)
    elif isinstance(value, int | float):
        yield value


class AllOfThem(unittest.TestCase):
    def test_each_has_a_usual_question_and_answers_it_whole(self):
        for name, inputs in USUAL.items():
            with self.subTest(name):
                answer = reckon(name, inputs)
                known = {result.key for result in reckonings()[name].results}
                self.assertLessEqual(set(answer.results), known)
                self.assertTrue(answer.sources)
                json.dumps(answer.as_json(), allow_nan=False)

    def test_bad_figures_are_refused_by_name_and_never_answered_with_nonsense(self):
        """Every input of every reckoning, given rubbish, out of reason, or odd."""
        rng = random.Random(SEED)
        odd = [
            "",
            "abc",
            "nan",
            "-1",
            "0",
            "1e9",
            "1e-9",
            "1/0",
            None,
            True,
            [],
            {},
            float("nan"),
            float("inf"),
            -3,
            0,
            1e12,
            7,
            "7",
            0.5,
            ["x"],
            [1, -1],
        ]
        for name, usual in USUAL.items():
            for given in reckonings()[name].inputs:
                values = [*odd, *(rng.uniform(-5, 300) for _ in range(6 * TIMES))]
                for value in values:
                    with self.subTest(name, key=given.key, value=value):
                        try:
                            answer = reckon(name, {**usual, given.key: value})
                        except BadInput as error:
                            self.assertTrue(error.message)
                            self.assertTrue(error.key)
                        else:
                            for number in numbers(dict(answer.results)):
                                self.assertTrue(math.isfinite(number))

    def test_an_inch_and_a_metric_question_get_the_same_answer(self):
        for name, inputs in (
            ("polygon", {"sides": 6, "across_flats": 25.4}),
            ("dovetail", {"pin": 12.7, "width_bottom": 50.8, "depth": 25.4}),
            ("taper-angle", {"large": 25.4, "small": 12.7, "length": 254}),
            ("press-fit", USUAL["press-fit"]),
        ):
            inches = {
                key: value / INCH
                if isinstance(value, int | float) and key not in ("sides",)
                else value
                for key, value in inputs.items()
            }
            metric = reckon(name, inputs)
            typed = {
                key: f"{value:.12g}" if isinstance(value, float) else value
                for key, value in inches.items()
            }
            for key, value in reckon(name, typed, inch=True).results.items():
                self.assertAlmostEqual(
                    value, metric[key], places=5, msg=f"{name} {key}"
                )

    def test_a_flag_word_and_object_are_checked_too(self):
        kinds = {given.kind.name for r in reckonings().values() for given in r.inputs}
        self.assertLessEqual({FLAG.name, TEXT.name, OBJECT.name}, kinds)


class Threads(unittest.TestCase):
    def test_unified_limits_as_printed(self):
        """ASME B1.1: 1/4-20 UNC and 1/2-13 UNC, inches."""
        for name, classes, printed in (
            (
                "1/4-20",
                {},
                (0.196, 0.207, 0.2175, 0.2224, 0.2408, 0.2489, 0.2127, 0.2164),
            ),
            (
                "1/2-13",
                {},
                (0.417, 0.434, 0.4500, 0.4565, 0.4876, 0.4985, 0.4435, 0.4485),
            ),
            (
                "1/4-28",
                {"internal_class": "3B", "external_class": "3A"},
                (0.2113, 0.2190, 0.2268, 0.2300, 0.2435, 0.2500, 0.2243, 0.2268),
            ),
        ):
            answer = reckon("thread", {"thread": name, **classes})
            keys = [
                "internal_minor_min",
                "internal_minor_max",
                "internal_pitch_min",
                "internal_pitch_max",
                "external_major_min",
                "external_major_max",
                "external_pitch_min",
                "external_pitch_max",
            ]
            for key, inches in zip(keys, printed, strict=True):
                with self.subTest(name, key=key):
                    self.assertAlmostEqual(answer[key] / INCH, inches, delta=0.00011)

    def test_other_metric_classes_as_printed(self):
        """ISO 965-2: M8 5H is 6.647 to 6.859 and 7.188 to 7.313; 4h 7.113 to 7.188."""
        answer = reckon(
            "thread", {"thread": "M8", "internal_class": "5H", "external_class": "4h"}
        )
        for key, printed in (
            ("internal_minor_max", 6.859),
            ("internal_pitch_max", 7.313),
            ("external_pitch_min", 7.113),
            ("external_major_min", 7.868),
        ):
            self.assertAlmostEqual(answer[key], printed, places=3)

    def test_whitworth_ba_and_pipe_as_printed(self):
        """BS 84: 1/2 BSW effective 0.4466 in; BS 93: 2BA 4.215, 3.730; G1/2 19.793."""
        self.assertAlmostEqual(thread_of("1/2 BSW").pitch_diameter / INCH, 0.4466, 4)
        self.assertAlmostEqual(thread_of("2BA").pitch_diameter, 4.215, delta=0.0011)
        self.assertAlmostEqual(thread_of("G1/2").pitch_diameter, 19.793, places=3)
        self.assertAlmostEqual(thread_of("G1/2").minor_internal, 18.631, delta=0.001)
        self.assertAlmostEqual(thread_of("Tr20x4").minor_external, 15.5, places=6)

    def test_every_listed_thread_is_found_by_its_own_name(self):
        for thread in known_threads().values():
            with self.subTest(thread.name):
                found = thread_of(thread.name)
                self.assertAlmostEqual(found.major, thread.major)
                self.assertAlmostEqual(found.pitch, thread.pitch)

    def test_designations_of_every_habit(self):
        for name, major, pitch in (
            ("M12", 12, 1.75),
            ("m12×1.5", 12, 1.5),
            ("1/4-20", 6.35, 1.27),
            ("#10-32", 4.826, 25.4 / 32),
            ("1/4 BSW", 6.35, 1.27),
            ("1 1/8-12 W", 28.575, 25.4 / 12),
            ("1 1/2-8 UN", 38.1, 3.175),
            ("7/16-24 UNS", 11.1125, 25.4 / 24),
        ):
            with self.subTest(name):
                self.assertAlmostEqual(thread_of(name).major, major)
                self.assertAlmostEqual(thread_of(name).pitch, pitch)
        for name in ("1/4-21 UNC", "1/4", "M19", "G7/16", "99BA", "1/0-20", "#-3"):
            with self.subTest(name), self.assertRaises(BadInput):
                thread_of(name)

    def test_a_made_thread_is_recognised_among_all_families(self):
        """A little under its nominal, as threads are made."""
        for name in ("M8", "5/16-24 UNF", "3/8 BSF", "2BA", "M39x3", "1-8 UNC", "G1/4"):
            thread = thread_of(name)
            answer = reckon(
                "thread-identify",
                {
                    "measured_major": thread.major - 0.05 * thread.pitch,
                    "pitch": thread.pitch,
                },
            )
            with self.subTest(name):
                first = thread_of(answer["candidates"][0]["thread"])
                self.assertAlmostEqual(first.major, thread.major, delta=0.03)
                self.assertAlmostEqual(first.pitch, thread.pitch, delta=0.01)

    def test_two_that_only_the_flanks_tell_apart(self):
        answer = reckon("thread-identify", {"measured_major": 7.85, "tpi": 18})
        self.assertFalse(answer["told_apart"])
        self.assertIn("flanks", answer["decides"])

    def test_usual_tapping_drills(self):
        """Handbook drills: M8 6.8, 1/4-20 #7, 10-32 #21, 5/16-18 F, 1/2-13 27/64."""
        for thread, drill in (
            ("M8", "6.8 mm"),
            ("M10", "8.5 mm"),
            ("1/4-20", "#7"),
            ("#10-32", "#21"),
            ("5/16-18", "F"),
            ("1/2-13", "27/64"),
        ):
            self.assertEqual(reckon("tap-drill", {"thread": thread})["drill"], drill)

    def test_a_tap_drill_gives_back_its_engagement(self):
        answer = reckon("tap-drill", {"thread": "M8", "engagement": "75%"})
        again = reckon(
            "tap-drill", {"thread": "M8", "engagement": answer["engagement"]}
        )
        self.assertAlmostEqual(again["ideal"], answer["drill_size"], places=9)
        self.assertIn(
            "75 %", reckon("tap-drill", {"thread": "M8", "engagement": 0.75}).notes[0]
        )

    def test_wires_measured_give_back_the_pitch_diameter(self):
        for name in ("M10", "1/2-13", "1/2 BSW", "Tr20x4"):
            answer = reckon("thread-wires", {"thread": name})
            back = reckon(
                "thread-wires", {"thread": name, "measured": answer["over_wires"]}
            )
            self.assertAlmostEqual(
                back["pitch_diameter"], thread_of(name).pitch_diameter, places=9
            )
        with self.assertRaisesRegex(BadInput, "cannot touch"):
            reckon("thread-wires", {"thread": "M10", "wire": 2})

    def test_passes_add_up_to_the_depth(self):
        """M10: 0.613435 · 1.5 = 0.92015; along 29.5° 1.0572."""
        answer = reckon("thread-passes", {"thread": "M10"})
        self.assertAlmostEqual(answer["total_depth"], 0.92015, places=4)
        self.assertAlmostEqual(
            sum(p["radial"] for p in answer["passes"]), answer["total_depth"], places=9
        )
        self.assertAlmostEqual(answer["compound_total"], 1.0572, places=4)
        depths = [p["radial"] for p in answer["passes"] if p["radial"]]
        self.assertEqual(depths, sorted(depths, reverse=True))
        sharp = reckon("thread-passes", {"thread": "M10", "depth": "sharp"})
        self.assertAlmostEqual(sharp["total_depth"], 1.29904, places=5)

    def test_the_dial_on_an_inch_screw(self):
        """8 tpi screw, 16 teeth: 20 tpi any mark, 11.5 tpi the same, metric never."""

        def ask(thread):
            return reckon("thread-dial", {"thread": thread, "leadscrew": "8tpi"})

        self.assertEqual(len(ask("1/4-20")["marks"]), 8)
        self.assertEqual(ask("1-11.5 UNS")["marks"], [8])
        self.assertTrue(ask("M12")["keep_engaged"])
        self.assertIn("anywhere", ask("5/8-8 UNS")["rule"])

    def test_trains_come_out_at_the_pitch_they_say(self):
        """127 over 100 makes an inch screw metric and back, exactly."""
        answer = reckon(
            "change-gears",
            {"tpi": 20, "leadscrew": 4, "gears": [20, 40, 50, 80, 100, 127, 63, 60]},
        )
        first = answer["trains"][0]
        self.assertEqual(first["error_percent"], 0)
        for train in answer["trains"]:
            made = 4 * math.prod(train["drivers"]) / math.prod(train["driven"])
            self.assertAlmostEqual(made, train["pitch"], places=9)
            self.assertAlmostEqual(
                (made / 1.27 - 1) * 100, train["error_percent"], places=6
            )
        errors = [abs(t["error_percent"]) for t in answer["trains"]]
        self.assertEqual(errors, sorted(errors))

    def test_of_many_exact_trains_none_is_passed_over(self):
        """However few are listed: one that mounts may be among any of them."""
        wheels = range(20, 80, 2)
        exact = set()
        for over in itertools.combinations(wheels, 2):
            for under in itertools.combinations(wheels, 2):
                if not {*over} & {*under} and math.prod(over) == math.prod(under):
                    exact.add((over, under))
        found = {
            (tuple(sorted(train.drivers)), tuple(sorted(train.driven)))
            for train in trains(4, 4, list(wheels), most=1)
            if train.error_percent == 0
        }
        self.assertEqual(found, exact)

    def test_engagement_grows_as_the_nut_gets_weaker(self):
        lengths = [
            reckon(
                "thread-engagement",
                {"thread": "M8", "screw_strength": 800, "nut_strength": s},
            )
            for s in (800, 400, 200)
        ]
        self.assertLess(lengths[0]["minimum_length"], 8)
        self.assertEqual(lengths[2]["strips_first"], "nut")
        self.assertAlmostEqual(
            lengths[2]["minimum_length"], 2 * lengths[1]["minimum_length"], places=6
        )


class FitsAndMaterials(unittest.TestCase):
    def test_inch_fits_as_printed(self):
        """ANSI B4.1 at 1 in: RC4 0.8 to 2.8 thou; LN2 0 to −1.3; FN5 −1.3 to −3.3."""
        for fit, least, most in (
            ("RC4", 0.8, 2.8),
            ("RC1", 0.3, 0.95),
            ("LC5", 0.3, 1.6),
            ("LT1", -0.25, 1.05),
            ("LN2", -1.3, 0),
            ("FN5", -3.3, -1.3),
        ):
            answer = reckon("inch-fit", {"nominal": "1in", "fit": fit})
            with self.subTest(fit):
                self.assertAlmostEqual(
                    answer["clearance_min"] / 0.0254, least, places=6
                )
                self.assertAlmostEqual(answer["clearance_max"] / 0.0254, most, places=6)

    def test_inch_tables_are_whole_and_their_tolerances_grow(self):
        wanted = {f"RC{i}" for i in range(1, 10)} | {f"LC{i}" for i in range(1, 12)}
        wanted |= {f"LT{i}" for i in range(1, 7)} | {f"LN{i}" for i in range(1, 4)}
        wanted |= {f"FN{i}" for i in range(1, 6)}
        self.assertEqual(set(inch_fits()), wanted)
        for fit, lines in inch_fits().items():
            holes = [line.hole_upper for line in lines]
            self.assertEqual(holes, sorted(holes), fit)
            for line in lines:
                self.assertGreater(line.shaft_upper, line.shaft_lower, fit)
            for inch_fit, two in itertools.pairwise(lines):
                self.assertAlmostEqual(inch_fit.to, two.above, msg=fit)
            self.assertGreaterEqual(lines[-1].to, 10 * INCH)

    def test_a_solid_press_fit_of_one_metal(self):
        """δ/d = 0.001, hub 2 : 1: p = E/2 · 0.001 · (1 − ¼) = 77.6 MPa."""
        answer = reckon("press-fit", USUAL["press-fit"])
        self.assertAlmostEqual(answer["pressure"], 207000 / 2 * 0.001 * 0.75, places=6)
        self.assertAlmostEqual(
            answer["hub_stress"], answer["pressure"] * 5 / 3, places=6
        )
        self.assertAlmostEqual(
            answer["torque"], answer["press_force"] * 0.015, places=6
        )

    def test_heating_by_what_is_said_makes_just_that_room(self):
        answer = reckon("shrink-fit", USUAL["shrink-fit"])
        grown = reckon(
            "thermal-size",
            {
                "size": 50,
                "temperature": 20,
                "material": "steel",
                "reference": answer["hub_temperature"],
            },
        )
        self.assertAlmostEqual(-grown["change"], 0.1, delta=0.001)
        hot = reckon(
            "shrink-fit", {**USUAL["shrink-fit"], "hub_material": "tool steel"}
        )
        self.assertIn("harmed", hot["warning"])

    def test_a_kilogram_of_water_weight_in_steel(self):
        """100 × 100 × 100 mm of steel weighs 7.85 kg."""
        answer = reckon(
            "mass",
            {
                "shape": "block",
                "width": 100,
                "height": 100,
                "length": 100,
                "material": "steel",
            },
        )
        self.assertAlmostEqual(answer["mass"], 7.85, places=9)
        self.assertEqual(answer["volume"], 1e6)
        with self.assertRaises(BadInput) as no:
            reckon(
                "mass",
                {
                    "shape": "tube",
                    "outside_diameter": 20,
                    "length": 10,
                    "material": "steel",
                },
            )
        self.assertEqual(no.exception.key, "bore")

    def test_a_circle_of_screws_carries_by_friction_and_pins_by_shear(self):
        """Three M8 of 8.8 pull 15.92 kN each: 0.15 of it at 55 mm; two 6 mm pins at
        30 mm bear 300 MPa over 28.27 mm² each. The better counts, not the sum."""
        screws = {"bolts": 3, "thread": "M8", "circle": 110}
        by_friction = reckon("bolts-carry", screws)
        pull = reckon("screw-torque", {"thread": "M8"})["preload"]
        self.assertAlmostEqual(by_friction["slips_at"], 3 * pull * 0.15 * 0.055, 6)
        self.assertAlmostEqual(by_friction["carries"], by_friction["slips_at"] / 2)
        pinned = {"pins": 2, "pin": 6, "pin_circle": 60}
        both = reckon("bolts-carry", {**screws, **pinned})
        self.assertAlmostEqual(both["shears_at"], 2 * 300 * 28.2743 * 0.03, 2)
        self.assertAlmostEqual(both["carries"], both["shears_at"] / 2)
        alone = reckon("bolts-carry", {"bolts": 0, "circle": 110, **pinned})
        self.assertEqual(alone["carries"], both["carries"])
        for lacking, key in (
            ({"bolts": 0, "circle": 110}, "bolts"),
            ({"bolts": 3, "circle": 110}, "thread"),
            ({**screws, "pins": 2}, "pin"),
        ):
            with self.subTest(key), self.assertRaises(BadInput) as refused:
                reckon("bolts-carry", lacking)
            self.assertEqual(refused.exception.key, key)


class Tapers(unittest.TestCase):
    def test_named_tapers_agree_with_their_other_standard(self):
        """Inches per foot as ASME B5.10 prints them, against the ISO ratios."""
        for name, per_foot in (
            ("MT0", 0.62460),
            ("MT1", 0.59858),
            ("MT2", 0.59941),
            ("MT3", 0.60235),
            ("MT4", 0.62326),
            ("MT5", 0.63151),
            ("MT6", 0.62565),
            ("JT0", 0.59145),
            ("JT1", 0.92508),
            ("JT2", 0.97861),
            ("JT3", 0.63898),
            ("JT6", 0.62292),
            ("JT33", 0.76194),
            ("7/24", 3.5),
        ):
            answer = reckon("taper", {"name": name})
            self.assertAlmostEqual(answer["taper_per_foot"], per_foot, delta=0.00012)

    def test_both_ends_and_length_agree_with_the_slope(self):
        for taper in named_tapers().values():
            if taper.large and taper.small and taper.length:
                with self.subTest(taper.name):
                    slope = (taper.large - taper.small) / taper.length
                    self.assertAlmostEqual(slope, taper.ratio, delta=0.00005)

    def test_angles_as_printed(self):
        """Morse 3 is 1°26′16″ half; 7/24 is 8°17′50″; ER seats are 8°."""
        self.assertAlmostEqual(
            reckon("taper", {"name": "MT3"})["half_angle"], 1 + 26 / 60 + 16 / 3600, 3
        )
        self.assertAlmostEqual(
            reckon("taper", {"name": "7/24"})["half_angle"], 8 + 17 / 60 + 50 / 3600, 3
        )
        self.assertAlmostEqual(reckon("taper", {"name": "ER25"})["included_angle"], 16)

    def test_the_slide_is_turned_by_what_the_indicator_missed(self):
        """0.08 less than wanted over 60 is about 4.6 minutes."""
        right = reckon(
            "taper-setup", {"taper": "MT3", "method": "indicator", "travel": 60}
        )
        wanted = right["indicator_reading"]
        again = reckon(
            "taper-setup",
            {
                "taper": "MT3",
                "method": "indicator",
                "travel": 60,
                "reading": wanted - 0.08,
            },
        )
        self.assertAlmostEqual(again["correction_minutes"], 4.58, delta=0.02)

    def test_a_slide_wound_by_its_own_dial_rises_by_the_sine(self):
        """A lathe centre of 60°: over 20 of the slide 20 sin 30° = 10, over 20 of the
        axis 20 tan 30° = 11.547. 9.5 read is 30° − asin 0.475 = 1.64° short."""
        asked = {"taper": "25.094/2/20", "travel": 20, "along": "slide"}
        found = reckon("taper-setup", {**asked, "reading": 9.5})
        self.assertAlmostEqual(found["indicator_reading"], 10, 4)
        self.assertAlmostEqual(found["correction_minutes"], 98.4, delta=0.2)
        axis = reckon("taper-setup", {**asked, "along": "axis"})
        self.assertAlmostEqual(axis["indicator_reading"], 11.547, 3)
        with self.assertRaises(BadInput) as refused:
            reckon("taper-setup", {**asked, "reading": 20})
        self.assertEqual(refused.exception.key, "reading")

    def test_rollers_give_back_the_taper_they_lie_on(self):
        """A plug of 20 mm at its base and 1:20 measured at 0 and 40 mm."""
        half = math.atan(0.025)

        def over(height):
            centre = height + 5
            return 20 + 2 * centre * 0.025 + 10 / math.cos(half) + 10

        answer = reckon(
            "taper-over-rollers",
            {
                "roller": 10,
                "height_low": 0,
                "reading_low": over(0),
                "height_high": 40,
                "reading_high": over(40),
                "taper": "1:20",
            },
        )
        self.assertAlmostEqual(answer["ratio"], 0.05, places=9)
        self.assertAlmostEqual(answer["diameter_at_base"], 20, places=9)
        self.assertAlmostEqual(answer["error_minutes"], 0, places=6)

    def test_step_drills_stay_inside_the_pin(self):
        for pin, length in (("6", 40), ("#5", 38), ("2", 20), ("#10", 100)):
            answer = reckon("taper-pin", {"pin": pin, "length": length})
            slope = (answer["large_diameter"] - answer["small_diameter"]) / length
            for step in answer["drills"]:
                at_depth = answer["large_diameter"] - slope * step["depth"]
                self.assertLess(step["drill"], at_depth)
        inch = reckon("taper-pin", {"pin": "#5", "length": "1.5in"}, inch=True)
        self.assertEqual(
            inch.notes[0].partition("; ream")[0],
            "Drill through with 1/4 in; then 17/64 in to 1 in; then I to 0.5 in",
        )


class PatternsAndMeasuring(unittest.TestCase):
    def test_a_ring_of_holes_closes_and_its_chords_are_equal(self):
        answer = reckon("bolt-circle", {"holes": 7, "diameter": 62, "start": 11})
        points = answer["points"]
        for point, two in zip(points, [*points[1:], points[0]], strict=True):
            self.assertAlmostEqual(math.dist(point, two), answer["chord"], places=9)

    def test_over_and_inside_pins_are_two_pins_apart(self):
        answer = reckon("chord-check", USUAL["chord-check"])
        self.assertAlmostEqual(answer["over_pins"] - answer["inside_pins"], 12)
        self.assertAlmostEqual(answer["over_pins_opposite"], 106)
        with self.assertRaises(BadInput):
            reckon("chord-check", {"holes": 6, "diameter": 20, "pin": 11})

    def test_sevenths_on_a_40_to_1_head(self):
        """40/7 = 5 turns and 15 holes of 21."""
        first = reckon("dividing", USUAL["dividing"])["settings"][0]
        self.assertEqual((first["turns"], first["holes"], first["circle"]), (5, 15, 21))
        self.assertEqual(first["error"], 0)

    def test_hexagon_there_and_back(self):
        """17 across flats is 19.63 across corners; the bar gives the flats back."""
        answer = reckon("polygon", {"sides": 6, "across_flats": 17})
        self.assertAlmostEqual(answer["across_corners"], 19.630, places=3)
        back = reckon("polygon", {"sides": 6, "round": answer["across_corners"]})
        self.assertAlmostEqual(back["across_flats"], 17, places=9)

    def test_dovetail_between_pins_there_and_back(self):
        made = reckon(
            "dovetail", {"pin": 10, "width_top": 40, "depth": 12, "internal": True}
        )
        back = reckon(
            "dovetail",
            {
                "pin": 10,
                "measured": made["between_pins"],
                "depth": 12,
                "internal": True,
            },
        )
        self.assertAlmostEqual(back["width_top"], 40, places=9)
        with self.assertRaisesRegex(BadInput, "up to 16 mm"):
            reckon("dovetail", {"pin": 16.1, "width_bottom": 50, "depth": 12})
        reckon("dovetail", {"pin": 16, "width_bottom": 50, "depth": 12})

    def test_keys_as_printed(self):
        """DIN 6885: shaft 25 has 8 × 7, 4.0 in the shaft and 3.3 in the hub."""
        answer = reckon("keyway", {"shaft_diameter": 25})
        self.assertEqual((answer["key_width"], answer["key_height"]), (8, 7))
        self.assertAlmostEqual(answer["across"], 28.3)
        shaft = reckon("keyway", {"shaft_diameter": 25, "bore": False})
        self.assertAlmostEqual(shaft["across"], 21)
        shallow = reckon("keyway", {"shaft_diameter": 25, "bore": False, "depth": 3})
        self.assertAlmostEqual(shallow["across"], 22)
        with self.assertRaisesRegex(BadInput, "Under 12.5 mm"):
            reckon("keyway", {"shaft_diameter": 25, "bore": False, "depth": 13})
        # ANSI B17.1: 1 in shaft, 1/4 key: S = 0.859 on the shaft, T = 1.114 in hub
        for bore, printed in ((False, 0.859), (True, 1.114)):
            inch = {"shaft_diameter": "1in", "standard": "inch", "bore": bore}
            self.assertAlmostEqual(reckon("keyway", inch)["across"] / INCH, printed, 3)
        for r in rows("keys"):
            if r["standard"] == "metric":
                # the two seats take the key and leave the usual play at its top
                play = (
                    float(r["shaft_depth"]) + float(r["hub_depth"]) - float(r["height"])
                )
                self.assertTrue(0.1 <= play <= 0.45, r)

    def test_corners_of_a_flat_tool_touch_the_bore_first(self):
        answer = reckon(
            "keyway", {"shaft_diameter": 20, "key": "6x6", "contact": "corners"}
        )
        drop = 10 - math.sqrt(100 - 9)
        self.assertAlmostEqual(answer["corner_drop"], drop, places=9)
        self.assertAlmostEqual(answer["feed_from_contact"], 2.8 + drop, places=9)

    def test_slip_gauges_make_the_size_or_say_no(self):
        pieces = [
            1.005,
            *(1 + i / 100 for i in range(1, 50)),
            0.5,
            *(i / 2 for i in range(2, 20)),
            10,
            20,
            30,
            40,
            50,
        ]
        answer = reckon("gauge-stack", {"target": 41.275, "pieces": pieces})
        self.assertAlmostEqual(sum(answer["pieces"]), 41.275, places=9)
        with self.assertRaises(BadInput) as no:
            reckon("gauge-stack", {"target": 41.2751, "pieces": pieces})
        self.assertEqual(no.exception.key, "target")

    def test_moves_take_the_offset_out(self):
        readings = [
            0.3 + 0.05 * math.cos(math.radians(a - 30)) for a in range(0, 360, 45)
        ]
        answer = reckon("centring", {"readings": readings})
        self.assertAlmostEqual(answer["offset_x"], 0.05 * math.cos(math.radians(30)), 9)
        self.assertAlmostEqual(answer["offset_y"], 0.025, places=9)
        self.assertAlmostEqual(answer["residual"], 0, places=9)
        self.assertEqual(answer["moves"][0]["towards"], 180)

    def test_clocking_two_equal_pieces_against_each_other_cancels(self):
        pieces = [
            {"name": "plate", "eccentricity": 0.02},
            {"name": "chuck", "eccentricity": 0.02, "clockings": 4},
        ]
        answer = reckon("runout-stack", {"elements": pieces})
        self.assertAlmostEqual(answer["best_value"], 0, places=9)
        self.assertEqual(answer["best_clocking"][1]["angle"], 180)
        self.assertAlmostEqual(answer["worst_tir"], 0.08)
        # two equal vectors at random: the mean of 2e|cos(φ/2)| is 4e/π
        self.assertAlmostEqual(answer["mean"], 0.08 / math.pi, delta=0.0001)
        self.assertAlmostEqual(
            answer["percentile_95"], 0.04 * math.cos(0.025 * math.pi), delta=0.0001
        )

    def test_run_out_is_told_apart_by_half_turns(self):
        """Seat 4 µm at 0°, collet 6 at 90°, tool 2 at 180°: together (2, 6), 6.32 at
        71.57°; the collet turned with its tool (6, −6), the tool alone (6, 6)."""
        read = {
            "first": 0.00632456,
            "first_at": 71.565,
            "collet_turned": 0.00848528,
            "collet_turned_at": 315,
        }
        tool = {"tool_turned": 0.00848528, "tool_turned_at": 45}
        answer = reckon("runout-apart", {**read, **tool})
        for part, size, at in (
            ("seat", 0.004, 0),
            ("collet", 0.006, 90),
            ("tool", 0.002, 180),
        ):
            self.assertAlmostEqual(answer[part], size, places=6)
            self.assertAlmostEqual(answer[f"{part}_at"], at, places=1)
        self.assertIn("The collet", answer["advice"])
        both = reckon("runout-apart", read)
        self.assertAlmostEqual(both["collet"], math.hypot(0.006, 0.002), places=6)
        self.assertIsNone(both["tool"])

    def test_a_shortfall_is_an_angle_and_a_new_place_for_the_pin(self):
        """1.4 squashed where 0.4 was wanted, 40 out: 2 asin(1 / 80) = 1.4325°, and
        12 sin(0.716°) = 0.15 on a shaft of 12, which its pin takes up."""
        usual = USUAL["shortfall"]
        answer = reckon("shortfall", usual)
        self.assertAlmostEqual(answer["angle"], 1.4325, places=3)
        self.assertAlmostEqual(answer["shift"], 0.15, places=4)
        self.assertIn("the same hole deeper", answer["advice"])
        for squashed, shaft, says in ((2.4, 12, "crosswise"), (13, 40, "beside")):
            given = {**usual, "squashed": squashed, "shaft": shaft}
            self.assertIn(says, reckon("shortfall", given)["advice"])

    def test_stock_comes_clean_as_far_as_it_runs_true(self):
        """50 to 48 is 1 a side: with 0.6 by the needle 0.7 comes off the low side, 0.4
        of it sound under 0.3 of skin. 1.4 by the needle is as far as it goes."""
        usual = USUAL["cleans-up"]
        answer = reckon("cleans-up", usual)
        self.assertAlmostEqual(answer["least"], 0.7)
        self.assertAlmostEqual(answer["most"], 1.3)
        self.assertAlmostEqual(answer["spare"], 0.4)
        self.assertAlmostEqual(answer["run_out_most"], 1.4)
        self.assertAlmostEqual(answer["stock_needed"], 49.2)
        at_most = reckon("cleans-up", {**usual, "run_out": 1.4})
        self.assertAlmostEqual(at_most["spare"], 0.0)
        self.assertAlmostEqual(at_most["stock_needed"], 50.0)
        # a cored hole of 20 bored to 22: the same sums the other way about
        cored = {"stock": 20, "size": 22, "run_out": 1.8, "skin": 0.5}
        opened = reckon("cleans-up", cored)
        self.assertAlmostEqual(opened["stock_needed"], 19.2)
        self.assertIn("Set it truer", opened["advice"])
        self.assertAlmostEqual(opened["run_out_most"], 1.0)
        never = reckon("cleans-up", {**cored, "skin": 1})
        self.assertNotIn("run_out_most", never.results)
        self.assertIn("bore larger", never["advice"])

    def test_a_bought_part_against_metal_and_hours(self):
        """1.7 kg at 4 and two hours at 15 are 36.8 against 48; at (48 − 6.8) / 2 =
        20.6 an hour both cost the same. Three of them with tools for 40: 150.4."""
        usual = USUAL["make-or-buy"]
        answer = reckon("make-or-buy", usual)
        self.assertAlmostEqual(answer["made"], 36.8)
        self.assertAlmostEqual(answer["from_hour"], 20.6)
        self.assertIn("Making it is cheaper", answer["advice"])
        three = reckon("make-or-buy", {**usual, "count": 3, "tools": 40})
        self.assertAlmostEqual(three["saved"], 144 - 150.4)
        self.assertIn("the same", three["advice"])
        self.assertIn("Buying", reckon("make-or-buy", {**usual, "hour": 40})["advice"])

    def test_drill_systems_are_whole(self):
        self.assertEqual(len(drills("number")), 80)
        self.assertEqual(len(drills("letter")), 26)
        self.assertGreater(drills("letter")[0].size, drills("number")[-1].size)

    def test_edge_found_on_either_side(self):
        """Tip 10: from the left edge + (5 + 20), from the right − (5 + 20)."""
        for direction, position in (("+", 37.3), ("-", -12.7)):
            answer = reckon("edge-find", {**USUAL["edge-find"], "direction": direction})
            self.assertAlmostEqual(answer["position"], position)

    def test_a_gear_is_known_by_its_outside_and_its_teeth(self):
        """32 teeth of module 1.5 are 51 over the tips, 40 of DP 20 2.100 in; a worn
        one reads small, and one near nothing usual is said to be."""
        for outside, teeth, key, value in (
            (50.9, 32, "module", 1.5),
            ("2.098in", 40, "dp", 20),
            (44.0, 20, "module", 2.0),
        ):
            found = reckon("gear", {"teeth": teeth, "outside": outside})
            with self.subTest(outside):
                self.assertAlmostEqual(found[key], value)
                self.assertIn("Nearest to", found.notes[0])
        odd = reckon("gear", {"teeth": 32, "outside": 57.5})
        self.assertAlmostEqual(odd["module"], 57.5 / 34)
        self.assertIn("near no usual", odd.cautions[0])


class Cutting(unittest.TestCase):
    def test_passes_end_at_the_size(self):
        for start, finish in ((50, 46), (20, 26.35), (50, 49.9)):
            answer = reckon("passes", {"start": start, "finish": finish})
            self.assertAlmostEqual(answer["passes"][-1]["diameter"], finish)
            self.assertAlmostEqual(answer["passes"][-1]["dial"], abs(start - finish))
            self.assertEqual(answer["count"], len(answer["passes"]))

    def test_a_bar_twice_as_long_gives_eight_times_as_much(self):
        short, long = (
            reckon("boring-bar", {"bar_diameter": 16, "overhang": o}) for o in (64, 128)
        )
        self.assertAlmostEqual(long["deflection"] / short["deflection"], 8, places=9)
        self.assertEqual(short["length_to_diameter"], 4)
        carbide = reckon(
            "boring-bar",
            {"bar_diameter": 16, "overhang": 64, "bar_material": "carbide"},
        )
        self.assertLess(carbide["deflection"], short["deflection"] / 2.5)

    def test_a_thin_ring_at_its_limit_is_at_a_third_of_yield(self):
        """A thin ring: σ = ρ v²; cast iron 180/3 MPa at 7200 kg/m³ is 91.3 m/s."""
        answer = reckon(
            "rotating-limit",
            {"outside_diameter": 200, "bore": 199, "material": "cast iron"},
        )
        speed = answer["rpm_limit"] * math.pi * 0.2 / 60
        self.assertAlmostEqual(speed, math.sqrt(60e6 / 7200), delta=0.4)

    def test_unbalance_grows_with_the_square_of_the_speed(self):
        base = {
            **USUAL["rotating-limit"],
            "unbalance_mass": "200g",
            "unbalance_radius": 100,
        }
        slow, fast = (
            reckon("rotating-limit", {**base, "rpm": n})["unbalance_force"]
            for n in (500, 1000)
        )
        self.assertAlmostEqual(slow, 0.2 * 0.1 * (500 * math.pi / 30) ** 2, places=6)
        self.assertAlmostEqual(fast / slow, 4, places=9)

    def test_lever_and_speeds(self):
        self.assertEqual(reckon("lever", {"force": 200, "arm": 300})["torque"], 60)
        answer = reckon("speeds", {"material": "mild steel", "diameter": 25})
        self.assertAlmostEqual(answer["rpm_ideal"], 30_000 / (math.pi * 25), places=6)
        with self.assertRaisesRegex(BadInput, "ground"):
            reckon("speeds", {"material": "carbide", "diameter": 25})

    def test_slim_hardened_work_needs_more_left_for_grinding(self):
        short, long = (
            reckon("grinding-allowance", {"diameter": 20, "length": length})
            for length in (40, 400)
        )
        self.assertLess(short["allowance_on_diameter"], long["allowance_on_diameter"])
        soft = reckon(
            "grinding-allowance", {"diameter": 20, "length": 400, "hardened": False}
        )
        self.assertEqual(soft["expected_warp"], 0)
