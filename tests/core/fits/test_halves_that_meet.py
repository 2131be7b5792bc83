"""What each kind of fit makes of its measured half, and how it is written down.

Every band is worked from the size as the survey knows it: its own doubt is taken
from the answer of the measuring, not guessed here.
"""

import math
import unittest
from itertools import pairwise

from msgspec.structs import replace

from machinon.core.errors import BadInput
from machinon.core.fits.joints import joint_forms
from machinon.core.job.fit_sheet import COLUMNS, fit_lines, fit_readings
from machinon.core.job.job import Job
from machinon.core.job.planning import plan_of
from machinon.core.shop.things import Piece, Surface
from machinon.core.sizes.fit import (
    FitChoice,
    about_play,
    characters,
    wanted_play,
    words_for,
)
from machinon.core.survey.measuring import measure
from tests.core.survey.test_surfaces import surface
from tests.scenario import LATHE, SHOP, back_plate, planned


def job_with(
    *surfaces: Surface,
    joint,
    want="",
    least=0.0,
    most=0.0,
    lathe=None,
    shop=SHOP,
    material="steel",
    **given,
):
    """The plan of a job with one fit on the first of some surfaces."""
    piece = Piece("part", "Part", "other", material, surfaces)
    form = joint_forms()[joint]
    exists = "hole" if surfaces[0].kind in ("inside", "gap") else "shaft"
    fit = FitChoice(
        1,
        "Fit",
        "part",
        surfaces[0].id,
        exists,
        want or form.usual,
        least,
        most,
        joint=joint,
        given=given,
        reason="It must run true.",
    )
    return plan_of(
        Job("job", "Job", pieces=("part",), fits=(fit,)), shop, lathe, {"part": piece}
    )


def fit_of(*surfaces, **asked):
    return job_with(*surfaces, **asked).fits[0]


def doubt_of(surface: Surface) -> float:
    found = measure(surface, SHOP, "steel")
    assert found is not None
    return found.uncertainty


