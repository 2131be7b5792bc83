import tempfile
import unittest
from pathlib import Path

from machinon.core.shop.belongings import STARTER_SETS, Belongings, with_items
from machinon.core.shop.entry import with_instrument
from machinon.core.shop.machines import machine_of
from machinon.core.shop.things import (
    STARTER_INSTRUMENTS,
    Instrument,
    Lathe,
    Piece,
    Reading,
    Shop,
    Surface,
)
from machinon.store.demo_shop import demo_shop
from machinon.store.lists import (
    MOST_ROWS,
    ListFileError,
    export_instruments,
    export_machines,
    export_pieces,
    export_shelf,
    import_instruments,
    import_machines,
    import_pieces,
    import_shelf,
)
from machinon.store.opening import open_shop

HEAD = "name,reads,resolution,uncertainty,repeatability,suits,checked\n"


class Instruments(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "instruments.csv"
        self.shop = Shop(instruments=STARTER_INSTRUMENTS)

    def read(self, text, shop=None):
        self.path.write_text(text, encoding="utf-8")
        return import_instruments(shop or Shop(), self.path)

    def test_out_and_in_again_is_the_same(self):
        export_instruments(self.shop, self.path)
        back, count = import_instruments(self.shop, self.path)
        self.assertEqual(count, len(STARTER_INSTRUMENTS))
        for instrument, two in zip(
            back.instruments, self.shop.instruments, strict=True
        ):
            self.assertEqual(
                (instrument.id, instrument.suits, instrument.inch),
                (two.id, two.suits, two.inch),
            )
        fresh, _ = import_instruments(Shop(), self.path)
        for instrument, two in zip(
            fresh.instruments, self.shop.instruments, strict=True
        ):
            self.assertEqual((instrument.name, instrument.suits), (two.name, two.suits))
            self.assertAlmostEqual(instrument.uncertainty, two.uncertainty, places=6)

    def test_sizes_are_in_the_instruments_own_unit(self):
        """An inch micrometer of a tenth is 0.00254 mm; words mix as everywhere."""
        shop, _ = self.read(
            HEAD
            + "Inch mic,in,.0001,3 tenths,1 tenths,outside,\n"
            + 'Caliper,mm,0.01,0.03,10um,"outside,inside",on a block\n'
        )
        inch, caliper = shop.instruments
        self.assertAlmostEqual(inch.resolution, 0.00254)
        self.assertAlmostEqual(inch.uncertainty, 0.00762)
        self.assertEqual(caliper.suits, ("outside", "inside"))

    def test_one_of_the_same_name_takes_its_place(self):
        shop, _ = self.read(
            HEAD + "Digital caliper,mm,0.01,0.02,0.005,outside,\n", self.shop
        )
        self.assertEqual(len(shop.instruments), len(self.shop.instruments))
        self.assertEqual(shop.instrument("caliper").uncertainty, 0.02)

    def test_a_wrong_file_is_refused_by_line_and_nothing_is_half_imported(self):
        good = "Caliper,mm,0.01,0.03,0.01,outside,\n"
        for text, says in (
            ("", "columns are name"),
            ("name,price\nA,3\n", "lacks reads"),
            (HEAD.strip() + ",colour\n" + good, "'colour' is not one"),
            (HEAD + good + "Mic,mm,abc,0.03,0.01,outside,\n", "line 3, resolution"),
            (HEAD + "Mic,cm,0.01,0.03,0.01,outside,\n", "line 2, reads"),
            (HEAD + "Mic,mm,0.01,0.03,0.01,insides,\n", "did you mean inside"),
            (HEAD + "Mic,mm,0.01,0.03,0.01,,\n", "at least one kind"),
            (HEAD + "Mic,mm,0.01,0.01,0.03,outside,\n", "repeatability"),
            (HEAD + "Mic,mm,0.01\n", "line 2, uncertainty|suits"),
            (HEAD + good.strip() + ",more,and more\n", "more columns"),
            (HEAD + good * (MOST_ROWS + 1), f"more than {MOST_ROWS} rows"),
        ):
            with self.subTest(says), self.assertRaisesRegex(ListFileError, says):
                self.read(text)
        self.path.write_bytes(b"\xff\xfe\x00binary" * 50)
        with self.assertRaisesRegex(ListFileError, "not a text file"):
            import_instruments(self.shop, self.path)
        with self.assertRaisesRegex(ListFileError, "could not be read"):
            import_instruments(self.shop, self.path.with_name("none.csv"))


class Shelves(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "list.csv"

    def test_a_shelf_goes_out_and_in_again(self):
        items = next(
            starter for starter in STARTER_SETS if starter.key == "screws"
        ).items()
        shelf = with_items(Belongings("hardware", "Hardware"), items)
        export_shelf(shelf, self.path)
        back, count = import_shelf(Belongings("hardware", "Hardware"), self.path)
        self.assertEqual((back, count), (shelf, len(items)))

    def test_sizes_with_units_and_all_or_nothing(self):
        empty = Belongings("tools", "Tools")
        self.path.write_text("kind,size\ndrill,1/4in\ndrill,5.5\n")
        shelf, _ = import_shelf(empty, self.path)
        self.assertEqual([item.size for item in shelf.items], [5.5, 6.35])
        self.path.write_text("kind,size\ndrill,5.5\nspanner,10\n")
        with self.assertRaisesRegex(ListFileError, "line 3, kind.*Nothing was"):
            import_shelf(empty, self.path)
        self.path.write_text("kind,size\n" + "drill,5.5\n" * 1_000_000)
        with self.assertRaisesRegex(ListFileError, "too large for a list"):
            import_shelf(empty, self.path)

    def test_machines_go_out_and_in_and_known_ones_keep_their_seat(self):
        mill = machine_of(
            {"name": "Mill", "travel_x": "500", "speeds": "80, 200"},
            "mill",
            "m",
            False,
            seat="spindle",
        )
        export_machines([mill], self.path)
        (same,), _ = import_machines([mill], self.path, str.lower)
        self.assertEqual(same, mill)
        (new,), _ = import_machines([], self.path, str.lower)
        self.assertEqual((new.id, new.figures), ("mill", mill.figures))
        text = self.path.read_text()
        for wrong, says in (
            (text.replace("travel_x", "travel_q"), "line 3, figure"),
            (text.replace("500", "lots"), "line 3, travel_x"),
            (text.replace("mill,", "plough,"), "line 2, kind"),
        ):
            self.path.write_text(wrong)
            with self.assertRaisesRegex(ListFileError, says):
                import_machines([mill], self.path, str.lower)

    def test_lathes_go_with_the_machines_a_new_one_with_its_nose(self):
        lathe = Lathe(
            "lathe",
            "Shed lathe",
            114.3,
            508,
            120,
            (60, 2000),
            "nose",
            "radius",
            0.025,
            25.4 / 8,
            (20, 40),
            "MT2",
            True,
            {"spindle_bore": "20"},
        )
        export_machines([lathe], self.path)
        (same,), _ = import_machines([lathe], self.path, str.lower)
        self.assertEqual(same, lathe)
        (nose, new), count = import_machines([], self.path, str.lower)
        self.assertEqual((nose.role, new.nose, count), ("nose", nose.id, 1))
        self.assertEqual((new.stepless, new.speeds), (True, (60, 2000)))
        self.assertAlmostEqual(new.lead_screw, 3.175)
        head = "kind,name,figure,value\n"
        self.path.write_text(head + "lathe,Shed lathe,power,1.5\n")
        (stronger,), _ = import_machines([lathe], self.path, str.lower)
        self.assertEqual(stronger.figures, {"spindle_bore": "20", "power": "1.5"})
        self.assertEqual(stronger.speeds, lathe.speeds, "what is not said stays")
        for rows, says in (
            ("lathe,New,centre_height,150\n", "New, between_centres"),
            ("lathe,Shed lathe,swing_over_slide,900\n", "up to 228.6"),
            ("lathe,Shed lathe,swing,90\n", "line 2, figure.*swing_over_slide"),
        ):
            self.path.write_text(head + rows)
            with self.subTest(rows), self.assertRaisesRegex(ListFileError, says):
                import_machines([lathe], self.path, str.lower)


class Pieces(unittest.TestCase):
    """Pieces with their readings, as another shop may send them."""

    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "pieces.csv"
        self.shop = Shop(instruments=STARTER_INSTRUMENTS)
        self.names = {
            instrument.id: instrument.name for instrument in STARTER_INSTRUMENTS
        }

    def read(self, *pieces, text=""):
        if text:
            self.path.write_text(text, encoding="utf-8")
        return import_pieces(pieces, self.shop, self.path, lambda name: name.lower())

    def test_a_whole_shop_goes_out_and_in_again(self):
        file = open_shop(demo_shop(self.path.parent))
        self.addCleanup(file.close)
        pieces = [file.get(entry.id) for entry in file.entries("piece")]
        export_pieces(pieces, self.names, self.path)
        self.assertEqual(self.read(*pieces), ((), 0), "nothing of it is new")
        fresh, count = self.read()
        self.assertEqual(count, len(pieces))
        for old, new in zip(pieces, fresh, strict=True):
            with self.subTest(old.name):
                self.assertEqual((new.name, new.material), (old.name, old.material))
                for surface in old.surfaces:
                    again = new.surface(surface.id)
                    self.assertEqual(again.readings, surface.readings)
                    self.assertEqual(again.aids, surface.aids)
                    self.assertEqual(again.kind, surface.kind)

    def test_struck_ones_are_written_with_their_reason(self):
        readings = (
            Reading(22.01, "caliper", "22.01"),
            Reading(23.0, "caliper", "23", struck="misread"),
        )
        bore = Surface("bore", "Bore", "inside", "", readings)
        saw = Piece("saw", "Saw", "other", "steel", (bore,))
        export_pieces([saw], self.names, self.path)
        lines = self.path.read_text().splitlines()
        self.assertEqual(len(lines), 3)
        self.assertIn("23,23,Digital caliper,,,,misread", lines[2])
        # a reading struck since does not come back as one that counts
        self.path.write_text(self.path.read_text().replace("misread", ""))
        self.assertEqual(self.read(saw), ((), 0))

    def test_readings_are_added_to_what_there_is(self):
        bore = Surface("bore", "Bore", "inside", "", (Reading(22.0, "caliper"),))
        saw = Piece("saw", "Saw", "other", "steel", (bore,))
        (piece,), _ = self.read(
            saw,
            text="piece,surface,value_mm,instrument\n"
            "Saw,bore,22,Digital caliper\n"  # has it
            "Saw,bore,22,Digital caliper\n"  # read a second time
            'Saw,thickness,1/16in,"Depth micrometer"\n',
        )
        self.assertEqual([r.value for r in piece.surfaces[0].readings], [22, 22])
        self.assertEqual(piece.surfaces[1].kind, "length")
        self.assertAlmostEqual(piece.surfaces[1].readings[0].value, 1.5875)

    def test_two_new_pieces_never_share_an_id(self):
        (first, two), _ = self.read(text="piece\nArbor\nARBOR\n")
        self.assertNotEqual(first.id, two.id)

    def test_a_wrong_row_is_named_and_nothing_is_half_imported(self):
        head = "piece,role,material,surface,aids,value_mm,instrument,place\n"
        good = "A,,,shaft,,12,Digital caliper,\n"
        for row, says in (
            (",,,shaft,,12,Digital caliper,\n", "line 3, piece: Nothing is typed"),
            ("B,hat,,shaft,,12,Digital caliper,\n", "line 3, role"),
            ("B,,cheese,shaft,,12,Digital caliper,\n", "line 3, material"),
            ("B,,,shft,,12,Digital caliper,\n", "did you mean shaft"),
            ("B,,,shaft,,-12,Digital caliper,\n", "line 3, reading"),
            ("B,,,shaft,,12,Digital calliper,\n", "did you mean Digital caliper"),
            ("B,,,bore,,12,Micrometer set 0–150,\n", "cannot measure bores"),
            ("B,,,shaft,,12,Digital caliper,sideways\n", "line 3, place"),
            ("B,,,taper-in,,12,Digital caliper,\n", "without two places"),
            ("B,,,over-pins,pin=10,137,Digital caliper,\n", "line 3, angle|depth"),
            ("B,,,over-pins,pins=10,137,Digital caliper,\n", "needs no pins"),
        ):
            with self.subTest(row), self.assertRaisesRegex(ListFileError, says):
                self.read(text=head + good + row)


class HostileLists(unittest.TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.path = Path(folder.name) / "list.csv"

    def test_what_is_no_table_is_refused_whole(self):
        good = "Mic,mm,0.01,0.03,0.01,outside,\n"
        for text, says in (
            (HEAD + "x" * 200_000 + ",mm,0.01,0.03,0.01,outside,\n", "as a table"),
            (HEAD.strip() + ",name\n" + good, "stands twice"),
            (HEAD + '"Mic\nsecond line",mm,0.01,0.03,0.01,outside,\n', "one line"),
            (HEAD + "Mic\0,mm,0.01,0.03,0.01,outside,\n", "one line|as a table"),
        ):
            with self.subTest(says):
                self.path.write_text(text)
                with self.assertRaisesRegex(ListFileError, says):
                    import_instruments(Shop(), self.path)

    def test_no_cell_is_taken_for_a_formula_and_comes_back_as_it_was(self):
        names = ("=1+1", "+cmd", "-x", "@sum", "'quoted")
        shop = Shop()
        for i, name in enumerate(names):
            instrument = Instrument(f"i{i}", name, 0.01, 0.03, 0.01, ("outside",))
            shop = with_instrument(shop, instrument)
        export_instruments(shop, self.path)
        for line in self.path.read_text().splitlines()[1:]:
            self.assertNotIn(line[0], "=+-@")
        back, _ = import_instruments(Shop(), self.path)
        self.assertEqual(
            [instrument.name for instrument in back.instruments], list(names)
        )

    def test_a_planted_link_is_replaced_never_followed(self):
        victim = self.path.with_name("victim.txt")
        victim.write_text("precious")
        self.path.symlink_to(victim)
        export_instruments(Shop(), self.path)
        self.assertEqual(victim.read_text(), "precious")
        self.assertFalse(self.path.is_symlink())
