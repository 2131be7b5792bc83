from tests.desk.bench import WindowCase


class FirstJobs(WindowCase):
    """The three first jobs of docs/first-jobs.md, typed as they are written down.

    Entries are counted as there: what is typed or chosen; Enter alone is none.
    """

    demo = False

    def setUp(self):
        super().setUp()
        page = self.window.pages.currentWidget()
        lathe = {
            "shop": "Ottermere Lane",
            "name": "Centre lathe 150",
            "centre_height": "150",
            "between_centres": "650",
            "swing_over_slide": "170",
            "speeds": "60, 100, 170, 290, 500",
            "dial_division": "0.02",
            "lead_screw": "8tpi",
            "wheels": "20, 40, 80, 127",
        }
        for key, text in lathe.items():
            self.type(page.fields[key].edit, text)
        self.entries = 0

    def enter(self, entry, text):
        self.type(entry, text)
        self.entries += 1

    def begin(self, name: str, what: str):
        """The job page, from the button that begins the first job."""
        self.click(self.window.pages.currentWidget().new)
        page = self.window.pages.currentWidget()
        self.enter(page.fields["name"].edit, name)
        self.type(page.fields["reason"].edit, "")
        self.click(page.what.cards[what])
        self.entries += 1
        self.click(page.go)
        return self.window.job_page()

    def first_piece(self, name: str, surface: str):
        """A piece and its first surface, by the buttons of the empty page."""
        survey = self.window.job_page().view()
        survey._ask_new_piece()
        self.enter(survey.new_piece.edit, name)
        self.pick(survey.surface_menu(), surface)
        self.entries += 1
        return survey

    def first_fit(self, surface: str):
        page = self.window.job_page()
        self.assertEqual(page.next_step(), "On to Fits")
        self.click(page.onward)
        fits = page.view()
        self.assertTrue(fits.first_fit.isVisible())
        self.pick(fits.fit_menu(), surface)
        self.entries += 1
        self.assertEqual(page.next_step(), "Print the fit sheet…")
        paper = self.folder / "fits.pdf"
        fits.print_sheet(paper)
        self.assertTrue(paper.exists())
        return fits

    def test_a_back_plate_for_a_bought_chuck(self):
        """8 tpi and 38.05 over the crests: 1 1/2 BSF or UN, which the flanks tell.

        Register 38.36 read thrice, "slides": g6 at 38 is 9 to 25 µm of play. The
        span 103.1 over screws of 7.9 at three holes: 95.2 / sin 60° = 109.93.
        """
        survey = self.begin("Back plate for the 125 mm chuck", "back-plate").view()
        readings = {
            "register": "38.36 38.365 38.36",
            "register-length": "9.5",
            "thread-major": "38.05",
            "thread-pitch": "8tpi",
            "nose-length": "32",
            "body": "125.1",
            "recess": "95.01 95.02 95.015",
            "recess-depth": "4.1",
            "bolt-hole": "7.9",
            "bolt-span": "103.1",
        }
        for surface, sizes in readings.items():
            self.assertEqual(survey.at[1], surface, "asked in this order")
            for size in sizes.split():
                self.enter(survey.reading.edit, size)
                self.assertFalse(survey.reading.refused, survey.reading.message.text())
            self.type(survey.reading.edit, "")
        page = self.window.job_page()
        self.assertEqual(self.job.plan.open["survey"], ())
        self.click(page.onward)
        fits = page.view()
        self.assertEqual(len(self.job.plan.open["fits"]), 2)
        fits.show_fit(2)
        names = [button.text() for button in fits.thread.near]
        self.assertEqual(names, ["It is 1 1/2 BSF", "It is 1 1/2-8 UN"])
        self.click(fits.thread.near[1])
        self.entries += 1
        self.assertEqual(self.job.plan.fit(2).thread.name, "1 1/2-8 UN")
        fits.show_fit(4)
        self.enter(fits.bolts.count.edit, "3")
        self.assertEqual(self.job.plan.open["fits"], ())
        self.assertAlmostEqual(self.job.plan.made.values["bolts.circle"], 109.93, 2)
        self.assertEqual(page.next_step(), "On to Piece")
        self.click(page.onward)
        self.assertIsNotNone(self.job.plan.made)
        self.assertEqual(self.job.plan.open["piece"], ())
        self.assertEqual(self.entries, 18)

    def test_an_arbor_for_a_morse_2_tailstock(self):
        """Morse 2: 1 : 20.02, half angle 1.4307°, 17.780 at the gauge line; ISO 296."""
        self.begin("Arbor, Morse 2", "other")
        survey = self.first_piece("Tailstock", "Taper inside")
        self.enter(survey.as_made.edit, "MT2")
        self.first_fit("Taper inside of Tailstock")
        angle, large = (
            band for band in self.job.plan.fit(1).joined.bands if not band.measured
        )
        self.assertLess(angle.lower, 1.4307)
        self.assertGreater(angle.upper, 1.4307)
        self.assertAlmostEqual(large.aim, 17.780, 3)
        self.assertEqual(self.entries, 6)

    def test_t_nuts_for_the_mill_s_table(self):
        """The neck read 14.05, 14.08, 14.06: the tightest place rules the tongue."""
        self.begin("T-nuts for the mill", "other")
        survey = self.first_piece("Mill table", "T-slot")
        for sizes in ("14.05 14.08 14.06", "22.4", "9.5", "9.5"):
            for size in sizes.split():
                self.enter(survey.reading.edit, size)
                self.assertFalse(survey.reading.refused, survey.reading.message.text())
            self.type(survey.reading.edit, "")
        self.first_fit("T-slot neck of Mill table")
        tongue = self.job.plan.fit(1).joined.first
        self.assertLess(tongue.upper, 14.05)
        self.assertGreater(tongue.width, 0.02, "wear does not eat the band")
        self.assertEqual(self.entries, 11)
