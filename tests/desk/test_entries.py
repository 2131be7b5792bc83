"""Every entry goes where it belongs, once, and can be taken back."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from machinon.core.errors import BadInput
from machinon.desk.begin import begin_job
from machinon.desk.name_dialog import NameDialog
from tests.desk.bench import WindowCase


class Readings(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job("die-holder")
        self.view = self.stage("survey")

    def test_a_place_never_goes_on_to_another_surface(self):
        """A reading 30 mm along a taper; the next shaft is read nowhere special."""
        piece = next(iter(self.job.pieces.values()))
        taper = next(s.id for s in piece.surfaces if s.id.startswith("taper"))
        self.view.choose(piece.id, taper)
        self.type(self.view.place.edit, "30")
        self.type(self.view.reading.edit, "22.3")
        for leave in (
            lambda: self.view.add_surface(piece.id, "shaft"),
            lambda: self.view._next_surface(),
        ):
            self.view.choose(piece.id, taper)
            self.type(self.view.place.edit, "30", enter=False)
            leave()
            self.assertEqual(self.view.place.text(), "")

    def test_the_decimal_key_of_any_number_pad_types_a_point(self):
        """That of many keyboards is a comma; one of the letters stays what it is."""
        edit, pad = self.view.reading.edit, Qt.KeyboardModifier.KeypadModifier
        for keys in ((Qt.Key.Key_4, pad), (Qt.Key.Key_Comma, pad), (Qt.Key.Key_2, pad)):
            QTest.keyClick(edit, *keys)
        self.assertEqual(edit.text(), "4.2")
        QTest.keyClick(edit, Qt.Key.Key_Comma)
        self.assertEqual(edit.text(), "4.2,")

    def test_what_stands_from_the_surface_before_says_so(self):
        piece = next(iter(self.job.pieces.values()))
        self.type(self.view.temperature.edit, "26")
        self.view.add_surface(piece.id, "shaft")
        self.settle()
        self.assertIn("surface before", self.view.temperature.name.text())

    def test_a_gauge_is_as_on_the_surface_before_only_where_there_was_one(self):
        job = begin_job(self.window.file, {"what": "housing-cover", "name": "Cover"})
        self.window.open_job(job.id)
        view = self.stage("survey")
        self.assertIn("A bare number is", view.instrument_says.text())
        self.assertNotIn("surface before", view.instrument_says.text())
        view._next_surface()
        self.settle()
        self.assertIn("As on the surface before", view.instrument_says.text())

    def test_undo_right_after_enter_takes_the_reading_back(self):
        self.window.open_job("back-plate-130")
        view = self.stage("survey")
        view.choose("chuck-130", "recess")
        count = len(self.job.surface("chuck-130", "recess").readings)
        for keys in ("z", "z"):
            self.type(view.reading.edit, "95.02")
            self.assertEqual(
                len(self.job.surface("chuck-130", "recess").readings), count + 1
            )
            QTest.keyClick(view.reading.edit, keys, Qt.KeyboardModifier.ControlModifier)
            self.settle()
            self.assertEqual(
                len(self.job.surface("chuck-130", "recess").readings), count
            )

    def test_striking_a_reading_leaves_the_keys_at_the_entry(self):
        self.window.open_job("back-plate-130")
        view = self.stage("survey")
        view.choose("chuck-130", "recess")
        view.reading.edit.setFocus()
        view._strike(0, "a burr")
        self.settle()
        self.assertIs(self.app.focusWidget(), view.reading.edit)

    def test_an_inch_shop_starts_with_inch_instruments(self):
        from machinon.core.shop.things import starter_instruments

        for instrument in starter_instruments(inch=True):
            with self.subTest(instrument.id):
                self.assertTrue(instrument.inch or instrument.id == "thread-gauge")
        lengths = [i for i in starter_instruments(False) if "length" in i.suits]
        self.assertTrue(any(instrument.reaches(1000) for instrument in lengths))

    def test_a_width_is_read_with_what_reaches_and_carries_a_fit(self):
        piece = next(iter(self.job.pieces.values()))
        self.view.add_surface(piece.id, "width")
        self.choose(self.view.instrument, "micrometer")
        self.type(self.view.reading.edit, "60.01")
        self.assertEqual(self.view.reading.message.text(), "")
        self.choose(self.view.instrument, "rule")
        self.type(self.view.reading.edit, "251")
        number = self.job.add_fit(piece.id, "width")
        self.assertEqual(self.job.job.fit(number).joint, "slot")


class Names(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job("dial-hub")
        self.view = self.stage("survey")

    def test_surfaces_pieces_and_fits_are_renamed(self):
        self.job.rename_surface("worm-shaft", "shaft", "Worm shaft, dial end")
        self.job.rename_piece("worm-shaft", "The worm shaft")
        self.job.rename_fit(1, "Hub on shaft")
        self.assertEqual(
            self.job.surface("worm-shaft", "shaft").name, "Worm shaft, dial end"
        )
        self.assertEqual(self.job.pieces["worm-shaft"].name, "The worm shaft")
        self.assertEqual(self.job.job.fit(1).name, "Hub on shaft")
        with self.assertRaises(BadInput):
            self.job.rename_piece("worm-shaft", "  ")

    def test_a_surface_moves_to_its_piece_with_its_readings(self):
        before = self.job.surface("worm-shaft", "shoulder")
        self.job.move_surface("worm-shaft", "shoulder", "graduated-dial")
        self.assertIsNone(self.job.pieces["worm-shaft"].surface("shoulder"))
        moved = self.job.surface("graduated-dial", "shoulder")
        self.assertEqual(moved.readings, before.readings)
        with self.assertRaisesRegex(BadInput, "A fit depends"):
            self.job.move_surface("worm-shaft", "shaft", "graduated-dial")

    def test_a_new_piece_is_asked_what_it_is_made_of(self):
        self.view._ask_new_piece()
        self.choose(self.view.new_material, "bronze")
        self.type(self.view.new_piece.edit, "Bush")
        self.assertEqual(self.job.pieces["bush"].material, "bronze")


class Jobs(WindowCase):
    def rows(self):
        return [row._entry.id for row in self.window.pages.currentWidget().jobs]

    def test_a_job_gets_another_name_and_reason(self):
        self.window.show_start()
        page = self.window.pages.currentWidget()
        for line, text in (
            ("Rename…", "Nuts for the table"),
            ("Its Reason…", "The old ones tipped."),
        ):
            self.pick(page.job_menu("t-nuts"), line)
            dialog = page.findChild(NameDialog)
            self.type(dialog.field.edit, text)
            page = self.window.pages.currentWidget()
        job = self.window.file.get("t-nuts")
        self.assertEqual(job.name, "Nuts for the table")
        self.assertEqual(job.reason, "The old ones tipped.")

    def test_a_job_is_put_away_brought_back_and_deleted(self):
        self.window.show_start()
        self.assertIn("t-nuts", self.rows())
        page = self.window.pages.currentWidget()
        self.pick(page.job_menu("t-nuts"), "Put Away")
        self.assertNotIn("t-nuts", self.rows())
        page = self.window.pages.currentWidget()
        page._show_other()
        self.assertEqual(self.rows(), ["t-nuts"])
        self.pick(page.job_menu("t-nuts"), "Bring Back")
        self.assertIn("t-nuts", self.rows())
        page = self.window.pages.currentWidget()
        self.pick(page.job_menu("t-nuts"), "Delete")
        self.assertNotIn("t-nuts", self.rows())
        says = [line.says for line in self.window.file.daybook("t-nuts")]
        self.assertTrue(says, "the daybook keeps it")
        self.window.actions_by_id["edit.undo"].trigger()
        self.settle()
        self.assertIn("t-nuts", self.rows())

    def test_taking_back_that_a_job_was_begun_closes_it(self):
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        self.type(page.fields["name"].edit, "A stop")
        self.type(page.fields["reason"].edit, "")
        self.assertIsNone(self.job, "Enter in the reason begins nothing")
        self.click(page.what.cards["other"])
        self.click(page.go)
        self.assertEqual(self.job.job.name, "A stop")
        self.window.actions_by_id["edit.undo"].trigger()
        self.settle()
        self.assertIsNone(self.job)
        self.assertNotIn("a-stop", self.rows())
        self.window.actions_by_id["edit.redo"].trigger()
        self.settle()
        self.assertEqual(self.job.job.name, "A stop")

    def test_the_number_of_bolts_is_asked_before_the_span_is_used(self):
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        self.type(page.fields["name"].edit, "Plate")
        self.click(page.what.cards["back-plate"])
        self.choose(page.combos["mate.chuck"], "chuck-130")
        self.click(page.go)
        self.assertIn("how many holes", self.job.plan.fit(4).problem)
        fits = self.stage("fits")
        fits.show_fit(4)
        self.type(fits.bolts.count.edit, "3")
        self.assertEqual(self.job.plan.made.values["bolts.circle"], 110.0)
        self.assertIn("but not twice over", fits.as_cut.text(), "197 of 233 N·m")
        self.type(fits.bolts.count.edit, "6")
        self.assertTrue(fits.as_cut.isHidden())


class AtTheDial(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job("back-plate-130")
        self.view = self.stage("cut")
        self.entry = self.view.field.edit

    def until_a_cut_is_asked(self):
        for _ in range(4):
            if self.view.screen.asks == "cut":
                return
            last = self.job.plan.advice.predicted
            self.type(self.entry, f"{last:.3f}")
        self.assertEqual(self.view.screen.asks, "cut")

    def test_a_size_typed_where_the_dial_is_asked_is_taken_as_the_reading(self):
        self.until_a_cut_is_asked()
        count = len(self.job.job.log.entries)
        last = [e.measured for e in self.job.job.log.entries if e.measured][-1]
        self.type(self.entry, f"{last:.3f}")
        self.assertEqual(self.job.job.log.entries[-1].measured, round(last, 3))
        self.assertEqual(self.job.job.log.entries[-1].dial, self.dial(count))

    def dial(self, count):
        return self.job.job.log.entries[count - 1].dial

    def test_a_dial_further_than_the_deepest_pass_is_refused(self):
        self.until_a_cut_is_asked()
        before = self.job.job.log
        self.type(self.entry, "60")
        self.assertEqual(self.job.job.log, before)
        self.assertIn("meant as a reading", self.view.field.message.text())
        self.assertEqual(self.entry.text(), "60")

    def test_what_can_be_both_is_asked(self):
        self.until_a_cut_is_asked()
        last = [e.measured for e in self.job.job.log.entries if e.measured][-1]
        # a dial that happens to stand where the size is
        dial, at = self.job.dial, self.job.job.log.entries[-1].dial
        self.job.touch_at(f"{last - 0.1 - at * dial.factor:.2f}")
        self.settle()
        typed = f"{dial.shows(at, self.job.touch) + 0.1:.2f}"
        before = self.job.job.log
        self.assertEqual(self.job.could_be(typed), (True, True))
        self.type(self.entry, typed)
        self.assertEqual(self.job.job.log, before)
        self.assertIn("say which it is", self.view.field.message.text())
        self.click(self.view.dial_button)
        self.assertGreater(len(self.job.job.log.entries), len(before.entries))
