from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.desk.bench import WindowCase


class CutIt(WindowCase):
    """Any plain fit is cut at the machine with the coach, with no family behind it.

    Its dial counts the diameter.
    """

    def begin(self, surface, group, gauge, *readings, joint="", word="", play=()):
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["other"])
        self.type(page.fields["name"].edit, "Any fit")
        self.type(page.fields["reason"].edit, "To see.")
        survey = self.window.job_page().view()
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "The mate")
        self.pick(survey.surface_menu(), group)
        self.choose(survey.instrument, gauge)
        for reading in readings:
            self.type(survey.reading.edit, reading)
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), f"{surface} of The mate")
        if joint:
            self.choose(fits.cylinder.joint, joint)
        if word:
            self.click(fits.cylinder.radios[word])
        if play:
            self.type(fits.cylinder.least.edit, play[0])
            self.type(fits.cylinder.most.edit, play[1])
        return fits

    def test_a_spigot_for_a_measured_recess(self):
        """Recess 60.012 ± 5.2 µm with 10 to 60 µm of play: 59.957 to 59.997."""
        fits = self.begin(
            "Recess",
            "Recess and its depth",
            "bore-gauge",
            "60.012",
            "60.012",
            "60.012",
            play=("0.01", "0.06"),
        )
        self.assertTrue(fits.cut_it.isVisible())
        self.click(fits.cut_it)
        self.assertEqual(self.window.job_page().stage, "cut")
        self.assertEqual(self.job.job.log.instrument, "micrometer")
        band = self.job.plan.fit(1)
        size = self.sneak_up(60.9, 1)
        self.assertTrue(band.lower <= size <= band.upper)
        cut = self.window.job_page().view()
        self.click(cut.answers["goes on"])
        self.assertEqual(self.job.plan.open["cut"], ())
        fits = self.stage("fits")
        self.assertIn("in its band", fits.as_cut.text())
        self.assertEqual(fits.cut_it.text(), "Back to the machine")

    def test_a_cut_after_the_last_reading_opens_the_size_again(self):
        fits = self.begin(
            "Recess",
            "Recess and its depth",
            "bore-gauge",
            "60.012",
            "60.012",
            play=("0.01", "0.06"),
        )
        self.click(fits.cut_it)
        self.sneak_up(60.9, 1)
        self.assertIn("in its band", self.stage("fits").as_cut.text())
        self.job.cut_made()
        self.assertIn("measure it", self.stage("fits").as_cut.text())

    def test_a_bore_for_a_measured_shaft_is_cut_from_below(self):
        fits = self.begin(
            "Shaft or journal",
            "Shaft or journal",
            "micrometer",
            "30.00",
            "30.00",
            joint="shaft",
            play=("0.01", "0.06"),
            word="runs-loose",
        )
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.assertEqual(self.job.job.log.instrument, "bore-gauge")
        self.assertIn("bore", cut.under.text())
        self.type(cut.field.edit, "30.5")
        self.assertIn("already over the band", cut.field.message.text())
        band = self.job.plan.fit(1)
        size = self.sneak_up(29.2, -1)
        self.assertTrue(band.lower <= size <= band.upper)
        self.click(cut.answers["tight"])
        self.assertIn("tight", self.job.plan.open["cut"][0])

    def test_a_bore_to_8_um_with_a_slim_bar_by_number_keys_alone(self):
        """Shaft 30.000 ± 4.4 µm with 6 to 23 µm of play: 30.0104 to 30.0186. The bar
        takes 0.82 of what stands before it; only figures and Enter are pressed."""
        lathe = replace(self.window.file.get("lathe"), dial_division=0.005)
        self.window.file.act("shop", "A finer dial.", lathe)
        fits = self.begin(
            "Shaft or journal",
            "Shaft or journal",
            "micrometer",
            *("30.000",) * 4,
            joint="shaft",
            play=("0.006", "0.023"),
        )
        self.click(fits.cut_it)
        band = self.job.plan.fit(1)
        self.assertAlmostEqual(band.upper - band.lower, 0.0082, delta=0.0008)
        self.window.at_the_machine()
        self.settle()
        cut = self.window.job_page().view()
        size = 29.2
        self.keys("29.200")
        self.keys("0")
        for _ in range(40):
            advice = self.job.plan.advice
            if advice.action in ("stop", "scrapped"):
                break
            if advice.infeed > 0 and cut.screen.asks != "reading":
                standing = advice.dial - (size - 29.2) / 2
                size += 2 * 0.82 * standing
                self.keys("")
            if cut.screen.asks == "reading":
                self.keys(f"{size:.3f}")
        self.assertEqual(advice.action, "stop")
        self.assertTrue(band.lower <= size <= band.upper, size)
        self.assertEqual(cut.screen.ink, "proved")

    def keys(self, figures):
        """Press figures, then Enter, wherever the keys go."""
        for figure in figures:
            QTest.keyClicks(self.app.focusWidget(), figure)
        QTest.keyClick(self.app.focusWidget(), Qt.Key.Key_Return)
        self.settle()

    def test_what_the_gauge_reads_over_on_its_standard_is_taken_off(self):
        """Four readings of ±1.5 µm on a standard of ±0.5 tell its zero to 0.9 µm; 1.3
        it was before."""
        fits = self.begin(
            "Recess",
            "Recess and its depth",
            "bore-gauge",
            *("60.012",) * 3,
            play=("0.01", "0.06"),
        )
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.type(cut.field.edit, "60.9")
        before = self.job.plan.cut_state
        self.click(cut.tools.check_gauge)
        for wrong in ("60", "60 60.2"):
            self.type(cut.tools.check.edit, wrong)
            self.assertTrue(cut.tools.check.refused, wrong)
        self.type(cut.tools.check.edit, "60 60.002 60.004 60.003 60.003")
        self.assertIn("3.0 µm over on 60.000 mm", cut.tools.minded.text())
        self.assertFalse(cut.tools.check.isVisible())
        state = self.job.plan.cut_state
        self.assertAlmostEqual(state.start, 60.897)
        self.assertLess(state.zero_sigma, 0.8 * before.zero_sigma)
        size = self.sneak_up(60.9, 1)
        self.assertEqual(self.job.job.log.last_read.measured, round(size, 3))
        (line,) = self.job.plan.proof
        self.assertAlmostEqual(line.size, round(size, 3) - 0.003)
        # another gauge was not checked
        self.choose(cut.tools.instrument, "caliper")
        self.assertEqual(self.job.plan.cut_state.start, 60.9)

    def test_a_reading_of_warm_work_is_taken_as_it_is_at_20_degrees(self):
        """Steel of 60.9 is 11.5e-6 × 60.9 × 10 = 7 µm larger at 30 °C, 86 °F."""
        fits = self.begin("Recess", "Recess and its depth", "bore-gauge", "60.01")
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.assertIn("@", cut.field.message.text())
        for typed in ("60.9 @ 30", "60.9 at 86F"):
            self.type(cut.field.edit, typed)
            self.assertAlmostEqual(self.job.job.log.start, 60.893, places=4)
            self.job.undo()
        self.type(cut.field.edit, "60.9 @ 86")
        self.assertIn("86F", cut.field.message.text())
        self.assertEqual(cut.field.text(), "60.9 @ 86")

    def test_what_dial_and_gauge_cannot_do_is_said_before_it_matters(self):
        """A band of 5 µm: half of it is less than a line of 0.02, and the micrometer's
        doubt of 4 is wider."""
        fits = self.begin(
            "Recess",
            "Recess and its depth",
            "bore-gauge",
            *("60.012",) * 9,
            play=("0.010", "0.026"),
        )
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.type(cut.field.edit, "60.9")
        self.type(cut.field.edit, "0")
        self.assertIn("set the compound over", cut.tools.minded.text())
        # roughed by the cross slide, of which the tool takes 0.95
        self.click(cut.enter_button)
        stands = self.job.job.log.entries[-1].dial
        self.type(cut.field.edit, f"{60.9 - 2 * 0.95 * stands:.3f}")
        self.pick(
            cut.tools.feed_menu(), "The compound at 5.74°: a tenth of its line a side"
        )
        self.type(cut.tools.shown.edit, "0")
        self.assertNotIn("set the compound over", cut.tools.minded.text())
        self.assertIn("keep it off the shoulder", cut.tools.minded.text())
        self.assertAlmostEqual(self.job.plan.cut_state.division, 0.002)
        advice, dial = self.job.plan.advice, self.job.dial
        wound = dial.shows(advice.dial, self.job.touch)
        self.assertAlmostEqual(wound, 10 * (advice.dial - stands))
        self.assertIn("on the compound", cut.under.text())
        self.pick(cut.tools.feed_menu(), "The cross slide")
        self.type(cut.tools.shown.edit, "1.5")
        self.assertAlmostEqual(self.job.dial.shows(stands, self.job.touch), 1.5)

    def test_what_is_still_to_cut_is_open_and_not_failed(self):
        fits = self.begin("Recess", "Recess and its depth", "bore-gauge", "60.01")
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.type(cut.field.edit, "61")
        self.type(cut.field.edit, "0")
        self.click(cut.enter_button)
        self.type(cut.field.edit, "60.8")
        self.assertIn("not in its band yet", self.job.plan.open["cut"][0])
        proof = self.stage("proof")
        self.assertEqual(self.job.plan.verdict, "open")
        self.assertFalse(proof.keep.isVisible())

    def test_each_fit_has_a_log_of_its_own_and_undo_takes_back_its_entries(self):
        fits = self.begin("Recess", "Recess and its depth", "bore-gauge", "60.01")
        self.job.add_fit(self.job.job.pieces[0], "recess")
        self.window.go("fits")
        self.click(fits.cut_it)
        cut = self.window.job_page().view()
        self.type(cut.field.edit, "61")
        self.job.cut_fit(2)
        self.assertIsNone(self.job.job.log.start)
        self.job.cut_fit(1)
        self.assertEqual(self.job.job.log.start, 61)
        self.assertIn("To the machine", self.job.undo())
        self.assertIn("To the machine", self.job.undo())
        self.assertIn("61.000 mm before the first cut", self.job.undo())
        self.assertIsNone(self.job.job.log.start)

    def test_a_tongue_of_a_strip_is_cut_and_its_steps_are_done(self):
        self.window.actions_by_id["job.new"].trigger()
        self.settle()
        page = self.window.pages.currentWidget()
        self.type(page.fields["name"].edit, "T-nuts")
        self.click(page.what.cards["t-nut-strip"])
        self.click(page.go)
        fits = self.stage("fits")
        self.click(fits.cut_it)
        band = self.job.plan.fit(1)
        size = self.sneak_up(band.upper + 0.8, 1)
        self.assertTrue(band.lower <= size <= band.upper)
        self.click(self.window.job_page().view().answers["goes on"])
        self.assertTrue(self.job.job.done)
        route = {s.key: s for up in self.job.plan.route for s in up.steps}
        self.assertTrue(all(route[key].fit == 1 for key in self.job.job.done))

    def test_a_register_is_cut_to_its_mate_by_trial(self):
        """Recess 60.01 by caliper, ± 23 µm; "slides" is g6, 10 to 29 µm of play:
        nothing is left. Surely too tight is 60.01 + 0.0228 − 0.010, surely too
        loose 60.01 − 0.0228 − 0.029. It truly is 60.000, so that 59.990 goes on."""
        fits = self.begin(
            "Recess", "Recess and its depth", "caliper", "60.01", word="slides"
        )
        fit = self.job.plan.fit(1)
        self.assertTrue(fit.spent)
        loose, tight = fit.could_fit
        doubt = fit.mate.uncertainty + fit.mate.shape / 2
        self.assertAlmostEqual(tight, 60.01 + doubt - 0.010, places=4)
        self.assertAlmostEqual(loose, 60.01 - doubt - 0.029, places=4)
        self.assertIn("by trial", fits.cut_it.text())
        self.assertIn("nothing is left", self.job.plan.open["fits"][0])
        self.click(fits.cut_it)
        self.assertEqual(self.job.plan.open["fits"], ())

        size = self.sneak_up(60.9, 1)
        # not past the first size that could go on by more than a division takes
        self.assertGreater(size, tight - 0.02)
        self.assertLess(size, tight + 0.05)
        cut = self.window.job_page().view()
        self.assertEqual(cut.head.text(), "Try the mate")
        tries = 0
        while size > 59.990:
            tries += 1
            self.click(cut.answers["tight"])
            self.assertEqual(cut.screen.asks, "cut")
            self.assertIn("Tight", cut.why.text())
            self.assertIn("still tight", self.job.plan.open["cut"][0])
            self.click(cut.enter_button)
            size -= 0.019  # a division of 0.01 on the radius, as this lathe takes it
            self.assertEqual(
                cut.screen.asks, "reading", "the size that goes on is kept"
            )
            self.type(cut.field.edit, f"{size:.3f}")
            self.assertEqual(cut.screen.asks, "trial")
        self.assertGreater(tries, 1)
        self.click(cut.answers["goes on"])
        self.assertEqual(cut.head.text(), "It goes on")
        self.assertEqual(self.job.plan.open["cut"], ())
        self.assertEqual(self.job.plan.verdict, "proved")
        self.assertIn("by trial", self.job.plan.proof[0].says)
        self.click(cut.answers["loose"])
        self.assertEqual(self.job.plan.verdict, "failed")

    def test_a_thread_or_a_spent_press_is_not_offered(self):
        fits = self.begin(
            "Recess",
            "Recess and its depth",
            "caliper",
            "60.01",
            play=("-0.02", "-0.001"),
        )
        self.assertTrue(self.job.plan.fit(1).spent)
        self.assertFalse(fits.cut_it.isVisible())