class Bands(unittest.TestCase):
    def band(self, fit, name):
        return next(band for band in fit.joined.bands if band.name == name)

    def effect(self, fit, name):
        return next(effect for effect in fit.joined.effects if effect.name == name)

    def test_a_taper_by_its_readings_and_by_its_name(self):
        """20 at the large end, 1 in 20 over 40 mm; half a millimetre in or out."""
        slope = surface("taper-out", (20.0, "0 mm"), (18.0, "40 mm"))
        fit = fit_of(slope, joint="taper")
        half = math.degrees(math.atan(0.05 / 2))
        made = self.band(fit, "Half angle")
        self.assertAlmostEqual(made.aim, half, places=6)
        self.assertLess(made.width, self.band(fit, "Half angle, measured").width * 40)
        known = next(b for b in fit.joined.bands if b.measured and b.sign == "")
        self.assertAlmostEqual(known.aim, half, places=6)
        self.assertGreater(known.width, 0)
        large = self.band(fit, "Large end")
        self.assertAlmostEqual(large.aim, 20.0, places=3)
        self.assertAlmostEqual(self.effect(fit, "Indicator over 50 mm").value, 1.25)
        self.assertEqual(self.effect(fit, "Holds by itself").value, "yes")

    def test_a_taper_that_is_none_or_is_read_from_the_wrong_end(self):
        flat = fit_of(
            surface("taper-out", (20, "0 mm"), (20.001, "40 mm")), joint="taper"
        )
        self.assertIn("no taper", flat.problem)
        back = fit_of(surface("taper-out", (18, "0 mm"), (20, "40 mm")), joint="taper")
        self.assertIn("from its large end", back.problem)
        fit = fit_of(surface("taper-out", (18, "0 mm")), joint="taper")
        self.assertIn("from one place", fit.problem)

    def test_two_dowels_slide_and_keep(self):
        pin = surface("dowel", 6.0)
        fit = fit_of(
            pin, joint="dowels", want="own", least=0.01, most=0.03, distance=60
        )
        doubt = doubt_of(pin)
        slides = self.band(fit, "Hole it slides in")
        self.assertAlmostEqual(slides.lower, 6 + doubt + 0.01)
        self.assertAlmostEqual(slides.upper, 6 - doubt + 0.03)
        self.assertAlmostEqual(self.effect(fit, "Shake, stop to stop").value, 0.06)
        with_radius = fit_of(
            pin,
            joint="dowels",
            want="own",
            least=0.01,
            most=0.03,
            distance=60,
            radius=120,
        )
        self.assertAlmostEqual(
            self.effect(with_radius, "Shake, stop to stop").value, 0.12, places=6
        )

    def test_a_key_in_the_hub_and_in_the_shaft(self):
        slot = surface("key-width", 10.0, instrument="slips")
        fit = fit_of(slot, joint="key", want="own", least=0.0, most=0.02)
        doubt = doubt_of(slot)
        key = self.band(fit, "Key")
        self.assertAlmostEqual(key.upper, 10 - doubt)
        self.assertAlmostEqual(key.lower, 10 + doubt - 0.02)
        self.assertTrue(self.band(fit, "Keyway in the hub"))
        other = fit_of(slot, joint="key", want="own", most=0.02, **{"in": "hub"})
        self.assertTrue(self.band(other, "Keyway in the shaft"))

    def test_a_key_that_would_rock_is_said(self):
        wide = surface("key-width", 10.06, instrument="slips")
        fit = fit_of(wide, joint="key", want="own", most=0.02)
        self.assertIn("would rock", fit.joined.advice[0])
        self.assertIn("10 mm", fit.joined.advice[0])

    def test_what_a_key_carries_stands_beside_what_the_lathe_turns(self):
        slot = surface("key-width", 8.0, instrument="slips")
        strong = replace(LATHE, figures={"power": "1.1"})
        fit = fit_of(slot, joint="key", lathe=strong, diameter=25, length=30)
        carries = self.effect(fit, "Carries").value
        self.assertAlmostEqual(carries, 131.25)
        self.assertAlmostEqual(
            self.effect(fit, "The lathe turns at most").value, strong.torque
        )
        unsaid = fit_of(slot, joint="key", lathe=LATHE, diameter=25, length=30)
        self.assertIn("not known", self.effect(unsaid, "The lathe turns at most").value)
        self.assertAlmostEqual(
            self.effect(fit, "Bore to keyway floor").value, 28.3, places=3
        )

    def test_a_t_nut_needs_all_of_its_slot(self):
        slot = (
            surface("tee-neck", 14.02, instrument="slips"),
            surface("tee-head", 24.0, instrument="caliper"),
            surface("tee-head-depth", 10.0, instrument="caliper"),
        )
        missing = fit_of(*slot, joint="tee")
        self.assertIn("lip is not measured", missing.problem)
        whole = fit_of(
            *slot,
            surface("tee-lip", 14.0, instrument="caliper"),
            joint="tee",
            want="own",
            least=0.05,
            most=0.09,
        )
        tongue = self.band(whole, "Tongue")
        self.assertAlmostEqual(tongue.upper, 14.02 - doubt_of(slot[0]) - 0.05)
        self.assertAlmostEqual(tongue.width, 0.04)
        self.assertAlmostEqual(self.band(whole, "Head, width").upper, 23)
        self.assertAlmostEqual(self.effect(whole, "Highest tongue").value, 13.5)

    def test_a_ball_pushes_out_of_its_measured_recess(self):
        """A rim of 4.08 under a ball of 6: 10 N let go at 10 · 2.04 / 2.2."""
        rim = surface("detent", 4.08, instrument="caliper", ball=6.0)
        fit = fit_of(rim, joint="detent", spring=10, radius=25)
        self.assertAlmostEqual(self.effect(fit, "Pushes out at").value, 9.27, places=2)
        self.assertAlmostEqual(
            self.effect(fit, "Clicks over at").value,
            self.effect(fit, "Pushes out at").value * 0.025,
        )
        self.assertIn("Type this first", fit_of(rim, joint="detent").problem)

    def test_dimples_hold_by_all_their_screws(self):
        """M6 at 3.6 N·m pushes 3.6 / (0.2 · 6 mm) = 3000 N; four of them 12 kN."""
        body = surface("shaft", 60.0)
        fit = fit_of(
            body, joint="dimple", screw="M6", wall=8, around=12, screws=4, torque=3.6
        )
        self.assertAlmostEqual(self.effect(fit, "Holds against pulling").value, 12_000)
        self.assertAlmostEqual(self.effect(fit, "Carries").value, 12_000 * 0.03)
        depth = self.band(fit, "Dimple, depth")
        self.assertAlmostEqual(depth.lower, 1.2)
        self.assertAlmostEqual(depth.upper, 2.4)


