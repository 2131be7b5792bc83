import csv

from pypdf import PdfReader
from PySide6.QtCore import QRectF
from PySide6.QtWidgets import QLabel

from machinon.core.families import families
from machinon.core.quantity import length_text
from tests.desk.bench import WindowCase
from tests.desk.test_made_pieces import MadePieces


class NoDeadEnds(WindowCase):
    """Each stage ends in one clear step; each empty page says what starts it."""

    def begin(self, name: str):
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        self.click(page.what.cards["other"])
        self.type(page.fields["name"].edit, name)
        self.type(page.fields["reason"].edit, "")
        return self.window.job_page()

    def test_an_empty_job_leads_from_page_to_page_by_its_main_button(self):
        page = self.begin("Arbor for a bought bush")
        survey = page.view()
        self.assertTrue(survey.empty.isVisible())
        self.assertEqual(survey.empty.start.text(), "Add the first piece")
        self.assertEqual(page.next_step(), "", "something is open")
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "Bush")
        self.assertEqual(survey.empty.start.text(), "Add the first surface")
        fits = self.stage("fits")
        self.assertEqual(fits.first_fit.text(), "On to Survey")
        self.click(fits.first_fit)
        self.assertEqual(page.stage, "survey")

    def test_a_bought_part_stands_by_its_standard_until_it_is_read(self):
        """16 h6 is 15.989 to 16.000, so ±5.5 µm about 15.9945; ISO 286-2."""
        page = self.begin("Sleeve for a bought dowel")
        survey = page.view()
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "Dowel")
        self.pick(survey.surface_menu(), "Shaft or journal")
        for wrong, says in (("16", "with its zone"), ("16 H6", "a zone for a hole")):
            self.type(survey.as_made.edit, wrong)
            self.assertIn(says, survey.as_made.message.text())
        self.type(survey.as_made.edit, "16h6")
        found = next(iter(self.job.plan.measured.values()))
        self.assertAlmostEqual(found.lower, 15.989, 6)
        self.assertAlmostEqual(found.upper, 16.0, 6)
        self.assertEqual(page.next_step(), "On to Fits")
        self.click(page.onward)
        fits = page.view()
        self.pick(fits.fit_menu(), "Shaft or journal of Dowel")
        self.click(fits.cylinder.radios["runs"])
        self.assertEqual(page.next_step(), "Print the fit sheet…")
        survey = self.stage("survey")
        self.choose(survey.instrument, "micrometer")
        for size in ("15.996", "15.996"):
            self.type(survey.reading.edit, size)
        found = next(iter(self.job.plan.measured.values()))
        self.assertAlmostEqual(found.size, 15.996, 6)
        self.assertFalse(survey.as_made.isVisible(), "what was read counts")

    def test_a_named_taper_is_one_action_away_measured_or_not(self):
        page = self.begin("Arbor for the tailstock")
        survey = page.view()
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "Tailstock")
        self.pick(survey.surface_menu(), "Taper inside")
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), "Taper inside of Tailstock")
        self.assertTrue(fits.as_made.isVisible())
        self.type(fits.as_made.edit, "7/24")
        self.assertIn("not how large", fits.as_made.message.text())
        self.type(fits.as_made.edit, "morse 2")
        fit = self.job.plan.fit(1)
        self.assertAlmostEqual(fit.mate.size, 17.780)
        self.assertFalse(fit.problem)
        self.window.open_job("die-holder")
        fits = self.stage("fits")
        self.assertEqual(fits.standard.text(), "Make it to MT3")
        self.click(fits.standard)
        self.assertEqual(self.job.job.fit(fits.number()).given["taper"], "MT3")
        self.assertFalse(fits.standard.isVisible())

    def test_a_thread_by_its_name_needs_no_pitch_until_it_is_read(self):
        """M39x4: 38.465 to 38.940 over its crests, the nut bored 34.670 to 35.270."""
        page = self.begin("Plate for a lathe that is still to come")
        survey = page.view()
        survey._ask_new_piece()
        self.type(survey.new_piece.edit, "Nose")
        self.pick(survey.surface_menu(), "Thread outside")
        survey.choose(survey.at[0], "thread-major")
        self.type(survey.as_made.edit, "39")
        self.assertIn("M8", survey.as_made.message.text())
        self.type(survey.as_made.edit, "m39")
        crests = self.job.plan.measured[survey.at]
        self.assertAlmostEqual(crests.lower, 38.465, 3)
        self.assertAlmostEqual(crests.upper, 38.940, 3)
        self.assertEqual(crests.nominal, "M39x4")
        nose = survey.tree.topLevelItem(0)
        shown = [nose.child(i).text(1) for i in range(2)]
        self.assertEqual(shown, ["M39 × 4", "4 mm"])
        self.assertEqual(page.next_step(), "On to Fits")
        fits = self.stage("fits")
        self.pick(fits.fit_menu(), "Thread over the crests of Nose")
        fit = self.job.plan.fit(1)
        self.assertEqual((fit.problem, fit.thread.name), ("", "M39x4"))
        self.assertAlmostEqual(fit.lower, 34.670, 3)
        self.assertAlmostEqual(fit.upper, 35.270, 3)
        survey = self.stage("survey")
        survey.choose(survey.at[0], "thread-pitch")
        self.assertFalse(survey.as_made.isVisible())
        self.choose(survey.instrument, "thread-gauge")
        self.type(survey.reading.edit, "3")
        self.assertEqual(self.job.plan.fit(1).thread.name, "M39x3", "it is read now")

    def test_the_fits_of_any_job_go_on_paper_and_into_a_list(self):
        for id in ("dial-hub", "die-holder", "t-nuts", "back-plate-130"):
            self.window.open_job(id)
            fits = self.stage("fits")
            page, table = self.folder / f"{id}.pdf", self.folder / f"{id}.csv"
            fits.print_sheet(page)
            fits.print_sheet(table)
            (sheet,) = PdfReader(page).pages  # four fits and the set-up over them
            text = " ".join(sheet.extract_text().split())
            for choice in (
                *self.job.plan.stack,
                *(f.choice for f in self.job.plan.fits),
            ):
                self.assertIn(choice.name, text)
            rows = list(csv.DictReader(table.read_text("utf-8").splitlines()))
            numbers = {row["fit"] for row in rows}
            self.assertEqual(
                numbers, {str(f.choice.number) for f in self.job.plan.fits}
            )
            made = [row for row in rows if row["smallest"]]
            self.assertTrue(made, id)
            self.assertTrue(all(row["largest"] for row in made))
        spigot = next(r for r in rows if r["fit"] == "3")
        low, high = self.job.plan.fit(3).lower, self.job.plan.fit(3).upper
        self.assertEqual(spigot["smallest"], length_text(low, 0.001))
        self.assertEqual(spigot["largest"], length_text(high, 0.001))
        fits.print_sheet(self.folder / "not there" / "x.pdf")
        self.assertIn("could not be written", fits.written.text())

    def test_a_job_that_draws_no_piece_offers_to_add_one(self):
        self.window.open_job("dial-hub")
        self.window.go("route")
        self.click(self.window.job_page().unready.start)
        self.assertTrue(self.window.pages.currentWidget().what.isVisible())

    def test_a_wild_reading_is_set_apart_and_the_size_is_what_the_others_say(self):
        self.window.open_job("back-plate-130")
        survey = self.stage("survey")
        survey.choose("chuck-130", "recess")
        before = self.job.plan.measured["chuck-130", "recess"].size
        self.choose(survey.instrument, "bore-gauge")
        self.type(survey.reading.edit, "95.519")
        found = self.job.plan.measured["chuck-130", "recess"]
        self.assertAlmostEqual(found.size, before, 6)
        self.assertIn("1 set apart", survey.says.spread._small.words)
        self.assertIn(
            "Set apart until you decide",
            " ".join(label.text() for label in survey.findChildren(QLabel)),
        )
        survey._let_count(len(survey._surface().readings) - 1, "seen twice")
        self.assertGreater(self.job.plan.measured["chuck-130", "recess"].size, before)


