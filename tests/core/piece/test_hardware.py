import unittest

from machinon.core.families import families, family_of
from machinon.core.piece.hardware import cap_screws
from machinon.core.piece.made import make
from machinon.core.route.own_hardware import own_hardware
from machinon.core.shop.belongings import Belongings, Item, item_forms, starter_sets
from machinon.core.threads.screw_thread import thread_of
from machinon.core.threads.screws import stock_lengths


class LongEnough(unittest.TestCase):
    def test_a_screw_clamps_and_goes_a_diameter_and_a_half_into_its_thread(self):
        """M8 through 18 less 8.6 of counterbore: 9.4 + 12 = 21.4, sold as 25."""
        plate = make(family_of("back-plate"), {"flange.thickness": "18"})
        (screws,) = plate.hardware
        self.assertEqual(screws.says, "3 × cap screw M8 × 25, for the chuck")

    def test_none_stands_on_the_floor_of_its_hole(self):
        """M6 through 8 into 7 deep: 16 would bottom, 12 holds by 4."""
        self.assertEqual(cap_screws("M6", 4, "", 8, 7).length, 12)
        self.assertEqual(cap_screws("M6", 4, "", 8, 7, blind=False).length, 16)

    def test_what_is_too_thick_for_any_screw_leaves_its_length_open(self):
        self.assertEqual(cap_screws("M6", 2, "", 900).name, "cap screw M6")
        self.assertEqual(cap_screws("M6", 2, "", 8, 0.5).length, 0)

    def test_a_set_screw_lies_under_the_bar(self):
        """20 of bar, a bit of 8, sunk by half: 5.5 are left."""
        bar = make(
            family_of("single-point-bar"),
            {"bar.diameter": "20", "bits.diameter": "8", "grubs.sunk": "0.5"},
        )
        self.assertEqual(bar.hardware[0].name, "set screw M4 × 5")

    def test_a_key_is_no_longer_than_the_shaft_that_it_lies_in(self):
        hub = make(
            family_of("hub-adapter"), {"shaft.length": "30", "key_bar.width": "6"}
        )
        self.assertEqual(hub.body.ends[1], 39)
        self.assertGreater(hub.values["key.width"], 6)
        self.assertIn("key 6 × 30", [part.name for part in hub.hardware])

    def test_a_bush_is_told_by_its_drill_and_its_outside(self):
        given = {"bush.outside": "12", "pattern.count": "6", "pattern.drill": "6.8"}
        bushes = make(family_of("drill-plate"), given).hardware[0]
        self.assertEqual(bushes.says, "6 × bush 6.8 × 12, guide the drill")

    def test_of_inch_screws_the_length_is_in_inches(self):
        name = cap_screws("1/4-20", 2, "", 8).name
        self.assertEqual(name, "cap screw 1/4-20 UNC × 3/4 in")

    def test_what_is_needed_can_be_bought(self):
        for family in families().values():
            for way in ({}, family.full, *family.ways):
                for hardware in make(family, way).hardware:
                    with self.subTest(family.key, part=hardware.name):
                        self.assertGreaterEqual(hardware.count, 1)
                        if hardware.kind == "set screw" and hardware.length:
                            lengths = stock_lengths(thread_of("M6"), True)
                            self.assertIn(hardware.length, lengths)


class OnTheShelf(unittest.TestCase):
    def said(self, *items: Item) -> str:
        shelf = Belongings("hardware", "Hardware", items)
        return own_hardware(make(family_of("back-plate"), {}), shelf)[0]

    def test_it_says_what_is_there_and_what_is_not(self):
        def screw(length: float, count: int) -> Item:
            return Item("screw", f"M8 × {length:g} cap", 8.0, 1.25, length, count)

        self.assertIn("yours, M8 × 25 cap", self.said(screw(25, 20)))
        self.assertIn("only 2 of yours", self.said(screw(25, 2)))
        self.assertIn("to be had", self.said(screw(40, 20)))

    def test_a_screw_as_long_as_its_mate_asks_is_not_said_to_be_there(self):
        lengths = [
            Item("screw", f"M8 × {long}", 8.0, 1.25, long, 9) for long in (30, 12)
        ]
        shelf = Belongings("hardware", "Hardware", tuple(lengths))
        # into the plate through a spindle's flange, whose thickness nobody asked for
        line = own_hardware(make(family_of("flange-plate"), {}), shelf)[0]
        self.assertIn("as long as its mate needs: yours, M8 × 12 to M8 × 30", line)

    def test_what_pieces_ask_for_has_its_kind_on_the_shelf(self):
        made_here = {"taper screw", "rod"}  # ground from a screw, cut off the rack
        kinds = set(item_forms("hardware")) | made_here
        for family in families().values():
            for way in ({}, family.full, *family.ways):
                for part in make(family, way).hardware:
                    with self.subTest(family.key, part=part.name):
                        self.assertIn(part.kind, kinds)

    def test_a_nut_a_washer_and_a_taper_pin_are_found_and_a_key_is_sawn_off(self):
        sets = {kit.key: kit.items() for kit in starter_sets("hardware")}
        items = (
            *sets["nuts"],
            *sets["washers"],
            Item("taper pin", "taper pin 3 × 24", 3.0, 0.0, 24.0, 5),
            Item("key", "key steel 6", 6.0, 6.0, 300.0, 1),
        )
        shelf = Belongings("hardware", "Hardware", items)
        lines = [
            line
            for key in ("stud", "detent-plate", "hub-adapter")
            for line in own_hardware(make(family_of(key), {}), shelf)
        ]
        for said in (
            "on it: yours, nut M10",
            "under the nut: yours, washer for M10",
            "lever to shaft: yours, taper pin 3 × 24",
            "in the shaft: yours, key steel 6",
        ):
            self.assertTrue(any(said in line for line in lines), (said, lines))

    def test_a_shelf_without_screws_is_not_asked(self):
        self.assertTrue(self.said().endswith("for the chuck"))