class Gripping(unittest.TestCase):
    def effects(self, fit):
        return {effect.name: effect for effect in fit.joined.effects}

    def test_a_press_is_worked_at_both_its_ends(self):
        bore = surface("bore", 25.0, instrument="bore-gauge")
        fit = fit_of(
            bore,
            joint="press",
            want="own",
            least=-0.03,
            most=-0.01,
            length=20,
            hub_outside=50,
        )
        found = self.effects(fit)
        most = found["To press it home, most"].value
        least = found["To press it home, least"].value
        self.assertAlmostEqual(most / least, 3)
        self.assertAlmostEqual(found["Press to have"].value, 1.5 * most)
        self.assertAlmostEqual(
            found["Carries at least"].value, least * 25 / 2000, places=6
        )

    def test_a_press_that_may_be_loose_carries_nothing(self):
        bore = surface("bore", 25.0, instrument="bore-gauge")
        fit = fit_of(bore, joint="press", want="own", least=-0.02, most=0.0)
        found = self.effects(fit)
        self.assertEqual(found["Carries at least"].value, 0)
        self.assertEqual(found["To press it home, least"].value, 0)
        self.assertIn("does not grip at all", fit.joined.advice[-1])
        loose = fit_of(bore, joint="press", want="own", least=0.0, most=0.02)
        self.assertIn("no interference", loose.unsaid)

    def test_a_bond_needs_its_gap(self):
        shaft = surface("shaft", 25.0)
        thin = fit_of(shaft, joint="bond", want="own", least=-0.01, most=0.05)
        self.assertIn("scraped off", thin.joined.advice[0])
        self.assertTrue(self.effects(thin)["Gap, least"].grave)
        wide = fit_of(shaft, joint="bond", want="own", least=0.05, most=0.2)
        self.assertIn("more than most compounds", wide.joined.advice[0])
        self.assertFalse(self.effects(wide)["Gap, least"].grave)
        right = fit_of(shaft, joint="bond", want="own", least=0.03, most=0.1)
        self.assertEqual(right.joined.advice, ())

    def test_a_fit_that_turns_into_another_when_warm_is_said(self):
        """Aluminium on a steel shaft of 50, 60 K warmer: 34.5 µm looser."""
        shaft = surface("shaft", 50.0)
        cool = fit_of(
            shaft,
            joint="shaft",
            want="own",
            least=-0.03,
            most=-0.005,
            other="aluminium",
        )
        self.assertEqual(cool.joined.effects, ())
        self.assertIn("pressed, shrunk or bonded", cool.joined.advice[0])
        warm = fit_of(
            shaft,
            joint="shaft",
            want="own",
            least=-0.03,
            most=-0.005,
            other="aluminium",
            warm=80,
        )
        found = self.effects(warm)
        self.assertAlmostEqual(found["Most play, warm"].value, 0.0295, places=4)
        self.assertTrue(found["Most play, warm"].grave)
        self.assertIn("turns into another", warm.joined.advice[0])

    def test_a_nut_shorter_than_it_takes_is_said(self):
        """The screw breaks first only where enough of its thread is engaged."""
        crest = surface("thread-major", 11.9)
        pitch = surface("thread-pitch", 1.75, instrument="thread-gauge")
        long = fit_of(crest, pitch, joint="thread", length=12)
        self.assertIsNotNone(long.joined)
        engaged = self.effects(long)["Engaged"]
        wanted = self.effects(long)["Wanted, so that no thread strips"].value
        self.assertEqual(engaged.value, 12)
        self.assertAlmostEqual(self.effects(long)["Turns engaged"].value, 12 / 1.75)
        short = fit_of(crest, pitch, joint="thread", length=wanted - 0.1)
        self.assertTrue(self.effects(short)["Engaged"].grave)
        self.assertIn("strip first", short.joined.advice[0])
        just = fit_of(crest, pitch, joint="thread", length=wanted + 0.1)
        self.assertFalse(self.effects(just)["Engaged"].grave)


