from pathlib import Path

from msgspec.structs import replace
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from machinon.core.job.made_piece import made_for, role_of
from machinon.core.shop.belongings import starter_sets
from machinon.core.shop.things import Piece
from machinon.draw.piece_drawing import piece_drawing
from tests.desk.bench import WindowCase


class Shop(WindowCase):
    def setUp(self):
        super().setUp()
        self.window.actions_by_id["shop.open"].trigger()
        self.page = self.window.pages.currentWidget()

    def card(self):
        """The card of the chosen thing."""
        return self.page.card

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
        self.assertEqual(len(self.window.file.shop().instruments), 10)

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
            for surface in card.piece.surfaces:
                with self.subTest(entry.id, surface=surface.id):
                    spot = drawing.spot(surface.id)
                    self.assertIsNotNone(spot)
                    self.assertTrue(spot.label.startswith(surface.name))

    def test_what_goes_with_a_piece_is_begun_at_the_piece(self):
        """A drill chuck on a Morse 2, a tailstock of Morse 3: they want a sleeve."""
        self.page.choose("piece", "chuck-arbor")
        self.until(lambda: "MT" in self.card().fits.text())
        self.assertIn("with a sleeve between, MT3 to MT2", self.card().fits.text())
        make = "Make something for it"
        self.press_in(self.card(), make)
        asked = self.window.pages.currentWidget()
        self.assertNotIn("t-nut-strip", asked.what.cards, "no use to a shank")
        asked.left.emit()
        back = self.window.pages.currentWidget()
        self.assertEqual(back.card.piece.id, "chuck-arbor")
        self.press_in(back.card, make)
        asked = self.window.pages.currentWidget()
        asked.what.choose("taper-sleeve")
        self.type(asked.fields["name"].edit, "Sleeve for the drill chuck", enter=False)
        self.click(asked.go)
        mates = self.job.job.making.mates
        self.assertEqual(mates, {"socket": "tailstock", "tool": "chuck-arbor"})

    def test_something_can_be_made_for_every_piece(self):
        for piece in self.window.file.all_of(Piece):
            with self.subTest(piece.id):
                *likeliest, turned, plate = made_for(piece)
                self.assertEqual((turned.free, plate.free), (True, True))
                for family in likeliest:
                    self.assertIsNotNone(role_of(family, piece))

    def test_lists_go_out_and_in_and_a_wrong_one_changes_nothing(self):
        self.page.choose("instrument", "caliper")
        path = Path(self.folder) / "list.csv"
        self.page.export_to(path)
        text = path.read_text()
        path.write_text(text.replace("Digital caliper", "Old caliper"))
        self.page.import_from(path)
        self.assertEqual(len(self.window.file.shop().instruments), 11)
        before = self.window.file.shop()
        path.write_text("nonsense\n1\n")
        self.page.import_from(path)
        self.assertIn("Nothing was imported", self.page.says.text())
        self.assertEqual(self.window.file.shop(), before)
        self.page.add_starters()
        self.assertIn("all there", self.page.says.text())

    def test_a_machine_is_entered_shown_changed_and_taken_back(self):
        self.page.new_machine("mill")
        card = self.card()
        self.type(card.fields["name"].edit, "Bench mill", enter=False)
        self.type(card.fields["travel_x"].edit, "far")
        self.assertIn("number is missing", card.fields["travel_x"].message.text())
        self.assertEqual(card.fields["name"].text(), "Bench mill", "nothing lost")
        self.type(card.fields["travel_x"].edit, "12in")
        machine = self.window.file.get("bench-mill")
        self.assertAlmostEqual(machine.number("travel_x"), 304.8)
        self.page.undo()
        self.assertIsNone(self.window.file.get("bench-mill"))

    def test_a_machines_figure_is_changed_where_it_stands(self):
        self.page.choose("machine", "mill")
        card = self.card()
        self.assertFalse(card.list.isVisible(), "a machine is its picture")
        card.picture.setFocus()
        card.picture.stand_on("travel_z")
        QTest.keyClick(self.card().picture, Qt.Key.Key_Return)
        self.assertEqual(card.edit.text(), "380")
        self.type(card.edit, "ten")
        self.assertTrue(card.edit.isVisible(), "what was typed stays there")
        self.assertIn("ten", self.page.says.text())
        self.type(card.edit, "15in")
        self.assertEqual(self.window.file.get("mill").number("travel_z"), 381)
        # the next figure is an arrow and Enter away
        QTest.keyClick(self.card().picture, Qt.Key.Key_Right)
        QTest.keyClick(self.card().picture, Qt.Key.Key_Return)
        self.assertTrue(self.card().edit.isVisible())
        self.page.undo()
        self.assertEqual(self.window.file.get("mill").number("travel_z"), 380)

    def test_a_lathes_figure_too_and_its_nose_is_a_piece(self):
        self.page.choose("lathe", "lathe")
        card = self.card()
        card.begin_edit("swing_over_slide")
        self.type(card.edit, "400")
        self.assertIn("330", self.page.says.text(), "more than the bed allows")
        self.type(card.edit, "200")
        self.assertEqual(self.window.file.get("lathe").swing_over_slide, 200)
        self.card().begin_edit("seat")
        self.assertEqual(self.card().piece.id, "lathe-nose")

    def test_a_second_lathe_and_a_chuck_are_entered_for_a_new_job(self):
        self.page.new_lathe()
        card = self.card()
        for key, text in (
            ("name", "Watch lathe"),
            ("centre_height", "50"),
            ("between_centres", "250"),
            ("swing_over_slide", "60"),
            ("speeds", "300 to 3000"),
            ("dial_division", "0.01"),
        ):
            self.type(card.fields[key].edit, text, enter=False)
        card.keep()
        self.assertTrue(card.fields["lead_screw"].message.text())
        self.type(card.fields["lead_screw"].edit, "1")
        lathe = self.window.file.get("watch-lathe")
        self.assertEqual(self.window.file.get(lathe.nose).role, "nose")
        self.page.new_chuck()
        self.assertIs(self.app.focusWidget(), self.card().fields["name"].edit)
        # its stand-in of a name is selected: what is typed takes its place
        QTest.keyClicks(self.app.focusWidget(), "Chuck 50")
        QTest.keyClick(self.app.focusWidget(), Qt.Key.Key_Return)
        self.window.actions_by_id["job.new"].trigger()
        page = self.window.pages.currentWidget()
        page.what.choose("back-plate")
        noses, chucks = page.combos["mate.nose"], page.combos["mate.chuck"]
        nose = next(
            at for at in range(noses.count()) if "Watch lathe" in noses.itemText(at)
        )
        noses.setCurrentIndex(nose)
        self.choose(chucks, chucks.itemData(chucks.findText("Chuck 50")))
        self.type(page.fields["name"].edit, "Plate", enter=False)
        self.click(page.go)
        self.assertEqual(self.job.lathe.name, "Watch lathe", "on whose nose it goes")

    def test_a_seat_is_measured_without_a_job_and_what_fits_follows(self):
        self.page.choose("machine", "pillar-drill")
        self.card().measure_seat()
        survey = self.card()
        self.assertFalse(self.page.tree.isVisible(), "a survey has the whole width")
        self.pick(survey.surface_menu(), "Taper inside")
        self.choose(survey.instrument, "bore-gauge")
        for place, size in (("0", "17.782"), ("40", "15.784")):
            self.type(survey.place.edit, place)
            self.type(survey.reading.edit, size)
        self.assertEqual(survey.nominal.text(), "MT2")
        self.click(self.page.done)
        seat = self.window.file.get("pillar-drill").seat
        self.assertEqual(self.card().piece.id, seat)
        says = self.card().fits.text().splitlines()
        self.assertIn("Drill chuck on a Morse 2 arbor goes on by its MT2", says)

    def test_what_something_rests_on_stays_and_the_rest_goes_and_comes_back(self):
        for kind, id, says in (
            ("piece", "worm-shaft", "Hub for the rotary table"),
            ("piece", "lathe-nose", "Centre lathe"),
            ("lathe", "lathe", "made on it"),
            ("instrument", "caliper", "readings were taken"),
        ):
            self.page.remove(kind, id)
            self.assertIn(says, self.page.says.text())
        for kind, id in (
            ("piece", "chuck-arbor"),
            ("machine", "grinder"),
            ("instrument", "inch-micrometer"),
        ):
            self.page.choose(kind, id)
            self.page.remove(kind, id)
            self.assertIn("removed", self.page.says.text())
        self.assertIsNone(self.window.file.get("grinder"))
        names = [entry.id for entry in self.window.file.entries("piece")]
        self.assertNotIn("chuck-arbor", names)
        for _ in range(3):
            self.page.undo()
        self.assertEqual(self.window.file.get("grinder").name[:5], "Small")
        self.assertIsNotNone(self.window.file.get("chuck-arbor"))
        self.page.redo()
        self.assertIsNone(self.window.file.get("chuck-arbor"))

    def test_sets_in_the_shop_s_own_unit_stand_first(self):
        for last, own in (
            ("In inches", "Hand reamers 3 to 12"),
            ("In millimetres", "UNC taps #6 to 1/2, three of each"),
        ):
            menu = self.page.set_menu()
            words = [action.text() for action in menu.actions()]
            self.assertEqual(words[-1], last)
            self.assertIn(own, words)
            self.window.swap_units()

    def test_a_set_is_put_on_its_shelf_and_an_item_found_changed_removed(self):
        reamers = next(
            starter for starter in starter_sets("tools") if starter.key == "reamers"
        )
        self.page.add_set(reamers)
        card = self.card()
        self.type(card.find.edit, "reamer 6", enter=False)
        self.assertEqual(card.list.topLevelItemCount(), 1)
        card.list.setCurrentItem(card.list.topLevelItem(0))
        self.assertEqual(card.fields["size"].text(), "6")
        # cut short without a word, its end would be lost
        note = card.fields["note"]
        self.type(note.edit, "n" * 201)
        self.assertIn("up to 200 are allowed", note.message.text())
        self.assertEqual(len(note.text()), 201)
        self.type(note.edit, "worn, cuts 5.99")
        kept = [i for i in self.page.shelf("tools").of_kind("reamer") if i.note]
        self.assertEqual([drill.size for drill in kept], [6])
        card = self.card()
        card.remove()
        self.assertIn("Choose an item", self.page.says.text())
        card._on_chosen(card.list.topLevelItem(0))
        card.remove()
        self.page.undo()
        self.page.undo()
        self.assertEqual(len(self.page.shelf("tools").of_kind("reamer")), 7)

    def test_shelves_and_machines_have_their_own_lists(self):
        path = Path(self.folder) / "shelf.csv"
        for kind, id, head in (
            ("shelf", "holding", "kind,size"),
            ("machine", "mill", "kind,name,figure,value"),
            ("piece", "saw", "piece,role"),
        ):
            self.page._at = (kind, id)
            self.page.export_to(path)
            self.assertTrue(path.read_text().startswith(head), head)
        self.page.import_from(path)
        self.assertIn("Nothing in shelf.csv is new", self.page.says.text())

    def test_a_reading_that_came_in_a_file_moves_the_fit_that_rests_on_it(self):
        self.window.open_job("saw-arbor")
        before = self.job.plan.fit(1)
        self.window.show_shop()
        self.page = self.window.pages.currentWidget()
        self.page.choose("piece", "slitting-saw")
        path = Path(self.folder) / "pieces.csv"
        row = "Slitting saw 80 mm,bore,{},Three-point bore gauge\n"
        rows = "".join(row.format(size) for size in (22.014, 22.015, 22.016))
        path.write_text("piece,surface,value_mm,instrument\n" + rows)
        self.page.import_from(path)
        self.assertIn("1 imported", self.page.says.text())
        self.window.open_job("saw-arbor")
        # the mean of three of 22.010 and three of 22.015
        self.assertAlmostEqual(self.job.plan.fit(1).lower - before.lower, 0.0025, 3)
        path.write_text(path.read_text().replace("22.015", "bent"))
        self.page.import_from(path)
        self.assertIn("line 3, reading", self.page.says.text())

    def test_an_instrument_that_was_read_with_is_not_taken_back(self):
        """Taken into the shop, read with in a job: Undo in the shop leaves it there."""
        file = self.window.file
        shop = file.shop()
        new = replace(shop.instrument("bore-gauge"), id="new-gauge", name="New gauge")
        shop = replace(shop, instruments=(*shop.instruments, new))
        file.act("shop", "New gauge added.", shop)
        self.window.open_job("back-plate-130")
        self.job.add_reading("chuck-130", "recess", "95.02", "new-gauge")
        self.window.show_shop()
        page = self.window.pages.currentWidget()
        page.undo()
        self.assertIn("New gauge stays: readings were taken", page.says.text())
        self.window.show_start()
        self.window.actions_by_id["edit.undo"].trigger()
        self.assertIn(
            "new-gauge", [instrument.id for instrument in file.shop().instruments]
        )
        self.window.open_job("back-plate-130")
        self.assertEqual(self.job.job.id, "back-plate-130")
