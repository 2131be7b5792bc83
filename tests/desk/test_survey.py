from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from machinon.core.errors import BadInput
from tests.desk.bench import WindowCase


class Surveying(WindowCase):
    """What is typed in the Survey besides a plain reading."""

    def setUp(self):
        super().setUp()
        self.window.open_job("dial-hub")
        self.view = self.stage("survey")
        self.view.choose("worm-shaft", "shaft")

    def rows(self) -> str:
        layout = self.view.rows
        return " ".join(
            label.text()
            for i in range(layout.count())
            for label in layout.itemAt(i).widget().findChildren(QLabel)
        )

    def press(self, words: str, row: int):
        self.press_in(self.view.rows.itemAt(row).widget(), words)

    def test_pins_are_asked_before_the_reading_that_needs_them(self):
        self.pick(self.view.surface_menu(), "Dovetail outside")
        self.type(self.view.reading.edit, "137.32")
        self.assertTrue(self.view.aids["pin"].refused)
        self.assertEqual(self.view.reading.text(), "137.32", "nothing is lost")
        self.type(self.view.aids["pin"].edit, "10")
        self.type(self.view.aids["angle"].edit, "100")
        self.assertIn("up to 85", self.view.aids["angle"].message.text())
        self.type(self.view.aids["angle"].edit, "60")
        self.type(self.view.aids["depth"].edit, "14")
        self.type(self.view.reading.edit, "137.32")
        self.assertEqual(self.view.size.name(), "Between the corners")
        self.assertEqual(self.view.size.text(), "109.999")
        self.type(self.view.aids["pin"].edit, "40")
        self.assertIn("does not go with", self.view.aids["pin"].message.text())

    def test_a_span_follows_the_hole_that_was_measured_with_it(self):
        """Four holes of 6.6 with a span of 80: 103.80; of 6.4: 104.09."""
        self.pick(self.view.surface_menu(), "Bolt circle")
        self.choose(self.view.instrument, "caliper")
        self.type(self.view.reading.edit, "6.6")
        self.type(self.view.reading.edit, "")
        self.assertEqual(self.view.aids["hole"].text(), "6.6 mm")
        self.type(self.view.aids["holes"].edit, "4")
        self.type(self.view.reading.edit, "80")
        self.assertEqual(self.view.size.text(), "103.80")
        self.view.choose("worm-shaft", "hole")
        self.press("Strike", 0)
        self.type(self.view.reading.edit, "6.4")
        circle = self.job.plan.measured["worm-shaft", "bolt-circle"]
        self.assertAlmostEqual(circle.size, 104.086, places=3)

    def test_a_bare_temperature_that_no_hand_holds_is_asked_about(self):
        """68 without a unit is a warm day in Fahrenheit, or a part too hot to hold."""
        self.pick(self.view.surface_menu(), "Bore")
        self.type(self.view.temperature.edit, "68", enter=False)
        self.type(self.view.reading.edit, "30")
        self.assertIn("type 68F, or 68C", self.view.temperature.message.text())
        self.assertEqual(self.view.reading.text(), "30", "nothing is lost")
        for typed, warm in (("68F", 20.0), ("68C", 68.0), ("24", 24.0)):
            self.type(self.view.temperature.edit, typed, enter=False)
            self.type(self.view.reading.edit, "30")
            piece = self.job.plan.pieces[self.view.at[0]]
            reading = piece.surface(self.view.at[1]).readings[-1]
            self.assertAlmostEqual(reading.temperature, warm)

    def test_places_show_the_shape(self):
        self.pick(self.view.surface_menu(), "Bore")
        self.choose(self.view.instrument, "bore-gauge")
        self.type(self.view.place.edit, "sideways")
        self.type(self.view.reading.edit, "30")
        self.assertIn("front, middle, back", self.view.place.message.text())
        for place, size in (
            ("front 0", "30.000"),
            ("front 90", "30.006"),
            ("back 0", "30.011"),
        ):
            self.type(self.view.place.edit, place)
            self.type(self.view.reading.edit, size)
        self.assertEqual(self.view.says.shape.text(), "+8.0 µm")
        self.assertEqual(self.view.says.round.text(), "6.0 µm")
        self.assertIn("front 90°", self.rows())

    def test_a_reading_is_struck_or_kept_with_its_own_reason(self):
        self.type(self.view.reading.edit, "12.486")
        self.assertIn("half a millimetre", self.rows())
        row = self.view.rows.itemAt(3).widget()
        entry = next(e for e in row.findChildren(type(self.view.reading.edit)))
        entry.setText("the thimble was read wrong")
        self.press("Strike", 3)
        reading = self.job.pieces["worm-shaft"].surface("shaft").readings[3]
        self.assertEqual(reading.struck, "the thimble was read wrong")
        self.press("Count it", 3)
        self.assertIn("Kept: looked at and kept", self.rows())

    def test_five_mountings_are_judged(self):
        self.pick(self.view.surface_menu(), "Reseating test")
        for reading in ("0.01", "0.05", "0.02", "0.01"):
            self.type(self.view.reading.edit, reading)
        self.assertIn("1 more time", self.view.says.advice.text())
        self.type(self.view.reading.edit, "0.04")
        self.assertIn("stone them", self.view.says.advice.text())
        self.assertEqual(self.view.size.name(), "Run-out, mean")

    def test_the_measuring_sheet_has_a_page_for_every_few_surfaces(self):
        from pypdf import PdfReader

        for _ in range(3):
            self.view.choose("worm-shaft", "shaft")
            self.pick(self.view.surface_menu(), "T-slot")
        path = self.folder / "sheet.pdf"
        self.view.print_sheet(path)
        pages = PdfReader(path).pages
        self.assertEqual(len(pages), 2)
        text = " ".join(" ".join(p.extract_text() for p in pages).split())
        self.assertIn("T-slot neck 3", text)
        self.view.print_sheet(self.folder / "none" / "sheet.pdf")
        self.assertIn("could not be written", self.view.how.text())

    def test_a_surface_under_a_fit_stays_and_another_can_be_dropped(self):
        with self.assertRaises(BadInput):
            self.job.drop_surface("worm-shaft", "shaft")
        self.view.choose("worm-shaft", "key-across")
        self.pick(self.view.more_menu(), "Remove this surface")
        names = [surface.id for surface in self.job.pieces["worm-shaft"].surfaces]
        self.assertEqual(names, ["shaft", "shoulder", "key-width"])

    def test_an_inch_thread_is_found_in_a_metric_piece(self):
        self.pick(self.view.surface_menu(), "Thread outside")
        self.choose(self.view.instrument, "caliper")
        self.type(self.view.reading.edit, "7.85")
        self.click(self.view.next)
        self.type(self.view.reading.edit, "18tpi")
        self.view.choose("worm-shaft", "thread-major")
        self.assertIn("5/16", self.view.nominal.text())
        self.assertIn("BSW", self.view.nominal.text() + self.view.says.likely.text())


class ByKeysAlone(WindowCase):
    def test_surface_and_fit_are_added_from_the_keyboard(self):
        """Two menus by their keys, arrows and Enter; a reading; a fit."""
        self.window.open_job("drawbar-cap")
        self.menu(
            "survey.surface", Qt.Key.Key_Down, Qt.Key.Key_Right, Qt.Key.Key_Return
        )
        surfaces = self.job.pieces["spindle-top"].surfaces
        self.assertEqual(surfaces[-1].name, "Shaft or journal")
        self.type(self.window.job_page().view().reading.edit, "25")
        # the third of the surfaces that a fit can be on
        self.menu("fits.fit", *[Qt.Key.Key_Down] * 3, Qt.Key.Key_Return)
        self.assertEqual(self.job.job.fits[-1].surface, surfaces[-1].id)
        self.assertIsNotNone(self.job.plan.fits[-1].lower)

    def menu(self, command, *keys):
        self.window.actions_by_id[command].trigger()
        for key in keys:
            self.app.processEvents()
            QTest.keyClick(self.app.activePopupWidget(), key)
        self.app.processEvents()