class Words(unittest.TestCase):
    def test_words_go_from_loose_to_tight(self):
        """Among the words of one joint no later one lets more play than the first."""
        for joint in ("register", "shaft", "slot", "press", "shrink"):
            plays = [
                wanted_play(character.key, 50, "shaft")
                for character in words_for(joint)
            ]
            for play, other in pairwise(plays):
                self.assertGreaterEqual(
                    play.most + play.least, other.most + other.least
                )

    def test_a_word_asks_the_same_of_a_hole_as_of_a_shaft(self):
        for key in characters():
            if characters()[key].joint in ("register", "shaft", "press"):
                hole, shaft = (wanted_play(key, 40, side) for side in ("hole", "shaft"))
                self.assertEqual((hole.least, hole.most), (shaft.least, shaft.most))

    def test_a_pair_spends_both_zones_a_zone_only_one(self):
        """H7/g6 at 46: 9 to 50 µm. g6 alone on the mate: 9 to 25."""
        pair = wanted_play("H7/g6", 46, "hole")
        self.assertAlmostEqual(pair.least, 0.009)
        self.assertAlmostEqual(pair.most, 0.050)
        zone = wanted_play("g6", 46, "hole")
        self.assertAlmostEqual(zone.least, 0.009)
        self.assertAlmostEqual(zone.most, 0.025)
        hole = wanted_play("G7", 46, "shaft")
        self.assertAlmostEqual(hole.least, 0.009)
        self.assertAlmostEqual(hole.most, 0.034)
        for want, exists in (("g6", "shaft"), ("G7", "hole")):
            with self.assertRaisesRegex(BadInput, "is to be made"):
                wanted_play(want, 46, exists)

    def test_an_inch_fit_is_taken_at_its_full_range(self):
        """RC4 at 1 in: 0.8 to 2.8 thou."""
        play = wanted_play("rc4", 25.4, "shaft")
        self.assertAlmostEqual(play.least / 0.0254, 0.8)
        self.assertAlmostEqual(play.most / 0.0254, 2.8)

    def test_a_play_said_as_one_size_is_give_or_take_half(self):
        for text, least, most in (
            ("25um", 0.0125, 0.0375),
            ("a thou", 0.0127, 0.0381),
            ("two tenths", None, None),
            ("0.02 mm", 0.01, 0.03),
            ("H7", None, None),
            ("5 mm", None, None),
        ):
            with self.subTest(text):
                want = None if least is None else (least, most)
                self.assertEqual(about_play(text), want)

    def test_a_fit_that_is_not_known_is_answered_with_some_that_are(self):
        with self.assertRaisesRegex(BadInput, "did you mean"):
            wanted_play("slidse", 40, "shaft")
        with self.assertRaises(BadInput):
            wanted_play("H7/g6", 900, "hole")


