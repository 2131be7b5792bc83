"""The ways from one place to another, by mouse, by keys and by menu."""

from msgspec.structs import replace
from PySide6.QtCore import QPoint, QRectF, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QDialog, QLabel, QMessageBox

from machinon.desk.commands import COMMANDS
from tests.desk.bench import WindowCase


class Ways(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job("back-plate-130")
        self.app.processEvents()

    @property
    def page(self):
        return self.window.job_page()

    def click_spot(self, drawing, tie):
        """Click in the middle of a spot of a drawing, as it is laid out now."""
        rect = drawing.rect_of(tie)
        self.assertIsInstance(rect, QRectF, tie)
        self.click(drawing, QPoint(*map(round, rect.center().toTuple())))

    def key(self, key, widget=None):
        QTest.keyClick(widget or self.app.focusWidget(), key)
        self.app.processEvents()

    def dialogs(self, kind):
        return [
            widget for widget in self.window.findChildren(kind) if widget.isVisible()
        ]

    def test_the_rail_is_clicked_and_walked_with_the_arrows(self):
        rail = self.page.rail
        for stage in ("fits", "route", "survey"):
            self.click(rail, rail.place_of(stage).center().toPoint())
            self.assertEqual(self.page.stage, stage)
        self.key(Qt.Key.Key_Right, rail)
        self.assertEqual(self.page.stage, "fits")
        self.key(Qt.Key.Key_Left, rail)
        self.key(Qt.Key.Key_Left, rail)
        self.assertEqual(self.page.stage, "proof", "and round the end")

    def test_a_number_in_the_stack_opens_its_fit_and_a_piece_its_survey(self):
        self.click_spot(self.page.stack, "fit.3")
        self.assertEqual(self.page.stage, "fits")
        self.assertEqual(self.page.view().number(), 3)
        self.click_spot(self.page.stack, "chuck-130")
        self.assertEqual(self.page.stage, "survey")
        self.assertEqual(self.page.view().title.text(), "Body diameter")

    def test_a_fit_is_opened_from_the_head_whatever_is_shown(self):
        self.stage("cut")
        target = self.page.targets.itemAt(0).widget()
        self.click(target)
        self.assertEqual((self.page.stage, self.page.view().number()), ("fits", 1))

    def test_arrows_walk_the_figures_of_a_drawing_and_enter_opens_one(self):
        view = self.stage("piece")
        drawing = view.drawing
        drawing.setFocus()
        ties = [spot.tie for spot in drawing.drawing().spots]
        at = ties.index("hub.diameter")
        for _ in range(at + 1):
            self.key(Qt.Key.Key_Right, drawing)
        self.key(Qt.Key.Key_Return, drawing)
        self.assertTrue(view.edit.isVisible())
        self.key(Qt.Key.Key_Escape, view.edit)
        self.assertFalse(view.edit.isVisible())
        self.assertTrue(drawing.hasFocus())

    def test_the_menu_says_what_would_be_taken_back(self):
        survey = self.stage("survey")
        survey.choose("chuck-130", "recess")
        self.type(survey.reading.edit, "95.021")
        self.window._enable()
        undo = self.window.actions_by_id["edit.undo"]
        self.assertIn("95.021", undo.text())
        undo.trigger()
        self.window._enable()
        self.assertIn("95.021", self.window.actions_by_id["edit.redo"].text())

    def test_what_needs_a_job_is_greyed_without_one(self):
        self.window.show_start()
        self.window._enable()
        for command in COMMANDS:
            action = self.window.actions_by_id[command.id]
            if command.id.startswith(("stage.", "survey.", "fits.")):
                self.assertFalse(action.isEnabled(), command.id)
        self.assertTrue(self.window.actions_by_id["job.new"].isEnabled())

    def test_every_key_there_is_stands_on_the_sheet_of_keys(self):
        self.window.actions_by_id["help.keys"].trigger()
        (sheet,) = self.dialogs(QDialog)
        said = [label.text() for label in sheet.findChildren(QLabel)]
        for command in COMMANDS:
            if command.keys:
                self.assertIn(command.keys, said, command.id)
        sheet.close()

    def test_about_names_the_licences_and_defers_to_those_who_know(self):
        self.window.actions_by_id["help.about"].trigger()
        (box,) = self.dialogs(QMessageBox)
        for words in ("MIT", "Open Font Licence", "qualified people"):
            self.assertIn(words, box.text())
        box.close()

    def test_a_job_that_is_not_there_any_more_is_said_and_left(self):
        self.window.open_job("gone")
        (box,) = self.dialogs(QMessageBox)
        self.assertIn("not in this shop", box.text())
        box.close()
        self.assertTrue(self.window.pages.currentWidget().jobs, "back at the start")

    def test_an_answer_of_the_reckoner_becomes_a_size_of_the_piece(self):
        self.window.actions_by_id["reckoner"].trigger()
        page = self.window.pages.currentWidget()
        self.type(page.search.edit, "25 h6")
        page._copy()
        copied = self.app.clipboard().text()
        self.assertIn("h6", copied)
        page._note()
        self.assertIn("h6", self.window.file.daybook()[0].says)


class ManyJobs(WindowCase):
    def setUp(self):
        super().setUp()
        job = self.window.file.get("drawbar-cap")
        with self.window.file.together():
            for i in range(40):
                made = replace(job, id=f"job-{i}", name=f"Stop number {i}")
                self.window.file.act(made.id, f"{made.name} begun.", made)
        self.window.show_start()
        self.page = self.window.pages.currentWidget()

    def test_those_touched_last_are_listed_and_others_found_by_name(self):
        self.assertEqual(len(self.page.jobs), 30)
        self.assertIn("18 older", self.page.older.text())
        self.type(self.page.find.edit, "number 3")
        names = [row.accessibleName() for row in self.page.jobs]
        self.assertEqual(len(names), 11, "3, and 30 to 39")
        self.type(self.page.find.edit, "BACK PLATE")
        self.assertEqual(len(self.page.jobs), 1)
        self.click(self.page.jobs[0])
        self.assertEqual(self.job.job.id, "back-plate-130")


class OtherShop(WindowCase):
    demo = False

    def test_without_a_lathe_a_new_job_leads_to_the_first_machine(self):
        self.window.new_job()
        self.assertIn("centre_height", self.window.pages.currentWidget().fields)

    def test_the_demo_is_a_copy_and_leaves_ones_own_shop_alone(self):
        self.window.open_demo()
        self.assertEqual(self.window.file.shop().name, "Ottermere Lane")
        self.assertNotEqual(self.window.file.path, self.path)
        self.window.close()
        self.open_window()
        self.assertEqual(self.window.file.entries("lathe"), [])
