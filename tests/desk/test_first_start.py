"""An empty shop leads through the first machine, by keys alone."""

from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from tests.desk.bench import WindowCase


class FirstStart(WindowCase):
    demo = False

    @property
    def page(self):
        return self.window.pages.currentWidget()

    def figures(self) -> dict[str, str]:
        """What the picture says of each figure."""
        drawing = self.page.picture.drawing()
        texts = [item for item in drawing.items if hasattr(item, "anchor")]
        return {
            spot.tie: next(t.text for t in texts if spot.holds(*t.at))
            for spot in drawing.spots
        }

    def test_the_lathe_is_drawn_as_it_is_typed(self):
        self.assertEqual(set(self.figures().values()), {"not said yet"})
        self.type(self.page.fields["centre_height"].edit, "4 1/2in")
        self.assertEqual(self.figures()["centre_height"], "114.3 mm")
        self.choose(self.page.combos["units"], "in")
        self.assertEqual(self.figures()["centre_height"], "4.5 in")
        shown = self.page.fields["between_centres"].edit.placeholderText()
        self.assertEqual(shown, "28")
        self.type(self.page.fields["between_centres"].edit, "twenty", enter=False)
        self.assertEqual(self.figures()["between_centres"], "not said yet")

    def test_a_figure_leads_to_its_entry(self):
        self.page.picture.stand_on("swing_over_slide")
        QTest.keyClick(self.page.picture, Qt.Key.Key_Return)
        self.assertTrue(self.page.fields["swing_over_slide"].edit.hasFocus())

    def test_tab_and_enter_alone_set_up_the_shop(self):
        typed = iter(
            ("Shed", "", "Lathe", "150", "500", "170", "60 to 2000", "0.02", "", "3")
        )
        entries = 0
        page = self.page
        while not page.go.hasFocus():
            focus = self.app.focusWidget()
            self.assertLess(entries, 12, "a dozen entries at most")
            QTest.keyClicks(focus, next(typed, ""))
            QTest.keyClick(focus, Qt.Key.Key_Tab)
            entries += 1
        QTest.keyClick(page.go, Qt.Key.Key_Return)
        self.app.processEvents()
        lathe = self.window.file.get("lathe")
        self.assertEqual((lathe.centre_height, lathe.stepless), (150, True))
        self.assertIn("Lathe entered", self.window.file.daybook()[0].says)

    def test_what_is_refused_stays_and_says_what_is_allowed(self):
        for key, text in (
            ("shop", "Shed"),
            ("name", "Lathe"),
            ("centre_height", "150"),
            ("between_centres", "500"),
            ("swing_over_slide", "400"),  # more than twice the centre height
            ("speeds", "60, 120"),
            ("dial_division", "0.02"),
            ("lead_screw", "3"),
        ):
            self.type(self.page.fields[key].edit, text, enter=False)
        self.click(self.page.go)
        field = self.page.fields["swing_over_slide"]
        self.assertIn("300", field.message.text())
        self.assertEqual(field.text(), "400")
        self.assertIsNone(self.window.file.get("lathe"))