class StillToBeKnown(MadePieces):
    """What no reading and nobody has told yet of a piece of a family."""

    def test_what_keeps_a_piece_from_being_drawn_is_said_with_the_ways_to_tell_it(self):
        """Every stage of a collet spindle just begun leads to the tube's bore, and to
        the nut's thread, which no gauge reads."""
        self.begin("collet-spindle", "Spindle", tube="new", nut="new", collet="new")
        survey = self.stage("survey")
        collets = self.job.plan.pieces[self.job.job.making.mates["collet"]]
        names = [surface.name for surface in collets.surfaces]
        self.assertEqual(names, ["Large end of their taper", "Length of their taper"])
        job_page = self.window.job_page()
        for stage in ("piece", "route", "cut"):
            view = self.stage(stage)
            page = job_page.unready if view is None else view.nothing
            self.assertIn("Tube it turns in: its bore", page.words.text())
            self.assertIn("Its nut: its thread", page.words.text())
            self.click(page.start)
            self.assertEqual(job_page.stage, "survey")
            self.assertTrue(survey.reading.edit.hasFocus())
            self.window.go(stage)
            self.click(page.other)
            self.assertEqual(job_page.stage, "piece")
            self.assertTrue(job_page.view().asked["nut.thread"].edit.hasFocus())

    def test_a_piece_that_its_mate_no_longer_lets_be_made_can_be_put_right(self):
        """A seat at 8° of 29 mm loses 2 × 29 × tan 8° = 8.15 mm: from a large end of 6
        it ends in a point at 6 / (2 tan 8°) = 21.35 mm."""
        self.begin("collet-spindle", "Spindle", tube="new", nut="new", collet="new")
        family = families()["collet-spindle"]
        for key, mate_size in family.mate_keys.items():
            if key != "collet.large":  # it is read
                self.job.set_size(key, f"{mate_size.usual}")
        mate = self.job.job.making.mates["collet"]
        self.job.add_reading(mate, "shaft", "26", "caliper")
        self.job.set_size("seat.length", "29")
        self.job.add_reading(mate, "shaft", "6", "caliper")
        self.job.strike(mate, "shaft", 0, "another collet")
        piece = self.stage("piece")
        self.assertIn("Length of the seat: it ends", piece.nothing.words.text())
        self.assertIn("21.3", piece.nothing.words.text())
        self.type(piece.asked["seat.length"].edit, "15")
        self.assertIsNotNone(self.job.plan.made)
        self.assertTrue(piece.drawing.isVisible())

    def test_what_is_typed_beside_a_reading_is_asked_there_alone(self):
        """Over pins: a dovetail's depth, angle and pins go with the reading."""
        self.begin("dovetail-stop", "Stop", slide="new")
        wanted = {
            wanted_one.key: wanted_one.stage for wanted_one in self.job.plan.missing
        }
        self.assertEqual(set(wanted.values()), {"survey"}, wanted)
        self.assertEqual(self.stage("piece").asked, {})

    def test_a_line_that_only_follows_says_what_to_change(self):
        """Six nuts: the strip's length is their sum with the saws."""
        self.window.open_job("t-nuts")
        piece = self.stage("piece")
        piece.drawing.spot_chosen.emit("strip.length", QRectF())
        self.assertIn("follows from the other sizes", piece.says.text())
        self.assertFalse(piece.edit.isVisible())
