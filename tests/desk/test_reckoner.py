from pathlib import Path

import pypdf
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel, QPushButton

from machinon.core.reckoning import reckonings
from machinon.desk.answer_paper import write_answer
from machinon.draw.drawing import Text
from machinon.draw.pictures import PICTURES, picture_of
from machinon.store.searching import Hit
from tests.desk.bench import WindowCase


class Pictures(WindowCase):
    def test_every_reckoning_has_a_picture_with_all_its_inputs_in_reach(self):
        self.assertEqual(set(PICTURES), set(reckonings()))
        for reckoning in reckonings().values():
            values, answer = (
                reckoning.read(reckoning.usual),
                reckoning.answer(reckoning.usual),
            )
            for width, height, size in ((700, 440, 14), (560, 380, 14), (330, 400, 21)):
                drawing = picture_of(
                    reckoning, values, answer.results, {}, width, height, size
                )
                with self.subTest(reckoning.name, width=width):
                    self.assertEqual(list(drawing.troubles()), [])
                for given in reckoning.inputs:
                    spot = drawing.spot(given.key)
                    if spot is None and reckoning.name == "mass":
                        continue  # a bar is not asked the sizes of tubes and blocks
                    with self.subTest(reckoning.name, key=given.key, width=width):
                        self.assertIsNotNone(spot)
                        left, top, wide, tall = spot.rect
                        self.assertTrue(left >= -1 and left + wide <= width + 1)
                        self.assertTrue(top >= -1 and top + tall <= height + 1)

    def test_an_input_that_follows_from_the_others_is_told_where_it_can_be_typed(self):
        """A face of 2 at 45° goes √2 deep; 3 and 4 make 5."""
        for name, said in (
            ("chamfer", ("1.414 mm", "1.414 mm")),
            ("triangle", ("5 mm",)),
            ("screw-torque", ("25.5 N·m", "8.8")),
        ):
            asked = reckonings()[name]
            values, answer = asked.read(asked.usual), asked.answer(asked.usual)
            drawing = picture_of(asked, values, answer.results, {}, 560, 380)
            words = [item.text for item in drawing.items if isinstance(item, Text)]
            for text in said:
                self.assertIn(text, words)
                words.remove(text)
            self.assertNotIn("–", words)


