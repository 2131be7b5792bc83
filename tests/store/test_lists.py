import tempfile
import unittest
from pathlib import Path

from machinon.core.shop import STARTER_INSTRUMENTS, Shop
from machinon.store.lists import (
    MOST_ROWS,
    ListFileError,
    export_instruments,
    import_instruments,
)

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
        for one, two in zip(back.instruments, self.shop.instruments, strict=True):
            self.assertEqual(
                (one.id, one.suits, one.inch), (two.id, two.suits, two.inch)
            )
        fresh, _ = import_instruments(Shop(), self.path)
        for one, two in zip(fresh.instruments, self.shop.instruments, strict=True):
            self.assertEqual((one.name, one.suits), (two.name, two.suits))
            self.assertAlmostEqual(one.uncertainty, two.uncertainty, places=6)

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
            (HEAD + "Mic,mm,0.01,0.01,0.03,outside,\n", "repeats"),
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