class OnPaper(unittest.TestCase):
    def test_each_fit_of_the_plate_is_a_line_with_what_was_read(self):
        plan = planned()
        lines = fit_lines(plan)
        self.assertEqual([line.number for line in lines], [1, 2, 3, 4])
        register = lines[0]
        self.assertEqual(register.mate, "Register of Spindle nose")
        self.assertEqual(
            register.readings, ("45.992 mm, 45.994 mm, Micrometer set 0–150",)
        )
        self.assertRegex(register.measured, r"45\.993 mm ± .* µm")
        made = register.to_make[0]
        self.assertEqual(
            (made.name, made.low[:6], made.high[:6]), ("diameter", "46.007", "46.013")
        )
        self.assertEqual(made.gauge, "")  # no bore gauge proves seven micrometres
        self.assertTrue(any(follow.startswith("play ") for follow in register.follows))
        names = [piece.name for piece in lines[1].to_make]
        self.assertEqual(names, ["pitch diameter", "before threading"])
        self.assertIn("M45", lines[1].wanted)
        self.assertEqual(lines[3].wanted, "Screws: normal")
        self.assertTrue(lines[3].to_make[0].low.startswith("109.09"))
        self.assertTrue(any("clear holes for M8" in f for f in lines[3].follows))

    def test_holes_tapped_in_the_plate_are_called_so(self):
        lines = fit_lines(planned(back_plate({"bolts.bolting": "into"})))
        self.assertTrue(any("tapped holes for M8" in f for f in lines[3].follows))

    def test_a_line_has_a_cell_for_every_column(self):
        for plan in (planned(), job_with(surface("bore"), joint="press")):
            for line in fit_lines(plan):
                for row in line.cells:
                    self.assertEqual(len(row), len(COLUMNS))
                    self.assertTrue(all(isinstance(cell, str) for cell in row))

    def test_what_is_not_read_says_so(self):
        line = fit_lines(job_with(surface("bore"), joint="press"))[0]
        self.assertEqual((line.measured, line.readings), ("not read yet", ()))
        self.assertEqual(line.to_make, ())
        self.assertIn("measure it in Survey", line.says)
        self.assertEqual(line.cells[0][6:10], ("", "", "", ""))

    def test_struck_readings_stay_off_the_paper(self):
        bore = surface("bore", 25.0, 25.4, instrument="bore-gauge")
        struck = replace(
            bore,
            readings=(bore.readings[0], replace(bore.readings[1], struck=True)),
        )
        plan = job_with(struck, joint="press")
        self.assertEqual(
            fit_lines(plan)[0].readings, ("25.000 mm, Three-point bore gauge",)
        )
        self.assertEqual(fit_readings(plan, plan.fits[0]), (25.0,))

    def test_places_are_written_beside_their_readings(self):
        slope = surface("taper-out", (20.0, "0 mm"), (18.0, "40 mm"))
        line = fit_lines(job_with(slope, joint="taper"))[0]
        self.assertIn("20.000 mm at 0 mm", line.readings[0])
        self.assertIn("taper 1 : 20.000", line.measured)
        angle = line.to_make[0]
        self.assertRegex(angle.low, r"^1\.\d{3}°$")
        named = surface(
            "bore", (25.0, "front"), (25.01, "back"), instrument="bore-gauge"
        )
        line = fit_lines(job_with(named, joint="press"))[0]
        self.assertIn("25.000 mm (front)", line.readings[0])

    def test_an_inch_shop_reads_inches(self):
        inch = replace(SHOP, inch=True)
        plan = job_with(surface("shaft", 25.4), joint="shaft", shop=inch)
        line = fit_lines(plan)[0]
        self.assertIn("in", line.measured)
        self.assertTrue(line.to_make[0].low.endswith("in"))
        self.assertEqual(line.readings, ("25.400 mm, Micrometer set 0–150",))

    def test_the_words_the_play_and_the_reason_are_kept(self):
        own = fit_lines(
            job_with(
                surface("shaft", 25.0), joint="shaft", want="own", least=0.01, most=0.05
            )
        )[0]
        self.assertTrue(own.wanted.endswith("play of its own"))
        self.assertEqual(own.reason, "It must run true.")
        word = fit_lines(job_with(surface("shaft", 25.0), joint="shaft"))[0]
        self.assertIn("; ", word.wanted)
        self.assertEqual(word.to_make[0].says.split(":")[0], "diameter")
        slot = fit_lines(
            job_with(surface("slot", 12.0, instrument="slips"), joint="slot")
        )[0]
        self.assertEqual(slot.to_make[0].name, "width")