class Reckoner(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.open_job("back-plate-130")
        self.window.actions_by_id["reckoner"].trigger()
        self.page = self.window.pages.currentWidget()

    def say(self, text):
        self.type(self.page.search.edit, text, enter=False)

    def test_a_whole_sentence_is_answered_in_the_search_line(self):
        for text, answer in (
            ("tap drill 5/16-18", "Drill 6.5 mm"),  # of the shop's own drills
            ("25 h6", "24.987 to 25.000 mm"),
            ("mt3 angle", "2.8754°"),
            ("7 holes on 62", "26.901 mm centre to centre"),
            ("46 H7/g6", "Hole 46.000 to 46.025 mm"),
            ("hex 17", "19.63 mm (0.7728 in) of round"),
        ):
            with self.subTest(text):
                self.say(text)
                self.assertIn(answer, self.page.line.text())

    def test_what_was_not_said_is_asked_for_and_usual_until_then(self):
        """A hub of 60 on 40, 25 long: E s (1 − (d/D)²) / 2 d is 43 N/mm²."""
        page = self.window.pages.currentWidget()
        self.type(page.search.edit, "interference 0.03 on 40 press force")
        self.assertIn("Say this too: length", page.line.text())
        self.assertEqual(page.question.reckoning.name, "press-fit")
        self.assertEqual(page.question.values["diameter"], 40)
        self.assertIn("usual length and hub outside", page.says.text())
        self.assertAlmostEqual(page.question.answer["pressure"], 43.1, 1)
        page.begin_edit("hub_outside")
        self.type(page.edit, "100")
        self.assertEqual(page.question.values["hub_outside"], 100)

    def test_half_a_sentence_lists_what_it_could_be(self):
        self.say("chatter")
        self.assertEqual(self.page.line.text(), "")
        QTest.keyClick(self.page.search.edit, Qt.Key.Key_Return)
        self.assertEqual(self.page.question.reckoning.name, "boring-bar")
        self.say("zzzz")
        self.assertIn("not understood", self.page.understood.text())
        self.assertEqual(len(self.page.offers.findChildren(QPushButton)), 3)
        self.assertIsNone(self.page.question, "nothing of an earlier answer")

    def test_a_figure_is_changed_in_the_picture_and_all_follows(self):
        self.page.open("dovetail")
        before = self.page.question.answer["over_pins"]
        place = self.page.picture.rect_of("pin").center().toPoint()
        self.click(self.page.picture, place)
        self.type(self.page.edit, "3/8in")
        self.assertAlmostEqual(
            before - self.page.question.answer["over_pins"],
            (10 - 9.525) * (1 + 3**0.5),
            places=6,
        )

    def test_a_refused_figure_stays_where_it_was_typed_and_says_what_is_allowed(self):
        self.page.open("dovetail")
        self.page.begin_edit("pin")
        self.type(self.page.edit, "20")
        self.assertIn("up to 16 mm", self.page.says.text())
        self.assertTrue(self.page.edit.isVisible())
        self.assertEqual(self.page.edit.text(), "20")
        self.assertIsNotNone(
            self.page.question.answer, "the picture keeps the last one"
        )
        self.type(self.page.edit, "16")
        self.assertEqual(self.page.question.given["pin"], "16")

    def test_of_alternatives_the_one_typed_last_counts(self):
        self.page.open("chamfer")
        self.page.change("leg", "3")
        self.assertIsNone(self.page.question.wrong)
        self.assertAlmostEqual(self.page.question.answer["face"], 3 * 2**0.5)
        self.page.change("leg", "")
        self.assertIsNotNone(self.page.question.wrong, "one of them is needed")
        self.assertAlmostEqual(self.page.question.answer["leg"], 3)

    def test_the_answer_goes_into_the_jobs_daybook_and_its_piece(self):
        self.say("95 g6")
        self.click(self.page.note)
        job = self.job
        self.assertIn("95", self.window.file.daybook(job.job.id)[0].says)
        self.page.size_wished.emit("hub.diameter", "80 mm")
        self.assertEqual(job.plan.made.values["hub.diameter"], 80)
        self.page.size_wished.emit("hub.diameter", "900 mm")
        self.assertIn("to 400 mm does", self.page.says.text())

    def test_gears_and_speeds_are_those_of_the_shops_own_lathe(self):
        self.page.open("change-gears")
        self.assertIn(127, self.page.question.given["gears"])
        self.assertEqual(self.page.question.given["leadscrew"], 4)
        self.page.open("speeds")
        self.assertIn(self.page.question.answer["rpm"], self.job.lathe.speeds)
        self.page.open("passes")
        lines = self.job.lathe.dial_division
        self.assertEqual(self.page.question.given["division"], f"{lines:g}mm")

    def test_an_answer_is_printed_with_its_working(self):
        self.page.open("taper-setup")
        path = Path(self.folder) / "answer.pdf"
        write_answer(self.page.question.answer, self.page._draw, path, False)
        text = " ".join(pypdf.PdfReader(path).pages[0].extract_text().split())
        self.assertIn("Half angle", text)
        self.assertIn("geometry", text)

    def test_a_list_is_printed_to_its_end_on_as_many_pages_as_it_takes(self):
        """The last of 180 holes on 180 stands 2° before the first on the x axis."""
        self.page.open("bolt-circle")
        self.page.change("holes", "180")
        self.page.change("diameter", "180")
        path = Path(self.folder) / "answer.pdf"
        write_answer(self.page.question.answer, self.page._draw, path, False)
        pages = pypdf.PdfReader(path).pages
        pages = [" ".join(page.extract_text().split()) for page in pages]
        self.assertGreater(len(pages), 1)
        self.assertIn("180: 89.945, −3.141", pages[-1])
        self.assertIn(f"Page {len(pages)} of {len(pages)}", pages[-1])

    def test_the_working_opens_under_the_picture_and_follows_a_change(self):
        """A chamfer of leg 3 at 45° has a face of 3 · √2 = 4.243."""
        self.page.open("chamfer")
        self.assertTrue(self.page.under.isHidden())
        self.click(self.page.working)
        self.page.change("leg", "3")
        said = [label.text() for label in self.page.under.findChildren(QLabel)]
        self.assertIn("Source", said)
        self.assertTrue(any("4.243" in text for text in said), said)
        self.click(self.page.working)
        self.assertTrue(self.page.under.isHidden())

    def test_words_left_over_are_said_and_a_phrase_offered_can_be_taken(self):
        self.say("tap drill m8 banana")
        self.assertIn("Not understood: banana", self.page.understood.text())
        self.say("banana")
        self.click(self.page.offers.findChildren(QPushButton)[0])
        self.assertIsNotNone(self.page.question.answer)

    def test_the_line_finds_what_the_shop_has(self):
        for text, kind, page in (
            ("slitting saw arbor", "job", "JobPage"),
            ("three-jaw", "piece", "ShopPage"),
            ("rear recess", "surface", "ShopPage"),
            ("rotary table 150", "machine", "ShopPage"),
            ("thimble misread", "line", "DaybookPage"),
        ):
            with self.subTest(text):
                self.window.actions_by_id["reckoner"].trigger()
                self.page = self.window.pages.currentWidget()
                self.say(text)
                found = [
                    self.page.list.item(i)
                    for i in range(self.page.list.count())
                    if isinstance(
                        self.page.list.item(i).data(Qt.ItemDataRole.UserRole), Hit
                    )
                ]
                item = next(
                    i for i in found if i.data(Qt.ItemDataRole.UserRole).kind == kind
                )
                self.page._on_item_chosen(item)
                self.settle()
                shown = self.window.pages.currentWidget()
                self.assertEqual(type(shown).__name__, page)

    def test_the_pieces_of_a_stack_are_rows_and_a_wrong_cell_is_named(self):
        """Spindle 0.004 and chuck 0.01, both free to clock: 0.006 at best."""
        self.window.show_reckoner("runout-stack")
        self.page = self.window.pages.currentWidget()
        self.page.begin_edit("elements")
        rows = self.page.rows
        while rows.table.rowCount() > 1:
            rows.table.setCurrentCell(0, 0)
            rows._drop()
        for at, cells in enumerate((("spindle", "4 thou"), ("chuck", "x"))):
            for place, text in enumerate(cells):
                rows.table.item(at, place).setText(text)
        rows.take()
        self.assertIn("eccentricity of row 2", rows.says.text())
        self.assertEqual(rows.table.item(1, 1).text(), "x", "nothing is lost")
        rows.table.item(0, 1).setText("0.004")
        rows.table.item(1, 1).setText("0.01")
        rows.take()
        self.settle()
        answer = self.page.question.answer
        self.assertAlmostEqual(answer["worst"], 0.014)
        self.assertAlmostEqual(answer["best_value"], 0.006)

    def test_an_answer_noted_in_the_job_keeps_the_whole_list(self):
        self.window.open_job("back-plate-130")
        self.window.show_reckoner("bolt-circle")
        self.page = self.window.pages.currentWidget()
        self.page.change("holes", "12")
        (places,) = (
            v for v in self.page.question.answer.results.values() if isinstance(v, list)
        )
        shown = [label.text() for label in self.page.findChildren(QLabel)]
        self.assertTrue(any("1: 31, 0\n2: 26.847, 15.5\n" in text for text in shown))
        self.click(self.page.note)
        line = self.window.file.daybook("back-plate-130")[0].says
        for x, y in places:
            self.assertIn(f"{abs(y):.3f}".rstrip("0").rstrip("."), line, x)
