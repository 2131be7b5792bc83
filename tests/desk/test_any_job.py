from tests.desk.bench import WindowCase


class AnyJob(WindowCase):
    """A job that has no family yet: an expanding arbor for a 30 mm bronze bush.

    Bush read 30.013, 30.016, 30.013 by bore gauge (±5 µm, repeats to 2 µm):
        mean 30.014; scatter √(2² ∨ 1.73²) = 2 µm; one digit 1 µm; 1 K of bronze
        30.014 · 18e-6 / √3 = 0.312 µm:
        2 √(2.5² + 2²/3 + 1/12 + 0.312²) = 5.57 µm.
    "Wrung on" is h6 at 30: −13 to 0, so play 0 to 13 µm: the arbor is
        30.014 − 0.0056 − 0 = 30.0084 at most and
        30.014 + 0.0056 − 0.013 = 30.0066 at least.
    """

    def test_from_nothing_to_a_band_in_under_fifteen_entries(self):
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["other"])
        self.type(page.fields["name"].edit, "Expanding arbor for 30 mm bushes")
        self.type(page.fields["reason"].edit, "Bushes run out in the three-jaw.")
        survey = self.window.job_page().view()
        self.assertIn("Nothing to measure", survey.empty.title.text())
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "")
        self.assertIn("Nothing is typed", survey.new_piece.message.text())
        self.type(survey.new_piece.edit, "Bronze bush")
        self.pick(survey.surface_menu(), "Bore")
        self.choose(survey.instrument, "bore-gauge")
        for size in ("30.013", "30.016", "30.013"):
            self.type(survey.reading.edit, size)
        self.assertEqual(survey.nominal.text(), "30 mm bore")
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), "Bore of Bronze bush")
        self.click(fits.cylinder.radios["wrung"])
        fit = self.job.plan.fit(1)
        self.assertAlmostEqual(fit.lower, 30.0066, delta=0.0001)
        self.assertAlmostEqual(fit.upper, 30.0084, delta=0.0001)
        self.assertEqual(self.job.plan.open["fits"], ())

    def test_pieces_surfaces_and_fits_are_added_dropped_and_taken_back(self):
        self.window.open_job("dial-hub")
        survey = self.stage("survey")
        self.pick(survey.piece_menu(), "Three-jaw chuck 130 mm")
        self.assertIn("chuck-130", self.job.pieces)
        for _ in range(2):
            survey.choose("worm-shaft", "shaft")
            self.pick(survey.surface_menu(), "Tongue or key")
        names = [surface.name for surface in self.job.pieces["worm-shaft"].surfaces]
        self.assertEqual(names[-2:], ["Tongue or key width", "Tongue or key width 2"])
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), "Rear recess of Three-jaw chuck 130 mm")
        self.assertEqual(fits.number(), 4)
        self.click(fits.drop)
        self.assertEqual(len(self.job.job.fits), 3)
        for _ in range(5):
            self.window.actions_by_id["edit.undo"].trigger()
        self.assertNotIn("chuck-130", self.job.pieces)
        self.assertEqual(len(self.job.pieces["worm-shaft"].surfaces), 4)

    def test_without_a_fit_there_is_no_reason_to_give(self):
        self.window.open_job("drawbar-cap")
        fits = self.stage("fits")
        while fits.number():
            self.assertTrue(fits.reason.isVisible())
            self.click(fits.drop)
        self.assertFalse(fits.reason.isVisible())
        self.assertEqual(fits.first_fit.text(), "Add the first fit")

    def test_the_fits_that_a_plate_rests_on_stay(self):
        self.window.open_job("back-plate-130")
        fits = self.stage("fits")
        fits.show_fit(2)
        self.assertFalse(fits.drop.isEnabled())
        self.pick(fits.fit_menu(), "Body diameter of Three-jaw chuck 130 mm")
        self.assertEqual(fits.number(), 5)
        self.assertTrue(fits.drop.isEnabled())
        self.stage("piece")
        self.assertIsNotNone(self.job.plan.made, "a fifth fit leaves the plate alone")

    def test_a_hub_pressed_on_a_shaft_and_what_the_press_must_do(self):
        """Worm shaft 11.986 ± 4.4 µm; n6 at 12 is +12 to +23, so the bore lies
        11.986 + 0.0044 − 0.023 = 11.9674 to 11.986 − 0.0044 − 0.012 = 11.9696."""
        self.window.open_job("dial-hub")
        choice = self.stage("fits").cylinder
        self.assertTrue(choice.radios["locates"].isChecked())
        self.click(choice.radios["light-press"])
        fit = self.job.plan.fit(1)
        self.assertAlmostEqual(fit.lower, 11.9674, delta=0.0001)
        self.assertAlmostEqual(fit.upper, 11.9696, delta=0.0001)
        self.assertEqual(choice.play.name(), "Interference")
        self.assertIn("guarded", choice.part.caution.text())
        self.assertIn("pressed", choice.part.advice.text())

    def test_a_nut_in_its_slot_is_chosen_by_a_slot_s_words(self):
        self.window.open_job("t-nuts")
        choice = self.stage("fits").cylinder
        shown = [key for key, radio in choice.radios.items() if not radio.isHidden()]
        self.assertEqual(shown, ["free", "glides", "snug", "driven"])
        self.assertNotIn("⌀", choice.aim.text())
        self.choose(choice.joint, "register")
        self.assertTrue(choice.radios["slides"].isChecked())
        self.assertEqual(self.job.job.fit(1).joint, "register")
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertTrue(choice.radios["free"].isChecked())

    def test_a_thread_gets_its_other_half_inside_and_outside(self):
        """M10: bore 8.376 to 8.676 for a nut of 6H, crests 9.732 to 9.968 for a
        screw of 6g, as ISO 965-2 prints them."""
        self.window.open_job("dial-hub")
        survey = self.stage("survey")
        for piece, words, size in (
            ("worm-shaft", "Thread outside", "9.85"),
            ("graduated-dial", "Thread of a nut", "8.5"),
        ):
            survey.choose(piece, self.job.pieces[piece].surfaces[0].id)
            self.pick(survey.surface_menu(), words)
            for gauge, typed in (("caliper", size), ("thread-gauge", "1.5")):
                self.choose(survey.instrument, gauge)
                self.type(survey.reading.edit, typed)
                self.click(survey.next)
        fits = self.stage("fits")
        for words, low, high, half in (
            ("Thread over the crests of Rotary table's worm shaft", 8.376, 8.676, "6H"),
            (
                "Thread across the crests of a nut of Graduated dial",
                9.732,
                9.968,
                "6g",
            ),
        ):
            self.pick(fits.fit_menu(), words)
            fit = self.job.plan.fit(fits.number())
            self.assertEqual(fits.thread.found.text(), "M10 × 1.5")
            self.assertAlmostEqual(fit.lower, low, places=3)
            self.assertAlmostEqual(fit.upper, high, places=3)
            self.assertIn(f"class {half}", fits.thread.means.text())
        self.type(fits.thread.grade.edit, "6H")
        self.assertIn("not kept here", fits.thread.grade.message.text())
        self.type(fits.thread.grade.edit, "4h")
        self.assertAlmostEqual(self.job.plan.fit(5).upper, 10.0)