class WhatEatsABand(unittest.TestCase):
    def advice(self, *readings, least=-0.004, most=0.004, form="shaft", **asked):
        fit = fit_of(
            surface(form, *readings, **asked),
            joint="shaft",
            want="own",
            least=least,
            most=most,
        )
        self.assertIsNone(fit.lower)
        return fit.advice

    def test_a_coarse_gauge_is_told_of_the_better_one_there_is(self):
        says = self.advice(25.0, instrument="caliper")
        self.assertIn("±31 µm of its own", says)
        self.assertIn("lets the play vary by 8 µm", says)
        self.assertIn("Micrometer set 0–150 is good to ±4 µm", says)

    def test_the_surest_gauge_there_is_says_how_sure_one_would_have_to_be(self):
        says = self.advice(25.0, least=-0.001, most=0.001)
        self.assertIn("a gauge good to ±", says)
        self.assertNotIn("Micrometer", says)
        self.assertIn("cut to the mate by trial", says)

    def test_readings_that_scatter_are_to_be_repeated_or_wiped(self):
        few = self.advice(25.0, 25.006, 24.997, least=-0.005, most=0.004)
        self.assertRegex(few, r"Readings that scatter take it.*(\d+ readings|wipe)")

    def test_a_large_part_is_eaten_by_a_degree_of_warmth(self):
        """An aluminium ring of 140: a degree is 3.2 µm, over √3 and doubled 3.7."""
        fit = job_with(
            surface("shaft", 140.0, 140.0, 140.0, 140.0, 140.0, 140.0),
            joint="shaft",
            want="own",
            least=-0.003,
            most=0.003,
            material="nylon",
        ).fits[0]
        self.assertIn("Warmth takes it", fit.advice)
        self.assertIn("of one warmth", fit.advice)

    def test_a_fit_said_to_be_enough_leaves_half_its_band(self):
        says = self.advice(25.0, instrument="caliper")
        vary = int(says.split("play may vary by ")[1].split(" ")[0]) / 1000
        fit = fit_of(
            surface("shaft", 25.0, instrument="caliper"),
            joint="shaft",
            want="own",
            least=0.0,
            most=vary,
        )
        self.assertAlmostEqual(fit.band["band"] / vary, 0.5, places=1)


class ThreadsFound(unittest.TestCase):
    def thread(self, crest, pitch=None, form="thread-major", **given):
        read = [surface(form, crest, instrument="caliper")]
        if pitch is not None:
            read.append(surface("thread-pitch", pitch, instrument="thread-gauge"))
        return fit_of(*read, joint="thread", **given)

    def test_a_thread_that_only_one_form_fits_is_named(self):
        for crest, pitch, name in (
            (11.9, 1.75, "M12x1.75"),
            (44.86, 4.5, "M45x4.5"),
            (12.6, 25.4 / 13, "1/2-13 UNC"),
        ):
            with self.subTest(name):
                found = self.thread(crest, pitch)
                self.assertEqual((found.thread.name, found.problem), (name, ""))
                self.assertLess(found.lower, found.upper)

    def test_crests_without_a_pitch_or_with_one_that_suits_nothing(self):
        self.assertIn("pitch is not measured", self.thread(11.9).problem)
        odd = self.thread(33.3, 0.9)
        self.assertIn("no thread known here", odd.problem)
        self.assertIsNone(odd.thread)

    def test_two_forms_that_only_the_flanks_tell_are_offered(self):
        found = self.thread(37.9, 25.4 / 8)
        self.assertEqual(len(found.could_be), 2)
        for name in found.could_be:
            self.assertTrue(name.startswith("1 1/2"), name)
        self.assertIsNone(found.lower)

    def test_a_thread_without_kept_limits_is_cut_to_its_mate(self):
        piece = Piece(
            "part", "Part", "other", "steel",
            (
                surface("thread-major", 19.9, instrument="caliper"),
                surface("thread-pitch", 4.0, instrument="thread-gauge"),
            ),
        )  # fmt: skip
        fit = FitChoice(
            1, "Fit", "part", "thread-major", "shaft", "", thread="Tr20x4",
            joint="thread",
        )  # fmt: skip
        plan = plan_of(
            Job("job", "Job", pieces=("part",), fits=(fit,)),
            SHOP,
            None,
            {"part": piece},
        ).fits[0]
        self.assertIsNone(plan.lower)
        self.assertIn("cut it to the mate", plan.advice)
