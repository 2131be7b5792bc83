from pathlib import Path

from machinon.draw.drawing import Text
from machinon.draw.piece_drawing import piece_drawing
from tests.desk.bench import WindowCase


class Shop(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.actions_by_id["shop.open"].trigger()
        self.page = self.window.pages.currentWidget()

    def card(self):
        return self.page.body.itemAt(0).widget()

    def test_an_instrument_is_entered_changed_and_taken_back(self):
        self.page.new_instrument()
        card = self.card()
        for key, text in (
            ("name", "Bore comparator"),
            ("resolution", "1um"),
            ("uncertainty", "2um"),
            ("repeatability", "5um"),
        ):
            self.type(card.fields[key].edit, text, enter=False)
        self.click(card.kinds["inside"])
        card.keep()
        self.assertIn("up to 0.002", card.fields["repeatability"].message.text())
        self.assertEqual(card.fields["name"].text(), "Bore comparator", "nothing lost")
        self.type(card.fields["repeatability"].edit, "0.7um")
        shop = self.window.file.shop()
        self.assertEqual(shop.instruments_for("inside")[0].name, "Bore comparator")
        self.page.undo()
        self.assertEqual(len(self.window.file.shop().instruments), 8)

    def test_a_surer_gauge_widens_the_band_of_the_fits_it_measured(self):
        self.window.open_job("back-plate-130")
        before = self.job.plan.fit(3).band["band"]
        self.window.show_shop()
        self.page = self.window.pages.currentWidget()
        self.page.choose("instrument", "bore-gauge")
        self.type(self.card().fields["uncertainty"].edit, "0.003")
        self.window.open_job("back-plate-130")
        self.assertGreater(self.job.plan.fit(3).band["band"], before + 0.002)

    def test_the_lathes_dial_rules_the_coach(self):
        self.page.choose("lathe", "lathe")
        self.type(self.card().fields["dial_division"].edit, "0.05")
        self.window.open_job("back-plate-130")
        self.assertAlmostEqual(self.job.plan.cut_state.division, 0.025)

    def test_a_piece_is_its_picture_and_says_what_goes_with_it(self):
        for entry in self.window.file.entries("piece"):
            self.page.choose("piece", entry.id)
            card = self.card()
            drawing = piece_drawing(
                card.piece,
                {s.id: card.measured[card.piece.id, s.id] for s in card.piece.surfaces},
                700,
                420,
            )
            said = [i.text for i in drawing.items if isinstance(i, Text)]
            for surface in card.piece.surfaces:
                with self.subTest(entry.id, surface=surface.id):
                    self.assertIn(surface.name, said)
                    self.assertIsNotNone(drawing.spot(surface.id))

    def test_lists_go_out_and_in_and_a_wrong_one_changes_nothing(self):
        path = Path(self.folder) / "list.csv"
        self.page.export_to(path)
        text = path.read_text()
        path.write_text(text.replace("Digital caliper", "Old caliper"))
        self.page.import_from(path)
        self.assertEqual(len(self.window.file.shop().instruments), 9)
        before = self.window.file.shop()
        path.write_text("nonsense\n1\n")
        self.page.import_from(path)
        self.assertIn("Nothing was imported", self.page.says.text())
        self.assertEqual(self.window.file.shop(), before)
        self.page.add_starters()
        self.assertIn("all there", self.page.says.text())
